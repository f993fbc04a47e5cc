// Plain pictures as textures: BMP, JPEG, WebP, TIFF, OpenEXR, Radiance. Files come from ImageMagick, or are read by it or by ffmpeg.
#include <gtest/gtest.h>

#include <cmath>
#include <string>
#include <vector>

#include "bench/export.h"
#include "bench/fitting.h"
#include "codec/codec.h"
#include "codec/paint_form.h"
#include "pixel/metrics.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/exr.h"
#include "texture/png.h"
#include "texture/radiance.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Kind {
    std::string name;                  ///< of the test
    std::string file;                  ///< ending decides what ImageMagick writes
    std::vector<std::string> options;  ///< for convert
    Format format;
    bool exact = true;  ///< what was painted comes back to the bit
    int reading_tolerance = 0;
};

const Kind context[] = {
    {"Bmp24", "a.bmp", {"-alpha", "off", "-type", "TrueColor"}, Format::RGB8},
    {"Bmp32", "a.bmp", {"-type", "TrueColorAlpha"}, Format::RGBA8},
    {"Bmp16", "a.bmp", {"-alpha", "off", "-define", "bmp:subtype=RGB565"}, Format::RGB8, false, 4},
    {"Bmp8", "a.bmp", {"-alpha", "off", "-colors", "200", "-type", "Palette", "-compress", "none"}, Format::RGB8, false},
    {"Bmp8Packed", "a.bmp", {"-alpha", "off", "-colors", "20", "-type", "Palette", "-compress", "RLE"}, Format::RGB8, false},
    {"Bmp1", "a.bmp", {"-alpha", "off", "-monochrome"}, Format::RGB8, false},
    {"Jpeg420", "a.jpg", {"-alpha", "off", "-quality", "88", "-sampling-factor", "4:2:0"}, Format::RGB8, false, 2},
    {"Jpeg444Progressive",
     "a.jpg",
     {"-alpha", "off", "-quality", "92", "-sampling-factor", "4:4:4", "-interlace", "JPEG"},
     Format::RGB8,
     false,
     2},
    {"JpegGray", "a.jpg", {"-alpha", "off", "-colorspace", "Gray", "-quality", "90"}, Format::L8, false, 2},
    {"WebpLossless", "a.webp", {"-define", "webp:lossless=true", "-define", "webp:exact=true"}, Format::RGBA8},
    {"WebpLossy", "a.webp", {"-alpha", "off", "-quality", "80"}, Format::RGB8, false, 2},
    {"Tiff8", "a.tif", {"-type", "TrueColorAlpha", "-compress", "none"}, Format::RGBA8},
    {"Tiff8Lzw", "a.tif", {"-alpha", "off", "-type", "TrueColor", "-compress", "LZW"}, Format::RGB8},
    {"Tiff8Zip", "a.tif", {"-alpha", "off", "-type", "TrueColor", "-compress", "Zip", "-define", "tiff:rows-per-strip=7"}, Format::RGB8},
    {"Tiff8Tiled", "a.tif", {"-alpha", "off", "-type", "TrueColor", "-define", "tiff:tile-geometry=16x16"}, Format::RGB8},
    {"TiffGray16", "a.tif", {"-alpha", "off", "-colorspace", "Gray", "-depth", "16"}, Format::L16, true, 1},
    {"TiffBigEndian", "a.tif", {"-alpha", "off", "-depth", "16", "-endian", "MSB"}, Format::RGB16, true, 1},
};

}  // namespace

class PictureFile : public testing::TestWithParam<Kind> {
protected:
    TempFolder folder;
    Image painted = smooth_picture(53, 38, 3);
    TextureFile original = make();

