// The fit list against files that have the faults, made by ImageMagick (package imagemagick) where it can make them.
#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "bench/fitting.h"
#include "codec/paint_form.h"
#include "support/imagemagick.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/dds.h"
#include "texture/png.h"
#include "texture/tga.h"

using namespace skivet;
using namespace skivet::test;

namespace {

TextureFile open(Bytes file, std::string_view name = "x") {
    auto texture = TextureFile::open(TextureKinds::standard(), std::move(file), name, ReadLimits{});
    EXPECT_TRUE(texture) << (texture ? "" : texture.error().message());
    return texture ? *texture : TextureFile{};
}

TextureFile texture_of(Format format, const Image& picture, std::uint32_t mips = 1) {
    const TextureDesc d{format, picture.width, picture.height, 1, mips, 1, 1, ColorSpace::unknown};
    return open(make_file(d, *encode_levels(picture, d, {})));
}

Fit fit_file(const TextureFile& original, Bytes file, const FitOptions& options = {}) {
    auto edited = read_edited(std::move(file), ReadLimits{});
    EXPECT_TRUE(edited) << (edited ? "" : edited.error().message());
    auto fitted = fit(original, edited ? std::move(*edited) : EditedFile{}, options);
    EXPECT_TRUE(fitted) << (fitted ? "" : fitted.error().message());
    return fitted ? *fitted : Fit{};
}

const Finding* with_words(const Fit& fit, std::string_view words) {
    for (const auto& f : fit.findings)
        if (f.headline.find(words) != std::string::npos) return &f;
    return nullptr;
}
std::string headlines(const Fit& fit) {
    std::string out;
    for (const auto& f : fit.findings) out += f.headline + "; ";
    return out;
}

/// A wavy surface's normals, X right, Y up, length one.
Image wavy_normals(std::uint32_t side) {
    Image out(side, side);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x) {
            const double u = 0.5 * std::sin(x * 0.37 + 1), v = 0.5 * std::sin(y * 0.29 + x * 0.11), z = std::sqrt(1 - u * u - v * v);
            const auto byte = [](double n) { return static_cast<std::uint8_t>(std::lround((n + 1) * 127.5)); };
            out.at(x, y) = {byte(u), byte(v), byte(z), 255};
        }
    return out;
}

/// A mark that somebody painted.
void paint(Image& image, Texel color = {250, 20, 30, 255}) {
    for (std::uint32_t y = 8; y < 16; ++y)
        for (std::uint32_t x = 8; x < 20; ++x) image.at(x, y) = color;
}

struct Fault {
    std::string name, words;
    std::vector<std::string> made_by;
    bool alpha = false;  ///< the original has some
    bool normals = false;
    bool loses_alpha = false;
};
std::ostream& operator<<(std::ostream& out, const Fault& fault) { return out << fault.name; }

const std::vector<Fault> faults = {
    {"linear", "linear light", {"-colorspace", "RGB", "-set", "colorspace", "sRGB", "-strip"}},
    {"encoded", "Encoded twice", {"-set", "colorspace", "RGB", "-colorspace", "sRGB", "-strip"}},
    {"upside_down", "Upside down", {"-flip"}},
    {"red_blue", "Red and blue", {"-color-matrix", "0 0 1 0 1 0 1 0 0"}},
    {"premultiplied",
     "multiplied by alpha",
     {"(", "+clone", "-background", "black", "-alpha", "remove", ")", "+swap", "-compose", "CopyOpacity", "-composite"},
     true},
    {"on_black", "multiplied by alpha", {"-background", "black", "-alpha", "remove", "-alpha", "off"}, true, false, true},
    {"on_white", "Laid on white", {"-background", "white", "-alpha", "remove", "-alpha", "off"}, true, false, true},
    {"green", "Green is the other way", {"-channel", "G", "-negate", "+channel"}, false, true},
};

}  // namespace

class FaultsOfSaving : public testing::TestWithParam<std::tuple<Fault, Format>> {};
INSTANTIATE_TEST_SUITE_P(All, FaultsOfSaving,
                         testing::Combine(testing::ValuesIn(faults), testing::Values(Format::RGBA8, Format::BC3, Format::BC7)),
                         [](const auto& param) {
                             return std::get<0>(param.param).name + "_" + std::string(skivet::info(std::get<1>(param.param)).name);
                         });

