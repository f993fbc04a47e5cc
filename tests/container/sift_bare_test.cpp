// Textures without a header, streams and pictures without a magic number, headers hidden by a key.
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "base/cipher.h"
#include "bench/fitting.h"
#include "container/sift.h"
#include "delivery/vault.h"
#include "sift/windows.h"
#include "support/headerless.h"
#include "texture/dds.h"
#include "texture/tga.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct BareSifting : testing::Test {
    ReadContext context;
    Bytes data;

    std::size_t put(const Bytes& bytes) {
        const auto at = data.size();
        data.insert(data.end(), bytes.begin(), bytes.end());
        return at;
    }
    std::vector<SiftHit> look() {
        Progress progress;
        auto hits = sift(context, data, progress);
        EXPECT_TRUE(hits);
        return *hits;
    }
    /// A drawn picture's levels, the largest first.
    static Bytes levels(Format format, std::uint32_t side, std::uint32_t mips, unsigned seed) {
        return *encode_levels(drawn_picture(side, side, seed), TextureDesc{format, side, side, 1, mips}, {});
    }
    std::shared_ptr<const Container> opened() {
        Progress progress;
        const auto out = open_sifted(context, FileView::of(data, "unknown.bin"), progress);
        EXPECT_TRUE(out);
        return *out;
    }
};

}  // namespace

TEST_F(BareSifting, WindowsAreCountedAsTheyAreDefined) {
    const auto bytes = random_bytes(window_bytes + 16, 5);
    const auto s = window_stats(bytes.data());
    std::array<unsigned, 16> step8{}, step16{}, usual{};
    unsigned equal = 0, no_text = 0, step3 = 0;
    for (std::size_t i = 0; i < window_bytes; ++i) {
        const auto v = static_cast<unsigned>(bytes[i]);
        const auto apart = [&](std::size_t lag) {
            return static_cast<unsigned>(std::abs(static_cast<int>(v) - static_cast<int>(bytes[i + lag])));
        };
        step8[i % 16] += apart(8);
        step16[i % 16] += apart(16);
        step3 += apart(3);
        equal += v != 0 && apart(1) == 0;
        no_text += v < 9 || v >= 127;
        // The mode of a BC7 block is the number of zeros before its lowest one (Khronos Data Format Specification 1.3, section 20.1).
        const auto mode = v == 0 ? 8 : __builtin_ctz(v);
        usual[i % 16] += mode == 1 || (mode >= 3 && mode <= 6);
    }
    for (std::size_t lane = 0; lane < 16; ++lane) {
        EXPECT_EQ(s.step8[lane], step8[lane]);
        EXPECT_EQ(s.step16[lane], step16[lane]);
        EXPECT_EQ(s.bc7_usual[lane], usual[lane]);
    }
    EXPECT_EQ(s.equal, equal);
    EXPECT_EQ(s.no_text, no_text);
    EXPECT_EQ(s.step[2], step3 * 64 / window_bytes);
}

TEST_F(BareSifting, FindsMostTexturesWithoutAHeaderAmongOtherData) {
    MixtureOptions options;
    options.textures = 20;
    options.bytes = 8'000'000;
    const auto mix = mixture(21, options);
    const auto found = find_bare_textures(mix.bytes, CancelToken());
    ASSERT_TRUE(found);
    std::size_t right = 0, wrong = 0;
    for (const auto& f : *found) {
        const bool hit = std::any_of(mix.textures.begin(), mix.textures.end(), [&](const Embedded& t) { return found_as(t, f); });
        (hit ? right : wrong) += 1;
        EXPECT_LE(f.at + f.size, mix.bytes.size());
        EXPECT_GE(f.confidence, 0.5);
    }
    for (std::size_t i = 1; i < found->size(); ++i) EXPECT_LE((*found)[i - 1].at + (*found)[i - 1].size, (*found)[i].at);
    // What is reached is in benchmarks/README.md; this is the least.
    EXPECT_GE(right, 14u) << right << " of 20, " << wrong << " wrong";
    EXPECT_LE(wrong, 4u);
}

TEST_F(BareSifting, NothingIsFoundInNoiseWordsOrSound) {
    for (const unsigned kind : {0u, 2u, 3u}) {
        unsigned seed = 1;
        while (std::mt19937(seed)() % 8 != kind) ++seed;  // as other_data draws
        const auto found = find_bare_textures(other_data(1'000'000, seed), CancelToken());
        ASSERT_TRUE(found);
        EXPECT_TRUE(found->empty()) << kind;
    }
}

