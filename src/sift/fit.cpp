#include "sift/fit.h"

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <functional>

namespace skivet {
namespace {

constexpr std::size_t least_texels = 64 * 64;
constexpr std::size_t most_begins = 24, most_looked_at = 16384;
constexpr std::size_t least_height = 16;  // texels

/// Mean differences of a level of half the sides to the picture halved, and to the picture halved and moved by a part of its sides.
std::pair<double, double> level_difference(const std::uint8_t* top, const std::uint8_t* level, std::size_t width, std::size_t height,
                                           std::size_t step) {
    const auto w = width / 2, h = height / 2;
    const auto mean = [&](std::size_t x, std::size_t y) {
        const auto* p = top + 2 * y * width + 2 * x;
        return (p[0] + p[1] + p[width] + p[width + 1] + 2) / 4;
    };
    std::size_t n = 0;
    std::uint64_t same = 0, moved = 0;
    for (std::size_t i = 0; i < w * h; i += step, ++n) {
        const auto x = i % w, y = i / w;
        const auto aside = x + w * 3 / 8, under = y + h / 2;
        same += static_cast<unsigned>(std::abs(mean(x, y) - int{level[i]}));
        moved += static_cast<unsigned>(std::abs(mean(aside < w ? aside : aside - w, under < h ? under : under - h) - int{level[i]}));
    }
    return n ? std::pair{static_cast<double>(same) / static_cast<double>(n), static_cast<double>(moved) / static_cast<double>(n)}
             : std::pair{0.0, 0.0};
}

class Fitter {
public:
    Fitter(const Cells& cells, const Rows& rows, std::size_t from, std::size_t to)
        : m_(cells.bright), cells_(cells), rows_(rows), w_(rows.width), from_(from), to_(to) {
        // Differences are taken for exponentially distributed, with one mean in the picture and another outside.
        in_ = std::max(rows.under, 0.6);
        out_ = std::max(rows.far, in_ * 1.4);
        flat_ = static_cast<std::size_t>(std::max(2.0, std::ceil(1.5 * in_)));
        flat_weight_ = -0.03 / static_cast<double>(w_);
        for (std::size_t d = 0; d < evidence_.size(); ++d)
            evidence_[d] = std::clamp(std::log(out_ / in_) - static_cast<double>(d) * (1 / in_ - 1 / out_), -2.0, 2.0);
    }

    std::optional<Fit> best() {
        reach();
        struct Try {
            double score, bare;  ///< bare: without what speaks for cells outside level 0
            std::size_t begin, height;
        };
        std::vector<Try> tries;
        for (const auto& [begin, prior] : begin_places())
            for (const auto height : heights(begin)) {
                const auto end = begin + w_ * height;
                if (end > to_ || height * cells_.side < least_height || height * w_ * cells_.side * cells_.side < least_texels) continue;
                const auto bare = prior + rows_score(begin, end) + size_prior(height) + border(begin) + border(end - 2 * w_);
                tries.push_back({bare + members(begin, end) + rest(end), bare, begin, height});
            }
        // Levels are looked for where the rows alone make it likely, and coarsely everywhere.
        std::sort(tries.begin(), tries.end(), [](const Try& a, const Try& b) { return a.score > b.score; });
        std::optional<Fit> best;
        double best_score = 0;
        const auto keep = [&](const Fit& fit, double score) {
            if (best && score <= best_score) return;
            best = fit;
            best_score = score;
        };
        for (std::size_t i = 0; i < tries.size(); ++i) {
            const auto& t = tries[i];
            Fit fit;
            fit.top = fit.first = t.begin;
            fit.width = w_;
            fit.height = t.height;
            fit.end = t.begin + w_ * t.height;
            keep(fit, t.score);
            const bool square = t.height == w_ || t.height == 2 * w_ || 2 * t.height == w_;
            if (i >= 48 && !square) continue;
            const std::size_t samples = i < 24 ? 256 : 48;
            const auto chain = chain_cells(t.height);
            if (const auto after = halved(t.begin, w_, t.height, fit.end, samples); after > 16) {
                fit.levels_shown = true;
                keep(fit, t.bare + after + members(t.begin, fit.end + chain) + rest(fit.end + chain));
            } else if (square && t.begin >= chain) {
                const auto before = level_before(t.begin, t.height, samples);
                if (before <= 16) continue;
                fit.levels_shown = fit.smallest_first = true;
                keep(fit, t.bare + before + members(t.begin - chain, fit.end) + rest(fit.end));
            }
        }
        if (!best) return best;
        if (best->levels_shown) refine(*best);
        count_levels(*best);
        if (!holds(*best)) return std::nullopt;
        return best;
    }

private:
    const std::vector<std::uint8_t>& m_;
    const Cells& cells_;
    const Rows& rows_;
    std::size_t w_, from_, to_;
    double in_ = 1, out_ = 2, off_ = 0;
    std::size_t low_ = 0, high_ = 0;    ///< the cells that are weighed
    std::vector<double> sum_, member_;  ///< of weight(c), of Cells::member, over [low_, c)
    std::vector<double> top_;           ///< the largest sum of both from here on

