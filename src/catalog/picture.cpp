#include "catalog/catalog.h"
#include "codec/paint_form.h"
#include "pixel/mips.h"

namespace skivet {

Result<Image> thumbnail(const TextureFile& texture, std::uint32_t side) {
    const auto& d = texture.layout.desc;
    std::uint32_t mip = 0;
    while (mip + 1 < d.mips && std::max(mip_side(d.width, mip + 1), mip_side(d.height, mip + 1)) >= side) ++mip;
    auto decoded = texture.decode(mip);
    while (!decoded && mip > 0) decoded = texture.decode(--mip);   // a file that is cut off lacks the small ones
    if (!decoded) return decoded;
    const auto image = paint_form(d.format, *decoded);
    const auto longer = std::max(image.width, image.height);
    if (longer <= side) return image;
    const auto reduce = [&](std::uint32_t s) { return std::max(1u, static_cast<std::uint32_t>(std::uint64_t{s} * side / longer)); };
    return to_bytes(resize(to_float(image, false), reduce(image.width), reduce(image.height), MipFilter::box), false);
}

}  // namespace skivet
