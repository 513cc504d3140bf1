// SPDX-License-Identifier: GPL-3.0-or-later
// Calibrations, lines of gauges, timed steps, the history of values and the life of a piece.
#include "core/logbook/change_log.h"
#include "core/logbook/conditioning.h"
#include "core/logbook/gauge_line.h"
#include "core/logbook/measuring.h"
#include "core/logbook/piece_life.h"
#include "core/reading/frame_compliance.h"
#include "core/reading/reading_text.h"
#include "core/text/notation.h"
#include "sim/simulated_gauge.h"
#include "support/read_value.h"
#include "support/study_builder.h"
#include "support/tensile_order.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

Moment at(const char *text)
{
    return *momentFrom(text);
}

TimedStep conditioning(const char *start, const char *end, double hours)
{
    TimedStep step;
    step.start = start;
    step.end = end;
    step.wanted_h = hours;
    return step;
}

/// A record whose force rises by 10 N a sample to 1000 N and falls off; the travel has 0.0004 mm/N in it.
std::string record(bool crosshead)
{
    std::string text = crosshead ? "force_N,crosshead_mm\n" : "force_N,extension_mm\n";
    for (int i = 0; i <= 100; ++i)
        text += fmt::format("{},{}\n", 10.0 * i, 0.01 * i + 0.0004 * 10.0 * i);
    return text + "5,1.5\n0,1.6\n";
}

ReadingJob jobOf(const std::string &text)
{
    TensileParameters parameters;
    parameters.area = squareMillimetres(20.0);
    parameters.gripDistance = millimetres(50.0);
    parameters.gaugeLength = millimetres(50.0);
    parameters.toeCorrection = false;
    return {PieceId{1}, std::make_shared<const std::string>(text), {}, test::tensileOrder(parameters)};
}

} // namespace

TEST(Calibration, CorrectsByFactorOrAlongPoints)
{
    Calibration calibration;
    calibration.factor = 1.02;
    EXPECT_DOUBLE_EQ(correctedReading(calibration, 100.0), 102.0);
    calibration.points = {{0.0, 0.0}, {100.0, 98.0}, {200.0, 203.0}};
    calibration.alongPoints = true;
    EXPECT_DOUBLE_EQ(correctedReading(calibration, 98.0), 100.0);
    EXPECT_DOUBLE_EQ(correctedReading(calibration, 150.5), 150.0);
    EXPECT_NEAR(correctedReading(calibration, 308.0), 300.0, 1e-9) << "the last piece prolonged";
    EXPECT_NEAR(correctedReading(calibration, 49.0), 50.0, 1e-9);
}

// Least squares through zero: Σ applied · shown / Σ shown²; by hand (100·98 + 200·203)/(98² + 203²) =
// 0.991870.
TEST(Calibration, FactorOfPoints)
{
    const CalibrationPoint points[] = {{0.0, 0.0}, {100.0, 98.0}, {200.0, 203.0}};
    EXPECT_NEAR(*factorOf(points), 50400.0 / 50813.0, 1e-12);
    EXPECT_FALSE(factorOf({}));
}

TEST(Calibration, TheOneInForceIsKeptAndAnExpiredOneWarns)
{
    RigCard rig;
    rig.name = "frame";
    Calibration old;
    old.on = "2024-01-10";
    old.due = "2025-01-10";
    Calibration recent = old;
    recent.on = "2025-02-01";
    recent.due = "2026-02-01";
    rig.calibrations = {recent, old};
    EXPECT_EQ(usedGauge(rig, "2024-06-01").calibration->on, "2024-01-10");
    EXPECT_EQ(usedGauge(rig, "2025-06-01").calibration->on, "2025-02-01");
    EXPECT_FALSE(usedGauge(rig, "2023-06-01").calibration) << "none was made yet";
    EXPECT_TRUE(calibrationWarning(usedGauge(rig, "2026-02-01")).empty()) << "the last day holds";
    const UsedGauge late = usedGauge(rig, "2026-02-02");
    EXPECT_NE(calibrationWarning(late).find("held only until 2026-02-01"), std::string::npos);
    EXPECT_EQ(*usedGaugeFromText(usedGaugeText(late)), late);
}

