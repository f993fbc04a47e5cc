#include <gtest/gtest.h>
#include <string>

#include "bench/export.h"
#include "bench/fitting.h"
#include "codec/codec.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// A DDS file of random numbers; 4 bits: the first texel of two in the lower half of a byte.
Bytes palette_file(bool four, bool alpha, std::uint32_t w, std::uint32_t h, std::uint32_t mips, unsigned colors) {
    const TextureDesc d{Format::L8, w, h, 1, mips, 1, 1, ColorSpace::unknown};
    auto file = *write_dds(d, {});
    store_le<std::uint32_t>(file.data() + 80, (four ? 0x8u : 0x20u) | (alpha ? 1u : 0u));
    store_le<std::uint32_t>(file.data() + 88, four ? 4 : 8);
    for (std::size_t at = 92; at < 108; at += 4) store_le<std::uint32_t>(file.data() + at, 0);
    const auto palette = random_bytes(four ? 64 : 1024, 3);
    file.insert(file.end(), palette.begin(), palette.end());
    std::mt19937 random(4);
    for (std::uint32_t mip = 0; mip < mips; ++mip) {
        const auto width = mip_side(w, mip), height = mip_side(h, mip);
        for (std::uint32_t i = 0; i < (four ? (width + 1) / 2 : width) * height; ++i)
            file.push_back(static_cast<std::byte>(four ? (random() % colors) | (random() % colors) << 4 : random() % colors));
    }
    return file;
}

TextureFile open(const Bytes& file) {
    auto texture = TextureFile::open(TextureKinds::standard(), file, "a.dds", ReadLimits{});
    EXPECT_TRUE(texture) << (texture ? "" : texture.error().message());
    return texture ? *texture : TextureFile{};
}

}  // namespace

TEST(DdsPalette, UnchangedIsIdenticalAndEntriesMeanWhatTheySay) {
    for (bool four : {false, true})
        for (bool alpha : {false, true})
            for (auto [w, h] : {std::pair{16u, 8u}, {13u, 5u}, {1u, 1u}}) {
                const auto file = palette_file(four, alpha, w, h, full_mip_count(w, h), four ? 16 : 200);
                const auto texture = open(file);
                ASSERT_EQ(texture.kind->name(), "DDS palette");
                ASSERT_EQ(texture.layout.desc.format, alpha ? Format::RGBA8 : Format::RGB8);
                const auto image = *texture.decode(0);
                const auto number = static_cast<unsigned>(file[128 + (four ? 64 : 1024)]) & (four ? 15u : 255u);
                for (std::size_t c = 0; c < 3; ++c) EXPECT_EQ(image.at(0, 0)[c], static_cast<unsigned>(file[128 + number * 4 + c]));
                EXPECT_EQ(image.at(0, 0)[3], alpha ? static_cast<unsigned>(file[128 + number * 4 + 3]) : 255u);
                EXPECT_EQ(fit(texture, *read_edited(*export_png(texture), ReadLimits{}), {})->file, file);
            }
}

TEST(DdsPalette, AnEditUsesThePaletteOrFreeEntriesAndOtherLevelsStay) {
    for (bool four : {false, true}) {
        const auto file = palette_file(four, true, 16, 16, 1, four ? 12 : 100);
        const auto texture = open(file);
        auto image = *texture.decode(0);
        image.at(3, 3) = image.at(9, 9);
        image.at(4, 4) = {1, 2, 3, 250};
        const auto fitted = *fit(texture, *read_edited(*write_png(image), ReadLimits{}), {});
        EXPECT_EQ(*open(fitted.file).decode(0), image) << "a new color takes an entry nobody uses";
        std::size_t changed = 0;
        for (std::size_t i = 0; i < file.size(); ++i) changed += file[i] != fitted.file[i];
        EXPECT_LE(changed, 6u) << "two numbers and one entry";
    }
    // With mips: levels that were not touched keep every byte, though the palette is shared.
    const auto file = palette_file(false, false, 64, 64, 7, 256);
    const auto texture = open(file);
    auto image = *texture.decode(0);
    for (std::uint32_t y = 0; y < 8; ++y)
        for (std::uint32_t x = 0; x < 8; ++x)
            image.at(x, y) = {static_cast<std::uint8_t>(x * 30), static_cast<std::uint8_t>(y * 30), 77, 255};
    const auto fitted = *fit(texture, *read_edited(*write_png(image), ReadLimits{}), {});
    const auto again = open(fitted.file);
    for (std::uint32_t mip = 0; mip < 3; ++mip) {
        const auto before = *texture.decode(mip), after = *again.decode(mip);
        for (std::uint32_t y = 0; y < before.height; ++y)
            for (std::uint32_t x = 0; x < before.width; ++x)
                if (x >= (8u >> mip) + 1 || y >= (8u >> mip) + 1) ASSERT_EQ(after.at(x, y), before.at(x, y)) << mip;
    }
    for (std::uint32_t i = 0; i < 8; ++i)
        EXPECT_NEAR(again.decode(0)->at(i, i)[0], i * 30, 100) << "all entries are in use: the nearest there is";
}

TEST(DdsPalette, CutOffFilesSayWhatIsMissing) {
    const auto file = palette_file(false, false, 16, 16, 1, 256);
    const auto texture = TextureFile::open(TextureKinds::standard(), Bytes(file.begin(), file.begin() + 1000), "a.dds", ReadLimits{});
    ASSERT_FALSE(texture);
    EXPECT_NE(texture.error().message().find("need 1,280 bytes, have 872"), std::string::npos) << texture.error().message();
}
