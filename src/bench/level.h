#pragma once
// One decoded level in whichever form holds it, and the values filters work on.
#include "codec/codec.h"
#include "pixel/mips.h"
#include "texture/texture.h"

namespace skivet {

/// 8-bit formats: 0…1, color in linear light when `linear`. Wide formats: true values, likewise.
inline ByteRows rows_of(const Image& level, bool linear) { return {level, linear}; }
inline FloatRows rows_of(const ImageF& level, bool linear) { return FloatRows(level, linear); }
inline Texel from_work(const TexelF& t, bool linear, const Texel&) {
    Texel out;
    to_bytes(&t, 1, linear, &out);
    return out;
}
inline TexelF from_work(TexelF t, bool linear, const TexelF&) {
    for (std::size_t c = 0; c < 3 && linear; ++c) t[c] = linear_to_srgb(t[c]);
    return t;
}

template <class Picture>
Result<Picture> decode_level(const TextureFile& texture, std::uint32_t mip, std::uint32_t layer, std::uint32_t face,
                             std::uint32_t slice = 0) {
    if constexpr (std::is_same_v<Picture, Image>) return texture.decode(mip, layer, face, slice);
    else return texture.decode_wide(mip, layer, face, slice);
}

/// Rows [first, first + count) of a level's first face, where its bytes lie row by row in the file and both numbers are multiples of a
/// block's height (the last rows of a level may be fewer); nothing where they do not.
template <class Picture>
std::optional<Picture> decode_rows(const TextureFile& texture, std::uint32_t mip, std::uint32_t first, std::uint32_t count) {
    const auto* surface = texture.layout.find(mip);
    const auto& d = texture.layout.desc;
    if (!surface || !texture.layout.direct || surface->size != level_bytes(d.format, surface->width, surface->height)) return std::nullopt;
    const auto before = first == 0 ? 0 : level_bytes(d.format, surface->width, first);
    const auto bytes = slice(texture.file, surface->offset + before, level_bytes(d.format, surface->width, count));
    if (!bytes) return std::nullopt;
    if constexpr (std::is_same_v<Picture, Image>) {
        auto rows = decode(d.format, *bytes, surface->width, count);
        return rows ? std::optional(std::move(*rows)) : std::nullopt;
    } else {
        auto rows = decode_wide(d.format, *bytes, surface->width, count);
        return rows ? std::optional(std::move(*rows)) : std::nullopt;
    }
}

/// Rows of a level as if the others were there, which nobody may ask for.
class SomeRows final : public RowSource {
public:
    /// `rows`: those from `first` on, of a level of `height`.
    SomeRows(const RowSource& rows, std::uint32_t first, std::uint32_t height) : rows_(rows), first_(first), height_(height) {}
    [[nodiscard]] std::uint32_t width() const override { return rows_.width(); }
    [[nodiscard]] std::uint32_t height() const override { return height_; }
    void row(std::uint32_t y, std::uint32_t x, std::uint32_t count, TexelF* out) const override {
        rows_.row(std::clamp(y, first_, first_ + rows_.height() - 1) - first_, x, count, out);
    }

private:
    const RowSource& rows_;
    std::uint32_t first_, height_;
};

/// The next level with everything the recipe says; `coverage` is level 0's.
inline ImageF whole_next_level(const RowSource& source, const MipRecipe& recipe, const NormalChannels& normals, double coverage) {
    auto level = next_level(source, recipe, normals, next_rect(source.width(), source.height()));
    if (recipe.coverage) keep_coverage(level, recipe.coverage, coverage);
    return level;
}

}  // namespace skivet
