// Archives made to harm: each gives an error that says what is wrong, or content, and never a crash, a file outside or memory without end.
#include <gtest/gtest.h>

#include <sys/resource.h>
#include <filesystem>
#include <string>
#include <vector>

#include "base/pack.h"
#include "catalog/catalog.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

Result<std::shared_ptr<const Container>> open(const Bytes& bytes, const char* name = "x.zip") {
    return open_container(ReadContext{}, FileView::of(bytes, name));
}

/// Memory the process has needed at most so far, in megabytes.
long peak_megabytes() {
    rusage usage{};
    ::getrusage(RUSAGE_SELF, &usage);
    return usage.ru_maxrss / 1024;
}

}  // namespace

TEST(Hostile, PathsThatClimbStayInsideWhenExported) {
    TempFolder folder;
    const auto texture = make_dds(Format::BC1, 16, 16);
    const std::vector<std::string> names = {"../../up.dds",
                                            "/etc/root.dds",
                                            "C:\\drive.dds",
                                            "a/../../b.dds",
                                            std::string("nul\0l.dds", 9),
                                            "..\\..\\back.dds",
                                            "ok.dds",
                                            "OK.dds",
                                            ".",
                                            ""};
    std::vector<ZipItem> items;
    for (const auto& name : names) items.push_back({name, texture});
    put_file(folder / "bad.zip", make_zip(items));
    const auto ran = run_cli({"export", (folder / "bad.zip").string(), "--to", (folder / "deep/out").string(), "--as", "dds"});
    EXPECT_LE(ran.code, 1) << ran.err;
    std::size_t inside = 0;
    for (const auto& item : std::filesystem::recursive_directory_iterator(folder.path())) {
        if (!item.is_regular_file() || item.path().filename() == "bad.zip") continue;
        EXPECT_TRUE(item.path().string().starts_with((folder / "deep/out").string())) << item.path();
        ++inside;
    }
    EXPECT_GE(inside, 7u);
    EXPECT_FALSE(std::filesystem::exists("/etc/root.dds"));
}

TEST(Hostile, AnArchiveAHundredDeepStopsAtTheLimit) {
    auto bytes = make_zip({{"horse.dds", make_dds(Format::BC1, 16, 16)}});
    std::string address = "horse.dds";
    for (int depth = 0; depth < 100; ++depth) {
        bytes = make_zip({{"in.zip", bytes, true}});
        address = "in.zip::" + address;
    }
    TempFolder folder;
    put_file(folder / "deep.zip", bytes);
    const auto read = read_address(ReadContext{}, *parse_address((folder / "deep.zip").string() + "::" + address));
    ASSERT_FALSE(read);
    EXPECT_EQ(read.error().code, ErrorCode::limit);
    EXPECT_NE(read.error().message().find("archives more than 8 deep"), std::string::npos) << read.error().message();
    const std::vector<std::filesystem::path> paths = {folder / "deep.zip"};
    const ReadContext context;
    const auto sources = open_sources(context, paths);
    Progress progress;
    const auto catalog = build_catalog(context, sources, progress);
    ASSERT_TRUE(catalog);
    EXPECT_LE(catalog->items.size(), 10u);
}

