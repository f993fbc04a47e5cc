#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <cmath>
#include <filesystem>
#include <sstream>
#include <string>
#include <vector>

#include "bench/export.h"
#include "cli/run.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;
using nlohmann::json;

namespace {

struct Cli : testing::Test {
    TempFolder folder;
    std::string zip, vault;
    Bytes horse = make_dds(Format::BC1, 64, 64), cup = make_dds(Format::BC3, 32, 32, 0, 4);

    void SetUp() override {
        zip = (folder / "game.zip").string();
        vault = (folder / "vault").string();
        put_file(zip, make_zip({{"rides/horse.dds", horse},
                                {"rides/cup.dds", cup, true},
                                {"note.txt", bytes_of("hello")},
                                {"pic.png", *write_png(smooth_picture(20, 10, 1))}}));
    }
    static std::vector<json> lines(const std::string& text) {
        std::vector<json> out;
        for (std::size_t at = 0; at < text.size();) {
            const auto end = text.find('\n', at);
            out.push_back(json::parse(text.substr(at, end - at)));
            at = end + 1;
        }
        return out;
    }
    std::string edited(std::uint32_t x, std::uint32_t y) {
        auto image = *TextureFile::open(TextureKinds::standard(), horse, "", ReadLimits{})->decode(0);
        image.at(x, y) = {255, 0, 255, 255};
        put_file(folder / "edit.png", *write_png(image));
        return (folder / "edit.png").string();
    }
};

}  // namespace

TEST_F(Cli, ListsAsJsonLinesWithTheKeysOfTheContract) {
    const auto ran = run_cli({"list", zip, "--json"});
    ASSERT_EQ(ran.code, 0) << ran.err;
    const auto all = lines(ran.out);
    ASSERT_EQ(all.size(), 4u);
    for (const char* key : {"address", "path", "source", "kind", "size", "stored", "method", "format", "width", "height", "depth", "layers",
                            "faces", "mips", "color", "role", "effective"})
        EXPECT_TRUE(all[0].contains(key)) << key;
    EXPECT_EQ(all[0]["address"], zip + "::rides/horse.dds");
    EXPECT_EQ(all[0]["kind"], "texture");
    EXPECT_EQ(all[0]["format"], "BC1");
    EXPECT_EQ(all[0]["mips"], 7);
    EXPECT_EQ(all[1]["method"], "deflate");
    EXPECT_EQ(all[2]["kind"], "other");
    EXPECT_EQ(all[3]["kind"], "image");
    EXPECT_EQ(lines(run_cli({"list", zip, "--json", "--textures"}).out).size(), 3u);
    EXPECT_EQ(lines(run_cli({"list", zip, "--json", "--match", "*CUP*", "--match", "*.txt"}).out).size(), 2u);
}

TEST_F(Cli, EncodesWithEveryEffortIntoEveryTextureFile) {
    put_file(folder / "in.png", *write_png(smooth_picture(24, 20, 3)));
    const auto in = (folder / "in.png").string();
    for (const std::string ending : {"dds", "ktx2", "ktx"})
        for (const std::string effort : {"fast", "normal", "best"}) {
            const auto out = (folder / ("out." + ending)).string();
            const auto ran = run_cli({"encode", in, "--format", "BC7", "--effort", effort, "--color", "srgb", "--out", out});
            ASSERT_EQ(ran.code, 0) << ran.err;
            const auto texture = TextureFile::open(TextureKinds::standard(), get_file(out), out, ReadLimits{});
            ASSERT_TRUE(texture) << texture.error().message();
            EXPECT_EQ(texture->layout.desc.format, Format::BC7);
            EXPECT_EQ(texture->layout.desc.color, ColorSpace::srgb);
            EXPECT_EQ(texture->layout.desc.mips, 5u);
        }
    EXPECT_EQ(run_cli({"encode", in, "--format", "BC7", "--effort", "utmost", "--out", (folder / "x.dds").string()}).code, 2);
    const auto impossible = run_cli({"encode", in, "--format", "ETC2_RGB", "--out", (folder / "x.dds").string()});
    EXPECT_EQ(impossible.code, 3);
    EXPECT_NE(impossible.err.find("KTX2 can"), std::string::npos) << impossible.err;
    EXPECT_FALSE(std::filesystem::exists(folder / "x.dds"));
}

