// What makes it a desktop program: long work in one place, what the desktop is told, how things are left and found again, textures that are
// dragged and copied, the first hints, the guide, and what assistive programs see.
#include <gtest/gtest.h>
#include <sys/wait.h>
#include <filesystem>
#include <QAccessible>
#include <QClipboard>
#include <QListWidget>
#include <QProgressBar>
#include <QSplitter>
#include <QTextBrowser>
#include <string>
#include <thread>
#include <vector>

#include "app/crash_report.h"
#include "app/guide_window.h"
#include "app/models/left_state.h"
#include "app/models/preferences.h"
#include "app/pages/catalog_page.h"
#include "app/pages/mip_strip.h"
#include "app/pages/page_list.h"
#include "app/pages/sources_page.h"
#include "app/widgets/byte_map.h"
#include "app/widgets/route.h"
#include "app/work_panel.h"
#include "base/file_write.h"
#include "support/pictures.h"
#include "texture/dds.h"
#include "texture/png.h"
#include "ui/window_test.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;
namespace fs = std::filesystem;

namespace {

struct Desktop : WindowTest {
    void SetUp() override { qputenv("XDG_CACHE_HOME", (folder / "cache").c_str()); }
    void TearDown() override {
        LeftState::the().load({});
        Preferences::the().change([](Settings& s) { s = {}; });
        qunsetenv("XDG_CACHE_HOME");
    }
    fs::path archive(const char* name = "one.zip") {
        const auto file = folder / name;
        put_file(file, make_zip({{"a/horse.dds", make_dds(Format::BC1, 64, 64, 0, 1)},
                                 {"a/swan.dds", make_dds(Format::BC3, 32, 32, 0, 2)},
                                 {"b/tent.dds", make_dds(Format::BC1, 16, 16, 0, 3)}}));
        return file;
    }
    std::size_t item(const QString& name) {
        const auto snapshot = models.catalog.snapshot();
        for (std::size_t i = 0; i < snapshot->catalog.items.size(); ++i)
            if (QString::fromStdString(snapshot->catalog.items[i].name()).contains(name)) return i;
        ADD_FAILURE() << "no " << name.toStdString();
        return 0;
    }
    CatalogPage* catalog() { return window->page<CatalogPage>(); }
    void show_texture(const QString& name, int width = 64) {
        window->go_to(PageId::catalog);
        const int row = catalog()->model()->row_of(item(name));
        ASSERT_GE(row, 0);
        catalog()->contact_sheet()->setCurrentIndex(catalog()->model()->index(row));
        ASSERT_TRUE(
            wait([&] { return catalog()->viewer()->item() == item(name) && catalog()->viewer()->view()->image().width() == width; }));
    }
};

}  // namespace

TEST_F(Desktop, AllLongWorkIsShownInOnePlaceWithRateAndTimeLeft) {
    open({archive()});
    auto progress = models.jobs.shown_progress(QStringLiteral("Counting sheep"));
    progress->total = 2000;
    QTest::keyClick(window.get(), Qt::Key_R, Qt::ControlModifier);
    auto* panel = window->findChild<WorkPanel*>();
    ASSERT_TRUE(panel && panel->isVisible());
    QElapsedTimer clock;
    clock.start();
    ASSERT_TRUE(wait([&] {  // a hundred a second
        progress->done = quint64(clock.elapsed() / 10);
        const auto work = models.jobs.work();
        return work.size() == 1 && work[0].rate > 0 && clock.elapsed() > 1500;
    }));
    const auto work = models.jobs.work();
    EXPECT_NEAR(work[0].rate, 100, 30);
    ASSERT_TRUE(work[0].left());
    EXPECT_NEAR(*work[0].left(), double(2000 - progress->done) / work[0].rate, 0.01);
    EXPECT_TRUE(says("Counting sheep"));
    EXPECT_TRUE(says("of " + QLocale().toString(2000)));
    EXPECT_TRUE(says("left"));
    auto* bar = panel->findChild<QProgressBar*>();
    ASSERT_TRUE(bar);
    EXPECT_NEAR(bar->value(), int(progress->done / 2), 60);
    // It can be ended there.
    for (auto* button : panel->findChildren<QPushButton*>())
        if (button->isVisible() && button->text() == QLatin1String("Cancel")) QTest::mouseClick(button, Qt::LeftButton);
    EXPECT_TRUE(progress->cancel.canceled());
    progress.reset();
    ASSERT_TRUE(wait([&] { return says("Nothing runs."); }));
    // What was named and took long is listed as done.
    models.jobs.run(
        window.get(), QStringLiteral("Sleeping"), [] { return QThread::msleep(1100), 0; }, [](int) {});
    ASSERT_TRUE(wait([&] { return says("Sleeping · in 2 s"); }));
    QTest::keyClick(panel, Qt::Key_Escape);
    EXPECT_FALSE(panel->isVisible());
}

