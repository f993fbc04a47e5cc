// Why a draft that was tried must not be taken for the layout: what fits by chance, what was missed, what nothing speaks for.
#include "container/draft_doubts.h"

#include <algorithm>
#include <numeric>
#include <set>

#include "base/phrase.h"
#include "base/text.h"

namespace skivet::draft {
namespace {

constexpr std::size_t few_records = 8;  // that lead from one to the next, or tile, by chance where little else speaks for them

class Doubts {
public:
    explicit Doubts(const Doubted& doubted) : doubted_(doubted), found_(doubted.found) {}

    /// Why a draft that was tried must not be taken for the layout.
    [[nodiscard]] std::string why() const {
        const auto& found = found_;
        const auto& trial = doubted_.trial;
        const auto most = doubted_.most_unexplained;
        const auto n = found.table.count();
        const auto& sizes = found.placed.sizes;
        const bool chain = found.placed.chain != Placed::Chain::none;
        const auto filled = static_cast<std::size_t>(std::count_if(sizes.begin(), sizes.end(), [](auto size) { return size > 0; }));
        const std::set<std::string> names(trial.names.begin(), trial.names.end());
        if (trial.readable < trial.looked_at)
            return phrase("of the likeliest table's {} entries that were looked at only {} can be read", grouped(trial.looked_at),
                          grouped(trial.readable));
        if (trial.entries < n) return phrase("of the likeliest table's {} records only {} can be read", grouped(n), grouped(trial.entries));
        if (filled < 2 || filled * 4 < n)
            return phrase("{} of the likeliest table's {} entries are empty, so nothing shows that it is one", grouped(n - filled),
                          grouped(n));
        if (names.size() * 2 < trial.names.size())
            return phrase("the likeliest table's {} entries have only {} different names", grouped(trial.names.size()),
                          grouped(names.size()));
        if (!found.doubt.empty()) return found.doubt;
        if (found.placed.end_unclear)
            return phrase("the likeliest table's {} records may say an entry's last byte or the one behind it: all are padded", grouped(n));
        if (!found.named() && text_in_records(found.table))
            return phrase("the likeliest table's {} records hold text that does not fit into them as names", grouped(n));
        if (found.names_cut) return said("the likeliest table ends within the first of the names behind it");
        if (const auto left = record_left_over(found))
            return phrase("the {} bytes between the likeliest table and its names look like the rest of a record: it begins later", left);
        if (names_gain_signs(found.table))
            return phrase("all of the likeliest table's {} names begin with the same byte, which is hardly one of theirs", grouped(n));
        if (names_lose_signs(found, chain))
            return phrase("what stands before the likeliest table's {} names looks like their first signs", grouped(n));
        if (!found.placed.offset && !chain && has_places(found))
            return phrase("sizes fit one after the other, but another column of the {} records looks like places", grouped(n));
        if (found.placed.ends != Placed::Ends::by_size && has_ends(found))
            return phrase("each entry would end where the next one begins, but another column of the {} records looks like sizes or ends",
                          grouped(n));
        if (!found.table_key.empty() && found.placed.ends != Placed::Ends::by_size && !found.proved_by_content)
            return phrase("the likeliest table's {} records are hidden, and only places that rise speak for it", grouped(n));
        if (!found.table_key.empty() && found.key.empty() && !found.proved_by_content)
            return phrase("the likeliest table's {} records are hidden, and nothing shows whether the entries are", grouped(n));
        if (found.names && !found.table_key.empty()) return said("names that lie apart are hidden like the records");
        if (found.files.pattern.empty() && trial.unexplained > most)
            return phrase("the likeliest table leaves {} of {} bytes unexplained", grouped(trial.unexplained), grouped(found_.file.size()));
        // What touches the entries belongs to one that was missed.
        std::uint64_t begin = ~0ull, end = 0;
        for (std::size_t i = 0; i < n; ++i)
            if (sizes[i] > 0) begin = std::min(begin, found.placed.begins[i]), end = std::max(end, found.placed.begins[i] + sizes[i]);
        if (found.files.pattern.empty())
            for (const auto& gap : trial.unknown)
                if ((gap.at <= end && gap.at + gap.size > end) || (gap.at < begin && gap.at + gap.size >= begin))
                    return phrase("{} bytes at {} that nothing explains lie right beside the entries", grouped(gap.size), hex(gap.at));
        if (found.files.pattern.empty() && !chain && !(found.placed.ends == Placed::Ends::by_size && found.placed.offset))
            for (const auto& run : doubted_.names)
                if (run.starts.size() >= n && run.at < end && run.end > begin)
                    return phrase("{} names at {} lie in what would be an entry", grouped(run.starts.size()), hex(run.at));
        const bool pointed = found.pointed || (found.header_at == 0 && found.table.at == found.header_bytes && found.table.at <= 256);
        if (found.placed.parts_of_names) return said("most of the likeliest records' names begin behind letters and may be parts of names");
        if (chain && trial.first_wrong) return trial.first_wrong->message();
        if (chain && found.packing_words.empty() && !found.proved_by_content && has_streams(found))
            return said("some entries are zlib streams, and nothing was found that says which");
        constexpr std::uint64_t little = 2048;  // bytes of all entries
        if (chain && n < few_records && found.placed.covered < little)
            return phrase("{} records that lead from one to the next may be chance: they hold {} together", n,
                          human_bytes(found.placed.covered));
        if (chain && n < few_records && found.unnamed_in_header > 16)
            return phrase("{} records that lead from one to the next may be chance, and {} bytes in front of them are not explained", n,
                          found.unnamed_in_header);
        // Places alone say little, so what is in front of them must say the rest.
        const bool says_little = found.placed.ends != Placed::Ends::by_size && (!found.pointed || n < 2 * few_records);
        if (found.unnamed_in_header > (says_little ? 32 : 96))
            return phrase("{} bytes in front of the likeliest table's {} entries are not explained", grouped(found.unnamed_in_header),
                          grouped(n));
        if (doubted_.hidden && !found.counted)
            return phrase("with the likeliest key the header does not know the table's {} entries", grouped(n));
        if (found.placed.ends != Placed::Ends::by_size && !(found.counted && pointed))
            return phrase("only places that rise speak for the likeliest table, and the header does not know its {} entries", grouped(n));
        if (!found.files.pattern.empty() && !found.files.numbered &&
            (begin > 64 || end > found.files.sizes.begin()->second || found.files.sizes.begin()->second - end > 2048))
            return phrase("the likeliest table's {} entries do not fill {}", grouped(n), found.files.pattern);
        const bool tiles = found.placed.ends == Placed::Ends::by_size && found.placed.offset;
        if (tiles && n < few_records && !found.counted && !found.pointed && !found.proved_by_content)
            return phrase("{} records may be chance, and the header knows neither how many there are nor where", n);
        if (!tiles && !chain && !found.named() && !found.proved_by_content &&
            !(found.counted && (found.placed.offset ? found.placed.ends == Placed::Ends::next_record || (found.pointed && n >= 20)
                                                    : found.hashed() && found.pointed)))
            return phrase("only {} speak for the likeliest table: nothing tells its {} entries' names, and nothing in them is checked",
                          found.placed.offset ? said("places that rise") : said("sizes with the right sum"), grouped(n));
        return {};
    }

private:
    /// Bytes between the table and the names behind it that are fewer than a record and not all zero.
    std::uint64_t record_left_over(const Found& found) const {
        if (!found.names || found.table.rows == 0 || found.names->at <= found.table.end) return 0;
        const auto left = found.names->at - found.table.end;
        if (left >= found.table.numbers) return 0;
        for (auto at = found.table.end; at < found.names->at; ++at)
            if (found_.tables[static_cast<std::size_t>(at)] != std::byte{0}) return left;
        return 0;
    }

