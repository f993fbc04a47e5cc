// Forms in which a texture leaves, and what a picture file says about its colors.
#include "bench/export.h"

#include <gtest/gtest.h>
#include <lcms2.h>
#include <spng.h>

#include <cmath>
#include <string>
#include <vector>

#include "bench/color_match.h"
#include "bench/cube.h"
#include "codec/paint_form.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

TextureFile wild(Format format, std::uint32_t faces = 1, std::uint32_t side = 32) {
    const TextureDesc d{format, side, side, 1, full_mip_count(side, side), 1, faces, ColorSpace::unknown};
    std::uint64_t end = 0;
    (void)lay_out(d, 0, MipOrder::largest_first, 1, end);
    return *TextureFile::open(TextureKinds::standard(), make_file(d, random_bytes(static_cast<std::size_t>(end), 7)), "x", ReadLimits{});
}

Bytes png_with(const Image& image, double gamma, const Bytes& profile) {
    const std::unique_ptr<spng_ctx, decltype(&spng_ctx_free)> context(spng_ctx_new(SPNG_CTX_ENCODER), &spng_ctx_free);
    spng_set_option(context.get(), SPNG_ENCODE_TO_BUFFER, 1);
    spng_ihdr header{image.width, image.height, 8, SPNG_COLOR_TYPE_TRUECOLOR_ALPHA, 0, 0, 0};
    spng_set_ihdr(context.get(), &header);
    if (gamma > 0) spng_set_gama(context.get(), gamma);
    spng_iccp icc{};
    if (!profile.empty()) {
        std::strcpy(icc.profile_name, "paint");
        icc.profile_len = profile.size();
        icc.profile = const_cast<char*>(reinterpret_cast<const char*>(profile.data()));
        spng_set_iccp(context.get(), &icc);
    }
    EXPECT_EQ(spng_encode_image(context.get(), image.texels.data(), image.texels.size() * 4, SPNG_FMT_PNG, SPNG_ENCODE_FINALIZE), 0);
    std::size_t size = 0;
    int code = 0;
    const std::unique_ptr<void, decltype(&std::free)> buffer(spng_get_png_buffer(context.get(), &size, &code), &std::free);
    Bytes out(size);
    std::memcpy(out.data(), buffer.get(), size);
    return out;
}

/// A profile with sRGB's primaries and white and a plain gamma.
Bytes gamma_profile(double gamma) {
    const cmsCIExyY white = {0.3127, 0.3290, 1};
    const cmsCIExyYTRIPLE primaries = {{0.64, 0.33, 1}, {0.30, 0.60, 1}, {0.15, 0.06, 1}};
    auto* curve = cmsBuildGamma(nullptr, gamma);
    cmsToneCurve* curves[3] = {curve, curve, curve};
    auto* profile = cmsCreateRGBProfile(&white, &primaries, curves);
    cmsUInt32Number size = 0;
    cmsSaveProfileToMem(profile, nullptr, &size);
    Bytes out(size);
    cmsSaveProfileToMem(profile, out.data(), &size);
    cmsCloseProfile(profile);
    cmsFreeToneCurve(curve);
    return out;
}

Bytes srgb_profile() {
    auto* profile = cmsCreate_sRGBProfile();
    cmsUInt32Number size = 0;
    cmsSaveProfileToMem(profile, nullptr, &size);
    Bytes out(size);
    cmsSaveProfileToMem(profile, out.data(), &size);
    cmsCloseProfile(profile);
    return out;
}

}  // namespace

class EveryWayOut : public testing::TestWithParam<Format> {};
INSTANTIATE_TEST_SUITE_P(Formats, EveryWayOut, testing::ValuesIn([] {
                             std::vector<Format> all;
                             for (const auto& f : all_formats())
                                 if (can_encode(f.format)) all.push_back(f.format);
                             return all;
                         }()),
                         [](const auto& param) { return std::string(skivet::info(param.param).name); });

