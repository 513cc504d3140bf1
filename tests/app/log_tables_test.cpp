// SPDX-License-Identifier: GPL-3.0-or-later
// Tables in and out of the log, in the real window.
#include "app/log_bench.h"

#include <QCheckBox>
#include <QClipboard>
#include <QDialog>
#include <QFile>
#include <QLabel>
#include <QTableView>

namespace inchpeg::app
{

TEST(LogLens, AWholeTableIsPreviewedBeforeItIsTaken)
{
    LogBench bench;
    const QString first = QString::fromStdString(bench.study().pieces[0].code);
    const QString second = QString::fromStdString(bench.study().pieces[1].code);
    bench.startAt(0);
    bench.typeKeys(QStringLiteral("1003\n"));
    QApplication::clipboard()->setText(
        QStringLiteral("specimen\twidth (mm)\tmass (g)\n%1\t10.11\t9.31\n%2\t10.05\t9.35\n")
            .arg(first, second));
    QTest::keyClick(bench.table(), Qt::Key_V, Qt::ControlModifier);
    auto *preview = bench.app->find<QDialog>("tablePreview");
    ASSERT_TRUE(preview->isVisible());
    EXPECT_TRUE(bench.app->find<QLabel>("tableSummary")
                    ->text()
                    .contains(QStringLiteral("3 new values, 1 that differ")))
        << bench.app->find<QLabel>("tableSummary")->text().toStdString();
    const QAbstractItemModel *rows = bench.app->find<QTableView>("takenValues")->model();
    EXPECT_EQ(rows->index(0, 1).data().toString(), QStringLiteral("width in mm"))
        << "no number without a unit";
    EXPECT_EQ(rows->index(1, 1).data().toString(), QStringLiteral("mass in g"));
    EXPECT_FALSE(bench.study().pieces[0].log.mass_g) << "nothing is taken yet";
    bench.app->click("takeTable");
    EXPECT_FALSE(preview->isVisible());
    EXPECT_NEAR(mass(bench.study().pieces[1]), 9.35, 1e-9);
    EXPECT_EQ(loggedValue(bench.study(), bench.study().pieces[0], {LogField::Width, 0}), 10.03)
        << "not overwritten";

    bench.app->prompts().answer = bench.app->path(QStringLiteral("out.csv"));
    bench.app->click("saveLogTable");
    QFile out(bench.app->prompts().answer);
    ASSERT_TRUE(out.open(QIODevice::ReadOnly));
    EXPECT_TRUE(out.readAll().startsWith("piece,rail,width_mm,thickness_mm,mass_g"));
    bench.app->prompts().answer =
        writeFile(*bench.app, QStringLiteral("in.csv"), "piece,width_mm\n" + first.toUtf8() + ",10.20\n");
    bench.app->click("openLogTable");
    ASSERT_TRUE(preview->isVisible());
    bench.app->find<QCheckBox>("replaceValues")->setChecked(true);
    bench.app->click("takeTable");
    EXPECT_NEAR(*loggedValue(bench.study(), bench.study().pieces[0], {LogField::Width, 0}), 10.20, 1e-9);
}

TEST(LogLens, PlatesRecordsGoOutAndComeBack)
{
    LogBench bench;
    bench.printAll();
    bench.app->part(LogPart::Print);
    bench.app->type("platePrinter", QStringLiteral("shed printer"));
    bench.app->type("plateChamber", QStringLiteral("31.5"));
    bench.app->type("eventWhat", QStringLiteral("clicked, twice"), false);
    bench.app->click("addEvent");
    const StudyLog before = bench.study().log;
    bench.app->prompts().answer = bench.app->path(QStringLiteral("plates.csv"));
    bench.app->click("saveLogPlates");

    bench.app->type("platePrinter", QStringLiteral("loft printer"));
    bench.app->type("plateChamber", QString());
    bench.app->click("openLogPlates");
    auto *preview = bench.app->find<QDialog>("tablePreview");
    ASSERT_TRUE(preview->isVisible());
    EXPECT_TRUE(bench.app->find<QLabel>("tableSummary")
                    ->text()
                    .contains(QStringLiteral("1 new values, 1 that differ")))
        << bench.app->find<QLabel>("tableSummary")->text().toStdString();
    EXPECT_FALSE(bench.app->find<QCheckBox>("replaceValues")->isVisible())
        << "a record is taken as a whole, or left";
    auto *rows = bench.app->find<QTableView>("takenValues")->model();
    ASSERT_EQ(rows->rowCount(), 2);
    EXPECT_EQ(rows->index(0, 1).data().toString(), QStringLiteral("plate 1: printer"));
    EXPECT_EQ(rows->index(0, 2).data().toString(), QStringLiteral("loft printer"));
    EXPECT_EQ(rows->index(0, 3).data().toString(), QStringLiteral("shed printer"));
    EXPECT_EQ(findPlateRecord(bench.study().log, 1)->printer, "loft printer") << "nothing is taken yet";
    bench.app->click("takeTable");
    EXPECT_FALSE(preview->isVisible());
    EXPECT_EQ(bench.study().log, before);
    EXPECT_TRUE(bench.app->session().undo());
    EXPECT_EQ(findPlateRecord(bench.study().log, 1)->printer, "loft printer");
}

TEST(LogLens, TimedStepsGoOutAndComeBack)
{
    LogBench bench;
    bench.printAll();
    bench.app->part(LogPart::Condition);
    bench.app->click("startDrying");
    bench.app->type("skipReason", QStringLiteral("no oven free"), false);
    bench.app->click("skipStep");
    const StudyLog before = bench.study().log;
    ASSERT_EQ(before.steps.size(), 2U);
    bench.app->prompts().answer = bench.app->path(QStringLiteral("steps.csv"));
    bench.app->click("saveLogSteps");
    EXPECT_TRUE(bench.app->session().undo());
    EXPECT_TRUE(bench.app->session().undo());
    ASSERT_TRUE(bench.study().log.steps.empty());
    bench.app->click("openLogSteps");
    ASSERT_TRUE(bench.app->find<QDialog>("tablePreview")->isVisible());
    bench.app->click("takeTable");
    EXPECT_EQ(bench.study().log, before);
}

TEST(LogLens, ATableThatIsNoneIsToldWithItsLineAndNothingChanges)
{
    LogBench bench;
    bench.printAll();
    const Study before = bench.study();
    const auto told = [&](const char *name, const QByteArray &bytes) {
        bench.app->prompts().answer = writeFile(*bench.app, QStringLiteral("bad.csv"), bytes);
        bench.app->click(name);
        const auto *preview = bench.app->window().findChild<QDialog *>(QStringLiteral("tablePreview"));
        EXPECT_TRUE(preview == nullptr || !preview->isVisible());
        return bench.app->window().notice().toStdString();
    };
    const auto holds = [](const std::string &text, const char *part) {
        return text.find(part) == std::string::npos ? text + " lacks " + part : std::string();
    };
    bench.app->part(LogPart::Print);
    EXPECT_EQ(
        holds(told("openLogPlates", "plate,about,name,value\n1,record,colour,red\n"), "Line 2: \"colour\""),
        "");
    EXPECT_EQ(holds(told("openLogPlates", "plate,about,name,value\n77,record,printer,a\n"),
                    "Plate 77 is not printed in this study"),
              "");
    EXPECT_NE(told("openLogPlates", ""), "");
    bench.app->part(LogPart::Condition);
    EXPECT_EQ(
        holds(told("openLogSteps", "step,start,end\nbaking,2026-06-01T08:00,\n"), "\"baking\" is no step"),
        "");
    bench.app->part(LogPart::Measure);
    EXPECT_NE(told("openLogTable", "x,y\n1,2\n"), "");
    bench.app->prompts().answer = bench.app->path(QStringLiteral("missing.csv"));
    bench.app->click("openLogTable");
    EXPECT_TRUE(bench.app->window().notice().contains(QStringLiteral("missing.csv")));
    bench.app->prompts().answer = QString();
    bench.app->click("openLogTable");
    bench.app->click("saveLogTable");
    EXPECT_EQ(bench.study(), before);
}

// A spreadsheet that saves as UTF-16, one that writes Latin-1, and one that puts a byte-order mark in front.
TEST(LogLens, TablesInOtherEncodingsAreRead)
{
    LogBench bench;
    const QByteArray code = QByteArray::fromStdString(bench.study().pieces[0].code);
    const QString wide =
        QStringLiteral("piece;width (mm);note\n%1;10,01;größer\n").arg(QString::fromUtf8(code));
    const std::pair<QByteArray, double> files[] = {
        {QByteArray("\xFF\xFE", 2) +
             QByteArray(reinterpret_cast<const char *>(wide.utf16()), 2 * static_cast<int>(wide.size())),
         10.01},
        {"piece;width (mm);note\n" + code +
             ";10,02;gr\xF6\xDF"
             "er\n",
         10.02},
        {"\xEF\xBB\xBF"
         "piece;width (mm);note\n" +
             code +
             ";10,03;gr\xC3\xB6\xC3\x9F"
             "er\n",
         10.03}};
    for (const auto &[bytes, width] : files) {
        bench.app->prompts().answer = writeFile(*bench.app, QStringLiteral("wide.csv"), bytes);
        bench.app->click("openLogTable");
        bench.app->find<QCheckBox>("replaceValues")->setChecked(true);
        bench.app->click("takeTable");
        EXPECT_NEAR(*loggedValue(bench.study(), bench.study().pieces[0], {LogField::Width, 0}), width, 1e-9);
        EXPECT_EQ(bench.study().pieces[0].log.note, "größer");
    }
}

} // namespace inchpeg::app
