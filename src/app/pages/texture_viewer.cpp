#include "app/pages/texture_viewer.h"

#include <cmath>
#include <QHBoxLayout>
#include <QMouseEvent>
#include <QPainter>

#include "app/language.h"
#include "app/pages/mip_strip.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/widgets/channel_row.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/picture_row.h"
#include "codec/block_facts.h"
#include "codec/paint_form.h"
#include "pixel/alpha_use.h"
#include "pixel/normals.h"
#include "texture/spread.h"

namespace skivet::app {

TextureViewer::TextureViewer(CatalogModel* model, QWidget* parent) : QFrame(parent), model_(model) {
    setObjectName(QStringLiteral("panel"));
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(12, 12, 12, 10);
    box->setSpacing(6);
    shared_ = new SharedView(this);
    view_ = new ImageView(shared_);
    view_->setObjectName(QStringLiteral("viewer"));
    view_->setAccessibleName(tr("The chosen texture"));
    box->addWidget(view_, 1);

    channel_row_ = new ChannelRow;
    connect(channel_row_, &ChannelRow::chosen, this, &TextureViewer::set_channels);
    box->addWidget(channel_row_);
    connect(view_, &ImageView::pointed, this, &TextureViewer::read_out);

    exposure_row_ = new QWidget;
    auto* stops = new QHBoxLayout(exposure_row_);
    stops->setContentsMargins(0, 0, 0, 0);
    exposure_text_ = make_label({}, "soft");
    const auto exposure_button = [&](const QString& text, const QString& name, int key, int by) {
        auto* button = new Button(text, Button::Look::plain);
        button->setAccessibleName(name);
        button->setToolTip(QStringLiteral("%1  (Alt+%2)").arg(name, QKeySequence(key).toString()));
        connect(button, &QPushButton::clicked, this, [this, by] { change_exposure(by); });
        auto* action = new QAction(this);
        action->setShortcut(QKeySequence(Qt::ALT | key));
        connect(action, &QAction::triggered, this, [this, by] { change_exposure(by); });
        addAction(action);
        return button;
    };
    stops->addWidget(exposure_button(tr("−"), tr("Darker by one stop"), Qt::Key_Minus, -1));
    stops->addWidget(exposure_text_);
    stops->addWidget(exposure_button(tr("+"), tr("Brighter by one stop"), Qt::Key_Plus, 1));
    stops->addStretch();
    box->addWidget(exposure_row_);
    exposure_row_->hide();
    auto* histogram = new QAction(this);
    histogram->setShortcut(QKeySequence(Qt::ALT | Qt::Key_H));
    connect(histogram, &QAction::triggered, this, [this] { show_histogram(!histogram_); });
    addAction(histogram);

    mips_ = new MipStrip;
    mips_->setObjectName(QStringLiteral("mips"));
    connect(mips_, &MipStrip::chosen, this, &TextureViewer::set_mip);
    box->addWidget(mips_);
    mip_text_ = make_label({}, "soft");
    mip_text_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    looks_ = new QHBoxLayout;
    looks_->setSpacing(5);
    looks_->addWidget(mip_text_, 1);
    box->addLayout(looks_);

    face_row_ = new QWidget;
    auto* faces = new QHBoxLayout(face_row_);
    faces->setContentsMargins(0, 0, 0, 0);
    auto* previous = new Button(tr("‹"), Button::Look::plain);
    auto* next = new Button(tr("›"), Button::Look::plain);
    previous->setAccessibleName(tr("Previous face"));
    next->setAccessibleName(tr("Next face"));
    face_text_ = make_label({}, "soft");
    faces->addWidget(previous);
    faces->addWidget(face_text_);
    faces->addWidget(next);
    faces->addStretch();
    connect(previous, &QPushButton::clicked, this, [this] { step_face(-1); });
    connect(next, &QPushButton::clicked, this, [this] { step_face(1); });
    box->addWidget(face_row_);
    face_row_->hide();

    name_ = make_label({}, "title");
    where_ = make_label({}, "soft", true);
    facts_ = new QLabel;
    facts_->setObjectName(QStringLiteral("facts"));
    facts_->setTextFormat(Qt::RichText);
    facts_->setWordWrap(true);
    box->addWidget(name_);
    box->addWidget(where_);
    box->addWidget(facts_);
    relation_box_ = new QWidget;
    auto* sides = new QHBoxLayout(relation_box_);
    sides->setContentsMargins(0, 0, 0, 0);
    sides->setSpacing(14);
    const auto picture = [model](std::size_t item) { return model->pictures().of(item); };
    const auto column = [&](QLabel*& title, PictureRow*& pictures, const QString& heading) {
        auto* whole = new QWidget;
        auto* side = new QVBoxLayout(whole);
        side->setContentsMargins(0, 0, 0, 0);
        side->setSpacing(2);
        title = make_label(heading, "heading");
        pictures = new PictureRow(picture, heading);
        auto* head = new QHBoxLayout;
        head->addWidget(title);
        head->addStretch();
        side->addLayout(head);
        side->addWidget(pictures);
        sides->addWidget(whole, 1);
        connect(pictures, &PictureRow::chosen, this, &TextureViewer::chosen);
        return head;
    };
    column(set_title_, set_row_, tr("SET"));
    auto* alike_head = column(alike_title_, alike_row_, tr("ALIKE"));
    auto* copies = new Button(tr("Take together"), Button::Look::link);
    copies->setObjectName(QStringLiteral("copies"));
    copies->setToolTip(tr("Take the texture to the bench with all that show the same picture: they follow its edit  (Ctrl+Shift+Enter)"));
    connect(copies, &QPushButton::clicked, this, &TextureViewer::copies_wanted);
    alike_head->addWidget(copies);
    copies_button_ = copies;
    set_row_->setObjectName(QStringLiteral("set"));
    alike_row_->setObjectName(QStringLiteral("alike"));
    box->addWidget(relation_box_);
    relation_box_->hide();
    connect(&model->pictures(), &SmallPictures::ready, this, [this] {
        set_row_->update();
        alike_row_->update();
    });
    connect(model, &CatalogModel::analysis_changed, this, &TextureViewer::update_relations);
    box->addSpacing(2);
    buttons_ = new FlowRow;
    box->addLayout(buttons_);
}

void TextureViewer::clear() {
    texture_ = nullptr;
    ++request_;
    view_->set_message(tr("Choose a texture to see it large."));
    mips_->set_pictures({});
    under_ = nullptr;
    exposure_row_->hide();
    view_->set_readout({});
    view_->set_histogram({});
    for (auto* label : {mip_text_, name_, where_, facts_}) label->clear();
    face_row_->hide();
    relation_box_->hide();
    relations_ = {};
    ++relation_request_;
    item_ = std::size_t(-1);
}

void TextureViewer::update_relations() {
    const auto request = ++relation_request_;
    const auto snapshot = model_->snapshot();
    if (item_ >= snapshot->catalog.items.size()) return;
    model_->relate(item_, [this, request, snapshot](const Relations& found) {
        if (request != relation_request_ || snapshot != model_->snapshot()) return;
        relations_ = found;
        const auto& items = snapshot->catalog.items;
        const auto tip = [&](std::size_t i) { return to_text(address_of(snapshot->sources[items[i].source], items[i]).text()); };
        std::vector<PictureRow::Cell> set, alike;
        const auto catalog = model_->catalog();
        for (const auto i : found.set) set.push_back({i, spoken(name_of(catalog->analysis.roles[i])), tip(i)});
        for (const auto i : found.copies) alike.push_back({i, items[i].effective ? tr("wins") : tr("shadowed"), tip(i)});
        for (const auto& a : found.alike)
            alike.push_back({a.index,
                             a.likeness == Likeness::same      ? tr("same")
                             : a.likeness == Likeness::variant ? tr("recolored")
                                                               : tr("%1×%2").arg(items[a.index].desc.width).arg(items[a.index].desc.height),
                             tr("%1: %2").arg(spoken(name_of(a.likeness)), tip(a.index))});
        set_row_->parentWidget()->setVisible(!set.empty());
        alike_row_->parentWidget()->setVisible(!alike.empty());
        copies_button_->setVisible(std::any_of(found.alike.begin(), found.alike.end(), [&](const AlikeTexture& a) {
            return a.likeness != Likeness::variant && items[a.index].effective;
        }));
        relation_box_->setVisible(!set.empty() || !alike.empty());
        set_row_->set_cells(std::move(set), item_);
        alike_row_->set_cells(std::move(alike), item_);
        show_facts(alpha_fact_, mips_fact_);
    });
}

void TextureViewer::show_item(std::size_t item) {
    item_ = item;
    mip_ = part_ = exposure_ = 0;
    // Until the new one is open there is nothing to draw again: a key pressed meanwhile only says how it is to be shown.
    texture_ = nullptr;
    alpha_fact_.clear();
    mips_fact_.clear();
    under_ = nullptr;
    view_->set_readout({});
    const auto snapshot = model_->snapshot();
    if (item >= snapshot->catalog.items.size()) return clear();
    emit showing(item);
    const auto& entry = snapshot->catalog.items[item];
    const auto& source = snapshot->sources[entry.source];
    name_->setText(to_text(entry.name()));
    QStringList steps;
    for (const auto& step : entry.inner) steps << to_text(step);
    where_->setText(tr("%1 in %2%3")
                        .arg(steps.join(QStringLiteral(" ▸ ")), to_text(source.path.filename()),
                             entry.effective ? QString() : tr(" — shadowed by a later source")));
    use_fact_.clear();
    damage_fact_.clear();
    relations_ = {};
    show_facts({}, {});
    update_relations();
    const auto request = ++request_;
    model_->open_texture(item, [this, request](std::shared_ptr<const OpenTexture> opened) {
        if (request != request_) return;
        texture_ = std::move(opened);
        if (!texture_->error)
            mip_ = int(first_level_there(texture_->texture.layout));  // of a texture that lacks a file, the largest there is
        shared_->fit();
        update_picture();
        if (texture_->error) return;
        if (const auto& damage = texture_->texture.layout.damage) damage_fact_ = spoken(damage->what);
        model_->jobs().run(
            this, tr("Reading pictures"),
            [texture = texture_] {
                const auto guess = guess_mips(texture->texture);
                if (!guess) return std::pair(QString(), QString());
                return std::pair(to_text(describe(*guess)), to_text(use_of(texture->texture, *guess)));
            },
            [this, texture = texture_](std::pair<QString, QString> found) {
                if (texture != texture_) return;
                use_fact_ = found.second;
                show_facts(alpha_fact_, found.first);
            });
    });
}

/// "booth, tent and 3 more".
static std::string joined(const std::vector<std::string>& words) {
    std::string out;
    for (std::size_t i = 0; i < words.size() && i < 3; ++i) out += (i == 0 ? "" : ", ") + words[i];
    return words.size() > 3 ? out + " and " + std::to_string(words.size() - 3) + " more" : out;
}

void TextureViewer::show_facts(const QString& alpha, const QString& mips) {
    alpha_fact_ = alpha;
    mips_fact_ = mips;
    const auto snapshot = model_->snapshot();
    if (item_ >= snapshot->catalog.items.size()) return;
    const auto& entry = snapshot->catalog.items[item_];
    const auto row = [](const QString& a, const QString& b) {
        return QStringLiteral("<tr><td style='color:%3;padding-right:16px'>%1</td><td>%2</td></tr>")
            .arg(a, b.toHtmlEscaped(), colors().soft.name());
    };
    const auto& d = entry.desc;
    const QString color = d.color == ColorSpace::srgb ? tr(", sRGB") : d.color == ColorSpace::linear ? tr(", linear") : QString();
    QString rows = row(tr("Format"), to_text(info(d.format).name) + color + QStringLiteral(" · ") + to_text(entry.file_kind.text())) +
                   row(tr("Size"), to_text(size_text(d))) +
                   row(tr("Mips"), mips.isEmpty() ? QString::number(d.mips) : tr("%1 · %2").arg(d.mips).arg(mips)) +
                   row(tr("Bytes"), to_text(grouped(entry.size)) +
                                        (entry.stored != entry.size ? tr(", %1 packed").arg(to_text(grouped(entry.stored))) : QString()));
    const auto catalog = model_->catalog();
    if (catalog->snapshot == snapshot && item_ < catalog->analysis.roles.size()) {
        auto role = spoken(name_of(catalog->analysis.roles[item_]));
        if (!relations_.role.why.empty()) role += QStringLiteral(" · ") + spoken(relations_.role.why);
        rows += row(tr("Role"), role);
        if (catalog->analysis.shared[item_])
            rows += row(tr("Shared"), relations_.users.size() > 1
                                          ? tr("by %1: a change shows on all of them").arg(QString::fromStdString(joined(relations_.users)))
                                          : tr("lies in a shared folder: a change may show in many places"));
        else if (!relations_.users.empty()) rows += row(tr("Used by"), QString::fromStdString(joined(relations_.users)));
    }
    if (!use_fact_.isEmpty()) rows += row(tr("Use"), use_fact_);
    if (!damage_fact_.isEmpty()) rows += row(tr("Damage"), damage_fact_);
    if (info(d.format).has_alpha) rows += row(tr("Alpha"), alpha.isEmpty() ? tr("…") : alpha);
    facts_->setText(QStringLiteral("<table style='font-size:12px'>%1</table>").arg(rows));
}

void TextureViewer::change_exposure(int stops) {
    exposure_ = std::clamp(exposure_ + stops, -16, 16);
    update_picture();
}

void TextureViewer::show_histogram(bool show) {
    histogram_ = show;
    if (!show || !under_) view_->set_histogram({});
    else view_->set_histogram(under_->histogram);
}

void TextureViewer::set_channels(Channels channels) {
    channels_ = channels;
    channel_row_->set_channels(channels);
    update_picture();
}

void TextureViewer::set_mip(int mip) {
    mip_ = mip;
    update_picture();
}

void TextureViewer::step_face(int by) {
    if (!texture_) return;
    const auto& d = texture_->texture.layout.desc;
    const int parts = int(std::max(d.layers * d.faces, mip_side(d.depth, std::uint32_t(mip_))));
    part_ = (part_ + by + parts) % parts;
    update_picture();
}

}  // namespace skivet::app
