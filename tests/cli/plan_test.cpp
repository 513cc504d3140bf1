// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/run_cli.h"

#include <cmath>
#include <fstream>
#include <sstream>

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::expectRefused;
using test::holds;
using test::runCli;

const std::string kSpec = R"({
  "question": "Does the chamber help?", "method": "layer adhesion", "material": "styrenic, lot 2",
  "orientation": "standing", "pieces_per_condition": 4,
  "factors": [{"name": "chamber mode", "levels": ["open", "heated"]}, {"name": "walls", "levels": [2, 4]}],
  "plan": {"locked": [{"name": "auxiliary fan", "value": "70 %"}], "test": {"rig": "hand gauge 500 N"},
           "print": {"rounds": 2, "seed": 5}, "dates": {"start": "2026-11-30"}}})";

class PlanCli : public testing::Test
{
protected:
    test::TemporaryFolder m_folder;
};

} // namespace

TEST_F(PlanCli, PowerKeepsToTheContract)
{
    // R 4.2.2: power.t.test(n = 6, delta = 10, sd = 5, strict = TRUE)$power is 0.8764177714.
    const json t = runCli({"stats", "power", "--test", "t", "--delta", "10", "--sd", "5", "--alpha", "0.05",
                           "--power", "0.8"})
                       .json();
    EXPECT_EQ(t["n_per_group"], 6);
    EXPECT_NEAR(t["power"].get<double>(), 0.8764177714, 1e-8);
    EXPECT_NEAR(t["noncentrality"].get<double>(), 2.0 * std::sqrt(3.0), 1e-12);
    // R 4.2.2: power.anova.test(groups = 4, n = 5, between.var = var(c(-1, 1, 0, 0)), within.var = 1)$power.
    const json f = runCli({"stats", "power", "--test", "anova", "--delta", "2", "--sd", "1", "--n", "5",
                           "--groups", "4"})
                       .json();
    EXPECT_EQ(f["n_per_group"], 5);
    EXPECT_NEAR(f["noncentrality"].get<double>(), 10.0, 1e-12);
    EXPECT_GT(f["power"].get<double>(), 0.5);
    for (const char *test : {"reference", "pairs", "trend"})
        EXPECT_EQ(runCli({"stats", "power", "--test", test, "--delta", "2", "--sd", "1", "--n", "5",
                          "--groups", "4"})
                      .status,
                  0);
}

TEST_F(PlanCli, PowerRefusesInWords)
{
    const auto power = [](std::vector<std::string> more) {
        std::vector<std::string> arguments{"stats", "power", "--test", "t", "--delta", "1"};
        arguments.insert(arguments.end(), more.begin(), more.end());
        return runCli(arguments);
    };
    expectRefused(power({"--sd", "1"}), "--power");
    expectRefused(power({"--sd", "1", "--n", "5", "--power", "0.8"}), "--power");
    expectRefused(power({"--sd", "0", "--n", "5"}), "--sd is 0");
    expectRefused(power({"--sd", "1", "--n", "2.5"}), "whole number");
    expectRefused(power({"--sd", "1", "--n", "5", "--groups", "3"}), "two groups");
    expectRefused(power({"--sd", "1", "--n", "1"}), "--n");
    expectRefused(runCli({"stats", "power", "--test", "z", "--delta", "1", "--sd", "1", "--n", "5"}),
                  "--test");
    expectRefused(runCli({"stats", "power", "--test", "t", "--sd", "1", "--n", "5"}), "--delta");
}