    TextureFile make() {
        const auto& kind = GetParam();
        for (std::uint32_t y = 0; y < painted.height && kind.format == Format::RGBA8; ++y)
            for (std::uint32_t x = 0; x < painted.width; ++x) painted.at(x, y)[3] = static_cast<std::uint8_t>(x < 20 ? 0 : x * 4);
        put_file(folder / "source.png", *write_png(painted));
        std::vector<std::string> words = {"convert", (folder / "source.png").string()};
        words.insert(words.end(), kind.options.begin(), kind.options.end());
        words.push_back((folder / kind.file).string());
        const auto ran = run_program(words);
        EXPECT_EQ(ran.code, 0) << ran.output;
        return opened(get_file(folder / kind.file));
    }
    static TextureFile opened(Bytes file) {
        auto texture = TextureFile::open(TextureKinds::standard(), std::move(file), GetParam().file, ReadLimits{});
        EXPECT_TRUE(texture) << (texture ? "" : texture.error().message());
        return texture ? *texture : TextureFile{};
    }
    /// What ImageMagick sees in the file.
    Image seen_outside(const Bytes& file) {
        put_file(folder / GetParam().file, file);
        const auto ran = run_program(
            {"convert", (folder / GetParam().file).string(), "-depth", "8", "-define", "png:color-type=6", (folder / "seen.png").string()});
        EXPECT_EQ(ran.code, 0) << ran.output;
        return *read_png(get_file(folder / "seen.png"), ReadLimits{});
    }
    Fit fitted(const TextureFile& texture, const Image& edit) { return *fit(texture, *read_edited(*write_png(edit), ReadLimits{}), {}); }
};
INSTANTIATE_TEST_SUITE_P(ReadContext, PictureFile, testing::ValuesIn(context), [](const auto& param) { return param.param.name; });

TEST_P(PictureFile, IsReadAsAnotherProgramReadsIt) {
    ASSERT_EQ(original.layout.desc.format, GetParam().format);
    const auto mine = paint_form(GetParam().format, *original.decode(0)), theirs = seen_outside(original.file);
    ASSERT_EQ(mine.width, theirs.width);
    for (std::size_t i = 0; i < mine.texels.size(); ++i)
        for (std::size_t c = 0; c < 4; ++c) {
            // Color under zero alpha is nothing ImageMagick promises to keep.
            if (theirs.texels[i][3] == 0 && c < 3) continue;
            ASSERT_NEAR(mine.texels[i][c], theirs.texels[i][c], GetParam().reading_tolerance) << "texel " << i << " channel " << c;
        }
}

TEST_P(PictureFile, UnchangedIsIdentical) {
    for (auto as : {ExportAs::png, ExportAs::exr, ExportAs::dds}) {
        const auto exported = export_as(original, as);
        if (!exported && exported.error().code == ErrorCode::unsupported) continue;
        ASSERT_TRUE(exported) << exported.error().message();
        EXPECT_EQ(fit(original, *read_edited(*exported, ReadLimits{}), {})->file, original.file) << name_of(as);
    }
}

TEST_P(PictureFile, AnEditArrivesAndTheFileStaysWhatItWas) {
    const auto before = paint_form(GetParam().format, *original.decode(0));
    auto edit = before;
    for (std::uint32_t y = 18; y < 22; ++y)
        for (std::uint32_t x = 30; x < 36; ++x) edit.at(x, y) = Texel{before.at(2, 2)[0], before.at(2, 2)[1], before.at(2, 2)[2], 255};
    edit = paint_form(GetParam().format, stored_form(GetParam().format, edit));
    const auto out = fitted(original, edit);
    ASSERT_FALSE(out.file.empty()) << out.findings.front().detail;
    const auto again = opened(out.file);
    EXPECT_EQ(again.layout.desc, original.layout.desc);
    const auto result = paint_form(GetParam().format, *again.decode(0));
    if (GetParam().exact) EXPECT_EQ(result, edit);
    const auto arrived = difference(result, edit);
    EXPECT_GT(arrived.psnr_rgb, GetParam().name == "Bmp1" ? 10 : 28) << GetParam().name;
    // Another program sees the same.
    const auto outside = seen_outside(out.file);
    for (std::size_t i = 0; i < outside.texels.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c)
            if (outside.texels[i][3] != 0) ASSERT_NEAR(outside.texels[i][c], result.texels[i][c], GetParam().reading_tolerance);
}

