#include "pixel/mips.h"

#include <gtest/gtest.h>
#include <hwy/highway.h>
#include <tbb/global_control.h>

#include <cmath>
#include <numeric>
#include <vector>

#include "pixel/format.h"
#include "pixel/normals.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

ImageF level_below(const Image& image, const MipRecipe& recipe, const NormalChannels& normals = {}) {
    return next_level(ByteRows(image, recipe.linear_light), recipe, normals, next_rect(image.width, image.height));
}

}  // namespace

TEST(Mips, TapsSumToOneAndStayInReach) {
    for (auto filter : all_mip_filters)
        for (auto [source, target] : {std::pair{8u, 4u}, {7u, 3u}, {5u, 2u}, {1u, 1u}, {100u, 37u}, {3u, 9u}})
            for (const auto& tap : make_taps(source, target, filter)) {
                EXPECT_NEAR(std::accumulate(tap.weights.begin(), tap.weights.end(), 0.0), 1.0, 1e-5);
                EXPECT_GE(tap.first, -4 * static_cast<std::int64_t>(source) / target - 4);
                EXPECT_LE(tap.weights.size(), 6 * source / target + 6) << "no reach beyond three target texels to a side";
            }
}

TEST(Mips, BoxAveragesFourTexels) {
    Image image(2, 2);
    image.texels = {{0, 10, 0, 0}, {100, 10, 0, 255}, {50, 10, 0, 255}, {50, 10, 255, 255}};
    const auto half = to_bytes(next_mip(to_float(image, false), MipFilter::box), false);
    ASSERT_EQ(half.texels.size(), 1u);
    EXPECT_EQ(half.texels[0][0], 50);
    EXPECT_EQ(half.texels[0][1], 10);
    EXPECT_EQ(half.texels[0][2], 64);
    EXPECT_EQ(half.texels[0][3], 191);
}

TEST(Mips, OddSizesWeighEveryTexelTheSame) {
    // A 3-texel row halves to one texel: with area coverage each counts a third.
    const auto taps = make_taps(3, 1, MipFilter::box);
    ASSERT_EQ(taps[0].weights.size(), 3u);
    for (float w : taps[0].weights) EXPECT_NEAR(w, 1.0f / 3, 1e-6);
}

TEST(Mips, LinearLightIsBrighterThanEncoded) {
    // Half black, half white: 188 when averaged in linear light (0.5 encodes to 187.5), 128 when not.
    Image image(2, 1);
    image.texels = {{0, 0, 0, 255}, {255, 255, 255, 255}};
    EXPECT_EQ(to_bytes(next_mip(to_float(image, true), MipFilter::box), true).texels[0][0], 188);
    EXPECT_EQ(to_bytes(next_mip(to_float(image, false), MipFilter::box), false).texels[0][0], 128);
}

TEST(Mips, KaiserKeepsFlatPicturesFlatAndIsSharperThanBox) {
    const Image flat(64, 64, {90, 120, 30, 255});
    EXPECT_EQ(to_bytes(next_mip(to_float(flat, true), MipFilter::kaiser), true), Image(32, 32, {90, 120, 30, 255}));
    const auto taps = make_taps(64, 32, MipFilter::kaiser);
    EXPECT_LT(*std::min_element(taps[16].weights.begin(), taps[16].weights.end()), 0.0f) << "a windowed sinc has negative lobes";
}

TEST(Mips, DirtFollowsTheFootprint) {
    std::vector<std::uint8_t> dirty(64);
    dirty[3 * 8 + 5] = 1;
    const auto box = next_dirty(dirty, 8, 8, MipFilter::box);
    EXPECT_EQ(std::count(box.begin(), box.end(), 1), 1);
    EXPECT_EQ(box[1 * 4 + 2], 1);
    const auto kaiser = next_dirty(dirty, 8, 8, MipFilter::kaiser);
    EXPECT_GT(std::count(kaiser.begin(), kaiser.end(), 1), 1);
}

