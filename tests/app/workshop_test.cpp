// SPDX-License-Identifier: GPL-3.0-or-later
// The workshop's cards in the real window.
#include "app/compare/compare_strip.h"
#include "app/log_bench.h"
#include "support/patience.h"

#include <QComboBox>
#include <QDialog>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QStackedWidget>
#include <QTableView>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

/// The workshop's window over a study of 24 pieces.
struct OpenWorkshop {
    LogBench bench;
    QDialog *window = nullptr;

    OpenWorkshop()
    {
        bench.app->window().showWorkshop();
        window = bench.app->window().findChild<QDialog *>(QStringLiteral("workshopWindow"));
    }
    const Workshop &workshop() { return bench.app->session().workshop(); }
    QString notice() { return bench.app->window().notice(); }
    template <typename Widget>
    Widget *find(const char *name)
    {
        auto *found = window->findChild<Widget *>(QLatin1String(name));
        EXPECT_NE(found, nullptr) << name;
        return found;
    }
    void press(const char *name)
    {
        QTest::mouseClick(find<QPushButton>(name), Qt::LeftButton);
        QCoreApplication::processEvents();
    }
    void choose(const char *table, int row)
    {
        auto *view = find<QTableView>(table);
        view->setCurrentIndex(view->model()->index(row, 0));
    }
    bool set(const char *table, int row, const char *heading, const char *text)
    {
        QAbstractItemModel *model = find<QTableView>(table)->model();
        for (int column = 0; column < model->columnCount(); ++column) {
            if (model->headerData(column, Qt::Horizontal).toString() == QString::fromUtf8(heading))
                return model->setData(model->index(row, column), QString::fromUtf8(text));
        }
        ADD_FAILURE() << table << " has no column " << heading;
        return false;
    }
    void type(const char *name, const char *text)
    {
        auto *edit = find<QLineEdit>(name);
        edit->setFocus();
        edit->selectAll();
        edit->insert(QString::fromUtf8(text)); // letters beyond ASCII have no key of their own
        QTest::keyClick(edit, Qt::Key_Return);
    }
};

} // namespace

TEST(Workshop, RigsAreAddedChangedAndRemoved)
{
    OpenWorkshop open;
    const std::size_t before = open.workshop().rigs.size();
    open.press("rigTableAdd");
    ASSERT_EQ(open.workshop().rigs.size(), before + 1);
    const int row = static_cast<int>(before);
    EXPECT_TRUE(open.set("rigTable", row, "Name", "shed frame"));
    EXPECT_TRUE(open.set("rigTable", row, "Kind", "pendulum"));
    EXPECT_TRUE(open.set("rigTable", row, "Range", "4,5"));
    EXPECT_TRUE(open.set("rigTable", row, "Arm m", "0.325"));
    EXPECT_EQ(open.workshop().rigs.back().name, "shed frame");
    EXPECT_EQ(open.workshop().rigs.back().kind, RigKind::Pendulum);
    EXPECT_EQ(open.workshop().rigs.back().range, 4.5);
    EXPECT_EQ(open.workshop().rigs.back().arm_m, 0.325);
    EXPECT_TRUE(open.set("rigTable", row, "Arm m", ""));
    EXPECT_FALSE(open.workshop().rigs.back().arm_m);
    const Workshop good = open.workshop();
    EXPECT_FALSE(open.set("rigTable", row, "Kind", "trebuchet"));
    EXPECT_TRUE(open.notice().contains(QStringLiteral("pendulum"))) << "the kinds that there are are named";
    EXPECT_FALSE(open.set("rigTable", row, "Range", "-1"));
    EXPECT_FALSE(open.set("rigTable", row, "Range", "much"));
    EXPECT_FALSE(open.set("rigTable", row, "Name", good.rigs.front().name.c_str()))
        << "a name is used once, since records name their rig";
    EXPECT_FALSE(open.set("rigTable", row, "Name", ""));
    EXPECT_EQ(open.workshop(), good);
    open.choose("rigTable", row);
    open.press("rigTableRemove");
    EXPECT_EQ(open.workshop().rigs.size(), before);
    EXPECT_TRUE(open.bench.app->session().undo());
    EXPECT_EQ(open.workshop(), good);
}

