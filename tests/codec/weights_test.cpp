// What errors count, against the angles themselves.
#include "codec/weights.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "pixel/normals.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// A unit vector, not too close to the rim, as bytes.
std::array<int, 3> random_normal(std::mt19937& random) {
    std::uniform_real_distribution<double> part(-0.8, 0.8);
    double x = 1, y = 1;
    while (x * x + y * y > 0.8) x = part(random), y = part(random);
    const auto byte = [](double v) { return static_cast<int>(std::lround((v + 1) * 127.5)); };
    return {byte(x), byte(y), byte(std::sqrt(1 - x * x - y * y))};
}

/// Radians between the normals two texels stand for.
double angle(const NormalChannels& channels, const TexelF& a, const TexelF& b) {
    return angle_between(channels, a, b) * std::acos(-1.0) / 180;
}

}  // namespace

TEST(Weights, AreAllAlikeUnlessAsked) {
    EXPECT_FALSE(counts_by_channel({}));
    EXPECT_EQ(channel_weights({}, {1, 2, 3, 4}), (std::array<std::uint16_t, 4>{32, 32, 32, 32}));
}

TEST(Weights, ColorCountsByItsAlphaAndNeverNothing) {
    const EncodeOptions options{Effort::normal, true};
    EXPECT_TRUE(counts_by_channel(options));
    EXPECT_EQ(channel_weights(options, {9, 9, 9, 255}), (std::array<std::uint16_t, 4>{32, 32, 32, 32}));
    EXPECT_EQ(channel_weights(options, {9, 9, 9, 128}), (std::array<std::uint16_t, 4>{16, 16, 16, 32}));
    EXPECT_EQ(channel_weights(options, {9, 9, 9, 0}), (std::array<std::uint16_t, 4>{1, 1, 1, 32}));
    for (int a = 1; a < 256; ++a)
        EXPECT_GE(channel_weights(options, {0, 0, 0, static_cast<std::uint8_t>(a)})[0],
                  channel_weights(options, {0, 0, 0, static_cast<std::uint8_t>(a - 1)})[0]);
}

// A small error d in one channel makes an angle whose square is weight × d²: taken from the angle itself, by a difference quotient.
TEST(Weights, OfNormalsAreTheSquaredAngleOfAnErrorInOneChannel) {
    std::mt19937 random(5);
    for (const auto& channels : {NormalChannels{}, NormalChannels{0, 1, -1}, NormalChannels{3, 1, -1}}) {
        EncodeOptions options;
        options.normals = channels;
        for (int n = 0; n < 200; ++n) {
            const auto normal = random_normal(random);
            Texel texel = {0, 0, 0, 0};
            texel[channels.x] = static_cast<std::uint8_t>(normal[0]);
            texel[channels.y] = static_cast<std::uint8_t>(normal[1]);
            if (channels.z >= 0) texel[static_cast<std::size_t>(channels.z)] = static_cast<std::uint8_t>(normal[2]);
            TexelF exact;
            for (std::size_t c = 0; c < 4; ++c) exact[c] = texel[c] / 255.0f;
            const auto weights = channel_weights(options, texel);
            for (const std::size_t c : {std::size_t{channels.x}, std::size_t{channels.y}}) {
                auto off = exact;
                const float d = 0.01f;  // of the vector's 2 from end to end
                off[c] += d;
                const double expected = std::pow(angle(channels, exact, off) / (2 * d), 2) * 32;
                EXPECT_NEAR(weights[c], expected, 1.5 + 0.12 * expected) << "channel " << c << " of " << normal[0] << "," << normal[1];
            }
        }
    }
}

TEST(Weights, TheAngleInFullHoldsForErrorsInAnyDirection) {
    std::mt19937 random(6);
    std::uniform_real_distribution<double> part(-1, 1);
    for (const auto& channels : {NormalChannels{}, NormalChannels{0, 1, -1}}) {
        EncodeOptions options;
        options.normals = channels;
        for (int n = 0; n < 300; ++n) {
            const auto normal = random_normal(random);
            const Texel texel = {static_cast<std::uint8_t>(normal[0]), static_cast<std::uint8_t>(normal[1]),
                                 static_cast<std::uint8_t>(channels.z >= 0 ? normal[2] : 0), 255};
            const auto metric = angle_metric(options, texel);
            TexelF exact, off;
            double sum = 0, along = 0, plain = 0;
            for (std::size_t c = 0; c < 4; ++c) exact[c] = off[c] = texel[c] / 255.0f;
            for (std::size_t c = 0; c < (channels.z >= 0 ? 3u : 2u); ++c) {
                const double d = part(random) * 0.02;
                off[c] += static_cast<float>(d / 2);
                sum += metric.square[c] * d * d;
                along += metric.along[c] / 255 * d;
                plain += d * d;
            }
            const double squared = sum + metric.mixed * 255 * 255 * along * along, expected = std::pow(angle(channels, exact, off), 2);
            // An eighth of the error along a stored normal is counted though it makes no angle.
            EXPECT_NEAR(squared, expected, 0.14 * plain + 0.12 * expected);
        }
    }
}

TEST(Weights, HoldNothingOfTheNormalLeastButNotNothing) {
    EncodeOptions options;
    options.normals = NormalChannels{3, 1, -1};
    const auto weights = channel_weights(options, {7, 128, 9, 128});
    EXPECT_EQ(weights[0], 1);
    EXPECT_EQ(weights[2], 1);
    EXPECT_EQ(weights[1], 32);
    EXPECT_EQ(weights[3], 32);
    options.normals = NormalChannels{};
    const auto flat = channel_weights(options, {128, 128, 255, 77});
    EXPECT_EQ(flat[2], 4) << "the length stays near one";
    EXPECT_EQ(flat[3], 32) << "alpha is something else and counts in full";
}
