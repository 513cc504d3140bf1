// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/plan_simulation.h"

#include "core/stats/many_groups.h"
#include "core/stats/simultaneous.h"
#include "core/stats/trend.h"

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr int kRunsATask = 25;
constexpr int kMostRuns = 100000;
constexpr int kMostSimulated = 200;

/// 0 for the lowest level, 1 for the highest.
double positionOf(const SimulationSetup &setup, int condition)
{
    if (setup.positions.empty())
        return static_cast<double>(condition) / (setup.conditions - 1);
    const auto [least, most] = std::minmax_element(setup.positions.begin(), setup.positions.end());
    return (setup.positions[static_cast<std::size_t>(condition)] - *least) / (*most - *least);
}

/// How far a condition lies from the reference, as a share of the difference that is to be found.
double shareOfDifference(const SimulationSetup &setup, int condition)
{
    switch (setup.comparison) {
    case Comparison::Trend:
        return positionOf(setup, condition);
    case Comparison::AnyDifference:
        return condition == 0 ? 0.0 : condition == 1 ? 1.0 : 0.5;
    case Comparison::GoodEnough:
        return condition > 1 ? 1.0 : 0.0;
    default:
        return condition == 1 ? 1.0 : 0.0;
    }
}

/// A single value; deviation: standard normal. As the plan's power has it: scatter is a share of each mean,
/// or the same amount in all conditions.
double drawnValue(const SimulationSetup &setup, int condition, double deviation)
{
    const double share = shareOfDifference(setup, condition);
    if (setup.asRatio)
        return setup.expected * std::exp(std::log1p(setup.difference) * share + setup.cv * deviation);
    return setup.expected * (1.0 + setup.difference * share + setup.cv * deviation);
}

struct RunOutcome {
    bool found = false;
    bool falseAlarm = false;
    bool undecided = false;
};

/// Whether the slope of the values over the levels of their groups is told from none.
bool showsTrend(const SimulationSetup &setup, const std::vector<Group> &groups)
{
    std::vector<double> levels;
    std::vector<double> values;
    for (std::size_t g = 0; g < groups.size(); ++g) {
        for (const double value : groups[g].values) {
            levels.push_back(positionOf(setup, static_cast<int>(g)));
            values.push_back(value);
        }
    }
    const Result<Trend> line = fitTrend(levels, values, 1, 1.0 - setup.alpha);
    return line && line->coefficients[1].p && *line->coefficients[1].p < setup.alpha;
}

/// Ratios are differences of logarithms.
std::vector<Group> logarithms(std::vector<Group> groups)
{
    for (Group &group : groups) {
        for (double &value : group.values)
            value = std::log(value);
    }
    return groups;
}

/// The values of a condition, by the number of the piece; nothing where it was lost.
using Pieces = std::vector<std::optional<double>>;

RunOutcome analysePairs(const SimulationSetup &setup, const std::vector<Pieces> &pieces)
{
    RunOutcome outcome;
    for (std::size_t c = 1; c < pieces.size(); ++c) {
        std::vector<double> before;
        std::vector<double> after;
        for (std::size_t i = 0; i < pieces[c].size(); ++i) {
            if (!pieces[0][i] || !pieces[c][i])
                continue;
            before.push_back(*pieces[0][i]);
            after.push_back(*pieces[c][i]);
        }
        const std::optional<Effect> effect =
            pairedEffect(before, after, setup.asRatio, 1.0 - setup.alpha, pieces.size() - 1);
        outcome.undecided = outcome.undecided || !effect;
        if (effect && effect->isClear())
            (c == 1 ? outcome.found : outcome.falseAlarm) = true;
    }
    return outcome;
}

/// As the comparison of the broken pieces will do it.
RunOutcome analyse(const SimulationSetup &setup, const std::vector<Group> &groups,
                   const std::vector<Pieces> &pieces)
{
    if (setup.comparison == Comparison::AnyDifference) {
        const Anova anova = oneWayAnova(setup.asRatio ? logarithms(groups) : groups);
        return {anova.test && anova.test->p < setup.alpha, false, false};
    }
    if (setup.comparison == Comparison::Trend)
        return {showsTrend(setup, setup.asRatio ? logarithms(groups) : groups), false, false};
    if (setup.comparison == Comparison::BeforeAfter)
        return analysePairs(setup, pieces);
    const std::optional<SimultaneousComparison> family =
        SimultaneousComparison::of(groups, 0, {setup.comparison, setup.asRatio, 1.0 - setup.alpha, {}});
    if (!family)
        return {false, false, true};
    const auto differs = [&](std::size_t a, std::size_t b) {
        const std::optional<Effect> effect = family->effect(a, b);
        return effect && effect->isClear();
    };
    const bool isUpwards = setup.difference > 0.0;
    const double margin =
        setup.asRatio ? 1.0 + setup.difference : setup.difference * meanOf(groups.front().values);
    const auto isGoodEnough = [&](std::size_t b) {
        const std::optional<Effect> effect = family->effect(0, b);
        if (!effect)
            return false;
        const double limit = family->oneSidedLimit(*effect, isUpwards);
        const bool isWithin = isUpwards ? limit < margin : limit > margin;
        if (!setup.isBothSides || !isWithin)
            return isWithin;
        const double none = setup.asRatio ? 1.0 : 0.0;
        const double otherMargin = none - (margin - none);
        const double other = family->oneSidedLimit(*effect, !isUpwards);
        return isUpwards ? other > otherMargin : other < otherMargin;
    };
    const bool isOfMargin = setup.comparison == Comparison::GoodEnough;
    RunOutcome outcome;
    outcome.found = isOfMargin ? isGoodEnough(1) : differs(0, 1);
    for (std::size_t b = 2; b < groups.size(); ++b)
        outcome.falseAlarm = outcome.falseAlarm || (isOfMargin ? isGoodEnough(b) : differs(0, b));
    if (setup.comparison == Comparison::AllPairs) {
        for (std::size_t a = 2; a < groups.size(); ++a) {
            for (std::size_t b = a + 1; b < groups.size(); ++b)
                outcome.falseAlarm = outcome.falseAlarm || differs(a, b);
        }
    }
    return outcome;
}

