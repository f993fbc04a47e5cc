#include <QCommandLineParser>
#include <QStandardPaths>
#include <QTextStream>

#include "app/main_window.h"
#include "app/models/models.h"
#include "app/one_window.h"
#include "app/theme/theme.h"

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
    QApplication app(argc, argv);
    QApplication::setApplicationDisplayName(QStringLiteral("Skivet"));
    QCommandLineParser parser;
    add_options(parser);
    parser.process(app);
    apply_theme(app);
    const auto absolute = [](const QString& path) { return fs::absolute(path.toStdString()).lexically_normal(); };
    const auto projects =
        fs::path((QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/projects")).toStdString());
    const auto game = parser.isSet(QStringLiteral("game")) ? absolute(parser.value(QStringLiteral("game"))) : fs::path();
    const auto folder = parser.isSet(QStringLiteral("project")) ? absolute(parser.value(QStringLiteral("project")))
                        : game.empty()                          ? projects / "default"
                                                                : skivet::project_for_game(projects, game);
    std::vector<fs::path> sources;
    for (const auto& argument : parser.positionalArguments()) sources.push_back(absolute(argument));
    std::vector<std::string> play;
    for (const auto& word : QProcess::splitCommand(parser.value(QStringLiteral("play")))) play.push_back(word.toStdString());
    if (OneWindow::hand_over(folder, sources)) {
        QTextStream(stdout) << "skivet: this project is open already; its window comes to the front\n";
        return 0;
    }
    Models models;
    MainWindow window(models);
    // Listens once the project is ours: another window's socket must not be taken from it.
    std::unique_ptr<OneWindow> one;
    QObject::connect(&models.store, &ProjectStore::opened, &window, [&] {
        if (one) return;
        one = std::make_unique<OneWindow>(folder);
        QObject::connect(one.get(), &OneWindow::asked, &window, [&](const std::vector<fs::path>& files) {
            for (const auto& file : files) models.sources.add(file);
            window.setWindowState(window.windowState() & ~Qt::WindowMinimized);
            window.raise();
            window.activateWindow();
        });
    });
    models.store.open({folder, game, sources, play});
    if (const auto sides = parser.value(QStringLiteral("size")).split('x'); sides.size() == 2)
        window.resize(sides[0].toInt(), sides[1].toInt());
    else window.fit_to_screen();
    window.show();
    return QApplication::exec();
}