    /// Whether all names begin with the same byte that is no letter of one: the last of the numbers before them.
    bool names_gain_signs(const Table& table) const {
        if (table.rows == 0 && table.form == NameForm::terminated && table.leads && table.count() >= 32) {
            // A letter that begins every name, before others that differ, is a number's last byte.
            std::set<std::byte> second;
            const auto sign = [&](std::size_t i, std::uint64_t k) {
                return found_.tables[static_cast<std::size_t>(table.position(i) + table.numbers + k)];
            };
            for (std::size_t i = 0; i < table.count(); ++i) {
                if (sign(i, 0) != sign(0, 0)) return false;
                second.insert(sign(i, 1));
            }
            return second.size() >= 3 && std::isalnum(static_cast<unsigned char>(sign(0, 0))) != 0;
        }
        if (table.rows < 4 || table.form != NameForm::fixed) return false;
        const auto first = [&](std::size_t i) { return found_.tables[static_cast<std::size_t>(table.position(i) + table.name_at)]; };
        for (std::size_t i = 0; i < table.count(); ++i)
            if (first(i) != first(0)) return false;
        return first(0) >= std::byte{0x80};
    }

    /// Whether the byte before nearly every name of its own length looks like a part of it, or so many before the first one that they are
    /// more than the end of a number.
    bool names_lose_signs(const Found& found, bool chain) const {
        const auto& table = found.table;
        // Signs between the header's last number and the first name are no number of four bytes.
        const auto beside = [&](const Meant& m) {
            const auto end = m.column.at + m.column.width;
            return end < table.at && end + 4 > table.at;
        };
        const bool begins = table.form == NameForm::fixed ? table.name_at == 0 : table.form == NameForm::terminated && !table.leads;
        if (begins && table.at > 0 && table.at < 256 && found.header_at == 0 &&
            is_plain_sign(found_.tables[static_cast<std::size_t>(table.at - 1)]) &&
            std::any_of(found.header.begin(), found.header.end(), beside))
            return true;
        // A chain may begin right behind the mark.
        if (table.form == NameForm::terminated && !table.leads && table.at >= (chain ? 5 : 4) && table.at < 256) {
            bool all = true;
            for (std::uint64_t k = 1; k <= 4; ++k) all = all && is_plain_sign(found_.tables[static_cast<std::size_t>(table.at - k)]);
            if (all) return true;
        }
        if (table.rows > 0 || table.count() < 4 || table.form != NameForm::terminated) return false;
        const auto before = [&](std::size_t i) { return found_.tables[static_cast<std::size_t>(table.position(i) + table.numbers - 1)]; };
        std::size_t signs = 0, same = 0;
        for (std::size_t i = 0; i < table.count(); ++i) signs += is_plain_sign(before(i)), same += before(i) == before(0);
        if (chain && same == table.count()) return false;  // the last byte of a number
        return signs * 10 >= table.count() * 9;
    }

