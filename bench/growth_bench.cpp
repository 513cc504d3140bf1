// SPDX-License-Identifier: GPL-3.0-or-later
// growth_bench FOLDER [MOST]   how work grows with the pieces of a project, 100 to MOST (100,000) of them:
// all in one study, and in studies of a thousand each, of which one is told. Each piece has a record of its
// own. Slopes are those of time against pieces in doubled logarithmic scale, from the second largest project
// to the largest; 1 is linear.
#include "core/compare/comparison.h"
#include "core/model/study_edit.h"
#include "report/write_report.h"
#include "service/open_data.h"
#include "service/project_check.h"
#include "service/project_export.h"
#include "service/project_report.h"
#include "service/project_results.h"
#include "sim/random.h"

#include <QGuiApplication>

#include <fmt/format.h>

#include <chrono>
#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <functional>
#include <map>

namespace
{

using namespace inchpeg;
namespace fs = std::filesystem;

constexpr std::size_t kPiecesPerRail = 20;
constexpr std::size_t kMostRails = 200;

[[noreturn]] void fail(const Error &error)
{
    fmt::print(stderr, "growth_bench: {}\n", error.message);
    std::exit(1);
}

template <typename T>
T must(Result<T> result)
{
    if (!result)
        fail(result.error());
    return std::move(*result);
}

void must(const Status &status)
{
    if (!status)
        fail(status.error());
}

std::string recordText(double strength_N, sim::Random &random)
{
    std::string text = "time_s,force_N\n";
    constexpr int kRows = 60;
    for (int i = 0; i < kRows; ++i)
        text +=
            fmt::format("{:.2f},{:.2f}\n", 0.1 * i, strength_N * i / (kRows - 1.0) + 0.05 * random.normal());
    return text;
}

StudyId addStudy(ProjectFile &project, std::size_t pieces, std::size_t number, sim::Random &random)
{
    const auto takeId = [&] { return project.takeId(); };
    Study study;
    study.id = StudyId{project.takeId()};
    study.question = fmt::format("Growth {}?", number);
    study.factors.front().name = "material";
    const std::size_t rails = std::min(kMostRails, pieces / kPiecesPerRail);
    const std::size_t perRail = pieces / rails;
    firstTest(study).piecesPerCondition = static_cast<int>(perRail);
    for (std::size_t rail = 0; rail < rails; ++rail)
        must(addCondition(study, {{}, {fmt::format("{}", 200 + rail)}, {}, {}}, takeId));
    for (std::size_t i = 0; i < study.pieces.size(); ++i) {
        study.pieces[i].section = PlainArea{squareMillimetres(20.0)};
        const double strength_N =
            1000.0 + 5.0 * static_cast<double>((i / perRail) % 40) + 20.0 * random.normal();
        const AddedRawFile raw =
            must(project.addRawFile(fmt::format("{}_{}.csv", number, i), recordText(strength_N, random)));
        study.pieces[i].recording = Recording{raw.id, {}};
    }
    must(project.save({{}, study}));
    return study.id;
}

using Times = std::map<std::string, std::vector<double>>; ///< seconds of each step, by growing projects

template <typename Work>
auto timed(Times &times, const std::string &what, Work work)
{
    const auto start = std::chrono::steady_clock::now();
    auto result = work();
    times[what].push_back(std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count());
    return result;
}

void measure(const fs::path &folder, std::size_t pieces, std::size_t perStudy, Times &times)
{
    const std::string path = (folder / "growth.inchpeg").string();
    fs::remove(path);
    sim::Random random(11);
    StudyId study;
    {
        ProjectFile project = must(ProjectFile::create(path));
        study = timed(times, "a project made, record by record", [&] {
            StudyId last;
            for (std::size_t made = 0, number = 1; made < pieces; made += perStudy, ++number)
                last = addStudy(project, std::min(perStudy, pieces), number, random);
            return last;
        });
    }
    ProjectFile project = must(ProjectFile::open(path));
    const Study loaded = timed(times, "a study loaded", [&] { return must(project.loadStudy(study)); });
    timed(times, "a typed mass saved", [&] {
        Study typed = loaded;
        typed.pieces.front().log.mass_g = 2.5;
        must(project.save({loaded, typed}));
        must(project.save({typed, loaded}));
        return 0;
    });
    const ProjectResults one =
        timed(times, "a study read", [&] { return must(readStudyResults(project, study, Keeping::No)); });
    timed(times, "a study compared", [&] {
        return compareStudy(one.studies.front(), one.readings.front(),
                            responsesOf(one.studies.front()).front().property, {.test = Method::Tension});
    });
    const ReportOrigin origin = reportOrigin(project, "growth", "2026-12-01");
    const Report report = timed(times, "a study's report", [&] {
        const ProjectResults all = must(readResultsAround(project, study, Keeping::No));
        return must(reportOf(project, all, study, origin, {}));
    });
    timed(times, "the report as a web page", [&] {
        must(writeReport(report, (folder / "report.html").string(), Paper::A4));
        return 0;
    });
    timed(times, "a study's open data", [&] {
        fs::remove_all(folder / "open");
        return must(writeOpenData(project, study, (folder / "open").string(), origin));
    });
    timed(times, "a project exported", [&] {
        fs::remove_all(folder / "export");
        must(exportProject(project, (folder / "export").string()));
        return 0;
    });
    timed(times, "a project imported", [&] {
        fs::remove(folder / "again.inchpeg");
        return must(importProject((folder / "export").string(), (folder / "again.inchpeg").string()));
    });
    timed(times, "a project verified", [&] { return must(verifyProject(project)); });
    timed(times, "half its records left out and compacted", [&] {
        Study half = loaded;
        for (std::size_t i = 0; i < half.pieces.size(); i += 2)
            half.pieces[i].recording.reset();
        must(project.save({loaded, half}));
        must(project.compact());
        return 0;
    });
}

void print(const char *title, const std::vector<std::size_t> &sizes, const Times &times)
{
    fmt::print("\n{}\n{:42}", title, "pieces");
    for (const std::size_t size : sizes)
        fmt::print("{:>11}", size);
    fmt::print("{:>9}\n", "slope");
    for (const auto &[what, seconds] : times) {
        fmt::print("{:42}", what);
        for (const double s : seconds)
            fmt::print("{:9.3f} s", s);
        const std::size_t n = seconds.size();
        if (n > 1)
            fmt::print("{:9.2f}",
                       std::log(seconds[n - 1] / seconds[n - 2]) /
                           std::log(static_cast<double>(sizes[n - 1]) / static_cast<double>(sizes[n - 2])));
        fmt::print("\n");
    }
}

} // namespace

int main(int argc, char **argv)
{
    qputenv("QT_QPA_PLATFORM", "offscreen");
    const QGuiApplication application(argc, argv);
    if (argc < 2)
        return 2;
    const fs::path folder = argv[1];
    const std::size_t most = argc > 2 ? std::stoul(argv[2]) : 100000;
    for (const bool oneStudy : {true, false}) {
        std::vector<std::size_t> sizes;
        Times times;
        for (std::size_t pieces = oneStudy ? 100 : 1000;
             pieces <= (oneStudy ? std::min<std::size_t>(most, 10000) : most); pieces *= 10) {
            sizes.push_back(pieces);
            measure(folder, pieces, oneStudy ? pieces : 1000, times);
        }
        print(oneStudy ? "All pieces in one study" : "Studies of a thousand pieces, one of them told", sizes,
              times);
    }
    return 0;
}
