#pragma once
// A texture without a header as a file of a common format: a DDS file, or KTX2 where no DDS can say it. It goes back as one of the same
// format, size and levels.
#include "sift/bare.h"

namespace skivet {

/// ".dds" or ".ktx2".
[[nodiscard]] const char* bare_ending(const BareTexture& texture);
/// Bytes of the whole file.
[[nodiscard]] std::uint64_t bare_file_size(const BareTexture& texture);
/// The file. `data`: what the texture lies in, `texture.at` counts from its start. Error `damaged` when it or its palette does not lie in
/// it.
[[nodiscard]] Result<Bytes> bare_file(const BareTexture& texture, ByteSpan data);
/// The texture's bytes as `file` has its levels. Error `unsupported` when format, size, levels or palette are others.
[[nodiscard]] Result<Bytes> bare_levels(const BareTexture& texture, ByteSpan data, ByteSpan file, const ReadLimits& limits);

}  // namespace skivet
