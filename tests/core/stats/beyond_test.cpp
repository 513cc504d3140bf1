// SPDX-License-Identifier: GPL-3.0-or-later
// Reference: R 4.2.2 with survival 3.5-3, segmented 1.6-2, lme4 1.1-31 and MASS 7.3-58.2 over data sets that
// come with R; made by tests/reference/make_beyond_reference.R, kept in tests/data/reference_beyond.json.
#include "core/stats/bend.h"
#include "core/stats/blocks.h"
#include "core/stats/bounded_groups.h"
#include "core/stats/orders.h"
#include "core/stats/robust.h"
#include "support/reference_values.h"

#include <algorithm>

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::beyondReference;
using test::expectClose;
using test::expectProbability;
using test::kClosedForm;
using test::numbers;

/// What an optimum that R found to about 1e-8 of its likelihood is right to.
constexpr double kOptimum = 6.0;

/// Names or numbers, as R wrote them.
std::vector<std::size_t> placesOf(const json &names)
{
    std::vector<std::string> seen;
    std::vector<std::size_t> places;
    for (const json &name : names) {
        const std::string text = name.dump();
        const auto found = std::find(seen.begin(), seen.end(), text);
        places.push_back(static_cast<std::size_t>(found - seen.begin()));
        if (found == seen.end())
            seen.push_back(text);
    }
    return places;
}

std::vector<BoundedGroup> boundedGroups(const json &set)
{
    const std::vector<std::size_t> places = placesOf(set["group"]);
    std::vector<BoundedGroup> groups(*std::max_element(places.begin(), places.end()) + 1);
    for (std::size_t i = 0; i < places.size(); ++i)
        groups[places[i]].values.push_back({set["value"][i], set["bound"][i].get<double>() > 0.0});
    return groups;
}

std::vector<std::vector<double>> rowsOf(const json &matrix)
{
    std::vector<std::vector<double>> rows;
    for (const json &row : matrix)
        rows.push_back(numbers(row));
    return rows;
}

} // namespace

TEST(BoundedGroups, AgreeWithSurvreg)
{
    for (const json &set : beyondReference()["bounded"]) {
        const std::string law = set["distribution"];
        SCOPED_TRACE(set["name"].get<std::string>() + ", " + law);
        const ScatterLaw scatter = law == "gaussian"  ? ScatterLaw::Normal
                                   : law == "weibull" ? ScatterLaw::Weibull
                                                      : ScatterLaw::LogNormal;
        const std::vector<BoundedGroup> groups = boundedGroups(set);
        const Result<BoundedFit> fit = fitBoundedGroups(groups, scatter);
        ASSERT_TRUE(fit) << fit.error().message;
        expectClose(fit->scale, set["scale"], kOptimum, "scale");
        expectClose(fit->logLikelihood, set["log_likelihood"], kClosedForm, "log likelihood");
        for (std::size_t g = 0; g < groups.size(); ++g) {
            expectClose(*fit->location[g], set["location"][g], kOptimum, "location");
            expectClose(fit->standardError(g), set["location_se"][g], kOptimum, "its error");
            if (g == 0)
                continue;
            expectClose(fit->difference(0, g), set["difference"][g - 1], kOptimum, "difference");
            expectClose(fit->differenceError(0, g), set["difference_se"][g - 1], kOptimum, "its error");
        }
        const auto test = testBoundedGroups(groups, scatter);
        ASSERT_TRUE(test);
        ASSERT_TRUE(*test);
        expectClose((*test)->chi2, set["chi2"], kOptimum, "chi2");
        expectProbability((*test)->p, set["p"], "p");
    }
}

