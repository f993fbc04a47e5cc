#pragma once
// The heavy search of skivet_bc7_exhaustive: the least squared error of a block in every mode of BC7. Alpha of 0 or 255 stays what it is,
// as the encoder promises, so opaque blocks are searched in three channels.
#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <limits>
#include <map>
#include <random>
#include <span>
#include <vector>

#include "codec/bc7_tables.h"

namespace skivet::bc7_search {

inline constexpr int none = std::numeric_limits<int>::max() / 8;
/// More than any error of colors.
inline constexpr int lost_alpha = 4'000'000;

/// Which p-bits a line may have, first and second as bits 0 and 1 of each.
inline constexpr std::array<unsigned, 4> own = {0, 1, 2, 3};
inline constexpr std::array<unsigned, 2> shared = {0, 3};
inline constexpr std::array<unsigned, 1> odd = {3}, absent = {0};

struct Depth {
    unsigned bits;  ///< of a code, p-bit included
    bool p;
    unsigned index_bits;
    std::span<const unsigned> pairs;
};

inline int expand(int code, unsigned bits) { return bits >= 8 ? code : code << (8 - bits) | code >> (2 * bits - 8); }

struct Points {
    std::size_t count = 0, channels = 3;
    std::array<std::array<int, 4>, 16> at{};
    std::size_t alpha = 4;  ///< which channel is alpha; 4: none of them
};

/// Two codes a channel.
using Codes = std::array<std::array<int, 2>, 4>;

class Line {
public:
    Line(const Points& points, const Depth& depth) : points_(points), depth_(depth), top_((1 << depth.index_bits) - 1) {
        for (std::size_t i = 0; i < points.count; ++i)
            for (std::size_t c = 0; c < points.channels; ++c) mean_[c] += points.at[i][c] / static_cast<double>(points.count);
    }
    /// The least error that was found.
    int solve() {
        if (points_.count == 0) return 0;
        for (const auto& axis : {principal(), farthest()})
            for (int low = 0; low < top_ && best_ > 0; ++low)
                for (int high = low + 1; high <= top_; ++high) start(axis, low, high);
        std::minstd_rand random(12345);
        for (int turn = 0; turn < 80 && best_ > 0; ++turn) {
            auto codes = codes_;
            const int moves = 1 + static_cast<int>(random() % 3);
            for (int m = 0; m < moves; ++m) {
                auto& code = codes[random() % points_.channels][random() % 2];
                const int step = (static_cast<int>(random() % 7) - 3) * (depth_.p ? 2 : 1);
                code = clamped(code + step, code & 1);
            }
            descend(codes, pair_);
        }
        return best_;
    }

private:
    using Axis = std::array<double, 4>;

