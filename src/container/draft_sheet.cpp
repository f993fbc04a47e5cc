#include "container/draft_sheet.h"

#include <fmt/format.h>
#include <algorithm>
#include <numeric>
#include <set>

#include "base/cipher.h"
#include "base/phrase.h"
#include "base/text.h"
#include "container/draft_found.h"
#include "container/sheet_try.h"

namespace skivet {
namespace {

using draft::DataFiles;
using draft::Found;
using draft::NameForm;
using draft::Placed;
using draft::Table;

namespace fs = std::filesystem;

constexpr std::uint64_t tried_bytes = 64u << 20;  // read through a draft before it is shown
constexpr std::uint64_t first_bytes = 1u << 20;   // … and before it is worth reading that much
constexpr std::uint64_t all_work = 40'000'000;    // steps of looking for columns, for each kind of table
constexpr std::uint64_t most_work = 160'000'000;  // … and for a file: seconds; for a small one less
constexpr std::uint64_t least_work = 1'000'000, work_a_byte = 200;
constexpr std::uint64_t most_hidden = 256u << 20;  // bytes of a file in which keys over records and over all of it are looked for
constexpr std::size_t most_tries = 60;             // drafts that are read through for one file
constexpr std::size_t few_records = 8;             // that lead from one to the next by chance where little speaks for them
constexpr std::uint64_t most_left = 256;  // bytes a sound draft may leave unexplained in a small archive; of a large one 1 in 4,000

class Drafter {
public:
    Drafter(const ReadContext& context, const FileView& view, ByteSpan file, const Progress& progress, bool hidden = false)
        : context_(context), view_(view), file_(file), tables_(file), hidden_(hidden), progress_(progress) {
        find_data_files();
    }

    /// As the file lies there; nothing when no table is found.
    Result<std::optional<SheetDraft>> draft() {
        names_ = draft::runs_of_names(tables_);
        places_ = draft::places_in(file_, names_);
        std::uint64_t most = 0;
        for (const auto& files : data_files_)
            for (const auto& [number, size] : files.sizes) most = std::max(most, size);
        // What speaks loudest first: sizes that tile; records that lead from one to the next through all of the file; then a sum of sizes
        // that is exact; then only places that rise.
        const auto rising = draft::tables_that_rise(tables_, most, places_, progress_);
        SKIVET_CHECK(consider_all(rising, draft::place_by_sizes));
        if (sound()) return std::move(best_);
        const auto named = draft::tables_with_names(tables_, places_, progress_);
        SKIVET_CHECK(consider_all(named, draft::place_by_sizes));
        if (sound()) return std::move(best_);
        const auto numbers = draft::tables_of_numbers(tables_, places_);
        SKIVET_CHECK(consider_all(numbers, draft::place_by_sizes));
        if (sound()) return std::move(best_);
        for (const auto* tables : {&named, &rising}) {
            SKIVET_CHECK(consider_all(*tables, draft::place_by_ends));
            if (sound()) return std::move(best_);
        }
        // Not for each key that is guessed: it costs a second.
        for (auto& chain : !hidden_ ? draft::chains_in(tables_, progress_) : std::vector<draft::Chain>()) {
            SKIVET_CHECK(progress_.cancel.check());
            weigh(chain.table, data_files_.front(), std::move(chain.placed));
            if (sound()) return std::move(best_);
        }
        SKIVET_CHECK(consider_all(named, draft::place_in_a_row));
        SKIVET_CHECK(consider_all(numbers, draft::place_in_a_row));
        SKIVET_CHECK(consider_all(rising, draft::place_by_next));
        SKIVET_CHECK(consider_all(named, draft::place_by_next));
        SKIVET_CHECK(consider_all(rising, draft::place_loosely));
        SKIVET_CHECK(consider_all(named, draft::place_loosely));
        SKIVET_CHECK(consider_all(numbers, draft::place_by_ends));
        SKIVET_CHECK(progress_.cancel.check());
        return std::move(best_);
    }