TEST(Hostile, ArchivesThatHoldThemselvesManyTimesEnd) {
    auto bytes = make_zip({{"x", random_bytes(10, 1)}});
    for (int depth = 0; depth < 7; ++depth) {
        std::vector<ZipItem> copies;
        for (int i = 0; i < 16; ++i) copies.push_back({"copy" + std::to_string(i) + ".zip", bytes, true});
        bytes = make_zip(copies);
    }
    ReadContext context;
    context.limits.entries = 2000;  // 16^7 is 268 million
    TempFolder folder;
    put_file(folder / "many.zip", bytes);
    const std::vector<std::filesystem::path> paths = {folder / "many.zip"};
    const auto sources = open_sources(context, paths);
    Progress progress;
    const auto catalog = build_catalog(context, sources, progress);
    ASSERT_TRUE(catalog);
    EXPECT_LT(catalog->items.size(), 200'000u);
    EXPECT_FALSE(catalog->problems.empty());
}

TEST(Hostile, AFewMegabytesCannotClaimTerabytes) {
    // A ZIP64 size of 10 TB beside 10 MB.
    auto zip = make_zip({{"bomb", random_bytes(10'000'000, 1)}}, {.zip64 = true});
    const auto directory = as_text(zip).find("PK\x01\x02");
    store_le(zip.data() + directory + 46 + 4 + 4, std::uint64_t{10} << 40);
    const auto opened = open(zip);
    ASSERT_TRUE(opened) << opened.error().message();
    const auto read = (*opened)->read(0, ReadLimits{});
    ASSERT_FALSE(read);
    EXPECT_TRUE(read.error().code == ErrorCode::limit || read.error().code == ErrorCode::damaged) << read.error().message();
    // Streams of nothing but zeros.
    const Bytes zeros(120u << 20);
    for (const auto packing : {Packing::gzip, Packing::zstd, Packing::xz, Packing::bzip2, Packing::lz4_frame}) {
        const auto packed = *pack(packing, zeros, 1);
        const auto bomb = open(packed, "bomb");
        if (packing == Packing::lz4_frame) continue;  // 255:1 at most; 120 MB from half a megabyte are believable
        ASSERT_FALSE(bomb) << name_of(packing);
        EXPECT_EQ(bomb.error().code, ErrorCode::limit) << bomb.error().message();
    }
    EXPECT_LT(peak_megabytes(), 1500) << "the test's own zeros and archives included";
}

TEST(Hostile, TablesOfFourBillionRecordsAreRefusedBeforeMemoryIsTaken) {
    TempFolder folder;
    const auto before = peak_megabytes();
    for (const std::string name : {"bins", "ledger", "rows", "chunky", "cipher", "index", "flags", "parade"}) {
        ASSERT_EQ(run_program({"python3", std::string(layouts_folder) + "/layouts.py", "write", name, folder.path().string(), "2"}).code,
                  0);
        ReadContext context;
        ASSERT_TRUE(add_sheet(context, std::string(layouts_folder) + "/" + name + ".toml"));
        auto ring = std::make_shared<KeyRing>();
        ring->add({"booth", Bytes(16)});
        context.keys = ring;
        for (const auto& item : std::filesystem::directory_iterator(folder.path())) {
            const auto file = item.path();
            if (!item.is_regular_file() || file.stem() != "game" || file.extension() == ".dat") continue;
            auto bytes = get_file(file);
            for (std::size_t at = 4; at < 8; ++at) bytes[at] = std::byte{0xFF};  // every one of them counts there, first of all
            put_file(file, bytes);
            const auto opened = open_source(context, file);
            EXPECT_FALSE(opened) << name;
            std::filesystem::remove(file);
        }
    }
    EXPECT_LT(peak_megabytes() - before, 300);
}

TEST(Hostile, OverlappingEntriesAreReadAndWrittenApart) {
    // Two directory records for one local header, and one that begins inside another's data.
    auto zip = make_zip({{"aa", random_bytes(300, 1)}, {"bb", random_bytes(300, 2)}});
    const auto directory = as_text(zip).find("PK\x01\x02");
    const auto second = as_text(zip).find("PK\x01\x02", directory + 4);
    store_le(zip.data() + second + 42, std::uint32_t{0});
    const auto opened = open(zip);
    ASSERT_TRUE(opened);
    EXPECT_TRUE((*opened)->read(0, ReadLimits{}));
    const auto plan = (*opened)->plan(std::vector<Replacement>{{0, random_bytes(300, 9)}}, ReadLimits{});
    ASSERT_TRUE(plan);
    EXPECT_EQ(plan->way(), Way::append) << "the bytes are the other entry's as well";
    const auto after = open(*planned_bytes(plan->files[0], zip));
    ASSERT_TRUE(after);
    EXPECT_EQ(*(*after)->read(0, ReadLimits{}), random_bytes(300, 9));
}

TEST(Hostile, ACpioNameOfGigabytesIsRefusedBeforeMemoryIsTaken) {
    // Found by fuzzing: the library takes as much as the name claims.
    std::string text = "070701";
    for (int field = 0; field < 13; ++field) text += field == 11 ? "DDDDDDDD" : "00000000";
    text += "a.txt";
    text.resize(400, '\0');
    const auto opened = open_container(ReadContext{}, FileView::of(Bytes(as_bytes(text).begin(), as_bytes(text).end()), "x.cpio"));
    ASSERT_FALSE(opened);
    EXPECT_EQ(opened.error().code, ErrorCode::damaged);
    EXPECT_NE(opened.error().message().find("3,722,304,989"), std::string::npos) << opened.error().message();
}
