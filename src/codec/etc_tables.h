#pragma once
// Khronos Data Format Specification 1.3, chapters 21 (ETC1) and 22 (ETC2 and EAC); OpenGL ES 3.0.6, appendix C.
#include <array>
#include <cstdint>

namespace skivet::etc {

/// Intensity modifiers for index 0 and 1; index 2 and 3 are their negatives (ETC1 table 3).
inline constexpr std::array<std::array<int, 2>, 8> modifiers = {
    {{2, 8}, {5, 17}, {9, 29}, {13, 42}, {18, 60}, {24, 80}, {33, 106}, {47, 183}}};
/// Distances of the T and H modes.
inline constexpr std::array<int, 8> distances = {3, 6, 11, 16, 23, 32, 41, 64};
/// EAC modifiers, by table and 3-bit index.
inline constexpr std::array<std::array<int, 8>, 16> eac_modifiers = {{{-3, -6, -9, -15, 2, 5, 8, 14},
                                                                      {-3, -7, -10, -13, 2, 6, 9, 12},
                                                                      {-2, -5, -8, -13, 1, 4, 7, 12},
                                                                      {-2, -4, -6, -13, 1, 3, 5, 12},
                                                                      {-3, -6, -8, -12, 2, 5, 7, 11},
                                                                      {-3, -7, -9, -11, 2, 6, 8, 10},
                                                                      {-4, -7, -8, -11, 3, 6, 7, 10},
                                                                      {-3, -5, -8, -11, 2, 4, 7, 10},
                                                                      {-2, -6, -8, -10, 1, 5, 7, 9},
                                                                      {-2, -5, -8, -10, 1, 4, 7, 9},
                                                                      {-2, -4, -8, -10, 1, 3, 7, 9},
                                                                      {-2, -5, -7, -10, 1, 4, 6, 9},
                                                                      {-3, -4, -7, -10, 2, 3, 6, 9},
                                                                      {-1, -2, -3, -10, 0, 1, 2, 9},
                                                                      {-4, -6, -8, -9, 3, 5, 7, 8},
                                                                      {-3, -5, -7, -9, 2, 4, 6, 8}}};

}  // namespace skivet::etc
