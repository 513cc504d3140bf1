// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/theme/theme.h"
#include "app/typist.h"
#include "app/window/guarded_application.h"

#include <QStandardPaths>
#include <QTemporaryDir>

#include <gtest/gtest.h>

int main(int argc, char **argv)
{
    testing::InitGoogleTest(&argc, argv);
    if (GTEST_FLAG_GET(list_tests)) // at build time, where there may be no display
        return RUN_ALL_TESTS();
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM") && qEnvironmentVariableIsEmpty("DISPLAY"))
        qputenv("QT_QPA_PLATFORM", "offscreen");
    // A home of its own for each process: tests that run side by side open the same demo project otherwise.
    const QTemporaryDir home;
    qputenv("HOME", home.path().toUtf8());
    QStandardPaths::setTestModeEnabled(true);
    inchpeg::app::GuardedApplication application(argc, argv);
    // In the tests every failure that reaches the event loop counts as one of the test.
    application.setHandler([](const QString &what, const QString &) { ADD_FAILURE() << what.toStdString(); });
    const QTemporaryDir reports;
    application.setReportFolder(reports.path());
    QApplication::setOrganizationName(QStringLiteral("inchpeg-test"));
    inchpeg::app::wearTheme(application, inchpeg::app::paperTheme());
    if (argc == 3 && QLatin1String(argv[1]) == QLatin1String("--typist"))
        return inchpeg::app::typeUntilKilled(argv[2]);
    if (argc == 4 && QLatin1String(argv[1]) == QLatin1String("--recorder"))
        return inchpeg::app::recordUntilKilled(argv[2], argv[3]);
    return RUN_ALL_TESTS();
}
