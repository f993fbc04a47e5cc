// Alpha apart from the picture, and back. Edits are made by ImageMagick (package imagemagick).
#include "bench/alpha_way.h"

#include <gtest/gtest.h>
#include <string>

#include "codec/paint_form.h"
#include "pixel/alpha_use.h"
#include "support/imagemagick.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"
#include "texture/tga.h"

using namespace skivet;
using namespace skivet::test;

namespace {

TextureFile open(Bytes file, std::string_view name = "x") {
    return *TextureFile::open(TextureKinds::standard(), std::move(file), name, ReadLimits{});
}

EditedFile edit_of(const Bytes& file, std::string_view name) {
    auto out = read_edited(file, ReadLimits{}, name);
    EXPECT_TRUE(out) << (out ? "" : out.error().message());
    return out ? *out : EditedFile{};
}

/// The files as a fit of the piece gets them.
Fit fit_of(const TextureFile& original, const AlphaApart& files, std::string_view name, bool with_alpha = true) {
    auto edited = edit_of(files.picture, name);
    const auto gray = with_alpha ? edit_of(files.alpha, name) : EditedFile{};
    const auto put = put_alpha(edited, original, with_alpha ? &gray : nullptr);
    EXPECT_TRUE(put) << (put ? "" : put.error().message());
    return *fit(original, std::move(edited), {});
}

bool gray_and_opaque(const Image& image) {
    return std::all_of(image.texels.begin(), image.texels.end(),
                       [](const Texel& t) { return t[0] == t[1] && t[1] == t[2] && t[3] == 255; });
}

struct Apart : testing::TestWithParam<std::tuple<Format, ExportAs>> {};

}  // namespace

TEST_P(Apart, WhatNobodyPaintedGoesBackBitForBit) {
    const auto [format, as] = GetParam();
    const auto original = open(make_dds(format, 32, 24), "x.dds");
    const auto files = export_alpha_apart(original, as);
    ASSERT_TRUE(files) << files.error().message();
    const auto name = std::string("x") + std::string(extension_of(as));
    EXPECT_TRUE(all_opaque(edit_of(files->picture, name).image));
    EXPECT_TRUE(gray_and_opaque(edit_of(files->alpha, name).image));
    EXPECT_EQ(fit_of(original, *files, name).file, original.file);
    EXPECT_EQ(fit_of(original, *files, name, false).file, original.file) << "left out, the original's comes back";
}

INSTANTIATE_TEST_SUITE_P(Ways, Apart,
                         testing::Combine(testing::Values(Format::BC3, Format::BC7, Format::BGRA8, Format::RGBA16, Format::RGBA8_SNORM),
                                          testing::Values(ExportAs::png, ExportAs::png16, ExportAs::tiff, ExportAs::tga)));

TEST(AlphaApart, AnEditOfTheGrayPictureChangesAlphaAlone) {
    const auto original = open(make_dds(Format::BGRA8, 32, 32), "x.dds");
    auto files = *export_alpha_apart(original, ExportAs::png);
    const auto gray = *read_png(files.alpha, ReadLimits{});
    files.alpha = file_by_imagemagick(gray, {"-negate"}, "PNG24:.png");
    const auto fitted = fit_of(original, files, "x.png");
    for (std::size_t i = 0; i < gray.texels.size(); ++i) {
        auto wanted = fitted.original->texels[i];
        wanted[3] = std::uint8_t(255 - wanted[3]);
        ASSERT_EQ(fitted.result->texels[i], wanted) << i;
    }
}

TEST(AlphaApart, AnOpaqueEditGetsTheOriginalsAlphaAndTheHiddenColorsStay) {
    const auto original = open(make_dds(Format::BGRA8, 32, 32), "x.dds");
    const auto files = *export_alpha_apart(original, ExportAs::png);
    const auto flat = *read_png(files.picture, ReadLimits{});
    // A program without alpha: three channels come back.
    const AlphaApart saved{file_by_imagemagick(flat, {"-fill", "#10e020", "-draw", "rectangle 4,4 9,9"}, "PNG24:.png"), {}};
    const auto fitted = fit_of(original, saved, "x.png", false);
    EXPECT_EQ(fitted.change.changed_texels, 36u);
    for (std::uint32_t y = 0; y < 32; ++y)
        for (std::uint32_t x = 0; x < 32; ++x) {
            const auto own = fitted.original.at(x, y);
            const bool painted = x >= 4 && x <= 9 && y >= 4 && y <= 9;
            ASSERT_EQ(fitted.result.at(x, y), painted ? (Texel{0x10, 0xe0, 0x20, own[3]}) : own) << x << ' ' << y;
        }
}

