// The whole demo, made and read by programs that share no code with the core: every archive keeps its hash through an export and import of
// everything, and the stand-in game shows what was put in.
#include <gtest/gtest.h>

#include "bench/export.h"
#include "bench/fitting.h"
#include "catalog/catalog.h"
#include "delivery/vault.h"
#include "pixel/metrics.h"
#include "support/places.h"
#include "support/run_program.h"
#include "support/sources.h"
#include "support/temp_folder.h"
#include "texture/png.h"

#include <filesystem>
#include <set>
#include <string>
#include <vector>

using namespace skivet;
using namespace skivet::test;

namespace {

struct Demo : testing::Test {
    TempFolder folder;
    std::filesystem::path game;
    ReadContext context;
    std::vector<Source> sources;
    Catalog catalog;

    void SetUp() override {
        game = folder / "Brindle Fair";
        std::filesystem::copy(fairground_folder, game,
                              std::filesystem::copy_options::recursive);  // made by fair-press when the tests were built
        ASSERT_TRUE(add_sheets_in(context, sheets_folder).empty());
        auto ring = std::make_shared<KeyRing>();
        ring->add(*parse_key("cashbox=@" + (game / "cashbox key.txt").string()));
        context.keys = ring;
        sources = open_sources(context, sources_of(context, game));
        Progress progress;
        catalog = *build_catalog(context, sources, progress);
    }
    Image shot(int* code = nullptr, std::string* log = nullptr) {
        const auto ran = run_program({our_program("fair-stall"), game.string(), "--shot", (folder / "shot.png").string()});
        if (code) *code = ran.code;
        if (log) *log = ran.output;
        if (ran.code != 0) return {};
        return *read_png(get_file(folder / "shot.png"), ReadLimits{});
    }
    const CatalogItem& item(const std::string& name) {
        for (const auto& i : catalog.items)
            if (i.name() == name && i.is_texture()) return i;
        throw std::runtime_error(name);
    }
};

}  // namespace

TEST_F(Demo, HasAFairgroundOfTextures) {
    std::size_t textures = 0;
    for (const auto& i : catalog.items) textures += i.is_texture();
    EXPECT_GE(textures, 90u);
    ASSERT_EQ(catalog.problems.size(), 1u) << "the one texture that lacks a file";
    EXPECT_NE(catalog.problems[0].message().find("gate.step0 is missing"), std::string::npos);
    std::uintmax_t bytes = 0;
    for (const auto& file : std::filesystem::recursive_directory_iterator(game))
        if (file.is_regular_file()) bytes += file.file_size();
    EXPECT_LT(bytes, 12u << 20);
    EXPECT_EQ(sources.size(), 11u);
    for (const auto& source : sources) EXPECT_FALSE(source.error) << source.error->message();
    std::set<Format> formats;
    for (const auto& i : catalog.items) formats.insert(i.desc.format);
    for (const auto format : {Format::BC1, Format::BC2, Format::BC3, Format::BC4, Format::BC5, Format::BC6H, Format::BC7, Format::ETC2_RGB,
                              Format::ASTC_4x4, Format::RGBA16F})
        EXPECT_TRUE(formats.contains(format)) << info(format).name;
}

TEST_F(Demo, IsTheSameEveryTime) {
    const auto again = folder / "again";
    ASSERT_EQ(run_program({our_program("fair-press"), again.string()}).code, 0);
    for (const char* name : {"midway.zip", "organ.zip", "rides.crate", "autumn.crate", "sideshow.bale", "lanterns-01.stock",
                             "cashbox.strongbox", "puppets.hamper", "weathered.zip", "manifest.txt"})
        EXPECT_EQ(hash_of_file(game / name), hash_of_file(again / name)) << name;
}