TEST_P(FaultsOfSaving, AreFoundAndUndoneAndOnlyThePaintIsLeft) {
    const auto& [fault, format] = GetParam();
    const auto original = texture_of(format, fault.normals ? wavy_normals(64) : smooth_picture(64, 64, 5, fault.alpha), 3);
    const auto before = *original.decode(0);
    auto painted = before;
    const auto clean = fit_file(original, *write_png(painted));
    EXPECT_FALSE(clean.needs_mend()) << headlines(clean);
    paint(painted, fault.normals ? Texel{128, 128, 255, 255} : Texel{250, 20, 30, 255});
    const auto meant = fit_file(original, *write_png(painted));
    EXPECT_FALSE(with_words(meant, fault.words));

    const auto file = file_by_imagemagick(painted, fault.made_by);
    const auto spoiled = fit_file(original, file);
    const auto* finding = with_words(spoiled, fault.words);
    ASSERT_TRUE(finding) << headlines(spoiled);
    EXPECT_EQ(finding->grade, Grade::mend);
    ASSERT_EQ(finding->mend, Mend::undo_save);
    EXPECT_GT(spoiled.new_blocks(), spoiled.kept_blocks()) << "without the mend nearly everything is made anew";

    MendSet mends{Mend::undo_save};
    if (fault.loses_alpha) mends.add(Mend::restore_alpha);
    const auto mended = fit_file(original, file, {.mends = mends});
    EXPECT_FALSE(with_words(mended, fault.words));
    EXPECT_FALSE(mended.needs_mend()) << headlines(mended);
    // Outside of the mark every texel is the original's to the bit; the mark is as it was painted, within the program's rounding.
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 64; ++x) {
            const bool mark = x >= 8 && x < 20 && y >= 8 && y < 16;
            for (std::size_t c = 0; c < 3; ++c) {
                if (mark) ASSERT_NEAR(mended.edited.at(x, y)[c], painted.at(x, y)[c], 8) << x << " " << y;
                else ASSERT_EQ(mended.edited.at(x, y)[c], painted.at(x, y)[c]) << x << " " << y;
            }
        }
    EXPECT_EQ(mended.kept_blocks(), meant.kept_blocks());
}

TEST(FaultsOfSaving, ARepaintIsNone) {
    const auto original = texture_of(Format::RGBA8, smooth_picture(64, 64, 5, true));
    const auto fitted = fit_file(original, *write_png(smooth_picture(64, 64, 12, true)));
    EXPECT_FALSE(fitted.needs_mend()) << headlines(fitted);
}

TEST(FaultsOfSaving, WhatTouchUpsMadeIsOnlyANote) {
    const auto original = texture_of(Format::RGBA8, wavy_normals(32));
    auto edited = *read_edited(file_by_imagemagick(wavy_normals(32), {"-channel", "G", "-negate", "+channel"}), ReadLimits{});
    edited.touched = true;
    const auto fitted = *fit(original, std::move(edited), {});
    ASSERT_TRUE(with_words(fitted, "Green"));
    EXPECT_EQ(with_words(fitted, "Green")->grade, Grade::note);
}

TEST(FaultsOfSaving, SixteenBitsAreUndoneToo) {
    const auto original = texture_of(Format::RGBA16, smooth_picture(64, 64, 3));
    const auto exact = fit_file(original, file_by_imagemagick(*original.decode(0), {"-flip"}, "PNG64:.png"), {.mends = {Mend::undo_save}});
    // ImageMagick made 16 bits of the 8-bit view it was given; all that was not painted is the original's again.
    EXPECT_EQ(exact.file, original.file);
}

TEST(FitList, SaysWhatAWrongSizeBreaksBesides) {
    const auto original = texture_of(Format::BC1, smooth_picture(64, 64, 2));
    const auto made = [&](const char* size) { return file_by_imagemagick(smooth_picture(64, 64, 2), {"-resize", size}); };
    const auto odd = fit_file(original, made("62x64!"));
    ASSERT_TRUE(with_words(odd, "62×64 where the game has 64×64"));
    EXPECT_NE(odd.findings[0].detail.find("62 is no power of two"), std::string::npos) << odd.findings[0].detail;
    EXPECT_NE(odd.findings[0].detail.find("62 is no multiple of 4, the side of BC1's blocks"), std::string::npos);
    const auto large = fit_file(original, made("128x128!"));
    EXPECT_EQ(large.findings[0].detail.find("power"), std::string::npos) << "nothing else is wrong with it";
    const auto free = texture_of(Format::BC1, smooth_picture(60, 60, 2));
    EXPECT_EQ(fit_file(free, made("36x36!")).findings[0].detail.find("power"), std::string::npos) << "the game's are none either";
}

