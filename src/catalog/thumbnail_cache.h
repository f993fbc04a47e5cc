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
    /// `most_bytes`: what its pictures may take; beyond that the longest unused go, to the hour, until a quarter of the room is free. A
    /// damaged one is replaced.
    [[nodiscard]] static Result<std::shared_ptr<ThumbnailCache>> open(const std::filesystem::path& file,
                                                                      std::uint64_t most_bytes = 256ull << 20);
    /// $XDG_CACHE_HOME/skivet/thumbnails.sqlite, or ~/.cache/skivet/thumbnails.sqlite.
    [[nodiscard]] static std::filesystem::path usual_place();
    ~ThumbnailCache();
    ThumbnailCache(const ThumbnailCache&) = delete;
    ThumbnailCache& operator=(const ThumbnailCache&) = delete;

    [[nodiscard]] std::optional<Image> find(const ContentKey& key) const;
    /// Errors are of the disk; a cache that cannot be written is no reason to stop.
    [[nodiscard]] Status put(std::span<const KeptPicture> pictures);
    [[nodiscard]] std::uint64_t bytes() const;
    /// Another bound from now on.
    [[nodiscard]] Status set_most(std::uint64_t most_bytes);
    /// Takes everything out and gives its space back to the disk.
    [[nodiscard]] Status clear();

private:
    ThumbnailCache() = default;
    [[nodiscard]] Status trim();
    sqlite3* db_ = nullptr;
    std::uint64_t most_ = 0, held_ = 0;  ///< bytes of pictures; held_ as this process knows it
    mutable std::mutex mutex_;
};

}  // namespace skivet