    std::size_t flat_ = 2;  ///< differences that are nothing to see
    double flat_weight_ = 0;
    std::array<double, 256> evidence_{};  ///< for a difference, that it is one inside the picture
    /// What cell c and the one under it say, where there is anything to see.
    [[nodiscard]] double weight(std::size_t c, std::size_t aside) const {
        const int here = m_[c];
        const auto d = static_cast<std::size_t>(std::abs(here - int{m_[c + w_]}));
        // Where all is alike nothing is said: padding, but also a flat part of the picture.
        if (d < flat_ && static_cast<std::size_t>(std::abs(here - int{m_[c + aside]})) < flat_ &&
            static_cast<std::size_t>(std::abs(here - int{m_[c + w_ - aside]})) < flat_)
            return flat_weight_;
        return evidence_[d];
    }
    /// How much speaks for the cells of [from, to) being in one picture with those under them.
    [[nodiscard]] double under(std::size_t from, std::size_t to) const { return sum(sum_, from, to); }
    /// … for being of the format.
    [[nodiscard]] double members(std::size_t from, std::size_t to) const { return sum(member_, from, to); }
    [[nodiscard]] double sum(const std::vector<double>& sums, std::size_t from, std::size_t to) const {
        return sums[std::clamp(to, low_, high_) - low_] - sums[std::clamp(from, low_, high_) - low_];
    }

    void reach() {
        const auto around = 4 * w_ + 512;
        low_ = rows_.from > from_ + around ? rows_.from - around : from_;
        high_ = std::min(to_, rows_.to + around);
        // Flat parts may belong to it.
        while (low_ > from_ && m_[low_ - 1] == m_[low_]) --low_;
        while (high_ < to_ && m_[high_] == m_[high_ - 1]) ++high_;
        sum_.assign(high_ - low_ + 1, 0);
        member_ = sum_;
        const auto inside = std::min(high_, m_.size() > w_ ? m_.size() - w_ : 0);  // with a cell under it
        double sum = 0;
        const auto aside = w_ * 5 / 8;
        for (auto c = low_; c < inside; ++c) sum_[c - low_ + 1] = sum += weight(c, aside);
        for (auto c = std::max(low_, inside); c < high_; ++c) sum_[c - low_ + 1] = sum -= 0.2;
        if (!cells_.member.empty()) {
            // Between what cells say inside and outside, so that outside they speak against it whatever lies there.
            const auto from = rows_.from + (rows_.to - rows_.from) / 4, to = rows_.to - (rows_.to - rows_.from) / 4;
            double inside_mean = 0;
            for (auto c = from; c < to; ++c) inside_mean += cells_.member[c];
            if (to > from) inside_mean /= 16.0 * static_cast<double>(to - from);
            off_ = std::max(0.0, inside_mean / 2);
            sum = 0;
            for (auto c = low_; c < high_; ++c)
                member_[c - low_ + 1] = sum += cells_.member[c] == 0 ? 0 : cells_.member[c] * (1.0 / 16) - off_;
        }
        top_ = sum_;
        for (std::size_t i = 0; i < top_.size(); ++i) top_[i] += member_[i];
        for (auto i = top_.size() - 1; i-- > 0;) top_[i] = std::max(top_[i], top_[i + 1]);
    }

