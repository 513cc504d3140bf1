// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study_difference.h"
#include "core/model/workshop.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// A text that the project keeps under a name, before and after a step.
struct KeptText {
    std::string name;
    std::string before;
    std::string after;
};

/// The steps that can be taken back: what each edit changed in the study, or the workshop or a kept text
/// before and after it. Raw data are part of neither, so they stay whatever is undone.
class EditHistory
{
public:
    struct Step {
        std::string what;
        StudyId studyId; ///< that it changed; 0 where it changed none
        std::optional<StudyDifference> study;
        std::optional<Workshop> workshopBefore; ///< only where the step changed the workshop, not the study
        std::optional<Workshop> workshopAfter;
        std::optional<KeptText> text{}; ///< only where it changed that
    };

    void clear();
    void add(Step step);
    [[nodiscard]] std::string undoText() const; ///< empty where there is nothing to undo
    [[nodiscard]] std::string redoText() const;
    [[nodiscard]] const Step *undoStep() const;
    [[nodiscard]] const Step *redoStep() const;
    void stepBack();
    void stepForward();

private:
    std::vector<Step> m_steps;
    std::size_t m_done = 0; ///< how many of the steps are in force
};

} // namespace inchpeg
