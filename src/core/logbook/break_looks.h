// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/break_look.h"
#include "core/model/study.h"

#include <string_view>

namespace inchpeg
{

/// Says what the break of a piece looks like; an empty name takes that back.
/// Errors: InvalidArgument for a look that its test does not have, with those there are.
Status setBreakLook(Piece &piece, std::string_view name);

/// What was said of the breaks of a test's pieces that have a record, with how many there are of each.
struct SaidLooks {
    BreakLookCounts counts;
    std::size_t notSaid = 0;
};
SaidLooks saidLooks(const Study &study, Method test);

/// Suspect looks of the pieces that have a record and count, with how many there are of each.
BreakLookCounts suspectBreaks(const Study &study);

} // namespace inchpeg
