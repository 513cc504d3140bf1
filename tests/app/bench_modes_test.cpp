// SPDX-License-Identifier: GPL-3.0-or-later
// Tests that a person reads at the bench, through the real window: dead weights, creep over days, a falling
// weight, an oven; each with a clock that the test plays.
#include "app/bench_modes.h"
#include "support/patience.h"

#include <QComboBox>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>

#include <fmt/format.h>

#include <ctime>
#include <set>

namespace inchpeg::app
{

TEST_F(BenchModes, ABeamUnderDeadWeightsIsReadAtItsTimes)
{
    begin(Method::BendSteps, 2);
    EXPECT_EQ(text("benchPiece"), QStringLiteral("A1"));
    m_app.type("timedLoads", QStringLiteral("2.5; 5 kg"));
    EXPECT_TRUE(text("benchAction").contains(QStringLiteral("Put 2.5 kg on")))
        << text("benchAction").toStdString();
    press(Qt::Key_Space);
    setTime(0.0);
    EXPECT_EQ(text("timedCountdown"), QStringLiteral("1.0 s"));
    setTime(1.1);
    typeReading(QStringLiteral("0.50"));
    setTime(0.0);
    setTime(26.0);
    setTime(1.0); // 28.1 s: 1.9 s to go
    EXPECT_EQ(m_app.announced().tones.back(), Tone::Soon);
    setTime(6.4); // 34.5 s
    EXPECT_TRUE(std::count(m_app.announced().tones.begin(), m_app.announced().tones.end(), Tone::Now) >= 2);
    typeReading(QStringLiteral("0.52"));
    EXPECT_TRUE(text("timedLast").contains(QStringLiteral("late, kept as it was")))
        << text("timedLast").toStdString();
    // The moment of the first key counts, not that of Enter.
    setTime(25.5);
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_0);
    setTime(9.0);
    typeReading(QStringLiteral(".53"));
    picture("/beam.png");
    EXPECT_EQ(text("timedLast"), QStringLiteral("0.53 mm at 60.0 s")) << text("timedLast").toStdString();
    EXPECT_TRUE(text("benchAction").contains(QStringLiteral("Put 5 kg on")))
        << text("benchAction").toStdString();
    // A reading that is taken back is asked for once more, and leaves no row behind.
    ASSERT_TRUE(session().undo());
    m_app.waitUntilRead();
    EXPECT_TRUE(text("benchAction").contains(QStringLiteral("Put 2.5 kg on")))
        << text("benchAction").toStdString();
    press(Qt::Key_Space);
    setTime(60.0);
    typeReading(QStringLiteral("0.53"));
    EXPECT_EQ(QString::fromStdString(bytesOf(QStringLiteral("A1"))).count(QStringLiteral("0.53")), 2)
        << "the value, and as it was typed";
    press(Qt::Key_Space);
    for (const auto &[wait, value] : {std::pair{1.0, "1.01"}, {29.0, "1.04"}, {30.0, "1.05"}}) {
        setTime(wait);
        typeReading(QString::fromLatin1(value));
    }
    picture("/beam-done.png");
    EXPECT_TRUE(text("benchAction").contains(QStringLiteral("next piece")))
        << text("benchAction").toStdString();
    const Reading &read = reading(QStringLiteral("A1"));
    EXPECT_NEAR(test::readValue(read, "time_ratio"), 0.53 / 0.50, 1e-9);
    EXPECT_TRUE(bytesOf(QStringLiteral("A1")).find("60.0 s") != std::string::npos) << "as it was taken";
    press(Qt::Key_Return);
    EXPECT_EQ(text("benchPiece"), QStringLiteral("A2"));
    EXPECT_TRUE(text("benchAction").contains(QStringLiteral("Put 2.5 kg on")));
}

