// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/logbook/conditioning.h"
#include "core/planning/plates.h"
#include "core/reading/piece_reading.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// One station in the life of a piece.
struct LifeLine {
    std::string station; ///< "Planned", "Printed", "Failed", "Measured" …
    std::string when;    ///< as it is kept, or empty
    std::string text;    ///< quantities as marked()
    bool isWarning = false;
};

/// What a piece went through, from its plan to what was read and whether it counts, in that order.
/// reading: nullptr where it has none. verdict: what its rail's comparison says, or empty.
std::vector<LifeLine> pieceLife(const Study &study, const Piece &piece, const PlateLayout &layout,
                                const Workshop &workshop, const PieceReading *reading,
                                const std::string &verdict, Moment now);

} // namespace inchpeg
