// The archives of the stand-in game that a sheet describes, a tool left behind, or the weather got at: found, opened, changed, read by the
// game, and put back. fair-press, fair-stall and fair-dump share no code with the core.
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "bench/fitting.h"
#include "catalog/names.h"
#include "container/draft_sheet.h"
#include "container/sheet_try.h"
#include "container/sift.h"
#include "container/texture_files.h"
#include "delivery/vault.h"
#include "support/places.h"
#include "support/run_program.h"
#include "support/sources.h"
#include "support/temp_folder.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct FairArchives : testing::Test {
    TempFolder folder;
    std::filesystem::path game = folder / "Brindle Fair";
    ReadContext context;
    PosixFiles files;

    void SetUp() override {
        std::filesystem::copy(fairground_folder, game, std::filesystem::copy_options::recursive);
        ASSERT_TRUE(add_sheets_in(context, sheets_folder).empty());
    }
    void add_key() {
        auto ring = std::make_shared<KeyRing>();
        ring->add(*parse_key("cashbox=@" + (game / "cashbox key.txt").string()));
        context.keys = ring;
    }
    /// Everything the game says while it draws; empty when it is content.
    std::string complaints() {
        const auto ran = run_program({our_program("fair-stall"), game.string(), "--shot", (folder / "shot.png").string()});
        std::string out = ran.code == 0 ? "" : "it does not start\n";
        std::istringstream lines(ran.output);
        for (std::string line; std::getline(lines, line);)
            if (line.starts_with("fair-stall:") && line.find("weathered/nail.dds is damaged") == std::string::npos) out += line + '\n';
        return out;
    }
    /// Paints a green square into a texture and delivers it.
    Status paint(const Address& address) {
        SKIVET_TRY(const auto original, open_texture_at(context, address));
        SKIVET_TRY(auto image, original.decode(0));
        for (std::uint32_t y = image.height / 4; y < image.height / 2; ++y)
            for (std::uint32_t x = image.width / 4; x < image.width / 2; ++x) image.at(x, y) = {20, 200, 40, 255};
        SKIVET_TRY(const auto png, write_png(image));
        SKIVET_TRY(const auto edited, read_edited(png, context.limits));
        SKIVET_TRY(auto fitted, fit(original, edited, {}));
        if (fitted.blocked()) return fail(ErrorCode::unfit, fitted.findings[0].headline);
        SKIVET_TRY(const auto plan, plan_replacement(context, address, fitted.file));
        SKIVET_TRY(const auto done, Vault(folder / "vault", files).deliver(plan, {"t", address.source, address.inner}, 1));
        (void)done;
        SKIVET_TRY(const auto back, read_texture_bytes(context, address));
        return back == fitted.file ? Status() : Status(fail(ErrorCode::io, "it does not read back"));
    }
};

}  // namespace

TEST_F(FairArchives, EveryKindIsChangedAsTheGameWantsItAndPutBack) {
    add_key();
    std::map<std::string, std::string> before;
    for (const auto& item : std::filesystem::directory_iterator(game))
        if (item.is_regular_file()) before[item.path().filename().string()] = hash_of_file(item.path());
    EXPECT_EQ(complaints(), "");
    const Address places[] = {
        {game / "sideshow.bale", {"curtains.roll", "front_curtain.pnl"}},  // a texture in a roll in a crate in a bale
        {game / "lanterns.index", {"lanterns/paper_blue.pnl"}},
        {game / "cashbox.strongbox", {"cashbox/ticket_gold.pnl"}},
        {game / "puppets.hamper", {"puppets/king_tint.pnl"}},
        {game / "organ.zip", {"carnival/arch.stp"}},  // its largest level is deflated in a file of its own
        {game / "zz_spare.crate", {"carousel/mirror.pnl"}},
        {game / "weathered.zip", {"weathered/plank.dds"}},  // the entry beside it is damaged
    };
    for (const auto& address : places) {
        const auto done = paint(address);
        ASSERT_TRUE(done) << address.text() << ": " << done.error().message();
        EXPECT_EQ(complaints(), "") << address.text();
        EXPECT_NE(hash_of_file(address.source.extension() == ".index" ? game / "lanterns-01.stock" : address.source),
                  before[address.source.extension() == ".index" ? "lanterns-01.stock" : address.source.filename().string()])
            << address.text();
    }
    ASSERT_TRUE(Vault(folder / "vault", files).restore_all());
    for (const auto& [name, hash] : before) EXPECT_EQ(hash_of_file(game / name), hash) << name;
}

