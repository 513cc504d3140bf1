// SPDX-License-Identifier: GPL-3.0-or-later
// Every command of store and service with each call to the disk failing once, and with a disk that stays
// full: nothing confirmed is lost, nothing is half, a sentence each time.
#include "core/model/study_edit.h"
#include "service/open_data.h"
#include "service/project_check.h"
#include "service/project_export.h"
#include "service/project_results.h"
#include "service/record_keeper.h"
#include "store/kept_readings.h"
#include "store/project_lock.h"
#include "store/raw_file_reader.h"
#include "store/raw_file_writer.h"
#include "support/failing_disk.h"
#include "support/night.h"
#include "support/sanitized.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <functional>
#include <iostream>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;
using test::FailingDisk;

/// A project with two studies, a record, a setting; closed.
void makeProject(const std::string &path)
{
    Result<ProjectFile> project = ProjectFile::create(path);
    ASSERT_TRUE(project);
    const IdSource ids = [&] { return project->takeId(); };
    for (const char *question : {"Does it hold?", "And the other?"}) {
        Study study;
        study.id = StudyId{ids()};
        study.question = question;
        study.factors.front() = {"nozzle temperature", "°C", ChangedPer::Plate};
        firstTest(study).piecesPerCondition = 3;
        ASSERT_TRUE(addCondition(study, {{}, {"230"}, Orientation::Flat, "polyester"}, ids));
        ASSERT_TRUE(addCondition(study, {{}, {"250"}, Orientation::Flat, "polyester"}, ids));
        std::string record = "time[s];force[N];travel[mm]\n";
        for (int i = 0; i < 400; ++i)
            record += std::to_string(i * 0.1) + ";" + std::to_string(i < 350 ? i : 0) + ";" +
                      std::to_string(i * 0.01) + "\n";
        const Result<AddedRawFile> raw = project->addRawFile("a.csv", record + question);
        ASSERT_TRUE(raw);
        study.pieces[0].recording = Recording{raw->id, {}};
        study.pieces[0].section = RectangularSection{millimetres(10.0), millimetres(4.0)};
        ASSERT_TRUE(project->save({std::nullopt, study}));
    }
    ASSERT_TRUE(project->setSetting("view", "{}"));
}

/// What a project holds, for telling what changed.
struct Held {
    ProjectContents contents;
    std::vector<std::string> bytes;
    bool operator==(const Held &) const = default;
};

Result<Held> heldBy(const std::string &path)
{
    Result<ProjectFile> project = ProjectFile::open(path);
    if (!project)
        return project.error();
    const Result<ProjectCheck> check = verifyProject(*project);
    if (!check)
        return check.error();
    if (!check->findings.empty())
        return badInput(check->findings.front());
    Result<ProjectContents> contents = project->contents();
    if (!contents)
        return contents.error();
    Held held{std::move(*contents), {}};
    held.contents.nextId = 0; // an id that was taken and not used is no loss
    for (const RawFileInfo &file : held.contents.rawFiles) {
        const Result<std::string> bytes = project->rawBytes(file.id);
        if (!bytes)
            return bytes.error();
        held.bytes.push_back(*bytes);
    }
    for (RawFileInfo &file : held.contents.rawFiles) {
        file.id = {};
        file.addedAt.clear();
    }
    return held;
}

Result<Study> loadStudy(ProjectFile &project, std::size_t place)
{
    const Result<std::vector<StudyHeader>> studies = project.studies();
    return studies ? project.loadStudy(studies->at(place).id) : Result<Study>(studies.error());
}

class EachCallFails : public testing::Test
{
protected:
    using Command = std::function<Status(const std::string &path)>;

