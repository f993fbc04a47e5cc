#include "touch/touch_up.h"

#include <gtest/gtest.h>

#include <fmt/format.h>
#include <cmath>
#include <numbers>
#include <string>
#include <vector>

#include "support/imagemagick.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "support/temp_folder.h"
#include "texture/png.h"
#include "touch/oklab.h"

using namespace skivet;
using namespace skivet::test;

namespace {

std::vector<TouchUp> touches(std::initializer_list<std::string_view> texts) {
    std::vector<TouchUp> out;
    for (const auto text : texts) {
        auto touch = parse_touch_up(text);
        EXPECT_TRUE(touch) << text << ": " << touch.error().message();
        out.push_back(std::move(*touch));
    }
    return out;
}

Result<ImageF> no_pictures(const std::string& name) { return fail(ErrorCode::io, name + " is not there"); }
TouchPictures only(const Image& picture) {
    return [&picture](const std::string&) -> Result<ImageF> { return to_float(picture, false); };
}

Image touched(Image picture, std::initializer_list<std::string_view> texts, const TouchPictures& pictures = no_pictures) {
    const auto done = touch(picture, touches(texts), pictures);
    EXPECT_TRUE(done) << done.error().message();
    return picture;
}

/// The largest difference of a channel, alpha included.
int apart(const Image& a, const Image& b) {
    EXPECT_EQ(a.width, b.width);
    EXPECT_EQ(a.height, b.height);
    int most = 0;
    for (std::size_t i = 0; i < a.texels.size() && i < b.texels.size(); ++i)
        for (std::size_t c = 0; c < 4; ++c) most = std::max(most, std::abs(int{a.texels[i][c]} - int{b.texels[i][c]}));
    return most;
}

Image colorful(std::uint32_t width, std::uint32_t height, unsigned seed) {
    auto out = random_picture(width, height, seed);
    for (auto& t : out.texels) t[3] = 255;
    return out;
}

}  // namespace

TEST(Oklab, AgreesWithTheStandardsExamples) {
    // W3C, CSS Color Module Level 4, values from memory: red is oklch(0.62796 0.25768 29.234), #008000 is oklab(0.51975 -0.1403 0.10768).
    const auto red = oklab_of({1, 0, 0, 1}), green = oklab_of({0, 128 / 255.0f, 0, 1}), white = oklab_of({1, 1, 1, 1});
    EXPECT_NEAR(red.lightness, 0.62796f, 1e-4);
    EXPECT_NEAR(std::hypot(red.a, red.b), 0.25768f, 1e-4);
    EXPECT_NEAR(std::atan2(red.b, red.a) * 180 / std::numbers::pi_v<float>, 29.234f, 0.02);
    EXPECT_NEAR(green.lightness, 0.51975f, 2e-4);
    EXPECT_NEAR(green.a, -0.1403f, 2e-4);
    EXPECT_NEAR(green.b, 0.10768f, 2e-4);
    EXPECT_NEAR(white.lightness, 1, 1e-5);
    EXPECT_NEAR(std::hypot(white.a, white.b), 0, 1e-4);
    for (const auto& light : {std::array<float, 3>{0.2f, 0.7f, 0.1f}, {0, 0, 0}, {1, 0.5f, 0.01f}}) {
        const auto back = from_oklab(to_oklab(light));
        for (std::size_t c = 0; c < 3; ++c) EXPECT_NEAR(back[c], light[c], 1e-5);
    }
}

/// One step of 255 is allowed: ImageMagick rounds to 16 bits between its steps.
TEST(Touch, ColorIsChangedAsImageMagickChangesIt) {
    const auto picture = colorful(64, 48, 1);
    EXPECT_LE(apart(touched(picture, {"contrast=1.5"}), by_imagemagick(picture, {"-function", "Polynomial", "1.5,-0.25"})), 1);
    EXPECT_LE(apart(touched(picture, {"contrast=0.4"}), by_imagemagick(picture, {"-function", "Polynomial", "0.4,0.3"})), 1);
    for (const auto& [stops, factor] : {std::pair{"1", "2"}, {"-1.5", "0.35355339"}})
        EXPECT_LE(apart(touched(picture, {fmt::format("brighten={}", stops)}),
                        by_imagemagick(picture, {"-colorspace", "RGB", "-evaluate", "Multiply", factor, "-colorspace", "sRGB"})),
                  1)
            << stops;
    // Luminance by Rec. ITU-R BT.709, item 3.2.
    EXPECT_LE(apart(touched(picture, {"gray"}),
                    by_imagemagick(picture, {"-colorspace", "RGB", "-color-matrix",
                                             "0.2126 0.7152 0.0722 0.2126 0.7152 0.0722 0.2126 0.7152 0.0722", "-colorspace", "sRGB"})),
              1);
    // Half of each color and half of its gray.
    EXPECT_LE(apart(touched(picture, {"saturate=0.5"}),
                    by_imagemagick(picture, {"-colorspace", "RGB", "-color-matrix",
                                             "0.6063 0.3576 0.0361 0.1063 0.8576 0.0361 0.1063 0.3576 0.5361", "-colorspace", "sRGB"})),
              1);
    EXPECT_LE(apart(touched(picture, {"flip_green"}), by_imagemagick(picture, {"-channel", "G", "-negate", "+channel"})), 0);
}

