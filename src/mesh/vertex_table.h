#pragma once
// Tables of vertices as text: a header row with the columns' names, then a row for each corner in the order in which triangles are drawn.
// Programs that look at what a graphics card is given write such tables, each with names of its own.
#include "base/bytes.h"
#include "base/progress.h"
#include "base/result.h"
#include "mesh/mesh.h"

#include <map>
#include <optional>

namespace skivet {

/// What a column holds. The components of one thing stand behind each other.
enum class VertexField : std::uint8_t { none, number, x, y, z, normal_x, normal_y, normal_z, u, v, red, green, blue, alpha };
inline constexpr std::size_t vertex_field_count = 14;
[[nodiscard]] std::string_view name_of(VertexField field);
/// By its name; nothing for what is none.
[[nodiscard]] std::optional<VertexField> vertex_field_named(std::string_view name);

struct TableColumn {
    std::string name;          ///< as the header has it
    bool is_numbers = true;    ///< every value is one; otherwise it has none here
    std::string not_a_number;  ///< the first value that is none, and `bad_row` its row, counted from 1 below the header
    std::size_t bad_row = 0;
    float low = 0, high = 0;
    std::vector<float> values;  ///< one a row
};
struct VertexTable {
    std::vector<TableColumn> columns;
    std::size_t rows = 0;
};
/// Separated by commas, semicolons or tabs, whichever the header has most of; with semicolons numbers may have a comma. Values may stand in
/// double quotes (RFC 4180). Errors: `unsupported` where the header or the rows are none, `damaged` with the row, `limit`, `canceled`.
[[nodiscard]] Result<VertexTable> read_vertex_table(ByteSpan text, const MeshLimits& limits = {}, const CancelToken& cancel = {});

/// Whether a path's ending is that of a table.
[[nodiscard]] bool is_table_path(std::string_view path);

struct ColumnMeaning {
    VertexField field = VertexField::none;
    std::uint32_t set = 0;  ///< of u and v
    bool operator==(const ColumnMeaning&) const = default;
};
/// How a table becomes a mesh: one meaning a column.
struct TableReading {
    std::vector<ColumnMeaning> columns;
    bool v_up = false;   ///< v runs up the texture
    bool strip = false;  ///< each row from the third on makes a triangle with the two before it (a triangle strip)
    bool operator==(const TableReading&) const = default;
};
using TableReadings = std::map<std::string, TableReading>;  ///< by columns_key
/// Tables with the same columns are read the same way: what a reading is kept by.
[[nodiscard]] std::string columns_key(const VertexTable& table);
/// By the columns' names (common practice, no source): words for position, normal, texture coordinates, color and index with x, y, z, u, v,
/// r, g, b, a or a number behind them, or these letters alone. Where a color's components are numbered or lettered x, y, z, a name with
/// "bgr" in it, or the letters' own order, says that blue comes first. Columns that are no numbers get no meaning.
[[nodiscard]] TableReading proposed_reading(const VertexTable& table);
/// Rows with the same number (VertexField::number) are one vertex. Colors whose values go beyond 1 are divided by 255, and so are normals,
/// which then run from -1 to 1. What was left out or divided stands in `notes`. Error `usage` without x, y and z, or where two columns mean
/// the same.
[[nodiscard]] Result<Mesh> mesh_of(const VertexTable& table, const TableReading& reading, std::string name);

}  // namespace skivet
