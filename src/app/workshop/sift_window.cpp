#include "app/workshop/sift_window.h"

#include <QHBoxLayout>
#include <QListWidget>
#include <QPainter>
#include <QPointer>
#include <QStyledItemDelegate>
#include <QThread>

#include "app/guide_window.h"
#include "app/models/left_state.h"
#include "app/models/pictures.h"
#include "app/theme/theme.h"
#include "app/widgets/button.h"
#include "app/widgets/helpers.h"
#include "app/widgets/row_frame.h"
#include "app/workshop/workshop_actions.h"
#include "base/hash.h"

namespace skivet::app {
namespace {

enum Role { Picture = Qt::UserRole, Detail, Sure };

QString text_of(const std::string& v) { return QString::fromStdString(v); }

class HitDelegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {300, 64}; }
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const auto& c = colors();
        p->save();
        const auto box = draw_row_frame(*p, option, 5);
        const QRectF well(box.x() + 6, box.y() + 5, 46, box.height() - 10);
        const auto picture = index.data(Picture).value<QImage>();
        if (!picture.isNull()) draw_in_well(*p, well, picture, 2);
        else p->fillRect(well, c.page);
        const QRectF text = box.adjusted(62, 7, -12, -7);
        p->setFont(text_font(12));
        const auto sure = index.data(Sure).toString();
        const int right = p->fontMetrics().horizontalAdvance(sure);
        p->setPen(c.soft);
        p->drawText(text, int(Qt::AlignTop | Qt::AlignRight), sure);
        p->drawText(text, int(Qt::AlignBottom | Qt::AlignLeft),
                    p->fontMetrics().elidedText(index.data(Detail).toString(), Qt::ElideRight, int(text.width())));
        p->setFont(text_font(13, true));
        p->setPen(c.ink);
        p->drawText(text, int(Qt::AlignTop | Qt::AlignLeft),
                    p->fontMetrics().elidedText(index.data().toString(), Qt::ElideMiddle, int(text.width()) - right - 8));
        p->restore();
    }
};

/// The hits in the order in which the container has its entries: those inside streams in the place of the stream.
void flatten(const std::vector<SiftHit>& hits, std::vector<SiftHit>& out) {
    for (const auto& hit : hits) {
        if (hit.packing && !hit.inside.empty()) {
            flatten(hit.inside, out);
            continue;
        }
        auto one = hit;
        one.inside.clear();
        out.push_back(std::move(one));
    }
}

QString how_sure(double confidence) {
    return confidence >= 0.97   ? QObject::tr("certain")
           : confidence >= 0.85 ? QObject::tr("very likely")
           : confidence >= 0.7  ? QObject::tr("likely")
                                : QObject::tr("possible");
}

QString kind_of(const SiftHit& hit) { return hit.bare ? QObject::tr("no header") : text_of(hit.kind); }

QString format_of(const SiftHit& hit) {
    if (hit.bare && hit.bare->palette_bits) return QObject::tr("palette");
    return text_of(std::string(info(hit.desc.format).name));
}

}  // namespace

void HitModel::set(std::shared_ptr<const Container> container, std::shared_ptr<const std::vector<SiftHit>> hits) {
    beginResetModel();
    container_ = std::move(container);
    hits_ = std::move(hits);
    endResetModel();
}

void HitModel::set_picture(int row, const QImage& picture) {
    pictures_[row] = picture;
    emit dataChanged(index(row), index(row));
}

int HitModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() || !hits_ ? 0 : int(std::min(hits_->size(), container_->entries().size()));
}

QVariant HitModel::data(const QModelIndex& at, int role) const {
    if (!hits_ || at.row() < 0 || at.row() >= rowCount()) return {};
    const auto& hit = (*hits_)[std::size_t(at.row())];
    const auto& entry = container_->entries()[std::size_t(at.row())];
    const bool texture = hit.desc.format != Format::unknown;
    switch (role) {
        case Picture:
            if (texture && !asked_.contains(at.row())) {
                asked_.insert(at.row());
                emit picture_wanted(at.row());
            }
            return pictures_.value(at.row());
        case Qt::DisplayRole:
            return texture ? QStringLiteral("%1 · %2").arg(kind_of(hit), text_of(size_text(hit.desc))) : text_of(hit.kind);
        case Detail: {
            const bool inside = entry.path.find('/') != std::string::npos && !hit.packing;
            const auto where = inside
                                   ? QObject::tr("in the %1 stream at %2").arg(text_of(std::string(entry.method)), text_of(hex(entry.at)))
                                   : QObject::tr("at %1, %2").arg(text_of(hex(entry.at)), text_of(human_bytes(hit.size)));
            return texture ? format_of(hit) + QStringLiteral(" · ") + where : where;
        }
        case Sure: return how_sure(hit.confidence);
        case Qt::AccessibleTextRole:
            return data(at, Qt::DisplayRole).toString() + ", " + data(at, Detail).toString() + ", " + how_sure(hit.confidence);
        default: return {};
    }
}

