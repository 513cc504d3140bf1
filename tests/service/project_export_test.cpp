// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/demo_project.h"
#include "service/project_export.h"
#include "service/project_text.h"
#include "service/safe_name.h"
#include "support/study_builder.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>

#include <filesystem>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;
using test::bytesOf;

/// Every file below a folder with its bytes.
std::map<std::string, std::string> treeOf(const std::string &folder)
{
    std::map<std::string, std::string> tree;
    for (const fs::directory_entry &entry : fs::recursive_directory_iterator(folder)) {
        if (entry.is_regular_file())
            tree[fs::relative(entry.path(), folder).string()] = bytesOf(entry.path().string());
    }
    return tree;
}

class ProjectExportTest : public testing::Test
{
protected:
    ProjectFile demo()
    {
        EXPECT_TRUE(writeDemoProject(m_folder.path("demo.inchpeg")));
        Result<ProjectFile> project = ProjectFile::open(m_folder.path("demo.inchpeg"));
        EXPECT_TRUE(project);
        return std::move(*project);
    }

    /// An export of the demo whose project.json was changed by hand.
    std::string tampered(const std::string &from, const std::string &to)
    {
        const std::string folder = m_folder.path("tampered");
        if (!fs::exists(folder)) {
            ProjectFile project = demo();
            EXPECT_TRUE(exportProject(project, folder));
        }
        const std::string whole = bytesOf(folder + "/project.json");
        std::string text = whole;
        const std::size_t at = text.find(from);
        EXPECT_NE(at, std::string::npos) << from;
        text.replace(at, from.size(), to);
        std::ofstream(folder + "/project.json", std::ios::binary) << text;
        const auto imported = importProject(folder, m_folder.path("out.inchpeg"));
        EXPECT_FALSE(fs::exists(m_folder.path("out.inchpeg")) && !imported) << "nothing is left behind";
        fs::remove(m_folder.path("out.inchpeg"));
        std::ofstream(folder + "/project.json", std::ios::binary) << whole;
        return imported ? std::string() : imported.error().message;
    }

    test::TemporaryFolder m_folder;
};

} // namespace

TEST_F(ProjectExportTest, ExportImportExportIsByteIdentical)
{
    ProjectFile project = demo();
    const StudyId id = project.studies()->front().id;
    const Study before = *project.loadStudy(id);
    Study after = before;
    after.pieces[0].markers["strength"] = {40.0, "=1+1, \"slip\"", "me", "2026-11-25T10:00:00Z"};
    after.pieces[1].markers["yield"] = {std::nullopt, "none", "me", "2026-11-25T10:00:00Z"};
    firstTest(after).setup.settings.numbers["break_drop"] = 1.0 / 3.0;
    ASSERT_TRUE(project.save({before, after}));
    ASSERT_TRUE(project.setSetting("view", R"({"lens":"read"})"));
    ASSERT_TRUE(project.rememberMapping("x", {{}, {{ColumnQuantity::Force, "kgf", false}}}));
    ASSERT_TRUE(exportProject(project, m_folder.path("first")));
    ASSERT_TRUE(importProject(m_folder.path("first"), m_folder.path("second.inchpeg")));
    Result<ProjectFile> second = ProjectFile::open(m_folder.path("second.inchpeg"));
    ASSERT_TRUE(second);
    EXPECT_EQ(*second->contents(), *project.contents());
    EXPECT_TRUE(second->verify()->findings.empty());
    ASSERT_TRUE(exportProject(*second, m_folder.path("second")));
    const auto first = treeOf(m_folder.path("first"));
    EXPECT_EQ(first, treeOf(m_folder.path("second")));
    EXPECT_GT(first.size(), 100U) << "54 raw files, 53 curves, tables";
}

TEST_F(ProjectExportTest, OneStudyGoesWithItsOwnRawFilesOnly)
{
    ProjectFile project = demo();
    const std::vector<StudyHeader> studies = *project.studies();
    ASSERT_TRUE(exportProject(project, m_folder.path("one"), studies[2].id));
    ASSERT_TRUE(importProject(m_folder.path("one"), m_folder.path("one.inchpeg")));
    Result<ProjectFile> one = ProjectFile::open(m_folder.path("one.inchpeg"));
    ASSERT_TRUE(one);
    ASSERT_EQ(one->studies()->size(), 1U);
    EXPECT_EQ(*one->loadStudy(studies[2].id), *project.loadStudy(studies[2].id));
    EXPECT_EQ(one->info()->rawFiles, studies[2].recorded);
}

