// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/stats/summary.h"

#include <cstddef>
#include <optional>
#include <span>
#include <vector>

namespace inchpeg
{

/// One value with its level of each factor, counted from 0, and what was measured beside it (a mass, say).
struct FactorialValue {
    double value = 0.0;
    std::vector<std::size_t> levels;
    std::vector<double> covariates{};
};

enum class SquaresType {
    Second, ///< each term after all others that do not contain it
    Third,  ///< each term after all others, in sum-to-zero contrasts
};

struct FactorialTerm {
    std::vector<std::size_t> factors;       ///< places of the factors; two and more are an interaction
    std::optional<std::size_t> covariate{}; ///< its place; it has no factors then
    double df = 0.0;
    double squares = 0.0;
    std::optional<double> meanSquare; ///< nothing without a degree of freedom
    std::optional<double> f;          ///< nothing for the residual, or where it does not vary
    std::optional<double> p;
    std::optional<double> partialEta2;
};

/// A factor's mean at a level: over the levels of the others alike, at the mean of each covariate.
struct AdjustedMean {
    std::size_t factor = 0;
    std::size_t level = 0;
    double mean = 0.0;
    std::optional<double> se; ///< nothing without a residual
    std::optional<Interval> ci;
};

/// How the adjusted mean of a level lies beside that of the factor's first; each by itself.
struct LevelDifference {
    std::size_t factor = 0;
    std::size_t level = 0; ///< from 1
    double value = 0.0;
    std::optional<double> se; ///< nothing without a residual
    std::optional<Interval> ci;
};

/// The slope along a covariate, all else equal.
struct CovariateSlope {
    double value = 0.0;
    std::optional<double> se;
    std::optional<Interval> ci;
};

struct FactorialAnova {
    std::vector<FactorialTerm> terms; ///< covariates, factors, interactions of two, of three
    FactorialTerm residual;
    std::vector<AdjustedMean> means;          ///< empty where combinations of levels are missing
    std::vector<LevelDifference> differences; ///< empty as the means
    std::vector<CovariateSlope> slopes;       ///< empty as the means
};

inline constexpr std::size_t kMostFactorsAnalysed = 3;

/// Analysis of variance of one to three factors with all interactions, and of covariance; unbalanced data
/// allowed; every F over the residual of the full model. Source: docs/methods.md, "Several factors".
/// values: each with the same number of levels and of covariates.
/// Errors: TooFewPoints where a factor has fewer than two levels; InvalidArgument for the third type where a
/// combination of levels holds no value.
Result<FactorialAnova> factorialAnova(std::span<const FactorialValue> values,
                                      SquaresType type = SquaresType::Second, double confidence = 0.95);

} // namespace inchpeg
