#pragma once
// Halving pictures for mip chains.
#include <string>

#include "pixel/image.h"
#include "pixel/normal_channels.h"

namespace skivet {

/// Ordered from narrow to wide. `point` takes one texel of each four, the first.
enum class MipFilter : std::uint8_t { point, box, triangle, gaussian, mitchell, catmull_rom, lanczos, kaiser };
inline constexpr std::array all_mip_filters = {MipFilter::point,    MipFilter::box,         MipFilter::triangle, MipFilter::gaussian,
                                               MipFilter::mitchell, MipFilter::catmull_rom, MipFilter::lanczos,  MipFilter::kaiser};
[[nodiscard]] std::string_view name_of(MipFilter filter);

/// How one level is made from the level above.
struct MipRecipe {
    MipFilter filter = MipFilter::box;
    bool linear_light = false;  ///< filter sRGB color in linear light
    bool wrap = false;          ///< beyond an edge the picture begins anew; otherwise the edge's texels go on
    bool by_alpha = false;      ///< a texel's color counts by its alpha
    bool renormalize = false;   ///< normals are brought back to length one
    std::uint8_t coverage = 0;  ///< alpha is scaled until as many texels as in level 0 reach this value (0…255); 0: it is not
    bool operator==(const MipRecipe&) const = default;
};
/// "Kaiser filter in linear light, edges wrap, alpha coverage kept at 128".
[[nodiscard]] std::string describe(const MipRecipe& recipe, bool say_light = true);

/// Source texels [first, first + weights.size()) and their weights (sum 1) for one output texel on one axis. `first` may lie
/// before the picture and the last texel behind it; the edge rule says what stands there.
struct Taps {
    std::int64_t first = 0;
    std::vector<float> weights;
};

/// Taps for bringing `source` texels to `target` texels. Reducing: box is area coverage, exact for odd sizes; the others are the
/// usual kernels stretched to the target's Nyquist frequency: triangle (reach 1), Gaussian (σ ½, reach 2), Mitchell and Netravali 1988 with
/// B = C = ⅓ and Catmull-Rom (B = 0, C = ½; reach 2), Lanczos with 3 lobes, sinc under a Kaiser window (alpha 4, 3 lobes). Enlarging:
/// linear.
[[nodiscard]] std::vector<Taps> make_taps(std::uint32_t source, std::uint32_t target, MipFilter filter);

/// A part of a picture, in texels.
struct Rect {
    std::uint32_t x = 0, y = 0, width = 0, height = 0;
    [[nodiscard]] bool empty() const { return width == 0 || height == 0; }
    bool operator==(const Rect&) const = default;
};

/// Texels one can ask for a row at a time, so that a picture need not stand in memory as floats to be filtered.
class RowSource {
public:
    virtual ~RowSource() = default;
    [[nodiscard]] virtual std::uint32_t width() const = 0;
    [[nodiscard]] virtual std::uint32_t height() const = 0;
    /// Texels [x, x + count) of row y; called from several threads at once.
    virtual void row(std::uint32_t y, std::uint32_t x, std::uint32_t count, TexelF* out) const = 0;
};
/// The picture as to_float gives it.
class ByteRows final : public RowSource {
public:
    ByteRows(const Image& image, bool srgb) : image_(image), srgb_(srgb) {}
    [[nodiscard]] std::uint32_t width() const override { return image_.width; }
    [[nodiscard]] std::uint32_t height() const override { return image_.height; }
    void row(std::uint32_t y, std::uint32_t x, std::uint32_t count, TexelF* out) const override;

private:
    const Image& image_;
    bool srgb_;
};
/// Floats as they are, or sRGB values brought to linear light.
class FloatRows final : public RowSource {
public:
    explicit FloatRows(const ImageF& image, bool srgb = false) : image_(image), srgb_(srgb) {}
    [[nodiscard]] std::uint32_t width() const override { return image_.width; }
    [[nodiscard]] std::uint32_t height() const override { return image_.height; }
    void row(std::uint32_t y, std::uint32_t x, std::uint32_t count, TexelF* out) const override;

private:
    const ImageF& image_;
    bool srgb_;
};

/// The part `out` of `source` resampled to width × height. The same values for any number of threads and any SIMD width.
[[nodiscard]] ImageF resample(const RowSource& source, std::uint32_t width, std::uint32_t height, MipFilter filter, bool wrap, Rect out);
/// The whole picture resampled to any size; edges go on.
[[nodiscard]] ImageF resize(const ImageF& image, std::uint32_t width, std::uint32_t height, MipFilter filter);

/// The part `out` of the level below `source`, max(1, floor(side / 2)) texels a side: filter, edges, weighting by alpha and normals as the
/// recipe says. Light is the source's matter; coverage is kept_coverage's.
[[nodiscard]] ImageF next_level(const RowSource& source, const MipRecipe& recipe, const NormalChannels& normals, Rect out);
[[nodiscard]] Rect next_rect(std::uint32_t width, std::uint32_t height);  ///< the whole of the next level
/// The whole next level with nothing but the filter.
[[nodiscard]] ImageF next_mip(const ImageF& image, MipFilter filter);

/// Share of texels whose alpha is at least `reference` / 255.
[[nodiscard]] double coverage_of(const ImageF& image, std::uint8_t reference);
/// The factor for alpha, at most 8, that gives the picture that coverage as nearly as can be: the factor that brings the k-th largest alpha
/// exactly to the reference. 1 where nothing or everything is covered.
[[nodiscard]] float coverage_factor(const ImageF& image, std::uint8_t reference, double coverage);
/// Scales alpha by coverage_factor, cut off at 1.
void keep_coverage(ImageF& image, std::uint8_t reference, double coverage);

/// Which texels of the next level depend on a marked texel: `dirty` is one flag a texel, width × height. Edges wrap when asked.
[[nodiscard]] std::vector<std::uint8_t> next_dirty(const std::vector<std::uint8_t>& dirty, std::uint32_t width, std::uint32_t height,
                                                   MipFilter filter, bool wrap = false);
/// The smallest part with all marked texels in it.
[[nodiscard]] Rect bounds(const std::vector<std::uint8_t>& dirty, std::uint32_t width);

}  // namespace skivet
