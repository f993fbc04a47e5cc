#include "catalog/thumbnail_cache.h"

#include <fmt/format.h>
#include <chrono>

#include "base/file_write.h"
#include "catalog/sqlite.h"
#include "codec/codec.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr const char* schema =
    "CREATE TABLE thumbnail(high INTEGER NOT NULL, low INTEGER NOT NULL, width INTEGER NOT NULL, height INTEGER NOT NULL, alpha INTEGER "
    "NOT NULL, hour INTEGER NOT NULL,"
    " data BLOB NOT NULL, PRIMARY KEY(high, low)) WITHOUT ROWID;"
    "CREATE INDEX by_hour ON thumbnail(hour);";

std::int64_t this_hour() {
    return std::chrono::duration_cast<std::chrono::hours>(std::chrono::system_clock::now().time_since_epoch()).count();
}

}  // namespace

fs::path ThumbnailCache::usual_place() { return user_cache_folder() / "thumbnails.sqlite"; }

Result<std::shared_ptr<ThumbnailCache>> ThumbnailCache::open(const fs::path& file, std::uint64_t most_bytes) {
    std::shared_ptr<ThumbnailCache> out(new ThumbnailCache);
    SKIVET_TRY(out->db_, open_database(file, schema, 3, Replaceable::place));
    // Only a cache: what a power cut makes of it is thrown away, so nothing waits for the disk.
    sqlite3_exec(out->db_, "PRAGMA synchronous=OFF", nullptr, nullptr, nullptr);
    out->most_ = most_bytes;
    out->held_ = out->bytes();
    SKIVET_CHECK(out->trim());
    return out;
}

Status ThumbnailCache::trim() {
    if (held_ <= most_) return {};
    constexpr std::uint64_t largest = 16384;  // 128 × 128 texels in BC3
    const auto wanted = most_ - most_ / 4;
    // The oldest first, never more at once than surely have to go.
    while (held_ > wanted) {
        std::uint64_t gone = 0;
        {
            Statement some(db_,
                           "DELETE FROM thumbnail WHERE (high, low) IN (SELECT high, low FROM thumbnail ORDER BY hour LIMIT ?) "
                           "RETURNING length(data)");
            some.bind(1, static_cast<std::int64_t>(std::max<std::uint64_t>(1, (held_ - wanted) / largest)));
            while (some.row()) gone += static_cast<std::uint64_t>(some.number(0));
        }
        if (gone == 0) {
            if (sqlite3_errcode(db_) != SQLITE_DONE && sqlite3_errcode(db_) != SQLITE_OK)
                return fail_sqlite(db_, "cannot make room in the picture cache");
            held_ = 0;  // another process has taken them out
            return {};
        }
        held_ -= std::min(held_, gone);
    }
    return {};
}

Status ThumbnailCache::set_most(std::uint64_t most_bytes) {
    const std::lock_guard lock(mutex_);
    most_ = most_bytes;
    return trim();
}

Status ThumbnailCache::clear() {
    const std::lock_guard lock(mutex_);
    held_ = 0;
    if (sqlite3_exec(db_, "DELETE FROM thumbnail", nullptr, nullptr, nullptr) != SQLITE_OK ||
        sqlite3_exec(db_, "VACUUM", nullptr, nullptr, nullptr) != SQLITE_OK ||
        sqlite3_exec(db_, "PRAGMA wal_checkpoint(TRUNCATE)", nullptr, nullptr, nullptr) != SQLITE_OK)
        return fail_sqlite(db_, "cannot clear the picture cache");
    return {};
}

ThumbnailCache::~ThumbnailCache() { sqlite3_close(db_); }

std::uint64_t ThumbnailCache::bytes() const {
    const std::lock_guard lock(mutex_);
    Statement sum(db_, "SELECT coalesce(sum(length(data)), 0) FROM thumbnail");
    return sum.row() ? static_cast<std::uint64_t>(sum.number(0)) : 0;
}

std::optional<Image> ThumbnailCache::find(const ContentKey& key) const {
    Bytes data;
    std::uint32_t width = 0, height = 0;
    bool alpha = false;
    {
        const std::lock_guard lock(mutex_);
        Statement one(db_, "SELECT width, height, alpha, data, hour FROM thumbnail WHERE high = ? AND low = ?");
        if (!one.bind(1, static_cast<std::int64_t>(key.high)).bind(2, static_cast<std::int64_t>(key.low)).row()) return std::nullopt;
        width = static_cast<std::uint32_t>(one.number(0)), height = static_cast<std::uint32_t>(one.number(1)), alpha = one.number(2) != 0;
        data.assign(one.bytes(3).begin(), one.bytes(3).end());
        const auto hour = one.number(4);
        one.reset();
        if (hour != this_hour())  // looked at just now; one that cannot be written is kept less long, no more
            (void)Statement(db_, "UPDATE thumbnail SET hour = ? WHERE high = ? AND low = ?")
                .bind(1, this_hour())
                .bind(2, static_cast<std::int64_t>(key.high))
                .bind(3, static_cast<std::int64_t>(key.low))
                .done();
    }
    if (width == 0 || height == 0 || width > 1024 || height > 1024) return std::nullopt;
    auto image = decode(alpha ? Format::BC3 : Format::BC1, data, width, height);
    return image ? std::optional(std::move(*image)) : std::nullopt;
}

Status ThumbnailCache::put(std::span<const KeptPicture> pictures) {
    std::vector<std::pair<Bytes, bool>> packed;
    for (const auto& [key, image, blocks, format] : pictures) {
        if (format == Format::BC1 || format == Format::BC3) {
            packed.emplace_back(blocks, format == Format::BC3);
            continue;
        }
        const bool alpha = std::any_of(image.texels.begin(), image.texels.end(), [](const Texel& t) { return t[3] != 255; });
        SKIVET_TRY(auto bytes, encode(alpha ? Format::BC3 : Format::BC1, image, {.effort = Effort::fast}));
        packed.emplace_back(std::move(bytes), alpha);
    }
    const std::lock_guard lock(mutex_);
    Transaction all(db_);
    if (!all.begun()) return fail_sqlite(db_, "cannot write the picture cache");
    Statement add(db_, "INSERT OR REPLACE INTO thumbnail(high, low, width, height, alpha, hour, data) VALUES(?, ?, ?, ?, ?, ?, ?)");
    for (std::size_t i = 0; i < packed.size(); ++i) {
        const auto& key = pictures[i].content;
        const auto& image = pictures[i].picture;
        add.bind(1, static_cast<std::int64_t>(key.high))
            .bind(2, static_cast<std::int64_t>(key.low))
            .bind(3, std::int64_t{image.width})
            .bind(4, std::int64_t{image.height});
        if (!add.bind(5, std::int64_t{packed[i].second}).bind(6, this_hour()).bind(7, ByteSpan(packed[i].first)).done())
            return fail_sqlite(db_, "cannot write the picture cache");
    }
    if (!all.commit()) return fail_sqlite(db_, "cannot write the picture cache");
    for (const auto& [bytes, alpha] : packed) held_ += bytes.size();
    return trim();
}

}  // namespace skivet
