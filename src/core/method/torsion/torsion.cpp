// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/torsion/torsion.h"

#include "core/curve/straight_line.h"
#include "core/method/sizes.h"
#include "core/specimen/section_modulus.h"

#include <cmath>
#include <numbers>

namespace inchpeg
{

namespace
{

constexpr double kQuarterTurn_deg = 90.0;
constexpr double kStraightShare = 0.1; ///< of the angle at the peak
constexpr double kDegreesPerRadian = 180.0 / std::numbers::pi;

Result<TorsionSection> torsionOf(const Section &section)
{
    if (const auto *round = std::get_if<RoundSection>(&section)) {
        if (const Status status = checkSizes({{"diameter", round->diameter}}); !status)
            return status.error();
        return torsionOfRound(in_mm(round->diameter));
    }
    if (const auto *bar = std::get_if<RectangularSection>(&section)) {
        if (const Status status = checkSizes({{"width", bar->width}, {"thickness", bar->thickness}}); !status)
            return status.error();
        return torsionOfRectangle(in_mm(bar->width), in_mm(bar->thickness));
    }
    return invalidArgument(
        "torsion hangs on the form of the section; give its diameter, or width and thickness");
}

/// Interpolated where the angle first reaches it; nothing where that is behind the break.
std::optional<double> torqueAt(const LoadCurve &curve, double angle_deg)
{
    for (std::size_t i = 0; i <= curve.lastBeforeBreak; ++i) {
        if (curve.way[i] < angle_deg)
            continue;
        if (i == 0 || curve.way[i] == angle_deg)
            return curve.load[i];
        const double share = (angle_deg - curve.way[i - 1]) / (curve.way[i] - curve.way[i - 1]);
        return std::lerp(curve.load[i - 1], curve.load[i], share);
    }
    return std::nullopt;
}

std::optional<double> slope_Nm_per_deg(const LoadCurve &curve)
{
    const double to = kStraightShare * curve.way[curve.peak];
    std::size_t count = 0;
    while (count < curve.peak && curve.way[count] <= to)
        ++count;
    const auto line = fitLine(std::span(curve.way).first(count), std::span(curve.load).first(count));
    return line ? std::optional(line->slope) : std::nullopt;
}

} // namespace

Result<TorsionResult> reduceTorsion(const LoadRecord &record, const TorsionParameters &parameters,
                                    const LoadCurveRules &rules)
{
    const Result<TorsionSection> section = torsionOf(parameters.section);
    if (!section)
        return section.error();
    if (const Status status = checkSizes({{"length", parameters.length}}); !status)
        return status.error();
    Result<LoadCurve> curve = readLoadCurve(record, rules);
    if (!curve)
        return curve.error();
    TorsionResult result;
    result.peakTorque_Nm = curve->load[curve->peak];
    result.shearStress_MPa = 1e3 * result.peakTorque_Nm / section->modulus_mm3; // N·m to N·mm
    if (!curve->way.empty()) {
        result.angleAtPeak_deg = curve->way[curve->peak];
        result.torqueAt90_Nm = torqueAt(*curve, kQuarterTurn_deg);
        if (const std::optional<double> slope = slope_Nm_per_deg(*curve))
            result.shearModulus_MPa =
                1e3 * *slope * kDegreesPerRadian * in_mm(parameters.length) / section->constant_mm4;
    }
    result.curve = std::move(*curve);
    return result;
}

} // namespace inchpeg
