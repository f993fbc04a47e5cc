#include "catalog/sqlite.h"

#include <fmt/format.h>

#include "base/file_view.h"
#include "base/own_folders.h"
#include "base/phrase.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

/// Whether a file may be taken for a database of ours, without SQLite touching it: new, empty, or with our mark.
Status check_ours(const fs::path& file) {
    std::error_code code;
    if (file.empty() || file == ":memory:" || !fs::exists(file, code)) return {};
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
    if (file.has_parent_path()) make_folders(file.parent_path(), code);
    for (int attempt = 0;; ++attempt) {
        sqlite3* db = nullptr;
        const bool opened =
            sqlite3_open_v2(file.c_str(), &db, SQLITE_OPEN_READWRITE | SQLITE_OPEN_CREATE | SQLITE_OPEN_NOMUTEX, nullptr) == SQLITE_OK;
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
            sqlite3_exec(db, "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL; PRAGMA wal_autocheckpoint=8000", nullptr, nullptr,
                         nullptr);
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
        auto error = fail_sqlite(db, phrase("cannot open {}", file.string()));
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

}  // namespace skivet
