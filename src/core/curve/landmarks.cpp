// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/curve/landmarks.h"

#include "core/base/blocks.h"
#include "core/base/contract.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <deque>
#include <limits>

namespace inchpeg
{

namespace
{

/// Normal consistency of the median absolute deviation.
constexpr double kMadToSigma = 0.6744897501960817;
/// A fall of so many sigma below the running maximum comes by chance less than once in many thousand samples.
constexpr double kClearSigmas = 8.0;
/// In short records the third difference holds curvature, not only noise.
constexpr double kClearSigmasShort = 3.0;
constexpr std::size_t kShortRecord = 40;
constexpr double kResolutionSteps = 1.5;
constexpr std::size_t kMostDifferences = 100000;
/// Share of equal neighbours above which readings count as quantised.
constexpr double kRepeatShare = 0.2;
constexpr double kSpikeRatio = 4.0;
constexpr double kSpikeShareOfPeak = 0.005;
/// Single steps of the final fall at least this share of its largest step belong to it.
constexpr double kFallStepShare = 0.1;

double medianOf(std::vector<double> &values)
{
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::nth_element(values.begin(), middle, values.end());
    return *middle;
}

double largestMagnitudeOfBlock(std::span<const double> readings)
{
    // Four at a time: the comparisons of one need not wait for those of another.
    std::array<double, 4> largest{};
    std::size_t i = 0;
    for (; i + largest.size() <= readings.size(); i += largest.size()) {
        for (std::size_t k = 0; k < largest.size(); ++k)
            largest[k] = std::max(largest[k], std::abs(readings[i + k]));
    }
    for (; i < readings.size(); ++i)
        largest[0] = std::max(largest[0], std::abs(readings[i]));
    return *std::max_element(largest.begin(), largest.end());
}

double largestMagnitude(std::span<const double> readings, const TaskRunner &run)
{
    const std::vector<double> largest =
        perBlock(readings.size(), run, [&](std::size_t begin, std::size_t end) {
            return largestMagnitudeOfBlock(readings.subspan(begin, end - begin));
        });
    return largest.empty() ? 0.0 : *std::max_element(largest.begin(), largest.end());
}

/// How often neighbours are equal, and the smallest difference of the others.
struct Steps {
    std::size_t repeats = 0;
    double smallest = std::numeric_limits<double>::infinity();
};

/// The gauge's step where neighbours are often equal; 0 otherwise.
double resolutionStep(std::span<const double> readings, const TaskRunner &run)
{
    Steps all;
    for (const Steps &block : perBlock(readings.size(), run, [&](std::size_t begin, std::size_t end) {
             Steps steps;
             for (std::size_t i = std::max<std::size_t>(begin, 1); i < end; ++i) {
                 const double change = std::abs(readings[i] - readings[i - 1]);
                 if (change == 0.0)
                     ++steps.repeats;
                 else
                     steps.smallest = std::min(steps.smallest, change);
             }
             return steps;
         })) {
        all.repeats += block.repeats;
        all.smallest = std::min(all.smallest, block.smallest);
    }
    const bool quantised =
        static_cast<double>(all.repeats) > kRepeatShare * static_cast<double>(readings.size());
    return quantised && std::isfinite(all.smallest) ? all.smallest : 0.0;
}

/// Walks up from the lower end of a fall while the steps are those of the fall, not of the softening before
/// it.
std::size_t upperEndOfFall(std::span<const double> force, std::size_t from, std::size_t lower,
                           const Noise &noise)
{
    double largestStep = 0.0;
    for (std::size_t i = from + 1; i <= lower; ++i)
        largestStep = std::max(largestStep, force[i - 1] - force[i]);
    const double least = std::max(kFallStepShare * largestStep, noise.clearFall);
    std::size_t steepest = lower;
    for (std::size_t i = from + 1; i <= lower; ++i) {
        if (force[i - 1] - force[i] == largestStep)
            steepest = i;
    }
    std::size_t upper = steepest;
    while (upper > 0 && force[upper - 1] - force[upper] >= std::min(least, largestStep))
        --upper;
    return upper;
}

/// No break can end before the force lies that far below its highest so far; of the samples before, only
/// those that may share a window with it matter. Yields the first of them, the number of samples where there
/// is none.
std::size_t firstToWatch(std::span<const double> force, std::span<const double> position, double window,
                         double drop)
{
    double highest = force[0];
    std::size_t low = 0;
    while (low < force.size() && highest - force[low] <= drop)
        highest = std::max(highest, force[low++]);
    if (low == force.size() || position.empty())
        return low;
    std::size_t first = low;
    while (first > 0 && position[low] - position[first - 1] <= 2.0 * window)
        --first;
    return first;
}

} // namespace

Noise noiseOf(std::span<const double> readings, const TaskRunner &run)
{
    Noise noise;
    if (readings.size() < 5)
        return noise;
    // Of a long record every so many third differences tell as much.
    const std::size_t stride = readings.size() / kMostDifferences + 1;
    std::vector<double> third;
    third.reserve(readings.size() / stride + 1);
    for (std::size_t i = 3; i < readings.size(); i += stride)
        third.push_back(
            std::abs(readings[i] - 3.0 * readings[i - 1] + 3.0 * readings[i - 2] - readings[i - 3]));
    noise.sigma = medianOf(third) / (kMadToSigma * std::sqrt(20.0));
    const double sigmas = readings.size() < kShortRecord ? kClearSigmasShort : kClearSigmas;
    // Rounding of the arithmetic itself must not look like a fall.
    noise.clearFall = std::max({sigmas * noise.sigma, kResolutionSteps * resolutionStep(readings, run),
                                1e-9 * largestMagnitude(readings, run)});
    return noise;
}

namespace
{

/// Those of the readings from begin to end that have a neighbour on both sides.
std::vector<std::size_t> spikesIn(std::span<const double> readings, std::size_t begin, std::size_t end,
                                  double floor)
{
    std::vector<std::size_t> spikes;
    for (std::size_t i = std::max<std::size_t>(begin, 1); i < end && i + 1 < readings.size(); ++i) {
        const double left = readings[i] - readings[i - 1];
        const double right = readings[i] - readings[i + 1];
        if (left * right <= 0.0)
            continue;
        double around = std::abs(readings[i + 1] - readings[i - 1]);
        if (i >= 2)
            around = std::max(around, std::abs(readings[i - 1] - readings[i - 2]));
        if (i + 2 < readings.size())
            around = std::max(around, std::abs(readings[i + 2] - readings[i + 1]));
        if (std::min(std::abs(left), std::abs(right)) > kSpikeRatio * around + floor)
            spikes.push_back(i);
    }
    return spikes;
}

} // namespace

std::vector<std::size_t> loneSpikes(std::span<const double> readings, const Noise &noise,
                                    const TaskRunner &run)
{
    const double floor = std::max(kSpikeShareOfPeak * largestMagnitude(readings, run), noise.clearFall);
    std::vector<std::size_t> spikes;
    for (const std::vector<std::size_t> &block :
         perBlock(readings.size(), run,
                  [&](std::size_t begin, std::size_t end) { return spikesIn(readings, begin, end, floor); }))
        spikes.insert(spikes.end(), block.begin(), block.end());
    return spikes;
}

std::size_t highestOf(std::span<const double> readings, const TaskRunner &run)
{
    require(!readings.empty(), "highestOf() of no readings");
    std::size_t highest = 0;
    for (std::size_t candidate : perBlock(readings.size(), run, [&](std::size_t begin, std::size_t end) {
             const auto first = readings.begin() + static_cast<std::ptrdiff_t>(begin);
             const auto last = readings.begin() + static_cast<std::ptrdiff_t>(end);
             return static_cast<std::size_t>(std::max_element(first, last) - readings.begin());
         })) {
        if (readings[candidate] > readings[highest])
            highest = candidate;
    }
    return highest;
}

std::optional<std::size_t> firstClearMaximum(std::span<const double> readings, const Noise &noise)
{
    require(!readings.empty(), "firstClearMaximum() of no readings");
    std::size_t highest = 0;
    for (std::size_t i = 1; i < readings.size(); ++i) {
        if (readings[i] > readings[highest])
            highest = i;
        else if (readings[highest] > 0.0 && readings[i] < readings[highest] &&
                 readings[highest] - readings[i] >= noise.clearFall)
            return highest;
    }
    return std::nullopt;
}

std::optional<std::size_t> breakIndex(std::span<const double> force, std::span<const double> position,
                                      double window, const Noise &noise, double share)
{
    require(!force.empty(), "breakIndex() of no readings");
    require(share > 0.0 && share < 1.0, "breakIndex(): a share between 0 and 1 is wanted");
    require(position.empty() || position.size() == force.size(), "breakIndex(): lengths differ");
    const double drop = share * *std::max_element(force.begin(), force.end());
    require(drop > 0.0, "breakIndex() of a record without a positive force");
    std::deque<std::size_t>
        falling; // indices inside the window, their forces falling: the front is its maximum
    for (std::size_t i = firstToWatch(force, position, window, drop); i < force.size(); ++i) {
        if (i > 0 && force[i - 1] - force[i] > drop)
            return upperEndOfFall(force, i - 1, i, noise);
        if (position.empty())
            continue;
        while (!falling.empty() && position[i] - position[falling.front()] > window)
            falling.pop_front();
        if (!falling.empty() && force[falling.front()] - force[i] > drop)
            return upperEndOfFall(force, falling.front(), i, noise);
        while (!falling.empty() && force[falling.back()] <= force[i])
            falling.pop_back();
        falling.push_back(i);
    }
    return std::nullopt;
}

double areaUnder(std::span<const double> x, std::span<const double> y, std::size_t last,
                 const TaskRunner &run)
{
    require(x.size() == y.size() && last < x.size(), "areaUnder(): lengths differ");
    double area = 0.0;
    for (double block : perBlock(last + 1, run, [&](std::size_t begin, std::size_t end) {
             double part = 0.0;
             for (std::size_t i = std::max<std::size_t>(begin, 1); i < end; ++i)
                 part += 0.5 * (y[i] + y[i - 1]) * (x[i] - x[i - 1]);
             return part;
         }))
        area += block;
    return area;
}

Status checkPlaced(std::string_view marker, std::optional<std::size_t> sample, std::size_t samples)
{
    if (!sample || *sample < samples)
        return ok();
    return invalidArgument(
        fmt::format("the {} was placed at sample {}, but the record holds {}; place it again "
                    "or set it back to automatic",
                    marker, *sample + 1, samples));
}

} // namespace inchpeg
