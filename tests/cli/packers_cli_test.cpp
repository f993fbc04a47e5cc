// A packer nobody may ship: the sheet names it, the modder's own program does it, in a sandbox. The program is Brindle Fair's.
#include <gtest/gtest.h>

#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

const std::string sheet_text = R"(sheet = "container"
name = "Band"
[[recognize]]
text = "BAND"
[[packer]]
name = "brass"
kind = "program"
[header]
fields = [ { name = "magic", type = "text", size = 4 } ]
[record]
counted = "u32"
fields = [
  { name = "path", type = "text", size = 24, means = "path" },
  { name = "at", type = "u32", means = "data offset" },
  { name = "stored", type = "u32", means = "stored size" },
  { name = "bytes", type = "u32", means = "size" },
]
[data]
method = "brass"
)";

struct Packers : testing::Test {
    TempFolder folder;
    Bytes horse = make_dds(Format::BC1, 64, 64);
    std::string brass = our_program("fair-brass");
    std::string at(const std::string& name) const { return (folder / name).string(); }
    std::vector<std::string> programs{"--unpacker", "brass=" + brass + " unpack {size}", "--packer", "brass=" + brass + " pack"};

    /// What the program makes of data, by itself.
    Bytes packed(const Bytes& data) {
        put_file(folder / "plain", data);
        EXPECT_EQ(run_program({"sh", "-c", "'" + brass + "' pack < '" + at("plain") + "' > '" + at("packed") + "'"}).code, 0);
        return get_file(folder / "packed");
    }
    void SetUp() override {
        if (!std::filesystem::exists(brass)) GTEST_SKIP() << "built without Brindle Fair";
        const auto one = packed(horse), two = packed(bytes_of("a song, a song, a song"));
        ByteWriter out;
        out.put("BAND");
        out.le(std::uint32_t{2});
        auto place = std::uint32_t{8 + 2 * 36};
        for (const auto& [name, data, size] : {std::tuple{"drum/horse.dds", one, horse.size()}, {"song.txt", two, std::size_t{22}}}) {
            std::string fixed(name);
            fixed.resize(24);
            out.put(fixed);
            out.le(place);
            out.le(static_cast<std::uint32_t>(data.size()));
            out.le(static_cast<std::uint32_t>(size));
            place += static_cast<std::uint32_t>(data.size());
        }
        out.put(one);
        out.put(two);
        put_file(folder / "march.band", out.bytes);
        put_file(folder / "band.toml", bytes_of(sheet_text));
    }
    CliRan cli(std::vector<std::string> words, bool with_programs = true) {
        words.insert(words.end(), {"--sheet", at("band.toml")});
        if (with_programs) words.insert(words.end(), programs.begin(), programs.end());
        return run_cli(words);
    }
};

}  // namespace

TEST_F(Packers, AMissingOneIsAskedForByName) {
    const auto ran = cli({"extract", at("march.band") + "::song.txt", "--out", "-"}, false);
    EXPECT_EQ(ran.code, 3);
    EXPECT_NE(ran.err.find("song.txt: wants the packer \"brass\""), std::string::npos) << ran.err;
    EXPECT_EQ(cli({"list", at("march.band")}, false).code, 0) << "what is in it can be listed without it";
    EXPECT_EQ(run_cli({"list", at("march.band"), "--unpacker", "brass"}).code, 2);
    EXPECT_EQ(run_cli({"list", at("march.band"), "--packer", "brass=x"}).code, 2) << "no command for unpacking";
}

TEST_F(Packers, ReadsAndWritesThroughTheProgram) {
    EXPECT_EQ(cli({"extract", at("march.band") + "::song.txt", "--out", "-"}).out, "a song, a song, a song");
    const auto before = get_file(folder / "march.band");
    auto edited = horse;
    edited[200] ^= std::byte{0x55};
    put_file(folder / "horse.dds", edited);
    const auto put = cli({"replace", at("march.band") + "::drum/horse.dds", "--with", at("horse.dds"), "--vault", at("vault")});
    EXPECT_EQ(put.code, 0) << put.err;
    ASSERT_EQ(cli({"extract", at("march.band") + "::drum/horse.dds", "--out", at("again.dds")}).code, 0);
    EXPECT_EQ(get_file(folder / "again.dds"), edited);
    const auto proved = cli({"sheet", "try", at("band.toml"), at("march.band"), "--prove", "--records", "0"});
    EXPECT_EQ(proved.code, 0) << proved.err;
    EXPECT_NE(proved.out.find("proved: 2 of 2 entries"), std::string::npos) << proved.out;
    EXPECT_EQ(run_cli({"restore", "--all", "--vault", at("vault")}).code, 0);
    EXPECT_EQ(get_file(folder / "march.band"), before);
    // Without a command for packing nothing is written.
    programs.resize(2);
    const auto only_read = cli({"replace", at("march.band") + "::drum/horse.dds", "--with", at("horse.dds"), "--vault", at("vault")});
    EXPECT_EQ(only_read.code, 3) << only_read.out;
    EXPECT_NE(only_read.err.find("has no command for packing"), std::string::npos) << only_read.err;
    EXPECT_EQ(get_file(folder / "march.band"), before);
}

TEST_F(Packers, AProjectKeepsItsPrograms) {
    ASSERT_EQ(run_cli({"project", "new", at("p")}).code, 0);
    ASSERT_EQ(run_cli({"project", "set", at("p"), "--set-unpacker", programs[1], "--set-packer", programs[3]}).code, 0);
    std::filesystem::create_directories(folder / "p/sheets");
    std::filesystem::copy_file(folder / "band.toml", folder / "p/sheets/band.toml");
    ASSERT_EQ(run_cli({"project", "add", at("p"), at("march.band")}).code, 0);
    const auto taken = run_cli({"project", "take", at("p"), at("march.band") + "::drum/horse.dds"});
    EXPECT_EQ(taken.code, 0) << taken.out << taken.err;
    EXPECT_EQ(run_cli({"project", "set", at("p"), "--forget-packer", "brass"}).code, 0);
    EXPECT_EQ(as_text(get_file(folder / "p/project.json")).find("fair-brass"), std::string::npos);
    EXPECT_EQ(run_cli({"project", "set", at("p"), "--set-packer", "x=y"}).code, 2) << "packing alone";
}
