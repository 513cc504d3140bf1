// SPDX-License-Identifier: GPL-3.0-or-later
// What is recorded and typed is filed under its own piece, study and day, whatever a person does meanwhile;
// and what fails leaves the window as it was.
#include "app/app_harness.h"
#include "app/bench/bench_view.h"
#include "app/log/measure_table.h"
#include "app/session/photos.h"
#include "disk/disk.h"
#include "rig/pseudo_terminal.h"
#include "service/beside/task.h"
#include "service/local_day.h"
#include "support/patience.h"
#include "support/sanitized.h"

#include <QComboBox>
#include <QDir>
#include <QLabel>
#include <QLineEdit>

#include <fmt/format.h>

#include <cerrno>
#include <cstdlib>
#include <ctime>
#include <filesystem>
#include <fstream>
#include <span>
#include <sstream>

namespace inchpeg::app
{

namespace
{

namespace fs = std::filesystem;

class FiledRight : public testing::Test
{
protected:
    std::unique_ptr<AppHarness> m_app = AppHarness::onDemo();
    ~FiledRight() override
    {
        setDiskFaults({});
        setThrowingTask({});
    }

    ProjectSession &session() { return m_app->session(); }
    bool waitFor(const std::function<bool()> &what) { return QTest::qWaitFor(what, test::kPatience_ms); }
    const Piece &piece(const char *code)
    {
        for (const Piece &one : session().study()->pieces) {
            if (one.code == code)
                return one;
        }
        throw std::runtime_error("no such piece");
    }
    QString text(const char *label) { return m_app->find<QLabel>(label)->text(); }