struct SiftWindow::Found {
    std::shared_ptr<std::vector<SiftHit>> hits = std::make_shared<std::vector<SiftHit>>();
    std::size_t textures = 0;
    std::shared_ptr<const Container> container;
    std::optional<Error> error;
    std::vector<std::string> left_out;
};

SiftWindow::SiftWindow(QWidget* parent, SourcesModel* sources, const std::filesystem::path& file)
    : QDialog(parent), sources_(sources), file_(file) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("sifting"));
    setWindowTitle(tr("Sifting %1").arg(text_of(file.filename().string())));
    resize(1100, 700);
    keep_size(this, "sifting");
    set_help(this, "workshop");
    auto* all = new QHBoxLayout(this);
    all->setContentsMargins(16, 16, 16, 16);
    all->setSpacing(16);
    auto* left = new QVBoxLayout;
    counted_ = make_label(tr("Looking through the bytes…"), "heading");
    left->addWidget(counted_);
    rows_ = new HitModel(this);
    connect(rows_, &HitModel::picture_wanted, this, &SiftWindow::want_picture);
    list_ = new QListView;
    list_->setObjectName(QStringLiteral("sift_hits"));
    list_->setAccessibleName(tr("What was found"));
    list_->setModel(rows_);
    list_->setItemDelegate(new HitDelegate(list_));
    list_->setUniformItemSizes(true);  // there may be a hundred thousand rows
    list_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    list_->setFixedWidth(400);
    left->addWidget(list_, 1);
    bar_ = new QProgressBar;
    bar_->setTextVisible(false);
    bar_->setFixedHeight(6);
    bar_->setRange(0, 1000);
    left->addWidget(bar_);
    stop_ = new QAction(tr("Stop here"), this);
    stop_->setToolTip(tr("End the search; nothing is kept"));
    connect(stop_, &QAction::triggered, this, &QDialog::reject);
    auto* stop = new Button(stop_, Button::Look::link);
    stop->setAutoDefault(false);
    left->addWidget(stop, 0, Qt::AlignLeft);
    all->addLayout(left);
    auto* right = new QVBoxLayout;
    title_ = make_label({}, "title");
    facts_ = make_label({}, "soft", true);
    shared_ = new SharedView(this);
    view_ = new ImageView(shared_);
    right->addWidget(title_);
    right->addWidget(facts_);
    right->addWidget(view_, 1);
    right->addWidget(make_label(tr("A texture found here can be replaced by one of the same format, size and mips; inside a stream when "
                                   "the stream packed again fits."),
                                "soft", true));
    take_ = add_workshop_action(this, "sifting/use");
    take_->setEnabled(false);
    connect(take_, &QAction::triggered, this, [this] {
        sources_->choose_kind(file_.string(), "sifting");
        accept();
    });
    auto* bottom = new QHBoxLayout;
    bottom->addStretch();
    auto* button = new Button(take_, Button::Look::primary);
    button->setObjectName(QStringLiteral("sift_take"));
    button->setAutoDefault(false);
    bottom->addWidget(button);
    right->addLayout(bottom);
    all->addLayout(right, 1);
    connect(list_->selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex& now) { show_hit(now.row()); });
    timer_.setInterval(100);
    connect(&timer_, &QTimer::timeout, this, [this] {
        const auto total = progress_->total.load();
        bar_->setValue(total ? int(progress_->done.load() * 1000 / total) : 0);
    });
    timer_.start();
    start();
    list_->setFocus();
}

SiftWindow::~SiftWindow() { progress_->cancel.cancel(); }

