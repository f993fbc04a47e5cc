#include "sift/bare.h"

#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>
#include <algorithm>
#include <bit>
#include <cmath>
#include <map>
#include <mutex>
#include <numeric>
#include <optional>
#include <utility>

#include "base/budget.h"
#include "codec/codec.h"
#include "sift/cells.h"
#include "sift/fit.h"
#include "sift/kinds.h"
#include "sift/waves.h"
#include "sift/windows.h"

namespace skivet {
namespace {

constexpr std::uint64_t most_span = 32u << 20;  // bytes of a stretch that are looked at together
constexpr std::uint64_t most_cells = 8u << 20;  // … and cells
constexpr std::uint64_t cell_memory = 30;       // bytes that a cell takes meanwhile, at most
constexpr std::uint64_t margin = 2048;          // bytes around a stretch in which a texture may begin or end
constexpr double sure_enough = 0.8;             // what is as sure is not looked at as something else
constexpr std::uint64_t least_bytes = 2048;     // 64×64 texels of half a byte

struct Candidate {
    BareTexture texture;
    double worth = 0;        ///< how much speaks for it
    double shape = 0;        ///< … of its sides and levels alone
    std::uint64_t unit = 1;  ///< bytes of a block or texel
};

/// A part of a stretch that is looked at together.
struct Part {
    BareKind kind = BareKind::bc1;
    unsigned phase = 0;
    Span span;
};

/// Looks at one part. What it finds depends on the data, the part, and what is certain around it.
class Look {
public:
    Look(ByteSpan data, const CancelToken& cancel, const Covered& certain) : data_(data), cancel_(cancel), known_(certain) {}

    void at(const Part& part) {
        for (auto from = part.span.from; from < part.span.to && !cancel_.canceled();) {
            const auto [begin, end] = uncertain(from, part.span.to);
            if (end > begin) look(part, begin, end);
            from = std::max(end, from + 1);
        }
    }
    /// Where rows are there but no size that textures have, with what lies around.
    void at_wider(const Part& part) { look_at(part.kind, part.phase, part.span.from, part.span.to, true); }

    [[nodiscard]] std::vector<Candidate> candidates() && { return std::move(candidates_); }
    /// What need not be looked at as something else any more.
    [[nodiscard]] const std::vector<Span>& certain() const { return certain_; }
    /// Parts for at_wider.
    [[nodiscard]] const std::vector<Part>& wider() const { return wider_; }

private:
    ByteSpan data_;
    const CancelToken& cancel_;
    const Covered& known_;
    Covered own_;
    std::vector<Candidate> candidates_;
    std::vector<Span> certain_;
    std::vector<Part> wider_;

    /// The first part of [from, to) of which nothing is certain yet; an empty one at its end where there is none.
    [[nodiscard]] std::pair<std::uint64_t, std::uint64_t> uncertain(std::uint64_t from, std::uint64_t to) const {
        for (auto before = from + 1; before != from;) before = from, from = own_.next_free(known_.next_free(from));
        if (from >= to) return {to, to};
        return {from, std::min(known_.next_covered(from, to), own_.next_covered(from, to))};
    }

    void look(const Part& part, std::uint64_t from, std::uint64_t to) {
        if (to - from < least_bytes) return;
        switch (part.kind) {
            case BareKind::two_bytes:
                for (const unsigned phase : {0u, 1u}) look_at(part.kind, phase, from, to);
                return;
            case BareKind::three_bytes:
            case BareKind::four_bytes: {
                // Any phase shows the rows; which it is shows in the picture alone.
                const auto before = candidates_.size();
                look_at(part.kind, texel_phase(part.kind, data_, from, to), from, to);
                const auto seen = candidates_.size();
                for (auto i = before; i < seen; ++i) {
                    const auto at = candidates_[i].texture.at, end = at + candidates_[i].texture.size;
                    const auto bytes = kind_bytes(part.kind);
                    const auto phase = texel_phase(part.kind, data_, at, end);
                    if (phase != at % bytes)
                        look_at(part.kind, phase, std::max(from, at > margin ? at - margin : 0), std::min(to, end + margin));
                }
                return;
            }
            default: look_at(part.kind, part.phase, from, to);
        }
    }