TEST(Calibration, RefusesWhatCannotBe)
{
    Calibration good;
    good.on = "2026-03-01";
    EXPECT_TRUE(checkCalibration(good));
    const auto spoiled = [&](auto change) {
        Calibration bad = good;
        change(bad);
        return !checkCalibration(bad).has_value();
    };
    EXPECT_TRUE(spoiled([](Calibration &c) { c.on = "2026-02-30"; }));
    EXPECT_TRUE(spoiled([](Calibration &c) { c.on = "soon"; }));
    EXPECT_TRUE(spoiled([](Calibration &c) { c.due = "2026-02-28"; }));
    EXPECT_TRUE(spoiled([](Calibration &c) { c.factor = 0.0; }));
    EXPECT_TRUE(spoiled([](Calibration &c) { c.alongPoints = true; }));
    EXPECT_TRUE(spoiled([](Calibration &c) { c.points = {{0.0, 5.0}, {1.0, 4.0}}; }));
    EXPECT_TRUE(spoiled([](Calibration &c) { c.uncertainty_percent = -1.0; }));
}

TEST(Calibration, IsInForceInTheReadingAndStaysOnIt)
{
    ReadingJob job = jobOf(record(false));
    const double plain = test::readValue(readPiece(job)->result, "peak_force");
    UsedGauge gauge{"frame", "2026-06-01", Calibration{}, 0.0};
    gauge.calibration->on = "2025-01-01";
    gauge.calibration->due = "2026-01-01";
    gauge.calibration->factor = 1.03;
    job.gauge = gauge;
    const Result<PieceReading> reading = readPiece(job);
    ASSERT_TRUE(reading);
    EXPECT_NEAR(test::readValue(reading->result, "peak_force"), 1.03 * plain, 1e-9);
    ASSERT_FALSE(reading->result.warnings.empty());
    EXPECT_NE(reading->result.warnings.back().find("held only until 2026-01-01"), std::string::npos);
    Recording recording{RawFileId{1}, {}};
    const std::string without = readingInputs(recording, job.order);
    recording.gauge = gauge;
    EXPECT_NE(readingInputs(recording, job.order), without)
        << "kept readings of another calibration are stale";
}

TEST(Calibration, WhatTheFrameGivesWayIsTakenOffTheTravel)
{
    ReadingJob job = jobOf(record(true));
    const double plain = test::readValue(readPiece(job)->result, "strain_at_strength");
    EXPECT_NEAR(plain, 1.4 / 50.0, 1e-9);
    job.gauge = UsedGauge{"frame", "2026-06-01", {}, 0.0004};
    EXPECT_NEAR(test::readValue(readPiece(job)->result, "strain_at_strength"), 1.0 / 50.0, 1e-9);
    job = jobOf(record(false));
    job.gauge = UsedGauge{"frame", "2026-06-01", {}, 0.0004};
    EXPECT_NEAR(test::readValue(readPiece(job)->result, "strain_at_strength"), plain, 1e-9)
        << "an extensometer knows nothing of the frame";
}

TEST(FrameCompliance, IsTheSlopeOfADummysTravel)
{
    // Travel 0.05 mm of slack, then 0.0004 mm/N.
    std::string text = "force_N,crosshead_mm\n";
    for (int i = 0; i <= 200; ++i)
        text += fmt::format("{},{}\n", 10.0 * i, (i < 10 ? 0.005 * i : 0.05) + 0.004 * i);
    EXPECT_NEAR(*complianceOfDummy(text), 0.0004, 1e-9);
    EXPECT_FALSE(complianceOfDummy("force_N,time_s\n0,0\n1,1\n2,2\n"));
    EXPECT_FALSE(complianceOfDummy("force_N,crosshead_mm\n0,0\n1,1\n2,2\n")) << "too few samples";
}

