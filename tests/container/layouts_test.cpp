// Archives in many layouts, written and read by an independent program (tests/layouts/layouts.py) and described by a sheet
// each (tests/layouts/NAME.toml); together they use everything a container or wrapper sheet can say.
#include <fmt/format.h>
#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <random>
#include <string>
#include <vector>

#include "base/hash.h"
#include "container/address.h"
#include "container/sheet_container.h"
#include "delivery/vault.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

using Tree = std::map<std::string, Bytes>;

const std::vector<std::pair<std::string, std::string>> layouts = {
    {"bins", "game.bins"},   {"ledger", "game.led"},  {"trunk", "game.trunk"}, {"rows", "game.rows"},   {"grove", "game.grove"},
    {"cipher", "game.cph"},  {"index", "game.idx"},   {"dump", "game.toc"},    {"chunky", "game.chk"},  {"flags", "game.flg"},
    {"twin", "game.twn"},    {"parade", "game.prd"},  {"box", "game.box"},     {"safe", "game.safe"},   {"train", "game.train"},
    {"queue", "game.queue"}, {"seams", "game.seam"},  {"lumps", "game.lmp"},   {"sealed", "game.seal"}, {"reel", "game.reel"},
    {"bricks", "game.brk"},  {"folded", "game.fold"}, {"tucked", "game.tuck"}, {"guise", "game.gui"},   {"wall", "game.wall"}};
/// Layouts in which nothing can move alone, so that nothing is left behind.
bool in_order(const std::string& name) {
    return name == "train" || name == "queue" || name == "seams" || name == "reel" || name == "bricks" || name == "folded" ||
           name == "wall";
}

std::shared_ptr<const KeyRing> all_keys() {
    auto ring = std::make_shared<KeyRing>();
    const auto run = [](unsigned from, unsigned count) {
        Bytes out;
        for (unsigned i = 0; i < count; ++i) out.push_back(static_cast<std::byte>(from + i));
        return out;
    };
    ring->add({"booth", run(0, 16)});
    ring->add({"vault", run(100, 32)});
    ring->add({"safe", run(50, 24)});
    ring->add(*parse_key("tin=text:tin foil"));
    return ring;
}

class Layouts : public testing::TestWithParam<std::pair<std::string, std::string>> {
protected:
    TempFolder folder;
    ReadContext context;
    PosixFiles files;
    std::string name = GetParam().first;
    std::filesystem::path game = folder / "game", archive = game / GetParam().second;
    Tree plain;

    void SetUp() override {
        std::filesystem::create_directories(game);
        put_file(folder / "sheets/bins.toml", get_file(std::filesystem::path(layouts_folder) / "bins.toml"));
        put_file(folder / "sheets/box.toml", get_file(std::filesystem::path(layouts_folder) / "box.toml"));
        put_file(folder / ("sheets/" + name + ".toml"), get_file(std::filesystem::path(layouts_folder) / (name + ".toml")));
        script("write", "7");
        if (name == "cipher") std::filesystem::copy_file(game / "cipher.paths", folder / "sheets/cipher.paths");
        for (const auto& error : add_sheets_in(context, folder / "sheets")) ADD_FAILURE() << error.message();
        context.keys = all_keys();
        plain = tree(game / "plain");
        if (name == "cipher") {  // a name the dictionary lacks
            plain["#f517cf26"] = plain["rides/Swing.dds"];
            plain.erase("rides/Swing.dds");
        }
        std::filesystem::remove_all(game / "plain");
    }
    void script(const std::string& action, const std::string& last) {
        const auto ran = run_program({"python3", std::string(layouts_folder) + "/layouts.py", action, name, game.string(), last});
        ASSERT_EQ(ran.code, 0) << action << " " << name << ": " << ran.output;
    }
    static Tree tree(const std::filesystem::path& path) {
        Tree out;
        for (const auto& item : std::filesystem::recursive_directory_iterator(path))
            if (item.is_regular_file()) out[item.path().lexically_relative(path).generic_string()] = get_file(item.path());
        return out;
    }
    std::shared_ptr<const Container> open() {
        auto opened = open_source(context, archive);
        EXPECT_TRUE(opened) << (opened ? "" : opened.error().message());
        return opened ? *opened : nullptr;
    }
    Tree read_all(const Container& container) {
        Tree out;
        for (std::size_t i = 0; i < container.entries().size(); ++i) {
            const auto data = container.read(i, ReadLimits{});
            EXPECT_TRUE(data) << (data ? "" : data.error().message());
            if (data) out[container.entries()[i].path] = *data;
            const auto head = container.read_head(i, 40);
            EXPECT_TRUE(head) << (head ? "" : head.error().message());
            if (data && head)
                EXPECT_EQ(*head,
                          Bytes(data->begin(), data->begin() + static_cast<std::ptrdiff_t>(std::min<std::size_t>(40, data->size()))));
        }
        return out;
    }
    /// What the other program reads.
    Tree by_script() {
        std::filesystem::remove_all(folder / "out");
        std::filesystem::create_directories(folder / "out");
        script("read", (folder / "out").string());
        return tree(folder / "out");
    }
    Status deliver(std::map<std::string, Bytes> contents) {
        const auto container = open();
        std::vector<Replacement> all;
        for (auto& [path, data] : contents) {
            const auto entry = container->find(path);
            if (!entry) return fail(ErrorCode::missing, path);
            all.push_back({*entry, data});
        }
        SKIVET_TRY(const auto plan, container->plan(all, ReadLimits{}));
        SKIVET_TRY(const auto done, Vault(folder / "vault", files).deliver(plan, {"t", archive, {}}, 1));
        (void)done;
        for (auto& [path, data] : contents) plain[path] = data;
        return {};
    }
};
INSTANTIATE_TEST_SUITE_P(All, Layouts, testing::ValuesIn(layouts), [](const auto& p) { return p.param.first; });

