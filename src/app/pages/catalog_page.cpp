#include "app/pages/catalog_page.h"

#include <QApplication>
#include <QClipboard>
#include <QDrag>
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QJsonArray>
#include <QKeyEvent>
#include <QMenu>
#include <QMimeData>
#include <QSplitter>

#include "app/catalog_dialogs.h"
#include "app/dialogs.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/pages/catalog_delegates.h"
#include "app/theme/theme.h"
#include "app/widgets/flow_row.h"
#include "app/workshop/frame_window.h"
#include "app/workshop/take_window.h"
#include "app/workshop/try_on_window.h"

namespace skivet::app {
namespace {

/// Catalogs up to this size are searched while the key is still down; larger ones beside the window.
constexpr std::size_t small_catalog = 20'000;

QString address_text(const CatalogSnapshot& snapshot, std::size_t item) {
    return to_text(address_of(snapshot.sources[snapshot.catalog.items[item].source], snapshot.catalog.items[item]).text());
}

}  // namespace

CatalogPage::CatalogPage(CatalogModel* model, TryOnModel* try_on, FrameModel* frame, QWidget* parent)
    : Page("catalog", parent), model_(model), try_on_(try_on), frame_(frame) {
    setAcceptDrops(true);
    auto* bench = add_action("take-to-the-bench", tr("Take to the bench"), Qt::Key_Return,
                             tr("Write the texture out as PNG, or as OpenEXR where it has floats, and watch it"), [this] { take({}); });
    add_action("take-the-whole-set-to-the-bench", tr("Take the whole set to the bench"), QKeySequence(Qt::SHIFT | Qt::Key_Return),
               tr("All textures of the set"), [this] { take({}, true); });
    add_action("take-to-the-bench-as-dds", tr("Take to the bench as DDS"), QKeySequence(Qt::CTRL | Qt::Key_Return),
               tr("Write it out as DDS, compressed bytes untouched"), [this] { take(ExportAs::dds); });
    add_action("take-with-its-copies", tr("Take with its copies"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Return),
               tr("The same picture elsewhere and in other sizes follows one edit"),
               [this] { model_->take_with_copies(viewer_->item(), viewer_->relations()); });
    auto* how = add_action("take", tr("Take…"), QKeySequence(Qt::ALT | Qt::Key_Return),
                           tr("As which file, with or without alpha, with what goes along"), [this] {
                               if (auto items = chosen(false); !items.empty()) (new TakeWindow(this, model_, std::move(items)))->open();
                           });
    add_action("a-variant-of-it", tr("A variant of it…"), QKeySequence(Qt::CTRL | Qt::Key_D),
               tr("Take the same texture under a name of its own; it comes into the archive with the delivery"),
               [this] { ask_for_variant(); });
    add_action("rename", tr("Rename…"), Qt::Key_F2, tr("Another name in the archive, with the next delivery"), [this] { ask_for_name(); });
    add_action("take-out-of-the-game", tr("Take out of the game"), Qt::Key_Delete,
               tr("Out of the archive, with the next delivery; undo puts it back"), [this] { model_->take_out(chosen(false)); });
    auto* out = add_action("export", tr("Export…"), QKeySequence(Qt::CTRL | Qt::Key_E),
                           tr("Write what is chosen, or all that is found, as files"), [this] { export_chosen(); });
    add_action("search", tr("Search"), QKeySequence(Qt::CTRL | Qt::Key_F), tr("Go to the search field"), [this] {
        search_->setFocus();
        search_->selectAll();
    });
    auto* searches = add_action("searches", tr("Searches"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_F),
                                tr("Keep this search, or take one that was kept"), [this] { show_searches(); });
    auto* by_picture = add_action("by-picture", tr("By picture…"), QKeySequence(Qt::CTRL | Qt::Key_I),
                                  tr("Find what looks like an image: choose a file, drop one here, or paste it with Ctrl+V"),
                                  [this] { choose_picture(); });
    auto* by_frame =
        add_action("by-frame", tr("By frame…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_I),
                   tr("What a frame of the game is made of, thing by thing, and where its textures are"), [this] { show_frame(); });
    by_frame->setVisible(frame_ != nullptr);
    if (frame_)
        connect(frame_, &FrameModel::recorded, this, [this, by_frame] {
            if (frame_window_) frame_window_->open_newest();
            else model_->tell(tr("The game recorded a frame. %1 in the catalog opens it.").arg(key_text(by_frame->shortcut())));
        });
    auto* object = add_action("on-the-object", tr("On the object"), Qt::Key_O, tr("See where the texture lies on its mesh"),
                              [this] { show_on_object(); });
    object->setVisible(try_on_ != nullptr);
    auto* islands = add_action("islands", tr("Islands"), Qt::Key_I, tr("Where the mesh lies on the texture that is shown large"), [] {});
    islands->setCheckable(true);
    islands->setVisible(try_on_ != nullptr);
    connect(islands, &QAction::toggled, this, &CatalogPage::show_islands);
    add_action("copy-the-picture", tr("Copy the picture"), QKeySequence::Copy, tr("What is shown large, for another program"),
               [this] { copy_picture(); });
    add_action("find-the-pasted-picture", tr("Find the pasted picture"), QKeySequence::Paste,
               tr("Find what looks like the image in the clipboard"), [this] { paste_picture(); });
    add_action("next-match", tr("Next match"), Qt::Key_F3, tr("The next texture that was found"), [this] { step(1); });
    add_action("previous-match", tr("Previous match"), QKeySequence(Qt::SHIFT | Qt::Key_F3), tr("The texture before"),
               [this] { step(-1); });
    add_action("open-all-sets", tr("Open all sets"), QKeySequence(Qt::CTRL | Qt::Key_U), tr("Show every texture by itself"),
               [this] { keep_current([this] { cards_->open_all(true); }); });
    add_action("close-all-sets", tr("Close all sets"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_U), tr("One card for each set"),
               [this] { keep_current([this] { cards_->open_all(false); }); });
    add_action("larger-pictures", tr("Larger pictures"), QKeySequence(Qt::CTRL | Qt::Key_Plus), tr("Larger pictures"),
               [this] { contact_sheet_->set_card_width(contact_sheet_->card_width() + 24); });
    add_action("smaller-pictures", tr("Smaller pictures"), QKeySequence(Qt::CTRL | Qt::Key_Minus), tr("Smaller pictures"),
               [this] { contact_sheet_->set_card_width(contact_sheet_->card_width() - 24); });
    for (const auto& row : all_roles()) {
        const auto role = row.role;
        const auto key = Qt::Key(row.key);  // of digits and capital letters Qt's keys are the characters
        const auto name = role == Role::unsure ? tr("as guessed") : spoken(name_of(role));
        const auto id = std::string(name_of(role));
        put_in_submenu(add_action(("role-" + id).c_str(), tr("Role: %1").arg(name), QKeySequence(Qt::ALT | key),
                                  tr("Say what the chosen textures are for"), [this, role] { model_->set_role(chosen(false), role); }),
                       tr("Role"));
        put_in_submenu(add_action(("role-of-all-" + id).c_str(), tr("Role of all named so: %1").arg(name),
                                  QKeySequence(Qt::ALT | Qt::SHIFT | key), tr("Say what all textures with this ending are for"),
                                  [this, role] { correct_habit(this, model_, viewer_->item(), role); }),
                       tr("Role of all named so"));
    }
    auto* habits = add_action("naming-habits", tr("Naming habits…"), QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_H),
                              tr("What in the names says what a texture is for"), [this] { show_habits(this, model_); });
    (void)habits;

    auto* left = make_panel();
    left->setFixedWidth(188);
    auto* left_box = new QVBoxLayout(left);
    left_box->setContentsMargins(14, 12, 8, 10);
    left_box->addWidget(make_label(tr("NARROW DOWN"), "heading"));
    facets_ = new FacetModel(this);
    facet_list_ = new QListView;
    facet_list_->setObjectName(QStringLiteral("facets"));
    facet_list_->setAccessibleName(tr("Narrow down"));
    facet_list_->setModel(facets_);
    facet_list_->setItemDelegate(new FacetDelegate(facet_list_));
    facet_list_->setFrameShape(QFrame::NoFrame);
    facet_list_->setStyleSheet(QStringLiteral("QListView{background:transparent;border:none;}"));
    facet_list_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    facet_list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    facet_list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    facet_list_->setSelectionMode(QAbstractItemView::NoSelection);
    facet_list_->installEventFilter(this);
    left_box->addWidget(facet_list_, 1);

    auto* center = make_panel();
    auto* box = new QVBoxLayout(center);
    box->setContentsMargins(12, 12, 6, 6);
    auto* top = new QHBoxLayout;
    search_ = new QLineEdit;
    search_->setObjectName(QStringLiteral("search"));
    search_->setPlaceholderText(tr("Name, folder, format, size"));
    search_->setToolTip(tr("Words in any order · \"an exact phrase\" · -without · * and ? · 0017 finds 17"));
    search_->setAccessibleName(tr("Search"));
    search_->setClearButtonEnabled(true);
    search_->installEventFilter(this);
    count_ = make_label({}, "soft");
    top->addWidget(search_, 1);
    box->addLayout(top);
    auto* under = new FlowRow;
    under->setContentsMargins(0, 0, 6, 0);
    under->addWidget(new Button(by_picture, Button::Look::link));
    if (frame_) under->addWidget(new Button(by_frame, Button::Look::link));
    under->addWidget(new Button(searches, Button::Look::link));
    under->addStretch();
    under->addWidget(count_);
    box->addLayout(under);
    hits_row_ = new QWidget;
    auto* hits = new QHBoxLayout(hits_row_);
    hits->setContentsMargins(0, 4, 6, 4);
    hits_picture_ = new QLabel;
    hits_picture_->setFixedSize(56, 56);
    hits_picture_->setAlignment(Qt::AlignCenter);
    hits_picture_->setObjectName(QStringLiteral("well"));
    hits_text_ = make_label({}, "soft", true);
    auto* back = new Button(tr("Back to the search"), Button::Look::plain);
    connect(back, &QPushButton::clicked, this, &CatalogPage::leave_hits);
    hits->addWidget(hits_picture_);
    hits->addWidget(hits_text_, 1);
    hits->addWidget(back);
    box->addWidget(hits_row_);
    hits_row_->hide();
    cards_ = new ContactModel(model, this);
    contact_sheet_ = new ContactSheet;
    contact_sheet_->setObjectName(QStringLiteral("sheet"));
    contact_sheet_->setAccessibleName(tr("Contact sheet"));
    contact_sheet_->setModel(cards_);
    auto* cards = new CardDelegate(model, contact_sheet_);
    contact_sheet_->setItemDelegate(cards);
    contact_sheet_->setStyleSheet(QStringLiteral("QAbstractItemView{background:transparent;border:none;}"));
    contact_sheet_->viewport()->setAutoFillBackground(false);
    contact_sheet_->installEventFilter(this);
    add_action("alpha-in-the-contact-sheet", tr("Alpha in the contact sheet"), QKeySequence(Qt::CTRL | Qt::Key_T),
               tr("As meant, over a checker, or color alone"), [this, cards] {
                   cards->alpha = static_cast<CardDelegate::Alpha>((int(cards->alpha) + 1) % 3);
                   const QString names[] = {tr("Alpha is shown as each texture seems to mean it."),
                                            tr("All textures are shown over a checker."), tr("Colors are shown alone, whatever alpha is.")};
                   model_->tell(names[int(cards->alpha)]);
                   contact_sheet_->viewport()->update();
               });
    connect(contact_sheet_, &ContactSheet::opened, this,
            [this](const QModelIndex& index) { keep_current([&] { cards_->toggle(index.row()); }); });
    connect(contact_sheet_, &ContactSheet::dragged, this, &CatalogPage::drag_chosen);
    begin_drag = [this](QMimeData* files, const QPixmap& picture) {
        // It took a moment to write them: whoever let go meanwhile does not want to carry anything.
        if (!(QApplication::mouseButtons() & Qt::LeftButton)) {
            delete files;
            return model_->tell(tr("Hold the button a moment longer: the files are ready now."));
        }
        auto* drag = new QDrag(this);
        drag->setMimeData(files);
        drag->setPixmap(picture);
        drag->exec(Qt::CopyAction);
    };
    auto* empty = new QWidget;
    auto* empty_box = new QVBoxLayout(empty);
    empty_text_ = make_label({}, "subtitle", true);
    empty_text_->setAlignment(Qt::AlignCenter);
    auto* clear = new Button(tr("Show all textures"), Button::Look::plain);
    connect(clear, &QPushButton::clicked, this, [this] {
        search_->clear();
        facets_->set_chosen({});
        leave_hits();
        ask();
    });
    empty_box->addStretch();
    empty_box->addWidget(empty_text_);
    empty_box->addWidget(clear, 0, Qt::AlignCenter);
    empty_box->addStretch();
    middle_ = new QStackedWidget;
    middle_->addWidget(contact_sheet_);
    middle_->addWidget(empty);
    box->addWidget(middle_, 1);

    viewer_ = new TextureViewer(model);
    // Without its key, so that all of them have room; the tool tip says it.
    const auto add_short = [this](QAction* action, const QString& text, const char* name) {
        auto* button = new Button(text, Button::Look::plain);
        button->setObjectName(QLatin1String(name));
        button->setAccessibleName(action->text());
        button->setToolTip(tr("%1  (%2)").arg(action->toolTip(), action->shortcut().toString(QKeySequence::NativeText)));
        connect(button, &QPushButton::clicked, action, &QAction::trigger);
        viewer_->buttons()->addWidget(button);
    };
    add_short(out, out->text(), "out");
    if (try_on_) {
        viewer_->looks()->addWidget(new Button(islands, Button::Look::toggle));
        viewer_->looks()->addWidget(new Button(object, Button::Look::toggle));
    }
    viewer_->buttons()->addStretch();
    add_short(how, tr("…"), "how");
    viewer_->buttons()->addWidget(new Button(bench, Button::Look::primary));

    viewer_->setMinimumWidth(388);
    center->setMinimumWidth(380);
    auto* halves = new QSplitter;
    halves->setChildrenCollapsible(false);
    halves->setHandleWidth(14);
    halves->addWidget(center);
    halves->addWidget(viewer_);
    halves->setStretchFactor(0, 1);
    halves->setStretchFactor(1, 0);
    halves->setSizes({1000, 388});
    keep_columns(halves, "catalog");
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(16, 16, 16, 16);
    columns->setSpacing(14);
    columns->addWidget(left);
    columns->addWidget(halves, 1);

    connect(search_, &QLineEdit::textChanged, this, [this] {
        if (hits_) leave_hits();
        ask();
    });
    connect(facets_, &FacetModel::changed, this, [this] {
        if (hits_) leave_hits();
        ask();
    });
    connect(contact_sheet_->selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex& now) {
        if (!now.isValid() || quiet_) return;
        const auto item = cards_->item_at(now.row());
        if (item != viewer_->item()) viewer_->show_item(item);
    });
    connect(viewer_, &TextureViewer::copies_wanted, this, [this] { model_->take_with_copies(viewer_->item(), viewer_->relations()); });
    connect(viewer_, &TextureViewer::showing, this, [this](std::size_t item) { current_ = address_text(*model_->snapshot(), item); });
    connect(viewer_, &TextureViewer::chosen, this, [this](std::size_t item) {
        if (const int row = cards_->row_of(item); row >= 0) contact_sheet_->setCurrentIndex(cards_->index(row));
        if (item != viewer_->item()) viewer_->show_item(item);
    });
    connect(model, &CatalogModel::catalog_changed, this, [this] {
        if (hits_) leave_hits();
        ask();
        // The whole of it: the texture that is shown may be another one than before.
        if (model_->snapshot()->whole && viewer_->item() < model_->snapshot()->catalog.items.size()) viewer_->show_item(viewer_->item());
    });
    connect(model, &CatalogModel::analysis_changed, this, &CatalogPage::ask);
    connect(model, &CatalogModel::states_changed, contact_sheet_->viewport(), qOverload<>(&QWidget::update));
    viewer_->clear();
    show_counts();
}

