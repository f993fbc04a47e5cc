#pragma once
// A container lists entries, reads them and plans how to replace them. It never writes a file.
#include <mutex>
#include <unordered_map>
#include <unordered_set>

#include "base/limits.h"
#include "base/progress.h"
#include "container/write_plan.h"

namespace skivet {

struct Entry {
    std::string path;          ///< UTF-8, separated by '/'; no two entries have the same
    std::uint64_t size = 0;    ///< bytes, unpacked
    std::uint64_t stored = 0;  ///< bytes in the archive
    std::string_view method;   ///< "stored", "deflate", or the name of one we cannot read
    std::uint64_t at = 0;      ///< where the entry begins in the file (its local header, where it has one)
    bool encrypted = false;
    std::uint32_t check = 0;  ///< the checksum of its content that the archive states; 0: none. Tells a change without reading
};

struct Replacement {
    std::size_t entry = 0;  ///< index into entries()
    Content bytes;          ///< unpacked
};

/// An entry that was not there.
struct NewEntry {
    std::string path;                      ///< as Entry::path
    Content bytes;                         ///< unpacked
    std::optional<std::size_t> like = {};  ///< index of the entry whose method, attributes and times it gets; none: nothing special
};
struct NewName {
    std::size_t entry = 0;  ///< index into entries()
    std::string path;
};
/// What changes at once; indices are those of before.
struct Changes {
    std::vector<Replacement> replaced;
    std::vector<NewEntry> added;
    std::vector<NewName> renamed;
    std::vector<std::size_t> removed;
    [[nodiscard]] bool only_replaces() const { return added.empty() && renamed.empty() && removed.empty(); }
};

/// A stretch of an archive, for the byte map.
struct Segment {
    enum class What { table, entry, gap } what = What::gap;
    std::uint64_t at = 0;
    std::uint64_t size = 0;
    std::size_t entry = 0;  ///< index into entries(), for What::entry
};

class Container {
public:
    virtual ~Container() = default;
    [[nodiscard]] virtual std::string kind() const = 0;
    /// How it was recognized, in words.
    [[nodiscard]] const std::string& recognized_by() const { return recognized_by_; }
    [[nodiscard]] const std::vector<Entry>& entries() const { return entries_; }
    /// Index of the entry with this path. The first call takes time in proportion to the entries, later ones do not.
    [[nodiscard]] std::optional<std::size_t> find(std::string_view path) const;
    /// Entries whose name is known only by a hash, and the one of them that a path hashes to.
    [[nodiscard]] virtual std::size_t unnamed() const { return 0; }
    [[nodiscard]] virtual std::optional<std::size_t> unnamed_by(std::string_view) const { return std::nullopt; }
    /// Why nothing can be put into it; empty when it can be written.
    [[nodiscard]] virtual std::string read_only() const { return {}; }
    /// Files beside the one it was opened from that its entries lie in.
    [[nodiscard]] virtual std::vector<std::filesystem::path> other_files() const { return {}; }
    /// What is wrong with it although it could be opened.
    [[nodiscard]] const std::vector<Error>& problems() const { return problems_; }

