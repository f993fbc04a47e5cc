// A folder of loose files as a source: several files in one delivery, taken back together.
#include <gtest/gtest.h>

#include <filesystem>
#include <map>
#include <string>
#include <vector>

#include "container/address.h"
#include "delivery/vault.h"
#include "support/pictures.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct LooseFiles : testing::Test {
    TempFolder folder;
    ReadContext context;
    PosixFiles files;
    std::map<std::string, Bytes> before = {
        {"a/one.dds", make_dds(Format::BC1, 32, 32)}, {"a/two.bin", random_bytes(300, 1)}, {"three", {}}};

    void SetUp() override {
        for (const auto& [name, data] : before) put_file(folder / ("game/" + name), data);
    }
    std::map<std::string, Bytes> now() {
        std::map<std::string, Bytes> out;
        for (const auto& [name, data] : before) out[name] = get_file(folder / ("game/" + name));
        return out;
    }
    Result<WritePlan> plan(std::vector<AddressedBytes> items) {
        return plan_replacements(context, **open_source(context, folder / "game"), std::move(items));
    }
};

}  // namespace

TEST_F(LooseFiles, AreDeliveredAndRestoredTogether) {
    const auto made = plan(
        {{{"a/one.dds"}, make_dds(Format::BC1, 32, 32, 0, 4)}, {{"a/two.bin"}, bytes_of("short")}, {{"three"}, random_bytes(5000, 2)}});
    ASSERT_TRUE(made) << made.error().message();
    EXPECT_EQ(made->files.size(), 3u);
    Vault vault(folder / "vault", files);
    ASSERT_TRUE(vault.deliver(*made, {"3 pieces", folder / "game", {"a/one.dds", "a/two.bin", "three"}}, 1));
    EXPECT_EQ(now()["a/two.bin"], bytes_of("short"));
    EXPECT_EQ(now()["three"], random_bytes(5000, 2));
    EXPECT_EQ(vault.history()->size(), 1u);
    EXPECT_EQ(*vault.restore(folder / "game"), 1u);
    EXPECT_EQ(now(), before);
}

TEST_F(LooseFiles, OneFileInUseStopsTheWholeDelivery) {
    const auto made = plan({{{"a/one.dds"}, Bytes(9)}, {{"a/two.bin"}, Bytes(9)}});
    const auto lock = FileLock::take(folder / "game/a/two.bin");
    ASSERT_TRUE(lock);
    const auto done = Vault(folder / "vault", files).deliver(*made, {"t", folder / "game", {}}, 1);
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::busy);
    EXPECT_EQ(now(), before);
}

TEST_F(LooseFiles, AFileThatIsGoneStopsTheWholeDelivery) {
    const auto made = plan({{{"a/one.dds"}, Bytes(9)}, {{"a/two.bin"}, Bytes(9)}});
    std::filesystem::remove(folder / "game/a/two.bin");
    const auto done = Vault(folder / "vault", files).deliver(*made, {"t", folder / "game", {}}, 1);
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().code, ErrorCode::missing);
    EXPECT_EQ(get_file(folder / "game/a/one.dds"), before["a/one.dds"]);
}

TEST_F(LooseFiles, TheCommandLineWorksOnAFolderToo) {
    const auto game = (folder / "game").string(), vault = (folder / "vault").string();
    put_file(folder / "new.dds", make_dds(Format::BC1, 32, 32, 0, 7));
    ASSERT_EQ(run_cli({"replace", game + "::a/one.dds", "--with", (folder / "new.dds").string(), "--vault", vault}).code, 0);
    EXPECT_EQ(now()["a/one.dds"], make_dds(Format::BC1, 32, 32, 0, 7));
    ASSERT_EQ(run_cli({"verify", game}).code, 0);
    ASSERT_EQ(run_cli({"restore", game, "--vault", vault}).code, 0);
    EXPECT_EQ(now(), before);
    // A bare file is a source of its own.
    const auto file = (folder / "game/a/one.dds").string();
    ASSERT_EQ(run_cli({"replace", file, "--with", (folder / "new.dds").string(), "--vault", vault}).code, 0);
    EXPECT_EQ(now()["a/one.dds"], make_dds(Format::BC1, 32, 32, 0, 7));
    ASSERT_EQ(run_cli({"restore", file, "--vault", vault}).code, 0);
    EXPECT_EQ(now(), before);
}
