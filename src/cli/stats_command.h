// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/command.h"

#include <vector>

namespace inchpeg::cli
{

/// Groups described and compared, and the power of a comparison.
std::vector<Command> groupCommands();
/// What a single sample says: its distribution, outliers, bounds and intervals.
std::vector<Command> sampleCommands();
/// Comparisons that follow a design: pairs, factors, trends, equivalence, staircase, blocks.
std::vector<Command> designCommands();
/// Bounds, bends, blocks, orders, choices, stray values, looks: more than the contract asks for.
std::vector<Command> beyondCommands();
/// Linear models: several factors, gauge studies, studies together, a line with bounds.
std::vector<Command> modelCommands();

} // namespace inchpeg::cli
