#include <gtest/gtest.h>

#include <cmath>
#include <string>
#include <vector>

#include "bench/export.h"
#include "bench/fitting.h"
#include "codec/paint_form.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

TextureFile open(Bytes file) {
    auto texture = TextureFile::open(TextureKinds::standard(), std::move(file), "x", ReadLimits{});
    EXPECT_TRUE(texture) << (texture ? "" : texture.error().message());
    return texture ? *texture : TextureFile{};
}

/// A texture whose blocks nearly no encoder would write and whose levels have nothing to do with each other.
TextureFile wild(Format format, std::uint32_t w = 64, std::uint32_t h = 32, std::uint32_t mips = 7) {
    TextureDesc d{format, w, h, 1, mips, 1, 1, ColorSpace::unknown};
    std::uint64_t end = 0;
    (void)lay_out(d, 0, MipOrder::largest_first, 1, end);
    return open(make_file(d, random_bytes(static_cast<std::size_t>(end), 77)));
}

Fit fit_or_fail(const TextureFile& original, const EditedFile& edited, const FitOptions& options = {}) {
    auto fitted = fit(original, edited, options);
    EXPECT_TRUE(fitted) << (fitted ? "" : fitted.error().message());
    return fitted ? *fitted : Fit{};
}

EditedFile as_png(const Image& image) { return *read_edited(*write_png(image), ReadLimits{}); }

const Finding* finding_with(const Fit& fit, Mend mend) {
    for (const auto& f : fit.findings)
        if (f.mend == mend) return &f;
    return nullptr;
}

}  // namespace

class EveryFormatFits : public testing::TestWithParam<Format> {};
INSTANTIATE_TEST_SUITE_P(Formats, EveryFormatFits, testing::ValuesIn([] {
                             std::vector<Format> all;
                             for (const auto& f : all_formats())
                                 if (can_encode(f.format)) all.push_back(f.format);
                             return all;
                         }()),
                         [](const auto& param) { return std::string(skivet::info(param.param).name); });

TEST_P(EveryFormatFits, ExportedAndBroughtBackUnchangedIsIdentical) {
    const auto original = wild(GetParam());
    for (auto as : {ExportAs::png, ExportAs::dds, ExportAs::ktx2}) {
        const auto exported = export_as(original, as);
        // Not every file can hold every format; those that cannot say so.
        if (!exported && as != ExportAs::png && exported.error().code == ErrorCode::unsupported) continue;
        ASSERT_TRUE(exported) << exported.error().message();
        const auto edited = read_edited(*exported, ReadLimits{});
        ASSERT_TRUE(edited);
        const auto fitted = fit_or_fail(original, *edited);
        EXPECT_EQ(fitted.file, original.file);
        EXPECT_EQ(fitted.new_blocks(), 0u);
        EXPECT_FALSE(fitted.needs_mend());
    }
}

TEST_P(EveryFormatFits, OneTexelChangesAtMostOneBlockOfLevelZero) {
    const auto original = wild(GetParam());
    auto image = paint_form(GetParam(), *original.decode(0));
    for (auto& c : image.at(37, 21)) c = static_cast<std::uint8_t>(c ^ 0x80);
    if (!info(GetParam()).has_alpha) image.at(37, 21)[3] = 255;
    const auto fitted = fit_or_fail(original, as_png(image));
    ASSERT_FALSE(fitted.file.empty());
    EXPECT_EQ(fitted.levels[0].blocks - fitted.levels[0].kept, 1u);
    const auto& f = info(GetParam());
    // Everything outside the block and its footprint in the smaller levels is byte for byte the original.
    std::size_t changed = 0;
    const auto* top = original.layout.find(0);
    for (std::size_t i = 0; i < top->size; ++i) changed += fitted.file[top->offset + i] != original.file[top->offset + i];
    EXPECT_LE(changed, f.block_bytes);
    auto header = top->offset;
    for (const auto& surface : original.layout.surfaces) header = std::min(header, surface.offset);
    EXPECT_TRUE(std::equal(original.file.begin(), original.file.begin() + static_cast<std::ptrdiff_t>(header), fitted.file.begin()))
        << "the header stays";
}

