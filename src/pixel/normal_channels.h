#pragma once
#include <cstdint>

namespace skivet {

/// Where a normal's parts are, and how a channel's value v in a working picture (0…1) becomes a part: v × scale + offset.
struct NormalChannels {
    std::uint8_t x = 0, y = 1;
    std::int8_t z = 2;  ///< -1: not stored, √(1 - x² - y²)
    float scale = 2, offset = -1;
    bool operator==(const NormalChannels&) const = default;
};

}  // namespace skivet
