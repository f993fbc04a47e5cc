// fair-press: makes the installation of the invented game Brindle Fair.
#include <map>
#include <QCommandLineParser>
#include <QDir>
#include <QFile>
#include <QFontDatabase>
#include <QGuiApplication>
#include <QTextStream>

#include "fair/press/archives.h"
#include "fair/press/meshes.h"
#include "fair/press/season_two.h"

using namespace fair;

namespace {

constexpr const char* cashbox_key = "3b7d1190c2a84e5f96d0e1772f4c8ab5";

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
    parser.addOption(
        {"update", "Which season of the game: 1, or 2 with things repainted, moved, renamed, recompressed and in another order", "n", "1"});
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
    auto all = draw_everything(parser.value("seed").toInt());
    const bool second = parser.value("update").toInt() == 2;
    if (second) second_season(all);
    std::map<QString, std::vector<PackedFile>> archives;
    QString manifest;
    for (const auto& art : all) {
        for (auto& file : make_texture_files(art)) archives[art.archive].push_back(std::move(file));
        if (art.listed) manifest += manifest_line(art.archive, art);
    }
    archives["organ.zip"].push_back({"organ.crate", make_crate(archives["organ.zip::organ.crate"], 1), true});
    for (auto& mesh : make_meshes()) archives["organ.zip"].push_back(std::move(mesh));
    archives["midway.zip"].push_back({"readme.txt", "Brindle Fair, season one. All of it is invented.\n", true});
    archives["midway.zip"].push_back(
        {"puppets/stage.scene",
         "scene puppet_stage\n  front  \"puppets\\stage_front.pnl\"\n  actors \"puppets\\king_tint.pnl\" \"puppets\\fool_tint.dds\"\n",
         true});
    if (second)
        for (auto& [name, content] : archives) std::reverse(content.begin(), content.end());
    std::map<QString, QByteArray> files;
    for (const auto& [name, content] : archives) {
        if (name.contains("::")) continue;
        if (name.endsWith(".zip")) files[name] = make_zip(content);
        else if (name.endsWith(".crate")) files[name] = make_crate(content, name.startsWith("autumn") ? 2 : name.startsWith("zz") ? 9 : 1);
        else if (name.endsWith(".hamper")) files[name] = make_hamper(content);
        else if (name.endsWith(".strongbox")) files[name] = make_strongbox(content, QByteArray::fromHex(cashbox_key));
        else if (name.endsWith(".index"))
            for (auto& [file, bytes] : make_index(name.chopped(6), content)) files[file] = bytes;
    }
    std::vector<PackedFile> rolls;
    for (const char* roll : {"curtains.roll", "games.roll"})
        rolls.push_back({roll, make_roll(archives[QStringLiteral("sideshow.bale::") + roll]), false});
    files["sideshow.bale"] = make_bale(make_crate(rolls, 1));
    files["cashbox key.txt"] = QByteArray(cashbox_key) + '\n';
    // Weather has got at the last texture of this one: a byte in the middle of its data is another one.
    auto& weathered = files["weathered.zip"];
    if (const auto at = weathered.lastIndexOf("DDS "); at > 0) weathered[at + 1000] = char(weathered[at + 1000] ^ 0x40);
    bool done = true;
    for (const auto& [name, bytes] : files) done = done && write(folder.filePath(name), bytes);
    // The override folder wins over everything; one plain file lies there as shipped.
    Art lantern;
    for (const auto& art : all)
        if (art.path == "signs/sign_exit") lantern = art;
    done = done && QDir().mkpath(folder.filePath("override/signs")) &&
           write(folder.filePath("override/signs/sign_exit.png"), make_texture(lantern).bytes);
    done = done && write(folder.filePath("manifest.txt"), manifest.toUtf8());
    done = done && write(folder.filePath("load_order.txt"),
                         "# later ones "
                         "win\nmidway.zip\norgan.zip\nrides.crate\nsideshow.bale\nlanterns.index\ncashbox.strongbox\npuppets."
                         "hamper\nweathered.zip\nautumn.crate\nzz_spare.crate\noverride\n");
    if (done && parser.value("scale") == "large")
        done = make_depot(folder.filePath("depot.zip"), parser.value("entries").toULongLong(), parser.value("bytes").toULongLong());
    if (!done) {
        err << "fair-press: cannot write into " << folder.path() << '\n';
        return 4;
    }
    return 0;
}
