#include "container/draft_table.h"

#include <algorithm>
#include <numeric>

namespace skivet::draft {
namespace {

constexpr std::uint64_t looked_at = 16u << 20;  ///< bytes at both ends of the file
constexpr std::size_t longest_name = 512;       ///< bytes kept for a name
constexpr std::size_t most_numbers = 96;        ///< bytes of numbers beside a name
constexpr std::size_t least_records = 3;        ///< two of anything look regular

bool is_name_sign(std::byte b) {
    const auto c = static_cast<unsigned char>(b);
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '.' || c == '/' || c == '\\' ||
           c == '-' || c == ' ' || c == '(' || c == ')' || c == '+' || c >= 0x80;
}

/// A stretch that may be a name: at least three signs, a letter among them.
std::uint64_t name_length(ByteSpan file, std::uint64_t at, std::uint64_t most) {
    std::uint64_t n = 0;
    while (n < most && at + n < file.size() && is_name_sign(file[static_cast<std::size_t>(at + n)])) ++n;
    return n;
}
bool is_name(ByteSpan file, std::uint64_t at, std::uint64_t length) {
    if (length < 1 || length > longest_name || at + length > file.size() || name_length(file, at, length) < length) return false;
    std::uint64_t letters = 0, far = 0;
    for (std::uint64_t i = 0; i < length; ++i) {
        const auto c = static_cast<unsigned char>(file[static_cast<std::size_t>(at + i)]);
        letters += (c | 32) >= 'a' && (c | 32) <= 'z';
        far += c >= 0x80;
    }
    return letters > 0 && far * 3 <= length;  // names are mostly plain letters; other bytes are mostly no names
}

std::optional<std::uint64_t> prefix_at(ByteSpan file, std::uint64_t at, unsigned width, ByteOrder order) {
    if (at + width > file.size()) return std::nullopt;
    const auto n = load_uint(file.data() + at, width, order);
    if (n < 1 || n > longest_name || !is_name(file, at + width, n)) return std::nullopt;
    return n;
}

/// Follows records from the name whose prefix stands at `first`, with `gap` bytes of numbers between them.
std::vector<std::uint64_t> follow_prefixed(ByteSpan file, std::uint64_t first, unsigned width, ByteOrder order, std::uint64_t gap) {
    std::vector<std::uint64_t> ends;  // behind each name
    for (auto at = first;;) {
        const auto n = prefix_at(file, at, width, order);
        if (!n) break;
        ends.push_back(at + width + *n);
        at = ends.back() + gap;
        if (at >= file.size()) break;
    }
    return ends;
}

std::vector<std::uint64_t> follow_terminated(ByteSpan file, std::uint64_t first, std::uint64_t gap) {
    std::vector<std::uint64_t> ends;  // behind each zero
    for (auto at = first; at < file.size();) {
        const auto n = name_length(file, at, longest_name);
        if (n < 1 || at + n >= file.size() || file[static_cast<std::size_t>(at + n)] != std::byte{0} || !is_name(file, at, n)) break;
        ends.push_back(at + n + 1);
        at = ends.back() + gap;
    }
    return ends;
}

/// Text goes on and on with the same words; numbers are mostly no letters.
bool looks_like_text(ByteSpan file, const std::vector<std::uint64_t>& ends, std::uint64_t gap) {
    std::uint64_t signs = 0, all = 0;
    for (const auto end : ends)
        for (auto at = end; at < std::min<std::uint64_t>(end + gap, file.size()); ++at, ++all)
            signs += is_name_sign(file[static_cast<std::size_t>(at)]);
    return signs * 2 > all;
}

/// Adds the records with their numbers behind the names and, as another guess, before them.
void add_both(std::vector<Table>& out, Table table, const std::vector<std::uint64_t>& starts, const std::vector<std::uint64_t>& ends,
              std::uint64_t gap, std::uint64_t file_size) {
    table.numbers = gap;
    table.leads = false;
    table.at = starts.front();
    table.numbers_at = ends;
    if (ends.back() + gap > file_size) table.numbers_at.pop_back();
    table.end = table.numbers_at.empty() ? 0 : table.numbers_at.back() + gap;
    if (table.count() >= least_records) out.push_back(table);
    if (starts.front() < gap) return;
    table.leads = true;
    table.at = starts.front() - gap;
    table.numbers_at.clear();
    for (const auto start : starts) table.numbers_at.push_back(start - gap);
    table.end = ends.back();
    out.push_back(std::move(table));
}

/// All names of at least four signs in a stretch of the file, where names may begin.
std::vector<std::pair<std::uint64_t, std::uint64_t>> names_in(ByteSpan file, std::uint64_t from, std::uint64_t to) {
    std::vector<std::pair<std::uint64_t, std::uint64_t>> out;
    for (auto at = from; at < to && out.size() < 400'000;) {
        const auto n = name_length(file, at, longest_name);
        if (n >= 4 && is_name(file, at, n)) out.emplace_back(at, n);
        at += std::max<std::uint64_t>(n, 1);
    }
    return out;
}

/// Names in fields of one size: at the same distance, zeros behind each.
std::optional<Table> fixed_from(ByteSpan file, const std::vector<std::pair<std::uint64_t, std::uint64_t>>& names, std::size_t i,
                                std::vector<Table>& out) {
    if (i + 2 >= names.size()) return std::nullopt;
    const auto stride = names[i + 1].first - names[i].first;
    if (stride < 12 || stride > longest_name + most_numbers || names[i + 2].first - names[i + 1].first != stride) return std::nullopt;
    std::vector<std::uint64_t> starts;
    std::uint64_t longest = 0;
    for (auto at = names[i].first; at + stride <= file.size(); at += stride) {
        const auto n = name_length(file, at, stride);
        if (n < 1 || !is_name(file, at, n) || (n < stride && file[static_cast<std::size_t>(at + n)] != std::byte{0})) break;
        starts.push_back(at);
        longest = std::max(longest, n);
    }
    if (starts.size() < least_records) return std::nullopt;
    // The field ends before the first byte that is not zero behind any name; numbers begin at a multiple of four.
    auto field = stride;
    for (const auto start : starts)
        for (auto k = name_length(file, start, stride); k < field; ++k)
            if (file[static_cast<std::size_t>(start + k)] != std::byte{0}) {
                field = k;
                break;
            }
    field = field / 4 * 4;
    if (field < longest || field >= stride) return std::nullopt;
    Table table;
    table.form = NameForm::fixed;
    // High bytes of a big-endian number are zero too, so the field may end earlier.
    for (auto size = field; size >= longest && size + most_numbers > stride && size + 8 > field && size > 0; size -= 4) {
        std::vector<std::uint64_t> ends;
        for (const auto start : starts) ends.push_back(start + size);
        table.name_bytes = size;
        add_both(out, table, starts, ends, stride - size, file.size());
        if (size < 4) break;
    }
    table.end = starts.back() + stride;
    return table;
}

void keep_longest(std::vector<Table>& tables, std::size_t most) {
    std::stable_sort(tables.begin(), tables.end(), [](const auto& a, const auto& b) { return a.count() > b.count(); });
    if (tables.size() > most) tables.resize(most);
}

struct Spans {
    std::vector<std::uint64_t> begin, size;
};

/// True when the stretches neither overlap nor leave more between them than their alignment explains. Equal ones may be shared.
bool tile(Spans& spans, std::uint64_t limit, std::uint64_t& covered) {
    const auto n = spans.begin.size();
    std::vector<std::size_t> order(n);
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(),
              [&](auto a, auto b) { return std::pair(spans.begin[a], spans.size[a]) < std::pair(spans.begin[b], spans.size[b]); });
    std::uint64_t align = 0;
    for (const auto b : spans.begin) align = std::gcd(align, b);
    const auto most_gap = std::clamp<std::uint64_t>(align, 16, 65536);
    std::uint64_t end = 0, last_begin = ~0ull;
    bool first = true;
    covered = 0;
    for (const auto i : order) {
        const auto begin = spans.begin[i], size = spans.size[i];
        if (size > limit || begin > limit - size) return false;
        if (size == 0) continue;
        if (!first && begin == last_begin && begin + size == end) continue;
        if (!first && (begin < end || begin - end >= most_gap)) return false;
        first = false;
        last_begin = begin;
        end = begin + size;
        covered += size;
    }
    return covered > 0;
}

}  // namespace

