// Pictures that look alike.
#include <gtest/gtest.h>
#include <array>
#include <atomic>
#include <bit>
#include <memory>
#include <random>
#include <vector>

#include "catalog/alike.h"
#include "catalog/close_hashes.h"
#include "catalog/window_scan.h"
#include "pixel/mips.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// A picture with structure at several scales, different for every seed.
Image scene(std::uint32_t side, unsigned seed) {
    std::mt19937 random(seed);
    Image out(side, side,
              {static_cast<std::uint8_t>(random() % 200), static_cast<std::uint8_t>(random() % 200),
               static_cast<std::uint8_t>(random() % 200), 255});
    for (int n = 0; n < 14; ++n) {
        const auto share = [&] { return static_cast<double>(random() % 1000) / 1000; };
        const double cx = share(), cy = share(), r = 0.05 + share() / 5;
        const Texel color = {static_cast<std::uint8_t>(random()), static_cast<std::uint8_t>(random()), static_cast<std::uint8_t>(random()),
                             255};
        const bool round = random() % 2;
        for (std::uint32_t y = 0; y < side; ++y)
            for (std::uint32_t x = 0; x < side; ++x) {
                const double dx = (x + 0.5) / side - cx, dy = (y + 0.5) / side - cy;
                if (round ? dx * dx + dy * dy < r * r : std::abs(dx) < r && std::abs(dy) < r / 2) out.at(x, y) = color;
            }
    }
    return out;
}
Image crop(const Image& in, double x, double y, double w, double h) {
    const auto px = [&](double v, std::uint32_t side) { return static_cast<std::uint32_t>(v * side); };
    Image out(px(w, in.width), px(h, in.height));
    for (std::uint32_t j = 0; j < out.height; ++j)
        for (std::uint32_t i = 0; i < out.width; ++i) out.at(i, j) = in.at(px(x, in.width) + i, px(y, in.height) + j);
    return out;
}
Image mirrored(const Image& in) {
    Image out = in;
    for (std::uint32_t y = 0; y < in.height; ++y)
        for (std::uint32_t x = 0; x < in.width; ++x) out.at(x, y) = in.at(in.width - 1 - x, y);
    return out;
}
Image clockwise(const Image& in) {
    Image out(in.height, in.width);
    for (std::uint32_t y = 0; y < out.height; ++y)
        for (std::uint32_t x = 0; x < out.width; ++x) out.at(x, y) = in.at(y, in.height - 1 - x);
    return out;
}
Image small(const Image& in, std::uint32_t side) { return to_bytes(resize(to_float(in, false), side, side, MipFilter::box), false); }
Image brighter(Image in, double factor, int shift) {
    for (auto& t : in.texels)
        for (std::size_t c = 0; c < 3; ++c) t[c] = static_cast<std::uint8_t>(std::clamp(t[c] * factor + shift, 0.0, 255.0));
    return in;
}
FactsPtr facts(const Image& picture) { return std::make_shared<PictureFacts>(facts_of_picture(picture)); }

struct FindPicture : testing::Test {
    static constexpr std::size_t count = 300;
    static inline std::vector<Image> scenes;  // drawn once for all tests
    static inline PictureSearch search;
    static void SetUpTestSuite() {
        std::vector<FactsPtr> all;
        for (unsigned i = 0; i < count; ++i) {
            scenes.push_back(scene(128, i + 1));
            all.push_back(facts(scenes.back()));
        }
        all.push_back(nullptr);  // not looked at yet
        search = PictureSearch::build(std::move(all));
    }
    PictureHit best(const Image& picture) {
        const auto hits = search.find(picture, 5);
        return hits && !hits->empty() ? hits->front() : PictureHit{count};
    }
};

}  // namespace

TEST_F(FindPicture, SizeLightMirrorAndTurnsDoNotHide) {
    for (std::size_t i = 0; i < count; i += 37) {
        EXPECT_EQ(best(scenes[i]).picture, i);
        EXPECT_GT(best(scenes[i]).score, 0.98f);
        EXPECT_EQ(best(small(scenes[i], 48)).picture, i);
        EXPECT_EQ(best(brighter(scenes[i], 0.8, 12)).picture, i);
        const auto flipped = best(mirrored(scenes[i]));
        EXPECT_EQ(flipped.picture, i);
        EXPECT_TRUE(flipped.mirrored);
        auto turned = scenes[i];
        for (int n = 0; n < 3; ++n) {
            turned = clockwise(turned);
            EXPECT_EQ(best(turned).picture, i) << n;
        }
        EXPECT_EQ(best(clockwise(mirrored(scenes[i]))).picture, i);
    }
}

