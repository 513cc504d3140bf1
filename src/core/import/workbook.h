// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// Begins a line that parts two sheets; no table goes on past one.
inline constexpr char kSheetMark = '\f';

/// Where a sheet begins in the text of its workbook.
struct SheetLines {
    std::string name;
    std::size_t firstLine = 1; ///< that holds the sheet's row 1
};

struct WorkbookText {
    std::string utf8;
    std::vector<SheetLines> sheets; ///< in the order of the text
    bool isOpenDocument = false;
};

/// True for the bytes of a zip archive, which a workbook (.xlsx, .ods) is.
bool isWorkbook(std::string_view bytes);

/// What a file is that no reader here reads, and what to do: the older and the binary workbooks, a compressed
/// file. Nothing for other files.
std::optional<std::string> whatCannotBeRead(std::string_view bytes);

/// The cells of all sheets as a tab-separated text in UTF-8, with numbers in full and a decimal point: what
/// any other file of readings is read from. Each row of a sheet is a line; a line of kSheetMark parts two
/// sheets; hidden ones come last. Formulas give the result that the workbook holds; the value of cells that
/// are merged down the rows stands in each of these; notes beside a table, parted from it by an empty column,
/// are left out.
/// Errors: BadInput where the bytes are no workbook, are damaged, or would unpack to more than half a
/// gigabyte.
Result<WorkbookText> workbookText(std::string_view bytes);

} // namespace inchpeg
