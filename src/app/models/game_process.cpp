#include "app/models/game_process.h"

#include <QFile>
#include <QFileInfo>
#include <QRegularExpression>
#include <QTime>

#include "app/language.h"
#include "workflow/places.h"

namespace skivet::app {
namespace {

constexpr int most_lines = 2000, longest_line = 2000;
// A game may print faster than anybody reads; the window must not wait for it.
constexpr qint64 at_once = 64 << 10;  // bytes

QString plain(const QByteArray& line) {
    // Control sequences of ECMA-48, section 5.4: ESC [ parameters, intermediates, a final byte.
    static const QRegularExpression sequences(QStringLiteral("\\x1b\\[[0-?]*[ -/]*[@-~]"));
    auto text = QString::fromUtf8(line.left(4 * longest_line));
    text.remove(sequences);
    QString out;
    for (const auto c : text)
        if (c >= QLatin1Char(' ') || c == QLatin1Char('\t')) out += c;
    return out.size() > longest_line ? out.left(longest_line) + QStringLiteral("…") : out;
}

}  // namespace

GameProcess::GameProcess(Messages& messages, QObject* parent) : QObject(parent), messages_(messages) {
    process_.setProcessChannelMode(QProcess::MergedChannels);
    connect(&process_, &QProcess::errorOccurred, this, [this](QProcess::ProcessError error) {
        if (error != QProcess::FailedToStart) return;  // how it ended is told by `finished`
        state_ = tr("could not be started");
        messages_.refuse(tr("The game could not be started: %1").arg(process_.errorString()));
        emit changed();
    });
    connect(&process_, &QProcess::readyRead, this, [this] {
        auto bytes = process_.readAll();
        if (bytes.size() > at_once) {
            const auto left_out = bytes.size() - at_once;
            bytes = bytes.right(at_once);
            printed_rest_ = tr("… %L1 bytes more …").arg(left_out).toUtf8() + '\n';
        }
        take(printed_rest_, bytes);
    });
    connect(&process_, &QProcess::finished, this, &GameProcess::ended);
    log_timer_.setInterval(500);
    connect(&log_timer_, &QTimer::timeout, this, &GameProcess::read_log);
}

GameProcess::~GameProcess() {
    if (process_.state() == QProcess::NotRunning) return;
    process_.disconnect();
    process_.terminate();
    process_.waitForFinished(2000);
}

bool GameProcess::start(const Project& project) {
    const auto& play = project.play;
    if (play.command.empty()) {
        messages_.refuse(tr("Say in the settings how the game is started."));
        return false;
    }
    if (running()) {
        messages_.tell(tr("The game is running; it shows what was delivered."));
        return true;
    }
    QStringList arguments;
    for (std::size_t i = 1; i < play.command.size(); ++i) arguments << QString::fromStdString(play.command[i]);
    auto environment = QProcessEnvironment::systemEnvironment();
    for (const auto& word : play.environment)
        if (const auto equals = word.find('='); equals != std::string::npos)
            environment.insert(QString::fromStdString(word.substr(0, equals)), QString::fromStdString(word.substr(equals + 1)));
    process_.setProcessEnvironment(environment);
    process_.setWorkingDirectory(QString::fromStdString(play_folder(project).string()));
    lines_.clear();
    printed_rest_.clear();
    log_rest_.clear();
    log_file_.clear();
    if (!play.log.empty()) {
        log_file_ = QString::fromStdString((project.game / play.log).string());
        log_at_ = QFileInfo(log_file_).size();  // what an earlier game wrote is not this one's
        log_timer_.start();
    }
    state_ = tr("running since %1").arg(clock_text(QDateTime::currentSecsSinceEpoch()));
    process_.start(QString::fromStdString(play.command[0]), arguments);
    messages_.say(tr("Started %1").arg(QString::fromStdString(play.command[0])));
    emit changed();
    return true;
}

void GameProcess::stop() {
    if (!running()) return;
    process_.terminate();
    QTimer::singleShot(3000, &process_, [this] { process_.kill(); });
}

void GameProcess::take(QByteArray& rest, const QByteArray& bytes) {
    rest += bytes;
    QStringList fresh;
    qsizetype at = 0;
    for (auto end = rest.indexOf('\n'); end >= 0; end = rest.indexOf('\n', at)) {
        fresh << plain(rest.mid(at, end - at));
        at = end + 1;
    }
    rest.remove(0, at);
    if (rest.size() > at_once) fresh << plain(rest), rest.clear();  // a line without an end
    if (fresh.isEmpty()) return;
    for (const auto& line : fresh) messages_.say(line);
    lines_ += fresh;
    if (lines_.size() > most_lines) lines_.remove(0, lines_.size() - most_lines);
    emit said(fresh);
}

void GameProcess::read_log() {
    QFile file(log_file_);
    if (log_file_.isEmpty() || !file.open(QIODevice::ReadOnly)) return;
    if (file.size() < log_at_) log_at_ = 0;  // begun anew
    if (file.size() - log_at_ > at_once) {
        log_rest_ = tr("… %L1 bytes more …").arg(file.size() - at_once - log_at_).toUtf8() + '\n';
        log_at_ = file.size() - at_once;
    }
    if (file.size() == log_at_ || !file.seek(log_at_)) return;
    const auto bytes = file.read(at_once);
    log_at_ += bytes.size();
    take(log_rest_, bytes);
}

void GameProcess::ended(int code, QProcess::ExitStatus how) {
    log_timer_.stop();
    read_log();
    for (auto* rest : {&printed_rest_, &log_rest_})
        if (!rest->isEmpty()) take(*rest, "\n");
    state_ = how == QProcess::CrashExit ? tr("ended abruptly") : code == 0 ? tr("ended") : tr("ended with code %1").arg(code);
    messages_.say(tr("The game %1").arg(state_));
    emit changed();
}

}  // namespace skivet::app
