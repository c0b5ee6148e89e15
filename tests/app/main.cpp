// Drives the real interface on Qt's offscreen platform, with settings and autosaves of its own.
#include <gtest/gtest.h>

#include <QApplication>
#include <QSettings>
#include <QStandardPaths>

#include "widgets/tokens.h"

int main(int argc, char** argv) {
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QStandardPaths::setTestModeEnabled(true);
    QApplication application(argc, argv);
    QApplication::setOrganizationName(QStringLiteral("your-rail-test"));
    QApplication::setApplicationName(QStringLiteral("your-rail-test"));
    QSettings().clear();
    yr::app::use_typeface();
    yr::app::use_look(false);
    testing::InitGoogleTest(&argc, argv);
    return RUN_ALL_TESTS();
}
