// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/practice.h"

#include "core/base/contract.h"
#include "core/compare/comparison.h"
#include "core/planning/rig_check.h"
#include "core/specimen/section.h"
#include "sim/record_writer.h"
#include "sim/virtual_specimen.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kNoDifferenceShare = 0.35;
constexpr double kLeastDifferences = 0.7; ///< of the smallest that matters
constexpr double kMostDifferences = 2.5;
constexpr double kReferenceReach = 0.1;
constexpr double kLeastCv = 0.03;
constexpr double kMostCv = 0.09;

std::uint64_t mixed(std::uint64_t seed, std::int64_t id)
{
    return seed * 1000003U + static_cast<std::uint64_t>(id);
}

double ratioOf(const PracticeTruth &truth, ConditionId rail)
{
    const auto found = truth.ratio.find(rail);
    return found == truth.ratio.end() ? 1.0 : found->second;
}

} // namespace

bool canPractise(Method method)
{
    const Reduction *reduction = reductionOf(method);
    return reduction != nullptr && factsOf(method).load == LoadKind::Force_N;
}

PracticeTruth practiceTruth(const Study &study, double usual_N, std::uint64_t seed)
{
    Random random(mixed(seed, study.id.value));
    PracticeTruth truth;
    truth.reference_N = usual_N * (1.0 + kReferenceReach * (2.0 * random.uniform() - 1.0));
    truth.cv = kLeastCv + (kMostCv - kLeastCv) * random.uniform();
    for (const Condition &condition : study.conditions) {
        // Drawn by the rail itself: what is true of it does not change where another rail comes or goes.
        Random own(mixed(seed + 1, condition.id.value));
        const bool isEqual = own.uniform() < kNoDifferenceShare;
        const double sign = own.uniform() < 0.5 ? -1.0 : 1.0;
        const double size = kLeastDifferences + (kMostDifferences - kLeastDifferences) * own.uniform();
        const bool isReference = condition.id == study.reference;
        const double difference = isReference || isEqual ? 0.0 : sign * size * study.smallestDifference;
        truth.ratio[condition.id] = std::max(0.2, 1.0 + difference);
    }
    return truth;
}

double practiceLoad_N(const PracticeTruth &truth, const Piece &piece, std::uint64_t seed)
{
    Random random(mixed(seed + 2, piece.id.value));
    return sim::drawnStrength(truth.reference_N * ratioOf(truth, piece.condition), truth.cv, random);
}

std::string practiceRecord(const PracticeTruth &truth, const Piece &piece, std::uint64_t seed)
{
    require(piece.section.has_value(), "practiceRecord(): the piece has a section");
    const double area_mm2 = in_mm2(*areaOf(*piece.section));
    sim::Polymer polymer = sim::glycolPolyester();
    polymer.strength_MPa = practiceLoad_N(truth, piece, seed) / area_mm2;
    polymer.scatter = 0.0;
    sim::Rig rig;
    rig.forceNoise_N = 0.4;
    rig.resolution_N = 0.2;
    rig.slack_mm = 0.15;
    const ForceCurve curve =
        sim::pull(polymer, {}, squareMillimetres(area_mm2), rig, mixed(seed + 3, piece.id.value));
    return sim::recordBytes(curve, sim::Dialect::CommaUtf8, piece.code);
}

std::vector<PracticeAnswer> judgePractice(const Study &study, const PracticeTruth &truth,
                                          const std::map<ConditionId, PracticeVerdict> &said)
{
    std::vector<PracticeAnswer> answers;
    for (const Condition &condition : study.conditions) {
        if (condition.id == study.reference)
            continue;
        PracticeAnswer answer;
        answer.rail = condition.id;
        answer.ratio = ratioOf(truth, condition.id);
        if (const auto verdict = said.find(condition.id); verdict != said.end())
            answer.said = verdict->second;
        const PracticeVerdict right = answer.ratio > 1.0   ? PracticeVerdict::More
                                      : answer.ratio < 1.0 ? PracticeVerdict::Less
                                                           : PracticeVerdict::NoDifference;
        answer.isRight = answer.said == right;
        answers.push_back(answer);
    }
    return answers;
}

Result<std::vector<PracticePlan>> practicePlans(const Study &study, const PracticeTruth &truth,
                                                const std::vector<int> &sizes, const TaskRunner &run,
                                                std::stop_token stop)
{
    double largest = 0.0;
    for (const auto &[rail, ratio] : truth.ratio) {
        if (std::abs(ratio - 1.0) > std::abs(largest))
            largest = ratio - 1.0;
    }
    std::vector<PracticePlan> plans;
    for (const int pieces : sizes) {
        SimulationSetup setup;
        setup.comparison = familyOf(study);
        setup.conditions = static_cast<int>(study.conditions.size());
        setup.pieces = pieces;
        setup.cv = truth.cv;
        setup.difference = largest == 0.0 ? study.smallestDifference : largest;
        setup.runs = kPracticeRuns;
        const Result<SimulationResult> result = simulatePlan(setup, run, stop);
        if (!result)
            return result.error();
        plans.push_back({pieces, result->share()});
    }
    return plans;
}

} // namespace inchpeg
