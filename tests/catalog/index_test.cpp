// The index: kept, resumed, updated only for what changed, and never in the way when it is damaged.
#include <gtest/gtest.h>

#include <fmt/format.h>
#include <sqlite3.h>
#include <sys/wait.h>
#include <unistd.h>
#include <csignal>
#include <filesystem>
#include <mutex>
#include <string>
#include <thread>
#include <vector>

#include "catalog/baseline.h"
#include "catalog/indexing.h"
#include "pixel/metrics.h"
#include "support/pictures.h"
#include "support/places.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::test;

namespace {

struct Index : testing::Test {
    TempFolder folder;
    ReadContext context;
    std::filesystem::path game, file;
    std::vector<std::filesystem::path> paths;

    void SetUp() override {
        ASSERT_TRUE(add_sheets_in(context, sheets_folder).empty());
        game = folder / "game.zip";
        file = folder / "project/index.sqlite";
        paths = {game};
        write(1);
    }
    /// Forty textures, one of them drawn from `seed`; two are the same.
    void write(unsigned seed) {
        std::vector<ZipItem> items;
        for (unsigned i = 0; i < 40; ++i)
            items.push_back({fmt::format("t/{:02}.dds", i),
                             make_dds(Format::BC1, 64, 64, 0,
                                      i == 0    ? 100 + seed
                                      : i == 39 ? 1
                                                : i),
                             i % 2 == 0});
        items.push_back({"cut.dds", make_dds(Format::BC1, 64, 64), false});
        items.back().data.resize(300);
        items.push_back({"inner.crate", make_crate({{"in/a.dds", make_dds(Format::BC3, 32, 32, 0, 60)}}), true});
        put_file(game, make_zip(items));
    }
    struct Indexed {
        Catalog catalog;
        KnownFacts known;
        std::size_t looked_at = 0;
    };
    Indexed index(IndexStore& store, std::size_t stop_after = 1000) {
        Indexed out;
        Progress progress;
        const auto sources = open_sources(context, paths);
        out.catalog = *build_indexed_catalog(context, sources, store, progress);
        out.known = known_facts(out.catalog, store);
        if (out.known.todo.size() > stop_after) out.known.todo.resize(stop_after);
        std::mutex mutex;
        Progress looking;
        EXPECT_TRUE(
            measure_pictures(context, sources, out.catalog, out.known.todo, store, nullptr, looking, [&](std::vector<LookedAt> seen) {
                const std::lock_guard lock(mutex);
                for (auto& s : seen) out.known.facts[s.item] = s.facts, ++out.looked_at;
            }));
        return out;
    }
};

bool same(const CatalogItem& a, const CatalogItem& b) {
    return a.inner == b.inner && a.kind == b.kind && a.file_kind == b.file_kind && a.desc == b.desc && a.size == b.size &&
           a.stored == b.stored && a.method == b.method && a.check == b.check && a.effective == b.effective &&
           a.error.has_value() == b.error.has_value() && (!a.error || a.error->message() == b.error->message());
}

}  // namespace

TEST_F(Index, ListsAndFactsAreThereAgain) {
    {
        const auto store = *IndexStore::open(file);
        EXPECT_FALSE(store->replaced());
        EXPECT_EQ(index(*store).looked_at, 41u) << "forty and the one inside; the cut one cannot be read";
    }
    const auto store = *IndexStore::open(file);
    Progress progress;
    const auto sources = open_sources(context, paths);
    const auto fresh = *build_catalog(context, sources, progress);
    const auto again = remember(context, paths, *store);
    EXPECT_TRUE(again.whole);
    ASSERT_EQ(again.catalog.items.size(), fresh.items.size());
    for (std::size_t i = 0; i < fresh.items.size(); ++i) EXPECT_TRUE(same(again.catalog.items[i], fresh.items[i])) << fresh.items[i].path();
    const auto known = known_facts(again.catalog, *store);
    EXPECT_TRUE(known.todo.empty());
    for (std::size_t i = 0; i < fresh.items.size(); ++i) {
        if (!known.facts[i]) continue;
        const auto look = measure_picture(*open_texture(context, sources[0], fresh.items[i]));
        EXPECT_EQ(known.facts[i]->pattern().luma, look->facts.pattern().luma) << fresh.items[i].path();
        EXPECT_EQ(known.facts[i]->level0, look->facts.level0);
    }
}

