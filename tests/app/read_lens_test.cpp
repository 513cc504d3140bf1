// SPDX-License-Identifier: GPL-3.0-or-later
// Markers by hand, rules and re-reading, in the real window.
#include "app/read/read_presenter.h"
#include "app_harness.h"
#include "core/logbook/break_looks.h"
#include "core/model/study_edit.h"
#include "core/reading/reading_text.h"
#include "store/kept_readings.h"
#include "support/read_value.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include <fmt/format.h>

namespace inchpeg::app
{

namespace
{

class ReadLens : public testing::Test
{
protected:
    void SetUp() override
    {
        m_app = AppHarness::onDemo();
        session().setLens(Lens::Read);
        session().selectPiece(session().study()->pieces[24].id); // flat: it yields and falls
        m_app->waitUntilRead();
        m_app->waitUntilRecord();
    }

    ProjectSession &session() { return m_app->session(); }
    const Piece &piece() { return *findPiece(*session().study(), session().selectedPiece()); }
    const PieceReading &reading() { return *readingOf(session().readings(), session().selectedPiece()); }
    double strength_MPa() { return test::readValue(reading().result, "tensile_strength"); }
    /// Where a marker lies; the test fails where the record does not have it.
    const Mark &mark(std::string_view name)
    {
        const std::vector<Mark> &marks = reading().result.marks;
        const auto found =
            std::find_if(marks.begin(), marks.end(), [name](const Mark &one) { return one.name == name; });
        EXPECT_NE(found, marks.end()) << name;
        return found != marks.end() ? *found : marks.front();
    }

    void giveReason(const QString &reason)
    {
        m_app->type("markerReason", reason);
        m_app->waitUntilRead();
        m_app->waitUntilRecord();
    }

