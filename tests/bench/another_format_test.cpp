// Another format as a choice: DDS files read back by ImageMagick (package imagemagick), which decodes BC1 to BC3 by itself.
#include <gtest/gtest.h>
#include <string>

#include "bench/fitting.h"
#include "codec/paint_form.h"
#include "pixel/alpha_use.h"
#include "support/imagemagick.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/dds.h"
#include "texture/ktx2.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

TextureFile open(Bytes file, std::string_view name = "x.dds") {
    auto texture = TextureFile::open(TextureKinds::standard(), std::move(file), name, ReadLimits{});
    EXPECT_TRUE(texture) << (texture ? "" : texture.error().message());
    return texture ? *texture : TextureFile{};
}
Bytes dds_of(Format format, const Image& picture, std::uint32_t mips) {
    const TextureDesc d{format, picture.width, picture.height, 1, mips, 1, 1, ColorSpace::unknown};
    return *write_dds(d, *encode_levels(picture, d, {}));
}
Fit fit_file(const TextureFile& original, const Bytes& file, const FitOptions& options) {
    auto fitted = fit(original, *read_edited(file, ReadLimits{}, "x.png"), options);
    EXPECT_TRUE(fitted) << (fitted ? "" : fitted.error().message());
    return fitted ? *fitted : Fit{};
}
const Finding* with_words(const Fit& fit, std::string_view words) {
    for (const auto& f : fit.findings)
        if (f.headline.find(words) != std::string::npos) return &f;
    return nullptr;
}

}  // namespace

TEST(AnotherFormat, ADdsBecomesOneOfTheChosenFormatAndAnotherProgramReadsIt) {
    const auto picture = smooth_picture(64, 64, 4, true);
    auto file = dds_of(Format::BC1, picture, 7);
    store_le(file.data() + 40, std::uint32_t{0x5AFEC0DE});  // a mark in the words nobody explains
    const auto tail = random_bytes(24, 3);
    file.insert(file.end(), tail.begin(), tail.end());
    const auto original = open(file);
    FitOptions options;
    options.format = Format::BC3;
    const auto made = fit_file(original, *write_png(picture), options);
    ASSERT_FALSE(made.blocked());
    EXPECT_TRUE(made.resized);
    const auto* told = with_words(made, "BC1 becomes BC3");
    ASSERT_TRUE(told);
    // 8 bytes a block become 16; 64×64 and its mips are 256+64+16+4+1+1+1 blocks.
    EXPECT_NE(told->detail.find("2,744 bytes become 5,488"), std::string::npos) << told->detail;
    EXPECT_EQ(told->format, Format::BC1) << "the way back";
    EXPECT_EQ(made.kept_blocks(), 0u);
    EXPECT_EQ(std::count(made.blocks.is_new.begin(), made.blocks.is_new.end(), 1), 256);
    const auto result = open(made.file);
    EXPECT_EQ(result.layout.desc.format, Format::BC3);
    EXPECT_EQ(result.layout.desc.mips, 7u);
    EXPECT_EQ(load_le<std::uint32_t>(made.file.data() + 40), 0x5AFEC0DEu);
    EXPECT_TRUE(std::equal(tail.begin(), tail.end(), made.file.end() - 24)) << "what stands behind stays behind";
    const TempFolder folder;
    put_file(folder / "a.dds", made.file);
    ASSERT_EQ(run_program({"convert", (folder / "a.dds[0]").string(), "PNG32:" + (folder / "a.png").string()}).code, 0);
    const auto theirs = *read_png(get_file(folder / "a.png"), ReadLimits{});
    const auto ours = *result.decode(0);
    for (std::size_t i = 0; i < ours.texels.size(); ++i)
        for (std::size_t c = 0; c < 4; ++c)
            ASSERT_NEAR(theirs.texels[i][c], ours.texels[i][c], 2) << i << ": interpolated values may be rounded another way";
    EXPECT_FALSE(all_opaque(ours)) << "alpha the old format could not hold in steps";
}

