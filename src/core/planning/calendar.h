// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/moment.h"
#include "core/planning/plates.h"

#include <map>
#include <string>
#include <vector>

namespace inchpeg
{

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
    int shifted_min = 0;   ///< by how much a reading had to move, out of busy time and into working hours
};

/// "due Sat 5 Dec 09:12, 47 h 48 min earlier: no one was there, or something else was to be done then"; empty
/// for an entry that was not moved.
std::string movedText(const CalendarEntry &entry);

/// A study on its way to the calendar.
struct DatedStudy {
    const Study *study = nullptr;
    const PlateLayout *layout = nullptr;
};

/// Lays the work of all dated studies out in time: dry, print plate after plate, let cool, condition, test
/// round by round, read what is read for days. What needs a person begins in working hours, and what a person
/// must attend stays within them, one thing at a time; printing, drying and conditioning go on alone. A
/// printer or rig is never held by two at once, and a stand of dead weights carries no more than it can, for
/// as long as its pieces creep; studies that start earlier go first. Plates that are printed have no work
/// left but what comes after; a piece whose print failed is tested from the plate that it is printed on
/// again, or not at all. A creep reading is due by real time after its piece was loaded; several that fall
/// into the same time off become one, which says so. studies: those without a start date are left out. now:
/// work is not laid before it. offset: of the workshop's clock. Errors: InvalidArgument for a start that is
/// no date, and where it would take more than two years.
Result<std::vector<CalendarEntry>> layOutCalendar(const std::vector<DatedStudy> &studies,
                                                  const Workshop &workshop,
                                                  std::optional<Moment> now = std::nullopt,
                                                  const ZoneOffset &offset = noOffset);

/// Entries of a day that a person has to do with: those that begin on it, and those that end on it alone.
std::vector<CalendarEntry> workOf(const std::vector<CalendarEntry> &calendar, Moment day);

} // namespace inchpeg
