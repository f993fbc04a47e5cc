// Cubemaps as six files, arrays as numbered ones.
#include <gtest/gtest.h>
#include <filesystem>
#include <string>
#include <vector>

#include "bench/cube.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/exr.h"
#include "texture/png.h"
#include "workflow/saves.h"

using namespace skivet;
using namespace skivet::test;

namespace {

/// A DDS file whose parts are different pictures, with two levels each.
Bytes parts_file(Format format, std::uint32_t side, std::uint32_t layers, std::uint32_t faces) {
    const TextureDesc d{format, side, side, 1, 2, layers, faces, ColorSpace::unknown};
    Bytes payload;
    for (std::uint32_t i = 0; i < layers * faces; ++i) {
        const TextureDesc one{format, side, side, 1, 2, 1, 1, ColorSpace::unknown};
        const auto levels = *encode_levels(smooth_picture(side, side, i + 1), one, {});
        payload.insert(payload.end(), levels.begin(), levels.end());
    }
    return *write_dds(d, payload);
}

struct Parts : testing::Test {
    TempFolder folder;
    ReadContext context;
    Project project;

    void SetUp() override {
        const TextureDesc light{Format::RGBA16F, 16, 16, 1, 1, 1, 6, ColorSpace::unknown};
        put_file(folder / "game.zip", make_zip({{"sky/cube.dds", parts_file(Format::BC1, 32, 1, 6)},
                                                {"ground/layers.dds", parts_file(Format::BC3, 32, 3, 1)},
                                                {"sky/light.dds", *write_dds(light, Bytes(6 * 16 * 16 * 8))},
                                                {"one.dds", make_dds(Format::BC1, 16, 16)}}));
        project = *open_project(folder / "project");
    }
    PieceId take(const std::string& path, const TakeAs& as) {
        auto taken = take_pieces(context, project, std::vector<Address>{{folder / "game.zip", {path}}}, as, 1);
        for (const auto& error : taken.errors) ADD_FAILURE() << error.message();
        return keep_taken(project, std::move(taken.pieces)).front();
    }
    const Piece& piece(PieceId id) { return *project.piece(id); }
    std::filesystem::path part(PieceId id, const std::string& name) {
        for (const auto& one : piece(id).more)
            if (one.part == name) return project.work() / one.file;
        return project.work() / piece(id).file;
    }
    void paint(const std::filesystem::path& file) {
        auto image = *read_png(get_file(file), ReadLimits{});
        image.at(9, 9) = {255, 0, 255, 255};
        put_file(file, *write_png(image));
    }
    Fit fitted(PieceId id) {
        auto out = fit_piece(context, project, piece(id));
        EXPECT_TRUE(out) << (out ? "" : out.error().message());
        return out ? *out : Fit{};
    }
    /// Layers and faces with a surface that differs.
    std::set<std::pair<std::uint32_t, std::uint32_t>> changed(PieceId id, const Fit& fit) {
        const auto original = *original_texture(context, project, piece(id));
        const TextureFile now{original.kind, fit.layout, fit.file};
        std::set<std::pair<std::uint32_t, std::uint32_t>> out;
        for (const auto& s : original.layout.surfaces)
            if (*original.surface_bytes(s) != *now.surface_bytes(s)) out.insert({s.layer, s.face});
        return out;
    }
};

using Places = std::set<std::pair<std::uint32_t, std::uint32_t>>;

}  // namespace

TEST_F(Parts, ACubemapIsSixFilesAndAnEditChangesItsFaceAlone) {
    const auto id = take("sky/cube.dds", {ExportAs::picture, AlphaWay::kept, true});
    ASSERT_EQ(piece(id).more.size(), 5u);
    EXPECT_EQ(piece(id).file.filename(), "cube.dds.px.png");
    EXPECT_EQ(piece(id).more[4].file.filename(), "cube.dds.nz.png");
    EXPECT_EQ(fitted(id).file, original_texture(context, project, piece(id))->file) << "nothing was painted";
    paint(part(id, "ny"));
    SeenFiles seen;
    const auto look = look_at_files(project, seen, 2);
    EXPECT_EQ(note_look(project, look), std::vector{id});
    EXPECT_TRUE(look.others.empty());
    const auto fit = fitted(id);
    EXPECT_EQ(changed(id, fit), (Places{{0, 3}}));
    EXPECT_EQ(fit.change.changed_texels, 1u);
    // Kept with the project.
    ASSERT_TRUE(save_project(project));
    EXPECT_EQ(open_project(project.folder)->piece(id)->as, piece(id).as);
}

TEST_F(Parts, AnArrayIsNumberedFilesAndAnEditChangesItsLayerAlone) {
    const auto id = take("ground/layers.dds", {ExportAs::picture, AlphaWay::kept, true});
    ASSERT_EQ(piece(id).more.size(), 2u);
    EXPECT_EQ(piece(id).as.as, ExportAs::png) << "in one file an array would go out as DDS";
    EXPECT_EQ(piece(id).file.filename(), "layers.dds.layer0.png");
    EXPECT_EQ(fitted(id).file, original_texture(context, project, piece(id))->file);
    paint(part(id, "layer2"));
    EXPECT_EQ(changed(id, fitted(id)), (Places{{2, 0}}));
    paint(part(id, "layer0"));
    EXPECT_EQ(changed(id, fitted(id)), (Places{{0, 0}, {2, 0}}));
    // One of another size than the others: said, and nothing is made of it.
    put_file(part(id, "layer1"), *write_png(smooth_picture(16, 16, 1)));
    const auto refused = fit_piece(context, project, piece(id));
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().code, ErrorCode::unfit);
    EXPECT_NE(refused.error().message().find("layers.dds.layer1.png is 16×16, layers.dds.layer0.png 32×32"), std::string::npos)
        << refused.error().message();
    std::filesystem::remove(part(id, "layer1"));
    EXPECT_FALSE(fit_piece(context, project, piece(id)));
}

TEST_F(Parts, FloatsKeepTheirValues) {
    const auto id = take("sky/light.dds", {ExportAs::picture, AlphaWay::kept, true});
    EXPECT_EQ(piece(id).as.as, ExportAs::exr);
    ASSERT_EQ(piece(id).more.size(), 5u);
    ImageF bright(16, 16);
    for (auto& t : bright.texels) t = {12.5f, 0.25f, 3, 1};
    put_file(part(id, "py"), *write_exr(bright, true, false, true));
    const auto fit = fitted(id);
    EXPECT_EQ(changed(id, fit), (Places{{0, 2}}));
    const TextureFile now{TextureKinds::standard().recognize(fit.file, "x.dds"), fit.layout, fit.file};
    EXPECT_EQ(now.decode_wide(0, 0, 2)->at(3, 3), (TexelF{12.5f, 0.25f, 3, 1}));
}

TEST_F(Parts, WhatHasNoneOrIsOneFileAnywayStaysOne) {
    EXPECT_TRUE(piece(take("one.dds", {ExportAs::png, AlphaWay::kept, true})).more.empty());
    const auto whole = take("sky/cube.dds", {ExportAs::dds, AlphaWay::kept, true});
    EXPECT_TRUE(piece(whole).more.empty());
    EXPECT_FALSE(piece(whole).as.parts);
}
