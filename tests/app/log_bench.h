// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/app_harness.h"
#include "app/log/measure_page.h"
#include "core/model/study_edit.h"
#include "core/planning/plates.h"

#include <QFile>

namespace inchpeg::app
{

/// An empty project with a study of 24 pieces on four rails, drawn 10 × 4 mm.
struct LogBench {
    std::unique_ptr<AppHarness> app = std::make_unique<AppHarness>();

    LogBench()
    {
        EXPECT_TRUE(app->session().createProject(app->path(QStringLiteral("log.inchpeg"))));
        EXPECT_TRUE(app->session().addStudy(QStringLiteral("Does the nozzle matter?")));
        EXPECT_TRUE(app->session().edit(QStringLiteral("make rails"), [&](Study &study) -> Status {
            firstTest(study).method = Method::Tension;
            firstTest(study).piecesPerCondition = 6;
            study.factors.front() = {"nozzle temperature", "°C", ChangedPer::Plate};
            firstTest(study).setup.shape = *findShape("dogbone-1a");
            study.plan.locked = {{"part cooling", "30 %"}};
            for (const char *level : {"220", "230", "240", "250"}) {
                if (const Status added = addCondition(study, {{}, {level}, Orientation::Flat, "polyester"},
                                                      app->session().ids());
                    !added)
                    return added;
            }
            return ok();
        }));
        app->part(LogPart::Measure);
    }
    const Study &study() { return *app->session().study(); }
    MeasureTable *table() { return app->find<MeasureTable>("measureTable"); }
    PieceTableModel &model() { return *qobject_cast<PieceTableModel *>(table()->model()); }
    /// Sends keys to whatever has the focus, and counts them.
    int strokes = 0;
    void typeKeys(const QString &keys)
    {
        for (const QChar key : keys) {
            QWidget *focus = QApplication::focusWidget();
            ASSERT_NE(focus, nullptr);
            if (key == QLatin1Char('\n'))
                QTest::keyClick(focus, Qt::Key_Return);
            else
                QTest::keyClick(focus, key.toLatin1());
            // A cell takes its value once its editor has closed, and is looked at after that.
            QCoreApplication::processEvents();
            QCoreApplication::processEvents();
            ++strokes;
        }
    }
    void startAt(int row)
    {
        table()->setFocus();
        table()->setCurrentIndex(model().firstOpen(row));
    }
    void printAll()
    {
        EXPECT_TRUE(app->session().edit(QStringLiteral("print"), [&](Study &study) {
            const PlateLayout layout = layOutPlates(study, app->session().workshop());
            return markPrinted(study, layout, layout.plates.back().number, app->session().now());
        }));
    }
};

inline double mass(const Piece &piece)
{
    return piece.log.mass_g.value_or(0.0);
}

inline QString writeFile(AppHarness &app, const QString &name, const QByteArray &bytes)
{
    QFile file(app.path(name));
    EXPECT_TRUE(file.open(QIODevice::WriteOnly));
    file.write(bytes);
    return file.fileName();
}

} // namespace inchpeg::app
