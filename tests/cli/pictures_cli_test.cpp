// The command line with cubemaps, floats, pictures as textures, and damaged files.
#include <gtest/gtest.h>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "bench/fitting.h"
#include "codec/codec.h"
#include "support/pictures.h"
#include "support/run_program.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;
using nlohmann::json;

namespace {

Bytes cubemap(Format format) {
    const TextureDesc d{format, 16, 16, 1, 5, 1, 6, ColorSpace::unknown};
    Bytes payload;
    for (unsigned face = 0; face < 6; ++face) {
        const auto bytes = *encode_levels(smooth_picture(16, 16, face), d, {});
        payload.insert(payload.end(), bytes.begin(), bytes.end());
    }
    return *write_dds(d, payload);
}

TextureFile opened(const std::filesystem::path& path) {
    return *TextureFile::open(TextureKinds::standard(), get_file(path), path.string(), ReadLimits{});
}

}  // namespace

TEST(PictureCli, CubemapsLeaveAsACrossSixFilesOrTheFirstFace) {
    TempFolder folder;
    const auto zip = (folder / "game.zip").string();
    put_file(zip, make_zip({{"sky.dds", cubemap(Format::BC1)}}));
    ASSERT_EQ(run_cli({"export", zip, "--to", (folder / "cross").string()}).code, 0);
    EXPECT_EQ(read_png(get_file(folder / "cross/sky.png"), ReadLimits{})->width, 64u);
    ASSERT_EQ(run_cli({"export", zip, "--to", (folder / "six").string(), "--faces", "six", "--mip", "all"}).code, 0);
    for (const char* face : {"px", "nx", "py", "ny", "pz", "nz"}) {
        EXPECT_EQ(read_png(get_file(folder / ("six/sky." + std::string(face) + ".mip0.png")), ReadLimits{})->width, 16u);
        EXPECT_EQ(read_png(get_file(folder / ("six/sky." + std::string(face) + ".mip3.png")), ReadLimits{})->width, 2u);
    }
    ASSERT_EQ(run_cli({"export", zip, "--to", (folder / "one").string(), "--faces", "first"}).code, 0);
    EXPECT_EQ(read_png(get_file(folder / "one/sky.png"), ReadLimits{})->width, 16u);
    // The cross goes back: one texel of the back, and nothing else, is written.
    auto cross = *read_png(get_file(folder / "cross/sky.png"), ReadLimits{});
    cross.at(3 * 16 + 5, 16 + 5) = {255, 0, 255, 255};
    put_file(folder / "edit.png", *write_png(cross));
    const auto before = get_file(zip);
    ASSERT_EQ(run_cli({"replace", zip + "::sky.dds", "--with", (folder / "edit.png").string()}).code, 0);
    const auto after = get_file(zip);
    std::size_t changed = 0;
    ASSERT_EQ(after.size(), before.size());
    for (std::size_t i = 0; i < after.size(); ++i) changed += after[i] != before[i];
    EXPECT_GT(changed, 0u);
    EXPECT_LE(changed, 64u) << "a block a level, and checksums";
    ASSERT_EQ(run_cli({"restore", zip}).code, 0);
    EXPECT_EQ(get_file(zip), before);
}

TEST(PictureCli, FloatsLeaveAsOpenExrAndComeBack) {
    TempFolder folder;
    const TextureDesc d{Format::RGBA16F, 8, 8, 1, 1, 1, 1, ColorSpace::linear};
    ImageF bright(8, 8);
    for (std::size_t i = 0; i < 64; ++i) bright.texels[i] = {static_cast<float>(i), 0.25f, -2, 1};
    put_file(folder / "glow.dds", *write_dds(d, *encode(Format::RGBA16F, bright)));
    ASSERT_EQ(run_cli({"export", (folder / "glow.dds").string(), "--to", (folder / "out").string(), "--as", "picture"}).code, 0);
    EXPECT_EQ(*opened(folder / "out/glow.exr").decode_wide(0), bright);
    const auto before = get_file(folder / "glow.dds");
    ASSERT_EQ(run_cli({"encode", (folder / "out/glow.exr").string(), "--like", (folder / "glow.dds").string(), "--out",
                       (folder / "again.dds").string()})
                  .code,
              0);
    EXPECT_EQ(get_file(folder / "again.dds"), before);
}

