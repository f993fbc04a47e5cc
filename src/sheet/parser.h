#pragma once
// The parser of sheets, in parts: parse.cpp has what all kinds share, the other files one kind or section each. Used inside src/sheet only.
#include "sheet/parse_toml.h"

namespace skivet::sheet_parse {

class Parser : private Reader {
public:
    explicit Parser(std::string_view file) : Reader(file) {}
    [[nodiscard]] Result<Sheet> parse(const toml::table& root);

private:
    [[nodiscard]] Status parse_recognize(const toml::table& root, Sheet& sheet) const;
    [[nodiscard]] Result<Recognition> condition(const toml::node& node, SheetKind kind, bool inner) const;
    [[nodiscard]] Status check_condition(const Sheet& sheet, const Recognition& rule) const;
    /// `key = [from, to]`, both included, or one number.
    [[nodiscard]] Result<std::pair<std::uint64_t, std::uint64_t>> range(const toml::table& table, std::string_view key) const;
    /// `at`: a number, one counted back from the end, a header field, or "after …".
    [[nodiscard]] Result<Place> place(const toml::table& table, const Sheet& sheet, Place otherwise) const;
    /// `count`: a number, a header field or "until end"; or `until = { field = …, is = 0 }`.
    [[nodiscard]] Result<CountOf> count(const toml::table& table, const Sheet& sheet, const RecordType& record, Meaning by_default) const;
    [[nodiscard]] Status parse_packers(const toml::table& root, Sheet& sheet) const;
    [[nodiscard]] Status parse_lzss(const toml::table& table, LzssSpec& spec) const;
    [[nodiscard]] Status parse_runs(const toml::table& table, RunsSpec& spec) const;
    /// The name of a method, of the libraries' or of a packer of the sheet.
    [[nodiscard]] Result<std::string> method(const toml::table& table, const Sheet& sheet) const;
    [[nodiscard]] Status check_methods(const Sheet& sheet, const RecordType& type) const;
    [[nodiscard]] Status parse_container(const toml::table& root, Sheet& sheet) const;
    [[nodiscard]] Status check_container(const toml::table& record, const Sheet& sheet) const;
    [[nodiscard]] Status parse_tree(const toml::table& tree, Sheet& sheet) const;
    [[nodiscard]] Status parse_names(const toml::table& names, Sheet& sheet) const;
    [[nodiscard]] Status parse_hash(const toml::table& table, Sheet& sheet) const;
    [[nodiscard]] Result<CryptSpec> cipher(const toml::table& table, const Sheet& sheet) const;
    [[nodiscard]] Status parse_packing(const toml::table& root, Sheet& sheet) const;
    [[nodiscard]] Status parse_chunks(const toml::table& table, Sheet& sheet) const;
    [[nodiscard]] Status parse_data(const toml::table& data, Sheet& sheet) const;
    [[nodiscard]] Status parse_wrapper(const toml::table& root, Sheet& sheet) const;
    /// [texture]: what is the same for all files of the kind.
    [[nodiscard]] Status parse_constants(const toml::table& table, Sheet& sheet) const;
    [[nodiscard]] Status parse_payload(const toml::table& payload, Sheet& sheet) const;
    [[nodiscard]] Status parse_palette(const toml::table& table, Sheet& sheet) const;
    [[nodiscard]] Status parse_tiling(const toml::table& payload, Sheet& sheet) const;
    [[nodiscard]] Status parse_siblings(const toml::table& root, Sheet& sheet) const;
    [[nodiscard]] Status parse_texture(const toml::table& root, Sheet& sheet) const;
    /// What describes a texture, in a sheet of its own or in an archive's records.
    [[nodiscard]] Status parse_texture_parts(const toml::table& root, std::string_view fields, Sheet& sheet) const;
    [[nodiscard]] Status parse_record_texture(const toml::table& root, Sheet& sheet) const;
};

}  // namespace skivet::sheet_parse
