// Archives beside the programs that read them: unzip, bsdtar, libzip. All in one run, so that a disturbed machine disturbs them alike; the
// programs' own start is part of their time, and is measured as `start_*` to be taken off.
#include <benchmark/benchmark.h>

#include <sys/resource.h>
#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>
#include <zip.h>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <random>

#include "base/file_write.h"
#include "base/hash.h"
#include "container/sift.h"
#include "delivery/vault.h"

using namespace skivet;

namespace {

std::filesystem::path folder() {
    const char* named = std::getenv("SKIVET_DEPOT");
    const std::filesystem::path out = named ? named : "/tmp/skivet-depot";
    std::filesystem::create_directories(out);
    return out;
}

std::filesystem::path depot() {
    const auto zip = folder() / "depot.zip";
    if (!std::filesystem::exists(zip) &&
        std::system((std::string(SKIVET_BIN) + "/fair-press --scale large '" + folder().string() + "'").c_str()) != 0)
        std::abort();
    return zip;
}

/// A ZIP of a million stored entries of ten bytes, with ZIP64 end records (more than 65,535 entries).
std::filesystem::path million() {
    const auto path = folder() / "million.zip";
    if (std::filesystem::exists(path)) return path;
    ByteWriter file, directory;
    const std::uint32_t count = 1'000'000;
    for (std::uint32_t i = 0; i < count; ++i) {
        const auto name = "depot/shelf_" + std::to_string(i / 500) + "/box_" + std::to_string(i) + ".dds";
        const auto data = as_bytes(std::string_view("ten bytes!"));
        const auto at = file.bytes.size();
        const auto common = [&](ByteWriter& w) {
            for (const int zero : {0, 0, 0, 0x2F21}) w.le(static_cast<std::uint16_t>(zero));
            w.le(crc32(data));
            w.le(std::uint32_t{10});
            w.le(std::uint32_t{10});
            w.le(static_cast<std::uint16_t>(name.size()));
            w.le(std::uint16_t{0});
        };
        file.put("PK\x03\x04");
        file.le(std::uint16_t{20});
        common(file);
        file.put(name);
        file.put(data);
        directory.put("PK\x01\x02");
        directory.le(std::uint16_t{45});
        directory.le(std::uint16_t{45});
        common(directory);
        for (int zeros = 0; zeros < 3; ++zeros) directory.le(std::uint16_t{0});
        directory.le(std::uint32_t{0});
        directory.le(static_cast<std::uint32_t>(at));
        directory.put(name);
    }
    const auto at = file.bytes.size();
    file.put(directory.bytes);
    const auto end64 = file.bytes.size();
    file.put("PK\x06\x06");
    file.le(std::uint64_t{44});
    for (const int v : {45, 45}) file.le(static_cast<std::uint16_t>(v));
    for (const int zero : {0, 0}) file.le(static_cast<std::uint32_t>(zero));
    for (const std::uint64_t v :
         {std::uint64_t{count}, std::uint64_t{count}, static_cast<std::uint64_t>(directory.bytes.size()), static_cast<std::uint64_t>(at)})
        file.le(v);
    file.put("PK\x06\x07");
    file.le(std::uint32_t{0});
    file.le(static_cast<std::uint64_t>(end64));
    file.le(std::uint32_t{1});
    file.put("PK\x05\x06");
    for (const int v : {0, 0, 0xFFFF, 0xFFFF}) file.le(static_cast<std::uint16_t>(v));
    file.le(0xFFFFFFFFu);
    file.le(0xFFFFFFFFu);
    file.le(std::uint16_t{0});
    if (!write_file(path, file.bytes)) std::abort();
    return path;
}

/// A ZIP of 1 GB unpacked, deflated, that packs to a little more than half.
std::filesystem::path gigabyte() {
    const auto path = folder() / "gigabyte.zip";
    if (std::filesystem::exists(path)) return path;
    int error = 0;
    auto* zip = ::zip_open(path.c_str(), ZIP_CREATE | ZIP_TRUNCATE, &error);
    if (!zip) std::abort();
    std::mt19937 random(1);
    std::vector<std::vector<std::uint32_t>> contents(256, std::vector<std::uint32_t>(1 << 20));
    for (std::size_t i = 0; i < contents.size(); ++i) {
        for (auto& word : contents[i]) word = random() & 0x0F0F3F3F;
        ::zip_file_add(zip, ("part_" + std::to_string(i) + ".bin").c_str(),
                       ::zip_source_buffer(zip, contents[i].data(), contents[i].size() * 4, 0), 0);
    }
    if (::zip_close(zip) != 0) std::abort();
    return path;
}

void run(benchmark::State& state, const std::string& command) {
    for (auto _ : state)
        if (std::system(command.c_str()) != 0) state.SkipWithError("the program failed");
}

void list_36000(benchmark::State& state) {
    run(state, std::string(SKIVET_BIN) + "/skivet-cli list '" + depot().string() + "' > /dev/null");
}
void list_36000_unzip(benchmark::State& state) { run(state, "unzip -Z1 '" + depot().string() + "' > /dev/null"); }
void start_cli(benchmark::State& state) { run(state, std::string(SKIVET_BIN) + "/skivet-cli --version > /dev/null"); }
/// The same with libzip, in this process: every entry's name and size.
void list_36000_libzip(benchmark::State& state) {
    const auto path = depot();
    for (auto _ : state) {
        int error = 0;
        auto* zip = ::zip_open(path.c_str(), ZIP_RDONLY, &error);
        if (!zip) return state.SkipWithError("libzip cannot open it");
        std::uint64_t bytes = 0;
        zip_stat_t stat;
        for (zip_int64_t i = 0; i < ::zip_get_num_entries(zip, 0); ++i)
            if (::zip_stat_index(zip, static_cast<zip_uint64_t>(i), 0, &stat) == 0) bytes += stat.size;
        benchmark::DoNotOptimize(bytes);
        ::zip_discard(zip);
    }
}
void open_36000(benchmark::State& state) {
    const auto path = depot();
    for (auto _ : state) {
        const auto source = *open_source(ReadContext{}, path);
        std::uint64_t bytes = 0;
        for (const auto& entry : source->entries()) bytes += entry.size;
        benchmark::DoNotOptimize(bytes);
    }
}
BENCHMARK(open_36000)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(list_36000_libzip)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(list_36000)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(list_36000_unzip)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(start_cli)->Unit(benchmark::kMillisecond)->UseRealTime();

void open_million(benchmark::State& state) {
    const auto path = million();
    rusage before{}, after{};
    ::getrusage(RUSAGE_SELF, &before);
    for (auto _ : state) {
        const auto source = open_source(ReadContext{}, path);
        if (!source || (*source)->entries().size() != 1'000'000) state.SkipWithError("not all entries");
        benchmark::DoNotOptimize((*source)->find("depot/shelf_7/box_3500.dds"));
    }
    ::getrusage(RUSAGE_SELF, &after);
    state.counters["MB_more_at_most"] = static_cast<double>(after.ru_maxrss - before.ru_maxrss) / 1024;
}
BENCHMARK(open_million)->Unit(benchmark::kMillisecond)->UseRealTime();

void read_all(benchmark::State& state) {
    const auto path = gigabyte();
    tbb::task_arena arena(static_cast<int>(state.range(0)));
    std::atomic<std::uint64_t> bytes{0};
    for (auto _ : state) {
        const auto source = *open_source(ReadContext{}, path);
        arena.execute([&] {
            tbb::parallel_for(std::size_t{0}, source->entries().size(), [&](std::size_t i) {
                if (const auto data = source->read(i, ReadLimits{})) bytes += data->size();
            });
        });
    }
    state.SetBytesProcessed(static_cast<std::int64_t>(bytes.load()));
}
void read_all_bsdtar(benchmark::State& state) {
    const auto path = gigabyte();
    run(state, "bsdtar -xOf '" + path.string() + "' > /dev/null");
    state.SetBytesProcessed(static_cast<std::int64_t>(state.iterations()) * (1 << 30));
}
void read_all_libzip(benchmark::State& state) {
    const auto path = gigabyte();
    std::vector<std::byte> content;
    for (auto _ : state) {
        int error = 0;
        auto* zip = ::zip_open(path.c_str(), ZIP_RDONLY, &error);
        if (!zip) return state.SkipWithError("libzip cannot open it");
        zip_stat_t stat;
        for (zip_int64_t i = 0; i < ::zip_get_num_entries(zip, 0); ++i) {
            ::zip_stat_index(zip, static_cast<zip_uint64_t>(i), 0, &stat);
            content.resize(stat.size);
            auto* entry = ::zip_fopen_index(zip, static_cast<zip_uint64_t>(i), 0);
            if (!entry || ::zip_fread(entry, content.data(), stat.size) != static_cast<zip_int64_t>(stat.size))
                state.SkipWithError("libzip cannot read an entry");
            if (entry) ::zip_fclose(entry);
        }
        ::zip_discard(zip);
    }
    state.SetBytesProcessed(static_cast<std::int64_t>(state.iterations()) * (1 << 30));
}
BENCHMARK(read_all_libzip)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(read_all)->Arg(1)->Arg(2)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(read_all_bsdtar)->Unit(benchmark::kMillisecond)->UseRealTime();

/// A thousand textures in one delivery, one byte changed in each.
void replace_thousand(benchmark::State& state) {
    const auto zip = depot();
    PosixFiles files;
    std::uint64_t written = 0;
    for (auto _ : state) {
        const auto source = *open_source(ReadContext{}, zip);
        std::vector<Replacement> all;
        for (std::size_t i = 0; i < 1000; ++i) {
            auto content = *source->read(i * 36, ReadLimits{});
            content[200] ^= std::byte{1};
            all.push_back({i * 36, std::move(content)});
        }
        const auto plan = *source->plan(all, ReadLimits{});
        written = plan.bytes_written();
        Vault vault(zip.parent_path() / "vault", files);
        if (!vault.deliver(plan, {"t", zip, {}}, 1)) state.SkipWithError("not delivered");
        state.PauseTiming();
        if (!vault.restore(zip)) state.SkipWithError("not restored");
        state.ResumeTiming();
    }
    state.counters["bytes_written"] = static_cast<double>(written);
}
BENCHMARK(replace_thousand)->Unit(benchmark::kMillisecond)->UseRealTime();

/// A gigabyte of random bytes with a texture every 4 MB.
void sift_gigabyte(benchmark::State& state) {
    std::vector<std::uint64_t> words(1 << 27);
    std::mt19937_64 random(1);
    for (auto& word : words) word = random();
    const auto source = *open_source(ReadContext{}, depot());
    const auto texture = *source->read(0, ReadLimits{});
    auto* bytes = reinterpret_cast<std::byte*>(words.data());
    for (std::size_t at = 777; at + texture.size() < words.size() * 8; at += 4u << 20)
        std::copy(texture.begin(), texture.end(), bytes + at);
    const ReadContext context;
    SiftOptions options;
    options.without_marks = options.bare = false;
    std::size_t hits = 0;
    for (auto _ : state) {
        Progress progress;
        hits = sift(context, ByteSpan(bytes, words.size() * 8), progress, options)->size();
    }
    state.SetBytesProcessed(static_cast<std::int64_t>(state.iterations()) * (1 << 30));
    state.counters["hits"] = static_cast<double>(hits);
}
BENCHMARK(sift_gigabyte)->Unit(benchmark::kMillisecond)->UseRealTime();

}  // namespace
