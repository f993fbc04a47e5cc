#include "catalog/index_store.h"

#include <fmt/format.h>
#include <xxhash.h>
#include <iterator>
#include <unordered_map>

#include "base/file_view.h"
#include "base/phrase.h"
#include "catalog/analysis.h"
#include "catalog/item_records.h"
#include "catalog/sqlite.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr int schema_version = 3;
constexpr const char* schema =
    "CREATE TABLE source(id INTEGER PRIMARY KEY, path TEXT UNIQUE NOT NULL, fingerprint TEXT NOT NULL, items INTEGER NOT NULL, sum INTEGER "
    "NOT NULL);"
    "CREATE TABLE listing(source INTEGER NOT NULL, part INTEGER NOT NULL, data BLOB NOT NULL, sum INTEGER NOT NULL, PRIMARY KEY(source, "
    "part)) WITHOUT ROWID;"
    "CREATE TABLE content(source INTEGER NOT NULL, item INTEGER NOT NULL, key BLOB NOT NULL, sum INTEGER NOT NULL, PRIMARY KEY(source, "
    "item)) WITHOUT ROWID;"
    "CREATE TABLE picture(key BLOB PRIMARY KEY, facts BLOB, sum INTEGER NOT NULL) WITHOUT ROWID;";
constexpr std::size_t items_a_part = 4096;

/// The checksum of a row: of its bytes, and of the numbers it belongs to, so that it cannot stand in another's place.
std::int64_t row_sum(ByteSpan bytes, std::uint64_t a = 0, std::uint64_t b = 0) {
    return static_cast<std::int64_t>(XXH3_64bits_withSeed(bytes.data(), bytes.size(), a * 0x9E3779B97F4A7C15u + b + 1));
}
std::int64_t source_sum(const std::string& path, std::string_view fingerprint, std::int64_t id, std::int64_t items) {
    const auto text = fmt::format("{}\n{}", path, fingerprint);
    return row_sum(as_bytes(text), static_cast<std::uint64_t>(id), static_cast<std::uint64_t>(items));
}

std::array<std::byte, 16> bytes_of(const ContentKey& key) {
    std::array<std::byte, 16> out;
    store_uint(out.data(), key.high, 8, ByteOrder::little);
    store_uint(out.data() + 8, key.low, 8, ByteOrder::little);
    return out;
}
ContentKey key_of(ByteSpan bytes) {
    if (bytes.size() != 16) return {};
    return {load_uint(bytes.data(), 8, ByteOrder::little), load_uint(bytes.data() + 8, 8, ByteOrder::little)};
}

/// Facts with their version in front, so that another one is not taken for them.
Bytes bytes_of(const PictureFacts& facts) {
    Bytes out(4 + sizeof facts);
    store_uint(out.data(), PictureFacts::version, 4, ByteOrder::little);
    std::memcpy(out.data() + 4, &facts, sizeof facts);
    return out;
}
FactsPtr facts_of(ByteSpan bytes) {
    if (bytes.size() != 4 + sizeof(PictureFacts) || load_uint(bytes.data(), 4, ByteOrder::little) != PictureFacts::version) return nullptr;
    auto out = std::make_shared<PictureFacts>();
    std::memcpy(out.get(), bytes.data() + 4, sizeof(PictureFacts));
    return out;
}

std::string stamp_text(const FileStamp& s) { return fmt::format("{}.{}.{};", s.size, s.modified_ns, s.inode); }

}  // namespace

std::string fingerprint_of(const fs::path& source) {
    std::error_code code;
    if (fs::is_directory(source, code)) {
        // Every file's name, size and time, whatever order the folder gives them in.
        std::uint64_t sum = 0, count = 0;
        for (fs::recursive_directory_iterator walk(source, fs::directory_options::skip_permission_denied, code), end; !code && walk != end;
             walk.increment(code)) {
            std::error_code ignored;
            if (!walk->is_regular_file(ignored)) continue;
            const auto text = fmt::format("{}\n{}\n{}", walk->path().string(), walk->file_size(ignored),
                                          walk->last_write_time(ignored).time_since_epoch().count());
            sum += XXH3_64bits(text.data(), text.size());
            ++count;
        }
        return code ? std::string() : fmt::format("folder {} {:016x}", count, sum);
    }
    const auto parts = parts_of(source);
    std::string out;
    for (const auto& part : parts ? *parts : std::vector{source}) {
        const auto stamp = stamp_of(part);
        if (!stamp) return {};
        out += stamp_text(*stamp);
    }
    return out;
}

