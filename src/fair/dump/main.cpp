// fair-dump: the device. Writes an installation of Brindle Fair as a console would dump it to a card: what was shipped, the update and the
// extra content apart, and files cut into parts where they are too large for the card's file system.
#include <QCommandLineParser>
#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QTextStream>

namespace {

/// What belongs together on the device.
QString part_of(const QString& name) {
    if (name.startsWith("autumn")) return "update";
    if (name.startsWith("sideshow") || name.startsWith("puppets")) return "extra";
    return "base";
}

/// Copies a file; one of more than `limit` bytes becomes name.00, name.01 and so on.
bool dump(const QString& from, const QString& to, qint64 limit) {
    QFile in(from);
    if (!in.open(QIODevice::ReadOnly)) return false;
    const bool cut = in.size() > limit;
    int part = 0;
    do {
        QFile out(cut ? QStringLiteral("%1.%2").arg(to).arg(part, 2, 10, QLatin1Char('0')) : to);
        if (!out.open(QIODevice::WriteOnly | QIODevice::Truncate)) return false;
        qint64 left = limit;
        while (left > 0 && !in.atEnd()) {
            const auto bytes = in.read(std::min<qint64>(left, 1 << 20));
            if (bytes.isEmpty() || out.write(bytes) != bytes.size()) return false;
            left -= bytes.size();
        }
        ++part;
    } while (!in.atEnd());
    return true;
}

}  // namespace

int main(int argc, char** argv) {
    QCoreApplication app(argc, argv);
    QCommandLineParser parser;
    parser.setApplicationDescription("Writes an installation of Brindle Fair, an invented game, as a device would dump it to a card.");
    parser.addHelpOption();
    parser.addPositionalArgument("installation", "The game's folder");
    parser.addPositionalArgument("card", "Where to");
    // A card formatted as FAT32 holds files of up to 4 GiB less one byte.
    parser.addOption({"limit", "Largest file in bytes", "n", "4294967295"});
    parser.process(app);
    QTextStream err(stderr);
    const auto folders = parser.positionalArguments();
    const auto limit = parser.value("limit").toLongLong();
    if (folders.size() != 2 || limit < 1024) {
        err << "fair-dump: name the installation and the card; the limit is at least 1024\n";
        return 2;
    }
    const QDir from(folders[0]), card(folders[1]);
    for (const auto& file : from.entryInfoList(QDir::Files, QDir::Name)) {
        const auto part = part_of(file.fileName());
        if (!QDir().mkpath(card.filePath(part)) || !dump(file.filePath(), card.filePath(part + '/' + file.fileName()), limit)) {
            err << "fair-dump: cannot write " << file.fileName() << '\n';
            return 4;
        }
    }
    return 0;
}
