// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/json_fields.h"
#include "core/model/study_edit.h"
#include "core/planning/planned_test.h"

namespace inchpeg
{

/// Plans as JSON, in and out, for scripts: docs/plan_format.md.

struct PlanSpec {
    Study study;
    Workshop workshop;
    bool saysWorkshop = false; ///< it is of the description, not the usual one
};

/// A study made of a description: question, method, factors with their levels, design, pieces, plan,
/// workshop. Errors: BadInput, with the key; those of applyDesign() and setPiecesPerCondition().
Result<PlanSpec> planFromSpec(std::string_view text, const IdSource &ids);

/// Everything that follows from a plan: conditions, aliases, number of pieces, rig check, plates, orders,
/// costs, confounds, cautions, calendar.
/// Errors: those of layOutCalendar().
Result<OrderedJson> planReport(const Study &study, const Workshop &workshop, const OwnResults &own);

} // namespace inchpeg
