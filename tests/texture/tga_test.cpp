// TGA, after the "Truevision TGA File Format Specification" 2.0; files by ImageMagick (package imagemagick), an outside writer and reader.
#include <gtest/gtest.h>
#include <string>
#include <vector>

#include "bench/export.h"
#include "bench/fitting.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Kind {
    std::string name;
    std::vector<std::string> arguments;
    int type;
    Format format;
};
const std::vector<Kind> kinds = {
    {"color24", {"-alpha", "off", "-compress", "none"}, 2, Format::BGR8},
    {"color24_runs", {"-alpha", "off", "-compress", "RLE"}, 10, Format::BGR8},
    {"color32", {"-alpha", "set", "-channel", "A", "-evaluate", "set", "60%", "-compress", "none"}, 2, Format::BGRA8},
    {"gray", {"-colorspace", "Gray", "-compress", "none"}, 3, Format::L8},
    {"gray_runs", {"-colorspace", "Gray", "-compress", "RLE"}, 11, Format::L8},
    {"map", {"-alpha", "off", "-colors", "30", "-type", "Palette", "-compress", "none"}, 1, Format::RGB8},
    {"map_runs", {"-alpha", "off", "-colors", "30", "-type", "Palette", "-compress", "RLE"}, 9, Format::RGB8}};

class EveryTga : public testing::TestWithParam<Kind> {
protected:
    void SetUp() override {
        std::vector<std::string> command = {"convert", "-size", "26x15", "gradient:#d03060-#2050f0"};
        command.insert(command.end(), GetParam().arguments.begin(), GetParam().arguments.end());
        command.push_back((folder / "a.tga").string());
        const auto ran = run_program(command);
        ASSERT_EQ(ran.code, 0) << ran.output;
        const auto opened = TextureFile::open(TextureKinds::standard(), get_file(folder / "a.tga"), "a.TGA", ReadLimits{});
        ASSERT_TRUE(opened) << opened.error().message();
        original = *opened;
        ASSERT_EQ(static_cast<int>(original.file[2]), GetParam().type);
    }
    Image theirs(const Bytes& file) {
        put_file(folder / "b.tga", file);
        EXPECT_EQ(run_program({"convert", (folder / "b.tga").string(), "-auto-orient", "PNG32:" + (folder / "b.png").string()}).code, 0);
        return *read_png(get_file(folder / "b.png"), ReadLimits{});
    }
    TempFolder folder;
    TextureFile original;
};
INSTANTIATE_TEST_SUITE_P(Tga, EveryTga, testing::ValuesIn(kinds), [](const auto& param) { return param.param.name; });

}  // namespace

TEST_P(EveryTga, IsReadAsAnotherProgramReadsIt) {
    EXPECT_EQ(original.layout.desc.format, GetParam().format);
    EXPECT_EQ(*original.decode(0), theirs(original.file));
}

TEST_P(EveryTga, UnchangedIsIdenticalAndAnEditKeepsTypeAndOrigin) {
    auto image = *original.decode(0);
    EXPECT_EQ(fit(original, *read_edited(*write_png(image), ReadLimits{}), {})->file, original.file);
    image.at(4, 3) = image.at(20, 14);
    const auto fitted = *fit(original, *read_edited(*write_png(image), ReadLimits{}), {});
    ASSERT_FALSE(fitted.blocked()) << fitted.findings[0].detail;
    EXPECT_EQ(fitted.file[2], original.file[2]);
    EXPECT_EQ(fitted.file[17], original.file[17]);
    EXPECT_EQ(theirs(fitted.file), image);
    const auto again = TextureFile::open(TextureKinds::standard(), fitted.file, "a.tga", ReadLimits{});
    EXPECT_EQ(*again->decode(0), image);
}

TEST_P(EveryTga, EveryOriginShowsTheSamePictureTurned) {
    const auto upright = *original.decode(0);
    for (const unsigned bits : {0x00u, 0x10u, 0x20u, 0x30u}) {
        auto file = original.file;
        const auto own = static_cast<unsigned>(file[17]);
        file[17] = static_cast<std::byte>((own & 0xCFu) | bits);
        const auto turned = *TextureFile::open(TextureKinds::standard(), file, "a.tga", ReadLimits{});
        const auto picture = *turned.decode(0);
        const bool mirror = (own ^ bits) & 0x10, flip = (own ^ bits) & 0x20;
        for (std::uint32_t y = 0; y < 15; ++y)
            for (std::uint32_t x = 0; x < 26; ++x) ASSERT_EQ(picture.at(x, y), upright.at(mirror ? 25 - x : x, flip ? 14 - y : y));
        auto edited = picture;
        edited.at(0, 0) = edited.at(13, 14);
        EXPECT_EQ(*TextureFile::open(TextureKinds::standard(), fit(turned, *read_edited(*write_png(edited), ReadLimits{}), {})->file,
                                     "a.tga", ReadLimits{})
                       ->decode(0),
                  edited);
    }
}

TEST_P(EveryTga, CutOffFilesAreSaid) {
    for (std::size_t size = 0; size < original.file.size(); size += 11) {
        const auto cut = TextureFile::open(TextureKinds::standard(),
                                           Bytes(original.file.begin(), original.file.begin() + static_cast<std::ptrdiff_t>(size)), "a.tga",
                                           ReadLimits{});
        if (cut) (void)cut->decode(0);  // runs that end early are found when they are read
        else EXPECT_FALSE(cut.error().message().empty());
    }
}

TEST(Tga, WhatLiesBehindThePictureMovesWithItsOffsets) {
    // A run-length encoded file of version 2.0: 8×1 texels in one run, an extension area of 495 bytes, a footer.
    ByteWriter file;
    for (const int b : {0, 0, 10, 0, 0, 0, 0, 0, 0, 0, 0, 0, 8, 0, 1, 0, 24, 0x20}) file.le(static_cast<std::uint8_t>(b));
    for (const int b : {0x87, 10, 20, 30}) file.le(static_cast<std::uint8_t>(b));
    const auto extension = static_cast<std::uint32_t>(file.bytes.size());
    file.le(std::uint16_t{495});
    file.bytes.resize(file.bytes.size() + 480);
    file.le(extension + 100);  // color correction table
    file.le(std::uint32_t{0});
    file.le(std::uint32_t{0});
    file.le(std::uint8_t{3});
    file.le(extension);
    file.le(std::uint32_t{0});
    file.put(std::string_view{"TRUEVISION-XFILE.\0", 18});
    const auto texture = *TextureFile::open(TextureKinds::standard(), file.bytes, "a.tga", ReadLimits{});
    auto image = *texture.decode(0);
    image.at(3, 0) = {1, 2, 3, 255};
    const auto edited = fit(texture, *read_edited(*write_png(image), ReadLimits{}), {})->file;
    const auto grown = static_cast<std::uint32_t>(edited.size() - file.bytes.size());
    EXPECT_GT(grown, 0u);
    EXPECT_EQ(load_le<std::uint32_t>(edited.data() + edited.size() - 26), extension + grown);
    EXPECT_EQ(load_le<std::uint32_t>(edited.data() + extension + grown + 482), extension + 100 + grown);
    EXPECT_EQ(load_le<std::uint32_t>(edited.data() + extension + grown + 486), 0u);
    EXPECT_EQ(*TextureFile::open(TextureKinds::standard(), edited, "a.tga", ReadLimits{})->decode(0), image);
}

TEST(Tga, OnlyNamedFilesCount) {
    const Bytes head(18, std::byte{2});
    EXPECT_EQ(TextureKinds::standard().recognize(head, "notes.txt"), nullptr);
}
