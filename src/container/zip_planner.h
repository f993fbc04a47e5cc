#pragma once
// Plans writing of a ZIP archive; used by zip_plan.cpp and zip_compact.cpp only.
#include <map>
#include <unordered_set>

#include "container/zip.h"
#include "container/zip_records.h"

namespace skivet {

class ZipContainer::Planner {
public:
    Planner(const ZipContainer& zip, ByteSpan file);

    /// The entry gets another name; what it holds may be replaced besides.
    void rename(std::size_t entry, std::string path) { names_[entry] = std::move(path); }
    void remove(std::size_t entry);
    /// New content; `always_append`: written anew though it may be the same.
    Status replace(const Replacement& replacement, const ReadLimits& limits, bool always_append = false);
    Status add(const NewEntry& entry, const ReadLimits& limits);

    Result<FilePlan> finish();
    /// A whole archive of only the entries that were replaced.
    Result<Bytes> patch_archive();
    /// Every entry moved together, in the order they lie in.
    Result<FilePlan> compact();

private:
    mutable bool torn_ = false;  ///< a record was not whole when it was planned from
    static constexpr std::size_t nothing = ~std::size_t{0};
    /// An entry that is written behind the others.
    struct Appended {
        std::size_t entry = nothing;  ///< whose records it is made from; nothing: plain ones
        Local local = {};             ///< of that one; with `whole` the size of the new header
        Content packed = {};          ///< the data; with `whole` its local header and what follows the data, too
        std::uint32_t crc = 0;
        std::uint64_t size = 0;
        bool is_new = false;  ///< beside that one, not in its place
        bool whole = false;   ///< only its name and place are other
        std::optional<std::string> name = {};
    };
    struct Moved {
        std::uint64_t to = 0;
        const Appended* item = nullptr;
    };

    const ZipContainer& zip_;
    ByteSpan file_;
    std::uint64_t append_at_;
    std::vector<std::uint64_t> starts_;  ///< of all local headers, sorted
    std::vector<WriteRange> ranges_;
    std::vector<Appended> appended_;
    std::unordered_map<std::size_t, Moved> moved_to_;
    std::vector<Moved> new_ones_;
    std::unordered_map<std::size_t, std::uint32_t> new_crc_;
    std::map<std::size_t, std::string> names_;
    std::unordered_set<std::size_t> removed_;

    Status replace_entry(const Replacement& replacement, const ReadLimits& limits, bool always_append);
    /// Entries that only get another name.
    Status move_renamed();
    /// The data as an entry like this one holds it.
    Result<Content> packed_like(std::size_t entry, const Content& content, std::uint32_t crc) const;
    /// The last entry before the directory gives its place back.
    void give_back(std::size_t entry);
    [[nodiscard]] std::optional<std::string> name_of(std::size_t entry) const;
    [[nodiscard]] bool is_aligned(const Appended& item, std::uint64_t align) const;
    void patch(std::uint64_t at, std::uint32_t value);
    [[nodiscard]] std::uint32_t at32(std::uint64_t at) const;
    /// What the new file has there, as far as it is written anew.
    [[nodiscard]] std::uint32_t new_u32(std::uint64_t at) const;
    /// No other entry begins in this one's bytes; two names may stand for the same data.
    [[nodiscard]] bool lies_alone(std::size_t entry, const Local& local) const;
    void in_place(std::size_t entry, const Local& local, const Content& packed, std::uint32_t crc);
    /// Flags of an entry that is written anew: sizes stand before it, and an LZMA stream has its end mark.
    [[nodiscard]] std::uint16_t new_flags(std::uint16_t flags, const Appended& item) const;
    /// A copy of a record of the file; where it is none any more `torn_` is set and a plain one stands in.
    [[nodiscard]] Bytes record_at(std::uint64_t at, std::uint64_t size, zip::RecordOf kind) const;
    /// Error `stale` when a record was not whole while it was planned from.
    [[nodiscard]] Status check_whole() const;
    /// The record that an entry's new one is made from, under its new name.
    [[nodiscard]] Bytes model_of(const Appended& item, zip::RecordOf kind) const;
    [[nodiscard]] Bytes local_record(const Appended& item) const;
    [[nodiscard]] Bytes directory_record(const Appended& item, std::uint64_t offset) const;
    [[nodiscard]] Bytes directory() const;
    [[nodiscard]] Bytes end_records(std::uint64_t directory_at, std::uint64_t directory_bytes, std::uint64_t count) const;
};

}  // namespace skivet
