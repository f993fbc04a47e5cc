#include "app/widgets/game_log.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QPlainTextEdit>

#include "app/models/game_process.h"
#include "app/theme/theme.h"
#include "app/widgets/button.h"
#include "app/widgets/helpers.h"

namespace skivet::app {

GameLog::GameLog(GameProcess* game, QWidget* parent) : QFrame(parent), game_(game) {
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    auto* panel = make_panel();
    box->addWidget(panel);
    auto* inner = new QVBoxLayout(panel);
    inner->setContentsMargins(16, 8, 12, 10);
    auto* head = new QHBoxLayout;
    head->addWidget(make_label(tr("THE GAME"), "heading"));
    head->addSpacing(12);
    state_ = make_label({}, "soft");
    head->addWidget(state_);
    head->addStretch();
    stop_ = new Button(tr("End it"), Button::Look::link);
    stop_->setObjectName(QStringLiteral("stop_game"));
    connect(stop_, &QPushButton::clicked, game_, &GameProcess::stop);
    head->addWidget(stop_);
    auto* copy = new Button(tr("Copy"), Button::Look::link);
    copy->setToolTip(tr("Copy what it said"));
    connect(copy, &QPushButton::clicked, this, [this] { QGuiApplication::clipboard()->setText(text_->toPlainText()); });
    head->addWidget(copy);
    auto* close = new Button(tr("Hide"), Button::Look::link);
    connect(close, &QPushButton::clicked, this, &QWidget::hide);
    head->addWidget(close);
    inner->addLayout(head);
    text_ = new QPlainTextEdit;
    text_->setObjectName(QStringLiteral("game_log"));
    text_->setAccessibleName(tr("What the game says"));
    text_->setReadOnly(true);
    text_->setFont(number_font(12));
    text_->setMaximumBlockCount(2000);
    text_->setPlaceholderText(tr("It has said nothing yet."));
    inner->addWidget(text_, 1);
    setFixedHeight(180);
    for (const auto& line : game_->lines()) text_->appendPlainText(line);
    connect(game_, &GameProcess::said, this, [this](const QStringList& lines) { text_->appendPlainText(lines.join('\n')); });
    connect(game_, &GameProcess::changed, this, [this] {
        if (game_->running() && game_->lines().isEmpty()) text_->clear();
        show();
        show_state();
    });
    setVisible(!game_->state().isEmpty());
    show_state();
}

void GameLog::show_state() {
    state_->setText(game_->state());
    stop_->setVisible(game_->running());
}

}  // namespace skivet::app
