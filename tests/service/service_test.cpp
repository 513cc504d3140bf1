// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/verdict.h"
#include "core/method/tension/tension_reading.h"
#include "disk/file_bytes.h"
#include "service/demo_project.h"
#include "service/import_file.h"
#include "store/project_file.h"
#include "support/as_nobody.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>

#include <atomic>
#include <fstream>
#include <set>
#include <sys/stat.h>
#include <thread>

namespace inchpeg
{

namespace
{

using test::TemporaryFolder;

PieceReadings readAllPieces(ProjectFile &project, const Study &study)
{
    PieceReadings readings;
    for (const Piece &piece : study.pieces) {
        if (!piece.recording)
            continue;
        auto bytes = std::make_shared<const std::string>(*project.rawBytes(piece.recording->file));
        const Result<ReadingOrder> order = readingOrder(study, piece, usualWorkshop());
        EXPECT_TRUE(order) << piece.code;
        readings[piece.id] = std::make_shared<const Result<PieceReading>>(
            readPiece({piece.id, bytes, piece.recording->mapping, *order}));
    }
    return readings;
}

} // namespace

TEST(FileBytes, ReadsWhatIsThere)
{
    const TemporaryFolder folder;
    const std::string bytes("a\0b\r\n\xFF", 6);
    EXPECT_EQ(*readFileBytes(folder.write("x", bytes)), bytes);
    EXPECT_EQ(*readFileBytes(folder.write("empty", "")), "");
    const std::string large(300000, 'z');
    EXPECT_EQ(*readFileBytes(folder.write("large", large)), large);
}

TEST(FileBytes, SaysWhyAFileCannotBeRead)
{
    const TemporaryFolder folder;
    EXPECT_EQ(readFileBytes(folder.path("gone")).error().code, ErrorCode::NotFound);
    EXPECT_NE(readFileBytes(folder.path("gone")).error().message.find(folder.path("gone")),
              std::string::npos);
    EXPECT_EQ(readFileBytes(folder.path("")).error().code, ErrorCode::BadInput);
    const std::string locked = folder.write("locked", "x");
    ::chmod(folder.path("").c_str(), 0755);
    ::chmod(locked.c_str(), 0000);
    const test::AsNobody nobody;
    EXPECT_EQ(readFileBytes(locked).error().code, ErrorCode::Storage);
}

TEST(FileBytes, ListsAFolderInOrderWithoutHiddenFilesAndFolders)
{
    const TemporaryFolder folder;
    folder.write("b.csv", "");
    folder.write("a.csv", "");
    folder.write(".hidden", "");
    std::filesystem::create_directory(folder.path("inner"));
    const Result<std::vector<std::string>> files = filesAt(folder.path(""));
    ASSERT_TRUE(files);
    ASSERT_EQ(files->size(), 2U);
    EXPECT_EQ(fileNameOf(files->front()), "a.csv");
    EXPECT_EQ(filesAt(folder.path("a.csv"))->size(), 1U);
}

TEST(ImportFile, CarriesWhatIsWrongInsteadOfFailing)
{
    const TemporaryFolder folder;
    const ImportFile gone = loadImportFile(folder.path("gone.csv"), kTensileReduction);
    EXPECT_EQ(gone.name, "gone.csv");
    EXPECT_TRUE(gone.problem && !gone.bytes);
    const ImportFile prose = loadImportFile(folder.write("p.csv", "no table\nat all\n"), kTensileReduction);
    EXPECT_TRUE(prose.problem && prose.bytes && prose.text && !prose.found);
    ImportFile odd = loadImportFile(folder.write("o.csv", "a,b\n0,0\n-5,1\n-9,2\n"), kTensileReduction);
    EXPECT_TRUE(odd.problem && odd.found);
    EXPECT_EQ(odd.layout->columns.size(), 2U);
    readWithMapping(odd, {{}, {{ColumnQuantity::Force, "N", false}, {}}});
    EXPECT_FALSE(odd.problem);
    EXPECT_EQ(odd.rows, 3U);
    EXPECT_EQ(odd.largest, 9.0) << "pulled the other way round";
    readWithMapping(odd, {{}, {{ColumnQuantity::Force, "N", false}}});
    EXPECT_TRUE(odd.problem) << "a mapping for one column does not fit two";
}

TEST(Demo, IsTheSameEachTime)
{
    const TemporaryFolder folder;
    std::vector<std::set<std::string>> sums;
    for (const char *name : {"one.inchpeg", "two.inchpeg"}) {
        ASSERT_TRUE(writeDemoProject(folder.path(name)));
        Result<ProjectFile> project = ProjectFile::open(folder.path(name));
        ASSERT_TRUE(project);
        std::set<std::string> own;
        for (const StudyHeader &header : *project->studies()) {
            const Study study = *project->loadStudy(header.id);
            for (const Piece &piece : study.pieces) {
                if (piece.recording)
                    own.insert(project->rawFileInfo(piece.recording->file)->sha256);
            }
        }
        sums.push_back(own);
    }
    EXPECT_EQ(sums[0].size(), 211U);
    EXPECT_EQ(sums[0], sums[1]);
    EXPECT_FALSE(writeDemoProject(folder.path("one.inchpeg"))) << "is not written over";
}

TEST(Demo, ShowsWhatTheProgramIsFor)
{
    const TemporaryFolder folder;
    ASSERT_TRUE(writeDemoProject(folder.path("demo.inchpeg")));
    Result<ProjectFile> project = ProjectFile::open(folder.path("demo.inchpeg"));
    std::set<Standing> seen;
    std::size_t bounds = 0;
    for (const StudyHeader &header : *project->studies()) {
        const Study study = *project->loadStudy(header.id);
        const PieceReadings readings = readAllPieces(*project, study);
        for (const auto &[piece, reading] : readings)
            EXPECT_TRUE(reading->has_value()) << findPiece(study, piece)->code << " of " << study.question;
        const StudyComparison comparison =
            compareStudy(study, readings, *findProperty(kTensileReduction, kUsualProperty));
        for (const RailComparison &rail : comparison.rails)
            bounds += rail.bounds;
        const StudyVerdict verdict = verdictOf(study, comparison);
        for (const RailVerdict &rail : verdict.rails) {
            seen.insert(rail.standing);
            EXPECT_FALSE(rail.sentence.empty());
        }
    }
    for (const Standing wanted : {Standing::Reference, Standing::Higher, Standing::Lower,
                                  Standing::NotToldApart, Standing::OtherKind})
        EXPECT_TRUE(seen.contains(wanted)) << static_cast<int>(wanted);
    EXPECT_GT(bounds, 0U) << "a gauge at its end, which says enough here to be above";
}

// A rig may still be writing its file while it is brought in: what is read is a whole beginning of it.
TEST(ImportFile, AFileThatGrowsWhileItIsReadGivesWholeRows)
{
    const test::TemporaryFolder folder;
    const std::string path = folder.write("growing.csv", "force_N,extension_mm\n0,0\n1,0.001\n2,0.002\n");
    std::atomic<bool> stop = false;
    std::jthread rig([&] {
        std::ofstream file(path, std::ios::binary | std::ios::app);
        for (int i = 3; i < 20000 && !stop; ++i) {
            file << i << ",0.00" << std::flush; // a row in two parts, so that one may be caught half written
            file << i << "\n" << std::flush;
        }
    });
    std::size_t last = 0;
    for (int i = 0; i < 40; ++i) {
        const ImportFile file = loadImportFile(path, kTensileReduction);
        ASSERT_FALSE(file.problem) << file.problem->message;
        EXPECT_GE(file.rows, std::max<std::size_t>(3, last));
        EXPECT_NEAR(file.largest, static_cast<double>(file.rows) - 1.0, 1.0);
        EXPECT_EQ(sha256Of(*file.bytes), file.sha256);
        last = file.rows;
    }
    stop = true;
    EXPECT_GT(last, 3U) << "it did grow";
}

TEST(ImportFile, AFolderThatIsGoneIsToldByName)
{
    const ImportFile file = loadImportFile("/no/such/share/a.csv", kTensileReduction);
    ASSERT_TRUE(file.problem);
    EXPECT_NE(file.problem->message.find("/no/such/share/a.csv: cannot be read: there is no such file"),
              std::string::npos)
        << file.problem->message;
}

} // namespace inchpeg
