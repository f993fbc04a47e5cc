// Archives from the command line: keys, chosen kinds, known paths, sheets tried and proven, dead space given back.
#include <gtest/gtest.h>

#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "base/cipher.h"
#include "bench/fitting.h"
#include "support/headerless.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct ContainersCli : testing::Test {
    TempFolder folder;
    std::string at(const std::string& name) const { return (folder / name).string(); }
    std::string layout(const std::string& name) {
        const auto ran = run_program({"python3", std::string(layouts_folder) + "/layouts.py", "write", name, folder.path().string(), "5"});
        EXPECT_EQ(ran.code, 0) << ran.output;
        return std::string(layouts_folder) + "/" + name + ".toml";
    }
};

}  // namespace

TEST_F(ContainersCli, AKeyOpensWhatIsEncryptedAndIsNeverPrinted) {
    put_file(folder / "in/horse.dds", make_dds(Format::BC1, 32, 32));
    ASSERT_EQ(run_program({"zip", "-q", "-P", "ticket booth", "../locked.zip", "horse.dds"}, at("in")).code, 0);
    const auto without = run_cli({"verify", at("locked.zip")});
    EXPECT_EQ(without.code, 3);
    EXPECT_NE((without.out + without.err).find("no key"), std::string::npos) << without.out << without.err;
    const auto with = run_cli({"verify", at("locked.zip"), "--key", "booth=text:ticket booth"});
    EXPECT_EQ(with.code, 0) << with.out << with.err;
    const auto wrong = run_cli({"verify", at("locked.zip"), "--key", "booth=text:fortune teller"});
    EXPECT_EQ(wrong.code, 3);
    EXPECT_NE(wrong.out.find("the key \"booth\" does not open"), std::string::npos) << wrong.out;
    EXPECT_EQ((wrong.out + wrong.err).find("fortune"), std::string::npos);
    EXPECT_EQ(run_cli({"list", at("locked.zip"), "--key", "booth=zz"}).code, 2);
    const auto listed = run_cli({"list", at("locked.zip"), "--json", "--key", "booth=text:ticket booth"});
    EXPECT_EQ(nlohmann::json::parse(listed.out).at("format"), "BC1");
}

TEST_F(ContainersCli, AKindCanBeChosenAgainstRecognition) {
    const auto inner = make_zip({{"a.bin", bytes_of("abc")}});
    put_file(folder / "odd.pack", make_zip({{"in.zip", inner}}));
    EXPECT_EQ(run_cli({"list", at("odd.pack")}).code, 0);
    const auto chosen = run_cli({"list", at("odd.pack"), "--kind", "*.pack=tar"});
    EXPECT_EQ(chosen.code, 3);
    EXPECT_NE(chosen.err.find("odd.pack"), std::string::npos) << chosen.err;
    const auto unknown = run_cli({"list", at("odd.pack"), "--kind", "*.pack=cupboard"});
    EXPECT_EQ(unknown.code, 2);
    EXPECT_NE(unknown.err.find("the kinds are ZIP, tar, packed file, 7z, cpio, ISO 9660, sifting"), std::string::npos) << unknown.err;
}

TEST_F(ContainersCli, KnownPathsNameHashedEntries) {
    const auto sheet = layout("cipher");
    std::filesystem::remove(folder / "cipher.paths");
    const std::vector<std::string> keys = {"--key", "booth=000102030405060708090a0b0c0d0e0f", "--key", "tin=text:tin foil", "--sheet",
                                           sheet};
    auto words = std::vector<std::string>{"list", at("game.cph")};
    words.insert(words.end(), keys.begin(), keys.end());
    EXPECT_NE(run_cli(words).out.find("#f517cf26"), std::string::npos);
    put_file(folder / "guesses.txt", bytes_of("rides/swing.dds\r\nrides/nothing.dds\n"));
    words.insert(words.end(), {"--paths", at("guesses.txt")});
    const auto named = run_cli(words);
    EXPECT_NE(named.out.find("rides/swing.dds"), std::string::npos) << named.out << named.err;
    EXPECT_EQ(named.out.find("#f517cf26"), std::string::npos);
}

