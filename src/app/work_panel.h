#pragma once
#include <deque>
#include <QFrame>
#include <QLabel>
#include <QProgressBar>
#include <QVBoxLayout>

#include "app/models/jobs.h"

namespace skivet::app {

class Button;

/// All that is being done: how far it is, how fast, and how long it still takes; each can be ended, and halted where it can. Below it what
/// was done last. Lies over the lower left of the window until it is closed.
class WorkPanel : public QFrame {
    Q_OBJECT
public:
    WorkPanel(Jobs* jobs, QWidget* parent);
    /// Shows it, or hides it where it is shown.
    void toggle();

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void showEvent(QShowEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    struct Row {
        quint64 id;
        QWidget* frame;
        QLabel *name, *numbers;
        QProgressBar* bar;
        Button *pause, *cancel;
    };
    struct Ended {
        QString what;
        double seconds;
        qint64 at;  ///< seconds since 1970-01-01 UTC
    };
    [[nodiscard]] Row make_row(const Jobs::Work& work);
    void follow();
    void show_ended();
    void place();

    Jobs* jobs_;
    QVBoxLayout *rows_box_, *ended_box_;
    QLabel *nothing_, *ended_heading_;
    std::vector<Row> rows_;
    std::deque<Ended> ended_;  ///< the newest first
};

/// "45 s", "3 min 20 s", "2 h 5 min".
[[nodiscard]] QString duration_text(double seconds);
/// "1,240 of 3,680 · 210 a second · 12 s left".
[[nodiscard]] QString numbers_of(const Jobs::Work& work);

}  // namespace skivet::app
