// KTX 1 and KTX 2. Sections are those of the Khronos "KTX File Format Specification", version 2.0 (and 1 where said).
#include <gtest/gtest.h>

#include <algorithm>
#include <numeric>
#include <random>
#include <string>
#include <tuple>
#include <vector>

#include "bench/export.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/ktx.h"
#include "texture/ktx2.h"
#include "texture/ktx2_format.h"

using namespace skivet;
using namespace skivet::test;

namespace {

Result<TextureFile> open(Bytes file) { return TextureFile::open(TextureKinds::standard(), std::move(file), "x", ReadLimits{}); }

Bytes payload_for(const TextureDesc& d, unsigned seed = 1) {
    std::uint64_t end = 0;
    (void)lay_out(d, 0, MipOrder::largest_first, 1, end);
    return random_bytes(static_cast<std::size_t>(end), seed);
}

std::uint32_t word(const Bytes& file, std::size_t at) { return load_le<std::uint32_t>(file.data() + at); }

const std::vector<TextureDesc> shapes = {
    {Format::BC7, 20, 12, 1, 5, 1, 1, ColorSpace::srgb},       {Format::BC1, 16, 16, 1, 5, 1, 6, ColorSpace::linear},
    {Format::RGB8, 7, 5, 1, 3, 1, 1, ColorSpace::linear},      {Format::RGBA16F, 9, 4, 1, 4, 3, 1, ColorSpace::unknown},
    {Format::R8, 5, 3, 4, 3, 1, 1, ColorSpace::linear},        {Format::ASTC_6x5, 31, 17, 1, 5, 2, 6, ColorSpace::srgb},
    {Format::ETC2_RGBA1, 1, 1, 1, 1, 1, 1, ColorSpace::linear}};

class EveryShape : public testing::TestWithParam<std::tuple<std::size_t, Supercompression>> {};
INSTANTIATE_TEST_SUITE_P(Ktx2, EveryShape,
                         testing::Combine(testing::Range(std::size_t{0}, shapes.size()),
                                          testing::Values(Supercompression::none, Supercompression::zstd, Supercompression::zlib)));

}  // namespace

TEST_P(EveryShape, IsWrittenReadAndReplacedExactly) {
    const auto& d = shapes[std::get<0>(GetParam())];
    const auto payload = payload_for(d);
    const auto file = *write_ktx2(d, payload, std::get<1>(GetParam()));
    const auto texture = open(file);
    ASSERT_TRUE(texture) << texture.error().message();
    EXPECT_EQ(texture->layout.desc, d);
    EXPECT_EQ(*payload_of(*texture), payload);
    EXPECT_EQ(*texture->kind->replace(texture->file, texture->layout, {}), file) << "no edit, no change";

    const auto& surface = texture->layout.surfaces.front();
    const std::vector<SurfaceEdit> edits = {{0, random_bytes(static_cast<std::size_t>(surface.size), 9)}};
    const auto edited = open(*texture->kind->replace(texture->file, texture->layout, edits));
    ASSERT_TRUE(edited) << edited.error().message();
    EXPECT_EQ(*edited->surface_bytes(edited->layout.surfaces.front()), edits[0].bytes);
    for (std::size_t i = 1; i < edited->layout.surfaces.size(); ++i)
        EXPECT_EQ(*edited->surface_bytes(edited->layout.surfaces[i]), *texture->surface_bytes(texture->layout.surfaces[i])) << i;
}

