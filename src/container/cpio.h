#pragma once
#include "container/kinds.h"

namespace skivet {

/// cpio: "newc" with and without checksums (System V Release 4), "odc" (POSIX.1-1988) and the old binary one of both byte orders. Content
/// that needs as many bytes as before is written in place; otherwise the archive is built anew, with everything else copied. Folders, links
/// and devices are not entries and are kept as they are; several names of one file (hard links) are entries that change together.
[[nodiscard]] std::shared_ptr<const ContainerKind> cpio_kind();

}  // namespace skivet
