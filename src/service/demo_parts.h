// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "store/project_file.h"

namespace inchpeg
{

/// The studies of the demo that are about parts: inserts of the lid latch set at two loads and two
/// temperatures in two polymers, the infill of the reducer block under a probe whose gauge ends at 500 N, and
/// a temperature tower of the latch's lug that is graded by feel and by eye.
Status writeDemoParts(ProjectFile &project);

} // namespace inchpeg
