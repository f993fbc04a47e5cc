#pragma once
// Starting the game, to see what was delivered.
#include <QObject>
#include <QProcess>

#include "app/models/messages.h"

namespace skivet::app {

class GameProcess : public QObject {
    Q_OBJECT
public:
    explicit GameProcess(Messages& messages, QObject* parent = nullptr);
    ~GameProcess() override;
    /// Program and arguments. False with a message when there is none; a game that runs already is left to run.
    bool start(const std::vector<std::string>& command);
    [[nodiscard]] QProcess& process() { return process_; }

private:
    Messages& messages_;
    QProcess process_;
};

}  // namespace skivet::app
