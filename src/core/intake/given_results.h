// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/intake/results_table.h"
#include "core/logbook/measuring.h"

#include <map>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A value that a row gives a piece.
struct TakenResult {
    PieceId piece;
    GivenValue value;
    Dimension dimension = Dimension::Number;
};

/// What the rows of a table give the pieces of a study.
struct GivenResults {
    struct WaitingRow {
        std::size_t line = 0;
        std::string code;
        std::string why;
    };
    std::vector<TakenResult> taken;
    std::vector<WaitingRow> waiting; ///< rows of no piece, or of one that has a record
    std::vector<RefusedCell> refused;
    std::map<PieceId, GivenRow> rows;
    std::map<PieceId, std::size_t> places; ///< which of the table's rows each is, from 0
};

/// How the rows fall to the pieces of the table's test, by their codes: a piece's own, or its label.
/// mayReplace: also where other values are given already. Errors: InvalidArgument where no column names the
/// pieces.
Result<GivenResults> resultsForPieces(const Study &study, const ResultsTable &table,
                                      std::string_view labPrefix, bool mayReplace);

/// Takes them: the values stand on the pieces as given ones, with the file that holds the table; sizes,
/// masses and remarks of the row go into the log where nothing stands yet.
/// Errors: those of setLoggedValue().
Status takeResults(Study &study, const ResultsTable &table, const GivenResults &results, RawFileId file,
                   const MeasuringGauges &gauges);

} // namespace inchpeg