    /// Runs a command on a copy of the project, with the k-th call failing for each k that there is. Where it
    /// says ok the project holds what the command yields without faults; where it does not, either that or
    /// what it held before.
    /// afterwards: what else must hold once the disk works again; told whether it was to refuse to remove as
    /// well.
    void runWithFaults(const char *name, const Command &command,
                       const std::function<void(const Status &, FailingDisk::Manner)> &afterwards = {})
    {
        const std::string base = m_folder.path("base.inchpeg");
        if (!fs::exists(base))
            makeProject(base);
        const Result<Held> before = heldBy(base);
        ASSERT_TRUE(before) << before.error().message;
        const std::string path = m_folder.path("p.inchpeg");
        const auto fresh = [&] {
            for (const fs::directory_entry &entry : fs::directory_iterator(m_folder.path(".")))
                if (entry.path().filename() != "base.inchpeg")
                    fs::remove_all(entry.path());
            fs::copy_file(base, path);
        };
        FailingDisk disk;
        fresh();
        disk.failAt(0, FailingDisk::Manner::Once);
        const Status clean = command(path);
        ASSERT_TRUE(clean) << name << ": " << clean.error().message;
        const std::size_t calls = disk.calls();
        const Result<Held> after = heldBy(path);
        ASSERT_TRUE(after) << name << ": " << after.error().message;
        const std::size_t stride = test::isNight() ? 1 : test::kSanitized ? 15 : 3;
        for (const FailingDisk::Manner manner :
             {FailingDisk::Manner::Once, FailingDisk::Manner::FromThenOn}) {
            for (std::size_t k = 1; k <= calls; k += stride) {
                fresh();
                disk.failAt(k, manner);
                const Status status = command(path);
                const bool failed = disk.hasFailed();
                disk.failAt(0, FailingDisk::Manner::Once);
                if (afterwards)
                    afterwards(status, manner);
                ++m_runs;
                if (!status) {
                    EXPECT_FALSE(status.error().message.empty()) << name << " at call " << k;
                    EXPECT_EQ(status.error().message.find("Unknown error"), std::string::npos)
                        << status.error().message;
                    EXPECT_TRUE(failed) << name << " at call " << k << ": " << status.error().message;
                }
                const Result<Held> now = heldBy(path);
                ASSERT_TRUE(now) << name << " at call " << k << " of " << calls << ": "
                                 << now.error().message;
                EXPECT_TRUE(*now == *after || (!status && *now == *before))
                    << name << " at call " << k << " of " << calls << ": "
                    << (status ? "said ok" : status.error().message);
                // What cannot be removed stays; where the disk refuses once alone, nothing may.
                for (const fs::directory_entry &entry : fs::directory_iterator(m_folder.path("."))) {
                    const bool isPart = entry.path().filename().string().find(".part") != std::string::npos;
                    EXPECT_FALSE(isPart && manner == FailingDisk::Manner::Once)
                        << entry.path() << " at call " << k;
                }
            }
        }
    }

    void TearDown() override { std::cout << m_runs << " runs, each with a call that failed\n"; }

    test::TemporaryFolder m_folder;
    std::size_t m_runs = 0;
};

} // namespace

TEST_F(EachCallFails, AnEditIsThereOrNot)
{
    runWithFaults("edit", [](const std::string &path) -> Status {
        Result<ProjectFile> project = ProjectFile::open(path);
        if (!project)
            return project.error();
        const Result<Study> before = loadStudy(*project, 0);
        if (!before)
            return before.error();
        Study after = *before;
        after.question = "Something else?";
        after.pieces[1].exclusion = Exclusion{"slipped", "me", "2026-06-01T10:00:00Z"};
        return project->save({*before, after, {{after.pieces[1].id, "mass", "1 g", "2 g", "me", "then"}}});
    });
    EXPECT_GT(m_runs, 0U);
}

TEST_F(EachCallFails, ARecordIsThereOrNot)
{
    runWithFaults("record", [](const std::string &path) -> Status {
        Result<RawFileWriter> writer = RawFileWriter::open(path);
        if (!writer)
            return writer.error();
        const Result<AddedRawFile> added = writer->add(RawFileId{900}, "b.csv", std::string(200000, 'x'));
        return added ? ok() : Status(added.error());
    });
}

TEST_F(EachCallFails, ASettingIsThereOrNot)
{
    runWithFaults("setting", [](const std::string &path) -> Status {
        Result<ProjectFile> project = ProjectFile::open(path);
        return project ? project->setSetting("view", "{\"lens\":\"read\"}") : Status(project.error());
    });
}

TEST_F(EachCallFails, AStudyGoesOrStays)
{
    runWithFaults("remove", [](const std::string &path) -> Status {
        Result<ProjectFile> project = ProjectFile::open(path);
        if (!project)
            return project.error();
        const Result<Study> last = loadStudy(*project, 1);
        return last ? project->save({*last, std::nullopt}) : Status(last.error());
    });
}