TEST_P(PictureFile, TruncatedFilesAreRefusedOrReadButNeverMore) {
    for (std::size_t size = 0; size < original.file.size(); size += std::max<std::size_t>(1, original.file.size() / 60)) {
        Bytes cut(original.file.begin(), original.file.begin() + static_cast<std::ptrdiff_t>(size));
        const auto texture = TextureFile::open(TextureKinds::standard(), std::move(cut), GetParam().file, ReadLimits{});
        if (!texture) {
            EXPECT_FALSE(texture.error().what.empty());
            continue;
        }
        if (const auto image = texture->decode(0)) EXPECT_EQ(image->texels.size(), 53u * 38);
        // Nothing is made up for writing: either all of it is there, or it is refused.
        if (const auto bytes = texture->surface_bytes(texture->layout.surfaces[0]))
            EXPECT_EQ(*bytes, *original.surface_bytes(original.layout.surfaces[0])) << size;
    }
}

TEST(Pictures, OfAFileThatEndsEarlyTheFirstRowsAreShown) {
    TempFolder folder;
    const auto picture = smooth_picture(96, 80, 7);
    put_file(folder / "a.png", *write_png(picture));
    ASSERT_EQ(
        run_program({"convert", (folder / "a.png").string(), "-sampling-factor", "4:4:4", "-quality", "95", (folder / "a.jpg").string()})
            .code,
        0);
    for (const auto* name : {"a.tga", "a.bmp", "a.hdr"})
        ASSERT_EQ(run_program({"convert", (folder / "a.png").string(), (folder / name).string()}).code, 0);
    ASSERT_EQ(run_program({"convert", (folder / "a.png").string(), "-compress", "RLE", (folder / "b.tga").string()}).code, 0);
    for (const auto* name : {"a.png", "a.jpg", "a.tga", "b.tga", "a.bmp", "a.hdr"}) {
        auto file = get_file(folder / name);
        const auto whole = *TextureFile::open(TextureKinds::standard(), file, name, ReadLimits{});
        EXPECT_FALSE(whole.layout.damage) << name;
        file.resize(file.size() * 2 / 3);
        const auto cut = TextureFile::open(TextureKinds::standard(), file, name, ReadLimits{});
        ASSERT_TRUE(cut) << name;
        ASSERT_TRUE(cut->layout.damage) << name;
        EXPECT_FALSE(cut->layout.damage->message().empty());
        const auto shown = cut->decode(0);
        ASSERT_TRUE(shown) << name;
        const auto all = *whole.decode(0);
        const auto ending = std::string_view(name).substr(2);
        const bool from_bottom = ending == "bmp" || ending == "tga";  // rows stand from the bottom to the top
        for (std::uint32_t x = 0; x < 96; ++x)
            for (std::uint32_t y = 0; y < 24; ++y) {
                const auto row = from_bottom ? 79 - y : y;
                ASSERT_EQ(shown->at(x, row), all.at(x, row)) << name << " " << x << "," << row;
            }
        EXPECT_NE(shown->at(50, from_bottom ? 0 : 79), all.at(50, from_bottom ? 0 : 79)) << name;
        EXPECT_FALSE(cut->surface_bytes(cut->layout.surfaces[0]));
    }
}

