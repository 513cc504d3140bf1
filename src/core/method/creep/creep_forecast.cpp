// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/creep/creep_forecast.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>
#include <utility>

namespace inchpeg
{

namespace
{

/// Exponents that a loaded polymer may have, Findley's lie between 0.1 and 0.6 (from memory).
constexpr double kLowestPower = 0.02;
constexpr double kHighestPower = 0.7;
constexpr int kPowers = 48;
constexpr int kRefinements = 4;
constexpr double kPowerShare = 0.25; ///< of what is believed before any reading: of the power law
constexpr double kLogShare = 0.25;   ///< and of the logarithmic law
constexpr double kLeastShare = 1e-5; ///< of a law that is looked at further
/// Wider than 95 %, so that 93 of 100 forecasts hold also where few readings leave the exponent open; found
/// by simulation (docs/validation.md).
constexpr double kCoverage = 0.97;
constexpr std::size_t kLeastReadings = 4;
constexpr double kFarthest = 1e4; ///< times the last reading

/// P(T < t).
double studentBelow(double t, double df)
{
    const double tail = 0.5 * studentTwoSided(t, df);
    return t > 0.0 ? 1.0 - tail : tail;
}

} // namespace

double CreepForecast::halfWidth() const
{
    return interval ? 0.5 * (interval->high - interval->low) / std::abs(strain) : 0.0;
}

double CreepForecaster::Law::x(double time_h) const
{
    return form == Form::Logarithm ? std::log1p(time_h) : time_h > 0.0 ? std::pow(time_h, exponent) : 0.0;
}

double CreepForecaster::Law::sdAt(double time_h, double readings) const
{
    const double from = x(time_h) - meanX;
    return sd * std::sqrt(1.0 + (isThroughOrigin ? 0.0 : 1.0 / readings) + from * from / squaresX);
}

/// Fits a law and yields the logarithm of how well the readings bear it out: their probability with flat
/// priors of the strains at the first and the last reading and of the logarithm of the scatter, in closed
/// form (any text on the linear model, for example Gelman et al., Bayesian Data Analysis, 3rd ed.,
/// section 14.2).
double CreepForecaster::fit(Law &law, double prior) const
{
    const auto n = static_cast<double>(m_time_h.size());
    double meanY = 0.0;
    if (!law.isThroughOrigin) {
        for (std::size_t i = 0; i < m_time_h.size(); ++i) {
            law.meanX += law.x(m_time_h[i]) / n;
            meanY += m_strain[i] / n;
        }
    }
    double sxy = 0.0;
    for (std::size_t i = 0; i < m_time_h.size(); ++i) {
        const double dx = law.x(m_time_h[i]) - law.meanX;
        law.squaresX += dx * dx;
        sxy += dx * (m_strain[i] - meanY);
    }
    law.slope = sxy / law.squaresX;
    law.intercept = meanY - law.slope * law.meanX;
    double squares = 0.0;
    for (std::size_t i = 0; i < m_time_h.size(); ++i) {
        const double residual = m_strain[i] - law.strainAt(m_time_h[i]);
        squares += residual * residual;
    }
    law.df = n - (law.isThroughOrigin ? 1.0 : 2.0);
    // Readings have a last digit: a fit is never better than a millionth.
    squares = std::max(squares, n * std::pow(1e-6 * m_strain.back(), 2));
    law.sd = std::sqrt(squares / law.df);
    if (!(law.slope > 0.0))
        return -std::numeric_limits<double>::infinity(); // under load nothing shrinks
    // In units of the rise over the record, so that exponents can be held against each other.
    const double rise = law.x(m_time_h.back()) - (law.isThroughOrigin ? 0.0 : law.x(m_time_h.front()));
    const double design = law.squaresX / (rise * rise) * (law.isThroughOrigin ? 1.0 : n);
    return std::log(prior) - 0.5 * std::log(design) - 0.5 * law.df * std::log(std::numbers::pi * squares) +
           std::lgamma(0.5 * law.df) - (law.isThroughOrigin ? 0.0 : std::log(m_strain.back()));
}

std::optional<CreepForecaster> CreepForecaster::of(std::span<const double> time_h,
                                                   std::span<const double> strain)
{
    require(time_h.size() == strain.size(), "CreepForecaster: lengths differ");
    if (time_h.size() < kLeastReadings || !(time_h.back() > time_h.front()) ||
        !(strain.back() > strain.front()) || !(strain.back() > 0.0))
        return std::nullopt;
    CreepForecaster laws;
    laws.m_time_h.assign(time_h.begin(), time_h.end());
    laws.m_strain.assign(strain.begin(), strain.end());
    // Through the origin: not where there is a reading at once, which the power law says nothing of.
    const bool mayBePower = time_h.front() > 0.0;
    std::vector<std::pair<double, Law>> weighed;
    const auto weigh = [&](Law law, double prior) {
        const double weight = laws.fit(law, prior);
        if (std::isfinite(weight))
            weighed.emplace_back(weight, law);
        return weight;
    };
    // The fewer the scatter leaves, the narrower the exponents that are borne out: the row is drawn together
    // about them until it resolves them.
    for (const bool isThroughOrigin : {false, true}) {
        if (isThroughOrigin && !mayBePower)
            continue;
        double low = kLowestPower;
        double high = kHighestPower;
        for (int round = 0;; ++round) {
            const double step = (high - low) / kPowers;
            const double prior = (isThroughOrigin ? kPowerShare : 1.0 - kPowerShare - kLogShare) * step /
                                 (kHighestPower - kLowestPower);
            const std::size_t before = weighed.size();
            double best = -std::numeric_limits<double>::infinity();
            std::vector<double> found;
            for (int i = 0; i < kPowers; ++i) {
                Law law;
                law.exponent = low + (i + 0.5) * step;
                law.isThroughOrigin = isThroughOrigin;
                found.push_back(weigh(law, prior));
                best = std::max(best, found.back());
            }
            int first = kPowers;
            int last = -1;
            for (int i = 0; i < kPowers; ++i) {
                if (found[static_cast<std::size_t>(i)] - best > std::log(kLeastShare)) {
                    first = std::min(first, i);
                    last = std::max(last, i);
                }
            }
            if (last < first || last - first > kPowers / 3 || round == kRefinements)
                break;
            weighed.resize(before);
            const double oldLow = low;
            low = std::max(kLowestPower, oldLow + (first - 1) * step);
            high = std::min(kHighestPower, oldLow + (last + 2) * step);
        }
    }
    Law logarithmic;
    logarithmic.form = Law::Form::Logarithm;
    weigh(logarithmic, kLogShare);
    if (weighed.empty())
        return std::nullopt;
    double best = -std::numeric_limits<double>::infinity();
    for (const auto &[weight, law] : weighed)
        best = std::max(best, weight);
    double sum = 0.0;
    for (auto &[weight, law] : weighed) {
        law.share = std::exp(weight - best);
        if (law.share < kLeastShare)
            continue;
        sum += law.share;
        laws.m_laws.push_back(law);
    }
    for (Law &law : laws.m_laws)
        law.share /= sum;
    return laws;
}

double CreepForecaster::strainAt(double time_h) const
{
    double strain = 0.0;
    for (const Law &law : m_laws)
        strain += law.share * law.strainAt(time_h);
    return strain;
}

Interval CreepForecaster::intervalAt(double time_h) const
{
    const auto readings = static_cast<double>(m_time_h.size());
    struct Part {
        double share, centre, sd, df;
    };
    std::vector<Part> parts;
    double lowest = std::numeric_limits<double>::infinity();
    double highest = -lowest;
    for (const Law &law : m_laws) {
        const Part part{law.share, law.strainAt(time_h), law.sdAt(time_h, readings), law.df};
        const double reach = studentQuantile(0.5 + 0.5 * kCoverage, law.df) * part.sd;
        lowest = std::min(lowest, part.centre - reach);
        highest = std::max(highest, part.centre + reach);
        parts.push_back(part);
    }
    const auto quantile = [&](double share) {
        double low = lowest;
        double high = highest;
        constexpr int kHalvings = 40;
        for (int i = 0; i < kHalvings; ++i) {
            const double middle = 0.5 * (low + high);
            double below = 0.0;
            for (const Part &part : parts)
                below += part.share * studentBelow((middle - part.centre) / part.sd, part.df);
            (below < share ? low : high) = middle;
        }
        return 0.5 * (low + high);
    };
    return {quantile(0.5 - 0.5 * kCoverage), quantile(0.5 + 0.5 * kCoverage)};
}

CreepForecast CreepForecaster::at(double time_h) const
{
    const auto after = std::lower_bound(m_time_h.begin(), m_time_h.end(), time_h);
    if (after == m_time_h.end())
        return {time_h, strainAt(time_h), intervalAt(time_h), false};
    const auto i = static_cast<std::size_t>(after - m_time_h.begin());
    if (i == 0 || *after == time_h)
        return {time_h, m_strain[i], {}, true};
    // Strain is nearly straight over the logarithm of time between two readings.
    const double share = (std::log1p(time_h) - std::log1p(m_time_h[i - 1])) /
                         (std::log1p(m_time_h[i]) - std::log1p(m_time_h[i - 1]));
    return {time_h, std::lerp(m_strain[i - 1], m_strain[i], share), {}, true};
}

double CreepForecaster::horizon_h() const
{
    double low = m_time_h.back();
    double high = kFarthest * low;
    if (at(high).halfWidth() <= kWidestForecast)
        return high;
    while (high > 1.05 * low) {
        const double middle = std::sqrt(low * high);
        (at(middle).halfWidth() <= kWidestForecast ? low : high) = middle;
    }
    return low;
}

} // namespace inchpeg
