#include "app/workshop/frame_window.h"

#include <cmath>
#include <QFileDialog>
#include <QHBoxLayout>

#include "app/guide_window.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/widgets/button.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/helpers.h"
#include "app/workshop/try_on_window.h"
#include "app/workshop/workshop_actions.h"

namespace skivet::app {
namespace {

constexpr int little = 72;

/// A picture in a small well.
QLabel* make_little(const QImage& picture, const QString& name) {
    auto* label = new QLabel;
    label->setFixedSize(little, little);
    label->setAccessibleName(name);
    label->setToolTip(name);
    QPixmap drawn(QSize(little, little) * label->devicePixelRatioF());
    drawn.setDevicePixelRatio(label->devicePixelRatioF());
    drawn.fill(Qt::transparent);
    QPainter p(&drawn);
    draw_in_well(p, QRectF(0, 0, little, little), picture, 3);
    p.end();
    label->setPixmap(drawn);
    return label;
}

}  // namespace

FrameWindow::FrameWindow(QWidget* parent, FrameModel* model, TryOnModel* try_on) : QDialog(parent), model_(model), try_on_(try_on) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("frame_window"));
    setWindowTitle(tr("By frame"));
    resize(1180, 700);
    keep_size(this, "frame");
    set_help(this, "frames");
    auto* columns = new QHBoxLayout(this);
    columns->setContentsMargins(14, 12, 14, 12);
    columns->setSpacing(14);
    auto* left = new QVBoxLayout;
    view_ = new FrameView;
    view_->setObjectName(QStringLiteral("frame"));
    view_->setAccessibleName(tr("The frame"));
    left->addWidget(view_, 1);
    auto* under = new FlowRow;
    auto* before = add_workshop_action(this, "frame/before", [this] { model_->step(-1); });
    auto* next = add_workshop_action(this, "frame/next", [this] { model_->step(1); });
    auto* other = add_workshop_action(this, "frame/another", [this] { choose(); });
    mesh_ = add_workshop_action(this, "frame/mesh", [this] { show_on_mesh(); });
    under->addWidget(new Button(before, Button::Look::plain));
    under->addWidget(new Button(next, Button::Look::plain));
    under->addStretch();
    under->addWidget(new Button(other, Button::Look::link));
    left->addLayout(under);
    left->addWidget(
        make_label(tr("Point at a thing to light it, click to choose it, or step through all with the arrow keys."), "soft", true));
    columns->addLayout(left, 1);

    auto* right = new QWidget;
    right->setFixedWidth(340);
    auto* box = new QVBoxLayout(right);
    box->setContentsMargins(0, 0, 0, 0);
    thing_text_ = make_label({}, "strong", true);
    thing_text_->setObjectName(QStringLiteral("thing"));
    box->addWidget(thing_text_);
    box->addWidget(make_label(tr("ITS TEXTURES"), "heading"));
    rows_ = add_scrolling_column(box);
    note_ = make_label({}, "soft", true);
    note_->setObjectName(QStringLiteral("note"));
    box->addWidget(note_);
    auto* last = new FlowRow;
    last->addStretch();
    last->addWidget(new Button(mesh_, Button::Look::primary));
    box->addLayout(last);
    columns->addWidget(right);
    mesh_->setVisible(try_on_ != nullptr);

    connect(view_, &FrameView::pointed, this, [this](QPoint pixel) { point_at(pixel, false); });
    connect(view_, &FrameView::clicked, this, [this](QPoint pixel) { point_at(pixel, true); });
    connect(view_, &FrameView::stepped, model_, &FrameModel::step);
    connect(model_, &FrameModel::opened, this, [this] {
        const auto record = model_->record();
        setWindowTitle(tr("By frame: %1").arg(to_text(record->folder.filename().string())));
        if (model_->picture().isNull()) view_->set_message(tr("The record has no picture of the frame."));
        else view_->set_picture(model_->picture());
        note_->setText(record->notes.empty() ? QString() : spoken(record->notes.front()));
    });
    connect(model_, &FrameModel::refused, this, [this](const QString& why) { view_->set_message(why); });
    connect(model_, &FrameModel::thing_changed, this, &FrameWindow::show_thing);
    connect(model_, &FrameModel::found_more, this, &FrameWindow::show_textures);
    connect(&model_->catalog().pictures(), &SmallPictures::ready, this, [this](std::size_t item) {
        const auto record = model_->record();
        if (!record || model_->thing() >= record->things.size()) return;
        const auto& bound = record->things[model_->thing()].textures;
        if (std::any_of(bound.begin(), bound.end(), [&](std::size_t texture) { return model_->item_of(texture) == item; })) show_textures();
    });
    view_->set_message(tr("Record a frame in the game, or choose a record."));
    mesh_->setEnabled(false);
    view_->setFocus();
}

