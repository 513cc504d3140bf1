// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/factor_effects.h"

#include "core/compare/compared_rails.h"
#include "core/compare/scaled_words.h"
#include "core/text/list_text.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

namespace inchpeg
{

namespace
{

constexpr std::size_t kLeastFactors = 2;

/// The different levels of a factor among the compared rails; numbers ascend, names stand as they come.
std::vector<std::string> levelsAmong(const ComparedRails &compared, std::size_t factor)
{
    std::vector<std::string> levels;
    bool areNumbers = true;
    for (const Condition *condition : compared.conditions) {
        const std::string &level = condition->levels[factor];
        if (std::find(levels.begin(), levels.end(), level) == levels.end())
            levels.push_back(level);
        areNumbers = areNumbers && parseTypedNumber(level);
    }
    if (areNumbers)
        std::sort(levels.begin(), levels.end(), [](const std::string &a, const std::string &b) {
            return *parseTypedNumber(a) < *parseTypedNumber(b);
        });
    return levels;
}

/// An interaction that the rails can show.
bool hasCrossing(const FactorialAnova &anova)
{
    return std::any_of(anova.terms.begin(), anova.terms.end(),
                       [](const FactorialTerm &term) { return term.factors.size() > 1 && term.df > 0.0; });
}

class FactorWords
{
public:
    FactorWords(const Study &study, const StudyComparison &comparison, const FactorEffects &effects,
                const Notation &notation)
        : m_study(study), m_comparison(comparison), m_effects(effects), m_notation(notation)
    {
    }

    [[nodiscard]] std::vector<std::string> sentences() const
    {
        std::vector<std::string> together;
        std::vector<std::string> apart;
        std::set<std::size_t> entangled;
        for (const FactorialTerm &term : m_effects.anova.terms) {
            if (term.factors.size() < 2 || !term.p)
                continue;
            std::vector<std::string> names;
            for (const std::size_t f : term.factors)
                names.push_back(nameOf(f));
            if (*term.p >= alpha()) {
                apart.push_back(fmt::format("{} (p {})", listText(names), p(*term.p)));
                continue;
            }
            together.push_back(fmt::format("{} (p {})", listText(names), p(*term.p)));
            entangled.insert(term.factors.begin(), term.factors.end());
        }
        std::vector<std::string> sentences;
        if (!together.empty())
            sentences.push_back(
                fmt::format("What one does hangs on the other: {}. See the graph of the factors together.",
                            fmt::join(together, "; ")));
        if (!apart.empty() && together.empty())
            sentences.push_back(
                fmt::format("It is not shown that factors work together: {}.", fmt::join(apart, "; ")));
        std::vector<std::string> alone;
        for (std::size_t f = 0; f < m_effects.factors.size(); ++f) {
            if (!entangled.contains(f))
                alone.push_back(effectOf(f));
        }
        std::erase(alone, std::string());
        if (!alone.empty())
            sentences.push_back(fmt::format(
                "Over all levels of the others, each by itself ({} pieces{}): {}.", m_effects.values.size(),
                m_comparison.asRatio ? ", ratios of geometric means" : "", fmt::join(alone, "; ")));
        // Rails that were printed otherwise answer another question, and are not among these.
        const Condition *reference = findCondition(m_study, m_study.reference);
        if (reference != nullptr && mixesOrientations(m_study)) {
            for (std::string &sentence : sentences) {
                sentence[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(sentence[0])));
                sentence = fmt::format("Of the rails printed {}: {}", orientationName(reference->orientation),
                                       sentence);
            }
        }
        return sentences;
    }

private:
    [[nodiscard]] double alpha() const { return 1.0 - m_comparison.claimConfidence(); }
    [[nodiscard]] std::string p(double probability) const
    {
        return probability < 1e-4 ? "below " + m_notation.plain(0.0001)
                                  : m_notation.significant(probability, 2);
    }
    [[nodiscard]] const std::string &nameOf(std::size_t f) const
    {
        return m_study.factors[m_effects.factors[f]].name;
    }

    /// "fan 0 % against 100 %: +8 % (2 to 14 %)", and for more levels than two whether they matter.
    [[nodiscard]] std::string effectOf(std::size_t f) const
    {
        const std::vector<std::string> &levels = m_effects.levels[f];
        if (levels.size() == 2) {
            for (const LevelDifference &difference : m_effects.anova.differences) {
                if (difference.factor == f && difference.ci)
                    return fmt::format(
                        "{} {} beside {}: {} ({})", nameOf(f), levels[1], levels[0],
                        scaledDifference(m_comparison, difference.value, *difference.se, m_notation),
                        scaledRange(m_comparison, *difference.ci, *difference.se, m_notation));
            }
        }
        for (const FactorialTerm &term : m_effects.anova.terms) {
            if (term.factors == std::vector<std::size_t>{f} && term.p)
                return fmt::format("{} {} (p {})", nameOf(f),
                                   *term.p < alpha() ? "matters" : "is not shown to matter", p(*term.p));
        }
        return {};
    }

    const Study &m_study;
    const StudyComparison &m_comparison;
    const FactorEffects &m_effects;
    const Notation &m_notation;
};

} // namespace

std::optional<FactorEffects> factorEffects(const Study &study, const StudyComparison &comparison)
{
    const ComparedRails compared = comparedRails(study, comparison);
    if (compared.groups.size() < 2 || !compared.isUsable())
        return std::nullopt;
    FactorEffects effects;
    std::vector<std::vector<std::string>> typed;
    for (std::size_t f = 0; f < study.factors.size(); ++f) {
        std::vector<std::string> levels = levelsAmong(compared, f);
        if (levels.size() < 2)
            continue;
        effects.factors.push_back(f);
        std::vector<std::string> shown;
        for (const std::string &level : levels)
            shown.push_back(levelText(study.factors[f], level));
        effects.levels.push_back(std::move(shown));
        typed.push_back(std::move(levels));
    }
    if (effects.factors.size() < kLeastFactors || effects.factors.size() > kMostFactorsAnalysed)
        return std::nullopt;
    std::set<std::vector<std::size_t>> cells;
    for (std::size_t rail = 0; rail < compared.groups.size(); ++rail) {
        std::vector<std::size_t> places;
        for (std::size_t f = 0; f < typed.size(); ++f) {
            const std::string &level = compared.conditions[rail]->levels[effects.factors[f]];
            places.push_back(static_cast<std::size_t>(std::find(typed[f].begin(), typed[f].end(), level) -
                                                      typed[f].begin()));
        }
        cells.insert(places);
        for (const double value : compared.groups[rail].values)
            effects.values.push_back({value, places});
    }
    std::size_t combinations = 1;
    for (const std::vector<std::string> &levels : typed)
        combinations *= levels.size();
    const Result<FactorialAnova> anova = factorialAnova(
        effects.values, cells.size() == combinations ? SquaresType::Third : SquaresType::Second,
        comparison.claimConfidence());
    if (!anova || !hasCrossing(*anova) || !anova->residual.meanSquare || !(anova->residual.squares > 0.0))
        return std::nullopt;
    effects.anova = *anova;
    return effects;
}

std::vector<std::string> factorAnswers(const Study &study, const StudyComparison &comparison,
                                       const Notation &notation)
{
    const std::optional<FactorEffects> effects = factorEffects(study, comparison);
    return effects ? FactorWords(study, comparison, *effects, notation).sentences()
                   : std::vector<std::string>();
}

} // namespace inchpeg
