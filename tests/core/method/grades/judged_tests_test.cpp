// SPDX-License-Identifier: GPL-3.0-or-later
// Tests whose readings a person feels, sees or takes by hand: virtual ones are read again, and worked
// examples.
#include "core/base/random.h"
#include "core/method/hardness/hardness.h"
#include "core/method/method.h"
#include "core/method/torsion/stepped_torque.h"
#include "core/method/void_share/void_share.h"
#include "core/method/warp/warp.h"
#include "core/reading/piece_reading.h"
#include "sim/virtual_judgement.h"
#include "support/matching_digits.h"
#include "support/read_value.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

Result<PieceReading> readTable(Method method, const std::string &table, MethodSettings settings = {})
{
    const Reduction *reduction = reductionOf(method);
    ReadingOrder order{reduction, std::move(settings), {}, {}};
    if (reduction->columns.empty())
        order.row = "A1";
    return readPiece({PieceId{1}, std::make_shared<const std::string>(table), {}, order});
}

double valueIn(const PieceReading &reading, const char *name)
{
    return test::readValue(reading.result, name);
}

} // namespace

TEST(ByFeel, TheGradeIsTheMeanOfTwoAndUnsteadyOnesAreTold)
{
    const Result<PieceReading> steady = readTable(Method::ByFeel, "grade,again\n3,4\n");
    ASSERT_TRUE(steady) << steady.error().message;
    EXPECT_EQ(valueIn(*steady, "grade"), 3.5);
    EXPECT_EQ(valueIn(*steady, "repeat_gap"), 1.0);
    EXPECT_TRUE(steady->result.validity.at(0).ok);
    const Result<PieceReading> unsteady = readTable(Method::ByFeel, "grade,again\n2,5\n");
    ASSERT_TRUE(unsteady);
    EXPECT_FALSE(unsteady->result.validity.at(0).ok);
    const Result<PieceReading> once = readTable(Method::ByFeel, "grade\n2\n");
    ASSERT_TRUE(once);
    EXPECT_EQ(valueIn(*once, "grade"), 2.0);
    EXPECT_EQ(valueOf(once->result.values, "repeat_gap"), nullptr);
    EXPECT_EQ(once->result.warnings.size(), 1U);
    const Result<PieceReading> refused = readTable(Method::ByFeel, "grade\n6\n");
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().message.find("1 or 2 or 3 or 4 or 5"), std::string::npos);
}

TEST(PairsByFeel, AreTheShareOfAnswersWonWithTiesAsHalf)
{
    // 5 won, 2 even, 1 lost of 8: (5 + 1)/8 = 0.75; 1 of 4 pairs changed: 0.25.
    const Result<PieceReading> read =
        readTable(Method::FeltPairs, "won,even,lost,asked_again,changed\n5,2,1,4,1\n");
    ASSERT_TRUE(read) << read.error().message;
    EXPECT_EQ(valueIn(*read, "pair_share"), 0.75);
    EXPECT_EQ(valueIn(*read, "changed_share"), 0.25);
    EXPECT_TRUE(read->result.validity.at(0).ok);
    const Result<PieceReading> once = readTable(Method::FeltPairs, "won,even,lost\n0,0,1\n");
    ASSERT_TRUE(once) << once.error().message;
    EXPECT_EQ(valueIn(*once, "pair_share"), 0.0);
    EXPECT_EQ(valueOf(once->result.values, "changed_share"), nullptr);
    EXPECT_EQ(once->result.warnings.size(), 1U);
    const std::pair<const char *, const char *> refused[] = {
        {"won,even,lost\n0,0,0\n", "in no pair"},
        {"won,even,lost\n1.5,0,0\n", "won is 1.5"},
        {"won,even,lost\n-1,0,3\n", "won"},
        {"won,lost\n1,0\n", "even"},
        {"won,even,lost,asked_again,changed\n1,0,1,1,2\n", "only 1 were asked twice"},
    };
    for (const auto &[table, word] : refused) {
        const Result<PieceReading> result = readTable(Method::FeltPairs, table);
        ASSERT_FALSE(result) << table;
        EXPECT_NE(result.error().message.find(word), std::string::npos) << result.error().message;
    }
}

TEST(PrintOutcome, IsAsCleanAsItsWorstAspect)
{
    const Result<PieceReading> reading =
        readTable(Method::PrintOutcome, "stringing,overhang,surface,corner_lift\n4,2,5,0\n");
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_EQ(valueIn(*reading, "outcome"), 2.0);
    EXPECT_EQ(valueIn(*reading, "stringing"), 4.0);
    EXPECT_EQ(valueIn(*reading, "corner_lift"), 0.0);
    EXPECT_EQ(valueOf(reading->result.values, "bridge"), nullptr) << "what was not graded is left out";
    EXPECT_FALSE(readTable(Method::PrintOutcome, "code\nA1\n"));
}

