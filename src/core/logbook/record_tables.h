// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"

#include <string_view>
#include <vector>

namespace inchpeg
{

/// The plates' records of a table "plate, about, name, value, done, by, at": docs/log_format.md. Tabs,
/// semicolons and commas part the cells. Errors: BadInput with the line, for a heading that is missing, a row
/// that is no record, setting or event, and values that cannot be.
Result<std::vector<PlateRecord>> readPlateTable(std::string_view text);

/// The timed steps of a table "step, plates, start, end …": docs/log_format.md. Errors: as above.
Result<std::vector<TimedStep>> readStepTable(std::string_view text);

/// Puts the records in place of those of the same plates. Errors: InvalidArgument for a plate that is not
/// printed; nothing is taken then.
Status takePlateRecords(Study &study, const std::vector<PlateRecord> &records);

/// Puts each step in place of the one of its kind, plates and start; adds those that there are none of.
/// Errors: as above.
Status takeSteps(Study &study, const std::vector<TimedStep> &steps);

} // namespace inchpeg
