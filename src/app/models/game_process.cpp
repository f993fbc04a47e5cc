#include "app/models/game_process.h"

namespace skivet::app {

GameProcess::GameProcess(Messages& messages, QObject* parent) : QObject(parent), messages_(messages) {
    connect(&process_, &QProcess::errorOccurred, this,
            [this] { messages_.tell(tr("The game could not be started: %1").arg(process_.errorString())); });
    connect(&process_, &QProcess::readyReadStandardError, this, [this] {
        for (const auto& line : QString::fromUtf8(process_.readAllStandardError()).split('\n', Qt::SkipEmptyParts)) messages_.say(line);
    });
}

GameProcess::~GameProcess() {
    if (process_.state() == QProcess::NotRunning) return;
    process_.disconnect();
    process_.terminate();
    process_.waitForFinished(2000);
}

bool GameProcess::start(const std::vector<std::string>& command) {
    if (command.empty()) {
        messages_.tell(tr("Say in the settings how the game is started."));
        return false;
    }
    if (process_.state() != QProcess::NotRunning) {
        messages_.tell(tr("The game is running; it shows what was delivered."));
        return true;
    }
    QStringList arguments;
    for (std::size_t i = 1; i < command.size(); ++i) arguments << QString::fromStdString(command[i]);
    process_.start(QString::fromStdString(command[0]), arguments);
    messages_.say(tr("Started %1").arg(QString::fromStdString(command[0])));
    return true;
}

}  // namespace skivet::app
