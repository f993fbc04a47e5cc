#include <gtest/gtest.h>

#include <fstream>
#include <random>
#include <string>
#include <vector>

#include "base/hash.h"
#include "container/zip.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

const std::vector<ZipItem> three = {{"a/first.dds", random_bytes(500, 1), false},
                                    {"b/second.txt", bytes_of("the second entry, the second entry"), true},
                                    {"c.bin", random_bytes(300, 2), false}};

std::unique_ptr<Container> open(const Bytes& file) {
    auto zip = ZipContainer::open(FileView::of(file, "t.zip"), ReadLimits{});
    EXPECT_TRUE(zip) << (zip ? "" : zip.error().message());
    return zip ? std::move(*zip) : nullptr;
}

Bytes after(const Container& zip, const Bytes& file, std::vector<Replacement> replacements, Way* way = nullptr,
            std::uint64_t* written = nullptr) {
    const auto plan = zip.plan(replacements, ReadLimits{});
    EXPECT_TRUE(plan) << (plan ? "" : plan.error().message());
    if (way) *way = plan->files.empty() ? Way::nothing : plan->files[0].way;
    if (written) *written = plan->bytes_written();
    return plan->files.empty() ? file : *planned_bytes(plan->files[0], file);
}

}  // namespace

struct Shape {
    const char* name;
    ZipTraits traits;
};
class EveryShape : public testing::TestWithParam<Shape> {};
INSTANTIATE_TEST_SUITE_P(Zip, EveryShape,
                         testing::Values(Shape{"plain", {}}, Shape{"zip64", {.zip64 = true}}, Shape{"descriptors", {.descriptors = true}},
                                         Shape{"unsigned_descriptors", {.descriptors = true, .descriptor_signature = false}},
                                         Shape{"prefix", {.prefix = std::string(777, 'x')}},
                                         Shape{"counted_prefix", {.prefix = std::string(777, 'x'), .offsets_count_prefix = true}},
                                         Shape{"comment", {.comment = "made PK\x05\x06 at the fair"}},
                                         Shape{"all", {.zip64 = true, .descriptors = true, .prefix = "#!/bin/sh\n", .comment = "c"}}),
                         [](const auto& param) { return std::string(param.param.name); });

TEST_P(EveryShape, IsReadAtRandom) {
    const auto zip = open(make_zip(three, GetParam().traits));
    ASSERT_EQ(zip->entries().size(), 3u);
    for (std::size_t i : {2u, 0u, 1u}) {
        EXPECT_EQ(zip->entries()[i].path, three[i].name);
        const auto data = zip->read(i, ReadLimits{});
        ASSERT_TRUE(data) << data.error().message();
        EXPECT_EQ(*data, three[i].data);
        EXPECT_EQ(*zip->read_head(i, 7), Bytes(three[i].data.begin(), three[i].data.begin() + 7));
    }
}

TEST_P(EveryShape, ReplacingByTheSameWritesNothing) {
    const auto file = make_zip(three, GetParam().traits);
    const auto zip = open(file);
    for (std::size_t i = 0; i < 3; ++i) EXPECT_EQ(after(*zip, file, {{i, three[i].data}}), file);
}

TEST_P(EveryShape, EqualSizeStoredGoesInPlace) {
    const auto file = make_zip(three, GetParam().traits);
    auto fresh = three[0].data;
    fresh[250] ^= std::byte{1};
    Way way{};
    std::uint64_t written = 0;
    const auto out = after(*open(file), file, {{0, fresh}}, &way, &written);
    EXPECT_EQ(way, Way::in_place);
    EXPECT_EQ(out.size(), file.size());
    EXPECT_LE(written, 16u) << "one byte and the checksums";
    const auto zip = open(out);
    EXPECT_EQ(*zip->read(0, ReadLimits{}), fresh);
    EXPECT_EQ(*zip->read(2, ReadLimits{}), three[2].data);
}

TEST_P(EveryShape, AnotherSizeIsAppendedAndEverythingElseStays) {
    const auto file = make_zip(three, GetParam().traits);
    for (std::size_t entry : {0u, 1u, 2u}) {
        const auto fresh = random_bytes(1000 + entry, 9);
        Way way{};
        const auto out = after(*open(file), file, {{entry, fresh}}, &way);
        EXPECT_EQ(way, Way::append);
        const auto zip = open(out);
        ASSERT_TRUE(zip);
        ASSERT_EQ(zip->entries().size(), 3u);
        for (std::size_t i = 0; i < 3; ++i) {
            EXPECT_EQ(zip->entries()[i].path, three[i].name) << "order is kept";
            EXPECT_EQ(zip->entries()[i].method, open(file)->entries()[i].method) << "method is kept";
            const auto data = zip->read(i, ReadLimits{});
            ASSERT_TRUE(data) << data.error().message();
            EXPECT_EQ(*data, i == entry ? fresh : three[i].data);
        }
        const auto& traits = GetParam().traits;
        EXPECT_EQ(as_text(ByteSpan(out).first(traits.prefix.size())), traits.prefix);
        EXPECT_EQ(as_text(ByteSpan(out).last(traits.comment.size())), traits.comment);
    }
}

