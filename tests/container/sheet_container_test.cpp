#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "base/hash.h"
#include "container/kinds.h"
#include "support/pictures.h"
#include "support/places.h"

using namespace skivet;
using namespace skivet::test;

namespace {

const std::vector<ZipItem> items = {{"a/one.pnl", random_bytes(100, 1), false},
                                    {"a/two.txt", bytes_of(std::string(400, 'q')), true},
                                    {"three.bin", random_bytes(64, 2), false}};

ReadContext with_sheets() {
    ReadContext context;
    EXPECT_TRUE(add_sheets_in(context, sheets_folder).empty());
    return context;
}

std::shared_ptr<const Container> open(const Bytes& file) {
    auto opened = open_container(with_sheets(), FileView::of(file, "t.crate"));
    EXPECT_TRUE(opened) << (opened ? "" : opened.error().message());
    return opened ? *opened : nullptr;
}

Bytes after(const Bytes& file, std::vector<Replacement> replacements, Way* way = nullptr) {
    const auto plan = open(file)->plan(replacements, ReadLimits{});
    EXPECT_TRUE(plan) << (plan ? "" : plan.error().message());
    if (way) *way = plan->files.empty() ? Way::nothing : plan->files[0].way;
    return plan->files.empty() ? file : *planned_bytes(plan->files[0], file);
}

}  // namespace

TEST(SheetContainer, ListsAndReads) {
    const auto crate = open(make_crate(items));
    EXPECT_EQ(crate->kind(), "Fair crate");
    EXPECT_EQ(crate->recognized_by(), "8 bytes at 0, its size field");
    ASSERT_EQ(crate->entries().size(), 3u);
    for (std::size_t i = 0; i < 3; ++i) EXPECT_EQ(*crate->read(i, ReadLimits{}), items[i].data);
    EXPECT_EQ(crate->entries()[1].method, "deflate");
}

TEST(SheetContainer, WritesBackInPlaceWhereItFits) {
    const auto file = make_crate(items);
    EXPECT_EQ(after(file, {{0, items[0].data}}), file);
    Way way{};
    for (std::size_t size : {100u, 112u, 40u}) {  // 112: up to the next entry
        const auto out = after(file, {{0, random_bytes(size, 7)}}, &way);
        EXPECT_EQ(way, Way::in_place) << size;
        EXPECT_EQ(out.size(), file.size());
        EXPECT_EQ(*open(out)->read(0, ReadLimits{}), random_bytes(size, 7));
        EXPECT_EQ(*open(out)->read(1, ReadLimits{}), items[1].data);
    }
}

TEST(SheetContainer, MovesToTheEndWhereItDoesNot) {
    const auto file = make_crate(items);
    Way way{};
    const auto out = after(file, {{0, random_bytes(113, 7)}, {2, random_bytes(5000, 8)}}, &way);
    EXPECT_EQ(way, Way::append);
    const auto crate = open(out);
    ASSERT_TRUE(crate) << "the size field and the directory's checksum followed";
    EXPECT_EQ(*crate->read(0, ReadLimits{}), random_bytes(113, 7));
    EXPECT_EQ(*crate->read(1, ReadLimits{}), items[1].data);
    EXPECT_EQ(*crate->read(2, ReadLimits{}), random_bytes(5000, 8));
    EXPECT_EQ(crate->entries()[0].at % 16, 0u);
}

TEST(SheetContainer, TheLastEntryGrowsInItsPlace) {
    auto file = after(make_crate(items), {{0, random_bytes(600, 1)}});
    const auto size = file.size();
    for (unsigned seed = 2; seed < 6; ++seed) file = after(file, {{0, random_bytes(600 + seed, seed)}});
    EXPECT_EQ(file.size(), size) << "five bytes more fit before the directory, which begins at a multiple of 16";
}

TEST(SheetContainer, FieldsNobodyGaveAMeaningStay) {
    const auto out = after(make_crate(items), {{1, bytes_of("short now")}});
    EXPECT_EQ(load_le<std::uint32_t>(out.data() + 12), 77u) << "season";
    EXPECT_EQ(static_cast<int>(out[load_le<std::uint64_t>(out.data() + 16) + 2 + 9 + 1]), 7) << "flags";
}

TEST(SheetContainer, EntriesThatShareDataDoNotChangeTogether) {
    auto file = make_crate({{"a", random_bytes(64, 1)}, {"b", random_bytes(64, 1)}});
    const auto table = load_le<std::uint64_t>(file.data() + 16);
    store_le(file.data() + table + 21 + 5, load_le<std::uint32_t>(file.data() + table + 5));  // b points to a's data
    store_le(file.data() + 28, crc32(ByteSpan(file).subspan(table)));
    const auto out = after(file, {{0, random_bytes(64, 2)}});
    EXPECT_EQ(*open(out)->read(0, ReadLimits{}), random_bytes(64, 2));
    EXPECT_EQ(*open(out)->read(1, ReadLimits{}), random_bytes(64, 1));
}

TEST(SheetContainer, DamageIsNamed) {
    auto file = make_crate(items);
    file.back() ^= std::byte{1};
    const auto opened = open_container(with_sheets(), FileView::of(file, "t.crate"));
    ASSERT_FALSE(opened);
    EXPECT_NE(opened.error().message().find("t.crate ▸ sheet \"Fair crate\": directory: CRC-32 is"), std::string::npos)
        << opened.error().message();
    file = make_crate(items);
    file[50] ^= std::byte{1};
    const auto data = open(file)->read(0, ReadLimits{});
    ASSERT_FALSE(data);
    EXPECT_NE(data.error().message().find("a/one.pnl: CRC-32"), std::string::npos);
}

TEST(SheetContainer, RandomDamageNeverCrashes) {
    const auto good = make_crate(items);
    const auto context = with_sheets();
    for (unsigned seed = 0; seed < 3000; ++seed) {
        auto file = good;
        std::mt19937 random(seed);
        for (int k = 0; k < 3; ++k) file[8 + random() % (file.size() - 8)] = static_cast<std::byte>(random());
        store_le(file.data() + 32, std::uint64_t{file.size()});
        if (seed % 2) {  // with a checksum that holds, so that the records are looked at
            const auto at = load_le<std::uint64_t>(file.data() + 16);
            if (at <= file.size()) store_le(file.data() + 28, crc32(ByteSpan(file).subspan(at)));
        }
        const auto opened = open_container(context, FileView::of(file, "t.crate"));
        if (!opened) continue;
        for (std::size_t i = 0; i < (*opened)->entries().size(); ++i) {
            (void)(*opened)->read(i, context.limits);
            (void)(*opened)->plan(std::vector<Replacement>{{i, Bytes(300)}}, context.limits);
        }
    }
}

TEST(SheetContainer, SegmentsCoverTheFile) {
    const auto file = make_crate(items);
    std::uint64_t at = 0;
    for (const auto& s : open(file)->segments()) {
        EXPECT_EQ(s.at, at);
        at += s.size;
    }
    EXPECT_EQ(at, file.size());
}
