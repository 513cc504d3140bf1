// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/moment.h"

namespace inchpeg
{

/// How far this machine's clock is ahead of UTC at a moment of its own time.
ZoneOffset localZone();

} // namespace inchpeg