TEST(AnotherSize, IsAChoiceWhereTheFileSaysItsOwn) {
    // A DDS with fields nobody explains, which must stay.
    const TextureDesc d{Format::BC1, 64, 32, 1, 7, 1, 1, ColorSpace::unknown};
    auto file = *write_dds(d, *encode_levels(smooth_picture(64, 32, 4), d, {}));
    for (std::size_t i = 32; i < 76; ++i) file[i] = static_cast<std::byte>(i);
    const auto original = open(file);
    const auto large = smooth_picture(128, 64, 4);
    const auto offered = fit_file(original, *write_png(large));
    EXPECT_TRUE(offered.blocked()) << "nothing is chosen yet";
    const auto* choice = with_words(offered, "It could stay 128×64");
    ASSERT_TRUE(choice) << headlines(offered);
    EXPECT_EQ(choice->mend, Mend::keep_size);
    // 8 bytes a block of 4×4: 64×32 … 1×1 are 128+32+8+2+1+1+1 blocks, 128×64 … are 512+128+32+8+2+1+1+1.
    EXPECT_NE(choice->detail.find("1,384 bytes become 5,480"), std::string::npos) << choice->detail;
    const auto kept = fit_file(original, *write_png(large), {.mends = {Mend::keep_size}});
    EXPECT_FALSE(kept.needs_mend()) << headlines(kept);
    ASSERT_TRUE(with_words(kept, "64×32 becomes 128×64"));
    const auto result = open(kept.file);
    EXPECT_EQ(result.layout.desc.width, 128u);
    EXPECT_EQ(result.layout.desc.height, 64u);
    EXPECT_EQ(result.layout.desc.mips, 8u) << "a whole chain stays whole";
    EXPECT_EQ(load_le<std::uint32_t>(kept.file.data() + 20), 128u * 64 / 2) << "the size of level 0, DDS_HEADER dwPitchOrLinearSize";
    EXPECT_TRUE(std::equal(kept.file.begin() + 32, kept.file.begin() + 76, file.begin() + 32)) << "what nobody explains";
    EXPECT_GT(kept.quality.psnr_rgb, 28);
    EXPECT_EQ(kept.new_blocks(), 685u);
    // Another program reads it (ImageMagick, package imagemagick).
    const TempFolder folder;
    put_file(folder / "a.dds", kept.file);
    EXPECT_EQ(run_program({"identify", "-format", "%wx%h ", (folder / "a.dds[0]").string()}).output, "128x64 ");
    // The match counts again as soon as it is pressed.
    MendSet mends{Mend::keep_size};
    mends.press({Mend::resize});
    EXPECT_EQ(open(fit_file(original, *write_png(large), {.mends = mends}).file).layout.desc.width, 64u);
    mends.press({Mend::keep_size});
    EXPECT_EQ(open(fit_file(original, *write_png(large), {.mends = mends}).file).layout.desc.width, 128u);
}

TEST(AnotherSize, ChainsEndWhereTheyEnded) {
    for (const auto& [mips, expected] : {std::pair{1u, 1u}, std::pair{3u, 4u}}) {
        const auto original = texture_of(Format::BC3, smooth_picture(64, 64, 4), mips);
        const auto kept = fit_file(original, *write_png(smooth_picture(128, 128, 4)), {.mends = {Mend::keep_size}});
        EXPECT_EQ(open(kept.file).layout.desc.mips, expected) << "down to 16×16 as before, or one level";
    }
}

TEST(AnotherSize, APngSaysItsOwnACubemapHasNoChoice) {
    const auto original = open(*write_png(smooth_picture(32, 32, 4)));
    const auto large = smooth_picture(48, 80, 4);
    const auto kept = fit_file(original, *write_png(large), {.mends = {Mend::keep_size}});
    ASSERT_FALSE(kept.needs_mend()) << headlines(kept);
    EXPECT_EQ(*read_png(kept.file, ReadLimits{}), large);
    const TextureDesc cube{Format::BC1, 16, 16, 1, 1, 1, 6, ColorSpace::unknown};
    const auto faces = open(*write_dds(cube, random_bytes(6 * 128, 1)));
    EXPECT_FALSE(with_words(fit_file(faces, *write_png(smooth_picture(32, 32, 1))), "could stay"));
    const auto palette = open(file_by_imagemagick(smooth_picture(16, 16, 1), {"-colors", "8"}, "PNG8:.png"));
    const auto held = fit_file(palette, *write_png(smooth_picture(32, 32, 1)), {.mends = {Mend::keep_size}});
    EXPECT_TRUE(held.blocked()) << "and says why";
    EXPECT_TRUE(with_words(held, "cannot be written back")) << headlines(held);
}

