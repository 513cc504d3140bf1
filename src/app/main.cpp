// SPDX-License-Identifier: GPL-3.0-or-later
// inchpeg: the window. inchpeg FILE opens a project.
#include "app/session/desktop_announcer.h"
#include "app/session/preferences.h"
#include "app/session/project_session.h"
#include "app/theme/theme.h"
#include "app/window/guarded_application.h"
#include "app/window/main_window.h"
#include "service/project/person.h"

#include <QCommandLineParser>
#include <QIcon>
#include <QSettings>

#include <algorithm>
#include <string_view>

namespace
{

void nameApplication()
{
    QCoreApplication::setApplicationName(QStringLiteral("inchpeg"));
    QCoreApplication::setOrganizationName(QStringLiteral("inchpeg"));
    QCoreApplication::setApplicationVersion(QStringLiteral(INCHPEG_VERSION));
}

void describe(QCommandLineParser &parser)
{
    parser.setApplicationDescription(QCoreApplication::translate(
        "main", "Plan, run, read and compare mechanical tests of printed specimens."));
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument(QStringLiteral("project"),
                                 QCoreApplication::translate("main", "project file to open"),
                                 QStringLiteral("[project]"));
}

/// What is answered without a window must not want a display.
bool isAnsweredAlone(int argc, char **argv)
{
    return std::any_of(argv + 1, argv + argc, [](const char *argument) {
        const std::string_view text(argument);
        return text == "-h" || text == "--help" || text == "--help-all" || text == "-v" ||
               text == "--version";
    });
}

} // namespace

int main(int argc, char **argv)
{
    using namespace inchpeg::app;
    QCommandLineParser parser;
    describe(parser);
    nameApplication();
    if (isAnsweredAlone(argc, argv)) {
        const QCoreApplication alone(argc, argv);
        parser.process(alone); // prints and ends
    }
    GuardedApplication application(argc, argv);
    application.setHandler(&askWhetherToGoOn);
    QApplication::setApplicationDisplayName(QStringLiteral("Inch Peg"));
    QApplication::setWindowIcon(QIcon(QStringLiteral(":/icons/inchpeg.svg")));
    QApplication::setDesktopFileName(QStringLiteral("org.inchpeg.InchPeg"));
    parser.process(application);

    Preferences preferences;
    wearTheme(application, preferences.isDark() ? workshopTheme() : paperTheme(), preferences.fontSize());
    ProjectSession session(QString::fromStdString(inchpeg::accountName()), &inchpeg::momentNow);
    FilePrompts prompts(preferences);
    DesktopAnnouncer announcer([&preferences] { return preferences.areTonesOn(); });
    MainWindow window(session, preferences, prompts, &announcer);
    window.restoreGeometry(QSettings().value(QStringLiteral("geometry")).toByteArray());
    window.show();
    if (!parser.positionalArguments().isEmpty())
        window.openPath(parser.positionalArguments().front());
    const int code = QApplication::exec();
    QSettings().setValue(QStringLiteral("geometry"), window.saveGeometry());
    return code;
}
