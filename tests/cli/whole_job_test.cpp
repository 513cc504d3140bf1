// SPDX-License-Identifier: GPL-3.0-or-later
// The whole job by the command line: a study from what there is, records brought in, values given, the log,
// rules, what is read and what is said.
#include "run_cli.h"
#include "support/night.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <csignal>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <thread>

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::bytesOf;
using test::CliOutcome;
using test::expectRefused;
using test::holds;
using test::runCli;

/// A pull whose largest force is this, at a hundred samples.
std::string pull(double peak_N, const std::string &head = {})
{
    std::string text = head + "Time (s),Force (N),Extension (mm)\n";
    for (int i = 0; i <= 100; ++i) {
        const double force = i <= 95 ? peak_N * std::sin(1.5707963267948966 * i / 95.0) : 0.0;
        text += fmt::format("{:.1f},{:.4f},{:.3f}\n", 0.1 * i, force, 0.03 * i);
    }
    return text;
}

class WholeJob : public testing::Test
{
protected:
    [[nodiscard]] std::string path(const std::string &name) const { return m_folder.path(name); }

    std::string record(const std::string &name, double peak_N, const std::string &head = {})
    {
        std::filesystem::create_directories(std::filesystem::path(path(name)).parent_path());
        std::ofstream(path(name)) << pull(peak_N, head);
        return path(name);
    }

    /// A study of three temperatures with three pieces each, planned.
    std::string planned()
    {
        const std::string project = path("planned.inchpeg");
        EXPECT_EQ(runCli({"project", "new", project}).status, 0);
        const std::string spec = m_folder.write("spec.json", R"({"question": "Which temperature?",
            "tests": [{"method": "tension", "pieces_per_condition": 3}],
            "factors": [{"name": "nozzle temperature", "levels": ["230", "240", "250"]}]})");
        EXPECT_EQ(runCli({"plan", "make", "--spec", spec, "--into", project}).status, 0);
        return project;
    }

    static json wanted(const CliOutcome &outcome)
    {
        EXPECT_EQ(outcome.status, 0) << outcome.err;
        return outcome.json();
    }

    test::TemporaryFolder m_folder;
};

} // namespace

TEST_F(WholeJob, AFolderOfRecordsBecomesAStudyWithAVerdict)
{
    const double peaks[] = {1500.0, 1510.0, 1490.0, 1700.0, 1712.0, 1688.0};
    for (int i = 0; i < 6; ++i)
        record(fmt::format("in/{}C_{}.csv", i < 3 ? 230 : 250, i % 3 + 1), peaks[i]);
    const std::string project = path("from.inchpeg");
    const CliOutcome made =
        runCli({"project", "from", project, path("in"), "--question", "Which is stronger?", "--factor",
                "nozzle temperature:°C=1", "--test", "tension"});
    ASSERT_EQ(made.status, 0) << made.err;
    const json study = made.json();
    EXPECT_EQ(study["factors"][0]["name"], "nozzle temperature");
    EXPECT_EQ(study["factors"][0]["unit"], "°C");
    ASSERT_EQ(study["rails"].size(), 2U);
    EXPECT_EQ(study["rails"][0]["levels"]["nozzle temperature"], 230);
    EXPECT_EQ(study["rails"][1]["pieces"].size(), 3U);
    EXPECT_EQ(study["placed"].size(), 6U);
    EXPECT_EQ(study["placed"][0]["sha256"].get<std::string>().size(), 64U);

    const json verdict = wanted(runCli({"project", "verdict", project, "--study", "Which"}));
    EXPECT_EQ(verdict["property"], "peak_force") << "no section is known";
    ASSERT_EQ(verdict["rails"].size(), 2U);
    EXPECT_NEAR(verdict["rails"][0]["mean"].get<double>(), 1500.0, 1e-6);
    EXPECT_EQ(verdict["rails"][1]["beside"]["claim"], "above");
    EXPECT_NEAR(verdict["rails"][1]["beside"]["ratio"].get<double>(), 1700.0 / 1500.0, 1e-9);
    EXPECT_LT(verdict["rails"][1]["beside"]["p"].get<double>(), 0.001);
    EXPECT_TRUE(holds(verdict["headline"], "250 °C above 230 °C"));
    for (const json &answer : verdict["answers"])
        EXPECT_FALSE(answer["kind"].get<std::string>().empty());

    // With its sections it has strengths; the record is read anew.
    const std::string sizes =
        m_folder.write("sizes.csv", "piece,width_mm,thickness_mm\nA1,10,4\nA2,10,4\nA3,10,4\n"
                                    "B1,10,4\nB2,10,4\nB3,10,4\n");
    EXPECT_EQ(wanted(runCli({"project", "log", project, "--study", "1", "--data", sizes}))["changed"], 12);
    EXPECT_EQ(wanted(runCli({"project", "log", project, "--study", "1", "--data", sizes}))["same"], 12);
    const json strength =
        wanted(runCli({"project", "verdict", project, "--study", "1", "--property", "tensile_strength"}));
    EXPECT_NEAR(strength["rails"][0]["mean"].get<double>(), 1500.0 / 40.0, 1e-6);
    EXPECT_EQ(wanted(runCli({"project", "verify", project}))["ok"], true);
}

