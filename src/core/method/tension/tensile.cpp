// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/tension/tensile.h"

#include "core/base/blocks.h"
#include "core/curve/mended_record.h"
#include "core/method/tension/strain_values.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <cmath>

namespace inchpeg
{

namespace
{

/// Travel over the length that it is of; empty where that is not known.
std::vector<double> strainOfTravel(const ForceCurve &curve, std::span<const double> extension_mm,
                                   const TensileParameters &parameters, std::vector<std::string> &warnings,
                                   const TaskRunner &run)
{
    std::optional<Length> length = parameters.gaugeLength;
    const bool useGrips = parameters.gripDistance && (!length || curve.extensionIsCrosshead);
    if (useGrips)
        length = parameters.gripDistance;
    if (!length) {
        warnings.emplace_back(
            "no strain: give the gauge length (or the grip distance for a crosshead travel)");
        return {};
    }
    if (useGrips || curve.extensionIsCrosshead)
        warnings.emplace_back(
            "strain comes from the crosshead travel: it includes the give of the frame and grips, so "
            "the modulus reads low");
    return convertedColumn(extension_mm, run,
                           [length_mm = in_mm(*length)](double value_mm) { return value_mm / length_mm; });
}

/// Where the record crosses the line of slope E through (offset, 0), interpolated linearly.
void readOffsetYield(TensileResult &result, double offsetStrain)
{
    if (!result.tensileModulus_MPa)
        return;
    const auto above = [&](std::size_t i) {
        return result.stress_MPa[i] - *result.tensileModulus_MPa * (result.strain[i] - offsetStrain);
    };
    for (std::size_t i = 1; i <= result.markers.lastBeforeBreak; ++i) {
        if (result.strain[i] <= offsetStrain || above(i) > 0.0 || above(i - 1) <= 0.0)
            continue;
        const double share = above(i - 1) / (above(i - 1) - above(i));
        result.offsetYieldStress_MPa = std::lerp(result.stress_MPa[i - 1], result.stress_MPa[i], share);
        result.offsetYieldStrain = std::lerp(result.strain[i - 1], result.strain[i], share);
        return;
    }
}

void readPoints(TensileResult &result, std::span<const double> force_N)
{
    const CurveMarkers &markers = result.markers;
    result.peakForce_N = force_N[markers.peak];
    result.tensileStrength_MPa = result.stress_MPa[markers.strength];
    result.stressAtBreak_MPa = result.stress_MPa[markers.lastBeforeBreak];
    if (markers.yield)
        result.yieldStress_MPa = result.stress_MPa[*markers.yield];
    if (result.strain.empty())
        return;
    result.strainAtStrength = result.strain[markers.strength];
    result.strainAtBreak = result.strain[markers.lastBeforeBreak];
    if (markers.yield)
        result.yieldStrain = result.strain[*markers.yield];
}

void readEnergy(TensileResult &result, std::span<const double> force_N, std::span<const double> extension_mm,
                const std::optional<Length> &gaugeLength, const TaskRunner &run)
{
    const std::size_t last = result.markers.lastBeforeBreak;
    if (!result.strain.empty())
        result.toughness_MJ_per_m3 = areaUnder(result.strain, result.stress_MPa, last, run);
    if (!extension_mm.empty()) // N·mm is mJ
        result.energyToBreak_J = areaUnder(extension_mm, force_N, last, run) / 1e3;
    else if (!result.strain.empty() && gaugeLength)
        result.energyToBreak_J = areaUnder(result.strain, force_N, last, run) * in_mm(*gaugeLength) / 1e3;
}

constexpr double kRateTolerance = 0.2; ///< of slow test speeds (ISO 527-1:2019, table 1)

/// Over the modulus range, where neither yield nor slack is.
void readStrainValues(TensileResult &result, const ForceCurve &curve, const TensileParameters &parameters)
{
    if (!result.markers.modulusFirst || !result.markers.modulusLast)
        return;
    const SampleRange range{*result.markers.modulusFirst, *result.markers.modulusLast};
    result.poissonsRatio = poissonsRatio(result.strain, curve.transverseStrain, range);
    result.strainRate_percent_per_min = strainRate_percent_per_min(result.strain, curve.time_s, range);
    if (result.poissonsRatio && *result.poissonsRatio > 0.5)
        result.warnings.push_back(fmt::format(
            "Poisson's ratio is {:.2f}, more than the 0.5 of a material that keeps its volume: look at the "
            "transverse gauge and its zero",
            *result.poissonsRatio));
    if (!result.strainRate_percent_per_min || !parameters.plannedRate_percent_per_min)
        return;
    const double planned = *parameters.plannedRate_percent_per_min;
    const double off = *result.strainRate_percent_per_min / planned - 1.0;
    result.validity.push_back(
        {"the strain rate is the planned one", std::abs(off) <= kRateTolerance,
         fmt::format("{}, {} planned, ± 20 % (ISO 527-1)",
                     marked(*result.strainRate_percent_per_min, Dimension::StrainRate, 3),
                     marked(planned, Dimension::StrainRate, 3))});
}

/// What a hand scale tells: the largest force and nothing else.
Result<TensileResult> peakAlone(double force_N, const TensileParameters &parameters)
{
    if (!(std::abs(force_N) > 0.0))
        return badInput("the force is zero; the largest force that the scale showed is wanted");
    TensileResult result;
    result.peakForce_N = std::abs(force_N);
    result.stress_MPa = {*result.peakForce_N / in_mm2(parameters.area)};
    result.tensileStrength_MPa = result.stress_MPa.front();
    result.markers.broke = true;
    const double peak[] = {*result.peakForce_N};
    const GaugeLimit limit =
        gaugeLimit(peak, 0, parameters.capacity ? std::optional(in_N(*parameters.capacity)) : std::nullopt,
                   Dimension::Force, "strength and peak force are lower bounds", result.warnings);
    result.atLeast = limit.reached;
    if (limit.check)
        result.validity.push_back(*limit.check);
    result.warnings.emplace_back("only the largest force is known: nothing can be said of the curve");
    return result;
}

} // namespace

Status checkTensileParameters(const TensileParameters &parameters)
{
    if (!(in_mm2(parameters.area) > 0.0))
        return invalidArgument(fmt::format(
            "the cross-section is {:g} mm²; a measured area above zero is wanted", in_mm2(parameters.area)));
    if (parameters.gaugeLength && !(in_mm(*parameters.gaugeLength) > 0.0))
        return invalidArgument(fmt::format("gauge_length is {:g} mm; a length above zero is wanted",
                                           in_mm(*parameters.gaugeLength)));
    if (parameters.gripDistance && !(in_mm(*parameters.gripDistance) > 0.0))
        return invalidArgument(fmt::format("grip_distance is {:g} mm; a length above zero is wanted",
                                           in_mm(*parameters.gripDistance)));
    if (!(parameters.offsetStrain > 0.0) || parameters.offsetStrain > 1.0)
        return invalidArgument(
            fmt::format("the offset is {:g} % strain; more than 0, usually 0.2 %, is wanted",
                        100.0 * parameters.offsetStrain));
    return checkStressStrainRules(parameters);
}

Result<TensileResult> reduceTensile(const ForceCurve &curve, const TensileParameters &parameters,
                                    const TaskRunner &run)
{
    const std::size_t n = curve.force_N.size();
    for (const std::vector<double> *other :
         {&curve.extension_mm, &curve.strain, &curve.time_s, &curve.transverseStrain})
        require(other->empty() || other->size() == n, "reduceTensile(): columns of different lengths");
    if (const Status status = checkTensileParameters(parameters); !status)
        return status.error();
    if (n == 1 && curve.extension_mm.empty() && curve.strain.empty() && curve.time_s.empty())
        return peakAlone(curve.force_N.front(), parameters);
    if (n < 2)
        return Error{ErrorCode::TooFewPoints,
                     fmt::format("the record holds {} sample; a curve of at least two is wanted", n),
                     {}};
    TensileResult result;
    MendedColumn force(curve.force_N);
    MendedColumn extension(curve.extension_mm);
    std::vector<double> strain = curve.strain;
    turnUpright(force, "force", result.warnings, run);
    turnUpright(extension, "extension", result.warnings, run);
    turnUpright(strain, "strain", result.warnings, run);
    const Result<Noise> noise = mendSpikes(force, "force", Dimension::Force, result.warnings, run);
    if (!noise)
        return noise.error();
    if (strain.empty() && !extension.view().empty())
        strain = strainOfTravel(curve, extension.view(), parameters, result.warnings, run);
    const StressStrainRecord record{force.view(), extension.view(), *noise, in_mm2(parameters.area)};
    Result<StressStrainReading> read =
        readStressStrain(record, std::move(strain), parameters, result.warnings, run);
    if (!read)
        return read.error();
    result.stress_MPa = std::move(read->stress_MPa);
    result.strain = std::move(read->strain);
    result.markers = read->markers;
    result.toeStrain = read->toeStrain;
    result.tensileModulus_MPa = read->modulus_MPa;
    result.atLeast = read->atLeast;
    result.validity = std::move(read->validity);
    readOffsetYield(result, parameters.offsetStrain);
    readPoints(result, force.view());
    readEnergy(result, force.view(), extension.view(), parameters.gaugeLength, run);
    readStrainValues(result, curve, parameters);
    return result;
}

} // namespace inchpeg