std::string fingerprint_of(const ReadContext& context) {
    std::string text = fmt::format("{:016x}", context.sheets_hash);
    // What is built in: with another set of formats or kinds everything is listed anew.
    for (const auto& f : all_formats()) text += fmt::format("\n{} {}", f.name, static_cast<unsigned>(f.format));
    for (const auto& kind : context.textures.all()) text += fmt::format("\n{} {}", kind->name(), kind->traits().picture);
    for (const auto& kind : context.containers) text += '\n' + kind->name();
    for (const auto& c : context.choices) text += '\n' + c.pattern + '\t' + c.kind;
    for (const auto& p : context.known_paths) text += '\n' + p;
    for (const auto& k : context.keys->all()) text += '\n' + k.name;
    for (const auto& p : context.packers->all()) text += '\n' + p.name + '\t' + command_text(p.unpack);
    return fmt::format("{:016x}", XXH3_64bits(text.data(), text.size()));
}

namespace {

/// Whether a file may be taken for a database of ours, without SQLite touching it: new, empty, or with our mark.
Status check_ours(const fs::path& file) {
    std::error_code code;
    if (file == ":memory:" || !fs::exists(file, code)) return {};
    const auto refuse = [&] {
        return fail(ErrorCode::usage, phrase("{} is no index of Skivet's, so it is left alone", file.string()),
                    "Choose another file, or move this one away");
    };
    if (!fs::is_regular_file(file, code)) return refuse();
    SKIVET_TRY(const auto view, FileView::open(file));
    if (view.size() == 0) return {};
    if (view.size() < 100) return refuse();
    SKIVET_TRY(const auto head, view.bytes(0, 100));
    if (as_text(head.first(16)) != std::string("SQLite format 3\0", 16) ||
        load_uint(head.data() + 68, 4, ByteOrder::big) != our_application_id)
        return refuse();
    return {};
}

/// Whether the tables are those of the schema, to the letter.
bool same_schema(sqlite3* db, std::string_view tables) {
    Statement all(db, "SELECT sql FROM sqlite_master WHERE sql IS NOT NULL ORDER BY rowid");
    std::string found;
    while (all.row()) found += all.text(0) + ";";
    return found == tables;
}

}  // namespace

