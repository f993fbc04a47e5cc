// Searching as one types, facets with live counts, cards.
#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "catalog/query.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

bool finds(std::string_view search, std::string_view text) { return matches(text, parse_search(search)); }

CatalogItem texture(const std::string& path, Format format, std::uint32_t side, std::size_t source = 0) {
    CatalogItem item;
    item.source = source;
    item.inner = {path};
    item.kind = EntryKind::texture;
    item.file_kind = "DDS";
    item.desc.format = format;
    item.desc.width = item.desc.height = side;
    item.desc.mips = full_mip_count(side, side);
    return item;
}

struct Asked : testing::Test {
    Catalog catalog;
    std::vector<Source> sources{{"base.zip", nullptr, std::nullopt}, {"update.zip", nullptr, std::nullopt}};
    CatalogAnalysis analysis;
    QueryTable table;
    void SetUp() override {
        catalog.items = {texture("rides/horse_tint.dds", Format::BC1, 256), texture("rides/horse_bump.dds", Format::BC5, 256),
                         texture("signs/banner_017.dds", Format::BC1, 64), texture("signs/banner_17.dds", Format::BC3, 512),
                         texture("rides/horse_tint.dds", Format::BC1, 256, 1)};
        catalog.items.push_back({});
        catalog.items.back().inner = {"note.txt"};
        mark_effective(catalog.items);
        analysis = analyze_catalog(catalog, {}, {});
        table = QueryTable::build(catalog, sources, analysis);
    }
    CatalogAnswer ask(const std::string& search) {
        CatalogQuery query;
        query.search = search;
        return *table.ask(query);
    }
    static std::uint32_t count(const CatalogAnswer& answer, Facet facet, const std::string& value) {
        for (const auto& [name, n] : answer.counts[static_cast<std::size_t>(facet)])
            if (name == value) return n;
        return 0;
    }
};

}  // namespace

TEST(Search, WordsPhrasesExclusionsAndPatterns) {
    const std::string_view text = "rides/carousel/horse_a_tint.dds bc1 64×32 64x32 dds";
    EXPECT_TRUE(finds("", text));
    EXPECT_TRUE(finds("HORSE rides", text)) << "any order, either case";
    EXPECT_TRUE(finds("bc1 64x32", text));
    EXPECT_FALSE(finds("horse bc3", text));
    EXPECT_TRUE(finds("\"carousel/horse\"", text));
    EXPECT_FALSE(finds("\"horse carousel\"", text)) << "a phrase is exact";
    EXPECT_TRUE(finds("horse -bump", text));
    EXPECT_FALSE(finds("horse -tint", text));
    EXPECT_FALSE(finds("-\"carousel/horse\"", text));
    EXPECT_TRUE(finds("car*tint", text));
    EXPECT_TRUE(finds("horse_?_tint", text));
    EXPECT_FALSE(finds("horse_??_tint", text));
    EXPECT_TRUE(finds("-*bump", text));
    EXPECT_TRUE(finds("-", text) == (text.find('-') != std::string_view::npos)) << "a dash alone is a word";
    EXPECT_TRUE(finds("\"never closed", "it is never closed"));
}

TEST(Search, NumbersAreFoundWithAndWithoutZeros) {
    EXPECT_TRUE(finds("17", "banner_017"));
    EXPECT_TRUE(finds("017", "banner_17"));
    EXPECT_TRUE(finds("0017", "banner_017"));
    EXPECT_FALSE(finds("017", "banner_1175")) << "with zeros it is a number as a whole";
    EXPECT_TRUE(finds("17", "banner_1175")) << "without, it may still be typed on";
    EXPECT_TRUE(finds("00", "level_0"));
    EXPECT_FALSE(finds("-017", "banner_17"));
}

TEST_F(Asked, ShadowedTexturesAreHiddenUntilAskedFor) {
    const auto all = ask("");
    EXPECT_EQ(all.items, (std::vector<std::uint32_t>{1, 2, 3, 4}));
    EXPECT_EQ(all.all, 4u);
    EXPECT_EQ(all.traits[static_cast<std::size_t>(Trait::shadowed)], 1u) << "but counted";
    CatalogQuery query;
    query.traits[static_cast<std::size_t>(Trait::shadowed)] = true;
    EXPECT_EQ(table.ask(query)->items, std::vector<std::uint32_t>{0});
}

