#pragma once
#include <QFrame>
#include <QLabel>
#include <QVBoxLayout>

class QStackedWidget;

namespace skivet::app {

/// A bordered area of the page.
[[nodiscard]] QFrame* make_panel(QWidget* parent = nullptr);
[[nodiscard]] QFrame* make_card(QWidget* parent = nullptr);
/// A label whose look the style sheet gives by `role`: heading, title, subtitle, strong, soft, warning. Long texts are wrapped.
[[nodiscard]] QLabel* make_label(const QString& text, const char* role, bool wrap = false, QWidget* parent = nullptr);

/// Whether what a label says is wrong: then it is in the accent.
void set_wrong(QLabel* label, bool wrong);
/// Whether a soft label says something new: then it is in ink.
void set_news(QLabel* label, bool news);
/// A label of one line that takes the room it gets; what does not fit is left out of the middle, and its tool tip has the whole.
[[nodiscard]] QLabel* make_elided_label(const char* role);

/// The end of a dialog: a line for what is wrong, hidden until it says something, and the one button.
struct FormEnd {
    QLabel* wrong;
    class Button* button;
};
[[nodiscard]] FormEnd end_form(QVBoxLayout* box, const QString& button);
/// What an empty page shows: what is missing, what to do next, and one button for it.
[[nodiscard]] QFrame* make_empty_state(const QString& title, const QString& text, QWidget* button);
/// A page that shows `empty` or `full`; index 0 and 1. Fills `page`.
[[nodiscard]] QStackedWidget* make_page_stack(QWidget* page, QWidget* empty, QWidget* full);
/// A column that scrolls, added to `into`.
[[nodiscard]] QVBoxLayout* add_scrolling_column(QVBoxLayout* into);
/// Removes and deletes everything in a column.
void clear_column(QVBoxLayout* column);

}  // namespace skivet::app
