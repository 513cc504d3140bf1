// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>

namespace inchpeg::sim
{

/// A weight that falls from rising heights, as a person writes it down.
struct DropRig {
    double mass_kg = 1.0;
    double start_mm = 100.0;
    double step_mm = 20.0;
    double top_mm = 1000.0; ///< end of the guide
};

/// A typed row of a piece that fails above an energy: each drop a step higher until it fails.
std::string stepUpTable(double failsAbove_J, const DropRig &rig);

/// The row of a single drop.
std::string singleDropTable(double failsAbove_J, double height_mm, double mass_kg);

} // namespace inchpeg::sim