    /// Speaks for multiples of large powers of two.
    [[nodiscard]] double place_prior(std::size_t begin) const {
        const auto at = cells_.at + begin * cells_.bytes;
        return at == 0 ? 6 : 0.6 * std::min(12, std::countr_zero(at));
    }

    /// A frame: the outermost row may be unlike the next one. What that costs is given back but for a little.
    [[nodiscard]] double border(std::size_t row) const {
        constexpr double most = 6;
        return std::max(0.0, -most - under(row, row + w_));
    }

    std::vector<std::pair<std::size_t, double>> begin_places() const {
        auto core = std::min(high_ - 1, rows_.from + 4 * w_ + 512);
        while (core + 1 < high_ && m_[core + 1] == m_[core]) ++core;
        std::vector<std::pair<std::size_t, double>> out;
        for (auto c = low_; c <= core; ++c) {
            // Inside a flat part one place is as good as another.
            if (c > low_ && c < core && m_[c] == m_[c - 1] && m_[c] == m_[c + 1] && (cells_.at + c * cells_.bytes) % 4096 != 0) continue;
            out.emplace_back(c, under(c, core) + members(c, core) + place_prior(c) + border(c));
        }
        const auto better = [](const auto& a, const auto& b) { return a.second > b.second; };
        if (out.size() > most_begins) {
            std::nth_element(out.begin(), out.begin() + most_begins, out.end(), better);
            // What has levels shows where it begins by them: the best of the others are tried, too.
            std::vector<std::pair<double, std::size_t>> shown;
            const auto step = std::max<std::size_t>(1, out.size() / most_looked_at);
            for (auto i = most_begins; i < out.size(); i += step)
                if (const auto e = levels_begin(out[i].first); e > 0) shown.emplace_back(e, out[i].first);
            out.resize(most_begins);
            const auto kept = std::min(shown.size(), most_begins);
            std::partial_sort(shown.begin(), shown.begin() + static_cast<std::ptrdiff_t>(kept), shown.end(), std::greater<>());
            for (std::size_t i = 0; i < kept; ++i) out.emplace_back(shown[i].second, 0);
        }
        // Where the end is sharp and the beginning flat, sizes that textures usually have say where it begins.
        const auto end = static_cast<std::size_t>(std::max_element(sum_.begin(), sum_.end(),
                                                                   [&](const double& a, const double& b) {
                                                                       return a + member_[static_cast<std::size_t>(&a - sum_.data())] <
                                                                              b + member_[static_cast<std::size_t>(&b - sum_.data())];
                                                                   }) -
                                                  sum_.begin()) +
                         low_;
        for (const auto last : {end, end + w_})
            for (std::size_t h = std::max<std::size_t>(1, least_height / cells_.side); h * w_ <= last - low_; h *= 2)
                if (last - h * w_ <= core) out.emplace_back(last - h * w_, 0);
        // … and a flat part begins where it begins.
        for (auto c = low_, run = low_; c < core; ++c) {
            if (c + 1 < core && m_[c + 1] == m_[c]) continue;
            if (c - run >= 2 * w_ || (c - run >= 32 && run == low_)) out.emplace_back(run, 0);
            run = c + 1;
        }
        for (auto& o : out) o.second = place_prior(o.first);
        return out;
    }

    /// How much speaks for a square, or half or twice one, that begins here and is followed by itself halved.
    [[nodiscard]] double levels_begin(std::size_t begin) const {
        double best = 0;
        for (const auto height : {w_, w_ / 2, w_ * 2})
            if (begin + w_ * height < to_) best = std::max(best, halved(begin, w_, height, begin + w_ * height, 24));
        return best;
    }

    [[nodiscard]] std::vector<std::size_t> heights(std::size_t begin) const {
        std::vector<std::size_t> out;
        const auto most = (to_ - begin) / w_;
        for (std::size_t h = std::max<std::size_t>(1, 16 / cells_.side); h <= most; h *= 2) out.push_back(h);
        for (std::size_t h = std::max<std::size_t>(3, 48 / cells_.side); h <= most; h *= 2) out.push_back(h);
        const auto near = rows_.to > begin ? (rows_.to - begin) / w_ : 0;
        for (auto h = near > 4 ? near - 4 : 1; h <= std::min(most, near + 4); ++h) out.push_back(h);
        if (w_ <= most) out.push_back(w_);
        std::sort(out.begin(), out.end());
        out.erase(std::unique(out.begin(), out.end()), out.end());
        return out;
    }

