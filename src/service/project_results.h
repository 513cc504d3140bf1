// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/decide/evidence.h"
#include "core/model/workshop.h"
#include "store/project_file.h"

#include <functional>
#include <optional>
#include <vector>

namespace inchpeg
{

/// Under which a project keeps what a part has to do: docs/needs_format.md.
inline constexpr const char *kNeedsSetting = "needs";

/// Whether what had to be read is kept in the project, so that nobody has to read it again.
enum class Keeping {
    No,
    IfFree, ///< where no program has the project open for writing, and its folder may be written
    Held,   ///< this program has the project open for writing
};

/// Studies of a project with what is read of their pieces, or with what their rails came to.
struct ProjectResults {
    std::vector<Study> studies;
    std::vector<PieceReadings> readings;            ///< of each study
    std::vector<std::optional<StudyValues>> values; ///< … in place of its pieces and readings
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
/// test, or one of them is a service trial, which is held beside coupons of any test.
bool canBearOn(const std::vector<Method> &tests, const std::vector<Method> &ofStudy);

/// Of the studies that can bear on one with these tests, what their rails came to; a library is kept as it
/// is.
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
Result<ProjectResults> readStudyResults(ProjectFile &project, StudyId study, Keeping keeping);
/// Of that study, and what the rails of those came to that can bear on what is said of it. Errors: as above.
Result<ProjectResults> readResultsAround(ProjectFile &project, StudyId study, Keeping keeping);

/// Records that nobody has read yet.
enum class UnreadRecords { Read, PassOver };
/// What the rails of the wanted studies came to. Errors: those of the project file.
Result<ProjectResults> readValues(ProjectFile &project,
                                  const std::function<bool(const StudyHeader &)> &isWanted,
                                  UnreadRecords unread, Keeping keeping);

} // namespace inchpeg
