// The models without a window: what the pages rely on.
#include <gtest/gtest.h>

#include <sys/resource.h>
#include <unistd.h>
#include <algorithm>
#include <filesystem>
#include <fstream>
#include <QSignalSpy>
#include <QtTest>
#include <string>
#include <vector>

#include "app/models/folder_watch.h"
#include "app/models/models.h"
#include "support/pictures.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct ModelsTest : testing::Test {
    TempFolder folder;
    std::filesystem::path zip;
    std::unique_ptr<Models> models;

    void SetUp() override {
        zip = folder / "game.zip";
        put_file(zip,
                 make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 1)}, {"a/two.dds", make_dds(Format::BC3, 32, 32, 0, 2), true}}));
        start();
    }
    void start() {
        models = std::make_unique<Models>();
        models->store.open({folder / "project", {}, {zip}, {}});
        ASSERT_TRUE(wait([&] { return models->sources.ready() && !models->jobs.busy(); }));
    }
    template <class Condition>
    bool wait(Condition condition) {
        return QTest::qWaitFor(condition, 30'000);
    }
    void take_all() {
        models->catalog.take({0, 1}, ExportAs::png);
        ASSERT_TRUE(wait([&] { return models->bench.pieces().size() == 2 && !models->jobs.busy(); }));
    }
    void paint(std::size_t piece, Texel color) {
        const auto file = models->store.project().work() / models->bench.pieces()[piece].file;
        auto image = *read_png(get_file(file), ReadLimits{});
        for (std::uint32_t y = 8; y < 16; ++y)
            for (std::uint32_t x = 8; x < 16; ++x) image.at(x, y) = color;
        const auto seen = models->bench.pieces()[piece].seen_hash;
        put_file(file, *write_png(image));
        ASSERT_TRUE(wait([&] {
            return models->bench.pieces()[piece].seen_hash != seen &&
                   models->bench.pieces()[piece].seen_hash == to_hex(sha256(get_file(file)));
        }));
    }
    void plan_and_deliver(std::size_t expected) {
        models->delivery.make_plan();
        ASSERT_TRUE(
            wait([&] { return models->delivery.plan() && models->delivery.plan()->piece_count() == expected && !models->jobs.busy(); }));
        QSignalSpy delivered(&models->delivery, &DeliveryModel::delivered);
        models->delivery.deliver();
        ASSERT_TRUE(wait([&] { return delivered.size() == 1 && !models->jobs.busy(); }));
    }
};

}  // namespace

TEST_F(ModelsTest, TwoPiecesOfOneArchiveAreOneDelivery) {
    const auto hash = hash_of_file(zip);
    take_all();
    paint(0, {255, 0, 0, 255});
    paint(1, {0, 255, 0, 200});
    plan_and_deliver(2);
    ASSERT_EQ(models->store.history().size(), 1u);
    EXPECT_EQ(models->store.history()[0].title, "2 pieces into game.zip");
    EXPECT_NE(hash_of_file(zip), hash);
    for (const auto& piece : models->bench.pieces()) EXPECT_EQ(piece.state, PieceState::delivered);
    models->delivery.undo_all();
    ASSERT_TRUE(wait([&] { return models->store.history().empty() && !models->jobs.busy(); }));
    EXPECT_EQ(hash_of_file(zip), hash);
}

TEST_F(ModelsTest, SeveralDeliveriesAreAllPutBack) {
    const auto hash = hash_of_file(zip);
    take_all();
    for (std::uint8_t round = 1; round <= 3; ++round) {
        paint(0, {std::uint8_t(round * 80), 0, 90, 255});
        plan_and_deliver(1);
    }
    ASSERT_EQ(models->store.history().size(), 3u);
    models->delivery.undo_all();
    ASSERT_TRUE(wait([&] { return models->store.history().empty() && !models->jobs.busy(); }));
    EXPECT_EQ(hash_of_file(zip), hash);
}

TEST_F(ModelsTest, ADeliveredPieceThatIsEditedAgainIsFittedToTheOriginal) {
    take_all();
    paint(0, {255, 0, 0, 255});
    plan_and_deliver(1);
    // Painted back to what it was: the delivery must give the original bytes again.
    const auto& piece = models->bench.pieces()[0];
    const auto original = *TextureFile::open(TextureKinds::standard(), make_dds(Format::BC1, 32, 32, 0, 1), "x", ReadLimits{});
    const auto seen = piece.seen_hash;
    put_file(models->store.project().work() / piece.file, *export_png(original));
    ASSERT_TRUE(wait([&] { return models->bench.pieces()[0].seen_hash != seen; }));
    EXPECT_TRUE(waits(models->bench.pieces()[0].state));
    plan_and_deliver(1);
    const auto source = *open_source(ReadContext{}, zip);
    EXPECT_EQ(*source->read(0, ReadLimits{}), make_dds(Format::BC1, 32, 32, 0, 1));
}

