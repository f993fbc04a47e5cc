#include "fair/stall/loader.h"

#include <astcenc.h>
#include <squish.h>
#include <zip.h>
#include <zlib.h>
#include <algorithm>
#include <cmath>
#include <cstring>
#include <QDir>
#include <QDirIterator>
#include <QFile>
#include <QFloat16>
#include <QtEndian>

namespace fair {
namespace {

template <class T>
T get(const QByteArray& data, qsizetype at) {
    return at + qsizetype(sizeof(T)) <= data.size() ? qFromLittleEndian<T>(data.constData() + at) : T{};
}

quint32 checksum(const QByteArray& data) {
    return quint32(::crc32(0, reinterpret_cast<const Bytef*>(data.constData()), uInt(data.size())));
}

QByteArray inflate_raw(const QByteArray& in, quint32 size) {
    if (size > 256u << 20) return {};
    QByteArray out(qsizetype(size), '\0');
    z_stream z{};
    inflateInit2(&z, -15);
    z.next_in = reinterpret_cast<Bytef*>(const_cast<char*>(in.constData()));
    z.avail_in = uInt(in.size());
    z.next_out = reinterpret_cast<Bytef*>(out.data());
    z.avail_out = uInt(out.size());
    const int result = inflate(&z, Z_FINISH);
    const bool good = result == Z_STREAM_END && z.total_out == size;
    inflateEnd(&z);
    return good ? out : QByteArray();
}

// The codes of the manifest: BC1 to BC5, RGBA8, BGRA8, R8, B5G6R5, BGRA4, PNG, JPEG, four half floats, BC7, BC6H, ETC2, ASTC 4×4.
enum Code { bc1, bc2, bc3, bc4, bc5, rgba8, bgra8, r8, b5g6r5, bgra4, png, jpeg, rgba16f, bc7, bc6h, etc2, astc };

bool in_blocks(int code) { return code <= bc5 || code >= bc7; }
int block_bytes(int code) { return code == bc1 || code == bc4 || code == etc2 ? 8 : 16; }
int texel_bytes(int code) { return code == rgba16f ? 8 : code == rgba8 || code == bgra8 ? 4 : code == r8 ? 1 : 2; }
qsizetype level_size(int code, int w, int h) {
    return in_blocks(code) ? qsizetype((w + 3) / 4) * ((h + 3) / 4) * block_bytes(code) : qsizetype(w) * h * texel_bytes(code);
}

/// A block of one channel (BC4, or half of BC5): two ends, and 16 numbers of 3 bits of the values between them.
std::array<int, 16> channel_block(const QByteArray& data, qsizetype at) {
    const int a = uchar(data[at]), b = uchar(data[at + 1]);
    int values[8] = {a, b};
    for (int i = 1; i < 7; ++i) values[i + 1] = a > b ? ((7 - i) * a + i * b) / 7 : i < 5 ? ((5 - i) * a + i * b) / 5 : i == 5 ? 0 : 255;
    quint64 bits = 0;
    for (int i = 0; i < 6; ++i) bits |= quint64(uchar(data[at + 2 + i])) << (8 * i);
    std::array<int, 16> out{};
    for (size_t i = 0; i < 16; ++i) out[i] = values[bits >> (3 * i) & 7];
    return out;
}

QImage decode_level(int code, const QByteArray& data, int w, int h) {
    QImage out(w, h, QImage::Format_RGBA8888);
    if (code == bc4 || code == bc5) {
        for (int y = 0; y < h; y += 4)
            for (int x = 0; x < w; x += 4) {
                const auto at = (qsizetype(y / 4) * ((w + 3) / 4) + x / 4) * block_bytes(code);
                const auto red = channel_block(data, at), green = code == bc5 ? channel_block(data, at + 8) : red;
                for (int i = 0; i < 16; ++i)
                    if (x + i % 4 < w && y + i / 4 < h)
                        out.setPixelColor(x + i % 4, y + i / 4, QColor(red[size_t(i)], green[size_t(i)], code == bc5 ? 0 : red[size_t(i)]));
            }
        return out;
    }
    if (code <= bc3) {
        const int flags[] = {squish::kDxt1, squish::kDxt3, squish::kDxt5};
        QByteArray rgba(qsizetype(w) * h * 4, '\0');
        squish::DecompressImage(reinterpret_cast<squish::u8*>(rgba.data()), w, h, data.constData(), flags[code]);
        for (int y = 0; y < h; ++y) std::copy_n(rgba.constData() + qsizetype(y) * w * 4, w * 4, reinterpret_cast<char*>(out.scanLine(y)));
        return out;
    }
    if (code == astc) {
        astcenc_config config{};
        astcenc_context* context = nullptr;
        astcenc_config_init(ASTCENC_PRF_LDR, 4, 4, 1, ASTCENC_PRE_FAST, ASTCENC_FLG_DECOMPRESS_ONLY, &config);
        if (astcenc_context_alloc(&config, 1, &context) != ASTCENC_SUCCESS) return out;
        QByteArray rgba(qsizetype(w) * h * 4, '\0');
        void* slices[] = {rgba.data()};
        astcenc_image picture{unsigned(w), unsigned(h), 1, ASTCENC_TYPE_U8, slices};
        const astcenc_swizzle swizzle{ASTCENC_SWZ_R, ASTCENC_SWZ_G, ASTCENC_SWZ_B, ASTCENC_SWZ_A};
        astcenc_decompress_image(context, reinterpret_cast<const uint8_t*>(data.constData()), size_t(data.size()), &picture, &swizzle, 0);
        astcenc_context_free(context);
        for (int y = 0; y < h; ++y) std::copy_n(rgba.constData() + qsizetype(y) * w * 4, w * 4, reinterpret_cast<char*>(out.scanLine(y)));
        return out;
    }
    if (in_blocks(code)) {  // checked like all others, but this game's painter has no eye for them
        out.fill(QColor(128, 128, 128));
        return out;
    }
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) {
            const auto at = (qsizetype(y) * w + x) * texel_bytes(code);
            const auto byte = [&](int i) { return int(uchar(data[at + i])); };
            const auto word = texel_bytes(code) == 2 ? get<quint16>(data, at) : quint16(0);
            QColor c;
            switch (code) {
                case rgba8: c = QColor(byte(0), byte(1), byte(2), byte(3)); break;
                case bgra8: c = QColor(byte(2), byte(1), byte(0), byte(3)); break;
                case r8: c = QColor(byte(0), byte(0), byte(0)); break;
                case rgba16f: {  // as bright as a screen can
                    const auto part = [&](int i) {
                        const auto raw = get<quint16>(data, at + qsizetype(2) * i);
                        qfloat16 v;
                        std::memcpy(static_cast<void*>(&v), &raw, 2);
                        return std::clamp(float(v), 0.0f, 1.0f);
                    };
                    c = QColor::fromRgbF(std::pow(part(0), 1 / 2.2f), std::pow(part(1), 1 / 2.2f), std::pow(part(2), 1 / 2.2f), part(3));
                    break;
                }
                case b5g6r5: c = QColor((word >> 11) * 255 / 31, (word >> 5 & 63) * 255 / 63, (word & 31) * 255 / 31); break;
                default: c = QColor((word >> 8 & 15) * 17, (word >> 4 & 15) * 17, (word & 15) * 17, (word >> 12) * 17); break;
            }
            out.setPixelColor(x, y, c);
        }
    return out;
}

int dds_code(const QByteArray& f) {
    if (get<quint32>(f, 80) & 4) {
        const auto name = f.mid(84, 4);
        if (name == "DXT1") return bc1;
        if (name == "DXT3") return bc2;
        if (name == "DXT5") return bc3;
        if (name == "ATI1") return bc4;
        if (name == "ATI2") return bc5;
        if (name != "DX10") return -1;
        switch (get<quint32>(f, 128)) {
            case 71:
            case 72: return bc1;
            case 74:
            case 75: return bc2;
            case 77:
            case 78: return bc3;
            case 80: return bc4;
            case 83: return bc5;
            case 10: return rgba16f;
            case 95: return bc6h;
            case 98:
            case 99: return bc7;
            default: return -1;
        }
    }
    switch (get<quint32>(f, 88)) {
        case 32: return get<quint32>(f, 92) == 0xFF ? rgba8 : bgra8;
        case 16: return get<quint32>(f, 92) == 0xF800 ? b5g6r5 : bgra4;
        case 8: return r8;
        default: return -1;
    }
}

int panel_code(int stored) {
    switch (stored) {
        case 1: return bc1;
        case 2: return bc2;
        case 3: return bc3;
        case 4: return bc4;
        case 5: return bc5;
        case 16: return rgba8;
        case 17: return r8;
        case 18: return b5g6r5;
        default: return -1;
    }
}

}  // namespace

