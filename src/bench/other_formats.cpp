// Textures whose levels are all new: which formats they may have, what they weigh, and their encoding.
#include "bench/export.h"
#include "bench/fitting.h"
#include "bench/level.h"
#include "codec/paint_form.h"

namespace skivet {

std::vector<Format> other_formats(const TextureFile& original) {
    const auto& d = original.layout.desc;
    std::vector<Format> out;
    const auto fits = [](const FormatInfo& f) {
        return (f.numeric == Numeric::unorm || f.numeric == Numeric::snorm) && !f.wide && !gains_from_16_bits(f.format);
    };
    const auto own = info(d.format);
    if (own.wide || own.is_float() || own.is_integer() || d.layers * d.faces * d.depth > 1) return out;
    for (const auto format : formats_by_use()) {
        const auto& f = info(format);
        const bool block = f.block_compressed() && (f.numeric == Numeric::unorm);
        if (format != d.format && can_encode(format) && (block || fits(f)) && original.kind->can_reformat(original.layout, format))
            out.push_back(format);
    }
    return out;
}

std::uint64_t level_bytes_of(const TextureDesc& d) {
    std::uint64_t sum = 0;
    for (std::uint32_t mip = 0; mip < d.mips; ++mip) sum += level_bytes(d.format, mip_side(d.width, mip), mip_side(d.height, mip));
    return sum;
}

Result<Bytes> encode_levels(const Image& image, const TextureDesc& d, MipRecipe recipe, const EncodeOptions& options,
                            const NormalChannels& normals) {
    Bytes out;
    SKIVET_TRY(const auto first, encode(d.format, stored_form(d.format, image), options));
    out.insert(out.end(), first.begin(), first.end());
    if (d.mips < 2) return out;
    const double coverage = recipe.coverage ? coverage_of(to_float(image, false), recipe.coverage) : 0;
    auto level = whole_next_level(ByteRows(image, recipe.linear_light), recipe, normals, coverage);
    for (std::uint32_t mip = 1; mip < d.mips; ++mip) {
        if (mip > 1) level = whole_next_level(FloatRows(level), recipe, normals, coverage);
        SKIVET_TRY(const auto bytes, encode(d.format, stored_form(d.format, to_bytes(level, recipe.linear_light)), options));
        out.insert(out.end(), bytes.begin(), bytes.end());
    }
    return out;
}

}  // namespace skivet
