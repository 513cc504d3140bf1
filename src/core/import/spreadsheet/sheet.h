// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/import/spreadsheet/archive.h"

#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

inline constexpr std::size_t kMostSheetRows = 1048576;
inline constexpr std::size_t kMostSheetColumns = 16384;

/// A block of merged cells; its value stands in the first.
struct MergedCells {
    std::size_t row = 0;
    std::size_t column = 0;
    std::size_t rows = 1;
};

struct SheetCell {
    std::size_t column = 0;
    std::string text; ///< on one line
};

/// The filled cells of a sheet as text: numbers in full with a decimal point, shares as percent, times of day
/// and days as ISO 8601 writes them, a number whose format shows a unit with that unit behind it.
struct Sheet {
    std::string name;
    bool isHidden = false;
    std::vector<std::vector<SheetCell>> rows; ///< each in the order of its columns
    std::vector<MergedCells> merged;          ///< those of several rows
};

/// Puts a cell's text in its place; an empty one and what lies beyond the limits is passed over.
void putCell(Sheet &sheet, std::size_t row, std::size_t column, std::string text);
/// The cell's text; empty where there is none.
std::string_view textAt(const Sheet &sheet, std::size_t row, std::size_t column);

/// An Excel workbook (ECMA-376, Office Open XML, parts 1 and 2). Errors: BadInput where the archive holds
/// none, or its parts cannot be read.
Result<std::vector<Sheet>> readExcelWorkbook(const Archive &archive);

/// An OpenDocument spreadsheet (ISO/IEC 26300). Errors: as above.
Result<std::vector<Sheet>> readOpenDocument(const Archive &archive);

/// A number that the sheet shows as percent: "12.35 %". text: the number as it is kept.
std::string percentText(std::string_view text);
/// The last word of what a cell shows, where it is a unit that stands behind a number; empty where it is not.
std::string_view unitBehindNumber(std::string_view shown);

} // namespace inchpeg
