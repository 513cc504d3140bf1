// SPDX-License-Identifier: GPL-3.0-or-later
// The import page: what a file leaves open is told in full, and answered with one click for all of its shape.
#include "app/app_harness.h"
#include "app/import/import_view.h"
#include "core/model/study_edit.h"
#include "support/patience.h"

#include <QFile>
#include <QLabel>
#include <QPushButton>
#include <QTableView>
#include <QTest>

#include <gtest/gtest.h>

namespace inchpeg::app
{

namespace
{

/// Goes on by Tab until the keyboard is on it.
void tabTo(AppHarness &app, const QWidget *wanted)
{
    constexpr int kMostStops = 60;
    for (int i = 0; i < kMostStops && QApplication::focusWidget() != wanted; ++i)
        app.key(Qt::Key_Tab);
    const QWidget *has = QApplication::focusWidget();
    EXPECT_EQ(has, wanted) << wanted->objectName().toStdString() << (wanted->isEnabled() ? "" : ", disabled")
                           << "; " << (has != nullptr ? has->objectName().toStdString() : "nothing")
                           << " has the keyboard";
}

} // namespace

// From an empty project, names of sixty letters, a question in the file, to a record on its peg: by keys
// alone.
TEST(ImportPage, ByKeysAloneWithLongNames)
{
    AppHarness app;
    ASSERT_TRUE(app.session().createProject(app.path(QStringLiteral("p.inchpeg"))));
    ASSERT_TRUE(
        app.session().addStudy(QStringLiteral("Which of them holds more, whatever their long names are?")));
    ASSERT_TRUE(app.session().edit(QStringLiteral("rail"), [&](Study &study) {
        return addCondition(study, {{}, {"a level whose name is about as long as sixty letters are"}, {}, {}},
                            app.session().ids());
    }));
    QFile file(app.path(QStringLiteral("a_record_of_the_frame_that_has_quite_a_long_name_by_itself_A1.csv")));
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write("time (s),force (N) [kN]\n0,0\n1,1\n2,1.5\n");
    file.close();
    ImportPresenter &presenter = app.window().importPresenter();
    presenter.addPaths({file.fileName()}); // what the system's own file window hands over
    app.window().showImport();
    ASSERT_TRUE(QTest::qWaitFor([&] { return !presenter.isLoading(); }, test::kPatience_ms));
    auto *read = app.find<QPushButton>("readAsShown");
    ASSERT_TRUE(read->isVisibleTo(&app.window()));
    tabTo(app, read);
    app.key(Qt::Key_Space);
    EXPECT_FALSE(presenter.entries()[0].file.problem);
    auto *bring = app.find<QPushButton>("bringInFiles");
    tabTo(app, bring);
    app.key(Qt::Key_Space);
    app.waitUntilRead();
    ASSERT_TRUE(QTest::qWaitFor([&] { return app.session().study()->pieces.front().recording.has_value(); },
                                test::kPatience_ms));
    EXPECT_TRUE(app.window().width() >= app.window().minimumSizeHint().width());
}

TEST(ImportPage, ARecordThatTakesTheGivenValuesPlaceSaysHowFarTheyDiffer)
{
    AppHarness app;
    ASSERT_TRUE(app.session().createProject(app.path(QStringLiteral("p.inchpeg"))));
    ASSERT_TRUE(app.session().addStudy(QStringLiteral("Was the table right?")));
    QByteArray table("piece,Peak force (N)\nA1,1000\n");
    const Result<AddedRawFile> kept = app.session().project().addRawFile("table.csv", table.toStdString());
    ASSERT_TRUE(kept);
    ASSERT_TRUE(app.session().edit(QStringLiteral("rail"), [&](Study &study) -> Status {
        firstTest(study).piecesPerCondition = 1;
        if (const Status added = addCondition(study, {{}, {"a"}, {}, {}}, app.session().ids()); !added)
            return added;
        Recording given;
        given.file = kept->id;
        given.mapping.given = GivenRow{2, {{"peak_force", 1000.0, false, "Peak force (N)"}}};
        setRecording(study.pieces.front(), given);
        return ok();
    }));
    app.waitUntilRead();
    QFile file(app.path(QStringLiteral("A1.csv")));
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write("Time (s),Force (N),Extension (mm)\n");
    for (int i = 0; i <= 50; ++i)
        file.write(QStringLiteral("%1,%2,%3\n")
                       .arg(0.1 * i)
                       .arg(i < 49 ? 1250.0 * i / 48.0 : 10.0)
                       .arg(0.02 * i)
                       .toUtf8());
    file.close();
    ImportPresenter &presenter = app.window().importPresenter();
    presenter.addPaths({file.fileName()});
    app.window().showImport();
    ASSERT_TRUE(QTest::qWaitFor([&] { return !presenter.isLoading(); }, test::kPatience_ms));
    if (presenter.entries()[0].piece == PieceId{})
        presenter.assign(0, app.session().study()->pieces.front().id);
    app.click("bringInFiles");
    ASSERT_TRUE(QTest::qWaitFor([&] { return app.notice().contains(QStringLiteral("was given as")); },
                                test::kPatience_ms))
        << app.notice().toStdString();
    EXPECT_TRUE(app.notice().contains(QStringLiteral("A1: "))) << app.notice().toStdString();
    EXPECT_TRUE(app.notice().contains(QStringLiteral("20 % less than is read")))
        << app.notice().toStdString();
}

TEST(ImportPage, WhatAFileLeavesOpenIsAnsweredWithOneClick)
{
    AppHarness app;
    ASSERT_TRUE(app.session().createProject(app.path(QStringLiteral("p.inchpeg"))));
    ASSERT_TRUE(app.session().addStudy(QStringLiteral("q?")));
    ASSERT_TRUE(app.session().edit(QStringLiteral("rail"), [&](Study &study) {
        return addCondition(study, {{}, {"a"}, {}, {}}, app.session().ids());
    }));
    QStringList paths;
    for (const char *name : {"x_A1.csv", "x_A2.csv"}) {
        QFile file(app.path(QLatin1String(name)));
        ASSERT_TRUE(file.open(QIODevice::WriteOnly));
        file.write(QByteArray("time (s),force (N) [kN]\n0,0\n1,1\n2,") + name[3] + "\nMean,1\n");
        paths << file.fileName();
    }
    ImportPresenter &presenter = app.window().importPresenter();
    presenter.addPaths(paths);
    app.window().showImport();
    ASSERT_TRUE(QTest::qWaitFor([&] { return !presenter.isLoading(); }, test::kPatience_ms));
    auto *table = app.find<QTableView>("importTable");
    table->setCurrentIndex(table->model()->index(0, 0));
    const auto *remark = app.find<QLabel>("importRemark");
    EXPECT_TRUE(remark->text().contains(QStringLiteral("two units, N and kN; which of them holds?")))
        << remark->text().toStdString();
    ASSERT_TRUE(app.find<QPushButton>("readAsShown")->isVisibleTo(&app.window()));
    app.click("readAsShown");
    EXPECT_FALSE(presenter.entries()[0].file.problem);
    EXPECT_FALSE(presenter.entries()[1].file.problem) << "it holds for all files of the shape";
    EXPECT_FALSE(app.find<QPushButton>("readAsShown")->isVisibleTo(&app.window()));
    EXPECT_TRUE(remark->text().contains(QStringLiteral("left out line 5: it sums up the rows above")))
        << remark->text().toStdString();
}

} // namespace inchpeg::app
