#include "app/workshop/sheet_workshop.h"

#include <QFontMetrics>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPainter>
#include <QPointer>
#include <QSplitter>
#include <QTextBlock>

#include "app/guide_window.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/theme/theme.h"
#include "app/widgets/button.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/helpers.h"
#include "app/workshop/workshop_actions.h"
#include "base/file_write.h"
#include "base/hash.h"
#include "container/draft_sheet.h"

namespace skivet::app {
namespace {

QString text_of(const std::string& v) { return QString::fromStdString(v); }

constexpr std::size_t shown_records = 300;
constexpr std::uint64_t read_bytes = 32u << 20;  // contents that are read after each change of the text

/// The line of an error's path, "line 12"; -1: none.
int line_in(const Error& error) {
    for (const auto& step : error.where)
        if (step.rfind("line ", 0) == 0) return std::atoi(step.c_str() + 5) - 1;
    return -1;
}

}  // namespace

void TriedFields::set(std::shared_ptr<const Trial> trial) {
    beginResetModel();
    trial_ = std::move(trial);
    endResetModel();
}

const TriedField* TriedFields::field(int row) const {
    return trial_ && row >= 0 && std::size_t(row) < trial_->fields.size() ? &trial_->fields[std::size_t(row)] : nullptr;
}

int TriedFields::rowCount(const QModelIndex& parent) const { return parent.isValid() || !trial_ ? 0 : int(trial_->fields.size()); }

QVariant TriedFields::data(const QModelIndex& index, int role) const {
    const auto* f = field(index.row());
    if (!f) return {};
    if (role == Qt::FontRole && (index.column() == 0 || index.column() == 1)) return number_font(12);
    if (role == Qt::ToolTipRole) return spoken(f->where);
    if (role == Qt::ForegroundRole && index.column() < 2) return colors().soft;
    if (role != Qt::DisplayRole) return {};
    switch (index.column()) {
        case 0: return text_of(hex(f->at));
        case 1: return text_of(f->bytes.size() > 23 ? f->bytes.substr(0, 23) + " …" : f->bytes);
        case 2: {
            // The first field of a record says which one it is.
            const auto* before = field(index.row() - 1);
            return !before || before->where != f->where
                       ? spoken(f->where.substr(0, f->where.find(" ("))) + QStringLiteral(" ▸ ") + text_of(f->name)
                       : text_of(f->name);
        }
        case 3: return text_of(f->value);
        default: return text_of(f->means);
    }
}

QVariant TriedFields::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole) return {};
    const QString names[] = {tr("At"), tr("Bytes"), tr("Field"), tr("Value"), tr("Means")};
    return names[section];
}

BytesView::BytesView(QWidget* parent) : QWidget(parent) {
    setMinimumHeight(132);
    setAccessibleName(tr("The bytes around the chosen field"));
}

void BytesView::set(QByteArray bytes, quint64 at, quint64 from, quint64 to) {
    bytes_ = std::move(bytes);
    at_ = at;
    from_ = from;
    to_ = to;
    update();
}

QString BytesView::described() const {
    if (to_ <= from_ || from_ < at_) return {};
    return tr("at %1: %2")
        .arg(text_of(hex(from_)),
             QString::fromLatin1(bytes_.mid(qsizetype(from_ - at_), qsizetype(std::min<quint64>(to_ - from_, 64))).toHex(' ')));
}