    [[nodiscard]] int clamped(int code, int p) const {
        const int last = (1 << depth_.bits) - 1;
        if (!depth_.p) return std::clamp(code, 0, last);
        return std::clamp(code, p, last - 1 + p);
    }
    [[nodiscard]] Axis principal() const {
        std::array<Axis, 4> k{};
        for (std::size_t i = 0; i < points_.count; ++i)
            for (std::size_t p = 0; p < points_.channels; ++p)
                for (std::size_t q = 0; q < points_.channels; ++q) k[p][q] += (points_.at[i][p] - mean_[p]) * (points_.at[i][q] - mean_[q]);
        std::size_t widest = 0;
        for (std::size_t c = 1; c < 4; ++c)
            if (k[c][c] > k[widest][widest]) widest = c;
        Axis v = k[widest];
        for (int round = 0; round < 30; ++round) {
            Axis w{};
            double size = 0;
            for (std::size_t p = 0; p < 4; ++p) {
                for (std::size_t q = 0; q < 4; ++q) w[p] += k[p][q] * v[q];
                size += w[p] * w[p];
            }
            size = std::sqrt(size);
            if (size < 1e-9) break;
            for (std::size_t c = 0; c < 4; ++c) v[c] = w[c] / size;
        }
        return v;
    }
    [[nodiscard]] Axis farthest() const {
        Axis out{};
        int most = -1;
        for (std::size_t i = 0; i < points_.count; ++i)
            for (std::size_t j = i + 1; j < points_.count; ++j) {
                int d = 0;
                for (std::size_t c = 0; c < points_.channels; ++c)
                    d += (points_.at[i][c] - points_.at[j][c]) * (points_.at[i][c] - points_.at[j][c]);
                if (d <= most) continue;
                most = d;
                for (std::size_t c = 0; c < points_.channels; ++c) out[c] = points_.at[j][c] - points_.at[i][c];
            }
        return out;
    }
    void start(const Axis& axis, int low, int high) {
        std::array<double, 16> along{};
        double least = 1e30, most = -1e30;
        for (std::size_t i = 0; i < points_.count; ++i) {
            for (std::size_t c = 0; c < points_.channels; ++c) along[i] += axis[c] * (points_.at[i][c] - mean_[c]);
            least = std::min(least, along[i]), most = std::max(most, along[i]);
        }
        const double per = most - least > 1e-9 ? (high - low) / (most - least) : 0;
        std::array<int, 16> index{};
        for (std::size_t i = 0; i < points_.count; ++i)
            index[i] = std::clamp(low + static_cast<int>((along[i] - least) * per + 0.5), 0, top_);
        for (const auto pair : depth_.pairs) {
            Codes codes{};
            refit(index, codes, pair);
            descend(codes, pair);
        }
    }
    /// Nearest indices, and the error.
    int assign(const Codes& codes, std::array<int, 16>& index) const {
        const auto* w = bptc::weights(depth_.index_bits);
        int value[16][4];
        for (std::size_t c = 0; c < points_.channels; ++c) {
            const int a = expand(codes[c][0], depth_.bits), b = expand(codes[c][1], depth_.bits);
            for (int k = 0; k <= top_; ++k) value[k][c] = ((64 - w[k]) * a + w[k] * b + 32) >> 6;
        }
        int sum = 0;
        for (std::size_t i = 0; i < points_.count; ++i) {
            int least = none;
            for (int k = 0; k <= top_; ++k) {
                int d = 0;
                for (std::size_t c = 0; c < points_.channels; ++c) d += (value[k][c] - points_.at[i][c]) * (value[k][c] - points_.at[i][c]);
                if (points_.alpha < 4) {
                    const int alpha = points_.at[i][points_.alpha];
                    if ((alpha == 0 || alpha == 255) && value[k][points_.alpha] != alpha) d += lost_alpha;
                }
                if (d < least) least = d, index[i] = k;
            }
            sum += least;
        }
        return sum;
    }
    /// For indices that are held: around the least squares of each channel the best pair of codes, by the decoder's rounding.
    void refit(const std::array<int, 16>& index, Codes& codes, unsigned pair) const {
        const auto* w = bptc::weights(depth_.index_bits);
        double aa = 0, ab = 0, bb = 0;
        std::array<int, 16> count{};
        for (std::size_t i = 0; i < points_.count; ++i) {
            const double t = w[index[i]] / 64.0;
            aa += (1 - t) * (1 - t), ab += t * (1 - t), bb += t * t;
            ++count[static_cast<std::size_t>(index[i])];
        }
        const double det = aa * bb - ab * ab;
        const int step = depth_.p ? 2 : 1;
        for (std::size_t c = 0; c < points_.channels; ++c) {
            double ax = 0, bx = 0;
            std::array<int, 16> sum{};
            for (std::size_t i = 0; i < points_.count; ++i) {
                const double t = w[index[i]] / 64.0;
                ax += (1 - t) * points_.at[i][c], bx += t * points_.at[i][c];
                sum[static_cast<std::size_t>(index[i])] += points_.at[i][c];
            }
            const double a = det > 1e-6 ? (ax * bb - bx * ab) / det : mean_[c], b = det > 1e-6 ? (bx * aa - ax * ab) / det : mean_[c];
            const double top = (1 << depth_.bits) - 1;
            const auto code_of = [&](double value, int p) {
                const int code = static_cast<int>(std::floor(std::clamp(value, 0.0, 255.0) * top / 255));
                return depth_.p ? (code & ~1) | p : code;
            };
            const int pa = static_cast<int>(pair & 1), pb = static_cast<int>(pair >> 1);
            const int ca = code_of(a, pa), cb = code_of(b, pb);
            long best = std::numeric_limits<long>::max();
            for (int i = -2; i <= 3; ++i)
                for (int j = -2; j <= 3; ++j) {
                    const int x = clamped(ca + i * step, pa), y = clamped(cb + j * step, pb);
                    const int vx = expand(x, depth_.bits), vy = expand(y, depth_.bits);
                    long error = 0;
                    for (int k = 0; k <= top_; ++k) {
                        if (!count[static_cast<std::size_t>(k)]) continue;
                        const long v = ((64 - w[k]) * vx + w[k] * vy + 32) >> 6;
                        error += v * (v * count[static_cast<std::size_t>(k)] - 2 * sum[static_cast<std::size_t>(k)]);
                    }
                    if (error < best) best = error, codes[c] = {x, y};
                }
        }
    }
    void descend(Codes codes, unsigned pair) {
        std::array<int, 16> index{};
        int error = assign(codes, index);
        for (int round = 0; round < 8; ++round) {
            if (error < best_) best_ = error, codes_ = codes, pair_ = pair;
            auto next = codes;
            refit(index, next, pair);
            const int after = assign(next, index);
            if (after >= error) break;
            codes = next, error = after;
        }
    }

