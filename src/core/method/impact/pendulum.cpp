// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/impact/pendulum.h"

#include "core/base/contract.h"
#include "core/method/sizes.h"
#include "core/text/notation.h"
#include "core/units/gravity.h"

#include <fmt/format.h>

#include <cmath>
#include <numbers>

namespace inchpeg
{

namespace
{

constexpr double kLeastShare = 0.10; ///< of the hammer's energy (ISO 179-1:2010, clause from memory: 7.3)
constexpr double kMostShare = 0.80;

double cosine(double angle_deg)
{
    return std::cos(angle_deg * std::numbers::pi / 180.0);
}

double weightMoment_J(const PendulumRig &rig)
{
    return rig.mass_kg * kStandardGravity_m_per_s2 * rig.arm_m;
}

Status checkRig(const PendulumRig &rig)
{
    if (!(rig.mass_kg > 0.0))
        return invalidArgument(
            fmt::format("mass is {:g} kg; the hammer's mass above zero is wanted", rig.mass_kg));
    if (!(rig.arm_m > 0.0))
        return invalidArgument(fmt::format(
            "arm is {:g} m; the length from the pivot to the centre of mass is wanted", rig.arm_m));
    if (!(rig.release_deg > 0.0) || rig.release_deg > 180.0)
        return invalidArgument(
            fmt::format("release is {:g}°; an angle above 0 and up to 180° from hanging is "
                        "wanted",
                        rig.release_deg));
    if (!(rig.freeSwing_deg > 0.0) || rig.freeSwing_deg > rig.release_deg)
        return invalidArgument(
            fmt::format("free_swing is {:g}°; an angle above 0 and not beyond the release ({:g}°) is wanted: "
                        "a hammer gains no height",
                        rig.freeSwing_deg, rig.release_deg));
    return ok();
}

Status checkSwing(const Swing &swing, const PendulumRig &rig)
{
    if (!(swing.swing_deg >= 0.0) || swing.swing_deg > rig.freeSwing_deg)
        return invalidArgument(fmt::format(
            "swing is {:g}°; an angle from 0 to the free swing ({:g}°) is wanted: a piece gives the hammer "
            "no energy",
            swing.swing_deg, rig.freeSwing_deg));
    if (const Status status = checkSizes({{"width", swing.width}, {"thickness", swing.thickness}}); !status)
        return status;
    if (swing.remainingWidth &&
        (!(in_mm(*swing.remainingWidth) > 0.0) || *swing.remainingWidth > swing.width))
        return invalidArgument(
            fmt::format("remaining_width is {:g} mm; what is left of the width ({:g} mm) under the notch is "
                        "wanted",
                        in_mm(*swing.remainingWidth), in_mm(swing.width)));
    return ok();
}

void check(PendulumResult &result, const Swing &swing)
{
    const double share = result.absorbedEnergy_J / result.fullEnergy_J;
    result.validity.push_back(
        {"the energy lies within 10 and 80 % of the hammer's", share >= kLeastShare && share <= kMostShare,
         fmt::format("{} of {}, {:.0f} % (ISO 179-1)", marked(result.absorbedEnergy_J, Dimension::Energy, 3),
                     marked(result.fullEnergy_J, Dimension::Energy, 3), 100.0 * share)});
    const double lossShare = result.lossEnergy_J / result.fullEnergy_J;
    result.validity.push_back({"the piece breaks", !result.atLeast,
                               swing.breakType ? std::string(breakTypeName(*swing.breakType))
                                               : std::string("not said how it broke")});
    if (result.atLeast)
        result.warnings.emplace_back(
            "no break: the values are lower bounds, this piece can take at least that");
    if (!swing.breakType)
        result.warnings.emplace_back(
            "the kind of break is not said: note C, H, P or N, for kinds are not averaged with each other");
    if (lossShare > 0.05)
        result.warnings.push_back(
            fmt::format("the hammer loses {:.1f} % of its energy without a piece: look at its bearing",
                        100.0 * lossShare));
}

} // namespace

char breakTypeLetter(BreakType type)
{
    switch (type) {
    case BreakType::Complete:
        return 'C';
    case BreakType::Hinge:
        return 'H';
    case BreakType::Partial:
        return 'P';
    case BreakType::None:
        return 'N';
    }
    throw ContractViolation("unknown break type");
}

std::string_view breakTypeName(BreakType type)
{
    switch (type) {
    case BreakType::Complete:
        return "complete break";
    case BreakType::Hinge:
        return "hinge break";
    case BreakType::Partial:
        return "partial break";
    case BreakType::None:
        return "no break";
    }
    throw ContractViolation("unknown break type");
}

std::optional<BreakType> breakTypeFrom(std::string_view letter)
{
    if (letter.size() != 1)
        return std::nullopt;
    for (const BreakType type :
         {BreakType::Complete, BreakType::Hinge, BreakType::Partial, BreakType::None}) {
        const char upper = breakTypeLetter(type);
        if (letter.front() == upper || letter.front() == static_cast<char>(upper - 'A' + 'a'))
            return type;
    }
    return std::nullopt;
}

double hammerEnergy_J(const PendulumRig &rig, double angle_deg)
{
    return weightMoment_J(rig) * (1.0 - cosine(angle_deg));
}

Result<PendulumResult> reducePendulum(const Swing &swing, const PendulumRig &rig)
{
    if (const Status status = checkRig(rig); !status)
        return status.error();
    if (const Status status = checkSwing(swing, rig); !status)
        return status.error();
    PendulumResult result;
    const double moment_J = weightMoment_J(rig);
    result.fullEnergy_J = hammerEnergy_J(rig, rig.release_deg);
    result.lossEnergy_J = moment_J * (cosine(rig.freeSwing_deg) - cosine(rig.release_deg)) *
                          (rig.release_deg + swing.swing_deg) / (rig.release_deg + rig.freeSwing_deg);
    result.absorbedEnergy_J =
        moment_J * (cosine(swing.swing_deg) - cosine(rig.release_deg)) - result.lossEnergy_J;
    const double thickness_mm = in_mm(swing.thickness);
    // J over mm² is MJ/m², J over mm is kJ/m.
    result.impactStrength_kJ_per_m2 =
        1e3 * result.absorbedEnergy_J / (thickness_mm * in_mm(swing.remainingWidth.value_or(swing.width)));
    result.energyPerThickness_J_per_m = 1e3 * result.absorbedEnergy_J / thickness_mm;
    result.atLeast = swing.breakType == BreakType::None;
    check(result, swing);
    return result;
}

} // namespace inchpeg
