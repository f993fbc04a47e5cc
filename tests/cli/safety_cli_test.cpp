// What the command line must never do to a file, and what it must not call a success.
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <sys/wait.h>
#include <unistd.h>
#include <csignal>
#include <filesystem>
#include <fstream>
#include <string>
#include <vector>

#include "bench/export_manifest.h"
#include "cli/run.h"
#include "container/address.h"
#include "delivery/vault.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "texture/dds.h"
#include "texture/ktx.h"
#include "texture/ktx2.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Safety : testing::Test {
    TempFolder folder;
    std::string zip, vault;
    Bytes horse = make_dds(Format::BC1, 64, 64), cup = make_dds(Format::BC3, 32, 32, 0, 4), before;

    void SetUp() override {
        zip = at("game.zip");
        vault = at("vault");
        before = make_zip({{"rides/horse.dds", horse},
                           {"rides/cup.dds", cup, true},
                           {"note.txt", bytes_of("hello")},
                           {"pic.png", *write_png(smooth_picture(20, 10, 1))}});
        put_file(zip, before);
    }
    std::string at(const std::string& name) const { return (folder / name).string(); }
    static std::vector<nlohmann::json> lines(const std::string& text) {
        std::vector<nlohmann::json> out;
        std::istringstream in(text);
        for (std::string line; std::getline(in, line);) out.push_back(nlohmann::json::parse(line));
        return out;
    }
    std::string painted(const Bytes& texture, const std::string& name = "edit.png") {
        auto image = *TextureFile::open(TextureKinds::standard(), texture, "", ReadLimits{})->decode(0);
        image.at(5, 6) = {255, 0, 255, 255};
        put_file(folder / name, *write_png(image));
        return at(name);
    }
    CliRan replace(const std::string& entry, const std::string& with, std::vector<std::string> more = {}) {
        std::vector<std::string> words = {"replace", zip + "::" + entry, "--with", with, "--vault", vault};
        words.insert(words.end(), more.begin(), more.end());
        return run_cli(words);
    }
    bool untouched() const { return get_file(zip) == before; }
    /// Leaves a delivery as a kill between its writes does: journal pending, half of the bytes there.
    void cut_short(const std::filesystem::path& archive, const std::string& entry, const std::filesystem::path& where) {
        const auto plan = *plan_replacement(ReadContext{}, *parse_address(archive.string() + "::" + entry), random_bytes(9000, 5));
        const pid_t child = ::fork();
        if (child == 0) {
            PosixFiles files;
            (void)Vault(where, files).deliver(plan, {"horse into " + archive.filename().string(), archive, {entry}}, 1, []() -> Status {
                ::kill(::getpid(), SIGKILL);
                return {};
            });
            ::_exit(1);
        }
        int status = 0;
        ::waitpid(child, &status, 0);
        ASSERT_TRUE(WIFSIGNALED(status));
    }
    std::size_t count(const std::string& where, const std::string& ending) const {
        std::size_t n = 0;
        std::error_code code;
        for (const auto& item : std::filesystem::directory_iterator(where, code)) n += item.path().extension() == ending;
        return n;
    }
};

}  // namespace

TEST_F(Safety, AnIndexOptionDestroysNothing) {
    const std::map<std::string, Bytes> others = {
        {"g.zip", before},
        {"p.png", *write_png(smooth_picture(8, 8, 1))},
        {"t.dds", horse},
        {"x.txt",
         bytes_of(
             "a few words of text that are longer than a hundred bytes, which is where a header of a database would end, if it were one")},
        {"one", bytes_of("1")}};
    for (const auto& [name, content] : others) {
        put_file(folder / name, content);
        for (const char* command : {"roles", "list"}) {
            std::vector<std::string> words = {command, zip, "--index", at(name)};
            if (words[0] == "list") words.insert(words.end(), {"--json", "--textures"});
            const auto ran = run_cli(words);
            EXPECT_EQ(ran.code, 2) << name << ran.err;
            EXPECT_NE(ran.err.find("is no index of Skivet's"), std::string::npos) << ran.err;
            EXPECT_EQ(get_file(folder / name), content) << name;
        }
    }
    EXPECT_EQ(run_cli({"roles", zip, "--index", at("new.index")}).code, 0);
    EXPECT_EQ(run_cli({"roles", zip, "--index", at("new.index")}).code, 0) << "its own is used again";
}

