// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/torsion/torsion.h"

#include "core/curve/straight_line.h"
#include "core/method/sizes.h"
#include "core/specimen/section_modulus.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <span>

namespace inchpeg
{

namespace
{

constexpr double kQuarterTurn_deg = 90.0;
constexpr double kStraightShare = 0.1; ///< of the angle at the peak
constexpr std::size_t kLeastOfTenth = 6;
constexpr double kBentShare = 0.02;    ///< by which the halves of a straight part may differ in slope
constexpr double kShearWindow = 0.005; ///< shear strain over which a slope is looked for
constexpr double kMostShear = 0.04; ///< shear strain at which polymers have begun to yield (common practice)
constexpr double kLeastPlay_deg = 0.25; ///< clamps and couplings have more (common practice)
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

/// The straight part that a shear modulus is read from, and where it would start from nothing.
struct StraightTwist {
    StraightLine line;
    double from_deg = 0.0;
    double to_deg = 0.0;
    bool isTenth = true; ///< below a tenth of the twist at the peak
};

/// Whether both halves of a rise are as steep, as far as the noise lets it be told.
bool isStraight(std::span<const double> angle_deg, std::span<const double> torque_Nm, double noise_Nm)
{
    const std::size_t half = angle_deg.size() / 2;
    const auto before = fitLine(angle_deg.first(half), torque_Nm.first(half));
    const auto after = fitLine(angle_deg.subspan(half), torque_Nm.subspan(half));
    if (!before || !after)
        return false;
    const double width_deg = angle_deg[half] - angle_deg.front();
    const double standardError = noise_Nm / (width_deg * std::sqrt(static_cast<double>(half) / 12.0));
    return std::abs(before->slope - after->slope) <=
           std::max(kBentShare * std::abs(after->slope), 3.0 * std::numbers::sqrt2 * standardError);
}

/// Below a tenth of the twist at the peak, counted from contact, where that is straight; a rod that yields
/// early, or a rig with play, is read over its steepest straight part.
std::optional<StraightTwist> straightTwist(const LoadCurve &curve, double anglePerShear_deg)
{
    const std::span<const double> angle_deg = std::span(curve.way).first(curve.peak + 1);
    const std::span<const double> torque_Nm = std::span(curve.load).first(curve.peak + 1);
    const double from = curve.way[curve.contact];
    const double to = from + kStraightShare * (curve.way[curve.peak] - from);
    std::size_t count = 0;
    while (curve.contact + count < curve.peak && curve.way[curve.contact + count] <= to)
        ++count;
    const auto tenthAngle_deg = angle_deg.subspan(curve.contact, count);
    const auto tenthTorque_Nm = torque_Nm.subspan(curve.contact, count);
    const auto tenth = fitLine(tenthAngle_deg, tenthTorque_Nm);
    if (tenth && count >= kLeastOfTenth && isStraight(tenthAngle_deg, tenthTorque_Nm, curve.noise))
        return StraightTwist{*tenth, from, tenthAngle_deg.back()};
    if (const auto steepest =
            steepestStraightPart(angle_deg, torque_Nm, kShearWindow * anglePerShear_deg, curve.noise))
        return StraightTwist{steepest->line, angle_deg[steepest->first], angle_deg[steepest->last], false};
    return tenth ? std::optional(StraightTwist{*tenth, from, to}) : std::nullopt;
}

/// What the rig turns before it twists the piece: the straight part meets zero there. Nothing that the steps
/// of the record could not show.
double play_deg(const LoadCurve &curve, const StraightTwist &straight)
{
    if (!(straight.line.slope > 0.0) || curve.way.size() < 2)
        return 0.0;
    const double play = straight.line.xWhereZero() - curve.way.front();
    const double step = (curve.way[curve.peak] - curve.way.front()) /
                        static_cast<double>(std::max<std::size_t>(curve.peak, 1));
    return play > std::max(kLeastPlay_deg, step) ? play : 0.0;
}

void readTwist(TorsionResult &result, LoadCurve &curve, const TorsionSection &section, double length_mm)
{
    // γ = φ r/L at the skin; of a rectangle r is what stress and twist make of it, J/W.
    const double anglePerShear_deg =
        kDegreesPerRadian * length_mm * section.modulus_mm3 / section.constant_mm4;
    const std::optional<StraightTwist> straight = straightTwist(curve, anglePerShear_deg);
    if (straight && !straight->isTenth &&
        straight->to_deg - straight->from_deg > kMostShear * anglePerShear_deg) {
        curve.warnings.emplace_back("no shear modulus: the first readings reach beyond the straight part; "
                                    "record more often, or twist more slowly");
    } else if (straight) {
        result.shearModulus_MPa =
            1e3 * straight->line.slope * kDegreesPerRadian * length_mm / section.constant_mm4;
        result.play_deg = play_deg(curve, *straight);
        for (double &angle : curve.way)
            angle -= result.play_deg;
        curve.validity.push_back(
            {"the shear modulus is read before the piece yields",
             straight->to_deg - result.play_deg <= kMostShear * anglePerShear_deg,
             fmt::format("read between {} and {}{}",
                         marked(straight->from_deg - result.play_deg, Dimension::Angle, 3),
                         marked(straight->to_deg - result.play_deg, Dimension::Angle, 3),
                         result.play_deg > 0.0 ? fmt::format("; {} of play taken off",
                                                             marked(result.play_deg, Dimension::Angle, 2))
                                               : std::string())});
    }
    result.angleAtPeak_deg = curve.way[curve.peak];
    result.torqueAt90_Nm = torqueAt(curve, kQuarterTurn_deg);
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
    if (!curve->way.empty())
        readTwist(result, *curve, *section, in_mm(parameters.length));
    result.curve = std::move(*curve);
    return result;
}

} // namespace inchpeg
