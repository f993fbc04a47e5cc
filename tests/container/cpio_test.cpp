// cpio: what its headers say stays, several names of a file change together, checksums hold, and what is cut off is only read. Archives are
// made by GNU cpio; what others read afterwards is looked at in changes_test and reference/archives_test.
#include <gtest/gtest.h>

#include <filesystem>
#include <string>

#include "container/address.h"
#include "support/pictures.h"
#include "support/run_program.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Cpio : testing::Test {
    TempFolder folder;
    ReadContext context;
    std::filesystem::path file = folder / "a.cpio";

    void make(const std::string& form, const std::string& names) {
        const auto ran = run_program({"sh", "-c", "printf '" + names + "' | cpio -o --quiet -H " + form + " -O " + file.string()},
                                     (folder / "in").string());
        ASSERT_EQ(ran.code, 0) << ran.output;
    }
    std::shared_ptr<const Container> open() const {
        auto out = open_source(context, file);
        EXPECT_TRUE(out) << (out ? "" : out.error().message());
        return *out;
    }
    Result<WritePlan> replace(const std::string& path, Bytes bytes) const {
        const auto archive = open();
        return archive->plan(std::vector<Replacement>{{*archive->find(path), std::move(bytes)}}, context.limits);
    }
    void write(const Result<WritePlan>& plan) {
        ASSERT_TRUE(plan) << plan.error().message();
        ASSERT_EQ(plan->files.size(), 1u);
        put_file(file, *planned_bytes(plan->files.front(), get_file(file)));
    }
    Bytes read(const std::string& path) const {
        const auto archive = open();
        const auto entry = archive->find(path);
        EXPECT_TRUE(entry) << path;
        auto bytes = archive->read(*entry, context.limits);
        EXPECT_TRUE(bytes) << bytes.error().message();
        return *bytes;
    }
    /// As GNU cpio takes it out.
    Bytes taken_out(const std::string& path) const {
        const auto ran = run_program({"sh", "-c", "cpio -idu --quiet -I " + file.string()}, (folder / "out").string());
        EXPECT_EQ(ran.code, 0) << ran.output;
        EXPECT_TRUE(ran.output.empty() || ran.output == "cpio: warning: archive header has reverse byte-order\n") << ran.output;
        return get_file(folder / "out" / path);
    }
    void SetUp() override {
        std::filesystem::create_directories(folder / "out");
        put_file(folder / "in/a/horse.dds", make_dds(Format::BC1, 32, 32));
        put_file(folder / "in/text", random_bytes(777, 1));
        put_file(folder / "in/last", random_bytes(64, 2));
    }
};
const std::string three = "a/horse.dds\\ntext\\nlast\\n";

struct Forms : Cpio, testing::WithParamInterface<const char*> {};
INSTANTIATE_TEST_SUITE_P(Cpio, Forms, testing::Values("newc", "crc", "odc", "bin"), [](const auto& p) { return std::string(p.param); });

/// How many bytes differ, in files of one size.
std::size_t differing(const Bytes& a, const Bytes& b) {
    std::size_t n = 0;
    for (std::size_t i = 0; i < a.size(); ++i) n += a[i] != b[i];
    return n;
}

}  // namespace

TEST_P(Forms, AByteThatChangesIsAByteThatIsWritten) {
    make(GetParam(), three);
    const auto before = get_file(file);
    auto text = read("text");
    text[300] ^= std::byte{0x10};
    const auto plan = replace("text", text);
    ASSERT_TRUE(plan);
    EXPECT_EQ(plan->way(), Way::in_place);
    write(plan);
    const auto after = get_file(file);
    ASSERT_EQ(after.size(), before.size());
    // The byte, and where there are checksums the digits of one: a difference of 16 is one digit more or less, and what it carries into.
    EXPECT_LE(differing(before, after), GetParam() == std::string("crc") ? 8u : 1u);
    EXPECT_GE(differing(before, after), GetParam() == std::string("crc") ? 2u : 1u);
    EXPECT_EQ(taken_out("text"), text);
}

TEST_P(Forms, AnotherSizeChangesNothingElse) {
    make(GetParam(), three);
    const auto before = get_file(file);
    const auto fresh = random_bytes(1500, 3);
    const auto at = open()->entries()[1].at;
    write(replace("text", fresh));
    const auto after = get_file(file);
    EXPECT_TRUE(std::equal(before.begin(), before.begin() + static_cast<std::ptrdiff_t>(at), after.begin()));
    const auto tail = before.size() - open()->entries()[2].at + (after.size() - before.size());
    EXPECT_TRUE(std::equal(before.end() - static_cast<std::ptrdiff_t>(tail), before.end(), after.end() - static_cast<std::ptrdiff_t>(tail)))
        << "the entry behind it, the trailer and what fills up the last record";
    EXPECT_EQ(taken_out("text"), fresh);
    EXPECT_EQ(taken_out("last"), random_bytes(64, 2));
    // And back: inode numbers, times and owners were never touched.
    write(replace("text", random_bytes(777, 1)));
    EXPECT_EQ(get_file(file), before);
}

