#pragma once
// A texture of several parts as one picture. The faces of a cubemap as a cross of 4 × 3 squares, as is common practice:
//
//        +Y
//    -X  +Z  +X  -Z
//        -Y
//
// and the layers of an array below each other, the first on top.
#include "bench/level.h"

namespace skivet {

/// Column and row of each face, in the order +X, -X, +Y, -Y, +Z, -Z.
inline constexpr std::array<std::array<std::uint32_t, 2>, 6> cross_cells = {{{2, 1}, {0, 1}, {1, 0}, {1, 2}, {1, 1}, {3, 1}}};
inline constexpr std::array<std::string_view, 6> face_names = {"px", "nx", "py", "ny", "pz", "nz"};

[[nodiscard]] inline bool has_cross(const TextureDesc& d) { return d.faces == 6 && d.layers == 1; }
/// More texels than that are for files that hold all layers.
inline constexpr std::uint64_t most_stacked = 1u << 26;
[[nodiscard]] inline bool has_stack(const TextureDesc& d) {
    return d.layers > 1 && d.faces == 1 && d.depth == 1 && std::uint64_t{d.width} * d.height * d.layers <= most_stacked;
}
[[nodiscard]] inline bool has_parts(const TextureDesc& d) { return has_cross(d) || has_stack(d); }

/// A part, and where it stands, counted in parts.
struct TexturePart {
    std::uint32_t layer = 0, face = 0, column = 0, row = 0;
    std::string name;  ///< "px", "layer0"
};
/// Where has_parts; otherwise the texture itself.
[[nodiscard]] inline std::vector<TexturePart> parts_of(const TextureDesc& d) {
    std::vector<TexturePart> out;
    if (has_cross(d))
        for (std::uint32_t face = 0; face < 6; ++face)
            out.push_back({0, face, cross_cells[face][0], cross_cells[face][1], std::string(face_names[face])});
    else
        for (std::uint32_t layer = 0; layer < (has_stack(d) ? d.layers : 1); ++layer)
            out.push_back({layer, 0, 0, layer, "layer" + std::to_string(layer)});
    return out;
}
/// Parts side by side and below each other.
[[nodiscard]] inline std::array<std::uint32_t, 2> part_grid(const TextureDesc& d) {
    return has_cross(d) ? std::array<std::uint32_t, 2>{4, 3} : std::array<std::uint32_t, 2>{1, has_stack(d) ? d.layers : 1};
}
/// Whether a picture of these sides can be all parts in one, at any size.
[[nodiscard]] inline bool is_whole(const TextureDesc& d, std::uint32_t width, std::uint32_t height) {
    const auto [columns, rows] = part_grid(d);
    return has_parts(d) && width % columns == 0 && height % rows == 0 &&
           std::uint64_t{width / columns} * d.height == std::uint64_t{height / rows} * d.width;
}

/// A part cut out of the whole, or put into it.
template <class Picture>
Picture cut_part(const Picture& whole, const TextureDesc& d, const TexturePart& part) {
    const auto [columns, rows] = part_grid(d);
    Picture out(whole.width / columns, whole.height / rows);
    for (std::uint32_t y = 0; y < out.height; ++y)
        std::copy_n(&whole.at(part.column * out.width, part.row * out.height + y), out.width, &out.at(0, y));
    return out;
}
template <class Picture>
void put_part(Picture& whole, const TexturePart& at, const Picture& part) {
    for (std::uint32_t y = 0; y < part.height; ++y)
        std::copy_n(&part.at(0, y), part.width, &whole.at(at.column * part.width, at.row * part.height + y));
}

inline Texel corner_of(const Image&) { return {0, 0, 0, 255}; }
inline TexelF corner_of(const ImageF&) { return {0, 0, 0, 1}; }

/// Room for all parts, each of these sides; the corners of a cross are black and opaque.
template <class Picture>
Picture room_for_parts(const TextureDesc& d, std::uint32_t width, std::uint32_t height) {
    const auto [columns, rows] = part_grid(d);
    Picture out(width * columns, height * rows);
    std::fill(out.texels.begin(), out.texels.end(), corner_of(out));
    return out;
}

/// A level of all parts.
template <class Picture>
Result<Picture> decode_whole(const TextureFile& texture, std::uint32_t mip) {
    const auto& d = texture.layout.desc;
    auto whole = room_for_parts<Picture>(d, mip_side(d.width, mip), mip_side(d.height, mip));
    for (const auto& at : parts_of(d)) {
        SKIVET_TRY(const auto part, decode_level<Picture>(texture, mip, at.layer, at.face));
        put_part(whole, at, part);
    }
    return whole;
}
/// All parts, or one surface.
template <class Picture>
Result<Picture> decode_shown(const TextureFile& texture, std::uint32_t mip, bool whole, std::uint32_t layer = 0, std::uint32_t face = 0,
                             std::uint32_t slice = 0) {
    if (whole) return decode_whole<Picture>(texture, mip);
    return decode_level<Picture>(texture, mip, layer, face, slice);
}
/// Corners of a cross as decode_whole leaves them, whatever was painted there.
template <class Picture>
void clear_corners(Picture& cross) {
    const auto w = cross.width / 4, h = cross.height / 3;
    for (std::uint32_t y = 0; y < cross.height; ++y)
        for (std::uint32_t x = 0; x < cross.width; ++x)
            if (y / h != 1 && x / w != 1) cross.at(x, y) = corner_of(cross);
}

}  // namespace skivet