TryOnWindow* FrameWindow::on_mesh() const { return on_mesh_; }

void FrameWindow::open_newest() {
    model_->look_for_newest([this, here = QPointer(this)](std::optional<std::filesystem::path> newest) {
        if (!here) return;
        if (newest) model_->open(*newest);
        else choose();
    });
}

void FrameWindow::choose() {
    auto* dialog = new QFileDialog(this, tr("A frame record"), {}, tr("Frame records (frame.jsonl)"));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setFileMode(QFileDialog::ExistingFile);
    keep_folder(dialog, "frames");
    connect(dialog, &QFileDialog::fileSelected, this, [this](const QString& file) { model_->open(file.toStdString()); });
    dialog->open();
}

void FrameWindow::light(std::size_t thing) {
    if (thing == lit_) return;
    lit_ = thing;
    const auto& map = model_->map();
    if (map.things.empty()) return view_->set_lit({});
    QImage dim(int(map.width), int(map.height), QImage::Format_ARGB32_Premultiplied);
    const auto dark = qPremultiply(qRgba(24, 24, 24, 170));
    for (std::uint32_t y = 0; y < map.height; ++y) {
        auto* row = reinterpret_cast<QRgb*>(dim.scanLine(int(y)));
        const auto* things = map.things.data() + std::size_t{y} * map.width;
        for (std::uint32_t x = 0; x < map.width; ++x) row[x] = things[x] >= 0 && std::size_t(things[x]) == thing ? 0 : dark;
    }
    view_->set_lit(dim);
}

void FrameWindow::point_at(QPoint pixel, bool choose) {
    const auto thing = pixel.x() < 0 ? -1 : model_->map().at(std::uint32_t(pixel.x()), std::uint32_t(pixel.y()));
    if (choose && thing >= 0) model_->set_thing(std::size_t(thing));
    light(thing >= 0 ? std::size_t(thing) : model_->thing());
}

void FrameWindow::show_thing() {
    const auto record = model_->record();
    if (!record) return;
    if (record->things.empty()) {
        thing_text_->setText(tr("Nothing was drawn in this frame."));
        mesh_->setEnabled(false);
        return;
    }
    const auto& thing = record->things[model_->thing()];
    quint64 triangles = 0;
    for (const auto d : thing.draws) triangles += record->draws[d].triangles;
    QStringList says{tr("Thing %L1 of %L2").arg(model_->thing() + 1).arg(record->things.size())};
    says << (thing.draws.size() == 1 ? tr("drawn once") : tr("drawn %L1 times").arg(thing.draws.size()));
    if (triangles > 0) says << tr("%L1 triangles").arg(triangles);
    thing_text_->setText(says.join(QStringLiteral(" · ")));
    view_->set_described(thing_text_->text());
    mesh_->setEnabled(!record->draws[thing.draws.front()].mesh.empty());
    light(model_->thing());
    show_textures();
}

