// Writing BC6H blocks.
#include "codec/bc6h_pack.h"

#include "codec/bc6h_tables.h"
#include "codec/bc7_tables.h"
#include "codec/blocks.h"

namespace skivet::bc6h {
namespace {

struct Coded : Ends {
    double error = 1e30;
    std::array<std::uint8_t, 16> index{};
};

/// Which of two regions a texel is in, and the texels whose index has one bit less.
struct Regions {
    std::array<std::uint8_t, 16> of{};
    std::size_t second_anchor = 0;
};
Regions regions_of(const Ends& ends) {
    if (!modes[ends.mode].two_regions) return {};
    return {bptc::partitions2[ends.partition], bptc::anchor2[ends.partition]};
}

/// Each texel takes the nearest value of its line; returns the squared error.
double assign(const Texels& texels, const Regions& regions, bool is_signed, Coded& coded) {
    const auto& mode = modes[coded.mode];
    const unsigned index_bits = mode.two_regions ? 3 : 4, count = 1u << index_bits;
    const auto* w = bptc::weights(index_bits);
    std::array<std::array<std::array<int, 3>, 16>, 2> palettes{};
    for (std::size_t r = 0; r < (mode.two_regions ? 2u : 1u); ++r)
        for (std::size_t c = 0; c < 3; ++c) {
            const int x = unquantize(coded.end[2 * r][c], mode.endpoint_bits, is_signed),
                      y = unquantize(coded.end[2 * r + 1][c], mode.endpoint_bits, is_signed);
            for (unsigned k = 0; k < count; ++k) palettes[r][k][c] = as_integer(finish((x * (64 - w[k]) + y * w[k] + 32) >> 6, is_signed));
        }
    double sum = 0;
    for (std::size_t i = 0; i < 16; ++i) {
        const bool anchor = i == 0 || (mode.two_regions && i == regions.second_anchor);
        double best = 1e30;
        for (unsigned k = 0; k < (anchor ? count / 2 : count); ++k) {
            double d = 0;
            for (std::size_t c = 0; c < 3; ++c) {
                const double off = palettes[regions.of[i]][k][c] - texels[i][c];
                d += off * off;
            }
            if (d < best) best = d, coded.index[i] = static_cast<std::uint8_t>(k);
        }
        sum += best;
    }
    return sum;
}

/// Whether the deltas of a mode can hold these ends.
bool holds(const Ends& ends) {
    const auto& mode = modes[ends.mode];
    if (!mode.deltas) return true;
    for (std::size_t e = 1; e < (mode.two_regions ? 4u : 2u); ++e)
        for (std::size_t c = 0; c < 3; ++c) {
            const int limit = 1 << (mode.delta_bits[c] - 1), d = ends.end[e][c] - ends.end[0][c];
            if (d < -limit || d >= limit) return false;
        }
    return true;
}

void walk(const Texels& texels, const Regions& regions, bool is_signed, Coded& best) {
    const auto& mode = modes[best.mode];
    const int low = is_signed ? -(1 << (mode.endpoint_bits - 1)) + 1 : 0,
              high = is_signed ? (1 << (mode.endpoint_bits - 1)) - 1 : (1 << mode.endpoint_bits) - 1;
    for (int round = 0; round < 3; ++round) {
        const double before = best.error;
        for (std::size_t e = 0; e < (mode.two_regions ? 4u : 2u); ++e)
            for (std::size_t c = 0; c < 3; ++c)
                for (const int by : {-1, 1}) {
                    auto next = best;
                    next.end[e][c] += by;
                    if (next.end[e][c] < low || next.end[e][c] > high || !holds(next)) continue;
                    next.error = assign(texels, regions, is_signed, next);
                    if (next.error < best.error) best = next;
                }
        if (best.error >= before) break;
    }
}

}  // namespace

void write_block(const Ends& ends, const Texels& texels, bool is_signed, bool polish, std::byte* out) {
    const auto& mode = modes[ends.mode];
    const auto regions = regions_of(ends);
    Coded coded;
    static_cast<Ends&>(coded) = ends;
    coded.error = assign(texels, regions, is_signed, coded);
    if (polish) walk(texels, regions, is_signed, coded);
    auto field = coded.end;
    for (std::size_t e = 1; e < 4 && mode.deltas; ++e)
        for (std::size_t c = 0; c < 3; ++c) field[e][c] -= coded.end[0][c];
    BitWriter bits;
    bits.put(mode.code, mode.code_bits);
    for (const auto& place : places(coded.mode)) bits.put(static_cast<unsigned>(field[place.endpoint][place.channel]) >> place.bit & 1u, 1);
    if (mode.two_regions) bits.put(coded.partition, 5);
    for (std::size_t i = 0; i < 16; ++i) {
        const bool anchor = i == 0 || (mode.two_regions && i == regions.second_anchor);
        bits.put(coded.index[i], (mode.two_regions ? 3u : 4u) - anchor);
    }
    bits.store(out);
}

}  // namespace skivet::bc6h
