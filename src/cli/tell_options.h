// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/command.h"

#include <functional>
#include <vector>

namespace inchpeg::cli
{

/// What runs the commands that tell others; empty in the program that hands them on.
struct TellRuns {
    std::function<Result<Outcome>(const Options &)> report;
    std::function<Result<Outcome>(const Options &)> card;
    std::function<Result<Outcome>(const Options &)> openData;
};

std::vector<Command> tellCommands(const TellRuns &runs);

} // namespace inchpeg::cli
