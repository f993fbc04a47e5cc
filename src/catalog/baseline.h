#pragma once
// What a clean installation was: recorded once, by sampling at once and in full beside the work, and compared with later. Unlike the index
// it cannot be made again, so a damaged one is an error and never replaced.
#include <map>
#include <memory>
#include <mutex>

#include "catalog/catalog.h"

struct sqlite3;

namespace skivet {

/// What has become of a source or an entry since the baseline.
enum class Shipped : std::uint8_t {
    unknown,  ///< no baseline, or it does not say (yet: see complete)
    as_shipped,
    changed,
    added,  ///< was not there: left by a tool for mods, or an update since
};
[[nodiscard]] std::string_view name_of(Shipped shipped);

/// A texture as it was recorded.
struct BaselineEntry {
    std::filesystem::path source;
    std::string path;  ///< path_key of the steps inside
    ContentKey content;
};

class Baseline {
public:
    /// Opens it, or makes an empty one. Error `damaged` for a file that is none.
    [[nodiscard]] static Result<std::shared_ptr<Baseline>> open(const std::filesystem::path& file);
    ~Baseline();
    Baseline(const Baseline&) = delete;
    Baseline& operator=(const Baseline&) = delete;

    [[nodiscard]] bool recorded() const;
    /// Takes everything as it is now for what the game's maker shipped: stamp, size and a hash of samples of each source, and the contents
    /// of the textures that are known. Replaces what was recorded before.
    [[nodiscard]] Status record(std::span<const std::filesystem::path> sources, const Catalog& catalog, std::span<const Source> opened);
    /// Reads whole sources: those recorded and untouched since, to keep the hash of all their bytes (XXH3, 128 bits); and those that were
    /// touched though their samples are as recorded, to decide what became of them. Can be canceled and goes on another time. True when
    /// something was decided that compare did not know before.
    [[nodiscard]] Result<bool> complete(Progress& progress);
    /// Contents that became known after recording, of sources that are as recorded.
    [[nodiscard]] Status add_contents(const Catalog& catalog, std::span<const Source> opened);

    /// Without reading more than samples: untouched since it was recorded (size, time, inode) is as shipped, other samples are a change.
    /// Between the two (one block in gigabytes, or only a new time) it is unknown until complete has read it.
    [[nodiscard]] Shipped compare(const std::filesystem::path& source) const;
    /// For every item; unknown for what is no texture or was not looked at.
    [[nodiscard]] std::vector<Shipped> compare(const Catalog& catalog, std::span<const Source> opened) const;

    /// Every texture whose content was recorded.
    [[nodiscard]] std::vector<BaselineEntry> entries() const;

private:
    Baseline() = default;
    sqlite3* db_ = nullptr;
    mutable std::mutex mutex_;
};

/// Size and sampled hash (sample_of); of a folder of all its files' names and samples. Empty when it cannot be read.
[[nodiscard]] std::string sample_of_source(const std::filesystem::path& source);

}  // namespace skivet
