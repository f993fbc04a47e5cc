#include <gtest/gtest.h>

#include <sys/file.h>
#include <fcntl.h>
#include <unistd.h>

#include "container/kinds.h"
#include "delivery/vault.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Delivering : testing::Test {
    TempFolder folder;
    PosixFiles files;
    std::filesystem::path zip, vault_folder;
    Bytes before;

    void SetUp() override {
        zip = folder / "game.zip";
        vault_folder = folder / "vault";
        before = make_zip({{"a", random_bytes(300, 1)}, {"b", random_bytes(400, 2), true}, {"c", random_bytes(200, 3)}});
        put_file(zip, before);
    }
    Vault vault() { return Vault(vault_folder, files); }
    WritePlan plan(std::size_t entry, Bytes content) {
        const auto source = open_source(Kinds{}, zip);
        auto made = (*source)->plan(std::vector<Replacement>{{entry, std::move(content)}}, ReadLimits{});
        EXPECT_TRUE(made);
        return *made;
    }
    Result<Journal> deliver(std::size_t entry, Bytes content) { return vault().deliver(plan(entry, std::move(content)), {"t", zip, {"abc"[entry] + std::string()}}, 100); }
};

}  // namespace

TEST_F(Delivering, WritesKeepsTheOldBytesAndGivesThemBack) {
    const auto journal = deliver(0, random_bytes(300, 9));
    ASSERT_TRUE(journal) << journal.error().message();
    EXPECT_NE(get_file(zip), before);
    const auto history = *vault().history();
    ASSERT_EQ(history.size(), 1u);
    EXPECT_EQ(history[0].title, "t");
    EXPECT_EQ(history[0].entries, std::vector<std::string>{"a"});
    EXPECT_EQ(history[0].bytes_kept(), history[0].bytes_written());
    ASSERT_TRUE(vault().undo(journal->id));
    EXPECT_EQ(get_file(zip), before);
    EXPECT_TRUE(vault().history()->empty());
}

TEST_F(Delivering, TheVaultKeepsBytesNotArchives) {
    put_file(zip, make_zip({{"big", random_bytes(3'000'000, 1)}, {"a", random_bytes(300, 1)}}));
    ASSERT_TRUE(deliver(1, random_bytes(300, 9)));
    std::uint64_t size = 0;
    for (const auto& item : std::filesystem::directory_iterator(vault_folder)) size += item.file_size();
    EXPECT_LT(size, 3000u);
}

TEST_F(Delivering, GrowingAndShrinkingAreUndone) {
    for (auto content : {random_bytes(9000, 1), Bytes{}}) {
        ASSERT_TRUE(deliver(1, content));
        EXPECT_EQ(*vault().restore(zip), 1u);
        EXPECT_EQ(get_file(zip), before);
    }
    // Shrinking below the old size: a loose file.
    put_file(folder / "loose/x", random_bytes(500, 1));
    const auto source = *open_source(Kinds{}, folder / "loose");
    const auto shorter = *source->plan(std::vector<Replacement>{{0, bytes_of("ab")}}, ReadLimits{});
    ASSERT_TRUE(vault().deliver(shorter, {"t", folder / "loose", {"x"}}, 1));
    EXPECT_EQ(std::filesystem::file_size(folder / "loose/x"), 2u);
    EXPECT_EQ(*vault().restore(folder / "loose"), 1u);
    EXPECT_EQ(get_file(folder / "loose/x"), random_bytes(500, 1));
}

TEST_F(Delivering, SeveralDeliveriesAreUndoneNewestFirst) {
    const auto first = *deliver(0, random_bytes(300, 7));
    const auto middle = get_file(zip);
    const auto second = *deliver(1, random_bytes(5000, 8));
    const auto early = vault().undo(first.id);
    ASSERT_FALSE(early);
    EXPECT_EQ(early.error().code, ErrorCode::usage);
    ASSERT_TRUE(vault().undo(second.id));
    EXPECT_EQ(get_file(zip), middle);
    ASSERT_TRUE(vault().undo(first.id));
    EXPECT_EQ(get_file(zip), before);
    ASSERT_TRUE(deliver(0, random_bytes(300, 7)));
    ASSERT_TRUE(deliver(1, random_bytes(5000, 8)));
    ASSERT_TRUE(deliver(2, random_bytes(1, 8)));
    EXPECT_EQ(*vault().restore(zip), 3u);
    EXPECT_EQ(get_file(zip), before);
}

