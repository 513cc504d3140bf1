// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/intake/results_table.h"

namespace inchpeg
{

/// Rails and pieces of the rows of a table: from its factor columns, else from the names of its pieces.
StudyProposal proposeFromResults(const ResultsTable &table);

} // namespace inchpeg
