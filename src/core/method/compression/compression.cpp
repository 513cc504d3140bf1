// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/compression/compression.h"

#include "core/curve/mended_record.h"
#include "core/method/sizes.h"

#include <fmt/format.h>

#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kBuckling = 0.4;
constexpr double kStillRisingShare = 0.99; ///< of the largest stress, at the end of the record (ours)

std::vector<double> strainOfTravel(const ForceCurve &curve, std::span<const double> travel_mm,
                                   const CompressionParameters &p, std::vector<std::string> &warnings)
{
    const bool isOfPlates = curve.extensionIsCrosshead || !p.gaugeLength;
    if (isOfPlates)
        warnings.emplace_back("strain comes from the travel of the plates: it includes the give of the frame "
                              "and the seating of the faces, so the modulus reads low");
    const double length_mm = in_mm(isOfPlates ? p.length : *p.gaugeLength);
    std::vector<double> strain;
    strain.reserve(travel_mm.size());
    for (const double value_mm : travel_mm)
        strain.push_back(value_mm / length_mm);
    return strain;
}

/// The stress where the strain first reaches a value, interpolated.
std::optional<double> stressAt(const CompressionResult &result, double strain)
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

void checkBuckling(CompressionResult &result, const CompressionParameters &p)
{
    if (!(in_mm(p.thinnest) > 0.0))
        return;
    const double most = strainBeforeBuckling(p.thinnest, p.length);
    result.validity.push_back(
        {"the piece is short enough not to buckle", *result.strainAtStrength <= most,
         fmt::format("{:.2g} % strain at the strength; a piece of this length and thickness may buckle "
                     "beyond {:.2g} % (ISO 604): look at it, and say so if it bowed out",
                     100.0 * *result.strainAtStrength, 100.0 * most)});
}

} // namespace

double strainBeforeBuckling(Length thinnest, Length length)
{
    const double slenderness = in_mm(thinnest) / in_mm(length);
    return kBuckling * slenderness * slenderness;
}

Status checkCompressionParameters(const CompressionParameters &p)
{
    if (!(in_mm2(p.area) > 0.0))
        return invalidArgument(fmt::format(
            "the cross-section is {:g} mm²; a measured area above zero is wanted", in_mm2(p.area)));
    if (const Status status = checkSizes({{"length", p.length}}); !status)
        return status;
    if (p.gaugeLength) {
        if (const Status status = checkSizes({{"gauge_length", *p.gaugeLength}}); !status)
            return status;
    }
    if (!(p.givenStrain > 0.0) || p.givenStrain >= 1.0)
        return invalidArgument(
            fmt::format("the strain at which the stress is told is {:g} %; more than 0 and "
                        "less than 100 % is wanted",
                        100.0 * p.givenStrain));
    return checkStressStrainRules(p);
}

Result<CompressionResult> reduceCompression(const ForceCurve &curve, const CompressionParameters &parameters)
{
    if (const Status status = checkCompressionParameters(parameters); !status)
        return status.error();
    const std::size_t n = curve.force_N.size();
    if (n < 2)
        return Error{ErrorCode::TooFewPoints,
                     fmt::format("the record holds {} sample; a curve of at least two is wanted", n),
                     {}};
    if (curve.strain.empty() && curve.extension_mm.empty())
        return badInput("the record has no travel; compression is read from force and travel");
    CompressionResult result;
    MendedColumn force(curve.force_N);
    MendedColumn travel(curve.extension_mm);
    std::vector<double> strain = curve.strain;
    turnUpright(force, "force", result.warnings);
    turnUpright(travel, "travel", result.warnings);
    turnUpright(strain, "strain", result.warnings);
    const Result<Noise> noise = mendSpikes(force, "force", Dimension::Force, result.warnings);
    if (!noise)
        return noise.error();
    if (strain.empty())
        strain = strainOfTravel(curve, travel.view(), parameters, result.warnings);
    const StressStrainRecord record{force.view(), travel.view(), *noise, in_mm2(parameters.area)};
    Result<StressStrainReading> read =
        readStressStrain(record, std::move(strain), parameters, result.warnings);
    if (!read)
        return read.error();
    result.stress_MPa = std::move(read->stress_MPa);
    result.strain = std::move(read->strain);
    result.markers = read->markers;
    result.toeStrain = read->toeStrain;
    result.modulus_MPa = read->modulus_MPa;
    result.atLeast = read->atLeast;
    result.validity = std::move(read->validity);
    result.peakForce_N = force.view()[result.markers.peak];
    result.strength_MPa = result.stress_MPa[result.markers.strength];
    result.strainAtStrength = result.strain[result.markers.strength];
    result.stressAtBreak_MPa = result.stress_MPa[result.markers.lastBeforeBreak];
    if (result.markers.yield)
        result.yieldStress_MPa = result.stress_MPa[*result.markers.yield];
    result.isStillRising =
        !result.markers.broke && !result.markers.yield &&
        result.stress_MPa[result.markers.lastBeforeBreak] >= kStillRisingShare * result.strength_MPa;
    result.stressAtGivenStrain_MPa = stressAt(result, parameters.givenStrain);
    checkBuckling(result, parameters);
    return result;
}

} // namespace inchpeg
