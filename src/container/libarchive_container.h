#pragma once
#include "container/kinds.h"

namespace skivet {

/// "7z" or "ISO 9660", read and written by libarchive. A 7z archive is built anew as a whole when something is replaced; ISO images are
/// only read.
[[nodiscard]] std::shared_ptr<const ContainerKind> libarchive_kind(std::string_view format);

}  // namespace skivet
