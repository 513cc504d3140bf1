// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/curve/load_curve.h"

#include "core/base/contract.h"
#include "core/curve/mended_record.h"
#include "core/curve/straight_line.h"
#include "core/curve/stress_strain.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kStiffnessRise = 0.3;          ///< share of the peak
constexpr double kBreakWindowShareOfWay = 0.01; ///< of the way at the peak
constexpr double kContactSigmas = 3.0;          ///< a load above these stands clear of the noise
constexpr double kContactShareOfPeak = 1e-6;    ///< of a record without noise

Status checkRules(const LoadCurveRules &rules, std::size_t samples)
{
    if (rules.capacity && !(*rules.capacity > 0.0))
        return invalidArgument(
            fmt::format("capacity is {}; the gauge's range above zero is wanted",
                        withUnit(fmt::format("{:g}", *rules.capacity), workingUnit(rules.load))));
    StressStrainRules drop; // the break is told as in stress over strain
    drop.breakDrop = rules.breakDrop;
    if (const Status status = checkStressStrainRules(drop); !status)
        return status;
    if (const Status status = checkPlaced("peak", rules.peak, samples); !status)
        return status;
    return checkPlaced("break", rules.lastBeforeBreak, samples);
}

void findBreak(LoadCurve &curve, const LoadCurveRules &rules, const Noise &noise)
{
    const double window = curve.way.empty() ? 0.0 : kBreakWindowShareOfWay * std::abs(curve.way[curve.peak]);
    const std::optional<std::size_t> broken =
        rules.lastBeforeBreak ? rules.lastBeforeBreak
                              : breakIndex(curve.load, curve.way, window, noise, rules.breakDrop);
    curve.broke = broken.has_value();
    curve.lastBeforeBreak = broken.value_or(curve.load.size() - 1);
}

void findContact(LoadCurve &curve, const Noise &noise)
{
    const double clear = std::max(kContactSigmas * noise.sigma, kContactShareOfPeak * curve.load[curve.peak]);
    for (std::size_t i = 0; i < curve.peak; ++i) {
        if (curve.load[i] <= clear)
            curve.contact = i;
    }
}

void checkEnd(LoadCurve &curve, const LoadCurveRules &rules)
{
    const bool whole = curve.isWhole();
    curve.validity.push_back(
        {"the record goes on until the piece lets go", whole,
         rules.lastBeforeBreak ? "the break was placed by hand"
         : curve.broke         ? fmt::format("the {} falls by more than {:g} % of its peak after sample {}",
                                             rules.loadName, 100.0 * rules.breakDrop, curve.lastBeforeBreak + 1)
         : whole               ? fmt::format("the {} dies away without a break", rules.loadName)
                 : fmt::format("the record ends before the {} falls by half of its peak", rules.loadName)});
    if (!whole && curve.peak + 1 == curve.load.size())
        curve.warnings.push_back(
            fmt::format("the {} is largest where the record ends: unless the piece broke "
                        "just there, it would have carried more",
                        rules.loadName));
}

} // namespace

std::optional<double> LoadCurve::workToBreak() const
{
    return way.empty() ? std::nullopt : std::optional(areaUnder(way, load, lastBeforeBreak));
}

std::optional<double> LoadCurve::stiffness() const
{
    if (way.empty())
        return std::nullopt;
    return steepestSlopeOverRise(std::span(way).first(peak + 1), std::span(load).first(peak + 1),
                                 kStiffnessRise * load[peak]);
}

Result<LoadCurve> readLoadCurve(const LoadRecord &record, const LoadCurveRules &rules)
{
    require(record.way.empty() || record.way.size() == record.load.size(),
            "readLoadCurve(): columns of different lengths");
    if (record.load.empty())
        return Error{ErrorCode::TooFewPoints, fmt::format("the record holds no {}", rules.loadName), {}};
    if (const Status status = checkRules(rules, record.load.size()); !status)
        return status.error();
    LoadCurve curve;
    MendedColumn load(record.load);
    turnUpright(load, rules.loadName, curve.warnings);
    const Result<Noise> noise = mendSpikes(load, rules.loadName, rules.load, curve.warnings);
    if (!noise)
        return noise.error();
    curve.load.assign(load.view().begin(), load.view().end());
    curve.way = record.way;
    turnUpright(curve.way, rules.wayName, curve.warnings);
    curve.peak = rules.peak.value_or(highestOf(curve.load));
    const bool isPeakAlone = curve.load.size() == 1;
    if (isPeakAlone) {
        curve.broke = true;
        curve.warnings.push_back(
            fmt::format("only the largest {} is known: nothing can be said of the curve", rules.loadName));
    } else {
        findBreak(curve, rules, *noise);
        findContact(curve, *noise);
        curve.noise = noise->sigma;
        curve.validity.push_back(startsAtZero(curve.load, *noise, curve.load[curve.peak], rules.loadName,
                                              rules.load, curve.warnings));
        checkEnd(curve, rules);
    }
    const GaugeLimit limit =
        gaugeLimit(curve.load, curve.peak, rules.capacity, rules.load, rules.bounded, curve.warnings);
    curve.atLeast = limit.reached;
    if (limit.check)
        curve.validity.push_back(*limit.check);
    return curve;
}

} // namespace inchpeg