TEST(Mips, WhatIsNotDirtyDoesNotDependOnTheChange) {
    for (auto filter : all_mip_filters)
        for (bool wrap : {false, true}) {
            auto image = random_picture(31, 22, 8);
            const auto before = level_below(image, {filter, true, wrap});
            std::vector<std::uint8_t> dirty(image.texels.size());
            for (std::size_t i : {5u, 300u, 301u}) image.texels[i] = {1, 2, 3, 4}, dirty[i] = 1;
            const auto after = level_below(image, {filter, true, wrap});
            const auto marked = next_dirty(dirty, 31, 22, filter, wrap);
            for (std::size_t i = 0; i < marked.size(); ++i)
                if (!marked[i]) EXPECT_EQ(before.texels[i], after.texels[i]);
        }
}

TEST(Mips, KernelsHaveTheirPublishedValues) {
    // The taps for halving lie at 1/4, 3/4, 5/4 … target texels from the center.
    const auto weight = [](MipFilter filter, double x) {
        const auto taps = make_taps(64, 32, filter)[16];
        return static_cast<double>(taps.weights[static_cast<std::size_t>(std::lround(33 - 0.5 + 2 * x - static_cast<double>(taps.first)))]);
    };
    // Mitchell and Netravali 1988, equation 8, with B = C = 1/3: (21x³ - 36x² + 16) / 18 below 1, (-7x³ + 36x² - 60x + 32) / 18 below 2.
    const double near = (21 * std::pow(0.25, 3) - 36 * 0.0625 + 16) / 18,
                 far = (-7 * std::pow(1.25, 3) + 36 * 1.5625 - 60 * 1.25 + 32) / 18;
    EXPECT_NEAR(weight(MipFilter::mitchell, 1.25) / weight(MipFilter::mitchell, 0.25), far / near, 1e-6);
    // Catmull-Rom (B = 0, C = 1/2): 1.5|x|³ - 2.5x² + 1 below 1.
    EXPECT_NEAR(weight(MipFilter::catmull_rom, 0.75) / weight(MipFilter::catmull_rom, 0.25),
                (1.5 * 0.421875 - 2.5 * 0.5625 + 1) / (1.5 * 0.015625 - 2.5 * 0.0625 + 1), 1e-6);
    // The sinc under a sinc of three times its width (Duchon 1979).
    const auto lanczos = [](double x) { return std::sin(M_PI * x) * std::sin(M_PI * x / 3) / (M_PI * M_PI * x * x / 3); };
    EXPECT_NEAR(weight(MipFilter::lanczos, 2.25) / weight(MipFilter::lanczos, 0.25), lanczos(2.25) / lanczos(0.25), 1e-6);
    // I0(4 √(1 - x²/9)) by its tabulated values: I0(4) = 11.30192 (Abramowitz and Stegun, table 9.8), at x = 1/4 the root is 3.98609 and
    // I0 11.16668 (summed by hand).
    const auto sinc = [](double x) { return std::sin(M_PI * x) / (M_PI * x); };
    EXPECT_NEAR(std::cyl_bessel_i(0, 4.0), 11.30192, 1e-5);
    EXPECT_NEAR(weight(MipFilter::kaiser, 1.25) / weight(MipFilter::kaiser, 0.25),
                sinc(1.25) * std::cyl_bessel_i(0, 4 * std::sqrt(1 - 1.5625 / 9)) /
                    (sinc(0.25) * std::cyl_bessel_i(0, 4 * std::sqrt(1 - 0.0625 / 9))),
                1e-6);
    EXPECT_NEAR(weight(MipFilter::triangle, 0.75) / weight(MipFilter::triangle, 0.25), 1.0 / 3, 1e-6);
    EXPECT_NEAR(weight(MipFilter::gaussian, 0.75) / weight(MipFilter::gaussian, 0.25), std::exp(-2 * (0.5625 - 0.0625)), 1e-6);
}

TEST(Mips, WhenEdgesWrapAMovedPictureGivesAMovedLevel) {
    const auto image = random_picture(32, 16, 5);
    Image moved(32, 16);
    for (std::uint32_t y = 0; y < 16; ++y)
        for (std::uint32_t x = 0; x < 32; ++x) moved.at((x + 6) % 32, (y + 2) % 16) = image.at(x, y);
    for (auto filter : all_mip_filters) {
        const auto a = level_below(image, {filter, false, true}), b = level_below(moved, {filter, false, true});
        for (std::uint32_t y = 0; y < 8; ++y)
            for (std::uint32_t x = 0; x < 16; ++x)
                for (std::size_t c = 0; c < 4; ++c) ASSERT_NEAR(a.at(x, y)[c], b.at((x + 3) % 16, (y + 1) % 8)[c], 1e-6) << name_of(filter);
        EXPECT_EQ(a == level_below(image, {filter}), filter <= MipFilter::box) << "narrow filters do not see the edge";
    }
}

