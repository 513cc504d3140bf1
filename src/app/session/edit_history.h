// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/plan/workshop.h"
#include "core/study/study.h"

#include <QString>

#include <optional>
#include <vector>

namespace inchpeg::app
{

/// The steps that can be taken back: a study, or the workshop, before and after each edit. Raw data are part
/// of neither, so they stay whatever is undone.
class EditHistory
{
public:
    struct Step {
        QString what;
        Study before;
        Study after;
        std::optional<Workshop> workshopBefore; ///< only where the step changed the workshop, not the study
        std::optional<Workshop> workshopAfter;
    };

    void clear();
    void add(Step step);
    [[nodiscard]] QString undoText() const; ///< empty where there is nothing to undo
    [[nodiscard]] QString redoText() const;
    [[nodiscard]] const Step *undoStep() const;
    [[nodiscard]] const Step *redoStep() const;
    void stepBack();
    void stepForward();

private:
    std::vector<Step> m_steps;
    std::size_t m_done = 0; ///< how many of the steps are in force
};

} // namespace inchpeg::app