TEST_F(WholeJob, SizesInTheHeadsAreTaken)
{
    for (int i = 1; i <= 3; ++i) {
        record(fmt::format("in/A/run{}.csv", i), 1000.0 + i,
               fmt::format("Width: 10.{} mm\nThickness: 4 mm\n\n", i));
        record(fmt::format("in/B/run{}.csv", i), 1200.0 + i, "Breite;10,5;mm\nDicke;4;mm\n\n");
    }
    const std::string project = path("heads.inchpeg");
    const CliOutcome made = runCli({"project", "from", project, path("in"), "--question", "A or B?"});
    ASSERT_EQ(made.status, 0) << made.err;
    const json read = wanted(runCli({"project", "read", project, "--study", "1", "--piece", "A1"}));
    bool hasStrength = false;
    for (const json &value : read["pieces"][0]["readings"]) {
        if (value["property"] == "tensile_strength") {
            hasStrength = true;
            EXPECT_NEAR(value["value"].get<double>(), 1001.0 / (10.1 * 4.0), 1e-3);
            EXPECT_EQ(value["unit"], "MPa");
        }
    }
    EXPECT_TRUE(hasStrength);
}

// Records below each other were taken for a table of results, for the heading that comes again is a word.
TEST_F(WholeJob, RecordsBelowEachOtherAreASpecimenEach)
{
    for (const int level : {230, 250}) {
        std::filesystem::create_directories(path("below"));
        std::ofstream file(path(fmt::format("below/{}C.csv", level)));
        for (int piece = 0; piece < 3; ++piece)
            file << pull(1000.0 + level + piece);
    }
    const std::string project = path("below.inchpeg");
    const json made = wanted(
        runCli({"project", "from", project, path("below"), "--question", "Which?", "--test", "tension"}));
    ASSERT_EQ(made["rails"].size(), 2U) << made.dump(1);
    EXPECT_EQ(made["placed"].size(), 6U);
    const json verdict = wanted(runCli({"project", "verdict", project, "--study", "1"}));
    EXPECT_NEAR(verdict["rails"][0]["mean"].get<double>(), 1231.0, 1e-6);
    EXPECT_NEAR(verdict["rails"][1]["mean"].get<double>(), 1251.0, 1e-6);
    // One file alone is no table of results either.
    const CliOutcome one =
        runCli({"project", "from", path("one.inchpeg"), path("below/230C.csv"), "--question", "Which?"});
    EXPECT_EQ(one.status, 2);
    EXPECT_FALSE(one.json()["ask"].empty()) << one.out;
}

