#include "app/pages/catalog_page.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QStyledItemDelegate>
#include <map>

#include "app/theme/theme.h"

namespace skivet::app {
namespace {

class CardDelegate : public QStyledItemDelegate {
public:
    CardDelegate(Session* session, QObject* parent) : QStyledItemDelegate(parent), session_(session) {}
    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {152, 192}; }
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const auto item = std::size_t(index.data(CatalogModel::ItemIndex).toULongLong());
        const auto stock = session_->stock();
        if (item >= stock->catalog.items.size()) return;
        const auto& entry = stock->catalog.items[item];
        const auto& c = colors();
        p->save();
        p->setRenderHint(QPainter::Antialiasing);
        const QRectF card = QRectF(option.rect).adjusted(3, 2, -3, -6);
        const bool on = option.state & QStyle::State_Selected;
        p->setPen(QPen(on ? c.accent : c.line, on ? 2 : 1));
        p->setBrush(c.card);
        p->drawRoundedRect(card, 3, 3);
        draw_in_well(*p, QRectF(card.x() + 6, card.y() + 6, card.width() - 12, card.width() - 12), session_->thumbnail(item), 8);
        const QRectF text(card.x() + 8, card.y() + card.width() - 2, card.width() - 16, 18);
        p->setFont(text_font(12, true));
        p->setPen(c.ink);
        p->drawText(text, int(Qt::AlignLeft | Qt::AlignVCenter), p->fontMetrics().elidedText(to_text(entry.name()), Qt::ElideMiddle, int(text.width())));
        p->setFont(text_font(11));
        p->setPen(entry.error ? c.accent : c.soft);
        QString fact = entry.error && entry.desc.format != Format::unknown ? tr("damaged") : entry.error ? tr("cannot be read") : QStringLiteral("%1 %2×%3").arg(to_text(info(entry.desc.format).name)).arg(entry.desc.width).arg(entry.desc.height);
        if (!entry.effective && !entry.error) fact = tr("%1 · shadowed").arg(to_text(info(entry.desc.format).name));
        p->drawText(text.translated(0, 18), int(Qt::AlignLeft | Qt::AlignVCenter), p->fontMetrics().elidedText(fact, Qt::ElideRight, int(text.width())));
        const auto& pieces = session_->project().pieces;
        for (const auto& piece : pieces)
            if (piece.address.inner == entry.inner && piece.address.source == stock->sources[entry.source].path)
                draw_state(*p, QPointF(card.right() - 14, text.bottom() + 9), piece.state);
        p->restore();
    }

private:
    Session* session_;
};

/// Check boxes of one facet, most frequent first.
void add_group(QVBoxLayout* box, const QString& title, const std::map<QString, int>& counts, const QSet<QString>& on, QList<QCheckBox*>& boxes, const std::function<void()>& changed) {
    if (counts.empty()) return;
    box->addWidget(make_label(title, "strong"));
    for (const auto& [name, count] : counts) {
        auto* line = new QWidget;
        auto* row = new QHBoxLayout(line);
        row->setContentsMargins(0, 0, 0, 0);
        auto* check = new QCheckBox(name);
        check->setChecked(on.contains(name));
        QObject::connect(check, &QCheckBox::toggled, check, changed);
        row->addWidget(check, 1);
        auto* number = make_label(QString::number(count), "soft");
        number->setFont(number_font(11));
        row->addWidget(number);
        box->addWidget(line);
        boxes << check;
    }
    box->addSpacing(10);
}

QSet<QString> checked(const QList<QCheckBox*>& boxes) {
    QSet<QString> out;
    for (const auto* box : boxes)
        if (box->isChecked()) out.insert(box->text());
    return out;
}

}  // namespace

