// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/graph.h"
#include "core/model/study.h"
#include "core/reading/piece_reading.h"
#include "core/report/drawing.h"
#include "core/text/notation.h"

#include <optional>

namespace inchpeg
{

/// A graph over two axes, its series told apart by marks and dashes, with its key at the right.
Drawing graphDrawing(const Graph &graph, const Notation &notation);

/// The records of a test, rail by rail in small panels on one scale, as far as mostRails go; a piece that
/// does not count is dashed. Empty where no record has a curve.
struct CurvesDrawing {
    Drawing drawing;
    std::size_t leftOut = 0; ///< rails that found no room
};
CurvesDrawing curvesDrawing(const Study &study, const PieceReadings &readings, Method test,
                            const Notation &notation, std::size_t mostRails = 12);

} // namespace inchpeg
