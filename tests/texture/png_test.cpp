#include <gtest/gtest.h>
#include <spng.h>

#include <cmath>
#include <cstdlib>
#include <random>
#include <string>
#include <vector>

#include "bench/export.h"
#include "bench/fitting.h"
#include "codec/palette.h"
#include "pixel/metrics.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

TEST(Png, RoundTripsWithTheSmallestColorType) {
    for (auto [picture, type] : {std::pair{random_picture(13, 7, 1), 6}, {smooth_picture(20, 9, 1), 2}, {Image(4, 4, {9, 9, 9, 255}), 0}}) {
        const auto file = write_png(picture);
        ASSERT_TRUE(file);
        EXPECT_EQ(static_cast<int>((*file)[25]), type);
        EXPECT_EQ(*read_png(*file, ReadLimits{}), picture);
    }
}

TEST(Png, KeepsColorUnderZeroAlpha) {
    Image picture(8, 8, {200, 100, 50, 0});
    EXPECT_EQ(*read_png(*write_png(picture), ReadLimits{}), picture);
}

TEST(Png, SaysSrgbWhenAsked) {
    const auto plain = as_text(*write_png(smooth_picture(4, 4, 1))), marked = as_text(*write_png(smooth_picture(4, 4, 1), true));
    EXPECT_EQ(plain.find("sRGB"), std::string::npos);
    EXPECT_NE(marked.find("sRGB"), std::string::npos);
}

TEST(Png, ReadsWhatAnotherProgramWrote) {
    // ImageMagick as an outside writer: palette, 16 bits, gray with alpha, interlaced.
    TempFolder folder;
    for (const std::string type : {"PNG8", "PNG24", "PNG32", "PNG48", "PNG64"}) {
        const auto file = folder / (type + ".png");
        ASSERT_EQ(run_program({"convert", "-size", "16x8", "gradient:red-blue", "-interlace", type == "PNG24" ? "PNG" : "none",
                               type + ":" + file.string()})
                      .code,
                  0);
        const auto image = read_png(get_file(file), ReadLimits{});
        ASSERT_TRUE(image) << type << image.error().message();
        EXPECT_EQ(image->at(0, 0), (Texel{255, 0, 0, 255})) << type;
        EXPECT_EQ(image->at(15, 7), (Texel{0, 0, 255, 255})) << type;
    }
}

