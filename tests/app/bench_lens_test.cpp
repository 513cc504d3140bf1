// SPDX-License-Identifier: GPL-3.0-or-later
// The bench through the real window: with the stand-in that ships, and with rigs that the test plays itself.
#include "app/app_harness.h"
#include "app/bench/bench_view.h"
#include "core/planning/plan_edit.h"
#include "core/planning/planned_test.h"
#include "rig/pseudo_terminal.h"
#include "support/patience.h"

#include <QComboBox>
#include <QDir>
#include <QElapsedTimer>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

/// The demo's study of two lots: one piece of each is still whole.
class BenchLens : public testing::Test
{
protected:
    std::unique_ptr<AppHarness> m_app = AppHarness::onDemo();

    void SetUp() override
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
        m_app->rack().setFocus();
        m_app->key(Qt::Key_3, Qt::ControlModifier);
        ASSERT_EQ(session().lens(), Lens::Bench);
        QCoreApplication::processEvents();
    }
    ProjectSession &session() { return m_app->session(); }
    BenchView &view() { return *m_app->find<BenchView>("benchView"); }
    QString text(const char *label) { return m_app->find<QLabel>(label)->text(); }
    const Piece &piece(const char *code)
    {
        for (const Piece &one : session().study()->pieces) {
            if (one.code == code)
                return one;
        }
        throw std::runtime_error("no such piece");
    }
    bool waitFor(const std::function<bool()> &what) { return QTest::qWaitFor(what, test::kPatience_ms); }
    bool waitForAction(const char *part)
    {
        return waitFor([&] { return text("benchAction").contains(QString::fromUtf8(part)); });
    }
    void press(Qt::Key key)
    {
        view().setFocus();
        QTest::keyClick(&view(), key);
        QCoreApplication::processEvents();
    }
    void confirm()
    {
        EXPECT_TRUE(text("benchCautions").contains(QStringLiteral("eye protection")));
        m_app->click("benchMain");
        EXPECT_FALSE(m_app->window().findChild<QLabel *>(QStringLiteral("benchCautions"))->isVisible());
    }
    void connectTo(const QString &port)
    {
        m_app->find<QComboBox>("benchPort")->setCurrentText(port);
        m_app->click("benchConnect");
        EXPECT_TRUE(waitForAction("begins by itself")) << text("benchAction").toStdString();
    }
};

/// A piece by the contract's least form: numbers only.
void loadOn(PseudoTerminal &terminal, double from_N, double peak_N)
{
    constexpr int kSteps = 40;
    for (int i = 0; i <= kSteps; ++i) {
        terminal.send(fmt::format("{:.1f}\n", from_N + (peak_N - from_N) * i / kSteps));
        QTest::qWait(4);
    }
    terminal.send("1.0\n0.5\n");
}

} // namespace

TEST_F(BenchLens, APieceIsPulledOnTheSimulatedRigAndTheNextLiesThere)
{
    EXPECT_EQ(text("benchPiece"), QStringLiteral("A3"));
    EXPECT_EQ(session().selectedPiece(), piece("A3").id) << "lit on its rail";
    EXPECT_TRUE(text("benchRail").contains(QStringLiteral("2 to test"))) << text("benchRail").toStdString();
    confirm();
    m_app->click("benchSimulate");
    ASSERT_TRUE(waitForAction("begins by itself")) << text("benchAction").toStdString();
    m_app->click("benchPull");
    ASSERT_TRUE(waitForAction("It ends at the break")) << text("benchState").toStdString();
    ASSERT_TRUE(waitForAction("What does the break look like")) << text("benchState").toStdString();
    ASSERT_TRUE(piece("A3").recording);
    ASSERT_TRUE(waitFor([&] { return text("benchResult").contains(QStringLiteral("MPa")); }))
        << text("benchResult").toStdString();
    press(Qt::Key_B);
    EXPECT_EQ(piece("A3").log.breakLook, factsOf(Method::Tension).looks[1].name);
    press(Qt::Key_Return);
    EXPECT_EQ(text("benchPiece"), QStringLiteral("B3"));
    EXPECT_TRUE(waitFor([&] { return session().selectedPiece() == piece("B3").id; }));
    // A record that a person begins and ends: Space, whatever the load.
    ASSERT_TRUE(waitForAction("begins by itself"));
    press(Qt::Key_Space);
    ASSERT_TRUE(waitForAction("It ends at the break"));
    QTest::qWait(300);
    press(Qt::Key_Space);
    ASSERT_TRUE(waitForAction("What does the break look like"));
    press(Qt::Key_Return);
    EXPECT_TRUE(text("benchAction").contains(QStringLiteral("Every piece")));
    EXPECT_TRUE(QDir(session().projectPath() + QStringLiteral(".bench")).entryList(QDir::Files).isEmpty())
        << "nothing is left behind";
}

