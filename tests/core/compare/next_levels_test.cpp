// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/next_levels.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

std::optional<NextLevels> nextOf(const test::StudyBuilder &builder)
{
    return nextLevels(builder.study, test::strengthCompared(builder), {});
}

} // namespace

TEST(NextLevels, AroundATurningPointThatIsNotKnownClosely)
{
    // Three levels: no curve can be held against them, only that the turn lies between the outer two.
    test::StudyBuilder builder;
    builder.rail("200", {20, 21, 22, 21}).rail("240", {29, 31, 30, 32}).rail("260", {22, 23, 24, 22});
    const std::optional<NextLevels> next = nextOf(builder);
    ASSERT_TRUE(next);
    EXPECT_EQ(next->best, "240");
    EXPECT_TRUE(next->sentence.starts_with("To find the best nozzle temperature more closely, try "))
        << next->sentence;
    EXPECT_NE(next->sentence.find("the values turn near 240 °C (200 °C to 260 °C)"), std::string::npos)
        << next->sentence;
    for (const std::string &level : next->levels) {
        const double value = std::stod(level);
        EXPECT_GE(value, 200.0);
        EXPECT_LE(value, 260.0);
        EXPECT_EQ(std::fmod(value, 5.0), 0.0) << "30 °C apart: a round step of 5";
    }
    EXPECT_NE(std::find(next->levels.begin(), next->levels.end(), "240"), next->levels.end());
}

TEST(NextLevels, NothingWhereTheTurningPointIsKnownWell)
{
    test::StudyBuilder builder;
    builder.rail("200", {20.0, 20.1, 20.2})
        .rail("220", {30.0, 30.1, 30.2})
        .rail("240", {30.0, 30.1, 30.2})
        .rail("260", {20.0, 20.1, 20.2});
    EXPECT_FALSE(nextOf(builder));
}

TEST(NextLevels, OnAPlateauOnlyItsBeginningIsOpen)
{
    test::StudyBuilder builder;
    builder.rail("220", {20.0, 20.2, 20.4})
        .rail("240", {30.0, 30.2, 30.4})
        .rail("260", {30.1, 30.3, 29.9})
        .rail("280", {30.2, 30.4, 30.0});
    const std::optional<NextLevels> next = nextOf(builder);
    ASSERT_TRUE(next);
    EXPECT_EQ(next->levels, (std::vector<std::string>{"230", "240"})) << next->sentence;
}

TEST(NextLevels, NothingWhereNoLevelIsToldFromAnother)
{
    test::StudyBuilder builder;
    builder.rail("220", {29.0, 31.0, 30.0}).rail("240", {30.5, 32.0, 29.5}).rail("260", {29.5, 30.5, 31.0});
    EXPECT_FALSE(nextOf(builder)) << "which mean is the best is chance";
}

TEST(NextLevels, BeyondTheEndThatIsBest)
{
    test::StudyBuilder builder;
    builder.rail("200", {20, 21, 22}).rail("210", {24, 25, 26}).rail("220", {28, 29, 30});
    const std::optional<NextLevels> next = nextOf(builder);
    ASSERT_TRUE(next);
    EXPECT_EQ(next->levels, (std::vector<std::string>{"220", "226", "230"})) << "225, to a round 2, and 230";
    EXPECT_EQ(
        next->sentence,
        "To find the best nozzle temperature more closely, try 226 °C and 230 °C next: the best of those "
        "tried, 220 °C, is the highest one.");
    // The lowest of shares is not gone below nothing.
    test::StudyBuilder shares;
    shares.study.factors.front().name = "part cooling";
    shares.study.factors.front().unit = "%";
    shares.rail("0", {30, 31, 32}).rail("50", {25, 26, 27}).rail("100", {20, 21, 22});
    EXPECT_FALSE(nextOf(shares));
}

TEST(NextLevels, NothingOfNamesOfTwoRailsOrWhereBoundsMayBeBetter)
{
    test::StudyBuilder names;
    names.study.factors.front().unit.clear();
    names.rail("red", {20, 21, 22}).rail("blue", {24, 25, 26}).rail("grey", {28, 29, 30});
    EXPECT_FALSE(nextOf(names));
    test::StudyBuilder two;
    two.rail("200", {20, 21, 22}).rail("210", {24, 25, 26});
    EXPECT_FALSE(nextOf(two));
    test::StudyBuilder bounds;
    bounds.rail("200", {20, 21, 22})
        .rail("210", {24, 25, 26})
        .rail("220", {28, 29, 30})
        .rail("230", {50, 50, 50}, Orientation::Standing, 0, true);
    EXPECT_FALSE(nextOf(bounds));
}

TEST(NextLevels, ThePlannedStudyIsMadeLikeTheOther)
{
    test::StudyBuilder builder;
    builder.rail("200", {20, 21, 22}).rail("210", {24, 25, 26}).rail("220", {28, 29, 30});
    builder.study.plan.locked = {{"walls", "4"}};
    const std::optional<NextLevels> next = nextOf(builder);
    ASSERT_TRUE(next);
    Study fresh;
    fresh.id = StudyId{builder.next()};
    ASSERT_TRUE(planNextLevels(fresh, builder.study, *next, builder.ids()));
    ASSERT_EQ(fresh.conditions.size(), 3U);
    EXPECT_EQ(findCondition(fresh, fresh.reference)->levels.front(), "220");
    EXPECT_EQ(fresh.conditions.front().material, "polyester");
    EXPECT_EQ(fresh.conditions.front().orientation, Orientation::Standing);
    EXPECT_EQ(fresh.plan.locked, builder.study.plan.locked);
    EXPECT_EQ(fresh.pieces.size(), 9U) << "as many a rail";
    for (const Piece &piece : fresh.pieces)
        EXPECT_FALSE(piece.recording);
}

} // namespace inchpeg
