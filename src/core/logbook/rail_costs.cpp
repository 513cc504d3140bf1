// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/rail_costs.h"

#include "core/logbook/measuring.h"
#include "core/planning/print_estimate.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

std::optional<double> weighed_g(const Study &study, ConditionId condition, Method test)
{
    double sum = 0.0;
    double count = 0.0;
    for (const Piece *piece : piecesOf(study, condition)) {
        const std::optional<double> mass_g = correctedMass_g(piece->log);
        if (piece->test != test || piece->exclusion || !mass_g)
            continue;
        sum += *mass_g;
        count += 1.0;
    }
    return count > 0.0 ? std::optional(sum / count) : std::nullopt;
}

} // namespace

std::vector<RailCost> railCosts(const Study &study, Method test, CostKind kind, const Workshop &workshop)
{
    const std::vector<PlannedTest> tests = plannedTests(study);
    const auto planned = std::find_if(tests.begin(), tests.end(),
                                      [test](const PlannedTest &one) { return one.method == test; });
    std::vector<RailCost> costs;
    for (const Condition &condition : study.conditions) {
        if (planned == tests.end())
            break;
        const PieceEstimate estimate = estimatePiece(study, *planned, condition, workshop);
        const std::optional<double> weighed = weighed_g(study, condition.id, test);
        const double grams = weighed.value_or(estimate.grams);
        const PrintCost all = costOf(study, condition, workshop);
        if (kind == CostKind::Price && !(all.money > 0.0 && all.grams > 0.0))
            continue;
        costs.push_back({condition.id,
                         kind == CostKind::PieceMass   ? grams
                         : kind == CostKind::PrintTime ? estimate.minutes
                                                       : grams * all.money / all.grams,
                         weighed && kind != CostKind::PrintTime});
    }
    return costs;
}

CostWords costWords(CostKind kind, const std::string &money, const Notation &notation)
{
    const auto text = [kind, money, &notation](double cost) { return costText(kind, cost, money, notation); };
    switch (kind) {
    case CostKind::PieceMass:
        return {"Mass of a piece in g", text, "lightest", "lighter", "weigh the same", "mass"};
    case CostKind::PrintTime:
        return {"Print time of a piece in min", text,        "quickest to print", "quicker",
                "take the same time",           "print time"};
    case CostKind::Price:
        return {"Material of a piece in " + money, text, "cheapest", "cheaper", "cost the same", "price"};
    }
    return {};
}

std::string costText(CostKind kind, double cost, const std::string &money, const Notation &notation)
{
    switch (kind) {
    case CostKind::PieceMass:
        return notation.significant(cost, 3) + " g";
    case CostKind::PrintTime:
        return notation.significant(cost, 3) + " min";
    case CostKind::Price:
        return notation.fixed(cost, 2) + " " + money;
    }
    return {};
}

std::string leastCostAnswer(const Study &study, const std::vector<ConditionId> &best, Method test,
                            const Workshop &workshop, const Notation &notation)
{
    if (best.size() < 2)
        return {};
    constexpr std::pair<CostKind, std::string_view> kWords[] = {
        {CostKind::PieceMass, "lightest"}, {CostKind::PrintTime, "fastest"}, {CostKind::Price, "cheapest"}};
    constexpr double kSame = 0.01; // of the largest: no saving
    std::vector<std::string> parts;
    for (const auto &[kind, word] : kWords) {
        std::vector<RailCost> costs = railCosts(study, test, kind, workshop);
        std::erase_if(costs, [&](const RailCost &one) {
            return std::find(best.begin(), best.end(), one.condition) == best.end();
        });
        const auto [least, most] =
            std::minmax_element(costs.begin(), costs.end(),
                                [](const RailCost &a, const RailCost &b) { return a.perPiece < b.perPiece; });
        if (costs.size() < best.size() || most->perPiece - least->perPiece <= kSame * most->perPiece)
            continue;
        parts.push_back(fmt::format("the {} is {} ({}{})", word,
                                    distinctTitle(study, *findCondition(study, least->condition)),
                                    costText(kind, least->perPiece, workshop.moneyUnit, notation),
                                    least->isMeasured ? "" : ", estimated"));
    }
    return parts.empty() ? std::string()
                         : fmt::format("Of those that may be best {}.", fmt::join(parts, ", "));
}

} // namespace inchpeg
