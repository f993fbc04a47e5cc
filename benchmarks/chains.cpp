// How often the way in which mips were made is named rightly.
//
// usage: skivet_chains FOLDER…
//
// Of every PNG a chain is made by each filter, in stored values and in light, and compressed as BC1 and as BC7; guess_mips says how.
// SKIVET_EACH=1 prints what was taken for what. Normal maps (folders named normals…) are filtered as they are stored.
#include <cstdlib>
#include <map>
#include <string>

#include "bench/fitting.h"
#include "bench/mip_guess.h"
#include "samples.h"
#include "texture/dds.h"

using namespace skivet;

namespace {

struct Count {
    int chains = 0, filter = 0, in_two = 0, lit = 0, light = 0, unknown = 0;
    double seconds = 0;
};

}  // namespace

int main(int argc, char** argv) {
    if (argc < 2) return std::fprintf(stderr, "usage: %s FOLDER…\n", argv[0]), 2;
    for (int a = 1; a < argc; ++a) {
        const auto pictures = pictures_in(argv[a]);
        const bool normals = std::filesystem::path(argv[a]).filename().string().starts_with("normals");
        std::map<std::string, int> mistaken;
        for (const auto format : {Format::BC1, Format::BC7}) {
            Count one;
            for (std::size_t p = 0; p < pictures.size(); ++p)
                for (const auto filter : all_mip_filters)
                    for (const bool light : {false, true}) {
                        if (light && normals) continue;
                        const auto& picture = pictures[p];
                        const TextureDesc d{format,
                                            picture.width,
                                            picture.height,
                                            1,
                                            full_mip_count(picture.width, picture.height, 1),
                                            1,
                                            1,
                                            normals                 ? ColorSpace::linear
                                            : format == Format::BC7 ? ColorSpace::srgb
                                                                    : ColorSpace::unknown};
                        const MipRecipe recipe{filter, light};
                        const auto levels = encode_levels(picture, d, recipe);
                        const auto texture = TextureFile::open(TextureKinds::standard(), *write_dds(d, *levels), "x", ReadLimits{});
                        if (!texture) return std::fprintf(stderr, "%s\n", texture.error().message().c_str()), 1;
                        const auto start = std::clock();
                        const auto guess = guess_mips(*texture);
                        one.seconds += static_cast<double>(std::clock() - start) / CLOCKS_PER_SEC;
                        if (!guess) return std::fprintf(stderr, "%s\n", guess.error().message().c_str()), 1;
                        ++one.chains;
                        one.unknown += !guess->known;
                        const bool right = guess->recipe.filter == filter;
                        one.filter += right;
                        one.in_two += right || (guess->second && guess->second->filter == filter);
                        // A texel picked is the same in both.
                        if (filter != MipFilter::point) ++one.lit, one.light += guess->recipe.linear_light == light;
                        if (!right) ++mistaken[std::string(name_of(filter)) + " taken for " + std::string(name_of(guess->recipe.filter))];
                        if (std::getenv("SKIVET_EACH") && (std::getenv("SKIVET_ALL") || !right || guess->recipe.linear_light != light))
                            std::printf("  %s picture %zu: %s taken for %s, %.2f sure, RMS %.2f\n", info(format).name.data(), p,
                                        describe(recipe).c_str(), describe(guess->recipe).c_str(), guess->confidence, guess->rms);
                    }
            std::printf(
                "%s, %s: %d chains, filter right %d (%.1f %%), one of the two said %.1f %%, light right %.1f %%, unknown %d, %.0f ms a "
                "chain\n",
                argv[a], std::string(info(format).name).c_str(), one.chains, one.filter, 100.0 * one.filter / one.chains,
                100.0 * one.in_two / one.chains, 100.0 * one.light / one.lit, one.unknown, 1000 * one.seconds / one.chains);
        }
        if (std::getenv("SKIVET_EACH"))
            for (const auto& [what, times] : mistaken) std::printf("  %4d %s\n", times, what.c_str());
    }
}
