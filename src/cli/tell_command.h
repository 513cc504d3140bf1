// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/command.h"

namespace inchpeg::cli
{

Result<Outcome> tellReport(const Options &options);
Result<Outcome> tellCard(const Options &options);
Result<Outcome> tellOpenData(const Options &options);
/// The report of a decision where --to says so.
Status tellDecision(const Options &options, const Decision &decision, const ProjectFile &project,
                    const std::string &money);

} // namespace inchpeg::cli