Result<sqlite3*> open_database(const fs::path& file, const char* tables, int version, Replaceable replaceable, bool* replaced) {
    std::error_code code;
    if (replaceable == Replaceable::ours) SKIVET_CHECK(check_ours(file));
    if (file.has_parent_path()) fs::create_directories(file.parent_path(), code);
    for (int attempt = 0;; ++attempt) {
        sqlite3* db = nullptr;
        const bool opened =
            sqlite3_open_v2(file.c_str(), &db, SQLITE_OPEN_READWRITE | SQLITE_OPEN_CREATE | SQLITE_OPEN_FULLMUTEX, nullptr) == SQLITE_OK;
        bool damaged = false;
        if (opened) {
            sqlite3_busy_timeout(db, 5000);
            // Write-ahead: readers do not wait for writers, and a killed process loses only what was not committed.
            std::int64_t pages = -1;
            {
                Statement count(db, "PRAGMA page_count");
                if (count.row()) pages = count.number(0);
            }
            // The mark is on the disk before anything else is, whatever ends the process.
            if (pages == 0)
                sqlite3_exec(db, fmt::format("PRAGMA application_id={}", our_application_id).c_str(), nullptr, nullptr, nullptr);
            sqlite3_exec(db, "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL; PRAGMA mmap_size=1073741824", nullptr, nullptr, nullptr);
            std::int64_t found = -1, tables_there = -1;
            {
                Statement asked(db, "PRAGMA user_version");
                if (asked.row()) found = asked.number(0);
                Statement count(db, "SELECT count(*) FROM sqlite_master");
                if (count.row()) tables_there = count.number(0);
            }
            if (found == 0 && tables_there == 0) {
                const auto sql = fmt::format("BEGIN IMMEDIATE; {} PRAGMA user_version={}; COMMIT", tables, version);
                if (sqlite3_exec(db, sql.c_str(), nullptr, nullptr, nullptr) == SQLITE_OK) return db;
                // Another process may have made it in between.
                Statement again(db, "PRAGMA user_version");
                if (again.row() && again.number(0) == version) return db;
            } else if (found == version && same_schema(db, tables)) {
                return db;
            }
            const int error = sqlite3_errcode(db);
            damaged = error == SQLITE_CORRUPT || error == SQLITE_NOTADB || found != 0 || tables_there > 0;
        }
        auto error = fail_sqlite(db, "cannot open " + file.string());
        sqlite3_close(db);
        if (!damaged) return error;
        if (replaceable == Replaceable::no || attempt > 0)
            return fail(Error{ErrorCode::damaged,
                              "is no database this version of Skivet can read",
                              {file.filename().string()},
                              {},
                              "Move it away to begin anew"});
        for (const char* tail : {"", "-wal", "-shm"}) fs::remove(fs::path(file.string() + tail), code);
        if (replaced) *replaced = true;
    }
}

Result<std::shared_ptr<IndexStore>> IndexStore::open(const fs::path& file, bool own_place) {
    std::shared_ptr<IndexStore> out(new IndexStore);
    SKIVET_TRY(out->db_, open_database(file, schema, schema_version, own_place ? Replaceable::place : Replaceable::ours, &out->replaced_));
    return out;
}

IndexStore::~IndexStore() { sqlite3_close(db_); }

std::optional<std::vector<CatalogItem>> IndexStore::listing(const fs::path& source, std::string_view fingerprint) const {
    const std::lock_guard lock(mutex_);
    Statement found(db_, "SELECT id, items, sum FROM source WHERE path = ? AND fingerprint = ?");
    if (fingerprint.empty() || !found.bind(1, source.string()).bind(2, fingerprint).row()) return std::nullopt;
    const auto id = found.number(0), count = found.number(1);
    if (source_sum(source.string(), fingerprint, id, count) != found.number(2)) return std::nullopt;
    std::vector<CatalogItem> out;
    Statement parts(db_, "SELECT data, sum, part FROM listing WHERE source = ? ORDER BY part");
    parts.bind(1, id);
    for (std::int64_t next = 0; parts.row(); ++next) {
        if (parts.number(2) != next ||
            row_sum(parts.bytes(0), static_cast<std::uint64_t>(id), static_cast<std::uint64_t>(next)) != parts.number(1))
            return std::nullopt;
        auto items = unpack_items(parts.bytes(0));
        if (!items) return std::nullopt;
        out.insert(out.end(), std::make_move_iterator(items->begin()), std::make_move_iterator(items->end()));
    }
    if (static_cast<std::int64_t>(out.size()) != count) return std::nullopt;
    Statement contents(db_, "SELECT item, key, sum FROM content WHERE source = ?");
    contents.bind(1, id);
    while (contents.row())
        if (const auto item = static_cast<std::size_t>(contents.number(0));
            item < out.size() && row_sum(contents.bytes(1), static_cast<std::uint64_t>(id), item) == contents.number(2))
            out[item].content = key_of(contents.bytes(1));
    return out;
}

