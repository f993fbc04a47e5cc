#include <QCommandLineParser>
#include <QStandardPaths>
#include <QTextStream>

#include "app/main_window.h"
#include "app/theme/theme.h"
#include "app/tour.h"

int main(int argc, char** argv) {
    using namespace skivet::app;
    QApplication app(argc, argv);
    QApplication::setApplicationName(QStringLiteral("skivet"));
    QApplication::setApplicationDisplayName(QStringLiteral("Skivet"));
    QApplication::setApplicationVersion(QStringLiteral(SKIVET_VERSION));
    QCommandLineParser parser;
    parser.setApplicationDescription(QStringLiteral("Finds the textures inside game archives, takes them out, and puts edits back with nothing else changed."));
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument(QStringLiteral("sources"), QStringLiteral("Archives and folders to add"), QStringLiteral("[sources...]"));
    parser.addOption({QStringLiteral("project"), QStringLiteral("The project's folder"), QStringLiteral("dir")});
    parser.addOption({QStringLiteral("game"), QStringLiteral("The game's folder; its archives become the sources of a new project"), QStringLiteral("dir")});
    parser.addOption({QStringLiteral("play"), QStringLiteral("The command that starts the game"), QStringLiteral("command")});
    parser.addOption({QStringLiteral("tour"), QStringLiteral("Walk through every page, save PNGs there and end"), QStringLiteral("dir")});
    parser.addOption({QStringLiteral("size"), QStringLiteral("The window's size, for example 1024x700"), QStringLiteral("WxH")});
    parser.process(app);
    apply_theme(app);
    const auto absolute = [](const QString& path) { return std::filesystem::absolute(path.toStdString()).lexically_normal(); };
    const auto folder = parser.isSet(QStringLiteral("project")) ? parser.value(QStringLiteral("project"))
                                                                 : QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/projects/default");
    std::vector<std::filesystem::path> sources;
    for (const auto& argument : parser.positionalArguments()) sources.push_back(absolute(argument));
    std::vector<std::string> play;
    for (const auto& word : QProcess::splitCommand(parser.value(QStringLiteral("play")))) play.push_back(word.toStdString());
    Session session;
    MainWindow window(&session);
    session.open(absolute(folder), parser.isSet(QStringLiteral("game")) ? absolute(parser.value(QStringLiteral("game"))) : std::filesystem::path(), sources, play);
    if (const auto sides = parser.value(QStringLiteral("size")).split('x'); sides.size() == 2) window.resize(sides[0].toInt(), sides[1].toInt());
    window.show();
    if (parser.isSet(QStringLiteral("tour"))) new Tour(&window, &session, parser.value(QStringLiteral("tour")), [](int code) { QApplication::exit(code); });
    return QApplication::exec();
}
