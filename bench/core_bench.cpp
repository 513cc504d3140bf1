// SPDX-License-Identifier: GPL-3.0-or-later
// What docs/performance.md tells: build/release/bench/inchpeg_bench
#include "core/compare/verdict.h"
#include "core/import/text.h"
#include "core/planning/plates.h"
#include "core/reading/piece_reading.h"
#include "core/stats/many_groups.h"
#include "core/stats/power.h"
#include "service/on_all_cores.h"
#include "service/plan_simulation.h"
#include "sim/random.h"
#include "support/study_builder.h"
#include "support/tensile_order.h"

#include <fmt/format.h>

#include <benchmark/benchmark.h>
#include <cstring>

namespace inchpeg
{

namespace
{

/// Time, force and extension, as a rig writes them; rows of about 28 bytes.
const std::string &recordOf(std::size_t rows)
{
    static std::map<std::size_t, std::string> kept;
    std::string &text = kept[rows];
    if (!text.empty())
        return text;
    sim::Random random(1);
    text = "time_s,force_N,extension_mm\n";
    for (std::size_t i = 0; i < rows; ++i) {
        const double x = static_cast<double>(i) / static_cast<double>(rows);
        text += fmt::format("{:.3f},{:.4f},{:.6f}\n", 0.001 * static_cast<double>(i),
                            1500.0 * x * (2.0 - x) + 0.1 * random.normal(), 2.5 * x);
    }
    return text;
}

/// The floor: every byte is touched once.
void readEveryByte(benchmark::State &state)
{
    const std::string &text = recordOf(static_cast<std::size_t>(state.range(0)));
    for (auto _ : state) {
        std::size_t lines = 0;
        for (const char *at = text.data();
             (at = static_cast<const char *>(std::memchr(
                  at, '\n', static_cast<std::size_t>(text.data() + text.size() - at)))) != nullptr;
             ++at)
            ++lines;
        benchmark::DoNotOptimize(lines);
    }
    state.SetBytesProcessed(state.iterations() * static_cast<std::int64_t>(text.size()));
}

void importCurve(benchmark::State &state)
{
    const std::string &text = recordOf(static_cast<std::size_t>(state.range(0)));
    for (auto _ : state)
        benchmark::DoNotOptimize(importForceCurve(text));
    state.SetBytesProcessed(state.iterations() * static_cast<std::int64_t>(text.size()));
}

/// The same on all cores.
void importCurveOnAllCores(benchmark::State &state)
{
    const std::string &text = recordOf(static_cast<std::size_t>(state.range(0)));
    for (auto _ : state)
        benchmark::DoNotOptimize(importForceCurve(text, onAllCores));
    state.SetBytesProcessed(state.iterations() * static_cast<std::int64_t>(text.size()));
}

void importAndReduce(benchmark::State &state)
{
    const auto bytes =
        std::make_shared<const std::string>(recordOf(static_cast<std::size_t>(state.range(0))));
    TensileParameters parameters;
    parameters.area = squareMillimetres(40);
    parameters.gaugeLength = millimetres(50);
    const ReadingOrder order = test::tensileOrder(parameters);
    for (auto _ : state)
        benchmark::DoNotOptimize(readPiece({PieceId{1}, bytes, {}, order, {}, onAllCores}));
    state.SetBytesProcessed(state.iterations() * static_cast<std::int64_t>(bytes->size()));
}

/// 48 rails of 6 pieces compared with their reference and put into words.
void compareAndTell(benchmark::State &state)
{
    test::StudyBuilder builder;
    sim::Random random(2);
    for (int rail = 0; rail < state.range(0); ++rail) {
        std::vector<double> strengths;
        for (int piece = 0; piece < 6; ++piece)
            strengths.push_back(30.0 + 0.1 * rail + random.normal());
        builder.rail(std::to_string(200 + rail), strengths);
    }
    const Property property = *findProperty(kTensileReduction, kUsualProperty);
    for (auto _ : state) {
        const StudyComparison comparison = compareStudy(builder.study, builder.readings, property);
        benchmark::DoNotOptimize(verdictOf(builder.study, comparison));
    }
}

/// Twelve rails of 30 pieces compared in all ways: families, pairs, with a reference, with the best.
void compareInAllWays(benchmark::State &state)
{
    sim::Random random(3);
    std::vector<Group> groups(12);
    for (Group &group : groups) {
        for (int piece = 0; piece < 30; ++piece)
            group.values.push_back(30.0 + random.normal());
    }
    for (auto _ : state) {
        benchmark::DoNotOptimize(compareGroups(groups));
        benchmark::DoNotOptimize(dunnett(groups, 0));
        benchmark::DoNotOptimize(comparisonWithBest(groups));
    }
}

/// Four factors, 48 rails of 6 pieces in two rounds: plates and orders.
void layOutPlan(benchmark::State &state)
{
    test::StudyBuilder builder;
    Study &study = builder.study;
    firstTest(study).piecesPerCondition = 6;
    study.factors = {{"nozzle temperature", "°C", ChangedPer::Plate},
                     {"walls", "", ChangedPer::Piece},
                     {"infill", "%", ChangedPer::Piece},
                     {"part cooling", "%", ChangedPer::Piece}};
    const Status made =
        applyDesign(study, DesignKind::FullFactorial,
                    {{"230", "250"}, {"2", "4", "6"}, {"15", "40", "70", "100"}, {"0", "60"}}, builder.ids());
    require(made.has_value(), "the design can be made");
    study.plan.print.rounds = 2;
    const Workshop workshop = usualWorkshop();
    for (auto _ : state)
        benchmark::DoNotOptimize(layOutPlates(study, workshop));
}

/// A thousand plans of 6 rails of 6 virtual pieces, on one core.
void simulateThousandPlans(benchmark::State &state)
{
    SimulationSetup setup;
    setup.conditions = 6;
    setup.pieces = 6;
    for (auto _ : state)
        benchmark::DoNotOptimize(simulatePlan(setup, inOrder, {}));
}

/// The critical value of Dunnett's comparison, new each time.
void dunnettCriticalValue(benchmark::State &state)
{
    double alpha = 0.05;
    for (auto _ : state) {
        alpha *= 0.9999999;
        benchmark::DoNotOptimize(criticalValue(Comparison::AgainstReference, 6, 6, alpha));
    }
}

} // namespace

BENCHMARK(layOutPlan)->Unit(benchmark::kMillisecond);
BENCHMARK(simulateThousandPlans)->Unit(benchmark::kMillisecond);
BENCHMARK(dunnettCriticalValue)->Unit(benchmark::kMillisecond);
BENCHMARK(readEveryByte)->Arg(2000000)->Unit(benchmark::kMillisecond);
BENCHMARK(importCurve)->Arg(2000000)->Unit(benchmark::kMillisecond);
BENCHMARK(importCurveOnAllCores)->Arg(2000000)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(importAndReduce)->Arg(1000)->Arg(50000)->Arg(2000000)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(compareInAllWays)->Unit(benchmark::kMillisecond);
BENCHMARK(compareAndTell)->Arg(6)->Arg(48)->Unit(benchmark::kMillisecond);

} // namespace inchpeg
