// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/factor.h"
#include "core/planning/plan_edit.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

PlannedProperty strength()
{
    return factsOf(Method::Tension).properties.front();
}

} // namespace

TEST(PlanEdit, AnotherTestLetsGoOfWhatTheOldOneWasSetUpFor)
{
    Study study;
    firstTest(study).setup.rig = "frame";
    firstTest(study).setup.expected = 30.0;
    ASSERT_TRUE(setMethod(study, Method::Tension));
    EXPECT_EQ(firstTest(study).setup.rig, "frame") << "the same test stays as it is";
    ASSERT_TRUE(setMethod(study, Method::Creep));
    EXPECT_TRUE(firstTest(study).setup.rig.empty());
    EXPECT_FALSE(firstTest(study).setup.expected);
    EXPECT_EQ(firstTest(study).setup.stress_MPa, 5.0);
}

TEST(PlanEdit, AFurtherTestComesOnceAndGoesWithItsEmptyPieces)
{
    test::StudyBuilder builder;
    firstTest(builder.study).method = Method::Tension;
    builder.rail("230", {30.0, 31.0}).rail("245", {35.0, 36.0});
    Study &study = builder.study;
    const std::size_t own = study.pieces.size();
    ASSERT_TRUE(addTest(study, Method::Impact, builder.ids()));
    EXPECT_EQ(study.pieces.size(), own + 2 * 3);
    for (const Method again : {Method::Impact, Method::Tension})
        EXPECT_FALSE(addTest(study, again, builder.ids())) << methodName(again);
    EXPECT_FALSE(removeTest(study, Method::Tension, builder.ids())) << "the question is asked of it";
    ASSERT_TRUE(setMethod(study, Method::Impact)) << "the question is asked of the other test";
    EXPECT_EQ(methodOf(study), Method::Impact);
    EXPECT_EQ(study.pieces.size(), own + 2 * 3) << "nothing is lost";
    ASSERT_TRUE(setMethod(study, Method::Tension));
    Study held = study;
    held.pieces.back().recording = Recording{RawFileId{9}, {}};
    ASSERT_EQ(held.pieces.back().test, Method::Impact);
    EXPECT_FALSE(removeTest(held, Method::Impact, builder.ids())) << "a piece holds a record";
    ASSERT_TRUE(removeTest(study, Method::Impact, builder.ids()));
    EXPECT_EQ(study.pieces.size(), own);
    EXPECT_EQ(study.tests.size(), 1U);
}

TEST(PlanEdit, TheDifferenceIsAShareOrAValueOfWhatIsExpected)
{
    Study study;
    for (const auto &[typed, share] :
         {std::pair{"12 %", 0.12}, {"8", 0.08}, {"7,5 %", 0.075}, {"3 MPa", 0.1}}) {
        ASSERT_TRUE(setDifference(study, strength(), typed, 30.0)) << typed;
        EXPECT_DOUBLE_EQ(study.smallestDifference, share) << typed;
    }
    EXPECT_EQ(study.plan.aim.absoluteDifference, 3.0);
    const Study before = study;
    EXPECT_FALSE(setDifference(study, strength(), "3 MPa", {})) << "of what?";
    for (const char *typed : {"", "0 %", "-4", "2000 %", "much", "3 N"})
        EXPECT_FALSE(setDifference(study, strength(), typed, 30.0)) << typed;
    EXPECT_EQ(study, before) << "a refusal changes nothing";
    const PlannedProperty heat = factsOf(Method::HeatDeflection).properties.front();
    EXPECT_FALSE(setDifference(study, heat, "5 %", 70.0)) << "a temperature has no percent";
    ASSERT_TRUE(setDifference(study, heat, "5 K", 70.0));
    EXPECT_EQ(study.plan.aim.absoluteDifference, 5.0);
}

TEST(PlanEdit, ASettingIsHeldChangedLetGoAndNeverVariedAsWell)
{
    Study study;
    study.factors.front().name = "fan";
    ASSERT_TRUE(lockSetting(study, "walls", "4"));
    ASSERT_TRUE(lockSetting(study, "walls", "3"));
    ASSERT_EQ(study.plan.locked.size(), 1U);
    EXPECT_EQ(study.plan.locked[0].value, "3");
    EXPECT_FALSE(lockSetting(study, "fan", "30 %"));
    EXPECT_FALSE(lockSetting(study, "", "1"));
    ASSERT_TRUE(lockSetting(study, "walls", ""));
    EXPECT_TRUE(study.plan.locked.empty());
}

