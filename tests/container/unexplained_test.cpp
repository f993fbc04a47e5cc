// Bytes a layout does not explain are the game's: no sequence of replacing, compacting and restoring changes, drops or tears them, whatever
// the kind.
#include <gtest/gtest.h>

#include <fmt/format.h>
#include <filesystem>
#include <functional>
#include <random>
#include <string>
#include <vector>

#include "container/address.h"
#include "container/sheet_try.h"
#include "delivery/vault.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Case {
    std::string name, file, sheet;
    std::map<std::string, Bytes> files;  ///< all of the archive's
    std::vector<Bytes> marks;            ///< what must be there afterwards, each whole
    bool writable = true;                ///< otherwise it must say that it cannot be written, and why
};

/// Forty bytes that are not zero and nobody else writes.
Bytes mark(unsigned seed) {
    auto out = random_bytes(40, 900 + seed);
    for (auto& b : out) b |= std::byte{1};
    return out;
}
void put(Bytes& to, const Bytes& bytes) { to.insert(to.end(), bytes.begin(), bytes.end()); }
void put_name(Bytes& to, std::string name, std::size_t size) {
    name.resize(size);
    for (const char c : name) to.push_back(static_cast<std::byte>(c));
}
void put32(Bytes& to, std::uint64_t v) {
    to.resize(to.size() + 4);
    store_le(to.data() + to.size() - 4, static_cast<std::uint32_t>(v));
}

/// An archive of four entries in a layout of one table; `data` = [data] lines of its sheet. Marks stand before the first entry, between
/// entries and behind the last.
Case sheet_case(const std::string& name, bool table_last, std::uint64_t align, const std::string& data, unsigned seed) {
    Case out{name, "g.arc", {}, {}, {}};
    out.sheet = fmt::format(
        "sheet = \"container\"\nname = \"{}\"\n[[recognize]]\ntext = \"ARC!\"\n[header]\nfields = [ {{ name = \"magic\", type = \"text\", "
        "size = 4 }}, {{ name = \"n\", type = \"u32\", means = \"entry count\" }}, {{ name = \"table\", type = \"u32\", means = \"table "
        "offset\" }} ]\n"
        "[record]\nfields = [ {{ name = \"path\", type = \"text\", size = 16, means = \"path\" }}, {{ name = \"at\", type = \"u32\", means "
        "= \"data offset\" }}, {{ name = \"bytes\", type = \"u32\", means = \"stored size\" }} ]\n[data]\nalign = {}\n{}",
        name, align, data);
    const std::string names[] = {"a.bin", "b.bin", "c.bin", "d.bin"};
    Bytes file;
    put_name(file, "ARC!", 4);
    put32(file, 4);
    put32(file, 0);
    if (!table_last) file.resize(12 + 4 * 24);
    std::vector<std::pair<std::size_t, std::size_t>> places;
    for (unsigned i = 0; i < 4; ++i) {
        out.marks.push_back(mark(seed * 10 + i));
        put(file, out.marks.back());
        while (file.size() % align) file.push_back(std::byte{0});
        const auto content = random_bytes(200 + 77 * i, seed + i);
        places.emplace_back(file.size(), content.size());
        put(file, content);
        while (file.size() % align) file.push_back(std::byte{0});
    }
    out.marks.push_back(mark(seed * 10 + 9));
    put(file, out.marks.back());
    const auto table = table_last ? file.size() : 12;
    Bytes records;
    for (unsigned i = 0; i < 4; ++i) {
        put_name(records, names[i], 16);
        put32(records, places[i].first);
        put32(records, places[i].second);
    }
    if (table_last) put(file, records);
    else std::copy(records.begin(), records.end(), file.begin() + 12);
    store_le(file.data() + 8, static_cast<std::uint32_t>(table));
    if (table_last) {
        out.marks.push_back(mark(seed * 10 + 8));
        put(file, out.marks.back());
    }
    out.files["g.arc"] = file;
    return out;
}