TEST_P(EveryShape, KeepsTheRulesOfTheSpecification) {
    const auto& d = shapes[std::get<0>(GetParam())];
    const auto scheme = std::get<1>(GetParam());
    const auto file = *write_ktx2(d, payload_for(d), scheme);
    EXPECT_NE(word(file, 12), 0u);                            // 3.1: vkFormat
    EXPECT_EQ(word(file, 28), d.depth > 1 ? d.depth : 0u);    // 3.5: 0 for two dimensions
    EXPECT_EQ(word(file, 32), d.layers > 1 ? d.layers : 0u);  // 3.6: 0 when it is no array
    EXPECT_EQ(word(file, 44), static_cast<std::uint32_t>(scheme));
    const std::size_t index = 80, dfd = word(file, 48), dfd_size = word(file, 52), kvd = word(file, 56), kvd_size = word(file, 60);
    EXPECT_EQ(dfd, index + 24 * d.mips);   // 3.9: the sections follow each other
    EXPECT_EQ(word(file, dfd), dfd_size);  // 3.10.1: dfdTotalSize
    EXPECT_EQ(kvd, dfd + dfd_size);
    EXPECT_EQ(load_le<std::uint64_t>(file.data() + 64), 0u);  // no supercompression global data
    EXPECT_EQ(kvd_size % 4, 0u);
    std::uint64_t last = kvd + kvd_size;
    for (std::uint32_t i = 0; i < d.mips; ++i) {  // 3.9.7: smallest level first, mip padding
        const auto* entry = file.data() + index + 24 * (d.mips - 1 - i);
        const auto offset = load_le<std::uint64_t>(entry), size = load_le<std::uint64_t>(entry + 8);
        EXPECT_GE(offset, last);
        if (scheme == Supercompression::none) EXPECT_EQ(offset % std::lcm(std::uint64_t{info(d.format).block_bytes}, std::uint64_t{4}), 0u);
        last = offset + size;
    }
    EXPECT_EQ(last, file.size());
}

TEST(Ktx2, EveryVulkanFormatComesBack) {
    std::set<std::uint32_t> seen;
    for (const auto& f : all_formats()) {
        TextureDesc d{f.format, 16, 12, 1, 2, 1, 1, ColorSpace::unknown};
        const auto* number = ktx2::vk_number(f.format);
        const auto file = write_ktx2(d, payload_for(d));
        if (!number) {
            EXPECT_FALSE(file) << f.name;
            EXPECT_TRUE(f.luminance || f.format == Format::ETC1 || f.name.find('X') != std::string_view::npos || f.format == Format::R3G3B2)
                << f.name;
            continue;
        }
        EXPECT_TRUE(seen.insert(number->plain).second) << f.name << ": a number given twice";
        ASSERT_TRUE(file) << f.name;
        const auto texture = open(*file);
        ASSERT_TRUE(texture) << f.name << texture.error().message();
        EXPECT_EQ(texture->layout.desc.format, f.format);
        EXPECT_TRUE(texture->decode(1)) << f.name;
    }
}

TEST(Ktx2, TheDescriptorSaysWhatTheFormatTableSays) {
    // Khronos Data Format Specification 1.3, section 5: the basic descriptor block.
    for (const auto& f : all_formats()) {
        if (!ktx2::vk_number(f.format)) continue;
        const auto dfd = ktx2::descriptor(f.format, ColorSpace::linear);
        EXPECT_EQ(load_le<std::uint32_t>(dfd.data()), dfd.size());
        const auto block = load_le<std::uint32_t>(dfd.data() + 8) >> 16;
        EXPECT_EQ(block + 4, dfd.size());
        EXPECT_EQ(static_cast<unsigned>(dfd[16]) + 1, f.block_width) << f.name;
        EXPECT_EQ(static_cast<unsigned>(dfd[17]) + 1, f.block_height) << f.name;
        EXPECT_EQ(static_cast<unsigned>(dfd[20]), f.block_bytes) << f.name;
        unsigned bits = 0;
        for (std::size_t at = 28; at < dfd.size(); at += 16)
            bits = std::max(bits, load_le<std::uint16_t>(dfd.data() + at) + static_cast<unsigned>(dfd[at + 2]) + 1);
        EXPECT_EQ(bits, f.block_bytes * 8u) << f.name << ": the samples cover the whole block";
    }
}

TEST(Ktx2, BasisUniversalIsRefusedByName) {
    const TextureDesc d{Format::RGBA8, 8, 8, 1, 1, 1, 1, ColorSpace::srgb};
    auto file = *write_ktx2(d, payload_for(d));
    const auto dfd = word(file, 48);
    file[dfd + 12] = std::byte{166};  // KHR_DF_MODEL_UASTC
    EXPECT_NE(open(file).error().message().find("Basis Universal (UASTC)"), std::string::npos);
    file[dfd + 12] = std::byte{163};  // KHR_DF_MODEL_ETC1S
    EXPECT_NE(open(file).error().message().find("Basis Universal (ETC1S)"), std::string::npos);
    store_le(file.data() + 44, std::uint32_t{1});
    const auto error = open(file).error();
    EXPECT_EQ(error.code, ErrorCode::unsupported);
    EXPECT_NE(error.message().find("BasisLZ"), std::string::npos);
}

