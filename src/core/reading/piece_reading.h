// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/method.h"
#include "core/model/study.h"
#include "core/reading/reading_settings.h"

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
    ReadingOrder order;
    std::optional<UsedGauge> gauge{}; ///< its calibration and compliance are applied before anything is read
    TaskRunner run = inOrder;         ///< for a record that is read alone, while other cores are idle
};

/// A record as it is drawn among others: the record itself where it is short, else a line that looks the same
/// at up to a thousand picture points.
struct CurveOutline {
    PictureAxis xAxis;
    PictureAxis yAxis;
    std::vector<double> x;
    std::vector<double> y;
    bool isPoints = false;
    std::size_t breakAt = 0; ///< index of the last point before the break
    bool operator==(const CurveOutline &) const = default;
};

/// A piece's whole record with its reading; large, so it is kept only for the piece that is looked at.
struct PieceRecord {
    Reading reading;
    std::size_t samples = 0;
    std::vector<std::string> importWarnings;
    /// What it was read from, of a record short enough to be read again at every step of a drag.
    std::optional<RecordTable> table{};
    MethodSettings settings{};

    /// The record as it is drawn; empty where there is nothing to draw.
    [[nodiscard]] std::span<const double> x() const;
    [[nodiscard]] std::span<const double> y() const;
};

/// What was read from a piece's record, without the record itself.
struct PieceReading {
    Reading result;                   ///< without its columns; the record is in the outline
    std::optional<Reading> automatic; ///< as found, where a person placed markers: values and marks
    std::size_t samples = 0;
    CurveOutline outline;
    std::vector<std::string> importWarnings;
    bool operator==(const PieceReading &) const = default;
};

/// Values of a table of results stand as they were given: ReadingJob::mapping says so.
///
/// Errors: those of the import and of the test's own reading.
Result<PieceRecord> readRecord(const ReadingJob &job);

/// Reads a record and keeps what was read. Errors: as readRecord().
Result<PieceReading> readPiece(const ReadingJob &job);

/// A failed reading keeps its error, so that it can be shown at the peg.
using PieceReadings = std::map<PieceId, std::shared_ptr<const Result<PieceReading>>>;

/// The reading, or nothing where there is none or it failed.
const PieceReading *readingOf(const PieceReadings &readings, PieceId piece);

} // namespace inchpeg
