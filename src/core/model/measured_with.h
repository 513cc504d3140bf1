// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/calibration.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

struct PieceLog;
struct SizeReadings;

/// The gauge that some values of a piece were read with, as it was then.
struct MeasuredWith {
    UsedGauge gauge;
    std::vector<std::string> fields; ///< "width", "mass" …, in the order of the alphabet
    bool operator==(const MeasuredWith &) const = default;
};

/// The gauge of a field; nothing where none was said.
const UsedGauge *gaugeOf(const PieceLog &log, std::string_view field);

/// Keeps the gauge of a field in place of an earlier one; nothing: it is not known.
void keepGauge(PieceLog &log, const std::string &field, const std::optional<UsedGauge> &gauge);

/// The sizes as they truly are: each reading corrected by the calibration of its gauge. A reading that is not
/// taken stays 0.
SizeReadings correctedSizes(const PieceLog &log);

/// The mass in g, corrected by the calibration of its scale; nothing where the piece was not weighed.
std::optional<double> correctedMass_g(const PieceLog &log);

} // namespace inchpeg
