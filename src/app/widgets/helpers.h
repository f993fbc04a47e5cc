#pragma once
#include <QFrame>
#include <QLabel>

namespace skivet::app {

/// A bordered area of the page.
[[nodiscard]] QFrame* make_panel(QWidget* parent = nullptr);
[[nodiscard]] QFrame* make_card(QWidget* parent = nullptr);
/// A label whose look the style sheet gives by `role`: heading, title, subtitle, strong, soft, warning. Long texts are wrapped.
[[nodiscard]] QLabel* make_label(const QString& text, const char* role, bool wrap = false, QWidget* parent = nullptr);

}  // namespace skivet::app
