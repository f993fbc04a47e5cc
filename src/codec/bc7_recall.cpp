// A subset that was decoded is a line: its outermost colors lie at two of the indices, and the endpoints follow from them up to what
// rounding hides. For each two indices, the codes that give the outermost values of a channel are few; that of the widest channel decides
// nearly always whether the other colors are on the line, too.
#include "codec/bc7_recall.h"

#include <algorithm>
#include <bit>
#include <cstdlib>

#include "codec/bc7_tables.h"

namespace skivet::bptc {
namespace {

constexpr int expand(int code, unsigned bits) {
    const int value = code << (8 - bits);
    return value | value >> bits;
}

/// least[n][v]: the lowest code of n bits whose value is v or more; 2^n where none is.
struct Codes {
    std::array<std::array<std::uint16_t, 257>, 9> least{};
    constexpr Codes() {
        for (unsigned bits = 4; bits <= 8; ++bits) {
            int code = 0;
            for (int v = 0; v <= 256; ++v) {
                while (code < 1 << bits && expand(code, bits) < v) ++code;
                least[bits][static_cast<std::size_t>(v)] = static_cast<std::uint16_t>(code);
            }
        }
    }
};
constexpr Codes codes;

/// Bit i: texel i is in the subset; of partitions of two and of three.
struct Members {
    std::array<std::array<std::array<std::uint16_t, 3>, 64>, 4> of{};
    Members() {
        for (std::size_t p = 0; p < 64; ++p)
            for (std::size_t i = 0; i < 16; ++i) {
                of[2][p][partitions2[p][i]] |= static_cast<std::uint16_t>(1u << i);
                of[3][p][partitions3[p][i]] |= static_cast<std::uint16_t>(1u << i);
            }
        of[1][0][0] = 0xFFFF;
    }
};
const Members& members() {
    static const Members table;
    return table;
}

int divided_down(int a, int b) { return a >= 0 ? a / b : -((-a + b - 1) / b); }
int divided_up(int a, int b) { return -divided_down(-a, b); }

/// What the lowest bits of a line's two codes are in all channels: nothing is said, the same, one each, both 1.
enum class Parity { none, shared, own, odd };

/// One line: which channels of a texel it has, and how its ends are stored.
struct LineForm {
    std::array<std::uint8_t, 4> channel{};  ///< of a texel
    std::array<std::uint8_t, 4> bits{};     ///< of a code with its p-bit
    std::size_t channels = 0;
    Parity parity = Parity::none;
    unsigned index_bits = 2;
    bool some_channels = false;  ///< not all that a texel has
};

// Eight places at a time, by what GCC and Clang make of vectors on every machine.
using Shorts = std::uint16_t __attribute__((vector_size(16)));
struct Weights {
    Shorts low, high;
};

/// By bits of index; places that a line has not repeat its last.
const Weights& all_weights(unsigned index_bits) {
    static const auto table = [] {
        std::array<Weights, 3> out{};
        for (unsigned bits = 2; bits <= 4; ++bits)
            for (std::size_t i = 0; i < 16; ++i)
                (i < 8 ? out[bits - 2].low : out[bits - 2].high)[i % 8] = weights(bits)[std::min<std::size_t>(i, (1u << bits) - 1)];
        return out;
    }();
    return table[index_bits - 2];
}

/// The values of a channel at a line's places.
struct Palette {
    Shorts low, high;
    Palette(int a, int b, const Weights& weights) {
        const auto first = static_cast<std::uint16_t>(a), second = static_cast<std::uint16_t>(b);
        low = (first * (64 - weights.low) + second * weights.low + 32) >> 6;
        high = (first * (64 - weights.high) + second * weights.high + 32) >> 6;
    }
    /// Bit i: place i has that value.
    [[nodiscard]] std::uint16_t places_of(std::uint16_t value) const {
        constexpr Shorts low_bit = {1, 2, 4, 8, 16, 32, 64, 128}, high_bit = {256, 512, 1024, 2048, 4096, 8192, 16384, 32768};
        const auto same = (static_cast<Shorts>(low == value) & low_bit) | (static_cast<Shorts>(high == value) & high_bit);
        const auto halves = std::bit_cast<std::array<std::uint64_t, 2>>(same);
        // No bit is there twice, so the sum of the four parts, the highest of the product, is all of them.
        return static_cast<std::uint16_t>((halves[0] | halves[1]) * 0x0001000100010001 >> 48);
    }
};

class Line {
public:
    explicit Line(const LineForm& form)
        : form_(form), weights_(weights(form.index_bits)), top_((1 << form.index_bits) - 1), all_weights_(all_weights(form.index_bits)) {}

    /// All colors first. False where there are more than the line has places.
    bool add(const Texel& texel, std::uint16_t where) {
        Texel color{};
        for (std::size_t k = 0; k < form_.channels; ++k) color[k] = texel[form_.channel[k]];
        if (form_.some_channels) {  // in which different colors may be the same
            const auto same = std::find(colors_.begin(), colors_.begin() + static_cast<std::ptrdiff_t>(count_), color);
            if (const auto at = static_cast<std::size_t>(same - colors_.begin()); at < count_) return where_[at] |= where, true;
        }
        if (count_ > static_cast<std::size_t>(top_)) return false;
        where_[count_] = where;
        colors_[count_++] = color;
        return true;
    }

