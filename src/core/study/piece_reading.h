// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/curve/force_curve.h"
#include "core/method/tension/tensile.h"
#include "core/study/study.h"

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
    std::optional<UsedGauge> gauge{}; ///< its calibration and compliance are applied before anything is read
    TaskRunner run = inOrder;         ///< for a record that is read alone, while other cores are idle
};

/// What stress is drawn over.
enum class CurveAxis { Strain, Extension, Time, None };

/// The x values of a record on an axis: strains after the toe as a fraction, mm, s; empty where the record
/// does not have them.
const std::vector<double> &xOf(const ForceCurve &curve, const TensileResult &result, CurveAxis axis);
/// The best axis that a record has.
CurveAxis axisOf(const ForceCurve &curve, const TensileResult &result);

/// A record as it is drawn among others: the record itself where it is short, else a line that looks the same
/// at up to a thousand picture points.
struct CurveOutline {
    CurveAxis axis = CurveAxis::None;
    std::vector<double> x;
    std::vector<double> stress_MPa;
    std::size_t breakAt = 0; ///< index of the last point before the break
    bool operator==(const CurveOutline &) const = default;
};

/// Where a marker lies on the outline's axis.
struct MarkerPoint {
    Marker marker = Marker::Toe;
    double x = 0.0;
    double stress_MPa = 0.0;
    bool operator==(const MarkerPoint &) const = default;
};

/// The markers of a record in the order of kMarkers; those that the record does not give are left out, and so
/// is the toe where there is no strain.
std::vector<MarkerPoint> markerPoints(const ForceCurve &curve, const TensileResult &result);

/// A piece's whole record with its reading; large, so it is kept only for the piece that is looked at.
struct PieceRecord {
    ForceCurve curve;
    TensileResult result;
    std::vector<std::string> importWarnings;
};

/// What was read from a piece's record, without the record itself.
struct PieceReading {
    TensileResult result;                   ///< without stress_MPa and strain
    std::optional<TensileResult> automatic; ///< as found, where a person placed markers
    std::size_t samples = 0;
    CurveOutline outline;
    std::vector<MarkerPoint> points;
    std::vector<std::string> importWarnings;
    bool operator==(const PieceReading &) const = default;
};

/// Errors: those of decodeText(), findLayout(), withMapping(), readForceCurve() and reduceTensile().
Result<PieceRecord> readRecord(const ReadingJob &job);

/// Reads a record and keeps what was read. Errors: as readRecord().
Result<PieceReading> readPiece(const ReadingJob &job);

/// A failed reading keeps its error, so that it can be shown at the peg.
using PieceReadings = std::map<PieceId, std::shared_ptr<const Result<PieceReading>>>;

/// The reading, or nothing where there is none or it failed.
const PieceReading *readingOf(const PieceReadings &readings, PieceId piece);

} // namespace inchpeg
