#include "app/pages/sources_page.h"

#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QMenu>

#include "app/dialogs.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/pages/source_list.h"
#include "app/theme/theme.h"
#include "app/widgets/flow_row.h"
#include "app/workshop/found_window.h"
#include "app/workshop/parcels_window.h"
#include "app/workshop/raw_lens.h"
#include "app/workshop/sheet_workshop.h"
#include "app/workshop/shipped_window.h"
#include "app/workshop/sift_window.h"

namespace skivet::app {
namespace {

/// In a narrow window paths are more than where an entry lies and how it is packed.
class EntryView : public QTableView {
protected:
    void resizeEvent(QResizeEvent* event) override {
        setColumnHidden(3, width() < 660);
        setColumnHidden(4, width() < 740);
        QTableView::resizeEvent(event);
    }
};

}  // namespace

SourcesPage::SourcesPage(SourcesModel* model, ParcelModel* parcels, ShippedModel* shipped, QWidget* parent)
    : Page("sources", parent), model_(model), parcels_(parcels) {
    find_ = add_action("find-in-the-game-s-folder", tr("Find in the game's folder…"), Qt::Key_L,
                       tr("Go through an installation for archives and loose textures"), [this] { find_in_folder(); });
    auto* add = add_action("add-archives", tr("Add archives…"), Qt::Key_A, tr("Add archives of the game"), [this] { add_archives(); });
    auto* add_dir = add_action("add-a-folder", tr("Add a folder…"), Qt::Key_F, tr("Add a folder with textures or loose files"),
                               [this] { add_folder(); });
    auto* remove = add_action("remove", tr("Remove"), Qt::Key_Delete, tr("Take the source off the list; its file stays"), [this] {
        if (current_source() >= 0) model_->remove(std::size_t(current_source()));
    });
    auto* up = add_action("later", tr("Later"), QKeySequence(Qt::ALT | Qt::Key_Up), tr("Load later, so that it wins over more"), [this] {
        if (current_source() >= 0) model_->move(std::size_t(current_source()), true);
    });
    auto* down = add_action("earlier", tr("Earlier"), QKeySequence(Qt::ALT | Qt::Key_Down), tr("Load earlier"), [this] {
        if (current_source() >= 0) model_->move(std::size_t(current_source()), false);
    });
    off_ = add_action("switch-off", tr("Switch off"), Qt::Key_X,
                      tr("Leave the source in the list but out of the catalog, as if the game did not have it"), [this] {
                          if (current_source() < 0) return;
                          auto setting = model_->setting(std::size_t(current_source()));
                          setting.off = !setting.off;
                          model_->set(std::size_t(current_source()), setting);
                      });
    group_ = add_action("belongs-to", tr("Belongs to…"), Qt::Key_B, tr("Say what the source is: base, update, extra content, another mod"),
                        [this] { choose_group(); });
    baseline_ = add_action("as-shipped", tr("As shipped…"), QKeySequence(Qt::CTRL | Qt::Key_B),
                           tr("Remember the installation while it is clean, and see what was changed since"), [this, shipped] {
                               if (shipped) (new ShippedWindow(this, shipped))->show();
                           });
    auto* next =
        add_action("to-the-catalog", tr("To the catalog"), Qt::Key_Return, tr("See all textures"), [this] { emit go_to(PageId::catalog); });

    keys_ = add_action("keys", tr("Keys…"), Qt::Key_K, tr("Passwords and keys for encrypted archives"),
                       [this] { show_keys(this, &model_->store()); });
    packers_ = add_action("packers", tr("Packers…"), Qt::Key_P, tr("Your own programs for packers that sheets name"),
                          [this] { show_packers(this, &model_->store()); });
    kinds_ = add_action("taken-for", tr("Taken for…"), Qt::Key_T, tr("What the source is taken for, and why; choose another kind"), [this] {
        if (current_source() >= 0) show_kinds(this, model_, std::size_t(current_source()));
    });
    compact_ = add_action("give-space-back", tr("Give space back"), Qt::Key_G,
                          tr("Build the archive anew without what nothing uses any more; the vault keeps the way back"), [this] {
                              if (current_source() >= 0) model_->compact(std::size_t(current_source()));
                          });

    sift_ = add_action("sift", tr("Sift…"), Qt::Key_S, tr("Look through the bytes for textures and compressed streams"), [this] {
        if (current_source() >= 0) show_sifting(this, model_, std::size_t(current_source()));
    });
    lens_ = add_action("raw-lens", tr("Raw lens…"), Qt::Key_R, tr("See the bytes of the chosen entry, or of the whole file, as pixels"),
                       [this] { open_lens(); });
    sheet_ = add_action("sheet", tr("Sheet…"), Qt::Key_W, tr("Describe the archive's layout, with its bytes beside the text"), [this] {
        if (current_source() >= 0) show_sheet_workshop(this, model_, std::size_t(current_source()));
    });
    names_ = add_action("look-for-names", tr("Look for names…"), Qt::Key_N,
                        tr("Find names for entries that are known only by a hash inside the game's other files"),
                        [this] { show_names(this, model_); });

    auto* mods =
        add_action("parcels", tr("Parcels…"), Qt::Key_M, tr("Mods that are in the game, their order, and putting another one in"), [this] {
            if (parcels_ && !model_->store().needs_project()) show_parcels(this, parcels_);
        });

    auto* left = make_panel();
    auto* left_box = new QVBoxLayout(left);
    left_box->setContentsMargins(12, 12, 12, 10);
    auto* head = new QHBoxLayout;
    head->addWidget(make_label(tr("LOAD ORDER"), "heading"));
    head->addStretch();
    head->addWidget(make_label(tr("the upper one wins"), "soft"));
    left_box->addLayout(head);
    rows_ = new QStandardItemModel(this);
    auto* order_list = new OrderList;
    order_list->moved = [this](int from, int to) {
        const int count = rows_->rowCount();
        model_->place(std::size_t(count - 1 - from), std::size_t(count - 1 - to));
    };
    list_ = order_list;
    list_->setObjectName(QStringLiteral("sources"));
    list_->setAccessibleName(tr("Sources in load order"));
    list_->setModel(rows_);
    list_->setItemDelegate(new SourceDelegate(list_));
    list_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    left_box->addWidget(list_, 1);
    auto* order = new FlowRow;
    order->addWidget(new Button(up, Button::Look::link));
    order->addWidget(new Button(down, Button::Look::link));
    order->addWidget(new Button(remove, Button::Look::link));
    order->addStretch();
    left_box->addLayout(order);
    auto* adds = new FlowRow;
    adds->addWidget(new Button(add, Button::Look::plain));
    adds->addWidget(new Button(add_dir, Button::Look::plain));
    adds->addStretch();
    left_box->addLayout(adds);
    auto* news = new FlowRow;
    news->addWidget(news_ = new Button(find_, Button::Look::link));
    news->addStretch();
    left_box->addLayout(news);
    auto* clean = new FlowRow;
    clean->addWidget(new Button(mods, Button::Look::link));
    const auto count_parcels = [this, mods] {
        const auto& layers = model_->store().project().stack_state.stack.layers;
        const auto count = std::count_if(layers.begin(), layers.end(), [](const StackLayer& l) { return !l.is_own(); });
        mods->setText(count == 0 ? tr("Parcels…") : count == 1 ? tr("1 parcel is in…") : tr("%1 parcels are in…").arg(count));
    };
    connect(&model_->store(), &ProjectStore::history_changed, mods, count_parcels);
    connect(&model_->store(), &ProjectStore::opened, mods, count_parcels);
    count_parcels();
    clean->addWidget(new Button(baseline_, Button::Look::link));
    if (shipped)
        connect(shipped, &ShippedModel::changed, this, [this, shipped] {
            const auto seen = shipped->seen();
            if (!seen->now || seen->changes.empty()) return baseline_->setText(tr("As shipped…"));
            const auto& name = seen->versions[*seen->now].name;
            baseline_->setText(name.empty() ? tr("%L1 other than shipped…").arg(seen->changes.size())
                                            : tr("%L1 other than in %2…").arg(seen->changes.size()).arg(to_text(name)));
        });
    clean->addStretch();
    left_box->addLayout(clean);

    auto* right = make_panel();
    auto* box = new QVBoxLayout(right);
    box->setContentsMargins(20, 14, 20, 10);
    title_ = make_label({}, "title");
    about_ = make_label({}, "soft", true);
    map_title_ = make_label(tr("BYTE MAP"), "heading");
    map_ = new ByteMap;
    inside_ = make_label(tr("INSIDE"), "heading");
    entries_ = new EntryTable(this);
    table_ = new EntryView;
    table_->setObjectName(QStringLiteral("entries"));
    table_->setAccessibleName(tr("Entries of the source"));
    table_->setModel(entries_);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setShowGrid(false);
    table_->setTextElideMode(Qt::ElideLeft);  // the end of a path says most
    table_->setWordWrap(false);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(27);
    table_->verticalHeader()->setSectionResizeMode(QHeaderView::Fixed);  // a hundred thousand rows are not measured one by one
    table_->horizontalHeader()->setHighlightSections(false);
    table_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    table_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    const int widths[] = {0, 230, 80, 84, 92};
    table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    for (int i = 1; i < 5; ++i) table_->setColumnWidth(i, widths[i]);
    box->addWidget(title_);
    box->addWidget(about_);
    notes_ = make_label({}, "warning", true);
    box->addWidget(notes_);
    auto* links = new FlowRow;
    links->addWidget(new Button(off_, Button::Look::link));
    links->addWidget(new Button(group_, Button::Look::link));
    links->addWidget(kinds_button_ = new Button(kinds_, Button::Look::link));
    links->addWidget(new Button(keys_, Button::Look::link));
    auto* packers = new Button(packers_, Button::Look::link);
    links->addWidget(packers);
    // Few games need it, so it shows only where a sheet asks for one.
    const auto show = [this, packers] { packers->setVisible(wants_packers(model_->store())); };
    connect(&model_->store(), &ProjectStore::game_changed, packers, show);
    connect(&model_->store(), &ProjectStore::opened, packers, show);
    show();
    links->addStretch();
    box->addLayout(links);
    links = new FlowRow;
    look_inside_ = new QWidget;
    auto* looks = new QHBoxLayout(look_inside_);
    looks->setContentsMargins(0, 0, 0, 0);
    for (auto* a : {sift_, lens_, sheet_}) looks->addWidget(new Button(a, Button::Look::link));
    links->addWidget(look_inside_);
    links->addWidget(names_button_ = new Button(names_, Button::Look::link));
    links->addWidget(compact_button_ = new Button(compact_, Button::Look::link));
    links->addStretch();
    box->addLayout(links);
    box->addSpacing(6);
    box->addWidget(map_title_);
    box->addWidget(map_);
    box->addSpacing(6);
    box->addWidget(inside_);
    box->addWidget(table_, 1);
    auto* bottom = new QHBoxLayout;
    bottom->addStretch();
    bottom->addWidget(new Button(next, Button::Look::primary));
    box->addLayout(bottom);

    auto* full = new QWidget;
    auto* columns = new QHBoxLayout(full);
    columns->setContentsMargins(0, 0, 0, 0);
    left->setMinimumWidth(360);
    right->setMinimumWidth(520);
    auto* halves = new QSplitter;
    halves->setChildrenCollapsible(false);
    halves->setHandleWidth(16);
    halves->addWidget(left);
    halves->addWidget(right);
    halves->setStretchFactor(0, 0);
    halves->setStretchFactor(1, 1);
    halves->setSizes({410, 1000});
    keep_columns(halves, "sources");
    columns->addWidget(halves);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Sources"));
    stack_ = make_page_stack(
        this,
        make_empty_state(tr("No archive yet"), tr("Show where the game is installed, or drop its archives or its folder here."),
                         new Button(find_, Button::Look::primary)),
        full);

    connect(model->found(), &FoundModel::changed, this, [this] {
        const auto fresh = model_->found()->fresh();
        find_->setText(fresh == 0   ? tr("Find in the game's folder…")
                       : fresh == 1 ? tr("One new thing in the game's folder…")
                                    : tr("%1 new things in the game's folder…").arg(fresh));
    });
    connect(model, &SourcesModel::changed, this, &SourcesPage::refresh);
    connect(&model->store(), &ProjectStore::history_changed, this, &SourcesPage::refresh);
    connect(list_->selectionModel(), &QItemSelectionModel::currentChanged, this,
            [this](const QModelIndex& now) { show_source(now.row()); });
    connect(map_, &ByteMap::entry_chosen, this, [this](int entry) {
        const int row = entries_->row_of_entry(entry);
        if (row >= 0) table_->selectRow(row);
    });
    connect(table_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this](const QModelIndex& now) { map_->select_entry(entries_->entry_of_row(now.row())); });
    refresh();
}

