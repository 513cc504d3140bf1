// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"
#include "core/model/workshop.h"
#include "core/planning/calendar.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// Errors: InvalidArgument for times that are none, an end before the start, a duration below zero, a
/// humidity outside 0 to 100 %, a skipped step without a reason, and a step that is not skipped without a
/// start.
Status checkStep(const TimedStep &step);

/// True for a step that is about a piece which was printed on these plates; the last counts.
bool covers(const TimedStep &step, const std::vector<int> &plates);

/// When a piece may be tested, as far as it is logged.
struct Readiness {
    std::optional<Moment> from; ///< nothing: it may be tested, or nothing is known
    bool known = false;         ///< a step of conditioning is logged for it
    std::string sentence; ///< "conditioned 40 of 48 h, ready from Tue 2 Jun 09:00"; empty: nothing known
};

/// From the conditioning and annealing steps logged for its plate. now: the workshop's own time.
Readiness readinessOf(const Study &study, const Piece &piece, Moment now);

/// What is to be known about a step: how long it lasted or has to go, too short, late or skipped.
/// printEnd: when the plate was done, for a conditioning that began late; nothing where it is not logged.
std::string stepSentence(const StudyLog &log, const TimedStep &step, Moment now);

/// A step as it is wanted for a study, to be logged by one press: drying before the first plate is printed,
/// else conditioning. Its start is now.
TimedStep wantedStep(const Study &study, const Workshop &workshop, StepKind kind, Moment now);

} // namespace inchpeg
