#include "sheet/raw_lens.h"

#include <fmt/format.h>
#include <algorithm>
#include <bit>
#include <cmath>
#include <numeric>

#include "base/phrase.h"
#include "codec/codec.h"
#include "codec/paint_form.h"
#include "sift/cells.h"

namespace skivet {
namespace {

constexpr std::uint32_t widest = 16384;           // texels: what graphics cards take
constexpr std::size_t most_samples = 256u << 10;  // bytes a width is told from

std::uint64_t tight_row(const Lens& lens) {
    if (lens.palette_bits) return (std::uint64_t{lens.width} * lens.palette_bits + 7) / 8;
    const auto& f = info(lens.format);
    return std::uint64_t{(lens.width + f.block_width - 1u) / f.block_width} * f.block_bytes;
}

std::uint32_t texel_rows(const Lens& lens) { return lens.palette_bits ? 1u : info(lens.format).block_height; }

/// The rows as the format has them, without gaps; what is behind the end of `data` is zero.
Result<Bytes> rows_of(const Lens& lens, ByteSpan data, std::uint32_t height) {
    const auto rest = data.subspan(static_cast<std::size_t>(std::min<std::uint64_t>(lens.offset, data.size())));
    if (!lens.palette_bits && lens.tiling.tiling != Tiling::linear) {
        const auto need = tiled_bytes(lens.tiling, lens.format, lens.width, height);
        Bytes tiled(rest.begin(), rest.begin() + static_cast<std::ptrdiff_t>(std::min<std::uint64_t>(rest.size(), need)));
        tiled.resize(static_cast<std::size_t>(need));
        return untile(lens.tiling, lens.format, lens.width, height, tiled);
    }
    const auto row = tight_row(lens), pitch = row_bytes(lens);
    const auto rows = (height + texel_rows(lens) - 1) / texel_rows(lens);
    Bytes out(static_cast<std::size_t>(row * rows));
    for (std::uint64_t y = 0; y < rows; ++y) {
        const auto at = y * pitch;
        if (at >= rest.size()) break;
        const auto count = std::min(row, rest.size() - at);
        std::copy_n(rest.begin() + static_cast<std::ptrdiff_t>(at), count, out.begin() + static_cast<std::ptrdiff_t>(y * row));
    }
    return out;
}

Result<Image> by_palette(const Lens& lens, ByteSpan data, ByteSpan rows, std::uint32_t height) {
    const auto& f = info(lens.format);
    if (f.block_compressed())
        return fail(ErrorCode::unsupported, phrase("the entries of a palette cannot be {}", std::string(f.name)),
                    "Choose an uncompressed format");
    const auto entries = 1u << lens.palette_bits;
    Bytes palette(std::size_t{entries} * f.block_bytes);
    if (lens.palette_at < data.size()) {
        const auto count = std::min<std::uint64_t>(palette.size(), data.size() - lens.palette_at);
        std::copy_n(data.begin() + static_cast<std::ptrdiff_t>(lens.palette_at), count, palette.begin());
    }
    SKIVET_TRY(const auto colors, decode(lens.format, palette, entries, 1));
    const auto painted = paint_form(lens.format, colors);
    Image out(lens.width, height);
    const auto row = tight_row(lens);
    for (std::uint32_t y = 0; y < height; ++y)
        for (std::uint32_t x = 0; x < lens.width; ++x) {
            const auto byte = static_cast<unsigned>(rows[static_cast<std::size_t>(y * row + std::uint64_t{x} * lens.palette_bits / 8)]);
            const auto index = lens.palette_bits == 8 ? byte : x % 2 ? byte >> 4 : byte & 15;
            out.at(x, y) = painted.texels[index];
        }
    return out;
}

/// One number for each texel or block from the offset on: its brightness as far as the bytes show it, so that rows can be compared.
std::vector<std::uint8_t> brightness(const Lens& lens, ByteSpan data) {
    if (lens.offset >= data.size()) return {};
    const auto rest = data.subspan(static_cast<std::size_t>(lens.offset));
    std::vector<std::uint8_t> out;
    if (lens.palette_bits) {  // numbers of a palette are no brightness, but equal ones are equal
        for (std::size_t i = 0; i < rest.size() && out.size() < most_samples; ++i) out.push_back(static_cast<std::uint8_t>(rest[i]));
        return out;
    }
    const auto& f = info(lens.format);
    const auto count = std::min<std::size_t>(rest.size() / f.block_bytes, most_samples);
    if (count == 0) return out;
    // Decoded as one row of blocks; the mean of each is its sample.
    const auto step = std::size_t{4096};
    for (std::size_t first = 0; first < count; first += step) {
        const auto n = std::min(step, count - first);
        const auto image = decode(lens.format, rest.subspan(first * f.block_bytes, n * f.block_bytes),
                                  static_cast<std::uint32_t>(n * f.block_width), f.block_height);
        if (!image) return out;
        for (std::size_t b = 0; b < n; ++b) {
            unsigned sum = 0;
            for (std::uint32_t y = 0; y < f.block_height; ++y)
                for (std::uint32_t x = 0; x < f.block_width; ++x) {
                    const auto& t = image->at(static_cast<std::uint32_t>(b * f.block_width) + x, y);
                    sum += t[0] + 2u * t[1] + t[2] + (f.channels == 1 ? t[3] : 0u);
                }
            out.push_back(static_cast<std::uint8_t>(sum / (4u * f.block_width * f.block_height)));
        }
    }
    return out;
}

double mean_difference(const std::vector<std::uint8_t>& s, std::size_t lag) {
    const auto n = s.size() - lag;
    return static_cast<double>(apart(s.data(), s.data() + lag, n)) / static_cast<double>(n);
}

/// How alike the texels on both sides of an edge between neighboring blocks are, beside two blocks far apart; and how much there is to see.
double neighbors_alike(Format format, ByteSpan data) {
    const auto& f = info(format);
    constexpr std::size_t most_blocks = 8192;  // 128 KB at most
    auto n = std::min<std::size_t>(data.size() / f.block_bytes, most_blocks);
    if (n < 64) return 0;
    const auto image = decode(format, data.first(n * f.block_bytes), static_cast<std::uint32_t>(n * f.block_width), f.block_height);
    if (!image) return 0;
    const auto difference = [&](std::size_t a, std::size_t b) {  // right edge of a, left edge of b
        unsigned sum = 0;
        for (std::uint32_t y = 0; y < f.block_height; ++y) {
            const auto& left = image->at(static_cast<std::uint32_t>((a + 1) * f.block_width - 1), y);
            const auto& right = image->at(static_cast<std::uint32_t>(b * f.block_width), y);
            for (std::size_t c = 0; c < 4; ++c) sum += static_cast<unsigned>(std::abs(int{left[c]} - int{right[c]}));
        }
        return static_cast<double>(sum) / f.block_height;
    };
    double near = 0, far = 0;
    for (std::size_t i = 0; i + 1 < n; ++i) {
        near += difference(i, i + 1);
        far += difference(i, (i * 7919 + n / 3) % n);
    }
    if (far < static_cast<double>(n)) return 0;  // all the same: nothing can be told
    return std::clamp(1 - near / far, 0.0, 1.0);
}

/// What the blocks say of themselves: 1 when they are as encoders write them.
double plausible(Format format, ByteSpan data) {
    const auto* codec = block_codec(format);
    if (!codec || !codec->usual) return 1;
    const std::size_t size = info(format).block_bytes;
    const auto n = std::min<std::size_t>(data.size() / size, 8192);
    std::size_t good = 0;
    for (std::size_t i = 0; i < n; ++i) good += codec->usual(data.data() + i * size);
    return n ? static_cast<double>(good) / static_cast<double>(n) : 0;
}

/// Formats in which the same bytes are the same picture but for the order of its colors: they cannot be told apart.
bool same_but_for_order(const FormatInfo& a, const FormatInfo& b) {
    const auto bits = [](const FormatInfo& f) {
        std::array out = {f.red.bits, f.green.bits, f.blue.bits, f.alpha.bits};
        std::sort(out.begin(), out.end());
        return out;
    };
    return !a.block_compressed() && !b.block_compressed() && a.block_bytes == b.block_bytes && a.numeric == b.numeric && bits(a) == bits(b);
}

}  // namespace

std::uint64_t row_bytes(const Lens& lens) { return lens.pitch > 0 ? lens.pitch : tight_row(lens); }

std::uint32_t lens_height(const Lens& lens, std::uint64_t data_size) {
    if (lens.height > 0) return lens.height;
    if (lens.offset >= data_size || lens.width == 0) return 0;
    const auto rest = data_size - lens.offset;
    std::uint64_t rows = (rest + row_bytes(lens) - tight_row(lens)) / row_bytes(lens);
    const auto most = std::max<std::uint64_t>(
        texel_rows(lens), std::min<std::uint64_t>(most_lens_rows, most_lens_texels / lens.width / texel_rows(lens) * texel_rows(lens)));
    return static_cast<std::uint32_t>(std::min<std::uint64_t>(most, rows * texel_rows(lens)));
}

std::uint64_t lens_bytes(const Lens& lens, std::uint64_t data_size) {
    const auto height = lens_height(lens, data_size);
    if (height == 0 || lens.offset >= data_size) return 0;
    const auto rows = (height + texel_rows(lens) - 1) / texel_rows(lens);
    const auto all = !lens.palette_bits && lens.tiling.tiling != Tiling::linear ? tiled_bytes(lens.tiling, lens.format, lens.width, height)
                                                                                : (rows - 1) * row_bytes(lens) + tight_row(lens);
    return std::min(all, data_size - lens.offset);
}

Result<Image> picture_through(const Lens& lens, ByteSpan data) {
    if (lens.width == 0 || lens.width > widest || lens.height > widest)
        return fail(ErrorCode::limit, phrase("{}×{} texels", lens.width, lens.height), "A side has 1 to 16,384 texels");
    if (std::uint64_t{lens.width} * lens.height > 4 * most_lens_texels)
        return fail(ErrorCode::limit, phrase("{}×{} texels", lens.width, lens.height),
                    "Leave the height open, or make the picture smaller");
    if (lens.palette_bits != 0 && lens.palette_bits != 4 && lens.palette_bits != 8)
        return fail(ErrorCode::usage, "a palette has numbers of 4 or 8 bits");
    if (lens.format == Format::unknown) return fail(ErrorCode::usage, "no format is chosen");
    if (lens.pitch > 0 && lens.pitch < tight_row(lens))
        return fail(ErrorCode::unfit, phrase("a row takes {} bytes, the pitch is {}", tight_row(lens), lens.pitch),
                    "Make the pitch larger or the width smaller");
    const auto height = lens_height(lens, data.size());
    if (height == 0 || lens.offset >= data.size())
        return fail_at(ErrorCode::unfit, lens.offset,
                       phrase("{} bytes are left, a row takes {}", grouped(data.size() - std::min<std::uint64_t>(lens.offset, data.size())),
                              grouped(tight_row(lens))),
                       "Go back in the file, or make the width smaller");
    SKIVET_TRY(const auto rows, rows_of(lens, data, height));
    if (lens.palette_bits) return by_palette(lens, data, rows, height);
    SKIVET_TRY(const auto image, decode(lens.format, rows, lens.width, height));
    return paint_form(lens.format, image);
}

std::vector<WidthGuess> suggest_widths(const Lens& lens, ByteSpan data) {
    if (!lens.palette_bits && (lens.tiling.tiling != Tiling::linear || lens.format == Format::unknown)) return {};
    const auto s = brightness(lens, data);
    const auto per_sample = lens.palette_bits ? 8u / lens.palette_bits : info(lens.format).block_width;
    const auto most = std::min<std::size_t>(s.size() / 3, 4096);
    if (most < 8) return {};
    std::vector<double> d(most + 1);
    for (std::size_t lag = 1; lag <= most; ++lag) d[lag] = mean_difference(s, lag);
    auto sorted = std::vector<double>(d.begin() + 1, d.end());
    std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2), sorted.end());
    const auto usual = sorted[sorted.size() / 2];
    if (usual <= 0) return {};
    // Neighbors are alike too: rows begin where the difference has once been large.
    std::size_t first = 1;
    while (first <= most && d[first] < 0.7 * usual) ++first;
    std::vector<WidthGuess> out;
    for (std::size_t lag = std::max<std::size_t>(first, 2); lag < most; ++lag)
        if (d[lag] <= d[lag - 1] && d[lag] <= d[lag + 1] && d[lag] < 0.9 * usual)
            out.push_back({static_cast<std::uint32_t>(lag * per_sample), 1 - d[lag] / usual});
    // Slanted shapes move a minimum by a sample or two. The sides of textures are mostly powers of two (common practice), so one beside a
    // minimum that is nearly as good is meant.
    for (auto& guess : out) {
        const auto lag = guess.width / per_sample;
        for (const auto power : {std::bit_floor(lag), std::bit_ceil(lag)}) {
            if (power == lag || power > most || std::max(power, lag) - std::min(power, lag) > std::max<std::size_t>(2, lag / 32)) continue;
            if (const auto likeness = 1 - d[power] / usual; likeness >= 0.9 * guess.likeness)
                guess = {static_cast<std::uint32_t>(power * per_sample), likeness};
        }
    }
    // Two rows further down is alike as well, only less: of widths that are nearly as good the smallest is meant. One that textures have
    // (a multiple of 4) needs less.
    const auto best = std::max_element(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.likeness < b.likeness; });
    if (best == out.end()) return {};
    const auto floor = best->likeness;
    const auto rank = [&](const WidthGuess& g) {
        const bool common = g.width % 4 == 0;
        const bool near = g.likeness >= floor * (common ? 0.85 : 0.95);
        return std::tuple(near ? 0 : 1, near ? g.width : 0u, -g.likeness);
    };
    std::sort(out.begin(), out.end(), [&](const auto& a, const auto& b) { return rank(a) < rank(b); });
    if (out.size() > 8) out.resize(8);
    return out;
}

