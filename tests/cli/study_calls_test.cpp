// SPDX-License-Identifier: GPL-3.0-or-later
// What a page of the window has a place of its own for, by the command line: the drawn order, plates, pieces
// once more, photos, the workshop, needs, and a study as a whole.
#include "run_cli.h"
#include "store/kept_readings.h"
#include "store/project_lock.h"

#include <algorithm>
#include <fstream>

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::expectRefused;
using test::holds;
using test::runCli;

class StudyCalls : public testing::Test
{
protected:
    void SetUp() override
    {
        const std::string spec = m_folder.write("spec.json", R"({"question": "Which temperature?",
            "tests": [{"method": "tension", "pieces_per_condition": 2}], "material": "glycol-modified polyester, lot 4",
            "factors": [{"name": "nozzle temperature", "levels": ["230", "250"]}]})");
        ASSERT_EQ(runCli({"project", "new", m_project}).status, 0);
        ASSERT_EQ(runCli({"plan", "make", "--spec", spec, "--into", m_project}).status, 0);
    }

    json done(std::vector<std::string> arguments, const std::string &input = {})
    {
        const test::CliOutcome outcome = runCli(arguments, input);
        EXPECT_EQ(outcome.status, 0) << outcome.err;
        return outcome.json();
    }
    [[nodiscard]] json study() { return done({"project", "study", m_project, "--study", "Which"}); }
    std::string changed(const json &study) { return m_folder.write("study.json", study.dump()); }

    static json &pieceOf(json &study, const std::string &code)
    {
        for (json &piece : study["pieces"]) {
            if (piece["code"] == code)
                return piece;
        }
        throw std::invalid_argument(code);
    }

    test::TemporaryFolder m_folder;
    const std::string m_project = m_folder.path("study.inchpeg");
};

} // namespace

TEST_F(StudyCalls, TheDrawnOrderIsToldAndDrawnAgain)
{
    const json before = done({"project", "order", m_project, "--study", "1"});
    EXPECT_EQ(before["next"].size(), 4U);
    ASSERT_FALSE(before["plates"].empty());
    EXPECT_EQ(before["plates"][0]["printed"], false);
    const json again = done({"project", "order", m_project, "--study", "1", "--draw-again", "--by", "K."});
    EXPECT_EQ(again["seed"], before["seed"].get<int>() + 1);
    EXPECT_EQ(done({"project", "order", m_project, "--study", "1"}), again);
}

TEST_F(StudyCalls, APlateIsPrintedAndAPieceOfItOnceMore)
{
    expectRefused(runCli({"project", "printed", m_project, "--study", "1", "--plate", "90"}), "90");
    expectRefused(runCli({"project", "printed", m_project, "--study", "1", "--plate", "1.5"}), "1.5");
    const json plates = done({"project", "order", m_project, "--study", "1"})["plates"];
    const std::string piece = plates[0]["pieces"][0];
    const std::vector<std::string> again = {"project",
                                            "again",
                                            m_project,
                                            "--study",
                                            "1",
                                            "--piece",
                                            piece,
                                            "--what",
                                            "print",
                                            "--reason",
                                            "meant solid,  was hollow"};
    expectRefused(runCli(again), "no printed plate");
    EXPECT_EQ(done({"project", "printed", m_project, "--study", "1", "--plate", "1", "--dry-run"})["printed"],
              json::parse("[1]"));
    EXPECT_EQ(done({"project", "order", m_project, "--study", "1"})["plates"], plates);
    EXPECT_EQ(done({"project", "printed", m_project, "--study", "1", "--plate", "1"})["printed"],
              json::parse("[1]"));
    EXPECT_EQ(done(again)["again"], "print");
    const json after = done({"project", "order", m_project, "--study", "1"})["plates"];
    const auto times = std::count_if(after.begin(), after.end(), [&](const json &plate) {
        return plate["pieces"].dump().find('"' + piece + '"') != std::string::npos;
    });
    EXPECT_EQ(times, 2) << after.dump(1);
    json whole = study();
    EXPECT_EQ(pieceOf(whole, piece)["log"]["failures"][0]["what"], "meant solid, was hollow");
}

