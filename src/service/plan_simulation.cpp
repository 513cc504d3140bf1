// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/plan_simulation.h"

#include "core/stats/distributions.h"
#include "core/stats/many_groups.h"
#include "core/stats/studentised.h"

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <cmath>
#include <map>
#include <mutex>
#include <numbers>

namespace inchpeg
{

namespace
{

constexpr int kRunsATask = 25;
constexpr int kMostRuns = 100000;
constexpr int kMostSimulated = 200;

/// Critical values by how many pieces are left on each rail; most runs share a few of them.
class CriticalValues
{
public:
    explicit CriticalValues(const SimulationSetup &setup) : m_setup(setup) {}

    double of(const std::vector<Group> &groups)
    {
        std::vector<std::size_t> counts;
        for (const Group &group : groups)
            counts.push_back(group.values.size());
        std::sort(counts.begin() + 1, counts.end()); // the reference stays first
        const std::lock_guard lock(m_mutex);
        const auto known = m_known.find(counts);
        if (known != m_known.end())
            return known->second;
        return m_known[counts] = compute(counts);
    }

private:
    [[nodiscard]] double compute(const std::vector<std::size_t> &counts) const
    {
        double all = 0.0;
        for (const std::size_t n : counts)
            all += static_cast<double>(n);
        const auto k = static_cast<double>(counts.size());
        const double df = m_setup.comparison == Comparison::Trend ? all - 2.0 : all - k;
        switch (m_setup.comparison) {
        case Comparison::AgainstReference: {
            if (counts.size() == 2)
                break;
            std::vector<double> loading;
            for (std::size_t i = 1; i < counts.size(); ++i) {
                const auto n = static_cast<double>(counts[i]);
                loading.push_back(std::sqrt(n / (n + static_cast<double>(counts[0]))));
            }
            return StudentisedDistribution::dunnettTwoSided(loading).quantile(1.0 - m_setup.alpha, df);
        }
        case Comparison::AllPairs:
            if (counts.size() == 2)
                break;
            return StudentisedDistribution::range(counts.size()).quantile(1.0 - m_setup.alpha, df) /
                   std::numbers::sqrt2;
        case Comparison::AnyDifference:
            return fisherQuantileUpper(m_setup.alpha, k - 1.0, df);
        default:
            break;
        }
        return studentQuantile(1.0 - 0.5 * m_setup.alpha, df);
    }

