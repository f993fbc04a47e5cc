// Scrolls a contact sheet of real textures from end to end in the real window and says how long the slowest frame and the longest stall of
// the window's thread were, and how much memory it took; with pieces, those are taken to the bench and shown there first.
//   skivet_scroll [TEXTURES [PIECES]]     (default 100000 0)
// With SKIVET_STALLS=1 it says what the window's thread did 40 ms after its last pulse.
// Run it under Xvfb (or a display); SKIVET_BENCH_FOLDER keeps archive and project between runs, so that the second run opens what is known.
#include <execinfo.h>
#include <fmt/format.h>
#include <pthread.h>
#include <atomic>
#include <csignal>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <QApplication>
#include <QElapsedTimer>
#include <QScrollBar>
#include <QTimer>
#include <thread>

#include "app/models/models.h"
#include "app/pages/catalog_page.h"
#include "app/theme/theme.h"
#include "app/widgets/contact_sheet.h"
#include "app/workspace.h"
#include "base/file_write.h"
#include "support/pictures.h"

using namespace skivet;
using namespace skivet::app;

namespace {

double resident_mb(const char* field) {
    std::ifstream status("/proc/self/status");
    for (std::string line; std::getline(status, line);)
        if (line.rfind(field, 0) == 0) return std::atof(line.c_str() + std::string_view(field).size() + 1) / 1024;
    return 0;
}

/// Lets the window work for so many milliseconds.
void rest(int ms) {
    QEventLoop loop;
    QTimer::singleShot(ms, &loop, &QEventLoop::quit);
    loop.exec();
}

/// Looks from beside at what the window's thread does while its pulse is late, and says so at the end.
class Watchman {
public:
    Watchman() : window_(::pthread_self()) {
        (void)::backtrace(frames_.data(), 1);  // loads what it needs, which a signal's handler may not
        std::signal(SIGUSR1, [](int) { count_ = ::backtrace(frames_.data(), int(frames_.size())); });
        thread_ = std::thread([this] {
            while (!over_) {
                std::this_thread::sleep_for(std::chrono::milliseconds(5));
                const auto late = now() - beat_;
                if (late < 40'000'000 || seen_ == beat_) continue;
                seen_ = beat_.load();
                ::pthread_kill(window_, SIGUSR1);
            }
        });
    }
    ~Watchman() {
        over_ = true;
        thread_.join();
    }
    void pulse(const std::string& phase) {
        if (const int count = std::exchange(count_, 0); count > 0) {
            char** names = ::backtrace_symbols(frames_.data(), count);
            std::string said = fmt::format("{} ms while {}:", (now() - beat_) / 1'000'000, phase);
            for (int i = 2; i < count; ++i) said += fmt::format("\n    {}", names[i]);
            said_.push_back(std::move(said));
            std::free(names);
        }
        beat_ = now();
    }
    [[nodiscard]] const std::vector<std::string>& said() const { return said_; }

private:
    static std::int64_t now() { return std::chrono::steady_clock::now().time_since_epoch().count(); }
    inline static std::array<void*, 60> frames_;
    inline static volatile int count_ = 0;
    pthread_t window_;
    std::thread thread_;
    std::atomic<std::int64_t> beat_ = now(), seen_ = 0;
    std::atomic<bool> over_ = false;
    std::vector<std::string> said_;
};

}  // namespace

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    apply_theme(app);
    const char* named = std::getenv("SKIVET_BENCH_FOLDER");
    const std::filesystem::path folder = named ? named : "/tmp/skivet-scroll";
    const int textures = argc > 1 ? std::atoi(argv[1]) : 100'000, pieces = argc > 2 ? std::atoi(argv[2]) : 0;
    const auto archive = folder / (std::to_string(textures) + ".zip");
    if (!std::filesystem::exists(archive)) {
        std::vector<test::ZipItem> items;
        for (unsigned i = 0; i < unsigned(textures); ++i)
            items.push_back(
                {"t/" + std::to_string(i / 1000) + "/tex_" + std::to_string(i) + ".dds", test::make_dds(Format::BC1, 64, 64, 0, i)});
        std::filesystem::create_directories(folder);
        if (!write_file(archive, test::make_zip(items, {.zip64 = true, .prefix = {}, .comment = {}}))) return 1;
    }
    ::setenv("XDG_CACHE_HOME", (folder / "cache").c_str(), 1);
    Models models;
    Workspace window(models);
    window.resize(1280, 800);
    window.show();
    // The window itself is made once, whatever it shows.
    rest(1000);
    QElapsedTimer clock;
    clock.start();
    models.store.open({folder / "project", {}, {archive}, {}});
    auto* page = window.page<CatalogPage>();
    double shown_at = 0;
    // A stall is what a timer of 5 ms comes late by.
    QElapsedTimer beat;
    beat.start();
    double longest = 0;
    std::string phase = "opening";
    std::map<std::string, double> stalls;
    std::unique_ptr<Watchman> watchman;
    if (std::getenv("SKIVET_STALLS")) watchman = std::make_unique<Watchman>();
    QTimer pulse;
    pulse.setTimerType(Qt::PreciseTimer);
    QObject::connect(&pulse, &QTimer::timeout, [&] {
        longest = double(beat.nsecsElapsed()) / 1e6 - 5;
        stalls[phase] = std::max(stalls[phase], longest);
        if (watchman) watchman->pulse(phase);
        beat.restart();
    });
    pulse.start(5);
    const auto spin = [&](const std::function<bool()>& until) {
        while (!until()) QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents);  // the pulse ends each wait
    };
    spin([&] {
        if (shown_at == 0 && page->model()->rowCount() > 0) shown_at = double(clock.elapsed()) / 1000;
        return models.sources.ready();
    });
    const double listed = double(clock.elapsed()) / 1000;
    window.go_to(PageId::catalog);
    phase = "looking at pictures";
    spin([&] { return !models.jobs.busy() && models.catalog.catalog()->unseen == 0; });
    const double looked = double(clock.elapsed()) / 1000;
    std::printf("%d textures: first cards after %.2f s, all listed %.2f s, all looked at %.1f s\n", page->model()->rowCount(), shown_at,
                listed, looked);
    if (pieces > 0) {
        phase = "taking pieces";
        std::vector<std::size_t> items;
        for (int i = 0; i < pieces; ++i) items.push_back(std::size_t(i));
        const auto before = clock.elapsed();
        if (models.bench.pieces().empty()) models.catalog.take(items, {});
        spin([&] { return models.bench.pieces().size() >= std::size_t(pieces) && !models.jobs.busy(); });
        std::printf("%zu pieces on the bench after %.1f s\n", models.bench.pieces().size(), double(clock.elapsed() - before) / 1000);
        for (const auto to : {PageId::bench, PageId::catalog}) {
            phase = to == PageId::bench ? "going to the bench" : "going to the catalog";
            window.go_to(to);
            rest(1500);
        }
    }
    auto* bar = page->contact_sheet()->verticalScrollBar();
    for (const bool warm : {false, true}) {
        phase = warm ? "scrolling again" : "scrolling";
        double slowest = 0, sum = 0;
        int frames = 0;
        bar->setValue(0);
        for (int value = 0; value < bar->maximum(); value += std::max(1, bar->maximum() / 1500)) {
            QElapsedTimer frame;
            frame.start();
            bar->setValue(value);
            page->contact_sheet()->viewport()->repaint();
            const double ms = double(frame.nsecsElapsed()) / 1e6;
            slowest = std::max(slowest, ms);
            sum += ms;
            ++frames;
            QCoreApplication::processEvents();
        }
        std::printf("%s: %d frames, mean %.2f ms, slowest %.2f ms, longest stall %.1f ms\n", phase.c_str(), frames, sum / frames, slowest,
                    stalls[phase]);
    }
    phase = "typing";
    for (const char letter : {'t', 'e', 'x', '_', '9'}) {
        page->search()->insert(QString(QLatin1Char(letter)));
        rest(150);
    }
    for (const auto& [name, ms] : stalls) std::printf("longest stall while %s: %.1f ms\n", name.c_str(), ms);
    std::printf("memory: %.0f MB resident, %.0f MB at most, of which anonymous %.0f MB\n", resident_mb("VmRSS:"), resident_mb("VmHWM:"),
                resident_mb("RssAnon:"));
    if (watchman)
        for (const auto& said : watchman->said()) std::printf("%s\n", said.c_str());
    models.jobs.finish();
    return 0;
}
