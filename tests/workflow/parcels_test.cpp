// Parcels of a project: made of the bench, put into an installation, beside one's own work, on another version of the game.
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "base/hash.h"
#include "container/texture_files.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/png.h"
#include "workflow/opening.h"
#include "workflow/parcels.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Parcels : testing::Test {
    TempFolder folder;
    PosixFiles files;
    ReadContext context;
    std::filesystem::path zip = folder / "game/midway.zip";
    Project project;
    Bytes horse = make_dds(Format::BC1, 64, 64, 0, 1), cow = make_dds(Format::BC3, 64, 64, 0, 2),
          sign = make_dds(Format::BC7, 32, 32, 0, 3);

    void SetUp() override {
        put_file(zip,
                 make_zip({{"a/horse.dds", horse}, {"a/cow.dds", cow, true}, {"b/sign.dds", sign}, {"b/note.txt", random_bytes(60, 1)}}));
        project = *open_project(folder / "project");
        project.sources = {zip};
        pristine_ = folder / "pristine.zip";
        std::filesystem::copy_file(zip, pristine_);
    }
    PieceId take(Project& p, const std::string& path) {
        auto piece = take_piece(context, p, {p.sources.front(), {path}}, {}, 1);
        EXPECT_TRUE(piece) << (piece ? "" : piece.error().message());
        std::vector<Piece> taken;
        taken.push_back(std::move(*piece));
        return keep_taken(p, std::move(taken)).front();
    }
    void paint(Project& p, PieceId id, Rect where, Texel color) {
        auto& piece = *p.piece(id);
        auto image = *read_png(get_file(p.work() / piece.file), ReadLimits{});
        for (auto y = where.y; y < where.y + where.height; ++y)
            for (auto x = where.x; x < where.x + where.width; ++x) image.at(x, y) = color;
        put_file(p.work() / piece.file, *write_png(image));
        EXPECT_TRUE(note_refreshed(p, refresh_piece(p, piece, 3)));
    }
    Delivered deliver_own(Project& p) {
        const auto plan = plan_delivery(context, p);
        for (const auto& group : plan.groups) EXPECT_FALSE(group.error) << group.error->message();
        auto done = deliver(context, plan, vault_of(p, files), 5);
        EXPECT_FALSE(done.error) << done.error->message();
        note_delivered(p, plan, done);
        return done;
    }
    void undo(Project& p, const std::string& id) {
        const auto undone = undo_delivery(context, p, vault_of(p, files), id);
        EXPECT_TRUE(undone.status) << undone.status.error().message();
        note_undone(p, undone);
    }
    /// A parcel that somebody else made of the same game.
    Parcel made(const std::string& title, const std::vector<std::tuple<std::string, Rect, Texel>>& paints) {
        Project other = *open_project(folder / ("of " + title));
        const auto copy = folder / ("game of " + title) / "midway.zip";
        if (!std::filesystem::exists(copy)) {
            std::filesystem::create_directories(copy.parent_path());
            std::filesystem::copy_file(pristine_, copy);
        }
        other.sources = {copy};
        for (const auto& [path, where, color] : paints) paint(other, take(other, path), where, color);
        MakeWish wish;
        wish.about.title = title;
        wish.about.id = parcel_id(title);
        auto out = make_parcel(context, other, wish);
        EXPECT_TRUE(out) << (out ? "" : out.error().message());
        EXPECT_TRUE(out->left_out.empty());
        return std::move(out->parcel);
    }
    std::vector<TextureMatch> match(Project& p, const Parcel& parcel) {
        Progress progress;
        auto out = match_parcel(context, p, vault_of(p, files), parcel, progress);
        EXPECT_TRUE(out) << (out ? "" : out.error().message());
        return std::move(*out);
    }
    StackPlan plan(Project& p, const ParcelStack& wanted) {
        auto out = plan_stack(context, p, vault_of(p, files), wanted, "a change");
        EXPECT_TRUE(out) << (out ? "" : out.error().message());
        if (out && out->error()) ADD_FAILURE() << out->error()->message();
        return std::move(*out);
    }
    StackPlan carry_out(Project& p, const Result<ParcelStack>& wanted) {
        EXPECT_TRUE(wanted) << (wanted ? "" : wanted.error().message());
        auto planned = plan(p, *wanted);
        const auto done = deliver_stack(context, planned, vault_of(p, files), 6);
        EXPECT_FALSE(done.error) << done.error->message();
        note_stack(p, planned, done);
        return planned;
    }
    StackPlan install(Project& p, const Parcel& parcel) {
        const ReadMod mod{parcel, *write_parcel(parcel), {}};
        return carry_out(p, stack_with(p, mod, match(p, parcel), 5));
    }
    Image seen(const std::string& path, std::uint32_t mip = 0) const {
        const auto texture = open_texture_at(context, {zip, {path}});
        EXPECT_TRUE(texture);
        return *texture->decode(mip);
    }
    std::filesystem::path pristine_;  ///< the game as it was shipped
};

