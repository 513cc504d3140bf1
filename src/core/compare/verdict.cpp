// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/verdict.h"

#include "core/compare/graded.h"
#include "core/compare/procedure_text.h"
#include "core/method/break_look.h"
#include "core/model/print_state.h"
#include "core/stats/distributions.h"
#include "core/text/list_text.h"
#include "core/text/number_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>

namespace inchpeg
{

namespace
{

std::string valueText(double value, const Unit &unit, int decimals, const Notation &notation)
{
    return withUnit(notation.fixed(unit.fromWorking(value), decimals), unit);
}

std::string piecesText(std::size_t n)
{
    return n == 1 ? "1 piece" : fmt::format("{} pieces", n);
}

/// How many pieces a rail's mean is of: "5 pieces", "a summary of 5".
std::string countText(const RailComparison &rail)
{
    if (!rail.told)
        return piecesText(rail.summary.n);
    return rail.told->pieces ? fmt::format("a summary of {}", *rail.told->pieces) : "a summary";
}

/// Both schools at once: beside a strength stands the plain breaking force.
std::string forceText(const Property &property, const RailComparison &rail, const Notation &notation)
{
    if (!property.name.ends_with("_strength") || !rail.breakingForce.mean)
        return {};
    return fmt::format(" · breaks {} {}", rail.bounds > 0 ? "above" : "at",
                       notation.quantity(*rail.breakingForce.mean, Dimension::Force, 3));
}

std::string meanText(const Property &property, const RailComparison &rail, const Notation &notation)
{
    const Summary &summary = rail.summary;
    if (property.scale == Scale::Word)
        return wordCounts(rail, property);
    if (!summary.mean)
        return {};
    if (property.scale == Scale::Ordinal)
        return *summary.min == *summary.max
                   ? "all " + gradeText(*summary.mean, notation)
                   : fmt::format("median {} ({} to {})", gradeText(*summary.mean, notation),
                                 gradeText(*summary.min, notation), gradeText(*summary.max, notation));
    const std::string_view atLeast = rail.bounds > 0 ? "at least " : "";
    const Unit unit = notation.unitOf(property.dimension);
    if (!summary.ci)
        return fmt::format("{}{}", atLeast, notation.quantity(*summary.mean, unit.dimension, 3));
    const int decimals = propertyDecimals(property, *summary.se, notation);
    if (rail.bounds > 0)
        return std::string(atLeast) + propertyValueText(property, *summary.mean, decimals, notation);
    return fmt::format("{} ({} to {})", propertyValueText(property, *summary.mean, decimals, notation),
                       notation.fixed(unit.fromWorking(summary.ci->low), decimals),
                       notation.fixed(unit.fromWorking(summary.ci->high), decimals));
}

/// One verdict at a time; holds what all sentences need.
class Wording
{
public:
    Wording(const Study &study, const StudyComparison &comparison, const RailComparison *reference,
            const Notation &notation)
        : m_study(study), m_comparison(comparison), m_reference(reference), m_notation(notation)
    {
    }

    RailVerdict verdict(const RailComparison &rail) const
    {
        RailVerdict out;
        out.condition = rail.condition;
        out.meanText = meanText(m_comparison.property, rail, m_notation) +
                       forceText(m_comparison.property, rail, m_notation);
        out.standing = standingOf(rail);
        out.isSmall = (out.standing == Standing::Higher || out.standing == Standing::Lower) && rail.effect &&
                      rail.effectBound == EffectBound::None && isWithinWhatMatters(*rail.effect);
        out.sentence = sentence(rail, out.standing) + toldText(rail) + apartText(rail) + leftOutText(rail) +
                       looksText(rail);
        out.shareSentence = shareSentence(rail);
        if (isDifferenceOf(out.standing))
            out.difference = signedAmount(rail);
        return out;
    }

private:
    [[nodiscard]] std::string referenceTitle() const
    {
        return m_reference == nullptr
                   ? "the reference"
                   : distinctTitle(m_study, *findCondition(m_study, m_reference->condition));
    }

    /// Percentages are of the reference: none of a temperature in °C, nor of a mean that is not above zero.
    [[nodiscard]] bool hasPercent() const
    {
        if (m_comparison.procedure)
            return m_comparison.asRatio;
        return m_comparison.asRatio && *m_reference->summary.mean > 0.0;
    }

