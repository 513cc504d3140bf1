// SPDX-License-Identifier: GPL-3.0-or-later
// What a person reads, feels or sees of a virtual piece, as it is written down. Rough orders, for inventing
// data only.
#pragma once

#include <cstdint>
#include <string>

namespace inchpeg::sim
{

/// A typed row: a piece graded twice by a hand that is seldom off by more than one grade.
/// quality: what a steady hand would give, 1 to 5.
std::string feelTable(double quality, std::uint64_t seed);
/// The same piece held against others of quality 3, each of eight pairs twice.
std::string pairsTable(double quality, std::uint64_t seed);

/// How a print came out, by what would be given for each aspect by a steady eye.
struct PrintQuality {
    double stringing = 4.0;
    double overhang = 4.0;
    double bridge = 4.0;
    double surface = 4.0;
    double bedAdhesion = 4.0;
    double cornerLift_mm = 0.1;
};
std::string outcomeTable(const PrintQuality &quality, std::uint64_t seed);

/// A typed table: five readings of a durometer, to half a unit.
std::string hardnessTable(double hardness, std::uint64_t seed);

/// A typed table: four corners, to a twentieth of a millimetre.
std::string cornerTable(double lift_mm, std::uint64_t seed);

/// A typed row: the mass of a block of this volume, to a hundredth of a gram.
std::string weighedTable(double volume_mm3, double density_g_per_cm3, std::uint64_t seed);

/// A typed row: a torque that rises by even steps until the piece fails above its own, or the steps end.
struct TorqueLadder {
    double start_Nm = 2.0;
    double step_Nm = 1.0;
    double top_Nm = 40.0;
};
std::string steppedTorqueTable(double failsAbove_Nm, const TorqueLadder &ladder);

/// A typed row of a part in service: it fails after so many hours, or still serves when it is looked at.
std::string serviceTable(double failsAfter_h, double lookedAt_h, double quality, std::uint64_t seed);

} // namespace inchpeg::sim
