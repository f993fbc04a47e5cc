#include "app/pages/try_on_panel.h"

#include <cmath>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QMenu>

#include "app/language.h"
#include "app/models/left_state.h"
#include "app/theme/theme.h"
#include "app/widgets/actions.h"
#include "app/widgets/button.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/helpers.h"
#include "app/workshop/columns_window.h"

namespace skivet::app {
namespace {

constexpr int slider_steps = 1000;
constexpr int tile_counts[] = {1, 2, 3, 4, 8};
const double span_of_distance = std::log(MeshView::farthest / MeshView::nearest);

int slider_at(double distance) { return int(std::lround(std::log(distance / MeshView::nearest) / span_of_distance * slider_steps)); }
double distance_at(int slider) { return MeshView::nearest * std::exp(span_of_distance * slider / slider_steps); }

QComboBox* make_combo(const QString& name, const QString& tip) {
    auto* combo = new QComboBox;
    combo->setAccessibleName(name);
    combo->setToolTip(tip);
    combo->setFocusPolicy(Qt::StrongFocus);
    combo->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    return combo;
}

QWidget* named(const QString& name, QWidget* field) {
    auto* both = new QWidget;
    auto* row = new QHBoxLayout(both);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(6);
    auto* label = make_label(name, "soft");
    row->addWidget(label);
    row->addWidget(field);
    return both;
}

}  // namespace

TryOnPanel::TryOnPanel(TryOnModel* model, QWidget* parent) : QWidget(parent), model_(model) {
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->setSpacing(12);
    columns->addWidget(make_object(), 3);
    columns->addWidget(make_flat(), 2);
    connect(model_, &TryOnModel::rows_changed, this, &TryOnPanel::show_rows);
    connect(model_, &TryOnModel::scene_changed, this, &TryOnPanel::show_scene);
    connect(&model_->pictures(), &MeshPictures::made, this, [this](const QImage& picture) { view_->set_picture(picture); });
    show_rows();
    show_scene(true);
}

QAction* TryOnPanel::toggle(const char* id, const QString& text, const QKeySequence& key, const QString& tip, bool on,
                            std::function<void()> run) {
    auto* action = add_named_action(this, QStringLiteral("fitting/object-") + QLatin1String(id), text, key, tip, std::move(run),
                                    Qt::WidgetWithChildrenShortcut);
    action->setCheckable(true);
    action->setChecked(on);
    return action;
}

QWidget* TryOnPanel::make_object() {
    using Side = TryOnModel::Side;
    auto* whole = new QWidget;
    auto* box = new QVBoxLayout(whole);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    const auto side = [this](const char* id, const QString& text, const QString& tip, Side which) {
        return toggle(id, text, {}, tip, false, [this, which] {
            model_->set_side(which);
            show_rows();
        });
    };
    game_ = side("games", tr("The game's"), tr("The texture as it was taken"), Side::game);
    yours_ = side("yours", tr("Yours"), tr("The texture as it was painted"), Side::yours);
    result_ = side("gets", tr("The game gets"), tr("Encoded, as it will be delivered"), Side::result);
    lit_ = toggle("light", tr("lit"), Qt::Key_C, tr("The light and all maps of the set; without it the colors alone"), true,
                  [this] { ask_picture(); });
    wires_ = toggle("wires", tr("triangles"), Qt::Key_G, tr("Draw the edges of the triangles"), false, [this] { ask_picture(); });
    auto* row = new FlowRow;
    row->setSpacing(5);
    for (auto* action : {game_, yours_, result_}) row->addWidget(new Button(action, Button::Look::toggle));
    row->addStretch();
    for (auto* action : {lit_, wires_}) row->addWidget(new Button(action, Button::Look::toggle));
    box->addLayout(row);

    view_ = new MeshView;
    view_->setObjectName(QStringLiteral("object"));
    view_->setAccessibleName(tr("The object"));
    connect(view_, &MeshView::moved, this, [this] {
        const QSignalBlocker quiet(distance_);
        distance_->setValue(slider_at(view_->distance()));
        ask_picture();
        say_mip();
    });
    connect(view_, &MeshView::pointed, this, &TryOnPanel::point_at_mesh);
    connect(view_, &MeshView::clicked, this, [this](QPointF at) {
        if (const auto hit = hit_at(at); hit && !flat_->image().isNull()) {
            point_at_mesh(at);
            if (const auto spot = flat_->spot())
                flat_->show_texels({int(spot->x() * flat_->image().width()), int(spot->y() * flat_->image().height()), 8, 8});
        }
    });
    box->addWidget(view_, 1);

    distance_ = new QSlider(Qt::Horizontal);
    distance_->setObjectName(QStringLiteral("distance"));
    distance_->setAccessibleName(tr("Distance"));
    distance_->setToolTip(tr("How far away one stands: the game takes smaller mips there"));
    distance_->setRange(0, slider_steps);
    distance_->setValue(slider_at(1));
    connect(distance_, &QSlider::valueChanged, this, [this](int at) { view_->set_distance(distance_at(at)); });
    mip_text_ = make_label({}, "soft");
    mip_text_->setObjectName(QStringLiteral("mip_text"));
    mip_text_->setMinimumWidth(mip_text_->fontMetrics().horizontalAdvance(tr("mip %1 of %2").arg(QStringLiteral("00.0")).arg(16)) + 6);
    mip_text_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    auto* far = new QHBoxLayout;
    far->addWidget(make_label(tr("near"), "soft"));
    far->addWidget(distance_, 1);
    far->addWidget(make_label(tr("far"), "soft"));
    far->addWidget(mip_text_);
    box->addLayout(far);

    mips_ = make_combo(tr("Mips"), tr("The mip that is used: by distance as a game does it, or one for all"));
    mips_->setObjectName(QStringLiteral("mips_used"));
    mips_->addItem(tr("by distance"));
    quality_ = make_combo(tr("Texture quality"), tr("What a game's settings do: lower ones leave out the largest mips"));
    quality_->addItems({tr("full"), tr("half"), tr("a quarter"), tr("an eighth")});
    tiles_ = make_combo(tr("Tiles each way"), tr("So many times each way, to see its seams"));
    tiles_->setObjectName(QStringLiteral("tiles"));
    for (const int n : tile_counts) tiles_->addItem(tr("%1 × %1").arg(n), n);
    tiles_box_ = named(tr("tiles"), tiles_);
    for (auto* combo : {mips_, quality_, tiles_})
        connect(combo, &QComboBox::currentIndexChanged, this, [this] {
            if (filling_) return;
            ask_picture();
            say_mip();
        });
    auto* last = new FlowRow;
    last->addWidget(named(tr("mips"), mips_));
    last->addWidget(named(tr("quality"), quality_));
    last->addWidget(tiles_box_);
    box->addLayout(last);
    box->addWidget(
        make_label(tr("Drag turns, with Shift moves, with Ctrl the light; the wheel goes nearer; Home shows the whole."), "soft", true));
    return whole;
}

QWidget* TryOnPanel::make_flat() {
    auto* whole = new QWidget;
    auto* box = new QVBoxLayout(whole);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    islands_ = toggle("islands", tr("islands"), {}, tr("Where the mesh lies on the texture; mirrored ones are orange, shared ones green"),
                      true, [this] { show_scene(false); });
    auto* save = new Button(tr("Save the islands…"), Button::Look::link);
    save->setObjectName(QStringLiteral("save_islands"));
    save->setToolTip(tr("As a picture to paint over, at the texture's size"));
    connect(save, &QPushButton::clicked, this, [this, save] {
        auto* menu = new QMenu(this);
        menu->setObjectName(QStringLiteral("islands_menu"));
        menu->setAttribute(Qt::WA_DeleteOnClose);
        menu->addAction(tr("Alone…"), this, [this] { save_islands(false); });
        menu->addAction(tr("Over the picture…"), this, [this] { save_islands(true); });
        menu->popup(save->mapToGlobal(QPoint(0, save->height())));
    });
    auto* head = new FlowRow;
    head->addWidget(new Button(islands_, Button::Look::toggle));
    head->addStretch();
    head->addWidget(save);
    box->addLayout(head);

    shared_ = new SharedView(this);
    flat_ = new ImageView(shared_);
    flat_->setObjectName(QStringLiteral("laid_flat"));
    flat_->setAccessibleName(tr("The texture laid flat"));
    connect(flat_, &ImageView::pointed, this, &TryOnPanel::point_at_flat);
    box->addWidget(flat_, 3);
    place_ = make_label({}, "soft", true);
    place_->setMinimumHeight(place_->fontMetrics().height() * 2 + 4);
    place_->setAlignment(Qt::AlignTop);
    facts_ = make_label({}, "soft", true);
    box->addWidget(facts_);
    box->addWidget(place_);

    auto* meshes = new QHBoxLayout;
    meshes->addWidget(make_label(tr("LIES ON"), "heading"));
    meshes->addStretch();
    auto* file = new Button(tr("Another file…"), Button::Look::link);
    file->setObjectName(QStringLiteral("mesh_file"));
    file->setToolTip(tr("A mesh of your own"));
    connect(file, &QPushButton::clicked, this, &TryOnPanel::choose_file);
    columns_ = new Button(tr("Columns…"), Button::Look::link);
    columns_->setObjectName(QStringLiteral("columns"));
    columns_->setToolTip(tr("What the columns of this table of vertices hold"));
    connect(columns_, &QPushButton::clicked, this, [this] {
        for (const auto& row : model_->meshes())
            if (const auto* address = std::get_if<Address>(&row.place); row.on && address && is_table_path(address->source.string()))
                return show_columns(address->source);
    });
    meshes->addWidget(columns_);
    meshes->addWidget(file);
    box->addLayout(meshes);
    tree_ = new QTreeWidget;
    tree_->setObjectName(QStringLiteral("lies_on"));
    tree_->setAccessibleName(tr("Meshes and their parts"));
    tree_->setHeaderHidden(true);
    tree_->setColumnCount(1);
    tree_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    tree_->setMinimumHeight(96);
    tree_->setTextElideMode(Qt::ElideMiddle);
    connect(tree_, &QTreeWidget::itemChanged, this, [this](QTreeWidgetItem* item) {
        if (filling_) return;
        ticked_ = true;
        const bool on = item->checkState(0) == Qt::Checked;
        const auto number = item->data(0, Qt::UserRole).toULongLong();
        const bool is_part = item->parent() != nullptr;
        // Later: the rows are made anew, and this one is being used.
        QMetaObject::invokeMethod(
            this, [this, is_part, number, on] { is_part ? model_->put_part_on(number, on) : model_->put_mesh_on(number, on); },
            Qt::QueuedConnection);
    });
    const auto use = [this](QTreeWidgetItem* item) {
        if (item && !item->parent())
            QMetaObject::invokeMethod(
                this, [this, row = item->data(0, Qt::UserRole).toULongLong()] { model_->use_only(row); }, Qt::QueuedConnection);
    };
    connect(tree_, &QTreeWidget::itemActivated, this, use);
    connect(tree_, &QTreeWidget::itemClicked, this, [this, use](QTreeWidgetItem* item) {
        if (!std::exchange(ticked_, false)) use(item);
    });
    tree_->installEventFilter(this);
    connect(tree_, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
        if (filling_ || !item) return;
        auto* top = item->parent() ? item->parent() : item;
        const auto row = top->data(0, Qt::UserRole).toULongLong();
        if (row < model_->meshes().size()) reason_->setText(model_->meshes()[row].reason);
    });
    tree_->setToolTip(tr("A click or Enter puts a mesh on alone; its box puts it on with others"));
    box->addWidget(tree_, 2);
    reason_ = make_label({}, "soft", true);
    reason_->setObjectName(QStringLiteral("reason"));
    box->addWidget(reason_);

