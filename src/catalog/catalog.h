#pragma once
// The index of everything found in the sources.
#include "base/progress.h"
#include "base/rarely.h"
#include "base/shared_text.h"
#include "catalog/picture_facts.h"
#include "container/address.h"

namespace skivet {

/// One archive or folder of the game, opened. Later sources in a list win over earlier ones.
struct Source {
    std::filesystem::path path;
    std::shared_ptr<const Container> container;  ///< null when it could not be opened
    std::optional<Error> error;                  ///< why
    std::vector<std::filesystem::path> apart;    ///< what lies below it and is a source of its own
};
/// Of `all` what lies below `folder`, with its other parts where it is a file cut into parts; sorted.
[[nodiscard]] std::vector<std::filesystem::path> below(const std::filesystem::path& folder, std::span<const std::filesystem::path> all);

enum class EntryKind : std::uint8_t { texture, image, container, mesh, other };
[[nodiscard]] std::string_view name_of(EntryKind kind);
/// What a path alone says; nothing is read.
[[nodiscard]] EntryKind kind_by_name(const TextureKinds& kinds, std::string_view path);

/// One entry of one source, at any depth.
struct CatalogItem {
    std::size_t source = 0;          ///< index into the list of sources
    std::vector<std::string> inner;  ///< steps from the source to the entry
    SharedText file_kind;            ///< "DDS", "PNG", a sheet's name; empty for what is no texture
    SharedText method;
    std::uint64_t size = 0;  ///< bytes, unpacked
    std::uint64_t stored = 0;
    ContentKey content;       ///< empty until its content was looked at
    Rarely<Error> error;      ///< recognized, but its header does not hold
    TextureDesc desc;         ///< textures only
    std::uint32_t check = 0;  ///< checksum of its content, or of the archive inside which it lies; 0: none is stated
    EntryKind kind = EntryKind::other;
    bool effective = true;  ///< no later source has an entry with this path

    [[nodiscard]] const std::string& path() const { return inner.back(); }
    [[nodiscard]] std::string name() const;  ///< file name without folders and extension
    [[nodiscard]] bool is_texture() const { return kind == EntryKind::texture || kind == EntryKind::image; }
};

struct Catalog {
    std::vector<CatalogItem> items;
    std::vector<Error> problems;  ///< entries that could not be looked at; the rest is there
};

/// What lies below a folder and is in the list itself is not in the folder's source.
[[nodiscard]] std::vector<Source> open_sources(const ReadContext& context, std::span<const std::filesystem::path> paths);
/// One of them.
[[nodiscard]] Source open_one_of(const ReadContext& context, const std::filesystem::path& path, std::span<const std::filesystem::path> all);

struct CatalogOptions {
    bool recurse = true;            ///< into archives inside archives
    bool recognize_content = true;  ///< otherwise only names and sizes are listed
    /// Items of a source that are known from before; nothing: look through it.
    std::function<std::optional<std::vector<CatalogItem>>(const Source&)> known;
    /// Gets the items of a source that was looked through to its end.
    std::function<void(const Source&, std::span<const CatalogItem>)> looked_through;
    /// Gets what is there so far, several times while it grows; each is the beginning of the next.
    std::function<void(const Catalog&)> so_far;
};
/// Looks at the head of every entry; nothing is unpacked but archives inside archives. Items are in the order of sources and entries. Error
/// `canceled` only.
[[nodiscard]] Result<Catalog> build_catalog(const ReadContext& context, std::span<const Source> sources, Progress& progress,
                                            const CatalogOptions& options = {});
/// Sets `effective` of every item: the last source that has a path is the one the game loads.
void mark_effective(std::vector<CatalogItem>& items);

/// The whole texture file of an item.
[[nodiscard]] Result<TextureFile> open_texture(const ReadContext& context, const Source& source, const CatalogItem& item);
/// The address as the command line writes it.
[[nodiscard]] Address address_of(const Source& source, const CatalogItem& item);

}  // namespace skivet
