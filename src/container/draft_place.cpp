// Which columns of a table are offset and size: with the right ones entries lie side by side, and nothing else in a file does that.
#include <algorithm>
#include <numeric>

#include "container/draft_table.h"

namespace skivet::draft {
namespace {

constexpr std::size_t least_records = 3;
constexpr std::uint64_t widest_gap = 64u << 10;  // bytes of padding between entries

bool pay(const Surroundings& around, std::uint64_t work) {
    around.budget -= std::min(around.budget, work);
    return around.budget > 0;
}

struct Spans {
    std::vector<std::uint64_t> begin, size;
};

/// True when the stretches neither overlap nor leave more between them than their alignment explains. Equal ones may be shared.
bool tile(const Spans& spans, std::uint64_t limit, std::uint64_t& covered) {
    const auto n = spans.begin.size();
    std::vector<std::size_t> order(n);
    std::iota(order.begin(), order.end(), std::size_t{0});
    const auto before = [&](auto a, auto b) { return std::pair(spans.begin[a], spans.size[a]) < std::pair(spans.begin[b], spans.size[b]); };
    if (!std::is_sorted(order.begin(), order.end(), before)) std::sort(order.begin(), order.end(), before);
    std::uint64_t align = 0;
    for (const auto b : spans.begin) align = std::gcd(align, b);
    const auto most_gap = std::clamp<std::uint64_t>(align, 16, widest_gap);
    std::uint64_t end = 0, last_begin = ~0ull;
    bool first = true;
    covered = 0;
    for (const auto i : order) {
        const auto begin = spans.begin[i], size = spans.size[i];
        if (size > limit || begin > limit - size) return false;
        if (size == 0) continue;
        if (!first && begin == last_begin && begin + size == end) continue;
        if (!first && (begin < end || begin - end >= most_gap)) return false;
        covered += size + (first ? 0 : begin - end);
        first = false;
        last_begin = begin;
        end = begin + size;
    }
    return covered > 0;
}

/// The bytes there are for entries, of all data files; and of the largest of them.
std::uint64_t all_bytes(const DataFiles& files) {
    std::uint64_t all = 0;
    for (const auto& [number, size] : files.sizes) all += size;
    return all;
}
std::uint64_t most_bytes(const DataFiles& files) {
    std::uint64_t most = 0;
    for (const auto& [number, size] : files.sizes) most = std::max(most, size);
    return most;
}

std::vector<std::size_t> samples(std::size_t n) {
    std::vector<std::size_t> out;
    for (std::size_t k = 0; k < std::min<std::size_t>(n, 24); ++k) out.push_back(n <= 24 ? k : k * (n / 24));
    if (out.back() != n - 1) out.push_back(n - 1);
    return out;
}

/// Where data may end: the file, the table, a run of names, or where a number of the header says.
std::vector<std::uint64_t> ends_of_data(const Surroundings& around, const Table& table) {
    if (!around.files.pattern.empty()) return {most_bytes(around.files)};
    std::vector<std::uint64_t> out = {around.file.size(), table.at};
    out[1] -= counted_before(around.file, table.at, table.count());
    for (const auto& run : around.names) out.push_back(run.at);
    for (const auto v : around.numbers)
        if (v > around.file.size() / 2 && v < around.file.size() && out.size() < 12) out.push_back(v);
    return out;
}

bool only_zeros(ByteSpan file, std::uint64_t from, std::uint64_t to) {
    return std::all_of(file.begin() + static_cast<std::ptrdiff_t>(from), file.begin() + static_cast<std::ptrdiff_t>(to),
                       [](std::byte b) { return b == std::byte{0}; });
}

/// Whether data can begin here: right behind the tables but for zeros, at a place the header names, or near the beginning when the tables
/// are behind it.
bool can_begin(const Surroundings& around, const Table& table, std::uint64_t at) {
    if (!around.files.pattern.empty()) return at <= 64;
    if (at > around.file.size()) return false;
    if (std::find(around.bases.begin(), around.bases.end(), at) != around.bases.end() && at > 0) return true;
    if (at == 0 && table.end + 8 > around.file.size()) return false;  // nothing is left for a header
    if (at < table.at)
        return at <= 64 || (at <= widest_gap && at % 16 == 0 && only_zeros(around.file, at - 4, at));  // a header, and zeros up to a step
    const auto follows = [&](std::uint64_t end) { return at >= end && at - end < widest_gap && only_zeros(around.file, end, at); };
    return follows(table.end) || std::any_of(around.names.begin(), around.names.end(), [&](const NameRun& run) {
               return run.at >= table.end && run.at - table.end < 16 && follows(run.end);
           });
}

/// Entries must not lie over their own table.
bool over_table(const Surroundings& around, const Table& table, std::uint64_t begin, std::uint64_t size) {
    return around.files.pattern.empty() && size > 0 && begin < table.end && begin + size > table.at;
}

constexpr std::uint64_t units[] = {1, 2048, 16, 512, 4, 8, 32, 64, 128, 256, 1024, 4096, 65536};

class BySizes {
public:
    BySizes(const Surroundings& around, const Table& table, int least_score, Placed::Says says = Placed::Says::size)
        : around_(around),
          table_(table),
          file_(around.file),
          room_(most_bytes(around.files)),
          n_(table.count()),
          sample_(samples(n_)),
          least_score_(least_score),
          says_(says) {}