    /// Whether one of eight entries begins as a zlib stream does (RFC 1950).
    [[nodiscard]] bool has_streams(const Found& found) const {
        std::size_t streams = 0;
        for (std::size_t i = 0; i < found.table.count(); ++i) {
            const auto at = static_cast<std::size_t>(found.placed.begins[i]);
            streams += found.placed.sizes[i] >= 8 && found_.file[at] == std::byte{0x78} &&
                       load_uint(found_.file.data() + at, 2, ByteOrder::big) % 31 == 0;
        }
        return streams * 8 > found.table.count();
    }

    /// Whether some number of the records that means nothing could be where their data lies.
    bool has_places(const Found& found) const {
        const auto n = found.table.count();
        const auto data = std::accumulate(found.placed.sizes.begin(), found.placed.sizes.end(), std::uint64_t{0});
        for (const auto order : {ByteOrder::little, ByteOrder::big})
            for (std::uint64_t at = 0; at + 4 <= found.table.numbers; ++at) {
                const Column column{at, 4, order};
                if (!found.is_free(column)) continue;
                std::set<std::uint64_t> values;
                std::uint64_t most = 0;
                bool inside = true;
                for (std::size_t i = 0; inside && i < n; ++i) {
                    const auto v = found.number(column, i);
                    inside = v <= found_.file.size();
                    most = std::max(most, v);
                    values.insert(v);
                }
                if (inside && most * 2 >= data && values.size() * 10 >= n * 9) return true;
            }
        return false;
    }

    /// Whether, where only offsets were taken for what they are, some number that means nothing could be the entries' sizes or their ends.
    bool has_ends(const Found& found) const {
        const auto n = found.table.count();
        const auto &begins = found.placed.begins, &sizes = found.placed.sizes;
        for (const auto order : {ByteOrder::little, ByteOrder::big})
            for (std::uint64_t at = 0; at + 4 <= found.table.numbers; ++at) {
                const Column column{at, 4, order};
                if (!found.is_free(column)) continue;
                std::uint64_t as_sizes = 0, as_ends = 0;
                bool may_be_size = true, may_be_end = true;
                for (std::size_t i = 0; (may_be_size || may_be_end) && i < n; ++i) {
                    const auto v = found.number(column, i);
                    may_be_size = may_be_size && v <= sizes[i];
                    may_be_end = may_be_end && v + 1 >= begins[i] && v <= begins[i] + sizes[i];
                    as_sizes += v;
                    as_ends += v + 1 - begins[i];
                }
                const auto most = found.placed.covered / 4 * 3;
                if ((may_be_size && as_sizes >= most) || (may_be_end && as_ends >= most)) return true;
            }
        return false;
    }

    /// Whether most records have signs of a name at the same four places or more: names then, only not where records were taken to begin.
    bool text_in_records(const Table& table) const {
        const auto rows = std::min<std::size_t>(table.count(), 256);
        std::size_t run = 0;
        for (std::uint64_t at = 0; table.rows > 0 && at < table.numbers && run < 4; ++at) {
            std::size_t signs = 0;
            for (std::size_t i = 0; i < rows; ++i) signs += is_plain_sign(found_.tables[static_cast<std::size_t>(table.position(i) + at)]);
            run = signs * 10 >= rows * 9 ? run + 1 : 0;
        }
        return run >= 4;
    }

    const Doubted& doubted_;
    const Found& found_;
};

}  // namespace

bool is_plain_sign(std::byte b) {
    const auto c = static_cast<unsigned char>(b);
    return c < 0x80 && (std::isalnum(c) != 0 || c == '_' || c == '/' || c == '.');
}

std::string why_unsound(const Doubted& doubted) { return Doubts(doubted).why(); }

}  // namespace skivet::draft
