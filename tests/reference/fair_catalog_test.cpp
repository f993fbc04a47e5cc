// The catalog on the whole of Brindle Fair: roles against what the art is, and finding by pictures that another program (ImageMagick,
// Debian package imagemagick) made of its textures.
#include <gtest/gtest.h>

#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <random>
#include <string>
#include <vector>

#include "base/file_write.h"
#include "bench/export.h"
#include "bench/fitting.h"
#include "catalog/analysis.h"
#include "catalog/frame_record.h"
#include "catalog/indexing.h"
#include "support/places.h"
#include "support/run_program.h"
#include "support/sources.h"
#include "support/temp_folder.h"
#include "workflow/catalog_snapshot.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct FairCatalog : testing::Test {
    static inline ReadContext context;
    static inline std::vector<Source> sources;
    static inline Catalog catalog;
    static inline std::vector<FactsPtr> facts;
    static inline CatalogAnalysis analysis;

    static void SetUpTestSuite() {
        context = {};
        ASSERT_TRUE(add_sheets_in(context, sheets_folder).empty());
        const auto paths = sources_of(context, fairground_folder);
        ASSERT_FALSE(paths.empty());
        sources = open_sources(context, paths);
        Progress progress;
        catalog = *build_catalog(context, sources, progress);
        const auto store = *IndexStore::open(":memory:");
        auto known = known_facts(catalog, *store);
        std::mutex mutex;
        ASSERT_TRUE(measure_pictures(context, sources, catalog, known.todo, *store, nullptr, progress, [&](std::vector<LookedAt> seen) {
            const std::lock_guard lock(mutex);
            for (auto& s : seen) known.facts[s.item] = s.facts;
        }));
        facts = known.facts;
        analysis = analyze_catalog(catalog, facts, {});
    }
    static void TearDownTestSuite() { sources.clear(); }
    static std::size_t item(std::string_view path) {
        for (std::size_t i = 0; i < catalog.items.size(); ++i)
            if (catalog.items[i].is_texture() && catalog.items[i].effective && catalog.items[i].path().starts_with(path)) return i;
        return 0;
    }
};

}  // namespace

TEST_F(FairCatalog, RolesAreWhatTheArtIs) {
    // What fair-press draws; everything that is not named here is painted color.
    const std::map<std::string, Role> drawn = {{"carousel/horse_a_bump", Role::normal},
                                               {"carousel/deck_bump", Role::normal},
                                               {"ground/bricks_bump", Role::normal},
                                               {"carousel/horse_a_gloss", Role::roughness_gloss},
                                               {"carousel/deck_gloss", Role::roughness_gloss},
                                               {"carousel/stripe_two_mask", Role::mask},
                                               {"lights/bulbs_glow", Role::emission},
                                               {"dice", Role::mask},
                                               {"sky/evening", Role::sky},
                                               {"sky/lantern_light", Role::sky},
                                               {"sky/stars", Role::sky},
                                               {"sky/mist", Role::sky}};
    std::size_t right = 0, all = 0, by_picture = 0;
    std::string wrong;
    for (std::size_t i = 0; i < catalog.items.size(); ++i) {
        const auto& it = catalog.items[i];
        if (!it.is_texture() || !facts[i]) continue;
        const auto known = std::find_if(drawn.begin(), drawn.end(), [&](const auto& d) { return it.path().starts_with(d.first + "."); });
        const auto expected = known == drawn.end() ? Role::base_color : known->second;
        ++all;
        right += analysis.roles[i] == expected;
        by_picture += guess_by_picture(*facts[i], it.desc).role == expected;
        if (analysis.roles[i] != expected) wrong += it.path() + " is taken for " + std::string(name_of(analysis.roles[i])) + '\n';
    }
    EXPECT_GE(right, all * 95 / 100) << right << " of " << all << '\n' << wrong;
    EXPECT_GE(by_picture, all * 90 / 100) << "by the pixels alone: " << by_picture << " of " << all;
}

TEST_F(FairCatalog, BothGreenConventionsAreTold) {
    EXPECT_EQ(facts[item("carousel/horse_a_bump")]->green_axis(), GreenAxis::up);
    EXPECT_EQ(facts[item("carousel/deck_bump")]->green_axis(), GreenAxis::down);
}

