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
