#include "fair/press/blocks.h"

#include <astcenc.h>
#include <array>
#include <cmath>
#include <cstring>
#include <QFloat16>

namespace fair {
namespace {

using Block = std::array<std::array<int, 4>, 16>;  ///< row by row
constexpr int weights[16] = {0, 4, 9, 13, 17, 21, 26, 30, 34, 38, 43, 47, 51, 55, 60, 64};

Block block_at(const QImage& image, int bx, int by) {
    Block out;
    for (int i = 0; i < 16; ++i) {
        const auto* t = image.constScanLine(std::min(by * 4 + i / 4, image.height() - 1)) + std::min(bx * 4 + i % 4, image.width() - 1) * 4;
        out[size_t(i)] = {t[0], t[1], t[2], t[3]};
    }
    return out;
}

template <class Encode>
QByteArray each_block(const QImage& image, const Encode& encode) {
    QByteArray out;
    for (int y = 0; y < (image.height() + 3) / 4; ++y)
        for (int x = 0; x < (image.width() + 3) / 4; ++x) out.append(encode(block_at(image, x, y)));
    return out;
}

struct Bits {
    std::array<uchar, 16> bytes{};
    int at = 0;
    void put(unsigned value, int count) {
        for (int i = 0; i < count; ++i, ++at)
            if (value >> i & 1) bytes[size_t(at / 8)] |= uchar(1 << at % 8);
    }
    QByteArray done() const { return QByteArray(reinterpret_cast<const char*>(bytes.data()), 16); }
};

long long distance(const std::array<int, 4>& a, const std::array<int, 4>& b) {
    long long sum = 0;
    for (size_t c = 0; c < 4; ++c) sum += static_cast<long long>(a[c] - b[c]) * (a[c] - b[c]);
    return sum;
}

/// The two texels farthest apart.
std::pair<std::array<int, 4>, std::array<int, 4>> ends_of(const Block& block) {
    std::pair<std::array<int, 4>, std::array<int, 4>> out{block[0], block[0]};
    long long most = -1;
    for (size_t i = 0; i < 16; ++i)
        for (size_t k = i; k < 16; ++k)
            if (const auto d = distance(block[i], block[k]); d > most) most = d, out = {block[i], block[k]};
    return out;
}

/// Places on the line between two colors; the first one in the lower half, by turning the line round.
template <class Mix>
std::array<unsigned, 16> places(const Block& block, std::array<int, 4>& a, std::array<int, 4>& b, const Mix& mix) {
    std::array<unsigned, 16> out{};
    const auto choose = [&] {
        for (size_t i = 0; i < 16; ++i) {
            long long best = -1;
            for (unsigned k = 0; k < 16; ++k) {
                std::array<int, 4> color{};
                for (size_t c = 0; c < 4; ++c) color[c] = mix(a[c], b[c], weights[k]);
                if (const auto d = distance(color, block[i]); best < 0 || d < best) best = d, out[i] = k;
            }
        }
    };
    choose();
    if (out[0] >= 8) {
        std::swap(a, b);
        choose();
    }
    if (out[0] >= 8) out[0] = 7;  // a tie: the nearest place that is allowed
    return out;
}

QByteArray bc7_block(const Block& block) {
    auto [a, b] = ends_of(block);
    const auto quantized = [](std::array<int, 4> e) {  // seven bits each and one they share
        int ones = 0;
        for (const int v : e) ones += v & 1;
        for (auto& v : e) v = (v & ~1) | (ones >= 2);
        return e;
    };
    a = quantized(a);
    b = quantized(b);
    const auto index = places(block, a, b, [](int x, int y, int w) { return (x * (64 - w) + y * w + 32) >> 6; });
    Bits bits;
    bits.put(1u << 6, 7);
    for (size_t c = 0; c < 4; ++c) {
        bits.put(unsigned(a[c] >> 1), 7);
        bits.put(unsigned(b[c] >> 1), 7);
    }
    bits.put(unsigned(a[0] & 1), 1);
    bits.put(unsigned(b[0] & 1), 1);
    for (size_t i = 0; i < 16; ++i) bits.put(index[i], i ? 4 : 3);
    return bits.done();
}

QByteArray bc6h_block(Block block, double brightness) {
    // The bits of a half float follow one another like its values; lines are drawn through them, scaled as the format does.
    for (auto& texel : block) {
        for (size_t c = 0; c < 3; ++c) {
            const double v = texel[c] / 255.0, light = (v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4)) * brightness;
            const qfloat16 h{float(light)};
            quint16 raw;
            std::memcpy(&raw, static_cast<const void*>(&h), 2);
            texel[c] = std::min(0xFFFF, raw * 64 / 31);
        }
        texel[3] = 0;
    }
    auto [a, b] = ends_of(block);
    const auto wide = [](std::array<int, 4> e) {
        for (auto& v : e) {
            const int q = std::min(1023, v >> 6);
            v = q == 0 ? 0 : q == 1023 ? 0xFFFF : ((q << 16) + 0x8000) >> 10;
        }
        return e;
    };
    a = wide(a);
    b = wide(b);
    const auto index = places(block, a, b, [](int x, int y, int w) { return (x * (64 - w) + y * w + 32) >> 6; });
    Bits bits;
    bits.put(3, 5);
    for (const auto& e : {a, b})
        for (size_t c = 0; c < 3; ++c) bits.put(unsigned(e[c] == 0xFFFF ? 1023 : e[c] >> 6), 10);
    for (size_t i = 0; i < 16; ++i) bits.put(index[i], i ? 4 : 3);
    return bits.done();
}

constexpr int modifiers[8][2] = {{2, 8}, {5, 17}, {9, 29}, {13, 42}, {18, 60}, {24, 80}, {33, 106}, {47, 183}};

QByteArray etc2_block(const Block& block) {
    quint64 out = 0;
    for (int half = 0; half < 2; ++half) {
        int mean[3] = {};
        for (int i = 0; i < 16; ++i)
            if (i % 4 / 2 == half)
                for (size_t c = 0; c < 3; ++c) mean[c] += block[size_t(i)][c];
        int base[3];
        for (int c = 0; c < 3; ++c) {
            const int q = (mean[c] / 8 * 15 + 127) / 255;
            base[c] = q * 17;
            out |= quint64(q) << (60 - 8 * c - 4 * half);
        }
        long long best = -1;
        quint64 chosen = 0;
        for (int table = 0; table < 8; ++table) {
            long long sum = 0;
            quint64 bits = quint64(table) << (half == 0 ? 37 : 34);
            for (int i = 0; i < 16; ++i) {
                if (i % 4 / 2 != half) continue;
                long long least = -1;
                int place = 0;
                for (int k = 0; k < 4; ++k) {
                    const int m = (k & 2 ? -1 : 1) * modifiers[table][k & 1];
                    long long d = 0;
                    for (size_t c = 0; c < 3; ++c) {
                        const int v = std::clamp(base[c] + m, 0, 255) - block[size_t(i)][c];
                        d += v * v;
                    }
                    if (least < 0 || d < least) least = d, place = k;
                }
                sum += least;
                const int bit = i % 4 * 4 + i / 4;  // column by column
                bits |= quint64(place & 1) << bit | quint64(place >> 1) << (bit + 16);
            }
            if (best < 0 || sum < best) best = sum, chosen = bits;
        }
        out |= chosen;
    }
    QByteArray bytes;
    for (int i = 7; i >= 0; --i) bytes.append(char(out >> (8 * i) & 255));
    return bytes;
}

}  // namespace

