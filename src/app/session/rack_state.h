// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/ids.h"

#include <optional>
#include <set>
#include <string>

namespace inchpeg::app
{

enum class Lens { Plan, Log, Bench, Read, Compare, Decide };

/// Where a person is in a project, kept with it, so that it opens there again.
struct RackState {
    StudyId study;
    Lens lens = Lens::Plan;
    PieceId piece;
    std::set<ConditionId> hiddenRails;
    std::string property; ///< that is compared; empty where none was kept
    bool isTestTableShown = false;
    bool isGraphShown = false;
    std::optional<bool> isResponseTableShown; ///< as chosen; nothing: as the study has it
};

std::string rackStateText(const RackState &view);
/// What cannot be understood is as in a new project.
RackState rackStateFrom(const std::string &text);

} // namespace inchpeg::app
