// Textures that 8 bits do not hold: what was not painted keeps its true values, what was painted is as fine as the edited file was.
#include <gtest/gtest.h>

#include <cmath>
#include <string>
#include <vector>

#include "bench/export.h"
#include "bench/fitting.h"
#include "codec/paint_form.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/ktx.h"
#include "texture/ktx2.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

TextureFile open(Bytes file) {
    auto texture = TextureFile::open(TextureKinds::standard(), std::move(file), "x", ReadLimits{});
    EXPECT_TRUE(texture) << (texture ? "" : texture.error().message());
    return texture ? *texture : TextureFile{};
}

/// A gradient with true values beyond 8 bits, one level.
TextureFile gradient(Format format, float top) {
    ImageF image(32, 24);
    for (std::uint32_t y = 0; y < 24; ++y)
        for (std::uint32_t x = 0; x < 32; ++x)
            image.at(x, y) = {top * static_cast<float>(x) / 31, top * static_cast<float>(y) / 23, top * static_cast<float>(x + y) / 54, 1};
    const TextureDesc d{format, 32, 24, 1, 1, 1, 1, ColorSpace::unknown};
    return open(make_file(d, *encode(format, stored_form(format, image))));
}

class SixteenBits : public testing::TestWithParam<Format> {};
INSTANTIATE_TEST_SUITE_P(Formats, SixteenBits,
                         testing::Values(Format::R16, Format::RG16, Format::RGBA16, Format::L16, Format::LA16, Format::RGB16,
                                         Format::RGB10A2, Format::BGR10A2, Format::EAC_R, Format::EAC_RG),
                         [](const auto& param) { return std::string(skivet::info(param.param).name); });

class Floats : public testing::TestWithParam<Format> {};
INSTANTIATE_TEST_SUITE_P(Formats, Floats,
                         testing::Values(Format::BC6H, Format::BC6H_SF16, Format::R16F, Format::RGBA16F, Format::RGB32F, Format::RGBA32F,
                                         Format::R11G11B10F, Format::RGB9E5),
                         [](const auto& param) { return std::string(skivet::info(param.param).name); });

}  // namespace

TEST_P(SixteenBits, AreExportedWith16BitsAndComeBackIdentical) {
    const auto original = gradient(GetParam(), 1);
    const auto png = *export_png(original);
    EXPECT_EQ(static_cast<int>(png[24]), 16) << "the bit depth in IHDR";
    EXPECT_EQ(fit(original, *read_edited(png, ReadLimits{}), {})->file, original.file);
}

TEST_P(SixteenBits, AnEditBelowAnEightBitStepArrives) {
    const auto original = gradient(GetParam(), 1);
    auto wide = **read_png_wide(*export_png(original), ReadLimits{});
    const bool gray = info(GetParam()).channels == 1 || info(GetParam()).luminance;
    for (std::uint32_t y = 8; y < 12; ++y)  // one block
        for (std::uint32_t x = 8; x < 12; ++x) {
            auto& t = wide.at(x, y);
            t[0] += 0.0012f;  // about a third of a step of 8 bits
            if (gray) t[1] = t[2] = t[0];
        }
    const auto fitted = *fit(original, *read_edited(*write_png16(wide), ReadLimits{}), {});
    const auto before = *original.decode_wide(0), after = *open(fitted.file).decode_wide(0);
    for (std::uint32_t y = 0; y < 24; ++y)
        for (std::uint32_t x = 0; x < 32; ++x) {
            const bool touched = x >= 8 && x < 12 && y >= 8 && y < 12;
            if (!touched) ASSERT_TRUE(same_texel(before.at(x, y), after.at(x, y))) << x << ", " << y;
            else EXPECT_NEAR(after.at(x, y)[0] - before.at(x, y)[0], 0.0012, info(GetParam()).block_compressed() ? 0.02 : 0.0006);
        }
    // A block holds eight values, and the nearest ones can be those it had: measured, EAC encodes this edit to the same bytes.
    if (!info(GetParam()).block_compressed()) EXPECT_NE(fitted.file, original.file);
}

