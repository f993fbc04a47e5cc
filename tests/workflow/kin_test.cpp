#include "workflow/kin.h"

#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "base/file_write.h"
#include "codec/paint_form.h"
#include "container/texture_files.h"
#include "pixel/mips.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"
#include "workflow/delivery_plan.h"
#include "workflow/opening.h"
#include "workflow/saves.h"

using namespace skivet;
using namespace skivet::test;

namespace {

Bytes dds(const Image& picture, Format format) {
    const TextureDesc d{format, picture.width, picture.height, 1, 1, 1, 1, ColorSpace::unknown};
    return *write_dds(d, *encode_levels(picture, d, {}));
}

/// Rings and bars with an alpha of their own.
Image awning(std::uint32_t side) {
    Image out(side, side);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x) {
            const double u = double(x) / side, v = double(y) / side;
            const bool bar = int(u * 6) % 2 == 0, ring = int(std::hypot(u - 0.4, v - 0.3) * 7) % 2 == 0;
            out.at(x, y) = {std::uint8_t(bar ? 220 : 50), std::uint8_t(ring ? 190 : 60), std::uint8_t(bar == ring ? 160 : 30),
                            std::uint8_t(v > 0.5 && ring ? 240 : 30)};
        }
    return out;
}
Image half(const Image& picture) {
    return to_bytes(resize(to_float(picture, false), picture.width / 2, picture.height / 2, MipFilter::box), false);
}
Image alpha_of(const Image& picture) {
    auto out = picture;
    for (auto& t : out.texels) t = {t[3], t[3], t[3], 255};
    return out;
}

struct KinTest : testing::Test {
    TempFolder folder;
    std::filesystem::path zip = folder / "game.zip";
    ReadContext context;
    Project project;
    std::shared_ptr<const AnalyzedCatalog> catalog;

    void SetUp() override {
        const auto picture = awning(128);
        Image bumps(128, 128);
        for (std::uint32_t y = 0; y < 128; ++y)
            for (std::uint32_t x = 0; x < 128; ++x)
                bumps.at(x, y) = {std::uint8_t(128 + 60 * std::sin(x * 0.2)), std::uint8_t(128 + 60 * std::cos(y * 0.3)), 230, 255};
        put_file(zip, make_zip({{"front/awning_diff.dds", dds(picture, Format::BC3)},
                                {"front/awning_norm.dds", dds(bumps, Format::BC7)},
                                {"front/awning_mask.dds", dds(alpha_of(picture), Format::BC4)},
                                {"far/awning_small.dds", dds(half(picture), Format::BC3)},
                                {"old/stripes.dds", dds(picture, Format::BC7)},
                                {"front/horse.dds", make_dds(Format::BC1, 64, 64, 1, 9)}}));
        project = *open_project(folder / "project");
        project.sources = {zip};
        look();
    }
    void look() {
        const auto index = *IndexStore::open(":memory:");
        Progress progress;
        std::optional<Error> problem;
        const AnalysisContext analysis{project, nullptr, {}};
        catalog =
            measure_unseen(context, analysis, **read_sources(context, analysis, *index, progress), *index, nullptr, progress, {}, problem);
    }
    Address at(const std::string& path) { return {zip, {path}}; }
    PieceId take(const std::string& path) {
        return keep_taken(project, take_pieces(context, project, std::vector{at(path)}, {}, 1).pieces).front();
    }
    Kindred kin(PieceId id, const PieceSides& sides = {}) {
        auto out = kin_of(context, *catalog, project, *project.piece(id), sides);
        EXPECT_TRUE(out) << (out ? "" : out.error().message());
        return out ? *out : Kindred{};
    }
    void save(PieceId id, const Image& picture) {
        auto& piece = *project.piece(id);
        put_file(project.work() / piece.file, *write_png(picture));
        for (auto& one : project.pieces) one = refresh_piece(project, one, 5);
    }
    Image in_game(const std::string& path) {
        const auto texture = *open_texture_at(context, at(path));
        return paint_form(texture.layout.desc.format, *texture.decode(0));
    }
};

std::vector<std::string> paths(const std::vector<Kin>& kin) {
    std::vector<std::string> out;
    for (const auto& one : kin) out.push_back(one.address.inner.back());
    std::sort(out.begin(), out.end());
    return out;
}

}  // namespace

