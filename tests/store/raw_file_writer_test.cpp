// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project_file.h"
#include "store/raw_file_writer.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <thread>

namespace inchpeg
{

namespace
{

struct Kept {
    test::TemporaryFolder folder;
    std::string path = folder.path("p.inchpeg");
    ProjectFile project = std::move(*ProjectFile::create(path));

    RawFileId take() { return RawFileId{project.takeId()}; }
    void reopen()
    {
        Result<ProjectFile> other = ProjectFile::create(folder.path("other.inchpeg"));
        project = std::move(*other); // closes the first
        Result<ProjectFile> again = ProjectFile::open(path);
        ASSERT_TRUE(again) << again.error().message;
        project = std::move(*again);
    }
};

} // namespace

TEST(RawFileWriter, KeepsBytesBesideTheProjectsOwnConnection)
{
    Kept kept;
    Result<RawFileWriter> writer = RawFileWriter::open(kept.path);
    ASSERT_TRUE(writer) << writer.error().message;
    const RawFileId id = kept.take();
    const Result<AddedRawFile> added = writer->add(id, "a.csv", std::string_view("1,2\0\n", 5));
    ASSERT_TRUE(added) << added.error().message;
    EXPECT_EQ(added->id, id);
    EXPECT_FALSE(added->wasThere);
    EXPECT_EQ(*kept.project.rawBytes(id), std::string("1,2\0\n", 5));
    EXPECT_EQ(kept.project.rawFileInfo(id)->name, "a.csv");
    EXPECT_EQ(kept.project.rawFileInfo(id)->sha256, sha256Of(std::string_view("1,2\0\n", 5)));
}

TEST(RawFileWriter, TheSameBytesAreKeptOnce)
{
    Kept kept;
    const Result<AddedRawFile> first = kept.project.addRawFile("a.csv", "same");
    Result<RawFileWriter> writer = RawFileWriter::open(kept.path);
    const Result<AddedRawFile> second = writer->add(kept.take(), "b.csv", "same");
    ASSERT_TRUE(second);
    EXPECT_EQ(second->id, first->id);
    EXPECT_TRUE(second->wasThere);
    EXPECT_EQ(kept.project.info()->rawFiles, 1U);
}

// The project closes before it has written its own count down: the id of the file must not be given again.
TEST(RawFileWriter, AnIdIsNotGivenAgain)
{
    Kept kept;
    RawFileId last;
    {
        Result<RawFileWriter> writer = RawFileWriter::open(kept.path);
        for (int i = 0; i < 3; ++i)
            last = writer->add(kept.take(), "a.csv", std::to_string(i))->id;
    }
    kept.reopen();
    EXPECT_GT(kept.project.takeId(), last.value);
}

TEST(RawFileWriter, AHigherCountOfTheProjectStands)
{
    Kept kept;
    const RawFileId early = kept.take();
    for (int i = 0; i < 50; ++i)
        kept.take();
    ASSERT_TRUE(kept.project.addRawFile("late.csv", "late")); // writes the count down
    const std::int64_t count = kept.project.takeId();
    {
        Result<RawFileWriter> writer = RawFileWriter::open(kept.path);
        ASSERT_TRUE(writer->add(early, "early.csv", "early"));
    }
    kept.reopen();
    EXPECT_GE(kept.project.takeId(), count);
}

TEST(RawFileWriter, AProjectThatHasGoneIsNotMadeAnew)
{
    Kept kept;
    const std::string gone = kept.folder.path("gone.inchpeg");
    const Result<RawFileWriter> writer = RawFileWriter::open(gone);
    ASSERT_FALSE(writer);
    EXPECT_EQ(writer.error().code, ErrorCode::Storage);
    EXPECT_NE(writer.error().message.find("no longer in its place"), std::string::npos);
    EXPECT_FALSE(std::filesystem::exists(gone));
}

// Two connections write in turns from two threads; a transaction that began with reading would be refused
// where the other wrote meanwhile.
TEST(RawFileWriter, TwoConnectionsWriteInTurns)
{
    Kept kept;
    std::vector<RawFileId> ids;
    for (int i = 0; i < 60; ++i)
        ids.push_back(kept.take());
    std::string failure;
    std::thread other([&] {
        Result<RawFileWriter> writer = RawFileWriter::open(kept.path);
        for (std::size_t i = 0; i < ids.size(); ++i) {
            const Result<AddedRawFile> added = writer->add(ids[i], "other.csv", "other " + std::to_string(i));
            if (!added)
                failure = added.error().message;
        }
    });
    for (int i = 0; i < 60; ++i) {
        const Result<AddedRawFile> added = kept.project.addRawFile("own.csv", "own " + std::to_string(i));
        EXPECT_TRUE(added) << added.error().message;
    }
    other.join();
    EXPECT_EQ(failure, "");
    EXPECT_EQ(kept.project.info()->rawFiles, 120U);
    EXPECT_TRUE(kept.project.verify()->findings.empty());
}

} // namespace inchpeg