TEST_F(ContainersCli, ASheetIsTriedFieldByField) {
    const auto sheet = layout("rows");
    const auto tried = run_cli({"sheet", "try", sheet, at("game.rows"), "--records", "1", "--prove"});
    EXPECT_EQ(tried.code, 0) << tried.err;
    EXPECT_NE(tried.out.find("recognized by 4 bytes at 0"), std::string::npos) << tried.out;
    EXPECT_NE(tried.out.find("0x8  06 00 00 00                                      entries        6  — entry count"), std::string::npos)
        << tried.out;
    EXPECT_NE(tried.out.find("ratio          1.5"), std::string::npos);
    EXPECT_NE(tried.out.find("6 entries, 6 readable"), std::string::npos);
    EXPECT_NE(tried.out.find("proved: 6 of 6 entries were changed and put back in a copy, all made longer, too; every byte is explained"),
              std::string::npos)
        << tried.out;
    EXPECT_EQ(run_cli({"sheet", "check", sheet}).out, "Rows: a container sheet with 9 header fields and 4 record fields\n");
}

TEST_F(ContainersCli, ASheetIsTriedOnAFolderOfExamplesAndOnEntries) {
    const auto sheet = layout("rows");
    std::filesystem::create_directories(folder / "examples/more");
    std::filesystem::copy_file(at("game.rows"), folder / "examples/a.rows");
    auto broken = get_file(at("game.rows"));
    broken.resize(broken.size() - 2000);
    put_file(folder / "examples/more/b.rows", broken);
    put_file(folder / "examples/readme.txt", bytes_of("nothing"));
    const auto many = run_cli({"sheet", "try", sheet, at("examples")});
    EXPECT_EQ(many.code, 3) << many.err;
    EXPECT_NE(many.out.find("a.rows: recognized by 4 bytes at 0"), std::string::npos) << many.out;
    EXPECT_NE(many.out.find("1 of 2 files hold; 1 are not recognized"), std::string::npos) << many.out;
    EXPECT_NE(many.err.find("more/b.rows"), std::string::npos) << many.err;
    // An archive in an archive.
    ASSERT_EQ(run_program({"zip", "-q", "-j", at("outer.zip"), at("game.rows")}).code, 0);
    const auto inner = run_cli({"sheet", "try", sheet, at("outer.zip") + "::game.rows", "--prove", "--records", "0"});
    EXPECT_EQ(inner.code, 0) << inner.err;
    EXPECT_NE(inner.out.find("bytes of tables, "), std::string::npos) << inner.out;
    EXPECT_NE(inner.out.find("proved: 6 of 6"), std::string::npos) << inner.out;
}

TEST_F(ContainersCli, AnyEntrysBytesCanBeTakenOut) {
    const auto sheet = layout("trunk");
    const auto address = at("game.trunk") + "::rides/Swing.dds";
    const auto out = run_cli({"extract", address, "--sheet", sheet, "--out", at("swing")});
    EXPECT_EQ(out.code, 0) << out.err;
    EXPECT_EQ(get_file(at("swing")), get_file(folder / "plain/rides/Swing.dds"));
    EXPECT_EQ(run_cli({"extract", address, "--sheet", sheet, "--out", at("swing")}).code, 2) << "nothing is written over";
    const auto stored = run_cli({"extract", address, "--sheet", sheet, "--stored", "--out", "-"});
    EXPECT_EQ(stored.code, 0) << stored.err;
    EXPECT_LT(stored.out.size(), 900u) << "packed with deflate";
    EXPECT_EQ(*unpack(Packing::deflate, as_bytes(stored.out), 900, ReadLimits{}), get_file(folder / "plain/rides/Swing.dds"));
    ASSERT_EQ(run_program({"zip", "-q", "-j", at("outer.zip"), at("game.trunk")}).code, 0);
    const auto nested = run_cli({"extract", at("outer.zip") + "::game.trunk::lamp", "--sheet", sheet, "--out", "-"});
    EXPECT_EQ(bytes_of(nested.out), get_file(folder / "plain/lamp"));
    EXPECT_EQ(run_cli({"extract", at("outer.zip") + "::game.trunk::no", "--sheet", sheet, "--stored", "--out", "-"}).code, 3);
    EXPECT_EQ(run_cli({"extract", at("outer.zip"), "--stored"}).code, 2);
}