TEST_F(Cli, ExportsAsKtx2WithTheBlocksUntouched) {
    const auto to = (folder / "out").string();
    ASSERT_EQ(run_cli({"export", zip, "--match", "*horse*", "--as", "ktx2", "--to", to}).code, 0);
    const auto texture = TextureFile::open(TextureKinds::standard(), get_file(folder / "out/rides/horse.ktx2"), "x", ReadLimits{});
    ASSERT_TRUE(texture);
    EXPECT_EQ(*payload_of(*texture), *payload_of(*TextureFile::open(TextureKinds::standard(), horse, "x", ReadLimits{})));
    const auto ran = run_cli({"replace", zip + "::rides/horse.dds", "--with", (folder / "out/rides/horse.ktx2").string(), "--dry-run",
                              "--json", "--vault", vault});
    ASSERT_EQ(ran.code, 0) << ran.err;
    EXPECT_EQ(ran.out.find("\"at\""), std::string::npos) << "brought back unchanged, no range is written: " << ran.out;
}

TEST_F(Cli, ShowSaysWhatAlphaIs) {
    const auto facts = json::parse(run_cli({"show", zip + "::rides/cup.dds", "--json"}).out);
    EXPECT_TRUE(facts.contains("alpha"));
    EXPECT_TRUE(facts.contains("hidden_colors"));
    EXPECT_NE(facts["alpha"], "opaque");
    EXPECT_EQ(json::parse(run_cli({"show", zip + "::pic.png", "--json"}).out)["alpha"], "opaque");
}

TEST_F(Cli, ShowsEveryFact) {
    const auto ran = run_cli({"show", zip + "::rides/cup.dds", "--json"});
    ASSERT_EQ(ran.code, 0) << ran.err;
    const auto facts = json::parse(ran.out);
    EXPECT_EQ(facts["format"], "BC3");
    EXPECT_EQ(facts["size"], cup.size());
    put_file(folder / "plain.dds", make_dds(Format::RGBA8, 64, 64));
    EXPECT_EQ(json::parse(run_cli({"show", (folder / "plain.dds").string(), "--json"}).out)["mip_filter"],
              "box filter in encoded light (99 % sure)");
    EXPECT_NE(run_cli({"show", zip + "::rides/cup.dds"}).out.find("mip 0"), std::string::npos);
}

TEST_F(Cli, ExportsWithFoldersOrFlatWithoutCollisions) {
    put_file(zip, make_zip({{"a/x.dds", horse}, {"b/x.dds", cup}, {"../../out.dds", horse}}));
    ASSERT_EQ(run_cli({"export", zip, "--to", (folder / "tree").string()}).code, 0);
    EXPECT_TRUE(std::filesystem::exists(folder / "tree/a/x.png"));
    EXPECT_TRUE(std::filesystem::exists(folder / "tree/b/x.png"));
    EXPECT_TRUE(std::filesystem::exists(folder / "tree/out.png")) << "a name that climbs stays below the target";
    ASSERT_EQ(run_cli({"export", zip, "--to", (folder / "flat").string(), "--flat", "--as", "dds"}).code, 0);
    EXPECT_EQ(get_file(folder / "flat/x.dds"), horse);
    EXPECT_EQ(get_file(folder / "flat/x_2.dds"), cup);
    ASSERT_EQ(run_cli({"export", zip + "::a/x.dds", "--to", (folder / "mips").string(), "--mip", "all"}).code, 0);
    EXPECT_EQ(read_png(get_file(folder / "mips/a/x.mip2.png"), ReadLimits{})->width, 16u);
    ASSERT_EQ(run_cli({"export", zip + "::b/x.dds", "--to", (folder / "split").string(), "--alpha", "split"}).code, 0);
    EXPECT_TRUE(std::filesystem::exists(folder / "split/b/x.alpha.png"));
}

