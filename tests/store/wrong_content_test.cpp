// SPDX-License-Identifier: GPL-3.0-or-later
// Projects whose bytes are sound and whose content is not: a wrong reference, a test that is none, an id too
// low.
#include "service/project_check.h"
#include "service/project_export.h"
#include "service/project_results.h"
#include "store/project_file.h"
#include "support/study_builder.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>

#include <filesystem>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;

enum class Opening { Refused, Mended, AsItIs };

struct WrongContent {
    const char *name;
    const char *sql;
    const char *verifySays;
    Opening opening;
};

constexpr WrongContent kAll[] = {
    {"piece on another study's rail",
     "UPDATE piece SET condition_id = (SELECT MAX(id) FROM study_condition) WHERE id = (SELECT MIN(id) FROM "
     "piece)",
     "which is no rail of its study", Opening::Refused},
    {"piece on no rail", "UPDATE piece SET condition_id = 9999 WHERE id = (SELECT MIN(id) FROM piece)",
     "rail 9999", Opening::Refused},
    {"rail of no study",
     "UPDATE study_condition SET study_id = 9999 WHERE id = (SELECT MIN(id) FROM study_condition)",
     "refers to the study 9999", Opening::Refused},
    {"rail without levels",
     "DELETE FROM condition_level WHERE condition_id = (SELECT MIN(id) FROM study_condition)",
     "0 levels for 1 factors", Opening::Refused},
    {"unknown reference", "UPDATE study SET reference_id = 9999", "is no rail of the study", Opening::Mended},
    {"difference below zero", "UPDATE study SET smallest_difference = -0.5", "-0.5", Opening::Mended},
    {"test that is none", "UPDATE study_test SET method = 'divination'", "divination", Opening::Refused},
    {"no test", "DELETE FROM study_test", "no test", Opening::Refused},
    {"no factor", "DELETE FROM study_factor", "0 factors", Opening::Refused},
    {"piece of another test", "UPDATE piece SET test = 'creep'", "no test of its study", Opening::Refused},
    {"piece of no test", "UPDATE piece SET test = 'divination'", "divination", Opening::Refused},
    {"plan that cannot be read", "UPDATE study SET plan = '{\"rounds\": 7'", "plan", Opening::Refused},
    {"log that cannot be read", "UPDATE study SET log = '[]]'", "log", Opening::Refused},
    {"piece's log that cannot be read", "UPDATE piece SET log = 'x'", "piece A1", Opening::Refused},
    {"setup that cannot be read", "UPDATE study_test SET setup = 'x'", "test", Opening::Refused},
    {"columns that cannot be read", "UPDATE piece SET column_mapping = '{{' WHERE raw_file_id IS NOT NULL",
     "column mapping", Opening::Refused},
    {"orientation that is none", "UPDATE study_condition SET orientation = 'sideways'", "sideways",
     Opening::Refused},
    {"shape that is none", "UPDATE study SET section_shape = 'star'", "star", Opening::Refused},
    {"section of no size", "UPDATE piece SET width_m = 0, thickness_m = -1", "no size", Opening::Mended},
    {"marker that is none",
     "INSERT INTO hand_marker SELECT MIN(id), 'nonsense', 1.0, 'r', 'me', 'then' FROM piece", "nonsense",
     Opening::Refused},
    {"marker of no piece", "INSERT INTO hand_marker VALUES (9999, 'strength', 1.0, 'r', 'me', 'then')",
     "refers to the piece 9999", Opening::AsItIs},
    {"photo of no piece", "INSERT INTO photo SELECT 9999, 0, MIN(id), 'c', 'me', 'then' FROM raw_file",
     "refers to the piece 9999", Opening::AsItIs},
    {"record that is not there", "UPDATE piece SET raw_file_id = 9999 WHERE raw_file_id IS NOT NULL",
     "refers to the raw file 9999", Opening::AsItIs},
    {"ids too low", "UPDATE meta SET value = '1' WHERE name = 'next_id'", "next id", Opening::AsItIs},
    {"size told wrongly", "UPDATE raw_file SET size_bytes = size_bytes + 1", "size is told wrongly",
     Opening::AsItIs},
    {"remembered columns", "INSERT INTO remembered_mapping VALUES ('a;b', '{{')", "cannot be",
     Opening::AsItIs},
    {"workshop", "INSERT INTO setting VALUES ('workshop', '{{')", "workshop", Opening::AsItIs},
    {"needs", "INSERT INTO setting VALUES ('needs', '{{')", "cannot be", Opening::AsItIs},
    {"history of no study",
     "INSERT INTO logged_change VALUES (800, 9999, NULL, 'note', '', 'x', 'me', 'then')",
     "refers to the study 9999", Opening::AsItIs},
};