Bytes varied(Bytes data, std::size_t at) {
    if (!data.empty()) data[at % data.size()] ^= std::byte{0x55};
    return data;
}

}  // namespace

TEST_P(Layouts, AreReadAsTheirWriterMeantThem) {
    const auto container = open();
    ASSERT_TRUE(container);
    EXPECT_EQ(read_all(*container), plain);
    std::uint64_t at = 0;
    for (const auto& segment : container->segments()) {
        EXPECT_EQ(segment.at, at);
        at += segment.size;
    }
    for (const auto& [path, data] : plain) {
        const auto same = container->plan(std::vector<Replacement>{{*container->find(path), data}}, ReadLimits{});
        ASSERT_TRUE(same) << same.error().message();
        EXPECT_TRUE(same->empty()) << "identity: " << path;
    }
}

TEST_P(Layouts, ChangesAreReadByTheirOwnReader) {
    const auto before = tree(game);
    const std::string horse = "rides/horse.dds", sign = "signs/open.txt", lamp = "lamp";
    // The same size, less, more, and several at once; entries that share data stay what they were.
    const bool cut = name == "dump";  // data in parts of a fixed size takes only what fits
    const auto step = [&](std::map<std::string, Bytes> contents) {
        const auto done = deliver(std::move(contents));
        ASSERT_TRUE(done) << done.error().message();
        EXPECT_EQ(read_all(*open()), plain);
        EXPECT_EQ(by_script(), plain) << "the other reader";
    };
    step({{lamp, varied(plain[lamp], 3)}});
    step({{horse, random_bytes(cut ? 2300 : 1200, 5)}});
    if (!cut) step({{sign, random_bytes(9000, 6)}});
    if (!cut) step({{"booths/tickets.bin", random_bytes(333, 8)}, {lamp, {}}, {horse, random_bytes(5001, 9)}});
    const auto undone = Vault(folder / "vault", files).restore_all();
    ASSERT_TRUE(undone) << undone.error().message();
    EXPECT_EQ(tree(game), before) << "byte for byte";
}