Case numbered_case() {
    Case out{"numbered data files", "g.idx", {}, {}, {}};
    out.sheet =
        "sheet = \"container\"\nname = \"Numbered\"\n[[recognize]]\ntext = \"NUM!\"\n[header]\nfields = [ { name = \"magic\", type = "
        "\"text\", size = 4 }, { name = \"n\", type = \"u32\", means = \"entry count\" } ]\n"
        "[record]\nfields = [ { name = \"path\", type = \"text\", size = 16, means = \"path\" }, { name = \"file\", type = \"u32\", means "
        "= \"file number\" }, { name = \"at\", type = \"u32\", means = \"data offset\" }, { name = \"bytes\", type = \"u32\", means = "
        "\"stored size\" } ]\n"
        "[data]\nfile = \"{stem}-{number:2}.dat\"\n";
    Bytes index;
    put_name(index, "NUM!", 4);
    put32(index, 6);
    for (unsigned f = 0; f < 2; ++f) {
        Bytes data;
        for (unsigned i = 0; i < 3; ++i) {
            out.marks.push_back(mark(700 + f * 10 + i));
            put(data, out.marks.back());
            const auto content = random_bytes(300 + 50 * i, f * 7 + i);
            put_name(index, fmt::format("{}{}.bin", static_cast<char>('a' + f), i), 16);
            for (const std::uint64_t v : {std::uint64_t{f}, std::uint64_t{data.size()}, std::uint64_t{content.size()}}) put32(index, v);
            put(data, content);
        }
        out.files[fmt::format("g-0{}.dat", f)] = data;
    }
    out.marks.push_back(mark(799));
    put(index, out.marks.back());
    out.files["g.idx"] = index;
    return out;
}

Case zip_case(bool aligned) {
    Case out{aligned ? "zip aligned" : "zip", "g.zip", {}, {}, {}};
    const auto plain = make_zip({{"a", random_bytes(300, 1)},
                                 {"b", random_bytes(400, 2), true},
                                 {"c", random_bytes(500, 3)},
                                 {"d", random_bytes(600, 4)},
                                 {"e", random_bytes(200, 5)}});
    // Marks in front of all, between the second and third entry, and before the directory, as signatures are put there.
    const auto end = plain.size() - 22;
    const auto directory = load_le<std::uint32_t>(plain.data() + end + 16);
    std::vector<std::pair<std::size_t, std::size_t>> locals;  // in the order of the directory
    for (std::size_t at = directory; at < end;) {
        locals.emplace_back(at, load_le<std::uint32_t>(plain.data() + at + 42));
        at += 46 + load_le<std::uint16_t>(plain.data() + at + 28) + load_le<std::uint16_t>(plain.data() + at + 30) +
              load_le<std::uint16_t>(plain.data() + at + 32);
    }
    Bytes file;
    auto central = Bytes(plain.begin() + directory, plain.begin() + static_cast<std::ptrdiff_t>(end));
    for (std::size_t i = 0; i < locals.size(); ++i) {
        const auto from = locals[i].second, to = i + 1 < locals.size() ? locals[i + 1].second : directory;
        if (i == 2) out.marks.push_back(mark(50)), put(file, out.marks.back());
        const auto head = 30 + load_le<std::uint16_t>(plain.data() + from + 26) + load_le<std::uint16_t>(plain.data() + from + 28);
        while (aligned && (file.size() + head) % 4096) file.push_back(std::byte{0});
        store_le(central.data() + (locals[i].first - directory) + 42, static_cast<std::uint32_t>(file.size()));
        file.insert(file.end(), plain.begin() + static_cast<std::ptrdiff_t>(from), plain.begin() + static_cast<std::ptrdiff_t>(to));
    }
    out.marks.push_back(mark(51));
    put(file, out.marks.back());
    const auto at = file.size();
    put(file, central);
    file.insert(file.end(), plain.begin() + static_cast<std::ptrdiff_t>(end), plain.end());
    store_le(file.data() + file.size() - 6, static_cast<std::uint32_t>(at));
    out.files["g.zip"] = file;
    return out;
}

