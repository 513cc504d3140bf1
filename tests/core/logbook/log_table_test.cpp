// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/cells.h"
#include "core/logbook/log_table.h"
#include "core/planning/lab_code.h"
#include "service/log_tables.h"
#include "support/study_builder.h"

namespace inchpeg
{

namespace
{

test::StudyBuilder threePieces()
{
    test::StudyBuilder builder;
    builder.rail("230", {}, Orientation::Flat, 3);
    return builder;
}

TakenTable taken(const Study &study, const std::string &text)
{
    Result<TakenTable> table = readLogTable(study, text, "ABC");
    EXPECT_TRUE(table) << (table ? "" : table.error().message);
    return table ? *table : TakenTable{};
}

} // namespace

TEST(LogTable, HeadingsAndUnitsAreUnderstood)
{
    test::StudyBuilder builder = threePieces();
    Study &study = builder.study;
    const std::string text = "Specimen\tWidth (in)\tthickness_mm\tMass, g\tOperator\n" +
                             study.pieces[0].code + "\t0.4\t4,02\t9.31\tJo\n" + study.pieces[2].code +
                             "\t\t4.05\t\tJo\n";
    const TakenTable table = taken(study, text);
    ASSERT_EQ(table.columns.size(), 5U);
    EXPECT_TRUE(table.columns[0].isCode);
    EXPECT_EQ(table.columns[1].meaning, "width in in");
    EXPECT_EQ(table.columns[3].meaning, "mass in g");
    EXPECT_NE(table.columns[4].meaning.find("not taken"), std::string::npos);
    ASSERT_EQ(table.values.size(), 4U);
    EXPECT_TRUE(table.problems.empty());
    ASSERT_TRUE(takeLogTable(study, table, false));
    EXPECT_NEAR(*loggedValue(study, study.pieces[0], {LogField::Width, 0}), 10.16, 1e-12);
    EXPECT_NEAR(*loggedValue(study, study.pieces[0], {LogField::Thickness, 0}), 4.02, 1e-12);
    EXPECT_EQ(study.pieces[0].log.mass_g, 9.31);
    EXPECT_NEAR(*loggedValue(study, study.pieces[2], {LogField::Thickness, 0}), 4.05, 1e-12);
}

TEST(LogTable, NothingIsOverwrittenUnlessWanted)
{
    test::StudyBuilder builder = threePieces();
    Study &study = builder.study;
    study.pieces[0].log.mass_g = 9.31;
    study.pieces[1].log.mass_g = 9.40;
    const TakenTable table =
        taken(study, "piece;mass\n" + study.pieces[0].code + ";9.31\n" + study.pieces[1].code + ";9.45\n" +
                         study.pieces[2].code + ";9.50\n");
    EXPECT_EQ(table.unchanged, 1U);
    ASSERT_EQ(table.values.size(), 2U);
    EXPECT_TRUE(table.values[0].overwrites());
    EXPECT_EQ(table.values[0].before, "9.4");
    ASSERT_TRUE(takeLogTable(study, table, false));
    EXPECT_EQ(study.pieces[1].log.mass_g, 9.40);
    EXPECT_EQ(study.pieces[2].log.mass_g, 9.50);
    ASSERT_TRUE(takeLogTable(study, table, true));
    EXPECT_EQ(study.pieces[1].log.mass_g, 9.45);
}

TEST(LogTable, WhatDoesNotFitIsToldWithItsLine)
{
    test::StudyBuilder builder = threePieces();
    const Study &study = builder.study;
    const TakenTable table = taken(study, "piece,width (mm),mass (kg)\n" + study.pieces[0].code +
                                              ",wide,0.0093\nZ9,4,5\n" + study.pieces[1].code + ",-4,\n");
    ASSERT_EQ(table.problems.size(), 3U);
    EXPECT_NE(errorSentence(table.problems[0]).find("line 2, column 2: \"wide\""), std::string::npos)
        << errorSentence(table.problems[0]);
    EXPECT_NE(errorSentence(table.problems[1]).find("line 3, column 1: there is no piece \"Z9\""),
              std::string::npos)
        << errorSentence(table.problems[1]);
    EXPECT_NE(errorSentence(table.problems[2]).find("line 4"), std::string::npos);
    ASSERT_EQ(table.values.size(), 1U) << "the good ones stay";
    EXPECT_NEAR(*table.values[0].number, 9.3, 1e-9) << "kilograms are grams in the log";
}

TEST(LogTable, LabelsAndOrderTellThePieceToo)
{
    test::StudyBuilder builder = threePieces();
    Study &study = builder.study;
    const TakenTable byLabel = taken(study, "label,mass\n" + labCode("ABC", study.pieces[1].id) + ",9.1\n");
    ASSERT_EQ(byLabel.values.size(), 1U);
    EXPECT_EQ(byLabel.values[0].piece, study.pieces[1].id);
    const TakenTable byOrder = taken(study, "mass\n9.1\n9.2\n9.3\n");
    ASSERT_EQ(byOrder.values.size(), 3U);
    EXPECT_EQ(byOrder.values[2].piece, study.pieces[2].id);
    EXPECT_FALSE(readLogTable(study, "mass\n1\n2\n3\n4\n", "ABC")) << "more rows than pieces";
}

TEST(LogTable, RefusesWhatIsNoTable)
{
    test::StudyBuilder builder = threePieces();
    for (const char *text : {"", "mass", "\n\n", "x,y\n1,2\n", "mass (N)\n3\n"})
        EXPECT_FALSE(readLogTable(builder.study, text, "ABC")) << text;
}

TEST(LogTable, WhatIsWrittenIsReadBack)
{
    test::StudyBuilder builder = threePieces();
    Study &study = builder.study;
    study.log.measuring.readings = 2;
    study.log.measuring.lengthAxis = PrintAxis::X;
    study.log.measuring.length_mm = 80.0;
    for (std::size_t i = 0; i < 3; ++i) {
        const double more = 0.01 * static_cast<double>(i);
        for (int r = 0; r < 2; ++r) {
            ASSERT_TRUE(setLoggedValue(study, study.pieces[i], {LogField::Width, r}, 10.0 + more + 0.1 * r));
            ASSERT_TRUE(setLoggedValue(study, study.pieces[i], {LogField::Thickness, r}, 4.0 + more));
        }
        ASSERT_TRUE(setLoggedValue(study, study.pieces[i], {LogField::Mass, 0}, 9.0 + more));
        ASSERT_TRUE(setLoggedValue(study, study.pieces[i], {LogField::Length, 0}, 79.6 + more));
        study.pieces[i].log.note = "note, with \"quotes\" " + std::to_string(i);
    }
    Study empty = study;
    for (Piece &piece : empty.pieces) {
        piece.log = {};
        piece.section.reset();
    }
    const TakenTable table = taken(empty, logTable(study));
    EXPECT_TRUE(table.problems.empty());
    ASSERT_TRUE(takeLogTable(empty, table, false));
    EXPECT_EQ(logTable(empty), logTable(study)) << "to twelve digits";
    EXPECT_EQ(empty.pieces[1].log.note, study.pieces[1].log.note);
}

// Lengths along two axes, the first measured before the second: each stands with its own drawn length.
TEST(LogTable, LengthsGaugesAndPhotosAreWrittenAsTheyAre)
{
    test::StudyBuilder builder = threePieces();
    Study &study = builder.study;
    Piece &piece = study.pieces[0];
    study.log.measuring.lengthAxis = PrintAxis::X;
    study.log.measuring.length_mm = 80.0;
    ASSERT_TRUE(setLoggedValue(study, piece, {LogField::Length, 0}, 79.62));
    study.log.measuring.lengthAxis = PrintAxis::Z;
    study.log.measuring.length_mm = 60.0;
    const UsedGauge callipers{"callipers", "2026-06-01",
                              Calibration{"2026-01-19", "2027-01-19", {}, 1.0, false, {}, {}}, 0.0};
    ASSERT_TRUE(setLoggedValue(study, piece, {LogField::Length, 0}, 59.5, {callipers, {}}));
    piece.log.photos = {{RawFileId{7}, "flat, one layer", "me", "now"}, {RawFileId{8}, "", "me", "now"}};
    const std::string text = logTable(study);
    const std::string second = text.substr(text.find('\n') + 1);
    EXPECT_NE(second.find(",59.5,60,Z,X 79.62 of 80,length: callipers (calibrated 2026-01-19),"),
              std::string::npos)
        << text;
    EXPECT_NE(second.find("\"flat, one layer; \""), std::string::npos) << text;
    for (std::string_view rest = text; !rest.empty();) {
        std::vector<std::string_view> cells;
        splitCells(takeRecord(rest, ','), ',', cells);
        EXPECT_EQ(cells.size(), 15U) << "every row has all columns";
    }
}

// "A1,10,02,4,01" under three headings was read as width 10, thickness 2.
TEST(LogTable, ARowWithMoreCellsThanHeadingsIsNotTaken)
{
    const test::StudyBuilder builder = threePieces();
    const std::string code = builder.study.pieces[0].code;
    const Result<TakenTable> table =
        readLogTable(builder.study,
                     "piece,width (mm),thickness (mm)\n" + code + ",10,02,4,01\n" +
                         builder.study.pieces[1].code + ",10.02,4.01\n",
                     "");
    ASSERT_TRUE(table) << table.error().message;
    ASSERT_EQ(table->problems.size(), 1U);
    EXPECT_NE(errorSentence(table->problems[0]).find("line 2: 5 cells under 3 headings"), std::string::npos)
        << errorSentence(table->problems[0]);
    EXPECT_NE(errorSentence(table->problems[0]).find("decimal comma"), std::string::npos)
        << errorSentence(table->problems[0]);
    EXPECT_EQ(table->values.size(), 2U) << "the other row is taken";
}

} // namespace inchpeg
