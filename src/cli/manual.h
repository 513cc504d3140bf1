// SPDX-License-Identifier: GPL-3.0-or-later
// The manual page and the completion of a shell, from the same descriptions as --help.
#pragma once

#include "cli/command.h"

#include <span>
#include <string>

namespace inchpeg::cli
{

/// "inchpeg-cli project bring-in PROJECT PATH… --study STUDY [options]".
std::string usageOf(const Command &command);

/// The page for man(1), in the language of troff.
std::string manualPage(std::span<const Command> commands);

/// A script that bash reads: commands, subcommands, options, and words that an option chooses among.
std::string bashCompletion(std::span<const Command> commands);

} // namespace inchpeg::cli