TEST(Touch, LightFollowsTheSrgbStandard) {
    // IEC 61966-2-1: 188 encoded is about half of 255's light, so one stop less.
    EXPECT_NEAR(touched(Image(1, 1, {255, 255, 255, 9}), {"brighten=-1"}).texels[0][0], 188, 0.5);
    EXPECT_EQ(touched(Image(1, 1, {255, 255, 255, 9}), {"brighten=-1"}).texels[0][3], 9);
}

/// Two steps: the kernel is cut off at three deviations here and a little further there.
TEST(Touch, SoftenAndSharpenAreImageMagicksGaussian) {
    const auto picture = smooth_picture(60, 44, 3);
    EXPECT_LE(apart(touched(picture, {"soften=2"}),
                    by_imagemagick(picture, {"-virtual-pixel", "Edge", "-colorspace", "RGB", "-blur", "6x2", "-colorspace", "sRGB"})),
              2);
    EXPECT_LE(apart(touched(picture, {"soften=1.5,wrapped,data"}), by_imagemagick(picture, {"-virtual-pixel", "Tile", "-blur", "5x1.5"})),
              2);
    EXPECT_LE(apart(touched(picture, {"sharpen=0.8,1.5"}), by_imagemagick(picture, {"-virtual-pixel", "Edge", "-unsharp", "5x1.5+0.8+0"})),
              3);
}

TEST(Touch, HueChangesAndLightnessStays) {
    const auto picture = colorful(32, 32, 5);
    const auto after = touched(picture, {"recolor=210"});
    for (std::size_t i = 0; i < picture.texels.size(); ++i) {
        const auto lab = [](const Texel& t) { return oklab_of({t[0] / 255.0f, t[1] / 255.0f, t[2] / 255.0f, 1}); };
        const auto a = lab(picture.texels[i]), b = lab(after.texels[i]);
        EXPECT_NEAR(a.lightness, b.lightness, 0.01);
        EXPECT_LE(std::hypot(b.a, b.b), std::hypot(a.a, a.b) + 0.01) << "sRGB may hold less, never more";
        if (std::hypot(b.a, b.b) > 0.06) {
            const auto hue = std::atan2(b.b, b.a) * 180 / std::numbers::pi_v<float>;
            EXPECT_NEAR(hue < 0 ? hue + 360 : hue, 210, 4);
        }
    }
    EXPECT_EQ(touched(picture, {"recolor=210,0"}), picture);
    EXPECT_LE(apart(touched(picture, {"turn=0"}), picture), 1);
    // Grays have no hue to change, but a tint colors them.
    const Image stone(4, 4, {128, 128, 128, 255});
    EXPECT_LE(apart(touched(stone, {"recolor=20"}), stone), 1);
    const auto tinted = touched(stone, {"tint=#c03020"}).texels[0];
    EXPECT_GT(tinted[0], tinted[2] + 60);
}

TEST(Touch, WhatAMaskLeavesOutKeepsItsBits) {
    auto picture = random_picture(40, 24, 8);
    Image mask(40, 24, {0, 0, 0, 255});
    for (std::uint32_t y = 0; y < 24; ++y)
        for (std::uint32_t x = 20; x < 40; ++x) mask.at(x, y) = {255, 255, 255, 255};
    for (const auto& row : all_touch_ups()) {
        if (row.resizes) continue;
        std::string text(row.id);
        char before = '=';
        for (const auto& p : row.params) {
            const auto usual = !p.usual.empty()                   ? std::string(p.usual)
                               : p.kind == TouchParamKind::color  ? "#a03020"
                               : p.kind == TouchParamKind::file   ? "other.png"
                               : p.kind == TouchParamKind::choice ? std::string(p.choices.substr(0, p.choices.find('|')))
                                                                  : fmt::format("{}", p.least + (p.most - p.least) * 0.7);
            text += before + usual;
            before = ',';
        }
        const auto all = touched(picture, {text}, only(mask));
        const auto half = touched(picture, {text + before + "mask:@areas.png"}, only(mask));
        for (std::uint32_t y = 0; y < 24; ++y)
            for (std::uint32_t x = 0; x < 40; ++x) ASSERT_EQ(half.at(x, y), x < 20 ? picture.at(x, y) : all.at(x, y)) << text;
        if (row.id != "channel") EXPECT_NE(all, picture) << text;
    }
}