TEST_F(BenchLens, ARigThatOnlyPrintsNumbersWithItsCablePulled)
{
    confirm();
    const QString port = m_app->path(QStringLiteral("port"));
    PseudoTerminal terminal = *PseudoTerminal::open(port.toStdString());
    connectTo(port);
    QTest::qWait(100);
    terminal.send("0.0\n0.1\n");
    ASSERT_TRUE(waitFor([&] { return text("benchReading") == QStringLiteral("0.10"); }));
    for (int i = 1; i < 20; ++i) {
        terminal.send(fmt::format("{}\n", 10 * i));
        QTest::qWait(5);
    }
    ASSERT_TRUE(waitForAction("It ends at the break"));
    terminal.send("19");
    terminal.pull();
    ASSERT_TRUE(waitFor([&] { return text("benchState").contains(QStringLiteral("cable is out")); }));
    terminal = *PseudoTerminal::open(port.toStdString());
    ASSERT_TRUE(waitFor([&] { return !terminal.receive(5).empty(); })) << "it is asked who it is";
    QTest::qWait(100);
    terminal.send("#?;x\n");
    loadOn(terminal, 190.0, 420.0);
    ASSERT_TRUE(waitForAction("What does the break look like")) << text("benchState").toStdString();
    ASSERT_TRUE(waitFor([&] { return text("benchResult").contains(QStringLiteral("420 N")); }))
        << text("benchResult").toStdString();
    EXPECT_TRUE(text("benchState").contains(QStringLiteral("1 gaps"))) << text("benchState").toStdString();
    m_app->click("benchConnect");
    EXPECT_EQ(text("benchState"), QStringLiteral("not connected"));
}

TEST_F(BenchLens, AReadingIsOnTheScreenSoonAfterItsLine)
{
    confirm();
    const QString port = m_app->path(QStringLiteral("port"));
    PseudoTerminal terminal = *PseudoTerminal::open(port.toStdString());
    connectTo(port);
    QTest::qWait(100);
    std::vector<double> waits_ms;
    for (int i = 1; i <= 25; ++i) {
        const QString wanted = QStringLiteral("0.%1").arg(10 + i);
        QElapsedTimer since;
        since.start();
        terminal.send(wanted.toStdString() + "\n");
        ASSERT_TRUE(QTest::qWaitFor([&] { return text("benchReading") == wanted; }, test::kPatience_ms))
            << wanted.toStdString();
        waits_ms.push_back(static_cast<double>(since.nsecsElapsed()) * 1e-6);
    }
    std::nth_element(waits_ms.begin(), waits_ms.begin() + 12, waits_ms.end());
    // The aim of 50 ms is judged by the window's bench.
    if (qEnvironmentVariableIsSet("INCHPEG_WALK_PICTURES"))
        qInfo("a reading is shown after %.0f ms in the median", waits_ms[12]);
}

TEST_F(BenchLens, APeakOfAHandScaleIsTyped)
{
    confirm();
    auto *peak = m_app->find<QLineEdit>("benchTypedPeak");
    peak->setFocus();
    QTest::keyClicks(peak, QStringLiteral("48.2 kgf"));
    QTest::keyClick(peak, Qt::Key_Return);
    ASSERT_TRUE(waitForAction("What does the break look like"));
    ASSERT_TRUE(waitFor([&] { return text("benchResult").contains(QStringLiteral("473 N")); }))
        << text("benchResult").toStdString(); // 48.2 · 9.80665
    press(Qt::Key_Return);
    peak->setFocus();
    QTest::keyClicks(peak, QStringLiteral("much"));
    QTest::keyClick(peak, Qt::Key_Return);
    EXPECT_FALSE(m_app->notice().isEmpty());
    EXPECT_FALSE(piece("B3").recording);
    EXPECT_EQ(peak->text(), QStringLiteral("much")) << "what was typed stays";
}

TEST_F(BenchLens, PiecesArePutBackAndVoided)
{
    confirm();
    m_app->click("benchPutBack");
    EXPECT_EQ(text("benchPiece"), QStringLiteral("B3"));
    m_app->click("benchVoid");
    EXPECT_TRUE(m_app->notice().contains(QStringLiteral("ay why"))) << m_app->notice().toStdString();
    m_app->find<QLineEdit>("benchReason")->setText(QStringLiteral("meant solid, was hollow"));
    m_app->click("benchVoid");
    EXPECT_EQ(piece("B3").exclusion->reason, "meant solid, was hollow");
    EXPECT_EQ(text("benchPiece"), QStringLiteral("A3"));
    ASSERT_TRUE(session().undo());
    EXPECT_FALSE(piece("B3").exclusion);
    session().selectPiece(piece("B3").id);
    QCoreApplication::processEvents();
    EXPECT_EQ(text("benchPiece"), QStringLiteral("B3")) << "a chosen peg lies at the rig";
}

