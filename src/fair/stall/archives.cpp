// The fair's other archives as the game reads them: strictly, and with no code of Skivet's.
#include <openssl/evp.h>
#include <zlib.h>
#include <QFile>
#include <QtEndian>

#include "fair/stall/loader.h"

namespace fair {
namespace {

template <class T>
T get(const QByteArray& data, qsizetype at) {
    return at + qsizetype(sizeof(T)) <= data.size() ? qFromLittleEndian<T>(data.constData() + at) : T{};
}
quint32 crc(const QByteArray& data) { return quint32(::crc32(0, reinterpret_cast<const Bytef*>(data.constData()), uInt(data.size()))); }
QString text(const QByteArray& data, qsizetype at, qsizetype size) {
    const auto field = data.mid(at, size);
    return QString::fromUtf8(field.left(field.indexOf('\0') < 0 ? field.size() : field.indexOf('\0')));
}
bool inside(const QByteArray& data, quint64 at, quint64 size) { return at + size <= quint64(data.size()); }

QByteArray unpacked(const QByteArray& packed, quint32 size) {
    if (size > 256u << 20) return {};
    QByteArray out(qsizetype(size), '\0');
    auto length = uLongf(size);
    return ::uncompress(reinterpret_cast<Bytef*>(out.data()), &length, reinterpret_cast<const Bytef*>(packed.constData()),
                        uLong(packed.size())) == Z_OK &&
                   length == size
               ? out
               : QByteArray();
}

QByteArray aes_counter(const QByteArray& key, const QByteArray& iv, const QByteArray& data) {
    auto* context = EVP_CIPHER_CTX_new();
    QByteArray out(data.size() + 16, '\0');
    int length = 0, more = 0;
    const bool done = key.size() == 16 &&
                      EVP_DecryptInit_ex(context, EVP_aes_128_ctr(), nullptr, reinterpret_cast<const uchar*>(key.constData()),
                                         reinterpret_cast<const uchar*>(iv.constData())) == 1 &&
                      EVP_DecryptUpdate(context, reinterpret_cast<uchar*>(out.data()), &length,
                                        reinterpret_cast<const uchar*>(data.constData()), int(data.size())) == 1 &&
                      EVP_DecryptFinal_ex(context, reinterpret_cast<uchar*>(out.data()) + length, &more) == 1;
    EVP_CIPHER_CTX_free(context);
    out.resize(done ? length + more : 0);
    return out;
}

}  // namespace

bool Installation::read_other(const QString& name, const QByteArray& bytes, Archive& out) {
    if (name.endsWith(".bale")) return read_bale(name, bytes, out);
    if (name.endsWith(".index")) return read_index(name, bytes, out);
    if (name.endsWith(".strongbox")) return read_strongbox(name, bytes, out);
    return name.endsWith(".hamper") && read_hamper(name, bytes, out);
}

bool Installation::read_bale(const QString& name, const QByteArray& f, Archive& out) {
    const auto size = get<quint32>(f, 8), packed = get<quint32>(f, 12);
    if (!f.startsWith("FBALE\1\1\1") || f.size() != 20 + qsizetype(packed)) return false;
    const auto content = unpacked(f.mid(20), size);
    if (crc(content) != get<quint32>(f, 16)) return false;
    Archive crate;
    if (!read_crate(name + " > crate", content, crate)) return false;
    for (auto roll = crate.files.constBegin(); roll != crate.files.constEnd(); ++roll) {
        const auto& r = roll.value();
        if (!r.startsWith("FROLL1")) return false;
        for (int i = 0; i < get<quint16>(r, 6); ++i) {
            const auto at = get<quint32>(r, 8 + i * 32 + 24), length = get<quint32>(r, 8 + i * 32 + 28);
            if (!inside(r, at, length)) return false;
            out.files[text(r, 8 + i * 32, 24)] = r.mid(at, length);
        }
    }
    return true;
}

bool Installation::read_index(const QString& name, const QByteArray& f, Archive& out) {
    if (!f.startsWith("FIDX") || f.size() != 8 + qsizetype(get<quint32>(f, 4)) * 56) return false;
    QMap<int, QByteArray> stocks;
    for (qsizetype at = 8; at < f.size(); at += 56) {
        const int number = get<quint16>(f, at + 44);
        if (!stocks.contains(number)) {
            const auto stock = file(name.chopped(6) + QStringLiteral("-%1.stock").arg(number, 2, 10, QLatin1Char('0')));
            if (!stock) {
                log << QStringLiteral("%1: the data file %2 is missing").arg(name).arg(number);
                return false;
            }
            stocks[number] = *stock;
        }
        const auto start = get<quint32>(f, at + 48), size = get<quint32>(f, at + 52);
        if (start % 32 || !inside(stocks[number], start, size)) return false;
        out.files[text(f, at, 44)] = stocks[number].mid(start, size);
    }
    return true;
}

bool Installation::read_strongbox(const QString& name, const QByteArray& f, Archive& out) {
    QFile secret(folder_ + "/cashbox key.txt");
    if (!secret.open(QIODevice::ReadOnly)) {
        log << QStringLiteral("%1: its key is missing").arg(name);
        return false;
    }
    const auto key = QByteArray::fromHex(secret.readAll().trimmed());
    const auto count = get<quint32>(f, 8), at = get<quint32>(f, 12), bytes = get<quint32>(f, 16);
    if (!f.startsWith("FSAFE01") || bytes != count * 64 || !inside(f, at, bytes) || at + bytes != quint32(f.size()) ||
        get<quint64>(f, 24) != 0x0FA1C0DE)
        return false;
    const auto directory = aes_counter(key, QByteArray("brindle fair box", 16), f.mid(at, bytes));
    if (crc(directory) != get<quint32>(f, 20)) return false;
    for (quint32 i = 0; i < count; ++i) {
        const auto record = qsizetype(i) * 64;
        const auto start = get<quint32>(directory, record + 48), size = get<quint32>(directory, record + 52);
        if (start % 16 || !inside(f, start, size) || get<quint32>(directory, record + 60) != 0x5A) return false;
        QByteArray iv(16, '\0');
        qToLittleEndian(i, iv.data());
        const auto data = aes_counter(key, iv, f.mid(start, size));
        if (crc(data) != get<quint32>(directory, record + 56)) {
            log << QStringLiteral("%1: %2 is damaged").arg(name, text(directory, record, 48));
            continue;
        }
        out.files[text(directory, record, 48)] = data;
    }
    return true;
}

bool Installation::read_hamper(const QString& name, const QByteArray& f, Archive& out) {
    if (!f.startsWith("HAMPER")) return false;
    QMap<quint32, QString> names;  // the game knows its own textures' names
    for (const auto& path : manifest_.keys()) {
        quint32 hash = 0x811C9DC5u;
        for (const char c : path.toLower().toUtf8()) hash = (hash ^ uchar(c)) * 0x01000193u;
        names[hash] = path;
    }
    for (int i = 0; i < get<quint16>(f, 6); ++i) {
        const auto record = 8 + i * 16;
        const auto start = get<quint32>(f, record + 4), size = get<quint32>(f, record + 8);
        if (start % 16 || !inside(f, start, size)) return false;
        const auto path = names.value(get<quint32>(f, record));
        if (path.isEmpty()) log << QStringLiteral("%1: an entry nobody asks for").arg(name);
        else out.files[path] = f.mid(start, size);
    }
    return true;
}

std::optional<QByteArray> Installation::stepped_level(const Archive& archive, const QString& path, const Expected& expected, int level,
                                                      QString& why) const {
    const auto& f = archive.files[path];
    const auto refuse = [&](const char* text) {
        why = QLatin1String(text);
        return std::nullopt;
    };
    if (get<quint16>(f, 4) != expected.width || get<quint16>(f, 6) != expected.height) return refuse("wrong size");
    if (uchar(f[9]) != expected.levels) return refuse("wrong number of levels");
    const auto blocks = [&](int l) {
        return qsizetype((std::max(1, expected.width >> l) + 3) / 4) * ((std::max(1, expected.height >> l) + 3) / 4);
    };
    const qsizetype each = 8;  // all of them are BC1
    if (uchar(f[8]) != 1 || expected.pixels != 0) return refuse("wrong format");
    if (level < 2) {
        const auto file = archive.files.constFind(path.chopped(4) + QStringLiteral(".step%1").arg(level));
        if (file == archive.files.constEnd()) return refuse("its largest level is missing");
        auto data = level == 0 ? unpacked(*file, quint32(blocks(0) * each)) : *file;
        if (data.size() != blocks(level) * each) return refuse("a level of the wrong length");
        return data;
    }
    qsizetype at = 12;
    for (int l = 2; l < level; ++l) at += blocks(l) * each;
    qsizetype whole = 12;
    for (int l = 2; l < expected.levels; ++l) whole += blocks(l) * each;
    if (f.size() != whole) return refuse("wrong length");
    return f.mid(at, blocks(level) * each);
}

}  // namespace fair
