// Single channels (BC3's alpha, BC4, BC5) beside all there is: the values of every pair of end bytes as the decoder gives them, so that no
// formula is shared with the encoder, and for each block the pair that comes nearest.
#include <gtest/gtest.h>

#include <array>
#include <cmath>
#include <random>
#include <string>
#include <vector>

#include "codec/blocks.h"
#include "codec/weights.h"

using namespace skivet;

namespace {

using Values = std::array<std::uint8_t, 16>;
enum class Kind { unsigned_values, signed_values, alpha };

std::size_t channel_of(Kind kind) { return kind == Kind::alpha ? 3 : 0; }

std::array<Texel, 16> decoded(const std::byte* part, Kind kind) {
    std::array<Texel, 16> out{};
    decode_channel_part(part, out.data(), 4, channel_of(kind), kind == Kind::signed_values);
    return out;
}

/// The eight values of each of the 65,536 pairs.
const std::vector<std::array<std::uint8_t, 8>>& palettes(Kind kind) {
    static const auto made = [] {
        std::array<std::vector<std::array<std::uint8_t, 8>>, 3> out;
        for (const auto k : {Kind::unsigned_values, Kind::signed_values, Kind::alpha})
            for (unsigned pair = 0; pair < 65536; ++pair) {
                std::array<std::byte, 8> part{std::byte(pair & 255), std::byte(pair >> 8)};
                std::uint64_t indices = 0;
                for (std::uint64_t i = 0; i < 8; ++i) indices |= i << (3 * i);
                store_uint(part.data() + 2, indices, 6, ByteOrder::little);
                const auto texels = decoded(part.data(), k);
                auto& palette = out[static_cast<std::size_t>(k)].emplace_back();
                for (std::size_t i = 0; i < 8; ++i) palette[i] = texels[i][channel_of(k)];
            }
        return out;
    }();
    return made[static_cast<std::size_t>(kind)];
}

/// Squared, each texel's times its weight.
int best_error(const Values& values, Kind kind, const std::array<int, 16>& weights) {
    int best = 1 << 30;
    for (const auto& palette : palettes(kind)) {
        int sum = 0;
        for (std::size_t i = 0; i < 16 && sum < best; ++i) {
            int nearest = 1 << 20;
            for (const int v : palette) nearest = std::min(nearest, (v - values[i]) * (v - values[i]));
            // Alpha of 0 and 255 means clear and opaque, which must not become nearly so.
            if (kind == Kind::alpha && nearest > 0 && (values[i] == 0 || values[i] == 255)) nearest = 1 << 20;
            sum += nearest * weights[i];
        }
        best = std::min(best, sum);
    }
    return best;
}

constexpr std::array<int, 16> all_alike = {1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1};

/// What textures have in one channel: slopes with noise, edges between few values, soft edges of what is cut out, loose values.
std::vector<Values> blocks_of(Kind kind) {
    std::mt19937 random(7);
    std::vector<Values> out;
    const auto put = [&](auto value) {
        auto& block = out.emplace_back();
        for (std::size_t i = 0; i < 16; ++i)
            block[i] = static_cast<std::uint8_t>(std::clamp(value(i), kind == Kind::signed_values ? 1.0 : 0.0, 255.0));
    };
    const auto pick = [&](int n) { return static_cast<double>(random() % static_cast<unsigned>(n)); };
    for (int n = 0; n < 25; ++n) {
        const double base = pick(256), dx = pick(41) - 20, dy = pick(41) - 20, noise = 1 + pick(20);
        put([&](std::size_t i) {
            return base + dx * static_cast<double>(i % 4) + dy * static_cast<double>(i / 4) + pick(static_cast<int>(noise));
        });
        const std::array<double, 4> few = {pick(256), pick(256), pick(256), pick(256)};
        const int count = 2 + n % 3;
        put([&](std::size_t) { return few[static_cast<std::size_t>(pick(count))]; });
        const double at = pick(8) - 2, soft = 20 + pick(150), high = n % 2 ? 255 : pick(256);
        put([&](std::size_t i) { return std::min(high, (static_cast<double>(i % 4 + i / 4) - at) * soft); });
        put([&](std::size_t) { return pick(256); });
    }
    return out;
}

class ChannelOptimum : public testing::TestWithParam<Kind> {};
std::string name_of_kind(const testing::TestParamInfo<Kind>& info) {
    return info.param == Kind::alpha ? "alpha" : info.param == Kind::signed_values ? "signed" : "unsigned";
}
INSTANTIATE_TEST_SUITE_P(All, ChannelOptimum, testing::Values(Kind::unsigned_values, Kind::signed_values, Kind::alpha), name_of_kind);

/// Squared errors of the blocks as they are encoded.
std::vector<int> errors_of(const std::vector<Values>& blocks, Kind kind, Effort effort) {
    const auto channel = channel_of(kind);
    std::vector<Texel> texels;
    for (const auto& block : blocks)
        for (const auto v : block) texels.emplace_back()[channel] = v;
    Bytes bytes(blocks.size() * 8);
    EncodeOptions options;
    options.effort = effort;
    encode_channel_parts(texels.data(), blocks.size(), bytes.data(), 8, channel, kind == Kind::signed_values, options);
    std::vector<int> out;
    for (std::size_t b = 0; b < blocks.size(); ++b) {
        const auto got = decoded(bytes.data() + b * 8, kind);
        int error = 0;
        for (std::size_t i = 0; i < 16; ++i) error += (got[i][channel] - blocks[b][i]) * (got[i][channel] - blocks[b][i]);
        out.push_back(error);
    }
    return out;
}

}  // namespace

