// Reading a mesh and drawing it. Pictures are 1280 × 800 of a ball that fills most of the height, with a base color, a normal map and a
// roughness of 2048 × 2048 texels each.
#include <benchmark/benchmark.h>
#include <fmt/format.h>
#include <sys/resource.h>
#include <cmath>
#include <numbers>

#include "container/sheet_folders.h"
#include "mesh/mesh_picture.h"
#include "mesh/read_mesh.h"
#include "mesh/uv.h"
#include "pixel/mips.h"

namespace {

using namespace skivet;

/// A ball of 2 n² triangles as an OBJ file.
std::string ball_obj(int n) {
    std::string out = "o ball\n";
    for (int j = 0; j <= n; ++j)
        for (int i = 0; i <= n; ++i) {
            const double a = 2 * std::numbers::pi * i / n, b = std::numbers::pi * j / n, x = std::sin(b) * std::cos(a), y = std::cos(b),
                         z = std::sin(b) * std::sin(a);
            out += fmt::format("v {0:.6f} {1:.6f} {2:.6f}\nvt {3:.6f} {4:.6f}\nvn {0:.6f} {1:.6f} {2:.6f}\n", x, y, z, double(i) / n,
                               1 - double(j) / n);
        }
    for (int j = 0; j < n; ++j)
        for (int i = 0; i < n; ++i) {
            const int a = j * (n + 1) + i + 1, b = a + 1, c = a + n + 1, d = c + 1;
            out += fmt::format("f {0}/{0}/{0} {1}/{1}/{1} {3}/{3}/{3}\nf {0}/{0}/{0} {3}/{3}/{3} {2}/{2}/{2}\n", a, b, c, d);
        }
    return out;
}

std::shared_ptr<const Mesh> ball(int n) {
    static std::map<int, std::shared_ptr<const Mesh>> known;
    auto& one = known[n];
    if (!one) {
        const auto text = ball_obj(n);
        const auto bytes = as_bytes(text);
        auto mesh = read_mesh(program_beside("skivet-mesh"), {"ball.obj", Bytes(bytes.begin(), bytes.end()), {}});
        if (mesh) one = std::make_shared<const Mesh>(std::move(*mesh));
    }
    return one;
}

SharedMap speckled(std::uint32_t side, bool srgb, Texel base) {
    auto map = std::make_shared<SurfaceMap>();
    map->srgb = srgb;
    std::uint32_t state = 7;
    for (auto n = side; n > 0; n /= 2) {
        Image level(n, n);
        for (auto& t : level.texels) {
            state = state * 1664525 + 1013904223;
            t = base;
            t[0] = static_cast<std::uint8_t>(base[0] + (state >> 28));
        }
        map->levels.push_back(std::move(level));
    }
    return map;
}

void BM_read(benchmark::State& state) {
    const auto text = ball_obj(static_cast<int>(state.range(0)));
    const auto bytes = as_bytes(text);
    std::size_t triangles = 0;
    for (auto _ : state) {
        auto mesh = read_mesh(program_beside("skivet-mesh"), {"ball.obj", Bytes(bytes.begin(), bytes.end()), {}});
        if (!mesh) return state.SkipWithError(mesh.error().message().c_str());
        triangles = mesh->triangles();
    }
    rusage child{};
    getrusage(RUSAGE_CHILDREN, &child);
    state.counters["triangles"] = static_cast<double>(triangles);
    state.counters["child_MB"] = static_cast<double>(child.ru_maxrss) / 1024;
}
BENCHMARK(BM_read)->Arg(224)->Arg(707)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(2);

void BM_picture(benchmark::State& state) {
    const auto mesh = ball(static_cast<int>(state.range(0)));
    if (!mesh) return state.SkipWithError("no mesh");
    const auto rays = MeshRays::make(mesh);
    MeshSurface surface;
    surface.base_color = speckled(2048, true, {150, 90, 60, 255});
    surface.normal = speckled(2048, false, {120, 128, 250, 255});
    surface.roughness = speckled(2048, false, {100, 100, 100, 255});
    const std::vector<MeshSurface> surfaces = {surface};
    const bool moving = state.range(1) == 0;
    const std::uint32_t w = moving ? 640 : 1280, h = moving ? 400 : 800;
    auto orbit = whole(mesh->box(), 1.6f);
    for (auto _ : state) {
        orbit.turn += 0.1f;
        auto picture =
            moving ? rays->picture(camera_of(orbit), w, h, surfaces, {}) : rays->fine_picture(camera_of(orbit), w, h, surfaces, {});
        benchmark::DoNotOptimize(picture);
    }
}
BENCHMARK(BM_picture)->ArgsProduct({{224, 707}, {0, 1}})->ArgNames({"n", "still"})->Unit(benchmark::kMillisecond)->UseRealTime();

void BM_rays(benchmark::State& state) {
    const auto mesh = ball(static_cast<int>(state.range(0)));
    if (!mesh) return state.SkipWithError("no mesh");
    for (auto _ : state) benchmark::DoNotOptimize(MeshRays::make(mesh));
}
BENCHMARK(BM_rays)->Arg(224)->Arg(707)->Unit(benchmark::kMillisecond)->UseRealTime();

void BM_uv(benchmark::State& state) {
    const auto mesh = ball(static_cast<int>(state.range(0)));
    if (!mesh) return state.SkipWithError("no mesh");
    for (auto _ : state) benchmark::DoNotOptimize(uv_layout(*mesh, {}, 0, 2048, 2048));
}
BENCHMARK(BM_uv)->Arg(224)->Arg(707)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
