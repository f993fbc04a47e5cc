#pragma once
// A small game of two archives, a project about it, and pieces that are painted.
#include <gtest/gtest.h>

#include "support/pictures.h"
#include "texture/png.h"
#include "workflow/delivery_plan.h"
#include "workflow/opening.h"

namespace skivet::test {

struct Workflow : testing::Test {
    TempFolder folder;
    PosixFiles files;
    std::filesystem::path game = folder / "game", zip = game / "base.zip", crate = game / "extra.zip";
    ReadContext shipped;

    void SetUp() override {
        std::filesystem::create_directories(game);
        put_file(zip, make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 1)}, {"a/two.dds", make_dds(Format::BC3, 32, 32, 0, 2)}}));
        put_file(crate, make_zip({{"b/three.dds", make_dds(Format::BC1, 32, 32, 0, 3)}}));
    }
    OpenedProject open() {
        auto opened = open_for_work(shipped, {folder / "project", game, {}, {}}, files, 1);
        EXPECT_TRUE(opened) << (opened ? "" : opened.error().message());
        return opened ? std::move(*opened) : OpenedProject{};
    }
    static std::vector<PieceId> take(OpenedProject& o, const std::vector<Address>& addresses) {
        auto taken = take_pieces(*o.context, o.project, addresses, ExportAs::png, 2);
        EXPECT_TRUE(taken.errors.empty());
        return keep_taken(o.project, std::move(taken.pieces));
    }
    static void paint(Project& project, PieceId id, Texel color, std::uint32_t side = 32) {
        auto& piece = *project.piece(id);
        auto image = side == 32 ? *read_png(get_file(project.work() / piece.file), ReadLimits{}) : Image(side, side, {9, 9, 9, 255});
        for (std::uint32_t y = 0; y < 4; ++y)
            for (std::uint32_t x = 0; x < 4; ++x) image.at(x, y) = color;
        put_file(project.work() / piece.file, *write_png(image));
        EXPECT_TRUE(note_refreshed(project, refresh_piece(project, piece, 3)));
    }
    /// Two pieces in two archives, both edited.
    std::vector<PieceId> two_edits(OpenedProject& o) {
        const auto ids = take(o, {{zip, {"a/one.dds"}}, {crate, {"b/three.dds"}}});
        for (const auto id : ids) paint(o.project, id, {200, 30, 30, 255});
        return ids;
    }
};

}  // namespace skivet::test
