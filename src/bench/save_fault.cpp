#include "bench/save_fault.h"

#include <algorithm>
#include <cmath>

namespace skivet {
namespace {

constexpr int tolerance = 2;    ///< steps of 255: what programs' rounding differs by
constexpr int informative = 8;  ///< a texel the fault changes by less says nothing

/// Color of a texel with the fault, and without: values 0…1. Forward goes by the original's alpha, back by the edit's.
struct Way {
    SaveFaultRow row;
    TexelF (*forward)(const TexelF& texel);
    TexelF (*back)(const TexelF& texel);
};

template <float (*map)(float)>
TexelF mapped(const TexelF& t) {
    return {map(t[0]), map(t[1]), map(t[2]), t[3]};
}
TexelF same(const TexelF& t) { return t; }
TexelF swapped(const TexelF& t) { return {t[2], t[1], t[0], t[3]}; }
TexelF multiplied(const TexelF& t) { return {t[0] * t[3], t[1] * t[3], t[2] * t[3], t[3]}; }
TexelF divided(const TexelF& t) {
    if (t[3] <= 0 || t[3] >= 1) return t;
    const auto part = [&](float v) { return std::min(1.0f, v / t[3]); };
    return {part(t[0]), part(t[1]), part(t[2]), t[3]};
}
TexelF on_white(const TexelF& t) {
    const auto part = [&](float v) { return v * t[3] + 1 - t[3]; };
    return {part(t[0]), part(t[1]), part(t[2]), t[3]};
}
TexelF other_green(const TexelF& t) { return {t[0], 1 - t[1], t[2], t[3]}; }

constexpr Way ways[] = {
    {{SaveFault::linear, "Saved in linear light: too dark",
      "The program decoded the colors while it saved, also where nothing was painted. In the game everything would be too dark."},
     mapped<srgb_to_linear>,
     mapped<linear_to_srgb>},
    {{SaveFault::encoded, "Encoded twice: too bright",
      "The program encoded the colors once more while it saved, also where nothing was painted. In the game they would look washed out."},
     mapped<linear_to_srgb>,
     mapped<srgb_to_linear>},
    {{SaveFault::upside_down, "Upside down", "The rows were saved from bottom to top; the game would show the picture upside down."},
     same,
     same},
    {{SaveFault::red_blue, "Red and blue changed places", "The program saved the channels in another order than it said."},
     swapped,
     swapped},
    {{SaveFault::premultiplied, "Color was multiplied by alpha",
      "The program darkened partly transparent colors while it saved; in the game the edges would get dark seams."},
     multiplied,
     divided},
    {{SaveFault::on_white, "Laid on white",
      "The program filled what is transparent with white; in the game white would show through wherever alpha is no transparency."},
     on_white,
     same},
    {{SaveFault::green, "Green is the other way round",
      "Two conventions point a normal map's green up or down; yours has the other one, and the game's light would come from below."},
     other_green,
     other_green},
};
static_assert([] {
    for (std::size_t i = 0; i < std::size(ways); ++i)
        if (ways[i].row.fault != static_cast<SaveFault>(i)) return false;
    return true;
}());

TexelF floats(const Texel& t) {
    TexelF out;
    for (std::size_t c = 0; c < 4; ++c) out[c] = static_cast<float>(t[c]) / 255;
    return out;
}
Texel bytes(const TexelF& t) {
    Texel out;
    for (std::size_t c = 0; c < 4; ++c) out[c] = static_cast<std::uint8_t>(std::lround(std::clamp(t[c], 0.0f, 1.0f) * 255));
    return out;
}
/// Largest difference of the colors.
int far(const Texel& a, const Texel& b) {
    int out = 0;
    for (std::size_t c = 0; c < 3; ++c) out = std::max(out, std::abs(a[c] - b[c]));
    return out;
}

/// What the fault makes of the original at a place.
Texel made_of(const Way& way, const Image& before, std::uint32_t x, std::uint32_t y) {
    if (way.row.fault == SaveFault::upside_down) y = before.height - 1 - y;
    return bytes(way.forward(floats(before.at(x, y))));
}

void flip_rows(auto& picture) {
    for (std::uint32_t y = 0; y < picture.height / 2; ++y)
        std::swap_ranges(picture.texels.begin() + std::ptrdiff_t{y} * picture.width,
                         picture.texels.begin() + (std::ptrdiff_t{y} + 1) * picture.width,
                         picture.texels.begin() + std::ptrdiff_t{picture.height - 1 - y} * picture.width);
}

}  // namespace

const SaveFaultRow& info(SaveFault fault) { return ways[static_cast<std::size_t>(fault)].row; }

std::optional<SaveFault> find_save_fault(const Image& before, const Image& edited, bool normals) {
    constexpr std::uint32_t most = 128;  // samples a side
    const auto across = std::min(before.width, most), down = std::min(before.height, most);
    std::optional<SaveFault> found;
    double best = 0;
    for (const auto& way : ways) {
        if (way.row.fault == SaveFault::green && !normals) continue;
        std::uint64_t telling = 0, explained = 0, kept = 0;
        for (std::uint32_t j = 0; j < down; ++j) {
            for (std::uint32_t i = 0; i < across; ++i) {
                // Shifted from row to row, so that no pattern of the picture hides between the samples.
                const auto x =
                    static_cast<std::uint32_t>((std::uint64_t{i} * before.width + std::uint64_t{j} * 7919) / across % before.width);
                const auto y = static_cast<std::uint32_t>(std::uint64_t{j} * before.height / down);
                const auto& was = before.at(x, y);
                const auto& is = edited.at(x, y);
                if (was[3] == 0 && is[3] == 0) continue;  // hidden color is no sign of anything
                const auto made = made_of(way, before, x, y);
                if (far(made, was) <= informative) continue;
                ++telling;
                explained += far(made, is) <= tolerance;
                kept += far(was, is) <= tolerance;
            }
        }
        if (telling < 64 || explained * 5 < telling * 2 || kept * 10 > telling) continue;
        const auto share = static_cast<double>(explained) / static_cast<double>(telling);
        if (share > best) best = share, found = way.row.fault;
    }
    return found;
}

void undo_save_fault(SaveFault fault, const Image& before, Image& edited, const ImageF* own, ImageF* deep) {
    const auto& way = ways[static_cast<std::size_t>(fault)];
    if (fault == SaveFault::upside_down) {
        flip_rows(edited);
        if (deep) flip_rows(*deep);
        return;
    }
    for (std::size_t i = 0; i < edited.texels.size(); ++i) {
        auto& t = edited.texels[i];
        if (far(bytes(way.forward(floats(before.texels[i]))), t) <= tolerance) {
            std::copy_n(before.texels[i].begin(), 3, t.begin());
            if (deep) std::copy_n(own->texels[i].begin(), 3, deep->texels[i].begin());
            continue;
        }
        t = bytes(way.back(floats(t)));
        if (deep) deep->texels[i] = way.back(deep->texels[i]);
    }
}

}  // namespace skivet