std::vector<Table> tables_with_names(ByteSpan file) {
    std::vector<Table> out;
    const auto look = [&](std::uint64_t from, std::uint64_t to) {
        const auto names = names_in(file, from, to);
        std::uint64_t done = 0;  // names before this place belong to a table that was found
        for (std::size_t i = 0; i < names.size(); ++i) {
            if (out.size() > 4096) keep_longest(out, 256);
            const auto [at, length] = names[i];
            if (at < done) continue;
            if (const auto table = fixed_from(file, names, i, out); table && table->count() >= 8) {
                done = table->end;
                continue;
            }
            // A length before the name: a byte that looks like a sign of a name may be part of it.
            for (const auto order : {ByteOrder::little, ByteOrder::big})
                for (const unsigned width : {2u, 4u, 1u}) {
                    if (width == 1 && order == ByteOrder::big) continue;
                    for (std::uint64_t start = at >= width ? at - width : at; start <= at && at >= done; ++start) {
                        const auto n = prefix_at(file, start, width, order);
                        if (!n || *n < 3) continue;
                        for (std::uint64_t gap = 4; gap <= most_numbers; ++gap) {
                            if (!prefix_at(file, start + width + *n + gap, width, order)) continue;
                            const auto ends = follow_prefixed(file, start, width, order, gap);
                            if (ends.size() < least_records || looks_like_text(file, ends, gap)) continue;
                            Table table;
                            table.form = NameForm::prefixed;
                            table.prefix = width;
                            table.order = order;
                            std::vector<std::uint64_t> starts = {start};
                            for (std::size_t k = 0; k + 1 < ends.size(); ++k) starts.push_back(ends[k] + gap);
                            add_both(out, table, starts, ends, gap, file.size());
                            if (ends.size() >= 8 || ends.back() + gap >= file.size()) done = ends.back();
                        }
                    }
                }
            if (at < done) continue;
            if (at + length < file.size() && file[static_cast<std::size_t>(at + length)] == std::byte{0})
                for (std::uint64_t gap = 4; gap <= most_numbers; ++gap) {
                    const auto ends = follow_terminated(file, at, gap);
                    if (ends.size() < least_records || looks_like_text(file, ends, gap)) continue;
                    Table table;
                    table.form = NameForm::terminated;
                    std::vector<std::uint64_t> starts = {at};
                    for (std::size_t k = 0; k + 1 < ends.size(); ++k) starts.push_back(ends[k] + gap);
                    add_both(out, table, starts, ends, gap, file.size());
                    if (ends.size() >= 8) done = ends.back();
                }
        }
    };
    look(0, std::min<std::uint64_t>(file.size(), looked_at));
    if (file.size() > looked_at) look(std::max(looked_at, file.size() - looked_at), file.size());
    keep_longest(out, 256);
    return out;
}

