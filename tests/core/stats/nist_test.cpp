// SPDX-License-Identifier: GPL-3.0-or-later
// Reference: NIST's Statistical Reference Datasets, read, made and certified again by exact rational
// arithmetic in tests/reference/make_nist_reference.py, kept in tests/data/reference_nist.json. The digits
// wanted are what double precision leaves: 1000000000000.4 (SmLs07 to 09) is itself off by 1e-4 of the
// scatter.
#include "core/stats/linear_model.h"
#include "core/stats/many_groups.h"
#include "core/stats/summary.h"
#include "core/stats/trend.h"
#include "support/reference_values.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::matchingDigits;

const json &nistReference()
{
    static const json loaded = test::referenceFile("reference_nist.json");
    return loaded;
}

std::vector<double> spreadOut(const json &runs)
{
    std::vector<double> values;
    for (const json &run : runs)
        values.insert(values.end(), run[1].get<std::size_t>(), run[0].get<double>());
    return values;
}

/// Digits that the data themselves lose when they are rounded to doubles.
double wantedAnovaDigits(const std::string &name)
{
    if (name == "SmLs04" || name == "SmLs05" || name == "SmLs06" || name == "AtmWtAg")
        return 8.5;
    return name == "SmLs07" || name == "SmLs08" || name == "SmLs09" ? 2.5 : 12.0;
}

} // namespace

TEST(Nist, UnivariateSets)
{
    for (const json &set : nistReference()["univariate"]) {
        const std::string name = set["name"];
        const Summary summary = summarise(spreadOut(set["values"]));
        EXPECT_GE(matchingDigits(*summary.mean, set["mean"]), 14.5) << name;
        const double digits = name == "NumAcc4" ? 8.0 : name == "NumAcc3" ? 9.0 : 13.0;
        EXPECT_GE(matchingDigits(*summary.sd, set["sd"]), digits) << name;
    }
}

TEST(Nist, AnalysisOfVariance)
{
    for (const json &set : nistReference()["anova"]) {
        const std::string name = set["name"];
        std::vector<Group> groups;
        for (const json &group : set["groups"])
            groups.push_back({{}, spreadOut(group)});
        const Anova anova = oneWayAnova(groups);
        EXPECT_GE(matchingDigits(anova.test->f, set["F"]), wantedAnovaDigits(name))
            << name << ": " << anova.test->f;
    }
}

TEST(Nist, LinearRegression)
{
    for (const json &set : nistReference()["linear"]) {
        const std::string name = set["name"];
        SCOPED_TRACE(name);
        const auto rows = static_cast<Eigen::Index>(set["y"].size());
        const auto columns = static_cast<Eigen::Index>(set["coefficients"].size());
        Eigen::MatrixXd design(rows, columns);
        Eigen::VectorXd y(rows);
        for (Eigen::Index i = 0; i < rows; ++i) {
            y[i] = set["y"][static_cast<std::size_t>(i)];
            for (Eigen::Index j = 0; j < columns; ++j)
                design(i, j) = set["design"][static_cast<std::size_t>(i)][static_cast<std::size_t>(j)];
        }
        const LinearModel model(design);
        ASSERT_EQ(model.rank(), columns);
        const Eigen::VectorXd coefficients = model.coefficients(y);
        // The condition of the columns costs seven digits, and large residuals what they hide.
        const double digits = name == "Norris"     ? 11.5
                              : name == "Wampler5" ? 5.5
                              : name == "Wampler4" ? 7.0
                                                   : 8.0;
        for (Eigen::Index j = 0; j < columns; ++j)
            EXPECT_GE(matchingDigits(coefficients[j], set["coefficients"][static_cast<std::size_t>(j)]),
                      digits)
                << "coefficient " << j << ": " << coefficients[j];
        const double squares = set["squares"];
        if (squares == 0.0)
            continue; // Wampler1 and 2 lie on their curve
        const double own = (y - model.fitted(y)).squaredNorm();
        EXPECT_GE(matchingDigits(own, squares), 8.5) << own;
        const double variance = own / static_cast<double>(rows - columns);
        const Eigen::MatrixXd covariance = variance * model.unscaledCovariance();
        for (Eigen::Index j = 0; j < columns; ++j)
            EXPECT_GE(matchingDigits(std::sqrt(covariance(j, j)), set["errors"][static_cast<std::size_t>(j)]),
                      8.0)
                << "its error " << j;
    }
}

TEST(Nist, NorrisAsATrend)
{
    const json &set = nistReference()["linear"][0];
    std::vector<double> x;
    for (const json &row : set["design"])
        x.push_back(row[1]);
    const Result<Trend> line = fitTrend(x, test::numbers(set["y"]), 1);
    ASSERT_TRUE(line);
    EXPECT_GE(matchingDigits(line->coefficients[0].value, set["coefficients"][0]), 11.5);
    EXPECT_GE(matchingDigits(line->coefficients[1].value, set["coefficients"][1]), 13.5);
    EXPECT_GE(matchingDigits(*line->coefficients[0].se, set["errors"][0]), 13.0);
    EXPECT_GE(matchingDigits(*line->coefficients[1].se, set["errors"][1]), 13.0);
}

} // namespace inchpeg
