// The raw lens: bytes as pixels, and what is suggested for them.
#include <gtest/gtest.h>
#include <string>

#include "codec/codec.h"
#include "codec/paint_form.h"
#include "sheet/raw_lens.h"
#include "sheet/texture_sheet.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// A picture with shapes at several scales, none of them periodic.
Image scene(std::uint32_t w, std::uint32_t h) {
    Image out(w, h);
    for (std::uint32_t y = 0; y < h; ++y)
        for (std::uint32_t x = 0; x < w; ++x) {
            const double a = std::sin(x * 0.071 + y * 0.013) + std::sin(y * 0.049 - x * 0.017), b = std::hypot(x - w * 0.4, y - h * 0.6);
            const bool disc = b < h * 0.3, bar = (x * 3 + y) % 211 < 40;
            out.at(x, y) = {static_cast<std::uint8_t>(disc ? 200 + 20 * a : 90 + 40 * a),
                            static_cast<std::uint8_t>(bar ? 60 : 120 + 30 * a), static_cast<std::uint8_t>(40 + b * 150 / (w + h)),
                            static_cast<std::uint8_t>(disc ? 255 : 180)};
        }
    return out;
}

Bytes file_with(std::uint64_t offset, const Bytes& pixels) {
    Bytes out(static_cast<std::size_t>(offset), std::byte{0x7E});
    out.insert(out.end(), pixels.begin(), pixels.end());
    return out;
}

}  // namespace

TEST(RawLens, ShowsWhatWasPutThere) {
    const auto picture = scene(200, 120);
    for (const auto format : {Format::RGBA8, Format::BGRA8, Format::RGB8, Format::B5G6R5, Format::BC1, Format::BC3, Format::BC7}) {
        const auto pixels = encode(format, stored_form(format, picture));
        ASSERT_TRUE(pixels);
        Lens lens;
        lens.format = format;
        lens.width = 200;
        lens.offset = 100;
        const auto data = file_with(100, *pixels);
        EXPECT_EQ(lens_height(lens, data.size()), 120u) << info(format).name;
        const auto seen = picture_through(lens, data);
        ASSERT_TRUE(seen);
        EXPECT_EQ(*seen, paint_form(format, *decode(format, *pixels, 200, 120))) << info(format).name;
        EXPECT_EQ(lens_bytes(lens, data.size()), pixels->size());
    }
}

TEST(RawLens, PitchTilingAndPalette) {
    const auto picture = scene(64, 32);
    const auto pixels = *encode(Format::RGBA8, picture);
    Lens lens;
    lens.width = 64;
    lens.height = 32;
    lens.pitch = 300;
    Bytes pitched(300 * 32, std::byte{9});
    for (std::size_t y = 0; y < 32; ++y)
        std::copy_n(pixels.begin() + static_cast<std::ptrdiff_t>(y * 256), 256, pitched.begin() + static_cast<std::ptrdiff_t>(y * 300));
    EXPECT_EQ(*picture_through(lens, pitched), picture);
    lens.pitch = 0;
    lens.tiling.tiling = Tiling::morton;
    EXPECT_EQ(*picture_through(lens, *tile(lens.tiling, Format::RGBA8, 64, 32, pixels)), picture);
    lens.tiling = {Tiling::block_linear, 2};
    EXPECT_EQ(*picture_through(lens, *tile(lens.tiling, Format::RGBA8, 64, 32, pixels)), picture);

    // Sixteen gray entries behind the numbers; the lower half of a byte is the left texel.
    Bytes indexed = {std::byte{0x10}, std::byte{0x32}, std::byte{0xFE}, std::byte{0x45}};
    for (unsigned i = 0; i < 16; ++i)
        indexed.insert(indexed.end(),
                       {static_cast<std::byte>(i * 17), static_cast<std::byte>(i * 17), static_cast<std::byte>(i * 17), std::byte{255}});
    Lens palette;
    palette.palette_bits = 4;
    palette.palette_at = 4;
    palette.width = 4;
    palette.height = 2;
    const auto seen = picture_through(palette, indexed);
    ASSERT_TRUE(seen);
    const unsigned expected[] = {0, 1, 2, 3, 14, 15, 5, 4};
    for (std::size_t i = 0; i < 8; ++i) EXPECT_EQ(seen->texels[i][0], expected[i] * 17) << i;
}

