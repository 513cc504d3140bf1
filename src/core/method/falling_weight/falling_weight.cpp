// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/falling_weight/falling_weight.h"

#include "core/text/notation.h"
#include "core/units/gravity.h"

#include <fmt/format.h>

#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kWidestStep = 0.25; ///< of the last height (ours): wider says little
constexpr double kUsualLowest_m_per_s = 1.0;
constexpr double kUsualHighest_m_per_s =
    5.0; ///< drops of 5 cm to 1.3 m; other speeds are another test (ours)

Status checkDrops(const Drops &drops)
{
    if (!(drops.mass.si() > 0.0))
        return invalidArgument(
            fmt::format("mass is {:g} kg; the mass of the falling weight is wanted", drops.mass.si()));
    if (!(in_mm(drops.height) > 0.0))
        return invalidArgument(
            fmt::format("height is {:g} mm; a height above the piece is wanted", in_mm(drops.height)));
    if (drops.heldHeight && !(in_mm(*drops.heldHeight) >= 0.0 && *drops.heldHeight < drops.height))
        return invalidArgument(
            fmt::format("held_height is {:g} mm; the highest drop before the last one ({:g} mm) is wanted",
                        in_mm(*drops.heldHeight), in_mm(drops.height)));
    return ok();
}

double energy_J(Mass mass, Length height)
{
    return mass.si() * kStandardGravity_m_per_s2 * height.si();
}

void check(FallingWeightResult &result, const Drops &drops)
{
    result.validity.push_back({"the piece fails", drops.failed, drops.failed ? "failed" : "held"});
    if (drops.heldHeight) {
        const double step = 1.0 - in_mm(*drops.heldHeight) / in_mm(drops.height);
        result.validity.push_back({"the last step is at most a quarter of the height", step <= kWidestStep,
                                   fmt::format("{:.0f} % (ours)", 100.0 * step)});
    }
    result.validity.push_back(
        {"the weight hits at 1 to 5 m/s",
         result.speed_m_per_s >= kUsualLowest_m_per_s && result.speed_m_per_s <= kUsualHighest_m_per_s,
         fmt::format("{:.2f} m/s (ours: printed polymers break otherwise under slow and fast blows)",
                     result.speed_m_per_s)});
    if (!drops.failed)
        result.warnings.emplace_back("it held the last drop: the energy is a lower bound");
    else if (!drops.heldHeight)
        result.warnings.emplace_back(
            "it failed at its only drop: by itself that says less than this energy; over the pieces of a "
            "rail, up and down, it says what half of them bear");
    else if (in_mm(*drops.heldHeight) == 0.0)
        result.warnings.emplace_back("it failed at its first drop: start lower");
}

} // namespace

Result<FallingWeightResult> reduceFallingWeight(const Drops &drops)
{
    if (const Status status = checkDrops(drops); !status)
        return status.error();
    FallingWeightResult result;
    result.dropEnergy_J = energy_J(drops.mass, drops.height);
    result.speed_m_per_s = std::sqrt(2.0 * kStandardGravity_m_per_s2 * drops.height.si());
    if (!drops.failed) {
        result.failureEnergy_J = result.dropEnergy_J;
        result.atLeast = true;
    } else if (drops.heldHeight) {
        const double held_J = energy_J(drops.mass, *drops.heldHeight);
        result.failureEnergy_J = 0.5 * (held_J + result.dropEnergy_J);
        result.uncertainty_J = (result.dropEnergy_J - held_J) / std::sqrt(12.0);
    }
    check(result, drops);
    return result;
}

} // namespace inchpeg