QString Installation::source_of(const QString& path) const {
    QString out;
    for (const auto& archive : archives_)
        if (archive.files.contains(path)) out = archive.name;
    return out;
}

QImage missing_texture() {
    QImage image(64, 64, QImage::Format_RGBA8888);
    for (int y = 0; y < 64; ++y)
        for (int x = 0; x < 64; ++x) image.setPixelColor(x, y, (x / 8 + y / 8) % 2 ? QColor(255, 0, 255) : QColor(0, 0, 0));
    return image;
}

bool Installation::read_zip(const QString& name, const QByteArray& bytes, Archive& out) {
    zip_error_t error;
    zip_error_init(&error);
    auto* source = zip_source_buffer_create(bytes.constData(), zip_uint64_t(bytes.size()), 0, &error);
    auto* zip = source ? zip_open_from_source(source, ZIP_RDONLY | ZIP_CHECKCONS, &error) : nullptr;
    if (!zip) {
        log << QStringLiteral("%1: no sound archive").arg(name);
        return false;
    }
    for (zip_int64_t i = 0; i < zip_get_num_entries(zip, 0); ++i) {
        zip_stat_t stat;
        if (zip_stat_index(zip, zip_uint64_t(i), 0, &stat) != 0 || stat.size > 256u << 20) continue;
        QByteArray data(qsizetype(stat.size), '\0');
        auto* file = zip_fopen_index(zip, zip_uint64_t(i), 0);
        // Reading to the end makes the library compare the checksum.
        char more = 0;
        const bool good = file && zip_fread(file, data.data(), stat.size) == zip_int64_t(stat.size) && zip_fread(file, &more, 1) == 0;
        if (file && zip_fclose(file) == 0 && good) out.files[QString::fromUtf8(stat.name)] = data;
        else log << QStringLiteral("%1: %2 is damaged").arg(name, QString::fromUtf8(stat.name));
    }
    zip_discard(zip);
    return true;
}

