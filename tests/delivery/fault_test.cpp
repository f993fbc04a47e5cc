// Every operation of a delivery and of an undo fails or loses power, one after the other. After the next start the archive is the old one
// or the new one, never a third.
#include <gtest/gtest.h>

#include <filesystem>
#include <map>
#include <string>
#include <vector>

#include "base/cipher.h"
#include "base/hash.h"
#include "base/keys.h"
#include "base/pack.h"
#include "container/address.h"
#include "delivery/device.h"
#include "delivery/vault.h"
#include "support/archives.h"
#include "support/faulty_files.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

using Tree = std::map<std::string, Bytes>;

/// One delivery: what the game folder holds before, and which entries get what.
struct Case {
    std::string name;
    Tree before;
    std::vector<std::tuple<std::string, std::vector<std::string>, Bytes>> pieces;  ///< source, steps inside, content
    bool compact = false;                                                          ///< instead: the source's dead space is given back
    std::string created;                                                           ///< also: a new file
    std::map<std::string, std::vector<AddressedChange>> changes;                   ///< also, by source: entries that come and go
    std::uint64_t card = 0;  ///< instead: what the source becomes is copied to a card, in files of so many bytes
};

/// A texture of 8 × 8 texels in three files, and its joined bytes.
struct Stepped {
    Bytes own, top = random_bytes(32, 21), second = random_bytes(8, 22), joined;
    Stepped() {
        ByteWriter w;
        w.put("STEP");
        for (int i = 0; i < 2; ++i) w.le(std::uint16_t{8});
        for (const auto v : {1, 4, 2, 1}) w.le(static_cast<std::uint8_t>(v));
        w.put(random_bytes(16, 23));
        own = joined = w.bytes;
        joined.insert(joined.end(), top.begin(), top.end());
        joined.insert(joined.end(), second.begin(), second.end());
    }
};