void CatalogPage::entered() { search_->setFocus(); }

QJsonObject CatalogPage::view() const {
    const auto chosen = facets_->chosen();
    QJsonArray values, traits;
    for (std::size_t f = 0; f < facet_count; ++f)
        for (const auto& value : chosen.chosen[f]) values << QJsonArray{int(f), to_text(value)};
    for (std::size_t t = 0; t < trait_count; ++t)
        if (chosen.traits[t]) traits << int(t);
    return {{QStringLiteral("search"), search_->text()},
            {QStringLiteral("facets"), values},
            {QStringLiteral("traits"), traits},
            {QStringLiteral("texture"), wished_.isEmpty() ? current_ : wished_},
            {QStringLiteral("card"), contact_sheet_->card_width()}};
}

void CatalogPage::restore(const QJsonObject& view) {
    CatalogQuery query;
    for (const auto& value : view.value(QStringLiteral("facets")).toArray())
        if (const auto f = value[0].toInt(-1); f >= 0 && std::size_t(f) < facet_count)
            query.chosen[std::size_t(f)].push_back(value[1].toString().toStdString());
    for (const auto& trait : view.value(QStringLiteral("traits")).toArray())
        if (const auto t = trait.toInt(-1); t >= 0 && std::size_t(t) < trait_count) query.traits[std::size_t(t)] = true;
    facets_->set_chosen(query);
    const QSignalBlocker quiet(search_);
    search_->setText(view.value(QStringLiteral("search")).toString());
    wished_ = view.value(QStringLiteral("texture")).toString();
    if (const int width = view.value(QStringLiteral("card")).toInt(); width > 0) contact_sheet_->set_card_width(width);
    ask();
}

