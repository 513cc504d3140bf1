// SPDX-License-Identifier: GPL-3.0-or-later
// Ask & plan through the real window: from a question to a printed run sheet, and each part by itself.
#include "app/paper/label_sheet.h"
#include "app/plan/power_curve.h"
#include "app/plan_bench.h"
#include "core/planning/cautions.h"
#include "core/planning/lab_code.h"
#include "service/workshop_setting.h"
#include "support/patience.h"

#include <QCheckBox>
#include <QDialog>
#include <QFileInfo>
#include <QHeaderView>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QPushButton>
#include <QSpinBox>
#include <QTableView>

#include <algorithm>
#include <set>

namespace inchpeg::app
{

TEST_F(PlanLens, FromTheQuestionToAPrintedRunSheet)
{
    m_app->click("newStudy");
    m_app->type("question", QStringLiteral("Do more walls make the entrance reducer stiffer?"));
    choose("method", QStringLiteral("bending"));
    choose("property", QStringLiteral("flexural modulus"));
    m_app->type("smallestDifference", QStringLiteral("12 %"));
    m_app->type("factorName", QStringLiteral("walls"));
    EXPECT_EQ(study().factors.front().changedPer, ChangedPer::Piece) << "the library knows how walls are set";
    m_app->find<QComboBox>("addFactor")->setEditText(QStringLiteral("infill"));
    m_app->click("addFactorButton");
    ASSERT_EQ(study().factors.size(), 2U);
    EXPECT_EQ(study().factors[1].unit, "%");
    m_app->type("factorLevels", QStringLiteral("2; 4; 6"), false);
    m_app->type("factorLevels2", QStringLiteral("15; 40"), false);
    m_app->click("makeRails");
    ASSERT_EQ(study().conditions.size(), 6U) << m_app->notice().toStdString();
    EXPECT_EQ(levelText(study(), study().conditions.front()), "walls 2 · infill 15 %");
    auto *rails = m_app->find<QTableView>("railTable");
    EXPECT_EQ(rails->model()->columnCount(), 5);
    const int wide = rails->horizontalHeader()->length();
    EXPECT_TRUE(wide > 100 && wide <= rails->width())
        << wide << ": the header outlives a change of its sections";
    m_app->find<QComboBox>("lockName")->setEditText(QStringLiteral("material"));
    m_app->type("lockValue", QStringLiteral("styrenic"));
    ASSERT_EQ(plan().locked.size(), 1U);

    m_app->step(PlanStep::Pieces);
    m_app->find<QSpinBox>("pieces")->setValue(5);
    ASSERT_EQ(study().pieces.size(), 30U);
    auto *words = m_app->find<QLabel>("planText");
    ASSERT_TRUE(QTest::qWaitFor([&] { return words->text().contains(QStringLiteral("Five pieces")); },
                                test::kPatience_ms));

    m_app->step(PlanStep::Specimen);
    auto *shelf = m_app->find<QListWidget>("shapeShelf");
    EXPECT_EQ(shelf->currentRow(), 7) << "the usual shape is marked";
    EXPECT_TRUE(firstTest(study()).setup.shape.key.empty()) << "but not chosen";
    QTest::mouseClick(shelf->viewport(), Qt::LeftButton, Qt::NoModifier,
                      shelf->visualItemRect(shelf->item(7)).center());
    QCoreApplication::processEvents();
    EXPECT_EQ(firstTest(study()).setup.shape.key, "bar-80x10x4");
    m_app->type("shapeThickness", QStringLiteral("5 mm"));
    EXPECT_DOUBLE_EQ(firstTest(study()).setup.shape.thickness_mm, 5.0);
    EXPECT_TRUE(firstTest(study()).setup.shape.standard.empty()) << "it is no longer the standard's bar";
    ASSERT_TRUE(session().undo());
    EXPECT_DOUBLE_EQ(firstTest(study()).setup.shape.thickness_mm, 4.0);

    m_app->step(PlanStep::Rig);
    choose("rig", QStringLiteral("hand gauge 500 N"));
    EXPECT_EQ(firstTest(study()).setup.rig, "hand gauge 500 N");
    EXPECT_TRUE(m_app->find<QLabel>("rigVerdict")->text().contains(QStringLiteral("of hand gauge 500 N")))
        << m_app->find<QLabel>("rigVerdict")->text().toStdString();

    m_app->step(PlanStep::Plates);
    m_app->find<QSpinBox>("rounds")->setValue(2);
    EXPECT_EQ(plan().print.rounds, 2);
    EXPECT_FALSE(m_app->rack().model().rails[0].pegs[0].note.isEmpty())
        << "the order of testing on the rails";

    m_app->step(PlanStep::Calendar);
    m_app->type("startDate", QStringLiteral("2026-06-08"));
    EXPECT_EQ(plan().dates.start, "2026-06-08");
    m_app->prompts().answer = m_app->path(QStringLiteral("plan.ics"));
    m_app->click("saveCalendar");
    EXPECT_TRUE(fileText(m_app->prompts().answer).contains(QStringLiteral("SUMMARY:print plate 1")));

    m_app->step(PlanStep::Check);
    for (const Caution &caution : cautionsOf(study()))
        m_app->find<QCheckBox>(("caution-" + std::string(caution.key)).c_str())->click();
    EXPECT_TRUE(allConfirmed(study()));
    EXPECT_EQ(plan().confirmed.front().who, "T. Ester");

    m_app->step(PlanStep::Paper);
    m_app->prompts().answer = m_app->path(QStringLiteral("run.pdf"));
    m_app->click("savePaper");
    EXPECT_EQ(m_app->notice(), QString());
    EXPECT_TRUE(fileText(m_app->prompts().answer).startsWith(QStringLiteral("%PDF")));
    EXPECT_GT(QFile(m_app->prompts().answer).size(), 20000);

    const Study before = study();
    m_app->restart();
    ASSERT_TRUE(session().openProject(m_app->path(QStringLiteral("demo.inchpeg"))));
    ASSERT_TRUE(session().selectStudy(before.id));
    EXPECT_EQ(study(), before) << "all of it is kept";
}

TEST_F(PlanLens, TheConfoundOfTheDemoIsSeparatedByOneClick)
{
    ASSERT_EQ(study().conditions.size(), 3U);
    m_app->step(PlanStep::Check);
    auto *control = m_app->find<QPushButton>("control0");
    EXPECT_EQ(control->text(), QStringLiteral("Add a rail: open, fan off"));
    m_app->click("control0");
    ASSERT_EQ(study().conditions.size(), 4U);
    EXPECT_EQ(study().factors.size(), 2U);
    EXPECT_EQ(study().conditions.back().levels, (std::vector<std::string>{"open", "0"}));
    EXPECT_EQ(m_app->rack().model().rails.size(), 4U);
    m_app->key(Qt::Key_Z, Qt::ControlModifier);
    EXPECT_EQ(study().conditions.size(), 3U);
    EXPECT_EQ(plan().locked.size(), 5U) << "the locked fan is back";
}

TEST_F(PlanLens, ThePegOnTheCurveIsDraggedToMorePieces)
{
    m_app->step(PlanStep::Pieces);
    auto *curve = m_app->find<PowerCurve>("powerCurve");
    ASSERT_TRUE(QTest::qWaitFor(
        [&] { return m_app->find<QLabel>("planText")->text().contains(QStringLiteral("Five")); },
        test::kPatience_ms));
    const QPoint peg = curve->pegPoint().toPoint();
    QTest::mousePress(curve, Qt::LeftButton, Qt::NoModifier, peg);
    QTest::mouseMove(curve, peg + QPoint(60, 0));
    QTest::mouseRelease(curve, Qt::LeftButton, Qt::NoModifier, peg + QPoint(60, 0));
    QCoreApplication::processEvents();
    const int dragged = firstTest(study()).piecesPerCondition;
    EXPECT_GT(dragged, 6);
    curve->setFocus();
    QTest::keyClick(curve, Qt::Key_Left);
    EXPECT_EQ(firstTest(study()).piecesPerCondition, dragged - 1);
    m_app->key(Qt::Key_Z, Qt::ControlModifier);
    m_app->key(Qt::Key_Z, Qt::ControlModifier);
    EXPECT_EQ(firstTest(study()).piecesPerCondition, 6);
}

TEST_F(PlanLens, VirtualPiecesAreBrokenAndCanBeStopped)
{
    m_app->step(PlanStep::Pieces);
    m_app->click("simulate");
    auto *words = m_app->find<QLabel>("simulationText");
    ASSERT_TRUE(QTest::qWaitFor([&] { return words->text().contains(QStringLiteral("Played 1000 times")); },
                                test::kPatience_ms))
        << words->text().toStdString();
    EXPECT_TRUE(words->text().contains(QStringLiteral("real difference of 15.0 %")))
        << words->text().toStdString();
}

TEST_F(PlanLens, ScatterComesFromEarlierStudiesOfTheSameTest)
{
    m_app->step(PlanStep::Pieces);
    PlanPresenter presenter(session());
    PiecesPresenter pieces(presenter);
    EXPECT_EQ(pieces.scatterSource(), QStringLiteral("of 5 rails of an earlier study"));
    EXPECT_LT(pieces.scatterPercent(), 8.0);
}

TEST_F(PlanLens, APrintedPlateStaysAndTheRecordSaysWhatChanged)
{
    m_app->step(PlanStep::Plates);
    EXPECT_EQ(m_app->find<QPushButton>("markPrinted")->text(), QStringLiteral("Plate 1 is printed"));
    m_app->click("markPrinted");
    ASSERT_EQ(plan().print.printed.size(), 1U);
    const PrintedPlate printed = plan().print.printed.front();
    m_app->step(PlanStep::Pieces);
    m_app->find<QSpinBox>("pieces")->setValue(8);
    m_app->step(PlanStep::Plates);
    m_app->find<QSpinBox>("seed")->setValue(77);
    EXPECT_EQ(plan().print.printed.front(), printed);
    EXPECT_EQ(plan().addedLater.size(), 6U);
    EXPECT_EQ(plan().record.size(), 2U);
    EXPECT_TRUE(m_app->find<QLabel>("planRecord")->text().contains(QStringLiteral("T. Ester")));
    EXPECT_TRUE(m_app->find<QLabel>("planRecord")->isVisible());
}

TEST_F(PlanLens, TheSlicersFiguresAreTypedOverTheEstimate)
{
    m_app->step(PlanStep::Plates);
    auto *table = m_app->find<QTableView>("costTable");
    EXPECT_TRUE(table->model()->setData(table->model()->index(0, 2), QStringLiteral("2,5")));
    EXPECT_DOUBLE_EQ(*plan().print.slicer.at(study().conditions.front().id).grams, 2.5);
    EXPECT_EQ(table->model()->index(0, 4).data().toString(), QStringLiteral("15.0")) << "six pieces";
    EXPECT_TRUE(table->model()->setData(table->model()->index(0, 2), QString()));
    EXPECT_TRUE(plan().print.slicer.empty());
    EXPECT_FALSE(table->model()->setData(table->model()->index(0, 2), QStringLiteral("heavy")));
    EXPECT_TRUE(m_app->notice().contains(QStringLiteral("no number")));
}

TEST_F(PlanLens, AFractionSpellsItsAliasesOut)
{
    ASSERT_TRUE(session().addStudy(QStringLiteral("Which of three?")));
    m_app->type("factorName", QStringLiteral("speed"));
    for (const char *name : {"walls", "layer height"}) {
        m_app->find<QComboBox>("addFactor")->setEditText(QString::fromUtf8(name));
        m_app->click("addFactorButton");
    }
    m_app->type("factorLevels", QStringLiteral("50; 100"), false);
    m_app->type("factorLevels2", QStringLiteral("2; 4"), false);
    m_app->type("factorLevels3", QStringLiteral("0.2; 0.28"), false);
    choose("design", QStringLiteral("fraction: 4 rails, C=AB"));
    m_app->click("makeRails");
    ASSERT_EQ(study().conditions.size(), 4U) << m_app->notice().toStdString();
    EXPECT_TRUE(m_app->find<QLabel>("aliases")->text().contains(
        QStringLiteral("The effect of speed cannot be told from that of walls together with layer height.")))
        << m_app->find<QLabel>("aliases")->text().toStdString();
    choose("design", QStringLiteral("one factor at a time"));
    m_app->click("makeRails");
    EXPECT_EQ(study().conditions.size(), 4U);
    EXPECT_TRUE(m_app->find<QLabel>("aliases")->text().isEmpty());
}

TEST_F(PlanLens, ADifferenceAsAValueIsKeptAsAShareOfTheReference)
{
    m_app->step(PlanStep::Rig);
    m_app->type("expected", QStringLiteral("20 MPa"));
    m_app->step(PlanStep::Ask);
    m_app->type("smallestDifference", QStringLiteral("4 MPa"));
    EXPECT_DOUBLE_EQ(study().smallestDifference, 0.2);
    EXPECT_EQ(m_app->find<QLineEdit>("smallestDifference")->text(), QStringLiteral("4.00 MPa"));
    m_app->type("smallestDifference", QStringLiteral("a lot"));
    EXPECT_FALSE(m_app->notice().isEmpty());
    EXPECT_DOUBLE_EQ(study().smallestDifference, 0.2);
}

TEST_F(PlanLens, AFurtherTestHasPiecesOfItsOwn)
{
    choose("addTest", QStringLiteral("creep"));
    ASSERT_EQ(study().tests.size(), 2U);
    EXPECT_EQ(study().pieces.size(), 18U + 9U);
    m_app->step(PlanStep::Rig);
    choose("rigTest", QStringLiteral("creep"));
    choose("rig", QStringLiteral("dead weights 10 kg"));
    EXPECT_EQ(study().tests[1].setup.rig, "dead weights 10 kg");
    EXPECT_EQ(firstTest(study()).setup.rig, "hand gauge 500 N") << "the other test keeps its rig";
    m_app->type("stress", QStringLiteral("5 MPa"));
    EXPECT_DOUBLE_EQ(study().tests[1].setup.stress_MPa, 5.0);
    // 2 σ b h² / (3 L g) = 2 · 5 · 10 · 16 / (3 · 64 · 9.80665) kg
    EXPECT_TRUE(m_app->find<QLabel>("rigVerdict")->text().contains(QStringLiteral("0.8498 kg")))
        << m_app->find<QLabel>("rigVerdict")->text().toStdString();
    m_app->step(PlanStep::Ask);
    PlanPresenter presenter(session());
    EXPECT_TRUE(presenter.removeTest(Method::Creep));
    EXPECT_EQ(study().pieces.size(), 18U);
}

TEST_F(PlanLens, TodayStandsOnTheShelf)
{
    auto *today = m_app->find<QListWidget>("todayList");
    ASSERT_TRUE(today->isVisible());
    EXPECT_TRUE(today->item(0)->text().contains(QStringLiteral("dry styrenic")))
        << today->item(0)->text().toStdString();
    m_app->step(PlanStep::Calendar);
    m_app->type("startDate", QStringLiteral("2026-07-01"));
    EXPECT_FALSE(today->isVisible()) << "nothing is due before it starts";
    m_app->type("startDate", QStringLiteral("soon"));
    EXPECT_TRUE(m_app->notice().contains(QStringLiteral("year-month-day")));
}

TEST_F(PlanLens, TheWorkshopIsSharedKeptAndUndone)
{
    m_app->step(PlanStep::Rig);
    m_app->click("rigWorkshop");
    auto *window = m_app->window().findChild<QDialog *>(QStringLiteral("workshopWindow"));
    ASSERT_NE(window, nullptr);
    auto *rigs = window->findChild<QTableView *>(QStringLiteral("rigTable"));
    ASSERT_NE(rigs, nullptr);
    EXPECT_TRUE(rigs->model()->setData(rigs->model()->index(1, 2), QStringLiteral("250")));
    EXPECT_DOUBLE_EQ(findRig(session().workshop(), "hand gauge 500 N")->range, 250.0);
    EXPECT_TRUE(m_app->find<QLabel>("rigVerdict")->text().contains(QStringLiteral("is beyond")))
        << m_app->find<QLabel>("rigVerdict")->text().toStdString();
    EXPECT_FALSE(rigs->model()->setData(rigs->model()->index(1, 2), QStringLiteral("-3")));
    EXPECT_FALSE(rigs->model()->setData(rigs->model()->index(1, 1), QStringLiteral("magic")));
    EXPECT_DOUBLE_EQ(workshopOf(session().project())->rigs[1].range, 250.0);
    ASSERT_TRUE(session().undo());
    EXPECT_DOUBLE_EQ(session().workshop().rigs[1].range, 500.0);
    ASSERT_TRUE(session().redo());
    EXPECT_DOUBLE_EQ(session().workshop().rigs[1].range, 250.0);
    auto *monday = window->findChild<QLineEdit *>(QStringLiteral("hours0"));
    monday->setFocus();
    monday->setText(QStringLiteral("8-12"));
    monday->setModified(true);
    emit monday->editingFinished();
    EXPECT_EQ(session().workshop().hours[0], (WorkingDay{480, 720}));
}

// A label that names the rail tells the one who grades what he holds: blind ones carry a code alone, and not
// even the order of the sheet says anything. Read at the bench they lead to their piece.
TEST_F(PlanLens, BlindLabelsSayNothingOfTheRail)
{
    const std::vector<PieceLabel> labels = labelsOf(study(), session().workshop(), LabelKind::Blind);
    ASSERT_EQ(labels.size(), study().pieces.size());
    std::vector<ConditionId> rails;
    for (const PieceLabel &label : labels) {
        EXPECT_TRUE(label.piece.isEmpty() && label.rail.isEmpty());
        const std::optional<PieceId> piece =
            pieceOfLabel(session().workshop().labPrefix, label.code.toStdString());
        ASSERT_TRUE(piece);
        rails.push_back(findPiece(study(), *piece)->condition);
    }
    EXPECT_FALSE(std::is_sorted(rails.begin(), rails.end())) << "not rail by rail";
    const QString path = m_app->path(QStringLiteral("blind.pdf"));
    ASSERT_TRUE(writeLabelSheets(path, study(), session().workshop(), LabelKind::Blind));
    EXPECT_GT(QFileInfo(path).size(), 0);
    EXPECT_EQ(BlindKey(study(), session().workshop()).pageCount(), 1);
}

/// Black squares of a QR picture, module by module, sampled in their middles.
TEST_F(PlanLens, LabelsCarryOneCodeEach)
{
    const std::vector<PieceLabel> labels = labelsOf(study(), session().workshop());
    ASSERT_EQ(labels.size(), 18U);
    std::set<QString> codes;
    for (std::size_t i = 0; i < labels.size(); ++i) {
        codes.insert(labels[i].code);
        const std::optional<ReadCode> read = readLabCode(labels[i].code.toStdString());
        ASSERT_TRUE(read);
        EXPECT_EQ(read->piece, study().pieces[i].id);
    }
    EXPECT_EQ(codes.size(), 18U);
    QImage image(400, 400, QImage::Format_RGB32);
    image.fill(Qt::gray);
    QPainter painter(&image);
    ASSERT_TRUE(paintQrCode(painter, QRectF(0, 0, 400, 400), labels.front().code));
    painter.end();
    // Eight capital letters fit version 1: 21 modules and 2 of white on each side. ISO/IEC 18004: the finder
    // pattern in three corners is a ring of 7 around a block of 3.
    const auto isBlack = [&](int column, int row) {
        const double module = 400.0 / 25.0;
        return image
                   .pixelColor(static_cast<int>((column + 2.5) * module),
                               static_cast<int>((row + 2.5) * module))
                   .lightness() < 128;
    };
    for (const auto &[left, top] : {std::pair(0, 0), std::pair(14, 0), std::pair(0, 14)}) {
        for (int i = 0; i < 7; ++i)
            EXPECT_TRUE(isBlack(left + i, top) && isBlack(left + i, top + 6) && isBlack(left, top + i));
        EXPECT_FALSE(isBlack(left + 1, top + 1));
        EXPECT_TRUE(isBlack(left + 3, top + 3));
    }
    m_app->step(PlanStep::Paper);
    choose("paperKind", QStringLiteral("labels"));
    choose("labelStock", QStringLiteral("24 labels of 64 × 34 mm"));
    EXPECT_EQ(session().workshop().labels.columns, 3);
    m_app->prompts().answer = m_app->path(QStringLiteral("labels.pdf"));
    m_app->click("savePaper");
    EXPECT_TRUE(fileText(m_app->prompts().answer).startsWith(QStringLiteral("%PDF")));
    m_app->prompts().answer = QStringLiteral("/nowhere/labels.pdf");
    m_app->click("savePaper");
    EXPECT_TRUE(m_app->notice().contains(QStringLiteral("cannot be written")))
        << m_app->notice().toStdString();
}

TEST_F(PlanLens, AFolderThatRefusesTheCalendarSaysSo)
{
    m_app->step(PlanStep::Calendar);
    m_app->prompts().answer = QStringLiteral("/nowhere/plan.ics");
    m_app->click("saveCalendar");
    EXPECT_TRUE(m_app->notice().contains(QStringLiteral("cannot be written")))
        << m_app->notice().toStdString();
}

} // namespace inchpeg::app