QByteArray bc7_blocks(const QImage& image) { return each_block(image, bc7_block); }
QByteArray bc6h_blocks(const QImage& image, double brightness) {
    return each_block(image, [&](const Block& block) { return bc6h_block(block, brightness); });
}
QByteArray etc2_blocks(const QImage& image) { return each_block(image, etc2_block); }

QByteArray astc_blocks(const QImage& image) {
    QByteArray out(qsizetype((image.width() + 3) / 4) * ((image.height() + 3) / 4) * 16, '\0');
    QByteArray texels;
    for (int y = 0; y < image.height(); ++y) texels.append(reinterpret_cast<const char*>(image.constScanLine(y)), image.width() * 4);
    astcenc_config config{};
    astcenc_context* context = nullptr;
    if (astcenc_config_init(ASTCENC_PRF_LDR, 4, 4, 1, ASTCENC_PRE_FAST, 0, &config) != ASTCENC_SUCCESS ||
        astcenc_context_alloc(&config, 1, &context) != ASTCENC_SUCCESS)
        return {};
    void* slices[] = {texels.data()};
    astcenc_image picture{unsigned(image.width()), unsigned(image.height()), 1, ASTCENC_TYPE_U8, slices};
    const astcenc_swizzle swizzle{ASTCENC_SWZ_R, ASTCENC_SWZ_G, ASTCENC_SWZ_B, ASTCENC_SWZ_A};
    const auto done = astcenc_compress_image(context, &picture, &swizzle, reinterpret_cast<uint8_t*>(out.data()), size_t(out.size()), 0);
    astcenc_context_free(context);
    return done == ASTCENC_SUCCESS ? out : QByteArray();
}

}  // namespace fair
