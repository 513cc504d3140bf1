// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/plates.h"

#include <chrono>
#include <string>
#include <vector>

namespace inchpeg
{

/// A point in the workshop's own time, without a time zone, to the minute.
using Moment = std::chrono::local_time<std::chrono::minutes>;
using Minutes = std::chrono::minutes;

/// "2026-11-30T09:00" and "2026-11-30" (midnight); nothing for anything else.
std::optional<Moment> momentFrom(std::string_view text);
std::string momentText(Moment moment); ///< "2026-11-30T09:00"
std::string dayText(Moment moment);    ///< "Mon 30 Nov"
std::string clockText(Moment moment);  ///< "09:00"

enum class WorkKind { Drying, Printing, Cooling, Conditioning, Testing, Reading, Oven };
std::string_view workName(WorkKind kind);

/// One thing that happens at a time.
struct CalendarEntry {
    StudyId study;
    WorkKind kind = WorkKind::Printing;
    std::string what;     ///< "plate 2: 250 °C"
    std::string resource; ///< the printer or rig that it holds; empty: none
    Moment start;
    Moment end;
    bool attended = false; ///< a person is needed all along; else only to begin
    int shifted_min = 0;   ///< by how much a reading had to move to lie in working hours
};

/// A study on its way to the calendar.
struct DatedStudy {
    const Study *study = nullptr;
    const PlateLayout *layout = nullptr;
};

/// Lays the work of all dated studies out in time: dry, print plate after plate, let cool, condition, test
/// round by round, read what is read for days. What needs a person begins in working hours, and what a person
/// must attend stays within them; printing, drying and conditioning go on alone. A printer or rig is never
/// held by two at once; studies that start earlier go first. Plates that are printed have no work left but
/// what comes after.
/// studies: those without a start date are left out. now: work is not laid before it.
/// Errors: InvalidArgument for a start that is no date, and where it would take more than two years.
Result<std::vector<CalendarEntry>> layOutCalendar(const std::vector<DatedStudy> &studies,
                                                  const Workshop &workshop,
                                                  std::optional<Moment> now = std::nullopt);

/// Entries of a day that a person has to do with: those that begin on it, and those that end on it alone.
std::vector<CalendarEntry> workOf(const std::vector<CalendarEntry> &calendar, Moment day);

/// The calendar as iCalendar text (RFC 5545): floating times, CRLF, lines folded at 75 octets.
/// stamp: the UTC time of writing, "20261125T140000Z". questions: of the studies, for the descriptions.
std::string iCalendarText(const std::vector<CalendarEntry> &calendar,
                          const std::map<StudyId, std::string> &questions, const std::string &stamp);

} // namespace inchpeg
