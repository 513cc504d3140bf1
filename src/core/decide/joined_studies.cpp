// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/decide/joined_studies.h"

#include "core/decide/same_load.h"
#include "core/stats/distributions.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace inchpeg
{

namespace
{

constexpr double kJoinConfidence = 0.95;
constexpr std::size_t kMostJoinedRails = 6; ///< named of another study

/// What a rail was printed with, as far as its study says: levels, and what was held on all rails.
std::map<std::string, std::string> settingsOf(const Study &study, const Condition &condition)
{
    std::map<std::string, std::string> settings;
    for (const LockedSetting &setting : study.plan.locked)
        settings[setting.name] = setting.value;
    for (std::size_t i = 0; i < study.factors.size() && i < condition.levels.size(); ++i)
        settings[study.factors[i].name] = levelText(study.factors[i], condition.levels[i]);
    return settings;
}

/// Values of a rail as a mean with what it brings to a ratio's variance.
struct RailMean {
    double log = 0.0;
    double variance = 0.0; ///< of the logarithm: (cv)² / n
    double df = 0.0;
};

std::optional<RailMean> meanOfRail(const RailValues &rail)
{
    if (rail.bounds > 0 || rail.n < 2 || rail.mean <= 0.0 || !rail.sd || !(*rail.sd > 0.0))
        return std::nullopt;
    const double cv = *rail.sd / rail.mean;
    return RailMean{std::log(rail.mean), cv * cv / static_cast<double>(rail.n),
                    static_cast<double>(rail.n) - 1.0};
}

std::optional<RailMean> meanOfRail(const RailComparison &rail)
{
    const Summary &summary = rail.summary;
    return rail.told || !summary.mean
               ? std::nullopt
               : meanOfRail(RailValues{rail.condition, summary.n, *summary.mean, summary.sd, rail.bounds});
}

/// A product of means and their reciprocals with its interval: signs tell which.
Estimate ratioAlong(const std::vector<std::pair<RailMean, double>> &way)
{
    double log = 0.0;
    double variance = 0.0;
    double squares = 0.0; // of the variances over their degrees of freedom: Satterthwaite
    for (const auto &[mean, sign] : way) {
        log += sign * mean.log;
        variance += mean.variance;
        squares += mean.variance * mean.variance / mean.df;
    }
    const double half =
        studentQuantile(0.5 + kJoinConfidence / 2.0, variance * variance / squares) * std::sqrt(variance);
    return {std::exp(log), Interval{std::exp(log - half), std::exp(log + half)}};
}

class Joiner
{
public:
    Joiner(const Study &here, const StudyComparison &comparison, const StudyResults &there,
           std::span<const RailValues> other, const Notation &notation)
        : m_here(here), m_comparison(comparison), m_there(*there.study), m_other(other), m_notation(notation)
    {
    }

    [[nodiscard]] std::string sentence() const
    {
        const auto [own, theirs] = shared();
        if (own == nullptr)
            return {};
        const std::optional<RailMean> ownMean = meanOfRail(*own);
        const std::optional<RailMean> theirMean = meanOfRail(*theirs);
        const Estimate apart = ratioAlong({{*theirMean, 1.0}, {*ownMean, -1.0}});
        const bool isAlike = apart.ci->low <= 1.0 && apart.ci->high >= 1.0;
        const Condition &condition = *findCondition(m_here, own->condition);
        const std::string title = distinctTitle(m_here, condition);
        std::string text = fmt::format(
            "Joined by {} with \"{}\": there {} beside here ({}), {} and {} pieces{}.", title,
            m_there.question, m_notation.signedPercent(apart.value - 1.0), rangeText(apart), theirs->n,
            own->summary.n,
            isAlike ? "" : "; they are told apart, so the two are no one series and nothing else is joined");
        text += heldOtherwise(condition, *findCondition(m_there, theirs->condition));
        return isAlike ? text + others(*own, *theirs) : text;
    }

private:
    using Pair = std::pair<const RailComparison *, const RailValues *>;

    /// The reference, where it is shared, else the first that is.
    [[nodiscard]] Pair shared() const
    {
        Pair found{nullptr, nullptr};
        for (const RailComparison &own : m_comparison.rails) {
            for (const RailValues &theirs : m_other) {
                if (!meanOfRail(own) || !meanOfRail(theirs) || !isSame(own.condition, theirs.condition))
                    continue;
                if (found.first == nullptr || own.isReference)
                    found = {&own, &theirs};
            }
        }
        return found;
    }

    /// Of the same material and orientation, and of the same level wherever one study varies what the other
    /// says.
    [[nodiscard]] bool isSame(ConditionId own, ConditionId theirs) const
    {
        const Condition &here = *findCondition(m_here, own);
        const Condition &there = *findCondition(m_there, theirs);
        if (here.material != there.material || here.orientation != there.orientation)
            return false;
        const std::map<std::string, std::string> ownSettings = settingsOf(m_here, here);
        const std::map<std::string, std::string> theirSettings = settingsOf(m_there, there);
        std::size_t agreeing = 0;
        for (const std::vector<Factor> *factors : {&m_here.factors, &m_there.factors}) {
            for (const Factor &factor : *factors) {
                const auto mine = ownSettings.find(factor.name);
                const auto other = theirSettings.find(factor.name);
                if (mine == ownSettings.end() || other == theirSettings.end())
                    continue;
                if (mine->second != other->second)
                    return false;
                ++agreeing;
            }
        }
        return agreeing > 0;
    }

    [[nodiscard]] std::string heldOtherwise(const Condition &here, const Condition &there) const
    {
        const std::map<std::string, std::string> own = settingsOf(m_here, here);
        const std::map<std::string, std::string> theirs = settingsOf(m_there, there);
        std::vector<std::string> differences;
        for (const auto &[name, value] : own) {
            const auto other = theirs.find(name);
            if (other == theirs.end())
                differences.push_back(fmt::format("{} {} here, not said there", name, value));
            else if (other->second != value)
                differences.push_back(fmt::format("{} {} here, {} there", name, value, other->second));
        }
        for (const auto &[name, value] : theirs) {
            if (!own.contains(name))
                differences.push_back(fmt::format("{} {} there, not said here", name, value));
        }
        return differences.empty() ? " No setting that is said differs."
                                   : fmt::format(" Held otherwise: {}.", fmt::join(differences, "; "));
    }

    /// Their other rails beside the reference here.
    [[nodiscard]] std::string others(const RailComparison &own, const RailValues &theirs) const
    {
        const RailComparison *reference = nullptr;
        for (const RailComparison &rail : m_comparison.rails) {
            if (rail.isReference && meanOfRail(rail))
                reference = &rail;
        }
        std::vector<std::string> told;
        std::size_t more = 0;
        for (const RailValues &rail : m_other) {
            const std::optional<RailMean> mean = meanOfRail(rail);
            if (reference == nullptr || &rail == &theirs || !mean || isKnownHere(rail.condition) ||
                findCondition(m_there, rail.condition)->orientation !=
                    findCondition(m_here, reference->condition)->orientation)
                continue;
            if (told.size() == kMostJoinedRails) {
                ++more;
                continue;
            }
            std::vector<std::pair<RailMean, double>> way{{*mean, 1.0}, {*meanOfRail(theirs), -1.0}};
            if (!own.isReference) {
                way.emplace_back(*meanOfRail(own), 1.0);
                way.emplace_back(*meanOfRail(*reference), -1.0);
            }
            const Estimate beside = ratioAlong(way);
            told.push_back(fmt::format("{} {} ({})",
                                       distinctTitle(m_there, *findCondition(m_there, rail.condition)),
                                       m_notation.signedPercent(beside.value - 1.0), rangeText(beside)));
        }
        if (told.empty())
            return {};
        return fmt::format(" By way of it, beside {}, each by itself: {}{}.",
                           distinctTitle(m_here, *findCondition(m_here, reference->condition)),
                           fmt::join(told, "; "),
                           more > 0 ? fmt::format("; and {} more", more) : std::string());
    }

    /// Whether this study has that rail itself.
    [[nodiscard]] bool isKnownHere(ConditionId theirs) const
    {
        return std::any_of(m_comparison.rails.begin(), m_comparison.rails.end(),
                           [&](const RailComparison &own) { return isSame(own.condition, theirs); });
    }

    [[nodiscard]] std::string rangeText(const Estimate &ratio) const
    {
        return m_notation.percentRange({ratio.ci->low - 1.0, ratio.ci->high - 1.0});
    }

    const Study &m_here;
    const StudyComparison &m_comparison;
    const Study &m_there;
    std::span<const RailValues> m_other;
    const Notation &m_notation;
};

} // namespace

std::vector<std::string> joinedStudies(const Study &study, const StudyComparison &comparison, Method test,
                                       std::span<const StudyResults> all, const Notation &notation)
{
    std::vector<std::string> sentences;
    if (!comparison.asRatio || !hasMean(comparison.property))
        return sentences;
    for (const StudyResults &results : all) {
        const Study &other = *results.study;
        const StudyTest *planned = findTest(other, test);
        const bool isItself = other.id == study.id && !results.isOfLibrary;
        if (isItself || planned == nullptr ||
            (isReadUnderLoad(test) &&
             !isSameLoad(planned->setup.stress_MPa, findTest(study, test)->setup.stress_MPa)))
            continue;
        const std::vector<RailValues> theirs = results.railValues(test, comparison.property);
        if (std::string sentence = Joiner(study, comparison, results, theirs, notation).sentence();
            !sentence.empty())
            sentences.push_back(std::move(sentence));
    }
    return sentences;
}

} // namespace inchpeg
