// SPDX-License-Identifier: GPL-3.0-or-later
// The tables of a study's report. One without rows has nothing to tell and is left out.
#pragma once

#include "core/compare/responses.h"
#include "core/compare/verdict.h"
#include "core/report/report.h"
#include "core/text/notation.h"

#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// A raw file that a piece's record was read from.
struct ReportedFile {
    PieceId piece;
    std::string name;
    std::string sha256;
};

/// Rail by rail: n, mean, scatter, interval, least, most, beside the reference. Of grades the median, of
/// words how often each was seen.
ReportTable railsTable(const Study &study, const StudyComparison &comparison, const StudyVerdict &verdict,
                       const Notation &notation);

/// A piece a row, of one test: section, mass, its values, how it broke, whether it counts.
ReportTable piecesTable(const Study &study, const PieceReadings &readings, Method test,
                        std::span<const Response> responses, const Notation &notation);

/// What people decided about single pieces: left out, markers by hand, prints that failed; with who, when and
/// why.
ReportTable decisionsTable(const Study &study);

/// Gauges and rigs that records, sizes and masses were read with, and their calibration then.
ReportTable gaugesTable(const Study &study);

/// How the plates were really printed.
ReportTable platesTable(const Study &study);

/// Rules of the tests that records do not keep, and the pieces concerned.
ReportTable brokenRulesTable(const Study &study, const PieceReadings &readings, const Notation &notation);

/// What each reported property is.
ReportTable definitionsTable(std::span<const Response> responses);

ReportTable rawFilesTable(const Study &study, std::span<const ReportedFile> files);

} // namespace inchpeg
