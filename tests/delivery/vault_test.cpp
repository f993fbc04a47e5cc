#include <gtest/gtest.h>

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

#include <filesystem>
#include <fstream>
#include <string>
#include <vector>

#include "base/pack.h"
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
        const auto source = open_source(ReadContext{}, zip);
        auto made = (*source)->plan(std::vector<Replacement>{{entry, std::move(content)}}, ReadLimits{});
        EXPECT_TRUE(made);
        return *made;
    }
    Result<Journal> deliver(std::size_t entry, Bytes content) {
        return vault().deliver(plan(entry, std::move(content)), {"t", zip, {"abc"[entry] + std::string()}}, 100);
    }
};

}  // namespace

TEST_F(Delivering, WritesKeepsTheOldBytesAndGivesThemBack) {
    const auto journal = deliver(0, random_bytes(300, 9));
    ASSERT_TRUE(journal) << journal.error().message();
    EXPECT_NE(get_file(zip), before);
    const auto history = *vault().history();
    ASSERT_EQ(history.size(), 1u);
    EXPECT_EQ(history[0].title, "t");
    EXPECT_EQ(history[0].entries(), std::vector<std::string>{"a"});
    EXPECT_EQ(history[0].bytes_kept(), history[0].bytes_written());
    ASSERT_TRUE(vault().undo(journal->id));
    EXPECT_EQ(get_file(zip), before);
    EXPECT_TRUE(vault().history()->empty());
}

TEST_F(Delivering, TheVaultKeepsBytesNotArchives) {
    put_file(zip, make_zip({{"big", random_bytes(3'000'000, 1)}, {"a", random_bytes(300, 1)}}));
    ASSERT_TRUE(deliver(1, random_bytes(300, 9)));
    std::uint64_t size = 0;
    for (const auto& item : std::filesystem::recursive_directory_iterator(vault_folder))
        if (item.is_regular_file()) size += item.file_size();
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
    const auto source = *open_source(ReadContext{}, folder / "loose");
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
    now[journal.parts[0].files[0].ranges[0].at] ^= std::byte{1};
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
    EXPECT_TRUE(vault().recover()) << "nothing to roll back, so nothing to wait for";
    std::filesystem::create_directories(vault_folder / "000001.pending");
    EXPECT_EQ(vault().recover().error().code, ErrorCode::busy);
}

TEST(JournalFormat, RoundTripsAndNoticesEveryFlippedByte) {
    Journal journal{"000042", 123, "title \xFF not UTF-8", {}};
    JournalPart part;
    part.source = "/game/ä.zip";
    part.entries = {"a\xFE", "b"};
    part.files.push_back({"/game/ä.zip", Way::append, 1000, 1100, {{5, 3, 4, {}, 0, {}}, {1000, 0, 100, {}, 0, {}}}, {}, {}, {}, {}, {}});
    part.files.push_back({"/game/b.tar",
                          Way::rebuild,
                          20,
                          30,
                          {},
                          {{true, 4, 12}, {false, 0, 8}},
                          sha256(bytes_of("old")),
                          sha256(bytes_of("new")),
                          {},
                          "/game/b.tar.skivet-x"});
    auto data = write_description(journal, part);
    const auto described = data.size();
    for (const auto& kept : {bytes_of("old"), bytes_of("8 bytes!"), Bytes(32)}) data.insert(data.end(), kept.begin(), kept.end());
    const auto back = read_description(data);
    ASSERT_TRUE(back) << back.error().message();
    EXPECT_EQ(back->title, journal.title);
    EXPECT_EQ(back->parts[0].entries, part.entries);
    EXPECT_EQ(back->parts[0].files[0].file, part.files[0].file);
    EXPECT_EQ(back->parts[0].files[0].ranges[0].kept_at, described);
    EXPECT_EQ(back->parts[0].files[0].ranges[1].new_size, 100u);
    EXPECT_EQ(back->parts[0].files[1].back[1].at, described + 3);
    EXPECT_EQ(back->parts[0].files[1].old_hash, sha256(bytes_of("old")));
    EXPECT_EQ(back->bytes_kept(), 11u);
    for (std::size_t i = 0; i < data.size(); ++i) {
        auto broken = data;
        broken[i] ^= std::byte{16};
        if (i < described) EXPECT_FALSE(read_description(broken)) << i;
        EXPECT_FALSE(read_description(ByteSpan(data).first(i)));
    }
}

