// Walks the demo through every page and saves a PNG of each: for docs/screenshots and for looking. A developers' program; it is not
// installed.
#include <QCommandLineParser>
#include <QTextStream>

#include "app/models/preferences.h"
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
    parser.process(app);
    const auto places = parser.positionalArguments();
    if (places.size() != 3) parser.showHelp(2);
    apply_theme(app);
    const auto absolute = [](const QString& path) { return std::filesystem::absolute(path.toStdString()).lexically_normal(); };
    // Not the list of whoever walks the tour.
    const auto beside = absolute(places[2]).parent_path();
    GamesModel games(skivet::GameList(beside / "games", beside / "projects"));
    Preferences::the().change([](skivet::Settings& settings) { settings.look = skivet::Settings::Look::light; });
    MainWindow window(games);
    window.open({absolute(places[0]), absolute(places[1]), {}, {}});
    window.show();
    new Tour(&window, places[2], [](int code) { QApplication::exit(code); });
    return QApplication::exec();
}
