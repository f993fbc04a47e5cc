#pragma once
// The faces of a cubemap as one picture: a cross of 4 × 3 squares, as is common practice.
//
//        +Y
//    -X  +Z  +X  -Z
//        -Y
#include "bench/level.h"

namespace skivet {

/// Column and row of each face, in the order +X, -X, +Y, -Y, +Z, -Z.
inline constexpr std::array<std::array<std::uint32_t, 2>, 6> cross_cells = {{{2, 1}, {0, 1}, {1, 0}, {1, 2}, {1, 1}, {3, 1}}};
inline constexpr std::array<std::string_view, 6> face_names = {"px", "nx", "py", "ny", "pz", "nz"};

[[nodiscard]] inline bool has_cross(const TextureDesc& d) { return d.faces == 6 && d.layers == 1; }

/// The square of one face cut out of a cross, or put into it.
template <class Picture>
Picture face_of(const Picture& cross, std::uint32_t face) {
    Picture out(cross.width / 4, cross.height / 3);
    const auto [column, row] = cross_cells[face];
    for (std::uint32_t y = 0; y < out.height; ++y)
        std::copy_n(&cross.at(column * out.width, row * out.height + y), out.width, &out.at(0, y));
    return out;
}
template <class Picture>
void put_face(Picture& cross, std::uint32_t face, const Picture& part) {
    const auto [column, row] = cross_cells[face];
    for (std::uint32_t y = 0; y < part.height; ++y)
        std::copy_n(&part.at(0, y), part.width, &cross.at(column * part.width, row * part.height + y));
}

inline Texel corner_of(const Image&) { return {0, 0, 0, 255}; }
inline TexelF corner_of(const ImageF&) { return {0, 0, 0, 1}; }

/// A level of the whole cubemap; the corners are black and opaque.
template <class Picture>
Result<Picture> decode_cross(const TextureFile& texture, std::uint32_t mip) {
    Picture cross;
    for (std::uint32_t face = 0; face < 6; ++face) {
        SKIVET_TRY(const auto part, decode_level<Picture>(texture, mip, 0, face));
        if (face == 0) {
            cross = Picture(part.width * 4, part.height * 3);
            std::fill(cross.texels.begin(), cross.texels.end(), corner_of(cross));
        }
        put_face(cross, face, part);
    }
    return cross;
}
/// The cross, or one face.
template <class Picture>
Result<Picture> decode_shown(const TextureFile& texture, std::uint32_t mip, bool cross, std::uint32_t layer = 0, std::uint32_t face = 0,
                             std::uint32_t slice = 0) {
    if (cross) return decode_cross<Picture>(texture, mip);
    return decode_level<Picture>(texture, mip, layer, face, slice);
}
/// Corners as decode_cross leaves them, whatever was painted there.
template <class Picture>
void clear_corners(Picture& cross) {
    const auto w = cross.width / 4, h = cross.height / 3;
    for (std::uint32_t y = 0; y < cross.height; ++y)
        for (std::uint32_t x = 0; x < cross.width; ++x)
            if (y / h != 1 && x / w != 1) cross.at(x, y) = corner_of(cross);
}

}  // namespace skivet