TEST_F(Delivering, ADamagedVaultIsNoticedBeforeAnythingIsPutBack) {
    const auto journal = *deliver(1, random_bytes(2000, 9));
    const auto after = get_file(zip);
    const auto place = vault_folder / (journal.id + ".kept") / "0";
    auto kept = get_file(place);
    kept[kept.size() - 40] ^= std::byte{1};
    put_file(place, kept);
    const auto undone = vault().undo(journal.id);
    ASSERT_FALSE(undone);
    EXPECT_EQ(undone.error().code, ErrorCode::damaged);
    EXPECT_EQ(get_file(zip), after);
}

TEST_F(Delivering, AChangeThatKeptSizeAndTimeIsNoticed) {
    const auto made = plan(0, random_bytes(300, 9));
    auto changed = before;
    changed[made.files[0].ranges[0].at] ^= std::byte{1};
    const auto time = std::filesystem::last_write_time(zip);
    {
        std::fstream out(zip, std::ios::in | std::ios::out | std::ios::binary);
        out.write(reinterpret_cast<const char*>(changed.data()), static_cast<std::streamsize>(changed.size()));
    }
    std::filesystem::last_write_time(zip, time);
    const auto done = vault().deliver(made, {"t", zip, {"a"}}, 1);
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::stale);
    EXPECT_EQ(get_file(zip), changed);
}

TEST_F(Delivering, SeveralArchivesChangeTogetherAndCanBeRestoredApart) {
    const auto other = folder / "other.zip";
    put_file(other, before);
    const auto planned = [&](const std::filesystem::path& path, const Bytes& content) {
        return *(*open_source(ReadContext{}, path))->plan(std::vector<Replacement>{{1, content}}, ReadLimits{});
    };
    const auto content = random_bytes(700, 12);
    const auto journal =
        vault().deliver({{zip, {"b"}, planned(zip, content)}, {other, {"b"}, planned(other, content)}}, "2 pieces into 2 archives", 5);
    ASSERT_TRUE(journal) << journal.error().message();
    ASSERT_EQ(journal->parts.size(), 2u);
    EXPECT_NE(get_file(zip), before);
    const auto after = get_file(other);
    EXPECT_EQ(*vault().restore(zip), 1u);
    EXPECT_EQ(get_file(zip), before);
    EXPECT_EQ(get_file(other), after) << "the other archive keeps its piece";
    const auto left = *vault().history();
    ASSERT_EQ(left.size(), 1u);
    EXPECT_EQ(left[0].title, "2 pieces into 2 archives");
    ASSERT_EQ(left[0].parts.size(), 1u);
    EXPECT_EQ(*vault().restore_all(), 1u);
    EXPECT_EQ(get_file(other), before);
    EXPECT_TRUE(std::filesystem::is_empty(vault_folder) || std::distance(std::filesystem::directory_iterator(vault_folder), {}) == 1)
        << "only the lock is left";
}

TEST_F(Delivering, OneArchiveThatChangedStopsAllOfThem) {
    const auto other = folder / "other.zip";
    put_file(other, before);
    const auto a = plan(0, random_bytes(300, 9));
    const auto b = *(*open_source(ReadContext{}, other))->plan(std::vector<Replacement>{{1, random_bytes(9, 9)}}, ReadLimits{});
    put_file(other, random_bytes(500, 3));
    const auto done = vault().deliver({{zip, {"a"}, a}, {other, {"b"}, b}}, "t", 1);
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::stale);
    EXPECT_EQ(get_file(zip), before);
}