TEST(Touch, MasksByChannelAndColor) {
    Image picture(4, 1, {200, 40, 30, 255});
    picture.at(1, 0) = {40, 40, 200, 255};
    picture.at(2, 0) = {196, 44, 33, 128};
    picture.at(3, 0) = {0, 0, 0, 0};
    const auto red = touched(picture, {"gray=mask:#c8281e~0.1"});
    EXPECT_EQ(red.at(0, 0)[0], red.at(0, 0)[1]);
    EXPECT_EQ(red.at(2, 0)[0], red.at(2, 0)[2]) << "nearly that red";
    EXPECT_EQ(red.at(1, 0), picture.at(1, 0));
    const auto rest = touched(picture, {"gray=mask:not #c8281e~0.1"});
    EXPECT_EQ(rest.at(0, 0), picture.at(0, 0));
    EXPECT_EQ(rest.at(1, 0)[0], rest.at(1, 0)[2]);
    const auto by_alpha = touched(picture, {"tint=#00ff00,mask:alpha"});
    EXPECT_EQ(by_alpha.at(3, 0), picture.at(3, 0));
    const auto whole = touched(picture, {"tint=#00ff00"});
    EXPECT_NEAR(by_alpha.at(2, 0)[1], (whole.at(2, 0)[1] * 128 + picture.at(2, 0)[1] * 127) / 255, 1) << "half of it";
}

TEST(Touch, Alpha) {
    const auto picture = random_picture(16, 16, 4);
    EXPECT_EQ(touched(picture, {"alpha=7"}).at(3, 3)[3], 7);
    EXPECT_EQ(touched(picture, {"alpha_invert", "alpha_invert"}), picture);
    const auto cut = touched(picture, {"alpha_cut=100"});
    for (std::size_t i = 0; i < picture.texels.size(); ++i) EXPECT_EQ(cut.texels[i][3], picture.texels[i][3] >= 100 ? 255 : 0);
    const Image gray(16, 16, {77, 77, 77, 255});
    EXPECT_EQ(touched(picture, {"alpha_file=m.png"}, only(gray)).at(5, 5)[3], 77);
    EXPECT_EQ(touched(gray, {"alpha_gray"}).at(5, 5)[3], 77);
    const auto packed = touched(picture, {"channel=alpha,red", "channel=to:blue,from:green,file:m.png"}, only(gray));
    EXPECT_EQ(packed.at(2, 9), (Texel{picture.at(2, 9)[0], picture.at(2, 9)[1], 77, picture.at(2, 9)[0]}));
}

/// The slope of a bump exp(-r² / 2σ²) is known exactly.
TEST(Touch, NormalsFromHeightAreThoseOfTheBump) {
    constexpr double sigma = 14, strength = 20;
    ImageF height(96, 96);
    const auto bump = [](double x, double y) { return std::exp(-((x - 48) * (x - 48) + (y - 48) * (y - 48)) / (2 * sigma * sigma)); };
    for (std::uint32_t y = 0; y < 96; ++y)
        for (std::uint32_t x = 0; x < 96; ++x) {
            const auto v = static_cast<float>(bump(x, y));
            height.at(x, y) = {v, v, v, 1};
        }
    for (const bool down : {false, true}) {
        auto map = height;
        ASSERT_TRUE(touch(map, touches({down ? "normals=20,green:down" : "normals=20"}), no_pictures));
        double worst = 0;
        for (std::uint32_t y = 1; y < 95; ++y)
            for (std::uint32_t x = 1; x < 95; ++x) {
                const double p = -strength * (x - 48.0) / (sigma * sigma) * bump(x, y),
                             q = -strength * (y - 48.0) / (sigma * sigma) * bump(x, y);
                const double length = std::sqrt(p * p + q * q + 1);
                const std::array<double, 3> expected = {-p / length, (down ? -q : q) / length, 1 / length};
                double dot = 0;
                for (std::size_t c = 0; c < 3; ++c) dot += expected[c] * (2.0 * static_cast<double>(map.at(x, y)[c]) - 1);
                worst = std::max(worst, std::acos(std::min(1.0, dot)) * 180 / std::numbers::pi);
            }
        EXPECT_LT(worst, 0.5) << "degrees";
    }
    // Common practice: with green up the upper side of a bump is bright in green.
    auto map = height;
    ASSERT_TRUE(touch(map, touches({"normals=20"}), no_pictures));
    EXPECT_GT(map.at(48, 36)[1], 0.6f);
    EXPECT_LT(map.at(48, 60)[1], 0.4f);
    // And what rebuild_z makes of red and green is that blue.
    auto again = map;
    for (auto& t : again.texels) t[2] = 0;
    ASSERT_TRUE(touch(again, touches({"rebuild_z"}), no_pictures));
    for (std::size_t i = 0; i < map.texels.size(); ++i) ASSERT_NEAR(again.texels[i][2], map.texels[i][2], 1e-4);
}