    std::optional<Placed> find() {
        if (!find_numbers()) return std::nullopt;
        for (const auto order : {ByteOrder::little, ByteOrder::big})
            for (const unsigned width : {4u, 8u}) {
                if (table_.rising && (table_.rising->second != order || width != 4)) continue;
                if (!pairs(order, width)) return std::nullopt;
                if (best_ && best_score_ == 2 && best_->covered * 2 >= all_bytes(around_.files)) return best_;
            }
        // Entries that cover little of the file, or neither begin nor end where they can, were found by chance.
        if (best_score_ < least_score_) return std::nullopt;
        return best_ && best_->covered * 2 >= all_bytes(around_.files) ? best_ : std::nullopt;
    }

private:
    const Surroundings& around_;
    const Table& table_;
    ByteSpan file_;
    std::uint64_t room_;
    std::size_t n_;
    std::vector<std::size_t> sample_;
    std::vector<Column> numbers_;  ///< of data files
    std::optional<Placed> best_;
    int least_score_;
    Placed::Says says_;
    int best_score_ = 0;  ///< how many of its ends are where data can begin and end

    /// Bytes of an entry by what its two columns say; more than there can be where it would end before it begins.
    [[nodiscard]] std::uint64_t size_of(std::uint64_t offset, std::uint64_t said) const {
        if (says_ == Placed::Says::size) return said;
        const auto end = said + (says_ == Placed::Says::last ? 1 : 0);
        return end >= offset ? end - offset : ~0ull;
    }

    /// Numbers of data files: every record has one of a file that is there.
    bool find_numbers() {
        if (!around_.files.numbered) return true;
        for (const auto order : {ByteOrder::little, ByteOrder::big})
            for (std::uint64_t c = 0; c < table_.numbers; ++c)
                for (const unsigned w : {4u, 2u, 1u}) {  // the widest that holds; its upper bytes are zero in the example
                    if (c + w > table_.numbers || (w == 1 && order == ByteOrder::big) || !pay(around_, n_)) continue;
                    const Column column{c, w, order};
                    bool every = true;
                    for (std::size_t i = 0; every && i < n_; ++i) every = around_.files.sizes.contains(column.of(file_, table_, i));
                    if (every) numbers_.push_back(column);
                }
        return !numbers_.empty();
    }

    bool pairs(ByteOrder order, unsigned width) {
        // What some records have at each place; only places whose numbers are not all too large can be sizes.
        const auto places = static_cast<std::size_t>(table_.numbers);
        std::vector<std::vector<std::uint64_t>> values(places);
        std::vector<bool> may_be_size(places);
        if (!pay(around_, sample_.size() * places + places * places / 4)) return false;
        const bool known = table_.rows > 0;  // numbers of records of one size mostly stand at multiples of four of each other
        const std::uint64_t step = known && !table_.rising && table_.form == NameForm::none ? 4 : 1;
        for (std::uint64_t at = 0; at + width <= places; at += step) {
            std::uint64_t sum = 0;
            bool fits = !table_.in_name(at, width);
            for (const auto i : sample_) {
                values[at].push_back(Column{at, width, order}.of(file_, table_, i));
                fits = fits && values[at].back() <= room_;
                sum += fits ? values[at].back() : 0;
            }
            // Small numbers that are all the same are flags.
            const bool same = std::all_of(values[at].begin(), values[at].end(), [&](auto v) { return v == values[at].front(); });
            may_be_size[at] = fits && sum > 0 && !(same && values[at].front() < 64);
        }
        for (std::uint64_t a = table_.rising ? table_.rising->first : 0; a + width <= places; a += step) {
            if (!table_.in_name(a, width) && !values[a].empty())
                for (std::uint64_t b = 0; b + width <= places; b += step) {
                    if (a < b + width && b < a + width) continue;
                    if (may_be_size[b] && !pair({a, width, order}, {b, width, order}, values[a], values[b])) return false;
                    // Of a table that was found by what rises that may be where entries end.
                    if (table_.rising && says_ != Placed::Says::size && may_be_size[a] && !values[b].empty() &&
                        !pair({b, width, order}, {a, width, order}, values[b], values[a]))
                        return false;
                }
            if (table_.rising) break;
        }
        return true;
    }

