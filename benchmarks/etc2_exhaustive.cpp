// How far the ETC2 encoder is from the best there is: every base, table, distance and plane of every mode of ETC2 RGB is tried on blocks
// sampled from a folder of pictures. About a second a block.
// usage: skivet_etc2_exhaustive FOLDER [blocks a picture]
#include <array>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <iterator>
#include <random>
#include <vector>

#include "codec/codec.h"
#include "codec/etc_tables.h"
#include "texture/png.h"

using namespace skivet;

namespace {

using Errors = std::array<std::int32_t, 16>;
constexpr std::int32_t none = 1 << 29;

int square(int v) { return v * v; }
int byte(int v) { return std::clamp(v, 0, 255); }
int from4(int v) { return v << 4 | v; }
int from5(int v) { return v << 3 | v >> 2; }

struct Searcher {
    std::array<std::array<int, 3>, 16> color{};  ///< down the columns, as the format has it

    [[nodiscard]] int off(std::size_t i, int r, int g, int b) const {
        return square(color[i][0] - byte(r)) + square(color[i][1] - byte(g)) + square(color[i][2] - byte(b));
    }

    /// The least error of one half for every base, over all tables.
    [[nodiscard]] std::vector<std::int32_t> halves(bool flip, std::size_t which, int bits) const {
        const int side = 1 << bits;
        std::vector<std::int32_t> out(static_cast<std::size_t>(side * side * side), none);
        for (int r = 0; r < side; ++r)
            for (int g = 0; g < side; ++g)
                for (int b = 0; b < side; ++b) {
                    const auto wide = [&](int v) { return bits == 4 ? from4(v) : from5(v); };
                    auto& best = out[static_cast<std::size_t>((r * side + g) * side + b)];
                    for (const auto& m : etc::modifiers) {
                        std::int32_t sum = 0;
                        for (std::size_t i = 0; i < 16 && sum < best; ++i) {
                            if ((flip ? i % 4 : i / 4) / 2 != which) continue;
                            int nearest = none;
                            for (const int step : {m[0], m[1], -m[0], -m[1]})
                                nearest = std::min(nearest, off(i, wide(r) + step, wide(g) + step, wide(b) + step));
                            sum += nearest;
                        }
                        best = std::min(best, sum);
                    }
                }
        return out;
    }

    [[nodiscard]] std::int32_t individual_and_differential() const {
        std::int32_t best = none;
        for (const bool flip : {false, true}) {
            const auto a4 = halves(flip, 0, 4), b4 = halves(flip, 1, 4);
            best = std::min(best, *std::min_element(a4.begin(), a4.end()) + *std::min_element(b4.begin(), b4.end()));
            const auto a5 = halves(flip, 0, 5), b5 = halves(flip, 1, 5);
            for (int r = 0; r < 32; ++r)
                for (int g = 0; g < 32; ++g)
                    for (int b = 0; b < 32; ++b) {
                        const auto first = a5[static_cast<std::size_t>((r * 32 + g) * 32 + b)];
                        if (first >= best) continue;
                        for (int r2 = std::max(0, r - 4); r2 <= std::min(31, r + 3); ++r2)
                            for (int g2 = std::max(0, g - 4); g2 <= std::min(31, g + 3); ++g2)
                                for (int b2 = std::max(0, b - 4); b2 <= std::min(31, b + 3); ++b2)
                                    best = std::min(best, first + b5[static_cast<std::size_t>((r2 * 32 + g2) * 32 + b2)]);
                    }
        }
        return best;
    }

    [[nodiscard]] std::int32_t planar() const {
        std::int32_t total = 0;
        for (std::size_t c = 0; c < 3; ++c) {
            const int side = c == 1 ? 128 : 64;
            const auto wide = [&](int v) { return c == 1 ? v << 1 | v >> 6 : v << 2 | v >> 4; };
            std::int32_t best = none;
            for (int o = 0; o < side; ++o)
                for (int h = 0; h < side; ++h)
                    for (int v = 0; v < side; ++v) {
                        std::int32_t sum = 0;
                        for (int i = 0; i < 16 && sum < best; ++i)
                            sum += square(byte((i / 4 * (wide(h) - wide(o)) + i % 4 * (wide(v) - wide(o)) + 4 * wide(o) + 2) >> 2) -
                                          color[static_cast<std::size_t>(i)][c]);
                        best = std::min(best, sum);
                    }
            total += best;
        }
        return total;
    }