void BytesView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const auto& c = colors();
    p.fillRect(rect(), c.card);
    p.setPen(c.line);
    p.drawRect(rect().adjusted(0, 0, -1, -1));
    p.setFont(number_font(12));
    const QFontMetrics m(p.font());
    const int cell = m.horizontalAdvance(QStringLiteral("00")) + 6, line = m.height() + 2,
              left = 10 + m.horizontalAdvance(QStringLiteral("0x00000000")) + 12;
    for (qsizetype i = 0; i < bytes_.size(); ++i) {
        const int row = int(i / 16), column = int(i % 16), y = 6 + row * line;
        if (y + line > height()) break;
        const auto here = at_ + quint64(i);
        const bool marked = here >= from_ && here < to_;
        if (column == 0) {
            p.setPen(c.soft);
            p.drawText(QRect(10, y, left, line), Qt::AlignVCenter, text_of(hex(here)));
        }
        const QRect box(left + column * cell + (column >= 8 ? 8 : 0), y, cell, line);
        if (marked) p.fillRect(box, c.tint);
        p.setPen(marked ? c.mark : c.ink);
        const auto byte = uchar(bytes_[i]);
        p.drawText(box, Qt::AlignCenter, QStringLiteral("%1").arg(byte, 2, 16, QLatin1Char('0')));
        p.setPen(marked ? c.mark : c.soft);
        p.drawText(QRect(left + 16 * cell + 22 + column * (m.horizontalAdvance('0') + 1), y, cell, line), Qt::AlignVCenter,
                   byte >= 32 && byte < 127 ? QString(QLatin1Char(char(byte))) : QStringLiteral("·"));
    }
}

void ExplainedStrip::set(std::shared_ptr<const Trial> trial, quint64 size) {
    trial_ = std::move(trial);
    size_ = std::max<quint64>(1, size);
    update();
}

QString ExplainedStrip::described() const {
    if (!trial_) return {};
    quint64 tables = 0, entries = 0;
    for (const auto& s : trial_->segments)
        if (s.what == Segment::What::table) tables += s.size;
        else if (s.what == Segment::What::entry) entries += s.size;
    return tr("tables %1, entries %2, not explained %3")
        .arg(text_of(human_bytes(tables)), text_of(human_bytes(entries)), text_of(human_bytes(trial_->unexplained)));
}

void ExplainedStrip::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const QRectF strip = QRectF(rect()).adjusted(0, 2, -1, -3);
    p.fillRect(strip, colors().mark);
    if (trial_)
        for (const auto& s : trial_->segments) {
            const double x = double(s.at) / double(size_) * strip.width(), w = double(s.size) / double(size_) * strip.width();
            const auto& color = s.what == Segment::What::table   ? colors().ink
                                : s.what == Segment::What::entry ? colors().border
                                                                 : colors().mark;
            p.fillRect(QRectF(x, strip.y(), std::max(1.0, w), strip.height()), color);
            if (s.what == Segment::What::entry && w > 4) p.fillRect(QRectF(x, strip.y(), 1, strip.height()), colors().card);
        }
    p.setPen(colors().border);
    p.drawRect(strip);
}

