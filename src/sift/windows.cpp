#include "sift/windows.h"

#include <algorithm>
#include <cstring>
#include <tuple>
#include <utility>

#include "base/chunks.h"

namespace skivet {
namespace {

constexpr std::size_t phases = 16;
constexpr std::size_t states = bare_kinds * phases;
constexpr std::size_t at_once = 16 << 10;  // windows: 8 MB, and 3 MB of what they look like
constexpr std::size_t most_plain = 4096;   // windows without anything to see that a stretch may hold: 2 MB

enum class Look : std::uint8_t { no, plain, yes };

/// Which kinds at which phases a window may be of.
struct Looks {
    std::array<Look, states> of{};
    Look& at(BareKind kind, unsigned phase) { return of[static_cast<std::size_t>(kind) * phases + phase]; }
};

void judge(const WindowStats& s, Looks& out) {
    out.of.fill(Look::no);
    unsigned sum16 = 0;
    for (const auto v : s.step16) sum16 += v;
    if (sum16 < window_bytes && s.step[0] < 3 * 64) {
        out.of.fill(Look::plain);
        return;
    }
    // Means over the 32 bytes of a lane, times 32: the ends of a color line change little from block to block, the numbers of texels much.
    const auto block_of_8 = [&](unsigned phase, std::initializer_list<unsigned> ends, std::initializer_list<unsigned> rest,
                                const std::array<std::uint16_t, 16>& step) {
        unsigned most = 0, sum = 0, least = ~0u, second = ~0u;
        for (const auto i : ends) most = std::max<unsigned>(most, step[(phase + i) % 16]);
        for (const auto i : rest) {
            const unsigned v = step[(phase + i) % 16];
            sum += v;
            if (v < least) second = std::exchange(least, v);
            else second = std::min(second, v);
        }
        const auto mean = sum / static_cast<unsigned>(rest.size());
        return most <= 32 * 64 && mean >= 32 * 6 && most * 10 <= mean * 8 && most * 5 <= second * 4;
    };
    const auto flat_part = [&](unsigned phase) {  // eight bytes that are nearly the same from block to block
        unsigned sum = 0;
        for (unsigned i = 0; i < 8; ++i) sum += s.step16[(phase + i) % 16];
        return sum < 8 * 32 * 2;
    };
    // Blocks that are often the same, as in flat pictures, may be of any kind of block.
    const auto plain_blocks = [&](BareKind kind) {
        for (unsigned p = 0; p < 16; ++p) out.at(kind, p) = Look::plain;
    };
    if (s.equal16 > window_bytes / 10)
        for (const auto kind : {BareKind::bc2_bc3, BareKind::bc5, BareKind::bc6h, BareKind::bc7}) plain_blocks(kind);
    if (s.equal8 > window_bytes / 10)
        for (const auto kind : {BareKind::bc1, BareKind::bc4}) plain_blocks(kind);
    const bool sparse = s.zeros > window_bytes / 2;  // zeros with a few numbers
    const bool dense = sum16 > 32 * 16 * 24u;        // most bytes change from block to block
    std::array<bool, 16> color8{}, color16{}, alpha8{}, alpha16{};
    for (unsigned p = 0; p < 16 && !sparse; ++p) {
        color8[p] = block_of_8(p, {1, 3}, {4, 5, 6, 7}, s.step8);
        color16[p] = block_of_8(p, {1, 3}, {4, 5, 6, 7}, s.step16);
        alpha8[p] = block_of_8(p, {0, 1}, {2, 3, 4, 5, 6, 7}, s.step8);
        alpha16[p] = block_of_8(p, {0, 1}, {2, 3, 4, 5, 6, 7}, s.step16);
    }
    for (unsigned p = 0; p < 8; ++p) {
        if (color8[p] && color8[p + 8]) out.at(BareKind::bc1, p) = Look::yes;
        if (alpha8[p] && alpha8[p + 8]) out.at(BareKind::bc4, p) = Look::yes;
    }
    for (unsigned p = 0; p < 16; ++p) {
        if (color16[(p + 8) % 16] && !(color16[p] && out.at(BareKind::bc1, p % 8) == Look::yes)) out.at(BareKind::bc2_bc3, p) = Look::yes;
        if ((alpha16[p] || flat_part(p)) && alpha16[(p + 8) % 16]) out.at(BareKind::bc5, p % 16) = Look::yes;
        // A window has 32 blocks of BC7. Other bytes are of a usual mode in 14 of 32 cases, rare in 16.
        if (dense && s.bc7_usual[p] >= 24 && s.bc7_rare[p] <= 6) out.at(BareKind::bc7, p) = Look::yes;
        if (dense && s.bc6h_usual[p] >= 20) out.at(BareKind::bc6h, p) = Look::yes;
    }
    const auto [d1, d2, d3, d4] = s.step;
    if (d4 < 50 * 64 && d4 * 10 <= d1 * 9 && d4 * 10 <= d2 * 9 && d4 * 10 <= d3 * 9) out.at(BareKind::four_bytes, 0) = Look::yes;
    if (d3 < 50 * 64 && d3 * 10 <= d1 * 9 && d3 * 10 <= d2 * 9 && d3 * 10 <= d4 * 9) out.at(BareKind::three_bytes, 0) = Look::yes;
    for (unsigned parity = 0; parity < 2; ++parity)
        if (s.step2[parity] < 45 * 64 && s.step2[parity] * 10 <= d1 * 8 && s.step2[parity] <= s.step2[1 - parity])
            out.at(BareKind::two_bytes, 0) = Look::yes;
    if (d1 < 50 * 64 && d1 <= d2 && d2 <= d3 && d1 * 20 <= d4 * (s.no_text > 8 ? 17u : 10u)) out.at(BareKind::one_byte, 0) = Look::yes;
    // Numbers of a palette say nothing by their size, but equal ones stand beside each other.
    if (s.equal > window_bytes / 20 && s.equal < window_bytes * 9 / 10 && !sparse) out.at(BareKind::numbers, 0) = Look::yes;
}

}  // namespace

std::vector<Stretch> stretches(ByteSpan data, const CancelToken& cancel) {
    struct Run {
        std::size_t before = 0;  ///< the first window, those without anything to see before it counted
        std::size_t last = 0;    ///< the last one that looks right
        std::uint32_t count = 0;
        std::size_t plain = 0;  ///< windows without anything to see right behind it
    };
    std::array<Run, states> runs{};
    std::vector<Stretch> out;
    const auto close = [&](std::size_t state) {
        auto& run = runs[state];
        if (run.count >= 2) {
            const auto from = run.before > 0 ? run.before - 1 : 0;
            out.push_back({static_cast<BareKind>(state / phases), static_cast<unsigned>(state % phases), from * window_bytes,
                           std::min<std::uint64_t>(data.size(), (run.last + 2 + run.plain) * window_bytes)});
        }
        run.count = 0;
    };
    const auto windows = data.size() / window_bytes;
    const auto look = [&](std::size_t w, Looks& looks) {
        const auto* at = data.data() + w * window_bytes;
        std::array<std::byte, window_bytes + 16> copy{};
        if ((w + 1) * window_bytes + 16 > data.size()) {  // the last one: its end is repeated
            std::memcpy(copy.data(), at, window_bytes);
            std::memcpy(copy.data() + window_bytes, at + window_bytes - 16, 16);
            at = copy.data();
        }
        judge(window_stats(at), looks);
    };
    std::size_t plain = 0;  // windows without anything to see right before this one
    const auto follow = [&](std::size_t w, const Looks& looks) {
        const bool all_plain = std::all_of(looks.of.begin(), looks.of.end(), [](Look one) { return one == Look::plain; });
        for (std::size_t state = 0; state < states; ++state) {
            auto& run = runs[state];
            if (looks.of[state] == Look::yes) {
                if (run.count == 0) run.before = w - plain;
                run.last = w;
                run.plain = 0;
                ++run.count;
            } else if (run.count > 0 && w - run.last > (looks.of[state] == Look::plain                                  ? most_plain
                                                        : state / phases == static_cast<std::size_t>(BareKind::numbers) ? 12
                                                                                                                        : 4)) {
                close(state);
            } else if (run.count > 0 && all_plain && w == run.last + 1 + run.plain) {
                ++run.plain;
            }
        }
        plain = all_plain ? std::min(plain + 1, most_plain) : 0;
    };
    // All cores count through some windows; what they make up in their order follows.
    std::vector<Looks> some(std::min(windows, at_once));
    for (std::size_t from = 0; from < windows; from += some.size()) {
        if (cancel.canceled()) return {};
        const auto count = std::min(some.size(), windows - from);
        in_chunks(count, [&](std::size_t begin, std::size_t end) {
            for (auto k = begin; k < end; ++k) look(from + k, some[k]);
        });
        for (std::size_t k = 0; k < count; ++k) follow(from + k, some[k]);
    }
    for (std::size_t state = 0; state < states; ++state) close(state);
    std::sort(out.begin(), out.end(),
              [](const auto& a, const auto& b) { return std::tie(a.from, a.kind, a.phase) < std::tie(b.from, b.kind, b.phase); });
    return out;
}

}  // namespace skivet