    [[nodiscard]] Standing standingOf(const RailComparison &rail) const
    {
        if (rail.summary.n == 0)
            return Standing::NoResult;
        if (m_comparison.property.scale == Scale::Word)
            return Standing::Listed;
        if (rail.isReference)
            return rail.bounds > 0 ? Standing::Bound : Standing::Reference;
        if (m_reference == nullptr || m_reference->summary.n == 0)
            return Standing::NoResult;
        const Condition &own = *findCondition(m_study, rail.condition);
        if (own.orientation != findCondition(m_study, m_reference->condition)->orientation)
            return Standing::OtherKind;
        if (rail.kind != m_reference->kind && !rail.told && !m_reference->told)
            return Standing::OtherBreak;
        if (rail.bounds > 0 || m_reference->bounds > 0)
            return standingDespiteBounds(rail);
        if (isNeverTested(rail) || isNeverTested(*m_reference))
            return Standing::TooFew;
        if (rail.summary.n < 2 || m_reference->summary.n < 2 || (isPaired() && rail.pairs.size() < 2))
            return Standing::TooFew;
        if (isGrade())
            return standingOfGrades(rail);
        if (!rail.effect)
            return Standing::NoScatter;
        if (rail.effect->isClear())
            return rail.effect->t > 0.0 ? Standing::Higher : Standing::Lower;
        return isWithinWhatMatters(*rail.effect) ? Standing::Alike : Standing::NotToldApart;
    }

    /// Known from a summary without its scatter or its number of pieces.
    static bool isNeverTested(const RailComparison &rail) { return rail.told && !rail.told->canBeTested(); }

    /// Where the mean of a rail comes from that has no pieces here.
    static std::string toldText(const RailComparison &rail)
    {
        return rail.told ? fmt::format(" From a summary: {}.", rail.told->source) : std::string();
    }

    [[nodiscard]] bool isGrade() const { return m_comparison.property.scale == Scale::Ordinal; }

    [[nodiscard]] Standing standingOfGrades(const RailComparison &rail) const
    {
        if (!rail.grades || rail.grades->adjusted >= 1.0 - m_comparison.claimConfidence())
            return Standing::NotToldApart;
        return rail.grades->better > 0.5 ? Standing::Higher : Standing::Lower;
    }

    /// "Better graded than 210 °C: graded higher in 94 % of the pairs (median 4 against 2, 6 and 6 pieces)."
    [[nodiscard]] std::string gradeSentence(const RailComparison &rail, Standing standing) const
    {
        const PropertyWords &words = m_comparison.property.words;
        const auto median = [this](const RailComparison &one) {
            return gradeText(*one.summary.mean, m_notation);
        };
        const std::string medians =
            fmt::format("median {} against {}, {}", median(rail), median(*m_reference), counts(rail));
        if (!rail.grades)
            return fmt::format("Not told apart from {}: all are {} {} ({}).", referenceTitle(), words.ranked,
                               median(rail), counts(rail));
        const bool isLower = rail.grades->better < 0.5;
        const std::string pairs =
            fmt::format("{} {} in {} of the pairs ({})", words.ranked, isLower ? "lower" : "higher",
                        percent(isLower ? 1.0 - rail.grades->better : rail.grades->better), medians);
        if (standing != Standing::NotToldApart)
            return fmt::format("{} {} than {}: {}.", isLower ? "Worse" : "Better", words.ranked,
                               referenceTitle(), pairs);
        std::string text = fmt::format("Not told apart from {}: {}.", referenceTitle(), pairs);
        const auto compared = static_cast<std::size_t>(
            std::count_if(m_comparison.rails.begin(), m_comparison.rails.end(),
                          [](const RailComparison &one) { return one.grades.has_value(); }));
        const std::size_t least = leastGraded(compared, 1.0 - m_comparison.claimConfidence());
        if (std::min(rail.summary.n, m_reference->summary.n) < least)
            text += fmt::format(" Too few pieces: {} show nothing with fewer than {} on either rail.",
                                words.ranks, least);
        return text;
    }

    /// A bound says enough where what it leaves open lies on the same side as what it shows.
    [[nodiscard]] Standing standingDespiteBounds(const RailComparison &rail) const
    {
        if (rail.effect && rail.effect->isClear()) {
            if (rail.effectBound == EffectBound::AtLeast && rail.effect->t > 0.0)
                return Standing::Higher;
            if (rail.effectBound == EffectBound::AtMost && rail.effect->t < 0.0)
                return Standing::Lower;
        }
        const int side = sideWhateverTheBounds(rail);
        return side == 0 ? Standing::Bound : side > 0 ? Standing::Higher : Standing::Lower;
    }

