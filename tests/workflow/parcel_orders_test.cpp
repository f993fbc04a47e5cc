// Three overlapping parcels, put in and taken out in every order: the game's files hold exactly what the parcels that stay would have made
// alone, whatever the kind of archive and the format; and with none left the original's bytes.
#include <gtest/gtest.h>

#include <fmt/format.h>
#include <filesystem>
#include <random>
#include <string>
#include <vector>

#include "base/file_write.h"
#include "base/hash.h"
#include "base/keys.h"
#include "base/pack.h"
#include "codec/codec.h"
#include "container/texture_files.h"
#include "support/archives.h"
#include "support/faulty_files.h"
#include "support/places.h"
#include "support/run_program.h"
#include "workflow/opening.h"
#include "workflow/parcels.h"

using namespace skivet;
using namespace skivet::test;

namespace {

using Tree = std::map<std::string, Bytes>;

struct Kind {
    std::string name;
    std::function<Tree(const Bytes& a, const Bytes& b)> files;  ///< of two textures
    std::string source;                                         ///< file or folder among them
    std::vector<std::string> a, b;                              ///< paths inside
    bool sheets = false;
};

void PrintTo(const Kind& kind, std::ostream* out) { *out << kind.name; }

Kind zip_kind(bool deflated) {
    return {deflated ? "zip_deflated" : "zip_stored",
            [=](const Bytes& a, const Bytes& b) {
                return Tree{{"g.zip", make_zip({{"x/a.dds", a, deflated}, {"pad", random_bytes(90, 1)}, {"x/b.dds", b, deflated}})}};
            },
            "g.zip",
            {"x/a.dds"},
            {"x/b.dds"}};
}
const std::vector<Kind>& kinds() {
    static const std::vector<Kind> all = {
        zip_kind(false),
        zip_kind(true),
        {"tar",
         [](const Bytes& a, const Bytes&) {
             return Tree{{"g.tar", tar_of("a.dds", a)}};
         },
         "g.tar",
         {"a.dds"},
         {"a.dds"}},
        {"packed_tar",
         [](const Bytes& a, const Bytes&) {
             return Tree{{"g.tar.zst", *pack(Packing::zstd, tar_of("a.dds", a))}};
         },
         "g.tar.zst",
         {"a.dds"},
         {"a.dds"}},
        {"folder",
         [](const Bytes& a, const Bytes& b) {
             return Tree{{"f/x/a.dds", a}, {"f/b.dds", b}, {"f/c.txt", random_bytes(40, 2)}};
         },
         "f",
         {"x/a.dds"},
         {"b.dds"}},
        {"zip_in_folder",
         [](const Bytes& a, const Bytes& b) {
             return Tree{{"f/g.zip", make_zip({{"a.dds", a, true}})}, {"f/b.dds", b}};
         },
         "f",
         {"g.zip", "a.dds"},
         {"b.dds"}},
        {"zip_in_crate_in_zip",
         [](const Bytes& a, const Bytes& b) {
             return Tree{
                 {"g.zip", make_zip({{"in.crate", make_crate({{"in.zip", make_zip({{"a.dds", a, true}})}, {"b.dds", b, true}}), true}})}};
         },
         "g.zip",
         {"in.crate", "in.zip", "a.dds"},
         {"in.crate", "b.dds"},
         true},
        {"index_with_data_files", [](const Bytes& a, const Bytes& b) { return index_of(a, b); }, "g.index", {"a"}, {"b"}, true},
        {"encrypted",
         [](const Bytes& a, const Bytes& b) {
             return Tree{{"g.strongbox", strongbox_of(a, b)}};
         },
         "g.strongbox",
         {"a"},
         {"b"},
         true},
        {"hashed_names",
         [](const Bytes& a, const Bytes& b) {
             return Tree{{"g.hamper", hamper_of(a, b)}};
         },
         "g.hamper",
         {"#11111111"},
         {"#22222222"},
         true},
        {"seven_zip",
         [](const Bytes& a, const Bytes& b) {
             return Tree{{"g.7z", archive_of("7zip", a, b)}};
         },
         "g.7z",
         {"a"},
         {"b"}},
    };
    return all;
}

/// What a parcel does to one texture.
struct Paint {
    bool second;  ///< in the second texture
    std::uint32_t x, y, side;
    Texel color;
};

TextureFile painted(const TextureFile& original, const Paint& paint) {
    auto out = original;
    std::vector<SurfaceEdit> edits;
    for (std::size_t s = 0; s < original.layout.surfaces.size(); ++s) {
        const auto& surface = original.layout.surfaces[s];
        const auto before = *original.decode(surface.mip);
        auto image = before;
        const auto end_x = (paint.x + paint.side - 1) >> surface.mip, end_y = (paint.y + paint.side - 1) >> surface.mip;
        for (auto y = paint.y >> surface.mip; y <= end_y && y < image.height; ++y)
            for (auto x = paint.x >> surface.mip; x <= end_x && x < image.width; ++x) image.at(x, y) = paint.color;
        edits.push_back({s, *encode_changed(original.layout.desc.format, image, before, *original.surface_bytes(surface))});
    }
    out.file = *original.kind->replace(original.file, original.layout, edits);
    return out;
}

struct ParcelOrders : testing::TestWithParam<std::tuple<Kind, Format>> {
    TempFolder folder;
    ReadContext context;
    PosixFiles files;
    TextureFile a = open(make_dds(std::get<1>(GetParam()), 32, 32, 0, 1)), b = open(make_dds(std::get<1>(GetParam()), 32, 32, 0, 2));
    std::vector<Parcel> parcels;