TEST_F(Delivering, AFileThatChangedSinceThePlanIsNotTouched) {
    const auto made = plan(0, random_bytes(300, 9));
    auto changed = before;
    changed[100] ^= std::byte{1};
    changed.push_back(std::byte{0});
    put_file(zip, changed);
    const auto done = vault().deliver(made, {"t", zip, {"a"}}, 1);
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::stale);
    EXPECT_EQ(get_file(zip), changed);
}

TEST_F(Delivering, UndoRefusesWhenSomethingElseWroteThere) {
    const auto journal = *deliver(0, random_bytes(300, 9));
    auto now = get_file(zip);
    now[journal.files[0].ranges[0].at] ^= std::byte{1};
    put_file(zip, now);
    const auto undone = vault().undo(journal.id);
    ASSERT_FALSE(undone);
    EXPECT_EQ(undone.error().code, ErrorCode::stale);
    EXPECT_EQ(get_file(zip), now);
    EXPECT_EQ(vault().history()->size(), 1u) << "the old bytes stay in the vault";
}

TEST_F(Delivering, AFailedCheckRollsBack) {
    const auto done = vault().deliver(plan(1, random_bytes(5000, 1)), {"t", zip, {"b"}}, 1, [&]() -> Status {
        EXPECT_NE(get_file(zip), before) << "the check sees the written file";
        return fail(ErrorCode::io, "looks wrong");
    });
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().what, "looks wrong");
    EXPECT_EQ(get_file(zip), before);
    EXPECT_TRUE(vault().history()->empty());
}

TEST_F(Delivering, ALockedArchiveIsLeftAlone) {
    const int other = ::open(zip.c_str(), O_RDONLY);
    ASSERT_EQ(::flock(other, LOCK_EX), 0);
    const auto done = deliver(0, random_bytes(300, 9));
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::busy);
    EXPECT_EQ(get_file(zip), before);
    ::close(other);
    EXPECT_TRUE(deliver(0, random_bytes(300, 9)));
}

TEST_F(Delivering, AVaultInUseIsSaid) {
    std::filesystem::create_directories(vault_folder);
    const auto lock = FileLock::take(vault_folder / "lock", true);
    EXPECT_EQ(deliver(0, random_bytes(300, 9)).error().code, ErrorCode::busy);
    EXPECT_EQ(vault().recover().error().code, ErrorCode::busy);
}

TEST(JournalFormat, RoundTripsAndNoticesEveryFlippedByte) {
    Journal journal{"000042", 123, "title \xFF not UTF-8", "/game/ä.zip", {"a\xFE", "b"}, {{"/game/ä.zip", 1000, 1100, {{5, bytes_of("old"), 4, {}}, {1000, {}, 100, {}}}}}};
    const auto data = write_journal(journal);
    const auto back = read_journal(data);
    ASSERT_TRUE(back);
    EXPECT_EQ(back->title, journal.title);
    EXPECT_EQ(back->entries, journal.entries);
    EXPECT_EQ(back->files[0].file, journal.files[0].file);
    EXPECT_EQ(back->files[0].ranges[0].old_bytes, bytes_of("old"));
    EXPECT_EQ(back->files[0].ranges[1].new_size, 100u);
    for (std::size_t i = 0; i < data.size(); ++i) {
        auto broken = data;
        broken[i] ^= std::byte{16};
        EXPECT_FALSE(read_journal(broken)) << i;
        EXPECT_FALSE(read_journal(ByteSpan(data).first(i)));
    }
}
