// Columns of numbers that rise. Most archives write offsets in the order in which their data lies, so one column of the table rises from
// record to record, and hardly anything else in a file does at the same distance for long.
#include <algorithm>
#include <bit>
#include <set>

#include "container/draft_table.h"

namespace skivet::draft {
namespace {

constexpr std::uint64_t window = 64u << 10;  // bytes at both ends, and 4 KB where a number of the header points, in which a run may be met
constexpr std::uint64_t pointed = 4u << 10;
constexpr std::size_t widest = 384;     // bytes of a record: a name of 260 and its numbers
constexpr std::uint64_t least_run = 6;  // records; fewer rise by chance
constexpr std::size_t most_runs = 96;

struct Run {
    std::uint64_t at = 0, stride = 0, count = 0;
    ByteOrder order = ByteOrder::little;
    std::uint64_t rises = 0;  ///< steps to a larger number, not the same
    [[nodiscard]] std::uint64_t end() const { return at + count * stride; }
};

class Rising {
public:
    Rising(ByteSpan file, std::uint64_t most) : file_(file), most_(std::min<std::uint64_t>(most, 0xFFFFFFFFu)) {}

    void look(std::uint64_t from, std::uint64_t to, ByteOrder order) {
        to = std::min<std::uint64_t>(to, file_.size());
        if (from + 16 > to) return;
        // A bit for each place whose number may be an offset; of a stride only places are looked at with three more behind them.
        const auto n = static_cast<std::size_t>(to - from), words = (n + 63) / 64;
        std::vector<std::uint64_t> may(words + (3 * widest) / 64 + 2);
        for (std::size_t k = 0; k + 4 <= n + 3 * widest && from + k + 4 <= file_.size() && k / 64 < may.size(); ++k)
            if (fits(value(from + k, order))) may[k / 64] |= 1ull << (k % 64);
        const auto shifted = [&](std::size_t word, std::size_t by) {
            const auto at = word + by / 64, bits = by % 64;
            if (at + 1 >= may.size()) return std::uint64_t{0};
            return bits ? may[at] >> bits | may[at + 1] << (64 - bits) : may[at];
        };
        for (std::size_t stride = 4; stride <= widest; ++stride) {
            std::vector<std::uint64_t> done(stride);
            std::size_t looks = 0;
            for (std::size_t w = 0; w < words; ++w) {
                if (may[w] == 0) continue;
                auto bits = may[w] & shifted(w, stride) & shifted(w, 2 * stride) & shifted(w, 3 * stride);
                for (; bits != 0; bits &= bits - 1) {
                    const auto at = from + w * 64 + static_cast<std::size_t>(std::countr_zero(bits));
                    if (at >= to || at < done[at % stride]) continue;
                    if (++looks > 20'000) break;  // a dense stretch of small numbers
                    const auto run = follow(at, stride, order);
                    done[at % stride] = run.end();
                    if (run.count >= least_run && run.rises * 2 >= run.count) runs_.push_back(run);  // others are constants, or flags
                }
            }
            if (runs_.size() > 8 * most_runs) keep();
        }
    }

    std::vector<Run> all() {
        keep();
        return std::move(runs_);
    }

private:
    ByteSpan file_;
    std::uint64_t most_;
    std::vector<Run> runs_;

    [[nodiscard]] bool fits(std::uint64_t v) const { return v > 0 && v <= most_; }
    [[nodiscard]] std::uint64_t value(std::uint64_t at, ByteOrder order) const { return load_uint(file_.data() + at, 4, order); }

    /// The whole run this place belongs to, in both directions.
    [[nodiscard]] Run follow(std::uint64_t at, std::uint64_t stride, ByteOrder order) const {
        Run run{at, stride, 1, order, 0};
        const auto here = value(at, order);
        auto last = here;
        std::uint64_t steps = 0;  // places where it really rises
        for (auto next = at + stride; next + 4 <= file_.size(); next += stride, ++run.count) {
            const auto v = value(next, order);
            if (!fits(v) || v < last) break;
            steps += v > last;
            last = v;
        }
        auto first = here;
        while (run.at >= stride) {
            const auto v = value(run.at - stride, order);
            if (!fits(v) || v > first) break;
            steps += v < first;
            first = v;
            run.at -= stride;
            ++run.count;
        }
        run.rises = steps;
        return run;
    }

    /// The longest; of the same place at a multiple of its stride only the shortest stride, which is longer.
    void keep() {
        std::stable_sort(runs_.begin(), runs_.end(), [](const Run& a, const Run& b) { return a.count > b.count; });
        std::vector<Run> out;
        for (const auto& run : runs_) {
            const auto inside = std::any_of(out.begin(), out.end(), [&](const Run& other) {
                return run.order == other.order && run.stride % other.stride == 0 && run.at >= other.at && run.at < other.end() &&
                       (run.at - other.at) % other.stride == 0;
            });
            if (!inside) out.push_back(run);
            if (out.size() >= most_runs) break;
        }
        runs_ = std::move(out);
    }
};

/// Where the records of a run may begin and how many there are, what most speaks for first: a number of records that the header knows, then
/// a beginning that it knows, then an end where something else begins.
std::vector<Table> phases_of(ByteSpan file, const Run& run, const Places& places) {
    struct Phase {
        int score;
        Table table;
    };
    std::vector<Phase> out;
    std::set<std::pair<std::uint64_t, std::uint64_t>> seen;
    const auto known = [](const std::vector<std::uint64_t>& in, std::uint64_t v) { return std::binary_search(in.begin(), in.end(), v); };
    const auto add = [&](std::uint64_t at, std::uint64_t rows) {
        if (at > run.at + 3 * run.stride || at + run.stride * 9 < run.at || rows < least_run ||
            (rows < 10 && !known(places.counts, rows)) || at > file.size() || rows > (file.size() - at) / run.stride ||
            !seen.emplace(at, rows).second)
            return;
        // Where the rising number stands in a record that begins here.
        const auto in = at <= run.at ? (run.at - at) % run.stride : (run.stride - (at - run.at) % run.stride) % run.stride;
        if (in + 4 > run.stride) return;
        Phase phase{0, {}};
        auto& table = phase.table;
        table.numbers = run.stride;
        table.at = at;
        table.rows = rows;
        table.end = at + rows * run.stride;
        table.rising = {in, run.order};
        const auto first = load_uint(file.data() + at + in, 4, run.order);  // an offset, if it counts from the file's beginning
        const auto zeros_to = [&](std::uint64_t to) {
            return to >= table.end && to - table.end < 4096 && to <= file.size() &&
                   std::all_of(file.begin() + static_cast<std::ptrdiff_t>(table.end), file.begin() + static_cast<std::ptrdiff_t>(to),
                               [](std::byte b) { return b == std::byte{0}; });
        };
        phase.score = (known(places.counts, rows) ? 8 : 0) + (known(places.numbers, at) || known(places.ends, at) ? 4 : 0) +
                      (known(places.ends, table.end) || first == table.end ? 3
                       : zeros_to(first)                                   ? 2
                                                                           : 0) +
                      (at % 4 == 0 && in % 4 == 0 ? 1 : 0);
        out.push_back(std::move(phase));
    };
    const auto counts = [&](std::uint64_t rows, const auto& use) {
        for (const auto c : places.counts)
            if (c + 4 >= rows && c <= rows + 1) use(c);
        for (std::uint64_t less = 0; less < 3; ++less)
            if (rows > less) use(rows - less);
    };
    for (const auto* some : {&places.numbers, &places.ends})
        for (const auto place : *some) {
            if (place <= run.at + 3 * run.stride && place + 9 * run.stride >= run.at)
                counts((run.end() - place) / run.stride, [&](std::uint64_t c) { add(place, c); });
            if (place + 3 * run.stride >= run.end() && place <= run.end() + 3 * run.stride)
                counts(run.count, [&](std::uint64_t c) {
                    if (place > c * run.stride) add(place - c * run.stride, c);
                });
        }
    // Otherwise at any multiple of four before the number, with a record more in front whose offset is zero.
    const auto zero = run.at >= run.stride && load_uint(file.data() + run.at - run.stride, 4, run.order) == 0;
    for (std::uint64_t in = 0; in + 4 <= run.stride && in <= run.at; in += 4) {
        if (zero && in + run.stride <= run.at) counts(run.count + 1, [&](std::uint64_t c) { add(run.at - run.stride - in, c); });
        counts(run.count, [&](std::uint64_t c) { add(run.at - in, c); });
    }
    std::stable_sort(out.begin(), out.end(), [](const Phase& a, const Phase& b) { return a.score > b.score; });
    std::vector<Table> tables;
    for (auto& phase : out) tables.push_back(std::move(phase.table));
    return tables;
}

}  // namespace

std::vector<Table> tables_that_rise(ByteSpan file, std::uint64_t most, const Places& places, const Progress& progress) {
    Rising rising(file, most);
    std::vector<std::pair<std::uint64_t, std::uint64_t>> stretches = {{0, window}};
    if (file.size() > window) stretches.emplace_back(std::max(window, file.size() - window), file.size());
    for (const auto* some : {&places.ends, &places.numbers})
        for (const auto place : *some)
            if (place >= window && place + window < file.size() && stretches.size() < 32) stretches.emplace_back(place, place + pointed);
    for (const auto& [from, to] : stretches)
        for (const auto order : {ByteOrder::little, ByteOrder::big}) {
            if (!progress.cancel.check()) return {};
            rising.look(from, to, order);
        }
    std::vector<Table> out;
    for (const auto& run : rising.all()) {
        const auto phases = phases_of(file, run, places);
        out.insert(out.end(), phases.begin(), phases.end());
    }
    return out;
}

}  // namespace skivet::draft
