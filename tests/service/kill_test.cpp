// SPDX-License-Identifier: GPL-3.0-or-later
// A child process edits and imports without pause and is killed at random moments; after each kill the
// project must pass its own check and hold every action that was finished.
#include "core/model/study_edit.h"
#include "store/kept_readings.h"
#include "store/project_file.h"
#include "support/night.h"
#include "support/random_lives.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>

#include <csignal>
#include <sys/wait.h>
#include <unistd.h>

namespace inchpeg
{

namespace
{

const int kKills = test::timesOf(test::isNight(), 200, 60, 20);
constexpr double kLongestLife_s = 0.06;

std::string bytesOfImport(std::int64_t i)
{
    return "force_N,extension_mm\n0,0\n" + std::to_string(i) + ",1\n" + std::string(2000, '\n');
}

/// Each round: a raw file, then an edit of the study that tells its number, then a kept reading. What is
/// finished is told through the pipe.
[[noreturn]] void workUntilKilled(const std::string &path, int pipe)
{
    Result<ProjectFile> project = ProjectFile::open(path);
    if (!project)
        ::_exit(3);
    Study study = *project->loadStudy(project->studies()->front().id);
    for (std::int64_t i = std::stoll(study.question) + 1;; ++i) {
        const Result<AddedRawFile> added = project->addRawFile(std::to_string(i), bytesOfImport(i));
        Study changed = study;
        changed.question = std::to_string(i);
        changed.pieces[0].recording.emplace();
        changed.pieces[0].recording->file = added ? added->id : RawFileId{};
        changed.pieces[0].markers["break"] = {static_cast<double>(i), "kill", "me", "now"};
        if (!added || !project->save({study, changed}))
            ::_exit(4);
        study = std::move(changed);
        if (::write(pipe, &i, sizeof i) != sizeof i)
            ::_exit(5);
        if (!KeptReadings::open(path)->keep({{study.pieces[0].id, std::to_string(i), {}}}))
            ::_exit(6);
    }
}

/// The last number that came through the pipe, 0 where none did.
std::int64_t lastFinished(int pipe)
{
    std::int64_t last = 0;
    std::int64_t number = 0;
    while (::read(pipe, &number, sizeof number) == sizeof number)
        last = number;
    return last;
}

} // namespace

TEST(Kill, TwoHundredKillsLoseNoFinishedAction)
{
    const test::TemporaryFolder folder;
    const std::string path = folder.path("killed.inchpeg");
    {
        Result<ProjectFile> project = ProjectFile::create(path);
        ASSERT_TRUE(project);
        Study study;
        study.id = StudyId{project->takeId()};
        study.question = "0";
        ASSERT_TRUE(addCondition(study, {{}, {"a"}, {}, {}}, [&] { return project->takeId(); }));
        ASSERT_TRUE(project->save({std::nullopt, study}));
    }
    test::RandomLives lives(20261125, kLongestLife_s);
    std::int64_t finished = 0;
    for (int kill = 0; kill < kKills; ++kill) {
        int ends[2];
        ASSERT_EQ(::pipe(ends), 0);
        const pid_t child = ::fork();
        ASSERT_GE(child, 0);
        if (child == 0) {
            ::close(ends[0]);
            workUntilKilled(path, ends[1]);
        }
        ::close(ends[1]);
        ::usleep(static_cast<useconds_t>(1e6 * lives.next_s()));
        ::kill(child, SIGKILL);
        int status = 0;
        ::waitpid(child, &status, 0);
        ASSERT_TRUE(WIFSIGNALED(status)) << "the child gave up by itself with " << WEXITSTATUS(status);
        const std::int64_t told = lastFinished(ends[0]);
        lives.tell(told > finished);
        finished = std::max(finished, told);
        ::close(ends[0]);

        Result<ProjectFile> project = ProjectFile::open(path);
        ASSERT_TRUE(project) << project.error().message;
        const Result<ProjectCheck> check = project->verify();
        ASSERT_TRUE(check && check->findings.empty())
            << "kill " << kill << ": " << (check ? check->findings.front() : check.error().message);
        const Study study = *project->loadStudy(project->studies()->front().id);
        const std::int64_t there = std::stoll(study.question);
        ASSERT_GE(there, finished) << "a finished edit is missing after kill " << kill;
        ASSERT_LE(there, finished + 1) << "at most one edit was under way";
        finished = there;
        if (there > 0) {
            EXPECT_EQ(study.pieces[0].markers.at("break").at, static_cast<double>(there))
                << "an edit is there as a whole or not at all";
            EXPECT_EQ(*project->rawBytes(study.pieces[0].recording->file), bytesOfImport(there));
        }
        for (std::int64_t i = 1; i <= there; i += std::max<std::int64_t>(1, there / 7)) {
            const auto raw = project->findRawFile(sha256Of(bytesOfImport(i)));
            ASSERT_TRUE(raw && raw->has_value()) << "import " << i << " is missing after kill " << kill;
        }
    }
    EXPECT_GT(lives.fruitful(), kKills / 4) << "the child got to work between the kills";
}

} // namespace inchpeg
