#include <cmath>
#include <fmt/format.h>

#include "bench/fitting.h"

namespace skivet {

Result<MipGuess> guess_mips(const TextureFile& original) {
    MipGuess best;
    const auto& d = original.layout.desc;
    if (d.mips < 2 || d.depth > 1) return best;
    SKIVET_TRY(const auto top, original.decode(0));
    const auto levels = std::min(d.mips, 4u);
    std::vector<Image> have;
    for (std::uint32_t mip = 1; mip < levels; ++mip) {
        SKIVET_TRY(auto image, original.decode(mip));
        have.push_back(std::move(image));
    }
    best.rms = 1e9;
    for (const bool linear : {false, true}) {
        if (linear && d.color == ColorSpace::linear) continue;  // data, not color: there is no other light
        for (const auto filter : {MipFilter::box, MipFilter::kaiser}) {
            auto level = to_float(top, linear);
            double sum = 0, count = 0;
            for (const auto& image : have) {
                level = next_mip(level, filter);
                const auto made = to_bytes(level, linear);
                for (std::size_t i = 0; i < made.texels.size(); ++i)
                    for (std::size_t c = 0; c < 3; ++c) {
                        const double difference = made.texels[i][c] - image.texels[i][c];
                        sum += difference * difference;
                    }
                count += static_cast<double>(made.texels.size()) * 3;
            }
            const double rms = std::sqrt(sum / count);
            if (rms < best.rms - 1e-9) best.rms = rms, best.recipe = {filter, linear};
        }
    }
    // Block compression alone leaves a few steps of difference; beyond that the levels were painted or made some other way.
    best.known = best.rms < 16;
    return best;
}

std::string describe(const MipGuess& guess) {
    if (!guess.known) return guess.rms > 0 ? "not made with a filter we know; box is used where you painted" : "one level only";
    return fmt::format("{} filter in {} light, {:.1f} steps off", name_of(guess.recipe.filter), guess.recipe.linear_light ? "linear" : "encoded", guess.rms);
}

}  // namespace skivet
