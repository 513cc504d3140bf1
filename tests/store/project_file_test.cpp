// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project_file.h"
#include "store/schema.h"
#include "support/as_nobody.h"
#include "support/study_builder.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>

#include <csignal>
#include <sys/resource.h>
#include <sys/stat.h>

namespace inchpeg
{

namespace
{

using test::bytesOf;

/// A study that uses every column there is; takes its ids from the project.
Study fullStudy(ProjectFile &project)
{
    Study study;
    study.id = StudyId{project.takeId()};
    study.question = "Does “hot” hold better? – ü";
    firstTest(study).method = Method::LayerAdhesion;
    study.factors.front().name = "nozzle temperature";
    study.factors.front().unit = "°C";
    study.smallestDifference = 0.1;
    firstTest(study).piecesPerCondition = 4;
    firstTest(study).setup.settings = {
        {{"gauge_length", 25.4}, {"capacity", 1961.33}, {"break_drop", 1.0 / 3.0}}, {{"toe", "off"}}};
    const IdSource ids = [&] { return project.takeId(); };
    EXPECT_TRUE(addCondition(study, {{}, {"230"}, Orientation::Standing, "polyester, lot 7"}, ids));
    EXPECT_TRUE(addCondition(study, {{}, {"245"}, Orientation::Flat, {}}, ids));
    study.pieces[0].section = RectangularSection{millimetres(10.02), millimetres(3.97)};
    study.pieces[1].section = RoundSection{millimetres(5.13)};
    study.pieces[2].section = PlainArea{squareMillimetres(12.34)};
    study.pieces[3].exclusion = Exclusion{"slipped; then \"cracked\"", "me", "2026-05-01T10:00:00Z"};
    return study;
}

Result<ProjectFile> reopened(ProjectFile project)
{
    const std::string path = project.path();
    {
        const ProjectFile closing = std::move(project);
    }
    return ProjectFile::open(path);
}

void expectRefused(const std::string &path, std::string_view says)
{
    const std::string before = bytesOf(path);
    const Result<ProjectFile> project = ProjectFile::open(path);
    ASSERT_FALSE(project) << path;
    EXPECT_NE(project.error().message.find(says), std::string::npos) << project.error().message;
    EXPECT_NE(project.error().message.find(path), std::string::npos)
        << "names the file: " << project.error().message;
    EXPECT_EQ(bytesOf(path), before) << "a refused file is not changed";
    EXPECT_FALSE(std::filesystem::exists(path + "-wal")) << "nothing is left beside it";
}

/// Files may not grow beyond this many bytes, as on a full disk.
class FullDisk
{
public:
    explicit FullDisk(rlim_t bytes)
    {
        ::getrlimit(RLIMIT_FSIZE, &m_before);
        m_signal = std::signal(SIGXFSZ, SIG_IGN);
        const rlimit tight{bytes, m_before.rlim_max};
        ::setrlimit(RLIMIT_FSIZE, &tight);
    }
    ~FullDisk()
    {
        ::setrlimit(RLIMIT_FSIZE, &m_before);
        std::signal(SIGXFSZ, m_signal);
    }
    FullDisk(const FullDisk &) = delete;
    FullDisk &operator=(const FullDisk &) = delete;

private:
    rlimit m_before{};
    void (*m_signal)(int) = nullptr;
};

class ProjectFileTest : public testing::Test
{
protected:
    test::TemporaryFolder m_folder;
    std::string m_path = m_folder.path("p.inchpeg");