TEST(AnotherSize, AlphaComesBackAtTheNewSize) {
    const auto original = texture_of(Format::BC3, smooth_picture(64, 64, 4, true));
    const auto opaque = file_by_imagemagick(smooth_picture(128, 128, 4), {});
    const auto kept = fit_file(original, opaque, {.mends = {Mend::keep_size, Mend::restore_alpha}});
    EXPECT_FALSE(kept.needs_mend()) << headlines(kept);
    const auto wanted = by_imagemagick(*original.decode(0), {"-filter", "Triangle", "-resize", "200%"});
    double sum = 0;
    for (std::size_t i = 0; i < wanted.texels.size(); ++i) sum += std::abs(int{wanted.texels[i][3]} - int{kept.result->texels[i][3]});
    EXPECT_LT(sum / static_cast<double>(wanted.texels.size()), 4) << "as ImageMagick enlarges it, within what BC3 keeps";
}

TEST(FitList, OtherChannelCounts) {
    const auto picture = smooth_picture(32, 32, 4);
    const auto gray = file_by_imagemagick(picture, {"-colorspace", "Gray", "-type", "Grayscale"}, "PNG:.png");
    const auto fitted = fit_file(texture_of(Format::BC1, picture), gray);
    ASSERT_TRUE(with_words(fitted, "The colors are gone"));
    EXPECT_EQ(with_words(fitted, "The colors are gone")->grade, Grade::note);
    EXPECT_TRUE(fit_file(texture_of(Format::RGBA8, wavy_normals(32)), gray).needs_mend()) << "a gray normal map";
    EXPECT_TRUE(with_words(fit_file(texture_of(Format::BC4, picture), *write_png(picture)), "Only its brightness"));
    EXPECT_FALSE(with_words(fit_file(texture_of(Format::BC4, picture), gray), "brightness"));
}

TEST(FitList, AlphaOfOneBit) {
    auto picture = smooth_picture(32, 32, 4);
    for (std::uint32_t x = 0; x < 32; ++x) picture.at(x, 5)[3] = 0;
    const auto original = texture_of(Format::BC1, picture);
    auto soft = *original.decode(0);
    soft.at(9, 9)[3] = 100;
    EXPECT_TRUE(with_words(fit_file(original, *write_png(soft)), "Alpha is only on or off"));
    EXPECT_FALSE(with_words(fit_file(original, *write_png(*original.decode(0))), "Alpha is only"));
    EXPECT_FALSE(with_words(fit_file(texture_of(Format::BC3, picture), *write_png(soft)), "Alpha is only"));
}

TEST(FitList, SixteenBitsWhereEightAreKept) {
    const auto original = texture_of(Format::RGBA8, smooth_picture(64, 64, 4));
    const auto deep = [&](std::vector<std::string> does) { return file_by_imagemagick(*original.decode(0), does, "PNG64:.png"); };
    EXPECT_FALSE(with_words(fit_file(original, deep({})), "16 bits")) << "16 bits that say no more than 8";
    EXPECT_TRUE(with_words(fit_file(original, deep({"-blur", "3x1"})), "16 bits are kept as 8"));
    EXPECT_FALSE(with_words(fit_file(texture_of(Format::RGBA16, smooth_picture(64, 64, 4)), deep({"-blur", "3x1"})), "16 bits"));
}

TEST(FitList, CMYKIsRefusedWithAWord) {
    for (const std::string as : {"JPEG:.jpg", "TIFF:.tif"}) {
        const auto read =
            read_edited(file_by_imagemagick(smooth_picture(16, 16, 1), {"-colorspace", "CMYK"}, as), ReadLimits{}, "b" + as.substr(5));
        ASSERT_FALSE(read) << as;
        EXPECT_NE(read.error().message().find("CMYK"), std::string::npos) << read.error().message();
    }
}

