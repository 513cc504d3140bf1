// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/distributions.h"
#include "core/stats/spending.h"
#include "support/reference_values.h"

#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{

namespace
{

std::vector<double> boundsOf(const std::vector<double> &levels)
{
    std::vector<double> bounds;
    for (const double level : levels)
        bounds.push_back(normalQuantile(1.0 - 0.5 * level));
    return bounds;
}

} // namespace

// Reference: Jennison & Turnbull, Group Sequential Methods (2000), and Lan & DeMets (1983): bounds of five
// equally spaced looks at a two-sided 5 % (from memory, to three decimals).
TEST(Spending, FiveLooksHaveThePublishedBounds)
{
    const std::vector<double> information{0.2, 0.4, 0.6, 0.8, 1.0};
    const std::vector<double> strict = boundsOf(levelsOfLooks(information, 0.05, Spending::OBrienFleming));
    const std::vector<double> alike = boundsOf(levelsOfLooks(information, 0.05, Spending::Pocock));
    const double wantedStrict[] = {4.877, 3.357, 2.680, 2.290, 2.031};
    const double wantedAlike[] = {2.438, 2.427, 2.410, 2.397, 2.386};
    for (std::size_t i = 0; i < 5; ++i) {
        EXPECT_NEAR(strict[i], wantedStrict[i], 6e-4) << i;
        EXPECT_NEAR(alike[i], wantedAlike[i], 6e-4) << i;
    }
}

// Reference: R 4.2.2, mvtnorm 1.1-3: the chance that a multivariate normal with correlations √(t_i/t_j) stays
// within the bounds of all looks (pmvnorm, GenzBretz 1e-7); made by tests/reference/make_beyond_reference.R.
TEST(Spending, AllLooksTogetherSpendTheWholeChance)
{
    for (const nlohmann::json &set : test::beyondReference()["looks"]) {
        SCOPED_TRACE(set.dump());
        const auto spending = spendingFrom(set["spending"].get<std::string>());
        ASSERT_TRUE(spending);
        const std::vector<double> levels = levelsOfLooks(set["information"].get<std::vector<double>>(),
                                                         set["alpha"].get<double>(), *spending);
        const auto wanted = set["bounds"].get<std::vector<double>>();
        const std::vector<double> bounds = boundsOf(levels);
        ASSERT_EQ(bounds.size(), wanted.size());
        for (std::size_t i = 0; i < bounds.size(); ++i)
            EXPECT_NEAR(bounds[i], wanted[i], 1e-4) << i; // what pmvnorm's own error allows
    }
}

TEST(Spending, OneLookSpendsAllAndNamesComeBack)
{
    for (const Spending spending : {Spending::OBrienFleming, Spending::Pocock}) {
        const double whole[] = {1.0};
        EXPECT_NEAR(levelsOfLooks(whole, 0.05, spending).front(), 0.05, 1e-9);
        EXPECT_EQ(levelsOfEachPiece(2, 0.05, spending).size(), 1U);
        EXPECT_EQ(spendingFrom(spendingName(spending)), spending);
    }
    EXPECT_FALSE(spendingFrom("at whim"));
}

TEST(Spending, ManyLooksStayQuickAndOrdered)
{
    const std::span<const double> levels = levelsOfEachPiece(200, 0.05, Spending::OBrienFleming);
    ASSERT_EQ(levels.size(), 199U);
    double sum = 0.0;
    for (std::size_t i = 0; i < levels.size(); ++i) {
        EXPECT_GE(levels[i], 0.0);
        if (i > 0) {
            EXPECT_GE(levels[i], (1.0 - 1e-9) * levels[i - 1]) << "strict at first";
        }
        sum += levels[i];
    }
    EXPECT_GT(sum, 0.05); // looks overlap
    EXPECT_LT(levels.back(), 0.05);
}

} // namespace inchpeg
