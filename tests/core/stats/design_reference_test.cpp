// SPDX-License-Identifier: GPL-3.0-or-later
// Reference: R 4.2.2 (stats; car 3.1 for sums of squares; lme4 1.1 for components) over data sets that come
// with R; made by tests/reference/make_design_reference.R, kept in tests/data/reference_designs.json.
#include "core/stats/equivalence.h"
#include "core/stats/paired.h"
#include "core/stats/random_effects.h"
#include "core/stats/trend.h"
#include "core/stats/two_way.h"
#include "support/reference_values.h"

#include <gtest/gtest.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::designReference;
using test::expectClose;
using test::expectInterval;
using test::expectProbability;
using test::kClosedForm;
using test::numbers;

/// Of each text its place among the different ones.
std::vector<std::size_t> levels(const json &list)
{
    std::vector<std::string> different;
    std::vector<std::size_t> out;
    for (const std::string text : list) {
        const auto found = std::find(different.begin(), different.end(), text);
        out.push_back(static_cast<std::size_t>(found - different.begin()));
        if (found == different.end())
            different.push_back(text);
    }
    return out;
}

} // namespace

TEST(DesignReference, PairsAgreeWithR)
{
    for (const json &set : designReference()["pairs"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const PairedComparison pairs = comparePaired(numbers(set["before"]), numbers(set["after"]));
        expectClose(pairs.meanDifference, set["mean_difference"], kClosedForm, "mean difference");
        expectClose(*pairs.t, set["t"], kClosedForm, "t");
        EXPECT_EQ(*pairs.df, set["df"].get<double>());
        expectProbability(*pairs.p, set["p"], "p");
        expectInterval(pairs.ci, set["ci"], kClosedForm, "ci");
        EXPECT_EQ(pairs.wilcoxon->v, set["V"].get<double>());
        expectProbability(pairs.wilcoxon->p, set["wilcoxon_p"], "Wilcoxon p");
    }
}

TEST(DesignReference, TwoFactorsAgreeWithR)
{
    for (const json &set : designReference()["two"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const std::vector<double> y = numbers(set["value"]);
        const std::vector<std::size_t> a = levels(set["a"]);
        const std::vector<std::size_t> b = levels(set["b"]);
        std::vector<TwoWayValue> values;
        for (std::size_t i = 0; i < y.size(); ++i)
            values.push_back({y[i], a[i], b[i]});
        for (const char *type : {"type2", "type3"}) {
            SCOPED_TRACE(type);
            const bool third = std::string(type) == "type3";
            const Result<TwoWayAnova> anova =
                twoWayAnova(values, third ? SquaresType::Third : SquaresType::Second);
            ASSERT_EQ(anova.has_value(), !set[type].is_null());
            if (!anova)
                continue;
            EXPECT_EQ(anova->residual.df, set["residual"]["df"].get<double>());
            expectClose(anova->residual.squares, set["residual"]["ss"], kClosedForm, "residual");
            const FactorialTerm *terms[] = {&anova->a, &anova->b, &anova->interaction};
            for (std::size_t i = 0; i < 3; ++i) {
                const json &wanted = set[type][i];
                EXPECT_EQ(terms[i]->df, wanted["df"].get<double>());
                ASSERT_EQ(terms[i]->f.has_value(), !wanted["F"].is_null()); // empty cells leave none to test
                if (!terms[i]->f)
                    continue;
                expectClose(terms[i]->squares, wanted["ss"], kClosedForm, "squares");
                expectClose(*terms[i]->f, wanted["F"], kClosedForm, "F");
                expectProbability(*terms[i]->p, wanted["p"], "p");
            }
        }
    }
}

TEST(DesignReference, TrendsAgreeWithR)
{
    for (const json &set : designReference()["trends"]) {
        SCOPED_TRACE(set["name"].get<std::string>() + ", degree " + set["degree"].dump());
        const Result<Trend> fit = fitTrend(numbers(set["x"]), numbers(set["y"]), set["degree"].get<int>());
        ASSERT_TRUE(fit);
        // Powers of x itself (R's raw polynomial) cost R some digits; the program fits around the middle.
        constexpr double kRaw = 8.5;
        for (const TrendCoefficient &coefficient : fit->coefficients) {
            const auto i = static_cast<std::size_t>(coefficient.power);
            expectClose(coefficient.value, set["value"][i], kRaw, "coefficient");
            expectClose(*coefficient.se, set["se"][i], kRaw, "se");
            expectProbability(*coefficient.p, set["p"][i], "p");
            expectClose(coefficient.ci->low, set["low"][i], kRaw, "low");
            expectClose(coefficient.ci->high, set["high"][i], kRaw, "high");
        }
        expectClose(*fit->r2, set["r2"], kClosedForm, "r2");
        expectClose(*fit->adjustedR2, set["adjusted_r2"], kClosedForm, "adjusted r2");
        expectClose(*fit->residualSd, set["residual_sd"], kClosedForm, "residual sd");
        expectClose(*fit->f, set["F"], kClosedForm, "F");
        expectProbability(*fit->p, set["model_p"], "p");
        ASSERT_EQ(fit->lackOfFit.has_value(), !set["lack"].is_null());
        if (fit->lackOfFit) {
            expectClose(fit->lackOfFit->f, set["lack"]["F"], 8.0, "lack of fit");
            EXPECT_EQ(fit->lackOfFit->df1, set["lack"]["df1"].get<double>());
            EXPECT_EQ(fit->lackOfFit->df2, set["lack"]["df2"].get<double>());
            expectProbability(fit->lackOfFit->p, set["lack"]["p"], "lack of fit p");
        }
        ASSERT_EQ(fit->optimum.has_value(), !set["optimum"].is_null());
        if (fit->optimum) {
            expectClose(fit->optimum->x, set["optimum"]["x"], kRaw, "optimum");
            expectInterval(fit->optimum->ci, set["optimum"]["ci"], 7.0, "optimum");
            EXPECT_EQ(fit->optimum->isMaximum, set["optimum"]["kind"] == "maximum");
        }
    }
}

TEST(DesignReference, EquivalenceAgreesWithR)
{
    for (const json &set : designReference()["equivalence"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const Equivalence found =
            testEquivalence(numbers(set["a"]), numbers(set["b"]), set["margin"].get<double>());
        expectClose(found.difference, set["difference"], kClosedForm, "difference");
        expectClose(*found.tLower, set["t_lower"], kClosedForm, "t lower");
        expectClose(*found.tUpper, set["t_upper"], kClosedForm, "t upper");
        expectClose(*found.df, set["df"], kClosedForm, "df");
        expectProbability(*found.p, set["p"], "p");
        expectInterval(found.ci90, set["ci90"], kClosedForm, "ci90");
        EXPECT_EQ(*found.equivalent, set["p"].get<double>() < 0.05);
    }
}

TEST(DesignReference, VarianceComponentsAgreeWithR)
{
    int byLikelihood = 0;
    for (const json &set : designReference()["random"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        std::vector<Group> groups;
        const std::vector<std::size_t> places = levels(set["group"]);
        groups.resize(*std::max_element(places.begin(), places.end()) + 1);
        for (std::size_t i = 0; i < places.size(); ++i)
            groups[places[i]].values.push_back(set["value"][i].get<double>());
        const Result<VarianceComponents> found = varianceComponents(groups);
        ASSERT_TRUE(found);
        expectClose(found->msBetween, set["ms_between"], kClosedForm, "ms between");
        expectClose(*found->msWithin, set["ms_within"], kClosedForm, "ms within");
        expectClose(*found->repeatability, set["s_r"], kClosedForm, "s_r");
        expectClose(*found->between, set["s_between"], kClosedForm, "s_between");
        expectClose(*found->reproducibility, set["s_R"], kClosedForm, "s_R");
        if (set["reml"].is_null())
            continue;
        ++byLikelihood; // balanced and positive: restricted likelihood is the same, to its stopping rule
        expectClose(*found->between, set["reml"][0], 3.5, "s_between by REML");
        expectClose(*found->repeatability, set["reml"][1], 3.5, "s_r by REML");
    }
    EXPECT_EQ(byLikelihood, 3);
}

} // namespace inchpeg