TEST_F(FindPicture, AQuarterOfTheTextureIsEnoughAndItsPlaceIsFound) {
    int found = 0, asked = 0;
    std::mt19937 random(9);
    for (std::size_t i = 0; i < count; i += 3, ++asked) {
        const auto share = [&] { return static_cast<double>(random() % 100) / 100; };
        const double w = 0.5 + share() / 4, h = 0.5 + share() / 4, x = (1 - w) * share(), y = (1 - h) * share();
        const auto hits = *search.find(crop(scenes[i], x, y, w, h), 5);
        const auto hit = std::find_if(hits.begin(), hits.end(), [&](const PictureHit& p) { return p.picture == i; });
        if (hit == hits.end()) continue;
        ++found;
        if (hit == hits.begin() && !hit->mirrored && hit->quarter_turns == 0) EXPECT_NEAR(hit->x + hit->width / 2, x + w / 2, 0.15) << i;
    }
    EXPECT_GE(found, asked * 95 / 100) << found << " of " << asked;
}

TEST_F(FindPicture, AnswersAreOrderedLimitedAndCancelable) {
    const auto hits = *search.find(scenes[0], 4);
    ASSERT_EQ(hits.size(), 4u);
    for (std::size_t i = 1; i < hits.size(); ++i) EXPECT_LE(hits[i].score, hits[i - 1].score);
    EXPECT_TRUE(std::none_of(hits.begin(), hits.end(), [](const PictureHit& h) { return h.picture == count; }));
    CancelToken cancel;
    cancel.cancel();
    EXPECT_EQ(search.find(scenes[0], 4, cancel).error().code, ErrorCode::canceled);
    EXPECT_TRUE(PictureSearch::build({}).find(scenes[0], 4)->empty());
}

TEST_F(FindPicture, APlainColorFindsTheNearestColor) {
    std::vector<FactsPtr> all = {facts(Image(32, 32, {200, 10, 10, 255})), facts(Image(32, 32, {10, 200, 10, 255})), facts(scenes[0])};
    const auto plain = PictureSearch::build(all);
    EXPECT_EQ(plain.find(Image(8, 8, {20, 190, 20, 255}), 1)->front().picture, 1u);
}

TEST_F(FindPicture, ColorsUnderZeroAlphaDoNotMatter) {
    // A texture with alpha, and the same as a program leaves it that throws hidden colors away.
    auto leaf = scenes[5];
    for (std::uint32_t y = 0; y < leaf.height; ++y)
        for (std::uint32_t x = 0; x < leaf.width; ++x)
            if ((x - 64.0) * (x - 64.0) + (y - 50.0) * (y - 50.0) > 1600 && (x > 30 || y < 90)) leaf.at(x, y)[3] = 0;
    std::vector<FactsPtr> all;
    for (const auto& s : scenes) all.push_back(facts(s));
    all.push_back(facts(leaf));
    auto painted = leaf;
    for (auto& t : painted.texels)
        if (t[3] == 0) t = {0, 0, 0, 0};
    EXPECT_EQ(PictureSearch::build(all).find(painted, 1)->front().picture, count);
}

TEST(WindowScan, TheLoopFindsTheLargestProduct) {
    std::mt19937 random(3);
    std::vector<std::int8_t> windows(50 * scan_windows * scan_cells), queries(scan_turns * scan_cells);
    for (auto& v : windows) v = static_cast<std::int8_t>(static_cast<int>(random() % 63) - 31);
    for (auto& v : queries) v = static_cast<std::int8_t>(static_cast<int>(random() % 63) - 31);
    std::vector<std::int16_t> best(50);
    scan(windows.data(), 50, queries.data(), best.data());
    for (std::size_t t = 0; t < 50; ++t) {
        int most = 0;
        for (std::size_t turn = 0; turn < scan_turns; ++turn)
            for (std::size_t w = 0; w < scan_windows; ++w) {
                int dot = 0;
                for (std::size_t k = 0; k < scan_cells; ++k)
                    dot += windows[(t * scan_cells + k) * scan_windows + w] * queries[turn * scan_cells + k];
                most = std::max(most, dot);
            }
        EXPECT_EQ(best[t], most);
    }
}