    void look_at(BareKind kind, unsigned phase, std::uint64_t from, std::uint64_t to, bool wider = false) {
        const auto bytes = kind_bytes(kind);
        auto begin = from > margin ? from - margin : 0;
        begin += (phase + bytes - begin % bytes) % bytes;
        const auto end = std::min<std::uint64_t>(data_.size(), to + margin);
        if (end < begin + least_bytes) return;
        auto cells = cells_of(kind_format(kind), data_, begin, end);
        if (kind == BareKind::numbers) make_comparable(cells.bright);
        if (!rows_likely(cells)) {
            if (cells.side > 1)
                if (const auto small = fit_size(cells, 0, cells.size()))
                    if (auto candidate = judged(kind, cells, *small)) candidates_.push_back(std::move(*candidate));
            return;
        }
        RowFinder finder(cells);
        const auto before = candidates_.size();
        const auto strange = ranges(kind, cells, finder, 0, cells.size(), 0);
        if (!strange || wider) return;
        // Rows are there but no size that textures have: its flat parts may lie around.
        const auto more = std::clamp<std::uint64_t>(to - from, 4096, 262'144);
        candidates_.resize(before);
        wider_.push_back({kind, phase, {from > more ? from - more : 0, std::min<std::uint64_t>(data_.size(), to + more)}});
    }

    /// Whether there are rows, but no texture of a usual size is found by them.
    bool ranges(BareKind kind, const Cells& cells, RowFinder& finder, std::size_t from, std::size_t to, unsigned depth) {
        if (depth > 40 || (to - from) * cells.bytes < least_bytes / 2 || cancel_.canceled()) return false;
        const auto all = finder.best_in(from, to);
        const bool any = !all.empty() && all[0].score >= (cells.side > 1 ? 16 : 160);
        if (!any && (depth > 0 || cells.side == 1)) return false;
        std::optional<Fit> fit;
        std::optional<Candidate> best;
        for (const auto& rows : all) {
            if (!any) break;
            if (rows.to - rows.from < rows.width * std::max<std::size_t>(4, 12 / cells.side)) continue;
            const auto tried = fit_rows(cells, rows, from, to);
            if (!tried) continue;
            if (!fit) fit = tried;
            else if (kind == BareKind::numbers) break;  // looking for palettes takes long
            auto candidate = judged(kind, cells, *tried);
            if (!candidate || (best && candidate->shape <= best->shape + 0.1)) continue;
            best = std::move(candidate);
            fit = tried;
            if (best->shape >= 0.15) break;  // as usual: no other width could be better
        }
        // The same cells in rows of half the width, or a quarter: where those fit better they are meant, whatever else was fitted to them.
        if (best && fit && fit->mips == 1 && !fit->by_size && any && fit->width > all[0].width && fit->width % all[0].width == 0) {
            auto narrow = *fit;
            narrow.height *= fit->width / all[0].width;
            narrow.width = all[0].width;
            narrow.likeness = std::max(fit->likeness, all[0].likeness());
            if (auto candidate = judged(kind, cells, narrow); candidate && candidate->shape >= best->shape) best = std::move(candidate);
        }
        if (!best && depth == 0 && cells.side > 1)
            if (const auto small = fit_size(cells, from, to)) {
                fit = small;
                best = judged(kind, cells, *small);
            }
        const bool found = best.has_value();
        const double shape = best ? best->shape : 0;
        if (best) {
            const auto& t = best->texture;
            if (t.confidence >= sure_enough && (t.desc.mips == full_mip_count(t.desc.width, t.desc.height) || t.desc.mips == 1) &&
                t.roughness < 0.3) {
                certain_.push_back({t.at, t.at + t.size});
                own_.add(certain_.back());
            }
            candidates_.push_back(std::move(*best));
        }
        if (!fit && !any) return false;
        bool strange = any && all[0].likeness() > 0.4 && all[0].score > 0.25 * static_cast<double>(to - from) && (!found || shape < 0.1);
        const auto left = fit ? fit->first : all[0].from, right = fit ? fit->end : all[0].to;
        if (left > from) strange = ranges(kind, cells, finder, from, left, depth + 1) || strange;
        if (right < to) strange = ranges(kind, cells, finder, std::max(right, from + 1), to, depth + 1) || strange;
        return strange;
    }

    std::optional<Candidate> judged(BareKind kind, const Cells& cells, const Fit& fit) const {
        auto texture = named(kind, cells, fit, data_);
        if (!texture) return std::nullopt;
        const auto& d = texture->desc;
        // Of the kinds in which the same bytes could be read the one in which the picture is smoothest is meant. Sides are mostly powers of
        // two and not very unlike, textures mostly begin at multiples of 16 (common practice).
        const auto smooth = 1 - std::min(1.0, texture->roughness);
        const bool usual = std::has_single_bit(d.width) && std::has_single_bit(d.height);
        const bool long_one = std::max(d.width, d.height) > 4 * std::min(d.width, d.height);
        const auto shape = (fit.levels_shown ? 0.35 : 0) + (usual ? 0.15 : -0.2) - (long_one ? 0.2 : 0);
        auto sure = 0.25 + shape + 0.2 * fit.edges + 0.3 * smooth;
        if (cells.side > 1) {
            if (fit.member < 0.15 && (fit.likeness < 0.4 || fit.member < -1)) return std::nullopt;
            sure += 0.1 * std::clamp(fit.member, -0.5, 1.0) - 0.05;
        }
        sure = std::min(sure, 0.98);
        // These are rare, and sound looks like it; other formats look like them a byte further on.
        if (d.format == Format::L16) sure -= 0.45;
        if (d.format == Format::LA8 || d.format == Format::RG8) sure -= 0.15;
        if (kind == BareKind::two_bytes && texture->at % 2) sure -= 0.15;
        // A small one of one level is the likeliest to be chance.
        const bool small = !fit.levels_shown && std::uint64_t{d.width} * d.height <= 64 * 128;
        if (sure < (small ? 0.73 : 0.62)) return std::nullopt;
        // What has come of trying this on textures and on other data (benchmarks/README.md): where one of these holds it is hardly a
        // texture.
        if (!fit.levels_shown) {
            const auto seen = fit.likeness * smooth * std::sqrt(static_cast<double>(fit.width * fit.height));
            if (fit.by_size ? smooth < 0.45 || fit.likeness < 0.1
                            : long_one || fit.likeness < 0.2 || seen < (usual ? 2.5 : 15.0) * (cells.side > 1 ? 1 : 4))
                return std::nullopt;
            if (cells.side > 1 && fit.member < 0.25 && (fit.likeness < 0.75 || smooth < 0.75)) return std::nullopt;
            if (kind == BareKind::numbers && smooth < 0.5 && fit.edges < 0.5) return std::nullopt;
        } else if (long_one && d.height < 32) {
            return std::nullopt;
        }
        if (fit.member < (kind == BareKind::four_bytes || kind == BareKind::three_bytes ? 0.1 : kind == BareKind::two_bytes ? -0.05 : -1))
            return std::nullopt;
        texture->confidence = sure;
        const auto size = static_cast<double>(texture->size);
        return Candidate{std::move(*texture),
                         sure * sure * sure * (0.1 + smooth * smooth) * std::sqrt(std::sqrt(size)) *
                             (1 + 0.03 * std::min(4, std::countr_zero(texture->at))),
                         shape, kind_bytes(kind)};
    }
};

class Finder {
public:
    Finder(ByteSpan data, const CancelToken& cancel, const std::function<void(std::uint64_t)>& looked_at)
        : data_(data), cancel_(cancel), looked_at_(looked_at) {}

