#include "app/widgets/helpers.h"

#include "app/widgets/button.h"

#include <QPainter>
#include <QScrollArea>
#include <QStackedWidget>
#include <QStyle>

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

namespace {
void set_look(QLabel* label, const char* name, bool on) {
    if (label->property(name).toBool() == on) return;
    label->setProperty(name, on);
    label->style()->unpolish(label);  // style sheets look at properties once
    label->style()->polish(label);
}
}  // namespace

void set_wrong(QLabel* label, bool wrong) { set_look(label, "wrong", wrong); }
void set_news(QLabel* label, bool news) { set_look(label, "news", news); }

namespace {

class ElidedLabel : public QLabel {
public:
    ElidedLabel() { setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred); }

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        const auto shown = fontMetrics().elidedText(text(), Qt::ElideMiddle, contentsRect().width());
        style()->drawItemText(&painter, contentsRect(), int(alignment()), palette(), isEnabled(), shown, QPalette::WindowText);
        if (toolTip() != text()) setToolTip(text());
    }
};

}  // namespace

QLabel* make_elided_label(const char* role) {
    auto* label = new ElidedLabel;
    label->setObjectName(QLatin1String(role));
    label->setTextFormat(Qt::PlainText);
    return label;
}

QFrame* make_empty_state(const QString& title, const QString& text, QWidget* button) {
    auto* panel = make_panel();
    auto* box = new QVBoxLayout(panel);
    box->addStretch();
    box->addWidget(make_label(title, "title"), 0, Qt::AlignCenter);
    box->addWidget(make_label(text, "soft"), 0, Qt::AlignCenter);
    box->addSpacing(12);
    box->addWidget(button, 0, Qt::AlignCenter);
    box->addStretch();
    return panel;
}

QStackedWidget* make_page_stack(QWidget* page, QWidget* empty, QWidget* full) {
    auto* stack = new QStackedWidget;
    stack->addWidget(empty);
    stack->addWidget(full);
    auto* all = new QVBoxLayout(page);
    all->setContentsMargins(16, 16, 16, 16);
    all->addWidget(stack);
    return stack;
}

QVBoxLayout* add_scrolling_column(QVBoxLayout* into) {
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* inside = new QWidget;
    inside->setObjectName(QStringLiteral("clear"));
    auto* column = new QVBoxLayout(inside);
    column->setContentsMargins(0, 4, 0, 0);
    column->setSpacing(8);
    scroll->setWidget(inside);
    into->addWidget(scroll, 1);
    return column;
}

void clear_column(QVBoxLayout* column) {
    while (auto* child = column->takeAt(0)) {
        if (child->widget()) child->widget()->deleteLater();
        delete child;
    }
}

FormEnd end_form(QVBoxLayout* box, const QString& button) {
    FormEnd out{make_label({}, "warning", true), new Button(button, Button::Look::primary)};
    out.wrong->hide();
    box->addWidget(out.wrong);
    auto* row = new QHBoxLayout;
    row->addStretch();
    row->addWidget(out.button);
    box->addLayout(row);
    return out;
}

}  // namespace skivet::app
