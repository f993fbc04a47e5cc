#pragma once
// Plans writing by a sheet; used by sheet_plan*.cpp only.
#include "container/sheet_gaps.h"

namespace skivet {

class SheetContainer::Planner {
public:
    Planner(const SheetContainer& c, ByteSpan file, ByteSpan image);

    Status add(const Replacement& r, const ReadLimits& limits);

    [[nodiscard]] bool changed() const { return changed_; }

    Result<WritePlan> finish();

    /// Everything moved together.
    void compact() { compact_ = true, changed_ = true; }

private:
    struct Fresh {
        Content stored;
        bool raw = false;
        Content content;                                           ///< the replacement's; of a texture that its record describes its data
        std::vector<std::pair<FieldValue, std::uint64_t>> fields;  ///< of the record, and what they say now
    };

    const SheetContainer& c_;
    const Sheet& sheet_;
    ByteSpan file_, image_;
    std::map<std::uint32_t, std::vector<std::size_t>> by_file_;  ///< entries by data file, in the order they lie in
    std::map<std::size_t, Fresh> fresh_;
    std::vector<Table> stretches_;
    std::map<std::uint64_t, Bytes> plain_;    ///< the patches before the table is encrypted
    std::map<std::uint64_t, Bytes> patches_;  ///< table bytes, at positions of the old image; none overlaps another
    std::vector<std::pair<std::uint64_t, std::uint64_t>>
        moves_;                       ///< own file: from this old position on everything lies so much later (modulo 2^64)
    std::uint64_t table_growth_ = 0;  ///< bytes a packed directory needs beyond its old place, where nothing says where it is
    bool relaid_ = false;             ///< because of it everything is laid out anew, whatever else fits
    std::uint64_t tail_ = 0;
    std::uint64_t growth_ = 0;  ///< of the own file, modulo 2^64
    bool changed_ = false, compact_ = false;

    Status add_entry(const Replacement& r, const ReadLimits& limits);

    /// The first stretch of tables that ends behind `at`.
    [[nodiscard]] std::vector<Table>::const_iterator table_from(std::uint64_t at) const;

    /// Some ciphers depend on where in the file the data lies.
    [[nodiscard]] bool depends_on_place(std::size_t entry) const;
    Status settle_at(std::size_t entry, Fresh& fresh, std::uint64_t at);

    [[nodiscard]] std::uint64_t moved(std::uint64_t at) const;

    Status patch(const FieldValue& value, std::uint64_t number);

    /// The entry's record says where the content now is and what it is.
    Status patch_record(std::size_t entry, std::uint64_t at, const Fresh* fresh);

    /// Bytes an entry may take where it is: its own and its padding; 0 when other entries share its data.
    std::uint64_t room(ByteSpan file, const std::vector<std::size_t>& items, std::size_t place, std::uint64_t file_end) const;

    /// Whether content of another length can lie where the entry is, without moving others.
    [[nodiscard]] bool fits(const Item& item, std::uint64_t size, std::uint64_t space) const;

    /// The plan for one data file; nothing when it does not change.
    Result<std::optional<FilePlan>> lay_out(std::uint32_t number, const std::vector<std::size_t>& items);

    /// Blocks in their order, padding made anew, everything else copied whole, tables behind the data moved.
    Result<std::optional<FilePlan>> lay_out_anew(std::uint32_t number, const FileView& view, const std::vector<std::size_t>& items);

    /// Chunks of the one stream that entries lie in: over the old ones where they fit, at the file's end, or all laid out anew.
    Result<std::optional<FilePlan>> lay_out_chunks();
    struct NewChunk {
        Content stored;
        std::uint64_t size = 0;
        bool raw = false;
    };
    /// Entries whose place in the stream others use, too.
    [[nodiscard]] std::vector<bool> shared_items() const;
    Result<std::map<std::size_t, NewChunk>> new_chunks();
    Result<FilePlan> rebuild_chunks(const std::map<std::size_t, NewChunk>& fresh);
    /// The row of a chunk in a table that is written whole: as the one at `like` was, with this chunk's numbers.
    Status fill_row(Bytes& table, std::size_t row, std::size_t like, std::uint64_t at, const Chunk& chunk) const;
    Status patch_chunk(std::size_t index, std::uint64_t at, const NewChunk& chunk);

    /// Packs a directory that is packed, and finds it a place. Says false when it needs `table_growth_` more bytes where it is.
    Result<bool> pack_table(FilePlan& plan);

    /// Data in one stream cut into parts: only content that fits where the old one is.
    Result<WritePlan> plan_parts();

    /// Header fields, checksums and encryption of the tables, then all patches into the plan of the own file.
    Result<bool> write_tables(FilePlan& plan);

    /// Sizes of the file and of its data, in the header.
    Status patch_sizes();
    /// Checksums of the header: those whose range `which` accepts; one over several ranges counts as of the header, if that is among them,
    /// otherwise as of its first.
    Status patch_sums(bool (*which)(Over));

    [[nodiscard]] static Error unexplained_between(std::uint64_t at);

    [[nodiscard]] bool is_place(const Field& field) const;

    /// The patches go into the plan at the places their bytes have afterwards: into a range or new piece that covers them, else as
    /// ranges or pieces of their own. One walk, whatever their number.
    void put_patches(FilePlan& plan) const;
};

}  // namespace skivet
