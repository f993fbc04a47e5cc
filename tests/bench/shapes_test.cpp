// Identity and one-texel edits over sizes that are no multiple of a block, down to a single texel, for every format.
#include <gtest/gtest.h>

#include "bench/export.h"
#include "bench/fitting.h"
#include "codec/paint_form.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Size {
    std::uint32_t width, height;
};
class EverySize : public testing::TestWithParam<std::tuple<Format, Size>> {
protected:
    void SetUp() override {
        const auto [format, size] = GetParam();
        TextureDesc d{format, size.width, size.height, 1, full_mip_count(size.width, size.height), 1, 1, ColorSpace::unknown};
        std::uint64_t end = 0;
        (void)lay_out(d, 0, MipOrder::largest_first, 1, end);
        original =
            *TextureFile::open(TextureKinds::standard(), make_file(d, random_bytes(static_cast<std::size_t>(end), 5)), "x", ReadLimits{});
    }
    Fit fitted(const Image& image) { return *fit(original, *read_edited(*write_png(image), ReadLimits{}), {}); }
    TextureFile original;
};
INSTANTIATE_TEST_SUITE_P(
    Shapes, EverySize,
    testing::Combine(testing::Values(Format::BC1, Format::BC3, Format::BC4, Format::BC5, Format::BC5_SNORM, Format::BC6H, Format::BC7,
                                     Format::ETC1, Format::ETC2_RGBA, Format::EAC_RG, Format::ASTC_8x5, Format::RGBA8, Format::B5G6R5,
                                     Format::L8, Format::RGB16F, Format::RGB10A2, Format::RGB9E5),
                     testing::Values(Size{1, 1}, Size{2, 7}, Size{5, 3}, Size{13, 21}, Size{64, 1}, Size{1, 64}, Size{30, 34})));

}  // namespace

TEST_P(EverySize, UnchangedIsIdentical) {
    const auto fit_of_same = fitted(paint_form(std::get<0>(GetParam()), *original.decode(0)));
    EXPECT_EQ(fit_of_same.file, original.file);
    EXPECT_EQ(fit_of_same.levels.size(), original.layout.desc.mips);
}

TEST_P(EverySize, TheLastTexelChangesOnlyTheLastBlockOfLevelZero) {
    const auto format = std::get<0>(GetParam());
    auto image = paint_form(format, *original.decode(0));
    auto& texel = image.texels.back();
    for (std::size_t c = 0; c < 3; ++c) texel[c] = static_cast<std::uint8_t>(texel[c] ^ 0x80);
    if (info(format).has_alpha) texel[3] = 255;  // color under zero alpha would go back by itself
    const auto edited = fitted(image);
    ASSERT_EQ(edited.file.size(), original.file.size());
    EXPECT_EQ(edited.levels[0].blocks - edited.levels[0].kept, 1u);
    const auto* top = original.layout.find(0);
    const auto last = top->offset + top->size - info(format).block_bytes;
    const auto from = original.file.begin() + static_cast<std::ptrdiff_t>(top->offset);
    EXPECT_TRUE(std::equal(from, original.file.begin() + static_cast<std::ptrdiff_t>(last),
                           edited.file.begin() + static_cast<std::ptrdiff_t>(top->offset)));
}

TEST_P(EverySize, AWhollyNewPictureGivesASoundFile) {
    const auto edited = fitted(smooth_picture(original.layout.desc.width, original.layout.desc.height, 2));
    const auto again = TextureFile::open(TextureKinds::standard(), edited.file, "x", ReadLimits{});
    ASSERT_TRUE(again);
    EXPECT_EQ(again->layout.desc, original.layout.desc);
    for (std::uint32_t mip = 0; mip < again->layout.desc.mips; ++mip) EXPECT_TRUE(again->decode(mip));
}