    /// The rows in the picture fit, the last one does not fit over what follows.
    [[nodiscard]] double rows_score(std::size_t begin, std::size_t end) const {
        const auto last = end - w_;
        return under(begin, last) - std::clamp(under(last, end), -60.0, 60.0);
    }
    /// What follows may be another picture.
    [[nodiscard]] double rest(std::size_t end) const {
        const auto best = top_[std::clamp(end, low_, high_) - low_] - under(low_, end) - members(low_, end);
        return std::max(0.0, best - 250 - 2.5 * static_cast<double>(w_));
    }
    /// Cells of all levels but the first.
    [[nodiscard]] std::size_t chain_cells(std::size_t height) const {
        std::size_t out = 0;
        const auto full = static_cast<unsigned>(std::bit_width(std::max(w_, height) * cells_.side));
        for (unsigned level = 1; level < full; ++level) out += level_cells(w_, level) * level_cells(height, level);
        return out;
    }

    [[nodiscard]] double size_prior(std::size_t height) const {
        const auto texels = height * cells_.side;
        double out = 0;
        // Much, because cells beside each other say the same again and again.
        if (std::has_single_bit(texels)) out += 200;
        else if (std::has_single_bit(texels / 3) && texels % 3 == 0) out += 60;
        else if (texels % 4 != 0) out -= 30;
        if (height == w_) out += 20;
        else if (height * 2 == w_ || height == 2 * w_) out += 10;
        return out;
    }

    /// How much speaks for a level of half the sides at `at`, of the one at `begin`.
    [[nodiscard]] double halved(std::size_t begin, std::size_t width, std::size_t height, std::size_t at, std::size_t samples = 256) const {
        const auto w = width / 2, h = height / 2;
        if (w * h < 24 || at + w * h > m_.size()) return 0;
        const auto step = std::max<std::size_t>(1, w * h / samples) | 1;
        double sum = 0;
        std::size_t count = 0, seen = 0, same = 0, other = 0;
        // Counted on from sample to sample: this is asked millions of times, and a division takes longer than all the rest.
        const auto right = step % w, down = step / w;
        std::size_t x = 0, y = 0, moved = (w * 3 / 8 + w) % (w * h);
        const auto advance = [&] {
            x += right, y += down;
            if (x >= w) x -= w, ++y;
            moved += step;
            if (moved >= w * h) moved -= w * h;
        };
        for (std::size_t i = 0; i < w * h; i += step, ++count, advance()) {
            const auto* from = m_.data() + begin + 2 * y * width + 2 * x;
            const auto mean = (from[0] + from[1] + from[width] + from[width + 1] + 2) / 4;
            const auto elsewhere = int{m_[at + moved]};
            const auto here = static_cast<std::size_t>(std::abs(mean - int{m_[at + i]}));
            if (std::max<std::size_t>(here, static_cast<std::size_t>(std::abs(mean - elsewhere))) < 2) continue;
            ++seen;
            same += here;
            other += static_cast<std::size_t>(std::abs(mean - elsewhere));
            sum += evidence_[here];
        }
        // A level is the picture again: a mean of four is a little nearer to any cell than another cell is, which says nothing.
        if (seen < 12 || same * 20 > other * 11) return std::min(sum, 0.0);
        return sum * static_cast<double>(w * h) / static_cast<double>(count);
    }
    [[nodiscard]] double level_before(std::size_t begin, std::size_t height, std::size_t samples) const {
        const auto size = (w_ / 2) * (height / 2);
        return begin >= size ? halved(begin, w_, height, begin - size, samples) : 0;
    }