/// Every filter, color type and width, written by libspng: what is read is what was written, to the bit.
TEST(Png, EveryFilterAndColorTypeIsUndone) {
    std::mt19937 random(7);
    const std::pair<int, std::size_t> types[] = {{SPNG_COLOR_TYPE_GRAYSCALE, 1},
                                                 {SPNG_COLOR_TYPE_GRAYSCALE_ALPHA, 2},
                                                 {SPNG_COLOR_TYPE_TRUECOLOR, 3},
                                                 {SPNG_COLOR_TYPE_TRUECOLOR_ALPHA, 4},
                                                 {SPNG_COLOR_TYPE_INDEXED, 1}};
    for (const int filter : {SPNG_FILTER_CHOICE_NONE, SPNG_FILTER_CHOICE_SUB, SPNG_FILTER_CHOICE_UP, SPNG_FILTER_CHOICE_AVG,
                             SPNG_FILTER_CHOICE_PAETH, SPNG_FILTER_CHOICE_ALL})
        for (const auto& [type, samples] : types)
            for (const std::uint32_t width : {1u, 2u, 3u, 5u, 64u, 131u}) {
                const std::uint32_t height = width == 5 ? 2 : 9;  // four rows at a time, and what is left
                std::vector<std::uint8_t> rows(std::size_t{width} * height * samples);
                // Noise over gradients, so that every branch of Paeth's choice is taken.
                for (std::size_t i = 0; i < rows.size(); ++i)
                    rows[i] = static_cast<std::uint8_t>(i * 3 + (random() % 4 == 0 ? random() : 0));
                const std::unique_ptr<spng_ctx, decltype(&spng_ctx_free)> context(spng_ctx_new(SPNG_CTX_ENCODER), &spng_ctx_free);
                spng_set_option(context.get(), SPNG_ENCODE_TO_BUFFER, 1);
                spng_set_option(context.get(), SPNG_FILTER_CHOICE, filter);
                spng_ihdr header{width, height, 8, static_cast<std::uint8_t>(type), 0, 0, 0};
                spng_set_ihdr(context.get(), &header);
                spng_plte palette{};
                spng_trns clear{};
                palette.n_entries = clear.n_type3_entries = 256;
                for (unsigned i = 0; i < 256; ++i) {
                    palette.entries[i] = {static_cast<std::uint8_t>(i), static_cast<std::uint8_t>(255 - i),
                                          static_cast<std::uint8_t>(i / 2), 255};
                    clear.type3_alpha[i] = static_cast<std::uint8_t>(i % 7 * 40);
                }
                if (type == SPNG_COLOR_TYPE_INDEXED) spng_set_plte(context.get(), &palette), spng_set_trns(context.get(), &clear);
                ASSERT_EQ(spng_encode_image(context.get(), rows.data(), rows.size(), SPNG_FMT_PNG, SPNG_ENCODE_FINALIZE), 0);
                std::size_t size = 0;
                int code = 0;
                const std::unique_ptr<void, decltype(&std::free)> written(spng_get_png_buffer(context.get(), &size, &code), &std::free);
                const ByteSpan file(static_cast<const std::byte*>(written.get()), size);
                const auto image = read_png(file, ReadLimits{});
                ASSERT_TRUE(image) << image.error().message();
                for (std::size_t i = 0; i < image->texels.size(); ++i) {
                    const auto* t = &rows[i * samples];
                    const Texel expected = samples == 4                      ? Texel{t[0], t[1], t[2], t[3]}
                                           : samples == 3                    ? Texel{t[0], t[1], t[2], 255}
                                           : samples == 2                    ? Texel{t[0], t[0], t[0], t[1]}
                                           : type == SPNG_COLOR_TYPE_INDEXED ? Texel{palette.entries[t[0]].red, palette.entries[t[0]].green,
                                                                                     palette.entries[t[0]].blue, clear.type3_alpha[t[0]]}
                                                                             : Texel{t[0], t[0], t[0], 255};
                    ASSERT_EQ(image->texels[i], expected)
                        << "filter " << filter << " type " << type << " width " << width << " texel " << i;
                }
                // A flipped bit of the picture data is an error, not another picture.
                Bytes damaged(file.begin(), file.end());
                damaged[damaged.size() - 20] ^= std::byte{1};
                EXPECT_FALSE(read_png(damaged, ReadLimits{}));
            }
}

/// The smaller picture that is made while reading is the whole one made smaller.
TEST(Png, AReducedPictureIsTheWholeOneReduced) {
    for (const auto& [width, height] : {std::pair{300u, 211u}, {1031u, 64u}, {129u, 700u}})
        for (const bool gray : {false, true}) {
            auto picture = random_picture(width, height, width);
            if (gray)
                for (auto& t : picture.texels) t = {t[0], t[0], t[0], 255};
            const auto texture = TextureFile::open(TextureKinds::standard(), *write_png(picture), "a.png", ReadLimits{});
            ASSERT_TRUE(texture);
            const auto& surface = texture->layout.surfaces[0];
            const auto small = texture->kind->decode_small(texture->file, texture->layout, surface, 60);
            ASSERT_TRUE(small);
            const auto expected = reduce(picture, std::max(width, height) / 60);
            EXPECT_EQ(small->means, expected.means);
            EXPECT_EQ(small->samples, expected.samples);
            EXPECT_FALSE(texture->kind->decode_small(texture->file, texture->layout, surface, 600)) << "decoding it all is as good";
        }
}

