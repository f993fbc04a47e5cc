#pragma once
#include <string>
#include <vector>

#include "base/bytes.h"
#include "pixel/image.h"

namespace skivet::test {

/// A file that ImageMagick (package imagemagick; 16 bits a sample inside) makes of the picture: "PNG64:.png" gives the coder and the
/// ending.
[[nodiscard]] Bytes file_by_imagemagick(const Image& picture, const std::vector<std::string>& does, const std::string& as = "PNG32:.png");
[[nodiscard]] Image by_imagemagick(const Image& picture, const std::vector<std::string>& does);

}  // namespace skivet::test
