#include <gtest/gtest.h>
#include <filesystem>
#include <map>
#include <random>
#include <string>
#include <vector>

#include "base/text.h"
#include "catalog/catalog.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/sources.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Game : testing::Test {
    TempFolder folder;
    ReadContext context;
    Progress progress;

    void SetUp() override {
        ASSERT_TRUE(add_sheets_in(context, sheets_folder).empty());
        auto broken = make_dds(Format::BC1, 64, 64);
        broken.resize(300);
        put_file(folder / "base.zip", make_zip({{"rides/horse.dds", make_dds(Format::BC1, 64, 32)},
                                                {"rides/cup.dds", make_dds(Format::BC3, 32, 32), true},
                                                {"note.txt", bytes_of("hello")},
                                                {"broken.dds", broken},
                                                {"inner.crate", make_crate({{"organ/pipe.dds", make_dds(Format::BC4, 16, 16)}}), true}}));
        put_file(folder / "update.zip", make_zip({{"Rides/horse.dds", make_dds(Format::BC1, 64, 32, 0, 5)}}));
    }
    std::vector<Source> sources() {
        return open_sources(context, std::vector<std::filesystem::path>{folder / "base.zip", folder / "update.zip"});
    }
};

}  // namespace

TEST_F(Game, EveryTextureIsFoundByItsContent) {
    const auto catalog = build_catalog(context, sources(), progress);
    ASSERT_TRUE(catalog);
    std::vector<std::string> textures;
    for (const auto& item : catalog->items)
        if (item.is_texture()) textures.push_back(item.path());
    EXPECT_EQ(textures, (std::vector<std::string>{"rides/horse.dds", "rides/cup.dds", "broken.dds", "organ/pipe.dds", "Rides/horse.dds"}));
    EXPECT_EQ(progress.done, progress.total);
    EXPECT_GE(progress.done, 6u);
}

TEST_F(Game, ADamagedTextureIsReportedAndTheRestIsThere) {
    const auto catalog = *build_catalog(context, sources(), progress);
    ASSERT_EQ(catalog.problems.size(), 1u);
    EXPECT_NE(catalog.problems[0].message().find("broken.dds: mip chain: needs"), std::string::npos) << catalog.problems[0].message();
}

TEST_F(Game, LaterSourcesShadowEarlierOnes) {
    const auto catalog = *build_catalog(context, sources(), progress);
    for (const auto& item : catalog.items) {
        const bool shadowed = item.source == 0 && item.path() == "rides/horse.dds";
        EXPECT_EQ(item.effective, !shadowed) << item.path();
    }
}

TEST(LoadOrder, OfEachPathTheLastOfTheLastSourceIsLoaded) {
    std::mt19937 random(11);
    std::vector<CatalogItem> items(5000);
    for (std::size_t i = 0; i < items.size(); ++i) {
        items[i].source = i / 1250;
        items[i].effective = random() % 2;  // whatever it was
        for (auto steps = 1 + random() % 2; steps > 0; --steps) {
            std::string path = "rides/thing" + std::to_string(random() % 1500);
            if (random() % 2) path[0] = 'R';
            items[i].inner.push_back(path);
        }
    }
    mark_effective(items);
    std::map<std::string, std::size_t> last;
    const auto key = [&](std::size_t i) {
        std::string out;
        for (const auto& step : items[i].inner) out += "::" + lower(step);
        return out;
    };
    for (std::size_t i = 0; i < items.size(); ++i) last[key(i)] = i;
    std::size_t shadowed = 0;
    for (std::size_t i = 0; i < items.size(); ++i) {
        EXPECT_EQ(items[i].effective, last[key(i)] == i) << i;
        shadowed += !items[i].effective;
    }
    EXPECT_GT(shadowed, 500u);
}

TEST_F(Game, ArchivesInsideAreFollowedOnlyWhenAsked) {
    const auto flat = *build_catalog(context, sources(), progress, {.recurse = false});
    for (const auto& item : flat.items) EXPECT_EQ(item.inner.size(), 1u);
    const auto deep = *build_catalog(context, sources(), progress);
    const auto pipe = std::find_if(deep.items.begin(), deep.items.end(), [](const auto& i) { return i.name() == "pipe"; });
    ASSERT_NE(pipe, deep.items.end());
    EXPECT_EQ(pipe->inner, (std::vector<std::string>{"inner.crate", "organ/pipe.dds"}));
    const auto texture = open_texture(context, sources()[0], *pipe);
    ASSERT_TRUE(texture) << texture.error().message();
    EXPECT_EQ(texture->layout.desc.format, Format::BC4);
}

