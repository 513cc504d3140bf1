// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/workshop/card_table_model.h"

namespace inchpeg::app
{

/// The lists that stand on a card: which card is meant is told by its row in the table above, shared with it.
using CardRow = std::shared_ptr<std::size_t>;

std::unique_ptr<CardTableModel> gaugeTable(ProjectSession &session);
std::unique_ptr<CardTableModel> rigCalibrationTable(ProjectSession &session, const CardRow &rig);
std::unique_ptr<CardTableModel> gaugeCalibrationTable(ProjectSession &session, const CardRow &gauge);
std::unique_ptr<CardTableModel> statementTable(ProjectSession &session, const CardRow &spool);
std::unique_ptr<CardTableModel> sheetTable(ProjectSession &session, const CardRow &spool);

/// "0/0; 500/498.2": applied over shown, as a calibration's points are typed.
QString pointsText(const std::vector<CalibrationPoint> &points);
/// Errors: InvalidArgument for anything else.
Result<std::vector<CalibrationPoint>> pointsFrom(const std::string &text);

} // namespace inchpeg::app
