// What scripts and people before a terminal lean on: refusals, the standard input and output, JSON everywhere, defaults, progress.
#include <gtest/gtest.h>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "cli/terminal.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;
using namespace skivet::cli;
using nlohmann::json;

namespace {

struct TerminalCli : testing::Test {
    TempFolder folder;
    Bytes horse = make_dds(Format::BC1, 64, 64);
    std::string zip, vault;
    void SetUp() override {
        zip = at("game.zip"), vault = at("vault");
        put_file(zip, make_zip({{"rides/horse.dds", horse}, {"rides/cup.dds", make_dds(Format::BC3, 32, 32, 0, 4)}}));
        put_file(at("pic.png"), *write_png(smooth_picture(64, 64, 1)));
    }
    [[nodiscard]] std::string at(const char* name) const { return (folder / name).string(); }
    static std::string text(const Bytes& bytes) { return std::string(as_text(bytes)); }
    static json last_line(const std::string& out) {
        const auto end = out.size() - 1, begin = out.rfind('\n', end - 1);
        return json::parse(out.substr(begin == std::string::npos ? 0 : begin + 1, end));
    }
};

}  // namespace

TEST_F(TerminalCli, AnUnknownCommandIsNamedAndTheNearestOneOffered) {
    const auto ran = run_cli({"exprot", zip});
    EXPECT_EQ(ran.code, 2);
    EXPECT_NE(ran.err.find("\"exprot\""), std::string::npos) << ran.err;
    EXPECT_NE(ran.err.find("\"export\""), std::string::npos) << ran.err;
    EXPECT_NE(run_cli({"project", "delivr", "x"}).err.find("\"project deliver\""), std::string::npos);
    const auto far = run_cli({"xyzzyplugh"});
    EXPECT_EQ(far.code, 2);
    EXPECT_EQ(far.err.find("is one"), std::string::npos) << far.err;
}

TEST_F(TerminalCli, ValuesThatMakeNoSenseAreRefused) {
    for (const char* mip : {"xyz", "3abc", "-1", "", "99999999999999999999", "32"})
        EXPECT_EQ(run_cli({"export", zip, "--to", at("out"), "--mip", mip}).code, 2) << mip;
    EXPECT_FALSE(std::filesystem::exists(at("out")));
    for (const char* mips : {"3abc", "0", "abc", "-2"})
        EXPECT_EQ(run_cli({"encode", at("pic.png"), "--out", at("x.dds"), "--format", "BC1", "--mips", mips}).code, 2) << mips;
    for (const char* name : {"x.png", "x.tga", "x.txt"}) {
        const auto ran = run_cli({"encode", at("pic.png"), "--out", at(name), "--format", "BC1"});
        EXPECT_EQ(ran.code, 2) << name;
        EXPECT_FALSE(std::filesystem::exists(at(name)));
    }
    const auto ran = run_cli({"encode", at("pic.png"), "--out", at("x.png"), "--like", zip + "::rides/horse.dds"});
    EXPECT_EQ(ran.code, 2) << ran.err;
    EXPECT_FALSE(std::filesystem::exists(at("x.png")));
    EXPECT_EQ(run_cli({"encode", at("pic.png"), "--out", at("x.dds"), "--like", zip + "::rides/horse.dds"}).code, 0);
}

TEST_F(TerminalCli, AnExportThatMatchesNothingSaysSo) {
    const auto ran = run_cli({"export", zip, "--to", at("out"), "--match", "*.xyz"});
    EXPECT_EQ(ran.code, 1);
    EXPECT_NE(ran.err.find("no texture fits --match"), std::string::npos) << ran.err;
}

