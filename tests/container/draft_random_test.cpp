// Archives whose layout is drawn at random by an independent program (tests/layouts/random_archives.py, random_chains.py,
// random_tables.py), drafted without a word about them. SKIVET_DRAFT_SEEDS="101 150" draws others than the ones that are tried each time,
// "101 110 50000000" with so many bytes in each.
#include <gtest/gtest.h>

#include <fmt/format.h>
#include <chrono>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <iostream>
#include <random>
#include <string>
#include <vector>

#include "base/hash.h"
#include "base/text.h"
#include "container/address.h"
#include "container/draft_sheet.h"
#include "container/sheet_try.h"
#include "delivery/vault.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Truth {
    std::string path, sha256;
    bool operator<(const Truth& other) const { return std::tie(path, sha256) < std::tie(other.path, other.sha256); }
    bool operator==(const Truth&) const = default;
};

std::vector<Truth> truth_of(const std::filesystem::path& file) {
    std::vector<Truth> out;
    std::ifstream in(file);
    for (std::string line; std::getline(in, line);) {
        const auto tab = line.find('\t');
        out.push_back({line.substr(0, tab), line.substr(tab + 1)});
    }
    return out;
}

struct Outcome {
    bool sound = false, whole = false;
    std::string why, drawn;
    std::string entries;  ///< what became of changing them
    double seconds = 0;
};

/// Entries come, go and get other names in an archive whose sheet was drafted; "changed", or why not.
std::string changed_entries(ReadContext context, const std::filesystem::path& archive, const std::filesystem::path& folder, unsigned seed) {
    using What = AddressedChange::What;
    const auto read = [&] {
        std::map<std::string, Bytes> out;
        const auto container = open_source(context, archive);
        EXPECT_TRUE(container) << seed << ": " << (container ? "" : container.error().message());
        for (std::size_t i = 0; container && i < (*container)->entries().size(); ++i) {
            auto bytes = (*container)->read(i, context.limits);
            EXPECT_TRUE(bytes) << seed << ": " << (bytes ? "" : bytes.error().message());
            out[(*container)->entries()[i].path] = bytes ? std::move(*bytes) : Bytes();
        }
        return out;
    };
    auto contents = read();
    std::mt19937 random(seed);
    context.known_paths = {"n/a.dds", "n/b.dds", "n/c.dds"};
    const auto any = [&] { return std::next(contents.begin(), static_cast<std::ptrdiff_t>(random() % contents.size()))->first; };
    std::string why;
    unsigned done = 0;
    for (unsigned step = 0; step < 4; ++step) {
        const auto container = *open_source(context, archive);
        if (const auto fixed = container->fixed_entries(); !fixed.empty()) return fixed.substr(fixed.find(": ") + 2);
        const auto one = any(), other = any();
        const auto fresh = random_bytes(random() % 900, step);
        const std::vector<std::vector<AddressedChange>> steps = {
            {{What::add, {"n/a.dds"}, fresh, one}},
            {{What::rename, {one}, {}, "n/b.dds"}},
            {{What::remove, {one}}},
            {{What::add, {"n/c.dds"}, fresh, one}, {What::remove, {other == one ? "n/a.dds" : other}}}};
        if (step == 3 && (other == one && one == "n/a.dds")) continue;
        auto after = contents;
        for (const auto& change : steps[step]) {
            if (change.what == What::add) after[change.inner[0]] = change.bytes.copy();
            if (change.what == What::rename) after[change.other] = after[change.inner[0]];
            if (change.what == What::rename || change.what == What::remove) after.erase(change.inner[0]);
        }
        const auto plan = plan_changes(context, *container, steps[step]);
        if (!plan) {
            EXPECT_TRUE(plan.error().code == ErrorCode::unsupported || plan.error().code == ErrorCode::unfit ||
                        plan.error().code == ErrorCode::missing)
                << seed << ": " << plan.error().message();
            why = plan.error().message();
            continue;
        }
        PosixFiles files;
        const auto delivered = Vault(folder / "vault", files).deliver(*plan, {"t", archive, {}}, 1);
        EXPECT_TRUE(delivered) << seed << ": " << (delivered ? "" : delivered.error().message());
        contents = std::move(after);
        const auto now = read();
        for (const auto& [path, bytes] : contents) {
            const auto found = now.find(path);
            EXPECT_TRUE(found != now.end() && found->second == bytes)
                << fmt::format("{} step {}: \"{}\" has {} bytes", seed, step, path, bytes.size())
                << (found != now.end() ? fmt::format(", now {}", found->second.size()) : ", and is not there");
        }
        for (const auto& [path, bytes] : now) EXPECT_TRUE(contents.contains(path)) << seed << " step " << step << ": " << path;
        ++done;
    }
    return done == 4 ? "changed" : fmt::format("changed {} of 4; {}", done, why);
}

