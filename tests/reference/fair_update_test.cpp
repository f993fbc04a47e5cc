// The fair's second season: a mod of thirty textures and a parcel, put in again after the update; every case there is.
#include <gtest/gtest.h>

#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "base/hash.h"
#include "container/texture_files.h"
#include "support/places.h"
#include "support/run_program.h"
#include "support/temp_folder.h"
#include "texture/png.h"
#include "workflow/opening.h"
#include "workflow/shipped.h"
#include "workflow/sources.h"
#include "workflow/update.h"

using namespace skivet;
using namespace skivet::test;

namespace {

constexpr Texel teal{20, 150, 160, 255};

struct FairUpdate : testing::Test {
    TempFolder folder;
    std::filesystem::path game;
    ReadContext context;
    PosixFiles files;
    Project project;

    void SetUp() override {
        game = folder / "Brindle Fair";
        std::filesystem::copy(fairground_folder, game, std::filesystem::copy_options::recursive);
        ASSERT_TRUE(add_sheets_in(context, sheets_folder).empty());
        project = *open_project(folder / "project");
        project.game = game;
        for (const char* name : {"midway.zip", "organ.zip", "rides.crate", "sideshow.bale", "lanterns.index"})
            project.sources.push_back(game / name);
    }
    static std::filesystem::path second_season() {
        static const TempFolder once;
        if (!std::filesystem::exists(once / "two/midway.zip")) {
            const auto ran = run_program({our_program("fair-press"), (once / "two").string(), "--update", "2"});
            EXPECT_EQ(ran.code, 0) << ran.output;
        }
        return once / "two";
    }
    void update_the_game() {
        for (const auto& item : std::filesystem::directory_iterator(second_season()))
            if (item.is_regular_file()) {
                std::filesystem::remove(game / item.path().filename());
                std::filesystem::copy_file(item.path(), game / item.path().filename());
            }
    }
    PieceId take(const Address& address) {
        auto piece = take_piece(context, project, address, {}, 1);
        EXPECT_TRUE(piece) << address.text() << ": " << (piece ? "" : piece.error().message());
        std::vector<Piece> taken;
        if (piece) taken.push_back(std::move(*piece));
        const auto ids = keep_taken(project, std::move(taken));
        return ids.empty() ? 0 : ids.front();
    }
    /// A square at the left, a quarter of the height from the top.
    void paint(PieceId id) {
        auto& piece = *project.piece(id);
        auto image = *read_png(get_file(project.work() / piece.file), ReadLimits{});
        const auto side = std::max(4u, image.height / 8) / 4 * 4;
        for (std::uint32_t y = image.height / 4; y < image.height / 4 + side; ++y)
            for (std::uint32_t x = 4; x < 4 + side; ++x) image.at(x, y) = {teal[0], teal[1], teal[2], image.at(x, y)[3]};
        put_file(project.work() / piece.file, *write_png(image));
        EXPECT_TRUE(note_refreshed(project, refresh_piece(project, piece, 3)));
    }
    Vault vault() { return vault_of(project, files); }
    void deliver_all() {
        const auto plan = plan_delivery(context, project);
        for (const auto& group : plan.groups) EXPECT_FALSE(group.error) << group.error->message();
        EXPECT_TRUE(plan.left_out.empty());
        const auto done = deliver(context, plan, vault(), 5);
        ASSERT_FALSE(done.error) << done.error->message();
        note_delivered(project, plan, done);
    }
    GameUpdate look() {
        Progress progress;
        auto out = look_for_update(context, project, vault(), progress);
        EXPECT_TRUE(out) << (out ? "" : out.error().message());
        return std::move(*out);
    }
    Updated put(GameUpdate update, bool all) {
        std::vector<PieceId> chosen;
        for (const auto& piece : update.pieces)
            if (all ? goes_in(piece.how) : is_sure(piece.how)) chosen.push_back(piece.id);
        const auto plan = plan_update(context, project, std::move(update), chosen);
        EXPECT_TRUE(plan) << (plan ? "" : plan.error().message());
        const auto done = put_in_again(context, project, *plan, vault(), 9);
        EXPECT_FALSE(done.delivered.error) << done.delivered.error->message();
        EXPECT_TRUE(done.errors.empty());
        note_updated(project, *plan, done);
        return done;
    }
    Image shown(const Address& address) {
        const auto texture = open_texture_at(context, address);
        EXPECT_TRUE(texture) << address.text();
        return *texture->decode(0);
    }
    bool has_the_square(const Image& image) {
        const auto at = image.at(6, image.height / 4 + 2);
        return std::abs(at[0] - teal[0]) < 40 && std::abs(at[1] - teal[1]) < 40 && std::abs(at[2] - teal[2]) < 40;
    }
    UpdateHow how_of(const GameUpdate& update, const std::string& name) {
        for (const auto& piece : update.pieces)
            if (piece.name == name) return piece.how;
        ADD_FAILURE() << name << " is not told";
        return UpdateHow::gone;
    }
};

}  // namespace