TEST(Workshop, TheCardBelowFollowsTheOneThatIsChosen)
{
    OpenWorkshop open;
    open.choose("rigTable", 1);
    open.press("rigCalibrationTableAdd");
    EXPECT_EQ(open.workshop().rigs[1].calibrations.size(), 1U);
    auto *calibrations = open.find<QTableView>("rigCalibrationTable")->model();
    EXPECT_EQ(calibrations->rowCount(), 1);
    open.choose("rigTable", 0);
    EXPECT_EQ(calibrations->rowCount(), 0) << "the first rig has none";
    open.choose("rigTable", 1);
    open.press("rigTableRemove");
    EXPECT_EQ(calibrations->rowCount(), static_cast<int>(open.workshop().rigs[1].calibrations.size()))
        << "the next one has moved up";
    // With the last card gone there is nothing to hang a calibration on.
    while (!open.workshop().rigs.empty()) {
        open.choose("rigTable", 0);
        open.press("rigTableRemove");
    }
    EXPECT_EQ(calibrations->rowCount(), 0);
    open.press("rigCalibrationTableAdd");
    EXPECT_TRUE(open.notice().contains(QStringLiteral("hoose a card in the table above first")));
}

TEST(Workshop, GaugesOfferThemselvesWherePiecesAreMeasured)
{
    OpenWorkshop open;
    open.press("workshop1");
    open.press("gaugeTableAdd");
    const int row = static_cast<int>(open.workshop().gauges.size()) - 1;
    EXPECT_TRUE(open.set("gaugeTable", row, "Name", "shed scale"));
    EXPECT_TRUE(open.set("gaugeTable", row, "Kind", "scale"));
    EXPECT_FALSE(open.set("gaugeTable", row, "Kind", "sundial"));
    EXPECT_GE(open.bench.app->find<QComboBox>("scale")->findText(QStringLiteral("shed scale")), 0);
    EXPECT_LT(open.bench.app->find<QComboBox>("calliper")->findText(QStringLiteral("shed scale")), 0);
    open.choose("gaugeTable", row);
    open.press("gaugeCalibrationTableAdd");
    EXPECT_TRUE(open.set("gaugeCalibrationTable", 0, "Factor", "1.002"));
    EXPECT_TRUE(open.set("gaugeCalibrationTable", 0, "Due", "2027-05-01"));
    EXPECT_FALSE(open.set("gaugeCalibrationTable", 0, "Due", "2026-05-01")) << "before it was made";
    EXPECT_EQ(open.workshop().gauges.back().calibrations.front().factor, 1.002);
    EXPECT_FALSE(open.set("gaugeCalibrationTable", 0, "Due", "2026-13-01")) << "no such month";
    EXPECT_FALSE(open.set("gaugeCalibrationTable", 0, "Factor", "0"));
}

TEST(Workshop, PrintersHaveABedAChamberAndAFlow)
{
    OpenWorkshop open;
    open.press("workshop2");
    const std::size_t before = open.workshop().printers.size();
    open.press("printerTableAdd");
    const int row = static_cast<int>(before);
    EXPECT_TRUE(open.set("printerTable", row, "Heated chamber", "yes"));
    EXPECT_TRUE(open.workshop().printers.back().heatedChamber);
    EXPECT_FALSE(open.set("printerTable", row, "Heated chamber", "lukewarm"));
    const PrinterCard good = open.workshop().printers.back();
    QAbstractItemModel *model = open.find<QTableView>("printerTable")->model();
    for (int column = 1; column < model->columnCount(); ++column)
        EXPECT_FALSE(model->setData(model->index(row, column), QStringLiteral("-5")))
            << model->headerData(column, Qt::Horizontal).toString().toStdString();
    EXPECT_EQ(open.workshop().printers.back(), good);
}

