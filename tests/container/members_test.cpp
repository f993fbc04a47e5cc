// Archives without a table: what is cut off at their end comes back, and only what has to move is written anew.
#include <gtest/gtest.h>

#include <algorithm>
#include <string>
#include <vector>

#include "container/address.h"
#include "support/pictures.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

using What = AddressedChange::What;

/// A file as it is after a plan for it.
Bytes after(const WritePlan& plan, const std::filesystem::path& file) {
    EXPECT_EQ(plan.files.size(), 1u);
    return *planned_bytes(plan.files.front(), get_file(file));
}

}  // namespace

TEST(Members, ATarWithoutItsLastPaddingGetsIt) {
    const TempFolder folder;
    put_file(folder / "in/one", random_bytes(500, 1));
    put_file(folder / "in/two", random_bytes(700, 2));
    ASSERT_EQ(run_program({"tar", "-cf", "../a.tar", "one", "two"}, (folder / "in").string()).code, 0);
    const auto file = folder / "a.tar";
    auto bytes = get_file(file);
    bytes.resize(512 + 512 + 512 + 700);  // headers and contents; what pads the last and the end of the archive are missing
    put_file(file, bytes);
    const ReadContext context;
    const auto fresh = random_bytes(90, 3), painted = random_bytes(650, 4);
    const auto tar = *open_source(context, file);
    const std::vector<std::vector<AddressedChange>> all = {
        {{What::add, {"three"}, fresh}},
        {{What::add, {"three"}, fresh}, {What::replace, {"two"}, painted}},
        {{What::add, {"three"}, fresh}, {What::replace, {"one"}, random_bytes(1500, 5)}},
        {{What::add, {"three"}, fresh}, {What::remove, {"two"}}},
        {{What::add, {"three"}, fresh}, {What::rename, {"two"}, {}, "four"}},
    };
    for (const auto& changes : all) {
        const auto plan = plan_changes(context, *tar, changes);
        ASSERT_TRUE(plan) << plan.error().message();
        put_file(folder / "b.tar", after(*plan, file));
        const auto checked = check_changes(context, **open_source(context, folder / "b.tar"), changes);
        EXPECT_TRUE(checked) << checked.error().message();
        const auto listed = run_program({"bsdtar", "-tf", (folder / "b.tar").string()});
        EXPECT_EQ(listed.code, 0) << listed.output;
        EXPECT_EQ(std::count(listed.output.begin(), listed.output.end(), '\n'), changes.back().what == What::remove ? 2 : 3);
    }
}

TEST(Members, OfAnArchiveInOrderOnlyTheEndIsWrittenAnew) {
    const TempFolder folder;
    for (int i = 0; i < 40; ++i) put_file(folder / ("in/f" + std::to_string(10 + i)), random_bytes(5000, static_cast<unsigned>(i)));
    ASSERT_EQ(run_program({"sh", "-c", "tar -cf ../a.tar f* && ls | cpio -o --quiet -H newc -O ../a.cpio"}, (folder / "in").string()).code,
              0);
    const ReadContext context;
    for (const auto* name : {"a.tar", "a.cpio"}) {
        const auto file = folder / name;
        const auto archive = *open_source(context, file);
        const auto planned = [&](const char* entry, std::size_t size) {
            return *archive->plan(std::vector<Replacement>{{*archive->find(entry), random_bytes(size, 90)}}, context.limits);
        };
        EXPECT_EQ(planned("f10", 7000).way(), Way::rebuild) << "all others move";
        for (const auto size : {7000u, 100u, 0u}) {
            const auto plan = planned("f48", size);
            EXPECT_NE(plan.way(), Way::rebuild);
            EXPECT_LT(plan.bytes_written(), 26'000u) << "what comes behind it";
            put_file(folder / "b", after(plan, file));
            const auto changed = *open_source(context, folder / "b");
            EXPECT_TRUE(changed->problems().empty());
            for (std::size_t i = 0; i < 40; ++i)
                EXPECT_EQ(*changed->read(i, context.limits),
                          i == 38 ? random_bytes(size, 90) : random_bytes(5000, static_cast<unsigned>(i)));
        }
    }
}

// An empty entry's content and the header behind it begin at the same byte.
TEST(Members, AnEmptyEntryIsFilledWhicheverIsNamedFirst) {
    const TempFolder folder;
    put_file(folder / "in/a", {});
    put_file(folder / "in/b", random_bytes(700, 2));
    put_file(folder / "in/c", {});
    ASSERT_EQ(
        run_program({"sh", "-c", "tar -cf ../a.tar a b c && ls | cpio -o --quiet -H newc -O ../a.cpio"}, (folder / "in").string()).code, 0);
    const ReadContext context;
    const auto first = random_bytes(1500, 3), second = random_bytes(90, 4), third = random_bytes(600, 5);
    for (const auto* name : {"a.tar", "a.cpio"}) {
        const auto file = folder / name;
        const auto archive = *open_source(context, file);
        const auto a = *archive->find("a"), b = *archive->find("b"), c = *archive->find("c");
        for (const auto& order : {std::vector<Replacement>{{a, first}, {b, second}, {c, third}},
                                  std::vector<Replacement>{{c, third}, {b, second}, {a, first}}}) {
            const auto plan = archive->plan_changes({order, {{"d", second, b}}, {}, {}}, context.limits);
            ASSERT_TRUE(plan) << plan.error().message();
            put_file(folder / "b", after(*plan, file));
            const auto changed = *open_source(context, folder / "b");
            ASSERT_EQ(changed->entries().size(), 4u) << name;
            EXPECT_EQ(*changed->read(a, context.limits), first) << name;
            EXPECT_EQ(*changed->read(b, context.limits), second) << name;
            EXPECT_EQ(*changed->read(c, context.limits), third) << name;
            EXPECT_EQ(*changed->read(3, context.limits), second) << name;
        }
    }
}
