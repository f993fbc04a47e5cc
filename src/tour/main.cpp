// Walks the demo through every page and saves a PNG of each: for docs/screenshots and for looking. A developers' program; it is not
// installed.
#include <QCommandLineParser>
#include <QTextStream>

#include "app/language.h"
#include "app/models/preferences.h"
#include "app/pages/page_list.h"
#include "app/theme/theme.h"
#include "tour/tour.h"

int main(int argc, char** argv) {
    using namespace skivet::app;
    QApplication app(argc, argv);
    QApplication::setApplicationName(QStringLiteral("skivet"));
    QApplication::setApplicationDisplayName(QStringLiteral("Skivet"));
    QCommandLineParser parser;
    parser.setApplicationDescription(QStringLiteral("Walks through every page of Skivet with the demo and saves PNGs."));
    parser.addHelpOption();
    parser.addPositionalArgument(QStringLiteral("project"), QStringLiteral("The project's folder"));
    parser.addPositionalArgument(QStringLiteral("game"), QStringLiteral("The fairground's folder"));
    parser.addPositionalArgument(QStringLiteral("shots"), QStringLiteral("Where the PNGs go"));
    parser.addOption({QStringLiteral("language"), QStringLiteral("de for German"), QStringLiteral("token"), QStringLiteral("en")});
    parser.addOption({QStringLiteral("night"), QStringLiteral("In the night theme")});
    parser.addOption({QStringLiteral("size"), QStringLiteral("The window's size"), QStringLiteral("WxH")});
    parser.process(app);
    const auto places = parser.positionalArguments();
    if (places.size() != 3) parser.showHelp(2);
    speak_language(parser.value(QStringLiteral("language")).toStdString());
    apply_theme(app);
    const auto absolute = [](const QString& path) { return std::filesystem::absolute(path.toStdString()).lexically_normal(); };
    // Not the list of whoever walks the tour.
    const auto beside = absolute(places[2]).parent_path();
    GamesModel games(skivet::GameList(beside / "games", beside / "projects"));
    Preferences::the().change([&](skivet::Settings& settings) {
        settings.look = parser.isSet(QStringLiteral("night")) ? skivet::Settings::Look::night : skivet::Settings::Look::light;
        for (const auto& row : page_list()) settings.hints_seen.push_back(QString::fromLatin1(row.title).toLower().toStdString());
    });
    MainWindow window(games);
    if (const auto sides = parser.value(QStringLiteral("size")).split('x'); sides.size() == 2)
        window.resize(sides[0].toInt(), sides[1].toInt());
    window.open({absolute(places[0]), absolute(places[1]), {}, {}});
    window.show();
    new Tour(&window, places[2], [](int code) { QApplication::exit(code); });
    return QApplication::exec();
}