    Result<std::vector<BareTexture>> find() {
        // The longest first: what is certain in them is not looked at again as something else.
        auto all = likely(stretches(data_, cancel_));
        SKIVET_CHECK(cancel_.check());
        std::stable_sort(all.begin(), all.end(), [](const Stretch& a, const Stretch& b) { return a.to - a.from > b.to - b.from; });
        std::vector<Part> parts;
        for (const auto& stretch : all) {
            const auto most = std::min(most_span, most_cells * kind_bytes(stretch.kind));
            for (auto from = stretch.from; from < stretch.to; from += most)
                parts.push_back({stretch.kind, stretch.phase, {from, std::min(stretch.to, from + most)}});
        }
        look_through(parts, false);
        SKIVET_CHECK(cancel_.check());
        look_through(std::exchange(wider_, {}), true);
        SKIVET_CHECK(cancel_.check());
        if (looked_at_ && told_ < data_.size()) looked_at_(data_.size() - told_);
        return chosen();
    }

private:
    ByteSpan data_;
    const CancelToken& cancel_;
    const std::function<void(std::uint64_t)>& looked_at_;
    std::uint64_t told_ = 0;
    std::vector<Candidate> candidates_;
    Covered certain_;
    std::vector<Part> wider_;

    /// All parts, on all cores; what is found is what would be found one after the other.
    void look_through(const std::vector<Part>& parts, bool wider) {
        std::vector<Span> spans;
        std::uint64_t total = 0, done = 0;
        for (const auto& part : parts) spans.push_back(part.span), total += part.span.to - part.span.from;
        std::vector<std::vector<Candidate>> found(parts.size());
        Budget memory(most_cells * cell_memory);
        std::mutex telling;
        // What is looked at wider is looked at whatever is certain, so nothing there waits for anything.
        const auto waves = wider ? std::vector<std::vector<std::uint32_t>>{numbers(parts.size())} : waves_of(spans, margin);
        for (const auto& wave : waves) {
            std::vector<std::vector<Span>> certain(wave.size());
            std::vector<std::vector<Part>> strange(wave.size());
            tbb::parallel_for(std::size_t{0}, wave.size(), [&](std::size_t k) {
                if (cancel_.canceled()) return;
                const auto& part = parts[wave[k]];
                // A thread that waits in here, for the decoding of a picture, must not begin another part: that may wait for memory.
                tbb::this_task_arena::isolate([&] {
                    const Budget::Share share(memory, (part.span.to - part.span.from) / kind_bytes(part.kind) * cell_memory);
                    Look look(data_, cancel_, certain_);
                    if (wider) look.at_wider(part);
                    else look.at(part);
                    certain[k] = look.certain();
                    strange[k] = look.wider();
                    found[wave[k]] = std::move(look).candidates();
                });
                const std::lock_guard lock(telling);
                done += part.span.to - part.span.from;
                if (!wider) tell(static_cast<double>(done) / static_cast<double>(total));
            });
            for (std::size_t k = 0; k < wave.size(); ++k) {
                for (const auto& span : certain[k]) certain_.add(span);
                wider_.insert(wider_.end(), strange[k].begin(), strange[k].end());
            }
        }
        for (auto& some : found)
            candidates_.insert(candidates_.end(), std::make_move_iterator(some.begin()), std::make_move_iterator(some.end()));
    }

