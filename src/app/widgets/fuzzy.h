#pragma once
#include <optional>
#include <QString>

namespace skivet::app {

/// How well typed letters find a text: all of them in their order, better at the beginnings of words and side by side, better in short
/// texts. Nothing where a letter is missing. Blanks between typed words are free.
[[nodiscard]] std::optional<int> fuzzy_score(const QString& text, const QString& typed);

}  // namespace skivet::app