TEST(Mips, APartIsWhatTheWholeHasThere) {
    const auto image = random_picture(61, 150, 9);
    for (auto filter : all_mip_filters)
        for (bool wrap : {false, true}) {
            const auto whole = level_below(image, {filter, true, wrap});
            const Rect part{7, 3, 20, 70};
            const auto piece = next_level(ByteRows(image, true), {filter, true, wrap}, {}, part);
            for (std::uint32_t y = 0; y < part.height; ++y)
                for (std::uint32_t x = 0; x < part.width; ++x)
                    ASSERT_EQ(piece.at(x, y), whole.at(part.x + x, part.y + y)) << name_of(filter);
        }
}

TEST(Mips, TheSameBytesForEveryInstructionSetAndNumberOfThreads) {
    const auto image = random_picture(301, 203, 6);
    for (auto filter : {MipFilter::box, MipFilter::kaiser}) {
        const auto expected = level_below(image, {filter, true});
        {
            const tbb::global_control one(tbb::global_control::max_allowed_parallelism, 1);
            EXPECT_EQ(level_below(image, {filter, true}), expected);
        }
        for (std::int64_t rest = hwy::SupportedTargets(); rest != 0; rest &= rest - 1) {
            hwy::SetSupportedTargetsForTest(rest & -rest);
            hwy::GetChosenTarget().Update(hwy::SupportedTargets());
            EXPECT_EQ(level_below(image, {filter, true}), expected) << hwy::TargetName(rest & -rest);
            hwy::SetSupportedTargetsForTest(0);
        }
        hwy::GetChosenTarget().Update(hwy::SupportedTargets());
    }
}

TEST(Mips, WeightedByAlphaHiddenColorDoesNotBleed) {
    Image image(4, 2, {200, 100, 0, 255});
    for (std::uint32_t y = 0; y < 2; ++y) image.at(0, y) = {0, 0, 255, 0}, image.at(2, y) = image.at(3, y) = {10, 20, 30, 0};
    const auto level = to_bytes(level_below(image, {MipFilter::box, false, false, true}), false);
    EXPECT_EQ(level.at(0, 0), (Texel{200, 100, 0, 128}));
    EXPECT_EQ(level.at(1, 0), (Texel{10, 20, 30, 0})) << "where nothing is seen the colors are only averaged";
    EXPECT_EQ(to_bytes(level_below(image, {MipFilter::box}), false).at(0, 0), (Texel{100, 50, 128, 128}));
}

TEST(Mips, CoverageIsKeptThoughAlphaAveragesAway) {
    // Thin leaves: a quarter of the texels are opaque, so plain averages sink below the reference.
    Image image(64, 64, {0, 90, 0, 0});
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 64; ++x)
            if ((x * 7 + y * 3 + x * y / 5) % 4 == 0) image.at(x, y)[3] = 255;
    const double wanted = coverage_of(to_float(image, false), 128);
    auto level = level_below(image, {MipFilter::triangle});
    EXPECT_LT(coverage_of(level, 128), wanted / 2);
    keep_coverage(level, 128, wanted);
    EXPECT_GE(coverage_of(level, 128), wanted);
    EXPECT_LT(coverage_of(level, 128), wanted + 0.15) << "many texels share one alpha, so it cannot be met exactly";
    EXPECT_EQ(coverage_factor(ImageF(4, 4), 128, 0), 1.0f);
    EXPECT_LE(coverage_factor(ImageF(4, 4), 128, 0.5), 8.0f);
}