TEST_F(WholeJob, WhatCannotBeToldIsAskedAndNothingIsWritten)
{
    for (int a = 1; a <= 3; ++a) {
        for (int b = 1; b <= 3; ++b)
            record(fmt::format("in/{}_{}.csv", a, b), 1000.0 + 10 * a + b);
    }
    const std::string project = path("asked.inchpeg");
    const CliOutcome asked = runCli({"project", "from", project, path("in"), "--question", "?"});
    EXPECT_EQ(asked.status, 2);
    ASSERT_FALSE(asked.json()["ask"].empty());
    EXPECT_FALSE(asked.json()["ask"][0]["choices"].empty());
    EXPECT_FALSE(std::filesystem::exists(project));
}

TEST_F(WholeJob, ATableOfResultsBecomesAStudyOfGivenValues)
{
    const std::string table = m_folder.write(
        "results.csv", "Specimen;Material;Tensile strength [MPa];E-Modul (GPa);Broke at\n"
                       "P1;PETG;44,1;1,95;gauge\nP2;PETG;45,0;2,01;gauge\nP3;PETG;43,2;1,99;grips\n"
                       "Q1;PLA;58,2;3,05;gauge\nQ2;PLA;> 59,0;3,03;gauge\nQ3;PLA;57,5;3,10;gauge\n"
                       "Mean;;51;2,5;\n");
    const std::string project = path("given.inchpeg");
    const CliOutcome made = runCli({"project", "from", project, table, "--question", "Which material?"});
    ASSERT_EQ(made.status, 0) << made.err;
    const json study = made.json();
    EXPECT_EQ(study["taken"].size(), 12U);
    EXPECT_EQ(study["taken"][1]["property"], "tensile_modulus");
    EXPECT_NEAR(study["taken"][1]["value"].get<double>(), 1950.0, 1e-9);
    const json verdict = wanted(runCli({"project", "verdict", project, "--study", "1"}));
    EXPECT_EQ(verdict["rails"][0]["given"], 3);
    EXPECT_EQ(verdict["rails"][1]["bounds"], 1);
    EXPECT_NEAR(verdict["rails"][0]["mean"].get<double>(), (44.1 + 45.0 + 43.2) / 3.0, 1e-9);

    // They go through export and import, and a record takes a given value's place.
    ASSERT_EQ(runCli({"project", "export", project, "--to", path("out")}).status, 0);
    const std::string back = path("back.inchpeg");
    ASSERT_EQ(runCli({"project", "import", path("out"), "--to", back}).status, 0);
    EXPECT_EQ(wanted(runCli({"project", "verdict", back, "--study", "1"})), verdict);
    const std::string pulled = record("P1.csv", 1800.0, "Width: 10 mm\nThickness: 4 mm\n\n");
    ASSERT_EQ(runCli({"project", "log", back, "--study", "1", "--data", "-"},
                     "piece,width_mm,thickness_mm\nP1,10,4\n")
                  .status,
              0);
    const json brought =
        wanted(runCli({"project", "bring-in", back, pulled, "--study", "1", "--piece", "P1"}));
    ASSERT_EQ(brought["placed"].size(), 1U);
    EXPECT_TRUE(holds(brought["placed"][0]["beside"], "Strength was given as 44.1")) << brought;
    EXPECT_EQ(wanted(runCli({"project", "verdict", back, "--study", "1"}))["rails"][0]["given"], 2);
}

