// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// All bytes of a regular file; "-" reads standard input.
/// Errors: NotFound, BadInput for a folder, Storage where reading fails; the message names the path.
Result<std::string> readFileBytes(const std::string &path);

/// Writes a file as a whole: either all of it is there afterwards, or what was there before.
/// Errors: Storage, with the path.
Status writeFileBytes(const std::string &path, const std::string &bytes);

/// The regular files of a folder in order of name, hidden ones left out; a path to a file yields itself.
/// Errors: NotFound, Storage.
Result<std::vector<std::string>> filesAt(const std::string &path);

/// The part of a path after the last slash.
std::string fileNameOf(const std::string &path);

} // namespace inchpeg
