#pragma once
// Blocks that BC7 held before: a texture is decoded, touched somewhere and encoded again, and what was not touched shall come back exactly.
#include "codec/bc7_pack.h"

namespace skivet::bptc {

/// One block of 16 texels, looked at once.
class Recall {
public:
    explicit Recall(const Texel* block);
    /// Looks for endpoints and indices with which the mode, partition, rotation and selector of `choice` give exactly these texels, and
    /// fills them in. `budget`: how many pairs of codes, and of places on the line, are tried for a line; what remains is left out.
    /// False where none was found; `choice` is then spoiled.
    [[nodiscard]] bool solve(Choice& choice, unsigned budget) const;

private:
    std::array<Texel, 16> color_{};          ///< the different ones
    std::array<std::uint16_t, 16> where_{};  ///< by color, its texels, a bit each
    std::size_t count_ = 0;
    bool opaque_ = true;
};

}  // namespace skivet::bptc