constexpr Texel red{240, 20, 20, 255}, green{20, 240, 20, 255}, blue{20, 20, 240, 255};
bool is(const Texel& a, const Texel& b) {
    for (std::size_t c = 0; c < 3; ++c)
        if (std::abs(a[c] - b[c]) > 12) return false;
    return true;
}

}  // namespace

TEST_F(Parcels, WhatIsOnTheBenchBecomesOne) {
    project.source_settings[zip].group = "base";
    paint(project, take(project, "a/horse.dds"), {0, 0, 8, 8}, red);
    take(project, "a/cow.dds");  // not painted: it does not go in
    MakeWish wish;
    wish.about = {"bright", "Bright", "E. Wick", "1", "CC0-1.0", {}, {}, {}, {}};
    const auto out = make_parcel(context, project, wish);
    ASSERT_TRUE(out) << out.error().message();
    ASSERT_EQ(out->parcel.textures.size(), 1u);
    const auto& texture = out->parcel.textures[0];
    EXPECT_EQ(texture.source, "midway.zip");
    EXPECT_EQ(texture.group, "base");
    EXPECT_EQ(texture.inner, std::vector<std::string>{"a/horse.dds"});
    EXPECT_EQ(texture.was_file, to_hex(sha256(horse)));
    EXPECT_TRUE(texture.whole.empty());
    EXPECT_TRUE(texture.before && texture.after);
    EXPECT_EQ(out->originals, horse.size());
    // Delivered or not, it is the same parcel.
    deliver_own(project);
    const auto again = make_parcel(context, project, wish);
    ASSERT_TRUE(again);
    EXPECT_EQ(*write_parcel(again->parcel), *write_parcel(out->parcel));
}

TEST_F(Parcels, AnotherSizeGoesInOnlyAsOnesOwn) {
    const auto id = take(project, "a/horse.dds");
    auto& piece = *project.piece(id);
    put_file(project.work() / piece.file, *write_png(smooth_picture(128, 128, 5)));
    EXPECT_TRUE(note_refreshed(project, refresh_piece(project, piece, 3)));
    piece.options.mends.add(Mend::keep_size);
    MakeWish wish;
    wish.about.id = wish.about.title = "large";
    auto out = *make_parcel(context, project, wish);
    EXPECT_TRUE(out.parcel.textures.empty());
    ASSERT_EQ(out.left_out.size(), 1u);
    EXPECT_TRUE(out.left_out[0].could_be_own) << out.left_out[0].why.message();
    wish.own = {id};
    out = *make_parcel(context, project, wish);
    ASSERT_EQ(out.parcel.textures.size(), 1u);
    EXPECT_FALSE(out.parcel.textures[0].whole.empty());
}