TEST_F(Delivering, FilesAreCreatedWithTheirFoldersAndTakenAwayAgain) {
    FilePlan made;
    made.file = folder / "game/override/rides/horse.dds";
    made.way = Way::create;
    made.ranges.push_back({0, random_bytes(900, 1), 0});
    made.new_size = 900;
    WritePlan all;
    all.files.push_back(made);
    std::filesystem::create_directories(folder / "game");
    const auto journal = vault().deliver(all, {"horse", folder / "game/override", {"rides/horse.dds"}}, 1);
    ASSERT_TRUE(journal) << journal.error().message();
    EXPECT_EQ(get_file(made.file), random_bytes(900, 1));
    EXPECT_FALSE(vault().deliver(all, {"horse", folder / "game/override", {}}, 2)) << "a file that is there is not created";
    ASSERT_TRUE(vault().undo(journal->id));
    EXPECT_TRUE(std::filesystem::is_empty(folder / "game"));
}

TEST_F(Delivering, TheOriginalCanBeReadWithoutPuttingItBack) {
    ASSERT_TRUE(deliver(1, random_bytes(900, 8)));
    ASSERT_TRUE(deliver(0, random_bytes(300, 8)));
    const auto view = vault().original(zip, 1u << 20);
    ASSERT_TRUE(view) << view.error().message();
    const auto bytes = *view->bytes();
    EXPECT_TRUE(std::equal(bytes.begin(), bytes.end(), before.begin(), before.end()));
    EXPECT_NE(get_file(zip), before);
}

TEST_F(Delivering, TwoVaultsNoticeEachOther) {
    const VaultRegister vaults(folder / "vaults");
    Vault a(folder / "vault a", files, vaults), b(folder / "vault b", files, vaults);
    const auto put = [&](Vault& vault, std::size_t size) {
        const auto source = open_source(ReadContext{}, zip);
        return vault.deliver(*(*source)->plan(std::vector<Replacement>{{1, random_bytes(size, static_cast<unsigned>(size))}}, ReadLimits{}),
                             {"to " + std::to_string(size), zip, {"b"}}, static_cast<std::int64_t>(size));
    };
    const auto first = *put(a, 5000);
    const auto second = *put(b, 9000);
    const auto now = get_file(zip);
    const auto refused = a.undo(first.id);
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, ErrorCode::stale);
    EXPECT_NE(refused.error().message().find("\"to 9000\" was delivered into it from another vault"), std::string::npos)
        << refused.error().message();
    EXPECT_EQ(get_file(zip), now);
    ASSERT_TRUE(b.undo(second.id));
    ASSERT_TRUE(a.undo(first.id));
    EXPECT_EQ(get_file(zip), before);
    // What one has left unfinished the other does not write into.
    ASSERT_TRUE(put(a, 5000));
    std::filesystem::rename(folder / "vault a/000001.kept", folder / "vault a/000001.pending");
    const auto held = put(b, 7000);
    ASSERT_FALSE(held);
    EXPECT_NE(held.error().message().find("was cut short and is not rolled back yet"), std::string::npos) << held.error().message();
    EXPECT_EQ(a.recover()->rolled_back.size(), 1u);
    EXPECT_EQ(get_file(zip), before);
    EXPECT_TRUE(put(b, 7000));
}

