// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/factor.h"
#include "core/model/plan.h"
#include "core/model/polymer.h"
#include "core/model/study_test.h"
#include "core/model/workshop.h"

#include <gtest/gtest.h>

#include <set>

namespace inchpeg
{
namespace
{

Plan fullPlan()
{
    Plan plan;
    plan.design = DesignKind::Fraction;
    plan.generators = {"C=AB"};
    plan.locked = {{"walls", "4"}, {"own \"thing\"", "α, β"}};
    plan.aim = {Comparison::AllPairs, 0.99, 0.9, 0.061, 0.023, 4.5, 2, Spending::Pocock};
    plan.print.printer = "the blue one";
    plan.print.seed = 1234567890123ULL;
    plan.print.rounds = 3;
    plan.print.gap_mm = 11.5;
    plan.print.slicer[ConditionId{7}] = {3.3, std::nullopt};
    plan.print.printed = {{1, 2, "2026-11-25T08:00:00Z", {{PieceId{9}, 1.5, 2.5, 80.0, 10.0, 4}}}};
    plan.dates = {"2026-11-30", false, 88.0};
    plan.confirmed = {{"fragments", "someone", "2026-11-25T08:00:00Z"}};
    plan.addedLater = {PieceId{9}, PieceId{10}};
    plan.record = {{"2026-11-26T08:00:00Z", "someone", "2 pieces added"}};
    return plan;
}

TEST(PlanText, KeepsEverything)
{
    const Plan plan = fullPlan();
    const Result<Plan> back = planFromText(planText(plan));
    ASSERT_TRUE(back) << back.error().message;
    EXPECT_EQ(*back, plan);
    EXPECT_EQ(planText(*back), planText(plan));
}

TEST(PlanText, AnEmptyPlanIsAnEmptyObject)
{
    EXPECT_EQ(planText(Plan{}), "{}");
    EXPECT_EQ(*planFromText("{}"), Plan{});
}

TEST(PlanText, RefusesWithTheKey)
{
    const struct {
        const char *text;
        const char *words;
    } cases[] = {{"[]", "object"},
                 {"{", "no plan"},
                 {R"({"design":"best"})", "design"},
                 {R"({"aim":{"power":"high"}})", "power"},
                 {R"({"aim":{"spares":1.5}})", "spares"},
                 {R"({"aim":{"confidence":1.0}})", "confidence"},
                 {R"({"aim":{"comparison":"x"}})", "comparison"},
                 {R"({"print":{"rounds":0}})", "rounds"},
                 {R"({"print":{"gap_mm":1e999}})", "no plan"}};
    for (const auto &one : cases) {
        const Result<Plan> plan = planFromText(one.text);
        ASSERT_FALSE(plan) << one.text;
        EXPECT_NE(plan.error().message.find(one.words), std::string::npos) << plan.error().message;
    }
}

TEST(WorkshopText, KeepsEverything)
{
    Workshop workshop = usualWorkshop();
    workshop.spools = {{"polyester, lot 7", 1.27, 28.5, 812.0, 190.0, 65.0, 6.0, 70.0}};
    workshop.hours[5] = {600, 720};
    workshop.moneyUnit = "CHF";
    workshop.labPrefix = "K7M";
    workshop.labels = usualLabelStock().back();
    workshop.printers.front().heatedChamber = true;
    workshop.library = {"/home/fen/2025.inchpeg", "earlier work.inchpeg"};
    const Result<Workshop> back = workshopFromText(workshopText(workshop));
    ASSERT_TRUE(back) << back.error().message;
    EXPECT_EQ(*back, workshop);
}

TEST(WorkshopText, RefusesWhatCannotBe)
{
    const auto refusal = [](auto change) {
        Workshop workshop = usualWorkshop();
        change(workshop);
        const Status status = checkWorkshop(workshop);
        return status ? std::string() : status.error().message;
    };
    EXPECT_NE(refusal([](Workshop &w) { w.rigs[1].name = w.rigs[0].name; }).find("two rigs"),
              std::string::npos);
    EXPECT_NE(refusal([](Workshop &w) { w.rigs[0].range = 0.0; }).find("range"), std::string::npos);
    EXPECT_NE(refusal([](Workshop &w) { w.printers[0].bedWidth_mm = -1.0; }).find("above zero"),
              std::string::npos);
    EXPECT_NE(refusal([](Workshop &w) { w.hours.fill({0, 0}); }).find("working day"), std::string::npos);
    EXPECT_NE(refusal([](Workshop &w) { w.hours[0] = {600, 60}; }).find("begin before"), std::string::npos);
    EXPECT_NE(refusal([](Workshop &w) {
                  w.spools = {{"x", {}, 1.0, 100.0, 200.0, {}, {}, {}}};
              }).find("other"),
              std::string::npos);
    EXPECT_EQ(refusal([](Workshop &) {}), "");
    EXPECT_FALSE(workshopFromText("{\"rigs\":[{\"name\":\"a\",\"kind\":\"magic\",\"range\":1}]}"));
    EXPECT_FALSE(workshopFromText("nonsense"));
}

TEST(Library, FactorsAndMethodsHaveNamesOfTheirOwn)
{
    std::set<std::string_view> names;
    for (const FactorKind &kind : factorLibrary()) {
        EXPECT_TRUE(names.insert(kind.name).second) << kind.name;
        EXPECT_EQ(changedPerFrom(changedPerName(kind.changedPer)), kind.changedPer);
    }
    EXPECT_GE(names.size(), 24U);
    for (const MethodFacts &facts : allMethods()) {
        EXPECT_EQ(methodFrom(facts.name), facts.method);
        EXPECT_NE(findShape(facts.shape), nullptr) << facts.name;
        EXPECT_GT(facts.usualCv, 0.0);
        EXPECT_FALSE(facts.properties.empty());
    }
    EXPECT_FALSE(methodFrom("chewing"));
}

TEST(Library, PolymersAreFoundInMaterialNames)
{
    EXPECT_EQ(polymerIn("Glycol-modified polyester, lot Heather 7").facts->name, "glycol-modified polyester");
    EXPECT_EQ(polymerIn("glycol polyester").facts->name, "glycol-modified polyester");
    EXPECT_EQ(polymerIn("filled polyamide 6").facts->name, "filled polyamide");
    EXPECT_EQ(polymerIn("polyamide").facts->name, "polyamide");
    EXPECT_EQ(polymerIn("weather-proof styrenic").facts->name, "weather-proof styrenic");
    EXPECT_FALSE(polymerIn("unobtainium").isKnown);
    EXPECT_FALSE(polymerIn("").isKnown);
}

} // namespace
} // namespace inchpeg
