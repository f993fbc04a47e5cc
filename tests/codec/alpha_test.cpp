// Alpha of 0 and 255 comes out as it went in.
#include <gtest/gtest.h>
#include <string>

#include "codec/codec.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// Something like a photograph: gradients, an edge, and noise in every texel.
Image photograph(std::uint32_t width, std::uint32_t height, unsigned seed) {
    auto image = smooth_picture(width, height, seed);
    std::uint32_t state = seed * 77 + 1;
    for (std::uint32_t y = 0; y < height; ++y)
        for (std::uint32_t x = 0; x < width; ++x) {
            auto& t = image.at(x, y);
            for (std::size_t c = 0; c < 3; ++c) {
                state = state * 1664525u + 1013904223u;
                const int noise = static_cast<int>(state >> 27) - 16, edge = x * 2 > width + y ? 60 : 0;
                t[c] = static_cast<std::uint8_t>(std::clamp(int(t[c]) + noise + edge, 0, 255));
            }
            t[3] = 255;
        }
    return image;
}

/// A cut-out with a soft edge: most blocks are clear or opaque, those on the edge are both.
Image cut_out(std::uint32_t side, unsigned seed) {
    auto image = photograph(side, side, seed);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x) {
            const double dx = x - side / 2.0, dy = y - side / 2.0, from_edge = std::sqrt(dx * dx + dy * dy) - side * 0.35;
            image.at(x, y)[3] = static_cast<std::uint8_t>(std::clamp(127.5 - 60 * from_edge, 0.0, 255.0));
        }
    return image;
}

std::size_t lost(const Image& before, const Image& after) {
    std::size_t count = 0;
    for (std::size_t i = 0; i < before.texels.size(); ++i) {
        const auto a = before.texels[i][3];
        count += (a == 0 || a == 255) && after.texels[i][3] != a;
    }
    return count;
}

Image round_trip(Format format, const Image& image, Effort effort) {
    return *decode(format, *encode(format, image, {effort}), image.width, image.height);
}

struct Alpha : testing::TestWithParam<std::tuple<Format, Effort>> {
    Format format = std::get<0>(GetParam());
    Effort effort = std::get<1>(GetParam());
};
std::string name_of_case(const testing::TestParamInfo<std::tuple<Format, Effort>>& p) {
    constexpr const char* names[] = {"fast", "normal", "best"};
    return std::string(info(std::get<0>(p.param)).name) + "_" + names[static_cast<int>(std::get<1>(p.param))];
}
INSTANTIATE_TEST_SUITE_P(Formats, Alpha,
                         testing::Combine(testing::Values(Format::BC2, Format::BC3, Format::BC7, Format::ETC2_RGBA, Format::ETC2_RGBA1,
                                                          Format::ASTC_4x4, Format::ASTC_6x6, Format::RGBA8, Format::BGRA4,
                                                          Format::B5G5R5A1),
                                          testing::Values(Effort::fast, Effort::normal, Effort::best)),
                         name_of_case);

}  // namespace

TEST_P(Alpha, OpaqueAndClearPicturesStayOpaqueAndClear) {
    for (unsigned seed = 1; seed <= 3; ++seed) {
        auto image = photograph(128, 128, seed);
        EXPECT_EQ(lost(image, round_trip(format, image, effort)), 0u) << "opaque";
        for (auto& t : image.texels) t[3] = 0;
        EXPECT_EQ(lost(image, round_trip(format, image, effort)), 0u) << "clear";
    }
    auto flat = smooth_picture(64, 64, 9);  // few colors a block, which another solver takes
    for (auto& t : flat.texels) t = {static_cast<std::uint8_t>(t[0] & 0xE0), static_cast<std::uint8_t>(t[1] & 0xC0), 40, 255};
    EXPECT_EQ(lost(flat, round_trip(format, flat, effort)), 0u) << "few colors";
}

TEST_P(Alpha, InMixedBlocksTheEndsStay) {
    if (format == Format::ASTC_4x4 || format == Format::ASTC_6x6 || format == Format::ETC2_RGBA || format == Format::ETC2_RGBA1)
        return;  // see docs/architecture.md
    for (unsigned seed = 1; seed <= 3; ++seed) {
        const auto image = cut_out(128, seed);
        const auto back = round_trip(format, image, effort);
        EXPECT_EQ(lost(image, back), 0u);
        auto flat = image;  // the same with few colors a block
        for (std::uint32_t y = 0; y < 128; ++y)
            for (std::uint32_t x = 0; x < 128; ++x) {
                auto& t = flat.at(x, y);
                const auto block = image.at(x & ~3u, y & ~3u);
                t = {static_cast<std::uint8_t>(block[0] & 0xF0), static_cast<std::uint8_t>(x % 2 ? 30 : 220), 90,
                     static_cast<std::uint8_t>(t[3] > 200  ? 255
                                               : t[3] < 50 ? 0
                                                           : 128)};
            }
        EXPECT_EQ(lost(flat, round_trip(format, flat, effort)), 0u);
    }
}
