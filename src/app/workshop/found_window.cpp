#include "app/workshop/found_window.h"

#include <QHBoxLayout>
#include <QMouseEvent>
#include <QScrollBar>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

#include "app/dialogs.h"
#include "app/guide_window.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/models/pictures.h"
#include "app/pages/page.h"
#include "app/theme/theme.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/helpers.h"
#include "app/widgets/image_view.h"
#include "app/widgets/row_frame.h"
#include "app/workshop/workshop_actions.h"

namespace skivet::app {
namespace {

enum FoundRole { FoundIndex = Qt::UserRole, Where, Amount, Why, Unsure, Fresh };
constexpr int samples = 4, sample_side = 44, tick_side = 18;

QRectF tick_box(const QRectF& box) { return {box.x() + 14, box.center().y() - tick_side / 2.0, double(tick_side), double(tick_side)}; }

class FoundDelegate : public QStyledItemDelegate {
public:
    FoundDelegate(FoundModel* model, QObject* parent) : QStyledItemDelegate(parent), model_(model) {}

    [[nodiscard]] QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex& index) const override {
        return {300, index.parent().isValid() ? 64 : 36};
    }

    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const auto& c = colors();
        p->save();
        if (!index.parent().isValid()) {
            p->setFont(text_font(12, true));
            p->setPen(c.soft);
            p->drawText(option.rect.adjusted(2, 0, 0, -5), int(Qt::AlignBottom | Qt::AlignLeft), index.data().toString());
            return p->restore();
        }
        const auto box = draw_row_frame(*p, option, 6);
        draw_tick(*p, tick_box(box), index.data(Qt::CheckStateRole).toInt() == Qt::Checked);
        const auto found = index.data(FoundIndex).toULongLong();
        double x = box.x() + 46;
        const auto count = int(model_->installation()->survey.found[found].samples.size());
        for (int i = 0; i < samples; ++i, x += sample_side + 4) {
            const QRectF well(x, box.center().y() - sample_side / 2.0, sample_side, sample_side);
            const auto picture = i < count ? model_->picture(found, std::size_t(i)) : QImage();
            if (!picture.isNull()) draw_in_well(*p, well, picture, 2);
            else if (i < count) p->fillRect(well, c.page);
        }
        const QRectF text = QRectF(x + 10, box.y() + 8, box.right() - x - 24, box.height() - 16);
        p->setFont(text_font(13));
        const auto amount = index.data(Amount).toString(), why = index.data(Why).toString();
        const int right = p->fontMetrics().horizontalAdvance(amount);
        p->setPen(c.ink);
        p->drawText(text, int(Qt::AlignTop | Qt::AlignRight), amount);
        p->setFont(text_font(14, true));
        const auto name = p->fontMetrics().elidedText(index.data().toString(), Qt::ElideMiddle, int(text.width()) - right - 60);
        p->drawText(text, int(Qt::AlignTop | Qt::AlignLeft), name);
        if (index.data(Fresh).toBool()) {
            const int after = p->fontMetrics().horizontalAdvance(name);
            p->setFont(text_font(12, true));
            p->setPen(c.mark);
            p->drawText(text.adjusted(after + 10, 2, 0, 0), int(Qt::AlignTop | Qt::AlignLeft), QObject::tr("new"));
        }
        p->setFont(text_font(12));
        const bool unsure = index.data(Unsure).toBool();
        const auto half = text.width() / 2 - 8;
        p->setPen(unsure ? c.mark : c.soft);
        const auto reason = p->fontMetrics().elidedText(why, Qt::ElideRight, int(half));
        p->drawText(text.adjusted(0, 0, unsure ? -24 : 0, 0), int(Qt::AlignBottom | Qt::AlignRight), reason);
        if (unsure) draw_warning(*p, {text.right() - 7, text.bottom() - 8});
        p->setPen(c.soft);
        p->drawText(text, int(Qt::AlignBottom | Qt::AlignLeft),
                    p->fontMetrics().elidedText(index.data(Where).toString(), Qt::ElideMiddle, int(half)));
        p->restore();
    }

    bool editorEvent(QEvent* event, QAbstractItemModel*, const QStyleOptionViewItem& option, const QModelIndex& index) override {
        if (!index.parent().isValid()) return false;
        const bool clicked =
            event->type() == QEvent::MouseButtonRelease &&
            QRectF(option.rect).adjusted(0, 0, 46 - option.rect.width(), 0).contains(static_cast<QMouseEvent*>(event)->position());
        const bool pressed = event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Space;
        if (!clicked && !pressed) return false;
        const auto found = std::size_t(index.data(FoundIndex).toULongLong());
        model_->tick(found, index.data(Qt::CheckStateRole).toInt() != Qt::Checked);
        return true;
    }

private:
    FoundModel* model_;
};

