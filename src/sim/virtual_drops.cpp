// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/virtual_drops.h"

#include "core/units/gravity.h"

#include <fmt/format.h>

namespace inchpeg::sim
{

namespace
{

bool fails(double failsAbove_J, double height_mm, double mass_kg)
{
    return mass_kg * kStandardGravity_m_per_s2 * height_mm / 1e3 > failsAbove_J;
}

std::string outcome(bool failed)
{
    return failed ? "failed" : "held";
}

} // namespace

std::string stepUpTable(double failsAbove_J, const DropRig &rig)
{
    double height_mm = rig.start_mm;
    double held_mm = 0.0;
    while (!fails(failsAbove_J, height_mm, rig.mass_kg) && height_mm + rig.step_mm <= rig.top_mm) {
        held_mm = height_mm;
        height_mm += rig.step_mm;
    }
    return fmt::format("height_mm,outcome,held_height_mm\n{:.1f},{},{:.1f}\n", height_mm,
                       outcome(fails(failsAbove_J, height_mm, rig.mass_kg)), held_mm);
}

std::string singleDropTable(double failsAbove_J, double height_mm, double mass_kg)
{
    return fmt::format("height_mm,outcome\n{:.1f},{}\n", height_mm,
                       outcome(fails(failsAbove_J, height_mm, mass_kg)));
}

} // namespace inchpeg::sim
