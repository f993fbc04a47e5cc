// Files for a card: names, sizes, copies that are cut, and a card that is not there.
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "container/kinds.h"
#include "delivery/device.h"
#include "delivery/vault.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;
namespace fs = std::filesystem;

namespace {

struct Device : testing::Test {
    TempFolder folder;
    PosixFiles files;
    fs::path game = folder / "big.zip", card = folder / "card";
    DeviceCut cut{1u << 20, ".{nn}"};

    void SetUp() override {
        fs::create_directories(card);
        put_file(game, make_zip({{"a", random_bytes(300, 1)}, {"rest", random_bytes(2'500'000, 2)}}));
    }
    Vault vault() { return Vault(folder / "vault", files); }
    Result<Journal> deliver(WritePlan plan) { return vault().deliver({{card, {"a"}, std::move(plan), true}}, "t", 1); }
    WritePlan changed(Bytes content) {
        const auto source = open_source(ReadContext{}, game);
        return *(*source)->plan(std::vector<Replacement>{{0, std::move(content)}}, ReadLimits{});
    }
};

}  // namespace

// Microsoft Extensible Firmware Initiative FAT32 File System Specification 1.03, sections on directory entries and long names.
TEST(FatNames, AreHeldToWhatTheFileSystemCanHold) {
    for (const auto* good : {"mods/a b.dds", "été/ö.zip", ".hidden/x", "a.b.c"}) EXPECT_TRUE(check_fat_path(good)) << good;
    for (const auto* bad :
         {"a:b", "a/b?.dds", "a*", "x|y", "a<b", "a>b", "q\"q", "a\\b", "dot./x", "space ", "a//b", "", "tab\tname", "/a"})
        EXPECT_EQ(check_fat_path(bad).error().code, ErrorCode::usage) << bad;
    EXPECT_TRUE(check_fat_path(std::string(255, 'x')));
    EXPECT_FALSE(check_fat_path(std::string(256, 'x')));
    std::string wide;
    for (int i = 0; i < 255; ++i) wide += "ö";
    EXPECT_TRUE(check_fat_path(wide)) << "names are counted in UTF-16 units, not in bytes";
    std::string pairs;
    for (int i = 0; i < 128; ++i) pairs += "\U0001F3AA";
    EXPECT_FALSE(check_fat_path(pairs)) << "a character beyond 0xFFFF takes two";
    EXPECT_EQ(fat32_largest, 4294967295u) << "4 GiB less one byte";
}

TEST(FatNames, EndingsOfPartsAreThoseThatAreKnownAgain) {
    EXPECT_TRUE(check_cut({}));
    EXPECT_EQ(DeviceCut{}.ending(7), ".07");
    EXPECT_TRUE(check_cut({1u << 20, ".{nnn}"}));
    EXPECT_TRUE(check_cut({1u << 20, ".part{n}"}));
    for (const auto* bad : {"", ".{n}", "/{nn}", ".x{nn}", "-{nn}", ".{nnnn}"}) EXPECT_FALSE(check_cut({1u << 20, bad})) << bad;
    EXPECT_FALSE(check_cut({4096, ".{nn}"}));
}

TEST_F(Device, ACopyHasTheChangeTheGamesFileStaysAndUndoTakesItAway) {
    const auto before = get_file(game);
    const auto plan = changed(random_bytes(300, 9));
    ASSERT_EQ(plan.files.size(), 1u);
    auto copy = plan_copy(game, plan.files[0], card / "mods/big.zip", {});
    ASSERT_TRUE(copy) << copy.error().message();
    const auto done = deliver(std::move(*copy));
    ASSERT_TRUE(done) << done.error().message();
    EXPECT_EQ(get_file(game), before);
    EXPECT_EQ(get_file(card / "mods/big.zip"), *planned_bytes(plan.files[0], before));
    EXPECT_EQ(done->bytes_kept(), 0u);
    ASSERT_TRUE(vault().undo(done->id));
    EXPECT_TRUE(fs::is_empty(card));
}