Status IndexStore::put_listing(const fs::path& source, std::string_view fingerprint, std::span<CatalogItem> items) {
    // What an item must agree in to have the same content.
    const auto identity = [](const CatalogItem& i) {
        return fmt::format("{}\n{}\n{}\n{}\n{}", path_key(i.inner), i.size, i.stored, i.method, i.check);
    };
    const std::lock_guard lock(mutex_);
    Transaction all(db_);
    if (!all.begun()) return fail_sqlite(db_, "cannot write the index");
    Statement old(db_, "SELECT id FROM source WHERE path = ?");
    if (old.bind(1, source.string()).row()) {
        const auto id = old.number(0);
        std::unordered_map<std::int64_t, ContentKey> keys;
        Statement contents(db_, "SELECT item, key, sum FROM content WHERE source = ?");
        contents.bind(1, id);
        while (contents.row())
            if (row_sum(contents.bytes(1), static_cast<std::uint64_t>(id), static_cast<std::uint64_t>(contents.number(0))) ==
                contents.number(2))
                keys[contents.number(0)] = key_of(contents.bytes(1));
        std::unordered_map<std::string, ContentKey> known;
        Statement parts(db_, "SELECT data, sum FROM listing WHERE source = ? ORDER BY part");
        parts.bind(1, id);
        std::int64_t number = 0;
        for (std::uint64_t next = 0; parts.row() && !keys.empty(); ++next) {
            if (row_sum(parts.bytes(0), static_cast<std::uint64_t>(id), next) != parts.number(1)) break;
            const auto before = unpack_items(parts.bytes(0));
            if (!before) break;
            for (const auto& item : *before) {
                // Without a stated checksum nothing but reading tells.
                if (const auto key = keys.find(number++); key != keys.end() && item.check != 0) known[identity(item)] = key->second;
            }
        }
        for (auto& item : items)
            if (const auto found = known.find(identity(item)); found != known.end() && item.content.empty()) item.content = found->second;
        old.reset();
        for (const char* sql :
             {"DELETE FROM listing WHERE source = ?", "DELETE FROM content WHERE source = ?", "DELETE FROM source WHERE id = ?"})
            if (!Statement(db_, sql).bind(1, id).done()) return fail_sqlite(db_, "cannot write the index");
    }
    Statement add(db_, "INSERT INTO source(path, fingerprint, items, sum) VALUES(?, ?, ?, 0)");
    const auto count = static_cast<std::int64_t>(items.size());
    if (!add.bind(1, source.string()).bind(2, fingerprint).bind(3, count).done()) return fail_sqlite(db_, "cannot write the index");
    const auto id = sqlite3_last_insert_rowid(db_);
    if (!Statement(db_, "UPDATE source SET sum = ? WHERE id = ?")
             .bind(1, source_sum(source.string(), fingerprint, id, count))
             .bind(2, id)
             .done())
        return fail_sqlite(db_, "cannot write the index");
    Statement part(db_, "INSERT INTO listing(source, part, data, sum) VALUES(?, ?, ?, ?)");
    Statement content(db_, "INSERT INTO content(source, item, key, sum) VALUES(?, ?, ?, ?)");
    for (std::size_t at = 0; at < items.size(); at += items_a_part) {
        const auto of_part = std::min(items.size() - at, items_a_part);
        for (auto i = at; i < at + of_part; ++i) {
            if (items[i].content.empty()) continue;
            const auto key = bytes_of(items[i].content);
            if (!content.bind(1, id)
                     .bind(2, static_cast<std::int64_t>(i))
                     .bind(3, ByteSpan(key))
                     .bind(4, row_sum(key, static_cast<std::uint64_t>(id), i))
                     .done())
                return fail_sqlite(db_, "cannot write the index");
        }
        const auto bytes = pack_items(items.subspan(at, of_part));
        if (!part.bind(1, id)
                 .bind(2, static_cast<std::int64_t>(at / items_a_part))
                 .bind(3, ByteSpan(bytes))
                 .bind(4, row_sum(bytes, static_cast<std::uint64_t>(id), at / items_a_part))
                 .done())
            return fail_sqlite(db_, "cannot write the index");
    }
    if (!all.commit()) return fail_sqlite(db_, "cannot write the index");
    return {};
}

