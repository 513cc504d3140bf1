// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/stats/two_groups.h"

#include <functional>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// Comparisons of two or more groups, none of them empty. Formulas and sources: docs/methods.md, "Many
/// groups".

struct FTest {
    double f = 0.0;
    double df1 = 0.0;
    double df2 = 0.0;
    double p = 0.0;
};

struct Anova {
    std::optional<FTest> test; ///< nothing where no group varies
    double df1 = 0.0;
    double df2 = 0.0;
    double ssBetween = 0.0;
    double ssWithin = 0.0;
    std::optional<double> eta2;
    std::optional<double> omega2;
};

Anova oneWayAnova(std::span<const Group> groups);

/// Welch (1951): means compared without equal variances. Nothing where a group has one value or does not
/// vary.
std::optional<FTest> welchAnova(std::span<const Group> groups);

struct ChiSquaredTest {
    double statistic = 0.0;
    double df = 0.0;
    double p = 0.0;
};

/// Kruskal & Wallis (1952), corrected for ties. Nothing where all values are equal.
std::optional<ChiSquaredTest> kruskalWallis(std::span<const Group> groups);

struct VarianceTests {
    std::optional<ChiSquaredTest> bartlett;
    std::optional<FTest> levene;        ///< absolute deviations from the mean
    std::optional<FTest> brownForsythe; ///< from the median
};

VarianceTests varianceTests(std::span<const Group> groups);

struct RangeTest {
    double q = 0.0; ///< never negative
    double df = 0.0;
    double p = 0.0;
    Interval ci;
};

/// One pair of groups; the differences are mean(b) - mean(a).
struct PairComparison {
    std::size_t a = 0;
    std::size_t b = 0;
    double difference = 0.0;
    std::optional<TTest> pooled;
    std::optional<TTest> welch;
    std::optional<RangeTest> tukey;       ///< Tukey–Kramer
    std::optional<RangeTest> gamesHowell; ///< Games & Howell (1976)
    std::optional<MannWhitney> mannWhitney;
    std::optional<double> welchHolm;
    std::optional<Estimate> hedgesG;
    std::optional<Estimate> ratio;
};

struct DunnettComparison {
    std::size_t level = 0;
    double difference = 0.0; ///< level - reference
    double t = 0.0;
    double p = 0.0;
    Interval ci;
};

struct BestLevel {
    std::size_t level = 0;
    Interval ci; ///< constrained, for mean - best of the other means
    bool mayBeBest = false;
};

/// Dunnett (1955): two-sided, single step, variance pooled over all groups. Empty where no group varies.
std::vector<DunnettComparison> dunnett(std::span<const Group> groups, std::size_t reference,
                                       double confidence = 0.95);

/// Hsu's comparison with the best (Hsu 1996, Multiple Comparisons, ch. 4): of these means, with the margin
/// that the difference of a control and another has to one side, all with one control together.
std::vector<BestLevel>
comparisonWithBest(std::vector<double> means, bool largerIsBetter,
                   const std::function<double(std::size_t control, std::size_t other)> &margin);
/// The same, variance pooled over all groups. Empty where no group varies.
std::vector<BestLevel> comparisonWithBest(std::span<const Group> groups, bool largerIsBetter = true,
                                          double confidence = 0.95);

struct GroupComparison {
    Anova anova;
    std::optional<FTest> welch;
    std::optional<ChiSquaredTest> kruskalWallis;
    VarianceTests variances;
    std::vector<PairComparison> pairs;
};

/// The error of a comparison that is asked of fewer than two groups.
Error tooFewGroups(std::size_t count);

/// Errors: TooFewPoints with fewer than two groups.
Result<GroupComparison> compareGroups(std::span<const Group> groups, double confidence = 0.95);

} // namespace inchpeg
