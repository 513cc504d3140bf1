// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/tension/tension_reading.h"

#include "core/method/method.h"
#include "core/method/section_settings.h"
#include "core/method/stress_strain_picture.h"
#include "core/method/tension/tensile.h"

#include <array>

namespace inchpeg
{

namespace
{

constexpr PropertyWords kTakesUp{"Takes up {} more energy than {}", "Takes up {} less energy than {}"};

constexpr std::array kProperties = {
    Property{"tensile_modulus",
             "Modulus",
             Dimension::Stress,
             "Least-squares slope of stress over strain in the modulus range, 0.05 % to 0.25 % strain "
             "unless set otherwise, after the toe (ISO 527-1)",
             Better::Higher,
             {"Is {} stiffer than {}", "Is {} less stiff than {}"}},
    Property{"yield_stress", "Yield stress", Dimension::Stress,
             "Stress at the first maximum after which strain grows while stress falls or stays (ISO 527-1)"},
    Property{"yield_strain",
             "Yield strain",
             Dimension::Ratio,
             "Strain at the yield stress (ISO 527-1)",
             Better::Neither,
             {"Stretches {} more than {} before it yields", "Stretches {} less than {} before it yields"}},
    Property{"offset_yield_stress", "Offset yield stress", Dimension::Stress,
             "Stress where the record meets the modulus line shifted by the offset, 0.2 % strain unless "
             "set otherwise"},
    Property{"tensile_strength", "Strength", Dimension::Stress,
             "Stress at the first local maximum clear of the noise, else the largest stress (ISO 527-1)"},
    Property{
        "strain_at_strength",
        "Strain at strength",
        Dimension::Ratio,
        "Strain at the tensile strength (ISO 527-1)",
        Better::Neither,
        {"Stretches {} more than {} up to its strength", "Stretches {} less than {} up to its strength"}},
    Property{"stress_at_break", "Stress at break", Dimension::Stress,
             "Stress at the upper end of the fall by which the piece broke, else at the end of the record"},
    Property{"strain_at_break",
             "Strain at break",
             Dimension::Ratio,
             "Strain at the break, toe taken off",
             Better::Higher,
             {"Stretches {} more than {} before it breaks", "Stretches {} less than {} before it breaks"}},
    Property{"energy_to_break", "Energy to break", Dimension::Energy,
             "Area under force over extension to the break", Better::Higher, kTakesUp},
    Property{"toughness", "Toughness", Dimension::EnergyDensity, "Area under stress over strain to the break",
             Better::Higher, kTakesUp},
    Property{"toe_strain",
             "Toe",
             Dimension::Ratio,
             "Strain taken off so that the steepest initial straight part meets the origin",
             Better::Neither,
             {"Shows {} more toe than {}", "Shows {} less toe than {}"}},
    Property{"peak_force", "Breaking force", Dimension::Force,
             "Largest force of the record, lone spikes left out"},
    Property{"poissons_ratio",
             "Poisson's ratio",
             Dimension::Number,
             "Transverse over axial strain in the modulus range (ISO 527-1)",
             Better::Neither,
             {"Narrows {} more than {}", "Narrows {} less than {}"}},
    Property{"strain_rate",
             "Strain rate",
             Dimension::StrainRate,
             "Slope of strain over time in the modulus range",
             Better::Neither,
             {"Was pulled {} faster than {}", "Was pulled {} more slowly than {}"}},
    Property{"strain_left",
             "Strain left",
             Dimension::Ratio,
             "(length between the gauge marks afterwards − gauge length) over the gauge length",
             Better::Lower,
             {"Stays {} longer than {}", "Stays {} shorter than {}"}},
};

constexpr double kStillRisingShare = 0.99; ///< of the strength, at the end of the record (ours)
constexpr std::string_view kStrengthPlaces[] = {"first maximum", "largest stress"};

constexpr std::array kParameters = {
    kWidth,
    kThickness,
    kArea,
    kDiameter,
    Parameter{"gauge_length", "Gauge length", "length over which the extension is measured", "mm",
              ParameterSource::Shape},
    Parameter{"grip_distance", "Grip distance", "length that a crosshead travel is of", "mm",
              ParameterSource::Shape},
    kToe,
    kCapacity,
    kModulusFrom,
    kModulusTo,
    Parameter{"offset", "Offset", "strain of the offset yield line", "mm/mm", ParameterSource::Test, false,
              "0.2 %"},
    kBreakDrop,
    Parameter{
        "strength_at", "Strength at",
        "the first maximum that stands clear, or the largest stress before the break: for elastomers, and "
        "plastics that rise again when drawn",
        "", ParameterSource::Test, false, kStrengthPlaces[0], kStrengthPlaces},
    Parameter{"strain_rate", "Strain rate", "that was planned; 1 %/min for a modulus by ISO 527-1", "%/min",
              ParameterSource::Test},
    Parameter{"length_after", "Length afterwards",
              "between the gauge marks when the piece has had time to go back", "mm", ParameterSource::Piece},
};

Result<TensileParameters> parametersFrom(const MethodSettings &settings, const PlacedMarkers &placed)
{
    const Result<Section> section = sectionFrom(settings);
    if (!section)
        return section.error();
    const Result<Area> area = areaOf(*section);
    if (!area)
        return area.error();
    TensileParameters parameters;
    parameters.area = *area;
    parameters.gaugeLength = settings.length("gauge_length");
    parameters.gripDistance = settings.length("grip_distance");
    parameters.offsetStrain = settings.number("offset", parameters.offsetStrain);
    parameters.plannedRate_percent_per_min = settings.number("strain_rate");
    setRules(parameters, settings, placed);
    parameters.strengthAtLargest = settings.word("strength_at") == kStrengthPlaces[1];
    return parameters;
}

/// Where the largest stress counts and the record ends on it, unbroken, the strength is higher.
bool isStillRising(const TensileResult &r, const TensileParameters &parameters)
{
    return parameters.strengthAtLargest && !r.markers.broke && r.tensileStrength_MPa &&
           r.stress_MPa[r.markers.lastBeforeBreak] >= kStillRisingShare * *r.tensileStrength_MPa;
}

/// What an elastomer does not take back.
std::optional<double> strainLeft(const MethodSettings &settings)
{
    const std::optional<double> before_mm = settings.number("gauge_length");
    const std::optional<double> after_mm = settings.number("length_after");
    return before_mm && after_mm ? std::optional(*after_mm / *before_mm - 1.0) : std::nullopt;
}

std::vector<ReadValue> valuesOf(const TensileResult &r, const TensileParameters &parameters,
                                const MethodSettings &settings)
{
    const StressStrainBounds bounds = boundsOf(r.atLeast, r.markers, r.tensileStrength_MPa);
    const BoundReason strength = bounds.gauge == BoundReason::None && isStillRising(r, parameters)
                                     ? BoundReason::RecordEnds
                                     : bounds.gauge;
    ValueList values;
    values.add("tensile_modulus", r.tensileModulus_MPa);
    values.add("yield_stress", r.yieldStress_MPa, bounds.of(r.yieldStress_MPa));
    values.add("yield_strain", r.yieldStrain, bounds.of(r.yieldStress_MPa));
    values.add("offset_yield_stress", r.offsetYieldStress_MPa, bounds.of(r.offsetYieldStress_MPa));
    values.add("tensile_strength", r.tensileStrength_MPa, strength);
    values.add("strain_at_strength", r.strainAtStrength, strength);
    values.add("stress_at_break", r.stressAtBreak_MPa, bounds.atBreak);
    values.add("strain_at_break", r.strainAtBreak, bounds.atBreak);
    values.add("energy_to_break", r.energyToBreak_J, bounds.atBreak);
    values.add("toughness", r.toughness_MJ_per_m3, bounds.atBreak);
    values.add("toe_strain", r.toeStrain);
    values.add("peak_force", r.peakForce_N, bounds.gauge);
    values.add("poissons_ratio", r.poissonsRatio);
    values.add("strain_rate", r.strainRate_percent_per_min);
    values.add("strain_left", strainLeft(settings));
    return values.take();
}

Status checkTension(const MethodSettings &settings)
{
    const Result<TensileParameters> parameters = parametersFrom(settings, {});
    return parameters ? checkTensileParameters(*parameters) : Status(parameters.error());
}

Result<Reading> read(RecordTable table, const MethodSettings &settings, const PlacedMarkers &placed,
                     const TaskRunner &run)
{
    const Result<TensileParameters> parameters = parametersFrom(settings, placed);
    if (!parameters)
        return parameters.error();
    ForceCurve curve = forceCurveOf(std::move(table));
    Result<TensileResult> result = reduceTensile(curve, *parameters, run);
    if (!result)
        return result.error();
    Reading reading;
    reading.values = valuesOf(*result, *parameters, settings);
    drawStressStrain(reading,
                     {std::move(result->stress_MPa), std::move(result->strain), result->markers,
                      result->toeStrain, result->tensileModulus_MPa,
                      parameters->markers.modulusFrom.value_or(parameters->lowStrain),
                      parameters->markers.modulusTo.value_or(parameters->highStrain),
                      parameters->markers.noYield, result->atLeast},
                     std::move(curve));
    if (result->offsetYieldStress_MPa)
        reading.marks.push_back(
            {{}, "Offset yield", *result->offsetYieldStrain, *result->offsetYieldStress_MPa, {}});
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

Status checkForFile(const RecordTable &table, const MethodSettings &settings)
{
    const bool needsLength = !table.has(2) && table.has(1);
    if (needsLength && !settings.contains("gauge_length") && !settings.contains("grip_distance"))
        return invalidArgument("\"gauge_length\" is missing: the file has an extension and no strain; "
                               "give gauge_length, or grip_distance for a crosshead travel");
    return ok();
}

} // namespace

constinit const Reduction kTensileReduction{"tensile",
                                            "read tension and layer-adhesion records",
                                            6, // 5 took the end of an elastomer for its start
                                            kProperties,
                                            kParameters,
                                            kTensionColumns,
                                            kStressStrainMarkers,
                                            checkTension,
                                            read,
                                            checkForFile};

} // namespace inchpeg