TEST_F(FairUpdate, AModOfThirtyTexturesGoesInAgain) {
    const auto midway = game / "midway.zip", organ = game / "organ.zip", rides = game / "rides.crate";
    std::vector<Address> addresses;
    for (const char* path :
         {"booths/ticket/awning_red_tint.dds", "booths/ticket/awning_green_tint.dds", "booths/sweets/awning_blue_tint.dds",
          "booths/sweets/awning_plum_tint.dds", "signs/sign_ride.dds", "signs/sign_tickets.dds", "signs/sign_tea.dds",
          "signs/sign_exit.png", "signs/sign_fair.dds", "booths/shooting/target.dds", "booths/shooting/ducks.dds",
          "booths/sweets/popcorn.dds", "ground/meadow.dds", "ground/gravel.dds", "ground/tiles.dds", "ground/bricks.dds"})
        addresses.push_back({midway, {path}});
    for (const char* path :
         {"carousel/horse_a_tint.pnl", "carousel/horse_b_tint.pnl", "carousel/horse_c_tint.pnl", "carousel/swan.pnl",
          "carousel/rooster.pnl", "wheel/star_panel.pnl", "wheel/moon_panel.pnl", "wheel/sun_panel.pnl", "teacups/cup.pnl"})
        addresses.push_back({rides, {path}});
    for (const char* path : {"organ/pipes.pnl", "organ/clock.dds", "organ/drum.pnl"}) addresses.push_back({organ, {"organ.crate", path}});
    for (const char* path : {"cloth/rope.dds", "cloth/balloon.dds"}) addresses.push_back({organ, {path}});
    ASSERT_EQ(addresses.size(), 30u);
    for (const auto& address : addresses) paint(take(address));
    deliver_all();
    EXPECT_TRUE(look().empty()) << "before the update all is in the game";
    ASSERT_TRUE(save_project(project));

    update_the_game();
    EXPECT_EQ(gone_stale(context, project.pieces).size() > 0, true);
    const auto update = look();
    EXPECT_EQ(update.pieces.size(), 30u);
    for (const char* name : {"awning_red_tint", "awning_green_tint", "horse_c_tint", "star_panel", "pipes"})
        EXPECT_EQ(how_of(update, name), UpdateHow::elsewhere) << name;
    for (const char* name : {"meadow", "swan", "clock"}) EXPECT_EQ(how_of(update, name), UpdateHow::same_place) << name;
    for (const char* name : {"rope", "tiles", "sign_tea", "sun_panel"}) EXPECT_EQ(how_of(update, name), UpdateHow::moved) << name;
    for (const char* name : {"bricks", "moon_panel"}) EXPECT_EQ(how_of(update, name), UpdateHow::other_format) << name;
    EXPECT_EQ(how_of(update, "popcorn"), UpdateHow::gone);
    for (const char* name : {"target", "sign_ride", "sign_tickets", "horse_a_tint", "drum", "balloon", "gravel", "sign_exit"})
        EXPECT_EQ(how_of(update, name), UpdateHow::same) << name;

    // The sure ones alone first; then those that want a yes.
    put(update, false);
    EXPECT_TRUE(has_the_square(shown({midway, {"booths/shooting/target.dds"}})));
    EXPECT_TRUE(has_the_square(shown({midway, {"cloth/rope.dds"}}))) << "in another archive";
    EXPECT_TRUE(has_the_square(shown({rides, {"wheel/noon_panel.pnl"}}))) << "under another name";
    EXPECT_FALSE(has_the_square(shown({midway, {"ground/bricks.dds"}})));
    const auto rest = look();
    EXPECT_EQ(rest.pieces.size(), 5u + 3 + 2 + 1);
    put(rest, true);
    const auto star = shown({rides, {"wheel/star_panel.pnl"}});
    EXPECT_TRUE(has_the_square(star));
    // The game's new stamp is there, as it is in the new game.
    const auto fresh = *TextureFile::open(context.textures,
                                          *read_address(context, {second_season() / "rides.crate", {"wheel/star_panel.pnl"}}), "x.pnl", {})
                            ->decode(0);
    EXPECT_EQ(star.at(224, 32), fresh.at(224, 32));
    const auto bricks = *open_texture_at(context, {midway, {"ground/bricks.dds"}});
    EXPECT_EQ(bricks.layout.desc.format, Format::BC7);
    EXPECT_TRUE(has_the_square(*bricks.decode(0)));
    const auto left = look();
    EXPECT_EQ(left.pieces.size(), 4u) << "those that are for a person to decide";
    for (const auto& piece : left.pieces) EXPECT_FALSE(goes_in(piece.how)) << piece.name;
    for (const auto& piece : left.pieces)
        if (piece.how == UpdateHow::same_place) {
            const auto three = textures_of(context, project, piece);
            EXPECT_TRUE(!three.was.empty() && !three.ours.empty() && !three.game.empty()) << piece.name;
        }

    // What a person decides: one's own over the game's new picture.
    auto decided = left;
    for (auto& piece : decided.pieces)
        if (piece.name == "swan") {
            const auto over = over_the_new(context, project, piece);
            ASSERT_TRUE(over) << over.error().message();
            piece.becomes = *over;
            const auto plan = plan_update(context, project, decided, {piece.id});
            ASSERT_TRUE(plan) << plan.error().message();
            const auto done = put_in_again(context, project, *plan, vault(), 9);
            ASSERT_FALSE(done.delivered.error) << done.delivered.error->message();
            note_updated(project, *plan, done);
            break;
        }
    EXPECT_TRUE(has_the_square(shown({rides, {"carousel/swan.pnl"}})));
    EXPECT_EQ(look().pieces.size(), 3u);

    // The files follow: what is painted next is painted on the game's new texture.
    for (auto& piece : project.pieces) {
        if (piece.name() != "star_panel") continue;
        auto image = *read_png(get_file(project.work() / piece.file), ReadLimits{});
        EXPECT_TRUE(has_the_square(image));
        EXPECT_EQ(image.at(224, 32), fresh.at(224, 32));
        image.at(100, 200) = {255, 0, 0, 255};
        put_file(project.work() / piece.file, *write_png(image));
        EXPECT_TRUE(note_refreshed(project, refresh_piece(project, piece, 13)));
    }
    const auto more = plan_delivery(context, project);
    ASSERT_EQ(more.piece_count(), 1u);
    EXPECT_LT(more.groups[0].plan.bytes_written(), 2000u) << "a dot, and what it is in the smaller levels";

    // And all of it can be undone: then the game is its makers' second season.
    for (auto history = *vault().history(); !history.empty(); history.pop_back()) {
        const auto undone = undo_delivery(context, project, vault(), history.back().id);
        ASSERT_TRUE(undone.status) << undone.status.error().message();
        note_undone(project, undone);
    }
    for (const auto& source : {midway, organ, rides}) EXPECT_EQ(hash_of_file(source), hash_of_file(second_season() / source.filename()));
    // The way back to the first season lies aside.
    EXPECT_TRUE(std::filesystem::exists(project.vault() / "000001.aside/why.txt"));
}

