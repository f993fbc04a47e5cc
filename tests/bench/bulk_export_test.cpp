// Many textures out at once, and edits that several textures follow.
#include <gtest/gtest.h>

#include <fmt/format.h>
#include <filesystem>
#include <set>
#include <string>
#include <thread>
#include <vector>

#include "base/file_write.h"
#include "bench/bulk_export.h"
#include "bench/export_manifest.h"
#include "bench/follow.h"
#include "codec/paint_form.h"
#include "pixel/metrics.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"
#include "texture/tga.h"
#include "texture/tiff.h"

using namespace skivet;
using namespace skivet::test;

namespace {

Image paint_of(const TextureFile& texture) { return paint_form(texture.layout.desc.format, *texture.decode(0)); }

struct Bulk : testing::Test {
    TempFolder folder;
    ReadContext context;
    ExportProgress progress;
    ExportItem item(const std::string& inner, unsigned seed = 1, const std::string& set = {}, Format format = Format::BC1) {
        const auto file = make_dds(format, 32, 32, 0, seed);
        const auto texture = *TextureFile::open(context.textures, file, inner, context.limits);
        return {inner,
                set,
                texture.layout.desc,
                file.size(),
                [texture]() -> Result<TextureFile> { return texture; },
                [file]() -> Result<Bytes> { return file; }};
    }
    std::set<std::string> files() {
        std::set<std::string> out;
        for (const auto& f : std::filesystem::recursive_directory_iterator(folder.path()))
            if (f.is_regular_file() && f.path().filename() != ExportManifest::file_name)
                out.insert(f.path().lexically_relative(folder.path()).string());
        return out;
    }
};

}  // namespace

TEST_F(Bulk, FoldersAreKeptLeftOutOrMadeForSets) {
    const std::vector<ExportItem> items = {item("a/horse_tint.dds", 1, "a/horse"), item("b/horse_tint.dds"),
                                           item("a/horse_bump.dds", 2, "a/horse"), item("a/HORSE_tint.ktx2", 3)};
    const auto names = [&](FolderShape shape) {
        ExportWish wish;
        wish.shape = shape;
        std::vector<std::string> out;
        for (const auto& n : plan_export(items, wish).names) out.push_back(n.string());
        return out;
    };
    EXPECT_EQ(names(FolderShape::kept),
              (std::vector<std::string>{"a/horse_tint.png", "b/horse_tint.png", "a/horse_bump.png", "a/HORSE_tint_2.png"}))
        << "names that differ only in case meet on other systems";
    EXPECT_EQ(names(FolderShape::flat),
              (std::vector<std::string>{"horse_tint.png", "horse_tint_2.png", "horse_bump.png", "HORSE_tint_3.png"}));
    EXPECT_EQ(names(FolderShape::per_set),
              (std::vector<std::string>{"a/horse/horse_tint.png", "b/horse_tint.png", "a/horse/horse_bump.png", "a/HORSE_tint.png"}));
    EXPECT_EQ(plan_export(std::vector{item("a:b/c?d.dds")}, {}).names[0].string(), "a_b/c_d.png") << "what FAT cannot hold";
}

TEST_F(Bulk, EveryWayWritesWhatItSays) {
    const std::vector<ExportItem> items = {item("x/one.dds", 4)};
    const auto expected = paint_of(*items[0].load());
    for (const auto& [as, ending] : {std::pair{ExportAs::picture, ".png"},
                                     {ExportAs::tga, ".tga"},
                                     {ExportAs::tiff, ".tiff"},
                                     {ExportAs::dds, ".dds"},
                                     {ExportAs::ktx2, ".ktx2"},
                                     {ExportAs::raw, ".dds"},
                                     {ExportAs::exr, ".exr"}}) {
        ExportWish wish;
        wish.as = as;
        const auto to = folder / std::string(name_of(as));
        const auto report = run_export(items, wish, to, progress);
        ASSERT_TRUE(report) << report.error().message();
        EXPECT_EQ(report->written, 1u);
        const auto file = get_file(to / ("x/one" + std::string(ending)));
        EXPECT_EQ(report->bytes, file.size());
        const auto back = TextureFile::open(context.textures, file, "one" + std::string(ending), context.limits);
        ASSERT_TRUE(back) << back.error().message();
        if (as == ExportAs::raw) EXPECT_EQ(file, *items[0].raw());
        if (as != ExportAs::exr) EXPECT_EQ(paint_of(*back), expected) << name_of(as);
    }
}

