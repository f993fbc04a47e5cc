// Any bytes as what a paint program saved, fitted to one of a few textures. The first byte chooses the texture, the second the mends, the
// third another format where the texture's file can say one. What the game would get must open again with the format and size the fit says.
#include <cstdlib>

#include "bench/fitting.h"
#include "texture/dds.h"
#include "texture/ktx2.h"
#include "texture/png.h"

using namespace skivet;

namespace {

/// Rings with soft alpha: smooth and sharp, light and dark.
Image rings(std::uint32_t side) {
    Image out(side, side);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x) {
            const auto far = (x * x + y * y) / 6;
            out.at(x, y) = {std::uint8_t(x * 15), std::uint8_t(far), std::uint8_t(far % 2 ? 200 : 30), std::uint8_t(y < 4 ? 0 : 90 + far)};
        }
    return out;
}

std::vector<TextureFile> textures() {
    std::vector<TextureFile> out;
    const auto kinds = TextureKinds::standard();
    const auto keep = [&](Result<Bytes> file, const char* name) {
        if (!file) std::abort();
        auto texture = TextureFile::open(kinds, std::move(*file), name, ReadLimits{});
        if (!texture) std::abort();
        out.push_back(std::move(*texture));
    };
    const auto picture = rings(16);
    for (const auto format :
         {Format::BC1, Format::BC3, Format::BC7, Format::BC5, Format::RGBA8, Format::B5G6R5, Format::R8, Format::BC6H, Format::RGBA16F}) {
        const TextureDesc d{format, 16, 16, 1, 5, 1, 1, ColorSpace::unknown};
        keep(write_dds(d, *encode_levels(picture, d, {})), "a.dds");
    }
    const TextureDesc d{Format::RGBA8, 16, 16, 1, 3, 1, 1, ColorSpace::srgb};
    keep(write_ktx2(d, *encode_levels(picture, d, {})), "a.ktx2");
    keep(write_png(picture), "a.png");
    return out;
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const auto originals = textures();
    if (size < 3) return 0;
    ReadLimits limits;
    limits.image_side = 256;
    limits.image_texels = 1 << 14;
    limits.layers = 8;
    limits.inflated_bytes = 1 << 20;
    const auto raw = std::as_bytes(std::span(data + 3, size - 3));
    auto edited = read_edited(Bytes(raw.begin(), raw.end()), limits, "x.tga");
    if (!edited) return 0;
    const auto& original = originals[data[0] % originals.size()];
    FitOptions options;
    options.encode.effort = Effort::fast;
    for (std::size_t m = 0; m < mend_count; ++m)
        if (data[1] >> m & 1) options.mends.press({static_cast<Mend>(m)});
    if (const auto formats = other_formats(original); data[2] % 4 == 3 && !formats.empty())
        options.format = formats[data[2] / 4 % formats.size()];
    const auto made = fit(original, std::move(*edited), options);
    if (!made || made->blocked() || made->file.empty()) return 0;
    const auto again = TextureFile::open(TextureKinds::standard(), made->file, "x.dds", ReadLimits{});
    const auto& d = original.layout.desc;
    if (!again || again->layout.damage) std::abort();
    const auto& now = again->layout.desc;
    if (made->resized != (now.width != d.width || now.height != d.height || now.format != d.format)) std::abort();
    if (made->result->width != now.width || made->result->height != now.height) std::abort();
    return 0;
}