TEST_F(Asked, CountsSayWhatEachValueWouldLeave) {
    CatalogQuery query;
    query.search = "rides";
    query.chosen[static_cast<std::size_t>(Facet::format)] = {"BC5"};
    const auto answer = *table.ask(query);
    EXPECT_EQ(answer.items, std::vector<std::uint32_t>{1});
    EXPECT_EQ(count(answer, Facet::format, "BC1"), 1u) << "the facet's own choice does not count for its values";
    EXPECT_EQ(count(answer, Facet::format, "BC5"), 1u);
    EXPECT_EQ(count(answer, Facet::format, "BC3"), 0u);
    EXPECT_EQ(count(answer, Facet::source, "base.zip"), 1u);
    EXPECT_EQ(count(answer, Facet::source, "update.zip"), 0u) << "for others it does";
    EXPECT_EQ(count(ask(""), Facet::folder, "rides/"), 2u);
    const auto sizes = ask("").counts[static_cast<std::size_t>(Facet::size)];
    ASSERT_EQ(sizes.size(), 3u);
    EXPECT_EQ(sizes[0].first, "to 64");
    EXPECT_EQ(sizes[2].first, "to 512") << "by size, not by letters";
}

TEST_F(Asked, ValuesOfOneFacetAddUpAndFacetsNarrow) {
    CatalogQuery query;
    query.chosen[static_cast<std::size_t>(Facet::format)] = {"BC3", "BC5"};
    EXPECT_EQ(table.ask(query)->items, (std::vector<std::uint32_t>{1, 3}));
    query.chosen[static_cast<std::size_t>(Facet::folder)] = {"signs/"};
    EXPECT_EQ(table.ask(query)->items, std::vector<std::uint32_t>{3});
    query.chosen[static_cast<std::size_t>(Facet::folder)] = {"gone/"};
    const auto none = *table.ask(query);
    EXPECT_TRUE(none.items.empty());
}

TEST_F(Asked, SetsStandAsOneCardAtTheirFirstPlace) {
    const auto cards = make_cards(ask(""), analysis);
    ASSERT_EQ(cards.size(), 3u);
    EXPECT_EQ(cards[0].items(), (std::vector<std::uint32_t>{4, 1})) << "base color first, though it comes from a later source";
    const auto one = make_cards(ask("bump"), analysis);
    ASSERT_EQ(one.size(), 1u);
    EXPECT_EQ(one[0].items(), std::vector<std::uint32_t>{1});
}

TEST_F(Asked, EverySearchAgreesWithLookingAtEachTextAlone) {
    // Random words over a table of several chunks, against the plain definition.
    std::mt19937 random(5);
    std::vector<std::string> texts;
    const char* parts[] = {"horse", "swan", "mirror", "017", "17", "a_", "tint", "/", "bump"};
    for (int i = 0; i < 40'000; ++i) {
        std::string text;
        for (int k = 0; k < 4; ++k) text += parts[random() % std::size(parts)];
        texts.push_back(text);
    }
    const auto big = QueryTable::of_texts(texts);
    for (const char* search : {"horse", "orse swan", "-tint", "17", "0017", "h*a_", "\"swanmirror\" -bump", "?17", "zzz"}) {
        CatalogQuery query;
        query.search = search;
        const auto answer = *big.ask(query);
        std::vector<std::uint32_t> expected;
        for (std::size_t i = 0; i < texts.size(); ++i)
            if (finds(search, texts[i])) expected.push_back(static_cast<std::uint32_t>(i));
        EXPECT_EQ(answer.items, expected) << search;
    }
}

TEST_F(Asked, ACanceledQuestionHasNoAnswer) {
    CancelToken cancel;
    cancel.cancel();
    EXPECT_EQ(table.ask({}, cancel).error().code, ErrorCode::canceled);
}
