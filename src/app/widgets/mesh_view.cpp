#include "app/widgets/mesh_view.h"

#include <cmath>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>

#include "app/theme/theme.h"

namespace skivet::app {
namespace {

constexpr double key_turn = 0.12, key_step = 1.15;  // radians, and how much nearer
constexpr float highest = 1.55f;                    // just below the pole, where up would turn over

}  // namespace

MeshView::MeshView(QWidget* parent) : QWidget(parent) {
    setMinimumSize(160, 160);
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setCursor(Qt::OpenHandCursor);
}

Orbit MeshView::whole_orbit() const {
    auto out = whole(box_, float(std::max(1, width())) / float(std::max(1, height())));
    out.upright_z = upright_z_;
    return out;
}

void MeshView::look_at(const Box3& box, bool upright_z) {
    box_ = box;
    upright_z_ = upright_z;
    look_at_whole();
}

void MeshView::look_at_whole() { set_orbit(whole_orbit()); }

void MeshView::set_orbit(const Orbit& orbit) {
    orbit_ = orbit;
    orbit_.rise = std::clamp(orbit.rise, -highest, highest);
    const float unit = whole_orbit().distance;
    orbit_.distance = std::clamp(orbit.distance, unit * float(nearest), unit * float(farthest));
    emit moved();
}

double MeshView::distance() const { return double(orbit_.distance / whole_orbit().distance); }

void MeshView::set_distance(double times) {
    auto orbit = orbit_;
    orbit.distance = whole_orbit().distance * float(times);
    set_orbit(orbit);
}

Lighting MeshView::light() const {
    Orbit from;
    from.turn = light_turn_ + 0.5f;
    from.rise = light_rise_;
    from.upright_z = upright_z_;
    Lighting out;
    out.towards = camera_of(from).eye;
    return out;
}

void MeshView::set_picture(const QImage& picture) {
    picture_ = picture;
    update();
}

void MeshView::set_message(const QString& message) {
    if (message == message_) return;
    message_ = message;
    update();
}

void MeshView::set_spot(std::optional<QPointF> at) {
    spot_ = at;
    update();
}

QString MeshView::described() const {
    if (picture_.isNull()) return message_;
    return tr("%1, turned by %2°, from %3° above, at %4 times the distance at which it is whole")
        .arg(what_)
        .arg(qRound(double(orbit_.turn) * 180 / M_PI))
        .arg(qRound(double(orbit_.rise) * 180 / M_PI))
        .arg(distance(), 0, 'g', 2);
}

void MeshView::turn(double right, double down) {
    auto orbit = orbit_;
    orbit.turn -= float(right);
    orbit.rise += float(down);
    set_orbit(orbit);
}

void MeshView::move_light(double right, double down) {
    light_turn_ += float(right);
    light_rise_ = std::clamp(light_rise_ - float(down), -highest, highest);
    emit moved();
}

void MeshView::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(colors().well);
    p.drawRoundedRect(rect(), 2, 2);
    if (!picture_.isNull()) {
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        p.drawImage(rect(), picture_);
    }
    if (!message_.isEmpty()) {
        p.setFont(text_font(12));
        const auto room = rect().adjusted(16, 16, -16, -16);
        const int flags = int(Qt::AlignCenter) | int(Qt::TextWordWrap);
        if (!picture_.isNull()) {
            const auto box = p.boundingRect(room, flags, message_).adjusted(-8, -5, 8, 5);
            p.setPen(Qt::NoPen);
            p.setBrush(QColor(28, 28, 28, 225));
            p.drawRect(box);
        }
        p.setPen(QColor(0xf2, 0xf2, 0xf2));
        p.drawText(room, flags, message_);
    }
    if (spot_) {
        const auto at = *spot_ / devicePixelRatioF();
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(QColor(0, 0, 0, 160), 3));
        p.drawEllipse(at, 6, 6);
        p.setPen(QPen(Qt::white, 1.4));
        p.drawEllipse(at, 6, 6);
    }
    if (hasFocus()) {
        p.setPen(QPen(colors().accent, 2));
        p.setBrush(Qt::NoBrush);
        p.drawRect(rect().adjusted(1, 1, -1, -1));
    }
}

void MeshView::resizeEvent(QResizeEvent*) { emit moved(); }

void MeshView::wheelEvent(QWheelEvent* event) {
    set_distance(distance() * std::pow(1.2, -event->angleDelta().y() / 120.0));
    event->accept();
}

void MeshView::mousePressEvent(QMouseEvent* event) {
    grabbed_ = pressed_ = event->position();
    dragged_ = false;
    if (event->button() != Qt::MiddleButton) setCursor(Qt::ClosedHandCursor);
}

void MeshView::mouseMoveEvent(QMouseEvent* event) {
    if (event->buttons() == Qt::NoButton) return emit pointed(event->position() * devicePixelRatioF());
    const auto by = event->position() - grabbed_;
    grabbed_ = event->position();
    dragged_ = dragged_ || (event->position() - pressed_).manhattanLength() > 3;
    if (!dragged_) return;
    emit pointed(std::nullopt);
    const double unit = std::max(1, std::min(width(), height()));
    if (event->modifiers() & Qt::ControlModifier) return move_light(by.x() / unit * M_PI, by.y() / unit * M_PI);
    if ((event->modifiers() & Qt::ShiftModifier) || (event->buttons() & (Qt::RightButton | Qt::MiddleButton)))
        return set_orbit(panned(orbit_, float(by.x() / height()), float(by.y() / height())));
    turn(by.x() / unit * M_PI, by.y() / unit * M_PI);
}

void MeshView::mouseReleaseEvent(QMouseEvent* event) {
    setCursor(Qt::OpenHandCursor);
    if (!dragged_ && event->button() == Qt::LeftButton) emit clicked(event->position() * devicePixelRatioF());
}

void MeshView::keyPressEvent(QKeyEvent* event) {
    const auto by = [&](double right, double down) {
        if (event->modifiers() & Qt::ControlModifier) move_light(right * key_turn, down * key_turn);
        else if (event->modifiers() & Qt::ShiftModifier) set_orbit(panned(orbit_, float(right) * 0.05f, float(down) * 0.05f));
        else turn(right * key_turn, down * key_turn);
    };
    switch (event->key()) {
        case Qt::Key_Left: return by(-1, 0);
        case Qt::Key_Right: return by(1, 0);
        case Qt::Key_Up: return by(0, -1);
        case Qt::Key_Down: return by(0, 1);
        case Qt::Key_Plus:
        case Qt::Key_Equal: return set_distance(distance() / key_step);
        case Qt::Key_Minus: return set_distance(distance() * key_step);
        case Qt::Key_Home: return look_at_whole();
        default: QWidget::keyPressEvent(event);
    }
}

}  // namespace skivet::app