TEST_F(Safety, AnEditThatIsCutOffIsNeverWritten) {
    const auto image = *TextureFile::open(TextureKinds::standard(), horse, "", ReadLimits{})->decode(0);
    std::map<std::string, Bytes> edits;
    edits["e.dds"] = make_dds(Format::BC1, 64, 64, 0, 9);
    edits["e.png"] = *write_png(smooth_picture(64, 64, 3));
    put_file(folder / "p.png", edits["e.png"]);
    for (const char* name : {"e.tga", "e.bmp", "e.jpg", "e.tiff", "e.webp"}) {
        ASSERT_EQ(run_program({"convert", at("p.png"), "-type", "TrueColor", at(name)}).code, 0);
        edits[name] = get_file(folder / name);
    }
    const auto texture = *TextureFile::open(TextureKinds::standard(), edits["e.dds"], "", ReadLimits{});
    edits["e.ktx"] = *write_ktx(texture.layout.desc, *payload_of(texture));
    edits["e.ktx2"] = *write_ktx2(texture.layout.desc, *payload_of(texture));
    ASSERT_EQ(run_program({"convert", at("p.png"), at("e.hdr")}).code, 0);
    edits["e.hdr"] = get_file(folder / "e.hdr");
    for (const auto& [name, whole] : edits) {
        put_file(folder / name, whole);
        EXPECT_EQ(replace("rides/horse.dds", at(name), {"--dry-run"}).code, 0) << name << " whole";
        for (const double share : {0.99, 0.8, 0.35}) {
            put_file(folder / name, ByteSpan(whole).first(static_cast<std::size_t>(static_cast<double>(whole.size()) * share)));
            const auto ran = replace("rides/horse.dds", at(name));
            EXPECT_EQ(ran.code, 3) << name << " cut to " << share << ": " << ran.out << ran.err;
            EXPECT_TRUE(untouched()) << name;
            EXPECT_NE(run_cli({"encode", at(name), "--format", "BC1", "--out", at("made.dds")}).code, 0) << name;
        }
    }
    EXPECT_FALSE(std::filesystem::exists(at("made.dds")));
}

TEST_F(Safety, ADamagedOriginalTakesNothingButWhatIsGivenAsItIs) {
    auto cut = make_dds(Format::BC1, 64, 64);
    cut.resize(cut.size() - 8);  // one level is missing
    before = make_zip({{"cut.dds", cut}, {"whole.dds", horse}});
    put_file(zip, before);
    ASSERT_EQ(run_cli({"export", zip, "--to", at("out")}).code, 1);
    const auto same = run_cli({"apply", at("out"), "--into", zip, "--vault", vault});
    EXPECT_EQ(same.code, 0) << same.err;
    EXPECT_TRUE(untouched()) << "nobody edited anything";
    std::filesystem::copy_file(at("out/cut.png"), at("e.png"));
    const auto refused = replace("cut.dds", at("e.png"));
    EXPECT_EQ(refused.code, 3);
    EXPECT_NE(refused.err.find("mip chain: needs"), std::string::npos) << refused.err;
    std::filesystem::create_directories(at("bare"));
    std::filesystem::copy_file(at("out/cut.png"), at("bare/cut.png"));
    EXPECT_EQ(run_cli({"apply", at("bare"), "--into", zip, "--vault", vault}).code, 3);
    EXPECT_TRUE(untouched());
}

TEST_F(Safety, APictureNeverBecomesTheBytesOfWhatIsNone) {
    EXPECT_EQ(replace("note.txt", painted(horse)).code, 3);
    EXPECT_TRUE(untouched());
    put_file(folder / "other.txt", bytes_of("goodbye"));
    EXPECT_EQ(replace("note.txt", at("other.txt")).code, 0) << "a text into a text";
    EXPECT_EQ(replace("note.txt", painted(horse), {"--as-is"}).code, 0) << "said so";
}

TEST_F(Safety, ATextureSheetThatGoesByTheNameIsHeededByReplace) {
    // Eight by eight texels of four bytes behind nothing, known by its ending alone.
    put_file(folder / "raw.toml",
             bytes_of("sheet = \"texture\"\nname = \"Bare\"\n[[recognize]]\nname = \"*.bare\"\n[header]\nfields = [ { name = \"mark\", "
                      "type = \"u32\" } ]\n[texture]\nwidth = 8\nheight = 8\nformat = \"RGBA8\"\nmips = 1\n"));
    auto bare = random_bytes(4 + 256, 3);
    before = make_zip({{"t/x.bare", bare}});
    put_file(zip, before);
    ASSERT_EQ(run_cli({"export", zip, "--to", at("out"), "--sheet", at("raw.toml")}).code, 0);
    auto image = *read_png(get_file(at("out/t/x.png")), ReadLimits{});
    image.at(1, 1) = {1, 2, 3, 255};
    put_file(folder / "e.png", *write_png(image));
    const auto ran = replace("t/x.bare", at("e.png"), {"--sheet", at("raw.toml")});
    ASSERT_EQ(ran.code, 0) << ran.err;
    const auto now = *(*open_source(ReadContext{}, zip))->read(0, ReadLimits{});
    ASSERT_EQ(now.size(), bare.size()) << "a texture, no PNG";
    EXPECT_TRUE(std::equal(now.begin(), now.begin() + 4, bare.begin()));
}

