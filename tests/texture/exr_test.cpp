// What an OpenEXR header claims is looked at before the library takes memory for it.
#include "texture/exr.h"

#include <gtest/gtest.h>
#include <cstring>
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

constexpr std::string_view window("dataWindow\0box2i", 17), channels("channels\0chlist", 16), compression("compression\0compression", 24);

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

TEST_F(ExrHeader, ThePictureMayNotClaimMoreThanSuchAFilePacks) {
    set(value_of(window) + 8, 16'383);
    set(value_of(window) + 12, 16'383);
    EXPECT_NE(refusal().find("claims 16,384×16,384 texels, 2.0 GB"), std::string::npos) << refusal();
}

TEST_F(ExrHeader, OfAllChannelsTheLinesThatAreUnpackedTogetherCountToo) {
    // One line of 16,384 texels; of DWAB, 256 are unpacked together. Four channels of halves are 32 MB then, with sixty more of floats 992
    // MB.
    set(value_of(window) + 8, 16'383);
    set(value_of(window) + 12, 0);
    file[value_of(compression)] = std::byte{9};
    EXPECT_EQ(refusal(), "");
    const auto at = value_of(channels);
    Bytes more;
    for (int c = 35; c < 95; ++c)
        for (const int byte : {c, 0, 2, 0, 0, 0, 0, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0}) more.push_back(static_cast<std::byte>(byte));
    set(at - 4, load_le<std::uint32_t>(file.data() + at - 4) + static_cast<std::uint32_t>(more.size()));
    const auto end = load_le<std::uint32_t>(file.data() + at - 4) - more.size() - 1;  // before the empty name that ends the list
    file.insert(file.begin() + static_cast<std::ptrdiff_t>(at + end), more.begin(), more.end());
    EXPECT_NE(refusal().find("claims 16,384×1 texels, 992 MB"), std::string::npos) << refusal();
}

TEST_F(ExrHeader, APreviewWhoseSidesOverflowIsRefused) {
    // 2^31 × 2^31 texels of four bytes are none in 64 bits.
    const std::string_view name("preview\0preview", 16);
    Bytes more(name.size() + 4 + 8);
    std::memcpy(more.data(), name.data(), name.size());
    store_le(more.data() + name.size(), std::uint32_t{8});
    store_le(more.data() + name.size() + 4, 0x80000000u);
    store_le(more.data() + name.size() + 8, 0x80000000u);
    file.insert(file.begin() + 8, more.begin(), more.end());
    EXPECT_NE(refusal().find("attribute preview is no preview of 8 bytes"), std::string::npos) << refusal();
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
