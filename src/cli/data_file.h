// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/options.h"
#include "cli/output.h"
#include "core/import/cells.h"
#include "core/import/layout.h"
#include "core/import/text.h"

#include <optional>
#include <string>

namespace inchpeg::cli
{

/// The decoded text of --data; errors name the file.
Result<DecodedText> readDataText(const std::string &path);

/// What --table says, from 1; nothing where it is not given.
/// Errors: InvalidArgument where it is no whole number above 0.
Result<std::optional<std::size_t>> tableNumberOf(const Options &options);

/// The error with the file's name in front.
Error inFile(const std::string &path, Error error);

/// How each column was understood: list of {name, quantity, unit}.
Json columnsJson(const Layout &layout);

} // namespace inchpeg::cli
