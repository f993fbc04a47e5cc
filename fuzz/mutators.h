#pragma once
// Mutations that keep a format's outer form, so that what lies behind checks and sizes is reached: libFuzzer's own change bytes, and of a
// ZIP with one byte changed nothing is left but an error of its checksum. Each target that includes one of them mixes both.
#include <algorithm>
#include <array>
#include <cstring>
#include <random>
#include <vector>

#include "base/bytes.h"
#include "base/deflate.h"
#include "base/hash.h"
#include "base/text.h"

extern "C" std::size_t LLVMFuzzerMutate(std::uint8_t* data, std::size_t size, std::size_t most);

namespace skivet::fuzz {

/// The result of a mutation in libFuzzer's own buffer; what does not fit is cut off.
inline std::size_t give(const Bytes& bytes, std::uint8_t* data, std::size_t most) {
    const auto size = std::min(bytes.size(), most);
    if (size > 0) std::memcpy(data, bytes.data(), size);
    return size;
}

/// A number that headers like: small, a power of two and its neighbors, or as large as can be.
inline std::uint32_t telling(std::minstd_rand& random) {
    switch (random() % 5) {
        case 0: return static_cast<std::uint32_t>(random() % 9);
        case 1: return 1u << random() % 32;
        case 2: return (1u << random() % 32) - 1;
        case 3: return ~static_cast<std::uint32_t>(random() % 4);
        default: return static_cast<std::uint32_t>(random());
    }
}

/// One entry's name or content, or what the directory says of it, is changed; checksums, sizes and places are right again unless the change
/// is about them. Entries are found by their local headers.
inline std::size_t mutate_zip(std::uint8_t* data, std::size_t size, std::size_t most, unsigned seed) {
    struct Item {
        Bytes name, extra, content;
        std::uint16_t method = 0, flags = 0;
    };
    std::vector<Item> items;
    const auto all = std::as_bytes(std::span(data, size));
    for (std::size_t at = 0; at + 30 <= size && items.size() < 50;) {
        const auto* h = all.data() + at;
        if (load_le<std::uint32_t>(h) != 0x04034B50) {
            ++at;
            continue;
        }
        const std::size_t stored = load_le<std::uint32_t>(h + 18), name = load_le<std::uint16_t>(h + 26),
                          extra = load_le<std::uint16_t>(h + 28);
        if (at + 30 + name + extra + stored > size) break;
        Item item{{h + 30, h + 30 + name},
                  {h + 30 + name, h + 30 + name + extra},
                  {},
                  load_le<std::uint16_t>(h + 8),
                  load_le<std::uint16_t>(h + 6)};
        const ByteSpan packed{h + 30 + name + extra, stored};
        item.content.assign(packed.begin(), packed.end());
        if (item.method == 8)
            if (auto plain = inflate_prefix(packed, 1 << 16)) item.content = std::move(*plain);
        items.push_back(std::move(item));
        at += 30 + name + extra + stored;
    }
    std::minstd_rand random(seed);
    if (items.empty() || random() % 3 == 0) return LLVMFuzzerMutate(data, size, most);
    const auto chosen = random() % items.size();
    const auto change = [&](Bytes& bytes, std::size_t longest) {
        bytes.resize(std::max<std::size_t>(1, std::min(bytes.size(), longest)));
        const auto before = bytes.size();
        bytes.resize(longest);
        bytes.resize(LLVMFuzzerMutate(reinterpret_cast<std::uint8_t*>(bytes.data()), before, longest));
    };
    switch (random() % 7) {
        case 0: change(items[chosen].name, 200); break;
        case 1: change(items[chosen].extra, 100); break;
        case 2: items.push_back(items[chosen]); break;
        case 3: items.erase(items.begin() + static_cast<std::ptrdiff_t>(chosen)); break;
        case 4: items[chosen].method = static_cast<std::uint16_t>(std::array{0, 8, 12, 14, 93, 95, 99, 9}[random() % 8]); break;
        case 5: items[chosen].flags = static_cast<std::uint16_t>(telling(random)); break;
        default: change(items[chosen].content, 4000);
    }
    ByteWriter out, directory;
    for (const auto& item : items) {
        const auto packed = item.method == 8 ? deflate(item.content, 1) : item.content;
        const auto at = out.bytes.size();
        const auto common = [&](ByteWriter& w) {
            w.le(item.flags);
            w.le(item.method);
            w.le(std::uint32_t{0});
            w.le(crc32(item.content));
            w.le(static_cast<std::uint32_t>(packed.size()));
            w.le(static_cast<std::uint32_t>(item.content.size()));
            w.le(static_cast<std::uint16_t>(item.name.size()));
            w.le(static_cast<std::uint16_t>(item.extra.size()));
        };
        out.le(std::uint32_t{0x04034B50});
        out.le(std::uint16_t{20});
        common(out);
        out.put(item.name);
        out.put(item.extra);
        out.put(packed);
        directory.le(std::uint32_t{0x02014B50});
        directory.le(std::uint32_t{20 | 20 << 16});
        common(directory);
        for (int i = 0; i < 5; ++i) directory.le(std::uint16_t{0});
        directory.le(std::uint16_t{0});
        // Now and then two lie over each other.
        directory.le(static_cast<std::uint32_t>(random() % 16 == 0 ? at / 2 : at));
        directory.put(item.name);
        directory.put(item.extra);
    }
    const auto at = out.bytes.size();
    out.put(directory.bytes);
    out.le(std::uint32_t{0x06054B50});
    out.le(std::uint32_t{0});
    for (int i = 0; i < 2; ++i) out.le(static_cast<std::uint16_t>(items.size()));
    out.le(static_cast<std::uint32_t>(directory.bytes.size()));
    out.le(static_cast<std::uint32_t>(at));
    out.le(std::uint16_t{0});
    return give(out.bytes, data, most);
}

/// A field of the header gets a telling value; sometimes the payload is made longer or shorter with it.
inline std::size_t mutate_fields(std::uint8_t* data, std::size_t size, std::size_t most, unsigned seed, std::size_t header,
                                 std::span<const std::size_t> fields, std::span<const std::uint32_t> values) {
    std::minstd_rand random(seed);
    if (size < header || random() % 3 == 0) return LLVMFuzzerMutate(data, size, most);
    const auto at = fields[random() % fields.size()];
    const auto value = random() % 2 ? values[random() % values.size()] : telling(random);
    store_le(reinterpret_cast<std::byte*>(data) + at, value);
    if (random() % 4 == 0) {
        const auto longer = std::min(most, header + random() % 8192);
        if (longer > size) std::memset(data + size, static_cast<int>(random() % 256), longer - size);
        size = longer;
    }
    return size;
}

/// DDS: size, pitch, depth, levels, four-character code, masks, capabilities, and the fields of the header that stands behind it ("DX10").
inline std::size_t mutate_dds(std::uint8_t* data, std::size_t size, std::size_t most, unsigned seed) {
    static constexpr std::size_t fields[] = {8, 12, 16, 20, 24, 28, 80, 84, 88, 92, 96, 100, 104, 108, 112, 128, 132, 136, 140};
    static constexpr std::uint32_t values[] = {1,          4,          8,          64,         0x31545844, 0x33545844, 0x35545844,
                                               0x30315844, 0x31495441, 0x32495441, 0x55344342, 0x55354342, 0x41,       0x40,
                                               0x20,       0x20000,    0xFE00,     0x401008,   71,         77,         83,
                                               95,         98,         28,         87,         2,          10,         36};
    return mutate_fields(data, size, most, seed, 148, fields, values);
}
/// KTX2: format, sizes, layers, faces, levels, supercompression, and the level index.
inline std::size_t mutate_ktx2(std::uint8_t* data, std::size_t size, std::size_t most, unsigned seed) {
    static constexpr std::size_t fields[] = {12, 16, 20, 24, 28, 32, 36, 40, 44, 48, 52, 56, 60, 64, 72, 80, 88, 96, 104, 112, 120};
    static constexpr std::uint32_t values[] = {0,   1,   2,   3,   4,   6,   8,   9,   37, 43, 97, 131,
                                               133, 137, 141, 143, 145, 147, 157, 163, 16, 64, 104};
    return mutate_fields(data, size, most, seed, 128, fields, values);
}

/// Sheets: whole lines are doubled, dropped, exchanged, and values exchanged for those of other lines; one word for another.
inline std::size_t mutate_sheet(std::uint8_t* data, std::size_t size, std::size_t most, unsigned seed) {
    std::minstd_rand random(seed);
    if (size == 0 || random() % 3 == 0) return LLVMFuzzerMutate(data, size, most);
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    std::vector<std::string> lines;
    for (std::size_t at = 0; at < text.size();) {
        const auto end = std::min(text.find('\n', at), text.size());
        lines.emplace_back(text.substr(at, end - at));
        at = end + 1;
    }
    if (lines.empty()) return LLVMFuzzerMutate(data, size, most);
    const auto one = [&]() -> std::size_t { return random() % lines.size(); };
    static constexpr const char* means[] = {"data offset", "stored size", "size",         "path",        "name offset",
                                            "name index",  "folder",      "entry count",  "first entry", "entries offset",
                                            "method",      "file number", "record size",  "encrypted",   "deleted",
                                            "path hash",   "file size",   "table offset", "table size",  "table stored size",
                                            "width",       "height",      "format",       "levels",      "data crc32"};
    static constexpr const char* added[] = {"[folders]\nfields = [ { name = \"n\", type = \"u8\", means = \"entry count\" } ]",
                                            "[names]\nat = \"after record\"",
                                            "[data]\nmethod = \"zlib\"",
                                            "[data]\nalign = 16\nfill = 255",
                                            "[hash]\nkind = \"fnv1a32\"",
                                            "[markers]\nstart = \"{folder}_A\"\nend = \"{folder}_B\"",
                                            "[tree]\nlevels = [\"extension\", \"folder\", \"name\"]",
                                            "byte_order = \"big\"",
                                            "arrays = true",
                                            "ends = \"next offset\"",
                                            "counted = \"u32\"",
                                            "count = \"until end\"",
                                            "at = \"in folder\""};
    switch (random() % 6) {
        case 0: lines.insert(lines.begin() + static_cast<std::ptrdiff_t>(one()), lines[one()]); break;
        case 1: lines.erase(lines.begin() + static_cast<std::ptrdiff_t>(one())); break;
        case 2: std::swap(lines[one()], lines[one()]); break;
        case 3: lines.insert(lines.begin() + static_cast<std::ptrdiff_t>(one()), added[random() % std::size(added)]); break;
        case 4: {
            auto& line = lines[one()];
            if (const auto at = line.find("means = \""); at != std::string::npos)
                if (const auto end = line.find('"', at + 9); end != std::string::npos)
                    line.replace(at + 9, end - at - 9, means[random() % std::size(means)]);
            break;
        }
        default: {  // a number
            auto& line = lines[one()];
            if (const auto at = line.find_first_of("0123456789"); at != std::string::npos)
                line.replace(at, line.find_first_not_of("0123456789", at) - at, std::to_string(static_cast<std::int32_t>(telling(random))));
        }
    }
    std::string out;
    for (const auto& line : lines) out += line + '\n';
    const auto bytes = as_bytes(out);
    return give(Bytes(bytes.begin(), bytes.end()), data, most);
}

}  // namespace skivet::fuzz
