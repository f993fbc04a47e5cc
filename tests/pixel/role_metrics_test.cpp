// Errors of normals, light and channels against what geometry and arithmetic say.
#include "pixel/role_metrics.h"

#include <gtest/gtest.h>

#include <cmath>
#include <limits>

using namespace skivet;

namespace {

/// A unit vector as a texel holds it: (n + 1) / 2 · 255, the usual mapping.
Texel packed(double x, double y, double z) {
    const auto code = [](double v) { return static_cast<std::uint8_t>(std::lround((v + 1) / 2 * 255)); };
    return {code(x), code(y), code(z), 255};
}

}  // namespace

TEST(RoleMetrics, NormalsThatAreTurnedAreOffByTheirTurn) {
    constexpr double degree = 3.14159265358979323846 / 180;
    for (const double turn : {1.0, 5.0, 30.0, 90.0}) {
        Image flat(40, 25), turned(40, 25);
        for (std::size_t i = 0; i < flat.texels.size(); ++i) {
            flat.texels[i] = packed(0, 0, 1);
            turned.texels[i] = packed(std::sin(turn * degree), 0, std::cos(turn * degree));
        }
        for (const int z : {2, -1}) {
            const auto off = angles_between({0, 1, static_cast<std::int8_t>(z)}, flat, turned);
            EXPECT_NEAR(off.mean, turn, 0.6) << "8 bits are half a degree";
            EXPECT_NEAR(off.most, off.mean, 1.0 / 64);
        }
    }
}

TEST(RoleMetrics, NinetyNineOfAHundredStayWithinTheSecondFigure) {
    Image a(50, 40), b;
    for (auto& t : a.texels) t = packed(0, 0, 1);
    b = a;
    for (std::size_t i = 0; i < 20; ++i) b.texels[i * 97] = packed(1, 0, 0);  // one in a hundred
    EXPECT_NEAR(angles_between({}, a, b).mean, 90.0 / 100, 0.05);
    EXPECT_EQ(angles_between({}, a, b).most, 0);
    b.texels[1] = packed(1, 0, 0);  // and one more
    EXPECT_NEAR(angles_between({}, a, b).most, 90, 1);
    EXPECT_EQ(angles_between({}, a, a).mean, 0);
    EXPECT_EQ(angles_between({}, Image(), Image()).most, 0);
}

TEST(RoleMetrics, TwiceTheLightIsAStop) {
    ImageF a(8, 8), b(8, 8);
    for (std::size_t i = 0; i < 64; ++i) {
        const auto v = static_cast<float>(std::ldexp(1.0, static_cast<int>(i % 20) - 10));
        a.texels[i] = {v, v, v, 1};
        b.texels[i] = {2 * v, v / 2, v, 0};
    }
    EXPECT_NEAR(stops_between(a, b).mean, 2.0 / 3, 1e-9);
    EXPECT_EQ(stops_between(a, b).most, 1);
    // What nobody sees, and what is no number.
    ImageF dark(2, 1), none(2, 1);
    dark.texels[0] = {1e-9f, -5, 0, 1};
    none.texels[0] = {0, 0, std::numeric_limits<float>::quiet_NaN(), 1};
    EXPECT_EQ(stops_between(dark, none).mean, 0);
    dark.texels[1] = {std::numeric_limits<float>::infinity(), 1, 1, 1};
    none.texels[1] = {1, 1, 1, 1};
    EXPECT_NEAR(stops_between(dark, none).mean, 16.0 / 6, 1e-3) << "the largest half float is 16 stops above one";
}

TEST(RoleMetrics, EachChannelByItself) {
    Image a(10, 10), b(10, 10);
    for (auto& t : b.texels) t[1] = 255;
    b.texels[0][3] ^= 1;
    const auto all = psnr_by_channel(a, b);
    EXPECT_TRUE(std::isinf(all[0]) && std::isinf(all[2]));
    EXPECT_NEAR(all[1], 0, 1e-9) << "as far off as can be";
    EXPECT_NEAR(all[3], 10 * std::log10(255.0 * 255 * 100), 1e-9);
}