TEST_F(BenchModes, FiveCreepArmsOverFiveDaysAcrossTheEndOfSummerTime)
{
    ::setenv("TZ", "Europe/Berlin", 1);
    ::tzset();
    begin(Method::Creep, 3);
    const QStringList arms{QStringLiteral("A1"), QStringLiteral("A2"), QStringLiteral("A3"),
                           QStringLiteral("B1"), QStringLiteral("B2")};
    for (const QString &arm : arms) {
        EXPECT_EQ(text("benchPiece"), arm);
        press(Qt::Key_Space);
        ASSERT_TRUE(piece(arm).log.run) << arm.toStdString();
        setTime(1.0);
        typeReading(QStringLiteral("1.20"));
        setTime(59.0);
        typeReading(QStringLiteral("1.24"));
    }
    auto *due = m_app.find<QListWidget>("dueList");
    ASSERT_EQ(due->count(), 5);
    EXPECT_TRUE(due->item(0)->text().contains(QStringLiteral("after 1 h, Thu 11:00")))
        << due->item(0)->text().toStdString();
    // Another test at the rack, another lens: what is due is told all the same.
    m_app.announced().notes.clear();
    session().setLens(Lens::Compare);
    setTime(3600.0 - 300.0 + 2.0);
    ASSERT_EQ(m_app.announced().notes.size(), 1) << "A1 alone";
    EXPECT_TRUE(m_app.announced().notes.front().startsWith(QStringLiteral("A1")));
    emit due->itemActivated(due->item(0));
    EXPECT_EQ(session().lens(), Lens::Bench);
    for (const QString &arm : arms) {
        ASSERT_TRUE(QTest::qWaitFor([&] { return text("benchPiece") == arm; }, test::kPatience_ms))
            << m_utc << ": " << arm.toStdString() << " is asked for, not "
            << text("benchPiece").toStdString();
        typeReading(QStringLiteral("1.30"));
        setTime(60.0);
    }
    // Daily, at the same real time: from the 25th on that is an hour earlier on the wall.
    for (int day = 1; day <= 5; ++day) {
        setTime(86400.0 - (day == 1 ? 3900.0 : 300.0) + 1.0);
        if (day == 3) { // on the Sunday on which the clocks are put back nobody comes
            setTime(300.0);
            continue;
        }
        for (const QString &arm : arms) {
            ASSERT_TRUE(QTest::qWaitFor([&] { return text("benchPiece") == arm; }, test::kPatience_ms))
                << m_utc << ": " << arm.toStdString() << " is asked for, not "
                << text("benchPiece").toStdString();
            typeReading(QString::number(1.30 + 0.02 * day));
            setTime(60.0);
        }
        if (day == 1) {
            EXPECT_TRUE(due->item(0)->text().contains(QStringLiteral("Sat 10:00")))
                << due->item(0)->text().toStdString();
        }
        if (day == 2) {
            picture("/creep.png");
            EXPECT_TRUE(due->item(0)->text().contains(QStringLiteral("Sun 09:00")))
                << due->item(0)->text().toStdString();
        }
    }
    const LoadedRun &run = *piece(QStringLiteral("A1")).log.run;
    ASSERT_EQ(run.taken_s.size(), 7U);
    EXPECT_NEAR(run.taken_s.back(), 5.0 * 86400.0, 120.0);
    const auto states = timedReadings(dueTimes_s(Method::Creep), run.taken_s, 5.0 * 86400.0 + 60.0);
    EXPECT_EQ(states[5].state, DueState::Missed);
    EXPECT_EQ(states[6].state, DueState::Taken);
    // The load comes off, and what is left is read.
    m_app.type("benchGoTo", QStringLiteral("a1"));
    EXPECT_EQ(text("benchPiece"), QStringLiteral("A1"));
    EXPECT_TRUE(text("benchAction").contains(QStringLiteral("Take the load off")))
        << text("benchAction").toStdString();
    press(Qt::Key_Space);
    setTime(300.0);
    typeReading(QStringLiteral("0.35"));
    EXPECT_TRUE(piece(QStringLiteral("A1")).log.run->isOver);
    const Reading &read = reading(QStringLiteral("A1"));
    EXPECT_NEAR(test::readValue(read, "recovered_fraction"), (1.40 - 0.35) / 1.40, 1e-6);
    EXPECT_NEAR(test::readValue(read, "growth"), 1.40 / 1.20, 1e-6);
    EXPECT_EQ(m_app.find<QListWidget>("dueList")->count(), 4);
    ::unsetenv("TZ");
    ::tzset();
}

TEST_F(BenchModes, AClockThatIsSetBackChangesNoTimeUnderLoad)
{
    begin(Method::Creep, 2);
    press(Qt::Key_Space);
    setTime(2.0);
    typeReading(QStringLiteral("1.2"));
    m_utc -= 7200; // somebody set the clock
    setTime(58.0);
    typeReading(QStringLiteral("1.3"));
    ASSERT_EQ(piece(QStringLiteral("A1")).log.run->taken_s.size(), 2U);
    EXPECT_NEAR(piece(QStringLiteral("A1")).log.run->taken_s.back(), 60.0, 0.6);
}

