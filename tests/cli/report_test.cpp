// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/run_cli.h"

#include <filesystem>

namespace inchpeg
{

namespace
{

using test::bytesOf;
using test::expectRefused;
using test::holds;
using test::runCli;

class ReportCalls : public testing::Test
{
protected:
    test::TemporaryFolder m_folder;
    std::string m_project = m_folder.path("demo.inchpeg");

    void SetUp() override { ASSERT_EQ(runCli({"project", "demo", m_project}).status, 0); }
};

} // namespace

TEST_F(ReportCalls, AStudyByItsNameInEachFormat)
{
    const std::string starts[][2] = {{"pdf", "%PDF-1."}, {"html", "<!DOCTYPE html>"}, {"xlsx", "PK\x03\x04"}};
    for (const auto &[ending, start] : starts) {
        const std::string to = m_folder.path("report." + ending);
        const auto outcome =
            runCli({"project", "report", m_project, "--study", "Do hotter layers", "--to", to});
        ASSERT_EQ(outcome.status, 0) << outcome.err;
        EXPECT_EQ(outcome.err, "");
        EXPECT_EQ(outcome.json()["file"], to);
        EXPECT_TRUE(bytesOf(to).starts_with(start)) << ending;
        EXPECT_FALSE(std::filesystem::exists(to + ".part"));
    }
    EXPECT_TRUE(holds(bytesOf(m_folder.path("report.html")), "Holds 18 % more than 230 °C"));
}

TEST_F(ReportCalls, WhatCannotBeIsRefusedInWords)
{
    expectRefused(runCli({"project", "report", m_project, "--study", "moon", "--to", m_folder.path("r.pdf")}),
                  "there is no study");
    expectRefused(runCli({"project", "report", m_project, "--study", "1", "--to", m_folder.path("r.doc")}),
                  ".pdf, .html or .xlsx");
    expectRefused(
        runCli({"project", "report", m_project, "--study", "1", "--to", m_folder.path("none/r.pdf")}),
        "cannot be written");
    expectRefused(
        runCli({"project", "report", m_project, "--study", "1", "--to", m_folder.path("none/r.xlsx")}),
        "cannot be written");
    expectRefused(runCli({"project", "report", m_project, "--study", "1", "--to", m_folder.path("r.pdf"),
                          "--paper", "A3"}),
                  "A4 or Letter");
    expectRefused(runCli({"project", "report", m_project, "--study", "1"}), "--to");
    expectRefused(runCli({"project", "card", m_project, "--study", "1", "--to", m_folder.path("c.gif")}),
                  ".png or .svg");
    expectRefused(runCli({"project", "card", m_project, "--study", "1", "--property", "colour", "--to",
                          m_folder.path("c.png")}),
                  "tensile_strength");
}

TEST_F(ReportCalls, CardsAndOpenData)
{
    ASSERT_EQ(runCli({"project", "card", m_project, "--study", "1", "--to", m_folder.path("c.png")}).status,
              0);
    EXPECT_TRUE(bytesOf(m_folder.path("c.png")).starts_with("\x89PNG"));
    ASSERT_EQ(runCli({"project", "card", m_project, "--study", "1", "--property", "peak_force", "--to",
                      m_folder.path("c.svg")})
                  .status,
              0);
    EXPECT_TRUE(holds(bytesOf(m_folder.path("c.svg")), "Breaking force in N"));
    const auto outcome =
        runCli({"project", "open-data", m_project, "--study", "1", "--to", m_folder.path("data")});
    ASSERT_EQ(outcome.status, 0) << outcome.err;
    EXPECT_TRUE(std::filesystem::exists(m_folder.path("data/datapackage.json")));
    EXPECT_TRUE(std::filesystem::exists(m_folder.path("data/recompute.R")));
}

TEST_F(ReportCalls, ADecisionIsReportedToo)
{
    const std::string needs = m_folder.write("needs.json", R"({"part":"lid latch","needs":[
        {"need":"holds the lid","kind":"stress","limit":"12 MPa"},{"need":"light","kind":"mass","limit":"6 g","must":false}]})");
    const std::string to = m_folder.path("decision.html");
    const auto outcome = runCli({"decide", "--project", m_project, "--needs", needs, "--to", to});
    ASSERT_EQ(outcome.status, 0) << outcome.err;
    const std::string html = bytesOf(to);
    EXPECT_TRUE(holds(html, "<h1>lid latch</h1>"));
    const std::string first = outcome.json()["candidates"][0]["candidate"];
    EXPECT_TRUE(holds(html, first));
    const std::string kind = outcome.json()["candidates"][0]["gates"][0]["evidence"]["kind"];
    EXPECT_TRUE(holds(html, kind));
}

} // namespace inchpeg
