// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/plate_power.h"

#include "core/model/study_edit.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

bool canShareAPlate(const Study &study, const Condition &a, const Condition &b)
{
    if (a.material != b.material)
        return false;
    for (std::size_t f = 0; f < study.factors.size(); ++f) {
        if (study.factors[f].changedPer == ChangedPer::Plate && a.levels.at(f) != b.levels.at(f))
            return false;
    }
    return true;
}

/// By plates instead of pieces: what counts as one value is the mean of a plate.
PieceQuestion byPlates(const PieceQuestion &question, double plateCv, int plates)
{
    const double piecesAPlate = std::max(1.0, static_cast<double>(question.tested) / plates);
    PieceQuestion of = question;
    of.cv = std::sqrt(plateCv * plateCv + question.cv * question.cv / piecesAPlate);
    of.power.difference_sd *= question.cv / of.cv;
    of.tested = plates;
    return of;
}

double powerBy(const PieceQuestion &plates)
{
    const Result<Power> power = powerOf(plates.power, plates.tested);
    return power ? power->power : 0.0;
}

} // namespace

int ownPlatesARail(const Study &study)
{
    const Condition *reference = findCondition(study, study.reference);
    std::vector<const Condition *> compared;
    for (const Condition &condition : study.conditions) {
        if (reference == nullptr || condition.orientation == reference->orientation)
            compared.push_back(&condition);
    }
    for (std::size_t a = 0; a < compared.size(); ++a) {
        for (std::size_t b = a + 1; b < compared.size(); ++b) {
            if (canShareAPlate(study, *compared[a], *compared[b]))
                return 0;
        }
    }
    return compared.size() < 2 ? 0 : std::max(1, study.plan.print.rounds);
}

std::optional<PlatePower> platePower(const Study &study, const PieceQuestion &question,
                                     const Notation &notation)
{
    const int plates = ownPlatesARail(study);
    if (plates == 0 || question.tested < 2 || question.power.comparison == Comparison::BeforeAfter)
        return std::nullopt;
    PlatePower found;
    found.plates = std::min(plates, question.tested);
    found.plateCv = study.plan.aim.plateCv.value_or(kAssumedPlateCv);
    for (int rounds = 2; rounds <= question.tested && found.wanted == 0; ++rounds) {
        if (powerBy(byPlates(question, found.plateCv, rounds)) >= study.plan.aim.power)
            found.wanted = rounds;
    }
    const std::string more = found.wanted > found.plates
                                 ? fmt::format("{} rounds would show the {} that matters", found.wanted,
                                               notation.percent(question.difference))
                                 : std::string();
    if (found.plates < 2) {
        found.sentence = fmt::format("No two rails can share a plate: with a single plate a rail, how rails "
                                     "differ cannot be told from "
                                     "how plates differ. Print in two rounds or more{}.",
                                     more.empty() ? more
                                                  : fmt::format("; by plates that scatter by {}, {}",
                                                                notation.percent(found.plateCv), more));
        return found;
    }
    const PieceQuestion by = byPlates(question, found.plateCv, found.plates);
    found.power = powerBy(by);
    const Result<double> visible = visibleDifference_sd(by.power, found.plates, study.plan.aim.power);
    found.visible = visible ? shareVisible(by, *visible) : 0.0;
    found.sentence = fmt::format(
        "No two rails can share a plate, and a difference is one of plates too: with {} plates a rail that "
        "scatter by {} ({}), {} or more is seen{}.",
        found.plates, notation.percent(found.plateCv), study.plan.aim.plateCv ? "set by you" : "assumed",
        notation.percent(found.visible), more.empty() ? std::string() : "; " + more);
    return found;
}

} // namespace inchpeg
