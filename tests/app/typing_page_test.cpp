// SPDX-License-Identifier: GPL-3.0-or-later
// Readings typed by eye, in the real window.
#include "app/log/typing_page.h"
#include "app_harness.h"
#include "core/planning/plan_edit.h"
#include "support/read_value.h"

#include <QClipboard>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableView>

#include <cmath>

namespace inchpeg::app
{

namespace
{

class Typing : public testing::Test
{
protected:
    Typing()
    {
        EXPECT_TRUE(session().createProject(m_app.path(QStringLiteral("typed.inchpeg"))));
        EXPECT_TRUE(session().addStudy(QStringLiteral("What holds?")));
    }

    void plan(Method method, int pieces)
    {
        EXPECT_TRUE(session().edit(QStringLiteral("plan"), [&](Study &study) -> Status {
            firstTest(study).method = method;
            firstTest(study).piecesPerCondition = pieces;
            firstTest(study).setup.settings.numbers = {
                {"mass", 0.5}, {"arm", 300.0}, {"release", 150.0}, {"free_swing", 148.0}};
            if (const Status added = addCondition(study, {{}, {"a"}, {}, {}}, session().ids()); !added)
                return added;
            for (Piece &piece : study.pieces)
                piece.section = RectangularSection{millimetres(10), millimetres(4)};
            return ok();
        }));
        session().selectPiece(session().study()->pieces.front().id);
        m_app.part(LogPart::Type);
        m_app.find<QWidget>("typingTable")->setFocus();
    }

    void keep()
    {
        m_app.key(Qt::Key_Return, Qt::ControlModifier);
        m_app.waitUntilKept();
        m_app.waitUntilRead();
    }

    ProjectSession &session() { return m_app.session(); }
    const Piece &piece(std::size_t i) { return session().study()->pieces[i]; }
    const Reading &reading(std::size_t i)
    {
        const PieceReading *read = readingOf(session().readings(), piece(i).id);
        EXPECT_NE(read, nullptr) << i << " " << m_app.notice().toStdString();
        static const Reading kNone;
        return read != nullptr ? read->result : kNone;
    }