    /// The same with a key that hides the tables, as it stands from the file's first byte on.
    Result<std::optional<SheetDraft>> draft_hidden(const Bytes& key) {
        key_ = key;
        hidden_ = true;
        plain_ = xor_with(key, file_);
        tables_ = plain_;
        return draft();
    }

private:
    const ReadContext& context_;
    const FileView& view_;
    ByteSpan file_, tables_;
    Bytes key_, plain_;
    bool hidden_;  ///< a key was guessed: more must speak for what it shows
    const Progress& progress_;
    std::vector<DataFiles> data_files_;  ///< the archive itself first
    std::map<std::string, FileView> opened_;
    std::vector<draft::NameRun> names_;
    draft::Places places_;
    std::uint64_t budget_ = 0, work_left_ = std::clamp(file_.size() * work_a_byte, least_work, most_work);
    std::size_t tries_ = 0;
    std::map<std::vector<std::uint64_t>, unsigned> tried_;  ///< columns and records, and how often they were read through
    std::optional<SheetDraft> best_;

    [[nodiscard]] bool sound() const { return best_ && best_->unsound.empty(); }
    [[nodiscard]] bool done() const { return sound() || budget_ == 0 || tries_ >= (hidden_ ? most_tries / 3 : most_tries); }

    using Way = std::optional<Placed> (*)(const draft::Surroundings&, const Table&);

    Status consider_all(const std::vector<Table>& tables, Way way) {
        tries_ = 0;
        const auto share = std::min(work_left_ / 4 * 3, hidden_ ? all_work / 4 : all_work);  // something is left for every kind
        budget_ = share;
        for (const auto& table : tables) {
            SKIVET_CHECK(progress_.cancel.check());
            if (done()) break;
            consider(table, way);
        }
        work_left_ -= share - budget_;
        return {};
    }

    /// Numbered files that share the archive's stem, and single ones with another ending.
    void find_data_files() {
        DataFiles own;
        own.sizes[0] = file_.size();
        data_files_.push_back(std::move(own));
        if (view_.in_memory()) return;
        const auto path = view_.path();
        const auto stem = path.stem().string();
        const auto folder = path.parent_path().empty() ? fs::path(".") : path.parent_path();
        std::map<std::string, DataFiles> groups;
        std::error_code code;
        for (const auto& item : fs::directory_iterator(folder, code)) {
            const auto name = item.path().filename().string();
            if (!item.is_regular_file(code) || !name.starts_with(stem) || item.path().filename() == path.filename()) continue;
            const auto rest = name.substr(stem.size());
            const auto digit = rest.find_first_of("0123456789");
            DataFiles one;
            std::uint64_t number = 0;
            if (digit == std::string::npos) {
                one.pattern = "{stem}" + rest;
            } else {
                auto end = rest.find_first_not_of("0123456789", digit);
                if (end == std::string::npos) end = rest.size();
                if (end - digit > 9) continue;
                number = std::stoull(rest.substr(digit, end - digit));
                one.numbered = true;
                one.pattern = "{stem}" + rest.substr(0, digit) +
                              (rest[digit] == '0' && end - digit > 1 ? fmt::format("{{number:{}}}", end - digit) : "{number}") +
                              rest.substr(end);
            }
            auto& group = groups.try_emplace(one.pattern, one).first->second;
            group.sizes[number] = item.file_size(code);
            if (auto view = FileView::open(item.path())) opened_.insert_or_assign(fmt::format("{}/{}", one.pattern, number), *view);
        }
        for (auto& [pattern, group] : groups) data_files_.push_back(std::move(group));
    }

    /// Places an offset may count from: the file's beginning, the end of the table, and what the header itself says.
    std::vector<std::uint64_t> bases(const Table& table) const {
        std::vector<std::uint64_t> out = {0, table.end};
        for (const auto v : places_.numbers)
            if (v >= 8 && v < file_.size() && (v >= table.end || v < std::min<std::uint64_t>(table.at, 4096)) && out.size() < 10)
                out.push_back(v);
        return out;
    }

    void consider(const Table& table, Way way) {
        for (const auto& files : data_files_) {
            if (done()) break;
            const auto from = files.pattern.empty() ? bases(table) : std::vector<std::uint64_t>{0};
            const draft::Surroundings around{tables_, files, from, names_, places_.numbers, budget_};
            auto placed = way(around, table);
            if (placed && fresh(table, *placed)) weigh(table, files, std::move(*placed));
        }
    }