SheetWorkshop::SheetWorkshop(QWidget* parent, SourcesModel* sources, FileView archive)
    : QDialog(parent), sources_(sources), file_(archive), archive_(std::move(archive)) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("sheet_workshop"));
    setWindowTitle(tr("Sheet workshop: %1").arg(text_of(archive_.path().filename().string())));
    resize(1220, 740);
    keep_size(this, "sheet-workshop");
    set_help(this, "workshop");
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(16, 14, 16, 14);
    auto* halves = new QSplitter;
    halves->setChildrenCollapsible(false);
    auto* left = new QWidget;
    auto* left_box = new QVBoxLayout(left);
    left_box->setContentsMargins(0, 0, 6, 0);
    left_box->addWidget(make_label(tr("THE SHEET"), "heading"));
    text_ = new QPlainTextEdit;
    text_->setObjectName(QStringLiteral("sheet_text"));
    text_->setAccessibleName(tr("The sheet's text"));
    text_->setFont(number_font(12));
    text_->setLineWrapMode(QPlainTextEdit::NoWrap);
    text_->setTabChangesFocus(true);
    text_->setPlaceholderText(tr("Write a sheet here, or let one be drafted from this archive (Ctrl+D)."));
    left_box->addWidget(text_, 1);
    auto* right = new QWidget;
    auto* box = new QVBoxLayout(right);
    box->setContentsMargins(6, 0, 0, 0);
    box->addWidget(make_label(tr("WHAT IT MAKES OF THE ARCHIVE"), "heading"));
    strip_ = new ExplainedStrip;
    strip_->setFixedHeight(26);
    strip_->setAccessibleName(tr("The archive: tables dark, entries gray, bytes the sheet does not explain in red"));
    box->addWidget(strip_);
    verdict_ = make_label({}, "strong", true);
    box->addWidget(verdict_);
    recognized_ = make_label({}, "soft", true);
    box->addWidget(recognized_);
    fields_ = new TriedFields(this);
    table_ = new QTableView;
    table_->setObjectName(QStringLiteral("sheet_fields"));
    table_->setModel(fields_);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setShowGrid(false);
    table_->setWordWrap(false);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->horizontalHeader()->setHighlightSections(false);
    table_->horizontalHeader()->setSectionResizeMode(3, QHeaderView::Stretch);
    const int widths[] = {76, 196, 136, 0, 96};
    table_->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    for (int i = 0; i < 5; ++i)
        if (widths[i]) table_->setColumnWidth(i, widths[i]);
    box->addWidget(table_, 1);
    bytes_ = new BytesView;
    bytes_->setFixedHeight(132);
    box->addWidget(bytes_);
    halves->addWidget(left);
    halves->addWidget(right);
    halves->setSizes({480, 700});
    keep_columns(halves, "sheet-workshop");
    all->addWidget(halves, 1);

    auto* drafted = add_workshop_action(this, "sheet-workshop/draft", [this] { draft(); });
    prove_ = add_workshop_action(this, "sheet-workshop/prove", [this] { prove(); });
    keep_ = add_workshop_action(this, "sheet-workshop/keep", [this] { keep(); });
    auto* row = new FlowRow;
    for (auto* a : {drafted, prove_}) {
        auto* button = new Button(a, Button::Look::plain);
        button->setAutoDefault(false);
        row->addWidget(button);
    }
    row->addStretch();
    auto* button = new Button(keep_, Button::Look::primary);
    button->setAutoDefault(false);
    row->addWidget(button);
    all->addLayout(row);

    later_.setSingleShot(true);
    later_.setInterval(300);
    connect(&later_, &QTimer::timeout, this, &SheetWorkshop::try_now);
    connect(text_, &QPlainTextEdit::textChanged, this, [this] { later_.start(); });
    connect(table_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this](const QModelIndex& now) { show_field(now.row()); });
    prove_->setEnabled(false);
    keep_->setEnabled(false);
    say(tr("There is no text yet."), false);
    strip_->set(nullptr, archive_.size());
    text_->setFocus();
}

void SheetWorkshop::say(const QString& text, bool bad) {
    verdict_->setText(text);
    set_wrong(verdict_, bad);
}

