#include "base/phrase.h"

#include <atomic>
#include <locale>

namespace skivet {

namespace {
std::atomic<const Language*> spoken{nullptr};

/// For translations that ask for it: "{:.1Lf}".
class Point : public std::numpunct<char> {
public:
    explicit Point(char point) : point_(point) {}

protected:
    char do_decimal_point() const override { return point_; }

private:
    char point_;
};
}  // namespace

void speak(const Language* language) { spoken.store(language, std::memory_order_release); }

const Language* language() { return spoken.load(std::memory_order_acquire); }

std::string said(std::string_view english) {
    if (const auto* now = language())
        if (auto text = now->find(english)) return *std::move(text);
    return std::string(english);
}

std::string detail::phrase_of(fmt::string_view english, fmt::format_args values) {
    if (const auto* now = language())
        if (const auto text = now->find({english.data(), english.size()})) {
            try {
                return fmt::vformat(std::locale(std::locale::classic(), new Point(now->point)), *text, values);
            } catch (const fmt::format_error&) {
                // Somebody's mistake in a translation must not keep an error from being told.
            }
        }
    return fmt::vformat(english, values);
}

}  // namespace skivet
