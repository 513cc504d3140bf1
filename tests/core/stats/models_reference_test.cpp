// SPDX-License-Identifier: GPL-3.0-or-later
// Reference: R 4.2.2 with car 3.1-1, survival 3.5-3, lme4 1.1-31 and MASS 7.3-58.2 over data sets that come
// with R; made by tests/reference/make_models_reference.R, kept in tests/data/reference_models.json.
#include "core/stats/bounded_line.h"
#include "core/stats/factorial.h"
#include "core/stats/gauge_study.h"
#include "core/stats/pooling.h"
#include "core/stats/simultaneous.h"
#include "support/reference_values.h"

#include <cmath>

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::expectClose;
using test::expectInterval;
using test::expectProbability;
using test::kClosedForm;
using test::numbers;

/// What an optimum that R found to about 1e-8 of its likelihood is right to.
constexpr double kOptimumDigits = 6.0;
/// car makes its sums of squares from an inverse, which costs it some digits.
constexpr double kSquaresDigits = 8.5;

const json &modelsReference()
{
    static const json loaded = test::referenceFile("reference_models.json");
    return loaded;
}

std::vector<FactorialValue> factorialValues(const json &set)
{
    std::vector<FactorialValue> values;
    for (std::size_t i = 0; i < set["y"].size(); ++i) {
        FactorialValue value{set["y"][i], {}, {}};
        for (const json &factor : set["factors"])
            value.levels.push_back(factor[i].get<std::size_t>() - 1);
        if (!set["covariate"].is_null())
            value.covariates.push_back(set["covariate"][i]);
        values.push_back(std::move(value));
    }
    return values;
}

} // namespace

TEST(Factorial, AgreesWithCar)
{
    for (const json &set : modelsReference()["factors"]) {
        const int type = set["type"];
        SCOPED_TRACE(set["name"].get<std::string>() + ", type " + std::to_string(type));
        const Result<FactorialAnova> anova =
            factorialAnova(factorialValues(set), type == 3 ? SquaresType::Third : SquaresType::Second);
        ASSERT_TRUE(anova) << anova.error().message;
        ASSERT_EQ(anova->terms.size() + 1, set["df"].size());
        for (std::size_t i = 0; i < anova->terms.size(); ++i) {
            const FactorialTerm &term = anova->terms[i];
            EXPECT_EQ(term.df, set["df"][i].get<double>());
            expectClose(term.squares, set["ss"][i], kSquaresDigits, "squares");
            expectClose(*term.f, set["F"][i], kSquaresDigits, "F");
            expectProbability(*term.p, set["p"][i], "p");
        }
        expectClose(anova->residual.squares, set["ss"].back(), kClosedForm, "residual");
        EXPECT_EQ(anova->residual.df, set["df"].back().get<double>());
        ASSERT_EQ(anova->means.size(), set["means"].size());
        for (std::size_t i = 0; i < anova->means.size(); ++i) {
            expectClose(anova->means[i].mean, set["means"][i], kClosedForm, "adjusted mean");
            expectClose(*anova->means[i].se, set["means_se"][i], kClosedForm, "its error");
        }
        ASSERT_EQ(anova->differences.size(), set["differences"].size());
        for (std::size_t i = 0; i < anova->differences.size(); ++i) {
            expectClose(anova->differences[i].value, set["differences"][i], kSquaresDigits, "difference");
            expectClose(*anova->differences[i].se, set["differences_se"][i], kClosedForm, "its error");
        }
        ASSERT_EQ(anova->slopes.size(), set["slope"].is_null() ? 0U : 1U);
        if (!anova->slopes.empty()) {
            expectClose(anova->slopes[0].value, set["slope"], kClosedForm, "slope");
            expectClose(*anova->slopes[0].se, set["slope_se"], kClosedForm, "its error");
        }
    }
}

