#include <gtest/gtest.h>

#include <fmt/format.h>
#include <cmath>
#include <string>
#include <vector>

#include "codec/codec.h"
#include "codec/paint_form.h"
#include "pixel/metrics.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

class EveryFormat : public testing::TestWithParam<Format> {};
INSTANTIATE_TEST_SUITE_P(Formats, EveryFormat, testing::ValuesIn([] {
                             std::vector<Format> all;
                             for (const auto& f : all_formats()) all.push_back(f.format);
                             return all;
                         }()),
                         [](const auto& param) { return std::string(skivet::info(param.param).name); });

namespace {

/// What a picture with gradients and edges keeps at least, by the bits a texel has.
double floor_of(const FormatInfo& f) {
    if (!f.block_compressed()) return f.numeric == Numeric::unorm || f.is_integer() ? (f.red.bits <= 4 && f.red.bits > 0 ? 20 : 30) : 35;
    const double bits = f.block_bytes * 8.0 / (f.block_width * f.block_height);
    return bits >= 8 ? 30 : bits >= 4 ? (f.format >= Format::ETC1 ? 26 : 27) : bits >= 2 ? 22 : 18;
}

bool one_bit_alpha(Format f) { return f == Format::BC1 || f == Format::B5G5R5A1 || f == Format::A1B5G5R5 || f == Format::ETC2_RGBA1; }

/// Random texel bits without NaN, so that values compare.
Bytes random_level(Format format, std::uint32_t width, std::uint32_t height, unsigned seed) {
    auto bytes = random_bytes(static_cast<std::size_t>(level_bytes(format, width, height)), seed);
    const auto& f = info(format);
    if (!f.block_compressed() && f.is_float()) {
        const auto wide = *decode_wide(format, bytes, width, height);
        ImageF finite = wide;
        for (auto& t : finite.texels)
            for (auto& v : t)
                if (!std::isfinite(v)) v = 1;
        bytes = *encode(format, finite);
    }
    return bytes;
}

}  // namespace

TEST_P(EveryFormat, DecodingEncodedPicturesComesClose) {
    const auto format = GetParam();
    const auto& f = info(format);
    const auto picture = stored_form(format, smooth_picture(61, 43, 2, f.has_alpha && !one_bit_alpha(format)));
    if (!can_encode(format)) {
        EXPECT_EQ(encode(format, picture).error().code, ErrorCode::unsupported);
        return;
    }
    for (const auto effort : {Effort::fast, Effort::normal}) {
        const auto bytes = encode(format, picture, {effort});
        ASSERT_TRUE(bytes);
        EXPECT_EQ(bytes->size(), level_bytes(format, 61, 43));
        const auto back = decode(format, *bytes, 61, 43);
        ASSERT_TRUE(back);
        const auto d = difference(picture, *back);
        const bool exact = !f.block_compressed() && !f.wide && !f.is_signed() && std::max(f.red.bits, f.alpha.bits) == 8;
        if (exact) EXPECT_EQ(d.max_error, 0u);
        else EXPECT_GT(d.psnr_rgb, floor_of(f) - (effort == Effort::fast ? 3 : 0)) << name_of(effort);
        if (!one_bit_alpha(format) && format != Format::RGB10A2 && format != Format::BGR10A2 && format != Format::RGB10A2_UINT)
            EXPECT_GT(d.psnr_alpha, floor_of(f) - (effort == Effort::fast ? 3 : 0)) << name_of(effort);
    }
}

TEST_P(EveryFormat, UncompressedValuesComeBackToTheBit) {
    const auto format = GetParam();
    if (info(format).block_compressed()) return;
    const auto bytes = random_level(format, 40, 20, 8);
    const auto wide = *decode_wide(format, bytes, 40, 20);
    const auto again = *encode(format, wide);
    // -1 has two codes in signed normalized formats, 32-bit integers are exact up to 2^24, and a shared exponent can be written in several
    // ways: the values are the same in any case.
    EXPECT_EQ(decode_wide(format, again, 40, 20)->texels, wide.texels);
}

TEST_P(EveryFormat, WideTexelsThatDidNotChangeKeepTheirBytes) {
    const auto format = GetParam();
    if (!can_encode(format)) return;
    const auto original = random_level(format, 36, 20, 12);
    const auto before = *decode_wide(format, original, 36, 20);
    std::uint64_t kept = 0;
    EXPECT_EQ(*encode_changed(format, before, before, original, &kept), original);
    auto after = before;
    after.at(17, 9) = stored_form(format, ImageF(1, 1)).texels[0];
    const auto bytes = *encode_changed(format, after, before, original, &kept);
    const auto& f = info(format);
    EXPECT_GE(kept + 1, original.size() / f.block_bytes);
    const std::size_t across = (36u + f.block_width - 1) / f.block_width;
    const auto changed = (std::size_t{9} / f.block_height * across + 17u / f.block_width) * f.block_bytes;
    for (std::size_t i = 0; i < original.size(); ++i)
        if (i < changed || i >= changed + f.block_bytes) ASSERT_EQ(bytes[i], original[i]) << "byte " << i;
}

TEST_P(EveryFormat, EqualBlocksKeepTheirBytes) {
    const auto format = GetParam();
    if (!can_encode(format)) return;
    // Random bytes: nearly no encoder would produce them, so keeping them shows.
    const auto original = random_bytes(static_cast<std::size_t>(level_bytes(format, 36, 20)), 11);
    const auto before = *decode(format, original, 36, 20);
    std::uint64_t kept = 0;
    EXPECT_EQ(*encode_changed(format, before, before, original, &kept), original);
    auto after = before;
    after.at(17, 9) = stored_form(format, Image(1, 1, {250, 3, 120, 200})).texels[0];
    const auto bytes = *encode_changed(format, after, before, original, &kept);
    const auto& f = info(format);
    const std::size_t across = (36u + f.block_width - 1) / f.block_width;
    const auto changed = (std::size_t{9} / f.block_height * across + 17 / f.block_width) * f.block_bytes;
    EXPECT_EQ(kept, original.size() / f.block_bytes - 1);
    for (std::size_t i = 0; i < original.size(); ++i)
        if (i < changed || i >= changed + f.block_bytes) ASSERT_EQ(bytes[i], original[i]) << "byte " << i;
}

