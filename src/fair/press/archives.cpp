#include "fair/press/archives.h"
#include "fair/press/little.h"

#include <openssl/evp.h>
#include <zlib.h>
#include <QtEndian>

namespace fair {
namespace {

void align(QByteArray& out, qsizetype step) {
    while (out.size() % step) out.append('\0');
}
quint32 crc(const QByteArray& data) { return quint32(::crc32(0, reinterpret_cast<const Bytef*>(data.constData()), uInt(data.size()))); }
QByteArray fixed(const QString& text, qsizetype size) { return text.toUtf8().leftJustified(size, '\0', true); }

QByteArray aes_counter(const QByteArray& key, const QByteArray& iv, const QByteArray& data) {
    auto* context = EVP_CIPHER_CTX_new();
    QByteArray out(data.size() + 16, '\0');
    int length = 0, more = 0;
    const bool done = EVP_EncryptInit_ex(context, EVP_aes_128_ctr(), nullptr, reinterpret_cast<const uchar*>(key.constData()),
                                         reinterpret_cast<const uchar*>(iv.constData())) == 1 &&
                      EVP_EncryptUpdate(context, reinterpret_cast<uchar*>(out.data()), &length,
                                        reinterpret_cast<const uchar*>(data.constData()), int(data.size())) == 1 &&
                      EVP_EncryptFinal_ex(context, reinterpret_cast<uchar*>(out.data()) + length, &more) == 1;
    EVP_CIPHER_CTX_free(context);
    out.resize(done ? length + more : 0);
    return out;
}

}  // namespace

QByteArray make_roll(const std::vector<PackedFile>& files) {
    QByteArray out("FROLL1");
    put(out, quint16(files.size()));
    auto at = out.size() + qsizetype(files.size()) * 32;
    QByteArray body;
    for (const auto& file : files) {
        while ((at + body.size()) % 8) body.append('\0');
        out.append(fixed(file.path, 24));
        put(out, quint32(at + body.size()));
        put(out, quint32(file.bytes.size()));
        body.append(file.bytes);
    }
    return out + body;
}

QByteArray make_bale(const QByteArray& content) {
    QByteArray packed(qsizetype(compressBound(uLong(content.size()))), '\0');
    auto length = uLongf(packed.size());
    ::compress2(reinterpret_cast<Bytef*>(packed.data()), &length, reinterpret_cast<const Bytef*>(content.constData()),
                uLong(content.size()), 6);
    packed.resize(qsizetype(length));
    QByteArray out("FBALE");
    out.append(3, '\1');
    put(out, quint32(content.size()));
    put(out, quint32(packed.size()));
    put(out, crc(content));
    return out + packed;
}

std::map<QString, QByteArray> make_index(const QString& stem, const std::vector<PackedFile>& files) {
    QByteArray index("FIDX");
    put(index, quint32(files.size()));
    std::map<QString, QByteArray> out;
    for (size_t i = 0; i < files.size(); ++i) {
        const auto number = quint16(i % 2);
        auto& stock = out[QStringLiteral("%1-%2.stock").arg(stem).arg(number, 2, 10, QLatin1Char('0'))];
        align(stock, 32);
        index.append(fixed(files[i].path, 44));
        put(index, number);
        put(index, quint16(7));
        put(index, quint32(stock.size()));
        put(index, quint32(files[i].bytes.size()));
        stock.append(files[i].bytes);
    }
    out[stem + ".index"] = index;
    return out;
}

QByteArray make_strongbox(const std::vector<PackedFile>& files, const QByteArray& key) {
    QByteArray body(32, '\0'), directory;
    for (size_t i = 0; i < files.size(); ++i) {
        align(body, 16);
        QByteArray iv(16, '\0');
        qToLittleEndian(quint32(i), iv.data());
        directory.append(fixed(files[i].path, 48));
        put(directory, quint32(body.size()));
        put(directory, quint32(files[i].bytes.size()));
        put(directory, crc(files[i].bytes));
        put(directory, quint32(0x5A));
        body.append(aes_counter(key, iv, files[i].bytes));
    }
    align(body, 16);
    QByteArray header("FSAFE01");
    header.append('\0');
    put(header, quint32(files.size()));
    put(header, quint32(body.size()));
    put(header, quint32(directory.size()));
    put(header, crc(directory));
    put(header, quint64(0x0FA1C0DE));
    body.replace(0, 32, header);
    return body + aes_counter(key, QByteArray("brindle fair box", 16), directory);
}

QByteArray make_hamper(const std::vector<PackedFile>& files) {
    QByteArray out("HAMPER");
    put(out, quint16(files.size()));
    auto at = out.size() + qsizetype(files.size()) * 16;
    QByteArray body;
    for (const auto& file : files) {
        while ((at + body.size()) % 16) body.append('\0');
        quint32 hash = 0x811C9DC5u;
        for (const char c : file.path.toLower().toUtf8()) hash = (hash ^ uchar(c)) * 0x01000193u;
        put(out, hash);
        put(out, quint32(at + body.size()));
        put(out, quint32(file.bytes.size()));
        put(out, quint32(0));
        body.append(file.bytes);
    }
    return out + body;
}

}  // namespace fair