TEST_F(Desktop, WorkIsHaltedAndGoesOn) {
    open({archive()});
    bool halted = false;
    auto progress = models.jobs.shown_progress(QStringLiteral("Knitting"), [&](bool halt) { halted = halt; });
    progress->total = 10;
    const auto id = models.jobs.id_of(progress);
    ASSERT_TRUE(id);
    QTest::keyClick(window.get(), Qt::Key_R, Qt::ControlModifier);
    auto* panel = window->findChild<WorkPanel*>();
    const auto button = [&](const char* text) -> QPushButton* {
        for (auto* one : panel->findChildren<QPushButton*>())
            if (one->isVisible() && one->text() == QLatin1String(text)) return one;
        return nullptr;
    };
    ASSERT_TRUE(wait([&] { return button("Halt") && button("Halt")->height() > 10; }));
    QTest::mouseClick(button("Halt"), Qt::LeftButton);
    EXPECT_TRUE(halted);
    EXPECT_TRUE(models.jobs.work().at(0).paused);
    EXPECT_FALSE(models.jobs.work().at(0).left());
    ASSERT_TRUE(wait([&] { return says("halted") && says("Halted: Knitting"); }));
    // Whoever did it may have let go of it meanwhile: it can still be seen and go on.
    progress.reset();
    QTest::qWait(250);
    ASSERT_EQ(models.jobs.work().size(), 1u);
    QTest::mouseClick(button("Go on"), Qt::LeftButton);
    EXPECT_FALSE(halted);
    ASSERT_TRUE(wait([&] { return models.jobs.work().empty(); }));
}

TEST_F(Desktop, LookingAtPicturesIsHaltedAndGoesOnFromTheIndex) {
    std::vector<ZipItem> items;
    for (int i = 0; i < 200; ++i) items.push_back({"a/" + std::to_string(i) + ".dds", make_dds(Format::BC7, 512, 512, 0, unsigned(i))});
    put_file(folder / "many.zip", make_zip(items));
    window = std::make_unique<Workspace>(models);
    models.store.open({folder / "project", {}, {folder / "many.zip"}, {}});
    window->show();
    const auto looking = [&]() -> std::optional<Jobs::Work> {
        for (const auto& work : models.jobs.work())
            if (work.what == QLatin1String("Looking at pictures") && work.can_pause) return work;
        return std::nullopt;
    };
    ASSERT_TRUE(wait([&] { return looking().has_value(); }));
    models.jobs.pause(looking()->id, true);
    ASSERT_TRUE(wait([&] { return !models.jobs.busy(); }));
    const auto unseen = models.catalog.unseen();
    if (unseen == 0) GTEST_SKIP() << "this machine was faster than the halt";
    QTest::qWait(400);
    EXPECT_EQ(models.catalog.unseen(), unseen) << "nothing is looked at meanwhile";
    ASSERT_TRUE(looking() && looking()->paused);
    models.jobs.pause(looking()->id, false);
    ASSERT_TRUE(wait([&] { return models.catalog.unseen() == 0 && !looking(); }));
}