    /// The levels show to a cell where it begins.
    void refine(Fit& fit) const {
        const auto cells = w_ * fit.height, level = (w_ / 2) * (fit.height / 2);
        const auto reach = 8 * w_ + 512;
        const auto shown = [&](std::size_t begin, std::size_t samples) {
            return halved(begin, w_, fit.height, fit.smallest_first ? begin - level : begin + cells, samples) + place_prior(begin);
        };
        std::vector<std::pair<double, std::size_t>> places;
        const auto from = std::max(fit.top > from_ + reach ? fit.top - reach : from_, fit.smallest_first ? level : 0);
        for (auto begin = from; begin <= fit.top + reach && begin + cells <= to_; ++begin) places.emplace_back(shown(begin, 64), begin);
        const auto kept = std::min<std::size_t>(places.size(), 24);
        std::partial_sort(places.begin(), places.begin() + static_cast<std::ptrdiff_t>(kept), places.end(), std::greater<>());
        double most = -1e9;
        for (std::size_t i = 0; i < kept; ++i) {
            const auto begin = places[i].second;
            const auto all = shown(begin, 4096);
            if (all <= most) continue;
            most = all;
            fit.top = fit.first = begin;
            fit.end = begin + cells;
        }
    }

    /// Whether the rows fit from top to bottom, not only where they were found.
    [[nodiscard]] bool holds(Fit& fit) const {
        constexpr std::size_t bands = 8;
        double under = 0, beside = 0, far = 0;
        std::size_t good = 0, seen = 0;
        const auto cells = w_ * (fit.height - 1);
        for (std::size_t band = 0; band < bands; ++band) {
            const auto from = fit.top + cells * band / bands, to = fit.top + cells * (band + 1) / bands;
            // Far cells are a part of a row to the side, in the same rows.
            const auto shift = std::max<std::size_t>(2, w_ * 3 / 8);
            if (to + w_ + shift > m_.size()) break;
            const auto* at = m_.data() + from;
            const auto count = to - from;
            const auto u = static_cast<double>(apart(at, at + w_, count)), b = static_cast<double>(apart(at, at + 1, count));
            const auto f = static_cast<double>(apart(at, at + shift, count) + apart(at, at + w_ - shift, count)) / 2;
            under += u;
            beside += b;
            far += f;
            if (f < 0.5 * static_cast<double>(count)) continue;
            ++seen;
            good += u < 0.93 * f;
        }
        if (far <= 0) return false;
        fit.likeness = 1 - under / far;
        fit.beside = 1 - beside / far;
        const auto inside = under / static_cast<double>(cells), outside = far / static_cast<double>(cells);
        const auto edge = [&](std::size_t upper, std::size_t strange) {  // rows from `upper` on, of which `strange` is no part
            const auto* row = m_.data() + strange;
            if (std::all_of(row, row + w_, [&](auto v) { return v == *row; })) return 0.7;  // padding
            const auto step = static_cast<double>(apart(m_.data() + upper, m_.data() + upper + w_, w_)) / static_cast<double>(w_);
            return std::clamp((step - inside) / std::max(outside - inside, 0.5), 0.0, 1.0);
        };
        fit.member = members(fit.first, fit.end) / static_cast<double>(fit.end - fit.first) + off_;
        const auto end = fit.top + w_ * fit.height;
        const auto above = fit.top >= w_ ? edge(fit.top - w_, fit.top - w_) : 1.0;
        const auto below = end + w_ <= m_.size() ? edge(end - w_, end) : 1.0;
        fit.edges = fit.levels_shown ? (fit.smallest_first ? below : above) : std::sqrt(above * below);
        return fit.levels_shown ? fit.likeness > 0.03 : good * 8 >= seen * 5 && fit.likeness > 0.12;
    }

