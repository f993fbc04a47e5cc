#pragma once
// Textures that are spread over several files: a small one with the header and low levels, and siblings with the large levels.
//
// Everything else in the program sees one texture: the siblings' unpacked bytes are joined behind the texture's own (Spread in texture.h),
// levels are found, decoded and replaced in the joined bytes, and only for the way back are they taken apart again.
#include <functional>

#include "texture/texture.h"

namespace skivet {

/// Reads a file by its name in the folder of the texture's own file. Error `missing` when there is none.
using ReadSibling = std::function<Result<Bytes>(const std::string& name)>;

/// Opens a texture with all its files. A missing or damaged sibling becomes `layout.damage`, by name; the levels in it are `absent`, and
/// the others can be read. The same as TextureFile::open for a texture in one file.
[[nodiscard]] Result<TextureFile> open_spread(const TextureKinds& kinds, Bytes own, std::string_view path, const ReadSibling& read,
                                              const ReadLimits& limits);

/// The joined bytes, which TextureFile::open takes; just `own` for what is no texture or lies in one file. Error `missing` or `damaged`
/// with the sibling's name.
[[nodiscard]] Result<Bytes> join_spread(const TextureKinds& kinds, Bytes own, std::string_view path, const ReadSibling& read,
                                        const ReadLimits& limits);

struct SpreadPart {
    std::string name;  ///< empty: the texture's own file
    Bytes bytes;       ///< as the file has them, packed again where it is
};
/// The inverse of join_spread. A sibling whose content did not change keeps its stored bytes. Bytes that are no joined texture (in one
/// piece, or the texture's own file alone) come back as one part. Error `missing` with the name of a packed sibling that is gone.
[[nodiscard]] Result<std::vector<SpreadPart>> split_spread(const TextureKinds& kinds, ByteSpan joined, std::string_view path,
                                                           const ReadSibling& read, const ReadLimits& limits);

/// The largest level of layer 0, face 0 that is there.
[[nodiscard]] std::uint32_t first_level_there(const TextureLayout& layout);

}  // namespace skivet
