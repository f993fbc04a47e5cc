// Unknown bytes: what is in them is found, and replaced where the size allows it.
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "container/address.h"
#include "container/sift.h"
#include "delivery/vault.h"
#include "support/pictures.h"
#include "support/places.h"
#include "texture/ktx.h"
#include "texture/ktx2.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Sifting : testing::Test {
    TempFolder folder;
    ReadContext context;
    Bytes data;
    Bytes dds = make_dds(Format::BC3, 64, 64), second = make_dds(Format::BC1, 32, 16, 0, 3), png;

    void SetUp() override {
        ASSERT_TRUE(add_sheets_in(context, sheets_folder).empty());
        png = *write_png(smooth_picture(40, 30, 2));
    }
    std::size_t put(const Bytes& bytes) {
        const auto at = data.size();
        data.insert(data.end(), bytes.begin(), bytes.end());
        return at;
    }
    std::vector<SiftHit> look() {
        Progress progress;
        auto hits = sift(context, data, progress);
        EXPECT_TRUE(hits);
        EXPECT_LE(progress.done, progress.total);
        return *hits;
    }
};

}  // namespace

TEST_F(Sifting, FindsTexturesAtAnyAlignmentAmongRandomBytes) {
    put(random_bytes(1001, 1));
    const auto a = put(dds);
    put(random_bytes(3, 2));
    const auto b = put(png);
    put(random_bytes(777, 3));
    const auto c = put(second);
    put(random_bytes(50'000, 4));
    const auto hits = look();
    ASSERT_EQ(hits.size(), 3u);
    EXPECT_EQ(hits[0].at, a);
    EXPECT_EQ(hits[0].size, dds.size());
    EXPECT_EQ(hits[0].desc.format, Format::BC3);
    EXPECT_EQ(hits[1].at, b);
    EXPECT_EQ(hits[1].size, png.size());
    EXPECT_EQ(hits[1].kind, "PNG");
    EXPECT_EQ(hits[2].at, c);
    EXPECT_EQ(hits[2].desc.height, 16u);
    for (const auto& hit : hits) EXPECT_GE(hit.confidence, 0.9);
}

TEST_F(Sifting, OpensStreamsOfEveryKindAndLooksInside) {
    auto content = random_bytes(100, 5);
    content.insert(content.end(), dds.begin(), dds.end());
    const std::vector<Packing> packings = {Packing::zlib, Packing::gzip,       Packing::zstd, Packing::lz4_frame,
                                           Packing::xz,   Packing::lzma_alone, Packing::bzip2};
    std::vector<std::size_t> places;
    for (const auto packing : packings) {
        put(random_bytes(101, 6));
        places.push_back(put(*pack(packing, content)));
    }
    put(random_bytes(300, 7));
    const auto hits = look();
    ASSERT_EQ(hits.size(), packings.size());
    for (std::size_t i = 0; i < hits.size(); ++i) {
        EXPECT_EQ(hits[i].at, places[i]) << name_of(packings[i]);
        EXPECT_EQ(hits[i].packing, packings[i]);
        EXPECT_EQ(hits[i].unpacked, content.size());
        ASSERT_EQ(hits[i].inside.size(), 1u) << name_of(packings[i]);
        EXPECT_EQ(hits[i].inside[0].at, 100u);
        EXPECT_EQ(hits[i].inside[0].desc.format, Format::BC3);
    }
}

TEST_F(Sifting, FindsNextToNothingInRandomBytes) {
    put(random_bytes(8'000'000, 11));
    EXPECT_LE(look().size(), 2u) << "an LZMA header has no checksum";
}

TEST_F(Sifting, HeadersThatDoNotHoldAreNotHits) {
    for (const char* mark : {"DDS ", "\x89PNG\r\n\x1A\n", "\xFF\xD8\xFF\xE0", "BZh91AY&SY", "\x1F\x8B\x08"}) {
        put(random_bytes(40, 8));
        put(bytes_of(mark));
    }
    auto cut = dds;
    cut.resize(cut.size() / 2);
    put(random_bytes(90, 9));
    put(cut);
    EXPECT_TRUE(look().empty());
}

TEST_F(Sifting, ReplacesInPlaceAndInsideAStreamAndUndoes) {
    put(random_bytes(1001, 1));
    const auto a = put(dds);
    put(random_bytes(99, 2));
    auto content = bytes_of(std::string(500, 'x'));
    content.insert(content.end(), second.begin(), second.end());
    const auto b = put(*pack(Packing::zlib, content, 1));
    put(random_bytes(64, 3));
    const auto file = folder / "unknown.bin";
    put_file(file, data);
    EXPECT_FALSE(open_source(context, file)) << "nothing recognizes it";
    context.choices.push_back({"unknown.bin", "sifting"});
    const auto source = open_source(context, file);
    ASSERT_TRUE(source) << source.error().message();
    ASSERT_EQ((*source)->entries().size(), 2u);
    const auto first = fmt::format("0x{:08x}.dds", a), inner = fmt::format("0x{:08x}.zlib/0x000001f4.dds", b);
    EXPECT_EQ((*source)->entries()[0].path, first);
    EXPECT_EQ((*source)->entries()[1].path, inner);
    EXPECT_EQ(*(*source)->read(1, ReadLimits{}), second);
    EXPECT_EQ(*(*source)->read_head(1, 4), bytes_of("DDS "));
    auto fresh = dds, fresh_inner = second;
    fresh[200] ^= std::byte{1};
    fresh_inner[150] ^= std::byte{4};
    std::vector<AddressedBytes> items;
    items.push_back({{first}, fresh});
    items.push_back({{inner}, fresh_inner});
    const auto plan = plan_replacements(context, **source, std::move(items));
    ASSERT_TRUE(plan) << plan.error().message();
    EXPECT_EQ(plan->way(), Way::in_place);
    PosixFiles files;
    Vault vault(folder / "vault", files);
    ASSERT_TRUE(vault.deliver(*plan, {"t", file, {}}, 1));
    const auto again = open_source(context, file);
    EXPECT_EQ(*(*again)->read(0, ReadLimits{}), fresh);
    EXPECT_EQ(*(*again)->read(1, ReadLimits{}), fresh_inner);
    EXPECT_EQ(std::filesystem::file_size(file), data.size());
    ASSERT_EQ(*vault.restore(file), 1u);
    EXPECT_EQ(get_file(file), data);
    const auto larger = (*source)->plan(std::vector<Replacement>{{0, make_dds(Format::BC3, 128, 128)}}, ReadLimits{});
    ASSERT_FALSE(larger);
    EXPECT_EQ(larger.error().code, ErrorCode::unsupported);
    auto noisy = second;
    const auto noise = random_bytes(noisy.size(), 5);
    std::copy(noise.begin() + 128, noise.end(), noisy.begin() + 128);
    const auto too_much = (*source)->plan(std::vector<Replacement>{{1, noisy}}, ReadLimits{});
    if (!too_much) EXPECT_NE(too_much.error().message().find("its place has"), std::string::npos);
    EXPECT_TRUE((*source)->plan(std::vector<Replacement>{{0, dds}, {1, second}}, ReadLimits{})->empty()) << "identity";
}

TEST_F(Sifting, ACancelStopsIt) {
    put(random_bytes(20'000'000, 1));
    Progress progress;
    progress.cancel.cancel();
    const auto hits = sift(context, data, progress);
    ASSERT_FALSE(hits);
    EXPECT_EQ(hits.error().code, ErrorCode::canceled);
}

TEST_F(Sifting, SupercompressedTexturesEndWhereTheySay) {
    const TextureDesc desc{Format::RGBA8, 64, 64};
    Bytes plain(64 * 64 * 4, std::byte{7});
    const auto zstd = *write_ktx2(desc, plain, Supercompression::zstd), zlib = *write_ktx2(desc, plain, Supercompression::zlib);
    ASSERT_LT(zstd.size(), 600u);
    const auto a = put(zstd), b = put(zlib), c = put(dds), d = put(*write_ktx({Format::RGB8, 3, 3}, random_bytes(27, 1))), e = put(second);
    put(random_bytes(500, 4));
    const auto hits = look();
    ASSERT_EQ(hits.size(), 5u);
    const std::pair<std::size_t, std::size_t> expected[] = {
        {a, zstd.size()}, {b, zlib.size()}, {c, dds.size()}, {d, e - d}, {e, second.size()}};
    for (std::size_t i = 0; i < 5; ++i) {
        EXPECT_EQ(hits[i].at, expected[i].first) << i;
        EXPECT_EQ(hits[i].size, expected[i].second) << i;
    }
}
