// The thumbnailer as a file manager calls it: https://specifications.freedesktop.org/thumbnail-spec/ (sizes, PNG, ratio kept, nothing
// enlarged) and the desktop's entry for it.
#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <random>
#include <string>

#include "pixel/alpha_use.h"
#include "pixel/metrics.h"
#include "support/pictures.h"
#include "support/places.h"
#include "support/run_program.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Thumbnailer : testing::Test {
    TempFolder folder;
    Ran run(const std::string& name, const std::string& size = "256") {
        return run_program({our_program("skivet-thumbnailer"), (folder / name).string(), (folder / "out.png").string(), "-s", size});
    }
    Image picture() { return *read_png(get_file(folder / "out.png"), ReadLimits{}); }
};

}  // namespace

TEST_F(Thumbnailer, KeepsTheRatioAndNeverEnlarges) {
    put_file(folder / "wide.dds", make_dds(Format::BC1, 1024, 256));
    for (const unsigned size : {128u, 256u, 512u}) {  // "normal", "large", "x-large"
        const auto ran = run("wide.dds", std::to_string(size));
        ASSERT_EQ(ran.code, 0) << ran.output;
        EXPECT_EQ(picture().width, size);
        EXPECT_EQ(picture().height, size / 4);
    }
    put_file(folder / "tiny.dds", make_dds(Format::BC3, 32, 16));
    ASSERT_EQ(run("tiny.dds").code, 0);
    EXPECT_EQ(picture().width, 32u);
    EXPECT_EQ(picture().height, 16u);
}

TEST_F(Thumbnailer, ShowsWhatTheTextureShows) {
    const auto original = smooth_picture(256, 256, 3);
    TextureDesc d{Format::BC7, 256, 256, 1, 1, 1, 1, ColorSpace::srgb};
    put_file(folder / "a.dds", *write_dds(d, *encode(Format::BC7, original)));
    ASSERT_EQ(run("a.dds").code, 0);
    EXPECT_GT(difference(picture(), original).psnr_rgb, 35);
    // Alpha of 0 everywhere is no transparency: nothing would be seen.
    auto clear = original;
    for (auto& texel : clear.texels) texel[3] = 0;
    put_file(folder / "b.dds", *write_dds(d, *encode(Format::BC7, clear)));
    ASSERT_EQ(run("b.dds").code, 0);
    EXPECT_TRUE(all_opaque(picture()));
}

TEST_F(Thumbnailer, RefusesWhatItCannotShowAndLeavesNothing) {
    EXPECT_EQ(run_program({our_program("skivet-thumbnailer")}).code, 2);
    EXPECT_EQ(run("missing.dds").code, 3);
    put_file(folder / "text.dds", bytes_of("just words"));
    EXPECT_EQ(run("text.dds").code, 3);
    put_file(folder / "fine.dds", make_dds(Format::BC1, 64, 64));
    for (const char* size : {"0", "99999", "12x", ""}) EXPECT_EQ(run("fine.dds", size).code, 2) << size;
    EXPECT_FALSE(std::filesystem::exists(folder / "out.png"));
    EXPECT_EQ(run_program({our_program("skivet-thumbnailer"), "--help"}).code, 0);
}

TEST_F(Thumbnailer, HostileFilesEndWithAnErrorAndNeverWithASignal) {
    std::mt19937 random(18);
    const Bytes seeds[] = {make_dds(Format::BC7, 64, 64), make_dds(Format::BC1, 128, 32), *write_png(smooth_picture(40, 30, 1))};
    const char* names[] = {"a.dds", "b.dds", "c.png"};
    for (int round = 0; round < 60; ++round) {
        auto bytes = seeds[round % 3];
        for (int i = 0; i < 6; ++i) bytes[random() % std::min<std::size_t>(bytes.size(), 148)] = std::byte(random());
        if (round % 4 == 0) bytes.resize(random() % bytes.size());
        put_file(folder / names[round % 3], bytes);
        const auto ran = run(names[round % 3]);
        EXPECT_TRUE(ran.code == 0 || ran.code == 3) << ran.code << " in round " << round << ": " << ran.output;
    }
    // A header that claims 16,384 × 16,384 texels with nothing behind it.
    auto huge = make_dds(Format::RGBA8, 16, 16);
    for (const std::size_t at : {12u, 16u}) huge[at] = std::byte{0}, huge[at + 1] = std::byte{0x40};
    put_file(folder / "huge.dds", huge);
    EXPECT_EQ(run("huge.dds").code, 3);
}

TEST(ThumbnailerEntry, NamesTheProgramAndTheTypesOfTextures) {
    std::ifstream file(std::string(packaging_folder) + "/skivet.thumbnailer");
    const std::string text((std::istreambuf_iterator<char>(file)), {});
    for (const char* part : {"[Thumbnailer Entry]\n", "TryExec=skivet-thumbnailer\n", "Exec=skivet-thumbnailer %i %o -s %s\n",
                             "image/x-dds;", "image/ktx;", "image/ktx2;"})
        EXPECT_NE(text.find(part), std::string::npos) << part;
}