TEST_F(KinTest, CopiesAndDerivedMapsAreFoundAndNoOthers) {
    const auto id = take("front/awning_diff.dds");
    const auto found = kin(id);
    EXPECT_EQ(paths(found.copies), (std::vector<std::string>{"far/awning_small.dds", "old/stripes.dds"}));
    EXPECT_EQ(paths(found.derived), (std::vector<std::string>{"front/awning_mask.dds"}));
    EXPECT_TRUE(found.other_size.empty());
    const auto told = findings_of(found);
    ASSERT_EQ(told.size(), 2u);
    EXPECT_EQ(told[0].finding.headline, "The copies stay unchanged");
    EXPECT_NE(told[0].finding.detail.find("far/awning_small.dds"), std::string::npos);
    EXPECT_NE(told[1].finding.detail.find("its alpha"), std::string::npos);
    EXPECT_TRUE(findings_of(kin(take("front/horse.dds"))).empty());
}

TEST_F(KinTest, TakenAlongTheyFollowAndAreNotAskedForAgain) {
    const auto id = take("front/awning_diff.dds");
    const auto found = kin(id);
    auto all = found.copies;
    all.insert(all.end(), found.derived.begin(), found.derived.end());
    auto taken = take_kin(context, project, *project.piece(id), all, 2);
    EXPECT_TRUE(taken.errors.empty());
    ASSERT_EQ(keep_taken(project, std::move(taken.pieces)).size(), 3u);
    EXPECT_TRUE(findings_of(kin(id)).empty());

    // Painted: a square, with its alpha.
    auto picture = *read_png(get_file(project.work() / project.piece(id)->file), ReadLimits{});
    for (std::uint32_t y = 16; y < 48; ++y)
        for (std::uint32_t x = 16; x < 48; ++x) picture.at(x, y) = {10, 250, 20, 200};
    save(id, picture);
    const auto mask_before = in_game("front/awning_mask.dds"), small_before = in_game("far/awning_small.dds");
    ASSERT_TRUE(save_project(project));
    const auto again = *open_project(project.folder);
    ASSERT_EQ(again.pieces.size(), 4u);
    EXPECT_EQ(again.pieces[3].way, project.pieces[3].way) << "the way is kept";
    const auto plan = plan_delivery(context, again);
    EXPECT_EQ(plan.piece_count(), 4u);
    PosixFiles files;
    const auto delivered = deliver(context, plan, vault_of(again, files), 9);
    ASSERT_FALSE(delivered.error) << delivered.error->message();
    const auto mask = in_game("front/awning_mask.dds"), small = in_game("far/awning_small.dds");
    for (std::uint32_t y = 0; y < 128; ++y)
        for (std::uint32_t x = 0; x < 128; ++x) {
            const bool painted = x >= 16 && x < 48 && y >= 16 && y < 48;
            if (painted) ASSERT_NEAR(mask.at(x, y)[0], 200, 2) << x << ' ' << y;
            else ASSERT_EQ(mask.at(x, y), mask_before.at(x, y)) << x << ' ' << y;
        }
    EXPECT_NEAR(small.at(16, 16)[1], 250, 6);
    EXPECT_EQ(small.at(40, 40), small_before.at(40, 40));

    // Seen again after the delivery: the piece still knows its kin, though the catalog shows the edit.
    project = again;
    note_delivered(project, plan, delivered);
    project.put_away(project.piece_of(at("old/stripes.dds"))->id);
    look();
    EXPECT_EQ(paths(kin(id).copies).size() + paths(kin(id).derived).size(), 0u) << "what was delivered with it is another picture now";
}

TEST_F(KinTest, WhatIsMendedInTheLeaderIsMendedForThoseThatFollow) {
    const auto id = take("front/awning_diff.dds");
    auto taken = take_kin(context, project, *project.piece(id), kin(id).copies, 2);
    const auto followers = keep_taken(project, std::move(taken.pieces));
    ASSERT_EQ(followers.size(), 2u);
    // Saved half as large and without alpha: nothing can follow that until it is mended.
    auto picture = *read_png(get_file(project.work() / project.piece(id)->file), ReadLimits{});
    for (std::uint32_t y = 16; y < 48; ++y)
        for (std::uint32_t x = 16; x < 48; ++x) picture.at(x, y) = {10, 250, 20, 200};
    for (auto& t : picture.texels) t[3] = 255;
    save(id, half(picture));
    for (const auto follower : followers) {
        const auto refused = fit_piece(context, project, *project.piece(follower));
        ASSERT_FALSE(refused);
        EXPECT_EQ(refused.error().code, ErrorCode::unfit);
    }
    project.piece(id)->options.mends = {Mend::resize, Mend::restore_alpha};
    for (const auto follower : followers) {
        const auto fitted = fit_piece(context, project, *project.piece(follower));
        ASSERT_TRUE(fitted) << fitted.error().message();
        EXPECT_FALSE(fitted->blocked());
        const auto n = fitted->result->width / 32;  // the middle of what was painted
        EXPECT_NEAR(fitted->result.at(8 * n, 8 * n)[1], 250, 12);
        EXPECT_EQ(fitted->result.at(8 * n, 8 * n)[3], fitted->original.at(8 * n, 8 * n)[3]) << "alpha came back";
    }
}

