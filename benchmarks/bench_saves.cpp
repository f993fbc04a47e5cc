// From a paint program's save to the new picture on the screen, in the real window, and a bench of 5,000 pieces: how long each step takes
// and how long the window does not answer. Run with QT_QPA_PLATFORM=offscreen.
#include <fmt/format.h>
#include <fstream>
#include <QApplication>
#include <QElapsedTimer>
#include <QKeyEvent>
#include <QTimer>
#include <thread>

#include "app/models/models.h"
#include "app/pages/fitting_page.h"
#include "app/workspace.h"
#include "bench/fitting.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

bool wait(const std::function<bool()>& until) {
    QElapsedTimer t;
    t.start();
    while (!until()) {
        if (t.elapsed() > 120'000) {
            fmt::print("nothing came for two minutes\n");
            return false;
        }
        QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
        std::this_thread::sleep_for(std::chrono::milliseconds(1));
    }
    return true;
}

/// Most memory that was resident, MB.
long peak_mb() {
    std::ifstream status("/proc/self/status");
    for (std::string line; std::getline(status, line);)
        if (line.rfind("VmHWM:", 0) == 0) return std::atol(line.c_str() + 6) / 1024;
    return 0;
}

/// A window on an archive of these entries, all of them taken.
struct Bench {
    TempFolder folder;
    Models models;
    Workspace window{models};
    /// The longest the window did not answer, since it was asked last.
    qint64 gap = 0;
    QElapsedTimer beat;
    QTimer pulse;

    explicit Bench(const std::vector<ZipItem>& items) {
        qputenv("XDG_DATA_HOME", (folder / "data").c_str());
        put_file(folder / "game.zip", make_zip(items));
        QObject::connect(&pulse, &QTimer::timeout, [this] { gap = std::max(gap, beat.restart()); });
        window.resize(1280, 800);
        models.store.open({folder / "project", {}, {folder / "game.zip"}, {}});
        window.show();
        wait([&] { return models.sources.ready() && !models.jobs.busy(); });
        beat.start();
        pulse.start(1);
        QElapsedTimer t;
        t.start();
        std::vector<Address> all;
        for (const auto& item : items) all.push_back({folder / "game.zip", {item.name}});
        models.bench.take(all, ExportAs::png);
        wait([&] { return models.bench.pieces().size() == items.size() && !models.jobs.busy(); });
        if (items.size() > 1) tell("taken", t.elapsed());
    }
    ~Bench() { models.jobs.finish(); }
    void tell(const std::string& what, qint64 ms) {
        fmt::print("{:<44} {:>6} ms, longest silence {:>4} ms\n", what, ms, gap);
        std::fflush(stdout);
        gap = 0;
    }
    void save(PieceId id, const Bytes& bytes) {
        const auto file = models.bench.file_of(*models.bench.piece(id));
        put_file(file.string() + ".new", bytes);
        std::filesystem::rename(file.string() + ".new", file);
    }
};

/// Noise over shapes, as painted pictures have it.
Image drawn(std::uint32_t side) {
    auto out = smooth_picture(side, side, 3);
    std::mt19937 random(1);
    for (auto& t : out.texels)
        for (std::size_t c = 0; c < 3; ++c) t[c] = std::uint8_t(std::clamp(int(t[c]) + int(random() % 13) - 6, 0, 255));
    return out;
}

void one_texture(Format format, std::uint32_t side) {
    const TextureDesc d{format, side, side, 1, full_mip_count(side, side), 1, 1, ColorSpace::unknown};
    EncodeOptions fast;
    fast.effort = Effort::fast;
    Bench bench({{"a/big.dds", *write_dds(d, *encode_levels(drawn(side), d, {}, fast))}});
    bench.window.go_to(PageId::fitting);
    const auto id = bench.models.bench.pieces().front().id;
    auto image = *read_png(get_file(bench.models.bench.file_of(*bench.models.bench.piece(id))), ReadLimits{});
    qint64 read = -1, ready = -1;
    QElapsedTimer t;
    QObject::connect(&bench.models.bench.fits(), &FitModel::read, [&] {
        if (read < 0) read = t.elapsed();
    });
    auto* view = bench.window.page<FittingPage>()->result_view();
    for (int round = 0; round < 6; ++round) {
        const bool all = round == 5;
        for (std::uint32_t y = all ? 0 : 100; y < (all ? side : 145); ++y)
            for (std::uint32_t x = all ? 0 : 100; x < (all ? side : 145); ++x) {
                auto& texel = image.at((x + 60 * std::uint32_t(round)) % side, y);
                texel[0] = std::uint8_t(255 - texel[0]);
            }
        const auto bytes = *write_png(image);
        const auto before = view->image().cacheKey();
        read = ready = -1;
        bench.gap = 0;
        bench.beat.restart();  // what was done here does not count
        t.start();
        bench.save(id, bytes);
        // While it is encoded the view is empty or has the old picture.
        wait([&] {
            return bench.models.bench.fits().findings(id) && !view->image().isNull() && view->image().cacheKey() != before &&
                   !bench.models.bench.fits().is_fitting(id);
        });
        ready = t.elapsed();
        if (round > 0)  // the first one decodes the original
            bench.tell(fmt::format("{} {}, {}: painted {} ms, result", info(format).name, side, all ? "whole" : "2,025 texels", read),
                       ready);
        wait([&] { return !bench.models.jobs.busy(); });
    }
    // Dragging four pictures at once.
    bench.gap = 0;
    QElapsedTimer pan;
    pan.start();
    constexpr int steps = 40;
    for (int i = 0; i < steps; ++i) {
        QKeyEvent key(QEvent::KeyPress, i % 2 ? Qt::Key_Left : Qt::Key_Right, Qt::NoModifier);
        QCoreApplication::sendEvent(view, &key);
        for (auto* other : bench.window.page<FittingPage>()->findChildren<ImageView*>()) other->repaint();
    }
    fmt::print("{} {}: four pictures panned, {:.1f} ms a step\n", info(format).name, side, double(pan.elapsed()) / steps);
    fmt::print("memory: {} MB at most\n", peak_mb());
}

void many_pieces() {
    std::vector<ZipItem> items;
    for (int i = 0; i < 5000; ++i)
        items.push_back({fmt::format("d{}/t_{:04}.dds", i % 20, i), make_dds(Format::BC1, 16, 16, 0, unsigned(i))});
    Bench bench(items);
    auto& model = bench.models.bench;
    QElapsedTimer t;
    t.start();
    const auto one = model.pieces()[2500].id;
    bench.save(one, *write_png(Image(16, 16, {5, 5, 5, 255})));
    wait([&] { return model.fits().findings(one) != nullptr; });
    bench.tell("5,000 pieces: one saved and fitted", t.restart());
    std::vector<PieceId> ids;
    for (const auto& piece : model.pieces()) ids.push_back(piece.id);
    model.touch(ids, {"gray"}, true);
    bench.tell("all touched up", t.restart());
    wait([&] { return std::all_of(ids.begin(), ids.end(), [&](PieceId id) { return model.fits().findings(id) != nullptr; }); });
    bench.tell("and fitted", t.elapsed());
}

}  // namespace

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    fmt::print("{} threads\n", std::thread::hardware_concurrency());
    one_texture(Format::BC7, 4096);
    one_texture(Format::BC1, 2048);
    many_pieces();
    return 0;
}
