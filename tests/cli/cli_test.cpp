// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/run_cli.h"
#include "support/matching_digits.h"

#include <cmath>
#include <numbers>

namespace inchpeg
{

namespace
{

using nlohmann::json;
using test::expectRefused;
using test::holds;
using test::matchingDigits;
using test::runCli;

double propertyOf(const json &result, std::string_view name)
{
    for (const json &property : result["properties"]) {
        if (property["name"] == name)
            return property["value"].is_null() ? std::nan("") : property["value"].get<double>();
    }
    ADD_FAILURE() << name;
    return std::nan("");
}

/// 2000 MPa to 40 MPa at a strain of 0.02, over 40 mm² and 50 mm.
std::string linearRecord()
{
    std::string text = "force_N,extension_mm\n";
    for (int i = 0; i <= 200; ++i)
        text += std::to_string(8.0 * i) + "," + std::to_string(0.005 * i) + "\n";
    return text + "0,1.005\n0,1.01\n";
}

const std::string kLong = "batch,strength\nA,10\nA,11\nA,12\nB,14\nB,15\nB,\nB,16\nC,11\nC,12\n";

class Cli : public testing::Test
{
protected:
    test::TemporaryFolder m_folder;
};

} // namespace

TEST_F(Cli, HelpAndVersionOnEveryLevel)
{
    EXPECT_EQ(runCli({"--version"}).status, 0);
    EXPECT_TRUE(holds(runCli({"--help"}).out, "stats"));
    EXPECT_TRUE(holds(runCli({"stats", "--help"}).out, "describe"));
    EXPECT_TRUE(holds(runCli({"stats", "describe", "--help"}).out, "--value"));
    expectRefused(runCli({"stats", "guess"}), "there is no command");
}

TEST_F(Cli, SniffTellsTheLayout)
{
    const auto outcome = runCli({"import", "sniff", "--data", "-"},
                                "Pr\xC3\xBC"
                                "fung;7\nKraft [N];Weg [mm];Anmerkung\n0,5;0,1;ok\n1,5;0,2;ok\n2,5;0,3;\n");
    ASSERT_EQ(outcome.status, 0) << outcome.err;
    const json result = outcome.json();
    EXPECT_EQ(result["encoding"], "utf-8");
    EXPECT_EQ(result["delimiter"], ";");
    EXPECT_EQ(result["decimal"], ",");
    EXPECT_EQ(result["header_rows"], 2);
    EXPECT_TRUE(result["units_row"].is_null());
    EXPECT_EQ(result["rows"], 3);
    EXPECT_EQ(result["skipped"], 0);
    EXPECT_EQ(result["columns"][0], (json{{"name", "Kraft"}, {"quantity", "force"}, {"unit", "N"}}));
    EXPECT_TRUE(result["columns"][2]["quantity"].is_null());
}

TEST_F(Cli, SniffFindsTheUnitsRow)
{
    const json result =
        runCli({"import", "sniff", "--data=-"}, "Load\tExtension\nkN\tmm\n0.1\t0.1\n0.2\t0.2\n").json();
    EXPECT_EQ(result["units_row"], 2);
    EXPECT_EQ(result["columns"][0]["unit"], "kN");
}

TEST_F(Cli, SniffTellsATableOfWhichNothingIsKnown)
{
    const json told = runCli({"import", "sniff", "--data=-"}, "a\tb\n1\t10\n2\t20\n3\t30\n").json();
    EXPECT_EQ(told["rows"], 3);
    EXPECT_EQ(told["columns"].size(), 2U);
    EXPECT_TRUE(told["columns"][1]["quantity"].is_null());
}

TEST_F(Cli, ReduceTensileGivesEveryProperty)
{
    const std::string path = m_folder.write("a.csv", linearRecord());
    const auto outcome = runCli({"reduce", "tensile", "--data", path, "--set", "width=1cm", "--set",
                                 "thickness=4", "--set", "gauge_length=50mm"});
    ASSERT_EQ(outcome.status, 0) << outcome.err;
    const json result = outcome.json();
    EXPECT_EQ(result["properties"].size(), 15U); // the twelve of the contract, and three of ours
    EXPECT_GE(matchingDigits(propertyOf(result, "tensile_modulus"), 2000.0), 6);
    EXPECT_GE(matchingDigits(propertyOf(result, "tensile_strength"), 40.0), 9);
    EXPECT_TRUE(std::isnan(propertyOf(result, "yield_stress")));
    EXPECT_EQ(result["columns"][0]["quantity"], "force");
    EXPECT_TRUE(result["validity"].is_array() && result["warnings"].is_array());
    // One --set may take several pairs.
    EXPECT_EQ(
        runCli({"reduce", "tensile", "--data", path, "--set", "width=10", "thickness=4", "gauge_length=50"})
            .json(),
        result);
}

TEST_F(Cli, ReduceReadsLoadsOverAWay)
{
    const std::string pushed = m_folder.write("push.csv", "force_N,travel_mm\n0,0\n250,1\n500,2\n5,2.01\n");
    const auto reduced = [&](const std::string &method, const std::string &file,
                             const std::vector<std::string> &sets) {
        std::vector<std::string> arguments{"reduce", method, "--data", file, "--set"};
        arguments.insert(arguments.end(), sets.begin(), sets.end());
        const auto outcome = runCli(arguments);
        EXPECT_EQ(outcome.status, 0) << outcome.err;
        return outcome.json();
    };
    const json shear = reduced("double-shear", pushed, {"area=25"});
    EXPECT_GE(matchingDigits(propertyOf(shear, "shear_strength"), 10.0), 12);
    const json pull = reduced("pull-out", pushed, {"diameter=5mm", "depth=0.8cm"});
    EXPECT_GE(matchingDigits(propertyOf(pull, "interface_shear"), 500.0 / (40.0 * std::numbers::pi)), 12);
    EXPECT_GE(matchingDigits(propertyOf(pull, "stiffness"), 250.0), 12);
    EXPECT_GE(matchingDigits(propertyOf(pull, "energy"), 0.5), 12);
    const json puncture = reduced("puncture", pushed, {"probe_diameter=5", "capacity=500"});
    EXPECT_EQ(propertyOf(puncture, "censored"), 1.0);
    EXPECT_GE(matchingDigits(propertyOf(puncture, "depth_at_peak"), 2.0), 12);
    const std::string twisted =
        m_folder.write("twist.csv", "torque [N·cm];angle [deg]\n0;0\n100;50\n200;100\n300;150\n1;151\n");
    const json torsion = reduced("torsion", twisted, {"width=10", "thickness=4", "length=50"});
    EXPECT_GE(matchingDigits(propertyOf(torsion, "peak_torque"), 3.0), 12);
    EXPECT_GE(matchingDigits(propertyOf(torsion, "torque_at_90"), 1.8), 12);
    EXPECT_EQ(propertyOf(torsion, "angle_at_peak"), 150.0);
    EXPECT_TRUE(std::isnan(propertyOf(torsion, "shear_modulus"))) << "one sample below a tenth of the angle";
    expectRefused(runCli({"reduce", "torsion", "--data", twisted, "--set", "diameter=8"}),
                  "\"length\" is missing");
    expectRefused(runCli({"reduce", "pull-out", "--data", pushed, "--set", "diameter=8"}),
                  "\"depth\" is missing");
    expectRefused(runCli({"reduce", "double-shear", "--data", pushed}), "\"diameter\" is missing");
}

TEST_F(Cli, ReduceNamesWhatIsMissingOrWrong)
{
    const std::string path = m_folder.write("a.csv", linearRecord());
    const auto with = [&](const std::vector<std::string> &sets) {
        std::vector<std::string> arguments{"reduce", "tensile", "--data", path};
        for (const std::string &set : sets) {
            arguments.push_back("--set");
            arguments.push_back(set);
        }
        return runCli(arguments);
    };
    expectRefused(with({}), "\"width\" is missing");
    expectRefused(with({"width=10"}), "\"thickness\" is missing");
    expectRefused(with({"width=0", "thickness=4"}), "\"width\" must be above zero");
    expectRefused(with({"width=-1", "thickness=4"}), "\"width\" must be above zero");
    expectRefused(with({"width=10N", "thickness=4"}), "is a force, but a length is wanted");
    expectRefused(with({"width=10", "thickness=4", "colour=red"}), "there is no key \"colour\"");
    expectRefused(with({"width=10", "thickness=4", "area=40"}), "more than one way");
    expectRefused(with({"area=40", "toe=maybe"}), "is on or off");
    expectRefused(with({"area=40"}), "\"gauge_length\" is missing");
}

TEST_F(Cli, ReduceAFolderGoesOnAfterABadFile)
{
    std::filesystem::create_directory(m_folder.path("run"));
    m_folder.write("run/1.csv", linearRecord());
    m_folder.write("run/2.csv", "nothing here\n");
    m_folder.write("run/3.csv", linearRecord());
    const auto outcome =
        runCli({"reduce", "tensile", "--data", m_folder.path("run"), "--set", "area=40", "gauge_length=50"});
    EXPECT_EQ(outcome.status, 2);
    const json files = outcome.json()["files"];
    ASSERT_EQ(files.size(), 3U);
    EXPECT_TRUE(files[0].contains("properties") && files[2].contains("properties"));
    EXPECT_TRUE(holds(files[1]["error"].get<std::string>(), "2.csv"));
    EXPECT_TRUE(holds(outcome.err, "2.csv"));
}

TEST_F(Cli, BadFilesAreNamedWithLineAndColumn)
{
    const std::string path = m_folder.write("bad.csv", "force_N,extension_mm\n0,0\n1,0.1\nNaN,0.2\n");
    const auto outcome = runCli({"reduce", "tensile", "--data", path, "--set", "area=40", "gauge_length=50"});
    expectRefused(outcome, path + ": line 4, column 1: ");
    expectRefused(runCli({"import", "sniff", "--data", m_folder.path("missing.csv")}),
                  "there is no such file");
    expectRefused(runCli({"import", "sniff", "--data", m_folder.path("")}), "is a folder");
}

TEST_F(Cli, DescribeCountsWhatItDropped)
{
    const auto outcome =
        runCli({"stats", "describe", "--data", "-", "--value", "strength", "--by", "batch"}, kLong);
    ASSERT_EQ(outcome.status, 0) << outcome.err;
    const json result = outcome.json();
    EXPECT_EQ(result["dropped"], 1);
    ASSERT_EQ(result["groups"].size(), 3U);
    EXPECT_EQ(result["groups"][1]["group"], "B");
    EXPECT_EQ(result["groups"][1]["n"], 3);
    EXPECT_EQ(result["groups"][1]["mean"], 15.0);
    const std::vector<std::string> keys{"group", "n",  "mean", "sd",  "cv",       "se",       "ci", "median",
                                        "q1",    "q3", "min",  "max", "skewness", "kurtosis", "mad"};
    for (const std::string &key : keys)
        EXPECT_TRUE(result["groups"][0].contains(key)) << key;
    const json whole = runCli({"stats", "describe", "--data", "-", "--value", "strength"}, kLong).json();
    EXPECT_TRUE(whole["groups"][0]["group"].is_null());
    EXPECT_EQ(whole["groups"][0]["n"], 8);
}

TEST_F(Cli, NumbersHaveSeventeenDigits)
{
    const auto outcome = runCli({"stats", "describe", "--data", "-", "--value", "v"}, "v\n0.1\n0.2\n");
    EXPECT_TRUE(holds(outcome.out, "0.15000000000000002")) << outcome.out;
    EXPECT_TRUE(holds(outcome.out, "0.10000000000000001"));
}

TEST_F(Cli, CompareHasTheKeysOfTheContract)
{
    const auto outcome = runCli(
        {"stats", "compare", "--data", "-", "--value", "strength", "--by", "batch", "--reference", "A"},
        kLong);
    ASSERT_EQ(outcome.status, 0) << outcome.err;
    const json result = outcome.json();
    for (const char *key : {"anova", "welch", "kruskal_wallis", "variances", "pairs", "dunnett", "best"})
        EXPECT_TRUE(result.contains(key)) << key;
    ASSERT_EQ(result["pairs"].size(), 3U);
    const json &pair = result["pairs"][0];
    EXPECT_EQ(pair["a"], "A");
    EXPECT_EQ(pair["difference"], 4.0);
    for (const char *key : {"pooled_t", "welch_t", "tukey", "games_howell", "mann_whitney", "welch_p_holm",
                            "hedges_g", "ratio"})
        EXPECT_TRUE(pair.contains(key)) << key;
    EXPECT_EQ(result["dunnett"].size(), 2U);
    EXPECT_EQ(result["best"]["levels"].size(), 3U);
    EXPECT_FALSE(runCli({"stats", "compare", "--data", "-", "--value", "strength", "--by", "batch"}, kLong)
                     .json()
                     .contains("dunnett"));
}

TEST_F(Cli, CompareRefusesWhatCannotBeCompared)
{
    const auto with = [](const std::string &text, const std::vector<std::string> &more = {}) {
        std::vector<std::string> arguments{"stats", "compare", "--data", "-", "--value", "v", "--by", "g"};
        arguments.insert(arguments.end(), more.begin(), more.end());
        return runCli(arguments, text);
    };
    expectRefused(with("g,v\na,1\na,2\n"), "at least two");
    expectRefused(with("g,v\na,1\nb,2\n", {"--reference", "z"}), "is not a group");
    expectRefused(with("g,v\na,1\nb,inf\n"), "line 3, column 2");
    expectRefused(with("g,v\na,1\nb,1e999\n"), "line 3, column 2");
    expectRefused(with("g,v\na,1\nb,2,3\n"), "line 3, column 3");
    expectRefused(with("g,v,v\na,1,1\nb,2,2\n"), "two columns are named");
    expectRefused(with("g,w\na,1\nb,2\n"), "there is no column \"v\"");
    expectRefused(with("g,v\n"), "no data row");
    expectRefused(with("g,v\na,1\nb,2\n", {"--confidence", "95"}), "between 0 and 1");
    expectRefused(with("g,v\na,1\nb,2\n", {"--colour", "red"}), "--colour is not known");
    const auto flat = with("g,v\na,1\na,1\nb,2\nb,2\n");
    ASSERT_EQ(flat.status, 0) << flat.err;
    EXPECT_TRUE(flat.json()["anova"]["F"].is_null());
}

TEST_F(Cli, TextFormatIsForPeople)
{
    const auto outcome = runCli(
        {"stats", "describe", "--data", "-", "--value", "strength", "--by", "batch", "--format", "text"},
        kLong);
    EXPECT_EQ(outcome.status, 0);
    EXPECT_TRUE(holds(outcome.out, "group     A")) << outcome.out;
    expectRefused(
        runCli({"stats", "describe", "--data", "-", "--value", "strength", "--format", "xml"}, kLong),
        "json or text");
}

TEST_F(Cli, ProjectCommands)
{
    const std::string path = m_folder.path("p.inchpeg");
    EXPECT_EQ(runCli({"project", "new", path}).json()["studies"], 0);
    expectRefused(runCli({"project", "new", path}), "exists already");
    const std::string demo = m_folder.path("demo.inchpeg");
    const json made = runCli({"project", "demo", demo}).json();
    EXPECT_EQ(made["studies"], 8);
    EXPECT_EQ(runCli({"project", "info", demo}).json(), made);
    const auto verified = runCli({"project", "verify", demo});
    EXPECT_EQ(verified.status, 0);
    EXPECT_EQ(verified.json()["raw_files_checked"], made["raw_files"]);
    expectRefused(runCli({"project", "info", m_folder.write("x", "no project")}),
                  "is not an Inch Peg project");
    expectRefused(runCli({"project", "info"}), "wants FILE");
}

TEST_F(Cli, OptionsAreCheckedOneByOne)
{
    expectRefused(runCli({"stats", "describe", "--value", "v"}), "option --data is missing");
    expectRefused(runCli({"stats", "describe", "--data", "-", "--value"}, kLong),
                  "option --value wants a value");
    expectRefused(runCli({"stats", "describe", "--data", "-", "--value", "a", "--value", "b"}, kLong),
                  "given twice");
    expectRefused(runCli({"stats", "describe", "-v", "strength"}, kLong), "two dashes");
    expectRefused(runCli({"stats", "describe", "--data", "-", "--value", "strength", "extra"}, kLong),
                  "wants options only");
    expectRefused(runCli({"reduce", "tensile", "--data", "-", "--set", "width"}, linearRecord()),
                  "key=value is wanted");
    expectRefused(runCli({"reduce", "tensile", "--data", "-", "--set", "area=40", "area=41"}, linearRecord()),
                  "set twice");
}

TEST_F(Cli, ToeCanBeSwitchedOffAndTheGaugeHasARange)
{
    const std::string path = m_folder.write("a.csv", linearRecord());
    const json off =
        runCli({"reduce", "tensile", "--data", path, "--set", "area=40mm²", "gauge_length=5cm", "toe=off"})
            .json();
    EXPECT_EQ(propertyOf(off, "toe_strain"), 0.0);
    const json bound =
        runCli({"reduce", "tensile", "--data", path, "--set", "area=40", "gauge_length=50", "capacity=1.6kN"})
            .json();
    for (const json &property : bound["properties"])
        EXPECT_EQ(property.contains("at_least"),
                  property["name"] == "tensile_strength" || property["name"] == "strain_at_strength" ||
                      property["name"] == "stress_at_break" || property["name"] == "strain_at_break" ||
                      property["name"] == "energy_to_break" || property["name"] == "toughness" ||
                      property["name"] == "peak_force")
            << property["name"];
}

TEST_F(Cli, RepeatedDataGivesFilesInOrder)
{
    const std::string first = m_folder.write("z.csv", linearRecord());
    const std::string second = m_folder.write("a.csv", linearRecord());
    const auto outcome = runCli(
        {"reduce", "tensile", "--data", first, "--data", second, "--set", "area=40", "gauge_length=50"});
    EXPECT_EQ(outcome.status, 0) << outcome.err;
    const json files = outcome.json()["files"];
    ASSERT_EQ(files.size(), 2U);
    EXPECT_EQ(files[0]["file"], first);
    EXPECT_EQ(files[1]["file"], second);
}

TEST_F(Cli, AFullDiskUnderStandardOutputIsAnInternalFailure)
{
    const std::string table = m_folder.write("t.csv", kLong);
    const std::string command = std::string(INCHPEG_CLI) + " stats describe --data " + table +
                                " --value strength >/dev/full 2>" + m_folder.path("err");
    const int raw = std::system(command.c_str());
    EXPECT_EQ(WEXITSTATUS(raw), 1);
    EXPECT_TRUE(holds(test::bytesOf(m_folder.path("err")), "is the disk full?"));
}

TEST_F(Cli, EmptyGroupsAreNullInDescribeAndLeftOutOfCompare)
{
    const std::string text = "g,v\na,1\na,2\nb,\nc,4\nc,5\n";
    const json groups =
        runCli({"stats", "describe", "--data", "-", "--value", "v", "--by", "g"}, text).json()["groups"];
    ASSERT_EQ(groups.size(), 3U);
    EXPECT_EQ(groups[1]["n"], 0);
    EXPECT_TRUE(groups[1]["mean"].is_null());
    const auto compared = runCli({"stats", "compare", "--data", "-", "--value", "v", "--by", "g"}, text);
    EXPECT_EQ(compared.status, 0);
    EXPECT_EQ(compared.json()["pairs"].size(), 1U);
    EXPECT_TRUE(holds(compared.err, "\"b\" has no value"));
}

TEST_F(Cli, InfoListsTheStudies)
{
    const std::string demo = m_folder.path("demo.inchpeg");
    ASSERT_EQ(runCli({"project", "demo", demo}).status, 0);
    const json info = runCli({"project", "info", demo}).json();
    EXPECT_EQ(info["study_list"].size(), 8U);
    EXPECT_EQ(info["study_list"][0]["recorded"], 30);
}

TEST_F(Cli, ExportAndImportGiveTheSameBytesAgain)
{
    const test::TemporaryFolder folder;
    const std::string first = folder.path("first.inchpeg");
    const std::string second = folder.path("second.inchpeg");
    ASSERT_EQ(runCli({"project", "demo", first}).status, 0);
    const auto exported = runCli({"project", "export", first, "--to", folder.path("a")});
    ASSERT_EQ(exported.status, 0) << exported.err;
    EXPECT_EQ(exported.json()["studies"], 8);
    EXPECT_EQ(exported.json()["raw_files"], 213) << "211 records, two photos";
    const auto imported = runCli({"project", "import", folder.path("a"), "--to", second});
    ASSERT_EQ(imported.status, 0) << imported.err;
    EXPECT_EQ(imported.json()["pieces"], 231);
    ASSERT_EQ(runCli({"project", "export", second, "--to", folder.path("b")}).status, 0);
    for (const auto &entry : std::filesystem::recursive_directory_iterator(folder.path("a"))) {
        if (!entry.is_regular_file())
            continue;
        const std::string relative = std::filesystem::relative(entry.path(), folder.path("a")).string();
        EXPECT_EQ(test::bytesOf(entry.path().string()), test::bytesOf(folder.path("b/" + relative)))
            << relative;
    }
    EXPECT_TRUE(runCli({"project", "verify", second}).json()["ok"].get<bool>());
}

TEST_F(Cli, ExportAndImportRefuseInWords)
{
    const test::TemporaryFolder folder;
    const std::string project = folder.path("p.inchpeg");
    ASSERT_EQ(runCli({"project", "new", project}).status, 0);
    expectRefused(runCli({"project", "export", project}), "--to");
    expectRefused(runCli({"project", "export", folder.path("none.inchpeg"), "--to", folder.path("x")}),
                  "there is no such project");
    folder.write("letter.txt", "Dear bees,");
    expectRefused(runCli({"project", "export", project, "--to", folder.path("letter.txt")}),
                  "choose another name");
    expectRefused(runCli({"project", "import", folder.path("nowhere"), "--to", folder.path("y.inchpeg")}),
                  "there is no such file");
    ASSERT_EQ(runCli({"project", "export", project, "--to", folder.path("x")}).status, 0);
    expectRefused(runCli({"project", "import", folder.path("x"), "--to", project}), "exists already");
    folder.write("x/project.json", "{\"format\": \"inch-peg export\"");
    expectRefused(runCli({"project", "import", folder.path("x"), "--to", folder.path("y.inchpeg")}),
                  "is not readable as an export");
    EXPECT_FALSE(std::filesystem::exists(folder.path("y.inchpeg")));
}

TEST_F(Cli, TheRulesOfReadingAreKeysToo)
{
    // 2000 MPa to a strain of 0.01, then 200 MPa; area 1 mm², gauge length 100 mm.
    std::string record = "force_N,extension_mm\n";
    for (int i = 0; i <= 500; ++i) {
        const double strain = 1e-4 * i;
        record += std::to_string(strain < 0.01 ? 2000.0 * strain : 20.0 + 200.0 * (strain - 0.01)) + "," +
                  std::to_string(100.0 * strain) + "\n";
    }
    record += "0,5.01\n";
    const auto reduced = [&](const std::vector<std::string> &settings) {
        std::vector<std::string> arguments{"reduce", "tensile", "--data",          "-",
                                           "--set",  "area=1",  "gauge_length=100"};
        arguments.insert(arguments.end(), settings.begin(), settings.end());
        return runCli(arguments, record);
    };
    const auto value = [](const test::CliOutcome &outcome, const char *name) {
        EXPECT_EQ(outcome.status, 0) << outcome.err;
        const nlohmann::json result = outcome.json();
        for (const auto &property : result["properties"]) {
            if (property["name"] == name)
                return property["value"].get<double>();
        }
        ADD_FAILURE() << name;
        return 0.0;
    };
    EXPECT_NEAR(value(reduced({}), "tensile_modulus"), 2000.0, 0.01);
    EXPECT_NEAR(value(reduced({"modulus_from=2%", "modulus_to=0.04"}), "tensile_modulus"), 200.0, 0.01);
    // The line 2000 (e - 0.005) meets 20 + 200 (e - 0.01) at e = 28/1800.
    EXPECT_NEAR(value(reduced({"offset=0.5%"}), "offset_yield_stress"), 2000.0 * (28.0 / 1800.0 - 0.005),
                0.01);
    EXPECT_NEAR(value(reduced({"break_drop=90%"}), "strain_at_break"), 0.05, 1e-6);
    expectRefused(reduced({"modulus_from=0.3%"}), "the modulus range is 0.3 % to 0.25 %");
    expectRefused(reduced({"break_drop=100%"}), "the break drop is 100 %");
    expectRefused(reduced({"offset=3mm"}), "offset");
    const nlohmann::json usual = reduced({}).json();
    for (const auto &check : usual["validity"])
        EXPECT_EQ(check["detail"].get<std::string>().find('\x02'), std::string::npos)
            << "quantities are written out";
}

TEST(CliEdit, APieceIsLeftOutAndTakenBackWithWhoAndWhy)
{
    const test::TemporaryFolder folder;
    const std::string project = folder.path("demo.inchpeg");
    ASSERT_EQ(runCli({"project", "demo", project}).status, 0);
    const json list = runCli({"project", "info", project}).json()["study_list"];
    const std::string study = std::to_string(list[0]["id"].get<int>());
    const json left = runCli({"project", "leave-out", project, "--study", study, "--piece", "A1", "--reason",
                              "  slipped in\tthe grips ", "--by", "Ada"})
                          .json();
    EXPECT_TRUE(left["was"].is_null());
    EXPECT_EQ(left["is"]["reason"], "slipped in the grips");
    EXPECT_EQ(left["is"]["who"], "Ada");
    ASSERT_EQ(runCli({"project", "export", project, "--to", folder.path("out")}).status, 0);
    EXPECT_TRUE(holds(test::bytesOf(folder.path("out/project.json")), "slipped in the grips"));
    // Whatever cannot be: a sentence, and nothing changes.
    expectRefused(
        runCli({"project", "leave-out", project, "--study", study, "--piece", "A1", "--reason", " "}),
        "say why");
    expectRefused(
        runCli({"project", "leave-out", project, "--study", study, "--piece", "Z9", "--reason", "x"}),
        "there is no piece \"Z9\"");
    expectRefused(runCli({"project", "take-back", project, "--study", "nobody asked", "--piece", "A1"}),
                  "there is no study");
    const json back = runCli({"project", "take-back", project, "--study", study, "--piece", "A1"}).json();
    EXPECT_EQ(back["was"]["reason"], "slipped in the grips");
    EXPECT_TRUE(back["is"].is_null());
}

} // namespace inchpeg
