// The session without a window: what the pages rely on.
#include <gtest/gtest.h>

#include <QSignalSpy>
#include <QtTest>

#include "app/models/session.h"
#include "support/pictures.h"
#include "texture/png.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct SessionTest : testing::Test {
    TempFolder folder;
    std::filesystem::path zip;
    std::unique_ptr<Session> session;

    void SetUp() override {
        zip = folder / "game.zip";
        put_file(zip,
                 make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 1)}, {"a/two.dds", make_dds(Format::BC3, 32, 32, 0, 2), true}}));
        start();
    }
    void start() {
        session = std::make_unique<Session>();
        session->open(folder / "project", {}, {zip}, {});
        ASSERT_TRUE(wait([&] { return session->ready() && !session->busy(); }));
    }
    template <class Condition>
    bool wait(Condition condition) {
        return QTest::qWaitFor(condition, 30'000);
    }
    void take_all() {
        session->take({0, 1}, ExportAs::png);
        ASSERT_TRUE(wait([&] { return session->project().pieces.size() == 2 && !session->busy(); }));
    }
    void paint(std::size_t piece, Texel color) {
        const auto file = session->project().work() / session->project().pieces[piece].file;
        auto image = *read_png(get_file(file), ReadLimits{});
        for (std::uint32_t y = 8; y < 16; ++y)
            for (std::uint32_t x = 8; x < 16; ++x) image.at(x, y) = color;
        const auto seen = session->project().pieces[piece].seen_hash;
        put_file(file, *write_png(image));
        ASSERT_TRUE(wait([&] {
            return session->project().pieces[piece].seen_hash != seen &&
                   session->project().pieces[piece].seen_hash == to_hex(sha256(get_file(file)));
        }));
    }
    void plan_and_deliver(std::size_t expected) {
        session->make_plan();
        ASSERT_TRUE(wait([&] { return session->plan() && session->plan()->piece_count() == expected && !session->busy(); }));
        QSignalSpy delivered(session.get(), &Session::delivered);
        session->deliver();
        ASSERT_TRUE(wait([&] { return delivered.size() == 1 && !session->busy(); }));
    }
};

}  // namespace

TEST_F(SessionTest, TwoPiecesOfOneArchiveAreOneDelivery) {
    const auto hash = hash_of_file(zip);
    take_all();
    paint(0, {255, 0, 0, 255});
    paint(1, {0, 255, 0, 200});
    plan_and_deliver(2);
    ASSERT_EQ(session->history().size(), 1u);
    EXPECT_EQ(session->history()[0].title, "2 pieces into game.zip");
    EXPECT_NE(hash_of_file(zip), hash);
    for (const auto& piece : session->project().pieces) EXPECT_EQ(piece.state, PieceState::delivered);
    session->undo_all();
    ASSERT_TRUE(wait([&] { return session->history().empty() && !session->busy(); }));
    EXPECT_EQ(hash_of_file(zip), hash);
}

TEST_F(SessionTest, SeveralDeliveriesAreAllPutBack) {
    const auto hash = hash_of_file(zip);
    take_all();
    for (std::uint8_t round = 1; round <= 3; ++round) {
        paint(0, {std::uint8_t(round * 80), 0, 90, 255});
        plan_and_deliver(1);
    }
    ASSERT_EQ(session->history().size(), 3u);
    session->undo_all();
    ASSERT_TRUE(wait([&] { return session->history().empty() && !session->busy(); }));
    EXPECT_EQ(hash_of_file(zip), hash);
}

TEST_F(SessionTest, ADeliveredPieceThatIsEditedAgainIsFittedToTheOriginal) {
    take_all();
    paint(0, {255, 0, 0, 255});
    plan_and_deliver(1);
    // Painted back to what it was: the delivery must give the original bytes again.
    const auto& piece = session->project().pieces[0];
    const auto original = *TextureFile::open(TextureKinds::standard(), make_dds(Format::BC1, 32, 32, 0, 1), "x", ReadLimits{});
    const auto seen = piece.seen_hash;
    put_file(session->project().work() / piece.file, *export_png(original));
    ASSERT_TRUE(wait([&] { return session->project().pieces[0].seen_hash != seen; }));
    EXPECT_EQ(session->project().pieces[0].state, PieceState::changed);
    plan_and_deliver(1);
    const auto source = *open_source(Kinds{}, zip);
    EXPECT_EQ(*source->read(0, ReadLimits{}), make_dds(Format::BC1, 32, 32, 0, 1));
}