TEST_F(FairCatalog, ASourcesItemsAreItsEntriesInTheirOrder) {
    AnalysisContext around;
    around.project.sources = sources_of(context, fairground_folder);
    Progress progress;
    const auto snapshot = (*read_sources(context, around, **IndexStore::open({}), progress))->snapshot;
    ASSERT_EQ(snapshot->items_of.size(), around.project.sources.size());
    std::size_t items = 0, entries = 0, textures = 0;
    for (std::size_t s = 0; s < snapshot->sources.size(); ++s) {
        const auto& its = snapshot->items_of[s];
        const auto& container = snapshot->sources[s].container;
        items += its.items.size();
        entries += its.places.size();
        textures += snapshot->texture_counts[s];
        ASSERT_EQ(its.entries.size(), its.items.size());
        if (!container) continue;
        ASSERT_EQ(its.places.size(), container->entries().size()) << snapshot->sources[s].path;
        for (std::size_t e = 0; e < its.places.size(); ++e) {
            const auto& item = snapshot->catalog.items[its.items[its.places[e]]];
            EXPECT_EQ(item.path(), container->entries()[e].path) << snapshot->sources[s].path;
            EXPECT_EQ(its.entries[its.places[e]], static_cast<std::int32_t>(e));
            EXPECT_EQ(its.entry_is_texture[e], item.is_texture());
        }
    }
    EXPECT_EQ(items, snapshot->catalog.items.size());
    EXPECT_GT(items, entries) << "archives inside archives";
    EXPECT_GE(textures, snapshot->textures) << "some are hidden by others";
    EXPECT_GT(snapshot->textures, 80u);
}

TEST_F(FairCatalog, TheSameTextureInThreeArchivesIsOnePicture) {
    const auto pipes = item("shared/brass_pipes.");
    EXPECT_GE(analysis.twins[pipes], 2u);
    EXPECT_TRUE(analysis.shared[pipes]) << "its folder says so";
    const auto all = comparables(catalog, facts, true);
    EXPECT_EQ(likeness(all[item("front/bunting.")], all[item("front/bunting_far")]), Likeness::smaller) << "another format, too";
    EXPECT_EQ(likeness(all[item("booths/ticket/awning_red")], all[item("booths/ticket/awning_green")]), Likeness::variant);
}

TEST_F(FairCatalog, TwoHundredPicturesOfImageMagicksFindTheirTextures) {
    if (run_program({"convert", "-version"}).code != 0) GTEST_SKIP() << "ImageMagick is not installed";
    TempFolder folder;
    const auto search = PictureSearch::build(facts);
    std::vector<std::size_t> targets;
    for (std::size_t i = 0; i < catalog.items.size(); ++i)
        if (facts[i] && catalog.items[i].effective && !catalog.items[i].error && facts[i]->contrast > 2 &&
            catalog.items[i].desc.faces == 1 && !info(catalog.items[i].desc.format).is_float())
            targets.push_back(i);
    ASSERT_GT(targets.size(), 60u);
    const auto all = comparables(catalog, facts, false);
    std::mt19937 random(17);
    constexpr int queries = 200;
    struct Query {
        std::size_t target;
        std::string kind, out;
    };
    std::vector<Query> asked;
    // ImageMagick takes longer to start than to change a picture, so it changes all in one run.
    std::vector<std::string> command = {"convert"};
    for (int q = 0; q < queries; ++q) {
        const auto target = targets[random() % targets.size()];
        const auto& it = catalog.items[target];
        const auto texture = *open_texture(context, sources[it.source], it);
        const auto in = (folder / (std::to_string(q) + "_in.png")).string();
        ASSERT_TRUE(write_file(in, *export_png(texture)));
        const auto w = it.desc.width, h = it.desc.height;
        std::vector<std::string> how;
        std::string kind, ending = "png";
        const auto some = [&](std::initializer_list<const char*> list) {
            return std::string(*(list.begin() + static_cast<std::ptrdiff_t>(random() % list.size())));
        };
        switch (q % 8) {
            case 0: kind = "smaller", how = {"-resize", std::max(w, h) > 64 ? some({"50%", "66%", "40%"}) : "75%"}; break;
            case 1: kind = "JPEG", ending = "jpg", how = {"-alpha", "off", "-quality", some({"35", "50", "70"})}; break;
            case 2: kind = "mirrored", how = {"-flop"}; break;
            case 3: kind = "turned", how = {"-rotate", some({"90", "180", "270"})}; break;
            case 4:
                kind = "hue",
                how = {"-modulate", some({"90", "100", "110"}) + "," + some({"80", "100", "115"}) + "," + some({"92", "96", "104", "108"})};
                break;
            case 5:
                kind = "block-compressed", ending = "dds", how = {"-alpha", "off", "-resize", "64x64!", "-define", "dds:compression=dxt1"};
                break;
            case 6: kind = "larger", how = {"-resize", "150%"}; break;
            default: {
                kind = "part";
                const double sx = 0.5 + static_cast<double>(random() % 50) / 100, sy = std::max(0.5, 0.25 / sx);
                const auto cw = static_cast<unsigned>(w * sx), ch = static_cast<unsigned>(h * sy);
                how = {"-crop", fmt::format("{}x{}+{}+{}", cw, ch, random() % (w - cw + 1), random() % (h - ch + 1)), "+repage"};
            }
        }
        const auto out = std::to_string(q) + "_out." + ending;
        command.insert(command.end(), {"(", in});
        command.insert(command.end(), how.begin(), how.end());
        command.insert(command.end(), {"-write", (folder / out).string(), "+delete", ")"});
        asked.push_back({target, kind, out});
    }
    command.insert(command.end(), {"xc:none", "null:"});
    const auto ran = run_program(command);
    ASSERT_EQ(ran.code, 0) << ran.output;
    int found = 0;
    std::map<std::string, std::pair<int, int>> by_kind;
    std::string missed;
    for (const auto& [target, kind, out] : asked) {
        const auto picture = read_edited(*read_file(folder / out), context.limits, out);
        ASSERT_TRUE(picture) << picture.error().message();
        const auto hits = *search.find(picture->image, 5);
        // Another file with the same picture is as right.
        const bool ok = std::any_of(hits.begin(), hits.end(), [&](const PictureHit& hit) {
            const auto kin = likeness(all[target], all[hit.picture]);
            return hit.picture == target || (kin != Likeness::none && kin != Likeness::variant);
        });
        found += ok;
        ++by_kind[kind].second;
        by_kind[kind].first += ok;
        if (!ok) missed += fmt::format("{} of {}\n", kind, catalog.items[target].path());
    }
    for (const auto& [kind, n] : by_kind) std::cout << fmt::format("{:<17}{} of {}\n", kind, n.first, n.second);
    EXPECT_GE(found, queries * 95 / 100) << found << " of " << queries << " among the first five\n" << missed;
    std::cout << missed;
}

