#pragma once
// What the parsers of sheets share: values of a TOML table with errors that name the line. Used inside src/sheet only.
#include <fmt/format.h>
#include <toml++/toml.h>

#include "base/keys.h"
#include "base/phrase.h"
#include "sheet/sheet.h"

namespace skivet::sheet_parse {

class Reader {
public:
    explicit Reader(std::string_view file) : file_(file) {}

    [[nodiscard]] tl::unexpected<Error> wrong(int line, std::string what) const {
        return fail(Error{ErrorCode::unsupported, std::move(what), {file_, phrase("line {}", line)}, std::nullopt, {}});
    }
    [[nodiscard]] static int line_of(const toml::node* node) { return node ? static_cast<int>(node->source().begin.line) : 1; }
    [[nodiscard]] static int line_of(const toml::node& node) { return static_cast<int>(node.source().begin.line); }
    [[nodiscard]] int line_of(const toml::table& table, std::string_view key) const {
        return table[key] ? line_of(table[key].node()) : line_of(table);
    }

    [[nodiscard]] Status known_keys(const toml::table& table, std::initializer_list<std::string_view> keys) const {
        for (const auto& [key, node] : table)
            if (std::find(keys.begin(), keys.end(), key.str()) == keys.end())
                return wrong(line_of(node), phrase("the word \"{}\" is not known here", key.str()));
        return {};
    }
    [[nodiscard]] Result<std::string> text(const toml::table& table, std::string_view key, bool needed = false) const {
        const auto node = table[key];
        if (!node) {
            if (needed) return wrong(line_of(table), phrase("\"{}\" is missing", key));
            return std::string();
        }
        if (const auto value = node.value_exact<std::string>()) return *value;
        return wrong(line_of(node.node()), phrase("\"{}\" must be text", key));
    }
    [[nodiscard]] Result<std::int64_t> whole(const toml::table& table, std::string_view key, std::int64_t otherwise) const {
        const auto node = table[key];
        if (!node) return otherwise;
        if (const auto value = node.value_exact<std::int64_t>()) return *value;
        return wrong(line_of(node.node()), phrase("\"{}\" must be a whole number", key));
    }
    [[nodiscard]] Result<std::uint64_t> number(const toml::table& table, std::string_view key, std::uint64_t otherwise) const {
        const auto node = table[key];
        if (!node) return otherwise;
        const auto value = node.value_exact<std::int64_t>();
        if (!value || *value < 0) return wrong(line_of(node.node()), phrase("\"{}\" must be a whole number, 0 or more", key));
        return static_cast<std::uint64_t>(*value);
    }
    /// Two whole numbers, written [a, b]; nothing for anything else.
    [[nodiscard]] static std::optional<std::pair<std::int64_t, std::int64_t>> two(const toml::node* node) {
        const auto* list = node ? node->as_array() : nullptr;
        if (!list || list->size() != 2) return std::nullopt;
        const auto a = list->get(0)->value_exact<std::int64_t>(), b = list->get(1)->value_exact<std::int64_t>();
        return a && b ? std::optional(std::pair{*a, *b}) : std::nullopt;
    }
    [[nodiscard]] Result<bool> flag(const toml::table& table, std::string_view key, bool otherwise) const {
        const auto node = table[key];
        if (!node) return otherwise;
        if (const auto value = node.value_exact<bool>()) return *value;
        return wrong(line_of(node.node()), phrase("\"{}\" must be true or false", key));
    }
    [[nodiscard]] Result<Bytes> hex(const toml::table& table, std::string_view key) const {
        SKIVET_TRY(const auto digits, text(table, key));
        if (digits.empty()) return Bytes{};
        if (auto bytes = bytes_of_hex(digits)) return std::move(*bytes);
        return wrong(line_of(table[key].node()), phrase("{} are pairs of hexadecimal digits, such as \"46 43\"", key));
    }
    /// One of a few words; the first is the one that holds when the key is not there.
    [[nodiscard]] Result<std::size_t> word(const toml::table& table, std::string_view key,
                                           std::initializer_list<std::string_view> words) const {
        SKIVET_TRY(const auto found, text(table, key));
        if (found.empty()) return std::size_t{0};
        std::string list;
        std::size_t i = 0;
        for (const auto w : words) {
            if (w == found) return i;
            list += fmt::format("{}\"{}\"", list.empty() ? "" : i + 1 == words.size() ? " or " : ", ", w);
            ++i;
        }
        return wrong(line_of(table[key].node()), phrase("{} is {}", key, list));
    }
    [[nodiscard]] Result<TextCode> text_code(const toml::table& table) const {
        SKIVET_TRY(const auto index, word(table, "encoding", {"utf-8", "latin-1", "cp437", "utf-16"}));
        return static_cast<TextCode>(index);
    }

private:
    std::string file_;
};

/// Which record fields belong to; a meaning that has no effect there is refused.
enum class FieldsOf { container_header, record, texture_record, folders, chunk, texture_header, wrapper_header };
/// `fields = [ … ]` of a table.
[[nodiscard]] Status parse_fields(const Reader& reader, const toml::table& table, FieldsOf place, RecordType& record);
[[nodiscard]] unsigned width_named(std::string_view type);

}  // namespace skivet::sheet_parse
