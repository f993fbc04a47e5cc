// KTX2 files of ours read by the npm package ktx-parse (https://www.npmjs.com/package/ktx-parse), a test-only tool that run-tests installs.
#include <gtest/gtest.h>

#include <cstdlib>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <sstream>
#include <string>
#include <vector>

#include "base/hash.h"
#include "codec/codec.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "texture/ktx2.h"

using namespace skivet;
using namespace skivet::test;

TEST(KtxParse, ReadsEveryFileWeWrite) {
    const std::string modules = node_modules_folder;
    if (!std::filesystem::exists(modules + "/ktx-parse"))
        GTEST_SKIP() << "ktx-parse is not installed (run-tests does it where the npm registry can be reached)";
    TempFolder folder;
    struct Written {
        FormatInfo format;
        TextureDesc shape;
        Bytes payload;
        std::vector<Surface> surfaces;
    };
    std::vector<Written> written;
    // One program reads them all: it takes longer to start than to read a hundred.
    std::vector<std::string> command = {"node", std::string(tests_folder) + "/reference/ktx_parse.mjs", modules};
    for (const auto& f : all_formats()) {
        // Every format as a plain chain; arrays and cubemaps where blocks make their levels uneven.
        std::vector<TextureDesc> shapes = {{f.format, 40, 24, 1, 6, 1, 1, ColorSpace::linear}};
        if (f.format == Format::BC1 || f.format == Format::ASTC_5x5 || f.format == Format::RGB8)
            shapes.insert(shapes.end(),
                          {{f.format, 16, 16, 1, 1, 1, 6, ColorSpace::linear}, {f.format, 12, 20, 1, 3, 3, 1, ColorSpace::linear}});
        for (const auto& shape : shapes) {
            std::uint64_t end = 0;
            auto surfaces = lay_out(shape, 0, MipOrder::largest_first, 1, end);
            auto payload = random_bytes(static_cast<std::size_t>(end), 9);
            const auto file = write_ktx2(shape, payload);
            if (!file) continue;  // formats KTX2 has no number for
            const auto path = folder / (std::to_string(written.size()) + ".ktx2");
            put_file(path, *file);
            command.push_back(path.string());
            written.push_back({f, shape, std::move(payload), std::move(surfaces)});
        }
    }
    EXPECT_GT(written.size(), 60u);
    const auto ran = run_program(command);
    ASSERT_EQ(ran.code, 0) << ran.output;
    std::istringstream lines(ran.output);
    for (const auto& [f, shape, payload, surfaces] : written) {
        std::string line;
        ASSERT_TRUE(std::getline(lines, line)) << f.name;
        const auto j = nlohmann::json::parse(line);
        EXPECT_EQ(j["width"], shape.width) << f.name;
        EXPECT_EQ(j["height"], shape.height);
        EXPECT_EQ(j["faces"], shape.faces);
        EXPECT_EQ(j["layers"], shape.layers > 1 ? shape.layers : 0);
        EXPECT_EQ(j["scheme"], 0);
        EXPECT_EQ(j["block"][0], f.block_width - 1);
        EXPECT_EQ(j["block"][1], f.block_height - 1);
        EXPECT_EQ(j["planeBytes"], f.block_bytes) << f.name;
        EXPECT_EQ(j["transfer"], 1) << "KHR_DF_TRANSFER_LINEAR";
        ASSERT_EQ(j["levels"].size(), shape.mips);
        for (std::uint32_t mip = 0; mip < shape.mips; ++mip) {
            Bytes level;
            for (const auto& s : surfaces)
                if (s.mip == mip)
                    level.insert(level.end(), payload.begin() + static_cast<std::ptrdiff_t>(s.offset),
                                 payload.begin() + static_cast<std::ptrdiff_t>(s.offset + s.size));
            EXPECT_EQ(j["levels"][mip]["sha256"], to_hex(sha256(level))) << f.name << " level " << mip;
        }
    }
}
