#include "support/pictures.h"

#include <algorithm>
#include <cmath>
#include <vector>

#include "base/deflate.h"
#include "base/hash.h"
#include "bench/fitting.h"
#include "texture/dds.h"
#include "texture/ktx.h"
#include "texture/ktx2.h"

namespace skivet::test {

Image smooth_picture(std::uint32_t width, std::uint32_t height, unsigned seed, bool alpha) {
    Image image(width, height);
    const double k = 3 + seed % 5;
    for (std::uint32_t y = 0; y < height; ++y)
        for (std::uint32_t x = 0; x < width; ++x) {
            const double u = static_cast<double>(x) / width, v = static_cast<double>(y) / height;
            const auto wave = [&](double a) { return static_cast<std::uint8_t>(127 + 120 * std::sin(a)); };
            image.at(x, y) = {wave(k * u + v), wave(k * v * 1.3 + seed), wave((u + v) * k * 2),
                              alpha ? wave(k * (u - v) * 3) : std::uint8_t{255}};
            if (std::hypot(u - 0.5, v - 0.5) < 0.2) image.at(x, y)[0] = 230;
        }
    return image;
}

Image noisy_picture(std::uint32_t width, std::uint32_t height, unsigned seed) {
    auto image = smooth_picture(width, height, seed);
    std::mt19937 random(7);
    for (auto& t : image.texels)
        for (std::size_t c = 0; c < 3; ++c)
            t[c] = static_cast<std::uint8_t>(std::clamp(t[c] + static_cast<int>(random() % 41) - 20, 0, 255));
    return image;
}

Image random_picture(std::uint32_t width, std::uint32_t height, unsigned seed) {
    std::mt19937 random(seed);
    Image image(width, height);
    for (auto& texel : image.texels)
        for (auto& c : texel) c = static_cast<std::uint8_t>(random());
    return image;
}

Bytes random_bytes(std::size_t size, unsigned seed) {
    std::mt19937 random(seed);
    Bytes out(size);
    for (auto& b : out) b = static_cast<std::byte>(random());
    return out;
}

Bytes make_dds(Format format, std::uint32_t width, std::uint32_t height, std::uint32_t mips, unsigned seed) {
    TextureDesc d;
    d.format = format;
    d.width = width;
    d.height = height;
    d.mips = mips ? mips : full_mip_count(width, height);
    const auto payload = encode_levels(smooth_picture(width, height, seed, info(format).has_alpha), d, {});
    return make_file(d, *payload);
}

Bytes make_zip(const std::vector<ZipItem>& items, const ZipTraits& t) {
    ByteWriter out, directory;
    out.put(t.prefix);
    const std::uint64_t base = t.offsets_count_prefix ? 0 : t.prefix.size();
    for (const auto& item : items) {
        const auto stored = item.deflated ? deflate(item.data) : item.data;
        const auto crc = crc32(item.data);
        const auto at = out.bytes.size() - base;
        const auto flags = static_cast<std::uint16_t>(t.flags | (t.descriptors ? 8 : 0));
        const auto common = [&](ByteWriter& w, bool local) {
            w.le(flags);
            w.le(static_cast<std::uint16_t>(item.deflated ? 8 : 0));
            w.le(std::uint16_t{0x6B52});
            w.le(std::uint16_t{0x5A21});
            const bool later = local && t.descriptors;
            w.le(later ? 0u : crc);
            w.le(t.zip64 && !local ? 0xFFFFFFFFu : later ? 0u : static_cast<std::uint32_t>(stored.size()));
            w.le(t.zip64 && !local ? 0xFFFFFFFFu : later ? 0u : static_cast<std::uint32_t>(item.data.size()));
            w.le(static_cast<std::uint16_t>(item.name.size()));
        };
        out.put("PK\x03\x04");
        out.le(std::uint16_t{20});
        common(out, true);
        out.le(std::uint16_t{0});
        out.put(item.name);
        out.put(stored);
        if (t.descriptors) {
            if (t.descriptor_signature) out.put("PK\x07\x08");
            out.le(crc);
            out.le(static_cast<std::uint32_t>(stored.size()));
            out.le(static_cast<std::uint32_t>(item.data.size()));
        }
        directory.put("PK\x01\x02");
        directory.le(std::uint16_t{45});
        directory.le(std::uint16_t{20});
        common(directory, false);
        directory.le(static_cast<std::uint16_t>(t.zip64 ? 28 : 0));
        directory.le(std::uint16_t{0});
        directory.le(std::uint32_t{0});
        directory.le(std::uint32_t{0});
        directory.le(t.zip64 ? 0xFFFFFFFFu : static_cast<std::uint32_t>(at));
        directory.put(item.name);
        if (t.zip64) {
            directory.le(std::uint16_t{1});
            directory.le(std::uint16_t{24});
            directory.le(std::uint64_t{item.data.size()});
            directory.le(std::uint64_t{stored.size()});
            directory.le(std::uint64_t{at});
        }
    }
    const auto directory_at = out.bytes.size() - base;
    out.put(directory.bytes);
    if (t.zip64) {
        const auto end64 = out.bytes.size() - base;
        out.put("PK\x06\x06");
        out.le(std::uint64_t{44});
        out.le(std::uint16_t{45});
        out.le(std::uint16_t{45});
        out.le(std::uint64_t{0});
        out.le(std::uint64_t{items.size()});
        out.le(std::uint64_t{items.size()});
        out.le(std::uint64_t{directory.bytes.size()});
        out.le(std::uint64_t{directory_at});
        out.put("PK\x06\x07");
        out.le(std::uint32_t{0});
        out.le(std::uint64_t{end64});
        out.le(std::uint32_t{1});
    }
    out.put("PK\x05\x06");
    out.le(std::uint32_t{0});
    out.le(static_cast<std::uint16_t>(t.zip64 ? 0xFFFF : items.size()));
    out.le(static_cast<std::uint16_t>(t.zip64 ? 0xFFFF : items.size()));
    out.le(t.zip64 ? 0xFFFFFFFFu : static_cast<std::uint32_t>(directory.bytes.size()));
    out.le(t.zip64 ? 0xFFFFFFFFu : static_cast<std::uint32_t>(directory_at));
    out.le(static_cast<std::uint16_t>(t.comment.size()));
    out.put(t.comment);
    return out.bytes;
}

Bytes make_crate(const std::vector<ZipItem>& items) {
    ByteWriter body, directory;
    body.bytes.resize(48);
    for (const auto& item : items) {
        while (body.bytes.size() % 16) body.bytes.push_back(std::byte{0});
        const auto stored = item.deflated ? deflate(item.data) : item.data;
        directory.le(static_cast<std::uint16_t>(item.name.size()));
        directory.put(item.name);
        directory.le(static_cast<std::uint8_t>(item.deflated));
        directory.le(std::uint8_t{7});
        directory.le(static_cast<std::uint32_t>(body.bytes.size() / 16));
        directory.le(static_cast<std::uint32_t>(stored.size()));
        directory.le(static_cast<std::uint32_t>(item.data.size()));
        directory.le(crc32(item.data));
        body.put(stored);
    }
    while (body.bytes.size() % 16) body.bytes.push_back(std::byte{0});
    ByteWriter header;
    header.put("FCRATE01");
    header.le(static_cast<std::uint32_t>(items.size()));
    header.le(std::uint32_t{77});
    header.le(std::uint64_t{body.bytes.size()});
    header.le(static_cast<std::uint32_t>(directory.bytes.size()));
    header.le(crc32(directory.bytes));
    header.le(std::uint64_t{body.bytes.size() + directory.bytes.size()});
    std::copy(header.bytes.begin(), header.bytes.end(), body.bytes.begin());
    body.put(directory.bytes);
    return body.bytes;
}

Bytes make_file(const TextureDesc& desc, ByteSpan payload) {
    if (const auto dds = write_dds(desc, payload)) return *dds;
    if (const auto ktx2 = write_ktx2(desc, payload)) return *ktx2;
    return *write_ktx(desc, payload);
}

Bytes encode_one(Format format, const BlockTexels& block, Effort effort) {
    Image image(4, 4);
    std::copy(block.begin(), block.end(), image.texels.begin());
    return *encode(format, image, {effort});
}

BlockTexels decode_one(Format format, const std::byte* block) {
    const auto image = *decode(format, ByteSpan(block, info(format).block_bytes), 4, 4);
    BlockTexels out;
    std::copy(image.texels.begin(), image.texels.end(), out.begin());
    return out;
}

}  // namespace skivet::test