TEST(AlphaApart, OfAnotherSizeItIsScaledAndTwoSizesAreRefused) {
    const auto original = open(make_dds(Format::BC3, 32, 32), "x.dds");
    auto edited = EditedFile{};
    edited.image = Image(64, 64, {9, 9, 9, 255});
    ASSERT_TRUE(put_alpha(edited, original, nullptr));
    auto gray_own = *original.decode(0);
    for (auto& t : gray_own.texels) t = {t[3], t[3], t[3], 255};
    const auto scaled = by_imagemagick(gray_own, {"-filter", "triangle", "-resize", "200%"});
    for (std::size_t i = 0; i < scaled.texels.size(); ++i)
        ASSERT_NEAR(edited.image.texels[i][3], scaled.texels[i][0], 1) << i << ": rounded once here, once there";
    EditedFile gray;
    gray.image = Image(32, 32);
    const auto refused = put_alpha(edited, original, &gray);
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, ErrorCode::unfit);
    EXPECT_NE(refused.error().message().find("alpha is 32×32, the picture 64×64"), std::string::npos);
}

TEST(AlphaApart, FormatsWithoutAlphaAndFilesThatKeepItAreLeftAlone) {
    const auto opaque = open(make_dds(Format::BC5, 16, 16), "x.dds");
    EXPECT_FALSE(can_split_alpha(ExportAs::png, opaque.layout.desc));
    EXPECT_EQ(export_alpha_apart(opaque, ExportAs::png).error().code, ErrorCode::usage);
    EditedFile edited;
    edited.image = Image(16, 16, {1, 2, 3, 77});
    ASSERT_TRUE(put_alpha(edited, opaque, nullptr));
    EXPECT_EQ(edited.image.at(3, 3)[3], 77);
    const auto with = open(make_dds(Format::BC3, 16, 16), "x.dds");
    for (const auto as : {ExportAs::dds, ExportAs::ktx2, ExportAs::exr, ExportAs::raw}) EXPECT_FALSE(can_split_alpha(as, with.layout.desc));
    EXPECT_EQ(alpha_way_named("split"), AlphaWay::apart);
    EXPECT_EQ(alpha_way_named("beside"), std::nullopt);
}

TEST(ProposedExport, LosesNothingAndAnEditComesBackByIt) {
    const auto as = [](Format format, std::uint32_t depth = 1, std::uint32_t layers = 1, std::uint32_t faces = 1) {
        return propose_export({format, 16, 16, depth, 1, layers, faces, ColorSpace::unknown}).as;
    };
    EXPECT_EQ(as(Format::BC1), ExportAs::png);
    EXPECT_EQ(as(Format::BC7), ExportAs::png);
    EXPECT_EQ(as(Format::B5G6R5), ExportAs::png);
    EXPECT_EQ(as(Format::RGBA16), ExportAs::png16);
    EXPECT_EQ(as(Format::RGB10A2), ExportAs::png16);
    EXPECT_EQ(as(Format::BC6H), ExportAs::exr);
    EXPECT_EQ(as(Format::R11G11B10F), ExportAs::exr);
    EXPECT_EQ(as(Format::R16_UINT), ExportAs::dds);
    EXPECT_EQ(as(Format::BC1, 4), ExportAs::dds) << "a volume";
    EXPECT_EQ(as(Format::BC1, 1, 3), ExportAs::dds) << "an array";
    EXPECT_EQ(as(Format::BC1, 1, 1, 6), ExportAs::png) << "a cubemap is a cross";
    for (const auto format : formats_by_use())
        if (!can_encode(format)) EXPECT_EQ(as(format), ExportAs::ktx2) << info(format).name << " is only read";
    // Each of them by its own trip: nothing is painted, nothing changes.
    for (const auto format :
         {Format::BC1, Format::BC5_SNORM, Format::RGBA16, Format::RGB10A2, Format::BC6H, Format::RGBA16F, Format::R16_UINT}) {
        const TextureDesc d{format, 16, 16, 1, 1, 1, 1, ColorSpace::unknown};
        const auto picture = smooth_picture(16, 16, 5, true);
        const auto original = open(make_file(d, *encode(format, picture)), "x.dds");
        const auto way = propose_export(d).as;
        const auto file = export_as(original, way);
        ASSERT_TRUE(file) << info(format).name << ": " << file.error().message();
        const auto fitted = fit(original, edit_of(*file, "x" + std::string(extension_of(way))), {});
        ASSERT_TRUE(fitted) << info(format).name;
        EXPECT_EQ(fitted->file, original.file) << info(format).name << " as " << name_of(way);
    }
}
