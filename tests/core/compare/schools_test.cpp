// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/schools.h"
#include "support/study_builder.h"

namespace inchpeg
{

namespace
{

std::string told(const test::StudyBuilder &builder)
{
    return otherSchools(builder.study, compareStudy(builder.study, builder.readings,
                                                    *findProperty(kTensileReduction, kUsualProperty)));
}

} // namespace

TEST(Schools, WhereAllAgreeThatIsSaid)
{
    test::StudyBuilder builder;
    builder.rail("220", {39, 40, 41, 40.5, 39.5}).rail("230", {49, 50, 51, 50.5, 49.5});
    EXPECT_EQ(told(builder), "Other schools: Welch with Holm, ranks, trimmed means and Fieller's ratio say "
                             "the same of every rail.");
}

TEST(Schools, ThreePiecesShowNothingByRanks)
{
    test::StudyBuilder builder;
    builder.rail("220", {39, 40, 41}).rail("230", {49, 50, 51});
    EXPECT_EQ(told(builder),
              "Other schools: Welch with Holm, trimmed means and Fieller's ratio say the same of every "
              "rail; so few pieces can show nothing by ranks alone.");
}

TEST(Schools, OneThatSaysOtherwiseIsNamedWithItsRail)
{
    // One stray piece hides from means what ranks and trimmed means still see.
    test::StudyBuilder builder;
    builder.rail("220", {39.0, 39.5, 40.0, 40.5, 41.0, 40.2})
        .rail("230", {45.0, 45.5, 46.0, 46.5, 47.0, 41.5});
    builder.rail("240", {44.0, 44.5, 45.0, 45.5, 46.0, 20.0});
    const std::string text = told(builder);
    EXPECT_NE(text.find("said otherwise "), std::string::npos) << text;
    EXPECT_NE(text.find("by trimmed means 240 °C is above"), std::string::npos) << text;
}

TEST(Schools, WithoutAComparisonNothingIsSaid)
{
    test::StudyBuilder builder;
    builder.rail("220", {39, 40, 41}).rail("230", {50.0, 50.0, 50.0}, Orientation::Standing, 0, true);
    EXPECT_EQ(told(builder), "");
    EXPECT_EQ(told(test::StudyBuilder()), "");
}

} // namespace inchpeg