    /// Looks at what entries hold and what the header says, tries the sheet that comes of it, and keeps the best one.
    void weigh(const Table& table, const DataFiles& files, Placed placed) {
        Found found(context_, view_, file_, tables_, opened_, table, files, std::move(placed));
        const bool chain = found.placed.chain != Placed::Chain::none;
        if (found.table.rows > 0 && found.table.form == NameForm::none) draft::find_name_field(tables_, found.table);
        if (!ends_with_its_names(found.table)) return;
        if (!key_.empty()) {
            // Each stretch by itself begins with the key's first byte.
            found.table_key = key_;
            std::rotate(found.table_key.begin(), found.table_key.begin() + static_cast<std::ptrdiff_t>(table.at % key_.size()),
                        found.table_key.end());
        }
        if (!chain) draft::find_names(found, names_, places_);
        // What unpacks or agrees with its checksums is not hidden.
        auto shown = found;
        draft::find_contents(shown);
        if (!shown.proved_by_content) draft::find_data_key(found);
        const bool hidden = !found.key.empty();
        if (hidden) draft::find_contents(found);
        auto& best = hidden ? found : shown;
        draft::find_hash(best);
        draft::find_header(best);
        auto tried = try_out(best);
        if (!tried || tried->readable == 0) return;
        const auto value = [](const SheetDraft& d) {
            return std::tuple(d.unsound.empty(), d.readable == d.looked_at, ~d.unexplained, d.readable);
        };
        if (!best_ || value(*tried) > value(*best_)) best_ = std::move(*tried);
    }

    /// The same columns of the same records are read through three times at most, wherever a record is taken to begin.
    bool fresh(const Table& table, const Placed& placed) {
        const auto first = table.position(0);
        const std::vector<std::uint64_t> columns = {first + (placed.offset ? placed.offset->at : 0),
                                                    first + (placed.size ? placed.size->at : 0),
                                                    table.numbers,
                                                    table.count(),
                                                    placed.begins.front(),
                                                    placed.begins.back()};
        return ++tried_[columns] <= 3;
    }

    /// With names in records of one size, the bytes before the first and behind the last record are no names: otherwise records were
    /// missed, or each name is taken for its neighbor's.
    bool ends_with_its_names(const Table& table) const {
        if (table.rows == 0 || table.form != NameForm::fixed) return true;
        if (table.name_at == 0 && table.name_bytes < table.numbers) {
            // A record that is taken to begin within its name has the name's first signs at its end.
            std::size_t signs = 0;
            for (std::size_t i = 0; i < table.count(); ++i)
                signs += is_plain_sign(tables_[static_cast<std::size_t>(table.position(i) + table.numbers - 1)]);
            if (signs * 10 >= (table.count() - 1) * 9) return false;  // the last record may have none behind it
        }
        if (std::binary_search(places_.counts.begin(), places_.counts.end(), table.rows)) return true;  // the header knows how many
        // What has no name there closes the table, and text that goes on through the field of a name is none where all others end in it.
        const auto name = [&](std::uint64_t record) {
            return tables_.subspan(static_cast<std::size_t>(record + table.name_at), static_cast<std::size_t>(table.name_bytes));
        };
        const auto ends = [&](std::uint64_t record) {
            return std::find(name(record).begin(), name(record).end(), std::byte{0}) - name(record).begin();
        };
        bool all_end = true;
        for (std::size_t i = 0; all_end && i < table.count(); ++i)
            all_end = ends(table.position(i)) < static_cast<std::ptrdiff_t>(table.name_bytes);
        const auto may_be_one = [&](std::uint64_t record) {
            return ends(record) > 0 && (!all_end || ends(record) < static_cast<std::ptrdiff_t>(table.name_bytes));
        };
        Table more = table;
        more.rows += 1;
        more.form = NameForm::none;
        if (table.end + table.numbers <= file_.size() && may_be_one(table.end)) {
            draft::find_name_field(tables_, more);
            if (more.form == NameForm::fixed && more.name_at == table.name_at) return false;
        }
        if (table.at < table.numbers || !may_be_one(table.at - table.numbers)) return true;
        more.at -= table.numbers;
        more.form = NameForm::none;
        more.rows = table.rows + 1;
        draft::find_name_field(tables_, more);
        return more.form != NameForm::fixed || more.name_at != table.name_at;
    }

    static bool is_plain_sign(std::byte b) {
        const auto c = static_cast<unsigned char>(b);
        return c < 0x80 && (std::isalnum(c) != 0 || c == '_' || c == '/' || c == '.');
    }

    /// Bytes between the table and the names behind it that are fewer than a record and not all zero.
    std::uint64_t record_left_over(const Found& found) const {
        if (!found.names || found.table.rows == 0 || found.names->at <= found.table.end) return 0;
        const auto left = found.names->at - found.table.end;
        if (left >= found.table.numbers) return 0;
        for (auto at = found.table.end; at < found.names->at; ++at)
            if (tables_[static_cast<std::size_t>(at)] != std::byte{0}) return left;
        return 0;
    }

