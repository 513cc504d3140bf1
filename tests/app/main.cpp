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
    return RUN_ALL_TESTS();
}
