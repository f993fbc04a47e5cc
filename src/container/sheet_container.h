#pragma once
#include <functional>

#include "container/kinds.h"
#include "sheet/texture_sheet.h"

namespace skivet {

/// An archive whose layout a sheet describes. Reading and writing both follow from the sheet's meanings.
class SheetContainer final : public Container {
public:
    [[nodiscard]] static Result<std::unique_ptr<Container>> open(FileView file, std::shared_ptr<const Sheet> sheet,
                                                                 const ReadContext& context);

    /// The same, as far as it goes: what was listed before the first thing that does not hold, and that.
    [[nodiscard]] static std::pair<std::unique_ptr<SheetContainer>, std::optional<Error>> open_as_far(FileView file,
                                                                                                      std::shared_ptr<const Sheet> sheet,
                                                                                                      const ReadContext& context);

    [[nodiscard]] std::string kind() const override { return sheet_->name; }
    [[nodiscard]] Result<Bytes> unpack_entry(std::size_t entry, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> stored_entry(std::size_t entry, const ReadLimits& limits) const override;
    [[nodiscard]] Result<Bytes> head_of_entry(std::size_t entry, std::size_t count) const override;
    [[nodiscard]] Result<FileView> view_of_entry(std::size_t entry, const ReadLimits& limits) const override;
    [[nodiscard]] Result<WritePlan> plan(std::span<const Replacement> replacements, const ReadLimits& limits) const override;
    [[nodiscard]] std::string fixed_entries() const override;
    [[nodiscard]] Result<WritePlan> plan_compact(const ReadLimits& limits) const override;
    [[nodiscard]] std::uint64_t dead_bytes() const override;
    [[nodiscard]] std::vector<Segment> segments() const override;
    [[nodiscard]] std::vector<std::filesystem::path> other_files() const override;

    /// Whether an entry is a texture that its record describes, shown as a file of a common format.
    [[nodiscard]] bool shows_texture(std::size_t entry) const { return items_[entry].texture; }
    /// What the header says, for `sheet try`.
    [[nodiscard]] const HeaderRead& header() const { return header_; }
    /// The file with its table decrypted.
    [[nodiscard]] Result<ByteSpan> image() const { return image_.bytes(); }
    /// The record of an entry, read again.
    [[nodiscard]] Result<RecordValues> record_of(std::size_t entry) const;
    [[nodiscard]] std::size_t unnamed() const override { return unnamed_.size(); }
    [[nodiscard]] std::optional<std::size_t> unnamed_by(std::string_view path) const override;
    /// Stretches of the file that are tables: header, folders, records, names.
    struct Table {
        std::string_view name;
        std::uint64_t at = 0, end = 0;
    };
    [[nodiscard]] const std::vector<Table>& tables() const { return tables_; }
    /// What the sheet does not explain and no plan may change: the content of gaps without the zeros and fill bytes at their ends, in file
    /// order.
    [[nodiscard]] Result<std::vector<Bytes>> unexplained() const;

protected:
    [[nodiscard]] Result<WritePlan> plan_entries(const Changes& changes, const ReadLimits& limits) const override;

private:
    static constexpr std::uint32_t own_file = ~0u;

    struct Item {
        std::uint64_t record_at = 0;  ///< in the image; which of the values, where records are arrays
        std::uint64_t data_at = 0;    ///< in its data file, or in the stream of parts
        std::uint64_t stored = 0;
        std::uint32_t file = own_file;  ///< number of its data file
        std::optional<Method> method;   ///< nothing: one the sheet has no name for
        bool encrypted = false;
        bool states_size = true;  ///< the unpacked size is known
        bool texture = false;     ///< shown as a file of a common format, see record_texture.h
        bool repeats = false;     ///< lies over bytes of others, which together claim too much
        std::uint64_t size = 0;   ///< bytes of its data, unpacked
    };
    /// Bytes of an entry as they lie in the file.
    struct Stored {
        ByteSpan bytes;
        Bytes owned;                   ///< pieces from several parts
        std::optional<FileView> keep;  ///< the file they lie in
    };
    class Lister;
    class Planner;
    class Entries;
    /// Many names for one content are common; those that together claim too much are not read, but for the first.
    void note_repeats(const ReadLimits& limits);
    /// A file that grows from `had` to `has` bytes: an entry of it that was cut off by its end would take what comes to lie there for its
    /// own. `goes`: it gets other data, or is removed. Error `damaged`.
    [[nodiscard]] Status may_grow(std::uint32_t file, std::uint64_t had, std::uint64_t has,
                                  const std::function<bool(std::size_t)>& goes) const;

    /// Bytes of a file between what the sheet explains. Those that are neither padding nor the place of a deleted entry belong to the game:
    /// nothing writes on them, and they move only as a whole.
    struct Gap {
        std::uint64_t at = 0, end = 0;
        bool blank = false;  ///< nothing but zeros, fill bytes and deleted entries
        bool front = false;  ///< before the first entry
        bool last = false;   ///< up to the end of the file
    };
    [[nodiscard]] Result<std::vector<Gap>> gaps(std::uint32_t file) const;
    [[nodiscard]] bool is_blank(ByteSpan bytes) const;
    [[nodiscard]] bool is_blank(std::uint32_t file, ByteSpan bytes, std::uint64_t at, std::uint64_t end) const;
    /// The padding an entry that ends at `at` has there: zeros or fill bytes up to where the next one may begin, at most up to `end`.
    [[nodiscard]] std::uint64_t padding(ByteSpan file, std::uint64_t at, std::uint64_t end) const;
    /// What entries are aligned to: as the sheet says, or more, where the archive shows more.
    [[nodiscard]] std::uint64_t alignment(std::uint32_t file) const;
    /// Numbers of all data files with entries, the archive's own too.
    [[nodiscard]] std::vector<std::uint32_t> files_used() const;

    /// What a checksum of the header is taken over; nothing for other checksums.
    [[nodiscard]] Result<std::optional<Bytes>> summed(const FieldValue& value, ByteSpan file, ByteSpan image) const;
    [[nodiscard]] Status check_table_sums(ByteSpan file, ByteSpan image) const;
    [[nodiscard]] Result<FileView> data_file(std::uint32_t number) const;
    [[nodiscard]] std::string data_file_name(std::uint32_t number) const;
    [[nodiscard]] Result<std::shared_ptr<const Bytes>> chunk_bytes(std::size_t chunk) const;
    /// Bytes of the stream of chunks.
    [[nodiscard]] Result<Bytes> stream_bytes(std::uint64_t at, std::uint64_t size) const;
    /// Stretches of the file that entries take.
    [[nodiscard]] std::vector<Segment> entry_segments(std::uint32_t file) const;
    [[nodiscard]] Result<Stored> stored_bytes(std::size_t entry) const;
    [[nodiscard]] Result<Bytes> unpack_entry(ByteSpan stored, std::size_t entry, const ReadLimits& limits) const;
    /// An entry as it is stored. `raw`: packing was left out, which the record must say.
    struct Packed {
        Content stored;
        bool raw = false;
    };
    [[nodiscard]] Result<Packed> pack_entry(const Content& content, std::size_t entry, std::uint64_t at) const;
    [[nodiscard]] Result<Bytes> crypt_entry(ByteSpan data, std::size_t entry, std::uint64_t at, bool encrypt) const;
    /// What an entry is shown as, from its unpacked data.
    [[nodiscard]] Result<Bytes> shown(std::size_t entry, Bytes data, const ReadLimits& limits) const;
    [[nodiscard]] Status check_sums(std::size_t entry, ByteSpan stored, ByteSpan unpacked) const;
    [[nodiscard]] Result<Bytes> iv_of(std::size_t entry) const;
    /// Where the record's data offset counts from.
    [[nodiscard]] std::uint64_t base_of(const Field& field, std::uint64_t field_at) const;
    /// Where a section ends, for offsets that count from there.
    [[nodiscard]] std::uint64_t end_of(Place::From section) const;

    FileView file_;
    FileView image_;  ///< the file with its table decrypted; the file itself otherwise
    std::shared_ptr<const Sheet> sheet_;
    std::shared_ptr<const KeyRing> keys_;
    std::shared_ptr<const PackerPrograms> packers_;
    std::shared_ptr<const PastFiles> past_;  ///< null: files as they lie on the disk
    std::vector<std::string> known_paths_;   ///< that hashed names may stand for, beside the sheet's
    HeaderRead header_;
    std::vector<Item> items_;
    std::vector<Table> tables_;
    struct Extent {
        std::uint32_t file = own_file;
        std::uint64_t at = 0, size = 0;
    };
    std::vector<Extent> deleted_;                             ///< data of entries marked deleted
    std::vector<FieldValue> folder_offsets_;                  ///< fields of folders that say where their entries are
    std::unordered_map<std::uint64_t, std::size_t> unnamed_;  ///< entries by the hash their name is known by alone
    std::uint64_t table_at_ = 0;
    std::uint64_t table_end_ = 0;
    std::uint64_t folders_at_ = 0, folders_end_ = 0;
    std::uint64_t names_at_ = 0, names_end_ = 0;
    std::uint64_t packed_at_ = 0, packed_end_ = 0;  ///< a packed directory; the image has it unpacked behind the file's end
    struct Chunk {
        std::uint64_t row_at = 0;           ///< in the image
        std::uint64_t at = 0, stored = 0;   ///< in the file
        std::uint64_t start = 0, size = 0;  ///< in the stream
        bool raw = false;
    };
    std::vector<Chunk> chunks_;  ///< of the one stream that all entries are in
    std::uint64_t chunk_table_at_ = 0, chunk_table_end_ = 0;
    mutable std::map<std::size_t, std::shared_ptr<const Bytes>> unpacked_;  ///< chunks read last
    std::uint64_t array_at_ = 0, array_count_ = 0;                          ///< records that are arrays
    std::optional<SheetTextureKind> textures_;                              ///< of entries that records describe
    std::optional<FieldValue> closing_;                                     ///< of a last record that only says where data ends
    mutable std::mutex mutex_;
    mutable std::map<std::uint32_t, FileView> data_files_;
};

/// What every kind that a sheet describes has in common.
class SheetKindBase : public ContainerKind {
public:
    explicit SheetKindBase(std::shared_ptr<const Sheet> sheet) : sheet_(std::move(sheet)) {}
    [[nodiscard]] std::string name() const override { return sheet_->name; }
    [[nodiscard]] std::vector<std::string> wanted_packers() const override;
    [[nodiscard]] std::optional<Recognized> recognize(ByteSpan head, std::uint64_t file_size, std::string_view path) const override;

protected:
    /// Whether the tables can be read and, with the entries they name, explain every byte of a file.
    [[nodiscard]] bool tables_hold(ByteSpan file) const;
    std::shared_ptr<const Sheet> sheet_;
};

[[nodiscard]] std::shared_ptr<const ContainerKind> sheet_kind(std::shared_ptr<const Sheet> sheet);

/// One file compressed or encrypted as a whole behind a header that a wrapper sheet describes.
[[nodiscard]] std::shared_ptr<const ContainerKind> sheet_wrapper_kind(std::shared_ptr<const Sheet> sheet);
/// What lies where in such a file; gaps are what its sheet does not explain.
[[nodiscard]] Result<std::vector<Segment>> wrapper_segments(std::shared_ptr<const Sheet> sheet, const ReadContext& context, ByteSpan file);

/// Chunks and encryption of a sheet, both ways; shared by containers and wrappers.
namespace sheet_data {
/// What a cipher works with: its key and, for some, an initial vector and where in the file the data begins.
struct CipherInput {
    ByteSpan key = {}, iv = {};
    std::uint64_t at = 0;
};
/// The key a cipher wants: out of the ring, or out of the header.
[[nodiscard]] Result<Bytes> key_for(const CryptSpec& spec, const KeyRing& keys, const RecordValues& header, ByteSpan file);
[[nodiscard]] Result<Bytes> decrypt(const CryptSpec& spec, const CipherInput& input, ByteSpan data);
[[nodiscard]] Result<Bytes> encrypt(const CryptSpec& spec, const CipherInput& input, ByteSpan data);
/// A stream with the bytes at its beginning that its packer knows, and back. Error `damaged` or `unfit` where it begins otherwise.
[[nodiscard]] Result<Bytes> with_known_start(const Sheet& sheet, ByteSpan stream);
[[nodiscard]] Result<Bytes> with_own_start(const Sheet& sheet, Bytes stream);
/// By a method, in chunks where the sheet has them. `size`: unpacked, when it is known. `chunk`: bytes of a chunk, 0 for none.
[[nodiscard]] Result<Bytes> unpack(const Sheet& sheet, ByteOrder order, const Method& method, ByteSpan data,
                                   std::optional<std::uint64_t> size, std::uint64_t chunk, const ReadLimits& limits,
                                   const PackerPrograms& programs);
[[nodiscard]] Result<Bytes> pack(const Sheet& sheet, ByteOrder order, const Method& method, ByteSpan content, std::uint64_t chunk,
                                 ByteSpan like, const PackerPrograms& programs);
/// Bytes of a chunk as the sheet or the header says; 0 when the sheet has none. Error `damaged` for a size the limits refuse.
[[nodiscard]] Result<std::uint64_t> chunk_size(const Sheet& sheet, const RecordValues& header);
}  // namespace sheet_data

}  // namespace skivet