Case with_trailer(const std::string& name, const std::string& file, Bytes data, unsigned seed) {
    Case out{name, file, {}, {}, {mark(seed)}};
    put(data, out.marks[0]);
    out.files[file] = std::move(data);
    return out;
}

Bytes made_by(const std::vector<std::string>& words, const std::string& result) {
    TempFolder folder;
    put_file(folder / "a", random_bytes(700, 1));
    put_file(folder / "b", random_bytes(900, 2));
    EXPECT_EQ(run_program(words, folder.path().string()).code, 0);
    return get_file(folder / result);
}

/// An archive of tests/layouts with a mark behind everything.
Case layout_case(const std::string& name, const std::string& file, unsigned seed) {
    TempFolder folder;
    const auto script = (std::filesystem::path(layouts_folder) / "layouts.py").string();
    EXPECT_EQ(run_program({"python3", script, "write", name, folder.path().string(), "5"}).code, 0);
    auto out = with_trailer(name, file, get_file(folder / file), seed);
    out.sheet = as_text(get_file(std::filesystem::path(layouts_folder) / (name + ".toml")));
    return out;
}

/// What makes an archive, by its test's name: only that of the test that runs is made.
struct Maker {
    std::string name;
    std::function<Case()> make;
};

Case wrapper_case() {
    Case out{"wrapper without a stored size",
             "g.wrp",
             "sheet = \"wrapper\"\nname = \"Wrap\"\n[[recognize]]\ntext = \"WRP!\"\n[header]\nfields = [ { name = \"magic\", type = "
             "\"text\", size = 4 }, { name = \"bytes\", type = \"u32\", means = \"size\" } ]\n[data]\nmethod = \"deflate\"\n",
             {},
             {mark(60)}};
    const auto content = random_bytes(3000, 8);
    Bytes file;
    put_name(file, "WRP!", 4);
    put32(file, content.size());
    put(file, *pack(Packing::deflate, content));
    put(file, out.marks[0]);
    out.files["g.wrp"] = file;
    return out;
}

std::vector<Maker> make_list() {
    std::vector<Maker> out;
    const auto sheet = [&](const char* name, bool last, unsigned align, const char* more, unsigned seed) {
        out.push_back({name, [=] { return sheet_case(name, last, align, more, seed); }});
    };
    sheet("table first", false, 1, "", 1);
    sheet("table last", true, 1, "", 2);
    sheet("aligned", false, 16, "fill = 0xCC\n", 3);
    sheet("aligned table last", true, 64, "", 4);
    sheet("sectors", false, 2048, "", 8);
    sheet("sectors table last", true, 2048, "", 9);
    sheet("order kept", false, 1, "order = \"kept\"\n", 5);
    sheet("order kept aligned", true, 16, "order = \"kept\"\n", 6);
    sheet("may not move", false, 8, "move = false\n", 7);
    out.push_back({"numbered data files", numbered_case});
    out.push_back({"zip", [] { return zip_case(false); }});
    out.push_back({"zip aligned", [] { return zip_case(true); }});
    out.push_back({"wrapper without a stored size", wrapper_case});
    const auto trailed = [&](const char* name, const char* file, unsigned seed, std::function<Bytes()> data) {
        out.push_back({name, [=] { return with_trailer(name, file, data(), seed); }});
    };
    trailed("tar", "g.tar", 61, [] { return made_by({"tar", "-cf", "out.tar", "a", "b"}, "out.tar"); });
    trailed("gzip", "g.gz", 62, [] { return *pack(Packing::gzip, random_bytes(3000, 8)); });
    trailed("zstd", "g.zst", 63, [] { return *pack(Packing::zstd, random_bytes(3000, 8)); });
    trailed("xz", "g.xz", 64, [] { return *pack(Packing::xz, random_bytes(3000, 8)); });
    trailed("cpio", "g.cpio", 65, [] { return made_by({"bsdtar", "-cf", "out", "--format", "newc", "a", "b"}, "out"); });
    trailed("7z", "g.7z", 66, [] { return made_by({"bsdtar", "-cf", "out", "--format", "7zip", "a", "b"}, "out"); });
    unsigned seed = 70;
    for (const auto& [name, archive] : {std::pair{"train", "game.train"},
                                        {"queue", "game.queue"},
                                        {"seams", "game.seam"},
                                        {"lumps", "game.lmp"},
                                        {"sealed", "game.seal"},
                                        {"reel", "game.reel"},
                                        {"bricks", "game.brk"},
                                        {"folded", "game.fold"},
                                        {"tucked", "game.tuck"},
                                        {"guise", "game.gui"},
                                        {"wall", "game.wall"}}) {
        out.push_back({name, [name = name, archive = archive, seed] { return layout_case(name, archive, seed); }});
        ++seed;
    }
    return out;
}
const std::vector<Maker>& makers() {
    static const auto all = make_list();
    return all;
}

