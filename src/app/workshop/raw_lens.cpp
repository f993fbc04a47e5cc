#include "app/workshop/raw_lens.h"

#include <QFormLayout>
#include <QHBoxLayout>
#include <QMouseEvent>
#include <QPainter>

#include "app/guide_window.h"
#include "app/models/left_state.h"
#include "app/models/pictures.h"
#include "app/theme/theme.h"
#include "app/widgets/button.h"
#include "app/widgets/helpers.h"
#include "app/workshop/workshop_actions.h"

namespace skivet::app {
namespace {

QString text_of(std::string_view v) { return QString::fromUtf8(v.data(), qsizetype(v.size())); }

/// Formats to step through, those that games use most first.
const std::vector<Format>& lens_formats() {
    static const auto formats = formats_by_use();
    return formats;
}

}  // namespace

RawLens::RawLens(QWidget* parent, SourcesModel* sources, FileView bytes, const QString& name)
    : QDialog(parent), sources_(sources), data_(std::move(bytes)), name_(name) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("raw_lens"));
    setWindowTitle(tr("Raw lens: %1").arg(name));
    resize(1180, 740);
    keep_size(this, "raw-lens");
    set_help(this, "workshop");
    lens_.format = Format::BC1;
    auto* all = new QHBoxLayout(this);
    all->setContentsMargins(16, 16, 16, 16);
    all->setSpacing(16);
    auto* left = new QVBoxLayout;
    shared_ = new SharedView(this);
    view_ = new ImageView(shared_);
    view_->setAccessibleName(tr("The bytes as a picture"));
    place_ = new PlaceStrip;
    place_->setFixedHeight(18);
    place_->setAccessibleName(tr("Where in the file the picture begins"));
    connect(place_, &PlaceStrip::chosen, this, [this](quint64 at) {
        lens_.offset = at;
        show_settings();
        look();
    });
    seen_ = make_label({}, "soft");
    seen_->setWordWrap(true);
    left->addWidget(view_, 1);
    left->addWidget(place_);
    left->addWidget(seen_);
    all->addLayout(left, 1);
    all->addWidget(make_settings());
    settle_.setSingleShot(true);
    settle_.setInterval(250);
    connect(&settle_, &QTimer::timeout, this, &RawLens::suggest);
    add_keys();
    show_settings();
    look();
    view_->setFocus();
}

