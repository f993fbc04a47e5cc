// Every operation of a delivery and of an undo fails or loses power, one after the other. After the next start the archive is the old one
// or the new one, never a third.
#include <gtest/gtest.h>

#include <map>

#include "container/kinds.h"
#include "delivery/vault.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

enum class Loss { keep_all, drop_unsynced };

/// Counts operations; from the n-th on everything fails. `lose_power` then undoes what was not made durable.
class FaultyFiles final : public PosixFiles {
public:
    explicit FaultyFiles(int fail_at, bool only_once = false) : fail_at_(fail_at), only_once_(only_once) {}
    int operations = 0;

    Result<Bytes> read(const std::filesystem::path& file, std::uint64_t at, std::uint64_t size) override {
        if (auto ok = step(); !ok) return fail(ok.error());
        return PosixFiles::read(file, at, size);
    }
    Status write(const std::filesystem::path& file, std::uint64_t at, ByteSpan data) override {
        const auto ok = step();
        if (!ok && (torn_ || crashed_before_)) return fail(ok.error());
        remember(file);
        if (!ok) {  // half of it arrives
            torn_ = true;
            (void)PosixFiles::write(file, at, data.first(data.size() / 2));
            return fail(ok.error());
        }
        return PosixFiles::write(file, at, data);
    }
    Status resize(const std::filesystem::path& file, std::uint64_t size) override {
        if (auto ok = step(); !ok) return ok;
        remember(file);
        return PosixFiles::resize(file, size);
    }
    Status create(const std::filesystem::path& file, ByteSpan data) override {
        if (auto ok = step(); !ok) {
            (void)PosixFiles::create(file, data.first(data.size() / 2));
            return ok;
        }
        return PosixFiles::create(file, data);
    }
    Status sync(const std::filesystem::path& file) override {
        if (auto ok = step(); !ok) return ok;
        durable_.erase(file);
        return {};
    }
    Status sync_folder(const std::filesystem::path&) override {
        if (auto ok = step(); !ok) return ok;
        renames_.clear();
        return {};
    }
    Status rename(const std::filesystem::path& from, const std::filesystem::path& to) override {
        if (auto ok = step(); !ok) return ok;
        renames_.emplace_back(from, to);
        return PosixFiles::rename(from, to);
    }
    Status remove(const std::filesystem::path& file) override {
        if (auto ok = step(); !ok) return ok;
        return PosixFiles::remove(file);
    }

    /// What the disk holds after the power went.
    void lose_power(Loss loss) {
        if (loss != Loss::drop_unsynced) return;
        for (const auto& [file, content] : durable_) put_file(file, content);
        for (auto it = renames_.rbegin(); it != renames_.rend(); ++it)
            if (std::filesystem::exists(it->second)) std::filesystem::rename(it->second, it->first);
    }

private:
    int fail_at_;
    bool only_once_;
    bool torn_ = false, crashed_before_ = false;
    std::map<std::filesystem::path, Bytes> durable_;
    std::vector<std::pair<std::filesystem::path, std::filesystem::path>> renames_;

    Status step() {
        const int n = operations++;
        if (only_once_ ? n == fail_at_ : n >= fail_at_) {
            crashed_before_ = n > fail_at_;
            return fail(only_once_ ? ErrorCode::no_space : ErrorCode::io, "injected at operation " + std::to_string(n));
        }
        return {};
    }
    void remember(const std::filesystem::path& file) {
        if (!durable_.count(file)) durable_[file] = get_file(file);
    }
};

struct Case {
    const char* name;
    std::size_t entry;
    Bytes content;
};

struct Faults : testing::TestWithParam<std::tuple<int, Loss>> {
    TempFolder folder;
    std::filesystem::path zip;
    Bytes before;
    std::vector<Case> cases = {{"in place", 0, random_bytes(300, 9)}, {"grow", 1, random_bytes(2000, 9)}, {"shrink", 2, {}}};

