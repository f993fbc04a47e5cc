// Archives whose places and sizes follow from the order of their entries, built here byte by byte. Whole ones by an independent program are
// in layouts_test.cpp.
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "container/address.h"
#include "container/sheet_container.h"
#include "container/sheet_try.h"
#include "support/pictures.h"
#include "support/places.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// A count and count + 1 offsets, nothing else: numbers of 2 and 4 bytes, little-endian.
Bytes ladder(const std::vector<Bytes>& entries) {
    ByteWriter out;
    out.le(static_cast<std::uint16_t>(entries.size()));
    auto at = 2 + 4 * (entries.size() + 1);
    for (const auto& e : entries) {
        out.le(static_cast<std::uint32_t>(at));
        at += e.size();
    }
    out.le(static_cast<std::uint32_t>(at));
    auto bytes = std::move(out.bytes);
    for (const auto& e : entries) bytes.insert(bytes.end(), e.begin(), e.end());
    return bytes;
}

struct Ordered : testing::Test {
    TempFolder folder;
    ReadContext context;
    void add(const std::string& toml) {
        put_file(folder / "s.toml", bytes_of(toml));
        const auto added = add_sheet(context, folder / "s.toml");
        ASSERT_TRUE(added) << added.error().message();
    }
    Result<std::shared_ptr<const Container>> open(Bytes bytes) { return open_container(context, FileView::of(std::move(bytes), "a.bin")); }
    Bytes changed(const Bytes& archive, std::size_t entry, Bytes content) {
        const auto opened = open(archive);
        EXPECT_TRUE(opened);
        const auto plan = (*opened)->plan(std::vector<Replacement>{{entry, std::move(content)}}, ReadLimits{});
        EXPECT_TRUE(plan) << (plan ? "" : plan.error().message());
        return plan ? *planned_bytes(plan->files.at(0), archive) : Bytes{};
    }
};

const std::string train = R"(sheet = "container"
name = "T"
[[recognize]]
text = "T"
[header]
fields = [ { name = "magic", type = "text", size = 2 } ]
[record]
count = "until end"
fields = [ { name = "name", type = "text", length = "u8", means = "path" }, { name = "n", type = "u8", means = "stored size" } ]
[data]
at = "behind record"
align = 4
)";

}  // namespace

TEST_F(Ordered, ArchivesOfTheSameKindInsideAreKnownByTheirTablesAlone) {
    ASSERT_TRUE(add_sheet(context, std::filesystem::path(layouts_folder) / "ladder.toml"));
    const auto inner = ladder({bytes_of("horse"), {}, random_bytes(500, 1)});
    const auto middle = ladder({inner, bytes_of("sign")});
    const auto outer = ladder({bytes_of("x"), middle});
    put_file(folder / "rides.bin", outer);
    const auto at = [&](const std::string& text) {
        return read_address(context, *parse_address((folder / "rides.bin").string() + "::" + text));
    };
    const auto found = at("0001::0000::0002");
    ASSERT_TRUE(found) << found.error().message();
    EXPECT_EQ(*found, random_bytes(500, 1));
    EXPECT_EQ(*at("0001::0000::0000"), bytes_of("horse"));
    EXPECT_EQ(at("0001::0000::0001")->size(), 0u);
    // Longer content moves what is behind it, and every offset behind it, in each of the archives around it.
    EXPECT_EQ(changed(inner, 0, bytes_of("longer than a horse")), ladder({bytes_of("longer than a horse"), {}, random_bytes(500, 1)}));
    EXPECT_EQ(changed(inner, 1, bytes_of("was empty")), ladder({bytes_of("horse"), bytes_of("was empty"), random_bytes(500, 1)}));
    EXPECT_EQ(changed(inner, 2, {}), ladder({bytes_of("horse"), {}, {}}));
}

TEST_F(Ordered, TablesThatDoNotExplainEverythingAreNotTakenForSome) {
    ASSERT_TRUE(add_sheet(context, std::filesystem::path(layouts_folder) / "ladder.toml"));
    const auto good = ladder({bytes_of("horse"), bytes_of("sign")});
    ASSERT_TRUE(open(good));
    EXPECT_EQ((*open(good))->recognized_by(), "its tables, which explain every byte");
    auto longer = good;
    longer.push_back(std::byte{1});
    EXPECT_FALSE(open(longer));
    auto falling = good;
    store_le<std::uint32_t>(falling.data() + 6, 3);
    EXPECT_FALSE(open(falling));
    EXPECT_FALSE(open(random_bytes(3000, 2)));
    EXPECT_FALSE(open(bytes_of("a text that is nothing but a text")));
}

