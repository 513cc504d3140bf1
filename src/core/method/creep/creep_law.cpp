// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/creep/creep_law.h"

#include "core/base/contract.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>
#include <vector>

namespace inchpeg
{

namespace
{

/// Exponents that are looked through; a printed bar under load lies between 0.05 and 0.6.
constexpr double kLeastExponent = 0.005;
constexpr double kMostExponent = 5.0;
constexpr std::size_t kExponents = 160;

std::size_t parametersOf(CreepLaw law)
{
    return law == CreepLaw::Findley ? 3 : 2;
}

/// The straight line of strain over x: an intercept (0 for the power law), a slope, and its squares.
struct LinearPart {
    double intercept = 0.0;
    double slope = 0.0;
    double squares = 0.0;
};

LinearPart linearPart(std::span<const double> x, std::span<const double> y, bool throughOrigin)
{
    const auto n = static_cast<double>(x.size());
    double meanX = 0.0;
    double meanY = 0.0;
    if (!throughOrigin) {
        for (std::size_t i = 0; i < x.size(); ++i) {
            meanX += x[i] / n;
            meanY += y[i] / n;
        }
    }
    double sxx = 0.0;
    double sxy = 0.0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        sxx += (x[i] - meanX) * (x[i] - meanX);
        sxy += (x[i] - meanX) * (y[i] - meanY);
    }
    LinearPart part;
    part.slope = sxx > 0.0 ? sxy / sxx : 0.0;
    part.intercept = meanY - part.slope * meanX;
    for (std::size_t i = 0; i < x.size(); ++i) {
        const double residual = y[i] - part.intercept - part.slope * x[i];
        part.squares += residual * residual;
    }
    return part;
}

double powerOf(double time_h, double n)
{
    return time_h > 0.0 ? std::pow(time_h, n) : 0.0;
}

double logOf(double time_h)
{
    return time_h > 0.0 ? std::log(time_h) : 0.0; // its factor tⁿ is 0 there
}

/// Squares left at an exponent, and half their derivative by it: the linear part is at its best there, so
/// only the exponent itself moves them.
class Profile
{
public:
    Profile(std::span<const double> time_h, std::span<const double> strain, bool throughOrigin)
        : m_time(time_h), m_strain(strain), m_throughOrigin(throughOrigin), m_power(time_h.size())
    {
    }

    LinearPart at(double n)
    {
        for (std::size_t i = 0; i < m_time.size(); ++i)
            m_power[i] = powerOf(m_time[i], n);
        return linearPart(m_power, m_strain, m_throughOrigin);
    }

    double slopeAt(double n)
    {
        const LinearPart part = at(n);
        double sum = 0.0;
        for (std::size_t i = 0; i < m_time.size(); ++i)
            sum -= (m_strain[i] - part.intercept - part.slope * m_power[i]) * part.slope * m_power[i] *
                   logOf(m_time[i]);
        return sum;
    }

private:
    std::span<const double> m_time;
    std::span<const double> m_strain;
    bool m_throughOrigin;
    std::vector<double> m_power;
};

double exponentAt(std::size_t i)
{
    return kLeastExponent * std::pow(kMostExponent / kLeastExponent,
                                     static_cast<double>(i) / static_cast<double>(kExponents - 1));
}

/// The exponent with the fewest squares: the best of a row, then the root of the derivative between its
/// neighbours.
double bestExponent(Profile &profile)
{
    std::size_t best = 0;
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < kExponents; ++i) {
        if (const double squares = profile.at(exponentAt(i)).squares; squares < least) {
            least = squares;
            best = i;
        }
    }
    const double low = exponentAt(best == 0 ? 0 : best - 1);
    const double high = exponentAt(std::min(best + 1, kExponents - 1));
    const double atLow = profile.slopeAt(low);
    const double atHigh = profile.slopeAt(high);
    if (!(atLow < 0.0) || !(atHigh > 0.0))
        return exponentAt(best);
    std::uintmax_t iterations = 200;
    const auto bracket =
        boost::math::tools::toms748_solve([&](double n) { return profile.slopeAt(n); }, low, high, atLow,
                                          atHigh, boost::math::tools::eps_tolerance<double>(52), iterations);
    return 0.5 * (bracket.first + bracket.second);
}

using Row = std::array<double, 3>;
using Matrix = std::array<Row, 3>;

/// Derivatives of the strain by e0, m and n; a law without one of them has 0 there.
Row gradientAt(const CreepFit &fit, double time_h)
{
    switch (fit.law) {
    case CreepLaw::Findley:
        return {1.0, powerOf(time_h, fit.n), fit.m * powerOf(time_h, fit.n) * logOf(time_h)};
    case CreepLaw::Power:
        return {0.0, powerOf(time_h, fit.n), fit.m * powerOf(time_h, fit.n) * logOf(time_h)};
    case CreepLaw::Logarithmic:
        return {1.0, std::log1p(time_h), 0.0};
    }
    throw ContractViolation("unknown creep law");
}

