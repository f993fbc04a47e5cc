#pragma once
// A file as it would be with other bytes over its own, for plans that are made in two steps.
#include <map>

#include "container/write_plan.h"

namespace skivet {

/// A file with other bytes over its own, and another size; nothing is copied but those.
class Patched {
public:
    explicit Patched(ByteSpan file) : file_(file), size_(file.size()) {}
    void put(std::uint64_t at, ByteSpan bytes);
    [[nodiscard]] Bytes read(std::uint64_t at, std::uint64_t size) const;
    void resize(std::uint64_t size) { size_ = size; }
    [[nodiscard]] std::uint64_t size() const { return size_; }
    [[nodiscard]] const std::map<std::uint64_t, Bytes>& ranges() const { return ranges_; }
    [[nodiscard]] std::vector<Overlay> overlays() const;
    /// A plan made on the file as it is here, as one on the file itself.
    [[nodiscard]] FilePlan over_the_file(FilePlan plan) const;

private:
    ByteSpan file_;
    std::map<std::uint64_t, Bytes> ranges_;  ///< none overlaps another
    std::uint64_t size_;
};

}  // namespace skivet
