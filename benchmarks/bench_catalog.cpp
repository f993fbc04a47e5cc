// The catalog's named figures: a search of a million names, finding by picture among 100,000, first pictures, indexing and reopening of an
// archive of 36,000 entries. SKIVET_BENCH_ZIP names another ZIP to index instead of fair-press's depot.
#include <benchmark/benchmark.h>

#include <cstdlib>
#include <fstream>
#include <nlohmann/json.hpp>
#include <random>

#include "catalog/game_survey.h"
#include "catalog/indexing.h"
#include "catalog/item_records.h"
#include "catalog/query.h"

using namespace skivet;

namespace {

const QueryTable& million() {
    static const auto table = [] {
        std::mt19937 random(1);
        const char* folders[] = {"rides/carousel/", "booths/ticket/", "front/banners/", "organ/pipes/",
                                 "ground/",         "lights/bulbs/",  "cloth/canvas/",  "signs/enamel/"};
        const char* things[] = {"horse", "swan", "awning", "lantern", "mirror", "scroll", "panel", "pole", "clock", "drum"};
        const char* roles[] = {"tint", "bump", "gloss", "mask", "glow"};
        std::vector<std::string> texts;
        texts.reserve(1'000'000);
        for (int i = 0; i < 1'000'000; ++i)
            texts.push_back(std::string(folders[random() % 8]) + things[random() % 10] + "_" + std::to_string(random() % 5000) + "_" +
                            roles[random() % 5] + ".dds bc1 256×256 256x256 dds");
        return QueryTable::of_texts(texts);
    }();
    return table;
}

/// One search as it is typed: each keystroke is a query of its own; the time is that of the slowest.
void search_a_million(benchmark::State& state, const char* typed) {
    const auto& table = million();
    double slowest = 0;
    for (auto _ : state) {
        for (std::size_t n = 1; n <= std::string_view(typed).size(); ++n) {
            CatalogQuery query;
            query.search = std::string_view(typed).substr(0, n);
            const auto start = std::chrono::steady_clock::now();
            benchmark::DoNotOptimize(table.ask(query));
            slowest = std::max(slowest, std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count());
        }
    }
    state.counters["slowest_keystroke_ms"] = slowest * 1000;
    state.counters["keystrokes"] = static_cast<double>(std::string_view(typed).size());
}
BENCHMARK_CAPTURE(search_a_million, words, "carousel horse 12")->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK_CAPTURE(search_a_million, phrase, "\"banners/clock_4\" -bump")->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK_CAPTURE(search_a_million, pattern, "h*se_??_tint")->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK_CAPTURE(search_a_million, number, "0042")->Unit(benchmark::kMillisecond)->UseRealTime();

/// Smooth noise with structure at several scales, as textures have it.
Image noise(unsigned seed) {
    std::mt19937 random(seed);
    Image out(32, 32);
    std::array<std::array<float, 3>, 4 * 4 + 8 * 8> grid;
    for (auto& g : grid)
        for (auto& c : g) c = static_cast<float>(random() % 256);
    for (std::uint32_t y = 0; y < 32; ++y)
        for (std::uint32_t x = 0; x < 32; ++x)
            for (std::size_t c = 0; c < 3; ++c)
                out.at(x, y)[c] = static_cast<std::uint8_t>(0.5f * grid[y / 8 * 4 + x / 8][c] + 0.4f * grid[16 + y / 4 * 8 + x / 4][c] +
                                                            static_cast<float>(random() % 24));
    return out;
}

void find_by_picture(benchmark::State& state) {
    static const auto facts = [] {
        std::vector<FactsPtr> out;
        for (unsigned i = 0; i < 100'000; ++i) out.push_back(std::make_shared<PictureFacts>(facts_of_picture(noise(i))));
        return out;
    }();
    static const auto search = PictureSearch::build(facts);
    unsigned asked = 0, found = 0;
    for (auto _ : state) {
        const unsigned target = asked++ * 7919 % 100'000;
        const auto whole = noise(target);
        // Three quarters of each side, mirrored.
        Image part(24, 24);
        for (std::uint32_t y = 0; y < 24; ++y)
            for (std::uint32_t x = 0; x < 24; ++x) part.at(x, y) = whole.at(31 - x - 3, y + 5);
        const auto hits = search.find(part, 5);
        found += std::any_of(hits->begin(), hits->end(), [&](const PictureHit& h) { return h.picture == target; });
    }
    state.counters["pictures"] = 100'000;
    state.counters["recall_at_5"] = static_cast<double>(found) / asked;
}
BENCHMARK(find_by_picture)->Unit(benchmark::kMillisecond)->UseRealTime()->MinTime(3);

void make_the_search(benchmark::State& state) {
    std::vector<FactsPtr> facts;
    for (unsigned i = 0; i < 20'000; ++i) facts.push_back(std::make_shared<PictureFacts>(facts_of_picture(noise(i))));
    for (auto _ : state) benchmark::DoNotOptimize(PictureSearch::build(facts));
    state.counters["pictures"] = 20'000;
}
BENCHMARK(make_the_search)->Unit(benchmark::kMillisecond)->UseRealTime();

std::filesystem::path archive() {
    if (const char* named = std::getenv("SKIVET_BENCH_ZIP")) return named;
    const char* folder = std::getenv("SKIVET_DEPOT");
    const std::filesystem::path depot = folder ? folder : "/tmp/skivet-depot";
    if (!std::filesystem::exists(depot / "depot.zip"))
        if (std::system((std::string(SKIVET_BIN) + "/fair-press --scale large '" + depot.string() + "'").c_str()) != 0) std::abort();
    return depot / "depot.zip";
}

struct Place {
    std::filesystem::path folder = std::filesystem::temp_directory_path() / "skivet-bench-index";
    Place() { std::filesystem::remove_all(folder); }
    ~Place() { std::filesystem::remove_all(folder); }
};

/// From an unknown archive to a catalog with every picture, role and twin; how long until the first textures could be shown; and the same
/// project opened anew.
void index_an_archive(benchmark::State& state) {
    const std::vector<std::filesystem::path> paths = {archive()};
    const ReadContext context;
    double first = 0, listed = 0, all = 0, again = 0, textures = 0, entries = 0;
    for (auto _ : state) {
        const Place place;
        const auto start = std::chrono::steady_clock::now();
        const auto since = [&start] { return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count(); };
        {
            const auto store = *IndexStore::open(place.folder / "index.sqlite");
            const auto cache = *ThumbnailCache::open(place.folder / "thumbnails.sqlite");
            const auto sources = open_sources(context, paths);
            Progress progress;
            first = 0;
            const auto catalog = *build_indexed_catalog(context, sources, *store, progress, [&](const Catalog& some) {
                if (first > 0) return;
                // Twenty pictures, as a window full of cards wants them.
                std::size_t shown = 0;
                for (const auto& item : some.items)
                    if (item.is_texture() && shown < 20)
                        if (const auto texture = open_texture(context, sources[0], item))
                            if (thumbnail(*texture, thumbnail_side)) ++shown;
                if (shown == 20) first = since();
            });
            listed = since();
            auto known = known_facts(catalog, *store);
            std::mutex mutex;
            (void)measure_pictures(context, sources, catalog, known.todo, *store, cache.get(), progress, [&](std::vector<LookedAt> seen) {
                const std::lock_guard lock(mutex);
                for (auto& s : seen) known.facts[s.item] = s.facts;
            });
            textures = static_cast<double>(known.todo.size());
            entries = static_cast<double>(catalog.items.size());
            const auto analysis = analyze_catalog(catalog, known.facts, {});
            benchmark::DoNotOptimize(QueryTable::build(catalog, sources, analysis));
            all = since();
        }
        const auto reopened = std::chrono::steady_clock::now();
        const auto store = *IndexStore::open(place.folder / "index.sqlite");
        const auto remembered = remember(context, paths, *store);
        auto known = known_facts(remembered.catalog, *store);
        const auto analysis = analyze_catalog(remembered.catalog, std::move(known.facts), {});
        benchmark::DoNotOptimize(QueryTable::build(remembered.catalog, remembered.sources, analysis));
        again = std::chrono::duration<double>(std::chrono::steady_clock::now() - reopened).count();
    }
    state.counters["entries"] = entries;
    state.counters["textures"] = textures;
    state.counters["first_pictures_s"] = first;
    state.counters["listed_s"] = listed;
    state.counters["all_s"] = all;
    state.counters["reopened_s"] = again;
}
BENCHMARK(index_an_archive)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(1);

/// What opening a project reads of its index: a listing as the index keeps it, and as CBOR of the same values.
void records_and_cbor(benchmark::State& state) {
    std::vector<CatalogItem> items(100'000);
    for (std::size_t i = 0; i < items.size(); ++i) {
        auto& item = items[i];
        item.inner = {"data/textures/props/lantern_" + std::to_string(i) + "_d.dds"};
        item.kind = EntryKind::texture, item.file_kind = "DDS", item.method = "deflate";
        item.desc = {Format::BC7, 1024, 512, 1, 11, 1, 1, ColorSpace::srgb};
        item.size = 700'148, item.stored = 400'000 + i, item.check = static_cast<std::uint32_t>(i * 2654435761u);
    }
    const auto timed = [](auto&& run) {
        const auto start = std::chrono::steady_clock::now();
        run();
        return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count();
    };
    double own = 0, cbor = 0;
    Bytes records;
    std::vector<std::uint8_t> values;
    for (auto _ : state) {
        records = pack_items(items);
        auto list = nlohmann::json::array();
        for (const auto& i : items)
            list.push_back({i.inner, static_cast<int>(i.kind), std::string(i.file_kind.text()), info(i.desc.format).name, i.desc.width,
                            i.desc.height, i.desc.depth, i.desc.mips, i.desc.layers, i.desc.faces, static_cast<int>(i.desc.color), i.size,
                            i.stored, std::string(i.method.text()), i.check});
        values = nlohmann::json::to_cbor(list);
        own = timed([&] { benchmark::DoNotOptimize(unpack_items(records)); });
        cbor = timed([&] {
            std::vector<CatalogItem> out;
            for (const auto& j : nlohmann::json::from_cbor(values)) {
                auto& i = out.emplace_back();
                i.inner = j[0].get<std::vector<std::string>>(), i.kind = static_cast<EntryKind>(j[1].get<int>()),
                i.file_kind = j[2].get<std::string>();
                i.desc = {Format::BC7, j[4], j[5], j[6], j[7], j[8], j[9], static_cast<ColorSpace>(j[10].get<int>())};
                i.size = j[11], i.stored = j[12], i.method = j[13].get<std::string>(), i.check = j[14];
            }
            benchmark::DoNotOptimize(out);
        });
    }
    state.counters["own_ms"] = own;
    state.counters["cbor_over_own"] = cbor / own;
    state.counters["cbor_size_over_own"] = static_cast<double>(values.size()) / static_cast<double>(records.size());
}
BENCHMARK(records_and_cbor)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(3);

/// An installation of 100,000 files: what of it could be a source. Beside it, the same walk with nothing read.
void survey_an_installation(benchmark::State& state) {
    const Place place;
    std::mt19937 random(1);
    for (unsigned folder = 0; folder < 1000; ++folder) {
        const auto here =
            place.folder / ("data" + std::to_string(folder % 7)) / ("part" + std::to_string(folder % 31)) / std::to_string(folder);
        std::filesystem::create_directories(here);
        for (unsigned file = 0; file < 100; ++file) {
            const char* endings[] = {".png", ".txt", ".ogg", ".bin"};
            const std::string_view heads[] = {"\x89PNG\r\n\x1a\n", "words and more words\n", "OggS", "\x01\x02\x03\xFE"};
            const auto of = random() % 4;
            std::string text(heads[of]);
            text.resize(500 + random() % 8000, of == 1 ? ' ' : '\xA5');
            std::ofstream(here / (std::to_string(file) + endings[of])) << text;
        }
    }
    ReadContext context;
    (void)add_sheets_in(context, SKIVET_SHEETS);
    double walk = 0, whole = 0, files = 0;
    for (auto _ : state) {
        const auto start = std::chrono::steady_clock::now();
        std::uint64_t names = 0;
        for (const auto& item : std::filesystem::recursive_directory_iterator(place.folder))
            names += item.path().filename().string().size();
        benchmark::DoNotOptimize(names);
        const auto walked = std::chrono::steady_clock::now();
        Progress progress;
        files = static_cast<double>(survey_game(context, place.folder, progress)->files);
        whole = std::chrono::duration<double>(std::chrono::steady_clock::now() - walked).count();
        walk = std::chrono::duration<double>(walked - start).count();
    }
    state.counters["files"] = files;
    state.counters["survey_s"] = whole;
    state.counters["over_walk"] = whole / walk;
}
BENCHMARK(survey_an_installation)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(3);

}  // namespace