TEST_F(ProjectExportTest, TheTableHoldsWhatTheReadingGives)
{
    ProjectFile project = demo();
    ASSERT_TRUE(exportProject(project, m_folder.path("e")));
    const auto tree = treeOf(m_folder.path("e"));
    const auto table = std::find_if(tree.begin(), tree.end(),
                                    [](const auto &file) { return file.first.ends_with("pieces.csv"); });
    ASSERT_NE(table, tree.end());
    EXPECT_TRUE(table->second.starts_with("piece,level,level_unit,orientation,material,width_mm"));
    EXPECT_NE(table->second.find("tensile_strength in MPa"), std::string::npos);
    EXPECT_EQ(table->second.find('\x02'), std::string::npos) << "no mark of the program itself is left";
}

TEST_F(ProjectExportTest, AFolderThatIsInUseIsLeftAlone)
{
    ProjectFile project = demo();
    fs::create_directory(m_folder.path("full"));
    m_folder.write("full/letter.txt", "Dear bees");
    const Status refused = exportProject(project, m_folder.path("full"));
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().message.find("choose another name"), std::string::npos);
    EXPECT_EQ(treeOf(m_folder.path("full")).size(), 1U);
    fs::create_directory(m_folder.path("empty"));
    EXPECT_TRUE(exportProject(project, m_folder.path("empty/"))) << "an empty folder will do";
    EXPECT_FALSE(exportProject(project, "/proc/none/there"));
}

TEST_F(ProjectExportTest, AStoppedExportLeavesNothing)
{
    ProjectFile project = demo();
    std::stop_source stop;
    std::size_t steps = 0;
    const Status status = exportProject(project, m_folder.path("e"), {}, stop.get_token(),
                                        [&](std::size_t done, std::size_t all) {
                                            steps = done;
                                            EXPECT_LE(done, all);
                                            if (done == 20)
                                                stop.request_stop();
                                        });
    ASSERT_FALSE(status);
    EXPECT_EQ(status.error().code, ErrorCode::Cancelled);
    EXPECT_EQ(steps, 20U);
    EXPECT_FALSE(fs::exists(m_folder.path("e")));
    EXPECT_FALSE(fs::exists(m_folder.path("e.part")));
}

TEST_F(ProjectExportTest, ATamperedExportIsRefusedInWords)
{
    EXPECT_NE(tampered("\"raw/", "\"../raw/").find("outside the folder"), std::string::npos);
    EXPECT_NE(tampered("\"raw/", "\"/etc/").find("outside the folder"), std::string::npos);
    EXPECT_NE(tampered("\"sha256\": \"", "\"sha256\": \"0").find("SHA-256 differs"), std::string::npos);
    EXPECT_NE(tampered("inch-peg export", "another format").find("no export of an Inch Peg project"),
              std::string::npos);
    EXPECT_NE(tampered("\"version\": 5", "\"version\": 9").find("newer Inch Peg"), std::string::npos);
    EXPECT_NE(
        tampered("\"orientation\": \"standing\"", "\"orientation\": \"askew\"").find("\"askew\" is none of"),
        std::string::npos);
    EXPECT_NE(tampered("\"raw_file\": ", "\"raw_file\": 99").find("raw file that is not there"),
              std::string::npos);
    // Found by fuzzing: a number that no id can hold was cut to one.
    EXPECT_NE(tampered("\"next_id\": ", "\"next_id\": 1e300, \"was\": ").find("no whole number"),
              std::string::npos);
    EXPECT_NE(tampered("\"studies\": [", "\"studios\": [").find("not readable as an export"),
              std::string::npos);
    EXPECT_NE(tampered("{", "").find("not readable as an export"), std::string::npos);
    EXPECT_NE(tampered("\"next_id\": ", "\"next_id\": -").find("next_id"), std::string::npos);
}

