// DDS files by other programs (ImageMagick, package imagemagick) and ours read by others (ImageMagick, ffmpeg).
#include <gtest/gtest.h>
#include <filesystem>
#include <string>

#include "bench/export.h"
#include "pixel/metrics.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/dds.h"
#include "texture/ktx.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

Image read_with(const std::string& program, const std::filesystem::path& dds, const std::filesystem::path& png) {
    const auto ran = program == "ffmpeg"
                         ? run_program({"ffmpeg", "-y", "-loglevel", "error", "-i", dds.string(), "-pix_fmt", "rgba", png.string()})
                         : run_program({"convert", dds.string() + "[0]", "-define", "png:color-type=6", "PNG32:" + png.string()});
    EXPECT_EQ(ran.code, 0) << ran.output;
    const auto image = read_png(get_file(png), ReadLimits{});
    EXPECT_TRUE(image);
    return image ? *image : Image();
}

}  // namespace

TEST(DdsFiles, ByImageMagickAreReadRight) {
    TempFolder folder;
    put_file(folder / "in.png", *write_png(smooth_picture(64, 64, 2, true)));
    for (const std::string compression : {"dxt1", "dxt5", "none"}) {
        const auto dds = folder / (compression + ".dds");
        ASSERT_EQ(run_program({"convert", (folder / "in.png").string(), "-define", "dds:compression=" + compression, "-define",
                               "dds:mipmaps=3", dds.string()})
                      .code,
                  0);
        const auto texture = TextureFile::open(TextureKinds::standard(), get_file(dds), "x.dds", ReadLimits{});
        ASSERT_TRUE(texture) << texture.error().message();
        EXPECT_EQ(texture->layout.desc.mips, 4u) << compression;
        const auto theirs = read_with("convert", dds, folder / "back.png");
        // Their reader rounds interpolated colors its own way; 1/255 more or less is the same block.
        EXPECT_LE(difference(*texture->decode(0), theirs).max_error, compression == "none" ? 0u : 2u) << compression;
    }
}

TEST(DdsFiles, OursAreReadByFfmpegAndImageMagick) {
    TempFolder folder;
    for (auto format : {Format::BC1, Format::BC2, Format::BC3, Format::BGRA8, Format::RGBA8}) {
        const auto dds = folder / "ours.dds";
        put_file(dds, make_dds(format, 64, 32));
        const auto texture = TextureFile::open(TextureKinds::standard(), get_file(dds), "x.dds", ReadLimits{});
        const auto ours = *texture->decode(0);
        for (const std::string program : {"ffmpeg", "convert"}) {
            if (program == "convert" && format == Format::RGBA8) continue;  // it reads every 32-bit file as BGRA, whatever the masks say
            auto theirs = read_with(program, dds, folder / "back.png");
            ASSERT_EQ(theirs.texels.size(), ours.texels.size());
            EXPECT_LE(difference(ours, theirs).max_error, 2u) << info(format).name << " with " << program;
        }
    }
}

TEST(DdsFiles, FfmpegReadsOurBc4AndBc5) {
    TempFolder folder;
    for (auto format : {Format::BC4, Format::BC5}) {
        put_file(folder / "ours.dds", make_dds(format, 64, 32));
        const auto texture = TextureFile::open(TextureKinds::standard(), get_file(folder / "ours.dds"), "x.dds", ReadLimits{});
        const auto theirs = read_with("ffmpeg", folder / "ours.dds", folder / "back.png");
        const auto ours = *texture->decode(0);
        ASSERT_EQ(theirs.texels.size(), ours.texels.size());
        for (std::size_t i = 0; i < ours.texels.size(); ++i) {
            ASSERT_NEAR(theirs.texels[i][0], ours.texels[i][0], 1);
            if (format == Format::BC5) ASSERT_NEAR(theirs.texels[i][1], ours.texels[i][1], 1);
        }
    }
}

// The encoder program of the ASTC specification's publisher (package astcenc), which reads and writes KTX files.
TEST(AstcFiles, GoBothWaysBetweenUsAndAstcenc) {
    TempFolder folder;
    const auto picture = smooth_picture(60, 36, 5, true);
    put_file(folder / "in.png", *write_png(picture));
    for (const auto& [format, footprint] : {std::pair{Format::ASTC_4x4, "4x4"},
                                            {Format::ASTC_6x6, "6x6"},
                                            {Format::ASTC_8x5, "8x5"},
                                            {Format::ASTC_10x8, "10x8"},
                                            {Format::ASTC_12x12, "12x12"}}) {
        const auto decoded_by_them = [&](const std::filesystem::path& file) {
            const auto ran = run_program({"astcenc", "-dl", file.string(), (folder / "back.png").string()});
            EXPECT_EQ(ran.code, 0) << ran.output;
            return *read_png(get_file(folder / "back.png"), ReadLimits{});
        };
        const auto theirs = folder / "theirs.ktx", ours = folder / "ours.ktx";
        ASSERT_EQ(run_program({"astcenc", "-cl", (folder / "in.png").string(), theirs.string(), footprint, "-medium"}).code, 0);
        const auto read = TextureFile::open(TextureKinds::standard(), get_file(theirs), "x.ktx", ReadLimits{});
        ASSERT_TRUE(read) << read.error().message();
        EXPECT_EQ(read->layout.desc.format, format);
        EXPECT_LE(difference(*read->decode(0), decoded_by_them(theirs)).max_error, 1u) << footprint;
        const TextureDesc d{format, 60, 36, 1, 1, 1, 1, ColorSpace::linear};
        put_file(ours, *write_ktx(d, *encode(format, picture)));
        const auto back = decoded_by_them(ours);
        EXPECT_LE(difference(*decode(format, *encode(format, picture), 60, 36), back).max_error, 1u) << footprint;
        EXPECT_GT(difference(picture, back).psnr_rgb, footprint == std::string_view("12x12") ? 20 : 28) << footprint;
    }
}