CatalogPage::CatalogPage(Session* session, QWidget* parent) : Page(session, parent) {
    auto* bench = add_action(tr("Take to the bench"), Qt::Key_Return, tr("Write the texture out as PNG, or as OpenEXR where it has floats, and watch it"), [this] { take(ExportAs::picture); });
    auto* bench_dds = add_action(tr("As DDS"), QKeySequence(Qt::CTRL | Qt::Key_Return), tr("Write it out as DDS, compressed bytes untouched"), [this] { take(ExportAs::dds); });
    add_action(tr("Search"), QKeySequence(Qt::CTRL | Qt::Key_F), tr("Go to the search field"), [this] { search_->setFocus(); });

    auto* left = make_panel();
    left->setFixedWidth(188);
    auto* left_box = new QVBoxLayout(left);
    left_box->setContentsMargins(14, 12, 8, 10);
    left_box->addWidget(make_label(tr("NARROW DOWN"), "heading"));
    facets_ = add_scrolling_column(left_box);
    facets_->setSpacing(2);
    facets_->setContentsMargins(0, 4, 8, 0);

    auto* center = make_panel();
    auto* box = new QVBoxLayout(center);
    box->setContentsMargins(12, 12, 6, 6);
    auto* top = new QHBoxLayout;
    search_ = new QLineEdit;
    search_->setObjectName(QStringLiteral("search"));
    search_->setPlaceholderText(tr("Type to search: name, folder, format, size"));
    search_->setAccessibleName(tr("Search"));
    search_->setClearButtonEnabled(true);
    search_->installEventFilter(this);
    count_ = make_label({}, "soft");
    top->addWidget(search_, 1);
    top->addWidget(count_);
    top->addSpacing(8);
    box->addLayout(top);
    model_ = new CatalogModel(session, this);
    sheet_ = new QListView;
    sheet_->setObjectName(QStringLiteral("sheet"));
    sheet_->setAccessibleName(tr("Contact sheet"));
    sheet_->setViewMode(QListView::IconMode);
    sheet_->setResizeMode(QListView::Adjust);
    sheet_->setMovement(QListView::Static);
    sheet_->setUniformItemSizes(true);
    sheet_->setSelectionMode(QAbstractItemView::ExtendedSelection);
    sheet_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    sheet_->setModel(model_);
    sheet_->setItemDelegate(new CardDelegate(session, sheet_));
    sheet_->installEventFilter(this);
    auto* empty = new QWidget;
    auto* empty_box = new QVBoxLayout(empty);
    empty_text_ = make_label({}, "subtitle", true);
    empty_text_->setAlignment(Qt::AlignCenter);
    auto* clear = new Button(tr("Show all textures"), Button::Look::plain);
    connect(clear, &QPushButton::clicked, this, [this] {
        search_->clear();
        for (auto* check : folder_boxes_ + format_boxes_ + source_boxes_) check->setChecked(false);
    });
    empty_box->addStretch();
    empty_box->addWidget(empty_text_);
    empty_box->addWidget(clear, 0, Qt::AlignCenter);
    empty_box->addStretch();
    middle_ = new QStackedWidget;
    middle_->addWidget(sheet_);
    middle_->addWidget(empty);
    box->addWidget(middle_, 1);

    viewer_ = new TextureViewer(session);
    viewer_->setFixedWidth(388);
    viewer_->buttons()->addWidget(new Button(bench_dds, Button::Look::plain));
    viewer_->buttons()->addStretch();
    viewer_->buttons()->addWidget(new Button(bench, Button::Look::primary));

    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(16, 16, 16, 16);
    columns->setSpacing(14);
    columns->addWidget(left);
    columns->addWidget(center, 1);
    columns->addWidget(viewer_);

    connect(search_, &QLineEdit::textChanged, this, [this](const QString& query) {
        model_->set_query(query);
        show_counts();
        if (model_->rowCount() > 0) sheet_->setCurrentIndex(model_->index(0));
    });
    connect(sheet_->selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex& now) {
        if (now.isValid()) viewer_->show_item(model_->item_at(now.row()));
    });
    connect(session, &Session::catalog_changed, this, &CatalogPage::refresh);
    connect(session, &Session::pieces_changed, sheet_->viewport(), qOverload<>(&QWidget::update));
    viewer_->clear();
    show_counts();
}

void CatalogPage::entered() { search_->setFocus(); }

void CatalogPage::refresh() {
    rebuild_facets();
    apply_facets();
    if (model_->rowCount() > 0) sheet_->setCurrentIndex(model_->index(0));
    else viewer_->clear();
}

void CatalogPage::rebuild_facets() {
    const auto folders = checked(folder_boxes_), formats = checked(format_boxes_), sources = checked(source_boxes_);
    folder_boxes_.clear();
    format_boxes_.clear();
    source_boxes_.clear();
    clear_column(facets_);
    std::map<QString, int> by_folder, by_format, by_source;
    const auto stock = session_->stock();
    for (const auto& item : stock->catalog.items) {
        if (!item.is_texture()) continue;
        ++by_folder[top_folder(item)];
        ++by_format[to_text(info(item.desc.format).name)];
        ++by_source[to_text(stock->sources[item.source].path.filename())];
    }
    const auto changed = [this] { apply_facets(); };
    add_group(facets_, tr("Where"), by_folder, folders, folder_boxes_, changed);
    add_group(facets_, tr("Format"), by_format, formats, format_boxes_, changed);
    add_group(facets_, tr("Source"), by_source, sources, source_boxes_, changed);
    facets_->addStretch();
}

void CatalogPage::apply_facets() {
    model_->set_facets(checked(folder_boxes_), checked(format_boxes_), checked(source_boxes_));
    show_counts();
}

void CatalogPage::show_counts() {
    count_->setText(tr("%1 of %2").arg(model_->rowCount()).arg(model_->texture_count()));
    middle_->setCurrentIndex(model_->rowCount() > 0 ? 0 : 1);
    empty_text_->setText(model_->texture_count() == 0 ? tr("No textures yet. Add the game's archives under Sources.") : tr("Nothing fits this search."));
}

void CatalogPage::take(ExportAs as) {
    std::vector<std::size_t> items;
    for (const auto& index : sheet_->selectionModel()->selectedIndexes()) items.push_back(model_->item_at(index.row()));
    if (items.empty() && sheet_->currentIndex().isValid()) items.push_back(model_->item_at(sheet_->currentIndex().row()));
    session_->take(items, as);
}

bool CatalogPage::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return Page::eventFilter(watched, event);
    auto* key = static_cast<QKeyEvent*>(event);
    if (watched == search_ && (key->key() == Qt::Key_Down || key->key() == Qt::Key_Up)) {
        sheet_->setFocus();
        return true;
    }
    if (watched == search_ && key->key() == Qt::Key_Escape && !search_->text().isEmpty()) {
        search_->clear();
        return true;
    }
    // Typing anywhere in the sheet searches.
    if (watched == sheet_ && !key->text().isEmpty() && key->text()[0].isPrint() && !(key->modifiers() & (Qt::ControlModifier | Qt::AltModifier))) {
        search_->setFocus();
        search_->insert(key->text());
        return true;
    }
    return Page::eventFilter(watched, event);
}

}  // namespace skivet::app