    details_ = make_combo(tr("Level of detail"), tr("The mesh as the game has it for nearer and farther away"));
    connect(details_, &QComboBox::currentIndexChanged, this, [this](int at) {
        if (!filling_ && at >= 0) model_->set_detail(std::size_t(at));
    });
    upright_ = toggle("upright", tr("z is up"), Qt::Key_U, tr("The mesh lies on its side: its z runs upwards"), false,
                      [this] { model_->set_upright_z(upright_->isChecked()); });
    green_ =
        toggle("green-down", tr("green down"), Qt::Key_N, tr("The normal map's green runs down the picture (DirectX), not up (OpenGL)"),
               false, [this] { model_->set_green_down(green_->isChecked()); });
    colors_ =
        toggle("vertex-colors", tr("vertex colors"), Qt::Key_V,
               tr("Multiply by the colors of the mesh's vertices; games use them for other things, too"), true, [this] { ask_picture(); });
    auto* last = new FlowRow;
    last->addWidget(details_);
    last->addWidget(new Button(upright_, Button::Look::toggle));
    last->addWidget(new Button(green_, Button::Look::toggle));
    last->addWidget(new Button(colors_, Button::Look::toggle));
    box->addLayout(last);
    return whole;
}

void TryOnPanel::showEvent(QShowEvent*) { show_scene(std::exchange(missed_, false)); }

