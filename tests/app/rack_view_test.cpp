// SPDX-License-Identifier: GPL-3.0-or-later
// The rack in the real window: keys and mouse along rails and pegs, the same piece in every lens.
#include "app/app_harness.h"
#include "core/model/study_edit.h"
#include "support/read_value.h"

#include <QHelpEvent>
#include <QScrollBar>
#include <QSignalSpy>
#include <QToolTip>

namespace inchpeg::app
{

namespace
{

class Rack : public testing::Test
{
protected:
    std::unique_ptr<AppHarness> m_app = AppHarness::onDemo();

    void SetUp() override
    {
        ASSERT_TRUE(session().selectStudy(session().studies().front().id));
        m_app->waitUntilRead();
        session().setLens(Lens::Read);
        session().selectPiece(pieces().front().id);
        rack().setFocus();
    }
    ProjectSession &session() { return m_app->session(); }
    RackView &rack() { return m_app->rack(); }
    const std::vector<Piece> &pieces() { return session().study()->pieces; }
    std::string selected() { return findPiece(*session().study(), session().selectedPiece())->code; }
    void press(int key, int times = 1)
    {
        for (int i = 0; i < times; ++i)
            QTest::keyClick(&rack(), static_cast<Qt::Key>(key));
        QCoreApplication::processEvents();
    }
    QString tipAt(QPointF at)
    {
        QHelpEvent help(QEvent::ToolTip, at.toPoint(), rack().viewport()->mapToGlobal(at.toPoint()));
        QCoreApplication::sendEvent(rack().viewport(), &help);
        return QToolTip::text();
    }
};

} // namespace

TEST_F(Rack, ArrowsGoAlongPegsAndRailsAndStopAtTheEnds)
{
    press(Qt::Key_Left);
    EXPECT_EQ(selected(), "A1");
    press(Qt::Key_Right, 2);
    EXPECT_EQ(selected(), "A3");
    press(Qt::Key_Right, 20);
    EXPECT_EQ(selected(), "A6");
    press(Qt::Key_Up);
    EXPECT_EQ(selected(), "A6");
    press(Qt::Key_Down);
    EXPECT_EQ(selected(), "B6") << "the same place on the next rail";
    press(Qt::Key_Down, 20);
    EXPECT_EQ(selected(), "E6");
}

TEST_F(Rack, TheSamePegIsTheSamePieceInEveryLens)
{
    const PieceId piece = pieces()[8].id;
    QTest::mouseClick(rack().viewport(), Qt::LeftButton, {}, rack().pegPosition(piece)->toPoint());
    for (const Lens lens : {Lens::Plan, Lens::Log, Lens::Read, Lens::Compare}) {
        session().setLens(lens);
        rack().finishSliding();
        EXPECT_EQ(session().selectedPiece(), piece);
        const PieceId other = pieces()[9].id;
        ASSERT_TRUE(rack().pegPosition(other));
        QTest::mouseClick(rack().viewport(), Qt::LeftButton, {}, rack().pegPosition(piece)->toPoint());
        EXPECT_EQ(session().selectedPiece(), piece) << "a click where it stands in this lens";
    }
}

TEST_F(Rack, PegsStandInTheOrderOfTheirValues)
{
    session().setLens(Lens::Compare);
    rack().finishSliding();
    for (const Condition &condition : session().study()->conditions) {
        std::vector<std::pair<double, double>> places; // value, x
        for (const Piece *piece : piecesOf(*session().study(), condition.id)) {
            const PieceReading *reading = readingOf(session().readings(), piece->id);
            if (reading != nullptr && valueOf(reading->result.values, "tensile_strength") != nullptr &&
                !piece->exclusion)
                places.emplace_back(test::readValue(reading->result, "tensile_strength"),
                                    rack().pegPosition(piece->id)->x());
        }
        ASSERT_GT(places.size(), 3U);
        std::sort(places.begin(), places.end());
        for (std::size_t i = 1; i < places.size(); ++i)
            EXPECT_GE(places[i].second, places[i - 1].second) << places[i].first;
    }
}

TEST_F(Rack, ALabelHidesItsCurvesWhileReading)
{
    const ConditionId rail = session().study()->conditions[1].id;
    EXPECT_TRUE(session().isRailShown(rail));
    // Labels stand left of the pegs.
    const QPointF label(30.0, rack().pegPosition(pieces()[6].id)->y());
    QTest::mouseClick(rack().viewport(), Qt::LeftButton, {}, label.toPoint());
    EXPECT_FALSE(session().isRailShown(rail));
    session().selectPiece(pieces()[6].id);
    press(Qt::Key_H);
    EXPECT_TRUE(session().isRailShown(rail));
    session().setLens(Lens::Compare);
    rack().finishSliding();
    press(Qt::Key_H);
    EXPECT_TRUE(session().isRailShown(rail)) << "only curves are hidden";
}

TEST_F(Rack, EnterAndADoubleClickOpenAPiece)
{
    QSignalSpy opened(&rack(), &RackView::opened);
    press(Qt::Key_Return);
    ASSERT_EQ(opened.count(), 1);
    EXPECT_EQ(opened.takeFirst().front().value<PieceId>(), pieces().front().id);
    session().setLens(Lens::Read);
    const PieceId other = pieces()[3].id;
    QTest::mouseDClick(rack().viewport(), Qt::LeftButton, {}, rack().pegPosition(other)->toPoint());
    ASSERT_EQ(opened.count(), 1);
    EXPECT_EQ(opened.takeFirst().front().value<PieceId>(), other);
}

TEST_F(Rack, TipsTellWhatAPegAndASentenceSay)
{
    const QString peg = tipAt(*rack().pegPosition(pieces()[0].id));
    EXPECT_TRUE(peg.startsWith(QStringLiteral("A1: read"))) << peg.toStdString();
    session().setLens(Lens::Compare);
    rack().finishSliding();
    const QString scale = tipAt(QPointF(rack().viewport()->width() * 0.5, 6.0));
    EXPECT_TRUE(scale.contains(QStringLiteral("MPa"))) << scale.toStdString();
    const QPointF right(rack().viewport()->width() - 30.0, rack().pegPosition(pieces()[8].id)->y());
    EXPECT_TRUE(tipAt(right).contains(QStringLiteral("than 230 °C"))) << tipAt(right).toStdString();
}

TEST_F(Rack, IsDescribedForThoseWhoCannotSeeIt)
{
    session().selectPiece(pieces()[9].id);
    const QString words = rack().accessibleDescription();
    EXPECT_TRUE(words.contains(QStringLiteral("Rail 240 °C"))) << words.toStdString();
    EXPECT_TRUE(words.contains(QStringLiteral("B4: left out"))) << words.toStdString();
}

TEST_F(Rack, ThePieceThatIsSelectedIsBroughtIntoSight)
{
    ASSERT_TRUE(session().edit(QStringLiteral("many rails"), [&](Study &study) -> Status {
        for (int i = 0; i < 30; ++i) {
            const Status added = addCondition(
                study, {{}, {std::to_string(300 + i)}, Orientation::Flat, "polyester"}, session().ids());
            if (!added)
                return added;
        }
        return ok();
    }));
    EXPECT_GT(rack().verticalScrollBar()->maximum(), 0);
    session().selectPiece(pieces().back().id);
    QCoreApplication::processEvents();
    const QRect sight = rack().viewport()->rect();
    EXPECT_TRUE(sight.contains(rack().pegPosition(pieces().back().id)->toPoint()));
    session().selectPiece(pieces().front().id);
    QCoreApplication::processEvents();
    EXPECT_TRUE(sight.contains(rack().pegPosition(pieces().front().id)->toPoint()));
}

} // namespace inchpeg::app
