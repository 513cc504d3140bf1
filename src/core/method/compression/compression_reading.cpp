// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/compression/compression_reading.h"

#include "core/method/compression/compression.h"
#include "core/method/method.h"
#include "core/method/section_settings.h"
#include "core/method/stress_strain_picture.h"

#include <array>

namespace inchpeg
{

namespace
{

constexpr std::array kCompressionProperties = {
    Property{"compressive_strength", "Compressive strength", Dimension::Stress,
             "Stress at the first maximum clear of the noise, else the largest stress; of a piece that is "
             "pressed flatter and flatter it is only \"at least\" (ISO 604)"},
    Property{
        "compressive_modulus",
        "Compressive modulus",
        Dimension::Stress,
        "Least-squares slope of stress over strain, 0.05 % to 0.25 % unless set otherwise, after the toe "
        "(ISO 604)",
        Better::Higher,
        {"Is {} stiffer than {}", "Is {} less stiff than {}"}},
    Property{"yield_stress", "Yield stress", Dimension::Stress,
             "Stress at the first maximum after which strain grows while stress falls or stays (ISO 604)"},
    Property{"stress_at_given_strain", "Stress at the given strain", Dimension::Stress,
             "Stress where the strain first reaches the given one, 10 % unless set otherwise (ISO 604)"},
    Property{"strain_at_strength",
             "Strain at strength",
             Dimension::Ratio,
             "Strain at the compressive strength",
             Better::Neither,
             {"Is pressed {} further than {} up to its strength",
              "Is pressed {} less far than {} up to its strength"}},
    Property{"stress_at_break", "Stress at break", Dimension::Stress,
             "Stress at the upper end of the fall by which the piece broke, else at the end of the record"},
    Property{"toe_strain",
             "Toe",
             Dimension::Ratio,
             "Strain taken off so that the steepest initial straight part meets the origin",
             Better::Neither,
             {"Shows {} more toe than {}", "Shows {} less toe than {}"}},
    Property{"peak_force", "Peak force", Dimension::Force,
             "Largest force of the record, lone spikes left out"},
};

constexpr std::array kCompressionParameters = {
    kWidth,
    kThickness,
    kArea,
    kDiameter,
    Parameter{"length",
              "Length",
              "of the piece between the plates",
              "mm",
              ParameterSource::Shape,
              true,
              "",
              {},
              false,
              {.amount = 0.02}},
    Parameter{"gauge_length", "Gauge length", "where an extensometer on the piece measures the travel", "mm",
              ParameterSource::Test},
    Parameter{"at_strain", "Given strain", "at which a stress is told", "mm/mm", ParameterSource::Test, false,
              "10 %"},
    kToe,
    kCapacity,
    kModulusFrom,
    kModulusTo,
    kBreakDrop,
};

constexpr std::array kCompressionColumns = {
    RecordColumn{"force", ColumnQuantity::Force, "N", true, "Force"},
    RecordColumn{"travel", ColumnQuantity::Extension, "mm", false, "Travel"},
    RecordColumn{"strain", ColumnQuantity::Strain, "%", false, "Strain"},
    RecordColumn{"time", ColumnQuantity::Time, "s", false, "Time"},
};

Length thinnestOf(const MethodSettings &settings)
{
    const std::optional<Length> width = settings.length("width");
    const std::optional<Length> thickness = settings.length("thickness");
    if (width && thickness)
        return in_mm(*width) < in_mm(*thickness) ? *width : *thickness;
    return settings.length("diameter").value_or(millimetres(0.0));
}

Result<CompressionParameters> parametersFrom(const MethodSettings &settings, const PlacedMarkers &placed)
{
    const Result<Section> section = sectionFrom(settings);
    if (!section)
        return section.error();
    const Result<Area> area = areaOf(*section);
    if (!area)
        return area.error();
    if (const Status status = checkRequired(settings, kCompressionParameters); !status)
        return status.error();
    CompressionParameters parameters;
    parameters.area = *area;
    parameters.length = *settings.length("length");
    parameters.gaugeLength = settings.length("gauge_length");
    parameters.thinnest = thinnestOf(settings);
    parameters.givenStrain = settings.number("at_strain", parameters.givenStrain);
    setRules(parameters, settings, placed);
    return parameters;
}

std::vector<ReadValue> valuesOf(const CompressionResult &r)
{
    const StressStrainBounds bounds = boundsOf(r.atLeast, r.markers, r.strength_MPa);
    const BoundReason strength =
        bounds.gauge == BoundReason::None && r.isStillRising ? BoundReason::RecordEnds : bounds.gauge;
    ValueList values;
    values.add("compressive_strength", r.strength_MPa, strength);
    values.add("compressive_modulus", r.modulus_MPa);
    values.add("yield_stress", r.yieldStress_MPa, bounds.of(r.yieldStress_MPa));
    values.add("stress_at_given_strain", r.stressAtGivenStrain_MPa, bounds.of(r.stressAtGivenStrain_MPa));
    values.add("strain_at_strength", r.strainAtStrength, strength);
    values.add("stress_at_break", r.stressAtBreak_MPa, bounds.atBreak);
    values.add("toe_strain", r.toeStrain);
    values.add("peak_force", r.peakForce_N, strength);
    return values.take();
}

Status check(const MethodSettings &settings)
{
    const Result<CompressionParameters> parameters = parametersFrom(settings, {});
    return parameters ? checkCompressionParameters(*parameters) : Status(parameters.error());
}

Result<Reading> readCompression(RecordTable table, const MethodSettings &settings,
                                const PlacedMarkers &placed, const TaskRunner &)
{
    const Result<CompressionParameters> parameters = parametersFrom(settings, placed);
    if (!parameters)
        return parameters.error();
    ForceCurve curve = forceCurveOf(std::move(table));
    Result<CompressionResult> result = reduceCompression(curve, *parameters);
    if (!result)
        return result.error();
    Reading reading;
    reading.values = valuesOf(*result);
    const std::optional<double> given_MPa = result->stressAtGivenStrain_MPa;
    drawStressStrain(reading,
                     {std::move(result->stress_MPa), std::move(result->strain), result->markers,
                      result->toeStrain, result->modulus_MPa,
                      parameters->markers.modulusFrom.value_or(parameters->lowStrain),
                      parameters->markers.modulusTo.value_or(parameters->highStrain),
                      parameters->markers.noYield, result->atLeast},
                     std::move(curve));
    if (given_MPa)
        reading.marks.push_back({{}, "Given strain", parameters->givenStrain, *given_MPa, {}});
    reading.picture.y.label = "Compressive stress";
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kCompressionReduction{"compression",
                                                "read pieces pressed between plates",
                                                2,
                                                kCompressionProperties,
                                                kCompressionParameters,
                                                kCompressionColumns,
                                                kStressStrainMarkers,
                                                check,
                                                readCompression};

} // namespace inchpeg
