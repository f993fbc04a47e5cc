#include "fair/press/pack.h"

#include <squish.h>
#include <zip.h>
#include <zlib.h>
#include <cmath>
#include <cstring>
#include <QBuffer>
#include <QFile>
#include <QFloat16>
#include <QtEndian>

#include "fair/press/blocks.h"
#include "fair/press/little.h"

namespace fair {
namespace {

double linear(int byte) {
    const double v = byte / 255.0;
    return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
}

int encoded(double v) { return int(std::lround((v <= 0.0031308 ? v * 12.92 : 1.055 * std::pow(v, 1 / 2.4) - 0.055) * 255)); }

/// Box filter; color in linear light.
QImage half(const QImage& in, bool srgb) {
    static const std::vector<double> table = [] {
        std::vector<double> t(256);
        for (int i = 0; i < 256; ++i) t[size_t(i)] = linear(i);
        return t;
    }();
    const int w = std::max(1, in.width() / 2), h = std::max(1, in.height() / 2);
    QImage out(w, h, QImage::Format_RGBA8888);
    for (int y = 0; y < h; ++y)
        for (int x = 0; x < w; ++x) {
            double sum[4] = {};
            for (int k = 0; k < 4; ++k) {
                const auto* texel =
                    in.constScanLine(std::min(y * 2 + k / 2, in.height() - 1)) + std::min(x * 2 + k % 2, in.width() - 1) * 4;
                for (int c = 0; c < 4; ++c) sum[c] += srgb && c < 3 ? table[texel[c]] : texel[c];
            }
            auto* to = out.scanLine(y) + x * 4;
            for (int c = 0; c < 4; ++c) to[c] = uchar(srgb && c < 3 ? encoded(sum[c] / 4) : std::lround(sum[c] / 4));
        }
    return out;
}

QByteArray compress(const QImage& image, Pixels pixels) {
    const int w = image.width(), h = image.height();
    QByteArray tight;
    for (int y = 0; y < h; ++y) tight.append(reinterpret_cast<const char*>(image.constScanLine(y)), w * 4);
    const auto* rgba = reinterpret_cast<const squish::u8*>(tight.constData());
    int flags = 0;
    switch (pixels) {
        case Pixels::bc1: flags = squish::kDxt1; break;
        case Pixels::bc2: flags = squish::kDxt3; break;
        case Pixels::bc3: flags = squish::kDxt5; break;
        case Pixels::bc4: flags = squish::kBc4; break;
        case Pixels::bc5: flags = squish::kBc5; break;
        default: break;
    }
    QByteArray out;
    switch (pixels) {
        case Pixels::bc7: return bc7_blocks(image);
        case Pixels::bc6h: return bc6h_blocks(image, 6);
        case Pixels::etc2: return etc2_blocks(image);
        case Pixels::astc: return astc_blocks(image);
        default: break;
    }
    if (flags) {
        flags |= squish::kColourRangeFit;
        out.resize(squish::GetStorageRequirements(w, h, flags));
        squish::CompressImage(rgba, w, h, out.data(), flags);
        return out;
    }
    for (int i = 0; i < w * h; ++i) {
        const auto* t = rgba + i * 4;
        const auto bits = [&](int c, int n) { return unsigned(std::lround(t[c] * ((1 << n) - 1) / 255.0)); };
        switch (pixels) {
            case Pixels::rgba8: out.append(reinterpret_cast<const char*>(t), 4); break;
            case Pixels::bgra8: out.append(char(t[2])).append(char(t[1])).append(char(t[0])).append(char(t[3])); break;
            case Pixels::r8: out.append(char(t[0])); break;
            case Pixels::b5g6r5: put(out, quint16(bits(0, 5) << 11 | bits(1, 6) << 5 | bits(2, 5))); break;
            case Pixels::rgba16f:  // light: white is six times as bright as a screen's
                for (int c = 0; c < 4; ++c) {
                    const qfloat16 v(c == 3 ? 1.0f : float(linear(t[c]) * 6));
                    quint16 raw;
                    std::memcpy(&raw, &v, 2);
                    put(out, raw);
                }
                break;
            case Pixels::bgra4: put(out, quint16(bits(3, 4) << 12 | bits(0, 4) << 8 | bits(1, 4) << 4 | bits(2, 4))); break;
            default: break;
        }
    }
    return out;
}

std::vector<QImage> chain_of(const QImage& top, const Art& art) {
    std::vector<QImage> out = {top};
    while ((art.mips == 0 || int(out.size()) < art.mips) && (out.back().width() > 1 || out.back().height() > 1))
        out.push_back(half(out.back(), art.srgb));
    return out;
}

quint32 dxgi_of(const Art& art) {
    switch (art.pixels) {
        case Pixels::bc1: return art.srgb ? 72 : 71;
        case Pixels::bc2: return art.srgb ? 75 : 74;
        case Pixels::bc3: return art.srgb ? 78 : 77;
        case Pixels::bc4: return 80;
        case Pixels::bc5: return 83;
        case Pixels::rgba16f: return 10;
        case Pixels::bc6h: return 95;
        case Pixels::bc7: return art.srgb ? 99 : 98;
        default: return 28;
    }
}

QByteArray dds_header(const Art& art, int mips) {
    const bool dx10 = art.wrap == Wrap::dds_dx10;
    const auto& top = art.pictures.front();
    QByteArray h(dx10 ? 148 : 128, '\0');
    const auto set = [&](int at, quint32 value) { qToLittleEndian(value, h.data() + at); };
    const auto code = [&](int at, const char* text) { std::copy_n(text, 4, h.data() + at); };
    code(0, "DDS ");
    set(4, 124);
    set(8, 0x1007 | 0x20000);
    set(12, quint32(top.height()));
    set(16, quint32(top.width()));
    set(28, quint32(mips));
    code(32, "FAIR");  // reserved words that readers must keep
    set(76, 32);
    const auto masks = [&](quint32 flags, quint32 bits, quint32 r, quint32 g, quint32 b, quint32 a) {
        set(80, flags);
        set(88, bits);
        set(92, r);
        set(96, g);
        set(100, b);
        set(104, a);
    };
    if (dx10) {
        set(80, 4);
        code(84, "DX10");
        set(128, dxgi_of(art));
        set(132, 3);
        set(136, art.cube ? 4 : 0);
        set(140, art.cube ? 1 : quint32(art.pictures.size()));
    } else {
        switch (art.pixels) {
            case Pixels::bc1: set(80, 4), code(84, "DXT1"); break;
            case Pixels::bc2: set(80, 4), code(84, "DXT3"); break;
            case Pixels::bc3: set(80, 4), code(84, "DXT5"); break;
            case Pixels::bc4: set(80, 4), code(84, "ATI1"); break;
            case Pixels::bc5: set(80, 4), code(84, "ATI2"); break;
            case Pixels::bgra8: masks(0x41, 32, 0xFF0000, 0xFF00, 0xFF, 0xFF000000); break;
            case Pixels::rgba8: masks(0x41, 32, 0xFF, 0xFF00, 0xFF0000, 0xFF000000); break;
            case Pixels::r8: masks(0x20000, 8, 0xFF, 0, 0, 0); break;
            case Pixels::b5g6r5: masks(0x40, 16, 0xF800, 0x7E0, 0x1F, 0); break;
            case Pixels::bgra4: masks(0x41, 16, 0xF00, 0xF0, 0xF, 0xF000); break;
            default: break;
        }
    }
    set(108, 0x401008);
    if (art.volume) {
        set(8, 0x1007 | 0x20000 | 0x800000);
        set(24, quint32(art.pictures.size()));
        set(112, 0x200000);
    }
    return h;
}

quint8 panel_code(Pixels pixels) {
    switch (pixels) {
        case Pixels::bc1: return 1;
        case Pixels::bc2: return 2;
        case Pixels::bc3: return 3;
        case Pixels::bc4: return 4;
        case Pixels::bc5: return 5;
        case Pixels::r8: return 17;
        case Pixels::b5g6r5: return 18;
        default: return 16;
    }
}

QByteArray panel_file(const Art& art) {
    auto chain = chain_of(art.pictures.front(), art);
    QByteArray payload;
    for (auto level = chain.rbegin(); level != chain.rend(); ++level) {
        while (payload.size() % 8) payload.append('\0');
        payload.append(compress(*level, art.pixels));
    }
    QByteArray out("PNL1");
    put(out, quint16(chain[0].width()));
    put(out, quint16(chain[0].height()));
    put(out, panel_code(art.pixels));
    put(out, quint8(chain.size()));
    put(out, quint8(art.srgb));
    put(out, quint8(3));
    put(out, quint32(payload.size()));
    put(out, quint32(::crc32(0, reinterpret_cast<const Bytef*>(payload.constData()), uInt(payload.size()))));
    out.append(art.path.section('/', -1).toUtf8().leftJustified(20, '.', true));
    return out + payload;
}

/// What a KTX 2.0 file says of a format: VkFormat without and with sRGB, color model, bytes of a block, channel of its sample.
struct KtxFormat {
    quint32 vk, vk_srgb, model, bytes, channel;
};
KtxFormat ktx_format(Pixels pixels) {
    switch (pixels) {
        case Pixels::etc2: return {147, 148, 161, 8, 2};
        case Pixels::astc: return {157, 158, 162, 16, 0};
        default: return {133, 134, 128, 8, 1};
    }
}

/// KTX 2.0 with nothing packed: header, level index, a data format descriptor of one sample, levels smallest first.
QByteArray ktx2_file(const Art& art) {
    const auto chain = chain_of(art.pictures.front(), art);
    const auto count = int(chain.size());
    const auto format = ktx_format(art.pixels);
    const int descriptor_at = 80 + 24 * count;
    QByteArray out("\xABKTX 20\xBB\r\n\x1A\n", 12);
    for (const quint32 v : {art.srgb ? format.vk_srgb : format.vk, 1u, quint32(chain[0].width()), quint32(chain[0].height()), 0u, 0u, 1u,
                            quint32(count), 0u, quint32(descriptor_at), 44u, 0u, 0u})
        put(out, v);
    put(out, quint64(0));
    put(out, quint64(0));
    std::vector<QByteArray> levels;
    for (const auto& level : chain) levels.push_back(compress(level, art.pixels));
    auto end = quint64((descriptor_at + 44 + format.bytes - 1) / format.bytes * format.bytes);
    std::vector<quint64> start(chain.size());
    for (auto l = chain.size(); l-- > 0;) start[l] = end, end += quint64(levels[l].size());
    for (size_t l = 0; l < chain.size(); ++l) {
        put(out, start[l]);
        put(out, quint64(levels[l].size()));
        put(out, quint64(levels[l].size()));
    }
    put(out, quint32(44));
    put(out, quint32(0));                                                   // Khronos' basic descriptor
    put(out, quint32(2 | 40 << 16));                                        // version 2, 40 bytes
    put(out, quint32(format.model | 1 << 8 | (art.srgb ? 2u : 1u) << 16));  // color model, BT.709, sRGB or linear
    put(out, quint32(3 | 3 << 8));                                          // blocks of 4 by 4
    put(out, format.bytes);
    put(out, quint32(0));
    put(out, quint32((format.bytes * 8 - 1) << 16 | format.channel << 24));
    put(out, quint32(0));
    put(out, quint32(0));
    put(out, 0xFFFFFFFFu);
    out.append(QByteArray(qsizetype(start.back()) - out.size(), '\0'));
    for (auto l = chain.size(); l-- > 0;) out.append(levels[l]);
    return out;
}

QString ending_of(const Art& art) {
    switch (art.wrap) {
        case Wrap::png: return "png";
        case Wrap::jpeg: return "jpg";
        case Wrap::panel: return "pnl";
        case Wrap::ktx2: return "ktx2";
        case Wrap::stepped: return "stp";
        default: return "dds";
    }
}

bool is_picture_file(const Art& art) { return art.wrap == Wrap::png || art.wrap == Wrap::jpeg; }

QByteArray raw_deflate(const QByteArray& in) {
    z_stream z{};
    deflateInit2(&z, 6, Z_DEFLATED, -15, 8, Z_DEFAULT_STRATEGY);
    QByteArray out(qsizetype(deflateBound(&z, uLong(in.size()))), '\0');
    z.next_in = reinterpret_cast<Bytef*>(const_cast<char*>(in.constData()));
    z.avail_in = uInt(in.size());
    z.next_out = reinterpret_cast<Bytef*>(out.data());
    z.avail_out = uInt(out.size());
    deflate(&z, Z_FINISH);
    out.resize(qsizetype(z.total_out));
    deflateEnd(&z);
    return out;
}

}  // namespace

PackedFile make_texture(const Art& art) {
    PackedFile out;
    out.deflated = art.deflated;
    out.path = art.path + '.' + ending_of(art);
    if (is_picture_file(art)) {
        QBuffer buffer(&out.bytes);
        buffer.open(QIODevice::WriteOnly);
        art.pictures.front()
            .convertToFormat(QImage::Format_RGB888)
            .save(&buffer, art.wrap == Wrap::png ? "PNG" : "JPG", art.wrap == Wrap::png ? -1 : 88);
    } else if (art.wrap == Wrap::panel) {
        out.bytes = panel_file(art);
    } else if (art.wrap == Wrap::stepped) {
        out = make_texture_files(art).front();
    } else if (art.wrap == Wrap::ktx2) {
        out.bytes = ktx2_file(art);
    } else {
        for (const auto& picture : art.pictures) {
            const auto chain = chain_of(picture, art);
            if (out.bytes.isEmpty()) out.bytes = dds_header(art, int(chain.size()));
            for (const auto& level : chain) out.bytes.append(compress(level, art.pixels));
        }
    }
    return out;
}

/// A stepped texture: a small file with the header and the low levels, and a file each for the two largest, the first of them deflated.
std::vector<PackedFile> make_texture_files(const Art& art) {
    if (art.wrap != Wrap::stepped) return {make_texture(art)};
    const auto chain = chain_of(art.pictures.front(), art);
    const auto name = art.path + ".stp";
    QByteArray own("STEP");
    put(own, quint16(chain[0].width()));
    put(own, quint16(chain[0].height()));
    put(own, panel_code(art.pixels));
    put(own, quint8(chain.size()));
    put(own, quint8(2));
    put(own, quint8(art.srgb));
    for (size_t i = 2; i < chain.size(); ++i) own.append(compress(chain[i], art.pixels));
    std::vector<PackedFile> out = {{name, own, false}};
    const auto top = compress(chain[0], art.pixels);
    QByteArray packed(qsizetype(compressBound(uLong(top.size()))), '\0');
    auto length = uLongf(packed.size());
    compress2(reinterpret_cast<Bytef*>(packed.data()), &length, reinterpret_cast<const Bytef*>(top.constData()), uLong(top.size()), 9);
    packed.resize(qsizetype(length));
    if (!art.lacks_top) out.push_back({art.path + ".step0", packed, false});
    out.push_back({art.path + ".step1", compress(chain[1], art.pixels), false});
    return out;
}

QString manifest_line(const QString& archive, const Art& art) {
    const auto levels = is_picture_file(art) ? 1 : int(chain_of(art.pictures.front(), art).size());
    return QStringLiteral("%1 %2.%3 %4 %5 %6 %7 %8\n")
        .arg(archive, art.path, ending_of(art))
        .arg(int(art.pixels))
        .arg(art.pictures.front().width())
        .arg(art.pictures.front().height())
        .arg(levels)
        .arg(art.pictures.size());
}

QByteArray make_zip(const std::vector<PackedFile>& files) {
    zip_error_t error;
    zip_error_init(&error);
    auto* source = zip_source_buffer_create(nullptr, 0, 0, &error);
    auto* zip = source ? zip_open_from_source(source, ZIP_TRUNCATE, &error) : nullptr;
    if (!zip) return {};
    zip_source_keep(source);
    for (const auto& file : files) {
        auto* data = zip_source_buffer(zip, file.bytes.constData(), zip_uint64_t(file.bytes.size()), 0);
        const auto index = zip_file_add(zip, file.path.toUtf8().constData(), data, ZIP_FL_ENC_UTF_8);
        zip_set_file_compression(zip, zip_uint64_t(index), file.deflated ? ZIP_CM_DEFLATE : ZIP_CM_STORE, 6);
        zip_file_set_mtime(zip, zip_uint64_t(index), 1'000'000'000, 0);  // the same file every time
    }
    if (zip_close(zip) != 0) return {};
    zip_source_open(source);
    zip_source_seek(source, 0, SEEK_END);
    QByteArray out(qsizetype(zip_source_tell(source)), '\0');
    zip_source_seek(source, 0, SEEK_SET);
    zip_source_read(source, out.data(), zip_uint64_t(out.size()));
    zip_source_close(source);
    zip_source_free(source);
    return out;
}

QByteArray make_crate(const std::vector<PackedFile>& files, quint32 season) {
    QByteArray body(40, '\0'), directory;
    for (const auto& file : files) {
        while (body.size() % 16) body.append('\0');
        const auto stored = file.deflated ? raw_deflate(file.bytes) : file.bytes;
        const auto path = file.path.toUtf8();
        put(directory, quint16(path.size()));
        directory.append(path);
        put(directory, quint8(file.deflated));
        put(directory, quint8(0));
        put(directory, quint32(body.size() / 16));
        put(directory, quint32(stored.size()));
        put(directory, quint32(file.bytes.size()));
        put(directory, quint32(::crc32(0, reinterpret_cast<const Bytef*>(file.bytes.constData()), uInt(file.bytes.size()))));
        body.append(stored);
    }
    while (body.size() % 16) body.append('\0');
    QByteArray header("FCRATE01");
    put(header, quint32(files.size()));
    put(header, season);
    put(header, quint64(body.size()));
    put(header, quint32(directory.size()));
    put(header, quint32(::crc32(0, reinterpret_cast<const Bytef*>(directory.constData()), uInt(directory.size()))));
    put(header, quint64(body.size() + directory.size()));
    body.replace(0, 40, header);
    return body + directory;
}

bool make_depot(const QString& path, quint64 entries, quint64 bytes) {
    QFile file(path);
    if (!file.open(QIODevice::WriteOnly | QIODevice::Truncate)) return false;
    Art art;
    art.pictures.push_back(QImage(256, 256, QImage::Format_RGBA8888));
    art.pictures[0].fill(QColor(160, 90, 60));
    const quint64 each = std::max<quint64>(bytes / std::max<quint64>(entries, 1), 160);
    auto texture = make_texture(art).bytes;
    const auto body = qsizetype(std::max<quint64>(each, quint64(texture.size())) - 100);
    texture.append(QByteArray(std::max<qsizetype>(0, body - texture.size()), 'f'));
    QByteArray directory;
    quint64 at = 0;
    for (quint64 i = 0; i < entries; ++i) {
        const auto name =
            QStringLiteral("depot/shelf_%1/box_%2.dds").arg(i / 500, 3, 10, QLatin1Char('0')).arg(i, 6, 10, QLatin1Char('0')).toUtf8();
        qToLittleEndian(quint32(i), texture.data() + 60);  // every box differs
        const auto sum = quint32(::crc32(0, reinterpret_cast<const Bytef*>(texture.constData()), uInt(texture.size())));
        QByteArray local("PK\x03\x04");
        const auto common = [&](QByteArray& out) {
            put(out, quint16(0));
            put(out, quint16(0));
            put(out, quint16(0));
            put(out, quint16(0x2F21));
            put(out, sum);
            put(out, quint32(texture.size()));
            put(out, quint32(texture.size()));
            put(out, quint16(name.size()));
        };
        put(local, quint16(20));
        common(local);
        put(local, quint16(0));
        local.append(name);
        const bool far = at >= 0xFFFFFFFFu;
        directory.append("PK\x01\x02");
        put(directory, quint16(45));
        put(directory, quint16(45));
        common(directory);
        put(directory, quint16(far ? 12 : 0));
        put(directory, quint16(0));
        put(directory, quint16(0));
        put(directory, quint16(0));
        put(directory, quint32(0));
        put(directory, quint32(far ? 0xFFFFFFFFu : at));
        directory.append(name);
        if (far) {
            put(directory, quint16(1));
            put(directory, quint16(8));
            put(directory, at);
        }
        if (file.write(local) != local.size() || file.write(texture) != texture.size()) return false;
        at += quint64(local.size() + texture.size());
    }
    QByteArray end;
    const bool wide = entries > 0xFFFE || at + quint64(directory.size()) > 0xFFFFFFFEu;
    if (wide) {
        end.append(QByteArray("PK\x06\x06", 4));
        put(end, quint64(44));
        put(end, quint16(45));
        put(end, quint16(45));
        put(end, quint32(0));
        put(end, quint32(0));
        put(end, entries);
        put(end, entries);
        put(end, quint64(directory.size()));
        put(end, at);
        end.append(QByteArray("PK\x06\x07", 4));
        put(end, quint32(0));
        put(end, at + quint64(directory.size()));
        put(end, quint32(1));
    }
    end.append(QByteArray("PK\x05\x06", 4));
    put(end, quint32(0));
    put(end, quint16(wide ? 0xFFFF : entries));
    put(end, quint16(wide ? 0xFFFF : entries));
    put(end, quint32(wide ? 0xFFFFFFFFu : quint32(directory.size())));
    put(end, quint32(wide ? 0xFFFFFFFFu : quint32(at)));
    put(end, quint16(0));
    return file.write(directory) == directory.size() && file.write(end) == end.size();
}

}  // namespace fair
