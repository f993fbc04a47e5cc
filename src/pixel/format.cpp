#include "pixel/format.h"

#include <algorithm>
#include <array>
#include <bit>

namespace skivet {
namespace {

constexpr ChannelBits none{};
// DXGI numbers: DXGI_FORMAT enumeration, Direct3D documentation.
constexpr std::array<FormatInfo, 19> formats{{
    {Format::unknown, "unknown", 1, 1, 0, false, false, false, none, none, none, none, 0, 0},
    {Format::BC1, "BC1", 4, 4, 8, true, true, false, none, none, none, none, 71, 72},
    {Format::BC2, "BC2", 4, 4, 16, true, true, false, none, none, none, none, 74, 75},
    {Format::BC3, "BC3", 4, 4, 16, true, true, false, none, none, none, none, 77, 78},
    {Format::BC4, "BC4", 4, 4, 8, false, false, false, none, none, none, none, 80, 0},
    {Format::BC5, "BC5", 4, 4, 16, false, false, false, none, none, none, none, 83, 0},
    {Format::RGBA8, "RGBA8", 1, 1, 4, true, true, false, {0, 8}, {8, 8}, {16, 8}, {24, 8}, 28, 29},
    {Format::BGRA8, "BGRA8", 1, 1, 4, true, true, false, {16, 8}, {8, 8}, {0, 8}, {24, 8}, 87, 91},
    {Format::BGRX8, "BGRX8", 1, 1, 4, false, true, false, {16, 8}, {8, 8}, {0, 8}, none, 88, 93},
    {Format::RGB8, "RGB8", 1, 1, 3, false, false, false, {0, 8}, {8, 8}, {16, 8}, none, 0, 0},
    {Format::BGR8, "BGR8", 1, 1, 3, false, false, false, {16, 8}, {8, 8}, {0, 8}, none, 0, 0},
    {Format::R8, "R8", 1, 1, 1, false, false, false, {0, 8}, none, none, none, 61, 0},
    {Format::RG8, "RG8", 1, 1, 2, false, false, false, {0, 8}, {8, 8}, none, none, 49, 0},
    {Format::A8, "A8", 1, 1, 1, true, false, false, none, none, none, {0, 8}, 65, 0},
    {Format::L8, "L8", 1, 1, 1, false, false, true, {0, 8}, none, none, none, 0, 0},
    {Format::LA8, "LA8", 1, 1, 2, true, false, true, {0, 8}, none, none, {8, 8}, 0, 0},
    {Format::B5G6R5, "B5G6R5", 1, 1, 2, false, false, false, {11, 5}, {5, 6}, {0, 5}, none, 85, 0},
    {Format::B5G5R5A1, "B5G5R5A1", 1, 1, 2, true, false, false, {10, 5}, {5, 5}, {0, 5}, {15, 1}, 86, 0},
    {Format::BGRA4, "BGRA4", 1, 1, 2, true, false, false, {8, 4}, {4, 4}, {0, 4}, {12, 4}, 115, 0},
}};

}  // namespace

std::span<const FormatInfo> all_formats() { return std::span(formats).subspan(1); }

const FormatInfo& info(Format format) { return formats[std::min<std::size_t>(static_cast<std::size_t>(format), formats.size() - 1)]; }

std::optional<Format> format_named(std::string_view name) {
    const auto same = [](char a, char b) { return (a >= 'a' && a <= 'z' ? a - 32 : a) == (b >= 'a' && b <= 'z' ? b - 32 : b); };
    for (const auto& entry : all_formats())
        if (std::equal(entry.name.begin(), entry.name.end(), name.begin(), name.end(), same)) return entry.format;
    return std::nullopt;
}

std::uint64_t level_bytes(Format format, std::uint32_t width, std::uint32_t height) {
    const auto& f = info(format);
    const std::uint64_t across = (std::uint64_t{width} + f.block_width - 1) / f.block_width;
    const std::uint64_t down = (std::uint64_t{height} + f.block_height - 1) / f.block_height;
    return across * down * f.block_bytes;
}

std::uint32_t full_mip_count(std::uint32_t width, std::uint32_t height, std::uint32_t depth) {
    return static_cast<std::uint32_t>(std::bit_width(std::max({width, height, depth, 1u})));
}

std::string_view name_of(ColorSpace color) {
    return color == ColorSpace::srgb ? "srgb" : color == ColorSpace::linear ? "linear" : "unknown";
}

}  // namespace skivet