const std::vector<Case>& cases();
std::vector<Case> make_cases() {
    const auto a = random_bytes(300, 1), b = random_bytes(400, 2), c = random_bytes(900, 3), fresh = random_bytes(2000, 9);
    const auto large = random_bytes(200'000, 4);
    const auto same = random_bytes(300, 9);
    const auto zip = make_zip({{"a", a}, {"b", b, true}, {"c", c}});
    const auto crate = make_crate({{"a", a}, {"b", b, true}, {"c", c}});
    const auto deep_zip = make_zip({{"pad", b}, {"in.crate", crate, true}});
    const auto deeper = make_crate({{"x", c}, {"in.zip", deep_zip, true}});
    auto dead = zip;
    {
        const auto opened = open_container(ReadContext{}, FileView::of(zip, "z"));
        const auto plan = *(*opened)->plan(std::vector<Replacement>{{0, fresh}}, ReadLimits{});
        dead = *planned_bytes(plan.files[0], zip);
    }
    std::vector<Case> out = {
        {"zip in place", {{"g.zip", zip}}, {{"g.zip", {"a"}, same}}},
        {"zip grows", {{"g.zip", zip}}, {{"g.zip", {"b"}, fresh}}},
        {"zip shrinks", {{"g.zip", zip}}, {{"g.zip", {"c"}, {}}}},
        {"zip compact", {{"g.zip", dead}}, {{"g.zip", {}, {}}}, true},
        {"crate in place", {{"g.crate", crate}}, {{"g.crate", {"a"}, same}}},
        {"crate grows", {{"g.crate", crate}}, {{"g.crate", {"b"}, fresh}}},
        {"tar in place", {{"g.tar", tar_of("a", a)}}, {{"g.tar", {"a"}, same}}},
        {"tar rebuilt", {{"g.tar", tar_of("a", a)}}, {{"g.tar", {"a"}, fresh}}},
        {"packed file rebuilt", {{"g.gz", *pack(Packing::gzip, a)}}, {{"g.gz", {"g"}, fresh}}},
        {"packed tar rebuilt", {{"g.tar.zst", *pack(Packing::zstd, tar_of("a", a))}}, {{"g.tar.zst", {"a"}, fresh}}},
        {"crate in zip", {{"g.zip", deep_zip}}, {{"g.zip", {"in.crate", "b"}, fresh}}},
        {"crate in zip in crate", {{"g.crate", deeper}}, {{"g.crate", {"in.zip", "in.crate", "b"}, fresh}}},
        {"loose files", {{"f/a", a}, {"f/b", b}}, {{"f", {"a"}, fresh}, {"f", {"b"}, {}}}},
        {"zip in a folder", {{"f/g.zip", zip}, {"f/b", b}}, {{"f", {"g.zip", "b"}, fresh}, {"f", {"b"}, a}}},
        {"two archives and a new file",
         {{"g.zip", zip}, {"g.tar", tar_of("a", a)}},
         {{"g.zip", {"b"}, fresh}, {"g.tar", {"a"}, fresh}},
         false,
         "override/rides/new.dds"},
        {"7z rebuilt", {{"g.7z", archive_of("7zip", a, b)}}, {{"g.7z", {"b"}, fresh}}},
        {"cpio rebuilt", {{"g.cpio", archive_of("newc", a, b)}}, {{"g.cpio", {"a"}, fresh}}},
        {"tar whose end moves", {{"g.tar", archive_of("ustar", large, b)}}, {{"g.tar", {"b"}, fresh}}},
        {"cpio whose end shrinks", {{"g.cpio", archive_of("newc", large, b)}}, {{"g.cpio", {"b"}, {}}}},
        {"index with data files in place", index_of(a, b), {{"g.index", {"a"}, same}}},
        {"index with data files grows", index_of(a, b), {{"g.index", {"a"}, fresh}, {"g.index", {"b"}, fresh}}},
        {"encrypted grows", {{"g.strongbox", strongbox_of(a, b)}}, {{"g.strongbox", {"a"}, fresh}}},
        {"encrypted in place", {{"g.strongbox", strongbox_of(a, b)}}, {{"g.strongbox", {"a"}, same}}},
        {"hashed names grow", {{"g.hamper", hamper_of(a, b)}}, {{"g.hamper", {"#11111111"}, fresh}}},
        {"roll in crate in bale",
         {{"g.bale", bale_of(make_crate({{"r.roll", roll_of(a, b)}, {"c", c}}))}},
         {{"g.bale", {"r.roll", "a"}, fresh}}},
        {"file cut into parts",
         {{"f/g.crate.00", Bytes(crate.begin(), crate.begin() + 500)}, {"f/g.crate.01", Bytes(crate.begin() + 500, crate.end())}},
         {{"f", {"g.crate", "a"}, same}}},
    };
    using What = AddressedChange::What;
    out.push_back({"zip entries come and go",
                   {{"g.zip", zip}},
                   {},
                   false,
                   {},
                   {{"g.zip", {{What::add, {"d"}, fresh, "a"}, {What::remove, {"b"}}, {What::rename, {"c"}, {}, "e/f"}}}}});
    out.push_back({"tar entry taken out", {{"g.tar", tar_of("a", a)}}, {}, false, {}, {{"g.tar", {{What::remove, {"a"}}}}}});
    out.push_back({"loose files come and go",
                   {{"f/a", a}, {"f/b", b}, {"f/sub/c", c}, {"f/empty", {}}},
                   {},
                   false,
                   {},
                   {{"f",
                     {{What::add, {"new/d"}, fresh},
                      {What::remove, {"b"}},
                      {What::remove, {"empty"}},
                      {What::rename, {"sub/c"}, {}, "other/c"},
                      {What::replace, {"a"}, same}}}}});
    out.push_back({"zip onto a card whole", {{"g.zip", zip}}, {{"g.zip", {"b"}, fresh}}, false, {}, {}, 1u << 20});
    out.push_back({"zip onto a card in parts", {{"g.zip", zip}}, {{"g.zip", {"b"}, fresh}}, false, {}, {}, 600});
    const Stepped stepped;
    auto painted = stepped.joined;
    painted[stepped.own.size() + 3] ^= std::byte{7};   // the packed top level
    painted[stepped.own.size() + 34] ^= std::byte{7};  // the second one
    painted[20] ^= std::byte{7};                       // a small one
    out.push_back(
        {"texture in three files",
         {{"g.zip",
           make_zip({{"x/t.stp", stepped.own}, {"x/t.step0", *pack(Packing::zlib, stepped.top, 9)}, {"x/t.step1", stepped.second}})}},
         {{"g.zip", {"x/t.stp"}, painted}}});
    auto junk = random_bytes(300, 31);
    const auto dds = make_dds(Format::BC1, 16, 16);
    junk.insert(junk.end(), dds.begin(), dds.end());
    out.push_back({"sifted in place", {{"g.dat", junk}}, {{"g.dat", {"0x0000012c.dds"}, make_dds(Format::BC1, 16, 16, 0, 2)}}});
    return out;
}
const std::vector<Case>& cases() {
    static const auto all = make_cases();
    return all;
}

struct Faults : testing::TestWithParam<std::tuple<std::size_t, Loss>> {
    TempFolder folder;
    ReadContext context;
    Case c = cases()[std::get<0>(GetParam())];

    void SetUp() override {
        ASSERT_TRUE(add_sheets_in(context, sheets_folder).empty());
        context.choices.push_back({"g.dat", "sifting"});
        auto ring = std::make_shared<KeyRing>();
        ring->add(*parse_key("cashbox=000102030405060708090a0b0c0d0e0f"));
        context.keys = ring;
    }
    std::filesystem::path game() const { return folder / "game"; }
    Tree now() const {
        Tree out;
        for (const auto& item : std::filesystem::recursive_directory_iterator(game()))
            if (item.is_regular_file()) out[item.path().lexically_relative(game()).generic_string()] = get_file(item.path());
        return out;
    }
    std::vector<Share> shares() const {
        std::map<std::string, std::vector<AddressedBytes>> by_source;
        for (const auto& [source, inner, content] : c.pieces) by_source[source].push_back({inner, content});
        std::vector<Share> out;
        for (auto& [source, items] : by_source) {
            const auto opened = open_source(context, game() / source);
            auto plan = c.compact ? (*opened)->plan_compact(ReadLimits{}) : plan_replacements(context, **opened, std::move(items));
            EXPECT_TRUE(plan) << plan.error().message();
            EXPECT_FALSE(plan->empty());
            if (c.card > 0) {
                auto copy = plan_copy(game() / source, plan->files[0], game() / "card/mods" / source, {c.card, ".{nn}"});
                EXPECT_TRUE(copy) << copy.error().message();
                std::filesystem::create_directories(game() / "card");
                out.push_back({game() / "card", {}, std::move(*copy), true});
                continue;
            }
            out.push_back({game() / source, {}, std::move(*plan)});
        }
        for (const auto& [source, changes] : c.changes) {
            auto plan = plan_changes(context, **open_source(context, game() / source), changes);
            EXPECT_TRUE(plan) << plan.error().message();
            out.push_back({game() / source, {}, std::move(*plan)});
        }
        if (!c.created.empty()) {
            FilePlan made;
            made.file = game() / c.created;
            made.way = Way::create;
            made.ranges.push_back({0, random_bytes(500, 4), 0});
            made.new_size = 500;
            out.push_back({game() / "override", {}, {}});
            out.back().plan.files.push_back(std::move(made));
        }
        return out;
    }
    void reset() {
        std::error_code code;
        std::filesystem::remove_all(folder / "vault", code);
        std::filesystem::remove_all(game(), code);
        for (const auto& [name, content] : c.before) put_file(game() / name, content);
    }
};
INSTANTIATE_TEST_SUITE_P(All, Faults,
                         testing::Combine(testing::Range(std::size_t{0}, cases().size()),
                                          testing::Values(Loss::keep_all, Loss::drop_unsynced)),
                         [](const auto& p) {
                             auto name =
                                 cases()[std::get<0>(p.param)].name + (std::get<1>(p.param) == Loss::keep_all ? "" : " unsynced lost");
                             std::replace(name.begin(), name.end(), ' ', '_');
                             return name;
                         });

}  // namespace