QWidget* RawLens::make_settings() {
    auto* panel = make_panel();
    panel->setFixedWidth(356);
    auto* box = new QVBoxLayout(panel);
    box->setContentsMargins(16, 12, 16, 12);
    box->addWidget(make_label(tr("TAKEN FOR"), "heading"));
    auto* form = new QFormLayout;
    form->setVerticalSpacing(5);
    const auto spin = [&](const char* name, int most, const QString& zero) {
        auto* s = new QSpinBox;
        s->setObjectName(QLatin1String(name));
        s->setRange(zero.isEmpty() ? 1 : 0, most);
        s->setSpecialValueText(zero);
        s->setKeyboardTracking(false);
        s->setButtonSymbols(QAbstractSpinBox::NoButtons);  // keys step it
        connect(s, &QSpinBox::valueChanged, this, &RawLens::read_settings);
        return s;
    };
    const auto combo = [&](const char* name, const QStringList& items) {
        auto* c = new QComboBox;
        c->setObjectName(QLatin1String(name));
        c->addItems(items);
        connect(c, &QComboBox::currentIndexChanged, this, &RawLens::read_settings);
        return c;
    };
    QStringList names;
    for (const auto f : lens_formats()) names << text_of(info(f).name);
    filling_ = true;
    format_ = combo("lens_format", names);
    width_ = spin("lens_width", 16384, {});
    height_ = spin("lens_height", 16384, tr("all there are"));
    offset_ = new QLineEdit;
    offset_->setObjectName(QStringLiteral("lens_offset"));
    offset_->setProperty("small", true);
    connect(offset_, &QLineEdit::editingFinished, this, &RawLens::read_settings);
    pitch_ = spin("lens_pitch", 1 << 22, tr("no gap"));
    order_ = combo("lens_order", {tr("Row by row"), tr("Morton (Z-order)"), tr("Block-linear")});
    block_height_ = combo("lens_block_height", {QStringLiteral("1"), QStringLiteral("2"), QStringLiteral("4"), QStringLiteral("8"),
                                                QStringLiteral("16"), QStringLiteral("32")});
    palette_ = combo("lens_palette", {tr("None"), tr("16 colors"), tr("256 colors")});
    palette_at_ = new QLineEdit;
    palette_at_->setObjectName(QStringLiteral("lens_palette_at"));
    palette_at_->setProperty("small", true);
    connect(palette_at_, &QLineEdit::editingFinished, this, &RawLens::read_settings);
    filling_ = false;
    const auto row = [&](const QString& label, QWidget* field, const QString& key) {
        auto* line = new QWidget;
        auto* cells = new QHBoxLayout(line);
        cells->setContentsMargins(0, 0, 0, 0);
        cells->addWidget(field, 1);
        auto* keys = make_label(key, "soft");
        keys->setFixedWidth(52);
        keys->setFont(number_font(11));
        cells->addWidget(keys);
        auto* name = make_label(label, "soft");
        name->setBuddy(field);
        form->addRow(name, line);
        return line;
    };
    row(tr("Format"), format_, tr("F"));
    row(tr("Width"), width_, tr("← →"));
    row(tr("Height"), height_, {});
    row(tr("Begins at"), offset_, tr("↑ ↓"));
    row(tr("Row pitch"), pitch_, tr("[ ]"));
    row(tr("Order"), order_, tr("T"));
    block_height_row_ = row(tr("Block height"), block_height_, tr("B"));
    row(tr("Palette"), palette_, tr("P"));
    palette_row_ = row(tr("Palette at"), palette_at_, {});
    box->addLayout(form);
    box->addSpacing(8);
    box->addWidget(make_label(tr("LIKELY"), "heading"));
    auto* holder = new QWidget;
    guesses_ = new QVBoxLayout(holder);
    guesses_->setContentsMargins(0, 0, 0, 0);
    guesses_->setSpacing(2);
    box->addWidget(holder);
    box->addStretch();
    message_ = make_label({}, "warning", true);
    message_->hide();
    box->addWidget(message_);
    auto* keep_action = add_workshop_action(this, "raw-lens/keep", [this] { keep(); });
    auto* bottom = new QHBoxLayout;
    bottom->addStretch();
    auto* button = new Button(keep_action, Button::Look::primary);
    button->setObjectName(QStringLiteral("lens_keep"));
    button->setAutoDefault(false);
    bottom->addWidget(button);
    box->addLayout(bottom);
    return panel;
}

void RawLens::add_keys() {
    const auto on = [this](const char* id, std::function<void()> run) { add_workshop_action(this, id, std::move(run)); };
    on("raw-lens/narrower", [this] { step_width(-1); });
    on("raw-lens/wider", [this] { step_width(1); });
    on("raw-lens/half", [this] { width_->setValue(std::max(1, width_->value() / 2)); });
    on("raw-lens/double", [this] { width_->setValue(width_->value() * 2); });
    on("raw-lens/row-back", [this] { step_offset(-qint64(row_bytes(lens_))); });
    on("raw-lens/row-on", [this] { step_offset(qint64(row_bytes(lens_))); });
    on("raw-lens/byte-back", [this] { step_offset(-1); });
    on("raw-lens/byte-on", [this] { step_offset(1); });
    on("raw-lens/picture-back", [this] { step_offset(-qint64(std::max<quint64>(1, lens_bytes(lens_, data_.size())))); });
    on("raw-lens/picture-on", [this] { step_offset(qint64(std::max<quint64>(1, lens_bytes(lens_, data_.size())))); });
    on("raw-lens/next-format", [this] { step_format(1); });
    on("raw-lens/previous-format", [this] { step_format(-1); });
    on("raw-lens/smaller-pitch", [this] { pitch_->setValue(std::max<int>(0, pitch_->value() - 16)); });
    on("raw-lens/larger-pitch",
       [this] { pitch_->setValue(pitch_->value() == 0 ? int(row_bytes(lens_) + 16) / 16 * 16 : pitch_->value() + 16); });
    on("raw-lens/next-order", [this] { order_->setCurrentIndex((order_->currentIndex() + 1) % 3); });
    on("raw-lens/next-block-height", [this] { block_height_->setCurrentIndex((block_height_->currentIndex() + 1) % 6); });
    on("raw-lens/next-palette", [this] { palette_->setCurrentIndex((palette_->currentIndex() + 1) % 3); });
    on("raw-lens/likeliest-width", [this] {
        if (!widths_.empty()) width_->setValue(int(widths_.front().width));
    });
    on("raw-lens/likeliest-format", [this] {
        if (formats_.empty()) return;
        lens_.format = formats_.front().format;
        show_settings();
        look();
    });
}

