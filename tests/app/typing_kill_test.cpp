// SPDX-License-Identifier: GPL-3.0-or-later
// The application is killed at random moments while masses are typed; no confirmed one may be missing.
#include "app/log/measure_table.h"
#include "app/session/preferences.h"
#include "app/session/project_session.h"
#include "app/typist.h"
#include "app/window/main_window.h"
#include "core/model/study_edit.h"
#include "support/night.h"
#include "support/random_lives.h"
#include "support/sanitized.h"

#include <QApplication>
#include <QProcess>
#include <QTemporaryDir>
#include <QTest>

#include <gtest/gtest.h>

#include <cmath>
#include <cstdio>
#include <set>

namespace inchpeg::app
{

namespace
{

const int kKills = test::timesOf(test::isNight(), 200, 40, 12);
constexpr int kPieces = 24;
constexpr double kLongestTyping_s = test::kSanitized ? 1.0 : 0.2;

/// Masses that were confirmed so far by the history of the project, in hundredths of a gram.
std::set<int> historyOf(ProjectFile &project)
{
    std::set<int> numbers;
    const Result<ProjectContents> contents = project.contents();
    for (const KeptChange &kept : contents->history) {
        if (kept.change.what == "mass")
            numbers.insert(static_cast<int>(std::lround(100.0 * std::stod(kept.change.after))));
    }
    return numbers;
}

} // namespace

int typeUntilKilled(const char *path)
{
    Preferences preferences;
    ProjectSession session(QStringLiteral("typist"), [] { return std::string("2026-06-01T10:00:00Z"); });
    FilePrompts prompts(preferences);
    if (!session.openProject(QString::fromLocal8Bit(path)))
        return 3;
    MainWindow window(session, preferences, prompts);
    window.show();
    QApplication::setActiveWindow(&window);
    session.setLens(Lens::Log);
    auto *table = window.findChild<MeasureTable *>(QStringLiteral("measureTable"));
    auto &model = *qobject_cast<PieceTableModel *>(table->model());
    model.setWalk(Walk::Column);
    int column = 0;
    while (!model.placeAt(column) || model.placeAt(column)->field != LogField::Mass)
        ++column;
    int next = 0;
    for (const int number : historyOf(session.project()))
        next = std::max(next, number);
    std::puts("ready");
    std::fflush(stdout);
    for (++next;; ++next) {
        table->setCurrentIndex(model.index(next % kPieces, column));
        table->setFocus();
        const QByteArray keys = QByteArray::number(0.01 * next, 'f', 2);
        for (const char key : keys)
            QTest::keyClick(QApplication::focusWidget(), key);
        QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
        QCoreApplication::processEvents(); // the cell takes its value once its editor has closed
        const Piece &piece = *findPiece(*session.study(), model.pieceAt(next % kPieces));
        if (std::lround(100.0 * piece.log.mass_g.value_or(0.0)) != next) {
            std::fprintf(stderr, "%d typed into row %d, %g is there; focus %s; notice %s\n", next,
                         next % kPieces, piece.log.mass_g.value_or(0.0),
                         QApplication::focusWidget()->metaObject()->className(),
                         window.notice().toUtf8().constData());
            return 4; // what was typed did not arrive
        }
        std::printf("%d\n", next);
        std::fflush(stdout);
    }
}

TEST(TypingKill, NoConfirmedValueIsMissingAfterTwoHundredKills)
{
    const QTemporaryDir folder;
    const QString path = folder.filePath(QStringLiteral("typed.inchpeg"));
    {
        Result<ProjectFile> project = ProjectFile::create(path.toStdString());
        ASSERT_TRUE(project);
        Study study;
        study.id = StudyId{project->takeId()};
        study.question = "Does it last?";
        firstTest(study).piecesPerCondition = kPieces;
        ASSERT_TRUE(addCondition(study, {{}, {"a"}, {}, {}}, [&] { return project->takeId(); }));
        ASSERT_TRUE(project->save({std::nullopt, study}));
    }
    test::RandomLives lives(20261125, kLongestTyping_s);
    int confirmed = 0;
    for (int kill = 0; kill < kKills; ++kill) {
        QProcess typist;
        typist.setProcessChannelMode(QProcess::ForwardedErrorChannel);
        typist.start(QCoreApplication::applicationFilePath(), {QStringLiteral("--typist"), path});
        ASSERT_TRUE(typist.waitForReadyRead(60000)) << "the application did not start, kill " << kill;
        QTest::qSleep(static_cast<int>(1e3 * lives.next_s()) + 1);
        typist.kill();
        ASSERT_TRUE(typist.waitForFinished(20000));
        ASSERT_EQ(typist.exitStatus(), QProcess::CrashExit)
            << "it gave up by itself with " << typist.exitCode();
        const int before = confirmed;
        for (const QByteArray &line : typist.readAllStandardOutput().split('\n'))
            confirmed = std::max(confirmed, line.toInt());
        lives.tell(confirmed > before);

        Result<ProjectFile> project = ProjectFile::open(path.toStdString());
        ASSERT_TRUE(project) << project.error().message;
        const Result<ProjectCheck> check = project->verify();
        ASSERT_TRUE(check && check->findings.empty()) << "kill " << kill;
        const std::set<int> kept = historyOf(*project);
        const int last = kept.empty() ? 0 : *kept.rbegin();
        ASSERT_GE(last, confirmed) << "a confirmed value is missing after kill " << kill;
        ASSERT_LE(last, confirmed + 1) << "at most one was under way";
        ASSERT_EQ(static_cast<int>(kept.size()), last) << "every value up to the last is in the history";
        const Study study = *project->loadStudy(project->studies()->front().id);
        for (int number = std::max(1, last - kPieces + 1); number <= last; ++number)
            ASSERT_NEAR(study.pieces[static_cast<std::size_t>(number % kPieces)].log.mass_g.value_or(0.0),
                        0.01 * number, 1e-9)
                << "kill " << kill;
        confirmed = last;
    }
    EXPECT_GT(lives.fruitful(), kKills / 4) << "values were entered between the kills";
}

} // namespace inchpeg::app