TEST_F(Parcels, OwnWorkAndParcelsStandBesideEachOther) {
    const auto before = hash_of_file(zip);
    const auto warm = made("warm", {{"a/horse.dds", {0, 0, 8, 8}, red}, {"a/cow.dds", {0, 0, 8, 8}, red}});
    // Own work first, then the parcel; then more own work; then the parcel goes.
    const auto id = take(project, "a/horse.dds");
    paint(project, id, {40, 40, 8, 8}, blue);
    deliver_own(project);
    const auto own_alone = hash_of_file(zip);
    const auto planned = install(project, warm);
    ASSERT_EQ(planned.textures.size(), 1u) << "the horse, which both change";
    EXPECT_TRUE(planned.textures[0].left_out.empty());
    EXPECT_TRUE(is(seen("a/horse.dds").at(2, 2), red));
    EXPECT_TRUE(is(seen("a/horse.dds").at(42, 42), blue));
    EXPECT_TRUE(is(seen("a/cow.dds").at(2, 2), red));
    EXPECT_TRUE(gone_stale(context, project.pieces).empty()) << "that a parcel changes it, too, is no change by somebody else";
    EXPECT_EQ(project.piece(id)->state, PieceState::delivered);

    paint(project, id, {40, 40, 8, 8}, green);
    deliver_own(project);
    EXPECT_TRUE(is(seen("a/horse.dds").at(2, 2), red));
    EXPECT_TRUE(is(seen("a/horse.dds").at(42, 42), green));
    EXPECT_TRUE(gone_stale(context, project.pieces).empty());

    ASSERT_TRUE(save_project(project));
    project = *open_project(project.folder);
    carry_out(project, stack_without(context, project, "warm"));
    EXPECT_FALSE(is(seen("a/horse.dds").at(2, 2), red));
    EXPECT_TRUE(is(seen("a/horse.dds").at(42, 42), green));
    EXPECT_EQ(*read_address(context, {zip, {"a/cow.dds"}}), cow);
    EXPECT_TRUE(gone_stale(context, project.pieces).empty());

    // The whole way back.
    auto history = *vault_of(project, files).history();
    ASSERT_EQ(history.size(), 4u);
    while (!history.empty()) {
        undo(project, history.back().id);
        history.pop_back();
        if (history.size() == 1) EXPECT_EQ(hash_of_file(zip), own_alone);
        EXPECT_TRUE(gone_stale(context, project.pieces).empty()) << history.size();
    }
    EXPECT_EQ(hash_of_file(zip), before);
    EXPECT_EQ(project.piece(id)->state, PieceState::changed);
    EXPECT_TRUE(project.stack_state.stack.empty());
}

TEST_F(Parcels, APieceThatIsPaintedOnAParcelsTextureKeepsIt) {
    const auto warm = made("warm", {{"a/horse.dds", {0, 0, 16, 16}, red}});
    install(project, warm);
    const auto id = take(project, "a/horse.dds");  // as the parcel made it
    paint(project, id, {8, 8, 4, 4}, blue);        // right in the parcel's place
    deliver_own(project);
    EXPECT_TRUE(is(seen("a/horse.dds").at(2, 2), red)) << "what was painted over stays all around";
    EXPECT_TRUE(is(seen("a/horse.dds").at(9, 9), blue));
    carry_out(project, stack_without(context, project, "warm"));
    EXPECT_FALSE(is(seen("a/horse.dds").at(2, 2), red));
    EXPECT_TRUE(is(seen("a/horse.dds").at(9, 9), blue));
    // Made into a parcel it is a change of the game's own texture, with nothing of the other parcel in it.
    MakeWish wish;
    wish.about.id = wish.about.title = "dot";
    const auto out = *make_parcel(context, project, wish);
    ASSERT_EQ(out.parcel.textures.size(), 1u);
    EXPECT_TRUE(out.left_out.empty());
}

