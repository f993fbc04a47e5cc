#include "catalog/baseline.h"

#include <fmt/format.h>
#include <xxhash.h>
#include <array>
#include <map>
#include <unordered_map>

#include "base/file_view.h"
#include "base/hash.h"
#include "catalog/analysis.h"
#include "catalog/index_store.h"
#include "catalog/sqlite.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr const char* schema =
    "CREATE TABLE source(id INTEGER PRIMARY KEY, path TEXT UNIQUE NOT NULL, stamp TEXT NOT NULL, sample TEXT NOT NULL, whole TEXT,"
    " judged TEXT, same INTEGER);"  // `judged`: the stamp under which it was last read and compared
    "CREATE TABLE entry(source INTEGER NOT NULL, path TEXT NOT NULL, content TEXT NOT NULL, PRIMARY KEY(source, path)) WITHOUT ROWID;";

std::vector<fs::path> files_of(const fs::path& source) {
    std::error_code code;
    std::vector<fs::path> out;
    if (fs::is_directory(source, code)) {
        for (fs::recursive_directory_iterator walk(source, fs::directory_options::skip_permission_denied, code), end; !code && walk != end;
             walk.increment(code)) {
            std::error_code ignored;
            if (walk->is_regular_file(ignored) && !walk->is_symlink(ignored)) out.push_back(walk->path());
        }
        std::sort(out.begin(), out.end());
        return out;
    }
    const auto parts = parts_of(source);
    return parts ? *parts : std::vector{source};
}

std::optional<std::uint64_t> sample_of_file(const fs::path& file) {
    const auto view = FileView::open(file);
    if (!view) return std::nullopt;
    const auto data = view->bytes();
    return data ? std::optional(sample_of(*data)) : std::nullopt;
}

/// All bytes of a source's files, one after the other.
Result<std::string> whole_hash(const fs::path& source, Progress& progress) {
    std::unique_ptr<XXH3_state_t, decltype(&XXH3_freeState)> state(XXH3_createState(), &XXH3_freeState);
    XXH3_128bits_reset(state.get());
    for (const auto& file : files_of(source)) {
        SKIVET_TRY(const auto view, FileView::open(file));
        constexpr std::uint64_t step = 8u << 20;  // a cancel is answered between steps
        for (std::uint64_t at = 0; at < view.size(); at += step) {
            SKIVET_CHECK(progress.cancel.check());
            SKIVET_TRY(const auto data, view.bytes(at, std::min(step, view.size() - at)));
            XXH3_128bits_update(state.get(), data.data(), data.size());
            view.note_read(data.size());
            progress.done += data.size();
        }
    }
    const auto hash = XXH3_128bits_digest(state.get());
    return fmt::format("{:016x}{:016x}", hash.high64, hash.low64);
}

}  // namespace

std::string_view name_of(Shipped shipped) {
    switch (shipped) {
        case Shipped::as_shipped: return "as shipped";
        case Shipped::changed: return "changed";
        case Shipped::added: return "added later";
        default: return "";
    }
}

std::string sample_of_source(const fs::path& source) {
    std::uint64_t size = 0, hash = 0;
    for (const auto& file : files_of(source)) {
        std::error_code code;
        const auto sample = sample_of_file(file);
        if (!sample) return {};
        size += fs::file_size(file, code);
        const auto text = fmt::format("{}\n{:016x}", file.lexically_relative(source.parent_path()).generic_string(), *sample);
        hash = XXH3_64bits_withSeed(text.data(), text.size(), hash);
    }
    return fmt::format("{} {:016x}", size, hash);
}

Result<std::shared_ptr<Baseline>> Baseline::open(const fs::path& file) {
    std::shared_ptr<Baseline> out(new Baseline);
    SKIVET_TRY(out->db_, open_database(file, schema, 2, Replaceable::no));
    return out;
}

std::vector<BaselineEntry> Baseline::entries() const {
    const std::lock_guard lock(mutex_);
    std::vector<BaselineEntry> out;
    Statement all(db_, "SELECT s.path, e.path, e.content FROM entry e JOIN source s ON s.id = e.source");
    while (all.row())
        if (const auto content = bytes_of_hex(all.text(2)); content && content->size() == 16) {
            std::array<std::uint64_t, 2> halves{};
            for (std::size_t i = 0; i < 16; ++i) halves[i / 8] = halves[i / 8] << 8 | std::to_integer<std::uint64_t>((*content)[i]);
            out.push_back({all.text(0), all.text(1), {halves[0], halves[1]}});
        }
    return out;
}

Baseline::~Baseline() { sqlite3_close(db_); }

bool Baseline::recorded() const {
    const std::lock_guard lock(mutex_);
    Statement any(db_, "SELECT 1 FROM source LIMIT 1");
    return any.row();
}

Status Baseline::record(std::span<const fs::path> sources, const Catalog& catalog, std::span<const Source> opened) {
    std::vector<std::string> stamps, samples;
    for (const auto& source : sources) {
        stamps.push_back(fingerprint_of(source));  // before the bytes: what changes in between differs from it
        samples.push_back(sample_of_source(source));
    }
    {
        const std::lock_guard lock(mutex_);
        Transaction all(db_);
        if (!all.begun()) return fail_sqlite(db_, "cannot write the baseline");
        if (sqlite3_exec(db_, "DELETE FROM entry; DELETE FROM source", nullptr, nullptr, nullptr) != SQLITE_OK)
            return fail_sqlite(db_, "cannot write the baseline");
        Statement add(db_, "INSERT INTO source(path, stamp, sample) VALUES(?, ?, ?)");
        for (std::size_t i = 0; i < sources.size(); ++i)
            if (!stamps[i].empty() && !samples[i].empty() &&
                !add.bind(1, sources[i].string()).bind(2, stamps[i]).bind(3, samples[i]).done())
                return fail_sqlite(db_, "cannot write the baseline");
        if (!all.commit()) return fail_sqlite(db_, "cannot write the baseline");
    }
    return add_contents(catalog, opened);
}

