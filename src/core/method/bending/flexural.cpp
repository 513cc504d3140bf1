// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/bending/flexural.h"

#include "core/base/contract.h"
#include "core/curve/mended_record.h"
#include "core/method/sizes.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kLeastSpanRatio = 15.0; ///< ISO 178:2019, 9.1: L = (16 ± 1) h
constexpr double kMostSpanRatio = 17.0;
constexpr double kMostBendingStrain = 0.05; ///< ASTM D790-17, 1.3: beyond it the formula does not hold

struct Formula {
    double stress = 0.0;              ///< times FL/(bh²)
    double strain = 0.0;              ///< times sh/L²
    double middleOverLoadPoint = 1.0; ///< of the deflections
};

Formula formulaOf(BendingLoad load)
{
    switch (load) {
    case BendingLoad::ThreePoint:
        return {1.5, 6.0};
    case BendingLoad::FourPointThird:
        return {1.0, 4.70, 23.0 / 20.0};
    case BendingLoad::FourPointHalf:
        return {0.75, 4.36, 11.0 / 8.0};
    }
    throw ContractViolation("unknown bending load");
}

Status checkParameters(const FlexuralParameters &p)
{
    if (const Status status = checkSizes({{"width", p.width}, {"thickness", p.thickness}, {"span", p.span}});
        !status)
        return status;
    if (p.largeDeflection && p.load != BendingLoad::ThreePoint)
        return invalidArgument(
            "the correction for large deflections is of three-point bending; switch it off for four points");
    return ok();
}

/// Deflections as those of the middle.
void takeToTheMiddle(MendedColumn &deflection, const ForceCurve &curve, const FlexuralParameters &p,
                     std::vector<std::string> &warnings)
{
    const double factor = formulaOf(p.load).middleOverLoadPoint;
    if (factor == 1.0)
        return;
    if (!p.deflectionAt && !curve.extensionIsCrosshead) {
        warnings.push_back(fmt::format(
            "it is not said where the deflection was taken: read as that of the middle; if it is the travel "
            "of "
            "the crosshead, the modulus is {:.0f} % too high: say so under \"Deflection\" of the test",
            100.0 * (factor - 1.0)));
        return;
    }
    if (p.deflectionAt.value_or(DeflectionAt::LoadPoints) == DeflectionAt::Middle)
        return;
    for (std::size_t i = 0; i < deflection.view().size(); ++i)
        deflection.set(i, factor * deflection.view()[i]);
    warnings.push_back(
        fmt::format("the deflection is that of the load points: times {:.4g} for the middle", factor));
}

double deflection_mm(double strain, const FlexuralParameters &p)
{
    return strain / bendingStrain(1.0, p);
}

/// The stress where the strain first reaches a value, interpolated; nothing where the piece breaks before.
std::optional<double> stressAtStrain(const FlexuralResult &result, double strain)
{
    for (std::size_t i = 1; i <= result.markers.lastBeforeBreak; ++i) {
        const double before = result.strain[i - 1];
        const double here = result.strain[i];
        if (here < strain || before > strain)
            continue;
        return std::lerp(result.stress_MPa[i - 1], result.stress_MPa[i],
                         here > before ? (strain - before) / (here - before) : 1.0);
    }
    return std::nullopt;
}

void checkTest(FlexuralResult &result, const FlexuralParameters &p)
{
    const double ratio = in_mm(p.span) / in_mm(p.thickness);
    if (p.load == BendingLoad::ThreePoint)
        result.validity.push_back({"the span is 16 times the thickness",
                                   ratio >= kLeastSpanRatio && ratio <= kMostSpanRatio,
                                   fmt::format("{:.1f} times; 15 to 17 is wanted (ISO 178): a short span "
                                               "shears as well as bends, and the modulus reads low",
                                               ratio)});
    const bool small = *result.strainAtStrength <= kMostBendingStrain;
    result.validity.push_back(
        {"the strength is reached within 5 % strain", small,
         fmt::format("{:.2g} % at the strength; beyond 5 % the beam formula does not hold (ASTM D790){}",
                     100.0 * *result.strainAtStrength, small ? "" : ": compare the conventional stress")});
}

} // namespace

