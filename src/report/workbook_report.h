// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/report/report.h"

namespace inchpeg
{

/// The report as a workbook (Office Open XML): one sheet of what it says, then one a table, numbers as
/// numbers with the digits that are printed. Errors: Storage where the file cannot be written.
Status writeWorkbookReport(const Report &report, const std::string &path);

} // namespace inchpeg
