#include "app/workshop/parcels_window.h"

#include <algorithm>
#include <QAction>
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QMimeData>

#include "app/guide_window.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/widgets/card_rows.h"
#include "app/widgets/flow_row.h"
#include "app/workshop/workshop_actions.h"

namespace skivet::app {
namespace {

/// Nobody reads more.
constexpr std::size_t most_rows = 500;

QListWidget* make_list(const char* name, const QString& accessible) {
    auto* out = new QListWidget;
    out->setObjectName(QString::fromLatin1(name));
    out->setAccessibleName(accessible);
    out->setItemDelegate(new CardRows(false, out));
    out->setUniformItemSizes(true);
    out->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    out->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    return out;
}

QListWidgetItem* add_row(QListWidget* list, const QString& name, const QString& under, int number, bool wrong = false) {
    auto* item = new QListWidgetItem(name, list);
    item->setData(CardNumber, number);
    item->setData(CardUnder, under);
    item->setData(CardWrong, wrong);
    item->setToolTip(under.isEmpty() ? name : name + '\n' + under);
    item->setData(Qt::AccessibleTextRole, name + ", " + under);
    return item;
}

}  // namespace

ParcelsWindow::ParcelsWindow(QWidget* parent, ParcelModel* model) : QDialog(parent), model_(model) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("parcels"));
    setWindowTitle(tr("Parcels"));
    setAcceptDrops(true);
    resize(1180, 680);
    keep_size(this, "parcels");
    set_help(this, "parcels");
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(16, 14, 16, 12);
    columns->setSpacing(18);
    auto* left = make_left();
    left->setFixedWidth(330);
    columns->addWidget(left);
    columns->addWidget(make_right(), 1);
    connect(model_, &ParcelModel::changed, this, &ParcelsWindow::refresh);
    connect(model_, &ParcelModel::refused, this, &ParcelsWindow::refuse);
    connect(layers_, &QListWidget::currentRowChanged, this, &ParcelsWindow::show_layer);
    connect(textures_, &QListWidget::currentRowChanged, this, &ParcelsWindow::show_texture);
    refresh();
    model_->look();
    layers_->setFocus();
}

QWidget* ParcelsWindow::make_left() {
    auto* left = new QWidget;
    auto* box = new QVBoxLayout(left);
    box->setContentsMargins(0, 0, 0, 0);
    auto* head = new QHBoxLayout;
    head->addWidget(make_label(tr("IN THE GAME"), "heading"));
    head->addStretch();
    head->addWidget(make_label(tr("the upper one wins"), "soft"));
    box->addLayout(head);
    layers_ = make_list("layers", tr("Parcels and your own work, the uppermost first"));
    box->addWidget(layers_, 1);
    const auto id = [this] { return model_->plan()->wanted.layers[*current_layer()].id; };
    const auto move = [this, id](int by) {
        if (!current_layer()) return;
        const auto place = int(*current_layer()) + by;
        if (place >= 0 && place < int(model_->plan()->wanted.layers.size())) model_->move(id(), std::size_t(place));
    };
    higher_ = add_workshop_action(this, "parcels/higher", [move] { move(1); });
    lower_ = add_workshop_action(this, "parcels/lower", [move] { move(-1); });
    out_ = add_workshop_action(this, "parcels/take-out", [this, id] {
        if (current_layer()) model_->take_out(id());
    });
    moves_ = new QWidget;
    auto* moves = new QVBoxLayout(moves_);
    moves->setContentsMargins(0, 0, 0, 0);
    auto* order = new FlowRow;
    for (auto* action : {higher_, lower_}) order->addWidget(new Button(action, Button::Look::link));
    order->addStretch();
    moves->addLayout(order);
    order = new FlowRow;
    order->addWidget(new Button(out_, Button::Look::link));
    order->addStretch();
    moves->addLayout(order);
    box->addWidget(moves_);
    add_ = add_workshop_action(this, "parcels/put-one-in", [this] {
        const auto file = QFileDialog::getOpenFileName(this, tr("Put a parcel in"), {}, tr("Parcels and archives (*)"));
        if (!file.isEmpty()) bring(file.toStdString());
    });
    auto* folder = add_workshop_action(this, "parcels/folder", [this] {
        const auto path = QFileDialog::getExistingDirectory(this, tr("Put a folder in"));
        if (!path.isEmpty()) bring(path.toStdString());
    });
    auto* adds = new FlowRow;
    adds->addWidget(new Button(add_, Button::Look::plain));
    adds->addWidget(new Button(folder, Button::Look::plain));
    adds->addStretch();
    box->addLayout(adds);
    box->addSpacing(12);
    textures_title_ = make_label(tr("TEXTURES"), "heading");
    box->addWidget(textures_title_);
    textures_ = make_list("changes", tr("Textures, and what becomes of each"));
    box->addWidget(textures_, 1);
    return left;
}

