#pragma once
#include <QFrame>

class QLabel;
class QPlainTextEdit;

namespace skivet::app {

class Button;
class GameProcess;

/// What the game says while it runs, below a page; not to be seen before it was started.
class GameLog : public QFrame {
    Q_OBJECT
public:
    explicit GameLog(GameProcess* game, QWidget* parent = nullptr);

private:
    void show_state();

    GameProcess* game_;
    QLabel* state_;
    Button* stop_;
    QPlainTextEdit* text_;
};

}  // namespace skivet::app