void RawLens::set_lens(const Lens& lens) {
    lens_ = lens;
    show_settings();
    look();
}

void RawLens::step_width(int blocks) {
    const int step = lens_.palette_bits ? 1 : info(lens_.format).block_width;
    width_->setValue(std::max(step, (width_->value() + blocks * step) / step * step));
}

void RawLens::step_offset(qint64 bytes) {
    const auto last = qint64(data_.size()) - 1;
    lens_.offset = quint64(std::clamp<qint64>(qint64(lens_.offset) + bytes, 0, std::max<qint64>(0, last)));
    show_settings();
    look();
}

void RawLens::step_format(int by) {
    const int n = int(lens_formats().size());
    format_->setCurrentIndex((format_->currentIndex() + by + n) % n);
}

void RawLens::show_settings() {
    filling_ = true;
    const auto& formats = lens_formats();
    format_->setCurrentIndex(int(std::find(formats.begin(), formats.end(), lens_.format) - formats.begin()));
    width_->setValue(int(lens_.width));
    height_->setValue(int(lens_.height));
    offset_->setText(QString::fromStdString(hex(lens_.offset)));
    pitch_->setValue(int(lens_.pitch));
    order_->setCurrentIndex(int(lens_.tiling.tiling));
    block_height_->setCurrentText(QString::number(lens_.tiling.block_height));
    palette_->setCurrentIndex(lens_.palette_bits == 8 ? 2 : lens_.palette_bits == 4 ? 1 : 0);
    palette_at_->setText(QString::fromStdString(hex(lens_.palette_at)));
    block_height_row_->setEnabled(lens_.tiling.tiling == Tiling::block_linear);
    palette_row_->setEnabled(lens_.palette_bits > 0);
    filling_ = false;
}

void RawLens::read_settings() {
    if (filling_) return;
    const auto number = [](const QLineEdit* field, quint64 otherwise) {
        bool good = false;
        const auto value = field->text().trimmed().toULongLong(&good, 0);
        return good ? value : otherwise;
    };
    lens_.format = lens_formats()[std::size_t(std::max(0, format_->currentIndex()))];
    lens_.width = std::uint32_t(width_->value());
    lens_.height = std::uint32_t(height_->value());
    lens_.offset = number(offset_, lens_.offset);
    lens_.pitch = std::uint64_t(pitch_->value());
    lens_.tiling.tiling = static_cast<Tiling>(order_->currentIndex());
    lens_.tiling.block_height = block_height_->currentText().toUInt();
    lens_.palette_bits = palette_->currentIndex() == 2 ? 8 : palette_->currentIndex() == 1 ? 4 : 0;
    if (lens_.palette_bits && info(lens_.format).block_compressed()) lens_.format = Format::RGBA8;  // entries are single colors
    lens_.palette_at = number(palette_at_, lens_.palette_at);
    show_settings();
    look();
}

void RawLens::look() {
    // One picture at a time; what was changed meanwhile is looked at next.
    if (painting_) {
        asked_ = true;
        return;
    }
    painting_ = true;
    asked_ = false;
    struct Seen {
        QImage image;
        QString message;
    };
    sources_->compute(
        this, tr("Looking at bytes"),
        [data = data_, lens = lens_] {
            Seen out;
            const auto bytes = data.bytes();
            const auto image = bytes ? picture_through(lens, *bytes) : Result<Image>(tl::unexpected(bytes.error()));
            if (image) out.image = to_qimage(*image, Channels::color);
            else out.message = QString::fromStdString(image.error().message());
            return out;
        },
        [this, guard = QPointer<RawLens>(this)](const Seen& seen) {
            if (!guard) return;
            painting_ = false;
            if (seen.message.isEmpty()) view_->set_image(seen.image);
            else view_->set_message(seen.message);
            const auto bytes = lens_bytes(lens_, data_.size());
            place_->set(data_.size(), lens_.offset, bytes);
            seen_->setText(tr("%1 × %2 texels · bytes %3 to %4 of %5")
                               .arg(lens_.width)
                               .arg(lens_height(lens_, data_.size()))
                               .arg(QString::fromStdString(hex(lens_.offset)), QString::fromStdString(hex(lens_.offset + bytes)),
                                    QString::fromStdString(hex(data_.size()))));
            if (asked_) return look();
            settle_.start();
            suggesting_ = true;
        });
}

