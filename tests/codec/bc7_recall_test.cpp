// What BC7 held before is found again, exactly, when it is known where to look.
#include "codec/bc7_recall.h"

#include <gtest/gtest.h>

#include <cmath>
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

/// Blocks of `now` that are not as in `before`; only among those whose numbers, row by row, are divisible by `every`.
unsigned others(const Image& before, const Image& now, unsigned every = 1) {
    unsigned out = 0, number = 0;
    for (std::uint32_t y = 0; y < before.height; y += 4)
        for (std::uint32_t x = 0; x < before.width; x += 4) {
            if (number++ % every != 0) continue;
            bool same = true;
            for (std::uint32_t i = 0; i < 16; ++i) same = same && before.at(x + i % 4, y + i / 4) == now.at(x + i % 4, y + i / 4);
            out += !same;
        }
    return out;
}

Image soft_picture() {
    auto soft = noisy_picture(128, 128, 5);
    for (auto& t : soft.texels) t[3] = static_cast<std::uint8_t>((t[0] + 2 * t[1] + t[2]) / 4);
    return soft;
}

Bytes encoded(const Image& picture, const EncodeOptions& options) { return *encode(Format::BC7, picture, options); }

Image decoded(const Image& picture, const EncodeOptions& options) {
    return *decode(Format::BC7, encoded(picture, options), picture.width, picture.height);
}

TEST(Bc7, WhatItHeldComesBackAtEveryEffort) {
    for (const auto& picture : {smooth_picture(128, 128, 1), noisy_picture(128, 128, 3), soft_picture()}) {
        const auto held = decoded(picture, {Effort::best});
        for (const auto effort : {Effort::fast, Effort::normal, Effort::best})
            EXPECT_LE(others(held, decoded(held, {effort})), 4u) << "of 1024";
    }
}

TEST(Bc7, IsToldToHaveHeldAPictureBySomeOfItsBlocks) {
    for (const auto& picture : {noisy_picture(128, 128, 3), soft_picture()}) {
        EncodeOptions held_before{Effort::fast}, not_held{Effort::fast};
        held_before.held_before = true;
        not_held.held_before = false;
        EXPECT_EQ(encoded(picture, {Effort::fast}), encoded(picture, not_held));
        const auto held = decoded(picture, {Effort::best});
        EXPECT_EQ(encoded(held, {Effort::fast}), encoded(held, held_before));
        EXPECT_NE(encoded(held, held_before), encoded(held, not_held));
        // Every second block of it painted over.
        auto touched = held;
        for (std::uint32_t y = 0; y < 128; ++y)
            for (std::uint32_t x = 0; x < 128; ++x)
                if (x / 4 % 2 == 1) touched.at(x, y) = picture.at(x, y);
        EXPECT_LE(others(touched, decoded(touched, {Effort::fast}), 2), 4u) << "of 512";
    }
}

TEST(Bc7, WhatBc1HeldIsLookedForExactlyAtFastToo) {
    const auto held = *decode(Format::BC1, *encode(Format::BC1, smooth_picture(128, 128, 1), {Effort::best}), 128, 128);
    EncodeOptions plain{Effort::fast};
    plain.held_before = false;
    const auto squared = [&](const EncodeOptions& options) {
        const auto again = decoded(held, options);
        double sum = 0;
        for (std::size_t i = 0; i < held.texels.size(); ++i)
            for (std::size_t c = 0; c < 3; ++c) sum += std::pow(held.texels[i][c] - again.texels[i][c], 2);
        return sum;
    };
    const double looked_for = squared({Effort::fast}), not_looked_for = squared(plain), best = squared({Effort::best});
    std::printf("squared error %.0f, without looking %.0f, at best %.0f\n", looked_for, not_looked_for, best);
    EXPECT_LT(looked_for, 0.3 * not_looked_for);
    EXPECT_LT(looked_for, 2 * best);
}

TEST(Bc7, ComesBackInSmallPicturesAndPartsOfThem) {
    const auto held = decoded(noisy_picture(28, 20, 3), {Effort::best});
    EXPECT_LE(others(held, decoded(held, {Effort::fast})), 1u) << "of 35";
    // Moved by whole blocks it is not what was there, yet BC7's.
    auto moved = held;
    std::rotate(moved.texels.begin(), moved.texels.begin() + 4 * 28, moved.texels.end());
    const auto original = encoded(held, {Effort::fast});
    std::uint64_t kept = 0;
    const auto bytes = *encode_changed(Format::BC7, moved, held, original, &kept, {Effort::fast});
    EXPECT_EQ(kept, 0u);
    EXPECT_LE(others(moved, *decode(Format::BC7, bytes, 28, 20)), 1u);
}

}  // namespace
