#include "container/draft_sheet.h"

#include <fmt/format.h>
#include <algorithm>
#include <numeric>
#include <set>

#include "base/cipher.h"
#include "base/phrase.h"
#include "base/text.h"
#include "container/draft_doubts.h"
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
    bool best_likely_ = false;

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
        // Of drafts that are not sound one with names, as many as the header says, is the better place to begin.
        const bool likely = best.named() && best.counted;
        const auto value = [](const SheetDraft& d, bool is_likely) {
            return std::tuple(d.unsound.empty(), d.readable == d.looked_at, is_likely, ~d.unexplained, d.readable);
        };
        if (best_ && value(*tried, likely) <= value(*best_, best_likely_)) return;
        best_likely_ = likely;
        best_ = std::move(*tried);
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
                signs += draft::is_plain_sign(tables_[static_cast<std::size_t>(table.position(i) + table.numbers - 1)]);
            if (signs * 10 >= (table.count() - 1) * 9) return false;  // the last record may have none behind it
        }
        if (std::binary_search(places_.counts.begin(), places_.counts.end(), table.rows)) return true;  // the header knows how many
        if (draft::counted_before(tables_, table.at, table.rows)) return true;
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
        out.unsound = draft::why_unsound({found, *trial, names_, hidden_, most});
        if (!out.unsound.empty()) out.toml = "# " + out.unsound_line() + "\n" + out.toml;
        return out;
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

std::string SheetDraft::unsound_line() const { return phrase("Not sound, only a place to begin: {}.", unsound); }

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
