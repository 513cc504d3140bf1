// SPDX-License-Identifier: GPL-3.0-or-later
#include "disk/disk.h"
#include "disk/file_bytes.h"
#include "disk/folder_to_be.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>

#include <cerrno>
#include <sys/stat.h>
#include <unistd.h>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;

class DiskTest : public testing::Test
{
protected:
    ~DiskTest() override { setDiskFaults({}); }

    /// The disk is full from the given call of a kind on.
    void fill(DiskCall kind, int from = 1, bool isHalfDone = false)
    {
        setDiskFaults([kind, from, isHalfDone, seen = 0](DiskCall call, const std::string &) mutable {
            const bool fails = call == kind && ++seen >= from;
            return fails ? std::optional(DiskFault{ENOSPC, isHalfDone}) : std::nullopt;
        });
    }

    [[nodiscard]] std::vector<std::string> files() const
    {
        std::vector<std::string> names;
        for (const auto &entry : fs::directory_iterator(m_folder.path(".")))
            names.push_back(entry.path().filename().string());
        return names;
    }

    test::TemporaryFolder m_folder;
};

} // namespace

TEST_F(DiskTest, AFileIsWrittenWholeOrNotAtAll)
{
    const std::string path = m_folder.path("a.txt");
    ASSERT_TRUE(writeFileBytes(path, "first"));
    for (const DiskCall call : {DiskCall::Open, DiskCall::Write, DiskCall::Sync, DiskCall::Rename}) {
        fill(call, 1, true);
        const Status status = writeFileBytes(path, "second, which is longer");
        setDiskFaults({});
        ASSERT_FALSE(status);
        EXPECT_NE(status.error().message.find("the disk is full"), std::string::npos)
            << status.error().message;
        EXPECT_EQ(status.error().message.find(".part"), std::string::npos) << status.error().message;
        EXPECT_EQ(test::bytesOf(path), "first");
        EXPECT_EQ(files().size(), 1U) << "nothing is left beside it";
    }
    ASSERT_TRUE(writeFileBytes(path, "second"));
    EXPECT_EQ(test::bytesOf(path), "second");
}

TEST_F(DiskTest, ALinkStaysOneAndKeepsItsFilesRights)
{
    const std::string real = m_folder.write("real.txt", "old");
    ASSERT_EQ(::chmod(real.c_str(), 0640), 0);
    fs::create_symlink(real, m_folder.path("link.txt"));
    ASSERT_TRUE(writeFileBytes(m_folder.path("link.txt"), "new"));
    EXPECT_TRUE(fs::is_symlink(m_folder.path("link.txt")));
    EXPECT_EQ(test::bytesOf(real), "new");
    EXPECT_EQ(static_cast<int>(fs::status(real).permissions()), 0640);
}

TEST_F(DiskTest, WhatHasNoEndIsRefusedAtOnce)
{
    const Result<FileContent> device = readFile("/dev/zero");
    ASSERT_FALSE(device);
    EXPECT_NE(device.error().message.find("is a device"), std::string::npos) << device.error().message;
    // A file of nothing that takes no room on the disk, three times what is read of one.
    const std::string hollow = m_folder.write("hollow.csv", "t;F\n");
    fs::resize_file(hollow, 3 * kMostFileBytes);
    const Result<FileContent> large = readFile(hollow);
    ASSERT_FALSE(large);
    EXPECT_NE(large.error().message.find("more than 1000 MB"), std::string::npos) << large.error().message;
}

TEST_F(DiskTest, AFolderIsThereWholeOrNotAtAll)
{
    const std::string place = m_folder.path("out");
    const std::string bystander = m_folder.path("out.part");
    fs::create_directory(bystander);
    std::ofstream(bystander + "/mine.txt") << "keep";
    {
        Result<FolderToBe> folder = FolderToBe::begin(place);
        ASSERT_TRUE(folder);
        ASSERT_TRUE(folder->write("a/b.txt", "b"));
        EXPECT_FALSE(fs::exists(place)) << "not before it is whole";
    }
    EXPECT_EQ(files(), std::vector<std::string>{"out.part"}) << "what was not finished is gone";
    Result<FolderToBe> folder = FolderToBe::begin(place);
    ASSERT_TRUE(folder);
    ASSERT_TRUE(folder->write("a/b.txt", "b"));
    ASSERT_TRUE(folder->makeFolder("empty"));
    ASSERT_TRUE(folder->finish());
    EXPECT_EQ(test::bytesOf(place + "/a/b.txt"), "b");
    EXPECT_TRUE(fs::is_directory(place + "/empty"));
    EXPECT_EQ(test::bytesOf(bystander + "/mine.txt"), "keep") << "another's folder, whatever it is called";
    EXPECT_FALSE(FolderToBe::begin(place)) << "a folder that holds something stays";
}

TEST_F(DiskTest, TellsHowMuchWasWritten)
{
    Result<WrittenFile> file = WrittenFile::open(m_folder.path("a"), WrittenFile::Begin::New);
    ASSERT_TRUE(file);
    ASSERT_TRUE(file->write("12345"));
    fill(DiskCall::Write, 1, true);
    EXPECT_FALSE(file->write("678901"));
    setDiskFaults({});
    EXPECT_EQ(file->written(), 8U);
    EXPECT_EQ(test::bytesOf(m_folder.path("a")), "12345678");
    EXPECT_FALSE(WrittenFile::open(m_folder.path("a"), WrittenFile::Begin::New)) << "it is there";
}

} // namespace inchpeg