void SheetWorkshop::try_now() {
    if (trying_) {
        again_ = true;
        return;
    }
    const auto text = text_->toPlainText().toStdString();
    if (text.find_first_not_of(" \t\r\n") == std::string::npos) return say(tr("There is no text yet."), false);
    trying_ = true;
    struct Tried {
        std::optional<Error> mistake;
        std::shared_ptr<const Trial> trial;
        SheetKind kind = SheetKind::container;
    };
    sources_->compute(
        this, tr("Trying the sheet"),
        [context = context(), archive = archive_, folder = sources_->store().project().sheets().string(), text] {
            Tried out;
            auto sheet = parse_sheet(text, "sheet");
            if (!sheet) {
                out.mistake = std::move(sheet).error();
                return out;
            }
            sheet->folder = folder;
            out.kind = sheet->kind;
            auto trial = try_sheet(*context, std::make_shared<const Sheet>(std::move(*sheet)), archive, shown_records, read_bytes);
            if (trial) out.trial = std::make_shared<const Trial>(std::move(*trial));
            else out.mistake = std::move(trial).error();
            return out;
        },
        [this, guard = QPointer<SheetWorkshop>(this)](Tried tried) {
            if (!guard) return;
            trying_ = false;
            QList<QTextEdit::ExtraSelection> marks;
            keep_->setEnabled(tried.trial != nullptr);
            prove_->setEnabled(tried.trial && tried.kind == SheetKind::container && !tried.trial->first_wrong);
            if (tried.mistake) {
                say(text_of(tried.mistake->message()), true);
                recognized_->clear();
                if (const int line = line_in(*tried.mistake); line >= 0) {
                    QTextEdit::ExtraSelection mark;
                    mark.cursor = QTextCursor(text_->document()->findBlockByNumber(line));
                    mark.format.setBackground(colors().tint);
                    mark.format.setProperty(QTextFormat::FullWidthSelection, true);
                    marks << mark;
                }
            } else {
                const auto& t = *tried.trial;
                auto soft = t.recognized_by.empty() ? QString() : tr("recognized by %1").arg(spoken(t.recognized_by));
                const auto counts = tr("%1 entries, %2 of %3 looked at can be read; %4 bytes are not explained")
                                        .arg(text_of(grouped(t.entries)), text_of(grouped(t.readable)), text_of(grouped(t.looked_at)),
                                             text_of(grouped(t.unexplained)));
                // A draft may be read to the last byte and still be wrong. What somebody wrote is judged by what it reads.
                const bool doubted = !drafted_.unsound.empty() && text_->toPlainText() == text_of(drafted_.toml);
                if (t.first_wrong) say(text_of(t.first_wrong->message()), true);
                else if (tried.kind != SheetKind::container) say(tr("The header can be read."), false);
                else if (doubted) say(text_of(drafted_.unsound_line()), true), soft = counts;
                else say(counts, false);
                if (drafted_.inside) soft += tr("; all of the file is hidden by a short key, this is what lies inside");
                recognized_->setText(soft);
                strip_->set(tried.kind == SheetKind::container ? tried.trial : nullptr, archive_.size());
                fields_->set(tried.trial);
                if (!t.fields.empty()) table_->selectRow(0);
            }
            text_->setExtraSelections(marks);
            if (std::exchange(again_, false)) try_now();
        });
}

void SheetWorkshop::draft() {
    say(tr("Looking for the entry table…"), false);
    sources_->compute(
        this, tr("Drafting a sheet"),
        [context = sources_->context(), archive = file_, cancel = cancel_] {
            Progress progress;
            progress.cancel = cancel;  // closing the window ends the search
            return draft_sheet(*context, archive, progress);
        },
        [this, guard = QPointer<SheetWorkshop>(this)](Result<SheetDraft> draft) {
            if (!guard) return;
            if (!draft) {
                say(spoken(draft.error().what), true);
                return recognized_->setText(spoken(draft.error().advice));
            }
            drafted_ = std::move(*draft);
            archive_ = drafted_.inside.value_or(file_);
            // As one step that Ctrl+Z takes back.
            QTextCursor all(text_->document());
            all.select(QTextCursor::Document);
            all.insertText(text_of(drafted_.toml));
            text_->moveCursor(QTextCursor::Start);
        });
}

void SheetWorkshop::prove() {
    say(tr("Proving on a copy…"), false);
    prove_->setEnabled(false);
    sources_->compute(
        this, tr("Proving a sheet"),
        [context = std::move(*context()), file = file_.path(), hidden = drafted_.inside.has_value(), cancel = cancel_,
         text = text_->toPlainText().toStdString()]() mutable -> Result<Proof> {
            SKIVET_TRY(auto sheet, parse_sheet(text, "sheet"));
            // Of a hidden file the sheet around it is chosen by its own conditions, and this one inside.
            if (!hidden) context.choices.insert(context.choices.begin(), {file.filename().string(), sheet.name});
            context.containers.insert(context.containers.begin(), sheet_kind(std::make_shared<const Sheet>(std::move(sheet))));
            Progress progress;
            progress.cancel = cancel;
            return prove_writing(context, file, progress);
        },
        [this, guard = QPointer<SheetWorkshop>(this)](Result<Proof> proved) {
            if (!guard) return;
            prove_->setEnabled(true);
            if (proved) say(tr("Proved: %1.").arg(text_of(skivet::text_of(*proved))), false);
            else say(text_of(proved.error().message()), true);
        });
}

