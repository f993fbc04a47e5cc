// Compressed streams: bounds, damage, and what is kept of an older stream. tests/reference/pack_tools_test.cpp checks them against their
// tools.
#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "base/pack.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

const std::vector<Packing> all = {Packing::none,      Packing::deflate,   Packing::zlib,       Packing::gzip,     Packing::zstd,
                                  Packing::lz4_block, Packing::lz4_frame, Packing::lzma_alone, Packing::lzma_raw, Packing::xz,
                                  Packing::bzip2,     Packing::lzo1x,     Packing::snappy,     Packing::brotli};
/// Bare blocks whose unpacked size must be known.
bool bare(Packing packing) { return packing == Packing::lz4_block || packing == Packing::lzo1x; }

Bytes half_random(std::size_t size) {
    auto out = random_bytes(size, 5);
    for (std::size_t i = 0; i < size; ++i)
        if (i / 100 % 2) out[i] = std::byte{7};
    return out;
}

class Packings : public testing::TestWithParam<Packing> {};
INSTANTIATE_TEST_SUITE_P(All, Packings, testing::ValuesIn(all), [](const auto& p) {
    std::string name(name_of(p.param));
    std::replace(name.begin(), name.end(), ' ', '_');
    return name;
});

}  // namespace

TEST_P(Packings, GiveBackWhatWasPacked) {
    for (const std::size_t size : {0u, 1u, 15u, 1000u, 300'000u}) {
        const auto data = half_random(size);
        const auto packed = pack(GetParam(), data);
        ASSERT_TRUE(packed) << packed.error().message();
        const auto back = unpack(GetParam(), *packed, size, ReadLimits{});
        ASSERT_TRUE(back) << size << ": " << back.error().message();
        EXPECT_EQ(*back, data) << size;
        if (!bare(GetParam())) EXPECT_EQ(*unpack(GetParam(), *packed, std::nullopt, ReadLimits{}), data) << "without its size";
        if (size >= 1000) {
            EXPECT_EQ(*unpack_prefix(GetParam(), *packed, 64), Bytes(data.begin(), data.begin() + 64));
            EXPECT_LE(unpack_prefix(GetParam(), *packed, size * 2)->size(), size);
        }
    }
}

TEST_P(Packings, SaysWhenTheSizeIsAnother) {
    const auto data = half_random(5000);
    const auto packed = *pack(GetParam(), data);
    for (const std::uint64_t wrong : {4999u, 5001u}) {
        if (GetParam() == Packing::lzma_raw && wrong < 5000) continue;  // the bare stream is read as far as is asked
        const auto back = unpack(GetParam(), packed, wrong, ReadLimits{});
        ASSERT_FALSE(back) << wrong;
        EXPECT_EQ(back.error().code, ErrorCode::damaged) << back.error().message();
    }
}

TEST_P(Packings, DamageIsAnErrorNotACrash) {
    const auto data = half_random(3000);
    const auto packed = *pack(GetParam(), data);
    for (std::size_t cut = 0; cut < packed.size(); cut += 13) {
        const auto back = unpack(GetParam(), ByteSpan(packed).first(cut), data.size(), ReadLimits{});
        // A bare LZMA stream has its last bytes only to flush the coder: the data can be whole without them.
        if (GetParam() == Packing::lzma_raw && cut + 16 > packed.size()) continue;
        EXPECT_FALSE(back) << "cut at " << cut;
    }
    for (std::size_t i = 0; i < packed.size(); i += 7) {
        auto broken = packed;
        broken[i] ^= std::byte{0x40};
        (void)unpack(GetParam(), broken, data.size(), ReadLimits{});
        (void)unpack_prefix(GetParam(), broken, 100);
        if (GetParam() != Packing::none && !bare(GetParam())) (void)unpack_stream(GetParam(), broken, 1 << 20);
    }
}

TEST_P(Packings, NothingUnpacksToMoreThanTheLimit) {
    if (GetParam() == Packing::none) return;
    const Bytes zeros(80u << 20);
    const auto packed = *pack(GetParam(), zeros, 1);
    ReadLimits limits;
    limits.inflated_bytes = 1u << 20;
    for (const auto& expected : {std::optional<std::uint64_t>(zeros.size()), std::optional<std::uint64_t>()}) {
        if (!expected && bare(GetParam())) continue;
        const auto back = unpack(GetParam(), packed, expected, limits);
        ASSERT_FALSE(back);
        EXPECT_EQ(back.error().code, ErrorCode::limit);
    }
    // Beyond 64 MB the ratio counts: a few kilobytes cannot claim the machine's memory.
    if (packed.size() * ReadLimits{}.ratio < zeros.size() && !bare(GetParam())) {
        const auto bomb = unpack(GetParam(), packed, std::nullopt, ReadLimits{});
        ASSERT_FALSE(bomb) << packed.size();
        EXPECT_EQ(bomb.error().code, ErrorCode::limit);
    }
}

TEST(Pack, StreamsEndWhereTheyEnd) {
    const auto data = half_random(4000);
    for (const auto packing : {Packing::deflate, Packing::zlib, Packing::gzip, Packing::zstd, Packing::lz4_frame, Packing::lzma_alone,
                               Packing::xz, Packing::bzip2, Packing::brotli}) {
        auto packed = *pack(packing, data);
        const auto size = packed.size();
        const auto behind = random_bytes(500, 9);
        packed.insert(packed.end(), behind.begin(), behind.end());
        const auto stream = unpack_stream(packing, packed, 1 << 20);
        ASSERT_TRUE(stream) << name_of(packing) << ": " << stream.error().message();
        EXPECT_EQ(stream->bytes, data) << name_of(packing);
        EXPECT_EQ(stream->packed_size, size) << name_of(packing);
        EXPECT_EQ(unpack_stream(packing, packed, 100).error().code, ErrorCode::limit);
    }
}

TEST(Pack, SeveralStreamsOneAfterTheOtherAreOne) {
    const auto a = half_random(700), b = half_random(900);
    for (const auto packing : {Packing::gzip, Packing::zstd, Packing::xz, Packing::bzip2}) {
        auto both = *pack(packing, a);
        const auto second = *pack(packing, b);
        both.insert(both.end(), second.begin(), second.end());
        auto expected = a;
        expected.insert(expected.end(), b.begin(), b.end());
        EXPECT_EQ(*unpack(packing, both, std::nullopt, ReadLimits{}), expected) << name_of(packing);
    }
}

TEST(Pack, MagicNumbersAreKnown) {
    const auto data = half_random(4000);
    for (const auto packing :
         {Packing::zlib, Packing::gzip, Packing::zstd, Packing::lz4_frame, Packing::lzma_alone, Packing::xz, Packing::bzip2})
        EXPECT_EQ(packing_at(*pack(packing, data)), packing) << name_of(packing);
    EXPECT_EQ(packing_at(bytes_of("just some words here")), std::nullopt);
    EXPECT_EQ(packing_at({}), std::nullopt);
    for (const auto packing : all) EXPECT_EQ(packing_named(name_of(packing)), packing);
}

TEST(Pack, BareBlocksAsTheirFormatsHaveThem) {
    // LZO1X: the Linux kernel's documentation (staging/lzo.rst): a first byte of 18 to 255 copies (byte - 17) literals, 11 00 00 ends it.
    EXPECT_EQ(*unpack(Packing::lzo1x, bytes_of(std::string_view("\x16hello\x11\0\0", 9)), 5, ReadLimits{}), bytes_of("hello"));
    // Snappy, format description: the length as a varint; tag 00 with (length - 1) << 2 for literals; tag 01: length 4 to 11 and an offset
    // of 11 bits.
    const std::string_view snappy(
        "\x0c\x0c"
        "abcd"
        "\x11\x04",
        8);
    EXPECT_EQ(*unpack(Packing::snappy, bytes_of(snappy), 12, ReadLimits{}), bytes_of("abcdabcdabcd"));
    EXPECT_EQ(*unpack(Packing::snappy, bytes_of(snappy), std::nullopt, ReadLimits{}), bytes_of("abcdabcdabcd"));
    EXPECT_EQ(unpack(Packing::lzo1x, bytes_of("x"), std::nullopt, ReadLimits{}).error().code, ErrorCode::usage);
    EXPECT_NE(packing_names().find("brotli"), std::string::npos);
}