TEST_F(WholeJob, RecordsAreBroughtInByNameOrderAndHand)
{
    const std::string project = planned();
    record("in/x_A1.csv", 1500.0);
    record("in/x_B1.csv", 1600.0);
    record("in/odd.csv", 1650.0);
    std::ofstream(path("in/bad.csv")) << "Time (s),Force (N)\n1,2\n2,x\n3,4\n";
    const CliOutcome first = runCli({"project", "bring-in", project, path("in"), "--study", "Which"});
    EXPECT_EQ(first.status, 2) << "one is refused";
    const json result = first.json();
    EXPECT_EQ(result["placed"].size(), 2U);
    EXPECT_EQ(result["placed"][0]["how"], "by name");
    ASSERT_EQ(result["waiting"].size(), 1U);
    ASSERT_EQ(result["refused"].size(), 1U);
    EXPECT_EQ(result["refused"][0]["line"], 3);
    EXPECT_EQ(result["refused"][0]["column"], 2);

    std::filesystem::remove(path("in/bad.csv"));
    const json dry = wanted(
        runCli({"project", "bring-in", project, path("in"), "--study", "1", "--in-order", "--dry-run"}));
    EXPECT_EQ(dry["placed"].size(), 1U) << "two are in the project already";
    EXPECT_EQ(dry["waiting"].size(), 2U);
    EXPECT_EQ(wanted(runCli({"project", "read", project, "--study", "1"}))["pieces"].size(), 2U)
        << "nothing changed";
    const json input =
        wanted(runCli({"project", "bring-in", project, "-", "--study", "1", "--piece", "C3"}, pull(1700.0)));
    EXPECT_EQ(input["placed"][0]["piece"], "C3");
    expectRefused(
        runCli({"project", "bring-in", project, path("in/odd.csv"), "--study", "1", "--piece", "Z1"}),
        "there is no piece \"Z1\"");
    expectRefused(runCli({"project", "bring-in", project, path("nowhere"), "--study", "1"}), "no such file");
    expectRefused(
        runCli({"project", "bring-in", project, path("in"), "--study", "1", "--in-order", "--piece", "A1"}),
        "one of them is wanted");
}

TEST_F(WholeJob, ColumnsAndTablesAreSaid)
{
    const std::string project = planned();
    const std::string odd = m_folder.write("odd.csv", "a;b;c\n0;0;0\n1;500;0,1\n2;900;0,2\n3;10;0,3\n");
    const CliOutcome refused = runCli({"project", "bring-in", project, odd, "--study", "1", "--piece", "A1"});
    EXPECT_EQ(refused.status, 2);
    const json placed =
        wanted(runCli({"project", "bring-in", project, odd, "--study", "1", "--piece", "A1", "--map",
                       "b=force:N", "--map", "c=extension:mm", "--map", "a=time:s"}));
    EXPECT_EQ(placed["placed"].size(), 1U);
    const json read = wanted(runCli({"project", "read", project, "--study", "1", "--piece", "A1"}));
    EXPECT_NEAR(read["pieces"][0]["readings"].back()["value"].get<double>(), 900.0, 1e-9);
    expectRefused(
        runCli({"project", "bring-in", project, odd, "--study", "1", "--piece", "A2", "--map", "d=force:N"}),
        "has no column \"d\"");
}

TEST_F(WholeJob, ResultsGoToTheirPieces)
{
    const std::string project = planned();
    const std::string table = "code,Strength (MPa),Remark\nA1,44.5,fine\nA2,45.5,\nA3,n,\nZ9,1,\n";
    const CliOutcome taken = runCli({"project", "results", project, "--study", "1", "--data", "-"}, table);
    EXPECT_EQ(taken.status, 2) << "a cell is no number";
    const json result = taken.json();
    EXPECT_EQ(result["taken"].size(), 2U);
    EXPECT_EQ(result["taken"][0]["unit"], "MPa");
    EXPECT_TRUE(result["taken"][0]["bound"].is_null());
    EXPECT_EQ(result["refused"][0]["line"], 4);
    EXPECT_EQ(result["refused"][0]["column"], 2);
    EXPECT_EQ(result["waiting"].size(), 2U);
    const json read = wanted(runCli({"project", "read", project, "--study", "1"}));
    ASSERT_EQ(read["pieces"].size(), 2U);
    EXPECT_EQ(read["pieces"][0]["given"], true);
    expectRefused(runCli({"project", "results", project, "--study", "1", "--data", "-"},
                         "code,colour,windings\nA1,red,3\nA2,blue,4\n"),
                  "no column of the table is a property");
    expectRefused(
        runCli({"project", "results", project, "--study", "1", "--data", "-", "--map", "x=tensile_strength"},
               table),
        "there is no column \"x\"");
}