    /// Unpacked and checked against its checksum.
    [[nodiscard]] Result<Bytes> read(std::size_t entry, const ReadLimits& limits) const;
    /// As it lies in the archive: packed and encrypted where it is. Error `unsupported` where entries are not stored apart from each other.
    [[nodiscard]] Result<Bytes> read_stored(std::size_t entry, const ReadLimits& limits) const;
    /// The first `count` bytes or fewer, not checked.
    [[nodiscard]] Result<Bytes> read_head(std::size_t entry, std::size_t count) const;
    /// The entry as something to open in turn. An entry that is stored as it is shares this container's memory and is not checked
    /// against its checksum: an archive inside an archive is read in place, whatever its size.
    [[nodiscard]] Result<FileView> view(std::size_t entry, const ReadLimits& limits) const;
    /// The plan for replacing entries. Replacing an entry by the bytes it has plans nothing. Error `unsupported` with read_only()'s
    /// reason when it cannot be written.
    [[nodiscard]] virtual Result<WritePlan> plan(std::span<const Replacement> replacements, const ReadLimits& limits) const = 0;
    /// Why entries cannot be added, renamed or taken out; empty when they can.
    [[nodiscard]] virtual std::string fixed_entries() const;
    /// The plan for changes of every sort. Errors: `usage` for a path that leaves the archive or that two entries would have, and for an
    /// entry that is named twice; `unsupported` where several entries have the name of one that is to go, and with fixed_entries()'s
    /// reason; those of `plan`.
    [[nodiscard]] Result<WritePlan> plan_changes(const Changes& changes, const ReadLimits& limits) const;
    /// The plan for giving back space that nothing uses any more. An empty plan when there is none. A packed directory that has to move
    /// because of it leaves its old place for the next time.
    [[nodiscard]] virtual Result<WritePlan> plan_compact(const ReadLimits& limits) const;
    /// Bytes that nothing uses any more.
    [[nodiscard]] virtual std::uint64_t dead_bytes() const { return 0; }
    /// A new archive of the same kind that holds only these entries with these contents, for games in which later archives win.
    [[nodiscard]] virtual Result<Bytes> patch_archive(std::span<const Replacement> entries, const ReadLimits& limits) const;
    /// What lies where, in file order; empty for a folder.
    [[nodiscard]] virtual std::vector<Segment> segments() const { return {}; }

protected:
    // What the four above do, for one kind. They need not care whether a file is cut off while they read.
    [[nodiscard]] virtual Result<Bytes> unpack_entry(std::size_t entry, const ReadLimits& limits) const = 0;
    [[nodiscard]] virtual Result<Bytes> stored_entry(std::size_t entry, const ReadLimits& limits) const;
    [[nodiscard]] virtual Result<Bytes> head_of_entry(std::size_t entry, std::size_t count) const = 0;
    [[nodiscard]] virtual Result<FileView> view_of_entry(std::size_t entry, const ReadLimits& limits) const;

    /// For what plan_changes has checked, where fixed_entries() is empty.
    [[nodiscard]] virtual Result<WritePlan> plan_entries(const Changes& changes, const ReadLimits& limits) const;

    /// Gives every entry a path of its own: of several with one, in the order in which they stand, the second gets "#2" before its ending
    /// ("horse#2.dds"), and so on. Called when everything is listed; what is written into the archive is the name it has there.
    void number_doubles();

    std::vector<Entry> entries_;
    std::unordered_set<std::string> doubles_;  ///< paths of entries that share the name they have in the archive, numbered or not
    std::vector<Error> problems_;
    std::string recognized_by_;

private:
    mutable std::once_flag indexed_;
    mutable std::unordered_map<std::string_view, std::size_t> index_;
    void index() const;
};

/// The error every plan of a container that cannot be written gives.
[[nodiscard]] tl::unexpected<Error> cannot_write(const Container& container);

/// Whether every entry of `after` reads as that of `before` did, one by one; entries that want a key are left out. `before`'s bytes may be
/// gone: only what it listed is asked for, and checksums, where the archive states them. Error `io` says which does not.
[[nodiscard]] Status same_contents(const Container& before, const Container& after, const ReadLimits& limits, const CancelToken& cancel);

/// The largest power of two, up to 65,536, that divides at least seven of eight of the positions; 1 for fewer than four.
[[nodiscard]] std::uint64_t shown_alignment(std::span<const std::uint64_t> positions);

/// Fills the space between `used` segments (any order) with gaps up to `file_size`; overlapping ones are cut.
[[nodiscard]] std::vector<Segment> with_gaps(std::vector<Segment> used, std::uint64_t file_size);

/// The error with the entry's path in front.
[[nodiscard]] Error in_entry(const Container& container, std::size_t entry, Error error);

}  // namespace skivet
