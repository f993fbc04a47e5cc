// A real process, really killed: a child delivers and sends itself SIGKILL before its n-th file operation, for every n; then the next start
// recovers.
#include <gtest/gtest.h>

#include <csignal>
#include <fcntl.h>
#include <sys/wait.h>
#include <unistd.h>

#include "base/file_write.h"
#include "container/kinds.h"
#include "delivery/vault.h"
#include "support/pictures.h"

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
    Status sync(const std::filesystem::path& f) override { return step(), PosixFiles::sync(f); }
    Status sync_folder(const std::filesystem::path& f) override { return step(), PosixFiles::sync_folder(f); }
    Status rename(const std::filesystem::path& a, const std::filesystem::path& b) override { return step(), PosixFiles::rename(a, b); }

private:
    int at_, n_ = 0;
    void step() {
        if (n_++ == at_) ::kill(::getpid(), SIGKILL);
    }
};

}  // namespace

TEST(Sigkill, AtEveryOperationLeavesOldOrNew) {
    TempFolder folder;
    const auto zip = folder / "game.zip";
    const auto before = make_zip({{"a", random_bytes(300, 1)}, {"b", random_bytes(4000, 2), true}});
    int killed = 0;
    for (int n = 0; n < 60; ++n) {
        std::filesystem::remove_all(folder / "vault");
        put_file(zip, before);
        const pid_t child = ::fork();
        ASSERT_GE(child, 0);
        if (child == 0) {
            SuicidalFiles files(n);
            const auto source = open_source(Kinds{}, zip);
            const auto plan = (*source)->plan(std::vector<Replacement>{{1, random_bytes(9000, 5)}}, ReadLimits{});
            const auto done = Vault(folder / "vault", files).deliver(*plan, {"t", zip, {"b"}}, 1);
            ::_exit(done ? 0 : 1);
        }
        int status = 0;
        ::waitpid(child, &status, 0);
        PosixFiles good;
        ASSERT_TRUE(Vault(folder / "vault", good).recover()) << "the dead process's locks are gone";
        if (WIFEXITED(status)) {
            ASSERT_EQ(WEXITSTATUS(status), 0);
            break;
        }
        ++killed;
        const auto source = open_source(Kinds{}, zip);
        ASSERT_TRUE(source);
        const auto content = (*source)->read(1, ReadLimits{});
        ASSERT_TRUE(content);
        if (get_file(zip) != before) EXPECT_EQ(*content, random_bytes(9000, 5));
    }
    EXPECT_GE(killed, 8);
}
