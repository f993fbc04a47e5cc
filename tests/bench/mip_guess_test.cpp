// Chains are made in every way by the same code the guess uses, so a right guess proves little about filters (their kernels are checked in
// mips_test.cpp); it proves that the ways can be told apart, also through block compression.
#include "bench/mip_guess.h"

#include <gtest/gtest.h>

#include <cmath>
#include <string>
#include <vector>

#include "bench/rebuild.h"
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

/// Clouds of every size, each half as strong as those twice as large, as natural pictures have it; with `alpha` only round patches are
/// seen.
Image grained(std::uint32_t side, unsigned seed, bool alpha = false) {
    ImageF sum(side, side);
    float strength = 1.2f;
    for (std::uint32_t size = 4; size <= side; size *= 2, strength *= 0.6f) {
        const auto clouds = resize(to_float(random_picture(size, size, seed + size), false), side, side, MipFilter::box);
        for (std::size_t i = 0; i < sum.texels.size(); ++i)  // mostly light and dark, less colored
            for (std::size_t c = 0; c < 3; ++c)
                sum.texels[i][c] += strength * (clouds.texels[i][3] - 0.5f + 0.3f * (clouds.texels[i][c] - 0.5f));
    }
    for (auto& t : sum.texels) t = {t[0] + 0.5f, t[1] + 0.5f, t[2] + 0.5f, 1};
    auto image = to_bytes(sum, false);
    for (std::size_t i = 0; i < image.texels.size() && alpha; ++i) {
        const auto x = static_cast<double>(i % side), y = static_cast<double>(i / side);
        if (std::hypot(std::fmod(x, 16) - 8, std::fmod(y, 16) - 8) >= 4) image.texels[i] = {0, 0, 0, 0};
    }
    return image;
}

Image bumps(std::uint32_t side) {
    Image image(side, side);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x) {
            const double nx = 0.5 * std::sin(x * 0.5 + y * 0.2), ny = 0.5 * std::cos(y * 0.6 - x * 0.3);
            const auto byte = [](double v) { return static_cast<std::uint8_t>(std::lround((v + 1) * 127.5)); };
            image.at(x, y) = {byte(nx), byte(ny), byte(std::sqrt(1 - nx * nx - ny * ny)), 255};
        }
    return image;
}

TextureFile chain(Format format, const Image& image, const MipRecipe& recipe, ColorSpace color = ColorSpace::srgb,
                  const NormalChannels& normals = {}) {
    const TextureDesc d{format, image.width, image.height, 1, full_mip_count(image.width, image.height), 1, 1, color};
    return open(make_file(d, *encode_levels(image, d, recipe, {}, normals)));
}

MipGuess guess(const TextureFile& texture) {
    const auto out = guess_mips(texture);
    EXPECT_TRUE(out) << (out ? "" : out.error().message());
    return out ? *out : MipGuess{};
}

}  // namespace

TEST(MipGuess, TellsEveryFilterAndLight) {
    const auto image = grained(256, 3);
    for (auto filter : all_mip_filters)
        for (bool linear : {false, true}) {
            const auto found = guess(chain(Format::RGBA8, image, {filter, linear}));
            EXPECT_TRUE(found.known);
            EXPECT_EQ(found.recipe.filter, filter) << name_of(filter) << " taken for " << describe(found.recipe);
            if (filter == MipFilter::point) continue;  // one texel of four is the same in any light
            EXPECT_EQ(found.recipe.linear_light, linear) << name_of(filter);
            EXPECT_GT(found.confidence, 0.99) << name_of(filter);
            EXPECT_LT(found.rms, 0.5);
        }
}

TEST(MipGuess, TellsTheUsualOnesThroughBlockCompression) {
    const auto image = grained(256, 3);
    for (auto format : {Format::BC1, Format::BC7})
        for (auto filter : {MipFilter::box, MipFilter::kaiser})
            for (bool linear : {false, true}) {
                const auto found = guess(chain(format, image, {filter, linear}));
                EXPECT_TRUE(found.known);
                EXPECT_EQ(found.recipe.filter, filter)
                    << name_of(filter) << " taken for " << describe(found) << " in " << info(format).name;
                EXPECT_EQ(found.recipe.linear_light, linear) << name_of(filter) << " in " << info(format).name;
            }
}

