#include <gtest/gtest.h>
#include <QApplication>

#include "app/theme/theme.h"

int main(int argc, char** argv) {
    testing::InitGoogleTest(&argc, argv);
    QApplication app(argc, argv);
    skivet::app::apply_theme(app);
    return RUN_ALL_TESTS();
}
