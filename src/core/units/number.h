// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <string_view>

namespace inchpeg
{

constexpr bool isDigit(char c)
{
    return static_cast<unsigned char>(c - '0') < 10;
}

/// The text without blanks (space, tab, CR, no-break spaces) at both ends.
std::string_view trimmed(std::string_view text);
/// Its words with one blank between them; blanks and line ends are one.
std::string singleSpaced(std::string_view text);

/// How numbers are written in a file.
struct NumberFormat {
    char decimal = '.';
    /// True where the other mark, an apostrophe or a kind of space may group the digits by threes.
    bool groups = false;
    /// True where a plain space may group digits; never where spaces separate the cells.
    bool spaceGroups = false;
    bool operator==(const NumberFormat &) const = default;
};

enum class CellKind {
    Empty,
    Number,
    NotFinite, ///< NaN, NA, inf or a number too large for a double: looks like a number, holds no value
    Text,
};

struct Cell {
    CellKind kind = CellKind::Empty;
    double value = 0.0; ///< only for Number
};

/// One cell of a file, read by a format. Never allocates.
Cell readCell(std::string_view text, const NumberFormat &format);

/// A number as a person types it: decimal point or comma, no grouping; nothing when it is not one.
std::optional<double> parseTypedNumber(std::string_view text);

/// How many leading characters of a typed quantity belong to its number ("1.25kgf": 4).
std::size_t numberPrefixLength(std::string_view text);

} // namespace inchpeg
