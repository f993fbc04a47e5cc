// Small files that claim much (hostile_files.h): what each command says of them, and what memory it takes. The limit is 256 MB beyond the
// picture that is really shown. No time is measured here: benchmarks/hostile does.
#include <gtest/gtest.h>

#include <filesystem>
#include <future>
#include <string>
#include <vector>

#include "base/budget.h"
#include "catalog/catalog.h"
#include "catalog/picture_facts.h"
#include "hostile/cost.h"
#include "hostile/hostile_files.h"
#include "support/pictures.h"
#include "support/sanitized.h"
#include "texture/ktx2.h"
#include "texture/png.h"
#include "texture/tiff.h"

using namespace skivet;
using namespace skivet::test;
namespace fs = std::filesystem;

namespace {

struct Expected {
    std::string file;
    long picture = 0;          ///< megabytes that an export really shows
    std::string said = {};     ///< what list --textures says of it; empty: nothing is wrong with it
    std::string refused = {};  ///< what verify says of entries that are not read
};

const char* const more_than_it_holds = "together they would unpack to more than the file can hold";

class Bombs : public testing::TestWithParam<Expected> {};

}  // namespace

TEST_P(Bombs, TakeLittleMemoryWhateverTheyClaim) {
    const auto& expected = GetParam();
    TempFolder folder;
    for (const auto& [name, bytes] : bomb(expected.file).make()) put_file(folder / name, bytes);
    const auto file = (folder / expected.file).string();
    const auto mapped = static_cast<long>(fs::file_size(file) >> 20);
    const auto described = fs::path(file).replace_extension(".toml");
    const auto sheet = fs::exists(described) ? " --sheet " + described.string() : std::string();
    for (const std::string words : {"list", "list --textures --json", "roles --json", "verify", "export --as png"}) {
        if (expected.file == "forty.zip" && words.starts_with("export")) continue;  // as large.zip, forty times over
        const bool shows = words.starts_with("export");
        const auto cost = cost_of(words + ' ' + file + sheet + (shows ? " --to " + (folder / "out").string() : ""));
        EXPECT_GE(cost.code, 0) << words << '\n' << cost.said;
        EXPECT_LT(cost.code, 128) << words << '\n' << cost.said;
        if (!sanitized) EXPECT_LE(cost.megabytes, own_megabytes + 256 + mapped + (shows ? expected.picture : 0)) << words;
        if (words == "verify") EXPECT_NE(cost.said.find(expected.refused), std::string::npos) << cost.said.substr(0, 500);
        if (words == "list --textures --json") {
            EXPECT_EQ(cost.code == 0, expected.said.empty()) << cost.said.substr(0, 500);
            EXPECT_NE(cost.said.find(expected.said), std::string::npos) << cost.said.substr(0, 500);
        }
    }
}

INSTANTIATE_TEST_SUITE_P(
    All, Bombs,
    testing::Values(Expected{"large.zip", 256}, Expected{"forty.zip", 256}, Expected{"nested.zip"}, Expected{"padded.zip"},
                    Expected{"runs.bmp", 0, "claims 16,384×16,384 texels, 768 MB, in a file of 154 bytes"}, Expected{"scans.jpg"},
                    Expected{"zeros.ktx2", 0, "are said to unpack to 1.0 GB"}, Expected{"layers.ktx"},
                    Expected{"passes.png", 0, "claims 16,384×16,384 texels"}, Expected{"strips.tiff", 0, "claims 8,192×8,192 texels"},
                    Expected{"lying.exr", 0, "attribute screenWindowCenter is no v2f of 21 bytes"}, Expected{"many.tar"},
                    Expected{"overlap.zip", 0, "1,999 entries lie over bytes of others", more_than_it_holds},
                    Expected{"shared.bin", 0, "the folders share more than"}, Expected{"repeats.bin", 128, {}, more_than_it_holds}),
    [](const auto& given) {
        auto name = given.param.file;
        std::replace(name.begin(), name.end(), '.', '_');
        return name;
    });