    void SetUp() override {
        zip = folder / "game.zip";
        before = make_zip({{"a", random_bytes(300, 1)}, {"b", random_bytes(400, 2), true}, {"c", random_bytes(900, 3)}});
    }
    const Case& current() const { return cases[static_cast<std::size_t>(std::get<0>(GetParam()))]; }
    WritePlan plan() const {
        const auto source = open_source(Kinds{}, zip);
        return *(*source)->plan(std::vector<Replacement>{{current().entry, current().content}}, ReadLimits{});
    }
    void reset() {
        std::error_code code;
        std::filesystem::remove_all(folder / "vault", code);
        put_file(zip, before);
    }
};
INSTANTIATE_TEST_SUITE_P(All, Faults, testing::Combine(testing::Range(0, 3), testing::Values(Loss::keep_all, Loss::drop_unsynced)));

}  // namespace

TEST_P(Faults, ACrashBetweenAnyTwoOperationsOfADeliveryLeavesOldOrNew) {
    reset();
    PosixFiles good;
    ASSERT_TRUE(Vault(folder / "vault", good).deliver(plan(), {"t", zip, {}}, 1));
    const auto after = get_file(zip);
    ASSERT_NE(after, before);
    int olds = 0, news = 0;
    for (int n = 0;; ++n) {
        reset();
        FaultyFiles faulty(n);
        const auto done = Vault(folder / "vault", faulty).deliver(plan(), {"t", zip, {}}, 1);
        if (done && faulty.operations <= n) break;  // nothing failed any more
        faulty.lose_power(std::get<1>(GetParam()));
        const auto recovered = Vault(folder / "vault", good).recover();
        ASSERT_TRUE(recovered) << "operation " << n << ": " << recovered.error().message();
        const auto now = get_file(zip);
        ASSERT_TRUE(now == before || now == after) << current().name << ", operation " << n << ": a third state";
        (now == before ? olds : news) += 1;
        // And the vault agrees with the file: what stands can be undone, what does not stand is not listed.
        ASSERT_EQ(Vault(folder / "vault", good).history()->size(), now == after ? 1u : 0u) << "operation " << n;
        ASSERT_LT(n, 200);
    }
    EXPECT_GT(olds, 5);
    std::printf("%s: %d crashes left the old archive, %d the new one\n", current().name, olds, news);
}

TEST_P(Faults, ACrashDuringAnUndoEndsWithTheOldArchive) {
    PosixFiles good;
    for (int n = 0;; ++n) {
        reset();
        const auto journal = Vault(folder / "vault", good).deliver(plan(), {"t", zip, {}}, 1);
        const auto after = get_file(zip);
        FaultyFiles faulty(n);
        const auto undone = Vault(folder / "vault", faulty).undo(journal->id);
        if (undone && faulty.operations <= n) break;
        faulty.lose_power(std::get<1>(GetParam()));
        ASSERT_TRUE(Vault(folder / "vault", good).recover());
        const auto now = get_file(zip);
        ASSERT_TRUE(now == before || now == after) << "operation " << n;
        if (now == after) ASSERT_TRUE(Vault(folder / "vault", good).undo(journal->id)) << "still possible";
        ASSERT_EQ(get_file(zip), before);
        ASSERT_LT(n, 200);
    }
}

TEST_P(Faults, OneFailureIsRolledBackAtOnce) {
    PosixFiles good;
    for (int n = 0;; ++n) {
        reset();
        FaultyFiles faulty(n, true);
        const auto done = Vault(folder / "vault", faulty).deliver(plan(), {"t", zip, {}}, 1);
        if (faulty.operations <= n) break;
        if (done) continue;
        EXPECT_EQ(done.error().code, ErrorCode::no_space);
        ASSERT_EQ(get_file(zip), before) << "operation " << n;
        ASSERT_EQ(*Vault(folder / "vault", good).recover(), 0u) << "nothing is left to do, operation " << n;
        ASSERT_LT(n, 200);
    }
}