    static TextureFile open(Bytes file) { return *TextureFile::open(TextureKinds::standard(), std::move(file), "x.dds", ReadLimits{}); }
    [[nodiscard]] const Kind& kind() const { return std::get<0>(GetParam()); }
    void SetUp() override {
        if (kind().sheets) {
            ASSERT_TRUE(add_sheets_in(context, sheets_folder).empty());
            auto ring = std::make_shared<KeyRing>();
            ring->add(*parse_key("cashbox=000102030405060708090a0b0c0d0e0f"));
            context.keys = ring;
        }
        // Red and green meet in the first texture, blue lies beside them; in the second all three have a place of their own.
        const std::vector<std::vector<Paint>> paints = {
            {{false, 0, 0, 12, {240, 20, 20, 255}}, {true, 0, 0, 8, {240, 20, 20, 255}}},
            {{false, 8, 8, 8, {20, 240, 20, 255}}, {true, 16, 0, 8, {20, 240, 20, 255}}},
            {{false, 20, 20, 8, {20, 20, 240, 255}}, {true, 0, 16, 8, {20, 20, 240, 255}}},
        };
        const bool one_texture = kind().a == kind().b;
        const char* names[] = {"red", "green", "blue"};
        for (std::size_t i = 0; i < 3; ++i) {
            Parcel parcel;
            parcel.about.id = parcel.about.title = names[i];
            for (const auto& paint : paints[i]) {
                if (paint.second && one_texture) continue;
                const auto& original = paint.second ? b : a;
                auto texture = *parcel_texture(original, painted(original, paint), false);
                texture.source = std::filesystem::path(kind().source).filename().string();
                texture.inner = paint.second ? kind().b : kind().a;
                parcel.textures.push_back(std::move(texture));
            }
            parcels.push_back(std::move(parcel));
        }
    }

