#pragma once
// Small pictures by content, kept between runs and shared by all projects: one SQLite file under $XDG_CACHE_HOME/skivet. They are kept as
// BC1, or BC3 with alpha: 8 or 16 KB at 128×128, decoded in 20 µs.
#include <filesystem>
#include <memory>
#include <mutex>

#include "catalog/picture_facts.h"

struct sqlite3;

namespace skivet {

/// A small picture to be kept; with its blocks where it has them in BC1 or BC3, so that nothing is compressed again.
struct KeptPicture {
    ContentKey content;
    Image picture;
    Bytes blocks;
    Format format = Format::unknown;
};

class ThumbnailCache {
public:
    /// `most_bytes`: what it may hold; beyond that the longest unused go when it is opened. A damaged one is replaced.
    [[nodiscard]] static Result<std::shared_ptr<ThumbnailCache>> open(const std::filesystem::path& file,
                                                                      std::uint64_t most_bytes = 1ull << 30);
    /// $XDG_CACHE_HOME/skivet/thumbnails.sqlite, or ~/.cache/skivet/thumbnails.sqlite.
    [[nodiscard]] static std::filesystem::path usual_place();
    ~ThumbnailCache();
    ThumbnailCache(const ThumbnailCache&) = delete;
    ThumbnailCache& operator=(const ThumbnailCache&) = delete;

    [[nodiscard]] std::optional<Image> find(const ContentKey& key) const;
    /// Errors are of the disk; a cache that cannot be written is no reason to stop.
    [[nodiscard]] Status put(std::span<const KeptPicture> pictures);
    [[nodiscard]] std::uint64_t bytes() const;

private:
    ThumbnailCache() = default;
    sqlite3* db_ = nullptr;
    mutable std::mutex mutex_;
};

}  // namespace skivet