TEST_F(TerminalCli, OneFileMayComeInAndGoOutByThePipe) {
    const auto png = text(get_file(at("pic.png")));
    const auto made = run_cli({"encode", "-", "--out", "-", "--format", "BC1"}, png);
    ASSERT_EQ(made.code, 0) << made.err;
    ASSERT_EQ(run_cli({"encode", at("pic.png"), "--out", at("same.dds"), "--format", "BC1"}).code, 0);
    EXPECT_EQ(made.out, text(get_file(at("same.dds"))));
    // The edit of one entry, through pipes alone.
    const auto out = run_cli({"extract", zip + "::rides/horse.dds", "--out", "-"});
    EXPECT_EQ(out.out, text(horse));
    const auto replaced = run_cli({"replace", zip + "::rides/horse.dds", "--with", "-", "--vault", vault, "--quiet"}, png);
    ASSERT_EQ(replaced.code, 0) << replaced.err;
    EXPECT_NE(run_cli({"extract", zip + "::rides/horse.dds", "--out", "-"}).out, out.out);
    ASSERT_EQ(run_cli({"restore", zip, "--vault", vault}).code, 0);
    EXPECT_EQ(run_cli({"extract", zip + "::rides/horse.dds", "--out", "-"}).out, out.out);
    EXPECT_EQ(run_cli({"replace", zip + "::rides/horse.dds", "--with", "-", "--vault", vault}, "no picture").code, 3);
    EXPECT_EQ(run_cli({"add", zip + "::rides/new.dds", "--like", "rides/horse.dds", "--with", "-", "--vault", vault}, png).code, 0);
}

TEST_F(TerminalCli, ExportEncodeAndRestoreSpeakJson) {
    auto ran = run_cli({"export", zip, "--to", at("out"), "--as", "dds", "--json"});
    ASSERT_EQ(ran.code, 0) << ran.err;
    auto j = last_line(ran.out);
    EXPECT_EQ(j["written"], 2);
    EXPECT_EQ(j["failed"], 0);
    EXPECT_GT(j["bytes"], 0);
    ran = run_cli({"encode", at("pic.png"), "--out", at("x.dds"), "--like", zip + "::rides/horse.dds", "--json"});
    ASSERT_EQ(ran.code, 0) << ran.err;
    j = last_line(ran.out);
    EXPECT_EQ(j["format"], "BC1");
    EXPECT_EQ(j["bytes"], std::filesystem::file_size(at("x.dds")));
    EXPECT_GT(j["new_blocks"], 0);
    ASSERT_EQ(run_cli({"replace", zip + "::rides/horse.dds", "--with", at("pic.png"), "--vault", vault}).code, 0);
    ran = run_cli({"restore", zip, "--vault", vault, "--json"});
    EXPECT_EQ(last_line(ran.out)["undone"], 1);
    // A damaged texture is told in its own line.
    auto bad = horse;
    bad.resize(200);
    put_file(at("bad.zip"), make_zip({{"bad.dds", bad}, {"good.dds", horse}}));
    ran = run_cli({"export", at("bad.zip"), "--to", at("out2"), "--json"});
    EXPECT_EQ(ran.code, 1);
    EXPECT_NE(ran.out.find("\"path\":\"bad.dds\""), std::string::npos) << ran.out;
    EXPECT_EQ(last_line(ran.out)["written"].get<int>() + last_line(ran.out)["failed"].get<int>(), 2);
}

TEST_F(TerminalCli, RolesComeFromNamesUnlessPicturesAreAskedFor) {
    // A picture that looks like a normal map under a name that says nothing: only somebody who looks knows.
    Image normal(64, 64);
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 64; ++x)
            normal.at(x, y) = {std::uint8_t(128 + 40 * std::sin(x * 0.4)), std::uint8_t(128 + 40 * std::cos(y * 0.3)), 240, 255};
    put_file(at("plain.zip"), make_zip({{"abc.png", *write_png(normal)}}));
    const auto role = [&](std::vector<std::string> more) {
        std::vector<std::string> words = {"list", at("plain.zip"), "--textures", "--json"};
        words.insert(words.end(), more.begin(), more.end());
        return last_line(run_cli(words).out)["role"].get<std::string>();
    };
    EXPECT_EQ(role({}), "unsure");
    EXPECT_EQ(role({"--roles", "picture"}), "normal");
    EXPECT_EQ(role({"--index", at("index")}), "normal");
    EXPECT_EQ(role({"--index", at("index"), "--roles", "name"}), "unsure");
}

