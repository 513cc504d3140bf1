// SPDX-License-Identifier: GPL-3.0-or-later
// The calls beyond the contract, black-box: what they give stands in tests/core/stats/beyond_test.cpp, here
// that they read their columns, write their keys and refuse in words.
#include "cli/run_cli.h"

#include <cmath>

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::expectRefused;
using test::runCli;

class StatsBeyond : public testing::Test
{
protected:
    json result(std::vector<std::string> call, const std::string &table)
    {
        call.insert(call.begin(), "stats");
        if (!table.empty()) {
            call.emplace_back("--data");
            call.push_back(m_folder.write("table.csv", table));
        }
        const auto outcome = runCli(call);
        EXPECT_EQ(outcome.status, 0) << outcome.err;
        return outcome.status == 0 ? outcome.json() : json();
    }
    void refused(std::vector<std::string> call, const std::string &table, const char *part)
    {
        call.insert(call.begin(), "stats");
        call.emplace_back("--data");
        call.push_back(m_folder.write("bad.csv", table));
        expectRefused(runCli(call), part);
    }
    test::TemporaryFolder m_folder;
};

const std::string kBounded =
    "batch;N;at_limit\nA;40;0\nA;42;0\nA;44;0\nB;48;0\nB;50;1\nB;50;1\nC;50;1\nC;50;1\n";

} // namespace

TEST_F(StatsBeyond, GroupsWithBounds)
{
    const json found =
        result({"bounded", "--value", "N", "--by", "batch", "--censored", "at_limit"}, kBounded);
    ASSERT_EQ(found["groups"].size(), 3U);
    EXPECT_EQ(found["distribution"], "lognormal");
    EXPECT_TRUE(found["groups"][2]["location"].is_null()) << "bounds alone";
    ASSERT_EQ(found["pairs"].size(), 1U);
    EXPECT_GT(found["pairs"][0]["difference"].get<double>(), std::log(48.0 / 42.0));
    EXPECT_TRUE(found["likelihood_ratio"]["p"].is_number());
    refused({"bounded", "--value", "N", "--by", "batch", "--distribution", "cauchy"}, kBounded, "lognormal");
    refused({"bounded", "--value", "N", "--by", "batch"}, "batch,N\nA,-1\nA,2\n", "not above 0");
}

TEST_F(StatsBeyond, BendsAndOrders)
{
    const std::string infill =
        "x,y\n10,20.1\n20,24.2\n30,27.9\n40,32.1\n50,32.0\n60,32.2\n70,31.9\n80,32.1\n";
    const json bend = result({"bend", "--x", "x", "--y", "y"}, infill);
    EXPECT_NEAR(bend["at"].get<double>(), 40.0, 2.0);
    EXPECT_LT(bend["p_at_most"].get<double>(), 1e-3);
    EXPECT_NEAR(bend["slope_before"].get<double>(), 0.4, 0.03);
    refused({"bend", "--x", "x", "--y", "y"}, "x,y\n1,1\n2,2\n3,3\n", "four levels");
    const json ordered = result({"ordered", "--x", "x", "--y", "y"}, infill);
    EXPECT_GT(ordered["z"].get<double>(), 1.0);
    EXPECT_TRUE(result({"ordered", "--x", "x", "--y", "y"}, "x,y\n1,1\n1,2\n")["z"].is_null());
}

TEST_F(StatsBeyond, Blocks)
{
    const std::string plates = "m,plate,N\na,1,10\nb,1,12\na,2,20.1\nb,2,22\na,3,30\nb,3,31.9\n";
    const json found = result({"blocks", "--value", "N", "--by", "m", "--block", "plate"}, plates);
    EXPECT_NEAR(found["pairs"][0]["difference"].get<double>(), 5.8 / 3.0, 1e-9);
    EXPECT_EQ(found["pairs"][0]["df"], 2.0);
    EXPECT_GT(found["block_sd"].get<double>(), 5.0);
    refused({"blocks", "--value", "N", "--by", "m", "--block", "plate"}, "m,plate,N\na,1,10\nb,1,12\n",
            "two blocks");
}

TEST_F(StatsBeyond, JudgesAndChoices)
{
    const std::string grades = "code,person,grade\nA,x,1\nB,x,2\nC,x,3\nA,y,1\nB,y,3\nC,y,2\n";
    const json agreement =
        result({"agreement", "--value", "grade", "--by", "code", "--judge", "person"}, grades);
    EXPECT_EQ(agreement["judges"], 2);
    EXPECT_NEAR(agreement["W"].get<double>(), 0.75, 1e-12); // ranks 2, 5, 5: Σ(R - 4)² = 6, of 8
    refused({"agreement", "--value", "grade", "--by", "code", "--judge", "person"}, grades + "A,x,2\n",
            "twice");
    refused({"agreement", "--value", "grade", "--by", "code", "--judge", "person"},
            "code,person,grade\nA,x,1\nB,x,2\nA,y,1\n", "no grade");
    const json choices = result({"choices", "--better", "won", "--worse", "lost", "--times", "n"},
                                "won,lost,n\nA,B,2\nB,A,1\nB,C,2\nC,B,1\nA,C,1\nC,A,1\n");
    ASSERT_EQ(choices["groups"].size(), 3U);
    EXPECT_EQ(choices["groups"][0]["strength"], 0.0);
    EXPECT_LT(choices["groups"][1]["strength"].get<double>(), 0.0);
    refused({"choices", "--better", "won", "--worse", "lost", "--times", "n"}, "won,lost,n\nA,B,3\n",
            "never lost");
    refused({"choices", "--better", "won", "--worse", "lost", "--times", "n"}, "won,lost,n\nA,A,1\n",
            "against itself");
}