TEST(PictureCli, PicturesInAnArchiveAreListedAndKeepTheirKind) {
    TempFolder folder;
    put_file(folder / "a.png", *write_png(smooth_picture(40, 24, 1)));
    for (const char* ending : {"bmp", "jpg", "webp", "tif", "hdr"})
        ASSERT_EQ(run_program({"convert", (folder / "a.png").string(), (folder / ("a." + std::string(ending))).string()}).code, 0);
    const auto zip = (folder / "game.zip").string();
    std::vector<ZipItem> items;
    for (const char* ending : {"bmp", "jpg", "webp", "tif", "hdr"})
        items.push_back({"a." + std::string(ending), get_file(folder / ("a." + std::string(ending)))});
    put_file(zip, make_zip(items));
    const auto before = get_file(zip);
    for (const auto& item : items) {
        const auto address = zip + "::" + item.name;
        const auto facts = json::parse(run_cli({"show", address, "--json"}).out);
        EXPECT_EQ(facts["width"], 40) << item.name;
        EXPECT_EQ(facts["mips"], 1);
        // A PNG of other colors goes in as what the entry is.
        put_file(folder / "b.png", *write_png(smooth_picture(40, 24, 2)));
        ASSERT_EQ(run_cli({"replace", address, "--with", (folder / "b.png").string()}).code, 0) << item.name;
        EXPECT_EQ(json::parse(run_cli({"show", address, "--json"}).out)["file_kind"], facts["file_kind"]);
    }
    EXPECT_NE(run_cli({"list", zip, "--textures"}).out.find("image"), std::string::npos);
    ASSERT_EQ(run_cli({"restore", zip}).code, 0);
    EXPECT_EQ(get_file(zip), before);
}

TEST(PictureCli, EveryLayerOfAnArrayAndSliceOfAVolumeLeaves) {
    TempFolder folder;
    const auto zip = (folder / "game.zip").string();
    const TextureDesc array{Format::RGBA8, 16, 16, 1, 1, 3, 1, ColorSpace::linear},
        volume{Format::RGBA8, 8, 8, 4, 2, 1, 1, ColorSpace::linear};
    const auto layers = random_bytes(3 * 16 * 16 * 4, 1), slices = random_bytes((4 * 64 + 2 * 16) * 4, 2);
    put_file(zip, make_zip({{"cloth.dds", *write_dds(array, layers)}, {"mist.dds", *write_dds(volume, slices)}}));
    ASSERT_EQ(run_cli({"export", zip, "--to", (folder / "all").string(), "--mip", "all"}).code, 0);
    for (std::uint32_t layer = 0; layer < 3; ++layer)
        EXPECT_EQ(*read_png(get_file(folder / ("all/cloth.layer" + std::to_string(layer) + ".png")), ReadLimits{}),
                  *decode(Format::RGBA8, ByteSpan(layers).subspan(layer * 1024u), 16, 16));
    for (std::uint32_t slice = 0; slice < 4; ++slice)
        EXPECT_EQ(*read_png(get_file(folder / ("all/mist.slice" + std::to_string(slice) + ".mip0.png")), ReadLimits{}),
                  *decode(Format::RGBA8, ByteSpan(slices).subspan(slice * 256u), 8, 8));
    EXPECT_EQ(*read_png(get_file(folder / "all/mist.slice1.mip1.png"), ReadLimits{}),
              *decode(Format::RGBA8, ByteSpan(slices).subspan(4 * 256 + 64), 4, 4));
    EXPECT_FALSE(std::filesystem::exists(folder / "all/mist.slice2.mip1.png"));
    ASSERT_EQ(run_cli({"export", zip, "--to", (folder / "one").string(), "--layers", "first"}).code, 0);
    EXPECT_TRUE(std::filesystem::exists(folder / "one/cloth.png"));
    EXPECT_TRUE(std::filesystem::exists(folder / "one/mist.png"));
}

TEST(PictureCli, ATextureThatIsCutOffIsShownAndSaid) {
    TempFolder folder;
    auto file = make_dds(Format::BC1, 64, 64);
    file.resize(file.size() - 100);
    const auto zip = (folder / "game.zip").string();
    put_file(zip, make_zip({{"cut.dds", file}}));
    const auto ran = run_cli({"show", zip + "::cut.dds", "--json"});
    ASSERT_EQ(ran.code, 0) << ran.err;
    EXPECT_NE(json::parse(ran.out)["damage"].get<std::string>().find("mip chain: needs 2,744 bytes, has 2,644"), std::string::npos);
    EXPECT_EQ(run_cli({"verify", zip}).code, 3);
    const auto exported = run_cli({"export", zip, "--to", (folder / "out").string()});
    ASSERT_EQ(exported.code, 1) << "level 0 is whole and can be taken out, but the rest is said";
    EXPECT_NE(exported.err.find("written as far as it is there: cut.dds: mip chain"), std::string::npos) << exported.err;
    EXPECT_EQ(read_png(get_file(folder / "out/cut.png"), ReadLimits{})->width, 64u);
    // It is mended by a whole one, which goes in as it is.
    const auto whole = make_dds(Format::BC1, 64, 64);
    put_file(folder / "whole.dds", whole);
    EXPECT_EQ(run_cli({"replace", zip + "::cut.dds", "--with", (folder / "whole.dds").string()}).code, 3) << "nobody knows what it was";
    const auto mended = run_cli({"replace", zip + "::cut.dds", "--with", (folder / "whole.dds").string(), "--as-is"});
    ASSERT_EQ(mended.code, 0) << mended.err;
    EXPECT_EQ(run_cli({"verify", zip}).code, 0);
}