TEST_F(Parcels, WhereTwoMeetOneIsChosen) {
    const auto warm = made("warm", {{"a/horse.dds", {0, 0, 16, 16}, red}, {"b/sign.dds", {0, 0, 8, 8}, red}});
    const auto cold = made("cold", {{"a/horse.dds", {8, 8, 16, 16}, blue}, {"b/sign.dds", {16, 16, 8, 8}, blue}});
    install(project, warm);
    const auto planned = install(project, cold);
    ASSERT_EQ(planned.textures.size(), 2u);
    const auto& met = planned.textures[0].left_out.empty() ? planned.textures[1] : planned.textures[0];
    EXPECT_EQ(met.address.inner.back(), "a/horse.dds");
    EXPECT_EQ(planned.wanted.layers[met.left_out.at(0)].id, "warm") << "the upper one stays";
    EXPECT_TRUE(is(seen("a/horse.dds").at(20, 20), blue));
    EXPECT_FALSE(is(seen("a/horse.dds").at(2, 2), red));
    EXPECT_TRUE(is(seen("b/sign.dds").at(2, 2), red)) << "in the sign both have a place";
    EXPECT_TRUE(is(seen("b/sign.dds").at(18, 18), blue));
    const auto sides = stack_sides(context, project, vault_of(project, files), project.stack_state.stack, met.address);
    ASSERT_TRUE(sides) << sides.error().message();
    ASSERT_EQ(sides->size(), 3u);
    EXPECT_EQ((*sides)[0].texture, horse) << "the original";
    EXPECT_TRUE(is(TextureFile::open(context.textures, (*sides)[1].texture, "x.dds", {})->decode(0)->at(2, 2), red));

    carry_out(project, stack_preferring(project, {zip, {"a/horse.dds"}}, "warm"));
    EXPECT_TRUE(is(seen("a/horse.dds").at(2, 2), red));
    EXPECT_FALSE(is(seen("a/horse.dds").at(20, 20), blue));
    EXPECT_TRUE(is(seen("b/sign.dds").at(18, 18), blue));
    // The order decides where nothing is chosen.
    auto moved = *stack_moved(project, "warm", 1);
    moved.choices.clear();
    carry_out(project, moved);
    EXPECT_TRUE(is(seen("a/horse.dds").at(2, 2), red));
    carry_out(project, stack_without(context, project, "warm"));
    EXPECT_TRUE(is(seen("a/horse.dds").at(20, 20), blue));
}

TEST_F(Parcels, NeedsAndWhatDoesNotGoTogetherAreHeeded) {
    auto warm = made("warm", {{"a/horse.dds", {0, 0, 8, 8}, red}}), cold = made("cold", {{"a/cow.dds", {0, 0, 8, 8}, blue}});
    cold.about.needs = {{"warm", ""}};
    const ReadMod mod{cold, *write_parcel(cold), {}};
    const auto refused = stack_with(project, mod, match(project, cold), 5);
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().what.find("needs warm"), std::string::npos);
    install(project, warm);
    install(project, cold);
    const auto stays = stack_without(context, project, "warm");
    ASSERT_FALSE(stays);
    EXPECT_NE(stays.error().what.find("needs it"), std::string::npos);
    auto gray = made("gray", {{"b/sign.dds", {0, 0, 8, 8}, green}});
    gray.about.not_with = {{"warm", ""}};
    EXPECT_FALSE(stack_with(project, {gray, *write_parcel(gray), {}}, match(project, gray), 5));
    EXPECT_FALSE(stack_without(context, project, "nobody"));
    // Another version of the same takes its place.
    auto newer = made("warm", {{"a/horse.dds", {24, 24, 8, 8}, green}});
    newer.about.version = "2";
    install(project, newer);
    EXPECT_EQ(project.stack_state.stack.layers.size(), 3u);
    EXPECT_EQ(project.stack_state.stack.layers[0].version, "2");
}

