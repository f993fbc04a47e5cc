// What an edit changed of a texture: found, written, read, made again.
#include <gtest/gtest.h>
#include <random>
#include <string>
#include <vector>

#include "parcel/change.h"
#include "support/imagemagick.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

TextureFile open_texture(Bytes file, const std::string& name = "x.dds") {
    auto out = TextureFile::open(TextureKinds::standard(), std::move(file), name, ReadLimits{});
    EXPECT_TRUE(out) << (out ? "" : out.error().message());
    return std::move(*out);
}

/// Some units of every level given other bytes.
TextureFile with_noise(const TextureFile& original, unsigned seed) {
    std::mt19937 random(seed);
    const std::size_t unit = info(original.layout.desc.format).block_bytes;
    std::vector<SurfaceEdit> edits;
    for (std::size_t s = 0; s < original.layout.surfaces.size(); ++s) {
        auto bytes = *original.surface_bytes(original.layout.surfaces[s]);
        for (std::size_t at = 0; at < bytes.size(); at += unit)
            if (random() % 5 == 0)
                for (std::size_t i = 0; i < unit; ++i) bytes[at + i] = static_cast<std::byte>(random());
        edits.push_back({s, std::move(bytes)});
    }
    auto out = original;
    out.file = *original.kind->replace(original.file, original.layout, edits);
    return out;
}

TextureDesc desc_of(Format format, std::uint32_t width, std::uint32_t height, std::uint32_t mips) {
    TextureDesc out;
    out.format = format;
    out.width = width;
    out.height = height;
    out.mips = mips;
    return out;
}

Bytes file_of(const TextureDesc& desc, unsigned seed) {
    std::uint64_t size = 0;
    for (std::uint32_t m = 0; m < desc.mips; ++m)
        size += level_bytes(desc.format, mip_side(desc.width, m), mip_side(desc.height, m)) * mip_side(desc.depth, m);
    return make_file(desc, random_bytes(static_cast<std::size_t>(size * desc.layers * desc.faces), seed));
}

}  // namespace

TEST(TextureChange, ComesBackExactlyInEveryFormat) {
    for (const auto format : formats_by_use()) {
        auto desc = desc_of(format, 37, 21, 3);
        const auto file = file_of(desc, static_cast<unsigned>(format));
        if (file.empty()) continue;
        const auto original = open_texture(file, "x");
        const auto edited = with_noise(original, static_cast<unsigned>(format) + 7);
        const auto change = difference(original, edited);
        ASSERT_TRUE(change) << info(format).name << ": " << change.error().message();
        ASSERT_FALSE(change->empty()) << info(format).name;
        const auto back = apply(original, *change);
        ASSERT_TRUE(back) << back.error().message();
        EXPECT_EQ(*back, edited.file) << info(format).name;
        const auto again = read_change(write_change(*change), original.layout.desc);
        ASSERT_TRUE(again) << again.error().message();
        EXPECT_EQ(*again, *change);
    }
}

TEST(TextureChange, CountsOnlyUnitsThatDiffer) {
    const auto original = open_texture(make_dds(Format::BC1, 64, 64, 1, 1));
    auto edited = original;
    // Blocks 3, 4 and 20 of the largest level, and nothing else: 8 bytes each behind a header of 128.
    for (const std::size_t block : {3, 4, 20}) edited.file[128 + block * 8] ^= std::byte{0xFF};
    const auto change = *difference(original, edited);
    ASSERT_EQ(change.runs.size(), 2u);
    EXPECT_EQ(change.runs[0].first, 3u);
    EXPECT_EQ(change.runs[0].count, 2u);
    EXPECT_EQ(change.runs[1].first, 20u);
    EXPECT_EQ(change.units.size(), 24u);
    EXPECT_EQ(write_change(change).size(), 4u + 2 * 20 + 24);
}

TEST(TextureChange, BytesOutsideAllSurfacesBelongToIt) {
    const auto original = open_texture(make_dds(Format::BC1, 16, 16, 0, 1));
    auto edited = original;
    edited.file[40] ^= std::byte{1};  // reserved in the header: nobody reads it, everybody keeps it
    const auto change = difference(original, edited);
    ASSERT_TRUE(change) << change.error().message();
    ASSERT_EQ(change->runs.size(), 1u);
    EXPECT_EQ(change->runs[0].surface, outside);
    EXPECT_EQ(*apply(original, *change), edited.file);
}

TEST(TextureChange, FitsOnlyWhatItWasMadeFor) {
    const auto original = open_texture(make_dds(Format::BC3, 32, 32, 0, 1));
    const auto change = *difference(original, with_noise(original, 5));
    EXPECT_TRUE(misfits(original, change)->empty());
    auto other = original;
    const auto& run = change.runs[2];
    other.file[128 + std::size_t{run.first} * 16] ^= std::byte{1};
    EXPECT_EQ(*misfits(other, change), std::vector<std::size_t>{2});
    const auto refused = apply(other, change);
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, ErrorCode::stale);
    EXPECT_NE(refused.error().what.find("1 of its"), std::string::npos);
    // Elsewhere the texture may be another.
    auto elsewhere = original;
    std::vector<bool> touched(64);
    for (const auto& r : change.runs)
        for (std::uint32_t i = 0; r.surface == 0 && i < r.count; ++i) touched[r.first + i] = true;
    const auto free = static_cast<std::size_t>(std::find(touched.begin(), touched.end(), false) - touched.begin());
    elsewhere.file[128 + free * 16] ^= std::byte{1};
    EXPECT_TRUE(misfits(elsewhere, change)->empty());
}

