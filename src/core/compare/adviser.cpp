// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/adviser.h"

#include "core/compare/compared_rails.h"
#include "core/stats/normality.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace inchpeg
{

namespace
{

constexpr double kTiedShare = 0.5;       ///< of the values: from here on the gauge's steps are the scatter
constexpr std::size_t kLeastLevels = 3;  ///< for a trend
constexpr std::size_t kTooManyPairs = 6; ///< rails, from which on each with each costs much
constexpr double kNotNormalBelow = 0.01;

class Adviser
{
public:
    Adviser(const Study &study, const StudyComparison &comparison)
        : m_comparison(comparison), m_compared(comparedRails(study, comparison))
    {
        for (const RailComparison &rail : comparison.rails)
            m_bounds += rail.bounds;
    }

    [[nodiscard]] std::string why() const
    {
        const ComparisonProcedure &procedure = *m_comparison.procedure;
        std::vector<std::string> reasons;
        if (procedure.comparison == Comparison::BeforeAfter)
            reasons.emplace_back("each piece is its own reference, so what pieces have in common drops out");
        else
            reasons.push_back(m_comparison.asRatio
                                  ? "printed pieces scatter by a share of their mean, so ratios are compared"
                                  : "shares say nothing here, so differences are compared");
        if (procedure.comparison != Comparison::BeforeAfter)
            reasons.push_back(spreadReason(procedure));
        if (procedure.rails > 2)
            reasons.push_back(fmt::format(
                "{} rails are looked at together, so each interval is widened for it", procedure.rails));
        if (m_bounds > 0)
            reasons.push_back(
                fmt::format("{} bound{} stand{} among the values, so those rails are only said to "
                            "lie beyond, and beside it counted as bounds",
                            m_bounds, m_bounds == 1 ? "" : "s", m_bounds == 1 ? "s" : ""));
        return fmt::format("Why this way: {}.", fmt::join(reasons, "; "));
    }

    [[nodiscard]] std::string instead() const
    {
        std::vector<std::string> others;
        const Comparison asked = m_comparison.procedure->comparison;
        if (tiedShare() >= kTiedShare)
            others.emplace_back(
                "half of the values or more are equal to another of their rail: the gauge's steps "
                "are as wide as the scatter, so go by ranks or read with a finer gauge");
        if (asked == Comparison::AgainstReference && m_compared.levels.size() >= kLeastLevels)
            others.emplace_back(
                "the levels are numbers: asked as a trend, the same pieces would show a smaller "
                "change");
        if (asked == Comparison::AllPairs && m_compared.groups.size() >= kTooManyPairs)
            others.push_back(fmt::format(
                "{} rails make {} pairs: asked against the reference alone, a smaller "
                "difference would show",
                m_compared.groups.size(), m_compared.groups.size() * (m_compared.groups.size() - 1) / 2));
        if (const std::vector<std::string> skewed = notNormal(); !skewed.empty())
            others.push_back(
                fmt::format("the values of {} do not scatter as a bell (Shapiro and Wilk): see what "
                            "ranks and trimmed means say",
                            listText(skewed)));
        return others.empty() ? std::string() : fmt::format("To consider: {}.", fmt::join(others, "; "));
    }

private:
    [[nodiscard]] std::string spreadReason(const ComparisonProcedure &procedure) const
    {
        if (procedure.isOwnBySizes)
            return "the rails have uneven numbers of pieces, so that the large ones would speak for the "
                   "small: each "
                   "counts with its own scatter";
        if (procedure.spread == Spread::Own)
            return procedure.rails == 2
                       ? "each rail counts with its own scatter"
                       : "the rails do not scatter alike, so each counts with its own scatter";
        if (procedure.spread == Spread::Moderated)
            return "few pieces tell little of a rail's own scatter, and a common one would speak for a rail "
                   "that "
                   "scatters otherwise, so each counts with its own, drawn a little towards that of all";
        return "a rail lends no scatter of its own (bounds, or equal values), so that of the others counts "
               "for all";
    }

    /// Of the values, those that equal another of their rail.
    [[nodiscard]] double tiedShare() const
    {
        std::size_t tied = 0;
        std::size_t all = 0;
        for (const Group &group : m_compared.plain) {
            all += group.values.size();
            for (const double value : group.values)
                tied += std::count(group.values.begin(), group.values.end(), value) > 1 ? 1U : 0U;
        }
        return all == 0 ? 0.0 : static_cast<double>(tied) / static_cast<double>(all);
    }

    [[nodiscard]] std::vector<std::string> notNormal() const
    {
        std::vector<std::string> names;
        for (const Group &group : m_compared.groups) {
            const std::optional<ShapiroWilk> test = shapiroWilk(group.values);
            if (test && test->p < kNotNormalBelow)
                names.push_back(group.name);
        }
        return names;
    }

    const StudyComparison &m_comparison;
    ComparedRails m_compared;
    std::size_t m_bounds = 0;
};

} // namespace

std::string adviceText(const Study &study, const StudyComparison &comparison)
{
    if (!comparison.procedure)
        return {};
    const Adviser adviser(study, comparison);
    const std::string instead = adviser.instead();
    return adviser.why() + (instead.empty() ? "" : " " + instead);
}

} // namespace inchpeg
