#pragma once
// Entries that come, go and get other names by a sheet; used by sheet_entries*.cpp only.
#include <map>

#include "container/patched.h"
#include "container/sheet_container.h"

namespace skivet {

/// The tables are written anew for the entries there will be, where they are, behind themselves, or at the end of the file; an archive like
/// that is opened by the sheet and must have exactly the paths that were wanted. Contents then go into it like any replacement, and both
/// changes become one plan.
class SheetContainer::Entries {
public:
    Entries(const SheetContainer& c, ByteSpan file, ByteSpan image, const Changes& changes, const ReadLimits& limits);
    Result<WritePlan> plan();
    /// Why a sheet's tables cannot change; empty when they can.
    [[nodiscard]] static std::string why_fixed(const SheetContainer& c);

private:
    struct Record {
        Bytes bytes;
        std::optional<std::size_t> entry;  ///< of the archive as it is; of a new one, that it is like
        std::optional<std::string> path;   ///< it gets
        std::string shows;                 ///< the path it has afterwards; empty for markers and deleted ones
        bool fresh = false;
        std::optional<std::uint64_t> data_at;  ///< where its data moved
        std::uint64_t old_at = 0;              ///< in the image
        std::size_t name = 0;                  ///< its name in the old table, where names are in order
    };
    /// A table that is written anew.
    struct Section {
        std::uint64_t at = 0, end = 0;  ///< as it is
        std::uint64_t to = 0;           ///< where it goes
        std::uint64_t size = 0;         ///< bytes it has then
        const Place* place = nullptr;
    };

    Status read_records();
    /// Those that stay, in their order, then or between them the new ones.
    Status choose_records();
    /// What all records rise by.
    enum class Order { none, by_hash, by_path, by_lower_path };
    using Key = std::pair<std::uint64_t, std::string>;
    [[nodiscard]] Order order_of() const;
    [[nodiscard]] Key key_of(const Record& record, Order order) const;
    Status give_path(Record& record, const std::string& path);
    Status put_text(Record& record, Meaning meaning, const std::string& text);
    Status put_number(Record& record, const FieldValue& value, std::uint64_t number) const;
    Result<RecordValues> values_of(const Record& record) const;
    Status write_names();
    Result<Bytes> name_bytes(const std::string& name) const;
    /// Behind the end of the name at `at` of the table; more than its size where it does not end.
    std::uint64_t name_end(ByteSpan names, std::uint64_t at) const;

    /// Where nothing but tables lies from the first of these on, they are laid out anew up to the file's end. Says false where that is not
    /// so.
    Result<bool> lay_out_tail(const std::vector<Section*>& sections);
    /// Finds a place for a table elsewhere.
    Status find_place(Section& section);
    /// Only for one whose place a header field says.
    void move_to_end(Section& section);
    [[nodiscard]] bool may_go_to_end(const Section& section) const;
    /// What entries have behind the table goes to the end of the file.
    Status clear_the_way(const Section& section);
    /// Bytes behind `at` that nothing uses.
    Result<std::uint64_t> room_behind(std::uint64_t at) const;
    [[nodiscard]] std::uint64_t moved(std::uint64_t at) const;
    Status write_records();
    Status write_header();
    Status write_sums();
    [[nodiscard]] tl::unexpected<Error> not_enough(const std::string& what) const;
    /// The archive as it would be; an error where it would not have exactly the paths that were wanted.
    Result<std::unique_ptr<SheetContainer>> opened(const FileView& view) const;
    /// The data of every entry is where it was, or where it was moved to.
    Status check_data(const SheetContainer& after) const;
    Status blank_what_went();

    const SheetContainer& c_;
    const Sheet& sheet_;
    const Changes& changes_;
    const ReadLimits& limits_;
    ByteSpan file_, image_;
    Patched new_;
    Bytes plain_table_;  ///< where tables are encrypted: as they are read
    std::vector<Record> old_, records_;
    Bytes closing_;  ///< a record that ends the others
    Section table_, names_;
    Bytes names_bytes_;
    std::map<std::filesystem::path, std::pair<FileView, Patched>> others_;  ///< data files in which something went
    std::map<std::string, std::uint64_t> given_;                            ///< header fields and what they say now
    std::map<std::uint64_t, std::uint64_t> data_moved_;                     ///< old place of data to its new one
    /// From this old position on everything lies so much later (modulo 2^64); where the tail was laid out anew.
    std::vector<std::pair<std::uint64_t, std::uint64_t>> moves_;
};

}  // namespace skivet