TEST_F(StudyCalls, APieceIsTestedOnceMore)
{
    std::string record = "Time (s),Force (N),Extension (mm)\n";
    for (int i = 0; i <= 40; ++i)
        record +=
            std::to_string(i) + "," + std::to_string(i < 39 ? 20 * i : 5) + "," + std::to_string(i) + "\n";
    const std::vector<std::string> again = {"project", "again",  m_project, "--study",  "1",      "--piece",
                                            "A1",      "--what", "test",    "--reason", "slipped"};
    expectRefused(runCli(again), "no record");
    done({"project", "bring-in", m_project, m_folder.write("A1.csv", record), "--study", "1"});
    expectRefused(runCli({"project", "again", m_project, "--study", "1", "--piece", "A1", "--what", "test",
                          "--reason", "  "}),
                  "say why");
    done(again);
    json whole = study();
    EXPECT_FALSE(pieceOf(whole, "A1").contains("recording"));
    EXPECT_TRUE(holds(pieceOf(whole, "A1")["note"].get<std::string>(), "tested again: slipped"));
    expectRefused(runCli({"project", "again", m_project, "--study", "1", "--piece", "A1", "--what", "weigh",
                          "--reason", "slipped"}),
                  "test or print");
}

TEST_F(StudyCalls, PhotosAreKeptWithTheirPiece)
{
    const std::string photo = m_folder.write("break.PNG", "\x89PNG made up");
    expectRefused(runCli({"project", "photo", m_project, m_folder.write("notes.txt", "x"), "--study", "1",
                          "--piece", "A1"}),
                  "no picture");
    expectRefused(runCli({"project", "photo", m_project, photo, "--study", "1", "--piece", "Z9"}), "Z9");
    EXPECT_EQ(done({"project", "info", m_project})["raw_files"], 0) << "nothing of a refused call is kept";
    const json added = done({"project", "photo", m_project, photo, "--study", "1", "--piece", "A1"});
    ASSERT_EQ(added["added"].size(), 1U);
    json whole = study();
    EXPECT_EQ(pieceOf(whole, "A1")["photos"][0]["caption"], "break.PNG");
    EXPECT_EQ(done({"project", "info", m_project})["raw_files"], 1);
    EXPECT_EQ(done({"project", "verify", m_project})["ok"], true);
}

TEST_F(StudyCalls, ARailIsKnownFromASummary)
{
    std::string table = "piece;Tensile strength (MPa)\n";
    for (const char *row : {"A1;44,1", "A2;45,3"})
        table += std::string(row) + "\n";
    done({"project", "results", m_project, "--study", "1", "--data", "-"}, table);
    const std::vector<std::string> told = {
        "project",    "summary",          m_project,      "--study",  "1",    "--rail", "250 °C",
        "--property", "tensile_strength", "--mean",       "70,5 MPa", "--sd", "1.5",    "--pieces",
        "8",          "--source",         "paper of 2024"};
    expectRefused(runCli({told.begin(), told.end() - 2}), "where it comes from");
    std::vector<std::string> tried = told;
    tried.emplace_back("--dry-run");
    EXPECT_EQ(done(tried)["summaries"].size(), 1U);
    EXPECT_TRUE(study()["conditions"][1].value("summaries", json::array()).empty());
    EXPECT_EQ(done(told)["summaries"][0]["mean"], 70.5);
    const json verdict =
        done({"project", "verdict", m_project, "--study", "1", "--property", "tensile_strength"});
    const json &rail = verdict["rails"][1];
    EXPECT_EQ(rail["read"], 0);
    EXPECT_EQ(rail["mean"], 70.5);
    EXPECT_EQ(rail["summary"]["pieces"], 8);
    EXPECT_EQ(rail["beside"]["claim"], "above");
    EXPECT_TRUE(holds(rail["sentence"].get<std::string>(), "From a summary: paper of 2024."));
    // Out and in again; a report and open data of it.
    done({"project", "export", m_project, "--to", m_folder.path("out")});
    done({"project", "import", m_folder.path("out"), "--to", m_folder.path("again.inchpeg")});
    done({"project", "export", m_folder.path("again.inchpeg"), "--to", m_folder.path("out2")});
    EXPECT_EQ(test::bytesOf(m_folder.path("out/project.json")),
              test::bytesOf(m_folder.path("out2/project.json")));
    done({"project", "report", m_project, "--study", "1", "--to", m_folder.path("report.html")});
    EXPECT_TRUE(holds(test::bytesOf(m_folder.path("report.html")), "summary of 8"));
    done({"project", "open-data", m_project, "--study", "1", "--to", m_folder.path("open")});
    EXPECT_TRUE(holds(test::bytesOf(m_folder.path("open/verdicts.csv")), "paper of 2024"));
    std::vector<std::string> away(told.begin(), told.begin() + 9);
    away.emplace_back("--take-away");
    EXPECT_TRUE(done(away)["summaries"].empty());
    expectRefused(runCli(away), "no summary");
}

