// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <string>
#include <string_view>

namespace inchpeg
{

/// Begins a line that names a sheet; no table goes on past one.
inline constexpr char kSheetMark = '\f';

/// True for the bytes of a zip archive, which an Excel workbook (.xlsx) is.
bool isWorkbook(std::string_view bytes);

/// The cells of all sheets as a tab-separated text in UTF-8, with numbers in full and a decimal point: what
/// any other file of readings is read from. Each sheet begins with a line of kSheetMark and its name;
/// formulas give the result that the workbook holds. Errors: BadInput where the bytes are no workbook, are
/// damaged, or would unpack to more than half a gigabyte.
Result<std::string> workbookText(std::string_view bytes);

} // namespace inchpeg