TEST_F(BareSifting, OneTexelEditedChangesOneBlockAndUndoes) {
    put(random_bytes(4096, 1));
    const auto texels = levels(Format::BC1, 128, 8, 18);
    const auto at = put(texels);
    put(random_bytes(5000, 2));
    const auto source = opened();
    ASSERT_EQ(source->entries().size(), 1u);
    EXPECT_EQ(source->entries()[0].path, fmt::format("0x{:08x}.dds", at));
    const auto file = source->read(0, ReadLimits{});
    ASSERT_TRUE(file) << file.error().message();
    EXPECT_EQ(file->size(), source->entries()[0].size);
    auto texture = TextureFile::open(TextureKinds::standard(), *file, "a.dds", ReadLimits{});
    ASSERT_TRUE(texture);
    EXPECT_EQ(texture->layout.desc.format, Format::BC1);
    EXPECT_EQ(texture->layout.desc.width, 128u);
    EXPECT_EQ(texture->layout.desc.mips, 8u);
    EXPECT_EQ(*payload_of(*texture), texels);
    EXPECT_TRUE(source->plan(std::vector<Replacement>{{0, *file}}, ReadLimits{})->empty()) << "identity";
    // A texel of the sixth block of mip 0, delivered and taken back.
    TempFolder folder;
    const auto path = folder / "unknown.bin";
    put_file(path, data);
    Progress progress;
    const auto on_disk = *open_sifted(context, *FileView::open(path), progress);
    auto edited = *file;
    edited[edited.size() - texels.size() + 5 * 8 + 4] ^= std::byte{3};
    const auto plan = on_disk->plan(std::vector<Replacement>{{0, edited}}, ReadLimits{});
    ASSERT_TRUE(plan) << plan.error().message();
    PosixFiles files;
    Vault vault(folder / "vault", files);
    ASSERT_TRUE(vault.deliver(*plan, {"t", path, {}}, 1));
    auto expected = data;
    expected[at + 5 * 8 + 4] ^= std::byte{3};
    EXPECT_EQ(get_file(path), expected);
    EXPECT_LE(plan->bytes_written(), 1024u);
    ASSERT_EQ(*vault.restore(path), 1u);
    EXPECT_EQ(get_file(path), data);

    const auto other = source->plan(std::vector<Replacement>{{0, make_dds(Format::BC1, 64, 64)}}, ReadLimits{});
    ASSERT_FALSE(other);
    EXPECT_EQ(other.error().code, ErrorCode::unsupported);
}

TEST_F(BareSifting, LevelsWithTheSmallestFirstAndPalettesGoOutAndIn) {
    put(random_bytes(2048, 1));
    const auto picture = drawn_picture(128, 128, 33);
    const auto all = levels(Format::BC3, 128, 8, 19);
    Bytes turned;
    std::size_t end = all.size();
    std::vector<std::pair<std::size_t, std::size_t>> parts;
    for (std::size_t m = 0, from = 0; m < 8; ++m) {
        const auto size = static_cast<std::size_t>(level_bytes(Format::BC3, 128u >> m, 128u >> m));
        parts.emplace_back(from, size);
        from += size;
    }
    for (auto p = parts.rbegin(); p != parts.rend(); ++p)
        turned.insert(turned.end(), all.begin() + static_cast<std::ptrdiff_t>(p->first),
                      all.begin() + static_cast<std::ptrdiff_t>(p->first + p->second));
    ASSERT_EQ(turned.size(), end);
    BareTexture small_first;
    small_first.at = put(turned);
    small_first.size = turned.size();
    small_first.desc = {Format::BC3, 128, 128, 1, 8};
    small_first.smallest_first = true;
    const auto indexed = in_256_colors(picture);
    BareTexture paletted;
    paletted.palette_bits = 8;
    paletted.desc = {Format::RGB8, 128, 128};
    paletted.palette_at = data.size();
    for (const auto& color : indexed.palette)
        for (std::size_t c = 0; c < 3; ++c) data.push_back(static_cast<std::byte>(color[c]));
    paletted.at = data.size();
    for (const auto n : indexed.numbers) data.push_back(static_cast<std::byte>(n));
    paletted.size = indexed.numbers.size();
    put(random_bytes(500, 3));

    std::vector<SiftHit> hits(2);
    for (std::size_t i = 0; i < 2; ++i) {
        hits[i].bare = i == 0 ? small_first : paletted;
        hits[i].at = hits[i].bare->at;
        hits[i].size = hits[i].bare->size;
        hits[i].desc = hits[i].bare->desc;
        hits[i].kind = "headerless";
        hits[i].extension = "dds";
    }
    const auto source = sifted_container(FileView::of(data, "unknown.bin"), hits);
    const auto first = TextureFile::open(TextureKinds::standard(), *source->read(0, ReadLimits{}), "a.dds", ReadLimits{});
    ASSERT_TRUE(first);
    EXPECT_EQ(*payload_of(*first), all);
    auto file = *source->read(1, ReadLimits{});
    EXPECT_EQ(file.size(), source->entries()[1].size);
    const auto second = TextureFile::open(TextureKinds::standard(), file, "b.dds", ReadLimits{});
    ASSERT_TRUE(second);
    EXPECT_EQ(second->kind->name(), "DDS palette");
    const auto shown = *second->decode();
    for (std::size_t i = 0; i < shown.texels.size(); i += 97)
        for (std::size_t c = 0; c < 3; ++c) ASSERT_EQ(shown.texels[i][c], indexed.palette[indexed.numbers[i]][c]);
    // Both go back as they were; another palette does not go in.
    EXPECT_TRUE(source->plan(std::vector<Replacement>{{0, first->file}, {1, file}}, ReadLimits{})->empty());
    file[130] ^= std::byte{1};
    EXPECT_FALSE(source->plan(std::vector<Replacement>{{1, file}}, ReadLimits{}));
}