TEST_F(SessionTest, AHalfWrittenFileIsSaidAndThenRead) {
    take_all();
    const auto file = session->project().work() / session->project().pieces[0].file;
    const auto whole = *write_png(random_picture(32, 32, 7));
    put_file(file, ByteSpan(whole).first(whole.size() / 2));
    ASSERT_TRUE(wait([&] { return session->project().pieces[0].state == PieceState::changed; }));
    ASSERT_TRUE(wait([&] { return session->fit(0) != nullptr; }));
    EXPECT_TRUE(session->fit(0)->error);
    put_file(file, whole);
    ASSERT_TRUE(wait([&] {
        const auto fitted = session->fit(0);
        return fitted && !fitted->error;
    }));
}

TEST_F(SessionTest, ThumbnailsArriveAndAreKept) {
    QSignalSpy ready(session.get(), &Session::thumbnail_ready);
    EXPECT_TRUE(session->thumbnail(0).isNull());
    EXPECT_TRUE(session->thumbnail(0).isNull()) << "asked for twice, made once";
    ASSERT_TRUE(wait([&] { return ready.size() == 1; }));
    EXPECT_EQ(session->thumbnail(0).size(), QSize(32, 32));
    EXPECT_TRUE(session->thumbnail(99).isNull());
}

TEST_F(SessionTest, AnUpdateOfTheGameIsNoticedAtTheNextStart) {
    take_all();
    session.reset();
    put_file(zip, make_zip({{"a/one.dds", make_dds(Format::BC1, 32, 32, 0, 8)}, {"a/two.dds", make_dds(Format::BC3, 32, 32, 0, 2), true}}));
    start();
    EXPECT_EQ(session->project().pieces[0].state, PieceState::gone_stale);
    EXPECT_EQ(session->project().pieces[1].state, PieceState::out);
    session->take_again(0);
    ASSERT_TRUE(wait([&] { return session->project().pieces.size() == 2 && !session->busy(); }));
    EXPECT_EQ(session->project().pieces[1].state, PieceState::out);
}

TEST_F(SessionTest, AnUnfinishedDeliveryIsRolledBackAtTheStart) {
    const auto before = get_file(zip);
    session.reset();
    // As a crash leaves it: a complete journal, the archive half written.
    PosixFiles files;
    const auto source = *open_source(Kinds{}, zip);
    const auto plan = *source->plan(std::vector<Replacement>{{1, random_bytes(3000, 1)}}, ReadLimits{});
    Vault vault(folder / "project/vault", files);
    const auto journal = *vault.deliver(plan, {"t", zip, {}}, 1);
    std::filesystem::rename(folder / "project/vault" / (journal.id + ".kept"), folder / "project/vault" / (journal.id + ".pending"));
    auto half = get_file(zip);
    half.resize(half.size() - 100);
    put_file(zip, half);
    session = std::make_unique<Session>();
    QSignalSpy notice(session.get(), &Session::notice);
    session->open(folder / "project", {}, {zip}, {});
    ASSERT_TRUE(wait([&] { return session->ready(); }));
    EXPECT_EQ(get_file(zip), before);
    ASSERT_GE(notice.size(), 1);
    EXPECT_TRUE(notice[0][0].toString().contains("The old bytes were put back"));
}

TEST_F(SessionTest, TheGameNeedsACommand) {
    QSignalSpy notice(session.get(), &Session::notice);
    EXPECT_FALSE(session->try_in_game());
    EXPECT_EQ(notice.size(), 1);
    session->set_commands({}, {"/nowhere/at/all"});
    EXPECT_TRUE(session->try_in_game());
    ASSERT_TRUE(wait([&] { return notice.size() == 2; }));
    EXPECT_TRUE(notice[1][0].toString().contains("could not be started"));
}

TEST_F(SessionTest, TheEditorOfTheSettingsIsStartedWithTheFile) {
    take_all();
    session->set_commands({"sh", "-c", "cp \"$0\" \"$0.opened\""}, {});
    session->open_to_edit(0);
    const auto opened = session->project().work() / session->project().pieces[0].file;
    ASSERT_TRUE(wait([&] { return std::filesystem::exists(opened.string() + ".opened"); }));
}

TEST_F(SessionTest, AddingASourceTwiceIsSaidAndRemovingWorks) {
    QSignalSpy notice(session.get(), &Session::notice);
    session->add_source(zip);
    EXPECT_EQ(notice.size(), 1);
    session->remove_source(0);
    ASSERT_TRUE(wait([&] { return session->stock()->sources.empty() && !session->busy(); }));
    EXPECT_TRUE(std::filesystem::exists(zip)) << "the file stays";
}

TEST_F(SessionTest, ADamagedProjectIsNotOverwritten) {
    session.reset();
    put_file(folder / "project/project.json", bytes_of("not json"));
    session = std::make_unique<Session>();
    QSignalSpy notice(session.get(), &Session::notice);
    session->open(folder / "project", {}, {zip}, {});
    ASSERT_TRUE(wait([&] { return notice.size() == 1 && !session->busy(); }));
    EXPECT_EQ(as_text(get_file(folder / "project/project.json")), "not json");
}
