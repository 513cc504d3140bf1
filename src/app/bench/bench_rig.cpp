// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/bench_rig.h"

#include "app/bench/live_words.h"

namespace inchpeg::app
{

bool BenchRig::poll()
{
    const bool wasRecording = live.isRecording;
    const bool wasThere = live.isThere;
    live = recorder.takeState();
    if (live.isRecording && !wasRecording) {
        trace.clear();
        slips.clear();
    }
    if (live.isRecording)
        peak = live.peak;
    const std::optional<std::size_t> way = wayColumn(live);
    for (const RecordedRow &row : live.newRows) {
        const std::optional<double> reading = row.values[live.main];
        const std::optional<double> at = way ? row.values[*way] : std::optional(row.t_s);
        if (!reading || !at)
            continue;
        trace.add(*at, *reading);
        slips.add(*at, *reading);
    }
    heard = live.idleRows;
    heard.insert(heard.end(), live.newRows.begin(), live.newRows.end());
    return live.isRecording != wasRecording || live.isThere != wasThere;
}

} // namespace inchpeg::app