TEST_F(BareSifting, StreamsWithoutAMagicNumberAreOpened) {
    const auto dds = make_dds(Format::BC3, 64, 64), second = make_dds(Format::BC1, 64, 32);
    put(random_bytes(1001, 1));
    // By zlib, with a window of 15 bits and no header, as archives have it.
    const auto deflated = *pack(Packing::deflate, dds);
    const auto a = put(deflated);
    put(random_bytes(333, 2));
    const auto block = *pack(Packing::lz4_block, second);
    Bytes sizes(8);
    store_le(sizes.data(), static_cast<std::uint32_t>(second.size()));
    store_le(sizes.data() + 4, static_cast<std::uint32_t>(block.size()));
    put(sizes);
    const auto b = put(block);
    put(random_bytes(700, 3));
    const auto hits = look();
    ASSERT_EQ(hits.size(), 2u);
    EXPECT_EQ(hits[0].at, a);
    EXPECT_EQ(hits[0].size, deflated.size());
    EXPECT_EQ(hits[0].packing, Packing::deflate);
    ASSERT_EQ(hits[0].inside.size(), 1u);
    EXPECT_EQ(hits[0].inside[0].kind, "DDS");
    EXPECT_EQ(hits[1].at, b);
    EXPECT_EQ(hits[1].size, block.size());
    EXPECT_EQ(hits[1].packing, Packing::lz4_block);
    EXPECT_GT(hits[1].confidence, 0.9) << "both sizes stand before it";
    const auto source = opened();
    ASSERT_EQ(source->entries().size(), 2u);
    EXPECT_EQ(*source->read(0, ReadLimits{}), dds);
    EXPECT_EQ(*source->read(1, ReadLimits{}), second);
}

