#pragma once
// The catalog's index on disk: what is in each source, and the facts of every picture. It holds nothing that cannot be found again, so a
// damaged one is thrown away. One SQLite file; every call is one transaction, so a process killed at any moment leaves what was stored
// before. Every row carries a checksum: what a failing disk makes of one is as if it had never been stored.
#include <limits>
#include <memory>
#include <mutex>

#include "catalog/catalog.h"

struct sqlite3;

namespace skivet {

class Statement;

using FactsPtr = std::shared_ptr<const PictureFacts>;

/// What tells one state of a source from another without reading it: size, time and inode of its files (of a folder: of everything in it).
/// Empty when it cannot be looked at.
[[nodiscard]] std::string fingerprint_of(const std::filesystem::path& source);
/// What recognition depends on besides: the formats and kinds that are built in, sheets, choices, known paths, names of keys.
[[nodiscard]] std::string fingerprint_of(const ReadContext& context);

class IndexStore final : public PatternStore, public std::enable_shared_from_this<IndexStore> {
public:
    /// Opens or makes it. One that is damaged or of another version is replaced by an empty one; `replaced()` says so. Safe to use from
    /// several threads. With `own_place` (inside a project) that goes for whatever lies there; otherwise a file that is no index of ours is
    /// the error `usage`. An empty name: a file of its own in the place for temporary files, which goes with it.
    [[nodiscard]] static Result<std::shared_ptr<IndexStore>> open(const std::filesystem::path& file, bool own_place = false);
    ~IndexStore() override;
    IndexStore(const IndexStore&) = delete;
    IndexStore& operator=(const IndexStore&) = delete;
    [[nodiscard]] bool replaced() const { return replaced_; }

    /// The items of a source as they were listed under this fingerprint, with the contents found since. Nothing when it changed or is not
    /// known. At most the first `most` of them.
    [[nodiscard]] std::optional<std::vector<CatalogItem>> listing(const std::filesystem::path& source, std::string_view fingerprint,
                                                                  std::size_t most = std::numeric_limits<std::size_t>::max()) const;
    /// Takes a source's items in and gives the content of each: its own, or that of before where path, sizes and checksum are as they were;
    /// empty where it is not known.
    [[nodiscard]] Result<std::vector<ContentKey>> put_listing(const std::filesystem::path& source, std::string_view fingerprint,
                                                              std::span<const CatalogItem> items);
    /// Drops sources that are not in the list.
    [[nodiscard]] Status keep_only(std::span<const std::filesystem::path> sources);

    /// Drops facts of contents that no source has any more, once they are the greater part: call it when everything was looked at. Nothing
    /// is done when nothing was put in or dropped since.
    [[nodiscard]] Status prune();

    /// One texture looked at: its place among the items of its source, its content, its facts (null: cannot be decoded).
    struct Seen {
        std::filesystem::path source;
        std::size_t item = 0;
        ContentKey content;
        FactsPtr facts;
    };
    /// `facts` become those that are kept: their patterns lie in the store.
    [[nodiscard]] Status put_seen(std::span<Seen> seen);
    /// Facts by content, with their patterns in the store; null for those not known, and for those known not to decode (`undecodable` is
    /// set for them).
    [[nodiscard]] std::vector<FactsPtr> facts(std::span<const ContentKey> contents, std::vector<bool>* undecodable = nullptr) const;
    /// Contents it has anything of, sorted: to be asked without waiting for what is put in meanwhile.
    [[nodiscard]] std::vector<ContentKey> contents() const;
    [[nodiscard]] PicturePattern pattern(std::int64_t number) const override;

private:
    IndexStore() = default;
    [[nodiscard]] FactsPtr kept_facts(ByteSpan bytes, std::int64_t id) const;
    sqlite3* db_ = nullptr;
    bool replaced_ = false;
    mutable std::unique_ptr<Statement> one_pattern_, one_picture_;  ///< prepared when they are first asked
    bool changed_ = false;                                          ///< since it was last looked for what nothing has any more
    mutable std::mutex mutex_;
};

}  // namespace skivet