TEST_F(BenchLens, ARecordThatWasCutOffIsOfferedAtTheNextStart)
{
    const QString path = session().projectPath();
    const PieceId id = piece("A3").id;
    QDir().mkpath(path + QStringLiteral(".bench"));
    const auto leave = [&](PieceId of) {
        QFile file(path + QStringLiteral(".bench/piece %1 20261128T101500.txt").arg(of.value));
        ASSERT_TRUE(file.open(QIODevice::WriteOnly));
        file.write("# kind = frame\nt[s];force[N];travel[mm]\n");
        for (int i = 0; i < 30; ++i)
            file.write(fmt::format("{};{};{}\n", 0.1 * i, 12.0 * i, 0.05 * i).c_str());
    };
    leave(id);
    leave(piece("B3").id);
    m_app->restart();
    ASSERT_TRUE(session().openProject(path));
    m_app->waitUntilRead();
    ASSERT_TRUE(session().selectStudy(session().studies()[2].id));
    session().setLens(Lens::Bench);
    m_app->waitUntilRead();
    EXPECT_TRUE(text("benchCutOff").contains(QStringLiteral("A3"))) << text("benchCutOff").toStdString();
    m_app->click("benchTakeCutOff");
    ASSERT_TRUE(waitFor([&] { return piece("A3").recording.has_value(); }));
    ASSERT_TRUE(waitFor([&] { return text("benchResult").contains(QStringLiteral("348 N")); }))
        << text("benchResult").toStdString();
    m_app->click("benchLeaveCutOff");
    EXPECT_FALSE(piece("B3").recording);
    EXPECT_EQ(QDir(path + QStringLiteral(".bench")).entryList({QStringLiteral("*.aside")}).size(), 1)
        << "left aside, not thrown away";
}

TEST_F(BenchLens, ThePendulumSwingsFreeFirstAndThenAPieceASwing)
{
    // A study of pendulum swings on the workshop's pendulum.
    ASSERT_TRUE(session().edit(QStringLiteral("pendulum"), [](Study &study) -> Status {
        if (const Status set = inchpeg::setMethod(study, Method::Impact); !set)
            return set;
        firstTest(study).setup.rig = "pendulum 2 J";
        for (Piece &one : study.pieces) {
            one.recording.reset();
            one.test = Method::Impact;
        }
        return ok();
    }));
    ASSERT_TRUE(session().edit(QStringLiteral("hammer"), [](Study &study) -> Status {
        for (const auto &[name, value] : {std::pair{"mass", "1.5 kg"},
                                          {"arm", "0.3 m"},
                                          {"release", "150 deg"},
                                          {"free_swing", "120 deg"}}) {
            if (const Status set = setTestParameter(study, Method::Impact, name, value); !set)
                return set;
        }
        return ok();
    }));
    QCoreApplication::processEvents();
    ASSERT_TRUE(text("benchPiece").startsWith(QLatin1Char('A'))) << text("benchAction").toStdString();
    m_app->click("benchMain");
    m_app->click("benchSimulate");
    ASSERT_TRUE(waitForAction("three times without a piece")) << text("benchAction").toStdString();
    for (int free = 0; free < 3; ++free) {
        QTest::qWait(400); // the hammer hangs raised
        m_app->click("benchPull");
        ASSERT_TRUE(waitForAction("What was it")) << free;
        press(Qt::Key_F);
        EXPECT_TRUE(waitForAction("Let the hammer go"));
        QTest::qWait(2400); // until it is caught and raised again
    }
    EXPECT_TRUE(m_app->notice().contains(QStringLiteral("free swing moved")))
        << m_app->notice().toStdString();
    m_app->click("benchPull");
    ASSERT_TRUE(waitForAction("What was it"));
    const QString swing = text("benchAction");
    if (const QString folder = qEnvironmentVariable("INCHPEG_WALK_PICTURES"); !folder.isEmpty())
        m_app->window().grab().save(folder + QStringLiteral("/pendulum.png"));
    const std::string code = text("benchPiece").toStdString();
    press(Qt::Key_H);
    ASSERT_TRUE(waitForAction("Enter: the next piece"))
        << text("benchAction").toStdString() << m_app->notice().toStdString();
    ASSERT_TRUE(piece(code.c_str()).recording) << swing.toStdString();
    ASSERT_TRUE(waitFor([&] { return text("benchResult").contains(QStringLiteral("kJ/m²")); }))
        << text("benchResult").toStdString();
    press(Qt::Key_Return);
    EXPECT_NE(text("benchPiece").toStdString(), code);
}

TEST_F(BenchLens, APortThatIsNoneIsTold)
{
    confirm();
    m_app->find<QComboBox>("benchPort")->setCurrentText(QStringLiteral("/dev/none"));
    m_app->click("benchConnect");
    EXPECT_TRUE(waitFor([&] { return m_app->notice().contains(QStringLiteral("cannot be opened")); }));
    EXPECT_TRUE(waitFor([&] { return text("benchState") == QStringLiteral("not connected"); }));
}

} // namespace inchpeg::app
