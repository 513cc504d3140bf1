// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <vector>

namespace inchpeg
{

/// Power of planned comparisons of equally large groups, by the exact noncentral t and F distributions, or as
/// studies are compared. Formulas and sources: docs/methods.md, "How many pieces".

/// What a plan wants to find out; it decides the test and its critical value.
enum class Comparison {
    TwoGroups,        ///< Student's t, two-sided
    AgainstReference, ///< each of the others with the reference: Dunnett, two-sided
    AllPairs,         ///< each with each: Tukey
    AnyDifference,    ///< one-way analysis of variance
    Trend,            ///< slope of a straight line over the levels, two-sided
    BeforeAfter,      ///< each with the reference piece by piece: Student's paired t, Bonferroni
    GoodEnough,       ///< each no worse than the reference by a margin: Dunnett, one-sided
};

/// "t", "reference", "pairs", "anova", "trend", "paired", "good-enough": as on the command line.
const char *comparisonName(Comparison comparison);
std::optional<Comparison> comparisonFrom(const char *name);

struct PowerQuestion {
    Comparison comparison = Comparison::TwoGroups;
    /// The difference to be found over the standard deviation of single values; above 0. Between two groups;
    /// for AnyDifference the largest one with the other means midway; for Trend from the lowest level to
    /// the highest; for BeforeAfter as if the pieces of a pair had nothing in common; for GoodEnough the
    /// margin, where the truth is no difference.
    double difference_sd = 0.0;
    double alpha = 0.05; ///< of the whole family of comparisons
    int groups = 2;
    /// For Trend: where each group's level lies, in any unit; empty: equally spaced.
    std::vector<double> positions{};
    /// For GoodEnough: no further away than the margin to either side, where nobody says which is better.
    bool isBothSides = false;
    /// Each group counts with its own scatter, as studies are compared (SimultaneousComparison,
    /// ComparedPower): for TwoGroups, AgainstReference, AllPairs and GoodEnough. Else with the common one.
    bool isOwnScatter = false;
};

struct Power {
    int piecesPerGroup = 0;
    /// Chance to find the difference: for pairs and reference that of one chosen comparison.
    double power = 0.0;
    double noncentrality = 0.0;
};

inline constexpr int kMostPiecesPlanned = 100000;

/// Errors: InvalidArgument where the difference is not positive and finite, alpha is not between 0 and 1, a
/// group count does not fit the comparison, the positions of a trend are not one a group or all equal, or
/// piecesPerGroup is below 2.
Result<Power> powerOf(const PowerQuestion &question, int piecesPerGroup);

/// The fewest pieces a group that give at least this power.
/// Errors: as powerOf(); InvalidArgument where the power is not above alpha and below 1, or where more than
/// kMostPiecesPlanned would be needed.
Result<Power> piecesFor(const PowerQuestion &question, double power);

/// The smallest difference, in standard deviations, that is found with this power.
/// Errors: as above.
Result<double> visibleDifference_sd(const PowerQuestion &question, int piecesPerGroup, double power);

/// |T| beyond which a comparison counts as found; for AnyDifference the critical F.
double criticalValue(Comparison comparison, int groups, int piecesPerGroup, double alpha);

} // namespace inchpeg
