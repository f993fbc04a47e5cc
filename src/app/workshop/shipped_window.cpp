#include "app/workshop/shipped_window.h"

#include <QAction>
#include <QDateTime>

#include "app/guide_window.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/pages/page.h"
#include "app/widgets/card_rows.h"
#include "app/widgets/flow_row.h"
#include "app/workshop/workshop_actions.h"

namespace skivet::app {
namespace {

/// More are counted, and found in the catalog.
constexpr std::size_t most_changes = 5000;

QListView* make_list(QStandardItemModel* rows, const char* name, const QString& accessible) {
    auto* list = new QListView;
    list->setObjectName(QLatin1String(name));
    list->setAccessibleName(accessible);
    list->setModel(rows);
    list->setItemDelegate(new CardRows(false, list));
    list->setUniformItemSizes(true);
    list->setEditTriggers(QAbstractItemView::NoEditTriggers);
    list->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    return list;
}

QString name_of_version(const ShippedVersion& version) {
    return version.name.empty() ? QObject::tr("Without a name") : to_text(version.name);
}

}  // namespace

ShippedWindow::ShippedWindow(QWidget* parent, ShippedModel* model) : QDialog(parent), model_(model) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("shipped"));
    setWindowTitle(tr("As shipped"));
    resize(1100, 660);
    keep_size(this, "shipped");
    set_help(this, "updates");
    version_rows_ = new QStandardItemModel(this);
    change_rows_ = new QStandardItemModel(this);
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(16, 14, 16, 14);
    columns->setSpacing(18);
    columns->addWidget(make_versions());
    columns->addWidget(make_changes(), 1);
    connect(model_, &ShippedModel::changed, this, &ShippedWindow::refresh);
    connect(versions_->selectionModel(), &QItemSelectionModel::currentChanged, this, [this] {
        const auto seen = model_->seen();
        const auto row = versions_->currentIndex().row();
        compare_->setEnabled(seen && row >= 0 && std::size_t(row) != seen->now.value_or(~std::size_t{0}));
        forget_->setEnabled(compare_->isEnabled());
    });
    connect(changes_->selectionModel(), &QItemSelectionModel::currentChanged, this, &ShippedWindow::show_change);
    // Enter is the field's.
    for (auto* button : findChildren<QPushButton*>()) button->setAutoDefault(false);
    refresh();
    model_->look();
    name_->setFocus();
}

QWidget* ShippedWindow::make_versions() {
    auto* out = new QWidget;
    out->setFixedWidth(320);
    auto* box = new QVBoxLayout(out);
    box->setContentsMargins(0, 0, 0, 0);
    box->addWidget(make_label(tr("RECORDED VERSIONS"), "heading"));
    versions_ = make_list(version_rows_, "versions", tr("Recorded versions of the game"));
    box->addWidget(versions_, 1);
    compare_ = add_workshop_action(this, "shipped/compare", [this] { model_->compare_with(std::size_t(versions_->currentIndex().row())); });
    forget_ = add_workshop_action(this, "shipped/forget", [this] { model_->forget(std::size_t(versions_->currentIndex().row())); });
    for (auto* action : {compare_, forget_}) action->setEnabled(false);
    auto* row = new FlowRow;
    row->addWidget(new Button(compare_, Button::Look::link));
    row->addWidget(new Button(forget_, Button::Look::link));
    row->addStretch();
    box->addLayout(row);
    box->addSpacing(12);
    box->addWidget(make_label(tr("The installation is clean now? Give the version a name."), "soft", true));
    name_ = new QLineEdit;
    name_->setObjectName(QStringLiteral("version_name"));
    name_->setAccessibleName(tr("Name of the version"));
    name_->setPlaceholderText(tr("as 1.2, or the day of its update"));
    box->addWidget(name_);
    record_ = add_workshop_action(this, "shipped/record", [this] {
        const auto name = name_->text().trimmed();
        model_->record(name.isEmpty() ? day_text(QDateTime::currentSecsSinceEpoch(), true) : name);
        name_->clear();
    });
    connect(name_, &QLineEdit::returnPressed, record_, &QAction::trigger);
    auto* button = new Button(record_, Button::Look::primary);
    button->setObjectName(QStringLiteral("record_version"));
    auto* bottom = new FlowRow;
    bottom->addStretch();
    bottom->addWidget(button);
    box->addLayout(bottom);
    return out;
}

QWidget* ShippedWindow::make_changes() {
    auto* out = new QWidget;
    auto* box = new QVBoxLayout(out);
    box->setContentsMargins(0, 0, 0, 0);
    title_ = make_label({}, "heading", true);
    box->addWidget(title_);
    what_ = new QWidget;
    auto* columns = new QHBoxLayout(what_);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->setSpacing(16);
    changes_ = make_list(change_rows_, "changed_textures", tr("Textures that are other than in this version"));
    changes_->setFixedWidth(300);
    columns->addWidget(changes_);
    auto* right = new QVBoxLayout;
    auto* shared = new SharedView(this);
    before_ = new ImageView(shared);
    now_ = new ImageView(shared);
    auto *upper = new QHBoxLayout, *lower = new QHBoxLayout;
    add_titled(upper, before_, tr("As it was"));
    add_titled(lower, now_, tr("As it is"));
    right->addLayout(upper, 1);
    right->addLayout(lower, 1);
    words_ = make_label({}, "soft", true);
    words_->setMinimumHeight(36);
    words_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    right->addWidget(words_);
    columns->addLayout(right, 1);
    box->addWidget(what_, 1);
    nothing_ = make_label({}, "soft", true);
    box->addWidget(nothing_);
    box->addStretch();
    return out;
}

