// Preview pictures of a parcel, as lossy WebP (RFC 9649).
#include <fmt/format.h>
#include <webp/decode.h>
#include <webp/encode.h>

#include "base/phrase.h"
#include "parcel/parcel.h"

namespace skivet {

namespace {

constexpr int most_side = 512;

std::optional<Bytes> picture_of(const TextureFile& texture, std::uint32_t side) {
    // The smallest level that is large enough.
    std::uint32_t mip = 0;
    const auto& desc = texture.layout.desc;
    while (mip + 1 < desc.mips && std::max(mip_side(desc.width, mip + 1), mip_side(desc.height, mip + 1)) >= side) ++mip;
    auto image = texture.decode(mip);
    if (!image) return std::nullopt;
    const auto longer = std::max(image->width, image->height);
    if (longer > side) image = reduce(*image, (longer + side - 1) / side).means;
    Bytes rgb(image->texels.size() * 3);
    for (std::size_t i = 0; i < image->texels.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c) rgb[i * 3 + c] = static_cast<std::byte>(image->texels[i][c]);
    std::uint8_t* out = nullptr;
    const auto size = WebPEncodeRGB(reinterpret_cast<const std::uint8_t*>(rgb.data()), static_cast<int>(image->width),
                                    static_cast<int>(image->height), static_cast<int>(image->width * 3), 70, &out);
    if (size == 0 || !out) return std::nullopt;
    const auto* bytes = reinterpret_cast<const std::byte*>(out);
    Bytes copy(bytes, bytes + size);
    WebPFree(out);
    return copy;
}

}  // namespace

void add_pictures(Parcel& parcel, std::span<const PictureOf> textures, std::size_t most, std::uint32_t side) {
    std::vector<PictureOf> by_change(textures.begin(), textures.end());
    const auto weight = [&](const PictureOf& p) {
        const auto& t = parcel.textures[p.texture];
        return t.change.units.size() + t.whole.size();
    };
    std::stable_sort(by_change.begin(), by_change.end(), [&](const auto& a, const auto& b) { return weight(a) > weight(b); });
    for (std::size_t i = 0; i < by_change.size() && i < most; ++i) {
        auto& t = parcel.textures[by_change[i].texture];
        const auto put = [&](const TextureFile* texture, const char* when) -> std::optional<ParcelPicture> {
            auto bytes = texture ? picture_of(*texture, side) : std::nullopt;
            if (!bytes) return std::nullopt;
            return ParcelPicture{fmt::format("pictures/{:05}.{}.webp", by_change[i].texture + 1, when), std::move(*bytes)};
        };
        t.before = put(by_change[i].before, "before");
        t.after = put(by_change[i].after, "after");
    }
}

Result<Image> read_picture(const ParcelPicture& picture) {
    int width = 0, height = 0;
    const auto* data = reinterpret_cast<const std::uint8_t*>(picture.bytes.data());
    if (!WebPGetInfo(data, picture.bytes.size(), &width, &height))
        return fail(ErrorCode::damaged, phrase("{} is no WebP picture", picture.file));
    if (width > most_side || height > most_side)
        return fail(ErrorCode::limit, phrase("{} has {}×{} texels; previews have at most {}", picture.file, width, height, most_side));
    Image out(static_cast<std::uint32_t>(width), static_cast<std::uint32_t>(height));
    if (!WebPDecodeRGBAInto(data, picture.bytes.size(), reinterpret_cast<std::uint8_t*>(out.texels.data()), out.texels.size() * 4,
                            width * 4))
        return fail(ErrorCode::damaged, phrase("{} cannot be decoded", picture.file));
    return out;
}

}  // namespace skivet