class WrongContents : public testing::TestWithParam<WrongContent>
{
protected:
    void SetUp() override
    {
        Result<ProjectFile> project = ProjectFile::create(m_path);
        ASSERT_TRUE(project);
        const IdSource ids = [&] { return project->takeId(); };
        for (const char *question : {"first", "second"}) {
            Study study;
            study.id = StudyId{ids()};
            study.question = question;
            study.factors.front() = {"nozzle temperature", "°C", ChangedPer::Plate};
            firstTest(study).piecesPerCondition = 2;
            ASSERT_TRUE(addCondition(study, {{}, {"230"}, Orientation::Flat, "polyester"}, ids));
            ASSERT_TRUE(addCondition(study, {{}, {"250"}, Orientation::Flat, "polyester"}, ids));
            const Result<AddedRawFile> raw =
                project->addRawFile("a.csv", std::string("force_N,extension_mm\n0,0\n1,1\n2,2\n") + question);
            study.pieces[0].recording = Recording{raw->id, {}};
            study.pieces[0].section = RectangularSection{millimetres(10.0), millimetres(4.0)};
            ASSERT_TRUE(project->save({std::nullopt, study}));
        }
    }

    test::TemporaryFolder m_folder;
    std::string m_path = m_folder.path("p.inchpeg");
};

} // namespace

TEST_P(WrongContents, IsNamedByVerifyAndMendedOrRefusedByOpening)
{
    {
        Database database(m_path, Database::Access::ReadWrite);
        database.execute(QStringLiteral("PRAGMA foreign_keys = OFF"));
        database.execute(QString::fromUtf8(GetParam().sql));
    }
    Result<ProjectFile> project = ProjectFile::open(m_path);
    ASSERT_TRUE(project) << project.error().message << ": the project itself opens";
    const Result<ProjectCheck> check = verifyProject(*project);
    ASSERT_TRUE(check) << check.error().message;
    const bool isNamed =
        std::any_of(check->findings.begin(), check->findings.end(), [](const std::string &finding) {
            return finding.find(GetParam().verifySays) != std::string::npos;
        });
    EXPECT_TRUE(isNamed) << testing::PrintToString(check->findings);
    const Result<std::vector<StudyHeader>> studies = project->studies();
    ASSERT_TRUE(studies) << studies.error().message;
    ASSERT_EQ(studies->size(), 2U) << "both are listed";
    const Result<MendedStudy> first = project->loadMended(studies->front().id);
    switch (GetParam().opening) {
    case Opening::Refused:
        ASSERT_FALSE(first);
        EXPECT_NE(first.error().message.find("first"), std::string::npos) << first.error().message;
        break;
    case Opening::Mended:
        ASSERT_TRUE(first) << first.error().message;
        EXPECT_FALSE(first->mended.empty());
        break;
    case Opening::AsItIs:
        ASSERT_TRUE(first) << first.error().message;
        EXPECT_TRUE(first->mended.empty());
    }
    // What is made of a project gives a sentence or a result, and goes on.
    const Result<ProjectResults> results = readProjectResults(*project);
    EXPECT_TRUE(results || !results.error().message.empty());
    const Status exported = exportProject(*project, m_folder.path("e"));
    EXPECT_TRUE(exported || !exported.error().message.empty());
    if (GetParam().opening == Opening::Refused) {
        EXPECT_FALSE(exported) << "half a project is no export";
    }
    // No id is given twice.
    const std::int64_t id = project->takeId();
    for (const StudyHeader &header : *studies)
        EXPECT_NE(header.id.value, id);
}

INSTANTIATE_TEST_SUITE_P(Kinds, WrongContents, testing::ValuesIn(kAll),
                         [](const testing::TestParamInfo<WrongContent> &kind) {
                             std::string name;
                             for (const char c : std::string(kind.param.name))
                                 name += std::isalnum(static_cast<unsigned char>(c)) != 0 ? c : '_';
                             return name;
                         });

} // namespace inchpeg