    [[nodiscard]] static std::vector<std::uint32_t> numbers(std::size_t count) {
        std::vector<std::uint32_t> out(count);
        std::iota(out.begin(), out.end(), 0u);
        return out;
    }

    void tell(double share) {
        const auto now = static_cast<std::uint64_t>(share * static_cast<double>(data_.size()));
        if (looked_at_ && now > told_) looked_at_(now - std::exchange(told_, now));
    }

    /// Parts of the stretches in which no other kind or phase that is possible there is much smoother.
    [[nodiscard]] std::vector<Stretch> likely(const std::vector<Stretch>& all) const {
        constexpr std::uint64_t tile = 2048;
        constexpr double slack = 1.3, most = 0.95;
        std::vector<float> best(static_cast<std::size_t>(data_.size() / tile + 1), 2);
        std::vector<std::vector<float>> own(all.size());
        tbb::parallel_for(std::size_t{0}, all.size(), [&](std::size_t i) {
            const auto& s = all[i];
            for (auto t = s.from / tile; t * tile < s.to && !cancel_.canceled(); ++t) {
                const auto end = std::min<std::uint64_t>(data_.size(), (t + 1) * tile);
                auto r = s.kind == BareKind::numbers ? std::nullopt : roughness_along(s.kind, s.phase, data_, t * tile, end);
                if (s.kind == BareKind::two_bytes)  // at either phase
                    if (const auto other = roughness_along(s.kind, 1, data_, t * tile, end); other && (!r || *other < *r)) r = other;
                own[i].push_back(r ? static_cast<float>(*r) : -1.0f);
            }
        });
        if (cancel_.canceled()) return {};
        for (std::size_t i = 0; i < all.size(); ++i) {
            const auto& s = all[i];
            // At the ends a tile may hold something else.
            for (auto t = (s.from + tile - 1) / tile; (t + 1) * tile <= s.to; ++t)
                if (const auto r = own[i][static_cast<std::size_t>(t - s.from / tile)]; r >= 0)
                    best[static_cast<std::size_t>(t)] = std::min(best[static_cast<std::size_t>(t)], r);
        }
        std::vector<Stretch> out;
        for (std::size_t i = 0; i < all.size(); ++i) {
            const auto& s = all[i];
            const auto first = s.from / tile;
            std::optional<Stretch> run;
            std::size_t beaten = 0, good = 0;
            const auto close = [&] {
                if (run && good > 0) out.push_back(*run);
                run.reset();
                beaten = good = 0;
            };
            for (std::size_t k = 0; k < own[i].size(); ++k) {
                const auto r = own[i][k];
                const auto top = best[static_cast<std::size_t>(first) + k];
                const auto at = std::max(s.from, (first + k) * tile), end = std::min(s.to, (first + k + 1) * tile);
                const bool open = s.kind == BareKind::numbers ? top > 0.3 : r < 0;  // nothing is said
                if (!open && (r > most || static_cast<double>(r) > slack * static_cast<double>(top) + 0.05)) {
                    if (run && ++beaten > std::max<std::size_t>(2, good / 2)) close();
                    continue;
                }
                if (!run) run = Stretch{s.kind, s.phase, at, end};
                beaten = 0;
                good += !open || s.kind == BareKind::numbers;
                run->to = end;
            }
            close();
        }
        return out;
    }

