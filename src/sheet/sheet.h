#pragma once
// A sheet declares records, where they are, and what each field means. Reading and writing both follow from the meanings; the words
// are documented in docs/sheets.md.
#include <map>

#include "base/bytes.h"
#include "base/limits.h"
#include "pixel/format.h"
#include "tiling/tiling.h"

namespace skivet {

enum class SheetKind { container, texture };

enum class FieldType { uint, text, bytes };

/// What a field stands for. `none`: its bytes are kept as they are.
enum class Meaning {
    none,
    // container header
    entry_count, table_offset, table_size, table_crc32, file_size,
    // directory record
    path, data_offset, size, stored_size, method, data_crc32,
    // texture header
    width, height, depth, mips, layers, faces, format, color, payload_size, payload_crc32,
};
[[nodiscard]] std::string_view name_of(Meaning meaning);

struct Field {
    std::string name;
    FieldType type = FieldType::uint;
    unsigned width = 0;                 ///< bytes of an integer; of the length prefix when `prefixed`
    bool prefixed = false;              ///< text with a length before it
    bool terminated = false;            ///< text that ends at a zero byte
    std::uint64_t size = 0;             ///< bytes of fixed text and bytes
    Meaning means = Meaning::none;
    std::uint64_t unit = 1;             ///< the stored number counts steps of this many bytes
    bool of_stored = false;             ///< data_crc32: over the stored bytes instead of the unpacked ones
    std::map<std::uint64_t, std::string> values;  ///< numbers to names: formats, methods, color spaces
    int line = 0;                       ///< in the sheet, for messages
};

struct RecordType {
    std::vector<Field> fields;
    [[nodiscard]] const Field* with(Meaning meaning) const;
};

/// One condition a file must meet to be what the sheet describes.
struct Recognition {
    std::optional<std::uint64_t> at;
    Bytes bytes;                        ///< at `at`
    std::string name_pattern;           ///< glob over the file name
    std::string field;                  ///< this header field must equal the file's size
};

struct Sheet {
    std::string name;
    SheetKind kind = SheetKind::container;
    ByteOrder order = ByteOrder::little;
    std::vector<Recognition> recognize;
    std::uint64_t header_at = 0;
    RecordType header;
    RecordType record;                  ///< container: one directory entry
    std::uint64_t align = 1;            ///< container: where entries start; texture: where levels start
    std::byte fill{0};
    bool smallest_first = false;        ///< texture: mip order
    TilingSpec tiling;                  ///< texture: how each level lies
    std::optional<std::uint64_t> payload_at;  ///< texture: fixed start; otherwise right behind the header
};

/// Reads a sheet. Errors carry the line: "fair.toml ▸ line 12: …".
[[nodiscard]] Result<Sheet> parse_sheet(std::string_view toml, std::string_view file_name);

struct FieldValue {
    const Field* field = nullptr;
    std::uint64_t at = 0;               ///< byte position in the file
    std::uint64_t size = 0;             ///< bytes it takes, length prefix and terminator included
    std::uint64_t number = 0;           ///< integers, times the field's unit
    std::string text;
};

/// The values of one record, in field order.
struct RecordValues {
    std::vector<FieldValue> values;
    std::uint64_t end = 0;
    [[nodiscard]] const FieldValue* with(Meaning meaning) const;
    /// The number with this meaning, or `otherwise` when the record has none.
    [[nodiscard]] std::uint64_t number(Meaning meaning, std::uint64_t otherwise = 0) const;
};

/// Reads one record at byte `at` of `data`.
[[nodiscard]] Result<RecordValues> read_record(const Sheet& sheet, const RecordType& type, ByteSpan data, std::uint64_t at,
                                               const ReadLimits& limits);
/// The bytes of an integer field for `number` (divided by its unit). Error when it does not fit or is no multiple of the unit.
[[nodiscard]] Result<Bytes> field_bytes(const Sheet& sheet, const Field& field, std::uint64_t number);

/// How a file was recognized: "8 bytes at 0, and its size field", or nothing when it does not fit.
[[nodiscard]] std::optional<std::string> recognize(const Sheet& sheet, ByteSpan head, std::uint64_t file_size, std::string_view path);

}  // namespace skivet