TEST_F(BenchModes, AfterARestartAClockThatWentBackIsAskedAbout)
{
    begin(Method::Creep, 2);
    press(Qt::Key_Space);
    setTime(2.0);
    typeReading(QStringLiteral("1.2"));
    setTime(58.0);
    typeReading(QStringLiteral("1.3"));
    const QString path = session().projectPath();
    m_app.restart();
    m_utc -= 7200; // the machine was off, and its clock is wrong
    m_steady_s = 5.0;
    setTime(0.0);
    ASSERT_TRUE(session().openProject(path));
    m_app.waitUntilRead();
    session().setLens(Lens::Bench);
    bench().timed().setClock([this] { return m_steady_s; });
    session().selectPiece(piece(QStringLiteral("A1")).id);
    QCoreApplication::processEvents();
    EXPECT_TRUE(bench().timed().nextAction().contains(QStringLiteral("clock was put back")))
        << bench().timed().nextAction().toStdString();
    EXPECT_FALSE(bench().timed().take(QStringLiteral("1.4 mm")));
    EXPECT_TRUE(m_app.notice().contains(QStringLiteral("clock of this machine")))
        << m_app.notice().toStdString();
    EXPECT_EQ(piece(QStringLiteral("A1")).log.run->taken_s.size(), 2U) << "nothing is kept at 0 s";
    EXPECT_FALSE(bench().timed().take(QStringLiteral("10 s: 1.4 mm"))) << "before the last reading";
    ASSERT_TRUE(bench().timed().take(QStringLiteral("24 h: 1.4 mm")));
    m_app.waitUntilKept();
    ASSERT_EQ(piece(QStringLiteral("A1")).log.run->taken_s.size(), 3U);
    EXPECT_NEAR(piece(QStringLiteral("A1")).log.run->taken_s.back(), 86400.0, 1.0);
    // From there the steady clock counts on.
    setTime(86400.0);
    session().selectPiece(piece(QStringLiteral("A1")).id); // the next one lay at the bench meanwhile
    QCoreApplication::processEvents();
    ASSERT_TRUE(bench().timed().take(QStringLiteral("1.5 mm")))
        << m_app.notice().toStdString() << " · " << bench().timed().nextAction().toStdString();
    m_app.waitUntilKept();
    EXPECT_NEAR(piece(QStringLiteral("A1")).log.run->taken_s.back(), 2.0 * 86400.0, 1.0);
}

TEST_F(BenchModes, AGaugesButtonTakesTheReading)
{
    begin(Method::Creep, 2);
    PseudoTerminal terminal = connectedDial();
    press(Qt::Key_Space);
    QTest::qWait(200); // a number that comes as the port opens may be the rest of one
    setTime(1.8);      // silence: what comes then is a press
    terminal.send("1.234\n");
    ASSERT_TRUE(QTest::qWaitFor([&] { return piece(QStringLiteral("A1")).recording.has_value(); },
                                test::kPatience_ms));
    EXPECT_TRUE(bytesOf(QStringLiteral("A1")).find("1.23") != std::string::npos)
        << bytesOf(QStringLiteral("A1"));
    // While it streams, a period takes what it shows.
    for (int i = 0; i < 10; ++i)
        terminal.send("1.250\n");
    terminal.send("1.260\n");
    ASSERT_TRUE(QTest::qWaitFor([&] { return bench().shownReading().contains(QStringLiteral("1.26")); },
                                test::kPatience_ms));
    setTime(60.0);
    press(Qt::Key_Period);
    m_app.waitUntilKept();
    EXPECT_EQ(piece(QStringLiteral("A1")).log.run->taken_s.size(), 2U);
}