TEST_P(ChannelOptimum, IsMetWithinTwoHundredthsOfADecibelAtBest) {
    const auto blocks = blocks_of(GetParam());
    std::vector<int> least;
    for (const auto& block : blocks) least.push_back(best_error(block, GetParam(), all_alike));
    for (const auto& [effort, most] : {std::pair(Effort::fast, 0.5), std::pair(Effort::normal, 0.1), std::pair(Effort::best, 0.02)}) {
        const auto ours = errors_of(blocks, GetParam(), effort);
        double sum = 0, sum_least = 0;
        for (std::size_t b = 0; b < blocks.size(); ++b) {
            EXPECT_GE(ours[b], least[b]) << "nothing is better than all there is; block " << b;
            sum += ours[b];
            sum_least += least[b];
        }
        EXPECT_LE(10 * std::log10(sum / sum_least), most) << static_cast<int>(effort);
    }
}

TEST_P(ChannelOptimum, WhatABlockCouldHoldComesBackWhenItIsEncodedAgain) {
    std::mt19937 random(11);
    std::vector<Values> blocks;
    for (int n = 0; n < 2000; ++n) {
        std::array<std::byte, 8> part{};
        for (auto& b : part) b = std::byte(random() & 255);
        auto& block = blocks.emplace_back();
        const auto texels = decoded(part.data(), GetParam());
        for (std::size_t i = 0; i < 16; ++i) block[i] = texels[i][channel_of(GetParam())];
    }
    for (const auto& [effort, most] : {std::pair(Effort::fast, 120), std::pair(Effort::normal, 60), std::pair(Effort::best, 5)}) {
        const auto errors = errors_of(blocks, GetParam(), effort);
        const auto lost = std::count_if(errors.begin(), errors.end(), [](int e) { return e > 0; });
        EXPECT_LE(lost, most) << static_cast<int>(effort);
    }
}

TEST(ChannelWeights, OfNormalsAreMetLikewise) {
    // Texels of a normal map of two channels: red is searched, green gives it its weights.
    const auto reds = blocks_of(Kind::unsigned_values), greens = blocks_of(Kind::signed_values);
    std::vector<Texel> texels;
    for (std::size_t b = 0; b < reds.size(); ++b)
        for (std::size_t i = 0; i < 16; ++i) texels.push_back({reds[b][i], greens[(b + 1) % greens.size()][i], 0, 255});
    EncodeOptions options;
    options.normals = NormalChannels{0, 1, -1};
    std::vector<std::array<int, 16>> weights(reds.size());
    double least = 0;
    for (std::size_t b = 0; b < reds.size(); ++b) {
        for (std::size_t i = 0; i < 16; ++i) weights[b][i] = channel_weights(options, texels[b * 16 + i])[0];
        least += best_error(reds[b], Kind::unsigned_values, weights[b]);
    }
    for (const auto& [effort, most] : {std::pair(Effort::fast, 0.6), std::pair(Effort::normal, 0.1), std::pair(Effort::best, 0.02)}) {
        options.effort = effort;
        Bytes bytes(reds.size() * 8);
        encode_channel_parts(texels.data(), reds.size(), bytes.data(), 8, 0, false, options);
        double sum = 0;
        for (std::size_t b = 0; b < reds.size(); ++b) {
            const auto got = decoded(bytes.data() + b * 8, Kind::unsigned_values);
            for (std::size_t i = 0; i < 16; ++i) sum += weights[b][i] * std::pow(got[i][0] - reds[b][i], 2);
        }
        EXPECT_LE(10 * std::log10(sum / least), most) << static_cast<int>(effort);
    }
}
