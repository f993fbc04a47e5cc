#include "tiling/tiling.h"

#include <gtest/gtest.h>

#include <set>
#include <string>
#include <vector>

#include "codec/codec.h"
#include "sheet/texture_sheet.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::test;

namespace {

const TilingSpec specs[] = {{Tiling::linear, 16, true},       {Tiling::morton, 16, true},       {Tiling::block_linear, 1, true},
                            {Tiling::block_linear, 4, false}, {Tiling::block_linear, 16, true}, {Tiling::block_linear, 32, false}};

}  // namespace

TEST(Tiling, ThereAndBackForEveryFormatAndOddSizes) {
    for (const auto& spec : specs)
        for (const auto& f : all_formats())
            for (auto [w, h] : {std::pair{64u, 64u}, {1u, 1u}, {37u, 5u}, {130u, 67u}, {4u, 300u}}) {
                const auto rows = random_bytes(static_cast<std::size_t>(level_bytes(f.format, w, h)), w + h);
                const auto need = static_cast<std::size_t>(tiled_bytes(spec, f.format, w, h));
                const auto noise = random_bytes(need, 3);
                const auto tiled = tile(spec, f.format, w, h, rows, noise);
                ASSERT_TRUE(tiled);
                ASSERT_EQ(tiled->size(), need);
                ASSERT_EQ(*untile(spec, f.format, w, h, *tiled), rows) << f.name << " " << w << "×" << h;
                // What was there between the texels stays: tiling what was untiled gives the same bytes.
                ASSERT_EQ(*tile(spec, f.format, w, h, *untile(spec, f.format, w, h, noise), noise), noise) << f.name;
            }
}

TEST(Tiling, EveryBlockHasItsOwnPlaceInside) {
    for (const auto& spec : specs)
        for (auto [format, w, h] : {std::tuple{Format::BC1, 100u, 52u},
                                    {Format::BC7, 64u, 64u},
                                    {Format::RGBA8, 33u, 70u},
                                    {Format::RGB8, 21u, 9u},
                                    {Format::R8, 128u, 16u}}) {
            const auto& f = info(format);
            std::set<std::uint64_t> places;
            const auto across = (w + f.block_width - 1u) / f.block_width, down = (h + f.block_height - 1u) / f.block_height;
            for (std::uint32_t y = 0; y < down; ++y)
                for (std::uint32_t x = 0; x < across; ++x) {
                    const auto at = tiled_offset(spec, format, w, h, x, y);
                    EXPECT_TRUE(places.insert(at).second);
                    EXPECT_LT(at, tiled_bytes(spec, format, w, h));
                }
        }
}

TEST(Tiling, MortonOrderIsTheInterleavingOfBits) {
    // G. M. Morton, "A Computer Oriented Geodetic Data Base and a New Technique in File Sequencing", IBM 1966: x = 3 (011), y = 5 (101)
    // give 100111.
    const TilingSpec spec{Tiling::morton};
    EXPECT_EQ(tiled_offset(spec, Format::R8, 8, 8, 3, 5), 0b100111u);
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 64; ++x) {
            std::uint64_t z = 0;
            for (unsigned bit = 0; bit < 6; ++bit)
                z |= std::uint64_t{x >> bit & 1} << (2 * bit) | std::uint64_t{y >> bit & 1} << (2 * bit + 1);
            ASSERT_EQ(tiled_offset(spec, Format::RGBA8, 64, 64, x, y), z * 4);
        }
    // common practice for oblong textures: squares in Z-order one after the other.
    EXPECT_EQ(tiled_offset(spec, Format::R8, 16, 4, 4, 0), 16u);
    EXPECT_EQ(tiled_offset(spec, Format::R8, 4, 16, 0, 5), 18u);
    EXPECT_EQ(tiled_bytes(spec, Format::BC1, 36, 20), 16u * 8 * 8) << "9×5 blocks in 16×8 places";
}

TEST(Tiling, BlockLinearFollowsTheFormulaOfTheManual) {
    // Tegra X1 Technical Reference Manual, block linear surfaces, from memory, in the form it has there: inside a group of 64 × 8 bytes
    // ((x % 64) / 32) * 256 + ((y % 8) / 2) * 64 + ((x % 32) / 16) * 32 + (y % 2) * 16 + x % 16.
    for (const auto height : {1u, 2u, 4u, 8u, 16u, 32u}) {
        const TilingSpec spec{Tiling::block_linear, height, false};
        constexpr std::uint32_t w = 256, h = 300;
        for (std::uint32_t y = 0; y < h; ++y)
            for (std::uint32_t x = 0; x < w; ++x) {
                const std::uint64_t group = (y / (8 * height) * (w / 64) + x / 64) * 512ull * height + y % (8 * height) / 8 * 512ull;
                const auto inside = x % 64 / 32 * 256 + y % 8 / 2 * 64 + x % 32 / 16 * 32 + y % 2 * 16 + x % 16;
                ASSERT_EQ(tiled_offset(spec, Format::R8, w, h, x, y), group + inside) << x << " " << y << " " << height;
            }
    }
}

