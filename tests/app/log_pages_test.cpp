// SPDX-License-Identifier: GPL-3.0-or-later
// The log's other pages in the real window: plates' records, masses, timed steps, photos, the life of a
// piece.
#include "app/log_bench.h"
#include "support/patience.h"

#include <QComboBox>
#include <QDialog>
#include <QFile>
#include <QImage>
#include <QLabel>
#include <QTableView>
#include <QTextBrowser>

namespace inchpeg::app
{

TEST(LogLens, APlatesRecordAsksOnceAboutEachDifference)
{
    LogBench bench;
    bench.app->part(LogPart::Print);
    bench.app->click("logPrinted");
    ASSERT_EQ(bench.study().plan.print.printed.size(), 1U);
    const int plate = bench.study().plan.print.printed[0].number;
    EXPECT_EQ(findPlateRecord(bench.study().log, plate)->printer, "printer 1");
    bench.app->type("real-part cooling", QStringLiteral("40 %"));
    ASSERT_NE(bench.app->window().findChild<QPushButton *>(QStringLiteral("meant-part cooling")), nullptr);
    bench.app->click("notMeant-part cooling");
    EXPECT_EQ(bench.app->window().findChild<QPushButton *>(QStringLiteral("meant-part cooling")), nullptr)
        << "asked once";
    ASSERT_TRUE(findPlateRecord(bench.study().log, plate)->settings[0].answer);
    EXPECT_FALSE(findPlateRecord(bench.study().log, plate)->settings[0].answer->meant);
    bench.app->type("plateEnded", QStringLiteral("2026-06-02 10:40"));
    EXPECT_EQ(findPlateRecord(bench.study().log, plate)->endedAt, "2026-06-02T10:40");
    bench.app->type("plateChamber", QStringLiteral("38,5"));
    EXPECT_EQ(findPlateRecord(bench.study().log, plate)->chamber_C, 38.5);
    bench.app->type("eventWhat", QStringLiteral("clicked twice"), false);
    bench.app->click("addEvent");
    EXPECT_EQ(findPlateRecord(bench.study().log, plate)->events.size(), 1U);
    bench.app->prompts().answer =
        writeFile(*bench.app, QStringLiteral("plate.gcode"),
                  "; layer_height = 0.2\n; filament used [g] = 30.5\n; print time = 1:20\nG28\n");
    bench.app->click("readHeader");
    EXPECT_EQ(findPlateRecord(bench.study().log, plate)->grams, 30.5);
    EXPECT_EQ(findPlateRecord(bench.study().log, plate)->settingsFrom, "plate.gcode");
}

TEST(LogLens, AFailedPieceKeepsItsHistoryAndIsPrintedAgain)
{
    LogBench bench;
    bench.app->part(LogPart::Print);
    bench.app->click("logPrinted");
    const std::size_t plates = layOutPlates(bench.study(), bench.app->session().workshop()).plates.size();
    const QString code = bench.app->find<QComboBox>("failedPiece")->currentText();
    bench.app->type("pieceWhat", QStringLiteral("came off"), false);
    bench.app->click("pieceFailed");
    const auto piece =
        std::find_if(bench.study().pieces.begin(), bench.study().pieces.end(),
                     [&](const Piece &one) { return QString::fromStdString(one.code) == code; });
    ASSERT_NE(piece, bench.study().pieces.end());
    ASSERT_EQ(piece->log.failures.size(), 1U);
    EXPECT_EQ(piece->log.failures[0].what, "came off");
    const PieceId failed = piece->id; // the next edit makes another study
    EXPECT_GE(layOutPlates(bench.study(), bench.app->session().workshop()).plates.size(), plates);
    bool lost = false;
    for (const RailModel &rail : bench.app->rack().model().rails) {
        for (const PegModel &peg : rail.pegs)
            lost = lost || (peg.code == code && peg.state == PegState::Lost &&
                            peg.tip.contains(QStringLiteral("printed again")));
    }
    EXPECT_TRUE(lost) << "the peg shows it";
    bench.app->click(qPrintable(QStringLiteral("unfail-") + code));
    EXPECT_TRUE(findPiece(bench.study(), failed)->log.failures.empty());
}

// A field that is hidden hands over its text; the plan that the page was being drawn from is gone then.
TEST(LogLens, AFieldThatIsHiddenWhileItIsTypedInHandsOverItsText)
{
    LogBench bench;
    bench.app->part(LogPart::Print);
    bench.app->click("logPrinted");
    const int plate = bench.study().plan.print.printed.at(0).number;
    bench.app->type("real-part cooling", QStringLiteral("77 %"), false);
    ASSERT_TRUE(bench.app->session().undo()) << "the plate is not printed any more, and its record is hidden";
    QCoreApplication::processEvents();
    const PlateRecord *record = findPlateRecord(bench.study().log, plate);
    ASSERT_NE(record, nullptr);
    EXPECT_EQ(record->settings.at(0).value, "77 %");
}

TEST(LogLens, StepsAreTimedAndThePegsWait)
{
    LogBench bench;
    bench.printAll();
    bench.app->part(LogPart::Condition);
    bench.app->click("startConditioning");
    ASSERT_EQ(bench.study().log.steps.size(), 1U);
    EXPECT_GT(bench.study().log.steps[0].wanted_h, 0.0);
    EXPECT_TRUE(bench.app->rack().model().rails[0].pegs[0].waits);
    EXPECT_TRUE(bench.app->rack().model().rails[0].planLine.contains(QStringLiteral("ready from")));
    bench.app->type("stepHumidity0", QStringLiteral("120"));
    EXPECT_TRUE(bench.app->window().notice().contains(QStringLiteral("between 0 and 100")));
    bench.app->click("endStep0");
    EXPECT_FALSE(bench.study().log.steps[0].end.empty());
    EXPECT_FALSE(bench.app->rack().model().rails[0].pegs[0].waits);
    EXPECT_TRUE(bench.app->find<QLabel>("stepSentence0")->text().contains(QStringLiteral("less than")))
        << "a step that was too short is kept as it was";
    bench.app->click("skipStep");
    EXPECT_TRUE(bench.app->window().notice().contains(QStringLiteral("why the step was skipped")));
    bench.app->type("skipReason", QStringLiteral("no oven free"), false);
    bench.app->click("skipStep");
    EXPECT_TRUE(bench.study().log.steps.at(1).skipped);
}

TEST(LogLens, WhatIsTypedIntoAStepThatIsTakenBackChangesNoOther)
{
    LogBench bench;
    bench.printAll();
    bench.app->part(LogPart::Condition);
    bench.app->click("startConditioning");
    const StudyLog one = bench.study().log;
    bench.app->click("startDrying");
    bench.app->type("stepTemperature1", QStringLiteral("70"), false); // and not left yet
    ASSERT_TRUE(bench.app->session().undo()) << "the drying is not there any more";
    QCoreApplication::processEvents();
    EXPECT_EQ(bench.study().log, one);
    EXPECT_TRUE(bench.app->window().notice().contains(QStringLiteral("no longer there")));
    // The same where another study comes on the rack.
    bench.app->type("stepTemperature0", QStringLiteral("71"), false);
    const StudyId first = bench.study().id;
    for (const StudyHeader &other : bench.app->session().studies()) {
        if (other.id != first) {
            ASSERT_TRUE(bench.app->session().selectStudy(other.id));
        }
    }
    QCoreApplication::processEvents();
    ASSERT_TRUE(bench.app->session().selectStudy(first));
    EXPECT_EQ(bench.study().log, one);
}

TEST(LogLens, PhotosAreDroppedWatchedAndKeptAsTheyAre)
{
    LogBench bench;
    bench.app->part(LogPart::Photos);
    QImage image(40, 30, QImage::Format_RGB32);
    image.fill(Qt::darkGreen);
    const QString path = bench.app->path(QStringLiteral("break.png"));
    ASSERT_TRUE(image.save(path));
    bench.app->prompts().answer = path;
    bench.app->click("addPhoto");
    bench.app->waitUntilKept();
    const PieceId selected = bench.app->session().selectedPiece();
    ASSERT_EQ(findPiece(bench.study(), selected)->log.photos.size(), 1U);
    QFile file(path);
    ASSERT_TRUE(file.open(QIODevice::ReadOnly));
    EXPECT_EQ(
        *bench.app->session().project().rawBytes(findPiece(bench.study(), selected)->log.photos[0].file),
        file.readAll().toStdString());
    EXPECT_EQ(bench.app->rack().model().rails[0].pegs[0].photos, 1);
    EXPECT_TRUE(QTest::qWaitFor([&] { return !bench.app->find<QLabel>("photo0")->pixmap().isNull(); },
                                test::kPatience_ms));

    const QString folder = bench.app->path(QStringLiteral("camera"));
    ASSERT_TRUE(QDir().mkpath(folder));
    image.save(folder + QStringLiteral("/old.png"));
    bench.app->prompts().folder = folder;
    bench.app->click("watchFolder");
    bench.app->session().selectPiece(bench.study().pieces[5].id);
    image.fill(Qt::red);
    image.save(folder + QStringLiteral("/new.png"));
    EXPECT_TRUE(
        QTest::qWaitFor([&] { return bench.study().pieces[5].log.photos.size() == 1; }, test::kPatience_ms));
    QTest::qWait(600);
    EXPECT_EQ(bench.study().pieces[5].log.photos.size(), 1U) << "once, and the old one not at all";
    EXPECT_EQ(bench.study().pieces[5].log.photos[0].caption, "new.png");
}

// A window that is closed while a photo is on its way waits for it; the photo is there at the next start.
TEST(LogLens, AWindowThatClosesTakesItsPhotosAlong)
{
    LogBench bench;
    bench.app->part(LogPart::Photos);
    const QString path = bench.app->session().projectPath();
    bench.app->prompts().answer =
        writeFile(*bench.app, QStringLiteral("large.png"), QByteArray(20'000'000, 'x'));
    bench.app->click("addPhoto");
    bench.app->window().close();
    EXPECT_TRUE(QTest::qWaitFor([&] { return !bench.app->window().isVisible(); }, test::kPatience_ms));
    EXPECT_FALSE(bench.app->session().rawIntake().isBusy());
    bench.app->restart();
    ASSERT_TRUE(bench.app->session().openProject(path));
    ASSERT_EQ(bench.study().pieces[0].log.photos.size(), 1U);
    EXPECT_EQ(
        bench.app->session().project().rawFileInfo(bench.study().pieces[0].log.photos[0].file)->sizeBytes,
        20'000'000);
}

TEST(LogLens, APhotoThatCannotBeReadIsSaidSo)
{
    LogBench bench;
    bench.app->part(LogPart::Photos);
    bench.app->prompts().answer = bench.app->path(QStringLiteral("missing.png"));
    bench.app->click("addPhoto");
    bench.app->waitUntilKept();
    EXPECT_TRUE(bench.app->window().notice().contains(QStringLiteral("missing.png")));
    EXPECT_TRUE(bench.study().pieces[0].log.photos.empty());
}

TEST(LogLens, EveryChangeIsKeptWithWhoAndTheEarlierValue)
{
    LogBench bench;
    bench.startAt(0);
    bench.typeKeys(QStringLiteral("1003\n"));
    bench.startAt(0);
    bench.table()->setCurrentIndex(bench.model().index(0, 2));
    bench.typeKeys(QStringLiteral("1005\n"));
    EXPECT_TRUE(bench.app->session().undo());
    const PieceId piece = bench.study().pieces[0].id;
    const auto history = bench.app->session().project().history(bench.study().id, piece);
    ASSERT_TRUE(history);
    ASSERT_EQ(history->size(), 3U) << "typing, typing again, taking back";
    EXPECT_EQ((*history)[1].before, "10.03 mm");
    EXPECT_EQ((*history)[1].after, "10.05 mm");
    EXPECT_EQ((*history)[2].after, "10.03 mm");
    EXPECT_EQ((*history)[0].who, "T. Ester");
    bench.app->session().selectPiece(piece);
    bench.app->part(LogPart::Life);
    const QString life = bench.app->find<QTextBrowser>("lifeText")->toPlainText();
    EXPECT_TRUE(life.contains(QStringLiteral("width: 10.05 mm, was 10.03 mm"))) << life.toStdString();
}

TEST(LogLens, TheDemoTellsItsStory)
{
    const auto app = AppHarness::onDemo();
    app->part(LogPart::Mass);
    EXPECT_TRUE(app->find<QLabel>("massHeadline")->text().contains(QStringLiteral("Mass changed together")));
    EXPECT_TRUE(app->find<QLabel>("massSentence3")->text().contains(QStringLiteral("Per gram it holds")));
    app->session().setLens(Lens::Compare);
    const QString cautions = app->find<QLabel>("resultCautions")->text();
    EXPECT_TRUE(cautions.contains(QStringLiteral("after its calibration had ended on 2026-04-10")))
        << cautions.toStdString();
    EXPECT_TRUE(cautions.contains(QStringLiteral("Mass changed together")));
    app->session().setLens(Lens::Read);
    app->waitUntilRead();
    app->session().selectPiece(app->session().study()->pieces[20].id);
    app->part(LogPart::Life);
    const QString life = app->find<QTextBrowser>("lifeText")->toPlainText();
    EXPECT_TRUE(life.contains(QStringLiteral("a corner of its foot came off the plate; printed again")))
        << life.toStdString();
    app->window().showWorkshop();
    auto *workshop = app->window().findChild<QDialog *>(QStringLiteral("workshopWindow"));
    EXPECT_TRUE(workshop->findChild<QLabel *>(QStringLiteral("rigNote"))
                    ->text()
                    .contains(QStringLiteral("test frame 2 kN")));
    EXPECT_TRUE(workshop->findChild<QLabel *>(QStringLiteral("spoolNote"))
                    ->text()
                    .contains(QStringLiteral("sheet says 235–255 °C")));
}

/// 20,000 pieces in one project, 9,600 of them in the study on the rack: as many rails and pieces as a study
/// can have.
TEST(LogLens, OpensWithTwentyThousandPieces)
{
    AppHarness app;
    ASSERT_TRUE(app.session().createProject(app.path(QStringLiteral("large.inchpeg"))));
    for (const int rails : {48, 48, 4}) {
        ASSERT_TRUE(app.session().addStudy(QStringLiteral("Which of %1?").arg(rails)));
        ASSERT_TRUE(app.session().edit(QStringLiteral("make"), [&](Study &study) -> Status {
            firstTest(study).piecesPerCondition = 200;
            for (int i = 0; i < rails; ++i) {
                if (const Status added = addCondition(study, {{}, {"level " + std::to_string(i)}, {}, {}},
                                                      app.session().ids());
                    !added)
                    return added;
            }
            for (Piece &piece : study.pieces) {
                piece.log.sizes = {{10.02}, {4.01}, {}};
                piece.section = RectangularSection{millimetres(10.02), millimetres(4.01)};
                piece.log.mass_g = 9.3;
            }
            return ok();
        }));
    }
    ASSERT_EQ(app.session().project().info()->pieces, 20000U);
    ASSERT_TRUE(app.session().selectStudy(app.session().studies()[1].id));
    app.session().setLens(Lens::Compare);
    QCoreApplication::processEvents();
    // How long it takes is measured by bench/window_bench.
    app.session().setLens(Lens::Log);
    QCoreApplication::processEvents();
    auto *table = app.find<QTableView>("measureTable");
    EXPECT_EQ(table->model()->rowCount(), 9600);
    EXPECT_FALSE(table->model()->index(9599, 0).data().toString().isEmpty());
    EXPECT_FALSE(table->grab().isNull());
}

} // namespace inchpeg::app