TEST_F(StatsBeyond, ManyAnswersStrayValuesAndLooks)
{
    const json adjusted = result({"adjust", "--value", "p"}, "p\n0.01\n0.02\n0.03\n");
    EXPECT_NEAR(adjusted["benjamini_hochberg"][0].get<double>(), 0.03, 1e-12);
    refused({"adjust", "--value", "p"}, "p\n1.5\n", "probability");
    const json robust =
        result({"robust", "--value", "v", "--by", "g"}, "g,v\na,1\na,2\na,3\nb,4\nb,5\nb,6\n");
    EXPECT_NEAR(robust["permutation"]["p"].get<double>(), 0.1, 1e-12); // 2 of 20 ways
    EXPECT_TRUE(robust["permutation"]["exact"].get<bool>());
    refused({"robust", "--value", "v", "--by", "g", "--trim", "0.6"}, "g,v\na,1\nb,2\n", "less than 0.5");
    const json looks = result({"looks", "--n", "12"}, "");
    ASSERT_EQ(looks["looks"].size(), 11U);
    EXPECT_LT(looks["looks"][0]["level"].get<double>(), looks["looks"][10]["level"].get<double>());
    expectRefused(runCli({"stats", "looks", "--n", "1"}), "2");
}

TEST_F(StatsBeyond, SeveralFactorsAndACovariate)
{
    std::string table = "a,b,mass,MPa\n";
    for (int i = 0; i < 16; ++i)
        table += std::string(i % 2 == 0 ? "x" : "y") + "," + (i / 2 % 2 == 0 ? "p" : "q") + "," +
                 std::to_string(4 + i % 5) + "," + std::to_string(30 + 2 * (i % 2) + i % 5 + i % 3) + "\n";
    const json found =
        result({"factors", "--value", "MPa", "--a", "a", "--b", "b", "--covariate", "mass"}, table);
    ASSERT_EQ(found["table"].size(), 5U);
    EXPECT_EQ(found["table"][0]["term"], "mass");
    EXPECT_EQ(found["table"][3]["term"], "a:b");
    EXPECT_EQ(found["means"].size(), 4U);
    EXPECT_EQ(found["differences"][0]["b"], "y");
    EXPECT_TRUE(found["slope"]["se"].is_number());
    refused({"factors", "--value", "MPa", "--a", "a", "--c", "b"}, table, "--b");
    refused({"factors", "--value", "MPa", "--a", "a"}, "a,MPa\nx,1\nx,2\n", "at least two");
    // All values equal: nothing to test, and no NaN.
    const json still = result({"factors", "--value", "v", "--a", "a"}, "a,v\nx,5\nx,5\ny,5\ny,5\n");
    EXPECT_TRUE(still["table"][0]["F"].is_null());
    EXPECT_TRUE(still["means"][0]["se"].is_null());
}

TEST_F(StatsBeyond, GaugeStudiesAndStudiesTogether)
{
    const std::string readings = "piece,person,mm\n1,a,10.01\n1,a,10.02\n1,b,10.03\n1,b,10.02\n"
                                 "2,a,10.21\n2,a,10.20\n2,b,10.22\n2,b,10.23\n";
    const json gauge = result({"gauge", "--value", "mm", "--part", "piece", "--person", "person"}, readings);
    EXPECT_EQ(gauge["parts"], 2);
    EXPECT_LT(gauge["gauge"].get<double>(), gauge["part"].get<double>());
    EXPECT_GE(gauge["categories"].get<int>(), 5);
    refused({"gauge", "--value", "mm", "--part", "piece", "--person", "person"}, readings + "2,b,10.2\n",
            "equally often");
    const json pooled =
        result({"pool", "--value", "d", "--se", "se"}, "d,se\n0.1,0.02\n0.14,0.03\n0.08,0.02\n");
    EXPECT_EQ(pooled["n"], 3);
    EXPECT_LT(pooled["next"][0].get<double>(), pooled["ci"][0].get<double>());
    refused({"pool", "--value", "d", "--se", "se"}, "d,se\n0.1,0.02\n0.14,0\n", "above 0");
    refused({"pool", "--value", "d", "--se", "se"}, "d,se\n0.1,0.02\n", "two or more");
}

TEST_F(StatsBeyond, ATrendWithBounds)
{
    const std::string table =
        "infill,force,limit\n10,200,0\n10,210,0\n50,380,0\n50,400,0\n90,500,1\n90,500,1\n";
    const json found =
        result({"bounded-trend", "--x", "infill", "--y", "force", "--censored", "limit"}, table);
    EXPECT_EQ(found["censored"], 2);
    EXPECT_GT(found["slope"].get<double>(), 0.0);
    const json plain = result({"bounded-trend", "--x", "infill", "--y", "force"}, table);
    EXPECT_GT(found["slope"].get<double>(), plain["slope"].get<double>()) << "bounds lie higher";
    refused({"bounded-trend", "--x", "infill", "--y", "force"}, "infill,force\n10,1\n10,2\n", "constant");
    refused({"bounded-trend", "--x", "infill", "--y", "force", "--censored", "limit"},
            "infill,force,limit\n10,1,2\n", "limit");
}

} // namespace inchpeg