    bool pair(const Column& a, const Column& b, const std::vector<std::uint64_t>& offsets, const std::vector<std::uint64_t>& said) {
        auto sizes = said;
        for (std::size_t k = 0; k < sizes.size(); ++k)
            if ((sizes[k] = size_of(offsets[k], said[k])) > room_) return pay(around_, 1);
        for (const auto unit : units) {
            if (!pay(around_, 1)) return false;
            if (unit > 1 && says_ != Placed::Says::size) break;  // too much would fit
            std::uint64_t furthest = 0;
            bool fits = true;
            for (std::size_t k = 0; fits && k < sample_.size(); ++k) {
                fits = offsets[k] <= room_ / unit && offsets[k] * unit <= room_ - sizes[k];
                furthest = std::max(furthest, offsets[k] * unit + sizes[k]);
            }
            if (!fits || !side_by_side(a, b, unit, furthest)) continue;
            const auto with = [&](std::uint64_t base) {
                for (std::size_t k = 0; k < sample_.size(); ++k) {
                    const auto begin = offsets[k] * unit + base;
                    if (begin > room_ || begin > room_ - sizes[k] || over_table(around_, table_, begin, sizes[k])) return;
                }
                Placed placed;
                placed.offset = a;
                placed.size = b;
                placed.says = says_;
                placed.unit = unit;
                placed.base = base;
                check_all(std::move(placed));
            };
            for (const auto base : around_.bases) with(base);
            // Offsets may count from where the data begins, which is where the last entry then ends with the data.
            if (around_.files.pattern.empty())
                for (const auto end : ends_of_data(around_, table_))
                    if (end > furthest && std::find(around_.bases.begin(), around_.bases.end(), end - furthest) == around_.bases.end())
                        with(end - furthest);
        }
        return true;
    }

    /// Whether entries do not overlap and have no wide gaps between them, wherever offsets count from; and where the last one ends. Nearly
    /// all wrong pairs fail here.
    bool side_by_side(const Column& a, const Column& b, std::uint64_t unit, std::uint64_t& furthest) {
        std::vector<std::pair<std::uint64_t, std::uint64_t>> spans;
        std::uint64_t sum = 0;
        for (std::size_t i = 0; i < n_; ++i) {
            const auto offset = a.of(file_, table_, i), size = size_of(offset, b.of(file_, table_, i));
            if (!pay(around_, 1) || offset > room_ / unit || size > room_ || offset * unit > room_ - size) return false;
            if (size == 0) continue;
            sum += size;
            if (table_.rising && !spans.empty() && offset * unit < spans.back().first + spans.back().second &&
                std::pair(offset * unit, size) != spans.back())
                return false;
            spans.emplace_back(offset * unit, size);
            furthest = std::max(furthest, offset * unit + size);
        }
        const auto all = all_bytes(around_.files);
        if (spans.size() < 2 || sum / 2 > all || around_.files.numbered) return spans.size() >= 2 && around_.files.numbered;
        if (!table_.rising) {
            if (!pay(around_, 3 * n_)) return false;
            std::sort(spans.begin(), spans.end());
        }
        std::uint64_t end = spans.front().first;
        for (std::size_t i = 0; i < spans.size(); ++i) {
            if (i > 0 && spans[i] == spans[i - 1]) continue;
            if (spans[i].first < end || spans[i].first - end >= widest_gap) return false;
            end = spans[i].first + spans[i].second;
        }
        return true;
    }

