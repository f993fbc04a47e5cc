#pragma once
#include <algorithm>
#include <nlohmann/json.hpp>
#include <string>
#include <string_view>

namespace skivet::cli {

/// What is not UTF-8 becomes U+FFFD.
inline std::string dump(const nlohmann::json& value) { return value.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace); }

/// One line of JSON Lines, put together without a tree of values: there may be a million, and their trees took longer than the catalog.
/// Keys are plain words and come in the order in which they are added; those of the other outputs are sorted.
class JsonLine {
public:
    JsonLine& add(std::string_view key, std::string_view text) {
        begin(key);
        const auto plain = [](char c) { return c >= ' ' && c < 0x7f && c != '"' && c != '\\'; };
        if (std::all_of(text.begin(), text.end(), plain)) ((out_ += '"') += text) += '"';
        else out_ += dump(text);
        return *this;
    }
    JsonLine& add(std::string_view key, const char* text) { return add(key, std::string_view(text)); }
    JsonLine& add(std::string_view key, bool value) {
        begin(key);
        out_ += value ? "true" : "false";
        return *this;
    }
    JsonLine& add(std::string_view key, std::uint64_t value) {
        begin(key);
        out_ += std::to_string(value);
        return *this;
    }
    JsonLine& add(std::string_view key, std::uint32_t value) { return add(key, std::uint64_t{value}); }
    JsonLine& add(std::string_view key, double value) {
        begin(key);
        out_ += nlohmann::json(value).dump();
        return *this;
    }
    /// The object and a line's end.
    [[nodiscard]] std::string line() && { return std::move(out_ += "}\n"); }

private:
    std::string out_;

    void begin(std::string_view key) { (((out_ += out_.empty() ? '{' : ',') += '"') += key) += "\":"; }
};

}  // namespace skivet::cli
