// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/utc_time.h"
#include "core/planning/timed_readings.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

constexpr double kHour_s = 3600.0;
constexpr double kDay_s = 24.0 * kHour_s;

std::vector<DueState> statesAt(std::vector<double> taken_s, double now_s, Method method = Method::Creep)
{
    std::vector<DueState> states;
    for (const TimedReading &reading : timedReadings(dueTimes_s(method), taken_s, now_s))
        states.push_back(reading.state);
    return states;
}

/// A creep study with its first piece under load since a moment.
Study loadedStudy(const std::string &since)
{
    Study study;
    study.id = StudyId{3};
    study.tests.front().method = Method::Creep;
    study.conditions.push_back({ConditionId{1}, {"a"}, Orientation::Flat, ""});
    for (const int id : {1, 2}) {
        Piece piece;
        piece.id = PieceId{id};
        piece.condition = ConditionId{1};
        piece.code = "A" + std::to_string(id);
        piece.test = Method::Creep;
        study.pieces.push_back(piece);
    }
    study.pieces.front().log.run = LoadedRun{since, {}, {}, false};
    return study;
}

} // namespace

TEST(UtcTime, IsReadAndWritten)
{
    EXPECT_EQ(secondsSinceEpoch("1970-01-02T00:00:01Z"), 86401);
    // Reference: date -u -d 2026-06-01T10:00:00Z +%s (coreutils 9.1).
    EXPECT_EQ(secondsSinceEpoch("2026-06-01T10:00:00Z"), 1780308000);
    EXPECT_EQ(utcText(1780308000), "2026-06-01T10:00:00Z");
    for (const char *bad : {"", "yesterday", "2026-02-30T10:00:00Z", "2026-06-01T25:00:00Z"})
        EXPECT_FALSE(secondsSinceEpoch(bad)) << bad;
}

TEST(TimedReadings, ComeDueLateAndAreMissed)
{
    using enum DueState;
    EXPECT_EQ(statesAt({}, -1.0), std::vector<DueState>(8, Ahead)) << "not loaded yet";
    EXPECT_EQ(statesAt({}, 1.0)[0], Now);
    EXPECT_EQ(statesAt({}, 5.0)[0], Overdue) << "2 s are given";
    EXPECT_EQ(statesAt({}, 40.0)[0], Missed) << "the minute is nearer by now";
    // Taken at once, after 64 s (late by more than 3 s), and the first day missed.
    const std::vector<DueState> states = statesAt({0.4, 64.0, kHour_s, 2.0 * kDay_s}, 2.2 * kDay_s);
    EXPECT_EQ(states, (std::vector<DueState>{Taken, TakenLate, Taken, Missed, Taken, Ahead, Ahead, Ahead}));
    // A twentieth of a day is 72 min.
    EXPECT_EQ(statesAt({kDay_s + 70.0 * 60.0}, 1.2 * kDay_s)[3], Taken);
    EXPECT_EQ(statesAt({kDay_s + 75.0 * 60.0}, 1.2 * kDay_s)[3], TakenLate);
    EXPECT_EQ(statesAt({kDay_s - 75.0 * 60.0}, 1.2 * kDay_s)[3], TakenLate) << "early is off as well";
    EXPECT_EQ(statesAt({1.2, 29.0, 61.5}, 62.0, Method::BendSteps), std::vector<DueState>(3, Taken));
}

TEST(TimedReadings, ASecondReadingAtATimeChangesNothing)
{
    const auto readings = timedReadings(dueTimes_s(Method::Creep), std::vector<double>{61.0, 75.0}, 80.0);
    EXPECT_EQ(readings[1].taken_s, 61.0);
    EXPECT_EQ(readings[1].state, DueState::Taken);
    EXPECT_EQ(nextReading(readings), 2U);
    EXPECT_EQ(nextReading(
                  timedReadings(dueTimes_s(Method::Creep), std::vector<double>{5.0 * kDay_s}, 6.0 * kDay_s)),
              std::nullopt)
        << "what was missed before is not waited for";
    EXPECT_EQ(nextReading({}), std::nullopt);
}

TEST(TimedReadings, OnlyTimedTestsHaveThem)
{
    EXPECT_TRUE(isTimed(Method::Creep));
    EXPECT_TRUE(isTimed(Method::BendSteps));
    EXPECT_FALSE(isTimed(Method::Tension));
    EXPECT_TRUE(timedReadings(dueTimes_s(Method::Tension), {}, 0.0).empty());
}

TEST(DueReadings, GoFromTheLoadToTheSet)
{
    Study study = loadedStudy("2026-06-01T10:00:00Z");
    const std::int64_t loaded = *secondsSinceEpoch("2026-06-01T10:00:00Z");
    std::vector<DueReading> due = dueReadings(study, loaded + 1);
    ASSERT_EQ(due.size(), 1U) << "the other piece is not loaded";
    EXPECT_EQ(due[0].what, "creep reading at once");
    EXPECT_EQ(due[0].state, DueState::Now);
    LoadedRun &run = *study.pieces.front().log.run;
    run.taken_s = {1.0, 60.0, 3600.0};
    due = dueReadings(study, loaded + 4000);
    EXPECT_EQ(due[0].what, "creep reading after 24 h");
    EXPECT_EQ(due[0].due, loaded + 86400);
    EXPECT_EQ(due[0].state, DueState::Ahead);
    EXPECT_EQ(dueReadings(study, loaded + 100000)[0].state, DueState::Overdue);
    run.taken_s.push_back(5.0 * kDay_s);
    EXPECT_EQ(dueReadings(study, loaded + 432100)[0].what, "take the load off");
    run.unloadedAt = utcText(loaded + 432200);
    due = dueReadings(study, loaded + 432300);
    EXPECT_EQ(due[0].what, "set after unloading");
    EXPECT_EQ(due[0].due, loaded + 432500);
    run.isOver = true;
    EXPECT_TRUE(dueReadings(study, loaded + 432300).empty());
}

TEST(DueReadings, TheEarliestStandsFirstAndLeftOutPiecesAreNotRead)
{
    Study study = loadedStudy("2026-06-01T10:00:00Z");
    study.pieces[1].log.run = LoadedRun{"2026-06-01T09:00:00Z", {0.0, 60.0, 3600.0}, {}, false};
    study.pieces[0].log.run->taken_s = {0.0, 60.0, 3600.0};
    const std::int64_t now = *secondsSinceEpoch("2026-06-01T12:00:00Z");
    ASSERT_EQ(dueReadings(study, now).size(), 2U);
    EXPECT_EQ(dueReadings(study, now).front().code, "A2");
    study.pieces[1].exclusion = Exclusion{"fell off", "T", ""};
    EXPECT_EQ(dueReadings(study, now).front().code, "A1");
}

TEST(Countdown, IsSaidInTheUnitsThatMatter)
{
    EXPECT_EQ(countdownText(0.2), "now");
    EXPECT_EQ(countdownText(12.4), "in 12 s");
    EXPECT_EQ(countdownText(-150.0), "2 min 30 s ago");
    EXPECT_EQ(countdownText(-1830.0), "30 min ago");
    EXPECT_EQ(durationText(60.04), "60.0 s");
    EXPECT_EQ(durationText(345600.0), "4 d 0 h");
    EXPECT_EQ(countdownText(3840.0), "in 1 h 04 min");
    EXPECT_EQ(countdownText(-(2.0 * kDay_s + 3.0 * kHour_s)), "2 d 3 h ago");
}

} // namespace inchpeg
