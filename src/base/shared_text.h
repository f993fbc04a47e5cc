#pragma once
// A text that very many have alike, as entries have the name of their method: held once for all of them.
#include <memory>
#include <string>
#include <string_view>

namespace skivet {

class SharedText {
public:
    SharedText() = default;
    SharedText(std::string_view text);
    SharedText(const std::string& text) : SharedText(std::string_view(text)) {}
    SharedText(const char* text) : SharedText(std::string_view(text)) {}
    [[nodiscard]] std::string_view text() const { return text_ ? std::string_view(*text_) : std::string_view(); }
    bool operator==(const SharedText& other) const { return text_ == other.text_ || text() == other.text(); }

private:
    std::shared_ptr<const std::string> text_;  ///< null: empty
};

}  // namespace skivet