TEST(GaugeLine, ReadsWhatGaugesSend)
{
    EXPECT_DOUBLE_EQ(parseGaugeLine("+0004.02 mm")->value, 4.02);
    EXPECT_EQ(parseGaugeLine("+0004.02 mm")->dimension, Dimension::Length);
    EXPECT_NEAR(parseGaugeLine("0.4in")->value, 10.16, 1e-12);
    EXPECT_NEAR(parseGaugeLine("N: 9,31 g")->value, 0.00931, 1e-12);
    EXPECT_DOUBLE_EQ(parseGaugeLine("-0.02 mm")->value, -0.02);
    EXPECT_FALSE(parseGaugeLine("4.02")->dimension) << "without a unit the cell's own holds";
    EXPECT_DOUBLE_EQ(parseGaugeLine("WIDTH=4.02 mm")->value, 4.02);
    for (const char *line : {"", "mm", "ERR low battery", "4.02 mm 4.03 mm", "--.--"})
        EXPECT_FALSE(parseGaugeLine(line)) << line;
}

TEST(GaugeLine, LinesAreWholeHoweverTheyAreChopped)
{
    GaugeLines lines;
    EXPECT_TRUE(lines.take("+0004").empty());
    EXPECT_EQ(lines.pending(), "+0004");
    EXPECT_EQ(lines.take(".02 mm\r").size(), 1U);
    EXPECT_TRUE(lines.take("\n").empty()) << "the end of the line before";
    EXPECT_EQ(lines.take("1 mm\n2 mm\r\n3"), (std::vector<std::string>{"1 mm", "2 mm"}));
    lines.forget();
    EXPECT_TRUE(lines.pending().empty());
    lines.take(std::string(5000, 'x'));
    EXPECT_LE(lines.pending().size(), 200U) << "noise does not fill the memory";
}

TEST(SimulatedGauge, SendsItsReadingsAndThenScatters)
{
    sim::SimulatedGauge::Setup setup = *sim::SimulatedGauge::usualSetup("calliper");
    setup.readings = {4.021, 10.0};
    sim::SimulatedGauge gauge(setup);
    EXPECT_EQ(gauge.press(), "+0004.02 mm\r\n");
    EXPECT_EQ(gauge.press(), "+0010.00 mm\r\n");
    for (int i = 0; i < 50; ++i) {
        const std::string line = gauge.press();
        EXPECT_NEAR(parseGaugeLine(line.substr(0, line.size() - 2))->value, 4.0, 0.2);
    }
    EXPECT_FALSE(sim::SimulatedGauge::usualSetup("sundial"));
}

TEST(Conditioning, APieceIsReadyWhenItsStepsAreDone)
{
    test::StudyBuilder builder;
    builder.rail("230", {}, Orientation::Flat, 2);
    Study &study = builder.study;
    EXPECT_FALSE(readinessOf(study, study.pieces[0], at("2026-06-02T10:00")).known);
    study.log.steps = {conditioning("2026-06-01T10:00", "", 48.0)};
    const Readiness waiting = readinessOf(study, study.pieces[0], at("2026-06-02T10:00"));
    ASSERT_TRUE(waiting.from);
    EXPECT_EQ(momentText(*waiting.from), "2026-06-03T10:00");
    EXPECT_NE(waiting.sentence.find("ready from Wed 3 Jun 10:00"), std::string::npos) << waiting.sentence;
    EXPECT_FALSE(readinessOf(study, study.pieces[0], at("2026-06-03T10:00")).from)
        << "the hour itself is enough";
    study.log.steps[0].plates = {7};
    EXPECT_FALSE(readinessOf(study, study.pieces[0], at("2026-06-02T10:00")).known) << "another plate's step";
    study.log.steps[0].plates.clear();
    study.log.steps[0].kind = StepKind::Drying;
    EXPECT_FALSE(readinessOf(study, study.pieces[0], at("2026-06-02T10:00")).known)
        << "drying is of the filament";
}