TEST(RawLens, SuggestsTheWidth) {
    for (const auto& [w, h] : {std::pair{256u, 128u}, std::pair{200u, 150u}, std::pair{512u, 96u}, std::pair{1024u, 80u}}) {
        const auto picture = scene(w, h);
        for (const auto format :
             {Format::RGBA8, Format::RGB8, Format::R8, Format::B5G6R5, Format::BC1, Format::BC3, Format::BC7, Format::BC4}) {
            const auto pixels = encode(format, stored_form(format, picture));
            ASSERT_TRUE(pixels);
            Lens lens;
            lens.format = format;
            lens.offset = 64;
            const auto widths = suggest_widths(lens, file_with(64, *pixels));
            ASSERT_FALSE(widths.empty()) << w << " " << info(format).name;
            EXPECT_EQ(widths.front().width, w) << info(format).name;
        }
    }
}

TEST(RawLens, SuggestsTheFormat) {
    const auto picture = scene(256, 160);
    for (const auto format : {Format::RGBA8, Format::RGB8, Format::BC1, Format::BC3, Format::BC4, Format::BC7}) {
        const auto pixels = encode(format, stored_form(format, picture));
        ASSERT_TRUE(pixels);
        const auto found = suggest_formats(file_with(48, *pixels), 48);
        ASSERT_FALSE(found.empty()) << info(format).name;
        EXPECT_EQ(info(found.front().format).name, info(format).name);
    }
    Bytes noise(100'000);
    std::uint32_t state = 5;
    for (auto& b : noise) state = state * 1664525u + 1013904223u, b = static_cast<std::byte>(state >> 24);
    EXPECT_TRUE(suggest_formats(noise, 0).empty());
    EXPECT_TRUE(suggest_formats(noise, noise.size() + 5).empty());
}

TEST(RawLens, WhatWasFoundBecomesASheet) {
    const auto picture = scene(128, 64);
    for (const auto tiling : {Tiling::linear, Tiling::morton, Tiling::block_linear}) {
        const auto pixels = *encode(Format::BC1, picture);
        Lens lens;
        lens.format = Format::BC1;
        lens.width = 128;
        lens.height = 64;
        lens.offset = 24;
        lens.tiling = {tiling, 2};
        const auto data = file_with(24, tiling == Tiling::linear ? pixels : *tile(lens.tiling, Format::BC1, 128, 64, pixels));
        const auto toml = sheet_of(lens, data, "Found", "wall.tex");
        ASSERT_TRUE(toml);
        const auto sheet = parse_sheet(*toml, "found.toml");
        ASSERT_TRUE(sheet) << sheet.error().message() << *toml;
        TextureKinds kinds;
        kinds.add(std::make_shared<SheetTextureKind>(*sheet));
        const auto texture = TextureFile::open(kinds, data, "somewhere/wall.tex", ReadLimits{});
        ASSERT_TRUE(texture) << *toml;
        EXPECT_EQ(*texture->decode(), *picture_through(lens, data));
    }
    Lens lens;
    lens.palette_bits = 8;
    EXPECT_FALSE(sheet_of(lens, Bytes(5000), "x", "x"));
}

TEST(RawLens, RefusesWhatMakesNoSense) {
    const Bytes data(1000);
    Lens lens;
    lens.width = 0;
    EXPECT_FALSE(picture_through(lens, data));
    lens.width = 20'000;
    EXPECT_FALSE(picture_through(lens, data));
    lens.width = 16;
    lens.offset = 1000;
    const auto behind = picture_through(lens, data);
    ASSERT_FALSE(behind);
    EXPECT_NE(behind.error().message().find("0 bytes are left"), std::string::npos) << behind.error().message();
    lens.offset = 0;
    lens.pitch = 8;
    EXPECT_FALSE(picture_through(lens, data));
    lens.pitch = 0;
    lens.height = 100;  // reaches behind the end: what is missing is zero
    const auto seen = picture_through(lens, data);
    ASSERT_TRUE(seen);
    EXPECT_EQ(seen->height, 100u);
    lens.width = lens.height = 16'384;  // a gigabyte of texels
    const auto huge = picture_through(lens, data);
    ASSERT_FALSE(huge);
    EXPECT_EQ(huge.error().code, ErrorCode::limit);
    lens.width = 16;
    lens.height = 100;
    lens.palette_bits = 8;
    lens.format = Format::BC1;
    EXPECT_FALSE(picture_through(lens, data));
    EXPECT_TRUE(suggest_widths(Lens{}, data).empty());
}
