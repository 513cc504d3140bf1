// SPDX-License-Identifier: GPL-3.0-or-later
// The command line and reports, with each call to the disk failing once.
#include "cli/dispatch.h"
#include "report/write_report.h"
#include "service/demo_project.h"
#include "service/project_report.h"
#include "support/failing_disk.h"
#include "support/sanitized.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>

#include <filesystem>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;
using test::FailingDisk;

struct Said {
    int status = 0;
    std::string out;
    std::string err;
};

Said runHere(std::vector<std::string> arguments)
{
    arguments.insert(arguments.begin(), "inchpeg-cli");
    std::vector<char *> pointers;
    for (std::string &argument : arguments)
        pointers.push_back(argument.data());
    testing::internal::CaptureStdout();
    testing::internal::CaptureStderr();
    Said said;
    said.status = cli::runProgram(cli::plainCommands(), static_cast<int>(pointers.size()), pointers.data());
    said.out = testing::internal::GetCapturedStdout();
    said.err = testing::internal::GetCapturedStderr();
    return said;
}

class CliFaults : public testing::Test
{
protected:
    /// Every call failing in its turn, at most so many of them, evenly chosen.
    void runWithFaults(const std::vector<std::string> &arguments, const std::vector<std::string> &made = {},
                       std::size_t most = test::kSanitized ? 25 : 150)
    {
        FailingDisk disk;
        const auto clear = [&] {
            for (const std::string &path : made)
                fs::remove_all(path);
        };
        clear();
        const Said clean = runHere(arguments);
        ASSERT_EQ(clean.status, 0) << clean.err;
        const std::size_t calls = disk.calls();
        ASSERT_GT(calls, 0U) << arguments[1];
        const std::size_t stride = std::max<std::size_t>(1, calls / most);
        for (std::size_t k = 1; k <= calls; k += stride) {
            clear();
            disk.failAt(k, FailingDisk::Manner::Once);
            const Said said = runHere(arguments);
            disk.failAt(0, FailingDisk::Manner::Once);
            if (said.status == 0) {
                EXPECT_FALSE(said.out.empty()) << arguments[1] << " at call " << k;
                continue;
            }
            EXPECT_EQ(said.status, 2) << arguments[1] << " at call " << k << ": " << said.err;
            EXPECT_NE(said.err.find("inchpeg-cli: "), std::string::npos) << said.err;
            EXPECT_EQ(said.err.find("Unknown error"), std::string::npos) << said.err;
            // What is there is whole: it was made before the disk refused to tell of it.
            for (const std::string &path : made)
                EXPECT_TRUE(!fs::exists(path) || isWhole(path))
                    << path << " at call " << k << ": " << said.err;
        }
    }

    static bool isWhole(const std::string &path)
    {
        if (fs::is_directory(path))
            return fs::exists(path + "/project.json");
        Result<ProjectFile> project = ProjectFile::open(path);
        const Result<ProjectCheck> check =
            project ? project->verify() : Result<ProjectCheck>(project.error());
        return check && check->findings.empty() &&
               (path.find("demo") == std::string::npos || project->studies()->size() == 8);
    }

    test::TemporaryFolder m_folder;
};

} // namespace

TEST_F(CliFaults, EachCommandSaysWhatTheDiskRefused)
{
    const std::string project = m_folder.path("p.inchpeg");
    const std::string table = m_folder.write("t.csv", "group,value\na,1\na,2\nb,3\nb,5\n");
    const std::string record =
        m_folder.write("r.csv", "force (N),extension (mm)\n0,0\n1,0.1\n2,0.2\n3,0.3\n");
    const std::string spec =
        m_folder.write("s.json", R"({"question": "Does it hold?", "test": {"method": "tension"},
        "factors": [{"name": "nozzle temperature", "unit": "°C", "levels": [230, 250]}], "pieces": 5})");
    const std::string fresh = m_folder.path("fresh.inchpeg");
    runWithFaults({"project", "new", fresh}, {fresh});
    ASSERT_EQ(runHere({"project", "new", project}).status, 0);
    runWithFaults({"project", "info", project});
    runWithFaults({"project", "verify", project});
    runWithFaults({"plan", "make", "--spec", spec, "--into", project});
    runWithFaults({"plan", "make", "--spec", spec});
    runWithFaults({"project", "export", project, "--to", m_folder.path("e")}, {m_folder.path("e")});
    ASSERT_EQ(runHere({"project", "export", project, "--to", m_folder.path("kept")}).status, 0);
    runWithFaults({"project", "import", m_folder.path("kept"), "--to", fresh}, {fresh});
    runWithFaults({"stats", "describe", "--data", table, "--value", "value", "--by", "group"});
    runWithFaults({"import", "sniff", "--data", record});
    runWithFaults({"reduce", "tensile", "--data", record, "--set", "area=10", "--set", "gauge_length=50"});
}

TEST_F(CliFaults, ADemoThatDoesNotFitIsNotLeftBehind)
{
    const std::string path = m_folder.path("demo.inchpeg");
    runWithFaults({"project", "demo", path}, {path}, test::kSanitized ? 4 : 24);
}

TEST_F(CliFaults, AReportIsWholeOrTheOneOfBefore)
{
    const std::string path = m_folder.path("demo.inchpeg");
    ASSERT_TRUE(writeDemoProject(path));
    Result<ProjectFile> project = ProjectFile::open(path);
    ASSERT_TRUE(project);
    const Result<ProjectResults> all =
        readResultsAround(*project, project->studies()->front().id, Keeping::No);
    ASSERT_TRUE(all);
    const Result<Report> report =
        reportOf(*project, *all, project->studies()->front().id, {"demo", "0", "2026-06-01"}, {});
    ASSERT_TRUE(report);
    for (const char *name : {"r.html", "r.xlsx"}) {
        const std::string to = m_folder.path(name);
        FailingDisk disk;
        ASSERT_TRUE(writeReport(*report, to, Paper::A4, {}, {}));
        const std::size_t calls = disk.calls();
        for (std::size_t k = 1; k <= calls; ++k) {
            std::ofstream(to, std::ios::binary) << "the one of before";
            disk.failAt(k, FailingDisk::Manner::Once);
            const Status written = writeReport(*report, to, Paper::A4, {}, {});
            disk.failAt(0, FailingDisk::Manner::Once);
            EXPECT_FALSE(written) << name << " at call " << k;
            EXPECT_EQ(test::bytesOf(to), "the one of before") << name << " at call " << k;
        }
        EXPECT_GT(calls, 0U);
    }
    for (const fs::directory_entry &entry : fs::directory_iterator(m_folder.path(".")))
        EXPECT_EQ(entry.path().string().find(".part"), std::string::npos) << entry.path();
}

} // namespace inchpeg
