#include "sift/waves.h"

#include <algorithm>

namespace skivet {

void Covered::add(Span span) {
    if (span.to <= span.from) return;
    auto next = spans_.upper_bound(span.from);
    if (next != spans_.begin() && std::prev(next)->second >= span.from) {
        --next;
        span = {next->first, std::max(span.to, next->second)};
    }
    while (next != spans_.end() && next->first <= span.to) {
        span.to = std::max(span.to, next->second);
        next = spans_.erase(next);
    }
    spans_.emplace_hint(next, span.from, span.to);
}

std::uint64_t Covered::next_free(std::uint64_t at) const {
    const auto next = spans_.upper_bound(at);
    return next == spans_.begin() ? at : std::max(at, std::prev(next)->second);
}

std::uint64_t Covered::next_covered(std::uint64_t at, std::uint64_t otherwise) const {
    if (next_free(at) > at) return at;
    const auto next = spans_.lower_bound(at);
    return next == spans_.end() ? otherwise : next->first;
}

std::vector<std::vector<std::uint32_t>> waves_of(std::span<const Span> spans, std::uint64_t reach) {
    struct Painted {
        std::uint64_t to = 0;
        std::uint32_t wave = 0;
    };
    std::map<std::uint64_t, Painted> last;  // the wave of the last span that reaches there, by beginnings; nothing overlaps
    std::vector<std::vector<std::uint32_t>> out;
    for (std::uint32_t i = 0; i < spans.size(); ++i) {
        const auto from = spans[i].from - std::min(reach, spans[i].from), to = spans[i].to + reach;
        std::uint32_t wave = 0;
        auto at = last.upper_bound(from);
        if (at != last.begin() && std::prev(at)->second.to > from) --at;
        while (at != last.end() && at->first < to) {
            const auto [begin, before] = *at;
            wave = std::max(wave, before.wave + 1);
            at = last.erase(at);
            if (begin < from) last[begin] = {from, before.wave};
            if (before.to > to) at = last.emplace(to, before).first;
        }
        last[from] = {to, wave};
        if (out.size() <= wave) out.resize(wave + 1);
        out[wave].push_back(i);
    }
    return out;
}

}  // namespace skivet
