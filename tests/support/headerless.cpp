#include "support/headerless.h"

#include <squish.h>

#include <cmath>
#include <cstring>
#include <numeric>
#include <vector>

#include "base/pack.h"
#include "pixel/mips.h"

namespace skivet::test {
namespace {

/// Numbers of 32 bits from a seed.
class Draw {
public:
    explicit Draw(unsigned seed) : engine_(seed) {}
    unsigned operator()() { return static_cast<unsigned>(engine_()); }

private:
    std::mt19937 engine_;
};

/// Smooth noise of several octaves, 0…1, that repeats over the picture's sides.
class Clouds {
public:
    Clouds(unsigned seed, unsigned cells) : cells_(cells), values_(std::size_t{cells} * cells) {
        Draw random(seed);
        for (auto& v : values_) v = static_cast<float>(random() % 1000) / 1000;
    }
    [[nodiscard]] float at(float u, float v, unsigned octaves) const {
        float sum = 0, weight = 0.5f, scale = 1;
        for (unsigned i = 0; i < octaves; ++i, weight /= 2, scale *= 2) sum += weight * smooth(u * scale, v * scale);
        return sum;
    }

private:
    unsigned cells_;
    std::vector<float> values_;
    [[nodiscard]] float value(int x, int y) const {
        const auto n = static_cast<int>(cells_);
        return values_[static_cast<std::size_t>(((y % n) + n) % n * n + ((x % n) + n) % n)];
    }
    [[nodiscard]] float smooth(float u, float v) const {
        const float x = u * static_cast<float>(cells_), y = v * static_cast<float>(cells_);
        const int xi = static_cast<int>(std::floor(x)), yi = static_cast<int>(std::floor(y));
        const auto ease = [](float t) { return t * t * (3 - 2 * t); };
        const float fx = ease(x - static_cast<float>(xi)), fy = ease(y - static_cast<float>(yi));
        const auto mix = [](float a, float b, float t) { return a + (b - a) * t; };
        return mix(mix(value(xi, yi), value(xi + 1, yi), fx), mix(value(xi, yi + 1), value(xi + 1, yi + 1), fx), fy);
    }
};

std::uint8_t clamp8(float v) { return static_cast<std::uint8_t>(std::clamp(v, 0.0f, 255.0f)); }

/// Blocks by libsquish where it has the format, so that not only our own encoders are met.
Bytes encoded(Format format, const Image& image, unsigned seed) {
    const auto flag = format == Format::BC1   ? squish::kDxt1
                      : format == Format::BC2 ? squish::kDxt3
                      : format == Format::BC3 ? squish::kDxt5
                      : format == Format::BC4 ? squish::kBc4
                      : format == Format::BC5 ? squish::kBc5
                                              : 0;
    if (flag && seed % 2) {
        Bytes out(
            static_cast<std::size_t>(squish::GetStorageRequirements(static_cast<int>(image.width), static_cast<int>(image.height), flag)));
        squish::CompressImage(reinterpret_cast<const squish::u8*>(image.texels.data()), static_cast<int>(image.width),
                              static_cast<int>(image.height), out.data(), flag | squish::kColourRangeFit);
        return out;
    }
    EncodeOptions options;
    options.effort = seed % 3 ? Effort::fast : Effort::normal;
    return *encode(format, image, options);
}

Image half(const Image& image) {
    Image out(std::max(1u, image.width / 2), std::max(1u, image.height / 2));
    for (std::uint32_t y = 0; y < out.height; ++y)
        for (std::uint32_t x = 0; x < out.width; ++x)
            for (std::size_t c = 0; c < 4; ++c) {
                unsigned sum = 0;
                for (const auto& [dx, dy] : {std::pair{0u, 0u}, {1u, 0u}, {0u, 1u}, {1u, 1u}})
                    sum += image.at(std::min(2 * x + dx, image.width - 1), std::min(2 * y + dy, image.height - 1))[c];
                out.at(x, y)[c] = static_cast<std::uint8_t>((sum + 2) / 4);
            }
    return out;
}

}  // namespace

Image drawn_picture(std::uint32_t width, std::uint32_t height, unsigned seed) {
    Draw random(seed);
    Image out(width, height);
    const Clouds clouds(random(), 4 + random() % 5), grain(random(), 64);
    const auto style = random() % 5;
    const Texel low = {static_cast<std::uint8_t>(random() % 130), static_cast<std::uint8_t>(random() % 130),
                       static_cast<std::uint8_t>(random() % 130), 255};
    const Texel high = {static_cast<std::uint8_t>(120 + random() % 130), static_cast<std::uint8_t>(120 + random() % 130),
                        static_cast<std::uint8_t>(120 + random() % 130), 255};
    const auto rough = static_cast<float>(random() % 40) / 100;
    const auto bricks = 2 + random() % 7;
    const bool soft_alpha = random() % 3 == 0;
    for (std::uint32_t y = 0; y < height; ++y)
        for (std::uint32_t x = 0; x < width; ++x) {
            const float u = static_cast<float>(x) / static_cast<float>(width), v = static_cast<float>(y) / static_cast<float>(height);
            float t = clouds.at(u, v, 5) + rough * (grain.at(u, v, 3) - 0.45f);
            const auto row = static_cast<unsigned>(v * static_cast<float>(2 * bricks));
            const float across = u * static_cast<float>(bricks) + (row % 2 ? 0.5f : 0);
            if (style == 1)
                t = std::fmod(across, 1.0f) < 0.06f || std::fmod(v * static_cast<float>(2 * bricks), 1.0f) < 0.12f ? 0.1f : 0.4f + t * 0.5f;
            if (style == 2) t = (static_cast<unsigned>(across * 3) * 7 + row * 5) % 11 < 4 ? 0.85f : 0.2f;
            if (style == 3) t = (u + v) / 2;
            if (style == 4) t = clouds.at(u, v, 3);
            for (std::size_t c = 0; c < 3; ++c)
                out.at(x, y)[c] = clamp8(static_cast<float>(low[c]) + t * 1.1f * static_cast<float>(high[c] - low[c]));
            if (soft_alpha) out.at(x, y)[3] = clamp8(255 * (1.3f - 2 * std::hypot(u - 0.5f, v - 0.5f)));
        }
    return out;
}

Bytes other_data(std::size_t size, unsigned seed) {
    Draw random(seed);
    Bytes out;
    out.reserve(size + 64);
    const auto put = [&](auto value) {
        const auto* bytes = reinterpret_cast<const std::byte*>(&value);
        out.insert(out.end(), bytes, bytes + sizeof value);
    };
    const auto kind = random() % 8;
    const auto step = 1 + random() % 3;
    float phase = 0, x = 0, y = 0, z = 0;
    std::uint32_t number = random() % 1000;
    const std::string_view words[] = {"booth", "lantern ", "awning", " = ", "horse ", "\n",   "ring",
                                      "42, ",  "0.125 ",   "tent",   "{\n", "}\n  ",  "the ", "of "};
    const auto stride = 3 + random() % 6;
    while (out.size() < size) switch (kind) {
            case 0:
            case 1: put(static_cast<std::uint32_t>(random())); break;
            case 2:
                for (const char c : words[random() % std::size(words)]) put(c);
                break;
            case 3:
                phase += 0.05f + static_cast<float>(random() % 100) / 20'000;
                put(static_cast<std::int16_t>(9000 * std::sin(phase) + 5000 * std::sin(phase * 2.7f) + static_cast<float>(random() % 900)));
                break;
            case 4:
                put(number += 1 + random() % (1000 * step));
                put(static_cast<std::uint32_t>(random() % 5000));
                if (step > 1) put(static_cast<std::uint32_t>(random()));
                break;
            case 5:
                x += static_cast<float>(random() % 100) / 500 - 0.1f, y += static_cast<float>(random() % 100) / 300 - 0.17f, z = x * y;
                put(x), put(y), put(z);
                for (unsigned i = 3; i < stride; ++i) put(static_cast<float>(random() % 4096) / 4096);
                break;
            case 6:  // like code: few opcodes, small numbers, addresses
                put(static_cast<std::uint8_t>("\x48\x8B\x89\xE8\x0F\x83\xC7\x44"[random() % 8]));
                put(static_cast<std::uint8_t>(random() % 64 + (random() % 3 ? 0x40 : 0xC0)));
                if (random() % 3 == 0) put(static_cast<std::int32_t>(random() % 100'000) - 50'000);
                break;
            default:  // stretches of zeros with a few numbers
                out.resize(out.size() + 4 + random() % 60);
                put(static_cast<std::uint32_t>(random() % 70'000));
        }
    out.resize(size);
    return out;
}

Paletted in_256_colors(const Image& image) {
    // Boxes of texels are cut at the median of their longest side until there are 256.
    std::vector<std::uint32_t> order(image.texels.size());
    std::iota(order.begin(), order.end(), 0u);
    struct Box {
        std::size_t from, to;
    };
    std::vector<Box> boxes = {{0, order.size()}};
    const auto side = [&](const Box& box) {
        Texel low = {255, 255, 255, 255}, high = {0, 0, 0, 0};
        for (std::size_t i = box.from; i < box.to; ++i)
            for (std::size_t c = 0; c < 3; ++c) {
                low[c] = std::min(low[c], image.texels[order[i]][c]);
                high[c] = std::max(high[c], image.texels[order[i]][c]);
            }
        std::size_t longest = 0;
        for (std::size_t c = 1; c < 3; ++c)
            if (high[c] - low[c] > high[longest] - low[longest]) longest = c;
        return std::pair{longest, high[longest] - low[longest]};
    };
    std::vector<std::pair<std::size_t, int>> sides = {side(boxes[0])};
    while (boxes.size() < 256) {
        std::size_t best = 0;
        for (std::size_t i = 1; i < boxes.size(); ++i)
            if (sides[i].second > sides[best].second) best = i;
        if (sides[best].second == 0) break;
        const auto box = boxes[best];
        const auto channel = sides[best].first;
        const auto begin = order.begin() + static_cast<std::ptrdiff_t>(box.from), end = order.begin() + static_cast<std::ptrdiff_t>(box.to);
        std::sort(begin, end, [&](auto a, auto b) { return image.texels[a][channel] < image.texels[b][channel]; });
        auto middle = (box.from + box.to) / 2;
        while (middle < box.to && image.texels[order[middle]][channel] == image.texels[order[middle - 1]][channel]) ++middle;
        if (middle == box.to) {
            middle = (box.from + box.to) / 2;
            while (middle > box.from + 1 && image.texels[order[middle]][channel] == image.texels[order[middle - 1]][channel]) --middle;
        }
        boxes[best] = {box.from, middle};
        boxes.push_back({middle, box.to});
        sides[best] = side(boxes[best]);
        sides.push_back(side(boxes.back()));
    }
    Paletted out;
    out.palette.resize(256, Texel{0, 0, 0, 255});
    out.numbers.resize(order.size());
    for (std::size_t b = 0; b < boxes.size(); ++b) {
        std::array<std::size_t, 3> sum = {};
        const auto n = boxes[b].to - boxes[b].from;
        for (std::size_t i = boxes[b].from; i < boxes[b].to; ++i) {
            out.numbers[order[i]] = static_cast<std::uint8_t>(b);
            for (std::size_t c = 0; c < 3; ++c) sum[c] += image.texels[order[i]][c];
        }
        for (std::size_t c = 0; c < 3; ++c) out.palette[b][c] = static_cast<std::uint8_t>(sum[c] / n);
    }
    return out;
}

bool found_as(const Embedded& texture, const BareTexture& found) {
    const auto plain = [](Format f) { return f == Format::BGRA8 ? Format::RGBA8 : f == Format::BGR8 ? Format::RGB8 : f; };
    return texture.at < found.at + found.size && found.at < texture.at + texture.size && (found.palette_bits > 0) == texture.paletted &&
           plain(texture.desc.format) == plain(found.desc.format) && texture.desc.width == found.desc.width;
}

Mixture mixture(unsigned seed, const MixtureOptions& options) {
    Draw random(seed);
    struct Made {
        Bytes bytes;
        Embedded what;
    };
    std::vector<Made> all;
    std::size_t total = 0;
    for (std::size_t i = 0; i < options.textures; ++i) {
        Made made;
        auto& d = made.what.desc;
        d.width = 64u << random() % 4;
        d.height = random() % 4 ? d.width : std::clamp(random() % 2 ? d.width * 2 : d.width / 2, 64u, 512u);
        const bool paletted = options.palettes && random() % 12 == 0;
        d.format = paletted ? Format::RGB8 : options.formats[random() % options.formats.size()];
        d.mips = !paletted && random() % 5 >= 2 ? full_mip_count(d.width, d.height) : 1;
        auto image = options.picture(d.width, d.height, random());
        if (paletted) {
            made.what.paletted = true;
            const auto indexed = in_256_colors(image);
            const bool in_front = random() % 2, with_alpha = random() % 2;
            Bytes palette;
            for (const auto& color : indexed.palette)
                for (std::size_t c = 0; c < (with_alpha ? 4u : 3u); ++c) palette.push_back(static_cast<std::byte>(color[c]));
            if (with_alpha) d.format = Format::RGBA8;
            Bytes numbers(indexed.numbers.size());
            std::memcpy(numbers.data(), indexed.numbers.data(), numbers.size());
            made.what.size = numbers.size();
            made.what.at = in_front ? palette.size() : 0;
            made.what.palette_at = in_front ? 0 : numbers.size();
            made.bytes = in_front ? palette : numbers;
            const auto& then = in_front ? numbers : palette;
            made.bytes.insert(made.bytes.end(), then.begin(), then.end());
        } else {
            const auto how = random();
            for (std::uint32_t m = 0; m < d.mips; ++m) {
                const auto level = encoded(d.format, image, how);
                made.bytes.insert(made.bytes.end(), level.begin(), level.end());
                if (m + 1 < d.mips) image = half(image);
            }
            made.what.size = made.bytes.size();
        }
        total += made.bytes.size();
        all.push_back(std::move(made));
    }
    Mixture out;
    const auto rest = options.bytes > total ? options.bytes - total : options.textures * 1000;
    for (auto& made : all) {
        // Between two textures: nothing but alignment, a short header of numbers, or other data in one to three pieces.
        switch (random() % 8) {
            case 0: break;
            case 1:
                for (unsigned i = 0; i < 16 + random() % 48; ++i)
                    out.bytes.push_back(static_cast<std::byte>(random() % 3 ? 0 : random() % 256));
                break;
            default:
                for (unsigned pieces = 1 + random() % 3, i = 0; i < pieces; ++i) {
                    const auto fill =
                        options.fill(static_cast<std::size_t>(static_cast<double>(rest) / static_cast<double>(options.textures) / pieces *
                                                              1.33 * (0.5 + static_cast<double>(random() % 1000) / 1000)),
                                     random());
                    out.bytes.insert(out.bytes.end(), fill.begin(), fill.end());
                }
        }
        const std::size_t alignments[] = {1, 4, 16, 16, 64, 2048, 4096};
        const auto align = alignments[random() % std::size(alignments)];
        out.bytes.resize((out.bytes.size() + align - 1) / align * align);
        made.what.at += out.bytes.size();
        made.what.palette_at += out.bytes.size();
        out.bytes.insert(out.bytes.end(), made.bytes.begin(), made.bytes.end());
        out.textures.push_back(made.what);
    }
    const auto last = options.fill(options.bytes > out.bytes.size() ? options.bytes - out.bytes.size() : 1000, random());
    out.bytes.insert(out.bytes.end(), last.begin(), last.end());
    return out;
}

}  // namespace skivet::test