TEST_P(Forms, SeveralNamesOfAFileChangeTogether) {
    std::filesystem::create_hard_link(folder / "in/text", folder / "in/also");
    make(GetParam(), "text\\na/horse.dds\\nalso\\nlast\\n");
    EXPECT_EQ(read("text"), random_bytes(777, 1));
    EXPECT_EQ(read("also"), random_bytes(777, 1));
    const auto fresh = random_bytes(200, 4);
    write(replace("text", fresh));
    EXPECT_EQ(read("text"), fresh);
    EXPECT_EQ(read("also"), fresh);
    EXPECT_EQ(taken_out("text"), fresh);
    EXPECT_EQ(taken_out("also"), fresh);
    EXPECT_EQ(taken_out("a/horse.dds"), make_dds(Format::BC1, 32, 32));

    const auto archive = open();
    const auto both = [&](Bytes one, Bytes other) {
        return archive->plan(std::vector<Replacement>{{*archive->find("text"), std::move(one)}, {*archive->find("also"), std::move(other)}},
                             context.limits);
    };
    EXPECT_TRUE(both(random_bytes(90, 5), random_bytes(90, 5)));
    const auto two = both(random_bytes(90, 5), random_bytes(90, 6));
    ASSERT_FALSE(two);
    EXPECT_EQ(two.error().code, ErrorCode::unfit);
    EXPECT_NE(two.error().message().find("the same file as \"text\""), std::string::npos) << two.error().message();
    const auto gone = archive->plan_changes({{}, {}, {}, {*archive->find("text")}}, context.limits);
    ASSERT_FALSE(gone);
    EXPECT_NE(gone.error().message().find("hard link"), std::string::npos) << gone.error().message();
    write(archive->plan_changes({{}, {}, {{*archive->find("text"), "renamed"}}, {}}, context.limits));
    EXPECT_EQ(taken_out("renamed"), fresh);
}

TEST_P(Forms, WhatIsCutOffIsOnlyRead) {
    make(GetParam(), three);
    const auto whole = get_file(file);
    const auto last = open()->entries()[2].at;
    put_file(file, Bytes(whole.begin(), whole.begin() + static_cast<std::ptrdiff_t>(last) + 9));
    const auto archive = open();
    ASSERT_EQ(archive->entries().size(), 2u);
    ASSERT_EQ(archive->problems().size(), 1u);
    EXPECT_EQ(archive->problems()[0].at, last);
    EXPECT_EQ(read("text"), random_bytes(777, 1));
    const auto plan = replace("text", random_bytes(777, 2));
    ASSERT_FALSE(plan);
    EXPECT_EQ(plan.error().code, ErrorCode::unsupported);
    EXPECT_NE(plan.error().message().find("damaged"), std::string::npos) << plan.error().message();
}

TEST_P(Forms, ANameTooLongIsRefused) {
    make(GetParam(), three);
    const auto plan = open()->plan_changes({{}, {}, {{0, std::string(5000, 'n')}}, {}}, context.limits);
    ASSERT_FALSE(plan);
    EXPECT_NE(plan.error().message().find("too long"), std::string::npos) << plan.error().message();
}

TEST_F(Cpio, ChecksumsAreLookedAt) {
    make("crc", three);
    auto bytes = get_file(file);
    const auto archive = open();
    const auto text = *archive->find("text");
    bytes[static_cast<std::size_t>(archive->entries()[text].at) + 200] ^= std::byte{1};
    put_file(file, bytes);
    const auto read = open()->read(text, context.limits);
    ASSERT_FALSE(read);
    EXPECT_EQ(read.error().code, ErrorCode::damaged);
    EXPECT_NE(read.error().message().find("add up to"), std::string::npos) << read.error().message();
    EXPECT_TRUE(open()->read(0, context.limits));
}

// The old binary header is 13 words of the machine that wrote it (cpio(5)): those of the other byte order have each word turned around.
TEST_F(Cpio, TheOtherByteOrder) {
    make("bin", three);
    auto bytes = get_file(file);
    const auto archive = open();
    std::vector<std::uint64_t> headers = {bytes.size()};
    for (const auto& e : archive->entries()) headers.push_back(e.at);
    const std::string trailer = "TRAILER!!!";
    const auto name = std::search(bytes.begin(), bytes.end(), as_bytes(trailer).begin(), as_bytes(trailer).end());
    ASSERT_NE(name, bytes.end());
    headers[0] = static_cast<std::uint64_t>(name - bytes.begin()) - 26;
    for (const auto at : headers)
        for (std::size_t i = 0; i < 26; i += 2)
            std::swap(bytes[static_cast<std::size_t>(at) + i], bytes[static_cast<std::size_t>(at) + i + 1]);
    put_file(file, bytes);
    EXPECT_EQ(open()->kind(), "cpio");
    EXPECT_EQ(read("text"), random_bytes(777, 1));
    const auto fresh = random_bytes(70'000, 5);  // more than one word can say
    write(replace("text", fresh));
    EXPECT_EQ(read("text"), fresh);
    EXPECT_EQ(taken_out("text"), fresh);
}

// Names in an archive of `find .` begin with "./": those that come do, too.
TEST_F(Cpio, NamesAreWrittenAsTheOthers) {
    ASSERT_EQ(run_program({"bsdtar", "-cf", file.string(), "--format", "newc", "./text", "./last"}, (folder / "in").string()).code, 0);
    auto bytes = get_file(file);
    bytes.resize((bytes.size() + 511) / 512 * 512);
    put_file(file, bytes);
    EXPECT_TRUE(open()->find("text"));
    write(open()->plan_changes({{}, {{"more", random_bytes(50, 1), 0}}, {}, {}}, context.limits));
    bytes = get_file(file);
    EXPECT_EQ(bytes.size() % 512, 0u) << "whole records, as before";
    write(open()->plan_changes({{}, {}, {{1, "renamed"}}, {}}, context.limits));
    bytes = get_file(file);
    for (const std::string name : {"./more", "./renamed"}) EXPECT_NE(as_text(bytes).find(name), std::string::npos) << name;
    EXPECT_EQ(taken_out("renamed"), random_bytes(64, 2));
    EXPECT_EQ(taken_out("more"), random_bytes(50, 1));
}