    AppHarness m_app;
};

} // namespace

TEST_F(Typing, ThreePeaksOfAHandScaleInThreeReadings)
{
    plan(Method::LayerAdhesion, 3);
    for (const char *peak : {"23.4 kgf", "25 kgf", "24,1 kgf"}) {
        m_app.typeKeys(QString::fromUtf8(peak) + QLatin1Char('\n'));
        keep(); // and on to the next piece
    }
    EXPECT_NEAR(test::readValue(reading(0), "peak_force"), 23.4 * 9.80665, 1e-9);
    EXPECT_NEAR(test::readValue(reading(2), "tensile_strength"), 24.1 * 9.80665 / 40.0, 1e-9);
    EXPECT_EQ(session().lens(), Lens::Log);
}

TEST_F(Typing, SwingsAreTypedWithTheirKindOfBreak)
{
    plan(Method::Impact, 2);
    m_app.typeKeys(QStringLiteral("120\n8\nc\n"));
    keep();
    EXPECT_EQ(reading(0).kind, "complete break");
    EXPECT_GT(test::readValue(reading(0), "impact_strength"), 0.0);
    EXPECT_EQ(session().selectedPiece(), piece(1).id);
    m_app.typeKeys(QStringLiteral("95\n\nq\n"));
    keep();
    EXPECT_TRUE(m_app.notice().contains(QStringLiteral("C or H or P or N"))) << m_app.notice().toStdString();
    EXPECT_FALSE(piece(1).recording) << "a refusal keeps what is typed, and takes nothing";
}

TEST_F(Typing, ACreepRunIsGoneOnWithAndEarlierRowsStay)
{
    plan(Method::Creep, 1);
    m_app.typeKeys(QStringLiteral("0\n1.00\n\n\n\n24\n1.20\n\n\n\n"));
    keep();
    ASSERT_TRUE(piece(0).recording);
    const RawFileId first = piece(0).recording->file;
    EXPECT_GT(test::readValue(reading(0), "growth"), 1.1);
    m_app.find<QWidget>("typingTable")->setFocus();
    m_app.typeKeys(QStringLiteral("48\n1.26\n\n\n\n"));
    keep();
    EXPECT_NE(piece(0).recording->file, first) << "what was kept is never overwritten";
    EXPECT_TRUE(session().project().rawBytes(first)) << "and stays in the project";
    EXPECT_NEAR(test::readValue(reading(0), "growth"), 1.26, 1e-9);
    const std::string text = *session().project().rawBytes(piece(0).recording->file);
    EXPECT_NE(text.find("# by: T. Ester"), std::string::npos) << text;
}

TEST_F(Typing, RowsOfASpreadsheetArePasted)
{
    plan(Method::BendSteps, 1);
    QApplication::clipboard()->setText(QStringLiteral("2.5 kg\t1\t0.52\n2.5 kg\t60\t0.53\n5 kg\t1\t1.1\n"));
    m_app.key(Qt::Key_V, Qt::ControlModifier);
    keep();
    EXPECT_EQ(reading(0).values.front().property, "apparent_modulus");
    EXPECT_GT(test::readValue(reading(0), "apparent_modulus"), 500.0);
}

// From the plan alone: nothing is set in the study but what a person can type.
TEST_F(Typing, TheHammerIsSaidWhereTheRigIsChosen)
{
    plan(Method::Impact, 1);
    EXPECT_TRUE(session().edit(QStringLiteral("forget"), [](Study &study) {
        firstTest(study).setup.settings = {};
        return ok();
    }));
    m_app.typeKeys(QStringLiteral("120\n8\nc\n"));
    keep();
    EXPECT_FALSE(session().readings().at(piece(0).id)->has_value()) << "the hammer's mass is missing";
    session().setLens(Lens::Plan);
    m_app.step(PlanStep::Rig);
    m_app.type("said-mass", QStringLiteral("500 g"));
    m_app.type("said-arm", QStringLiteral("300 mm"));
    m_app.type("said-release", QStringLiteral("150"));
    m_app.type("said-free_swing", QStringLiteral("-1"));
    EXPECT_TRUE(m_app.notice().contains(QStringLiteral("must be above zero")))
        << m_app.notice().toStdString();
    m_app.type("said-free_swing", QStringLiteral("148"));
    m_app.waitUntilRead();
    EXPECT_EQ(firstTest(*session().study()).setup.settings.number("mass"), 0.5);
    EXPECT_EQ(firstTest(*session().study()).setup.settings.number("arm"), 300.0);
    EXPECT_GT(test::readValue(reading(0), "impact_strength"), 0.0);
    m_app.type("said-mass", QString());
    EXPECT_FALSE(firstTest(*session().study()).setup.settings.number("mass"));
}

namespace
{

/// A pendulum study of two rails, its table open.
class TypingTableOfAll : public testing::Test
{
protected:
    TypingTableOfAll()
    {
        EXPECT_TRUE(session().createProject(m_app.path(QStringLiteral("all.inchpeg"))));
        EXPECT_TRUE(session().addStudy(QStringLiteral("Which absorbs more?")));
        EXPECT_TRUE(session().edit(QStringLiteral("plan"), [&](Study &study) -> Status {
            firstTest(study).method = Method::Impact;
            firstTest(study).piecesPerCondition = 13;
            firstTest(study).setup.settings.numbers = {
                {"mass", 0.5}, {"arm", 300.0}, {"release", 150.0}, {"free_swing", 148.0}};
            for (const char *level : {"a", "b"}) {
                if (const Status added = addCondition(study, {{}, {level}, {}, {}}, session().ids()); !added)
                    return added;
            }
            for (Piece &piece : study.pieces)
                piece.section = RectangularSection{millimetres(10), millimetres(4)};
            return ok();
        }));
        m_app.part(LogPart::Type);
        m_grid = m_app.find<QTableView>("piecesGrid");
        m_grid->setFocus();
    }

    ProjectSession &session() { return m_app.session(); }
    const Piece &piece(std::size_t i) { return session().study()->pieces[i]; }
    void waitUntilAllAreKept()
    {
        ASSERT_TRUE(QTest::qWaitFor(
            [&] {
                m_app.waitUntilKept();
                QCoreApplication::processEvents();
                return !m_app.find<QWidget>("keepPieces")->isEnabled();
            },
            test::kPatience_ms));
        m_app.waitUntilRead();
    }
    std::size_t recorded()
    {
        std::size_t count = 0;
        for (const Piece &one : session().study()->pieces)
            count += one.recording ? 1U : 0U;
        return count;
    }
    int column(const QString &heading)
    {
        for (int c = 0; c < m_grid->model()->columnCount(); ++c) {
            if (m_grid->model()
                    ->headerData(c, Qt::Horizontal)
                    .toString()
                    .startsWith(heading, Qt::CaseInsensitive))
                return c;
        }
        ADD_FAILURE() << heading.toStdString();
        return 0;
    }