TEST_P(EveryFormatFits, UntouchedRegionsOfEveryMipKeepTheirBlocks) {
    const auto original = wild(GetParam(), 128, 128, 8);
    auto image = paint_form(GetParam(), *original.decode(0));
    for (std::uint32_t y = 0; y < 16; ++y)
        for (std::uint32_t x = 0; x < 16; ++x) image.at(x, y) = stored_form(GetParam(), Image(1, 1, {10, 200, 30, 255})).texels[0];
    const auto fitted = fit_or_fail(original, as_png(paint_form(GetParam(), stored_form(GetParam(), image))));
    const auto& f = info(GetParam());
    for (std::uint32_t mip = 0; mip < 4; ++mip) {
        const auto* s = original.layout.find(mip);
        // The right half lies outside any filter's reach from a 16-texel corner.
        const std::size_t across = (s->width + f.block_width - 1) / f.block_width, down = (s->height + f.block_height - 1) / f.block_height;
        for (std::size_t by = 0; by < down; ++by)
            for (std::size_t bx = across * 3 / 4; bx < across; ++bx)
                for (std::size_t i = 0; i < f.block_bytes; ++i) {
                    const auto at = s->offset + (by * across + bx) * f.block_bytes + i;
                    ASSERT_EQ(fitted.file[at], original.file[at]) << "mip " << mip;
                }
    }
}

TEST(Mips, AreGuessedFromTheLevels) {
    for (auto recipe : {MipRecipe{MipFilter::box, false}, MipRecipe{MipFilter::box, true}, MipRecipe{MipFilter::kaiser, false},
                        MipRecipe{MipFilter::kaiser, true}}) {
        TextureDesc d{Format::RGBA8, 64, 64, 1, 7, 1, 1, ColorSpace::srgb};
        const auto guess = guess_mips(open(*write_dds(d, *encode_levels(random_picture(64, 64, 3), d, recipe))));
        ASSERT_TRUE(guess);
        EXPECT_EQ(guess->recipe, recipe);
        EXPECT_LT(guess->rms, 0.5);
        EXPECT_TRUE(guess->known);
    }
    EXPECT_FALSE(guess_mips(wild(Format::RGBA8))->known) << "levels that come from no filter";
}

TEST(Mips, AWhollyRepaintedTextureFollowsTheFoundFilter) {
    TextureDesc d{Format::RGBA8, 32, 32, 1, 6, 1, 1, ColorSpace::srgb};
    const MipRecipe recipe{MipFilter::kaiser, true};
    const auto original = open(*write_dds(d, *encode_levels(random_picture(32, 32, 3), d, recipe)));
    const auto repaint = random_picture(32, 32, 4);
    const auto fitted = fit_or_fail(original, as_png(repaint));
    EXPECT_EQ(fitted.file, *write_dds(d, *encode_levels(repaint, d, recipe)));
}

TEST(Mips, AnOriginalPaintedByHandKeepsItsDeviationAroundAnEdit) {
    // Level 1 of the original is 40 brighter than its filter would make it; a touched texel keeps its untouched share of that.
    TextureDesc d{Format::R8, 8, 8, 1, 2, 1, 1, ColorSpace::unknown};
    Bytes payload(64 + 16, std::byte{100});
    std::fill(payload.begin() + 64, payload.end(), std::byte{110});
    const auto original = open(*write_dds(d, payload));
    auto image = paint_form(Format::R8, *original.decode(0));
    image.at(2, 2) = {140, 140, 140, 255};
    const auto fitted = fit_or_fail(original, as_png(image));
    const auto level = *open(fitted.file).decode(1);
    EXPECT_EQ(level.at(1, 1)[0], 118) << "110 + 40/4 - 10/4 rounded: the filtered edit plus three quarters of the deviation";
    EXPECT_EQ(level.at(0, 0)[0], 110);
}