TEST_F(Safety, ResultsGoOnlyWhereTheyMay) {
    const auto edit = painted(horse);
    const auto encode = [&](const std::string& out) {
        return run_cli({"encode", edit, "--format", "BC1", "--out", out, "--jobs", "1"}).code;
    };
    EXPECT_EQ(encode("/dev/null"), 2);
    EXPECT_EQ(encode(zip), 2) << "an archive is no texture to be written over";
    EXPECT_TRUE(untouched());
    EXPECT_EQ(encode(edit), 2) << "nor is what is read";
    EXPECT_NE(encode(at("no/such/folder/x.dds")), 0);
    EXPECT_FALSE(std::filesystem::exists(at("no"))) << "folders are not made up";
    put_file(folder / "x.dds.part", bytes_of("the user's own"));
    put_file(folder / "real.dds", horse);
    ::chmod(at("real.dds").c_str(), 0640);
    std::filesystem::create_symlink(at("real.dds"), at("x.dds"));
    EXPECT_EQ(encode(at("x.dds")), 0);
    EXPECT_TRUE(std::filesystem::is_symlink(at("x.dds"))) << "a link is followed";
    EXPECT_NE(get_file(at("real.dds")), horse);
    EXPECT_EQ(std::filesystem::status(at("real.dds")).permissions(), std::filesystem::perms(0640));
    EXPECT_EQ(get_file(folder / "x.dds.part"), bytes_of("the user's own"));
    std::filesystem::create_symlink(at("nowhere.dds"), at("dangling.dds"));
    EXPECT_EQ(encode(at("dangling.dds")), 2);
    put_file(folder / "notes.txt", bytes_of("dear diary"));
    EXPECT_NE(run_cli({"sheet", "draft", zip, "--out", at("notes.txt")}).code, 0);
    EXPECT_EQ(get_file(folder / "notes.txt"), bytes_of("dear diary"));
}

TEST_F(Safety, AnExportWritesOverNothingThatIsNotItsOwn) {
    // Into the game's own folder.
    std::filesystem::create_directories(at("game/t"));
    put_file(folder / "game/t/horse.dds", horse);
    put_file(folder / "game/t/horse.png", bytes_of("the game's own picture"));
    EXPECT_EQ(run_cli({"export", at("game"), "--to", at("game")}).code, 2);
    EXPECT_EQ(run_cli({"export", at("game"), "--to", at("game/t/deeper")}).code, 2);
    EXPECT_EQ(get_file(folder / "game/t/horse.png"), bytes_of("the game's own picture"));
    // Over what somebody edited meanwhile.
    ASSERT_EQ(run_cli({"export", zip, "--to", at("out")}).code, 0);
    EXPECT_EQ(run_cli({"export", zip, "--to", at("out")}).code, 0) << "its own files, unchanged, are written again";
    const auto edited = *write_png(smooth_picture(64, 64, 8));
    put_file(folder / "out/rides/horse.png", edited);
    const auto again = run_cli({"export", zip, "--to", at("out")});
    EXPECT_EQ(again.code, 1);
    EXPECT_NE(again.err.find("horse.png is there already"), std::string::npos) << again.err;
    EXPECT_EQ(get_file(folder / "out/rides/horse.png"), edited);
    EXPECT_EQ(run_cli({"export", zip, "--to", at("out"), "--force"}).code, 0);
    EXPECT_NE(get_file(folder / "out/rides/horse.png"), edited);
    // Through a link that leads elsewhere.
    std::filesystem::create_directories(at("elsewhere"));
    std::filesystem::create_directories(at("linked"));
    std::filesystem::create_directory_symlink(at("elsewhere"), at("linked/rides"));
    EXPECT_EQ(run_cli({"export", zip, "--to", at("linked")}).code, 1);
    EXPECT_TRUE(std::filesystem::is_empty(at("elsewhere")));
    put_file(folder / "e.dds", horse);
    std::filesystem::create_directory_symlink(at("elsewhere"), at("over"));
    std::filesystem::create_directories(at("beside"));
    std::filesystem::create_directory_symlink(at("elsewhere"), at("beside/rides"));
    EXPECT_NE(run_cli({"replace", zip + "::rides/horse.dds", "--with", painted(horse), "--beside", at("beside"), "--vault", vault}).code,
              0);
    EXPECT_TRUE(std::filesystem::is_empty(at("elsewhere")));
}