TEST_F(Parcels, OnAnotherVersionOfTheGameWhatFitsGoesIn) {
    const auto mod = made("warm", {{"a/horse.dds", {0, 0, 8, 8}, red},   // its texture changes elsewhere
                                   {"a/cow.dds", {0, 0, 8, 8}, red},     // and this one in the same place
                                   {"b/sign.dds", {0, 0, 8, 8}, red}});  // and this one moves
    const auto repaint = [](const Bytes& file, std::uint32_t at) {
        auto texture = *TextureFile::open(TextureKinds::standard(), file, "x.dds", ReadLimits{});
        auto edited = EditedFile{};
        edited.image = *texture.decode(0);
        for (std::uint32_t y = at; y < at + 8; ++y)
            for (std::uint32_t x = at; x < at + 8; ++x) edited.image.at(x, y) = green;
        return fit(texture, edited, {})->file;
    };
    put_file(zip, make_zip({{"b/note.txt", random_bytes(60, 1)},
                            {"c/moved/plate.dds", sign},
                            {"a/horse.dds", repaint(horse, 40), true},
                            {"a/cow.dds", repaint(cow, 0)}}));
    const auto matches = match(project, mod);
    ASSERT_EQ(matches.size(), 3u);
    EXPECT_EQ(matches[0].how, MatchHow::other_version) << matches[0].note;
    EXPECT_EQ(matches[1].how, MatchHow::does_not_fit);
    EXPECT_NE(matches[1].note.find("hold something else"), std::string::npos) << matches[1].note;
    EXPECT_EQ(matches[2].how, MatchHow::same_pixels);
    EXPECT_EQ(matches[2].address.inner.back(), "c/moved/plate.dds");
    install(project, mod);
    EXPECT_TRUE(is(seen("a/horse.dds").at(2, 2), red));
    EXPECT_TRUE(is(seen("a/horse.dds").at(44, 44), green)) << "the game's new part stays";
    EXPECT_TRUE(is(seen("c/moved/plate.dds").at(2, 2), red));
    EXPECT_FALSE(is(seen("a/cow.dds").at(2, 2), red)) << "what does not fit is never forced";
    // The smaller levels hold both, too.
    EXPECT_TRUE(is(seen("a/horse.dds", 1).at(1, 1), red));
    EXPECT_TRUE(is(seen("a/horse.dds", 1).at(22, 22), green));
}

TEST_F(Parcels, AModOfAnotherFormIsReadByItsPaths) {
    // A folder around folders, other case, a readme, a texture the game does not have, and one that was not changed.
    const auto mine = make_dds(Format::BC1, 64, 64, 0, 77);
    put_file(folder / "My Mod 1.0/Data/A/Horse.dds", mine);
    put_file(folder / "My Mod 1.0/Data/a/cow.dds", cow);
    put_file(folder / "My Mod 1.0/Data/a/unicorn.dds", mine);
    put_file(folder / "My Mod 1.0/readme.txt", random_bytes(10, 1));
    const auto before = hash_of_file(zip);
    auto mod = read_mod(context, project, folder / "My Mod 1.0");
    ASSERT_TRUE(mod) << mod.error().message();
    EXPECT_TRUE(mod->parcel.foreign);
    EXPECT_EQ(mod->parcel.about.title, "My Mod 1.0");
    ASSERT_EQ(mod->parcel.textures.size(), 1u);
    EXPECT_EQ(mod->strangers, std::vector<std::string>{"Data/a/unicorn.dds"});
    const auto matches = match(project, mod->parcel);
    EXPECT_EQ(matches[0].how, MatchHow::whole);
    carry_out(project, stack_with(project, *mod, matches, 5));
    EXPECT_EQ(*read_address(context, {zip, {"a/horse.dds"}}), mine);
    carry_out(project, stack_without(context, project, mod->parcel.about.id));
    EXPECT_EQ(hash_of_file(zip), before);

    // The same as a ZIP, and as a patch archive that has the game's own paths; climbing out is of no use.
    put_file(folder / "patch.zip", make_zip({{"a/horse.dds", mine, true}, {"../../a/cow.dds", mine}}));
    mod = read_mod(context, project, folder / "patch.zip");
    ASSERT_TRUE(mod) << mod.error().message();
    for (const auto& texture : mod->parcel.textures) EXPECT_EQ(texture.inner.back().find(".."), std::string::npos);
    put_file(folder / "nothing/x.dds", mine);
    EXPECT_FALSE(read_mod(context, project, folder / "nothing"));
}

TEST_F(Parcels, AChangeByAnotherProgramIsNotWrittenOver) {
    install(project, made("warm", {{"a/horse.dds", {0, 0, 8, 8}, red}}));
    auto bytes = get_file(zip);
    const auto game = *open_source(context, zip);
    // Somebody changes the very place.
    auto edited = *game->read(*game->find("a/horse.dds"), ReadLimits{});
    edited[128] ^= std::byte{0x55};
    const auto plan_of_theirs = *game->plan(std::vector<Replacement>{{*game->find("a/horse.dds"), edited}}, ReadLimits{});
    put_file(zip, *planned_bytes(plan_of_theirs.files[0], bytes));
    const auto now = hash_of_file(zip);
    const auto wanted = *stack_without(context, project, "warm");
    const auto planned = plan_stack(context, project, vault_of(project, files), wanted, "x");
    ASSERT_TRUE(planned);
    ASSERT_TRUE(planned->error());
    EXPECT_EQ(planned->error()->code, ErrorCode::stale) << planned->error()->message();
    EXPECT_EQ(hash_of_file(zip), now);
}