std::string_view bendingLoadName(BendingLoad load)
{
    switch (load) {
    case BendingLoad::ThreePoint:
        return "three-point";
    case BendingLoad::FourPointThird:
        return "four-point-third";
    case BendingLoad::FourPointHalf:
        return "four-point-half";
    }
    throw ContractViolation("unknown bending load");
}

double bendingStrain(double deflection_mm, const FlexuralParameters &parameters)
{
    const double span_mm = in_mm(parameters.span);
    return formulaOf(parameters.load).strain * deflection_mm * in_mm(parameters.thickness) /
           (span_mm * span_mm);
}

Result<FlexuralResult> reduceFlexural(const ForceCurve &curve, const FlexuralParameters &parameters)
{
    if (const Status status = checkParameters(parameters); !status)
        return status.error();
    if (const Status status = checkStressStrainRules(parameters); !status)
        return status.error();
    const std::size_t n = curve.force_N.size();
    if (n < 2)
        return Error{ErrorCode::TooFewPoints,
                     fmt::format("the record holds {} sample; a curve of at least two is wanted", n),
                     {}};
    if (curve.strain.empty() && curve.extension_mm.empty())
        return badInput("the record has no deflection; a bending test is read from force and deflection");
    FlexuralResult result;
    MendedColumn force(curve.force_N);
    MendedColumn deflection(curve.extension_mm);
    turnUpright(force, "force", result.warnings);
    turnUpright(deflection, "deflection", result.warnings);
    std::vector<double> strain = curve.strain;
    turnUpright(strain, "strain", result.warnings);
    const Result<Noise> noise = mendSpikes(force, "force", Dimension::Force, result.warnings);
    if (!noise)
        return noise.error();
    takeToTheMiddle(deflection, curve, parameters, result.warnings);
    if (strain.empty()) {
        strain.reserve(n);
        for (double value_mm : deflection.view())
            strain.push_back(bendingStrain(value_mm, parameters));
    }
    const double span_mm = in_mm(parameters.span);
    const double thickness_mm = in_mm(parameters.thickness);
    StressStrainRecord record{force.view(), deflection.view(), *noise,
                              in_mm(parameters.width) * thickness_mm * thickness_mm /
                                  (formulaOf(parameters.load).stress * span_mm)};
    if (parameters.largeDeflection)
        record.stressFactor = [&](double outerStrain) {
            const double share = deflection_mm(outerStrain, parameters) / span_mm;
            return 1.0 + 6.0 * share * share - 4.0 * share * thickness_mm / span_mm;
        };
    Result<StressStrainReading> read =
        readStressStrain(record, std::move(strain), parameters, result.warnings);
    if (!read)
        return read.error();
    result.stress_MPa = std::move(read->stress_MPa);
    result.strain = std::move(read->strain);
    result.markers = read->markers;
    result.toeStrain = read->toeStrain;
    result.flexuralModulus_MPa = read->modulus_MPa;
    result.atLeast = read->atLeast;
    result.validity = std::move(read->validity);
    const CurveMarkers &markers = result.markers;
    result.peakForce_N = force.view()[markers.peak];
    result.flexuralStrength_MPa = result.stress_MPa[markers.strength];
    result.strainAtStrength = result.strain[markers.strength];
    result.stressAtBreak_MPa = result.stress_MPa[markers.lastBeforeBreak];
    result.strainAtBreak = result.strain[markers.lastBeforeBreak];
    result.stressAtConventionalDeflection_MPa =
        stressAtStrain(result, bendingStrain(kConventionalDeflections * thickness_mm, parameters));
    if (!deflection.view().empty()) // N·mm is mJ; the load does its work where it stands on the bar
        result.energyToBreak_J = areaUnder(deflection.view(), force.view(), markers.lastBeforeBreak) /
                                 (1e3 * formulaOf(parameters.load).middleOverLoadPoint);
    checkTest(result, parameters);
    return result;
}

} // namespace inchpeg