TEST(TextureChange, AnotherSizeOrFormatIsNone) {
    const auto original = open_texture(make_dds(Format::BC1, 32, 32, 0, 1));
    for (const auto& other :
         {make_dds(Format::BC1, 64, 64, 0, 1), make_dds(Format::BC7, 32, 32, 0, 1), make_dds(Format::BC1, 32, 32, 1, 1)}) {
        const auto change = difference(original, open_texture(other));
        ASSERT_FALSE(change);
        EXPECT_EQ(change.error().code, ErrorCode::unsupported);
    }
}

TEST(TextureChange, SurfacesAreCountedTheSameInEveryFile) {
    // KTX2 stores the smallest level first, KTX level by level over all layers, DDS layer by layer: the numbers are the same.
    auto desc = desc_of(Format::BC1, 16, 16, 5);
    desc.layers = 3;
    const auto payload = random_bytes((128 + 32 + 8 + 8 + 8) * 3, 9);
    const auto dds = open_texture(make_file(desc, payload));
    ASSERT_EQ(dds.kind->name(), "DDS");
    auto as_etc = desc;
    as_etc.format = Format::ETC2_RGB;  // which DDS cannot say
    const auto ktx2 = open_texture(make_file(as_etc, payload), "x");
    ASSERT_NE(ktx2.kind->name(), "DDS");
    EXPECT_EQ(*pixel_hash(dds), *pixel_hash(ktx2));
    EXPECT_EQ(*pixel_hash(dds), sha256(payload)) << "and they are counted layer by layer, level by level";
}

TEST(TextureChange, OfAJpegTheTexelsGoInAgainAndTheRestKeepsItsCoefficients) {
    const auto jpeg = file_by_imagemagick(smooth_picture(96, 64, 4), {"-quality", "85"}, "JPG:.jpg");
    const auto original = open_texture(jpeg, "x.jpg");
    auto picture = *original.decode(0);
    for (std::uint32_t y = 20; y < 36; ++y)
        for (std::uint32_t x = 30; x < 50; ++x) picture.at(x, y) = {200, 60, 40, 255};
    auto edited = original;
    edited.file = *original.kind->replace(original.file, original.layout,
                                          std::vector<SurfaceEdit>{{0, *encode(original.layout.desc.format, picture)}});
    ASSERT_NE(edited.file, original.file);
    const auto near = near_difference(original, edited);
    ASSERT_TRUE(near) << near.error().message();
    EXPECT_LT(near->change.units.size(), original.file.size() * 8);
    EXPECT_EQ(*put_units(original, near->change), near->file);
    const auto back = open_texture(near->file, "x.jpg");
    EXPECT_LT(back.decode(0)->at(40, 28)[1], 100);
    EXPECT_EQ(back.decode(0)->at(4, 60), original.decode(0)->at(4, 60)) << "far from it nothing changed";
    EXPECT_LT(share_of(near->change, original.layout), 0.3);
}

TEST(TextureChange, HostileBytesAreRefusedWithWords) {
    const auto original = open_texture(make_dds(Format::BC1, 32, 32, 0, 1));
    const auto good = write_change(*difference(original, with_noise(original, 5)));
    ASSERT_TRUE(read_change(good, original.layout.desc));
    const auto refuse = [&](std::size_t at, std::uint32_t value) {
        auto bad = good;
        store_le(bad.data() + at, value);
        const auto read = read_change(bad, original.layout.desc);
        ASSERT_FALSE(read) << at << " " << value;
        EXPECT_EQ(read.error().code, ErrorCode::damaged);
        EXPECT_FALSE(read.error().what.empty());
    };
    refuse(0, 0xFFFFFFFF);   // stretches that are not there
    refuse(4, 77);           // a surface that is not there
    refuse(8, 0xFFFFFFF0);   // a unit behind the level's end
    refuse(12, 0);           // an empty stretch
    refuse(12, 0xFFFFFFFF);  // first + count overflows 32 bits
    refuse(4 + 20 + 4, 0);   // out of order
    for (std::size_t size = 0; size < good.size(); size += 3) EXPECT_FALSE(read_change(ByteSpan(good).first(size), original.layout.desc));
    std::mt19937 random(1);
    for (int i = 0; i < 3000; ++i) {
        auto bad = good;
        for (int k = 0; k < 4; ++k) bad[random() % bad.size()] = static_cast<std::byte>(random());
        if (const auto read = read_change(bad, original.layout.desc)) {
            (void)misfits(original, *read);
            EXPECT_EQ(put_units(original, *read)->size(), original.file.size());
        }
    }
}
