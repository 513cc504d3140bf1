// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/planned_test.h"

namespace inchpeg
{

/// One plate of the plan.
struct Plate {
    int number = 0; ///< from 1, in the order of printing
    int round = 1;
    std::string settings; ///< what it is printed with, of the factors that are set per plate: "250 °C"
    std::vector<PlacedPiece> pieces;
    std::string printedAt; ///< empty: not printed yet
    double grams = 0.0;
    double minutes = 0.0;
};

struct PlateLayout {
    std::vector<Plate> plates;
    std::vector<PieceId> testOrder; ///< all placed pieces
    std::vector<PieceId> unplaced;  ///< larger than the bed, or higher than the printer
    double bedWidth_mm = 0.0;
    double bedDepth_mm = 0.0;
};

/// Lays the pieces out on plates and draws the orders of printing and testing, all from the plan's seed: the
/// same study gives the same layout on every machine.
///
/// Conditions that differ in a factor set per plate, or in their material, never share a plate. The pieces of
/// each condition are dealt to the plan's rounds by lot, so that rounds hold as equal shares as can be.
/// Within a round the plates are printed in random order, and each plate takes one piece of each of its
/// conditions after the other, in a new random order each time. Testing goes round by round (a day each,
/// where it can be), and within a round block by block, a block being one piece of each condition in random
/// order.
///
/// Printed plates stay as they are; only what is not printed is laid out and drawn again. Pieces that hold
/// data without being on a printed plate were printed before there was a plan, and are left out.
/// Source: randomised blocks, Box, Hunter & Hunter (2005), ch. 4.
PlateLayout layOutPlates(const Study &study, const Workshop &workshop);

/// The layout's plates up to and including the one of this number that are not printed yet become printed.
/// Errors: NotFound for a number that is not in the layout.
Status markPrinted(Study &study, const PlateLayout &layout, int plateNumber, const std::string &when);
/// Takes it back for a plate none of whose pieces holds anything.
/// Errors: NotFound; InvalidArgument where a piece of it is measured or broken.
Status unmarkPrinted(Study &study, int plateNumber);

/// True once a plate is printed, or a piece holds something.
bool hasBegun(const Study &study);

/// Writes into a plan that has begun what a change did to it; nothing where the change touched neither rails,
/// pieces, order nor settings. To be called on every edit, with the study before it.
void recordLateChange(const Study &before, Study &after, const std::string &who, const std::string &when);

/// How a piece lies on the plate.
struct Footprint {
    double width_mm = 0.0;
    double depth_mm = 0.0;
    double height_mm = 0.0;
};
Footprint footprintOf(const SpecimenShape &shape, Orientation orientation);

} // namespace inchpeg
