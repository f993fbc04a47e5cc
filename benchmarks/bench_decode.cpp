// Decoding on one thread into memory that is there already, beside libsquish, Mesa's software decoder and memcpy; mips; PNG beside
// ImageMagick.
#include <EGL/egl.h>
#define GL_GLEXT_PROTOTYPES
#include <benchmark/benchmark.h>
#include <GL/gl.h>
#include <GL/glext.h>
#include <squish.h>
#include <tbb/global_control.h>

#include <chrono>
#include <cstdlib>
#include <filesystem>

#include "base/file_write.h"
#include "benchmarks/pictures.h"
#include "codec/codec.h"
#include "codec/paint_form.h"
#include "pixel/mips.h"
#include "texture/png.h"

using namespace skivet;

namespace {

constexpr std::uint32_t side = 1024;

Image large_picture() {
    const auto tile = bench_picture(1);
    Image out(side, side);
    for (std::uint32_t y = 0; y < side; ++y)
        for (std::uint32_t x = 0; x < side; ++x) out.at(x, y) = tile.at((x + y / 512 * 3) % 512, y % 512);
    return out;
}

void count(benchmark::State& state, double texels = double{side} * side) {
    state.counters["MP/s"] = benchmark::Counter(texels / 1e6, benchmark::Counter::kIsIterationInvariantRate);
}

void decode_ours(benchmark::State& state, Format format, std::size_t threads) {
    const tbb::global_control limit(tbb::global_control::max_allowed_parallelism, threads);
    const auto bytes = *encode(format, stored_form(format, large_picture()), {Effort::fast});
    if (info(format).wide) {
        for (auto _ : state) benchmark::DoNotOptimize(decode_wide(format, bytes, side, side));
    } else {
        Image image(side, side);
        for (auto _ : state) benchmark::DoNotOptimize(decode_into(format, bytes, image));
    }
    count(state);
}

void decode_squish(benchmark::State& state, Format format) {
    Image image(side, side);
    const auto bytes = *encode(format, stored_form(format, large_picture()), {Effort::fast});
    const int flag = format == Format::BC1   ? squish::kDxt1
                     : format == Format::BC2 ? squish::kDxt3
                     : format == Format::BC3 ? squish::kDxt5
                     : format == Format::BC4 ? squish::kBc4
                                             : squish::kBc5;
    for (auto _ : state) squish::DecompressImage(reinterpret_cast<squish::u8*>(image.texels.data()), side, side, bytes.data(), flag);
    count(state);
}

void copy(benchmark::State& state) {
    const Image from = large_picture();
    Image to(side, side);
    for (auto _ : state) {
        std::memcpy(to.texels.data(), from.texels.data(), from.texels.size() * 4);
        benchmark::DoNotOptimize(to.texels.data());
        benchmark::ClobberMemory();
    }
    count(state);
}

bool open_gl() {
    static const bool open = [] {
        setenv("LIBGL_ALWAYS_SOFTWARE", "1", 1);
        setenv("GALLIUM_DRIVER", "softpipe", 1);
        setenv("EGL_PLATFORM", "surfaceless", 1);
        const auto display = eglGetDisplay(EGL_DEFAULT_DISPLAY);
        if (!eglInitialize(display, nullptr, nullptr) || !eglBindAPI(EGL_OPENGL_API)) return false;
        const auto context = eglCreateContext(display, static_cast<EGLConfig>(nullptr), EGL_NO_CONTEXT, nullptr);
        return context != EGL_NO_CONTEXT && eglMakeCurrent(display, EGL_NO_SURFACE, EGL_NO_SURFACE, context);
    }();
    return open;
}

/// Upload of compressed blocks and read-back as RGBA, less the time of upload and read-back of the same picture uncompressed.
void decode_mesa(benchmark::State& state, Format format) {
    if (!open_gl()) return state.SkipWithError("no software OpenGL");
    const bool floats = format == Format::BC6H;
    const auto bytes = *encode(format, stored_form(format, large_picture()), {Effort::fast});
    const auto internal = static_cast<GLenum>(format == Format::BC7        ? 0x8E8C
                                              : format == Format::BC6H     ? 0x8E8F
                                              : format == Format::ETC2_RGB ? 0x9274
                                                                           : 0x9278);
    std::vector<float> out(std::size_t{side} * side * 4);
    GLuint texture = 0;
    glGenTextures(1, &texture);
    glBindTexture(GL_TEXTURE_2D, texture);
    glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MAX_LEVEL, 0);
    using Clock = std::chrono::steady_clock;
    for (auto _ : state) {
        const auto start = Clock::now();
        glCompressedTexImage2D(GL_TEXTURE_2D, 0, internal, side, side, 0, static_cast<GLsizei>(bytes.size()), bytes.data());
        glGetTexImage(GL_TEXTURE_2D, 0, GL_RGBA, floats ? GL_FLOAT : GL_UNSIGNED_BYTE, out.data());
        const auto middle = Clock::now();
        glTexImage2D(GL_TEXTURE_2D, 0, floats ? GL_RGBA16F : GL_RGBA8, side, side, 0, GL_RGBA, floats ? GL_FLOAT : GL_UNSIGNED_BYTE,
                     out.data());
        glGetTexImage(GL_TEXTURE_2D, 0, GL_RGBA, floats ? GL_FLOAT : GL_UNSIGNED_BYTE, out.data());
        const auto end = Clock::now();
        state.SetIterationTime(std::max(1e-9, std::chrono::duration<double>((middle - start) - (end - middle)).count()));
    }
    glDeleteTextures(1, &texture);
    count(state);
}