    /// The least and the largest of the values that count, bounds at face value.
    static Interval rangeOf(const RailComparison &rail)
    {
        Interval range{std::numeric_limits<double>::infinity(), -std::numeric_limits<double>::infinity()};
        for (const PieceValue &value : rail.values) {
            if (!value.counts())
                continue;
            range.low = std::min(range.low, value.value);
            range.high = std::max(range.high, value.value);
        }
        return range;
    }

    /// Bounds lie above all values of the other rail, and so many pieces come to lie so by chance in fewer
    /// cases than the claim allows, all rails counted (all ways to deal out the ranks; Bonferroni).
    [[nodiscard]] int sideWhateverTheBounds(const RailComparison &rail) const
    {
        if (rail.told || m_reference->told)
            return 0; // where its single pieces lie is not known
        const bool isAbove =
            rail.bounds > 0 && m_reference->bounds == 0 && rangeOf(rail).low > rangeOf(*m_reference).high;
        const bool isBelow =
            rail.bounds == 0 && m_reference->bounds > 0 && rangeOf(rail).high < rangeOf(*m_reference).low;
        if (!isAbove && !isBelow)
            return 0;
        const auto n = static_cast<double>(rail.summary.n);
        const auto m = static_cast<double>(m_reference->summary.n);
        const double logWays = std::lgamma(n + m + 1.0) - std::lgamma(n + 1.0) - std::lgamma(m + 1.0);
        const auto rails = static_cast<double>(std::max<std::size_t>(2, m_comparison.rails.size())) - 1.0;
        if (2.0 * std::exp(-logWays) * rails > 1.0 - m_comparison.claimConfidence())
            return 0;
        return isAbove ? 1 : -1;
    }

    /// Whether effects are ratios; differences where a mean is not above zero.
    [[nodiscard]] bool isRatio() const { return m_comparison.asRatio; }

    [[nodiscard]] bool isWithinWhatMatters(const Effect &effect) const
    {
        const DifferenceThatMatters &matters = m_comparison.matters;
        if (isRatio())
            return effect.ci.low >= 1.0 - matters.share && effect.ci.high <= 1.0 + matters.share;
        return matters.absolute && effect.ci.low >= -*matters.absolute && effect.ci.high <= *matters.absolute;
    }

    /// Whether the difference of the means says something, surely or not.
    static bool isDifferenceOf(Standing standing)
    {
        constexpr Standing kKnown[] = {Standing::Higher,       Standing::Lower,  Standing::Alike,
                                       Standing::NotToldApart, Standing::TooFew, Standing::NoScatter};
        return std::find(std::begin(kKnown), std::end(kKnown), standing) != std::end(kKnown);
    }

    [[nodiscard]] std::string sentence(const RailComparison &rail, Standing standing) const
    {
        if (isGrade() && (standing == Standing::Higher || standing == Standing::Lower ||
                          standing == Standing::NotToldApart))
            return gradeSentence(rail, standing);
        switch (standing) {
        case Standing::Reference:
            return fmt::format("Reference: the others are measured against it ({}).", countText(rail));
        case Standing::NoResult:
            return noResult(rail);
        case Standing::Listed:
            return fmt::format("Seen: {} ({}).", wordCounts(rail, m_comparison.property),
                               piecesText(rail.summary.n));
        case Standing::TooFew:
            return tooFew(rail);
        case Standing::NoScatter:
            return noScatter(rail);
        case Standing::Bound:
            return bound(rail) + (rail.bounds == 0 ? " No difference to it is shown." : "");
        case Standing::OtherBreak:
            return fmt::format("Broke otherwise than {} ({} against {}): different kinds of break are not "
                               "compared ({}).",
                               referenceTitle(), kindText(rail.kind), kindText(m_reference->kind),
                               piecesText(rail.summary.n));
        case Standing::OtherKind:
            return fmt::format("Printed {}: shown beside the others, not tested against them ({}).",
                               orientationName(findCondition(m_study, rail.condition)->orientation),
                               countText(rail));
        case Standing::Higher:
        case Standing::Lower:
            return differs(rail, standing == Standing::Higher);
        case Standing::Alike:
            return fmt::format("As good as {} for this decision: {} ({}, {}), inside the {} that matters.",
                               referenceTitle(), signedAmount(rail), rangeText(rail, false), counts(rail),
                               whatMatters());
        case Standing::NotToldApart:
            return notToldApart(rail);
        }
        throw ContractViolation("unknown standing");
    }

