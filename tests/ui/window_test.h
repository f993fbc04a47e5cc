#pragma once
// The real window on a project of its own.
#include <gtest/gtest.h>

#include <functional>
#include <QApplication>
#include <QListView>
#include <QtTest>

#include "app/models/models.h"
#include "app/workspace.h"
#include "support/temp_folder.h"

namespace skivet::test {

struct WindowTest : testing::Test {
    TempFolder folder;
    app::Models models;
    std::unique_ptr<app::Workspace> window;

    void open(const std::vector<std::filesystem::path>& sources) {
        window = std::make_unique<app::Workspace>(models);
        models.store.open({folder / "project", {}, sources, {}});
        window->show();
        ASSERT_TRUE(QTest::qWaitFor([&] { return models.sources.ready() && !models.jobs.busy(); }, 30'000));
    }
    bool wait(const std::function<bool()>& until) { return QTest::qWaitFor(until, 60'000); }
    /// A key in the list of sources, where a person's focus is.
    void press(Qt::Key key) {
        auto* list = window->findChild<QListView*>("sources");
        ASSERT_TRUE(wait([] { return QApplication::activeModalWidget() == nullptr; }));
        window->activateWindow();
        ASSERT_TRUE(wait([&] { return window->isActiveWindow(); }));
        list->setFocus();
        QTest::keyClick(list, key);
    }
    bool says(const QString& text) {
        for (const auto* label : window->findChildren<QLabel*>())
            if (label->isVisible() && label->text().contains(text)) return true;
        return false;
    }
};

}  // namespace skivet::test
