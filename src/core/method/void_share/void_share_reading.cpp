// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/void_share/void_share_reading.h"

#include "core/method/method.h"
#include "core/method/void_share/void_share.h"

#include <array>

namespace inchpeg
{

namespace
{

constexpr std::array kVoidShareProperties = {
    Property{"void_share",
             "Void share",
             Dimension::Ratio,
             "Share of the volume within the outer faces that is not polymer",
             Better::Neither,
             {"Is emptier by {} than {}", "Is fuller by {} than {}"}},
    Property{"density",
             "Apparent density",
             Dimension::Density,
             "Mass over the volume within the outer faces (ISO 845)",
             Better::Neither,
             {"Weighs {} more for its size than {}", "Weighs {} less for its size than {}"}},
};

constexpr std::array kVoidShareParameters = {
    Parameter{"mass", "Mass", "of the piece", "g", ParameterSource::Piece, true},
    Parameter{"width", "Width", "of the block, measured", "mm", ParameterSource::Piece, true},
    Parameter{"thickness", "Thickness", "of the block, measured", "mm", ParameterSource::Piece, true},
    Parameter{"length", "Length", "of the block", "mm", ParameterSource::Shape, true},
    Parameter{"solid_density", "Solid density", "of the polymer without voids: from its sheet", "g/cm³",
              ParameterSource::Test, false, "1.27 g/cm³"},
};

Status checkVoidShare(const MethodSettings &settings)
{
    return checkRequired(settings, kVoidShareParameters);
}

// By value as the other tests take it, which keep their columns.
// NOLINTNEXTLINE(performance-unnecessary-value-param)
Result<Reading> readVoidShare(RecordTable, const MethodSettings &settings, const PlacedMarkers &,
                              const TaskRunner &)
{
    if (const Status status = checkVoidShare(settings); !status)
        return status.error();
    Result<VoidShareResult> result = reduceVoidShare(
        {Mass::fromSi(*settings.number("mass")), *settings.length("width"), *settings.length("thickness"),
         *settings.length("length"), settings.number("solid_density")});
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("void_share", result->voidShare);
    values.add("density", result->density_g_per_cm3);
    reading.values = values.take();
    const double solid = settings.number("solid_density", result->density_g_per_cm3);
    const double voids = result->voidShare.value_or(0.0);
    reading.picture.x = {"Void share", Dimension::Ratio};
    reading.picture.y = {"Apparent density", Dimension::Density};
    reading.picture.series.push_back({"Solid to empty", {0.0, 1.0}, {solid, 0.0}});
    reading.marks.push_back({{}, "This piece", voids, result->density_g_per_cm3, {}});
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kVoidShareReduction{"void-share",
                                              "read blocks that were weighed and measured",
                                              1,
                                              kVoidShareProperties,
                                              kVoidShareParameters,
                                              {},
                                              {},
                                              checkVoidShare,
                                              readVoidShare};

} // namespace inchpeg