TEST_F(FairUpdate, AParcelGoesInAgainAndKeepsItsPlaceInTheStack) {
    const auto rides = game / "rides.crate";
    for (const char* path : {"carousel/horse_a_tint.pnl", "wheel/star_panel.pnl", "carousel/swan.pnl"}) paint(take({rides, {path}}));
    MakeWish wish;
    wish.about.id = wish.about.title = "teal";
    const auto parcel = make_parcel(context, project, wish)->parcel;
    project.pieces.clear();
    const ReadMod mod{parcel, *write_parcel(parcel), {}};
    Progress progress;
    const auto stack = *stack_with(project, mod, *match_parcel(context, project, vault(), parcel, progress), 3);
    const auto planned = *plan_stack(context, project, vault(), stack, "teal installed");
    const auto done = deliver_stack(context, planned, vault(), 4);
    ASSERT_FALSE(done.error) << done.error->message();
    note_stack(project, planned, done);
    EXPECT_TRUE(look().empty());

    update_the_game();
    auto update = look();
    ASSERT_EQ(update.parcels.size(), 1u);
    EXPECT_EQ(update.parcels[0].matches.size(), 2u);
    ASSERT_EQ(update.parcels[0].left_out.size(), 1u);
    EXPECT_NE(update.parcels[0].left_out[0].find("swan"), std::string::npos);
    put(std::move(update), true);
    EXPECT_TRUE(has_the_square(shown({rides, {"carousel/horse_a_tint.pnl"}})));
    EXPECT_TRUE(has_the_square(shown({rides, {"wheel/star_panel.pnl"}})));
    EXPECT_TRUE(look().empty());
    // It goes again like any other.
    const auto without = *plan_stack(context, project, vault(), *stack_without(context, project, "teal"), "out");
    ASSERT_FALSE(without.error()) << without.error()->message();
    const auto gone = deliver_stack(context, without, vault(), 6);
    ASSERT_FALSE(gone.error);
    note_stack(project, without, gone);
    EXPECT_EQ(hash_of_file(rides), hash_of_file(second_season() / "rides.crate"));
}