bool Installation::read_crate(const QString& name, const QByteArray& f, Archive& out) {
    const auto refuse = [&](const char* why) {
        log << QStringLiteral("%1: %2").arg(name, QLatin1String(why));
        return false;
    };
    if (!f.startsWith("FCRATE01") || get<quint64>(f, 32) != quint64(f.size())) return refuse("no sound crate");
    const auto count = get<quint32>(f, 8);
    auto at = qsizetype(get<quint64>(f, 16));
    const auto directory = f.mid(at, get<quint32>(f, 24));
    if (checksum(directory) != get<quint32>(f, 28)) return refuse("the directory's checksum is wrong");
    for (quint32 i = 0; i < count; ++i) {
        const auto length = get<quint16>(f, at);
        const auto path = QString::fromUtf8(f.mid(at + 2, length));
        at += 2 + length;
        const bool packed = f.size() > at && f[at] == 1;
        const auto start = qsizetype(get<quint32>(f, at + 2)) * 16;
        const auto stored = get<quint32>(f, at + 6), size = get<quint32>(f, at + 10), sum = get<quint32>(f, at + 14);
        at += 18;
        if (start + qsizetype(stored) > f.size()) return refuse("an entry lies outside");
        auto data = f.mid(start, stored);
        if (packed) data = inflate_raw(data, size);
        if (quint32(data.size()) != size || checksum(data) != sum) {
            log << QStringLiteral("%1: %2 is damaged").arg(name, path);
            continue;
        }
        out.files[path] = data;
    }
    return true;
}