TEST_P(Faults, ACrashBetweenAnyTwoOperationsOfADeliveryLeavesOldOrNew) {
    reset();
    PosixFiles good;
    ASSERT_TRUE(Vault(folder / "vault", good).deliver(shares(), "t", 1));
    const auto after = now();
    ASSERT_NE(after, c.before);
    int olds = 0, news = 0;
    for (int n = 0;; ++n) {
        reset();
        const auto planned = shares();
        FaultyFiles faulty(n);
        const auto done = Vault(folder / "vault", faulty).deliver(planned, "t", 1);
        if (done && faulty.operations <= n) break;  // nothing failed any more
        faulty.lose_power(std::get<1>(GetParam()));
        const auto recovered = Vault(folder / "vault", good).recover();
        ASSERT_TRUE(recovered) << "operation " << n << ": " << recovered.error().message();
        ASSERT_TRUE(recovered->set_aside.empty()) << "operation " << n << ": " << recovered->set_aside[0].message();
        ASSERT_TRUE(recovered->waiting.empty()) << "operation " << n << ": " << recovered->waiting[0].message();
        const auto found = now();
        ASSERT_TRUE(found == c.before || found == after) << "operation " << n << ": a third state";
        (found == c.before ? olds : news) += 1;
        // And the vault agrees with the files: what stands can be undone, what does not stand is not listed.
        ASSERT_EQ(Vault(folder / "vault", good).history()->size(), found == after ? 1u : 0u) << "operation " << n;
        ASSERT_LT(n, 300);
    }
    EXPECT_GT(olds, 5);
    std::printf("%s: %d crashes left the old files, %d the new ones\n", c.name.c_str(), olds, news);
}