TEST_P(Layouts, EntriesComeAndGoAsTheirOwnReaderSeesThem) {
    using What = AddressedChange::What;
    const auto reason = open()->fixed_entries();
    if (!reason.empty()) {
        const auto refused = plan_changes(context, *open(), {{What::remove, {plain.begin()->first}}});
        ASSERT_FALSE(refused);
        EXPECT_EQ(refused.error().code, ErrorCode::unsupported);
        EXPECT_NE(refused.error().message().find(reason), std::string::npos);
        std::printf("%s: %s\n", name.c_str(), reason.c_str());
        return;
    }
    const auto unexplained = [&] {
        const auto opened = open();
        const auto* sheet = dynamic_cast<const SheetContainer*>(opened.get());
        return sheet ? *sheet->unexplained() : std::vector<Bytes>();
    };
    const auto kept = unexplained();
    std::mt19937 random(11);
    unsigned refused = 0, done = 0;
    for (unsigned round = 0; round < 30; ++round) {
        const auto any = [&] { return std::next(plain.begin(), static_cast<std::ptrdiff_t>(random() % plain.size()))->first; };
        const auto like = any(), other = any(), third = any();
        // Now and then longer than a field of a fixed size takes.
        const auto path = std::string(1 + random() % 6, static_cast<char>('a' + random() % 26)) + (random() % 3 ? "/" : "/deeper/") +
                          "new" + std::to_string(round) + std::string(random() % 8 ? 0 : 30, 'x') + ".dds";
        const auto bytes = random_bytes(random() % 5000, round);
        // A name that only its hash tells has to be known.
        if (round % 3 > 0) {
            context.known_paths.insert(context.known_paths.end(), {path, path + "2"});
            std::ofstream(game / "cipher.paths", std::ios::app) << '\n' << path << '\n' << path << '2';
        }
        auto after = plain;
        std::vector<AddressedChange> changes;
        switch (random() % 5) {
            case 0:
            case 1:
                changes.push_back({What::add, {path}, bytes, random() % 2 ? like : std::string()});
                after[path] = bytes;
                break;
            case 2:
                changes.push_back({What::rename, {like}, {}, path});
                after[path] = after[like];
                after.erase(like);
                break;
            case 3:
                changes.push_back({What::remove, {like}});
                after.erase(like);
                break;
            default:
                if (like == other || other == third || third == like) continue;
                changes = {{What::remove, {like}},
                           {What::rename, {other}, {}, path},
                           {What::replace, {third}, bytes},
                           {What::add, {path + "2"}, bytes, other}};
                after[path] = after[other];
                after.erase(like);
                after.erase(other);
                after[third] = after[path + "2"] = bytes;
        }
        if (after.size() < 2) continue;
        auto plan = plan_changes(context, *open(), changes);
        if (!plan) {
            // A name that does not fit, or that is nowhere but in its hash, is refused and nothing is changed.
            ++refused;
            EXPECT_TRUE(plan.error().code == ErrorCode::unfit || plan.error().code == ErrorCode::unsupported) << plan.error().message();
            if (refused < 4) std::printf("%s: %s\n", name.c_str(), plan.error().message().c_str());
            continue;
        }
        ++done;
        PosixFiles posix;
        const auto delivered = Vault(folder / "vault", posix).deliver(*plan, {"t", archive, {}}, 1);
        ASSERT_TRUE(delivered) << delivered.error().message();
        plain = std::move(after);
        ASSERT_TRUE(read_all(*open()) == plain) << "round " << round;
        ASSERT_TRUE(by_script() == plain) << "round " << round;
        ASSERT_TRUE(open()->problems().empty());
        for (const auto& stretch : unexplained())
            ASSERT_NE(std::find(kept.begin(), kept.end(), stretch), kept.end()) << "round " << round << ": bytes nobody explained came";
        if (round % 7 == 6) {
            const auto less = open()->plan_compact(context.limits);
            ASSERT_TRUE(less) << less.error().message();
            if (less->empty()) continue;
            ASSERT_TRUE(Vault(folder / "vault", posix).deliver(*less, {"c", archive, {}}, 1));
            ASSERT_EQ(by_script(), plain) << "given back after round " << round;
        }
    }
    std::printf("%s: %u changes, %u refused\n", name.c_str(), done, refused);
    EXPECT_GT(done, 0u);
    // And the vault has the way back.
    PosixFiles posix;
    ASSERT_TRUE(Vault(folder / "vault", posix).restore_all());
}

TEST_P(Layouts, OneByteOfAStoredEntryWritesLittle) {
    const auto container = open();
    const auto entry = *container->find("rides/horse.dds");
    // Where chunks or the directory are packed, one byte becomes more.
    if (container->entries()[entry].method != "stored" || name == "reel" || name == "bricks" || name == "folded" || name == "tucked" ||
        name == "wall" || name == "box" || name == "safe" || name == "guise")
        return;
    const auto plan = container->plan(std::vector<Replacement>{{entry, varied(plain["rides/horse.dds"], 100)}}, ReadLimits{});
    ASSERT_TRUE(plan) << plan.error().message();
    if (name != "twin") EXPECT_EQ(plan->way(), Way::in_place);
    // What a cipher or a second user of the data makes of one byte is more.
    if (name != "cipher") EXPECT_LE(plan->bytes_written(), 200u);
}