TEST_F(PlanCli, MakeWorksAPlanOut)
{
    const json plan = runCli({"plan", "make", "--spec", "-"}, kSpec).json();
    EXPECT_EQ(plan["conditions"].size(), 4U);
    EXPECT_EQ(plan["conditions"][0]["levels"]["walls"], "2");
    EXPECT_EQ(plan["conditions"][0]["reference"], true);
    EXPECT_EQ(plan["plates"].size(), 4U) << "two settings of the chamber in two rounds";
    EXPECT_EQ(plan["test_order"].size(), 16U);
    EXPECT_EQ(plan["rigs"][0]["fit"], "in range");
    EXPECT_TRUE(holds(plan["confounds"][0]["sentence"], "auxiliary fan")) << plan["confounds"].dump(1);
    EXPECT_EQ(plan["confounds"][0]["aliased"], true);
    EXPECT_EQ(plan["calendar"][0]["start"], "2026-11-30T09:00");
    EXPECT_FALSE(plan["cautions"].empty());
    EXPECT_EQ(runCli({"plan", "make", "--spec", "-"}, kSpec).out,
              runCli({"plan", "make", "--spec", "-"}, kSpec).out);
}

TEST_F(PlanCli, MadeIntoAProjectItIsShownTheSame)
{
    const std::string project = m_folder.path("p.inchpeg");
    ASSERT_EQ(runCli({"project", "new", project}).status, 0);
    const json made = runCli({"plan", "make", "--spec", "-", "--into", project}, kSpec).json();
    const json shown = runCli({"plan", "show", project}).json();
    EXPECT_EQ(shown["conditions"], made["conditions"]);
    EXPECT_EQ(shown["test_order"], made["test_order"]);
    EXPECT_EQ(shown["calendar"], made["calendar"]);
    EXPECT_TRUE(holds(shown["plates"][0]["pieces"][0]["label"].get<std::string>(), "-"));
    const std::string ics = m_folder.path("plan.ics");
    const json calendar = runCli({"plan", "calendar", project, "--to", ics}).json();
    EXPECT_EQ(calendar["entries"].size(), made["calendar"].size());
    std::ifstream file(ics, std::ios::binary);
    std::stringstream text;
    text << file.rdbuf();
    EXPECT_TRUE(holds(text.str(), "BEGIN:VEVENT\r\n"));
    expectRefused(runCli({"plan", "calendar", project, "--to", "/nowhere/p.ics"}), "cannot be written");
    expectRefused(runCli({"plan", "show", project, "--study", "another"}), "there is no study");
}

TEST_F(PlanCli, ADescriptionIsRefusedWithItsKey)
{
    const std::pair<const char *, const char *> cases[] = {
        {"{", "is no description"},
        {R"({"question":"q","factors":[]})", "factors"},
        {R"({"question":"q","factors":[{"name":"a"}]})", "levels"},
        {R"({"question":"q","method":"chewing","factors":[{"name":"a","levels":["x","y"]}]})", "method"},
        {R"({"question":"q","factors":[{"name":"speed","levels":["fast","slow"]}]})", "not a number"},
        {R"({"question":"q","factors":[{"name":"a","levels":["x","y"]}],"plan":{"print":{"rounds":0}}})",
         "rounds"},
        {R"({"question":"q","factors":[{"name":"a","levels":["x","y"]}],"pieces_per_condition":0})",
         "pieces"},
        {R"({"question":"q","factors":[{"name":"a","levels":["x","y"]}],"workshop":{"rigs":[{"name":"r"}]}})",
         "workshop"},
        {R"({"question":"q","factors":[{"name":"a","levels":["x","y"]}],"smallest_difference":0})",
         "smallest_difference"},
    };
    for (const auto &[spec, words] : cases)
        expectRefused(runCli({"plan", "make", "--spec", "-"}, spec), words);
    expectRefused(runCli({"plan", "make", "--spec", m_folder.path("missing.json")}), "missing.json");
    const std::string chosen = R"({"question":"q","factors":[{"name":"a"},{"name":"b"}],
        "conditions":[{"a":"x","b":"u"},{"a":"y","b":"v","orientation":"standing"}]})";
    EXPECT_EQ(runCli({"plan", "make", "--spec", "-"}, chosen).json()["conditions"][1]["orientation"],
              "standing");
}