QString what_it_is(const Found& found) {
    switch (found.what) {
        case Found::What::archive: return to_text(found.kind == "parts" ? QObject::tr("archive in parts").toStdString() : found.kind);
        case Found::What::loose: return QObject::tr("loose files");
        case Found::What::backup: return QObject::tr("copy");
        case Found::What::installer: return QObject::tr("installer");
        case Found::What::documents: return QObject::tr("documents");
        default: return QObject::tr("unknown");
    }
}

}  // namespace

FoundWindow::FoundWindow(FoundModel* model, QWidget* parent) : QDialog(parent), model_(model) {
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Found in the game's folder"));
    resize(1100, 700);
    keep_size(this, "found");
    set_help(this, "sources");
    setObjectName(QStringLiteral("found"));
    setAccessibleName(tr("Found in the game's folder"));
    take_ = add_workshop_action(this, "found/use");
    auto* leave = add_workshop_action(this, "found/back");
    auto* other = add_workshop_action(this, "found/another-folder");
    connect(take_, &QAction::triggered, this, [this] {
        model_->take();
        accept();
    });
    connect(leave, &QAction::triggered, this, &QDialog::reject);
    connect(other, &QAction::triggered, this, [this] { ask_for_game(this, [this](const auto& folder) { look_through(folder); }); });

    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(20, 16, 20, 14);
    title_ = make_label({}, "title");
    about_ = make_label({}, "soft", true);
    box->addWidget(title_);
    box->addWidget(about_);
    list_ = new QTreeView;
    list_->setObjectName(QStringLiteral("found_list"));
    list_->setAccessibleName(tr("What was found; space ticks"));
    list_->setHeaderHidden(true);
    list_->setRootIsDecorated(false);
    list_->setIndentation(0);
    list_->setItemsExpandable(false);
    list_->setFrameShape(QFrame::NoFrame);
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    list_->setStyleSheet(QStringLiteral("QAbstractItemView{background:transparent;border:none;}"));
    list_->viewport()->setAutoFillBackground(false);
    rows_ = new QStandardItemModel(this);
    list_->setModel(rows_);
    list_->setItemDelegate(new FoundDelegate(model, list_));
    box->addWidget(list_, 1);
    auto* bottom = new FlowRow;
    bottom->addWidget(new Button(other, Button::Look::link));
    bottom->addStretch();
    bottom->addWidget(new Button(leave, Button::Look::plain));
    bottom->addWidget(new Button(take_, Button::Look::primary));
    box->addLayout(bottom);

    connect(model, &FoundModel::changed, this, &FoundWindow::refresh);
    connect(model, &FoundModel::picture_came, list_->viewport(), qOverload<>(&QWidget::update));
    list_->setFocus();
    refresh();
}

void FoundWindow::look_through(const std::filesystem::path& game) { model_->look_through(game); }

void FoundWindow::add_row(QStandardItem* section, std::size_t found, const OrderedSource* order, bool fresh, bool ticked) {
    const auto& installation = *model_->installation();
    const auto& one = installation.survey.found[found];
    auto* row = new QStandardItem(to_text(one.path.filename()));
    const auto where = one.path.parent_path().lexically_relative(installation.survey.root);
    const auto group = one.group == SourceGroup::base ? QString() : spoken(skivet::name_of(one.group)) + QStringLiteral(" · ");
    row->setData(qulonglong(found), FoundIndex);
    row->setData(group + what_it_is(one) +
                     (where.empty() || where == "." || where.string().starts_with("..") ? QString() : tr(" · in %1").arg(to_text(where))),
                 Where);
    const auto files = one.files() > 1 ? tr("%L1 files · ").arg(one.files()) : QString();
    row->setData(one.textures > 0
                     ? (one.textures == 1 ? tr("1 texture · %1").arg(to_text(human_bytes(one.bytes)))
                                          : tr("%L1 textures · %2").arg(to_text(grouped(one.textures)), to_text(human_bytes(one.bytes))))
                     : files + (one.bytes > 0 ? to_text(human_bytes(one.bytes)) : QString()),
                 Amount);
    row->setData(one.error && one.error->code == ErrorCode::key ? tr("wants a key; add it with K")
                 : one.error                                    ? spoken(one.error->what)
                                                                : spoken(order ? order->reason : one.why),
                 Why);
    row->setData((order && !order->sure) || (one.error.has_value() && one.wanted), Unsure);
    row->setData(fresh, Fresh);
    row->setData(ticked ? Qt::Checked : Qt::Unchecked, Qt::CheckStateRole);
    row->setToolTip(to_text(one.path) + '\n' + spoken(one.why));
    row->setData(tr("%1, %2, %3").arg(row->text(), row->data(Amount).toString(), ticked ? tr("ticked") : tr("not ticked")),
                 Qt::AccessibleTextRole);
    section->appendRow(row);
}

