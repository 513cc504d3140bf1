// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"

#include <vector>

namespace inchpeg
{

/// The printed plates that hold a piece, in order; the last counts.
std::vector<int> platesOf(const Study &study, PieceId piece);

/// True where that print of the piece failed.
bool hasFailedOn(const Piece &piece, int plate);

/// What of a piece's prints is known.
enum class PrintState {
    Planned,
    Printed,
    Failed,        ///< and not to be printed again
    AwaitsReprint, ///< failed, and planned again
};
PrintState printState(const Study &study, const Piece &piece);

} // namespace inchpeg
