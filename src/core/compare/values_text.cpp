// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/values_text.h"

#include "core/compare/comparison_graphs.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

std::string numberOr(const std::optional<double> &number)
{
    return number ? fmt::format("{}", *number) : std::string();
}

} // namespace

std::string valuesText(const Study &study, const StudyComparison &comparison, const Notation &notation)
{
    const Unit unit = notation.unitOf(comparison.property.dimension);
    const bool asRatio = comparison.asRatio;
    const auto shown = [&](double effect) { return asRatio ? effect : effect / unit.factor; };
    std::string text =
        fmt::format("rail\tpiece\t{}\tbound\tcounts\t{} beside the reference\tlow\thigh\n",
                    axisLabel(comparison.property, notation), asRatio ? "ratio" : "difference");
    for (const RailComparison &rail : comparison.rails) {
        const std::string effect = rail.effect
                                       ? fmt::format("{}\t{}\t{}", shown(rail.effect->estimate),
                                                     shown(rail.effect->ci.low), shown(rail.effect->ci.high))
                                       : std::string("\t\t");
        const std::string title = distinctTitle(study, *findCondition(study, rail.condition));
        for (const PieceValue &value : rail.values)
            text += fmt::format("{}\t{}\t{}\t{}\t{}\t{}\n", title, findPiece(study, value.piece)->code,
                                unit.fromWorking(value.value), value.atLeast ? "at least" : "",
                                value.leftOut   ? "left out"
                                : value.isApart ? "broke otherwise"
                                                : "yes",
                                effect);
    }
    return text;
}

std::string responsesText(const Study &study, const std::vector<ResponseColumn> &table,
                          const Notation &notation)
{
    std::string text = "rail\ttest\tresponse\tunit\tmean\tlow\thigh\tn\tsentence\n";
    for (const ResponseColumn &column : table) {
        const Unit unit = notation.unitOf(column.response.property.dimension);
        const auto shown = [&](const std::optional<double> &value) {
            return value ? std::optional(unit.fromWorking(*value)) : std::nullopt;
        };
        for (const ResponseCell &cell : column.cells) {
            const auto n = std::count_if(cell.values.begin(), cell.values.end(),
                                         [](const PieceValue &value) { return value.counts(); });
            const bool hasInterval = cell.interval.has_value();
            text += fmt::format(
                "{}\t{}\t{}\t{}\t{}\t{}\t{}\t{}\t{}\n",
                distinctTitle(study, *findCondition(study, cell.verdict.condition)),
                methodName(column.response.test), column.response.property.label, column.unit,
                numberOr(shown(cell.mean)), numberOr(hasInterval ? shown(cell.interval->low) : std::nullopt),
                numberOr(hasInterval ? shown(cell.interval->high) : std::nullopt), n, cell.verdict.sentence);
        }
    }
    return text;
}

} // namespace inchpeg