TEST(Mips, RenormalizedNormalsHaveLengthOne) {
    Image image(32, 32);
    for (std::uint32_t y = 0; y < 32; ++y)
        for (std::uint32_t x = 0; x < 32; ++x) {
            const double a = x * 1.3 + y * 0.7, tilt = 0.6, nx = std::cos(a) * tilt, ny = std::sin(a) * tilt,
                         nz = std::sqrt(1 - tilt * tilt);
            const auto byte = [](double v) { return static_cast<std::uint8_t>(std::lround((v + 1) * 127.5)); };
            image.at(x, y) = {byte(nx), byte(ny), byte(nz), 255};
        }
    const auto rgb = guess_normals(Format::RGBA8, image);
    ASSERT_TRUE(rgb);
    EXPECT_EQ(*rgb, NormalChannels{});
    const auto length = [](const TexelF& t) {
        return std::sqrt(std::pow(t[0] * 2 - 1, 2) + std::pow(t[1] * 2 - 1, 2) + std::pow(t[2] * 2 - 1, 2));
    };
    EXPECT_LT(length(level_below(image, {MipFilter::box}).at(5, 5)), 0.95);
    const auto level = level_below(image, {.filter = MipFilter::box, .renormalize = true}, *rgb);
    for (const auto& t : level.texels) ASSERT_NEAR(length(t), 1, 1e-4);
    // In two channels the third comes from the other two, before and after.
    Image two = image, green_alpha = image;
    for (auto& t : two.texels) t = {t[0], t[1], 0, 255};
    for (auto& t : green_alpha.texels) t = {255, t[1], 255, t[0]};
    const auto rg = guess_normals(Format::RG8, two), ag = guess_normals(Format::RGBA8, green_alpha);
    ASSERT_TRUE(rg && ag);
    EXPECT_EQ(describe(*rg), "normals in red and green");
    EXPECT_EQ(describe(*ag), "normals in alpha and green");
    const auto small = level_below(two, {.filter = MipFilter::box, .renormalize = true}, *rg);
    const auto swapped = level_below(green_alpha, {.filter = MipFilter::box, .renormalize = true}, *ag);
    for (std::size_t i = 0; i < small.texels.size(); ++i) {
        ASSERT_NEAR(small.texels[i][0], level.texels[i][0], 0.01);
        ASSERT_NEAR(swapped.texels[i][3], small.texels[i][0], 1e-5);
        ASSERT_NEAR(swapped.texels[i][0], 1, 1e-6) << "what is no normal is only filtered";
        ASSERT_LT(angle_between(*rg, small.texels[i], swapped.texels[i]), 180);
    }
}

TEST(Normals, WhatIsNoneIsNotTakenForOne) {
    EXPECT_FALSE(guess_normals(Format::RGBA8, smooth_picture(32, 32, 1)));
    EXPECT_FALSE(guess_normals(Format::RGBA8, random_picture(32, 32, 1)));
    EXPECT_FALSE(guess_normals(Format::RG8, random_picture(32, 32, 1)));
    EXPECT_FALSE(guess_normals(Format::RGBA8, Image(8, 8, {128, 128, 255, 255}))) << "flat: nothing is lost when it is taken for color";
    EXPECT_FALSE(guess_normals(Format::R8, Image(8, 8)));
    NormalChannels n;
    EXPECT_NEAR(angle_between(n, {0.5f, 0.5f, 1, 1}, {1, 0.5f, 0.5f, 1}), 90, 1e-4);
}

TEST(Normals, ThoseWithoutZAreSeenWithIt) {
    NormalChannels rg, ag;
    rg.z = -1;
    ag = {3, 1, -1};
    const Texel x6 = {204, 128, 230, 255};  // x = 76 / 127 = 0.598, so z = 0.801 and 128 + 127 × 0.801 = 229.8
    EXPECT_EQ(with_z(rg, Image(2, 2, {204, 128, 0, 255})), Image(2, 2, x6));
    EXPECT_EQ(with_z(ag, Image(2, 2, {255, 128, 255, 204})), Image(2, 2, x6));
    EXPECT_EQ(with_z(rg, Image(1, 1, {255, 255, 7, 255})), Image(1, 1, {255, 255, 128, 255})) << "longer than one: flat on its side";
    const Image other(2, 2, {204, 128, 3, 4});
    EXPECT_EQ(with_z(NormalChannels{}, other), other) << "Z is stored";
    EXPECT_EQ(with_z(std::nullopt, other), other);
}

TEST(Mips, BoundsHoldAllMarks) {
    std::vector<std::uint8_t> marks(8 * 6);
    EXPECT_TRUE(bounds(marks, 8).empty());
    marks[2 * 8 + 3] = marks[4 * 8 + 1] = 1;
    EXPECT_EQ(bounds(marks, 8), (Rect{1, 2, 3, 3}));
}