    AppHarness m_app;
    QTableView *m_grid = nullptr;
};

} // namespace

TEST_F(TypingTableOfAll, TwentyFiveSwingsAreTypedDownOneColumn)
{
    ASSERT_TRUE(m_grid->isVisible());
    EXPECT_FALSE(m_app.find<QWidget>("typingTable")->isVisible()) << "the card is for tests of many rows";
    auto *enter = m_app.find<QComboBox>("enterGoes");
    enter->setCurrentIndex(1);
    emit enter->activated(1);
    m_grid->setCurrentIndex(m_grid->model()->index(0, column(QStringLiteral("swing"))));
    QString keys;
    for (int i = 0; i < 25; ++i)
        keys += QStringLiteral("%1\n").arg(110.0 + 0.5 * i);
    m_app.typeKeys(keys);
    m_app.key(Qt::Key_Return, Qt::ControlModifier);
    waitUntilAllAreKept();
    EXPECT_EQ(recorded(), 25U);
    EXPECT_FALSE(piece(25).recording);
    const auto energy = [&](std::size_t i) {
        return test::readValue((**session().readings().at(piece(i).id)).result, "absorbed_energy");
    };
    // The lower it swings on, the more was taken: ISO 179-1, m g l (cos of the ends).
    EXPECT_NEAR(energy(0),
                0.5 * 9.80665 * 0.3 * (std::cos(110.0 * M_PI / 180.0) - std::cos(148.0 * M_PI / 180.0)),
                5e-3);
    EXPECT_GT(energy(0), energy(10));
    // A correction in place: a further record, the former one stays.
    const RawFileId former = piece(3).recording->file;
    m_grid->setCurrentIndex(m_grid->model()->index(3, column(QStringLiteral("swing"))));
    m_app.typeKeys(QStringLiteral("99\n"));
    waitUntilAllAreKept();
    EXPECT_NE(piece(3).recording->file, former);
    EXPECT_TRUE(session().project().rawBytes(former));
    ASSERT_TRUE(session().undo());
    EXPECT_EQ(piece(3).recording->file, former);
}

TEST_F(TypingTableOfAll, RowsArePastedByCodeAndWhatIsWrongWaitsAtItsRow)
{
    const int swing = column(QStringLiteral("swing"));
    m_grid->setCurrentIndex(m_grid->model()->index(0, swing));
    QApplication::clipboard()->setText(
        QStringLiteral("B2\t101.5\n%1\t99\nA3\tabc\n").arg(QString::fromStdString(piece(0).code).toLower()));
    m_app.key(Qt::Key_V, Qt::ControlModifier);
    ASSERT_TRUE(QTest::qWaitFor([&] { return recorded() == 2; }, test::kPatience_ms));
    EXPECT_TRUE(m_app.notice().contains(QStringLiteral("A3"))) << m_app.notice().toStdString();
    EXPECT_FALSE(piece(2).recording);
    EXPECT_EQ(m_grid->model()->index(2, swing).data().toString(), QStringLiteral("abc"))
        << "nothing typed is lost";
    EXPECT_TRUE(m_grid->model()->headerData(2, Qt::Vertical).toString().contains(QLatin1Char('!')));
    // Another page and back: it still waits.
    m_app.part(LogPart::Measure);
    m_app.part(LogPart::Type);
    EXPECT_EQ(m_grid->model()->index(2, swing).data().toString(), QStringLiteral("abc"));
    m_grid->setFocus();
    m_grid->setCurrentIndex(m_grid->model()->index(2, swing));
    m_app.typeKeys(QStringLiteral("98\n"));
    EXPECT_EQ(recorded(), 2U) << "Enter goes along: there may be more to type in this row";
    QTest::keyClick(m_grid, Qt::Key_Down);
    ASSERT_TRUE(QTest::qWaitFor([&] { return recorded() == 3; }, test::kPatience_ms))
        << "kept when it is left";
}

TEST_F(TypingTableOfAll, TheCardOfOnePieceIsAKeyAway)
{
    session().selectPiece(piece(4).id);
    EXPECT_EQ(m_grid->currentIndex().row(), 4);
    m_app.click("typingForm");
    EXPECT_TRUE(m_app.find<QWidget>("typingTable")->isVisible());
    EXPECT_TRUE(m_app.find<QLabel>("typingTitle")->text().startsWith(QString::fromStdString(piece(4).code)));
    m_app.click("typingForm");
    EXPECT_TRUE(m_grid->isVisible());
    QTest::keyClick(m_grid, Qt::Key_Down);
    EXPECT_EQ(session().selectedPiece(), piece(5).id);
}

TEST(TypingInAnEmptyStudy, SaysWhatIsMissingByKeysAlone)
{
    AppHarness app;
    ASSERT_TRUE(app.session().createProject(app.path(QStringLiteral("empty.inchpeg"))));
    app.key(Qt::Key_N, Qt::ControlModifier | Qt::ShiftModifier);
    QCoreApplication::processEvents();
    ASSERT_NE(app.session().study(), nullptr);
    ASSERT_TRUE(app.session().edit(QStringLiteral("test"),
                                   [](Study &study) { return setMethod(study, Method::Impact); }));
    app.part(LogPart::Type);
    EXPECT_TRUE(app.find<QLabel>("piecesHint")->text().contains(QStringLiteral("make the rails")))
        << app.find<QLabel>("piecesHint")->text().toStdString();
    EXPECT_FALSE(app.find<QWidget>("keepPieces")->isEnabled());
    app.typeKeys(QStringLiteral("120\n"));
    app.key(Qt::Key_Return, Qt::ControlModifier);
    app.key(Qt::Key_V, Qt::ControlModifier);
    EXPECT_TRUE(app.session().study()->pieces.empty()) << "nothing is typed into nowhere";
}

TEST_F(TypingTableOfAll, ReadingsOfOneKindStandBesideEachOther)
{
    ASSERT_TRUE(session().edit(QStringLiteral("test"), [](Study &study) {
        for (Piece &piece : study.pieces)
            piece.test = Method::Hardness;
        firstTest(study).method = Method::Hardness;
        firstTest(study).setup.settings = {};
        firstTest(study).setup.settings.words["scale"] = "D";
        return ok();
    }));
    m_app.part(LogPart::Measure);
    m_app.part(LogPart::Type);
    m_grid->setFocus();
    m_grid->setCurrentIndex(m_grid->model()->index(0, 1));
    m_app.typeKeys(QStringLiteral("72\n73\n71.5\n\n\n")); // three readings, the other two cells are gone past
    EXPECT_EQ(m_grid->currentIndex().row(), 1);
    ASSERT_TRUE(QTest::qWaitFor([&] { return recorded() == 1; }, test::kPatience_ms));
    const std::string text = *session().project().rawBytes(piece(0).recording->file);
    EXPECT_NE(text.find("\n72;"), std::string::npos) << text;
    EXPECT_NE(text.find("\n71.5;"), std::string::npos) << text;
    m_app.waitUntilRead();
    const Result<PieceReading> &read = *session().readings().at(piece(0).id);
    ASSERT_TRUE(read) << read.error().message << text;
    EXPECT_NEAR(test::readValue(read->result, "hardness"), 72.1667, 0.5);
    EXPECT_EQ(m_grid->model()->index(0, 3).data().toString(), QStringLiteral("71.5"));
}

TEST(SummaryOfARail, IsTypedInItsWindowAndComparedWithoutPegs)
{
    const auto app = AppHarness::onDemo();
    ProjectSession &session = app->session();
    ASSERT_TRUE(session.selectStudy(session.studies().front().id));
    app->waitUntilRead();
    ASSERT_TRUE(session.edit(QStringLiteral("a rail"), [&](Study &study) {
        Condition rail = study.conditions.front();
        rail.id = {};
        rail.levels.front() = "300";
        rail.material = study.conditions.front().material;
        return addCondition(study, rail, session.ids());
    }));
    app->window().showSummaries();
    QCoreApplication::processEvents();
    auto *rail = app->find<QComboBox>("summaryRail");
    EXPECT_EQ(rail->currentIndex(), rail->count() - 1) << "the rail that nothing is known of";
    EXPECT_EQ(QApplication::focusWidget(), app->find<QWidget>("summaryMean"));
    QTest::keyClicks(QApplication::focusWidget(), QStringLiteral("52.1 MPa"));
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
    EXPECT_TRUE(app->find<QLabel>("summaryTrouble")->text().contains(QStringLiteral("where it comes from")));
    app->find<QLineEdit>("summarySd")->setText(QStringLiteral("1.4"));
    app->find<QLineEdit>("summaryPieces")->setText(QStringLiteral("8"));
    app->find<QLineEdit>("summarySource")->setText(QStringLiteral("paper of 2024"));
    app->click("keepSummary");
    const Condition &told = session.study()->conditions.back();
    ASSERT_EQ(told.summaries.size(), 1U);
    EXPECT_EQ(told.summaries.front().mean, 52.1);
    EXPECT_EQ(told.summaries.front().pieces, 8);
    session.setLens(Lens::Compare);
    QCoreApplication::processEvents();
    const RackModel &rack = app->rack().model();
    EXPECT_TRUE(rack.rails.back().sentence.contains(QStringLiteral("From a summary: paper of 2024")))
        << rack.rails.back().sentence.toStdString();
    EXPECT_TRUE(rack.rails.back().interval);
    EXPECT_TRUE(rack.rails.back().subtitle.contains(QStringLiteral("summary of 8")));
    app->click("takeAwaySummary");
    EXPECT_TRUE(session.study()->conditions.back().summaries.empty());
    ASSERT_TRUE(session.undo());
    EXPECT_EQ(session.study()->conditions.back().summaries.size(), 1U);
}

} // namespace inchpeg::app
