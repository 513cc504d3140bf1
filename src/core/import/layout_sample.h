// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/number.h"

#include <cstddef>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A line of a text that is not blank.
struct SampleLine {
    std::size_t number = 0; ///< from 1, in the whole text
    std::string_view text;
};

/// The first lines that are not blank, those before fromLine left out (0: none is).
std::vector<SampleLine> sampleLines(std::string_view text, std::size_t fromLine = 0);

/// One way to read a sample: a delimiter, a decimal mark, and what they make of each line.
struct SampleReading {
    char delimiter = ',';
    NumberFormat numbers;
    std::vector<std::vector<std::string_view>> cells; ///< of each line
    std::vector<std::vector<CellKind>> kinds;
    std::size_t columnCount = 0;    ///< of the rows
    std::size_t firstRow = 0;       ///< where the longest run of rows begins
    bool trailingDelimiter = false; ///< each row ends with a delimiter that makes no column
    double score = 0.0;
    std::size_t groupedCells = 0; ///< numbers that only digit grouping explains
    std::size_t plainNumbersWhereGrouped = 0;
};

/// The delimiter (tab, semicolon, comma, bar, blanks, none) and decimal mark that explain heading, units and
/// rows together: most rows of equally many numbers in one run, below a heading of as many names.
SampleReading bestReading(const std::vector<SampleLine> &lines);

bool isNumberLike(CellKind kind); ///< a number, or one that is not finite
std::size_t numberLikeCells(const std::vector<CellKind> &kinds);

/// Text without any number, in about as many cells as the table has columns.
bool isHeadingLine(const SampleReading &reading, std::size_t i);
/// A remark such as "# begin": fewer cells than a row, none of them a number, and a mark in front.
bool isMarkedRemark(const SampleReading &reading, std::size_t i, std::size_t count);
/// A cell of the line tells a quantity by its words or its unit.
bool namesAQuantity(const std::vector<std::string_view> &cells);
/// Units, bracketed or not, "-" and nothing; one unit at least.
bool isUnitsLine(const std::vector<std::string_view> &cells);

} // namespace inchpeg
