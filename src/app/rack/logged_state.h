// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/rack/rack_model.h"

namespace inchpeg::app
{

/// How far a piece has come, its prints counted in: what the rails and the grid of the log show.
PegState loggedState(const Study &study, const Piece &piece, const PieceReadings &readings);

} // namespace inchpeg::app