Status IndexStore::keep_only(std::span<const fs::path> sources) {
    const std::lock_guard lock(mutex_);
    std::vector<std::int64_t> gone;
    {
        Statement all(db_, "SELECT id, path FROM source");
        while (all.row())
            if (std::find(sources.begin(), sources.end(), fs::path(all.text(1))) == sources.end()) gone.push_back(all.number(0));
    }
    if (gone.empty()) return {};
    Transaction one(db_);
    for (const auto id : gone)
        for (const char* sql :
             {"DELETE FROM listing WHERE source = ?", "DELETE FROM content WHERE source = ?", "DELETE FROM source WHERE id = ?"})
            if (!Statement(db_, sql).bind(1, id).done()) return fail_sqlite(db_, "cannot write the index");
    if (!one.commit()) return fail_sqlite(db_, "cannot write the index");
    return {};
}

Status IndexStore::prune() {
    const std::lock_guard lock(mutex_);
    Statement counts(db_, "SELECT (SELECT count(*) FROM picture), (SELECT count(DISTINCT key) FROM content)");
    if (!counts.row() || counts.number(0) < 2 * counts.number(1) + 1000) return {};
    if (!Statement(db_, "DELETE FROM picture WHERE key NOT IN (SELECT key FROM content)").done())
        return fail_sqlite(db_, "cannot write the index");
    return {};
}

Status IndexStore::put_seen(std::span<const Seen> seen) {
    const std::lock_guard lock(mutex_);
    Transaction all(db_);
    if (!all.begun()) return fail_sqlite(db_, "cannot write the index");
    Statement known(db_, "SELECT id FROM source WHERE path = ? AND items > ?");
    Statement content(db_, "INSERT OR REPLACE INTO content(source, item, key, sum) VALUES(?, ?, ?, ?)");
    Statement picture(db_, "INSERT OR REPLACE INTO picture(key, facts, sum) VALUES(?, ?, ?)");
    for (const auto& s : seen) {
        const auto key = bytes_of(s.content);
        const auto item = static_cast<std::int64_t>(s.item);
        const bool there = known.bind(1, s.source.string()).bind(2, item).row();
        const auto id = there ? known.number(0) : 0;
        known.reset();
        if (there &&
            !content.bind(1, id).bind(2, item).bind(3, ByteSpan(key)).bind(4, row_sum(key, static_cast<std::uint64_t>(id), s.item)).done())
            return fail_sqlite(db_, "cannot write the index");
        picture.bind(1, ByteSpan(key));
        const auto facts = s.facts ? bytes_of(*s.facts) : Bytes{};
        if (s.facts) picture.bind(2, ByteSpan(facts));
        else picture.bind_null(2);
        picture.bind(3, row_sum(facts, s.content.high, s.content.low));
        if (!picture.done()) return fail_sqlite(db_, "cannot write the index");
    }
    if (!all.commit()) return fail_sqlite(db_, "cannot write the index");
    return {};
}

std::vector<FactsPtr> IndexStore::facts(std::span<const ContentKey> contents, std::vector<bool>* undecodable) const {
    std::vector<FactsPtr> out(contents.size());
    if (undecodable) undecodable->assign(contents.size(), false);
    const std::lock_guard lock(mutex_);
    Statement one(db_, "SELECT facts, sum FROM picture WHERE key = ?");
    std::unordered_map<std::string, FactsPtr> same;  // twins share one value
    for (std::size_t i = 0; i < contents.size(); ++i) {
        if (contents[i].empty()) continue;
        const auto key = bytes_of(contents[i]);
        auto& known = same[std::string(reinterpret_cast<const char*>(key.data()), key.size())];
        if (!known) {
            if (one.bind(1, ByteSpan(key)).row() && row_sum(one.bytes(0), contents[i].high, contents[i].low) == one.number(1)) {
                if (one.is_null(0) && undecodable) (*undecodable)[i] = true;
                known = facts_of(one.bytes(0));
            }
            one.reset();
        }
        out[i] = known;
    }
    return out;
}

}  // namespace skivet