TEST(FitList, AnotherSizeBlocksUntilMended) {
    const auto original = open(make_dds(Format::BC1, 64, 64));
    const auto edited = as_png(smooth_picture(60, 64, 9));
    const auto blocked = fit_or_fail(original, edited);
    EXPECT_TRUE(blocked.blocked());
    EXPECT_TRUE(blocked.file.empty());
    ASSERT_TRUE(finding_with(blocked, Mend::resize));
    EXPECT_EQ(finding_with(blocked, Mend::resize)->headline, "60×64 where the game has 64×64");
    const auto mended = fit_or_fail(original, edited, {.mends = {Mend::resize}});
    EXPECT_FALSE(mended.blocked());
    EXPECT_EQ(mended.result->width, 64u);
    EXPECT_EQ(mended.file.size(), original.file.size());
}

TEST(FitList, LostAlphaIsFoundAndPutBack) {
    const auto original = open(make_dds(Format::BC3, 32, 32));
    auto image = *original.decode(0);
    for (auto& t : image.texels) t[3] = 255;
    const auto fitted = fit_or_fail(original, as_png(image));
    ASSERT_TRUE(finding_with(fitted, Mend::restore_alpha));
    EXPECT_FALSE(fitted.blocked()) << "the game can read it; it is only not meant";
    EXPECT_TRUE(fitted.needs_mend());
    EXPECT_EQ(fit_or_fail(original, as_png(image), {.mends = {Mend::restore_alpha}}).file, original.file);
}

TEST(FitList, PaintOnAPremultipliedTextureIsMultipliedOnRequest) {
    auto picture = smooth_picture(64, 64, 3, true);
    for (auto& t : picture.texels) t = {static_cast<std::uint8_t>(220 * t[3] / 255), static_cast<std::uint8_t>(t[1] * t[3] / 255), 0, t[3]};
    const auto original =
        open(make_file({Format::RGBA8, 64, 64, 1, 1, 1, 1, ColorSpace::linear}, {Bytes(*encode(Format::RGBA8, picture))}));
    auto edit = picture;
    for (std::uint32_t y = 8; y < 24; ++y)
        for (std::uint32_t x = 8; x < 24; ++x) edit.at(x, y) = {200, 100, 50, 64};
    const auto fitted = fit_or_fail(original, as_png(edit));
    ASSERT_TRUE(finding_with(fitted, Mend::premultiply));
    EXPECT_NE(finding_with(fitted, Mend::premultiply)->detail.find("in 256 texels"), std::string::npos);
    const auto mended = fit_or_fail(original, as_png(edit), {.mends = {Mend::premultiply}});
    EXPECT_FALSE(finding_with(mended, Mend::premultiply));
    const auto back = *open(mended.file).decode(0);
    EXPECT_EQ(back.at(10, 10), (Texel{50, 25, 13, 64}));
    EXPECT_EQ(back.at(40, 40), picture.at(40, 40)) << "what was not painted stays";
}

TEST(FitList, SaysEverythingAtOnceAndMendsItTogether) {
    const auto original = open(make_dds(Format::BC3, 32, 32));
    const auto edited = as_png(smooth_picture(20, 20, 3));
    const auto fitted = fit_or_fail(original, edited);
    EXPECT_TRUE(finding_with(fitted, Mend::resize));
    EXPECT_TRUE(finding_with(fitted, Mend::restore_alpha)) << "found before the size is mended";
    EXPECT_FALSE(finding_with(fit_or_fail(original, edited, {.mends = {Mend::restore_alpha}}), Mend::restore_alpha)) << "pressed already";
    const auto mended = fit_or_fail(original, edited, {.mends = {Mend::resize, Mend::restore_alpha}});
    EXPECT_FALSE(mended.needs_mend());
    EXPECT_NE(mended.file, original.file);
    for (std::size_t i = 0; i < 1024; ++i) ASSERT_NEAR(mended.result->texels[i][3], original.decode(0)->texels[i][3], 6);
}

