// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/step_levels.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

constexpr StepPlan kRise{StepRule::Rise, 100.0, 50.0, 250.0};
constexpr StepPlan kUpAndDown{StepRule::UpAndDown, 100.0, 50.0, 250.0};

std::vector<StepTrial> trials(std::initializer_list<std::pair<double, bool>> list)
{
    std::vector<StepTrial> all;
    for (const auto &[level, hasFailed] : list)
        all.push_back({level, hasFailed});
    return all;
}

} // namespace

TEST(StepLevels, RiseUntilThePieceFails)
{
    EXPECT_EQ(nextLevel(kRise, {}), 100.0);
    EXPECT_EQ(nextLevel(kRise, trials({{100, false}, {150, false}})), 200.0);
    EXPECT_EQ(nextLevel(kRise, trials({{100, false}, {150, true}})), std::nullopt);
    EXPECT_EQ(nextLevel(kRise, trials({{250, false}})), std::nullopt) << "the rig's end";
}

// Source: Dixon and Mood 1948, the rule of the test: down after a failure, up after none.
TEST(StepLevels, GoUpAndDownFromPieceToPiece)
{
    EXPECT_EQ(nextLevel(kUpAndDown, trials({{100, false}})), 150.0);
    EXPECT_EQ(nextLevel(kUpAndDown, trials({{100, false}, {150, true}})), 100.0);
    EXPECT_EQ(nextLevel(kUpAndDown, trials({{50, true}})), 50.0) << "nothing falls from no height";
    EXPECT_EQ(nextLevel(kUpAndDown, trials({{250, false}})), 250.0) << "the rig's end";
    EXPECT_FALSE(hasBothOutcomes(trials({{100, false}, {150, false}})));
    EXPECT_TRUE(hasBothOutcomes(trials({{100, false}, {150, true}})));
}

TEST(StepLevels, RefuseWhatMakesNoPlan)
{
    EXPECT_TRUE(checkStepPlan(kRise));
    EXPECT_FALSE(checkStepPlan({StepRule::Rise, 0.0, 50.0, 0.0}));
    EXPECT_FALSE(checkStepPlan({StepRule::Rise, 100.0, -1.0, 0.0}));
    EXPECT_FALSE(checkStepPlan({StepRule::Rise, 300.0, 50.0, 250.0}));
    for (const StepRule rule : {StepRule::Rise, StepRule::UpAndDown})
        EXPECT_EQ(stepRuleFrom(stepRuleName(rule)), rule);
}

} // namespace inchpeg
