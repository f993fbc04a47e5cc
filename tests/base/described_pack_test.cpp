// Packers that a sheet describes by numbers.
#include <gtest/gtest.h>
#include <vector>

#include "base/keys.h"
#include "base/lzss.h"
#include "base/runs.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

using Does = RunsSpec::Does;

/// PackBits: TIFF 6.0, section 9.
const RunsSpec packbits{1, {{0, 127, Does::copy, 1, 1}, {128, 128, Does::nothing, 0, 0}, {129, 255, Does::repeat, 128, -1}}};
/// The runs of the TGA format, version 2.0, section C, of pixels of so many bytes.
RunsSpec tga(unsigned unit) { return {unit, {{0, 127, Does::copy, 1, 1}, {128, 255, Does::repeat, 1, 1}}}; }
/// The runs of PCX files: a byte below 192 is itself, others repeat the next byte. (As the format's technical reference has it, from
/// memory.)
const RunsSpec pcx{1, {{0, 191, Does::itself, 1, 0}, {192, 255, Does::repeat, 0, 1}}};

Bytes patchy(std::size_t size, unsigned unit, unsigned seed) {
    auto out = random_bytes(size, seed);
    for (std::size_t i = unit; i < size; ++i)
        if (i / (37 * unit) % 3) out[i] = out[i - unit];
    return out;
}

Bytes of_hex(std::string_view digits) { return *bytes_of_hex(digits); }

}  // namespace

TEST(Runs, PackBitsAsItsExampleHasIt) {
    // The example of Apple's technical note TN1023, "Understanding PackBits".
    const auto plain = of_hex("AAAAAA80002AAAAAAAAA80002A22AAAAAAAAAAAAAAAAAAAA");
    const auto packed = of_hex("FEAA0280002AFDAA0380002A22F7AA");
    EXPECT_EQ(*unpack_runs(packbits, packed, plain.size(), 1 << 20), plain);
    EXPECT_EQ(*unpack_runs(packbits, packed, std::nullopt, 1 << 20), plain);
    EXPECT_EQ(*pack_runs(packbits, plain), packed);
}

TEST(Runs, WhatIsPackedComesBack) {
    const std::pair<const char*, RunsSpec> all[] = {{"packbits", packbits}, {"tga 1", tga(1)}, {"tga 4", tga(4)}, {"pcx", pcx}};
    for (const auto& [name, spec] : all) {
        EXPECT_EQ(wrong_in(spec), "") << name;
        for (const std::size_t elements : {0u, 1u, 2u, 3u, 200u, 5000u}) {
            const auto data = patchy(elements * spec.unit, spec.unit, 3);
            const auto packed = pack_runs(spec, data);
            ASSERT_TRUE(packed) << packed.error().message();
            EXPECT_EQ(*unpack_runs(spec, *packed, data.size(), 1 << 20), data) << name << ' ' << elements;
            if (elements == 5000) EXPECT_LT(packed->size(), data.size()) << name;
        }
    }
    EXPECT_EQ(pack_runs(tga(4), Bytes(7)).error().code, ErrorCode::unfit);
}

TEST(Runs, WrongOnesAreSaid) {
    EXPECT_EQ(unpack_runs(packbits, of_hex("05AA"), std::nullopt, 100).error().message(), "the run needs 6 bytes, has 1 (at byte 0x1)");
    EXPECT_EQ(unpack_runs(packbits, of_hex("81AA81AA"), std::nullopt, 200).error().code, ErrorCode::limit);
    EXPECT_EQ(unpack_runs(packbits, of_hex("FEAA"), 2, 200).error().code, ErrorCode::damaged) << "three instead of two";
    EXPECT_EQ(wrong_in(RunsSpec{1, {{0, 9, Does::copy, 1, 1}, {9, 12, Does::repeat, 1, 1}}}), "two ranges hold 9");
    EXPECT_EQ(wrong_in(RunsSpec{1, {{0, 9, Does::copy, 3, 1}}}), "no range can say one single element");
    EXPECT_EQ(wrong_in(RunsSpec{1, {{0, 9, Does::copy, 3, -1}}}), "counts of the range from 0 go below 0");
    EXPECT_EQ(wrong_in(RunsSpec{2, {{0, 9, Does::itself, 1, 0}}}), "\"itself\" goes with elements of one byte");
    const RunsSpec few{1, {{0, 9, Does::copy, 1, 1}}};
    EXPECT_EQ(unpack_runs(few, of_hex("20"), std::nullopt, 100).error().message(), "no range holds the control byte 32 (at byte 0x0)");
}

