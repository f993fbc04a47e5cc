#include "app/widgets/actions.h"

#include <map>

#include "app/models/preferences.h"

namespace skivet::app {
namespace {

constexpr const char* key_property = "standard_key";
constexpr const char* submenu_property = "submenu";

}  // namespace

QAction* add_named_action(QWidget* owner, const QString& id, const QString& text, const QKeySequence& standard, const QString& tip,
                          std::function<void()> run, Qt::ShortcutContext context) {
    auto* action = new QAction(text, owner);
    action->setObjectName(id);
    action->setProperty(key_property, QVariant::fromValue(standard));
    action->setToolTip(tip);
    action->setShortcutContext(context);
    const auto follow = [action, id, standard] { action->setShortcut(Preferences::the().key(id, standard)); };
    follow();
    QObject::connect(&Preferences::the(), &Preferences::changed, action, follow);
    QObject::connect(action, &QAction::triggered, owner, [run = std::move(run)] { run(); });
    owner->addAction(action);
    return action;
}

QKeySequence standard_key(const QAction* action) { return action->property(key_property).value<QKeySequence>(); }

QString key_text(const QKeySequence& key) {
    return key.toString(QKeySequence::NativeText).replace(QStringLiteral("Return"), QStringLiteral("Enter"));
}

void put_in_submenu(QAction* action, const QString& submenu) { action->setProperty(submenu_property, submenu); }

void fill_menu(QMenu* menu, const QList<QAction*>& actions) {
    std::map<QString, QMenu*> submenus;
    for (auto* action : actions) {
        if (action->isSeparator() || action->text().isEmpty() || !action->isVisible()) {
            if (action->isSeparator()) menu->addSeparator();
            continue;
        }
        const auto name = action->property(submenu_property).toString();
        auto* into = menu;
        if (!name.isEmpty()) {
            auto& submenu = submenus[name];
            if (!submenu) submenu = menu->addMenu(name);
            into = submenu;
        }
        into->addAction(action);
    }
}

void show_menu_of(QWidget* owner, const QList<QAction*>& actions, const QPoint& at) {
    auto* menu = new QMenu(owner);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->setObjectName(QStringLiteral("page_menu"));
    QList<QAction*> usable;
    for (auto* action : actions)
        if (action->isEnabled()) usable << action;
    fill_menu(menu, usable);
    menu->popup(at);
}

}  // namespace skivet::app
