// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/compared_rails.h"

#include <optional>

namespace inchpeg
{

/// How a property goes along the levels of a number, as far as the rails show it. Nothing is taken from a
/// curve that does not fit: docs/methods.md, "Answers".
struct LevelShape {
    enum class Kind {
        Straight,    ///< nothing speaks against a straight line
        NotStraight, ///< a line does not hold, and none of the shapes below is shown
        Turn,        ///< an inner level is clearly above, or below, levels on both sides
        Stays,       ///< it changes up to a level and from there on no more is shown, or the other way round
    };
    Kind kind = Kind::Straight;
    bool tellsApart = false; ///< some two levels are told apart

    bool isMaximum = true; ///< of a turn
    double at = 0.0;       ///< near there it turns: the parabola's place where one fits, else the level seen
    bool isOfParabola = false;
    std::optional<Interval> ofParabola; ///< where it alone would have the turn
    Interval where;                     ///< holds the turn of any curve that turns once

    Interval stays;         ///< levels that are not told apart
    bool isAtTheEnd = true; ///< they are the highest levels; else the lowest
    bool rises = true;      ///< where it does not stay, towards the higher levels

    std::optional<double> changePerEnds; ///< of the last level beside the first, where no line holds
    Interval changeCi;                   ///< on the procedure's scale
};

/// Nothing without three levels of one numbered factor that can be compared.
std::optional<LevelShape> shapeAlongLevels(const StudyComparison &comparison, const ComparedRails &rails);

} // namespace inchpeg