void SiftWindow::start() {
    sources_->compute(
        this, tr("Sifting"),
        [context = sources_->context(), file = file_, progress = progress_] {
            Found out;
            const auto view = FileView::open(file);
            const auto bytes = view ? view->bytes() : Result<ByteSpan>(tl::unexpected(view.error()));
            if (!bytes) {
                out.error = bytes.error();
                return out;
            }
            SiftOptions options;
            options.left_out = &out.left_out;
            auto hits = sift(*context, *bytes, *progress, options);
            if (!hits) {
                out.error = hits.error();
                return out;
            }
            remember_sifted(*context, *view, *hits);
            flatten(*hits, *out.hits);
            out.textures = std::size_t(
                std::count_if(out.hits->begin(), out.hits->end(), [](const SiftHit& hit) { return hit.desc.format != Format::unknown; }));
            out.container = sifted_container(*view, std::move(*hits));
            return out;
        },
        [this, guard = QPointer<SiftWindow>(this)](Found found) {
            if (!guard) return;
            timer_.stop();
            bar_->hide();
            stop_->setText(tr("Close"));
            done_ = true;
            if (found.error) {
                counted_->setText(text_of(found.error->message()));
                return;
            }
            container_ = std::move(found.container);
            hits_ = std::move(found.hits);
            textures_ = found.textures;
            fill();
            if (found.left_out.empty()) return;
            QStringList notes;
            for (const auto& note : found.left_out) notes << text_of(note);
            counted_->setToolTip(notes.join('\n'));
            counted_->setText(counted_->text() + tr(", NOT LOOKED AT EVERYWHERE"));
        });
}

void SiftWindow::fill() {
    rows_->set(container_, hits_);
    const auto streams = hits_->size() - textures_;
    counted_->setText(hits_->empty() ? tr("NOTHING THAT CAN BE RECOGNIZED IS IN THIS FILE")
                                     : (textures_ == 1 ? tr("ONE TEXTURE") : tr("%L1 TEXTURES").arg(textures_)) +
                                           (streams == 0   ? QString()
                                            : streams == 1 ? tr(", ONE OTHER STREAM")
                                                           : tr(", %L1 OTHER STREAMS").arg(streams)));
    if (hits_->empty()) facts_->setText(tr("The raw lens shows bare bytes as pixels, and a sheet can be drafted from the file."));
    take_->setEnabled(textures_ > 0);
    if (rows_->rowCount() > 0) list_->setCurrentIndex(rows_->index(0, 0));
}

void SiftWindow::want_picture(int row) {
    ++pending_;
    sources_->compute(
        this, tr("Reading pictures"),
        [container = container_, context = sources_->context(), row]() -> QImage {
            auto bytes = container->read(std::size_t(row), context->limits);
            if (!bytes) return {};
            const auto texture = TextureFile::open(context->textures, std::move(*bytes), "", context->limits);
            const auto image = texture ? skivet::thumbnail(*texture, 92) : Result<Image>(tl::unexpected(texture.error()));
            return image ? to_qimage(*image, Channels::color) : QImage();
        },
        [this, guard = QPointer<SiftWindow>(this), row](QImage picture) {
            if (!guard) return;
            --pending_;
            rows_->set_picture(row, picture);
        });
}

