// SPDX-License-Identifier: GPL-3.0-or-later
// inchpeg: the window. inchpeg FILE opens a project.
#include "app/session/desktop_announcer.h"
#include "app/session/preferences.h"
#include "app/session/project_session.h"
#include "app/theme/theme.h"
#include "app/window/guarded_application.h"
#include "app/window/main_window.h"

#include <QCommandLineParser>
#include <QDateTime>
#include <QIcon>
#include <QSettings>

namespace
{

QString personName()
{
    const QString name = qEnvironmentVariable("INCHPEG_PERSON", qEnvironmentVariable("USER"));
    return name.isEmpty() ? QStringLiteral("unknown") : name;
}

} // namespace

int main(int argc, char **argv)
{
    using namespace inchpeg::app;
    GuardedApplication application(argc, argv);
    application.setHandler(&askWhetherToGoOn);
    QApplication::setApplicationName(QStringLiteral("inchpeg"));
    QApplication::setApplicationDisplayName(QStringLiteral("Inch Peg"));
    QApplication::setOrganizationName(QStringLiteral("inchpeg"));
    QApplication::setApplicationVersion(QStringLiteral(INCHPEG_VERSION));
    QApplication::setWindowIcon(QIcon(QStringLiteral(":/icons/inchpeg.svg")));
    QApplication::setDesktopFileName(QStringLiteral("org.inchpeg.InchPeg"));
    QCommandLineParser parser;
    parser.setApplicationDescription(QCoreApplication::translate(
        "main", "Plan, run, read and compare mechanical tests of printed specimens."));
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument(QStringLiteral("project"),
                                 QCoreApplication::translate("main", "project file to open"),
                                 QStringLiteral("[project]"));
    parser.process(application);

    Preferences preferences;
    wearTheme(application, preferences.isDark() ? workshopTheme() : paperTheme(), preferences.fontSize());
    ProjectSession session(
        personName(), [] { return QDateTime::currentDateTimeUtc().toString(Qt::ISODate).toStdString(); });
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
