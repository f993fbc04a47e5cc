// Encoding BC6H.
//
// Everything happens on the bits of the halves taken as integers, where the decoder interpolates too; equal steps there are about equal
// ratios of light, so a plain squared error is close to an error of the logarithm. A line (or two, by the 32 partitions that suit best)
// is fitted, its endpoints are quantized for every mode whose deltas can hold them, texels take the nearest decoded value, and endpoints
// are solved again. Lines are turned so that the anchor texel lies in their first half: then its index never needs the missing bit.
#include "codec/bc6h_encode.h"

#include <cmath>

#include "codec/bc6h_tables.h"
#include "codec/bc7_tables.h"
#include "codec/blocks.h"
#include "pixel/half.h"

namespace skivet {
namespace {

using Color = std::array<double, 3>;
using Code = std::array<int, 3>;

struct Line {
    Color a{}, b{};
};

struct Region {
    std::array<std::uint8_t, 16> texel{};
    std::size_t count = 0;
    std::size_t anchor = 0;  ///< texel whose index has one bit less
};

double dot(const Color& x, const Color& y) { return x[0] * y[0] + x[1] * y[1] + x[2] * y[2]; }

struct Statistics {
    Color mean{}, axis{};
    double trace = 0, eigenvalue = 0;
};

Statistics statistics(const std::array<Color, 16>& texels, const Region& region) {
    Statistics out;
    for (std::size_t i = 0; i < region.count; ++i)
        for (std::size_t c = 0; c < 3; ++c) out.mean[c] += texels[region.texel[i]][c] / static_cast<double>(region.count);
    std::array<Color, 3> k{};
    for (std::size_t i = 0; i < region.count; ++i) {
        Color d;
        for (std::size_t c = 0; c < 3; ++c) d[c] = texels[region.texel[i]][c] - out.mean[c];
        for (std::size_t p = 0; p < 3; ++p)
            for (std::size_t q = 0; q < 3; ++q) k[p][q] += d[p] * d[q];
    }
    out.trace = k[0][0] + k[1][1] + k[2][2];
    out.axis = k[k[0][0] >= k[1][1] && k[0][0] >= k[2][2] ? 0 : k[1][1] >= k[2][2] ? 1 : 2];
    for (int round = 0; round < 5; ++round) {
        const Color w = {dot(k[0], out.axis), dot(k[1], out.axis), dot(k[2], out.axis)};
        const double size = std::sqrt(dot(w, w));
        if (size < 1e-9) break;
        for (std::size_t c = 0; c < 3; ++c) out.axis[c] = w[c] / size;
        out.eigenvalue = size;
    }
    return out;
}

Line spread(const std::array<Color, 16>& texels, const Region& region) {
    const auto s = statistics(texels, region);
    double low = 0, high = 0;
    const double size = dot(s.axis, s.axis);
    for (std::size_t i = 0; i < region.count && size > 0; ++i) {
        double t = 0;
        for (std::size_t c = 0; c < 3; ++c) t += (texels[region.texel[i]][c] - s.mean[c]) * s.axis[c];
        low = std::min(low, t / size);
        high = std::max(high, t / size);
    }
    Line line;
    for (std::size_t c = 0; c < 3; ++c) line.a[c] = s.mean[c] + s.axis[c] * low, line.b[c] = s.mean[c] + s.axis[c] * high;
    return line;
}

/// The anchor in the line's first half.
void turn(const std::array<Color, 16>& texels, const Region& region, Line& line) {
    Color d, from;
    for (std::size_t c = 0; c < 3; ++c) d[c] = line.b[c] - line.a[c], from[c] = texels[region.anchor][c] - line.a[c];
    if (dot(from, d) * 2 > dot(d, d)) std::swap(line.a, line.b);
}

/// A half's bits as a signed integer from what the decoder finishes with.
int as_integer(std::uint16_t half) { return half & 0x8000 ? -(half & 0x7FFF) : half; }

template <bool is_signed>
int quantize(double value, unsigned bits) {
    const int low = is_signed ? -(1 << (bits - 1)) + 1 : 0, high = is_signed ? (1 << (bits - 1)) - 1 : (1 << bits) - 1;
    const double whole = is_signed ? 32 / 31.0 : 64 / 31.0;
    const int guess = static_cast<int>(
        std::floor(value * whole * (is_signed ? static_cast<double>(1 << (bits - 1)) / 32768 : static_cast<double>(1 << bits) / 65536)));
    int best = std::clamp(guess, low, high);
    double error = 1e30;
    for (int q = std::max(low, guess - 1); q <= std::min(high, guess + 1); ++q) {
        const double e = std::abs(as_integer(bc6h::finish(bc6h::unquantize(q, bits, is_signed), is_signed)) - value);
        if (e < error) error = e, best = q;
    }
    return best;
}

struct Coded {
    double error = 1e30;
    std::size_t mode = 10;
    unsigned partition = 0;
    std::array<Code, 4> end{};
    std::array<std::uint8_t, 16> index{};
};

/// Indices and error of one region for quantized endpoints; solves the line again for the indices when `solved` is given.
template <bool is_signed>
double assign(const std::array<Color, 16>& texels, const Region& region, const Code& a, const Code& b, unsigned endpoint_bits,
              unsigned index_bits, std::array<std::uint8_t, 16>& index, Line* solved) {
    const unsigned count = 1u << index_bits;
    const auto* w = bptc::weights(index_bits);
    std::array<std::array<int, 3>, 16> palette{};
    for (std::size_t c = 0; c < 3; ++c) {
        const int x = bc6h::unquantize(a[c], endpoint_bits, is_signed), y = bc6h::unquantize(b[c], endpoint_bits, is_signed);
        for (unsigned k = 0; k < count; ++k) palette[k][c] = as_integer(bc6h::finish((x * (64 - w[k]) + y * w[k] + 32) >> 6, is_signed));
    }
    double sum = 0, aa = 0, ab = 0, bb = 0;
    Color ax{}, bx{};
    for (std::size_t i = 0; i < region.count; ++i) {
        const auto& t = texels[region.texel[i]];
        const unsigned usable = region.texel[i] == region.anchor ? count / 2 : count;
        double best = 1e30;
        unsigned chosen = 0;
        for (unsigned k = 0; k < usable; ++k) {
            double d = 0;
            for (std::size_t c = 0; c < 3; ++c) d += (palette[k][c] - t[c]) * (palette[k][c] - t[c]);
            if (d < best) best = d, chosen = k;
        }
        index[region.texel[i]] = static_cast<std::uint8_t>(chosen);
        sum += best;
        const double beta = w[chosen] / 64.0, alpha = 1 - beta;
        aa += alpha * alpha, ab += alpha * beta, bb += beta * beta;
        for (std::size_t c = 0; c < 3; ++c) ax[c] += alpha * t[c], bx[c] += beta * t[c];
    }
    if (solved) {
        const double det = aa * bb - ab * ab;
        if (det > 1e-6)
            for (std::size_t c = 0; c < 3; ++c)
                solved->a[c] = (ax[c] * bb - bx[c] * ab) / det, solved->b[c] = (bx[c] * aa - ax[c] * ab) / det;
    }
    return sum;
}

/// Whether the deltas of a mode can hold these endpoints.
bool holds(const bc6h::Mode& mode, const std::array<Code, 4>& end) {
    if (!mode.deltas) return true;
    for (std::size_t e = 1; e < (mode.two_regions ? 4u : 2u); ++e)
        for (std::size_t c = 0; c < 3; ++c) {
            const int limit = 1 << (mode.delta_bits[c] - 1), d = end[e][c] - end[0][c];
            if (d < -limit || d >= limit) return false;
        }
    return true;
}

template <bool is_signed>
void try_mode(const std::array<Color, 16>& texels, std::size_t number, unsigned partition, std::array<Region, 2>& regions,
              std::array<Line, 2> lines, int rounds, Coded& best) {
    const auto& mode = bc6h::modes[number];
    const std::size_t count = mode.two_regions ? 2 : 1;
    const unsigned index_bits = mode.two_regions ? 3 : 4;
    for (int round = 0; round <= rounds; ++round) {
        Coded next;
        next.mode = number;
        next.partition = partition;
        for (std::size_t r = 0; r < count; ++r)
            for (std::size_t c = 0; c < 3; ++c) {
                next.end[2 * r][c] = quantize<is_signed>(lines[r].a[c], mode.endpoint_bits);
                next.end[2 * r + 1][c] = quantize<is_signed>(lines[r].b[c], mode.endpoint_bits);
            }
        if (!holds(mode, next.end)) return;
        next.error = 0;
        for (std::size_t r = 0; r < count; ++r)
            next.error += assign<is_signed>(texels, regions[r], next.end[2 * r], next.end[2 * r + 1], mode.endpoint_bits, index_bits,
                                            next.index, &lines[r]);
        if (next.error < best.error) best = next;
        else if (round > 0) return;
    }
}

/// Single steps of every endpoint's channels, as long as they help.
template <bool is_signed>
void walk(const std::array<Color, 16>& texels, const std::array<Region, 2>& regions, Coded& best) {
    const auto& mode = bc6h::modes[best.mode];
    const std::size_t count = mode.two_regions ? 2 : 1;
    const int low = is_signed ? -(1 << (mode.endpoint_bits - 1)) + 1 : 0,
              high = is_signed ? (1 << (mode.endpoint_bits - 1)) - 1 : (1 << mode.endpoint_bits) - 1;
    for (int round = 0; round < 3; ++round) {
        const double before = best.error;
        for (std::size_t e = 0; e < 2 * count; ++e)
            for (std::size_t c = 0; c < 3; ++c)
                for (const int by : {-1, 1}) {
                    auto next = best;
                    next.end[e][c] += by;
                    if (next.end[e][c] < low || next.end[e][c] > high || !holds(mode, next.end)) continue;
                    next.error = 0;
                    for (std::size_t r = 0; r < count; ++r)
                        next.error += assign<is_signed>(texels, regions[r], next.end[2 * r], next.end[2 * r + 1], mode.endpoint_bits,
                                                        mode.two_regions ? 3 : 4, next.index, nullptr);
                    if (next.error < best.error) best = next;
                }
        if (best.error >= before) break;
    }
}

void pack(const Coded& coded, std::byte* out) {
    const auto& mode = bc6h::modes[coded.mode];
    std::array<Code, 4> field = coded.end;
    for (std::size_t e = 1; e < 4 && mode.deltas; ++e)
        for (std::size_t c = 0; c < 3; ++c) field[e][c] -= coded.end[0][c];
    BitWriter bits;
    bits.put(mode.code, mode.code_bits);
    for (const auto& place : bc6h::places(coded.mode))
        bits.put(static_cast<unsigned>(field[place.endpoint][place.channel]) >> place.bit & 1u, 1);
    if (mode.two_regions) bits.put(coded.partition, 5);
    for (std::size_t i = 0; i < 16; ++i) {
        const bool anchor = i == 0 || (mode.two_regions && i == bptc::anchor2[coded.partition]);
        bits.put(coded.index[i], (mode.two_regions ? 3u : 4u) - anchor);
    }
    bits.store(out);
}

std::array<Region, 2> regions_of(unsigned partition) {
    std::array<Region, 2> out;
    out[1].anchor = bptc::anchor2[partition];
    for (std::uint8_t i = 0; i < 16; ++i) {
        auto& r = out[bptc::partitions2[partition][i]];
        r.texel[r.count++] = i;
    }
    return out;
}

template <bool is_signed>
void encode_block(const TexelF* block, std::byte* out, Effort effort) {
    std::array<Color, 16> texels;
    for (std::size_t i = 0; i < 16; ++i)
        for (std::size_t c = 0; c < 3; ++c) {
            const float v = std::isnan(block[i][c]) ? 0.0f : std::clamp(block[i][c], is_signed ? -65504.0f : 0.0f, 65504.0f);
            texels[i][c] = as_integer(float_to_half(v));
        }
    const int rounds = effort == Effort::fast ? 1 : effort == Effort::normal ? 2 : 4;
    std::array<Region, 2> whole;
    whole[0].count = 16;
    for (std::uint8_t i = 0; i < 16; ++i) whole[0].texel[i] = i;
    std::array<Line, 2> lines;
    lines[0] = spread(texels, whole[0]);
    turn(texels, whole[0], lines[0]);
    Coded best;
    for (std::size_t mode = 10; mode < bc6h::modes.size(); ++mode) try_mode<is_signed>(texels, mode, 0, whole, lines, rounds, best);

    std::array<std::pair<double, unsigned>, 32> ranking;
    for (unsigned p = 0; p < 32; ++p) {
        double score = 0;
        for (const auto& region : regions_of(p)) {
            const auto s = statistics(texels, region);
            score += s.trace - s.eigenvalue * (1 - 1.0 / 32);
        }
        ranking[p] = {score, p};
    }
    std::sort(ranking.begin(), ranking.end());
    for (std::size_t n = 0; n < (effort == Effort::fast ? 1u : effort == Effort::normal ? 3u : 8u) && best.error > 0; ++n) {
        auto regions = regions_of(ranking[n].second);
        for (std::size_t r = 0; r < 2; ++r) {
            lines[r] = spread(texels, regions[r]);
            turn(texels, regions[r], lines[r]);
        }
        for (std::size_t mode = 0; mode < 10; ++mode) try_mode<is_signed>(texels, mode, ranking[n].second, regions, lines, rounds, best);
    }
    if (effort == Effort::best) walk<is_signed>(texels, bc6h::modes[best.mode].two_regions ? regions_of(best.partition) : whole, best);
    pack(best, out);
}

template <bool is_signed>
void encode_blocks(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    for (std::size_t i = 0; i < count; ++i) encode_block<is_signed>(blocks + i * 16, out + i * 16, options.effort);
}

}  // namespace

void encode_bc6h(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    encode_blocks<false>(blocks, count, out, options);
}
void encode_bc6h_signed(const TexelF* blocks, std::size_t count, std::byte* out, const EncodeOptions& options) {
    encode_blocks<true>(blocks, count, out, options);
}

}  // namespace skivet