    /// Whether the colors can be on a line: none is off it by more than rounding explains.
    bool plausible() {
        int widest = -1;
        for (std::size_t k = 0; k < form_.channels; ++k) {
            int low = 255, high = 0;
            for (std::size_t n = 0; n < count_; ++n) low = std::min<int>(low, colors_[n][k]), high = std::max<int>(high, colors_[n][k]);
            order_[k] = k;
            if (high - low > widest) widest = high - low, main_ = k;
        }
        std::swap(order_[0], order_[main_]);
        for (std::size_t n = 0; n < count_; ++n) {
            if (colors_[n][main_] < colors_[low_][main_]) low_ = n;
            if (colors_[n][main_] > colors_[high_][main_]) high_ = n;
        }
        // An end's rounding and a color's own are half a step each, along and across.
        for (std::size_t k = 0; k < form_.channels; ++k) {
            const int rise = colors_[high_][k] - colors_[low_][k];
            for (std::size_t n = 0; n < count_; ++n) {
                const int off = (colors_[n][k] - colors_[low_][k]) * widest - (colors_[n][main_] - colors_[low_][main_]) * rise;
                if (std::abs(off) > 2 * std::max(widest, 1)) return false;
            }
        }
        return true;
    }

    bool solve(unsigned budget) {
        if (count_ == 0) return true;
        budget_ = static_cast<int>(budget);
        const bool one = count_ == 1;
        // At the first and the last place is an end itself.
        const bool first_is_end = is_end(colors_[low_]), last_is_end = is_end(colors_[high_]);
        for (int apart = one ? 0 : top_; apart >= (one ? 0 : 1); --apart)
            for (int i = 0; i + apart <= top_ && (!one || i <= top_ / 2); ++i) {
                if ((i == 0 && !first_is_end) || (i + apart == top_ && !last_is_end)) continue;
                Places all;
                all.fill(static_cast<std::uint16_t>((2u << top_) - 1));
                all[low_] = static_cast<std::uint16_t>(1u << i);
                all[high_] = static_cast<std::uint16_t>(1u << (i + apart));
                if (channel(0, i, i + apart, all)) return true;
                if (--budget_ <= 0) return false;
            }
        return false;
    }

    /// What solve() found. `to`: the first channel of the codes.
    void give(Choice& choice, std::size_t subset, std::size_t to, std::array<std::uint8_t, 16>& index) const {
        for (std::size_t k = 0; k < form_.channels; ++k)
            for (std::size_t end = 0; end < 2; ++end) choice.code[2 * subset + end][to + k] = static_cast<std::uint8_t>(code_[k][end]);
        for (std::size_t n = 0; n < count_; ++n)
            for (std::uint32_t rest = where_[n]; rest != 0; rest &= rest - 1)
                index[static_cast<std::size_t>(std::countr_zero(rest))] = place_[n];
    }

private:
    using Places = std::array<std::uint16_t, 16>;  ///< by color, the indices that can be its own, a bit each

    /// Whether codes give exactly this color.
    bool is_end(const Texel& color) const {
        std::uint32_t parities = 0;
        for (std::size_t k = 0; k < form_.channels; ++k) {
            const auto code = codes.least[form_.bits[k]][color[k]];
            if (expand(code, form_.bits[k]) != color[k]) return false;
            parities |= 1u << (code & 1);
        }
        return form_.parity == Parity::none || (form_.parity == Parity::odd ? parities == 2 : parities != 3);
    }

    /// Codes for the channel of that rank that put the outermost colors at indices i and j and leave every other color an index; then the
    /// channels behind it.
    bool channel(std::size_t rank, int i, int j, const Places& before) {
        if (rank == form_.channels) {
            for (std::size_t n = 0; n < count_; ++n) place_[n] = static_cast<std::uint8_t>(std::countr_zero(before[n]));
            return true;
        }
        const auto k = order_[rank];
        const auto bits = form_.bits[k];
        const auto& least = codes.least[bits];
        const int v = colors_[low_][k], w = colors_[high_][k], wi = weights_[i], wj = weights_[j];
        // With values off by half a step at most, the first end lies between these.
        int from = 0, to = 255;
        if (wi == 0) from = to = v;
        else if (i != j) {
            const int span = wj - wi, middle = v * wj - w * wi, slack = (wi + wj + 1) / 2 + 1;
            from = std::clamp(divided_up(middle - slack, span), 0, 256);
            to = divided_down(middle + slack, span);
        }
        for (int a = least[static_cast<std::size_t>(from)]; a < 1 << bits; ++a) {
            const int first = expand(a, bits);
            if (first > to) break;
            if (!first_suits(rank, a)) continue;
            int low = first, high = first;
            if (wj == 64) low = high = w;
            else if (wj > 0) {
                low = std::clamp(divided_up(64 * w - 32 - first * (64 - wj), wj), 0, 256);
                high = divided_down(64 * w + 31 - first * (64 - wj), wj);
            }
            for (int b = least[static_cast<std::size_t>(low)]; b < 1 << bits; ++b) {
                const int second = expand(b, bits);
                if (second > high) break;
                if (!second_suits(rank, a, b)) continue;
                if (--budget_ < 0) return false;
                auto after = before;
                if (!narrowed(k, first, second, after)) continue;
                code_[k] = {a, b};
                if (channel(rank + 1, i, j, after)) return true;
                if (budget_ <= 0) return false;
            }
        }
        return false;
    }