TEST_F(Ordered, WhatStandsBetweenIsNotDropped) {
    add(train);
    auto archive =
        bytes_of(std::string_view("T.\1a\3AAA\1b\2BB", 13));  // the first record ends at 5, its data at 8, the next record is at 8
    const auto opened = open(archive);
    ASSERT_TRUE(opened) << opened.error().message();
    ASSERT_EQ((*opened)->entries().size(), 2u);
    EXPECT_EQ(changed(archive, 0, bytes_of("AAAA")), bytes_of(std::string_view("T.\1a\4AAAA\0\0\0\1b\2BB", 17)));
    // The same with bytes that nobody explained where padding should be.
    archive = bytes_of(std::string_view("T.\1a\2AA!\1b\2BB", 13));
    const auto odd = open(archive);
    ASSERT_TRUE(odd) << odd.error().message();
    EXPECT_TRUE((*odd)->plan(std::vector<Replacement>{{0, bytes_of("A2")}}, ReadLimits{})) << "the same length";
    for (const auto* content : {"AAA", "a lot longer", "A"}) {
        const auto plan = (*odd)->plan(std::vector<Replacement>{{0, bytes_of(content)}}, ReadLimits{});
        if (plan) {
            const auto bytes = *planned_bytes(plan->files.at(0), archive);
            EXPECT_EQ(bytes[7], std::byte{'!'}) << content;
            continue;
        }
        EXPECT_EQ(plan.error().code, ErrorCode::unsupported) << content;
        EXPECT_NE(plan.error().message().find("bytes the sheet does not explain"), std::string::npos) << plan.error().message();
    }
}

TEST_F(Ordered, NamesFromNumbersAndFields) {
    add(R"(sheet = "container"
name = "N"
[[recognize]]
text = "N"
[header]
fields = [ { name = "magic", type = "text", size = 1 } ]
[record]
counted = "u8"
path = "set{group}/{id:x6}-{number:2}.tex"
fields = [ { name = "id", type = "u16" }, { name = "group", type = "u8" }, { name = "n", type = "u8", means = "stored size" } ]
[data]
at = "after record"
)");
    const auto opened = open(bytes_of(std::string_view("N\2\xFE\xCA\3\1\1\0\4\2abc", 13)));
    ASSERT_TRUE(opened) << opened.error().message();
    EXPECT_EQ((*opened)->entries()[0].path, "set3/00cafe-00.tex");
    EXPECT_EQ((*opened)->entries()[1].path, "set4/000001-01.tex");
    EXPECT_EQ(*(*opened)->read(1, ReadLimits{}), bytes_of("bc"));
}

TEST_F(Ordered, SizesThatAreWrongAreSaid) {
    add(train);
    const auto cut = open(bytes_of(std::string_view("T.\1a\3AA", 7)));
    ASSERT_FALSE(cut);
    EXPECT_EQ(cut.error().message(), "a.bin ▸ sheet \"T\" ▸ directory ▸ entry 2: needs 3 bytes, has 2 (at byte 0x5)");
}

