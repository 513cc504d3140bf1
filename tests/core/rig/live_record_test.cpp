// SPDX-License-Identifier: GPL-3.0-or-later
// The line of a rig as docs/rig_protocol.md has it, and the record that is made of it.
#include "core/curve/force_curve.h"
#include "core/rig/live_record.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

template <typename T>
std::vector<T> only(const std::vector<RigLine> &lines)
{
    std::vector<T> found;
    for (const RigLine &line : lines) {
        if (const T *one = std::get_if<T>(&line))
            found.push_back(*one);
    }
    return found;
}

/// Plays lines at a rate, each by itself.
std::string play(LiveRecord &record, const std::vector<std::string> &lines, double from_s = 0.0,
                 double step_s = 0.1)
{
    std::string text;
    double at_s = from_s;
    for (const std::string &line : lines) {
        text += record.take(line + "\n", at_s);
        at_s += step_s;
    }
    return text;
}

} // namespace

TEST(RigLines, TheLeastIsANumberALine)
{
    RigLines lines;
    const auto rows = only<RigRow>(lines.take("12.34\r\n-0,5\r+7\n\n1e3\n"));
    ASSERT_EQ(rows.size(), 4U);
    EXPECT_EQ(rows[0].values[0], 12.34);
    EXPECT_EQ(rows[1].values[0], -0.5) << "a decimal comma parts no cells here";
    EXPECT_EQ(rows[2].values[0], 7.0);
    EXPECT_EQ(rows[3].values[0], 1000.0);
    EXPECT_EQ(lines.columns()[0].unit->symbol, "N");
}

TEST(RigLines, AreCutHoweverTheyAreChopped)
{
    const std::string whole = "t[s];force[N]\r\n0.01;1.5\r\n0.02;2.5\r\n";
    RigLines lines;
    std::vector<RigLine> all;
    for (const char c : whole) {
        for (RigLine &line : lines.take(std::string_view(&c, 1)))
            all.push_back(std::move(line));
    }
    ASSERT_EQ(all.size(), 3U);
    EXPECT_EQ(std::get<RigHeading>(all[0]).columns[1].quantity, ColumnQuantity::Force);
    EXPECT_EQ(*std::get<RigRow>(all[2]).values[1], 2.5);
}

TEST(RigLines, EachDelimiterOfAHeadingIsItsRows)
{
    for (const auto &[heading, row] : {std::pair{"t[s];force[N];travel[mm]", "0.1;2.5;0.3"},
                                       {"t[s],force[N],travel[mm]", "0.1,2.5,0.3"},
                                       {"t[s]\tforce[N]\ttravel[mm]", "0.1\t2.5\t0.3"},
                                       {"t[s] force[N] travel[mm]", "0.1  2.5 0.3"}}) {
        RigLines lines;
        const auto read = lines.take(std::string(heading) + "\n" + row + "\n");
        ASSERT_EQ(only<RigRow>(read).size(), 1U) << heading;
        EXPECT_EQ(*only<RigRow>(read)[0].values[2], 0.3) << heading;
    }
    RigLines lines;
    const auto read = lines.take("t[s];force[N]\n0.1;\n;2\n");
    ASSERT_EQ(only<RigRow>(read).size(), 2U);
    EXPECT_FALSE(only<RigRow>(read)[0].values[1]) << "an empty cell is no value";
}

TEST(RigLines, FactsFaultsAndAnswers)
{
    RigLines lines;
    const auto read = lines.take("# range = 2 kN\n! overload\n! clear\n= ok\n= error no such channel\n");
    ASSERT_EQ(read.size(), 5U);
    EXPECT_EQ(std::get<RigFact>(read[0]).text, "range = 2 kN");
    EXPECT_EQ(std::get<RigFault>(read[1]).text, "overload");
    EXPECT_TRUE(std::get<RigFault>(read[2]).text.empty());
    EXPECT_TRUE(std::get<RigAnswer>(read[3]).isOk);
    EXPECT_EQ(std::get<RigAnswer>(read[4]).text, "no such channel");
}

TEST(RigLines, DamageIsToldAndEndsNothing)
{
    RigLines lines;
    std::vector<RigLine> read = lines.take("t[s];force[N]\n0.1;1\n0.2\n0.3;1;2\n0.4;1x\n0.5;nan\n0.6;2\n");
    EXPECT_EQ(only<RigDamage>(read).size(), 4U);
    EXPECT_EQ(only<RigRow>(read).size(), 2U);
    // Exclusive or of "0.7;3" is 0x28 ^ …: by hand 0x30^0x2e^0x37^0x3b^0x33 = 0x21.
    read = lines.take("0.7;3*21\n0.8;3*22\n" + std::string(5000, '9') + "\n0.9;4\n");
    EXPECT_EQ(only<RigRow>(read).size(), 2U);
    EXPECT_EQ(only<RigDamage>(read).size(), 2U);
    // A heading that was garbled changes nothing.
    read = lines.take("t[s];fo\nt[s];force[\n1.0;5\n");
    EXPECT_EQ(only<RigDamage>(read).size(), 2U);
    EXPECT_EQ(only<RigRow>(read).size(), 1U);
}