TEST_F(BenchModes, AWindowThatWasBusyTakesNoStreamForAPress)
{
    begin(Method::Creep, 2);
    PseudoTerminal terminal = connectedDial();
    press(Qt::Key_Space);
    const auto hears = [&](const char *line, const QString &reading) {
        terminal.send(line);
        ASSERT_TRUE(
            QTest::qWaitFor([&] { return bench().shownReading().contains(reading); }, test::kPatience_ms));
    };
    hears("time_s,extension_mm\n0.0,1.250\n", QStringLiteral("1.25"));
    setTime(60.0); // nothing was heard for a minute, yet by the line's own time it never paused
    hears("0.1,1.260\n", QStringLiteral("1.26"));
    m_app.waitUntilKept();
    EXPECT_FALSE(piece(QStringLiteral("A1")).recording.has_value());
    setTime(60.0);
    hears("60.1,1.270\n", QStringLiteral("1.27"));
    ASSERT_TRUE(QTest::qWaitFor([&] { return piece(QStringLiteral("A1")).recording.has_value(); },
                                test::kPatience_ms));
}

TEST_F(BenchModes, AWeightFallsFromRisingHeightsAndUpAndDown)
{
    begin(Method::FallingWeight, 3);
    EXPECT_TRUE(text("stepsEnergy").contains(QStringLiteral("what the weight weighs")));
    m_app.type("stepsMass", QStringLiteral("2 kg"));
    m_app.type("stepsStart", QStringLiteral("100 mm"));
    m_app.type("stepsStep", QStringLiteral("50 mm"));
    EXPECT_EQ(text("stepsHeight"), QStringLiteral("100 mm"));
    EXPECT_TRUE(text("stepsEnergy").contains(QStringLiteral("1.96 J"))) << text("stepsEnergy").toStdString();
    press(Qt::Key_H);
    m_app.waitUntilKept();
    EXPECT_EQ(text("stepsHeight"), QStringLiteral("150 mm"));
    picture("/steps.png");
    press(Qt::Key_F);
    m_app.waitUntilKept();
    m_app.waitUntilRead();
    EXPECT_NEAR(test::readValue(reading(QStringLiteral("A1")), "failure_energy"), 2.0 * 9.80665 * 0.125,
                1e-6);
    EXPECT_EQ(bench().phase(), BenchPhase::Done);
    // A drop that is taken back is asked for once more.
    ASSERT_TRUE(session().undo());
    m_app.waitUntilRead();
    EXPECT_EQ(text("stepsHeight"), QStringLiteral("150 mm"));
    press(Qt::Key_F);
    m_app.waitUntilKept();
    m_app.waitUntilRead();
    press(Qt::Key_Return);
    EXPECT_EQ(text("benchPiece"), QStringLiteral("A2"));
    // One drop a piece: the next height follows from what the pieces of the rail did.
    auto *rule = m_app.find<QComboBox>("stepsRule");
    rule->setCurrentIndex(1);
    emit rule->activated(1);
    EXPECT_EQ(text("stepsHeight"), QStringLiteral("100 mm")) << "a step down after the failure at 150 mm";
    press(Qt::Key_H);
    m_app.waitUntilKept();
    press(Qt::Key_Return);
    EXPECT_EQ(text("benchPiece"), QStringLiteral("A3"));
    EXPECT_EQ(text("stepsHeight"), QStringLiteral("150 mm"));
    press(Qt::Key_F);
    m_app.waitUntilKept();
    press(Qt::Key_Return);
    EXPECT_EQ(text("benchPiece"), QStringLiteral("B1"));
    EXPECT_EQ(text("stepsHeight"), QStringLiteral("100 mm")) << "another rail begins anew";
}

TEST_F(BenchModes, AnOvenIsStampedPieceByPiece)
{
    begin(Method::Softening, 3);
    EXPECT_TRUE(m_app.find<QPushButton>("ovenPieceF")->isVisible()) << "six pieces in one oven";
    press(Qt::Key_B);
    EXPECT_TRUE(m_app.notice().contains(QStringLiteral("No temperature is known")))
        << m_app.notice().toStdString();
    m_app.type("ovenTyped", QStringLiteral("71.5"));
    EXPECT_EQ(text("ovenTemperature"), QStringLiteral("71.5 °C"));
    press(Qt::Key_B);
    press(Qt::Key_A); // two sag at once
    m_app.waitUntilKept();
    m_app.waitUntilRead();
    EXPECT_NEAR(test::readValue(reading(QStringLiteral("A2")), "softening_temperature"), 71.5, 1e-9);
    EXPECT_NEAR(test::readValue(reading(QStringLiteral("A1")), "softening_temperature"), 71.5, 1e-9);
    picture("/oven.png");
    EXPECT_FALSE(m_app.find<QPushButton>("ovenPieceB")->isEnabled());
    ASSERT_TRUE(session().undo());
    m_app.waitUntilRead();
    EXPECT_TRUE(m_app.find<QPushButton>("ovenPieceA")->isEnabled()) << "the last stamp was taken back";
}

