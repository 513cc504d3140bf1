// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/options.h"
#include "cli/output.h"

#include <functional>
#include <span>
#include <string_view>
#include <vector>

namespace inchpeg
{
struct Decision;
class ProjectFile;
} // namespace inchpeg

namespace inchpeg::cli
{

/// What a subcommand prints.
struct Outcome {
    Json result;
    std::vector<std::string> messages; ///< to standard error
    bool someFailed = false;           ///< the result stands, but the exit status is 2
    bool isBrokenOff = false;          ///< what is there stands, but the exit status is 1
    bool isPrinted = false;            ///< line by line already
};

/// One subcommand: "stats describe". Its options, --format and --help are handled by the dispatcher.
struct Command {
    std::string_view group;
    std::string_view name;
    std::string_view arguments; ///< positional ones, for the usage line
    std::string_view summary;
    std::vector<OptionSpec> options;
    std::size_t positionalCount = 0; ///< at least so many where there may be more
    std::function<Result<Outcome>(const Options &options)> run;
    bool takesMore = false; ///< positional ones
};

/// Writes a decision as a report where the options ask for one. money: the unit of prices.
using DecisionTeller = std::function<Status(const Options &options, const Decision &decision,
                                            const ProjectFile &project, const std::string &money)>;

std::vector<Command> importCommands();
std::vector<Command> reduceCommands();
std::vector<Command> statsCommands();
std::vector<Command> planCommands();
std::vector<Command> projectCommands();
std::vector<Command> editCommands();
std::vector<Command> recordCommands();
std::vector<Command> studyCommands();
std::vector<Command> textCommands();
std::vector<Command> verdictCommands();
std::vector<Command> benchCommands();
std::vector<Command> decideCommands(const DecisionTeller &tell);

inline constexpr OptionSpec kDataOption{"data", "FILE",
                                        "delimited text in any dialect; - reads standard input", false, true};
inline constexpr OptionSpec kTableOption{"table", "N", "the N-th table of a file that holds several, from 1"};
inline constexpr OptionSpec kConfidenceOption{"confidence", "FRACTION", "of intervals, 0.95 unless given"};

} // namespace inchpeg::cli