TEST(FitList, AlphaThatAppearedIsFoundAndDropped) {
    TextureDesc d{Format::BC3, 16, 16, 1, 1, 1, 1, ColorSpace::unknown};
    const auto original = open(*write_dds(d, *encode_levels(smooth_picture(16, 16, 1), d, {})));
    auto image = *original.decode(0);
    image.at(3, 3)[3] = 10;
    ASSERT_TRUE(finding_with(fit_or_fail(original, as_png(image)), Mend::drop_alpha));
    EXPECT_EQ(fit_or_fail(original, as_png(image), {.mends = {Mend::drop_alpha}}).file, original.file);
}

TEST(FitList, ColorUnderZeroAlphaGoesBackWhenAPaintProgramDroppedIt) {
    TextureDesc d{Format::RGBA8, 8, 8, 1, 1, 1, 1, ColorSpace::unknown};
    Image picture = random_picture(8, 8, 1);
    for (std::size_t i = 0; i < 64; ++i) picture.texels[i][3] = i % 2 ? 0 : 255;
    const auto original = open(*write_dds(d, *encode_levels(picture, d, {})));
    auto saved = picture;
    for (auto& t : saved.texels)
        if (t[3] == 0) t = {0, 0, 0, 0};
    EXPECT_EQ(fit_or_fail(original, as_png(saved)).file, original.file);
    // Painted on purpose, in several colors: that stays.
    auto painted = picture;
    painted.texels[1] = {1, 2, 3, 0};
    painted.texels[3] = {9, 8, 7, 0};
    EXPECT_NE(fit_or_fail(original, as_png(painted)).file, original.file);
}

TEST(FitList, WhereAlphaIsZeroEverywhereColorIsColor) {
    TextureDesc d{Format::RGBA8, 8, 8, 1, 1, 1, 1, ColorSpace::unknown};
    const auto original = open(*write_dds(d, *encode_levels(Image(8, 8, {5, 6, 7, 0}), d, {})));
    const auto fitted = fit_or_fail(original, as_png(Image(8, 8, {50, 60, 70, 0})));
    EXPECT_EQ(fitted.result->texels[0], (Texel{50, 60, 70, 0}));
}

TEST(FitList, WhatTheGameWillGetIsTheRealDecode) {
    const auto original = open(make_dds(Format::BC1, 64, 64));
    const auto fitted = fit_or_fail(original, as_png(smooth_picture(64, 64, 9)));
    EXPECT_EQ(fitted.result, *open(fitted.file).decode(0));
    EXPECT_GT(fitted.quality.psnr_rgb, 25);
    EXPECT_FALSE(std::isinf(fitted.quality.psnr_rgb));
}

namespace {

/// Bumps with vectors of length one.
Image normal_picture(std::uint32_t side, float height) {
    Image out(side, side);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x) {
            const float across = height * std::sin(static_cast<float>(x) / 3), down = height * std::cos(static_cast<float>(y) / 4);
            const float in_front = std::sqrt(1 - across * across - down * down);
            const auto byte = [](float v) { return static_cast<std::uint8_t>(std::lround((v + 1) / 2 * 255)); };
            out.at(x, y) = {byte(across), byte(down), byte(in_front), 255};
        }
    return out;
}

}  // namespace

