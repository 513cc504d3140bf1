// SPDX-License-Identifier: GPL-3.0-or-later
// Projects whose content does not fit, told to the command line: an answer or a sentence, never a fall.
// INCHPEG_DAMAGED asks for more of them, INCHPEG_DAMAGED_SEED for others; bench/night does.
#include "cli/run_cli.h"
#include "store/project_file.h"
#include "support/sanitized.h"
#include "support/wrong_content.h"

#include <fmt/format.h>

#include <cstdlib>
#include <filesystem>
#include <iostream>

namespace inchpeg
{

using test::CliOutcome;
using test::runCli;

namespace
{

/// Ended by itself, and where it did not do it, says so.
void expectAnswerOrSentence(const CliOutcome &outcome, const std::string &call)
{
    EXPECT_GE(outcome.status, 0) << call << " was ended by a signal\n" << outcome.err;
    EXPECT_LE(outcome.status, 2) << call << '\n' << outcome.err;
    if (outcome.status == 2) {
        EXPECT_NE(outcome.err, "") << call;
        for (const char *inner : {"terminate", "std::", "json.exception", "map::at", "vector::"})
            EXPECT_FALSE(test::holds(outcome.err, inner)) << call << ": " << outcome.err;
    }
}

std::vector<std::vector<std::string>> callsOn(const std::string &path, const std::string &study,
                                              const test::TemporaryFolder &folder, std::uint64_t seed)
{
    std::vector<std::vector<std::string>> calls = {
        {"project", "verify", path},
        {"project", "verdict", path, "--study", study},
        {"project", "read", path, "--study", study},
        {"project", "report", path, "--study", study, "--to", folder.path("report.html")},
    };
    switch (seed % 4) { // the dear ones in turn
    case 0:
        calls.push_back({"project", "export", path, "--to", folder.path("export")});
        break;
    case 1:
        calls.push_back({"project", "open-data", path, "--study", study, "--to", folder.path("open")});
        break;
    case 2:
        calls.push_back({"project", "set", path, "confidence=90", "--study", study});
        break;
    default:
        calls.push_back({"project", "info", path});
        break;
    }
    return calls;
}

} // namespace

TEST(DamagedProjects, EachCallAnswersOrSaysWhatIsWrong)
{
    const char *wanted = std::getenv("INCHPEG_DAMAGED");
    const char *first = std::getenv("INCHPEG_DAMAGED_SEED");
    const int count = wanted != nullptr ? std::atoi(wanted) : test::kSanitized ? 1 : 6;
    const std::uint64_t from = first != nullptr ? std::strtoull(first, nullptr, 10) : 1;
    const test::TemporaryFolder base;
    const std::string sound = base.path("sound.inchpeg");
    ASSERT_EQ(runCli({"project", "demo", sound}).status, 0);
    std::vector<StudyId> studies;
    {
        Result<ProjectFile> project = ProjectFile::openForReading(sound);
        ASSERT_TRUE(project) << project.error().message;
        for (const StudyHeader &header : *project->studies())
            studies.push_back(header.id);
    }
    ASSERT_FALSE(studies.empty());
    int answered = 0, refused = 0;
    for (std::uint64_t seed = from; seed < from + static_cast<std::uint64_t>(count); ++seed) {
        const test::TemporaryFolder folder;
        const std::string path = folder.path("damaged.inchpeg");
        std::filesystem::copy_file(sound, path);
        const std::string done = test::damageContent(path, seed);
        SCOPED_TRACE(fmt::format("seed {}: {}", seed, done));
        const std::string study = fmt::format("{}", studies[seed % studies.size()].value);
        for (const std::vector<std::string> &call : callsOn(path, study, folder, seed)) {
            const CliOutcome outcome = runCli(call);
            expectAnswerOrSentence(outcome, call[1]);
            ++(outcome.status == 2 ? refused : answered);
        }
        if (::testing::Test::HasFailure())
            break;
    }
    std::cout << count << " projects with wrong content: " << answered << " calls answered, " << refused
              << " refused with a sentence\n";
}

} // namespace inchpeg