TEST_F(WholeJob, RulesAreSetAndToldAsTheyWereAndAre)
{
    const std::string project = planned();
    const json set =
        wanted(runCli({"project", "set", project, "confidence=0.99", "reference=240 °C", "looks=alike",
                       "smallest_difference=5 %", "speed=10 mm/min", "offset=0.5 %", "--study", "1"}));
    ASSERT_EQ(set["set"].size(), 6U);
    EXPECT_EQ(set["set"][0]["was"], "0.95");
    EXPECT_EQ(set["set"][0]["is"], "0.99");
    EXPECT_EQ(set["set"][1]["was"], "230 °C");
    EXPECT_EQ(set["set"][3]["is"], "5 %");
    expectRefused(runCli({"project", "set", project, "colour=red", "--study", "1"}),
                  "there is no key \"colour\"");
    expectRefused(runCli({"project", "set", project, "confidence=2", "--study", "1"}), "confidence");
    expectRefused(runCli({"project", "set", project, "reference=300 °C", "--study", "1"}), "there are");
    expectRefused(runCli({"project", "set", project, "--study", "1"}), "KEY=VALUE");
    const json again = wanted(runCli({"project", "set", project, "confidence=0.99", "--study", "1"}));
    EXPECT_EQ(again["set"][0]["was"], "0.99") << "a refused call changes nothing";
}

TEST_F(WholeJob, TheLogRefusesWithItsPlaceAndKeepsWhatStands)
{
    const std::string project = planned();
    ASSERT_EQ(runCli({"project", "log", project, "--study", "1", "--data", "-"}, "piece,width_mm\nA1,10.0\n")
                  .status,
              0);
    const CliOutcome outcome = runCli({"project", "log", project, "--study", "1", "--data", "-"},
                                      "piece,width_mm,mass_g\nA1,10.2,9.5\nZ9,1,2\nA2,x,9.4\n");
    EXPECT_EQ(outcome.status, 2);
    const json result = outcome.json();
    EXPECT_EQ(result["changed"], 2);
    ASSERT_EQ(result["refused"].size(), 3U);
    for (const json &refused : result["refused"])
        EXPECT_FALSE(refused["line"].is_null()) << refused;
    EXPECT_EQ(wanted(runCli({"project", "log", project, "--study", "1", "--data", "-", "--replace", "yes"},
                            "piece,width_mm\nA1,10.2\n"))["changed"],
              1);
}

TEST_F(WholeJob, AFolderIsWatchedUntilItIsStopped)
{
    const std::string project = planned();
    std::filesystem::create_directories(path("rig"));
    record("rig/x_B2.csv", 1500.0);
    const CliOutcome once =
        runCli({"project", "watch", project, "--study", "1", "--folder", path("rig"), "--once"});
    EXPECT_EQ(once.status, 0) << once.err;
    EXPECT_EQ(json::parse(once.out)["piece"], "B2");
    // The same bytes are never taken twice; a name that says nothing is for the next piece at the bench.
    record("rig/t0001.csv", 1510.0);
    const CliOutcome again =
        runCli({"project", "watch", project, "--study", "1", "--folder", path("rig"), "--once"});
    EXPECT_TRUE(holds(again.out, "\"how\":\"next at the bench\"")) << again.out;
    EXPECT_TRUE(holds(again.out, "already in this project")) << again.out;
    expectRefused(runCli({"project", "watch", project, "--study", "1", "--folder", path("none"), "--once"}),
                  "there is no such folder");
}

