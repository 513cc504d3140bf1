// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/robust.h"

#include "core/base/random.h"
#include "core/stats/distributions.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <vector>

namespace inchpeg
{

namespace
{

/// One trimmed sample: its mean, and what its winsorised scatter says of that mean.
struct Trimmed {
    double mean = 0.0;
    double kept = 0.0;
    double error2 = 0.0; ///< squared standard error
};

std::optional<Trimmed> trimmed(std::span<const double> values, double trim)
{
    std::vector<double> sorted(values.begin(), values.end());
    std::sort(sorted.begin(), sorted.end());
    const auto cut = static_cast<std::size_t>(trim * static_cast<double>(sorted.size()));
    if (sorted.size() < 2 * cut + 2)
        return std::nullopt;
    const std::size_t kept = sorted.size() - 2 * cut;
    Trimmed result;
    result.kept = static_cast<double>(kept);
    for (std::size_t i = cut; i < cut + kept; ++i)
        result.mean += sorted[i] / result.kept;
    for (std::size_t i = 0; i < cut; ++i) {
        sorted[i] = sorted[cut];
        sorted[sorted.size() - 1 - i] = sorted[sorted.size() - 1 - cut];
    }
    const auto n = static_cast<double>(sorted.size());
    result.error2 = (n - 1.0) * varianceOf(sorted) / (result.kept * (result.kept - 1.0));
    return result;
}

/// Ways to take some of all, as far as they can be counted out.
constexpr double kMostWays = 1e6;
constexpr std::uint64_t kDrawn = 99999;

double waysToTake(std::size_t some, std::size_t all)
{
    double ways = 1.0;
    for (std::size_t i = 1; i <= some; ++i)
        ways *= static_cast<double>(all - some + i) / static_cast<double>(i);
    return std::round(ways);
}

/// The next combination of places in order; false behind the last.
bool advance(std::vector<std::size_t> &places, std::size_t all)
{
    for (std::size_t i = places.size(); i-- > 0;) {
        if (places[i] < all - places.size() + i) {
            ++places[i];
            for (std::size_t j = i + 1; j < places.size(); ++j)
                places[j] = places[j - 1] + 1;
            return true;
        }
    }
    return false;
}

} // namespace

std::optional<TrimmedTest> yuenTest(std::span<const double> a, std::span<const double> b, double trim,
                                    double confidence)
{
    const std::optional<Trimmed> first = trimmed(a, trim);
    const std::optional<Trimmed> second = trimmed(b, trim);
    if (!first || !second || !(first->error2 + second->error2 > 0.0))
        return std::nullopt;
    TrimmedTest result;
    result.difference = second->mean - first->mean;
    const double error2 = first->error2 + second->error2;
    result.test.df = error2 * error2 /
                     (first->error2 * first->error2 / (first->kept - 1.0) +
                      second->error2 * second->error2 / (second->kept - 1.0));
    result.test.t = result.difference / std::sqrt(error2);
    result.test.p = studentTwoSided(result.test.t, result.test.df);
    const double half = studentQuantile(0.5 + 0.5 * confidence, result.test.df) * std::sqrt(error2);
    result.test.ci = {result.difference - half, result.difference + half};
    return result;
}

std::optional<HuberLocation> huberLocation(std::span<const double> values, double k)
{
    constexpr double kNormalConsistent = 1.4826; // of the median absolute deviation, as usual to four digits
    if (values.empty())
        return std::nullopt;
    const std::vector<double> all(values.begin(), values.end());
    HuberLocation found{medianOf(all), 0.0};
    std::vector<double> away;
    for (const double value : values)
        away.push_back(std::abs(value - found.location));
    found.scale = kNormalConsistent * medianOf(away);
    if (!(found.scale > 0.0))
        return std::nullopt;
    constexpr int kMostSteps = 1000;
    for (int step = 0; step < kMostSteps; ++step) {
        double sum = 0.0;
        for (const double value : values)
            sum += std::clamp(value, found.location - k * found.scale, found.location + k * found.scale);
        const double next = sum / static_cast<double>(values.size());
        const double moved = std::abs(next - found.location);
        found.location = next;
        if (moved <= 1e-14 * found.scale)
            break;
    }
    return found;
}

Result<PermutationTest> permutationTest(std::span<const double> a, std::span<const double> b,
                                        std::uint64_t seed)
{
    if (a.empty() || b.empty())
        return Error{ErrorCode::TooFewPoints, "two groups that hold a value are wanted", {}};
    std::vector<double> all(a.begin(), a.end());
    all.insert(all.end(), b.begin(), b.end());
    const double middle = meanOf(all); // sums of small numbers keep their digits
    for (double &value : all)
        value -= middle;
    const auto na = static_cast<double>(a.size());
    const auto nb = static_cast<double>(b.size());
    const double total = std::accumulate(all.begin(), all.end(), 0.0);
    const auto differenceOf = [&](double sumA) { return (total - sumA) / nb - sumA / na; };
    PermutationTest test;
    test.difference = meanOf(b) - meanOf(a);
    // Ways that come out alike but for rounding are alike.
    const double large = std::abs(test.difference) * (1.0 - 1e-12);
    const double ways = waysToTake(a.size(), all.size());
    std::uint64_t beyond = 0;
    test.isExact = ways <= kMostWays;
    if (test.isExact) {
        std::vector<std::size_t> places(a.size());
        std::iota(places.begin(), places.end(), std::size_t{0});
        do {
            double sum = 0.0;
            for (const std::size_t place : places)
                sum += all[place];
            beyond += std::abs(differenceOf(sum)) >= large ? 1U : 0U;
            ++test.ways;
        } while (advance(places, all.size()));
        test.p = static_cast<double>(beyond) / static_cast<double>(test.ways);
        return test;
    }
    Random random(seed);
    test.ways = kDrawn;
    for (std::uint64_t i = 0; i < kDrawn; ++i) {
        random.shuffle(all);
        const double sum =
            std::accumulate(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(a.size()), 0.0);
        beyond += std::abs(differenceOf(sum)) >= large ? 1U : 0U;
    }
    // The dealing that was seen is one of them.
    test.p = (static_cast<double>(beyond) + 1.0) / (static_cast<double>(kDrawn) + 1.0);
    return test;
}

} // namespace inchpeg
