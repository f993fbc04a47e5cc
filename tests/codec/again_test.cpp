// The daily case: a texture is decoded, touched somewhere and encoded again. Blocks that hold what the format can come back as they were.
#include <gtest/gtest.h>

#include <random>
#include <string>
#include <tuple>

#include "codec/codec.h"

using namespace skivet;

namespace {

using Case = std::tuple<Format, Effort>;
class EncodedAgain : public testing::TestWithParam<Case> {};
INSTANTIATE_TEST_SUITE_P(All, EncodedAgain,
                         testing::Combine(testing::Values(Format::BC1, Format::BC2, Format::BC3),
                                          testing::Values(Effort::fast, Effort::normal, Effort::best)),
                         [](const testing::TestParamInfo<Case>& given) {
                             return std::string(skivet::info(std::get<0>(given.param)).name) + "_" +
                                    std::string(name_of(std::get<1>(given.param)));
                         });

/// Blocks with ends anywhere, near each other or the same, and any of the palette's places: few of them, or all.
Bytes any_blocks(Format format, std::size_t count) {
    std::mt19937 random(5);
    const std::size_t size = info(format).block_bytes;
    Bytes out(count * size);
    for (std::size_t b = 0; b < count; ++b) {
        for (std::size_t i = 0; i < size; ++i) out[b * size + i] = std::byte(random() & 255);
        auto* part = out.data() + b * size + size - 8;
        const auto a = static_cast<std::uint16_t>(random());
        const auto near = [&](unsigned v, unsigned top) { return std::min(top, v + static_cast<unsigned>(random() % 3)); };
        std::uint16_t c = static_cast<std::uint16_t>(random());
        if (b % 3 == 0) c = static_cast<std::uint16_t>(near(a >> 11, 31) << 11 | near(a >> 5 & 63, 63) << 5 | near(a & 31, 31));
        if (b % 17 == 0) c = a;
        store_le(part, b % 2 ? a : c);
        store_le(part + 2, b % 2 ? c : a);
        if (b % 5 == 0) store_le(part + 4, static_cast<std::uint32_t>(random() & 0x55555555));        // two places
        if (b % 5 == 1) store_le(part + 4, static_cast<std::uint32_t>((random() & 0x55555555) * 2));  // two others
        if (b % 5 == 2) store_le(part + 4, static_cast<std::uint32_t>(b % 4 * 0x55555555));           // one
    }
    return out;
}

TEST_P(EncodedAgain, BlocksComeBackAsTheyWere) {
    const auto [format, effort] = GetParam();
    const auto blocks = any_blocks(format, 4096);
    auto image = *decode(format, blocks, 256, 256);
    // Alpha of BC3 has a search of its own (channel_optimum_test.cpp).
    if (format == Format::BC3)
        for (auto& t : image.texels) t[3] = 255;
    EncodeOptions options;
    options.effort = effort;
    const auto again = *decode(format, *encode(format, image, options), 256, 256);
    std::size_t others = 0;
    for (std::uint32_t y = 0; y < 256; y += 4)
        for (std::uint32_t x = 0; x < 256; x += 4) {
            bool same = true;
            for (std::uint32_t i = 0; i < 16; ++i) same = same && image.at(x + i % 4, y + i / 4) == again.at(x + i % 4, y + i / 4);
            others += !same;
        }
    EXPECT_EQ(others, 0u) << "of 4096";
}

}  // namespace