TEST(Conditioning, ShortLateAndSkippedStepsAreToldAsTheyWere)
{
    StudyLog log;
    plateRecord(log, 1).endedAt = "2026-06-01T02:00";
    const Moment now = at("2026-06-05T10:00");
    EXPECT_EQ(stepSentence(log, conditioning("2026-06-01T03:00", "2026-06-03T03:00", 48.0), now),
              "Lasted 48.0 h.");
    EXPECT_NE(stepSentence(log, conditioning("2026-06-01T03:00", "2026-06-02T03:00", 48.0), now)
                  .find("24.0 h less"),
              std::string::npos);
    EXPECT_NE(stepSentence(log, conditioning("2026-06-01T12:00", "2026-06-03T12:00", 48.0), now)
                  .find("began 10 h after the print"),
              std::string::npos);
    TimedStep skipped;
    skipped.skipped = true;
    EXPECT_FALSE(checkStep(skipped)) << "a reason is wanted";
    skipped.note = "no oven free";
    EXPECT_TRUE(checkStep(skipped));
    EXPECT_EQ(stepSentence(log, skipped, now), "Skipped: no oven free.");
    EXPECT_NE(
        stepSentence(log, conditioning("2026-06-05T04:00", "", 48.0), now).find("Running for 6.0 of 48 h"),
        std::string::npos);
}

TEST(Conditioning, RefusesStepsThatCannotBe)
{
    EXPECT_FALSE(checkStep(conditioning("noon", "", 1.0)));
    EXPECT_FALSE(checkStep(conditioning("2026-06-01T12:00", "2026-06-01T11:00", 1.0)));
    EXPECT_FALSE(checkStep(conditioning("2026-06-01T12:00", "", -1.0)));
    TimedStep humid = conditioning("2026-06-01T12:00", "", 1.0);
    humid.humidity_percent = 150.0;
    EXPECT_FALSE(checkStep(humid));
}

TEST(Materials, SourcesThatDisagreeAreNamed)
{
    SpoolCard spool;
    spool.statements = {{"nozzle", "230–250 °C", "spool", false},
                        {"nozzle", "220–240 °C", "box", true},
                        {"bed", "80 °C", "spool", false},
                        {"bed", "80 °C", "sheet", false}};
    const std::vector<std::string> told = disagreements(spool);
    ASSERT_EQ(told.size(), 1U) << "those who agree need no word";
    EXPECT_EQ(told[0], "nozzle: spool says 230–250 °C, box says 220–240 °C; used as on the box.");
    spool.statements[1].used = false;
    EXPECT_NE(disagreements(spool)[0].find("not said"), std::string::npos);
}

TEST(ChangeLog, EveryChangeOfALoggedValueIsTold)
{
    test::StudyBuilder builder;
    builder.rail("230", {}, Orientation::Flat, 2);
    const Study before = builder.study;
    Study after = before;
    ASSERT_TRUE(setLoggedValue(after, after.pieces[1], {LogField::Width, 0}, 10.02));
    after.pieces[1].log.mass_g = 9.3;
    plateRecord(after.log, 1).printer = "shed printer";
    std::vector<LoggedChange> changes = loggedChanges(before, after, "me", "now");
    ASSERT_EQ(changes.size(), 3U);
    EXPECT_EQ(changes[0], (LoggedChange{after.pieces[1].id, "mass", "", "9.3 g", "me", "now"}));
    EXPECT_EQ(changes[1], (LoggedChange{after.pieces[1].id, "width", "", "10.02 mm", "me", "now"}));
    EXPECT_EQ(changes[2], (LoggedChange{{}, "plate 1: printer", "", "shed printer", "me", "now"}));
    Study corrected = after;
    corrected.pieces[1].log.mass_g = 9.4;
    changes = loggedChanges(after, corrected, "you", "later");
    ASSERT_EQ(changes.size(), 1U);
    EXPECT_EQ(changes[0].before, "9.3 g");
    EXPECT_EQ(changes[0].after, "9.4 g");
    changes = loggedChanges(corrected, before, "me", "undo");
    EXPECT_EQ(changes.size(), 3U) << "what is taken back is a change as well";
    EXPECT_TRUE(loggedChanges(before, before, "me", "now").empty());
    Study asked = before;
    asked.question = "another";
    EXPECT_TRUE(loggedChanges(before, asked, "me", "now").empty()) << "a question is no logged value";
}