void CatalogPage::ask() {
    if (hits_) return;
    asking_.cancel();
    asking_ = {};
    const auto question = ++question_;
    auto query = facets_->chosen();
    query.search = search_->text().toStdString();
    const auto catalog = model_->catalog();
    if (catalog->table.size() <= small_catalog) {
        if (const auto answer = catalog->table.ask(query)) show_answer(*answer, make_cards(*answer, catalog->analysis));
        return;
    }
    struct Answered {
        Result<CatalogAnswer> answer;
        std::vector<Card> cards;
    };
    model_->jobs().run(
        this, {},
        [catalog, query, cancel = asking_] {
            Answered out{catalog->table.ask(query, cancel), {}};
            if (out.answer) out.cards = make_cards(*out.answer, catalog->analysis);
            return out;
        },
        [this, question](Answered answered) {
            if (answered.answer && question == question_) show_answer(*answered.answer, std::move(answered.cards));
        });
}

void CatalogPage::keep_current(const std::function<void()>& change) {
    const auto snapshot = model_->snapshot();
    std::size_t item = viewer_->item();
    // In another snapshot the same texture may have another number.
    const auto at = [&](const QString& address) {
        const auto text = address.toStdString();
        for (std::size_t i = 0; i < snapshot->catalog.items.size() && !text.empty(); ++i) {
            // Of hundreds of thousands hardly any needs its whole address: only a name with a colon is written otherwise in it.
            const auto& one = snapshot->catalog.items[i];
            if (!one.is_texture() || (!text.ends_with(one.path()) && one.path().find(':') == std::string::npos)) continue;
            if (address_text(*snapshot, i) == address) return i;
        }
        return std::size_t(-1);
    };
    if (item >= snapshot->catalog.items.size() || address_text(*snapshot, item) != current_) item = at(current_);
    if (const auto wished = at(wished_); wished < snapshot->catalog.items.size()) item = wished, wished_.clear();
    else if (snapshot->whole) wished_.clear();
    change();
    int row = item < snapshot->catalog.items.size() ? cards_->row_of(item) : -1;
    if (row < 0 && item < snapshot->catalog.items.size()) {  // inside a set that is closed now
        const auto catalog = model_->catalog();
        const auto set = item < catalog->analysis.set_of.size() ? catalog->analysis.set_of[item] : CatalogAnalysis::no_set;
        if (set != CatalogAnalysis::no_set)
            for (const auto member : catalog->analysis.sets[set])
                if (row < 0) row = cards_->row_of(member);
    }
    const bool there = row >= 0;
    if (row < 0 && cards_->rowCount() > 0) row = 0;
    if (row < 0) {
        viewer_->clear();
        current_.clear();
        return;
    }
    quiet_ = true;
    contact_sheet_->setCurrentIndex(cards_->index(row));
    quiet_ = false;
    const auto shown = there ? item : cards_->item_at(row);
    if (shown != viewer_->item()) viewer_->show_item(shown);
}

