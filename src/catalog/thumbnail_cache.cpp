#include "catalog/thumbnail_cache.h"

#include <fmt/format.h>
#include <chrono>
#include <cstdlib>

#include "catalog/sqlite.h"
#include "codec/codec.h"

namespace skivet {

namespace fs = std::filesystem;

namespace {

constexpr const char* schema =
    "CREATE TABLE thumbnail(high INTEGER NOT NULL, low INTEGER NOT NULL, width INTEGER NOT NULL, height INTEGER NOT NULL, alpha INTEGER "
    "NOT NULL, day INTEGER NOT NULL,"
    " data BLOB NOT NULL, PRIMARY KEY(high, low)) WITHOUT ROWID;";

std::int64_t today() {
    return std::chrono::duration_cast<std::chrono::hours>(std::chrono::system_clock::now().time_since_epoch()).count() / 24;
}

}  // namespace

fs::path ThumbnailCache::usual_place() {
    const char* cache = std::getenv("XDG_CACHE_HOME");
    const char* home = std::getenv("HOME");
    return (cache && *cache ? fs::path(cache) : fs::path(home ? home : "/tmp") / ".cache") / "skivet" / "thumbnails.sqlite";
}

Result<std::shared_ptr<ThumbnailCache>> ThumbnailCache::open(const fs::path& file, std::uint64_t most_bytes) {
    std::shared_ptr<ThumbnailCache> out(new ThumbnailCache);
    SKIVET_TRY(out->db_, open_database(file, schema, 1, Replaceable::place));
    // Only a cache: what a power cut makes of it is thrown away, so nothing waits for the disk.
    sqlite3_exec(out->db_, "PRAGMA synchronous=OFF", nullptr, nullptr, nullptr);
    const auto held = out->bytes();
    if (held <= most_bytes) return out;
    // Whole days at a time, the oldest first, until a quarter of the room is free again.
    std::uint64_t left = held;
    std::int64_t last = -1;
    {
        Statement days(out->db_, "SELECT day, sum(length(data)) FROM thumbnail GROUP BY day ORDER BY day");
        while (left > most_bytes - most_bytes / 4 && days.row()) {
            last = days.number(0);
            left -= std::min(left, static_cast<std::uint64_t>(days.number(1)));
        }
    }
    if (!Statement(out->db_, "DELETE FROM thumbnail WHERE day <= ?").bind(1, last).done())
        return fail_sqlite(out->db_, "cannot make room in the picture cache");
    return out;
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
        Statement one(db_, "SELECT width, height, alpha, data, day FROM thumbnail WHERE high = ? AND low = ?");
        if (!one.bind(1, static_cast<std::int64_t>(key.high)).bind(2, static_cast<std::int64_t>(key.low)).row()) return std::nullopt;
        width = static_cast<std::uint32_t>(one.number(0)), height = static_cast<std::uint32_t>(one.number(1)), alpha = one.number(2) != 0;
        data.assign(one.bytes(3).begin(), one.bytes(3).end());
        const auto day = one.number(4);
        one.reset();
        if (day != today())  // looked at today; one that cannot be written is kept less long, no more
            (void)Statement(db_, "UPDATE thumbnail SET day = ? WHERE high = ? AND low = ?")
                .bind(1, today())
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
    Statement add(db_, "INSERT OR REPLACE INTO thumbnail(high, low, width, height, alpha, day, data) VALUES(?, ?, ?, ?, ?, ?, ?)");
    for (std::size_t i = 0; i < packed.size(); ++i) {
        const auto& key = pictures[i].content;
        const auto& image = pictures[i].picture;
        add.bind(1, static_cast<std::int64_t>(key.high))
            .bind(2, static_cast<std::int64_t>(key.low))
            .bind(3, std::int64_t{image.width})
            .bind(4, std::int64_t{image.height});
        if (!add.bind(5, std::int64_t{packed[i].second}).bind(6, today()).bind(7, ByteSpan(packed[i].first)).done())
            return fail_sqlite(db_, "cannot write the picture cache");
    }
    if (!all.commit()) return fail_sqlite(db_, "cannot write the picture cache");
    return {};
}

}  // namespace skivet