TEST_P(EveryShape, TheLastEntryGivesItsPlaceBack) {
    const auto file = make_zip(three, GetParam().traits);
    auto current = file;
    for (unsigned seed = 0; seed < 5; ++seed) current = after(*open(current), current, {{1, random_bytes(2000, seed)}});
    // Five replacements of one entry leave one dead copy, the first, not five.
    EXPECT_LT(current.size(), file.size() + 2300);
    EXPECT_EQ(*open(current)->read(1, ReadLimits{}), random_bytes(2000, 4));
}

TEST_P(EveryShape, TheOnlyEntryMayGrowAndShrink) {
    // It lies at the archive's very start, and its place is used again.
    const std::vector<ZipItem> one = {{"only.dds", random_bytes(500, 1), false}};
    auto current = make_zip(one, GetParam().traits);
    for (const std::size_t size : {700u, 30u, 2000u, 0u, 500u}) {
        current = after(*open(current), current, {{0, random_bytes(size, 7)}});
        const auto back = open(current)->read(0, ReadLimits{});
        ASSERT_TRUE(back) << back.error().message();
        EXPECT_EQ(*back, random_bytes(size, 7));
    }
}

TEST_P(EveryShape, SeveralAtOnce) {
    const auto file = make_zip(three, GetParam().traits);
    auto same_size = three[0].data;
    same_size[0] ^= std::byte{255};
    const auto out = after(*open(file), file, {{2, random_bytes(10, 1)}, {0, same_size}, {1, random_bytes(4000, 3)}});
    const auto zip = open(out);
    EXPECT_EQ(*zip->read(0, ReadLimits{}), same_size);
    EXPECT_EQ(*zip->read(1, ReadLimits{}), random_bytes(4000, 3));
    EXPECT_EQ(*zip->read(2, ReadLimits{}), random_bytes(10, 1));
}

TEST(Zip, NamesAreUtf8OrCp437) {
    const auto utf8 = open(make_zip({{"sch\xC3\xB6n.dds", Bytes(3)}}));
    EXPECT_EQ(utf8->entries()[0].path, "schön.dds");
    const auto dos = open(make_zip({{"sch\x94n.dds", Bytes(3)}}, {.flags = 0}));
    EXPECT_EQ(dos->entries()[0].path, "schön.dds") << "APPNOTE appendix D: without the flag a name is CP437";
}

TEST(Zip, EqualPathsAreNumberedInTheOrderTheyStand) {
    const auto zip = open(make_zip({{"x", bytes_of("old")},
                                    {"x", bytes_of("new")},
                                    {"a.b/c.dds", Bytes(1)},
                                    {"a.b/c.dds", Bytes(2)},
                                    {"a.b/d", Bytes(3)},
                                    {"a.b/d", Bytes(4)}}));
    EXPECT_EQ(zip->find("x"), 0u);
    EXPECT_EQ(zip->find("x#2"), 1u);
    EXPECT_EQ(zip->find("a.b/c#2.dds"), 3u) << "before the ending, so that it still says what the entry is";
    EXPECT_EQ(zip->find("a.b/d#2"), 5u) << "a folder's point is no ending";
    EXPECT_FALSE(zip->find("y"));
}

