// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/calendar.h"

namespace inchpeg
{

/// The calendar as iCalendar text (RFC 5545): times in UTC, CRLF, lines folded at 75 octets. An entry that
/// was moved into working hours says so. stamp: the UTC time of writing, "20261125T140000Z". questions: of
/// the studies, for the descriptions.
std::string iCalendarText(const std::vector<CalendarEntry> &calendar,
                          const std::map<StudyId, std::string> &questions, const std::string &stamp,
                          const ZoneOffset &offset = noOffset);

} // namespace inchpeg