TEST_F(Index, TheFirstOfAListAreThereWithoutTheRest) {
    const auto store = *IndexStore::open(file);
    const auto all = index(*store);
    const auto first = remember(context, paths, *store, {}, 7);
    EXPECT_FALSE(first.whole);
    ASSERT_EQ(first.catalog.items.size(), 7u);
    for (std::size_t i = 0; i < 7; ++i) {
        EXPECT_TRUE(same(first.catalog.items[i], all.catalog.items[i])) << i;
        EXPECT_EQ(first.catalog.items[i].content.empty(), !all.catalog.items[i].is_texture()) << i;
    }
    EXPECT_TRUE(known_facts(first.catalog, *store).todo.empty());
    EXPECT_TRUE(remember(context, paths, *store, {}, 0).catalog.items.empty());
}

TEST_F(Index, WorkThatWasStoppedGoesOnWhereItStopped) {
    const auto store = *IndexStore::open(file);
    EXPECT_EQ(index(*store, 15).looked_at, 15u);
    EXPECT_EQ(index(*store).looked_at, 26u);
    EXPECT_EQ(index(*store).looked_at, 0u);
}

TEST_F(Index, OnlyWhatChangedIsLookedAtAgain) {
    const auto store = *IndexStore::open(file);
    (void)index(*store);
    write(2);  // one texture is another one now
    std::this_thread::sleep_for(std::chrono::milliseconds(5));
    EXPECT_FALSE(remember(context, paths, *store).whole) << "the archive changed";
    const auto changed = index(*store);
    EXPECT_EQ(changed.looked_at, 1u) << "the directory's checksums tell which";
    EXPECT_EQ(changed.catalog.items[changed.known.todo[0]].path(), "t/00.dds");
}

TEST_F(Index, ATwinIsNotDecodedAgainButKnown) {
    const auto store = *IndexStore::open(file);
    const auto all = index(*store);
    const auto item = [&](const char* path) {
        return static_cast<std::size_t>(
            std::find_if(all.catalog.items.begin(), all.catalog.items.end(), [&](const auto& i) { return i.path() == path; }) -
            all.catalog.items.begin());
    };
    const auto a = item("t/01.dds"), b = item("t/39.dds");
    ASSERT_TRUE(all.known.facts[a] && all.known.facts[b]);
    EXPECT_EQ(all.known.facts[a]->level0, all.known.facts[b]->level0);
}