TEST(Twins, HashesThatDifferInFewBitsAreFoundInEveryNumberOfThem) {
    std::mt19937_64 random(7);
    std::array<std::uint64_t, most_compared> low{}, high{};
    const std::uint64_t own_low = random(), own_high = random();
    for (std::size_t k = 0; k < most_compared; ++k) {
        low[k] = own_low, high[k] = own_high;
        for (auto bits = random() % 16; bits > 0; --bits) (random() % 2 ? low : high)[k] ^= 1ull << random() % 64;
    }
    low[5] = ~own_low;
    for (std::size_t count = 0; count <= most_compared; ++count)
        for (const unsigned most : {0u, 7u, 128u}) {
            std::uint64_t expected = 0;
            for (std::size_t k = 0; k < count; ++k)
                if (static_cast<unsigned>(std::popcount(low[k] ^ own_low) + std::popcount(high[k] ^ own_high)) <= most)
                    expected |= 1ull << k;
            EXPECT_EQ(close_hashes(own_low, own_high, low.data(), high.data(), count, most), expected) << count << " within " << most;
        }
}

TEST(Twins, SameSmallerLargerAndRecolored) {
    const auto picture = scene(128, 77);
    auto other = picture;
    for (auto& t : other.texels) std::swap(t[0], t[2]);
    const std::vector<Comparable> all = {{facts(picture), 128, 128},
                                         {facts(small(picture, 64)), 64, 64},
                                         {facts(brighter(picture, 1, 3)), 128, 128},
                                         {facts(other), 128, 128},
                                         {facts(scene(128, 78)), 128, 128},
                                         {facts(picture), 256, 64},
                                         {}};
    EXPECT_EQ(likeness(all[0], all[1]), Likeness::smaller);
    EXPECT_EQ(likeness(all[1], all[0]), Likeness::larger);
    EXPECT_EQ(likeness(all[0], all[2]), Likeness::same);
    EXPECT_EQ(likeness(all[0], all[4]), Likeness::none);
    EXPECT_EQ(likeness(all[0], all[5]), Likeness::none) << "other proportions";
    EXPECT_EQ(likeness(all[0], all[6]), Likeness::none);
    const auto found = alike_to(all, 0);
    ASSERT_GE(found.size(), 2u);
    EXPECT_EQ(found[0].index, 2u) << "the same come first";
    const auto counts = count_twins(all);
    EXPECT_EQ(counts[0], 2u);
    EXPECT_EQ(counts[4], 0u);
    EXPECT_EQ(counts[6], 0u);
}

TEST(Twins, CountingAgreesWithComparingAllPairs) {
    std::vector<Comparable> all;
    for (unsigned i = 0; i < 150; ++i) {
        const auto picture = scene(64, 1000 + i % 120);  // thirty of them twice
        all.push_back({facts(i < 120 ? picture : brighter(picture, 1, 2)), 64, 64});
    }
    const auto counts = count_twins(all);
    for (std::size_t i = 0; i < all.size(); ++i) {
        std::uint32_t expected = 0;
        for (std::size_t j = 0; j < all.size(); ++j) {
            const auto kind = i == j ? Likeness::none : likeness(all[i], all[j]);
            expected += kind != Likeness::none && kind != Likeness::variant;
        }
        EXPECT_EQ(counts[i], expected) << i;
    }
}

TEST(Twins, WhatIsThereVeryOftenIsComparedOnlyWithSome) {
    struct Counting final : PatternStore {
        std::vector<PicturePattern> patterns;
        mutable std::atomic<std::size_t> asked = 0;
        [[nodiscard]] PicturePattern pattern(std::int64_t number) const override {
            return ++asked, patterns[static_cast<std::size_t>(number)];
        }
    };
    const auto store = std::make_shared<Counting>();
    const auto picture = scene(64, 5);
    std::vector<Comparable> all;
    std::mt19937 random(5);
    for (int i = 0; i < 2000; ++i) {
        const auto one = facts(i % 100 == 99 ? scene(64, 1000 + static_cast<unsigned>(i)) : brighter(picture, 1, 1 + i % 7));
        store->patterns.push_back(one->pattern());
        auto numbers = static_cast<PictureNumbers>(*one);
        numbers.level0 = static_cast<std::uint64_t>(i) + 1;  // files that differ
        // Each meets others in other parts of the hash, which are of a row of cells each.
        for (const std::size_t row : {0, 2, 4})
            numbers.coarse[row * 8 + 3] = static_cast<std::int8_t>(numbers.coarse[row * 8 + 4] + (random() % 2 ? 5 : -5));
        all.push_back({std::make_shared<PictureFacts>(numbers, store, i), 64, 64});
    }
    const auto counts = count_twins(all);
    for (std::size_t i = 0; i < all.size(); ++i)
        if (i % 100 == 99) EXPECT_EQ(counts[i], 0u) << i;
        else EXPECT_GE(counts[i], 48u) << i;
    EXPECT_EQ(count_twins(all), counts);
    EXPECT_LT(store->asked, 2 * 2 * all.size()) << "once or twice each, not once in every part of the hash";
}