TEST_F(TerminalCli, AFileOfDefaultsIsHeededAndTheCallStandsAboveIt) {
    put_file(at("cli.toml"), bytes_of("[list]\ntextures = true\n[export]\nas = \"dds\"\n"));
    ASSERT_EQ(run_cli({"--config", at("cli.toml"), "export", zip, "--to", at("out")}).code, 0);
    EXPECT_TRUE(std::filesystem::exists(folder / "out/rides/horse.dds"));
    ASSERT_EQ(run_cli({"--config", at("cli.toml"), "export", zip, "--to", at("out2"), "--as", "png"}).code, 0);
    EXPECT_TRUE(std::filesystem::exists(folder / "out2/rides/horse.png"));
    EXPECT_EQ(run_cli({"--config", at("missing.toml"), "list", zip}).code, 2);
}

TEST_F(TerminalCli, EveryCommandOptionAndPositionalHasItsText) {
    std::vector<std::vector<std::string>> open = {{}};
    int seen = 0;
    while (!open.empty()) {
        const auto words = open.back();
        open.pop_back();
        auto with_help = words;
        with_help.push_back("--help");
        const auto help = run_cli(with_help);
        ASSERT_EQ(help.code, 0);
        std::istringstream lines(help.out);
        std::string section, before;
        for (std::string line; std::getline(lines, line);) {
            if (line.empty()) continue;
            if (line.front() != ' ') {
                section = line;
                continue;
            }
            if (line.find_first_not_of(' ') != 2) continue;  // goes on from the line before
            const auto word = line.substr(2, line.find(' ', 2) - 2);
            // The text stands from column 30 on, or in the next line where the name is longer.
            if (line.size() <= 30 || line[29] != ' ') {
                std::string next;
                const auto here = lines.tellg();
                std::getline(lines, next);
                EXPECT_GT(next.find_first_not_of(' '), 10u) << "no text: " << line << " in " << (words.empty() ? "" : words.back());
                lines.seekg(here);
            }
            ++seen;
            if (section.starts_with("Subcommands")) {
                auto deeper = words;
                deeper.push_back(word);
                open.push_back(std::move(deeper));
            }
        }
    }
    EXPECT_GT(seen, 300) << "nothing was looked at";
}

