#pragma once
// What one look at a small level of a texture tells: enough to find it by picture, to guess its role and to see twins. Looked at once, kept
// in the index by the file's content.
#include <compare>
#include <memory>

#include "pixel/alpha_use.h"
#include "pixel/normal_channels.h"
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

/// What two pictures are compared by, texel by texel: 1.4 KB. Trivially copyable, so that the index can keep it as it lies in memory.
struct PicturePattern {
    static constexpr std::uint32_t side = 32, chroma_side = 8, over_side = 16;

    /// The picture stretched to 32×32: luma (Rec. 601, encoded) less its mean, over its standard deviation, times 32, cut off at ±127. Of
    /// what looks like a normal map the mean of red and green instead, because its luma hardly varies.
    std::array<std::int8_t, side * side> luma{};
    /// B - Y and R - Y of the picture stretched to 8×8, halved.
    std::array<std::int8_t, chroma_side * chroma_side> blue{}, red{};
    /// Luma over mid gray by alpha, at 16×16: programs that scale a picture lose the colors under zero alpha. Zeros where it is opaque.
    std::array<std::int8_t, over_side * over_side> over{};
};

/// Where patterns lie that are not held in memory.
class PatternStore {
public:
    virtual ~PatternStore() = default;
    /// Zeros where it is gone or damaged: it is like nothing then. Safe from several threads.
    [[nodiscard]] virtual PicturePattern pattern(std::int64_t number) const = 0;
};

/// The facts without the pattern. Trivially copyable, as the index keeps it; `version` changes with its meaning.
struct PictureNumbers {
    static constexpr std::uint32_t version = 4;
    static constexpr std::uint32_t coarse_side = 8;

    std::array<std::int8_t, coarse_side * coarse_side> coarse{};  ///< means of the pattern's luma over 4×4 values each
    float luma_length = 0;                                        ///< square root of the sum of the squares of the pattern's luma
    std::array<std::uint8_t, 4> mean{};                           ///< R, G, B, A
    float contrast = 0;                                           ///< standard deviation of that luma, in steps of 255
    float over_contrast = 0;                                      ///< the same of the pattern over gray; 0: opaque

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

/// Numbers, and a pattern that is held in memory or lies in a store: of a million textures the patterns alone would take 1.4 GB, and hardly
/// any of them is ever looked at.
struct PictureFacts : PictureNumbers {
    PictureFacts() = default;
    /// With a pattern that lies in `store` under `number`.
    PictureFacts(const PictureNumbers& numbers, std::shared_ptr<const PatternStore> store, std::int64_t number)
        : PictureNumbers(numbers), store_(std::move(store)), number_(number) {}
    /// Sets what follows from it, too: `coarse` and `luma_length`.
    void set_pattern(const PicturePattern& pattern);
    /// Reads it when it lies in a store. Zeros when there is none.
    [[nodiscard]] PicturePattern pattern() const;
    /// Where it lies; null: in memory, or nowhere.
    [[nodiscard]] const PatternStore* store() const { return store_.get(); }

private:
    std::shared_ptr<const PicturePattern> held_;
    std::shared_ptr<const PatternStore> store_;
    std::int64_t number_ = 0;
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

/// A small picture as people see it, decoded from the smallest mip that has at least `side` texels on its longer side and reduced to
/// fit side × side: in paint form, and normals without Z with it.
struct SmallPicture {
    Image image;
    std::optional<NormalChannels> normals;  ///< where the texture holds those that got their Z
};
[[nodiscard]] Result<SmallPicture> small_picture(const TextureFile& texture, std::uint32_t side);
/// Its image.
[[nodiscard]] Result<Image> thumbnail(const TextureFile& texture, std::uint32_t side);

/// -1…1: how two patterns agree, whatever their pictures' size, brightness, contrast and color. 0 where one is flat.
[[nodiscard]] float pattern_agreement(const PicturePattern& a, const PicturePattern& b);
/// What pattern_agreement cannot exceed, from the numbers alone. For patterns X and Y with means PX and PY over cells,
/// X·Y = PX·PY + (X - PX)·(Y - PY), and the last term is at most |X - PX| |Y - PY| (Cauchy and Schwarz).
[[nodiscard]] float most_agreement(const PictureNumbers& a, const PictureNumbers& b);
/// Largest distance of the two pictures' colors over 8×8 places, in steps of 255.
[[nodiscard]] float color_distance(const PicturePattern& a, const PicturePattern& b);
/// The same of their means.
[[nodiscard]] float mean_distance(const PictureNumbers& a, const PictureNumbers& b);

}  // namespace skivet