TEST(MipGuess, TellsNeighboringFiltersThroughBlockCompressionOrNamesBoth) {
    int right = 0, all = 0, named = 0;
    for (const unsigned seed : {3u, 5u})
        for (auto format : {Format::BC1, Format::BC7, Format::ETC2_RGB})
            for (auto filter : all_mip_filters) {
                const auto found = guess(chain(format, grained(128, seed), {filter}));
                const bool is_right = found.recipe.filter == filter;
                const bool is_named = is_right || (found.second && found.second->filter == filter);
                ++all, right += is_right, named += is_named;
                if (!is_named)
                    std::printf("%s taken for %s in %s\n", name_of(filter).data(), describe(found).c_str(), info(format).name.data());
                if (found.second) {
                    EXPECT_NE(found.second->filter, found.recipe.filter);
                    EXPECT_NE(describe(found).find(std::string(name_of(found.second->filter)) + " comes close"), std::string::npos)
                        << describe(found);
                }
            }
    std::printf("%d of %d named rightly, %d among the two\n", right, all, named);
    EXPECT_GE(right * 100, all * 80);
    EXPECT_GE(named * 100, all * 95);
}

TEST(MipGuess, TellsWhetherEdgesWrap) {
    const auto image = grained(128, 4);
    for (auto filter : {MipFilter::triangle, MipFilter::kaiser})
        for (bool wrap : {false, true})
            EXPECT_EQ(guess(chain(Format::BC1, image, {filter, true, wrap})).recipe.wrap, wrap) << name_of(filter);
}

TEST(MipGuess, TellsWeightingByAlphaAndKeptCoverage) {
    const auto image = grained(256, 5, true);
    for (bool by_alpha : {false, true})
        for (int reference : {0, 85, 128}) {
            const MipRecipe recipe{MipFilter::box, true, false, by_alpha, false, static_cast<std::uint8_t>(reference)};
            for (auto format : {Format::RGBA8, Format::BC3})
                EXPECT_EQ(describe(guess(chain(format, image, recipe)).recipe), describe(recipe)) << info(format).name;
        }
}

TEST(MipGuess, TellsRenormalizedNormals) {
    for (bool renormalize : {false, true})
        for (auto format : {Format::RGBA8, Format::BC7, Format::BC5, Format::BC5_SNORM}) {
            auto image = bumps(128);
            NormalChannels normals;
            if (info(format).channels == 2) {
                normals.z = -1;
                if (info(format).numeric == Numeric::snorm) {
                    normals.scale = 255.0f / 127, normals.offset = -128.0f / 127;
                    for (auto& t : image.texels)
                        for (std::size_t c = 0; c < 2; ++c) t[c] = static_cast<std::uint8_t>(std::lround((t[c] / 127.5 - 1) * 127 + 128));
                }
            }
            const auto found = guess(chain(format, image, {MipFilter::box, false, false, false, renormalize}, ColorSpace::linear, normals));
            ASSERT_TRUE(found.normals) << info(format).name;
            EXPECT_EQ(found.normals->z, normals.z);
            EXPECT_EQ(found.recipe.renormalize, renormalize) << info(format).name << ": " << describe(found);
            EXPECT_EQ(found.recipe.filter, MipFilter::box);
        }
}

TEST(MipGuess, NamesTheLevelsAPersonPainted) {
    const TextureDesc d{Format::BC7, 256, 256, 1, 9, 1, 1, ColorSpace::srgb};
    auto payload = *encode_levels(grained(256, 3), d, {MipFilter::kaiser, true});
    const auto level2 = *encode(Format::BC7, smooth_picture(64, 64, 9));
    std::copy(level2.begin(), level2.end(), payload.begin() + 65536 + 16384);
    const auto found = guess(open(*write_dds(d, payload)));
    EXPECT_TRUE(found.known);
    EXPECT_EQ(found.recipe, (MipRecipe{MipFilter::kaiser, true}));
    EXPECT_EQ(found.painted, (std::vector<std::uint32_t>{2, 3})) << "level 3 was made from the real level 2";
    EXPECT_NE(describe(found).find("levels 2 3 by hand"), std::string::npos) << describe(found);
}