int SourcesPage::current_source() const {
    const auto index = list_->currentIndex();
    return index.isValid() ? index.data(SourceIndex).toInt() : -1;
}

QJsonObject SourcesPage::view() const {
    const auto snapshot = model_->snapshot();
    const auto at = std::size_t(current_source());
    return {{QStringLiteral("source"), at < snapshot->sources.size() ? to_text(snapshot->sources[at].path) : wished_}};
}

void SourcesPage::restore(const QJsonObject& view) {
    wished_ = view.value(QStringLiteral("source")).toString();
    refresh();
}

void SourcesPage::refresh() {
    const auto snapshot = model_->snapshot();
    const int before = current_source();
    rows_->clear();
    const bool other = stack_->currentIndex() != (snapshot->sources.empty() ? 0 : 1);
    stack_->setCurrentIndex(snapshot->sources.empty() ? 0 : 1);
    if (other && isVisible()) entered();
    for (std::size_t i = snapshot->sources.size(); i-- > 0;) {  // the upper one wins
        const auto& source = snapshot->sources[i];
        auto* row = new QStandardItem(to_text(source.path.filename()));
        row->setData(int(i), SourceIndex);
        const auto setting = model_->setting(i);
        const auto shipped = model_->shipped(source.path);
        const auto group = setting.group.empty() ? QString() : to_text(setting.group) + QStringLiteral(" · ");
        row->setData(group + (source.container                        ? to_text(source.container->kind())
                              : setting.off                           ? tr("not loaded")
                              : !snapshot->whole && !source.error     ? tr("being opened")
                              : snapshot->facts[i].candidates.empty() ? tr("not recognized")
                                                                      : to_text(snapshot->facts[i].candidates[0].first)),
                     About);
        row->setData(source.container || snapshot->texture_counts[i] > 0
                         ? tr("%n texture(s)", nullptr, int(snapshot->texture_counts[i]))
                               .replace(QStringLiteral("(s)"), snapshot->texture_counts[i] == 1 ? QString() : QStringLiteral("s"))
                         : QStringLiteral("–"),
                     Count);
        std::error_code code;
        const auto real = std::filesystem::weakly_canonical(source.path, code);
        const bool ours =
            std::any_of(model_->history().begin(), model_->history().end(), [&](const Journal& j) { return j.touches(real); });
        const bool damaged = source.container && !source.container->problems().empty();
        row->setData(snapshot->facts[i].wants_key     ? tr("wants a key")
                     : source.error                   ? tr("cannot be read")
                     : damaged                        ? tr("damaged")
                     : setting.off                    ? tr("switched off")
                     : shipped == Shipped::as_shipped ? tr("as shipped")
                     : shipped == Shipped::added      ? tr("added later")
                     : ours                           ? tr("changed by us")
                     : shipped == Shipped::changed    ? tr("changed by someone else")
                                                      : tr("as found"),
                     Status);
        row->setDragEnabled(true);
        row->setDropEnabled(false);
        row->setData(source.error.has_value() || snapshot->facts[i].wants_key || damaged, Bad);
        row->setData(row->text() + ", " + row->data(Count).toString() + ", " + row->data(Status).toString(), Qt::AccessibleTextRole);
        rows_->appendRow(row);
    }
    if (rows_->rowCount() == 0) return;
    int row = 0;
    for (int r = 0; r < rows_->rowCount(); ++r) {
        const auto index = rows_->item(r)->data(SourceIndex).toUInt();
        // Nothing chosen before: the source with the most textures says most.
        const bool wanted = before >= 0
                                ? int(index) == before
                                : snapshot->texture_counts[index] > snapshot->texture_counts[rows_->item(row)->data(SourceIndex).toUInt()];
        if (wanted) row = r;
    }
    for (int r = 0; r < rows_->rowCount() && !wished_.isEmpty(); ++r)
        if (to_text(snapshot->sources[rows_->item(r)->data(SourceIndex).toUInt()].path) == wished_) {
            row = r;
            wished_.clear();
        }
    list_->setCurrentIndex(rows_->index(row, 0));
    show_source(row);
}

