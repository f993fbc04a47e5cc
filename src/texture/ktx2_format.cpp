#include "texture/ktx2_format.h"

#include <algorithm>

namespace skivet::ktx2 {
namespace {

// VkFormat: Vulkan 1.3, "Format Definition". The ASTC float formats, A4R4G4B4 and A8 are extensions with numbers of their own.
// clang-format off
constexpr VkNumber numbers[] = {
    {Format::ABGR4, 2, 0}, {Format::B5G6R5, 4, 0}, {Format::A1B5G5R5, 6, 0}, {Format::B5G5R5A1, 8, 0}, {Format::R8, 9, 15}, {Format::R8_SNORM, 10, 0},
    {Format::R8_UINT, 13, 0}, {Format::R8_SINT, 14, 0}, {Format::RG8, 16, 22}, {Format::RG8_SNORM, 17, 0}, {Format::RG8_UINT, 20, 0}, {Format::RG8_SINT, 21, 0},
    {Format::RGB8, 23, 29}, {Format::BGR8, 30, 36}, {Format::RGBA8, 37, 43}, {Format::RGBA8_SNORM, 38, 0}, {Format::RGBA8_UINT, 41, 0},
    {Format::RGBA8_SINT, 42, 0}, {Format::BGRA8, 44, 50}, {Format::BGR10A2, 58, 0}, {Format::RGB10A2, 64, 0}, {Format::RGB10A2_UINT, 68, 0},
    {Format::R16, 70, 0}, {Format::R16_SNORM, 71, 0}, {Format::R16_UINT, 74, 0}, {Format::R16_SINT, 75, 0}, {Format::R16F, 76, 0}, {Format::RG16, 77, 0},
    {Format::RG16_SNORM, 78, 0}, {Format::RG16_UINT, 81, 0}, {Format::RG16_SINT, 82, 0}, {Format::RG16F, 83, 0}, {Format::RGB16, 84, 0},
    {Format::RGB16F, 90, 0}, {Format::RGBA16, 91, 0}, {Format::RGBA16_SNORM, 92, 0}, {Format::RGBA16_UINT, 95, 0}, {Format::RGBA16_SINT, 96, 0},
    {Format::RGBA16F, 97, 0}, {Format::R32_UINT, 98, 0}, {Format::R32_SINT, 99, 0}, {Format::R32F, 100, 0}, {Format::RG32_UINT, 101, 0},
    {Format::RG32_SINT, 102, 0}, {Format::RG32F, 103, 0}, {Format::RGB32_UINT, 104, 0}, {Format::RGB32_SINT, 105, 0}, {Format::RGB32F, 106, 0},
    {Format::RGBA32_UINT, 107, 0}, {Format::RGBA32_SINT, 108, 0}, {Format::RGBA32F, 109, 0}, {Format::R11G11B10F, 122, 0}, {Format::RGB9E5, 123, 0},
    {Format::BC1, 133, 134}, {Format::BC2, 135, 136}, {Format::BC3, 137, 138}, {Format::BC4, 139, 0}, {Format::BC4_SNORM, 140, 0}, {Format::BC5, 141, 0},
    {Format::BC5_SNORM, 142, 0}, {Format::BC6H, 143, 0}, {Format::BC6H_SF16, 144, 0}, {Format::BC7, 145, 146}, {Format::ETC2_RGB, 147, 148},
    {Format::ETC2_RGBA1, 149, 150}, {Format::ETC2_RGBA, 151, 152}, {Format::EAC_R, 153, 0}, {Format::EAC_R_SNORM, 154, 0}, {Format::EAC_RG, 155, 0},
    {Format::EAC_RG_SNORM, 156, 0}, {Format::A8, 1000470001, 0}, {Format::BGRA4, 1000340000, 0}};
// clang-format on

constexpr std::uint32_t first_astc = 157, first_astc_float = 1000066000, astc_footprints = 14;
constexpr auto astc_numbers = [] {
    std::array<VkNumber, 2 * astc_footprints> out{};
    for (std::uint32_t i = 0; i < astc_footprints; ++i) {
        const auto at = [&](Format base) { return static_cast<Format>(static_cast<std::uint32_t>(base) + i); };
        out[i] = {at(Format::ASTC_4x4), first_astc + 2 * i, first_astc + 2 * i + 1};
        out[astc_footprints + i] = {at(Format::ASTC_4x4_HDR), first_astc_float + i, 0};
    }
    return out;
}();

// Khronos Data Format Specification 1.3: color models (table 5.5), channel ids and qualifiers (sections 5.7 to 5.9), from memory where a
// number is not spelled out in the text.
enum Model : std::uint8_t { rgbsda = 1, bc1a = 128, bc2, bc3, bc4, bc5, bc6h, bc7, etc1 = 160, etc2, astc, etc1s, uastc = 166 };
constexpr std::uint8_t qualifier_linear = 0x10, qualifier_exponent = 0x20, qualifier_signed = 0x40, qualifier_float = 0x80, alpha = 15;
constexpr std::uint32_t one_as_float = 0x3F800000u, minus_one_as_float = 0xBF800000u;

struct Sample {
    std::uint16_t offset;
    std::uint8_t bits;
    std::uint8_t channel;  ///< id and qualifiers
    std::uint32_t lower, upper;
};

Sample compressed(std::uint16_t offset, std::uint8_t bits, std::uint8_t channel, const FormatInfo& f) {
    if (f.is_float()) {
        const bool is_signed = f.numeric == Numeric::sfloat;
        return {offset, bits, static_cast<std::uint8_t>(channel | qualifier_float | (is_signed ? qualifier_signed : 0)),
                is_signed ? minus_one_as_float : 0u, one_as_float};
    }
    if (f.is_signed()) return {offset, bits, static_cast<std::uint8_t>(channel | qualifier_signed), 0x80000000u, 0x7FFFFFFFu};
    return {offset, bits, channel, 0, 0xFFFFFFFFu};
}

std::vector<Sample> samples_of(const FormatInfo& f, std::uint8_t& model) {
    switch (f.format) {
        case Format::BC1: model = bc1a; return {compressed(0, 64, 1, f)};  // id 1: the alpha bit counts
        case Format::BC2:
        case Format::BC3: model = f.format == Format::BC2 ? bc2 : bc3; return {compressed(0, 64, alpha, f), compressed(64, 64, 0, f)};
        case Format::BC4:
        case Format::BC4_SNORM: model = bc4; return {compressed(0, 64, 0, f)};
        case Format::BC5:
        case Format::BC5_SNORM: model = bc5; return {compressed(0, 64, 0, f), compressed(64, 64, 1, f)};
        case Format::BC6H:
        case Format::BC6H_SF16: model = bc6h; return {compressed(0, 128, 0, f)};
        case Format::BC7: model = bc7; return {compressed(0, 128, 0, f)};
        case Format::ETC2_RGB: model = etc2; return {compressed(0, 64, 2, f)};
        case Format::ETC2_RGBA1: model = etc2; return {compressed(0, 64, 2, f), compressed(0, 64, alpha, f)};
        case Format::ETC2_RGBA: model = etc2; return {compressed(0, 64, alpha, f), compressed(64, 64, 2, f)};
        case Format::EAC_R:
        case Format::EAC_R_SNORM: model = etc2; return {compressed(0, 64, 0, f)};
        case Format::EAC_RG:
        case Format::EAC_RG_SNORM: model = etc2; return {compressed(0, 64, 0, f), compressed(64, 64, 1, f)};
        default: break;
    }
    if (is_astc(f.format)) {
        model = astc;
        return {compressed(0, 128, 0, f)};
    }
    model = rgbsda;
    std::vector<Sample> out;
    if (f.format == Format::RGB9E5) {
        for (std::uint8_t c = 0; c < 3; ++c) {
            out.push_back({static_cast<std::uint16_t>(9 * c), 9, c, 0, 8448});
            out.push_back({27, 5, static_cast<std::uint8_t>(c | qualifier_exponent), 15, 31});
        }
        return out;
    }
    const std::pair<ChannelBits, std::uint8_t> channels[] = {{f.red, 0}, {f.green, 1}, {f.blue, 2}, {f.alpha, alpha}};
    for (const auto& [bits, id] : channels) {
        if (bits.bits == 0) continue;
        const auto top = bits.bits >= 32 ? 0xFFFFFFFFu : (1u << bits.bits) - 1;
        Sample s{bits.shift, bits.bits, id, 0, top};
        if (f.numeric == Numeric::snorm) s.channel |= qualifier_signed, s.upper = top >> 1, s.lower = 0u - (top >> 1);
        if (f.numeric == Numeric::uint) s.upper = 1;
        if (f.numeric == Numeric::sint) s.channel |= qualifier_signed, s.lower = 0xFFFFFFFFu, s.upper = 1;
        if (f.is_float()) {
            s.channel |= qualifier_float;
            s.upper = one_as_float;
            if (f.numeric == Numeric::sfloat) s.channel |= qualifier_signed, s.lower = minus_one_as_float;
        }
        out.push_back(s);
    }
    std::sort(out.begin(), out.end(), [](const Sample& a, const Sample& b) { return a.offset < b.offset; });
    return out;
}

}  // namespace

const VkNumber* vk_number(Format format) {
    for (const auto& n : numbers)
        if (n.format == format) return &n;
    for (const auto& n : astc_numbers)
        if (n.format == format) return &n;
    return nullptr;
}

std::pair<Format, ColorSpace> from_vk(std::uint32_t number) {
    if (number == 131 || number == 132)
        return {Format::BC1, number == 132 ? ColorSpace::srgb : ColorSpace::linear};  // BC1 without alpha: the same blocks
    const auto matches = [&](const VkNumber& n) { return number != 0 && (n.plain == number || n.srgb == number); };
    const auto color = [&](const VkNumber& n) {
        return n.srgb == number ? ColorSpace::srgb : n.srgb ? ColorSpace::linear : ColorSpace::unknown;
    };
    for (const auto& n : numbers)
        if (matches(n)) return {n.format, color(n)};
    for (const auto& n : astc_numbers)
        if (matches(n)) return {n.format, color(n)};
    return {Format::unknown, ColorSpace::unknown};
}

std::uint32_t type_size(Format format) {
    const auto& f = info(format);
    if (f.block_compressed()) return 1;
    const bool whole_channels = f.red.bits % 8 == 0 && f.green.bits % 8 == 0 && f.blue.bits % 8 == 0 && f.alpha.bits % 8 == 0;
    if (!whole_channels) return f.block_bytes;  // packed into one word
    return std::max({f.red.bits, f.green.bits, f.blue.bits, f.alpha.bits}) / 8u;
}

Bytes descriptor(Format format, ColorSpace color) {
    const auto& f = info(format);
    std::uint8_t model = 0;
    auto samples = samples_of(f, model);
    const bool srgb = color == ColorSpace::srgb;
    for (auto& s : samples)  // alpha is never encoded
        if (srgb && (s.channel & 15) == alpha) s.channel |= qualifier_linear;
    ByteWriter out;
    const auto block_size = static_cast<std::uint32_t>(24 + 16 * samples.size());
    out.le(block_size + 4);
    out.le(std::uint32_t{0});                     // vendor Khronos, basic descriptor
    out.le(std::uint32_t{2} | block_size << 16);  // version 1.3
    out.le(model);
    out.le(std::uint8_t{1});  // primaries of BT.709
    out.le(static_cast<std::uint8_t>(srgb ? 2 : 1));
    out.le(std::uint8_t{0});  // straight alpha
    out.le(static_cast<std::uint8_t>(f.block_width - 1));
    out.le(static_cast<std::uint8_t>(f.block_height - 1));
    out.le(std::uint16_t{0});
    out.le(static_cast<std::uint64_t>(f.block_bytes));  // bytesPlane0 to 7
    for (const auto& s : samples) {
        out.le(s.offset);
        out.le(static_cast<std::uint8_t>(s.bits - 1));
        out.le(s.channel);
        out.le(std::uint32_t{0});
        out.le(s.lower);
        out.le(s.upper);
    }
    return std::move(out.bytes);
}

std::string_view basis_name(ByteSpan dfd) {
    if (dfd.size() < 13) return {};
    const auto model = static_cast<std::uint8_t>(dfd[12]);
    return model == etc1s ? "ETC1S" : model == uastc ? "UASTC" : std::string_view{};
}

}  // namespace skivet::ktx2
