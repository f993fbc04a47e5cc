#include "codec/paint_form.h"

namespace skivet {
namespace {

/// One stored channel that is not alpha: shown and painted as gray.
bool is_gray(const FormatInfo& f) { return f.luminance || (f.channels == 1 && f.format != Format::A8); }

float luma(const TexelF& t) { return t[0] == t[1] && t[1] == t[2] ? t[0] : 0.2126f * t[0] + 0.7152f * t[1] + 0.0722f * t[2]; }
std::uint8_t luma(const Texel& t) {
    if (t[0] == t[1] && t[1] == t[2]) return t[0];
    return static_cast<std::uint8_t>((2126u * t[0] + 7152u * t[1] + 722u * t[2] + 5000) / 10000);
}

template <class Picture>
Picture to_paint(Format format, Picture out) {
    if (is_gray(info(format)))
        for (auto& t : out.texels) t[1] = t[2] = t[0];
    return out;
}

template <class Picture, class Channel>
Picture to_stored(Format format, Picture out, Channel whole) {
    const auto& f = info(format);
    // What a format without a channel decodes to: nothing, which for a signed 8-bit view is still the byte 0.
    const bool gray = is_gray(f), green = f.channels >= 2 && !gray, blue = f.channels >= 3 && !gray;
    if (blue && f.has_alpha) return out;  // it holds everything
    for (auto& t : out.texels) {
        if (format == Format::A8) {
            t[0] = t[1] = t[2] = 0;
            continue;
        }
        if (gray) {
            t[0] = luma(t);
            t[1] = t[2] = f.luminance ? t[0] : 0;
        } else {
            if (!green) t[1] = 0;
            if (!blue) t[2] = 0;
        }
        if (!f.has_alpha) t[3] = whole;
    }
    return out;
}

}  // namespace

Image paint_form(Format format, Image decoded) { return to_paint(format, std::move(decoded)); }
ImageF paint_form(Format format, ImageF decoded) { return to_paint(format, std::move(decoded)); }
SharedImage paint_form(Format format, const SharedImage& decoded) {
    return is_gray(info(format)) ? SharedImage(to_paint(format, *decoded)) : decoded;
}
Image stored_form(Format format, Image painted) { return to_stored(format, std::move(painted), std::uint8_t{255}); }
ImageF stored_form(Format format, ImageF painted) { return to_stored(format, std::move(painted), 1.0f); }

}  // namespace skivet