TEST_F(StudyCalls, TheWorkshopAndTheNeedsGoOutAndComeBack)
{
    json workshop = done({"project", "workshop", m_project});
    workshop["printers"].push_back(
        {{"name", "second printer"}, {"bed_width_mm", 256.0}, {"bed_depth_mm", 256.0}});
    const std::string file = m_folder.write("workshop.json", workshop.dump());
    EXPECT_EQ(done({"project", "workshop", m_project, "--data", file, "--dry-run"})["printers"].size(),
              workshop["printers"].size());
    EXPECT_EQ(done({"project", "workshop", m_project})["printers"].size(), workshop["printers"].size() - 1);
    done({"project", "workshop", m_project, "--data", file});
    EXPECT_EQ(done({"project", "workshop", m_project})["printers"].back()["name"], "second printer");
    workshop["printers"].push_back(workshop["printers"].back());
    expectRefused(
        runCli({"project", "workshop", m_project, "--data", m_folder.write("twice.json", workshop.dump())}),
        "second printer");

    const std::string needs = R"({"part": "holder", "needs": [
        {"need": "carries its load", "kind": "stress", "limit": "12 MPa", "factor": 2}]})";
    done({"project", "needs", m_project, "--data", "-"}, needs);
    const json kept = done({"project", "needs", m_project});
    EXPECT_EQ(kept["part"], "holder");
    EXPECT_EQ(kept["needs"][0]["factor"], 2.0);
    EXPECT_EQ(runCli({"project", "needs", m_project, "--data", "-"}, "{\"needs\": [{\"kind\": \"colour\"}]}")
                  .status,
              2);
    EXPECT_EQ(done({"project", "needs", m_project}), kept);
}

TEST_F(StudyCalls, APlanKeepsTheWorkshopOfItsDescription)
{
    const json before = done({"project", "workshop", m_project});
    const std::string spec =
        m_folder.write("spec.json", R"({"question": "With a workshop?", "material": "polyester",
        "factors": [{"name": "nozzle temperature", "levels": ["230", "250"]}],
        "workshop": {"printers": [{"name": "the tall one", "bed_width_mm": 400}], "money_unit": "CHF"}})");
    done({"plan", "make", "--spec", spec, "--into", m_project});
    const json after = done({"project", "workshop", m_project});
    EXPECT_EQ(after["printers"].size(), before["printers"].size() + 1);
    EXPECT_EQ(after["printers"].back()["name"], "the tall one");
    EXPECT_EQ(after["money_unit"], "CHF");
    EXPECT_EQ(after["rigs"], before["rigs"]) << "what it does not name stays";
}

TEST_F(StudyCalls, AStudyGoesOutAsAWholeAndComesBackChanged)
{
    json whole = study();
    EXPECT_EQ(done({"project", "study", m_project, "--study", "1", "--data", changed(whole)}), whole)
        << "what comes back as it was changes nothing";
    // A rail more, with a piece, under ids of the sender's own; another question.
    whole["question"] = "Which of three temperatures?";
    whole["conditions"].push_back({{"id", 900001},
                                   {"levels", {"270"}},
                                   {"orientation", "flat"},
                                   {"material", "glycol-modified polyester, lot 4"}});
    whole["pieces"].push_back(
        {{"id", 900002}, {"code", "C1"}, {"condition", 900001}, {"section", nullptr}, {"test", "tension"}});
    pieceOf(whole, "A2")["note"] = "a notch at the edge";
    const json kept =
        done({"project", "study", m_project, "--study", "1", "--data", changed(whole), "--by", "K."});
    EXPECT_EQ(kept["conditions"].size(), 3U);
    EXPECT_LT(kept["conditions"][2]["id"].get<int>(), 900001) << "the project gives ids of its own";
    EXPECT_EQ(kept["pieces"].back()["condition"], kept["conditions"][2]["id"]);
    whole = study();
    EXPECT_EQ(whole, kept);
    EXPECT_EQ(pieceOf(whole, "A2")["note"], "a notch at the edge");
    EXPECT_EQ(done({"project", "verify", m_project})["ok"], true);
}

TEST_F(StudyCalls, NothingThatWasMeasuredGoesWithAStudyThatComesBack)
{
    done({"project", "log", m_project, "--study", "1", "--data", "-"}, "piece,mass_g\nB2,9.51\n");
    const json before = study();
    const auto without = [&](const std::string &code) {
        json less = before;
        std::erase_if(less["pieces"].get_ref<json::array_t &>(),
                      [&](const json &piece) { return piece["code"] == code; });
        return changed(less);
    };
    expectRefused(runCli({"project", "study", m_project, "--study", "1", "--data", without("B2")}),
                  "piece B2 is printed, measured or broken");
    json wrong = before;
    pieceOf(wrong, "A1")["condition"] = 77;
    expectRefused(runCli({"project", "study", m_project, "--study", "1", "--data", changed(wrong)}), "A1");
    wrong = before;
    pieceOf(wrong, "A1")["photos"] = json::parse(R"([{"raw_file": 5, "caption": "", "by": "", "at": ""}])");
    expectRefused(runCli({"project", "study", m_project, "--study", "1", "--data", changed(wrong)}),
                  "does not hold");
    expectRefused(runCli({"project", "study", m_project, "--study", "1", "--data", "-"}, "{}"), "no study");
    EXPECT_EQ(study(), before);
    done({"project", "study", m_project, "--study", "1", "--data", without("A2")});
    EXPECT_EQ(study()["pieces"].size(), before["pieces"].size() - 1);
}