RunOutcome oneRun(const SimulationSetup &setup, int run)
{
    // Each run has a seed of its own, so that the result does not hang on how the runs are shared out.
    Random random(setup.seed * 1000003U + static_cast<std::uint64_t>(run));
    std::vector<Group> groups(static_cast<std::size_t>(setup.conditions));
    std::vector<Pieces> pieces(groups.size());
    bool atItsEnd = false;
    for (int c = 0; c < setup.conditions; ++c) {
        std::vector<double> &values = groups[static_cast<std::size_t>(c)].values;
        for (int i = 0; i < setup.pieces; ++i) {
            const bool lost = setup.lost > 0.0 && random.uniform() < setup.lost;
            const double value = sim::readBy(setup.rig, drawnValue(setup, c, random.normal()));
            pieces[static_cast<std::size_t>(c)].push_back(lost ? std::nullopt : std::optional(value));
            if (lost)
                continue;
            atItsEnd = atItsEnd || (setup.rig.capacity_N > 0.0 && value >= setup.rig.capacity_N) ||
                       (setup.asRatio && !(value > 0.0));
            values.push_back(value);
        }
    }
    const bool tooFew =
        std::any_of(groups.begin(), groups.end(), [](const Group &group) { return group.values.size() < 2; });
    if (tooFew || atItsEnd)
        return {false, false, true};
    return analyse(setup, groups, pieces);
}

Status check(const SimulationSetup &setup)
{
    if (setup.conditions < 2 || setup.conditions > kMostSimulated)
        return invalidArgument(
            fmt::format("{} conditions; 2 to {} can be simulated", setup.conditions, kMostSimulated));
    if (setup.comparison == Comparison::TwoGroups && setup.conditions != 2)
        return invalidArgument("the t test compares two conditions");
    if (!setup.positions.empty()) {
        const auto [least, most] = std::minmax_element(setup.positions.begin(), setup.positions.end());
        if (setup.positions.size() != static_cast<std::size_t>(setup.conditions) || !(*most > *least))
            return invalidArgument(
                "a trend needs a number for the level of each condition, and two that differ");
    }
    if (setup.pieces < 2 || setup.pieces > 10000)
        return invalidArgument(fmt::format("{} pieces; 2 to 10000 can be simulated", setup.pieces));
    if (!(setup.cv > 0.0) || !std::isfinite(setup.cv) || !std::isfinite(setup.difference) ||
        !(setup.expected > 0.0))
        return invalidArgument("expected value and scatter must be above zero");
    if (!(setup.difference > -1.0))
        return invalidArgument(fmt::format("the difference is {:g}; above −1 is wanted, since no condition "
                                           "lies lower by all of the reference",
                                           setup.difference));
    if (!(setup.alpha > 0.0 && setup.alpha < 1.0) || !(setup.lost >= 0.0 && setup.lost < 1.0))
        return invalidArgument("alpha and the share of lost pieces must lie between 0 and 1");
    if (setup.runs < 1 || setup.runs > kMostRuns)
        return invalidArgument(fmt::format("{} runs; 1 to {} are possible", setup.runs, kMostRuns));
    return ok();
}

} // namespace

double SimulationResult::standardError() const
{
    return runs > 0 ? std::sqrt(share() * (1.0 - share()) / runs) : 0.0;
}

Result<SimulationResult> simulatePlan(const SimulationSetup &setup, const TaskRunner &runner,
                                      std::stop_token stop, const std::function<void(int)> &progress)
{
    if (const Status status = check(setup); !status)
        return status.error();
    std::atomic<int> found = 0;
    std::atomic<int> falseAlarms = 0;
    std::atomic<int> undecided = 0;
    std::atomic<int> done = 0;
    const auto tasks = static_cast<std::size_t>((setup.runs + kRunsATask - 1) / kRunsATask);
    runner(tasks, [&](std::size_t task) {
        if (stop.stop_requested())
            return;
        const int from = static_cast<int>(task) * kRunsATask;
        const int to = std::min(setup.runs, from + kRunsATask);
        for (int run = from; run < to; ++run) {
            const RunOutcome outcome = oneRun(setup, run);
            found += outcome.found ? 1 : 0;
            falseAlarms += outcome.falseAlarm ? 1 : 0;
            undecided += outcome.undecided ? 1 : 0;
        }
        done += to - from;
        if (progress)
            progress(done);
    });
    if (stop.stop_requested())
        return Error{ErrorCode::Cancelled, "the simulation was stopped", {}};
    return SimulationResult{setup.runs, found, falseAlarms, undecided};
}

} // namespace inchpeg
