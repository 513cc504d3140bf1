// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/planned_test.h"
#include "core/reading/piece_reading.h"
#include "service/project_results.h"

namespace inchpeg
{

/// Mean of the reference and scatter of the study's first test, from its own readings; empty with fewer than
/// two rails of three pieces.
OwnResults resultsOfStudy(const Study &study, const PieceReadings &readings);

/// The same from the project's other studies of the same method: the mean from rails of the same polymer and
/// orientation as the reference, the scatter from all. Empty where there is nothing or the project cannot be
/// read.
OwnResults earlierResults(ProjectFile &project, const Study &study, UnreadRecords unread, Keeping keeping);

/// What earlierResults() hangs on, as a text; the same text gives the same results as long as no other study
/// of the project changes.
std::string earlierResultsKey(const Study &study);

/// The study's own where there are any, else the earlier ones; records are read where they have to be.
/// Errors: those of the study.
Result<OwnResults> ownResults(ProjectFile &project, StudyId study, Keeping keeping);

} // namespace inchpeg
