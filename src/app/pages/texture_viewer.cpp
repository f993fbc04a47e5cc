#include <QActionGroup>
#include <QHBoxLayout>
#include <QMouseEvent>
#include <QPainter>

#include "app/pages/catalog_page.h"
#include "app/pages/mip_strip.h"
#include "app/theme/theme.h"
#include "codec/paint_form.h"

namespace skivet::app {

TextureViewer::TextureViewer(Session* session, QWidget* parent) : QFrame(parent), session_(session) {
    setObjectName(QStringLiteral("panel"));
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(12, 12, 12, 10);
    box->setSpacing(6);
    shared_ = new SharedView(this);
    view_ = new ImageView(shared_);
    view_->setObjectName(QStringLiteral("viewer"));
    view_->setAccessibleName(tr("The chosen texture"));
    box->addWidget(view_, 1);

    auto* row = new QHBoxLayout;
    row->setSpacing(5);
    auto* group = new QActionGroup(this);
    const struct {
        QString name, tip;
        int key;
        Channels channels;
    } choices[] = {{tr("color"), tr("Color without alpha"), Qt::Key_C, Channels::color},
                   {tr("R"), tr("Red as gray"), Qt::Key_R, Channels::red},
                   {tr("G"), tr("Green as gray"), Qt::Key_G, Channels::green},
                   {tr("B"), tr("Blue as gray"), Qt::Key_B, Channels::blue},
                   {tr("A"), tr("Alpha as gray"), Qt::Key_A, Channels::alpha},
                   {tr("alpha over"), tr("Color with alpha over a checker"), Qt::Key_O, Channels::alpha_over}};
    for (const auto& choice : choices) {
        auto* action = new QAction(choice.name, this);
        action->setCheckable(true);
        action->setChecked(choice.channels == channels_);
        action->setToolTip(QStringLiteral("%1  (Alt+%2)").arg(choice.tip, QKeySequence(choice.key).toString()));
        group->addAction(action);
        connect(action, &QAction::triggered, this, [this, channels = choice.channels] { set_channels(channels); });
        channel_actions_ << action;
        auto* button = new Button(action, Button::Look::toggle);
        button->setFocusPolicy(Qt::TabFocus);
        row->addWidget(button);
        auto* key = new QAction(this);
        key->setShortcut(QKeySequence(Qt::ALT | choice.key));
        key->setShortcutContext(Qt::WindowShortcut);
        connect(key, &QAction::triggered, action, &QAction::trigger);
        addAction(key);
    }
    row->addStretch();
    box->addLayout(row);

    mips_ = new MipStrip;
    mips_->setObjectName(QStringLiteral("mips"));
    connect(mips_, &MipStrip::chosen, this, &TextureViewer::set_mip);
    box->addWidget(mips_);
    mip_text_ = make_label({}, "soft");
    box->addWidget(mip_text_);

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
    box->addWidget(name_);
    box->addWidget(where_);
    box->addWidget(facts_);
    box->addSpacing(4);
    buttons_ = new QHBoxLayout;
    box->addLayout(buttons_);
}

void TextureViewer::clear() {
    texture_ = nullptr;
    ++request_;
    view_->set_message(tr("Choose a texture to see it large."));
    mips_->set_pictures({});
    for (auto* label : {mip_text_, name_, where_, facts_}) label->clear();
    face_row_->hide();
}

void TextureViewer::show_item(std::size_t item) {
    item_ = item;
    mip_ = part_ = 0;
    const auto stock = session_->stock();
    if (item >= stock->catalog.items.size()) return clear();
    const auto& entry = stock->catalog.items[item];
    const auto& source = stock->sources[entry.source];
    name_->setText(to_text(entry.name()));
    QStringList steps;
    for (const auto& step : entry.inner) steps << to_text(step);
    where_->setText(tr("%1 in %2%3").arg(steps.join(QStringLiteral(" ▸ ")), to_text(source.path.filename()), entry.effective ? QString() : tr(" — shadowed by a later source")));
    const auto row = [](const QString& a, const QString& b) { return QStringLiteral("<tr><td style='color:#636363;padding-right:16px'>%1</td><td>%2</td></tr>").arg(a, b.toHtmlEscaped()); };
    const auto& d = entry.desc;
    QString color = d.color == ColorSpace::srgb ? tr(", sRGB") : d.color == ColorSpace::linear ? tr(", linear") : QString();
    facts_->setText(QStringLiteral("<table style='font-size:12px'>%1</table>")
                        .arg(row(tr("Format"), to_text(info(d.format).name) + color + QStringLiteral(" · ") + to_text(entry.file_kind)) + row(tr("Size"), to_text(size_text(d))) +
                             row(tr("Mips"), QString::number(d.mips)) + row(tr("Bytes"), to_text(grouped(entry.size)) + (entry.stored != entry.size ? tr(", %1 packed").arg(to_text(grouped(entry.stored))) : QString()))));
    const auto request = ++request_;
    session_->open_texture(item, [this, request](std::shared_ptr<const OpenTexture> opened) {
        if (request != request_) return;
        texture_ = std::move(opened);
        shared_->fit();
        update_picture();
    });
}

void TextureViewer::set_channels(Channels channels) {
    channels_ = channels;
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

void TextureViewer::update_picture() {
    if (!texture_) return;
    if (texture_->error) {
        view_->set_message(to_text(texture_->error->message()));
        mips_->set_pictures({});
        return;
    }
    const auto& d = texture_->texture.layout.desc;
    const auto parts = std::max(d.layers * d.faces, mip_side(d.depth, std::uint32_t(mip_)));
    part_ = std::min(part_, int(parts) - 1);
    face_row_->setVisible(parts > 1);
    face_text_->setText(d.depth > 1 ? tr("slice %1 of %2").arg(part_ + 1).arg(parts) : d.faces > 1 ? tr("face %1 of %2").arg(part_ + 1).arg(parts) : tr("layer %1 of %2").arg(part_ + 1).arg(parts));
    mip_text_->setText(tr("mip %1 of %2 · %3×%4").arg(mip_).arg(d.mips).arg(mip_side(d.width, std::uint32_t(mip_))).arg(mip_side(d.height, std::uint32_t(mip_))));
    struct Shown {
        QImage picture;
        std::vector<QImage> mips;
        QString error;
    };
    const auto request = ++request_;
    session_->compute(
        [texture = texture_, mip = std::uint32_t(mip_), part = std::uint32_t(part_), channels = channels_] {
            Shown out;
            const auto& desc = texture->texture.layout.desc;
            const auto level = [&](std::uint32_t m) { return texture->texture.decode(m, desc.depth > 1 ? 0 : part / desc.faces, desc.depth > 1 ? 0 : part % desc.faces, desc.depth > 1 ? std::min(part, mip_side(desc.depth, m) - 1) : 0); };
            for (std::uint32_t m = 0; m < desc.mips; ++m) {
                const auto image = level(m);
                if (!image) {
                    out.error = to_text(image.error().message());
                    break;
                }
                const auto shown = to_qimage(paint_form(desc.format, *image), channels);
                if (m == mip) out.picture = shown;
                out.mips.push_back(shown.width() > 48 || shown.height() > 48 ? shown.scaled(48, 48, Qt::KeepAspectRatio, Qt::SmoothTransformation) : shown);
            }
            return out;
        },
        [this, request](Shown shown) {
            if (request != request_) return;
            if (!shown.error.isEmpty()) view_->set_message(shown.error);
            else view_->set_image(shown.picture);
            mips_->set_pictures(std::move(shown.mips));
            mips_->set_current(mip_);
        });
}

}  // namespace skivet::app
