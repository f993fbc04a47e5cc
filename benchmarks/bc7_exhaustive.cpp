// How far the BC7 encoder is from the best that a heavy search finds (bc7_search.h), on blocks taken at random from folders of pictures,
// each folder a kind by itself; where that is lost, and the speed of one thread on each instruction set of the machine.
//
// usage: skivet_bc7_exhaustive [--alpha] [--kept FILE] BLOCKS FOLDER…
//
// BLOCKS 0: all of them. --alpha: blocks that are neither opaque nor empty, with their alpha; otherwise alpha is not looked at and all are
// opaque. --kept: what was found is kept there, by block, and not searched again.
#include <tbb/parallel_for.h>

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <limits>
#include <map>
#include <vector>

#include "base/bytes.h"
#include "base/hash.h"
#include "bc7_search.h"
#include "codec/bc7_encode.h"
#include "codec/bc7_tables.h"
#include "codec/codec.h"
#include "samples.h"

using namespace skivet;
using namespace skivet::bc7_search;

namespace {

std::vector<Colors> colors_of(const std::vector<BlockTexels>& blocks) {
    std::vector<Colors> out(blocks.size());
    for (std::size_t b = 0; b < blocks.size(); ++b)
        for (std::size_t i = 0; i < 16; ++i) std::copy_n(blocks[b][i].begin(), 4, out[b][i].begin());
    return out;
}

/// What --alpha looks at.
bool has_alpha(std::span<const Texel> block) {
    const auto all = [&](int alpha) { return std::all_of(block.begin(), block.end(), [&](const Texel& t) { return t[3] == alpha; }); };
    return !all(0) && !all(255);
}

/// The first `count` blocks of many that have alpha; 0: all.
std::vector<BlockTexels> with_alpha(const std::vector<Image>& pictures, std::size_t count) {
    auto blocks = sampled_blocks(pictures, count * 50);
    std::erase_if(blocks, [](const BlockTexels& block) { return !has_alpha(block); });
    if (count > 0 && blocks.size() > count) blocks.resize(count);
    return blocks;
}

/// By block, what was found in each mode.
class Kept {
public:
    explicit Kept(std::filesystem::path file) : file_(std::move(file)) {
        std::ifstream in(file_);
        for (std::string key; in >> key;)
            for (auto& error : of_[key]) in >> error;
    }
    [[nodiscard]] const Searcher::Errors* find(const Colors& block) const {
        const auto at = of_.find(key(block));
        return at == of_.end() ? nullptr : &at->second;
    }
    void add(const Colors& block, const Searcher::Errors& errors) { of_[key(block)] = errors; }
    void save() const {
        if (file_.empty()) return;
        std::ofstream out(file_);
        for (const auto& [key, errors] : of_) {
            out << key;
            for (const auto error : errors) out << ' ' << error;
            out << '\n';
        }
    }

private:
    static std::string key(const Colors& block) {
        Bytes bytes;
        for (const auto& color : block)
            for (std::size_t c = 0; c < (is_opaque(block) ? 3 : 4); ++c) bytes.push_back(std::byte(color[c]));
        return to_hex(sha256(bytes)).substr(0, 12);
    }
    std::filesystem::path file_;
    std::map<std::string, Searcher::Errors> of_;
};

struct Told {
    unsigned mode = 0, partition = 0;
};
/// What an encoded block says of itself.
Told tell(const std::byte* bytes) {
    std::uint64_t low = 0;
    for (unsigned i = 0; i < 8; ++i) low |= std::uint64_t(bytes[i]) << (8 * i);
    Told out;
    out.mode = static_cast<unsigned>(std::countr_zero(low));
    out.partition = static_cast<unsigned>(low >> (out.mode + 1)) & ((1u << bptc::modes[out.mode].partition_bits) - 1);
    return out;
}

}  // namespace

