// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/friction/friction.h"

#include "core/base/contract.h"
#include "core/curve/mended_record.h"
#include "core/text/notation.h"
#include "core/units/gravity.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

// ISO 8295:1995 averages over the first 60 mm of the way, the static peak left out (from memory); how far the
// peak reaches is ours.
constexpr double kBehindPeak_mm = 10.0;
constexpr double kLast_mm = 60.0;
constexpr double kLeastWay_mm = 20.0;

void addKinetic(FrictionResult &result, const std::vector<double> &travel_mm, double weight_N)
{
    const double from = travel_mm[result.peakAt] + kBehindPeak_mm;
    double sum_N = 0.0;
    std::size_t n = 0;
    double last = from;
    for (std::size_t i = result.peakAt; i < travel_mm.size(); ++i) {
        if (travel_mm[i] < from || travel_mm[i] > travel_mm[result.peakAt] + kLast_mm)
            continue;
        sum_N += result.force_N[i];
        last = std::max(last, travel_mm[i]);
        ++n;
    }
    if (n == 0 || last - from < kLeastWay_mm) {
        result.warnings.push_back(fmt::format(
            "no kinetic friction: only {} of way follow the peak, {} are wanted",
            marked(std::max(0.0, travel_mm.back() - travel_mm[result.peakAt]), Dimension::Length, 3),
            marked(kBehindPeak_mm + kLeastWay_mm, Dimension::Length, 3)));
        return;
    }
    result.kineticFriction = sum_N / static_cast<double>(n) / weight_N;
    result.kineticFrom_mm = from;
    result.kineticTo_mm = last;
}

} // namespace

Result<FrictionResult> reduceFriction(const TowRecord &record, const FrictionParameters &parameters)
{
    const double weight_N = parameters.mass.si() * kStandardGravity_m_per_s2;
    if (!(weight_N > 0.0))
        return invalidArgument(
            fmt::format("mass is {:g} kg; the mass that presses the piece on, above zero, is wanted",
                        parameters.mass.si()));
    require(record.travel_mm.empty() || record.travel_mm.size() == record.force_N.size(),
            "reduceFriction(): columns of different lengths");
    if (record.force_N.empty())
        return Error{ErrorCode::TooFewPoints, "the record holds no force", {}};
    FrictionResult result;
    MendedColumn force(record.force_N);
    turnUpright(force, "force", result.warnings);
    const Result<Noise> noise = mendSpikes(force, "force", Dimension::Force, result.warnings);
    if (!noise)
        return noise.error();
    result.force_N.assign(force.view().begin(), force.view().end());
    result.peakAt = highestOf(result.force_N);
    result.peak_N = result.force_N[result.peakAt];
    result.staticFriction = result.peak_N / weight_N;
    if (result.force_N.size() > 1)
        result.validity.push_back(
            startsAtZero(result.force_N, *noise, result.peak_N, "force", Dimension::Force, result.warnings));
    GaugeLimit limit =
        gaugeLimit(result.force_N, result.peakAt,
                   parameters.capacity ? std::optional(parameters.capacity->si()) : std::nullopt,
                   Dimension::Force, "static friction is a lower bound", result.warnings);
    result.peakIsLowerBound = limit.reached;
    if (limit.check)
        result.validity.push_back(std::move(*limit.check));
    if (!record.travel_mm.empty())
        addKinetic(result, record.travel_mm, weight_N);
    return result;
}

} // namespace inchpeg
