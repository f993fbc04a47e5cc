#include "sift/cells.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <cstdlib>
#include <optional>

#include "codec/codec.h"

namespace skivet {
namespace {

constexpr std::size_t chunk = 64;                           // cells that are judged together
constexpr double least_likeness = 0.14;                     // of a chunk that speaks for a width
constexpr std::size_t most_other = 8;                       // widths that are no powers of two
constexpr std::uint32_t least_side = 64, most_side = 8192;  // texels

/// What a difference to the same byte of the cell before says, where such bytes change little: about log(p inside / p of random bytes).
int little_change(std::byte a, std::byte b) {
    const auto d = std::abs(static_cast<int>(a) - static_cast<int>(b));
    return d < 8 ? 19 : d < 16 ? 14 : d < 32 ? 6 : d < 64 ? -5 : -19;
}

int member_of(Format format, const std::byte* cell, const std::byte* before) {
    const auto byte = [&](std::size_t i) { return static_cast<unsigned>(cell[i]); };
    const auto ends = [&](std::size_t first, std::size_t second) {
        return little_change(cell[first], before[first]) + little_change(cell[second], before[second]);
    };
    const auto sum = [&](std::size_t count) {
        int out = 0;
        for (std::size_t i = 0; i < count; ++i) out += std::abs(static_cast<int>(cell[i]) - static_cast<int>(before[i]));
        return out;
    };
    // Numbers of texels change much, in pictures; in text and tables they are as like as the ends.
    const auto numbers = [&](std::size_t first, std::size_t count, int found) {
        int change = 0;
        for (std::size_t i = first; i < first + count; ++i) change += std::abs(static_cast<int>(cell[i]) - static_cast<int>(before[i]));
        change /= static_cast<int>(count);
        return change < 4 ? std::min(found, 4) : change < 28 ? found - 26 : found;
    };
    switch (format) {
        case Format::BC1: return numbers(4, 4, ends(1, 3));
        case Format::BC3: return numbers(12, 4, ends(9, 11));
        case Format::BC4: return numbers(2, 6, ends(0, 1));
        case Format::BC5: return (numbers(2, 6, ends(0, 1)) + numbers(10, 6, ends(8, 9))) / 2;
        case Format::BC7: {
            const auto b = byte(0);
            if (b == 0) return -32;
            return b & 1 ? -37 : (b & 7) == 4 || b == 128 ? 0 : 11;
        }
        case Format::BC6H: return (byte(0) & 19) == 3 ? 16 : (byte(0) & 2) == 0 ? -4 : -12;
        case Format::RGBA8: return sum(4) < 40 ? 8 : sum(4) < 100 ? 0 : -16;
        case Format::RGB8: return sum(3) < 30 ? 8 : sum(3) < 75 ? 0 : -16;
        default: return std::clamp(little_change(cell[1], before[1]) - 6, -16, 8);
    }
}

}  // namespace

Cells cells_of(Format format, ByteSpan data, std::uint64_t from, std::uint64_t to) {
    const auto& f = info(format);
    Cells out;
    out.format = format;
    out.bytes = f.block_bytes;
    out.side = f.block_width;
    out.at = from;
    const auto count = static_cast<std::size_t>((to - from) / out.bytes);
    const auto* bytes = data.data() + from;
    out.bright.resize(count);
    if (out.bytes == 1) {
        std::transform(bytes, bytes + count, out.bright.begin(), [](auto b) { return static_cast<std::uint8_t>(b); });
        return out;
    }
    out.member.resize(count);
    for (std::size_t i = 1; i < count; ++i) {
        const auto *cell = bytes + i * out.bytes, *before = cell - out.bytes;
        // Padding says nothing.
        const bool padding =
            std::equal(cell, cell + out.bytes, before) && std::all_of(cell, cell + out.bytes, [&](auto b) { return b == *cell; });
        out.member[i] = padding ? std::int8_t{0} : static_cast<std::int8_t>(member_of(format, cell, before));
    }
    if (out.bytes == 2) {
        // Red, green and blue as B5G6R5 has them; of the others it shows enough.
        for (std::size_t i = 0; i < count; ++i) {
            const auto v = load_le<std::uint16_t>(bytes + 2 * i);
            out.bright[i] = static_cast<std::uint8_t>(2 * ((v >> 11) + (v >> 5 & 63) + (v & 31)));
        }
        return out;
    }
    constexpr std::size_t step = 1024;
    for (std::size_t first = 0; first < count; first += step) {
        const auto n = std::min(step, count - first);
        const auto image =
            decode(format, ByteSpan(bytes + first * out.bytes, n * out.bytes), static_cast<std::uint32_t>(n * out.side), out.side);
        if (!image) break;
        const std::size_t pitch = n * out.side;
        const auto shift = out.side == 4 ? 6 : 2;
        for (std::size_t c = 0; c < n; ++c) {
            unsigned sum = 0;
            for (std::size_t y = 0; y < out.side; ++y) {
                const auto* row = image->texels.data() + y * pitch + c * out.side;
                for (std::size_t x = 0; x < out.side; ++x) sum += row[x][0] + 2u * row[x][1] + row[x][2];
            }
            // Red alone is a quarter of the sum.
            out.bright[first + c] =
                static_cast<std::uint8_t>(f.channels == 1 && !f.luminance ? std::min(255u, sum >> (shift - 2)) : sum >> shift);
        }
    }
    return out;
}

bool rows_likely(const Cells& cells) {
    const auto& m = cells.bright;
    constexpr std::size_t sample = 1536, apart_by = 12288;
    for (std::size_t at = 0; at < m.size(); at += apart_by) {
        // From the middle of what there is.
        const auto rest = std::min(apart_by, m.size() - at);
        const auto from = at + rest / 2 - std::min(rest / 2, sample / 2);
        for (std::uint32_t side = least_side; side <= most_side; side *= 2)
            for (const std::size_t width : {side / cells.side, side * 3 / 2 / cells.side}) {
                const auto reach = width + width * 3 / 8;
                if (from + reach + 64 > m.size()) break;
                const auto count = std::min(sample, m.size() - from - reach);
                const auto* p = m.data() + from;
                const auto under = apart(p, p + width, count);
                const auto far = apart(p, p + width - width * 3 / 8, count) + apart(p, p + reach, count);
                if (under * 100 < far * 45) return true;
            }
        // Of another width it could only be smooth.
        const auto count = std::min(sample, m.size() - from);
        if (count > 128 &&
            apart(m.data() + from, m.data() + from + 1, count - 64) * 2 < apart(m.data() + from, m.data() + from + 41, count - 64))
            return true;
    }
    return false;
}

double member_mean(Format format, ByteSpan data, std::uint64_t from, std::size_t count) {
    const std::size_t bytes = info(format).block_bytes;
    double sum = 0;
    for (std::size_t i = 1; i < count; ++i) {
        const auto* cell = data.data() + from + i * bytes;
        sum += member_of(format, cell, cell - bytes);
    }
    return count > 1 ? sum / (16.0 * static_cast<double>(count - 1)) : 0;
}

RowFinder::RowFinder(const Cells& cells) : cells_(cells) {
    std::vector<std::size_t> sides;
    for (std::uint32_t side = least_side; side <= most_side; side *= 2) {
        sides.push_back(side / cells.side);
        sides.push_back(side * 3 / 2 / cells.side);
    }
    for (const auto side : sides) add(side, usual_);
}

void RowFinder::add(std::size_t width, std::vector<Width>& to) const {
    const auto& m = cells_.bright;
    if (width < 6 || m.size() < 4 * width) return;
    Width out;
    out.cells = width;
    // Distances near a row, where a picture's rows do not fit.
    const std::size_t lags[] = {width - width * 3 / 8, width - width * 5 / 16, width + width * 5 / 16, width + width * 3 / 8};
    const auto chunks = (m.size() - width - width * 3 / 8) / chunk;
    out.under.resize(chunks);
    out.far.resize(chunks);
    for (std::size_t k = 0; k < chunks; ++k) {
        const auto* at = m.data() + k * chunk;
        out.under[k] = static_cast<float>(apart(at, at + width, chunk)) / chunk;
        std::uint64_t far = 0;
        for (const auto lag : lags) far += apart(at, at + lag, chunk);
        out.far[k] = static_cast<float>(far) / (4 * chunk);
    }
    to.push_back(std::move(out));
}

void RowFinder::add_others() {
    const auto& m = cells_.bright;
    constexpr std::size_t sample = 2560, most_lag = 1280;
    std::vector<std::size_t> found;
    for (const std::size_t part : {1u, 3u, 5u}) {
        const auto middle = m.size() * part / 6;
        const auto from = middle > sample / 2 ? middle - sample / 2 : 0;
        const auto count = std::min(sample, m.size() - from);
        const auto most = std::min(count / 3, most_lag);
        if (most < 16) break;
        std::vector<double> d(most + 2);
        for (std::size_t lag = 1; lag <= most + 1; ++lag)
            d[lag] = static_cast<double>(apart(m.data() + from, m.data() + from + lag, count - most - 1)) /
                     static_cast<double>(count - most - 1);
        auto sorted = std::vector<double>(d.begin() + 1, d.end());
        std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2), sorted.end());
        const auto usual = sorted[sorted.size() / 2];
        std::vector<std::pair<double, std::size_t>> dips;
        for (std::size_t lag = std::max<std::size_t>(2, least_side / cells_.side); lag <= most; ++lag)
            if (d[lag] < d[lag - 1] && d[lag] < d[lag + 1] && d[lag] < 0.8 * usual) dips.emplace_back(d[lag], lag);
        std::sort(dips.begin(), dips.end());
        if (dips.size() > most_other) dips.resize(most_other);
        for (const auto& dip : dips) found.push_back(dip.second);
        if (count == m.size()) break;
    }
    std::sort(found.begin(), found.end());
    found.erase(std::unique(found.begin(), found.end()), found.end());
    for (const auto lag : found) {
        // Slanted shapes move a minimum; a width that textures usually have is then meant.
        const bool near = std::any_of(usual_.begin(), usual_.end(), [&](const Width& w) {
            return std::max(w.cells, lag) - std::min(w.cells, lag) <= std::max<std::size_t>(1, w.cells / 32);
        });
        if (!near) add(lag, other_);
    }
}