TEST(Claims, PicturesThatReallyPackWellAreStillRead) {
    // One color, as large as a game's largest textures: 64 MB in some kilobytes.
    const Image flat(4096, 4096, {10, 20, 30, 255});
    for (const auto& file : {write_png(flat).value(), write_tiff(flat).value()}) {
        const auto texture = TextureFile::open(TextureKinds::standard(), file, "flat", ReadLimits{});
        ASSERT_TRUE(texture) << texture.error().message();
        EXPECT_EQ(texture->decode().value(), flat);
    }
    TextureDesc desc;
    desc.format = Format::RGBA8;
    desc.width = desc.height = 4096;
    const auto ktx2 = write_ktx2(desc, Bytes(64u << 20), Supercompression::zstd).value();
    EXPECT_TRUE(TextureFile::open(TextureKinds::standard(), ktx2, "flat", ReadLimits{}));
}

TEST(Claims, NestedArchivesHaveRoomForWhatAGameHas) {
    const ReadLimits limits;
    // A game of 2 GB whose archives hold archives: half a million entries, 8 GB unpacked.
    EXPECT_GE(limits.most_nested_entries(2ull << 30), 500'000u);
    EXPECT_GE(limits.most_nested_bytes(2ull << 30), 8ull << 30);
    EXPECT_EQ(limits.most_nested_entries(~0ull), limits.entries);
    EXPECT_GT(limits.most_nested_bytes(~0ull), 1ull << 40);
    EXPECT_GE(limits.most_scans(16384ull * 16384), 50u);
}

TEST(Nested, WhatIsNotOpenedAnyMoreIsSaid) {
    TempFolder folder;
    for (const auto& [name, bytes] : bomb("padded.zip").make()) put_file(folder / name, bytes);
    const ReadContext context;
    const std::vector<fs::path> paths = {folder / "padded.zip"};
    Progress progress;
    const auto catalog = build_catalog(context, open_sources(context, paths), progress);
    ASSERT_TRUE(catalog);
    EXPECT_GT(std::count_if(catalog->items.begin(), catalog->items.end(), [](const auto& item) { return item.is_texture(); }), 5);
    ASSERT_FALSE(catalog->problems.empty());
    const auto said = catalog->problems.front().message();
    EXPECT_NE(said.find("too much lies in archives inside archives"), std::string::npos) << said;
    EXPECT_NE(said.find(".zip ▸ in"), std::string::npos) << "which one: " << said;
}

TEST(Bands, AreTheSurfaceWhateverTheFile) {
    const auto picture = smooth_picture(150, 333, 3, true);
    const auto same = [](const TextureFile& texture) {
        for (const auto& surface : texture.layout.surfaces) {
            Bytes joined;
            std::uint32_t rows = 0;
            const auto read =
                texture.kind->read_bands(texture.file, texture.layout, surface, [&](ByteSpan bytes, std::uint32_t height) -> Status {
                    joined.insert(joined.end(), bytes.begin(), bytes.end());
                    rows += height;
                    EXPECT_EQ(bytes.size(), level_bytes(texture.layout.desc.format, surface.width, height));
                    return {};
                });
            ASSERT_TRUE(read);
            ASSERT_TRUE(*read);
            EXPECT_EQ(rows, surface.height);
            EXPECT_EQ(joined, texture.surface_bytes(surface).value()) << surface.mip << ' ' << surface.layer;
        }
    };
    const auto open = [](const Bytes& file) { return TextureFile::open(TextureKinds::standard(), file, "x", ReadLimits{}).value(); };
    for (const auto format : {Format::BC1, Format::BC7, Format::RGBA8, Format::ETC2_RGB, Format::ASTC_10x6}) {
        TextureDesc desc;
        desc.format = format;
        desc.width = 150, desc.height = 333, desc.mips = 4;
        desc.layers = 2;
        std::uint64_t end = 0;
        (void)lay_out(desc, 0, MipOrder::largest_first, 1, end);
        const auto payload = random_bytes(static_cast<std::size_t>(end), 5);
        for (const auto scheme : {Supercompression::none, Supercompression::zstd, Supercompression::zlib})
            same(open(write_ktx2(desc, payload, scheme).value()));
    }
    same(open(make_dds(Format::BC3, 150, 333)));
    same(open(write_tiff(picture).value()));
    const auto cut = [&](Bytes file) {
        file.resize(file.size() - 2000);
        return file;
    };
    TextureDesc desc;
    desc.format = Format::RGBA8;
    desc.width = 150, desc.height = 333;
    const auto payload = random_bytes(150 * 333 * 4, 6);
    const auto damaged =
        TextureFile::open(TextureKinds::standard(), cut(write_ktx2(desc, payload, Supercompression::zstd).value()), "x", ReadLimits{});
    ASSERT_TRUE(damaged) << "most of it is there";
    {
        const auto read = damaged->kind->read_bands(damaged->file, damaged->layout, damaged->layout.surfaces[0],
                                                    [](ByteSpan, std::uint32_t) -> Status { return {}; });
        EXPECT_FALSE(read && *read);
    }
}

TEST(Bands, ASmallPictureMadeOfThemIsThatOfTheWhole) {
    for (const auto format : {Format::BC1, Format::RGBA8, Format::BC5}) {
        const auto texture = TextureFile::open(TextureKinds::standard(), make_dds(format, 1000, 700, 1), "x.dds", ReadLimits{}).value();
        const auto small = texture.kind->decode_small(texture.file, texture.layout, texture.layout.surfaces[0], 200);
        ASSERT_TRUE(small);
        const auto whole = reduce(texture.decode().value(), 5);
        EXPECT_EQ(small->means, whole.means);
        EXPECT_EQ(small->samples, whole.samples);
    }
    // Larger than what is unpacked at once.
    const auto large = smooth_picture(4200, 4100, 8, true);
    const auto texture = TextureFile::open(TextureKinds::standard(), write_png(large).value(), "x.png", ReadLimits{}).value();
    const auto small = texture.kind->decode_small(texture.file, texture.layout, texture.layout.surfaces[0], 256);
    ASSERT_TRUE(small);
    EXPECT_EQ(small->means, reduce(large, 4200 / 256).means);
}

TEST(Bands, WhatCanOnlyBeDecodedWholeAndIsHugeIsNotLookedAt) {
    // A kind without bands, refused by its size before any of its bytes is looked at.
    TextureFile texture;
    texture.kind = TextureKinds::standard().by_extension("x.webp");
    texture.layout.direct = false;
    texture.layout.desc.format = Format::RGBA8;
    texture.layout.desc.width = texture.layout.desc.height = 9000;
    texture.layout.surfaces.push_back({0, 0, 0, 0, 9000, 9000, 0, 9000ull * 9000 * 4});
    const auto looked = measure_picture(texture);
    ASSERT_FALSE(looked);
    EXPECT_EQ(looked.error().code, ErrorCode::limit);
    EXPECT_NE(looked.error().message().find("9,000×9,000 texels can only be decoded all at once"), std::string::npos);
}

TEST(MemoryBudget, LetsInWhatFitsAndAlwaysOne) {
    Budget budget(100);
    auto large = std::make_optional<Budget::Share>(budget, 1000);  // nobody else is there
    std::atomic<bool> in{false};
    auto waiting = std::async(std::launch::async, [&] {
        const Budget::Share share(budget, 60);
        in = true;
    });
    EXPECT_FALSE(in);
    large.reset();
    waiting.get();
    EXPECT_TRUE(in);
    const Budget::Share one(budget, 40), two(budget, 60);  // side by side
}

TEST(Overlapping, TwoNamesForTheSameBytesAreReadAndSaid) {
    // The second record of the directory points to the first entry's data.
    const auto content = random_bytes(5000, 4);
    auto zip = make_zip({{"a.bin", content}, {"b.bin", content}});
    const auto end = zip.size() - 22;
    const auto directory = load_le<std::uint32_t>(zip.data() + end + 16);
    store_le(zip.data() + directory + 46 + 5 + 42, std::uint32_t{0});
    const auto archive = open_container(ReadContext{}, FileView::of(zip, "x.zip")).value();
    ASSERT_EQ(archive->problems().size(), 1u);
    EXPECT_NE(archive->problems()[0].message().find("1 entries lie over bytes of others"), std::string::npos)
        << archive->problems()[0].message();
    EXPECT_EQ(archive->read(0, ReadLimits{}).value(), content);
    EXPECT_EQ(archive->read(1, ReadLimits{}).value(), content);
}