TEST_F(TerminalCli, ProgressIsALineOnATerminalAndNothingElsewhere) {
    EXPECT_EQ(progress_line("Reading", 0, 0, 0, false), "Reading …");
    EXPECT_EQ(progress_line("Reading", 1500, 3000, 0.5, false), "Reading  [############------------]  50 %  1,500 of 3,000");
    EXPECT_EQ(progress_line("Reading", 1500, 3000, 10, false),
              "Reading  [############------------]  50 %  1,500 of 3,000  150/s  0:10 left");
    EXPECT_EQ(progress_line("Sifting", 512u << 20, 1u << 30, 4, true),
              "Sifting  [############------------]  50 %  512 MB of 1.0 GB  128 MB/s  0:04 left");
    EXPECT_EQ(progress_line("Reading", 1, 40'000, 1, false).substr(60), "11:06:39 left");
    EXPECT_EQ(progress_line("Reading", 9, 3, 1, false).find("100 %") != std::string::npos, true) << "never more than all";

    std::ostringstream out, err;
    const Progress progress;
    const auto shown_for = [&](bool terminal, bool quiet) {
        cli::Context c{{}, out, err, {}, false, quiet, {terminal, nullptr, {}}};
        err.str({});
        {
            const cli::Shown shown(c, progress, "Waiting");
            std::this_thread::sleep_for(std::chrono::milliseconds(700));
        }
        return err.str();
    };
    const auto shown = shown_for(true, false);
    EXPECT_NE(shown.find("Waiting"), std::string::npos);
    EXPECT_TRUE(shown.ends_with("\r\x1b[K")) << "the line is gone at the end";
    EXPECT_EQ(shown_for(true, true), "");
    EXPECT_EQ(shown_for(false, false), "");
}

TEST_F(TerminalCli, QuietSaysNothingWhereAllWentWell) {
    const auto ran = run_cli({"export", zip, "--to", at("out"), "--quiet"});
    EXPECT_EQ(ran.code, 0);
    EXPECT_EQ(ran.out + ran.err, "");
    EXPECT_NE(run_cli({"export", at("none.zip"), "--to", at("out"), "--quiet"}).err, "") << "errors are always said";
}

TEST_F(TerminalCli, AReaderThatGoesAwayIsNoError) {
    std::vector<ZipItem> many;
    for (int i = 0; i < 20'000; ++i) many.push_back({"folder/" + std::to_string(i) + ".bin", bytes_of("x")});
    put_file(at("many.zip"), make_zip(many));
    const auto ran = run_program({"sh", "-c", our_program("skivet-cli") + " list " + at("many.zip") + " | head -n 1"});
    EXPECT_EQ(ran.output.find("skivet-cli:"), std::string::npos) << ran.output;
    EXPECT_EQ(std::count(ran.output.begin(), ran.output.end(), '\n'), 1);
}

TEST_F(TerminalCli, TheManualPageAndTheCompletionsHaveEveryCommand) {
    const auto man = run_cli({"describe", "man"}).out;
    for (const char* part : {".TH SKIVET\\-CLI 1", ".SH NAME\n", ".SH SYNOPSIS\n", ".SS \"export \\fISOURCE_OR_ADDRESS\\fR...\"",
                             ".SS \"project take", "\\fB\\-\\-match\\fR \\fIGLOB\\fR", ".SH SEE ALSO\n"})
        EXPECT_NE(man.find(part), std::string::npos) << part;
    EXPECT_EQ(man.find(".SS \"describe"), std::string::npos) << "it is for packers";
    // Each line is a macro we use, or text that begins with neither . nor '.
    std::istringstream lines(man);
    for (std::string line; std::getline(lines, line);)
        if (!line.empty() && (line[0] == '.' || line[0] == '\''))
            EXPECT_TRUE(line.starts_with(".TH ") || line.starts_with(".SH ") || line.starts_with(".SS ") || line == ".TP" ||
                        line == ".PP" || line == ".br" || line.starts_with(".BR "))
                << line;
    for (const char* shell : {"bash", "zsh", "fish"}) {
        const auto text = run_cli({"describe", shell}).out;
        for (const char* command : {"export", "project", "prefer", "draft"}) EXPECT_NE(text.find(command), std::string::npos) << shell;
        put_file(at(shell), bytes_of(text));
        const auto there = run_program({"sh", "-c", std::string("command -v ") + shell});
        if (there.code == 0) {
            const auto checked = run_program({shell, "-n", at(shell)});
            EXPECT_EQ(checked.code, 0) << shell << ": " << checked.output;
        }
    }
    const auto complete = [&](const std::string& words) {
        return run_program({"bash", "-c",
                            "source '" + at("bash") + "'; COMP_WORDS=(skivet-cli " + words +
                                "); COMP_CWORD=$((${#COMP_WORDS[@]} - 1)); _skivet_cli; echo ${COMPREPLY[*]}"})
            .output;
    };
    EXPECT_EQ(complete("exp"), "export\n");
    EXPECT_EQ(complete("export --mat"), "--match\n");
    EXPECT_EQ(complete("export --alpha s"), "split\n");
    EXPECT_EQ(complete("project tak"), "take\n");
    EXPECT_NE(complete("project take --al").find("--alpha"), std::string::npos);
}

TEST_F(TerminalCli, SheetCommandsPrintJson) {
    put_file(
        at("a.toml"),
        as_bytes("sheet = \"texture\"\nname = \"Fair plain\"\n\n[[recognize]]\nname = \"*.plain\"\n\n[texture]\nwidth = 4\nheight = 4\n"
                 "format = \"RGBA8\"\nmips = 1\n\n[payload]\nat = 0\n"));
    const auto checked = run_cli({"sheet", "check", at("a.toml"), "--json"});
    ASSERT_EQ(checked.code, 0) << checked.err;
    const auto one = json::parse(checked.out);
    EXPECT_EQ(one["name"], "Fair plain");
    EXPECT_EQ(one["kind"], "texture");
    const auto touched = run_cli({"touch", at("pic.png"), "--do", "gray", "--to", at("out"), "--json"});
    ASSERT_EQ(touched.code, 0) << touched.err;
    EXPECT_EQ(json::parse(touched.out)["of"], at("pic.png"));
    // What was found, also where no sheet comes of it.
    const auto drafted = run_cli({"sheet", "draft", at("a.toml"), "--json"});
    EXPECT_NE(drafted.code, 0);
    EXPECT_TRUE(drafted.out.empty());
}