TEST_F(KinTest, ATwinThatWasLeftIsStillToldAfterTheDelivery) {
    const auto id = take("front/awning_diff.dds");
    auto picture = *read_png(get_file(project.work() / project.piece(id)->file), ReadLimits{});
    for (auto& t : picture.texels) t = {std::uint8_t(255 - t[0]), t[2], t[1], t[3]};
    save(id, picture);
    const auto plan = plan_delivery(context, project);
    PosixFiles files;
    const auto delivered = deliver(context, plan, vault_of(project, files), 9);
    ASSERT_FALSE(delivered.error);
    note_delivered(project, plan, delivered);
    look();
    EXPECT_EQ(paths(kin(id).copies), (std::vector<std::string>{"far/awning_small.dds", "old/stripes.dds"}));
}

TEST_F(KinTest, ADeliveryLeavesCopiesUntilTheyFollow) {
    const auto id = take("front/awning_diff.dds"), other = take("front/horse.dds");
    const auto left = [&] { return *copies_left(context, *catalog, project, std::vector{id, other}); };
    const auto is_all = [&](const std::vector<LeftCopies>& found) {
        return found.size() == 1 && found[0].piece == id &&
               paths(found[0].copies) == std::vector<std::string>{"far/awning_small.dds", "old/stripes.dds"};
    };
    EXPECT_TRUE(is_all(left()));
    auto picture = awning(128);
    for (auto& t : picture.texels) t[0] = std::uint8_t(255 - t[0]), t[1] = 9;
    save(id, picture);
    const auto plan = plan_delivery(context, project);
    PosixFiles files;
    note_delivered(project, plan, deliver(context, plan, vault_of(project, files), 9));
    look();
    EXPECT_TRUE(is_all(left())) << "its entry shows another picture now, the copies the old one";
    keep_taken(project, take_kin(context, project, *project.piece(id), left()[0].copies, 10).pieces);
    EXPECT_TRUE(left().empty());
    CancelToken stop;
    stop.cancel();
    EXPECT_EQ(copies_left(context, *catalog, project, std::vector{id}, stop).error().code, ErrorCode::canceled);
}

TEST_F(KinTest, AVariantIsThereToDiffer) {
    auto variant = take_variant(context, project, at("front/awning_diff.dds"), "front/awning_blue_diff.dds", {}, 1);
    ASSERT_TRUE(variant);
    const auto id = keep_taken(project, std::vector{*variant}).front();
    PosixFiles files;
    const auto plan = plan_delivery(context, project);
    note_delivered(project, plan, deliver(context, plan, vault_of(project, files), 9));
    look();
    const auto found = kin(id);
    EXPECT_TRUE(found.copies.empty() && found.derived.empty()) << "what it is like would follow it";
    EXPECT_TRUE(copies_left(context, *catalog, project, std::vector{id})->empty());
}

TEST_F(KinTest, ASetWhoseMapsNoLongerHaveOneSizeIsToldAndScaled) {
    const auto id = take("front/awning_diff.dds");
    const auto found = kin(id, {{id, {256, 256}}});
    EXPECT_EQ(found.factor, 2);
    ASSERT_EQ(found.other_size.size(), 2u);
    const auto told = findings_of(found);
    ASSERT_FALSE(told.empty());
    EXPECT_EQ(told.back().offer, KinFinding::Offer::scale_set);
    EXPECT_EQ(told.back().finding.headline, "The maps of its set stay smaller");
    std::vector<Error> errors;
    project = scale_set(context, project, found.other_size, found.factor, 3, errors);
    EXPECT_TRUE(errors.empty());
    PieceSides sides = {{id, {256, 256}}};
    for (const auto& address : found.other_size) {
        const auto* piece = project.piece_of(address);
        ASSERT_TRUE(piece);
        const auto fitted = fit_piece(context, project, *piece);
        ASSERT_TRUE(fitted);
        EXPECT_TRUE(fitted->resized);
        EXPECT_FALSE(fitted->blocked());
        EXPECT_EQ(fitted->layout.desc.width, 256u);
        sides[piece->id] = {256, 256};
    }
    EXPECT_TRUE(kin(id, sides).other_size.empty());

    // Saved again it is scaled as before, and nobody is asked once more.
    const auto scaled = project.piece_of(at("front/awning_mask.dds"))->id;
    put_file(project.work() / project.piece(scaled)->file, *write_png(awning(128)));
    ASSERT_TRUE(note_refreshed(project, refresh_piece(project, *project.piece(scaled), 7)));
    EXPECT_TRUE(project.piece(scaled)->options.mends.has(Mend::keep_size));
    const auto again = fit_piece(context, project, *project.piece(scaled));
    ASSERT_TRUE(again);
    EXPECT_FALSE(again->needs_mend());
    EXPECT_EQ(again->layout.desc.width, 256u);
}