TEST(MipGuess, SaysHowFarTheChainGoesAndWhenItCannotTell) {
    const auto image = grained(64, 3);
    TextureDesc d{Format::RGBA8, 64, 64, 1, 4, 1, 1, ColorSpace::linear};
    const auto some = describe(guess(open(*write_dds(d, *encode_levels(image, d, {MipFilter::kaiser})))));
    EXPECT_NE(some.find("4 of 7 levels, down to 8×8"), std::string::npos) << some;
    EXPECT_EQ(some.find("light"), std::string::npos) << "data has no light: " << some;
    d.mips = 1;
    EXPECT_EQ(describe(guess(open(*write_dds(d, *encode_levels(image, d, {}))))), "one level only");
    d.mips = 7;
    const auto flat = guess(open(*write_dds(d, *encode_levels(Image(64, 64, {9, 9, 9, 255}), d, {}))));
    EXPECT_LT(flat.confidence, 0.2) << "every filter leaves one color alone";
    EXPECT_NE(describe(flat).find("others fit as well"), std::string::npos);
}

TEST(MipGuess, FloatTexturesAreFilteredInTheirOwnValues) {
    const TextureDesc d{Format::RGBA16F, 64, 64, 1, 7, 1, 1, ColorSpace::linear};
    ImageF level(64, 64);
    const auto noise = random_picture(64, 64, 2);
    for (std::size_t i = 0; i < level.texels.size(); ++i)
        for (std::size_t c = 0; c < 4; ++c) level.texels[i][c] = c == 3 ? 1 : static_cast<float>(noise.texels[i][c]) / 16;
    Bytes payload;
    for (std::uint32_t mip = 0; mip < 7; ++mip) {
        if (mip) level = next_mip(level, MipFilter::lanczos);
        const auto bytes = *encode(Format::RGBA16F, level);
        payload.insert(payload.end(), bytes.begin(), bytes.end());
    }
    const auto texture = open(*write_dds(d, payload));
    const auto found = guess(texture);
    EXPECT_TRUE(found.known);
    EXPECT_EQ(found.recipe.filter, MipFilter::lanczos);
    // A light as bright as 100 in the edit is as bright, spread over its footprint, in the levels below: nothing is cut off at 1.
    const auto before = *texture.decode_wide(0);
    auto after = before;
    for (std::uint32_t y = 24; y < 40; ++y)
        for (std::uint32_t x = 24; x < 40; ++x) after.at(x, y) = {100, 50, 25, 1};
    const auto rebuilt = rebuild_levels(texture, found, {}, before, after);
    ASSERT_TRUE(rebuilt);
    const auto fresh = open(*texture.kind->replace(texture.file, texture.layout, rebuilt->edits));
    EXPECT_NEAR((*fresh.decode_wide(2)).at(8, 8)[0], 100, 3);
    EXPECT_EQ((*fresh.decode_wide(2)).at(0, 0), (*texture.decode_wide(2)).at(0, 0));
    EXPECT_GT((*fresh.decode_wide(6)).at(0, 0)[0], 9) << "a sixteenth of the picture at 100";
}

TEST(Rebuild, FollowsEveryKindOfChainWhenAllIsRepainted) {
    const auto normals = bumps(64);
    const std::pair<MipRecipe, Image> chains[] = {{{MipFilter::kaiser, true, true}, grained(64, 1)},
                                                  {{MipFilter::mitchell, false}, grained(64, 1)},
                                                  {{MipFilter::box, true, false, true, false, 128}, grained(64, 1, true)}};
    for (const auto& [recipe, image] : chains) {
        const auto original = chain(Format::RGBA8, image, recipe);
        MipGuess known;
        known.recipe = recipe;
        known.known = true;
        auto repaint = image;  // every texel other, alpha as it was
        for (auto& t : repaint.texels)
            for (std::size_t c = 0; c < 3; ++c) t[c] = static_cast<std::uint8_t>(255 - t[c]);
        const auto rebuilt = rebuild_levels(original, known, {}, *original.decode(0), repaint);
        ASSERT_TRUE(rebuilt);
        EXPECT_EQ(*original.kind->replace(original.file, original.layout, rebuilt->edits), chain(Format::RGBA8, repaint, recipe).file)
            << describe(recipe);
    }
}

