// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/break_looks.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

Status setBreakLook(const Study &study, Piece &piece, std::string_view name)
{
    const std::span<const BreakLook> looks = breakLooksOf(testOf(study, piece));
    const bool isThere =
        std::any_of(looks.begin(), looks.end(), [&](const BreakLook &look) { return look.name == name; });
    if (!name.empty() && !isThere) {
        std::string known;
        for (const BreakLook &look : looks)
            known += (known.empty() ? "" : ", ") + std::string(look.name);
        return invalidArgument(
            fmt::format("piece {}: \"{}\" is no look of a break in {}; {}", piece.code, name,
                        methodName(testOf(study, piece)),
                        known.empty() ? "none is asked for" : fmt::format("known are {}", known)));
    }
    piece.log.breakLook = name;
    return ok();
}

std::vector<std::pair<const BreakLook *, std::size_t>> suspectBreaks(const Study &study)
{
    std::vector<std::pair<const BreakLook *, std::size_t>> counts;
    for (const Piece &piece : study.pieces) {
        const BreakLook *look = findBreakLook(piece.log.breakLook);
        if (look == nullptr || !look->isSuspect || !piece.recording || piece.exclusion)
            continue;
        const auto known = std::find_if(counts.begin(), counts.end(),
                                        [&](const auto &count) { return count.first == look; });
        if (known == counts.end())
            counts.emplace_back(look, 1);
        else
            ++known->second;
    }
    return counts;
}

} // namespace inchpeg