// Values typed into two studies; the second speaks of the first, which nobody reads twice.
TEST_F(StudyCalls, OtherStudiesAreReadOnceAndAnewAfterAChange)
{
    const std::string spec = m_folder.write("spec.json", R"({"question": "Once more?",
        "tests": [{"method": "tension", "pieces_per_condition": 2}], "material": "glycol-modified polyester, lot 5",
        "factors": [{"name": "nozzle temperature", "levels": ["230", "250"]}]})");
    done({"plan", "make", "--spec", spec, "--into", m_project});
    const auto typed = [&](const char *study, const char *rows) {
        done({"project", "results", m_project, "--study", study, "--data", "-"},
             std::string("piece;Tensile strength (MPa)\n") + rows);
    };
    typed("Which", "A1;40\nA2;42\nB1;44\nB2;46\n");
    typed("Once", "A1;50\nA2;52\nB1;54\nB2;56\n");
    const auto average = [&] {
        const json told = done({"project", "verdict", m_project, "--study", "Once"});
        for (const json &answer : told["answers"]) {
            if (answer["text"].get<std::string>().find("in all other studies") != std::string::npos)
                return answer["text"].get<std::string>();
        }
        return std::string();
    };
    const auto kept = [&] {
        const Result<std::vector<KeptValues>> values = KeptReadings::openForReading(m_project)->values();
        return std::count_if(values->begin(), values->end(),
                             [](const KeptValues &one) { return !one.madeFrom.empty(); });
    };
    {
        const Result<ProjectLock> held = ProjectLock::take(m_project);
        EXPECT_NE(average().find("43.0 MPa (4 pieces of 2 rails in 1 study"), std::string::npos) << average();
        EXPECT_EQ(kept(), 0) << "another program may be writing";
    }
    const std::string first = average();
    EXPECT_EQ(kept(), 1);
    EXPECT_EQ(average(), first) << "from what is kept";
    done({"project", "leave-out", m_project, "--study", "Which", "--piece", "A1", "--reason", "slipped"});
    EXPECT_EQ(kept(), 0);
    EXPECT_NE(average().find("44.0 MPa (3 pieces of 2 rails in 1 study"), std::string::npos) << average();
    EXPECT_EQ(kept(), 1);
    // The plan of a study without results of its own speaks of both.
    const std::string empty = m_folder.write("empty.json", R"({"question": "And now?",
        "tests": [{"method": "tension", "pieces_per_condition": 2}], "material": "glycol-modified polyester, lot 6",
        "factors": [{"name": "nozzle temperature", "levels": ["230", "250"]}]})");
    done({"plan", "make", "--spec", empty, "--into", m_project});
    const std::string plan = done({"plan", "show", m_project, "--study", "And"}).dump();
    EXPECT_EQ(plan, done({"plan", "show", m_project, "--study", "And"}).dump());
}

// A trial in service is held beside coupons of any test, whichever study they are in.
TEST_F(StudyCalls, AServiceTrialFindsTheCouponsOfOtherStudies)
{
    done({"project", "results", m_project, "--study", "Which", "--data", "-"},
         "piece;Tensile strength (MPa)\nA1;40\nA2;42\nB1;44\nB2;46\n");
    const std::string spec = m_folder.write("spec.json", R"({"question": "How does it last?",
        "tests": [{"method": "service trial", "pieces_per_condition": 1}], "material": "glycol-modified polyester, lot 4",
        "factors": [{"name": "nozzle temperature", "levels": ["230", "250"]}]})");
    done({"plan", "make", "--spec", spec, "--into", m_project});
    done({"project", "results", m_project, "--study", "How", "--data", "-"},
         "piece;hours [h];outcome;cracks;confidence\nA1;900;serves;0;4\nB1;400;failed;1;2\n");
    const std::string told = done({"project", "verdict", m_project, "--study", "How"})["answers"].dump();
    EXPECT_NE(told.find("coupons hold 43.0 MPa flat (4 pieces)"), std::string::npos) << told;
    EXPECT_NE(told.find("1 part served 900 h or more (1 still do"), std::string::npos)
        << "what still serves is no failure: " << told;
    EXPECT_NE(told.find("1 part served 400 h,"), std::string::npos) << told;
}

} // namespace inchpeg