TEST(FitList, HowFarNormalsAreOffIsSaidInDegrees) {
    const TextureDesc d{Format::BC3, 64, 64, 1, 1, 1, 1, ColorSpace::linear};
    const auto original = open(*write_dds(d, *encode_levels(normal_picture(64, 0.3f), d, {})));
    const auto fitted = fit_or_fail(original, as_png(normal_picture(64, 0.5f)));
    ASSERT_TRUE(fitted.mips.normals);
    double sum = 0;
    std::vector<double> angles;
    for (std::size_t i = 0; i < fitted.edited->texels.size(); ++i) {
        double dot = 0, a = 0, b = 0;
        for (std::size_t c = 0; c < 3; ++c) {
            const double u = fitted.edited->texels[i][c] / 127.5 - 1, v = fitted.result->texels[i][c] / 127.5 - 1;
            dot += u * v, a += u * u, b += v * v;
        }
        angles.push_back(std::acos(std::min(1.0, dot / std::sqrt(a * b))) * 180 / 3.14159265358979);
        sum += angles.back();
    }
    std::sort(angles.begin(), angles.end());
    ASSERT_TRUE(fitted.degrees);
    EXPECT_NEAR(fitted.degrees->mean, sum / static_cast<double>(angles.size()), 0.01);
    EXPECT_NEAR(fitted.degrees->most, angles[angles.size() * 99 / 100], 0.05);
    EXPECT_GT(fitted.degrees->mean, 0.1);
    EXPECT_FALSE(fitted.psnr_channels || fitted.stops);
    // What a small edit leaves as it was does not make it look better.
    auto small = *know_original(original)->level;
    const auto other = normal_picture(64, 0.5f);
    for (std::uint32_t y = 16; y < 24; ++y)
        for (std::uint32_t x = 16; x < 24; ++x) small.at(x, y) = other.at(x, y);
    const auto touched = fit_or_fail(original, as_png(small));
    ASSERT_TRUE(touched.degrees);
    ASSERT_LE(
        touched.blocks.loss.size() - static_cast<std::size_t>(std::count(touched.blocks.is_new.begin(), touched.blocks.is_new.end(), 0)),
        4u);
    EXPECT_GT(touched.degrees->mean, 0.1);
    EXPECT_GE(touched.degrees->most, touched.degrees->mean);
}

TEST(FitList, HowFarMasksAreOffIsSaidByChannel) {
    const TextureDesc d{Format::BC1, 64, 64, 1, 1, 1, 1, ColorSpace::linear};
    const auto original = open(*write_dds(d, *encode_levels(smooth_picture(64, 64, 9), d, {})));
    auto edit = random_picture(64, 64, 3);
    for (auto& t : edit.texels) t = {t[0], 40, t[2], 255};
    const auto fitted = fit_or_fail(original, as_png(edit));
    ASSERT_TRUE(fitted.psnr_channels);
    std::array<double, 4> squared{};
    for (std::size_t i = 0; i < fitted.edited->texels.size(); ++i)
        for (std::size_t c = 0; c < 4; ++c) squared[c] += std::pow(fitted.edited->texels[i][c] - fitted.result->texels[i][c], 2);
    for (std::size_t c = 0; c < 3; ++c)
        if (squared[c] > 0) EXPECT_NEAR((*fitted.psnr_channels)[c], 10 * std::log10(255.0 * 255 * 4096 / squared[c]), 1e-6) << c;
    EXPECT_TRUE(std::isinf((*fitted.psnr_channels)[3])) << "alpha is as it was";
    EXPECT_GT((*fitted.psnr_channels)[1], (*fitted.psnr_channels)[0] + 10) << "one value is kept better than noise";
    EXPECT_FALSE(fitted.degrees || fitted.stops);
    // Color is one thing.
    const TextureDesc color{Format::BC7, 16, 16, 1, 1, 1, 1, ColorSpace::srgb};
    const auto seen = open(*write_dds(color, *encode_levels(smooth_picture(16, 16, 9), color, {})));
    EXPECT_FALSE(fit_or_fail(seen, as_png(random_picture(16, 16, 3))).psnr_channels);
}

TEST(FitList, AnEditedDdsOfTheSameShapeGoesInAsItIs) {
    const auto original = open(make_dds(Format::BC1, 32, 32, 0, 1));
    const auto theirs = make_dds(Format::BC1, 32, 32, 0, 2);
    const auto fitted = fit_or_fail(original, *read_edited(theirs, ReadLimits{}));
    EXPECT_TRUE(std::equal(theirs.begin() + 128, theirs.end(), fitted.file.begin() + 128));
}

