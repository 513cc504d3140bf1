// SPDX-License-Identifier: GPL-3.0-or-later
// Logs, photos, history and search in the project file.
#include "core/compare/study_values.h"
#include "core/logbook/change_log.h"
#include "core/model/study_edit.h"
#include "store/kept_readings.h"
#include "store/project_file.h"
#include "support/temporary_folder.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <filesystem>

namespace inchpeg
{

namespace
{

Study loggedStudy(ProjectFile &project, const std::string &question, int pieces)
{
    Study study;
    study.id = StudyId{project.takeId()};
    study.question = question;
    firstTest(study).piecesPerCondition = pieces;
    const IdSource ids = [&] { return project.takeId(); };
    EXPECT_TRUE(addCondition(study, {{}, {"230"}, Orientation::Flat, "polyester, lot Heather 7"}, ids));
    return study;
}

std::vector<FoundItem> found(ProjectFile &project, const std::string &text)
{
    const Result<std::vector<FoundItem>> items = project.search(text, 8);
    EXPECT_TRUE(items) << (items ? "" : items.error().message);
    return items ? *items : std::vector<FoundItem>();
}

} // namespace

TEST(LogStore, EverythingLoggedComesBack)
{
    const test::TemporaryFolder folder;
    Result<ProjectFile> project = ProjectFile::create(folder.path("a.inchpeg"));
    ASSERT_TRUE(project);
    const Result<AddedRawFile> photo = project->addRawFile("break.png", "not really a picture");
    const Result<AddedRawFile> record = project->addRawFile("pull.csv", "force_N\n1\n2\n");
    ASSERT_TRUE(photo && record);
    Study study = loggedStudy(*project, "q", 2);
    Piece &piece = study.pieces[0];
    piece.log.sizes.width_mm = {10.02, 10.04};
    piece.log.sizes.thickness_mm = {4.0};
    piece.section = RectangularSection{millimetres(10.03), millimetres(4.0)};
    piece.log.mass_g = 9.31;
    piece.log.note = "ü “note”";
    piece.log.photos = {{photo->id, "the break", "me", "now"}};
    piece.log.failures = {{1, PrintTrouble::Jam, "stuck", true, "me", "now"}};
    piece.recording = Recording{record->id, {}, UsedGauge{"frame", "2026-06-01", {}, 0.001}};
    plateRecord(study.log, 1).printer = "shed printer";
    study.log.measuring.readings = 2;
    ASSERT_TRUE(project->save({std::nullopt, study}));
    EXPECT_EQ(*project->loadStudy(study.id), study);

    Study changed = study;
    changed.pieces[0].log.photos[0].caption = "another word";
    changed.pieces[0].log.mass_g.reset();
    changed.pieces[1].log.note = "second";
    ASSERT_TRUE(project->save({study, changed}));
    EXPECT_EQ(*project->loadStudy(study.id), changed);
    EXPECT_EQ(project->unusedRawFiles()->files, 0U) << "a photo is in use";
    Study bare = changed;
    bare.pieces[0].log.photos.clear();
    ASSERT_TRUE(project->save({changed, bare}));
    EXPECT_EQ(project->unusedRawFiles()->files, 1U);
    ASSERT_TRUE(project->save({bare, std::nullopt})) << "a study goes with its log";
}

TEST(LogStore, TheKeptProjectOfVersionFourStillOpens)
{
    // tests/data/project_v4.inchpeg was written by version 0.1.0 of 2026-11-25 and is never written again.
    const test::TemporaryFolder folder;
    std::filesystem::copy_file(INCHPEG_TEST_DATA "/project_v4.inchpeg", folder.path("v4.inchpeg"));
    Result<ProjectFile> project = ProjectFile::open(folder.path("v4.inchpeg"));
    ASSERT_TRUE(project) << project.error().message;
    const Result<Study> study = project->loadStudy(project->studies()->front().id);
    ASSERT_TRUE(study) << study.error().message;
    EXPECT_EQ(study->question, "Does the kept project of version 4 open?");
    const Piece &piece = study->pieces[0];
    EXPECT_EQ(piece.log.sizes.width_mm, (std::vector<double>{5.02, 5.01}));
    EXPECT_EQ(std::get<RectangularSection>(*piece.section).width, millimetres(5.01)) << "the smallest";
    EXPECT_EQ(piece.log.mass_g, 2.31);
    EXPECT_EQ(piece.log.photos.at(0).caption, "the break");
    EXPECT_EQ(piece.log.failures.at(0).trouble, PrintTrouble::Warp);
    EXPECT_EQ(piece.recording->gauge->calibration->points.size(), 2U);
    EXPECT_TRUE(study->log.plates.at(0).settings.at(0).answer->meant);
    EXPECT_EQ(study->log.steps.at(0).plates, std::vector<int>{1});
    EXPECT_EQ(project->history(study->id, piece.id)->at(0).before, "2.29 g");
    EXPECT_TRUE(project->verify()->findings.empty());
}

TEST(LogStore, TheKeptProjectOfVersionFiveStillOpens)
{
    // tests/data/project_v5.inchpeg was written by version 0.1.0 of 2026-11-27 and is never written again.
    const test::TemporaryFolder folder;
    std::filesystem::copy_file(INCHPEG_TEST_DATA "/project_v5.inchpeg", folder.path("v5.inchpeg"));
    Result<ProjectFile> project = ProjectFile::open(folder.path("v5.inchpeg"));
    ASSERT_TRUE(project) << project.error().message;
    const Result<Study> study = project->loadStudy(project->studies()->front().id);
    ASSERT_TRUE(study) << study.error().message;
    EXPECT_EQ(study->question, "Does the kept project of version 5 open?");
    ASSERT_EQ(study->tests.size(), 2U);
    EXPECT_EQ(study->pieces[0].test, methodOf(*study));
    EXPECT_EQ(study->tests[1].method, Method::Creep);
    EXPECT_EQ(study->tests[1].setup.fixture, Fixture::Cantilever);
    EXPECT_EQ(study->tests[1].setup.freeLength_mm, 45.5);
    EXPECT_EQ(study->tests[1].setup.settings.number("gauge_length"), 25.0);
    EXPECT_TRUE(project->verify()->findings.empty());
}

TEST(LogStore, TheKeptProjectOfVersionSixStillOpens)
{
    // tests/data/project_v6.inchpeg was written by version 0.1.0 of 2026-12-02 and is never written again.
    const test::TemporaryFolder folder;
    std::filesystem::copy_file(INCHPEG_TEST_DATA "/project_v6.inchpeg", folder.path("v6.inchpeg"));
    Result<ProjectFile> project = ProjectFile::open(folder.path("v6.inchpeg"));
    ASSERT_TRUE(project) << project.error().message;
    const Result<Study> study = project->loadStudy(project->studies()->front().id);
    ASSERT_TRUE(study) << study.error().message;
    EXPECT_EQ(study->question, "Does the kept project of version 6 open?");
    ASSERT_EQ(study->conditions.size(), 3U);
    const RailSummary *summary = findSummary(study->conditions[2], Method::Tension, "tensile_strength");
    ASSERT_NE(summary, nullptr);
    EXPECT_EQ(summary->mean, 52.1);
    EXPECT_EQ(summary->sd, 1.25);
    EXPECT_EQ(summary->pieces, 8);
    EXPECT_EQ(summary->source, "paper of 2024");
    EXPECT_EQ(summary->who, "K.");
    const Result<std::vector<FoundItem>> found = project->search("Paper of", 10);
    ASSERT_TRUE(found);
    ASSERT_EQ(found->size(), 1U);
    EXPECT_EQ(found->front().context, "paper of 2024");
    EXPECT_TRUE(project->search("source", 10)->empty()) << "a key is no word of a person";
    ASSERT_TRUE(isGiven(study->pieces[1]));
    const GivenValue &value = study->pieces[1].recording->mapping.given->values.front();
    EXPECT_EQ(value.number, 45.3);
    EXPECT_TRUE(value.isAtLeast);
    EXPECT_EQ(study->pieces[0].log.photos.size(), 1U);
    EXPECT_TRUE(project->verify()->findings.empty());
}

TEST(LogStore, TheKeptProjectOfVersionSevenStillOpens)
{
    // tests/data/project_v7.inchpeg was written by version 0.1.0 of 2026-12-02 and is never written again.
    const test::TemporaryFolder folder;
    std::filesystem::copy_file(INCHPEG_TEST_DATA "/project_v7.inchpeg", folder.path("v7.inchpeg"));
    Result<ProjectFile> project = ProjectFile::open(folder.path("v7.inchpeg"));
    ASSERT_TRUE(project) << project.error().message;
    const Result<std::vector<StudyHeader>> studies = project->studies();
    ASSERT_EQ(studies->size(), 2U);
    EXPECT_EQ(studies->back().question, "Does the kept project of version 7 open?");
    const Result<std::vector<KeptValues>> kept = KeptReadings::openForReading(project->path())->values();
    ASSERT_TRUE(kept) << kept.error().message;
    const auto values = std::find_if(kept->begin(), kept->end(),
                                     [&](const KeptValues &one) { return one.study == studies->back().id; });
    ASSERT_NE(values, kept->end());
    EXPECT_FALSE(values->madeFrom.empty());
    const Result<StudyValues> read = studyValuesFromText(values->rails);
    ASSERT_TRUE(read);
    ASSERT_EQ(read->rails.size(), 1U);
    const std::vector<RailValues> &rails = read->rails.at({Method::Tension, "tensile_strength"});
    ASSERT_EQ(rails.size(), 2U);
    EXPECT_EQ(rails[0].n, 2U);
    EXPECT_EQ(rails[0].mean, 41.0);
    EXPECT_TRUE(project->verify()->findings.empty());
}

TEST(LogStore, HistoryIsKeptWithTheChangeAndInOrder)
{
    const test::TemporaryFolder folder;
    Result<ProjectFile> project = ProjectFile::create(folder.path("a.inchpeg"));
    ASSERT_TRUE(project);
    Study study = loggedStudy(*project, "q", 2);
    ASSERT_TRUE(project->save({std::nullopt, study}));
    for (const double mass : {9.3, 93.1, 9.31}) {
        Study changed = study;
        changed.pieces[1].log.mass_g = mass;
        ASSERT_TRUE(
            project->save({study, changed, loggedChanges(study, changed, "me", fmt::format("t{}", mass))}));
        study = changed;
    }
    const auto history = project->history(study.id, study.pieces[1].id);
    ASSERT_TRUE(history);
    ASSERT_EQ(history->size(), 3U);
    EXPECT_EQ((*history)[0].before, "");
    EXPECT_EQ((*history)[2].before, "93.1 g");
    EXPECT_EQ((*history)[2].after, "9.31 g");
    EXPECT_TRUE(project->history(study.id, study.pieces[0].id)->empty());
    EXPECT_EQ(project->contents()->history.size(), 3U);
    ASSERT_TRUE(project->save({study, std::nullopt}));
    EXPECT_TRUE(project->contents()->history.empty()) << "it goes with its study";
}

TEST(LogStore, SearchFindsWordsWhereverTheyStand)
{
    const test::TemporaryFolder folder;
    Result<ProjectFile> project = ProjectFile::create(folder.path("a.inchpeg"));
    ASSERT_TRUE(project);
    Study first = loggedStudy(*project, "Does the Heather lot hold?", 3);
    first.pieces[1].log.note = "slipped in 100% of tries";
    first.pieces[2].exclusion = Exclusion{"hollow print", "me", "now"};
    plateRecord(first.log, 2).events = {{PrintTrouble::Jam, "", "nozzle clicked", "cleaned it", "me"}};
    Study second = loggedStudy(*project, "Another question", 2);
    ASSERT_TRUE(project->save({std::nullopt, first}));
    ASSERT_TRUE(project->save({std::nullopt, second}));

    const std::vector<FoundItem> heather = found(*project, "hEaThEr");
    ASSERT_EQ(heather.size(), 3U) << "one study, and a rail of each";
    EXPECT_EQ(heather[0].kind, FoundItem::Kind::Study);
    EXPECT_EQ(heather[1].kind, FoundItem::Kind::Rail);
    EXPECT_EQ(heather[1].piece, first.pieces[0].id);
    ASSERT_EQ(found(*project, "slipped in").size(), 1U);
    EXPECT_EQ(found(*project, "slipped in")[0].piece, first.pieces[1].id);
    EXPECT_EQ(found(*project, "hollow")[0].context, "hollow print");
    EXPECT_EQ(found(*project, "clicked")[0].kind, FoundItem::Kind::Plate);
    EXPECT_EQ(found(*project, "clicked")[0].title, "plate 2");
    EXPECT_EQ(found(*project, "100%").size(), 1U);
    EXPECT_TRUE(found(*project, "1%0").empty()) << "a percent sign is no pattern";
    EXPECT_TRUE(found(*project, "'; DROP TABLE study; --").empty());
    EXPECT_TRUE(found(*project, "").empty());
    EXPECT_EQ(*project->studyOf(second.pieces[0].id), second.id);
    EXPECT_FALSE(project->studyOf(PieceId{999999}));
}

/// Twenty thousand pieces in studies of two hundred, each with sizes, a mass and a note.
TEST(LogStore, SearchesTwentyThousandPiecesInATenthOfASecond)
{
    const test::TemporaryFolder folder;
    Result<ProjectFile> project = ProjectFile::create(folder.path("large.inchpeg"));
    ASSERT_TRUE(project);
    for (int s = 0; s < 100; ++s) {
        Study study = loggedStudy(*project, fmt::format("Question {} of many", s), 200);
        for (std::size_t i = 0; i < study.pieces.size(); ++i) {
            study.pieces[i].log.sizes.width_mm = {10.0};
            study.pieces[i].log.mass_g = 9.3;
            study.pieces[i].log.note = fmt::format("note {} of piece {}", i * 7, study.pieces[i].code);
        }
        study.pieces[100].log.note = s == 73 ? "the squirrel bit it" : "nothing";
        ASSERT_TRUE(project->save({std::nullopt, study}));
    }
    ASSERT_EQ(project->info()->pieces, 20000U);
    const Result<std::vector<FoundItem>> items = searchProject(folder.path("large.inchpeg"), "squirrel", 8);
    ASSERT_TRUE(items);
    EXPECT_EQ(items->size(), 1U);
}

} // namespace inchpeg
