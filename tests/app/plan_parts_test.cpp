// SPDX-License-Identifier: GPL-3.0-or-later
// Each part of Ask & plan by itself: what it takes, what it refuses and in which words, what follows.
#include "app/plan_bench.h"
#include "core/planning/cautions.h"
#include "core/planning/dead_load.h"
#include "core/planning/plates.h"
#include "core/specimen/shape.h"
#include "support/patience.h"

#include <QCheckBox>
#include <QDialog>
#include <QDoubleSpinBox>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QSpinBox>
#include <QTableView>

#include <set>

namespace inchpeg::app
{

TEST_F(PlanLens, AnotherTestOffersItsOwnResponses)
{
    const std::size_t rails = study().conditions.size();
    choose("method", QStringLiteral("impact"));
    EXPECT_EQ(firstTest(study()).method, Method::Impact);
    auto *property = m_app->find<QComboBox>("property");
    EXPECT_GE(property->findText(QStringLiteral("impact strength")), 0);
    EXPECT_LT(property->findText(QStringLiteral("tensile strength")), 0);
    EXPECT_EQ(study().conditions.size(), rails) << "the rails stay";
    ASSERT_TRUE(session().undo());
    EXPECT_NE(firstTest(study()).method, Method::Impact);
}

TEST_F(PlanLens, OneFactorAtATimeTakesTheReferenceAndOneStepOfEach)
{
    ASSERT_TRUE(session().addStudy(QStringLiteral("Which of two?")));
    m_app->type("factorName", QStringLiteral("walls"));
    m_app->find<QComboBox>("addFactor")->setEditText(QStringLiteral("infill"));
    m_app->click("addFactorButton");
    m_app->type("factorLevels", QStringLiteral("2; 4; 6"), false);
    m_app->type("factorLevels2", QStringLiteral("15; 40"), false);
    choose("design", QStringLiteral("one factor at a time"));
    m_app->click("makeRails");
    // The reference, two more walls, one more infill.
    ASSERT_EQ(study().conditions.size(), 4U) << m_app->notice().toStdString();
    std::set<std::string> rails;
    for (const Condition &condition : study().conditions)
        rails.insert(levelText(study(), condition));
    EXPECT_EQ(rails, (std::set<std::string>{"walls 2 · infill 15 %", "walls 4 · infill 15 %",
                                            "walls 6 · infill 15 %", "walls 2 · infill 40 %"}));
    m_app->click("removeFactor2");
    EXPECT_EQ(holds(m_app->notice(), "two rails would be alike"), "");
    EXPECT_EQ(study().factors.size(), 2U);
}

TEST_F(PlanLens, RailsThatCannotBeAreRefusedInWords)
{
    ASSERT_TRUE(session().addStudy(QStringLiteral("Which?")));
    m_app->type("newLevels", QString());
    EXPECT_EQ(holds(m_app->notice(), "Type the levels of the factor"), "");
    m_app->click("addFactorButton");
    EXPECT_EQ(holds(m_app->notice(), "hoose or type what else is varied"), "");
    m_app->type("question", QStringLiteral("   "));
    EXPECT_EQ(study().question, "Which?") << "a study without a name is lost on the shelf";
    EXPECT_TRUE(study().conditions.empty());
}

TEST_F(PlanLens, ASettingIsHeldChangedAndLetGo)
{
    const std::size_t before = plan().locked.size();
    m_app->find<QComboBox>("lockName")->setEditText(QStringLiteral("nozzle size"));
    m_app->type("lockValue", QStringLiteral("0.4 mm"));
    ASSERT_EQ(plan().locked.size(), before + 1);
    EXPECT_EQ(plan().locked.back().value, "0.4 mm");
    m_app->type("locked-nozzle size", QStringLiteral("0.6 mm"));
    EXPECT_EQ(plan().locked.back().value, "0.6 mm");
    // What is varied cannot be held.
    const QString varied = QString::fromStdString(study().factors.front().name);
    m_app->find<QComboBox>("lockName")->setEditText(varied);
    m_app->type("lockValue", QStringLiteral("open"));
    EXPECT_EQ(holds(m_app->notice(), "is varied; it cannot be held as well"), "");
    EXPECT_EQ(plan().locked.size(), before + 1);
    m_app->type("locked-nozzle size", QString());
    EXPECT_EQ(plan().locked.size(), before);
}

TEST_F(PlanLens, TheReferenceIsChosenAndARailGoes)
{
    auto *rails = m_app->find<QTableView>("railTable");
    EXPECT_FALSE(m_app->find<QPushButton>("makeReference")->isEnabled()) << "no rail is chosen";
    rails->setCurrentIndex(rails->model()->index(1, 0));
    const ConditionId second = study().conditions[1].id;
    m_app->click("makeReference");
    EXPECT_EQ(study().reference, second);
    EXPECT_EQ(m_app->rack().model().rails.front().condition, second) << "the reference is on top";
    rails->setCurrentIndex(rails->model()->index(2, 0));
    const std::size_t pieces = study().pieces.size();
    m_app->click("removeRail");
    EXPECT_EQ(study().conditions.size(), 2U);
    EXPECT_EQ(study().pieces.size(), pieces - 6);
    ASSERT_TRUE(session().undo());
    EXPECT_EQ(study().pieces.size(), pieces);
}

TEST_F(PlanLens, FewerPiecesThanSparesAreRefused)
{
    m_app->step(PlanStep::Pieces);
    auto *spares = m_app->find<QSpinBox>("spares");
    spares->setValue(6);
    EXPECT_EQ(holds(m_app->notice(), "ewer spares than pieces are wanted"), "");
    EXPECT_LT(plan().aim.spares, 6);
    EXPECT_EQ(spares->value(), plan().aim.spares) << "the field shows what holds";
}

TEST_F(PlanLens, WhatIsAskedForChangesTheNumberOfPieces)
{
    m_app->step(PlanStep::Pieces);
    PlanPresenter plans(session());
    PiecesPresenter pieces(plans);
    const auto wanted = [&] {
        pieces.refresh();
        EXPECT_TRUE(
            QTest::qWaitFor([&] { return !pieces.isWorking() && pieces.wanted() > 0; }, test::kPatience_ms));
        return pieces.wanted();
    };
    m_app->find<QDoubleSpinBox>("scatter")->setValue(8.0);
    choose("comparison", QStringLiteral("each rail with the reference"));
    const int usual = wanted();
    m_app->find<QDoubleSpinBox>("confidence")->setValue(99.0);
    const int surer = wanted();
    EXPECT_GT(surer, usual) << "to be surer takes more pieces";
    m_app->find<QDoubleSpinBox>("confidence")->setValue(95.0);
    m_app->find<QDoubleSpinBox>("scatter")->setValue(16.0);
    const int wide = wanted();
    // Twice the scatter takes about four times the pieces.
    // Three rails are printed like the reference. Reference: R 4.2.2, noncentral pt() at Dunnett's value by
    // integrate() (dunnett_cdf() in tests/reference/make_design_reference.R), d = log(1.15) / 0.08: 8 pieces
    // give 86.0 %; with 0.16: 26 give 81.3 %; with 0.08 and 1 %: 11 give 85.0 %.
    EXPECT_EQ(study().smallestDifference, 0.15);
    EXPECT_EQ(usual, 8);
    EXPECT_EQ(wide, 26);
    EXPECT_EQ(surer, 11);
    m_app->click("usualScatter");
    EXPECT_FALSE(plan().aim.cv) << "back to the usual one";
}

TEST_F(PlanLens, EveryShapeOfTheShelfCanBeChosenAndDrawn)
{
    m_app->step(PlanStep::Specimen);
    auto *shelf = m_app->find<QListWidget>("shapeShelf");
    ASSERT_EQ(shelf->count(), static_cast<int>(shapeShelf().size()));
    for (int row = 0; row < shelf->count(); ++row) {
        shelf->setCurrentRow(row);
        emit shelf->itemClicked(shelf->item(row));
        QCoreApplication::processEvents();
        const SpecimenShape &shape = shapeShelf()[static_cast<std::size_t>(row)];
        EXPECT_EQ(firstTest(study()).setup.shape.key, shape.key);
        EXPECT_EQ(holds(textOf("shapeWords"), shape.name.c_str()), "");
        EXPECT_EQ(textOf("shapeWords").contains(QStringLiteral("copy of the standard")),
                  !shape.standard.empty())
            << shape.name;
        EXPECT_FALSE(shelf->item(row)->icon().isNull());
    }
}

TEST_F(PlanLens, ADimensionTakesUnitsAndRefusesWhatCannotBe)
{
    m_app->step(PlanStep::Specimen);
    const SpecimenShape before = firstTest(study()).setup.shape;
    m_app->type("shapeThickness", QStringLiteral("0.25 in"));
    EXPECT_DOUBLE_EQ(firstTest(study()).setup.shape.thickness_mm, 6.35);
    EXPECT_EQ(holds(QString::fromStdString(firstTest(study()).setup.shape.name), "own "), "");
    for (const char *bad : {"0", "-3", "thick", "4 N"}) {
        m_app->type("shapeThickness", QString::fromUtf8(bad));
        EXPECT_FALSE(m_app->notice().isEmpty()) << bad;
        EXPECT_DOUBLE_EQ(firstTest(study()).setup.shape.thickness_mm, 6.35) << bad;
        EXPECT_EQ(m_app->find<QLineEdit>("shapeThickness")->text(), QStringLiteral("6.35 mm"))
            << "the field shows what holds after " << bad;
    }
    ASSERT_TRUE(session().undo());
    EXPECT_EQ(firstTest(study()).setup.shape, before);
}

TEST_F(PlanLens, ARigThatIsTooWeakIsSaidWithAWayOut)
{
    m_app->step(PlanStep::Rig);
    ASSERT_TRUE(session().tryEditWorkshop(QStringLiteral("a weak gauge"), [](Workshop &workshop) {
        RigCard weak;
        weak.name = "kitchen gauge 50 N";
        weak.kind = RigKind::HandGauge;
        weak.range = 50.0;
        weak.resolution = 0.1;
        workshop.rigs.push_back(weak);
        return ok();
    }));
    choose("rig", QStringLiteral("kitchen gauge 50 N"));
    EXPECT_EQ(holds(textOf("rigVerdict"), "beyond"), "");
    EXPECT_EQ(holds(textOf("rigVerdict"), "a section of"), "");
    choose("rig", QStringLiteral("not chosen"));
    EXPECT_EQ(holds(textOf("rigVerdict"), "would suit"), "");
    // A weaker material on the same rig.
    choose("rig", QStringLiteral("kitchen gauge 50 N"));
    m_app->type("expected", QStringLiteral("1 MPa"));
    EXPECT_FALSE(textOf("rigVerdict").contains(QStringLiteral("beyond")))
        << textOf("rigVerdict").toStdString();
    m_app->type("expected", QStringLiteral("-1 MPa"));
    EXPECT_EQ(holds(m_app->notice(), "value above zero is expected"), "");
}

TEST_F(PlanLens, HowRecordsAreReadIsTypedWithUnits)
{
    const auto said = [&](const char *name) { return firstTest(study()).setup.settings.number(name); };
    m_app->step(PlanStep::Rig);
    m_app->type("said-gauge_length", QStringLiteral("2 in"));
    EXPECT_NEAR(*said("gauge_length"), 50.8, 1e-9);
    m_app->type("said-capacity", QStringLiteral("50 kgf"));
    EXPECT_NEAR(*said("capacity"), 490.3325, 1e-9);
    m_app->type("said-modulus_from", QStringLiteral("0.1 %"));
    EXPECT_NEAR(*said("modulus_from"), 0.001, 1e-12);
    // A range that ends before it begins.
    m_app->type("said-modulus_to", QStringLiteral("0.05 %"));
    EXPECT_FALSE(m_app->notice().isEmpty());
    EXPECT_FALSE(said("modulus_to"));
    choose("said-toe", QStringLiteral("off"));
    EXPECT_EQ(firstTest(study()).setup.settings.word("toe"), "off");
    choose("shape", QStringLiteral("round: diameter"));
    EXPECT_EQ(study().sectionShape, SectionShape::Round);
    m_app->type("said-gauge_length", QString());
    EXPECT_FALSE(said("gauge_length")) << "an extensometer less";
    const std::optional<double> gripDistance = said("grip_distance");
    m_app->type("said-grip_distance", QStringLiteral("5 kg"));
    EXPECT_FALSE(m_app->notice().isEmpty());
    EXPECT_EQ(said("grip_distance"), gripDistance);
}

TEST_F(PlanLens, OrdersComeFromTheSeed)
{
    m_app->step(PlanStep::Plates);
    const auto order = [&] { return layOutPlates(study(), session().workshop()).testOrder; };
    const auto first = order();
    auto *seed = m_app->find<QSpinBox>("seed");
    const int was = seed->value();
    m_app->click("drawAgain");
    EXPECT_NE(seed->value(), was);
    EXPECT_NE(order(), first);
    EXPECT_EQ(std::set<PieceId>(first.begin(), first.end()).size(), first.size()) << "each piece once";
    seed->setValue(was);
    EXPECT_EQ(order(), first) << "the same number, the same order";
}

TEST_F(PlanLens, PiecesThatDoNotFitThePrinterAreNamed)
{
    ASSERT_TRUE(session().tryEditWorkshop(QStringLiteral("a small printer"), [](Workshop &workshop) {
        workshop.printers.push_back({"tiny", 9.0, 9.0, 4.0, false, 8.0, 10.0});
        return ok();
    }));
    m_app->step(PlanStep::Plates);
    EXPECT_FALSE(m_app->find<QLabel>("plateWords")->isVisible());
    choose("printer", QStringLiteral("tiny"));
    ASSERT_TRUE(m_app->find<QLabel>("plateWords")->isVisible());
    EXPECT_EQ(holds(textOf("plateWords"), "18 pieces do not fit the printer (A1"), "");
    EXPECT_FALSE(m_app->find<QPushButton>("markPrinted")->isVisible()) << "there is no plate to print";
}

TEST_F(PlanLens, AWiderGapPutsFewerPiecesOnAPlate)
{
    m_app->step(PlanStep::Plates);
    const std::size_t plates = layOutPlates(study(), session().workshop()).plates.size();
    m_app->find<QDoubleSpinBox>("gap")->setValue(100.0);
    EXPECT_GT(layOutPlates(study(), session().workshop()).plates.size(), plates);
}

TEST_F(PlanLens, ConditioningAndDryingMoveTheEnd)
{
    PlanPresenter plans(session());
    m_app->step(PlanStep::Calendar);
    m_app->click("startToday");
    EXPECT_EQ(plan().dates.start, "2026-06-01");
    const auto end = [&] {
        Moment last{};
        for (const CalendarEntry &entry : plans.state().calendar()) {
            if (entry.study == study().id)
                last = std::max(last, entry.end);
        }
        return last;
    };
    choose("conditioning", QStringLiteral("16 h"));
    const Moment early = end();
    choose("conditioning", QStringLiteral("88 h"));
    EXPECT_EQ(plan().dates.conditioning_h, 88.0);
    EXPECT_GE(end() - early, std::chrono::hours(60)) << "72 h more, less what fell on a night anyway";
    choose("conditioning", QStringLiteral("as usual for the material"));
    EXPECT_FALSE(plan().dates.conditioning_h);
    auto *list = m_app->find<QListWidget>("calendarList");
    const auto mentions = [&](const char *word) {
        return !list->findItems(QString::fromUtf8(word), Qt::MatchContains).isEmpty();
    };
    ASSERT_TRUE(m_app->find<QCheckBox>("dryFirst")->isChecked());
    EXPECT_TRUE(mentions("dry styrenic"));
    m_app->find<QCheckBox>("dryFirst")->click();
    EXPECT_FALSE(mentions("dry styrenic"));
    m_app->type("startDate", QStringLiteral("next week"));
    EXPECT_EQ(holds(m_app->notice(), "\"next week\""), "");
    EXPECT_EQ(plan().dates.start, "2026-06-01");
    m_app->type("startDate", QString());
    EXPECT_TRUE(plan().dates.start.empty());
    EXPECT_FALSE(list->isVisible()) << "a study without a date has no days";
}

TEST_F(PlanLens, TwoStudiesDoNotTakeThePrinterAtOnce)
{
    PlanPresenter plans(session());
    m_app->step(PlanStep::Calendar);
    m_app->type("startDate", QStringLiteral("2026-06-08"));
    const StudyId first = study().id;
    ASSERT_TRUE(session().addStudy(QStringLiteral("Another?")));
    ASSERT_TRUE(session().edit(QStringLiteral("rails"), [&](Study &changed) {
        changed.plan.dates.start = "2026-06-08";
        firstTest(changed).setup.shape = *findShape("standing-mini");
        return addCondition(changed, {{}, {"a"}, {}, "polyester"}, session().ids());
    }));
    std::map<std::string, std::vector<CalendarEntry>> byResource;
    std::set<StudyId> studies;
    for (const CalendarEntry &entry : plans.state().calendar()) {
        studies.insert(entry.study);
        if (!entry.resource.empty())
            byResource[entry.resource].push_back(entry);
    }
    EXPECT_TRUE(studies.contains(first) && studies.contains(study().id)) << "one calendar for both";
    for (auto &[resource, entries] : byResource) {
        std::sort(entries.begin(), entries.end(),
                  [](const CalendarEntry &a, const CalendarEntry &b) { return a.start < b.start; });
        for (std::size_t i = 1; i < entries.size(); ++i)
            EXPECT_GE(entries[i].start, entries[i - 1].end)
                << resource << ": " << entries[i - 1].what << " and " << entries[i].what;
    }
}

TEST_F(PlanLens, ConfirmationsAreKeptTakenBackAndUndone)
{
    m_app->step(PlanStep::Check);
    const std::vector<Caution> cautions = cautionsOf(study());
    ASSERT_GT(cautions.size(), 2U);
    const std::string name = "caution-" + std::string(cautions.front().key);
    m_app->find<QCheckBox>(name.c_str())->click();
    ASSERT_EQ(plan().confirmed.size(), 1U);
    EXPECT_FALSE(allConfirmed(study())) << "one of several";
    m_app->find<QCheckBox>(name.c_str())->click();
    EXPECT_TRUE(plan().confirmed.empty());
    ASSERT_TRUE(session().undo());
    EXPECT_EQ(plan().confirmed.size(), 1U);
    EXPECT_EQ(holds(textOf("needed"), "callipers to 0.01 mm"), "");
}

TEST_F(PlanLens, LabelsFillAsManySheetsAsTheirStockNeeds)
{
    m_app->step(PlanStep::Paper);
    choose("paperKind", QStringLiteral("labels"));
    auto *stock = m_app->find<QComboBox>("labelStock");
    ASSERT_TRUE(stock->isVisible());
    auto *page = m_app->find<QSpinBox>("paperPage");
    EXPECT_EQ(page->maximum(), 1) << "18 labels of 65 to a sheet";
    ASSERT_TRUE(session().tryEditWorkshop(QStringLiteral("large labels"), [](Workshop &workshop) {
        workshop.labels = {"own", 90.0, 60.0, 2, 4, 10.0, 10.0, 95.0, 65.0};
        return ok();
    }));
    EXPECT_EQ(page->maximum(), 3) << "18 labels of 8 to a sheet";
    EXPECT_EQ(stock->currentText(), QStringLiteral("own size…"));
    page->setValue(3);
    m_app->prompts().answer = m_app->path(QStringLiteral("labels.pdf"));
    m_app->click("savePaper");
    EXPECT_EQ(m_app->notice(), QString());
    EXPECT_TRUE(fileText(m_app->prompts().answer).startsWith(QStringLiteral("%PDF-")));
    stock->setCurrentIndex(stock->count() - 1);
    emit stock->activated(stock->count() - 1);
    EXPECT_TRUE(m_app->window().findChild<QDialog *>(QStringLiteral("workshopWindow"))->isVisible())
        << "an own size is set in the workshop";
}

} // namespace inchpeg::app
