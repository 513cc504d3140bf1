// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/import/column.h"
#include "core/units/number.h"

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// The part of a table that one of several specimens has.
struct SpecimenPart {
    std::string name;
    std::string column;                  ///< that names the specimens; empty where the time tells them apart
    std::optional<std::size_t> lastLine; ///< from 1; nothing where they stand side by side
    bool operator==(const SpecimenPart &) const = default;
};

/// How a delimited text is laid out and what its columns are.
struct Layout {
    char delimiter = ','; ///< kNoDelimiter where there is one column only
    NumberFormat numbers;
    bool trailingDelimiter = false; ///< each line ends with a delimiter that makes no column
    std::size_t headerLines = 0;    ///< lines before the first data row, all that is above it included
    std::optional<std::size_t> headingLine; ///< line (from 1) that names the columns
    std::optional<std::size_t> unitsLine;   ///< line (from 1) that holds their units
    std::vector<Column> columns;
    std::vector<std::string> emptyColumns; ///< that a heading wider than its rows names; they hold nothing
    bool hasRowNames = false;              ///< the first column names the rows; the heading does not name it
    std::optional<SpecimenPart> specimen;  ///< of a table that holds several
    std::string question; ///< a sentence: what has to be put right before it is read; else empty
    std::string doubt;    ///< a sentence: why it may be no record at all; else empty
    bool operator==(const Layout &) const = default;
};

/// Finds the layout from the first lines of a text.
///
/// Every pair of delimiter (tab, semicolon, comma, bar, blanks, none) and decimal mark is tried; the pair
/// that explains heading, units and rows together wins. The first data row is the first whose numeric columns
/// all hold numbers; the line above names the columns, or gives their units if all of its cells are units. Of
/// several tables it is the largest among the first lines. docs/methods.md, "Reading delimited text", tells
/// the rules. Errors: BadInput for a text without any row of numbers.
Result<Layout> findLayout(std::string_view text);

/// The layouts of the tables among the first lines of a text; the last is the largest of them.
/// Errors: as findLayout().
Result<std::vector<Layout>> findFirstTables(std::string_view text);

/// The layouts of all tables of a text, in their order; reads the whole text.
/// Errors: BadInput for a text without any row of numbers.
Result<std::vector<Layout>> findTables(std::string_view text);

/// Whether a line below the rows of a table, given by its cells, is the heading of another one: text in two
/// cells or more (one, where the table has one), without a number, that names a quantity or fills three
/// columns or more.
bool beginsAnotherTable(const std::vector<std::string_view> &cells, const Layout &layout);

/// The line (from 1) where the next table begins; nothing where there is none.
std::optional<std::size_t> lineOfNextTable(std::string_view text, const Layout &layout);

/// What has to be put right or chosen before the table is read, as an error with its line: heading and rows
/// of different width, a unit that does not fit its quantity, two units that contradict each other.
Status checkColumns(const Layout &layout);

/// A text that is equal for files of the same shape: the delimiter, the decimal mark and the headings.
/// A mapping that a person has corrected is remembered under it.
std::string layoutSignature(const Layout &layout);

} // namespace inchpeg