TEST_F(Game, CancelEndsIt) {
    progress.cancel.cancel();
    EXPECT_EQ(build_catalog(context, sources(), progress).error().code, ErrorCode::canceled);
}

TEST_F(Game, ThumbnailsComeFromASmallLevel) {
    auto file = make_dds(Format::BC1, 256, 256);
    // Poison the large levels: a thumbnail of 64 must not look at them.
    const auto texture = *TextureFile::open(context.textures, file, "x", context.limits);
    for (std::uint32_t mip : {0u, 1u})
        std::fill_n(file.begin() + static_cast<std::ptrdiff_t>(texture.layout.find(mip)->offset), texture.layout.find(mip)->size,
                    std::byte{0});
    const auto poisoned = *TextureFile::open(context.textures, file, "x", context.limits);
    const auto small = thumbnail(poisoned, 64);
    ASSERT_TRUE(small);
    EXPECT_EQ(small->width, 64u);
    EXPECT_EQ(*small, *thumbnail(texture, 64));
}

TEST_F(Game, NormalsWithoutZAreSeenWithIt) {
    // Waves, in two channels, and with X in alpha.
    Image two(128, 128), alpha_green(128, 128);
    for (std::uint32_t y = 0; y < 128; ++y)
        for (std::uint32_t x = 0; x < 128; ++x) {
            const auto part = [](double v) { return static_cast<std::uint8_t>(std::lround(128 + 60 * std::sin(v))); };
            two.at(x, y) = {part(x * 0.2), part(y * 0.17), 0, 255};
            alpha_green.at(x, y) = {0, part(y * 0.17), 0, part(x * 0.2)};
        }
    for (const auto& [format, image] : {std::pair{Format::BC5, two}, {Format::BC3, alpha_green}}) {
        TextureDesc desc;
        desc.format = format;
        desc.width = desc.height = 128;
        desc.color = ColorSpace::linear;
        const auto file = make_file(desc, *encode(format, image, {}));
        const auto texture = *TextureFile::open(context.textures, file, "x", context.limits);
        for (const std::uint32_t side : {128u, 40u}) {
            const auto seen = small_picture(texture, side);
            ASSERT_TRUE(seen);
            ASSERT_TRUE(seen->normals);
            EXPECT_EQ(seen->normals->x, format == Format::BC5 ? 0 : 3);
            for (const auto& t : seen->image.texels) {
                ASSERT_GT(t[2], 200) << "a slope of at most 0.67";
                ASSERT_EQ(t[3], 255);
            }
        }
        const auto measured = measure_picture(texture);
        ASSERT_TRUE(measured);
        EXPECT_EQ(measured->thumbnail, small_picture(texture, 128)->image);
        EXPECT_TRUE(measured->blocks.empty()) << "the picture of the level's blocks would be another one";
    }
}

TEST_F(Game, ASourceThatCannotBeOpenedSaysWhy) {
    put_file(folder / "bad.zip", random_bytes(100, 1));
    const auto opened = open_sources(context, std::vector<std::filesystem::path>{folder / "bad.zip", folder / "base.zip"});
    EXPECT_TRUE(opened[0].error);
    EXPECT_TRUE(opened[1].container);
    EXPECT_EQ(build_catalog(context, opened, progress)->items.front().source, 1u);
}

TEST_F(Game, LoadOrderComesFromTheGameOrTheNames) {
    std::filesystem::create_directory(folder / "override");
    put_file(folder / "readme.txt", bytes_of("no archive"));
    EXPECT_EQ(sources_of(context, folder.path()),
              (std::vector<std::filesystem::path>{folder / "base.zip", folder / "update.zip", folder / "override"}));
    put_file(folder / "load_order.txt", bytes_of("# first\nupdate.zip\r\n../base.zip\nnowhere.zip\n"));
    EXPECT_EQ(sources_of(context, folder.path()),
              (std::vector<std::filesystem::path>{folder / "update.zip", folder / "base.zip", folder / "override"}));
}
