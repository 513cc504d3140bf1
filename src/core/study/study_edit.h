// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/study/study.h"

#include <functional>

namespace inchpeg
{

/// Yields a new id each time it is called.
using IdSource = std::function<std::int64_t()>;

inline constexpr int kMostPiecesPerCondition = 200;

/// Adds a condition with its empty pieces at the end; the first becomes the reference.
/// Errors: InvalidArgument where the level is empty, is no number although the factor has a unit, or is
/// there already with the same orientation and material.
Status addCondition(Study &study, const Condition &wanted, const IdSource &ids);

/// Changes level, orientation and material of the condition with changed.id. Errors as above; NotFound.
Status changeCondition(Study &study, const Condition &changed);

/// Takes a condition and its empty pieces away.
/// Errors: InvalidArgument where one of its pieces has a section, a record or a reason to be left out.
Status removeCondition(Study &study, ConditionId id);

/// Gives every condition this many pieces. A piece that holds anything is never removed.
/// Errors: InvalidArgument outside 1 to kMostPiecesPerCondition.
Status setPiecesPerCondition(Study &study, int count, const IdSource &ids);

/// Moves the reference to the top, the others keep their order.
Status setReference(Study &study, ConditionId id);

/// Places a marker of a piece's record by hand, in place of an earlier placing.
/// Errors: InvalidArgument for a piece without a record, an empty reason, a sample or strain below zero (a
/// toe may be), or no place for anything but the yield.
Status placeMarker(Piece &piece, Marker marker, const HandMarker &placed);

/// Back to what is found in the record: one marker, or all.
void clearMarker(Piece &piece, Marker marker);

/// Sets the piece's record; a record of another file takes the markers and the exclusion of the old one away.
void setRecording(Piece &piece, std::optional<Recording> recording);

/// True for a piece that holds nothing a person has entered or brought in.
bool isUntouched(const Piece &piece);

} // namespace inchpeg
