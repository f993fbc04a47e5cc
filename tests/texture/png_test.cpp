#include <gtest/gtest.h>

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
        ASSERT_EQ(run_program({"convert", "-size", "16x8", "gradient:red-blue", "-interlace", type == "PNG24" ? "PNG" : "none", type + ":" + file.string()}).code, 0);
        const auto image = read_png(get_file(file), ReadLimits{});
        ASSERT_TRUE(image) << type << image.error().message();
        EXPECT_EQ(image->at(0, 0), (Texel{255, 0, 0, 255})) << type;
        EXPECT_EQ(image->at(15, 7), (Texel{0, 0, 255, 255})) << type;
    }
}

TEST(Png, ReplacingKeepsEveryOtherChunk) {
    TempFolder folder;
    const auto path = folder / "a.png";
    ASSERT_EQ(run_program({"convert", "-size", "12x12", "xc:gray50", "-type", "TrueColor", "-define", "png:color-type=2", "-set", "comment", "painted at the fair", path.string()}).code, 0);
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
