// SPDX-License-Identifier: GPL-3.0-or-later
// The workshop's cards in the real window.
#include "app/log_bench.h"

#include <QDialog>
#include <QLabel>
#include <QTableView>

namespace inchpeg::app
{

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

} // namespace inchpeg::app
