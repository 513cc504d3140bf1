// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/curve/force_curve.h"
#include "core/study/study.h"
#include "core/tensile/tensile.h"

#include <map>
#include <memory>
#include <string>

namespace inchpeg
{

/// What reading one piece's record needs; a value, so that it can be handed to another thread.
struct ReadingJob {
    PieceId piece;
    std::shared_ptr<const std::string> bytes;
    ColumnMapping mapping;
    TensileParameters parameters;
};

/// A piece's record and what was read from it.
struct PieceReading {
    ForceCurve curve;
    TensileResult result;
    std::vector<std::string> importWarnings;
};

/// Errors: those of decodeText(), findLayout(), withMapping(), readForceCurve() and reduceTensile().
Result<PieceReading> readPiece(const ReadingJob &job);

/// A failed reading keeps its error, so that it can be shown at the peg.
using PieceReadings = std::map<PieceId, std::shared_ptr<const Result<PieceReading>>>;

/// The reading, or nothing where there is none or it failed.
const PieceReading *readingOf(const PieceReadings &readings, PieceId piece);

} // namespace inchpeg