    const SimulationSetup &m_setup;
    std::mutex m_mutex;
    std::map<std::vector<std::size_t>, double> m_known;
};

/// 0 for the lowest level, 1 for the highest.
double positionOf(const SimulationSetup &setup, int condition)
{
    if (setup.positions.empty())
        return static_cast<double>(condition) / (setup.conditions - 1);
    const auto [least, most] = std::minmax_element(setup.positions.begin(), setup.positions.end());
    return (setup.positions[static_cast<std::size_t>(condition)] - *least) / (*most - *least);
}

double expectedOf(const SimulationSetup &setup, int condition)
{
    switch (setup.comparison) {
    case Comparison::Trend:
        return setup.expected * (1.0 + setup.difference * positionOf(setup, condition));
    case Comparison::AnyDifference:
        return setup.expected * (1.0 + (condition == 0   ? 0.0
                                        : condition == 1 ? setup.difference
                                                         : 0.5 * setup.difference));
    default:
        return setup.expected * (condition == 1 ? 1.0 + setup.difference : 1.0);
    }
}

struct RunOutcome {
    bool found = false;
    bool falseAlarm = false;
    bool undecided = false;
};

struct WithinVariance {
    double variance = 0.0;
    double df = 0.0;
};

WithinVariance pooledVariance(const std::vector<Group> &groups)
{
    WithinVariance within;
    double squares = 0.0;
    for (const Group &group : groups) {
        const auto n = static_cast<double>(group.values.size());
        squares += n > 1.0 ? (n - 1.0) * varianceOf(group.values) : 0.0;
        within.df += n - 1.0;
    }
    within.variance = within.df > 0.0 ? squares / within.df : 0.0;
    return within;
}

/// |t| of the slope of values over the levels of their groups.
double trendT(const SimulationSetup &setup, const std::vector<Group> &groups)
{
    const auto level = [&](std::size_t group) { return positionOf(setup, static_cast<int>(group)); };
    double n = 0.0, sx = 0.0, sy = 0.0;
    for (std::size_t g = 0; g < groups.size(); ++g) {
        for (const double y : groups[g].values) {
            n += 1.0;
            sx += level(g);
            sy += y;
        }
    }
    double sxx = 0.0, sxy = 0.0, syy = 0.0;
    for (std::size_t g = 0; g < groups.size(); ++g) {
        for (const double y : groups[g].values) {
            const double dx = level(g) - sx / n;
            const double dy = y - sy / n;
            sxx += dx * dx;
            sxy += dx * dy;
            syy += dy * dy;
        }
    }
    const double residual = (syy - sxy * sxy / sxx) / (n - 2.0);
    return std::abs(sxy / sxx) / std::sqrt(residual / sxx);
}

RunOutcome analyse(const SimulationSetup &setup, const std::vector<Group> &groups, CriticalValues &critical)
{
    const WithinVariance within = pooledVariance(groups);
    if (within.df < 1.0 || !(within.variance > 0.0))
        return {false, false, true};
    const double limit = critical.of(groups);
    if (setup.comparison == Comparison::AnyDifference) {
        const Anova anova = oneWayAnova(groups);
        return {anova.test && anova.test->f > limit, false, false};
    }
    if (setup.comparison == Comparison::Trend)
        return {trendT(setup, groups) > limit, false, false};
    RunOutcome outcome;
    const auto differs = [&](std::size_t a, std::size_t b) {
        const double difference = meanOf(groups[b].values) - meanOf(groups[a].values);
        const double se = std::sqrt(within.variance * (1.0 / static_cast<double>(groups[a].values.size()) +
                                                       1.0 / static_cast<double>(groups[b].values.size())));
        return std::abs(difference) / se > limit;
    };
    outcome.found = differs(0, 1);
    for (std::size_t b = 2; b < groups.size(); ++b)
        outcome.falseAlarm = outcome.falseAlarm || differs(0, b);
    if (setup.comparison == Comparison::AllPairs) {
        for (std::size_t a = 2; a < groups.size(); ++a) {
            for (std::size_t b = a + 1; b < groups.size(); ++b)
                outcome.falseAlarm = outcome.falseAlarm || differs(a, b);
        }
    }
    return outcome;
}

RunOutcome oneRun(const SimulationSetup &setup, int run, CriticalValues &critical)
{
    // Each run has a seed of its own, so that the result does not hang on how the runs are shared out.
    Random random(setup.seed * 1000003U + static_cast<std::uint64_t>(run));
    std::vector<Group> groups(static_cast<std::size_t>(setup.conditions));
    bool atItsEnd = false;
    for (int c = 0; c < setup.conditions; ++c) {
        std::vector<double> &values = groups[static_cast<std::size_t>(c)].values;
        for (int i = 0; i < setup.pieces; ++i) {
            const bool lost = setup.lost > 0.0 && random.uniform() < setup.lost;
            // As the plan's power has it: one standard deviation for all conditions.
            const double value =
                sim::readBy(setup.rig, expectedOf(setup, c) + setup.cv * setup.expected * random.normal());
            if (lost)
                continue;
            atItsEnd = atItsEnd || (setup.rig.capacity_N > 0.0 && value >= setup.rig.capacity_N);
            values.push_back(value);
        }
    }
    const bool tooFew =
        std::any_of(groups.begin(), groups.end(), [](const Group &group) { return group.values.size() < 2; });
    if (tooFew || atItsEnd)
        return {false, false, true};
    return analyse(setup, groups, critical);
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
    CriticalValues critical(setup);
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
            const RunOutcome outcome = oneRun(setup, run, critical);
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
