// The daily case: a texture is decoded, touched and encoded again. What comes back of blocks that already hold what the format can.
//
// usage: skivet_again FORMAT FOLDER…
//
// FORMAT BC1, BC3, BC4, BC5, BC7 one of ETC2, or BC6H. Pictures are encoded at best, decoded, and encoded again at each effort: squared
// error as PSNR, blocks that are not exactly as before, and the speed of one thread on each instruction set. And what the effort makes of
// the pictures themselves.
#include <cstdlib>
#include <string>

#include "pixel/role_metrics.h"
#include "samples.h"

using namespace skivet;

namespace {

struct Difference {
    double squared = 0;
    std::size_t blocks = 0;
};
Difference difference(const Image& a, const Image& b, std::size_t channels) {
    Difference out;
    for (std::size_t block = 0; block < a.texels.size() / 16; ++block) {
        double sum = 0;
        for (std::size_t i = block * 16; i < block * 16 + 16; ++i)
            for (std::size_t c = 0; c < channels; ++c) sum += (a.texels[i][c] - b.texels[i][c]) * (a.texels[i][c] - b.texels[i][c]);
        out.squared += sum;
        out.blocks += sum > 0;
    }
    return out;
}

/// Formats of light: texels squared and sixteen times as bright, so that a photograph has some ten stops.
void light(Format format, const std::vector<Texel>& texels) {
    ImageF image(4, static_cast<std::uint32_t>(texels.size() / 4));
    for (std::size_t i = 0; i < texels.size(); ++i) {
        TexelF t;
        to_float(&texels[i], 1, true, &t);
        for (std::size_t c = 0; c < 3; ++c) image.texels[i][c] = 16 * t[c] * t[c];
    }
    const auto coded = [&](const ImageF& from, Effort effort) { return *encode(format, from, {effort}); };
    const auto held = *decode_wide(format, coded(image, Effort::best), image.width, image.height);
    for (const auto effort : {Effort::fast, Effort::normal, Effort::best}) {
        const auto bytes = coded(image, effort);
        const auto off = stops_between(image, *decode_wide(format, bytes, image.width, image.height));
        const auto again = *decode_wide(format, coded(held, effort), image.width, image.height);
        std::size_t others = 0;
        for (std::size_t block = 0; block < again.texels.size() / 16; ++block) {
            const auto at = static_cast<std::ptrdiff_t>(block * 16);
            others += !std::equal(again.texels.begin() + at, again.texels.begin() + at + 16, held.texels.begin() + at);
        }
        std::printf("  %-7s %.5f stops off on average, 99 %% within %.3f; again %.3f %% of the blocks are others\n",
                    std::string(name_of(effort)).c_str(), off.mean, off.most,
                    100.0 * static_cast<double>(others) / (static_cast<double>(texels.size()) / 16));
    }
    print_rates([&](Effort effort) {
        return rate_of(texels, [&](const Texel* row, std::size_t n) {
            ImageF part(4, static_cast<std::uint32_t>(4 * n));
            const auto at = image.texels.begin() + (row - texels.data());
            part.texels.assign(at, at + static_cast<std::ptrdiff_t>(16 * n));
            (void)encode(format, part, {effort});
        });
    });
}

}  // namespace

int main(int argc, char** argv) {
    if (argc < 3) return std::fprintf(stderr, "usage: %s FORMAT FOLDER…\n", argv[0]), 2;
    const auto format = format_named(argv[1]).value_or(Format::unknown);
    if (format == Format::unknown) return std::fprintf(stderr, "%s: no format\n", argv[1]), 2;
    const auto channels = info(format).channels;
    for (int a = 2; a < argc; ++a) {
        const auto texels = rows_of_blocks(pictures_in(argv[a]));
        if (texels.empty()) return std::fprintf(stderr, "%s: no PNG in it\n", argv[a]), 1;
        if (info(format).is_float()) {
            std::printf("%s\n", argv[a]);
            light(format, texels);
            continue;
        }
        Image image(4, static_cast<std::uint32_t>(texels.size() / 4));  // a block is sixteen texels in a row here and there
        image.texels = texels;
        const auto coded = [&](const Image& from, Effort effort) {
            EncodeOptions options;
            options.effort = effort;
            return *decode(format, *encode(format, from, options), from.width, from.height);
        };
        const auto held = coded(image, Effort::best);
        const auto db = [&](double squared) {
            return squared == 0 ? 99.0 : 10 * std::log10(255.0 * 255.0 * static_cast<double>(texels.size() * channels) / squared);
        };
        std::printf("%s\n", argv[a]);
        for (const auto& [effort, name] :
             {std::pair(Effort::fast, "fast"), std::pair(Effort::normal, "normal"), std::pair(Effort::best, "best")}) {
            const auto again = difference(held, coded(held, effort), channels);
            const auto first = difference(image, coded(image, effort), channels);
            std::printf("  %-7s again %.2f dB, %.3f %% of the blocks are others; the pictures %.3f dB\n", name, db(again.squared),
                        100.0 * static_cast<double>(again.blocks) / (static_cast<double>(texels.size()) / 16), db(first.squared));
        }
        for (const Image* from : {static_cast<const Image*>(&image), &held}) {
            std::printf("  %s\n", from == &image ? "pictures" : "again");
            print_rates([&](Effort effort) {
                EncodeOptions options;
                options.effort = effort;
                return rate_of(from->texels, [&](const Texel* row, std::size_t n) {
                    Image part(4, static_cast<std::uint32_t>(4 * n));
                    part.texels.assign(row, row + 16 * n);
                    (void)encode(format, part, options);
                });
            });
        }
    }
}