TEST(Lzss, OnePairByHand) {
    // Flags 0000 1111 from the lowest bit: four bytes, then pairs. 12 bits of place, 4 of length, as most programs split them.
    LzssSpec spec;
    spec.start = 4096 - 18;
    const auto packed = of_hex(
        "0F"
        "61626364"
        "EEF2");  // place 0xFEE = 4078, where the first byte went; length 2 + 3
    EXPECT_EQ(*unpack_lzss(spec, packed, 9, 100), bytes_of("abcdabcda"));
    EXPECT_EQ(*unpack_lzss(spec, packed, std::nullopt, 100), bytes_of("abcdabcda"));
    // Before anything was written the window holds its fill.
    spec.fill = std::byte{' '};
    EXPECT_EQ(*unpack_lzss(spec,
                           of_hex("00"
                                  "0000"),
                           3, 100),
              bytes_of("   "));
}

TEST(Lzss, WhatIsPackedComesBackUnderAllParameters) {
    std::vector<LzssSpec> all(6);
    all[1].start = 4078, all[1].fill = std::byte{0x20};
    all[2].back = true, all[2].literal = false;
    all[3].lowest_first = false, all[3].big = true, all[3].place = {{4, 12}}, all[3].length = {{0, 4}};
    all[4].window = 256, all[4].place = {{0, 8}}, all[4].length = {{8, 8}}, all[4].shortest = 2;
    all[5].window = 65536, all[5].pair_bytes = 3, all[5].place = {{0, 16}}, all[5].length = {{16, 8}}, all[5].back = true;
    for (std::size_t i = 0; i < all.size(); ++i) {
        EXPECT_EQ(wrong_in(all[i]), "") << i;
        for (const std::size_t size : {0u, 1u, 3u, 500u, 70'000u}) {
            const auto data = patchy(size, 1, static_cast<unsigned>(i) + 1);
            const auto packed = pack_lzss(all[i], data);
            const auto back = unpack_lzss(all[i], packed, size, 1 << 20);
            ASSERT_TRUE(back) << i << ' ' << size << ": " << back.error().message();
            EXPECT_EQ(*back, data) << i << ' ' << size;
            EXPECT_EQ(*unpack_lzss(all[i], packed, std::nullopt, 1 << 20), data) << i << ' ' << size;
            if (size == 70'000) EXPECT_LT(packed.size(), size) << i;
        }
    }
}

TEST(Lzss, WrongOnesAreSaid) {
    LzssSpec spec;
    spec.window = 1000;
    EXPECT_EQ(wrong_in(spec), "window is a power of two, 16 to 1048576");
    spec.window = 2048;
    EXPECT_EQ(wrong_in(spec), "place has 12 bits, a window of 2048 needs 11");
    spec = {};
    spec.length = {{7, 4}};
    EXPECT_EQ(wrong_in(spec), "bits of a pair are used twice");
    spec = {};
    EXPECT_EQ(unpack_lzss(spec, of_hex("FF61"), 4, 100).error().code, ErrorCode::damaged);
    EXPECT_EQ(unpack_lzss(spec, of_hex("FF61"), 4000, 100).error().code, ErrorCode::limit);
    EXPECT_EQ(unpack_lzss(spec, of_hex("000000000000000000"), std::nullopt, 10).error().code, ErrorCode::limit);
}
