#pragma once
// Textures by address, with the files they may be spread over (texture/spread.h).
#include "container/address.h"
#include "texture/spread.h"

namespace skivet {

/// Reads files from the folder in which the entry `inner` of an open source lies. The source must outlive it.
[[nodiscard]] ReadSibling siblings_of(const ReadContext& context, const Container& source, std::vector<std::string> inner);
/// The same by address; a bare file's siblings lie beside it on the disk.
[[nodiscard]] ReadSibling siblings_of(const ReadContext& context, Address address);

/// The texture at an address. A missing sibling becomes its damage; the levels that are there can be read.
[[nodiscard]] Result<TextureFile> open_texture_at(const ReadContext& context, const Address& address);
/// What TextureFile::open takes: the entry with its siblings joined; just the entry for whatever is in one piece.
[[nodiscard]] Result<Bytes> read_texture_bytes(const ReadContext& context, const Address& address);
/// The same for many, one after the other.
[[nodiscard]] Result<Bytes> read_texture_bytes(const ReadContext& context, AddressReader& reader, const Address& address);

/// Replacements of joined textures become one for each of their files; others stay as they are.
[[nodiscard]] Result<std::vector<AddressedBytes>> spread_replacements(const ReadContext& context, const Container& source,
                                                                      std::vector<AddressedBytes> replacements);

}  // namespace skivet