bool RowFinder::repeats(const Rows& rows) const {
    const auto middle = (rows.from + rows.to) / 2;
    const auto count = std::min<std::size_t>(rows.to - rows.from, 2048);
    const auto from = middle - count / 2;
    const auto* m = cells_.bright.data() + from;
    const auto most = std::min({std::size_t{640}, rows.width * 7 / 8, count / 2});
    std::vector<double> d(most + 1);
    for (std::size_t lag = 1; lag <= most; ++lag)
        d[lag] = static_cast<double>(apart(m, m + lag, count - lag)) / static_cast<double>(count - lag);
    for (std::size_t lag = 2; lag < most; ++lag) {
        if (d[lag] > d[lag - 1] || d[lag] > d[lag + 1]) continue;
        // What is drawn twice in a picture repeats at a part of its width.
        if (rows.width % lag == 0 && lag * cells_.side >= least_side && std::has_single_bit(rows.width)) continue;
        const auto limit = lag * cells_.side < least_side ? std::min(1.15 * rows.under, 0.75 * d[1]) : rows.under;
        // A record is as long every time.
        bool all = true;
        for (std::size_t k = 1; k <= 6 && k * lag <= most && all; ++k) all = d[k * lag] <= limit;
        if (all) return true;
    }
    return false;
}

