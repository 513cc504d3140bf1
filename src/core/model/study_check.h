// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// What does not fit together in a study that came from a file.
struct StudyFindings {
    /// What no program can put right: a piece on a rail that is not there. A sentence each, with the place.
    std::vector<std::string> broken;
    /// What mendStudy() puts right, and how: "the reference was no rail of the study; it is its first now".
    std::vector<std::string> mendable;

    [[nodiscard]] bool isSound() const { return broken.empty() && mendable.empty(); }
};

/// Looks through a whole study, as opening, import and verify do: ids, references between tests, factors,
/// rails, pieces, plan and log, and values that cannot be (a section of no width, a difference below zero).
StudyFindings checkStudy(const Study &study);

/// Puts right what can be put right without inventing anything; afterwards checkStudy() finds nothing
/// mendable. Yields what was done, a sentence each.
std::vector<std::string> mendStudy(Study &study);

} // namespace inchpeg