std::optional<QByteArray> Installation::file(const QString& name) const {
    const auto content = [](const QString& path) -> std::optional<QByteArray> {
        QFile file(path);
        return file.open(QIODevice::ReadOnly) ? std::optional(file.readAll()) : std::nullopt;
    };
    if (!card_.isEmpty()) {
        if (auto whole = content(card_ + "/mods/" + name)) return whole;
        std::optional<QByteArray> out;
        for (int part = 0;; ++part) {
            const auto next = content(QStringLiteral("%1/mods/%2.%3").arg(card_, name).arg(part, 2, 10, QLatin1Char('0')));
            if (!next) break;
            out = out.value_or(QByteArray()) + *next;
        }
        if (out) return out;
    }
    return content(folder_ + '/' + name);
}

void Installation::add_loose(const QString& folder, const QString& name) {
    Archive archive;
    archive.name = name;
    archive.loose = true;
    QDirIterator walk(folder, QDir::Files, QDirIterator::Subdirectories);
    while (walk.hasNext()) {
        QFile file(walk.next());
        if (file.open(QIODevice::ReadOnly)) archive.files[QDir(folder).relativeFilePath(file.fileName())] = file.readAll();
    }
    archives_.push_back(std::move(archive));
}

bool Installation::open(const QString& folder, const QString& card) {
    folder_ = folder;
    card_ = card;
    archives_.clear();
    manifest_.clear();
    log.clear();
    QFile manifest(folder + "/manifest.txt"), order(folder + "/load_order.txt");
    if (!manifest.open(QIODevice::ReadOnly) || !order.open(QIODevice::ReadOnly)) {
        log << "manifest.txt or load_order.txt is missing: the game does not start";
        return false;
    }
    for (const auto& line : QString::fromUtf8(manifest.readAll()).split('\n', Qt::SkipEmptyParts)) {
        const auto parts = line.split(' ');
        if (parts.size() == 7)
            manifest_[parts[1]] = {parts[2].toInt(), parts[3].toInt(), parts[4].toInt(), parts[5].toInt(), parts[6].toInt()};
    }
    for (const auto& raw : QString::fromUtf8(order.readAll()).split('\n', Qt::SkipEmptyParts)) {
        const auto name = raw.trimmed();
        if (name.startsWith('#')) continue;
        if (QFileInfo(folder + '/' + name).isDir()) {
            add_loose(folder + '/' + name, name);
            continue;
        }
        Archive archive;
        archive.name = name;
        const auto bytes = file(name);
        if (!bytes) {
            log << QStringLiteral("%1 is missing: the game does not start").arg(name);
            return false;
        }
        if (!(name.endsWith(".zip")     ? read_zip(name, *bytes, archive)
              : name.endsWith(".crate") ? read_crate(name, *bytes, archive)
                                        : read_other(name, *bytes, archive))) {
            log << QStringLiteral("%1 cannot be read: the game does not start").arg(name);
            return false;
        }
        // A crate inside an archive belongs to it.
        for (const auto& path : archive.files.keys())
            if (path.endsWith(".crate")) {
                Archive inner;
                if (!read_crate(name + " > " + path, archive.files[path], inner)) return false;
                archive.files.insert(inner.files);
            }
        archives_.push_back(std::move(archive));
    }
    if (!card.isEmpty() && QFileInfo(card + "/mods/loose").isDir()) add_loose(card + "/mods/loose", "the card");
    return true;
}

