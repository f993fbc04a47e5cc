#include "app/instance.h"

#include <QDataStream>
#include <QLocalSocket>

#include "base/file_write.h"
#include "base/own_folders.h"

namespace skivet::app {

namespace fs = std::filesystem;

namespace {

constexpr int patience = 2000;  // milliseconds
constexpr qsizetype longest = 4 << 20;
constexpr quint32 form = 2;

QString socket_in(const fs::path& folder) { return QString::fromStdString((folder / "skivet.socket").string()); }
QByteArray bytes_of(const fs::path& path) { return QByteArray::fromStdString(path.string()); }

}  // namespace

QByteArray to_bytes(const StartRequest& request) {
    QByteArray body, out;
    QDataStream stream(&body, QIODevice::WriteOnly);
    stream.setVersion(QDataStream::Qt_6_0);
    QList<QByteArray> files, play;
    for (const auto& file : request.files) files << bytes_of(file);
    for (const auto& word : request.play) play << QByteArray::fromStdString(word);
    stream << form << bytes_of(request.project) << bytes_of(request.game) << files << play;
    QDataStream outer(&out, QIODevice::WriteOnly);
    outer << body;
    return out;
}

std::optional<StartRequest> request_from(const QByteArray& bytes) {
    QByteArray body;
    QDataStream outer(bytes);
    outer >> body;
    if (outer.status() != QDataStream::Ok) return std::nullopt;
    QDataStream stream(body);
    stream.setVersion(QDataStream::Qt_6_0);
    quint32 version = 0;
    QByteArray project, game;
    QList<QByteArray> files, play;
    stream >> version;
    if (version != form) return std::nullopt;
    stream >> project >> game >> files >> play;
    if (stream.status() != QDataStream::Ok) return std::nullopt;
    StartRequest out{project.toStdString(), game.toStdString(), {}, {}};
    for (const auto& file : files) out.files.emplace_back(file.toStdString());
    for (const auto& word : play) out.play.push_back(word.toStdString());
    return out;
}

fs::path Instance::usual_folder() {
    if (const auto folder = qEnvironmentVariable("XDG_RUNTIME_DIR"); !folder.isEmpty()) return folder.toStdString();
    return user_state_folder();
}

Instance::Instance(const fs::path& folder, QObject* parent) : QObject(parent) {
    std::error_code code;
    make_folders(folder, code);
    // Whoever has the lock answers, or is about to; without it the socket is another's.
    auto lock = FileLock::take(folder / "skivet.lock", true);
    if (!lock) return;
    lock_ = std::move(*lock);
    server_.setSocketOptions(QLocalServer::UserAccessOption);
    QLocalServer::removeServer(socket_in(folder));  // of a process that is gone
    server_.listen(socket_in(folder));
    connect(&server_, &QLocalServer::newConnection, this, [this] {
        while (auto* socket = server_.nextPendingConnection()) {
            connect(socket, &QLocalSocket::disconnected, socket, &QObject::deleteLater);
            const auto read = [this, socket] {
                const auto all = socket->peek(longest);
                if (all.size() >= longest) return socket->abort();
                const auto request = request_from(all);
                if (!request) return;  // more is coming, or it says nothing we know
                socket->readAll();
                socket->write("ok");
                socket->flush();
                emit asked(*request);
            };
            connect(socket, &QLocalSocket::readyRead, this, read);
            if (socket->bytesAvailable()) read();
        }
    });
}

bool Instance::hand_over(const fs::path& folder, const StartRequest& request) {
    QLocalSocket socket;
    socket.connectToServer(socket_in(folder));
    if (!socket.waitForConnected(patience)) return false;
    socket.write(to_bytes(request));
    return socket.waitForBytesWritten(patience) && socket.waitForReadyRead(patience) && socket.readAll() == "ok";
}

}  // namespace skivet::app
