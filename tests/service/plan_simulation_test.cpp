// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/on_all_cores.h"
#include "service/plan_simulation.h"

#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{
namespace
{

/// The share of runs that find the difference must lie within four standard errors of the exact power: a
/// false alarm of this test in 16,000, and the seed is fixed.
void expectAgreement(const SimulationSetup &setup)
{
    const Result<SimulationResult> result = simulatePlan(setup, onAllCores, {});
    ASSERT_TRUE(result) << result.error().message;
    PowerQuestion question{setup.comparison, std::log1p(setup.difference) / setup.cv, setup.alpha,
                           setup.conditions, setup.positions};
    question.isOwnScatter = true; // as studies are compared
    const Result<Power> exact = powerOf(question, setup.pieces);
    ASSERT_TRUE(exact);
    const double error = std::sqrt(exact->power * (1.0 - exact->power) / setup.runs);
    EXPECT_NEAR(result->share(), exact->power, 4.0 * error)
        << comparisonName(setup.comparison) << ", " << setup.conditions << " × " << setup.pieces;
}

TEST(PlanSimulation, AgreesWithTheExactPower)
{
    SimulationSetup setup;
    setup.runs = 4000;
    setup.cv = 0.08; // a usual scatter, and differences up to a fifth: the higher rail scatters no more
    setup.conditions = 6;
    setup.pieces = 6;
    for (const Comparison comparison :
         {Comparison::AgainstReference, Comparison::AllPairs, Comparison::AnyDifference, Comparison::Trend}) {
        setup.comparison = comparison;
        for (const double d : {0.5, 1.5, 2.5}) {
            setup.difference = std::expm1(d * setup.cv);
            expectAgreement(setup);
        }
    }
    setup.comparison = Comparison::Trend;
    setup.conditions = 3;
    setup.positions = {0.0, 1.0, 10.0};
    expectAgreement(setup);
    setup.positions.clear();
    setup.comparison = Comparison::TwoGroups;
    setup.conditions = 2;
    setup.pieces = 3;
    setup.difference = 2.0 * setup.cv;
    expectAgreement(setup);
}

TEST(PlanSimulation, TheSameSeedCountsTheSameHoweverManyCores)
{
    SimulationSetup setup;
    setup.conditions = 4;
    setup.difference = 0.08;
    const Result<SimulationResult> one = simulatePlan(setup, inOrder, {});
    const Result<SimulationResult> many = simulatePlan(setup, onAllCores, {});
    EXPECT_EQ(one->found, many->found);
    EXPECT_EQ(one->falseAlarms, many->falseAlarms);
    setup.seed = 2;
    EXPECT_NE(simulatePlan(setup, inOrder, {})->found, one->found);
}

TEST(PlanSimulation, FalseAlarmsKeepToAlpha)
{
    SimulationSetup setup;
    setup.conditions = 6;
    setup.pieces = 5;
    setup.runs = 4000;
    const Result<SimulationResult> result = simulatePlan(setup, onAllCores, {});
    EXPECT_LT(result->falseAlarms, 0.05 * 4000 + 4.0 * std::sqrt(0.05 * 0.95 * 4000));
}

TEST(PlanSimulation, LostPiecesAndAGaugeAtItsEndCostPower)
{
    SimulationSetup setup;
    setup.conditions = 3;
    setup.pieces = 5;
    setup.difference = 0.1;
    const int whole = simulatePlan(setup, onAllCores, {})->found;
    setup.lost = 0.3;
    const Result<SimulationResult> lossy = simulatePlan(setup, onAllCores, {});
    EXPECT_LT(lossy->found, whole);
    EXPECT_GT(lossy->undecided, 0) << "now and then fewer than two are left";
    setup.lost = 0.0;
    setup.rig.capacity_N = 105.0;
    EXPECT_GT(simulatePlan(setup, onAllCores, {})->undecided, 900);
    setup.rig.capacity_N = 0.0;
    setup.rig.resolution_N = 40.0;
    EXPECT_LT(simulatePlan(setup, onAllCores, {})->found, whole)
        << "steps as large as the difference hide it";
}

TEST(PlanSimulation, TellsProgressAndStops)
{
    SimulationSetup setup;
    int last = 0;
    ASSERT_TRUE(simulatePlan(setup, inOrder, {}, [&](int done) { last = done; }));
    EXPECT_EQ(last, setup.runs);
    std::stop_source stop;
    const Result<SimulationResult> stopped =
        simulatePlan(setup, inOrder, stop.get_token(), [&](int) { stop.request_stop(); });
    ASSERT_FALSE(stopped);
    EXPECT_EQ(stopped.error().code, ErrorCode::Cancelled);
}

TEST(PlanSimulation, RefusesWhatCannotBeRun)
{
    const auto refused = [](auto change) {
        SimulationSetup setup;
        change(setup);
        return !simulatePlan(setup, inOrder, {}).has_value();
    };
    EXPECT_TRUE(refused([](SimulationSetup &s) { s.conditions = 1; }));
    EXPECT_TRUE(refused([](SimulationSetup &s) { s.pieces = 1; }));
    EXPECT_TRUE(refused([](SimulationSetup &s) { s.cv = 0.0; }));
    EXPECT_TRUE(refused([](SimulationSetup &s) { s.runs = 0; }));
    EXPECT_TRUE(refused([](SimulationSetup &s) { s.alpha = 1.0; }));
    EXPECT_TRUE(refused([](SimulationSetup &s) { s.lost = 1.0; }));
    EXPECT_TRUE(refused([](SimulationSetup &s) {
        s.comparison = Comparison::TwoGroups;
        s.conditions = 3;
    }));
}

} // namespace
// Friction, shrinkage, hardness: off to either side is not good enough, for the plan as for the verdict.
TEST(PlanSimulation, GoodEnoughToBothSidesIsFoundAsOftenAsThePlanSays)
{
    for (const int pieces : {6, 10, 14}) {
        SimulationSetup setup;
        setup.comparison = Comparison::GoodEnough;
        setup.isBothSides = true;
        setup.conditions = 3;
        setup.pieces = pieces;
        setup.cv = 0.06;
        setup.difference = 0.1;
        setup.runs = 4000;
        const Result<SimulationResult> played = simulatePlan(setup, inOrder, {});
        ASSERT_TRUE(played) << played.error().message;
        PowerQuestion question{Comparison::GoodEnough, std::log1p(0.1) / 0.06, 0.05, 3};
        const double oneSide = powerOf(question, pieces)->power;
        question.isBothSides = true;
        const double promised = powerOf(question, pieces)->power;
        // The promise is the least that it can be; where it is one that is planned for it is exact.
        EXPECT_GE(played->share(), promised - 0.03) << pieces << " pieces";
        if (promised > 0.7) {
            EXPECT_NEAR(played->share(), promised, 0.03) << pieces << " pieces";
        }
        EXPECT_LT(promised, oneSide);
    }
}

} // namespace inchpeg