std::optional<QImage> Installation::texture(const QString& path, int level) {
    const auto refuse = [&](const QString& why) -> std::optional<QImage> {
        log << QStringLiteral("%1: %2").arg(path, why);
        return std::nullopt;
    };
    const auto expected = manifest_.constFind(path);
    if (expected == manifest_.constEnd()) return refuse("not in the game's tables");
    const QByteArray* found = nullptr;
    const Archive* from = nullptr;
    for (const auto& archive : archives_)
        if (const auto file = archive.files.constFind(path); file != archive.files.constEnd()) found = &*file, from = &archive;
    if (!found) return refuse("in no archive");
    const auto& f = *found;
    const int w = expected->width, h = expected->height;
    const auto side = [](int s, int l) { return std::max(1, s >> l); };
    level = std::min(level, expected->levels - 1);
    if (expected->pixels == png || expected->pixels == jpeg) {
        QImage image;
        const char* kind = expected->pixels == png ? "PNG" : "JPG";
        if (!image.loadFromData(f, kind) || image.width() != w || image.height() != h)
            return refuse(QStringLiteral("no %1 of the right size").arg(QLatin1String(kind)));
        return image.convertToFormat(QImage::Format_RGBA8888);
    }
    if (f.startsWith("PNL1")) {
        if (get<quint16>(f, 4) != w || get<quint16>(f, 6) != h) return refuse("wrong size");
        if (panel_code(uchar(f[8])) != expected->pixels) return refuse("wrong format");
        if (uchar(f[9]) != expected->levels) return refuse("wrong number of levels");
        const auto payload = f.mid(40);
        if (quint32(payload.size()) != get<quint32>(f, 12) || checksum(payload) != get<quint32>(f, 16)) return refuse("wrong checksum");
        qsizetype at = 0;
        for (int l = expected->levels - 1; l >= 0; --l) {
            at = (at + 7) / 8 * 8;
            const auto size = level_size(expected->pixels, side(w, l), side(h, l));
            if (at + size > payload.size()) return refuse("too short");
            if (l == level) return decode_level(expected->pixels, payload.mid(at, size), side(w, l), side(h, l));
            at += size;
        }
    }
    if (f.startsWith("STEP")) {
        QString why;
        const auto data = stepped_level(*from, path, *expected, level, why);
        if (!data) return refuse(why);
        const auto size = level_size(expected->pixels, side(w, level), side(h, level));
        if (data->size() < size) return refuse("too short");
        return decode_level(expected->pixels, data->left(size), side(w, level), side(h, level));
    }
    if (f.startsWith("\xABKTX 20\xBB")) {
        if (int(get<quint32>(f, 20)) != w || int(get<quint32>(f, 24)) != h) return refuse("wrong size");
        const auto vk = get<quint32>(f, 12);
        const int code = vk == 133 || vk == 134 ? bc1 : vk == 147 || vk == 148 ? etc2 : vk == 157 || vk == 158 ? astc : -1;
        if (code != expected->pixels) return refuse("wrong format");
        if (int(get<quint32>(f, 40)) != expected->levels) return refuse("wrong number of levels");
        const auto at = qsizetype(get<quint64>(f, 80 + level * 24)), size = level_size(code, side(w, level), side(h, level));
        if (at < 0 || at + size > f.size()) return refuse("too short");
        return decode_level(code, f.mid(at, size), side(w, level), side(h, level));
    }
    if (!f.startsWith("DDS ")) return refuse("no texture");
    if (int(get<quint32>(f, 16)) != w || int(get<quint32>(f, 12)) != h) return refuse("wrong size");
    if (dds_code(f) != expected->pixels) return refuse("wrong format");
    if (int(get<quint32>(f, 28)) != expected->levels) return refuse("wrong number of levels");
    auto at = qsizetype(f.mid(84, 4) == "DX10" ? 148 : 128);
    qsizetype whole = 0;
    for (int l = 0; l < expected->levels; ++l) whole += level_size(expected->pixels, side(w, l), side(h, l));
    if (f.size() != at + whole * expected->layers) return refuse("wrong length");
    for (int l = 0; l < level; ++l) at += level_size(expected->pixels, side(w, l), side(h, l));
    return decode_level(expected->pixels, f.mid(at, level_size(expected->pixels, side(w, level), side(h, level))), side(w, level),
                        side(h, level));
}

}  // namespace fair