/// Fewer samples of each block are nearly the means of all of them.
TEST(Jpeg, ASmallPictureIsLikeTheWholeOneReduced) {
    TempFolder folder;
    for (const std::string size : {"1000x700", "777x1031", "90x60"}) {
        const auto path = folder / "a.jpg";
        ASSERT_EQ(run_program({"convert", "-size", size, "plasma:red-blue", "-quality", "92", path.string()}).code, 0);
        const auto texture = *TextureFile::open(TextureKinds::standard(), get_file(path), "a.jpg", ReadLimits{});
        const auto small = texture.kind->decode_small(texture.file, texture.layout, texture.layout.surfaces[0], 256);
        if (size == "90x60") {
            EXPECT_FALSE(small) << "it is small enough";
            continue;
        }
        ASSERT_TRUE(small);
        const auto& means = small->means;
        EXPECT_GE(std::max(means.width, means.height), 192u);
        EXPECT_LT(std::max(means.width, means.height), 2 * 192u + 2);
        const auto whole = to_bytes(resize(to_float(*texture.decode(), false), means.width, means.height, MipFilter::box), false);
        EXPECT_GT(difference(means, whole).psnr_rgb, 30) << size;
    }
}

TEST(Jpeg, APreviewsEndIsNotTheEnd) {
    TempFolder folder;
    put_file(folder / "a.png", *write_png(smooth_picture(64, 64, 7)));
    ASSERT_EQ(run_program({"convert", (folder / "a.png").string(), (folder / "a.jpg").string()}).code, 0);
    auto file = get_file(folder / "a.jpg");
    Bytes preview;  // APP1 with a start, a scan and an end inside
    for (const int b : {0xFF, 0xE1, 0, 11, 0xFF, 0xD8, 0xFF, 0xDA, 0, 2, 0x11, 0xFF, 0xD9}) preview.push_back(static_cast<std::byte>(b));
    file.insert(file.begin() + 2, preview.begin(), preview.end());
    EXPECT_FALSE(TextureFile::open(TextureKinds::standard(), file, "a.jpg", ReadLimits{})->layout.damage);
    file.resize(file.size() - 100);
    EXPECT_TRUE(TextureFile::open(TextureKinds::standard(), file, "a.jpg", ReadLimits{})->layout.damage);
}

TEST(Jpeg, KeepsTablesSubsamplingMarkersAndEveryUntouchedUnit) {
    TempFolder folder;
    const auto path = folder / "a.jpg";
    put_file(folder / "a.png", *write_png(smooth_picture(160, 96, 2)));
    ASSERT_EQ(run_program({"convert", (folder / "a.png").string(), "-quality", "71", "-sampling-factor", "4:2:0", "-set", "comment",
                           "painted at the fair", path.string()})
                  .code,
              0);
    const auto original = *TextureFile::open(TextureKinds::standard(), get_file(path), "a.jpg", ReadLimits{});
    const auto before = *original.decode(0);
    auto edit = before;
    for (std::uint32_t y = 32; y < 48; ++y)
        for (std::uint32_t x = 64; x < 80; ++x) edit.at(x, y) = {200, 30, 30, 255};  // one unit of 16×16
    const auto out = fit(original, *read_edited(*write_png(edit), ReadLimits{}), {})->file;
    const auto identify = [&](const Bytes& file) {
        put_file(path, file);
        return run_program({"identify", "-format", "%Q %[jpeg:sampling-factor] %c", path.string()}).output;
    };
    EXPECT_EQ(identify(out), identify(original.file));
    EXPECT_NE(identify(out).find("71"), std::string::npos);
    EXPECT_NE(identify(out).find("painted at the fair"), std::string::npos);
    const auto after = *TextureFile::open(TextureKinds::standard(), out, "a.jpg", ReadLimits{})->decode(0);
    for (std::uint32_t y = 0; y < 96; ++y)
        for (std::uint32_t x = 0; x < 160; ++x) {
            // Color is interpolated across the edge of a unit: one texel beside it may follow.
            if (x + 1 >= 64 && x < 81 && y + 1 >= 32 && y < 49) continue;
            ASSERT_EQ(after.at(x, y), before.at(x, y)) << x << " " << y;
        }
    EXPECT_NEAR(after.at(72, 40)[0], 200, 12);
}

