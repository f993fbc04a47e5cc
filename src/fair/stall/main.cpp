// fair-stall: the stand-in game. Shows the fairground with whatever the installation holds now, and reloads when it changes.
#include <QApplication>
#include <QCommandLineParser>
#include <QDateTime>
#include <QDir>
#include <QFileSystemWatcher>
#include <QLabel>
#include <QShortcut>
#include <QTextStream>
#include <QTimer>

#include "fair/stall/scene.h"

int main(int argc, char** argv) {
    for (int i = 1; i < argc; ++i)  // a picture needs no screen
        if (QByteArray(argv[i]).startsWith("--shot") || QByteArray(argv[i]).startsWith("--record") ||
            QByteArray(argv[i]).startsWith("--frame"))
            qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    QCommandLineParser parser;
    parser.setApplicationDescription("Brindle Fair, an invented game: shows the fairground with the installation's textures.");
    parser.addHelpOption();
    parser.addPositionalArgument("folder", "The installation");
    parser.addOption({"shot", "Draw one picture into a PNG file and end", "file"});
    parser.addOption({"quality", "0 is best; higher numbers start further down the mip chain", "n", "0"});
    parser.addOption({"card", "A card whose files stand in for the installation's: mods/NAME, and mods/loose over all of them", "folder"});
    parser.addOption({"record", "Write what one frame draws: JSON Lines, one draw a line", "file"});
    parser.addOption(
        {"frame", "Write a record of one frame into a folder and end; F8 does it while the game runs, into frames/", "folder"});
    parser.addOption({"storeroom", "Every texture on a board of its own, instead of the fairground"});
    parser.process(app);
    QTextStream err(stderr);
    if (parser.positionalArguments().size() != 1) {
        err << "fair-stall: name the installation's folder\n";
        return 2;
    }
    const auto folder = parser.positionalArguments().first();
    const auto card = parser.value("card");
    const int quality = parser.value("quality").toInt();
    fair::Installation game;
    const auto scene = parser.isSet("storeroom") ? fair::draw_storeroom : fair::draw_scene;
    const auto draw = [&]() -> QImage {
        if (!game.open(folder, card)) return {};
        return scene(game, quality, nullptr, nullptr);
    };
    auto picture = draw();
    for (const auto& line : game.log) err << "fair-stall: " << line << '\n';
    err.flush();
    if (picture.isNull()) return 3;
    if (parser.isSet("record")) {
        QFile record(parser.value("record"));
        if (!record.open(QIODevice::WriteOnly | QIODevice::Truncate)) return 4;
        scene(game, quality, &record, nullptr);
        if (!parser.isSet("shot") && !parser.isSet("frame")) return 0;
    }
    const auto record_frame = [&](const QString& into) {
        fair::FrameRecord frame;
        return frame.begin(into, picture.size()) && frame.end(scene(game, quality, nullptr, &frame));
    };
    if (parser.isSet("frame")) return record_frame(parser.value("frame")) ? 0 : 4;
    if (parser.isSet("shot")) return picture.save(parser.value("shot")) ? 0 : 4;
    QLabel window;
    window.setWindowTitle("Brindle Fair");
    window.setPixmap(QPixmap::fromImage(picture));
    window.setFixedSize(picture.size());
    QFileSystemWatcher watcher;
    QTimer settle;
    settle.setSingleShot(true);
    settle.setInterval(150);
    const auto watch = [&] {
        for (const auto& file : QDir(folder).entryInfoList(QDir::Files)) watcher.addPath(file.filePath());
        watcher.addPath(folder);
        watcher.addPath(folder + "/override");
        if (!card.isEmpty())
            for (const auto& file : QDir(card + "/mods").entryInfoList(QDir::Files)) watcher.addPath(file.filePath());
    };
    watch();
    QObject::connect(&watcher, &QFileSystemWatcher::fileChanged, &settle, qOverload<>(&QTimer::start));
    QObject::connect(&watcher, &QFileSystemWatcher::directoryChanged, &settle, qOverload<>(&QTimer::start));
    QObject::connect(&settle, &QTimer::timeout, &window, [&] {
        watch();
        const auto again = draw();
        err << "fair-stall: the files changed; read again\n";
        for (const auto& line : game.log) err << "fair-stall: " << line << '\n';
        err.flush();
        if (!again.isNull()) window.setPixmap(QPixmap::fromImage(again));
        window.setWindowTitle(again.isNull() ? "Brindle Fair (cannot read its files)" : "Brindle Fair");
    });
    QShortcut record(Qt::Key_F8, &window);
    QObject::connect(&record, &QShortcut::activated, &window, [&] {
        const auto into =
            folder + QStringLiteral("/frames/") + QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-dd hh.mm.ss"));
        const bool sound = record_frame(into);
        err << (sound ? "fair-stall: the frame is recorded in " : "fair-stall: the frame cannot be recorded in ") << into << '\n';
        err.flush();
    });
    window.show();
    return app.exec();
}
