// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"

#include <string>

namespace inchpeg
{

/// Everything logged about the pieces of a study as comma-separated text, in mm and g with a decimal point:
/// docs/log_format.md. readLogTable() reads it back.
std::string logTable(const Study &study);

/// The plates' records: a row a setting or event.
std::string plateTable(const Study &study);

/// The timed steps.
std::string stepTable(const Study &study);

} // namespace inchpeg
