// SPDX-License-Identifier: GPL-3.0-or-later
// Readings typed by eye, in the real window.
#include "app/log/typing_page.h"
#include "app_harness.h"
#include "support/read_value.h"

#include <QClipboard>
#include <QLabel>
#include <QPushButton>

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

    void typeKeys(const QString &keys)
    {
        for (const QChar key : keys) {
            if (key == QLatin1Char('\n'))
                m_app.key(Qt::Key_Return);
            else
                QTest::keyClicks(QApplication::focusWidget(), QString(key));
            QCoreApplication::processEvents();
        }
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
        typeKeys(QString::fromUtf8(peak) + QLatin1Char('\n'));
        keep(); // and on to the next piece
    }
    EXPECT_NEAR(test::readValue(reading(0), "peak_force"), 23.4 * 9.80665, 1e-9);
    EXPECT_NEAR(test::readValue(reading(2), "tensile_strength"), 24.1 * 9.80665 / 40.0, 1e-9);
    EXPECT_EQ(session().lens(), Lens::Log);
}

TEST_F(Typing, SwingsAreTypedWithTheirKindOfBreak)
{
    plan(Method::Impact, 2);
    typeKeys(QStringLiteral("120\n8\nc\n"));
    keep();
    EXPECT_EQ(reading(0).kind, "complete break");
    EXPECT_GT(test::readValue(reading(0), "impact_strength"), 0.0);
    EXPECT_EQ(session().selectedPiece(), piece(1).id);
    typeKeys(QStringLiteral("95\n\nq\n"));
    keep();
    EXPECT_TRUE(m_app.notice().contains(QStringLiteral("C or H or P or N"))) << m_app.notice().toStdString();
    EXPECT_FALSE(piece(1).recording) << "a refusal keeps what is typed, and takes nothing";
}

TEST_F(Typing, ACreepRunIsGoneOnWithAndEarlierRowsStay)
{
    plan(Method::Creep, 1);
    typeKeys(QStringLiteral("0\n1.00\n\n\n\n24\n1.20\n\n\n\n"));
    keep();
    ASSERT_TRUE(piece(0).recording);
    const RawFileId first = piece(0).recording->file;
    EXPECT_GT(test::readValue(reading(0), "growth"), 1.1);
    m_app.find<QWidget>("typingTable")->setFocus();
    typeKeys(QStringLiteral("48\n1.26\n\n\n\n"));
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
    typeKeys(QStringLiteral("120\n8\nc\n"));
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

} // namespace inchpeg::app