TEST(FitList, PaintedNormalsOfAWrongLength) {
    const auto original = texture_of(Format::RGBA8, wavy_normals(64));
    auto edit = *original.decode(0);
    paint(edit, {255, 255, 255, 255});  // as a white brush leaves it
    const auto fitted = fit_file(original, *write_png(edit));
    const auto* finding = with_words(fitted, "96 normals have a wrong length");
    ASSERT_TRUE(finding) << headlines(fitted);
    EXPECT_EQ(finding->mend, Mend::normalize);
    const auto mended = fit_file(original, *write_png(edit), {.mends = {Mend::normalize}});
    EXPECT_FALSE(mended.needs_mend()) << headlines(mended);
    // (1, 1, 1) / sqrt(3), as bytes: (0.57735 + 1) * 127.5.
    EXPECT_EQ(mended.edited.at(10, 10), (Texel{201, 201, 201, 255}));
    EXPECT_EQ(mended.edited.at(40, 40), original.decode(0)->at(40, 40)) << "what was not painted stays";
    auto flat = *original.decode(0);
    paint(flat, {128, 128, 255, 255});
    EXPECT_FALSE(fit_file(original, *write_png(flat)).needs_mend()) << "a direction";
}

TEST(FitList, ColorsThePaletteLacks) {
    auto picture = smooth_picture(32, 32, 4);
    const auto original = open(file_by_imagemagick(picture, {"-colors", "200", "-type", "Palette"}, "TGA:.tga"), "x.tga");
    const auto before = *original.decode(0);
    EXPECT_FALSE(with_words(fit_file(original, *write_png(before)), "nearest color"));
    const auto fitted = fit_file(original, *write_png(smooth_picture(32, 32, 9)));
    EXPECT_TRUE(with_words(fitted, "texels got the nearest color")) << headlines(fitted);
}

TEST(FitList, HeavyLossIsSaidWithItsPlace) {
    const auto original = texture_of(Format::BC1, smooth_picture(64, 64, 4));
    auto edit = *original.decode(0);
    EXPECT_FALSE(with_words(fit_file(original, *write_png(edit)), "lost much"));
    // Four colors that lie on no line, in one block.
    const Texel colors[] = {{255, 0, 0, 255}, {0, 255, 0, 255}, {0, 0, 255, 255}, {255, 255, 255, 255}};
    for (std::uint32_t i = 0; i < 16; ++i) edit.at(20 + i % 4, 40 + i / 4) = colors[i % 4];
    const auto fitted = fit_file(original, *write_png(edit));
    const auto* finding = with_words(fitted, "1 block lost much");
    ASSERT_TRUE(finding) << headlines(fitted);
    EXPECT_EQ(finding->where, (Rect{20, 40, 4, 4}));
    const auto cell = fitted.blocks.at(21, 43);
    EXPECT_EQ(fitted.blocks.texels(cell), (Rect{20, 40, 4, 4}));
    EXPECT_EQ(fitted.blocks.worst(), cell);
    EXPECT_EQ(std::count(fitted.blocks.is_new.begin(), fitted.blocks.is_new.end(), 1), 1);
    // The root of the mean square over four channels, counted here texel by texel.
    double sum = 0;
    for (std::uint32_t i = 0; i < 16; ++i)
        for (std::size_t c = 0; c < 4; ++c)
            sum += std::pow(fitted.edited.at(20 + i % 4, 40 + i / 4)[c] - fitted.result.at(20 + i % 4, 40 + i / 4)[c], 2);
    EXPECT_EQ(fitted.blocks.loss[cell], std::ceil(std::sqrt(sum / 64)));
    EXPECT_FALSE(with_words(fit_file(texture_of(Format::RGBA8, *original.decode(0)), *write_png(edit)), "lost much"));
}

TEST(FitList, LossUnderZeroAlphaDoesNotCount) {
    auto picture = smooth_picture(64, 64, 4);
    for (std::uint32_t y = 32; y < 64; ++y)
        for (std::uint32_t x = 0; x < 64; ++x) picture.at(x, y) = {90, 90, 90, 0};
    const auto original = texture_of(Format::BC3, picture);
    auto edit = *original.decode(0);
    const Texel colors[] = {{255, 0, 0, 0}, {0, 255, 0, 0}, {0, 0, 255, 0}, {255, 255, 255, 0}};
    for (std::uint32_t i = 0; i < 16; ++i) edit.at(20 + i % 4, 40 + i / 4) = colors[i % 4];
    const auto fitted = fit_file(original, *write_png(edit));
    EXPECT_FALSE(with_words(fitted, "lost much")) << headlines(fitted);
}