std::shared_ptr<ReadContext> SheetWorkshop::context() const {
    auto out = std::make_shared<ReadContext>(*sources_->context());
    auto keys = std::make_shared<KeyRing>(*out->keys);
    for (const auto& key : drafted_.keys) keys->add(key);
    out->keys = std::move(keys);
    if (drafted_.wrapper.empty()) return out;
    if (auto around = parse_sheet(drafted_.wrapper, "wrapper"))
        out->containers.insert(out->containers.begin(), sheet_wrapper_kind(std::make_shared<const Sheet>(std::move(*around))));
    return out;
}

void SheetWorkshop::keep() {
    // Keys that the draft found and the sheets still name become the project's, as if they had been typed in.
    const auto text = text_->toPlainText().toStdString();
    for (const auto& key : drafted_.keys) {
        const auto quoted = '"' + key.name + '"';
        if (text.find(quoted) == std::string::npos && drafted_.wrapper.find(quoted) == std::string::npos) continue;
        if (auto added = sources_->store().add_key(key.name + '=' + to_hex(key.bytes)); !added)
            return say(text_of(added.error().message()), true);
    }
    if (drafted_.wrapper.empty()) return keep_text();
    sources_->store().save_sheet(file_.path().stem().string() + " (hidden)", drafted_.wrapper,
                                 [this, guard = QPointer<SheetWorkshop>(this)](const Result<std::filesystem::path>& file) {
                                     if (!guard) return;
                                     if (!file) return say(text_of(file.error().message()), true);
                                     keep_text();
                                 });
}

void SheetWorkshop::keep_text() {
    sources_->store().save_sheet(file_.path().stem().string(), text_->toPlainText().toStdString(),
                                 [this, guard = QPointer<SheetWorkshop>(this)](const Result<std::filesystem::path>& file) {
                                     if (!guard) return;
                                     if (!file) return say(text_of(file.error().message()), true);
                                     accept();
                                 });
}

void SheetWorkshop::show_field(int row) {
    const auto* f = fields_->field(row);
    if (!f) return bytes_->set({}, 0, 0, 0);
    const auto at = f->at, size = f->size;
    sources_->compute(
        this, tr("Opening bytes"),
        [archive = archive_, at] {
            const auto from = at / 16 * 16 >= 16 ? at / 16 * 16 - 16 : 0;
            const auto count = std::min<std::uint64_t>(16 * 7, archive.size() - std::min<std::uint64_t>(from, archive.size()));
            const auto bytes = archive.bytes(from, count);
            return std::pair(from,
                             bytes ? QByteArray(reinterpret_cast<const char*>(bytes->data()), qsizetype(bytes->size())) : QByteArray());
        },
        [this, guard = QPointer<SheetWorkshop>(this), at, size](std::pair<std::uint64_t, QByteArray> read) {
            if (guard) bytes_->set(read.second, read.first, at, at + size);
        });
}

void show_sheet_workshop(QWidget* parent, SourcesModel* sources, std::size_t source) {
    const auto snapshot = sources->snapshot();
    if (source >= snapshot->sources.size()) return;
    sources->compute(
        sources, QObject::tr("Opening bytes"), [path = snapshot->sources[source].path] { return FileView::open(path); },
        [parent = QPointer<QWidget>(parent), sources](Result<FileView> view) {
            if (!parent) return;
            if (!view) {
                sources->complain(view.error());
                return;
            }
            (new SheetWorkshop(parent, sources, std::move(*view)))->open();
        });
}

}  // namespace skivet::app