TEST_P(Floats, AnEightBitEditLeavesBrightTexelsAsTheyAre) {
    const auto original = gradient(GetParam(), 12);  // most of it is white to 8 bits
    auto image = *read_png(*export_png(original), ReadLimits{});
    for (std::uint32_t y = 4; y < 8; ++y)
        for (std::uint32_t x = 4; x < 8; ++x) image.at(x, y) = {188, 188, 188, 255};
    const auto fitted = *fit(original, *read_edited(*write_png(image), ReadLimits{}), {});
    ASSERT_FALSE(fitted.blocked());
    const auto before = *original.decode_wide(0), after = *open(fitted.file).decode_wide(0);
    float brightest = 0;
    for (std::uint32_t y = 0; y < 24; ++y)
        for (std::uint32_t x = 0; x < 32; ++x) {
            if (x >= 4 && x < 8 && y >= 4 && y < 8) {
                EXPECT_NEAR(after.at(x, y)[0], 0.5, 0.03) << "sRGB 188 is linear 0.5 (IEC 61966-2-1)";
            } else {
                ASSERT_TRUE(same_texel(before.at(x, y), after.at(x, y))) << x << ", " << y;
            }
            brightest = std::max(brightest, after.at(x, y)[0]);
        }
    EXPECT_GT(brightest, 11.5f);
}

TEST_P(Floats, UnchangedIsIdentical) {
    const auto original = gradient(GetParam(), 12);
    EXPECT_EQ(fit(original, *read_edited(*export_png(original), ReadLimits{}), {})->file, original.file);
}

TEST(Bc6h, HowFarLightIsOffIsSaidInStops) {
    const auto original = gradient(Format::BC6H, 1);
    ImageF edit(32, 24);
    for (std::uint32_t y = 0; y < 24; ++y)
        for (std::uint32_t x = 0; x < 32; ++x)
            edit.at(x, y) = {std::exp2(static_cast<float>((x * 7 + y * 5) % 11) - 5), 0.5f, std::exp2(static_cast<float>(x) / 8), 1};
    const TextureDesc d{Format::RGBA32F, 32, 24, 1, 1, 1, 1, ColorSpace::unknown};
    const auto edited = *read_edited(*export_exr(open(*write_dds(d, *encode(Format::RGBA32F, edit)))), ReadLimits{});
    const auto fitted = *fit(original, edited, {});
    ASSERT_FALSE(fitted.blocked());
    const auto result = *open(fitted.file).decode_wide(0);
    double sum = 0;
    for (std::size_t i = 0; i < edit.texels.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c)
            sum += std::abs(std::log2(edit.texels[i][c]) - std::log2(std::max(result.texels[i][c], 1.0f / 16384)));
    ASSERT_TRUE(fitted.stops);
    EXPECT_NEAR(fitted.stops->mean, sum / static_cast<double>(edit.texels.size() * 3), 0.002);
    EXPECT_GT(fitted.stops->mean, 0.01);
    EXPECT_GE(fitted.stops->most, fitted.stops->mean);
}

TEST(Bc6h, StaysCloseInTheLogarithmOfLight) {
    // Half floats carry 11 bits, so BC6H's best mode can come within about 1 %; gradients over eight stops of light.
    ImageF image(64, 64);
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 64; ++x) {
            const float light = std::exp2(static_cast<float>(x) / 8 - 4);
            image.at(x, y) = {light, light * (0.5f + static_cast<float>(y) / 128), light * 0.25f, 1};
        }
    double last = 1;
    for (const auto effort : {Effort::fast, Effort::normal, Effort::best}) {
        const auto back = *decode_wide(Format::BC6H, *encode(Format::BC6H, image, {effort}), 64, 64);
        double sum = 0;
        for (std::size_t i = 0; i < back.texels.size(); ++i)
            for (std::size_t c = 0; c < 3; ++c) sum += std::abs(std::log2(back.texels[i][c] / image.texels[i][c]));
        const double mean = sum / static_cast<double>(back.texels.size() * 3);
        std::printf("BC6H %s: mean |log2 error| %.4f\n", std::string(name_of(effort)).c_str(), mean);
        EXPECT_LT(mean, 0.02);
        EXPECT_LE(mean, last + 1e-4);
        last = mean;
    }
}

