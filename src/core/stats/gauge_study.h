// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <cstddef>
#include <optional>
#include <span>

namespace inchpeg
{

/// A reading of a part by a person, both counted from 0.
struct GaugeStudyValue {
    double value = 0.0;
    std::size_t part = 0;
    std::size_t person = 0;
};

/// Where the scatter of readings comes from; each is a standard deviation in the unit of the readings, 0
/// where its estimate is negative.
struct GaugeStudy {
    double repeatability = 0.0;   ///< the same person on the same part
    double person = 0.0;          ///< between persons, over all parts
    double interaction = 0.0;     ///< between persons, differing from part to part; 0 where left out
    double reproducibility = 0.0; ///< both of these together
    double gauge = 0.0;           ///< repeatability and reproducibility together
    double part = 0.0;            ///< between parts: what is to be seen
    double total = 0.0;
    std::optional<double> shareOfTotal; ///< of gauge; nothing where nothing varies
    std::optional<int> categories;      ///< how many kinds of parts can be told apart; nothing without gauge
    std::optional<double> interactionP;
    bool interactionLeftOut = false; ///< not told from nothing, its squares went to the repeatability
};

/// p of the interaction above which it is left out.
inline constexpr double kInteractionLeftOutAbove = 0.25;

/// Two crossed random factors by the method of moments (Montgomery, Design and Analysis of Experiments, 8th
/// ed., 13.3; leaving out at 0.25 and 1.41 part/gauge categories are common practice).
/// Errors: TooFewPoints with fewer than two parts, persons or readings of each; InvalidArgument where not
/// every person read every part equally often.
Result<GaugeStudy> gaugeStudy(std::span<const GaugeStudyValue> readings);

} // namespace inchpeg