TEST(Workshop, ASpoolTakesTheMaterialOfTheRailsAndKeepsItsDataSheet)
{
    OpenWorkshop open;
    open.press("workshop3");
    open.press("spoolTableAdd");
    ASSERT_FALSE(open.workshop().spools.empty());
    EXPECT_EQ(open.workshop().spools.back().material, "polyester") << "of the study on the rack";
    open.press("sheetTableAdd");
    EXPECT_TRUE(open.set("sheetTable", 0, "Value", "52,5"));
    EXPECT_EQ(open.workshop().spools.back().sheet.front().value, 52.5);
    EXPECT_FALSE(open.set("sheetTable", 0, "Value", "strong"));
    const SpoolCard card = open.workshop().spools.back();
    open.bench.app->session().closeProject();
    EXPECT_TRUE(open.bench.app->session().openProject(open.bench.app->path(QStringLiteral("log.inchpeg"))));
    EXPECT_EQ(open.workshop().spools.back(), card) << "kept in the project";
    open.choose("sheetTable", 0);
    open.press("sheetTableRemove");
    EXPECT_TRUE(open.workshop().spools.back().sheet.empty());
}

TEST(Workshop, WorkingHoursAreReadAsTheyAreWritten)
{
    OpenWorkshop open;
    open.press("workshop4");
    const std::pair<const char *, WorkingDay> good[] = {{"8-12", {480, 720}},
                                                        {"8:30-16:45", {510, 1005}},
                                                        {"7:00–15:00", {420, 900}},
                                                        {"-", {0, 0}},
                                                        {"0-24", {0, 1440}}};
    for (const auto &[text, day] : good) {
        open.type("hours2", text);
        EXPECT_EQ(open.workshop().hours[2], day) << text;
    }
    for (const char *text : {"9", "17-9", "9-25", "9:75-17", "nine to five", "9-12-17", "-3-5"}) {
        open.type("hours2", text);
        EXPECT_EQ(open.workshop().hours[2], (WorkingDay{0, 1440})) << text << " is refused";
        EXPECT_FALSE(open.notice().isEmpty()) << text;
    }
    for (int day = 0; day < 6; ++day)
        open.type(("hours" + std::to_string(day)).c_str(), "-");
    const auto days = open.workshop().hours;
    EXPECT_TRUE(std::any_of(days.begin(), days.end(), [](const WorkingDay &day) {
        return day.to_min > day.from_min;
    })) << "a week without a working day cannot be planned in";
    EXPECT_TRUE(open.notice().contains(QStringLiteral("one working day")));
}

TEST(Workshop, WhatIsBeingTypedIsKeptWhenTheProgramCloses)
{
    OpenWorkshop open;
    AppHarness &app = *open.bench.app;
    open.press("workshop4");
    auto *edit = open.find<QLineEdit>("hours2");
    open.window->activateWindow();
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, QStringLiteral("9-13"));
    ASSERT_EQ(QApplication::focusWidget(), edit);
    app.restart();
    ASSERT_TRUE(app.session().openProject(app.path(QStringLiteral("log.inchpeg"))));
    EXPECT_EQ(app.session().workshop().hours[2], (WorkingDay{540, 780}));
}