    /// The demo's study of two lots at the bench, A3 and B3 whole, its cautions confirmed.
    void goToTheBench()
    {
        ASSERT_TRUE(session().selectStudy(session().studies()[2].id));
        m_app->waitUntilRead();
        ASSERT_TRUE(session().edit(QStringLiteral("measured"), [](Study &study) {
            for (Piece &one : study.pieces) {
                if (!one.section)
                    one.section = RectangularSection{millimetres(10.0), millimetres(4.0)};
            }
            return ok();
        }));
        session().setLens(Lens::Bench);
        m_app->window().bench().confirmCautions();
        ASSERT_TRUE(waitFor([&] { return text("benchPiece") == QStringLiteral("A3"); }));
    }
    PseudoTerminal connectRig()
    {
        const QString port = m_app->path(QStringLiteral("port"));
        PseudoTerminal terminal = *PseudoTerminal::open(port.toStdString());
        m_app->find<QComboBox>("benchPort")->setCurrentText(port);
        m_app->click("benchConnect");
        EXPECT_TRUE(waitFor([&] { return m_app->window().bench().phase() == BenchPhase::Ready; }));
        EXPECT_TRUE(waitFor([&] { return !terminal.receive(5).empty(); })) << "it is asked who it is";
        return terminal;
    }
    /// For looking at, where a folder is given.
    void picture(const char *name)
    {
        if (const QString folder = qEnvironmentVariable("INCHPEG_WALK_PICTURES"); !folder.isEmpty())
            m_app->window().grab().save(folder + QLatin1String(name));
    }
    /// Loads a piece until it gives way.
    static void load(PseudoTerminal &terminal, double peak_N)
    {
        constexpr int kSteps = 60;
        for (int i = 0; i <= kSteps; ++i) {
            terminal.send(fmt::format("{:.1f}\n", peak_N * i / kSteps));
            QTest::qWait(3);
        }
        terminal.send("1.0\n0.5\n");
    }
};

} // namespace

TEST_F(FiledRight, ARecordIsOfThePieceThatItWasArmedFor)
{
    goToTheBench();
    PseudoTerminal terminal = connectRig();
    // Armed for A3; in the log another piece is chosen, the first is loaded, and the person comes back.
    const PieceId armed = piece("A3").id;
    session().setLens(Lens::Log);
    session().selectPiece(piece("B3").id);
    for (int i = 0; i <= 40; ++i) {
        terminal.send(fmt::format("{:.1f}\n", 5.0 * i));
        QTest::qWait(3);
    }
    ASSERT_TRUE(waitFor([&] { return m_app->window().bench().recorder().isRecording(); }));
    session().setLens(Lens::Bench);
    QCoreApplication::processEvents();
    EXPECT_EQ(text("benchPiece"), QStringLiteral("A3")) << "its record is under way";
    session().selectPiece(piece("B3").id);
    QCoreApplication::processEvents();
    const QStringList files = QDir(session().projectPath() + QStringLiteral(".bench")).entryList(QDir::Files);
    ASSERT_EQ(files.size(), 1);
    EXPECT_TRUE(files.front().startsWith(QStringLiteral("piece %1 ").arg(armed.value)));
    load(terminal, 400.0);
    ASSERT_TRUE(waitFor([&] { return findPiece(*session().study(), armed)->recording.has_value(); }))
        << m_app->notice().toStdString();
    EXPECT_FALSE(piece("B3").recording);
}

TEST_F(FiledRight, ARecordThatEndsWhileAnotherStudyIsOnTheRackIsItsOwnPieces)
{
    goToTheBench();
    PseudoTerminal terminal = connectRig();
    const StudyId home = session().study()->id;
    const PieceId armed = piece("A3").id;
    session().setLens(Lens::Compare);
    ASSERT_TRUE(session().selectStudy(session().studies().front().id));
    const StudyId there = session().study()->id;
    load(terminal, 400.0);
    ASSERT_TRUE(waitFor([&] {
        const Result<Study> study = session().project().loadStudy(home);
        return study && findPiece(*study, armed)->recording.has_value();
    })) << m_app->notice().toStdString();
    EXPECT_EQ(session().study()->id, there) << "nobody is pulled away";
    // Undo follows the step to its study.
    ASSERT_FALSE(session().undoText().isEmpty());
    ASSERT_TRUE(session().undo());
    EXPECT_EQ(session().study()->id, home);
    EXPECT_FALSE(findPiece(*session().study(), armed)->recording);
}

TEST_F(FiledRight, ADiskThatRefusesTheRecordLosesNoRowAndSaysSo)
{
    goToTheBench();
    PseudoTerminal terminal = connectRig();
    qputenv("XDG_CACHE_HOME", m_app->path(QStringLiteral("cache")).toUtf8());
    const std::string beside = session().projectPath().toStdString() + ".bench";
    for (int i = 0; i <= 30; ++i) {
        terminal.send(fmt::format("{:.1f}\n", 6.0 * i));
        QTest::qWait(3);
    }
    ASSERT_TRUE(waitFor([&] { return m_app->window().bench().recorder().isRecording(); }));
    setDiskFaults([beside](DiskCall call, const std::string &path) {
        const bool isFull = call == DiskCall::Write && path.starts_with(beside) && !path.ends_with(".rest");
        return isFull ? std::optional(DiskFault{ENOSPC, true}) : std::nullopt;
    });
    for (int i = 31; i <= 60; ++i) {
        terminal.send(fmt::format("{:.1f}\n", 6.0 * i));
        QTest::qWait(3);
    }
    auto *large = m_app->find<QLabel>("benchDisk");
    ASSERT_TRUE(waitFor([&] { return large->isVisible(); }));
    EXPECT_TRUE(large->text().contains(QStringLiteral("refuses the record of A3")))
        << large->text().toStdString();
    EXPECT_TRUE(large->text().contains(QStringLiteral("nothing is lost"))) << large->text().toStdString();
    EXPECT_TRUE(large->toolTip().contains(QStringLiteral("the disk is full")))
        << large->toolTip().toStdString();
    EXPECT_TRUE(large->toolTip().contains(QStringLiteral("bench"))) << large->toolTip().toStdString();
    picture("/disk.png");
    EXPECT_GE(large->font().pointSizeF(), 1.2 * QApplication::font().pointSizeF());
    terminal.send("1.0\n0.5\n");
    ASSERT_TRUE(waitFor([&] { return piece("A3").recording.has_value(); })) << m_app->notice().toStdString();
    setDiskFaults({});
    const Result<std::string> bytes = session().project().rawBytes(piece("A3").recording->file);
    ASSERT_TRUE(bytes);
    // Each reading that was sent since the beginning is in it, in order: none cut in two.
    std::vector<double> loads;
    std::istringstream lines(*bytes);
    for (std::string line; std::getline(lines, line);) {
        if (!line.empty() && std::isdigit(static_cast<unsigned char>(line.front())) != 0)
            loads.push_back(std::stod(line.substr(line.find(';') + 1)));
    }
    ASSERT_GT(loads.size(), 40U);
    for (std::size_t i = 1; i < loads.size() && loads[i] > 2.0; ++i)
        EXPECT_NEAR(loads[i] - loads[i - 1], 6.0, 0.11) << "row " << i;
    EXPECT_TRUE(QDir(QString::fromStdString(beside)).entryList(QDir::Files).isEmpty());
    EXPECT_TRUE(QDir(m_app->path(QStringLiteral("cache/inchpeg/bench"))).entryList(QDir::Files).isEmpty());
}

TEST_F(FiledRight, ARecordThatTheProjectCannotTakeIsOfferedAtOnceAndNoSecondLoadTakesItsPlace)
{
    goToTheBench();
    PseudoTerminal terminal = connectRig();
    setThrowingTask("keeping"); // as a disk that fills just before the end
    load(terminal, 300.0);
    auto *offer = m_app->find<QLabel>("benchCutOff");
    ASSERT_TRUE(waitFor([&] { return offer->isVisible(); }));
    EXPECT_TRUE(offer->text().contains(QStringLiteral("A3"))) << offer->text().toStdString();
    EXPECT_FALSE(piece("A3").recording);
    session().selectPiece(piece("A3").id);
    QCoreApplication::processEvents();
    picture("/not_kept.png");
    EXPECT_NE(m_app->window().bench().phase(), BenchPhase::Ready) << "a broken piece is not loaded again";
    setThrowingTask({});
    m_app->click("benchTakeCutOff");
    ASSERT_TRUE(waitFor([&] { return piece("A3").recording.has_value(); })) << m_app->notice().toStdString();
    EXPECT_FALSE(offer->isVisible());
}

TEST_F(FiledRight, ANewProjectUnderTheNameOfTheOpenOneLeavesThatOpen)
{
    for (const Lens lens : {Lens::Log, Lens::Plan, Lens::Read, Lens::Compare, Lens::Bench, Lens::Decide}) {
        session().setLens(lens);
        m_app->prompts().answer = session().projectPath();
        m_app->trigger(QStringLiteral("New project…"));
        QCoreApplication::processEvents();
        ASSERT_NE(session().study(), nullptr);
        EXPECT_TRUE(m_app->notice().contains(QStringLiteral("exists already")))
            << m_app->notice().toStdString();
        ASSERT_TRUE(session().edit(QStringLiteral("a question"), [&](Study &study) {
            study.question += "?";
            return ok();
        }));
    }
}

TEST_F(FiledRight, TheOpenProjectThatHasGoneBadIsClosedForEverybody)
{
    const std::string path = session().projectPath().toStdString();
    for (const Lens lens : {Lens::Log, Lens::Plan, Lens::Read, Lens::Compare, Lens::Bench, Lens::Decide}) {
        session().setLens(lens);
        fs::copy_file(path, path + ".good", fs::copy_options::overwrite_existing);
        {
            std::ofstream bad(path, std::ios::binary);
            bad << "no project any more";
        }
        EXPECT_FALSE(session().openProject(QString::fromStdString(path)));
        QCoreApplication::processEvents();
        EXPECT_EQ(session().study(), nullptr);
        EXPECT_FALSE(session().hasProject());
        m_app->window().repaint();
        for (const char *log : {"-wal", "-shm"})
            fs::remove(path + log);
        fs::rename(path + ".good", path);
        ASSERT_TRUE(session().openProject(QString::fromStdString(path)));
        m_app->waitUntilRead();
        ASSERT_NE(session().study(), nullptr);
    }
}

TEST_F(FiledRight, ByALinkTheWindowReadsWhatItHasJustWritten)
{
    const fs::path real = fs::canonical(session().projectPath().toStdString());
    const fs::path link = m_app->path(QStringLiteral("link.inchpeg")).toStdString();
    fs::create_symlink(real, link);
    m_app->restart();
    ASSERT_TRUE(session().openProject(QString::fromStdString(link.string())));
    m_app->waitUntilRead();
    goToTheBench();
    ASSERT_TRUE(m_app->window().bench().keepTypedPeak(QStringLiteral("480 N")));
    ASSERT_TRUE(waitFor([&] { return piece("A3").recording.has_value() && !session().isReading(); }));
    const auto found = session().readings().find(piece("A3").id);
    ASSERT_NE(found, session().readings().end());
    EXPECT_TRUE(found->second->has_value()) << found->second->error().message;
    ProjectSession second(QStringLiteral("another"), [] { return std::string("2026-06-01T10:00:00Z"); });
    EXPECT_FALSE(second.openProject(QString::fromStdString(real.string()))) << "one writes at a time";
}

TEST_F(FiledRight, ADayIsTheWorkshopsOwn)
{
    const char *zone = std::getenv("TZ");
    const std::string before = zone != nullptr ? zone : "";
    ::setenv("TZ", "Pacific/Auckland", 1); // thirteen hours ahead in December
    ::tzset();
    goToTheBench();
    m_app->setNow("2026-12-01T11:30:00Z"); // half past midnight on the second there
    EXPECT_EQ(session().today(), "2026-12-02");
    ASSERT_TRUE(m_app->window().bench().setRoom(QStringLiteral("21 °C, 45 %")));
    m_app->setNow("2026-12-02T10:30:00Z"); // half past eleven in the evening of the same day
    EXPECT_EQ(session().today(), "2026-12-02");
    EXPECT_FALSE(m_app->window().bench().roomText().isEmpty()) << "noted today";
    m_app->setNow("2026-12-02T11:30:00Z");
    EXPECT_TRUE(m_app->window().bench().roomText().isEmpty()) << "that was yesterday";
    // The calibration that is due on the second holds to its end.
    ASSERT_TRUE(session().tryEditWorkshop(QStringLiteral("rig"), [&](Workshop &workshop) {
        Calibration calibration;
        calibration.on = "2026-01-01";
        calibration.due = "2026-12-02";
        workshop.rigs.front().calibrations = {calibration};
        return ok();
    }));
    ASSERT_TRUE(session().edit(QStringLiteral("rig"), [&](Study &study) {
        firstTest(study).setup.rig = session().workshop().rigs.front().name;
        return ok();
    }));
    const auto expired = [&] {
        return isExpired(*session().rigToday(*session().study(), methodOf(*session().study())));
    };
    m_app->setNow("2026-12-02T10:30:00Z");
    EXPECT_FALSE(expired());
    m_app->setNow("2026-12-02T11:30:00Z");
    EXPECT_TRUE(expired());
    ::setenv("TZ", before.c_str(), 1);
    ::tzset();
}

TEST_F(FiledRight, PhotosOfAnotherStudyLeaveTheRackAlone)
{
    const PieceId photographed = session().study()->pieces.front().id;
    const StudyId home = session().study()->id;
    const std::size_t before = session().study()->pieces.front().log.photos.size();
    QPixmap(4, 4).toImage().convertToFormat(QImage::Format_RGB32).save(m_app->path(QStringLiteral("a.png")));
    ASSERT_TRUE(session().edit(QStringLiteral("a question"), [&](Study &study) {
        study.question += "?";
        return ok();
    }));
    addPhotos(session(), photographed, {m_app->path(QStringLiteral("a.png"))});
    ASSERT_TRUE(session().selectStudy(session().studies()[3].id));
    m_app->waitUntilKept();
    EXPECT_EQ(session().study()->id, session().studies()[3].id);
    EXPECT_EQ(findPiece(*session().project().loadStudy(home), photographed)->log.photos.size(), before + 1);
    ASSERT_TRUE(session().undo()); // the photo
    EXPECT_EQ(session().study()->id, home);
    ASSERT_TRUE(session().undo()); // the question
    EXPECT_FALSE(session().study()->question.ends_with("??"));
}

TEST_F(FiledRight, WhatIsRefusedStaysInItsCellAndTheCursorWithIt)
{
    m_app->part(LogPart::Measure);
    auto *table = m_app->find<MeasureTable>("measureTable");
    table->setFocus();
    table->setCurrentIndex(table->model()->index(0, PieceTableModel::kRailColumn + 1));
    const QModelIndex cell = table->currentIndex();
    const Study before = *session().study();
    // The disk is full: the project refuses what is typed.
    fs::rename(session().projectPath().toStdString(), session().projectPath().toStdString() + ".away");
    QTest::keyClicks(table, QStringLiteral("4"));
    auto *editor = table->viewport()->findChild<QLineEdit *>();
    ASSERT_NE(editor, nullptr);
    QTest::keyClicks(editor, QStringLiteral(".05"));
    QTest::keyClick(editor, Qt::Key_Return);
    QCoreApplication::processEvents();
    EXPECT_EQ(table->currentIndex(), cell);
    editor = table->viewport()->findChild<QLineEdit *>();
    ASSERT_NE(editor, nullptr) << "still open";
    EXPECT_EQ(editor->text(), QStringLiteral("4.05"));
    EXPECT_EQ(*session().study(), before);
    // There is room again: Enter takes it, once, and goes on.
    fs::rename(session().projectPath().toStdString() + ".away", session().projectPath().toStdString());
    QTest::keyClick(editor, Qt::Key_Return);
    QCoreApplication::processEvents();
    EXPECT_NE(*session().study(), before);
    EXPECT_NE(table->currentIndex(), cell);
}

TEST_F(FiledRight, ATaskThatThrowsLeavesTheWindowWorking)
{
    const char *const tasks[] = {"keeping", "reading",   "answers", "record",    "thumbnail",
                                 "export",  "run sheet", "pieces",  "decision",  "report",
                                 "writing", "practice",  "search",  "simulation"};
    // Each takes the window through all its lenses and pages; under the sanitizers the first few do.
    const std::size_t count = test::kSanitized ? 4 : std::size(tasks);
    for (const char *task : std::span(tasks).first(count)) {
        setThrowingTask(task);
        for (const Lens lens :
             {Lens::Plan, Lens::Log, Lens::Bench, Lens::Read, Lens::Compare, Lens::Decide}) {
            session().setLens(lens);
            QCoreApplication::processEvents();
        }
        for (const PlanStep part : kPlanSteps) {
            session().setLens(Lens::Plan);
            m_app->step(part);
        }
        m_app->prompts().folder = m_app->path(QStringLiteral("export ") + QLatin1String(task));
        m_app->trigger(QStringLiteral("Export the project…"));
        addPhotos(session(), session().study()->pieces.front().id, {QStringLiteral("/nowhere.png")});
        ASSERT_TRUE(session().edit(QStringLiteral("a rule"), [&](Study &study) {
            firstTest(study).setup.settings.numbers["break_drop"] = 0.4;
            study.question += "?";
            return ok();
        }));
        ASSERT_TRUE(waitFor([&] { return !session().isReading() && !session().rawIntake().isBusy(); }))
            << task;
        setThrowingTask({});
        ASSERT_TRUE(session().undo());
        ASSERT_TRUE(waitFor([&] { return !session().isReading(); })) << task;
        for (const auto &[id, reading] : session().readings())
            ASSERT_TRUE(reading->has_value()) << task << ": " << reading->error().message;
    }
    // No view is wedged: another project opens, and all is read.
    const QString other = m_app->path(QStringLiteral("other.inchpeg"));
    ASSERT_TRUE(session().createProject(other));
}

TEST_F(FiledRight, TypedReadingsDoNotKeepTheGaugeOfAnotherTest)
{
    ASSERT_TRUE(session().selectStudy(session().studies()[2].id));
    m_app->waitUntilRead();
    m_app->part(LogPart::Type);
    session().selectPiece(piece("A3").id);
    QCoreApplication::processEvents();
    auto *gauge = m_app->find<QLineEdit>("typedFrom");
    gauge->setText(QStringLiteral("largest reading"));
    session().selectPiece(piece("B3").id);
    QCoreApplication::processEvents();
    EXPECT_EQ(gauge->text(), QStringLiteral("largest reading")) << "the next piece of the same test";
    ASSERT_TRUE(session().selectStudy(session().studies()[4].id));
    QCoreApplication::processEvents();
    EXPECT_TRUE(gauge->text().isEmpty()) << gauge->text().toStdString();
}

} // namespace inchpeg::app
