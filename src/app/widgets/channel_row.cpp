#include "app/widgets/channel_row.h"

#include <QActionGroup>
#include <QHBoxLayout>

#include "app/widgets/button.h"
#include "app/widgets/flow_row.h"

namespace skivet::app {

ChannelRow::ChannelRow(QWidget* parent) : QWidget(parent) {
    auto* row = new FlowRow(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(5);
    auto* group = new QActionGroup(this);
    const struct {
        QString name, tip;
        int key;
        Channels channels;
    } choices[] = {{tr("color"), tr("Color without alpha"), Qt::Key_C, Channels::color},
                   {tr("R"), tr("Red as gray"), Qt::Key_R, Channels::red},
                   {tr("G"), tr("Green as gray"), Qt::Key_G, Channels::green},
                   {tr("B"), tr("Blue as gray"), Qt::Key_B, Channels::blue},
                   {tr("A"), tr("Alpha as gray"), Qt::Key_A, Channels::alpha},
                   {tr("alpha over"), tr("Color with alpha over a checker"), Qt::Key_O, Channels::alpha_over},
                   {tr("lit"), tr("A normal map under a light that follows the pointer"), Qt::Key_L, Channels::lit}};
    for (const auto& choice : choices) {
        auto* action = new QAction(choice.name, this);
        action->setCheckable(true);
        action->setChecked(choice.channels == channels_);
        action->setData(int(choice.channels));
        action->setToolTip(QStringLiteral("%1  (Alt+%2)").arg(choice.tip, QKeySequence(choice.key).toString()));
        group->addAction(action);
        connect(action, &QAction::triggered, this, [this, channels = choice.channels] {
            set_channels(channels);
            emit chosen(channels);
        });
        actions_ << action;
        auto* button = new Button(action, Button::Look::toggle);
        button->setFocusPolicy(Qt::TabFocus);
        row->addWidget(button);
        auto* key = new QAction(this);
        key->setShortcut(QKeySequence(Qt::ALT | choice.key));
        key->setShortcutContext(Qt::WindowShortcut);
        connect(key, &QAction::triggered, action, &QAction::trigger);
        addAction(key);
    }
    row->addStretch();
}

void ChannelRow::set_channels(Channels channels) {
    channels_ = channels;
    for (auto* action : actions_) action->setChecked(action->data().toInt() == int(channels));
}

}  // namespace skivet::app