void RawLens::suggest() {
    struct Guesses {
        std::vector<WidthGuess> widths;
        std::vector<FormatGuess> formats;
    };
    sources_->compute(
        this, tr("Looking at bytes"),
        [data = data_, lens = lens_] {
            Guesses out;
            if (const auto bytes = data.bytes()) {
                out.widths = suggest_widths(lens, *bytes);
                out.formats = suggest_formats(*bytes, lens.offset);
            }
            return out;
        },
        [this, guard = QPointer<RawLens>(this)](Guesses guesses) {
            if (!guard) return;
            widths_ = std::move(guesses.widths);
            formats_ = std::move(guesses.formats);
            suggesting_ = settle_.isActive();
            show_guesses();
        });
}

void RawLens::show_guesses() {
    clear_column(guesses_);
    const auto add = [this](const QString& text, const QString& key, std::function<void()> take) {
        auto* button = new Button(key.isEmpty() ? text : text + QStringLiteral("   ") + key, Button::Look::link);
        button->setAutoDefault(false);
        connect(button, &QPushButton::clicked, this, [take = std::move(take)] { take(); });
        guesses_->addWidget(button, 0, Qt::AlignLeft);
    };
    if (widths_.empty() && formats_.empty())
        guesses_->addWidget(make_label(tr("Nothing here looks like rows of a picture."), "soft", true));
    for (std::size_t i = 0; i < std::min<std::size_t>(3, widths_.size()); ++i)
        add(tr("Width %1 · rows %2 % alike").arg(widths_[i].width).arg(int(widths_[i].likeness * 100)), i == 0 ? tr("(W)") : QString(),
            [this, w = widths_[i].width] { width_->setValue(int(w)); });
    for (std::size_t i = 0; i < std::min<std::size_t>(3, formats_.size()); ++i)
        add(tr("%1 · neighbors %2 % alike").arg(text_of(info(formats_[i].format).name)).arg(int(formats_[i].score * 100)),
            i == 0 ? tr("(G)") : QString(), [this, f = formats_[i].format] {
                lens_.format = f;
                show_settings();
                look();
            });
}

void RawLens::keep() {
    const auto stem = name_.section('.', 0, 0);
    const auto complain = [this, guard = QPointer<RawLens>(this)](const Error& error) {
        if (!guard) return;
        message_->setText(QString::fromStdString(error.message()));
        message_->show();
    };
    // The sheet is kept even when the lens is closed meanwhile.
    sources_->compute(
        sources_, tr("Writing the sheet"),
        [data = data_, lens = lens_, title = (stem + tr(" (raw lens)")).toStdString(),
         name = name_.toStdString()]() -> Result<std::string> {
            SKIVET_TRY(const auto bytes, data.bytes());
            return sheet_of(lens, bytes, title, name);
        },
        [sources = sources_, complain, stem, guard = QPointer<RawLens>(this)](Result<std::string> toml) {
            if (!toml) return complain(toml.error());
            sources->store().save_sheet((stem + QStringLiteral("-lens")).toStdString(), *toml,
                                        [complain, guard](const Result<std::filesystem::path>& file) {
                                            if (!file) complain(file.error());
                                            else if (guard) guard->accept();
                                        });
        });
}

void show_raw_lens(QWidget* parent, SourcesModel* sources, std::size_t source, std::optional<std::size_t> entry) {
    const auto snapshot = sources->snapshot();
    if (source >= snapshot->sources.size()) return;
    struct Opened {
        Result<FileView> view = FileView::of({});
        QString name;
    };
    sources->compute(
        sources, QObject::tr("Opening bytes"),
        [snapshot, source, entry, limits = sources->context()->limits] {
            Opened out;
            const auto& s = snapshot->sources[source];
            if (entry && s.container) {
                out.view = s.container->view(*entry, limits);
                out.name = QString::fromStdString(std::filesystem::path(s.container->entries()[*entry].path).filename().string());
            } else {
                out.view = FileView::open(s.path);
                out.name = QString::fromStdString(s.path.filename().string());
            }
            return out;
        },
        [parent = QPointer<QWidget>(parent), sources](Opened opened) {
            if (!parent) return;
            if (!opened.view) {
                sources->complain(opened.view.error());
                return;
            }
            (new RawLens(parent, sources, std::move(*opened.view), opened.name))->open();
        });
}

}  // namespace skivet::app
