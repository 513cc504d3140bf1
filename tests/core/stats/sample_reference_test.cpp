// SPDX-License-Identifier: GPL-3.0-or-later
// Reference: R 4.2.2 (stats, survival 3.5) over data sets that come with R, and two of the NIST/SEMATECH
// e-Handbook; made by tests/reference/make_design_reference.R, kept in tests/data/reference_designs.json.
#include "core/stats/bootstrap.h"
#include "core/stats/normality.h"
#include "core/stats/outliers.h"
#include "core/stats/survival.h"
#include "core/stats/tolerance_bounds.h"
#include "core/stats/weibull.h"
#include "support/reference_values.h"

#include <gtest/gtest.h>

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

/// Where R iterates (survreg), its own stopping rule leaves eight digits.
constexpr double kIterated = 7.5;

std::vector<BoundedValue> whole(const std::vector<double> &values)
{
    std::vector<BoundedValue> out;
    for (double value : values)
        out.push_back({value, false});
    return out;
}

void expectWeibull(const WeibullFit &fit, const json &wanted)
{
    expectClose(fit.shape.value, wanted["shape"], kIterated, "shape");
    expectInterval(fit.shape.ci, wanted["shape_ci"], kIterated, "shape");
    expectClose(fit.scale.value, wanted["scale"], kIterated, "scale");
    expectInterval(fit.scale.ci, wanted["scale_ci"], kIterated, "scale");
    expectClose(fit.logLikelihood, wanted["log_likelihood"], kClosedForm, "log likelihood");
    expectClose(fit.b10, wanted["b10"], kIterated, "b10");
    expectClose(fit.b50, wanted["b50"], kIterated, "b50");
    expectClose(fit.mean, wanted["mean"], kIterated, "mean");
}

} // namespace