TEST(Jpeg, AQuantizationOfZeroIsRefusedNotDividedBy) {
    // Found by fuzzing: the encoder divides by the table.
    TempFolder folder;
    put_file(folder / "a.png", *write_png(smooth_picture(32, 32, 2)));
    ASSERT_EQ(run_program({"convert", (folder / "a.png").string(), (folder / "a.jpg").string()}).code, 0);
    auto file = get_file(folder / "a.jpg");
    const auto table = as_text(file).find(std::string("\xFF\xDB", 2));
    ASSERT_NE(table, std::string::npos);
    file[table + 10] = std::byte{0};
    const auto original = TextureFile::open(TextureKinds::standard(), file, "a.jpg", ReadLimits{});
    ASSERT_TRUE(original);
    auto level = *original->surface_bytes(original->layout.surfaces[0]);
    level[0] ^= std::byte{0x40};
    const auto out = original->kind->replace(original->file, original->layout, std::vector<SurfaceEdit>{{0, level}});
    ASSERT_FALSE(out);
    EXPECT_NE(out.error().message().find("quantization table"), std::string::npos) << out.error().message();
}

TEST(Jpeg, AnErrorWhileWritingFreesWhatWasWritten) {
    // Found by fuzzing: the library's buffer in memory had grown, by a long comment, and was freed twice.
    TempFolder folder;
    put_file(folder / "a.png", *write_png(smooth_picture(64, 64, 2)));
    ASSERT_EQ(run_program({"convert", (folder / "a.png").string(), "-quality", "98", "-set", "comment", std::string(9000, 'c'),
                           (folder / "a.jpg").string()})
                  .code,
              0);
    auto file = get_file(folder / "a.jpg");
    // ITU-T T.81 B.2.4.2: behind the marker a length, class and number of the table, sixteen counts, then the values. A coefficient of 15
    // bits can be read; of eight-bit samples the library writes none above ten.
    const auto table = as_text(file).find(std::string("\xFF\xC4", 2));
    ASSERT_NE(table, std::string::npos);
    std::size_t at = table;
    while (at + 21 < file.size() && file[at + 4] != std::byte{0x10}) at = as_text(file).find(std::string("\xFF\xC4", 2), at + 2);
    ASSERT_LT(at, file.size());
    file[at + 21] |= std::byte{0x0F};
    const auto original = TextureFile::open(TextureKinds::standard(), file, "a.jpg", ReadLimits{});
    ASSERT_TRUE(original) << original.error().message();
    auto level = *original->surface_bytes(original->layout.surfaces[0]);
    level[0] ^= std::byte{0x40};
    const auto out = original->kind->replace(original->file, original->layout, std::vector<SurfaceEdit>{{0, level}});
    ASSERT_FALSE(out);
    EXPECT_NE(out.error().message().find("DCT"), std::string::npos) << out.error().message();
}

TEST(Bmp, APictureInsideItsHeaderIsRefused) {
    // Found by fuzzing: putting an edit back wrote behind the file.
    Bytes file(2000);
    std::copy_n(as_bytes("BM").begin(), 2, file.begin());
    for (const auto& [at, value] :
         {std::pair{10u, 4u}, std::pair{14u, 124u}, std::pair{18u, 13u}, std::pair{22u, 9u}, std::pair{26u, 0x80001u}, std::pair{30u, 1u}})
        store_le(file.data() + at, value);
    const auto opened = TextureFile::open(TextureKinds::standard(), file, "a.bmp", ReadLimits{});
    ASSERT_FALSE(opened);
    EXPECT_NE(opened.error().message().find("begin at 4, in the header of 138 bytes"), std::string::npos) << opened.error().message();
}

