// The table of the encoders: quality and speed beside the reference, over a folder of pictures, in one run.
// usage: skivet_quality FOLDER [FORMAT…]
#include <astcenc.h>
#include <squish.h>

#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <functional>
#include <iterator>
#include <thread>

#include "codec/codec.h"
#include "codec/paint_form.h"
#include "pixel/metrics.h"
#include "texture/png.h"

using namespace skivet;

namespace {

struct Picture {
    std::string name;
    Image image;
};

std::vector<Picture> load(const std::filesystem::path& folder) {
    std::vector<Picture> out;
    for (const auto& entry : std::filesystem::directory_iterator(folder)) {
        if (entry.path().extension() != ".png") continue;
        std::ifstream file(entry.path(), std::ios::binary);
        const std::string text((std::istreambuf_iterator<char>(file)), {});
        auto image = read_png(as_bytes(text), ReadLimits{});
        if (!image) continue;
        for (auto& t : image->texels) t[3] = 255;
        out.push_back({entry.path().stem().string(), std::move(*image)});
    }
    return out;
}

/// PSNR over the channels a format stores; capped at 99 dB.
double quality(Format format, const Image& wanted, const Bytes& bytes) {
    const auto got = *decode(format, bytes, wanted.width, wanted.height);
    const auto channels = std::min<std::size_t>(3, info(format).channels);
    double sum = 0;
    for (std::size_t i = 0; i < got.texels.size(); ++i)
        for (std::size_t c = 0; c < channels; ++c) {
            const double d = got.texels[i][c] - wanted.texels[i][c];
            sum += d * d;
        }
    return sum == 0 ? 99 : std::min(99.0, 10 * std::log10(255.0 * 255.0 * static_cast<double>(got.texels.size() * channels) / sum));
}

struct Row {
    double psnr = 0, rate = 0;
};

/// Mean PSNR over the pictures and megapixels a second; repeated until half a second has passed.
Row measure(Format format, const std::vector<Picture>& pictures, const std::function<Bytes(const Image&)>& run) {
    Row row;
    double texels = 0, seconds = 0;
    std::vector<Bytes> results(pictures.size());
    std::vector<Image> stored;
    for (const auto& picture : pictures) stored.push_back(stored_form(format, picture.image));
    do {
        for (std::size_t i = 0; i < pictures.size(); ++i) {
            const auto start = std::chrono::steady_clock::now();
            results[i] = run(stored[i]);
            seconds += std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
            texels += static_cast<double>(pictures[i].image.texels.size());
        }
    } while (seconds < 0.5);
    for (std::size_t i = 0; i < pictures.size(); ++i) {
        const double psnr = quality(format, stored[i], results[i]);
        if (std::getenv("SKIVET_EACH")) std::printf("  %.2f %s\n", psnr, pictures[i].name.c_str());
        row.psnr += psnr;
    }
    row.psnr /= static_cast<double>(pictures.size());
    row.rate = texels / 1e6 / seconds;
    return row;
}

void print(const std::string& what, const Row& row) {
    std::printf("| %s | %.2f dB | %.2f MP/s |\n", what.c_str(), row.psnr, row.rate), std::fflush(stdout);
}

Bytes by_squish(const Image& image, int flags) {
    Bytes out(static_cast<std::size_t>(squish::GetStorageRequirements(int(image.width), int(image.height), flags)));
    squish::CompressImage(reinterpret_cast<const squish::u8*>(image.texels.data()), int(image.width), int(image.height), out.data(), flags);
    return out;
}

Bytes by_astcenc(const Image& image, float effort, unsigned threads) {
    astcenc_config config;
    astcenc_config_init(ASTCENC_PRF_LDR, 4, 4, 1, effort, 0, &config);
    static std::vector<std::pair<float, astcenc_context*>> contexts;  // made once: their tables are not part of the work
    astcenc_context* context = nullptr;
    for (auto& [e, c] : contexts)
        if (e == effort) context = c;
    if (!context) astcenc_context_alloc(&config, threads, &context), contexts.emplace_back(effort, context);
    Bytes out(static_cast<std::size_t>(level_bytes(Format::ASTC_4x4, image.width, image.height)));
    void* slice = const_cast<Texel*>(image.texels.data());
    astcenc_image source{image.width, image.height, 1, ASTCENC_TYPE_U8, &slice};
    const astcenc_swizzle straight{ASTCENC_SWZ_R, ASTCENC_SWZ_G, ASTCENC_SWZ_B, ASTCENC_SWZ_A};
    std::vector<std::thread> workers;
    for (unsigned t = 0; t < threads; ++t)
        workers.emplace_back(
            [&, t] { astcenc_compress_image(context, &source, &straight, reinterpret_cast<std::uint8_t*>(out.data()), out.size(), t); });
    for (auto& w : workers) w.join();
    astcenc_compress_reset(context);
    return out;
}

}  // namespace

int main(int argc, char** argv) {
    if (argc < 2) return std::fprintf(stderr, "usage: skivet_quality FOLDER [FORMAT…]\n"), 2;
    const auto pictures = load(argv[1]);
    if (pictures.empty()) return std::fprintf(stderr, "no PNG files in %s\n", argv[1]), 3;
    std::vector<Format> formats;
    for (int i = 2; i < argc; ++i)
        if (const auto f = format_named(argv[i])) formats.push_back(*f);
    if (formats.empty())
        formats = {Format::BC1,  Format::BC3,      Format::BC4,       Format::BC5,   Format::BC7,
                   Format::ETC1, Format::ETC2_RGB, Format::ETC2_RGBA, Format::EAC_R, Format::EAC_RG};
    std::printf("%zu pictures, Skivet on %u threads\n\n| | mean PSNR | speed |\n|---|---|---|\n", pictures.size(),
                std::thread::hardware_concurrency());
    for (const auto format : formats) {
        const std::string name(info(format).name);
        for (const auto effort : {Effort::fast, Effort::normal, Effort::best})
            print(name + " " + std::string(name_of(effort)),
                  measure(format, pictures, [&](const Image& image) { return *encode(format, image, {effort}); }));
        const auto squish_flag = format == Format::BC1   ? squish::kDxt1
                                 : format == Format::BC3 ? squish::kDxt5
                                 : format == Format::BC4 ? squish::kBc4
                                 : format == Format::BC5 ? squish::kBc5
                                                         : 0;
        if (squish_flag) {
            print("  libsquish range fit, 1 thread",
                  measure(format, pictures, [&](const Image& image) { return by_squish(image, squish_flag | squish::kColourRangeFit); }));
            if (format == Format::BC1 || format == Format::BC3) {
                print("  libsquish cluster fit, 1 thread", measure(format, pictures, [&](const Image& image) {
                          return by_squish(image, squish_flag | squish::kColourClusterFit);
                      }));
                print("  libsquish iterative cluster fit, 1 thread", measure(format, pictures, [&](const Image& image) {
                          return by_squish(image, squish_flag | squish::kColourIterativeClusterFit);
                      }));
            }
        }
        if (format == Format::BC7) {
            const unsigned threads = std::thread::hardware_concurrency();
            print("  astcenc 4×4 medium, all threads",
                  measure(Format::ASTC_4x4, pictures, [&](const Image& image) { return by_astcenc(image, ASTCENC_PRE_MEDIUM, threads); }));
            print("  astcenc 4×4 thorough, all threads", measure(Format::ASTC_4x4, pictures, [&](const Image& image) {
                      return by_astcenc(image, ASTCENC_PRE_THOROUGH, threads);
                  }));
        }
    }
}
