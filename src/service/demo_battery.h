// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/project_file.h"

namespace inchpeg
{

/// The demo's study of several tests on the same rails: bars that are bent, struck, loaded for days and
/// warmed. One creep run still goes on.
Status writeDemoBattery(ProjectFile &project);

} // namespace inchpeg