    [[nodiscard]] std::size_t level_cells(std::size_t side, unsigned level) const {
        const auto texels = std::max<std::size_t>(1, side * cells_.side >> level);
        return (texels + cells_.side - 1) / cells_.side;
    }
    void count_levels(Fit& fit) const {
        if (!fit.levels_shown) return;
        const auto full = static_cast<unsigned>(std::bit_width(std::max(fit.width, fit.height) * cells_.side));
        auto begin = fit.top;
        auto width = fit.width, height = fit.height;
        unsigned levels = 1;
        auto edge = fit.smallest_first ? fit.top : fit.end;
        // As long as a level has enough to compare; the smallest ones are taken to be there with them.
        while (levels < full) {
            const auto w = level_cells(fit.width, levels), h = level_cells(fit.height, levels);
            if (fit.smallest_first ? edge < w * h : edge + w * h > m_.size()) break;
            const auto at = fit.smallest_first ? edge - w * h : edge;
            if (width == 2 * w && height == 2 * h && halved(begin, width, height, at) < 0) break;
            edge = fit.smallest_first ? at : at + w * h;
            begin = at;
            width = w;
            height = h;
            ++levels;
        }
        fit.mips = levels;
        (fit.smallest_first ? fit.first : fit.end) = edge;
    }
};

}  // namespace

std::optional<Fit> fit_size(const Cells& cells, std::size_t from, std::size_t to) {
    const auto& m = cells.bright;
    if (cells.member.empty()) return std::nullopt;
    // The stretch whose cells are most of all of the format; then again, with what lies between inside and outside taken off.
    std::size_t first = from, last = from;
    double mean = 0;
    for (const double share : {0.0, 0.5}) {
        const auto off = share * mean;
        const auto run = largest_run(from, to, [&](std::size_t c) { return cells.member[c] / 16.0 - off; });
        if (run.to == run.from) return std::nullopt;
        first = run.from;
        last = run.to;
        mean = run.sum / static_cast<double>(last - first) + off;
    }
    const auto parts = [&](std::size_t side, unsigned level) {
        return (std::max<std::size_t>(1, side >> level) + cells.side - 1) / cells.side;
    };
    std::optional<Fit> best;
    double most = 0;
    for (std::size_t w = 64; w <= 1024; w *= 2)
        for (const auto h : {w, w / 2, 2 * w}) {
            if (w * h < least_texels) continue;
            const auto full = static_cast<std::uint32_t>(std::bit_width(std::max(w, h)));
            for (const auto mips : {full, 1u}) {
                std::size_t size = 0;
                for (unsigned level = 0; level < mips; ++level) size += parts(w, level) * parts(h, level);
                const auto slack = 6 + size / 40;
                if (size > last - first + slack || size + slack < last - first) continue;
                const auto width = w / cells.side, height = h / cells.side;
                for (auto at = first > slack ? std::max(from, first - slack) : from; at <= first + slack && at + size <= to; ++at) {
                    // Cells under each other, and a level below, beside others.
                    double shown = 0;
                    const auto rows = width * (height - 1), aside = width * 3 / 8;
                    const auto under = static_cast<double>(apart(m.data() + at, m.data() + at + width, rows));
                    const auto far = static_cast<double>(apart(m.data() + at, m.data() + at + width - aside, rows) +
                                                         apart(m.data() + at, m.data() + at + aside, rows)) /
                                     2;
                    if (far <= 0) continue;
                    shown = (1 - under / far) * std::sqrt(static_cast<double>(rows));
                    bool levels = false;
                    if (mips > 1) {
                        const auto [same, moved] = level_difference(m.data() + at, m.data() + at + width * height, width, height,
                                                                    std::max<std::size_t>(1, width * height / 8192) | 1);
                        levels = moved > 1 && same < 0.6 * moved;
                        shown += moved > 0 ? 3 * (1 - same / moved) * std::sqrt(static_cast<double>(width * height / 4)) : 0;
                    }
                    // Nearer to the ends, at a usual place, not long.
                    shown -= 0.3 * static_cast<double>(std::max(at, first) - std::min(at, first) + std::max(at + size, last) -
                                                       std::min(at + size, last));
                    shown += 0.1 * std::min(12, std::countr_zero(cells.at + at * cells.bytes)) + (w == h ? 0.5 : 0);
                    if (shown <= most) continue;
                    most = shown;
                    Fit fit;
                    fit.first = fit.top = at;
                    fit.end = at + size;
                    fit.width = width;
                    fit.height = height;
                    fit.mips = mips;
                    fit.levels_shown = levels;
                    fit.likeness = 1 - under / far;
                    fit.beside = 0.2;
                    fit.edges = 1;
                    fit.member = mean;
                    fit.by_size = true;
                    best = fit;
                }
            }
        }
    // By chance hardly anything is as long as a texture, and shows rows or levels as well.
    if (best && most < 2.5) return std::nullopt;
    return best;
}

std::optional<Fit> fit_rows(const Cells& cells, const Rows& rows, std::size_t from, std::size_t to) {
    return Fitter(cells, rows, from, to).best();
}

}  // namespace skivet
