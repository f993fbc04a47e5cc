#include <string>

#include "support/archives.h"

#include "base/cipher.h"
#include "base/hash.h"
#include "base/keys.h"
#include "base/pack.h"
#include "support/run_program.h"

namespace skivet::test {

Bytes tar_of(const std::string& name, const Bytes& content) {
    TempFolder folder;
    put_file(folder / ("in/" + name), content);
    put_file(folder / "in/zz", random_bytes(700, 3));
    (void)run_program({"tar", "-cf", "../a.tar", name, "zz"}, (folder / "in").string());
    return get_file(folder / "a.tar");
}

Bytes archive_of(const std::string& format, const Bytes& a, const Bytes& b) {
    TempFolder folder;
    put_file(folder / "in/a", a);
    put_file(folder / "in/b", b);
    (void)run_program({"bsdtar", "-cf", "../out", "--format", format, "a", "b"}, (folder / "in").string());
    return get_file(folder / "out");
}

namespace {
void put_name(ByteWriter& w, std::string name, std::size_t size) {
    name.resize(size);
    w.put(name);
}
}  // namespace

Bytes roll_of(const Bytes& a, const Bytes& b) {
    ByteWriter w;
    w.put("FROLL1");
    w.le(std::uint16_t{2});
    std::uint32_t at = 8 + 2 * 32;
    for (const auto& [name, data] : {std::pair{"a", &a}, std::pair{"b", &b}}) {
        put_name(w, name, 24);
        w.le(at);
        w.le(static_cast<std::uint32_t>(data->size()));
        at += static_cast<std::uint32_t>((data->size() + 7) / 8 * 8);
    }
    for (const auto* data : {&a, &b}) {
        w.put(*data);
        while (w.bytes.size() % 8) w.le(std::uint8_t{0});
    }
    return w.bytes;
}
Bytes bale_of(const Bytes& content) {
    const auto packed = *pack(Packing::zlib, content);
    ByteWriter w;
    w.put("FBALE\1\1\1");
    w.le(static_cast<std::uint32_t>(content.size()));
    w.le(static_cast<std::uint32_t>(packed.size()));
    w.le(crc32(content));
    w.put(packed);
    return w.bytes;
}
std::map<std::string, Bytes> index_of(const Bytes& a, const Bytes& b) {
    ByteWriter w;
    w.put("FIDX");
    w.le(std::uint32_t{2});
    std::uint16_t number = 0;
    for (const auto& [name, data] : {std::pair{"a", &a}, std::pair{"b", &b}}) {
        put_name(w, name, 44);
        w.le(number++);
        w.le(std::uint16_t{0});
        w.le(std::uint32_t{0});
        w.le(static_cast<std::uint32_t>(data->size()));
    }
    return {{"g.index", w.bytes}, {"g-00.stock", a}, {"g-01.stock", b}};
}
Bytes hamper_of(const Bytes& a, const Bytes& b) {
    ByteWriter w;
    w.put("HAMPER");
    w.le(std::uint16_t{2});
    for (const auto& [hash, at, size] : {std::tuple{0x11111111u, 48u, a.size()},
                                         std::tuple{0x22222222u, static_cast<std::uint32_t>(48 + (a.size() + 15) / 16 * 16), b.size()}})
        for (const auto v : {hash, at, static_cast<std::uint32_t>(size), 0u}) w.le(v);
    w.put(Bytes(8));
    w.put(a);
    while (w.bytes.size() % 16) w.le(std::uint8_t{0});
    w.put(b);
    return w.bytes;
}
Bytes strongbox_of(const Bytes& a, const Bytes& b) {
    const auto key = *bytes_of_hex("000102030405060708090a0b0c0d0e0f");
    const auto counter = [&](ByteSpan iv, ByteSpan data) { return *aes_encrypt(CipherMode::ctr, key, iv, data); };
    ByteWriter body, directory;
    body.put(Bytes(32));
    std::uint32_t number = 0;
    for (const auto& [name, data] : {std::pair{"a", &a}, std::pair{"b", &b}}) {
        while (body.bytes.size() % 16) body.le(std::uint8_t{0});
        put_name(directory, name, 48);
        directory.le(static_cast<std::uint32_t>(body.bytes.size()));
        directory.le(static_cast<std::uint32_t>(data->size()));
        directory.le(crc32(*data));
        directory.le(std::uint32_t{90});
        Bytes iv(16);
        store_le(iv.data(), number++);
        body.put(counter(iv, *data));
    }
    ByteWriter header;
    header.put(std::string_view("FSAFE01\0", 8));
    header.le(std::uint32_t{2});
    header.le(static_cast<std::uint32_t>(body.bytes.size()));
    header.le(static_cast<std::uint32_t>(directory.bytes.size()));
    header.le(crc32(directory.bytes));
    header.le(std::uint64_t{7});
    std::copy(header.bytes.begin(), header.bytes.end(), body.bytes.begin());
    body.put(counter(as_bytes("brindle fair box"), directory.bytes));
    return body.bytes;
}

}  // namespace skivet::test