void SiftWindow::show_hit(int row) {
    if (row < 0 || std::size_t(row) >= hits_->size()) return;
    const auto& hit = (*hits_)[std::size_t(row)];
    const auto& entry = container_->entries()[std::size_t(row)];
    title_->setText(text_of(entry.path));
    QStringList facts;
    if (hit.desc.format != Format::unknown)
        facts << (hit.bare ? tr("Texture without a header, %1, %2, %3")
                                 .arg(format_of(hit), text_of(size_text(hit.desc)),
                                      hit.desc.mips == 1 ? tr("no smaller mips") : tr("%1 mips").arg(hit.desc.mips))
                           : tr("%1 texture, %2, %3, %4 mips")
                                 .arg(text_of(hit.kind), format_of(hit), text_of(size_text(hit.desc)))
                                 .arg(hit.desc.mips));
    else
        facts << tr("%1 stream of %2, unpacked %3; nothing recognizable inside")
                     .arg(text_of(hit.kind), text_of(human_bytes(hit.size)), text_of(human_bytes(hit.unpacked)));
    facts << tr("%1 bytes · %2 (%3 %)").arg(text_of(grouped(hit.size)), how_sure(hit.confidence)).arg(int(hit.confidence * 100));
    if (!hit.key.empty()) facts << tr("Every byte is hidden by the key %1; what is put back is hidden again").arg(text_of(to_hex(hit.key)));
    if (hit.bare)
        facts << tr("Found by its pixels: if it looks wrong, the raw lens (R on Sources) shows the bytes in other formats and widths");
    facts_->setText(facts.join('\n'));
    view_->set_message(hit.desc.format == Format::unknown ? tr("no picture") : tr("…"));
    if (hit.desc.format == Format::unknown) return;
    ++pending_;
    sources_->compute(
        this, tr("Reading pictures"),
        [container = container_, context = sources_->context(), row] {
            std::pair<QImage, QString> out;
            auto bytes = container->read(std::size_t(row), context->limits);
            const auto texture = bytes ? TextureFile::open(context->textures, std::move(*bytes), "", context->limits)
                                       : Result<TextureFile>(tl::unexpected(bytes.error()));
            const auto image = texture ? skivet::thumbnail(*texture, 1024) : Result<Image>(tl::unexpected(texture.error()));
            if (image) out.first = to_qimage(*image, Channels::color);
            else out.second = text_of(image.error().message());
            return out;
        },
        [this, guard = QPointer<SiftWindow>(this), row](std::pair<QImage, QString> seen) {
            if (!guard) return;
            --pending_;
            if (list_->currentIndex().row() != row) return;
            if (seen.second.isEmpty()) view_->set_image(seen.first);
            else view_->set_message(seen.second);
        });
}

void show_sifting(QWidget* parent, SourcesModel* sources, std::size_t source) {
    const auto snapshot = sources->snapshot();
    if (source >= snapshot->sources.size()) return;
    (new SiftWindow(parent, sources, snapshot->sources[source].path))->open();
}

void show_names(QWidget* parent, SourcesModel* sources) {
    auto* dialog = new QDialog(parent);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setObjectName(QStringLiteral("names"));
    dialog->setWindowTitle(QObject::tr("Names for hashed entries"));
    dialog->resize(680, 460);
    auto* box = new QVBoxLayout(dialog);
    box->setContentsMargins(20, 16, 20, 16);
    auto* told = make_label(QObject::tr("Looking inside the game's other files for text that names these entries…"), "soft", true);
    box->addWidget(told);
    auto* list = new QListWidget;
    list->setObjectName(QStringLiteral("names_list"));
    list->setAccessibleName(QObject::tr("Names found"));
    box->addWidget(list, 1);
    auto* row = new QHBoxLayout;
    row->addStretch();
    auto* take = new Button(QObject::tr("Take these names"), Button::Look::primary);
    take->setObjectName(QStringLiteral("names_take"));
    take->setEnabled(false);
    row->addWidget(take);
    box->addLayout(row);
    const auto progress = std::make_shared<Progress>();
    QObject::connect(dialog, &QObject::destroyed, [progress] { progress->cancel.cancel(); });
    QObject::connect(take, &QPushButton::clicked, dialog, [=] {
        std::vector<std::string> paths;
        for (int i = 0; i < list->count(); ++i)
            if (list->item(i)->checkState() == Qt::Checked) paths.push_back(list->item(i)->data(Qt::UserRole).toString().toStdString());
        sources->accept_paths(paths);
        dialog->accept();
    });
    sources->compute(
        sources, QObject::tr("Looking for names"),
        [snapshot = sources->snapshot(), context = sources->context(), progress] {
            return find_names(*context, snapshot->sources, *progress);
        },
        [told, list, take, guard = QPointer<QDialog>(dialog)](Result<std::vector<NameCandidate>> found) {
            if (!guard) return;
            if (!found) return told->setText(text_of(found.error().message()));
            told->setText(
                found->empty()
                    ? QObject::tr("No file of the game names them. Paths you know can be given by a dictionary file beside the sheet.")
                    : QObject::tr("These texts have the hashes that are wanted. A short hash can agree by chance: take off the tick of a "
                                  "name that makes no sense."));
            for (const auto& name : *found) {
                auto* item = new QListWidgetItem(
                    QObject::tr("%1   is   %2   (in %3)").arg(text_of(name.hash), text_of(name.path), text_of(name.found_in)), list);
                item->setData(Qt::UserRole, text_of(name.path));
                item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
                item->setCheckState(Qt::Checked);
            }
            take->setEnabled(!found->empty());
            list->setFocus();
        });
    dialog->open();
}

}  // namespace skivet::app