std::vector<Rows> RowFinder::best_in(std::size_t from, std::size_t to) {
    auto best = best_of(usual_, from, to);
    if (best.empty() || best[0].score < 0.08 * static_cast<double>(to - from)) {
        if (!others_added_) add_others();
        others_added_ = true;
        auto other = best_of(other_, from, to);
        if (!other.empty() && (best.empty() || other[0].score > 1.5 * best[0].score)) best.insert(best.begin(), other[0]);
    }
    best.erase(std::remove_if(best.begin(), best.end(), [&](const Rows& rows) { return repeats(rows); }), best.end());
    return best;
}

std::vector<Rows> RowFinder::best_of(const std::vector<Width>& widths, std::size_t from, std::size_t to) {
    const auto first = (from + chunk - 1) / chunk, end = to / chunk;
    std::vector<Rows> all;
    for (const auto& w : widths) {
        const auto stop = std::min(end, w.under.size());
        if (stop <= first || (work_ += stop - first) > 64 * cells_.size()) continue;
        const auto run = largest_run(first, stop, [&](std::size_t k) {
            const double far = w.far[k], under = w.under[k];
            // Where there is nothing to see nothing is said.
            return far < 0.7 ? 0 : std::clamp(1 - under / far - least_likeness, -0.5, 0.6) * std::min(1.0, far / 3);
        });
        if (run.to == run.from) continue;
        Rows rows{run.from * chunk, std::min(to, run.to * chunk + w.cells), w.cells, 0, 0, run.sum * chunk};
        for (auto k = run.from; k < run.to; ++k) {
            rows.under += w.under[k];
            rows.far += w.far[k];
        }
        rows.under /= static_cast<double>(run.to - run.from);
        rows.far /= static_cast<double>(run.to - run.from);
        all.push_back(rows);
    }
    // Twice the width fits nearly as well: of nearly equal ones the smaller is meant, but the others are worth a look.
    double most = 0;
    for (const auto& rows : all) most = std::max(most, rows.score);
    std::stable_sort(all.begin(), all.end(), [&](const Rows& a, const Rows& b) {
        return a.score > 0.97 * most ? b.score <= 0.97 * most : a.score > b.score && b.score <= 0.97 * most;
    });
    std::size_t kept = 0;
    while (kept < all.size() && kept < 3 && all[kept].score > 0.7 * most) ++kept;
    all.resize(kept);
    return all;
}

}  // namespace skivet
