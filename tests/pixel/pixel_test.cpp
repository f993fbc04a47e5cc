#include <gtest/gtest.h>

#include <cmath>
#include <vector>

#include "pixel/format.h"
#include "pixel/metrics.h"
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

TEST(Color, BytesAreTheNearestOnesForAnyLinearValue) {
    // Against the formula itself, over the whole range and right beside the limits between bytes.
    std::vector<TexelF> values = {{-1, 2, std::nanf(""), 0.5f}, {0, 1, std::numeric_limits<float>::infinity(), 1}};
    for (int i = 0; i < 200000; ++i)
        values.push_back({static_cast<float>(i) / 200000, std::ldexp(1.0f, -i % 40), static_cast<float>(i % 255 + 0.499) / 255, 0});
    for (auto& t : values)
        if (t[2] < 1) t[2] = srgb_to_linear(t[2]);
    std::vector<Texel> bytes(values.size());
    to_bytes(values.data(), values.size(), true, bytes.data());
    EXPECT_EQ(bytes[0], (Texel{0, 255, 0, 128}));
    EXPECT_EQ(bytes[1], (Texel{0, 255, 255, 255}));
    for (std::size_t i = 2; i < values.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c)
            ASSERT_NEAR(bytes[i][c], static_cast<double>(linear_to_srgb(values[i][c])) * 255, 0.5001) << values[i][c];
}

TEST(Color, ToFloatAndBackChangesNothing) {
    const auto image = random_picture(33, 17, 4);
    EXPECT_EQ(to_bytes(to_float(image, true), true), image);
    EXPECT_EQ(to_bytes(to_float(image, false), false), image);
}

TEST(Metrics, PsnrOfAKnownError) {
    Image a(4, 4, {100, 100, 100, 255}), b = a;
    EXPECT_TRUE(std::isinf(difference(a, b).psnr_rgb));
    for (auto& t : b.texels) t[0] = 110;
    const auto d = difference(a, b);
    // MSE over three channels is 100/3: 10 log10(65025 * 3 / 100).
    EXPECT_NEAR(d.psnr_rgb, 10 * std::log10(65025.0 * 3 / 100), 1e-9);
    EXPECT_TRUE(std::isinf(d.psnr_alpha));
    // In light: 100 and 110 are 0.127438 and 0.155926 (IEC 61966-2-1).
    EXPECT_NEAR(d.psnr_light, 10 * std::log10(3 / std::pow(0.155926 - 0.127438, 2)), 0.001);
    EXPECT_EQ(d.max_error, 10u);
    EXPECT_EQ(d.changed_texels, 16u);
    EXPECT_LT(d.ssim, 1.0);
}

TEST(Metrics, SsimIsOneForEqualAndLowForNoise) {
    const auto a = smooth_picture(64, 64, 1);
    EXPECT_EQ(difference(a, a).ssim, 1.0);
    EXPECT_LT(difference(a, random_picture(64, 64, 1)).ssim, 0.2);
}