Outcome outcome_of(const char* writer, unsigned seed, unsigned bytes, const std::filesystem::path& folder) {
    Outcome out;
    const auto script = (std::filesystem::path(layouts_folder) / writer).string();
    const auto ran = run_program({"python3", script, std::to_string(seed), folder.string(), std::to_string(bytes)});
    EXPECT_EQ(ran.code, 0) << ran.output;
    std::filesystem::path archive;
    std::ifstream about(folder / "about.txt");
    for (std::string line; std::getline(about, line);)
        if (line.starts_with("archive: ")) archive = folder / line.substr(9);
        else out.drawn += (out.drawn.empty() ? "" : "; ") + line;
    const auto truth = truth_of(folder / "truth.txt");
    const auto begin = std::chrono::steady_clock::now();
    const auto draft = draft_sheet(ReadContext{}, *FileView::open(archive), Progress{});
    out.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
    if (!draft) {
        out.why = draft.error().what;
        return out;
    }
    out.sound = draft->unsound.empty();
    out.why = out.sound ? draft->found : draft->unsound;
    ReadContext context;
    auto keys = std::make_shared<KeyRing>();
    for (const auto& key : draft->keys) keys->add(key);
    context.keys = keys;
    put_file(folder / "sheets/draft.toml", bytes_of(draft->toml));
    if (!draft->wrapper.empty()) put_file(folder / "sheets/wrapper.toml", bytes_of(draft->wrapper));
    for (const auto& error : add_sheets_in(context, folder / "sheets")) ADD_FAILURE() << seed << ": " << error.message() << draft->toml;
    const auto container = open_source(context, archive);
    if (!container) {
        out.why += "; opened: " + container.error().message();
        return out;
    }
    const bool named = !truth.empty() && truth.front().path != "-";
    std::vector<Truth> expected = truth, found;
    for (std::size_t i = 0; i < (*container)->entries().size(); ++i) {
        const auto content = (*container)->read(i, context.limits);
        if (!content) {
            out.why += "; " + content.error().message();
            return out;
        }
        found.push_back({named ? (*container)->entries()[i].path : "-", to_hex(sha256(*content))});
    }
    std::sort(expected.begin(), expected.end());
    std::sort(found.begin(), found.end());
    out.whole = expected == found;
    if (out.whole && out.sound && named && found.size() < 3000) out.entries = changed_entries(context, archive, folder, seed);
    if (!out.whole) {
        out.why += fmt::format("; {} entries, {} meant", found.size(), expected.size());
        for (std::size_t i = 0; i < std::min(found.size(), expected.size()); ++i)
            if (!(found[i] == expected[i])) {
                out.why += fmt::format("; first \"{}\" {:.8}, meant \"{}\" {:.8}", found[i].path, found[i].sha256, expected[i].path,
                                       expected[i].sha256);
                break;
            }
    }
    return out;
}

/// Drafts what `writer` draws for the seeds; of 25 at least `least` must be whole, and none may be called sound that is not.
void draft_all(const char* writer, unsigned first, unsigned last, unsigned bytes, unsigned least) {
    if (const char* seeds = std::getenv("SKIVET_DRAFT_SEEDS")) std::sscanf(seeds, "%u %u %u", &first, &last, &bytes);
    TempFolder folder;
    unsigned whole = 0, wrong = 0, changed = 0, tried = 0;
    double slowest = 0;
    for (unsigned seed = first; seed <= last; ++seed) {
        const auto place = folder / std::to_string(seed);
        const auto outcome = outcome_of(writer, seed, bytes, place);
        whole += outcome.whole && outcome.sound;
        wrong += outcome.sound && !outcome.whole;
        slowest = std::max(slowest, outcome.seconds);
        std::cout << fmt::format("{:4} {} {} {:5.2f} s  {}\n", seed, outcome.sound ? "sound" : "     ", outcome.whole ? "whole" : "     ",
                                 outcome.seconds, outcome.why + (outcome.entries.empty() ? "" : "; entries: " + outcome.entries));
        changed += outcome.entries == "changed";
        tried += !outcome.entries.empty();
        if (!outcome.sound || !outcome.whole) std::cout << "       drawn: " << outcome.drawn << '\n';
        EXPECT_FALSE(outcome.sound && !outcome.whole) << seed << " is called sound: " << outcome.why;
        std::filesystem::remove_all(place);
    }
    const auto all = last - first + 1;
    std::cout << fmt::format("{} of {} drafted whole, {} wrong ones called sound; the slowest took {:.2f} s\n", whole, all, wrong, slowest)
              << fmt::format("entries came and went in {} of {}\n", changed, tried);
    EXPECT_GE(whole * 25, all * least);
}

}  // namespace

TEST(RandomLayouts, AreDraftedWholeOrNotCalledSound) { draft_all("random_archives.py", 1, 25, 6'000'000, 18); }

// Records in front of their data, without a table.
TEST(RandomLayouts, ChainsAreDraftedWholeOrNotCalledSound) { draft_all("random_chains.py", 1, 25, 1'000'000, 18); }

// Ends instead of sizes, a record that closes the table, counts without a header; sizes in front of data without names.
TEST(RandomLayouts, PlainTablesAreDraftedWholeOrNotCalledSound) { draft_all("random_tables.py", 1, 25, 1'000'000, 18); }