// A mod of the demo: one texture of each sort of format, a shape painted on each.
TEST_F(FairUpdate, AParcelOfTheDemoIsSmallAndHoldsNothingOfTheGame) {
    for (const auto& [source, inner] :
         std::vector<std::pair<std::string, std::vector<std::string>>>{{"midway.zip", {"booths/ticket/awning_red_tint.dds"}},
                                                                       {"midway.zip", {"signs/sign_fair.dds"}},
                                                                       {"midway.zip", {"front/bunting.dds"}},
                                                                       {"midway.zip", {"booths/shooting/target.dds"}},
                                                                       {"rides.crate", {"carousel/horse_a_tint.pnl"}},
                                                                       {"rides.crate", {"carousel/swan.pnl"}},
                                                                       {"organ.zip", {"organ.crate", "organ/pipes.pnl"}},
                                                                       {"organ.zip", {"cloth/pennant.dds"}}})
        paint(take({game / source, inner}));
    MakeWish wish;
    wish.about.id = wish.about.title = "demo";
    const auto made = *make_parcel(context, project, wish);
    ASSERT_EQ(made.parcel.textures.size(), 8u);
    const auto file = *write_parcel(made.parcel);
    std::printf("a parcel of %zu bytes for textures of %zu\n", file.size(), static_cast<std::size_t>(made.originals));
    EXPECT_LT(file.size(), made.originals / 10);
    std::vector<Bytes> inside{file};
    const auto zip = *open_container(ReadContext{}, FileView::of(file, "x.zip"));
    for (std::size_t i = 0; i < zip->entries().size(); ++i) inside.push_back(*zip->read(i, ReadLimits{}));
    for (const auto& piece : project.pieces) {
        const auto original = get_file(project.original_of(piece));
        std::set<std::string> runs;
        const auto text = as_text(original);
        for (std::size_t at = 0; at + 64 <= text.size(); ++at) runs.insert(text.substr(at, 64));
        for (const auto& bytes : inside) {
            const auto there = as_text(bytes);
            for (std::size_t at = 0; at + 64 <= there.size(); ++at)
                ASSERT_FALSE(runs.contains(there.substr(at, 64))) << piece.name() << " at " << at;
        }
    }
}

TEST_F(FairUpdate, ByCommandLine) {
    const auto folder_of = (folder / "cli").string(), zip = (game / "midway.zip").string();
    ASSERT_EQ(run_cli({"project", "new", folder_of, zip}).code, 0);
    const auto taken = run_cli({"project", "take", folder_of, zip + "::booths/shooting/target.dds", "--json"});
    ASSERT_EQ(taken.code, 0) << taken.err;
    const std::string picture = nlohmann::json::parse(taken.out).at("file");
    auto image = *read_png(get_file(picture), ReadLimits{});
    image.at(20, 20) = teal;
    put_file(picture, *write_png(image));
    ASSERT_EQ(run_cli({"project", "deliver", folder_of}).code, 0);
    EXPECT_EQ(run_cli({"project", "update", folder_of}).out, "everything is in the game as it was delivered\n");
    update_the_game();
    const auto listed = run_cli({"project", "update", folder_of});
    EXPECT_NE(listed.out.find("ours is gone"), std::string::npos) << listed.out << listed.err;
    const auto put = run_cli({"project", "update", folder_of, "--put", "sure"});
    EXPECT_EQ(put.code, 0) << put.err;
    EXPECT_NE(hash_of_file(zip), hash_of_file(second_season() / "midway.zip"));
    ASSERT_EQ(run_cli({"project", "undo", folder_of}).code, 0);
    EXPECT_EQ(hash_of_file(zip), hash_of_file(second_season() / "midway.zip"));
}