TEST_F(BenchModes, TheSimulatedOvenTellsItsRate)
{
    begin(Method::Softening, 2);
    m_app.click("benchSimulate");
    ASSERT_TRUE(QTest::qWaitFor([&] { return bench().live().isThere; }, test::kPatience_ms));
    m_app.click("benchPull");
    ASSERT_TRUE(QTest::qWaitFor([&] { return text("ovenRate").contains(QStringLiteral("heated at")); },
                                test::kPatience_ms));
    press(Qt::Key_A);
    m_app.waitUntilKept();
    EXPECT_TRUE(piece(QStringLiteral("A1")).recording);
}

TEST_F(BenchModes, ABarThatIsWarmedIsRecordedFromSpaceToSpace)
{
    begin(Method::HeatDeflection, 2);
    EXPECT_FALSE(text("benchAction").contains(QStringLiteral("begins by itself")));
    m_app.click("benchSimulate");
    ASSERT_TRUE(QTest::qWaitFor(
        [&] { return bench().phase() == BenchPhase::Ready && bench().live().isThere; }, test::kPatience_ms));
    press(Qt::Key_Space);
    ASSERT_TRUE(
        QTest::qWaitFor([&] { return bench().phase() == BenchPhase::Recording; }, test::kPatience_ms));
    m_app.click("benchPull");
    const auto bend_mm = [&] {
        const std::optional<RecordedRow> &latest = bench().live().latest;
        return latest && latest->values.size() > 1 ? latest->values.back().value_or(0.0) : 0.0;
    };
    ASSERT_TRUE(QTest::qWaitFor([&] { return bend_mm() > 0.6; }, test::kPatience_ms)) << bend_mm();
    press(Qt::Key_Space);
    ASSERT_TRUE(QTest::qWaitFor([&] { return bench().phase() == BenchPhase::Done; }, test::kPatience_ms));
    m_app.waitUntilRead();
    EXPECT_NEAR(test::readValue(reading(QStringLiteral("A1")), "heat_deflection_temperature"), 70.0, 15.0);
    EXPECT_NEAR(test::readValue(reading(QStringLiteral("A1")), "heating_rate"), 120.0, 12.0);
}

TEST_F(BenchModes, TheRoomIsNotedAndOneThatIsNoStandardIsSaidSo)
{
    begin(Method::Tension, 2);
    m_app.type("benchRoom", QStringLiteral("28 35"));
    ASSERT_EQ(session().study()->log.rooms.size(), 1U);
    EXPECT_EQ(session().study()->log.rooms.front().temperature_C, 28.0);
    EXPECT_TRUE(text("benchCautions").contains(QStringLiteral("The room is at 28.0 °C and 35 %")))
        << text("benchCautions").toStdString();
    EXPECT_EQ(m_app.find<QLineEdit>("benchRoom")->text(), QStringLiteral("28.0 °C, 35 %"));
}

TEST_F(BenchModes, APieceIsTestedAgainWithTheReason)
{
    begin(Method::FallingWeight, 2);
    m_app.type("stepsMass", QStringLiteral("1 kg"));
    press(Qt::Key_F);
    m_app.waitUntilKept();
    const RawFileId first = piece(QStringLiteral("A1")).recording->file;
    m_app.click("benchAgain");
    EXPECT_TRUE(m_app.notice().contains(QStringLiteral("Say why"))) << m_app.notice().toStdString();
    EXPECT_TRUE(piece(QStringLiteral("A1")).recording);
    m_app.type("benchReason", QStringLiteral("the weight hit the clamp"), false);
    m_app.click("benchAgain");
    EXPECT_FALSE(piece(QStringLiteral("A1")).recording);
    EXPECT_EQ(piece(QStringLiteral("A1")).log.note, "2026-10-22 tested again: the weight hit the clamp");
    EXPECT_TRUE(session().project().rawBytes(first)) << "raw data stay";
    EXPECT_EQ(text("benchPiece"), QStringLiteral("A1"));
    EXPECT_EQ(text("stepsHeight"), QStringLiteral("100 mm"));
    m_app.type("benchNote", QStringLiteral("cracking was heard"));
    EXPECT_EQ(piece(QStringLiteral("A1")).log.note, "cracking was heard");
}

