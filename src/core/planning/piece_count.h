// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/planned_test.h"
#include "core/text/notation.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// How many pieces the plan needs, and what it can show: numbers and words for one study.

/// The power question behind a study's aim. Needs two rails.
/// Errors: those of powerOf().
struct PieceQuestion {
    PowerQuestion power;
    int tested = 0;           ///< pieces a rail without the spares
    double cv = 0.0;          ///< of single values
    double difference = 0.0;  ///< that matters, as a fraction of the reference
    bool asRatio = true;      ///< compared as a ratio, scatter being a share of each mean
    bool isDownwards = false; ///< the difference is one to below the reference: a loss that is good enough
};
/// The smallest difference that matters as a share of what the reference is expected to reach now: one that
/// was said as a value stays that value.
double plannedShare(const Study &study, const OwnResults &own);
/// The same family and scale as in the comparison that follows: see compareStudy().
PieceQuestion pieceQuestion(const Study &study, const OwnResults &own);

/// A difference in standard deviations as a fraction of the reference, upwards or as the question has it.
double shareVisible(const PieceQuestion &question, double difference_sd);

/// Where each rail lies on the one factor with numbers as levels, for a trend over them.
/// Errors: InvalidArgument where no factor has numbers throughout, or more than one has.
Result<std::vector<double>> trendPositions(const Study &study);

/// What n pieces a rail can show.
struct VisibleDifference {
    int pieces = 0;
    double difference = 0.0; ///< a fraction of the reference, found with the plan's power
};
/// For some numbers of pieces from 2 up to at least upTo, closer together where the curve is steep.
/// Errors: those of visibleDifference_sd().
Result<std::vector<VisibleDifference>> visibleDifferences(const PieceQuestion &question, double power,
                                                          int upTo);

struct PieceAnswer {
    int wanted = 0;       ///< pieces a rail without spares that the aim needs; 0: more than can be planned
    double power = 0.0;   ///< of the plan as it is; 0 with one piece a rail
    double visible = 0.0; ///< as in VisibleDifference, for the plan as it is; 0 with one piece
    double noncentrality = 0.0;
    std::string sentence;         ///< what the plan can show and what it would need
    std::string byPlates;         ///< what it can show where each rail has plates of its own; empty where not
    std::vector<std::string> few; ///< what 2 and 3 pieces can and cannot show
};

/// Errors: those of powerOf(), in words about the plan.
Result<PieceAnswer> pieceAnswer(const Study &study, const OwnResults &own, const Notation &notation = {});

/// "each with the reference", "each with each": what is compared, in words.
std::string_view comparisonWords(Comparison comparison);

} // namespace inchpeg
