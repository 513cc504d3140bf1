// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/decide/decision.h"
#include "core/report/study_report.h"
#include "service/project_results.h"

namespace inchpeg
{

/// The study that a person names: by its question, by how the question begins, or by its number.
/// Errors: NotFound with the questions there are; InvalidArgument where several begin so.
Result<StudyId> studyNamed(ProjectFile &project, std::string_view name);

/// Where a report comes from: the project's file, this program, the day.
ReportOrigin reportOrigin(const ProjectFile &project, std::string version, std::string day);

/// The report of a study with what was read of all studies. Errors: NotFound; those of the project file.
Result<Report> reportOf(ProjectFile &project, const ProjectResults &all, StudyId study, ReportOrigin origin,
                        const Notation &notation);

} // namespace inchpeg
