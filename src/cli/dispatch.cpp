// SPDX-License-Identifier: GPL-3.0-or-later
// From arguments to a command, and from its outcome to text and exit status: 0 done, 1 internal failure, 2
// the input or the options are wrong.
#include "cli/dispatch.h"

#include "cli/manual.h"
#include "core/text/letters.h"
#include "service/project_text.h"
#include "store/schema.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <exception>
#include <iostream>
#include <string_view>
#include <unistd.h>

namespace inchpeg::cli
{

namespace
{

constexpr int kDone = 0;
constexpr int kInternalFailure = 1;
constexpr int kWrongInput = 2;

constexpr OptionSpec kFormatOption{"format", "json|text", "json unless standard output is a terminal"};

void printOverview(std::span<const Command> commands, std::string_view group)
{
    std::cout << "Usage: inchpeg-cli COMMAND SUBCOMMAND [options]\n\n";
    constexpr std::size_t kMeanings = 26;
    for (const Command &command : commands) {
        if (group.empty() || group == command.group)
            std::cout << fmt::format("  {:<8}{:<16}", command.group, command.name)
                      << wrappedText(std::string(command.summary), kMeanings);
    }
    std::cout << "\nEach takes --help. Results go to standard output, messages to standard error.\n"
                 "--manual prints the manual page, --completion bash what completes these words.\n";
}

void printHelp(const Command &command)
{
    constexpr std::size_t kUsage = 7;
    std::cout << "Usage: " << wrappedText(usageOf(command), kUsage + 4) << '\n'
              << wrappedText(capitalised(command.summary) + ".", 0) << '\n';
    constexpr std::size_t kColumn = 26; // a longer option has its meaning on the next line
    for (const OptionSpec &spec : command.options) {
        const std::string option =
            fmt::format("{}{}{}", spec.name, spec.valueName.empty() ? "" : " ", spec.valueName);
        std::cout << fmt::format("  --{:<26}{}", option,
                                 option.size() < kColumn ? "" : "\n" + std::string(kColumn + 4, ' '))
                  << wrappedText(fmt::format("{}{}", spec.help, spec.required ? " (required)" : ""),
                                 kColumn + 4);
    }
}

int fail(const Error &error)
{
    std::cerr << "inchpeg-cli: " << errorSentence(error) << '\n';
    return kWrongInput;
}

Result<bool> wantsJson(const Options &options)
{
    const std::string format =
        options.value("format").value_or(::isatty(STDOUT_FILENO) != 0 ? "text" : "json");
    if (format != "json" && format != "text")
        return invalidArgument(fmt::format("--format is \"{}\"; json or text is wanted", format));
    return format == "json";
}

int runCommand(Command command, std::span<const std::string> arguments)
{
    command.options.push_back(kFormatOption);
    if (std::find(arguments.begin(), arguments.end(), "--help") != arguments.end()) {
        printHelp(command);
        return kDone;
    }
    const Result<Options> options = Options::parse(arguments, command.options);
    if (!options)
        return fail(options.error());
    const std::size_t given = options->positional().size();
    if (given < command.positionalCount || (given > command.positionalCount && !command.takesMore))
        return fail(invalidArgument(
            fmt::format("{} {} wants {}; {} given", command.group, command.name,
                        command.arguments.empty() ? "options only" : command.arguments, given)));
    const Result<bool> json = wantsJson(*options);
    if (!json)
        return fail(json.error());
    const Result<Outcome> outcome = command.run(*options);
    if (!outcome)
        return fail(outcome.error());
    for (const std::string &message : outcome->messages)
        std::cerr << "inchpeg-cli: " << message << '\n';
    if (!outcome->isPrinted)
        std::cout << (*json ? jsonText(outcome->result) : plainText(outcome->result));
    std::cout << std::flush;
    if (!std::cout) {
        std::cerr << "inchpeg-cli: standard output cannot be written; is the disk full?\n";
        return kInternalFailure;
    }
    if (outcome->isBrokenOff)
        return kInternalFailure;
    return outcome->someFailed ? kWrongInput : kDone;
}

int runArguments(const std::vector<Command> &commands, const std::vector<std::string> &arguments)
{
    if (!arguments.empty() && arguments[0] == "--version") {
        std::cout << fmt::format("inchpeg-cli {}\nproject format {}, export format {}\n", INCHPEG_VERSION,
                                 kSchemaVersion, kExportVersion);
        return kDone;
    }
    if (!arguments.empty() && arguments[0] == "--manual") {
        std::cout << manualPage(commands);
        return kDone;
    }
    if (!arguments.empty() && arguments[0] == "--completion") {
        if (arguments.size() < 2 || arguments[1] != "bash")
            return fail(invalidArgument("--completion wants the name of a shell: bash"));
        std::cout << bashCompletion(commands);
        return kDone;
    }
    const bool asksHelp = arguments.empty() || arguments[0] == "--help";
    const bool isOneWord =
        !asksHelp && std::any_of(commands.begin(), commands.end(), [&](const Command &command) {
            return command.group == arguments[0] && command.name.empty();
        });
    if (asksHelp || (!isOneWord && arguments.size() > 1 && arguments[1] == "--help")) {
        printOverview(commands, asksHelp ? std::string() : arguments[0]);
        return arguments.empty() ? kWrongInput : kDone;
    }
    std::string known;
    for (const Command &command : commands) {
        if (command.group != arguments[0])
            continue;
        if (command.name.empty()) // one word says it all
            return runCommand(command, std::span(arguments).subspan(1));
        if (arguments.size() > 1 && command.name == arguments[1])
            return runCommand(command, std::span(arguments).subspan(2));
    }
    for (const Command &command : commands)
        known += fmt::format("{}{}{}{}", known.empty() ? "" : ", ", command.group,
                             command.name.empty() ? "" : " ", command.name);
    return fail(invalidArgument(fmt::format("there is no command \"{}{}\"; known are {}", arguments[0],
                                            arguments.size() > 1 ? " " + arguments[1] : "", known)));
}

} // namespace

std::vector<Command> plainCommands(const DecisionTeller &decision)
{
    std::vector<Command> commands;
    for (auto *list :
         {importCommands, reduceCommands, statsCommands, planCommands, benchCommands, projectCommands,
          editCommands, studyCommands, textCommands, recordCommands, verdictCommands}) {
        for (Command &command : list())
            commands.push_back(std::move(command));
    }
    for (Command &command : decideCommands(decision))
        commands.push_back(std::move(command));
    return commands;
}

int runProgram(const std::vector<Command> &commands, int argc, char **argv)
{
    try {
        return runArguments(commands, std::vector<std::string>(argv + 1, argv + argc));
    } catch (const std::exception &failure) {
        std::fprintf(stderr, "inchpeg-cli: internal failure: %s\n", failure.what());
        return kInternalFailure;
    }
}

} // namespace inchpeg::cli
