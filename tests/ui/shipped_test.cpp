// Versions of the game as they were shipped: recorded, an update seen against it, compared with, forgotten.
#include <gtest/gtest.h>
#include <filesystem>
#include <functional>
#include <QLineEdit>
#include <QPushButton>
#include <utility>

#include "app/pages/sources_page.h"
#include "app/widgets/card_rows.h"
#include "app/workshop/shipped_window.h"
#include "support/places.h"
#include "ui/trip.h"

using namespace skivet;
using namespace skivet::app;
using namespace skivet::test;

namespace {

struct Shipping : Trip {
    bool says(QWidget* in, const QString& text) {
        for (const auto* label : in->findChildren<QLabel*>())
            if (label->isVisible() && label->text().contains(text, Qt::CaseInsensitive)) return true;
        return false;
    }
    bool has_button(const QString& text) {
        for (const auto* button : window->findChildren<QAbstractButton*>())
            if (button->isVisible() && button->text().contains(text)) return true;
        return false;
    }
    bool looked_at() {
        return wait([&] { return models.catalog.unseen() == 0 && models.sources.ready() && !models.jobs.busy(); });
    }
};

}  // namespace

TEST_F(Shipping, AVersionIsRecordedAndAnUpdateIsSeenAgainstIt) {
    ASSERT_TRUE(looked_at());
    window->go_to(PageId::sources);
    press(Qt::Key_B, Qt::ControlModifier);
    auto* shipped = window->findChild<ShippedWindow*>();
    ASSERT_TRUE(shipped);
    ASSERT_TRUE(wait([&] { return says(shipped, "nothing is recorded yet"); }));
    auto* name = shipped->findChild<QLineEdit*>("version_name");
    shipped->activateWindow();  // under Xvfb there is no window manager that would
    ASSERT_TRUE(wait([&] { return name->hasFocus(); })) << "what is to be written first";
    QTest::keyClicks(name, "season one");
    press(Qt::Key_Return);
    ASSERT_TRUE(wait([&] { return shipped->versions()->model()->rowCount() == 1 && says(shipped, "everything is as in season one"); }));
    ASSERT_TRUE(looked_at());
    EXPECT_TRUE(shipped->versions()->model()->index(0, 0).data(CardUnder).toString().contains("as installed now"));

    const auto two = folder / "two";
    ASSERT_EQ(run_program({our_program("fair-press"), two.string(), "--update", "2"}).code, 0);
    models.update.look_if_changed();  // as the window does when it comes to the front
    ASSERT_TRUE(looked_at());
    for (const auto& item : std::filesystem::directory_iterator(two))
        if (item.is_regular_file()) {
            std::filesystem::remove(game / item.path().filename());
            std::filesystem::copy_file(item.path(), game / item.path().filename());
        }
    QSignalSpy notice(&models.messages, &Messages::notice);
    models.update.look_if_changed();
    ASSERT_TRUE(wait([&] { return shipped->changes()->model()->rowCount() > 5; })) << "seen by itself";
    ASSERT_TRUE(looked_at());
    EXPECT_TRUE(has_button("other than in season one"));
    EXPECT_TRUE(
        std::any_of(notice.begin(), notice.end(), [](const auto& n) { return n[0].toString().contains("changed by something else"); }));
    const auto views = shipped->findChildren<ImageView*>();
    ASSERT_EQ(views.size(), 2);
    ASSERT_TRUE(wait([&] { return !views[0]->image().isNull() && !views[1]->image().isNull(); })) << "as it was, small, and as it is";

    // The new version under its name; then back to the first one.
    QTest::keyClicks(name, "season two");
    QTest::mouseClick(shipped->findChild<QPushButton*>("record_version"), Qt::LeftButton);
    ASSERT_TRUE(wait([&] { return shipped->versions()->model()->rowCount() == 2 && says(shipped, "everything is as in season two"); }));
    ASSERT_TRUE(looked_at());
    shipped->activateWindow();
    shipped->versions()->setFocus();
    shipped->versions()->setCurrentIndex(shipped->versions()->model()->index(0, 0));
    press(Qt::Key_Return, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return says(shipped, "other than in season one"); }));
    ASSERT_TRUE(looked_at());
    bool known = false;
    for (int row = 0; row < shipped->changes()->model()->rowCount(); ++row)
        known = known || shipped->changes()->model()->index(row, 0).data(CardUnder).toString().contains("as in season two");
    EXPECT_TRUE(known);
    shipped->versions()->setCurrentIndex(shipped->versions()->model()->index(1, 0));
    press(Qt::Key_Delete, Qt::ControlModifier);
    ASSERT_TRUE(wait([&] { return shipped->versions()->model()->rowCount() == 1; }));
    // It is written beside the window.
    EXPECT_TRUE(wait([&] { return open_project(folder / "project")->shipped.size() == 1; }));
}

TEST_F(Shipping, APartOfTheGameIsNeitherRecordedNorCompared) {
    ASSERT_TRUE(looked_at());
    const auto folder_of_project = models.store.project().folder;
    const auto open_again = [&](const std::function<void()>& at_first) {
        // What the index remembers is shown before the sources are open.
        bool partial = false;
        const auto connection = QObject::connect(&models.catalog, &CatalogModel::catalog_changed, window.get(), [&] {
            if (!models.catalog.snapshot()->whole && !std::exchange(partial, true)) at_first();
        });
        models.store.open({folder_of_project, {}, {}, {}});
        const bool done = wait([&] { return partial; }) && looked_at();
        QObject::disconnect(connection);
        return done;
    };
    QSignalSpy notice(&models.messages, &Messages::notice);
    ASSERT_TRUE(open_again([&] { models.shipped.record("half of it"); }));
    EXPECT_TRUE(
        std::any_of(notice.begin(), notice.end(), [](const auto& n) { return n[0].toString().contains("nothing whole to record"); }));
    EXPECT_FALSE(models.store.has_baseline());

    models.shipped.record("all of it");
    ASSERT_TRUE(wait([&] { return models.store.has_baseline(); }) && looked_at());
    QSignalSpy compared(&models.shipped, &ShippedModel::changed);
    bool begun = true;
    ASSERT_TRUE(open_again([&] {
        models.shipped.look();
        const auto work = models.jobs.work();
        begun = std::any_of(work.begin(), work.end(), [](const auto& w) { return w.what.contains("Comparing"); });
    }));
    EXPECT_FALSE(begun);
    ASSERT_TRUE(wait([&] { return !compared.empty(); })) << "when all of it is there";
    EXPECT_TRUE(models.shipped.seen()->changes.empty());
}
