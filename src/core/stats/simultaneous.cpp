// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/simultaneous.h"

#include "core/base/contract.h"
#include "core/stats/critical_table.h"
#include "core/stats/distributions.h"
#include "core/stats/moderated_scatter.h"
#include "core/stats/studentised.h"

#include <boost/math/tools/roots.hpp>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace inchpeg
{

namespace
{

bool isOfAllPairs(const ComparisonRule &rule)
{
    return rule.comparison == Comparison::AllPairs;
}

/// Of Dunnett's comparisons, see StudentisedDistribution.
std::vector<double> loadingsOf(std::span<const Group> groups, std::size_t reference)
{
    const auto control = static_cast<double>(groups[reference].values.size());
    std::vector<double> loading;
    for (std::size_t i = 0; i < groups.size(); ++i) {
        const auto n = static_cast<double>(groups[i].values.size());
        if (i != reference)
            loading.push_back(std::sqrt(n / (n + control)));
    }
    return loading;
}

/// Nothing for two groups: one comparison is Student's t.
std::shared_ptr<const StudentisedDistribution> familyOf(std::span<const Group> groups, std::size_t reference,
                                                        const ComparisonRule &rule)
{
    if (groups.size() == 2)
        return nullptr;
    if (isOfAllPairs(rule))
        return StudentisedDistribution::sharedRange(groups.size());
    return StudentisedDistribution::sharedDunnett(loadingsOf(groups, reference));
}

/// family: nothing for a single comparison, which is Student's.
double criticalOf(const StudentisedDistribution *family, const ComparisonRule &rule, double df)
{
    if (family == nullptr)
        return studentQuantile(0.5 + 0.5 * rule.confidence, df);
    const double quantile = family->quantile(rule.confidence, df);
    return isOfAllPairs(rule) ? quantile / std::numbers::sqrt2 : quantile;
}

} // namespace

double simultaneousCritical(std::span<const Group> groups, std::size_t reference, const ComparisonRule &rule,
                            double df)
{
    return criticalOf(familyOf(groups, reference, rule).get(), rule, df);
}

std::optional<SimultaneousComparison> SimultaneousComparison::of(std::span<const Group> groups,
                                                                 std::size_t reference,
                                                                 const ComparisonRule &rule,
                                                                 const std::vector<bool> &withoutScatter)
{
    require(groups.size() >= 2 && reference < groups.size(),
            "a comparison needs a reference and another group");
    SimultaneousComparison comparison;
    comparison.m_rule = rule;
    comparison.m_reference = reference;
    double squares = 0.0;
    double logs = 0.0;
    double inverses = 0.0;
    bool allVary = true;
    std::size_t withScatter = 0;
    for (std::size_t g = 0; g < groups.size(); ++g) {
        const Group &group = groups[g];
        require(group.values.size() >= 2, "a comparison needs two values a group");
        Rail rail{static_cast<double>(group.values.size()), meanOf(group.values), varianceOf(group.values),
                  static_cast<double>(group.values.size()) - 1.0, true};
        if (rule.asRatio) {
            if (!(rail.mean > 0.0))
                return std::nullopt;
            rail.variance /= rail.mean * rail.mean;
        }
        rail.hasScatter = g >= withoutScatter.size() || !withoutScatter[g];
        comparison.m_rails.push_back(rail);
        if (!rail.hasScatter)
            continue;
        ++withScatter;
        comparison.m_df += rail.df;
        squares += rail.df * rail.variance;
        allVary = allVary && rail.variance > 0.0;
        logs += allVary ? rail.df * std::log(rail.variance) : 0.0;
        inverses += 1.0 / rail.df;
    }
    if (!(squares > 0.0))
        return std::nullopt;
    comparison.m_variance = squares / comparison.m_df;
    if (allVary && withScatter >= 2) { // Bartlett (1937)
        const double more = static_cast<double>(withScatter) - 1.0;
        const double k2 = (comparison.m_df * std::log(comparison.m_variance) - logs) /
                          (1.0 + (inverses - 1.0 / comparison.m_df) / (3.0 * more));
        comparison.m_spreadP = chiSquaredUpper(k2, more);
    }
    const bool allLendScatter = allVary && withScatter == groups.size();
    const auto [smallest, largest] =
        std::minmax_element(comparison.m_rails.begin(), comparison.m_rails.end(),
                            [](const Rail &a, const Rail &b) { return a.n < b.n; });
    comparison.m_isUneven =
        allLendScatter && smallest->n < kSpeaksForItself && largest->n > kUnevenSizes * smallest->n;
    comparison.m_spread = rule.spread.value_or(comparison.usualSpread(allLendScatter));
    comparison.m_isOwnBySizes = comparison.m_spread == Spread::Own && comparison.m_isUneven;
    comparison.m_family = familyOf(groups, reference, rule);
    comparison.m_loading = loadingsOf(groups, reference);
    comparison.m_critical = comparison.criticalT(comparison.m_df);
    if (comparison.m_spread == Spread::Moderated && allLendScatter) {
        comparison.moderate();
        if (comparison.m_family)
            comparison.m_table = CriticalTable::shared(comparison.m_family, rule.confidence);
    }
    if (comparison.m_spread == Spread::Own && comparison.m_rails.size() > OverDegreesOfFreedom::kNodes)
        comparison.interpolateCriticalValues();
    return comparison;
}

Spread SimultaneousComparison::usualSpread(bool allLendScatter) const
{
    if (!allLendScatter)
        return m_spreadP && *m_spreadP < m_rule.unequalBelow ? Spread::Own : Spread::Common;
    return m_isUneven || m_rails.size() == 2 ? Spread::Own : Spread::Moderated;
}

void SimultaneousComparison::moderate()
{
    std::vector<double> variances;
    std::vector<double> dfs;
    for (const Rail &rail : m_rails) {
        variances.push_back(rail.variance);
        dfs.push_back(rail.df);
    }
    const ModeratedScatters moderated = moderatedScatters(variances, dfs);
    for (std::size_t g = 0; g < m_rails.size(); ++g) {
        m_rails[g].variance = moderated.variances[g];
        m_rails[g].df += moderated.more_df;
    }
}

/// Standard error and degrees of freedom where each counts with its own scatter (Satterthwaite, 1946).
std::optional<Effect> SimultaneousComparison::ownScatter(const Rail &a, const Rail &b) const
{
    const double va = a.variance / a.n;
    const double vb = b.variance / b.n;
    if (!a.hasScatter || !b.hasScatter || !(va + vb > 0.0))
        return std::nullopt;
    Effect effect;
    effect.standardError = std::sqrt(va + vb);
    // Two or three values now and then lie close together by chance: then Satterthwaite takes the large
    // group's degrees of freedom for an error that the small one decides. Those of the smaller never claim
    // too much.
    effect.df = m_isOwnBySizes ? std::min(a.df, b.df)
                               : std::min(m_df, (va + vb) * (va + vb) / (va * va / a.df + vb * vb / b.df));
    return effect;
}

void SimultaneousComparison::interpolateCriticalValues()
{
    double lowest = std::numeric_limits<double>::infinity();
    double highest = 0.0;
    for (std::size_t a = 0; a < m_rails.size(); ++a) {
        for (std::size_t b = 0; b < m_rails.size(); ++b) {
            if (a == b || (a != m_reference && !isOfAllPairs(m_rule)))
                continue;
            if (const std::optional<Effect> effect = ownScatter(m_rails[a], m_rails[b])) {
                lowest = std::min(lowest, effect->df);
                highest = std::max(highest, effect->df);
            }
        }
    }
    if (highest > lowest)
        m_criticalOverDf.emplace([this](double df) { return criticalT(df); }, lowest, highest);
}

double SimultaneousComparison::criticalFor(const Effect &effect) const
{
    if (m_table)
        return m_table->at(effect.df) / (isOfAllPairs(m_rule) ? std::numbers::sqrt2 : 1.0);
    return m_criticalOverDf ? m_criticalOverDf->at(effect.df) : criticalT(effect.df);
}

double SimultaneousComparison::criticalT(double df) const
{
    return criticalOf(m_family.get(), m_rule, df);
}

std::optional<Effect> SimultaneousComparison::effect(std::size_t a, std::size_t b) const
{
    require(a != b && (a == m_reference || isOfAllPairs(m_rule)), "this pair is not of the family");
    const Rail &first = m_rails.at(a);
    const Rail &second = m_rails.at(b);
    Effect effect;
    if (m_spread == Spread::Common) {
        effect.df = m_df;
        effect.critical = m_critical;
        effect.standardError = std::sqrt(m_variance * (1.0 / first.n + 1.0 / second.n));
    } else {
        const std::optional<Effect> own = ownScatter(first, second);
        if (!own)
            return std::nullopt;
        effect = *own;
        effect.critical = criticalFor(effect);
    }
    const double half = effect.critical * effect.standardError;
    if (m_rule.asRatio) {
        effect.estimate = second.mean / first.mean;
        effect.t = std::log(effect.estimate) / effect.standardError;
        effect.ci = {effect.estimate * std::exp(-half), effect.estimate * std::exp(half)};
    } else {
        effect.estimate = second.mean - first.mean;
        effect.t = effect.estimate / effect.standardError;
        effect.ci = {effect.estimate - half, effect.estimate + half};
    }
    return effect;
}

double SimultaneousComparison::oneSidedLimit(const Effect &effect, bool upwards) const
{
    const double critical =
        m_loading.size() == 1 ? studentQuantile(m_rule.confidence, effect.df)
        : m_spread == Spread::Moderated
            ? CriticalTable::shared(StudentisedDistribution::sharedDunnettOneSided(m_loading),
                                    m_rule.confidence)
                  ->at(effect.df)
            : StudentisedDistribution::sharedDunnettOneSided(m_loading)->quantile(m_rule.confidence,
                                                                                  effect.df);
    const double away = (upwards ? 1.0 : -1.0) * critical * effect.standardError;
    return m_rule.asRatio ? effect.estimate * std::exp(away) : effect.estimate + away;
}

double SimultaneousComparison::familyP(const Effect &effect) const
{
    if (!m_family)
        return studentTwoSided(effect.t, effect.df);
    const double statistic = std::abs(effect.t) * (isOfAllPairs(m_rule) ? std::numbers::sqrt2 : 1.0);
    return 1.0 - m_family->cdf(statistic, effect.df);
}

double SimultaneousComparison::commonScatter() const
{
    return std::sqrt(m_variance);
}

std::vector<BestLevel> comparisonWithBest(std::span<const Group> groups, bool largerIsBetter,
                                          const ComparisonRule &rule)
{
    ComparisonRule differences = rule;
    differences.comparison = Comparison::AgainstReference;
    differences.asRatio = false;
    std::vector<SimultaneousComparison> controls; // each as the reference of its own family
    for (std::size_t g = 0; g < groups.size(); ++g) {
        std::optional<SimultaneousComparison> family = SimultaneousComparison::of(groups, g, differences);
        if (!family)
            return {};
        controls.push_back(std::move(*family));
    }
    std::vector<double> means;
    for (const Group &group : groups)
        means.push_back(meanOf(group.values));
    return comparisonWithBest(means, largerIsBetter, [&](std::size_t control, std::size_t other) {
        const std::optional<Effect> effect = controls[control].effect(control, other);
        return effect ? controls[control].oneSidedLimit(*effect, true) - effect->estimate
                      : std::numeric_limits<double>::infinity();
    });
}

std::optional<Effect> pairedEffect(std::span<const double> a, std::span<const double> b, bool asRatio,
                                   double confidence, std::size_t comparisons)
{
    require(a.size() == b.size() && comparisons > 0, "pairedEffect() needs as many values on both sides");
    std::vector<double> differences;
    for (std::size_t i = 0; i < a.size(); ++i) {
        if (asRatio && !(a[i] > 0.0 && b[i] > 0.0))
            return std::nullopt;
        differences.push_back(asRatio ? std::log(b[i] / a[i]) : b[i] - a[i]);
    }
    if (differences.size() < 2 || !(varianceOf(differences) > 0.0))
        return std::nullopt;
    const auto n = static_cast<double>(differences.size());
    Effect effect;
    effect.df = n - 1.0;
    effect.standardError = std::sqrt(varianceOf(differences) / n);
    effect.critical =
        studentQuantile(1.0 - 0.5 * (1.0 - confidence) / static_cast<double>(comparisons), effect.df);
    const double mean = meanOf(differences);
    effect.t = mean / effect.standardError;
    const double half = effect.critical * effect.standardError;
    effect.estimate = asRatio ? std::exp(mean) : mean;
    effect.ci =
        asRatio ? Interval{std::exp(mean - half), std::exp(mean + half)} : Interval{mean - half, mean + half};
    return effect;
}

double detectableNoncentrality(double critical, double df, double power)
{
    const EstimatedScale scale(df);
    const auto missing = [&](double lambda) {
        return noncentralStudentBeyond(critical, scale, lambda) - power;
    };
    // Were the scale known, it would be the critical value and the normal quantile of the power.
    const double near = critical + normalQuantile(power);
    double low = std::max(0.0, near - 0.1);
    double high = near + 0.1;
    while (low > 0.0 && missing(low) > 0.0)
        low = std::max(0.0, low - 2.0 * (near - low));
    while (missing(high) < 0.0)
        high += 2.0 * (high - near);
    std::uintmax_t steps = 100;
    const auto bracket = boost::math::tools::toms748_solve(
        missing, low, high, boost::math::tools::eps_tolerance<double>(30), steps);
    return 0.5 * (bracket.first + bracket.second);
}

} // namespace inchpeg