TEST(AnotherFormat, WhatIsChosenIsWhatItsOwnFileWouldHold) {
    const auto picture = smooth_picture(32, 32, 6);
    const auto original = open(dds_of(Format::BC1, picture, 1));
    for (const auto format : other_formats(original)) {
        FitOptions options;
        options.format = format;
        const auto made = fit_file(original, *write_png(picture), options);
        ASSERT_FALSE(made.blocked()) << info(format).name;
        const auto direct = *encode(format, stored_form(format, picture));
        EXPECT_EQ(*payload_of(open(made.file)), direct) << info(format).name;
    }
    const auto all = other_formats(original);
    ASSERT_GE(all.size(), 6u);
    EXPECT_EQ(std::find(all.begin(), all.end(), Format::BC1), all.end()) << "it is that already";
    EXPECT_NE(std::find(all.begin(), all.end(), Format::BC7), all.end());
}

TEST(AnotherFormat, AnEditSavedInItGoesInAsItIs) {
    const auto original = open(dds_of(Format::BC1, smooth_picture(32, 32, 4), 3));
    const auto saved = dds_of(Format::BC7, smooth_picture(32, 32, 9), 3);
    const auto offered = fit_file(original, saved, {});
    const auto* choice = with_words(offered, "Saved as BC7");
    ASSERT_TRUE(choice);
    EXPECT_EQ(choice->format, Format::BC7);
    FitOptions options;
    options.format = Format::BC7;
    EXPECT_EQ(*payload_of(open(fit_file(original, saved, options).file)), *payload_of(open(saved))) << "compressed with care once";
}

TEST(AnotherFormat, TogetherWithAnotherSizeAndOnlyWhereTheFileCanSayIt) {
    const auto original = open(dds_of(Format::BC1, smooth_picture(32, 32, 4), 6));
    FitOptions options{.mends = {Mend::keep_size}};
    options.format = Format::BC7;
    const auto both = open(fit_file(original, *write_png(smooth_picture(64, 64, 4)), options).file);
    EXPECT_EQ(both.layout.desc.format, Format::BC7);
    EXPECT_EQ(both.layout.desc.width, 64u);
    EXPECT_EQ(both.layout.desc.mips, 7u);
    const auto png = open(*write_png(smooth_picture(16, 16, 1)), "x.png");
    EXPECT_TRUE(other_formats(png).empty());
    const auto stays = fit_file(png, *write_png(smooth_picture(16, 16, 2)), options);
    EXPECT_TRUE(with_words(stays, "It cannot become BC7"));
    EXPECT_FALSE(stays.resized);
    const TextureDesc cube{Format::BC1, 16, 16, 1, 1, 1, 6, ColorSpace::unknown};
    EXPECT_TRUE(other_formats(open(*write_dds(cube, random_bytes(6 * 128, 1)))).empty());
    const TextureDesc deep{Format::BC6H, 16, 16, 1, 1, 1, 1, ColorSpace::unknown};
    EXPECT_TRUE(other_formats(open(*write_dds(deep, random_bytes(256, 1)))).empty());
}

TEST(AnotherFormat, Ktx2KeepsItsKeysAndGetsTheDescriptor) {
    const auto picture = smooth_picture(32, 32, 4);
    const TextureDesc d{Format::BC1, 32, 32, 1, 3, 1, 1, ColorSpace::srgb};
    const auto original = open(*write_ktx2(d, *encode_levels(picture, d, {}), Supercompression::zstd), "x.ktx2");
    FitOptions options;
    options.format = Format::BC7;
    const auto made = fit_file(original, *write_png(picture), options);
    auto wanted = d;
    wanted.format = Format::BC7;
    EXPECT_EQ(made.file, *write_ktx2(wanted, *payload_of(open(made.file, "x.ktx2")), Supercompression::zstd)) << "as a new file would be";
}
