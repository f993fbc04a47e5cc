#include "mesh/vertex_table.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>
#include <unordered_map>

#include "base/phrase.h"
#include "base/text.h"

namespace skivet {
namespace {

constexpr std::string_view field_names[vertex_field_count] = {"-",        "number", "x", "y",   "z",     "normal x", "normal y",
                                                              "normal z", "u",      "v", "red", "green", "blue",     "alpha"};
constexpr std::size_t most_columns = 256, most_cells = 300'000'000;

std::string_view trimmed(std::string_view text) {
    const auto blank = [](char c) { return c == ' ' || c == '\t' || c == '\r'; };
    while (!text.empty() && blank(text.front())) text.remove_prefix(1);
    while (!text.empty() && blank(text.back())) text.remove_suffix(1);
    return text;
}

/// Takes one value off a row; quotes are kept inside where they are doubled.
std::string_view next_cell(std::string_view& row, char separator) {
    std::size_t at = 0;
    bool quoted = false;
    for (; at < row.size() && (quoted || row[at] != separator); ++at)
        if (row[at] == '"') quoted = !quoted;
    auto cell = trimmed(row.substr(0, at));
    row = at < row.size() ? row.substr(at + 1) : std::string_view();
    if (cell.size() >= 2 && cell.front() == '"' && cell.back() == '"') cell = trimmed(cell.substr(1, cell.size() - 2));
    return cell;
}

std::optional<float> number_in(std::string_view cell, bool comma) {
    std::string with_point;
    if (comma && cell.find(',') != std::string_view::npos) {
        with_point = cell;
        std::replace(with_point.begin(), with_point.end(), ',', '.');
        cell = with_point;
    }
    if (!cell.empty() && cell.front() == '+') cell.remove_prefix(1);
    float value = 0;
    const auto [end, wrong] = std::from_chars(cell.data(), cell.data() + cell.size(), value);
    if (wrong == std::errc::result_out_of_range && end == cell.data() + cell.size()) return 0.0f;  // closer to zero than floats are
    if (wrong != std::errc() || end != cell.data() + cell.size() || !std::isfinite(value)) return std::nullopt;
    return value;
}

/// A column's name as words and what stands behind: "TEXCOORD0.x" is "texcoord", 0 and 'x'.
struct NameParts {
    std::string base;
    int number = -1;
    char component = 0;
};
NameParts parts_of(std::string_view name) {
    NameParts out;
    auto text = lower(name);
    std::erase_if(text, [](char c) { return c == ' ' || c == '"' || c == ']' || c == ')'; });
    constexpr std::string_view letters = "xyzwuvstrgba", breaks = "._[(:-";
    const auto is_break = [&](char c) { return breaks.find(c) != std::string_view::npos; };
    if (text.empty()) return out;
    if (text.size() == 1) {
        out.component = text[0];
        return out;
    }
    // Behind a break a letter or a digit is a component, and a letter behind a word that is one of those below.
    if (text.size() > 2 && is_break(text[text.size() - 2])) {
        const char c = text.back();
        if (letters.find(c) != std::string_view::npos || (c >= '0' && c <= '3')) {
            out.component = c;
            text.resize(text.size() - 2);
        }
    } else if (text.size() == 2 && (text[0] == 'n' || text[0] == 'p' || text[0] == 't' || text[0] == 'c') &&
               letters.find(text[1]) != std::string_view::npos) {
        out.component = text[1];
        text.resize(1);
    } else if (letters.find(text.back()) != std::string_view::npos) {
        for (const std::string_view word :
             {"position", "pos", "normal", "norm", "texcoord", "color", "colour", "col", "coord", "vertex", "vert"})
            if (text.size() == word.size() + 1 && text.starts_with(word)) {
                out.component = text.back();
                text.pop_back();
                break;
            }
    }
    while (!text.empty() && is_break(text.back())) text.pop_back();
    std::size_t digits = text.size();
    while (digits > 0 && text[digits - 1] >= '0' && text[digits - 1] <= '9') --digits;
    if (digits < text.size() && text.size() - digits <= 2) {
        out.number = std::stoi(text.substr(digits));
        text.resize(digits);
    }
    while (!text.empty() && is_break(text.back())) text.pop_back();
    out.base = text;
    return out;
}

enum class Thing { none, place, normal, uv, color, number };
Thing thing_of(const std::string& base) {
    const auto has = [&](std::initializer_list<std::string_view> words) {
        return std::any_of(words.begin(), words.end(), [&](std::string_view w) { return base.find(w) != std::string::npos; });
    };
    const auto is = [&](std::initializer_list<std::string_view> words) {
        return std::find(words.begin(), words.end(), base) != words.end();
    };
    if (has({"tangent", "weight", "bone", "joint", "blend"})) return Thing::none;
    if (has({"normal"}) || is({"n", "norm"})) return Thing::normal;
    if (has({"texcoord", "tex_coord", "texture", "uv"}) || is({"t", "tc", "st", "tex"})) return Thing::uv;
    if (has({"color", "colour", "rgb", "bgr"}) || is({"c", "col", "diffuse"})) return Thing::color;
    if (has({"position"}) || is({"p", "pos", "vertex", "vert", "location", "coord", "coordinate"})) return Thing::place;
    if (has({"index"}) || is({"idx", "indices", "vertexid", "vertex_id"})) return Thing::number;
    return Thing::none;
}

/// 0 to 3; -1: none.
int place_of(char component) {
    for (const std::string_view letters : {"xyzw", "rgba", "uv", "st", "0123"})
        if (const auto at = letters.find(component); component != 0 && at != std::string_view::npos) return static_cast<int>(at);
    return -1;
}

}  // namespace

std::string_view name_of(VertexField field) { return field_names[static_cast<std::size_t>(field)]; }

std::optional<VertexField> vertex_field_named(std::string_view name) {
    for (std::size_t i = 0; i < vertex_field_count; ++i)
        if (field_names[i] == name) return static_cast<VertexField>(i);
    return std::nullopt;
}

Result<VertexTable> read_vertex_table(ByteSpan bytes, const MeshLimits& limits, const CancelToken& cancel) {
    if (bytes.size() > limits.file_bytes)
        return fail(ErrorCode::limit, phrase("{} of mesh, more than {}", human_bytes(bytes.size()), human_bytes(limits.file_bytes)));
    std::string_view text(reinterpret_cast<const char*>(bytes.data()), bytes.size());
    if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
    const auto next_row = [&] {
        const auto end = std::min(text.find('\n'), text.size());
        auto row = text.substr(0, end);
        text.remove_prefix(std::min(end + 1, text.size()));
        if (!row.empty() && row.back() == '\r') row.remove_suffix(1);
        return row;
    };
    std::string_view header;
    while (!text.empty() && trimmed(header).empty()) header = next_row();
    char separator = ',';
    for (const char c : {';', '\t'})
        if (std::count(header.begin(), header.end(), c) > std::count(header.begin(), header.end(), separator)) separator = c;
    VertexTable out;
    for (auto rest = header; !rest.empty();) {
        if (out.columns.size() == most_columns) return fail(ErrorCode::limit, phrase("more than {} columns", most_columns));
        const auto name = next_cell(rest, separator);
        if (name.size() > limits.name_bytes) return fail(ErrorCode::limit, phrase("a name of {} bytes", grouped(name.size())));
        out.columns.push_back({std::string(name), true, {}, 0, 0, 0, {}});
    }
    const bool any_name = std::any_of(out.columns.begin(), out.columns.end(),
                                      [](const TableColumn& c) { return !c.name.empty() && !number_in(c.name, true); });
    if (out.columns.size() < 3 || !any_name)
        return fail(ErrorCode::unsupported, "this is no table of vertices: its first row has no names of columns",
                    "The first row names them, as x,y,z,u,v");
    std::size_t row_number = 0;
    while (!text.empty()) {
        auto row = next_row();
        if (trimmed(row).empty()) continue;
        if (++row_number % 4096 == 0) SKIVET_CHECK(cancel.check());
        if (out.rows == limits.vertices || (out.rows + 1) * out.columns.size() > most_cells)
            return fail(ErrorCode::limit, phrase("more than {} rows", grouped(out.rows)));
        for (std::size_t c = 0; c < out.columns.size(); ++c) {
            auto& column = out.columns[c];
            if (row.empty() && c > 0 && column.is_numbers)
                return fail(ErrorCode::damaged,
                            phrase("row {} has {} values, the header {} names", grouped(row_number), c, out.columns.size()));
            const auto cell = next_cell(row, separator);
            if (!column.is_numbers) continue;
            const auto value = number_in(cell, separator == ';');
            if (!value) {
                column.is_numbers = false;
                column.not_a_number = std::string(cell.substr(0, 40));
                column.bad_row = row_number;
                column.values = {};
                continue;
            }
            column.low = column.values.empty() ? *value : std::min(column.low, *value);
            column.high = column.values.empty() ? *value : std::max(column.high, *value);
            column.values.push_back(*value);
        }
        ++out.rows;
    }
    if (out.rows == 0) return fail(ErrorCode::unsupported, "there are no vertices in this table");
    return out;
}

std::string columns_key(const VertexTable& table) {
    std::string out;
    for (const auto& column : table.columns) out += column.name + '\n';
    return out;
}

bool is_table_path(std::string_view path) {
    const auto name = lower(path);
    return name.ends_with(".csv") || name.ends_with(".tsv");
}

TableReading proposed_reading(const VertexTable& table) {
    TableReading out;
    out.columns.resize(table.columns.size());
    std::vector<NameParts> parts;
    std::vector<Thing> things;
    for (const auto& column : table.columns) {
        parts.push_back(parts_of(column.name));
        things.push_back(column.is_numbers ? thing_of(parts.back().base) : Thing::none);
    }
    std::array<bool, vertex_field_count> taken = {};
    const auto take = [&](std::size_t c, VertexField field, std::uint32_t set = 0) {
        if (field == VertexField::u || field == VertexField::v) {
            for (const auto& other : out.columns)
                if (other == ColumnMeaning{field, set}) return;
        } else if (std::exchange(taken[static_cast<std::size_t>(field)], true)) {
            return;  // the first of its kind counts: "position" before "previous position"
        }
        out.columns[c] = {field, set};
    };
    const auto nth = [](VertexField first, int n) { return static_cast<VertexField>(static_cast<int>(first) + n); };
    std::map<std::pair<std::string, int>, std::uint32_t> sets;
    std::map<std::pair<std::string, int>, int> seen;  // components of one thing that have no name of their own
    for (std::size_t c = 0; c < table.columns.size(); ++c) {
        if (!table.columns[c].is_numbers) continue;
        const auto& name = parts[c];
        int place = place_of(name.component);
        if (things[c] != Thing::none && things[c] != Thing::number && place < 0) place = seen[{name.base, name.number}]++;
        switch (things[c]) {
            case Thing::place:
                if (place >= 0 && place < 3) take(c, nth(VertexField::x, place));
                break;
            case Thing::normal:
                if (place >= 0 && place < 3) take(c, nth(VertexField::normal_x, place));
                break;
            case Thing::uv: {
                const auto set = sets.emplace(std::pair{name.base, name.number}, static_cast<std::uint32_t>(sets.size())).first->second;
                if (place >= 0 && place < 2) take(c, nth(VertexField::u, place), set);
                break;
            }
            case Thing::color: {
                // Letters of colors say it themselves; of others the name may.
                const bool lettered = name.component == 'r' || name.component == 'g' || name.component == 'b' || name.component == 'a';
                if (!lettered && name.base.find("bgr") != std::string::npos && place < 3) place = 2 - place;
                if (place >= 0 && place < 4) take(c, nth(VertexField::red, place));
                break;
            }
            case Thing::number: take(c, VertexField::number); break;
            case Thing::none:
                if (!name.base.empty() || name.component == 0) break;
                switch (name.component) {
                    case 'x': take(c, VertexField::x); break;
                    case 'y': take(c, VertexField::y); break;
                    case 'z': take(c, VertexField::z); break;
                    case 'u':
                    case 's': take(c, VertexField::u); break;
                    case 'v':
                    case 't': take(c, VertexField::v); break;
                    case 'r': take(c, VertexField::red); break;
                    case 'g': take(c, VertexField::green); break;
                    case 'b': take(c, VertexField::blue); break;
                    case 'a': take(c, VertexField::alpha); break;
                    default: break;
                }
        }
    }
    return out;
}

Result<Mesh> mesh_of(const VertexTable& table, const TableReading& reading, std::string name) {
    std::array<const TableColumn*, vertex_field_count> of = {};
    std::map<std::uint32_t, std::array<const TableColumn*, 2>> uvs;
    Mesh out;
    for (std::size_t c = 0; c < table.columns.size(); ++c) {
        const auto& column = table.columns[c];
        const auto meaning = c < reading.columns.size() ? reading.columns[c] : ColumnMeaning{};
        if (!column.is_numbers) {
            out.notes.push_back(phrase("column {} is left out: row {} has \"{}\" there, which is no number", column.name,
                                       grouped(column.bad_row), column.not_a_number));
            continue;
        }
        if (meaning.field == VertexField::none) continue;
        const bool is_uv = meaning.field == VertexField::u || meaning.field == VertexField::v;
        auto& place = is_uv ? uvs[meaning.set][meaning.field == VertexField::v ? 1 : 0] : of[static_cast<std::size_t>(meaning.field)];
        if (place) return fail(ErrorCode::usage, phrase("columns {} and {} are both {}", place->name, column.name, name_of(meaning.field)));
        place = &column;
    }
    const auto at = [&](VertexField field) { return of[static_cast<std::size_t>(field)]; };
    if (!at(VertexField::x) || !at(VertexField::y) || !at(VertexField::z))
        return fail(ErrorCode::usage, "no columns are x, y and z", "Say which columns hold the position");
    MeshPart part;
    part.name = std::move(name);
    std::vector<std::size_t> row_of;  // by vertex
    std::vector<std::uint32_t> vertex_of(table.rows);
    constexpr float most_exact = 1 << 24;  // beyond it different whole numbers are one float
    if (const auto* number = at(VertexField::number); number && number->high < most_exact) {
        std::unordered_map<float, std::uint32_t> known;
        for (std::size_t r = 0; r < table.rows; ++r) {
            const auto [found, is_new] = known.emplace(number->values[r], static_cast<std::uint32_t>(row_of.size()));
            if (is_new) row_of.push_back(r);
            vertex_of[r] = found->second;
        }
    } else {
        row_of.resize(table.rows);
        for (std::size_t r = 0; r < table.rows; ++r) row_of[r] = r, vertex_of[r] = static_cast<std::uint32_t>(r);
    }
    const bool normals = at(VertexField::normal_x) && at(VertexField::normal_y) && at(VertexField::normal_z);
    const bool colors = at(VertexField::red) && at(VertexField::green) && at(VertexField::blue);
    float most_normal = 0, most_color = 0, least_normal = 0;
    if (normals)
        for (const auto f : {VertexField::normal_x, VertexField::normal_y, VertexField::normal_z})
            most_normal = std::max(most_normal, at(f)->high), least_normal = std::min(least_normal, at(f)->low);
    if (colors)
        for (const auto f : {VertexField::red, VertexField::green, VertexField::blue}) most_color = std::max(most_color, at(f)->high);
    if (colors && at(VertexField::alpha)) most_color = std::max(most_color, at(VertexField::alpha)->high);
    const bool byte_colors = most_color > 1.5f, byte_normals = most_normal > 1.5f && least_normal >= 0;
    if (byte_colors)
        out.notes.push_back(
            phrase("colors run to {} and are divided by 255", grouped(static_cast<std::uint64_t>(std::min(most_color, 1e9f)))));
    if (byte_normals) out.notes.push_back(phrase("normals are numbers of 0 to 255"));
    for (const auto r : row_of) {
        part.places.push_back({at(VertexField::x)->values[r], at(VertexField::y)->values[r], at(VertexField::z)->values[r]});
        if (normals) {
            Vec3 n = {at(VertexField::normal_x)->values[r], at(VertexField::normal_y)->values[r], at(VertexField::normal_z)->values[r]};
            if (byte_normals)
                for (auto& v : n) v = v / 127.5f - 1;
            part.normals.push_back(n);
        }
        if (colors) {
            const float unit = byte_colors ? 255 : 1;
            const auto* alpha = at(VertexField::alpha);
            Color4 color = {at(VertexField::red)->values[r] / unit, at(VertexField::green)->values[r] / unit,
                            at(VertexField::blue)->values[r] / unit, alpha ? alpha->values[r] / unit : 1.0f};
            for (auto& v : color) v = std::clamp(v, 0.0f, 1.0f);
            part.colors.push_back(color);
        }
    }
    for (const auto& [set, uv] : uvs) {
        if (!uv[0] || !uv[1] || part.uvs.size() == MeshLimits{}.uv_sets) continue;
        auto& list = part.uvs.emplace_back();
        list.reserve(row_of.size());
        for (const auto r : row_of) list.push_back({uv[0]->values[r], reading.v_up ? 1 - uv[1]->values[r] : uv[1]->values[r]});
    }
    const auto add = [&](std::size_t a, std::size_t b, std::size_t c) {
        const std::array<std::uint32_t, 3> t = {vertex_of[a], vertex_of[b], vertex_of[c]};
        if (t[0] == t[1] || t[1] == t[2] || t[0] == t[2]) return;  // joints of strips
        part.corners.insert(part.corners.end(), t.begin(), t.end());
    };
    if (reading.strip) {
        for (std::size_t r = 2; r < table.rows; ++r) r % 2 == 0 ? add(r - 2, r - 1, r) : add(r - 1, r - 2, r);
    } else {
        for (std::size_t r = 0; r + 2 < table.rows; r += 3) add(r, r + 1, r + 2);
        if (table.rows % 3 != 0) out.notes.push_back(phrase("the last {} rows make no triangle", table.rows % 3));
    }
    if (part.corners.empty()) return fail(ErrorCode::unsupported, "there are no triangles in it");
    out.parts.push_back(std::move(part));
    return out;
}

}  // namespace skivet
