// A layout quite unlike the shipped crate, described only by its sheet: big-endian, offsets in sectors, a record with its own checksum over
// the stored bytes, names that end at a zero. Read, written and read again.
#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "base/deflate.h"
#include "base/hash.h"
#include "container/kinds.h"
#include "container/sheet_container.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

constexpr const char* sheet_text = R"(
sheet = "container"
name = "Sectors"
byte_order = "big"
[[recognize]]
bytes = "53 45 43 54"
[header]
fields = [
  { name = "magic", type = "bytes", size = 4 },
  { name = "count", type = "u16", means = "entry count" },
  { name = "table", type = "u16", unit = 512, means = "table offset" },
]
[record]
fields = [
  { name = "at", type = "u24", unit = 512, means = "data offset" },
  { name = "kind", type = "u8", means = "method", values = { 0x10 = "stored", 0x20 = "deflate" } },
  { name = "stored", type = "u32", means = "stored size" },
  { name = "full", type = "u32", means = "size" },
  { name = "sum", type = "u32", means = "data crc32", of = "stored" },
  { name = "name", type = "text", length = "until zero", means = "path" },
]
[data]
align = 512
fill = 255
)";

struct Sectors : testing::Test {
    ReadContext context;
    std::vector<ZipItem> items = {{"one", random_bytes(600, 1), false}, {"dir\\two", bytes_of(std::string(5000, 'z')), true}};

    void SetUp() override {
        context.containers.push_back(sheet_kind(std::make_shared<const Sheet>(*parse_sheet(sheet_text, "sectors.toml"))));
    }
    Bytes make() {
        Bytes file(512), table;
        const auto put = [&](Bytes& to, std::uint64_t value, unsigned width) {
            to.resize(to.size() + width);
            store_uint(to.data() + to.size() - width, value, width, ByteOrder::big);
        };
        for (const auto& item : items) {
            const auto stored = item.deflated ? deflate(item.data) : item.data;
            put(table, file.size() / 512, 3);
            put(table, item.deflated ? 0x20 : 0x10, 1);
            put(table, stored.size(), 4);
            put(table, item.data.size(), 4);
            put(table, crc32(stored), 4);
            for (char c : item.name) table.push_back(static_cast<std::byte>(c));
            table.push_back(std::byte{0});
            file.insert(file.end(), stored.begin(), stored.end());
            file.resize((file.size() + 511) / 512 * 512, std::byte{255});
        }
        Bytes header = bytes_of("SECT");
        put(header, items.size(), 2);
        put(header, file.size() / 512, 2);
        std::copy(header.begin(), header.end(), file.begin());
        file.insert(file.end(), table.begin(), table.end());
        return file;
    }
    std::shared_ptr<const Container> open(const Bytes& file) {
        auto opened = open_container(context, FileView::of(file, "a.bin"));
        EXPECT_TRUE(opened) << (opened ? "" : opened.error().message());
        return opened ? *opened : nullptr;
    }
};

}  // namespace

TEST_F(Sectors, IsReadByItsSheet) {
    const auto archive = open(make());
    ASSERT_EQ(archive->entries().size(), 2u);
    EXPECT_EQ(archive->entries()[1].path, "dir/two") << "back slashes become separators";
    for (std::size_t i = 0; i < 2; ++i) EXPECT_EQ(*archive->read(i, ReadLimits{}), items[i].data);
}

TEST_F(Sectors, IsWrittenByItsSheet) {
    const auto file = make();
    for (std::size_t size : {600u, 1024u, 10u, 5000u}) {
        const auto plan = *open(file)->plan(std::vector<Replacement>{{0, random_bytes(size, 9)}}, ReadLimits{});
        const auto after = *planned_bytes(plan.files[0], file);
        const auto archive = open(after);
        EXPECT_EQ(*archive->read(0, ReadLimits{}), random_bytes(size, 9)) << size;
        EXPECT_EQ(*archive->read(1, ReadLimits{}), items[1].data);
        EXPECT_EQ(archive->entries()[0].at % 512, 0u);
        EXPECT_EQ(plan.files[0].way, size <= 1024 ? Way::in_place : Way::append);
    }
}

TEST_F(Sectors, WhatIsLeftOfAShorterEntryIsFilled) {
    const auto file = make();
    const auto plan = *open(file)->plan(std::vector<Replacement>{{0, random_bytes(10, 9)}}, ReadLimits{});
    const auto after = *planned_bytes(plan.files[0], file);
    for (std::size_t i = 512 + 10; i < 1024; ++i) ASSERT_EQ(after[i], std::byte{255});
}

TEST_F(Sectors, AnUnnamedMethodIsRefusedAndTheRestWorks) {
    auto file = make();
    const auto table = load_uint(file.data() + 6, 2, ByteOrder::big) * 512;
    file[table + 3] = std::byte{0x30};
    const auto archive = open(file);
    const auto data = archive->read(0, ReadLimits{});
    ASSERT_FALSE(data);
    EXPECT_NE(data.error().message().find("field kind: the sheet has no name for 48"), std::string::npos) << data.error().message();
    EXPECT_FALSE(archive->plan(std::vector<Replacement>{{0, Bytes(4)}}, ReadLimits{}));
    EXPECT_EQ(*archive->read(1, ReadLimits{}), items[1].data) << "the other entry stays usable";
}
