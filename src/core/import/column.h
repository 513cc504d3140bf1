// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/import/clock_time.h"
#include "core/units/unit.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace inchpeg
{

/// What a column of readings measures. Length is a size of the piece, extension how far it gave way
/// (also a deflection or a crosshead travel).
// g++ 12 takes scoped enumerators for shadows of the quantity types of the same names.
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wshadow"
enum class ColumnQuantity { Force, Extension, Strain, Time, Temperature, Torque, Angle, Length, Hardness };
#pragma GCC diagnostic pop

/// The name used in the command line's results and in project files: "force", "extension" …
std::string_view quantityName(ColumnQuantity quantity);
std::optional<ColumnQuantity> quantityFromName(std::string_view name);

/// What the units of a quantity measure.
Dimension dimensionOf(ColumnQuantity quantity);

/// How one column of a file is understood.
struct Column {
    std::string name;    ///< without its unit
    std::string heading; ///< as the file names it; empty where it does not
    std::optional<ColumnQuantity> quantity;
    std::optional<Unit> unit;    ///< the working unit where the file names none; nothing without a quantity
    bool unitAssumed = false;    ///< the file names no unit
    bool isCrosshead = false;    ///< an extension of the machine, not of the gauge length
    bool isTransverse = false;   ///< a strain across the pull
    bool isNumeric = true;       ///< its cells are numbers: text in one of them is no part of a row
    std::string unknownUnitText; ///< what stands where a unit is expected but is none that fits; else empty
    std::string question;        ///< a sentence: what cannot be known of it, and has to be chosen; else empty
    std::string cellUnit;        ///< that stands behind each number of the column, "12.3 N"; else empty
    std::optional<ClockForm> clock; ///< its cells are times of day, read in seconds
    bool isFromFirstRow = false;    ///< counted from its first row: a clock, seconds since 1970, uptime
    bool operator==(const Column &) const = default;
};

/// What stands in the brackets around a whole text, "[mm]"; the text itself where there are none.
std::string_view withoutBrackets(std::string_view text);

/// Understands a column from its heading and, if the file has a row of units, its unit cell. Only a name or a
/// unit makes a quantity: a unit of "-" or "1" makes none.
Column understandColumn(std::string_view heading, std::string_view unitCell);

/// The unit that stands behind each number of a column's cells. It is the column's where the heading names
/// none, and a share's always; one that contradicts the heading is a question.
/// others: the columns beside it; one whose heading tells nothing becomes no second of a quantity.
void takeCellUnit(Column &column, std::string_view cellUnit, std::span<const Column> others);

/// A sentence about the unit that does not fit, for a column with unknownUnitText.
std::string unknownUnitMessage(const Column &column);

/// A sentence about the unit that was taken where the file names none.
std::string unitAssumedMessage(const Column &column);

} // namespace inchpeg