TEST_F(Safety, TwoExportsIntoOneFolderDoNotMeet) {
    std::filesystem::create_directories(at("out"));
    const int other = ::open(at("out/exported.jsonl").c_str(), O_RDWR | O_CREAT, 0644);
    ASSERT_EQ(::flock(other, LOCK_EX), 0);
    const auto ran = run_cli({"export", zip, "--to", at("out")});
    EXPECT_EQ(ran.code, 4);
    EXPECT_NE(ran.err.find("another export is writing"), std::string::npos);
    ::close(other);
    EXPECT_EQ(run_cli({"export", zip, "--to", at("out")}).code, 0);
}

TEST_F(Safety, WhatWasExportedAndNotEditedChangesNothing) {
    // Names of one stem in every kind, as installations have them; in an archive and as a folder.
    const auto png = *write_png(smooth_picture(16, 16, 2));
    const std::vector<ZipItem> items = {{"a/x.bsp", random_bytes(500, 1)},
                                        {"a/x.dds", make_dds(Format::BC1, 32, 32, 0, 1)},
                                        {"a/x.ktx", *write_ktx({Format::RGBA8, 4, 4}, random_bytes(64, 2))},
                                        {"a/x.png", png},
                                        {"a/x.txt", bytes_of("config")},
                                        {"a/X.dds", make_dds(Format::BC1, 32, 32, 0, 7)},
                                        {"b/x.dds", make_dds(Format::BC3, 16, 16, 0, 3), true},
                                        {"export log.txt", bytes_of("the game's own")},
                                        {"deep/in.zip", make_zip({{"a/x.dds", make_dds(Format::BC1, 16, 16, 0, 9)}})}};
    before = make_zip(items);
    put_file(zip, before);
    for (const auto& item : items) put_file(folder / ("installation/" + item.name), item.data);
    const auto tree = [&] {
        std::map<std::string, Bytes> out;
        for (const auto& f : std::filesystem::recursive_directory_iterator(folder / "installation"))
            if (f.is_regular_file()) out[f.path().string()] = get_file(f.path());
        return out;
    };
    const auto installation = tree();
    int n = 0;
    for (const std::string& source : {zip, at("installation")})
        for (const std::vector<std::string>& how : {std::vector<std::string>{},
                                                    {"--as", "dds"},
                                                    {"--as", "raw"},
                                                    {"--as", "ktx2"},
                                                    {"--flat"},
                                                    {"--sets"},
                                                    {"--alpha", "split"},
                                                    {"--mip", "all"}}) {
            const auto out = at("export" + std::to_string(++n));
            std::vector<std::string> words = {"export", source, "--to", out};
            words.insert(words.end(), how.begin(), how.end());
            (void)run_cli(words);  // some ways cannot hold some formats
            const auto ran = run_cli({"apply", out, "--into", source, "--vault", vault});
            EXPECT_EQ(ran.code, 0) << source << " " << (how.empty() ? "" : how.back()) << ": " << ran.err;
            EXPECT_TRUE(untouched()) << ran.out;
            EXPECT_EQ(tree(), installation) << ran.out;
        }
    // One edit finds its way back from a flat folder, by the manifest, and into an archive inside.
    const auto flat = at("export5");
    std::filesystem::path file;
    const auto manifest = *ExportManifest::read(flat);
    for (const auto& [name, one] : manifest)
        if (one.address.inner.size() == 2) file = name;
    ASSERT_FALSE(file.empty());
    auto image = *read_png(get_file(std::filesystem::path(flat) / file), ReadLimits{});
    image.at(0, 0) = {9, 9, 9, 255};
    put_file(std::filesystem::path(flat) / file, *write_png(image));
    const auto ran = run_cli({"apply", flat, "--into", zip, "--vault", vault});
    ASSERT_EQ(ran.code, 0) << ran.err;
    const auto now = *open_source(ReadContext{}, zip);
    for (std::size_t i = 0; i < items.size(); ++i)
        EXPECT_EQ(*now->read(i, ReadLimits{}) == items[i].data, items[i].name != "deep/in.zip") << items[i].name;
    EXPECT_EQ(run_cli({"restore", zip, "--vault", vault}).code, 0);
    EXPECT_TRUE(untouched());
}

