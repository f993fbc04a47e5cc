// Real processes, really killed: a child delivers and is sent SIGKILL, before its n-th file operation for every n, and at random times;
// then the next start recovers. And real disks: one that is full, one that is read-only, and one that is not the vault's.
#include <gtest/gtest.h>

#include <fcntl.h>
#include <fmt/format.h>
#include <sys/mount.h>
#include <sys/wait.h>
#include <unistd.h>
#include <csignal>
#include <filesystem>
#include <random>
#include <string>
#include <vector>

#include "base/file_write.h"
#include "container/address.h"
#include "delivery/in_use.h"
#include "delivery/vault.h"
#include "support/pictures.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// Kills its own process at the n-th operation: no destructor, no handler, as a power cut for the process.
class SuicidalFiles final : public PosixFiles {
public:
    explicit SuicidalFiles(int at) : at_(at) {}
    Status write(const std::filesystem::path& f, std::uint64_t at, ByteSpan d) override { return step(), PosixFiles::write(f, at, d); }
    Status resize(const std::filesystem::path& f, std::uint64_t s) override { return step(), PosixFiles::resize(f, s); }
    Status create(const std::filesystem::path& f, ByteSpan d) override { return step(), PosixFiles::create(f, d); }
    Status create_like(const std::filesystem::path& f, const std::filesystem::path& l) override {
        return step(), PosixFiles::create_like(f, l);
    }
    Status copy(const std::filesystem::path& a, std::uint64_t x, const std::filesystem::path& b, std::uint64_t y,
                std::uint64_t s) override {
        return step(), PosixFiles::copy(a, x, b, y, s);
    }
    Status make_folder(const std::filesystem::path& f) override { return step(), PosixFiles::make_folder(f); }
    Status remove_folder(const std::filesystem::path& f) override { return step(), PosixFiles::remove_folder(f); }
    Status sync(const std::filesystem::path& f) override { return step(), PosixFiles::sync(f); }
    Status sync_folder(const std::filesystem::path& f) override { return step(), PosixFiles::sync_folder(f); }
    Status rename(const std::filesystem::path& a, const std::filesystem::path& b) override { return step(), PosixFiles::rename(a, b); }

private:
    int at_, n_ = 0;
    void step() {
        if (n_++ == at_) ::kill(::getpid(), SIGKILL);
    }
};

/// A ZIP, a tar that has to be built anew and a loose file, changed in one delivery.
struct Game {
    TempFolder folder;
    std::map<std::string, Bytes> before, after;

