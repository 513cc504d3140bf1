// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/study_log.h"
#include "core/model/workshop.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

PieceLog fullPieceLog()
{
    PieceLog log;
    log.sizes.width_mm = {10.02, 10.04, 0.0};
    log.sizes.thickness_mm = {4.01};
    log.mass_g = 9.31;
    log.lengths = {{PrintAxis::X, 80.0, 79.61}, {PrintAxis::Z, 60.0, 60.02}};
    log.failures = {{2, PrintTrouble::Warp, "a corner \"lifted\"", true, "me", "2026-06-01T10:00:00Z"}};
    log.confirmed = {{"width 2", 10.04, "me", "2026-06-01T11:00:00Z"}};
    return log;
}

StudyLog fullStudyLog()
{
    StudyLog log;
    log.measuring = {3, ReadingRule::Smallest, "callipers", "scale", PrintAxis::Y, 80.0, 0.2, 0.02};
    PlateRecord record;
    record.plate = 3;
    record.printer = "shed printer";
    record.spool = "lot 7";
    record.startedAt = "2026-06-01T08:00";
    record.endedAt = "2026-06-01T10:30";
    record.chamber_C = 48.5;
    record.grams = 31.2;
    record.minutes = 150.0;
    record.settings = {{"nozzle temperature", "252 °C", DifferenceAnswer{true, "me", "now"}},
                       {"fan", "30", {}}};
    record.events = {{PrintTrouble::Jam, "2026-06-01T09:00", "clicks", "cleaned", "me"}};
    record.settingsFrom = "plate3.gcode";
    record.note = "smelt of honey";
    log.plates = {record};
    log.steps = {
        {StepKind::Conditioning, {1, 3}, "2026-06-01T11:00", "", 48.0, 23.0, 50.0, false, "", "me", "now"}};
    log.note = "a long week";
    return log;
}

} // namespace

TEST(LogText, EmptyLogsAreEmptyObjects)
{
    EXPECT_EQ(pieceLogText({}), "{}");
    EXPECT_EQ(studyLogText({}), "{}");
    EXPECT_EQ(*pieceLogFromText("{}"), PieceLog{});
    EXPECT_EQ(*studyLogFromText("{}"), StudyLog{});
}

TEST(LogText, EverythingComesBack)
{
    const Result<PieceLog> piece = pieceLogFromText(pieceLogText(fullPieceLog()));
    ASSERT_TRUE(piece) << piece.error().message;
    EXPECT_EQ(*piece, fullPieceLog());
    const Result<StudyLog> study = studyLogFromText(studyLogText(fullStudyLog()));
    ASSERT_TRUE(study) << study.error().message;
    EXPECT_EQ(*study, fullStudyLog());
}

TEST(LogText, RefusesWhatIsNoLogAndNamesTheKey)
{
    for (const char *text : {"", "[]", "{\"mass_g\":\"heavy\"}", "{\"lengths\":[{\"axis\":\"W\"}]}",
                             "{\"failures\":[{\"trouble\":\"gremlins\"}]}"})
        EXPECT_FALSE(pieceLogFromText(text)) << text;
    for (const char *text :
         {"{\"measuring\":{\"readings\":0}}", "{\"measuring\":{\"rule\":\"largest\"}}",
          "{\"plates\":[{\"events\":[{\"trouble\":\"x\"}]}]}", "{\"steps\":[{\"step\":\"boiling\"}]}"})
        EXPECT_FALSE(studyLogFromText(text)) << text;
    EXPECT_NE(pieceLogFromText("{\"mass_g\":\"heavy\"}").error().message.find("mass_g"), std::string::npos);
}

TEST(LogText, PlateRecordsStayInOrderOfTheirNumbers)
{
    StudyLog log;
    plateRecord(log, 4).printer = "d";
    plateRecord(log, 1).printer = "a";
    plateRecord(log, 2).printer = "b";
    plateRecord(log, 4).note = "again";
    ASSERT_EQ(log.plates.size(), 3U);
    EXPECT_EQ(log.plates[0].plate, 1);
    EXPECT_EQ(log.plates[1].plate, 2);
    EXPECT_EQ(log.plates[2].note, "again");
    EXPECT_EQ(findPlateRecord(log, 3), nullptr);
}

TEST(LogText, TheWorkshopKeepsItsCards)
{
    Workshop workshop = usualWorkshop();
    Calibration calibration;
    calibration.on = "2026-03-01";
    calibration.due = "2027-03-01";
    calibration.points = {{0.0, 0.0}, {100.0, 99.0}};
    calibration.alongPoints = true;
    calibration.uncertainty_percent = 0.5;
    calibration.by = "certificate 7";
    workshop.rigs[0].calibrations = {calibration};
    workshop.rigs[0].compliance_mm_per_N = 1.5e-4;
    workshop.rigs[2].arm_m = 0.3;
    workshop.gauges[0].port = "/dev/ttyUSB0";
    workshop.gauges[0].calibrations = {calibration};
    SpoolCard spool;
    spool.material = "polyester, lot 7";
    spool.polymer = "low-heat polyester";
    spool.statements = {{"nozzle", "230–250 °C", "spool", true}};
    spool.sheet = {{"heat deflection", 70.0, "°C", "ISO 75", "0.45 MPa", "flat", true}};
    spool.cautions = "fumes";
    workshop.spools = {spool};
    const Result<Workshop> read = workshopFromText(workshopText(workshop));
    ASSERT_TRUE(read) << read.error().message;
    EXPECT_EQ(*read, workshop);
}

} // namespace inchpeg