TEST_F(ModelsTest, AHalfWrittenFileIsSaidAndThenRead) {
    take_all();
    const auto file = models->store.project().work() / models->bench.pieces()[0].file;
    const auto whole = *write_png(random_picture(32, 32, 7));
    put_file(file, ByteSpan(whole).first(whole.size() / 2));
    ASSERT_TRUE(wait([&] { return waits(models->bench.pieces()[0].state); }));
    ASSERT_TRUE(wait([&] { return models->bench.fits().fit(models->bench.pieces()[0].id) != nullptr; }));
    EXPECT_FALSE(models->bench.fits().fit(models->bench.pieces()[0].id)->made.fit);
    put_file(file, whole);
    ASSERT_TRUE(wait([&] {
        const auto fitted = models->bench.fits().fit(models->bench.pieces()[0].id);
        return fitted && fitted->made.fit;
    }));
}

TEST_F(ModelsTest, ThumbnailsArriveAndAreKept) {
    QSignalSpy ready(&models->catalog.pictures(), &SmallPictures::ready);
    EXPECT_TRUE(models->catalog.pictures().of(0).isNull());
    EXPECT_TRUE(models->catalog.pictures().of(0).isNull()) << "asked for twice, made once";
    ASSERT_TRUE(wait([&] { return ready.size() == 1; }));
    EXPECT_EQ(models->catalog.pictures().of(0).size(), QSize(32, 32));
    EXPECT_EQ(models->catalog.pictures().of(0, 400).size(), QSize(32, 32)) << "there is no more of it";
    EXPECT_TRUE(models->catalog.pictures().of(99).isNull());
}

TEST_F(ModelsTest, AnUpdateOfTheGameIsNoticedAtTheNextStart) {
    take_all();
    models.reset();
    put_file(zip, make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 8)}, {"a/two.dds", make_dds(Format::BC3, 32, 32, 0, 2), true}}));
    start();
    EXPECT_EQ(models->bench.pieces()[0].state, PieceState::gone_stale);
    EXPECT_EQ(models->bench.pieces()[1].state, PieceState::out);
    models->bench.take_again(models->bench.pieces()[0].id);
    ASSERT_TRUE(wait([&] { return models->bench.pieces().size() == 2 && !models->jobs.busy(); }));
    EXPECT_EQ(models->bench.pieces()[1].state, PieceState::out);
}

TEST_F(ModelsTest, WhatWasSavedWhileItWasClosedIsNoticedAtTheNextStart) {
    take_all();
    std::vector<std::filesystem::path> files;
    for (const auto& piece : models->bench.pieces()) files.push_back(models->store.project().work() / piece.file);
    models.reset();
    for (std::size_t i = 0; i < files.size(); ++i) put_file(files[i], *write_png(random_picture(32, 32, static_cast<unsigned>(i))));
    models = std::make_unique<Models>();
    QSignalSpy said(&models->messages, &Messages::logged);
    models->store.open({folder / "project", {}, {zip}, {}});
    ASSERT_TRUE(wait([&] { return models->sources.ready() && !models->jobs.busy(); }));
    for (const auto& piece : models->bench.pieces()) {
        EXPECT_TRUE(waits(piece.state)) << piece.file;
        EXPECT_EQ(models->bench.versions(piece.id).size(), 1u) << "kept, as any save";
    }
    EXPECT_EQ(std::count_if(said.begin(), said.end(), [](const auto& one) { return one[0].toString().contains("Saved"); }), 1)
        << "a thousand of them are said at once";
}

TEST_F(ModelsTest, WhatIsSavedWhileItIsOpenIsSaidByItsName) {
    QSignalSpy said(&models->messages, &Messages::logged);
    take_all();
    paint(0, {9, 90, 200, 255});
    const auto says = [&](const char* text) {
        return std::any_of(said.begin(), said.end(), [&](const auto& one) { return one[0].toString().contains(text); });
    };
    EXPECT_TRUE(says("Saved: "));
    EXPECT_FALSE(says("was closed"));
}