TEST_F(Delivering, ARebuiltArchiveThatSomethingElseChangedIsNotPutBackOver) {
    put_file(folder / "g.gz", *pack(Packing::gzip, random_bytes(3000, 1)));
    const auto plan =
        *(*open_source(ReadContext{}, folder / "g.gz"))->plan(std::vector<Replacement>{{0, random_bytes(4000, 2)}}, ReadLimits{});
    const auto journal = *vault().deliver(plan, {"t", folder / "g.gz", {"g"}}, 1);
    auto theirs = get_file(folder / "g.gz");
    theirs[theirs.size() / 2] ^= std::byte{1};
    put_file(folder / "g.gz", theirs);
    EXPECT_EQ(vault().undo(journal.id).error().code, ErrorCode::stale);
    EXPECT_EQ(vault().restore(folder / "g.gz").error().code, ErrorCode::stale);
    EXPECT_EQ(get_file(folder / "g.gz"), theirs);
    EXPECT_EQ(vault().history()->size(), 1u) << "still there for a person";
}

TEST_F(Delivering, OneKeptJournalThatIsDamagedHidesNoOther) {
    ASSERT_TRUE(deliver(0, random_bytes(300, 9)));
    const auto between = get_file(zip);
    ASSERT_TRUE(deliver(1, random_bytes(3000, 9)));
    auto kept = get_file(vault_folder / "000001.kept/0");
    kept[20] ^= std::byte{1};
    put_file(vault_folder / "000001.kept/0", kept);
    EXPECT_EQ(vault().unreadable().size(), 1u);
    ASSERT_EQ(vault().history()->size(), 1u);
    EXPECT_EQ(*vault().restore(zip), 1u);
    EXPECT_EQ(get_file(zip), between);
}

TEST_F(Delivering, NothingThatIsNotOursIsRemoved) {
    put_file(vault_folder / "000007.part/0", bytes_of("somebody's notes"));
    put_file(vault_folder / "000008.part/holiday.jpg", bytes_of("a picture"));
    put_file(vault_folder / "mine.part/0", bytes_of("SKJ3"));
    put_file(vault_folder / "000009.part/0", bytes_of("SKJ3 and no more"));  // ours: cut short while it was written
    ASSERT_TRUE(vault().recover());
    EXPECT_TRUE(std::filesystem::exists(vault_folder / "000007.part/0"));
    EXPECT_TRUE(std::filesystem::exists(vault_folder / "000008.part/holiday.jpg"));
    EXPECT_TRUE(std::filesystem::exists(vault_folder / "mine.part/0"));
    EXPECT_FALSE(std::filesystem::exists(vault_folder / "000009.part"));
}

TEST_F(Delivering, ACancelLeavesTheOldBytes) {
    // At every read of the game: a token that is canceled after so many checks would need a clock; canceled in the caller's check it is
    // late enough.
    Vault v = vault();
    const CancelToken cancel;
    v.heed(cancel);
    const auto done = v.deliver(plan(1, random_bytes(5000, 3)), {"t", zip, {"b"}}, 1, [&]() -> Status {
        cancel.cancel();
        return {};
    });
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::canceled);
    EXPECT_EQ(get_file(zip), before);
    EXPECT_TRUE(vault().unfinished().empty());
    EXPECT_TRUE(vault().history()->empty());
}

TEST_F(Delivering, ACanceledUndoOfARebuiltFileLeavesTheDelivery) {
    put_file(folder / "g.gz", *pack(Packing::gzip, random_bytes(3000, 1)));
    const auto plan =
        *(*open_source(ReadContext{}, folder / "g.gz"))->plan(std::vector<Replacement>{{0, random_bytes(4000, 2)}}, ReadLimits{});
    const auto journal = *vault().deliver(plan, {"t", folder / "g.gz", {"g"}}, 1);
    const auto after = get_file(folder / "g.gz");
    Vault v = vault();
    const CancelToken cancel;
    cancel.cancel();
    v.heed(cancel);
    EXPECT_EQ(v.undo(journal.id).error().code, ErrorCode::canceled);
    EXPECT_EQ(get_file(folder / "g.gz"), after);
    EXPECT_TRUE(vault().unfinished().empty());
    ASSERT_EQ(vault().history()->size(), 1u);
    EXPECT_TRUE(vault().undo(journal.id)) << "and can still be undone";
}
