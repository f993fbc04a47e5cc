#pragma once
#include <algorithm>
#include <atomic>

#include "container/container.h"

namespace skivet {

/// How much of a source's archives inside archives may be opened: archives that hold archives several times multiply at every level. For
/// one walk through one source, from any number of threads.
class NestedRoom {
public:
    NestedRoom(const Container& source, const ReadLimits& limits) {
        std::uint64_t bytes = 0;
        for (const auto& e : source.entries()) bytes += std::min(e.stored, std::uint64_t{1} << 40);
        most_entries_ = limits.most_nested_entries(bytes);
        most_bytes_ = limits.most_nested_bytes(bytes);
    }
    /// Before an entry that is an archive is opened; what has to be unpacked for it counts.
    [[nodiscard]] bool has_room_for(const Entry& archive) {
        const bool in_place = archive.method == "stored" && !archive.encrypted;
        return entries_ <= most_entries_ && (in_place || (bytes_ += archive.size) <= most_bytes_);
    }
    void opened(const Container& archive) { entries_ += archive.entries().size(); }

private:
    std::atomic<std::uint64_t> entries_{0}, bytes_{0};
    std::uint64_t most_entries_ = 0, most_bytes_ = 0;
};

}  // namespace skivet