// By hand: readings 70, 71, 72, 73, 74: mean 72, sd √2.5.
TEST(Hardness, MeanAndScatterAndWhatTheStandardAsks)
{
    const std::array readings{70.0, 71.0, 72.0, 73.0, 74.0};
    const Result<HardnessResult> five = reduceHardness(readings, {ShoreScale::D, Duration::fromSi(15.0)});
    ASSERT_TRUE(five);
    EXPECT_EQ(five->hardness, 72.0);
    EXPECT_GE(matchingDigits(*five->sd, std::sqrt(2.5)), 12);
    for (const Check &check : five->validity)
        EXPECT_TRUE(check.ok) << check.rule;
    const Result<HardnessResult> soft =
        reduceHardness(std::array{12.0, 13.0}, {ShoreScale::D, Duration::fromSi(1.0)});
    ASSERT_TRUE(soft);
    for (const Check &check : soft->validity)
        EXPECT_FALSE(check.ok) << check.rule;
    EXPECT_FALSE(reduceHardness(std::array{95.0}, {ShoreScale::A, {}})->validity.at(0).ok);
    const Result<HardnessResult> beyond = reduceHardness(std::array{70.0, 101.0}, {});
    ASSERT_FALSE(beyond);
    EXPECT_NE(beyond.error().message.find("reading 2"), std::string::npos);
    EXPECT_FALSE(reduceHardness({}, {}));
}

TEST(Warp, TheHighestCornerCountsAndAFlatPlateIsNoError)
{
    const std::array lifts{0.1, 0.6, 0.2, 0.3};
    const Result<WarpResult> plate = reduceWarp(lifts, millimetres(60.0));
    ASSERT_TRUE(plate);
    EXPECT_EQ(plate->largest_mm, 0.6);
    EXPECT_GE(matchingDigits(plate->mean_mm, 0.3), 12);
    EXPECT_GE(matchingDigits(*plate->share, 0.01), 12);
    EXPECT_TRUE(plate->validity.at(0).ok);
    EXPECT_EQ(reduceWarp(std::array{0.0, 0.0, 0.0, 0.0}, {})->largest_mm, 0.0);
    EXPECT_FALSE(reduceWarp(std::array{0.4}, {})->validity.at(0).ok);
    EXPECT_FALSE(reduceWarp(std::array{-0.1}, {}));
    EXPECT_FALSE(reduceWarp({}, {}));
}

// By hand: 20 × 20 × 20 mm is 8 cm³; 5.08 g over it is 0.635 g/cm³, half of 1.27 g/cm³.
TEST(VoidShare, HalfOfABlockIsAir)
{
    const WeighedBlock block{Mass::fromSi(5.08e-3), millimetres(20.0), millimetres(20.0), millimetres(20.0),
                             1.27};
    const Result<VoidShareResult> half = reduceVoidShare(block);
    ASSERT_TRUE(half);
    EXPECT_GE(matchingDigits(half->density_g_per_cm3, 0.635), 12);
    EXPECT_GE(matchingDigits(*half->voidShare, 0.5), 12);
    WeighedBlock heavy = block;
    heavy.mass = Mass::fromSi(12e-3);
    EXPECT_FALSE(reduceVoidShare(heavy)->validity.at(0).ok)
        << "heavier than solid: the density is another one";
    heavy.solid_g_per_cm3.reset();
    EXPECT_FALSE(reduceVoidShare(heavy)->voidShare);
    heavy.mass = Mass::fromSi(0.0);
    EXPECT_FALSE(reduceVoidShare(heavy));
}

TEST(SteppedTorque, WhatItHeldCountsAndTheLastHeldIsABound)
{
    const Result<SteppedTorqueResult> failed = reduceSteppedTorque({10.0, true, 9.0});
    ASSERT_TRUE(failed);
    EXPECT_EQ(failed->held_Nm, 9.0);
    EXPECT_FALSE(failed->atLeast);
    EXPECT_TRUE(reduceSteppedTorque({10.0, false, 9.0})->atLeast);
    EXPECT_EQ(reduceSteppedTorque({10.0, false, 9.0})->held_Nm, 10.0);
    EXPECT_FALSE(reduceSteppedTorque({10.0, true, 5.0})->validity.at(1).ok) << "a wide step";
    EXPECT_EQ(reduceSteppedTorque({2.0, true, 0.0})->warnings.size(), 1U);
    EXPECT_FALSE(reduceSteppedTorque({10.0, true, {}}));
    EXPECT_FALSE(reduceSteppedTorque({10.0, true, 10.0}));
    EXPECT_FALSE(reduceSteppedTorque({0.0, true, {}}));
}