std::vector<Table> tables_of_numbers(ByteSpan file) {
    // Where a header says the table is, and how many records it has; or right behind a small header.
    std::vector<std::uint64_t> starts, counts;
    const auto head = std::min<std::size_t>(file.size(), 64);
    for (std::size_t at = 4; at + 4 <= head; at += 4)
        for (const auto order : {ByteOrder::little, ByteOrder::big}) {
            const auto v = load_uint(file.data() + at, 4, order);
            if (v >= 8 && v < file.size()) starts.push_back(v);
            if (v >= 4 && v <= file.size() / 8) counts.push_back(v);
        }
    for (std::uint64_t at = 8; at <= 128 && at < file.size(); at += 4) starts.push_back(at);
    std::vector<Table> out;
    for (const auto start : starts)
        for (const auto count : counts)
            for (std::uint64_t size = 8; size <= 64; size += 4) {
                if (count > (file.size() - start) / size || out.size() >= 4'000) continue;
                Table table;
                table.numbers = size;
                table.at = start;
                table.end = start + count * size;
                table.bare = count;
                out.push_back(std::move(table));
            }
    return out;
}

std::optional<Placed> place_entries(ByteSpan file, const Table& table, const DataFiles& files, const std::vector<std::uint64_t>& bases,
                                    std::uint64_t& budget) {
    constexpr std::uint64_t units[] = {1, 2048, 16, 512, 4, 8, 32, 64, 128, 256, 1024, 4096, 65536};
    const auto n = table.count();
    if (n < least_records || table.numbers < 8) return std::nullopt;
    std::uint64_t room = 0, all = 0;  // the largest data file; bytes there are to cover
    for (const auto& [number, size] : files.sizes) room = std::max(room, size), all += size;
    std::vector<std::size_t> sample;
    for (std::size_t k = 0; k < std::min<std::size_t>(n, 24); ++k) sample.push_back(n <= 24 ? k : k * (n / 24));
    std::optional<Placed> best;

    const auto pay = [&](std::uint64_t work) {
        budget -= std::min(budget, work);
        return budget > 0;
    };
    /// All records, with everything that must hold.
    const auto check_all = [&](const Placed& p) {
        if (!pay(4 * n + 32)) return;
        std::map<std::uint64_t, Spans> by_file;
        for (std::size_t i = 0; i < n; ++i) {
            const auto size = p.size.of(file, table, i), offset = p.offset.of(file, table, i);
            if (size > room || offset > room / p.unit || offset * p.unit + p.base > room - size) return;
            const auto begin = offset * p.unit + p.base;
            if (files.pattern.empty() && size > 0 && begin < table.end && begin + size > table.at) return;  // over its own table
            const auto number = p.number ? p.number->of(file, table, i) : files.sizes.begin()->first;
            if (!files.sizes.contains(number)) return;
            auto& spans = by_file[number];
            spans.begin.push_back(begin);
            spans.size.push_back(size);
        }
        std::uint64_t covered = 0;
        for (auto& [number, spans] : by_file) {
            std::uint64_t part = 0;
            if (!tile(spans, files.sizes.at(number), part)) return;
            covered += part;
        }
        if (best && covered <= best->covered) return;
        best = p;
        best->covered = covered;
    };

    // Numbers of data files: every record has one of a file that is there.
    std::vector<Column> numbers;
    for (const auto order : {ByteOrder::little, ByteOrder::big})
        for (std::uint64_t c = 0; files.numbered && c < table.numbers; ++c)
            for (const unsigned w : {4u, 2u, 1u}) {  // the widest that holds; its upper bytes are zero in the example
                if (c + w > table.numbers || (w == 1 && order == ByteOrder::big) || !pay(n)) continue;
                const Column column{c, w, order};
                bool every = true;
                for (std::size_t i = 0; every && i < n; ++i) every = files.sizes.contains(column.of(file, table, i));
                if (every) numbers.push_back(column);
            }
    if (files.numbered && numbers.empty()) return std::nullopt;

    const std::uint64_t step = table.form == NameForm::none ? 4 : 1;
    for (const auto order : {ByteOrder::little, ByteOrder::big})
        for (const unsigned width : {4u, 8u}) {
            // What some records have at each place; only places whose numbers are not all too large can be sizes.
            std::vector<std::vector<std::uint64_t>> values(static_cast<std::size_t>(table.numbers));
            std::vector<bool> may_be_size(values.size());
            if (!pay(sample.size() * values.size() / step)) return std::nullopt;
            for (std::uint64_t at = 0; at + width <= table.numbers; at += step) {
                std::uint64_t sum = 0;
                bool fits = true;
                for (const auto i : sample) {
                    values[at].push_back(Column{at, width, order}.of(file, table, i));
                    fits = fits && values[at].back() <= room;
                    sum += fits ? values[at].back() : 0;
                }
                may_be_size[at] = fits && sum > 0;
            }
            for (std::uint64_t a = 0; a + width <= table.numbers; a += step)
                for (std::uint64_t b = 0; b + width <= table.numbers; b += step) {
                    if (!may_be_size[b] || (a < b + width && b < a + width)) continue;
                    const auto& offsets = values[a];
                    const auto& sizes = values[b];
                    for (const auto unit : units)
                        for (const auto base : bases) {
                            if (!pay(1)) return std::nullopt;
                            bool fits = true;
                            for (std::size_t k = 0; fits && k < sample.size(); ++k) {
                                fits = offsets[k] <= room / unit && offsets[k] * unit + base <= room - sizes[k];
                                const auto begin = offsets[k] * unit + base;
                                fits = fits && !(files.pattern.empty() && sizes[k] > 0 && begin < table.end && begin + sizes[k] > table.at);
                            }
                            if (!fits) continue;
                            Placed p{{a, width, order}, {b, width, order}, unit, base, std::nullopt, 0};
                            if (!files.numbered) check_all(p);
                            for (const auto& column : numbers) {
                                if ((column.at < a + width && a < column.at + column.width) ||
                                    (column.at < b + width && b < column.at + column.width))
                                    continue;
                                p.number = column;
                                check_all(p);
                            }
                        }
                }
            if (best && best->covered * 2 >= all) return best;
        }
    // Entries that cover little of the file were found by chance.
    return best && best->covered * 2 >= all ? best : std::nullopt;
}

}  // namespace skivet::draft