TEST(Touch, OutlinesAreSobels) {
    // A step of 100 is a line of 100 on both sides of it, whichever way it runs; a ramp of 3 a texel is 6 everywhere.
    Image step(12, 12, {50, 50, 50, 255}), ramp(12, 12);
    for (std::uint32_t y = 0; y < 12; ++y)
        for (std::uint32_t x = 0; x < 12; ++x) {
            if (x >= 6) step.at(x, y) = {150, 150, 150, 255};
            const auto v = static_cast<std::uint8_t>(3 * y);
            ramp.at(x, y) = {v, v, v, 255};
        }
    const auto lines = touched(step, {"edges"});
    EXPECT_EQ(lines.at(5, 4)[0], 100);
    EXPECT_EQ(lines.at(6, 4)[0], 100);
    EXPECT_EQ(lines.at(4, 4)[0], 0);
    EXPECT_EQ(touched(ramp, {"edges"}).at(5, 5)[1], 6);
    EXPECT_EQ(touched(step, {"edges=2,dark"}).at(5, 4)[0], 55);
}

TEST(Touch, ColorBleedsUnderClearTexels) {
    Image picture(9, 9, {0, 0, 0, 0});
    picture.at(4, 4) = {200, 100, 50, 255};
    const auto all = touched(picture, {"bleed"});
    for (const auto& [x, y] : {std::pair{0u, 0u}, {3u, 4u}, {8u, 2u}}) EXPECT_EQ(all.at(x, y), (Texel{200, 100, 50, 0}));
    EXPECT_EQ(all.at(4, 4), picture.at(4, 4));
    const auto two = touched(picture, {"bleed=texels:2"});
    EXPECT_EQ(two.at(2, 2), (Texel{200, 100, 50, 0}));
    EXPECT_EQ(two.at(1, 4), picture.at(1, 4));
    EXPECT_EQ(touched(Image(5, 5, {1, 2, 3, 0}), {"bleed"}), Image(5, 5, {1, 2, 3, 0})) << "nothing to bleed";
}

TEST(Touch, SizesChange) {
    // What is clear does not darken what can be seen.
    Image leaf(64, 64, {0, 0, 0, 0});
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 31; ++x) leaf.at(x, y) = {40, 180, 60, 255};
    const auto small = touched(leaf, {"resize=32,32,box"});
    ASSERT_EQ(small.width, 32u);
    EXPECT_LE(apart(Image(1, 1, small.at(15, 8)), Image(1, 1, {40, 180, 60, 128})), 1);
    const auto picture = smooth_picture(64, 64, 2);
    EXPECT_LE(apart(touched(picture, {"resize=32,32,box,data"}), by_imagemagick(picture, {"-filter", "Box", "-resize", "32x32!"})), 1);
    const auto odd = random_picture(30, 21, 6);
    const auto padded = touched(odd, {"pad"}), cropped = touched(odd, {"crop"});
    EXPECT_EQ(padded.width, 32u);
    EXPECT_EQ(padded.height, 24u);
    EXPECT_EQ(padded.at(31, 23), odd.at(29, 20));
    EXPECT_EQ(cropped.width, 28u);
    EXPECT_EQ(cropped.height, 20u);
    EXPECT_EQ(cropped.at(27, 19), odd.at(27, 19));
}

TEST(Touch, DeepPicturesComeOutAsTheSame) {
    const auto picture = random_picture(24, 24, 9);
    auto deep = to_float(picture, false);
    const auto list = touches({"tint=#806030,0.6,mask:gray", "contrast=1.2", "soften=1", "alpha_invert"});
    ASSERT_TRUE(touch(deep, list, no_pictures));
    auto bytes = picture;
    ASSERT_TRUE(touch(bytes, list, no_pictures));
    EXPECT_EQ(to_bytes(deep, false), bytes) << "values are rounded once";
}

