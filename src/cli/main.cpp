// SPDX-License-Identifier: GPL-3.0-or-later
// inchpeg-cli: the command line on the same core as the window. What draws pages is a program of its own,
// inchpeg-pages, whose libraries would make each call of this one several times as slow to start.
#include "cli/dispatch.h"
#include "cli/tell_options.h"

#include <QCoreApplication>

#include <algorithm>
#include <cstdio>
#include <filesystem>
#include <optional>
#include <string_view>
#include <unistd.h>

namespace
{

namespace fs = std::filesystem;
using namespace inchpeg;
using namespace inchpeg::cli;

bool drawsPages(std::string_view group, std::string_view name, int argc, char **argv)
{
    if (group == "decide")
        return std::any_of(argv, argv + argc,
                           [](const char *one) { return std::string_view(one).starts_with("--to"); });
    return group == "project" && (name == "report" || name == "card" || name == "open-data");
}

/// Becomes inchpeg-pages; comes back only where that is missing.
void becomePages(char **argv)
{
    std::error_code failure;
    const fs::path here = fs::read_symlink("/proc/self/exe", failure).parent_path();
    for (const fs::path &program : {here / "inchpeg-pages", here / "../libexec/inchpeg/inchpeg-pages"})
        ::execv(program.c_str(), argv);
}

} // namespace

int main(int argc, char **argv)
{
    const std::string_view group = argc > 1 ? argv[1] : "";
    const std::string_view name = argc > 2 ? argv[2] : "";
    if (drawsPages(group, name, argc, argv)) {
        becomePages(argv);
        std::fputs("inchpeg-cli: the program inchpeg-pages is missing; install Inch Peg anew\n", stderr);
        return 1;
    }
    // Qt finds its database driver through it, and waits for a serial line; what needs neither starts
    // without.
    std::optional<QCoreApplication> application;
    if (group == "project" || group == "plan" || group == "bench" || group == "decide")
        application.emplace(argc, argv);
    std::vector<Command> commands = plainCommands();
    for (Command &command : tellCommands({})) // named in the overview
        commands.push_back(std::move(command));
    return runProgram(commands, argc, argv);
}
