// SPDX-License-Identifier: GPL-3.0-or-later
// inchpeg-pages: what of inchpeg-cli draws pages, writes workbooks and packs archives. Started by inchpeg-cli
// with its own arguments.
#include "cli/dispatch.h"
#include "cli/tell_command.h"
#include "cli/tell_options.h"

#include <QGuiApplication>

int main(int argc, char **argv)
{
    using namespace inchpeg::cli;
    qputenv("QT_QPA_PLATFORM", "offscreen"); // pages and pictures want letters, and no screen
    // What the library says of the desktop is of no use here; people are told by our own messages.
    qInstallMessageHandler([](QtMsgType, const QMessageLogContext &, const QString &) {});
    const QGuiApplication application(argc, argv);
    std::vector<Command> commands = plainCommands(&tellDecision);
    for (Command &command : tellCommands({&tellReport, &tellCard, &tellOpenData}))
        commands.push_back(std::move(command));
    return runProgram(commands, argc, argv);
}
