// The 8-byte single-channel part of BC3 (alpha), BC4 and BC5: two 8-bit endpoints and sixteen 3-bit indices.
// Interpolated values are cut off, not rounded: that is what libsquish, ffmpeg and Mesa's softpipe agree on, to the bit.
// first > second: eight values on the line between them. Otherwise: six values, plus 0 and 255.
#include <limits>

#include "codec/codec.h"

namespace skivet {
namespace {

using Values = std::array<int, 8>;

Values make_values(int a, int b) {
    Values v{a, b};
    if (a > b) {
        for (int k = 1; k < 7; ++k) v[static_cast<std::size_t>(k) + 1] = ((7 - k) * a + k * b) / 7;
    } else {
        for (int k = 1; k < 5; ++k) v[static_cast<std::size_t>(k) + 1] = ((5 - k) * a + k * b) / 5;
        v[6] = 0;
        v[7] = 255;
    }
    return v;
}

int error_of(const std::array<int, 16>& in, int a, int b, int stop_at) {
    const auto values = make_values(a, b);
    int sum = 0;
    for (std::size_t i = 0; i < 16 && sum < stop_at; ++i) {
        int best = std::numeric_limits<int>::max();
        for (int v : values) best = std::min(best, (v - in[i]) * (v - in[i]));
        sum += best;
    }
    return sum;
}

}  // namespace

void decode_channel_part(const std::byte* bytes, BlockTexels& out, std::size_t channel) {
    const auto values = make_values(static_cast<int>(bytes[0]), static_cast<int>(bytes[1]));
    auto indices = load_uint(bytes + 2, 6, ByteOrder::little);
    for (auto& texel : out) {
        texel[channel] = static_cast<std::uint8_t>(values[indices & 7]);
        indices >>= 3;
    }
}

void encode_channel_part(const BlockTexels& in, std::byte* bytes, std::size_t channel) {
    std::array<int, 16> value{};
    int low = 255, high = 0, inner_low = 255, inner_high = 0;
    for (std::size_t i = 0; i < 16; ++i) {
        value[i] = in[i][channel];
        low = std::min(low, value[i]);
        high = std::max(high, value[i]);
        if (value[i] > 0 && value[i] < 255) inner_low = std::min(inner_low, value[i]), inner_high = std::max(inner_high, value[i]);
    }
    if (inner_low > inner_high) inner_low = inner_high = low;  // nothing between 0 and 255
    int best_a = high, best_b = low;
    int best = error_of(value, high, low, std::numeric_limits<int>::max());
    const auto try_pair = [&](int a, int b) {
        const int error = error_of(value, a, b, best);
        if (error < best) best = error, best_a = a, best_b = b;
    };
    // A window around both starting points: the best endpoints lie near the extremes, a few steps in or out.
    constexpr int reach = 6;
    for (int da = -reach; da <= reach && best > 0; ++da)
        for (int db = -reach; db <= reach && best > 0; ++db) {
            const int a = std::clamp(high + da, 0, 255), b = std::clamp(low + db, 0, 255);
            if (a > b) try_pair(a, b);
            const int c = std::clamp(inner_low + da, 0, 255), d = std::clamp(inner_high + db, 0, 255);
            if (c <= d) try_pair(c, d);
        }
    const auto values = make_values(best_a, best_b);
    std::uint64_t indices = 0;
    for (std::size_t i = 0; i < 16; ++i) {
        std::uint64_t best_index = 0;
        for (std::size_t k = 1; k < 8; ++k)
            if (std::abs(values[k] - value[i]) < std::abs(values[best_index] - value[i])) best_index = k;
        indices |= best_index << (3 * i);
    }
    bytes[0] = static_cast<std::byte>(best_a);
    bytes[1] = static_cast<std::byte>(best_b);
    store_uint(bytes + 2, indices, 6, ByteOrder::little);
}

}  // namespace skivet
