// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/report/report.h"

#include <string>

namespace inchpeg
{

/// The whole report as one page that needs nothing beside it: pictures as SVG inside, styles for screen and
/// paper.
std::string htmlReport(const Report &report);

/// The rows of a table under their headings, as HTML that a browser and Qt's text documents both read.
std::string tableHtml(const ReportTable &table);

} // namespace inchpeg
