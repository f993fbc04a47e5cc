#include "container/draft_table.h"

#include <algorithm>
#include <numeric>

namespace skivet::draft {
namespace {

constexpr std::uint64_t looked_at = 16u << 20;   ///< bytes at both ends of the file
constexpr std::size_t most_numbers = 96;         ///< bytes of numbers beside a name
constexpr std::uint64_t most_work = 12'000'000;  ///< names looked at for records, a second or two
constexpr std::size_t least_records = 3;         ///< two of anything look regular

bool is_name_sign(std::byte b) {
    const auto c = static_cast<unsigned char>(b);
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '.' || c == '/' || c == '\\' ||
           c == '-' || c == ' ' || c == '(' || c == ')' || c == '+' || c >= 0x80;
}

}  // namespace

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

std::optional<std::uint64_t> prefixed_name(ByteSpan file, std::uint64_t at, unsigned width, ByteOrder order) {
    if (at + width > file.size()) return std::nullopt;
    const auto n = load_uint(file.data() + at, width, order);
    if (n < 1 || n > longest_name || !is_name(file, at + width, n)) return std::nullopt;
    return n;
}

namespace {

/// Follows records from the name whose prefix stands at `first`, with `gap` bytes of numbers between them.
std::vector<std::uint64_t> follow_prefixed(ByteSpan file, std::uint64_t first, unsigned width, ByteOrder order, std::uint64_t gap) {
    std::vector<std::uint64_t> ends;  // behind each name
    for (auto at = first;;) {
        const auto n = prefixed_name(file, at, width, order);
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

/// Records before the first that was met: their names may have been taken together with what stands before them, which looks like signs of
/// a name, too. Where the header points into the first one, it begins there.
void follow_back(ByteSpan file, std::uint64_t gap, bool leads, const Places& places, std::vector<std::uint64_t>& starts,
                 std::vector<std::uint64_t>& ends) {
    const auto byte = [&](std::uint64_t at) { return file[static_cast<std::size_t>(at)]; };
    std::vector<std::uint64_t> more_starts, more_ends;
    for (std::uint64_t glued = 0; glued <= 12 && starts.front() + glued + 1 < ends.front(); ++glued) {
        const auto at = starts.front() + glued;
        if (at < gap + 8 || byte(at - gap - 1) != std::byte{0}) continue;
        const auto end = at - gap - 1;
        auto begin = end;
        while (begin > 0 && end - begin < longest_name && is_name_sign(byte(begin - 1))) --begin;
        if (end - begin < 5 || !is_name(file, begin, end - begin)) continue;
        // A name: then another ends right before its numbers, or the header says that the first record is here.
        bool chained = false;
        for (auto name = begin; name < end && name <= begin + 16; ++name)
            chained = chained || (name > gap + 2 && byte(name - gap - 1) == std::byte{0} && is_name_sign(byte(name - gap - 2))) ||
                      std::binary_search(places.numbers.begin(), places.numbers.end(), leads ? name - gap : name);
        if (!chained) continue;
        starts.front() = at;
        break;
    }
    for (auto start = starts.front(); start > gap + 2 && more_starts.size() < 100'000;) {
        const auto end = start - gap - 1;  // the zero behind the name before
        if (byte(end) != std::byte{0}) break;
        auto begin = end;
        while (begin > 0 && end - begin < longest_name && is_name_sign(byte(begin - 1))) --begin;
        if (begin == end) break;
        // It begins where another record ends right before its numbers, or where the header says.
        std::optional<std::uint64_t> found;
        for (const auto place : places.numbers)
            if (const auto name = leads ? place + gap : place; name >= begin && name < end && is_name(file, name, end - name)) found = name;
        for (auto at = begin; !found && at < end && at - begin <= 16; ++at)
            if (at > gap && byte(at - gap - 1) == std::byte{0} && at > gap + 1 && is_name_sign(byte(at - gap - 2)) &&
                is_name(file, at, end - at))
                found = at;
        const bool last = !found || std::binary_search(places.numbers.begin(), places.numbers.end(), leads ? *found - gap : *found);
        if (!found && !is_name(file, begin, end - begin)) break;
        more_starts.push_back(found.value_or(begin));
        more_ends.push_back(end + 1);
        if (last) break;
        start = *found;
    }
    starts.insert(starts.begin(), more_starts.rbegin(), more_starts.rend());
    ends.insert(ends.begin(), more_ends.rbegin(), more_ends.rend());
}

/// Text goes on and on with the same words; numbers are mostly no letters.
bool looks_like_text(ByteSpan file, const std::vector<std::uint64_t>& ends, std::uint64_t gap) {
    std::uint64_t signs = 0, all = 0;
    for (std::size_t k = 0; k < std::min<std::size_t>(ends.size(), 64); ++k)
        for (auto end = ends[k], at = end; at < std::min<std::uint64_t>(end + gap, file.size()); ++at, ++all)
            signs += is_name_sign(file[static_cast<std::size_t>(at)]);
    return signs * 2 > all;
}

/// Adds the records with their numbers behind the names …
void add_behind(std::vector<Table>& out, Table table, const std::vector<std::uint64_t>& starts, const std::vector<std::uint64_t>& ends,
                std::uint64_t gap, std::uint64_t file_size) {
    table.numbers = gap;
    table.leads = false;
    table.at = starts.front();
    table.numbers_at = ends;
    if (ends.back() + gap > file_size) table.numbers_at.pop_back();
    table.end = table.numbers_at.empty() ? 0 : table.numbers_at.back() + gap;
    if (table.count() >= least_records) out.push_back(std::move(table));
}

/// … and, as another guess, before them.
void add_before(std::vector<Table>& out, Table table, const std::vector<std::uint64_t>& starts, const std::vector<std::uint64_t>& ends,
                std::uint64_t gap) {
    if (starts.front() < gap) return;
    table.numbers = gap;
    table.leads = true;
    for (const auto start : starts) table.numbers_at.push_back(start - gap);
    table.end = ends.back();
    // The last bytes of the first record's numbers may look like signs of its name.
    for (std::uint64_t glued = 0; glued <= 12 && (glued == 0 || table.form == NameForm::terminated); ++glued) {
        if (starts.front() + glued + 1 >= ends.front()) break;
        table.numbers_at.front() = starts.front() + glued - gap;
        table.at = table.numbers_at.front();
        out.push_back(table);
    }
}

/// All names of at least four plain signs in a stretch of the file, where records may begin. Names with other letters are followed from
/// there: packed data is full of what could be one.
std::vector<std::pair<std::uint64_t, std::uint64_t>> names_in(ByteSpan file, std::uint64_t from, std::uint64_t to) {
    std::vector<std::pair<std::uint64_t, std::uint64_t>> out;
    for (auto at = from; at < to && out.size() < 400'000;) {
        const auto n = name_length(file, at, file.size());
        if (n > longest_name) {  // text
            at += n;
            continue;
        }
        // The end of a number may look like other letters in front of it.
        auto begin = at;
        for (auto k = at; k < at + std::min<std::uint64_t>(n, 4); ++k)
            if (file[static_cast<std::size_t>(k)] >= std::byte{0x80}) begin = k + 1;
        const auto signs = at + n - begin;
        const auto plain = std::all_of(file.begin() + static_cast<std::ptrdiff_t>(begin),
                                       file.begin() + static_cast<std::ptrdiff_t>(begin + std::min<std::uint64_t>(signs, 4)),
                                       [](std::byte b) { return b < std::byte{0x80}; });
        if (signs >= 4 && plain && is_name(file, begin, signs)) out.emplace_back(begin, signs);
        at += std::max<std::uint64_t>(n, 1);
    }
    return out;
}

/// Names in fields of one size: at the same distance, zeros behind each. The numbers may stand behind the name, before it, or on both
/// sides.
std::uint64_t fixed_from(ByteSpan file, const std::vector<std::pair<std::uint64_t, std::uint64_t>>& names, std::size_t i,
                         const Places& places, std::vector<Table>& out) {
    if (i + 2 >= names.size()) return 0;
    const auto distance = names[i + 1].first - names[i].first;
    if (distance < 12 || distance > longest_name + most_numbers) return 0;
    // What stands before a name may look like signs of it, so names begin where the latest of a few begins.
    std::uint64_t stride = 0, begin = 0;
    for (const auto s : {distance, (distance + 3) / 4 * 4, distance / 4 * 4}) {
        std::uint64_t latest = names[i].first;
        std::size_t k = 1;
        for (; k < 12 && i + k < names.size(); ++k) {
            const auto at = names[i + k].first - std::min(names[i + k].first, k * s);
            if (at + 8 < names[i].first || at > names[i].first + 8) break;
            latest = std::max(latest, at);
        }
        if (k >= 3) {
            stride = s;
            begin = latest;
            break;
        }
    }
    if (stride == 0) return 0;
    std::uint64_t rows = 0, longest = 0, closed = 0;
    for (auto at = begin; at < file.size(); at += stride, ++rows) {
        const auto n = name_length(file, at, stride);
        if (n < 1 || !is_name(file, at, n) ||
            (n < stride && at + n < file.size() && file[static_cast<std::size_t>(at + n)] != std::byte{0}))
            break;
        longest = std::max(longest, n);
        closed += n < stride;
    }
    if (rows < least_records || closed * 2 < rows) return 0;
    // The first name may have been taken together with what stands before it. And where the numbers of all records end with the same byte
    // that looks like a sign of a name, only the first record tells that it is none.
    auto first = begin;
    for (std::uint64_t before = 0; before <= 4 && first >= stride; ++before) {
        const auto at = first - stride + before;
        const auto n = name_length(file, at, stride);
        if (n < 3 || !is_name(file, at, n) || (n < stride && file[static_cast<std::size_t>(at + n)] != std::byte{0})) continue;
        first = at;
        ++rows;
        break;
    }
    const auto most_lead = std::min<std::uint64_t>({stride - longest, most_numbers, first});
    const auto emit = [&](std::uint64_t at, std::uint64_t count) {
        Table table;
        table.at = at;
        table.numbers = stride;
        table.rows = std::min(count, (file.size() - table.at) / stride);
        table.end = table.at + table.rows * stride;
        find_name_field(file, table);
        if (table.form == NameForm::fixed && table.rows >= least_records) out.push_back(std::move(table));
    };
    const auto add = [&](std::uint64_t count) {
        for (std::uint64_t lead = 0; lead <= most_lead; lead += 4) {
            if (count > least_records && counted_before(file, first - lead + stride, count - 1)) emit(first - lead + stride, count - 1);
            emit(first - lead, count);
        }
    };
    add(rows);
    // What follows the table may be text, which goes on like names.
    const auto fewer = [&](std::uint64_t c) { return c >= least_records && c < rows && c * 2 > rows; };
    for (const auto c : places.counts)
        if (fewer(c)) add(c);
    return rows >= 8 ? first + rows * stride : 0;
}

void keep_longest(std::vector<Table>& tables, std::size_t most) {
    std::stable_sort(tables.begin(), tables.end(), [](const auto& a, const auto& b) { return a.count() > b.count(); });
    if (tables.size() > most) tables.resize(most);
}

}  // namespace

void find_name_field(ByteSpan file, Table& table) {
    // Where every record has a sign of a name or zero, and once a zero only zeros.
    const auto stride = static_cast<std::size_t>(table.numbers);
    const auto rows = static_cast<std::size_t>(table.rows);
    const auto byte = [&](std::size_t row, std::size_t k) { return file[static_cast<std::size_t>(table.at) + row * stride + k]; };
    std::size_t best_at = 0, best_bytes = 0;
    std::uint64_t best_signs = 0;
    for (std::size_t from = 0; from + 4 <= stride;) {
        const auto all_begin = [&] {
            for (std::size_t r = 0; r < rows; ++r)
                if (!is_name_sign(byte(r, from))) return false;
            return true;
        };
        if (!all_begin()) {
            ++from;
            continue;
        }
        std::vector<bool> ended(rows);
        std::uint64_t signs = 0;
        std::size_t to = from;
        for (bool fits = true; fits && to < stride; to += fits)
            for (std::size_t r = 0; fits && r < rows; ++r) {
                const auto b = byte(r, to);
                if (b == std::byte{0}) ended[r] = true;
                else if (ended[r] || !is_name_sign(b)) fits = false;
                else ++signs;
            }
        if (signs > best_signs) best_at = from, best_bytes = to - from, best_signs = signs;
        from = std::max(to, from + 1);
    }
    if (best_bytes >= 8) best_bytes = best_bytes / 4 * 4;  // high bytes of a big-endian number behind it are zero, too
    if (best_bytes < 4 || best_signs < 3 * table.rows) return;
    std::size_t names = 0;
    for (std::size_t r = 0; r < rows; ++r) {
        const auto at = table.at + r * stride + best_at;
        names += is_name(file, at, name_length(file, at, best_bytes));
    }
    if (names < rows) return;
    table.form = NameForm::fixed;
    table.name_at = best_at;
    table.name_bytes = best_bytes;
}

unsigned counted_before(ByteSpan file, std::uint64_t at, std::uint64_t count) {
    for (const unsigned width : {4u, 2u})
        for (const auto order : {ByteOrder::little, ByteOrder::big})
            if (at >= width && at <= file.size() && load_uint(file.data() + at - width, width, order) == count) return width;
    return 0;
}

bool is_whole_name(ByteSpan file, std::uint64_t at, std::uint64_t bytes) {
    return at + bytes < file.size() && is_name(file, at, bytes) && file[static_cast<std::size_t>(at + bytes)] == std::byte{0};
}

std::vector<NameRun> runs_of_names(ByteSpan file) {
    std::vector<NameRun> out;
    const auto look = [&](std::uint64_t from, std::uint64_t to) {
        for (auto at = from; at < to;) {
            NameRun run;
            run.at = at;
            for (auto name = at;;) {
                const auto n = name_length(file, name, longest_name);
                if (n < 1 || name + n >= file.size() || file[static_cast<std::size_t>(name + n)] != std::byte{0} || !is_name(file, name, n))
                    break;
                run.starts.push_back(name);
                name += n + 1;
                run.end = name;
            }
            if (run.starts.size() >= 16) {
                at = run.end;
                out.push_back(std::move(run));
                if (out.size() > 256) break;
            } else {
                at += std::max<std::uint64_t>(name_length(file, at, longest_name), 1);
            }
        }
    };
    look(0, std::min<std::uint64_t>(file.size(), looked_at));
    if (file.size() > looked_at) look(std::max(looked_at, file.size() - looked_at), file.size());
    std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.starts.size() > b.starts.size(); });
    if (out.size() > 8) out.resize(8);
    return out;
}

std::vector<Table> tables_with_names(ByteSpan file, const Places& places, const Progress& progress) {
    std::vector<Table> out;
    std::uint64_t work = 0;  // names looked at
    const auto emit = [&](const Table& table, const std::vector<std::uint64_t>& from, const std::vector<std::uint64_t>& to,
                          std::uint64_t gap, bool leads) {
        if (leads) return add_before(out, table, from, to, gap);
        // Behind a header, which is mostly numbers of four bytes or two: the last one's low bytes may look like signs of the first name.
        if (table.form == NameForm::terminated && from.front() < 256)
            for (const std::uint64_t bytes : {4, 2}) {
                auto first = from;
                first.front() = (from.front() + bytes - 1) / bytes * bytes;
                if (first.front() != from.front() && first.front() + 2 < to.front()) add_behind(out, table, first, to, gap, file.size());
            }
        add_behind(out, table, from, to, gap, file.size());
    };
    const auto add = [&](const Table& table, std::vector<std::uint64_t> starts, std::vector<std::uint64_t> ends, std::uint64_t gap) {
        for (const bool leads : {false, true}) {
            auto from = starts, to = ends;
            if (table.form == NameForm::terminated && ends.size() >= 8) follow_back(file, gap, leads, places, from, to);
            emit(table, from, to, gap, leads);
            // What stands before the first record may look like one: the header knows better how many there are.
            for (std::size_t more = 1; more <= 3 && more + least_records < from.size(); ++more) {
                if (!std::binary_search(places.counts.begin(), places.counts.end(), from.size() - more)) continue;
                std::vector fewer(from.begin() + static_cast<std::ptrdiff_t>(more), from.end());
                // The numbers of what was no record hid the beginning of the first name.
                while (table.form == NameForm::terminated && fewer.front() > 0 && to[more] - fewer.front() < longest_name &&
                       is_name_sign(file[static_cast<std::size_t>(fewer.front() - 1)]))
                    --fewer.front();
                const std::vector fewer_ends(to.begin() + static_cast<std::ptrdiff_t>(more), to.end());
                emit(table, fewer, fewer_ends, gap, leads);
            }
        }
    };
    const auto look = [&](std::uint64_t from, std::uint64_t to) {
        const auto names = names_in(file, from, to);
        std::uint64_t done = 0;                         // names before this place belong to a table that was found
        std::array<std::uint64_t, 7> behind_mode = {};  // the same for each kind of length, and for a zero
        for (std::size_t i = 0; i < names.size() && work < most_work; ++i) {
            if (out.size() > 4096) keep_longest(out, 256);
            const auto [at, length] = names[i];
            if (at < done) continue;
            if (i % 1024 == 0 && !progress.cancel.check()) return;
            // Names of about one length may lie at one distance by chance, so what else begins at the first of them is looked at, too.
            done = fixed_from(file, names, i, places, out);
            // A length before the name: a byte that looks like a sign of a name may be part of it.
            std::size_t mode = 0;
            for (const auto order : {ByteOrder::little, ByteOrder::big})
                for (const unsigned width : {2u, 4u, 1u}) {
                    auto& behind = behind_mode[mode++];
                    if ((width == 1 && order == ByteOrder::big) || at < behind) continue;
                    for (std::uint64_t start = at >= width ? at - width : at; start <= at; ++start) {
                        const auto n = prefixed_name(file, start, width, order);
                        if (!n || *n < 3) continue;
                        for (std::uint64_t gap = 4; gap <= most_numbers; ++gap) {
                            if (++work; !prefixed_name(file, start + width + *n + gap, width, order)) continue;
                            const auto ends = follow_prefixed(file, start, width, order, gap);
                            work += ends.size();
                            if (ends.size() < least_records || looks_like_text(file, ends, gap)) continue;
                            Table table;
                            table.form = NameForm::prefixed;
                            table.prefix = width;
                            table.order = order;
                            std::vector<std::uint64_t> starts = {start};
                            for (std::size_t k = 0; k + 1 < ends.size(); ++k) starts.push_back(ends[k] + gap);
                            add(table, starts, ends, gap);
                            if (ends.size() >= 8 || ends.back() + gap >= file.size()) behind = std::max(behind, ends.back());
                        }
                    }
                }
            if (at >= behind_mode[mode] && at + length < file.size() && file[static_cast<std::size_t>(at + length)] == std::byte{0})
                for (std::uint64_t gap = 4; gap <= most_numbers; ++gap) {
                    const auto ends = follow_terminated(file, at, gap);
                    work += ends.size();
                    if (ends.size() < least_records || looks_like_text(file, ends, gap)) continue;
                    Table table;
                    table.form = NameForm::terminated;
                    std::vector<std::uint64_t> starts = {at};
                    for (std::size_t k = 0; k + 1 < ends.size(); ++k) starts.push_back(ends[k] + gap);
                    add(table, starts, ends, gap);
                    if (ends.size() >= 8) behind_mode[mode] = ends.back();
                }
        }
    };
    look(0, std::min<std::uint64_t>(file.size(), looked_at));
    if (file.size() > looked_at) look(std::max(looked_at, file.size() - looked_at), file.size());
    keep_longest(out, 256);
    return out;
}

Places places_in(ByteSpan file, const std::vector<NameRun>& names) {
    Places out;
    const auto look = [&](std::size_t from, std::size_t to) {
        for (auto at = from; at + 4 <= to; at += 2)
            for (const auto order : {ByteOrder::little, ByteOrder::big})
                if (const auto v = load_uint(file.data() + at, 4, order); v >= 4 && v <= file.size() * 64) out.numbers.push_back(v);
    };
    look(0, std::min<std::size_t>(file.size(), 64));
    if (file.size() > 128) look(file.size() - 64, file.size());
    out.counts = out.numbers;
    for (std::size_t at = 0; at + 2 <= std::min<std::size_t>(file.size(), 16); at += 2)
        for (const auto order : {ByteOrder::little, ByteOrder::big})
            if (const auto v = load_uint(file.data() + at, 2, order); v >= 3) out.counts.push_back(v);
    out.ends.push_back(file.size());
    for (const auto& run : names) out.ends.insert(out.ends.end(), {run.at, run.end});
    for (auto* some : {&out.numbers, &out.counts, &out.ends}) {
        std::sort(some->begin(), some->end());
        some->erase(std::unique(some->begin(), some->end()), some->end());
    }
    return out;
}

std::vector<Table> tables_of_numbers(ByteSpan file, const Places& places) {
    // Where a header says the table is, and how many records it has; or right behind a small header.
    std::vector<std::uint64_t> starts, counts;
    for (const auto v : places.numbers) {
        if (v >= 8 && v < file.size()) starts.push_back(v);
        if (v <= file.size() / 4) counts.push_back(v);
    }
    for (std::uint64_t at = 8; at <= 128 && at < file.size(); at += 4) starts.push_back(at);
    std::vector<Table> out;
    for (const auto start : starts)
        for (const auto count : counts)
            for (std::uint64_t size = 4; size <= 64; size += 4) {
                if (count > (file.size() - start) / size || out.size() >= 20'000) continue;
                Table table;
                table.numbers = size;
                table.at = start;
                table.end = start + count * size;
                table.rows = count;
                out.push_back(std::move(table));
            }
    return out;
}

}  // namespace skivet::draft