TEST_F(Bulk, AFailureIsLoggedAndTheRestIsWritten) {
    auto broken = item("b.dds");
    broken.load = []() -> Result<TextureFile> { return fail(ErrorCode::damaged, "needs 5,592 bytes, has 4,096"); };
    const std::vector<ExportItem> items = {item("a.dds"), broken, item("c.dds")};
    const auto report = *run_export(items, {}, folder.path(), progress);
    EXPECT_EQ(report.written, 2u);
    ASSERT_EQ(report.failed.size(), 1u);
    EXPECT_EQ(report.failed[0].inner, "b.dds");
    EXPECT_EQ(as_text(get_file(report.log)), "b.dds: needs 5,592 bytes, has 4,096\n");
    EXPECT_EQ(files(), (std::set<std::string>{"a.png", "c.png", "export log.txt"}));
}

TEST_F(Bulk, CanceledItGoesOnWhereItStopped) {
    std::atomic<int> loads{0};
    std::vector<ExportItem> items;
    for (int i = 0; i < 12; ++i) {
        items.push_back(item(fmt::format("{}.dds", i), unsigned(i)));
        items.back().load = [&, inner = items.back().load]() -> Result<TextureFile> {
            if (++loads == 5) progress.cancel.cancel();
            return inner();
        };
    }
    EXPECT_EQ(run_export(items, {}, folder.path(), progress, 1).error().code, ErrorCode::canceled);
    const auto there = files().size();
    EXPECT_GE(there, 4u);
    EXPECT_LT(there, 12u);
    ExportWish wish;
    wish.resume = true;
    ExportProgress again;
    const auto report = *run_export(items, wish, folder.path(), again, 1);
    EXPECT_EQ(report.skipped, there);
    EXPECT_EQ(report.written, 12 - there);
    EXPECT_EQ(files().size(), 12u);
}

TEST_F(Bulk, PausedItWaitsAndGoesOn) {
    const std::vector<ExportItem> items = {item("a.dds"), item("b.dds")};
    progress.gate.pause();
    EXPECT_TRUE(progress.gate.paused());
    std::thread work([&] { EXPECT_TRUE(run_export(items, {}, folder.path(), progress)); });
    while (progress.total == 0) std::this_thread::yield();
    EXPECT_EQ(progress.done, 0u);
    progress.gate.go_on();
    work.join();
    EXPECT_EQ(progress.done, 2u);
    // A pause does not keep a cancel out.
    ExportProgress other;
    other.gate.pause();
    other.cancel.cancel();
    EXPECT_EQ(run_export(items, {}, folder.path(), other).error().code, ErrorCode::canceled);
}

TEST_F(Bulk, FilesTooLargeForACardAreCutAndReadAsOne) {
    const std::vector<ExportItem> items = {item("big.dds", 3)};
    ExportWish wish;
    wish.as = ExportAs::raw;
    wish.part_bytes = 200;
    ASSERT_TRUE(run_export(items, wish, folder.path(), progress));
    const auto whole = *items[0].raw();
    EXPECT_EQ(files().size(), (whole.size() + 199) / 200);
    Bytes joined;
    for (const auto& name : files()) {
        const auto part = get_file(folder / name);
        EXPECT_LE(part.size(), 200u);
        joined.insert(joined.end(), part.begin(), part.end());
    }
    EXPECT_EQ(joined, whole);
    EXPECT_EQ(parts_of(folder / "big.dds.000")->size(), files().size()) << "our own reader takes them for one";
    EXPECT_EQ(fat32_part, 4294967295u);  // common practice: 4 GiB less one byte
}

TEST_F(Bulk, AFileThatLacksAPartIsWrittenAgain) {
    const std::vector<ExportItem> items = {item("big.dds", 3)};
    ExportWish wish;
    wish.as = ExportAs::raw;
    wish.part_bytes = 200;
    wish.resume = true;
    std::filesystem::create_directories(folder / "big.dds.001");  // that part cannot be written
    EXPECT_EQ(run_export(items, wish, folder.path(), progress)->failed.size(), 1u);
    std::filesystem::remove(folder / "big.dds.001");
    ExportProgress again;
    const auto report = *run_export(items, wish, folder.path(), again);
    EXPECT_EQ(report.skipped, 0u) << "a torso is not taken for the whole";
    EXPECT_EQ(report.written, 1u);
}

