#include "app/workshop/take_window.h"

#include <QAction>
#include <QFormLayout>
#include <QHBoxLayout>

#include "app/guide_window.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/widgets/titled_view.h"
#include "app/workshop/workshop_actions.h"
#include "bench/alpha_way.h"
#include "bench/cube.h"

namespace skivet::app {
namespace {

constexpr std::uint32_t shown_side = 512;

const std::pair<const char*, ExportAs> ways[] = {{QT_TRANSLATE_NOOP("Take", "PNG"), ExportAs::png},
                                                 {QT_TRANSLATE_NOOP("Take", "PNG, 16 bits"), ExportAs::png16},
                                                 {QT_TRANSLATE_NOOP("Take", "TIFF"), ExportAs::tiff},
                                                 {QT_TRANSLATE_NOOP("Take", "TGA"), ExportAs::tga},
                                                 {QT_TRANSLATE_NOOP("Take", "OpenEXR"), ExportAs::exr},
                                                 {QT_TRANSLATE_NOOP("Take", "DDS, as it is"), ExportAs::dds},
                                                 {QT_TRANSLATE_NOOP("Take", "KTX2, as it is"), ExportAs::ktx2}};

QString words_of_way(ExportAs as) {
    for (const auto& [words, way] : ways)
        if (way == as) return QCoreApplication::translate("Take", words);
    return {};
}

}  // namespace

TakeWindow::TakeWindow(QWidget* parent, CatalogModel* model, std::vector<std::size_t> items)
    : QDialog(parent), model_(model), snapshot_(model->snapshot()), asked_(std::move(items)) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("take"));
    setWindowTitle(tr("Take to the bench"));
    resize(900, 560);
    keep_size(this, "take");
    set_help(this, "catalog");
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(16, 14, 16, 12);
    columns->setSpacing(18);
    columns->addWidget(make_list());
    columns->addWidget(make_choices(), 1);
    connect(list_, &QListWidget::currentRowChanged, this, &TakeWindow::show_row);
    // Numbers of another snapshot are other textures.
    connect(model, &CatalogModel::catalog_changed, this, &QDialog::reject);
    refresh();
    list_->setFocus();
}

QWidget* TakeWindow::make_list() {
    auto* left = new QWidget;
    left->setFixedWidth(286);
    auto* box = new QVBoxLayout(left);
    box->setContentsMargins(0, 0, 0, 0);
    title_ = make_label({}, "heading");
    box->addWidget(title_);
    list_ = new QListWidget;
    list_->setObjectName(QStringLiteral("taken"));
    list_->setAccessibleName(tr("Textures that are taken"));
    list_->setUniformItemSizes(true);
    list_->setTextElideMode(Qt::ElideMiddle);
    box->addWidget(list_, 1);
    sets_ = new QCheckBox(tr("Whole sets"));
    sets_->setObjectName(QStringLiteral("sets"));
    connect(sets_, &QCheckBox::toggled, this, &TakeWindow::refresh);
    copies_ = new QCheckBox(tr("Copies of the same picture follow"));
    copies_->setObjectName(QStringLiteral("copies"));
    box->addWidget(sets_);
    box->addWidget(copies_);
    return left;
}

QWidget* TakeWindow::make_choices() {
    auto* right = new QWidget;
    auto* box = new QVBoxLayout(right);
    box->setContentsMargins(0, 0, 0, 0);
    auto* shared = new SharedView(this);
    picture_ = new ImageView(shared);
    gray_ = new ImageView(shared);
    auto* pictures = new QHBoxLayout;
    add_titled(pictures, picture_, tr("Color"));
    add_titled(pictures, gray_, tr("Alpha"));
    box->addLayout(pictures, 1);
    box->addSpacing(10);
    auto* form = new QFormLayout;
    form->setVerticalSpacing(4);
    as_ = new QComboBox;
    as_->setObjectName(QStringLiteral("as"));
    as_->addItem({}, int(ExportAs::picture));
    for (const auto& [words, way] : ways) as_->addItem(words_of_way(way), int(way));
    connect(as_, &QComboBox::currentIndexChanged, this, &TakeWindow::show_choices);
    form->addRow(tr("As"), as_);
    why_ = make_label({}, "soft", true);
    form->addRow(QString(), why_);
    alpha_ = new QComboBox;
    alpha_->setObjectName(QStringLiteral("alpha"));
    alpha_->addItems({tr("In the picture"), tr("As a gray picture beside"), tr("Left out; the game's own comes back")});
    form->addRow(tr("Alpha"), alpha_);
    alpha_words_ = make_label({}, "soft", true);
    form->addRow(QString(), alpha_words_);
    parts_ = new QComboBox;
    parts_->setObjectName(QStringLiteral("parts"));
    parts_->addItems({tr("In one file"), tr("Each a file of its own")});
    connect(parts_, &QComboBox::currentIndexChanged, this, &TakeWindow::show_choices);
    form->addRow(tr("Faces, layers"), parts_);
    box->addLayout(form);
    box->addSpacing(8);
    auto* bottom = new QHBoxLayout;
    bottom->addStretch();
    auto* go = add_workshop_action(this, "take/take", [this] { take(); });
    auto* button = new Button(go, Button::Look::primary);
    button->setObjectName(QStringLiteral("go"));
    bottom->addWidget(button);
    box->addLayout(bottom);
    return right;
}