TEST_P(Layouts, CompactGivesBackWhatMovingLeft) {
    const auto before = tree(game);
    if (name == "dump" || name == "box" || name == "safe" || name == "guise") {
        EXPECT_EQ(open()->dead_bytes(), 0u);
        EXPECT_TRUE(open()->plan_compact(ReadLimits{})->empty());
        return;
    }
    EXPECT_EQ(open()->dead_bytes(), name == "flags" ? 44u : 0u) << "as written; one layout has a deleted entry";
    for (const std::size_t size : {7000u, 8000u})
        for (const char* path : {"rides/horse.dds", "signs/open.txt", "lamp"}) ASSERT_TRUE(deliver({{path, random_bytes(size, 3)}}));
    const auto dead = open()->dead_bytes();
    // Entries of the one may not move, so that it is laid out anew each time; those of the other have a data file each.
    if (name != "twin" && name != "index" && !in_order(name)) EXPECT_GT(dead, 2000u);
    const auto plan = open()->plan_compact(ReadLimits{});
    ASSERT_TRUE(plan) << plan.error().message();
    ASSERT_EQ(plan->empty(), dead == 0);
    if (!plan->empty()) {
        if (name != "index" && name != "lumps")  // the one's data is other bytes wherever it lies
            EXPECT_LT(kept_bytes(plan->files[0]), dead + 13'000) << "the vault keeps what is dropped, padding and the tables";
        ASSERT_TRUE(Vault(folder / "vault", files).deliver(*plan, {"compact", archive, {}}, 1));
    }
    ASSERT_TRUE(open());
    EXPECT_EQ(open()->dead_bytes(), 0u);
    EXPECT_EQ(read_all(*open()), plain);
    EXPECT_EQ(by_script(), plain);
    ASSERT_TRUE(Vault(folder / "vault", files).restore_all());
    EXPECT_EQ(tree(game), before);
}

TEST_P(Layouts, WithoutTheKeyItIsAKeyThatIsMissing) {
    ReadContext bare;
    ASSERT_TRUE(add_sheets_in(bare, folder / "sheets").empty());
    const auto opened = open_source(bare, archive);
    const bool locked = name == "cipher" || name == "safe" || name == "tucked";
    ASSERT_EQ(opened.has_value(), !locked);
    if (locked) EXPECT_EQ(opened.error().code, ErrorCode::key) << opened.error().message();
    if (name == "flags") {
        std::size_t refused = 0;
        for (std::size_t i = 0; i < (*opened)->entries().size(); ++i) {
            const auto data = (*opened)->read(i, ReadLimits{});
            EXPECT_EQ(data.has_value(), !(*opened)->entries()[i].encrypted);
            if (data) continue;
            EXPECT_EQ(data.error().code, ErrorCode::key);
            ++refused;
        }
        EXPECT_EQ(refused, 2u);
    }
}

TEST_P(Layouts, DamageIsAnErrorNeverACrash) {
    const auto whole = get_file(archive);
    std::size_t noticed = 0;
    for (std::size_t at = 0; at < whole.size(); at += std::max<std::size_t>(1, whole.size() / 300)) {
        for (const bool short_file : {false, true}) {
            auto broken = whole;
            if (short_file) broken.resize(at);
            else broken[at] ^= std::byte{0xA5};
            put_file(archive, broken);
            const auto opened = open_source(context, archive);
            if (!opened) {
                ++noticed;
                continue;
            }
            for (std::size_t i = 0; i < (*opened)->entries().size(); ++i) {
                if (!(*opened)->read(i, ReadLimits{})) ++noticed;
                (void)(*opened)->read_head(i, 100);
                const auto plan = (*opened)->plan(std::vector<Replacement>{{i, Bytes(3000)}}, ReadLimits{});
                if (plan && !plan->files.empty() && plan->files[0].file == archive) (void)planned_bytes(plan->files[0], broken);
            }
            (void)(*opened)->segments();
            (void)(*opened)->plan_compact(ReadLimits{});
        }
    }
    EXPECT_GT(noticed, 50u);
}

TEST(LayoutDamage, AnEntryBehindTheEndStopsARebuildNotTheReading) {
    // Found by fuzzing: laying out anew copied from behind the end of the file.
    TempFolder folder;
    ASSERT_EQ(run_program({"python3", std::string(layouts_folder) + "/layouts.py", "write", "twin", folder.path().string(), "2"}).code, 0);
    auto bytes = get_file(folder / "game.twn");
    store_uint(bytes.data() + 24 + 44 + 32, 0x7FFFFFFF, 4, ByteOrder::big);
    put_file(folder / "game.twn", bytes);
    ReadContext context;
    ASSERT_TRUE(add_sheet(context, std::string(layouts_folder) + "/twin.toml"));
    const auto archive = open_source(context, folder / "game.twn");
    ASSERT_TRUE(archive) << archive.error().message();
    EXPECT_TRUE((*archive)->read(0, ReadLimits{}));
    const auto plan = (*archive)->plan(std::vector<Replacement>{{0, random_bytes(9000, 1)}}, ReadLimits{});
    ASSERT_FALSE(plan);
    EXPECT_EQ(plan.error().message(),
              "rides/Swing.dds: needs 905 bytes, has 0 (at byte 0x7fffffff). An archive with a damaged entry cannot be laid out anew");
}

TEST(LayoutDamage, NothingIsAddedWhereAnEntryIsSaidToGoOn) {
    // Found by fuzzing: the entry that was cut off took what was added for its own, or what was added was refused on reading back.
    TempFolder folder;
    ASSERT_EQ(run_program({"python3", std::string(layouts_folder) + "/layouts.py", "write", "bins", folder.path().string(), "2"}).code, 0);
    const auto whole = get_file(folder / "game.bins");
    ReadContext context;
    ASSERT_TRUE(add_sheet(context, std::string(layouts_folder) + "/bins.toml"));
    const auto record = [](std::size_t entry) { return 16 + entry * 40; };
    const auto count = load_uint(whole.data() + 4, 4, ByteOrder::little);
    std::size_t last = 0;  // the entry whose data is furthest behind
    for (std::size_t i = 1; i < count; ++i)
        if (load_uint(whole.data() + record(i) + 32, 4, ByteOrder::little) >
            load_uint(whole.data() + record(last) + 32, 4, ByteOrder::little))
            last = i;
    const auto other = (last + 1) % count;
    auto bytes = whole;
    const auto has = whole.size() - load_uint(whole.data() + record(last) + 32, 4, ByteOrder::little);
    store_uint(bytes.data() + record(last) + 36, has + 500, 4, ByteOrder::little);
    put_file(folder / "game.bins", bytes);
    const auto archive = open_source(context, folder / "game.bins");
    ASSERT_TRUE(archive) << archive.error().message();
    EXPECT_FALSE((*archive)->read(last, ReadLimits{}));
    const auto path = (*archive)->entries()[last].path;
    const auto wanted =
        fmt::format("{}: needs {} bytes, has {}, and what is added would come to lie in it", path, grouped(has + 500), grouped(has));

    const auto grown = (*archive)->plan(std::vector<Replacement>{{other, random_bytes(9000, 1)}}, ReadLimits{});
    ASSERT_FALSE(grown);
    EXPECT_TRUE(grown.error().message().starts_with(wanted)) << grown.error().message();
    Changes changes;
    changes.added.push_back({"n/new.dds", random_bytes(90, 2), other});
    const auto added = (*archive)->plan_changes(changes, ReadLimits{});
    ASSERT_FALSE(added);
    EXPECT_TRUE(added.error().message().starts_with(wanted)) << added.error().message();

    // The advice holds.
    changes.removed = {last};
    const auto instead = (*archive)->plan_changes(changes, ReadLimits{});
    ASSERT_TRUE(instead) << instead.error().message();
    const auto after = planned_bytes(instead->files.at(0), bytes);
    ASSERT_TRUE(after);
    put_file(folder / "game.bins", *after);
    const auto again = open_source(context, folder / "game.bins");
    ASSERT_TRUE(again) << again.error().message();
    const auto entry = (*again)->find("n/new.dds");
    ASSERT_TRUE(entry);
    EXPECT_EQ((*again)->read(*entry, ReadLimits{}), random_bytes(90, 2));
}