TEST_F(PlanCli, SimulationDeadLoadAliasesAndLists)
{
    const json simulated =
        runCli({"plan", "simulate", "--groups", "6", "--n", "6", "--seed", "3", "--cv", "0.05"}).json();
    EXPECT_EQ(simulated["runs"], 1000);
    EXPECT_NEAR(simulated["share"].get<double>(), simulated["exact_power"].get<double>(), 0.06);
    expectRefused(runCli({"plan", "simulate", "--n", "1"}), "--n");
    const json load = runCli({"plan", "dead-load", "--stress", "1.8MPa", "--width", "1cm", "--thickness", "4",
                              "--span", "64"})
                          .json();
    EXPECT_NEAR(load["force_N"].get<double>(), 3.0, 1e-12);
    EXPECT_NEAR(load["standard_deflection_mm"].get<double>(), 0.341333333, 1e-8);
    const json back =
        runCli({"plan", "dead-load", "--mass", "1.25", "--width", "10", "--thickness", "4", "--span", "64"})
            .json();
    EXPECT_NEAR(back["stress_MPa"].get<double>(), 7.35499, 1e-5);
    expectRefused(runCli({"plan", "dead-load", "--width", "10", "--thickness", "4", "--span", "64"}),
                  "--stress");
    expectRefused(
        runCli({"plan", "dead-load", "--mass", "1", "--width", "0", "--thickness", "4", "--span", "64"}),
        "--width");
    const json aliases =
        runCli({"plan", "aliases", "--factors", "5", "--generator", "D=AB", "--generator", "E=AC"}).json();
    EXPECT_EQ(aliases["resolution"], 3);
    EXPECT_EQ(aliases["effects"][0]["aliases"], (json{"BD", "CE"}));
    expectRefused(runCli({"plan", "aliases", "--factors", "4", "--generator", "D=D"}), "no generator");
    EXPECT_GE(runCli({"plan", "shapes"}).json()["shapes"].size(), 12U);
    EXPECT_GE(runCli({"plan", "factors"}).json()["factors"].size(), 24U);
    EXPECT_GE(runCli({"plan", "methods"}).json()["methods"].size(), 14U);
}

TEST_F(PlanCli, MakeTakesWhatItIsTold)
{
    json spec = json::parse(kSpec);
    // 3 MPa of the 20 that are expected are 15 %.
    spec["plan"]["test"]["expected"] = 20.0;
    spec["plan"]["aim"]["absolute_difference"] = 3.0;
    const json plan = runCli({"plan", "make", "--spec", "-"}, spec.dump()).json();
    EXPECT_NEAR(plan["pieces"]["smallest_difference"].get<double>(), 0.15, 1e-12) << plan["pieces"].dump(1);
    spec["orientation"] = "upright";
    expectRefused(runCli({"plan", "make", "--spec", "-"}, spec.dump()), "flat or standing");
    spec.erase("orientation");
    EXPECT_EQ(runCli({"plan", "make", "--spec", "-"}, spec.dump()).json()["conditions"][0]["orientation"],
              "standing")
        << "layers are pulled apart across";
    spec["plan"]["aim"]["comparison"] = "trend";
    spec["factors"] = json::parse(R"([{"name": "chamber mode", "levels": ["open", "warm", "heated"]}])");
    const json named = runCli({"plan", "make", "--spec", "-"}, spec.dump()).json();
    EXPECT_TRUE(holds(named.dump(), "levels that are numbers")) << named["pieces"].dump(1);
}

TEST_F(PlanCli, TheRigsSourceIsInPlainWords)
{
    json spec = json::parse(kSpec);
    spec["method"] = "heat deflection";
    const std::string out = runCli({"plan", "make", "--spec", "-"}, spec.dump()).out;
    EXPECT_FALSE(holds(out, "\\u0002")) << "a mark that was not written out";
    EXPECT_TRUE(holds(out, "1.80 MPa in the outer fibre")) << out.substr(0, 2000);
}

} // namespace inchpeg