TEST(Workshop, CodesMoneyAndLabelsAreChecked)
{
    OpenWorkshop open;
    open.press("workshop4");
    open.type("moneyUnit", "CHF");
    open.type("printerRate", "0,8");
    EXPECT_EQ(open.workshop().moneyUnit, "CHF");
    EXPECT_EQ(open.workshop().printerRate_per_h, 0.8);
    open.type("labPrefix", "KRT");
    EXPECT_EQ(open.workshop().labPrefix, "KRT");
    for (const char *bad : {"", "K", "KRTX", "K0I", "k t"}) {
        open.type("labPrefix", bad);
        EXPECT_EQ(open.workshop().labPrefix, "KRT") << bad;
    }
    open.type("labelColumns", "3");
    open.type("labelWidth", "63.5");
    EXPECT_EQ(open.workshop().labels.columns, 3);
    EXPECT_EQ(open.workshop().labels.width_mm, 63.5);
    EXPECT_EQ(open.workshop().labels.name, "own size") << "it is no longer the stock's";
    const LabelStock good = open.workshop().labels;
    open.type("labelRows", "0");
    open.type("labelRows", "1000");
    open.type("labelWidth", "-2");
    open.type("labelHeight", "tall");
    EXPECT_EQ(open.workshop().labels, good);
}

TEST(Workshop, ADummysRecordThatSaysNothingIsRefused)
{
    OpenWorkshop open;
    open.choose("rigTable", 0);
    for (const char *bytes : {"", "a,b\n1,2\n", "force_N,crosshead_mm\n0,0\n"}) {
        open.bench.app->prompts().answer = writeFile(*open.bench.app, QStringLiteral("dummy.csv"), bytes);
        open.press("measureCompliance");
        EXPECT_FALSE(open.notice().isEmpty()) << bytes;
        EXPECT_EQ(open.workshop().rigs[0].compliance_mm_per_N, 0.0) << bytes;
    }
    open.bench.app->prompts().answer = QString();
    open.press("measureCompliance");
    EXPECT_EQ(open.workshop().rigs[0].compliance_mm_per_N, 0.0) << "thought better of it";
}

TEST(Workshop, CalibrationsAndStatementsAreEditedOnTheChosenCard)
{
    LogBench bench;
    bench.app->window().showWorkshop();
    auto *workshop = bench.app->window().findChild<QDialog *>(QStringLiteral("workshopWindow"));
    const auto press = [&](const char *name) {
        auto *push = workshop->findChild<QPushButton *>(QLatin1String(name));
        ASSERT_NE(push, nullptr) << name;
        QTest::mouseClick(push, Qt::LeftButton);
    };
    auto *rigs = workshop->findChild<QTableView *>(QStringLiteral("rigTable"));
    rigs->setCurrentIndex(rigs->model()->index(1, 0));
    press("rigCalibrationTableAdd");
    const auto calibration = [&] { return bench.app->session().workshop().rigs[1].calibrations.at(0); };
    EXPECT_EQ(calibration().on, "2026-06-01");
    auto *table = workshop->findChild<QTableView *>(QStringLiteral("rigCalibrationTable"));
    EXPECT_TRUE(table->model()->setData(table->model()->index(0, 2), QStringLiteral("0/0; 250/245")));
    EXPECT_NEAR(calibration().factor, 250.0 / 245.0, 1e-12) << "the factor follows from the points";
    EXPECT_FALSE(table->model()->setData(table->model()->index(0, 1), QStringLiteral("next year")))
        << "no day";
    EXPECT_FALSE(table->model()->setData(table->model()->index(0, 2), QStringLiteral("250")));
    press("workshop3");
    press("spoolTableAdd");
    press("statementTableAdd");
    press("statementTableAdd");
    auto *statements = workshop->findChild<QTableView *>(QStringLiteral("statementTable"));
    EXPECT_TRUE(statements->model()->setData(statements->model()->index(0, 1), QStringLiteral("230 °C")));
    EXPECT_TRUE(statements->model()->setData(statements->model()->index(1, 1), QStringLiteral("250 °C")));
    EXPECT_TRUE(statements->model()->setData(statements->model()->index(1, 2), QStringLiteral("box")));
    EXPECT_TRUE(workshop->findChild<QLabel *>(QStringLiteral("spoolNote"))
                    ->text()
                    .contains(QStringLiteral("box says 250 °C")));
    bench.app->prompts().answer = writeFile(*bench.app, QStringLiteral("dummy.csv"), [] {
        QByteArray text = "force_N,crosshead_mm\n";
        for (int i = 0; i <= 50; ++i)
            text += QByteArray::number(10 * i) + ',' + QByteArray::number(0.002 * i) + '\n';
        return text;
    }());
    press("workshop0");
    press("measureCompliance");
    EXPECT_NEAR(bench.app->session().workshop().rigs[1].compliance_mm_per_N, 2e-4, 1e-9);
}

