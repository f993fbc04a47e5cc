// What parts of a file can be looked at at the same time, beside what it means.
#include <gtest/gtest.h>
#include <tbb/global_control.h>
#include <algorithm>
#include <bitset>
#include <random>
#include <vector>

#include "sift/bare.h"
#include "sift/waves.h"
#include "support/headerless.h"

using namespace skivet;
using namespace skivet::test;

TEST(Covered, IsTheSetOfAllBytesAdded) {
    std::mt19937 random(3);
    for (int round = 0; round < 200; ++round) {
        Covered covered;
        std::bitset<300> there;
        for (int k = 0; k < round % 20; ++k) {
            const std::uint64_t from = random() % 280, to = from + random() % 20;
            covered.add({from, to});
            for (auto i = from; i < to; ++i) there.set(i);
        }
        for (std::size_t at = 0; at < 280; ++at) {
            auto free = at, taken = at;
            while (there.test(free)) ++free;
            while (taken < 299 && !there.test(taken)) ++taken;
            EXPECT_EQ(covered.next_free(at), free);
            EXPECT_EQ(covered.next_covered(at, 299), taken);
        }
    }
}

TEST(Waves, WhatMeetsComesOneAfterTheOtherInItsOrderAndNothingElseWaits) {
    std::mt19937 random(4);
    for (int round = 0; round < 300; ++round) {
        std::vector<Span> spans(random() % 60);
        for (auto& span : spans) {
            span.from = random() % 2000;
            span.to = span.from + 1 + random() % (round % 3 ? 60 : 900);
        }
        const std::uint64_t reach = random() % 30;
        std::vector<std::size_t> wave(spans.size(), ~std::size_t{0});
        const auto waves = waves_of(spans, reach);
        for (std::size_t w = 0; w < waves.size(); ++w) {
            EXPECT_FALSE(waves[w].empty());
            for (const auto i : waves[w]) {
                ASSERT_LT(i, spans.size());
                EXPECT_EQ(wave[i], ~std::size_t{0}) << "twice";
                wave[i] = w;
            }
        }
        for (std::size_t j = 0; j < spans.size(); ++j) {
            ASSERT_NE(wave[j], ~std::size_t{0}) << "left out";
            // The first wave behind all that come before and meet it.
            std::size_t expected = 0;
            const auto begins = [&](const Span& s) { return s.from - std::min(reach, s.from); };
            for (std::size_t i = 0; i < j; ++i)
                if (begins(spans[i]) < spans[j].to + reach && begins(spans[j]) < spans[i].to + reach)
                    expected = std::max(expected, wave[i] + 1);
            EXPECT_EQ(wave[j], expected);
        }
    }
}

TEST(Waves, OnOneThreadTheSameTexturesAreFound) {
    MixtureOptions options;
    options.textures = 12;
    options.bytes = 4'000'000;
    const auto mixed = mixture(21, options);
    const auto found = [&] {
        std::uint64_t told = 0;
        auto out = find_bare_textures(mixed.bytes, {}, [&](std::uint64_t bytes) { told += bytes; });
        EXPECT_EQ(told, mixed.bytes.size()) << "progress ends where the data does";
        EXPECT_TRUE(out);
        return *std::move(out);
    };
    const auto many = found();
    const tbb::global_control one(tbb::global_control::max_allowed_parallelism, 1);
    const auto alone = found();
    EXPECT_GT(many.size(), 5u);
    ASSERT_EQ(many.size(), alone.size());
    for (std::size_t i = 0; i < many.size(); ++i) {
        EXPECT_EQ(many[i].at, alone[i].at);
        EXPECT_EQ(many[i].size, alone[i].size);
        EXPECT_EQ(many[i].desc, alone[i].desc);
        EXPECT_EQ(many[i].confidence, alone[i].confidence);
    }
}