    /// Whether all names begin with the same byte that is no letter of one: the last of the numbers before them.
    bool names_gain_signs(const Table& table) const {
        if (table.rows == 0 && table.form == NameForm::terminated && table.leads && table.count() >= 32) {
            // A letter that begins every name, before others that differ, is a number's last byte.
            std::set<std::byte> second;
            const auto sign = [&](std::size_t i, std::uint64_t k) {
                return tables_[static_cast<std::size_t>(table.position(i) + table.numbers + k)];
            };
            for (std::size_t i = 0; i < table.count(); ++i) {
                if (sign(i, 0) != sign(0, 0)) return false;
                second.insert(sign(i, 1));
            }
            return second.size() >= 3 && std::isalnum(static_cast<unsigned char>(sign(0, 0))) != 0;
        }
        if (table.rows < 4 || table.form != NameForm::fixed) return false;
        const auto first = [&](std::size_t i) { return tables_[static_cast<std::size_t>(table.position(i) + table.name_at)]; };
        for (std::size_t i = 0; i < table.count(); ++i)
            if (first(i) != first(0)) return false;
        return first(0) >= std::byte{0x80};
    }

    /// Whether the byte before nearly every name of its own length looks like a part of it, or so many before the first one that they are
    /// more than the end of a number.
    bool names_lose_signs(const Found& found, bool chain) const {
        const auto& table = found.table;
        // Signs between the header's last number and the first name are no number of four bytes.
        const auto beside = [&](const draft::Meant& m) {
            const auto end = m.column.at + m.column.width;
            return end < table.at && end + 4 > table.at;
        };
        const bool begins = table.form == NameForm::fixed ? table.name_at == 0 : table.form == NameForm::terminated && !table.leads;
        if (begins && table.at > 0 && table.at < 256 && found.header_at == 0 &&
            is_plain_sign(tables_[static_cast<std::size_t>(table.at - 1)]) && std::any_of(found.header.begin(), found.header.end(), beside))
            return true;
        // A chain may begin right behind the mark.
        if (table.form == NameForm::terminated && !table.leads && table.at >= (chain ? 5 : 4) && table.at < 256) {
            bool all = true;
            for (std::uint64_t k = 1; k <= 4; ++k) all = all && is_plain_sign(tables_[static_cast<std::size_t>(table.at - k)]);
            if (all) return true;
        }
        if (table.rows > 0 || table.count() < 4 || table.form != NameForm::terminated) return false;
        const auto before = [&](std::size_t i) { return tables_[static_cast<std::size_t>(table.position(i) + table.numbers - 1)]; };
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
            streams +=
                found.placed.sizes[i] >= 8 && file_[at] == std::byte{0x78} && load_uint(file_.data() + at, 2, ByteOrder::big) % 31 == 0;
        }
        return streams * 8 > found.table.count();
    }

    /// Whether some number of the records that means nothing could be where their data lies.
    bool has_places(const Found& found) const {
        const auto n = found.table.count();
        const auto data = std::accumulate(found.placed.sizes.begin(), found.placed.sizes.end(), std::uint64_t{0});
        for (const auto order : {ByteOrder::little, ByteOrder::big})
            for (std::uint64_t at = 0; at + 4 <= found.table.numbers; ++at) {
                const draft::Column column{at, 4, order};
                if (!found.free(column)) continue;
                std::set<std::uint64_t> values;
                std::uint64_t most = 0;
                bool inside = true;
                for (std::size_t i = 0; inside && i < n; ++i) {
                    const auto v = found.number(column, i);
                    inside = v <= file_.size();
                    most = std::max(most, v);
                    values.insert(v);
                }
                if (inside && most * 2 >= data && values.size() * 10 >= n * 9) return true;
            }
        return false;
    }

    /// Whether most records have signs of a name at the same four places or more: names then, only not where records were taken to begin.
    bool text_in_records(const Table& table) const {
        const auto rows = std::min<std::size_t>(table.count(), 256);
        std::size_t run = 0;
        for (std::uint64_t at = 0; table.rows > 0 && at < table.numbers && run < 4; ++at) {
            std::size_t signs = 0;
            for (std::size_t i = 0; i < rows; ++i) signs += is_plain_sign(tables_[static_cast<std::size_t>(table.position(i) + at)]);
            run = signs * 10 >= rows * 9 ? run + 1 : 0;
        }
        return run >= 4;
    }

