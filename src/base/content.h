#pragma once
// Bytes that are on their way into a file. A whole game's textures may wait to be written at once, so they do not stay in memory: what is
// not small lies in an unlinked file in the user's cache folder, and its pages come in while they are looked at.
#include <memory>

#include "base/bytes.h"

namespace skivet {

/// Bytes that do not change; copies and parts share them. Below `kept_in_memory` bytes, and where no file can be written, they are held in
/// memory.
class Content {
public:
    static constexpr std::size_t kept_in_memory = 4096;

    Content() = default;
    Content(Bytes bytes);
    explicit Content(ByteSpan bytes);
    [[nodiscard]] const std::byte* data() const { return bytes_.data(); }
    [[nodiscard]] std::size_t size() const { return bytes_.size(); }
    [[nodiscard]] bool empty() const { return bytes_.empty(); }
    [[nodiscard]] const std::byte* begin() const { return bytes_.data(); }
    [[nodiscard]] const std::byte* end() const { return bytes_.data() + bytes_.size(); }
    [[nodiscard]] std::byte operator[](std::size_t at) const { return bytes_[at]; }
    /// [from, from + count) of it, which must lie inside.
    [[nodiscard]] Content part(std::size_t from, std::size_t count) const;
    [[nodiscard]] Bytes copy() const { return {begin(), end()}; }
    /// Says that it was looked at for now: its pages go, and come back from the file when somebody looks again.
    void rest() const;

    friend bool operator==(const Content& a, const Content& b) { return same(a.bytes_, b.bytes_); }
    friend bool operator==(const Content& a, const Bytes& b) { return same(a.bytes_, b); }

private:
    struct Room;
    [[nodiscard]] static bool same(ByteSpan a, ByteSpan b);
    void hold(ByteSpan bytes);
    std::shared_ptr<const void> owner_;
    std::shared_ptr<const Room> room_;  ///< null: in memory
    ByteSpan bytes_;
};

}  // namespace skivet