TEST_P(EveryFormat, RefusesTooFewBytes) {
    const auto need = level_bytes(GetParam(), 16, 16);
    const auto short_by_one = random_bytes(static_cast<std::size_t>(need) - 1, 1);
    const auto image = decode(GetParam(), short_by_one, 16, 16);
    ASSERT_FALSE(image);
    EXPECT_NE(image.error().message().find(fmt::format("needs {} bytes, has {}", grouped(need), grouped(need - 1))), std::string::npos);
}

TEST_P(EveryFormat, AnyBytesDecode) {
    for (unsigned seed = 0; seed < 20; ++seed)
        EXPECT_TRUE(decode(GetParam(), random_bytes(static_cast<std::size_t>(level_bytes(GetParam(), 24, 24)), seed), 24, 24));
}

TEST_P(EveryFormat, PaintFormAndBackKeepsWhatTheFormatStores) {
    const auto decoded = *decode(GetParam(), random_bytes(static_cast<std::size_t>(level_bytes(GetParam(), 24, 24)), 3), 24, 24);
    EXPECT_EQ(stored_form(GetParam(), paint_form(GetParam(), decoded)), decoded);
}

TEST(Bc1, OneTransparentTexelMakesAThreeColorBlock) {
    BlockTexels in;
    in.fill({200, 40, 40, 255});
    in[5] = {9, 9, 9, 0};
    const auto block = encode_one(Format::BC1, in);
    EXPECT_LE(load_le<std::uint16_t>(block.data()), load_le<std::uint16_t>(block.data() + 2));
    const auto out = decode_one(Format::BC1, block.data());
    for (std::size_t i = 0; i < 16; ++i) EXPECT_EQ(out[i][3], i == 5 ? 0 : 255);
    EXPECT_NEAR(out[0][0], 200, 5);
}

TEST(Bc1, OpaqueBlocksNeverBecomeTransparent) {
    for (unsigned seed = 0; seed < 300; ++seed) {
        const auto picture = seed % 2 ? random_picture(4, 4, seed) : Image(4, 4, {std::uint8_t(seed), std::uint8_t(seed * 7), 0, 255});
        BlockTexels in;
        for (std::size_t i = 0; i < 16; ++i) in[i] = {picture.texels[i][0], picture.texels[i][1], picture.texels[i][2], 255};
        const auto out = decode_one(Format::BC1, encode_one(Format::BC1, in).data());
        for (const auto& t : out) ASSERT_EQ(t[3], 255) << "seed " << seed;
    }
}

TEST(Bc1, SingleColorsComeWithinTheGrid) {
    // With a third between two grid points every 8-bit value is met within 4 steps for five bits and 2 for six.
    for (int v = 0; v < 256; ++v) {
        BlockTexels in;
        in.fill({std::uint8_t(v), std::uint8_t(v), std::uint8_t(255 - v), 255});
        const auto out = decode_one(Format::BC1, encode_one(Format::BC1, in).data());
        EXPECT_LE(std::abs(out[0][0] - v), 2);
        EXPECT_LE(std::abs(out[0][1] - v), 1);
    }
}

TEST(Bc4, IsExactForUpToTwoValuesAndForTheExtremes) {
    for (auto [a, b] : {std::pair{0, 255}, {17, 203}, {44, 44}, {0, 0}, {255, 255}}) {
        BlockTexels in;
        for (std::size_t i = 0; i < 16; ++i) in[i] = {std::uint8_t(i % 3 ? a : b), 0, 0, 255};
        const auto out = decode_one(Format::BC4, encode_one(Format::BC4, in).data());
        for (std::size_t i = 0; i < 16; ++i) EXPECT_EQ(out[i][0], in[i][0]);
    }
}

TEST(Bc4, SixValueModeServesBlocksWithBlackAndWhite) {
    BlockTexels in;
    for (std::size_t i = 0; i < 16; ++i) in[i] = {std::uint8_t(i == 0 ? 0 : i == 1 ? 255 : 100 + i), 0, 0, 255};
    const auto block = encode_one(Format::BC4, in);
    EXPECT_LE(block[0], block[1]);
    const auto out = decode_one(Format::BC4, block.data());
    EXPECT_EQ(out[0][0], 0);
    EXPECT_EQ(out[1][0], 255);
    for (std::size_t i = 2; i < 16; ++i) EXPECT_NEAR(out[i][0], in[i][0], 3);
}

TEST(PaintForm, OneChannelBecomesGrayAndColorBecomesLuma) {
    Image decoded(1, 1, {77, 0, 0, 255});
    EXPECT_EQ(paint_form(Format::BC4, decoded).texels[0], (Texel{77, 77, 77, 255}));
    // Rec. ITU-R BT.709-6: Y = 0.2126 R + 0.7152 G + 0.0722 B.
    EXPECT_EQ(stored_form(Format::BC4, Image(1, 1, {255, 0, 0, 128})).texels[0], (Texel{54, 0, 0, 255}));
    EXPECT_EQ(stored_form(Format::BC5, Image(1, 1, {1, 2, 3, 4})).texels[0], (Texel{1, 2, 0, 255}));
}