TEST(Ktx2, DamageIsSaidWithItsPlace) {
    const TextureDesc d{Format::BC3, 32, 32, 1, 6, 1, 1, ColorSpace::srgb};
    for (const auto scheme : {Supercompression::none, Supercompression::zstd, Supercompression::zlib}) {
        const auto good = *write_ktx2(d, payload_for(d), scheme);
        for (std::size_t size = 12; size < good.size(); size += 7) {
            const auto cut = open(Bytes(good.begin(), good.begin() + static_cast<std::ptrdiff_t>(size)));
            if (cut) continue;
            EXPECT_FALSE(cut.error().message().empty());
        }
        const auto shorter = open(Bytes(good.begin(), good.end() - 1));
        ASSERT_TRUE(shorter);
        EXPECT_TRUE(shorter->layout.damage) << "the last byte is missing";
        auto wrong = good;
        store_le(wrong.data() + 80 + 16, std::uint64_t{5});
        if (scheme != Supercompression::none) EXPECT_NE(open(wrong).error().message().find("mip 0"), std::string::npos);
        if (scheme == Supercompression::none) continue;
        auto broken = open(good);
        const auto level = load_le<std::uint64_t>(good.data() + 80);
        for (std::size_t i = 0; i < 8; ++i) broken->file[static_cast<std::size_t>(level) + i] = std::byte{0xEE};
        const auto shown = broken->decode(0);
        ASSERT_FALSE(shown);
        EXPECT_NE(shown.error().message().find("mip 0"), std::string::npos);
        EXPECT_TRUE(broken->decode(5)) << "what can be shown is shown";
    }
}

TEST(Ktx1, EveryOpenGlFormatComesBackThroughPaddedRows) {
    for (const auto& f : all_formats()) {
        for (const auto& [faces, layers, depth] : {std::tuple{1u, 1u, 1u}, {6u, 1u, 1u}, {1u, 3u, 1u}, {1u, 1u, 4u}}) {
            const TextureDesc d{f.format, 7, 5, depth, 3, layers, faces, ColorSpace::unknown};
            const auto payload = payload_for(d);
            const auto file = write_ktx(d, payload);
            if (!file) {
                EXPECT_EQ(file.error().code, ErrorCode::unsupported);
                continue;
            }
            EXPECT_EQ(file->size() % 4, 0u);  // KTX 1, sections 2.16 to 2.18: faces, levels and rows are padded to 4 bytes
            const auto texture = open(*file);
            ASSERT_TRUE(texture) << f.name << texture.error().message();
            EXPECT_EQ(texture->layout.desc.format, f.format);
            EXPECT_EQ(*payload_of(*texture), payload) << f.name;
            const std::vector<SurfaceEdit> edits = {{1, random_bytes(static_cast<std::size_t>(texture->layout.surfaces[1].size), 4)}};
            const auto edited = *texture->kind->replace(texture->file, texture->layout, edits);
            EXPECT_EQ(edited.size(), file->size());
            EXPECT_EQ(*open(edited)->surface_bytes(texture->layout.surfaces[1]), edits[0].bytes);
            EXPECT_EQ(*open(edited)->surface_bytes(texture->layout.surfaces[0]), *texture->surface_bytes(texture->layout.surfaces[0]));
        }
    }
}