TEST(Tiling, SmallLevelsTakeLowerBlocks) {
    const TilingSpec spec{Tiling::block_linear, 16, true};
    EXPECT_EQ(block_height_of(spec, 1024), 16u);
    EXPECT_EQ(block_height_of(spec, 65), 16u);
    EXPECT_EQ(block_height_of(spec, 64), 8u);
    EXPECT_EQ(block_height_of(spec, 1), 1u);
    EXPECT_EQ(tiled_alignment(spec, Format::BC1, 1024, 1024), 8192u);
    EXPECT_EQ(tiled_bytes(spec, Format::BC1, 4, 4), 512u) << "a whole group for one block";
    EXPECT_FALSE(untile(spec, Format::BC1, 64, 64, Bytes(100)));
    EXPECT_FALSE(tile(spec, Format::BC1, 64, 64, Bytes(100)));
}

TEST(TiledTextures, ASheetCanSayThatLevelsAreTiled) {
    for (const std::string way : {"tiling = \"morton\"", "tiling = \"block-linear\"\nblock_height = 4"}) {
        const auto text = R"(
sheet = "texture"
name = "tiled panel"
recognize = [{ at = 0, bytes = "54494C45" }]
[header]
fields = [
  { name = "mark", type = "u32" },
  { name = "width", type = "u16", means = "width" },
  { name = "height", type = "u16", means = "height" },
  { name = "mips", type = "u8", means = "mips" },
  { name = "format", type = "u8", means = "format", values = { 1 = "BC1", 2 = "RGBA8" } },
]
[payload]
at = 16
)" + way + "\n";
        const auto sheet = parse_sheet(text, "tiled.toml");
        ASSERT_TRUE(sheet) << sheet.error().message();
        const SheetTextureKind kind(*sheet);
        const TilingSpec spec{way.find("morton") != std::string::npos ? Tiling::morton : Tiling::block_linear, 4, true};
        Bytes file = bytes_of("TILE");
        for (int v : {72, 0, 40, 0, 3, 1, 0, 0, 0, 0, 0, 0}) file.push_back(static_cast<std::byte>(v));
        std::vector<Bytes> levels;
        std::size_t padding = 0;
        for (std::uint32_t mip = 0; mip < 3; ++mip) {
            const auto w = 72u >> mip, h = 40u >> mip;
            const auto align = tiled_alignment(spec, Format::BC1, w, h);
            while ((file.size() - 16) % align) file.push_back(std::byte{0xEE}), ++padding;
            levels.push_back(*encode(Format::BC1, smooth_picture(w, h, mip)));
            const auto tiled = *tile(spec, Format::BC1, w, h, levels.back(),
                                     random_bytes(static_cast<std::size_t>(tiled_bytes(spec, Format::BC1, w, h)), 5));
            file.insert(file.end(), tiled.begin(), tiled.end());
        }
        const auto layout = kind.layout(file, file.size(), ReadLimits{});
        ASSERT_TRUE(layout) << layout.error().message();
        ASSERT_EQ(layout->surfaces.size(), 3u);
        for (std::size_t mip = 0; mip < 3; ++mip) EXPECT_EQ(*kind.bytes(file, *layout, layout->surfaces[mip]), levels[mip]) << mip;
        std::vector<SurfaceEdit> edits = {{1, levels[1]}};
        EXPECT_EQ(*kind.replace(file, *layout, edits), file) << "the same level put back changes nothing, padding neither";
        edits[0].bytes[8] ^= std::byte{1};
        const auto out = *kind.replace(file, *layout, edits);
        std::size_t changed = 0;
        for (std::size_t i = 0; i < out.size(); ++i) changed += out[i] != file[i];
        EXPECT_EQ(changed, 1u);
        EXPECT_EQ(*kind.bytes(out, *layout, layout->surfaces[1]), edits[0].bytes);
        EXPECT_TRUE(kind.layout(file, file.size() - 1, ReadLimits{})->damage) << "a chain that is cut off";
    }
    EXPECT_FALSE(parse_sheet("sheet = \"texture\"\nname = \"x\"\n[payload]\ntiling = \"spiral\"\n", "x.toml"));
}
