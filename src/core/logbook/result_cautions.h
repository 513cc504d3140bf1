// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"
#include "core/model/workshop.h"
#include "core/reading/piece_reading.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// What the log says that must be known before the results are believed: records, sizes and masses
/// of a gauge whose calibration had ended, settings and masses that moved together with the factor. The
/// heaviest first.
std::vector<std::string> resultCautions(const Study &study, const Workshop &workshop,
                                        const PieceReadings *readings = nullptr);

} // namespace inchpeg