TEST(GaugeStudy, AgreesWithAovAndWithLmerWhereNothingIsNegative)
{
    for (const json &set : modelsReference()["gauges"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        std::vector<GaugeStudyValue> readings;
        for (std::size_t i = 0; i < set["y"].size(); ++i)
            readings.push_back({set["y"][i], set["part"][i].get<std::size_t>() - 1,
                                set["person"][i].get<std::size_t>() - 1});
        const Result<GaugeStudy> study = gaugeStudy(readings);
        ASSERT_TRUE(study) << study.error().message;
        EXPECT_EQ(study->interactionLeftOut, set["left_out"].get<bool>());
        expectClose(study->repeatability, set["repeatability"], kClosedForm, "repeatability");
        expectClose(study->person, set["operator"], kClosedForm, "person");
        expectClose(study->interaction, set["interaction"], kClosedForm, "interaction");
        expectClose(study->gauge, set["gauge"], kClosedForm, "gauge");
        expectClose(study->part, set["part_sd"], kClosedForm, "part");
        expectClose(study->total, set["total"], kClosedForm, "total");
        expectProbability(*study->interactionP, set["p"], "interaction");
        const bool isInside = study->person > 0.0 && study->interaction > 0.0 && study->part > 0.0;
        if (!isInside)
            continue; // restricted likelihood and moments are the same only where no component is at its end
        const json &lmer = set["lmer"];
        constexpr double kLmerDigits = 5.0;
        expectClose(study->repeatability, lmer["Residual"], kLmerDigits, "lmer's residual");
        expectClose(study->person, lmer["person"], kLmerDigits, "lmer's person");
        expectClose(study->interaction, lmer["part:person"], kLmerDigits, "lmer's interaction");
        expectClose(study->part, lmer["part"], kLmerDigits, "lmer's part");
    }
}

TEST(Pooling, AgreesWithTheRestrictedLikelihoodInR)
{
    for (const json &set : modelsReference()["pools"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        std::vector<StudyEstimate> studies;
        for (std::size_t i = 0; i < set["value"].size(); ++i)
            studies.push_back({set["value"][i], set["se"][i]});
        const Result<PooledEstimate> pooled = poolStudies(studies);
        ASSERT_TRUE(pooled) << pooled.error().message;
        expectClose(pooled->value, set["pooled"], kOptimumDigits, "mean");
        expectClose(pooled->standardError, set["pooled_se"], kOptimumDigits, "its error");
        expectInterval(pooled->ci, set["ci"], kOptimumDigits, "interval");
        expectClose(pooled->between, set["between"], kOptimumDigits, "between");
        expectClose(pooled->q, set["Q"], kClosedForm, "Q");
        expectProbability(pooled->qP, set["p"], "p");
        expectInterval(pooled->next, set["next_study"], kOptimumDigits, "a next study");
    }
}

TEST(BoundedLine, AgreesWithSurvreg)
{
    for (const json &set : modelsReference()["lines"]) {
        const std::string law = set["distribution"];
        SCOPED_TRACE(set["name"].get<std::string>() + ", " + law);
        std::vector<BoundedValue> values;
        for (std::size_t i = 0; i < set["value"].size(); ++i)
            values.push_back({set["value"][i], set["bound"][i].get<double>() > 0.0});
        const Result<BoundedLine> line = fitBoundedLine(numbers(set["x"]), values,
                                                        law == "gaussian"  ? ScatterLaw::Normal
                                                        : law == "weibull" ? ScatterLaw::Weibull
                                                                           : ScatterLaw::LogNormal);
        ASSERT_TRUE(line) << line.error().message;
        expectClose(line->intercept, set["intercept"], kOptimumDigits, "intercept");
        expectClose(line->slope, set["slope"], kOptimumDigits, "slope");
        expectClose(line->interceptError, set["intercept_se"], kOptimumDigits, "its error");
        expectClose(line->slopeError, set["slope_se"], kOptimumDigits, "its error");
        expectClose(line->scale, set["scale"], kOptimumDigits, "scale");
        expectClose(line->logLikelihood, set["log_likelihood"], kClosedForm, "log likelihood");
    }
}

TEST(Power, OfPairsAndOfGoodEnoughAgreesWithR)
{
    for (const json &set : modelsReference()["power"]) {
        SCOPED_TRACE(set.dump());
        const int n = set["n"];
        const int groups = set["groups"];
        const PowerQuestion paired{Comparison::BeforeAfter, set["d"], 0.05, groups};
        expectProbability(powerOf(paired, n)->power, set["paired"], "paired");
        const PowerQuestion enough{Comparison::GoodEnough, set["d"], 0.05, groups};
        expectProbability(powerOf(enough, n)->power, set["good_enough"], "good enough");
        expectClose(criticalValue(Comparison::GoodEnough, groups, n, 0.05), set["critical"], 7.0,
                    "critical value");
    }
}

TEST(PairedEffect, AgreesWithStudentsPairedTestOfTheLogarithms)
{
    for (const json &set : modelsReference()["pairs"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        const std::vector<double> a = numbers(set["a"]);
        const std::vector<double> b = numbers(set["b"]);
        const std::optional<Effect> ratio = pairedEffect(a, b, true, 0.95, 1);
        ASSERT_TRUE(ratio);
        expectClose(ratio->estimate, set["ratio"], kClosedForm, "ratio");
        expectInterval(ratio->ci, set["ci"], kClosedForm, "interval of the ratio");
        expectClose(ratio->t, set["t"], kClosedForm, "t");
        const std::optional<Effect> difference = pairedEffect(a, b, false, 0.95, 1);
        expectClose(difference->estimate, set["difference"], kClosedForm, "difference");
        expectInterval(difference->ci, set["difference_ci"], kClosedForm, "its interval");
    }
}

TEST(PairedEffect, OfAFamilyIsWiderByBonferroni)
{
    const std::vector<double> a{10, 11, 12, 13};
    const std::vector<double> b{11, 12.5, 12.5, 14.5};
    const std::optional<Effect> alone = pairedEffect(a, b, false, 0.95, 1);
    const std::optional<Effect> ofThree = pairedEffect(a, b, false, 1.0 - 0.05 / 3.0, 1);
    EXPECT_DOUBLE_EQ(pairedEffect(a, b, false, 0.95, 3)->ci.low, ofThree->ci.low);
    EXPECT_LT(ofThree->ci.low, alone->ci.low);
    EXPECT_FALSE(pairedEffect(a, a, false, 0.95, 1)) << "no difference varies";
    EXPECT_FALSE(pairedEffect(a, std::vector<double>{1, 2, 3, 0}, true, 0.95, 1)) << "0 has no ratio";
}

TEST(Factorial, RefusesWhatItCannotTell)
{
    EXPECT_EQ(factorialAnova(std::vector<FactorialValue>{{1, {0}}, {2, {0}}}).error().code,
              ErrorCode::TooFewPoints);
    const std::vector<FactorialValue> hole{{1, {0, 0}}, {2, {0, 1}}, {3, {1, 0}}, {4, {1, 0}}};
    EXPECT_EQ(factorialAnova(hole, SquaresType::Third).error().code, ErrorCode::InvalidArgument);
    const Result<FactorialAnova> second = factorialAnova(hole);
    ASSERT_TRUE(second);
    EXPECT_TRUE(second->means.empty()) << "no means over combinations that are not there";
}

/// Shifting, scaling and shuffling change nothing but what they must.
TEST(Factorial, KeepsItsFWhenValuesAreShiftedScaledAndShuffled)
{
    for (const json &set : modelsReference()["factors"]) {
        SCOPED_TRACE(set["name"].get<std::string>());
        std::vector<FactorialValue> values = factorialValues(set);
        const Result<FactorialAnova> first = factorialAnova(values);
        std::reverse(values.begin(), values.end());
        for (FactorialValue &value : values) {
            value.value = 1e6 + 1e-3 * value.value;
            for (double &covariate : value.covariates)
                covariate = 50.0 - 7.0 * covariate;
        }
        const Result<FactorialAnova> moved = factorialAnova(values);
        ASSERT_TRUE(first && moved);
        for (std::size_t i = 0; i < first->terms.size(); ++i)
            EXPECT_GE(test::matchingDigits(*moved->terms[i].f, *first->terms[i].f), 5.0)
                << i << ": " << *moved->terms[i].f << " and " << *first->terms[i].f;
    }
}

TEST(GaugeStudy, RefusesWhatIsNotCrossed)
{
    const std::vector<GaugeStudyValue> once{{1, 0, 0}, {2, 0, 1}, {3, 1, 0}, {4, 1, 1}};
    EXPECT_EQ(gaugeStudy(once).error().code, ErrorCode::TooFewPoints);
    const std::vector<GaugeStudyValue> uneven{{1, 0, 0}, {2, 0, 0}, {3, 1, 0}, {4, 1, 1}};
    EXPECT_EQ(gaugeStudy(uneven).error().code, ErrorCode::InvalidArgument);
    EXPECT_EQ(gaugeStudy(std::vector<GaugeStudyValue>{{1, 0, 0}, {2, 0, 0}}).error().code,
              ErrorCode::TooFewPoints);
    const std::vector<GaugeStudyValue> still{{5, 0, 0}, {5, 0, 0}, {5, 0, 1}, {5, 0, 1},
                                             {5, 1, 0}, {5, 1, 0}, {5, 1, 1}, {5, 1, 1}};
    const Result<GaugeStudy> nothing = gaugeStudy(still);
    ASSERT_TRUE(nothing);
    EXPECT_EQ(nothing->total, 0.0);
    EXPECT_FALSE(nothing->shareOfTotal);
    EXPECT_FALSE(nothing->categories);
}

TEST(Pooling, RefusesAndAgrees)
{
    EXPECT_EQ(poolStudies(std::vector<StudyEstimate>{{1, 1}}).error().code, ErrorCode::TooFewPoints);
    EXPECT_EQ(poolStudies(std::vector<StudyEstimate>{{1, 1}, {2, 0}}).error().code,
              ErrorCode::InvalidArgument);
    const Result<PooledEstimate> alike = poolStudies(std::vector<StudyEstimate>{{0.1, 0.02}, {0.1, 0.02}});
    ASSERT_TRUE(alike);
    EXPECT_EQ(alike->between, 0.0);
    EXPECT_NEAR(alike->standardError, 0.02 / std::sqrt(2.0), 1e-12);
    EXPECT_FALSE(alike->next);
}

TEST(BoundedLine, RefusesWhatHasNoLine)
{
    const std::vector<BoundedValue> values{{1, false}, {2, false}, {3, true}};
    EXPECT_EQ(fitBoundedLine(std::vector<double>{1, 1, 1}, values, ScatterLaw::Normal).error().code,
              ErrorCode::TooFewPoints);
    const std::vector<BoundedValue> bounds{{1, true}, {2, true}, {3, true}};
    EXPECT_EQ(fitBoundedLine(std::vector<double>{1, 2, 3}, bounds, ScatterLaw::Normal).error().code,
              ErrorCode::TooFewPoints);
    const std::vector<BoundedValue> zero{{0, false}, {2, false}, {3, true}};
    EXPECT_EQ(fitBoundedLine(std::vector<double>{1, 2, 3}, zero, ScatterLaw::LogNormal).error().code,
              ErrorCode::BadInput);
}

} // namespace inchpeg
