#include "hostile/hostile_pictures.h"

#include <string>
#include <vector>

#include "base/hash.h"
#include "base/pack.h"
#include "support/pictures.h"

namespace skivet::test {

namespace {
void png_chunk(Bytes& out, const char* kind, const Bytes& content) {
    big(out, content.size(), 4);
    Bytes checked;
    put(checked, kind);
    put(checked, content);
    put(out, checked);
    big(out, crc32(checked), 4);
}
}  // namespace

Bytes run_length_bmp() {
    Bytes out;
    put(out, "BM");
    little(out, 154, 4);
    little(out, 0, 4);
    little(out, 62, 4);
    little(out, 40, 4);
    little(out, 16384, 4);
    little(out, 16384, 4);
    little(out, 1, 2);
    little(out, 8, 2);
    little(out, 1, 4);  // runs of 8-bit numbers
    little(out, 92, 4);
    little(out, 0, 8);
    little(out, 2, 4);
    little(out, 2, 4);
    little(out, 0x00FF8020, 4);
    little(out, 0x00204080, 4);
    for (int i = 0; i < 45; ++i) little(out, 0x01FF, 2);  // 255 texels of entry 1
    little(out, 0x0100, 2);                               // the end
    return out;
}

Bytes jpeg_of_scans() {
    Bytes out;
    big(out, 0xFFD8, 2);
    big(out, 0xFFDB, 2);
    big(out, 67, 2);
    big(out, 0, 1);
    for (int i = 0; i < 64; ++i) big(out, 1, 1);
    big(out, 0xFFC2, 2);
    big(out, 11, 2);
    big(out, 8, 1);
    big(out, 4096, 2);
    big(out, 4096, 2);
    big(out, 1, 1);
    big(out, 0x011100, 3);
    // Huffman tables of one code each: DC category 0, and AC "end of band" for 32,767 blocks at most (run 14, size 0).
    for (const auto& [where, symbol] : {std::pair{0x00, 0x00}, std::pair{0x10, 0xE0}}) {
        big(out, 0xFFC4, 2);
        big(out, 20, 2);
        big(out, static_cast<std::uint64_t>(where), 1);
        big(out, 1, 1);
        out.resize(out.size() + 15);
        big(out, static_cast<std::uint64_t>(symbol), 1);
    }
    const auto scan = [&](unsigned from, unsigned to, unsigned high, unsigned low) {
        big(out, 0xFFDA, 2);
        big(out, 8, 2);
        big(out, 0x010100, 3);
        big(out, from, 1);
        big(out, to, 1);
        big(out, high << 4 | low, 1);
    };
    scan(0, 0, 0, 1);
    for (int i = 0; i < 10'000; ++i) {
        scan(1, 63, 0, 0);
        for (int runs = 0; runs < 8; ++runs) big(out, 0x7FFE, 2);  // code 0, then fourteen bits of ones
    }
    big(out, 0xFFD9, 2);
    return out;
}

Bytes packed_ktx2() {
    TextureDesc desc;
    desc.format = Format::RGBA8;
    desc.width = desc.height = 4;
    auto out = make_file(desc, Bytes(64));
    // make_file takes the first kind that can, DDS; the header is written here instead (KTX File Format 2.0, section 3).
    out.clear();
    put(out, "\xABKTX 20\xBB\r\n\x1A\n");
    for (const std::uint32_t value : {37u, 1u, 16384u, 16384u, 0u, 0u, 1u, 1u, 2u}) little(out, value, 4);
    // One level, so the index ends at 104; a descriptor of 92 bytes follows.
    little(out, 104, 4);
    little(out, 92, 4);
    little(out, 0, 8);
    for (int i = 0; i < 2; ++i) little(out, 0, 8);
    const auto packed = pack(Packing::zstd, Bytes(std::size_t{1} << 30), 19).value();
    little(out, 196, 8);
    little(out, packed.size(), 8);
    little(out, std::uint64_t{1} << 30, 8);
    little(out, 92, 4);
    little(out, 0, 4);
    little(out, 0x00580002, 4);  // version 2, 88 bytes
    little(out, 0x00010101, 4);  // RGBSDA, BT.709, linear
    little(out, 0, 4);
    little(out, 0, 8);
    for (unsigned c = 0; c < 4; ++c) {
        little(out, c * 8 | 7u << 16 | (c == 3 ? 15u : c) << 24, 4);
        little(out, 0, 4);
        little(out, 0, 4);
        little(out, 255, 4);
    }
    out.resize(196);
    put(out, packed);
    return out;
}

Bytes interlaced_png() {
    Bytes out, header;
    put(out, "\x89PNG\r\n\x1A\n");
    big(header, 16384, 4);
    big(header, 16384, 4);
    big(header, 0x0806000001, 5);
    png_chunk(out, "IHDR", header);
    auto stream = pack(Packing::zlib, Bytes(900'000), 9).value();
    stream.resize(stream.size() - 40);
    png_chunk(out, "IDAT", stream);
    png_chunk(out, "IEND", {});
    return out;
}

Bytes lying_exr() {
    Bytes out;
    const auto begin = [&](std::string_view name, std::string_view type, std::size_t bytes) {
        put(out, name), little(out, 0, 1), put(out, type), little(out, 0, 1), little(out, bytes, 4);
    };
    const auto attribute = [&](std::string_view name, std::string_view type, std::initializer_list<std::uint64_t> words) {
        begin(name, type, words.size() * 4);
        for (const auto word : words) little(out, word, 4);
    };
    little(out, 20000630, 4);
    little(out, 2, 4);
    begin("screenWindowCenter", "v2f", 21);
    little(out, 0, 8);
    begin("s", "string", 1'050'000'000);
    put(out, std::string_view("channels\0chlist\0\x13\0\0\0Y\0\1\0\0\0\0\0\0\0\1\0\0\0\1\0\0\0\0", 39));
    put(out, std::string_view("compression\0compression\0\1\0\0\0\0lineOrder\0lineOrder\0\1\0\0\0\0", 54));
    for (const auto* window : {"dataWindow", "displayWindow"}) attribute(window, "box2i", {0, 0, 7, 7});
    attribute("pixelAspectRatio", "float", {0x3F800000});
    attribute("screenWindowWidth", "float", {0x3F800000});
    little(out, 0, 1);
    return out;
}

Bytes shared_tiff() {
    const auto strip = pack(Packing::zlib, Bytes(8192 * 64 * 4), 9).value();
    Bytes out;
    put(out, "II");
    little(out, 42, 2);
    little(out, 8, 4);
    const unsigned strips = 128;
    const std::uint64_t tags = 11, behind = 8 + 2 + tags * 12 + 4, bits = behind, offsets = bits + 8, counts = offsets + strips * 4,
                        data = counts + strips * 4;
    little(out, tags, 2);
    const auto tag = [&](unsigned number, unsigned type, std::uint64_t count, std::uint64_t value) {
        little(out, number, 2);
        little(out, type, 2);
        little(out, count, 4);
        little(out, value, 4);
    };
    tag(256, 4, 1, 8192);
    tag(257, 4, 1, 8192);
    tag(258, 3, 4, bits);
    tag(259, 3, 1, 8);
    tag(262, 3, 1, 2);
    tag(273, 4, strips, offsets);
    tag(277, 3, 1, 4);
    tag(278, 4, 1, 64);
    tag(279, 4, strips, counts);
    tag(284, 3, 1, 1);
    tag(338, 3, 1, 2);
    little(out, 0, 4);
    for (int i = 0; i < 4; ++i) little(out, 8, 2);
    for (unsigned i = 0; i < strips; ++i) little(out, data, 4);
    for (unsigned i = 0; i < strips; ++i) little(out, strip.size(), 4);
    put(out, strip);
    return out;
}

Bytes ktx_of_layers() {
    Bytes out;
    put(out, "\xABKTX 11\xBB\r\n\x1A\n");
    constexpr std::uint32_t layers = 4096;
    for (const std::uint32_t value : {0x04030201u, 0x1401u, 1u, 0x1903u, 0x8229u, 0x1903u, 2u, 2u, 0u, layers, 6u, 2u, 0u})
        little(out, value, 4);
    for (const std::uint32_t side : {2u, 1u}) {
        little(out, layers * 6 * side * 4, 4);  // rows of 4 bytes
        out.resize(out.size() + layers * 6 * side * 4);
    }
    return out;
}

}  // namespace skivet::test
