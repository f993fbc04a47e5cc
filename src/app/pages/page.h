#pragma once
#include <QAction>
#include <QWidget>

#include "app/models/session.h"
#include "app/widgets/button.h"
#include "app/widgets/helpers.h"

namespace skivet::app {

/// What the five pages share. A page shows the session's values and calls its functions; it computes nothing.
class Page : public QWidget {
    Q_OBJECT
public:
    Page(Session* session, QWidget* parent) : QWidget(parent), session_(session) {}
    /// Called each time the page comes to the front.
    virtual void entered() {}

signals:
    /// Wants another station to be shown (0 to 4).
    void go_to(int station);

protected:
    /// An action with a key that works anywhere on this page.
    QAction* add_action(const QString& text, const QKeySequence& key, const QString& tip, std::function<void()> run) {
        auto* action = new QAction(text, this);
        action->setShortcut(key);
        action->setShortcutContext(Qt::WidgetWithChildrenShortcut);
        action->setToolTip(tip);
        connect(action, &QAction::triggered, this, [run = std::move(run)] { run(); });
        addAction(action);
        return action;
    }
    Session* session_;
};

[[nodiscard]] inline QString to_text(const std::filesystem::path& path) { return QString::fromStdString(path.string()); }
[[nodiscard]] inline QString to_text(const std::string& value) { return QString::fromStdString(value); }
[[nodiscard]] inline QString to_text(std::string_view value) { return QString::fromUtf8(value.data(), qsizetype(value.size())); }

}  // namespace skivet::app