TEST(Rebuild, AnEditAtAWrappingEdgeReachesTheOtherSide) {
    const MipRecipe recipe{MipFilter::kaiser, true, true};
    const auto image = grained(64, 2);
    const auto original = chain(Format::RGBA8, image, recipe);
    auto edit = image;
    for (std::uint32_t y = 0; y < 64; ++y) edit.at(63, y) = {255, 0, 0, 255};
    MipGuess known;
    known.recipe = recipe;
    known.known = true;
    const auto rebuilt = *rebuild_levels(original, known, {}, *original.decode(0), edit);
    const auto fresh = open(*original.kind->replace(original.file, original.layout, rebuilt.edits));
    EXPECT_NE((*fresh.decode(1)).at(0, 9), (*original.decode(1)).at(0, 9));
    EXPECT_EQ((*fresh.decode(1)).at(16, 9), (*original.decode(1)).at(16, 9));
}

TEST(Rebuild, AllFacesCanBeEdited) {
    const TextureDesc d{Format::BC1, 32, 32, 1, 6, 1, 6, ColorSpace::srgb};
    Bytes payload;
    for (unsigned face = 0; face < 6; ++face) {
        const auto bytes = *encode_levels(grained(32, face), d, {});
        payload.insert(payload.end(), bytes.begin(), bytes.end());
    }
    const auto original = open(*write_dds(d, payload));
    const auto before = *original.decode(0, 0, 4);
    auto after = before;
    after.at(9, 9) = {255, 0, 255, 255};
    const auto rebuilt = *rebuild_levels(original, {}, {}, before, after, 0, 4);
    ASSERT_FALSE(rebuilt.edits.empty());
    for (const auto& edit : rebuilt.edits) EXPECT_EQ(original.layout.surfaces[edit.surface].face, 4u);
}

/// Of levels above 512 texels only bands are looked at.
TEST(MipGuess, PaintedLevelsOfLargeTexturesAreFound) {
    const auto image = grained(2048, 11);
    for (const MipRecipe& recipe : {MipRecipe{MipFilter::kaiser, true, true}, MipRecipe{MipFilter::box}}) {
        const auto texture = chain(Format::RGBA8, image, recipe);
        const auto found = guess(texture);
        EXPECT_EQ(found.recipe.filter, recipe.filter);
        EXPECT_TRUE(found.painted.empty()) << describe(found);
        auto file = texture.file;
        // Level 1, of 1024 texels, becomes another picture.
        const auto& level = texture.layout.surfaces[1];
        const auto other =
            *encode(Format::RGBA8, to_bytes(resize(to_float(grained(512, 5), false), 1024, 1024, MipFilter::triangle), false));
        std::copy(other.begin(), other.end(), file.begin() + static_cast<std::ptrdiff_t>(level.offset));
        EXPECT_EQ(guess(open(file)).painted, (std::vector<std::uint32_t>{1, 2})) << "level 2 was made from the real level 1";
    }
    // Sides that are not even, and a height far from the width.
    Image narrow(700, 1403);
    for (std::uint32_t y = 0; y < narrow.height; ++y)
        for (std::uint32_t x = 0; x < narrow.width; ++x) narrow.at(x, y) = image.at(x, y);
    const auto odd = guess(chain(Format::RGBA8, narrow, {MipFilter::kaiser}));
    EXPECT_EQ(odd.recipe.filter, MipFilter::kaiser);
    EXPECT_TRUE(odd.painted.empty()) << describe(odd);
}