void FoundWindow::refresh() {
    const auto chosen = list_->currentIndex().isValid() ? list_->currentIndex().data(FoundIndex) : QVariant();
    const int scrolled = list_->verticalScrollBar()->value();
    rows_->clear();
    const auto installation = model_->installation();
    const auto ticked = installation ? model_->ticked() : std::vector<bool>();
    const auto count = std::count(ticked.begin(), ticked.end(), true);
    take_->setEnabled(count > 0 && !model_->looking());
    take_->setText(count == 0 ? tr("Use these sources") : count == 1 ? tr("Use this source") : tr("Use these %1 sources").arg(count));
    if (!installation) {
        title_->setText(model_->looking() ? tr("Going through the game's folder") : tr("Nothing was looked through"));
        about_->setText(model_->looking() ? tr("What can be a source shows here as it is found.")
                                          : tr("Choose the folder in which the game is installed."));
        return;
    }
    const auto& survey = installation->survey;
    title_->setText(to_text(survey.root.filename().empty() ? survey.root.parent_path().filename() : survey.root.filename()));
    title_->setToolTip(to_text(survey.root));
    const auto files = to_text(grouped(survey.files));
    QStringList about = {survey.folders == 1 ? tr("%1 files in one folder").arg(files)
                                             : tr("%1 files in %2 folders").arg(files, to_text(grouped(survey.folders)))};
    if (model_->looking()) about << tr("archives are being opened");
    if (!installation->order.list.empty()) about << tr("in the order of %1").arg(to_text(installation->order.list.filename()));
    if (const auto left = survey.hidden + survey.linked + survey.unreadable; left > 0)
        about << tr("%L1 hidden, linked or unreadable left out").arg(left);
    QStringList left_over;
    for (const auto& one : installation->leftovers)
        if (left_over.size() < 20) left_over << to_text(one.path.lexically_relative(survey.root)) + QStringLiteral(": ") + spoken(one.why);
    if (!left_over.isEmpty()) about << tr("%1 left by other tools (point here)").arg(installation->leftovers.size());
    about_->setToolTip(left_over.join('\n'));
    if (!survey.whole) about << tr("there is more than can be looked through");
    about_->setText(about.join(QStringLiteral(" · ")));

    // Sections go by what is likely, not by the ticks, so that nothing jumps when one is set.
    auto* sources = new QStandardItem(tr("SOURCES · THE UPPER ONE WINS"));
    auto* unknown = new QStandardItem(tr("NOT DESCRIBED YET"));
    auto* others = new QStandardItem(tr("PROBABLY NOT"));
    const auto likely = model_->proposal();
    const bool first_time = std::none_of(survey.found.begin(), survey.found.end(), [&, i = std::size_t{0}](const Found&) mutable {
        return model_->standing(i++) == Standing::source;
    });
    for (auto i = likely.rbegin(); i != likely.rend(); ++i) {
        const auto& order = installation->order.sources;
        const auto place = std::find_if(order.begin(), order.end(), [&](const auto& o) { return o.found == *i; });
        add_row(sources, *i, place == order.end() ? nullptr : &*place, !first_time && model_->standing(*i) == Standing::fresh, ticked[*i]);
    }
    for (std::size_t i = 0; i < survey.found.size(); ++i)
        if (std::find(likely.begin(), likely.end(), i) == likely.end())
            add_row(survey.found[i].what == Found::What::undescribed ? unknown : others, i, nullptr, false, ticked[i]);
    for (auto* section : {sources, unknown, others}) {
        if (section->rowCount() == 0) {
            delete section;
            continue;
        }
        section->setFlags(Qt::ItemIsEnabled);
        rows_->appendRow(section);
    }
    if (rows_->rowCount() == 0)
        about_->setText(about_->text() + QStringLiteral("\n") + tr("Nothing here can be a source: no archive, no texture, no picture."));
    list_->expandAll();
    QModelIndex current;
    for (int s = 0; s < rows_->rowCount(); ++s)
        for (int r = 0; r < rows_->item(s)->rowCount(); ++r)
            if (const auto* row = rows_->item(s)->child(r); !current.isValid() || row->data(FoundIndex) == chosen) current = row->index();
    if (current.isValid()) list_->setCurrentIndex(current);
    list_->verticalScrollBar()->setValue(scrolled);
}

void show_found(QWidget* parent, FoundModel* model, const std::filesystem::path& game) {
    auto* window = new FoundWindow(model, parent);
    window->look_through(game);
    window->open();
}

void ask_for_game(QWidget* parent, const std::function<void(const std::filesystem::path&)>& chosen) {
    choose_folder(parent, "game", QObject::tr("The folder the game is installed in"), chosen);
}

}  // namespace skivet::app
