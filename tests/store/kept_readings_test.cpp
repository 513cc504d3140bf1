// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reading/reading_text.h"
#include "store/kept_readings.h"
#include "store/project_file.h"
#include "support/study_builder.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

class KeptReadingsTest : public testing::Test
{
protected:
    KeptReadingsTest()
    {
        Result<ProjectFile> project = ProjectFile::create(m_path);
        EXPECT_TRUE(project);
        m_study.id = StudyId{project->takeId()};
        m_study.question = "kept?";
        firstTest(m_study).piecesPerCondition = 3;
        EXPECT_TRUE(addCondition(m_study, {{}, {"a"}, {}, {}}, [&] { return project->takeId(); }));
        EXPECT_TRUE(project->save({std::nullopt, m_study}));
        m_project.emplace(std::move(*project));
    }

    static KeptReading readingFor(PieceId piece, double strength_MPa)
    {
        KeptReading kept{piece, "inputs of " + std::to_string(piece.value), {}};
        kept.reading.result.values = {
            {"tensile_strength", strength_MPa, "a label", BoundReason::NoBreak, 0.3}};
        kept.reading.result.kind = "complete break";
        kept.reading.result.marks = {{"strength", "At least", 0.1, strength_MPa, 3.0}};
        kept.reading.result.picture = {{"Strain", Dimension::Ratio, "toe taken off"},
                                       {"Stress", Dimension::Stress},
                                       RecordCurve{1, 2, 2, true},
                                       {{"fit", {0.0, 1.0}, {2.0, 3.0}}},
                                       {{"line", 0.0, 1.0, 2.0, 3.0}}};
        kept.reading.result.warnings = {"a \x02marked 1 N 3\x03 “warning”"};
        kept.reading.outline = {kept.reading.result.picture.x,
                                kept.reading.result.picture.y,
                                {0.0, 0.1, 0.30000000000000004},
                                {0.0, 1.0 / 3.0, 2.0},
                                true,
                                2};
        return kept;
    }

    std::vector<KeptReading> loaded(const std::function<bool(PieceId, const std::string &)> &wanted)
    {
        std::vector<KeptReading> found;
        Result<KeptReadings> kept = KeptReadings::openForReading(m_path);
        EXPECT_TRUE(kept);
        EXPECT_TRUE(kept->load(m_study.id, wanted, [&](KeptReading reading) {
            found.push_back(std::move(reading));
            return true;
        }));
        return found;
    }

    test::TemporaryFolder m_folder;
    std::string m_path = m_folder.path("p.inchpeg");
    Study m_study;
    std::optional<ProjectFile> m_project;
};

} // namespace

TEST_F(KeptReadingsTest, AReadingComesBackBitForBit)
{
    const std::vector<KeptReading> readings{readingFor(m_study.pieces[0].id, 41.1),
                                            readingFor(m_study.pieces[2].id, 42.2)};
    ASSERT_TRUE(KeptReadings::open(m_path)->keep(readings));
    const std::vector<KeptReading> back = loaded([](PieceId, const std::string &) { return true; });
    ASSERT_EQ(back.size(), 2U);
    for (std::size_t i = 0; i < 2; ++i) {
        EXPECT_EQ(back[i].piece, readings[i].piece);
        EXPECT_EQ(back[i].inputs, readings[i].inputs);
        EXPECT_EQ(back[i].reading, readings[i].reading);
    }
}

TEST_F(KeptReadingsTest, OneWithOtherInputsIsNotTakenAndANewOneReplacesIt)
{
    const PieceId piece = m_study.pieces[0].id;
    ASSERT_TRUE(KeptReadings::open(m_path)->keep({readingFor(piece, 41.1)}));
    const auto wanted = [&](PieceId, const std::string &inputs) { return inputs == "inputs of today"; };
    EXPECT_TRUE(loaded(wanted).empty());
    KeptReading fresh = readingFor(piece, 44.4);
    fresh.inputs = "inputs of today";
    ASSERT_TRUE(KeptReadings::open(m_path)->keep({fresh}));
    ASSERT_EQ(loaded(wanted).size(), 1U);
    EXPECT_EQ(loaded(wanted)[0].reading.result.values[0].number, 44.4);
}

TEST_F(KeptReadingsTest, ReadingsOfPiecesThatAreGoneAreNeitherKeptNorInTheWay)
{
    ASSERT_TRUE(KeptReadings::open(m_path)->keep(
        {readingFor(PieceId{4711}, 1.0), readingFor(m_study.pieces[2].id, 2.0)}));
    Study fewer = m_study;
    ASSERT_TRUE(setPiecesPerCondition(fewer, methodOf(fewer), 2, [&] { return m_project->takeId(); }));
    EXPECT_TRUE(m_project->save({m_study, fewer})) << "a piece with a kept reading can go";
    EXPECT_TRUE(loaded([](PieceId, const std::string &) { return true; }).empty());
    EXPECT_TRUE(m_project->save({fewer, std::nullopt}));
    EXPECT_TRUE(m_project->verify()->findings.empty());
}

TEST_F(KeptReadingsTest, WhatAStudyCameToIsKeptUntilItIsChanged)
{
    const auto values = [&] { return *KeptReadings::openForReading(m_path)->values(); };
    ASSERT_EQ(values().size(), 1U);
    const KeptValues begun = values().front();
    EXPECT_EQ(begun.study, m_study.id);
    EXPECT_TRUE(begun.madeFrom.empty());
    ASSERT_TRUE(KeptReadings::open(m_path)->keepValues({{m_study.id, begun.revision, "these", "[]"}}));
    EXPECT_EQ(values().front().madeFrom, "these");
    EXPECT_EQ(values().front().rails, "[]");
    Study other = m_study;
    other.question = "kept still?";
    ASSERT_TRUE(m_project->save({m_study, other}));
    EXPECT_TRUE(values().front().madeFrom.empty()) << "the study is another now";
    // Who read the study before it was changed comes too late.
    ASSERT_TRUE(KeptReadings::open(m_path)->keepValues({{m_study.id, begun.revision, "those", "[]"}}));
    EXPECT_TRUE(values().front().madeFrom.empty());
    ASSERT_TRUE(m_project->save({other, std::nullopt}));
    EXPECT_TRUE(values().empty());
}

} // namespace inchpeg
