// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <span>
#include <string_view>

namespace inchpeg
{

/// In which order days are written where the text itself does not tell: 03/04/2026.
enum class DateOrder { Unknown, DayFirst, MonthFirst };

/// How the clock times of a column are written.
struct ClockForm {
    bool hasDate = false;
    bool isMinutes = false;  ///< "02:30" is two minutes and a half, not half past two
    bool isTwoParts = false; ///< "02:30" with nothing that tells which of both
    DateOrder order = DateOrder::Unknown;
    bool orderMatters = false; ///< the days differ, and nothing tells their order
    bool operator==(const ClockForm &) const = default;
};

/// How the times in these cells are written: "00:00:01.2", "10:05:01 AM", "2026-12-01T10:00:00.5Z",
/// "01.12.2026 10:00:00,5". Nothing where one of them is no time of day; empty cells are passed over.
std::optional<ClockForm> clockFormOf(std::span<const std::string_view> cells);

/// The seconds from midnight, or from 1 January 1970 where a day is written; nothing where the text is no
/// time of that form. A zone behind the time is taken off; without one the local time counts as it stands.
std::optional<double> clockSeconds(std::string_view text, const ClockForm &form);

} // namespace inchpeg