void SourcesPage::entered() {
    // Keys go to what has the focus: where there is no list yet, that is the page.
    if (stack_->currentIndex() == 0) setFocus();
    else list_->setFocus();
}

void SourcesPage::show_source(int row) {
    if (row < 0 || row >= rows_->rowCount()) return;
    const auto snapshot = model_->snapshot();
    const auto index = std::size_t(rows_->item(row)->data(SourceIndex).toInt());
    if (index >= snapshot->sources.size()) return;
    const auto& source = snapshot->sources[index];
    title_->setText(to_text(source.path.filename()));
    title_->setToolTip(to_text(source.path));
    if (!source.container && !source.error) {
        about_->setText(model_->setting(std::size_t(index)).off ? tr("not loaded") : tr("being opened"));
        about_->setObjectName(QStringLiteral("soft"));
    } else if (source.error) {
        about_->setText(to_text(source.error->message()));
        about_->setObjectName(QStringLiteral("warning"));
    } else {
        const auto kind = spoken(source.container->kind()), by = spoken(source.container->recognized_by());
        const auto count = source.container->entries().size();
        about_->setText(count == 1 ? tr("%1 · recognized by %2 · 1 entry").arg(kind, by)
                                   : tr("%1 · recognized by %2 · %3 entries").arg(kind, by, to_text(grouped(count))));
        about_->setObjectName(QStringLiteral("soft"));
    }
    const auto& facts = snapshot->facts[index];
    const bool off = model_->setting(std::size_t(index)).off;
    off_->setText(off ? tr("Switch on") : tr("Switch off"));
    QStringList notes;
    if (off) notes << tr("Switched off: the catalog is as if the game did not have it.");
    if (model_->shipped(source.path) == Shipped::added)
        notes << tr(
            "Was not there when the installation was recorded as shipped. A tool for mods may have left it: do not take originals from "
            "it.");
    if (facts.wants_key && !source.error)
        notes << tr("Some entries are encrypted and no key opens them. Add the archive's password or key.");
    if (!facts.read_only.empty()) notes << tr("Only for reading: %1.").arg(spoken(facts.read_only));
    if (source.container && !source.container->problems().empty()) notes << to_text(source.container->problems().front().message());
    notes_->setText(notes.join('\n'));
    notes_->setVisible(!notes.isEmpty());
    compact_->setEnabled(facts.dead_bytes > 0 && facts.read_only.empty());
    compact_->setText(tr("Give %1 back").arg(to_text(human_bytes(facts.dead_bytes))));
    compact_button_->setVisible(compact_->isEnabled());
    std::error_code code;
    const bool file = std::filesystem::is_regular_file(source.path, code);
    for (auto* a : {sift_, lens_, sheet_}) a->setEnabled(file);
    look_inside_->setVisible(file);
    names_->setEnabled(facts.unnamed > 0);
    names_->setText(tr("Names for %L1…").arg(facts.unnamed));
    names_button_->setVisible(facts.unnamed > 0);
    kinds_->setEnabled(!facts.candidates.empty() || source.error);
    kinds_button_->setVisible(kinds_->isEnabled());
    set_wrong(about_, source.error.has_value());
    const bool map = !snapshot->segments[index].empty();
    map_->setVisible(map);
    map_title_->setVisible(map);
    inside_->setVisible(!source.error);
    table_->setVisible(!source.error);
    map_->show_source(snapshot, index);
    entries_->show_source(snapshot, index);
}

