#pragma once
// A page with its model alone, on a project of its own.
#include <gtest/gtest.h>

#include <functional>
#include <QLabel>
#include <QSignalSpy>
#include <QtTest>

#include "app/models/bench_model.h"
#include "support/pictures.h"
#include "texture/png.h"

namespace skivet::test {

using namespace skivet::app;

struct SinglePage : testing::Test {
    TempFolder folder;
    std::filesystem::path zip = folder / "game.zip";
    Jobs jobs;
    Messages messages;
    ProjectStore store{jobs, messages};

    void SetUp() override {
        put_file(zip, make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 1)}, {"a/two.dds", make_dds(Format::BC1, 32, 32, 0, 2)}}));
    }
    void TearDown() override { jobs.finish(); }
    void open() {
        QSignalSpy opened(&store, &ProjectStore::opened);
        store.open({folder / "project", {}, {zip}, {}});
        ASSERT_TRUE(wait([&] { return opened.size() == 1; }));
    }
    static bool wait(const std::function<bool()>& until) { return QTest::qWaitFor(until, 30'000); }
    static bool says(const QWidget& page, const QString& text) {
        for (const auto* label : page.findChildren<QLabel*>())
            if (label->isVisible() && label->text().contains(text)) return true;
        return false;
    }
    void paint(const BenchModel& bench, PieceId id, std::uint32_t side = 32) {
        auto image = side == 32 ? *read_png(get_file(bench.file_of(*bench.piece(id))), ReadLimits{}) : Image(side, side, {5, 5, 5, 255});
        image.at(2, 2) = {255, 0, 0, 255};
        // By way of a new file and a rename: nobody sees half of it.
        const auto file = bench.file_of(*bench.piece(id));
        put_file(file.string() + ".new", *write_png(image));
        std::filesystem::rename(file.string() + ".new", file);
        ASSERT_TRUE(wait([&] { return bench.piece(id)->state != PieceState::out; }));
    }
};

}  // namespace skivet::test