TEST_F(Desktop, TheDesktopIsToldWhenLongWorkEndsBehindAnotherWindow) {
    open({archive()});
    std::vector<QString> told;
    window->tell_desktop = [&](const QString& title, const QString& text) { told.push_back(title + '|' + text); };
    emit models.jobs.work_ended(QStringLiteral("Delivering"), 60);
    EXPECT_TRUE(told.empty()) << "the window is in front";
    window->hide();
    ASSERT_TRUE(wait([] { return QApplication::activeWindow() == nullptr; }));
    emit models.jobs.work_ended(QStringLiteral("Delivering"), 2);
    EXPECT_TRUE(told.empty()) << "short work is waited for";
    emit models.jobs.work_ended(QStringLiteral("Delivering"), 75);
    ASSERT_EQ(told.size(), 1u);
    EXPECT_EQ(told[0], "Delivering: done|project, in 1 min 15 s");
    models.messages.complain(Error{ErrorCode::io, "the disk is full", {}, {}, {}});
    emit models.jobs.work_ended(QStringLiteral("Delivering"), 75);
    ASSERT_EQ(told.size(), 2u);
    EXPECT_EQ(told[1], "Delivering: not done|the disk is full");
    // What was refused meanwhile says nothing about the work.
    models.messages.refuse("There is no picture in the clipboard.");
    emit models.jobs.work_ended(QStringLiteral("Delivering"), 75);
    ASSERT_EQ(told.size(), 3u);
    EXPECT_EQ(told[2], "Delivering: done|project, in 1 min 15 s");
}

TEST_F(Desktop, DurationsAreWrittenForPeople) {
    EXPECT_EQ(duration_text(0.2), "1 s");
    EXPECT_EQ(duration_text(59), "59 s");
    EXPECT_EQ(duration_text(200), "3 min 20 s");
    EXPECT_EQ(duration_text(7500), "2 h 5 min");
}

TEST_F(Desktop, ThePlaceOneWasAtComesBack) {
    LeftState::the().load(folder / "left.json");
    open({archive("one.zip")});
    show_texture("swan", 32);
    catalog()->search()->setText("a/");
    catalog()->contact_sheet()->set_card_width(200);
    show_texture("swan", 32);
    window->keep_view();
    window.reset();
    LeftState::the().flush();
    // Another process.
    LeftState::the().load(folder / "left.json");
    Models again;
    auto second = std::make_unique<Workspace>(again);
    models.store.close();
    again.store.open({folder / "project", {}, {}, {}});
    second->show();
    ASSERT_TRUE(wait([&] { return again.sources.ready() && !again.jobs.busy(); }));
    EXPECT_EQ(second->current(), PageId::catalog);
    const auto* page = second->page<CatalogPage>();
    EXPECT_EQ(page->search()->text(), "a/");
    EXPECT_EQ(page->contact_sheet()->card_width(), 200);
    ASSERT_TRUE(wait([&] { return page->viewer()->item() < again.catalog.snapshot()->catalog.items.size(); }));
    EXPECT_EQ(again.catalog.snapshot()->catalog.items[page->viewer()->item()].name(), "swan");
    second.reset();
}

