// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// Stands for "the whole line is one cell".
inline constexpr char kNoDelimiter = '\0';

/// Splits a line into cells; cells is cleared first and keeps its storage between calls. A space as
/// delimiter means any run of spaces and tabs. Quotes around a cell are taken off; doubled quotes inside
/// stay doubled (unquoted() mends them), so that no text is copied.
void splitCells(std::string_view line, char delimiter, std::vector<std::string_view> &cells);

/// The cell's text with doubled quotes made single.
std::string unquoted(std::string_view cell);

/// What parts the cells of a table with a heading line: a tab, semicolon or comma, in this order;
/// kNoDelimiter where the heading has none.
char delimiterOf(std::string_view heading);

/// The next row of a table without its end; advances text past it. A line end inside a quoted cell belongs to
/// the cell; a quote that is never closed stands for itself. Precondition: text is not empty.
std::string_view takeRecord(std::string_view &text, char delimiter);

/// The text of a cell as it was before it was written to a table: doubled quotes made single, blanks around
/// it taken off, and the apostrophe that keeps a spreadsheet from taking it for a formula.
std::string cellText(std::string_view cell);

} // namespace inchpeg