TEST_F(Device, WhatIsTooLargeIsCutAndReadsAsOneAgain) {
    // A change that makes the file longer, and one that makes it shorter.
    for (const std::size_t size : {std::size_t{700}, std::size_t{900'000}, std::size_t{10}}) {
        const auto plan = changed(random_bytes(size, 9));
        auto copy = plan_copy(game, plan.files[0], card / "big.zip", cut);
        ASSERT_TRUE(copy) << copy.error().message();
        const auto pieces = copy->files.size();
        EXPECT_EQ(pieces, (plan.files[0].new_size + (1u << 20) - 1) / (1u << 20));
        const auto done = deliver(std::move(*copy));
        ASSERT_TRUE(done) << done.error().message();
        Bytes all;
        for (std::size_t i = 0; i < pieces; ++i) {
            const auto part = get_file(card / ("big.zip.0" + std::to_string(i)));
            EXPECT_TRUE(part.size() == 1u << 20 || i + 1 == pieces);
            all.insert(all.end(), part.begin(), part.end());
        }
        EXPECT_EQ(all, *planned_bytes(plan.files[0], get_file(game)));
        EXPECT_EQ(there_on_device(card / "big.zip", cut), card / "big.zip.00");
        const auto opened = open_source(ReadContext{}, card / "big.zip.00");
        ASSERT_TRUE(opened) << opened.error().message();
        EXPECT_EQ((*opened)->read(0, ReadLimits{}), random_bytes(size, 9));
        ASSERT_TRUE(vault().undo(done->id));
        EXPECT_TRUE(fs::is_empty(card));
    }
    EXPECT_FALSE(there_on_device(card / "big.zip", cut));
}

TEST_F(Device, WithoutAChangeTheFileIsCopiedAsItIs) {
    auto copy = plan_copy(game, {}, card / "big.zip", {});
    ASSERT_TRUE(copy);
    ASSERT_TRUE(deliver(std::move(*copy)));
    EXPECT_EQ(get_file(card / "big.zip"), get_file(game));
}

TEST_F(Device, AGameThatChangedMeanwhileIsNotCopied) {
    auto copy = plan_copy(game, {}, card / "big.zip", {});
    ASSERT_TRUE(copy);
    put_file(game, make_zip({{"a", random_bytes(300, 5)}}));
    const auto done = deliver(std::move(*copy));
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::stale);
    EXPECT_TRUE(fs::is_empty(card));
}

TEST_F(Device, AnUndoWaitsForTheCard) {
    auto copy = plan_copy(game, {}, card / "big.zip", {});
    ASSERT_TRUE(copy);
    const auto done = deliver(std::move(*copy));
    ASSERT_TRUE(done);
    fs::rename(card, folder / "in the pocket");
    const auto without = vault().undo(done->id);
    ASSERT_FALSE(without);
    EXPECT_EQ(without.error().code, ErrorCode::missing);
    EXPECT_NE(without.error().message().find("is not there"), std::string::npos);
    EXPECT_EQ(vault().history()->size(), 1u) << "the way back is kept";
    fs::rename(folder / "in the pocket", card);
    ASSERT_TRUE(vault().undo(done->id));
    EXPECT_TRUE(fs::is_empty(card));
}

TEST_F(Device, ACardThatIsPulledOutInTheMiddleIsTidiedWhenItIsBack) {
    auto copy = plan_copy(game, {}, card / "big.zip", cut);
    ASSERT_TRUE(copy);
    struct Pulled : PosixFiles {
        fs::path card, pocket;
        int left = 2;
        Status rename(const fs::path& from, const fs::path& to) override {
            if (to.parent_path() == card && --left == 0) fs::rename(card, pocket);
            return PosixFiles::rename(from, to);
        }
    } pulled;
    pulled.card = card, pulled.pocket = folder / "pocket";
    const auto done = Vault(folder / "vault", pulled).deliver({{card, {"a"}, std::move(*copy), true}}, "t", 1);
    ASSERT_FALSE(done);
    EXPECT_NE(done.error().message().find("safe in the vault"), std::string::npos) << done.error().message();
    EXPECT_FALSE(fs::is_empty(folder / "pocket"));
    auto found = vault().recover();
    ASSERT_TRUE(found);
    EXPECT_EQ(found->waiting.size(), 1u) << "nothing is forgotten while the card is away";
    EXPECT_TRUE(found->rolled_back.empty());
    EXPECT_TRUE(found->set_aside.empty());
    fs::rename(folder / "pocket", card);
    found = vault().recover();
    ASSERT_TRUE(found);
    EXPECT_EQ(found->rolled_back.size(), 1u);
    EXPECT_TRUE(fs::is_empty(card));
}

TEST_F(Device, PuttingEverythingBackDoesNotWaitForTheCard) {
    const auto before = get_file(game);
    ASSERT_TRUE(vault().deliver(changed(random_bytes(300, 9)), {"into", game, {"a"}}, 1));
    auto copy = plan_copy(game, {}, card / "big.zip", {});
    ASSERT_TRUE(copy);
    ASSERT_TRUE(deliver(std::move(*copy)));
    fs::rename(card, folder / "in the pocket");
    const auto restored = vault().restore_all();
    ASSERT_FALSE(restored);
    EXPECT_EQ(restored.error().code, ErrorCode::missing) << "the card's own is told";
    EXPECT_EQ(get_file(game), before) << "and the game is as it was";
    EXPECT_EQ(vault().history()->size(), 1u);
}

TEST_F(Device, NoFileIsWrittenTwiceByOneDelivery) {
    const auto fresh = plan_new_file(card / "new.zip", random_bytes(50, 1));
    const auto done = vault().deliver({{card, {}, fresh, true}, {card, {}, fresh, true}}, "t", 1);
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::usage);
    EXPECT_TRUE(fs::is_empty(card));
    EXPECT_TRUE(vault().history()->empty());
}