TEST(Ktx1, DamageIsSaid) {
    const TextureDesc d{Format::ETC1, 16, 16, 1, 5, 1, 1, ColorSpace::unknown};
    auto good = *write_ktx(d, payload_for(d));
    EXPECT_EQ(open(Bytes(good.begin(), good.begin() + 40)).error().code, ErrorCode::damaged);
    // Level 0 is 128 bytes; of a file that ends inside it, or behind it, what is there is shown.
    const auto whole = *open(good)->decode(0);
    const auto cut = open(Bytes(good.begin(), good.end() - 8));
    ASSERT_TRUE(cut);
    EXPECT_NE(cut->layout.damage->message().find("mip chain: needs"), std::string::npos);
    EXPECT_EQ(*cut->decode(0), whole);
    EXPECT_FALSE(cut->decode(4));
    const auto half = *open(Bytes(good.begin(), good.begin() + 64 + 4 + 64))->decode(0);
    for (std::uint32_t y = 0; y < 8; ++y)
        for (std::uint32_t x = 0; x < 16; ++x) ASSERT_EQ(half.at(x, y), whole.at(x, y));
    EXPECT_FALSE(open(Bytes(good.begin(), good.begin() + 64 + 4 + 10))) << "next to nothing is there";
    store_le(good.data() + 52, std::uint32_t{3});
    EXPECT_NE(open(good).error().message().find("faces"), std::string::npos);
}

TEST(Ktx2, FilesThatEndEarlyShowTheLevelsTheyHave) {
    const TextureDesc d{Format::BC1, 64, 64, 1, 7, 1, 1, ColorSpace::unknown};
    const auto good = *write_ktx2(d, payload_for(d), Supercompression::none);
    const auto whole = open(good);
    // The largest level stands last: 2,048 bytes.
    const auto cut = open(Bytes(good.begin(), good.end() - 1024));
    ASSERT_TRUE(cut);
    ASSERT_TRUE(cut->layout.damage);
    EXPECT_NE(cut->layout.damage->message().find("mip 0: needs 2,048 bytes"), std::string::npos) << cut->layout.damage->message();
    const auto half = *cut->decode(0), top = *whole->decode(0);
    for (std::uint32_t y = 0; y < 32; ++y)
        for (std::uint32_t x = 0; x < 64; ++x) ASSERT_EQ(half.at(x, y), top.at(x, y));
    for (std::uint32_t mip = 1; mip < 7; ++mip) EXPECT_EQ(*cut->decode(mip), *whole->decode(mip));
    EXPECT_FALSE(cut->surface_bytes(cut->layout.surfaces[0])) << "nothing is made up for writing";
    const auto packed = *write_ktx2(d, payload_for(d), Supercompression::zstd);
    const auto packed_cut = open(Bytes(packed.begin(), packed.end() - 100));
    ASSERT_TRUE(packed_cut);
    EXPECT_TRUE(packed_cut->layout.damage);
    EXPECT_FALSE(packed_cut->decode(0));
    EXPECT_EQ(*packed_cut->decode(1), *whole->decode(1));
}

namespace {

TextureFile open_as(Bytes file, const char* name) {
    return *TextureFile::open(TextureKinds::standard(), std::move(file), name, ReadLimits{});
}

}  // namespace

TEST(KtxSizes, OfAnotherSizeItIsWhatANewFileWouldBe) {
    for (const auto format : {Format::BC3, Format::RGB8, Format::R8}) {
        const TextureDesc small{format, 24, 16, 1, 5, 1, 1, ColorSpace::linear}, large{format, 52, 36, 1, 6, 1, 1, ColorSpace::linear};
        const auto payload = payload_for(large, 2);
        const auto old = open_as(*write_ktx2(small, payload_for(small, 1)), "x.ktx2");
        ASSERT_TRUE(old.kind->can_resize(old.layout));
        EXPECT_EQ(*old.kind->resized(old.file, old.layout, large, payload), *write_ktx2(large, payload)) << info(format).name;
        const auto older = open_as(*write_ktx(small, payload_for(small, 1)), "x.ktx");
        ASSERT_TRUE(older.kind->can_resize(older.layout));
        EXPECT_EQ(*older.kind->resized(older.file, older.layout, large, payload), *write_ktx(large, payload)) << info(format).name;
        EXPECT_EQ(older.kind->resized(older.file, older.layout, small, Bytes(3)).error().code, ErrorCode::usage) << "too few levels";
        EXPECT_EQ(old.kind->resized(old.file, old.layout, small, Bytes(3)).error().code, ErrorCode::usage);
    }
}

