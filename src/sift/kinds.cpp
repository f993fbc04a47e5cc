#include "sift/kinds.h"

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <cstdlib>

#include "codec/codec.h"

namespace skivet {
namespace {

constexpr std::size_t sample_bytes = 32768;

/// A part of [from, to) from its middle, that begins at a multiple of `unit` from `from`.
ByteSpan middle(ByteSpan data, std::uint64_t from, std::uint64_t to, std::size_t unit) {
    const auto size = std::min<std::uint64_t>(to - from, sample_bytes) / unit * unit;
    const auto at = from + (to - from - size) / 2 / unit * unit;
    return data.subspan(static_cast<std::size_t>(at), static_cast<std::size_t>(size));
}

unsigned difference(const Texel& a, const Texel& b, unsigned channels) {
    unsigned sum = 0;
    for (std::size_t c = 0; c < 4; ++c)
        if (channels >> c & 1) sum += static_cast<unsigned>(std::abs(int{a[c]} - int{b[c]}));
    return sum;
}

/// How unlike texels beside and under each other are, beside any two: 0 smooth, 1 random. Blocks by the texels across their edges; about
/// 2,048 cells from the middle are looked at.
double roughness_of_picture(Format format, ByteSpan level, std::size_t width, std::size_t height, unsigned channels = 0xF) {
    if (format == Format::L16) return roughness_of_picture(Format::RG8, level, width, height, 2);
    const auto& f = info(format);
    const std::size_t side = f.block_width, row = width * f.block_bytes;
    constexpr std::size_t most = 2048;
    const auto across = std::min<std::size_t>(width, 64), down = std::min<std::size_t>(height, std::max<std::size_t>(8, most / across));
    const auto left = (width - across) / 2, top = (height - down) / 2;
    Bytes part;
    part.reserve(across * down * f.block_bytes);
    for (auto y = top; y < top + down; ++y) {
        const auto from = level.subspan(y * row + left * f.block_bytes, across * f.block_bytes);
        part.insert(part.end(), from.begin(), from.end());
    }
    const auto image = decode(format, part, static_cast<std::uint32_t>(across * side), static_cast<std::uint32_t>(down * side));
    if (!image) return 1;
    const auto at = [&](std::size_t x, std::size_t y) -> const Texel& {
        return image->at(static_cast<std::uint32_t>(x), static_cast<std::uint32_t>(y));
    };
    const auto w = across * side, h = down * side;
    double near = 0, far = 0;
    std::size_t i = 0;
    for (std::size_t y = side - 1; y < h; y += side)
        for (std::size_t x = side - 1; x < w; x += side) {
            const auto& here = at(x, y);
            near += difference(here, at(std::min(x + 1, w - 1), y), channels) + difference(here, at(x, std::min(y + 1, h - 1)), channels);
            for (unsigned k = 0; k < 2; ++k, ++i) far += difference(here, at((i * 7919 + 31) % w, (i * 104'729 + 17) % h), channels);
        }
    return far > 0 ? near / far : 1;
}

constexpr std::array two_byte_formats = {Format::B5G6R5, Format::B5G5R5A1, Format::BGRA4, Format::RG8, Format::LA8, Format::L16};

/// Alpha as BC3 has it, or as BC2: in which it changes less from texel to texel. Opaque texels are so in only one of them.
Format with_alpha_of(ByteSpan blocks) {
    std::array<double, 2> sums{};
    constexpr std::array formats = {Format::BC3, Format::BC2};
    for (std::size_t k = 0; k < 2; ++k) {
        const auto n = static_cast<std::uint32_t>(blocks.size() / 16);
        const auto image = decode(formats[k], blocks, n * 4, 4);
        if (!image) continue;
        for (std::size_t i = 0; i + 1 < image->texels.size(); ++i)
            sums[k] += std::abs(int{image->texels[i][3]} - int{image->texels[i + 1][3]});
    }
    // Nothing but ones is opaque in both, but nobody writes BC3 so.
    bool ones = true;
    for (std::size_t i = 0; i < blocks.size() && ones; ++i) ones = i % 16 >= 8 || blocks[i] == std::byte{255};
    return ones || sums[1] < sums[0] ? Format::BC2 : Format::BC3;
}

/// Channels that show the picture.
unsigned seen_channels(Format format) { return format == Format::BC2 || format == Format::BC3 || format == Format::BC7 ? 7u : 15u; }

/// How unlike the ends of channel blocks `apart` bytes from each other are, in sum.
std::uint64_t ends_apart(ByteSpan blocks, std::size_t apart) {
    std::uint64_t sum = 0;
    for (std::size_t i = 0; i + apart + 2 <= blocks.size(); i += 8)
        for (const auto k : {i, i + 1})
            sum += static_cast<unsigned>(std::abs(static_cast<int>(blocks[k]) - static_cast<int>(blocks[k + apart])));
    return sum;
}

/// Whether most bytes come three and three alike: grays with red, green and blue.
bool gray_triples(ByteSpan bytes) {
    std::size_t same = 0, count = bytes.size() / 3;
    for (std::size_t i = 0; i < count; ++i) same += bytes[3 * i] == bytes[3 * i + 1] && bytes[3 * i] == bytes[3 * i + 2];
    return same * 4 > count * 3;
}

/// Which of red and blue comes first cannot be seen. Most textures have more red than blue: wood, stone, earth, skin (common practice).
bool blue_first(ByteSpan texels, std::size_t size) {
    std::uint64_t first = 0, third = 0;
    for (std::size_t i = 0; i + size <= texels.size(); i += size) {
        first += static_cast<unsigned>(texels[i]);
        third += static_cast<unsigned>(texels[i + 2]);
    }
    return third > first;
}

struct PaletteFind {
    std::uint64_t at = 0;
    std::uint64_t texels_at = 0;
    Format format = Format::unknown;
    double roughness = 1;  ///< of unequal neighbors in the palette's colors
};

/// A palette right before or behind texels that begin at about `at`, of entries of three or four bytes, under which neighbors are more
/// alike than as numbers. It shows to a byte where they begin, if that is at most `reach` bytes away.
std::optional<PaletteFind> palette_of(ByteSpan data, std::uint64_t at, std::uint64_t end, std::size_t reach) {
    const auto texels = middle(data, at, end, 1);
    // Pairs of unequal neighbors, and of texels far apart, counted once: a palette is then judged by them.
    const auto ratio = [&](const std::byte* palette, std::size_t entry, std::size_t step) {
        std::uint64_t near = 0, far = 0;
        std::size_t steps = 0;
        const auto apart = [&](std::byte a, std::byte b) {
            unsigned sum = 0;
            for (std::size_t c = 0; c < 3; ++c)
                sum += static_cast<unsigned>(std::abs(static_cast<int>(palette[static_cast<std::size_t>(a) * entry + c]) -
                                                      static_cast<int>(palette[static_cast<std::size_t>(b) * entry + c])));
            return sum;
        };
        for (std::size_t i = 0; i + 1 < texels.size(); i += step) {
            if (texels[i] == texels[i + 1]) continue;
            near += apart(texels[i], texels[i + 1]);
            far += apart(texels[i], texels[(i * 7919 + 13) % texels.size()]);
            ++steps;
        }
        return steps < 16 || far == 0 ? 1.0 : static_cast<double>(near) / static_cast<double>(far);
    };
    std::vector<std::pair<double, PaletteFind>> found;
    const auto step = [&](std::size_t pairs) { return std::max<std::size_t>(1, texels.size() / pairs) | 1; };
    const auto coarse = step(96), fine = step(8192);
    const auto look = [&](std::int64_t first, std::int64_t last) {
        for (const std::size_t entry : {4u, 3u})
            for (auto shift = first; shift <= last; ++shift) {
                const auto size = static_cast<std::int64_t>(256 * entry);
                const auto begin = static_cast<std::int64_t>(at) + shift, behind = static_cast<std::int64_t>(end) + shift;
                if (begin < 0) continue;
                for (const auto where : {begin - size, behind}) {
                    if (where < 0 || where + size > static_cast<std::int64_t>(data.size())) continue;
                    const auto r = ratio(data.data() + where, entry, coarse);
                    if (r < 0.85)
                        found.emplace_back(r, PaletteFind{static_cast<std::uint64_t>(where), static_cast<std::uint64_t>(begin),
                                                          entry == 4 ? Format::RGBA8 : Format::RGB8, r});
                }
            }
    };
    const auto near = static_cast<std::int64_t>(std::min<std::size_t>(reach, 64));
    look(-near, near);
    if (std::none_of(found.begin(), found.end(), [](const auto& f) { return f.first < 0.6; })) {
        look(-static_cast<std::int64_t>(reach), -near - 1);
        look(near + 1, static_cast<std::int64_t>(reach));
    }
    const auto kept = std::min<std::size_t>(found.size(), 12);
    const auto less = [](const auto& a, const auto& b) { return a.first < b.first; };
    std::partial_sort(found.begin(), found.begin() + static_cast<std::ptrdiff_t>(kept), found.end(), less);
    found.resize(kept);
    for (auto& f : found) f.first = f.second.roughness = ratio(data.data() + f.second.at, f.second.format == Format::RGBA8 ? 4 : 3, fine);
    const auto best = std::min_element(found.begin(), found.end(), less);
    if (best == found.end() || best->first > 0.8) return std::nullopt;
    return best->second;
}

/// How alike unequal neighbors are as numbers, beside any two.
double roughness_of_numbers(ByteSpan texels) {
    double near = 0, far = 0;
    for (std::size_t i = 0; i + 1 < texels.size(); ++i) {
        if (texels[i] == texels[i + 1]) continue;
        near += std::abs(static_cast<int>(texels[i]) - static_cast<int>(texels[i + 1]));
        far += std::abs(static_cast<int>(texels[i]) - static_cast<int>(texels[(i * 7919 + 13) % texels.size()]));
    }
    return far > 0 ? near / far : 1;
}

std::size_t cells_of_tile(std::size_t bytes) { return bytes >= 8 ? 48 : bytes == 1 ? 512 : 192; }

}  // namespace

std::size_t kind_bytes(BareKind kind) {
    switch (kind) {
        case BareKind::bc1:
        case BareKind::bc4: return 8;
        case BareKind::four_bytes: return 4;
        case BareKind::three_bytes: return 3;
        case BareKind::two_bytes: return 2;
        case BareKind::one_byte:
        case BareKind::numbers: return 1;
        default: return 16;
    }
}

Format kind_format(BareKind kind) {
    switch (kind) {
        case BareKind::bc1: return Format::BC1;
        case BareKind::bc2_bc3: return Format::BC3;
        case BareKind::bc4: return Format::BC4;
        case BareKind::bc5: return Format::BC5;
        case BareKind::bc6h: return Format::BC6H;
        case BareKind::bc7: return Format::BC7;
        case BareKind::four_bytes: return Format::RGBA8;
        case BareKind::three_bytes: return Format::RGB8;
        case BareKind::two_bytes: return Format::B5G6R5;
        case BareKind::one_byte:
        case BareKind::numbers: break;
    }
    return Format::L8;
}

std::optional<double> roughness_along(BareKind kind, unsigned phase, ByteSpan data, std::uint64_t from, std::uint64_t to) {
    const auto bytes = kind_bytes(kind);
    from += (phase + bytes - from % bytes) % bytes;
    const auto cells = cells_of_tile(bytes);
    if (from + cells * bytes > to) return std::nullopt;
    const auto sample = data.subspan(static_cast<std::size_t>(from), cells * bytes);
    double near = 0, far = 0;
    if (bytes == 1) {
        for (std::size_t i = 0; i + 1 < cells; ++i) {
            near += std::abs(static_cast<int>(sample[i]) - static_cast<int>(sample[i + 1]));
            far += std::abs(static_cast<int>(sample[i]) - static_cast<int>(sample[(i * 197 + 31) % cells]));
        }
    } else {
        const auto format = kind_format(kind);
        const auto side = info(format).block_width;
        const auto image = decode(format, sample, static_cast<std::uint32_t>(cells * side), side);
        if (!image) return std::nullopt;
        for (std::uint32_t i = 0; i + 1 < cells; ++i)
            for (std::uint32_t y = 0; y < side; y += 3) {
                const auto& right = image->at((i + 1) * side - 1, y);
                near += difference(right, image->at((i + 1) * side, y), seen_channels(format));
                far += difference(right, image->at(static_cast<std::uint32_t>((i * 197 + 31) % cells) * side, y), seen_channels(format));
            }
    }
    if (far < 2.0 * static_cast<double>(cells)) return std::nullopt;
    // A rough picture says nothing here, but its blocks may.
    if (near > 0.9 * far && bytes >= 8 && member_mean(kind_format(kind), data, from, cells) > 0.6) return 0.9;
    return near / far;
}

unsigned texel_phase(BareKind kind, ByteSpan data, std::uint64_t from, std::uint64_t to) {
    const auto size = kind_bytes(kind);
    const auto sample = middle(data, from, to, 1);
    const auto start = static_cast<std::uint64_t>(sample.data() - data.data());
    std::array<std::uint64_t, 4> along{}, across{};  // to the same byte of the next texel; to the next byte
    for (std::size_t i = 0; i + size < sample.size(); ++i) {
        const auto lane = (start + i) % size;
        along[lane] += static_cast<unsigned>(std::abs(static_cast<int>(sample[i]) - static_cast<int>(sample[i + size])));
        across[lane] += static_cast<unsigned>(std::abs(static_cast<int>(sample[i]) - static_cast<int>(sample[i + 1])));
    }
    if (kind == BareKind::two_bytes) return along[0] < along[1] ? 1u : 0u;  // the upper byte, which changes less, comes second
    if (kind == BareKind::three_bytes)                                      // blue and the next texel's red are the least alike
        return static_cast<unsigned>((std::max_element(across.begin(), across.begin() + 3) - across.begin() + 1) % 3);
    // Alpha comes last. Often it hardly changes; else it is as unlike the byte before as the one behind it.
    auto sorted = along;
    std::sort(sorted.begin(), sorted.end());
    if (sorted[0] * 8 < sorted[1]) return static_cast<unsigned>((std::min_element(along.begin(), along.end()) - along.begin() + 1) % 4);
    std::size_t alpha = 0;
    const auto strange = [&](std::size_t lane) { return across[lane] + across[(lane + 3) % 4]; };
    for (std::size_t lane = 1; lane < 4; ++lane)
        if (strange(lane) > strange(alpha)) alpha = lane;
    return static_cast<unsigned>((alpha + 1) % 4);
}

void make_comparable(std::vector<std::uint8_t>& numbers) {
    constexpr std::size_t part = 1u << 16;  // with a palette of its own, perhaps
    for (std::size_t from = 0; from < numbers.size(); from += part) {
        const auto count = std::min(part, numbers.size() - from);
        std::vector<float> beside(256 * 256);
        std::array<float, 256> degree{};
        for (std::size_t i = from; i + 1 < from + count; ++i) {
            const std::size_t a = numbers[i], b = numbers[i + 1];
            if (a == b) continue;
            beside[a * 256 + b] += 1;
            beside[b * 256 + a] += 1;
            degree[a] += 1;
            degree[b] += 1;
        }
        // Columns are added up, which the compiler does for several at once. Power iteration on (1 + D^-1 A) / 2, whose first eigenvector,
        // all ones, is taken off by the degrees.
        std::array<float, 256> v{}, next{};
        for (std::size_t i = 0; i < 256; ++i) v[i] = static_cast<float>(i * 73 % 256) - 128;
        float total = 0;
        for (const auto d : degree) total += d;
        if (total == 0) continue;
        for (unsigned round = 0; round < 14; ++round) {
            float mean = 0, norm = 0;
            for (std::size_t i = 0; i < 256; ++i) mean += degree[i] * v[i];
            mean /= total;
            for (std::size_t i = 0; i < 256; ++i) norm += degree[i] * (v[i] - mean) * (v[i] - mean);
            const auto scale = norm > 0 ? std::sqrt(total / norm) : 0;
            for (auto& x : v) x = (x - mean) * scale;
            next.fill(0);
            for (std::size_t k = 0; k < 256; ++k) {
                if (degree[k] == 0) continue;
                const auto* column = beside.data() + k * 256;
                for (std::size_t i = 0; i < 256; ++i) next[i] += column[i] * v[k];
            }
            for (std::size_t i = 0; i < 256; ++i)
                if (degree[i] > 0) v[i] = (v[i] + next[i] / degree[i]) / 2;
        }
        // By rank, counted by how often each occurs.
        std::array<std::size_t, 256> order{};
        for (std::size_t i = 0; i < 256; ++i) order[i] = i;
        std::sort(order.begin(), order.end(), [&](auto a, auto b) { return v[a] < v[b]; });
        std::array<std::uint8_t, 256> value{};
        float before = 0;
        for (const auto i : order) {
            value[i] = static_cast<std::uint8_t>(std::min(255.0f, 255 * before / total));
            before += degree[i];
        }
        for (std::size_t i = from; i < from + count; ++i) numbers[i] = value[numbers[i]];
    }
}

std::optional<BareTexture> named(BareKind kind, const Cells& cells, const Fit& fit, ByteSpan data) {
    BareTexture out;
    out.at = cells.at + fit.first * cells.bytes;
    out.size = (fit.end - fit.first) * cells.bytes;
    auto& d = out.desc;
    d.width = static_cast<std::uint32_t>(fit.width * cells.side);
    d.height = static_cast<std::uint32_t>(fit.height * cells.side);
    d.mips = fit.mips;
    out.smallest_first = fit.smallest_first;
    d.format = cells.format;
    const auto top = cells.at + fit.top * cells.bytes, end = top + fit.width * fit.height * cells.bytes;
    const bool blocks = cells.side > 1;
    if (!blocks && fit.beside < 0.1) return std::nullopt;
    if (kind == BareKind::bc2_bc3) d.format = with_alpha_of(middle(data, top, end, 16));
    if (kind == BareKind::four_bytes && blue_first(middle(data, top, end, 4), 4)) d.format = Format::BGRA8;
    if (kind == BareKind::three_bytes && blue_first(middle(data, top, end, 3), 3)) d.format = Format::BGR8;
    const auto level = data.subspan(static_cast<std::size_t>(top), static_cast<std::size_t>(end - top));
    // Of one channel each block is like the one before it, of two like the second before it.
    if (kind == BareKind::bc4 && ends_apart(level, 16) * 5 < ends_apart(level, 8) * 4) return std::nullopt;
    if (kind == BareKind::bc5 && ends_apart(level, 8) * 20 <= ends_apart(level, 16) * 21) return std::nullopt;
    if (kind == BareKind::one_byte && d.width % 3 == 0 && gray_triples(level)) {
        d.format = Format::RGB8;
        d.width /= 3;
        if (d.mips > 1) d.mips = std::min(d.mips, full_mip_count(d.width, d.height));
        std::uint64_t size = 0;
        for (std::uint32_t m = 0; m < d.mips; ++m) size += level_bytes(d.format, mip_side(d.width, m), mip_side(d.height, m));
        if (out.at + size > data.size()) return std::nullopt;
        out.size = size;
    }
    if (kind == BareKind::two_bytes) {
        double least = 2;
        for (const auto format : two_byte_formats) {
            const auto r = roughness_of_picture(format, level, fit.width, fit.height);
            // The commonest of them, unless another is clearly smoother: a part of its range looks smooth in others, too.
            if (const auto weighed = format == Format::B5G6R5 ? 0.75 * r : r; weighed < least) {
                least = weighed;
                d.format = format;
            }
        }
    }
    if (kind == BareKind::numbers) {
        if (fit.likeness < 0.2) return std::nullopt;
        const bool usual = std::has_single_bit(d.width) && std::has_single_bit(d.height);
        const auto palette = palette_of(data, top, end, !usual ? 16 : fit.likeness > 0.5 ? std::min<std::size_t>(600, 4 * d.width) : 64);
        if (!palette || palette->roughness > 0.7 * roughness_of_numbers(middle(data, top, end, 1))) return std::nullopt;
        out.palette_bits = 8;
        out.palette_at = palette->at;
        out.at = palette->texels_at;
        d.format = palette->format;
        out.roughness = palette->roughness;
    }
    if (!out.palette_bits)
        out.roughness =
            roughness_of_picture(d.format, level, kind == BareKind::one_byte && d.format == Format::RGB8 ? fit.width / 3 : fit.width,
                                 fit.height, seen_channels(d.format));
    if (out.roughness > (fit.by_size ? 1.0 : 0.93)) return std::nullopt;
    return out;
}

}  // namespace skivet