TEST_F(Parcels, ACrashBetweenWritingAndRememberingIsSettled) {
    const auto warm = made("warm", {{"a/horse.dds", {0, 0, 8, 8}, red}});
    const auto wanted = *stack_with(project, {warm, *write_parcel(warm), {}}, match(project, warm), 5);
    const auto planned = plan(project, wanted);
    note_pending(project, planned, *vault_of(project, files).history());
    ASSERT_TRUE(save_project(project));
    auto not_written = *open_project(project.folder);
    EXPECT_TRUE(settle_pending(not_written, *vault_of(project, files).history()));
    EXPECT_TRUE(not_written.stack_state.stack.empty());
    ASSERT_FALSE(deliver_stack(context, planned, vault_of(project, files), 6).error);
    // Here the program ends, and the project was not saved again.
    project = *open_project(project.folder);
    const auto history = *vault_of(project, files).history();
    EXPECT_TRUE(settle_pending(project, history));
    ASSERT_EQ(project.stack_state.stack.layers.size(), 2u);
    EXPECT_EQ(project.stack_state.stack.layers[0].id, "warm");
    EXPECT_FALSE(settle_pending(project, history)) << "once";
    undo(project, history.back().id);
    EXPECT_TRUE(project.stack_state.stack.empty());
}

TEST_F(Parcels, VariantsAndRenamedEntriesStay) {
    auto variant = take_variant(context, project, {zip, {"a/horse.dds"}}, "a/pony.dds", {}, 1);
    ASSERT_TRUE(variant) << variant.error().message();
    std::vector<Piece> taken;
    taken.push_back(std::move(*variant));
    const auto id = keep_taken(project, std::move(taken)).front();
    paint(project, id, {0, 0, 8, 8}, green);
    const EntryChange rename{{zip, {"b/sign.dds"}}, "b/plate.dds"};
    EXPECT_TRUE(project.add(std::span(&rename, 1)).empty());
    deliver_own(project);
    install(project, made("warm", {{"a/horse.dds", {0, 0, 8, 8}, red}, {"b/sign.dds", {0, 0, 8, 8}, red}}));
    EXPECT_TRUE(is(seen("a/pony.dds").at(2, 2), green));
    EXPECT_TRUE(is(seen("b/plate.dds").at(2, 2), red)) << "the parcel finds it under its old name, and it keeps the new one";
    EXPECT_FALSE(read_address(context, {zip, {"b/sign.dds"}}));
    EXPECT_TRUE(is(seen("a/horse.dds").at(2, 2), red));
    carry_out(project, stack_without(context, project, "warm"));
    EXPECT_EQ(*read_address(context, {zip, {"b/plate.dds"}}), sign);
    EXPECT_TRUE(is(seen("a/pony.dds").at(2, 2), green));
    // A parcel can bring a variant, too.
    MakeWish wish;
    wish.about.id = wish.about.title = "pony";
    const auto pony = make_parcel(context, project, wish)->parcel;
    ASSERT_EQ(pony.textures.size(), 1u);
    EXPECT_EQ(pony.textures[0].like, "a/horse.dds");
    for (auto history = *vault_of(project, files).history(); !history.empty(); history.pop_back()) undo(project, history.back().id);
    EXPECT_EQ(*read_address(context, {zip, {"b/sign.dds"}}), sign);
    const auto before = hash_of_file(zip);
    install(project, pony);
    EXPECT_TRUE(is(seen("a/pony.dds").at(2, 2), green));
    carry_out(project, stack_without(context, project, "pony"));
    EXPECT_EQ(hash_of_file(zip), before);
}
