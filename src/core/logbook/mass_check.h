// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/model/workshop.h"
#include "core/planning/planned_test.h"
#include "core/stats/two_groups.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// The masses of a rail's pieces of the study's first test.
struct RailMass {
    ConditionId condition;
    Summary mass_g;
    std::vector<PieceId> off;      ///< pieces outside the tolerance around the rail's median
    std::optional<double> spread;  ///< the largest departure from the median, a fraction of it
    std::optional<Estimate> ratio; ///< to the reference's mean, Fieller's interval
    std::optional<double> voidShare;
    std::string voidSource; ///< what volume and density the void share stands on, or why there is none
    std::string sentence;
};

struct MassCheck {
    double tolerance = 0.01;
    std::vector<RailMass> rails; ///< in the study's order
    std::string headline;        ///< what follows from all of them
    bool isConfound = false;     ///< conditions are shown to differ in mass by more than the tolerance
};

/// Compares the masses within each condition and between conditions.
MassCheck checkMass(const Study &study, const Workshop &workshop);

/// Share of a piece's volume that is not polymer: 1 - mass / (density volume); below zero where the piece is
/// heavier than its drawn volume of that density.
/// Source: ASTM D2734-16, 8: void content from the densities of resin and composite; here of one solid.
double voidShare(double mass_g, double volume_mm3, double density_g_per_cm3);

/// The volume of a piece: as drawn, scaled by its measured section over the drawn one. tests: plannedTests()
/// of its study. Nothing where no shape was chosen.
std::optional<double> pieceVolume_mm3(const std::vector<PlannedTest> &tests, const Piece &piece);

/// Strength per gram of piece: the usual property of each piece over its mass, compared as the property
/// itself is. Pieces without a mass do not count. Empty where no rail has two such pieces.
std::optional<StudyComparison> comparePerMass(const Study &study, const PieceReadings &readings,
                                              const Property &property);

/// What the comparison per gram says of a rail: "Per gram it holds 3 % more than the reference (-2 to 8 %)."
std::string perMassSentence(const RailComparison &rail);

} // namespace inchpeg
