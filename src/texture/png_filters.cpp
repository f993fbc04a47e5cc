#include "texture/png_filters.h"

#include <array>
#include <cstring>

namespace skivet::png {
namespace {

enum Filter : std::uint8_t { none, sub, up, average, paeth };

/// Four texels, of 16 bytes whatever the machine can (see pixel/resample_rows.cpp).
using Bytes16 [[gnu::vector_size(16)]] = std::uint8_t;
using Lanes [[gnu::vector_size(16)]] = std::uint32_t;

Bytes16 least(Bytes16 a, Bytes16 b) { return a < b ? a : b; }
Bytes16 most(Bytes16 a, Bytes16 b) { return a > b ? a : b; }
/// All bits where a <= b; a comparison of equality, because not every machine compares bytes without sign.
Bytes16 no_more(Bytes16 a, Bytes16 b) { return reinterpret_cast<Bytes16>(least(a, b) == a); }

/// The predictor in bytes alone. Where above and left lie on the same side of the corner, the distance to the corner is the sum of the
/// other two and so the corner is never nearest; where they lie on both sides it is their difference.
Bytes16 paeth_of(Bytes16 left, Bytes16 above, Bytes16 corner) {
    const auto low_a = least(left, corner), low_b = least(above, corner);
    const Bytes16 to_up = most(left, corner) - low_a, to_left = most(above, corner) - low_b;
    const Bytes16 both_sides = reinterpret_cast<Bytes16>(low_a == left) ^ reinterpret_cast<Bytes16>(low_b == above);
    const Bytes16 to_corner = (most(to_up, to_left) - least(to_up, to_left)) | ~both_sides;
    const auto take_left = no_more(to_left, least(to_up, to_corner)), take_up = no_more(to_up, to_corner);
    const Bytes16 other = (take_up & above) | (~take_up & corner);
    return (take_left & left) | (~take_left & other);
}

std::uint32_t load(const void* four) {
    std::uint32_t v = 0;
    std::memcpy(&v, four, sizeof v);
    return v;
}

/// Each row runs one texel behind the row above it, so that what it needs of that row is what the vector held a step before. A row alone
/// would wait for one texel after the other.
template <std::size_t texel, bool with_average, bool with_paeth>
void undo(const std::uint8_t* const (&rows)[rows_at_once], const Texel* above, Texel* const (&out)[rows_at_once], std::size_t width) {
    const auto where = [&](Filter filter) {
        Lanes v{};
        for (std::size_t r = 0; r < rows_at_once; ++r) v[r] = rows[r][0] == filter ? ~0u : 0u;
        return reinterpret_cast<Bytes16>(v);
    };
    const auto of_sub = where(sub), of_up = where(up), of_average = where(average), of_paeth = where(paeth);
    const Lanes opaque = Lanes{} + (texel == 3 ? load(std::array<std::uint8_t, 4>{0, 0, 0, 255}.data()) : 0u);
    Bytes16 left{}, over{};
    const auto step = [&](std::uint32_t first_above, Lanes raw) {
        const auto corner = over;
        const auto before = reinterpret_cast<Lanes>(left);
        over = reinterpret_cast<Bytes16>(Lanes{first_above, before[0], before[1], before[2]});
        auto guess = (left & of_sub) | (over & of_up);
        if constexpr (with_average) guess |= ((left & over) + ((left ^ over) >> 1)) & of_average;
        if constexpr (with_paeth) guess |= paeth_of(left, over, corner) & of_paeth;
        left = reinterpret_cast<Bytes16>(raw) + guess;
        return reinterpret_cast<Lanes>(left) | opaque;
    };
    // Copies, because the texels that are written could be anything's to the compiler.
    const std::array from = {rows[0] + 1, rows[1] + 1, rows[2] + 1, rows[3] + 1};
    const std::array to = {out[0], out[1], out[2], out[3]};
    const auto raw_at = [=](std::size_t r, std::size_t x) { return load(from[r] + x * texel); };
    const auto store = [=](std::size_t r, std::size_t x, std::uint32_t v) { std::memcpy(to[r] + x, &v, sizeof v); };
    const auto guarded = [&](std::size_t at) {
        Lanes raw{};
        for (std::size_t r = 0; r < rows_at_once; ++r)
            if (at >= r && at - r < width) raw[r] = raw_at(r, at - r);
        const auto done = step(at < width ? load(above + at) : 0, raw);
        for (std::size_t r = 0; r < rows_at_once; ++r)
            if (at >= r && at - r < width) store(r, at - r, done[r]);
    };
    constexpr auto lead = rows_at_once - 1;
    std::size_t at = 0;
    for (; at < lead; ++at) guarded(at);
    for (; at < width; ++at) {
        const auto done = step(load(above + at), Lanes{raw_at(0, at), raw_at(1, at - 1), raw_at(2, at - 2), raw_at(3, at - 3)});
        store(0, at, done[0]), store(1, at - 1, done[1]), store(2, at - 2, done[2]), store(3, at - 3, done[3]);
    }
    for (; at < width + lead; ++at) guarded(at);
}

}  // namespace

bool undo_four(std::size_t texel, const std::uint8_t* const (&rows)[rows_at_once], const Texel* above, Texel* const (&out)[rows_at_once],
               std::size_t width) {
    bool with_average = false, with_paeth = false;
    for (const auto* row : rows) {
        if (row[0] > paeth) return false;
        with_average |= row[0] == average;
        with_paeth |= row[0] == paeth;
    }
    const auto run = [&]<std::size_t size>() {
        if (with_average && with_paeth) undo<size, true, true>(rows, above, out, width);
        else if (with_paeth) undo<size, false, true>(rows, above, out, width);
        else if (with_average) undo<size, true, false>(rows, above, out, width);
        else undo<size, false, false>(rows, above, out, width);
    };
    switch (texel) {
        case 1: run.template operator()<1>(); return true;
        case 2: run.template operator()<2>(); return true;
        case 3: run.template operator()<3>(); return true;
        case 4: run.template operator()<4>(); return true;
        default: return false;
    }
}

}  // namespace skivet::png