    /// What speaks most for itself first; what overlaps it is not.
    std::vector<BareTexture> chosen() {
        std::sort(candidates_.begin(), candidates_.end(), [](const auto& a, const auto& b) { return a.worth > b.worth; });
        std::map<std::uint64_t, std::uint64_t> taken;  // end by beginning
        std::vector<BareTexture> out;
        for (auto& c : candidates_) {
            auto at = c.texture.at;
            const auto size = c.texture.size;
            // Where it begins is known to some blocks only: it may begin where a surer one ends, at a whole block. A palette shows where.
            const auto most = c.texture.palette_bits ? 0 : size / 8;
            const auto whole = [&](std::uint64_t bytes) { return (bytes + c.unit - 1) / c.unit * c.unit; };
            auto next = taken.upper_bound(at);
            if (next != taken.begin() && std::prev(next)->second > at) {
                const auto behind = std::prev(next)->second;
                if (behind - at > most) continue;
                at += whole(behind - at);
                next = taken.upper_bound(at);
            }
            if (next != taken.end() && next->first < at + size) {
                const auto over = whole(at + size - next->first);
                const auto before = next == taken.begin() ? 0 : std::prev(next)->second;
                if (over > most || at < before + over) continue;
                at -= over;
            }
            const auto end = at + size;
            if (end > data_.size()) continue;
            c.texture.at = at;
            taken[at] = end;
            out.push_back(c.texture);
        }
        std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
        return out;
    }
};

}  // namespace

Result<std::vector<BareTexture>> find_bare_textures(ByteSpan data, const CancelToken& cancel,
                                                    const std::function<void(std::uint64_t)>& looked_at) {
    return Finder(data, cancel, looked_at).find();
}

}  // namespace skivet
