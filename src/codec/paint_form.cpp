#include "codec/paint_form.h"

namespace skivet {
namespace {

struct Stored {
    bool gray, green, blue, alpha;
};

/// Which channels of a decoded texel the format really stores.
Stored stored_channels(Format format) {
    const auto& f = info(format);
    switch (format) {
        case Format::BC4: return {true, false, false, false};
        case Format::BC5: return {false, true, false, false};
        case Format::BC1: case Format::BC2: case Format::BC3: return {false, true, true, true};
        default: return {f.luminance || (f.red.bits > 0 && f.green.bits == 0), f.green.bits > 0, f.blue.bits > 0, f.alpha.bits > 0};
    }
}

std::uint8_t luma(const Texel& t) {
    if (t[0] == t[1] && t[1] == t[2]) return t[0];
    return static_cast<std::uint8_t>((2126u * t[0] + 7152u * t[1] + 722u * t[2] + 5000) / 10000);
}

}  // namespace

Image paint_form(Format format, const Image& decoded) {
    if (!stored_channels(format).gray) return decoded;
    auto out = decoded;
    for (auto& t : out.texels) t[1] = t[2] = t[0];
    return out;
}

Image stored_form(Format format, const Image& painted) {
    const auto stored = stored_channels(format);
    auto out = painted;
    for (auto& t : out.texels) {
        if (format == Format::A8) {
            t[0] = t[1] = t[2] = 0;
            continue;
        }
        if (stored.gray) {
            t[0] = luma(t);
            t[1] = t[2] = info(format).luminance ? t[0] : 0;
        } else {
            if (!stored.green) t[1] = 0;
            if (!stored.blue) t[2] = 0;
        }
        if (!stored.alpha) t[3] = 255;
    }
    return out;
}

}  // namespace skivet