    /// A game and a project about it.
    struct World {
        std::filesystem::path game;
        Project project;
        Tree before;
    };
    World world(const std::string& name) {
        World out;
        out.game = folder / name / "game";
        if (files_.empty()) files_ = kind().files(a.file, b.file);  // archivers write the time
        out.before = files_;
        for (const auto& [file, content] : out.before) put_file(out.game / file, content);
        out.project = *open_project(folder / name / "project");
        out.project.sources = {out.game / kind().source};
        return out;
    }
    static Tree tree_of(const std::filesystem::path& game) {
        Tree out;
        for (const auto& item : std::filesystem::recursive_directory_iterator(game))
            if (item.is_regular_file()) out[item.path().lexically_relative(game).string()] = get_file(item.path());
        return out;
    }
    void change(World& w, Result<ParcelStack> wanted, const std::string& title) {
        ASSERT_TRUE(wanted) << wanted.error().message();
        const Vault vault = vault_of(w.project, files);
        const auto plan = plan_stack(context, w.project, vault, *wanted, title);
        ASSERT_TRUE(plan) << plan.error().message();
        ASSERT_FALSE(plan->error()) << plan->error()->message();
        const auto done = deliver_stack(context, *plan, vault, 7);
        ASSERT_FALSE(done.error) << done.error->message();
        note_stack(w.project, *plan, done);
    }
    void install(World& w, std::size_t parcel) {
        const auto vault = vault_of(w.project, files);
        Progress progress;
        const auto matches = match_parcel(context, w.project, vault, parcels[parcel], progress);
        ASSERT_TRUE(matches) << matches.error().message();
        for (const auto& match : *matches) EXPECT_EQ(match.how, MatchHow::fits) << match.note;
        ReadMod mod{parcels[parcel], *write_parcel(parcels[parcel]), {}};
        change(w, stack_with(w.project, mod, *matches, 5), parcels[parcel].about.title + " installed");
    }
    void remove(World& w, std::size_t parcel) {
        change(w, stack_without(context, w.project, parcels[parcel].about.id), parcels[parcel].about.title + " taken out");
    }
    /// What these parcels alone make of a game, put in one after the other.
    const Tree& alone(const std::vector<std::size_t>& order) {
        auto& known = known_[order];
        if (known.empty()) {
            auto w = world(fmt::format("alone{}", known_.size()));
            for (const auto i : order) install(w, i);
            known = tree_of(w.game);
        }
        return known;
    }
    std::map<std::vector<std::size_t>, Tree> known_;
    Tree files_;
};

}  // namespace

TEST_P(ParcelOrders, WhatStaysIsWhatTheOthersAloneWouldMake) {
    std::vector<std::size_t> in{0, 1, 2};
    unsigned worlds = 0;
    do {
        std::vector<std::size_t> out{0, 1, 2};
        do {
            auto w = world(fmt::format("w{}", worlds++));
            std::vector<std::size_t> there;
            for (const auto i : in) {
                install(w, i);
                if (HasFatalFailure()) return;
                there.push_back(i);
                ASSERT_EQ(tree_of(w.game), alone(there)) << "after putting " << i << " in";
            }
            for (const auto i : out) {
                remove(w, i);
                if (HasFatalFailure()) return;
                std::erase(there, i);
                ASSERT_EQ(tree_of(w.game) == (there.empty() ? w.before : alone(there)), true)
                    << "after taking " << i << " out of " << in[0] << in[1] << in[2];
            }
            EXPECT_TRUE(w.project.stack_state.stack.empty());
            std::filesystem::remove_all(w.game.parent_path());
        } while (std::next_permutation(out.begin(), out.end()));
    } while (std::next_permutation(in.begin(), in.end()));
}

TEST_P(ParcelOrders, UndoingEachStepGoesBackTheSameWay) {
    auto w = world("undo");
    std::vector<Tree> trees{w.before};
    for (const std::size_t i : {2, 0, 1}) {
        install(w, i);
        trees.push_back(tree_of(w.game));
    }
    remove(w, 0);
    if (HasFatalFailure()) return;
    // A project that is opened again knows as much.
    ASSERT_TRUE(save_project(w.project));
    w.project = *open_project(w.project.folder);
    ASSERT_EQ(w.project.stack_state.stack.layers.size(), 3u) << "two parcels, and one's own work";
    auto history = *vault_of(w.project, files).history();
    // Where red had given way to green already, taking it out writes nothing.
    const bool wrote = kind().a != kind().b;
    ASSERT_EQ(history.size(), wrote ? 4u : 3u);
    EXPECT_EQ(history.back().title, wrote ? "red taken out" : "green installed");
    const auto too_early = undo_delivery(context, w.project, vault_of(w.project, files), history[1].id);
    EXPECT_FALSE(too_early.status) << "a newer change stands on it";
    for (std::size_t step = history.size(); step-- > 0;) {
        const auto undone = undo_delivery(context, w.project, vault_of(w.project, files), history[step].id);
        ASSERT_TRUE(undone.status) << undone.status.error().message();
        note_undone(w.project, undone);
        EXPECT_EQ(tree_of(w.game), trees[step == 3 ? 3 : step]);
        EXPECT_EQ(w.project.stack_state.steps.size(), step);
    }
    EXPECT_TRUE(w.project.stack_state.stack.empty());
}

