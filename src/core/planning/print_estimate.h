// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/planned_test.h"

namespace inchpeg
{

/// Mass, time and money, from shape and settings unless the slicer's own figures are typed.

struct PieceEstimate {
    double grams = 0.0;
    double minutes = 0.0;
    bool gramsFromSlicer = false;
    bool minutesFromSlicer = false;
};

/// Walls and skins solid, the rest by the infill; walls, infill, layer height and nozzle size are taken from
/// the condition's factors and the locked settings (4 walls, 100 %, 0.2 mm, 0.4 mm where they say nothing).
/// Formulas: docs/methods.md, "Print plan".
PieceEstimate estimatePiece(const Study &study, const PlannedTest &test, const Condition &condition,
                            const Workshop &workshop);

/// Sums over a condition, or over the study.
struct PrintCost {
    int pieces = 0;
    double grams = 0.0;
    double minutes = 0.0;
    double money = 0.0;
};

PrintCost costOf(const Study &study, const Condition &condition, const Workshop &workshop);
PrintCost costOf(const Study &study, const Workshop &workshop);

/// How a spool suffices for all conditions of its material.
struct SpoolUse {
    std::string material;
    double needed_g = 0.0;
    double needed_m = 0.0;        ///< of 1.75 mm filament
    std::optional<double> left_g; ///< after the plan; nothing where the spool was not weighed
    std::string sentence;
};
std::vector<SpoolUse> spoolUse(const Study &study, const Workshop &workshop);

/// What a condition's material wants before it is printed and tested.
struct MaterialCare {
    std::string material;
    double dry_C = 0.0; ///< 0: no drying
    double dry_h = 0.0;
    double conditioning_h = 0.0;
    bool limitedBySpool = false; ///< dry_C is what the spool stands
    std::string sentence;
};
std::vector<MaterialCare> materialCare(const Study &study, const Workshop &workshop);
MaterialCare careOf(const Study &study, const Condition &condition, const Workshop &workshop);

/// The text by which a condition's spool is found: its material, or its level of the factor material.
std::string materialText(const Study &study, const Condition &condition);

} // namespace inchpeg
