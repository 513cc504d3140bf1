// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/rail_costs.h"

#include "core/logbook/measuring.h"
#include "core/planning/print_estimate.h"

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

} // namespace inchpeg