TEST_F(BareSifting, AFileMadeOfBeginningsDoesNotTakeForEver) {
    // TGA headers every 18 bytes, each of a picture that is whole; a deflate stream of many blocks that is cut off; hidden DDS headers of
    // textures that are not there.
    const auto tga = *write_tga(drawn_picture(512, 512, 4));
    for (unsigned i = 0; i < 60'000; ++i) data.insert(data.end(), tga.begin(), tga.begin() + 18);
    Bytes words;
    for (unsigned i = 0; words.size() < 6'000'000; ++i) {
        const auto text = fmt::format("{} horses, {} lanterns; ", i * 7919 % 10007, i * 104729 % 9973);
        const auto part = bytes_of(text);
        words.insert(words.end(), part.begin(), part.end());
    }
    const auto stream = *pack(Packing::deflate, words);
    data.insert(data.end(), stream.begin() + 1, stream.end() - 9);
    const auto dds = xor_with(bytes_of("\x33"), make_dds(Format::BC7, 64, 64));
    for (unsigned i = 0; i < 3'000; ++i) data.insert(data.end(), dds.begin(), dds.begin() + 200);
    SiftOptions options;
    options.bare = false;
    std::vector<std::string> left_out;
    options.left_out = &left_out;
    // Without a bound it would be minutes to hours, and the test program's limit ended it.
    Progress progress;
    EXPECT_TRUE(sift(context, data, progress, options));
    ASSERT_EQ(left_out.size(), 1u) << "and it says where it stopped";
    EXPECT_NE(left_out[0].find("too much begins like a stream"), std::string::npos) << left_out[0];
}

TEST_F(BareSifting, ManyHiddenFilesAreEachLookedAtOnce) {
    const auto dds = make_dds(Format::BC1, 32, 32);
    for (unsigned i = 0; i < 2'000; ++i) put(xor_with(bytes_of("\x5A\xC3"), dds));
    put(random_bytes(3'000'000, 2));
    SiftOptions options;
    options.bare = false;
    std::vector<std::string> left_out;
    options.left_out = &left_out;
    Progress progress;
    const auto hits = sift(context, data, progress, options);
    ASSERT_TRUE(hits);
    EXPECT_EQ(hits->size(), 2'000u);
    EXPECT_TRUE(left_out.empty());
}

TEST_F(BareSifting, AnLz4BlockOfAnotherSizeIsRefusedWithTheReason) {
    Bytes plain;
    while (plain.size() < 20'000) {
        const auto part = bytes_of(fmt::format("booth {} ", plain.size() % 977));
        plain.insert(plain.end(), part.begin(), part.end());
    }
    const auto packed = *pack(Packing::lz4_block, plain);
    Bytes sizes(4);
    store_le(sizes.data(), static_cast<std::uint32_t>(packed.size()));
    put(random_bytes(500, 1));
    put(sizes);
    put(packed);
    put(random_bytes(500, 2));
    const auto source = opened();
    ASSERT_EQ(source->entries().size(), 1u);
    EXPECT_TRUE(source->plan(std::vector<Replacement>{{0, plain}}, ReadLimits{})->empty());
    const auto simpler = source->plan(std::vector<Replacement>{{0, Bytes(plain.size(), std::byte{'b'})}}, ReadLimits{});
    ASSERT_FALSE(simpler);
    EXPECT_NE(simpler.error().message().find("has to take just"), std::string::npos) << simpler.error().message();
}

TEST_F(BareSifting, NoStreamsAreSeenInRandomBytes) {
    put(random_bytes(3'000'000, 77));
    for (const auto& hit : look()) EXPECT_TRUE(hit.packing == Packing::lzma_alone) << hit.kind << " at " << hit.at;
}

TEST_F(BareSifting, TargaPicturesAreFoundByWhatTheyHold) {
    put(random_bytes(777, 1));
    const auto tga = *write_tga(drawn_picture(96, 64, 4));
    const auto a = put(tga);
    put(random_bytes(90, 2));
    // A header that makes sense, and noise behind it.
    Bytes noise(tga.begin(), tga.begin() + 18);
    const auto rest = random_bytes(96 * 64 * 4, 3);
    noise.insert(noise.end(), rest.begin(), rest.end());
    put(noise);
    put(random_bytes(100, 5));
    const auto hits = look();
    ASSERT_EQ(hits.size(), 1u);
    EXPECT_EQ(hits[0].at, a);
    EXPECT_EQ(hits[0].kind, "TGA");
    EXPECT_EQ(hits[0].desc.width, 96u);
}

TEST_F(BareSifting, AHeaderBehindAShortKeyIsSeenThrough) {
    const auto dds = make_dds(Format::BC3, 64, 64);
    std::vector<std::size_t> places;
    const std::vector<std::string> keys = {"\x5A", "\x11\x22", "\x01\x02\x03", "abcd", "\xF0\x0D\x01\x77\x99"};
    for (const auto& key : keys) {
        put(random_bytes(501, 1));
        places.push_back(put(xor_with(bytes_of(key), dds)));
    }
    put(random_bytes(400, 2));
    const auto hits = look();
    ASSERT_EQ(hits.size(), keys.size());
    for (std::size_t i = 0; i < keys.size(); ++i) {
        EXPECT_EQ(hits[i].at, places[i]) << i;
        EXPECT_EQ(hits[i].key, bytes_of(keys[i])) << i;
        EXPECT_EQ(hits[i].size, dds.size()) << i;
    }
    const auto source = opened();
    EXPECT_EQ(*source->read(2, ReadLimits{}), dds);
    EXPECT_EQ(*source->read_head(2, 4), bytes_of("DDS "));
    auto edited = dds;
    edited[300] ^= std::byte{8};
    const auto plan = source->plan(std::vector<Replacement>{{2, edited}}, ReadLimits{});
    ASSERT_TRUE(plan);
    const auto& range = plan->files[0].ranges.at(0);
    Bytes expected = data;
    expected[places[2] + 300] ^= std::byte{8};
    for (std::size_t i = 0; i < range.bytes.size(); ++i) ASSERT_EQ(range.bytes[i], expected[static_cast<std::size_t>(range.at) + i]);
}
