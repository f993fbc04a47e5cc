#include "catalog/alike.h"

#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#include <algorithm>
#include <cmath>

#include "catalog/window_scan.h"
#include "pixel/mips.h"

namespace skivet {
namespace {

constexpr int side = static_cast<int>(PicturePattern::side);
constexpr std::size_t shortlist = 3000;  // of 100,000 textures; a first comparison by 16 values leaves the right one among them
constexpr float flat = 0.5f;             // standard deviation over 32×32 means, in steps of 255, below which a pattern is rounding's own

/// Part of a texture, in 32nds of its sides.
struct Window {
    float x = 0, y = 0, w = 0, h = 0;
};

const std::array<Window, scan_windows>& all_windows() {
    static const auto windows = [] {
        constexpr std::array<std::array<float, 2>, 8> spans = {{{0, 32}, {0, 24}, {4, 24}, {8, 24}, {0, 16}, {5, 16}, {11, 16}, {16, 16}}};
        std::array<Window, scan_windows> out;
        for (std::size_t i = 0; i < scan_windows; ++i) out[i] = {spans[i % 8][0], spans[i / 8][0], spans[i % 8][1], spans[i / 8][1]};
        return out;
    }();
    return windows;
}

/// Sums over the upper left rectangle, for means over any rectangle with parts of cells.
class Sums {
public:
    explicit Sums(const std::int8_t* values) {
        for (int y = 0; y < side; ++y) {
            int row = 0;
            for (int x = 0; x < side; ++x) {
                row += values[y * side + x];
                at(x + 1, y + 1) = at(x + 1, y) + static_cast<float>(row);
            }
        }
    }
    /// Sums over everything left of and above each point of a grid of (cells + 1)² points laid over a window.
    template <int cells>
    void corners(float left, float top, float width, float height, float* out) const {
        std::array<int, cells + 1> ix;
        std::array<float, cells + 1> fx;
        for (int i = 0; i <= cells; ++i) {
            const float x = left + width * static_cast<float>(i) / cells;
            ix[static_cast<std::size_t>(i)] = std::clamp(static_cast<int>(x), 0, side - 1);
            fx[static_cast<std::size_t>(i)] = x - static_cast<float>(ix[static_cast<std::size_t>(i)]);
        }
        for (int j = 0; j <= cells; ++j) {
            const float y = top + height * static_cast<float>(j) / cells;
            const int iy = std::clamp(static_cast<int>(y), 0, side - 1);
            const float fy = y - static_cast<float>(iy);
            const auto* row = &sums_[static_cast<std::size_t>(iy * (side + 1))];
            for (std::size_t i = 0; i <= cells; ++i) {
                const auto* s = row + ix[i];
                const float above = s[0] + (s[1] - s[0]) * fx[i], below = s[side + 1] + (s[side + 2] - s[side + 1]) * fx[i];
                *out++ = above + (below - above) * fy;
            }
        }
    }

private:
    std::array<float, (side + 1) * (side + 1)> sums_{};
    float& at(int x, int y) { return sums_[static_cast<std::size_t>(y * (side + 1) + x)]; }
};

/// cells × cells means of a window, less their mean; returns their length.
template <int cells>
float pattern(const Sums& sums, const Window& w, float* out) {
    std::array<float, (cells + 1) * (cells + 1)> corners;
    sums.corners<cells>(w.x, w.y, w.w, w.h, corners.data());
    const float area = w.w * w.h / (cells * cells);
    float total = 0;
    for (int y = 0; y < cells; ++y)
        for (int x = 0; x < cells; ++x) {
            const auto* c = corners.data() + y * (cells + 1) + x;
            const float value = (c[cells + 2] - c[cells + 1] - c[1] + c[0]) / area;
            out[y * cells + x] = value;
            total += value;
        }
    const float mean = total / (cells * cells);
    float square = 0;
    for (int i = 0; i < cells * cells; ++i) {
        out[i] -= mean;
        square += out[i] * out[i];
    }
    return std::sqrt(square);
}

/// Sixteen values of length 48 (12 in the mean), cut off at ±31; zeros for what is flat.
void quantize(const float* values, float length, float least, std::int8_t* out, std::size_t stride) {
    for (std::size_t k = 0; k < scan_cells; ++k)
        out[k * stride] =
            length < least ? std::int8_t{0} : static_cast<std::int8_t>(std::lround(std::clamp(values[k] / length * 48, -31.0f, 31.0f)));
}

/// A square pattern mirrored left to right when `turn` is 4 or more, then turned clockwise `turn` % 4 times.
template <class T>
void turned(const T* in, int cells, std::size_t turn, T* out) {
    for (int y = 0; y < cells; ++y)
        for (int x = 0; x < cells; ++x) {
            int sx = x, sy = y;
            for (std::size_t i = 0; i < turn % 4; ++i) {  // where (x, y) of a picture turned clockwise comes from
                const int t = sx;
                sx = sy;
                sy = cells - 1 - t;
            }
            if (turn >= 4) sx = cells - 1 - sx;
            out[y * cells + x] = in[sy * cells + sx];
        }
}

/// An entry's pattern at 32×32 and its deviation.
struct Pattern {
    std::array<std::int8_t, 1024> values;
    float contrast = 0;
};
Pattern pattern_of(const PictureNumbers& f, const PicturePattern& p, bool over) {
    Pattern out{p.luma, f.contrast};
    if (!over) return out;
    out.contrast = f.over_contrast;
    for (std::size_t i = 0; i < out.values.size(); ++i) out.values[i] = p.over[i / 32 / 2 * PicturePattern::over_side + i % 32 / 2];
    return out;
}

/// The query in one turn.
struct Query {
    std::array<float, 256> pattern{};     ///< 16×16, length 1
    std::array<float, 64> half{};         ///< 8×8, length 1
    std::array<float, 16> blue{}, red{};  ///< 4×4
};

/// -1…1. `least`: how long 16×16 values must be not to be flat.
template <int cells>
float agreement(const Query& query, const Sums& sums, const Window& w, float least) {
    std::array<float, cells * cells> values;
    const float length = pattern<cells>(sums, w, values.data());
    if (length < least * cells / 16) return 0;
    const float* asked = cells == 16 ? query.pattern.data() : query.half.data();
    float dot = 0;
    for (std::size_t i = 0; i < values.size(); ++i) dot += values[i] * asked[i];
    return dot / length;
}

/// How much farther than half of the ordinary difference the colors are, 0 … 1.
float off_color(const Query& query, const PicturePattern& f, const Window& w) {
    constexpr int cs = static_cast<int>(PicturePattern::chroma_side);
    float sum = 0;
    std::array<int, 8> across, down;  // two samples a cell and axis, so that the whole window takes every value once
    for (std::size_t i = 0; i < 8; ++i) {
        const float at = (static_cast<float>(i) + 0.5f) / 8;
        across[i] = std::clamp(static_cast<int>((w.x + w.w * at) * cs / side), 0, cs - 1);
        down[i] = std::clamp(static_cast<int>((w.y + w.h * at) * cs / side), 0, cs - 1);
    }
    for (std::size_t y = 0; y < 4; ++y)
        for (std::size_t x = 0; x < 4; ++x) {
            float blue = 0, red = 0;
            for (std::size_t k = 0; k < 4; ++k) {
                const auto j = static_cast<std::size_t>(down[2 * y + k / 2] * cs + across[2 * x + k % 2]);
                blue += f.blue[j], red += f.red[j];
            }
            sum += std::abs(query.blue[y * 4 + x] - blue / 4) + std::abs(query.red[y * 4 + x] - red / 4);
        }
    return std::min(1.0f, sum / (32 * 60));
}

}  // namespace

namespace {

constexpr auto each = scan_windows * scan_cells;

/// A picture asked for in one form (its colors, or over gray), in all turns.
struct Asked {
    std::array<std::int8_t, scan_turns * scan_cells> coarse{};
    std::array<Query, scan_turns> fine;
    std::array<std::array<std::int8_t, 1024>, scan_turns> whole{};  ///< 32×32
    float whole_length = 1;
    bool fine_grain = false;  ///< 4×4 means hold next to nothing of the pattern
};

/// The best agreement of all 32×32 values in any turn.
float whole_agreement(const Asked& asked, const Pattern& here, std::size_t* best_turn = nullptr) {
    std::int32_t own = 0, best = 0;
    for (const auto v : here.values) own += v * v;
    for (std::size_t turn = 0; turn < scan_turns; ++turn) {
        std::int32_t dot = 0;
        for (std::size_t i = 0; i < here.values.size(); ++i) dot += asked.whole[turn][i] * here.values[i];
        if (dot <= best) continue;
        best = dot;
        if (best_turn) *best_turn = turn;
    }
    return static_cast<float>(best) / (asked.whole_length * std::sqrt(std::max(1.0f, static_cast<float>(own))));
}

Asked ask_for(const PictureFacts& facts, bool over) {
    Asked out;
    const auto pattern_there = facts.pattern();
    const auto from = pattern_of(facts, pattern_there, over);
    const Sums sums(from.values.data());
    constexpr Window whole{0, 0, side, side};
    std::array<float, 256> fine;
    const float length = std::max(1e-3f, pattern<16>(sums, whole, fine.data()));
    std::array<float, scan_cells> coarse;
    const float coarse_length = pattern<4>(sums, whole, coarse.data());
    for (auto& v : fine) v /= length;
    std::array<float, 64> half;
    const float half_length = std::max(1e-3f, pattern<8>(sums, whole, half.data()));
    for (auto& v : half) v /= half_length;
    std::array<float, 16> blue, red;
    for (std::size_t y = 0; y < 4; ++y)
        for (std::size_t x = 0; x < 4; ++x) {
            const auto cell = [&](const auto& c) {
                return static_cast<float>(c[y * 16 + x * 2] + c[y * 16 + x * 2 + 1] + c[y * 16 + x * 2 + 8] + c[y * 16 + x * 2 + 9]) / 4;
            };
            blue[y * 4 + x] = cell(pattern_there.blue), red[y * 4 + x] = cell(pattern_there.red);
        }
    out.fine_grain = coarse_length < 4 * 0.25f * 32;  // a quarter of the deviation in each of the sixteen values
    double square = 0;
    for (const auto v : from.values) square += v * v;
    out.whole_length = std::max(1.0f, static_cast<float>(std::sqrt(square)));
    for (std::size_t turn = 0; turn < scan_turns; ++turn) {
        turned(from.values.data(), 32, turn, out.whole[turn].data());
        std::array<float, scan_cells> t;
        turned(coarse.data(), 4, turn, t.data());
        quantize(t.data(), coarse_length, 1e-3f, out.coarse.data() + turn * scan_cells, 1);
        turned(fine.data(), 16, turn, out.fine[turn].pattern.data());
        turned(half.data(), 8, turn, out.fine[turn].half.data());
        turned(blue.data(), 4, turn, out.fine[turn].blue.data());
        turned(red.data(), 4, turn, out.fine[turn].red.data());
    }
    return out;
}

/// Moves and stretches a window while the patterns agree better.
template <int cells>
float climb(const Query& query, const Sums& sums, float least, float step, Window& at) {
    float score = agreement<cells>(query, sums, at, least);
    for (; step >= 0.5f;) {
        bool moved = false;
        for (int move = 0; move < 8; ++move) {
            Window next = at;
            const float by = move % 2 ? step : -step;
            if (move < 2) next.x += by;
            else if (move < 4) next.y += by;
            else if (move < 6) next.w += by, next.x -= by / 2;  // growing and shrinking about the middle
            else next.h += by, next.y -= by / 2;
            if (next.x < 0 || next.y < 0 || next.w < 11 || next.h < 11 || next.x + next.w > side || next.y + next.h > side) continue;
            const float found = agreement<cells>(query, sums, next, least);
            if (found > score) score = found, at = next, moved = true;
        }
        if (!moved) step /= 2;
    }
    return score;
}

/// One texture under consideration.
struct Candidate {
    std::uint32_t entry = 0;
    std::uint8_t form = 0;
    struct Start {
        Window window;
        std::size_t turn = 0;
        float score = 0;
    };
    std::array<Start, 5> starts;
    Start whole;  ///< by all 32×32 values: fine grain that means would level out
    float score = 0;
};

/// The beginnings that agree best by the coarse values, and how well by 8×8.
void look_once(const Asked& asked, const Pattern& here, const Sums& sums, float least, const std::int8_t* windows, Candidate& out) {
    out.whole.window = all_windows()[0];
    out.whole.score = 0.98f * whole_agreement(asked, here, &out.whole.turn);
    out.score = out.whole.score;
    std::array<int, scan_windows> dots;
    struct Best {
        int dot = 0;
        std::size_t window = 0, turn = 0;
    };
    std::array<Best, 4> best;
    for (std::size_t turn = 0; turn < scan_turns; ++turn) {
        dots.fill(0);
        for (std::size_t k = 0; k < scan_cells; ++k) {
            const int q = asked.coarse[turn * scan_cells + k];
            for (std::size_t w = 0; w < scan_windows; ++w) dots[w] += q * windows[k * scan_windows + w];
        }
        for (std::size_t w = 0; w < scan_windows; ++w) {
            if (dots[w] <= best.back().dot) continue;
            best.back() = {dots[w], w, turn};
            for (std::size_t s = best.size() - 1; s > 0 && best[s].dot > best[s - 1].dot; --s) std::swap(best[s], best[s - 1]);
        }
    }
    for (std::size_t s = 0; s < best.size(); ++s) {
        auto& start = out.starts[s];
        start = {all_windows()[best[s].window], best[s].turn, 0};
        if (best[s].dot > 0) start.score = agreement<8>(asked.fine[start.turn], sums, start.window, least);
        out.score = std::max(out.score, start.score);
    }
    // The whole texture always has its chance, in its best turn: in stripes and other patterns that repeat, parts agree as well as the
    // whole does.
    auto& all = out.starts.back();
    all = {all_windows()[0], out.whole.turn, agreement<8>(asked.fine[out.whole.turn], sums, all_windows()[0], least)};
    out.score = std::max(out.score, all.score);
}

}  // namespace

PictureSearch PictureSearch::build(std::vector<FactsPtr> pictures) {
    PictureSearch out;
    out.pictures_ = std::move(pictures);
    for (std::uint32_t i = 0; i < out.pictures_.size(); ++i) {
        if (!out.pictures_[i]) continue;
        if (out.pictures_[i]->contrast >= flat) out.entries_.push_back({i, false});
        if (out.pictures_[i]->over_contrast >= flat) out.entries_.push_back({i, true});
    }
    out.windows_.resize(out.entries_.size() * each);
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, out.entries_.size(), 64), [&](const auto& range) {
        for (auto e = range.begin(); e != range.end(); ++e) {
            const auto& facts = *out.pictures_[out.entries_[e].picture];
            const auto here = pattern_of(facts, facts.pattern(), out.entries_[e].over);
            const Sums sums(here.values.data());
            // Patterns count in standard deviations of the whole times 32; a window is flat when its own deviation is below 0.25 of 255.
            const float least = 4 * 0.25f / here.contrast * 32;
            for (std::size_t w = 0; w < scan_windows; ++w) {
                std::array<float, scan_cells> values;
                const float length = pattern<4>(sums, all_windows()[w], values.data());
                quantize(values.data(), length, least, out.windows_.data() + e * each + w, scan_windows);
            }
        }
    });
    return out;
}