TEST_F(ModelsTest, AnUnfinishedDeliveryIsRolledBackAtTheStart) {
    const auto before = get_file(zip);
    models.reset();
    // As a crash leaves it: a complete journal, the archive half written.
    PosixFiles files;
    const auto source = *open_source(ReadContext{}, zip);
    const auto plan = *source->plan(std::vector<Replacement>{{1, random_bytes(3000, 1)}}, ReadLimits{});
    Vault vault(folder / "project/vault", files);
    const auto journal = *vault.deliver(plan, {"t", zip, {}}, 1);
    std::filesystem::rename(folder / "project/vault" / (journal.id + ".kept"), folder / "project/vault" / (journal.id + ".pending"));
    auto half = get_file(zip);
    half.resize(half.size() - 100);
    put_file(zip, half);
    models = std::make_unique<Models>();
    QSignalSpy notice(&models->messages, &Messages::notice);
    models->store.open({folder / "project", {}, {zip}, {}});
    ASSERT_TRUE(wait([&] { return models->sources.ready(); }));
    EXPECT_EQ(get_file(zip), before);
    ASSERT_GE(notice.size(), 1);
    EXPECT_TRUE(notice[0][0].toString().contains("The old bytes were put back"));
}

TEST_F(ModelsTest, TheGameNeedsACommand) {
    QSignalSpy notice(&models->messages, &Messages::notice);
    EXPECT_FALSE(models->game.start(models->store.project()));
    EXPECT_EQ(notice.size(), 1);
    models->store.change([](Project& p) { p.play.command = {"/nowhere/at/all"}; });
    EXPECT_TRUE(models->game.start(models->store.project()));
    ASSERT_TRUE(wait([&] { return notice.size() == 2; }));
    EXPECT_TRUE(notice[1][0].toString().contains("could not be started"));
}

TEST_F(ModelsTest, TheEditorOfTheSettingsIsStartedWithTheFile) {
    take_all();
    models->store.change([](Project& p) { p.editor = {"sh", "-c", "cp \"$0\" \"$0.opened\""}, p.play.command.clear(); });
    models->bench.open_to_edit(models->bench.pieces()[0].id);
    const auto opened = models->store.project().work() / models->bench.pieces()[0].file;
    ASSERT_TRUE(wait([&] { return std::filesystem::exists(opened.string() + ".opened"); }));
}

TEST_F(ModelsTest, AddingASourceTwiceIsSaidAndRemovingWorks) {
    QSignalSpy notice(&models->messages, &Messages::notice);
    models->sources.add(zip);
    EXPECT_EQ(notice.size(), 1);
    models->sources.remove(0);
    ASSERT_TRUE(wait([&] { return models->catalog.snapshot()->sources.empty() && !models->jobs.busy(); }));
    EXPECT_TRUE(std::filesystem::exists(zip)) << "the file stays";
}

TEST_F(ModelsTest, ADamagedProjectIsNotOverwritten) {
    models.reset();
    put_file(folder / "project/project.json", bytes_of("not json"));
    models = std::make_unique<Models>();
    QSignalSpy notice(&models->messages, &Messages::notice);
    models->store.open({folder / "project", {}, {zip}, {}});
    ASSERT_TRUE(wait([&] { return notice.size() == 1 && !models->jobs.busy(); }));
    EXPECT_EQ(as_text(get_file(folder / "project/project.json")), "not json");
}

TEST_F(ModelsTest, WhatIsOnTheBenchIsKnownToTheCatalogAsItChanges) {
    EXPECT_FALSE(models->catalog.state_of(0));
    take_all();
    EXPECT_EQ(models->catalog.state_of(0), std::optional(PieceState::out));
    paint(0, {200, 20, 20, 255});
    EXPECT_EQ(models->catalog.state_of(0), std::optional(PieceState::changed));
    models->bench.put_away(models->bench.pieces()[0].id);
    EXPECT_FALSE(models->catalog.state_of(0));
    EXPECT_TRUE(models->catalog.state_of(1));
    models->store.undo();
    EXPECT_TRUE(models->catalog.state_of(0));
}

