// Maps that are made of another one. The ones here are made by ImageMagick (package imagemagick), outlines and normals by touch-ups, which
// have tests of their own.
#include "bench/derived_map.h"

#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "bench/fitting.h"
#include "support/imagemagick.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

TextureFile texture_of(const Image& picture, Format format) {
    const TextureDesc d{format, picture.width, picture.height, 1, 1, 1, 1, ColorSpace::unknown};
    return *TextureFile::open(TextureKinds::standard(), make_file(d, *encode_levels(picture, d, {})), "x.dds", ReadLimits{});
}

/// Painted areas with hard edges over a gradient, and an alpha of its own.
Image board(unsigned seed, std::uint32_t side = 128) {
    std::mt19937 random(seed);
    Image out(side, side);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x)
            out.at(x, y) = {std::uint8_t(60 + 100 * x / side), std::uint8_t(40 + 80 * y / side), 90, std::uint8_t(255 * y / side)};
    for (int k = 0; k < 12; ++k) {
        const auto w = 10 + random() % 30, h = 10 + random() % 30, x0 = random() % (side - w), y0 = random() % (side - h);
        const Texel color{std::uint8_t(random()), std::uint8_t(random()), std::uint8_t(random()), std::uint8_t(random())};
        for (auto y = y0; y < y0 + h; ++y)
            for (auto x = x0; x < x0 + w; ++x) out.at(std::uint32_t(x), std::uint32_t(y)) = color;
    }
    return out;
}

Image made(Image picture, const std::vector<std::string>& way) {
    const auto touches = parse_way(way);
    EXPECT_TRUE(touches);
    EXPECT_TRUE(touch(picture, *touches, {}));
    return picture;
}

std::string found(const TextureFile& base, const TextureFile& map) {
    const auto rule = find_derivation(base, map);
    EXPECT_TRUE(rule);
    return rule && *rule ? describe_way((*rule)->way) : "";
}

}  // namespace

TEST(DerivedMap, GrayAndAlphaAndAChannelMadeByImageMagick) {
    const auto picture = board(3);
    const auto base = texture_of(picture, Format::BC7);
    const auto map = [&](const std::vector<std::string>& does, Format format) {
        return texture_of(*read_png(file_by_imagemagick(picture, does, "PNG24:.png"), ReadLimits{}), format);
    };
    EXPECT_EQ(found(base, map({"-alpha", "off", "-grayscale", "Rec709Luminance"}, Format::BC4)), "its gray");
    EXPECT_EQ(found(base, map({"-alpha", "extract"}, Format::BC1)), "its alpha");
    EXPECT_EQ(found(base, map({"-channel", "G", "-separate"}, Format::BC4)), "its green");
    EXPECT_EQ(found(base, map({"-alpha", "extract", "-filter", "box", "-resize", "50%"}, Format::BC4)), "its alpha") << "half as large";
}

TEST(DerivedMap, OutlinesAndNormalsInTheirConvention) {
    const auto picture = board(4);
    const auto base = texture_of(picture, Format::BC7);
    EXPECT_EQ(found(base, texture_of(made(picture, {"edges", "alpha"}), Format::BC4)), "its outlines");
    EXPECT_EQ(found(base, texture_of(made(picture, {"edges=lines:dark", "alpha"}), Format::BC1)), "its outlines, dark");
    // Of a height map, in both conventions.
    auto heights = smooth_picture(128, 128, 7);
    heights = made(heights, {"gray", "alpha", "soften=2"});
    const auto height_map = texture_of(heights, Format::BC4);
    for (const std::string green : {"up", "down"}) {
        const auto rule = find_derivation(height_map, texture_of(made(heights, {"normals=height:8,green:" + green, "alpha"}), Format::BC7));
        ASSERT_TRUE(rule && *rule) << green;
        EXPECT_EQ((*rule)->way.front(), green == "up" ? "normals=height:8" : "normals=height:8,green:down");
        EXPECT_GE((*rule)->explained, 0.95);
    }
}

TEST(DerivedMap, WhatIsPaintedByItselfIsMadeOfNothing) {
    const auto base = texture_of(board(5), Format::BC7);
    EXPECT_EQ(found(base, texture_of(board(6), Format::BC7)), "") << "another picture";
    EXPECT_EQ(found(base, texture_of(by_imagemagick(board(5), {"-alpha", "off", "-negate", "-grayscale", "Rec709Luminance"}), Format::BC4)),
              "")
        << "its gray the other way round";
    EXPECT_EQ(found(base, texture_of(Image(128, 128, {120, 120, 120, 255}), Format::BC1)), "") << "flat";
    CancelToken cancel;
    cancel.cancel();
    EXPECT_EQ(find_derivation(base, texture_of(board(6), Format::BC1), cancel).error().code, ErrorCode::canceled);
}