TEST_F(WholeJob, AKillLeavesAllOrNothing)
{
    const std::string fresh = planned();
    for (const char *code : {"A1", "A2", "A3", "B1", "B2", "B3", "C1", "C2", "C3"})
        record(fmt::format("in/x_{}.csv", code), 1000.0 + 10.0 * code[0] + code[1]);
    const int runs = test::isNight() ? 200 : 12;
    int none = 0;
    int all = 0;
    for (int i = 0; i < runs; ++i) {
        const std::string project = path("killed.inchpeg");
        std::filesystem::copy_file(fresh, project, std::filesystem::copy_options::overwrite_existing);
        for (const char *beside : {"-wal", "-shm", ".lock"})
            std::filesystem::remove(project + beside);
        // Dies after so many milliseconds, wherever it is then.
        const std::string command =
            fmt::format("timeout -s KILL {:.3f} '{}' project bring-in '{}' '{}' --study 1 > /dev/null 2>&1",
                        0.005 + 0.4 * i / runs, INCHPEG_CLI, project, path("in"));
        EXPECT_NE(std::system(command.c_str()), -1);
        ASSERT_EQ(wanted(runCli({"project", "verify", project}))["ok"], true);
        const std::size_t records =
            wanted(runCli({"project", "read", project, "--study", "1"}))["pieces"].size();
        EXPECT_TRUE(records == 0 || records == 9) << records;
        EXPECT_EQ(wanted(runCli({"project", "info", project}))["raw_files"], records);
        none += records == 0 ? 1 : 0;
        all += records == 9 ? 1 : 0;
    }
    std::printf("killed %d times: %d before, %d after\n", runs, none, all);
}

// The window's Compare is made of the same calls; here what leaves the program is held against each other.
TEST_F(WholeJob, VerdictReportAndOpenDataSayTheSameOfTheDemo)
{
    const std::string demo = path("demo.inchpeg");
    ASSERT_EQ(runCli({"project", "demo", demo}).status, 0);
    const json studies = wanted(runCli({"project", "info", demo}))["study_list"];
    std::size_t rails = 0;
    for (const json &study : studies) {
        const std::string id = std::to_string(study["id"].get<int>());
        const std::string open = path("open" + id);
        const std::string html = path("report" + id + ".html");
        ASSERT_EQ(runCli({"project", "open-data", demo, "--study", id, "--to", open}).status, 0);
        ASSERT_EQ(runCli({"project", "report", demo, "--study", id, "--to", html}).status, 0);
        const json verdict = wanted(runCli({"project", "verdict", demo, "--study", id}));
        const std::string table = bytesOf(open + "/verdicts.csv");
        for (const json &rail : verdict["rails"]) {
            if (rail["read"] == 0)
                continue;
            ++rails;
            std::string sentence = rail["sentence"].get<std::string>();
            for (std::size_t at = sentence.find('"'); at != std::string::npos;
                 at = sentence.find('"', at + 2))
                sentence.insert(at, 1, '"'); // as a table quotes it
            EXPECT_TRUE(holds(table, sentence)) << sentence;
            const json beside = rail["beside"].is_object() ? rail["beside"] : json::object();
            for (const json &number : {rail["mean"], beside.value("ratio", json())}) {
                if (number.is_number()) {
                    EXPECT_TRUE(holds(table, fmt::format(",{},", number.get<double>()))) << rail;
                }
            }
        }
        if (verdict["rails"][0]["read"] > 0) {
            std::string headline = verdict["headline"].get<std::string>();
            headline.resize(std::min(headline.size(), headline.find_first_of("\"'&<>")));
            EXPECT_TRUE(holds(bytesOf(html), headline)) << headline;
        }
    }
    EXPECT_GE(rails, 20U);
}

TEST_F(WholeJob, TheExamplesOfTheDocumentsRun)
{
    std::string sizes = "piece,width_mm,thickness_mm\n";
    for (const char *rail : {"A", "B", "C"}) {
        for (int i = 1; i <= 3; ++i) {
            const double peak = 1500.0 + 100.0 * (rail[0] - 'A') + 7.0 * i;
            record(fmt::format("pulled/monday_{}{}.csv", rail, i), peak);
            sizes += fmt::format("{}{},10,4\n", rail, i);
        }
    }
    std::ofstream(path("sizes.csv")) << sizes;
    const std::string examples = INCHPEG_SOURCE_DIR "/docs/examples/";
    const std::string project = path("example.inchpeg");
    const std::string environment = std::string("INCHPEG_CLI='") + INCHPEG_CLI + "' ";
    ASSERT_EQ(std::system((environment + "sh '" + examples + "plan_to_verdict.sh' '" + path("") + "' '" +
                           project + "' > '" + path("verdict.json") + "'")
                              .c_str()),
              0);
    const json verdict = json::parse(bytesOf(path("verdict.json")));
    EXPECT_TRUE(holds(verdict["headline"], "240 °C and 250 °C above 230 °C")) << verdict["headline"];
    EXPECT_NEAR(verdict["rails"][0]["mean"].get<double>(), 1514.0 / 40.0, 1e-6);
    ASSERT_EQ(runCli({"project", "open-data", project, "--study", "1", "--to", path("open")}).status, 0);
    ASSERT_EQ(std::system((environment + "python3 '" + examples + "verdict_table.py' '" + project + "' 1 '" +
                           path("open") + "' > '" + path("table") + "'")
                              .c_str()),
              0);
    EXPECT_TRUE(holds(bytesOf(path("table")), "above")) << bytesOf(path("table"));
}