TEST(BoundedGroups, UnitAndOrderChangeNothingAndLimitsAreRefused)
{
    const std::vector<BoundedGroup> groups{{"a", {{40.0, false}, {42.0, false}, {45.0, true}}},
                                           {"b", {{30.0, false}, {33.0, false}, {31.0, false}}},
                                           {"c", {{50.0, true}, {50.0, true}}}};
    const Result<BoundedFit> fit = fitBoundedGroups(groups, ScatterLaw::LogNormal);
    ASSERT_TRUE(fit);
    EXPECT_FALSE(fit->location[2]) << "bounds alone say nothing of where the middle is";
    std::vector<BoundedGroup> other{{"b", {}}, {"a", {}}};
    for (const BoundedValue &value : groups[1].values)
        other[0].values.insert(other[0].values.begin(), {1e6 * value.value, value.isLowerBound});
    for (const BoundedValue &value : groups[0].values)
        other[1].values.push_back({1e6 * value.value, value.isLowerBound});
    const Result<BoundedFit> turned = fitBoundedGroups(other, ScatterLaw::LogNormal);
    ASSERT_TRUE(turned);
    EXPECT_NEAR(turned->scale, fit->scale, 1e-9);
    EXPECT_NEAR(turned->difference(0, 1), -fit->difference(0, 1), 1e-9);
    const std::vector<BoundedGroup> allAlike{{"a", {{1.0, false}, {1.0, false}}}};
    EXPECT_FALSE(fitBoundedGroups(allAlike, ScatterLaw::Normal));
    const std::vector<BoundedGroup> one{{"a", {{1.0, false}, {2.0, true}}}};
    EXPECT_FALSE(fitBoundedGroups(one, ScatterLaw::Normal));
    const std::vector<BoundedGroup> negative{{"a", {{-1.0, false}, {2.0, false}}}};
    EXPECT_FALSE(fitBoundedGroups(negative, ScatterLaw::LogNormal));
    EXPECT_TRUE(fitBoundedGroups(negative, ScatterLaw::Normal));
}

