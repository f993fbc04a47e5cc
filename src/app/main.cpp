#include <QCommandLineParser>
#include <QProcess>
#include <QTextStream>
#include <QThreadPool>

#include <tbb/global_control.h>
#include <tbb/info.h>
#include <array>
#include <new>

#include "app/crash_report.h"
#include "app/language.h"
#include "app/models/left_state.h"
#include "app/models/models.h"
#include "app/models/preferences.h"
#include "app/open_windows.h"
#include "app/theme/system_look.h"
#include "app/theme/theme.h"
#include "base/file_write.h"
#include "base/own_folders.h"
#include "base/phrase.h"
#include "base/threads.h"

namespace {

void add_options(QCommandLineParser& parser) {
    parser.setApplicationDescription(
        QStringLiteral("Finds the textures inside game archives, takes them out, and puts edits back with nothing else changed."));
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument(QStringLiteral("sources"), QStringLiteral("Archives and folders to add"), QStringLiteral("[sources...]"));
    parser.addOption({QStringLiteral("project"), QStringLiteral("The project's folder"), QStringLiteral("dir")});
    parser.addOption({QStringLiteral("game"),
                      QStringLiteral("The game's folder: opens its project, or makes one with its archives as sources"),
                      QStringLiteral("dir")});
    parser.addOption({QStringLiteral("play"), QStringLiteral("The command that starts the game"), QStringLiteral("command")});
    parser.addOption({QStringLiteral("size"), QStringLiteral("The window's size, for example 1024x700"), QStringLiteral("WxH")});
}

void name_application() {
    QCoreApplication::setApplicationName(QStringLiteral("skivet"));
    QCoreApplication::setApplicationVersion(QStringLiteral(SKIVET_VERSION));
}

}  // namespace

int main(int argc, char** argv) {
    using namespace skivet::app;
    namespace fs = std::filesystem;
    name_application();
    {
        // Help, the version and mistakes are answered where there is no display, too.
        int count = argc;
        const QCoreApplication console(count, argv);
        QCommandLineParser parser;
        add_options(parser);
        QStringList words;
        for (int i = 0; i < argc; ++i) words << QString::fromLocal8Bit(argv[i]);
        if (parser.parse(words)) {
            if (parser.isSet(QStringLiteral("help"))) parser.showHelp(0);
            if (parser.isSet(QStringLiteral("version"))) parser.showVersion();
        }
    }
    const auto aside = Preferences::the().load(skivet::settings_file());
    // Everything grows alike: pictures stay sharp, and nothing that is drawn runs out of its place. Under X11 the desktop's size of texts
    // comes with the screen's resolution, which Qt follows by itself.
    double scale = Preferences::the().settings().text_percent / 100.0;
    if (scale == 0 && qEnvironmentVariableIsSet("WAYLAND_DISPLAY")) {
        int count = argc;
        const QCoreApplication console(count, argv);
        scale = system_text_scale();
    }
    if (scale != 0 && scale != 1 && !qEnvironmentVariableIsSet("QT_SCALE_FACTOR")) qputenv("QT_SCALE_FACTOR", QByteArray::number(scale));
    QApplication app(argc, argv);
    QApplication::setApplicationDisplayName(QStringLiteral("Skivet"));
    QApplication::setDesktopFileName(QStringLiteral("skivet"));
    QCommandLineParser parser;
    add_options(parser);
    parser.process(app);
    const auto absolute = [](const QString& path) { return fs::absolute(path.toStdString()).lexically_normal(); };
    StartRequest request;
    if (parser.isSet(QStringLiteral("project"))) request.project = absolute(parser.value(QStringLiteral("project")));
    if (parser.isSet(QStringLiteral("game"))) request.game = absolute(parser.value(QStringLiteral("game")));
    for (const auto& argument : parser.positionalArguments()) request.files.push_back(absolute(argument));
    for (const auto& word : QProcess::splitCommand(parser.value(QStringLiteral("play")))) request.play.push_back(word.toStdString());
    // The window's work has twelve threads of its own, and what counts on all cores takes more where they are to be had.
    constexpr unsigned own_threads = 12;
    const auto cores = static_cast<unsigned>(tbb::info::default_concurrency());
    const auto threads = skivet::threads_to_be_had(own_threads + cores);
    if (threads < own_threads) {
        QTextStream(stderr) << "skivet: the system lets it start " << threads << " threads, it needs " << own_threads
                            << ". End other programs of yours, or raise the limit (ulimit -u)\n";
        return 4;
    }
    // Kept to the end of the process: letting go of it starts the workers that it kept from starting.
    alignas(tbb::global_control) static std::array<std::byte, sizeof(tbb::global_control)> room;
    new (room.data()) tbb::global_control(tbb::global_control::max_allowed_parallelism, std::max(1u, threads - own_threads));
    const auto place = Instance::usual_folder();
    Instance instance(place);
    if (!instance.listens() && Instance::hand_over(place, request)) {
        QTextStream(stdout) << "skivet: it runs already; its window comes to the front\n";
        return 0;
    }
    LeftState::the().load(skivet::user_state_folder() / "left.json");
    report_crashes(skivet::user_state_folder(), SKIVET_VERSION);
    Messages::keep_in(skivet::user_state_folder() / "log.txt");
    speak_language(language_meant(Preferences::the().settings().language, QLocale::system().uiLanguages()));
    apply_theme(app);
    GamesModel games(skivet::GameList::usual());
    OpenWindows windows(games);
    if (const auto sides = parser.value(QStringLiteral("size")).split('x'); sides.size() == 2)
        windows.size = {sides[0].toInt(), sides[1].toInt()};
    QObject::connect(&instance, &Instance::asked, &windows, [&](const StartRequest& later) { windows.answer(later); });
    auto* window = windows.answer(request, true);
    QThreadPool::globalInstance()->start([] { skivet::sweep_leftovers(); });
    if (aside) {
        if (window->models()) window->models()->messages.complain(*aside);
        else games.messages().complain(*aside);
    }
    // Said once the project that is opened can show it.
    if (const auto report = take_crash_report(skivet::user_state_folder())) {
        const skivet::Error what{skivet::ErrorCode::io,
                                 QObject::tr("Skivet ended by a fault the last time").toStdString(),
                                 {},
                                 std::nullopt,
                                 QObject::tr("What was written into games is whole, or is put back now. The report is %1")
                                     .arg(QString::fromStdString(report->string()))
                                     .toStdString()};
        if (window->models()) window->models()->messages.complain(what);
        else games.messages().complain(what);
    }
    const int result = QApplication::exec();
    windows.end();
    return result;
}