TEST(LiveRecord, KeepsTheTimeOfTheRigOrOfArrival)
{
    LiveRecord with({});
    play(with, {"t[ms];force[N]", "1000;1", "1100;2", "1200;3"});
    EXPECT_EQ(with.rows(), 3U);
    EXPECT_NEAR(with.seconds(), 0.2, 1e-12);
    LiveRecord without({});
    const std::string text = play(without, {"1", "2", "3"}, 7.0);
    EXPECT_NEAR(without.seconds(), 0.2, 1e-12);
    EXPECT_TRUE(text.starts_with("t[s];force[N]\n0;1\n")) << text;
}

TEST(LiveRecord, WhatItWritesIsReadAsAFile)
{
    LiveRecord record({});
    std::string text = play(record, {"# range = 2 kN", "t[s];force[N];travel[mm]"});
    std::vector<std::string> lines;
    for (int i = 0; i < 30; ++i)
        lines.push_back(std::to_string(0.1 * i) + ";" + std::to_string(2.5 * i) + ";" +
                        std::to_string(0.01 * i));
    lines.insert(lines.begin() + 10, {"! overload", "garbled;;", "! clear"});
    text += play(record, lines, 1.0);
    EXPECT_EQ(record.rows(), 30U);
    EXPECT_EQ(record.damaged(), 1U);
    ASSERT_EQ(record.faults().size(), 2U);
    const Result<ImportedRecord> file = importRecord(text, kForceColumns);
    ASSERT_TRUE(file) << file.error().message;
    EXPECT_EQ(file->table.rows, 30U);
}

TEST(LiveRecord, GapsAreSilencesRestartsAndPulledCables)
{
    LiveRecord silent({});
    play(silent, {"1", "2", "3", "4", "5"});
    const std::string text = silent.take("6\n", 3.4);
    ASSERT_EQ(silent.gaps().size(), 1U);
    EXPECT_NEAR(silent.gaps()[0].from_s, 0.4, 1e-9);
    EXPECT_NEAR(silent.gaps()[0].to_s, 3.4, 1e-9);
    EXPECT_TRUE(text.find("# gap from 0.4 to 3.4 s") != std::string::npos) << text;

    LiveRecord restarted({});
    play(restarted, {"t[s];force[N]", "5.0;1", "5.1;2", "5.2;3", "5.3;3"});
    play(restarted, {"t[s];force[N]", "0.0;4", "0.1;5"}, 2.0);
    ASSERT_EQ(restarted.gaps().size(), 1U);
    EXPECT_NEAR(restarted.gaps()[0].from_s, 5.3, 1e-9);
    EXPECT_NEAR(restarted.gaps()[0].to_s, 5.3 + 2.1 - 0.4, 1e-9) << "as long as nothing came";
    EXPECT_NEAR(restarted.latest()->t_s, 7.1, 1e-9) << "time goes on";

    LiveRecord pulled({});
    play(pulled, {"1", "2", "3", "4"});
    pulled.take("12.", 0.5);
    pulled.pulled();
    pulled.take("7\n", 0.6);
    EXPECT_EQ(pulled.rows(), 5U);
    EXPECT_EQ(*pulled.latest()->values[1], 7.0) << "the half line is lost";
    ASSERT_EQ(pulled.gaps().size(), 1U) << "however short";

    LiveRecord slow({});
    play(slow, {"1", "2", "3", "4", "5", "6"}, 0.0, 2.0);
    EXPECT_TRUE(slow.gaps().empty()) << "its usual spacing";
}

TEST(LiveRecord, BeginsAndEndsByItself)
{
    RecordRule rule;
    rule.startAt = 5.0;
    rule.stopAfterDrop = 0.5;
    LiveRecord record(rule);
    const std::string text = play(record, {"# kind = frame", "t[s];travel[mm];force[N]", "0;0;0.1", "1;0;0.2",
                                           "2;0.1;6", "3;0.2;20", "4;0.3;18", "5;0.4;9", "6;0.5;8"});
    EXPECT_TRUE(record.hasEnded());
    EXPECT_EQ(record.rows(), 4U) << "from 6 N to the first below half of 20 N";
    EXPECT_EQ(record.peak(), 20.0);
    EXPECT_TRUE(text.starts_with("# kind = frame\nt[s];travel[mm];force[N]\n2;0.1;6\n")) << text;
    LiveRecord few({.startAt = {}, .stopAfterDrop = {}, .seconds = {}, .rows = 2});
    play(few, {"1", "2", "3"});
    EXPECT_EQ(few.rows(), 2U);
    LiveRecord compressed({.startAt = 5.0, .stopAfterDrop = {}, .seconds = {}, .rows = {}});
    play(compressed, {"0", "-6", "-7"});
    EXPECT_EQ(compressed.rows(), 2U) << "signs say nothing";
}

