// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/load_curve_picture.h"

namespace inchpeg
{

LoadCurveRules loadCurveRules(const MethodSettings &settings, const PlacedMarkers &placed)
{
    LoadCurveRules rules;
    rules.capacity = settings.number("capacity");
    rules.breakDrop = settings.number("break_drop", rules.breakDrop);
    rules.peak = placedSample(placed, "peak");
    rules.lastBeforeBreak = placedSample(placed, "break");
    return rules;
}

void drawLoadCurve(Reading &reading, LoadCurve curve, const PictureAxis &way, const PictureAxis &load,
                   std::string_view wayColumn, std::string_view loadColumn)
{
    if (!curve.way.empty() && curve.load.size() > 1) {
        reading.picture.x = way;
        reading.picture.y = load;
        const auto mark = [&](const char *name, std::size_t sample, std::string label) {
            reading.marks.push_back(
                {name, std::move(label), curve.way[sample], curve.load[sample], static_cast<double>(sample)});
        };
        mark("peak", curve.peak, curve.atLeast ? "At least" : "");
        mark("break", curve.lastBeforeBreak, curve.broke ? "" : "End of record");
        reading.picture.record = RecordCurve{0, 1, curve.lastBeforeBreak, false};
        reading.columns.push_back({std::string(wayColumn), std::move(curve.way)});
    }
    reading.columns.push_back({std::string(loadColumn), std::move(curve.load)});
    reading.validity = std::move(curve.validity);
    reading.warnings = std::move(curve.warnings);
}

BoundReason boundAtPeak(const LoadCurve &curve)
{
    return curve.atLeast ? BoundReason::GaugeAtEnd : BoundReason::None;
}

BoundReason boundAtBreak(const LoadCurve &curve)
{
    if (curve.atLeast)
        return BoundReason::GaugeAtEnd;
    return curve.isWhole() ? BoundReason::None : BoundReason::RecordEnds;
}

} // namespace inchpeg