TEST(PlanEdit, RulesOfReadingThatMakeNoSenseAreRefused)
{
    Study study;
    const Study before = study;
    for (const auto &[name, text] : {std::pair{"modulus_from", "0.3 %"},
                                     {"modulus_from", "-10 %"},
                                     {"offset", "0 %"},
                                     {"break_drop", "100 %"},
                                     {"break_drop", "0 %"},
                                     {"modulus_to", "200 %"},
                                     {"gauge_length", "0 mm"},
                                     {"toe", "perhaps"}}) {
        EXPECT_FALSE(setTestParameter(study, Method::Tension, name, text)) << name << ' ' << text;
        EXPECT_EQ(study, before) << "a refusal changes nothing";
    }
    ASSERT_TRUE(setTestParameter(study, Method::Tension, "modulus_to", "0.3 %"));
    ASSERT_TRUE(setTestParameter(study, Method::Tension, "modulus_from", "0.25 %"));
    EXPECT_FALSE(setTestParameter(study, Method::Tension, "modulus_to", ""))
        << "the usual end lies at the start";
    ASSERT_TRUE(setTestParameter(study, Method::Tension, "modulus_from", ""));
    ASSERT_TRUE(setTestParameter(study, Method::Tension, "modulus_to", ""));
    EXPECT_EQ(study, before);
}

TEST(PlanEdit, ARigSetsTheEndOfTheRangeOfItsTestAlone)
{
    Study study;
    Workshop workshop = usualWorkshop();
    RigCard frame;
    frame.name = "small";
    frame.range = 250.0;
    workshop.rigs.push_back(frame);
    study.tests.push_back({Method::Bending, 3, {}});
    study.tests.push_back({Method::Creep, 3, {}});
    setRig(study, Method::Bending, workshop, "small");
    EXPECT_EQ(study.tests[1].setup.rig, "small");
    EXPECT_EQ(study.tests[1].setup.settings.number("capacity"), 250.0);
    EXPECT_FALSE(firstTest(study).setup.settings.contains("capacity")) << "another gauge reads that test";
    setRig(study, Method::Creep, workshop, "small");
    EXPECT_FALSE(study.tests[2].setup.settings.contains("capacity")) << "no force is read in it";
}

TEST(PlanEdit, NewRailsOfLayerAdhesionStand)
{
    test::StudyBuilder builder;
    firstTest(builder.study).method = Method::LayerAdhesion;
    ASSERT_TRUE(makeRails(builder.study, DesignKind::FullFactorial, {{"230", "250"}}, builder.ids()));
    ASSERT_EQ(builder.study.conditions.size(), 2U);
    for (const Condition &condition : builder.study.conditions)
        EXPECT_EQ(condition.orientation, Orientation::Standing);
}

TEST(PlanEdit, DatesSparesSlicerAndConfirmationsAreChecked)
{
    Study study;
    EXPECT_FALSE(setStart(study, "30.11.2026"));
    ASSERT_TRUE(setStart(study, "2026-11-30"));
    ASSERT_TRUE(setStart(study, ""));
    EXPECT_FALSE(setSpares(study, firstTest(study).piecesPerCondition));
    ASSERT_TRUE(setSpares(study, 1));
    EXPECT_FALSE(setSlicer(study, ConditionId{1}, {-1.0, {}}));
    ASSERT_TRUE(setSlicer(study, ConditionId{1}, {4.2, 30.0}));
    ASSERT_TRUE(setSlicer(study, ConditionId{1}, {}));
    EXPECT_TRUE(study.plan.print.slicer.empty());
    confirmCaution(study, "fragments", Confirmation{"fragments", "me", "now"});
    confirmCaution(study, "fragments", Confirmation{"fragments", "you", "later"});
    ASSERT_EQ(study.plan.confirmed.size(), 1U);
    confirmCaution(study, "fragments", {});
    EXPECT_TRUE(study.plan.confirmed.empty());
    EXPECT_FALSE(setQuestion(study, ""));
}

} // namespace inchpeg