TEST_P(EveryWayOut, IsIdenticalWhenNothingWasPainted) {
    const auto original = wild(GetParam());
    for (auto as : {ExportAs::picture, ExportAs::png16, ExportAs::exr}) {
        const auto edited = read_edited(*export_as(original, as), ReadLimits{});
        ASSERT_TRUE(edited) << name_of(as);
        const auto fitted = fit(original, *edited, {});
        ASSERT_TRUE(fitted);
        EXPECT_EQ(fitted->new_blocks(), 0u) << name_of(as);
        EXPECT_EQ(fitted->file, original.file) << name_of(as);
    }
}

TEST_P(EveryWayOut, ACubemapIsACrossThatBringsBackEveryFace) {
    const auto original = wild(GetParam(), 6, 16);
    const auto edited = read_edited(*export_as(original, ExportAs::png), ReadLimits{});
    ASSERT_TRUE(edited);
    ASSERT_EQ(edited->image.width, 64u);
    ASSERT_EQ(edited->image.height, 48u);
    EXPECT_EQ(fit(original, *edited, {})->file, original.file);
    auto painted = edited->image;
    const auto [column, row] = cross_cells[3];
    for (auto& c : painted.at(column * 16 + 5, row * 16 + 6)) c = static_cast<std::uint8_t>(c ^ 0x80);
    if (!info(GetParam()).has_alpha) painted.at(column * 16 + 5, row * 16 + 6)[3] = 255;
    painted.at(1, 1) = {99, 99, 99, 255};  // a corner belongs to no face
    const auto fitted = fit(original, *read_edited(*write_png(painted), ReadLimits{}), {});
    ASSERT_TRUE(fitted);
    ASSERT_FALSE(fitted->file.empty());
    EXPECT_EQ(fitted->levels[0].blocks - fitted->levels[0].kept, 1u);
    const auto again = *TextureFile::open(TextureKinds::standard(), fitted->file, "x", ReadLimits{});
    for (std::uint32_t face = 0; face < 6; ++face)
        EXPECT_EQ(*again.surface_bytes(*again.layout.find(0, 0, face)) == *original.surface_bytes(*original.layout.find(0, 0, face)),
                  face != 3)
            << face;
}

TEST(Export, FloatsLeaveAsOpenExrAndOthersAsPng) {
    EXPECT_EQ(decided(ExportAs::picture, Format::BC6H), ExportAs::exr);
    EXPECT_EQ(decided(ExportAs::picture, Format::BC7), ExportAs::png);
    EXPECT_EQ(decided(ExportAs::dds, Format::BC6H), ExportAs::dds);
    for (auto as : {ExportAs::picture, ExportAs::png, ExportAs::png16, ExportAs::exr, ExportAs::dds, ExportAs::ktx2})
        EXPECT_EQ(export_named(name_of(as)), as);
    EXPECT_FALSE(export_named("gif"));
}

TEST(Export, SixteenBitsHoldWhatInterpolationHas) {
    // BC4 interpolates between its endpoints in steps finer than 1/255 (Khronos Data Format Specification 1.3, section 19.4: division by
    // 7).
    Bytes block = {std::byte{100},  std::byte{97},   std::byte{0b10001010}, std::byte{0xC6},
                   std::byte{0xFA}, std::byte{0x88}, std::byte{0xC6},       std::byte{0xFA}};
    const TextureDesc d{Format::BC4, 4, 4, 1, 1, 1, 1, ColorSpace::linear};
    const auto texture = *TextureFile::open(TextureKinds::standard(), *write_dds(d, block), "x", ReadLimits{});
    const auto wide = **read_png_wide(*export_png(texture, {}, true), ReadLimits{});
    const auto code = (std::uint64_t{0x88FAC68A} | std::uint64_t{0xFAC6} << 32) & 7;
    ASSERT_EQ(code, 2u);
    EXPECT_NEAR(wide.at(0, 0)[0], (6 * 100 + 97) / 7.0 / 255, 1.0 / 65535) << "code 2 is six sevenths of the first endpoint";
    EXPECT_FALSE(*read_png_wide(*export_png(texture), ReadLimits{})) << "8 bits unless asked";
}

