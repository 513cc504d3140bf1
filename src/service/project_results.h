// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/decide/evidence.h"
#include "core/model/workshop.h"
#include "store/project_file.h"

#include <vector>

namespace inchpeg
{

/// Under which a project keeps what a part has to do: docs/needs_format.md.
inline constexpr const char *kNeedsSetting = "needs";

/// All studies of a project with what is read of their pieces.
struct ProjectResults {
    std::vector<Study> studies;
    std::vector<PieceReadings> readings; ///< of each study
    Workshop workshop;
    std::vector<BoughtPart> bought;      ///< of the needs that the project keeps
    std::vector<std::string> problems{}; ///< studies that could not be opened, a sentence each

    /// Points into this.
    [[nodiscard]] std::vector<StudyResults> results() const;
    /// Of one study; points into this as well. Errors: NotFound.
    [[nodiscard]] Result<StudyResults> of(StudyId study) const;
};

/// The results of the projects that a workshop names as its library; those that cannot be read are told.
struct LibraryResults {
    std::vector<ProjectResults> projects;
    std::vector<std::string> problems; ///< a sentence each

    /// Points into this and own.
    [[nodiscard]] std::vector<StudyResults> beside(const ProjectResults &own) const;
};
/// ownPath: of the project that asks; it is passed over where the library names it.
LibraryResults readLibrary(const Workshop &workshop, const std::string &ownPath);

/// Readings that are kept and still good are taken; the others are made anew.
/// only: that study alone, where nothing is said of the others.
/// Errors: those of the project file, and of the study that is asked for alone. Of all, a damaged study is
/// told among the problems. A record that cannot be read is a reading with its error.
Result<ProjectResults> readProjectResults(ProjectFile &project, std::optional<StudyId> only = {});

} // namespace inchpeg
