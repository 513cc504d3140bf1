// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/procedure_text.h"

#include "core/compare/verdict.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace inchpeg
{

namespace
{

std::string familyText(const ComparisonProcedure &procedure, const std::string &confidence)
{
    const bool own = procedure.spread != Spread::Common;
    if (procedure.rails == 2)
        return fmt::format("the {} interval is {}", confidence, own ? "Welch's" : "Student's");
    if (procedure.comparison == Comparison::AllPairs)
        return fmt::format("the {} intervals hold together, {}", confidence,
                           own ? "by Tukey's range at Satterthwaite's degrees of freedom, each rail with each"
                               : "by Tukey, each rail with each");
    return fmt::format("the {} intervals hold together, by {}", confidence,
                       own ? "Dunnett with Satterthwaite's degrees of freedom" : "Dunnett");
}

/// To two digits of what is left to certainty: "99.87 %".
std::string claimText(double confidence, const Notation &notation)
{
    const double decimals = 1.0 - std::floor(std::log10(100.0 * (1.0 - confidence)));
    return notation.fixed(100.0 * confidence, std::max(0, static_cast<int>(decimals))) + " %";
}

std::string_view spendingWords(Spending spending)
{
    return spending == Spending::OBrienFleming ? "strict at first" : "alike at each look";
}

/// "each by itself 2.1 to 9.8 %": whether to believe that they scatter alike.
std::string ownScatterText(const StudyComparison &comparison, const Notation &notation)
{
    const bool asRatio = comparison.asRatio;
    double least = std::numeric_limits<double>::infinity();
    double most = 0.0;
    for (const RailComparison &rail : comparison.rails) {
        const std::optional<double> &scatter = asRatio ? rail.summary.cv : rail.summary.sd;
        if (!scatter || rail.bounds > 0 || !(rail.effect || rail.isReference))
            continue;
        least = std::min(least, *scatter);
        most = std::max(most, *scatter);
    }
    const auto text = [&](double scatter) {
        return asRatio ? notation.percent(scatter)
                       : propertyDifferenceText(comparison.property, scatter,
                                                propertyDecimals(comparison.property, scatter, notation),
                                                notation);
    };
    return fmt::format("each by itself {} to {}", text(least), text(most));
}

std::string pairedText(const StudyComparison &comparison, const Notation &notation)
{
    const ComparisonProcedure &procedure = *comparison.procedure;
    const std::string scatter =
        comparison.asRatio
            ? notation.percent(procedure.scatter)
            : propertyDifferenceText(comparison.property, procedure.scatter,
                                     propertyDecimals(comparison.property, procedure.scatter, notation),
                                     notation);
    return fmt::format(
        "{} piece by piece, each with the one of the reference that has its place on the rail; "
        "these scatter by {}; the {} interval{}.",
        comparison.asRatio ? "Ratios" : "Differences", scatter,
        confidenceText(comparison.claimConfidence(), notation),
        procedure.rails == 2 ? " is Student's for pairs"
                             : "s hold together, Student's for pairs by Bonferroni");
}

} // namespace

std::string confidenceText(double confidence, const Notation &notation)
{
    return notation.plain(100.0 * confidence) + " %";
}

namespace
{

/// " 12 of 15 values were given without their records."
std::string givenValuesText(const StudyComparison &comparison)
{
    std::size_t given = 0;
    std::size_t all = 0;
    for (const RailComparison &rail : comparison.rails) {
        given += rail.given;
        all += rail.told ? 0 : rail.summary.n;
    }
    if (given == 0)
        return {};
    return given == all ? std::string(" All values were given without their records.")
                        : fmt::format(" {} of {} values were given without their records.", given, all);
}

} // namespace

std::string procedureText(const StudyComparison &comparison, const Notation &notation)
{
    if (!comparison.procedure)
        return {};
    const ComparisonProcedure &procedure = *comparison.procedure;
    if (procedure.comparison == Comparison::BeforeAfter)
        return pairedText(comparison, notation);
    const std::string scatter =
        comparison.asRatio
            ? notation.percent(procedure.scatter) + " of their mean"
            : propertyDifferenceText(comparison.property, procedure.scatter,
                                     propertyDecimals(comparison.property, procedure.scatter, notation),
                                     notation);
    const auto taken = [&]() -> std::string {
        if (procedure.spread == Spread::Common)
            return fmt::format(
                "the pieces of {} rails are taken to scatter alike, by {} ({}, {:.0f} degrees of freedom)",
                procedure.rails, scatter, ownScatterText(comparison, notation), procedure.df);
        if (procedure.spread == Spread::Moderated)
            return fmt::format(
                "each of {} rails counts with its own scatter, drawn a little towards that of all, {} ({})",
                procedure.rails, scatter, ownScatterText(comparison, notation));
        if (procedure.isOwnBySizes)
            return "the rails have uneven numbers of pieces, so each counts with its own scatter";
        if (procedure.rails == 2)
            return fmt::format("each rail counts with its own scatter ({})",
                               ownScatterText(comparison, notation));
        return fmt::format(
            "the rails scatter differently (Bartlett, p {}), so each counts with its own scatter",
            notation.significant(*procedure.spreadP, 2));
    }();
    const std::string looks =
        comparison.look
            ? fmt::format(" Looked at as pieces break ({}): with {} of {} a rail a difference counts beyond "
                          "{}, so that all looks together keep the {}.",
                          spendingWords(comparison.look->spending), comparison.look->pieces,
                          comparison.look->planned, claimText(comparison.askedConfidence(), notation),
                          confidenceText(comparison.confidence, notation))
            : std::string();
    const std::string heldBack =
        comparison.isHeldBack
            ? fmt::format(" No trend is shown, nor that any rail differs: beside the trend, at {}, anything "
                          "else counts beyond {} alone, so that all sentences together keep the level.",
                          claimText(comparison.askedConfidence(), notation),
                          claimText(comparison.claimConfidence(), notation))
            : std::string();
    return fmt::format("{} of means; {}; {}.{}{}", comparison.asRatio ? "Ratios" : "Differences", taken,
                       familyText(procedure, comparison.look || comparison.isHeldBack
                                                 ? claimText(comparison.claimConfidence(), notation)
                                                 : confidenceText(comparison.confidence, notation)),
                       looks, heldBack) +
           givenValuesText(comparison);
}

} // namespace inchpeg
