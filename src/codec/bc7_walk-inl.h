// Included once for each SIMD target by bc7_encode.cpp (see lanes-inl.h).
// The last steps of a BC7 block: codes moved one by one.
#if defined(SKIVET_BC7_WALK_INL_H) == defined(HWY_TARGET_TOGGLE)
#ifdef SKIVET_BC7_WALK_INL_H
#undef SKIVET_BC7_WALK_INL_H
#else
#define SKIVET_BC7_WALK_INL_H
#endif

#include "codec/bc7_lines-inl.h"

HWY_BEFORE_NAMESPACE();
namespace skivet::HWY_NAMESPACE {
namespace {

/// A code moved by whole steps: still inside, and not brought to the edge by a fraction of a step.
HWY_INLINE MF fits(VF moved, VF from, VF step) {
    const auto steps = hn::Div(hn::Sub(moved, from), step);
    return hn::Eq(steps, hn::Floor(steps));
}

/// The share of the second endpoint each texel gets, by its nearest index.
HWY_INLINE void shares_of(const Texels& texel, const Ends& value, VF top, std::array<VF, 16>& share) {
    V4 d;
    for (std::size_t c = 0; c < 4; ++c) d[c] = hn::Sub(value.b[c], value.a[c]);
    const auto size = dot<4>(d, d);
    const auto per = select(hn::Gt(size, zero()), hn::Div(top, most(size, set(1e-6f))), zero());
    const auto weight_step = hn::Div(set(64), top);
    for (std::size_t i = 0; i < 16; ++i) {
        V4 from;
        for (std::size_t c = 0; c < 4; ++c) from[c] = hn::Sub(get(texel[c], i), value.a[c]);
        auto index = hn::Floor(hn::Add(least(most(hn::Mul(dot<4>(from, d), per), zero()), top), set(0.5f)));
        if (texel.exacting) index = kept_index<4>(texel, value, i, top, index);
        share[i] = hn::Mul(hn::Floor(hn::Add(hn::Mul(index, weight_step), set(0.5f))), set(1.0f / 64));
    }
}

/// What was found, moved by single codes as long as that helps. Lanes differ in mode, so the modes' numbers are vectors here.
void walk(const Block& block, Best& found, int rounds) {
    const DF df;
    if (hn::AllTrue(df, hn::Le(found.error, zero()))) return;
    auto best = found;
    VF total = zero();
    // Indices are projected here, so a line found with better ones may seem worse than it is: what is not truly better is not taken.
    const auto take_better = [&] {
        const auto better = hn::Lt(total, found.error);
        found.error = select(better, total, found.error);
        for (std::size_t e = 0; e < 6; ++e)
            for (std::size_t c = 0; c < 4; ++c) found.code[e][c] = select(better, best.code[e][c], found.code[e][c]);
    };
    const std::size_t n = hn::Lanes(df);
    alignas(64) float mode[max_lanes], partition[max_lanes], extra[max_lanes];
    hn::Store(best.mode, df, mode);
    hn::Store(best.partition, df, partition);
    hn::Store(best.extra, df, extra);
    std::array<Member, 3> member;
    Plane every;
    Texels color = block.texel, alone;
    alone.weighted = color.weighted;
    alone.opaque = alone.clear = zero();
    // Alpha that must stay, channel by channel, because lanes differ in rotation; a channel that is alpha of one value does not move at
    // all.
    std::array<Plane, 4> keep;
    Plane alone_keep;
    std::array<VF, 4> locked;
    alignas(64) float lock[4][max_lanes] = {}, uniform[max_lanes];
    hn::Store(most(block.texel.opaque, block.texel.clear), df, uniform);
    color.keep = {};
    if (color.exacting) {
        for (std::size_t c = 0; c < 4; ++c) color.keep[c] = &keep[c];
        alone.keep[0] = &alone_keep;
        alone.exacting = true;
        for (std::size_t i = 0; i < 16; ++i) {
            for (std::size_t c = 0; c < 4; ++c) put(keep[c], i, zero());
            put(alone_keep, i, zero());
        }
    }
    alignas(64) float color_bits[max_lanes], alpha_bits[max_lanes], step[max_lanes], top[max_lanes], alone_top[max_lanes], lone[max_lanes],
        subsets[max_lanes], has_alpha[max_lanes];
    for (std::size_t lane = 0; lane < n; ++lane) {
        const auto& m = bptc::modes[static_cast<std::size_t>(mode[lane])];
        const auto rotation = static_cast<std::size_t>(extra[lane]) & 3, selector = static_cast<std::size_t>(extra[lane]) >> 2;
        const bool p = m.own_p_bits || m.shared_p_bits, separate = m.second_index_bits > 0;
        color_bits[lane] = static_cast<float>(m.color_bits + p);
        alpha_bits[lane] = static_cast<float>(m.alpha_bits ? m.alpha_bits + (p && !separate) : 8);
        step[lane] = p ? 2.0f : 1.0f;
        const unsigned first = separate && selector ? m.second_index_bits : m.index_bits,
                       second = separate ? (selector ? m.index_bits : m.second_index_bits) : 1;
        top[lane] = static_cast<float>((1u << first) - 1);
        alone_top[lane] = static_cast<float>((1u << second) - 1);
        lone[lane] = separate ? 1.0f : 0.0f;
        subsets[lane] = static_cast<float>(m.subsets);
        has_alpha[lane] = m.alpha_bits && !separate ? 1.0f : 0.0f;
        const std::size_t alpha_in = separate && rotation ? rotation - 1 : 3;
        lock[alpha_in][lane] = uniform[lane];
        for (std::size_t i = 0; i < 16 && color.exacting; ++i) {
            if (separate && !rotation) alone_keep.v[i][lane] = block.keep.v[i][lane];
            else if (separate || m.alpha_bits) keep[alpha_in].v[i][lane] = block.keep.v[i][lane];
        }
        for (std::size_t i = 0; i < 16; ++i) {
            if (rotation) std::swap(color[3].v[i][lane], color[rotation - 1].v[i][lane]);
            alone[0].v[i][lane] = color[3].v[i][lane];
            if (color.weighted) {
                if (rotation) std::swap(color.share[3].v[i][lane], color.share[rotation - 1].v[i][lane]);
                alone.share[0].v[i][lane] = color.share[3].v[i][lane];
            }
            if (separate) color[3].v[i][lane] = 255;
            const auto number = static_cast<std::size_t>(partition[lane]);
            const std::size_t s = m.subsets == 2 ? bptc::partitions2[number][i] : m.subsets == 3 ? bptc::partitions3[number][i] : 0;
            for (std::size_t k = 0; k < 3; ++k) member[k].weight.v[i][lane] = s == k ? 1.0f : 0.0f;
            every.v[i][lane] = lone[lane];
        }
    }
    for (std::size_t c = 0; c < 4; ++c) locked[c] = hn::Load(df, lock[c]);
    // value = code × 2^(8 - bits) + floor(code / 2^(2 bits - 8))
    const auto scales = [&](const float* bits, VF& up, VF& down, VF& highest) {
        alignas(64) float u[max_lanes], d[max_lanes], h[max_lanes];
        for (std::size_t lane = 0; lane < n; ++lane) {
            const auto b = static_cast<int>(bits[lane]);
            u[lane] = static_cast<float>(1 << (8 - b));
            d[lane] = b >= 8 ? 0.0f : 1.0f / static_cast<float>(1 << (2 * b - 8));
            h[lane] = static_cast<float>((1 << b) - 1);
        }
        up = hn::Load(df, u), down = hn::Load(df, d), highest = hn::Load(df, h);
    };
    VF up[2], down[2], highest[2];
    scales(color_bits, up[0], down[0], highest[0]);
    scales(alpha_bits, up[1], down[1], highest[1]);
    const auto expanded = [&](VF code, std::size_t kind) { return hn::Add(hn::Mul(code, up[kind]), hn::Floor(hn::Mul(code, down[kind]))); };
    const auto steps = hn::Load(df, step), tops = hn::Load(df, top), alone_tops = hn::Load(df, alone_top);
    const auto is_lone = hn::Gt(hn::Load(df, lone), zero()), alpha_moves = hn::Gt(hn::Load(df, has_alpha), zero());
    const auto count = hn::Load(df, subsets);

    const auto value_of = [&](std::size_t s) {
        Ends v;
        for (std::size_t c = 0; c < 3; ++c) v.a[c] = expanded(best.code[2 * s][c], 0), v.b[c] = expanded(best.code[2 * s + 1][c], 0);
        v.a[3] = select(alpha_moves, expanded(best.code[2 * s][3], 1), set(255));
        v.b[3] = select(alpha_moves, expanded(best.code[2 * s + 1][3], 1), set(255));
        return v;
    };
    // Indices held, each channel is a small problem of its own: of the nine pairs of codes around the present one the best, with exact
    // rounding.
    const auto polish = [&](std::size_t s, Ends& value, VF& error) {
        std::array<VF, 16> share;
        shares_of(color, value, tops, share);
        Ends next = value, code;
        for (std::size_t c = 0; c < 4; ++c) {
            code.a[c] = best.code[2 * s][c];
            code.b[c] = best.code[2 * s + 1][c];
            if (c == 3 && hn::AllFalse(df, alpha_moves)) continue;
            const std::size_t kind = c == 3;
            VF least_error = set(huge);
            for (int da = -1; da <= 1; ++da) {
                const auto a = least(most(hn::Add(best.code[2 * s][c], hn::Mul(steps, set(static_cast<float>(da)))),
                                          hn::Sub(hn::Mul(steps, set(0.5f)), set(0.5f))),
                                     highest[kind]);
                for (int db = -1; db <= 1; ++db) {
                    const auto b = least(most(hn::Add(best.code[2 * s + 1][c], hn::Mul(steps, set(static_cast<float>(db)))),
                                              hn::Sub(hn::Mul(steps, set(0.5f)), set(0.5f))),
                                         highest[kind]);
                    // Codes with a p-bit keep it: a move past the end is no move.
                    const auto ca = select(fits(a, best.code[2 * s][c], steps), a, best.code[2 * s][c]);
                    const auto cb = select(fits(b, best.code[2 * s + 1][c], steps), b, best.code[2 * s + 1][c]);
                    const auto va = expanded(ca, kind), vb = expanded(cb, kind);
                    const auto d = hn::Sub(vb, va), base = hn::Add(va, set(0.5f));
                    VF sum = zero();
                    for (std::size_t i = 0; i < 16; ++i) {
                        const auto off = hn::Sub(hn::Floor(hn::Add(hn::Mul(share[i], d), base)), get(color[c], i));
                        const auto w =
                            color.weighted ? hn::Mul(get(member[s].weight, i), get(color.share[c], i)) : get(member[s].weight, i);
                        sum = hn::Add(sum, hn::Mul(w, hn::Mul(off, off)));
                        if (color.keep[c])
                            sum = hn::Add(sum,
                                          hn::Mul(get(member[s].weight, i), select(hn::Eq(off, zero()), zero(), get(*color.keep[c], i))));
                    }
                    auto better = hn::And(hn::Lt(sum, least_error), hn::Le(locked[c], zero()));
                    if (c == 3) better = hn::And(better, alpha_moves);
                    least_error = select(better, sum, least_error);
                    code.a[c] = select(better, ca, code.a[c]);
                    code.b[c] = select(better, cb, code.b[c]);
                    next.a[c] = select(better, va, next.a[c]);
                    next.b[c] = select(better, vb, next.b[c]);
                }
            }
        }
        const auto next_error = error_of<4>(color, member[s].weight, next, tops);
        const auto better = hn::Lt(next_error, error);
        error = select(better, next_error, error);
        for (std::size_t c = 0; c < 4; ++c) {
            best.code[2 * s][c] = select(better, code.a[c], best.code[2 * s][c]);
            best.code[2 * s + 1][c] = select(better, code.b[c], best.code[2 * s + 1][c]);
            value.a[c] = select(better, next.a[c], value.a[c]);
            value.b[c] = select(better, next.b[c], value.b[c]);
        }
    };
    for (std::size_t s = 0; s < 3; ++s) {
        if (hn::AllFalse(df, hn::Gt(count, set(static_cast<float>(s))))) break;
        auto value = value_of(s);
        auto error = error_of<4>(color, member[s].weight, value, tops);
        for (int round = 0; round < rounds; ++round) {
            const auto before = error;
            polish(s, value, error);
            // A lane that did not move in a whole round would not move in the next: leaving early changes no lane's result.
            if (hn::AllFalse(df, hn::Lt(error, before))) break;
        }
        total = hn::Add(total, select(hn::Gt(count, set(static_cast<float>(s))), error, zero()));
    }
    if (hn::AllFalse(df, is_lone)) return take_better();
    Ends value;
    value.a[0] = expanded(best.code[0][3], 1);
    value.b[0] = expanded(best.code[1][3], 1);
    auto error = error_of<1>(alone, every, value, alone_tops);
    for (int round = 0; round < rounds; ++round)
        for (std::size_t end = 0; end < 2; ++end)
            for (const float by : {1.0f, -1.0f}) {
                auto& code = best.code[end][3];
                auto& place = end ? value.b[0] : value.a[0];
                const auto moved = hn::Add(code, set(by));
                const auto allowed = hn::And(is_lone, hn::And(hn::Ge(moved, zero()), hn::Le(moved, highest[1])));
                const auto old = place;
                place = select(allowed, expanded(moved, 1), old);
                const auto next = error_of<1>(alone, every, value, alone_tops);
                const auto better = hn::And(allowed, hn::Lt(next, error));
                error = select(better, next, error);
                code = select(better, moved, code);
                place = select(better, place, old);
            }
    total = hn::Add(total, select(is_lone, error, zero()));
    take_better();
}

}  // namespace
}  // namespace skivet::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();
#endif