TEST(Twins, NumbersAloneNeverRuleOutWhatPatternsWouldNot) {
    std::vector<PictureFacts> all;
    for (unsigned i = 0; i < 40; ++i) all.push_back(facts_of_picture(i % 4 == 3 ? brighter(scene(64, i - 1), 0.9, 4) : scene(64, i)));
    for (unsigned i = 0; i < 8; ++i) all.push_back(facts_of_picture(random_picture(96, 64, i)));
    std::size_t ruled_out = 0;
    for (const auto& a : all)
        for (const auto& b : all) {
            const auto bound = most_agreement(a, b), real = pattern_agreement(a.pattern(), b.pattern());
            EXPECT_GE(bound, real - 1e-5f);
            ruled_out += bound < 0.9f;
        }
    EXPECT_GT(ruled_out, all.size() * all.size() / 2) << "most pairs need no pattern";
}

TEST(Twins, PatternsAreMeansWhateverSizeAPictureHas) {
    const auto expect_same = [](const PictureFacts& a, const PictureFacts& b, int off, std::uint32_t width) {
        const auto p = a.pattern(), q = b.pattern();
        for (std::size_t i = 0; i < p.luma.size(); ++i) ASSERT_NEAR(p.luma[i], q.luma[i], off) << width << ' ' << i;
        for (std::size_t i = 0; i < p.over.size(); ++i) ASSERT_NEAR(p.over[i], q.over[i], off) << width << ' ' << i;
        for (std::size_t i = 0; i < p.blue.size(); ++i) ASSERT_NEAR(p.blue[i], q.blue[i], off) << width << ' ' << i;
        for (std::size_t c = 0; c < 4; ++c) ASSERT_NEAR(a.mean[c], b.mean[c], off) << width;
    };
    // Each row three times and each column twice: as many texels to a value as fit, the same means.
    for (const std::uint32_t width : {8u, 32u, 64u}) {
        const auto picture = smooth_picture(width, 32, width, true);
        Image larger(2 * width, 96);
        for (std::uint32_t y = 0; y < 96; ++y)
            for (std::uint32_t x = 0; x < 2 * width; ++x) larger.at(x, y) = picture.at(x / 2, y / 3);
        expect_same(facts_of_picture(picture), facts_of_picture(larger), 1, width);
    }
    // A ramp is the same ramp at every size, also where no whole number of texels makes a value and the filter does it.
    const auto ramp = [](std::uint32_t side) {
        Image out(side, side);
        for (std::uint32_t y = 0; y < side; ++y)
            for (std::uint32_t x = 0; x < side; ++x) {
                const auto value = static_cast<std::uint8_t>(255 * (y + x + 1) / (2 * side));
                out.at(x, y) = {value, value, static_cast<std::uint8_t>(255 - value), 255};
            }
        return out;
    };
    for (const std::uint32_t side : {40u, 48u, 100u, 96u, 256u})
        expect_same(facts_of_picture(ramp(128)), facts_of_picture(ramp(side)), 2, side);
}

TEST(Twins, FlatPicturesAreTheSameOnlyBitForBit) {
    const auto gray = facts(Image(32, 32, {128, 128, 128, 255})), nearly = facts(Image(32, 32, {129, 129, 129, 255}));
    EXPECT_EQ(likeness({gray, 32, 32}, {nearly, 32, 32}), Likeness::none);
    auto copy = std::make_shared<PictureFacts>(*gray);
    auto other = std::make_shared<PictureFacts>(*gray);
    copy->level0 = other->level0 = 42;
    EXPECT_EQ(likeness({copy, 32, 32}, {other, 32, 32}), Likeness::same);
}
