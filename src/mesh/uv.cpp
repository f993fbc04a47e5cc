#include "mesh/uv.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <limits>
#include <numeric>
#include <unordered_map>

namespace skivet {
namespace {

constexpr std::uint32_t grid_side = 1024;
/// Rows and cells looked at in all: islands that go on for thousands of repetitions end there.
constexpr std::uint64_t most_cells = 1ull << 26;

/// A vertex by where it is on the thing and on the texture; files repeat vertices where a normal or a material changes.
struct Corner {
    Vec3 place;
    Vec2 uv;
    bool operator==(const Corner&) const = default;
};
struct CornerHash {
    std::size_t operator()(const Corner& c) const {
        std::uint64_t out = 0xcbf29ce484222325ull;
        for (const float v : {c.place[0], c.place[1], c.place[2], c.uv[0], c.uv[1]}) {
            std::uint32_t bits = 0;
            const float even = v + 0.0f;  // -0 is 0
            std::memcpy(&bits, &even, 4);
            out = (out ^ bits) * 0x9E3779B97F4A7C15ull;
            out ^= out >> 29;
        }
        return static_cast<std::size_t>(out);
    }
};

class Union {
public:
    explicit Union(std::size_t count) : above_(count) { std::iota(above_.begin(), above_.end(), 0u); }
    std::uint32_t top(std::uint32_t i) {
        while (above_[i] != i) i = above_[i] = above_[above_[i]];
        return i;
    }
    void join(std::uint32_t a, std::uint32_t b) { above_[std::max(top(a), top(b))] = std::min(top(a), top(b)); }

private:
    std::vector<std::uint32_t> above_;
};

/// Twice the signed area (shoelace formula).
double twice_area(const std::array<Vec2, 3>& at) {
    const double ax = double{at[1][0]} - at[0][0], ay = double{at[1][1]} - at[0][1], bx = double{at[2][0]} - at[0][0],
                 by = double{at[2][1]} - at[0][1];
    return ax * by - ay * bx;
}

std::array<double, 3> cross_of(const Vec3& a, const Vec3& b, const Vec3& c) {
    const std::array<double, 3> u = {double{b[0]} - a[0], double{b[1]} - a[1], double{b[2]} - a[2]},
                                v = {double{c[0]} - a[0], double{c[1]} - a[1], double{c[2]} - a[2]};
    return {u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]};
}

struct Cells {
    std::uint32_t width = 0, height = 0;
    std::vector<std::uint32_t> island;  ///< 0: none, otherwise one more than its number
    std::vector<bool> twice;
};

/// Marks the cells whose middle lies in the triangle; an edge belongs to one of its two sides.
template <class Mark>
bool fill(const std::array<Vec2, 3>& at, std::uint32_t width, std::uint32_t height, std::uint64_t& left, const Mark& mark) {
    double area = twice_area(at);
    if (area == 0) return true;
    std::array<std::array<double, 2>, 3> p{};
    for (std::size_t i = 0; i < 3; ++i) p[i] = {double{at[i][0]} * width - 0.5, double{at[i][1]} * height - 0.5};
    if (area < 0) std::swap(p[1], p[2]);
    const auto low_y = std::ceil(std::min({p[0][1], p[1][1], p[2][1]})), high_y = std::floor(std::max({p[0][1], p[1][1], p[2][1]}));
    if (!(high_y - low_y + 1 < static_cast<double>(left))) return false;
    if (high_y >= low_y) left -= static_cast<std::uint64_t>(high_y - low_y + 1);  // rows without a cell are looked at, too
    for (double y = low_y; y <= high_y; ++y) {
        double from = -std::numeric_limits<double>::infinity(), to = std::numeric_limits<double>::infinity();
        for (std::size_t i = 0; i < 3; ++i) {
            const auto &a = p[i], &b = p[(i + 1) % 3];
            const double dx = b[0] - a[0], dy = b[1] - a[1];
            // Inside where dx (y - ay) - dy (x - ax) is positive, or zero on an edge that goes down or runs left.
            const double at_x = dy == 0 ? 0 : a[0] + dx * (y - a[1]) / dy;
            if (dy > 0) to = std::min(to, at_x);  // x ≤ there
            else if (dy < 0) from = std::max(from, std::nextafter(at_x, std::numeric_limits<double>::infinity()));
            else if (dx * (y - a[1]) < 0 || (y == a[1] && dx < 0)) to = -std::numeric_limits<double>::infinity();
        }
        const double first = std::ceil(from), last = std::floor(to);
        if (!(last >= first)) continue;
        if (!(last - first + 1 < static_cast<double>(left))) return false;
        left -= static_cast<std::uint64_t>(last - first + 1);
        const auto wrap = [](double v, std::uint32_t n) { return static_cast<std::uint32_t>(v - std::floor(v / n) * n) % n; };
        const auto row = std::size_t{wrap(y, height)} * width;
        for (double x = first; x <= last; ++x) mark(row + wrap(x, width));
    }
    return true;
}

/// For every cell the nearest one that an island covers, by two sweeps that hand the nearest on (sequential Euclidean distance mapping,
/// Danielsson 1980); off by less than a cell. Then neighbors with different nearest islands tell how near those are.
void find_gaps(const Cells& cells, UvLayout& layout) {
    const auto w = static_cast<std::int32_t>(cells.width), h = static_cast<std::int32_t>(cells.height);
    constexpr std::int32_t none = -1;
    std::vector<std::int32_t> nearest(cells.island.size(), none);
    for (std::size_t i = 0; i < nearest.size(); ++i)
        if (cells.island[i]) nearest[i] = static_cast<std::int32_t>(i);
    const auto square = [w](std::int32_t a, std::int32_t b) {
        const std::int64_t dx = a % w - b % w, dy = a / w - b / w;
        return dx * dx + dy * dy;
    };
    const auto take = [&](std::int32_t x, std::int32_t y, std::int32_t from_x, std::int32_t from_y) {
        if (from_x < 0 || from_y < 0 || from_x >= w || from_y >= h) return;
        const auto other = nearest[static_cast<std::size_t>(from_y * w + from_x)];
        auto& own = nearest[static_cast<std::size_t>(y * w + x)];
        if (other != none && (own == none || square(other, y * w + x) < square(own, y * w + x))) own = other;
    };
    for (std::int32_t y = 0; y < h; ++y) {
        for (std::int32_t x = 0; x < w; ++x)
            for (const auto& [dx, dy] : {std::pair{-1, 0}, {-1, -1}, {0, -1}, {1, -1}}) take(x, y, x + dx, y + dy);
        for (std::int32_t x = w; x-- > 0;) take(x, y, x + 1, y);
    }
    for (std::int32_t y = h; y-- > 0;) {
        for (std::int32_t x = w; x-- > 0;)
            for (const auto& [dx, dy] : {std::pair{1, 0}, {1, 1}, {0, 1}, {-1, 1}}) take(x, y, x + dx, y + dy);
        for (std::int32_t x = 0; x < w; ++x) take(x, y, x - 1, y);
    }
    const double scale = double{layout.width > 0 ? static_cast<double>(layout.width) / w : 1};
    const auto near = [&](std::int32_t a, std::int32_t b) {
        const auto one = cells.island[static_cast<std::size_t>(a)] - 1, two = cells.island[static_cast<std::size_t>(b)] - 1;
        const auto gap = static_cast<float>(std::max(0.0, std::sqrt(static_cast<double>(square(a, b))) - 1) * scale);
        for (const auto i : {one, two}) {
            auto& own = layout.islands[i].gap;
            if (!own || gap < *own) own = gap;
        }
    };
    for (std::int32_t y = 0; y < h; ++y)
        for (std::int32_t x = 0; x < w; ++x) {
            const auto own = nearest[static_cast<std::size_t>(y * w + x)];
            if (own == none || cells.twice[static_cast<std::size_t>(own)]) continue;
            for (const auto& [dx, dy] : {std::pair{1, 0}, {0, 1}, {1, 1}, {1, -1}}) {
                if (x + dx >= w || y + dy >= h || y + dy < 0) continue;
                const auto other = nearest[static_cast<std::size_t>((y + dy) * w + x + dx)];
                if (other == none || cells.twice[static_cast<std::size_t>(other)]) continue;
                if (cells.island[static_cast<std::size_t>(own)] != cells.island[static_cast<std::size_t>(other)]) near(own, other);
            }
        }
}

}  // namespace

