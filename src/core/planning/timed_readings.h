// SPDX-License-Identifier: GPL-3.0-or-later
// Readings at set times while a load rests on a piece: a beam under dead weights, creep over days. When each
// is due, which were taken late or missed, and what is due next in a whole study.
#pragma once

#include "core/model/study.h"

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// True for a test that is read at set times.
bool isTimed(Method method);
/// Seconds after the load was put on. Creep: at once, after a minute, an hour, then daily for five days; dead
/// weights on a beam: 1, 30 and 60 s after each (common practice). Empty for tests that are not timed.
std::span<const double> dueTimes_s(Method method);
/// The set that is left is read so long after the load was taken off (common practice).
inline constexpr double kSetAfter_s = 300.0;

/// "creep reading at once", "creep reading after 24 h".
std::string dueReadingName(double due_s);

/// Later than this a reading is said to be late: a twentieth of the time since the load was put on, at least
/// 2 s (ours: creep goes with the logarithm of time, and the real time is kept anyway).
double tolerance_s(double due_s);

enum class DueState {
    Taken,
    TakenLate, ///< or early, by more than the tolerance
    Missed,    ///< the next one is nearer by now
    Now,       ///< due, and not late yet
    Overdue,
    Ahead,
};
struct TimedReading {
    double due_s = 0.0;
    DueState state = DueState::Ahead;
    std::optional<double> taken_s; ///< when it really was
    bool operator==(const TimedReading &) const = default;
};

/// due_s, taken_s: seconds after the load was put on, ascending. A reading stands for the due time that it is
/// nearest to; a second one there is a further reading and changes nothing.
std::vector<TimedReading> timedReadings(std::span<const double> due_s, std::span<const double> taken_s,
                                        double now_s);
/// Place of the reading to be taken next, overdue ones too; nothing where all are taken or missed.
std::optional<std::size_t> nextReading(std::span<const TimedReading> readings);

/// What a piece under load waits for.
struct DueReading {
    StudyId study;
    PieceId piece;
    std::string code;
    std::string what;     ///< "creep reading after 24 h", "take the load off", "set after unloading"
    std::int64_t due = 0; ///< seconds since 1970
    DueState state = DueState::Ahead;
    bool canWait = false; ///< a load that may come off at any time; readings go first
    bool operator==(const DueReading &) const = default;
};

/// Of each piece that is under load, or was unloaded and waits for its set, the next one; the earliest first.
std::vector<DueReading> dueReadings(const Study &study, std::int64_t now);

/// "60.2 s", "4 min 05 s", "35 min", "1 h 04 min", "2 d 3 h".
std::string durationText(double seconds);
/// "in 12 s", "in 1 h 04 min", "now", "12 s ago", "2 d 3 h ago".
std::string countdownText(double seconds);

} // namespace inchpeg