QWidget* ParcelsWindow::make_right() {
    auto* right = new QWidget;
    auto* box = new QVBoxLayout(right);
    box->setContentsMargins(0, 0, 0, 0);
    empty_ = make_empty_state(tr("No parcel yet"), tr("Drop a parcel here, or another mod as a folder or an archive."),
                              new Button(add_, Button::Look::primary));
    box->addWidget(empty_, 1);
    full_ = new QWidget;
    auto* inside = new QVBoxLayout(full_);
    inside->setContentsMargins(0, 0, 0, 0);
    title_ = make_label({}, "title");
    about_ = make_label({}, "soft", true);
    notes_ = make_label({}, "soft", true);
    inside->addWidget(title_);
    inside->addWidget(about_);
    inside->addWidget(notes_);
    inside->addSpacing(8);
    auto* row = new QHBoxLayout;
    auto* shared = new SharedView(this);
    for (int i = 0; i < 2; ++i) {
        auto* column = new QVBoxLayout;
        names_[i] = make_label({}, "strong");
        column->addWidget(names_[i]);
        views_[i] = new ImageView(shared);
        column->addWidget(views_[i], 1);
        auto* button = new Button(tr("This one stays"), Button::Look::plain);
        button->setObjectName(i == 0 ? QStringLiteral("left_stays") : QStringLiteral("right_stays"));
        stays_[i] = button;
        // The pictures stay where they are, whether there is something to choose or not.
        auto policy = button->sizePolicy();
        policy.setRetainSizeWhenHidden(true);
        button->setSizePolicy(policy);
        connect(button, &QPushButton::clicked, this, [this, i] {
            const int at = textures_->currentRow();
            if (at < 0 || !shown_[i] || !model_->plan()) return;
            model_->prefer(rows_[std::size_t(at)].address, model_->plan()->wanted.layers[*shown_[i]].id);
        });
        column->addWidget(button, 0, Qt::AlignLeft);
        row->addLayout(column, 1);
    }
    row->setSpacing(16);
    inside->addLayout(row, 1);
    about_texture_ = make_label({}, "soft", true);
    inside->addWidget(about_texture_);
    box->addWidget(full_, 1);
    auto* bottom = new QHBoxLayout;
    state_ = make_label({}, "soft", true);
    bottom->addWidget(state_, 1);
    leave_ = add_workshop_action(this, "parcels/leave", [this] { model_->leave(); });
    write_ = add_workshop_action(this, "parcels/write", [this] {
        write_->setEnabled(false);
        leave_->setEnabled(false);
        model_->carry_out();
    });
    leave_button_ = new Button(leave_, Button::Look::plain);
    leave_button_->setObjectName(QStringLiteral("leave_change"));
    bottom->addWidget(leave_button_);
    write_button_ = new Button(write_, Button::Look::primary);
    write_button_->setObjectName(QStringLiteral("write_change"));
    bottom->addWidget(write_button_);
    box->addLayout(bottom);
    return right;
}

void ParcelsWindow::bring(const std::filesystem::path& path) {
    state_->setText(tr("Reading %1…").arg(to_text(path.filename())));
    model_->bring(path);
}

std::optional<std::size_t> ParcelsWindow::current_layer() const {
    const auto* item = layers_->currentItem();
    if (!item || !model_->plan()) return std::nullopt;
    const auto layer = std::size_t(item->data(CardNumber).toInt());
    return layer < model_->plan()->wanted.layers.size() ? std::optional(layer) : std::nullopt;
}

QString ParcelsWindow::name_of(std::size_t layer) const {
    const auto& one = model_->plan()->wanted.layers[layer];
    return one.is_own() ? tr("Your own work") : to_text(one.title);
}

