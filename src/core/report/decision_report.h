// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/decide/decision.h"
#include "core/report/report.h"
#include "core/report/study_report.h"

#include <vector>

namespace inchpeg
{

/// The candidates against the needs, a row each: filled passes, crossed fails, hollow is not known. So many
/// candidates to a picture.
std::vector<Drawing> gatesDrawings(const Decision &decision, std::size_t candidatesEach = 16);

/// A decision that can be defended: the part's needs, the order with its reasons, what is known of each
/// candidate for each need and on what evidence, and what to test next. money: the workshop's.
Report decisionReport(const Decision &decision, const ReportOrigin &origin, const Notation &notation,
                      const std::string &money);

} // namespace inchpeg
