// Much of everything: memory that does not grow with what is in a game or comes into it. In processes of their own, by the memory they took
// at most; benchmarks/README.md has the time.
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "base/file_write.h"
#include "container/zip.h"
#include "hostile/cost.h"
#include "hostile/hostile_files.h"
#include "support/pictures.h"
#include "support/sanitized.h"

using namespace skivet;
using namespace skivet::test;
namespace fs = std::filesystem;

TEST(Load, ATextureOfTheIndexTakesTwoKilobytes) {
    constexpr long textures = 40'000;
    TempFolder folder;
    put_file(folder / "game.zip", zip_of_small_textures(textures, "rides/thing%.dds"));
    const auto mapped = static_cast<long>(fs::file_size(folder / "game.zip") >> 20);
    for (const auto& words :
         std::vector<std::string>{"roles", "roles --index " + (folder / "index.sqlite").string(), "list --textures --json"}) {
        const auto cost = cost_of(words + " --quiet " + (folder / "game.zip").string());
        EXPECT_EQ(cost.code, 0) << words << '\n' << cost.said.substr(0, 500);
        if (!sanitized) EXPECT_LE(cost.megabytes, own_megabytes + mapped + textures * 2 / 1024) << words;
    }
}

TEST(Load, WhatIsAppliedAtOnceIsNotHeld) {
    constexpr unsigned textures = 160;
    TempFolder folder;
    std::vector<ZipItem> items;
    for (unsigned i = 0; i < textures; ++i) {
        auto dds = make_dds(Format::RGBA8, 512, 512, 1);  // a megabyte
        const auto texels = random_bytes(dds.size() - 128, i);
        std::copy(texels.begin(), texels.end(), dds.begin() + 128);
        items.push_back({fmt::format("t/a{:03}.dds", i), dds});
        const auto other = random_bytes(dds.size() - 128, 1000 + i);
        std::copy(other.begin(), other.end(), dds.begin() + 128);
        put_file(folder / fmt::format("in/t/a{:03}.dds", i), dds);
    }
    put_file(folder / "game.zip", make_zip(items));
    const auto cost = cost_of("apply " + (folder / "in").string() + " --into " + (folder / "game.zip").string() + " --vault " +
                              (folder / "vault").string());
    EXPECT_EQ(cost.code, 0) << cost.said.substr(0, 500);
    if (!sanitized) EXPECT_LE(cost.megabytes, own_megabytes + 100) << "160 MB were written";
    const auto zip = ZipContainer::open(FileView::open(folder / "game.zip").value(), ReadLimits{}).value();
    for (unsigned i = 0; i < textures; i += 53)
        EXPECT_EQ(*zip->read(*zip->find(fmt::format("t/a{:03}.dds", i)), ReadLimits{}),
                  *read_file(folder / fmt::format("in/t/a{:03}.dds", i), 4u << 20));
}