void CatalogPage::show_answer(const CatalogAnswer& answer, std::vector<Card> cards) {
    answer_ = answer;
    const int scrolled = facet_list_->verticalScrollBar()->value(), facet_row = facet_list_->currentIndex().row();
    auto query = facets_->chosen();
    facets_->show(answer, query);
    facet_list_->verticalScrollBar()->setValue(scrolled);
    if (facet_row >= 0 && facet_row < facets_->rowCount()) facet_list_->setCurrentIndex(facets_->index(facet_row));
    const auto before = current_;
    keep_current([&] { cards_->show(std::move(cards)); });
    show_counts();
}

void CatalogPage::show_counts() {
    const bool none = model_->snapshot()->catalog.items.empty();
    count_->setText(hits_ ? QString() : tr("%L1 of %L2").arg(answer_.items.size()).arg(answer_.all));
    middle_->setCurrentIndex(cards_->rowCount() > 0 ? 0 : 1);
    empty_text_->setText(none || answer_.all == 0 ? tr("No textures yet. Add the game's archives under Sources.")
                         : hits_                  ? tr("Nothing looks like this picture.")
                                                  : tr("Nothing fits this search."));
}

void CatalogPage::step(int by) {
    if (cards_->rowCount() == 0) return;
    const int row = contact_sheet_->currentIndex().isValid() ? contact_sheet_->currentIndex().row() + by : 0;
    contact_sheet_->setCurrentIndex(cards_->index((row + cards_->rowCount()) % cards_->rowCount()));
}