Status Baseline::add_contents(const Catalog& catalog, std::span<const Source> opened) {
    std::vector<bool> same(opened.size());
    for (std::size_t i = 0; i < opened.size(); ++i) same[i] = compare(opened[i].path) == Shipped::as_shipped;
    const std::lock_guard lock(mutex_);
    std::vector<std::int64_t> ids(opened.size());
    for (std::size_t i = 0; i < opened.size(); ++i) {
        Statement id(db_, "SELECT id FROM source WHERE path = ?");
        if (same[i] && id.bind(1, opened[i].path.string()).row()) ids[i] = id.number(0);
    }
    Transaction all(db_);
    if (!all.begun()) return fail_sqlite(db_, "cannot write the baseline");
    Statement add(db_, "INSERT OR IGNORE INTO entry(source, path, content) VALUES(?, ?, ?)");
    for (const auto& item : catalog.items) {
        if (!item.is_texture() || item.content.empty() || ids[item.source] == 0) continue;
        if (!add.bind(1, ids[item.source]).bind(2, path_key(item.inner)).bind(3, item.content.text()).done())
            return fail_sqlite(db_, "cannot write the baseline");
    }
    if (!all.commit()) return fail_sqlite(db_, "cannot write the baseline");
    return {};
}

Result<bool> Baseline::complete(Progress& progress) {
    struct Row {
        std::int64_t id = 0;
        fs::path path;
        std::string whole;
    };
    std::vector<Row> rows, todo;
    {
        const std::lock_guard lock(mutex_);
        Statement all(db_, "SELECT id, path, coalesce(whole, '') FROM source ORDER BY id");
        while (all.row()) rows.push_back({all.number(0), all.text(1), all.text(2)});
    }
    for (const auto& row : rows)
        if (compare(row.path) == (row.whole.empty() ? Shipped::as_shipped : Shipped::unknown)) todo.push_back(row);
    std::error_code code;
    for (const auto& row : todo)
        for (const auto& file : files_of(row.path)) progress.total += fs::file_size(file, code);
    bool decided = false;
    for (const auto& row : todo) {
        const auto stamp = fingerprint_of(row.path);
        auto hash = whole_hash(row.path, progress);
        if (!hash && hash.error().code == ErrorCode::canceled) return fail(std::move(hash).error());
        // What changed while it was read is looked at another time.
        if (!hash || stamp.empty() || fingerprint_of(row.path) != stamp) continue;
        const std::lock_guard lock(mutex_);
        if (row.whole.empty()) {
            // Only of what is untouched since it was recorded.
            if (!Statement(db_, "UPDATE source SET whole = ? WHERE id = ? AND stamp = ?")
                     .bind(1, *hash)
                     .bind(2, row.id)
                     .bind(3, stamp)
                     .done())
                return fail_sqlite(db_, "cannot write the baseline");
        } else {
            if (!Statement(db_, "UPDATE source SET judged = ?, same = ? WHERE id = ?")
                     .bind(1, stamp)
                     .bind(2, std::int64_t{*hash == row.whole})
                     .bind(3, row.id)
                     .done())
                return fail_sqlite(db_, "cannot write the baseline");
            decided = true;
        }
    }
    return decided;
}

Shipped Baseline::compare(const fs::path& source) const {
    std::string stamp, sample, judged;
    bool same = false;
    {
        const std::lock_guard lock(mutex_);
        Statement one(db_, "SELECT stamp, sample, coalesce(judged, ''), coalesce(same, 0) FROM source WHERE path = ?");
        if (!one.bind(1, source.string()).row()) {
            Statement any(db_, "SELECT 1 FROM source LIMIT 1");
            return any.row() ? Shipped::added : Shipped::unknown;
        }
        stamp = one.text(0), sample = one.text(1), judged = one.text(2), same = one.number(3) != 0;
    }
    const auto now = fingerprint_of(source);
    if (now == stamp) return Shipped::as_shipped;
    if (!now.empty() && now == judged) return same ? Shipped::as_shipped : Shipped::changed;
    return sample_of_source(source) == sample ? Shipped::unknown : Shipped::changed;
}

std::vector<Shipped> Baseline::compare(const Catalog& catalog, std::span<const Source> opened) const {
    std::vector<Shipped> out(catalog.items.size(), Shipped::unknown);
    const std::lock_guard lock(mutex_);
    std::vector<std::unordered_map<std::string, std::string>> known(opened.size());
    std::vector<bool> there(opened.size()), any_entry(opened.size());
    bool any = false;
    for (std::size_t i = 0; i < opened.size(); ++i) {
        Statement id(db_, "SELECT id FROM source WHERE path = ?");
        if (!id.bind(1, opened[i].path.string()).row()) continue;
        there[i] = any = true;
        Statement entries(db_, "SELECT path, content FROM entry WHERE source = ?");
        entries.bind(1, id.number(0));
        while (entries.row()) known[i][entries.text(0)] = entries.text(1);
    }
    if (!any) return out;
    for (std::size_t i = 0; i < catalog.items.size(); ++i) {
        const auto& item = catalog.items[i];
        if (!item.is_texture()) continue;
        if (!there[item.source]) {
            out[i] = Shipped::added;
            continue;
        }
        const auto found = known[item.source].find(path_key(item.inner));
        if (found == known[item.source].end()) continue;  // not looked at when it was recorded
        if (!item.content.empty()) out[i] = item.content.text() == found->second ? Shipped::as_shipped : Shipped::changed;
    }
    return out;
}

}  // namespace skivet