/// Samples of 1, 2 and 4 bits, gray and with a palette, against the library's own expansion.
TEST(Png, PackedSamplesAreWhatTheLibraryReads) {
    std::mt19937 random(9);
    for (const int type : {SPNG_COLOR_TYPE_GRAYSCALE, SPNG_COLOR_TYPE_INDEXED})
        for (const unsigned depth : {1u, 2u, 4u})
            for (const std::uint32_t width : {1u, 7u, 9u, 64u, 101u}) {
                const std::uint32_t height = 6;
                std::vector<std::uint8_t> rows((std::size_t{width} * depth + 7) / 8 * height);
                for (auto& b : rows) b = static_cast<std::uint8_t>(random());
                const std::unique_ptr<spng_ctx, decltype(&spng_ctx_free)> writer(spng_ctx_new(SPNG_CTX_ENCODER), &spng_ctx_free);
                spng_set_option(writer.get(), SPNG_ENCODE_TO_BUFFER, 1);
                spng_set_option(writer.get(), SPNG_FILTER_CHOICE, SPNG_FILTER_CHOICE_ALL);
                spng_ihdr header{width, height, static_cast<std::uint8_t>(depth), static_cast<std::uint8_t>(type), 0, 0, 0};
                spng_set_ihdr(writer.get(), &header);
                spng_plte palette{};
                palette.n_entries = 1u << depth;
                for (unsigned i = 0; i < palette.n_entries; ++i)
                    palette.entries[i] = {static_cast<std::uint8_t>(i * 15), static_cast<std::uint8_t>(255 - i), 7, 255};
                if (type == SPNG_COLOR_TYPE_INDEXED) spng_set_plte(writer.get(), &palette);
                ASSERT_EQ(spng_encode_image(writer.get(), rows.data(), rows.size(), SPNG_FMT_PNG, SPNG_ENCODE_FINALIZE), 0);
                std::size_t size = 0;
                int code = 0;
                const std::unique_ptr<void, decltype(&std::free)> written(spng_get_png_buffer(writer.get(), &size, &code), &std::free);
                const std::unique_ptr<spng_ctx, decltype(&spng_ctx_free)> reader(spng_ctx_new(0), &spng_ctx_free);
                spng_set_png_buffer(reader.get(), written.get(), size);
                Image expected(width, height);
                ASSERT_EQ(spng_decode_image(reader.get(), expected.texels.data(), expected.texels.size() * 4, SPNG_FMT_RGBA8, 0), 0);
                const auto image = read_png({static_cast<const std::byte*>(written.get()), size}, ReadLimits{});
                ASSERT_TRUE(image);
                EXPECT_EQ(*image, expected) << "type " << type << " depth " << depth << " width " << width;
            }
}

TEST(Png, ReplacingKeepsEveryOtherChunk) {
    TempFolder folder;
    const auto path = folder / "a.png";
    ASSERT_EQ(run_program({"convert", "-size", "12x12", "xc:gray50", "-type", "TrueColor", "-define", "png:color-type=2", "-set", "comment",
                           "painted at the fair", path.string()})
                  .code,
              0);
    const auto texture = TextureFile::open(TextureKinds::standard(), get_file(path), "a.png", ReadLimits{});
    ASSERT_TRUE(texture);
    ASSERT_EQ(texture->layout.desc.format, Format::RGB8);
    const auto fresh = random_bytes(12 * 12 * 3, 5);
    const std::vector<SurfaceEdit> edits = {{0, fresh}};
    const auto out = texture->kind->replace(texture->file, texture->layout, edits);
    ASSERT_TRUE(out);
    EXPECT_NE(as_text(*out).find("painted at the fair"), std::string::npos);
    const auto back = read_png(*out, ReadLimits{});
    ASSERT_TRUE(back);
    EXPECT_EQ(back->texels[7][1], static_cast<std::uint8_t>(fresh[7 * 3 + 1]));
    EXPECT_EQ(*texture->kind->replace(texture->file, texture->layout, {}), texture->file);
}