TEST(Bmp, AOneTexelEditOfAPlainFileWritesThatTexel) {
    TempFolder folder;
    put_file(folder / "a.png", *write_png(smooth_picture(31, 17, 2)));
    ASSERT_EQ(run_program({"convert", (folder / "a.png").string(), "-type", "TrueColor", (folder / "a.bmp").string()}).code, 0);
    const auto original = *TextureFile::open(TextureKinds::standard(), get_file(folder / "a.bmp"), "a.bmp", ReadLimits{});
    auto edit = *original.decode(0);
    edit.at(3, 5) = {1, 2, 3, 255};
    const auto out = fit(original, *read_edited(*write_png(edit), ReadLimits{}), {})->file;
    std::size_t changed = 0;
    for (std::size_t i = 0; i < out.size(); ++i) changed += out[i] != original.file[i];
    EXPECT_LE(changed, 3u);
    EXPECT_GE(changed, 1u);
}

TEST(Webp, MetadataStays) {
    TempFolder folder;
    put_file(folder / "a.png", *write_png(smooth_picture(40, 24, 2)));
    ASSERT_EQ(run_program({"convert", (folder / "a.png").string(), "-define", "webp:lossless=true", (folder / "a.webp").string()}).code, 0);
    // The extended form (RFC 9649, section 2.7) with a profile chunk, put in by hand.
    ByteWriter file;
    file.put("RIFF");
    file.le<std::uint32_t>(0);
    file.put("WEBPVP8X");
    file.le<std::uint32_t>(10);
    file.put(std::string_view("\x20\0\0\0\x27\0\0\x17\0\0", 10));
    file.put("ICCP");
    file.le<std::uint32_t>(4);
    file.put("abcd");
    file.put(ByteSpan(get_file(folder / "a.webp")).subspan(12));
    store_le(file.bytes.data() + 4, static_cast<std::uint32_t>(file.bytes.size() - 8));
    const auto original = *TextureFile::open(TextureKinds::standard(), file.bytes, "a.webp", ReadLimits{});
    auto edit = *original.decode(0);
    edit.at(3, 5) = {1, 2, 3, 255};
    const auto out = fit(original, *read_edited(*write_png(edit), ReadLimits{}), {})->file;
    EXPECT_NE(as_text(out).find("ICCP"), std::string::npos);
    EXPECT_EQ(*TextureFile::open(TextureKinds::standard(), out, "a.webp", ReadLimits{})->decode(0), edit);
    EXPECT_EQ(load_le<std::uint32_t>(out.data() + 4) + 8, out.size());
}

TEST(Rgbe, HasTheValuesOfThePublishedFormula) {
    // G. Ward, "Real Pixels", Graphics Gems II (1991): value = mantissa × 2^(exponent - 128 - 8). The worked example there from memory: (1,
    // 0.5, 0.25).
    EXPECT_EQ(to_rgbe({1, 0.5f, 0.25f}), (std::array<std::uint8_t, 4>{128, 64, 32, 129}));
    EXPECT_EQ(from_rgbe({128, 64, 32, 129}), (std::array<float, 3>{1, 0.5f, 0.25f}));
    EXPECT_EQ(to_rgbe({0, 0, 0}), (std::array<std::uint8_t, 4>{}));
    EXPECT_EQ(to_rgbe({-1, NAN, 0}), (std::array<std::uint8_t, 4>{}));
    for (int e = 1; e < 255; e += 7)
        for (int m = 128; m < 256; m += 5) {
            const std::array<std::uint8_t, 4> t = {static_cast<std::uint8_t>(m), 3, 77, static_cast<std::uint8_t>(e)};
            EXPECT_EQ(to_rgbe(from_rgbe(t)), t) << m << " " << e;
        }
    EXPECT_EQ(to_rgbe({0.999f, 0, 0})[3], 129) << "rounds up into the next exponent";
    EXPECT_EQ(to_rgbe({INFINITY, 0, 0})[3], 255);
}

