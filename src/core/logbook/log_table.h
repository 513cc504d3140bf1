// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/logbook/measuring.h"

#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// The unit in which values are kept: "mm", "mm²" or "g"; empty for a note.
std::string_view logUnit(LogField field);

/// One column of a table that is to be taken into the log.
struct TakenColumn {
    std::string heading;
    bool isCode = false;
    std::optional<LogPlace> place; ///< nothing for the code and for a column that is not taken
    std::optional<Unit> unit;      ///< of a number; what is usual where the heading names none
    std::string meaning;           ///< "width 1 in mm", or why it is not taken
};

/// What taking the table would do to one value.
struct TakenValue {
    PieceId piece;
    LogPlace place;
    std::optional<double> number; ///< in mm, mm² or g; nothing for a note
    std::string note;
    std::string before; ///< empty: there is nothing yet
    std::string after;
    TextPosition at{}; ///< of its cell
    [[nodiscard]] bool overwrites() const { return !before.empty(); }
};

/// A table as it was understood, before anything is changed.
struct TakenTable {
    std::vector<TakenColumn> columns;
    std::vector<TakenValue> values; ///< those that would change something
    std::size_t rows = 0;
    std::size_t unchanged = 0;   ///< values that stand there already
    std::vector<Error> problems; ///< rows and cells that are not taken, with their place
};

/// Reads a table with a heading line, as copied from a spreadsheet or written by this program: tabs,
/// semicolons or commas between the cells; decimal point or comma; units in brackets, after a comma or at the
/// end of the heading ("Width (in)", "thickness 2, mm", "mass_g"). A column of codes says which piece a row
/// is about; without one the rows go by the order of pieces. labPrefix: of the project's label codes, which
/// are understood in place of a piece's own code. Errors: BadInput where there is no heading, no column that
/// can be taken, or more rows than pieces without codes.
Result<TakenTable> readLogTable(const Study &study, std::string_view text, std::string_view labPrefix);

/// Takes the values of a table. replace: also where other values stand. gauges: what they were read with.
/// Errors: those of setLoggedValue(); nothing is taken then.
Status takeLogTable(Study &study, const TakenTable &table, bool replace, const MeasuringGauges &gauges = {});

} // namespace inchpeg