    Game() {
        put_file(folder / "in/a", random_bytes(30'000, 1));
        put_file(folder / "in/b", random_bytes(50'000, 2));
        (void)run_program({"tar", "-cf", "../g.tar", "a", "b"}, (folder / "in").string());
        before = {{"g.zip", make_zip({{"a", random_bytes(3000, 1)}, {"b", random_bytes(4000, 2), true}})},
                  {"g.tar", get_file(folder / "g.tar")},
                  {"f/x", random_bytes(900, 3)}};
        reset();
        PosixFiles files;
        if (Vault(folder / "vault", files).deliver(shares(), "t", 1)) after = now();
        reset();
    }
    [[nodiscard]] std::map<std::string, Bytes> now() const {
        std::map<std::string, Bytes> out;
        for (const auto& item : std::filesystem::recursive_directory_iterator(folder / "game"))
            if (item.is_regular_file()) out[item.path().lexically_relative(folder / "game").generic_string()] = get_file(item.path());
        return out;
    }
    [[nodiscard]] std::vector<Share> shares() const {
        std::vector<Share> out;
        for (const auto& [source, entry] : {std::pair("g.zip", "b"), std::pair("g.tar", "a"), std::pair("f", "x")}) {
            std::vector<AddressedBytes> items;
            items.push_back({{entry}, random_bytes(40'000, 7)});
            const auto path = folder / (std::string("game/") + source);
            out.push_back({path, {entry}, *plan_replacements(ReadContext{}, **open_source(ReadContext{}, path), std::move(items))});
        }
        return out;
    }
    void reset() {
        std::filesystem::remove_all(folder / "vault");
        std::filesystem::remove_all(folder / "game");
        for (const auto& [name, data] : before) put_file(folder / ("game/" + name), data);
    }
    void expect_old_or_new(const std::string& what) const {
        PosixFiles good;
        const auto recovered = Vault(folder / "vault", good).recover();
        ASSERT_TRUE(recovered) << what << ": " << recovered.error().message();
        const auto found = now();
        ASSERT_TRUE(found == before || found == after) << what << ": a third state";
        ASSERT_EQ(Vault(folder / "vault", good).history()->size(), found == after ? 1u : 0u) << what;
    }
};

/// A file system of its own for as long as the object lives; `mounted` is false where the machine does not allow it.
class SmallDisk {
public:
    SmallDisk(std::filesystem::path where, const char* options, bool read_only = false) : where_(std::move(where)) {
        std::filesystem::create_directories(where_);
        mounted = ::mount("tmpfs", where_.c_str(), "tmpfs", 0, options) == 0;
        read_only_ = read_only;
    }
    void make_read_only() const {
        if (read_only_) (void)::mount("tmpfs", where_.c_str(), "tmpfs", MS_REMOUNT | MS_RDONLY, nullptr);
    }
    ~SmallDisk() {
        if (mounted) (void)::umount2(where_.c_str(), MNT_DETACH);
    }
    bool mounted = false;

private:
    std::filesystem::path where_;
    bool read_only_ = false;
};

}  // namespace

TEST(Sigkill, AtEveryOperationLeavesOldOrNew) {
    Game game;
    int killed = 0;
    for (int n = 0; n < 200; ++n) {
        game.reset();
        const pid_t child = ::fork();
        ASSERT_GE(child, 0);
        if (child == 0) {
            SuicidalFiles files(n);
            const auto done = Vault(game.folder / "vault", files).deliver(game.shares(), "t", 1);
            ::_exit(done ? 0 : 1);
        }
        int status = 0;
        ::waitpid(child, &status, 0);
        game.expect_old_or_new("operation " + std::to_string(n));
        if (WIFEXITED(status)) {
            ASSERT_EQ(WEXITSTATUS(status), 0);
            break;
        }
        ++killed;
    }
    EXPECT_GE(killed, 20);
    std::printf("killed at %d operations\n", killed);
}

TEST(Sigkill, TwoHundredTimesAtRandomMomentsLeavesOldOrNew) {
    Game game;
    std::mt19937 random(20261124);
    int olds = 0, news = 0;
    for (int n = 0; n < 200; ++n) {
        game.reset();
        int ready[2];
        ASSERT_EQ(::pipe(ready), 0);
        const pid_t child = ::fork();
        ASSERT_GE(child, 0);
        if (child == 0) {
            const auto shares = game.shares();
            (void)!::write(ready[1], "x", 1);
            PosixFiles files;
            const auto done = Vault(game.folder / "vault", files).deliver(shares, "t", 1);
            if (done) ::pause();  // the kill comes in any case
            ::_exit(1);
        }
        char byte = 0;
        (void)!::read(ready[0], &byte, 1);
        ::close(ready[0]);
        ::close(ready[1]);
        // The moment of the kill is what is tested, not a time to wait for something.
        const timespec moment{0, static_cast<long>(random() % 12'000'000)};
        ::nanosleep(&moment, nullptr);
        ::kill(child, SIGKILL);
        int status = 0;
        ::waitpid(child, &status, 0);
        ASSERT_TRUE(WIFSIGNALED(status));
        game.expect_old_or_new("kill " + std::to_string(n));
        (game.now() == game.before ? olds : news) += 1;
    }
    std::printf("200 kills left the old files %d times, the new ones %d times\n", olds, news);
}

TEST(Disks, AFullDiskLeavesEverythingAsItWas) {
    TempFolder folder;
    // Room for the archive and a little more: every size of the disk up to where the delivery fits.
    const auto before = make_zip({{"a", random_bytes(60'000, 1)}, {"b", random_bytes(4000, 2), true}});
    int refused = 0, delivered = 0;
    for (const int kilobytes : {72, 80, 88, 100, 120, 160, 240, 400}) {
        const SmallDisk disk(folder / "disk", fmt::format("size={}k", kilobytes).c_str());
        if (!disk.mounted) GTEST_SKIP() << "this machine lets nobody mount";
        put_file(folder / "disk/game.zip", before);
        if (get_file(folder / "disk/game.zip") != before) continue;
        const auto plan =
            plan_replacement(ReadContext{}, *parse_address((folder / "disk/game.zip").string() + "::b"), random_bytes(90'000, 4));
        ASSERT_TRUE(plan);
        PosixFiles files;
        Vault vault(folder / "disk/vault", files);
        const auto done = vault.deliver(*plan, {"t", folder / "disk/game.zip", {"b"}}, 1);
        if (done) {
            ++delivered;
            continue;
        }
        ++refused;
        EXPECT_EQ(done.error().code, ErrorCode::no_space) << done.error().message();
        EXPECT_EQ(get_file(folder / "disk/game.zip"), before) << kilobytes;
        EXPECT_TRUE(vault.recover()->rolled_back.empty());
        EXPECT_TRUE(vault.unfinished().empty());
    }
    EXPECT_GE(refused, 3);
    EXPECT_GE(delivered, 1);
}

TEST(Disks, AReadOnlyDiskIsSaidAndNothingIsLeftBehind) {
    TempFolder folder;
    const SmallDisk disk(folder / "disk", "size=1m", true);
    if (!disk.mounted) GTEST_SKIP() << "this machine lets nobody mount";
    const auto before = make_zip({{"a", random_bytes(600, 1)}});
    put_file(folder / "disk/game.zip", before);
    disk.make_read_only();
    const auto plan = plan_replacement(ReadContext{}, *parse_address((folder / "disk/game.zip").string() + "::a"), random_bytes(600, 4));
    PosixFiles files;
    Vault vault(folder / "vault", files);
    const auto done = vault.deliver(*plan, {"t", folder / "disk/game.zip", {"a"}}, 1);
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::permission) << done.error().message();
    EXPECT_EQ(get_file(folder / "disk/game.zip"), before);
    EXPECT_TRUE(vault.history()->empty());
    EXPECT_TRUE(vault.unfinished().empty()) << "a refused delivery leaves no journal";
}

TEST(Disks, TheVaultMayLieOnAnotherOne) {
    Game game;
    const SmallDisk disk(game.folder / "elsewhere", "size=4m");
    if (!disk.mounted) GTEST_SKIP() << "this machine lets nobody mount";
    PosixFiles files;
    Vault vault(game.folder / "elsewhere/vault", files);
    const auto done = vault.deliver(game.shares(), "t", 1);
    ASSERT_TRUE(done) << done.error().message();
    EXPECT_EQ(game.now(), game.after);
    EXPECT_EQ(*vault.restore_all(), 1u);
    EXPECT_EQ(game.now(), game.before);
}

TEST(InUse, AProgramThatHasTheArchiveOpenIsNamed) {
    TempFolder folder;
    const auto zip = folder / "game.zip";
    put_file(zip, make_zip({{"a", random_bytes(300, 1)}}));
    int ready[2];
    ASSERT_EQ(::pipe(ready), 0);
    const pid_t child = ::fork();
    if (child == 0) {
        const auto lock = FileLock::take(zip);
        (void)!::write(ready[1], lock ? "x" : "-", 1);
        ::pause();
        ::_exit(0);
    }
    char byte = 0;
    (void)!::read(ready[0], &byte, 1);
    ASSERT_EQ(byte, 'x');
    const auto programs = programs_with(zip);
    ASSERT_EQ(programs.size(), 1u);
    EXPECT_EQ(programs[0].process, child);
    EXPECT_FALSE(programs[0].name.empty());
    PosixFiles files;
    const auto plan = plan_replacement(ReadContext{}, *parse_address(zip.string() + "::a"), random_bytes(300, 4));
    const auto done = Vault(folder / "vault", files).deliver(*plan, {"t", zip, {"a"}}, 1);
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::busy);
    EXPECT_NE(done.error().message().find(fmt::format("in use by {} ({})", programs[0].name, child)), std::string::npos)
        << done.error().message();
    ::kill(child, SIGKILL);
    ::waitpid(child, nullptr, 0);
    EXPECT_TRUE(programs_with(zip).empty());
    ::close(ready[0]);
    ::close(ready[1]);
}