std::vector<std::size_t> CatalogPage::chosen(bool whole_sets) const {
    std::vector<std::size_t> items;
    auto indexes = contact_sheet_->selectionModel()->selectedIndexes();
    if (indexes.isEmpty() && contact_sheet_->currentIndex().isValid()) indexes << contact_sheet_->currentIndex();
    if (indexes.size() == 1 && !whole_sets && viewer_->item() < model_->snapshot()->catalog.items.size())
        return {viewer_->item()};  // what one sees large
    for (const auto& index : indexes) {
        const auto here = whole_sets ? cards_->items_at(index.row()) : std::vector{cards_->item_at(index.row())};
        items.insert(items.end(), here.begin(), here.end());
    }
    if (whole_sets && indexes.size() == 1 && items.size() == 1 && !viewer_->relations().set.empty()) return viewer_->relations().set;
    return items;
}

void CatalogPage::take(const TakeAs& as, bool whole_sets) { model_->take(chosen(whole_sets), as); }

void CatalogPage::ask_for_variant() {
    const auto item = viewer_->item();  // what one sees large
    const std::filesystem::path path(model_->path_of(item));
    if (path.empty()) return;
    const auto proposed = (path.parent_path() / (path.stem().string() + "_2" + path.extension().string())).generic_string();
    ask_for_text(this, tr("A variant of %1").arg(to_text(path.filename())), tr("Its path in the archive:"), to_text(proposed),
                 tr("Take it"), "variant",
                 [this, item](const QString& chosen_path) { model_->take_variant(item, chosen_path.toStdString()); });
}