TEST_P(Faults, ACrashDuringAnUndoEndsWithTheOldFiles) {
    PosixFiles good;
    for (int n = 0;; ++n) {
        reset();
        const auto journal = Vault(folder / "vault", good).deliver(shares(), "t", 1);
        ASSERT_TRUE(journal) << journal.error().message();
        const auto after = now();
        FaultyFiles faulty(n);
        const auto undone = Vault(folder / "vault", faulty).undo(journal->id);
        if (undone && faulty.operations <= n) break;
        faulty.lose_power(std::get<1>(GetParam()));
        const auto recovered = Vault(folder / "vault", good).recover();
        ASSERT_TRUE(recovered) << "operation " << n << ": " << recovered.error().message();
        ASSERT_TRUE(recovered->set_aside.empty()) << "operation " << n << ": " << recovered->set_aside[0].message();
        ASSERT_TRUE(recovered->waiting.empty()) << "operation " << n << ": " << recovered->waiting[0].message();
        const auto found = now();
        ASSERT_TRUE(found == c.before || found == after) << "operation " << n;
        if (found == after) ASSERT_TRUE(Vault(folder / "vault", good).undo(journal->id)) << "still possible";
        ASSERT_EQ(now(), c.before);
        ASSERT_LT(n, 300);
    }
}

TEST_P(Faults, OneFailureIsRolledBackAtOnce) {
    PosixFiles good;
    for (int n = 0;; ++n) {
        reset();
        const auto planned = shares();
        FaultyFiles faulty(n, true);
        const auto done = Vault(folder / "vault", faulty).deliver(planned, "t", 1);
        if (faulty.operations <= n) break;
        if (done) continue;
        EXPECT_EQ(done.error().code, ErrorCode::no_space);
        ASSERT_EQ(now(), c.before) << "operation " << n;
        const auto left = Vault(folder / "vault", good).recover();
        ASSERT_TRUE(left && left->rolled_back.empty() && left->set_aside.empty() && left->waiting.empty())
            << "nothing is left to do, operation " << n;
        ASSERT_LT(n, 300);
    }
}