    std::optional<SheetDraft> try_out(const Found& found) {
        ++tries_;
        SheetDraft out;
        const auto name = view_.path().stem().string().empty() ? "Draft" : view_.path().stem().string() + " (draft)";
        out.toml = draft::write_sheet(found, name);
        if (!found.key.empty()) out.keys.push_back(found.data_key());
        if (!found.table_key.empty()) out.keys.push_back(found.records_key());
        auto parsed = parse_sheet(out.toml, "draft");
        if (!parsed) return std::nullopt;
        const auto sheet = std::make_shared<const Sheet>(std::move(*parsed));
        auto context = context_;
        auto keys = std::make_shared<KeyRing>(*context_.keys);
        for (const auto& key : out.keys) keys->add(key);
        context.keys = keys;
        auto trial = try_sheet(context, sheet, view_, 0, first_bytes);
        if (!trial) return std::nullopt;
        const auto most = std::max<std::uint64_t>(most_left, file_.size() / 4000);
        if (trial->readable == trial->looked_at && (!found.files.pattern.empty() || trial->unexplained <= most)) {
            trial = try_sheet(context, sheet, view_, 0, tried_bytes);
            if (!trial) return std::nullopt;
        }
        if (trial->unexplained == 0 && out.keys.empty() && found.files.pattern.empty()) out.toml = draft::write_sheet(found, name, true);
        out.entries = trial->entries;
        out.looked_at = trial->looked_at;
        out.readable = trial->readable;
        out.unexplained = trial->unexplained + trial->padding;
        const auto& table = found.table;
        out.found =
            phrase("{} records of {} and {} bytes of numbers at {}; {} that cover {} of {}", grouped(table.count()),
                   found.named() ? said("a name") : said("no name"), table.numbers - (table.form == NameForm::fixed ? table.name_bytes : 0),
                   hex(table.at),
                   found.placed.chain != Placed::Chain::none    ? said("sizes in front of the data")
                   : !found.placed.offset                       ? said("sizes")
                   : found.placed.says != Placed::Says::size    ? said("offsets and ends")
                   : found.placed.ends == Placed::Ends::by_size ? said("offsets and sizes")
                                                                : said("offsets"),
                   human_bytes(found.placed.covered), found.files.pattern.empty() ? view_.path().filename().string() : found.files.pattern);
        for (const auto& note : found.notes) out.found += "; " + note;
        out.unsound = why_not(found, *trial, most);
        if (!out.unsound.empty()) out.toml = "# " + phrase("Not sound, only a place to begin: {}.", out.unsound) + "\n" + out.toml;
        return out;
    }