TEST(KtxSizes, KeysAndWhatStandsBehindStay) {
    const TextureDesc small{Format::BC1, 16, 16, 1, 1, 1, 1, ColorSpace::unknown},
        large{Format::BC1, 32, 32, 1, 1, 1, 1, ColorSpace::unknown};
    const auto payload = payload_for(large, 2);
    // One key of KTX 1: its size, "k\0v", a byte of padding.
    auto file = *write_ktx(small, payload_for(small, 1));
    const Bytes key = {std::byte{3}, {}, {}, {}, std::byte{'k'}, {}, std::byte{'v'}, {}};
    store_le(file.data() + 60, std::uint32_t{8});
    file.insert(file.begin() + 64, key.begin(), key.end());
    const auto behind = random_bytes(5, 4);
    file.insert(file.end(), behind.begin(), behind.end());
    const auto old = open_as(file, "x.ktx");
    const auto made = *old.kind->resized(old.file, old.layout, large, payload);
    EXPECT_TRUE(std::equal(key.begin(), key.end(), made.begin() + 64));
    EXPECT_TRUE(std::equal(behind.begin(), behind.end(), made.end() - 5));
    EXPECT_EQ(*payload_of(open_as(made, "x.ktx")), payload);

    // The keys of KTX 2 hold our name here; another program's are as good.
    auto second = *write_ktx2(small, payload_for(small, 1), Supercompression::zlib);
    const auto keys = load_le<std::uint32_t>(second.data() + 56);
    second[keys + 4 + 10] = std::byte{'X'};
    const auto other = open_as(second, "x.ktx2");
    const auto grown = *other.kind->resized(other.file, other.layout, large, payload);
    EXPECT_EQ(grown[load_le<std::uint32_t>(grown.data() + 56) + 14], std::byte{'X'});
    EXPECT_EQ(load_le<std::uint32_t>(grown.data() + 44), 3u) << "packed as before";
    EXPECT_EQ(*payload_of(open_as(grown, "x.ktx2")), payload);
}

TEST(Surfaces, AreFoundWhateverTheirOrder) {
    std::vector<TextureDesc> all = shapes;
    all.push_back({Format::R8, 4, 4, 1, 3, 7, 6, ColorSpace::linear});
    for (const auto& desc : all)
        for (const auto order : {MipOrder::largest_first, MipOrder::smallest_first})
            for (const bool shuffled : {false, true}) {
                TextureLayout layout;
                layout.desc = desc;
                std::uint64_t end = 0;
                layout.surfaces = lay_out(desc, 0, order, 1, end);
                if (shuffled) std::shuffle(layout.surfaces.begin(), layout.surfaces.end(), std::minstd_rand(5));
                for (const auto& s : layout.surfaces) EXPECT_EQ(layout.find(s.mip, s.layer, s.face, s.slice), &s);
                EXPECT_EQ(layout.find(desc.mips), nullptr);
                EXPECT_EQ(layout.find(0, desc.layers), nullptr);
                EXPECT_EQ(layout.find(0, 0, desc.faces), nullptr);
                EXPECT_EQ(layout.find(0, 0, 0, desc.depth), nullptr);
                layout.surfaces.clear();
                EXPECT_EQ(layout.find(0), nullptr);
            }
}

TEST(Ktx1, SurfacesStandInTheOrderOfAllKinds) {
    for (const auto& desc : shapes) {
        const auto file = write_ktx(desc, payload_for(desc));
        if (!file) continue;
        const auto texture = open(*file);
        ASSERT_TRUE(texture) << texture.error().message();
        std::uint64_t end = 0;
        const auto expected = lay_out(desc, 0, MipOrder::largest_first, 1, end);
        ASSERT_EQ(texture->layout.surfaces.size(), expected.size());
        for (std::size_t i = 0; i < expected.size(); ++i) {
            const auto &is = texture->layout.surfaces[i], &should = expected[i];
            EXPECT_EQ(std::tuple(is.mip, is.layer, is.face, is.slice), std::tuple(should.mip, should.layer, should.face, should.slice));
        }
    }
}