    [[nodiscard]] std::string whatMatters() const
    {
        return differenceThatMattersText(m_comparison.matters, m_comparison.property, m_notation);
    }

    [[nodiscard]] std::string percent(double fraction) const { return m_notation.percent(fraction); }

    [[nodiscard]] bool isPaired() const { return familyOf(m_study) == Comparison::BeforeAfter; }

    [[nodiscard]] std::string counts(const RailComparison &rail) const
    {
        if (isPaired())
            return fmt::format("{} pairs", rail.pairs.size());
        if (rail.told || m_reference->told)
            return fmt::format("{} and {}", countText(rail), countText(*m_reference));
        return fmt::format("{} and {} pieces", rail.summary.n, m_reference->summary.n);
    }

    /// "18 %", or "0.05 %" of strain where no percentage of the reference makes sense; without a sign.
    [[nodiscard]] std::string amount(const RailComparison &rail) const
    {
        if (isRatio())
            return percent(rail.effect->estimate - 1.0);
        return differenceText(std::abs(rail.effect->estimate), rail);
    }

    [[nodiscard]] std::string differenceText(double difference, const RailComparison &rail) const
    {
        // By how far the difference is known, where it is: 14.5 K (12.7 K to 16.3 K), not 14.49 K.
        const double uncertainty =
            rail.effect && !isRatio() ? 0.5 * (rail.effect->ci.high - rail.effect->ci.low)
                                      : rail.summary.se.value_or(0.0) + m_reference->summary.se.value_or(0.0);
        const int decimals = propertyDecimals(m_comparison.property, uncertainty, m_notation);
        // "0.3 % more" would be taken for a share of the reference.
        if (m_comparison.property.dimension == Dimension::Ratio)
            return m_notation.fixed(100.0 * difference, decimals) + " percentage points";
        return propertyDifferenceText(m_comparison.property, difference, decimals, m_notation);
    }

    [[nodiscard]] std::string signedAmount(const RailComparison &rail) const
    {
        const double difference = *rail.summary.mean - *m_reference->summary.mean;
        if (isGrade())
            return fmt::format("median {}{}", difference < 0.0 ? "−" : "+",
                               gradeText(std::abs(difference), m_notation));
        const std::string_view side = rail.bounds > 0 && m_reference->bounds == 0   ? "≥ "
                                      : rail.bounds == 0 && m_reference->bounds > 0 ? "≤ "
                                                                                    : "";
        if (hasPercent())
            return std::string(side) + m_notation.signedPercent(difference / *m_reference->summary.mean);
        return fmt::format("{}{}{}", side, difference < 0.0 ? "−" : "+",
                           differenceText(std::abs(difference), rail));
    }

    /// The interval of the difference, of more or of less: "6 to 31 %".
    [[nodiscard]] std::string rangeText(const RailComparison &rail, bool asLess) const
    {
        const double none = isRatio() ? 1.0 : 0.0;
        const Interval ci{rail.effect->ci.low - none, rail.effect->ci.high - none};
        const Interval shown = asLess ? Interval{-ci.high, -ci.low} : ci;
        if (isRatio())
            return m_notation.percentRange(shown);
        const std::string low = differenceText(std::abs(shown.low), rail);
        return fmt::format("{}{} to {}{}", shown.low < 0.0 ? "−" : "", low, shown.high < 0.0 ? "−" : "",
                           differenceText(std::abs(shown.high), rail));
    }

    [[nodiscard]] std::string noResult(const RailComparison &rail) const
    {
        const auto leftOut = static_cast<std::size_t>(std::count_if(
            rail.values.begin(), rail.values.end(), [](const PieceValue &value) { return value.leftOut; }));
        if (rail.summary.n == 0 && rail.open == 0 && rail.unread == 0 && leftOut > 0)
            return fmt::format("No result: all that were broken are left out.");
        if (rail.told)
            return "The reference has no result yet: nothing to compare this summary with.";
        if (rail.summary.n > 0)
            return "The reference has no result yet: nothing to compare with.";
        if (rail.unread > 0)
            return fmt::format("No result: {} with a record that does not give this property.",
                               piecesText(rail.unread));
        return fmt::format("No result yet: {} to break.", piecesText(rail.open));
    }