void TakeWindow::refresh() {
    const auto before = current();
    items_.clear();
    for (const auto item : sets_->isChecked() ? model_->with_sets(asked_) : asked_)
        if (snapshot_->catalog.items[item].is_texture()) items_.push_back(item);
    const QSignalBlocker quiet(list_);
    list_->clear();
    int row = 0;
    for (const auto item : items_) {
        const auto& entry = snapshot_->catalog.items[item];
        if (&entry == before) row = list_->count();
        list_->addItem(tr("%1\n%2 · %3×%4")
                           .arg(to_text(entry.name()), to_text(info(entry.desc.format).name))
                           .arg(entry.desc.width)
                           .arg(entry.desc.height));
        list_->item(list_->count() - 1)->setToolTip(to_text(entry.path()));
    }
    list_->setCurrentRow(row);
    title_->setText(items_.size() == 1 ? tr("ONE TEXTURE") : tr("%L1 TEXTURES").arg(items_.size()));
    sets_->setEnabled(sets_->isChecked() || model_->with_sets(asked_).size() > asked_.size());
    const auto& twins = model_->catalog()->analysis.twins;
    copies_->setEnabled(
        std::any_of(items_.begin(), items_.end(), [&](std::size_t item) { return item < twins.size() && twins[item] > 0; }));
    show_row(row);
}

const CatalogItem* TakeWindow::current() const {
    const int row = list_->currentRow();
    return row >= 0 && row < int(items_.size()) ? &snapshot_->catalog.items[items_[std::size_t(row)]] : nullptr;
}

ExportAs TakeWindow::as() const { return static_cast<ExportAs>(as_->currentData().toInt()); }

void TakeWindow::show_row(int row) {
    alpha_is_.clear();
    show_choices();
    const auto* entry = current();
    if (!entry) return;
    const auto item = items_[std::size_t(row)];
    model_->look_at_alpha(this, item, shown_side, [this, entry](const Result<CatalogModel::AlphaLook>& made) {
        if (entry != current()) return;
        if (!made) return picture_->set_message(to_text(made.error().message()));
        picture_->set_image(made->color);
        if (made->alpha.isNull()) gray_->set_message(tr("no alpha"));
        else gray_->set_image(made->alpha);
        alpha_is_ = made->words;
        show_choices();
    });
}

void TakeWindow::show_choices() {
    const auto* entry = current();
    if (!entry) return;
    const bool any_parts =
        std::any_of(items_.begin(), items_.end(), [&](std::size_t item) { return has_parts(snapshot_->catalog.items[item].desc); });
    parts_->setEnabled(any_parts);
    auto one_file = entry->desc;
    if (in_parts() && has_parts(entry->desc)) one_file.layers = 1;
    const auto proposed = propose_export(one_file);
    as_->setItemText(0, items_.size() == 1 ? tr("As proposed: %1").arg(words_of_way(proposed.as))
                                           : tr("As proposed for each; here: %1").arg(words_of_way(proposed.as)));
    const auto way = as() == ExportAs::picture ? proposed.as : as();
    why_->setText(way == proposed.as ? spoken(proposed.why)
                                     : tr("Proposed is %1: %2").arg(words_of_way(proposed.as), spoken(proposed.why)));
    const bool any = std::any_of(items_.begin(), items_.end(), [&](std::size_t item) {
        const auto& desc = snapshot_->catalog.items[item].desc;
        return can_split_alpha(as() == ExportAs::picture ? propose_export(desc).as : as(), desc);
    });
    alpha_->setEnabled(any && !in_parts());
    alpha_words_->setText(!info(entry->desc.format).has_alpha  ? tr("This texture has none.")
                          : !can_split_alpha(way, entry->desc) ? tr("It stays in the file.")
                          : alpha_is_.isEmpty()                ? QString()
                                                               : tr("Here: %1").arg(alpha_is_));
}

void TakeWindow::take() {
    model_->take(items_, {as(), alpha_->isEnabled() ? static_cast<AlphaWay>(alpha_->currentIndex()) : AlphaWay::kept, in_parts()},
                 copies_->isEnabled() && copies_->isChecked());
    accept();
}

}  // namespace skivet::app
