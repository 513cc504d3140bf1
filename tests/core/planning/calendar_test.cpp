// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/icalendar.h"
#include "core/planning/plan_edit.h"
#include "support/study_builder.h"

#include <algorithm>

namespace inchpeg
{
namespace
{

using namespace std::chrono_literals;
using test::StudyBuilder;

Moment at(const char *text)
{
    const std::optional<Moment> moment = momentFrom(text);
    EXPECT_TRUE(moment) << text;
    return moment.value_or(Moment{});
}

class Calendar : public ::testing::Test
{
protected:
    Calendar()
    {
        m_builder.study.factors.front().changedPer = ChangedPer::Plate;
        for (const char *level : {"230", "250"})
            m_builder.rail(level, {}, Orientation::Flat, 3);
        m_builder.study.plan.dates.start = "2026-11-30"; // a Monday
        firstTest(m_builder.study).setup.rig = "test frame 2 kN";
    }

    std::vector<CalendarEntry> layOut()
    {
        m_layout = layOutPlates(m_builder.study, m_workshop);
        const Result<std::vector<CalendarEntry>> entries =
            layOutCalendar({{&m_builder.study, &m_layout}}, m_workshop);
        EXPECT_TRUE(entries) << (entries ? "" : entries.error().message);
        return entries ? *entries : std::vector<CalendarEntry>();
    }

    [[nodiscard]] bool isInHours(Moment moment) const
    {
        const auto day = std::chrono::floor<std::chrono::days>(moment);
        const WorkingDay &hours = m_workshop.hours[std::chrono::weekday(day).iso_encoding() - 1];
        const auto minutes = (moment - Moment(day)).count();
        return minutes >= hours.from_min && minutes <= hours.to_min && hours.to_min > hours.from_min;
    }

