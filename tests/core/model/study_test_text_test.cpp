// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/former_tests.h"
#include "core/model/study_test.h"

#include <gtest/gtest.h>

namespace inchpeg
{
namespace
{

TestSetup fullSetup()
{
    TestSetup setup;
    setup.property = "tensile_modulus";
    setup.shape = *findShape("notched-80x10x4");
    setup.rig = "frame \"two\"";
    setup.expected = 0.1 + 0.2; // has no short decimal form
    setup.stress_MPa = 0.45;
    setup.fixture = Fixture::Cantilever;
    setup.freeLength_mm = 45.5;
    setup.speed_mm_per_min = 50.0;
    setup.settings = {{{"gauge_length", 1.0 / 3.0}}, {{"toe", "off"}}};
    return setup;
}

TEST(TestsText, KeepsEverythingInOrder)
{
    const std::vector<StudyTest> tests = {{Method::Tension, 6, fullSetup()}, {Method::Creep, 0, {}}};
    const Result<std::vector<StudyTest>> back = testsFromText(testsText(tests));
    ASSERT_TRUE(back) << back.error().message;
    EXPECT_EQ(*back, tests);
    EXPECT_EQ(testsText(*back), testsText(tests));
    EXPECT_EQ(testSetupText(TestSetup{}), "{}");
    EXPECT_EQ(*testSetupFromText(testSetupText(fullSetup())), fullSetup());
}

TEST(TestsText, RefusesWithTheKey)
{
    const struct {
        const char *text;
        const char *words;
    } cases[] = {{"[]", "at least one"},
                 {"{}", "list"},
                 {R"([{"method":"chewing"}])", "chewing"},
                 {R"([{"pieces_per_condition":3}])", "method"},
                 {R"([{"method":"creep","pieces_per_condition":201}])", "pieces_per_condition"},
                 {R"([{"method":"creep","pieces_per_condition":1.5}])", "pieces_per_condition"},
                 {R"([{"method":"creep"},{"method":"creep"}])", "twice"},
                 {R"([{"method":"creep","fixture":"glued"}])", "fixture"},
                 {R"([{"method":"creep","shape":{"family":"star"}}])", "family"},
                 {R"([{"method":"creep","shape":{"family":"bar","name":"b","length_mm":-1}}])", "length"}};
    for (const auto &one : cases) {
        const Result<std::vector<StudyTest>> tests = testsFromText(one.text);
        ASSERT_FALSE(tests) << one.text;
        EXPECT_NE(tests.error().message.find(one.words), std::string::npos) << tests.error().message;
    }
}

TEST(FormerTests, EachTestTakesOverTheRulesThatItHas)
{
    const FormerRules rules{millimetres(25.0), {}, newtons(500.0), false, 0.001, 0.0025, 0.002, 0.5};
    const Result<std::vector<StudyTest>> tests = testsOfFormerPlan(
        Method::Tension, 6,
        R"({"test":{"rig":"frame"},"further_tests":[{"method":"bending","pieces_per_condition":3},)"
        R"({"method":"impact","pieces_per_condition":4,"settings":{"mass":0.5}}]})",
        rules);
    ASSERT_TRUE(tests) << tests.error().message;
    ASSERT_EQ(tests->size(), 3U);
    EXPECT_EQ(tests->at(0).piecesPerCondition, 6);
    EXPECT_EQ(tests->at(0).setup.rig, "frame");
    const MethodSettings tension{{{"gauge_length", 25.0}, {"capacity", 500.0}, {"modulus_from", 0.001}},
                                 {{"toe", "off"}}};
    EXPECT_EQ(tests->at(0).setup.settings, tension) << "what is usual is not said";
    const MethodSettings bending{{{"capacity", 500.0}, {"modulus_from", 0.001}}, {{"toe", "off"}}};
    EXPECT_EQ(tests->at(1).setup.settings, bending) << "a bar has no gauge length";
    const MethodSettings impact{{{"mass", 0.5}}, {}};
    EXPECT_EQ(tests->at(2).setup.settings, impact);
    EXPECT_EQ(tests->at(2).piecesPerCondition, 4);
    EXPECT_FALSE(testsOfFormerPlan(Method::Creep, 2, R"({"further_tests":[{"method":"creep"}]})"));
    EXPECT_FALSE(testsOfFormerPlan(Method::Creep, 2, "{"));
}

} // namespace
} // namespace inchpeg