class Unexplained : public testing::TestWithParam<std::size_t> {
protected:
    TempFolder folder;
    ReadContext context;
    const Case c = makers()[GetParam()].make();
    PosixFiles files;

    void SetUp() override {
        for (const auto& [name, content] : c.files) put_file(folder / ("game/" + name), content);
        if (c.sheet.empty()) return;
        auto keys = std::make_shared<KeyRing>();
        keys->add(*parse_key("tin=text:tin foil"));
        context.keys = keys;
        put_file(folder / "s.toml", bytes_of(c.sheet));
        const auto added = add_sheet(context, folder / "s.toml");
        ASSERT_TRUE(added) << added.error().message();
    }
    std::filesystem::path archive() const { return folder / ("game/" + c.file); }
    Bytes everything() const {
        Bytes out;
        for (const auto& [name, content] : c.files) {
            const auto now = get_file(folder / ("game/" + name));
            out.insert(out.end(), now.begin(), now.end());
        }
        return out;
    }
    void expect_marks(const std::string& when) const {
        const auto now = everything();
        for (std::size_t m = 0; m < c.marks.size(); ++m)
            ASSERT_NE(std::search(now.begin(), now.end(), c.marks[m].begin(), c.marks[m].end()), now.end())
                << "mark " << m << " is gone after " << when;
    }
};
INSTANTIATE_TEST_SUITE_P(All, Unexplained, testing::Range(std::size_t{0}, makers().size()), [](const auto& p) {
    auto name = makers()[p.param].name;
    std::replace(name.begin(), name.end(), ' ', '_');
    return name;
});

}  // namespace