TEST_F(Cli, NormalsAreComparedByTheAngleAndLightByStops) {
    Image hills(64, 64);
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 64; ++x) {
            const double nx = 0.5 * std::sin(x * 0.3), ny = 0.5 * std::cos(y * 0.2), nz = std::sqrt(1 - nx * nx - ny * ny);
            const auto code = [](double v) { return static_cast<std::uint8_t>(std::lround((v + 1) / 2 * 255)); };
            hills.at(x, y) = {code(nx), code(ny), code(nz), 255};
        }
    const auto picture = (folder / "hills.png").string(), texture = (folder / "hills.dds").string(),
               light = (folder / "light.dds").string();
    put_file(picture, *write_png(hills));
    ASSERT_EQ(run_cli({"encode", picture, "--format", "BC5", "--color", "linear", "--out", texture}).code, 0);
    for (const bool turned : {false, true}) {
        const auto off = json::parse(run_cli({"compare", turned ? texture : picture, turned ? picture : texture, "--json"}).out);
        EXPECT_GT(off["degrees_mean"], 0.05);
        EXPECT_LT(off["degrees_mean"], 2);
        EXPECT_GE(off["degrees_99"], off["degrees_mean"]);
        EXPECT_FALSE(off.contains("stops_mean"));
        EXPECT_EQ(off["psnr_channels"].size(), 4u);
    }
    // Against a picture that is no normal map there is no angle.
    auto red = hills;
    for (auto& t : red.texels) t = {200, 10, 10, 255};
    put_file(folder / "red.png", *write_png(red));
    for (const auto& both : {std::pair(picture, (folder / "red.png").string()), {(folder / "red.png").string(), texture}})
        EXPECT_FALSE(json::parse(run_cli({"compare", both.first, both.second, "--json"}).out).contains("degrees_mean"));
    EXPECT_NE(run_cli({"compare", texture, texture}).out.find(" · 0.00° off, 99 % within 0.00° · "), std::string::npos);
    ASSERT_EQ(run_cli({"encode", picture, "--format", "BC6H", "--out", light}).code, 0);
    const auto same = json::parse(run_cli({"compare", light, light, "--json"}).out);
    EXPECT_EQ(same["stops_mean"], 0);
    EXPECT_FALSE(json::parse(run_cli({"compare", zip + "::pic.png", zip + "::pic.png", "--json"}).out).contains("degrees_mean"));
}

TEST_F(Cli, TheNumberOfJobsChangesNothingAndResumeLeavesOutWhatIsThere) {
    ASSERT_EQ(run_cli({"export", zip, "--to", (folder / "one").string(), "--jobs", "1"}).code, 0);
    ASSERT_EQ(run_cli({"export", zip, "--to", (folder / "four").string(), "--jobs", "4"}).code, 0);
    for (const char* name : {"rides/horse.png", "rides/cup.png", "pic.png"})
        EXPECT_EQ(hash_of_file(folder / "one" / name), hash_of_file(folder / "four" / name));
    put_file(folder / "one/pic.png", bytes_of("mine"));
    EXPECT_NE(run_cli({"export", zip, "--to", (folder / "one").string(), "--resume"}).err.find("0 written"), std::string::npos);
    EXPECT_EQ(as_text(get_file(folder / "one/pic.png")), "mine");
}

TEST_F(Cli, ReplaceWritesAFewBytesAndRestoreGivesThemBack) {
    const auto hash = hash_of_file(zip);
    const auto picture = edited(33, 21);
    const auto dry = run_cli({"replace", zip + "::rides/horse.dds", "--with", picture, "--dry-run", "--json", "--vault", vault});
    ASSERT_EQ(dry.code, 0) << dry.err;
    const auto plan = json::parse(dry.out);
    EXPECT_EQ(plan["way"], "in-place");
    EXPECT_LT(plan["bytes_written"], 400);
    EXPECT_EQ(hash_of_file(zip), hash) << "a dry run writes nothing";
    EXPECT_FALSE(std::filesystem::exists(vault));
    ASSERT_EQ(run_cli({"replace", zip + "::rides/horse.dds", "--with", picture, "--vault", vault}).code, 0);
    EXPECT_NE(hash_of_file(zip), hash);
    put_file(folder / "horse.dds", horse);
    const auto compared = json::parse(run_cli({"compare", (folder / "horse.dds").string(), zip + "::rides/horse.dds", "--json"}).out);
    EXPECT_EQ(compared["changed_blocks"], 1);
    EXPECT_EQ(compared["mips"].size(), 7u);
    ASSERT_EQ(run_cli({"restore", zip, "--vault", vault}).code, 0);
    EXPECT_EQ(hash_of_file(zip), hash);
}