TEST_F(ContainersCli, TheFirstThingThatDoesNotHoldIsSaid) {
    const auto sheet = layout("rows");
    auto text = as_text(get_file(sheet));
    text.replace(text.find("kind = \"fnv1a32\""), 16, "kind = \"adler32\"");
    put_file(folder / "wrong.toml", bytes_of(text));
    const auto tried = run_cli({"sheet", "try", at("wrong.toml"), at("game.rows"), "--json"});
    EXPECT_EQ(tried.code, 3);
    EXPECT_NE(tried.err.find("directory: Adler-32 is"), std::string::npos) << tried.err;
    const auto last = nlohmann::json::parse(tried.out.substr(tried.out.rfind('\n', tried.out.size() - 2) + 1));
    EXPECT_EQ(last.at("readable"), 6) << "what was read before it is still shown";
    EXPECT_TRUE(last.contains("wrong"));
    // A sheet that says too little reads and cannot write: the proof finds it.
    text = as_text(get_file(sheet));
    const auto mean = text.find(", means = \"checksum\"");
    text.erase(mean, text.find(" }", mean) - mean);
    put_file(folder / "little.toml", bytes_of(text));
    const auto proof = run_cli({"sheet", "try", at("little.toml"), at("game.rows"), "--prove", "--records", "0"});
    EXPECT_EQ(proof.code, 0) << "without a meaning the checksum is kept, and nobody here checks it";
}

TEST_F(ContainersCli, CompactGivesBackWhatReplacingLeft) {
    const auto sheet = layout("ledger");
    const auto before = get_file(folder / "game.led");
    put_file(folder / "new.bin", random_bytes(9000, 1));
    // An entry that is not the first one leaves its place when it moves for the second time.
    put_file(folder / "other.bin", random_bytes(9500, 2));
    for (const auto& [entry, file] : {std::pair{"rides/horse.dds", "other.bin"},
                                      {"lamp", "new.bin"},
                                      {"rides/horse.dds", "new.bin"},
                                      {"lamp", "other.bin"},
                                      {"rides/horse.dds", "other.bin"},
                                      {"lamp", "new.bin"},
                                      {"rides/horse.dds", "new.bin"}})
        ASSERT_EQ(
            run_cli({"replace", at("game.led") + "::" + entry, "--with", at(file), "--sheet", sheet, "--vault", at("vault"), "--as-is"})
                .code,
            0);
    const auto grown = std::filesystem::file_size(folder / "game.led");
    const auto dry = run_cli({"compact", at("game.led"), "--sheet", sheet, "--vault", at("vault"), "--dry-run", "--json"});
    EXPECT_EQ(nlohmann::json::parse(dry.out).at("way"), "rebuild");
    const auto done = run_cli({"compact", at("game.led"), "--sheet", sheet, "--vault", at("vault")});
    ASSERT_EQ(done.code, 0) << done.err;
    EXPECT_LT(std::filesystem::file_size(folder / "game.led"), grown);
    const auto read =
        run_program({"python3", std::string(layouts_folder) + "/layouts.py", "read", "ledger", folder.path().string(), at("out")});
    EXPECT_EQ(read.code, 0) << read.output;
    EXPECT_EQ(get_file(folder / "out/rides/horse.dds"), random_bytes(9000, 1));
    EXPECT_EQ(run_cli({"compact", at("game.led"), "--sheet", sheet, "--vault", at("vault")}).out,
              "nothing to write: the content is the same\n");
    ASSERT_EQ(run_cli({"restore", at("game.led"), "--vault", at("vault")}).code, 0);
    EXPECT_EQ(get_file(folder / "game.led"), before);
}

TEST_F(ContainersCli, ALooseFileOrAPatchArchiveLeavesTheArchiveAlone) {
    const auto texture = make_dds(Format::BC1, 32, 32);
    put_file(folder / "game.zip", make_zip({{"rides/horse.dds", texture, true}, {"b", random_bytes(50, 1)}}));
    const auto before = get_file(folder / "game.zip");
    put_file(folder / "new.dds", make_dds(Format::BC1, 32, 32, 0, 9));
    const std::vector<std::string> replace = {"replace",  at("game.zip") + "::rides/horse.dds", "--with", at("new.dds"), "--vault",
                                              at("vault")};
    auto beside = replace;
    beside.insert(beside.end(), {"--beside", at("override")});
    ASSERT_EQ(run_cli(beside).code, 0);
    EXPECT_EQ(get_file(folder / "override/rides/horse.dds"), get_file(folder / "new.dds"));
    auto patch = replace;
    patch.insert(patch.end(), {"--patch", at("game_patch.zip")});
    ASSERT_EQ(run_cli(patch).code, 0);
    EXPECT_EQ(run_cli({"list", at("game_patch.zip")}).out.find("  b\n"), std::string::npos);
    EXPECT_EQ(run_program({"unzip", "-tqq", at("game_patch.zip")}).code, 0);
    EXPECT_EQ(run_cli(patch).code, 2) << "a patch archive is not overwritten";
    EXPECT_EQ(get_file(folder / "game.zip"), before);
    ASSERT_EQ(run_cli({"restore", "--all", "--vault", at("vault")}).out, "2 deliveries undone\n");
    EXPECT_FALSE(std::filesystem::exists(folder / "override"));
    EXPECT_FALSE(std::filesystem::exists(folder / "game_patch.zip"));
    EXPECT_EQ(run_cli({"restore", "--vault", at("vault")}).code, 2) << "nothing is restored by accident";
}

