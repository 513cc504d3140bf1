// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/report/study_report.h"
#include "service/project_export.h"

namespace inchpeg
{

struct OpenDataWritten {
    std::size_t files = 0;  ///< in the package
    std::size_t values = 0; ///< rows of values.csv
};

/// Writes a study as a Frictionless Data Package (specifications of 2017, version 1): tidy tables, curves,
/// raw records, and scripts that recompute its first verdict. to: a new or empty folder, or a file that ends
/// in .zip. docs/open_data/README.md tells what stands where. Errors: NotFound; Storage where it exists or
/// cannot be written; Cancelled; those of the project file.
Result<OpenDataWritten> writeOpenData(ProjectFile &project, StudyId study, const std::string &to,
                                      const ReportOrigin &origin, const std::stop_token &stop = {},
                                      const ExportProgress &progress = {});

} // namespace inchpeg