void ParcelsWindow::refresh() {
    const auto plan = model_->plan();
    const QSignalBlocker quiet(layers_);
    const auto before = layers_->currentItem() ? layers_->currentItem()->text() : QString();
    layers_->clear();
    const bool waits = model_->waits();
    const bool any = plan && !plan->wanted.empty();
    full_->setVisible(any);
    empty_->setVisible(!any);
    textures_title_->setVisible(any);
    textures_->setVisible(any);
    moves_->setVisible(any);
    int chosen = 0;
    if (any)
        for (std::size_t i = plan->wanted.layers.size(); i-- > 0;) {
            const auto& layer = plan->wanted.layers[i];
            const bool is_new = !layer.is_own() && !model_->stack().find(layer.id);
            QString under;
            if (layer.is_own()) {
                under = tr("painted on your bench");
            } else {
                QStringList parts;
                if (is_new) parts << tr("not in yet");
                if (!layer.version.empty()) parts << to_text(layer.version);
                if (!layer.author.empty()) parts << to_text(layer.author);
                parts << (layer.matches.size() == 1 ? tr("1 texture") : tr("%L1 textures").arg(layer.matches.size()));
                under = parts.join(QStringLiteral(" · "));
            }
            auto* item = add_row(layers_, name_of(i), under, int(i));
            // What is brought is what one wants to see; then what was chosen; then the uppermost parcel.
            if (is_new) chosen = layers_->row(item);
            else if (item->text() == before && !(model_->mod() && waits)) chosen = layers_->row(item);
            else if (before.isEmpty() && chosen == 0 && layer.is_own() && i > 0) chosen = 1;
        }
    if (layers_->count() > 0) layers_->setCurrentRow(std::min(chosen, layers_->count() - 1));
    write_->setEnabled(waits && plan && !plan->error());
    leave_->setEnabled(waits);
    for (auto* button : {leave_button_, write_button_}) button->setVisible(waits);
    const auto leaves = [&](const StackLayer& layer) { return !layer.is_own() && !plan->wanted.find(layer.id); };
    write_->setText(waits && model_->mod()                                                 ? tr("Put it in")
                    : waits && plan && std::ranges::any_of(model_->stack().layers, leaves) ? tr("Take it out")
                                                                                           : tr("Write it"));
    QString state;
    if (plan && plan->error()) {
        state = to_text(plan->error()->message());
    } else if (waits && plan) {
        std::uint64_t bytes = 0;
        QStringList where;
        for (const auto& group : plan->groups)
            if (group.writes()) bytes += group.plan.bytes_written(), where << to_text(group.source.filename());
        state = where.isEmpty()
                    ? tr("The game has these bytes already; nothing will be written.")
                    : tr("%1 bytes into %2. Nothing has been written yet.").arg(to_text(grouped(bytes)), where.join(QStringLiteral(", ")));
        if (model_->mod() && !model_->mod()->strangers.empty())
            state += ' ' + (model_->mod()->strangers.size() == 1
                                ? tr("1 texture of it is not in this game.")
                                : tr("%L1 textures of it are not in this game.").arg(model_->mod()->strangers.size()));
    } else if (any) {
        state = tr("The game is as it stands here.");
    }
    state_->setText(state);
    show_layer();
}

void ParcelsWindow::refuse(const QString& why) {
    state_->setText(why);
    write_->setEnabled(false);
    leave_->setEnabled(true);
    leave_button_->show();
    write_button_->hide();
    // A parcel of which nothing goes in can be looked through all the same.
    if (!model_->mod()) return;
    full_->show();
    empty_->hide();
    textures_title_->show();
    textures_->show();
    show_about(model_->mod()->parcel.about, model_->mod()->parcel.foreign);
    const QSignalBlocker quiet(textures_);
    textures_->clear();
    rows_.clear();
    const auto& mod = *model_->mod();
    for (std::size_t i = 0; i < model_->matches().size() && i < most_rows; ++i) {
        const auto& match = model_->matches()[i];
        // Without a plan there is nothing to compare in the game: its own pictures are shown.
        rows_.push_back({{},
                         to_text(mod.parcel.textures[i].inner.back()),
                         to_text(match.note.empty() ? std::string(skivet::name_of(match.how)) : match.note),
                         i,
                         !goes_in(match.how),
                         nullptr});
        add_row(textures_, rows_.back().name, rows_.back().note, int(i), rows_.back().wrong);
    }
    textures_->setCurrentRow(rows_.empty() ? -1 : 0);
    show_texture();
}