TEST_F(BenchModes, ACodeOrALabelGoesToItsPiece)
{
    begin(Method::Tension, 2);
    press(Qt::Key_Slash);
    EXPECT_EQ(QApplication::focusWidget(), m_app.find<QLineEdit>("benchGoTo"));
    m_app.type("benchGoTo", QStringLiteral("b2"));
    EXPECT_EQ(text("benchPiece"), QStringLiteral("B2"));
    m_app.type("benchGoTo", QStringLiteral("nothing"));
    EXPECT_TRUE(m_app.notice().contains(QStringLiteral("No piece here is called")));
}

/// Force over travel as a frame sends it, with a place where the jaws slip.
void pullWithASlip(PseudoTerminal &terminal)
{
    for (int i = 0; i <= 60; ++i) {
        const double travel = 0.02 * i;
        const double slipped = travel > 0.5 ? 0.1 : 0.0;
        terminal.send(fmt::format("{:.3f};{:.1f};{:.3f}\n", 0.02 * i,
                                  30.0 + 1000.0 * std::max(0.0, travel - slipped), travel));
        QTest::qWait(3);
    }
    terminal.send("1.300;3.0;1.210\n1.320;2.0;1.230\n");
}

TEST_F(BenchModes, ASlipAndAZeroThatIsOffAreToldWhileThePieceIsThere)
{
    begin(Method::Tension, 2);
    const double off_N =
        0.007 * bench().expected()->value; // beyond half a percent, below the load that begins a record
    PseudoTerminal terminal = *PseudoTerminal::open(m_app.path(QStringLiteral("frame")).toStdString());
    m_app.find<QComboBox>("benchPort")->setCurrentText(m_app.path(QStringLiteral("frame")));
    m_app.click("benchConnect");
    ASSERT_TRUE(QTest::qWaitFor([&] { return bench().recorder().takeState().isThere; }, test::kPatience_ms));
    QTest::qWait(200);
    terminal.send("= ok\nt[s];force[N];travel[mm]\n"); // it takes commands
    for (int i = 0; i < 5; ++i)
        terminal.send(fmt::format("{:.3f};{:.1f};0.000\n", -1.0 + 0.02 * i, off_N));
    ASSERT_TRUE(QTest::qWaitFor([&] { return !bench().shownReading().isEmpty(); }, test::kPatience_ms));
    EXPECT_TRUE(bench().beforeItBreaks().join(QLatin1Char(' ')).contains(QStringLiteral("zero it (Z)")))
        << bench().beforeItBreaks().join(QLatin1Char('|')).toStdString();
    press(Qt::Key_Z);
    std::string heard;
    EXPECT_TRUE(QTest::qWaitFor(
        [&] {
            heard += terminal.receive(5);
            return heard.find("zero force") != std::string::npos;
        },
        test::kPatience_ms))
        << heard;
    pullWithASlip(terminal);
    ASSERT_TRUE(QTest::qWaitFor([&] { return bench().phase() == BenchPhase::Done; }, test::kPatience_ms))
        << text("benchAction").toStdString();
    EXPECT_TRUE(text("benchRange").contains(QStringLiteral("a slip at the grips?")))
        << text("benchRange").toStdString();
    EXPECT_EQ(m_app.announced().tones.back(), Tone::End);
    // The next one of the rail is drawn over this one, faintly.
    press(Qt::Key_Return);
    EXPECT_EQ(text("benchPiece"), QStringLiteral("A2"));
    EXPECT_EQ(bench().otherTraces().size(), 1U);
}