TEST_F(KinTest, SetsAndCopiesAreTakenTogether) {
    const auto& items = catalog->snapshot->catalog.items;
    std::vector<std::size_t> asked;
    for (std::size_t i = 0; i < items.size(); ++i)
        if (items[i].name() == "awning_diff" || items[i].name() == "horse" || items[i].name() == "stripes") asked.push_back(i);
    const auto wanted = with_copies(*catalog, asked);
    ASSERT_EQ(wanted.size(), 3u);
    std::size_t followers = 0;
    for (const auto& one : wanted) followers += one.followers.size();
    EXPECT_EQ(followers, 2u) << "the small one of either; what is asked for itself goes for itself";
    const auto taken = take_pieces(context, project, wanted, {}, 1);
    EXPECT_TRUE(taken.errors.empty());
    EXPECT_EQ(taken.pieces.size(), 4u) << "each once";
}

TEST_F(KinTest, AlphaApartLiesBesideAndIsWatchedAndKept) {
    auto taken = take_pieces(context, project, std::vector{at("front/awning_diff.dds"), at("front/awning_mask.dds")},
                             {ExportAs::png, AlphaWay::apart}, 1);
    const auto ids = keep_taken(project, std::move(taken.pieces));
    ASSERT_EQ(ids.size(), 2u);
    const auto* piece = project.piece(ids[0]);
    ASSERT_EQ(piece->more.size(), 1u);
    EXPECT_EQ(piece->more[0].file.filename(), "awning_diff.dds.alpha.png");
    EXPECT_TRUE(project.piece(ids[1])->more.empty()) << "BC4 has no alpha";
    EXPECT_EQ(project.piece(ids[1])->as.alpha, AlphaWay::kept);

    // Saved: the gray picture alone.
    SeenFiles seen;
    EXPECT_TRUE(look_at_files(project, seen, 2).saved.empty());
    auto gray = *read_png(get_file(project.work() / piece->more[0].file), ReadLimits{});
    gray.at(5, 5) = {111, 111, 111, 255};
    const auto file = project.work() / piece->more[0].file;
    put_file(file.string() + ".new", *write_png(gray));
    std::filesystem::rename(file.string() + ".new", file);
    const auto look = look_at_files(project, seen, 3);
    ASSERT_EQ(look.saved.size(), 1u);
    EXPECT_TRUE(look.others.empty()) << "it is no other save of the picture";
    ASSERT_EQ(look.versions.size(), 1u);
    EXPECT_EQ(look.versions[0].file, piece->more[0].file);
    EXPECT_EQ(note_look(project, look), std::vector{ids[0]});
    piece = project.piece(ids[0]);
    EXPECT_EQ(piece->state, PieceState::changed);
    const auto fitted = *fit_piece(context, project, *piece);
    EXPECT_EQ(fitted.change.changed_texels, 1u);
    EXPECT_EQ(fitted.edited.at(5, 5)[3], 111);

    // Kept, and gone back to; the picture's own file is not touched.
    ASSERT_TRUE(save_project(project));
    const auto again = *open_project(project.folder);
    EXPECT_EQ(again.piece(ids[0])->more, piece->more);
    EXPECT_EQ(again.piece(ids[0])->edit(), piece->edit());
    gray.at(5, 5) = {9, 9, 9, 255};
    put_file(file, *write_png(gray));
    ASSERT_FALSE(note_look(project, look_at_files(project, seen, 4)).empty());
    const auto went = go_back(project, *project.piece(ids[0]), look.versions[0], 5);
    ASSERT_TRUE(went) << went.error().message();
    EXPECT_EQ(went->piece.edit(), again.piece(ids[0])->edit());
    EXPECT_EQ(get_file(file), get_file(project.version_file(look.versions[0].hash)));
    EXPECT_EQ(versions_of(project, *project.piece(ids[0])).size(), 2u);

    // Left out: an opaque picture, and the game's own alpha comes back.
    const auto old_file = project.piece(ids[0])->file;
    project.put_away(ids[0]);
    const auto plain = take_pieces(context, project, std::vector{at("front/awning_diff.dds")}, {ExportAs::png, AlphaWay::left_out}, 6);
    ASSERT_EQ(plain.pieces.size(), 1u) << (plain.errors.empty() ? "" : plain.errors[0].message());
    EXPECT_EQ(plain.pieces[0].file, old_file) << "it lies there as it would be written";
    EXPECT_TRUE(plain.pieces[0].more.empty());
    EXPECT_EQ(fit_piece(context, project, plain.pieces[0])->change.changed_texels, 0u);
}
