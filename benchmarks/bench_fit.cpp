// From a saved file to what the game will get: the first fit of a texture, and the next ones, which know its original.
#include <benchmark/benchmark.h>

#include "bench/fitting.h"
#include "benchmarks/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"

using namespace skivet;

namespace {

Image tiled(std::uint32_t side) {
    const auto tile = bench_picture(1);
    Image out(side, side);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x) out.at(x, y) = tile.at((x + y / 512 * 3) % 512, (y + x / 512 * 5) % 512);
    return out;
}

struct Case {
    TextureFile original;
    Bytes edit;  ///< PNG
};

/// `painted`: texels a side of a square that somebody painted.
Case make_case(Format format, std::uint32_t side, std::uint32_t painted) {
    TextureDesc d{format, side, side, 1, full_mip_count(side, side), 1, 1, ColorSpace::srgb};
    auto picture = tiled(side);
    for (auto& t : picture.texels) t[3] = 255;
    Case out;
    out.original = *TextureFile::open(
        TextureKinds::standard(), *write_dds(d, *encode_levels(picture, d, {.linear_light = true}, {Effort::fast})), "x.dds", ReadLimits{});
    auto edit = *out.original.decode(0);
    for (std::uint32_t y = 0; y < painted; ++y)
        for (std::uint32_t x = 0; x < painted; ++x) edit.at((side / 3 + x) % side, (side / 3 + y) % side) = {200, 40, 60, 255};
    out.edit = *write_png(edit);
    return out;
}

void read_only(benchmark::State& state, Format format, std::uint32_t side) {
    const auto made = make_case(format, side, 45);
    for (auto _ : state) benchmark::DoNotOptimize(read_edited(made.edit, ReadLimits{}));
}

void fit_it(benchmark::State& state, Format format, std::uint32_t side, std::uint32_t painted, bool again) {
    const auto made = make_case(format, side, painted);
    const auto known = *know_original(made.original);
    for (auto _ : state) {
        auto fitted = fit(made.original, *read_edited(made.edit, ReadLimits{}), {}, again ? &known : nullptr);
        benchmark::DoNotOptimize(fitted);
        if (!fitted || fitted->blocked()) state.SkipWithError("the edit does not fit");
    }
}

/// 4096×4096 texels in memory become all levels of a texture, on all cores: light, Kaiser, blocks.
void whole_path(benchmark::State& state, Format format, Effort effort) {
    constexpr std::uint32_t side = 4096;
    Image image(side, side);
    for (std::uint32_t ty = 0; ty < side; ty += 512)
        for (std::uint32_t tx = 0; tx < side; tx += 512) {
            const auto tile = bench_picture(tx + ty);
            for (std::uint32_t y = 0; y < 512; ++y) std::copy_n(&tile.at(0, y), 512, &image.at(tx, ty + y));
        }
    for (auto& t : image.texels) t[3] = 255;
    const TextureDesc d{format, side, side, 1, full_mip_count(side, side), 1, 1, ColorSpace::srgb};
    EncodeOptions options;
    options.effort = effort;
    for (auto _ : state) benchmark::DoNotOptimize(encode_levels(image, d, {MipFilter::kaiser, true}, options));
}

const int registered = [] {
    const struct {
        Format format;
        std::uint32_t side;
    } cases[] = {{Format::BC7, 4096}, {Format::BC1, 2048}};
    for (const auto& c : cases) {
        const auto name = "fit/" + std::string(info(c.format).name) + "/" + std::to_string(c.side);
        benchmark::RegisterBenchmark((name + "/read_the_png").c_str(), read_only, c.format, c.side)
            ->Unit(benchmark::kMillisecond)
            ->UseRealTime();
        for (const bool again : {false, true})
            benchmark::RegisterBenchmark((name + (again ? "/2025_texels_again" : "/2025_texels_first")).c_str(), fit_it, c.format, c.side,
                                         45u, again)
                ->Unit(benchmark::kMillisecond)
                ->UseRealTime();
        benchmark::RegisterBenchmark((name + "/repainted").c_str(), fit_it, c.format, c.side, c.side, true)
            ->Unit(benchmark::kMillisecond)
            ->UseRealTime();
    }
    for (const auto& [format, effort] : {std::pair{Format::BC1, Effort::fast},
                                         {Format::BC7, Effort::fast},
                                         {Format::BC7, Effort::normal},
                                         {Format::ETC2_RGB, Effort::normal}})
        benchmark::RegisterBenchmark(("whole/" + std::string(info(format).name) + "/" + std::string(name_of(effort))).c_str(), whole_path,
                                     format, effort)
            ->UseRealTime()
            ->MeasureProcessCPUTime()
            ->Unit(benchmark::kMillisecond);
    return 0;
}();

}  // namespace