void CatalogPage::ask_for_name() {
    const auto item = viewer_->item();
    const auto path = model_->path_of(item);
    if (path.empty()) return;
    ask_for_text(this, tr("Rename"), tr("Its path in the archive from then on:"), to_text(path), tr("Rename"), "rename",
                 [this, item, path](const QString& chosen_path) {
                     if (!chosen_path.isEmpty() && chosen_path.toStdString() != path) model_->rename(item, chosen_path.toStdString());
                 });
}

void CatalogPage::export_chosen() {
    std::vector<std::size_t> some;
    for (const auto& index : contact_sheet_->selectionModel()->selectedIndexes())
        for (const auto item : cards_->items_at(index.row())) some.push_back(item);
    std::vector<std::size_t> all;
    for (int row = 0; row < cards_->rowCount(); ++row) {
        const auto here = cards_->items_at(row);
        all.insert(all.end(), here.begin(), here.end());
    }
    show_export(this, model_, std::move(some), std::move(all));
}

void CatalogPage::show_on_object() {
    if (!try_on_) return;
    if (!on_object_) {
        on_object_ = new TryOnWindow(this, try_on_->another());
        connect(viewer_, &TextureViewer::showing, on_object_, &TryOnWindow::show_item);
    }
    on_object_->show_item(viewer_->item());
    on_object_->show();
    on_object_->raise();
    on_object_->activateWindow();
}

