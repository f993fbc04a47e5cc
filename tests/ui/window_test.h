#pragma once
// The real window on a project of its own.
#include <gtest/gtest.h>

#include <QtTest>

#include "app/main_window.h"
#include "support/temp_folder.h"

namespace skivet::test {

struct WindowTest : testing::Test {
    TempFolder folder;
    app::Session session;
    std::unique_ptr<app::MainWindow> window;

    void open(const std::vector<std::filesystem::path>& sources) {
        window = std::make_unique<app::MainWindow>(&session);
        session.open(folder / "project", {}, sources, {});
        window->show();
        ASSERT_TRUE(QTest::qWaitFor([&] { return session.ready(); }, 30'000));
    }
    bool says(const QString& text) {
        for (const auto* label : window->findChildren<QLabel*>())
            if (label->isVisible() && label->text().contains(text)) return true;
        return false;
    }
};

}  // namespace skivet::test