bool TryOnPanel::eventFilter(QObject* watched, QEvent* event) {
    // In the list Enter is its own, whatever it means on the page.
    if (watched == tree_ && event->type() == QEvent::ShortcutOverride) {
        const auto key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Return || key == Qt::Key_Enter) event->accept();
    }
    return QWidget::eventFilter(watched, event);
}

void TryOnPanel::show_rows() {
    using Side = TryOnModel::Side;
    const auto side = model_->has_sides() ? model_->side() : Side::game;
    for (auto [action, which] : {std::pair{game_, Side::game}, std::pair{yours_, Side::yours}, std::pair{result_, Side::result}}) {
        action->setChecked(side == which);
        action->setEnabled(which == Side::game || model_->has_sides());
    }
    filling_ = true;
    const auto* current = tree_->currentItem();
    const auto at =
        current ? std::pair(current->parent() != nullptr, current->data(0, Qt::UserRole).toULongLong()) : std::pair(false, qulonglong(-1));
    tree_->clear();
    const auto& meshes = model_->meshes();
    QTreeWidgetItem* again = nullptr;
    QTreeWidgetItem* first_on = nullptr;
    for (std::size_t m = 0; m < meshes.size(); ++m) {
        auto* row = new QTreeWidgetItem(tree_, {meshes[m].name});
        row->setCheckState(0, meshes[m].on ? Qt::Checked : Qt::Unchecked);
        row->setData(0, Qt::UserRole, qulonglong(m));
        row->setToolTip(0, meshes[m].reason);
        if (meshes[m].on) {
            auto font = row->font(0);
            font.setBold(true);
            row->setFont(0, font);
            if (!first_on) first_on = row;
        }
        if (at == std::pair(false, qulonglong(m))) again = row;
    }
    const auto& parts = model_->parts();
    const auto listed = [&](const TryOnModel::PartRow& part) {
        return part.mesh < meshes.size() && meshes[part.mesh].on && part.at_this_detail;
    };
    for (std::size_t p = 0; p < parts.size(); ++p) {
        if (!listed(parts[p])) continue;
        auto* above = tree_->topLevelItem(int(parts[p].mesh));
        // One part that is on is the mesh itself.
        if (parts[p].on && std::count_if(parts.begin(), parts.end(),
                                         [&](const auto& other) { return listed(other) && other.mesh == parts[p].mesh; }) == 1) {
            if (parts[p].triangles > 2) above->setText(0, tr("%1   %L2 triangles").arg(meshes[parts[p].mesh].name).arg(parts[p].triangles));
            continue;
        }
        auto* row = new QTreeWidgetItem(above, {tr("%1   %L2 triangles").arg(parts[p].title).arg(parts[p].triangles)});
        row->setCheckState(0, parts[p].on ? Qt::Checked : Qt::Unchecked);
        row->setData(0, Qt::UserRole, qulonglong(p));
        if (!parts[p].wears) row->setForeground(0, colors().soft);
        if (at == std::pair(true, qulonglong(p))) again = row;
        above->setExpanded(true);
    }
    if (again) tree_->setCurrentItem(again);
    details_->clear();
    for (const auto& detail : model_->details()) details_->addItem(tr("detail %1").arg(detail.number));
    details_->setCurrentIndex(int(model_->detail()));
    details_->setVisible(model_->details().size() > 1);
    filling_ = false;
    QString reason;
    for (const auto& mesh : meshes)
        if (mesh.on && reason.isEmpty()) reason = mesh.reason;
    reason_->setText(reason);
    upright_->setChecked(model_->upright_z());
    green_->setChecked(model_->green_down());
    columns_->setVisible(std::any_of(meshes.begin(), meshes.end(), [](const TryOnModel::MeshRow& row) {
        const auto* address = std::get_if<Address>(&row.place);
        return row.on && address && address->inner.empty() && is_table_path(address->source.string());
    }));
    green_->setVisible(model_->has_normals());
    colors_->setVisible(model_->has_colors());
    tiles_box_->setVisible(model_->is_plain());
    view_->set_described(model_->name());
}