TEST(Export, OpenExrHoldsLightWhereTheTextureIsColor) {
    // Half of the range of an sRGB texture is 0.216 of light (IEC 61966-2-1); of a gloss map it is a half.
    for (auto color : {ColorSpace::srgb, ColorSpace::unknown, ColorSpace::linear}) {
        const TextureDesc d{Format::RGBA8, 4, 4, 1, 1, 1, 1, color};
        const auto texture = *TextureFile::open(TextureKinds::standard(), *write_dds(d, Bytes(64, std::byte{128})), "x", ReadLimits{});
        auto edited = *read_edited(*export_exr(texture), ReadLimits{});
        ASSERT_TRUE(edited.values);
        EXPECT_NEAR(edited.values->at(0, 0)[0], texture.layout.desc.color == ColorSpace::linear ? 0.50196 : 0.21586, 2e-4);
        EXPECT_NEAR(edited.values->at(0, 0)[3], 0.50196, 2e-4);
        edited.values->at(2, 2) = {1, 1, 1, 0.50196f};
        const auto fitted = *fit(texture, edited, {});
        EXPECT_EQ(fitted.result.at(2, 2), (Texel{255, 255, 255, 128}));
        EXPECT_EQ(fitted.result.at(1, 2), (Texel{128, 128, 128, 128}));
    }
}

TEST(ColorMatch, SrgbUnderAnyNameIsLeftAlone) {
    const auto image = random_picture(16, 16, 3);
    for (const auto& file : {*write_png(image, true), *write_png(image), png_with(image, 1 / 2.2, {}), png_with(image, 0.45455, {}),
                             png_with(image, 0, srgb_profile())}) {
        auto edited = *read_edited(file, ReadLimits{});
        EXPECT_EQ(match_color(edited), "");
        EXPECT_EQ(edited.image, image);
    }
}

TEST(ColorMatch, AStatedGammaIsConverted) {
    // PNG specification, 3rd edition, 11.3.2.1: sample = light^gamma. With gamma 1 the samples are light: half of it is 188 in sRGB.
    auto edited = *read_edited(png_with(Image(4, 4, {128, 0, 255, 77}), 1, {}), ReadLimits{});
    EXPECT_NE(match_color(edited).find("gamma of 1"), std::string::npos);
    EXPECT_EQ(edited.image.at(1, 1), (Texel{188, 0, 255, 77}));
}

TEST(ColorMatch, AProfileIsConverted) {
    // The same light through a profile of gamma 1.8 instead of sRGB's curve: 128 there is (128/255)^1.8 of light.
    const double expected = std::round(255 * linear_to_srgb(static_cast<float>(std::pow(128 / 255.0, 1.8))));
    auto edited = *read_edited(png_with(Image(4, 4, {128, 128, 128, 9}), 0, gamma_profile(1.8)), ReadLimits{});
    EXPECT_NE(match_color(edited).find("profile"), std::string::npos);
    for (std::size_t c = 0; c < 3; ++c) EXPECT_NEAR(edited.image.at(0, 0)[c], expected, 1);
    EXPECT_EQ(edited.image.at(0, 0)[3], 9) << "alpha is no color";
    auto damaged = *read_edited(png_with(Image(4, 4), 0,
                                         bytes_of("no profile at all, but long enough to be looked at as if it were one; and so on and on "
                                                  "and on until 128 bytes have come together, at last")),
                                ReadLimits{});
    EXPECT_NE(match_color(damaged).find("damaged"), std::string::npos);
}

TEST(ColorMatch, FittingConvertsColorsButNeverData) {
    const auto light = png_with(Image(16, 16, {128, 128, 128, 255}), 1, {});
    for (auto color : {ColorSpace::srgb, ColorSpace::linear}) {
        const TextureDesc d{Format::RGBA8, 16, 16, 1, 1, 1, 1, color};
        const auto original = *TextureFile::open(TextureKinds::standard(), *write_dds(d, Bytes(1024, std::byte{255})), "x", ReadLimits{});
        const auto fitted = *fit(original, *read_edited(light, ReadLimits{}), {});
        EXPECT_EQ(fitted.result.at(0, 0)[0], color == ColorSpace::srgb ? 188 : 128);
        EXPECT_EQ(std::any_of(fitted.findings.begin(), fitted.findings.end(),
                              [](const Finding& f) { return f.headline == "Colors were converted"; }),
                  color == ColorSpace::srgb);
    }
}