bool hasParameter(CreepLaw law, std::size_t k)
{
    return !(law == CreepLaw::Power && k == 0) && !(law == CreepLaw::Logarithmic && k == 2);
}

/// Inverse of JᵀJ, rows and columns of parameters that a law lacks left at 0; nothing where it is singular.
std::optional<Matrix> inverseNormal(const CreepFit &fit, std::span<const double> time_h)
{
    Matrix a{};
    for (double t : time_h) {
        const Row g = gradientAt(fit, t);
        for (std::size_t r = 0; r < 3; ++r) {
            for (std::size_t c = 0; c < 3; ++c)
                a[r][c] += g[r] * g[c];
        }
    }
    Matrix inverse{};
    for (std::size_t k = 0; k < 3; ++k) {
        inverse[k][k] = 1.0;
        if (!hasParameter(fit.law, k))
            a[k][k] = 1.0;
    }
    for (std::size_t k = 0; k < 3; ++k) { // Gauss and Jordan; positive definite, so no pivoting is needed
        const double pivot = a[k][k];
        if (!(pivot > 1e-300))
            return std::nullopt;
        for (std::size_t c = 0; c < 3; ++c) {
            a[k][c] /= pivot;
            inverse[k][c] /= pivot;
        }
        for (std::size_t r = 0; r < 3; ++r) {
            const double factor = a[r][k];
            if (r == k || factor == 0.0)
                continue;
            for (std::size_t c = 0; c < 3; ++c) {
                a[r][c] -= factor * a[k][c];
                inverse[r][c] -= factor * inverse[k][c];
            }
        }
    }
    for (std::size_t k = 0; k < 3; ++k) {
        if (!hasParameter(fit.law, k))
            inverse[k] = {};
    }
    return inverse;
}

void judge(CreepFit &fit, std::span<const double> time_h, double squares)
{
    const auto n = static_cast<double>(time_h.size());
    const auto k = static_cast<double>(parametersOf(fit.law)) + 1.0; // the scatter is one too
    if (n > k + 1.0)
        fit.aicc =
            n * std::log(std::max(squares, 1e-300) / n) + 2.0 * k + 2.0 * k * (k + 1.0) / (n - k - 1.0);
    const double df = n - static_cast<double>(parametersOf(fit.law));
    if (!(df > 0.0))
        return;
    fit.residualSd = std::sqrt(squares / df);
    if (const std::optional<Matrix> inverse = inverseNormal(fit, time_h)) {
        std::array<double, 3> errors{};
        for (std::size_t p = 0; p < 3; ++p)
            errors[p] = fit.residualSd * std::sqrt(std::max(0.0, (*inverse)[p][p]));
        fit.standardErrors = errors;
    }
}

} // namespace

double CreepFit::strainAt(double time_h) const
{
    return law == CreepLaw::Logarithmic ? e0 + m * std::log1p(time_h) : e0 + m * powerOf(time_h, n);
}

double CreepFit::rateAt_per_h(double time_h) const
{
    if (law == CreepLaw::Logarithmic)
        return m / (1.0 + time_h);
    return time_h > 0.0 ? m * n * std::pow(time_h, n - 1.0) : 0.0;
}

std::optional<CreepFit> fitCreep(CreepLaw law, std::span<const double> time_h, std::span<const double> strain)
{
    require(time_h.size() == strain.size(), "fitCreep(): lengths differ");
    const std::set<double> times(time_h.begin(), time_h.end());
    if (times.size() < parametersOf(law))
        return std::nullopt;
    const auto [low, high] = std::minmax_element(strain.begin(), strain.end());
    if (!(*high > *low))
        return std::nullopt; // nothing grows: any exponent would do
    CreepFit fit;
    fit.law = law;
    fit.readings = time_h.size();
    if (law == CreepLaw::Logarithmic) {
        std::vector<double> x;
        for (double t : time_h)
            x.push_back(std::log1p(t));
        const LinearPart part = linearPart(x, strain, false);
        fit.e0 = part.intercept;
        fit.m = part.slope;
        judge(fit, time_h, part.squares);
        return fit;
    }
    Profile profile(time_h, strain, law == CreepLaw::Power);
    fit.n = bestExponent(profile);
    const LinearPart part = profile.at(fit.n);
    fit.e0 = part.intercept;
    fit.m = part.slope;
    judge(fit, time_h, part.squares);
    return fit;
}

} // namespace inchpeg
