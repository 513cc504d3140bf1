// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_recorder.h"
#include "core/base/ids.h"
#include "core/rig/live_trace.h"
#include "core/rig/slip_watch.h"

namespace inchpeg::app
{

/// The rig of one test, and what it says. Each test has its own: one may record while another is looked at.
struct BenchRig {
    BenchRecorder recorder;
    RecordOwner owner; ///< whose record is armed, at hand, or was the last
    bool isArmed = false;
    LiveState live;
    LiveTrace trace;
    double peak = 0.0; ///< of the record at hand, or that was the last
    SlipWatch slips;
    std::vector<RecordedRow> heard; ///< since the last time, whether recorded or not

    /// Takes what was said since the last time. True where a record began, or the rig came or went.
    bool poll();
};

} // namespace inchpeg::app
