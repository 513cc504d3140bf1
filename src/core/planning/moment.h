// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <chrono>
#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <string_view>

namespace inchpeg
{

/// A point in the workshop's own time, to the minute.
using Moment = std::chrono::local_time<std::chrono::minutes>;
using Minutes = std::chrono::minutes;

/// How far the workshop's clock is ahead of UTC at a moment; it changes where clocks are put forward or back.
/// Core knows no time zones: the caller hands this in.
using ZoneOffset = std::function<Minutes(Moment)>;
inline Minutes noOffset(Moment)
{
    return Minutes{0};
}

/// The moment that lies so much real time later, whatever happens to the clock between.
Moment later(Moment moment, Minutes realTime, const ZoneOffset &offset);

/// The workshop's own time of a moment in seconds since 1970 (UTC), to the minute before it.
Moment momentOf(std::int64_t secondsSinceEpoch, const ZoneOffset &offset);

std::chrono::local_days dayOf(Moment moment);

/// "2026-11-30T09:00" and "2026-11-30" (midnight); nothing for anything else.
std::optional<Moment> momentFrom(std::string_view text);
std::string momentText(Moment moment); ///< "2026-11-30T09:00"
std::string dayText(Moment moment);    ///< "Mon 30 Nov"
std::string clockText(Moment moment);  ///< "09:00"

} // namespace inchpeg
