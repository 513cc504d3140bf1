// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <memory>
#include <span>
#include <vector>

namespace inchpeg
{

class EstimatedScale;

/// A statistic of standard normal values divided by an independent estimate of their sd: the distributions
/// behind simultaneous comparisons. What does not hang on the degrees of freedom is worked out once, so that
/// many critical values and probabilities of one family cost little more than one. Integrated directly, right
/// to about 1e-10 (docs/validation.md). Degrees of freedom are positive and need not be whole.
class StudentisedDistribution
{
public:
    /// Range of k values: Tukey's q. k >= 2.
    static StudentisedDistribution range(std::size_t k);
    /// Largest |T_i| of comparisons with one control: Dunnett's t. loading[i] = sqrt(n_i / (n_i +
    /// n_control)); the correlation of i and j is their product. Source: Dunnett (1955), J. Am. Stat. Assoc.
    /// 50, 1096, in one more integral over the sd.
    static StudentisedDistribution dunnettTwoSided(std::span<const double> loading);
    /// Largest T_i, with its sign.
    static StudentisedDistribution dunnettOneSided(std::span<const double> loading);

    /// The same, made once and remembered: plans, simulations and comparisons ask for the same few again and
    /// again. From any thread.
    static std::shared_ptr<const StudentisedDistribution> sharedRange(std::size_t k);
    static std::shared_ptr<const StudentisedDistribution> sharedDunnett(std::vector<double> loading);
    static std::shared_ptr<const StudentisedDistribution> sharedDunnettOneSided(std::vector<double> loading);

    /// P(statistic <= x).
    [[nodiscard]] double cdf(double x, double df) const;
    /// Errors of the root below 1e-9 relative. probability: between 0 and 1, neither included.
    [[nodiscard]] double quantile(double probability, double df) const;

private:
    StudentisedDistribution() = default;
    template <typename F>
    static StudentisedDistribution tabulated(double low, double high, F f);
    /// P(statistic <= x) where the sd is known.
    [[nodiscard]] double atKnownScale(double x) const;
    [[nodiscard]] double mean(double x, const EstimatedScale &scale) const;

    double m_low = 0.0;                        ///< below, the probability is 0 ...
    double m_high = 0.0;                       ///< ... and above it is 1, to 1e-15
    std::vector<std::vector<double>> m_panels; ///< Chebyshev coefficients over equal parts between the two
};

} // namespace inchpeg