    ProjectFile created()
    {
        Result<ProjectFile> project = ProjectFile::create(m_path);
        EXPECT_TRUE(project) << (project ? "" : project.error().message);
        return std::move(*project);
    }
};

} // namespace

TEST_F(ProjectFileTest, AStudyComesBackBitForBit)
{
    ProjectFile project = created();
    Study study = fullStudy(project);
    const Result<AddedRawFile> raw = project.addRawFile("a.csv", "force_N\n1\n2\n");
    ASSERT_TRUE(raw);
    study.pieces[0].recording = Recording{raw->id, {{}, {{ColumnQuantity::Force, "kgf", false}, {}}}};
    study.pieces[0].markers = {{"toe", {-0.0001, "slack", "me", "2026-05-01T10:00:00Z"}},
                               {"yield", {std::nullopt, "none; \"seen\"", "me", "2026-05-01T10:00:00Z"}},
                               {"break", {17.0, "slip", "you", "2026-05-02T10:00:00Z"}}};
    ASSERT_TRUE(project.save({std::nullopt, study}));
    Result<ProjectFile> again = reopened(std::move(project));
    ASSERT_TRUE(again);
    const Result<Study> loaded = again->loadStudy(study.id);
    ASSERT_TRUE(loaded);
    EXPECT_EQ(*loaded, study);
}

TEST_F(ProjectFileTest, SavingAChangeWritesWhatDiffers)
{
    ProjectFile project = created();
    const Study before = fullStudy(project);
    ASSERT_TRUE(project.save({std::nullopt, before}));
    Study after = before;
    after.question = "Another?";
    after.pieces[1].section.reset();
    after.pieces[2].markers["strength"] = {3.0, "why", "me", "2026-05-01T10:00:00Z"};
    firstTest(after).setup.settings.numbers["break_drop"] = 0.3;
    after.pieces[3].exclusion.reset();
    ASSERT_TRUE(setReference(after, after.conditions[1].id));
    ASSERT_TRUE(setPiecesPerCondition(after, Method::LayerAdhesion, 5, [&] { return project.takeId(); }));
    std::erase_if(after.pieces, [](const Piece &piece) { return piece.code == "B2"; });
    ASSERT_TRUE(project.save({before, after}));
    EXPECT_EQ(*project.loadStudy(before.id), after);
    ASSERT_TRUE(project.save({after, before})) << "as undo does";
    EXPECT_EQ(*project.loadStudy(before.id), before);
}

TEST_F(ProjectFileTest, RemovingAStudyLeavesTheRawData)
{
    ProjectFile project = created();
    Study study = fullStudy(project);
    const Result<AddedRawFile> raw = project.addRawFile("a.csv", "1\n2\n");
    study.pieces[0].recording = Recording{raw->id, {}};
    ASSERT_TRUE(project.save({std::nullopt, study}));
    ASSERT_TRUE(project.save({study, std::nullopt}));
    EXPECT_TRUE(project.studies()->empty());
    EXPECT_EQ(*project.rawBytes(raw->id), "1\n2\n");
    EXPECT_FALSE(project.loadStudy(study.id));
}

TEST_F(ProjectFileTest, RawBytesAreKeptOnceAndAsTheyCame)
{
    ProjectFile project = created();
    const std::string bytes("\xFF\xFE\0\x01 binary \r\n\0", 14);
    const Result<AddedRawFile> first = project.addRawFile("one.csv", bytes);
    const Result<AddedRawFile> second = project.addRawFile("two.csv", bytes);
    ASSERT_TRUE(first && second);
    EXPECT_FALSE(first->wasThere);
    EXPECT_TRUE(second->wasThere);
    EXPECT_EQ(first->id, second->id);
    EXPECT_EQ(*project.rawBytes(first->id), bytes);
    // Reference: FIPS 180-4, SHA-256 of "abc".
    EXPECT_EQ(sha256Of("abc"), "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
}

TEST_F(ProjectFileTest, IdsAreNeverGivenTwice)
{
    ProjectFile project = created();
    const Study study = fullStudy(project);
    ASSERT_TRUE(project.save({std::nullopt, study}));
    const std::int64_t last = study.pieces.back().id.value;
    Result<ProjectFile> again = reopened(std::move(project));
    EXPECT_GT(again->takeId(), last);
}

TEST_F(ProjectFileTest, SettingsAndMappingsAreKept)
{
    ProjectFile project = created();
    ASSERT_TRUE(project.setSetting("view", "{\"lens\":\"read\"}"));
    ASSERT_TRUE(project.setSetting("view", "{\"lens\":\"log\"}"));
    const ColumnMapping mapping{{}, {{ColumnQuantity::Force, "lbf", false}, {}}};
    ASSERT_TRUE(project.rememberMapping("44|.|f[]|x[]", mapping));
    Result<ProjectFile> again = reopened(std::move(project));
    EXPECT_EQ(**again->setting("view"), "{\"lens\":\"log\"}");
    EXPECT_FALSE(again->setting("nothing")->has_value());
    EXPECT_EQ(*again->rememberedMapping("44|.|f[]|x[]"), mapping);
    EXPECT_TRUE(again->rememberedMapping("other")->empty());
}

TEST_F(ProjectFileTest, VerifyFindsATamperedRawFile)
{
    {
        ProjectFile project = created();
        ASSERT_TRUE(project.addRawFile("a.csv", "force_N\n1\n2\n"));
        const Result<ProjectCheck> clean = project.verify();
        EXPECT_TRUE(clean->databaseOk);
        EXPECT_EQ(clean->rawFilesChecked, 1U);
        EXPECT_TRUE(clean->findings.empty());
    }
    {
        Database database(m_path, Database::Access::ReadWrite);
        database.execute(QStringLiteral("UPDATE raw_file SET content = x'00'"));
    }
    Result<ProjectFile> project = ProjectFile::open(m_path);
    const Result<ProjectCheck> check = project->verify();
    ASSERT_EQ(check->findings.size(), 1U);
    EXPECT_NE(check->findings[0].find("a.csv"), std::string::npos);
}

TEST_F(ProjectFileTest, DoesNotOverwriteAnExistingFile)
{
    const std::string path = m_folder.write("notes.txt", "keep me");
    EXPECT_FALSE(ProjectFile::create(path));
    EXPECT_EQ(bytesOf(path), "keep me");
}

TEST_F(ProjectFileTest, WhatIsNoProjectIsRefusedUnchanged)
{
    EXPECT_EQ(ProjectFile::open(m_folder.path("missing")).error().code, ErrorCode::NotFound);
    EXPECT_NE(ProjectFile::open(m_folder.path("")).error().message.find("folder"), std::string::npos);
    expectRefused(
        m_folder.write("text",
                       "just words, and enough of them to be longer than any header would ever have to be…"),
        "is not an Inch Peg project");
    expectRefused(m_folder.write("empty", ""), "is empty");
    expectRefused(m_folder.write("short", "SQLite format 3"), "is cut short");
}

TEST_F(ProjectFileTest, AnotherProgramsDatabaseIsRefusedUnchanged)
{
    const std::string path = m_folder.path("other.db");
    {
        Database other(path, Database::Access::ReadWrite);
        other.execute(QStringLiteral("CREATE TABLE bees (name TEXT)"));
        other.execute(QStringLiteral("INSERT INTO bees VALUES ('Maud')"));
    }
    expectRefused(path, "belongs to another program");
    const std::string withMeta = m_folder.path("meta.db");
    {
        Database other(withMeta, Database::Access::ReadWrite);
        other.execute(QStringLiteral("CREATE TABLE meta (name TEXT, value TEXT)"));
    }
    expectRefused(withMeta, "belongs to another program");
}

TEST_F(ProjectFileTest, ANewerProjectIsRefusedUnchanged)
{
    created();
    {
        Database database(m_path, Database::Access::ReadWrite);
        database.execute(QStringLiteral("UPDATE meta SET value = '%1' WHERE name = 'schema_version'")
                             .arg(kSchemaVersion + 1));
    }
    expectRefused(m_path, "newer Inch Peg");
}

TEST_F(ProjectFileTest, AProjectCutInHalfIsRefusedUnchanged)
{
    {
        ProjectFile project = created();
        ASSERT_TRUE(project.save({std::nullopt, fullStudy(project)}));
        ASSERT_TRUE(project.addRawFile("a.csv", std::string(300000, 'x')));
    }
    const std::string whole = bytesOf(m_path);
    expectRefused(m_folder.write("half.inchpeg", whole.substr(0, whole.size() / 2)), "is cut short");
}

TEST_F(ProjectFileTest, DamageInsideIsFoundByVerifyOrRefused)
{
    {
        ProjectFile project = created();
        ASSERT_TRUE(project.save({std::nullopt, fullStudy(project)}));
        ASSERT_TRUE(project.addRawFile("a.csv", std::string(50000, 'x')));
    }
    std::string bytes = bytesOf(m_path);
    for (std::size_t i = 4096; i < bytes.size(); i += 97)
        bytes[i] = '\x5A';
    const std::string path = m_folder.write("damaged.inchpeg", bytes);
    Result<ProjectFile> project = ProjectFile::open(path);
    if (project) {
        const Result<ProjectCheck> check = project->verify();
        EXPECT_TRUE(!check || !check->findings.empty());
    } else {
        EXPECT_EQ(project.error().code, ErrorCode::Storage);
    }
}

TEST_F(ProjectFileTest, AReadOnlyFolderGetsASentence)
{
    const std::string folder = m_folder.path("locked");
    std::filesystem::create_directory(folder);
    ::chmod(m_folder.path("").c_str(), 0755);
    {
        Result<ProjectFile> project = ProjectFile::create(folder + "/there.inchpeg");
        ASSERT_TRUE(project);
    }
    ::chmod((folder + "/there.inchpeg").c_str(), 0444);
    ::chmod(folder.c_str(), 0555);
    const test::AsNobody nobody;
    const Result<ProjectFile> made = ProjectFile::create(folder + "/new.inchpeg");
    ASSERT_FALSE(made);
    EXPECT_NE(made.error().message.find("choose a folder that you may write to"), std::string::npos)
        << made.error().message;
    const Result<ProjectFile> opened = ProjectFile::open(folder + "/there.inchpeg");
    ASSERT_FALSE(opened);
    EXPECT_EQ(opened.error().code, ErrorCode::Storage) << opened.error().message;
}

TEST_F(ProjectFileTest, AFullDiskLosesNothingThatWasSaved)
{
    ProjectFile project = created();
    const Study study = fullStudy(project);
    ASSERT_TRUE(project.save({std::nullopt, study}));
    const Result<AddedRawFile> kept = project.addRawFile("kept.csv", "1\n2\n");
    {
        const FullDisk full(300000);
        const Result<AddedRawFile> refused = project.addRawFile("large.csv", std::string(3000000, 'x'));
        ASSERT_FALSE(refused);
        EXPECT_EQ(refused.error().code, ErrorCode::Storage);
        EXPECT_NE(refused.error().message.find("nothing that was saved is lost"), std::string::npos)
            << refused.error().message;
    }
    EXPECT_EQ(*project.loadStudy(study.id), study);
    Result<ProjectFile> again = reopened(std::move(project));
    ASSERT_TRUE(again);
    EXPECT_TRUE(again->verify()->findings.empty());
    EXPECT_EQ(*again->rawBytes(kept->id), "1\n2\n");
    EXPECT_TRUE(again->addRawFile("large.csv", std::string(3000000, 'x')))
        << "works again once there is room";
}

TEST_F(ProjectFileTest, TheKeptProjectOfEachVersionStillOpens)
{
    // tests/data/project_v1.inchpeg was written by version 0.1.0 and is never written again.
    std::filesystem::copy_file(INCHPEG_TEST_DATA "/project_v1.inchpeg", m_path);
    Result<ProjectFile> project = ProjectFile::open(m_path);
    ASSERT_TRUE(project) << project.error().message;
    const Result<std::vector<StudyHeader>> studies = project->studies();
    ASSERT_EQ(studies->size(), 1U);
    const Result<Study> study = project->loadStudy(studies->front().id);
    ASSERT_TRUE(study);
    EXPECT_EQ(study->question, "Does the kept project open?");
    ASSERT_EQ(study->pieces.size(), 4U);
    EXPECT_EQ(study->pieces[0].section, Section(RectangularSection{millimetres(10.02), millimetres(3.97)}));
    EXPECT_EQ(*project->rawBytes(study->pieces[0].recording->file),
              "force_N,extension_mm\n0,0\n10,0.1\n20,0.2\n");
    EXPECT_EQ(study->pieces[3].exclusion->reason, "slipped");
    EXPECT_TRUE(project->verify()->findings.empty());
}

TEST_F(ProjectFileTest, TheKeptProjectOfVersionTwoStillOpens)
{
    // tests/data/project_v2.inchpeg was written by version 0.1.0 of 2026-11-25 and is never written again.
    std::filesystem::copy_file(INCHPEG_TEST_DATA "/project_v2.inchpeg", m_path);
    Result<ProjectFile> project = ProjectFile::open(m_path);
    ASSERT_TRUE(project) << project.error().message;
    const Result<Study> study = project->loadStudy(project->studies()->front().id);
    ASSERT_TRUE(study);
    EXPECT_EQ(study->question, "Does the kept project of version 2 open?");
    EXPECT_EQ(firstTest(*study).setup.settings.number("modulus_from"), 0.001);
    EXPECT_EQ(firstTest(*study).setup.settings.number("break_drop"), 0.4);
    const HandMarkers wanted = {{"toe", {0.0005, "slack", "me", "2026-11-25T10:00:00Z"}},
                                {"yield", {std::nullopt, "none seen", "me", "2026-11-25T10:00:00Z"}}};
    EXPECT_EQ(study->pieces[0].markers, wanted);
}

TEST_F(ProjectFileTest, TheKeptProjectOfVersionThreeStillOpens)
{
    // tests/data/project_v3.inchpeg was written by version 0.1.0 of 2026-11-25 and is never written again.
    std::filesystem::copy_file(INCHPEG_TEST_DATA "/project_v3.inchpeg", m_path);
    Result<ProjectFile> project = ProjectFile::open(m_path);
    ASSERT_TRUE(project) << project.error().message;
    const Result<Study> study = project->loadStudy(project->studies()->front().id);
    ASSERT_TRUE(study) << study.error().message;
    EXPECT_EQ(study->question, "Does the kept project of version 3 open?");
    EXPECT_EQ(firstTest(*study).method, Method::Bending);
    EXPECT_EQ(study->factors,
              (std::vector<Factor>{{"walls", "", ChangedPer::Piece}, {"infill", "%", ChangedPer::Piece}}));
    ASSERT_EQ(study->conditions.size(), 4U);
    EXPECT_EQ(study->conditions[3].levels, (std::vector<std::string>{"4", "100"}));
    EXPECT_EQ(study->plan.aim.comparison, Comparison::AllPairs);
    EXPECT_EQ(study->plan.print.seed, 42U);
    EXPECT_EQ(firstTest(*study).setup.property, "flexural_modulus");
    EXPECT_EQ(study->plan.confirmed.front().who, "me");
    EXPECT_TRUE(project->verify()->findings.empty());
}

TEST_F(ProjectFileTest, FactorsPlansAndFurtherTestsComeBackAsTheyWereSaved)
{
    Result<ProjectFile> project = ProjectFile::create(m_path);
    ASSERT_TRUE(project);
    const IdSource ids = [&] { return project->takeId(); };
    Study study;
    study.id = StudyId{ids()};
    study.question = "q";
    firstTest(study).method = Method::Impact;
    study.factors = {{"speed", "mm/s", ChangedPer::Piece}, {"annealing", "", ChangedPer::AfterPrint}};
    firstTest(study).piecesPerCondition = 2;
    study.tests.push_back({Method::Creep, 1, {}});
    ASSERT_TRUE(addCondition(study, {{}, {"50", "as printed"}, {}, "styrenic"}, ids));
    ASSERT_TRUE(addCondition(study, {{}, {"50", "annealed"}, {}, "styrenic"}, ids));
    ASSERT_EQ(study.pieces.size(), 6U);
    ASSERT_TRUE(project->save({std::nullopt, study}));
    EXPECT_EQ(*project->loadStudy(study.id), study);
    const Study before = study;
    ASSERT_TRUE(addFactor(study, {"lot", "", ChangedPer::Plate}, "Meadow 3"));
    ASSERT_TRUE(changeFactor(study, 0, {"speed", "mm/s", ChangedPer::Plate}));
    study.plan.print.printed.push_back({1, 1, "now", {{study.pieces[0].id, 1.0, 2.0, 3.0, 4.0, 5}}});
    ASSERT_TRUE(project->save({before, study}));
    EXPECT_EQ(*project->loadStudy(study.id), study);
    const Study wide = study;
    ASSERT_TRUE(removeFactor(study, 2));
    ASSERT_TRUE(removeCondition(study, study.conditions.back().id));
    ASSERT_TRUE(project->save({wide, study}));
    EXPECT_EQ(*project->loadStudy(study.id), study);
    ASSERT_TRUE(project->save({study, std::nullopt}));
    EXPECT_FALSE(project->loadStudy(study.id));
}

TEST_F(ProjectFileTest, AnOlderProjectGetsTheUsualRulesAndNoMarkers)
{
    std::filesystem::copy_file(INCHPEG_TEST_DATA "/project_v1.inchpeg", m_path);
    const std::string before = bytesOf(m_path);
    const Result<ProjectFile> looked = ProjectFile::openForReading(m_path);
    ASSERT_FALSE(looked) << "it would have to be brought up to date first";
    EXPECT_NE(looked.error().message.find("older format"), std::string::npos) << looked.error().message;
    EXPECT_EQ(bytesOf(m_path), before);
    Result<ProjectFile> project = ProjectFile::open(m_path);
    ASSERT_TRUE(project);
    const Result<Study> study = project->loadStudy(project->studies()->front().id);
    ASSERT_TRUE(study);
    for (const char *rule : {"modulus_from", "modulus_to", "offset", "break_drop"})
        EXPECT_FALSE(firstTest(*study).setup.settings.contains(rule)) << rule << " is the usual one";
    EXPECT_EQ(project->info()->schemaVersion, kSchemaVersion);
}

TEST_F(ProjectFileTest, OpenForReadingShowsAllAndWritesNothing)
{
    Study study;
    {
        ProjectFile project = created();
        study = fullStudy(project);
        ASSERT_TRUE(project.save({std::nullopt, study}));
    }
    const std::string before = bytesOf(m_path);
    {
        Result<ProjectFile> project = ProjectFile::openForReading(m_path);
        ASSERT_TRUE(project) << project.error().message;
        EXPECT_TRUE(project->isForReading());
        EXPECT_EQ(*project->loadStudy(study.id), study);
        Study changed = study;
        changed.question = "changed";
        EXPECT_FALSE(project->save({study, changed}));
        EXPECT_FALSE(project->addRawFile("a", "1\n2\n"));
        EXPECT_FALSE(project->setSetting("a", "b"));
        EXPECT_FALSE(project->compact());
    }
    EXPECT_EQ(bytesOf(m_path), before);
}

TEST_F(ProjectFileTest, OpenForReadingSeesWhatAnotherHasJustWritten)
{
    ProjectFile writing = created();
    const Study study = fullStudy(writing);
    ASSERT_TRUE(writing.save({std::nullopt, study}));
    Result<ProjectFile> reading = ProjectFile::openForReading(m_path);
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_EQ(*reading->loadStudy(study.id), study);
}

TEST_F(ProjectFileTest, CompactingRemovesOnlyWhatNoPieceRefersTo)
{
    ProjectFile project = created();
    Study study = fullStudy(project);
    const Result<AddedRawFile> used = project.addRawFile("used.csv", "1\n2\n");
    const Result<AddedRawFile> unused = project.addRawFile("unused.csv", std::string(2000000, 'x'));
    study.pieces[0].recording = Recording{used->id, {}};
    ASSERT_TRUE(project.save({std::nullopt, study}));
    EXPECT_EQ(project.unusedRawFiles()->files, 1U);
    EXPECT_EQ(project.unusedRawFiles()->bytes, 2000000);
    ASSERT_TRUE(project.compact());
    EXPECT_EQ(*project.rawBytes(used->id), "1\n2\n");
    EXPECT_FALSE(project.rawBytes(unused->id));
    Result<ProjectFile> again = reopened(std::move(project));
    ASSERT_TRUE(again);
    EXPECT_LT(std::filesystem::file_size(m_path), 1000000U) << "the room is given back";
    EXPECT_EQ(*again->loadStudy(study.id), study);
}

TEST_F(ProjectFileTest, ARestoreWithOtherBytesLeavesNothingBehind)
{
    ProjectContents contents;
    contents.nextId = 2;
    contents.rawFiles = {{RawFileId{1}, "a.csv", sha256Of("what was exported"), 17, "2026-01-01T00:00:00Z"}};
    const Result<ProjectFile> project = ProjectFile::restore(
        m_path, contents, [](const RawFileInfo &) { return Result<std::string>("something else"); });
    ASSERT_FALSE(project);
    EXPECT_NE(project.error().message.find("SHA-256 differs"), std::string::npos) << project.error().message;
    EXPECT_FALSE(std::filesystem::exists(m_path));
}

TEST_F(ProjectFileTest, AClockThatWasSetBackDoesNoHarm)
{
    // Ids, order and what is newest never come from the clock: a study saved "earlier" is still the later
    // one.
    ProjectFile project = created();
    Study first = fullStudy(project);
    first.pieces[3].exclusion->when = "2031-01-01T00:00:00Z";
    ASSERT_TRUE(project.save({std::nullopt, first}));
    Study second = fullStudy(project);
    second.pieces[3].exclusion->when = "1999-01-01T00:00:00Z";
    ASSERT_TRUE(project.save({std::nullopt, second}));
    Result<ProjectFile> again = reopened(std::move(project));
    ASSERT_TRUE(again);
    const Result<std::vector<StudyHeader>> studies = again->studies();
    ASSERT_EQ(studies->size(), 2U);
    EXPECT_EQ(studies->at(0).id, first.id);
    EXPECT_EQ(studies->at(1).id, second.id);
    EXPECT_GT(again->takeId(), second.pieces.back().id.value);
}

TEST_F(ProjectFileTest, ALostFolderIsToldAndNothingIsWrittenIntoTheVoid)
{
    std::filesystem::create_directory(m_folder.path("share"));
    const std::string path = m_folder.path("share/p.inchpeg");
    Result<ProjectFile> project = ProjectFile::create(path);
    ASSERT_TRUE(project);
    const Study before = fullStudy(*project);
    ASSERT_TRUE(project->save({std::nullopt, before}));
    std::filesystem::rename(m_folder.path("share"),
                            m_folder.path("gone")); // as when a network folder goes away
    Study after = before;
    after.question = "changed";
    for (const Status &status : {project->save({before, after}), project->setSetting("a", "b"),
                                 project->rememberMapping("a", {}), project->compact()}) {
        ASSERT_FALSE(status);
        EXPECT_EQ(status.error().code, ErrorCode::Storage);
        EXPECT_NE(status.error().message.find("no longer in its place"), std::string::npos)
            << status.error().message;
    }
    EXPECT_FALSE(project->addRawFile("a", "1\n2\n"));
    EXPECT_EQ(*project->loadStudy(before.id), before);
    std::filesystem::rename(m_folder.path("gone"), m_folder.path("share"));
    EXPECT_TRUE(project->save({before, after})) << "goes on once it is back";
    EXPECT_EQ(*project->loadStudy(before.id), after);
}

// Bytes that are not those that came in are told wherever they are read: reading, photos, export.
TEST_F(ProjectFileTest, RawBytesThatChangedAreNotHandedOut)
{
    std::optional<RawFileId> id;
    {
        ProjectFile project = created();
        id = project.addRawFile("a.csv", "force_N\n1\n2\n")->id;
    }
    {
        Database database(m_path, Database::Access::ReadWrite);
        database.execute(QStringLiteral("UPDATE raw_file SET content = x'00'"));
    }
    Result<ProjectFile> project = ProjectFile::open(m_path);
    const Result<std::string> bytes = project->rawBytes(*id);
    ASSERT_FALSE(bytes);
    EXPECT_NE(bytes.error().message.find("\"a.csv\" no longer holds the bytes"), std::string::npos)
        << bytes.error().message;
}

TEST_F(ProjectFileTest, ADamagedPlanIsToldInWordsAndTheOtherStudiesOpen)
{
    StudyId good, bad;
    {
        ProjectFile project = created();
        Study study = fullStudy(project);
        bad = study.id;
        ASSERT_TRUE(project.save({std::nullopt, study}));
        Study other;
        other.id = StudyId{project.takeId()};
        other.question = "Another one?";
        good = other.id;
        ASSERT_TRUE(project.save({std::nullopt, other}));
    }
    std::string nested(200000, '[');
    for (const std::string &plan :
         {std::string("{\"locked\": [j"), nested, std::string("{\"locked\": 5}"), std::string("")}) {
        {
            Database database(m_path, Database::Access::ReadWrite);
            Query(database, "UPDATE study SET plan = ? WHERE id = ?")
                .bind(plan)
                .bind(QVariant(qint64{bad.value}))
                .run();
        }
        Result<ProjectFile> project = ProjectFile::open(m_path);
        ASSERT_TRUE(project);
        const Result<Study> damaged = project->loadStudy(bad);
        ASSERT_FALSE(damaged) << plan.substr(0, 40);
        const std::string &message = damaged.error().message;
        EXPECT_EQ(message.find("json"), std::string::npos) << message;
        EXPECT_NE(message.find("the plan of the study"), std::string::npos) << message;
        EXPECT_NE(message.find("the other studies and all raw records can"), std::string::npos) << message;
        EXPECT_TRUE(project->loadStudy(good));
    }
}

} // namespace inchpeg
