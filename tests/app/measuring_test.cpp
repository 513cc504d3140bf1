// SPDX-License-Identifier: GPL-3.0-or-later
// Measuring in the real window: by keyboard, paste, label and gauge.
#include "app/gauge/gauge_bar.h"
#include "app/log_bench.h"
#include "core/planning/lab_code.h"
#include "support/patience.h"

#include <QClipboard>
#include <QComboBox>
#include <QLabel>
#include <QProcess>
#include <QSpinBox>
#include <QTextBrowser>

namespace inchpeg::app
{

// The fewest keys that the layout allows: the digits of each value without its mark, and one key to confirm
// each. Width 10.03 is four digits, thickness 4.02 and mass 9.31 three each: 4 + 3 + 3 digits and 3
// confirmations.
TEST(LogLens, TwentyFourPiecesByKeyboardTakeThirteenKeysEach)
{
    LogBench bench;
    bench.startAt(0);
    for (int i = 0; i < 24; ++i)
        bench.typeKeys(QStringLiteral("%1\n%2\n%3\n").arg(1000 + i % 7).arg(398 + i % 5).arg(930 + i % 3));
    EXPECT_EQ(bench.strokes, 24 * 13);
    for (int row = 0; row < 24; ++row) {
        const Piece &piece = bench.study().pieces[static_cast<std::size_t>(row)];
        ASSERT_TRUE(piece.section) << row;
        EXPECT_NEAR(in_mm2(*areaOf(*piece.section)), 0.01 * (1000 + row % 7) * 0.01 * (398 + row % 5), 1e-9)
            << row;
        EXPECT_NEAR(mass(piece), 9.30 + 0.01 * (row % 3), 1e-9);
    }
    EXPECT_TRUE(
        bench.app->find<QLabel>("logSummary")->text().contains(QStringLiteral("24 measured, 24 weighed")));
}

TEST(LogLens, ADigitStringIsReadByWhatIsDrawnAndACommaWorksToo)
{
    LogBench bench;
    bench.startAt(0);
    bench.typeKeys(QStringLiteral("1003\n4,02\n"));
    EXPECT_EQ(bench.model().index(0, 2).data().toString(), QStringLiteral("10.03"));
    EXPECT_EQ(bench.model().index(0, 3).data().toString(), QStringLiteral("4.02"));
    EXPECT_TRUE(bench.app->window().notice().isEmpty());
}

TEST(LogLens, TheWalkFollowsTheBench)
{
    LogBench bench;
    bench.printAll();
    auto *order = bench.app->find<QComboBox>("benchOrder");
    QTest::keyClick(order, Qt::Key_Down);
    QTest::keyClick(order, Qt::Key_Down);
    ASSERT_EQ(bench.model().order(), BenchOrder::Testing);
    std::vector<PieceId> tested = layOutPlates(bench.study(), bench.app->session().workshop()).testOrder;
    for (int row = 0; row < bench.model().rowCount(); ++row)
        EXPECT_EQ(bench.model().pieceAt(row), tested[static_cast<std::size_t>(row)]);
    auto *walk = bench.app->find<QComboBox>("walk");
    QTest::keyClick(walk, Qt::Key_Down);
    QTest::keyClick(walk, Qt::Key_Down);
    ASSERT_EQ(bench.model().walk(), Walk::Column);
    bench.startAt(0);
    bench.typeKeys(QStringLiteral("1003\n1004\n"));
    EXPECT_EQ(loggedValue(bench.study(), *findPiece(bench.study(), tested[1]), {LogField::Width, 0}), 10.04)
        << "down the column";
}

TEST(LogLens, SeveralReadingsAreTakenByTheRule)
{
    LogBench bench;
    bench.app->find<QSpinBox>("readings")->setValue(3);
    bench.startAt(0);
    bench.typeKeys(QStringLiteral("1002\n1004\n1003\n401\n403\n402\n"));
    EXPECT_NEAR(in_mm2(*areaOf(*bench.study().pieces[0].section)), 10.03 * 4.02, 1e-9);
    auto *rule = bench.app->find<QComboBox>("readingRule");
    QTest::keyClick(rule, Qt::Key_Down);
    EXPECT_NEAR(in_mm2(*areaOf(*bench.study().pieces[0].section)), 10.02 * 4.01, 1e-9) << "the smallest";
}

TEST(LogLens, AnUnlikelyValueIsAskedAboutAndKeptMeanwhile)
{
    LogBench bench;
    bench.startAt(0);
    bench.typeKeys(QStringLiteral("40.2\n")); // the thickness in the width's cell, ten times off
    EXPECT_EQ(loggedValue(bench.study(), bench.study().pieces[0], {LogField::Width, 0}), 40.2)
        << "not refused";
    EXPECT_TRUE(bench.app->find<QWidget>("doubtBar")->isVisible());
    QTest::keyClick(bench.table(), Qt::Key_F8);
    EXPECT_FALSE(bench.app->find<QWidget>("doubtBar")->isVisible());
    ASSERT_EQ(bench.study().pieces[0].log.confirmed.size(), 1U);
    EXPECT_EQ(bench.study().pieces[0].log.confirmed[0].who, "T. Ester");

    bench.startAt(1);
    bench.typeKeys(QStringLiteral("100.4\n"));
    EXPECT_TRUE(bench.app->find<QLabel>("doubtText")->text().contains(QStringLiteral("decimal mark")));
    QTest::keyClick(bench.table(), Qt::Key_F9);
    EXPECT_NEAR(*loggedValue(bench.study(), bench.study().pieces[1], {LogField::Width, 0}), 10.04, 1e-9);

    bench.startAt(2);
    bench.typeKeys(QStringLiteral("4.02\n10.03\n"));
    EXPECT_TRUE(bench.app->find<QLabel>("doubtText")->text().contains(QStringLiteral("swapped")));
    bench.app->click("takeProposed");
    EXPECT_EQ(loggedValue(bench.study(), bench.study().pieces[2], {LogField::Width, 0}), 10.03);
}

TEST(LogLens, TwentyFourPiecesByPaste)
{
    LogBench bench;
    QString block;
    for (int i = 0; i < 24; ++i)
        block += QStringLiteral("10,%1\t4.0%2\t9.3%3\n").arg(10 + i).arg(i % 9 + 1).arg(i % 10);
    QApplication::clipboard()->setText(block);
    bench.startAt(0);
    QTest::keyClick(bench.table(), Qt::Key_V, Qt::ControlModifier);
    for (int row = 0; row < 24; ++row) {
        const Piece &piece = bench.study().pieces[static_cast<std::size_t>(row)];
        EXPECT_NEAR(*loggedValue(bench.study(), piece, {LogField::Width, 0}), 10.0 + 0.01 * (10 + row), 1e-9);
        EXPECT_NEAR(mass(piece), 9.3 + 0.01 * (row % 10), 1e-9);
    }
}

TEST(LogLens, WhatIsPastedIsLookedAtAsWell)
{
    LogBench bench;
    QApplication::clipboard()->setText(QStringLiteral("10.01\t4.01\n100.2\t4.02\n10.03\t40.3\n"));
    bench.startAt(0);
    QTest::keyClick(bench.table(), Qt::Key_V, Qt::ControlModifier);
    QCoreApplication::processEvents();
    EXPECT_TRUE(bench.app->find<QLabel>("doubtText")
                    ->text()
                    .contains(QStringLiteral("One more piece is to be looked at")))
        << bench.app->find<QLabel>("doubtText")->text().toStdString();
    QTest::keyClick(bench.table(), Qt::Key_F9);
    QTest::keyClick(bench.table(), Qt::Key_F9);
    EXPECT_FALSE(bench.app->find<QWidget>("doubtBar")->isVisible());
    EXPECT_NEAR(*loggedValue(bench.study(), bench.study().pieces[1], {LogField::Width, 0}), 10.02, 1e-9);
    EXPECT_NEAR(*loggedValue(bench.study(), bench.study().pieces[2], {LogField::Thickness, 0}), 4.03, 1e-9);
    QApplication::clipboard()->setText(QStringLiteral("10.05\n"));
    bench.table()->setCurrentIndex(bench.model().index(0, 2));
    QTest::keyClick(bench.table(), Qt::Key_V, Qt::ControlModifier);
    EXPECT_TRUE(
        bench.app->window().notice().contains(QStringLiteral("1 values that were there are replaced")));
}

TEST(LogLens, AScannedLabelGoesToItsPiece)
{
    LogBench bench;
    const std::string prefix = bench.app->session().workshop().labPrefix;
    ASSERT_TRUE(isLabPrefix(prefix));
    const Piece &wanted = bench.study().pieces[17];
    bench.startAt(0);
    bench.typeKeys(QString::fromStdString(labCode(prefix, wanted.id)) + QLatin1Char('\n'));
    QCoreApplication::processEvents();
    EXPECT_EQ(bench.app->session().selectedPiece(), wanted.id);
    EXPECT_FALSE(bench.study().pieces[0].section) << "a label is no value";
    bench.typeKeys(QStringLiteral("1003\n"));
    EXPECT_EQ(loggedValue(bench.study(), bench.study().pieces[17], {LogField::Width, 0}), 10.03);
}

namespace
{

/// inchpeg-rig as it ships, on a pseudo-terminal.
class PlayedGauge
{
public:
    PlayedGauge(const QString &link, const QString &readings)
    {
        m_process.start(simulatedGaugeProgram(), {QStringLiteral("calliper"), QStringLiteral("--link"), link,
                                                  QStringLiteral("--readings"), readings});
        EXPECT_TRUE(m_process.waitForStarted());
        EXPECT_TRUE(m_process.waitForReadyRead(5000));
    }
    ~PlayedGauge()
    {
        tell("quit");
        if (!m_process.waitForFinished(3000))
            m_process.kill();
    }
    void tell(const char *command)
    {
        m_process.write(QByteArray(command) + '\n');
        m_process.waitForBytesWritten();
    }

private:
    QProcess m_process;
};

} // namespace

TEST(LogLens, TwentyFourPiecesByAGaugeWithTheCablePulledInAReading)
{
    LogBench bench;
    const QString link = bench.app->path(QStringLiteral("gauge"));
    QStringList readings;
    for (int i = 0; i < 48; ++i)
        readings << QString::number(i % 2 == 0 ? 10.0 + 0.01 * (i / 2) : 4.0 + 0.01 * (i / 2 % 7), 'f', 2);
    // The reading during which the cable is pulled is taken again by a new press.
    readings.insert(21, QStringLiteral("77.77"));
    PlayedGauge gauge(link, readings.join(QLatin1Char(',')));
    QTest::keyClick(bench.app->find<QComboBox>("walk"), Qt::Key_Down); // masses are weighed later
    bench.app->find<QComboBox>("gaugePort")->setCurrentText(link);
    bench.app->click("gaugeConnect");
    ASSERT_TRUE(bench.app->find<QLabel>("gaugeState")->text().contains(QStringLiteral("connected")));
    bench.startAt(0);
    const auto filled = [&] {
        int count = 0;
        for (const Piece &piece : bench.study().pieces) {
            const SizeReadings sizes = sizeReadings(piece);
            count += static_cast<int>(sizes.width_mm.size() + sizes.thickness_mm.size());
        }
        return count;
    };
    for (int i = 0; i < 48; ++i) {
        if (i == 21) {
            gauge.tell("pull");
            ASSERT_TRUE(
                QTest::qWaitFor([&] { return bench.app->window().notice().contains(QStringLiteral("gone")); },
                                test::kPatience_ms));
            EXPECT_EQ(filled(), 21) << "half a reading is none";
            EXPECT_TRUE(bench.app->find<QLabel>("gaugeState")->text().contains(QStringLiteral("waiting")));
            gauge.tell("plug");
            ASSERT_TRUE(QTest::qWaitFor(
                [&] {
                    return bench.app->find<QLabel>("gaugeState")
                        ->text()
                        .contains(QStringLiteral("connected"));
                },
                test::kPatience_ms));
        }
        gauge.tell("press");
        ASSERT_TRUE(QTest::qWaitFor([&] { return filled() == i + 1; }, test::kPatience_ms))
            << "reading " << i << ": " << bench.app->window().notice().toStdString();
    }
    for (int row = 0; row < 24; ++row) {
        const Piece &piece = bench.study().pieces[static_cast<std::size_t>(row)];
        EXPECT_NEAR(*loggedValue(bench.study(), piece, {LogField::Width, 0}), 10.0 + 0.01 * row, 1e-9) << row;
        EXPECT_NEAR(*loggedValue(bench.study(), piece, {LogField::Thickness, 0}), 4.0 + 0.01 * (row % 7),
                    1e-9)
            << row;
    }
    bench.app->click("gaugeConnect");
    EXPECT_TRUE(bench.app->find<QLabel>("gaugeState")->text().isEmpty());
}

TEST(LogLens, TheSimulatedGaugeThatShipsFillsACell)
{
    LogBench bench;
    bench.startAt(0);
    bench.table()->setCurrentIndex(bench.model().index(0, 3));
    bench.app->click("gaugeSimulate");
    ASSERT_TRUE(QTest::qWaitFor([&] { return bench.app->find<QPushButton>("gaugePress")->isEnabled(); },
                                test::kPatience_ms));
    bench.app->click("gaugePress");
    ASSERT_TRUE(QTest::qWaitFor(
        [&] {
            return loggedValue(bench.study(), bench.study().pieces[0], {LogField::Thickness, 0}).has_value();
        },
        test::kPatience_ms));
    EXPECT_NEAR(*loggedValue(bench.study(), bench.study().pieces[0], {LogField::Thickness, 0}), 4.0, 0.2);
    const QString last = bench.app->find<QLabel>("gaugeLast")->text();
    EXPECT_TRUE(last.endsWith(QStringLiteral(" mm"))) << last.toStdString();
    EXPECT_NEAR(last.chopped(3).toDouble(), 4.0, 0.2);
    EXPECT_FALSE(last.startsWith(QLatin1Char('+')) || last.startsWith(QLatin1Char('0')))
        << last.toStdString();
    bench.app->click("gaugeSimulate");
    EXPECT_TRUE(QTest::qWaitFor([&] { return !bench.app->find<QPushButton>("gaugePress")->isVisible(); },
                                test::kPatience_ms));
    EXPECT_TRUE(bench.app->find<QLabel>("gaugeLast")->text().isEmpty()) << "no reading without a gauge";
}

TEST(LogLens, APortThatIsNotThereIsSaidSo)
{
    LogBench bench;
    bench.app->find<QComboBox>("gaugePort")->setCurrentText(QStringLiteral("/dev/nothing"));
    bench.app->click("gaugeConnect");
    EXPECT_TRUE(bench.app->window().notice().contains(QStringLiteral("/dev/nothing cannot be opened")));
}

TEST(LogLens, CallipersWhoseCalibrationIsOverAreNamed)
{
    LogBench bench;
    EXPECT_FALSE(bench.app->find<QLabel>("gaugeWarning")->isVisible());
    EXPECT_TRUE(bench.app->session().tryEditWorkshop(QStringLiteral("calibrate"), [](Workshop &workshop) {
        Calibration old;
        old.on = "2025-01-01";
        old.due = "2026-01-01";
        workshop.gauges[0].calibrations = {old};
        return ok();
    }));
    auto *calliper = bench.app->find<QComboBox>("calliper");
    QTest::keyClick(calliper, Qt::Key_Down);
    EXPECT_EQ(bench.study().log.measuring.calliper, "callipers");
    EXPECT_TRUE(bench.app->find<QLabel>("gaugeWarning")
                    ->text()
                    .contains(QStringLiteral("held only until 2026-01-01")));
    bench.startAt(0);
    bench.typeKeys(QStringLiteral("1000\n400\n"));
    EXPECT_TRUE(bench.model().index(0, 4).data().toString().contains(QStringLiteral("40.00 ± ")))
        << "with its uncertainty";
}

TEST(LogLens, ShrinkageIsSummedUp)
{
    LogBench bench;
    auto *axis = bench.app->find<QComboBox>("lengthAxis");
    QTest::keyClick(axis, Qt::Key_Down);
    bench.app->type("knownLength", QStringLiteral("80 mm"));
    EXPECT_EQ(bench.study().log.measuring.length_mm, 80.0);
    EXPECT_TRUE(bench.app->session().edit(QStringLiteral("measure"), [](Study &study) -> Status {
        for (std::size_t i = 0; i < 3; ++i) {
            if (const Status status = setLoggedValue(study, study.pieces[i], {LogField::Length, 0},
                                                     79.5 + 0.1 * static_cast<double>(i));
                !status)
                return status;
        }
        return ok();
    }));
    // 79.5, 79.6 and 79.7 of 80: 0.625, 0.5 and 0.375 %; R 4.2.2 mean() = 0.5, sd() = 0.125.
    EXPECT_EQ(bench.app->find<QLabel>("shrinkage")->text(),
              QStringLiteral("Shrunk along X by 0.50 %, 3 pieces, standard deviation 0.13 %."));
}

TEST(LogLens, ReadingsKeepTheGaugeThatTheyWereReadWith)
{
    LogBench bench;
    EXPECT_TRUE(bench.app->session().tryEditWorkshop(QStringLiteral("calibrate"), [](Workshop &workshop) {
        Calibration checked;
        checked.on = "2026-05-01";
        checked.factor = 1.01;
        workshop.gauges[0].calibrations = {checked};
        return ok();
    }));
    QTest::keyClick(bench.app->find<QComboBox>("calliper"), Qt::Key_Down);
    QTest::keyClick(bench.app->find<QComboBox>("scale"), Qt::Key_Down);
    EXPECT_EQ(bench.study().log.measuring.scale, "scale 200 g");
    bench.startAt(0);
    bench.typeKeys(QStringLiteral("1000\n400\n931\n"));
    const PieceLog &typed = bench.study().pieces[0].log;
    ASSERT_NE(gaugeOf(typed, "width"), nullptr);
    EXPECT_EQ(gaugeOf(typed, "width")->name, "callipers");
    EXPECT_EQ(gaugeOf(typed, "width")->usedAt, "2026-06-01");
    EXPECT_EQ(gaugeOf(typed, "mass")->name, "scale 200 g");
    EXPECT_NEAR(in_mm2(*areaOf(*bench.study().pieces[0].section)), 10.1 * 4.04, 1e-9)
        << "as its calibration corrects it";
    EXPECT_EQ(bench.model().index(0, 2).data().toString(), QStringLiteral("10.00")) << "as it was shown";

    QApplication::clipboard()->setText(QStringLiteral("10.20\t4.10\n"));
    bench.table()->setCurrentIndex(bench.model().index(1, 2));
    QTest::keyClick(bench.table(), Qt::Key_V, Qt::ControlModifier);
    ASSERT_NE(gaugeOf(bench.study().pieces[1].log, "thickness"), nullptr) << "what is pasted as well";

    // It comes back from the file.
    const PieceLog kept = bench.study().pieces[1].log;
    const QString path = bench.app->session().projectPath();
    bench.app->session().closeProject();
    ASSERT_TRUE(bench.app->session().openProject(path));
    EXPECT_EQ(bench.study().pieces[1].log, kept);
    bench.app->session().selectPiece(bench.study().pieces[0].id);
    bench.app->part(LogPart::Life);
    EXPECT_TRUE(bench.app->find<QTextBrowser>("lifeText")
                    ->toPlainText()
                    .contains(QStringLiteral("thickness, width: callipers; calibrated on 2026-05-01")));
}

TEST(LogLens, AReadingOfTheWrongKindIsNotTaken)
{
    LogBench bench;
    const QString link = bench.app->path(QStringLiteral("gauge"));
    PlayedGauge gauge(link, QStringLiteral("4.02"));
    bench.app->find<QComboBox>("gaugePort")->setCurrentText(link);
    bench.app->click("gaugeConnect");
    const Study before = bench.study();
    // Length for a mass, and for a note.
    for (const int column : {5, 7}) {
        bench.table()->setCurrentIndex(bench.model().index(0, column));
        gauge.tell("press");
        EXPECT_TRUE(
            QTest::qWaitFor([&] { return !bench.app->window().notice().isEmpty(); }, test::kPatience_ms));
        EXPECT_EQ(bench.study(), before) << column;
        EXPECT_EQ(bench.table()->currentIndex(), bench.model().index(0, column)) << "the cell still waits";
    }
    // While another page is seen, a press on the bench changes nothing.
    bench.table()->setCurrentIndex(bench.model().index(0, 2));
    bench.app->part(LogPart::Mass);
    gauge.tell("press");
    QTest::qWait(300);
    EXPECT_EQ(bench.study(), before);
}

TEST(LogLens, APasteThatDoesNotFitChangesNothing)
{
    LogBench bench;
    const Study before = bench.study();
    const auto pasted = [&](int row, int column, const QString &text) {
        QApplication::clipboard()->setText(text);
        bench.table()->setCurrentIndex(bench.model().index(row, column));
        QTest::keyClick(bench.table(), Qt::Key_V, Qt::ControlModifier);
        EXPECT_EQ(bench.study(), before) << text.toStdString();
        return bench.app->window().notice().toStdString();
    };
    EXPECT_NE(pasted(22, 2, QStringLiteral("10\n10\n10\n")).find("only 2 pieces are left"),
              std::string::npos);
    EXPECT_NE(pasted(0, 3, QStringLiteral("4\t9\tnote\tand more\n")).find("no column for the last"),
              std::string::npos);
    EXPECT_NE(pasted(0, 2, QStringLiteral("10\t4\nten\t4\n")).find("Nothing was pasted"), std::string::npos);
    EXPECT_NE(pasted(0, 2, QString()).find("othing to paste"), std::string::npos);
}

TEST(LogLens, DeleteTakesValuesAwayAndUndoBringsThemBack)
{
    LogBench bench;
    bench.startAt(0);
    bench.typeKeys(QStringLiteral("1003\n402\n931\n"));
    const Study measured = bench.study();
    bench.table()->selectRow(0);
    QTest::keyClick(bench.table(), Qt::Key_Delete);
    EXPECT_FALSE(bench.study().pieces[0].section);
    EXPECT_FALSE(bench.study().pieces[0].log.mass_g);
    EXPECT_TRUE(bench.app->session().undo());
    EXPECT_EQ(bench.study(), measured);
}

} // namespace inchpeg::app