TEST(Radiance, RowsWithoutAChangeKeepTheirBytes) {
    TempFolder folder;
    put_file(folder / "a.png", *write_png(smooth_picture(64, 20, 2)));
    ASSERT_EQ(run_program({"convert", (folder / "a.png").string(), (folder / "a.hdr").string()}).code, 0);
    const auto original = *TextureFile::open(TextureKinds::standard(), get_file(folder / "a.hdr"), "a.hdr", ReadLimits{});
    ASSERT_EQ(original.layout.desc.format, Format::RGB32F);
    // ImageMagick takes the values as samples, without a curve; RGBE has 8 bits of mantissa, so they lie within a step or two.
    const auto mine = *original.decode_wide(0);
    ASSERT_EQ(
        run_program({"convert", (folder / "a.hdr").string(), "-depth", "8", "-define", "png:color-type=2", (folder / "seen.png").string()})
            .code,
        0);
    const auto seen = *read_png(get_file(folder / "seen.png"), ReadLimits{});
    for (std::size_t i = 0; i < 1280; ++i)
        for (std::size_t c = 0; c < 3; ++c) ASSERT_NEAR(mine.texels[i][c] * 255, seen.texels[i][c], 1.5) << i;
    const auto exported = *export_as(original, ExportAs::picture);
    auto edited = *read_edited(exported, ReadLimits{});
    ASSERT_TRUE(edited.values);
    EXPECT_EQ(fit(original, edited, {})->file, original.file);
    edited.values->at(5, 7) = {100, 50, 25, 1};
    const auto out = fit(original, *read_edited(*write_exr(*edited.values, false, false, false), ReadLimits{}), {})->file;
    const auto result = *TextureFile::open(TextureKinds::standard(), out, "a.hdr", ReadLimits{})->decode_wide(0);
    EXPECT_NEAR(result.at(5, 7)[0], 100, 0.5);
    for (std::size_t i = 0; i < 1280; ++i)
        if (i != 7 * 64 + 5) ASSERT_EQ(result.texels[i], mine.texels[i]);
    std::size_t same_front = 0, same_back = 0;
    while (out[same_front] == original.file[same_front]) ++same_front;
    while (out[out.size() - 1 - same_back] == original.file[original.file.size() - 1 - same_back]) ++same_back;
    EXPECT_GT(same_front + same_back, out.size() * 8 / 10) << "all rows but one";
}

TEST(Radiance, OldRunsAndFlatTexelsAreRead) {
    ByteWriter file;
    file.put("#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n+Y 2 +X 4\n");
    const auto texel = [&](int r, int g, int b, int e) {
        for (int v : {r, g, b, e}) file.le<std::uint8_t>(static_cast<std::uint8_t>(v));
    };
    texel(128, 0, 0, 129), texel(1, 1, 1, 3);  // a texel and three more of it
    texel(0, 128, 0, 129), texel(0, 0, 128, 129), texel(0, 0, 0, 0), texel(128, 128, 128, 130);
    const auto texture = TextureFile::open(TextureKinds::standard(), file.bytes, "a.hdr", ReadLimits{});
    ASSERT_TRUE(texture) << texture.error().message();
    const auto image = *texture->decode_wide(0);
    EXPECT_EQ(image.at(3, 1), (TexelF{1, 0, 0, 1})) << "rows from the bottom";
    EXPECT_EQ(image.at(0, 0), (TexelF{0, 1, 0, 1}));
    EXPECT_EQ(image.at(3, 0), (TexelF{2, 2, 2, 1}));
    file.bytes[file.bytes.size() - 24 + 3 - 4 + 1] = std::byte{1};
    const std::vector<std::byte> cut(file.bytes.begin(), file.bytes.end() - 3);
    const auto short_one = TextureFile::open(TextureKinds::standard(), cut, "a.hdr", ReadLimits{});
    ASSERT_TRUE(short_one);
    EXPECT_NE(short_one->layout.damage->message().find("row 1"), std::string::npos);
    EXPECT_GT(short_one->decode_wide(0)->at(3, 1)[0], 0) << "the row that is there";
    EXPECT_EQ(short_one->decode_wide(0)->at(3, 0), (TexelF{0, 0, 0, 0})) << "and the one that is not";
    EXPECT_FALSE(short_one->surface_bytes(short_one->layout.surfaces[0]));
}