// Another project's results stand as marks on the rails of this one, and go again with it; what is no project
// is refused, what is no longer there is told.
TEST(Library, MarksTheRailsWithEarlierWork)
{
    const std::unique_ptr<AppHarness> app = AppHarness::onDemo();
    const QString other = app->path(QStringLiteral("other.inchpeg"));
    ASSERT_TRUE(writeDemoProject(other.toStdString()));
    ASSERT_TRUE(app->session().selectStudy(app->session().studies()[1].id)); // polymers, flat
    app->waitUntilRead();
    app->window().showWorkshop();
    auto *window = app->window().findChild<QDialog *>(QStringLiteral("workshopWindow"));
    auto *list = window->findChild<QListWidget *>(QStringLiteral("libraryList"));
    const auto press = [window](const char *name) {
        window->findChild<QPushButton *>(QLatin1String(name))->click(); // on a page that is not in front
        QCoreApplication::processEvents();
    };
    app->prompts().answer = app->path(QStringLiteral("none.inchpeg"));
    press("addToLibrary");
    EXPECT_EQ(list->count(), 0);
    EXPECT_TRUE(app->window().notice().contains(QStringLiteral("none.inchpeg")))
        << app->window().notice().toStdString();
    app->prompts().answer = other;
    press("addToLibrary");
    ASSERT_EQ(list->count(), 1);
    app->session().setLens(Lens::Compare);
    auto *strip = app->window().findChild<CompareStrip *>();
    const auto wait = [&] {
        QCoreApplication::processEvents();
        ASSERT_TRUE(QTest::qWaitFor([&] { return !strip->isAnswering(); }, test::kPatience_ms));
        QCoreApplication::processEvents();
    };
    wait();
    const auto answers = [&] { return app->find<QLabel>("answers")->text(); };
    EXPECT_TRUE(answers().contains(QStringLiteral("in all other studies and the library")))
        << answers().toStdString();
    const auto marks = [&] {
        return std::count_if(app->rack().model().rails.begin(), app->rack().model().rails.end(),
                             [](const RailModel &rail) { return rail.average.has_value(); });
    };
    EXPECT_GE(marks(), 3) << "its demo has the same polymers";
    if (const QString folder = qEnvironmentVariable("INCHPEG_WALK_PICTURES"); !folder.isEmpty()) {
        app->rack().finishSliding();
        app->window().grab().save(folder + QStringLiteral("/library.png"));
        auto *pages = window->findChild<QStackedWidget *>();
        pages->setCurrentIndex(pages->count() - 1);
        window->grab().save(folder + QStringLiteral("/library-page.png"));
    }
    ASSERT_TRUE(QFile::remove(other));
    ASSERT_TRUE(app->session().edit(QStringLiteral("q"), [](Study &study) {
        study.question += "?";
        return ok();
    }));
    wait();
    EXPECT_TRUE(answers().contains(QStringLiteral("Not in the library's averages")))
        << answers().toStdString();
    list->setCurrentRow(0);
    press("removeFromLibrary");
    EXPECT_EQ(list->count(), 0);
    wait();
    EXPECT_FALSE(answers().contains(QStringLiteral("the library"))) << answers().toStdString();
    ASSERT_TRUE(app->session().undo());
    EXPECT_EQ(list->count(), 1);
}

} // namespace inchpeg::app