TEST_P(ParcelOrders, ACrashAnywhereLeavesTheOldStackOrTheNew) {
    // Red goes and blue comes, in one step.
    const auto start = [&](const std::string& name) {
        auto w = world(name);
        install(w, 0);
        install(w, 1);
        return w;
    };
    const auto planned = [&](World& w) {
        w.project.stack_state.stack = *stack_without(context, w.project, "red");
        Progress progress;
        const ReadMod mod{parcels[2], *write_parcel(parcels[2]), {}};
        const auto wanted =
            stack_with(w.project, mod, *match_parcel(context, w.project, vault_of(w.project, files), parcels[2], progress), 5);
        w.project = *open_project(w.project.folder);
        return *plan_stack(context, w.project, vault_of(w.project, files), *wanted, "another");
    };
    auto good = start("good");
    const auto before = tree_of(good.game);
    ASSERT_TRUE(save_project(good.project));
    const auto plan = planned(good);
    ASSERT_FALSE(deliver_stack(context, plan, vault_of(good.project, files), 7).error);
    const auto after = tree_of(good.game);
    ASSERT_NE(before, after);
    int olds = 0, news = 0;
    for (int n = 0; n < 300; n += 1 + n / 12) {
        auto w = start(fmt::format("f{}", n));
        ASSERT_TRUE(save_project(w.project));
        const auto this_plan = planned(w);
        note_pending(w.project, this_plan, *vault_of(w.project, files).history());
        ASSERT_TRUE(save_project(w.project));
        FaultyFiles faulty(n);
        const auto done = deliver_stack(context, this_plan, Vault(w.project.vault(), faulty), 7);
        if (!done.error && faulty.operations <= n) break;
        faulty.lose_power(n % 2 ? Loss::keep_all : Loss::drop_unsynced);
        // The next start.
        w.project = *open_project(w.project.folder);
        auto vault = Vault(w.project.vault(), files);
        const auto recovered = vault.recover();
        ASSERT_TRUE(recovered && recovered->set_aside.empty() && recovered->waiting.empty()) << n;
        (void)settle_pending(w.project, *vault.history());
        const auto found = tree_of(w.game);
        ASSERT_TRUE(found == before || found == after) << "operation " << n << ": a third state";
        (found == before ? olds : news) += 1;
        const auto& stack = w.project.stack_state.stack;
        EXPECT_EQ(stack.find("blue").has_value(), found == after) << "operation " << n;
        EXPECT_EQ(stack.find("red").has_value(), found == before) << "operation " << n;
        std::filesystem::remove_all(w.game.parent_path());
    }
    EXPECT_GT(olds, 3);
}

namespace {
std::vector<std::tuple<Kind, Format>> combinations() {
    std::vector<std::tuple<Kind, Format>> out;
    for (const auto& kind : kinds()) out.emplace_back(kind, Format::BC1);
    for (const auto format : {Format::BC7, Format::BC3, Format::RGBA8, Format::B5G6R5, Format::RGBA16F})
        out.emplace_back(kinds()[1], format);
    out.emplace_back(kinds()[4], Format::BC5);
    return out;
}
}  // namespace

INSTANTIATE_TEST_SUITE_P(Everywhere, ParcelOrders, testing::ValuesIn(combinations()), [](const auto& p) {
    return std::get<0>(p.param).name + "_" + std::string(skivet::info(std::get<1>(p.param)).name);
});