    static std::string missingOf(const RailComparison &rail)
    {
        const bool hasScatter = rail.told->sd.has_value();
        const bool hasPieces = rail.told->pieces && *rail.told->pieces >= 2;
        return hasScatter ? "number of pieces" : hasPieces ? "scatter" : "scatter and number of pieces";
    }

    [[nodiscard]] std::string tooFew(const RailComparison &rail) const
    {
        if (isNeverTested(rail) || isNeverTested(*m_reference))
            return fmt::format("{} against {}, shown and not tested: {} is known without its {}.",
                               signedAmount(rail), referenceTitle(),
                               isNeverTested(rail) ? "this rail" : "the reference",
                               missingOf(isNeverTested(rail) ? rail : *m_reference));
        if (isPaired() && rail.summary.n >= 2 && m_reference->summary.n >= 2)
            return fmt::format("{} against {}, but {} with a value before and after: two pairs at least are "
                               "wanted.",
                               signedAmount(rail), referenceTitle(),
                               rail.pairs.empty() ? "no piece is there" : "only one piece is there");
        const bool own = rail.summary.n < 2;
        return fmt::format(
            "{} against {}, but {}one piece says nothing of scatter: break at least two more before "
            "calling it a difference.",
            signedAmount(rail), referenceTitle(), own ? "" : "the reference's ");
    }

    [[nodiscard]] std::string noScatter(const RailComparison &rail) const
    {
        return fmt::format(
            "{} against {} ({}), but the pieces of both rails read exactly alike: without any scatter "
            "no test can be made. Does the gauge resolve the difference between pieces?",
            signedAmount(rail), referenceTitle(), counts(rail));
    }

    [[nodiscard]] std::string bound(const RailComparison &rail) const
    {
        if (rail.bounds == 0 && m_reference->boundReason == BoundReason::Given)
            return "Values of the reference are given as at least so much: its true mean is higher.";
        if (rail.bounds == 0)
            return m_reference->unbroken == m_reference->bounds
                       ? "Pieces of the reference had not broken when their record ended: its true mean is "
                         "higher."
                       : "The reference ran out of the gauge's range: its true mean is higher.";
        if (rail.boundReason == BoundReason::NoBreak)
            return fmt::format("{} of {} did not break: they can take at least that; strike with a heavier "
                               "hammer, or notch the pieces.",
                               rail.bounds, piecesText(rail.summary.n));
        if (rail.boundReason == BoundReason::HeldDrop)
            return fmt::format(
                "{} of {} held the last drop: they can take at least that; {}.", rail.bounds,
                piecesText(rail.summary.n + rail.unread),
                rail.unread > 0 ? "the others failed at their only drop, so see above what half of them bear"
                                : "drop from higher");
        if (rail.boundReason == BoundReason::HeldStep)
            return fmt::format("{} of {} held the last step: they carry at least that; turn on.", rail.bounds,
                               piecesText(rail.summary.n));
        if (rail.boundReason == BoundReason::OtherPart)
            return fmt::format(
                "In {} of {} a screw or fixture gave way first: they carry at least that; take a "
                "stronger one.",
                rail.bounds, piecesText(rail.summary.n));
        if (rail.boundReason == BoundReason::Given)
            return fmt::format("{} of {} {} given as at least so much: the true mean is higher.", rail.bounds,
                               piecesText(rail.summary.n), rail.bounds == 1 ? "is" : "are");
        if (rail.boundReason == BoundReason::InService)
            return fmt::format("{} of {} still serve: their time is not over; it is at least that.",
                               rail.bounds, piecesText(rail.summary.n));
        if (rail.boundReason == BoundReason::NeverMoved)
            return fmt::format("{} of {} held still to the last load: they carry at least that; put on more.",
                               rail.bounds, piecesText(rail.summary.n));
        if (rail.unbroken == rail.bounds)
            return fmt::format(
                "{} of {} had not broken when the record ended: the true mean is higher; record until "
                "the break, or place the break by hand where it was.",
                rail.bounds, piecesText(rail.summary.n));
        return fmt::format(
            "{} of {} ran out of the gauge's range: the true mean is higher; use a larger gauge or a smaller "
            "section.",
            rail.bounds, piecesText(rail.summary.n));
    }

