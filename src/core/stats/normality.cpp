// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/normality.h"

#include "core/stats/distributions.h"
#include "core/stats/summary.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

namespace inchpeg
{

namespace
{

constexpr std::size_t kFewest = 3;
constexpr std::size_t kMostShapiroWilk = 5000;
constexpr std::size_t kFewestForP = 8;

/// Coefficients from the constant upwards.
template <std::size_t N>
double polynomial(const double (&coefficients)[N], double x)
{
    double sum = 0.0;
    for (std::size_t i = N; i-- > 0;)
        sum = sum * x + coefficients[i];
    return sum;
}

/// Royston's weights of the upper half, from the largest value inwards.
std::vector<double> shapiroWilkWeights(std::size_t n)
{
    if (n == 3)
        return {std::sqrt(0.5)};
    constexpr double kLast[] = {0.0, 0.221157, -0.147981, -2.07119, 4.434685, -2.706056};
    constexpr double kLastButOne[] = {0.0, 0.042981, -0.293762, -1.752461, 5.682633, -3.582633};
    std::vector<double> scores; // expected normal order statistics, positive
    double squares = 0.0;
    for (std::size_t i = 0; i < n / 2; ++i) {
        scores.push_back(-normalQuantile((static_cast<double>(i) + 0.625) / (static_cast<double>(n) + 0.25)));
        squares += 2.0 * scores.back() * scores.back();
    }
    const double u = 1.0 / std::sqrt(static_cast<double>(n));
    std::vector<double> weights = scores;
    weights[0] = polynomial(kLast, u) + scores[0] / std::sqrt(squares);
    double left = squares - 2.0 * scores[0] * scores[0];
    double room = 1.0 - 2.0 * weights[0] * weights[0];
    std::size_t next = 1;
    if (n > 5) {
        weights[1] = polynomial(kLastButOne, u) + scores[1] / std::sqrt(squares);
        left -= 2.0 * scores[1] * scores[1];
        room -= 2.0 * weights[1] * weights[1];
        next = 2;
    }
    for (; next < weights.size(); ++next)
        weights[next] = scores[next] / std::sqrt(left / room);
    return weights;
}

/// remainder: 1 - W, which carries the digits where W is close to 1.
double shapiroWilkP(double remainder, std::size_t count)
{
    const auto n = static_cast<double>(count);
    if (count == 3) {
        const double angle = std::asin(std::sqrt(1.0 - remainder)) - std::asin(std::sqrt(0.75));
        return std::clamp(6.0 / std::numbers::pi * angle, 0.0, 1.0);
    }
    constexpr double kGamma[] = {-2.273, 0.459};
    constexpr double kSmallMean[] = {0.544, -0.39978, 0.025054, -6.714e-4};
    constexpr double kSmallSd[] = {1.3822, -0.77857, 0.062767, -0.0020322};
    constexpr double kLargeMean[] = {-1.5861, -0.31082, -0.083751, 0.0038915};
    constexpr double kLargeSd[] = {-0.4803, -0.082676, 0.0030302};
    double y = std::log(remainder);
    if (count <= 11) {
        const double gamma = polynomial(kGamma, n);
        if (y >= gamma)
            return 0.0;
        y = -std::log(gamma - y);
        return normalCdf(-(y - polynomial(kSmallMean, n)) / std::exp(polynomial(kSmallSd, n)));
    }
    const double logN = std::log(n);
    return normalCdf(-(y - polynomial(kLargeMean, logN)) / std::exp(polynomial(kLargeSd, logN)));
}

/// Of the statistic with its small-sample factor.
double andersonDarlingP(double a)
{
    if (a < 0.2)
        return 1.0 - std::exp(-13.436 + 101.14 * a - 223.73 * a * a);
    if (a < 0.34)
        return 1.0 - std::exp(-8.318 + 42.796 * a - 59.938 * a * a);
    if (a < 0.6)
        return std::exp(0.9177 - 4.279 * a - 1.38 * a * a);
    // Beyond 10 the fitted exponent would turn round; there is nothing left to tell there.
    const double far = std::min(a, 10.0);
    return std::exp(1.2937 - 5.709 * far + 0.0186 * far * far);
}

/// In ascending order; nothing where there are too few or all are equal.
std::optional<std::vector<double>> sortedSample(std::span<const double> values)
{
    std::vector<double> sorted(values.begin(), values.end());
    std::sort(sorted.begin(), sorted.end());
    if (sorted.size() < kFewest || !(sorted.back() > sorted.front()))
        return std::nullopt;
    return sorted;
}

} // namespace

std::optional<ShapiroWilk> shapiroWilk(std::span<const double> values)
{
    const std::optional<std::vector<double>> sample = sortedSample(values);
    if (!sample || sample->size() > kMostShapiroWilk)
        return std::nullopt;
    const std::size_t n = sample->size();
    const std::vector<double> half = shapiroWilkWeights(n);
    // By the range, so that neither large nor small numbers lose digits in the squares.
    const double range = sample->back() - sample->front();
    std::vector<double> scaled;
    for (double value : *sample)
        scaled.push_back((value - sample->front()) / range);
    const double mean = meanOf(scaled);
    double ssWeights = 0.0;
    double ssValues = 0.0;
    double products = 0.0;
    for (std::size_t i = 0; i < n; ++i) {
        const std::size_t mirrored = std::min(i, n - 1 - i);
        const double size = mirrored < half.size() ? half[mirrored] : 0.0; // the middle one of an odd count
        const double weight = i < n / 2 ? -size : size;
        const double off = scaled[i] - mean;
        ssWeights += weight * weight;
        ssValues += off * off;
        products += weight * off;
    }
    const double largest = std::sqrt(ssWeights * ssValues);
    const double remainder = (largest - products) * (largest + products) / (ssWeights * ssValues);
    return ShapiroWilk{1.0 - remainder, shapiroWilkP(remainder, n)};
}

std::optional<AndersonDarling> andersonDarling(std::span<const double> values)
{
    const std::optional<std::vector<double>> sample = sortedSample(values);
    if (!sample)
        return std::nullopt;
    const double mean = meanOf(*sample);
    const double sd = std::sqrt(varianceOf(*sample));
    const std::size_t count = sample->size();
    const auto n = static_cast<double>(count);
    double sum = 0.0;
    for (std::size_t i = 0; i < count; ++i) {
        const double below = normalCdf(((*sample)[i] - mean) / sd);
        const double above = normalCdf(-((*sample)[count - 1 - i] - mean) / sd);
        sum += (2.0 * static_cast<double>(i) + 1.0) * (std::log(below) + std::log(above));
    }
    AndersonDarling result{-n - sum / n, std::nullopt};
    if (count >= kFewestForP)
        result.p = andersonDarlingP(result.a2 * (1.0 + 0.75 / n + 2.25 / (n * n)));
    return result;
}

} // namespace inchpeg