TEST(Bend, AgreesWithTheFineSearchAndSegmented)
{
    for (const json &set : beyondReference()["bends"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const Result<Bend> bend = fitBend(numbers(set["x"]), numbers(set["y"]));
        ASSERT_TRUE(bend) << bend.error().message;
        expectClose(bend->residualSquares, set["rss"], kClosedForm, "rss"); // flat at its least
        expectClose(bend->at, set["at"], kOptimum, "at");
        expectClose(bend->slopeBefore, set["before"], kOptimum, "before");
        expectClose(bend->slopeAfter, set["after"], 5.0, "after"); // hangs on where it bends
        expectClose(bend->lineSquares, set["line_rss"], kClosedForm, "line");
        const auto end = [](const json &wanted, const std::optional<double> &found, const char *what) {
            ASSERT_EQ(found.has_value(), wanted.is_number()) << what;
            if (found)
                expectClose(*found, wanted, kOptimum, what);
        };
        end(set["low"], bend->low, "low");
        end(set["high"], bend->high, "high");
    }
}

TEST(Bend, KnowsWhatItCannotTell)
{
    const std::vector<double> x{1, 2, 3, 4, 5, 6};
    EXPECT_FALSE(fitBend(x, std::vector<double>{1, 2, 3, 4, 5, 6})) << "a line without scatter";
    EXPECT_FALSE(fitBend(x, std::vector<double>{1, 2, 3, 3, 3, 3})) << "two lines without scatter";
    EXPECT_FALSE(fitBend(std::vector<double>{1, 1, 2, 2, 3}, std::vector<double>{1, 2, 3, 4, 5}));
    const Result<Bend> plain = fitBend(x, std::vector<double>{1.0, 2.1, 2.9, 4.05, 4.95, 6.02});
    ASSERT_TRUE(plain);
    EXPECT_GT(plain->pAtMost, 0.05) << "nothing bends there";
}

TEST(Blocks, AgreeWithLmer)
{
    for (const json &set : beyondReference()["blocks"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const std::vector<std::size_t> groups = placesOf(set["group"]);
        const std::vector<std::size_t> blocks = placesOf(set["block"]);
        std::vector<BlockedValue> values;
        for (std::size_t i = 0; i < groups.size(); ++i)
            values.push_back({set["value"][i], groups[i], blocks[i]});
        const Result<BlockFit> fit = fitBlocks(values);
        ASSERT_TRUE(fit) << fit.error().message;
        expectClose(fit->logLikelihood, set["reml"], 8.0, "restricted likelihood");
        expectClose(fit->residualSd, set["residual_sd"], 5.0, "residual sd"); // as far as lmer goes
        EXPECT_NEAR(fit->blockSd, set["block_sd"].get<double>(),
                    2e-5 * fit->residualSd + 1e-4 * fit->blockSd);
        for (Eigen::Index g = 0; g < fit->means.size(); ++g) {
            const auto place = static_cast<std::size_t>(g);
            expectClose(g == 0 ? fit->means[0] : fit->difference(0, g), set["effects"][place], 7.0, "effect");
            expectClose(g == 0 ? std::sqrt(fit->covariance(0, 0)) : fit->differenceError(0, g),
                        set["se"][place], 5.0, "its error");
        }
    }
}

TEST(Blocks, WhatEachPlateAddsIsTakenOut)
{
    // Two groups on four plates that differ by tens, while the groups differ by 1 everywhere.
    std::vector<BlockedValue> values;
    for (std::size_t plate = 0; plate < 4; ++plate) {
        for (std::size_t group = 0; group < 2; ++group) {
            const double wobble = 0.01 * (static_cast<double>(plate % 2) - 0.5);
            values.push_back({10.0 * static_cast<double>(plate) + static_cast<double>(group) +
                                  wobble * (group == 0 ? 1.0 : -1.0),
                              group, plate});
        }
    }
    const Result<BlockFit> fit = fitBlocks(values);
    ASSERT_TRUE(fit);
    EXPECT_NEAR(fit->difference(0, 1), 1.0, 1e-9);
    EXPECT_LT(fit->differenceError(0, 1), 0.02);
    EXPECT_GT(fit->blockSd, 5.0);
    EXPECT_EQ(fit->df, 3.0);
    EXPECT_FALSE(fitBlocks(std::vector<BlockedValue>{{1.0, 0, 0}, {2.0, 1, 0}, {2.5, 1, 0}}));
}

TEST(Orders, AgreeWithR)
{
    for (const json &set : beyondReference()["orders"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const auto trend = orderedTrend(numbers(set["level"]), numbers(set["value"]));
        ASSERT_TRUE(trend);
        expectClose(trend->z, set["z"], kClosedForm, "z");
        expectClose(trend->tau, set["tau"], kClosedForm, "tau");
        expectProbability(trend->p, set["p"], "p");
    }
    EXPECT_FALSE(orderedTrend(std::vector<double>{1, 1}, std::vector<double>{1, 2}));
    for (const json &set : beyondReference()["agreements"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const Result<Agreement> agreement = agreementOf(rowsOf(set["grades"]));
        ASSERT_TRUE(agreement);
        expectClose(agreement->W, set["W"], kClosedForm, "W");
        expectClose(agreement->chi2, set["chi2"], kClosedForm, "chi2");
        expectProbability(agreement->p, set["p"], "p");
    }
    EXPECT_FALSE(agreementOf({{1, 1}, {2, 2}}));
    for (const json &set : beyondReference()["adjusted"]) {
        const std::vector<double> bh = falseDiscoveryAdjusted(numbers(set["p"]));
        const std::vector<double> by = falseDiscoveryAdjusted(numbers(set["p"]), true);
        for (std::size_t i = 0; i < bh.size(); ++i) {
            expectClose(bh[i], set["bh"][i], 12.0, "Benjamini-Hochberg");
            expectClose(by[i], set["by"][i], 12.0, "Benjamini-Yekutieli");
        }
    }
}

TEST(Choices, AgreeWithALogisticRegression)
{
    for (const json &set : beyondReference()["choices"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const Result<ChoiceFit> fit = fitChoices(rowsOf(set["wins"]));
        ASSERT_TRUE(fit) << fit.error().message;
        for (std::size_t i = 1; i < fit->strength.size(); ++i) {
            expectClose(fit->strength[i], set["strength"][i], kClosedForm, "strength");
            expectClose(fit->standardError[i], set["se"][i], kOptimum, "its error");
        }
        expectClose(fit->chi2, set["chi2"], 8.0, "chi2");
        expectProbability(fit->p, set["p"], "p");
    }
    const Result<ChoiceFit> unbeaten = fitChoices({{0, 3, 2}, {0, 0, 1}, {0, 1, 0}});
    ASSERT_FALSE(unbeaten);
    EXPECT_NE(unbeaten.error().message.find("never lost"), std::string::npos);
}

TEST(Robust, AgreesWithRAndSciPy)
{
    for (const json &set : beyondReference()["hubers"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const auto huber = huberLocation(numbers(set["value"]));
        ASSERT_TRUE(huber);
        expectClose(huber->location, set["mu"], kClosedForm, "location");
        expectClose(huber->scale, set["s"], kClosedForm, "scale");
    }
    for (const json &set : beyondReference()["permutations"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const Result<PermutationTest> test = permutationTest(numbers(set["a"]), numbers(set["b"]));
        ASSERT_TRUE(test);
        EXPECT_TRUE(test->isExact);
        expectClose(test->p, set["p"], kClosedForm, "p");
        expectClose(test->difference, set["difference"], kClosedForm, "difference");
    }
    // Reference: SciPy 1.10.1, stats.ttest_ind(linseed, horsebean, equal_var=False, trim=0.2 and 0.1), R's
    // chickwts.
    const std::vector<double> horsebean{179, 160, 136, 227, 217, 168, 108, 124, 143, 140};
    const std::vector<double> linseed{309, 229, 181, 141, 260, 203, 148, 169, 213, 257, 244, 271};
    const auto wide = yuenTest(horsebean, linseed, 0.2);
    ASSERT_TRUE(wide);
    EXPECT_NEAR(wide->test.t, 3.235086681880833, 1e-12);
    EXPECT_NEAR(wide->test.p, 0.007849583146667897, 1e-12);
    const auto narrow = yuenTest(horsebean, linseed, 0.1);
    ASSERT_TRUE(narrow);
    EXPECT_NEAR(narrow->test.t, 2.7771045812243136, 1e-12);
    EXPECT_NEAR(narrow->test.p, 0.013468450760805852, 1e-12);
}

TEST(Robust, OneStrayValueDoesNotDecide)
{
    const std::vector<double> clean{40, 41, 42, 41, 40, 42, 41};
    std::vector<double> stray = clean;
    stray.back() = 4100.0;
    EXPECT_NEAR(huberLocation(stray)->location, 41.0, 0.6);
    EXPECT_FALSE(huberLocation(std::vector<double>{1, 1, 1}));
    EXPECT_FALSE(yuenTest(std::vector<double>{1.0}, clean));
    EXPECT_FALSE(permutationTest({}, clean));
}

TEST(Robust, DrawnDealsAreNearAllOfThemAndRepeat)
{
    std::vector<double> a;
    std::vector<double> b;
    for (int i = 0; i < 14; ++i) { // 40,116,600 ways
        a.push_back(40.0 + 1.3 * (i % 5));
        b.push_back(41.0 + 1.7 * (i % 4));
    }
    const Result<PermutationTest> once = permutationTest(a, b, 7);
    const Result<PermutationTest> again = permutationTest(a, b, 7);
    ASSERT_TRUE(once && again);
    EXPECT_FALSE(once->isExact);
    EXPECT_EQ(once->p, again->p);
    const auto t = pooledTTest(a, b);
    EXPECT_NEAR(once->p, t->p, 0.02); // the tests agree where there is no stray value
}

} // namespace inchpeg
