// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/log_answers.h"

#include "core/compare/compared_rails.h"
#include "core/compare/scaled_words.h"
#include "core/logbook/measuring.h"
#include "core/model/print_state.h"
#include "core/stats/blocks.h"
#include "core/stats/distributions.h"
#include "core/stats/factorial.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace inchpeg
{

namespace
{

constexpr double kLeastResidualDf = 3.0;
constexpr double kMassesDiffer = 0.01; ///< between rails: the usual tolerance of a print

/// A rail beside the reference, on the scale of the procedure.
struct RailDifference {
    std::size_t rail = 0;
    double value = 0.0;
    Interval ci;
};

class LogWords
{
public:
    LogWords(const Study &study, const StudyComparison &comparison, const Notation &notation)
        : m_study(study), m_comparison(comparison), m_notation(notation),
          m_compared(comparedRails(study, comparison))
    {
    }

    [[nodiscard]] bool isUsable() const
    {
        const auto hasReference = [](const RailComparison &rail) {
            return rail.isReference && isFullyCompared(rail);
        };
        return m_compared.groups.size() >= 2 && m_compared.isUsable() &&
               std::any_of(m_comparison.rails.begin(), m_comparison.rails.end(), hasReference);
    }

    [[nodiscard]] LogAnswer masses() const
    {
        std::vector<FactorialValue> values;
        std::vector<double> railMeans(m_compared.groups.size(), 0.0);
        for (std::size_t rail = 0; rail < m_compared.groups.size(); ++rail) {
            for (std::size_t i = 0; i < m_compared.pieces[rail].size(); ++i) {
                const std::optional<double> mass_g =
                    correctedMass_g(findPiece(m_study, m_compared.pieces[rail][i])->log);
                if (!mass_g || !(*mass_g > 0.0))
                    return {}; // not weighed
                const double covariate = m_comparison.asRatio ? std::log(*mass_g) : *mass_g;
                values.push_back({m_compared.groups[rail].values[i], {levelOf(rail)}, {covariate}});
                railMeans[rail] += *mass_g / static_cast<double>(m_compared.pieces[rail].size());
            }
        }
        const Result<FactorialAnova> anova = factorialAnova(values, SquaresType::Third, familyConfidence());
        if (!anova || anova->slopes.empty() || !anova->slopes.front().se ||
            anova->residual.df < kLeastResidualDf)
            return {};
        const CovariateSlope &slope = anova->slopes.front();
        const double t = slope.value / *slope.se;
        const bool isClear = studentTwoSided(t, anova->residual.df) < 1.0 - m_comparison.claimConfidence();
        const auto [least, most] = std::minmax_element(railMeans.begin(), railMeans.end());
        const bool differ = *most > *least * (1.0 + kMassesDiffer);
        if (!isClear && !differ)
            return {};
        if (!isClear)
            return {fmt::format(
                        "Rails differ in mass by {}, but within a rail it is not shown that heavier pieces "
                        "read otherwise: mass is not shown to be the reason.",
                        m_notation.percent(*most / *least - 1.0)),
                    false};
        std::vector<RailDifference> differences;
        for (const LevelDifference &difference : anova->differences)
            differences.push_back({railOf(difference.level), difference.value, *difference.ci});
        return told(fmt::format("Heavier pieces of a rail read {}. At equal mass",
                                slope.value > 0.0 ? "higher" : "lower"),
                    differences);
    }

    [[nodiscard]] LogAnswer plates() const
    {
        std::map<int, std::set<std::size_t>> railsOnPlate;
        std::vector<BlockedValue> values;
        std::map<int, std::size_t> number;
        for (std::size_t rail = 0; rail < m_compared.groups.size(); ++rail) {
            for (std::size_t i = 0; i < m_compared.pieces[rail].size(); ++i) {
                const std::vector<int> on = platesOf(m_study, m_compared.pieces[rail][i]);
                if (on.empty())
                    return {};
                railsOnPlate[on.back()].insert(rail);
                const std::size_t block = number.try_emplace(on.back(), number.size()).first->second;
                values.push_back({m_compared.groups[rail].values[i], levelOf(rail), block});
            }
        }
        if (railsOnPlate.size() < 2)
            return {};
        const bool isShared = std::any_of(railsOnPlate.begin(), railsOnPlate.end(),
                                          [](const auto &plate) { return plate.second.size() > 1; });
        return isShared ? platesTakenOut(values) : platesAsUnits(values, railsOnPlate.size());
    }

private:
    /// The reference first, so that differences are beside it.
    [[nodiscard]] std::size_t levelOf(std::size_t rail) const
    {
        if (rail == m_compared.reference)
            return 0;
        return rail < m_compared.reference ? rail + 1 : rail;
    }
    [[nodiscard]] std::size_t railOf(std::size_t level) const
    {
        if (level == 0)
            return m_compared.reference;
        return level <= m_compared.reference ? level - 1 : level;
    }
    [[nodiscard]] const std::string &title(std::size_t rail) const { return m_compared.groups[rail].name; }
    /// Of each difference, so that all together keep the confidence.
    [[nodiscard]] double familyConfidence() const
    {
        const double alpha = 1.0 - m_comparison.claimConfidence();
        return 1.0 - alpha / static_cast<double>(m_compared.groups.size() - 1);
    }

    [[nodiscard]] LogAnswer platesTakenOut(const std::vector<BlockedValue> &values) const
    {
        const Result<BlockFit> fit = fitBlocks(values);
        if (!fit || fit->df < kLeastResidualDf || !(fit->blockSd > 0.0))
            return {};
        return told(fmt::format("Plates scatter by {}. With the plates taken out",
                                scaledAmount(m_comparison, fit->blockSd, fit->blockSd, m_notation)),
                    differencesOf(*fit, fit->df));
    }

    /// Pieces of one plate are no independent prints.
    [[nodiscard]] LogAnswer platesAsUnits(const std::vector<BlockedValue> &values, std::size_t plates) const
    {
        const std::size_t rails = m_compared.groups.size();
        std::vector<std::set<std::size_t>> platesOfRail(rails);
        for (const BlockedValue &value : values)
            platesOfRail[value.group].insert(value.block);
        const auto alone = std::count_if(platesOfRail.begin(), platesOfRail.end(),
                                         [](const std::set<std::size_t> &own) { return own.size() < 2; });
        if (alone > 0)
            return {fmt::format(
                        "{} of {} rails were printed on a single plate each: what that plate did cannot be "
                        "told from what the rail does. Print in two rounds to see it.",
                        alone, rails),
                    false};
        const Result<BlockFit> fit = fitBlocks(values);
        if (!fit || !(fit->blockSd > 0.0))
            return {};
        return told(
            fmt::format("Plates of one rail scatter by {} beyond their pieces. With the {} plates as the "
                        "units",
                        scaledAmount(m_comparison, fit->blockSd, fit->blockSd, m_notation), plates),
            differencesOf(*fit, static_cast<double>(plates - rails)));
    }

    [[nodiscard]] std::vector<RailDifference> differencesOf(const BlockFit &fit, double df) const
    {
        const double t = studentQuantile(0.5 + 0.5 * familyConfidence(), df);
        std::vector<RailDifference> differences;
        for (Eigen::Index level = 1; level < fit.means.size(); ++level) {
            const double half = t * fit.differenceError(0, level);
            const double value = fit.difference(0, level);
            differences.push_back(
                {railOf(static_cast<std::size_t>(level)), value, {value - half, value + half}});
        }
        return differences;
    }

    /// "…, beside 230 °C: 240 °C +12 % (3 to 22 %); the claims stand."
    [[nodiscard]] LogAnswer told(const std::string &what,
                                 const std::vector<RailDifference> &differences) const
    {
        std::string text;
        bool sameClaims = true;
        for (const RailDifference &one : differences) {
            text += fmt::format("{}{} {}", text.empty() ? "" : ", ", title(one.rail), differenceText(one));
            sameClaims = sameClaims && claimOf(one.ci) == claimOfComparison(one.rail);
        }
        return {fmt::format("{}, beside {}: {}; {}.", what, title(m_compared.reference), text,
                            sameClaims ? "the claims stand" : "not all claims stand"),
                !sameClaims};
    }

    [[nodiscard]] std::string differenceText(const RailDifference &one) const
    {
        const double half = 0.5 * (one.ci.high - one.ci.low);
        return fmt::format(
            "{} ({}, {} and {} pieces)", scaledDifference(m_comparison, one.value, half, m_notation),
            scaledRange(m_comparison, one.ci, half, m_notation), m_compared.pieces[one.rail].size(),
            m_compared.pieces[m_compared.reference].size());
    }

    static int claimOf(const Interval &ci) { return ci.low > 0.0 ? 1 : ci.high < 0.0 ? -1 : 0; }
    [[nodiscard]] int claimOfComparison(std::size_t rail) const
    {
        for (const RailComparison &one : m_comparison.rails) {
            if (one.condition == m_compared.conditions[rail]->id && one.effect)
                return !one.effect->isClear() ? 0 : one.effect->t > 0.0 ? 1 : -1;
        }
        return 0;
    }

    const Study &m_study;
    const StudyComparison &m_comparison;
    const Notation &m_notation;
    ComparedRails m_compared;
};

} // namespace

std::vector<LogAnswer> logAnswers(const Study &study, const StudyComparison &comparison,
                                  const Notation &notation)
{
    const LogWords words(study, comparison, notation);
    if (!words.isUsable())
        return {};
    std::vector<LogAnswer> answers{words.masses(), words.plates()};
    std::erase_if(answers, [](const LogAnswer &answer) { return answer.text.empty(); });
    return answers;
}

} // namespace inchpeg
