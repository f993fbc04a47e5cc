// A kind says what it is; nobody asks for it by name. So a kind that is added here, without touching another file, is in everything.
#include <gtest/gtest.h>

#include <filesystem>
#include <set>
#include <string>
#include <vector>

#include "bench/fitting.h"
#include "catalog/indexing.h"
#include "container/sift.h"
#include "support/pictures.h"
#include "texture/ktx2.h"

using namespace skivet;
using namespace skivet::test;

TEST(Traits, APackedKtx2IsAsLongAsItIsAndWhatFollowsIsFound) {
    // Levels that pack to a fraction: the file is far smaller than its texels.
    TextureDesc d{Format::RGBA8, 64, 64, 1, 1, 1, 1, ColorSpace::srgb};
    const auto packed = *write_ktx2(d, Bytes(64 * 64 * 4), Supercompression::zstd);
    ASSERT_LT(packed.size(), 1000u);
    const auto dds = make_dds(Format::BC1, 32, 32);
    Bytes all = random_bytes(100, 1);
    all.insert(all.end(), packed.begin(), packed.end());
    const auto second = all.size() + 7;
    all.resize(second);
    all.insert(all.end(), dds.begin(), dds.end());
    all.resize(all.size() + 64);
    const ReadContext context;
    Progress progress;
    const auto hits = sift(context, all, progress, {});
    ASSERT_TRUE(hits);
    ASSERT_EQ(hits->size(), 2u);
    EXPECT_EQ((*hits)[0].at, 100u);
    EXPECT_EQ((*hits)[0].size, packed.size());
    EXPECT_EQ((*hits)[1].at, second);
    EXPECT_EQ((*hits)[1].size, dds.size());
}

namespace {

/// A kind nobody else knows: "TENT", width and height as bytes, then BC1 blocks of one level.
class TentKind final : public TextureKind {
public:
    std::string name() const override { return "Tent"; }
    KindTraits traits() const override {
        return {.picture = false, .keeps_levels = false, .extensions = {"tent"}, .marks = {"TENT"}, .certainty = 0.7};
    }
    bool recognize(ByteSpan head, std::string_view) const override { return head.size() >= 6 && as_text(head.first(4)) == "TENT"; }
    Result<TextureLayout> layout(ByteSpan data, std::uint64_t file_size, const ReadLimits& limits) const override {
        TextureLayout out;
        out.desc = {Format::BC1, static_cast<std::uint32_t>(data[4]), static_cast<std::uint32_t>(data[5]), 1, 1, 1, 1, ColorSpace::srgb};
        if (auto sound = check_desc(out.desc, limits); !sound) return fail(sound.error());
        std::uint64_t end = 0;
        out.surfaces = lay_out(out.desc, 6, MipOrder::largest_first, 1, end);
        if (auto whole = accept_cut_off(out, 6, end, file_size); !whole) return fail(whole.error());
        return out;
    }
};

Bytes make_tent() {
    Bytes out = bytes_of("TENT");
    out.push_back(std::byte{32});
    out.push_back(std::byte{16});
    const auto blocks = *encode(Format::BC1, smooth_picture(32, 16, 5));
    out.insert(out.end(), blocks.begin(), blocks.end());
    return out;
}

}  // namespace

TEST(Traits, AKindThatIsAddedIsListedSiftedReadBackAndIndexed) {
    ReadContext context;
    const ReadContext without;
    context.textures.add(std::make_shared<TentKind>());
    TempFolder folder;
    const auto tent = make_tent();
    put_file(folder / "game.zip", make_zip({{"a/side.tent", tent}, {"a/note.txt", bytes_of("hello")}}));
    // Listed.
    const std::vector<std::filesystem::path> paths = {folder / "game.zip"};
    const auto sources = open_sources(context, paths);
    Progress progress;
    const auto index = *IndexStore::open(":memory:");
    const auto catalog = build_indexed_catalog(context, sources, *index, progress);
    ASSERT_TRUE(catalog);
    EXPECT_EQ(catalog->items[0].file_kind, "Tent");
    EXPECT_EQ(catalog->items[0].kind, EntryKind::texture);
    EXPECT_EQ(catalog->items[0].desc.width, 32u);
    EXPECT_EQ(kind_by_name(context.textures, "b/any.TENT"), EntryKind::texture);
    EXPECT_EQ(kind_by_name(without.textures, "b/any.TENT"), EntryKind::other);
    // Indexed: remembered under these kinds, looked at again under others.
    EXPECT_TRUE(remember(context, paths, *index).whole);
    EXPECT_FALSE(remember(without, paths, *index).whole);
    EXPECT_NE(fingerprint_of(context), fingerprint_of(without));
    // Sifted.
    Bytes bytes = random_bytes(3000, 8);
    std::copy(tent.begin(), tent.end(), bytes.begin() + 1001);
    const auto hits = sift(context, bytes, progress, {});
    ASSERT_TRUE(hits);
    ASSERT_EQ(hits->size(), 1u);
    EXPECT_EQ((*hits)[0].at, 1001u);
    EXPECT_EQ((*hits)[0].size, tent.size());
    EXPECT_NEAR((*hits)[0].confidence, 0.7, 1e-9);
    EXPECT_TRUE(sift(without, bytes, progress, {})->empty());
    const auto sifted = sifted_container(FileView::of(bytes), *hits);
    EXPECT_EQ(sifted->entries()[0].path, "0x000003e9.tent");
    // Read back, changed and put in again.
    const auto original = TextureFile::open(context.textures, tent, "side.tent", ReadLimits{});
    ASSERT_TRUE(original);
    auto image = *original->decode(0);
    image.at(1, 1) = {255, 0, 0, 255};
    EditedFile edited;
    edited.image = image;
    const auto fitted = fit(*original, edited, {});
    ASSERT_TRUE(fitted);
    EXPECT_EQ(fitted->new_blocks(), 1u);
    EXPECT_EQ(fitted->file.size(), tent.size());
}

TEST(Traits, EveryFormatIsInTheListsOnceTheCommonOnesFirst) {
    const auto all = formats_by_use();
    EXPECT_EQ(all.size(), all_formats().size());
    EXPECT_EQ(std::set<Format>(all.begin(), all.end()).size(), all.size());
    EXPECT_EQ(all[0], Format::BC1);
    for (std::size_t i = 1; i < all.size(); ++i)
        if (info(all[i]).common) EXPECT_EQ(info(all[i]).common, info(all[i - 1]).common + 1) << info(all[i]).name;
    // Every format is kept by the index under its own name.
    const auto index = *IndexStore::open(":memory:");
    std::vector<CatalogItem> items;
    for (const auto format : all) {
        CatalogItem item;
        item.inner = {std::string(info(format).name)};
        item.kind = EntryKind::texture;
        item.desc = {format, 4, 4, 1, 1, 1, 1, ColorSpace::unknown};
        items.push_back(item);
    }
    ASSERT_TRUE(index->put_listing("/x", "print", items));
    const auto back = index->listing("/x", "print");
    ASSERT_TRUE(back);
    for (std::size_t i = 0; i < all.size(); ++i) EXPECT_EQ((*back)[i].desc.format, all[i]);
}
