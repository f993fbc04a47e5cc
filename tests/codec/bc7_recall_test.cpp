// What BC7 held before is found again, exactly, when it is known where to look.
#include "codec/bc7_recall.h"

#include <gtest/gtest.h>

#include <random>

#include "codec/bc7_tables.h"
#include "codec/codec.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// A block of a mode with anything in it, and which partition, rotation and selector that is (Khronos Data Format Specification 1.3,
/// section 20.1: the mode's number in ones, then the partition, the rotation and the selector).
bptc::Choice any_block(unsigned mode, std::mt19937& random, std::byte* out) {
    const auto seldom = random() % 2 ? random() | random() << 8 : 0xFFFF;  // in half of them few places of the line are there
    for (std::size_t i = 0; i < 16; ++i) out[i] = std::byte(random() & (i < 12 ? 255 : seldom >> i) & 255);
    auto low = load_le<std::uint64_t>(out);
    low = (low & ~((std::uint64_t{2} << mode) - 1)) | std::uint64_t{1} << mode;
    store_le(out, low);
    low >>= mode + 1;
    const auto take = [&](unsigned bits) {
        const auto value = static_cast<unsigned>(low & ((1u << bits) - 1));
        low >>= bits;
        return value;
    };
    bptc::Choice choice;
    choice.mode = mode;
    choice.partition = take(bptc::modes[mode].partition_bits);
    choice.rotation = take(bptc::modes[mode].rotation_bits);
    choice.selector = take(bptc::modes[mode].selector_bits);
    return choice;
}

class Bc7Recalled : public testing::TestWithParam<unsigned> {};
INSTANTIATE_TEST_SUITE_P(All, Bc7Recalled, testing::Range(0u, 8u));

TEST_P(Bc7Recalled, AnyBlockOfAMode) {
    std::mt19937 random(GetParam() + 1);
    for (int n = 0; n < 400; ++n) {
        std::array<std::byte, 16> block, again;
        auto choice = any_block(GetParam(), random, block.data());
        const auto held = *decode(Format::BC7, block, 4, 4);
        ASSERT_TRUE(bptc::Recall(held.texels.data()).solve(choice, 1'000'000)) << n;
        bptc::pack(choice, again.data());
        ASSERT_EQ(decode(Format::BC7, again, 4, 4)->texels, held.texels) << n;
    }
}

TEST_P(Bc7Recalled, NotWhatNoLineHasNorBeyondTheBudget) {
    std::mt19937 random(9);
    std::array<std::byte, 16> block;
    auto choice = any_block(GetParam(), random, block.data());
    EXPECT_FALSE(bptc::Recall(random_picture(4, 4, 7).texels.data()).solve(choice, 1'000'000));
    const auto held = *decode(Format::BC7, block, 4, 4);
    EXPECT_FALSE(bptc::Recall(held.texels.data()).solve(choice, 0));
}

TEST(Bc7, WhatItHeldComesBack) {
    auto soft = noisy_picture(128, 128, 5);
    for (auto& t : soft.texels) t[3] = static_cast<std::uint8_t>((t[0] + 2 * t[1] + t[2]) / 4);
    const auto pictures = {smooth_picture(128, 128, 1), noisy_picture(128, 128, 3), soft};
    for (const auto& picture : pictures) {
        EncodeOptions options;
        options.effort = Effort::best;
        const auto held = *decode(Format::BC7, *encode(Format::BC7, picture, options), 128, 128);
        unsigned before = 6;  // of 1024 that may be others at best; the others look only in the mode they come to
        for (const auto effort : {Effort::best, Effort::normal, Effort::fast}) {
            options.effort = effort;
            const auto again = *decode(Format::BC7, *encode(Format::BC7, held, options), 128, 128);
            unsigned others = 0;
            for (std::uint32_t y = 0; y < 128; y += 4)
                for (std::uint32_t x = 0; x < 128; x += 4) {
                    bool same = true;
                    for (std::uint32_t i = 0; i < 16; ++i) same = same && again.at(x + i % 4, y + i / 4) == held.at(x + i % 4, y + i / 4);
                    others += !same;
                }
            std::printf("%s: %u of 1024 blocks are others\n", std::string(name_of(effort)).c_str(), others);
            if (effort == Effort::best) EXPECT_LE(others, before);
            else EXPECT_GE(others, before) << name_of(effort);
            before = others;
        }
    }
}

}  // namespace