namespace {

struct Kind {
    std::string name;
    std::vector<std::string> arguments;
    int depth, color_type;
};
/// By ImageMagick, an outside writer.
const std::vector<Kind> kinds = {
    {"palette8", {"-colors", "40", "-type", "Palette"}, 8, 3},
    {"palette4", {"-colors", "12", "-type", "Palette"}, 4, 3},
    {"palette2", {"-colors", "4", "-type", "Palette"}, 2, 3},
    {"gray2", {"-colorspace", "Gray", "-posterize", "4", "-define", "png:color-type=0", "-define", "png:bit-depth=2"}, 2, 0},
    {"gray16", {"-colorspace", "Gray", "-define", "png:color-type=0", "-define", "png:bit-depth=16"}, 16, 0},
    {"rgb16", {"-define", "png:color-type=2", "-define", "png:bit-depth=16"}, 16, 2},
    {"rgba16", {"-alpha", "set", "-define", "png:color-type=6", "-define", "png:bit-depth=16"}, 16, 6},
    {"interlaced", {"-interlace", "PNG", "-define", "png:color-type=2", "-define", "png:bit-depth=8"}, 8, 2}};

class EveryKind : public testing::TestWithParam<Kind> {
protected:
    void SetUp() override {
        const auto path = (folder / "a.png").string();
        std::vector<std::string> command = {
            "convert", "-size", "24x17", "gradient:#d03060-#2050f0", "-set", "comment", "painted at the fair"};
        command.insert(command.end(), GetParam().arguments.begin(), GetParam().arguments.end());
        command.push_back(path);
        const auto ran = run_program(command);
        ASSERT_EQ(ran.code, 0) << ran.output;
        const auto opened = TextureFile::open(TextureKinds::standard(), get_file(path), "a.png", ReadLimits{});
        ASSERT_TRUE(opened) << opened.error().message();
        original = *opened;
        ASSERT_EQ(static_cast<int>(original.file[24]), GetParam().depth);
        ASSERT_EQ(static_cast<int>(original.file[25]), GetParam().color_type);
    }
    Fit fitted(Bytes edit) { return *fit(original, *read_edited(std::move(edit), ReadLimits{}), {}); }
    TempFolder folder;
    TextureFile original;
};
INSTANTIATE_TEST_SUITE_P(PngTexture, EveryKind, testing::ValuesIn(kinds), [](const auto& param) { return param.param.name; });

}  // namespace

TEST_P(EveryKind, UnchangedIsIdentical) { EXPECT_EQ(fitted(*export_png(original)).file, original.file); }

TEST_P(EveryKind, AnEditKeepsColorTypeDepthAndEveryOtherTexel) {
    auto image = *original.decode(0);
    image.at(5, 6) = {original.decode(0)->at(20, 1)};  // a color the picture has
    const auto once = fitted(*write_png(image));
    ASSERT_FALSE(once.blocked()) << once.findings[0].detail;
    EXPECT_EQ(static_cast<int>(once.file[24]), GetParam().depth);
    EXPECT_EQ(static_cast<int>(once.file[25]), GetParam().color_type);
    EXPECT_NE(as_text(once.file).find("painted at the fair"), std::string::npos);
    EXPECT_EQ(*read_png(once.file, ReadLimits{}), image);
    // The same to an outside reader.
    put_file(folder / "b.png", once.file);
    ASSERT_EQ(run_program({"convert", (folder / "b.png").string(), "PNG32:" + (folder / "c.png").string()}).code, 0);
    EXPECT_EQ(*read_png(get_file(folder / "c.png"), ReadLimits{}), image);
}

TEST_P(EveryKind, DeepSamplesKeepTheirLowBits) {
    if (GetParam().depth != 16) return;
    auto wide = *read_png_wide(original.file, ReadLimits{});
    ASSERT_TRUE(wide);
    wide->at(3, 4)[0] += 5.0f / 65535;  // less than an 8-bit step
    if (GetParam().color_type == 0) wide->at(3, 4)[1] = wide->at(3, 4)[2] = wide->at(3, 4)[0];
    const auto edited = fitted(*write_png16(*wide));
    const auto back = **read_png_wide(edited.file, ReadLimits{});
    for (std::size_t i = 0; i < back.texels.size(); ++i)
        for (std::size_t c = 0; c < 4; ++c)
            ASSERT_EQ(std::lround(back.texels[i][c] * 65535.0), std::lround(wide->texels[i][c] * 65535.0)) << i;
}

TEST(Palette, NewColorsTakeUnusedEntriesAndTheOthersStay) {
    const std::vector<Texel> palette = {{1, 1, 1, 255}, {2, 2, 2, 255}, {2, 2, 2, 255}, {9, 9, 9, 255}};
    const std::vector<std::uint8_t> before = {0, 2, 1, 3};
    std::vector<Texel> wanted = {{1, 1, 1, 255}, {2, 2, 2, 255}, {2, 2, 2, 255}, {77, 8, 8, 255}};
    const auto fitted = fit_palette(before, palette, wanted, 4);
    EXPECT_EQ(fitted.palette[3], (Texel{77, 8, 8, 255})) << "entry 3 was free";
    EXPECT_EQ(fitted.indices, before) << "entry 2 stays 2 though entry 1 has the same color";
    EXPECT_EQ(fitted.inexact, 0u);
    EXPECT_EQ(fit_palette(before, palette, {wanted.begin(), wanted.end()}, 16).palette.size(), 4u);
}