TEST_F(FairArchives, EntriesComeAndGoAsTheGameWantsIt) {
    using What = AddressedChange::What;
    add_key();
    EXPECT_EQ(complaints(), "");
    const struct {
        const char* archive;
        std::vector<std::string> like;
    } places[] = {{"rides.crate", {"carousel/horse_a_tint.pnl"}},
                  {"lanterns.index", {"lanterns/paper_blue.pnl"}},
                  {"cashbox.strongbox", {"cashbox/ticket_gold.pnl"}},
                  {"sideshow.bale", {"games.roll", ""}},
                  {"organ.zip", {"organ.crate", ""}}};
    for (const auto& [name, like] : places) {
        const auto archive = game / name;
        const auto before = hash_of_file(archive);
        auto inner = like;
        if (inner.back().empty()) {  // any entry of an archive inside
            const auto outer = *open_source(context, archive);
            inner.back() = (*open_container(context, *outer->view(*outer->find(inner.front()), context.limits)))->entries()[0].path;
        }
        auto variant = inner, gone = inner;
        variant.back() = "fresh/new.pnl";
        const auto content = *read_entry(context, **open_source(context, archive), inner);
        // A variant beside its original, another one that goes again, and a name that changes twice.
        const std::vector<std::vector<AddressedChange>> steps = {{{What::add, variant, content, inner.back()}},
                                                                 {{What::rename, variant, {}, "fresh/other.pnl"}}};
        for (const auto& step : steps) {
            auto plan = plan_changes(context, **open_source(context, archive), step);
            ASSERT_TRUE(plan) << name << ": " << plan.error().message();
            const auto done = Vault(folder / "vault", files).deliver({{archive, {}, std::move(*plan)}}, name, 1, [&]() -> Status {
                return check_changes(context, **open_source(context, archive), step);
            });
            ASSERT_TRUE(done) << name << ": " << done.error().message();
            EXPECT_EQ(complaints(), "") << name << ": the game reads it with one entry more";
        }
        gone.back() = "fresh/other.pnl";
        EXPECT_EQ(*read_entry(context, **open_source(context, archive), gone), content);
        auto plan = plan_changes(context, **open_source(context, archive), {{What::remove, gone}});
        ASSERT_TRUE(plan) << name << ": " << plan.error().message();
        ASSERT_TRUE(Vault(folder / "vault", files).deliver({{archive, {}, std::move(*plan)}}, name, 1));
        EXPECT_EQ(complaints(), "") << name << ": and without it";
        ASSERT_TRUE(Vault(folder / "vault", files).restore_all());
        EXPECT_EQ(hash_of_file(archive), before) << name;
    }
}

TEST_F(FairArchives, AMissingKeyIsSaidAsSuch) {
    const auto locked = open_source(context, game / "cashbox.strongbox");
    ASSERT_FALSE(locked);
    EXPECT_EQ(locked.error().code, ErrorCode::key);
    EXPECT_NE(locked.error().message().find("\"cashbox\" is not in the key ring"), std::string::npos) << locked.error().message();
    auto ring = std::make_shared<KeyRing>();
    ring->add(*parse_key("cashbox=00112233445566778899aabbccddeeff"));
    context.keys = ring;
    const auto wrong = open_source(context, game / "cashbox.strongbox");
    ASSERT_FALSE(wrong);
    EXPECT_EQ(wrong.error().code, ErrorCode::key) << "a wrong key is no damage: " << wrong.error().message();
}

