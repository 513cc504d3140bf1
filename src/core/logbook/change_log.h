// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// One logged value that became another.
struct LoggedChange {
    PieceId piece;      ///< 0: something of the study, not of one piece
    std::string what;   ///< "width 2", "plate 3: nozzle temperature", "left out"
    std::string before; ///< empty: there was none
    std::string after;  ///< empty: taken away
    std::string who;
    std::string when; ///< ISO 8601, UTC
    bool operator==(const LoggedChange &) const = default;
};

/// What a change of a study did to logged values: readings, masses, lengths, notes, failures, photos,
/// records, pieces left out, markers, plates' records, timed steps. Values in mm and g with a decimal point.
std::vector<LoggedChange> loggedChanges(const Study &before, const Study &after, const std::string &who,
                                        const std::string &when);

/// The logged values of a piece by name, as they stand in the history.
std::map<std::string, std::string> loggedValuesOf(const Study &study, const Piece &piece);

} // namespace inchpeg