    const Points& points_;
    Depth depth_;
    int top_;
    std::array<double, 4> mean_{};
    int best_ = none;
    Codes codes_{};
    unsigned pair_ = 0;
};

using Colors = std::array<std::array<int, 4>, 16>;

inline bool is_opaque(const Colors& colors) {
    return std::all_of(colors.begin(), colors.end(), [](const auto& color) { return color[3] == 255; });
}

/// The best of every mode of a block.
class Searcher {
public:
    using Errors = std::array<int, 8>;
    /// What is kept of an earlier search.
    Searcher(const Colors& colors, const Errors& of) : colors_(colors), of_(of) {}
    explicit Searcher(const Colors& colors) : colors_(colors) {
        if (opaque_) {
            whole(6, {8, true, 4, odd});
            for (const bool three : {true, false}) whole(4, {5, false, three ? 3u : 2u, absent});
            whole(5, {7, false, 2, absent});
            for (std::size_t c = 0; c < 3; ++c) separate_all(c);
            for (const unsigned mode : {1u, 3u, 2u, 0u}) parted(mode);
        } else {
            whole(6, {8, true, 4, own});
            for (const std::size_t alone : {3u, 0u, 1u, 2u}) separate_all(alone);
            parted(7);
        }
    }
    [[nodiscard]] int best() const { return *std::min_element(of_.begin(), of_.end()); }
    [[nodiscard]] unsigned best_mode() const { return static_cast<unsigned>(std::min_element(of_.begin(), of_.end()) - of_.begin()); }
    /// Of one mode; partitions that cannot win were left out.
    [[nodiscard]] int of(unsigned mode) const { return of_[mode]; }
    [[nodiscard]] const Errors& all_modes() const { return of_; }
    /// Of one mode with one partition.
    [[nodiscard]] int partition(unsigned mode, unsigned number) {
        int sum = 0;
        for (std::size_t s = 0; s < bptc::modes[mode].subsets; ++s) {
            Points points = empty();
            unsigned mask = 0;
            for (std::size_t i = 0; i < 16; ++i)
                if (subset(mode, number, i) == s) points.at[points.count++] = colors_[i], mask |= 1u << i;
            auto [place, fresh] = known_.try_emplace({mode, mask}, 0);
            if (fresh) place->second = Line(points, depth_of(mode)).solve();
            sum += place->second;
        }
        return sum;
    }

private:
    static Depth depth_of(unsigned mode) {
        if (mode == 0) return {5, true, 3, own};
        if (mode == 1) return {7, true, 3, shared};
        if (mode == 2) return {5, false, 2, absent};
        if (mode == 7) return {6, true, 2, own};
        return {8, true, 2, own};
    }
    static unsigned partitions(unsigned mode) { return 1u << bptc::modes[mode].partition_bits; }
    static unsigned subset(unsigned mode, unsigned number, std::size_t i) {
        return bptc::modes[mode].subsets == 2 ? bptc::partitions2[number][i] : bptc::partitions3[number][i];
    }
    void note(unsigned mode, int error) { of_[mode] = std::min(of_[mode], error); }
    /// Every partition that can still win.
    void parted(unsigned mode) {
        std::vector<std::pair<double, unsigned>> order;
        for (unsigned p = 0; p < partitions(mode); ++p) order.emplace_back(least_possible(mode, p), p);
        std::sort(order.begin(), order.end());
        for (const auto& [bound, p] : order)
            if (bound < best()) note(mode, partition(mode, p));
    }
    /// Without any texel yet.
    [[nodiscard]] Points empty() const {
        Points out;
        if (!opaque_) out.channels = 4, out.alpha = 3;
        return out;
    }
    [[nodiscard]] Points all() const {
        auto out = empty();
        out.count = 16;
        out.at = colors_;
        return out;
    }
    void whole(unsigned mode, const Depth& depth) {
        const auto points = all();
        note(mode, Line(points, depth).solve());
    }
    void separate_all(std::size_t alone) {
        separate(5, alone, {7, false, 2, absent}, {8, false, 2, absent});
        separate(4, alone, {5, false, 2, absent}, {6, false, 3, absent});
        separate(4, alone, {5, false, 3, absent}, {6, false, 2, absent});
    }
    void separate(unsigned mode, std::size_t alone, const Depth& color, const Depth& scalar) {
        Points rest, one;
        const std::size_t channels = opaque_ ? 3 : 4;
        rest.count = one.count = 16;
        rest.channels = channels - 1, one.channels = 1;
        for (std::size_t i = 0; i < 16; ++i) {
            std::size_t at = 0;
            for (std::size_t c = 0; c < channels; ++c) {
                if (c == 3) (c == alone ? one : rest).alpha = c == alone ? 0 : at;
                if (c == alone) one.at[i][0] = colors_[i][c];
                else rest.at[i][at++] = colors_[i][c];
            }
        }
        const int first = Line(one, scalar).solve();
        if (first < best()) note(mode, first + Line(rest, color).solve());
    }
    /// No line leaves less: what lies off the best line through a subset, but for half a step of rounding in each channel.
    [[nodiscard]] double least_possible(unsigned mode, unsigned number) const {
        double out = 0;
        const std::size_t channels = opaque_ ? 3 : 4;
        for (std::size_t s = 0; s < bptc::modes[mode].subsets; ++s) {
            double n = 0, sum[4] = {}, k[4][4] = {};
            for (std::size_t i = 0; i < 16; ++i)
                if (subset(mode, number, i) == s) {
                    ++n;
                    for (std::size_t p = 0; p < channels; ++p) {
                        sum[p] += colors_[i][p];
                        for (std::size_t q = 0; q < channels; ++q) k[p][q] += colors_[i][p] * colors_[i][q];
                    }
                }
            double trace = 0;
            for (std::size_t p = 0; p < channels; ++p)
                for (std::size_t q = 0; q < channels; ++q) {
                    k[p][q] -= sum[p] * sum[q] / n;
                    if (p == q) trace += k[p][q];
                }
            // Not more than the largest eigenvalue's bound by powers: squared eight times the matrix is that of its largest.
            double eigenvalue = 0;
            std::array<double, 4> v = {1, 0.9, 1.1, 0.95};
            for (int round = 0; round < 40; ++round) {
                std::array<double, 4> w{};
                double squared = 0;
                for (std::size_t p = 0; p < channels; ++p) {
                    for (std::size_t q = 0; q < channels; ++q) w[p] += k[p][q] * v[q];
                    squared += w[p] * w[p];
                }
                eigenvalue = std::sqrt(squared);
                if (eigenvalue < 1e-9) break;
                for (std::size_t c = 0; c < channels; ++c) v[c] = w[c] / eigenvalue;
            }
            const double left = std::sqrt(std::max(0.0, trace - eigenvalue)) - std::sqrt(0.25 * static_cast<double>(channels) * n);
            out += left > 0 ? left * left : 0;
        }
        return out;
    }

    const Colors& colors_;
    bool opaque_ = is_opaque(colors_);
    Errors of_ = {none, none, none, none, none, none, none, none};
    std::map<std::pair<unsigned, unsigned>, int> known_;
};

}  // namespace skivet::bc7_search
