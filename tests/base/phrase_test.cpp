// What the core says, in another language.
#include "base/phrase.h"

#include <gtest/gtest.h>
#include <map>
#include <string>

#include "base/result.h"

using namespace skivet;

namespace {

struct Words : Language {
    std::map<std::string, std::string, std::less<>> words;
    std::optional<std::string> find(std::string_view english) const override {
        const auto found = words.find(english);
        return found == words.end() ? std::nullopt : std::optional(found->second);
    }
};

/// Speaks a language for as long as it lives.
struct Speaking {
    explicit Speaking(const Language& language) { speak(&language); }
    ~Speaking() { speak(nullptr); }
};

}  // namespace

TEST(Phrase, IsEnglishWhereNothingElseIsSpoken) {
    EXPECT_EQ(said("needs a key"), "needs a key");
    EXPECT_EQ(phrase("needs {} bytes, has {}", 5592, 4096), "needs 5592 bytes, has 4096");
    EXPECT_EQ(grouped(5592), "5,592");
    EXPECT_EQ(human_bytes(1'398'256), "1.3 MB");
}

TEST(Phrase, IsTranslatedWithItsValuesInTheOrderOfTheOtherLanguage) {
    Words german;
    german.group = ".";
    german.point = ',';
    german.words = {{"needs {} bytes, has {}", "{1} Byte sind da, {0} sind nötig"}, {"needs a key", "braucht einen Schlüssel"}};
    const Speaking speaking(german);
    EXPECT_EQ(said("needs a key"), "braucht einen Schlüssel");
    EXPECT_EQ(phrase("needs {} bytes, has {}", grouped(5592), 4096), "4096 Byte sind da, 5.592 sind nötig");
    EXPECT_EQ(phrase("has {} bytes", 3), "has 3 bytes") << "what is not translated stays";
    EXPECT_EQ(human_bytes(1'398'256), "1,3 MB");
    german.words["{:.3g} times as wide"] = "{:.3Lg}-mal so breit";
    EXPECT_EQ(phrase("{:.3g} times as wide", 1.5), "1,5-mal so breit");
    EXPECT_EQ(phrase("{:.3g} times as wide", 65536.0), "6,55e+04-mal so breit") << "no marks between thousands here";
}

TEST(Phrase, ATranslationThatDoesNotFitItsValuesIsNotUsed) {
    Words wrong;
    wrong.words = {{"has {} bytes", "hat {} von {} Byte"}, {"is {}", "ist {:d}"}, {"was {}", "war {"}};
    const Speaking speaking(wrong);
    EXPECT_EQ(phrase("has {} bytes", 3), "has 3 bytes");
    EXPECT_EQ(phrase("is {}", "text"), "is text");
    EXPECT_EQ(phrase("was {}", 1), "was 1");
}

TEST(Phrase, ErrorsSayTheirPartsInTheLanguageAndTheirValuesAsTheyAre) {
    Words german;
    german.words = {
        {"mip chain", "Mip-Kette"}, {"ends early", "endet zu früh"}, {" (at byte {})", " (bei Byte {})"}, {"Look at it", "Sieh sie an"}};
    const Speaking speaking(german);
    const auto error = fail_at(ErrorCode::damaged, 64, "ends early", "Look at it").value().within("mip chain").within("crate");
    EXPECT_EQ(error.message(), "crate ▸ Mip-Kette: endet zu früh (bei Byte 0x40). Sieh sie an");
}
