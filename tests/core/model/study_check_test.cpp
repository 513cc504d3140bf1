// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/study_check.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

#include <limits>

namespace inchpeg
{

namespace
{

Study sound()
{
    test::StudyBuilder builder;
    builder.rail("230", {40.0, 42.0}).rail("250", {44.0, 45.0});
    builder.study.reference = builder.study.conditions.front().id;
    return builder.study;
}

struct Damage {
    const char *name;
    void (*make)(Study &study);
    bool isMended;
    const char *says;
};

} // namespace

TEST(StudyCheck, FindsNothingInASoundStudy)
{
    const StudyFindings findings = checkStudy(sound());
    EXPECT_TRUE(findings.isSound()) << (findings.broken.empty() ? "" : findings.broken.front())
                                    << (findings.mendable.empty() ? "" : findings.mendable.front());
    Study empty;
    empty.id = StudyId{1};
    EXPECT_TRUE(checkStudy(empty).isSound());
}

TEST(StudyCheck, NamesEachKindOfWrongContentAndMendsWhatItMay)
{
    const Damage all[] = {
        {"reference", [](Study &s) { s.reference = ConditionId{999}; }, true, "first rail"},
        {"difference", [](Study &s) { s.smallestDifference = -0.1; }, true, "-0.1"},
        {"difference NaN", [](Study &s) { s.smallestDifference = std::numeric_limits<double>::quiet_NaN(); },
         true, "nan"},
        {"section", [](Study &s) { s.pieces[0].section = PlainArea{squareMillimetres(0.0)}; }, true,
         "no size"},
        {"code", [](Study &s) { s.pieces[1].code = s.pieces[0].code; }, true, "two pieces"},
        {"no code", [](Study &s) { s.pieces[1].code.clear(); }, true, "no code"},
        {"plate",
         [](Study &s) {
             s.plan.print.printed.push_back({1, 1, "2026-06-01T10:00:00Z", {{PieceId{777}}}});
         },
         true, "the plan names 1"},
        {"added later", [](Study &s) { s.plan.addedLater.push_back(PieceId{777}); }, true,
         "the plan names 1"},
        {"slicer", [](Study &s) { s.plan.print.slicer[ConditionId{777}] = {}; }, true, "the plan names 1"},
        {"rail of a piece", [](Study &s) { s.pieces[0].condition = ConditionId{999}; }, false, "rail 999"},
        {"test of a piece", [](Study &s) { s.pieces[0].test = Method::Creep; }, false,
         "no test of its study"},
        {"no levels", [](Study &s) { s.conditions[0].levels.clear(); }, false, "0 levels for 1"},
        {"level", [](Study &s) { s.conditions[0].levels[0] = "hot"; }, false, "\"hot\""},
        {"no tests", [](Study &s) { s.tests.clear(); }, false, "no test"},
        {"tests twice", [](Study &s) { s.tests.push_back(s.tests.front()); }, false, "twice"},
        {"pieces", [](Study &s) { s.tests[0].piecesPerCondition = -3; }, false, "-3 pieces"},
        {"no factors", [](Study &s) { s.factors.clear(); }, false, "0 factors"},
        {"id", [](Study &s) { s.pieces[0].id = s.pieces[1].id; }, false, "another thing"},
        {"no id", [](Study &s) { s.id = StudyId{0}; }, false, "from 1"},
        {"marker", [](Study &s) { s.pieces[0].markers["nonsense"] = {}; }, false, "nonsense"},
    };
    for (const Damage &damage : all) {
        Study study = sound();
        damage.make(study);
        const StudyFindings findings = checkStudy(study);
        const std::vector<std::string> &told = damage.isMended ? findings.mendable : findings.broken;
        ASSERT_FALSE(told.empty()) << damage.name;
        EXPECT_NE(told.front().find(damage.says), std::string::npos) << damage.name << ": " << told.front();
        if (!damage.isMended)
            continue;
        EXPECT_EQ(mendStudy(study), told) << damage.name;
        EXPECT_TRUE(checkStudy(study).isSound()) << damage.name;
        EXPECT_TRUE(mendStudy(study).empty()) << damage.name << ": once is enough";
    }
}

TEST(StudyCheck, MendingInventsNothing)
{
    Study study = sound();
    study.reference = ConditionId{999};
    study.pieces[2].section = RectangularSection{millimetres(-1.0), millimetres(4.0)};
    const Study before = study;
    mendStudy(study);
    EXPECT_EQ(study.reference, before.conditions.front().id);
    EXPECT_FALSE(study.pieces[2].section) << "not measured";
    EXPECT_EQ(study.pieces[0], before.pieces[0]);
    EXPECT_EQ(study.conditions, before.conditions);
}

} // namespace inchpeg
