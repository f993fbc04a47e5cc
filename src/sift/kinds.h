#pragma once
// Which format a stretch of cells is in.
#include "sift/bare.h"
#include "sift/fit.h"
#include "sift/windows.h"

namespace skivet {

/// Bytes of a block or texel.
[[nodiscard]] std::size_t kind_bytes(BareKind kind);
/// The format in which the kind's cells are looked at first.
[[nodiscard]] Format kind_format(BareKind kind);
/// How unlike cells beside each other are at the start of [from, to), beside any two of them: 0 smooth, 1 random; nothing where there is
/// nothing to see.
[[nodiscard]] std::optional<double> roughness_along(BareKind kind, unsigned phase, ByteSpan data, std::uint64_t from, std::uint64_t to);
/// Where texels begin, modulo their size.
[[nodiscard]] unsigned texel_phase(BareKind kind, ByteSpan data, std::uint64_t from, std::uint64_t to);
/// Gives numbers that often stand beside each other values that are near, so that a picture of palette entries can be compared as one of
/// grays: the second eigenvector of their neighborhood (M. Belkin and P. Niyogi, Neural Computation 15, 2003), by its ranks.
void make_comparable(std::vector<std::uint8_t>& numbers);
/// The texture that a fit is, but for how sure that is; nothing where its texels do not look like one after all.
[[nodiscard]] std::optional<BareTexture> named(BareKind kind, const Cells& cells, const Fit& fit, ByteSpan data);

}  // namespace skivet
