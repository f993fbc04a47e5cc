#pragma once
#include "container/kinds.h"

namespace skivet {

/// tar: ustar (POSIX.1-1988), pax extended headers (POSIX.1-2001) and GNU long names. Content that needs as many blocks of 512 bytes as
/// before is written in place; otherwise the archive is built anew, with everything else copied. Sparse files, links and devices are
/// not entries and are kept as they are.
[[nodiscard]] std::shared_ptr<const ContainerKind> tar_kind();

}  // namespace skivet