TEST_F(EachCallFails, CompactingLosesNothingThatIsUsed)
{
    runWithFaults("compact", [](const std::string &path) -> Status {
        Result<ProjectFile> project = ProjectFile::open(path);
        return project ? project->compact() : Status(project.error());
    });
}

TEST_F(EachCallFails, AnExportIsWholeOrNotThere)
{
    runWithFaults("export", [this](const std::string &path) -> Status {
        Result<ProjectFile> project = ProjectFile::open(path);
        if (!project)
            return project.error();
        const std::string folder = m_folder.path("export");
        const Status status = exportProject(*project, folder);
        EXPECT_EQ(status.has_value(), fs::exists(folder + "/project.json"));
        return status;
    });
}

TEST_F(EachCallFails, AnImportLeavesNothingBroken)
{
    const test::TemporaryFolder exported;
    {
        const std::string base = m_folder.path("base.inchpeg");
        makeProject(base);
        Result<ProjectFile> project = ProjectFile::open(base);
        ASSERT_TRUE(project);
        ASSERT_TRUE(exportProject(*project, exported.path("e")));
    }
    const std::string target = m_folder.path("new.inchpeg");
    runWithFaults(
        "import",
        [&](const std::string &) -> Status {
            const Result<std::vector<std::string>> imported = importProject(exported.path("e"), target);
            return imported ? ok() : Status(imported.error());
        },
        [&](const Status &status, FailingDisk::Manner manner) {
            if (status) {
                EXPECT_TRUE(heldBy(target));
            } else if (manner == FailingDisk::Manner::Once) { // a disk that refuses all keeps what it has
                EXPECT_TRUE(!fs::exists(target) || heldBy(target)) << "a broken project was left behind";
            }
        });
}

TEST_F(EachCallFails, ReadingsAreOnlyACache)
{
    runWithFaults("readings", [](const std::string &path) -> Status {
        Result<ProjectFile> project = ProjectFile::open(path);
        if (!project)
            return project.error();
        const Result<ProjectResults> results = readProjectResults(*project);
        return results ? ok() : Status(results.error());
    });
}

TEST_F(EachCallFails, OpenDataIsWholeOrNotThere)
{
    for (const char *name : {"data", "data.zip"}) {
        runWithFaults(name, [&](const std::string &path) -> Status {
            Result<ProjectFile> project = ProjectFile::open(path);
            if (!project)
                return project.error();
            const std::string target = m_folder.path(name);
            const Result<std::vector<StudyHeader>> studies = project->studies();
            if (!studies)
                return studies.error();
            const Result<OpenDataWritten> written =
                writeOpenData(*project, studies->front().id, target, {"p", "0", "2026-06-01"});
            EXPECT_EQ(written.has_value(), fs::exists(target)) << name;
            return written ? ok() : Status(written.error());
        });
    }
}

TEST_F(EachCallFails, ARecordThatIsMadeLosesNoRow)
{
    test::TemporaryFolder spare;
    for (const FailingDisk::Manner manner : {FailingDisk::Manner::Once, FailingDisk::Manner::FromThenOn}) {
        for (std::size_t k = 1; k < 60; ++k) {
            const test::TemporaryFolder folder;
            FailingDisk disk;
            disk.failAt(k, manner);
            Result<RecordKeeper> keeper = RecordKeeper::begin(folder.path("r.txt"), spare.path("s"));
            if (!keeper)
                continue; // told before anything is recorded
            std::string sent;
            bool isTold = false;
            for (int i = 0; i < 20; ++i) {
                const std::string row = std::to_string(i) + ";12.5\n";
                sent += row;
                isTold |= keeper->append(row);
            }
            const KeptRecord kept = keeper->finish();
            std::string whole;
            for (const std::string &file : kept.files)
                whole += test::bytesOf(file);
            EXPECT_EQ(whole + kept.unsaved, sent) << "call " << k;
            EXPECT_EQ(isTold, kept.trouble.has_value()) << "call " << k;
            fs::remove_all(spare.path("s"));
        }
    }
}

} // namespace inchpeg
