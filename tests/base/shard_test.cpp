// Parts of one list for several machines.
#include "base/shard.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <numeric>
#include <random>
#include <vector>

using namespace skivet;

namespace {

std::uint64_t bytes_of(const std::vector<std::uint64_t>& sizes, const std::vector<std::size_t>& part) {
    return std::accumulate(part.begin(), part.end(), std::uint64_t{0}, [&](std::uint64_t sum, std::size_t i) { return sum + sizes[i]; });
}

}  // namespace

TEST(Shard, IsWrittenAsPartOfAWhole) {
    const auto second = parse_shard("2/8");
    ASSERT_TRUE(second);
    EXPECT_EQ(second->number, 2u);
    EXPECT_EQ(second->of, 8u);
    EXPECT_TRUE(parse_shard("1/1")->is_all());
    for (const char* wrong : {"", "/", "2", "0/3", "4/3", "-1/3", "1/0", "1/3/", "1 /3", " 1/3", "x/3", "1/99999", "99999999999/3"}) {
        const auto shard = parse_shard(wrong);
        ASSERT_FALSE(shard) << wrong;
        EXPECT_EQ(shard.error().code, ErrorCode::usage);
        EXPECT_FALSE(shard.error().advice.empty());
    }
}

TEST(Shard, EachThingIsInExactlyOnePart) {
    std::mt19937 random(7);
    for (int round = 0; round < 200; ++round) {
        std::vector<std::uint64_t> sizes(random() % 60);
        for (auto& size : sizes) size = round % 3 == 0 ? 5 : random() % 1000 * (random() % 9 == 0 ? 1000 : 1);
        const auto of = std::uint32_t(1 + random() % 9);
        std::vector<int> seen(sizes.size());
        for (std::uint32_t n = 1; n <= of; ++n) {
            const auto part = part_of(sizes, {n, of});
            EXPECT_TRUE(std::is_sorted(part.begin(), part.end()));
            EXPECT_EQ(part, part_of(sizes, {n, of}));
            for (const auto i : part) ++seen[i];
        }
        EXPECT_TRUE(std::all_of(seen.begin(), seen.end(), [](int n) { return n == 1; }));
    }
}

// R. L. Graham, Bounds on Multiprocessing Timing Anomalies, SIAM Journal on Applied Mathematics 17 (1969): the longest-first schedule takes
// at most 4/3 - 1/(3m) times the best. Its worst case for two machines: jobs of 3, 3, 2, 2, 2 give 7 where 6 is best (from memory of the
// paper).
TEST(Shard, IsAsUnevenAsGrahamSaysAtWorst) {
    const std::vector<std::uint64_t> sizes = {3, 3, 2, 2, 2};
    const auto one = bytes_of(sizes, part_of(sizes, {1, 2})), two = bytes_of(sizes, part_of(sizes, {2, 2}));
    EXPECT_EQ(std::max(one, two), 7u);
    EXPECT_EQ(one + two, 12u);
    // No part is more than the bound above the mean or, if that is larger, above the largest thing: both are below the best there is.
    std::mt19937 random(11);
    for (int round = 0; round < 100; ++round) {
        std::vector<std::uint64_t> many(20 + random() % 200);
        for (auto& size : many) size = 1 + random() % 100'000;
        const auto of = std::uint32_t(2 + random() % 7);
        std::uint64_t most = 0;
        for (std::uint32_t n = 1; n <= of; ++n) most = std::max(most, bytes_of(many, part_of(many, {n, of})));
        const double mean = double(std::accumulate(many.begin(), many.end(), std::uint64_t{0})) / of;
        const double least = std::max(mean, double(*std::max_element(many.begin(), many.end())));
        EXPECT_LE(double(most), (4.0 / 3 - 1.0 / (3.0 * of)) * least + 1) << "with at least twenty things the mean is near the best";
    }
}

TEST(Shard, ThingsWithoutBytesAreSharedOutToo) {
    const std::vector<std::uint64_t> sizes(12, 0);
    for (std::uint32_t n = 1; n <= 4; ++n) EXPECT_EQ(part_of(sizes, {n, 4}).size(), 3u);
}