    /// "Holds at least 12 % more than 230 °C (surely 5 % or more, 5 and 6 pieces): 2 of 5 pieces …"
    [[nodiscard]] std::string differsAtLeast(const RailComparison &rail, bool higher) const
    {
        const PropertyWords &words = m_comparison.property.words;
        const std::string_view pattern = higher ? words.more : words.less;
        const double none = isRatio() ? 1.0 : 0.0;
        const double surely = std::abs((higher ? rail.effect->ci.low : rail.effect->ci.high) - none);
        std::string text = fmt::format(fmt::runtime(pattern), "at least " + amount(rail), referenceTitle());
        text += fmt::format(" (surely {} or more, {}).",
                            isRatio() ? percent(surely) : differenceText(surely, rail), counts(rail));
        return text + " " + bound(rail);
    }

    /// "Above 230 °C whatever the bounds are: 104 or more against 12 at most (5 and 5 pieces)."
    [[nodiscard]] std::string apartWhateverTheBounds(const RailComparison &rail, bool higher) const
    {
        const Interval own = rangeOf(rail);
        const Interval other = rangeOf(*m_reference);
        const double low = higher ? own.low : other.low;
        const double high = higher ? other.high : own.high;
        const int decimals = propertyDecimals(m_comparison.property, (low - high) / 10.0, m_notation);
        const auto value = [&](double one) {
            return propertyValueText(m_comparison.property, one, decimals, m_notation);
        };
        return fmt::format("{} {} whatever the bounds are: {} ({}). {}", higher ? "Above" : "Below",
                           referenceTitle(),
                           higher ? fmt::format("{} or more against {} at most", value(low), value(high))
                                  : fmt::format("{} at most against {} or more", value(high), value(low)),
                           counts(rail), bound(rail));
    }

    [[nodiscard]] std::string differs(const RailComparison &rail, bool higher) const
    {
        if (rail.effectBound != EffectBound::None && rail.effect && rail.effect->isClear())
            return differsAtLeast(rail, higher);
        if (rail.bounds > 0 || m_reference->bounds > 0)
            return apartWhateverTheBounds(rail, higher);
        const PropertyWords &words = m_comparison.property.words;
        const std::string_view pattern = higher ? words.more : words.less;
        std::string text = fmt::format(fmt::runtime(pattern), amount(rail), referenceTitle());
        text += fmt::format(" ({}, {}).", rangeText(rail, !higher), counts(rail));
        if (isWithinWhatMatters(*rail.effect))
            text += fmt::format(" Real, but smaller than the {} that matters.", whatMatters());
        return text;
    }

    [[nodiscard]] std::string notToldApart(const RailComparison &rail) const
    {
        std::string text = fmt::format("Not told apart from {}: {} ({}, {}).", referenceTitle(),
                                       signedAmount(rail), rangeText(rail, false), counts(rail));
        if (studentTwoSided(rail.effect->t, rail.effect->df) <= 1.0 - m_comparison.confidence)
            text += m_comparison.look
                        ? " Clear by itself, but not once all comparisons and looks are counted."
                        : " Clear by itself, but not once all comparisons are counted.";
        else if (!rail.told && rail.detectable && *rail.detectable > m_comparison.matters.share)
            text += fmt::format(" Too few pieces: these could only have shown {} or more.",
                                percent(*rail.detectable));
        return text;
    }

    static std::string kindText(const std::string &kind) { return kind.empty() ? "not said how" : kind; }

    static std::string apartText(const RailComparison &rail)
    {
        return rail.apart == 0 ? std::string()
                               : fmt::format(" Kept apart: {} that broke otherwise than most here ({}).",
                                             piecesText(rail.apart), kindText(rail.kind));
    }

    /// "Breaks: 4 one plane, 2 torn through." of the pieces that count.
    [[nodiscard]] std::string looksText(const RailComparison &rail) const
    {
        BreakLookCounts counts;
        for (const PieceValue &value : rail.values) {
            const BreakLook *look = findBreakLook(findPiece(m_study, value.piece)->log.breakLook);
            if (look != nullptr && value.counts())
                countBreakLook(counts, *look);
        }
        std::string text;
        for (const auto &[look, count] : counts)
            text += fmt::format("{}{} {}", text.empty() ? " Breaks: " : ", ", count, look->label);
        return text.empty() ? text : text + ".";
    }

    static std::string leftOutText(const RailComparison &rail)
    {
        const auto leftOut = static_cast<std::size_t>(std::count_if(
            rail.values.begin(), rail.values.end(), [](const PieceValue &value) { return value.leftOut; }));
        return leftOut == 0 ? std::string() : fmt::format(" Left out: {}.", piecesText(leftOut));
    }

