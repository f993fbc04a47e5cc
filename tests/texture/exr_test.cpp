// What an OpenEXR header claims is looked at before the library takes memory for it.
#include "texture/exr.h"

#include <gtest/gtest.h>
#include <string_view>

using namespace skivet;

namespace {

struct ExrHeader : testing::Test {
    Bytes file = *write_exr(ImageF(16, 16), true, false, true);
    const Bytes whole = file;

    /// Where the value of an attribute begins; its size stands before it.
    [[nodiscard]] std::size_t value_of(std::string_view name_and_type) const {
        const std::string_view text(reinterpret_cast<const char*>(file.data()), file.size());
        const auto at = text.find(name_and_type);
        EXPECT_NE(at, std::string_view::npos);
        return at + name_and_type.size() + 4;
    }
    void set(std::size_t at, std::uint32_t number) { store_le(file.data() + at, number); }
    [[nodiscard]] std::string refusal() const {
        const auto layout = ExrKind().layout(file, file.size(), ReadLimits{});
        return layout ? "" : layout.error().message();
    }
};

constexpr std::string_view window("dataWindow\0box2i", 17), channels("channels\0chlist", 16);

}  // namespace

TEST_F(ExrHeader, AsWrittenItIsRead) {
    EXPECT_EQ(refusal(), "");
    const auto layout = *ExrKind().layout(file, file.size(), ReadLimits{});
    EXPECT_EQ(layout.desc.width, 16u);
    EXPECT_EQ(layout.desc.format, Format::RGBA16F);
}

TEST_F(ExrHeader, MoreLinesThanTheLimitAreRefusedBeforeTheirTableIsMade) {
    set(value_of(window) + 12, 129'999'999);
    EXPECT_NE(refusal().find("16×130,000,000 texels are more than the limit"), std::string::npos) << refusal();
    // The smallest and the largest number there is: more than 32 bits apart.
    set(value_of(window) + 4, 0x80000000);
    set(value_of(window) + 12, 0x7FFFFFFF);
    EXPECT_NE(refusal().find("16×4,294,967,296 texels"), std::string::npos) << refusal();
}

TEST_F(ExrHeader, TheTableOfPiecesMustFitIntoTheFile) {
    set(value_of(window) + 12, 16'383);
    EXPECT_NE(refusal().find("the table of its"), std::string::npos) << refusal();
}

TEST_F(ExrHeader, AllChannelsAndLinesTogetherMayNotClaimMoreThanSuchAFilePacks) {
    set(value_of(window) + 8, 16'383);
    set(value_of(window) + 12, 16'383);
    EXPECT_NE(refusal().find("claims 16,384×16,384 texels, 2.0 GB"), std::string::npos) << refusal();
}

TEST_F(ExrHeader, AttributesOfAnotherSizeThanTheirTypeAreRefused) {
    // One byte from what follows, and one byte less: the library would read on somewhere else.
    for (const int more : {1, -1})
        for (const auto attribute : {window, channels}) {
            file = whole;
            const auto at = value_of(attribute);
            set(at - 4, load_le<std::uint32_t>(file.data() + at - 4) + static_cast<std::uint32_t>(more));
            EXPECT_NE(refusal().find(" is no "), std::string::npos) << refusal();
        }
}