TEST_F(Cli, ReplaceIntoADeflatedEntryAppendsAndIsRestoredByAddress) {
    const auto hash = hash_of_file(zip);
    auto image = *TextureFile::open(TextureKinds::standard(), cup, "", ReadLimits{})->decode(0);
    for (std::uint32_t i = 0; i < 8; ++i) image.at(i, i) = {1, 2, 3, 255};
    put_file(folder / "cup.png", *write_png(image));
    const auto ran = run_cli({"replace", zip + "::rides/cup.dds", "--with", (folder / "cup.png").string(), "--json", "--vault", vault});
    ASSERT_EQ(ran.code, 0) << ran.err;
    EXPECT_EQ(json::parse(ran.out)["way"], "append");
    EXPECT_EQ(run_program({"unzip", "-tqq", zip}).code, 0);
    ASSERT_EQ(run_cli({"restore", zip, "rides/cup.dds", "--vault", vault}).code, 0);
    EXPECT_EQ(hash_of_file(zip), hash);
    EXPECT_EQ(run_cli({"restore", zip, "rides/cup.dds", "--vault", vault}).code, 3) << "nothing is left to undo";
}

TEST_F(Cli, APictureTheGameCannotReadIsRefused) {
    const auto hash = hash_of_file(zip);
    put_file(folder / "small.png", *write_png(smooth_picture(60, 60, 1)));
    const auto ran = run_cli({"replace", zip + "::rides/horse.dds", "--with", (folder / "small.png").string(), "--vault", vault});
    EXPECT_EQ(ran.code, 3);
    EXPECT_NE(ran.err.find("60×60 where the game has 64×64"), std::string::npos) << ran.err;
    EXPECT_EQ(hash_of_file(zip), hash);
}

TEST_F(Cli, APngKeepsItsColorTypeWhateverThePaintProgramSaved) {
    auto image = smooth_picture(20, 10, 1);
    image.at(3, 3) = {1, 2, 3, 255};
    put_file(folder / "plain.png", *write_png(image));
    ASSERT_EQ(run_program({"convert", (folder / "plain.png").string(), "PNG32:" + (folder / "with_alpha.png").string()}).code, 0);
    ASSERT_EQ(run_cli({"replace", zip + "::pic.png", "--with", (folder / "with_alpha.png").string(), "--vault", vault}).code, 0);
    const auto facts = lines(run_cli({"list", zip, "--json", "--match", "pic.png"}).out).front();
    EXPECT_EQ(facts["format"], "RGB8");
    ASSERT_EQ(run_cli({"export", zip + "::pic.png", "--to", (folder / "back").string()}).code, 0);
    EXPECT_EQ(*read_png(get_file(folder / "back/pic.png"), ReadLimits{}), image);
}

TEST_F(Cli, EncodeLikeKeepsUnchangedBlocks) {
    const auto out = (folder / "out.dds").string();
    ASSERT_EQ(run_cli({"encode", edited(5, 5), "--like", zip + "::rides/horse.dds", "--out", out}).code, 0);
    const auto made = get_file(out);
    ASSERT_EQ(made.size(), horse.size());
    std::size_t changed = 0;
    for (std::size_t i = 128; i < 128 + 16 * 16 * 8; ++i) changed += made[i] != horse[i];
    EXPECT_GT(changed, 0u);
    EXPECT_LE(changed, 8u);
}

TEST_F(Cli, EncodeMakesANewTexture) {
    const auto out = (folder / "new.dds").string();
    ASSERT_EQ(run_cli({"encode", edited(1, 1), "--format", "bc3", "--color", "srgb", "--out", out}).code, 0);
    const auto texture = TextureFile::open(TextureKinds::standard(), get_file(out), "", ReadLimits{});
    EXPECT_EQ(texture->layout.desc, (TextureDesc{Format::BC3, 64, 64, 1, 7, 1, 1, ColorSpace::srgb}));
    EXPECT_EQ(run_cli({"encode", edited(1, 1), "--format", "BC9", "--out", out}).code, 2);
    EXPECT_EQ(run_cli({"encode", edited(1, 1), "--out", out}).code, 2);
    EXPECT_EQ(run_cli({"encode", edited(1, 1), "--format", "BC1", "--mips", "12", "--out", out}).code, 2);
}

