#pragma once
// What one look at a small level of a texture tells: enough to find it by picture, to guess its role and to see twins, in 1.3 KB. Looked at
// once, kept in the index by the file's content.
#include <compare>

#include "pixel/alpha_use.h"
#include "texture/texture.h"

namespace skivet {

/// A file's content: XXH3, 128 bits (xxHash 0.8 specification).
struct ContentKey {
    std::uint64_t high = 0, low = 0;
    auto operator<=>(const ContentKey&) const = default;
    [[nodiscard]] bool empty() const { return high == 0 && low == 0; }
    [[nodiscard]] std::string text() const;  ///< 32 hexadecimal digits
};
[[nodiscard]] ContentKey content_key(ByteSpan file);

/// Where a texture holds normals, and which way its green points.
enum class NormalsIn : std::uint8_t { none, rgb, red_green, alpha_green };
enum class GreenAxis : std::uint8_t { unsure, up, down };
[[nodiscard]] std::string_view name_of(GreenAxis axis);

/// Trivially copyable, so that the index can keep it as it lies in memory; `version` changes with its meaning.
struct PictureFacts {
    static constexpr std::uint32_t version = 3;
    static constexpr std::uint32_t side = 32, chroma_side = 8, over_side = 16;

    /// The picture stretched to 32×32: luma (Rec. 601, encoded) less its mean, over its standard deviation, times 32, cut off at ±127. Of
    /// what looks like a normal map the mean of red and green instead, because its luma hardly varies.
    std::array<std::int8_t, side * side> luma{};
    /// B - Y and R - Y of the picture stretched to 8×8, halved.
    std::array<std::int8_t, chroma_side * chroma_side> blue{}, red{};
    std::array<std::uint8_t, 4> mean{};  ///< R, G, B, A
    float contrast = 0;                  ///< standard deviation of that luma, in steps of 255
    /// The same over mid gray by alpha, at 16×16: programs that scale a picture lose the colors under zero alpha. `over_contrast` 0:
    /// opaque.
    std::array<std::int8_t, over_side * over_side> over{};
    float over_contrast = 0;

    // Shares are 0…1 of the texels of the level looked at.
    float saturation = 0;        ///< mean of (largest - smallest channel) / 255
    float gray = 0;              ///< share whose channels lie within 12 of each other
    float dark = 0, bright = 0;  ///< share with luma below 24, above 200
    float two_tone = 0;          ///< share within 16 of one of the two commonest luma values that lie at least 64 apart
    float pure = 0;              ///< share whose every channel is nearly 0 or nearly 255
    float spots = 0;             ///< share with luma above 96
    float curl = 0;              ///< correlation of ∂p/∂y and ∂q/∂x of a normal map's slopes; see green_axis
    float grain = 0;             ///< mean difference of neighboring luma values, in steps of 255
    NormalsIn normals = NormalsIn::none;
    AlphaUse alpha = AlphaUse::none;
    bool hidden_colors = false;
    std::uint64_t level0 = 0;  ///< XXH3-64 of the first surface's bytes, seeded with format and size; 0 where the file packs its levels

    /// A height field's slopes p = ∂h/∂x and q = ∂h/∂y have ∂p/∂y = ∂q/∂x (Frankot and Chellappa, "A method for enforcing integrability in
    /// shape from shading algorithms", IEEE TPAMI 10(4), 1988). With the wrong sign of green they are opposite, and so their correlation
    /// tells the convention. `unsure` between -0.15 and 0.15, and for what holds no normals.
    [[nodiscard]] GreenAxis green_axis() const;
};

/// Facts and a picture of at most `thumbnail_side` texels a side, in paint form.
struct MeasuredPicture {
    PictureFacts facts;
    Image thumbnail;
    /// The thumbnail as the texture has it, where it is one of its levels in BC1 or BC3; empty otherwise.
    Bytes blocks;
    Format format = Format::unknown;
};
inline constexpr std::uint32_t thumbnail_side = 128;
/// Error `limit` for a large picture that can only be decoded whole (ReadLimits::guess_texels).
[[nodiscard]] Result<MeasuredPicture> measure_picture(const TextureFile& texture);
/// About what it takes, in bytes, with the `file_size` bytes of the file itself.
[[nodiscard]] std::uint64_t bytes_to_measure(const TextureDesc& desc, std::uint64_t file_size);
/// The same of any picture, for comparing textures with it. Level-0 hash and alpha facts stay empty.
[[nodiscard]] PictureFacts facts_of_picture(const Image& picture);

/// A small picture in paint form, decoded from the smallest mip that has at least `side` texels on its longer side and reduced to
/// fit side × side.
[[nodiscard]] Result<Image> thumbnail(const TextureFile& texture, std::uint32_t side);

/// -1…1: how the patterns of two pictures agree, whatever their size, brightness, contrast and color. 0 where one is flat.
[[nodiscard]] float pattern_agreement(const PictureFacts& a, const PictureFacts& b);
/// Largest distance of the two pictures' colors over 8×8 places and of their means, in steps of 255.
[[nodiscard]] float color_distance(const PictureFacts& a, const PictureFacts& b);

}  // namespace skivet
