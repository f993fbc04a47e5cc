#pragma once
#include <algorithm>
#include <cstdint>

namespace skivet {

/// What a file may claim before we refuse it, and why the number is what it is. No real game comes near any of them; benchmarks/README.md
/// shows what the files of tests/hostile cost under them.
struct ReadLimits {
    std::uint64_t entries = 4'000'000;           ///< directory entries in one container; ten times the largest game we know of
    unsigned depth = 8;                          ///< containers inside containers; each level is a call deep and holds its tables
    std::uint64_t inflated_bytes = 2ull << 30;   ///< one entry, unpacked; what is read is held whole
    std::uint64_t ratio = 1100;                  ///< unpacked / packed; deflate cannot exceed 1032:1
    std::uint32_t image_side = 16384;            ///< texels; graphics cards of today take no more
    std::uint64_t image_texels = 1ull << 28;     ///< texels of one decoded level: 16384×16384
    std::uint32_t layers = 4096;                 ///< array layers × faces; graphics cards take 2,048
    std::uint64_t name_bytes = 4096;             ///< one entry's path; the longest a system takes
    std::uint64_t directory_bytes = 1ull << 30;  ///< one container's tables

    /// A picture larger than this must be stored in at least 1 / `claim_ratio` of its bytes. What shows anything at all packs to 1/200 at
    /// best, one color to 1/1000 in most files; a header that claims gigabytes in a few bytes is made to take memory.
    std::uint64_t free_claim = 64ull << 20;
    std::uint64_t claim_ratio = 2000;

    /// Of a source's archives inside archives together: entries beyond so many must have eight bytes of the source each. A directory's
    /// record has 46 and a name; eight is what is left of them when they are packed well.
    std::uint64_t nested_entries = 100'000;
    std::uint64_t nested_entry_bytes = 8;
    /// Bytes that are unpacked only to look inside, and as many times a source's own bytes.
    std::uint64_t nested_bytes = 512ull << 20;
    std::uint64_t nested_ratio = 64;

    /// Texels that the scans of one JPEG go over together: each scan is a walk over all of them, whatever it brings. Progressive files have
    /// ten scans; 50 are always allowed.
    std::uint64_t scanned_texels = 1ull << 30;
    std::uint32_t scans = 50;

    /// A larger picture that its kind can only decode whole is not looked at for a guess or a small picture: 8192×8192.
    std::uint64_t guess_texels = 1ull << 26;
    /// What all threads together decode at once, while many are looked at or exported; one that needs more has it for itself.
    std::uint64_t decoded_bytes = 256ull << 20;

    /// Whether a picture of so many bytes can be what `stored` bytes hold.
    [[nodiscard]] constexpr bool may_claim(std::uint64_t bytes, std::uint64_t stored) const {
        return bytes <= free_claim || bytes / claim_ratio <= stored;
    }
    [[nodiscard]] constexpr std::uint64_t most_nested_entries(std::uint64_t source_bytes) const {
        return std::min(entries, nested_entries + source_bytes / nested_entry_bytes);
    }
    [[nodiscard]] constexpr std::uint64_t most_nested_bytes(std::uint64_t source_bytes) const {
        return nested_bytes + std::min<std::uint64_t>(source_bytes, ~0ull / 2 / nested_ratio) * nested_ratio;
    }
    [[nodiscard]] constexpr std::uint64_t most_scans(std::uint64_t texels) const {
        return std::max<std::uint64_t>(scans, scanned_texels / std::max<std::uint64_t>(1, texels));
    }
};

}  // namespace skivet
