#pragma once
#include <filesystem>
#include <functional>
#include <QJsonObject>
#include <QWidget>

#include "app/widgets/actions.h"
#include "app/widgets/button.h"
#include "app/widgets/helpers.h"
#include "workflow/project.h"

namespace skivet::app {

/// The pages, by what they are for; their order, titles and counts are in page_list.h.
enum class PageId : std::uint8_t { sources, catalog, bench, fitting, delivery };

/// What pages share. A page shows its model's values and calls its functions; it computes nothing and decides nothing.
class Page : public QWidget {
    Q_OBJECT
public:
    /// `id` begins the names of its actions.
    Page(const char* id, QWidget* parent) : QWidget(parent), id_(QLatin1String(id)) {}
    /// Called each time the page comes to the front.
    virtual void entered() {}
    /// Where one is on the page, for the next time the project is opened; and back there. What is not there any more is passed over.
    [[nodiscard]] virtual QJsonObject view() const { return {}; }
    virtual void restore(const QJsonObject&) {}

signals:
    /// Wants another page to be shown.
    void go_to(PageId page);
    /// Wants this piece on the fitting page.
    void fit_wanted(PieceId piece);

protected:
    /// An action with a key that works anywhere on this page. `id`: its name among the page's.
    QAction* add_action(const char* id, const QString& text, const QKeySequence& key, const QString& tip, std::function<void()> run) {
        return add_named_action(this, id_ + QLatin1Char('/') + QLatin1String(id), text, key, tip, std::move(run),
                                Qt::WidgetWithChildrenShortcut);
    }
    /// What is under the pointer, or has the focus, is what the page's actions are about.
    void contextMenuEvent(QContextMenuEvent* event) override;

public:
    [[nodiscard]] const QString& id() const { return id_; }

private:
    QString id_;
};

[[nodiscard]] inline QString to_text(const std::filesystem::path& path) { return QString::fromStdString(path.string()); }
[[nodiscard]] inline QString to_text(const std::string& value) { return QString::fromStdString(value); }
[[nodiscard]] inline QString to_text(std::string_view value) { return QString::fromUtf8(value.data(), qsizetype(value.size())); }

}  // namespace skivet::app