TEST(SampleReference, NormalityAgreesWithR)
{
    for (const json &set : designReference()["samples"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const std::vector<double> values = numbers(set["value"]);
        const std::optional<ShapiroWilk> shapiro = shapiroWilk(values);
        ASSERT_TRUE(shapiro);
        expectClose(shapiro->w, set["shapiro"][0], kClosedForm, "W");
        expectProbability(shapiro->p, set["shapiro"][1], "p");
        expectClose(andersonDarling(values)->a2, set["a2"], kClosedForm, "A2");
        EXPECT_EQ(andersonDarling(values)->p.has_value(), values.size() >= 8);
    }
}

TEST(SampleReference, OutliersAgreeWithR)
{
    for (const json &set : designReference()["samples"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const std::vector<double> values = numbers(set["value"]);
        const std::optional<GrubbsTest> test = grubbs(values);
        ASSERT_TRUE(test);
        expectClose(test->g, set["grubbs"]["G"], kClosedForm, "G");
        expectClose(test->critical, set["grubbs"]["critical"], kClosedForm, "critical");
        expectProbability(test->p, set["grubbs"]["p"], "p");
        EXPECT_EQ(test->position, set["grubbs"]["index"].get<std::size_t>());
        EXPECT_EQ(rosnerOutliers(values), set["esd"].get<std::vector<std::size_t>>());
    }
}

TEST(SampleReference, TheHandbooksOutliersAreFound)
{
    // NIST/SEMATECH e-Handbook 1.3.5.17.1: G = 2.4687; 1.3.5.17.3: three outliers.
    const std::vector<double> eight{199.31, 199.53, 200.19, 200.82, 201.92, 201.95, 202.18, 245.57};
    EXPECT_NEAR(grubbs(eight)->g, 2.4687, 5e-4); // the handbook gives the value of rounded steps
    EXPECT_TRUE(grubbs(eight)->outlier);
    EXPECT_EQ(maximumNormedResidual(eight)->outliers, std::vector<std::size_t>{7});
    EXPECT_EQ(rosnerOutliers(numbers(designReference()["nist_esd"]["value"])),
              (std::vector<std::size_t>{53, 52, 51}));
}

TEST(SampleReference, WeibullAgreesWithR)
{
    for (const json &set : designReference()["samples"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const Result<WeibullFit> fit = fitWeibull(whole(numbers(set["value"])));
        ASSERT_TRUE(fit);
        expectWeibull(*fit, set["weibull"]);
        expectClose(*fit->andersonDarling, set["weibull"]["anderson_darling"], 7.0, "A2");
    }
}

TEST(SampleReference, ToleranceBoundsAgreeWithR)
{
    int checked = 0;
    for (const json &set : designReference()["samples"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const std::vector<double> values = numbers(set["value"]);
        if (!set["k_a"].is_null()) {
            // R's noncentral t warns that it loses digits here; it keeps eight.
            expectClose(*normalBounds(values).kA, set["k_a"], 7.5, "k_a");
            expectClose(*normalBounds(values).kB, set["k_b"], 7.5, "k_b");
        }
        if (set["weibull_a"].is_null())
            continue;
        ++checked;
        // The reference integrates over both pivots, to about 1e-8.
        expectClose(*weibullBounds(values).a, set["weibull_a"], 6.0, "Weibull a");
        expectClose(*weibullBounds(values).b, set["weibull_b"], 6.0, "Weibull b");
    }
    EXPECT_EQ(checked, 4);
}

TEST(SampleReference, BoundsAgreeWithR)
{
    for (const json &set : designReference()["bounds"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        std::vector<BoundedGroup> groups;
        for (const json &wanted : set["groups"]) {
            BoundedGroup group{wanted["group"].get<std::string>(), {}};
            for (std::size_t i = 0; i < set["value"].size(); ++i) {
                if (set["group"][i] == wanted["group"])
                    group.values.push_back({set["value"][i].get<double>(), set["bound"][i] == 1});
            }
            const Result<WeibullFit> fit = fitWeibull(group.values);
            ASSERT_TRUE(fit);
            expectWeibull(*fit, wanted["weibull"]);
            EXPECT_FALSE(fit->andersonDarling);
            const SurvivalCurve curve = survivalCurve(group.values);
            ASSERT_EQ(curve.steps.size(), wanted["value"].size());
            for (std::size_t i = 0; i < curve.steps.size(); ++i) {
                const SurvivalStep &step = curve.steps[i];
                EXPECT_EQ(step.value, wanted["value"][i].get<double>());
                EXPECT_EQ(step.atRisk, wanted["at_risk"][i].get<std::size_t>());
                EXPECT_EQ(step.events, wanted["events"][i].get<std::size_t>());
                EXPECT_NEAR(step.survival, wanted["survival"][i].get<double>(), 1e-12);
                ASSERT_EQ(step.se.has_value(), !wanted["se"][i].is_null());
                if (step.se)
                    expectClose(*step.se, wanted["se"][i], kClosedForm, "se");
            }
            ASSERT_EQ(curve.median.has_value(), !wanted["median"].is_null());
            if (curve.median) {
                EXPECT_EQ(*curve.median, wanted["median"].get<double>());
            }
            groups.push_back(group);
        }
        const std::optional<ChiSquaredTest> test = logRank(groups);
        expectClose(test->statistic, set["log_rank"]["chi2"], kClosedForm, "chi2");
        EXPECT_EQ(test->df, set["log_rank"]["df"].get<double>());
        expectProbability(test->p, set["log_rank"]["p"], "p");
    }
}

TEST(SampleReference, ResamplingAgreesWithAMillionDrawingsInR)
{
    for (const json &set : designReference()["bootstrap"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        std::vector<std::vector<double>> samples{numbers(set["x"])};
        const std::string name = set["statistic"];
        if (name == "ratio")
            samples.push_back(numbers(set["y"]));
        const Statistic statistic = name == "mean" ? meanStatistic()
                                    : name == "sd" ? sdStatistic()
                                                   : ratioStatistic();
        const BootstrapEstimate found = bootstrap(samples, statistic, {0.95, 40000, 7});
        // A quantile of 40,000 drawings wanders by about a hundredth of the interval's width.
        const double width = set["percentile"][1].get<double>() - set["percentile"][0].get<double>();
        for (std::size_t side = 0; side < 2; ++side) {
            const auto end = [side](const Interval &ci) { return side == 0 ? ci.low : ci.high; };
            EXPECT_NEAR(end(*found.percentile), set["percentile"][side].get<double>(), 0.02 * width);
            EXPECT_NEAR(end(*found.bca), set["bca"][side].get<double>(), 0.02 * width);
        }
    }
}

} // namespace inchpeg
