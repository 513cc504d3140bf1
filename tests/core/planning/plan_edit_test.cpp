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
    study.plan.setup.rig = "frame";
    study.plan.setup.expected = 30.0;
    ASSERT_TRUE(setMethod(study, Method::Tension));
    EXPECT_EQ(study.plan.setup.rig, "frame") << "the same test stays as it is";
    ASSERT_TRUE(setMethod(study, Method::Creep));
    EXPECT_TRUE(study.plan.setup.rig.empty());
    EXPECT_FALSE(study.plan.setup.expected);
    EXPECT_EQ(study.plan.setup.stress_MPa, 5.0);
}

TEST(PlanEdit, AFurtherTestComesOnceAndGoesWithItsEmptyPieces)
{
    test::StudyBuilder builder;
    builder.study.method = Method::Tension;
    builder.rail("230", {30.0, 31.0}).rail("245", {35.0, 36.0});
    Study &study = builder.study;
    const std::size_t own = study.pieces.size();
    ASSERT_TRUE(addFurtherTest(study, Method::Impact, builder.ids()));
    EXPECT_EQ(study.pieces.size(), own + 2 * 3);
    for (const Method again : {Method::Impact, Method::Tension})
        EXPECT_FALSE(addFurtherTest(study, again, builder.ids())) << methodName(again);
    EXPECT_FALSE(setMethod(study, Method::Impact)) << "it is a further test already";
    EXPECT_EQ(study.method, Method::Tension);
    Study held = study;
    held.pieces.back().recording = Recording{RawFileId{9}, {}};
    ASSERT_EQ(held.pieces.back().test, Method::Impact);
    EXPECT_FALSE(removeFurtherTest(held, Method::Impact, builder.ids())) << "a piece holds a record";
    ASSERT_TRUE(removeFurtherTest(study, Method::Impact, builder.ids()));
    EXPECT_EQ(study.pieces.size(), own);
    EXPECT_TRUE(study.plan.further.empty());
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

TEST(PlanEdit, ARigOfTheOwnTestSetsTheEndOfTheRange)
{
    Study study;
    Workshop workshop = usualWorkshop();
    RigCard frame;
    frame.name = "small";
    frame.range = 250.0;
    workshop.rigs.push_back(frame);
    setRig(study, {}, workshop, "small");
    EXPECT_EQ(study.rules.capacity, newtons(250.0));
    study.rules.capacity.reset();
    study.plan.further.push_back({Method::Bending, 3, {}});
    setRig(study, Method::Bending, workshop, "small");
    EXPECT_EQ(study.plan.further[0].setup.rig, "small");
    EXPECT_FALSE(study.rules.capacity) << "the rule is that of the study's own test";
}

TEST(PlanEdit, NewRailsOfLayerAdhesionStand)
{
    test::StudyBuilder builder;
    builder.study.method = Method::LayerAdhesion;
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
    EXPECT_FALSE(setSpares(study, study.piecesPerCondition));
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
