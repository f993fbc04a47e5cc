// Decoding and encoding, megapixels a second, beside libsquish in the same run.
#include <benchmark/benchmark.h>
#include <squish.h>

#include "benchmarks/pictures.h"
#include "codec/codec.h"
#include "codec/paint_form.h"
#include "pixel/metrics.h"
#include "pixel/mips.h"

using namespace skivet;

namespace {

int squish_flag(Format format) {
    switch (format) {
        case Format::BC1: return squish::kDxt1;
        case Format::BC2: return squish::kDxt3;
        case Format::BC3: return squish::kDxt5;
        case Format::BC4: return squish::kBc4;
        default: return squish::kBc5;
    }
}

void count(benchmark::State& state, const Image& image) {
    state.counters["MP/s"] =
        benchmark::Counter(static_cast<double>(image.texels.size()) / 1e6, benchmark::Counter::kIsIterationInvariantRate);
}

void decode_ours(benchmark::State& state, Format format) {
    const auto image = bench_picture(1);
    const auto bytes = *encode(format, image);
    for (auto _ : state) benchmark::DoNotOptimize(decode(format, bytes, image.width, image.height));
    count(state, image);
}

void decode_squish(benchmark::State& state, Format format) {
    auto image = bench_picture(1);
    const auto bytes = *encode(format, image);
    for (auto _ : state)
        squish::DecompressImage(reinterpret_cast<squish::u8*>(image.texels.data()), 512, 512, bytes.data(), squish_flag(format));
    count(state, image);
}

/// What the format can hold; BC1 without transparency.
Image picture_for(Format format) {
    auto image = stored_form(format, bench_picture(1));
    if (format == Format::BC1)
        for (auto& t : image.texels) t[3] = 255;
    return image;
}

void encode_ours(benchmark::State& state, Format format) {
    const auto image = picture_for(format);
    Bytes bytes;
    for (auto _ : state) bytes = *encode(format, image);
    count(state, image);
    state.counters["PSNR"] = difference(image, *decode(format, bytes, 512, 512)).psnr_rgb;
}

void encode_squish(benchmark::State& state, Format format, int effort) {
    const auto image = picture_for(format);
    Bytes bytes(static_cast<std::size_t>(squish::GetStorageRequirements(512, 512, squish_flag(format))));
    for (auto _ : state)
        squish::CompressImage(reinterpret_cast<const squish::u8*>(image.texels.data()), 512, 512, bytes.data(),
                              squish_flag(format) | effort);
    count(state, image);
    state.counters["PSNR"] = difference(image, *decode(format, bytes, 512, 512)).psnr_rgb;
}

void mips(benchmark::State& state, MipFilter filter) {
    const auto image = to_float(bench_picture(1), true);
    for (auto _ : state) benchmark::DoNotOptimize(next_mip(image, filter));
    count(state, bench_picture(1));
}

const bool registered = [] {
    for (auto format : {Format::BC1, Format::BC2, Format::BC3, Format::BC4, Format::BC5, Format::BGRA8, Format::B5G6R5}) {
        const std::string name(info(format).name);
        benchmark::RegisterBenchmark(("decode/" + name + "/skivet").c_str(), decode_ours, format);
        if (info(format).block_compressed()) benchmark::RegisterBenchmark(("decode/" + name + "/libsquish").c_str(), decode_squish, format);
    }
    for (auto format : {Format::BC1, Format::BC3, Format::BC4, Format::BC5}) {
        const std::string name(info(format).name);
        benchmark::RegisterBenchmark(("encode/" + name + "/skivet").c_str(), encode_ours, format)
            ->Unit(benchmark::kMillisecond)
            ->UseRealTime();
        benchmark::RegisterBenchmark(("encode/" + name + "/libsquish_cluster_fit").c_str(), encode_squish, format,
                                     squish::kColourClusterFit)
            ->Unit(benchmark::kMillisecond);
        benchmark::RegisterBenchmark(("encode/" + name + "/libsquish_range_fit").c_str(), encode_squish, format, squish::kColourRangeFit)
            ->Unit(benchmark::kMillisecond);
    }
    benchmark::RegisterBenchmark("mips/box_linear", mips, MipFilter::box)->Unit(benchmark::kMillisecond);
    benchmark::RegisterBenchmark("mips/kaiser_linear", mips, MipFilter::kaiser)->Unit(benchmark::kMillisecond);
    return true;
}();

}  // namespace
