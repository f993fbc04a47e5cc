// The first byte chooses one of the texture sheets of tests/layouts, the second how much of the input lies in the files beside the texture.
// What is replaced must come back from the file, and what is taken apart must join again.
#include <cstdlib>

#include "base/file_write.h"
#include "sheet/texture_sheet.h"
#include "texture/spread.h"

using namespace skivet;

namespace {
std::uint64_t level_sum(const TextureDesc& d) {
    std::uint64_t sum = 0;
    for (std::uint32_t mip = 0; mip < d.mips; ++mip)
        sum += level_bytes(d.format, mip_side(d.width, mip), mip_side(d.height, mip)) * mip_side(d.depth, mip);
    return sum * d.layers * d.faces;
}
}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const auto kinds = [] {
        std::vector<TextureKinds> out;
        for (const auto* name :
             {"poster", "mosaic", "slab", "strand", "stack", "bare", "card", "scroll", "badge", "loom", "plates", "weave"}) {
            auto sheet = *parse_sheet(as_text(*read_file(std::string(SKIVET_LAYOUTS) + "/" + name + ".toml")), name);
            sheet.recognize.resize(1);
            sheet.recognize[0] = {};
            sheet.recognize[0].name_pattern = "*";
            out.emplace_back().add(std::make_shared<SheetTextureKind>(std::move(sheet)));
        }
        return out;
    }();
    if (size < 2) return 0;
    ReadLimits limits;
    limits.image_side = 1024;
    limits.image_texels = 1 << 18;
    limits.layers = 8;
    limits.inflated_bytes = 1 << 20;
    const auto& textures = kinds[data[0] % kinds.size()];
    const auto raw = std::as_bytes(std::span(data + 2, size - 2));
    const auto cut = raw.size() * data[1] / 255;
    const Bytes own(raw.begin(), raw.begin() + static_cast<std::ptrdiff_t>(cut)),
        other(raw.begin() + static_cast<std::ptrdiff_t>(cut), raw.end());
    const ReadSibling read = [&](const std::string& name) -> Result<Bytes> {
        if (!name.empty() && name.back() == '1') return fail(ErrorCode::missing, name);
        return other;
    };
    if (const auto texture = open_spread(textures, own, "a/x.tex", read, limits))
        for (std::size_t i = 0; i < std::min<std::size_t>(6, texture->layout.surfaces.size()); ++i)
            (void)texture->surface_bytes(texture->layout.surfaces[i]);
    const auto joined = join_spread(
        textures, own, "a/x.tex", [&](const std::string&) -> Result<Bytes> { return other; }, limits);
    if (!joined) return 0;
    const auto texture = TextureFile::open(textures, *joined, "a/x.tex", limits);
    if (!texture || texture->layout.damage) return 0;
    for (std::size_t i = 0; i < std::min<std::size_t>(4, texture->layout.surfaces.size()); ++i) {
        auto bytes = texture->surface_bytes(texture->layout.surfaces[i]);
        if (!bytes || bytes->empty()) continue;
        (*bytes)[0] ^= std::byte{1};
        const auto file = texture->kind->replace(texture->file, texture->layout, std::vector<SurfaceEdit>{{i, *bytes}});
        if (!file) continue;
        const auto again = TextureFile::open(textures, *file, "a/x.tex", limits);
        if (!again) std::abort();
        const auto now = again->surface_bytes(again->layout.surfaces[i]);
        // A palette that stays has the nearest color instead; what comes of that stays as it is.
        const bool palette = data[0] % kinds.size() >= 6 && data[0] % kinds.size() <= 8;
        if (!now || (!palette && *now != *bytes)) std::abort();
        if (palette) {
            const auto same = again->kind->replace(again->file, again->layout, std::vector<SurfaceEdit>{{i, *now}});
            if (!same || *same != *file) std::abort();
        }
    }
    // The sides by the two bytes, too.
    auto d = texture->layout.desc;
    d.width = 1 + data[0] / 4u, d.height = 1 + data[1] / 4u, d.mips = std::min(d.mips, full_mip_count(d.width, d.height));
    if (texture->kind->can_resize(texture->layout)) {
        const Bytes payload(static_cast<std::size_t>(level_sum(d)), std::byte{0x5A});
        const auto file = texture->kind->resized(texture->file, texture->layout, d, payload);
        if (file) {
            const auto again = TextureFile::open(textures, *file, "a/x.tex", limits);
            if (!again || again->layout.desc.width != d.width || again->layout.desc.height != d.height) std::abort();
        }
    }
    const auto parts = split_spread(
        textures, *joined, "a/x.tex", [&](const std::string&) -> Result<Bytes> { return other; }, limits);
    if (!parts || parts->front().bytes != own) std::abort();
    return 0;
}
