// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/break_looks.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

Status setBreakLook(Piece &piece, std::string_view name)
{
    const std::span<const BreakLook> looks = factsOf(piece.test).looks;
    const bool isThere =
        std::any_of(looks.begin(), looks.end(), [&](const BreakLook &look) { return look.name == name; });
    if (!name.empty() && !isThere) {
        std::string known;
        for (const BreakLook &look : looks)
            known += (known.empty() ? "" : ", ") + std::string(look.name);
        return invalidArgument(fmt::format(
            "piece {}: \"{}\" is no look of a break in {}; {}", piece.code, name, methodName(piece.test),
            known.empty() ? "none is asked for" : fmt::format("known are {}", known)));
    }
    piece.log.breakLook = name;
    return ok();
}

SaidLooks saidLooks(const Study &study, Method test)
{
    SaidLooks said;
    for (const Piece &piece : study.pieces) {
        if (piece.test != test || !piece.recording)
            continue;
        if (const BreakLook *look = findBreakLook(piece.log.breakLook))
            countBreakLook(said.counts, *look);
        else
            ++said.notSaid;
    }
    return said;
}

BreakLookCounts suspectBreaks(const Study &study)
{
    BreakLookCounts counts;
    for (const Piece &piece : study.pieces) {
        const BreakLook *look = findBreakLook(piece.log.breakLook);
        if (look != nullptr && look->isSuspect && piece.recording && !piece.exclusion)
            countBreakLook(counts, *look);
    }
    return counts;
}

} // namespace inchpeg