std::vector<FormatGuess> suggest_formats(ByteSpan data, std::uint64_t offset) {
    if (offset >= data.size()) return {};
    const auto rest = data.subspan(static_cast<std::size_t>(offset));
    std::vector<FormatGuess> out;
    // The commonest first: of equal scores the earlier one stands above. Of the rare ones nothing is said: they would only win by chance.
    std::vector<Format> tried;
    for (const auto format : formats_by_use()) {
        if (info(format).common == 0) break;
        if (std::any_of(tried.begin(), tried.end(), [&](Format other) { return same_but_for_order(info(format), info(other)); })) continue;
        tried.push_back(format);
        const auto p = plausible(format, rest);
        const auto score = neighbors_alike(format, rest) * (p < 0.6 ? 0.3 : p);
        if (score > 0.15) out.push_back({format, score});
    }
    std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.score > b.score; });
    return out;
}

Result<std::string> sheet_of(const Lens& lens, ByteSpan data, std::string_view sheet_name, std::string_view file_name) {
    if (lens.palette_bits) return fail(ErrorCode::unsupported, "sheets do not describe palettes yet", "The picture can still be looked at");
    const auto height = lens_height(lens, data.size());
    if (height == 0) return fail(ErrorCode::unfit, "there is nothing to see at this offset");
    std::string out = fmt::format("# Found with the raw lens.\nsheet = \"texture\"\nname = \"{}\"\n\n[[recognize]]\nname = \"{}\"\n\n",
                                  sheet_name, file_name);
    // Up to eight bytes before the picture tell this file from others of the same name.
    const auto mark = std::min<std::uint64_t>({lens.offset, data.size(), 8});
    if (mark >= 4 && std::any_of(data.begin(), data.begin() + 4, [](auto b) { return b != std::byte{0}; })) {
        out += "[[recognize]]\nbytes = \"";
        for (std::size_t i = 0; i < mark; ++i) out += fmt::format("{}{:02x}", i ? " " : "", static_cast<unsigned>(data[i]));
        out += "\"\n\n";
    }
    out += fmt::format("[texture]\nwidth = {}\nheight = {}\nformat = \"{}\"\n\n[payload]\nat = {}\n", lens.width, height,
                       info(lens.format).name, lens.offset);
    if (lens.tiling.tiling == Tiling::linear && lens.pitch > tight_row(lens)) out += fmt::format("row_pitch = {}\n", lens.pitch);
    if (lens.tiling.tiling == Tiling::morton) out += "tiling = \"morton\"\n";
    if (lens.tiling.tiling == Tiling::block_linear)
        out += fmt::format("tiling = \"block-linear\"\nblock_height = {}\n", lens.tiling.block_height);
    return out;
}

}  // namespace skivet
