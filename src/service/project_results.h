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

/// Studies of a project with what is read of their pieces.
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
/// Whether what a study with these tests gave can bear on what is said of a study with those: they share a
/// test, or that is a service trial, which is held beside coupons of any test.
bool canBearOn(const std::vector<Method> &tests, const std::vector<Method> &ofStudy);

/// Of the studies that can bear on one with these tests, values without curves.
/// ownPath: of the project that asks; it is passed over where the library names it.
LibraryResults readLibrary(const Workshop &workshop, const std::string &ownPath,
                           const std::vector<Method> &tests);

/// Readings that are kept and still good are taken; the others are made anew, on all cores. A record that
/// cannot be read is a reading with its error; of several studies, one that is damaged is told among the
/// problems.
///
/// Of all studies, values without curves. Errors: those of the project file.
Result<ProjectResults> readProjectResults(ProjectFile &project);
/// Of that study alone. Errors: those of the project file and of the study; NotFound.
Result<ProjectResults> readStudyResults(ProjectFile &project, StudyId study);
/// Of that study, and values without curves of those that can bear on what is said of it. Errors: as above.
Result<ProjectResults> readResultsAround(ProjectFile &project, StudyId study);

} // namespace inchpeg
