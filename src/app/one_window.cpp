#include "app/one_window.h"

#include <QCryptographicHash>
#include <QDir>
#include <QLocalSocket>

namespace skivet::app {
namespace {

constexpr int patience = 2000;  // milliseconds
constexpr qsizetype longest = 1 << 20;

QString socket_of(const std::filesystem::path& project) {
    std::error_code code;
    const auto path = QByteArray::fromStdString(std::filesystem::weakly_canonical(project, code).string());
    auto folder = qEnvironmentVariable("XDG_RUNTIME_DIR");
    if (folder.isEmpty()) folder = QDir::tempPath();  // only its owner may connect, wherever it lies
    return folder + QStringLiteral("/skivet-") +
           QString::fromLatin1(QCryptographicHash::hash(path, QCryptographicHash::Sha256).toHex().left(24));
}

}  // namespace

OneWindow::OneWindow(const std::filesystem::path& project, QObject* parent) : QObject(parent) {
    server_.setSocketOptions(QLocalServer::UserAccessOption);
    const auto name = socket_of(project);
    // Whoever made it no longer answers, or `hand_over` had succeeded.
    QLocalServer::removeServer(name);
    server_.listen(name);
    connect(&server_, &QLocalServer::newConnection, this, [this] {
        auto* socket = server_.nextPendingConnection();
        connect(socket, &QLocalSocket::disconnected, socket, &QObject::deleteLater);
        connect(socket, &QLocalSocket::readyRead, this, [this, socket] {
            // Paths with a zero behind each, and one more at the end.
            const auto all = socket->peek(longest);
            if (!all.endsWith(QByteArray(1, '\0')) || (all.size() > 1 && !all.endsWith(QByteArray(2, '\0')))) {
                if (all.size() >= longest) socket->abort();
                return;
            }
            socket->readAll();
            std::vector<std::filesystem::path> files;
            for (const auto& path : all.split('\0'))
                if (!path.isEmpty()) files.emplace_back(path.toStdString());
            socket->write("ok");
            socket->flush();
            emit asked(files);
        });
    });
}

bool OneWindow::hand_over(const std::filesystem::path& project, const std::vector<std::filesystem::path>& files) {
    QLocalSocket socket;
    socket.connectToServer(socket_of(project));
    if (!socket.waitForConnected(patience)) return false;
    QByteArray all;
    for (const auto& file : files) all += QByteArray::fromStdString(file.string()) + '\0';
    socket.write(all + '\0');
    return socket.waitForBytesWritten(patience) && socket.waitForReadyRead(patience) && socket.readAll() == "ok";
}

}  // namespace skivet::app