QWidget* FrameWindow::make_row(std::size_t texture) {
    const auto record = model_->record();
    const auto& recorded = record->textures[texture];
    const auto& found = model_->found(texture);
    auto* card = make_card();
    card->setObjectName(QStringLiteral("bound"));
    auto* box = new QVBoxLayout(card);
    box->setContentsMargins(8, 8, 8, 8);
    auto* row = new QHBoxLayout;
    row->addWidget(make_little(found.seen, tr("As it was on the graphics card")), 0, Qt::AlignTop);
    const auto item = model_->item_of(texture);
    const auto snapshot = model_->catalog().snapshot();
    if (item) row->addWidget(make_little(model_->catalog().pictures().of(*item), tr("In the archives")), 0, Qt::AlignTop);
    auto* text = new QVBoxLayout;
    text->setSpacing(1);
    QString head, detail;
    if (item) {
        head = to_text(snapshot->catalog.items[*item].name());
        const auto score = found.hits.front().score;
        detail = score >= FrameModel::Found::sure ? tr("surely: %1 % alike").arg(int(std::lround(double(score) * 100)))
                                                  : tr("perhaps: %1 % alike").arg(int(std::lround(double(score) * 100)));
    } else if (!found.wrong.isEmpty()) {
        head = tr("Cannot be read");
        detail = found.wrong;
    } else if (found.looked) {
        head = tr("In no archive");
        detail = tr("Nothing there looks like it.");
    } else {
        head = tr("Looking…");
    }
    text->addWidget(make_label(head, "strong", true));
    if (!detail.isEmpty()) text->addWidget(make_label(detail, "soft", true));
    QStringList facts;
    if (recorded.width > 0) facts << tr("%1×%2").arg(recorded.width).arg(recorded.height);
    if (recorded.things > 1) facts << tr("%L1 things have it").arg(recorded.things);
    text->addWidget(make_label(facts.join(QStringLiteral(" · ")), "soft", true));
    row->addLayout(text, 1);
    box->addLayout(row);
    auto* buttons = new FlowRow;
    if (item) {
        auto* show = new Button(tr("Show in the catalog"), Button::Look::link);
        show->setObjectName(QStringLiteral("show_in_catalog"));
        connect(show, &QPushButton::clicked, this, [this, item] { emit wanted(*item); });
        buttons->addWidget(show);
    }
    if (!recorded.file.empty()) {
        auto* keep = new Button(tr("Save…"), Button::Look::link);
        keep->setObjectName(QStringLiteral("save_captured"));
        keep->setToolTip(tr("The captured texture, as a file of its own"));
        connect(keep, &QPushButton::clicked, this, [this, texture] { save(texture); });
        buttons->addWidget(keep);
    }
    text->addLayout(buttons);
    text->addStretch();
    return card;
}

void FrameWindow::show_textures() {
    const auto record = model_->record();
    if (!record || model_->thing() >= record->things.size()) return;
    clear_column(rows_);
    for (const auto texture : record->things[model_->thing()].textures) rows_->addWidget(make_row(texture));
    if (record->things[model_->thing()].textures.empty()) rows_->addWidget(make_label(tr("It has no textures."), "soft", true));
    rows_->addStretch();
}

void FrameWindow::show_on_mesh() {
    const auto record = model_->record();
    if (!record || !try_on_ || model_->thing() >= record->things.size()) return;
    const auto& thing = record->things[model_->thing()];
    std::optional<std::size_t> item;
    for (const auto texture : thing.textures)
        if (!item) item = model_->item_of(texture);
    if (!item) return note_->setText(tr("None of its textures is in an archive, so there is nothing to try on."));
    if (!on_mesh_) on_mesh_ = new TryOnWindow(this, try_on_->another());
    on_mesh_->show_item(*item);
    on_mesh_->model()->add_file(record->draws[thing.draws.front()].mesh);
    on_mesh_->show();
    on_mesh_->raise();
}

void FrameWindow::save(std::size_t texture) {
    const auto& from = model_->record()->textures[texture].file;
    auto* dialog = new QFileDialog(this, tr("Save the captured texture"));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setAcceptMode(QFileDialog::AcceptSave);
    dialog->setDefaultSuffix(to_text(from.extension().string()).mid(1));
    dialog->selectFile(to_text(from.filename().string()));
    keep_folder(dialog, "captured");
    connect(dialog, &QFileDialog::fileSelected, this, [this, texture](const QString& file) {
        model_->save_texture(texture, file.toStdString(), [this, file, here = QPointer(this)](const std::optional<Error>& error) {
            if (here) note_->setText(error ? spoken(error->message()) : tr("Saved as %1").arg(file));
        });
    });
    dialog->open();
}

}  // namespace skivet::app