TEST_F(WholeJob, TheManualAndTheCompletionKnowEveryCommand)
{
    const std::string manual = runCli({"--manual"}).out;
    const std::string completion = runCli({"--completion", "bash"}).out;
    for (const char *command : {"bring-in", "results", "from", "log", "set", "leave-out", "take-back", "read",
                                "verdict", "watch", "report", "open-data"}) {
        EXPECT_TRUE(holds(completion, command)) << command;
        EXPECT_FALSE(runCli({"project", command, "--help"}).out.empty());
    }
    EXPECT_TRUE(holds(manual, "project bring\\-in PROJECT PATH"));
    const std::string script = m_folder.write(
        "check.bash", "source '" + m_folder.write("c.bash", completion) +
                          "'\nCOMP_WORDS=(inchpeg-cli project ver)\nCOMP_CWORD=2\n_inchpeg_cli\n"
                          "echo ${COMPREPLY[@]} > '" +
                          path("reply") + "'\n");
    ASSERT_EQ(std::system(("bash '" + script + "'").c_str()), 0);
    EXPECT_EQ(bytesOf(path("reply")), "verify verdict\n");
    EXPECT_TRUE(holds(runCli({"--version"}).out, "project format"));
    // Eighty columns, whatever is told.
    for (const std::vector<std::string> &call : {std::vector<std::string>{"--help"},
                                                 {"project", "bring-in", "--help"},
                                                 {"stats", "power", "--help"}}) {
        std::istringstream lines(runCli(call).out);
        for (std::string line; std::getline(lines, line);) {
            const auto letters =
                std::count_if(line.begin(), line.end(), [](char c) { return (c & 0xC0) != 0x80; });
            EXPECT_LE(letters, 80) << line;
        }
    }
}

TEST_F(WholeJob, WhileAnotherHoldsTheProjectNothingIsWritten)
{
    const std::string project = planned();
    std::filesystem::create_directories(path("rig"));
    const std::string command = std::string("exec '") + INCHPEG_CLI + "' project watch '" + project +
                                "' --study 1 --folder '" + path("rig") + "' > '" + path("lines") +
                                "' 2>&1 & echo $! > '" + path("pid") + "'";
    ASSERT_EQ(std::system(command.c_str()), 0);
    std::ofstream(path("rig/x_A1.csv.part")) << "Time (s),Force (N)\n"; // a rig begins
    std::filesystem::rename(path("rig/x_A1.csv.part"), path("rig/hidden"));
    std::filesystem::remove(path("rig/hidden"));
    record("rig/x_A1.csv", 1500.0);
    for (int i = 0; i < 600 && bytesOf(path("lines")).find('\n') == std::string::npos; ++i)
        std::this_thread::sleep_for(std::chrono::milliseconds(100));
    EXPECT_TRUE(holds(bytesOf(path("lines")), "\"piece\":\"A1\"")) << bytesOf(path("lines"));
    const int pid = std::stoi(bytesOf(path("pid")));
    EXPECT_EQ(::kill(pid, SIGTERM), 0);
    for (int i = 0; i < 600 && ::kill(pid, 0) == 0; ++i)
        std::this_thread::sleep_for(std::chrono::milliseconds(100));
    EXPECT_NE(::kill(pid, 0), 0) << "it ends when it is told to";
}

} // namespace inchpeg
