// SPDX-License-Identifier: GPL-3.0-or-later
// Studies for practice: virtual pieces with a truth that is hidden until a person has given a verdict. What
// is true follows from a seed of the project, so that nobody has to keep it, and nobody reads it by chance.
#pragma once

#include "core/model/study.h"
#include "service/plan_simulation.h"

#include <cstdint>
#include <map>
#include <string>
#include <vector>

namespace inchpeg
{

/// True for a test in which a force rises until the piece gives way.
bool canPractise(Method method);

struct PracticeTruth {
    double reference_N = 0.0; ///< what pieces of the reference bear in the mean
    double cv = 0.0;          ///< scatter of single pieces
    /// The mean of each rail over the reference's: exactly 1 for about a third of them, else off by 0.7
    /// to 2.5 times the smallest difference that would change the decision.
    std::map<ConditionId, double> ratio;
};
/// usual_N: expected of the reference; the truth lies within a tenth of it.
PracticeTruth practiceTruth(const Study &study, double usual_N, std::uint64_t seed);

/// What this piece bears, in N.
double practiceLoad_N(const PracticeTruth &truth, const Piece &piece, std::uint64_t seed);
/// The bytes of its record, as a rig would write it. The piece has a section.
std::string practiceRecord(const PracticeTruth &truth, const Piece &piece, std::uint64_t seed);

enum class PracticeVerdict { CannotTell, More, Less, NoDifference };

struct PracticeAnswer {
    ConditionId rail;
    PracticeVerdict said = PracticeVerdict::CannotTell;
    double ratio = 1.0; ///< that was true
    bool isRight = false;
};
/// Of each rail but the reference, in the study's order.
std::vector<PracticeAnswer> judgePractice(const Study &study, const PracticeTruth &truth,
                                          const std::map<ConditionId, PracticeVerdict> &said);

/// How often plans of other sizes would have found the largest true difference.
inline constexpr int kPracticeRuns = 400; ///< virtual studies of each size
struct PracticePlan {
    int pieces = 0;
    double foundShare = 0.0;
};
/// sizes: pieces a rail. Errors: those of simulatePlan().
Result<std::vector<PracticePlan>> practicePlans(const Study &study, const PracticeTruth &truth,
                                                const std::vector<int> &sizes, const TaskRunner &run,
                                                std::stop_token stop);

} // namespace inchpeg
