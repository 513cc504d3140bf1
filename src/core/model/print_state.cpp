// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/print_state.h"

#include "core/model/study_edit.h"

#include <algorithm>

namespace inchpeg
{

std::vector<int> platesOf(const Study &study, PieceId piece)
{
    std::vector<int> plates;
    for (const PrintedPlate &plate : study.plan.print.printed) {
        if (std::any_of(plate.pieces.begin(), plate.pieces.end(),
                        [&](const PlacedPiece &placed) { return placed.piece == piece; }))
            plates.push_back(plate.number);
    }
    return plates;
}

bool hasFailedOn(const Piece &piece, int plate)
{
    return std::any_of(piece.log.failures.begin(), piece.log.failures.end(),
                       [plate](const PrintFailure &failure) { return failure.plate == plate; });
}

PrintState printState(const Study &study, const Piece &piece)
{
    const std::vector<int> plates = platesOf(study, piece.id);
    if (plates.empty())
        return isUntouched(piece) ? PrintState::Planned : PrintState::Printed;
    if (!hasFailedOn(piece, plates.back()))
        return PrintState::Printed;
    return piece.log.failures.back().reprint ? PrintState::AwaitsReprint : PrintState::Failed;
}

} // namespace inchpeg
