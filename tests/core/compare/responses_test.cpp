// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/responses.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

namespace inchpeg
{

TEST(Responses, OneMethodAnswersWithAllItIsPlannedForSeveralWithTwoEach)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0, 31.0});
    firstTest(builder.study).method = Method::Tension;
    EXPECT_EQ(responsesOf(builder.study).size(), factsOf(Method::Tension).properties.size());
    builder.study.tests.push_back({Method::HeatDeflection, 2, {}});
    builder.study.tests.push_back({Method::Bending, 3, {}});
    const std::vector<Response> responses = responsesOf(builder.study);
    ASSERT_EQ(responses.size(), 5U);
    EXPECT_EQ(responses[0].property.name, "tensile_strength");
    EXPECT_EQ(responses[1].test, Method::Tension);
    EXPECT_EQ(responses[2].property.name, "heat_deflection_temperature");
    EXPECT_EQ(responses[3].test, Method::Bending);
}

TEST(Responses, EachCellSaysWhatTheLargeScaleSays)
{
    test::StudyBuilder builder;
    builder.rail("230", {29.0, 30.0, 31.0, 30.5, 29.5, 30.0})
        .rail("245", {35.0, 36.0, 34.5, 35.5, 36.5, 35.0})
        .rail("260", {30.2, 29.8, 30.4, 29.9, 30.1, 29.7})
        .rail("275", {});
    const std::vector<ResponseColumn> table = responseTable(builder.study, builder.readings);
    const ResponseColumn &strength = table.at(0);
    EXPECT_EQ(strength.unit, "MPa");
    ASSERT_EQ(strength.cells.size(), 4U);
    EXPECT_EQ(strength.cells[0].verdict.standing, Standing::Reference);
    EXPECT_EQ(strength.cells[1].verdict.difference, "+18 %"); // 35.4167 / 30
    EXPECT_EQ(strength.cells[1].meanText, "35.42");
    EXPECT_EQ(strength.cells[1].values.size(), 6U);
    EXPECT_EQ(strength.cells[2].verdict.difference, "+0.1 %"); // 30.0167 / 30
    EXPECT_TRUE(strength.cells[3].meanText.empty());
    EXPECT_TRUE(strength.cells[3].verdict.difference.empty());
    EXPECT_EQ(responsesHeadline(builder.study, {strength}),
              "Against 230 °C: 245 °C above in 1 of 1, below in 0; 260 °C above in 0 of 1, below in 0.");
}

TEST(Responses, BoundsAreToldAsBounds)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0, 31.0, 30.5}).rail("245", {40.0, 40.0, 40.0}, Orientation::Standing, 0, true);
    const ResponseCell cell = responseTable(builder.study, builder.readings).at(0).cells.at(1);
    EXPECT_EQ(cell.meanText, "≥ 40.0");
    EXPECT_FALSE(cell.interval);
    EXPECT_EQ(cell.verdict.standing, Standing::Higher);
    EXPECT_EQ(cell.verdict.difference, "≥ +31 %"); // 40 / 30.5
}

} // namespace inchpeg
