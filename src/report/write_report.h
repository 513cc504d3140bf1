// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "report/pdf_report.h"

#include <string>

namespace inchpeg
{

/// Writes a report; the ending of the name decides: .pdf, .html or .xlsx. A file of that name stays whole
/// until the new one is. Needs a QGuiApplication for a PDF. Errors: InvalidArgument for another ending;
/// Storage; Cancelled.
Status writeReport(const Report &report, const std::string &path, Paper paper,
                   const std::stop_token &stop = {}, const PageProgress &progress = {});

/// The same of a report that was laid out already.
Status writeReport(const Report &report, const PagedReport &pages, const std::string &path,
                   const std::stop_token &stop = {}, const PageProgress &progress = {});

/// Writes a drawing: .svg as vectors, .png at 1.6 picture points to a unit of it.
/// Errors: InvalidArgument for another ending; Storage.
Status writeDrawing(const Drawing &drawing, const std::string &title, const std::string &path);

} // namespace inchpeg
