// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/bench_plan.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

namespace inchpeg
{

TEST(BenchPlan, PiecesComeInTheDrawnOrderAndThoseOfNoPlateBehind)
{
    test::StudyBuilder builder;
    builder.rail("220", {}, Orientation::Standing, 3).rail("240", {}, Orientation::Standing, 3);
    const std::vector<Piece> &pieces = builder.study.pieces;
    builder.study.plan.print.printed = {{1,
                                         1,
                                         "",
                                         {{pieces[0].id, 0, 0, 1, 1, 4},
                                          {pieces[1].id, 0, 0, 1, 1, 2},
                                          {pieces[3].id, 0, 0, 1, 1, 1},
                                          {pieces[4].id, 0, 0, 1, 1, 3}}}};
    EXPECT_EQ(
        benchOrder(builder.study, Method::Tension),
        (std::vector{pieces[3].id, pieces[1].id, pieces[4].id, pieces[0].id, pieces[2].id, pieces[5].id}));
    builder.study.pieces[3].recording = Recording{};
    builder.study.pieces[1].exclusion = Exclusion{};
    EXPECT_EQ(benchOrder(builder.study, Method::Tension).front(), pieces[4].id) << "tested, and void";
    EXPECT_TRUE(benchOrder(builder.study, Method::Bending).empty());
}

TEST(BenchPlan, ARecordBeginsAboveTheNoiseAndEndsAtTheBreak)
{
    RigCard rig;
    rig.range = 2000.0;
    rig.resolution = 0.2;
    const ExpectedLoad load{LoadKind::Force_N, 480.0, {}};
    EXPECT_DOUBLE_EQ(*benchRule(Method::Tension, load, &rig)->startAt, 4.8);
    EXPECT_DOUBLE_EQ(*benchRule(Method::Tension, std::nullopt, &rig)->startAt, 20.0)
        << "a share of the range";
    rig.resolution = 1.0;
    EXPECT_DOUBLE_EQ(*benchRule(Method::Tension, load, &rig)->startAt, 10.0) << "ten steps";
    EXPECT_DOUBLE_EQ(*benchRule(Method::Tension, load, &rig)->stopAfterDrop, 0.6);
    EXPECT_FALSE(benchRule(Method::Impact, std::nullopt, nullptr)) << "a swing has its own";
    EXPECT_FALSE(benchRule(Method::Creep, std::nullopt, nullptr));
}

TEST(BenchPlan, TheRangeIsOfTheCardOrOfWhatTheRigSays)
{
    EXPECT_EQ(rangeState(1500.0, 2000.0), RangeState::Inside);
    EXPECT_EQ(rangeState(-1650.0, 2000.0), RangeState::NearEnd);
    EXPECT_EQ(rangeState(1985.0, 2000.0), RangeState::AtEnd);
    EXPECT_EQ(rangeState(1e9, 0.0), RangeState::Inside) << "not known";
    const std::vector<std::string> facts{"kind = frame", "range = 2 kN"};
    EXPECT_DOUBLE_EQ(*rangeFromFacts(facts), 2000.0);
    EXPECT_FALSE(rangeFromFacts(std::vector<std::string>{"range = wide", "ranges = 2 kN"}));
}

} // namespace inchpeg
