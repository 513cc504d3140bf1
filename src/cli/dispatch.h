// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/command.h"

#include <vector>

namespace inchpeg::cli
{

/// The commands that need no pages to be drawn; decision: writes a decision's report, empty where it cannot
/// be written here.
std::vector<Command> plainCommands(const DecisionTeller &decision = {});

/// Runs what the arguments ask for and yields the exit status.
int runProgram(const std::vector<Command> &commands, int argc, char **argv);

} // namespace inchpeg::cli
