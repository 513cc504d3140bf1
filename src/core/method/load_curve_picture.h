// SPDX-License-Identifier: GPL-3.0-or-later
// What the tests of a load over a way share beside the arithmetic: properties, markers and the picture.
#pragma once

#include "core/curve/load_curve.h"
#include "core/method/method.h"
#include "core/method/stress_strain_picture.h"

#include <array>

namespace inchpeg
{

inline constexpr Property kStiffness{
    "stiffness",
    "Stiffness",
    Dimension::ForcePerLength,
    "Steepest least-squares slope over a rise of 30 % of the peak force, before the peak",
    Better::Higher,
    {"Is {} stiffer than {}", "Is {} less stiff than {}"}};
inline constexpr Property kEnergyToBreak{
    "energy",          "Energy to break",
    Dimension::Energy, "Area under the force over the travel up to the break",
    Better::Higher,    {"Takes up {} more energy than {}", "Takes up {} less energy than {}"}};

/// A force over an extension.
inline constexpr std::array kPushColumns = {
    RecordColumn{"force", ColumnQuantity::Force, "N", true, "Force"},
    RecordColumn{"extension", ColumnQuantity::Extension, "mm", false, "Travel"},
};

/// The largest load and the break; a person may place either.
/// decides: the property that hangs on the peak, and the one that hangs on the break.
constexpr std::array<MarkerKind, 2> peakAndBreak(std::string_view byPeak, std::string_view byBreak)
{
    return {MarkerKind{"peak", "Peak", "The largest load.", MarkerPlace::Sample, byPeak, false, true},
            MarkerKind{"break", "Break", "Upper end of the fall by which the piece let go.",
                       MarkerPlace::Sample, byBreak}};
}

/// Rules out of the settings and markers of those names.
LoadCurveRules loadCurveRules(const MethodSettings &settings, const PlacedMarkers &placed);

/// Checks, warnings, columns, picture and marks of a curve. axes: of way and load; columns: their names in
/// exports.
void drawLoadCurve(Reading &reading, LoadCurve curve, const PictureAxis &way, const PictureAxis &load,
                   std::string_view wayColumn, std::string_view loadColumn);

/// What is read at the peak, and up to the break.
BoundReason boundAtPeak(const LoadCurve &curve);
BoundReason boundAtBreak(const LoadCurve &curve);

} // namespace inchpeg
