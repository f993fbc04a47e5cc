#pragma once
// Actions with a name of their own, by which a person's key for them is kept, and menus made of them.
#include <functional>
#include <QAction>
#include <QMenu>
#include <QWidget>

namespace skivet::app {

/// An action of `owner`, named `id` ("bench/open"). Its key is the person's, or `standard`, and follows the settings.
QAction* add_named_action(QWidget* owner, const QString& id, const QString& text, const QKeySequence& standard, const QString& tip,
                          std::function<void()> run, Qt::ShortcutContext context = Qt::WindowShortcut);
/// The key an action has where the person gave it none.
[[nodiscard]] QKeySequence standard_key(const QAction* action);
/// A key as it is written on keyboards.
[[nodiscard]] QString key_text(const QKeySequence& key);
/// In menus these stand together in one of their own.
void put_in_submenu(QAction* action, const QString& submenu);

/// The actions that can be used now, in their order, with their keys; those of a submenu where its first stands.
void fill_menu(QMenu* menu, const QList<QAction*>& actions);
/// A context menu of those that can be used.
void show_menu_of(QWidget* owner, const QList<QAction*>& actions, const QPoint& at);

}  // namespace skivet::app