TEST_F(Cli, ApplyPutsAWholeFolderIn) {
    const auto hash = hash_of_file(zip);
    std::filesystem::create_directories(folder / "mod/rides");
    std::filesystem::copy(edited(2, 2), folder / "mod/rides/horse.png");
    put_file(folder / "mod/note.txt", bytes_of("HELLO"));
    ASSERT_EQ(run_cli({"apply", (folder / "mod").string(), "--into", zip, "--vault", vault}).code, 0);
    EXPECT_EQ(run_program({"unzip", "-p", zip, "note.txt"}).output, "HELLO");
    put_file(folder / "mod/stranger.dds", horse);
    EXPECT_EQ(run_cli({"apply", (folder / "mod").string(), "--into", zip, "--vault", vault, "--dry-run"}).code, 1) << "done in part";
    ASSERT_EQ(run_cli({"restore", zip, "--vault", vault}).code, 0);
    EXPECT_EQ(hash_of_file(zip), hash);
}

TEST_F(Cli, VerifyListsWhatIsDamaged) {
    EXPECT_EQ(run_cli({"verify", zip}).code, 0);
    auto file = get_file(zip);
    file[200] ^= std::byte{1};
    put_file(zip, file);
    const auto ran = run_cli({"verify", zip, "--json"});
    EXPECT_EQ(ran.code, 3);
    EXPECT_EQ(lines(ran.out).front()["path"], "rides/horse.dds");
    EXPECT_EQ(lines(ran.out).back()["damaged"], 1);
}

TEST_F(Cli, ExitCodesAreThoseOfTheContract) {
    EXPECT_EQ(run_cli({"--help"}).code, 0);
    EXPECT_EQ(run_cli({"list", "--help"}).code, 0);
    EXPECT_EQ(run_cli({}).code, 2);
    EXPECT_EQ(run_cli({"paint"}).code, 2);
    EXPECT_EQ(run_cli({"list", zip, "--what"}).code, 2);
    EXPECT_EQ(run_cli({"list", (folder / "none.zip").string()}).code, 3);
    EXPECT_EQ(run_cli({"list", (folder / "none.zip").string(), zip}).code, 1) << "done in part";
    EXPECT_EQ(run_cli({"show", zip + "::nothing"}).code, 3);
    put_file(folder / "noise", random_bytes(300, 1));
    EXPECT_EQ(run_cli({"verify", (folder / "noise").string()}).code, 3);
    EXPECT_EQ(run_cli({"export", zip, "--to", (folder / "x").string(), "--as", "gif"}).code, 2);
    EXPECT_EQ(run_cli({"export", zip, "--to", "/proc/nowhere"}).code, 4) << "the system's fault, and nothing was written";
}

TEST_F(Cli, SheetsAreCheckedAndUsed) {
    const auto crate = (folder / "t.crate").string();
    put_file(crate, make_crate({{"a.dds", horse}}));
    EXPECT_EQ(lines(run_cli({"list", crate, "--json"}).out).size(), 1u) << "the shipped sheet knows it";
    EXPECT_EQ(run_cli({"sheet", "check", std::string(sheets_folder) + "/fair-crate.toml"}).code, 0);
    put_file(folder / "bad.toml", bytes_of("sheet = \"container\"\nname = \"x\"\nwhat = 1\n"));
    const auto ran = run_cli({"sheet", "check", (folder / "bad.toml").string()});
    EXPECT_EQ(ran.code, 3);
    EXPECT_NE(ran.err.find("bad.toml ▸ line 3: the word \"what\" is not known here"), std::string::npos);
    EXPECT_EQ(run_cli({"list", crate, "--sheet", (folder / "bad.toml").string()}).code, 3);
}

TEST_F(Cli, ACancelEndsWith130) {
    std::ostringstream out, err;
    cli::Interruption interruption;
    interruption.cancel.cancel();
    EXPECT_EQ(cli::run({"verify", zip}, out, err, &interruption), 130);
    EXPECT_EQ(cli::run({"export", zip, "--to", (folder / "c").string()}, out, err, &interruption), 130);
}
