// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study_log.h"
#include "core/units/unit.h"

#include <string>
#include <string_view>

namespace inchpeg
{

/// What a person types of the room: "23 °C, 50 %", "23 50"; a bare temperature is in the unit that is handed
/// in. Errors: BadInput for anything else, a humidity outside 0 to 100 %, a temperature outside −20 to 60 °C.
Result<RoomReading> roomFrom(std::string_view text, const Unit &temperatureUnit);

/// The latest from one moment on and before another, both UTC in ISO 8601: those of a workshop's day. Nothing
/// where the room was not noted between them.
const RoomReading *roomBetween(const StudyLog &log, std::string_view from, std::string_view to);

/// What is to be said of it: outside 23 ± 2 °C or 50 ± 10 % it is no standard atmosphere. Quantities as
/// marked(). Source: ISO 291:2008, atmosphere 23/50, class 2 (from memory). Empty inside.
std::string roomSentence(const RoomReading &room);

} // namespace inchpeg