TEST(Palette, ATableLongerThanAnIndexReachesIsUsedAsFarAsItIsReached) {
    // As a TGA may have it: 300 entries, indices of 8 bits.
    std::vector<Texel> palette(300);
    for (std::size_t i = 0; i < palette.size(); ++i) palette[i] = {static_cast<std::uint8_t>(i), static_cast<std::uint8_t>(i >> 8), 7, 255};
    const std::vector<std::uint8_t> before = {0, 1, 2};
    const std::vector<Texel> wanted = {palette[290], {9, 9, 9, 255}, palette[2]};
    const auto fitted = fit_palette(before, palette, wanted, palette.size());
    EXPECT_EQ(fitted.palette.size(), 300u);
    for (std::size_t i = 0; i < wanted.size(); ++i) EXPECT_EQ(fitted.palette[fitted.indices[i]], wanted[i]) << i;
    EXPECT_EQ(fitted.indices[2], 2);
    const auto held = hold_palette(before, palette, wanted, 3, false);
    EXPECT_EQ(held.indices[0], 34) << "the nearest within reach, not entry 290";
}

TEST(Palette, TooManyColorsAreReducedWell) {
    const auto picture = smooth_picture(64, 64, 4);
    const std::vector<std::uint8_t> before(picture.texels.size(), 0);
    const auto fitted = fit_palette(before, {}, picture.texels, 256);
    Image shown(64, 64);
    for (std::size_t i = 0; i < before.size(); ++i) shown.texels[i] = fitted.palette[fitted.indices[i]];
    EXPECT_LE(fitted.palette.size(), 256u);
    EXPECT_GT(fitted.inexact, 0u);
    // Beside ImageMagick's own reduction, without dither.
    TempFolder folder;
    put_file(folder / "a.png", *write_png(picture));
    ASSERT_EQ(
        run_program({"convert", (folder / "a.png").string(), "+dither", "-colors", "256", "PNG32:" + (folder / "b.png").string()}).code, 0);
    const auto theirs = difference(picture, *read_png(get_file(folder / "b.png"), ReadLimits{})).psnr_rgb,
               ours = difference(picture, shown).psnr_rgb;
    std::printf("256 colors: ours %.2f dB, ImageMagick %.2f dB\n", ours, theirs);
    EXPECT_GT(ours, theirs - 0.2);
    const std::vector<std::uint8_t> wild = {200, 255, 7};  // indices the palette does not have
    EXPECT_EQ(fit_palette(wild, std::vector<Texel>{{5, 5, 5, 255}}, std::vector<Texel>(3, Texel{5, 5, 5, 255}), 256).indices.size(), 3u);
}

TEST(Png, GammaOfTheFileIsRespected) {
    // PNG (ISO/IEC 15948), section 11.3.3.2: 45455 stands for 1/2.2, 100000 for linear. The chunk goes in behind IHDR; its checksum is not
    // looked at here.
    for (const auto& [gamma, color] : {std::pair{45455u, ColorSpace::srgb}, {100000u, ColorSpace::linear}, {60000u, ColorSpace::unknown}}) {
        auto file = *write_png(smooth_picture(8, 8, 1));
        Bytes chunk(16);
        store_uint(chunk.data(), 4, 4, ByteOrder::big);
        std::memcpy(chunk.data() + 4, "gAMA", 4);
        store_uint(chunk.data() + 8, gamma, 4, ByteOrder::big);
        file.insert(file.begin() + 33, chunk.begin(), chunk.end());
        EXPECT_EQ(TextureFile::open(TextureKinds::standard(), file, "a.png", ReadLimits{})->layout.desc.color, color) << gamma;
    }
}

TEST(Png, DamageIsAnErrorNotACrash) {
    const auto good = *write_png(random_picture(20, 20, 2));
    for (unsigned seed = 0; seed < 500; ++seed) {
        auto file = good;
        std::mt19937 random(seed);
        file[random() % file.size()] = static_cast<std::byte>(random());
        file.resize(file.size() - random() % 3 * 100);
        (void)read_png(file, ReadLimits{});
    }
    auto huge = good;
    store_uint(huge.data() + 16, 0x7FFFFFFF, 4, ByteOrder::big);
    EXPECT_FALSE(read_png(huge, ReadLimits{}));
}