TEST_F(FairCatalog, OfSixtyThingsInAFrameTheRightBaseColorIsFirst) {
    // The stand-in game draws every texture it has on a board of its own and records the frame; a second file of its own says what it drew,
    // by which the finds are judged. Its decoders are not Skivet's.
    TempFolder folder;
    ASSERT_EQ(run_program({our_program("fair-stall"), fairground_folder, "--storeroom", "--frame", (folder / "frame").string(), "--record",
                           (folder / "truth.jsonl").string()})
                  .code,
              0);
    const auto record = read_frame_record(folder / "frame");
    ASSERT_TRUE(record) << record.error().message();
    std::map<std::uint32_t, std::string> truth;
    const auto lines = as_text(*read_file(folder / "truth.jsonl"));
    for (std::size_t at = 0; at < lines.size();) {
        const auto end = std::min(lines.find('\n', at), lines.size());
        const auto j = nlohmann::json::parse(lines.substr(at, end - at));
        truth[j["draw"].get<std::uint32_t>()] = j["texture"].get<std::string>();
        at = end + 1;
    }
    const auto search = PictureSearch::build(facts);
    int things = 0, right = 0;
    std::string missed;
    for (const auto& thing : record->things) {
        if (things == 60) break;
        const auto& path = truth[record->draws[thing.draws.front()].number];
        const auto wanted = item(path);
        if (!facts[wanted] || catalog.items[wanted].path() != path || analysis.roles[wanted] != Role::base_color) continue;
        // The first of its textures is its own: what others have stands behind it.
        const auto& texture = record->textures[record->draws[thing.draws.front()].textures.front()];
        const auto picture = read_edited(*read_file(texture.file), context.limits);
        ASSERT_TRUE(picture);
        // Of some formats the game knows nothing but that they are sound, and draws gray: nobody sees those things.
        const auto& texels = picture->image.texels;
        if (std::all_of(texels.begin(), texels.end(), [&](const Texel& t) { return t == texels.front(); })) continue;
        ++things;
        const auto hits =
            ranked_as_captured(*search.find(picture->image, 8), picture->image.width, picture->image.height,
                               [&](std::size_t i) { return std::pair(catalog.items[i].desc.width, catalog.items[i].desc.height); });
        // The same picture may lie in several archives.
        const bool is_right =
            !hits.empty() && (hits[0].picture == wanted || catalog.items[hits[0].picture].path() == path ||
                              likeness({facts[wanted], catalog.items[wanted].desc.width, catalog.items[wanted].desc.height},
                                       {facts[hits[0].picture], catalog.items[hits[0].picture].desc.width,
                                        catalog.items[hits[0].picture].desc.height}) == Likeness::same);
        right += is_right;
        if (!is_right) missed += path + (hits.empty() ? "" : " as " + catalog.items[hits[0].picture].path()) + "\n";
    }
    RecordProperty("things", things);
    RecordProperty("right", right);
    EXPECT_EQ(things, 60);
    EXPECT_GE(right, 58) << missed;
}