Result<std::vector<PictureHit>> PictureSearch::find(const Image& picture, std::size_t top, const CancelToken& cancel) const {
    const auto facts = facts_of_picture(picture);
    std::vector<PictureHit> hits;
    if (std::max(facts.contrast, facts.over_contrast) < flat) {
        // Nothing but a color: the nearest means.
        for (std::size_t i = 0; i < pictures_.size(); ++i) {
            if (!pictures_[i]) continue;
            float off = std::abs(pictures_[i]->contrast - facts.contrast);
            for (std::size_t c = 0; c < 3; ++c) off = std::max(off, static_cast<float>(std::abs(facts.mean[c] - pictures_[i]->mean[c])));
            hits.push_back({i, 1 - off / 255});
        }
    } else {
        std::vector<Asked> forms;
        if (facts.contrast >= flat) forms.push_back(ask_for(facts, false));
        if (facts.over_contrast >= flat) forms.push_back(ask_for(facts, true));
        std::vector<std::int16_t> best(entries_.size()), again(forms.size() > 1 ? entries_.size() : 0);
        tbb::parallel_for(tbb::blocked_range<std::size_t>(0, best.size(), 1024), [&](const auto& range) {
            const auto* windows = windows_.data() + range.begin() * each;
            if (forms[0].fine_grain) {
                // Stripes and the like: their sixteen means are all the same, so all values are compared.
                for (auto e = range.begin(); e != range.end(); ++e) {
                    const auto& theirs = *pictures_[entries_[e].picture];
                    best[e] =
                        static_cast<std::int16_t>(2304 * whole_agreement(forms[0], pattern_of(theirs, theirs.pattern(), entries_[e].over)));
                }
            } else scan(windows, range.size(), forms[0].coarse.data(), best.data() + range.begin());
            if (forms.size() == 1) return;
            scan(windows, range.size(), forms[1].coarse.data(), again.data() + range.begin());
            for (auto e = range.begin(); e != range.end(); ++e) best[e] = std::max(best[e], again[e]);
        });
        SKIVET_CHECK(cancel.check());
        std::vector<std::uint32_t> order;
        for (std::size_t e = 0; e < best.size(); ++e)
            if (best[e] > 0) order.push_back(static_cast<std::uint32_t>(e));
        const auto better = [&](std::uint32_t a, std::uint32_t b) { return best[a] != best[b] ? best[a] > best[b] : a < b; };
        if (order.size() > shortlist) {
            std::nth_element(order.begin(), order.begin() + shortlist, order.end(), better);
            order.resize(shortlist);
        }
        // Ever fewer are looked at ever closer: once by 8×8, then moved about by 8×8, then by 16×16.
        std::vector<Candidate> candidates(order.size() * forms.size());
        const auto each_of = [&](std::size_t count, const auto& work) {
            tbb::parallel_for(tbb::blocked_range<std::size_t>(0, count, 4), [&](const auto& range) {
                for (auto n = range.begin(); n != range.end() && !cancel.canceled(); ++n) {
                    auto& c = candidates[n];
                    const auto& entry = entries_[c.entry];
                    const auto theirs = pictures_[entry.picture]->pattern();
                    const auto here = pattern_of(*pictures_[entry.picture], theirs, entry.over);
                    // 16×16 values of 0.25 are flat
                    work(n, c, theirs, here, Sums(here.values.data()), 16 * 0.25f / here.contrast * 32);
                }
            });
        };
        const auto keep_best = [&](std::size_t most) {
            const auto closer = [](const Candidate& a, const Candidate& b) {
                return a.score != b.score ? a.score > b.score : a.entry < b.entry;
            };
            const auto count = std::min(most, candidates.size());
            std::partial_sort(candidates.begin(), candidates.begin() + static_cast<std::ptrdiff_t>(count), candidates.end(), closer);
            candidates.resize(count);
        };
        for (std::size_t n = 0; n < candidates.size(); ++n)
            candidates[n].entry = order[n / forms.size()], candidates[n].form = static_cast<std::uint8_t>(n % forms.size());
        each_of(candidates.size(), [&](std::size_t, Candidate& c, const PicturePattern&, const Pattern& here, const Sums& sums,
                                       float least) { look_once(forms[c.form], here, sums, least, windows_.data() + c.entry * each, c); });
        SKIVET_CHECK(cancel.check());
        keep_best(900);
        each_of(candidates.size(), [&](std::size_t, Candidate& c, const PicturePattern&, const Pattern&, const Sums& sums, float least) {
            for (auto& start : c.starts) {
                if (start.score < c.score - 0.25f || start.score <= 0) continue;
                start.score = climb<8>(forms[c.form].fine[start.turn], sums, least, 2, start.window);
            }
            for (const auto& start : c.starts) c.score = std::max(c.score, start.score);
            std::sort(c.starts.begin(), c.starts.end(), [](const auto& x, const auto& y) { return x.score > y.score; });
        });
        SKIVET_CHECK(cancel.check());
        keep_best(std::max<std::size_t>(200, 2 * top));
        hits.resize(candidates.size());
        each_of(candidates.size(),
                [&](std::size_t n, Candidate& c, const PicturePattern& theirs, const Pattern&, const Sums& sums, float least) {
                    for (std::size_t s = 0; s < 3; ++s) {
                        auto& start = c.starts[s];
                        if (start.score <= 0) continue;
                        const auto& query = forms[c.form].fine[start.turn];
                        auto& at = start.window;
                        float score = climb<16>(query, sums, least, 1, at);
                        // A small part that agrees says less than a whole picture that does.
                        score -= 0.12f * off_color(query, theirs, at) + 0.03f * (1 - at.w * at.h / (side * side));
                        if (score > hits[n].score)
                            hits[n] = {0,
                                       score,
                                       at.x / side,
                                       at.y / side,
                                       at.w / side,
                                       at.h / side,
                                       static_cast<std::uint8_t>(start.turn % 4),
                                       start.turn >= 4};
                    }
                    const float whole = c.whole.score - 0.12f * off_color(forms[c.form].fine[c.whole.turn], theirs, c.whole.window);
                    if (whole > hits[n].score)
                        hits[n] = {0, whole, 0, 0, 1, 1, static_cast<std::uint8_t>(c.whole.turn % 4), c.whole.turn >= 4};
                    hits[n].picture = entries_[c.entry].picture;
                });
        SKIVET_CHECK(cancel.check());
        std::erase_if(hits, [](const PictureHit& h) { return h.score <= 0; });
    }
    const auto better = [](const PictureHit& a, const PictureHit& b) {
        return a.score != b.score ? a.score > b.score : a.picture < b.picture;
    };
    std::sort(hits.begin(), hits.end(), better);
    std::vector<PictureHit> out;
    std::vector<bool> taken(pictures_.size());  // a texture in both its forms is one
    for (const auto& hit : hits) {
        if (out.size() == top) break;
        if (!taken[hit.picture]) out.push_back(hit);
        taken[hit.picture] = true;
    }
    return out;
}

}  // namespace skivet
