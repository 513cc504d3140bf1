// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/bending/bending_reading.h"

#include "core/method/bending/flexural.h"
#include "core/method/method.h"
#include "core/method/section_settings.h"
#include "core/method/stress_strain_picture.h"

#include <array>

namespace inchpeg
{

namespace
{

constexpr std::array kFlexuralProperties = {
    Property{"flexural_modulus",
             "Flexural modulus",
             Dimension::Stress,
             "Least-squares slope of the outer fibre's stress over its strain, 0.05 % to 0.25 % unless set "
             "otherwise, after the toe (ISO 178)",
             Better::Higher,
             {"Is {} stiffer than {}", "Is {} less stiff than {}"}},
    Property{"flexural_strength", "Flexural strength", Dimension::Stress,
             "Stress of the outer fibre at the first local maximum clear of the noise, else the largest "
             "(ISO 178)"},
    Property{"strain_at_strength",
             "Strain at strength",
             Dimension::Ratio,
             "Strain of the outer fibre at the strength",
             Better::Neither,
             {"Bends {} further than {} up to its strength", "Bends {} less far than {} up to its strength"}},
    Property{"stress_at_conventional_deflection", "Stress at 1.5 h", Dimension::Stress,
             "Stress of the outer fibre at a deflection of 1.5 times the thickness (ISO 178)"},
    Property{"stress_at_break", "Stress at break", Dimension::Stress,
             "Stress at the upper end of the fall by which the piece broke, else at the end of the record"},
    Property{"strain_at_break",
             "Strain at break",
             Dimension::Ratio,
             "Strain of the outer fibre at the break, toe taken off",
             Better::Higher,
             {"Bends {} further than {} before it breaks", "Bends {} less far than {} before it breaks"}},
    Property{"energy_to_break",
             "Energy to break",
             Dimension::Energy,
             "Area under force over deflection to the break",
             Better::Higher,
             {"Takes up {} more energy than {}", "Takes up {} less energy than {}"}},
    Property{"toe_strain",
             "Toe",
             Dimension::Ratio,
             "Strain taken off so that the steepest initial straight part meets the origin",
             Better::Neither,
             {"Shows {} more toe than {}", "Shows {} less toe than {}"}},
    Property{"peak_force", "Breaking force", Dimension::Force,
             "Largest force of the record, lone spikes left out"},
};

constexpr std::string_view kLoads[] = {"three-point", "four-point-third", "four-point-half"};

constexpr std::string_view kDeflectionAt[] = {"middle", "load-points"};

constexpr std::array kFlexuralParameters = {
    required(kWidth),
    required(kThickness),
    Parameter{"span",
              "Span",
              "distance of the supports",
              "mm",
              ParameterSource::Shape,
              true,
              "",
              {},
              false,
              {.amount = 0.06}},
    Parameter{"load_points", "Load",
              "loaded in the middle, or at two points a third or half of the span apart", "",
              ParameterSource::Test, false, "three-point", kLoads},
    Parameter{"deflection_at", "Deflection",
              "under four points: taken in the middle of the bar, or at the load points as a crosshead does",
              "", ParameterSource::Test, false, "", kDeflectionAt},
    Parameter{"large_deflection", "Large deflections",
              "whether the stress is corrected for deflections beyond a tenth of the span", "",
              ParameterSource::Test, false, "off", kOnOff},
    kToe,
    kCapacity,
    kModulusFrom,
    kModulusTo,
    kBreakDrop,
};

constexpr std::array kFlexuralColumns = {
    RecordColumn{"force", ColumnQuantity::Force, "N", true, "Force"},
    RecordColumn{"deflection", ColumnQuantity::Extension, "mm", false, "Deflection"},
    RecordColumn{"strain", ColumnQuantity::Strain, "%", false, "Strain"},
    RecordColumn{"time", ColumnQuantity::Time, "s", false, "Time"},
};

BendingLoad loadFrom(std::string_view word)
{
    for (const BendingLoad load : {BendingLoad::FourPointThird, BendingLoad::FourPointHalf}) {
        if (bendingLoadName(load) == word)
            return load;
    }
    return BendingLoad::ThreePoint;
}

FlexuralParameters flexuralParameters(const MethodSettings &settings, const PlacedMarkers &placed)
{
    FlexuralParameters parameters;
    parameters.width = *settings.length("width");
    parameters.thickness = *settings.length("thickness");
    parameters.span = *settings.length("span");
    parameters.load = loadFrom(settings.word("load_points"));
    if (const std::string_view at = settings.word("deflection_at"); !at.empty())
        parameters.deflectionAt = at == kDeflectionAt[0] ? DeflectionAt::Middle : DeflectionAt::LoadPoints;
    parameters.largeDeflection = settings.isOn("large_deflection", false);
    setRules(parameters, settings, placed);
    return parameters;
}

std::vector<ReadValue> valuesOf(const FlexuralResult &r)
{
    const StressStrainBounds bounds = boundsOf(r.atLeast, r.markers, r.flexuralStrength_MPa);
    ValueList values;
    values.add("flexural_modulus", r.flexuralModulus_MPa);
    values.add("flexural_strength", r.flexuralStrength_MPa, bounds.gauge);
    values.add("strain_at_strength", r.strainAtStrength, bounds.gauge);
    values.add("stress_at_conventional_deflection", r.stressAtConventionalDeflection_MPa,
               bounds.of(r.stressAtConventionalDeflection_MPa));
    values.add("stress_at_break", r.stressAtBreak_MPa, bounds.atBreak);
    values.add("strain_at_break", r.strainAtBreak, bounds.atBreak);
    values.add("energy_to_break", r.energyToBreak_J, bounds.atBreak);
    values.add("toe_strain", r.toeStrain);
    values.add("peak_force", r.peakForce_N, bounds.gauge);
    return values.take();
}

Status checkBending(const MethodSettings &settings)
{
    return checkRequired(settings, kFlexuralParameters);
}

Result<Reading> readBending(RecordTable table, const MethodSettings &settings, const PlacedMarkers &placed,
                            const TaskRunner &)
{
    if (const Status status = checkBending(settings); !status)
        return status.error();
    const FlexuralParameters parameters = flexuralParameters(settings, placed);
    ForceCurve curve = forceCurveOf(std::move(table));
    Result<FlexuralResult> result = reduceFlexural(curve, parameters);
    if (!result)
        return result.error();
    Reading reading;
    reading.values = valuesOf(*result);
    const std::optional<double> conventional = result->stressAtConventionalDeflection_MPa;
    drawStressStrain(reading,
                     {std::move(result->stress_MPa), std::move(result->strain), result->markers,
                      result->toeStrain, result->flexuralModulus_MPa,
                      parameters.markers.modulusFrom.value_or(parameters.lowStrain),
                      parameters.markers.modulusTo.value_or(parameters.highStrain),
                      parameters.markers.noYield, result->atLeast},
                     std::move(curve));
    if (conventional)
        reading.marks.push_back(
            {{},
             "1.5 h",
             bendingStrain(kConventionalDeflections * in_mm(parameters.thickness), parameters),
             *conventional,
             {}});
    reading.picture.y.label = "Stress of the outer fibre";
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kFlexuralReduction{"flexural",           "read bending records", 5,
                                             kFlexuralProperties,  kFlexuralParameters,    kFlexuralColumns,
                                             kStressStrainMarkers, checkBending,           readBending};

} // namespace inchpeg
