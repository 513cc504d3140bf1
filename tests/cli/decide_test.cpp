// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/run_cli.h"

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::expectRefused;
using test::runCli;

class DecideCalls : public testing::Test
{
protected:
    test::TemporaryFolder m_folder;
    std::string m_project = m_folder.path("demo.inchpeg");

    void SetUp() override { ASSERT_EQ(runCli({"project", "demo", m_project}).status, 0); }

    std::string needs(const char *text) { return m_folder.write("needs.json", text); }
};

} // namespace

// A holder of two shafts: what passes, what fails, and by how much, against the values that the demo's
// records give.
TEST_F(DecideCalls, TheContractsKeysAreThere)
{
    const std::string file = needs(R"({"part":"holder","needs":[
        {"need":"distance","kind":"distance","limit":0.4},
        {"need":"warm","kind":"heat","limit":"65 °C","load":"0.45 MPa"},
        {"need":"load","kind":"stress","limit":"12 MPa","factor":2},
        {"need":"light","kind":"mass","limit":"6 g","must":false}],
        "candidates":["glycol-modified polyester","low-heat polyester","styrenic","polyamide"],
        "materials":["polycarbonate"]})");
    const auto outcome = runCli({"decide", "--project", m_project, "--needs", file});
    ASSERT_EQ(outcome.status, 0) << outcome.err;
    const json result = outcome.json();
    ASSERT_EQ(result["candidates"].size(), 4U) << "a list of candidates leaves out the others";
    int rank = 0;
    for (const json &candidate : result["candidates"]) {
        EXPECT_EQ(candidate["rank"], ++rank);
        ASSERT_EQ(candidate["gates"].size(), 4U);
        bool passes = true;
        for (const json &gate : candidate["gates"]) {
            for (const char *key : {"need", "must", "state", "value", "unit", "limit", "margin", "evidence"})
                EXPECT_TRUE(gate.contains(key)) << key;
            for (const char *key : {"kind", "study", "method", "n", "ci", "source"})
                EXPECT_TRUE(gate["evidence"].contains(key)) << key;
            passes = passes && (!gate["must"].get<bool>() || gate["state"] == "passes");
        }
        EXPECT_EQ(candidate["passes_all"], passes);
    }
    const json &first = result["candidates"][0];
    EXPECT_EQ(first["candidate"], "glycol-modified polyester");
    EXPECT_EQ(first["passes_all"], true);
    EXPECT_EQ(first["gates"][2]["limit"], 24.0) << "limit times factor, in MPa";
    EXPECT_EQ(first["gates"][2]["unit"], "MPa");
    EXPECT_EQ(first["gates"][2]["evidence"]["kind"], "measured");
    EXPECT_EQ(first["gates"][2]["evidence"]["n"], 5);
    // By what decides: what nine in ten pieces, and what the mean, surely reach.
    EXPECT_NEAR(first["gates"][2]["margin"].get<double>(),
                first["gates"][2]["evidence"]["sure"].get<double>() / 24.0 - 1.0, 1e-12);
    EXPECT_NEAR(first["gates"][1]["margin"].get<double>(),
                first["gates"][1]["evidence"]["sure"].get<double>() - 65.0, 1e-9);
    EXPECT_EQ(result["candidates"][3]["gates"][0]["state"], "fails");
    // The same each time.
    EXPECT_EQ(runCli({"decide", "--project", m_project, "--needs", file}).out, outcome.out);
}

TEST_F(DecideCalls, WhatIsNotKnownIsToBeSettled)
{
    const std::string file = needs(R"({"needs":[{"need":"knock","kind":"blow","limit":1.5},
        {"need":"sun","kind":"weather","limit":4}],"materials":["weather-proof styrenic"],
        "candidates":["weather-proof styrenic"]})");
    const json result = runCli({"decide", "--project", m_project, "--needs", file}).json();
    ASSERT_EQ(result["candidates"].size(), 1U);
    EXPECT_EQ(result["candidates"][0]["gates"][0]["evidence"]["kind"], "usual");
    ASSERT_EQ(result["settle"].size(), 1U) << "weather is settled by no test";
    EXPECT_EQ(result["settle"][0]["test"], "impact");
    EXPECT_GE(result["settle"][0]["pieces"].get<int>(), 3);
    EXPECT_EQ(result["settle"][0]["need"], "knock");
}

TEST_F(DecideCalls, RefusesWhatItCannotUse)
{
    expectRefused(runCli({"decide", "--needs", "x"}), "--project");
    expectRefused(runCli({"decide", "--project", m_project, "--needs", m_folder.path("none.json")}),
                  "no such file");
    expectRefused(runCli({"decide", "--project", m_project, "--needs", needs(R"({"needs":[]})")}),
                  "at least one need");
    expectRefused(runCli({"decide", "--project", m_project, "--needs",
                          needs(R"({"needs":[{"kind":"heat","limit":"65 MPa"}]})")}),
                  "need 1");
    expectRefused(runCli({"decide", "--project", m_project, "--needs",
                          needs(R"({"needs":[{"kind":"heat","limit":65}],"candidates":["oak"]})")}),
                  "there is no candidate");
    expectRefused(runCli({"decide", "--project", m_folder.path("none.inchpeg"), "--needs",
                          needs(R"({"needs":[{"kind":"heat","limit":65}]})")}),
                  "none.inchpeg");
    EXPECT_EQ(runCli({"decide", "--help"}).status, 0);
}

} // namespace inchpeg
