// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"

#include <functional>

namespace inchpeg
{

/// Yields a new id each time it is called.
using IdSource = std::function<std::int64_t()>;

/// Adds a condition with its empty pieces at the end; the first becomes the reference.
/// Errors: InvalidArgument where a level is missing or empty, is no number although its factor has a unit, or
/// the same levels are there already with the same orientation and material; where there are kMostConditions.
Status addCondition(Study &study, const Condition &wanted, const IdSource &ids);

/// Changes levels, orientation and material of the condition with changed.id. Errors as above; NotFound.
Status changeCondition(Study &study, const Condition &changed);

/// Takes a condition and its empty pieces away.
/// Errors: InvalidArgument where one of its pieces is printed, has a section, a record or a reason to be left
/// out.
Status removeCondition(Study &study, ConditionId id);

/// Gives every condition this many pieces of a test. A piece that holds anything or is printed is never
/// removed.
/// Errors: NotFound for a test that the study does not have; InvalidArgument outside 1, or 0 for a test that
/// is not the first, to kMostPiecesPerCondition.
Status setPiecesPerCondition(Study &study, Method method, int count, const IdSource &ids);

/// Gives one condition so many pieces of a test more than it has.
/// Errors: NotFound for a condition or test that the study does not have; InvalidArgument for fewer than one
/// more, or beyond kMostPiecesPerCondition.
Status addPieces(Study &study, ConditionId condition, Method method, int more, const IdSource &ids);

/// Moves the reference to the top, the others keep their order.
Status setReference(Study &study, ConditionId id);

/// Changes name, unit or changedPer of a factor, or adds one at the end with the given level in every
/// condition.
/// Errors: InvalidArgument where a level is no number although the factor gets a unit, where two factors
/// would have one name, or there are kMostFactors already.
Status changeFactor(Study &study, std::size_t index, const Factor &factor);
Status addFactor(Study &study, const Factor &factor, const std::string &level);
/// Errors: InvalidArgument for the only factor, and where two conditions would become alike.
Status removeFactor(Study &study, std::size_t index);

/// Replaces the conditions by those of a design over these levels, the reference first. Conditions that are
/// there already keep their pieces; others go.
/// levels: of each factor, in order. Source of the designs: core/model/design.h.
/// Errors: those of the designs; InvalidArgument where a condition that would go holds data, for Chosen, and
/// for a fraction whose factors do not have two levels each.
Status applyDesign(Study &study, DesignKind design, const std::vector<std::vector<std::string>> &levels,
                   const IdSource &ids);

/// The levels that the conditions hold of a factor, in order of their first appearance.
std::vector<std::string> levelsOf(const Study &study, std::size_t factor);

/// Places a marker of a piece's record by hand, in place of an earlier placing.
/// method: of the piece's test. Errors: NotFound for a marker that the test does not have; InvalidArgument
/// for a piece without a record, an empty reason, a place below zero (a shift may be), or no place for a
/// marker that may not be none.
Status placeMarker(Piece &piece, Method method, std::string_view marker, const HandMarker &placed);

/// Back to what is found in the record: one marker, or all.
void clearMarker(Piece &piece, std::string_view marker);

/// Sets the piece's record; a record of another file takes the markers and the exclusion of the old one away.
void setRecording(Piece &piece, std::optional<Recording> recording);

/// Leaves a piece out of what is compared; the reason is kept with it, its blanks in order.
/// Errors: InvalidArgument without a reason.
Status leaveOut(Piece &piece, Exclusion exclusion);

/// True for a piece that holds nothing a person has entered or brought in.
bool isUntouched(const Piece &piece);

/// True for a piece on a plate that is printed.
bool isPrinted(const Study &study, PieceId piece);

} // namespace inchpeg
