// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/log_summary.h"

#include "core/logbook/measuring.h"

namespace inchpeg
{

LogCounts logCounts(const Study &study)
{
    LogCounts counts;
    for (const Piece &piece : study.pieces) {
        counts.measured += piece.section && areaOf(*piece.section) ? 1U : 0U;
        counts.weighed += piece.log.mass_g ? 1U : 0U;
        counts.recorded += piece.recording ? 1U : 0U;
        counts.pictured += piece.log.photos.empty() ? 0U : 1U;
    }
    return counts;
}

Summary shrinkageSummary_percent(const Study &study)
{
    std::vector<double> shrunk;
    for (const Piece &piece : study.pieces) {
        for (const LengthReading &length : piece.log.lengths) {
            if (length.axis == study.log.measuring.lengthAxis)
                shrunk.push_back(100.0 * shrinkage(length));
        }
    }
    return summarise(shrunk);
}

} // namespace inchpeg