TEST_P(Unexplained, StaysWhateverIsDone) {
    expect_marks("nothing");
    std::size_t writes = 0, refusals = 0;
    for (unsigned run = 0; run < 12; ++run) {
        std::mt19937 random(run * 31 + 7);
        std::string done;
        std::map<std::string, Bytes> content;  // by path: a rebuild may order entries anew
        for (int step = 0; step < 8; ++step) {
            const auto source = open_source(context, archive());
            ASSERT_TRUE(source) << done << ": " << source.error().message();
            ASSERT_FALSE((*source)->entries().empty());
            const bool compact = random() % 4 == 0;
            const auto entry = random() % (*source)->entries().size();
            const std::size_t size = random() % 5 == 0 ? 0 : random() % 1500;
            auto bytes = random_bytes(size, run * 100 + static_cast<unsigned>(step));
            // Where entries may come and go, they do.
            enum { replace, add, rename, remove } what = replace;
            if (!compact && (*source)->fixed_entries().empty())
                what = std::array{replace, replace, add, rename, (*source)->entries().size() > 2 ? remove : add}[random() % 5];
            const auto path = (*source)->entries()[entry].path, fresh = fmt::format("{}/{}", std::string(1 + random() % 110, 'n'), step);
            Changes changes;
            if (what == replace) changes.replaced.push_back({entry, bytes});
            if (what == add) changes.added.push_back({fresh, bytes, entry});
            if (what == rename) changes.renamed.push_back({entry, fresh});
            if (what == remove) changes.removed.push_back(entry);
            auto plan = compact ? (*source)->plan_compact(ReadLimits{}) : (*source)->plan_changes(changes, ReadLimits{});
            done += compact
                        ? ", compact"
                        : fmt::format(", {} {} {} bytes", path, std::array{"becomes", "has a variant of", "renamed", "goes"}[what], size);
            if (!plan) {
                ASSERT_TRUE(plan.error().code == ErrorCode::unsupported || plan.error().code == ErrorCode::unfit)
                    << done << ": " << plan.error().message();
                ++refusals;
                continue;
            }
            if (plan->empty()) continue;
            const auto delivered = Vault(folder / "vault", files).deliver(*plan, {"t", archive(), {}}, step);
            ASSERT_TRUE(delivered) << done << ": " << delivered.error().message();
            ++writes;
            if (!compact && what == replace) content[path] = std::move(bytes);
            if (what == add) content[fresh] = std::move(bytes);
            if (what == rename || what == remove)
                if (auto known = content.extract(path); what == rename && !known.empty())
                    known.key() = fresh, content.insert(std::move(known));
            expect_marks(done);
            const auto again = open_source(context, archive());
            ASSERT_TRUE(again) << done << ": " << again.error().message();
            for (const auto& [known_path, wanted] : content) {
                const auto i = (*again)->find(known_path);
                ASSERT_TRUE(i) << done;
                const auto now = (*again)->read(*i, ReadLimits{});
                ASSERT_TRUE(now) << done << ": " << now.error().message();
                ASSERT_EQ(*now, wanted) << done;
            }
            if (!compact || (*again)->dead_bytes() == 0) continue;
            // A packed directory that does not fit any more goes to the end; the next compacting gives its old place back.
            ASSERT_EQ(c.name, "tucked") << done;
            const auto once_more = (*again)->plan_compact(ReadLimits{});
            ASSERT_TRUE(once_more) << done;
            ASSERT_TRUE(Vault(folder / "vault", files).deliver(*once_more, {"t", archive(), {}}, step)) << done;
            ASSERT_EQ((*open_source(context, archive()))->dead_bytes(), 0u) << done;
        }
        const auto restored = Vault(folder / "vault", files).restore_all();
        ASSERT_TRUE(restored) << done << ": " << restored.error().message();
        for (const auto& [name, bytes] : c.files) ASSERT_EQ(get_file(folder / ("game/" + name)), bytes) << name << done;
    }
    EXPECT_GT(writes + refusals, 20u);
    std::printf("%s: %zu deliveries, %zu refused\n", c.name.c_str(), writes, refusals);
}

TEST_P(Unexplained, AProofLooksAtIt) {
    if (c.sheet.empty() || c.sheet.starts_with("sheet = \"wrapper\"")) return;
    const auto proved = prove_writing(context, archive(), Progress{});
    EXPECT_TRUE(proved) << proved.error().message();
}

TEST(UnexplainedZip, CompactingKeepsTheAlignmentTheArchiveShows) {
    TempFolder folder;
    const auto c = zip_case(true);
    put_file(folder / "g.zip", c.files.at("g.zip"));
    PosixFiles files;
    const auto deliver = [&](Result<WritePlan> plan) {
        ASSERT_TRUE(plan && !plan->empty());
        ASSERT_TRUE(Vault(folder / "vault", files).deliver(*plan, {"t", folder / "g.zip", {}}, 1));
    };
    for (unsigned round = 0; round < 3; ++round)
        deliver(
            (*open_source(ReadContext{}, folder / "g.zip"))
                ->plan(std::vector<Replacement>{{round == 1 ? 3u : 0u, random_bytes(900, 70 + round)}, {4, random_bytes(250, 80 + round)}},
                       ReadLimits{}));
    deliver((*open_source(ReadContext{}, folder / "g.zip"))->plan_compact(ReadLimits{}));
    const auto file = get_file(folder / "g.zip");
    const auto now = *open_source(ReadContext{}, folder / "g.zip");
    for (const auto& e : now->entries()) {
        if (e.method != "stored") continue;
        const auto data = e.at + 30 + load_le<std::uint16_t>(file.data() + e.at + 26) + load_le<std::uint16_t>(file.data() + e.at + 28);
        EXPECT_EQ(data % 4096, 0u) << e.path;
    }
}
