#pragma once
// A sheet declares records, where they are, and what each field means. Reading and writing both follow from the meanings; the words
// are documented in docs/sheets.md.
#include <map>
#include <memory>

#include "base/cipher.h"
#include "base/limits.h"
#include "base/lzss.h"
#include "base/pack.h"
#include "base/runs.h"
#include "pixel/format.h"
#include "sheet/sums.h"
#include "tiling/tiling.h"

namespace skivet {

enum class SheetKind { container, texture, wrapper };

enum class FieldType { uint, real, text, bytes, pad };
enum class TextCode { utf8, latin1, cp437, utf16 };

/// What a field stands for. `none`: its bytes are kept as they are.
// clang-format off
enum class Meaning {
    none,
    // container header
    entry_count, table_offset, table_size, table_stored_size, file_size, data_size, folder_count, byte_order,
    // directory record
    path, folder, name, extension, name_offset, name_index, path_hash, data_offset, data_end, size, stored_size, method, file_number, deleted, encrypted,
    record_size,
    // folder record
    first_entry, entries_offset,
    // anywhere
    checksum,
    // texture header
    width, height, depth, mips, layers, faces, format, color, payload_size, row_pitch, block_height, gob_rows,
};
// clang-format on
[[nodiscard]] std::string_view name_of(Meaning meaning);

/// What a checksum is taken over.
enum class Over { unpacked, stored, table, header, file, payload, names, folders };

/// Where something begins.
struct Place {
    enum class From {
        start,
        end,
        field,
        after_header,
        after_record,
        after_folders,
        after_names,
        in_folder,
        behind_record,  ///< data right behind its own record
    } from = From::start;
    std::uint64_t offset = 0;  ///< from the start, or back from the end
    std::string field;         ///< of the header
};

struct Field {
    std::string name;
    FieldType type = FieldType::uint;
    unsigned width = 0;  ///< bytes of a number; of the length prefix when `prefixed`
    bool is_signed = false;
    bool prefixed = false;     ///< text with a length before it
    bool terminated = false;   ///< text that ends at a zero character
    std::string length_field;  ///< text or bytes: the field before it that holds its length
    TextCode code = TextCode::utf8;
    std::uint64_t size = 0;          ///< bytes of fixed text and bytes; alignment of a pad
    std::optional<ByteOrder> order;  ///< other than the sheet's
    Meaning means = Meaning::none;
    std::uint64_t unit = 1;                     ///< the stored number counts steps of this many bytes
    std::int64_t add = 0;                       ///< meant = stored × unit + add
    bool power = false;                         ///< meant = 2 to the power of the stored number
    bool from_field = false;                    ///< an offset counted from where the field stands
    std::uint64_t base = 0;                     ///< an offset counted from here
    std::string base_field;                     ///< … or from what this header field says
    std::optional<Place::From> base_section;    ///< … or from where this section ends
    SumKind sum = SumKind::crc32;               ///< checksums
    std::vector<Over> over = {Over::unpacked};  ///< one after the other
    [[nodiscard]] bool is_over(Over what) const { return over.size() == 1 && over.front() == what; }
    std::map<std::uint64_t, std::string> values;  ///< numbers to names: formats, methods, color spaces, byte orders
    std::optional<unsigned> bit_at;               ///< a part of the number before it: its lowest bit and its bits
    unsigned bit_count = 0;
    int line = 0;  ///< in the sheet, for messages
};

struct RecordType {
    std::vector<Field> fields;
    bool arrays = false;  ///< not records one after the other, but each field's values of all records
    [[nodiscard]] const Field* with(Meaning meaning) const;
    [[nodiscard]] const Field* named(std::string_view name) const;
    /// Bytes every record has, or nothing when that depends on its content.
    [[nodiscard]] std::optional<std::uint64_t> fixed_size() const;
};

/// How many records there are.
struct CountOf {
    enum class By { field, number, to_end, terminator, folders, counted } by = By::field;
    std::uint64_t number = 0;
    std::string field;  ///< of the header; of the record for `terminator`
};

struct NameTable {
    Place at;
    std::string size_field;
    TextCode code = TextCode::utf8;
    unsigned prefix = 0;    ///< bytes of a length before each name; 0: a zero ends it
    bool in_order = false;  ///< the first name is the first record's, and so on
};

struct TreeSpec {
    Place at;
    std::vector<std::string> levels;  ///< "extension", "folder", "name", outermost first
    std::string empty;                ///< what stands for an empty name
};

struct HashSpec {
    HashKind kind = HashKind::crc32;
    std::uint64_t seed = 0, multiplier = 0;
    bool lower = false;
    char slash = '/';
    std::string prefix;
    std::string dictionary;  ///< file of known paths, beside the sheet
};

/// Marker entries that make folders of what lies between them: "{folder}_START". Empty: none.
struct MarkerSpec {
    std::string start, end;
};

/// A packer that the sheet describes by numbers, or a program of the modder's that it only names.
struct PackerSpec {
    enum class Kind { lzss, runs, program } kind = Kind::lzss;
    std::string name;
    LzssSpec lzss;
    RunsSpec runs;
};

/// How data is packed: one of the libraries' packings, or a packer of the sheet's.
struct Method {
    Packing packing = Packing::none;
    const PackerSpec* described = nullptr;  ///< belongs to the sheet
    [[nodiscard]] bool packs() const { return described || packing != Packing::none; }
    [[nodiscard]] std::string_view name() const { return described ? std::string_view(described->name) : name_of(packing); }
};

struct CryptSpec {
    enum class Cipher { aes, xor_key, xor_rolling, swap_2, swap_4, reverse_bits, invert } cipher = Cipher::aes;
    CipherMode mode = CipherMode::cbc;
    std::size_t key_bytes = 16;
    std::string key;            ///< its name in the ring
    std::string key_field;      ///< … or the header field whose bytes it is
    bool from_file = false;     ///< xor: the key's first byte goes with the file's first byte, not with the stretch's own
    Bytes iv;                   ///< fixed
    std::string iv_field;       ///< a `bytes` field of the record
    bool iv_is_number = false;  ///< the entry's number, little-endian
};

[[nodiscard]] constexpr bool wants_key(const CryptSpec& spec) {
    using Cipher = CryptSpec::Cipher;
    return spec.cipher == Cipher::aes || spec.cipher == Cipher::xor_key || spec.cipher == Cipher::xor_rolling;
}

/// Chunks that data is cut into before it is packed. Their sizes stand before each entry's chunks; or a table of their own says where they
/// lie, and all entries are in the one stream they make together.
struct ChunkSpec {
    std::uint64_t size = 0;
    std::string size_field;  ///< of the header
    unsigned width = 4;      ///< bytes of each entry of the table of stored sizes before the chunks
    RecordType table;        ///< fields of one chunk; empty: sizes stand before the chunks
    Place table_at;
    CountOf table_count;
    std::optional<Place> data_at;  ///< where the first chunk lies, where no field says it
    bool high_bit = false;         ///< the highest bit of a size marks a chunk that is stored raw; otherwise its size says so
};

/// Files beside a texture's own that hold some of its levels, the largest that are left.
struct SiblingSpec {
    std::string file;          ///< "{stem}.{mip}": with {mip} (or {mip:2}) one file a level, without one file for all of `levels`
    std::uint64_t levels = 1;  ///< how many
    std::string levels_field;  ///< … or what this header field says
    std::string method;        ///< as the files are packed; empty: they are not
    int level = 0;             ///< to pack with
};

/// Texels that are numbers of palette entries.
struct PaletteSpec {
    unsigned bits = 8;              ///< of a number: 1, 2, 4 or 8
    bool high_first = false;        ///< of several numbers in a byte the first is in the highest bits
    Format format = Format::RGBA8;  ///< of an entry
    std::uint64_t entries = 256;
    std::string entries_field;  ///< … or what this header field says
    Place at{Place::From::after_header, 0, {}};
    std::string file;  ///< "{stem}.pal": it lies in another file of the same folder, from `at` on
    /// What an edit's colors become that the palette does not have. The palette itself is never changed: others may use it.
    enum class Edits { nearest, dithered, exact } edits = Edits::nearest;
};

/// How the texels of a level lie, beside tiling.
struct LevelOrder {
    bool bottom_up = false;  ///< the lowest row first
    bool columns = false;    ///< column after column
    bool planes = false;     ///< all values of one channel, then those of the next
    [[nodiscard]] bool plain() const { return !bottom_up && !columns && !planes; }
};

/// One condition a file must meet to be what the sheet describes.
struct Recognition {
    std::optional<std::int64_t> at;
    Bytes bytes;                                                   ///< at `at`; a negative `at` counts from the end
    std::string name_pattern;                                      ///< glob over the file name
    std::string field;                                             ///< this header field must equal the file's size …
    std::optional<std::pair<std::uint64_t, std::uint64_t>> range;  ///< … or be in this range, both ends included
    std::optional<std::pair<std::uint64_t, std::uint64_t>> size;   ///< of the file, bytes, both ends included
    bool tables_hold = false;                                      ///< container: its tables can be read and explain every byte
    std::vector<Recognition> any;                                  ///< one of these must hold
};

struct Sheet {
    std::string name;
    std::string folder;  ///< where the sheet's file lies
    SheetKind kind = SheetKind::container;
    ByteOrder order = ByteOrder::little;
    std::vector<Recognition> recognize;
    std::int64_t header_at = 0;  ///< negative: from the end
    RecordType header;
    RecordType record;  ///< container: one directory entry
    Place record_at;
    CountOf record_count;
    unsigned counted = 0;  ///< bytes of a count that stands before the records
    /// Where an entry's data ends.
    enum class Ends {
        by_size,      ///< a field says how long it is
        next_record,  ///< where the next record's begins; a last record only says that
        next_offset,  ///< where the next data begins, the last one with the file or the tables behind it
    } ends = Ends::by_size;
    /// Where data begins if no field says it: one after the other from here on, or each behind its record.
    std::optional<Place> data_at;
    /// When data is packed.
    enum class Packed { always, sizes_differ, stored_not_zero } packed = Packed::always;
    MarkerSpec markers;
    std::vector<PackerSpec> packers;
    std::string path_of;  ///< "{folder}/{name}.{extension}"; empty: the field that means "path"
    RecordType folders;
    Place folders_at;
    CountOf folders_count;
    std::optional<NameTable> names;
    std::optional<TreeSpec> tree;
    std::optional<HashSpec> hash;
    std::optional<CryptSpec> crypt;  ///< of the data
    std::optional<CryptSpec> table_crypt;
    std::string table_method;  ///< how the directory is packed; empty: it is not
    int table_level = 0;
    std::optional<ChunkSpec> chunks;
    std::uint64_t align = 1;  ///< container: where entries start; texture: where levels start
    std::byte fill{0};
    std::string method;                           ///< of all entries, where no field says it
    int level = 0;                                ///< to pack with; 0: the library's usual one
    Bytes starts_with, starts_as;                 ///< streams begin with these bytes instead of those their packer writes
    std::string data_file;                        ///< "{stem}.{number:2}"; empty: the same file
    std::uint64_t part_size = 0;                  ///< data files are one stream cut into parts of this size
    bool may_move = true;                         ///< an entry that grew may go to the end
    bool keep_order = false;                      ///< entries stay in the order they lie in
    bool smallest_first = false;                  ///< texture: mip order
    std::map<Meaning, std::uint64_t> constants;   ///< texture: width, height, depth, mips, layers, faces that no field says
    bool all_mips = false;                        ///< texture: levels down to 1 × 1
    std::string constant_format, constant_color;  ///< texture: what no field says
    std::uint32_t smallest_level = 1;             ///< texture: levels whose longer side has fewer texels are not stored
    std::uint32_t together = 0;   ///< texture: levels whose longer side has at most this many texels follow one another without `align`
    std::uint64_t row_align = 1;  ///< texture: what rows of blocks are padded to, in bytes
    std::uint64_t row_pitch = 0;  ///< texture: bytes from one row of blocks of level 0 to the next; 0: as row_align says
    std::string channels;         ///< texture: the order of a texel's channels, "argb"; empty: as the format has it
    std::vector<SiblingSpec> siblings;        ///< texture: the largest levels are in other files
    TilingSpec tiling;                        ///< texture: how each level lies
    LevelOrder level_order;                   ///< texture: …
    std::optional<PaletteSpec> palette;       ///< texture: texels are numbers
    std::shared_ptr<const Sheet> textures;    ///< container: entries are textures that their records describe, as this sheet says
    std::optional<std::uint64_t> payload_at;  ///< texture, wrapper: fixed start; otherwise right behind the header
};

/// The places of entries follow from their order and sizes: none can move alone.
[[nodiscard]] inline bool follows_order(const Sheet& sheet) { return sheet.data_at || sheet.ends != Sheet::Ends::by_size; }
/// Entries lie in one stream of chunks that a table places.
[[nodiscard]] inline bool has_stream(const Sheet& sheet) { return sheet.chunks && !sheet.chunks->table.fields.empty(); }
/// A method by its name, of the libraries or of the sheet.
[[nodiscard]] std::optional<Method> method_named(const Sheet& sheet, std::string_view name);

/// Reads a sheet. Errors carry the line: "fair.toml ▸ line 12: …".
[[nodiscard]] Result<Sheet> parse_sheet(std::string_view toml, std::string_view file_name);

struct FieldValue {
    const Field* field = nullptr;
    std::uint64_t at = 0;      ///< byte position in the data it was read from
    std::uint64_t size = 0;    ///< bytes it takes, length prefix and terminator included
    std::uint64_t number = 0;  ///< what a number means: unit, add and power applied, not yet `base`
    std::string text;          ///< UTF-8; the bytes of a bytes field
};

/// The values of one record, in field order.
struct RecordValues {
    std::vector<FieldValue> values;
    std::uint64_t end = 0;
    [[nodiscard]] const FieldValue* with(Meaning meaning) const;
    [[nodiscard]] const FieldValue* named(std::string_view name) const;
    /// The number with this meaning, or `otherwise` when the record has none.
    [[nodiscard]] std::uint64_t number(Meaning meaning, std::uint64_t otherwise = 0) const;
};

/// Reads one record at byte `at` of `data` into `out`, whose memory is used again.
[[nodiscard]] Status read_record(const RecordType& type, ByteOrder order, ByteSpan data, std::uint64_t at, const ReadLimits& limits,
                                 RecordValues& out);
/// Record `index` of `count` whose fields are arrays, one after the other from byte `at` on.
[[nodiscard]] Status read_array_record(const RecordType& type, ByteOrder order, ByteSpan data, std::uint64_t at, std::uint64_t index,
                                       std::uint64_t count, const ReadLimits& limits, RecordValues& out);
[[nodiscard]] Result<RecordValues> read_record(const Sheet& sheet, const RecordType& type, ByteSpan data, std::uint64_t at,
                                               const ReadLimits& limits);
/// The bytes of a number's field for `number`. Error when it does not fit or is no multiple of the unit. For a bit field the number is
/// put into `old`, the bytes that are there.
[[nodiscard]] Result<Bytes> field_bytes(const Sheet& sheet, const Field& field, std::uint64_t number);
[[nodiscard]] Result<Bytes> field_bytes(const Field& field, ByteOrder order, std::uint64_t number, ByteSpan old);

/// Text as a field has it: without length, end or padding. Error `unfit` for characters its code cannot say.
[[nodiscard]] Result<Bytes> text_bytes(TextCode code, ByteOrder order, std::string_view text);

/// The bytes of a checksum's field over `data`.
[[nodiscard]] Result<Bytes> sum_field_bytes(const Field& field, ByteOrder order, ByteSpan data);
/// What a checksum's field says about `data`; empty when it holds: "CRC-32 is 742bd5e6, the field says 032ce570".
[[nodiscard]] std::string sum_mismatch(const FieldValue& value, ByteSpan data);

/// The header of a file, and the byte order it decides. `file_size` places a header that counts from the end.
struct HeaderRead {
    RecordValues values;
    ByteOrder order = ByteOrder::little;
    std::uint64_t at = 0;
};
[[nodiscard]] Result<HeaderRead> read_header(const Sheet& sheet, ByteSpan file, const ReadLimits& limits);

/// Where a file's size is not known, as of a texture by its beginning; conditions that need it are left to who knows it.
constexpr std::uint64_t unknown_size = ~std::uint64_t{0};
/// How a file was recognized: "8 bytes at 0, and its size field", or nothing when it does not fit.
[[nodiscard]] std::optional<std::string> recognize(const Sheet& sheet, ByteSpan head, std::uint64_t file_size, std::string_view path);

/// The hash a path has in a field of `width` bytes, after the path is written as the sheet says.
[[nodiscard]] std::uint64_t path_hash(const HashSpec& spec, unsigned width, std::string_view path);

/// "BC1", "BC1 srgb", "BC1 linear".
[[nodiscard]] std::optional<std::pair<Format, ColorSpace>> format_and_color(std::string_view text);

/// The name of a number, or an error that says which number the sheet has no name for.
[[nodiscard]] Result<std::string> named_value(const FieldValue& value);
/// The raw number a meant one stands for: what `values` is keyed with.
[[nodiscard]] std::uint64_t raw_number(const Field& field, std::uint64_t number);

}  // namespace skivet
