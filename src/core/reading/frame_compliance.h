// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <string_view>

namespace inchpeg
{

/// How far a frame gives way, in mm/N: the least-squares slope of travel over force in the upper four fifths
/// of the rise of a record of a dummy that is far stiffer than the frame.
/// Source: common practice.
/// Errors: those of importForceCurve(); BadInput without a travel; TooFewPoints for fewer than ten samples
/// there; InvalidArgument where the travel does not grow with the force.
Result<double> complianceOfDummy(std::string_view recordBytes);

} // namespace inchpeg
