// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"
#include "core/model/workshop.h"
#include "core/planning/rig_check.h"
#include "core/rig/live_record.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// What comes next at the rig, and when a record of it begins and ends by itself.

/// The pieces of a test that wait for their record, in the drawn order of testing; those on no printed plate
/// behind them, in the study's order. Failed prints and left-out pieces are not among them.
std::vector<PieceId> benchOrder(const Study &study, Method test);

/// Begins at a hundredth of the expected load (of the range where nothing is expected), at least ten steps of
/// the rig; ends when the reading fell by six tenths of its largest (ours: within the reach of a noisy gauge
/// a record neither begins by itself nor ends at a dip). Only for tests that load a piece until it gives way.
std::optional<RecordRule> benchRule(Method test, const std::optional<ExpectedLoad> &load, const RigCard *rig);

/// Takes a piece's record off it, so that it is tested once more; the reason stands in its note.
/// day: "2026-11-30". Errors: InvalidArgument without a record or without a reason.
Status testAgain(Piece &piece, std::string_view reason, std::string_view day);

/// The last print of a piece was no good: it is laid out on a new plate, the reason is kept.
/// Errors: InvalidArgument without a reason, and those of markFailed().
Status printAgain(Study &study, PieceId piece, std::string_view reason, const std::string &who,
                  const std::string &when);

/// How a reading lies in the range of a rig.
enum class RangeState {
    Inside,
    NearEnd, ///< above four fifths
    AtEnd,   ///< from 99 % on: what follows is a bound
};
/// What a rig says of itself: "range = 2 kN", in the working unit. Nothing where it does not.
std::optional<double> rangeFromFacts(std::span<const std::string> facts);

RangeState rangeState(double reading, double range);

} // namespace inchpeg
