// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/project_file.h"

namespace inchpeg
{

/// The demo's study of several tests on the same rails: bars that are bent, struck, loaded for days and
/// warmed. The creep runs of one rail still go on, with a reading due today ("2026-06-01").
Status writeDemoBattery(ProjectFile &project, const std::string &today);

} // namespace inchpeg