TEST_F(ContainersCli, OneEntryOfSeveralIsRestored) {
    put_file(folder / "game.zip", make_zip({{"a", random_bytes(500, 1)}, {"b", random_bytes(600, 2), true}, {"c", random_bytes(700, 3)}}));
    const auto before = get_file(folder / "game.zip");
    put_file(folder / "mod/a", random_bytes(900, 4));
    put_file(folder / "mod/b", random_bytes(20, 5));
    ASSERT_EQ(run_cli({"apply", at("mod"), "--into", at("game.zip"), "--vault", at("vault")}).code, 0);
    put_file(folder / "later", random_bytes(80, 6));
    ASSERT_EQ(run_cli({"replace", at("game.zip") + "::c", "--with", at("later"), "--vault", at("vault")}).code, 0);
    ASSERT_EQ(run_cli({"replace", at("game.zip") + "::a", "--with", at("later"), "--vault", at("vault")}).code, 0);
    const auto restored = run_cli({"restore", at("game.zip"), "a", "--vault", at("vault")});
    ASSERT_EQ(restored.code, 0) << restored.err;
    std::filesystem::create_directories(folder / "out");
    ASSERT_EQ(run_program({"unzip", "-qq", at("game.zip"), "-d", at("out")}).code, 0);
    EXPECT_EQ(get_file(folder / "out/a"), random_bytes(500, 1)) << "as it was before both deliveries";
    EXPECT_EQ(get_file(folder / "out/b"), random_bytes(20, 5));
    EXPECT_EQ(get_file(folder / "out/c"), random_bytes(80, 6));
    EXPECT_EQ(run_cli({"restore", at("game.zip"), "nothing", "--vault", at("vault")}).code, 3);
    ASSERT_EQ(run_cli({"restore", at("game.zip"), "--vault", at("vault")}).code, 0);
    EXPECT_EQ(get_file(folder / "game.zip"), before) << "restoring all gives every byte back";
}

TEST_F(ContainersCli, SiftingNamesTexturesWithoutAHeaderKeysAndNothing) {
    auto file = random_bytes(8192, 4);
    const auto levels = encode_levels(drawn_picture(128, 128, 18), TextureDesc{Format::BC1, 128, 128, 1, 8}, {});
    file.insert(file.end(), levels->begin(), levels->end());
    const auto noise = random_bytes(6001, 5);
    file.insert(file.end(), noise.begin(), noise.end());
    const auto hidden = xor_with(bytes_of("\x5A\x01"), make_dds(Format::BC3, 64, 64));
    file.insert(file.end(), hidden.begin(), hidden.end());
    put_file(folder / "unknown.dat", file);
    const auto ran = run_cli({"sift", at("unknown.dat")});
    EXPECT_EQ(ran.code, 0) << ran.err;
    EXPECT_NE(ran.out.find("headerless BC1 128×128, 8 mips"), std::string::npos) << ran.out;
    EXPECT_NE(ran.out.find("DDS BC3 64×64, 7 mips, behind the key 5a01"), std::string::npos) << ran.out;
    const auto lines = run_cli({"sift", at("unknown.dat"), "--json"}).out;
    const auto first = nlohmann::json::parse(lines.substr(0, lines.find('\n')));
    EXPECT_EQ(first.at("at"), 8192);
    EXPECT_EQ(first.at("kind"), "headerless");
    EXPECT_EQ(first.at("width"), 128);
    put_file(folder / "noise.dat", Bytes(5000, std::byte{0x41}));
    const auto nothing = run_cli({"sift", at("noise.dat")});
    EXPECT_EQ(nothing.code, 0);
    EXPECT_TRUE(nothing.out.empty()) << nothing.out;
    EXPECT_NE(nothing.err.find("nothing that can be recognized is in noise.dat"), std::string::npos) << nothing.err;
}
