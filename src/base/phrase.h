#pragma once
// What the core says to a person, in the language that the program speaks. Written in English where it is said; whoever shows it may have
// set another language. Names in files, of formats and of commands are no phrases and stay as they are.
#include <fmt/format.h>
#include <optional>
#include <string>
#include <string_view>

namespace skivet {

/// A language: what stands for an English text, and how its numbers are written.
class Language {
public:
    virtual ~Language() = default;
    /// `english` as it stands in the source, with {} or {0} where values go; nullopt: not translated.
    [[nodiscard]] virtual std::optional<std::string> find(std::string_view english) const = 0;
    std::string group = ",";  ///< between thousands
    char point = '.';         ///< before tenths
};

/// From now on everybody speaks `language`; null: English. Set before threads are started; it has to live as long as the program.
void speak(const Language* language);
[[nodiscard]] const Language* language();

/// A whole text.
[[nodiscard]] std::string said(std::string_view english);

namespace detail {
[[nodiscard]] std::string phrase_of(fmt::string_view english, fmt::format_args values);
}

/// A text with values in it (fmt's syntax). A translation whose places do not fit the values is not used.
template <class... Values>
[[nodiscard]] std::string phrase(fmt::format_string<Values...> english, Values&&... values) {
    return detail::phrase_of(english, fmt::make_format_args(values...));
}

}  // namespace skivet