double UvIsland::density(std::uint32_t width, std::uint32_t height) const {
    return surface > 0 ? std::sqrt(area * width * height / surface) : 0;
}

std::vector<std::uint32_t> UvLayout::at(Vec2 uv) const {
    constexpr float most_repeats = 16;  // further ones are not looked for
    const auto holds = [&](const UvIsland& island, const Vec2& there) {
        if (there[0] < island.low[0] || there[0] > island.high[0] || there[1] < island.low[1] || there[1] > island.high[1]) return false;
        return std::any_of(island.triangles.begin(), island.triangles.end(), [&](std::uint32_t t) {
            const auto& at = triangles[t].at;
            const double whole = twice_area(at);
            if (whole == 0) return false;
            const double a = twice_area({there, at[1], at[2]}) / whole, b = twice_area({at[0], there, at[2]}) / whole;
            return a >= 0 && b >= 0 && a + b <= 1;
        });
    };
    std::vector<std::uint32_t> out;
    for (std::uint32_t i = 0; i < islands.size(); ++i) {
        const auto& island = islands[i];
        std::array<float, 2> from = {}, to = {};
        for (std::size_t c = 0; c < 2; ++c) {
            from[c] = std::clamp(std::floor(island.low[c]), -most_repeats, most_repeats);
            to[c] = std::clamp(std::floor(island.high[c]), -most_repeats, most_repeats);
        }
        bool found = false;
        for (float v = from[1]; v <= to[1] && !found; ++v)
            for (float u = from[0]; u <= to[0] && !found; ++u) found = holds(island, {uv[0] + u, uv[1] + v});
        if (found) out.push_back(i);
    }
    return out;
}

