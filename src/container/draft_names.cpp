// What entries are called: names that lie apart from the records, or a number that may be a hash of them.
#include <algorithm>
#include <set>

#include "base/phrase.h"
#include "container/draft_found.h"

namespace skivet::draft {

void find_names(Found& f, const std::vector<NameRun>& runs, const Places& places) {
    if (f.table.form != NameForm::none) return;
    const auto n = f.table.count();
    std::uint64_t data_begin = ~0ull, data_end = 0;
    for (std::size_t i = 0; i < n; ++i)
        if (f.placed.sizes[i] > 0) {
            data_begin = std::min(data_begin, f.placed.begins[i]);
            data_end = std::max(data_end, f.placed.begins[i] + f.placed.sizes[i]);
        }
    for (auto run : runs) {
        // What stands before the first name may look like signs of it: then it begins where the records end, where the header says, or,
        // behind a header, where numbers of four bytes end.
        const auto trim = [&](std::uint64_t at) {
            if (at <= run.at || at + 1 >= run.end) return false;
            const auto before = std::upper_bound(run.starts.begin(), run.starts.end(), at) - run.starts.begin() - 1;
            if (before > 2) return false;
            run.starts.erase(run.starts.begin(), run.starts.begin() + before);
            run.at = run.starts.front() = at;
            return true;
        };
        for (const auto place : places.numbers)  // the first name was too unlike one together with what stands before it
            if (place < run.at && run.at - place <= 256 && is_whole_name(f.tables, place, run.at - place - 1)) {
                run.starts.insert(run.starts.begin(), place);
                run.at = place;
            }
        bool begins = trim(f.table.end);  // something says where they begin: then the first ones are meant
        const bool cut = begins && f.table.at < 256 && f.table.at % 4 != 0;
        if (run.at < 256 && run.at < f.table.at) trim((run.at + 3) / 4 * 4);
        else
            for (const auto place : places.numbers) begins = trim(place) || place == run.at || begins;
        const bool inside = run.at < f.table.end && run.end > f.table.at;
        if (run.starts.size() < n || inside || (f.files.pattern.empty() && run.at < data_end && run.end > data_begin)) continue;
        const std::set<std::uint64_t> starts(run.starts.begin(), run.starts.end());
        for (std::uint64_t at = 0; at + 4 <= f.table.numbers; ++at) {
            const Column column{at, 4, f.placed.order()};
            if (!f.is_free(column)) continue;
            for (const auto base : {run.at, std::uint64_t{0}}) {
                std::set<std::uint64_t> used;
                bool every = true;
                for (std::size_t i = 0; every && i < n; ++i) {
                    const auto place = f.number(column, i) + base;
                    every = starts.contains(place);
                    used.insert(place);
                }
                if (!every || used.size() * 2 < n) continue;
                f.names = run;
                f.names_cut = cut;
                f.name_offset = column;
                f.name_base = base;
                return;
            }
        }
        if (run.starts.size() == n || (begins && run.starts.size() > n)) {
            if (run.starts.size() > n) run.end = run.starts[n];
            f.names = run;
            f.names_cut = cut;
            return;
        }
    }
}

void find_hash(Found& f) {
    if (f.named()) return;
    const auto n = f.table.count();
    // Without names there may be something that tells entries apart: numbers that all differ may be hashes of their names.
    for (const unsigned width : {8u, 4u})
        for (std::uint64_t at = 0; at + width <= f.table.numbers; at += 4) {
            const Column column{at, width, f.placed.order()};
            if (!f.is_free(column)) continue;
            std::set<std::uint64_t> all;
            std::size_t large = 0, readable = 0;  // four or eight letters are a piece of a name
            bool rising = true;
            std::uint64_t last = 0;
            for (std::size_t i = 0; i < n; ++i) {
                const auto v = f.number(column, i);
                all.insert(v);
                rising = rising && v >= last && v - last < 1u << 20;  // times rise slowly, and hashes that are sorted in leaps
                last = i == 0 ? v : std::max(last, v);
                unsigned signs = 0;
                for (unsigned b = 0; b < width; ++b) {
                    const auto c = static_cast<unsigned char>(v >> 8 * b);
                    signs +=
                        c == 0 || (c < 128 && (std::isalnum(c) || c == '_' || c == '.' || c == '/' || c == '\\' || c == '-' || c == ' '));
                }
                readable += signs == width;
                large += v > (width == 8 ? 1ull << 48 : 1ull << 27);
            }
            if (all.size() < n || large * 4 < n * 3 || readable * 4 > n || rising) continue;
            f.meant.insert(f.meant.begin(), {column, "name_hash", "means = \"path hash\""});
            f.notes.push_back(phrase("names are known only by a hash of {} bytes; which one is a guess", width));
            return;
        }
    f.notes.push_back(said("there are no names; entries are numbered"));
}

}  // namespace skivet::draft
