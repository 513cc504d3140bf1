// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_recorder.h"
#include "core/text/notation.h"

#include <optional>

namespace inchpeg::app
{

/// What the rig says, in words and digits.

/// Place of the way (extension, angle) over which the reading is drawn; nothing: over time.
std::optional<std::size_t> wayColumn(const LiveState &live);
/// Of the main column; nothing before anything came, or for an empty cell.
std::optional<double> mainReading(const LiveState &live);
QString liveReadingText(const LiveState &live, const Notation &notation); ///< "123.4", a dash without one
QString liveUnitText(const LiveState &live);
QString liveXLabel(const LiveState &live); ///< "travel in mm"
QString liveYLabel(const LiveState &live);
/// "connected · 393 readings in 19.6 s · 2 lines damaged".
QString liveStateText(const LiveState &live);

} // namespace inchpeg::app
