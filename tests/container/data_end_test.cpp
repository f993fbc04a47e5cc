// Records that say where an entry ends instead of how long it is: the first byte behind it, or its last one.
#include <gtest/gtest.h>
#include <string>

#include "container/container.h"
#include "container/draft_sheet.h"
#include "container/sheet_container.h"
#include "container/sheet_try.h"
#include "support/pictures.h"
#include "support/places.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// A count of two bytes, records of a name of 8 bytes, a first and a last (or the next) byte, then the data.
Bytes fence(const std::vector<std::pair<std::string, Bytes>>& entries, std::uint32_t behind) {
    ByteWriter out;
    out.put("FN");
    out.le(static_cast<std::uint16_t>(entries.size()));
    std::size_t at = 4 + 16 * entries.size();
    for (const auto& [name, data] : entries) {
        auto field = name;
        field.resize(8);
        out.put(field);
        out.le(static_cast<std::uint32_t>(at));
        out.le(static_cast<std::uint32_t>(at + data.size() - 1 + behind));
        at += data.size();
    }
    auto bytes = std::move(out.bytes);
    for (const auto& [name, data] : entries) bytes.insert(bytes.end(), data.begin(), data.end());
    return bytes;
}

std::string sheet_of(const std::string& end, const std::string& more = {}) {
    return R"(sheet = "container"
name = "Fence"
[[recognize]]
text = "FN"
[header]
fields = [ { name = "magic", type = "text", size = 2 }, { name = "entries", type = "u16", means = "entry count" } ]
[record]
)" + more + R"(fields = [
  { name = "path", type = "text", size = 8, means = "path" },
  { name = "from", type = "u32", means = "data offset" },
  )" + end +
           R"(
]
)";
}
constexpr const char* behind_it = R"({ name = "to", type = "u32", means = "data end" },)";
constexpr const char* last_byte = R"({ name = "to", type = "u32", means = "data end", add = 1 },)";

struct DataEnd : testing::TestWithParam<bool> {
    ReadContext context;
    std::uint32_t behind() const { return GetParam() ? 1 : 0; }
    void SetUp() override {
        auto sheet = parse_sheet(sheet_of(GetParam() ? behind_it : last_byte), "fence.toml");
        ASSERT_TRUE(sheet) << sheet.error().message();
        context.containers.push_back(sheet_kind(std::make_shared<const Sheet>(std::move(*sheet))));
    }
    Result<std::shared_ptr<const Container>> open(const Bytes& file) { return open_container(context, FileView::of(file, "a.fence")); }
    /// Bytes of the fields of an entry: where it begins, and what its end says.
    static std::pair<std::uint64_t, std::uint64_t> fields(const Bytes& file, std::size_t entry) {
        const auto at = file.data() + 4 + 16 * entry + 8;
        return {load_uint(at, 4, ByteOrder::little), load_uint(at + 4, 4, ByteOrder::little)};
    }
};

}  // namespace

TEST_P(DataEnd, IsReadAndFollowsWhatIsWritten) {
    const auto horse = random_bytes(40, 1), tent = random_bytes(25, 2), lamp = random_bytes(31, 3);
    const auto file = fence({{"horse", horse}, {"tent", tent}, {"lamp", lamp}}, behind());
    const auto archive = *open(file);
    ASSERT_EQ(archive->entries().size(), 3u);
    EXPECT_EQ(*archive->read(1, ReadLimits{}), tent);
    for (const std::size_t size : {10, 25, 300}) {
        const auto fresh = random_bytes(size, 9);
        const auto plan = archive->plan(std::vector<Replacement>{{1, fresh}}, ReadLimits{});
        ASSERT_TRUE(plan) << plan.error().message();
        const auto after = *planned_bytes(plan->files[0], file);
        const auto [from, to] = fields(after, 1);
        EXPECT_EQ(to + 1 - behind() - from, size);
        const auto again = *open(after);
        EXPECT_EQ(*again->read(0, ReadLimits{}), horse);
        EXPECT_EQ(*again->read(1, ReadLimits{}), fresh);
        EXPECT_EQ(*again->read(2, ReadLimits{}), lamp);
    }
}

TEST_P(DataEnd, OtherEntriesThatMoveKeepTheirLength) {
    std::vector<std::pair<std::string, Bytes>> entries;
    for (unsigned i = 0; i < 6; ++i) entries.emplace_back("e" + std::to_string(i), random_bytes(20 + i, i));
    const auto file = fence(entries, behind());
    const auto archive = *open(file);
    Changes changes;
    changes.added.push_back({"fresh", random_bytes(77, 8), 0});
    changes.renamed.push_back({2, "other"});
    changes.removed.push_back(4);
    const auto plan = archive->plan_changes(changes, ReadLimits{});
    ASSERT_TRUE(plan) << plan.error().message();
    const auto after = *open(*planned_bytes(plan->files[0], file));
    ASSERT_EQ(after->entries().size(), 6u);
    EXPECT_EQ(*after->read(*after->find("fresh"), ReadLimits{}), random_bytes(77, 8));
    EXPECT_EQ(*after->read(*after->find("other"), ReadLimits{}), entries[2].second);
    for (const unsigned i : {0u, 1u, 3u, 5u}) EXPECT_EQ(*after->read(*after->find(entries[i].first), ReadLimits{}), entries[i].second);
    EXPECT_FALSE(after->find("e4"));
}

