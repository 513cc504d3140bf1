// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/many_groups.h"
#include "core/stats/over_df.h"
#include "core/stats/power.h"
#include "core/stats/summary.h"

#include <cstddef>
#include <memory>
#include <optional>
#include <span>
#include <vector>

namespace inchpeg
{

class CriticalTable;
class StudentisedDistribution;

/// Bartlett's p below which groups are not taken to scatter alike.
inline constexpr double kUnequalSpreadBelow = 0.05;

/// Groups of so much differing sizes, the smallest with fewer than so many values, are not pooled: what the
/// large ones scatter by would speak for the small one (ours; docs/validation.md, "Uneven numbers of
/// pieces").
inline constexpr double kUnevenSizes = 1.5;
inline constexpr double kSpeaksForItself = 6.0;

/// How the means of several rails are compared: one procedure behind the plan's power, its simulation, the
/// claims and their intervals. A claim is made exactly where its interval excludes "no difference", and all
/// intervals of a family hold together with the wanted confidence. Formulas, sources and how often it is
/// wrong: docs/methods.md, "Comparing rails", and docs/validation.md.

/// Whether all groups are taken to scatter alike, or each as it does.
enum class Spread {
    Common,    ///< pooled over all groups: Dunnett's and Tukey's procedures
    Own,       ///< each its own, Satterthwaite's degrees of freedom: Welch, Games and Howell
    Moderated, ///< each its own, drawn a little towards that of all: moderatedScatters()
};

struct ComparisonRule {
    /// Decides the family: Tukey's for AllPairs, else each group against the reference by Dunnett.
    /// Not BeforeAfter, which is pairedEffect()'s.
    Comparison comparison = Comparison::AgainstReference;
    /// Ratios of means, scatter being a share of each mean (printed pieces scatter so); else differences.
    bool asRatio = true;
    double confidence = 0.95;
    /// Empty: of two groups each its own; beside uneven sizes each its own as well; moderated else. Where a
    /// group lends no scatter (bounds, or equal values), a common one unless Bartlett's test speaks against
    /// it.
    std::optional<Spread> spread{};
    double unequalBelow = kUnequalSpreadBelow;
};

/// What b is beside a.
struct Effect {
    double estimate = 0.0; ///< mean(b) / mean(a), or mean(b) - mean(a)
    Interval ci;           ///< holds together with those of the whole family
    double t = 0.0;        ///< of the logarithm of the ratio, or of the difference
    double df = 0.0;
    double critical = 0.0;      ///< what |t| must exceed
    double standardError = 0.0; ///< of what t is made from

    [[nodiscard]] bool isClear() const { return t > critical || t < -critical; }
};

class SimultaneousComparison
{
public:
    /// groups: two or more, each of at least two values. withoutScatter: groups whose scatter says nothing,
    /// since bounds are among their values; they are compared with the scatter of the others. Nothing where
    /// no other group varies, or where ratios are asked for and a mean is not above 0.
    static std::optional<SimultaneousComparison> of(std::span<const Group> groups, std::size_t reference,
                                                    const ComparisonRule &rule,
                                                    const std::vector<bool> &withoutScatter = {});

    /// b beside a; a is the reference unless the family is of all pairs. Nothing where neither varies, or
    /// where each counts with its own scatter and one has none.
    [[nodiscard]] std::optional<Effect> effect(std::size_t a, std::size_t b) const;
    /// How far b lies from the reference at most, downwards or upwards: one-sided, together with those of the
    /// whole family (Dunnett). effect: of this family, against the reference.
    [[nodiscard]] double oneSidedLimit(const Effect &effect, bool upwards) const;
    /// Chance that the largest |t| of the family lies beyond this one where nothing differs.
    [[nodiscard]] double familyP(const Effect &effect) const;

    [[nodiscard]] Spread spread() const { return m_spread; }
    /// Each counts with its own scatter since sizes are uneven, not since scatters are shown to differ.
    [[nodiscard]] bool isOwnBySizes() const { return m_isOwnBySizes; }
    /// Common sd of single values: a share of the mean for ratios.
    [[nodiscard]] double commonScatter() const;
    [[nodiscard]] double commonDf() const { return m_df; }
    /// What |t| must exceed at these degrees of freedom.
    [[nodiscard]] double criticalT(double df) const;
    /// Bartlett's, of the spreads; nothing where one of them is 0.
    [[nodiscard]] const std::optional<double> &spreadP() const { return m_spreadP; }

private:
    struct Rail {
        double n = 0.0;
        double mean = 0.0;
        double variance = 0.0; ///< of single values, over the squared mean for ratios
        double df = 0.0;       ///< of the variance
        bool hasScatter = true;
    };
    SimultaneousComparison() = default;
    [[nodiscard]] Spread usualSpread(bool allLendScatter) const;
    void moderate();
    [[nodiscard]] double criticalFor(const Effect &effect) const;
    [[nodiscard]] std::optional<Effect> ownScatter(const Rail &a, const Rail &b) const;
    void interpolateCriticalValues();

    ComparisonRule m_rule;
    std::size_t m_reference = 0;
    std::vector<Rail> m_rails;
    Spread m_spread = Spread::Common;
    bool m_isUneven = false;
    bool m_isOwnBySizes = false;
    double m_variance = 0.0; ///< common
    double m_df = 0.0;
    double m_critical = 0.0;                              ///< at these degrees of freedom
    std::optional<OverDegreesOfFreedom> m_criticalOverDf; ///< where many groups have each their own
    std::shared_ptr<const CriticalTable> m_table;         ///< of moderated scatters
    std::optional<double> m_spreadP;
    std::vector<double> m_loading; ///< of the groups beside the reference, see StudentisedDistribution
    std::shared_ptr<const StudentisedDistribution> m_family; ///< empty for a single comparison: Student's t
};

/// Hsu's comparison with the best (1996, Multiple Comparisons, ch. 4), each group as rule.spread says: for
/// differences, the level of each in order. Empty where nothing can be said.
std::vector<BestLevel> comparisonWithBest(std::span<const Group> groups, bool largerIsBetter,
                                          const ComparisonRule &rule);

/// b beside a where the values belong together one by one: Student's paired t, of the logarithms for ratios.
/// comparisons: in the family, which together keep the confidence (Bonferroni). Nothing with fewer than two
/// pairs, where no difference varies, or for ratios of values that are not above 0.
std::optional<Effect> pairedEffect(std::span<const double> a, std::span<const double> b, bool asRatio,
                                   double confidence, std::size_t comparisons);

/// What |t| must exceed in a comparison of these groups at any degrees of freedom: only their sizes count.
double simultaneousCritical(std::span<const Group> groups, std::size_t reference, const ComparisonRule &rule,
                            double df);

/// The noncentrality at which |t| exceeds its critical value with the given power.
double detectableNoncentrality(double critical, double df, double power);

} // namespace inchpeg
