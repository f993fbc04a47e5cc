#pragma once
// SQLite's statements with their lifetime and errors in our form.
#include <sqlite3.h>
#include <filesystem>

#include "base/bytes.h"
#include "base/phrase.h"

namespace skivet {

/// The database's last error as ours.
[[nodiscard]] inline tl::unexpected<Error> fail_sqlite(sqlite3* db, std::string_view doing) {
    const int code = db ? sqlite3_errcode(db) : SQLITE_NOMEM;
    const auto kind = code == SQLITE_FULL                               ? ErrorCode::no_space
                      : code == SQLITE_CORRUPT || code == SQLITE_NOTADB ? ErrorCode::damaged
                      : code == SQLITE_BUSY || code == SQLITE_LOCKED    ? ErrorCode::busy
                                                                        : ErrorCode::io;
    return fail(kind, said(doing) + ": " + (db ? sqlite3_errmsg(db) : said("no memory")));
}

class Statement {
public:
    Statement(sqlite3* db, const char* sql) { sqlite3_prepare_v2(db, sql, -1, &statement_, nullptr); }
    ~Statement() { sqlite3_finalize(statement_); }
    Statement(const Statement&) = delete;
    Statement& operator=(const Statement&) = delete;
    Statement& bind(int at, std::int64_t value) { return sqlite3_bind_int64(statement_, at, value), *this; }
    Statement& bind(int at, std::string_view text) {
        return sqlite3_bind_text(statement_, at, text.data(), static_cast<int>(text.size()), SQLITE_TRANSIENT), *this;
    }
    Statement& bind(int at, ByteSpan bytes) {
        return sqlite3_bind_blob64(statement_, at, bytes.data(), bytes.size(), SQLITE_TRANSIENT), *this;
    }
    Statement& bind_null(int at) { return sqlite3_bind_null(statement_, at), *this; }
    /// True while there is a row.
    bool row() { return statement_ && sqlite3_step(statement_) == SQLITE_ROW; }
    /// Runs a statement without rows and makes it ready for the next values.
    bool done() {
        const bool ok = statement_ && sqlite3_step(statement_) == SQLITE_DONE;
        sqlite3_reset(statement_);
        return ok;
    }
    void reset() { sqlite3_reset(statement_); }
    [[nodiscard]] std::int64_t number(int column) const { return sqlite3_column_int64(statement_, column); }
    [[nodiscard]] std::string text(int column) const {
        const auto* data = reinterpret_cast<const char*>(sqlite3_column_text(statement_, column));
        return data ? std::string(data, static_cast<std::size_t>(sqlite3_column_bytes(statement_, column))) : std::string();
    }
    [[nodiscard]] ByteSpan bytes(int column) const {
        const auto* data = static_cast<const std::byte*>(sqlite3_column_blob(statement_, column));
        return data ? ByteSpan(data, static_cast<std::size_t>(sqlite3_column_bytes(statement_, column))) : ByteSpan();
    }
    [[nodiscard]] bool is_null(int column) const { return sqlite3_column_type(statement_, column) == SQLITE_NULL; }

private:
    sqlite3_stmt* statement_ = nullptr;
};

/// All or nothing: rolls back unless committed.
class Transaction {
public:
    explicit Transaction(sqlite3* db) : db_(db) { open_ = sqlite3_exec(db, "BEGIN IMMEDIATE", nullptr, nullptr, nullptr) == SQLITE_OK; }
    ~Transaction() {
        if (open_) sqlite3_exec(db_, "ROLLBACK", nullptr, nullptr, nullptr);
    }
    Transaction(const Transaction&) = delete;
    Transaction& operator=(const Transaction&) = delete;
    [[nodiscard]] bool begun() const { return open_; }
    [[nodiscard]] bool commit() {
        if (!open_ || sqlite3_exec(db_, "COMMIT", nullptr, nullptr, nullptr) != SQLITE_OK) return false;
        open_ = false;
        return true;
    }

private:
    sqlite3* db_;
    bool open_ = false;
};

/// In the header of every database of ours (https://www.sqlite.org/fileformat2.html, "Application ID").
inline constexpr std::uint32_t our_application_id = 0x536B7674;  // "Skvt"

/// What may be done with a file that cannot be used.
enum class Replaceable {
    no,     ///< nothing; it is an error
    ours,   ///< replaced by an empty database when it says that it is one of ours; any other file is the error `usage`
    place,  ///< replaced whatever it is: its place is our own
};
/// Opens a database in write-ahead mode with `schema` of `version`. One that is damaged or of another version goes away first (`replaced`),
/// when it may; otherwise that is an error. Who holds it lets one thread at a time use it.
[[nodiscard]] Result<sqlite3*> open_database(const std::filesystem::path& file, const char* schema, int version, Replaceable replaceable,
                                             bool* replaced = nullptr);

}  // namespace skivet
