// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/study/piece_reading.h"

#include "core/curve/curve_pyramid.h"
#include "core/import/text.h"

#include <cmath>

namespace inchpeg
{

namespace
{

/// Up to so many samples an outline is the record itself.
constexpr std::size_t kShortRecord = 2048;

void append(CurveOutline &outline, std::span<const double> x, std::span<const double> y)
{
    const CurvePyramid pyramid(x, y);
    for (const PlotPoint &point : pyramid.line(pyramid.wholeWindow())) {
        outline.x.push_back(point.x);
        outline.stress_MPa.push_back(point.y);
    }
}

CurveOutline outlineOf(const PieceRecord &record)
{
    CurveOutline outline;
    outline.axis = axisOf(record.curve, record.result);
    const std::vector<double> &x = xOf(record.curve, record.result, outline.axis);
    const std::vector<double> &stress_MPa = record.result.stress_MPa;
    if (x.size() != stress_MPa.size())
        return outline;
    const std::size_t last = record.result.markers.lastBeforeBreak;
    if (x.size() <= kShortRecord) {
        outline.x = x;
        outline.stress_MPa = stress_MPa;
        outline.breakAt = last;
        return outline;
    }
    append(outline, std::span(x).first(last + 1), std::span(stress_MPa).first(last + 1));
    outline.breakAt = outline.x.size() - 1;
    if (last + 1 < x.size())
        append(outline, std::span(x).subspan(last + 1), std::span(stress_MPa).subspan(last + 1));
    return outline;
}

/// The numbers without the samples.
TensileResult withoutSamples(TensileResult result)
{
    result.stress_MPa = {};
    result.strain = {};
    return result;
}

} // namespace

const std::vector<double> &xOf(const ForceCurve &curve, const TensileResult &result, CurveAxis axis)
{
    static const std::vector<double> kNone;
    switch (axis) {
    case CurveAxis::Strain:
        return result.strain;
    case CurveAxis::Extension:
        return curve.extension_mm;
    case CurveAxis::Time:
        return curve.time_s;
    case CurveAxis::None:
        return kNone;
    }
    throw ContractViolation("unknown axis");
}

CurveAxis axisOf(const ForceCurve &curve, const TensileResult &result)
{
    return !result.strain.empty()        ? CurveAxis::Strain
           : !curve.extension_mm.empty() ? CurveAxis::Extension
           : !curve.time_s.empty()       ? CurveAxis::Time
                                         : CurveAxis::None;
}

std::vector<MarkerPoint> markerPoints(const ForceCurve &curve, const TensileResult &result)
{
    std::vector<MarkerPoint> points;
    const std::vector<double> &x = xOf(curve, result, axisOf(curve, result));
    if (x.empty())
        return points;
    const CurveMarkers &m = result.markers;
    const auto at = [&](Marker marker) -> std::optional<std::size_t> {
        switch (marker) {
        case Marker::Toe:
            return std::nullopt;
        case Marker::ModulusFrom:
            return m.modulusFirst;
        case Marker::ModulusTo:
            return m.modulusLast;
        case Marker::Yield:
            return m.yield;
        case Marker::Strength:
            return m.strength;
        case Marker::Break:
            return m.lastBeforeBreak;
        }
        throw ContractViolation("unknown marker");
    };
    if (!result.strain.empty())
        points.push_back({Marker::Toe, 0.0, 0.0});
    for (const Marker marker : kMarkers) {
        if (const auto sample = at(marker))
            points.push_back({marker, x[*sample], result.stress_MPa[*sample]});
    }
    return points;
}

namespace
{

/// Forces become true ones, and the travel of a crosshead loses what the frame itself gave way.
void correct(ForceCurve &curve, const UsedGauge &gauge)
{
    if (gauge.calibration) {
        // A record may have either sign; a calibration is of what the gauge shows, without one.
        for (double &force_N : curve.force_N)
            force_N = std::copysign(correctedReading(*gauge.calibration, std::abs(force_N)), force_N);
    }
    if (gauge.compliance_mm_per_N > 0.0 && curve.extensionIsCrosshead) {
        for (std::size_t i = 0; i < curve.extension_mm.size(); ++i)
            curve.extension_mm[i] -= gauge.compliance_mm_per_N * curve.force_N[i];
    }
}

/// The end of the range is where the gauge's own display ends: the true force there follows from the
/// calibration.
TensileParameters correctedParameters(const ReadingJob &job)
{
    TensileParameters parameters = job.parameters;
    if (parameters.capacity && job.gauge && job.gauge->calibration)
        parameters.capacity = newtons(correctedReading(*job.gauge->calibration, in_N(*parameters.capacity)));
    return parameters;
}

} // namespace

Result<PieceRecord> readRecord(const ReadingJob &job)
{
    require(job.bytes != nullptr, "readRecord() without bytes");
    const Result<DecodedText> text = decodeText(*job.bytes, job.run);
    if (!text)
        return text.error();
    const Result<Layout> found = findRecordLayout(text->utf8);
    if (!found)
        return found.error();
    const Result<Layout> layout = withMapping(*found, job.mapping);
    if (!layout)
        return layout.error();
    Result<ImportedCurve> imported = readForceCurve(text->utf8, *layout, job.run);
    if (!imported)
        return imported.error();
    if (job.gauge)
        correct(imported->curve, *job.gauge);
    Result<TensileResult> result = reduceTensile(imported->curve, correctedParameters(job), job.run);
    if (!result)
        return result.error();
    if (job.gauge) {
        if (std::string warning = calibrationWarning(*job.gauge); !warning.empty())
            result->warnings.push_back(std::move(warning));
    }
    return PieceRecord{std::move(imported->curve), std::move(*result), std::move(imported->warnings)};
}

Result<PieceReading> readPiece(const ReadingJob &job)
{
    Result<PieceRecord> record = readRecord(job);
    if (!record)
        return record.error();
    PieceReading reading;
    reading.samples = record->curve.force_N.size();
    reading.outline = outlineOf(*record);
    reading.points = markerPoints(record->curve, record->result);
    reading.importWarnings = std::move(record->importWarnings);
    if (job.parameters.markers != MarkerOverrides{}) {
        TensileParameters asFound = correctedParameters(job);
        asFound.markers = {};
        Result<TensileResult> automatic = reduceTensile(record->curve, asFound, job.run);
        if (!automatic)
            return automatic.error();
        reading.automatic = withoutSamples(std::move(*automatic));
    }
    reading.result = withoutSamples(std::move(record->result));
    return reading;
}

const PieceReading *readingOf(const PieceReadings &readings, PieceId piece)
{
    const auto found = readings.find(piece);
    if (found == readings.end() || !found->second->has_value())
        return nullptr;
    return &found->second->value();
}

} // namespace inchpeg