TEST_F(ProjectExportTest, NamesOfAllKindsDoNoHarm)
{
    Result<ProjectFile> project = ProjectFile::create(m_folder.path("odd.inchpeg"));
    ASSERT_TRUE(project);
    Study study;
    study.id = StudyId{project->takeId()};
    study.question = "../../etc/\x01pass\nwd \xE2\x80\xAEgpj" + std::string(300, 'Q');
    study.factors.front().name = "=cmd|' /C calc'!A0";
    firstTest(study).piecesPerCondition = 4;
    const IdSource ids = [&] { return project->takeId(); };
    ASSERT_TRUE(addCondition(study, {{}, {"=1+1"}, {}, "@sum, \"lot\"\n7"}, ids));
    const char *codes[] = {"../up", "a/b", "A/B", ".."};
    const std::string record = "force_N,extension_mm\n0,0\n1,0.1\n2,0.2\n3,0.3\n";
    for (std::size_t i = 0; i < 4; ++i) {
        study.pieces[i].code = codes[i];
        study.pieces[i].section = PlainArea{squareMillimetres(10)};
        const auto raw =
            project->addRawFile("/etc/../x\n" + std::string(i, 'y'), record + std::string(i, '\n'));
        ASSERT_TRUE(raw);
        study.pieces[i].recording = Recording{raw->id, {}};
    }
    study.pieces[0].exclusion = Exclusion{"+danger", "-me", "2026"};
    ASSERT_TRUE(project->save({std::nullopt, study}));
    ASSERT_TRUE(exportProject(*project, m_folder.path("e")));
    const auto tree = treeOf(m_folder.path("e"));
    EXPECT_EQ(tree.size(), 1U + 4U + 5U + 4U) << "project.json, raw files, five tables, curves";
    for (const auto &[path, bytes] : tree) {
        EXPECT_EQ(path.find(".."),
                  path.find("../") == std::string::npos ? path.find("..") : std::string::npos);
        for (const fs::path &part : fs::path(path))
            EXPECT_LE(part.string().size(), 90U) << path;
        EXPECT_EQ(path.find_first_of("\n\x01"), std::string::npos);
        EXPECT_EQ(path.find("\xE2\x80\xAE"), std::string::npos) << "no mark turns the direction of reading";
    }
    const auto table = std::find_if(tree.begin(), tree.end(),
                                    [](const auto &file) { return file.first.ends_with("pieces.csv"); });
    EXPECT_NE(table->second.find(",'=1+1,"), std::string::npos) << table->second;
    EXPECT_NE(table->second.find(",\"'@sum, \"\"lot\"\"\n7\","), std::string::npos);
    EXPECT_NE(table->second.find(",'+danger,"), std::string::npos);
    ASSERT_TRUE(importProject(m_folder.path("e"), m_folder.path("back.inchpeg")));
    EXPECT_EQ(*ProjectFile::open(m_folder.path("back.inchpeg"))->loadStudy(study.id), study);
}

TEST(ProjectText, AnExportOfVersionOneIsStillRead)
{
    const Result<ParsedProject> parsed = projectFromText(R"({"format":"inch-peg export","version":1,
        "created_at":"2026-11-25T10:00:00Z","next_id":10,"raw_files":[],"settings":{},"remembered_mappings":{},
        "studies":[{"id":1,"question":"q","method":"layer adhesion",
        "factor":{"name":"nozzle temperature","unit":"°C"},"reference":2,"smallest_difference":0.1,
        "pieces_per_condition":1,"section_shape":"rectangular",
        "rules":{"gauge_length_m":0.05,"grip_distance_m":null,"capacity_N":2000,"toe_correction":true,
        "modulus_from":0.0005,"modulus_to":0.0025,"offset_strain":0.002,"break_drop":0.5},
        "conditions":[{"id":2,"level":"230","orientation":"standing","material":"polyester"}],
        "pieces":[{"id":3,"code":"A1","condition":2,"section":null}]}]})");
    ASSERT_TRUE(parsed) << parsed.error().message;
    const Study &study = parsed->contents.studies.front();
    EXPECT_EQ(study.factors, (std::vector<Factor>{{"nozzle temperature", "°C", ChangedPer::Plate}}));
    EXPECT_EQ(study.conditions.front().levels, std::vector<std::string>{"230"});
    EXPECT_EQ(study.plan, Plan{});
}

TEST(SafeName, KeepsWhatPeopleReadAndNothingThatActs)
{
    EXPECT_EQ(safeFileName("Do hotter layers hold better?"), "Do hotter layers hold better_");
    EXPECT_EQ(safeFileName("Prüfung № 7"), "Prüfung № 7");
    EXPECT_EQ(safeFileName("a/b\\c:d"), "a_b_c_d");
    EXPECT_EQ(safeFileName(".hidden"), "hidden");
    EXPECT_EQ(safeFileName("..  .."), "unnamed");
    EXPECT_EQ(safeFileName(""), "unnamed");
    EXPECT_EQ(safeFileName("ends. "), "ends");
    const std::string cut = safeFileName("a" + std::string(39, 'b') + "ü" + std::string(38, 'c') + "ü");
    EXPECT_EQ(cut.size(), 80U);
    EXPECT_EQ(safeFileName(std::string(79, 'a') + "ü").size(), 79U) << "no half character is left";
    EXPECT_EQ(safeFileName("\xFF\xC3"), std::string("\xFF\xC3")) << "bytes that are no text stay bytes";
}

TEST(CsvText, FormulasAreTakenTheirForce)
{
    EXPECT_EQ(csvText("plain"), "plain");
    EXPECT_EQ(csvText("=1+1"), "'=1+1");
    EXPECT_EQ(csvText("-5 slipped"), "'-5 slipped");
    EXPECT_EQ(csvText("\tx"), "\"'\tx\"");
    EXPECT_EQ(csvText("a,b"), "\"a,b\"");
    EXPECT_EQ(csvText("say \"no\""), "\"say \"\"no\"\"\"");
    EXPECT_EQ(csvText(""), "");
}

} // namespace inchpeg