std::optional<std::uint32_t> UvLayout::island_of(std::uint32_t part, std::uint32_t triangle) const {
    const std::pair wanted{part, triangle};
    const auto at = std::lower_bound(triangles.begin(), triangles.end(), wanted, [](const UvTriangle& t, const auto& w) {
        return std::pair{t.part, t.triangle} < w;
    });
    if (at == triangles.end() || std::pair{at->part, at->triangle} != wanted) return std::nullopt;
    return at->island;
}

UvLayout uv_layout(const Mesh& mesh, std::span<const std::size_t> parts, std::uint32_t set, std::uint32_t width, std::uint32_t height) {
    UvLayout out;
    out.width = width;
    out.height = height;
    std::vector<std::size_t> all(mesh.parts.size());
    std::iota(all.begin(), all.end(), std::size_t{0});
    if (!parts.empty()) {
        all.assign(parts.begin(), parts.end());
        std::sort(all.begin(), all.end());
    }
    std::vector<double> signs;  // twice the area, positive where the texture is the right way round
    std::unordered_map<Corner, std::uint32_t, CornerHash> numbers;
    std::vector<std::array<std::uint32_t, 3>> welded;
    for (const auto p : all) {
        const auto& part = mesh.parts[p];
        if (part.uvs.size() <= set) {
            out.without_uv += part.triangles();
            continue;
        }
        for (std::uint32_t t = 0; t < part.triangles(); ++t) {
            UvTriangle triangle;
            triangle.part = static_cast<std::uint32_t>(p);
            triangle.triangle = t;
            std::array<std::uint32_t, 3> weld{};
            std::array<Vec3, 3> place{};
            for (std::size_t k = 0; k < 3; ++k) {
                const auto v = part.corners[std::size_t{t} * 3 + k];
                triangle.at[k] = part.uvs[set][v];
                place[k] = part.places[v];
                weld[k] = numbers.emplace(Corner{place[k], triangle.at[k]}, static_cast<std::uint32_t>(numbers.size())).first->second;
            }
            const auto n = cross_of(place[0], place[1], place[2]);
            // With v running down, a triangle that is counterclockwise on the thing is clockwise on its texture.
            double sign = -twice_area(triangle.at);
            if (!part.normals.empty()) {
                // Files whose faces run the wrong way say by their normals where outside is.
                double along = 0;
                for (std::size_t k = 0; k < 3; ++k)
                    for (std::size_t c = 0; c < 3; ++c) along += n[c] * part.normals[part.corners[std::size_t{t} * 3 + k]][c];
                if (along < 0) sign = -sign;
            }
            signs.push_back(sign);
            welded.push_back(weld);
            out.triangles.push_back(triangle);
        }
    }
    Union islands(out.triangles.size());
    std::unordered_map<std::uint64_t, std::uint32_t> edges;
    edges.reserve(out.triangles.size() * 2);
    for (std::uint32_t t = 0; t < out.triangles.size(); ++t)
        for (std::size_t k = 0; k < 3; ++k) {
            const auto a = welded[t][k], b = welded[t][(k + 1) % 3];
            const auto edge = std::uint64_t{std::min(a, b)} << 32 | std::max(a, b);
            const auto [found, is_new] = edges.emplace(edge, t);
            if (!is_new) islands.join(found->second, t);
        }
    std::unordered_map<std::uint32_t, std::uint32_t> number;
    std::vector<UvIsland> unsorted;
    std::vector<double> turned;
    for (std::uint32_t t = 0; t < out.triangles.size(); ++t) {
        const auto [found, is_new] = number.emplace(islands.top(t), static_cast<std::uint32_t>(unsorted.size()));
        auto& triangle = out.triangles[t];
        if (is_new) {
            unsorted.emplace_back();
            turned.push_back(0);
            unsorted.back().low = unsorted.back().high = triangle.at[0];
        }
        auto& island = unsorted[found->second];
        island.triangles.push_back(t);
        island.area += std::abs(signs[t]) / 2;
        turned[found->second] += signs[t];
        const auto& part = mesh.parts[triangle.part];
        const auto* corner = &part.corners[std::size_t{triangle.triangle} * 3];
        const auto n = cross_of(part.places[corner[0]], part.places[corner[1]], part.places[corner[2]]);
        island.surface += std::hypot(n[0], n[1], n[2]) / 2;
        for (const auto& at : triangle.at)
            for (std::size_t c = 0; c < 2; ++c) {
                island.low[c] = std::min(island.low[c], at[c]);
                island.high[c] = std::max(island.high[c], at[c]);
            }
    }
    for (std::size_t i = 0; i < unsorted.size(); ++i) {
        unsorted[i].mirrored = turned[i] < 0;
        constexpr float slack = 1e-4f;  // what saving and reading make of 1
        unsorted[i].outside = unsorted[i].low[0] < -slack || unsorted[i].low[1] < -slack || unsorted[i].high[0] > 1 + slack ||
                              unsorted[i].high[1] > 1 + slack;
    }
    std::vector<std::uint32_t> order(unsorted.size());
    std::iota(order.begin(), order.end(), 0u);
    std::stable_sort(order.begin(), order.end(), [&](auto a, auto b) { return unsorted[a].area > unsorted[b].area; });
    for (const auto i : order) {
        for (const auto t : unsorted[i].triangles) out.triangles[t].island = static_cast<std::uint32_t>(out.islands.size());
        out.islands.push_back(std::move(unsorted[i]));
    }
    if (width == 0 || height == 0 || out.triangles.empty()) return out;

    Cells cells;
    cells.width = std::min(width, grid_side);
    cells.height = std::min(height, grid_side);
    cells.island.assign(std::size_t{cells.width} * cells.height, 0);
    cells.twice.assign(cells.island.size(), false);
    std::uint64_t left = most_cells;
    for (const auto& triangle : out.triangles) {
        const auto own = triangle.island + 1;
        const bool done = fill(triangle.at, cells.width, cells.height, left, [&](std::size_t cell) {
            auto& there = cells.island[cell];
            if (there == 0) {
                there = own;
            } else if (there != own) {
                cells.twice[cell] = true;
                out.islands[there - 1].shared = out.islands[own - 1].shared = true;
            }
        });
        if (!done) {
            out.complete = false;
            break;
        }
    }
    std::size_t used = 0, twice = 0;
    for (std::size_t i = 0; i < cells.island.size(); ++i) used += cells.island[i] != 0, twice += cells.twice[i];
    out.used = static_cast<double>(used) / static_cast<double>(cells.island.size());
    out.twice = static_cast<double>(twice) / static_cast<double>(cells.island.size());
    if (out.complete && out.islands.size() > 1) find_gaps(cells, out);
    return out;
}

