// fair-press: makes the installation of the invented game Brindle Fair.
#include <QCommandLineParser>
#include <QDir>
#include <QFile>
#include <QFontDatabase>
#include <QGuiApplication>
#include <QTextStream>
#include <map>

#include "fair/press/pack.h"

using namespace fair;

namespace {

bool write(const QString& path, const QByteArray& bytes) {
    QFile file(path);
    return file.open(QIODevice::WriteOnly | QIODevice::Truncate) && file.write(bytes) == bytes.size();
}

}  // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QGuiApplication app(argc, argv);
    QCommandLineParser parser;
    parser.setApplicationDescription("Makes the installation of Brindle Fair, an invented game.");
    parser.addHelpOption();
    parser.addPositionalArgument("folder", "Where to");
    parser.addOption({"scale", "small, or large: with depot.zip for measuring", "scale", "small"});
    parser.addOption({"entries", "Entries of depot.zip", "n", "36000"});
    parser.addOption({"bytes", "Bytes of depot.zip", "n", "3000000000"});
    parser.addOption({"seed", "Another fairground", "n", "1"});
    parser.process(app);
    QTextStream err(stderr);
    if (parser.positionalArguments().size() != 1) {
        err << "fair-press: name a folder\n";
        return 2;
    }
    const QDir folder(parser.positionalArguments().first());
    if (!QDir().mkpath(folder.path()) || !QDir().mkpath(folder.filePath("override"))) {
        err << "fair-press: cannot make " << folder.path() << '\n';
        return 4;
    }
    QFontDatabase::addApplicationFont(":/fonts/SkivetText-Bold.otf");
    const auto all = draw_everything(parser.value("seed").toInt());
    std::map<QString, std::vector<PackedFile>> archives;
    QString manifest;
    for (const auto& art : all) {
        archives[art.archive].push_back(make_texture(art));
        manifest += manifest_line(art.archive, art);
    }
    archives["organ.zip"].push_back({"organ.crate", make_crate(archives["organ.zip::organ.crate"], 1), true});
    archives["midway.zip"].push_back({"readme.txt", "Brindle Fair, season one. All of it is invented.\n", true});
    bool done = true;
    for (const auto& [name, files] : archives) {
        if (name.contains("::")) continue;
        done = done && write(folder.filePath(name), name.endsWith(".zip") ? make_zip(files) : make_crate(files, name.startsWith("autumn") ? 2 : 1));
    }
    // The override folder wins over everything; one plain file lies there as shipped.
    Art lantern;
    for (const auto& art : all)
        if (art.path == "signs/sign_exit") lantern = art;
    done = done && QDir().mkpath(folder.filePath("override/signs")) && write(folder.filePath("override/signs/sign_exit.png"), make_texture(lantern).bytes);
    done = done && write(folder.filePath("manifest.txt"), manifest.toUtf8());
    done = done && write(folder.filePath("load_order.txt"), "# later ones win\nmidway.zip\norgan.zip\nrides.crate\nautumn.crate\noverride\n");
    if (done && parser.value("scale") == "large")
        done = make_depot(folder.filePath("depot.zip"), parser.value("entries").toULongLong(), parser.value("bytes").toULongLong());
    if (!done) {
        err << "fair-press: cannot write into " << folder.path() << '\n';
        return 4;
    }
    return 0;
}
