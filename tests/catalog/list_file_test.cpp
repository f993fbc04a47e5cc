// Lists of archives that games keep, and adding to them. The forms are common practice in the trade.
#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "catalog/list_file.h"

using namespace skivet;

namespace {

std::string listed(std::string_view text, std::vector<std::string> known, std::vector<std::string> more) {
    const auto out = with_listed(text, known, more);
    EXPECT_TRUE(out) << (out ? "" : out.error().message());
    return out.value_or("");
}
const std::vector<std::string> two = {"base.pak", "update.pak"};

}  // namespace

TEST(ListFile, ALineLikeTheLastOneComesBehindIt) {
    EXPECT_EQ(listed("# order\nbase.pak\nupdate.pak\n", two, {"zz.pak"}), "# order\nbase.pak\nupdate.pak\nzz.pak\n");
    EXPECT_EQ(listed("base.pak\nupdate.pak", two, {"zz.pak"}), "base.pak\nupdate.pak\nzz.pak") << "no line end at the end";
    EXPECT_EQ(listed("base.pak\r\nupdate.pak\r\n\r\n; end\r\n", two, {"a.pak", "b.pak"}),
              "base.pak\r\nupdate.pak\r\na.pak\r\nb.pak\r\n\r\n; end\r\n");
    EXPECT_EQ(listed("mount \"data/base.pak\" readonly\n  mount \"data/Update.PAK\" 5\nquit\n", two, {"zz.pak"}),
              "mount \"data/base.pak\" readonly\n  mount \"data/Update.PAK\" 5\n  mount \"data/zz.pak\" 5\nquit\n");
    EXPECT_EQ(listed("<a file='base.pak'/>\n<a file='update.pak'/>\n", two, {"zz.pak"}),
              "<a file='base.pak'/>\n<a file='update.pak'/>\n<a file='zz.pak'/>\n");
}

TEST(ListFile, AFolderAtTheEndStaysAndTheLineIsLikeAnArchives) {
    EXPECT_EQ(listed("base.pak\nupdate.pak\ndir override\n", {"base.pak", "update.pak", "override"}, {"zz.pak"}),
              "base.pak\nupdate.pak\ndir override\nzz.pak\n");
}

TEST(ListFile, FoldersAreThoseOfItsNeighbors) {
    const std::vector<std::string> known = {"base.pak", "extra.pak"}, more = {"zz.pak"}, beside = {"base.pak"};
    EXPECT_EQ(*with_listed("data/base.pak\ndlc/extra.pak\n", known, more, beside), "data/base.pak\ndlc/extra.pak\ndata/zz.pak\n");
    EXPECT_EQ(*with_listed("data/base.pak\ndlc/extra.pak\n", known, more), "data/base.pak\ndlc/extra.pak\ndlc/zz.pak\n");
}

TEST(ListFile, NumbersCountOn) {
    EXPECT_EQ(listed("[paks]\n1=base.pak\n2=update.pak\n", two, {"a.pak", "b.pak"}),
              "[paks]\n1=base.pak\n2=update.pak\n3=a.pak\n4=b.pak\n");
    EXPECT_EQ(listed("pak08 = base.pak,1\npak09 = update.pak,1\n", two, {"zz.pak"}),
              "pak08 = base.pak,1\npak09 = update.pak,1\npak10 = zz.pak,1\n");
    // Equal numbers are no count, and a number in a name is the name's.
    EXPECT_EQ(listed("base.pak 7\nupdate.pak 7\n", two, {"zz.pak"}), "base.pak 7\nupdate.pak 7\nzz.pak 7\n");
    EXPECT_EQ(listed("p1.pak\np2.pak\n", {"p1.pak", "p2.pak"}, {"p3.pak"}), "p1.pak\np2.pak\np3.pak\n");
}

TEST(ListFile, CommasStayBetween) {
    EXPECT_EQ(listed("[\n  \"base.pak\",\n  \"update.pak\"\n]\n", two, {"a.pak", "b.pak"}),
              "[\n  \"base.pak\",\n  \"update.pak\",\n  \"a.pak\",\n  \"b.pak\"\n]\n");
    EXPECT_EQ(listed("{\"paks\": [\n\"base.pak\"\n]}\n", {"base.pak"}, {"a.pak"}), "{\"paks\": [\n\"base.pak\",\n\"a.pak\"\n]}\n");
    EXPECT_EQ(listed("base.pak,\nupdate.pak,\n", two, {"a.pak"}), "base.pak,\nupdate.pak,\na.pak,\n");
}

TEST(ListFile, OneLineGetsANameMore) {
    EXPECT_EQ(listed("paks=data/base.pak;data/update.pak\nlanguage=en\n", two, {"a.pak", "b.pak"}),
              "paks=data/base.pak;data/update.pak;data/a.pak;data/b.pak\nlanguage=en\n");
    EXPECT_EQ(listed("[\"base.pak\", \"update.pak\"]", two, {"a.pak"}), "[\"base.pak\", \"update.pak\", \"a.pak\"]");
}

TEST(ListFile, WhatIsListedIsNotListedTwiceAndAForeignListIsRefused) {
    EXPECT_EQ(listed("base.pak\nzz.pak\nupdate.pak\n", two, {"zz.pak"}), "base.pak\nzz.pak\nupdate.pak\n");
    const auto wrong = with_listed("credits\n# base.pak\n", two, std::vector<std::string>{"zz.pak"});
    ASSERT_FALSE(wrong);
    EXPECT_EQ(wrong.error().code, ErrorCode::unfit);
    EXPECT_FALSE(with_listed("", two, std::vector<std::string>{"zz.pak"}));
}
