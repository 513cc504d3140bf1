// SPDX-License-Identifier: GPL-3.0-or-later
// One project by several names, killed in the middle of folding its log in, and its lock.
#include "store/file_identity.h"
#include "store/kept_readings.h"
#include "store/project_file.h"
#include "store/project_lock.h"
#include "store/raw_file_reader.h"
#include "support/as_nobody.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <sys/wait.h>
#include <unistd.h>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;
using test::bytesOf;

class SameFile : public testing::Test
{
protected:
    test::TemporaryFolder m_folder;
    std::string m_path = m_folder.path("p.inchpeg");

    ProjectFile created() { return std::move(*ProjectFile::create(m_path)); }
};

} // namespace

TEST_F(SameFile, ByALinkTheSameLogIsRead)
{
    ProjectFile project = created();
    fs::create_directory(m_folder.path("elsewhere"));
    const std::string link = m_folder.path("elsewhere/link.inchpeg");
    fs::create_symlink(m_path, link);
    const Result<AddedRawFile> added = project.addRawFile("a.csv", "force_N\n1\n2\n");
    ASSERT_TRUE(added);
    Result<RawFileReader> reader = RawFileReader::open(truePath(link));
    ASSERT_TRUE(reader);
    EXPECT_EQ(*reader->bytes(added->id), "force_N\n1\n2\n");
    Result<ProjectFile> second = ProjectFile::openForReading(link);
    ASSERT_TRUE(second) << second.error().message;
    EXPECT_EQ(*second->rawBytes(added->id), "force_N\n1\n2\n");
    EXPECT_EQ(second->path(), fs::canonical(m_path).string()) << "whoever opens more by it opens the same";
    EXPECT_FALSE(fs::exists(link + "-wal"));
}

TEST_F(SameFile, IsLockedByEachOfItsNames)
{
    {
        const ProjectFile project = created();
    }
    fs::create_directory(m_folder.path("elsewhere"));
    const std::string soft = m_folder.path("elsewhere/soft.inchpeg");
    const std::string hard = m_folder.path("elsewhere/hard.inchpeg");
    fs::create_symlink(m_path, soft);
    fs::create_hard_link(m_path, hard);
    const Result<ProjectLock> lock = ProjectLock::take(m_path);
    ASSERT_TRUE(lock);
    for (const std::string &name : {soft, hard}) {
        const Result<ProjectLock> second = ProjectLock::take(name);
        ASSERT_FALSE(second) << name;
        EXPECT_NE(second.error().message.find("is open already"), std::string::npos)
            << second.error().message;
    }
}

TEST_F(SameFile, AProjectThatWasJustMadeIsLockedByEachName)
{
    Result<ProjectLock> lock = ProjectLock::take(m_path);
    ASSERT_TRUE(lock);
    const ProjectFile project = created();
    lock->holdFile(m_path);
    fs::create_hard_link(m_path, m_folder.path("other.inchpeg"));
    EXPECT_FALSE(ProjectLock::take(m_folder.path("other.inchpeg")));
}

TEST_F(SameFile, IsFreeAgainWhenTheLockGoes)
{
    {
        const ProjectFile project = created();
    }
    {
        const Result<ProjectLock> lock = ProjectLock::take(m_path);
        ASSERT_TRUE(lock);
    }
    fs::create_hard_link(m_path, m_folder.path("other.inchpeg"));
    EXPECT_TRUE(ProjectLock::take(m_folder.path("other.inchpeg")));
}

TEST_F(SameFile, AfterAKillTheLogIsFoundBesideAnotherNameOfTheFolder)
{
    const std::string copy = m_folder.path("killed.inchpeg");
    RawFileId id;
    {
        ProjectFile project = created();
        const Result<AddedRawFile> added = project.addRawFile("a.csv", "force_N\n1\n2\n");
        ASSERT_TRUE(added);
        id = added->id;
        fs::copy_file(m_path, copy); // as a kill leaves both
        fs::copy_file(m_path + "-wal", copy + "-wal");
    }
    const std::string other = m_folder.path("another name.inchpeg");
    fs::create_hard_link(copy, other);
    Result<ProjectFile> project = ProjectFile::open(other);
    ASSERT_TRUE(project) << project.error().message;
    EXPECT_EQ(*project->rawBytes(id), "force_N\n1\n2\n");
}

