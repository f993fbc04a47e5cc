// Several changes of one texture.
#include <gtest/gtest.h>
#include <random>
#include <string>
#include <vector>

#include "codec/codec.h"
#include "parcel/stack.h"
#include "pixel/mips.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

TextureFile open_texture(Bytes file) { return *TextureFile::open(TextureKinds::standard(), std::move(file), "x.dds", ReadLimits{}); }

/// A square of one color painted over every level where it lies.
TextureFile painted(const TextureFile& original, std::uint32_t x, std::uint32_t y, std::uint32_t side, Texel color) {
    std::vector<SurfaceEdit> edits;
    const auto& desc = original.layout.desc;
    for (std::size_t s = 0; s < original.layout.surfaces.size(); ++s) {
        const auto& surface = original.layout.surfaces[s];
        const auto before = *original.decode(surface.mip);
        auto image = before;
        for (std::uint32_t v = y >> surface.mip; v <= (y + side - 1) >> surface.mip && v < image.height; ++v)
            for (std::uint32_t u = x >> surface.mip; u <= (x + side - 1) >> surface.mip && u < image.width; ++u) image.at(u, v) = color;
        const auto bytes = *original.surface_bytes(surface);
        edits.push_back({s, *encode_changed(desc.format, image, before, bytes)});
    }
    auto out = original;
    out.file = *original.kind->replace(original.file, original.layout, edits);
    return out;
}

TextureLayer layer_of(const TextureFile& original, const TextureFile& edited) { return {*difference(original, edited), {}}; }

struct Stack : testing::TestWithParam<Format> {
    TextureFile original = open_texture(make_dds(GetParam(), 64, 64, 0, 3));
    TextureFile left = painted(original, 0, 0, 16, {250, 10, 10, 255}), right = painted(original, 40, 40, 16, {10, 250, 10, 255}),
                over = painted(original, 8, 8, 16, {10, 10, 250, 255});
};

}  // namespace

TEST_P(Stack, ChangesOfDifferentPlacesBothStay) {
    const std::vector<TextureLayer> layers{layer_of(original, left), layer_of(original, right)};
    const auto both = compose(original, layers);
    ASSERT_TRUE(both) << both.error().message();
    EXPECT_TRUE(both->left_out.empty());
    const auto result = open_texture(both->file);
    // In the largest level each has its own blocks, bit for bit, and the rest is the original's.
    const auto bytes = *result.surface_bytes(*result.layout.find(0)), a = *left.surface_bytes(*left.layout.find(0)),
               b = *right.surface_bytes(*right.layout.find(0)), o = *original.surface_bytes(*original.layout.find(0));
    for (std::size_t i = 0; i < o.size(); ++i) {
        const auto wanted = a[i] != o[i] ? a[i] : b[i] != o[i] ? b[i] : o[i];
        ASSERT_EQ(bytes[i], wanted) << i;
    }
    // In the smallest one they meet: it holds both changes, nearly as they add up.
    EXPECT_TRUE(both->mended_levels);
    const auto last = original.layout.desc.mips - 1;
    const auto mixed = result.decode_wide(last)->texels[0], of_left = left.decode_wide(last)->texels[0],
               of_right = right.decode_wide(last)->texels[0], was = original.decode_wide(last)->texels[0];
    const bool is_float = info(GetParam()).is_float();
    for (std::size_t c = 0; c < 3; ++c) {
        const auto sum = of_left[c] + of_right[c] - was[c];
        EXPECT_NEAR(mixed[c], is_float ? sum : std::clamp(sum, 0.f, 1.f), 0.04) << "channel " << c;
    }
    // In whatever order.
    const std::vector<TextureLayer> turned{layers[1], layers[0]};
    EXPECT_EQ(compose(original, turned)->file, both->file);
}

TEST_P(Stack, WhereTwoMeetTheUpperOneStaysOrTheChosen) {
    const std::vector<TextureLayer> layers{layer_of(original, left), layer_of(original, over)};
    const auto upper = compose(original, layers);
    ASSERT_TRUE(upper);
    EXPECT_EQ(upper->left_out, std::vector<std::size_t>{0});
    EXPECT_EQ(upper->file, over.file) << "wholly: no patchwork of two";
    const auto chosen = compose(original, layers, 0);
    EXPECT_EQ(chosen->left_out, std::vector<std::size_t>{1});
    EXPECT_EQ(chosen->file, left.file);
    // A third one that meets neither stays.
    const std::vector<TextureLayer> three{layers[0], layer_of(original, right), layers[1]};
    const auto all = compose(original, three);
    EXPECT_EQ(all->left_out, std::vector<std::size_t>{0});
    const std::vector<TextureLayer> alone{three[1], three[2]};
    EXPECT_EQ(all->file, compose(original, alone)->file);
}

TEST_P(Stack, TheSameChangeTwiceIsNoConflict) {
    const std::vector<TextureLayer> layers{layer_of(original, left), layer_of(original, left)};
    const auto twice = compose(original, layers);
    EXPECT_TRUE(twice->left_out.empty());
    EXPECT_FALSE(twice->mended_levels);
    EXPECT_EQ(twice->file, left.file);
}

TEST_P(Stack, NothingOfNothing) {
    EXPECT_EQ(compose(original, {})->file, original.file);
    const std::vector<TextureLayer> empty(2);
    EXPECT_EQ(compose(original, empty)->file, original.file);
}

TEST_P(Stack, AWholeFileCoversAllOthers) {
    const auto larger = make_dds(GetParam(), 128, 128, 0, 4);
    const auto whole = as_layer(original, larger, "x.dds", TextureKinds::standard(), ReadLimits{});
    ASSERT_EQ(whole.whole, larger);
    const std::vector<TextureLayer> layers{layer_of(original, left), whole};
    EXPECT_EQ(compose(original, layers)->file, larger);
    EXPECT_EQ(compose(original, layers)->left_out, std::vector<std::size_t>{0});
    EXPECT_EQ(compose(original, layers, 0)->file, left.file);
    // A whole file of the same form is a change like others, so that its blocks go beside another's.
    const auto as_change = as_layer(original, right.file, "x.dds", TextureKinds::standard(), ReadLimits{});
    EXPECT_TRUE(as_change.whole.empty());
    const std::vector<TextureLayer> beside{layer_of(original, left), as_change};
    EXPECT_TRUE(compose(original, beside)->left_out.empty());
}

INSTANTIATE_TEST_SUITE_P(Formats, Stack,
                         testing::Values(Format::BC1, Format::BC3, Format::BC7, Format::RGBA8, Format::B5G6R5, Format::BC5,
                                         Format::RGBA16F),
                         [](const auto& p) { return std::string(skivet::info(p.param).name); });