    /// T and H: errors of all texels for every first and every second paint, then all pairs.
    [[nodiscard]] std::int32_t paints() const {
        std::int32_t best = none;
        std::vector<Errors> single(4096), pair(4096), three(4096);
        for (int d = 0; d < 8; ++d) {
            const int distance = etc::distances[static_cast<std::size_t>(d)];
            for (int n = 0; n < 4096; ++n) {
                const int r = from4(n >> 8), g = from4(n >> 4 & 15), b = from4(n & 15);
                const auto at = static_cast<std::size_t>(n);
                for (std::size_t i = 0; i < 16; ++i) {
                    single[at][i] = off(i, r, g, b);
                    pair[at][i] =
                        std::min(off(i, r + distance, g + distance, b + distance), off(i, r - distance, g - distance, b - distance));
                    three[at][i] = std::min(single[at][i], pair[at][i]);
                }
            }
            const auto all_pairs = [&](const std::vector<Errors>& first, const std::vector<Errors>& second) {
                for (const auto& x : first)
                    for (const auto& y : second) {
                        std::int32_t sum = 0;
                        for (std::size_t i = 0; i < 16; ++i) sum += std::min(x[i], y[i]);
                        best = std::min(best, sum);
                    }
            };
            all_pairs(single, three);
            all_pairs(pair, pair);
        }
        return best;
    }
};

}  // namespace

int main(int argc, char** argv) {
    if (argc < 2) return std::fprintf(stderr, "usage: skivet_etc2_exhaustive FOLDER [blocks a picture]\n"), 2;
    const int wanted = argc > 2 ? std::atoi(argv[2]) : 3;
    std::mt19937 random(1);
    std::array<double, 3> ours{};
    double least = 0;
    int blocks = 0;
    for (const auto& entry : std::filesystem::directory_iterator(argv[1])) {
        if (entry.path().extension() != ".png") continue;
        std::ifstream file(entry.path(), std::ios::binary);
        const std::string text((std::istreambuf_iterator<char>(file)), {});
        const auto image = read_png(as_bytes(text), ReadLimits{});
        if (!image) continue;
        for (int n = 0; n < wanted; ++n, ++blocks) {
            const auto bx = random() % (image->width / 4), by = random() % (image->height / 4);
            Image block(4, 4);
            Searcher search;
            for (std::uint32_t y = 0; y < 4; ++y)
                for (std::uint32_t x = 0; x < 4; ++x) {
                    block.at(x, y) = image->at(static_cast<std::uint32_t>(bx) * 4 + x, static_cast<std::uint32_t>(by) * 4 + y);
                    block.at(x, y)[3] = 255;
                    for (std::size_t c = 0; c < 3; ++c) search.color[x * 4 + y][c] = block.at(x, y)[c];
                }
            const auto best = std::min({search.individual_and_differential(), search.planar(), search.paints()});
            least += best;
            for (const auto effort : {Effort::fast, Effort::normal, Effort::best}) {
                const auto back = *decode(Format::ETC2_RGB, *encode(Format::ETC2_RGB, block, {effort}), 4, 4);
                std::int32_t sum = 0;
                for (std::size_t i = 0; i < 16; ++i)
                    for (std::size_t c = 0; c < 3; ++c) sum += square(back.texels[i][c] - block.texels[i][c]);
                if (sum < best)
                    return std::fprintf(stderr, "a block of %s has %d where the search found %d: the search is wrong\n",
                                        entry.path().c_str(), sum, best),
                           1;
                ours[static_cast<std::size_t>(effort)] += sum;
            }
        }
    }
    const auto psnr = [&](double sum) { return 10 * std::log10(255.0 * 255.0 * blocks * 48 / std::max(sum, 1e-9)); };
    std::printf("%d blocks\n| ETC2 RGB | PSNR | below exhaustive |\n|---|---|---|\n", blocks);
    for (const auto effort : {Effort::fast, Effort::normal, Effort::best}) {
        const double p = psnr(ours[static_cast<std::size_t>(effort)]);
        std::printf("| %s | %.2f dB | %.2f dB |\n", std::string(name_of(effort)).c_str(), p, psnr(least) - p);
    }
    std::printf("| exhaustive search | %.2f dB | |\n", psnr(least));
}