TEST(FitList, AnEditedDdsOfAnotherFormatIsEncodedAgain) {
    const auto original = open(make_dds(Format::BC1, 32, 32, 0, 1));
    const auto fitted = fit_or_fail(original, *read_edited(make_dds(Format::RGBA8, 32, 32, 1, 2), ReadLimits{}));
    EXPECT_FALSE(fitted.blocked());
    EXPECT_EQ(open(fitted.file).layout.desc, original.layout.desc);
    EXPECT_NE(fitted.findings[0].headline.find("Saved as RGBA8, goes back as BC1"), std::string::npos);
}

TEST(FitList, CubemapsKeepTheOtherFacesAndVolumesAreRefusedAsPng) {
    TextureDesc cube{Format::BC1, 16, 16, 1, 5, 1, 6, ColorSpace::unknown};
    std::uint64_t end = 0;
    (void)lay_out(cube, 0, MipOrder::largest_first, 1, end);
    const auto original = open(*write_dds(cube, random_bytes(static_cast<std::size_t>(end), 1)));
    const auto fitted = fit_or_fail(original, as_png(smooth_picture(16, 16, 1)));
    const auto second_face = original.layout.find(0, 0, 1)->offset;
    EXPECT_TRUE(std::equal(original.file.begin() + static_cast<std::ptrdiff_t>(second_face), original.file.end(),
                           fitted.file.begin() + static_cast<std::ptrdiff_t>(second_face)));
    TextureDesc volume{Format::R8, 4, 4, 4, 1, 1, 1, ColorSpace::unknown};
    EXPECT_TRUE(fit_or_fail(open(*write_dds(volume, Bytes(64))), as_png(Image(4, 4, {1, 1, 1, 255}))).blocked());
}

TEST(ReadEdited, RefusesWhatIsNoPicture) {
    const auto edited = read_edited(bytes_of("GIF89a not a picture for us"), ReadLimits{});
    ASSERT_FALSE(edited);
    EXPECT_EQ(edited.error().code, ErrorCode::unsupported);
    EXPECT_FALSE(read_edited({}, ReadLimits{}));
}

TEST(Mends, EveryRowHasAnIdThatIsReadBackAndAGroup) {
    MendSet all;
    for (const auto& row : all_mends()) {
        EXPECT_EQ(mend_named(row.id), row.mend);
        EXPECT_EQ(&info(row.mend), &row);
        const auto one = parse_mends(row.id);
        ASSERT_TRUE(one);
        EXPECT_EQ(ids_of(*one), std::vector{std::string(row.id)});
        EXPECT_TRUE(parse_mends(row.group)->has(row.mend));
        if (row.mend != Mend::keep_size) all.add(row.mend);  // a choice, not a repair
        EXPECT_NE(mend_words().find(row.id), std::string::npos);
    }
    EXPECT_EQ(*parse_mends("all"), all);
    EXPECT_EQ(ids_of(*parse_mends("premultiply,resize")), (std::vector<std::string>{"resize", "premultiply"}));
    EXPECT_TRUE(parse_mends("")->empty());
    const auto unknown = parse_mends("resize,polish");
    ASSERT_FALSE(unknown);
    EXPECT_EQ(unknown.error().code, ErrorCode::usage);
    EXPECT_NE(unknown.error().message().find("polish"), std::string::npos);
    EXPECT_NE(unknown.error().message().find("restore_alpha"), std::string::npos);
}

TEST(Mends, WhatIsNotDueIsNotMade) {
    // A file of the same format whose levels are right goes in as it is, whatever mends are wanted.
    const auto original = wild(Format::BC1);
    auto edited = EditedFile{};
    edited.texture = original;
    edited.image = paint_form(Format::BC1, *original.decode(0));
    MendSet all;
    for (const auto& row : all_mends()) all.add(row.mend);
    const auto fitted = fit(original, edited, {.mends = all});
    ASSERT_TRUE(fitted);
    EXPECT_EQ(fitted->file, original.file);
    EXPECT_FALSE(fitted->needs_mend());
}
