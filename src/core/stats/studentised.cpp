// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/studentised.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"
#include "core/stats/panels.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <mutex>
#include <numbers>

namespace inchpeg
{

namespace
{

/// |z| beyond which the normal density is below 1e-16.
constexpr double kNormalReach = 8.5;
constexpr int kNormalPanels = 8;
/// The tabulated functions vary over a distance of about 1; so many terms over twice that leave 1e-13.
constexpr double kPanelWidth = 2.0;
constexpr int kTerms = 24;
constexpr double kNegligible = 1e-15;

double normalDensity(double z)
{
    return std::exp(-0.5 * z * z) / std::sqrt(2.0 * std::numbers::pi);
}

/// P(range of k standard normal values <= w).
double normalRangeCdf(double w, double k)
{
    const auto integrand = [w, k](double z) {
        return normalDensity(z) * std::pow(normalCdf(z) - normalCdf(z - w), k - 1.0);
    };
    return std::min(1.0, k * overPanels(-kNormalReach, kNormalReach, kNormalPanels, integrand));
}

/// Equal loadings come together: one power for many factors.
std::map<double, double> counted(std::span<const double> loading)
{
    std::map<double, double> counts;
    for (double lambda : loading)
        counts[lambda] += 1.0;
    return counts;
}

/// Probability that all differences from a common control stay below their limits, the sd being known.
template <typename Share>
double overControl(const std::map<double, double> &loadings, Share share)
{
    const auto integrand = [&](double z) {
        double product = normalDensity(z);
        for (const auto &[lambda, count] : loadings)
            product *= std::pow(share(lambda * z, std::sqrt(1.0 - lambda * lambda)), count);
        return product;
    };
    return std::min(1.0, overPanels(-kNormalReach, kNormalReach, kNormalPanels, integrand));
}

/// Coefficients of the Chebyshev series of f over [from, to].
template <typename F>
std::vector<double> chebyshev(double from, double to, F f)
{
    std::vector<double> values;
    for (int i = 0; i < kTerms; ++i) {
        const double u = std::cos(std::numbers::pi * (i + 0.5) / kTerms);
        values.push_back(f(0.5 * (from + to) + 0.5 * (to - from) * u));
    }
    std::vector<double> coefficients;
    for (int j = 0; j < kTerms; ++j) {
        double sum = 0.0;
        for (int i = 0; i < kTerms; ++i)
            sum += values[static_cast<std::size_t>(i)] * std::cos(std::numbers::pi * j * (i + 0.5) / kTerms);
        coefficients.push_back(sum * (j == 0 ? 1.0 : 2.0) / kTerms);
    }
    while (coefficients.size() > 2 && std::abs(coefficients.back()) < kNegligible)
        coefficients.pop_back();
    return coefficients;
}

/// Clenshaw's recurrence; u between -1 and 1.
double chebyshevSum(const std::vector<double> &coefficients, double u)
{
    double next = 0.0;
    double afterNext = 0.0;
    for (std::size_t j = coefficients.size(); j-- > 1;) {
        const double here = 2.0 * u * next - afterNext + coefficients[j];
        afterNext = next;
        next = here;
    }
    return u * next - afterNext + coefficients[0];
}

/// Distributions by what they hang on. What they say never changes, so that remembering them is no state.
template <typename Key>
class Remembered
{
public:
    template <typename Make>
    std::shared_ptr<const StudentisedDistribution> of(const Key &key, Make make)
    {
        const std::lock_guard lock(m_mutex);
        if (m_known.size() >= kMostRemembered)
            m_known.clear();
        auto &entry = m_known[key];
        if (!entry)
            entry = std::make_shared<const StudentisedDistribution>(make());
        return entry;
    }

private:
    static constexpr std::size_t kMostRemembered = 500; // some 2 MB
    std::mutex m_mutex;
    std::map<Key, std::shared_ptr<const StudentisedDistribution>> m_known;
};

} // namespace

template <typename F>
StudentisedDistribution StudentisedDistribution::tabulated(double low, double high, F f)
{
    StudentisedDistribution distribution;
    distribution.m_low = low;
    distribution.m_high = high;
    const int panels = static_cast<int>(std::lround((high - low) / kPanelWidth));
    for (int i = 0; i < panels; ++i)
        distribution.m_panels.push_back(chebyshev(low + i * kPanelWidth, low + (i + 1) * kPanelWidth, f));
    return distribution;
}

StudentisedDistribution StudentisedDistribution::range(std::size_t k)
{
    require(k >= 2, "a range needs two values");
    const auto count = static_cast<double>(k);
    return tabulated(0.0, 14.0, [count](double w) { return normalRangeCdf(w, count); });
}

StudentisedDistribution StudentisedDistribution::dunnettTwoSided(std::span<const double> loading)
{
    const std::map<double, double> loadings = counted(loading);
    return tabulated(0.0, 10.0, [&](double limit) {
        return overControl(loadings, [limit](double shift, double rest) {
            return normalCdf((shift + limit) / rest) - normalCdf((shift - limit) / rest);
        });
    });
}

StudentisedDistribution StudentisedDistribution::dunnettOneSided(std::span<const double> loading)
{
    const std::map<double, double> loadings = counted(loading);
    return tabulated(-10.0, 10.0, [&](double limit) {
        return overControl(loadings,
                           [limit](double shift, double rest) { return normalCdf((shift + limit) / rest); });
    });
}

std::shared_ptr<const StudentisedDistribution> StudentisedDistribution::sharedRange(std::size_t k)
{
    static Remembered<std::size_t> known;
    return known.of(k, [k] { return range(k); });
}

std::shared_ptr<const StudentisedDistribution>
StudentisedDistribution::sharedDunnett(std::vector<double> loading)
{
    static Remembered<std::vector<double>> known;
    std::sort(loading.begin(), loading.end());
    return known.of(loading, [&] { return dunnettTwoSided(loading); });
}

std::shared_ptr<const StudentisedDistribution>
StudentisedDistribution::sharedDunnettOneSided(std::vector<double> loading)
{
    static Remembered<std::vector<double>> known;
    std::sort(loading.begin(), loading.end());
    return known.of(loading, [&] { return dunnettOneSided(loading); });
}

double StudentisedDistribution::atKnownScale(double x) const
{
    if (x <= m_low)
        return 0.0;
    if (x >= m_high)
        return 1.0;
    const double place = (x - m_low) / kPanelWidth;
    const auto panel = std::min(static_cast<std::size_t>(place), m_panels.size() - 1);
    const double u = 2.0 * (place - static_cast<double>(panel)) - 1.0;
    return std::clamp(chebyshevSum(m_panels[panel], u), 0.0, 1.0);
}

double StudentisedDistribution::mean(double x, const EstimatedScale &scale) const
{
    if (x <= 0.0 && m_low == 0.0)
        return 0.0;
    return scale.mean([this, x](double s) { return atKnownScale(x * s); });
}

double StudentisedDistribution::cdf(double x, double df) const
{
    require(df > 0.0, "a studentised distribution needs a positive df");
    return mean(x, EstimatedScale(df));
}

double StudentisedDistribution::quantile(double probability, double df) const
{
    require(df > 0.0, "a studentised distribution needs a positive df");
    const EstimatedScale scale(df);
    double low = 0.0;
    while (m_low < 0.0 && mean(low, scale) > probability)
        low = 2.0 * low - 1.0;
    return quantileByRoot(probability, low, [&](double x) { return mean(x, scale); });
}

} // namespace inchpeg
