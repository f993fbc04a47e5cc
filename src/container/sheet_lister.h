#pragma once
// Lists what a sheet's tables say. Used by sheet_container.cpp only.
#include "container/sheet_container.h"

namespace skivet {

class SheetContainer::Lister {
public:
    Lister(SheetContainer& out, const ReadContext& context) : out_(out), sheet_(*out.sheet_), context_(context), limits_(context.limits) {
        Field name;
        name.name = "name";
        name.type = FieldType::text;
        name.code = sheet_.names ? sheet_.names->code : TextCode::utf8;
        name.width = sheet_.names ? sheet_.names->prefix : 0;
        name.prefixed = name.width > 0;
        name.terminated = !name.prefixed;
        name_type_.fields.push_back(std::move(name));
    }
    [[nodiscard]] Status list();

private:
    struct Names {
        std::uint64_t at = 0, end = 0;
        std::vector<std::uint64_t> starts;      ///< of names by index
        std::uint64_t first = ~0ull, last = 0;  ///< where the names that are used begin and end
        std::uint64_t used = 0;                 ///< bytes of them, one that is used twice counted twice
    };

    [[nodiscard]] Result<std::uint64_t> place(const Place& place, std::string_view what) const;
    [[nodiscard]] Result<std::uint64_t> number_of(const CountOf& count, std::string_view what) const;
    [[nodiscard]] Status open_table();
    [[nodiscard]] Status read_folders();
    [[nodiscard]] Status read_names();
    [[nodiscard]] Status read_records();
    [[nodiscard]] Status read_run(std::uint64_t& at, std::uint64_t count, const std::string& folder);
    [[nodiscard]] Status read_tree(std::uint64_t& at, std::size_t level, std::map<std::string, std::string>& words);
    [[nodiscard]] Status add_entry(std::uint64_t record_at, const std::string& folder, const std::map<std::string, std::string>* words);
    [[nodiscard]] Result<std::string> name_at(std::uint64_t at);
    [[nodiscard]] Result<std::string> name_of_number(std::uint64_t number, std::uint64_t said_at);
    [[nodiscard]] Result<std::string> path_of(const std::string& folder, const std::map<std::string, std::string>* words);
    [[nodiscard]] Status load_dictionary();
    [[nodiscard]] bool terminates() const;
    /// Takes a marker entry for the beginning or end of a folder.
    [[nodiscard]] bool is_marker(const std::string& path);
    [[nodiscard]] Status read_arrays(std::uint64_t& at, std::uint64_t count);
    /// Places and sizes that follow from those of other entries.
    [[nodiscard]] Status find_extents();
    [[nodiscard]] Status find_ends();
    [[nodiscard]] Status read_chunks();
    /// Which entries are textures that their records describe.
    [[nodiscard]] Status find_textures();
    /// Sizes, and whether it is packed, once its stored size is known.
    void settle(std::size_t entry, const RecordValues* record);

    SheetContainer& out_;
    const Sheet& sheet_;
    const ReadContext& context_;
    const ReadLimits& limits_;
    ByteSpan image_;
    RecordValues record_;
    std::vector<RecordValues> folders_;
    Names names_;
    RecordType name_type_;  ///< one name of [names] or [tree]
    std::uint64_t folders_end_ = 0, records_end_ = 0;
    std::vector<std::string> open_folders_;                 ///< by markers, the outermost first
    std::vector<std::uint64_t> starts_;                     ///< where the data of each record begins, entries or not
    std::vector<std::size_t> record_of_;                    ///< of each entry, an index into starts_
    std::uint64_t last_stored_ = 0;                         ///< of the record read last
    std::uint64_t records_ = 0;                             ///< records read, deleted ones too
    std::uint64_t visited_ = 0;                             ///< records read; folders may share them, but not without end
    std::unordered_map<std::uint64_t, std::string> known_;  ///< paths by hash
};

}  // namespace skivet