TEST(Flame, WordsArePlacesOnTheFormAndAreNeverARating)
{
    const Result<PieceReading> reading =
        readTable(Method::Flame, "goes_out,drips,left\nwithin 10 s,burning drips,molten\n");
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_EQ(valueIn(*reading, "goes_out"), 1.0);
    EXPECT_EQ(valueIn(*reading, "drips"), 2.0);
    EXPECT_NE(reading->result.warnings.at(0).find("accredited laboratory"), std::string::npos);
    EXPECT_FALSE(readTable(Method::Flame, "goes_out,drips\nslowly,none\n"));
}

TEST(ServiceTrial, APartThatStillServesIsABound)
{
    const Result<PieceReading> serves =
        readTable(Method::ServiceTrial, "hours_h,outcome,stiffness,cracks\n400,serves,4,0\n");
    ASSERT_TRUE(serves) << serves.error().message;
    EXPECT_GE(matchingDigits(valueIn(*serves, "service_hours"), 400.0), 12);
    EXPECT_EQ(valueOf(serves->result.values, "service_hours")->bound, BoundReason::InService);
    EXPECT_EQ(valueIn(*serves, "cracks"), 0.0);
    const Result<PieceReading> failed = readTable(Method::ServiceTrial, "hours_h,outcome\n12,failed\n");
    ASSERT_TRUE(failed);
    EXPECT_EQ(valueOf(failed->result.values, "service_hours")->bound, BoundReason::None);
}

TEST(JudgedTests, TwoHundredVirtualPiecesAreReadAgain)
{
    for (std::uint64_t seed = 1; seed <= 200; ++seed) {
        SCOPED_TRACE(seed);
        Random random(seed);
        const double quality = 1.0 + 4.0 * random.uniform();
        const Result<PieceReading> feel = readTable(Method::ByFeel, sim::feelTable(quality, seed));
        ASSERT_TRUE(feel) << feel.error().message;
        EXPECT_NEAR(valueIn(*feel, "grade"), quality, 2.0);
        const Result<PieceReading> pairs = readTable(Method::FeltPairs, sim::pairsTable(quality, seed));
        ASSERT_TRUE(pairs) << pairs.error().message;
        EXPECT_NEAR(valueIn(*pairs, "pair_share"), std::clamp(0.5 + (quality - 3.0) / 2.0, 0.0, 1.0), 0.35);
        const Result<PieceReading> outcome =
            readTable(Method::PrintOutcome, sim::outcomeTable({quality, 4.0, 4.0, 4.0, 4.0, 0.2}, seed));
        ASSERT_TRUE(outcome) << outcome.error().message;
        EXPECT_LE(valueIn(*outcome, "outcome"), valueIn(*outcome, "stringing"));
        const double hardness = 40.0 + 40.0 * random.uniform();
        const Result<PieceReading> hard =
            readTable(Method::Hardness, sim::hardnessTable(hardness, seed), {{}, {{"scale", "D"}}});
        ASSERT_TRUE(hard) << hard.error().message;
        EXPECT_NEAR(valueIn(*hard, "hardness"), hardness, 4.0);
        const double lift_mm = 2.0 * random.uniform();
        const Result<PieceReading> corners =
            readTable(Method::Warp, sim::cornerTable(lift_mm, seed), {{{"diagonal", 84.9}}, {}});
        ASSERT_TRUE(corners) << corners.error().message;
        EXPECT_NEAR(valueIn(*corners, "warp"), lift_mm, 0.8 * lift_mm + 0.06);
        const double density = 0.4 + 0.8 * random.uniform();
        const Result<PieceReading> block = readTable(
            Method::VoidShare, sim::weighedTable(8000.0, density, seed),
            {{{"width", 20.0}, {"thickness", 20.0}, {"length", 20.0}, {"solid_density", 1.27}}, {}});
        ASSERT_TRUE(block) << block.error().message;
        EXPECT_NEAR(valueIn(*block, "void_share"), 1.0 - density / 1.27, 0.04);
        const double torque_Nm = 1.0 + 50.0 * random.uniform();
        const Result<PieceReading> steps =
            readTable(Method::SteppedTorque, sim::steppedTorqueTable(torque_Nm, {}));
        ASSERT_TRUE(steps) << steps.error().message;
        const double held_Nm = valueIn(*steps, "held_torque");
        const bool isBound = valueOf(steps->result.values, "held_torque")->bound == BoundReason::HeldStep;
        EXPECT_LE(held_Nm, torque_Nm);
        EXPECT_TRUE(isBound ? held_Nm == 40.0 : held_Nm > torque_Nm - 1.0 || held_Nm == 0.0);
        const Result<PieceReading> service = readTable(
            Method::ServiceTrial, sim::serviceTable(300.0 * random.uniform(), 200.0, quality, seed));
        ASSERT_TRUE(service) << service.error().message;
        EXPECT_LE(valueIn(*service, "service_hours"), 200.0);
    }
}

} // namespace inchpeg
