#include <gtest/gtest.h>

#include <cmath>
#include <numeric>

#include "pixel/format.h"
#include "pixel/metrics.h"
#include "pixel/mips.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

TEST(Formats, NamesRoundTripInEitherCase) {
    for (const auto& f : all_formats()) EXPECT_EQ(format_named(f.name), f.format);
    EXPECT_EQ(format_named("bgra8"), Format::BGRA8);
    EXPECT_FALSE(format_named("BC9"));
}

TEST(Formats, LevelsRoundUpToWholeBlocks) {
    EXPECT_EQ(level_bytes(Format::BC1, 5, 4), 16u);
    EXPECT_EQ(level_bytes(Format::BC3, 1, 1), 16u);
    EXPECT_EQ(level_bytes(Format::B5G6R5, 3, 3), 18u);
    // common practice: a full chain goes down to 1×1.
    EXPECT_EQ(full_mip_count(2048, 2048), 12u);
    EXPECT_EQ(full_mip_count(198, 150), 8u);
    EXPECT_EQ(mip_side(5, 1), 2u);
    EXPECT_EQ(mip_side(5, 7), 1u);
}

TEST(Color, FollowsTheSrgbStandard) {
    // IEC 61966-2-1, 5.2: the threshold, its neighborhood, and mid gray (128/255 encoded is 0.21586 linear).
    EXPECT_NEAR(srgb_to_linear(0.04045f), 0.04045f / 12.92f, 1e-7);
    EXPECT_NEAR(srgb_to_linear(128 / 255.0f), 0.21586f, 1e-5);
    EXPECT_NEAR(linear_to_srgb(0.5f), 0.735357f, 1e-5);
    for (int i = 0; i < 256; ++i) EXPECT_EQ(std::lround(linear_to_srgb(srgb_to_linear(static_cast<float>(i) / 255.0f)) * 255), i);
}

TEST(Color, ToFloatAndBackChangesNothing) {
    const auto image = random_picture(33, 17, 4);
    EXPECT_EQ(to_bytes(to_float(image, true), true), image);
    EXPECT_EQ(to_bytes(to_float(image, false), false), image);
}

TEST(Mips, TapsSumToOneAndStayInside) {
    for (auto filter : {MipFilter::box, MipFilter::kaiser})
        for (auto [source, target] : {std::pair{8u, 4u}, {7u, 3u}, {5u, 2u}, {1u, 1u}, {100u, 37u}, {3u, 9u}})
            for (const auto& tap : make_taps(source, target, filter)) {
                EXPECT_NEAR(std::accumulate(tap.weights.begin(), tap.weights.end(), 0.0), 1.0, 1e-5);
                EXPECT_GE(tap.first, 0);
                EXPECT_LE(tap.first + static_cast<std::int64_t>(tap.weights.size()), static_cast<std::int64_t>(source));
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
    for (auto filter : {MipFilter::box, MipFilter::kaiser}) {
        auto image = random_picture(31, 22, 8);
        const auto before = next_mip(to_float(image, true), filter);
        std::vector<std::uint8_t> dirty(image.texels.size());
        for (std::size_t i : {5u, 300u, 301u}) image.texels[i] = {1, 2, 3, 4}, dirty[i] = 1;
        const auto after = next_mip(to_float(image, true), filter);
        const auto marked = next_dirty(dirty, 31, 22, filter);
        for (std::size_t i = 0; i < marked.size(); ++i)
            if (!marked[i]) EXPECT_EQ(before.texels[i], after.texels[i]);
    }
}

TEST(Metrics, PsnrOfAKnownError) {
    Image a(4, 4, {100, 100, 100, 255}), b = a;
    EXPECT_TRUE(std::isinf(difference(a, b).psnr_rgb));
    for (auto& t : b.texels) t[0] = 110;
    const auto d = difference(a, b);
    // MSE over three channels is 100/3: 10 log10(65025 * 3 / 100).
    EXPECT_NEAR(d.psnr_rgb, 10 * std::log10(65025.0 * 3 / 100), 1e-9);
    EXPECT_TRUE(std::isinf(d.psnr_alpha));
    EXPECT_EQ(d.max_error, 10u);
    EXPECT_EQ(d.changed_texels, 16u);
    EXPECT_LT(d.ssim, 1.0);
}

TEST(Metrics, SsimIsOneForEqualAndLowForNoise) {
    const auto a = smooth_picture(64, 64, 1);
    EXPECT_EQ(difference(a, a).ssim, 1.0);
    EXPECT_LT(difference(a, random_picture(64, 64, 1)).ssim, 0.2);
}
