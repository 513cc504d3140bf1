// SPDX-License-Identifier: GPL-3.0-or-later
// The application is killed at random moments while the bench records: no reading older than a quarter of a
// second may be missing, and what was cut off is in the project after the next start.
#include "app/bench/bench_presenter.h"
#include "app/bench/cut_off_records.h"
#include "app/session/preferences.h"
#include "app/session/project_session.h"
#include "app/typist.h"
#include "app/window/main_window.h"
#include "core/model/study_edit.h"
#include "rig/pseudo_terminal.h"
#include "sim/random.h"
#include "support/night.h"
#include "support/patience.h"

#include <QApplication>
#include <QDir>
#include <QFile>
#include <QProcess>
#include <QTemporaryDir>
#include <QTest>

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <chrono>
#include <cstdio>
#include <cstdlib>

namespace inchpeg::app
{

namespace
{

using Clock = std::chrono::steady_clock;
/// The promise is a quarter of a second, on a machine that does nothing else: that is judged by night. By day
/// a machine may be busy, and nothing is judged by the clock.
const double kKept_s = test::isNight() && !test::kSanitized ? 0.25 : 10.0;

int benchKills()
{
    const char *text = std::getenv("INCHPEG_KILLS");
    return text != nullptr ? std::atoi(text) : 8;
}

/// The numbers that stand in a record, whatever stands around them.
std::vector<int> numbersIn(const QByteArray &bytes)
{
    std::vector<int> numbers;
    for (const QByteArray &line : bytes.split('\n')) {
        const QByteArray cell = line.split(';').last().trimmed();
        bool isNumber = false;
        const double value = cell.toDouble(&isNumber);
        if (isNumber && line.contains(';'))
            numbers.push_back(static_cast<int>(value));
    }
    return numbers;
}

std::size_t recordedPieces(const QString &path)
{
    Result<ProjectFile> project = ProjectFile::open(path.toStdString());
    EXPECT_TRUE(project) << (project ? "" : project.error().message);
    if (!project)
        return 0;
    const Result<ProjectCheck> check = project->verify();
    EXPECT_TRUE(check && check->databaseOk && check->findings.empty());
    const Result<std::vector<StudyHeader>> studies = project->studies();
    return studies ? static_cast<std::size_t>(studies->front().recorded) : 0;
}

} // namespace

int recordUntilKilled(const char *path, const char *port)
{
    Preferences preferences;
    ProjectSession session(QStringLiteral("recorder"), [] { return std::string("2026-06-01T10:00:00Z"); });
    FilePrompts prompts(preferences);
    if (!session.openProject(QString::fromLocal8Bit(path)))
        return 3;
    MainWindow window(session, preferences, prompts);
    window.show();
    session.setLens(Lens::Bench);
    BenchPresenter &bench = window.bench();
    bench.confirmCautions();
    if (!bench.cutOff().empty()) {
        bench.takeCutOff();
        if (!QTest::qWaitFor([&] { return bench.phase() == BenchPhase::Done; }, test::kPatience_ms))
            return 4;
        bench.next();
    }
    bench.connectTo(QString::fromLocal8Bit(port));
    if (!QTest::qWaitFor([&] { return bench.phase() == BenchPhase::Ready; }, test::kPatience_ms))
        return 5;
    bench.startOrStop();
    if (!QTest::qWaitFor([&] { return bench.phase() == BenchPhase::Recording; }, test::kPatience_ms))
        return 6;
    std::puts("recording");
    std::fflush(stdout);
    return QApplication::exec();
}

TEST(BenchKill, NothingOlderThanAQuarterOfASecondIsLostAndTheRestIsTakenAtTheNextStart)
{
    const QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("bench.inchpeg"));
    {
        Result<ProjectFile> project = ProjectFile::create(path.toStdString());
        ASSERT_TRUE(project);
        Study study;
        study.id = StudyId{project->takeId()};
        study.question = "Does it last?";
        firstTest(study).piecesPerCondition = std::min(kMostPiecesPerCondition, benchKills() + 1);
        ASSERT_TRUE(addCondition(study, {{}, {"a"}, {}, {}}, [&] { return project->takeId(); }));
        ASSERT_TRUE(project->save({std::nullopt, study}));
    }
    const std::string port = folder.filePath(QStringLiteral("rig")).toStdString();
    sim::Random random(20261128);
    for (int kill = 0; kill < benchKills(); ++kill) {
        PseudoTerminal terminal = *PseudoTerminal::open(port);
        QProcess recorder;
        recorder.setProcessChannelMode(QProcess::ForwardedErrorChannel);
        recorder.start(QCoreApplication::applicationFilePath(),
                       {QStringLiteral("--recorder"), path, QString::fromStdString(port)});
        std::vector<Clock::time_point> sentAt;
        const auto send = [&] {
            terminal.send(fmt::format("{}\n", 1000 + sentAt.size()));
            sentAt.push_back(Clock::now());
            static_cast<void>(terminal.receive(4)); // a pause
        };
        const Clock::time_point begun = Clock::now();
        while (recorder.bytesAvailable() == 0 && recorder.state() != QProcess::NotRunning &&
               Clock::now() - begun < std::chrono::seconds(600)) {
            send();
            recorder.waitForReadyRead(1);
        }
        ASSERT_TRUE(recorder.readAllStandardOutput().contains("recording"))
            << "kill " << kill << ", " << recorder.exitCode();
        const Clock::time_point until =
            Clock::now() + std::chrono::milliseconds(static_cast<int>(50.0 + 900.0 * random.uniform()));
        while (Clock::now() < until)
            send();
        const Clock::time_point killedAt = Clock::now();
        recorder.kill();
        recorder.waitForFinished(test::kPatience_ms);
        const std::vector<CutOffRecord> cut = cutOffRecords(benchFolder(path));
        ASSERT_EQ(cut.size(), 1U) << "kill " << kill;
        QFile file(cut.front().file);
        ASSERT_TRUE(file.open(QIODevice::ReadOnly));
        const std::vector<int> numbers = numbersIn(file.readAll());
        ASSERT_FALSE(numbers.empty()) << "kill " << kill;
        for (std::size_t i = 1; i < numbers.size(); ++i)
            ASSERT_EQ(numbers[i], numbers[i - 1] + 1) << "kill " << kill << ": a hole";
        const auto last = static_cast<std::size_t>(numbers.back() - 1000);
        const bool isAllThere = last + 1 >= sentAt.size() ||
                                std::chrono::duration<double>(killedAt - sentAt[last + 1]).count() < kKept_s;
        EXPECT_TRUE(isAllThere) << "kill " << kill << ": the last reading kept is older";
        EXPECT_EQ(recordedPieces(path), static_cast<std::size_t>(kill)) << "those before are in the project";
    }
}

} // namespace inchpeg::app