TEST(PieceLife, GoesFromPlanToVerdict)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0, 31.0}, Orientation::Standing);
    Study &study = builder.study;
    const Workshop workshop = usualWorkshop();
    Piece &piece = study.pieces[0];
    study.plan.print.printed = {{1, 1, "2026-06-01T10:00:00Z", {{piece.id, 5.0, 5.0, 10.0, 10.0, 2}}}};
    plateRecord(study.log, 1).events = {{PrintTrouble::Jam, "2026-06-01T09:00", "clicks", "cleaned", "me"}};
    ASSERT_TRUE(setLoggedValue(study, piece, {LogField::Width, 0}, 5.0));
    ASSERT_TRUE(setLoggedValue(study, piece, {LogField::Thickness, 0}, 4.0));
    piece.log.mass_g = 1.5;
    piece.log.note = "squeaked";
    piece.recording->gauge = UsedGauge{"frame", "2026-06-04",
                                       Calibration{"2024-01-01", "2025-01-01", {}, 1.0, false, {}, {}}, 0.0};
    study.log.steps = {conditioning("2026-06-01T11:00", "2026-06-03T11:00", 48.0)};
    const std::vector<LifeLine> life =
        pieceLife(study, piece, layOutPlates(study, workshop), workshop,
                  readingOf(builder.readings, piece.id), "like the reference", at("2026-06-05T10:00"));
    std::vector<std::string> stations;
    for (const LifeLine &line : life)
        stations.push_back(line.station);
    EXPECT_EQ(stations,
              (std::vector<std::string>{"Planned", "Printed", "Event", "Measured", "Weighed", "Conditioning",
                                        "Tested", "Calibration", "Read", "Note", "Verdict"}));
    EXPECT_EQ(Notation().expand(life[8].text), "tensile strength 30.00 MPa");
    EXPECT_TRUE(life[7].isWarning);
}

// A gauge that showed 5 N with nothing on it when it was calibrated: true load = shown − 5 N.
TEST(Calibration, AlongPointsKeepsTheSignOfWhatItYields)
{
    Calibration offset{"2026-01-01", {}, {{0.0, 5.0}, {10.0, 15.0}, {100.0, 105.0}}, 1.0, true, {}, {}};
    std::string text = "time_s,extension_mm,force_N\n";
    std::string turned = text;
    for (int i = 0; i <= 200; ++i) { // 0 to 201 N shown, 20 mm²: −5 to 196 N, 9.8 MPa at the most
        text += fmt::format("{},{},{}\n", 0.1 * i, 0.05 * i, 1.005 * i);
        turned += fmt::format("{},{},{}\n", 0.1 * i, 0.05 * i, -1.005 * i);
    }
    for (const std::string &record : {text, turned}) {
        ReadingJob job = jobOf(record);
        job.gauge = UsedGauge{"scale", "2026-06-01", offset, 0.0};
        const Result<PieceReading> reading = readPiece(job);
        ASSERT_TRUE(reading) << reading.error().message;
        EXPECT_NEAR(test::readValue(reading->result, "tensile_strength"), 9.8, 1e-6);
        EXPECT_NEAR(test::readValue(reading->result, "peak_force"), 196.0, 1e-6);
        const bool isTold = std::any_of(
            reading->result.warnings.begin(), reading->result.warnings.end(),
            [](const std::string &warning) { return warning.find("was not at zero") != std::string::npos; });
        EXPECT_TRUE(isTold);
    }
}

TEST(ChangeLog, TellsEachChangeHoweverSmall)
{
    test::StudyBuilder builder;
    builder.rail("230", {40.0});
    Study before = builder.study;
    before.pieces[0].log.mass_g = 120.1234;
    Study after = before;
    after.pieces[0].log.mass_g = 120.1231;
    const std::vector<LoggedChange> changes = loggedChanges(before, after, "me", "now");
    ASSERT_EQ(changes.size(), 1U);
    EXPECT_EQ(changes[0].before, "120.1234 g");
    EXPECT_EQ(changes[0].after, "120.1231 g");
}

} // namespace inchpeg