TEST(LiveRecord, AHeadingThatComesAgainMayBeInAnotherOrderButNotAnother)
{
    LiveRecord record({});
    play(record, {"t[s];force[N]", "0;1", "1;2", "force[N];t[s]", "3;2"});
    EXPECT_EQ(record.rows(), 3U);
    EXPECT_EQ(*record.latest()->values[1], 3.0);
    play(record, {"t[s];torque[N·m]", "3;4"}, 1.0);
    EXPECT_EQ(record.rows(), 3U);
    EXPECT_EQ(record.fault(), "the columns changed");
    EXPECT_EQ(record.damaged(), 1U);
}

TEST(LiveRecord, RowsBeforeTheHeadingAreNoDamageOnceItCame)
{
    LiveRecord record({});
    play(record, {"0.1;5;0.2", "0.2;6;0.3"});
    EXPECT_EQ(record.damaged(), 2U);
    play(record, {"t[s];force[N];travel[mm]", "0.3;7;0.4"});
    EXPECT_EQ(record.damaged(), 0U);
    EXPECT_EQ(record.rows(), 1U);
}

TEST(LiveRecord, ABusyMachineMakesNoGapWhereTheRigsTimesGoOn)
{
    LiveRecord record({});
    play(record, {"t[s];force[N]", "0.000;1", "0.001;2", "0.002;3", "0.003;4", "0.004;5"});
    record.take("0.005;6\n0.006;7\n", 9.0); // eight seconds late, and nothing is missing
    EXPECT_TRUE(record.gaps().empty());
    record.take("1.500;8\n", 9.1); // by the rig's own clock something is
    ASSERT_EQ(record.gaps().size(), 1U);
    EXPECT_NEAR(record.gaps()[0].to_s - record.gaps()[0].from_s, 1.494, 1e-9);
}

TEST(LiveRecord, ARigThatWasRestartedWithOneColumnMoreLosesNoRow)
{
    LiveRecord record({});
    std::string text = play(record, {"t[s];force[N]", "0;1", "1;2", "2;3"});
    text += play(record, {"travel[mm];t[s];force[N]", "0.5;0;4", "0.6;1;5"}, 3.0);
    EXPECT_EQ(record.rows(), 5U);
    EXPECT_EQ(record.damaged(), 0U);
    EXPECT_EQ(*record.latest()->values[1], 5.0);
    EXPECT_EQ(record.gaps().size(), 1U) << "the restart";
    EXPECT_NE(text.find("# travel came after the record had begun and is left out"), std::string::npos)
        << text;
    EXPECT_NE(std::find(record.facts().begin(), record.facts().end(),
                        "travel came after the record had begun and is left out"),
              record.facts().end());
}

TEST(LiveRecord, RowsOfAnotherHeadingDoNotStandUnderTheNewOne)
{
    LiveRecord record({.startAt = 1e9});
    record.take("1\n2\n3\nt[s];force[N];travel[mm]\n0;4;0.1\n", 0.1); // in one go
    EXPECT_EQ(record.columns().size(), 3U);
    for (const RecordedRow &row : record.takeNewRows())
        EXPECT_EQ(row.values.size(), 3U);
    EXPECT_EQ(record.latest()->values.size(), 3U);
}

TEST(LiveRecord, WhatComesBackOfACommandIsNoDamage)
{
    LiveRecord record({});
    record.sent("hello");
    play(record, {"hello", "t[s];force[N]", "0;1", "hello"});
    EXPECT_EQ(record.rows(), 1U);
    EXPECT_EQ(record.damaged(), 1U) << "once, for the one that was sent";
}

TEST(RigLines, ALineThatNeverEndsIsToldAtOnce)
{
    RigLines lines;
    const std::string endless(3 * kLongestRigLine, '1');
    EXPECT_EQ(only<RigDamage>(lines.take(endless)).size(), 1U);
    EXPECT_TRUE(lines.take(endless).empty()) << "once";
    EXPECT_TRUE(lines.take("\n").empty());
    EXPECT_EQ(only<RigRow>(lines.take("5\n")).size(), 1U) << "and the next one is read";
}

} // namespace inchpeg
