// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/procedure_text.h"

#include "core/compare/verdict.h"

#include <fmt/format.h>

#include <algorithm>
#include <limits>

namespace inchpeg
{

namespace
{

std::string familyText(const ComparisonProcedure &procedure, const std::string &confidence)
{
    const bool own = procedure.spread == Spread::Own;
    if (procedure.rails == 2)
        return fmt::format("the {} interval is {}", confidence, own ? "Welch's" : "Student's");
    if (procedure.comparison == Comparison::AllPairs)
        return fmt::format("the {} intervals hold together, {}", confidence,
                           own ? "by Games and Howell" : "by Tukey, each rail with each");
    return fmt::format("the {} intervals hold together, by {}", confidence,
                       own ? "Dunnett with Satterthwaite's degrees of freedom" : "Dunnett");
}

/// "each by itself 2.1 to 9.8 %": whether to believe that they scatter alike.
std::string ownScatterText(const StudyComparison &comparison, const Notation &notation)
{
    const bool asRatio = comparison.procedure->asRatio;
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

} // namespace

std::string confidenceText(double confidence, const Notation &notation)
{
    return notation.plain(100.0 * confidence) + " %";
}

std::string procedureText(const StudyComparison &comparison, const Notation &notation)
{
    if (!comparison.procedure)
        return {};
    const ComparisonProcedure &procedure = *comparison.procedure;
    const std::string scatter =
        procedure.asRatio
            ? notation.percent(procedure.scatter) + " of their mean"
            : propertyDifferenceText(comparison.property, procedure.scatter,
                                     propertyDecimals(comparison.property, procedure.scatter, notation),
                                     notation);
    const std::string taken =
        procedure.spread == Spread::Common
            ? fmt::format(
                  "the pieces of {} rails are taken to scatter alike, by {} ({}, {:.0f} degrees of freedom)",
                  procedure.rails, scatter, ownScatterText(comparison, notation), procedure.df)
            : fmt::format(
                  "the rails scatter differently (Bartlett, p {}), so each counts with its own scatter",
                  notation.significant(*procedure.spreadP, 2));
    return fmt::format("{} of means; {}; {}.", procedure.asRatio ? "Ratios" : "Differences", taken,
                       familyText(procedure, confidenceText(comparison.confidence, notation)));
}

} // namespace inchpeg