TEST_F(Desktop, HowThingsWereLeftIsBoundedAndSurvivesRubbish) {
    const auto file = folder / "left.json";
    put_file(file, as_bytes("{ this is no JSON"));
    auto& left = LeftState::the();
    left.load(file);
    EXPECT_TRUE(left.value("views", "x").isUndefined());
    for (int i = 0; i < 200; ++i) left.set("views", QString::number(i), i);
    left.flush();
    left.load(file);
    EXPECT_EQ(left.value("views", "199").toInt(), 199);
    EXPECT_TRUE(left.value("views", "0").isUndefined()) << "those set longest ago are forgotten";
    EXPECT_EQ(left.value("views", "140").toInt(), 140);
    EXPECT_LT(fs::file_size(file), 10'000u);
    // Sizes of windows and columns.
    QDialog dialog;
    dialog.resize(400, 300);
    keep_size(&dialog, "a-dialog");
    dialog.show();
    dialog.resize(520, 410);
    dialog.hide();
    QDialog other;
    keep_size(&other, "a-dialog");
    EXPECT_EQ(other.size(), QSize(520, 410));
}

TEST_F(Desktop, SmallPicturesAreFinerWhereTheyAreShownLarger) {
    const auto file = folder / "large.zip";
    put_file(file, make_zip({{"a/large.dds", make_dds(Format::BC1, 1024, 512, 0, 1)}}));
    open({file});
    auto& pictures = models.catalog.pictures();
    QImage image;
    ASSERT_TRUE(wait([&] { return !(image = pictures.of(0)).isNull(); }));
    EXPECT_EQ(image.size(), QSize(128, 64));
    EXPECT_EQ(pictures.of(0, 140).width(), 128) << "hardly enlarged";
    EXPECT_EQ(pictures.of(0, 264).width(), 128) << "what is there, until the finer one is";
    ASSERT_TRUE(wait([&] { return pictures.of(0, 264).width() == 256; }));
    ASSERT_TRUE(wait([&] { return pictures.of(0, 600).width() == 512; }));
    EXPECT_EQ(pictures.of(0).width(), 128);
}

TEST_F(Desktop, TexturesAreDraggedOutAsFiles) {
    open({archive()});
    show_texture("horse");
    std::vector<std::unique_ptr<QMimeData>> dragged;
    catalog()->begin_drag = [&](QMimeData* files, const QPixmap&) { dragged.emplace_back(files); };
    // By the mouse, from the chosen card.
    auto* sheet = catalog()->contact_sheet();
    const auto at = sheet->visualRect(sheet->currentIndex()).center();
    QTest::mousePress(sheet->viewport(), Qt::LeftButton, {}, at);
    for (int x = 1; x < 5; ++x) {
        QMouseEvent move(QEvent::MouseMove, at + QPoint(10 * x, 0), sheet->viewport()->mapToGlobal(at + QPoint(10 * x, 0)), Qt::NoButton,
                         Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(sheet->viewport(), &move);
    }
    ASSERT_TRUE(wait([&] { return !dragged.empty(); }));
    QTest::mouseRelease(sheet->viewport(), Qt::LeftButton, {}, at);
    ASSERT_EQ(dragged[0]->urls().size(), 1);
    const auto file = fs::path(dragged[0]->urls()[0].toLocalFile().toStdString());
    EXPECT_EQ(file.filename(), "horse.png");
    EXPECT_TRUE(lies_in(file, folder / "cache"));
    const auto picture = read_png(get_file(file), ReadLimits{});
    ASSERT_TRUE(picture);
    EXPECT_EQ(picture->width, 64u);
    EXPECT_TRUE(dragged[0]->hasImage()) << "for programs that take pictures and no files";
    // Several at once.
    sheet->selectAll();
    emit sheet->dragged();
    ASSERT_TRUE(wait([&] { return dragged.size() == 2; }));
    EXPECT_EQ(dragged[1]->urls().size(), 3);
    EXPECT_FALSE(dragged[1]->hasImage());
}

TEST_F(Desktop, ThePictureThatIsShownIsCopied) {
    open({archive()});
    show_texture("swan", 32);
    QTest::keyClick(catalog()->contact_sheet(), Qt::Key_C, Qt::ControlModifier);
    const auto image = QApplication::clipboard()->image();
    EXPECT_EQ(image.size(), QSize(32, 32));
    EXPECT_EQ(image.convertToFormat(QImage::Format_RGBA8888),
              catalog()->viewer()->view()->image().convertToFormat(QImage::Format_RGBA8888));
}

TEST_F(Desktop, EachPageHasAHintUntilItIsPutAway) {
    open({archive()});
    const auto hint = [&] { return window->findChild<QFrame*>("hint"); };
    for (const auto& row : page_list()) {
        window->go_to(row.id);
        ASSERT_TRUE(hint() && hint()->isVisible()) << row.title;
        EXPECT_TRUE(says(row.hint_text())) << row.title;
    }
    window->go_to(PageId::bench);
    QTest::mouseClick(window->findChild<QPushButton*>("hint_seen"), Qt::LeftButton);
    EXPECT_FALSE(hint()->isVisible());
    EXPECT_EQ(Preferences::the().settings().hints_seen, std::vector<std::string>{"bench"});
    window->go_to(PageId::catalog);
    EXPECT_TRUE(hint()->isVisible());
    window->go_to(PageId::bench);
    EXPECT_FALSE(hint()->isVisible());
}

TEST_F(Desktop, TheGuideOpensWhereItIsAboutWhatOneDoes) {
    open({archive()});
    for (const auto& [page, chapter] : {std::pair{PageId::catalog, "catalog"}, std::pair{PageId::delivery, "delivery"}}) {
        window->go_to(page);
        show_guide(window->current_page());
        auto* guide = window->findChild<GuideWindow*>();
        ASSERT_TRUE(guide);
        EXPECT_EQ(guide->chapter(), chapter);
        EXPECT_TRUE(guide->text()->toPlainText().size() > 300);
        guide->close();
        ASSERT_TRUE(wait([&] { return window->findChild<GuideWindow*>() == nullptr; }));
    }
}

TEST_F(Desktop, TheGuideIsWholeAndItsLinksAndPicturesLeadSomewhere) {
    const auto chapters = guide_chapters();
    EXPECT_GE(chapters.size(), 10);
    for (const auto& row : page_list()) EXPECT_TRUE(chapters.contains(QString::fromLatin1(row.title).toLower())) << row.title;
    const auto german = QStringLiteral(":/guide/de/%1.md");
    for (const auto& chapter : chapters) {
        for (const auto& place : {QStringLiteral(":/guide/en/%1.md").arg(chapter), german.arg(chapter)}) {
            QFile file(place);
            ASSERT_TRUE(file.open(QIODevice::ReadOnly)) << place.toStdString();
            const auto text = QString::fromUtf8(file.readAll());
            EXPECT_TRUE(text.startsWith("# "));
            static const QRegularExpression links("\\]\\(([^)#]+)[^)]*\\)");
            for (auto found = links.globalMatch(text); found.hasNext();) {
                const auto to = found.next().captured(1);
                if (to.endsWith(".png")) EXPECT_TRUE(QFile::exists(":/guide/pictures/" + QFileInfo(to).fileName())) << to.toStdString();
                else EXPECT_TRUE(chapters.contains(QFileInfo(to).completeBaseName())) << place.toStdString() << ": " << to.toStdString();
            }
        }
        // The same parts in both languages.
        QFile english(QStringLiteral(":/guide/en/%1.md").arg(chapter)), other(german.arg(chapter));
        ASSERT_TRUE(english.open(QIODevice::ReadOnly) && other.open(QIODevice::ReadOnly));
        const auto count = [](const QString& text, const char* what) { return text.count(QLatin1String(what)); };
        const auto a = QString::fromUtf8(english.readAll()), b = QString::fromUtf8(other.readAll());
        EXPECT_EQ(count(a, "\n## "), count(b, "\n## ")) << chapter.toStdString();
        EXPECT_EQ(count(a, "\n- "), count(b, "\n- ")) << chapter.toStdString();
        EXPECT_EQ(count(a, "![") + count(a, ".md)"), count(b, "![") + count(b, ".md)")) << chapter.toStdString();
    }
    // Every chapter a window is about is there.
    for (const auto* widget : QApplication::allWidgets())
        if (const auto about = widget->property("guide_chapter").toString(); !about.isEmpty()) EXPECT_TRUE(chapters.contains(about));
}

TEST_F(Desktop, TheGuideIsSearched) {
    EXPECT_TRUE(find_in_guide("xyzzyplugh").empty());
    const auto hits = find_in_guide("halted canceled");
    ASSERT_FALSE(hits.empty());
    const auto titled = find_in_guide("raw lens");
    ASSERT_FALSE(titled.empty());
    EXPECT_EQ(titled[0].title, "The raw lens") << "what says it in its title comes first";
    EXPECT_EQ(titled[0].chapter, "workshop");
    GuideWindow guide(nullptr);
    guide.setAttribute(Qt::WA_DeleteOnClose, false);
    guide.open_part("games");
    guide.show();
    EXPECT_EQ(guide.list()->count(), guide_chapters().size());
    QTest::keyClicks(guide.search(), "raw lens");
    EXPECT_LT(guide.list()->count(), guide_chapters().size() + 5);
    QTest::keyClick(guide.search(), Qt::Key_Return);
    EXPECT_EQ(guide.chapter(), "workshop");
    EXPECT_FALSE(guide.text()->extraSelections().isEmpty()) << "the words are lit";
    EXPECT_GT(guide.text()->verticalScrollBar()->value(), 0) << "at the heading";
    QTest::keyClick(guide.search(), Qt::Key_Escape);
    EXPECT_TRUE(guide.search()->text().isEmpty());
    EXPECT_TRUE(guide.isVisible()) << "the first Esc leaves the search";
}

TEST_F(Desktop, AssistiveProgramsSeeTheRouteAsPages) {
    open({archive()});
    auto* route = window->findChild<Route*>();
    auto* seen = QAccessible::queryAccessibleInterface(route);
    ASSERT_TRUE(seen);
    EXPECT_EQ(seen->role(), QAccessible::PageTabList);
    ASSERT_EQ(seen->childCount(), int(page_list().size()));
    for (int i = 0; i < seen->childCount(); ++i) {
        auto* station = seen->child(i);
        ASSERT_TRUE(station && station->isValid());
        EXPECT_EQ(station->role(), QAccessible::PageTab);
        EXPECT_TRUE(station->text(QAccessible::Name).startsWith(page_list()[std::size_t(i)].title_text()));
        EXPECT_EQ(station->parent(), seen);
        EXPECT_EQ(seen->indexOfChild(station), i);
        const auto middle = station->rect().center();
        EXPECT_EQ(seen->childAt(middle.x(), middle.y()), station);
    }
    EXPECT_EQ(seen->child(1)->text(QAccessible::Name), "Catalog, 3");
    EXPECT_TRUE(seen->child(0)->state().selected);
    seen->child(1)->actionInterface()->doAction(QAccessibleActionInterface::pressAction());
    EXPECT_EQ(window->current(), PageId::catalog);
    EXPECT_TRUE(seen->child(1)->state().selected);
    EXPECT_FALSE(seen->child(0)->state().selected);
    EXPECT_EQ(seen->child(7), nullptr);
}

TEST_F(Desktop, AssistiveProgramsReadWhatIsDrawn) {
    open({archive()});
    auto* map = QAccessible::queryAccessibleInterface(window->findChild<ByteMap*>());
    ASSERT_TRUE(map);
    EXPECT_EQ(map->role(), QAccessible::Graphic);
    EXPECT_EQ(map->text(QAccessible::Name), "Byte map");
    EXPECT_TRUE(map->text(QAccessible::Value).contains("textures")) << map->text(QAccessible::Value).toStdString();
    show_texture("horse");
    auto* picture = QAccessible::queryAccessibleInterface(catalog()->viewer()->view());
    ASSERT_TRUE(picture);
    EXPECT_EQ(picture->role(), QAccessible::Graphic);
    EXPECT_TRUE(picture->text(QAccessible::Value).startsWith("64×64, at ")) << picture->text(QAccessible::Value).toStdString();
    auto* mips = QAccessible::queryAccessibleInterface(catalog()->viewer()->findChild<MipStrip*>());
    ASSERT_TRUE(wait([&] { return mips->childCount() > 3; }));
    EXPECT_EQ(mips->role(), QAccessible::List);
    EXPECT_EQ(mips->child(1)->text(QAccessible::Name), "Mip 1, 32×32");
    mips->child(2)->actionInterface()->doAction(QAccessibleActionInterface::pressAction());
    ASSERT_TRUE(wait([&] { return mips->child(2)->state().selected; }));
    EXPECT_EQ(mips->text(QAccessible::Value), "Mip 2, 16×16");
    // The cards are a table's cells with their names.
    auto* sheet = QAccessible::queryAccessibleInterface(catalog()->contact_sheet());
    ASSERT_TRUE(sheet);
    QStringList names;
    for (int i = 0; i < sheet->childCount(); ++i)
        if (sheet->child(i)) names << sheet->child(i)->text(QAccessible::Name);
    EXPECT_EQ(sheet->childCount(), catalog()->model()->rowCount());
    EXPECT_TRUE(names.contains("horse")) << names.join('|').toStdString();
}

TEST_F(Desktop, EverythingThatTakesTheFocusHasAName) {
    open({archive()});
    window->resize(1280, 800);
    for (const auto& row : page_list()) {
        window->go_to(row.id);
        QTest::qWait(1);
        for (auto* widget : window->findChildren<QWidget*>()) {
            if (!widget->isVisible() || widget->focusPolicy() == Qt::NoFocus || !widget->isEnabled()) continue;
            const auto* parent = widget->parentWidget();
            if (qobject_cast<QScrollBar*>(widget) ||
                (parent && qobject_cast<const QAbstractScrollArea*>(parent) && widget->objectName().startsWith("qt_")))
                continue;
            if (qobject_cast<QScrollArea*>(widget) || widget->inherits("QHeaderView")) continue;
            auto* seen = QAccessible::queryAccessibleInterface(widget);
            ASSERT_TRUE(seen);
            EXPECT_FALSE(seen->text(QAccessible::Name).isEmpty())
                << row.title << ": " << widget->metaObject()->className() << " " << widget->objectName().toStdString();
        }
    }
}

// A program that runs into a fault leaves a report, which the next start finds once.
TEST_F(Desktop, AFaultLeavesAReport) {
    for (const int how : {0, 1}) {
        const auto place = folder / ("state" + std::to_string(how));
        const auto child = ::fork();
        ASSERT_GE(child, 0);
        if (child == 0) {
            report_crashes(place, "9.8.7");
            // The parent's runtime may look at signals, too; ours is set after it.
            if (how == 0) ::raise(SIGSEGV);
            std::thread([] { throw std::runtime_error("the wheel came off"); }).join();
            ::_exit(0);
        }
        int status = 0;
        ASSERT_EQ(::waitpid(child, &status, 0), child);
        EXPECT_TRUE(WIFSIGNALED(status)) << "it ends by the signal all the same";
        EXPECT_EQ(WTERMSIG(status), how == 0 ? SIGSEGV : SIGABRT);
        const auto report = take_crash_report(place);
        ASSERT_TRUE(report);
        const auto text = std::string(as_text(get_file(*report)));
        EXPECT_NE(text.find("9.8.7"), std::string::npos) << text;
        EXPECT_NE(text.find(how == 0 ? "SIGSEGV" : "the wheel came off"), std::string::npos) << text;
        EXPECT_NE(text.find("ui_tests"), std::string::npos) << "where: " << text;
        EXPECT_FALSE(take_crash_report(place)) << "it is told once";
    }
}
