// How near BC7 comes to the best there is, on 256 and 640 blocks of each kind. The squared errors are the least that skivet_bc7_exhaustive
// found for the same pictures (2026-12-01; every mode, partition and rotation, hundreds of starts a line; all blocks,
// `skivet_bc7_exhaustive 0 FOLDER`, with alpha `--alpha 0`), of the 640 and of those with alpha with what the encoder found better in
// two noisy, four gray and seven blocks.
#include <gtest/gtest.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>
#include <vector>

#include "codec/codec.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Kind {
    const char* name;
    Image image;
    double least;                   ///< squared error over all blocks
    std::array<double, 3> allowed;  ///< decibels above it: fast, normal, best
};

std::vector<Kind> kinds_of(std::uint32_t width, std::uint32_t height, const std::array<double, 3>& least,
                           const std::array<std::array<double, 3>, 3>& allowed) {
    auto noisy = noisy_picture(width, height, 3);
    auto gray = noisy;
    for (auto& t : gray.texels) t[1] = t[2] = t[0];
    return {{"smooth", smooth_picture(width, height, 1), least[0], allowed[0]},
            {"noisy", std::move(noisy), least[1], allowed[1]},
            {"gray", std::move(gray), least[2], allowed[2]}};
}

/// 256 and 640 blocks of each.
std::vector<Kind> kinds() {
    auto out = kinds_of(64, 64, {35916, 478191, 8034}, {{{1.1, 0.6, 0.3}, {0.85, 0.3, 0.1}, {1.0, 0.4, 0.25}}});
    for (auto& kind : kinds_of(160, 64, {45399, 1043118, 14739}, {{{0.56, 0.32, 0.21}, {0.64, 0.25, 0.07}, {1.25, 0.55, 0.4}}}))
        out.push_back(std::move(kind));
    return out;
}

/// Alpha everywhere between, and stripes cut out with soft edges: squared errors over all four channels of what --alpha looks at, blocks
/// that are neither opaque nor empty.
std::vector<Kind> kinds_with_alpha() {
    auto soft = noisy_picture(64, 64, 3);
    for (auto& t : soft.texels) t[3] = static_cast<std::uint8_t>((t[0] + 2 * t[1] + t[2]) / 4);
    auto cut = smooth_picture(64, 64, 1);
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 64; ++x)
            cut.texels[y * 64 + x][3] = static_cast<std::uint8_t>(std::clamp(128 + 300 * std::sin(0.5 * x + 0.2 * y), 0.0, 255.0));
    return {{"soft", std::move(soft), 754149, {0.13, 0.08, 0.06}}, {"cut", std::move(cut), 293976, {0.3, 0.2, 0.15}}};
}

/// At each effort; `counts` says which blocks are in the sum, alpha of 0 and 255 stays everywhere.
template <class Counts>
void expect_near_the_best(const Kind& kind, const Counts& counts) {
    double before = 1e30;
    for (const auto effort : {Effort::fast, Effort::normal, Effort::best}) {
        EncodeOptions options;
        options.effort = effort;
        const auto got = *decode(Format::BC7, *encode(Format::BC7, kind.image, options), kind.image.width, kind.image.height);
        double error = 0;
        for (std::uint32_t y = 0; y < kind.image.height; y += 4)
            for (std::uint32_t x = 0; x < kind.image.width; x += 4) {
                BlockTexels meant;
                double of_block = 0;
                for (std::uint32_t i = 0; i < 16; ++i) {
                    meant[i] = kind.image.at(x + i % 4, y + i / 4);
                    const auto& is = got.at(x + i % 4, y + i / 4);
                    for (std::size_t c = 0; c < 4; ++c) of_block += std::pow(is[c] - meant[i][c], 2);
                    if (meant[i][3] == 0 || meant[i][3] == 255) ASSERT_EQ(is[3], meant[i][3]) << kind.name << ", " << name_of(effort);
                }
                if (counts(meant)) error += of_block;
            }
        const double above = 10 * std::log10(error / kind.least);
        std::printf("%s, %s: %.2f dB above the best\n", kind.name, std::string(name_of(effort)).c_str(), above);
        EXPECT_LE(above, kind.allowed[static_cast<std::size_t>(effort)]) << kind.name << ", " << name_of(effort);
        EXPECT_GE(above, -0.05) << "the search is no measure any more";
        EXPECT_LE(error, before) << kind.name << ", " << name_of(effort);
        before = error;
    }
}

TEST(Bc7, IsNearTheBestThatAHeavySearchFinds) {
    for (const auto& kind : kinds()) expect_near_the_best(kind, [](const BlockTexels&) { return true; });
}

TEST(Bc7, WithAlphaIsNearTheBestToo) {
    const auto has_alpha = [](const BlockTexels& block) {
        const auto all = [&](int alpha) { return std::all_of(block.begin(), block.end(), [&](const Texel& t) { return t[3] == alpha; }); };
        return !all(0) && !all(255);
    };
    for (const auto& kind : kinds_with_alpha()) expect_near_the_best(kind, has_alpha);
}

}  // namespace
