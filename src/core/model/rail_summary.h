// SPDX-License-Identifier: GPL-3.0-or-later
// Summaries of rails whose pieces are not here: how they are kept, and what they may be.
#pragma once

#include "core/model/study.h"

#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// What is wrong with a summary, in a sentence; empty: nothing.
std::string troubleOf(const RailSummary &summary);

/// Keeps a summary in place of the one of the same property that the rail has.
/// Errors: NotFound for a rail that is not there; InvalidArgument with what troubleOf() says.
Status setSummary(Study &study, ConditionId rail, RailSummary summary);
/// Errors: NotFound where the rail has none of that property.
Status clearSummary(Study &study, ConditionId rail, Method test, std::string_view property);

/// As a JSON list: docs/project_format.md. Empty where there are none.
std::string summariesText(const std::vector<RailSummary> &summaries);
/// Errors: BadInput, with the key.
Result<std::vector<RailSummary>> summariesFromText(std::string_view text);

} // namespace inchpeg
