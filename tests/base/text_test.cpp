#include <gtest/gtest.h>
#include <string>

#include "base/text.h"

using namespace skivet;

TEST(Glob, MatchesStarsAndQuestionMarks) {
    EXPECT_TRUE(glob_match("*.dds", "a/b/C.DDS"));
    EXPECT_TRUE(glob_match("rides/*_tint.*", "rides/horse_a_tint.pnl"));
    EXPECT_TRUE(glob_match("**", ""));
    EXPECT_TRUE(glob_match("a?c", "abc"));
    EXPECT_FALSE(glob_match("a?c", "ac"));
    EXPECT_FALSE(glob_match("*.dds", "a.dds.png"));
    EXPECT_FALSE(glob_match("", "a"));
}

TEST(Glob, DoesNotBlowUpOnManyStars) { EXPECT_FALSE(glob_match("*a*a*a*a*a*a*a*a*a*a*a*b", std::string(5000, 'a'))); }

TEST(Utf8, IsCheckedAsTheStandardSays) {
    // RFC 3629: no overlong forms, no surrogates, nothing above U+10FFFF, nothing cut off.
    EXPECT_TRUE(is_utf8("plain"));
    EXPECT_TRUE(is_utf8("\xC3\xA4\xE2\x82\xAC\xF0\x9F\x8E\xA0"));
    EXPECT_FALSE(is_utf8("\xC0\xAF"));
    EXPECT_FALSE(is_utf8("\xE0\x80\xAF"));
    EXPECT_FALSE(is_utf8("\xED\xA0\x80"));
    EXPECT_FALSE(is_utf8("\xF4\x90\x80\x80"));
    EXPECT_FALSE(is_utf8("a\xE2\x82"));
    EXPECT_FALSE(is_utf8("\x80"));
}

TEST(Cp437, MapsTheUpperHalf) {
    // Unicode Consortium, mapping table CP437.TXT: 0x84 is U+00E4, 0x9B is U+00A2, 0xB0 is U+2591, 0xE1 is U+00DF, 0xFE is U+25A0.
    EXPECT_EQ(cp437_to_utf8("\x84"), "ä");
    EXPECT_EQ(cp437_to_utf8("\x9B"), "¢");
    EXPECT_EQ(cp437_to_utf8("\xB0"), "░");
    EXPECT_EQ(cp437_to_utf8("\xE1"), "ß");
    EXPECT_EQ(cp437_to_utf8("\xFE"), "■");
    EXPECT_EQ(cp437_to_utf8("abc"), "abc");
}

TEST(SafePath, StaysBelowItsFolder) {
    EXPECT_EQ(safe_relative_path("../../etc/passwd"), "etc/passwd");
    EXPECT_EQ(safe_relative_path("/a//b/./c"), "a/b/c");
    EXPECT_EQ(safe_relative_path("C:\\fair\\x.dds"), "C_/fair/x.dds");
    EXPECT_EQ(safe_relative_path("a/\x01\x7F.dds"), "a/__.dds");
    EXPECT_EQ(safe_relative_path("../.."), "");
}
