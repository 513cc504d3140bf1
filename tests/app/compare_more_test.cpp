// SPDX-License-Identifier: GPL-3.0-or-later
// What Compare shows beside the rails' sentences: looks before all is broken, and the response against its
// cost.
#include "app/app_harness.h"
#include "app/compare/trade_off_view.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>

namespace inchpeg::app
{

namespace
{

/// The demo's first study, being compared.
class CompareMore : public testing::Test
{
protected:
    std::unique_ptr<AppHarness> m_app = AppHarness::onDemo();

    void SetUp() override
    {
        ASSERT_TRUE(session().selectStudy(session().studies().front().id));
        m_app->waitUntilRead();
        session().setLens(Lens::Compare);
        QCoreApplication::processEvents();
    }
    ProjectSession &session() { return m_app->session(); }
    QString text(const char *label) { return m_app->find<QLabel>(label)->text(); }
    bool waitForAnswer(const QString &part)
    {
        return QTest::qWaitFor([&] { return text("answers").contains(part); }, 5000);
    }
};

} // namespace

TEST_F(CompareMore, LooksAreChosenInThePlanAndToldInCompare)
{
    // Half of the pieces are still whole.
    ASSERT_TRUE(session().edit(QStringLiteral("half"), [](Study &study) {
        std::map<ConditionId, int> seen;
        for (Piece &piece : study.pieces) {
            if (++seen[piece.condition] > 3)
                piece.recording.reset();
        }
        return ok();
    }));
    m_app->waitUntilRead();
    EXPECT_FALSE(text("answers").contains(QStringLiteral("ettled")));
    session().setLens(Lens::Plan);
    m_app->step(PlanStep::Pieces);
    auto *looks = m_app->find<QComboBox>("looks");
    looks->setCurrentIndex(2);
    emit looks->activated(2);
    ASSERT_EQ(session().study()->plan.aim.looks, Spending::Pocock);
    session().setLens(Lens::Compare);
    m_app->waitUntilRead();
    EXPECT_TRUE(waitForAnswer(QStringLiteral("ettled after 3 of 6 pieces a rail")))
        << text("answers").toStdString();
    m_app->click("showTests");
    EXPECT_TRUE(text("procedure").contains(QStringLiteral("with 3 of 6 a rail")))
        << text("procedure").toStdString();
    ASSERT_TRUE(session().undo());
    ASSERT_TRUE(session().undo());
    m_app->waitUntilRead();
    EXPECT_FALSE(session().study()->plan.aim.looks);
}

TEST_F(CompareMore, TheTradeOffFollowsWhatIsShown)
{
    auto *view = m_app->find<TradeOffView>("tradeOff");
    EXPECT_FALSE(view->isVisible());
    m_app->click("showTradeOff");
    QCoreApplication::processEvents();
    ASSERT_TRUE(view->isVisible());
    const auto &points = view->presenter().points();
    ASSERT_EQ(points.size(), 4U) << "the flat rail answers another question";
    EXPECT_FALSE(text("tradeOffSentence").isEmpty());
    auto *kind = m_app->find<QComboBox>("tradeOffCost");
    for (int i = 0; i < kind->count(); ++i) {
        kind->setCurrentIndex(i);
        emit kind->activated(i);
        EXPECT_FALSE(view->presenter().costLabel().isEmpty());
        for (const TradeOffPresenter::Point &point : points)
            EXPECT_GT(point.point.cost, 0.0) << point.words.toStdString();
    }
    // A click chooses a peg of the rail.
    auto *plot = m_app->find<TradeOffPlot>("tradeOffPlot");
    QTest::mouseClick(plot, Qt::LeftButton, {}, plot->placeOf(2).toPoint());
    const Piece *chosen = findPiece(*session().study(), session().selectedPiece());
    ASSERT_NE(chosen, nullptr);
    EXPECT_EQ(chosen->condition, points[2].point.condition);
    // Another property, another axis; the table of all responses has none.
    session().setComparedProperty(QStringLiteral("peak_force"));
    QCoreApplication::processEvents();
    EXPECT_EQ(view->presenter().valueLabel(), QStringLiteral("Breaking force in N"));
    session().setResponseTableShown(true);
    QCoreApplication::processEvents();
    EXPECT_FALSE(view->isVisible());
    session().setResponseTableShown(false);
    m_app->click("showTradeOff");
    EXPECT_FALSE(view->isVisible());
}

TEST_F(CompareMore, TheTradeOffOfAnEmptyStudySaysWhatIsWanted)
{
    ASSERT_TRUE(session().addStudy(QStringLiteral("Nothing yet?")));
    session().setLens(Lens::Compare);
    session().setTradeOffShown(true);
    QCoreApplication::processEvents();
    EXPECT_EQ(text("tradeOffSentence"), QStringLiteral("Two rails with a result are wanted."));
}

} // namespace inchpeg::app
