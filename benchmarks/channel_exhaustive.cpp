// How far the encoder of single channels (BC3's alpha, BC4, BC5) is from the best there is: every pair of end values of both modes is tried
// on blocks taken at random from folders of pictures, each folder a kind by itself; and the speed of one thread on each instruction set.
//
// usage: skivet_channel_exhaustive BLOCKS CHANNEL:FOLDER…
//
// BLOCKS 0: all of them. CHANNEL 0 to 2: red, green, blue as in BC4 and BC5; 3: alpha, whose 0 and 255 must come back; 4: red as in BC4
// with a sign; 5: red as in BC5 of normals, where errors have weights (weights.h).
#include <tbb/parallel_for.h>

#include <cstdint>
#include <cstdlib>
#include <limits>
#include <string>

#include "codec/blocks.h"
#include "codec/weights.h"
#include "samples.h"

using namespace skivet;

namespace {

using Values = std::array<int, 16>;

/// The least squared error of all pairs of end values, by the decoder's values (Khronos Data Format Specification 1.3, section 18.2, cut
/// off as channel_part.cpp says). `exact`: the lowest and the highest value count only where they are met.
int best_error(const Values& values, const Values& weights, int lowest, int highest, bool exact) {
    int best = std::numeric_limits<int>::max();
    for (const int steps : {7, 5})
        for (int low = lowest; low <= highest; ++low)
            for (int high = low; high <= highest; ++high) {
                std::array<int, 8> level{};
                for (int m = 0; m <= steps; ++m) level[static_cast<std::size_t>(m)] = ((steps - m) * low + m * high) / steps;
                if (steps == 5) level[6] = lowest, level[7] = highest;
                int sum = 0;
                for (std::size_t i = 0; i < 16 && sum < best; ++i) {
                    int nearest = 1 << 20;
                    for (const auto l : level) nearest = std::min(nearest, (l - values[i]) * (l - values[i]));
                    if (exact && nearest > 0 && (values[i] == lowest || values[i] == highest)) nearest = 1 << 20;
                    sum += nearest * weights[i];
                }
                best = std::min(best, sum);
            }
    return best;
}

}  // namespace

int main(int argc, char** argv) {
    if (argc < 3) return std::fprintf(stderr, "usage: %s BLOCKS CHANNEL:FOLDER…\n", argv[0]), 2;
    const auto count = static_cast<std::size_t>(std::atoi(argv[1]));
    for (int a = 2; a < argc; ++a) {
        const std::string word = argv[a];
        const auto number = word.size() > 2 && word[1] == ':' ? static_cast<std::size_t>(word[0] - '0') : 9;
        if (number > 5) return std::fprintf(stderr, "%s: a channel from 0 to 5, a colon and a folder\n", argv[a]), 2;
        const bool is_signed = number == 4, alpha = number == 3;
        const auto channel = number < 4 ? number : 0;
        const int lowest = is_signed ? -127 : 0, highest = is_signed ? 127 : 255, zero = is_signed ? 128 : 0;
        const auto pictures = pictures_in(word.substr(2));
        const auto blocks = sampled_blocks(pictures, count);
        if (blocks.empty()) return std::fprintf(stderr, "%s: no PNG in it\n", argv[a]), 1;
        EncodeOptions options;
        if (number == 5) options.normals = NormalChannels{0, 1, -1};
        const auto weight = [&](const Texel& texel) { return number == 5 ? channel_weights(options, texel)[0] : 1; };
        std::vector<int> best(blocks.size());
        tbb::parallel_for(std::size_t{0}, blocks.size(), [&](std::size_t b) {
            Values values{}, weights{};
            for (std::size_t i = 0; i < 16; ++i) {
                values[i] = std::max(lowest, blocks[b][i][channel] - zero);
                weights[i] = weight(blocks[b][i]);
            }
            best[b] = best_error(values, weights, lowest, highest, alpha);
        });
        double all = 0;
        std::size_t perfect = 0;
        for (const auto one : best) all += one, perfect += one == 0;
        std::printf("%s: %zu blocks, squared error at best %.0f, %.3f dB; %zu without any\n", argv[a], blocks.size(), all,
                    10 * std::log10(255.0 * 255.0 * 16 * static_cast<double>(blocks.size()) / std::max(all, 1e-9)), perfect);
        for (const auto& [effort, name] :
             {std::pair(Effort::fast, "fast"), std::pair(Effort::normal, "normal"), std::pair(Effort::best, "best")}) {
            options.effort = effort;
            Bytes bytes(blocks.size() * 8);
            encode_channel_parts(blocks.front().data(), blocks.size(), bytes.data(), 8, channel, is_signed, options);
            double ours = 0;
            std::size_t exact = 0, met = 0;
            for (std::size_t b = 0; b < blocks.size(); ++b) {
                BlockTexels got;
                decode_channel_part(bytes.data() + b * 8, got.data(), 4, channel, is_signed);
                int error = 0;
                for (std::size_t i = 0; i < 16; ++i) {
                    const int value = std::max(lowest + zero, int{blocks[b][i][channel]});
                    error += weight(blocks[b][i]) * (got[i][channel] - value) * (got[i][channel] - value);
                    if (alpha && got[i][3] != value && (value == 0 || value == 255)) std::printf("block %zu: alpha %d is lost\n", b, value);
                }
                if (error < best[b]) std::printf("block %zu: %s found %d, the search %d\n", b, name, error, best[b]);
                ours += error;
                exact += error == best[b];
                met += error == 0 && best[b] == 0;
            }
            std::printf("  %-7s %.3f dB below; %.1f %% exact, %.1f %% of those without error\n", name, decibels(ours, all),
                        100.0 * static_cast<double>(exact) / static_cast<double>(blocks.size()),
                        100.0 * static_cast<double>(met) / static_cast<double>(std::max<std::size_t>(perfect, 1)));
        }
        const auto texels = rows_of_blocks(pictures);
        Bytes out(texels.size());
        print_rates([&](Effort effort) {
            options.effort = effort;
            return rate_of(
                texels, [&](const Texel* row, std::size_t n) { encode_channel_parts(row, n, out.data(), 8, channel, is_signed, options); });
        });
    }
}