TEST_F(FairUpdate, VersionsAreRecordedUnderNamesAndSayWhatTheUpdateChanged) {
    const auto index = *IndexStore::open(":memory:");
    const auto look_through = [&] {
        Progress progress;
        const auto catalog = *read_sources(context, {project, nullptr, {}}, *index, progress);
        std::optional<Error> problem;
        return measure_unseen(context, {project, nullptr, {}}, *catalog, *index, nullptr, progress, {}, problem)->snapshot;
    };
    std::filesystem::create_directories(project.folder);
    const auto one = look_through();
    EXPECT_TRUE(shipped_versions(project).empty());
    const auto first_file = baseline_for(project, "season one");
    const auto first = *record_shipped(project, first_file, *one);
    note_recorded(project, shipped_versions(project), first_file, "season one", 7);
    EXPECT_EQ(project.baseline().filename(), "baseline.sqlite");
    EXPECT_TRUE(changes_since(*first, *one, {}).empty());
    // One's own delivery is no change of others.
    paint(take({game / "midway.zip", {"booths/shooting/target.dds"}}));
    deliver_all();
    auto history = *vault().history();
    EXPECT_TRUE(changes_since(*first, *look_through(), history).empty());

    update_the_game();
    const auto two = look_through();
    // What the update wrote over is not ours any more, though its delivery stands in the history.
    const auto seen = look_at_versions(project, first.get(), vault(), *two, history);
    const auto changes = changes_since(*first, *two, {});
    ASSERT_EQ(seen.changes.size(), changes.size());
    using What = ShippedChange::What;
    const auto how = [&](const std::string& end, What what) {
        return std::any_of(changes.begin(), changes.end(), [&](const auto& c) { return c.what == what && c.inner.back().ends_with(end); });
    };
    std::map<What, int> counts;
    for (const auto& change : changes) ++counts[change.what];
    EXPECT_GT(counts[What::changed], 2);
    EXPECT_GT(counts[What::moved], 0) << "what was renamed is the same picture under another path";
    EXPECT_GT(counts[What::gone], 0);
    EXPECT_LT(changes.size(), one->catalog.items.size() / 2) << "another order of entries is no change";
    for (const auto& change : changes) EXPECT_EQ(change.what == What::moved, !change.from.empty());
    EXPECT_FALSE(how("booths/shooting/target.dds", What::gone));

    // The second season under its name; against the first one its textures are known to be the second's.
    const auto second_file = baseline_for(project, "season two");
    EXPECT_NE(second_file, first_file);
    const auto second = *record_shipped(project, second_file, *two);
    note_recorded(project, shipped_versions(project), second_file, "season two", 9);
    EXPECT_TRUE(changes_since(*second, *two, {}).empty());
    const auto matches = match_versions(project);
    ASSERT_EQ(matches.size(), 2u);
    EXPECT_LT(matches[0].same, matches[0].sources);
    EXPECT_EQ(matches[1].same, matches[1].sources);
    const std::pair<std::string, std::vector<BaselineEntry>> other{"season two", second->entries()};
    for (const auto& change : changes_since(*first, *two, {}, std::span(&other, 1)))
        if (change.what != What::gone) EXPECT_EQ(change.as_in, "season two") << change.inner.back();

    ASSERT_TRUE(save_project(project));
    EXPECT_EQ(open_project(project.folder)->shipped, project.shipped);
    EXPECT_FALSE(forget_version(project, shipped_versions(project), second_file)) << "the one that is compared with stays";
    EXPECT_TRUE(compare_with(project, shipped_versions(project), first_file));
    EXPECT_FALSE(compare_with(project, shipped_versions(project), "nowhere.sqlite"));
    EXPECT_TRUE(forget_version(project, shipped_versions(project), second_file));
    remove_baseline(project, second_file);
    EXPECT_FALSE(std::filesystem::exists(project.folder / second_file));
    EXPECT_EQ(shipped_versions(project).size(), 1u);
    EXPECT_EQ(baseline_for(project, "season one"), first_file) << "recorded anew under its name";
}