    [[nodiscard]] std::string shareSentence(const RailComparison &rail) const
    {
        if (!rail.flatRail)
            return {};
        const std::string flat =
            rail.flatRailDiffers ? fmt::format("flat-printed at {}",
                                               levelText(m_study, *findCondition(m_study, *rail.flatRail)))
                                 : "flat-printed";
        if (!rail.shareOfFlat)
            return fmt::format("Share of {}: not enough pieces to say.", flat);
        if (!rail.shareOfFlat->ci)
            return fmt::format("Keeps {} of {} (no bounded interval).", percent(rail.shareOfFlat->value),
                               flat);
        return fmt::format("Keeps {} of {} ({}).", percent(rail.shareOfFlat->value), flat,
                           m_notation.percentRange(*rail.shareOfFlat->ci));
    }

    const Study &m_study;
    const StudyComparison &m_comparison;
    const RailComparison *m_reference;
    const Notation &m_notation;
};

/// Plates that the pieces of a rail which count were printed on; empty where it is not known of one of them.
std::set<int> platesOfRail(const Study &study, const RailComparison &rail)
{
    std::set<int> plates;
    for (const PieceValue &value : rail.values) {
        if (!value.counts())
            continue;
        const std::vector<int> printed = platesOf(study, value.piece);
        if (printed.empty())
            return {};
        plates.insert(printed.back());
    }
    return plates;
}

/// Pieces of one plate share what that plate had: where a rail that is claimed to differ shares no plate with
/// the reference, the difference is one of plates too, and the claim says so itself.
std::string platesText(const Study &study, const StudyComparison &comparison, const StudyVerdict &verdict)
{
    std::set<int> reference;
    for (const RailComparison &rail : comparison.rails) {
        if (rail.isReference)
            reference = platesOfRail(study, rail);
    }
    if (reference.empty())
        return {};
    std::size_t fewest = reference.size();
    std::size_t claimed = 0;
    std::vector<std::string> apart;
    for (std::size_t i = 0; i < comparison.rails.size(); ++i) {
        const Standing standing = verdict.rails[i].standing;
        if (standing != Standing::Higher && standing != Standing::Lower)
            continue;
        ++claimed;
        const std::set<int> plates = platesOfRail(study, comparison.rails[i]);
        const bool sharesOne =
            std::any_of(plates.begin(), plates.end(), [&](int plate) { return reference.contains(plate); });
        if (plates.empty() || sharesOne)
            continue;
        apart.push_back(distinctTitle(study, *findCondition(study, comparison.rails[i].condition)));
        fewest = std::min(fewest, plates.size());
    }
    if (apart.empty())
        return {};
    const bool isEach = apart.size() == claimed;
    const bool areSeveral = !isEach && apart.size() > 1;
    const std::string were = isEach       ? "Each was"
                             : areSeveral ? listText(apart) + " were each"
                                          : apart.front() + " was";
    const std::string_view own = areSeveral ? "their" : "its";
    return fewest == 1
               ? fmt::format(" {} printed on one plate of {} own: this is a difference of plates too.", were,
                             own)
               : fmt::format(" {} printed on plates of {} own, {} or more: part of the difference may be the "
                             "plates'.",
                             were, own, fewest);
}

std::string headlineOf(const Study &study, const StudyComparison &comparison, const StudyVerdict &verdict)
{
    std::vector<std::string> higher;
    std::vector<std::string> lower;
    std::vector<std::string> small;
    std::vector<std::string> alike;
    std::size_t compared = 0;
    bool anyResult = false;
    bool anyWithoutScatter = false;
    for (const RailVerdict &rail : verdict.rails) {
        const std::string title = distinctTitle(study, *findCondition(study, rail.condition));
        anyResult = anyResult || !rail.meanText.empty();
        if (rail.isSmall)
            small.push_back(title);
        else if (rail.standing == Standing::Alike)
            alike.push_back(title);
        else if (rail.standing == Standing::Higher)
            higher.push_back(title);
        else if (rail.standing == Standing::Lower)
            lower.push_back(title);
        anyWithoutScatter = anyWithoutScatter || rail.standing == Standing::NoScatter;
        const bool tested = rail.standing == Standing::Higher || rail.standing == Standing::Lower ||
                            rail.standing == Standing::Alike || rail.standing == Standing::NotToldApart;
        compared += tested ? 1U : 0U;
    }
    if (!anyResult)
        return "Nothing has been broken yet.";
    if (comparison.property.scale == Scale::Word)
        return fmt::format("{}: listed as it was seen. Words are counted, not averaged and not rated.",
                           comparison.property.label);
    const auto reference =
        std::find_if(verdict.rails.begin(), verdict.rails.end(),
                     [&](const RailVerdict &rail) { return rail.condition == study.reference; });
    if (compared == 0 && reference != verdict.rails.end() && reference->standing == Standing::Bound) {
        const bool isCounted =
            std::any_of(comparison.rails.begin(), comparison.rails.end(),
                        [](const RailComparison &rail) { return rail.countingBounds.has_value(); });
        return isCounted
                   ? "Values of the reference are lower bounds: what can be said counts each bound as one."
                   : "Nothing can be compared: values of the reference are lower bounds.";
    }
    if (compared == 0 && anyWithoutScatter)
        return "Nothing can be compared: the pieces of a rail read exactly alike.";
    if (compared == 0)
        return "Nothing can be compared yet: at least two pieces are wanted on the reference and on another "
               "rail.";
    const std::string referenceTitle = distinctTitle(study, *findCondition(study, study.reference));
    const std::string label(comparison.property.label);
    std::string text;
    if (!higher.empty())
        text += fmt::format("{}: {} above {}", label, listText(higher), referenceTitle);
    if (!lower.empty())
        text += text.empty() ? fmt::format("{}: {} below {}", label, listText(lower), referenceTitle)
                             : fmt::format(", {} below", listText(lower));
    const Better better = comparison.property.better;
    if (!text.empty() && better != Better::Neither)
        text += better == Better::Higher ? " (above is better)" : " (below is better)";
    if (text.empty() && (!small.empty() || !alike.empty()))
        text = fmt::format("{}: no difference that matters to {}", label, referenceTitle);
    if (text.empty())
        text = fmt::format("{}: no rail is told apart from {}", label, referenceTitle);
    if (!small.empty())
        text += fmt::format("; {} {}, by less than matters", listText(small),
                            small.size() == 1 ? "differs" : "differ");
    if (!alike.empty())
        text += fmt::format("; {} as good for this decision", listText(alike));
    const auto bounded = static_cast<std::size_t>(
        std::count_if(verdict.rails.begin(), verdict.rails.end(), [](const RailVerdict &rail) {
            return rail.standing == Standing::Bound || rail.standing == Standing::TooFew ||
                   rail.standing == Standing::OtherBreak || rail.standing == Standing::NoScatter;
        }));
    const std::size_t rest = compared - higher.size() - lower.size() - small.size() - alike.size();
    if (rest > 0 && rest < compared)
        text += fmt::format("; {} not told apart", rest == 1 ? "1 rail" : fmt::format("{} rails", rest));
    if (bounded > 0)
        text += fmt::format("; {} cannot be compared",
                            bounded == 1 ? "1 rail" : fmt::format("{} rails", bounded));
    return text + "." + platesText(study, comparison, verdict);
}

} // namespace

int propertyDecimals(const Property &property, double uncertainty, const Notation &notation)
{
    return decimalsFor(uncertainty / notation.unitOf(property.dimension).factor);
}

std::string propertyValueText(const Property &property, double value, int decimals, const Notation &notation)
{
    return valueText(value, notation.unitOf(property.dimension), decimals, notation);
}

std::string propertyDifferenceText(const Property &property, double difference, int decimals,
                                   const Notation &notation)
{
    return valueText(difference, notation.unitOf(differenceOf(property.dimension)), decimals, notation);
}

StudyVerdict verdictOf(const Study &study, const StudyComparison &comparison, const Notation &notation)
{
    const auto reference = std::find_if(comparison.rails.begin(), comparison.rails.end(),
                                        [](const RailComparison &rail) { return rail.isReference; });
    const Wording wording(study, comparison, reference == comparison.rails.end() ? nullptr : &*reference,
                          notation);
    StudyVerdict verdict;
    for (const RailComparison &rail : comparison.rails)
        verdict.rails.push_back(wording.verdict(rail));
    verdict.headline = headlineOf(study, comparison, verdict);
    verdict.procedure = procedureText(comparison, notation);
    return verdict;
}

} // namespace inchpeg