    std::unique_ptr<AppHarness> m_app;
};

} // namespace

TEST_F(ReadLens, ADraggedMarkerShowsItsEffectAndAsksWhy)
{
    const double found = strength_MPa();
    m_app->drag("strength", QPointF(-40, 0));
    auto *question = m_app->find<QWidget>("markerQuestion");
    EXPECT_TRUE(question->isVisible());
    auto *reason = m_app->find<QLineEdit>("markerReason");
    QTest::qWait(20);
    EXPECT_FALSE(reason->visibleRegion().isEmpty()) << "the card is scrolled to what is asked";
    const QString told = m_app->find<QLabel>("movedText")->text();
    EXPECT_TRUE(told.startsWith(QStringLiteral("Strength by hand at "))) << told.toStdString();
    EXPECT_TRUE(told.contains(QStringLiteral("found ")));
    EXPECT_TRUE(piece().markers.empty()) << "nothing is kept without a reason";
    m_app->type("markerReason", QStringLiteral(" "));
    EXPECT_TRUE(m_app->notice().contains(QStringLiteral("Say why"))) << m_app->notice().toStdString();
    EXPECT_TRUE(question->isVisible()) << "a refusal loses nothing";
    giveReason(QStringLiteral("slipped in the grips"));
    ASSERT_EQ(piece().markers.count("strength"), 1U);
    const HandMarker placed = piece().markers.at("strength");
    EXPECT_EQ(placed.reason, "slipped in the grips");
    EXPECT_EQ(placed.who, "T. Ester");
    EXPECT_EQ(placed.when, "2026-06-01T10:00:00Z");
    EXPECT_LT(strength_MPa(), found);
    EXPECT_EQ(test::readValue(*reading().automatic, "tensile_strength"), found)
        << "the automatic value stays beside it";
    EXPECT_FALSE(question->isVisible());
    EXPECT_TRUE(
        m_app->find<QLabel>("markersByHand")->text().contains(QStringLiteral("slipped in the grips")));
    EXPECT_EQ(session().undoText(), QStringLiteral("place the strength by hand"));
    m_app->key(Qt::Key_Z, Qt::ControlModifier);
    m_app->waitUntilRead();
    EXPECT_TRUE(piece().markers.empty());
    EXPECT_EQ(strength_MPa(), found);
}

TEST_F(ReadLens, WhatABreakLooksLikeIsSaidByItsDrawing)
{
    ASSERT_TRUE(session().edit(QStringLiteral("nothing said"), [](Study &study) -> Status {
        for (Piece &one : study.pieces)
            one.log.breakLook.clear();
        return ok();
    }));
    m_app->click("break-two-layers");
    EXPECT_EQ(piece().log.breakLook, "two-layers");
    EXPECT_TRUE(m_app->find<QAbstractButton>("break-two-layers")->isChecked());
    m_app->click("break-at-grips");
    EXPECT_EQ(piece().log.breakLook, "at-grips") << "one at a time";
    EXPECT_FALSE(m_app->find<QAbstractButton>("break-two-layers")->isChecked());
    EXPECT_EQ(pegState(piece(), session().readings()), PegState::Doubtful);
    m_app->click("break-at-grips");
    EXPECT_EQ(piece().log.breakLook, "") << "pressed again, it is taken back";
    EXPECT_EQ(session().undoText(), QStringLiteral("look of a break"));
}

TEST_F(ReadLens, CurvesOfOneLookAreShownAlone)
{
    auto *looks = m_app->find<QComboBox>("shownLook");
    ASSERT_TRUE(looks->isVisible());
    const SaidLooks said = saidLooks(*session().study(), Method::LayerAdhesion);
    ASSERT_GE(said.counts.size(), 2U);
    EXPECT_EQ(looks->count(), 1 + static_cast<int>(said.counts.size()) + (said.notSaid > 0 ? 1 : 0));
    ReadPresenter presenter(session());
    std::size_t shown = said.notSaid;
    const std::size_t all = presenter.curves().size();
    for (const auto &[look, count] : said.counts) {
        presenter.showLook(QString::fromUtf8(look->name));
        EXPECT_EQ(presenter.curves().size(), count) << look->name;
        shown += count;
    }
    EXPECT_EQ(shown, all);
    presenter.showLook(QStringLiteral("of another study"));
    EXPECT_EQ(presenter.curves().size(), all) << "a look that nobody said hides nothing";
    const QImage before = m_app->find<QWidget>("curvePlot")->grab().toImage();
    m_app->choose("shownLook", looks->itemText(1));
    QTest::qWait(50);
    EXPECT_NE(m_app->find<QWidget>("curvePlot")->grab().toImage(), before);
    ASSERT_TRUE(session().edit(QStringLiteral("nothing said"), [](Study &study) -> Status {
        for (Piece &one : study.pieces)
            one.log.breakLook.clear();
        return ok();
    }));
    m_app->waitUntilRead();
    EXPECT_FALSE(looks->isVisible());
}

TEST_F(ReadLens, EscapeDropsAMovedMarker)
{
    m_app->drag("break", QPointF(-30, 0));
    EXPECT_TRUE(m_app->find<QWidget>("markerQuestion")->isVisible());
    m_app->key(Qt::Key_Escape);
    EXPECT_FALSE(m_app->find<QWidget>("markerQuestion")->isVisible());
    EXPECT_TRUE(piece().markers.empty());
}

TEST_F(ReadLens, EveryMarkerCanBeTyped)
{
    struct Case {
        const char *field;
        const char *typed;
        const char *marker;
        double strain; ///< where it must come to lie
    };
    for (const Case &c :
         {Case{"place-toe", "0.01 %", "toe", 0.0001},
          Case{"place-modulus_from", "0,1", "modulus_from", 0.001},
          Case{"place-modulus_to", "0.004 mm/mm", "modulus_to", 0.004},
          Case{"place-strength", "3", "strength", 0.03}, Case{"place-yield", "2,5 %", "yield", 0.025},
          Case{"place-break", "3.5 %", "break", 0.035}}) {
        m_app->type(c.field, QString::fromUtf8(c.typed));
        EXPECT_EQ(m_app->notice(), QString()) << c.typed;
        giveReason(QStringLiteral("typed"));
        ASSERT_EQ(piece().markers.count(c.marker), 1U) << c.field;
        if (findMarker(Method::LayerAdhesion, c.marker)->place != MarkerPlace::Sample) {
            EXPECT_DOUBLE_EQ(*piece().markers.at(c.marker).at, c.strain) << c.field;
            continue;
        }
        EXPECT_NEAR(mark(c.marker).x, c.strain, 0.0006) << c.field << ": the nearest sample";
    }
    EXPECT_EQ(test::readValue(reading().result, "toe_strain"), 0.0001);
    m_app->type("place-yield", QStringLiteral("none"));
    giveReason(QStringLiteral("none to be seen"));
    EXPECT_EQ(valueOf(reading().result.values, "yield_stress"), nullptr);
    m_app->type("place-break", QStringLiteral("later"));
    EXPECT_TRUE(m_app->notice().contains(QStringLiteral("is not a number"))) << m_app->notice().toStdString();

    m_app->click("back-break");
    m_app->waitUntilRead();
    EXPECT_EQ(piece().markers.count("break"), 0U);
    EXPECT_EQ(piece().markers.size(), 5U);
    m_app->click("allBackToAutomatic");
    m_app->waitUntilRead();
    EXPECT_TRUE(piece().markers.empty());
    EXPECT_FALSE(reading().automatic);
}

TEST_F(ReadLens, AMarkerIsMovedByKeys)
{
    m_app->find<QWidget>("curvePlot")->setFocus();
    for (int i = 0; i < 5; ++i) // toe, modulus from, modulus to, yield, strength
        m_app->key(Qt::Key_M);
    const double before = *mark("strength").place;
    m_app->key(Qt::Key_Left, Qt::ControlModifier);
    m_app->key(Qt::Key_Left);
    m_app->key(Qt::Key_Right);
    m_app->key(Qt::Key_Return);
    EXPECT_EQ(QApplication::focusWidget()->objectName(), QStringLiteral("markerReason"));
    giveReason(QStringLiteral("by keys"));
    EXPECT_EQ(mark("strength").place, before - 10.0);
    EXPECT_EQ(QApplication::focusWidget()->objectName(), QStringLiteral("curvePlot"))
        << "the plot takes the keys again";
}

TEST_F(ReadLens, ARuleReadsTheWholeStudyAgain)
{
    const double before = test::readValue(reading().result, "offset_yield_stress");
    session().setLens(Lens::Plan);
    m_app->step(PlanStep::Rig);
    m_app->type("said-offset", QStringLiteral("0,1"));
    m_app->waitUntilRead();
    EXPECT_EQ(firstTest(*session().study()).setup.settings.number("offset"), 0.001);
    EXPECT_LT(test::readValue(reading().result, "offset_yield_stress"), before);
    m_app->type("said-modulus_to", QStringLiteral("0.01 %"));
    EXPECT_TRUE(m_app->notice().contains(QStringLiteral("modulus range"))) << m_app->notice().toStdString();
    EXPECT_EQ(m_app->find<QLineEdit>("said-modulus_to")->text(), QString()) << "what holds is shown";
    m_app->find<QLineEdit>("said-offset")->setFocus();
    m_app->key(Qt::Key_A, Qt::ControlModifier);
    m_app->key(Qt::Key_Delete);
    m_app->key(Qt::Key_Return);
    m_app->waitUntilRead();
    EXPECT_FALSE(firstTest(*session().study()).setup.settings.number("offset"))
        << "an empty field is the usual value";
    EXPECT_EQ(test::readValue(reading().result, "offset_yield_stress"), before);
}

TEST_F(ReadLens, ReadingsAreKeptAndTakenWhileTheirInputsHold)
{
    const PieceId id = session().selectedPiece();
    const QString path = session().projectPath();
    const std::string inputs = session().readingOrder(id)->inputs;
    PieceReading marked = reading();
    for (ReadValue &value : marked.result.values)
        value.number =
            value.property == "tensile_strength" ? 1234.5 : value.number; // so that it is known again
    m_app->restart();
    ASSERT_TRUE(KeptReadings::open(path.toStdString())->keep({{id, inputs, marked}}));
    ASSERT_TRUE(session().openProject(path));
    m_app->waitUntilRead();
    EXPECT_EQ(test::readValue(readingOf(session().readings(), id)->result, "tensile_strength"), 1234.5)
        << "taken, not made";
    ASSERT_TRUE(session().edit(QStringLiteral("measure"), [&](Study &study) {
        findPiece(study, id)->section = RectangularSection{millimetres(5), millimetres(4)};
        return ok();
    }));
    m_app->waitUntilRead();
    EXPECT_LT(test::readValue(readingOf(session().readings(), id)->result, "tensile_strength"), 100.0)
        << "made anew once its section changed";
}

TEST_F(ReadLens, ReadingCanBeStoppedAndGoneOnWith)
{
    std::string record = "force_N,extension_mm\n";
    for (int i = 0; i < 20000; ++i)
        record += fmt::format("{:.2f},{:.4f}\n", 0.05 * i, 1e-4 * i);
    ASSERT_TRUE(session().addStudy(QStringLiteral("A long one?")));
    const auto raw = session().project().addRawFile("long.csv", record);
    ASSERT_TRUE(session().edit(QStringLiteral("long"), [&](Study &study) -> Status {
        firstTest(study).piecesPerCondition = 150;
        if (const Status added = addCondition(study, {{}, {"a"}, {}, {}}, session().ids()); !added)
            return added;
        for (Piece &piece : study.pieces) {
            piece.section = PlainArea{squareMillimetres(10)};
            piece.recording = Recording{raw->id, {}};
        }
        return ok();
    }));
    EXPECT_TRUE(session().isReading());
    session().cancelReading(); // what the Stop button does
    const std::size_t unread = session().unreadCount();
    EXPECT_GT(unread, 0U);
    EXPECT_TRUE(m_app->notice().contains(QStringLiteral("%1 records are not read yet").arg(unread)))
        << m_app->notice().toStdString();
    m_app->click("noticeOffer");
    m_app->waitUntilRead();
    EXPECT_EQ(session().unreadCount(), 0U);
    EXPECT_EQ(session().readings().size(), 150U);
}

TEST_F(ReadLens, ALongRecordIsDrawnFromAllItsSamplesOnlyWhereItIsChosen)
{
    std::string record = "force_N,extension_mm\n";
    for (int i = 0; i < 30000; ++i)
        record += fmt::format("{:.2f},{:.4f}\n", 0.05 * i, 1e-4 * i);
    const auto raw = session().project().addRawFile("long.csv", record);
    const PieceId first = session().study()->pieces[0].id;
    ASSERT_TRUE(session().edit(QStringLiteral("long"), [&](Study &study) {
        setRecording(*findPiece(study, first), Recording{raw->id, {}});
        return ok();
    }));
    m_app->waitUntilRead();
    ReadPresenter presenter(session());
    const auto pointsOf = [&](PieceId id) {
        for (const CurveModel &curve : presenter.curves()) {
            if (curve.piece == id)
                return curve.shape->body().size();
        }
        return std::size_t{0};
    };
    EXPECT_LT(pointsOf(first), 10000U);
    session().selectPiece(first);
    EXPECT_TRUE(QTest::qWaitFor([&] { return pointsOf(first) == 30000U; }, test::kPatience_ms));
}

} // namespace inchpeg::app
