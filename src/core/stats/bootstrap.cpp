// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/bootstrap.h"

#include "core/base/contract.h"
#include "core/base/random.h"
#include "core/stats/distributions.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

/// The drawn statistics in ascending order; draws in which it does not exist are missing.
std::vector<double> drawn(std::span<const std::vector<double>> samples, const Statistic &statistic,
                          const BootstrapSettings &settings)
{
    Random random(settings.seed);
    std::vector<std::vector<double>> draw(samples.begin(), samples.end());
    std::vector<double> values;
    values.reserve(static_cast<std::size_t>(settings.resamples));
    for (int i = 0; i < settings.resamples; ++i) {
        for (std::size_t g = 0; g < samples.size(); ++g) {
            for (double &value : draw[g])
                value = samples[g][random.below(samples[g].size())];
        }
        if (const std::optional<double> value = statistic(draw))
            values.push_back(*value);
    }
    std::sort(values.begin(), values.end());
    return values;
}

/// The order statistic (count + 1) probability, between neighbours linearly.
double drawnQuantile(const std::vector<double> &sorted, double probability)
{
    const double place = (static_cast<double>(sorted.size()) + 1.0) * probability - 1.0;
    const double last = static_cast<double>(sorted.size()) - 1.0;
    if (place <= 0.0 || place >= last)
        return place <= 0.0 ? sorted.front() : sorted.back();
    const auto below = static_cast<std::size_t>(place);
    return sorted[below] + (place - std::floor(place)) * (sorted[below + 1] - sorted[below]);
}

/// Skewness of the influence of single values, from leaving out one at a time.
std::optional<double> accelerationOf(std::span<const std::vector<double>> samples, const Statistic &statistic)
{
    std::vector<std::vector<double>> left(samples.begin(), samples.end());
    double squares = 0.0;
    double cubes = 0.0;
    for (std::size_t g = 0; g < samples.size(); ++g) {
        std::vector<double> without;
        for (std::size_t i = 0; i < samples[g].size(); ++i) {
            left[g] = samples[g];
            left[g].erase(left[g].begin() + static_cast<std::ptrdiff_t>(i));
            const std::optional<double> value = statistic(left);
            if (!value)
                return std::nullopt;
            without.push_back(*value);
        }
        left[g] = samples[g];
        const auto n = static_cast<double>(samples[g].size());
        const double mean = meanOf(without);
        for (double value : without) {
            const double influence = (n - 1.0) * (mean - value) / n;
            squares += influence * influence;
            cubes += influence * influence * influence;
        }
    }
    if (!(squares > 0.0))
        return std::nullopt;
    return cubes / (6.0 * std::pow(squares, 1.5));
}

std::optional<Interval> bcaInterval(const std::vector<double> &sorted, double estimate, double acceleration,
                                    double confidence)
{
    const auto below = std::lower_bound(sorted.begin(), sorted.end(), estimate);
    const auto beyond = std::upper_bound(sorted.begin(), sorted.end(), estimate);
    // Draws equal to the estimate count half: with few values they are many.
    const double share =
        (static_cast<double>(below - sorted.begin()) + 0.5 * static_cast<double>(beyond - below)) /
        static_cast<double>(sorted.size());
    if (!(share > 0.0) || !(share < 1.0))
        return std::nullopt;
    const double bias = normalQuantile(share);
    const auto shifted = [&](double probability) {
        const double z = bias + normalQuantile(probability);
        return normalCdf(bias + z / (1.0 - acceleration * z));
    };
    const double low = shifted(0.5 - 0.5 * confidence);
    const double high = shifted(0.5 + 0.5 * confidence);
    return Interval{drawnQuantile(sorted, low), drawnQuantile(sorted, high)};
}

} // namespace

BootstrapEstimate bootstrap(std::span<const std::vector<double>> samples, const Statistic &statistic,
                            const BootstrapSettings &settings)
{
    require(settings.resamples > 0, "bootstrap() needs resamples");
    BootstrapEstimate result;
    for (const std::vector<double> &sample : samples) {
        if (sample.empty())
            return result;
    }
    result.estimate = statistic(samples);
    const bool allTwo = std::all_of(samples.begin(), samples.end(),
                                    [](const std::vector<double> &sample) { return sample.size() >= 2; });
    if (!result.estimate || !allTwo)
        return result;
    const std::vector<double> sorted = drawn(samples, statistic, settings);
    if (sorted.empty())
        return result;
    const double tail = 0.5 - 0.5 * settings.confidence;
    result.percentile = Interval{drawnQuantile(sorted, tail), drawnQuantile(sorted, 1.0 - tail)};
    if (const std::optional<double> acceleration = accelerationOf(samples, statistic))
        result.bca = bcaInterval(sorted, *result.estimate, *acceleration, settings.confidence);
    return result;
}

Statistic meanStatistic()
{
    return
        [](std::span<const std::vector<double>> samples) { return std::optional(meanOf(samples.front())); };
}

Statistic medianStatistic()
{
    return
        [](std::span<const std::vector<double>> samples) { return std::optional(medianOf(samples.front())); };
}

Statistic sdStatistic()
{
    return [](std::span<const std::vector<double>> samples) -> std::optional<double> {
        if (samples.front().size() < 2)
            return std::nullopt;
        return std::sqrt(varianceOf(samples.front()));
    };
}

Statistic ratioStatistic()
{
    return [](std::span<const std::vector<double>> samples) -> std::optional<double> {
        const double reference = meanOf(samples[0]);
        if (reference == 0.0)
            return std::nullopt;
        return meanOf(samples[1]) / reference;
    };
}

} // namespace inchpeg
