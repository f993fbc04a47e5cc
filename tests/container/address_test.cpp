#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "container/address.h"
#include "container/folder.h"
#include "support/pictures.h"
#include "support/places.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Nested : testing::Test {
    TempFolder folder;
    ReadContext context;
    Bytes inner = random_bytes(200, 1), other = bytes_of("untouched");
    std::string path;

    void SetUp() override {
        ASSERT_TRUE(add_sheets_in(context, sheets_folder).empty());
        const auto crate = make_crate({{"deep/tex.pnl", inner, true}, {"other", other}});
        const auto middle = make_zip({{"x.crate", crate, true}, {"y", bytes_of("y")}});
        path = (folder / "outer.zip").string();
        put_file(path, make_zip({{"pad", random_bytes(5000, 3)}, {"middle.zip", middle, false}}));
    }
};

}  // namespace

TEST(Address, ParsesSteps) {
    const auto address = parse_address("a/b.zip::c/d.crate::e.dds");
    ASSERT_TRUE(address);
    EXPECT_EQ(address->source, "a/b.zip");
    EXPECT_EQ(address->inner, (std::vector<std::string>{"c/d.crate", "e.dds"}));
    EXPECT_EQ(address->text(), "a/b.zip::c/d.crate::e.dds");
    EXPECT_TRUE(parse_address("plain.dds")->inner.empty());
    EXPECT_EQ(parse_address("a.zip::").error().code, ErrorCode::usage);
    EXPECT_FALSE(parse_address("::x"));
}

TEST_F(Nested, ReadsAtAnyDepth) {
    EXPECT_EQ(*read_address(context, *parse_address(path + "::middle.zip::x.crate::deep/tex.pnl")), inner);
    const auto missing = read_address(context, *parse_address(path + "::middle.zip::x.crate::nothing"));
    ASSERT_FALSE(missing);
    EXPECT_EQ(missing.error().code, ErrorCode::missing);
    EXPECT_EQ(missing.error().message(),
              "outer.zip ▸ middle.zip ▸ x.crate: there is no entry \"nothing\". skivet-cli list shows what is inside");
}

TEST_F(Nested, OneStepReplacesThroughAllLevels) {
    const auto before = get_file(path);
    const auto address = *parse_address(path + "::middle.zip::x.crate::deep/tex.pnl");
    EXPECT_TRUE(plan_replacement(context, address, inner)->empty()) << "identity writes nothing at any depth";
    const auto plan = plan_replacement(context, address, random_bytes(333, 5));
    ASSERT_TRUE(plan) << plan.error().message();
    ASSERT_EQ(plan->files.size(), 1u);
    put_file(path, *planned_bytes(plan->files[0], before));
    EXPECT_EQ(*read_address(context, address), random_bytes(333, 5));
    EXPECT_EQ(*read_address(context, *parse_address(path + "::middle.zip::x.crate::other")), other);
    EXPECT_EQ(*read_address(context, *parse_address(path + "::pad")), random_bytes(5000, 3));
}

TEST_F(Nested, DepthIsLimited) {
    context.limits.depth = 1;
    EXPECT_EQ(read_address(context, *parse_address(path + "::middle.zip::y")).error().code, ErrorCode::limit);
}

TEST_F(Nested, TheSameEntryTwiceIsRefused) {
    const auto source = open_source(context, path);
    const auto plan = plan_replacements(context, **source, {{{"pad"}, Bytes(3)}, {{"pad"}, Bytes(4)}});
    ASSERT_FALSE(plan);
    EXPECT_EQ(plan.error().code, ErrorCode::usage);
}

TEST(Folder, IsAContainer) {
    TempFolder folder;
    put_file(folder / "b/two.dds", bytes_of("22"));
    put_file(folder / "a.dds", bytes_of("1"));
    std::filesystem::create_symlink("/etc/hostname", folder / "link");
    const auto opened = FolderContainer::open(folder.path(), ReadLimits{});
    ASSERT_TRUE(opened);
    ASSERT_EQ((*opened)->entries().size(), 2u) << "links are not followed";
    EXPECT_EQ((*opened)->entries()[1].path, "b/two.dds");
    const auto plan = (*opened)->plan(std::vector<Replacement>{{1, bytes_of("longer")}, {0, bytes_of("1")}}, ReadLimits{});
    ASSERT_TRUE(plan);
    ASSERT_EQ(plan->files.size(), 1u) << "an equal file is not written";
    EXPECT_EQ(plan->files[0].way, Way::append);
    EXPECT_EQ(plan->files[0].new_size, 6u);
}

TEST(Recognition, WhatNothingFitsIsSaid) {
    ReadContext context;
    const auto opened = open_container(context, FileView::of(random_bytes(500, 1), "mystery.bin"));
    ASSERT_FALSE(opened);
    EXPECT_EQ(opened.error().code, ErrorCode::unsupported);
    EXPECT_NE(opened.error().message().find("mystery.bin: no archive we know"), std::string::npos);
}
