// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/bounded_likelihood.h"
#include "core/stats/survival.h"

#include <Eigen/Dense>

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// Groups with lower bounds among their values, with a common scale.
struct BoundedFit {
    /// Of each group: the mean (of the logarithms where they scatter), of Weibull's law the logarithm of its
    /// scale. Nothing where all values of the group are bounds.
    std::vector<std::optional<double>> location;
    double scale = 0.0;         ///< sd (of the logarithms); of Weibull's law 1/shape
    double logLikelihood = 0.0; ///< of the values themselves
    Eigen::MatrixXd covariance; ///< of the locations that are there, in their order
    std::size_t values = 0;     ///< of the groups that have a location
    std::size_t broken = 0;     ///< of them no bounds

    [[nodiscard]] double standardError(std::size_t group) const;
    /// Location of b less that of a; both must be there.
    [[nodiscard]] double difference(std::size_t a, std::size_t b) const;
    [[nodiscard]] double differenceError(std::size_t a, std::size_t b) const;

private:
    [[nodiscard]] Eigen::Index placeOf(std::size_t group) const;
};

/// Maximum likelihood; a group of bounds alone is left out. Source: Lawless (1982), Statistical Models and
/// Methods for Lifetime Data, chapter 6; docs/methods.md, "Groups with bounds".
/// Errors: BadInput for a value that is not above 0 where logarithms scatter; TooFewPoints where the
/// likelihood has no maximum: fewer than two values that are no bounds, or nothing that varies.
Result<BoundedFit> fitBoundedGroups(std::span<const BoundedGroup> groups, ScatterLaw law);

/// Likelihood ratio of one location for all against one for each group.
struct LikelihoodRatio {
    double chi2 = 0.0;
    double df = 0.0;
    double p = 1.0;
};
/// Nothing with fewer than two groups that have a location.
Result<std::optional<LikelihoodRatio>> testBoundedGroups(std::span<const BoundedGroup> groups,
                                                         ScatterLaw law);

} // namespace inchpeg
