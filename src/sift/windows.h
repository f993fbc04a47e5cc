#pragma once
// The first look at bytes nobody describes: windows of 512 bytes are counted through, and where they look like blocks or texels of some
// kind for a while, that stretch is worth a second look (bare.h).
#include <array>

#include "base/bytes.h"
#include "base/progress.h"

namespace skivet {

constexpr std::size_t window_bytes = 512;

/// What a window looks like. Lane i has the bytes whose offset in the window is i modulo 16.
struct WindowStats {
    std::array<std::uint16_t, 16> step8{}, step16{};       ///< sums of |byte - byte 8 (16) further on|
    std::array<std::uint16_t, 4> step{};                   ///< mean of |byte - byte 1 (2, 3, 4) further on|, times 64
    std::array<std::uint16_t, 2> step2{};                  ///< of every other byte from 0 (1) on, times 64
    std::uint16_t equal = 0;                               ///< bytes that are as the next and not zero
    std::uint16_t equal8 = 0, equal16 = 0;                 ///< bytes that are as the one 8 (16) further on and not zero
    std::uint16_t zeros = 0;                               ///< bytes that are zero
    std::uint16_t no_text = 0;                             ///< bytes that are no ASCII text's
    std::array<std::uint8_t, 16> bc7_usual{}, bc7_rare{};  ///< of 32 bytes: those that could begin a BC7 block of a usual, of a rare mode
    std::array<std::uint8_t, 16> bc6h_usual{};             ///< … a BC6H block of one region or of 10 bits
};

/// `data` has window_bytes and 16 more.
[[nodiscard]] WindowStats window_stats(const std::byte* data);

/// What blocks or texels a stretch may hold.
enum class BareKind : std::uint8_t { bc1, bc2_bc3, bc4, bc5, bc6h, bc7, four_bytes, three_bytes, two_bytes, one_byte, numbers };
constexpr std::size_t bare_kinds = 11;

struct Stretch {
    BareKind kind = BareKind::bc1;
    unsigned phase = 0;              ///< blocks begin at offsets of this modulo their size
    std::uint64_t from = 0, to = 0;  ///< bytes
};

/// Stretches of at least two windows, in the order in which they begin; one place may be in several. None once canceled.
[[nodiscard]] std::vector<Stretch> stretches(ByteSpan data, const CancelToken& cancel);

}  // namespace skivet