/// The next level of an 8-bit sRGB picture as 8 bits again; one thread.
void mips(benchmark::State& state, MipFilter filter) {
    const tbb::global_control limit(tbb::global_control::max_allowed_parallelism, 1);
    const auto image = large_picture();
    for (auto _ : state)
        benchmark::DoNotOptimize(to_bytes(next_level(ByteRows(image, true), {filter, true}, {}, next_rect(side, side)), true));
    count(state);
}

void png_ours(benchmark::State& state) {
    const auto image = large_picture();
    Bytes file;
    for (auto _ : state) file = *write_png(image);
    count(state);
    state.counters["bytes"] = static_cast<double>(file.size());
}

/// The program's own time for writing, the start of the process and the reading of plain texels subtracted.
void png_magick(benchmark::State& state) {
    const auto folder = std::filesystem::temp_directory_path() / "skivet-bench-png";
    std::filesystem::create_directories(folder);
    const auto image = large_picture();
    const bool opaque = std::all_of(image.texels.begin(), image.texels.end(), [](const Texel& t) { return t[3] == 255; });
    (void)write_file(folder / "in.rgba", std::as_bytes(std::span(image.texels)));
    const auto run = [&](const std::string& target) {
        const auto start = std::chrono::steady_clock::now();
        const auto line =
            "convert -size 1024x1024 -depth 8 rgba:" + (folder / "in.rgba").string() + (opaque ? " -alpha off " : " ") + target;
        if (std::system(line.c_str()) != 0) return 0.0;
        return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
    };
    for (auto _ : state) state.SetIterationTime(std::max(1e-9, run((folder / "out.png").string()) - run("null:")));
    state.counters["bytes"] = static_cast<double>(std::filesystem::file_size(folder / "out.png"));
    count(state);
    std::filesystem::remove_all(folder);
}

const bool registered = [] {
    const auto name = [](Format f) { return std::string(info(f).name); };
    benchmark::RegisterBenchmark("one_thread/memcpy", copy);
    for (auto format : {Format::BC1, Format::BC2, Format::BC3, Format::BC4, Format::BC5}) {
        benchmark::RegisterBenchmark(("one_thread/" + name(format) + "/skivet").c_str(), decode_ours, format, 1);
        benchmark::RegisterBenchmark(("one_thread/" + name(format) + "/libsquish").c_str(), decode_squish, format);
    }
    for (auto format : {Format::BC7, Format::BC6H, Format::ETC2_RGB, Format::ETC2_RGBA}) {
        benchmark::RegisterBenchmark(("one_thread/" + name(format) + "/skivet").c_str(), decode_ours, format, 1)->UseRealTime();
        benchmark::RegisterBenchmark(("two_threads/" + name(format) + "/skivet").c_str(), decode_ours, format, 2)->UseRealTime();
        benchmark::RegisterBenchmark(("one_thread/" + name(format) + "/mesa").c_str(), decode_mesa, format)->UseManualTime();
    }
    for (auto filter : {MipFilter::box, MipFilter::kaiser})
        benchmark::RegisterBenchmark(("one_thread/mips/" + std::string(name_of(filter))).c_str(), mips, filter);
    benchmark::RegisterBenchmark("png/skivet", png_ours)->UseRealTime();
    benchmark::RegisterBenchmark("png/imagemagick", png_magick)->UseManualTime()->Iterations(5);
    return true;
}();

}  // namespace