TEST(Touch, WhatDoesNotFitLeavesThePictureAsItWas) {
    const auto picture = random_picture(8, 8, 1);
    auto after = picture;
    const auto wrong = touch(after, touches({"gray", "alpha_file=big.png"}), only(Image(9, 8)));
    ASSERT_FALSE(wrong);
    EXPECT_NE(wrong.error().message().find("alpha_file: big.png is 9×8, the picture 8×8"), std::string::npos) << wrong.error().message();
    EXPECT_FALSE(touch(after, touches({"gray", "soften=2,mask:@gone.png"}), no_pictures));
    EXPECT_EQ(touch(after, touches({"resize=16384,16384"}), no_pictures).error().code, ErrorCode::limit);
    const CancelToken cancel;
    cancel.cancel();
    EXPECT_EQ(touch(after, touches({"soften=2"}), no_pictures, cancel).error().code, ErrorCode::canceled);
    EXPECT_EQ(after, picture);
}

TEST(Touch, TextsAreReadAndWrittenAlike) {
    for (const auto* text : {"gray", "recolor=hue:210", "recolor=hue:12.5,strength:0.25,mask:not red",
                             "tint=color:#a03020,mask:#102030~0.05", "channel=to:alpha,from:gray,file:folder/a\\,b.png",
                             "resize=width:64,height:32,filter:box", "normals=border:wrapped", "alpha_cut=mask:@m.png"}) {
        const auto touch = parse_touch_up(text);
        ASSERT_TRUE(touch) << text << touch.error().message();
        EXPECT_EQ(text_of(*touch), text);
    }
    EXPECT_EQ(text_of(*parse_touch_up("recolor=210,1")), "recolor=hue:210");
    // Whatever is read is written and read alike; whatever is not is refused.
    std::mt19937 random(1);
    const std::string_view pieces[] = {"tint", "=", ",",     ":", "#a03020", "~",       "0.5", "mask", "not ",
                                       "red",  "@", "a.png", "-", "\\",      "channel", "to",  "1e9",  " "};
    std::size_t read = 0;
    for (int i = 0; i < 20'000; ++i) {
        constexpr std::string_view starts[] = {"tint=#a03020", "channel=to:alpha,red", "gray=mask:", "alpha_file=", ""};
        std::string text(starts[random() % std::size(starts)]);
        for (auto n = random() % 6; n > 0; --n) text += pieces[random() % std::size(pieces)];
        const auto touch = parse_touch_up(text);
        if (!touch) continue;
        ++read;
        const auto again = parse_touch_up(text_of(*touch));
        ASSERT_TRUE(again) << text;
        EXPECT_EQ(text_of(*again), text_of(*touch)) << text;
    }
    EXPECT_GT(read, 5u);
    EXPECT_EQ(text_of(*parse_touch_up("recolor=strength:0.5,30")), "recolor=hue:30,strength:0.5");
    for (const auto& [text, says] : {std::pair{"paint", "there is no touch-up \"paint\""},
                                     {"recolor", "hue has to be said"},
                                     {"recolor=900", "a number from 0 to 360"},
                                     {"recolor=nan", "a number from 0 to 360"},
                                     {"gray=1", "nothing takes \"1\""},
                                     {"recolor=1,hue:2", "hue is said twice"},
                                     {"tint=red", "a color like"},
                                     {"resize=1,1,round", "one of point, box"},
                                     {"gray=mask:often", "is no mask"},
                                     {"crop=mask:red", "a size cannot have a mask"},
                                     {"gray=mask:#112233~9", "is no mask"},
                                     {"alpha_file=", "the name of a picture file"},
                                     {"alpha_file=-", "the name of a picture file"}}) {
        const auto touch = parse_touch_up(text);
        ASSERT_FALSE(touch) << text;
        EXPECT_EQ(touch.error().code, ErrorCode::usage);
        EXPECT_NE(touch.error().message().find(says), std::string::npos) << touch.error().message();
    }
    EXPECT_EQ(describe(*parse_touch_up("tint=#2040c0,0.6,mask:red")), "Tint: color #2040c0, strength 0.6; where red is high");
    EXPECT_EQ(describe(*parse_touch_up("brighten=0.5,mask:not #102030~0.2")), "Brighten: 0.5; away from #102030");
    EXPECT_EQ(describe(*parse_touch_up("gray=mask:@m.png")), "Gray; where m.png is bright");
    for (const auto& row : all_touch_ups()) EXPECT_NE(touch_words().find("  " + std::string(row.id) + ": "), std::string::npos);
}