void SourcesPage::choose_group() {
    if (current_source() < 0) return;
    const auto index = std::size_t(current_source());
    auto* menu = new QMenu(this);
    menu->setObjectName(QStringLiteral("groups"));
    menu->setAttribute(Qt::WA_DeleteOnClose);
    const auto now = model_->setting(index).group;
    const std::pair<QString, std::string> groups[] = {{tr("&Base"), "base"},
                                                      {tr("&Update"), "update"},
                                                      {tr("&Extra content"), "extra content"},
                                                      {tr("&Other mods"), "other mods"},
                                                      {tr("&Nothing said"), ""}};
    for (const auto& [name, group] : groups) {
        auto* action = menu->addAction(name);
        action->setCheckable(true);
        action->setChecked(group == now);
        connect(action, &QAction::triggered, this, [this, index, group = group] {
            auto setting = model_->setting(index);
            setting.group = group;
            model_->set(index, setting);
        });
    }
    const auto rect = list_->visualRect(list_->currentIndex());
    menu->popup(list_->viewport()->mapToGlobal(rect.center()));
}

void SourcesPage::open_lens() {
    if (current_source() < 0) return;
    const auto chosen = table_->isVisible() && table_->currentIndex().isValid() ? entries_->entry_of_row(table_->currentIndex().row()) : -1;
    show_raw_lens(this, model_, std::size_t(current_source()), chosen >= 0 ? std::optional(std::size_t(chosen)) : std::nullopt);
}

void SourcesPage::find_in_folder() {
    const auto& game = model_->store().project().game;
    if (!game.empty()) return show_found(this, model_->found(), game);
    ask_for_game(this, [this](const std::filesystem::path& folder) { show_found(this, model_->found(), folder); });
}

void SourcesPage::add_archives() {
    auto* dialog = new QFileDialog(this, tr("Add archives"));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setFileMode(QFileDialog::ExistingFiles);
    keep_folder(dialog, "archives");
    connect(dialog, &QFileDialog::filesSelected, this, [this](const QStringList& files) {
        for (const auto& file : files) model_->add(file.toStdString());
    });
    dialog->open();
}

void SourcesPage::add_folder() {
    choose_folder(this, "archives", tr("Add a folder"), [this](const std::filesystem::path& folder) { model_->add(folder); });
}

}  // namespace skivet::app