TEST(Exr, HoldsTheTrueValuesAndFfmpegReadsThem) {
    TempFolder folder;
    ImageF image(21, 13);
    const auto noise = random_picture(21, 13, 4);
    for (std::size_t i = 0; i < image.texels.size(); ++i)
        for (std::size_t c = 0; c < 4; ++c)
            image.texels[i][c] = c == 3 ? 1 : static_cast<float>(noise.texels[i][c]) * 16 - 100;  // exact in half precision, also below 0
    for (bool half : {true, false}) {
        const auto file = *write_exr(image, half, false, false);
        const auto texture = TextureFile::open(TextureKinds::standard(), file, "", ReadLimits{});
        ASSERT_TRUE(texture) << texture.error().message();
        EXPECT_EQ(texture->layout.desc.format, half ? Format::RGB16F : Format::RGB32F);
        EXPECT_EQ(*texture->decode_wide(0), image);
        put_file(folder / "a.exr", file);
        const auto ran = run_program({"ffmpeg", "-v", "error", "-y", "-i", (folder / "a.exr").string(), "-f", "rawvideo", "-pix_fmt",
                                      "gbrpf32le", (folder / "a.raw").string()});
        ASSERT_EQ(ran.code, 0) << ran.output;
        const auto raw = get_file(folder / "a.raw");
        for (std::size_t i = 0; i < image.texels.size(); ++i)
            ASSERT_EQ(std::bit_cast<float>(load_le<std::uint32_t>(raw.data() + i * 4)), image.texels[i][1]);
        auto edit = image;
        edit.at(3, 4) = {7, 8, 9, 1};
        const std::vector<SurfaceEdit> edits = {{0, *encode(texture->layout.desc.format, edit)}};
        const auto out = texture->kind->replace(texture->file, texture->layout, edits);
        ASSERT_TRUE(out);
        EXPECT_EQ(*TextureFile::open(TextureKinds::standard(), *out, "", ReadLimits{})->decode_wide(0), edit);
    }
}

TEST(Exr, AnAttributeThatClaimsMoreThanThereIsIsRefusedBeforeMemoryIsTaken) {
    Bytes file;
    const auto put = [&](std::string_view text) {
        const auto bytes = as_bytes(text);
        file.insert(file.end(), bytes.begin(), bytes.end());
    };
    put({"\x76\x2f\x31\x01\x02\0\0\0", 8});
    put({"owner\0string\0", 13});
    put({"\0\0\0\x70", 4});  // 1.9 GB
    put("nobody");
    const auto texture = TextureFile::open(TextureKinds::standard(), file, "a.exr", ReadLimits{});
    ASSERT_FALSE(texture);
    EXPECT_NE(texture.error().message().find("an attribute needs 1,879,048,192 bytes, 6 are there"), std::string::npos)
        << texture.error().message();
}

TEST(Exr, DamagedFilesAreRefused) {
    auto file = *write_exr(ImageF(16, 16), true, false, true);
    for (std::size_t size = 0; size < file.size(); size += 7) {
        const auto texture = TextureFile::open(TextureKinds::standard(),
                                               Bytes(file.begin(), file.begin() + static_cast<std::ptrdiff_t>(size)), "", ReadLimits{});
        if (texture) (void)texture->decode(0);
    }
    ByteWriter huge;
    huge.bytes = file;
    const auto at = as_text(file).find("dataWindow");
    ASSERT_NE(at, std::string::npos);
    store_le<std::uint32_t>(huge.bytes.data() + at + 11 + 6 + 4 + 8, 0x7FFFFFF0);
    const auto texture = TextureFile::open(TextureKinds::standard(), huge.bytes, "", ReadLimits{});
    EXPECT_FALSE(texture && texture->decode(0));
}