TEST_F(BenchModes, TwoRigsAtOnceEachForItsTest)
{
    begin(Method::Tension, 2);
    ASSERT_TRUE(session().edit(QStringLiteral("further test"),
                               [&](Study &study) { return addTest(study, Method::Creep, session().ids()); }));
    m_app.click("benchMain"); // the further test has cautions of its own
    PseudoTerminal frame = *PseudoTerminal::open(m_app.path(QStringLiteral("frame")).toStdString());
    PseudoTerminal dial = *PseudoTerminal::open(m_app.path(QStringLiteral("dial")).toStdString());
    const auto connectTo = [&](const char *port) {
        m_app.find<QComboBox>("benchPort")->setCurrentText(m_app.path(QLatin1String(port)));
        m_app.click("benchConnect");
        ASSERT_TRUE(
            QTest::qWaitFor([&] { return bench().recorder().takeState().isThere; }, test::kPatience_ms))
            << port;
    };
    connectTo("frame");
    QTest::qWait(200);
    for (int i = 0; i <= 10; ++i) { // the frame pulls …
        frame.send(fmt::format("{}\n", 20.0 * i));
        QTest::qWait(10);
    }
    ASSERT_TRUE(QTest::qWaitFor([&] { return bench().phase() == BenchPhase::Recording; }, test::kPatience_ms))
        << text("benchAction").toStdString() << text("benchState").toStdString()
        << bench().shownReading().toStdString();
    session().setShownTest(Method::Creep);
    QCoreApplication::processEvents();
    connectTo("dial"); // … while a creep arm is loaded and read
    EXPECT_TRUE(text("benchOtherRigs").contains(QStringLiteral("tension: recording")))
        << text("benchOtherRigs").toStdString();
    press(Qt::Key_Space);
    QTest::qWait(200);
    dial.send("1.20\n1.21\n");
    ASSERT_TRUE(QTest::qWaitFor([&] { return bench().shownReading().contains(QStringLiteral("1.21")); },
                                test::kPatience_ms));
    press(Qt::Key_Period);
    m_app.waitUntilKept();
    frame.send("220\n5\n1\n");
    const auto recorded = [&](Method method) {
        return std::count_if(session().study()->pieces.begin(), session().study()->pieces.end(),
                             [method](const Piece &one) { return one.test == method && one.recording; });
    };
    EXPECT_TRUE(QTest::qWaitFor(
        [&] { return recorded(Method::Tension) == 1 && recorded(Method::Creep) == 1; }, test::kPatience_ms))
        << recorded(Method::Tension) << " and " << recorded(Method::Creep);
}

TEST_F(BenchModes, APracticeStudyIsPlannedBrokenJudgedAndShown)
{
    setTime(0.0);
    ASSERT_TRUE(session().createProject(m_app.path(QStringLiteral("practice.inchpeg"))));
    ASSERT_TRUE(m_app.window().practice().begin(42));
    EXPECT_EQ(session().study()->conditions.size(), 3U);
    session().setLens(Lens::Bench);
    QCoreApplication::processEvents();
    EXPECT_FALSE(m_app.find<QPushButton>("practiceAll")->isEnabled()) << "the cautions come first here too";
    m_app.click("benchMain");
    m_app.click("practiceOne");
    m_app.waitUntilKept();
    m_app.waitUntilRead();
    EXPECT_EQ(session().readings().size(), 3U);
    picture("/practice-bench.png");
    m_app.click("practiceAll");
    m_app.waitUntilKept();
    m_app.waitUntilRead();
    EXPECT_EQ(session().readings().size(), session().study()->pieces.size());
    for (const auto &[id, reading] : session().readings())
        EXPECT_TRUE(reading->has_value()) << reading->error().message;
    m_app.click("practiceVerdict");
    auto *first = m_app.find<QComboBox>("practiceVerdict0");
    first->setCurrentIndex(1);
    emit first->activated(1);
    QCoreApplication::processEvents();
    const std::vector<PracticeAnswer> truth =
        judgePractice(*session().study(), practiceTruth(*session().study(), 1.0, 42),
                      {}); // what is true of a rail hangs on no load
    m_app.click("practiceReveal");
    const QString shown = text("practiceTruth0");
    EXPECT_TRUE(shown.contains(truth[0].ratio > 1.0   ? QStringLiteral("✓ right")
                               : truth[0].ratio < 1.0 ? QStringLiteral("less than")
                                                      : QStringLiteral("as much as")))
        << shown.toStdString();
    EXPECT_TRUE(text("practiceTruth1").contains(QStringLiteral("left open")));
    EXPECT_TRUE(
        QTest::qWaitFor([&] { return text("practiceSummary").contains(QStringLiteral("of 100 studies")); },
                        test::kPatience_ms))
        << text("practiceSummary").toStdString();
    QTest::qWait(50); // until the rows are laid out
    if (const QString folder = qEnvironmentVariable("INCHPEG_WALK_PICTURES"); !folder.isEmpty())
        m_app.find<QWidget>("practiceWindow")->grab().save(folder + QStringLiteral("/practice-truth.png"));
    // What was said stays said.
    ASSERT_TRUE(session().openProject(m_app.path(QStringLiteral("practice.inchpeg"))));
    QCoreApplication::processEvents();
    EXPECT_TRUE(m_app.window().practice().isRevealed());
    EXPECT_EQ(m_app.window().practice().rows()[0].said, PracticeVerdict::More);
}

