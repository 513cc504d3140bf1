// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/reading.h"

#include <string>
#include <utility>
#include <vector>

namespace inchpeg
{

/// The picture of readings that were taken one after another: each a dot over its number, with named lines
/// across (the mean, what was drawn). numbers: what counts them, "Reading" or "Corner". values: not empty.
void drawNumbered(Reading &reading, const std::string &numbers, PictureAxis axis, NamedColumn values,
                  const std::vector<std::pair<std::string, double>> &lines);

} // namespace inchpeg
