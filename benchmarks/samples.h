#pragma once
// Blocks out of folders of pictures, and the speed of an encoder on every instruction set of the machine.
#include <hwy/highway.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <ctime>
#include <filesystem>
#include <fstream>
#include <iterator>
#include <random>
#include <vector>

#include "base/bytes.h"
#include "codec/codec.h"
#include "texture/png.h"

namespace skivet {

/// The PNG files of a folder that have at least one block, by name.
inline std::vector<Image> pictures_in(const std::filesystem::path& folder) {
    std::vector<Image> pictures;
    std::vector<std::filesystem::path> files;
    for (const auto& entry : std::filesystem::directory_iterator(folder))
        if (entry.path().extension() == ".png") files.push_back(entry.path());
    std::sort(files.begin(), files.end());
    for (const auto& path : files) {
        std::ifstream file(path, std::ios::binary);
        const std::string text((std::istreambuf_iterator<char>(file)), {});
        if (auto image = read_png(as_bytes(text), ReadLimits{}); image && image->width >= 4 && image->height >= 4)
            pictures.push_back(std::move(*image));
    }
    return pictures;
}

using BlockTexels = std::array<Texel, 16>;

inline BlockTexels block_at(const Image& image, std::size_t x, std::size_t y) {
    BlockTexels block;
    for (std::size_t i = 0; i < 16; ++i) block[i] = image.texels[(y + i / 4) * image.width + x + i % 4];
    return block;
}

/// So many blocks at random places, the same each time, as many of each picture; 0: all there are.
inline std::vector<BlockTexels> sampled_blocks(const std::vector<Image>& pictures, std::size_t count) {
    std::vector<BlockTexels> out;
    for (std::size_t p = 0; p < pictures.size() && count == 0; ++p)
        for (std::uint32_t y = 0; y + 4 <= pictures[p].height; y += 4)
            for (std::uint32_t x = 0; x + 4 <= pictures[p].width; x += 4) out.push_back(block_at(pictures[p], x, y));
    std::mt19937 random(1);
    for (std::size_t n = 0; n < count && !pictures.empty(); ++n) {
        const auto& image = pictures[n % pictures.size()];
        const auto x = random() % (image.width / 4) * 4, y = random() % (image.height / 4) * 4;
        out.push_back(block_at(image, x, y));
    }
    return out;
}

/// At most 16,384 blocks one after the other, as many of each picture.
inline std::vector<Texel> rows_of_blocks(const std::vector<Image>& pictures) {
    std::vector<Texel> texels;
    for (const auto& image : pictures)
        for (std::uint32_t y = 0; y + 4 <= image.height && y / 4 * (image.width / 4) < 16384 / pictures.size(); y += 4)
            for (std::uint32_t x = 0; x + 4 <= image.width; x += 4)
                for (const auto& texel : block_at(image, x, y)) texels.push_back(texel);
    texels.resize(std::min<std::size_t>(texels.size(), 16 * 16384));
    return texels;
}

/// Million texels a second of one thread, the median of five, by the processor's time: the machine may be busy with others.
template <class Encode>
double rate_of(const std::vector<Texel>& texels, const Encode& encode) {
    std::array<double, 5> seconds{};
    for (auto& one : seconds) {
        const auto before = std::clock();
        for (std::size_t b = 0; b < texels.size() / 16; b += 1024)
            encode(texels.data() + b * 16, std::min<std::size_t>(1024, texels.size() / 16 - b));
        one = static_cast<double>(std::clock() - before) / CLOCKS_PER_SEC;
    }
    std::sort(seconds.begin(), seconds.end());
    return static_cast<double>(texels.size()) / 1e6 / seconds[2];
}

/// A line for every instruction set the machine has: rate(effort), fast to best.
template <class Rate>
void print_rates(const Rate& rate) {
    for (std::int64_t rest = hwy::SupportedTargets() & HWY_TARGETS & ~(HWY_EMU128 | HWY_SCALAR); rest != 0; rest &= rest - 1) {
        hwy::SetSupportedTargetsForTest(rest & -rest);
        hwy::GetChosenTarget().Update(hwy::SupportedTargets());
        std::printf("  %s:", hwy::TargetName(rest & -rest));
        for (const auto effort : {Effort::fast, Effort::normal, Effort::best}) std::printf(" %.2f", rate(effort));
        std::printf(" MP/s\n");
        hwy::SetSupportedTargetsForTest(0);
        hwy::GetChosenTarget().Update(hwy::SupportedTargets());
    }
}

inline double decibels(double ours, double best) { return 10 * std::log10(std::max(ours, 1e-9) / std::max(best, 1e-9)); }

}  // namespace skivet
