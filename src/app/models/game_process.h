#pragma once
// Starting the game, to see what was delivered, and what it says.
#include <QElapsedTimer>
#include <QObject>
#include <QProcess>
#include <QTimer>

#include "app/models/messages.h"
#include "workflow/project.h"

namespace skivet::app {

class GameProcess : public QObject {
    Q_OBJECT
public:
    explicit GameProcess(Messages& messages, QObject* parent = nullptr);
    ~GameProcess() override;
    /// As the project says. False with a message when it does not; a game that runs already is left to run.
    bool start(const Project& project);
    /// Asks it to end, and ends it when it does not within some seconds.
    void stop();
    [[nodiscard]] bool running() const { return process_.state() != QProcess::NotRunning; }
    /// "running since 21:04", "ended", "ended with code 3"; empty before the first start.
    [[nodiscard]] QString state() const { return state_; }
    /// What it printed and wrote into its log since it was started, the last 2,000 lines.
    [[nodiscard]] const QStringList& lines() const { return lines_; }
    [[nodiscard]] QProcess& process() { return process_; }

signals:
    void said(const QStringList& lines);
    void changed();

private:
    /// Whole lines out of what came; the rest waits in `rest`. Without colors and other controls of a terminal.
    void take(QByteArray& rest, const QByteArray& bytes);
    void read_log();
    void ended(int code, QProcess::ExitStatus how);

    Messages& messages_;
    QProcess process_;
    QTimer log_timer_;
    QString log_file_, state_;
    qint64 log_at_ = 0;
    QByteArray printed_rest_, log_rest_;
    QStringList lines_;
};

}  // namespace skivet::app