    bool first_suits(std::size_t rank, int a) const {
        if (rank > 0 && form_.parity != Parity::none) return (a & 1) == (code_[main_][0] & 1);
        return form_.parity != Parity::odd || (a & 1) == 1;
    }
    bool second_suits(std::size_t rank, int a, int b) const {
        if (rank > 0 && form_.parity != Parity::none) return (b & 1) == (code_[main_][1] & 1);
        return form_.parity == Parity::none || form_.parity == Parity::own || (b & 1) == (a & 1);
    }

    /// Leaves each color the indices that give its value in channel k; false where none is left.
    bool narrowed(std::size_t k, int a, int b, Places& places) const {
        const Palette palette(a, b, all_weights_);
        for (std::size_t n = 0; n < count_; ++n)
            if ((places[n] &= palette.places_of(colors_[n][k])) == 0) return false;
        return true;
    }

    const LineForm& form_;
    const std::uint8_t* weights_;
    int top_, budget_ = 0;
    const Weights& all_weights_;
    std::array<Texel, 16> colors_;
    std::array<std::uint16_t, 16> where_;
    std::array<std::uint8_t, 16> place_;
    std::size_t count_ = 0, main_ = 0, low_ = 0, high_ = 0;
    std::array<std::size_t, 4> order_{};
    std::array<std::array<int, 2>, 4> code_{};
};

}  // namespace

Recall::Recall(const Texel* block) {
    std::array<std::uint32_t, 16> seen;
    for (std::size_t i = 0; i < 16; ++i) {
        const auto mine = std::bit_cast<std::uint32_t>(block[i]);
        std::size_t at = 0;
        while (at < count_ && seen[at] != mine) ++at;
        if (at == count_) seen[count_] = mine, color_[count_++] = block[i];
        where_[at] |= static_cast<std::uint16_t>(1u << i);
        opaque_ = opaque_ && block[i][3] == 255;
    }
}

bool Recall::solve(Choice& choice, unsigned budget) const {
    const auto& mode = modes[choice.mode];
    const auto p = static_cast<std::uint8_t>(mode.own_p_bits || mode.shared_p_bits);
    const auto color = static_cast<std::uint8_t>(mode.color_bits + p), alpha = static_cast<std::uint8_t>(mode.alpha_bits + p);
    LineForm form{{0, 1, 2, 3}, {color, color, color, alpha}};
    form.parity = mode.own_p_bits ? Parity::own : mode.shared_p_bits ? Parity::shared : Parity::none;
    form.index_bits = choice.selector ? mode.second_index_bits : mode.index_bits;
    form.channels = 3;
    if (mode.second_index_bits > 0) {
        LineForm alone{{3, 0, 0, 0}, {alpha, 0, 0, 0}};
        form.some_channels = alone.some_channels = true;
        alone.channels = 1;
        alone.index_bits = choice.selector ? mode.index_bits : mode.second_index_bits;
        if (choice.rotation) std::swap(form.channel[choice.rotation - 1], alone.channel[0]);
        Line rgb(form), one(alone);
        for (std::size_t n = 0; n < count_; ++n)
            if (!rgb.add(color_[n], where_[n]) || !one.add(color_[n], where_[n])) return false;
        if (!rgb.plausible() || !one.plausible() || !one.solve(budget) || !rgb.solve(budget)) return false;
        rgb.give(choice, 0, 0, choice.color_index);
        one.give(choice, 0, 3, choice.alpha_index);
        return true;
    }
    if (mode.alpha_bits == 0 && !opaque_) return false;
    // Where alpha is 255 everywhere, so are both its ends.
    if (mode.alpha_bits > 0 && opaque_) form.parity = Parity::odd;
    else if (mode.alpha_bits > 0) form.channels = 4;
    const auto& subsets = members().of[mode.subsets][choice.partition];
    for (std::size_t s = 0; s < mode.subsets; ++s) {
        Line line(form);
        for (std::size_t n = 0; n < count_; ++n)
            if (const auto where = static_cast<std::uint16_t>(where_[n] & subsets[s]); where && !line.add(color_[n], where)) return false;
        if (!line.plausible() || !line.solve(budget)) return false;
        line.give(choice, s, 0, choice.color_index);
        for (std::size_t end = 0; form.parity == Parity::odd && end < 2; ++end)
            choice.code[2 * s + end][3] = static_cast<std::uint8_t>((1u << alpha) - 1);
    }
    return true;
}

}  // namespace skivet::bptc
