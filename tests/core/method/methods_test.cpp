// SPDX-License-Identifier: GPL-3.0-or-later
// What holds of every test, whichever are added.
#include "core/method/method.h"
#include "core/method/record_rows.h"
#include "core/reading/reading_text.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <set>

namespace inchpeg
{

TEST(Methods, EveryPropertyHasAUnitWordsAndANameOfItsOwn)
{
    for (const Reduction *reduction : allReductions()) {
        std::set<std::string_view> names;
        for (const Property &property : reduction->properties) {
            EXPECT_TRUE(names.insert(property.name).second) << property.name;
            EXPECT_EQ(workingUnit(property.dimension).dimension, property.dimension) << property.name;
            EXPECT_NO_THROW(workingUnit(differenceOf(property.dimension))) << property.name;
            EXPECT_FALSE(property.label.empty() || property.definition.empty()) << property.name;
            for (std::string_view words : {property.words.more, property.words.less}) {
                const std::size_t first = words.find("{}");
                ASSERT_NE(first, std::string_view::npos) << property.name;
                EXPECT_NE(words.find("{}", first + 2), std::string_view::npos) << property.name;
            }
        }
    }
}

TEST(Methods, WhatIsPlannedIsRead)
{
    for (const MethodFacts &facts : allMethods()) {
        if (facts.reduction == nullptr)
            continue;
        for (const PlannedProperty &planned : facts.properties) {
            const Result<Property> read = findProperty(*facts.reduction, planned.name);
            ASSERT_TRUE(read) << facts.name << ": " << planned.name;
            EXPECT_EQ(read->dimension, planned.dimension) << facts.name << ": " << planned.name;
        }
    }
}

TEST(Methods, EveryParameterTakesWhatIsUsual)
{
    for (const Reduction *reduction : allReductions()) {
        for (const Parameter &parameter : reduction->parameters) {
            MethodSettings settings;
            EXPECT_TRUE(!parameter.choices.empty() || findUnit(parameter.unit)) << parameter.name;
            if (!parameter.usual.empty()) {
                EXPECT_TRUE(setTyped(settings, parameter, parameter.usual)) << parameter.name;
            }
            EXPECT_FALSE(setTyped(settings, parameter, "plenty")) << parameter.name;
            EXPECT_FALSE(setTyped(settings, parameter, "-1")) << parameter.name;
            if (parameter.choices.empty()) {
                EXPECT_EQ(setTyped(settings, parameter, "0").has_value(), parameter.mayBeZero)
                    << parameter.name;
            }
        }
    }
}

TEST(Methods, EveryMarkerDecidesAPropertyThatIsThere)
{
    for (const Reduction *reduction : allReductions()) {
        for (const MarkerKind &kind : reduction->markers) {
            EXPECT_TRUE(std::any_of(reduction->properties.begin(), reduction->properties.end(),
                                    [&](const Property &property) {
                                        return property.name.ends_with(kind.decides);
                                    }) ||
                        kind.mayBeNone)
                << reduction->command << " " << kind.name;
        }
    }
}

TEST(Methods, WhatIsRequiredIsNamedWhereItIsMissing)
{
    for (const Reduction *reduction : allReductions()) {
        RecordTable table;
        for (std::size_t c = 0; c < reduction->columns.size(); ++c) {
            table.columns.push_back({1.0, 2.0, 3.0});
            table.isCrosshead.push_back(false);
        }
        table.rows = 3;
        const Result<Reading> reading = reduction->read(table, {}, {}, inOrder);
        if (reduction->check({})) { // nothing is required beside the record
            EXPECT_TRUE(reading) << reduction->command;
            continue;
        }
        ASSERT_FALSE(reading) << reduction->command;
        EXPECT_NE(reading.error().message.find("\" is missing"), std::string::npos)
            << reduction->command << ": " << reading.error().message;
    }
}

TEST(RecordRows, ATableWithARowASpecimenIsReadInAnyManner)
{
    const char *texts[] = {
        "code,swing_deg,width_mm,thickness_mm,break\nA1,120,10.1,4.02,C\nA2,98.5,10,4,n\n",
        "Piece;Swing (deg);Width (mm);Thickness (mm);Break\nA1;120;10,1;4,02;C\nA2;98,5;10;4;N\n",
        "code\tswing\twidth\tthickness\tbreak\n\tdeg\tcm\tmm\t\nA1\t120\t1.01\t4.02\tC\nA2\t98.5\t1\t4\tN\n"};
    const Reduction *pendulum = reductionOf(Method::Impact);
    for (const char *text : texts) {
        const Result<RecordRows> rows = readRecordRows(text, pendulum->parameters);
        ASSERT_TRUE(rows) << text << rows.error().message;
        ASSERT_EQ(rows->rows.size(), 2U) << text;
        EXPECT_EQ(rows->rows[0].label, "A1");
        EXPECT_EQ(rows->rows[0].settings.number("swing"), 120.0) << text;
        EXPECT_NEAR(*rows->rows[0].settings.number("width"), 10.1, 1e-12) << text;
        EXPECT_NEAR(*rows->rows[0].settings.number("thickness"), 4.02, 1e-12) << text;
        EXPECT_EQ(rows->rows[1].settings.number("swing"), 98.5) << text;
        EXPECT_EQ(rows->rows[1].settings.word("break"), "N") << text;
    }
}

// No number stands in it, or no column is a quantity: the heading alone tells.
TEST(RecordRows, ATableOfWordsAndOneOfASingleColumnAreRead)
{
    const Reduction *flame = reductionOf(Method::Flame);
    for (const char *text :
         {"# seen outdoors\ncode;goes_out;drips\nA1;at once;none\nA2;burnt on;burning drips\n",
          "code,goes_out,drips\r\nA1,at once,none\r\nA2,burnt on,burning drips\r\n",
          "Code\tGoes out\tDrips\nA1\tAt once\tnone\nA2\tBurnt on\tBurning drips\n"}) {
        const Result<RecordRows> rows = readRecordRows(text, flame->parameters);
        ASSERT_TRUE(rows) << text << rows.error().message;
        ASSERT_EQ(rows->rows.size(), 2U) << text;
        EXPECT_EQ(rows->rows[0].settings.word("goes_out"), "at once");
        EXPECT_EQ(rows->rows[1].settings.word("drips"), "burning drips");
        EXPECT_EQ(rows->rows[1].label, "A2");
    }
    const Result<RecordRows> mass =
        readRecordRows("mass_g\n5,08\n", reductionOf(Method::VoidShare)->parameters);
    ASSERT_TRUE(mass) << mass.error().message;
    EXPECT_NEAR(*mass->rows.at(0).settings.number("mass"), 5.08e-3, 1e-12);
    const Result<RecordRows> bad =
        readRecordRows("goes_out,drips\nat once,none\nslowly,none\n", flame->parameters);
    ASSERT_FALSE(bad);
    EXPECT_EQ(bad.error().position, (TextPosition{3, 1}));
}

TEST(RecordRows, ABadCellIsToldWithItsPlace)
{
    const Reduction *pendulum = reductionOf(Method::Impact);
    const Result<RecordRows> bad =
        readRecordRows("code,swing_deg,break\nA1,120,C\nA2,95,X\n", pendulum->parameters);
    ASSERT_FALSE(bad);
    EXPECT_EQ(bad.error().position, (TextPosition{3, 3}));
    const Result<RecordRows> other = readRecordRows("a,b\n1,2\n", pendulum->parameters);
    ASSERT_FALSE(other);
    EXPECT_NE(other.error().message.find("swing"), std::string::npos);
}

} // namespace inchpeg