TEST_F(SameFile, OpensWholeWhenItWasKilledWhileTheLogWasFoldedIn)
{
    const std::string killed = m_folder.path("killed.inchpeg");
    const std::string large(3'000'000, 'x');
    RawFileId id;
    {
        ProjectFile project = created();
        const Result<AddedRawFile> added = project.addRawFile("large.csv", large);
        ASSERT_TRUE(added);
        id = added->id;
        fs::copy_file(m_path, killed);
        fs::copy_file(m_path + "-wal", killed + "-wal");
    }
    // Closed, the file is whole. Of the killed one the first pages alone were folded in: the first tells the
    // new size, the rest is in the log.
    const std::string whole = bytesOf(m_path);
    ASSERT_LT(fs::file_size(killed), whole.size());
    for (const std::size_t folded : {std::size_t{4096}, std::size_t{3 * 4096}, whole.size() / 2}) {
        const std::string path = m_folder.path("k" + std::to_string(folded) + ".inchpeg");
        fs::copy_file(killed, path);
        fs::copy_file(killed + "-wal", path + "-wal");
        {
            std::fstream file(path, std::ios::binary | std::ios::in | std::ios::out);
            file.write(whole.data(), static_cast<std::streamsize>(folded));
        }
        {
            Result<ProjectFile> looked = ProjectFile::openForReading(path);
            ASSERT_TRUE(looked) << looked.error().message;
            EXPECT_EQ(*looked->rawBytes(id), large);
        }
        Result<ProjectFile> project = ProjectFile::open(path);
        ASSERT_TRUE(project) << project.error().message;
        EXPECT_EQ(*project->rawBytes(id), large);
        EXPECT_TRUE(project->verify()->findings.empty());
    }
    // Without its log it is cut short, and so it is with a log that does not hold the rest.
    const std::string alone = m_folder.path("alone.inchpeg");
    m_folder.write("alone.inchpeg", whole.substr(0, whole.size() / 2));
    EXPECT_NE(ProjectFile::open(alone).error().message.find("cut short"), std::string::npos);
    m_folder.write("alone.inchpeg-wal", bytesOf(killed + "-wal").substr(0, 9000));
    const Result<ProjectFile> short_ = ProjectFile::open(alone);
    ASSERT_FALSE(short_);
    EXPECT_NE(short_.error().message.find("estore a copy"), std::string::npos) << short_.error().message;
}

TEST_F(SameFile, AReadingIsNotKeptWhereTheProjectHasGone)
{
    {
        const ProjectFile project = created();
    }
    fs::rename(m_path, m_folder.path("moved.inchpeg"));
    EXPECT_FALSE(KeptReadings::open(m_path));
    EXPECT_FALSE(fs::exists(m_path)) << "no empty database in its place";
}

TEST_F(SameFile, ADeadProgramHoldsNothingInAFolderThatCannotBeWritten)
{
    {
        const ProjectFile project = created();
    }
    // A program takes the lock and dies.
    const pid_t child = ::fork();
    ASSERT_GE(child, 0);
    if (child == 0) {
        const Result<ProjectLock> lock = ProjectLock::take(m_path);
        ::_exit(lock ? 0 : 1); // without letting go
    }
    int status = 0;
    ASSERT_EQ(::waitpid(child, &status, 0), child);
    ASSERT_EQ(status, 0);
    ASSERT_TRUE(fs::exists(m_path + ".lock"));
    fs::permissions(m_folder.path("."), fs::perms::owner_read | fs::perms::owner_exec |
                                            fs::perms::others_read | fs::perms::others_exec);
    {
        const test::AsNobody nobody;
        const Result<ProjectLock> lock = ProjectLock::take(m_path);
        ASSERT_FALSE(lock);
        EXPECT_EQ(lock.error().message.find("is open already"), std::string::npos) << lock.error().message;
        EXPECT_NE(lock.error().message.find("may not be written"), std::string::npos) << lock.error().message;
    }
    fs::permissions(m_folder.path("."), fs::perms::owner_all);
}

} // namespace inchpeg