void ShippedWindow::refresh() {
    const auto seen = model_->seen();
    const int chosen = changes_->currentIndex().row();
    version_rows_->clear();
    change_rows_->clear();
    if (!seen) {
        title_->setText(tr("COMPARING…"));
        what_->hide();
        nothing_->hide();
        return;
    }
    for (std::size_t v = 0; v < seen->versions.size(); ++v) {
        const auto& version = seen->versions[v];
        const bool now = seen->now == v;
        auto* row = new QStandardItem(now ? tr("%1 (compared with)").arg(name_of_version(version)) : name_of_version(version));
        QStringList under;
        if (version.at > 0) under << day_text(version.at, true);
        const auto& match = seen->matches[v];
        under << (match.same == match.sources ? tr("as installed now") : tr("%1 of %2 sources").arg(match.same).arg(match.sources));
        row->setData(under.join(QStringLiteral(" · ")), CardUnder);
        row->setData(row->text() + ", " + row->data(CardUnder).toString(), Qt::AccessibleTextRole);
        version_rows_->appendRow(row);
        if (now) versions_->setCurrentIndex(version_rows_->index(int(v), 0));
    }
    std::map<ShippedChange::What, std::size_t> counts;
    for (const auto& change : seen->changes) ++counts[change.what];
    for (std::size_t i = 0; i < std::min(seen->changes.size(), most_changes); ++i) {
        const auto& change = seen->changes[i];
        const auto path = to_text(change.inner.back());
        auto* row = new QStandardItem(path.mid(path.lastIndexOf('/') + 1));
        QStringList under{spoken(skivet::name_of(change.what)), to_text(change.source.filename())};
        if (!change.as_in.empty()) under << tr("as in %1").arg(to_text(change.as_in));
        row->setData(under.join(QStringLiteral(" · ")), CardUnder);
        row->setToolTip(path);
        row->setData(row->text() + ", " + row->data(CardUnder).toString(), Qt::AccessibleTextRole);
        change_rows_->appendRow(row);
    }
    QStringList parts;
    for (const auto& [what, count] : counts) parts << tr("%1 %2").arg(count).arg(spoken(skivet::name_of(what)));
    if (seen->unseen > 0) parts << tr("%L1 not looked at yet").arg(seen->unseen);
    if (!seen->now) title_->setText(tr("NOTHING IS RECORDED YET"));
    else
        title_->setText(
            parts.isEmpty()
                ? tr("EVERYTHING IS AS IN %1").arg(name_of_version(seen->versions[*seen->now]).toUpper())
                : tr("OTHER THAN IN %1: %2").arg(name_of_version(seen->versions[*seen->now]).toUpper(), parts.join(QStringLiteral(", "))));
    what_->setVisible(change_rows_->rowCount() > 0);
    nothing_->setVisible(change_rows_->rowCount() == 0);
    nothing_->setText(seen->now
                          ? tr("An update, or another program's change, will be shown here, each texture as it was and as it is.")
                          : tr("Recorded once, a clean installation tells later what an update, another program or you yourself changed."));
    if (change_rows_->rowCount() > 0)
        changes_->setCurrentIndex(change_rows_->index(std::clamp(chosen, 0, change_rows_->rowCount() - 1), 0));
    show_change();
}

void ShippedWindow::show_change() {
    for (auto* view : {before_, now_}) {
        view->set_image({});
        view->set_message({});
    }
    words_->clear();
    const auto seen = model_->seen();
    const auto row = changes_->currentIndex().row();
    if (!seen || row < 0 || std::size_t(row) >= seen->changes.size()) return;
    const auto& change = seen->changes[std::size_t(row)];
    const auto path = to_text(change.inner.back());
    words_->setText(change.what == ShippedChange::What::moved  ? tr("%1 was %2").arg(path, to_text(change.from))
                    : !change.as_in.empty()                    ? tr("%1: as the game's version %2 has it").arg(path, to_text(change.as_in))
                    : change.what == ShippedChange::What::gone ? path
                                                               : tr("%1: the game's new version, or another program").arg(path));
    model_->pictures(
        this, std::size_t(row),
        [this, row, has_before = !change.before.empty(), has_now = !change.now.empty()](const QImage& before, const QImage& now) {
            if (changes_->currentIndex().row() != row) return;
            const auto show = [](ImageView* view, const QImage& image, const QString& otherwise) {
                if (image.isNull()) view->set_message(otherwise);
                else view->set_image(image);
            };
            show(before_, before, has_before ? tr("Its picture is not kept any more") : tr("It was not there"));
            show(now_, now, has_now ? tr("No picture") : tr("The game has it no more"));
        });
}

}  // namespace skivet::app