    int score_of(const Placed& p) const {
        std::uint64_t first = ~0ull, last = 0;
        for (std::size_t i = 0; i < n_; ++i)
            if (p.sizes[i] > 0) first = std::min(first, p.begins[i]), last = std::max(last, p.begins[i] + p.sizes[i]);
        const bool beside = !around_.files.pattern.empty();
        const auto ends = ends_of_data(around_, table_);
        const auto closes = [&](std::uint64_t end) {
            return end >= last && end - last < widest_gap && (beside || only_zeros(file_, last, end));
        };
        return (can_begin(around_, table_, first) ? 1 : 0) +
               (around_.files.numbered || std::any_of(ends.begin(), ends.end(), closes) ? 1 : 0);
    }

    /// All records, with everything that must hold.
    void check_all(Placed p) {
        const auto check = [&](Placed q) {
            if (!pay(around_, 4 * n_ + 32)) return;
            std::map<std::uint64_t, Spans> by_file;
            q.begins.resize(n_);
            q.sizes.resize(n_);
            for (std::size_t i = 0; i < n_; ++i) {
                const auto offset = q.offset->of(file_, table_, i), size = size_of(offset, q.size->of(file_, table_, i));
                if (size > room_ || offset > room_ / q.unit || offset * q.unit + q.base > room_ - size) return;
                const auto begin = offset * q.unit + q.base;
                if (over_table(around_, table_, begin, size)) return;
                const auto number = q.number ? q.number->of(file_, table_, i) : around_.files.sizes.begin()->first;
                if (!around_.files.sizes.contains(number)) return;
                auto& spans = by_file[number];
                spans.begin.push_back(q.begins[i] = begin);
                spans.size.push_back(q.sizes[i] = size);
            }
            for (auto& [number, spans] : by_file) {
                std::uint64_t part = 0;
                if (!tile(spans, around_.files.sizes.at(number), part)) return;
                q.covered += part;
            }
            const auto score = score_of(q);
            if (best_ && std::pair(score, q.covered) <= std::pair(best_score_, best_->covered)) return;
            best_ = std::move(q);
            best_score_ = score;
        };
        if (!around_.files.numbered) return check(std::move(p));
        for (const auto& column : numbers_) {
            if (!column.apart(*p.offset) || !column.apart(*p.size)) continue;
            p.number = column;
            check(p);
        }
    }
};

}  // namespace

std::optional<Placed> place_by_sizes(const Surroundings& around, const Table& table) {
    if (table.count() < least_records || table.numbers < 8) return std::nullopt;
    return BySizes(around, table, 2).find();
}

std::optional<Placed> place_by_ends(const Surroundings& around, const Table& table) {
    if (table.count() < least_records || table.numbers < 8) return std::nullopt;
    // Where entries lie side by side only one reading has them touch; where all are padded both fit.
    const auto touching = [](const Placed& p) {
        std::vector<std::uint64_t> begins;
        for (std::size_t i = 0; i < p.begins.size(); ++i)
            if (p.sizes[i] > 0) begins.push_back(p.begins[i]);
        std::sort(begins.begin(), begins.end());
        std::size_t n = 0;
        for (std::size_t i = 0; i < p.begins.size(); ++i)
            n += p.sizes[i] > 0 && std::binary_search(begins.begin(), begins.end(), p.begins[i] + p.sizes[i]);
        return n;
    };
    auto end = BySizes(around, table, 2, Placed::Says::end).find(), last = BySizes(around, table, 2, Placed::Says::last).find();
    if (!end || !last) return end ? end : last;
    const auto ends = touching(*end), lasts = touching(*last);
    auto& likely = lasts > ends ? last : end;
    likely->end_unclear = lasts == ends;
    return likely;
}

std::optional<Placed> place_loosely(const Surroundings& around, const Table& table) {
    if (table.count() < least_records || table.numbers < 8) return std::nullopt;
    return BySizes(around, table, 1).find();
}

std::optional<Placed> place_by_next(const Surroundings& around, const Table& table) {
    const auto n = table.count();
    if (n < least_records || table.numbers < 4 || around.files.numbered) return std::nullopt;
    const auto room = most_bytes(around.files);
    const auto ends = ends_of_data(around, table);
    std::optional<Placed> best;
    int best_score = 0;
    const auto look = [&](const Column& column) {
        if (!pay(around, n / 8 + 8)) return;
        std::vector<std::uint64_t> values(n);
        for (std::size_t i = 0; i < n; ++i) {
            values[i] = column.of(around.file, table, i);
            if (values[i] > room || (i > 0 && values[i] < values[i - 1])) return;
        }
        if (values.front() == values.back()) return;
        // One record more may say where the last entry ends.
        std::optional<std::uint64_t> closing;
        const auto empty_name = table.rows > 0 || table.leads ? 0 : std::max(table.prefix, 1u);
        const auto closing_at = table.end + empty_name + column.at;
        if (closing_at + column.width <= around.file.size())
            if (const auto v = load_uint(around.file.data() + closing_at, column.width, column.order); v >= values.back() && v <= room)
                closing = v;
        for (const auto unit : units) {
            if (values.back() > room / unit) continue;
            const auto with = [&](std::uint64_t base, std::uint64_t end, bool closes) {
                const auto first = values.front() * unit + base, last = values.back() * unit + base;
                auto wide = table;  // the record that closes belongs to the table
                if (closes) wide.end += table.numbers + (table.rows > 0 ? 0 : std::max(table.prefix, 1u));
                if (last > end || end > room || !can_begin(around, wide, first)) return;
                if ((last - first) * 3 < end - first) return;  // most of the data in the last entry: small numbers of something else
                if (around.files.pattern.empty() && (first < wide.at ? end > wide.at : first < wide.end)) return;
                Placed p;
                p.ends = closes ? Placed::Ends::next_record : Placed::Ends::next_offset;
                p.offset = column;
                p.unit = unit;
                p.base = base;
                p.begins.resize(n);
                p.sizes.resize(n);
                for (std::size_t i = 0; i < n; ++i) {
                    p.begins[i] = values[i] * unit + base;
                    p.sizes[i] = (i + 1 < n ? values[i + 1] * unit + base : end) - p.begins[i];
                }
                p.covered = end - first;
                // An end that is said speaks loudest, then a beginning that is.
                const auto known =
                    first >= table.end && std::find(around.numbers.begin(), around.numbers.end(), first) != around.numbers.end();
                const auto score = (closes ? 2 : 0) + (known ? 1 : 0);
                if (p.covered * 2 < room || (best && std::pair(score, p.covered) <= std::pair(best_score, best->covered))) return;
                best = std::move(p);
                best_score = score;
            };
            for (const auto end : ends) {
                if (closing && *closing <= room / unit && *closing * unit <= end) with(end - *closing * unit, end, true);
                if (unit > 1) continue;  // too much would fit
                for (const auto base : around.bases) with(base, end, false);
            }
        }
    };
    if (table.rising) {
        look({table.rising->first, 4, table.rising->second});
    } else {
        for (const auto order : {ByteOrder::little, ByteOrder::big})
            for (std::uint64_t at = 0; at + 4 <= table.numbers; at += table.form == NameForm::none ? 4 : 1)
                if (!table.in_name(at, 4)) look({at, 4, order});
    }
    return best;
}

std::optional<Placed> place_in_a_row(const Surroundings& around, const Table& table) {
    const auto n = table.count();
    if (n < least_records || table.numbers < 4 || around.files.numbered) return std::nullopt;
    const auto room = most_bytes(around.files);
    for (const auto order : {ByteOrder::little, ByteOrder::big})
        for (std::uint64_t at = 0; at + 4 <= table.numbers; at += table.rows > 0 && table.form == NameForm::none ? 4 : 1) {
            const Column column{at, 4, order};
            if (table.in_name(at, 4) || !pay(around, 8)) continue;
            std::uint64_t sum = 0;
            std::size_t i = 0;
            for (; i < n && sum <= room; ++i) sum += column.of(around.file, table, i);
            if (!pay(around, i / 8)) return std::nullopt;
            if (sum > room || sum * 2 < room) continue;
            for (const auto end : ends_of_data(around, table)) {
                if (end < sum || !can_begin(around, table, end - sum)) continue;
                const auto first = end - sum;
                if (around.files.pattern.empty() && (first < table.at ? end > table.at : first < table.end)) continue;
                // Nothing but a sum that is exact speaks for it: padding in front would be as good as any other number.
                if (first > table.end && around.files.pattern.empty() && first % 16 != 0 && first != table.end &&
                    std::none_of(around.names.begin(), around.names.end(), [&](const NameRun& run) { return first == run.end; }) &&
                    std::find(around.bases.begin(), around.bases.end(), first) == around.bases.end())
                    continue;
                Placed p;
                p.size = column;
                p.base = first;
                p.covered = sum;
                auto place = first;
                for (std::size_t k = 0; k < n; ++k) {
                    p.begins.push_back(place);
                    p.sizes.push_back(column.of(around.file, table, k));
                    place += p.sizes.back();
                }
                return p;
            }
        }
    return std::nullopt;
}

}  // namespace skivet::draft