TEST_F(Ordered, WordsWithoutEffectAreRefused) {
    const std::string head =
        "sheet = \"container\"\nname = \"W\"\n[[recognize]]\ntext = \"W\"\n[header]\nfields = [ { name = \"m\", type = \"text\", size = 1 "
        "}, "
        "{ name = \"n\", type = \"u8\", means = \"entry count\" } ]\n[record]\n";
    const std::string fields =
        "fields = [ { name = \"p\", type = \"text\", size = 8, means = \"path\" }, { name = \"a\", type = \"u32\", means = \"data offset\" "
        "}, "
        "{ name = \"s\", type = \"u32\", means = \"stored size\" } ]\n";
    const auto says = [&](const std::string& toml) {
        const auto sheet = parse_sheet(toml, "w.toml");
        return sheet ? "sound" : sheet.error().message();
    };
    EXPECT_EQ(says(head + fields), "sound");
    const std::pair<std::string, std::string> wrong[] = {
        {head + fields + "[data]\nlevel = 9\n", "level and starts_as have no effect without a method"},
        {head + fields + "[names]\n", "[names] have no effect"},
        {head + fields + "[names]\nin_order = true\n", "[names] in_order: a field says the name, too"},
        {head + fields + "[hash]\nkind = \"crc32\"\n", "[hash] has no effect"},
        {head + fields + "[chunks]\nsize = 1024\n", "[chunks] have no effect without a method"},
        {head + fields + "[data]\nat = 9\n", "[data] at says where data begins, too"},
        {head + "ends = \"next offset\"\n" + fields, "a field means \"stored size\" and says where data ends"},
        {head + "counted = \"u8\"\ncount = 3\n" + fields, "count and until say it, too"},
        {head + "fields = [ { name = \"p\", type = \"u8\", length = \"u8\" } ]\n", "\"length\" has no effect on a field of the type u8"},
        {head + "fields = [ { name = \"p\", type = \"text\", size = 4, unit = 2 } ]\n",
         "\"unit\" has no effect on a field of the type text"},
        {head + "fields = [ { name = \"p\", type = \"u8\", means = \"width\" } ]\n",
         "the meaning \"width\" has no effect here; one of path, folder"},
        {head + "fields = [ { name = \"p\", type = \"u8\", kind = \"crc32\" } ]\n",
         "\"kind\" has no effect on a field that means no checksum"},
        {head + "fields = [ { name = \"p\", type = \"u8\", base = 4 } ]\n", "\"base\" has no effect on a field that means no offset"},
    };
    for (const auto& [toml, part] : wrong) EXPECT_NE(says(toml).find(part), std::string::npos) << says(toml) << "\n  instead of: " << part;
}

TEST_F(Ordered, AStreamWithoutAChunkIsReadAndNotWritten) {
    ASSERT_TRUE(add_sheet(context, std::filesystem::path(layouts_folder) / "bricks.toml"));
    ByteWriter out;
    out.put("BRIK");
    for (const std::uint32_t v : {1u, 60u, 0u, 2000u}) out.le(v);
    out.put("empty");
    out.bytes.resize(60);
    const auto opened = open(out.bytes);
    ASSERT_TRUE(opened) << opened.error().message();
    EXPECT_EQ((*opened)->read(0, ReadLimits{})->size(), 0u);
    const auto plan = (*opened)->plan(std::vector<Replacement>{{0, bytes_of("horse")}}, ReadLimits{});
    ASSERT_FALSE(plan);
    EXPECT_NE(plan.error().message().find("no chunk yet"), std::string::npos) << plan.error().message();
}

TEST_F(Ordered, NamesInTheOrderOfTheRecords) {
    // Three records, three names behind them, then their data.
    const std::string toml =
        "sheet = \"container\"\nname = \"Row\"\n[[recognize]]\ntext = \"R\"\n[header]\nfields = [ { name = \"m\", type = \"text\", size = "
        "1 "
        "}, { name = \"n\", type = \"u8\", means = \"entry count\" } ]\n[record]\nfields = [ { name = \"a\", type = \"u8\", means = \"data "
        "offset\" }, { name = \"s\", type = \"u8\", means = \"stored size\" } ]\n[names]\nin_order = true\n";
    auto sheet = parse_sheet(toml, "row.toml");
    ASSERT_TRUE(sheet) << sheet.error().message();
    using namespace std::string_literals;
    const auto file = FileView::of(bytes_of("R\x03\x15\x03\x18\x02\x1a\x01"
                                            "drum\0horn\0be\0abcdef"s),
                                   "a.row");
    const auto trial = try_sheet(ReadContext{}, std::make_shared<const Sheet>(std::move(*sheet)), file);
    ASSERT_TRUE(trial);
    EXPECT_FALSE(trial->first_wrong) << trial->first_wrong->message();
    EXPECT_EQ(trial->names, (std::vector<std::string>{"drum", "horn", "be"}));
    EXPECT_EQ(trial->unexplained, 0u) << "where the names end follows from the last one";
    // One name fewer than records.
    const auto fewer = FileView::of(bytes_of("R\x03\x0d\x01\x0d\x01\x0d\x01"
                                             "drum\0"s),
                                    "a.row");
    auto again = parse_sheet(toml, "row.toml");
    const auto short_one = try_sheet(ReadContext{}, std::make_shared<const Sheet>(std::move(*again)), fewer);
    ASSERT_TRUE(short_one);
    ASSERT_TRUE(short_one->first_wrong);
}
