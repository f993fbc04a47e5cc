#pragma once
// Packing by the methods a sheet names: those of the libraries, and those it describes itself.
#include "base/packer_program.h"
#include "sheet/sheet.h"

namespace skivet {

/// One stretch by a method. `size`: unpacked, when it is known. `programs`: those a packer of the sheet's may stand for. Errors as unpack()
/// has them; `missing` for a program that has not been named.
[[nodiscard]] Result<Bytes> unpack_by(const Method& method, ByteSpan data, std::optional<std::uint64_t> size, const ReadLimits& limits,
                                      const PackerPrograms& programs = {});
/// The inverse. `like`: an older stream of the same kind, see pack().
[[nodiscard]] Result<Bytes> pack_by(const Method& method, ByteSpan content, int level, ByteSpan like = {},
                                    const PackerPrograms& programs = {});

}  // namespace skivet