TEST_P(Faults, AnotherProgramBetweenCrashAndRecoveryKeepsWhatItWrote) {
    // After every crash the game's updater puts a new version of every file there; what it wrote stays, and nothing is held up by it.
    PosixFiles good;
    for (int n = 0;; n += 3) {
        reset();
        const auto planned = shares();
        FaultyFiles faulty(n);
        const auto done = Vault(folder / "vault", faulty).deliver(planned, "t", 1);
        if (done && faulty.operations <= n) break;
        faulty.lose_power(std::get<1>(GetParam()));
        for (const bool longer : {false, true}) {
            const auto vault_before = folder / "vault.copy";
            std::error_code code;
            if (!longer) {
                std::filesystem::remove_all(vault_before, code);
                if (std::filesystem::exists(folder / "vault"))
                    std::filesystem::copy(folder / "vault", vault_before, std::filesystem::copy_options::recursive);
            } else {
                std::filesystem::remove_all(folder / "vault", code);
                if (std::filesystem::exists(vault_before)) std::filesystem::rename(vault_before, folder / "vault");
            }
            Tree updated;
            unsigned seed = 500;
            for (const auto& [name, content] : now()) {
                if (name.find(".skivet-") != std::string::npos) continue;  // ours, unfinished
                updated[name] = random_bytes(content.size() + (longer ? 100'000 : 0), ++seed);
                put_file(game() / name, updated[name]);
            }
            const auto recovered = Vault(folder / "vault", good).recover();
            ASSERT_TRUE(recovered) << "operation " << n << ": " << recovered.error().message();
            ASSERT_TRUE(recovered->waiting.empty()) << recovered->waiting[0].message();
            auto found = now();
            std::erase_if(found, [](const auto& f) { return f.first.find(".skivet-") != std::string::npos; });
            ASSERT_EQ(found, updated) << "operation " << n;
            ASSERT_TRUE(Vault(folder / "vault", good).unfinished().empty());
            // The vault goes on for other archives.
            put_file(folder / "other.zip", make_zip({{"x", random_bytes(100, 1)}}));
            const auto plan = plan_replacement(context, *parse_address((folder / "other.zip").string() + "::x"), random_bytes(100, 2));
            ASSERT_TRUE(Vault(folder / "vault", good).deliver(*plan, {"other", folder / "other.zip", {"x"}}, 2));
            ASSERT_EQ(*Vault(folder / "vault", good).restore(folder / "other.zip"), 1u);
        }
        ASSERT_LT(n, 300);
    }
}

TEST_P(Faults, AJournalThatIsDamagedIsSetAside) {
    PosixFiles good;
    reset();
    ASSERT_TRUE(Vault(folder / "vault", good).deliver(shares(), "t", 1));
    const auto after = now();
    // As after a crash before the last rename.
    std::filesystem::rename(folder / "vault/000001.kept", folder / "vault/000001.pending");
    const auto part = folder / "vault/000001.pending/0";
    const auto whole = get_file(part);
    std::uint32_t state = 9;
    for (int n = 0; n < 40; ++n) {
        state = state * 1664525u + 1013904223u;
        auto broken = whole;
        broken[n < 4 ? whole.size() - 1 - static_cast<std::size_t>(n) * 9 : state % whole.size()] ^= std::byte{4};
        put_file(part, broken);
        const auto recovered = Vault(folder / "vault", good).recover();
        ASSERT_TRUE(recovered) << recovered.error().message();
        ASSERT_EQ(recovered->set_aside.size(), 1u) << n;
        ASSERT_NE(recovered->set_aside[0].message().find("000001"), std::string::npos);
        const auto found = now();
        for (const auto& [name, content] : found) {
            const auto old = c.before.find(name);
            ASSERT_TRUE((old != c.before.end() && content == old->second) || content == after.at(name)) << name << ": a third state";
        }
        // A person decides: it is put back by hand here, for the next round.
        for (const auto& item : std::filesystem::directory_iterator(folder / "vault"))
            if (item.path().extension() == ".aside") {
                std::filesystem::remove(item.path() / "why.txt");
                std::filesystem::create_directories(folder / "vault/000001.pending");
                for (const auto& one : std::filesystem::directory_iterator(item.path()))
                    std::filesystem::rename(one.path(), folder / "vault/000001.pending" / one.path().filename());
                std::filesystem::remove(item.path());
                break;
            }
        if (std::filesystem::exists(folder / "vault/000001.pending/1"))
            break;  // its other archives were rolled back and are gone; one round is enough
        for (const auto& [name, content] : after) put_file(game() / name, content);
    }
}