TEST_F(Safety, WithoutAManifestOnlyTexturesAreMatchedAndGuessesAreSaid) {
    before = make_zip({{"a.bsp", random_bytes(500, 1)},
                       {"a.dds", horse},
                       {"b.dds", horse},
                       {"b.ktx", *write_ktx({Format::RGBA8, 4, 4}, random_bytes(64, 2))},
                       {"c.bsp", random_bytes(50, 3)}});
    put_file(zip, before);
    for (const char* name : {"edits/a.png", "edits/b.png", "edits/c.png"})
        std::filesystem::create_directories(at("edits")), std::filesystem::copy_file(painted(horse), at(name));
    const auto ran = run_cli({"apply", at("edits"), "--into", zip, "--vault", vault});
    EXPECT_EQ(ran.code, 1);
    EXPECT_NE(ran.err.find("b.png: could be any of b.dds, b.ktx"), std::string::npos) << ran.err;
    EXPECT_NE(ran.err.find("c.png: no entry has this path, and no texture"), std::string::npos) << ran.err;
    const auto now = *open_source(ReadContext{}, zip);
    EXPECT_NE(*now->read(1, ReadLimits{}), horse);
    for (const std::size_t i : {0u, 2u, 3u, 4u})
        EXPECT_EQ(*now->read(i, ReadLimits{}), *(*open_container(ReadContext{}, FileView::of(before, "b.zip")))->read(i, ReadLimits{}));
}

TEST_F(Safety, DamageIsNeverASuccess) {
    auto cut = before;
    cut.resize(cut.size() - 60);  // the directory's end is gone
    put_file(zip, cut);
    EXPECT_EQ(run_cli({"list", zip}).code, 1);
    EXPECT_EQ(run_cli({"verify", zip}).code, 3);
    const auto ran = run_cli({"export", zip, "--to", at("out")});
    EXPECT_EQ(ran.code, 1);
    EXPECT_FALSE(ran.err.empty());
}

TEST_F(Safety, DeliveriesAreFoundWhereverTheyWereMade) {
    // A project's vault, registered as the window does it.
    const auto theirs = folder / "project/vault";
    PosixFiles files;
    Vault other(theirs, files, VaultRegister(VaultRegister::usual_place()));
    ASSERT_TRUE(other.deliver(*plan_replacement(ReadContext{}, *parse_address(zip + "::note.txt"), bytes_of("three")),
                              {"t", zip, {"note.txt"}}, 1));
    ASSERT_TRUE(other.deliver(*plan_replacement(ReadContext{}, *parse_address(zip + "::note.txt"), bytes_of("a good deal longer")),
                              {"t", zip, {"note.txt"}}, 2));
    const auto none = run_cli({"restore", zip, "--vault", vault});
    EXPECT_EQ(none.code, 3) << "nothing to restore is no success";
    EXPECT_NE(none.err.find(theirs.string()), std::string::npos) << none.err;
    const auto ran = run_cli({"restore", zip});
    EXPECT_EQ(ran.code, 0) << ran.err;
    EXPECT_EQ(ran.out, "2 deliveries undone\n");
    EXPECT_TRUE(untouched());
    EXPECT_EQ(run_cli({"restore", zip}).code, 3);
    EXPECT_EQ(run_cli({"restore", "--all", "--vault", vault}).code, 3);
}

TEST_F(Safety, WhoReadsAHalfWrittenArchiveIsToldAndWhoWritesRollsItBack) {
    cut_short(zip, "rides/horse.dds", Vault::default_folder());
    ASSERT_FALSE(untouched());
    const auto verify = run_cli({"verify", zip});
    EXPECT_EQ(verify.code, 3);
    EXPECT_NE(verify.err.find("is half-written"), std::string::npos) << verify.err;
    EXPECT_EQ(run_cli({"list", zip}).code, 1);
    EXPECT_NE(run_cli({"show", zip + "::note.txt"}).code, 0);
    EXPECT_FALSE(untouched()) << "readers write nothing";
    put_file(folder / "other.zip", before);
    EXPECT_EQ(run_cli({"list", at("other.zip")}).code, 0) << "other archives are none of its business";
    const auto ran = run_cli({"restore", "--unfinished"});
    EXPECT_EQ(ran.code, 0) << ran.err;
    EXPECT_NE(ran.err.find("\"horse into game.zip\" was cut short; the old bytes are back in game.zip"), std::string::npos) << ran.err;
    EXPECT_TRUE(untouched());
}

TEST_F(Safety, OneBadJournalHoldsUpNothingElse) {
    put_file(folder / "other.zip", before);
    cut_short(zip, "rides/horse.dds", vault);
    std::filesystem::remove(zip);  // the game was taken off
    const auto ran = run_cli({"replace", at("other.zip") + "::note.txt", "--with", at("other.zip"), "--as-is", "--vault", vault});
    EXPECT_EQ(ran.code, 0) << ran.err;
    EXPECT_NE(ran.err.find(".aside; remove that folder"), std::string::npos) << ran.err;
    EXPECT_EQ(count(vault, ".aside"), 1u);
    EXPECT_EQ(count(vault, ".pending"), 0u);
    EXPECT_EQ(run_cli({"restore", at("other.zip"), "--vault", vault}).code, 0);
    EXPECT_EQ(get_file(folder / "other.zip"), before);
}