    StudyBuilder m_builder;
    Workshop m_workshop = usualWorkshop();
    PlateLayout m_layout;
};

TEST(Moments, AreReadAndWritten)
{
    EXPECT_EQ(momentText(at("2026-11-30")), "2026-11-30T00:00");
    EXPECT_EQ(momentText(at("2028-02-29T23:59") + 1min), "2028-03-01T00:00");
    EXPECT_EQ(dayText(at("2026-11-25")), "Wed 25 Nov");
    for (const char *wrong :
         {"", "2026-13-01", "2026-02-29", "30.11.2026", "2026-11-30T25:00", "2026-11-30x10:00"})
        EXPECT_FALSE(momentFrom(wrong)) << wrong;
}

TEST_F(Calendar, WorkComesInItsOrderAndBeginsInWorkingHours)
{
    const std::vector<CalendarEntry> entries = layOut();
    ASSERT_FALSE(entries.empty());
    EXPECT_EQ(entries.front().kind, WorkKind::Drying);
    EXPECT_EQ(momentText(entries.front().start), "2026-11-30T09:00");
    Moment lastPrint{};
    Moment firstTest = at("2099-01-01");
    for (const CalendarEntry &entry : entries) {
        SCOPED_TRACE(entry.what);
        EXPECT_LT(entry.start, entry.end);
        if (entry.kind == WorkKind::Printing || entry.kind == WorkKind::Testing ||
            entry.kind == WorkKind::Drying) {
            EXPECT_TRUE(isInHours(entry.start)) << momentText(entry.start);
        }
        if (entry.attended) {
            EXPECT_TRUE(isInHours(entry.end)) << momentText(entry.end);
        }
        if (entry.kind == WorkKind::Printing)
            lastPrint = std::max(lastPrint, entry.end);
        if (entry.kind == WorkKind::Testing)
            firstTest = std::min(firstTest, entry.start);
    }
    // The usual polymer conditions for 16 h, and pieces are taken off a cold plate.
    EXPECT_GE(firstTest - lastPrint, 16h + 30min);
}

TEST_F(Calendar, TwoStudiesNeverHoldOnePrinterOrRigAtOnce)
{
    StudyBuilder second;
    second.study.id = StudyId{777};
    for (const char *level : {"a", "b", "c"}) {
        second.study.factors.front().unit.clear();
        second.rail(level, {}, Orientation::Flat, 8);
    }
    second.study.plan.dates.start = "2026-11-30";
    firstTest(second.study).setup.rig = "test frame 2 kN";
    m_layout = layOutPlates(m_builder.study, m_workshop);
    const PlateLayout layout = layOutPlates(second.study, m_workshop);
    const Result<std::vector<CalendarEntry>> entries =
        layOutCalendar({{&second.study, &layout}, {&m_builder.study, &m_layout}}, m_workshop);
    ASSERT_TRUE(entries);
    int compared = 0;
    for (const CalendarEntry &a : *entries) {
        for (const CalendarEntry &b : *entries) {
            if (&a == &b || a.resource.empty() || a.resource != b.resource)
                continue;
            ++compared;
            EXPECT_TRUE(a.end <= b.start || b.end <= a.start) << a.what << " and " << b.what;
        }
    }
    EXPECT_GT(compared, 10);
}

TEST_F(Calendar, LongTestsAreSplitOverDays)
{
    firstTest(m_builder.study).method = Method::Tension;
    ASSERT_TRUE(setPiecesPerCondition(m_builder.study, methodOf(m_builder.study), 60,
                                      m_builder.ids())); // 120 pieces of 6 min: 12 h
    const std::vector<CalendarEntry> entries = layOut();
    const auto tests = std::count_if(entries.begin(), entries.end(), [](const CalendarEntry &entry) {
        return entry.kind == WorkKind::Testing;
    });
    EXPECT_GE(tests, 2);
}

// A person does one thing at a time, whatever the study.
TEST_F(Calendar, NobodyIsInTwoPlacesAtOnce)
{
    const Method methods[] = {Method::Creep, Method::Tension, Method::HeatDeflection};
    std::vector<StudyBuilder> builders(std::size(methods));
    std::vector<PlateLayout> layouts;
    std::vector<DatedStudy> dated;
    for (std::size_t i = 0; i < builders.size(); ++i) {
        builders[i].study.id = StudyId{static_cast<std::int64_t>(900 + i)};
        firstTest(builders[i].study).method = methods[i];
        for (const char *level : {"a", "b"}) {
            builders[i].study.factors.front().unit.clear();
            builders[i].rail(level, {}, Orientation::Flat, 5);
        }
        builders[i].study.plan.dates.start = "2026-11-30";
        layouts.push_back(layOutPlates(builders[i].study, m_workshop));
    }
    for (std::size_t i = 0; i < builders.size(); ++i)
        dated.push_back({&builders[i].study, &layouts[i]});
    const Result<std::vector<CalendarEntry>> entries = layOutCalendar(dated, m_workshop);
    ASSERT_TRUE(entries) << entries.error().message;
    int attended = 0;
    for (const CalendarEntry &a : *entries) {
        attended += a.attended ? 1 : 0;
        for (const CalendarEntry &b : *entries) {
            if (&a == &b || !a.attended || !b.attended)
                continue;
            EXPECT_TRUE(a.end <= b.start || b.end <= a.start)
                << a.what << " " << momentText(a.start) << " and " << b.what << " " << momentText(b.start);
        }
    }
    EXPECT_GT(attended, 40);
}

TEST_F(Calendar, EachCreepPieceIsReadAMinuteAfterItsOwnLoading)
{
    ASSERT_TRUE(setMethod(m_builder.study, Method::Creep));
    std::map<std::string, Moment> loaded;
    int read = 0;
    for (const CalendarEntry &entry : layOut()) {
        if (entry.what.starts_with("load creep: "))
            loaded[entry.what.substr(12)] = entry.end;
        if (!entry.what.starts_with("creep reading 1 of 7: "))
            continue;
        ++read;
        EXPECT_EQ(entry.start - loaded.at(entry.what.substr(22)), 1min) << entry.what;
        EXPECT_EQ(entry.shifted_min, 0);
    }
    EXPECT_EQ(read, 6);
}

TEST_F(Calendar, AStandCarriesNoMoreThanItCanForAsLongAsItsPiecesCreep)
{
    ASSERT_TRUE(setMethod(m_builder.study, Method::Creep));
    firstTest(m_builder.study).setup.rig = "stand";
    firstTest(m_builder.study).setup.stress_MPa = 7.35499;                      // 1.25 kg on the usual bar
    m_workshop.rigs.push_back({"stand", RigKind::DeadWeights, 2.6, 0.05, 0.0}); // two pieces at once
    std::vector<std::pair<Moment, Moment>> onStand;
    for (const CalendarEntry &entry : layOut()) {
        if (entry.what.starts_with("load creep"))
            onStand.emplace_back(entry.start, entry.end + 120h);
    }
    ASSERT_EQ(onStand.size(), 6U);
    for (const auto &[start, end] : onStand) {
        const auto together =
            std::count_if(onStand.begin(), onStand.end(), [&, from = start](const auto &other) {
                return other.first <= from && from < other.second;
            });
        EXPECT_LE(together, 2) << momentText(start);
    }
}

// Readings due on Saturday and Sunday are one on Monday, and it says which they are and when they were due.
TEST_F(Calendar, ReadingsOfOneWeekendAreOneAndSayWhatTheyWere)
{
    ASSERT_TRUE(setMethod(m_builder.study, Method::Creep));
    firstTest(m_builder.study).setup.rig.clear();
    std::vector<CalendarEntry> moved;
    std::map<Moment, std::string> starts;
    for (const CalendarEntry &entry : layOut()) {
        if (entry.kind != WorkKind::Reading)
            continue;
        EXPECT_TRUE(starts.emplace(entry.start, entry.what).second)
            << entry.what << " and " << starts[entry.start];
        if (entry.shifted_min > 12 * 60)
            moved.push_back(entry);
    }
    ASSERT_FALSE(moved.empty());
    EXPECT_TRUE(moved.front().what.starts_with("creep readings ")) << moved.front().what;
    EXPECT_NE(movedText(moved.front()).find("due Sat"), std::string::npos) << movedText(moved.front());
    const std::string text = iCalendarText(moved, {}, "20261125T140000Z");
    EXPECT_NE(text.find("DESCRIPTION:due Sat"), std::string::npos) << text;
}

// Clocks are put back on Sunday 25 October 2026 at 3:00: a day later by real time is an hour earlier by the
// clock.
TEST_F(Calendar, RealTimeCountsOverAChangeOfTheClock)
{
    const ZoneOffset offset = [](Moment moment) {
        return moment < at("2026-10-25T03:00") ? Minutes{120} : Minutes{60};
    };
    EXPECT_EQ(momentText(later(at("2026-10-24T15:00"), 24h, offset)), "2026-10-25T14:00");
    EXPECT_EQ(momentText(later(at("2026-10-20T15:00"), 24h, offset)), "2026-10-21T15:00");
    const std::vector<CalendarEntry> entries{{m_builder.study.id,
                                              WorkKind::Reading,
                                              "a",
                                              {},
                                              at("2026-10-24T15:00"),
                                              at("2026-10-24T15:05"),
                                              true,
                                              0},
                                             {m_builder.study.id,
                                              WorkKind::Reading,
                                              "b",
                                              {},
                                              at("2026-10-25T15:00"),
                                              at("2026-10-25T15:05"),
                                              true,
                                              0}};
    const std::string text = iCalendarText(entries, {}, "20261125T140000Z", offset);
    EXPECT_NE(text.find("DTSTART:20261024T130000Z"), std::string::npos) << text;
    EXPECT_NE(text.find("DTSTART:20261025T140000Z"), std::string::npos) << text;
}

// A failed print that is not printed again was looked up among the pieces to test, and was not there.
TEST_F(Calendar, APieceWhosePrintFailedIsTestedOnceOrNotAtAll)
{
    for (const bool reprint : {false, true}) {
        StudyBuilder builder = m_builder;
        m_layout = layOutPlates(builder.study, m_workshop);
        ASSERT_TRUE(markPrinted(builder.study, m_layout, 1, "2026-11-30T12:00:00Z"));
        const PieceId failed = builder.study.plan.print.printed.front().pieces.front().piece;
        findPiece(builder.study, failed)
            ->log.failures.push_back({1, PrintTrouble::Other, "warped", reprint, {}, {}});
        m_layout = layOutPlates(builder.study, m_workshop);
        const Result<std::vector<CalendarEntry>> entries =
            layOutCalendar({{&builder.study, &m_layout}}, m_workshop);
        ASSERT_TRUE(entries) << entries.error().message;
        int minutes = 0;
        for (const CalendarEntry &entry : *entries) {
            if (entry.kind == WorkKind::Testing)
                minutes += static_cast<int>((entry.end - entry.start).count());
        }
        EXPECT_EQ(minutes, (reprint ? 6 : 5) * 6) << "six minutes a piece";
    }
}

TEST_F(Calendar, CreepIsReadWhenDueOrInTheNextWorkingHour)
{
    ASSERT_TRUE(setMethod(m_builder.study, Method::Creep));
    firstTest(m_builder.study).setup.rig.clear();
    const std::vector<CalendarEntry> entries = layOut();
    std::vector<CalendarEntry> readings;
    std::copy_if(entries.begin(), entries.end(), std::back_inserter(readings),
                 [](const CalendarEntry &entry) { return entry.kind == WorkKind::Reading; });
    ASSERT_FALSE(readings.empty());
    bool shifted = false;
    for (const CalendarEntry &reading : readings) {
        EXPECT_TRUE(isInHours(reading.start)) << reading.what;
        EXPECT_GE(reading.shifted_min, 0);
        shifted = shifted || reading.shifted_min > 0;
    }
    EXPECT_TRUE(shifted) << "five days go over a weekend";
}

TEST_F(Calendar, WhatIsPrintedIsNotPrintedAgain)
{
    m_layout = layOutPlates(m_builder.study, m_workshop);
    ASSERT_TRUE(markPrinted(m_builder.study, m_layout, 2, "2026-11-30T12:00:00Z"));
    for (const CalendarEntry &entry : layOut())
        EXPECT_TRUE(entry.kind != WorkKind::Printing && entry.kind != WorkKind::Drying) << entry.what;
}

TEST_F(Calendar, TodayHoldsWhatBeginsAndWhatIsDone)
{
    const std::vector<CalendarEntry> entries = layOut();
    const std::vector<CalendarEntry> today = workOf(entries, at("2026-11-30T15:00"));
    ASSERT_FALSE(today.empty());
    for (const CalendarEntry &entry : today)
        EXPECT_NE(entry.kind, WorkKind::Cooling);
    EXPECT_TRUE(workOf(entries, at("2026-11-29")).empty());
}

TEST_F(Calendar, RefusesDatesAndHoursThatCannotBe)
{
    m_builder.study.plan.dates.start = "next week";
    m_layout = layOutPlates(m_builder.study, m_workshop);
    EXPECT_NE(
        layOutCalendar({{&m_builder.study, &m_layout}}, m_workshop).error().message.find("year-month-day"),
        std::string::npos);
    m_builder.study.plan.dates.start = "2026-11-30";
    m_workshop.hours.fill({0, 0});
    EXPECT_FALSE(layOutCalendar({{&m_builder.study, &m_layout}}, m_workshop));
}

// RFC 5545, 3.1: lines end with CRLF and are folded at 75 octets; 3.3.11: commas, semicolons and backslashes
// are escaped.
TEST_F(Calendar, ICalendarKeepsToTheRfc)
{
    std::vector<CalendarEntry> entries = layOut();
    entries.front().what = "dry a, b; c\\d – " + std::string(90, 'x') + " °C °C °C °C °C";
    const std::string text =
        iCalendarText(entries, {{m_builder.study.id, "Which, if any?\nSecond line"}}, "20261125T140000Z");
    EXPECT_TRUE(text.starts_with("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n"));
    EXPECT_TRUE(text.ends_with("END:VCALENDAR\r\n"));
    EXPECT_NE(text.find("SUMMARY:dry a\\, b\\; c\\\\d"), std::string::npos);
    EXPECT_NE(text.find("DESCRIPTION:Which\\, if any?\\nSecond line"), std::string::npos);
    EXPECT_NE(text.find("DTSTART:20261130T090000Z\r\n"), std::string::npos);
    std::size_t begin = 0;
    std::string unfolded;
    while (begin < text.size()) {
        const std::size_t end = text.find("\r\n", begin);
        ASSERT_NE(end, std::string::npos);
        const std::string line = text.substr(begin, end - begin);
        EXPECT_LE(line.size(), 75U);
        EXPECT_NE(static_cast<unsigned char>(line.front()) & 0xC0U, 0x80U) << "a cut UTF-8 sequence";
        unfolded += line.starts_with(' ') ? line.substr(1) : "\n" + line;
        begin = end + 2;
    }
    EXPECT_NE(unfolded.find(std::string(90, 'x') + " °C °C °C °C °C"), std::string::npos);
    std::vector<std::string> ids;
    for (std::size_t i = unfolded.find("UID:"); i != std::string::npos; i = unfolded.find("UID:", i + 1))
        ids.push_back(unfolded.substr(i, unfolded.find('\n', i) - i));
    EXPECT_EQ(ids.size(), entries.size());
    std::sort(ids.begin(), ids.end());
    EXPECT_EQ(std::unique(ids.begin(), ids.end()), ids.end());
}

} // namespace
} // namespace inchpeg
