// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/model/workshop.h"
#include "core/text/notation.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// A value of a maker's data sheet beside a rail's own result of the same property.
struct SheetBeside {
    ConditionId condition;
    SheetValue sheet;
    double value = 0.0; ///< in the working unit of the property
    std::string whyNot; ///< why the two may not be compared; empty where they may
};

/// Whether a sheet's name for a property means this one: "tensile strength", "heat deflection", "Young's
/// modulus".
bool isSheetNameOf(std::string_view sheetName, const Property &property);

/// For each rail whose material has a sheet in the workshop. Two values may be compared where orientation,
/// load and annealing are the same; a sheet that does not say how its pieces lay is taken for flat ones, as
/// moulded bars are.
std::vector<SheetBeside> sheetsBeside(const Study &study, Method test, const Property &property,
                                      const Workshop &workshop);

/// "Sheet of Heather 7: 47.0 MPa (ISO 527, flat); here 43.1 MPa, 8 % below it." One sentence a rail that has
/// a result.
std::vector<std::string> sheetSentences(const Study &study, const StudyComparison &comparison, Method test,
                                        const Workshop &workshop, const Notation &notation);

} // namespace inchpeg
