// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/distributions.h"
#include "core/stats/power.h"

#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{
namespace
{

constexpr double kTolerance = 1e-6; // promised by the command-line contract

struct TCase {
    double difference_sd;
    int n;
    double alpha;
    double power;
};

// Reference: R 4.2.2, power.t.test(n, delta, sd = 1, sig.level, strict = TRUE).
constexpr TCase kTCases[] = {
    {0.3, 2, 0.01, 0.010886148168},  {1, 2, 0.01, 0.019801655897},    {2.5, 2, 0.01, 0.069690391483},
    {6, 2, 0.01, 0.308056058372},    {0.3, 3, 0.01, 0.012371712019},  {1, 3, 0.01, 0.039567627539},
    {2.5, 3, 0.01, 0.256783188848},  {6, 3, 0.01, 0.940878092019},    {0.3, 5, 0.01, 0.015837161611},
    {1, 5, 0.01, 0.097327980836},    {2.5, 5, 0.01, 0.708250665326},  {6, 5, 0.01, 0.999997893080},
    {0.3, 12, 0.01, 0.029654917708}, {1, 12, 0.01, 0.378491677639},   {2.5, 12, 0.01, 0.998897401080},
    {6, 12, 0.01, 1.000000000000},   {0.3, 40, 0.01, 0.103432908804}, {1, 40, 0.01, 0.964094423046},
    {2.5, 40, 0.01, 1.000000000000}, {6, 40, 0.01, 1.000000000000},   {0.3, 2, 0.05, 0.054158994534},
    {1, 2, 0.05, 0.095201755498},    {2.5, 2, 0.05, 0.299513926630},  {6, 2, 0.05, 0.835738119824},
    {0.3, 3, 0.05, 0.059618366791},  {1, 3, 0.05, 0.158790870006},    {2.5, 3, 0.05, 0.635985989301},
    {6, 3, 0.05, 0.999420198658},    {0.3, 5, 0.05, 0.070459602937},  {1, 5, 0.05, 0.286295493381},
    {2.5, 5, 0.05, 0.931575173486},  {6, 5, 0.05, 0.999999999558},    {0.3, 12, 0.05, 0.108292592439},
    {1, 12, 0.05, 0.648642550727},   {2.5, 12, 0.05, 0.999947827458}, {6, 12, 0.05, 1.000000000000},
    {0.3, 40, 0.05, 0.263283555874}, {1, 40, 0.05, 0.992984771095},   {2.5, 40, 0.05, 1.000000000000},
    {6, 40, 0.05, 1.000000000000},   {0.3, 2, 0.1, 0.107662197429},   {1, 2, 0.1, 0.181564358979},
    {2.5, 2, 0.1, 0.502972794854},   {6, 2, 0.1, 0.970558808555},     {0.3, 3, 0.1, 0.116118178658},
    {1, 3, 0.1, 0.270607678958},     {2.5, 3, 0.1, 0.804860047360},   {6, 3, 0.1, 0.999981187247},
    {0.3, 5, 0.1, 0.131943878646},   {1, 5, 0.1, 0.422399438841},     {2.5, 5, 0.1, 0.974214707267},
    {6, 5, 0.1, 0.999999999996},     {0.3, 12, 0.1, 0.184744373153},  {1, 12, 0.1, 0.766784943256},
    {2.5, 12, 0.1, 0.999990630029},  {6, 12, 0.1, 1.000000000000},    {0.3, 40, 0.1, 0.377901345527},
    {1, 40, 0.1, 0.997348712176},    {2.5, 40, 0.1, 1.000000000000},  {6, 40, 0.1, 1.000000000000},
};

TEST(Power, OfTheTTestAgreesWithR)
{
    for (const TCase &one : kTCases) {
        SCOPED_TRACE(::testing::Message()
                     << "d " << one.difference_sd << ", n " << one.n << ", alpha " << one.alpha);
        const Result<Power> power = powerOf({Comparison::TwoGroups, one.difference_sd, one.alpha, 2}, one.n);
        ASSERT_TRUE(power) << power.error().message;
        EXPECT_NEAR(power->power, one.power, kTolerance);
        EXPECT_NEAR(power->noncentrality, one.difference_sd * std::sqrt(one.n / 2.0), 1e-12);
    }
}

struct AnovaCase {
    int groups;
    double difference_sd;
    int n;
    double alpha;
    double power;
};

// Reference: R 4.2.2, power.anova.test(groups, n, between.var = var(c(-d/2, d/2, 0 ...)), within.var = 1,
// sig.level).
constexpr AnovaCase kAnovaCases[] = {
    {2, 0.5, 2, 0.05, 0.061507856595},  {3, 0.5, 2, 0.05, 0.058141821925},
    {6, 0.5, 2, 0.05, 0.055405066233},  {12, 0.5, 2, 0.05, 0.053777975131},
    {2, 1.5, 2, 0.05, 0.148691579988},  {3, 1.5, 2, 0.05, 0.125247788613},
    {6, 1.5, 2, 0.05, 0.103580427250},  {12, 1.5, 2, 0.05, 0.088199579030},
    {2, 4, 2, 0.05, 0.564514289634},    {3, 4, 2, 0.05, 0.541777101085},
    {6, 4, 2, 0.05, 0.508721861959},    {12, 4, 2, 0.05, 0.439355634362},
    {2, 0.5, 4, 0.05, 0.092282379909},  {3, 0.5, 4, 0.05, 0.078419501467},
    {6, 0.5, 4, 0.05, 0.067088752205},  {12, 0.5, 4, 0.05, 0.061073464628},
    {2, 1.5, 4, 0.05, 0.429997556354},  {3, 1.5, 4, 0.05, 0.343024158879},
    {6, 1.5, 4, 0.05, 0.248730969932},  {12, 1.5, 4, 0.05, 0.183170068013},
    {2, 4, 4, 0.05, 0.996156833938},    {3, 4, 4, 0.05, 0.991552631697},
    {6, 4, 4, 0.05, 0.978448980225},    {12, 4, 4, 0.05, 0.946450877342},
    {2, 0.5, 10, 0.05, 0.185095656321}, {3, 0.5, 10, 0.05, 0.143468687932},
    {6, 0.5, 10, 0.05, 0.105807098023}, {12, 0.5, 10, 0.05, 0.085134745062},
    {2, 1.5, 10, 0.05, 0.886970202330}, {3, 1.5, 10, 0.05, 0.817278000719},
    {6, 1.5, 10, 0.05, 0.686024228410}, {12, 1.5, 10, 0.05, 0.538099085561},
    {2, 4, 10, 0.05, 0.999999999945},   {3, 4, 10, 0.05, 0.999999999372},
    {6, 4, 10, 0.05, 0.999999983137},   {12, 4, 10, 0.05, 0.999999554287},
    {2, 0.5, 30, 0.05, 0.477896520807}, {3, 0.5, 30, 0.05, 0.380531016115},
    {6, 0.5, 30, 0.05, 0.266013475611}, {12, 0.5, 30, 0.05, 0.188815058110},
    {2, 1.5, 30, 0.05, 0.999911986561}, {3, 1.5, 30, 0.05, 0.999653535460},
    {6, 1.5, 30, 0.05, 0.997801817964}, {12, 1.5, 30, 0.05, 0.988960486704},
    {2, 4, 30, 0.05, 1.000000000000},   {3, 4, 30, 0.05, 1.000000000000},
    {6, 4, 30, 0.05, 1.000000000000},   {12, 4, 30, 0.05, 1.000000000000},
    {2, 0.5, 2, 0.01, 0.012459564721},  {3, 0.5, 2, 0.01, 0.011809157191},
    {6, 0.5, 2, 0.01, 0.011283530575},  {12, 0.5, 2, 0.01, 0.010936575165},
    {2, 1.5, 2, 0.01, 0.031917372208},  {3, 1.5, 2, 0.01, 0.027650538452},
    {6, 1.5, 2, 0.01, 0.023676339607},  {12, 1.5, 2, 0.01, 0.020173742437},
    {2, 4, 2, 0.01, 0.155702481295},    {3, 4, 2, 0.01, 0.170039588810},
    {6, 4, 2, 0.01, 0.190011346363},    {12, 4, 2, 0.01, 0.172464803854},
    {2, 0.5, 4, 0.01, 0.021805991111},  {3, 0.5, 4, 0.01, 0.017886771413},
    {6, 0.5, 4, 0.01, 0.014727667725},  {12, 0.5, 4, 0.01, 0.013035546496},
    {2, 1.5, 4, 0.01, 0.160815524821},  {3, 1.5, 4, 0.01, 0.123595749806},
    {6, 1.5, 4, 0.01, 0.084173056725},  {12, 1.5, 4, 0.01, 0.056797887798},
    {2, 4, 4, 0.01, 0.923578571493},    {3, 4, 4, 0.01, 0.911395414003},
    {6, 4, 4, 0.01, 0.881097052052},    {12, 4, 4, 0.01, 0.808072618979},
    {2, 0.5, 10, 0.01, 0.059921922914}, {3, 0.5, 10, 0.01, 0.042552797871},
    {6, 0.5, 10, 0.01, 0.028073133551}, {12, 0.5, 10, 0.01, 0.020724559399},
    {2, 1.5, 10, 0.01, 0.679766295543}, {3, 1.5, 10, 0.01, 0.581824471130},
    {6, 1.5, 10, 0.01, 0.431032248856}, {12, 1.5, 10, 0.01, 0.291172075735},
    {2, 4, 10, 0.01, 0.999999974669},   {3, 4, 10, 0.01, 0.999999898828},
    {6, 4, 10, 0.01, 0.999999116772},   {12, 4, 10, 0.01, 0.999988860514},
    {2, 0.5, 30, 0.01, 0.243719724280}, {3, 0.5, 30, 0.01, 0.174738436239},
    {6, 0.5, 30, 0.01, 0.104088555321}, {12, 0.5, 30, 0.01, 0.063394244193},
    {2, 1.5, 30, 0.01, 0.998907630440}, {3, 1.5, 30, 0.01, 0.996925678809},
    {6, 1.5, 30, 0.01, 0.987030659479}, {12, 1.5, 30, 0.01, 0.953369976296},
    {2, 4, 30, 0.01, 1.000000000000},   {3, 4, 30, 0.01, 1.000000000000},
    {6, 4, 30, 0.01, 1.000000000000},   {12, 4, 30, 0.01, 1.000000000000},
};

TEST(Power, OfTheAnalysisOfVarianceAgreesWithR)
{
    for (const AnovaCase &one : kAnovaCases) {
        SCOPED_TRACE(::testing::Message() << "k " << one.groups << ", d " << one.difference_sd << ", n "
                                          << one.n << ", alpha " << one.alpha);
        const Result<Power> power =
            powerOf({Comparison::AnyDifference, one.difference_sd, one.alpha, one.groups}, one.n);
        ASSERT_TRUE(power) << power.error().message;
        EXPECT_NEAR(power->power, one.power, kTolerance);
        EXPECT_NEAR(power->noncentrality, 0.5 * one.n * one.difference_sd * one.difference_sd, 1e-12);
    }
}

// Reference: R 4.2.2, power.t.test(delta, sd, sig.level, power, strict = TRUE)$n, rounded up.
TEST(Power, PiecesForAPowerAreTheFewestThatReachIt)
{
    const struct {
        double difference_sd, alpha, power;
        int n;
    } cases[] = {{1.0, 0.05, 0.8, 17},
                 {2.0, 0.05, 0.8, 6},
                 {2.5, 0.05, 0.9, 5},
                 {0.5, 0.05, 0.8, 64},
                 {0.2, 0.01, 0.9, 746}};
    for (const auto &one : cases) {
        SCOPED_TRACE(one.difference_sd);
        const PowerQuestion question{Comparison::TwoGroups, one.difference_sd, one.alpha, 2};
        const Result<Power> found = piecesFor(question, one.power);
        ASSERT_TRUE(found);
        EXPECT_EQ(found->piecesPerGroup, one.n);
        EXPECT_GE(found->power, one.power);
        EXPECT_LT(powerOf(question, one.n - 1)->power, one.power);
    }
}

TEST(Power, TwoGroupsAreTheSameWhateverTheFamilyIsCalled)
{
    const double t = powerOf({Comparison::TwoGroups, 1.7, 0.05, 2}, 5)->power;
    for (const Comparison comparison :
         {Comparison::AgainstReference, Comparison::AllPairs, Comparison::AnyDifference, Comparison::Trend})
        EXPECT_NEAR(powerOf({comparison, 1.7, 0.05, 2}, 5)->power, t, 1e-9) << comparisonName(comparison);
}

TEST(Power, MoreComparisonsCostPower)
{
    const double against = powerOf({Comparison::AgainstReference, 1.7, 0.05, 6}, 6)->power;
    const double pairs = powerOf({Comparison::AllPairs, 1.7, 0.05, 6}, 6)->power;
    EXPECT_GT(against, pairs);
    EXPECT_GT(powerOf({Comparison::TwoGroups, 1.7, 0.05, 2}, 6)->power, against);
}

// Reference: Dunnett (1964), Biometrics 20, 482, table of two-sided critical values, 5 %: p = 5, df =
// 30: 2.66 (from memory); Tukey's q for 6 means, 30 df, 5 %: 4.30 (Montgomery, Design and Analysis of
// Experiments, appendix; from memory).
TEST(Power, CriticalValuesAreThoseOfTheTables)
{
    EXPECT_NEAR(criticalValue(Comparison::AgainstReference, 6, 6, 0.05), 2.66, 0.005);
    EXPECT_NEAR(criticalValue(Comparison::AllPairs, 6, 6, 0.05) * std::sqrt(2.0), 4.30, 0.005);
}

/// A slow second way: the power of a trend from the slope's own noncentrality with explicit levels.
TEST(Power, OfATrendAgreesWithItsExplicitSums)
{
    const int k = 4;
    const int n = 3;
    double sxx = 0.0;
    for (int level = 0; level < k; ++level)
        sxx += n * std::pow(level - 1.5, 2.0);
    const double slope = 2.0 / (k - 1);
    const double lambda = slope * std::sqrt(sxx);
    const double df = k * n - 2;
    const double critical = studentQuantile(0.975, df);
    const double expected =
        1.0 - noncentralStudentCdf(critical, df, lambda) + noncentralStudentCdf(-critical, df, lambda);
    EXPECT_NEAR(powerOf({Comparison::Trend, 2.0, 0.05, k}, n)->power, expected, 1e-9);
}

TEST(Power, VisibleDifferenceIsTheOneWithThatPower)
{
    for (const Comparison comparison :
         {Comparison::AgainstReference, Comparison::AllPairs, Comparison::AnyDifference, Comparison::Trend}) {
        const PowerQuestion question{comparison, 1.0, 0.05, 5};
        const Result<double> visible = visibleDifference_sd(question, 4, 0.8);
        ASSERT_TRUE(visible);
        EXPECT_NEAR(powerOf({comparison, *visible, 0.05, 5}, 4)->power, 0.8, 1e-8);
    }
}

TEST(Power, SurvivesLargeDifferencesAndCounts)
{
    EXPECT_NEAR(powerOf({Comparison::TwoGroups, 60.0, 0.05, 2}, 50)->power, 1.0, 1e-12);
    EXPECT_NEAR(powerOf({Comparison::AnyDifference, 40.0, 0.05, 4}, 50)->power, 1.0, 1e-12);
    EXPECT_EQ(piecesFor({Comparison::TwoGroups, 60.0, 0.05, 2}, 0.8)->piecesPerGroup, 2);
}

TEST(Power, RefusesInWords)
{
    const auto refusal = [](const PowerQuestion &question, int n) {
        const Result<Power> power = powerOf(question, n);
        return power ? std::string() : power.error().message;
    };
    EXPECT_NE(refusal({Comparison::TwoGroups, 0.0, 0.05, 2}, 5).find("above zero"), std::string::npos);
    EXPECT_NE(refusal({Comparison::TwoGroups, 1.0, 1.5, 2}, 5).find("between 0 and 1"), std::string::npos);
    EXPECT_NE(refusal({Comparison::TwoGroups, 1.0, 0.05, 3}, 5).find("two groups"), std::string::npos);
    EXPECT_NE(refusal({Comparison::AllPairs, 1.0, 0.05, 1}, 5).find("two at least"), std::string::npos);
    EXPECT_NE(refusal({Comparison::TwoGroups, 1.0, 0.05, 2}, 1).find("no scatter"), std::string::npos);
    EXPECT_FALSE(piecesFor({Comparison::TwoGroups, 1.0, 0.05, 2}, 0.01));
    EXPECT_FALSE(piecesFor({Comparison::TwoGroups, 1e-4, 0.05, 2}, 0.8));
}

// By hand: levels at 0, 1 and 10 have Σ(x − x̄)² = 101 − 121/3 = 60.667 over a range of 10; with four pieces a
// level λ = d √(4 · 60.667) / 10.
TEST(Power, ATrendCountsWhereItsLevelsLie)
{
    PowerQuestion question{Comparison::Trend, 2.0, 0.05, 3, {0.0, 1.0, 10.0}};
    EXPECT_NEAR(powerOf(question, 4)->noncentrality, 2.0 * std::sqrt(4.0 * (101.0 - 121.0 / 3.0)) / 10.0,
                1e-9);
    question.positions = {0.0, 5.0, 10.0};
    EXPECT_NEAR(powerOf(question, 4)->power, powerOf({Comparison::Trend, 2.0, 0.05, 3}, 4)->power, 1e-12);
    question.positions = {1.0, 1.0, 1.0};
    EXPECT_FALSE(powerOf(question, 4));
}

} // namespace
} // namespace inchpeg