TEST_F(Safety, AnEntryWithColonsHasAnAddress) {
    const std::vector<std::string> names = {"odd::name.dds", "ends:", ":starts", ":\\:slash", "plain.dds", ":::", "a:\\"};
    std::vector<ZipItem> items;
    for (std::size_t i = 0; i < names.size(); ++i) items.push_back({names[i], random_bytes(40, static_cast<unsigned>(i))});
    put_file(folder / "g::x.zip", make_zip(items));
    for (const auto& line : lines(run_cli({"list", at("g::x.zip"), "--json"}).out)) {
        const auto address = parse_address(line["address"].get<std::string>());
        ASSERT_TRUE(address);
        EXPECT_EQ(address->source, folder / "g::x.zip");
        ASSERT_EQ(address->inner.size(), 1u) << line["address"];
        EXPECT_EQ(address->inner[0], line["path"]);
        EXPECT_EQ(run_cli({"show", line["address"]}).code, 0) << line["address"];
    }
}

TEST_F(Safety, EntriesOfOneNameHaveAddressesOfTheirOwn) {
    // make_zip takes names as they are; one of them has the name that the second of two would get.
    put_file(zip, make_zip({{"same.dds", horse}, {"same.dds", cup}, {"other.dds", horse}, {"same#2.dds", horse}, {"same.dds", horse}}));
    std::vector<std::string> names;
    for (const auto& line : lines(run_cli({"list", zip, "--json"}).out)) {
        names.push_back(line["path"]);
        EXPECT_EQ(line["effective"], true);
    }
    EXPECT_EQ(names, (std::vector<std::string>{"same.dds", "same#3.dds", "other.dds", "same#2.dds", "same#4.dds"}));
    const auto was = hash_of_file(zip);
    ASSERT_EQ(run_cli({"export", zip + "::same#3.dds", "--to", (folder / "out").string(), "--as", "dds"}).code, 0);
    EXPECT_EQ(get_file(folder / "out/same#3.dds"), cup);
    ASSERT_EQ(replace("same#3.dds", painted(cup)).code, 0);
    const auto opened = *open_source(ReadContext{}, zip);
    EXPECT_EQ(*opened->read(0, ReadLimits{}), horse);
    EXPECT_NE(*opened->read(1, ReadLimits{}), cup);
    EXPECT_EQ(*opened->read(4, ReadLimits{}), horse);
    EXPECT_EQ(run_program({"unzip", "-l", zip}).output.find("#4"), std::string::npos) << "in the archive it has its own name";
    ASSERT_EQ(run_cli({"restore", zip}).code, 0);
    EXPECT_EQ(hash_of_file(zip), was);
}

TEST_F(Safety, AnOptionTakesOneValueEachTime) {
    EXPECT_EQ(lines(run_cli({"list", "--json", "--match", "*.dds", zip}).out).size(), 2u) << "what follows the value is the source";
    EXPECT_EQ(lines(run_cli({"list", "--json", "--match", "*horse*", "--match", "*.txt", zip}).out).size(), 2u);
    EXPECT_EQ(run_cli({"list", "--key", "a=00112233445566778899aabbccddeeff", zip}).code, 0);
    EXPECT_EQ(run_cli({"list", "--kind", "*.zip=ZIP", zip}).code, 0);
}