void TryOnPanel::flip() {
    if (!model_->has_sides()) return;
    model_->set_side(static_cast<TryOnModel::Side>((int(model_->side()) + 1) % 3));
}

void TryOnPanel::show_columns(const std::filesystem::path& file) {
    model_->open_table(file, [this, file](Result<std::shared_ptr<const TryOnModel::OpenTable>> table) {
        if (!table) return reason_->setText(spoken(table.error().message()));
        auto* window = new ColumnsWindow(this, *table);
        connect(window, &ColumnsWindow::kept, this, [this, file, table = *table](const TableReading& reading) {
            model_->keep_reading(table->table, reading);
            model_->add_file(file);
        });
        window->open();
    });
}

void TryOnPanel::choose_file() {
    auto* dialog = new QFileDialog(this, tr("A mesh"), {},
                                   tr("Meshes (%1)").arg(QString::fromStdString(mesh_patterns()) + QStringLiteral(" *.csv *.tsv")));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setFileMode(QFileDialog::ExistingFile);
    keep_folder(dialog, "meshes");
    connect(dialog, &QFileDialog::fileSelected, this, [this](const QString& file) {
        if (is_table_path(file.toStdString())) show_columns(file.toStdString());
        else model_->add_file(file.toStdString());
    });
    dialog->open();
}

void TryOnPanel::save_islands(bool over_picture) {
    const auto name = model_->name();
    auto* dialog = new QFileDialog(this, tr("Save the islands"), {}, tr("Pictures (*.png *.svg)"));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setAcceptMode(QFileDialog::AcceptSave);
    dialog->setDefaultSuffix(QStringLiteral("png"));
    dialog->selectFile(name.left(name.lastIndexOf(QLatin1Char('.'))) + QStringLiteral("_islands.png"));
    keep_folder(dialog, "islands");
    connect(dialog, &QFileDialog::fileSelected, this, [this, over_picture](const QString& file) {
        model_->save_islands(file.toStdString(), over_picture, [this, file](const std::optional<Error>& error) {
            place_->setText(error ? spoken(error->message()) : tr("Saved as %1").arg(file));
        });
    });
    dialog->open();
}

}  // namespace skivet::app
