#include "pixel/reduce.h"

#include <gtest/gtest.h>

#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

TEST(Reduce, MeansAndSamplesOfEachSquare) {
    // 700 rows of one square: more than a column's 16 bits hold at once.
    for (const auto& [width, height, step] :
         {std::tuple{64u, 48u, 4u}, {65u, 51u, 3u}, {33u, 7u, 1u}, {1405u, 1403u, 701u}, {9u, 900u, 20u}, {900u, 5u, 7u}, {1u, 1u, 2u}}) {
        auto image = random_picture(width, height, width + step);
        if (step == 701) image = Image(width, height, {255, 255, 254, 1});  // the largest sums
        const auto small = reduce(image, step);
        const auto wide = std::min(step, width), high = std::min(step, height);
        ASSERT_EQ(small.means.width, std::max(1u, width / step));
        ASSERT_EQ(small.means.height, std::max(1u, height / step));
        ASSERT_EQ(small.samples.texels.size(), small.means.texels.size());
        for (std::uint32_t y = 0; y < small.means.height; ++y)
            for (std::uint32_t x = 0; x < small.means.width; ++x) {
                EXPECT_EQ(small.samples.at(x, y), image.at(x * wide + wide / 2, y * high + high / 2));
                for (std::size_t c = 0; c < 4; ++c) {
                    std::uint64_t sum = 0;
                    for (std::uint32_t dy = 0; dy < high; ++dy)
                        for (std::uint32_t dx = 0; dx < wide; ++dx) sum += image.at(x * wide + dx, y * high + dy)[c];
                    const auto count = std::uint64_t{wide} * high;
                    ASSERT_EQ(small.means.at(x, y)[c], (sum + count / 2) / count) << width << "x" << height << " by " << step;
                }
            }
    }
}