QString ParcelsWindow::words_of(const StackTexture& met) const {
    if (!met.unfit.empty()) return tr("%1 does not fit the game's texture any more").arg(name_of(met.unfit.front()));
    if (met.left_out.empty()) return tr("several change it, each in a place of its own");
    QString stays;
    for (const auto layer : met.layers)
        if (std::find(met.left_out.begin(), met.left_out.end(), layer) == met.left_out.end()) stays = name_of(layer);
    return tr("%1 stays, %2 gives way").arg(stays, name_of(met.left_out.front()));
}

std::vector<ParcelsWindow::Row> ParcelsWindow::rows_of(std::size_t layer) const {
    std::vector<Row> out;
    const auto plan = model_->plan();
    const auto& one = plan->wanted.layers[layer];
    const auto met_at = [&](const Address& address) -> const StackTexture* {
        for (const auto& met : plan->textures)
            if (met.address == address) return &met;
        return nullptr;
    };
    const auto add = [&](const Address& address, const QString& name, QString note, bool wrong) {
        const auto* met = address.inner.empty() ? nullptr : met_at(address);
        if (met && (met->layers.size() > 1 || !met->unfit.empty()))
            note = words_of(*met), wrong = wrong || !met->left_out.empty() || !met->unfit.empty();
        out.push_back({address, name, note, 0, wrong, met});
    };
    const bool is_brought = model_->mod() && model_->waits() && !one.is_own() && model_->mod()->parcel.about.id == one.id;
    if (is_brought) {
        const auto& textures = model_->mod()->parcel.textures;
        for (std::size_t i = 0; i < model_->matches().size(); ++i) {
            const auto& match = model_->matches()[i];
            const auto how = spoken(skivet::name_of(match.how));
            add(goes_in(match.how) ? match.address : Address{}, to_text(textures[i].inner.back()),
                match.note.empty() ? how : how + ": " + spoken(match.note), !goes_in(match.how));
            out.back().texture = i;
        }
    } else if (one.is_own()) {
        for (const auto& met : plan->textures)
            if (std::find(met.layers.begin(), met.layers.end(), layer) != met.layers.end())
                add(met.address, to_text(met.address.inner.back()), {}, false);
    } else {
        for (const auto& match : one.matches)
            add(match.address, to_text(match.address.inner.back()), to_text(match.address.source.filename()), false);
    }
    // What needs a look first.
    std::stable_sort(out.begin(), out.end(), [](const Row& a, const Row& b) { return a.wrong > b.wrong; });
    if (out.size() > most_rows) out.resize(most_rows);
    return out;
}

void ParcelsWindow::show_about(const ParcelAbout& about, bool foreign) {
    title_->setText(to_text(about.title));
    QStringList parts;
    if (!about.version.empty()) parts << tr("version %1").arg(to_text(about.version));
    if (!about.author.empty()) parts << tr("by %1").arg(to_text(about.author));
    if (!about.license.empty()) parts << to_text(about.license);
    if (!about.game.empty()) parts << tr("for %1").arg(to_text(about.game));
    if (foreign) parts << tr("a mod of another form: whole textures, nobody knows what it changed");
    about_->setText(parts.join(QStringLiteral(" · ")));
    notes_->setText(to_text(about.notes).left(600));
    notes_->setVisible(!about.notes.empty());
}