TEST_F(BenchModes, EveryTestThatCanBePractisedBreaksItsPieces)
{
    setTime(0.0);
    ASSERT_TRUE(session().createProject(m_app.path(QStringLiteral("practice.inchpeg"))));
    ASSERT_TRUE(m_app.window().practice().begin(7));
    session().setLens(Lens::Bench);
    for (const MethodFacts &facts : allMethods()) {
        if (!canPractise(facts.method))
            continue;
        ASSERT_TRUE(session().addStudy(QString::fromUtf8(facts.name)));
        ASSERT_TRUE(session().edit(QStringLiteral("rails"), [&](Study &study) -> Status {
            if (const Status status = setMethod(study, facts.method); !status)
                return status;
            firstTest(study).piecesPerCondition = 2;
            return addCondition(study, {{}, {"a"}, Orientation::Flat, "glycol-modified polyester"},
                                session().ids());
        }));
        m_app.window().practice().breakPieces(true);
        m_app.waitUntilKept();
        m_app.waitUntilRead();
        for (const Piece &one : session().study()->pieces)
            EXPECT_TRUE(one.recording) << facts.name << " " << one.code;
    }
}

// The torque piece that was hollow: voided, and another one tested in its place.
TEST_F(BenchModes, TorqueGoesUpStepByStepAndAHollowPieceIsTestedAgain)
{
    begin(Method::SteppedTorque, 2);
    EXPECT_FALSE(m_app.find<QLineEdit>("stepsMass")->isVisible());
    EXPECT_EQ(text("stepsHeight"), QStringLiteral("2 N·m"));
    const PieceId hollow = bench().piece()->id;
    press(Qt::Key_F);
    m_app.waitUntilKept();
    m_app.waitUntilRead();
    EXPECT_EQ(bench().phase(), BenchPhase::Done);
    m_app.find<QLineEdit>("benchReason")->setText(QStringLiteral("meant solid, was hollow"));
    m_app.click("benchAgain");
    QCoreApplication::processEvents();
    ASSERT_FALSE(findPiece(*session().study(), hollow)->recording);
    ASSERT_EQ(bench().piece()->id, hollow);
    for (const Qt::Key key : {Qt::Key_H, Qt::Key_H, Qt::Key_H}) {
        press(key);
        m_app.waitUntilKept();
    }
    EXPECT_EQ(text("stepsHeight"), QStringLiteral("5 N·m"));
    picture("/torque-steps.png");
    press(Qt::Key_F);
    m_app.waitUntilKept();
    m_app.waitUntilRead();
    const PieceReading *reading = readingOf(session().readings(), hollow);
    ASSERT_NE(reading, nullptr);
    EXPECT_EQ(valueOf(reading->result.values, "held_torque")->number, 4.0);
    ASSERT_EQ(bench().phase(), BenchPhase::Done);
    press(Qt::Key_A);
    EXPECT_EQ(findPiece(*session().study(), hollow)->log.breakLook, "rounded");
    picture("/torque-done.png");
}

TEST_F(BenchModes, WhatIsReadWithoutARigLeadsToItsCard)
{
    begin(Method::Hardness, 2);
    EXPECT_EQ(bench().kind(), BenchKind::Typed);
    EXPECT_FALSE(m_app.find<QWidget>("benchConnect")->isVisible());
    picture("/typed.png");
    m_app.click("benchMain");
    EXPECT_EQ(session().lens(), Lens::Log);
}

TEST_F(BenchModes, AProjectThatIsOpenForReadingSaysSo)
{
    begin(Method::FallingWeight, 2);
    m_app.type("stepsMass", QStringLiteral("1 kg"));
    const QString path = session().projectPath();
    session().closeProject();
    ASSERT_TRUE(session().openForReading(path));
    session().setLens(Lens::Bench);
    QCoreApplication::processEvents();
    press(Qt::Key_F);
    EXPECT_TRUE(m_app.notice().contains(QStringLiteral("open for reading"))) << m_app.notice().toStdString();
    EXPECT_FALSE(piece(QStringLiteral("A1")).recording);
}

} // namespace inchpeg::app