/// Old directory formats allow it: 36 entries of one name among markers.
TEST(Zip, ManyEntriesOfOneNameAreNumberedAtOnce) {
    std::vector<ZipItem> items;
    for (int i = 0; i < 20'000; ++i) items.push_back({i % 2 ? "START" : "TEX", Bytes(1)});
    const auto zip = open(make_zip(items));
    EXPECT_EQ(zip->find("TEX#10000"), 19'998u);
    EXPECT_EQ(zip->find("START#10000"), 19'999u);
}

TEST(Zip, ADamagedEntryLeavesTheRestUsable) {
    auto file = make_zip(three);
    const auto zip_before = open(file);
    file[zip_before->entries()[0].at + 60] ^= std::byte{4};
    const auto zip = open(file);
    const auto data = zip->read(0, ReadLimits{});
    ASSERT_FALSE(data);
    EXPECT_EQ(data.error().code, ErrorCode::damaged);
    EXPECT_NE(data.error().message().find("a/first.dds: CRC-32 is"), std::string::npos) << data.error().message();
    EXPECT_EQ(*zip->read(2, ReadLimits{}), three[2].data);
    // And a damaged entry can be replaced.
    EXPECT_EQ(*open(after(*zip, file, {{0, three[0].data}}))->read(0, ReadLimits{}), three[0].data);
}

TEST(Zip, EncryptedAndUnknownMethodsAreRefusedByName) {
    auto file = make_zip(three);
    const auto directory = as_text(file).find("PK\x01\x02");
    file[directory + 8] |= std::byte{1};
    EXPECT_NE(open(file)->read(0, ReadLimits{}).error().message().find("encrypted"), std::string::npos);
    file[directory + 8] &= std::byte{0xFE};
    file[directory + 10] = std::byte{9};
    EXPECT_NE(open(file)->read(0, ReadLimits{}).error().message().find("method 9 (deflate64)"), std::string::npos);
    EXPECT_FALSE(open(file)->plan(std::vector<Replacement>{{0, Bytes(4)}}, ReadLimits{}));
}

TEST(Zip, ClaimsAreCheckedBeforeMemoryIsTaken) {
    auto file = make_zip({{"bomb", Bytes(100000), true}});
    const auto directory = as_text(file).find("PK\x01\x02");
    store_le(file.data() + directory + 24, 0x7FFFFFFFu);
    const auto zip = open(file);
    const auto data = zip->read(0, ReadLimits{});
    ASSERT_FALSE(data);
    EXPECT_EQ(data.error().code, ErrorCode::limit);
    auto many = make_zip(three);
    store_le(many.data() + many.size() - 12, std::uint16_t{60000});
    const auto by_headers = open(many);
    EXPECT_EQ(by_headers->entries().size(), three.size()) << "its own headers count, not the directory's claim";
    EXPECT_FALSE(by_headers->read_only().empty());
}

TEST(Zip, CutOffFilesAreRefusedOrOnlyReadAtEveryLength) {
    const auto file = make_zip(three, {.zip64 = true, .comment = "end"});
    std::size_t most = 0;
    for (std::size_t size = 0; size < file.size(); ++size) {
        const auto zip =
            ZipContainer::open(FileView::of(Bytes(file.begin(), file.begin() + static_cast<std::ptrdiff_t>(size))), ReadLimits{});
        if (!zip) continue;
        EXPECT_FALSE((*zip)->read_only().empty()) << size;
        EXPECT_FALSE((*zip)->problems().empty()) << size;
        EXPECT_FALSE((*zip)->plan(std::vector<Replacement>{{0, Bytes(4)}}, ReadLimits{})) << size;
        std::size_t whole = 0;
        for (std::size_t i = 0; i < (*zip)->entries().size(); ++i)
            if (const auto data = (*zip)->read(i, ReadLimits{})) {
                EXPECT_EQ(*data, three[i].data);
                ++whole;
            }
        EXPECT_GE(whole, most) << "a longer file has no less to give";
        most = std::max(most, whole);
    }
    EXPECT_EQ(most, three.size());
}

TEST(Zip, ALocalHeaderThatReachesPastTheDirectoryIsDamage) {
    // Found by fuzzing: name and extra lengths of the local header were trusted when the entry was planned anew.
    auto file = make_zip(three);
    const auto at = open(file)->entries()[2].at;
    store_le(file.data() + at + 28, std::uint16_t{40000});
    const auto zip = open(file);
    EXPECT_NE(zip->read(2, ReadLimits{}).error().message().find("local header: needs"), std::string::npos);
    EXPECT_FALSE(zip->plan(std::vector<Replacement>{{2, Bytes(5)}}, ReadLimits{}));
    EXPECT_EQ(*zip->read(0, ReadLimits{}), three[0].data);
}

TEST(Zip, ASizeThatWrapsAroundIsDamage) {
    // Found by fuzzing: places behind data were computed from a ZIP64 size close to 2^64.
    const auto made = make_zip(three, {.zip64 = true, .descriptors = true});
    const auto good = after(*open(made), made, {{1, random_bytes(900, 3)}});  // leaves bytes that compacting would take
    ASSERT_TRUE(open(good)->plan_compact(ReadLimits{}));
    const auto record = as_text(good).find("PK\x01\x02");
    const auto extra = as_text(good).find(std::string("\x01\0", 2), record + 46 + three[0].name.size());
    const std::size_t stored = extra + 12;
    for (std::uint64_t less = 0; less < 120; ++less) {
        auto file = good;
        store_le(file.data() + stored, ~less);
        const auto zip = open(file);
        const auto segments = zip->segments();
        ASSERT_EQ(segments.size(), 1u) << less;
        EXPECT_EQ(segments[0].size, file.size()) << "it claims everything behind it, not a piece before its end";
        EXPECT_FALSE(zip->read(0, ReadLimits{}));
        const auto compact = zip->plan_compact(ReadLimits{});
        EXPECT_TRUE(!compact || compact->files.empty()) << "what the entry holds is not known, so nothing may close up over it";
        EXPECT_EQ(*zip->read(2, ReadLimits{}), three[2].data);
        EXPECT_EQ(*open(after(*zip, file, {{2, Bytes(40)}}))->read(2, ReadLimits{}), Bytes(40));
    }
}

TEST(Zip, RandomDamageNeverCrashes) {
    const auto good = make_zip(three, {.zip64 = true, .descriptors = true});
    for (unsigned seed = 0; seed < 4000; ++seed) {
        auto file = good;
        std::mt19937 random(seed);
        for (int k = 0; k < 3; ++k)
            file[file.size() - 1 - random() % std::min<std::size_t>(file.size(), 420)] = static_cast<std::byte>(random());
        auto zip = ZipContainer::open(FileView::of(file), ReadLimits{});
        if (!zip) continue;
        for (std::size_t i = 0; i < (*zip)->entries().size(); ++i) {
            (void)(*zip)->read(i, ReadLimits{});
            const std::vector<Replacement> one = {{i, Bytes(50)}};
            if (const auto plan = (*zip)->plan(one, ReadLimits{}); plan && !plan->files.empty()) (void)planned_bytes(plan->files[0], file);
        }
        (void)(*zip)->segments();
    }
}

TEST(Zip, SegmentsCoverTheFileWithoutOverlap) {
    const auto file = make_zip(three, {.descriptors = true, .prefix = "pre"});
    std::uint64_t at = 0;
    for (const auto& s : open(file)->segments()) {
        EXPECT_EQ(s.at, at);
        at += s.size;
    }
    EXPECT_EQ(at, file.size());
}

TEST(Plan, MinimizingKeepsTheResult) {
    const auto before = random_bytes(1000, 1);
    auto after_bytes = before;
    for (std::size_t i : {5u, 6u, 20u, 500u, 999u}) after_bytes[i] ^= std::byte{1};
    FilePlan plan;
    plan.expected.size = plan.new_size = 1000;
    plan.ranges.push_back({0, after_bytes});
    minimize(plan, before);
    EXPECT_EQ(plan.ranges.size(), 3u);
    EXPECT_EQ(plan.bytes_written(), 16u + 1 + 1);
    EXPECT_EQ(*planned_bytes(plan, before), after_bytes);
}

TEST_P(EveryShape, AFileThatIsWrittenWhileItIsPlannedFromIsRefusedOrPlanned) {
    // As when one's own delivery, or an update, runs beside a plan: the map shows what is written at once.
    TempFolder folder;
    const auto file = folder / "t.zip";
    const auto whole = make_zip(three, GetParam().traits);
    std::mt19937 random(18);
    int stale = 0;
    for (int round = 0; round < 200; ++round) {
        put_file(file, whole);
        const auto view = FileView::open(file);
        ASSERT_TRUE(view);
        const auto zip = ZipContainer::open(*view, ReadLimits{});
        ASSERT_TRUE(zip);
        {
            std::fstream other(file, std::ios::in | std::ios::out | std::ios::binary);
            const auto noise = random_bytes(std::size_t(1 + random() % 90), unsigned(round));
            other.seekp(std::streamoff(random() % (whole.size() - noise.size())));
            other.write(reinterpret_cast<const char*>(noise.data()), std::streamsize(noise.size()));
        }
        const std::size_t entry = random() % 3;
        const std::vector<Replacement> replacements = {{entry, random_bytes(900, 7)}};
        for (const auto& plan : {(*zip)->plan(replacements, ReadLimits{}), (*zip)->plan_compact(ReadLimits{})})
            if (!plan) stale += plan.error().code == ErrorCode::stale;
        (void)(*zip)->patch_archive(replacements, ReadLimits{});
    }
    EXPECT_GT(stale, 0) << "no round met a record; the test says nothing";
}
