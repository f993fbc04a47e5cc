#include "sheet/level_storage.h"

#include "base/phrase.h"

namespace skivet {
namespace {

/// Numbers of fewer than eight bits, one byte each; or the other way.
void unpack_numbers(const std::byte* in, std::byte* out, std::uint64_t count, unsigned bits, bool high_first) {
    const unsigned each = 8 / bits, mask = (1u << bits) - 1;
    for (std::uint64_t i = 0; i < count; ++i) {
        const auto slot = static_cast<unsigned>(i % each);
        out[i] = static_cast<std::byte>(static_cast<unsigned>(in[i / each]) >> (high_first ? each - 1 - slot : slot) * bits & mask);
    }
}

void pack_numbers(const std::byte* in, std::byte* out, std::uint64_t count, unsigned bits, bool high_first) {
    const unsigned each = 8 / bits, mask = (1u << bits) - 1;
    for (std::uint64_t i = 0; i < count; ++i) {
        const auto slot = static_cast<unsigned>(i % each);
        const auto shift = (high_first ? each - 1 - slot : slot) * bits;
        auto& byte = out[i / each];
        byte = static_cast<std::byte>((static_cast<unsigned>(byte) & ~(mask << shift)) | (static_cast<unsigned>(in[i]) & mask) << shift);
    }
}

}  // namespace

LevelStorage::Shape LevelStorage::shape(std::uint32_t width, std::uint32_t height) const {
    const auto& f = info(format);
    const std::uint64_t across = (width + f.block_width - 1u) / f.block_width, down = (height + f.block_height - 1u) / f.block_height;
    Shape out{order.columns ? down : across, order.columns ? across : down, f.block_bytes, 0, 0, 1, f.block_bytes};
    if (order.planes) out.planes = f.channels, out.part = f.block_bytes / f.channels;
    const auto tight = (out.across * out.part * bits + 7) / 8;
    out.pitch = std::max((tight + row_align - 1) / row_align * row_align, row_pitch);
    out.plane = out.pitch * out.down;
    return out;
}

std::uint64_t LevelStorage::bytes(std::uint32_t width, std::uint32_t height) const {
    if (tiling.tiling != Tiling::linear) return (tiled_bytes(tiling, format, width, height) * bits + 7) / 8;
    const auto s = shape(width, height);
    return s.plane * s.planes;
}

/// visit(stored plane and row, stored element, place in rows) for each element of a linear level.
template <class Visit>
void LevelStorage::each(std::uint32_t width, std::uint32_t height, const Visit& visit) const {
    const auto s = shape(width, height);
    const auto across = order.columns ? s.down : s.across, down = order.columns ? s.across : s.down;
    for (std::uint64_t plane = 0; plane < s.planes; ++plane)
        for (std::uint64_t row = 0; row < s.down; ++row)
            for (std::uint64_t i = 0; i < s.across; ++i) {
                const auto x = order.columns ? row : i;
                auto y = order.columns ? i : row;
                if (order.bottom_up) y = down - 1 - y;
                visit(plane * s.plane + row * s.pitch, i, (y * across + x) * s.element + plane * s.part);
            }
}

Result<Bytes> LevelStorage::rows(std::uint32_t width, std::uint32_t height, ByteSpan in) const {
    if (in.size() < bytes(width, height))
        return fail(ErrorCode::damaged,
                    phrase("level of {}×{}: needs {} bytes, has {}", width, height, grouped(bytes(width, height)), grouped(in.size())));
    if (tiling.tiling != Tiling::linear) {
        if (bits == 8) return untile(tiling, format, width, height, in);
        Bytes numbers(static_cast<std::size_t>(tiled_bytes(tiling, format, width, height)));
        unpack_numbers(in.data(), numbers.data(), numbers.size(), bits, high_first);
        return untile(tiling, format, width, height, numbers);
    }
    const auto s = shape(width, height);
    Bytes out(static_cast<std::size_t>(level_bytes(format, width, height)));
    if (order.plain()) {
        for (std::uint64_t y = 0; y < s.down; ++y) {
            const auto* from = in.data() + y * s.pitch;
            auto* to = out.data() + y * s.across * s.element;
            if (bits == 8) std::memcpy(to, from, static_cast<std::size_t>(s.across * s.element));
            else unpack_numbers(from, to, s.across, bits, high_first);
        }
        return out;
    }
    Bytes line(static_cast<std::size_t>(s.across));
    std::uint64_t done = ~0ull;
    each(width, height, [&](std::uint64_t row, std::uint64_t i, std::uint64_t to) {
        if (bits == 8) {
            std::memcpy(out.data() + to, in.data() + row + i * s.part, static_cast<std::size_t>(s.part));
            return;
        }
        if (done != row) unpack_numbers(in.data() + row, line.data(), s.across, bits, high_first), done = row;
        out[static_cast<std::size_t>(to)] = line[static_cast<std::size_t>(i)];
    });
    return out;
}

Result<Bytes> LevelStorage::stored(std::uint32_t width, std::uint32_t height, ByteSpan in, ByteSpan before) const {
    const auto need = bytes(width, height);
    if (in.size() != level_bytes(format, width, height) || before.size() != need)
        return fail(ErrorCode::unfit, phrase("level of {}×{}: needs {} bytes, has {}", width, height,
                                             grouped(level_bytes(format, width, height)), grouped(in.size())));
    if (tiling.tiling != Tiling::linear) {
        if (bits == 8) return tile(tiling, format, width, height, in, before);
        Bytes numbers(static_cast<std::size_t>(tiled_bytes(tiling, format, width, height)));
        unpack_numbers(before.data(), numbers.data(), numbers.size(), bits, high_first);
        SKIVET_TRY(const auto tiled, tile(tiling, format, width, height, in, numbers));
        Bytes out(before.begin(), before.end());
        pack_numbers(tiled.data(), out.data(), tiled.size(), bits, high_first);
        return out;
    }
    const auto s = shape(width, height);
    Bytes out(before.begin(), before.end());  // what lies between the rows stays
    Bytes line(static_cast<std::size_t>(s.across));
    each(width, height, [&](std::uint64_t row, std::uint64_t i, std::uint64_t from) {
        if (bits == 8) {
            std::memcpy(out.data() + row + i * s.part, in.data() + from, static_cast<std::size_t>(s.part));
            return;
        }
        line[static_cast<std::size_t>(i)] = in[static_cast<std::size_t>(from)];
        if (i + 1 == s.across) pack_numbers(line.data(), out.data() + row, s.across, bits, high_first);
    });
    return out;
}

}  // namespace skivet