void CatalogPage::show_islands(bool show) {
    if (!try_on_) return;
    if (!islands_of_) {
        islands_of_ = try_on_->another().release();
        islands_of_->setParent(this);
        islands_of_->set_dressing(false);
        connect(islands_of_, &TryOnModel::scene_changed, this, [this] {  // A plain body says nothing of where the game lays it.
            viewer_->view()->set_overlay(islands_of_->is_plain() ? nullptr : islands_of_->overlay());
        });
    }
    disconnect(viewer_, &TextureViewer::showing, islands_of_, nullptr);
    if (!show) return islands_of_->clear();
    connect(viewer_, &TextureViewer::showing, islands_of_, &TryOnModel::show_item);
    islands_of_->show_item(viewer_->item());
}

void CatalogPage::show_frame() {
    if (!frame_) return;
    if (!frame_window_) {
        frame_window_ = new FrameWindow(this, frame_, try_on_);
        connect(frame_window_, &FrameWindow::wanted, this, &CatalogPage::show_texture);
        frame_window_->open_newest();
    }
    frame_window_->show();
    frame_window_->raise();
    frame_window_->activateWindow();
}

void CatalogPage::show_texture(std::size_t item) {
    if (item >= model_->snapshot()->catalog.items.size()) return;
    search_->clear();
    facets_->set_chosen({});
    if (hits_) leave_hits();
    wished_ = address_text(*model_->snapshot(), item);
    ask();
    viewer_->show_item(item);
}

void CatalogPage::copy_picture() {
    const auto image = viewer_->view()->image();
    if (image.isNull()) return model_->refuse(tr("No picture is shown."));
    QApplication::clipboard()->setImage(image);
    model_->tell(tr("The picture is copied."));
}

void CatalogPage::drag_chosen() {
    auto items = chosen(false);
    if (const auto indexes = contact_sheet_->selectionModel()->selectedIndexes(); indexes.size() > 1) {
        items.clear();
        for (const auto& index : indexes)
            for (const auto item : cards_->items_at(index.row())) items.push_back(item);
    }
    if (items.empty()) return;
    if (items.size() > CatalogModel::most_aside)
        return model_->refuse(tr("%L1 textures are too many to drag; Export writes them.").arg(items.size()));
    const auto as = QApplication::keyboardModifiers() & Qt::ShiftModifier ? ExportAs::dds : ExportAs::picture;
    const auto picture = items.size() == 1 ? viewer_->view()->image() : QImage();
    model_->write_aside(items, as, [this, picture](Result<std::vector<std::filesystem::path>> files) {
        if (!files) return model_->complain(files.error());
        auto* mime = new QMimeData;
        QList<QUrl> urls;
        for (const auto& file : *files) urls << QUrl::fromLocalFile(to_text(file));
        mime->setUrls(urls);
        if (!picture.isNull()) mime->setImageData(picture);
        const auto small =
            picture.isNull() ? QPixmap() : QPixmap::fromImage(picture.scaled(96, 96, Qt::KeepAspectRatio, Qt::SmoothTransformation));
        begin_drag(mime, small);
    });
}

}  // namespace skivet::app