    /// Why a draft that was tried must not be taken for the layout.
    std::string why_not(const Found& found, const Trial& trial, std::uint64_t most) const {
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
        if (!found.table_key.empty() && found.placed.ends != Placed::Ends::by_size && !found.proved_by_content)
            return phrase("the likeliest table's {} records are hidden, and only places that rise speak for it", grouped(n));
        if (!found.table_key.empty() && found.key.empty() && !found.proved_by_content)
            return phrase("the likeliest table's {} records are hidden, and nothing shows whether the entries are", grouped(n));
        if (found.names && !found.table_key.empty()) return said("names that lie apart are hidden like the records");
        if (found.files.pattern.empty() && trial.unexplained > most)
            return phrase("the likeliest table leaves {} of {} bytes unexplained", grouped(trial.unexplained), grouped(file_.size()));
        // What touches the entries belongs to one that was missed.
        std::uint64_t begin = ~0ull, end = 0;
        for (std::size_t i = 0; i < n; ++i)
            if (sizes[i] > 0) begin = std::min(begin, found.placed.begins[i]), end = std::max(end, found.placed.begins[i] + sizes[i]);
        if (found.files.pattern.empty())
            for (const auto& gap : trial.unknown)
                if ((gap.at <= end && gap.at + gap.size > end) || (gap.at < begin && gap.at + gap.size >= begin))
                    return phrase("{} bytes at {} that nothing explains lie right beside the entries", grouped(gap.size), hex(gap.at));
        if (found.files.pattern.empty() && !chain && !(found.placed.ends == Placed::Ends::by_size && found.placed.offset))
            for (const auto& run : names_)
                if (run.starts.size() >= n && run.at < end && run.end > begin)
                    return phrase("{} names at {} lie in what would be an entry", grouped(run.starts.size()), hex(run.at));
        const bool pointed = found.pointed || (found.header_at == 0 && found.table.at == found.header_bytes && found.table.at <= 256);
        if (found.placed.parts_of_names) return said("most of the likeliest records' names begin behind letters and may be parts of names");
        if (chain && trial.first_wrong) return trial.first_wrong->message();
        if (chain && found.packing_words.empty() && !found.proved_by_content && has_streams(found))
            return said("some entries are zlib streams, and nothing was found that says which");
        if (chain && n < few_records && found.unnamed_in_header > 16)
            return phrase("{} records that lead from one to the next may be chance, and {} bytes in front of them are not explained", n,
                          found.unnamed_in_header);
        if (found.unnamed_in_header > 96)
            return phrase("{} bytes in front of the likeliest table's {} entries are not explained", grouped(found.unnamed_in_header),
                          grouped(n));
        if (hidden_ && !found.counted) return phrase("with the likeliest key the header does not know the table's {} entries", grouped(n));
        if (found.placed.ends != Placed::Ends::by_size && !(found.counted && pointed))
            return phrase("only places that rise speak for the likeliest table, and the header does not know its {} entries", grouped(n));
        if (!found.files.pattern.empty() && !found.files.numbered &&
            (begin > 64 || end > found.files.sizes.begin()->second || found.files.sizes.begin()->second - end > 2048))
            return phrase("the likeliest table's {} entries do not fill {}", grouped(n), found.files.pattern);
        const bool tiles = found.placed.ends == Placed::Ends::by_size && found.placed.offset;
        if (tiles && n < few_records && !found.counted && !pointed && !found.proved_by_content)
            return phrase("{} records may be chance, and the header knows neither how many there are nor where", n);
        if (!tiles && !chain && !found.named() && !found.proved_by_content &&
            !(found.counted && (found.placed.offset ? found.placed.ends == Placed::Ends::next_record || (found.pointed && n >= 20)
                                                    : found.hashed() && found.pointed)))
            return phrase("only {} speak for the likeliest table: nothing tells its {} entries' names, and nothing in them is checked",
                          found.placed.offset ? said("places that rise") : said("sizes with the right sum"), grouped(n));
        return {};
    }
};

/// The archive beneath a key over all of it, with the wrapper sheet.
Result<std::optional<SheetDraft>> draft_wrapped(const ReadContext& context, const FileView& view, ByteSpan bytes, const Bytes& key,
                                                const Progress& progress) {
    const auto inner = FileView::of(xor_with(key, bytes), view.path().filename());
    SKIVET_TRY(const auto inside, inner.bytes());
    SKIVET_TRY(auto draft, Drafter(context, inner, inside, progress, true).draft());
    if (!draft) return std::optional<SheetDraft>();
    const Key named{draft::key_name(*context.keys, view.path(), "file", key), key};
    draft->wrapper = draft::write_wrapper(bytes, view.path().stem().string() + " (hidden)", named.name);
    draft->inside = inner;
    draft->keys.push_back(named);
    return draft;
}

}  // namespace

Result<SheetDraft> draft_sheet(const ReadContext& context, const FileView& file, const Progress& progress) {
    SKIVET_TRY(const auto bytes, file.bytes());
    if (bytes.size() < 32)
        return fail(ErrorCode::unsupported, phrase("a file of {} bytes is too small for a table", grouped(bytes.size())));
    SKIVET_TRY(auto best, Drafter(context, file, bytes, progress).draft());
    if (best && best->unsound.empty()) return std::move(*best);
    // A guess at a key is tried on a copy of the whole file.
    for (const auto& key : bytes.size() <= most_hidden ? draft::likely_keys(bytes) : std::vector<Bytes>()) {
        SKIVET_TRY(auto wrapped, draft_wrapped(context, file, bytes, key, progress));
        if (wrapped && wrapped->unsound.empty()) return std::move(*wrapped);
        SKIVET_TRY(auto hidden, Drafter(context, file, bytes, progress).draft_hidden(key));
        if (hidden && hidden->unsound.empty()) return std::move(*hidden);
    }
    if (best) return std::move(*best);
    std::string seen;
    for (const auto& line : seen_in(bytes)) seen += "\n  " + line;
    return fail(ErrorCode::unsupported,
                "no table of entries could be found: no run of equal records has offsets and sizes that fit this file",
                phrase("Sifting may find textures in it all the same. What can be seen:{}", seen));
}

}  // namespace skivet