TEST(Bc6h, AnyFloatCanBeEncoded) {
    ImageF odd(8, 4);
    const float values[] = {NAN, INFINITY, -INFINITY, -1, 1e30f, -1e30f, 1e-30f, 65504};
    for (std::size_t i = 0; i < odd.texels.size(); ++i) odd.texels[i] = {values[i % 8], values[(i + 3) % 8], values[(i + 5) % 8], 1};
    for (const auto format : {Format::BC6H, Format::BC6H_SF16})
        for (const auto effort : {Effort::fast, Effort::best}) {
            const auto back = *decode_wide(format, *encode(format, odd, {effort}), 8, 4);
            for (const auto& t : back.texels)
                for (const float v : t) EXPECT_TRUE(std::isfinite(v));
        }
}

TEST(ReadOnlyFormats, AreExportedAndRefusedWithTheReasonWhenPainted) {
    const TextureDesc d{Format::ASTC_6x6_HDR, 24, 24, 1, 1, 1, 1, ColorSpace::unknown};
    const auto original = open(*write_ktx2(d, random_bytes(16 * 16, 3)));
    const auto image = *read_png(*export_png(original), ReadLimits{});
    EXPECT_EQ(fit(original, *read_edited(*write_png(image), ReadLimits{}), {})->file, original.file);
    auto painted = image;
    painted.at(3, 3) = {static_cast<std::uint8_t>(painted.at(3, 3)[0] ^ 0x80), 0, 0, 255};
    const auto fitted = *fit(original, *read_edited(*write_png(painted), ReadLimits{}), {});
    ASSERT_TRUE(fitted.blocked());
    EXPECT_NE(fitted.findings.back().headline.find("only read"), std::string::npos);
}

// Over format × shape × file format: taken out as a texture file and brought back, nothing changes.
TEST(Identity, EveryFormatShapeAndFileFormat) {
    std::size_t tried = 0;
    for (const auto& f : all_formats()) {
        for (const auto& d :
             {TextureDesc{f.format, 21, 14, 1, 5, 1, 1, ColorSpace::unknown},
              TextureDesc{f.format, 12, 12, 1, 4, 1, 6, ColorSpace::unknown}, TextureDesc{f.format, 9, 5, 1, 2, 3, 1, ColorSpace::unknown},
              TextureDesc{f.format, 8, 6, 4, 3, 1, 1, ColorSpace::unknown}}) {
            std::uint64_t end = 0;
            (void)lay_out(d, 0, MipOrder::largest_first, 1, end);
            const auto payload = random_bytes(static_cast<std::size_t>(end), 21);
            std::vector<Bytes> files;
            if (auto dds = write_dds(d, payload)) files.push_back(std::move(*dds));
            for (const auto scheme : {Supercompression::none, Supercompression::zstd, Supercompression::zlib})
                if (auto ktx2 = write_ktx2(d, payload, scheme)) files.push_back(std::move(*ktx2));
            if (auto ktx = write_ktx(d, payload)) files.push_back(std::move(*ktx));
            for (const auto& file : files) {
                const auto original = open(file);
                for (const auto as : {ExportAs::dds, ExportAs::ktx2}) {
                    const auto exported = export_as(original, as);
                    if (!exported) continue;  // that file format has no number for it
                    const auto fitted = fit(original, *read_edited(*exported, ReadLimits{}), {});
                    ASSERT_TRUE(fitted) << f.name << fitted.error().message();
                    ASSERT_EQ(fitted->file, original.file) << f.name << " " << size_text(d) << " " << original.kind->name();
                    EXPECT_EQ(fitted->new_blocks(), 0u);
                    ++tried;
                }
            }
        }
    }
    EXPECT_GT(tried, 2000u);
}