// A new entry begins as its example's record does, with its data; none of it may be blanked.
TEST_P(DataEnd, AnEmptyEntryLeavesItsExampleAsItIs) {
    const auto horse = random_bytes(40, 1), tent = random_bytes(25, 2);
    const auto file = fence({{"horse", horse}, {"tent", tent}}, behind());
    for (const std::size_t like : {0, 1}) {
        Changes changes;
        changes.added.push_back({"fresh", {}, like});
        const auto plan = (*open(file))->plan_changes(changes, ReadLimits{});
        ASSERT_TRUE(plan) << plan.error().message();
        const auto after = *open(*planned_bytes(plan->files[0], file));
        EXPECT_EQ(*after->read(*after->find("horse"), ReadLimits{}), horse);
        EXPECT_EQ(*after->read(*after->find("tent"), ReadLimits{}), tent);
        EXPECT_EQ(after->read(*after->find("fresh"), ReadLimits{})->size(), 0u);
    }
}

TEST_P(DataEnd, WhatTwoEntriesShareStaysWhereOneBecomesEmpty) {
    const auto horse = random_bytes(40, 1);
    auto file = fence({{"horse", horse}, {"twin", Bytes(3)}}, behind());
    std::copy_n(file.begin() + 12, 8, file.begin() + 28);  // the same place
    const auto plan = (*open(file))->plan(std::vector<Replacement>{{1, Bytes()}}, ReadLimits{});
    ASSERT_TRUE(plan) << plan.error().message();
    const auto after = *open(*planned_bytes(plan->files[0], file));
    EXPECT_EQ(*after->read(0, ReadLimits{}), horse);
    EXPECT_EQ(after->read(1, ReadLimits{})->size(), 0u);
}

TEST_P(DataEnd, AnEndInFrontOfItsBeginningIsSaid) {
    auto file = fence({{"horse", Bytes(40)}, {"tent", Bytes(25)}}, behind());
    store_uint(file.data() + 4 + 16 + 12, 3, 4, ByteOrder::little);
    const auto opened = open(file);
    ASSERT_FALSE(opened);
    EXPECT_EQ(opened.error().message(), "a.fence ▸ sheet \"Fence\" ▸ directory ▸ entry 2: is said to begin at 76 and to end at " +
                                            std::to_string(4 - behind()) + " (at byte 0x20)");
}

TEST_P(DataEnd, IsFoundByDrafting) {
    std::vector<std::pair<std::string, Bytes>> entries;
    for (unsigned i = 0; i < 12; ++i) entries.emplace_back("horse" + std::to_string(i), random_bytes(50 + 13 * i, i));
    const auto draft = draft_sheet(ReadContext{}, FileView::of(fence(entries, behind()), "a.fence"), Progress{});
    ASSERT_TRUE(draft) << draft.error().message();
    EXPECT_EQ(draft->unsound, "");
    EXPECT_NE(draft->toml.find(GetParam() ? "means = \"data end\" }" : "means = \"data end\", add = 1 }"), std::string::npos)
        << draft->toml;
}

INSTANTIATE_TEST_SUITE_P(Both, DataEnd, testing::Bool(), [](const auto& one) { return one.param ? "TheByteBehind" : "TheLastByte"; });

TEST(DataEndSheets, WhatContradictsIsRefused) {
    const auto says = [](const std::string& toml) {
        const auto sheet = parse_sheet(toml, "f.toml");
        return sheet ? std::string("sound") : sheet.error().message();
    };
    EXPECT_EQ(says(sheet_of(behind_it)), "sound");
    EXPECT_NE(says(sheet_of(std::string(behind_it) + R"({ name = "n", type = "u32", means = "stored size" },)"))
                  .find("a field means \"stored size\"; where data ends follows from it"),
              std::string::npos);
    EXPECT_NE(says(sheet_of(behind_it, "ends = \"next offset\"\n")).find("a field means \"data end\" and says where data ends"),
              std::string::npos);
    auto without = sheet_of(behind_it);
    without.replace(without.find(", means = \"data offset\""), 23, "");
    EXPECT_NE(says(without + "[data]\nat = \"after record\"\n").find("a field has to mean \"data offset\""), std::string::npos)
        << says(without);
    EXPECT_NE(says(sheet_of(R"({ name = "to", type = "u32", means = "data end", base = 4 },)")).find("\"base\" has no effect"),
              std::string::npos);
}

// All entries are padded, so both readings fit: that is said instead of guessed.
TEST(DataEndSheets, WhatCannotBeToldApartIsNotCalledSound) {
    ByteWriter out;
    out.put("FN");
    out.le(std::uint16_t{12});
    Bytes data;
    std::size_t at = 4 + 12 * 16;
    at += (8 - at % 8) % 8;
    const auto start = at;
    for (unsigned i = 0; i < 12; ++i) {
        const auto content = random_bytes(50 + 8 * i + i % 3, i);
        auto name = "horse" + std::to_string(i);
        name.resize(8);
        out.put(name);
        out.le(static_cast<std::uint32_t>(at));
        out.le(static_cast<std::uint32_t>(at + content.size()));
        data.insert(data.end(), content.begin(), content.end());
        data.resize((data.size() + 7) / 8 * 8);
        at = start + data.size();
    }
    auto file = std::move(out.bytes);
    file.resize(start);
    file.insert(file.end(), data.begin(), data.end());
    const auto draft = draft_sheet(ReadContext{}, FileView::of(file, "a.fence"), Progress{});
    ASSERT_TRUE(draft) << draft.error().message();
    EXPECT_TRUE(draft->unsound.find("an entry's last byte or the one behind it") != std::string::npos ||
                draft->unsound.find("looks like sizes or ends") != std::string::npos)
        << draft->unsound << draft->toml;
}