TEST_F(Safety, SheetsThatAreTooDeepAreRefusedAndHideNoOthers) {
    std::string dotted = "a", nested = "x = ";
    for (int i = 0; i < 20'000; ++i) dotted += ".a";
    for (int i = 0; i < 20'000; ++i) nested += '[';
    std::string tables = "[t";
    for (int i = 0; i < 20'000; ++i) tables += ".t";
    std::string inlined = "x = ";
    for (int i = 0; i < 20'000; ++i) inlined += "{a=";
    const auto data = at("data");
    std::filesystem::create_directories(data);
    const char* old = std::getenv("XDG_CONFIG_HOME");
    const std::string kept = old ? old : "";
    ::setenv("XDG_CONFIG_HOME", data.c_str(), 1);
    const auto sheets = folder / "data/skivet/sheets";
    int n = 0;
    for (const auto& text : {dotted + " = 1\n", nested, tables + "]\n", inlined})
        put_file(sheets / ("bad" + std::to_string(n++) + ".toml"), bytes_of(text));
    put_file(sheets / "good.toml", get_file(std::filesystem::path(layouts_folder) / "bins.toml"));
    const auto ran = run_cli({"list", zip});
    EXPECT_EQ(ran.code, 0) << ran.err;
    for (int i = 0; i < n; ++i) EXPECT_NE(ran.err.find("bad" + std::to_string(i) + ".toml"), std::string::npos) << ran.err;
    EXPECT_EQ(ran.err.find("good.toml"), std::string::npos);
    EXPECT_EQ(run_cli({"sheet", "check", (sheets / "good.toml").string()}).code, 0);
    if (old) ::setenv("XDG_CONFIG_HOME", kept.c_str(), 1);
    else ::unsetenv("XDG_CONFIG_HOME");
}

TEST_F(Safety, AWrongHashBesideANameIsSaid) {
    ByteWriter w;
    w.put(std::string_view("HSH!"));
    w.le(std::uint32_t{2});
    const std::string names[] = {"rides/horse.dds", "note.txt"};
    for (const auto& name : names) {
        auto padded = name;
        padded.resize(20);
        w.put(padded);
        w.le(crc32(as_bytes(name)));
        w.le(static_cast<std::uint32_t>(8 + 2 * 32 + (name == "note.txt" ? 10 : 0)));
        w.le(std::uint32_t{10});
    }
    w.put(random_bytes(20, 1));
    put_file(folder / "h.toml",
             bytes_of("sheet = \"container\"\nname = \"Hash\"\n[[recognize]]\ntext = \"HSH!\"\n[header]\nfields = [ { name = \"m\", type = "
                      "\"text\", size = 4 }, { name = \"n\", type = \"u32\", means = \"entry count\" } ]\n"
                      "[record]\nfields = [ { name = \"path\", type = \"text\", size = 20, means = \"path\" }, { name = \"h\", type = "
                      "\"u32\", means = \"path hash\" }, { name = \"at\", type = \"u32\", means = \"data offset\" }, { name = \"b\", type "
                      "= \"u32\", means = \"stored size\" } ]\n[hash]\nkind = \"crc32\"\n"));
    put_file(folder / "g.hsh", w.bytes);
    EXPECT_EQ(run_cli({"list", at("g.hsh"), "--sheet", at("h.toml")}).code, 0);
    w.bytes[8 + 20] ^= std::byte{1};
    put_file(folder / "g.hsh", w.bytes);
    for (const std::vector<std::string>& words :
         {std::vector<std::string>{"list", at("g.hsh")}, {"verify", at("g.hsh")}, {"show", at("g.hsh") + "::rides/horse.dds"}}) {
        auto with = words;
        with.insert(with.end(), {"--sheet", at("h.toml")});
        const auto ran = run_cli(with);
        EXPECT_NE(ran.code, 0) << words[0];
        EXPECT_NE((ran.out + ran.err).find("the hash of its name"), std::string::npos) << words[0] << ran.out << ran.err;
    }
}

TEST_F(Safety, ResultsThatCannotBeWrittenAreAnError) {
    for (const std::string& command :
         {"list '" + zip + "'", "list --json '" + zip + "'", "show '" + zip + "::note.txt'", "verify '" + zip + "'"}) {
        const auto ran = run_program({"sh", "-c", our_program("skivet-cli") + " " + command + " > /dev/full"});
        EXPECT_EQ(ran.code, 4) << command << ran.output;
        EXPECT_NE(ran.output.find("could not be written"), std::string::npos) << ran.output;
    }
}

TEST_F(Safety, ASignalEndsEveryCommandWithTheOldBytes) {
    // Large enough that every command is still at it: three textures of 4096 × 4096 and a picture to encode.
    const auto big = make_dds(Format::BC7, 2048, 2048, 1);
    before = make_zip({{"a.dds", big}, {"b.dds", big, true}, {"c.dds", big}});
    put_file(zip, before);
    put_file(folder / "e.png", *write_png(smooth_picture(2048, 2048, 5)));
    std::filesystem::create_directories(at("edits"));
    for (const char* name : {"a", "b", "c"}) std::filesystem::copy_file(at("e.png"), at(std::string("edits/") + name + ".png"));
    const std::vector<std::vector<std::string>> commands = {
        {"apply", at("edits"), "--into", zip, "--vault", vault},
        {"replace", zip + "::a.dds", "--with", at("e.png"), "--vault", vault},
        {"encode", at("e.png"), "--format", "BC7", "--effort", "best", "--out", at("out.dds")},
        {"encode", at("e.png"), "--like", zip + "::a.dds", "--out", at("out.dds")}};
    for (const auto& words : commands)
        for (const int signal : {SIGINT, SIGTERM}) {
            const pid_t child = ::fork();
            if (child == 0) {
                std::vector<char*> argv;
                auto program = our_program("skivet-cli");
                argv.push_back(program.data());
                auto copy = words;
                for (auto& word : copy) argv.push_back(word.data());
                argv.push_back(nullptr);
                const int nowhere = ::open("/dev/null", O_WRONLY);
                ::dup2(nowhere, 1);
                ::dup2(nowhere, 2);
                ::execv(argv[0], argv.data());
                ::_exit(99);
            }
            // Once it waits for signals (all threads but one leave them blocked), which takes a loaded machine a while, and a moment later.
            const auto waits_for_it = [&] {
                std::ifstream status("/proc/" + std::to_string(child) + "/status");
                for (std::string line; std::getline(status, line);)
                    if (line.rfind("SigBlk:", 0) == 0) return (std::strtoull(line.c_str() + 7, nullptr, 16) >> (signal - 1) & 1) != 0;
                return false;
            };
            const timespec moment{0, 150'000'000}, little{0, 5'000'000};  // the moment is what is tested
            for (int i = 0; i < 2000 && !waits_for_it(); ++i) ::nanosleep(&little, nullptr);
            ::nanosleep(&moment, nullptr);
            ::kill(child, signal);
            int status = 0;
            ::waitpid(child, &status, 0);
            ASSERT_TRUE(WIFEXITED(status)) << words[0];
            EXPECT_EQ(WEXITSTATUS(status), 130) << words[0];
            EXPECT_TRUE(untouched()) << words[0];
            EXPECT_FALSE(std::filesystem::exists(at("out.dds")));
            EXPECT_EQ(count(vault, ".pending"), 0u);
        }
}

TEST_F(Safety, ARebuildSaysThatAHardLinkIsBroken) {
    ASSERT_EQ(run_program({"tar", "-cf", at("g.tar"), "-C", folder.path().string(), "game.zip"}).code, 0);
    std::filesystem::create_hard_link(at("g.tar"), at("second name.tar"));
    put_file(folder / "new", random_bytes(9000, 1));
    put_file(folder / "g.tar.skivet-new", bytes_of("the user's own"));
    const auto ran = run_cli({"replace", at("g.tar") + "::game.zip", "--with", at("new"), "--as-is", "--vault", vault});
    ASSERT_EQ(ran.code, 0) << ran.err;
    EXPECT_NE(ran.err.find("has 2 names (hard links)"), std::string::npos) << ran.err;
    EXPECT_EQ(get_file(folder / "g.tar.skivet-new"), bytes_of("the user's own"));
}

TEST_F(Safety, AnArchiveBehindALinkIsChangedWhereItLies) {
    std::filesystem::create_directories(at("store"));
    ASSERT_EQ(run_program({"tar", "-cf", at("store/g.tar"), "-C", folder.path().string(), "game.zip"}).code, 0);
    const auto old = get_file(folder / "store/g.tar");
    std::filesystem::create_symlink(at("store/g.tar"), at("g.tar"));
    put_file(folder / "new", random_bytes(9000, 1));
    ASSERT_EQ(run_cli({"replace", at("g.tar") + "::game.zip", "--with", at("new"), "--as-is", "--vault", vault}).code, 0);
    EXPECT_TRUE(std::filesystem::is_symlink(at("g.tar")));
    EXPECT_NE(get_file(folder / "store/g.tar"), old);
    ASSERT_EQ(run_cli({"restore", at("g.tar"), "--vault", vault}).code, 0);
    EXPECT_EQ(get_file(folder / "store/g.tar"), old);
}

TEST_F(Safety, AnEditOfASingleFilesExportIsNotPassedOver) {
    put_file(folder / "loose.dds", horse);
    ASSERT_EQ(run_cli({"export", at("loose.dds"), "--to", at("out")}).code, 0);
    const auto same = run_cli({"apply", at("out"), "--into", zip, "--vault", vault});
    EXPECT_EQ(same.code, 0) << same.err;
    EXPECT_NE(same.err.find("1 file is as the game has it"), std::string::npos) << "the export's own list is none of them: " << same.err;
    std::filesystem::copy_file(painted(horse), at("out/loose.png"), std::filesystem::copy_options::overwrite_existing);
    const auto ran = run_cli({"apply", at("out"), "--into", zip, "--vault", vault});
    EXPECT_EQ(ran.code, 1) << ran.err;
    EXPECT_NE(ran.err.find("loose.png: was exported from " + at("loose.dds")), std::string::npos) << ran.err;
    EXPECT_TRUE(untouched());
}