int main(int argc, char** argv) {
    int first = 1;
    std::filesystem::path file;
    const bool alpha = argc > first && std::string_view(argv[first]) == "--alpha";
    if (alpha) ++first;
    if (argc > first + 1 && std::string_view(argv[first]) == "--kept") file = argv[first + 1], first += 2;
    if (argc < first + 2) return std::fprintf(stderr, "usage: %s [--alpha] [--kept FILE] BLOCKS FOLDER…\n", argv[0]), 2;
    Kept kept(file);
    const auto count = static_cast<std::size_t>(std::atoi(argv[first]));
    for (int a = first + 1; a < argc; ++a) {
        auto pictures = pictures_in(argv[a]);
        for (auto& picture : pictures)
            for (auto& texel : picture.texels)
                if (!alpha) texel[3] = 255;
        const auto blocks = colors_of(alpha ? with_alpha(pictures, count) : sampled_blocks(pictures, count));
        const double channels = alpha ? 4 : 3;
        if (blocks.empty()) return std::fprintf(stderr, "%s: no such block in it\n", argv[a]), 1;
        std::vector<std::unique_ptr<Searcher>> found(blocks.size());
        tbb::parallel_for(std::size_t{0}, blocks.size(), [&](std::size_t b) {
            const auto* known = kept.find(blocks[b]);
            found[b] = known ? std::make_unique<Searcher>(blocks[b], *known) : std::make_unique<Searcher>(blocks[b]);
        });
        for (std::size_t b = 0; b < blocks.size(); ++b) kept.add(blocks[b], found[b]->all_modes());
        kept.save();
        double best = 0;
        std::array<std::size_t, 8> modes{};
        for (const auto& one : found) best += one->best(), ++modes[one->best_mode()];
        std::printf("%s: %zu blocks, squared error at best %.0f, %.3f dB, modes", std::filesystem::path(argv[a]).filename().c_str(),
                    blocks.size(), best,
                    10 * std::log10(255.0 * 255.0 * 16 * channels * static_cast<double>(blocks.size()) / std::max(best, 1e-9)));
        for (const auto n : modes) std::printf(" %zu", n);
        std::printf("\n");
        Image image(4, static_cast<std::uint32_t>(4 * blocks.size()));
        for (std::size_t b = 0; b < blocks.size(); ++b)
            for (std::size_t i = 0; i < 16; ++i)
                for (std::size_t c = 0; c < 4; ++c) image.texels[b * 16 + i][c] = static_cast<std::uint8_t>(blocks[b][i][c]);
        for (const auto& [effort, name] :
             {std::pair(Effort::fast, "fast"), std::pair(Effort::normal, "normal"), std::pair(Effort::best, "best")}) {
            EncodeOptions options;
            options.effort = effort;
            const auto bytes = *encode(Format::BC7, image, options);
            const auto got = *decode(Format::BC7, bytes, image.width, image.height);
            double ours = 0, in_mode = 0, in_partition = 0;
            std::size_t exact = 0, right_mode = 0;
            std::array<std::size_t, 8> chosen{};
            for (std::size_t b = 0; b < blocks.size(); ++b) {
                int error = 0;
                for (std::size_t i = 0; i < 16; ++i) {
                    for (std::size_t c = 0; c < 4; ++c) {
                        const int d = got.texels[b * 16 + i][c] - image.texels[b * 16 + i][c];
                        error += d * d;
                    }
                    const int meant = image.texels[b * 16 + i][3], is = got.texels[b * 16 + i][3];
                    if ((meant == 0 || meant == 255) && is != meant) std::printf("block %zu: alpha is not %d but %d\n", b, meant, is);
                }
                const auto told = tell(bytes.data() + b * 16);
                ++chosen[told.mode];
                ours += error;
                exact += error <= found[b]->best();
                right_mode += told.mode == found[b]->best_mode();
                if (error < found[b]->best()) std::printf("block %zu: %s found %d, the search %d\n", b, name, error, found[b]->best());
                // Losses one after the other: by the mode, by the partition in it, by the line.
                const bool parted = bptc::modes[told.mode].subsets > 1;
                const int with = std::min(error, parted ? found[b]->partition(told.mode, told.partition) : found[b]->of(told.mode));
                in_partition += with;
                in_mode += std::min(with, found[b]->of(told.mode));
            }
            std::printf("  %-7s %.2f dB below: mode %.2f, partition %.2f, lines %.2f; %.0f %% exact, right mode %.0f %%; modes", name,
                        decibels(ours, best), decibels(in_mode, best), decibels(in_partition, in_mode), decibels(ours, in_partition),
                        100.0 * static_cast<double>(exact) / static_cast<double>(blocks.size()),
                        100.0 * static_cast<double>(right_mode) / static_cast<double>(blocks.size()));
            for (const auto n : chosen) std::printf(" %zu", n);
            std::printf("\n");
        }
        auto texels = rows_of_blocks(pictures);
        if (alpha) {
            std::vector<Texel> some;
            for (std::size_t b = 0; b < texels.size(); b += 16)
                if (has_alpha(std::span(texels).subspan(b, 16))) some.insert(some.end(), texels.begin() + b, texels.begin() + b + 16);
            texels = std::move(some);
        }
        Bytes out(texels.size());
        print_rates([&](Effort effort) {
            EncodeOptions options;
            options.effort = effort;
            return rate_of(texels, [&](const Texel* row, std::size_t n) { encode_bc7(row, n, out.data(), options); });
        });
    }
}