std::uint32_t bleeding_level(float gap) {
    std::uint32_t level = 0;
    while (level < 31 && std::ldexp(1.0f, static_cast<int>(level)) <= gap) ++level;
    return level;
}

std::vector<UvLine> uv_lines(const UvLayout& layout) {
    struct Edge {
        Vec2 a, b;
        std::uint32_t island, count;
    };
    struct Key {
        Vec2 a, b;
        std::uint32_t island;
        bool operator==(const Key&) const = default;
    };
    struct Hash {
        std::size_t operator()(const Key& k) const {
            const CornerHash hash;
            return hash({{k.a[0], k.a[1], static_cast<float>(k.island)}, k.b});
        }
    };
    std::unordered_map<Key, std::size_t, Hash> known;
    std::vector<Edge> edges;
    for (const auto& triangle : layout.triangles)
        for (std::size_t k = 0; k < 3; ++k) {
            auto a = triangle.at[k], b = triangle.at[(k + 1) % 3];
            if (b < a) std::swap(a, b);
            const auto [found, is_new] = known.emplace(Key{a, b, triangle.island}, edges.size());
            if (is_new) edges.push_back({a, b, triangle.island, 0});
            ++edges[found->second].count;
        }
    std::vector<UvLine> out;
    out.reserve(edges.size());
    const auto moved = [&](Vec2 at, const UvIsland& island) {
        for (std::size_t c = 0; c < 2; ++c) at[c] -= std::floor((island.low[c] + island.high[c]) / 2);
        return at;
    };
    for (const auto& edge : edges) {
        const auto& island = layout.islands[edge.island];
        out.push_back({moved(edge.a, island), moved(edge.b, island), edge.island, edge.count == 1});
    }
    return out;
}

}  // namespace skivet
