// A ZIP archive of 36,000 entries and 3 GB: open and list it, look at every entry, replace one texture. The archive is made by fair-press
// when it is not there yet; SKIVET_DEPOT names its folder (default: /tmp/skivet-depot).
#include <benchmark/benchmark.h>

#include <cstdlib>
#include <filesystem>

#include "catalog/catalog.h"
#include "delivery/vault.h"

using namespace skivet;

namespace {

std::filesystem::path depot() {
    const char* named = std::getenv("SKIVET_DEPOT");
    const std::filesystem::path folder = named ? named : "/tmp/skivet-depot";
    const auto zip = folder / "depot.zip";
    if (!std::filesystem::exists(zip))
        if (std::system((std::string(SKIVET_BIN) + "/fair-press --scale large '" + folder.string() + "'").c_str()) != 0) std::abort();
    return zip;
}

void open_and_list(benchmark::State& state) {
    const auto zip = depot();
    std::size_t entries = 0;
    for (auto _ : state) {
        const auto source = open_source(ReadContext{}, zip);
        entries = 0;
        for (const auto& entry : (*source)->entries()) entries += !entry.path.empty();
    }
    state.counters["entries"] = static_cast<double>(entries);
    state.counters["bytes"] = static_cast<double>(std::filesystem::file_size(zip));
}
BENCHMARK(open_and_list)->Unit(benchmark::kMillisecond);

void find_every_texture(benchmark::State& state) {
    const std::vector<std::filesystem::path> paths = {depot()};
    const ReadContext context;
    const auto sources = open_sources(context, paths);
    std::size_t textures = 0;
    for (auto _ : state) {
        Progress progress;
        const auto catalog = build_catalog(context, sources, progress);
        textures = catalog->items.size();
    }
    state.counters["textures"] = static_cast<double>(textures);
}
BENCHMARK(find_every_texture)->Unit(benchmark::kMillisecond)->UseRealTime();

/// Plan, journal, write, sync, read back; restored between runs. `change` edits the content of one stored texture.
void deliver_changed(benchmark::State& state, void (*change)(Bytes&)) {
    const auto zip = depot();
    const auto vault_folder = zip.parent_path() / "vault";
    PosixFiles files;
    std::uint64_t written = 0;
    for (auto _ : state) {
        const auto source = *open_source(ReadContext{}, zip);
        auto content = *source->read(18'000, ReadLimits{});
        change(content);
        const auto plan = *source->plan(std::vector<Replacement>{{18'000, content}}, ReadLimits{});
        written = plan.bytes_written();
        Vault vault(vault_folder, files);
        if (!vault.deliver(plan, {"t", zip, {}}, 1)) state.SkipWithError("not delivered");
        state.PauseTiming();
        if (!vault.restore(zip)) state.SkipWithError("not restored");
        state.ResumeTiming();
    }
    state.counters["bytes_written"] = static_cast<double>(written);
}

/// One texel's worth: in place.
void replace_one_texture(benchmark::State& state) {
    deliver_changed(state, [](Bytes& content) { content[200] ^= std::byte{1}; });
}
BENCHMARK(replace_one_texture)->Unit(benchmark::kMillisecond)->UseRealTime();

/// Another size: the entry is appended and the directory written again.
void replace_with_another_size(benchmark::State& state) {
    deliver_changed(state, [](Bytes& content) { content.resize(content.size() + 64); });
}
BENCHMARK(replace_with_another_size)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