TEST_F(FairArchives, NamesOfTheHamperAreFoundInAScene) {
    const auto paths = sources_of(context, game);
    const auto sources = open_sources(context, paths);
    Progress progress;
    const auto found = find_names(context, sources, progress);
    ASSERT_TRUE(found);
    std::set<std::string> names;
    for (const auto& name : *found) {
        names.insert(name.path);
        EXPECT_EQ(sources[name.source].path.filename(), "puppets.hamper");
        EXPECT_EQ(name.found_in, "puppets/stage.scene");
    }
    EXPECT_EQ(names, (std::set<std::string>{"puppets/stage_front.pnl", "puppets/fool_tint.dds"}));
    for (const auto& name : names) context.known_paths.push_back(name);
    const auto hamper = *open_source(context, game / "puppets.hamper");
    EXPECT_EQ(hamper->unnamed(), 1u) << "nobody names the queen";
    EXPECT_TRUE(hamper->find("puppets/stage_front.pnl"));
}

TEST_F(FairArchives, SheetsAreDraftedFromThePlainCrateAndTheIndex) {
    ReadContext plain;  // without the shipped sheets
    for (const char* name : {"rides.crate", "lanterns.index"}) {
        const auto draft = draft_sheet(plain, *FileView::open(game / name), Progress{});
        ASSERT_TRUE(draft) << name << ": " << draft.error().message();
        const auto file = folder / (std::string(name) + ".toml");
        put_file(file, as_bytes(draft->toml));
        ReadContext drafted;
        ASSERT_TRUE(add_sheet(drafted, file)) << draft->toml;
        const auto by_draft = open_source(drafted, game / name), by_sheet = open_source(context, game / name);
        ASSERT_TRUE(by_draft) << by_draft.error().message() << draft->toml;
        ASSERT_EQ((*by_draft)->entries().size(), (*by_sheet)->entries().size());
        for (std::size_t i = 0; i < (*by_draft)->entries().size(); ++i) {
            EXPECT_EQ((*by_draft)->entries()[i].path, (*by_sheet)->entries()[i].path);
            EXPECT_EQ(*(*by_draft)->read(i, plain.limits), *(*by_sheet)->read(i, plain.limits));
        }
        const auto proved = prove_writing(drafted, game / name, Progress{});
        EXPECT_TRUE(proved) << (proved ? "" : proved.error().message()) << draft->toml;
    }
}

TEST_F(FairArchives, ATextureThatLostAFileIsNamedAndShown) {
    const auto gate = open_texture_at(context, {game / "organ.zip", {"carnival/gate.stp"}});
    ASSERT_TRUE(gate) << gate.error().message();
    ASSERT_TRUE(gate->layout.damage);
    EXPECT_NE(gate->layout.damage->message().find("gate.step0 is missing"), std::string::npos) << gate->layout.damage->message();
    EXPECT_EQ(first_level_there(gate->layout), 1u);
    EXPECT_TRUE(gate->decode(1));
    const auto small = thumbnail(*gate, 64);
    ASSERT_TRUE(small);
    EXPECT_EQ(small->width, 64u);
    const auto arch = open_texture_at(context, {game / "organ.zip", {"carnival/arch.stp"}});
    ASSERT_TRUE(arch);
    EXPECT_FALSE(arch->layout.damage);
    EXPECT_TRUE(arch->decode(0));
}

TEST_F(FairArchives, SiftingDoesNotTakeForeignBytesForATexturesLevels) {
    const auto view = FileView::open(game / "organ.zip");
    Progress progress;
    const auto hits = sift(context, *view->bytes(), progress);
    ASSERT_TRUE(hits);
    EXPECT_GE(hits->size(), 3u);
    for (const auto& hit : *hits) EXPECT_NE(hit.kind, "Fair stepped texture") << "its large levels are in other files, not behind it";
}

