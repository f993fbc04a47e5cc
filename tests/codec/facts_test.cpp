// What is said about textures: a block's make-up, alpha's use, and the two forms of a picture.
#include <gtest/gtest.h>

#include <cmath>
#include <string>

#include "codec/block_facts.h"
#include "codec/paint_form.h"
#include "pixel/alpha_use.h"
#include "pixel/half.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

TEST(BlockFacts, NameModeAndEndpoints) {
    std::byte bc1[8]{};
    store_le(bc1, std::uint16_t{0xF800});
    store_le(bc1 + 2, std::uint16_t{0x001F});
    EXPECT_EQ(describe_block(Format::BC1, bc1), "four colors · #ff0000 to #0000ff");
    store_le(bc1, std::uint16_t{0});
    EXPECT_EQ(describe_block(Format::BC1, bc1), "three colors and clear · #000000 to #0000ff");
    std::byte bc4[8] = {std::byte{10}, std::byte{200}};
    EXPECT_EQ(describe_block(Format::BC4, bc4), "10 to 200 in 6 steps");
    EXPECT_EQ(describe_block(Format::BC4_SNORM, bc4), "10 to -56 in 8 steps");
    std::byte bc7[16]{};
    bc7[0] = std::byte{0x40};  // mode 6
    EXPECT_EQ(describe_block(Format::BC7, bc7), "mode 6 · one subset · 4-bit indices");
    bc7[0] = std::byte{0x02 | 5 << 2};  // mode 1, partition 5
    EXPECT_EQ(describe_block(Format::BC7, bc7), "mode 1 · 2 subsets, partition 5 · 3-bit indices");
    bc7[0] = std::byte{0};
    EXPECT_EQ(describe_block(Format::BC7, bc7), "reserved mode");
    std::byte bc6h[16]{};
    bc6h[0] = std::byte{0x03};
    EXPECT_EQ(describe_block(Format::BC6H, bc6h), "mode 11 · one region · 10-bit endpoints");
    EXPECT_EQ(describe_block(Format::BC6H, std::span(bc6h).first(8)), "") << "too few bytes";
    EXPECT_EQ(describe_block(Format::RGBA8, bc6h), "");
}

TEST(BlockFacts, NameEveryModeOfEtc2) {
    // Blocks of our own encoder, which uses them all, and random ones: the names follow the decoder's own order of decisions.
    std::set<std::string> seen;
    const auto blocks = random_bytes(8 * 4000, 3);
    for (std::size_t i = 0; i < blocks.size(); i += 8) {
        auto text = describe_block(Format::ETC2_RGB, ByteSpan(blocks).subspan(i, 8));
        seen.insert(text.substr(0, text.find(' ')));
        EXPECT_FALSE(describe_block(Format::ETC2_RGBA1, ByteSpan(blocks).subspan(i, 8)).empty());
    }
    EXPECT_EQ(seen, (std::set<std::string>{"individual", "differential", "T", "H", "planar"}));
}

TEST(BlockFacts, AnyBytesOfAnyFormatAreDescribed) {
    for (const auto& f : all_formats())
        for (unsigned seed = 0; seed < 30; ++seed) {
            const auto text = describe_block(f.format, random_bytes(f.block_bytes, seed));
            EXPECT_EQ(text.empty(), !f.block_compressed()) << f.name;
        }
}

TEST(AlphaUse, IsToldFromThePixels) {
    auto picture = smooth_picture(64, 64, 3);
    EXPECT_EQ(alpha_facts(picture).use, AlphaUse::none);
    auto cut = picture;
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 24; ++x) cut.at(x, y) = {0, 0, 0, 0};
    EXPECT_EQ(alpha_facts(cut).use, AlphaUse::cut_out);
    EXPECT_FALSE(alpha_facts(cut).hidden_colors);
    EXPECT_EQ(describe(alpha_facts(cut)), "cut-out");
    cut.at(3, 3) = {9, 0, 0, 0};
    EXPECT_TRUE(alpha_facts(cut).hidden_colors);
    EXPECT_EQ(describe(alpha_facts(cut)), "cut-out, colors under zero alpha");
    auto fading = picture;
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 64; ++x) fading.at(x, y) = {200, 180, 90, static_cast<std::uint8_t>(x * 4)};
    EXPECT_EQ(alpha_facts(fading).use, AlphaUse::gradient);
    auto masked = picture;  // the picture goes on where alpha is low
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 64; ++x) masked.at(x, y)[3] = (x / 16 + y / 16) % 2 ? 255 : 10;
    EXPECT_EQ(alpha_facts(masked).use, AlphaUse::mask);
    for (auto& t : masked.texels) t[3] = 0;
    EXPECT_EQ(alpha_facts(masked).use, AlphaUse::empty);
}