TEST(FolderWatchTest, TellsWhatIsWrittenMadeRenamedAndRemoved) {
    TempFolder folder;
    const auto work = folder / "work", other = folder / "other";
    std::filesystem::create_directories(work);
    std::filesystem::create_directories(other);
    put_file(work / "a.png", random_bytes(100, 1));
    put_file(other / "b.png", random_bytes(100, 2));
    FolderWatch watch;
    QSignalSpy changed(&watch, &FolderWatch::changed), began(&watch, &FolderWatch::began);
    watch.set({work.string()});
    EXPECT_EQ(began.size(), 1);
    watch.set({work.string()});
    EXPECT_EQ(began.size(), 1) << "it was watched";
    const auto told = [&](const std::function<void()>& what) {
        changed.clear();
        what();
        return QTest::qWaitFor([&] { return !changed.isEmpty(); }, 1500);
    };
    const auto write_in_place = [](const std::filesystem::path& file) {
        std::fstream(file, std::ios::binary | std::ios::in | std::ios::out) << "x";
    };
    EXPECT_TRUE(told([&] { write_in_place(work / "a.png"); }));
    for (int twice = 0; twice < 2; ++twice) {
        // As programs save that want the old file whole until the new one is.
        EXPECT_TRUE(told([&] { put_file(work / "a.tmp", random_bytes(90, 3)); }));
        EXPECT_TRUE(told([&] { std::filesystem::rename(work / "a.tmp", work / "a.png"); }));
        EXPECT_TRUE(told([&] { write_in_place(work / "a.png"); })) << "the new one";
    }
    EXPECT_TRUE(told([&] { std::filesystem::remove(work / "a.png"); }));
    EXPECT_FALSE(told([&] { write_in_place(other / "b.png"); })) << "not asked for";
    watch.set({other.string()});
    EXPECT_TRUE(told([&] { write_in_place(other / "b.png"); }));
    EXPECT_FALSE(told([&] { put_file(work / "c.png", random_bytes(90, 4)); })) << "not any more";
    // Two names of one folder share its watch; it stays while one of them is asked for.
    std::filesystem::create_directory_symlink(other, folder / "again");
    watch.set({other.string(), (folder / "again").string()});
    watch.set({other.string()});
    EXPECT_TRUE(told([&] { write_in_place(other / "b.png"); }));
    // A folder that goes and comes back is looked at now and then, and watched again.
    std::filesystem::remove_all(other);
    EXPECT_TRUE(QTest::qWaitFor([&] { return changed.size() > 1; }, 5000));
    std::filesystem::create_directories(other);
    put_file(other / "b.png", random_bytes(100, 2));
    changed.clear();
    EXPECT_TRUE(QTest::qWaitFor([&] { return !changed.isEmpty(); }, 5000));
    watch.set({other.string()});
    EXPECT_TRUE(told([&] { write_in_place(other / "b.png"); }));
    EXPECT_FALSE(told([] {})) << "nothing is looked at now and then any more";
}

TEST(JobsTest, WorkStandsBackBehindTheWindow) {
    Jobs jobs;
    QObject asker;
    const auto nice_of_thread = [] { return ::getpriority(PRIO_PROCESS, static_cast<id_t>(::gettid())); };
    const int here = nice_of_thread();
    std::optional<int> there;
    jobs.run(&asker, {}, nice_of_thread, [&](int nice) { there = nice; });
    ASSERT_TRUE(QTest::qWaitFor([&] { return there.has_value(); }, 5000));
    EXPECT_GT(*there, here);
    EXPECT_EQ(nice_of_thread(), here);
}

TEST(JobsTest, MemoryThatIsRefusedEndsAJobAndNotTheProcess) {
    skivet::app::Jobs jobs;
    QObject asker;
    QStringList failed;
    QObject::connect(&jobs, &skivet::app::Jobs::memory_failed, &asker, [&](const QString& what) { failed << what; });
    std::optional<skivet::Error> error;
    bool answered = false;
    jobs.run(
        &asker, QStringLiteral("a"), []() -> skivet::Result<int> { throw std::bad_alloc(); },
        [&](skivet::Result<int> result) {
            if (!result) error = result.error();
        });
    jobs.run(
        &asker, QStringLiteral("b"), []() -> bool { throw std::bad_alloc(); }, [&](bool) { answered = true; });
    jobs.quietly(skivet::app::Jobs::By::workers, [] { throw std::bad_alloc(); });
    ASSERT_TRUE(QTest::qWaitFor([&] { return error && failed.size() == 2 && !jobs.busy(); }, 10'000));
    EXPECT_EQ(error->code, skivet::ErrorCode::limit);
    EXPECT_NE(error->message().find("not enough memory"), std::string::npos);
    EXPECT_FALSE(answered);
    EXPECT_TRUE(failed.contains(QStringLiteral("b")));
}