TEST_F(Index, ADamagedIndexIsReplacedAndSaysSo) {
    put_file(file, random_bytes(20'000, 3));
    const auto store = IndexStore::open(file, true);
    ASSERT_TRUE(store) << store.error().message();
    EXPECT_TRUE((*store)->replaced());
    EXPECT_EQ(index(**store).looked_at, 41u);
}

TEST_F(Index, WhatIsNoIndexOfOursIsLeftAlone) {
    sqlite3* db = nullptr;
    ASSERT_EQ(sqlite3_open((folder / "other.db").c_str(), &db), SQLITE_OK);
    ASSERT_EQ(sqlite3_exec(db, "CREATE TABLE t(x); INSERT INTO t VALUES(1)", nullptr, nullptr, nullptr), SQLITE_OK);
    sqlite3_close(db);
    put_file(folder / "picture.png", *write_png(smooth_picture(8, 8, 1)));
    put_file(folder / "short", bytes_of("x"));
    std::filesystem::create_directories(folder / "a folder");
    for (const auto& other : {game, folder / "other.db", folder / "picture.png", folder / "short"}) {
        const auto before = get_file(other);
        const auto opened = IndexStore::open(other);
        ASSERT_FALSE(opened) << other;
        EXPECT_EQ(opened.error().code, ErrorCode::usage);
        EXPECT_EQ(get_file(other), before) << other;
        EXPECT_FALSE(std::filesystem::exists(other.string() + "-wal"));
    }
    EXPECT_FALSE(IndexStore::open(folder / "a folder"));
}

TEST_F(Index, AFlippedBitNeverGivesAWrongListing) {
    std::vector<CatalogItem> right;
    (void)index(**IndexStore::open(file));
    right = *(*IndexStore::open(file))->listing(game, fingerprint_of(context) + ' ' + fingerprint_of(game));
    const auto whole = get_file(file);
    const auto text = [](std::vector<CatalogItem> items) {
        std::string out;
        for (auto& i : items)
            out += fmt::format("{} {} {} {} {}x{} {:x}{:x}\n", i.path(), i.size, i.stored, int(i.desc.format), i.desc.width, i.desc.height,
                               i.content.high, i.content.low);
        return out;
    };
    const auto expected = text(right);
    int used = 0, refused = 0;
    std::uint32_t state = 5;
    for (int n = 0; n < 400; ++n) {
        state = state * 1664525u + 1013904223u;
        auto broken = whole;
        broken[state % whole.size()] ^= std::byte{1} << (state >> 29);
        put_file(file, broken);
        for (const char* tail : {"-wal", "-shm"}) std::filesystem::remove(file.string() + tail);
        const auto store = IndexStore::open(file);
        if (!store) {
            ++refused;
            continue;
        }
        auto listed = (*store)->listing(game, fingerprint_of(context) + ' ' + fingerprint_of(game));
        if (!listed) {
            ++refused;
            continue;
        }
        ++used;
        for (std::size_t i = 0; i < listed->size(); ++i)
            if ((*listed)[i].content.empty()) (*listed)[i].content = right[i].content;  // forgotten is not wrong: it is looked at again
        ASSERT_EQ(text(*listed), expected) << "byte " << state % whole.size();
    }
    EXPECT_GT(used, 0);
    EXPECT_GT(refused, 0);
}

TEST_F(Index, AListingThatDoesNotHoldIsNotUsed) {
    const auto store = *IndexStore::open(file);
    (void)index(*store);
    EXPECT_FALSE(store->listing(game, "something else"));
    EXPECT_FALSE(store->listing(folder / "other.zip", ""));
    ASSERT_TRUE(store->keep_only({}));
    EXPECT_FALSE(remember(context, paths, *store).whole);
    ReadContext other = context;
    other.choices.push_back({"*.zip", "sifting"});
    EXPECT_NE(fingerprint_of(context), fingerprint_of(other)) << "what recognition depends on";
}

TEST_F(Index, AFoldersFingerprintFollowsItsFiles) {
    put_file(folder / "loose/a.dds", make_dds(Format::BC1, 16, 16));
    const auto before = fingerprint_of(folder / "loose");
    EXPECT_EQ(fingerprint_of(folder / "loose"), before);
    put_file(folder / "loose/sub/b.dds", make_dds(Format::BC1, 16, 16));
    EXPECT_NE(fingerprint_of(folder / "loose"), before);
    EXPECT_TRUE(fingerprint_of(folder / "nothing").empty());
}

TEST_F(Index, CancelEndsLookingWithinOneTexture) {
    const auto store = *IndexStore::open(file);
    Progress progress;
    const auto sources = open_sources(context, paths);
    const auto catalog = *build_indexed_catalog(context, sources, *store, progress);
    const auto known = known_facts(catalog, *store);
    Progress looking;
    looking.cancel.cancel();
    EXPECT_EQ(measure_pictures(context, sources, catalog, known.todo, *store, nullptr, looking).error().code, ErrorCode::canceled);
    EXPECT_EQ(looking.done, 0u);
}

TEST_F(Index, TheCatalogIsShownWhileItGrows) {
    std::vector<ZipItem> items;
    for (int i = 0; i < 2500; ++i) items.push_back({fmt::format("n/{}.txt", i), bytes_of("x")});
    put_file(folder / "many.zip", make_zip(items));
    paths = {folder / "many.zip"};
    Progress progress;
    const auto sources = open_sources(context, paths);
    std::vector<std::size_t> sizes;
    CatalogOptions options;
    options.so_far = [&](const Catalog& catalog) { sizes.push_back(catalog.items.size()); };
    const auto whole = *build_catalog(context, sources, progress, options);
    EXPECT_EQ(sizes, (std::vector<std::size_t>{512, 1536, 2500}));
    EXPECT_EQ(whole.items.size(), 2500u);
}

// A process is killed (SIGKILL) at whatever moment it comes to; the index must open, hold no wrong row, and go on.
TEST_F(Index, SurvivesBeingKilledAtAnyTime) {
    const auto sources = open_sources(context, paths);
    Progress progress;
    const auto fresh = *build_catalog(context, sources, progress);
    std::mt19937 random(11);
    std::size_t most = 0;
    for (int round = 0; round < 12; ++round) {
        const auto child = fork();
        ASSERT_GE(child, 0);
        if (child == 0) {
            // Only this thread lives here: no task pool. Rows are put in one by one, as fast as can be.
            const auto store = IndexStore::open(file);
            if (!store) _exit(1);
            std::vector<CatalogItem> items = fresh.items;
            (void)(*store)->put_listing(game, fingerprint_of(context) + ' ' + fingerprint_of(game), items);
            for (std::size_t i = 0; i < items.size(); ++i) {
                if (!items[i].is_texture() || items[i].error) continue;
                auto facts = std::make_shared<PictureFacts>();
                facts->level0 = i + 1;
                IndexStore::Seen seen{game, i, {7, i + 1}, facts};
                (void)(*store)->put_seen(std::span(&seen, 1));
            }
            _exit(0);
        }
        ::usleep(static_cast<unsigned>(random() % 15'000));
        ::kill(child, SIGKILL);
        int status = 0;
        ::waitpid(child, &status, 0);
        const auto store = IndexStore::open(file);
        ASSERT_TRUE(store) << store.error().message();
        EXPECT_FALSE((*store)->replaced()) << "round " << round;
        const auto again = remember(context, paths, **store);
        if (!again.whole) continue;  // killed before its first transaction
        ASSERT_EQ(again.catalog.items.size(), fresh.items.size());
        std::size_t known = 0;
        for (std::size_t i = 0; i < fresh.items.size(); ++i) {
            EXPECT_TRUE(same(again.catalog.items[i], fresh.items[i]));
            const auto& key = again.catalog.items[i].content;
            if (key.empty()) continue;
            ++known;
            EXPECT_EQ(key, (ContentKey{7, i + 1}));
            const auto facts = (*store)->facts(std::span(&key, 1));
            ASSERT_TRUE(facts[0]) << "a content without its facts";
            EXPECT_EQ(facts[0]->level0, i + 1);
        }
        most = std::max(most, known);
    }
    EXPECT_GT(most, 0u) << "no round came as far as a row; the test says nothing";
}

TEST_F(Index, SmallPicturesAreKeptByContent) {
    const auto cache = *ThumbnailCache::open(folder / "cache/t.sqlite");
    const auto plain = smooth_picture(96, 128, 4), clear = smooth_picture(40, 24, 5, true);
    ASSERT_TRUE(cache->put(std::vector{KeptPicture{{1, 2}, plain, {}, Format::unknown}, KeptPicture{{3, 4}, clear, {}, Format::unknown}}));
    EXPECT_FALSE(cache->find({9, 9}));
    const auto back = cache->find({1, 2});
    ASSERT_TRUE(back);
    ASSERT_EQ(back->width, 96u);
    ASSERT_EQ(back->height, 128u);
    EXPECT_GT(difference(*back, plain).psnr_rgb, 30);
    const auto alpha = cache->find({3, 4});
    ASSERT_TRUE(alpha);
    EXPECT_TRUE(std::any_of(alpha->texels.begin(), alpha->texels.end(), [](const Texel& t) { return t[3] < 200; }));
}

TEST_F(Index, TheOldestPicturesGoWhenThereAreTooMany) {
    const auto place = folder / "cache/t.sqlite";
    {
        const auto cache = *ThumbnailCache::open(place);
        for (std::uint64_t i = 1; i < 20; ++i)
            ASSERT_TRUE(cache->put(std::vector{KeptPicture{{i, i}, smooth_picture(128, 128, unsigned(i)), {}, Format::unknown}}));
        EXPECT_EQ(cache->bytes(), 19u * 8192);
    }
    const auto cache = *ThumbnailCache::open(place, 80'000);
    EXPECT_LE(cache->bytes(), 60'000u) << "a quarter is free again";
    EXPECT_GT(cache->bytes(), 40'000u) << "no more went than had to";
    // The bound holds while it is written, too.
    for (std::uint64_t i = 100; i < 130; ++i) {
        ASSERT_TRUE(cache->put(std::vector{KeptPicture{{i, i}, smooth_picture(128, 128, unsigned(i)), {}, Format::unknown}}));
        EXPECT_LE(cache->bytes(), 80'000u);
    }
    ASSERT_TRUE(cache->set_most(20'000));
    EXPECT_LE(cache->bytes(), 15'000u);
    ASSERT_TRUE(cache->set_most(1 << 20));
    for (std::uint64_t i = 1; i < 60; ++i)
        ASSERT_TRUE(cache->put(std::vector{KeptPicture{{i, i}, smooth_picture(128, 128, unsigned(i)), {}, Format::unknown}}));
    const auto full = std::filesystem::file_size(place);
    ASSERT_TRUE(cache->clear());
    EXPECT_EQ(cache->bytes(), 0u);
    EXPECT_LT(std::filesystem::file_size(place), full / 4) << "the disk has its space back";
    ASSERT_TRUE(cache->put(std::vector{KeptPicture{{1, 2}, smooth_picture(16, 16, 1), {}, Format::unknown}}));
    EXPECT_TRUE(cache->find({1, 2}));
}

TEST_F(Index, TheBaselineTellsShippedChangedAndAdded) {
    put_file(folder / "loose/a.dds", make_dds(Format::BC1, 16, 16));
    paths = {game, folder / "loose"};
    const auto store = *IndexStore::open(file);
    (void)index(*store);
    const auto baseline = *Baseline::open(folder / "project/baseline.sqlite");
    EXPECT_FALSE(baseline->recorded());
    EXPECT_EQ(baseline->compare(game), Shipped::unknown);
    const auto look = [&] {
        Progress progress;
        return *build_indexed_catalog(context, open_sources(context, paths), *store, progress);
    };
    auto catalog = look();
    ASSERT_TRUE(baseline->record(paths, catalog, open_sources(context, paths)));
    Progress progress;
    ASSERT_TRUE(baseline->complete(progress));
    EXPECT_TRUE(baseline->recorded());
    EXPECT_EQ(baseline->compare(game), Shipped::as_shipped);
    EXPECT_EQ(baseline->compare(folder / "loose"), Shipped::as_shipped);
    const auto states = baseline->compare(catalog, open_sources(context, paths));
    for (std::size_t i = 0; i < catalog.items.size(); ++i)
        if (!catalog.items[i].content.empty()) EXPECT_EQ(states[i], Shipped::as_shipped) << catalog.items[i].path();
    // A texture changes, a file joins the folder, an archive is left behind.
    write(2);
    put_file(folder / "zz.zip", make_zip({{"t/00.dds", make_dds(Format::BC1, 64, 64, 0, 9)}}));
    put_file(folder / "loose/b.dds", make_dds(Format::BC1, 16, 16, 0, 2));
    paths.push_back(folder / "zz.zip");
    (void)index(*store);
    catalog = look();
    EXPECT_EQ(baseline->compare(game), Shipped::changed);
    EXPECT_EQ(baseline->compare(folder / "loose"), Shipped::changed);
    EXPECT_EQ(baseline->compare(folder / "zz.zip"), Shipped::added);
    const auto later = baseline->compare(catalog, open_sources(context, paths));
    for (std::size_t i = 0; i < catalog.items.size(); ++i) {
        const auto& item = catalog.items[i];
        if (item.content.empty() || !item.is_texture()) continue;
        if (item.source == 2) EXPECT_EQ(later[i], Shipped::added);
        if (item.source == 0) EXPECT_EQ(later[i], item.path() == "t/00.dds" ? Shipped::changed : Shipped::as_shipped) << item.path();
    }
}

TEST_F(Index, TheBaselineReadsAllOfWhatItsSamplesCannotTell) {
    // Two megabytes, of which samples see sixteen pages: one byte between them changes, and later only the time.
    auto bytes = random_bytes(2 << 20, 6);
    put_file(folder / "big.bin", bytes);
    const auto baseline = *Baseline::open(folder / "b.sqlite");
    const std::vector<std::filesystem::path> one = {folder / "big.bin"};
    ASSERT_TRUE(baseline->record(one, {}, {}));
    Progress progress;
    ASSERT_FALSE(*baseline->complete(progress)) << "its own hash is no news";
    bytes[70'000] ^= std::byte{1};
    std::this_thread::sleep_for(std::chrono::milliseconds(5));
    put_file(one[0], bytes);
    EXPECT_EQ(baseline->compare(one[0]), Shipped::unknown) << "touched, but its samples are as they were";
    ASSERT_TRUE(*baseline->complete(progress));
    EXPECT_EQ(baseline->compare(one[0]), Shipped::changed);
    ASSERT_FALSE(*baseline->complete(progress)) << "decided once";
    bytes[70'000] ^= std::byte{1};
    std::this_thread::sleep_for(std::chrono::milliseconds(5));
    put_file(one[0], bytes);
    EXPECT_EQ(baseline->compare(one[0]), Shipped::unknown);
    ASSERT_TRUE(*baseline->complete(progress));
    EXPECT_EQ(baseline->compare(one[0]), Shipped::as_shipped) << "the same bytes again";
}

TEST_F(Index, PatternsStayInTheFile) {
    const auto store = *IndexStore::open(file);
    const auto shown = facts_of_picture(smooth_picture(64, 64, 3));
    std::vector<IndexStore::Seen> seen = {{game, 0, {1, 2}, std::make_shared<PictureFacts>(shown)}};
    ASSERT_TRUE(store->put_seen(seen));
    ASSERT_TRUE(seen[0].facts);
    EXPECT_EQ(seen[0].facts->store(), store.get()) << "what was kept is not held besides";
    EXPECT_LE(sizeof(PictureFacts), 200u);
    EXPECT_EQ(seen[0].facts->pattern().luma, shown.pattern().luma);
    // The same again, as a twin has it, and by another process's store.
    ASSERT_TRUE(store->put_seen(seen));
    const auto other = *IndexStore::open(file);
    const ContentKey key{1, 2};
    EXPECT_EQ(other->facts(std::span(&key, 1))[0]->pattern().red, shown.pattern().red);
    EXPECT_EQ(other->contents(), std::vector{key});
    // A pattern that is gone is like nothing; the facts are there all the same.
    sqlite3* db = nullptr;
    ASSERT_EQ(sqlite3_open(file.c_str(), &db), SQLITE_OK);
    ASSERT_EQ(sqlite3_exec(db, "DELETE FROM pattern", nullptr, nullptr, nullptr), SQLITE_OK);
    sqlite3_close(db);
    const auto facts = other->facts(std::span(&key, 1))[0];
    ASSERT_TRUE(facts);
    EXPECT_EQ(facts->contrast, shown.contrast);
    EXPECT_EQ(pattern_agreement(facts->pattern(), shown.pattern()), 0);
}

TEST_F(Index, FactsThatNothingHasAnyMoreGo) {
    const auto store = *IndexStore::open(file);
    std::vector<IndexStore::Seen> old;
    for (std::uint64_t i = 1; i <= 6000; ++i)
        old.push_back({folder / "gone.zip", std::size_t(i), {9, i}, std::make_shared<PictureFacts>()});
    ASSERT_TRUE(store->put_seen(old));
    const auto all = index(*store);
    const ContentKey gone{9, 1};
    EXPECT_TRUE(store->facts(std::span(&gone, 1))[0]) << "kept for a while: an archive may come back";
    ASSERT_TRUE(store->prune());
    EXPECT_FALSE(store->facts(std::span(&gone, 1))[0]);
    const auto again = index(*store);
    EXPECT_EQ(again.looked_at, 0u) << "what is in use stays";
}

TEST_F(Index, ABaselineIsNeverThrownAway) {
    put_file(folder / "baseline.sqlite", random_bytes(5000, 1));
    const auto before = hash_of_file(folder / "baseline.sqlite");
    const auto opened = Baseline::open(folder / "baseline.sqlite");
    ASSERT_FALSE(opened);
    EXPECT_EQ(opened.error().code, ErrorCode::damaged);
    EXPECT_EQ(hash_of_file(folder / "baseline.sqlite"), before);
}
