#include "hostile/hostile_files.h"

#include <fmt/format.h>

#include <stdexcept>
#include <string>
#include <vector>

#include "base/deflate.h"
#include "base/hash.h"
#include "base/pack.h"
#include "hostile/hostile_pictures.h"
#include "support/pictures.h"

namespace skivet::test {
namespace {

/// The header of a DDS file as DirectX wrote it before version 10, of one level.
Bytes dds_header(std::uint32_t width, std::uint32_t height, const char* four) {
    Bytes out;
    put(out, "DDS ");
    for (const std::uint32_t value : {124u, 0x81007u, height, width, width * height / 2, 0u, 0u}) little(out, value, 4);
    out.resize(out.size() + 44);
    little(out, 32, 4);
    little(out, 4, 4);
    put(out, four);
    out.resize(out.size() + 20);
    little(out, 0x1000, 4);
    out.resize(128);
    return out;
}

/// As make_zip, with streams that are packed already: what 32 MB of zeros pack to is not packed again for each entry.
struct PackedItem {
    std::string name;
    Bytes packed;
    std::uint64_t size = 0;
    std::uint32_t crc = 0;
    bool deflated = true;
};
/// The fields that stand alike before an entry and in the directory (APPNOTE 4.3.7 and 4.3.12).
void zip_common(Bytes& out, const PackedItem& item) {
    little(out, 20, 2);
    little(out, 0x800, 2);
    little(out, item.deflated ? 8 : 0, 2);
    little(out, 0, 4);
    little(out, item.crc, 4);
    little(out, item.packed.size(), 4);
    little(out, item.size, 4);
    little(out, item.name.size(), 2);
    little(out, 0, 2);
}
void zip_local(Bytes& out, const PackedItem& item) {
    put(out, "PK\3\4");
    zip_common(out, item);
    put(out, item.name);
    put(out, item.packed);
}
void zip_central(Bytes& out, const PackedItem& item, std::uint64_t at) {
    put(out, "PK\1\2");
    little(out, 20, 2);
    zip_common(out, item);
    out.resize(out.size() + 10);
    little(out, at, 4);
    put(out, item.name);
}
/// With ZIP64's end records where there are more than 65,534 entries (APPNOTE 4.3.14 to 4.3.16).
void zip_end(Bytes& out, std::uint64_t entries, std::uint64_t at) {
    const auto size = out.size() - at;
    if (entries >= 0xFFFF) {
        const auto end = out.size();
        put(out, "PK\6\6");
        little(out, 44, 8);
        little(out, 45, 2);
        little(out, 45, 2);
        little(out, 0, 8);
        for (const auto value : {entries, entries, std::uint64_t{size}, at}) little(out, value, 8);
        put(out, "PK\6\7");
        little(out, 0, 4);
        little(out, end, 8);
        little(out, 1, 4);
    }
    put(out, "PK\5\6");
    little(out, 0, 4);
    for (int i = 0; i < 2; ++i) little(out, std::min<std::uint64_t>(entries, 0xFFFF), 2);
    little(out, size, 4);
    little(out, at, 4);
    little(out, 0, 2);
}
PackedItem packed_item(std::string name, const Bytes& content) {
    return {std::move(name), deflate(content, 9), content.size(), crc32(content), true};
}
Bytes zip_of(const std::vector<PackedItem>& items) {
    Bytes out, central;
    for (const auto& item : items) {
        zip_central(central, item, out.size());
        zip_local(out, item);
    }
    const auto at = out.size();
    put(out, central);
    zip_end(out, items.size(), at);
    return out;
}
std::vector<PackedItem> times(const PackedItem& item, int count) {
    std::vector<PackedItem> out;
    const auto dot = item.name.rfind('.');
    for (int i = 0; i < count; ++i) {
        out.push_back(item);
        out.back().name = fmt::format("{}{:02}{}", item.name.substr(0, dot), i, item.name.substr(dot));
    }
    return out;
}

Bytes large_dds() {
    auto dds = dds_header(8192, 8192, "DXT1");
    dds.resize(128 + 8192 * 8192 / 2);
    return dds;
}
PackedItem large_item() { return packed_item("horse.dds", large_dds()); }

/// Nine archives around one texture, each of them ten times in the next: 1,000,000,000 textures.
Bytes nested_archives() {
    auto bytes = make_zip({{"horse.dds", small_texture(1)}});
    for (int i = 0; i < 9; ++i) bytes = zip_of(times(packed_item("in.zip", bytes), 10));
    return bytes;
}
/// Ninety archives in nine; each of the inmost holds 48 MB of zeros, which pack to nearly nothing, twice.
Bytes padded_archives() {
    const auto inmost = make_zip({{"pad.bin", Bytes(48u << 20)}, {"horse.dds", small_texture(1)}});
    const auto tens = zip_of(times(packed_item("in.zip", inmost), 10));
    return zip_of(times(packed_item("ten.zip", tens), 9));
}

Bytes tar_of_many() {
    Bytes out;
    out.reserve(100'000 * 512 + 1024);
    for (int i = 0; i < 100'000; ++i) {
        Bytes block(512);
        const auto text = [&](std::size_t at, const std::string& value) {
            for (std::size_t c = 0; c < value.size(); ++c) block[at + c] = static_cast<std::byte>(value[c]);
        };
        text(0, fmt::format("part/{:06}.dds", i));
        text(100, "0000644");
        text(108, "0000000");
        text(116, "0000000");
        text(124, "00000000000");
        text(136, "00000000000");
        text(156, "0");
        text(257, "ustar");
        text(263, "00");
        text(148, "        ");
        unsigned sum = 0;
        for (const auto b : block) sum += std::to_integer<unsigned>(b);
        text(148, fmt::format("{:06o}", sum));
        block[154] = std::byte{0};
        put(out, block);
    }
    out.resize(out.size() + 1024);
    return out;
}

/// 2,000 entries whose data is the same 16 KB: a texture of 16 MB each.
Bytes overlapping_zip() {
    auto dds = dds_header(4096, 8192, "DXT1");
    dds.resize(128 + 4096 * 8192 / 2);
    const auto item = packed_item("horse0000.dds", dds);
    Bytes out;
    zip_local(out, item);
    const auto at = out.size();
    auto named = item;
    for (int i = 0; i < 2000; ++i) {
        named.name = fmt::format("horse{:04}.dds", i);
        zip_central(out, named, 0);
    }
    zip_end(out, 2000, at);
    return out;
}

/// Folders that all say the same 2,000 entries are theirs: 2,000 × 2,000.
HostileFiles shared_folders() {
    const unsigned folders = 2000, entries = 2000;
    Bytes out;
    put(out, "SHAR");
    little(out, folders, 4);
    const auto table = 8 + folders * 8;
    for (unsigned i = 0; i < folders; ++i) {
        little(out, entries, 4);
        little(out, table, 4);
    }
    for (unsigned i = 0; i < entries; ++i) {
        little(out, table + entries * 8, 4);
        little(out, 16, 4);
    }
    out.resize(out.size() + 16);
    Bytes sheet;
    put(sheet, R"(sheet = "container"
name = "Shared"
[[recognize]]
text = "SHAR"
[header]
fields = [
  { name = "magic", type = "text", size = 4 },
  { name = "folders", type = "u32", means = "folder count" },
]
[folders]
at = "after header"
count = "folders"
fields = [
  { name = "files", type = "u32", means = "entry count" },
  { name = "first", type = "u32", means = "entries offset" },
]
[record]
path = "{number}.dds"
fields = [
  { name = "at", type = "u32", means = "data offset" },
  { name = "bytes", type = "u32", means = "stored size" },
]
)");
    return {{"shared.bin", std::move(out)}, {"shared.toml", std::move(sheet)}};
}

/// The same as overlapping_zip in an archive that a sheet describes.
HostileFiles repeated_entries() {
    const unsigned entries = 2000;
    auto dds = dds_header(4096, 8192, "DXT1");
    dds.resize(128 + 4096 * 8192 / 2);
    const auto packed = deflate(dds, 9);
    Bytes out;
    put(out, "RPTD");
    little(out, entries, 4);
    for (unsigned i = 0; i < entries; ++i) {
        little(out, 8 + entries * 12, 4);
        little(out, packed.size(), 4);
        little(out, dds.size(), 4);
    }
    put(out, packed);
    Bytes sheet;
    put(sheet, R"(sheet = "container"
name = "Repeated"
[[recognize]]
text = "RPTD"
[header]
fields = [
  { name = "magic", type = "text", size = 4 },
  { name = "entries", type = "u32", means = "entry count" },
]
[record]
path = "{number}.dds"
fields = [
  { name = "at", type = "u32", means = "data offset" },
  { name = "packed", type = "u32", means = "stored size" },
  { name = "bytes", type = "u32", means = "size" },
]
[data]
method = "deflate"
)");
    return {{"repeats.bin", std::move(out)}, {"repeats.toml", std::move(sheet)}};
}

HostileFiles one(const char* name, Bytes bytes) { return {{name, std::move(bytes)}}; }

}  // namespace

const std::vector<Hostile>& bombs() {
    static const std::vector<Hostile> all = {
        {"large.zip", "ZIP with one texture of 8192×8192", [] { return one("large.zip", zip_of({large_item()})); }},
        {"forty.zip", "… with forty of them", [] { return one("forty.zip", zip_of(times(large_item(), 40))); }},
        {"nested.zip", "archives in archives, nine deep, ten in each", [] { return one("nested.zip", nested_archives()); }},
        {"padded.zip", "ninety archives of 48 MB of zeros in nine", [] { return one("padded.zip", padded_archives()); }},
        {"runs.bmp", "BMP of runs, claims 16384×16384", [] { return one("runs.bmp", run_length_bmp()); }},
        {"scans.jpg", "JPEG of 10,000 scans", [] { return one("scans.jpg", jpeg_of_scans()); }},
        {"zeros.ktx2", "KTX2, 1 GB of packed zeros", [] { return one("zeros.ktx2", packed_ktx2()); }},
        {"layers.ktx", "KTX of 24,576 surfaces in 2 levels", [] { return one("layers.ktx", ktx_of_layers()); }},
        {"passes.png", "interlaced PNG, claims 16384×16384", [] { return one("passes.png", interlaced_png()); }},
        {"strips.tiff", "TIFF whose strips are all the same bytes", [] { return one("strips.tiff", shared_tiff()); }},
        {"lying.exr", "OpenEXR, an attribute larger than its type, 1 GB of text inside", [] { return one("lying.exr", lying_exr()); }},
        {"many.tar", "tar of 100,000 entries", [] { return one("many.tar", tar_of_many()); }},
        {"overlap.zip", "2,000 entries over the same data", [] { return one("overlap.zip", overlapping_zip()); }},
        {"shared.bin", "a sheet's folders that share four million entries", [] { return shared_folders(); }},
        {"repeats.bin", "a sheet's 2,000 entries over the same data", [] { return repeated_entries(); }},
    };
    return all;
}

const Hostile& bomb(const std::string& name) {
    for (const auto& one : bombs())
        if (one.name == name) return one;
    throw std::invalid_argument(name);
}

Bytes small_texture(std::uint32_t number) {
    auto dds = dds_header(4, 4, "DXT1");
    little(dds, number, 4);
    little(dds, 0xE4E4E4E4 ^ number * 0x9E3779B1u, 4);
    return dds;
}

Bytes zip_of_small_textures(std::size_t count, const std::string& name) {
    Bytes out, central;
    const auto percent = name.find('%');
    for (std::size_t i = 0; i < count; ++i) {
        auto dds = small_texture(static_cast<std::uint32_t>(i));
        const PackedItem item{percent == std::string::npos ? name : name.substr(0, percent) + std::to_string(i) + name.substr(percent + 1),
                              dds, dds.size(), crc32(dds), false};
        zip_central(central, item, out.size());
        zip_local(out, item);
    }
    const auto at = out.size();
    put(out, central);
    zip_end(out, count, at);
    return out;
}

std::string nested_json(std::size_t depth) { return std::string(depth, '[') + std::string(depth, ']'); }

}  // namespace skivet::test