void ParcelsWindow::show_layer() {
    const auto layer = current_layer();
    const bool parcel = layer && !model_->plan()->wanted.layers[*layer].is_own();
    const bool settled = !model_->waits();
    out_->setEnabled(parcel && settled);
    higher_->setEnabled(layer && settled && *layer + 1 < model_->plan()->wanted.layers.size());
    lower_->setEnabled(layer && settled && *layer > 0);
    const QSignalBlocker quiet(textures_);
    textures_->clear();
    rows_.clear();
    if (!layer) return;
    const auto& one = model_->plan()->wanted.layers[*layer];
    rows_ = rows_of(*layer);
    for (std::size_t i = 0; i < rows_.size(); ++i) add_row(textures_, rows_[i].name, rows_[i].note, int(i), rows_[i].wrong);
    if (one.is_own()) {
        title_->setText(tr("Your own work"));
        about_->setText(rows_.empty() ? tr("No parcel changes a texture that you painted.") : tr("Textures that a parcel changes, too:"));
        notes_->hide();
    } else if (model_->mod() && model_->waits() && model_->mod()->parcel.about.id == one.id) {
        show_about(model_->mod()->parcel.about, model_->mod()->parcel.foreign);
    } else {
        ParcelAbout about;
        about.title = one.title;
        about.version = one.version;
        about.author = one.author;
        show_about(about, false);
        model_->read(this, one, [this, id = one.id](const Result<Parcel>& read) {
            const auto now = current_layer();
            if (read && now && model_->plan()->wanted.layers[*now].id == id) show_about(read->about, read->foreign);
        });
    }
    textures_->setCurrentRow(rows_.empty() ? -1 : 0);
    show_texture();
}

void ParcelsWindow::show_texture() {
    const int at = textures_->currentRow();
    for (int i = 0; i < 2; ++i) {
        views_[i]->set_image({});
        stays_[i]->hide();
        names_[i]->clear();
        shown_[i].reset();
    }
    about_texture_->clear();
    if (at < 0 || std::size_t(at) >= rows_.size()) return;
    const auto& row = rows_[std::size_t(at)];
    about_texture_->setText(row.note);
    if (row.address.inner.empty()) {
        names_[0]->setText(tr("Before, as the parcel shows it"));
        names_[1]->setText(tr("After"));
        model_->previews(this, row.texture, [this, at](const QImage& before, const QImage& after) {
            if (textures_->currentRow() != at) return;
            const QImage* images[2] = {&before, &after};
            for (int i = 0; i < 2; ++i)
                if (images[i]->isNull()) views_[i]->set_message(tr("No picture"));
                else views_[i]->set_image(*images[i]);
        });
        return;
    }
    for (auto* view : views_) view->set_message(tr("Reading…"));
    model_->sides(this, row.address, [this, address = row.address](const Result<std::vector<ParcelModel::Side>>& sides) {
        const int now = textures_->currentRow();
        if (now < 0 || std::size_t(now) >= rows_.size() || !(rows_[std::size_t(now)].address == address)) return;
        if (sides) return show_sides(rows_[std::size_t(now)], *sides);
        views_[0]->set_message(to_text(sides.error().message()));
        views_[1]->set_message({});
    });
}

void ParcelsWindow::show_sides(const Row& row, const std::vector<ParcelModel::Side>& sides) {
    const auto side_of = [&](std::optional<std::size_t> layer) -> const ParcelModel::Side* {
        for (const auto& side : sides)
            if (side.layer == layer) return &side;
        return nullptr;
    };
    std::optional<std::size_t> wanted[2] = {std::nullopt, current_layer()};
    const bool meets = row.met && !row.met->left_out.empty();
    if (meets) {
        // The one that stays on the left, the other on the right; of several others the one that was chosen in the list.
        const auto& out = row.met->left_out;
        for (const auto layer : row.met->layers)
            if (std::find(out.begin(), out.end(), layer) == out.end()) wanted[0] = layer;
        if (std::find(out.begin(), out.end(), *wanted[1]) == out.end()) wanted[1] = out.front();
    }
    for (int i = 0; i < 2; ++i) {
        const auto* side = side_of(wanted[i]);
        shown_[i] = wanted[i];
        names_[i]->setText(!wanted[i]        ? tr("The game's own")
                           : meets && i == 0 ? tr("%1 (stays)").arg(name_of(*wanted[i]))
                                             : name_of(*wanted[i]));
        views_[i]->setAccessibleName(names_[i]->text());
        if (side) views_[i]->set_image(side->picture);
        else views_[i]->set_message(tr("No picture"));
        stays_[i]->setVisible(meets && i == 1);
    }
}

void ParcelsWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->urls().size() == 1 && event->mimeData()->urls().front().isLocalFile()) event->acceptProposedAction();
}

void ParcelsWindow::dropEvent(QDropEvent* event) {
    event->acceptProposedAction();
    bring(event->mimeData()->urls().front().toLocalFile().toStdString());
}

void show_parcels(QWidget* parent, ParcelModel* model) {
    auto* window = new ParcelsWindow(parent, model);
    window->show();
}

}  // namespace skivet::app
