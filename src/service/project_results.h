// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/decide/evidence.h"
#include "core/model/workshop.h"
#include "store/project_file.h"

#include <vector>

namespace inchpeg
{

/// All studies of a project with what is read of their pieces.
struct ProjectResults {
    std::vector<Study> studies;
    std::vector<PieceReadings> readings; ///< of each study
    Workshop workshop;

    /// Points into this.
    [[nodiscard]] std::vector<StudyResults> results() const;
};

/// Readings that are kept and still good are taken; the others are made anew.
/// Errors: those of the project file. A record that cannot be read is a reading with its error.
Result<ProjectResults> readProjectResults(ProjectFile &project);

} // namespace inchpeg
