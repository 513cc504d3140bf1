// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/room.h"
#include "core/text/notation.h"

#include <gtest/gtest.h>

namespace inchpeg
{

TEST(Room, IsReadAsItIsTyped)
{
    const Unit celsius = *findUnit("°C");
    for (const char *text :
         {"23 °C, 50 %", "23 50", "23°C 50%", "23;50", " 23 °C ; 50 % ", "73.4 °F, 50 %"}) {
        const Result<RoomReading> room = roomFrom(text, celsius);
        ASSERT_TRUE(room) << text << ": " << room.error().message;
        EXPECT_NEAR(room->temperature_C, 23.0, 1e-9) << text;
        EXPECT_EQ(room->humidity_percent, 50.0) << text;
    }
    EXPECT_NEAR(roomFrom("73.4 50", *findUnit("°F"))->temperature_C, 23.0, 1e-9);
    for (const char *text : {"", "warm", "23", "23 °C", "23 °C, 120 %", "99 °C, 50 %", "23 50 60"})
        EXPECT_FALSE(roomFrom(text, celsius)) << text;
}

TEST(Room, TheLatestOfTheDayCounts)
{
    StudyLog log;
    log.rooms = {{"2026-06-01T08:00:00Z", 21.0, 40.0, "T"},
                 {"2026-06-01T14:00:00Z", 26.0, 45.0, "T"},
                 {"2026-06-02T08:00:00Z", 23.0, 50.0, "T"}};
    ASSERT_NE(roomBetween(log, "2026-06-01T00:00:00Z", "2026-06-02T00:00:00Z"), nullptr);
    EXPECT_EQ(roomBetween(log, "2026-06-01T00:00:00Z", "2026-06-02T00:00:00Z")->temperature_C, 26.0);
    EXPECT_EQ(roomBetween(log, "2026-06-03T00:00:00Z", "2026-06-04T00:00:00Z"), nullptr);
    EXPECT_EQ(roomSentence(log.rooms[2]), "");
    EXPECT_NE(Notation().expand(roomSentence(log.rooms[1])).find("at 26.0 °C and 45 %"), std::string::npos)
        << Notation().expand(roomSentence(log.rooms[1]));
    const Result<StudyLog> again = studyLogFromText(studyLogText(log));
    ASSERT_TRUE(again) << again.error().message;
    EXPECT_EQ(*again, log);
}

} // namespace inchpeg