TEST_F(FairArchives, TheDamagedEntryIsNamedTheOthersAreRead) {
    const auto weathered = open_source(context, game / "weathered.zip");
    ASSERT_TRUE(weathered);
    EXPECT_TRUE((*weathered)->read(*(*weathered)->find("weathered/plank.dds"), context.limits));
    const auto nail = (*weathered)->read(*(*weathered)->find("weathered/nail.dds"), context.limits);
    ASSERT_FALSE(nail);
    EXPECT_EQ(nail.error().code, ErrorCode::damaged);
    EXPECT_NE(nail.error().message().find("weathered/nail.dds"), std::string::npos);
}

TEST_F(FairArchives, ADumpCutIntoPartsIsTheSameGame) {
    ASSERT_EQ(run_program({our_program("fair-dump"), game.string(), (folder / "card").string(), "--limit", "300000"}).code, 0);
    EXPECT_TRUE(std::filesystem::exists(folder / "card/base/rides.crate.00"));
    EXPECT_FALSE(std::filesystem::exists(folder / "card/base/rides.crate"));
    EXPECT_TRUE(std::filesystem::exists(folder / "card/update/autumn.crate"));
    const auto whole = open_source(context, game / "rides.crate");
    const auto cut = open_source(context, folder / "card/base");
    ASSERT_TRUE(cut) << cut.error().message();
    ASSERT_TRUE((*cut)->find("rides.crate")) << "the parts appear as one file";
    for (const auto* name : {"carousel/horse_a_tint.pnl", "lights/lamp.pnl"}) {
        const auto entry = read_entry(context, **cut, {"rides.crate", name});
        ASSERT_TRUE(entry) << entry.error().message();
        EXPECT_EQ(*entry, *(*whole)->read(*(*whole)->find(name), context.limits));
    }
    // As a game's folder of its own it has the crate among its sources, by its first part.
    for (const bool order : {true, false}) {
        if (!order) std::filesystem::remove(folder / "card/base/load_order.txt");
        const auto paths = sources_of(context, folder / "card/base");
        const auto first = std::find_if(paths.begin(), paths.end(), [](const auto& p) { return p.filename() == "rides.crate.00"; });
        ASSERT_NE(first, paths.end()) << (order ? "by the load order" : "by looking");
        const auto crate = open_source(context, *first);
        ASSERT_TRUE(crate) << crate.error().message();
        EXPECT_EQ((*crate)->entries().size(), (*whole)->entries().size());
    }
    // And it can be changed there.
    const Address address{folder / "card/base", {"rides.crate", "carousel/horse_a_tint.pnl"}};
    const auto before = get_file(folder / "card/base/rides.crate.00");
    ASSERT_TRUE(paint(address));
    EXPECT_NE(get_file(folder / "card/base/rides.crate.00"), before);
    ASSERT_TRUE(Vault(folder / "vault", files).restore_all());
    EXPECT_EQ(get_file(folder / "card/base/rides.crate.00"), before);
}

TEST_F(FairArchives, AFrameRecordSaysWhatWasDrawnFromWhere) {
    ASSERT_EQ(run_program({our_program("fair-stall"), game.string(), "--record", (folder / "frame.jsonl").string()}).code, 0);
    const auto text = as_text(get_file(folder / "frame.jsonl"));
    EXPECT_NE(text.find("\"archive\":\"zz_spare.crate\""), std::string::npos) << "what a tool left behind wins over the crate";
    EXPECT_NE(text.find("\"texture\":\"carousel/swan_variant.pnl\""), std::string::npos);
    EXPECT_EQ(text.find("\"texture\":\"carousel/swan.pnl\""), std::string::npos)
        << "the name misleads: the variant is the one that is shown";
}
