// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <string>

namespace inchpeg
{

/// Writes the demo project: the beekeepers' cooperative with its frame rests, latches and reducers. All
/// materials, lots and records are invented, and are the same each time. Errors: Storage where the file
/// exists already or cannot be written.
/// today: "2026-06-01"; the study that is only planned starts on it.
Status writeDemoProject(const std::string &path, const std::string &today = "2026-06-01");

} // namespace inchpeg
