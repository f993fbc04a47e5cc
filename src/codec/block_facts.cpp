#include "codec/block_facts.h"

#include <fmt/format.h>
#include <bit>

#include "base/phrase.h"
#include "codec/bc6h_tables.h"
#include "codec/bc7_tables.h"
#include "codec/color_part.h"

namespace skivet {
namespace {

std::string hex_color(const color_part::Endpoint& e) { return fmt::format("#{:02x}{:02x}{:02x}", e.rgb[0], e.rgb[1], e.rgb[2]); }

std::string color_part_text(ByteSpan bytes, bool always_four) {
    const auto a = load_le<std::uint16_t>(bytes.data()), b = load_le<std::uint16_t>(bytes.data() + 2);
    return phrase("{} · {} to {}", said(always_four || a > b ? "four colors" : "three colors and clear"), hex_color(color_part::unpack(a)),
                  hex_color(color_part::unpack(b)));
}

std::string channel_part_text(ByteSpan bytes, bool is_signed) {
    const auto value = [&](std::size_t i) {
        return is_signed ? static_cast<int>(static_cast<std::int8_t>(bytes[i])) : static_cast<int>(bytes[i]);
    };
    return phrase("{} to {} in {} steps", value(0), value(1), value(0) > value(1) ? 8 : 6);
}

std::string bc7_text(ByteSpan bytes) {
    const auto number = static_cast<unsigned>(std::countr_zero(static_cast<unsigned>(bytes[0]) | 0x100u));
    if (number == 8) return said("reserved mode");
    const auto& mode = bptc::modes[number];
    const auto low = load_le<std::uint64_t>(bytes.data()) >> (number + 1);
    std::string text = phrase("mode {} · ", number);
    if (mode.subsets == 1) text += said("one subset");
    else text += phrase("{} subsets, partition {}", mode.subsets, low & ((1u << mode.partition_bits) - 1));
    if (const auto rotation = low & ((1u << mode.rotation_bits) - 1); rotation) text += phrase(", {} for alpha", "RGB"[rotation - 1]);
    return text + phrase(" · {}-bit indices", mode.index_bits) +
           (mode.second_index_bits ? phrase(" and {}-bit", mode.second_index_bits) : "");
}

std::string bc6h_text(ByteSpan bytes) {
    const int number = bc6h::mode_of(static_cast<unsigned>(bytes[0]) & 31);
    if (number < 0) return said("reserved mode");
    const auto& mode = bc6h::modes[static_cast<std::size_t>(number)];
    return phrase("mode {} · {} · {}-bit endpoints{}", number + 1, said(mode.two_regions ? "two regions" : "one region"),
                  mode.endpoint_bits, mode.deltas ? said(" by deltas") : std::string());
}

/// The 8 bytes of color of ETC1 and ETC2.
std::string etc_text(ByteSpan bytes, bool etc1, bool punch_through) {
    const auto bits = load_uint(bytes.data(), 8, ByteOrder::big);
    const bool bit33 = (bits >> 33 & 1) != 0;
    const auto halves = said(bits >> 32 & 1 ? "halves above each other" : "halves side by side");
    if (!bit33 && !punch_through) return phrase("individual · {}", halves);
    constexpr std::string_view extra[] = {"T", "H", "planar"};
    for (unsigned c = 0; c < 3 && !etc1; ++c) {
        const int base = static_cast<int>(bits >> (59 - 8 * c) & 31), difference = (static_cast<int>(bits >> (56 - 8 * c) & 7) ^ 4) - 4;
        if (base + difference < 0 || base + difference > 31)
            return std::string(extra[c]) + (punch_through && !bit33 && c < 2 ? said(", with clear texels") : "");
    }
    return phrase("differential · {}{}", halves, punch_through && !bit33 ? said(", with clear texels") : std::string());
}

std::string eac_text(ByteSpan bytes) {
    return phrase("base {}, table {} × {}", static_cast<unsigned>(bytes[0]), static_cast<unsigned>(bytes[1]) & 15,
                  static_cast<unsigned>(bytes[1]) >> 4);
}

}  // namespace

std::string describe_block(Format format, ByteSpan block) {
    const auto& f = info(format);
    if (!f.block_compressed() || block.size() < f.block_bytes) return {};
    switch (format) {
        case Format::BC1: return color_part_text(block, false);
        case Format::BC2: return color_part_text(block.subspan(8), true);
        case Format::BC3: return color_part_text(block.subspan(8), true) + " · alpha " + channel_part_text(block, false);
        case Format::BC4:
        case Format::BC4_SNORM: return channel_part_text(block, f.is_signed());
        case Format::BC5:
        case Format::BC5_SNORM:
            return "R " + channel_part_text(block, f.is_signed()) + " · G " + channel_part_text(block.subspan(8), f.is_signed());
        case Format::BC6H:
        case Format::BC6H_SF16: return bc6h_text(block);
        case Format::BC7: return bc7_text(block);
        case Format::ETC1: return etc_text(block, true, false);
        case Format::ETC2_RGB: return etc_text(block, false, false);
        case Format::ETC2_RGBA1: return etc_text(block, false, true);
        case Format::ETC2_RGBA: return etc_text(block.subspan(8), false, false) + " · alpha " + eac_text(block);
        case Format::EAC_R:
        case Format::EAC_R_SNORM: return eac_text(block);
        case Format::EAC_RG:
        case Format::EAC_RG_SNORM: return "R " + eac_text(block) + " · G " + eac_text(block.subspan(8));
        default: return phrase("{}×{} texels in {} bytes", f.block_width, f.block_height, f.block_bytes);
    }
}

}  // namespace skivet
