#include "bench/block_map.h"

#include <tbb/parallel_for.h>
#include <cmath>

namespace skivet {

std::optional<std::size_t> BlockMap::worst() const {
    const auto most = std::max_element(loss.begin(), loss.end());
    if (most == loss.end() || *most == 0) return std::nullopt;
    return static_cast<std::size_t>(most - loss.begin());
}

BlockMap map_blocks(const TextureFile& original, const Bytes& file, const TextureLayout& layout, const Image& before, const Image& edited,
                    const Image& result, bool alpha_is_transparency) {
    const auto& d = layout.desc;
    const auto& f = info(d.format);
    const auto& old = original.layout.desc;
    const bool all_new = d.format != old.format || d.width != old.width || d.height != old.height;
    BlockMap out;
    if (f.block_compressed()) out.width = f.block_width, out.height = f.block_height;
    out.across = (result.width + out.width - 1) / out.width;
    out.down = (result.height + out.height - 1) / out.height;
    out.is_new.resize(std::size_t{out.across} * out.down);
    out.loss.resize(out.is_new.size());
    const auto* surface = original.layout.find(0);
    const bool by_bytes = !all_new && f.block_compressed() && original.layout.direct && surface && result.width == d.width &&
                          result.height == d.height && surface->size == out.is_new.size() * f.block_bytes &&
                          surface->offset + surface->size <= file.size() && surface->offset + surface->size <= original.file.size();
    tbb::parallel_for(std::uint32_t{0}, out.down, [&](std::uint32_t row) {
        for (std::uint32_t column = 0; column < out.across; ++column) {
            const auto cell = std::size_t{row} * out.across + column;
            const auto to_x = std::min((column + 1) * out.width, result.width), to_y = std::min((row + 1) * out.height, result.height);
            bool is_new = all_new;
            if (by_bytes) {
                const auto at = static_cast<std::ptrdiff_t>(surface->offset + cell * f.block_bytes);
                is_new = !std::equal(original.file.begin() + at, original.file.begin() + at + f.block_bytes, file.begin() + at);
            } else if (!all_new) {
                for (auto y = row * out.height; y < to_y && !is_new; ++y)
                    for (auto x = column * out.width; x < to_x && !is_new; ++x) is_new = before.at(x, y) != result.at(x, y);
            }
            if (!is_new) continue;
            out.is_new[cell] = 1;
            double sum = 0;
            for (auto y = row * out.height; y < to_y; ++y)
                for (auto x = column * out.width; x < to_x; ++x) {
                    const auto &is = edited.at(x, y), &gets = result.at(x, y);
                    const double seen = alpha_is_transparency ? is[3] / 255.0 : 1;
                    for (std::size_t c = 0; c < 4; ++c) {
                        const double error = (is[c] - gets[c]) * (c < 3 ? seen : 1);
                        sum += error * error;
                    }
                }
            const double count = 4.0 * (to_x - column * out.width) * (to_y - row * out.height);
            out.loss[cell] = static_cast<std::uint8_t>(std::min(255.0, std::ceil(std::sqrt(sum / count))));
        }
    });
    return out;
}

}  // namespace skivet
