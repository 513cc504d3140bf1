// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reading/frame_compliance.h"

#include "core/curve/force_curve.h"
#include "core/curve/straight_line.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kFromShare = 0.2; ///< below it slack and seating are still in the travel
constexpr std::size_t kLeastSamples = 10;

} // namespace

Result<double> complianceOfDummy(std::string_view recordBytes)
{
    const Result<ImportedCurve> imported = importForceCurve(recordBytes);
    if (!imported)
        return imported.error();
    const ForceCurve &curve = imported->curve;
    if (curve.extension_mm.empty())
        return badInput("the record of a dummy needs the travel of the crosshead beside the force");
    const auto peak = std::max_element(curve.force_N.begin(), curve.force_N.end(),
                                       [](double a, double b) { return std::abs(a) < std::abs(b); });
    std::vector<double> force_N;
    std::vector<double> travel_mm;
    for (std::size_t i = 0; i <= static_cast<std::size_t>(peak - curve.force_N.begin()); ++i) {
        if (std::abs(curve.force_N[i]) < kFromShare * std::abs(*peak))
            continue;
        force_N.push_back(std::abs(curve.force_N[i]));
        travel_mm.push_back(std::abs(curve.extension_mm[i]));
    }
    if (force_N.size() < kLeastSamples)
        return Error{ErrorCode::TooFewPoints,
                     "the rise of the dummy's record has fewer than ten samples; pull it more slowly",
                     {}};
    const std::optional<StraightLine> line = fitLine(force_N, travel_mm);
    if (!line || !(line->slope > 0.0))
        return invalidArgument("the travel does not grow with the force; is this the record of a dummy?");
    return line->slope;
}

} // namespace inchpeg