TEST_F(Demo, EverythingExportedAndBroughtBackUnchangedLeavesEveryArchiveAlone) {
    for (auto as : {ExportAs::png, ExportAs::dds})
        for (std::size_t s = 0; s < sources.size(); ++s) {
            std::vector<AddressedBytes> items;
            for (const auto& entry : catalog.items) {
                if (entry.source != s || !entry.is_texture()) continue;
                const auto original = open_texture(context, sources[s], entry);
                if (entry.path() == "weathered/nail.dds") {  // its data is damaged, and says so
                    ASSERT_FALSE(original);
                    continue;
                }
                ASSERT_TRUE(original) << entry.path() << original.error().message();
                if (entry.path() == "carnival/gate.stp") {  // one of its files is missing
                    EXPECT_TRUE(original->layout.damage);
                    continue;
                }
                if (as == ExportAs::png && original->layout.desc.depth > 1) continue;  // volumes come back as texture files
                auto exported = export_as(*original, as);
                if (!exported && as == ExportAs::dds) exported = export_as(*original, ExportAs::ktx2);  // formats DDS does not have
                ASSERT_TRUE(exported) << entry.path() << ": " << exported.error().message();
                const auto edited = read_edited(*exported, context.limits);
                ASSERT_TRUE(edited);
                auto fitted = fit(*original, *edited, {});
                ASSERT_TRUE(fitted) << entry.path();
                ASSERT_FALSE(fitted->blocked()) << entry.path() << ": " << fitted->findings[0].headline;
                EXPECT_EQ(fitted->file, original->file) << entry.path();
                items.push_back({entry.inner, std::move(fitted->file)});
            }
            const auto plan = plan_replacements(context, *sources[s].container, std::move(items));
            ASSERT_TRUE(plan) << plan.error().message();
            EXPECT_TRUE(plan->empty()) << sources[s].path << " would get " << plan->bytes_written() << " bytes";
        }
}

TEST_F(Demo, TheGameReadsEveryTextureAsWeDo) {
    std::string log;
    int code = 0;
    const auto picture = shot(&code, &log);
    EXPECT_EQ(code, 0);
    EXPECT_EQ(log.find("wrong"), std::string::npos) << log;
    for (const auto& t : picture.texels) ASSERT_FALSE(t == (Texel{255, 0, 255, 255})) << "a magenta texel is a missing texture";
}

TEST_F(Demo, AnEditInANestedCrateShowsInTheGameAndIsUndone) {
    const auto before_hash = hash_of_file(game / "organ.zip");
    const auto before = shot();
    const auto& pipes = item("pipes");
    ASSERT_EQ(pipes.inner.size(), 2u) << "a crate inside a ZIP";
    const auto original = *open_texture(context, sources[pipes.source], pipes);
    auto image = *original.decode(0);
    for (std::uint32_t y = 90; y < 150; ++y)
        for (std::uint32_t x = 60; x < 190; ++x) image.at(x, y) = {20, 200, 40, 255};
    const auto fitted = *fit(original, *read_edited(*write_png(image), context.limits), {});
    std::vector<AddressedBytes> items;
    items.push_back({pipes.inner, fitted.file});
    const auto plan = *plan_replacements(context, *sources[pipes.source].container, std::move(items));
    PosixFiles files;
    Vault vault(folder / "vault", files);
    ASSERT_TRUE(vault.deliver(plan, {"pipes", sources[pipes.source].path, pipes.inner}, 1));
    int code = 0;
    std::string log;
    const auto after = shot(&code, &log);
    ASSERT_EQ(code, 0) << log;
    EXPECT_EQ(log.find("organ"), std::string::npos) << log;
    // The organ's pipes stand at 1062…1228 × 340…510 in the scene; the green patch is in their middle.
    const auto& spot = after.at(1062 + 166 / 2, 340 + 170 * 120 / 256);
    EXPECT_GT(spot[1], 150);
    EXPECT_LT(spot[0], 60);
    EXPECT_EQ(difference(before, after).max_error > 100, true);
    ASSERT_EQ(*vault.restore(sources[pipes.source].path), 1u);
    EXPECT_EQ(hash_of_file(game / "organ.zip"), before_hash);
    EXPECT_EQ(shot(), before);
}

TEST_F(Demo, TheStandInGameIsUnforgiving) {
    // Were it not, the tests above would prove little: a texture of the wrong size is refused and shown as a checker.
    ReadContext plain = context;
    const auto source = *open_source(plain, game / "midway.zip");
    auto wrong = *source->read(*source->find("ground/tiles.dds"), context.limits);
    store_le(wrong.data() + 28, 3u);
    const auto plan = *source->plan(std::vector<Replacement>{{*source->find("booths/shooting/target.dds"), wrong}}, context.limits);
    PosixFiles files;
    ASSERT_TRUE(Vault(folder / "vault", files).deliver(plan, {"t", game / "midway.zip", {}}, 1));
    std::string log;
    const auto picture = shot(nullptr, &log);
    EXPECT_NE(log.find("booths/shooting/target.dds: wrong number of levels"), std::string::npos) << log;
    EXPECT_NE(std::find(picture.texels.begin(), picture.texels.end(), Texel{255, 0, 255, 255}), picture.texels.end());
}