TEST_F(Bulk, TheDiskIsLookedAtFirst) {
    auto huge = item("huge.dds");
    huge.desc.width = huge.desc.height = 1u << 24;
    huge.desc.layers = 4096;
    const auto refused = run_export(std::vector{huge}, {}, folder.path(), progress);
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, ErrorCode::no_space);
    EXPECT_NE(refused.error().message().find("are free"), std::string::npos);
    EXPECT_TRUE(files().empty());
}

TEST(PictureFiles, TgaAndTiffHoldWhatWasGiven) {
    const ReadContext context;
    for (const bool alpha : {false, true})
        for (const auto& [w, h] : {std::pair{1u, 1u}, {37u, 5u}, {64u, 64u}}) {
            const auto picture = smooth_picture(w, h, 3, alpha);
            for (const auto as : {ExportAs::tga, ExportAs::tiff}) {
                const auto name = as == ExportAs::tga ? "x.tga" : "x.tiff";
                const auto back = TextureFile::open(context.textures, *picture_file(picture, as, true), name, context.limits);
                ASSERT_TRUE(back) << back.error().message();
                EXPECT_EQ(*back->decode(0), picture) << name << w;
            }
        }
    EXPECT_EQ(write_tga(Image(70'000, 1)).error().code, ErrorCode::unsupported);
    ImageF deep(3, 2);
    for (std::size_t i = 0; i < deep.texels.size(); ++i) deep.texels[i] = {static_cast<float>(i) / 7, 0.123456f, 1, 1};
    const auto tiff = *TextureFile::open(context.textures, *write_tiff16(deep), "x.tiff", context.limits);
    const auto wide = *tiff.decode_wide(0);
    for (std::size_t i = 0; i < deep.texels.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c) EXPECT_NEAR(wide.texels[i][c], deep.texels[i][c], 1.0 / 65535);
}

namespace {

TextureFile texture_of(const Image& picture, Format format) {
    const ReadContext context;
    TextureDesc d{format, picture.width, picture.height, 1, 1, 1, 1, ColorSpace::unknown};
    return *TextureFile::open(context.textures, *write_dds(d, *encode(format, picture)), "x.dds", context.limits);
}

}  // namespace

TEST(Follow, WhatWasNotPaintedStaysTheFollowersOwn) {
    const auto picture = smooth_picture(64, 64, 8);
    const auto leader = texture_of(picture, Format::BC7), other_format = texture_of(picture, Format::BC1);
    Image halved(32, 32);
    for (std::uint32_t y = 0; y < 32; ++y)
        for (std::uint32_t x = 0; x < 32; ++x) halved.at(x, y) = picture.at(2 * x, 2 * y);
    const auto smaller = texture_of(halved, Format::BC1);
    EditedFile edited;
    const auto before = *leader.decode(0);
    edited.image = before;
    for (std::uint32_t y = 16; y < 32; ++y)
        for (std::uint32_t x = 16; x < 32; ++x) edited.image.at(x, y) = {250, 10, 20, 255};
    const auto same = *follow_edit(before, edited.image, other_format);
    const auto own = *other_format.decode(0);
    for (std::uint32_t y = 0; y < 64; ++y)
        for (std::uint32_t x = 0; x < 64; ++x) {
            const bool painted = x >= 16 && x < 32 && y >= 16 && y < 32;
            EXPECT_EQ(same.image.at(x, y), painted ? (Texel{250, 10, 20, 255}) : own.at(x, y)) << x << ' ' << y;
        }
    const auto less = *follow_edit(before, edited.image, smaller);
    const auto small_before = *smaller.decode(0);
    for (std::uint32_t y = 0; y < 32; ++y)
        for (std::uint32_t x = 0; x < 32; ++x) {
            const bool painted = x >= 8 && x < 16 && y >= 8 && y < 16;
            EXPECT_EQ(less.image.at(x, y), painted ? (Texel{250, 10, 20, 255}) : small_before.at(x, y)) << x << ' ' << y;
        }
    // Only the painted blocks of the smaller copy are new.
    const auto fitted = *fit(smaller, less, {});
    EXPECT_EQ(fitted.levels[0].blocks - fitted.levels[0].kept, 4u);
    edited.image = Image(8, 8);
    EXPECT_EQ(follow_edit(before, edited.image, smaller).error().code, ErrorCode::unfit);
}