TEST(AlphaUse, PremultipliedColorsAreToldFromStraightOnes) {
    auto straight = smooth_picture(256, 256, 3, true);
    for (auto& t : straight.texels) t[0] = 220;
    auto multiplied = straight;
    for (auto& t : multiplied.texels)
        for (std::size_t c = 0; c < 3; ++c) t[c] = static_cast<std::uint8_t>((t[c] * t[3] + 127) / 255);
    EXPECT_FALSE(alpha_facts(straight).premultiplied);
    EXPECT_TRUE(alpha_facts(multiplied).premultiplied);
    EXPECT_EQ(describe(alpha_facts(multiplied)), "gradient, color premultiplied");
    for (const auto format : {Format::BC3, Format::BC7, Format::RGBA8})
        EXPECT_TRUE(alpha_facts(*decode(format, *encode(format, multiplied), 256, 256)).premultiplied) << info(format).name;
    EXPECT_FALSE(alpha_facts(Image(8, 8, {0, 128, 0, 128})).premultiplied) << "a flat normal map with x in alpha";
    auto dark = straight;  // dark, but not for its alpha
    for (auto& t : dark.texels) t = {3, 2, 1, t[3]};
    EXPECT_FALSE(alpha_facts(dark).premultiplied);
}

TEST(LoneChannel, IsTheOneThatVaries) {
    auto picture = smooth_picture(16, 16, 3);
    EXPECT_FALSE(lone_channel(picture));
    for (auto& t : picture.texels) t[1] = t[2] = 0;
    EXPECT_EQ(lone_channel(picture), 0u);
    EXPECT_FALSE(lone_channel(Image(4, 4, {1, 2, 3, 4}))) << "nothing varies";
}

TEST(Half, ConvertsAsIeee754Says) {
    // IEEE 754-2008 binary16: 1 sign, 5 exponent, 10 mantissa bits; worked values.
    for (const auto& [value, bits] : {std::pair{1.0f, 0x3C00},
                                      {-2.0f, 0xC000},
                                      {65504.0f, 0x7BFF},
                                      {0x1p-14f, 0x0400},
                                      {0x1p-24f, 0x0001},
                                      {0.333251953125f, 0x3555}}) {
        EXPECT_EQ(float_to_half(value), bits);
        EXPECT_EQ(half_to_float(static_cast<std::uint16_t>(bits)), value);
    }
    EXPECT_EQ(float_to_half(65520.0f), 0x7C00) << "halfway to the next would-be value: infinity";
    EXPECT_EQ(float_to_half(0x1p-25f), 0x0000) << "a tie goes to even";
    EXPECT_EQ(float_to_half(0x1.8p-24f), 0x0002);
    EXPECT_TRUE(std::isnan(half_to_float(float_to_half(NAN))));
    for (std::uint32_t h = 0; h < 0x10000; ++h) {
        const auto f = half_to_float(static_cast<std::uint16_t>(h));
        if (!std::isnan(f)) ASSERT_EQ(float_to_half(f), h);
    }
}

TEST(SmallFloats, ComeBackToTheBit) {
    for (const unsigned mantissa : {5u, 6u})
        for (std::uint32_t v = 0; v < (31u << mantissa); ++v) ASSERT_EQ(float_to_small(small_to_float(v, mantissa), mantissa), v);
    EXPECT_EQ(float_to_small(-3, 6), 0u);
    EXPECT_EQ(float_to_small(NAN, 6), 0u);
    EXPECT_EQ(small_to_float(float_to_small(1e9f, 6), 6), 65024.0f)
        << "Khronos Data Format Specification 1.3, section 10.3: the largest 11-bit float";
    EXPECT_EQ(small_to_float(float_to_small(1e9f, 5), 5), 64512.0f) << "section 10.4: the largest 10-bit float";
}

TEST(SharedExponent, FollowsTheExtension) {
    // EXT_texture_shared_exponent: the largest value is 65408, and values come back within half a step of the largest channel's exponent.
    EXPECT_EQ(rgb9e5_to_float(float_to_rgb9e5({1e9f, 0, 0}))[0], 65408.0f);
    for (unsigned seed = 0; seed < 200; ++seed) {
        std::mt19937 random(seed);
        std::array<float, 3> in;
        for (auto& v : in) v = std::ldexp(static_cast<float>(random() % 1000) / 1000, static_cast<int>(random() % 20) - 10);
        const auto out = rgb9e5_to_float(float_to_rgb9e5(in));
        const float top = std::max({in[0], in[1], in[2]});
        for (std::size_t c = 0; c < 3; ++c) EXPECT_NEAR(out[c], in[c], top / 256 / 2 + 1e-9);
        EXPECT_EQ(rgb9e5_to_float(float_to_rgb9e5(out)), out);
    }
}

TEST(View, SignedZeroIsTheMiddleAndFloatsAreEncoded) {
    ImageF wide(1, 1);
    wide.texels[0] = {0, -1, 1, 1};
    EXPECT_EQ(view_of(Format::RGBA16_SNORM, wide).texels[0], (Texel{128, 1, 255, 255}));
    wide.texels[0] = {1, 0.5f, 4, 0.25f};
    // IEC 61966-2-1: linear 0.5 is encoded as 0.7354, that is 188 of 255.
    EXPECT_EQ(view_of(Format::RGBA16F, wide).texels[0], (Texel{255, 188, 255, 64}));
    EXPECT_EQ(view_of(Format::RGBA16F, wide, -2).texels[0][2], 255) << "four at two stops less is one";
    EXPECT_EQ(view_of(Format::RGBA16F, wide, -3).texels[0][2], 188);
    wide.texels[0] = {NAN, INFINITY, -INFINITY, 1};
    EXPECT_EQ(view_of(Format::RGBA32F, wide).texels[0], (Texel{0, 255, 0, 255}));
}
