#pragma once
// What counts as padding and what as left behind; used by sheet_plan.cpp and sheet_gaps.cpp only.
#include "container/sheet_container.h"

namespace skivet::sheet_gaps {

inline std::uint64_t aligned(std::uint64_t at, std::uint64_t align) { return (at + align - 1) / align * align; }

/// A blank gap of fewer bytes is taken for padding, one of more for what an entry left behind.
inline std::uint64_t dead_from(std::uint64_t align) { return std::max<std::uint64_t>(align, 16); }

/// Before the first entry a few zeros may be room that was left for a table to grow; more is what an entry left behind.
inline constexpr std::uint64_t front_reserve = 4096;

/// Bytes over a copy of a stretch of a file, at positions of the file.
inline void overlay(Bytes& bytes, std::uint64_t bytes_at, std::uint64_t at, ByteSpan over) {
    const auto from = std::max(at, bytes_at), to = std::min(at + over.size(), bytes_at + bytes.size());
    if (from < to)
        std::copy(over.begin() + static_cast<std::ptrdiff_t>(from - at), over.begin() + static_cast<std::ptrdiff_t>(to - at),
                  bytes.begin() + static_cast<std::ptrdiff_t>(from - bytes_at));
}

}  // namespace skivet::sheet_gaps
