// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"
#include "core/stats/summary.h"

#include <cstddef>

namespace inchpeg
{

/// How far the pieces of a study have come.
struct LogCounts {
    std::size_t measured = 0; ///< with a section that has an area
    std::size_t weighed = 0;
    std::size_t recorded = 0;
    std::size_t pictured = 0;
};
LogCounts logCounts(const Study &study);

/// Shrinkage in percent along the axis that is measured now, of all pieces whose length is known; see
/// shrinkage().
Summary shrinkageSummary_percent(const Study &study);

} // namespace inchpeg
