#include "app/widgets/byte_map.h"

#include <array>

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include "app/theme/theme.h"

namespace skivet::app {
namespace {

/// Tables, textures, other, gaps: from the most to the least that stands out.
QColor kind_colors(int kind) {
    const auto& c = colors();
    return kind == 0 ? c.ink : kind == 1 ? c.dense : kind == 2 ? c.handle : c.gap;
}

}  // namespace

ByteMap::ByteMap(QWidget* parent) : QWidget(parent) {
    setMinimumHeight(92);
    setAccessibleName(tr("Byte map"));
}

const std::vector<Segment>& ByteMap::segments() const {
    static const std::vector<Segment> none;
    return snapshot_ && source_ < snapshot_->segments.size() ? snapshot_->segments[source_] : none;
}

void ByteMap::show_source(std::shared_ptr<const CatalogSnapshot> snapshot, std::size_t source) {
    snapshot_ = std::move(snapshot);
    source_ = source;
    entry_ = -1;
    size_ = segments().empty() ? 0 : segments().back().at + segments().back().size;
    update();
}

void ByteMap::select_entry(int entry) {
    entry_ = entry;
    update();
}

ByteMap::Kind ByteMap::kind_of(const Segment& s) const {
    if (s.what == Segment::What::table) return table;
    if (s.what == Segment::What::gap) return gap;
    static const std::vector<bool> none;
    const auto& is_texture = source_ < snapshot_->items_of.size() ? snapshot_->items_of[source_].entry_is_texture : none;
    return s.entry < is_texture.size() && is_texture[s.entry] ? texture : other;
}

quint64 ByteMap::gap_bytes() const {
    quint64 sum = 0;
    for (const auto& s : segments())
        if (s.what == Segment::What::gap) sum += s.size;
    return sum;
}

QString ByteMap::described() const {
    std::array<quint64, 4> bytes{};
    for (const auto& s : segments()) bytes[std::size_t(kind_of(s))] += s.size;
    const QString names[] = {tr("tables"), tr("textures"), tr("other"), tr("gaps")};
    QStringList out;
    for (std::size_t i = 0; i < bytes.size(); ++i)
        if (bytes[i] > 0) out << QStringLiteral("%1 %2").arg(names[i], QString::fromStdString(human_bytes(bytes[i])));
    return out.join(QStringLiteral(", "));
}

QString WriteStrip::described() const {
    quint64 bytes = 0;
    for (const auto& [at, size] : ranges_) bytes += size;
    return tr("%L1 stretches, %2 of %3")
        .arg(ranges_.size())
        .arg(QString::fromStdString(human_bytes(bytes)), QString::fromStdString(human_bytes(size_)));
}

const Segment* ByteMap::at(double x) const {
    if (size_ == 0 || width() <= 0) return nullptr;
    const auto byte = quint64(std::max(0.0, x) / width() * double(size_));
    for (const auto& s : segments())
        if (byte >= s.at && byte < s.at + s.size) return &s;
    return nullptr;
}

void ByteMap::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const QRectF strip(0, 6, width(), 50);
    p.fillRect(strip, kind_colors(3));
    const double scale = size_ ? strip.width() / double(size_) : 0;
    for (const auto& s : segments()) {
        const QRectF part(double(s.at) * scale, strip.y(), std::max(1.0, double(s.size) * scale), strip.height());
        p.fillRect(part, kind_colors(kind_of(s)));
        if (part.width() > 3) p.fillRect(QRectF(part.x(), part.y(), 1, part.height()), colors().page);
    }
    p.setPen(colors().line);
    p.drawRect(strip.adjusted(0, 0, -1, -1));
    for (const auto& s : segments())
        if (s.what == Segment::What::entry && int(s.entry) == entry_) {
            p.setPen(QPen(colors().mark, 2));
            p.drawRect(QRectF(double(s.at) * scale - 1, 1, std::max(6.0, double(s.size) * scale) + 2, 60));
        }
    const QString names[] = {tr("tables"), tr("textures"), tr("other"),
                             tr("gaps %1").arg(QString::fromStdString(human_bytes(gap_bytes())))};
    double x = 0;
    p.setFont(text_font(12));
    for (int i = 0; i < 4; ++i) {
        p.setPen(colors().border);
        p.setBrush(kind_colors(i));
        p.drawRect(QRectF(x, 72, 11, 11));
        p.setPen(colors().ink);
        p.drawText(QPointF(x + 18, 82), names[i]);
        x += 42 + p.fontMetrics().horizontalAdvance(names[i]);
    }
}

void ByteMap::mousePressEvent(QMouseEvent* event) {
    const auto* s = at(event->position().x());
    if (s && s->what == Segment::What::entry) emit entry_chosen(int(s->entry));
}

bool ByteMap::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        if (const auto* s = at(help->pos().x())) {
            const auto name = s->what == Segment::What::table ? tr("table")
                              : s->what == Segment::What::gap
                                  ? tr("gap")
                                  : QString::fromStdString(snapshot_->sources[source_].container->entries()[s->entry].path);
            QToolTip::showText(
                help->globalPos(),
                tr("%1\n%2 bytes at %3").arg(name, QString::fromStdString(grouped(s->size)), QString::fromStdString(hex(s->at))), this);
        }
        return true;
    }
    return QWidget::event(event);
}

WriteStrip::WriteStrip(quint64 size, std::vector<std::pair<quint64, quint64>> ranges, QWidget* parent)
    : QWidget(parent), size_(size), ranges_(std::move(ranges)) {
    setFixedHeight(36);
    setAccessibleName(tr("What will be written"));
}

void WriteStrip::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(QRectF(0, 5, width(), 26), colors().handle);
    if (size_ == 0) return;
    for (const auto& [at, length] : ranges_) {
        const double x = double(at) / double(size_) * width(), w = std::max(3.0, double(length) / double(size_) * width());
        p.fillRect(QRectF(std::min(x, width() - w), 1, w, 34), colors().mark);
    }
}

}  // namespace skivet::app
