#include "app/widgets/helpers.h"

namespace skivet::app {

QFrame* make_panel(QWidget* parent) {
    auto* frame = new QFrame(parent);
    frame->setObjectName(QStringLiteral("panel"));
    return frame;
}

QFrame* make_card(QWidget* parent) {
    auto* frame = new QFrame(parent);
    frame->setObjectName(QStringLiteral("card"));
    return frame;
}

QLabel* make_label(const QString& text, const char* role, bool wrap, QWidget* parent) {
    auto* label = new QLabel(text, parent);
    label->setObjectName(QLatin1String(role));
    label->setWordWrap(wrap);
    label->setTextFormat(Qt::PlainText);
    return label;
}

}  // namespace skivet::app
