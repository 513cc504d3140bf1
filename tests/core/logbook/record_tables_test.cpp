// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/record_tables.h"
#include "service/log_tables.h"
#include "support/study_builder.h"

namespace inchpeg
{

namespace
{

/// A study with three printed plates, two of which have records, and three steps.
Study recorded()
{
    test::StudyBuilder builder;
    builder.rail("230", {}, Orientation::Flat, 3);
    Study &study = builder.study;
    for (int plate = 1; plate <= 3; ++plate)
        study.plan.print.printed.push_back(
            {plate,
             1,
             "2026-06-01T10:00:00Z",
             {{study.pieces[static_cast<std::size_t>(plate - 1)].id, 5.0, 5.0, 10.0, 10.0, plate}}});
    PlateRecord &first = plateRecord(study.log, 1);
    first.printer = "shed printer";
    first.spool = "polyester, lot \"7\"";
    first.startedAt = "2026-06-01T08:00";
    first.endedAt = "2026-06-01T09:30";
    first.chamber_C = 31.5;
    first.grams = 18.25;
    first.minutes = 88.5;
    first.settingsFrom = "plate_1.gcode";
    first.note = "=not a formula, but two\nlines";
    first.settings = {{"part cooling", "40 %", DifferenceAnswer{false, "me", "2026-06-01T10:00:00Z"}},
                      {"nozzle temperature", "231 °C", DifferenceAnswer{true, "me", "2026-06-01T10:00:00Z"}},
                      {"brim", "-", {}}};
    first.events = {
        {PrintTrouble::UnderExtrusion, "2026-06-01T08:40", "thin layer", "cleaned; went on", "me"},
        {PrintTrouble::Stopped, "", "", "", ""}};
    plateRecord(study.log, 3).printer = "loft printer";
    study.log.steps = {{StepKind::Drying,
                        {},
                        "2026-05-31T20:00",
                        "2026-06-01T02:00",
                        6.0,
                        65.0,
                        {},
                        false,
                        {},
                        "me",
                        "2026-06-01T06:00:00Z"},
                       {StepKind::Conditioning,
                        {1, 3},
                        "2026-06-01T11:00",
                        {},
                        48.0,
                        23.0,
                        47.0,
                        false,
                        "in the shed",
                        "me",
                        "2026-06-01T11:05:00Z"},
                       {StepKind::Annealing,
                        {},
                        {},
                        {},
                        0.0,
                        {},
                        {},
                        true,
                        "used as printed",
                        "me",
                        "2026-06-01T11:06:00Z"}};
    return study;
}

template <typename T>
std::string messageOf(const Result<T> &result)
{
    return result ? std::string("read") : result.error().message;
}

std::string messageOf(const Status &status)
{
    return status ? std::string("taken") : status.error().message;
}

} // namespace

TEST(RecordTables, PlatesThatAreWrittenAreReadBack)
{
    const Study study = recorded();
    const Result<std::vector<PlateRecord>> read = readPlateTable(plateTable(study));
    ASSERT_TRUE(read) << read.error().message;
    EXPECT_EQ(*read, study.log.plates);
    Study other = study;
    other.log.plates.clear();
    plateRecord(other.log, 1).printer = "another";
    plateRecord(other.log, 2).printer = "stays";
    ASSERT_TRUE(takePlateRecords(other, *read));
    ASSERT_EQ(other.log.plates.size(), 3U);
    EXPECT_EQ(other.log.plates[0], study.log.plates[0]);
    EXPECT_EQ(other.log.plates[1].printer, "stays") << "the table says nothing of plate 2";
    EXPECT_EQ(other.log.plates[2], study.log.plates[1]);
}

TEST(RecordTables, StepsThatAreWrittenAreReadBack)
{
    const Study study = recorded();
    const Result<std::vector<TimedStep>> read = readStepTable(stepTable(study));
    ASSERT_TRUE(read) << read.error().message;
    EXPECT_EQ(*read, study.log.steps);
    Study other = study;
    other.log.steps.erase(other.log.steps.begin());
    other.log.steps[0].end = "2026-06-03T11:00";
    ASSERT_TRUE(takeSteps(other, *read));
    EXPECT_EQ(other.log.steps.size(), 3U) << "one came back, one took the place of its own";
    EXPECT_EQ(stepTable(other).find("2026-06-03"), std::string::npos);
    ASSERT_TRUE(takeSteps(other, *read));
    EXPECT_EQ(other.log.steps.size(), 3U) << "the same table again changes nothing";
}

TEST(RecordTables, ASpreadsheetsFormIsUnderstood)
{
    const auto plates =
        readPlateTable("Plate;About;Name;Value\r\n2;record;chamber_C;31,5\r\n\r\n2;setting;brim;5 mm\r\n");
    ASSERT_TRUE(plates) << plates.error().message;
    ASSERT_EQ(plates->size(), 1U);
    EXPECT_EQ(plates->front().chamber_C, 31.5);
    EXPECT_EQ(plates->front().settings.front().value, "5 mm");
    const auto steps =
        readStepTable("step\tplates\tstart\tend\ndrying\t1 2\t2026-06-01T08:00\t2026-06-01T12:00\n");
    ASSERT_TRUE(steps) << steps.error().message;
    EXPECT_EQ(steps->front().plates, (std::vector<int>{1, 2}));
    EXPECT_FALSE(steps->front().skipped);
}

TEST(RecordTables, ABadRowIsToldWithItsLine)
{
    const std::string head = "plate,about,name,value,done,by,at\n";
    const std::pair<std::string, std::string> plates[] = {
        {"", "there is no column \"plate\""},
        {"plate,about\n", "there is no column \"name\""},
        {head, "no row"},
        {head + "1,record,printer,a\none,record,printer,b\n", "line 3: \"one\" is no number of a plate"},
        {head + "0,record,printer,b\n", "\"0\" is no number of a plate"},
        {head + "1.5,record,printer,b\n", "is no number of a plate"},
        {head + "1,record,colour,red\n", "line 2: \"colour\""},
        {head + "1,record,chamber_C,warm\n", "\"warm\" is no number of chamber_C"},
        {head + "1,thing,a,b\n", "a record, a setting or an event"},
        {head + "1,setting,,b\n", "without a name"},
        {head + "1,setting,brim,b,perhaps\n", "\"perhaps\""},
        {head + "1,event,fire,b\n", "\"fire\" is no event"},
        {head + "\"1\",record,note,\"two\nlines\"\n1,record,x,y\n", "line 4: \"x\""},
        {head + "1,record,started_at,yesterday\n", "plate 1: "},
    };
    for (const auto &[text, told] : plates)
        EXPECT_NE(messageOf(readPlateTable(text)).find(told), std::string::npos)
            << text << " → " << messageOf(readPlateTable(text));
    const std::string steps = "step,plates,start,end,wanted_h,skipped,note\n";
    const std::pair<std::string, std::string> bad[] = {
        {steps + "baking,,2026-06-01T08:00,,6\n", "\"baking\" is no step"},
        {steps + "drying,,2026-06-01T08:00,,six\n", "\"six\" is no number of hours"},
        {steps + "drying,a,2026-06-01T08:00,,6\n", "\"a\" is no number of a plate"},
        {steps + "drying,,2026-06-01T08:00,,6,maybe\n", "skipped is 0 or 1"},
        {steps + "drying,,2026-06-01T08:00,2026-05-01T08:00,6,0\n", "line 2: "},
        {steps + "drying,,,,6,1,\n", "line 2: "},
    };
    for (const auto &[text, told] : bad)
        EXPECT_NE(messageOf(readStepTable(text)).find(told), std::string::npos)
            << text << " → " << messageOf(readStepTable(text));
}

TEST(RecordTables, APlateThatIsNotPrintedIsRefused)
{
    Study study = recorded();
    const Study before = study;
    PlateRecord record;
    record.plate = 9;
    record.printer = "x";
    EXPECT_EQ(messageOf(takePlateRecords(study, {study.log.plates[0], record})),
              "plate 9 is not printed in this study; its plates are 1, 2, 3");
    TimedStep step = study.log.steps[1];
    step.plates = {1, 4};
    EXPECT_EQ(messageOf(takeSteps(study, {step})),
              "plate 4 is not printed in this study; its plates are 1, 2, 3");
    EXPECT_EQ(study, before) << "nothing is taken";
    study.plan.print.printed.clear();
    EXPECT_EQ(messageOf(takePlateRecords(study, {record})), "plate 9: no plate of this study is printed yet");
}

} // namespace inchpeg
