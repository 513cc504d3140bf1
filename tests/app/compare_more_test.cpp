// SPDX-License-Identifier: GPL-3.0-or-later
// What Compare shows beside the rails' sentences: looks before all is broken, and the graph.
#include "app/app_harness.h"
#include "app/compare/graph_view.h"
#include "support/patience.h"

#include <QClipboard>
#include <QComboBox>
#include <QFile>
#include <QGuiApplication>
#include <QLabel>
#include <QPushButton>

#include <algorithm>
#include <set>

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
    void picture(const char *name)
    {
        if (const QString folder = qEnvironmentVariable("INCHPEG_WALK_PICTURES"); !folder.isEmpty()) {
            m_app->rack().finishSliding();
            m_app->window().grab().save(folder + QStringLiteral("/compare-%1.png").arg(QLatin1String(name)));
        }
    }
    bool waitForAnswer(const QString &part)
    {
        return QTest::qWaitFor([&] { return text("answers").contains(part); }, test::kPatience_ms);
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

/// Chooses what is drawn by its words, as a person would.
void chooseGraph(AppHarness &app, const QString &name)
{
    auto *kind = app.find<QComboBox>("graphKind");
    const int at = kind->findText(name);
    ASSERT_GE(at, 0) << name.toStdString();
    kind->setCurrentIndex(at);
    emit kind->activated(at);
}

TEST_F(CompareMore, TheGraphFollowsWhatIsShown)
{
    auto *view = m_app->find<GraphView>("graph");
    EXPECT_FALSE(view->isVisible());
    m_app->click("showGraph");
    QCoreApplication::processEvents();
    ASSERT_TRUE(view->isVisible());
    auto *kind = m_app->find<QComboBox>("graphKind");
    EXPECT_EQ(kind->currentText(), QStringLiteral("trend over the levels")) << "temperatures are in order";
    ASSERT_TRUE(view->presenter().graph().stretch) << "the values bend: where they turn is drawn";
    std::set<QString> sentences;
    for (int i = 0; i < kind->count(); ++i) {
        const QString name = kind->itemText(i);
        chooseGraph(*m_app, name);
        EXPECT_EQ(kind->currentText(), name);
        const Graph &graph = view->presenter().graph();
        EXPECT_FALSE(graph.sentence.empty()) << name.toStdString();
        EXPECT_EQ(m_app->find<QPushButton>("copyGraph")->isEnabled(), !graph.isEmpty());
        if (!graph.isEmpty())
            m_app->click("copyGraph");
        EXPECT_TRUE(graph.isEmpty() ||
                    QGuiApplication::clipboard()->text().contains(QStringLiteral("series\tdrawn as\tx")));
        sentences.insert(QString::fromStdString(graph.sentence));
    }
    EXPECT_GE(sentences.size(), 4U);
    // A click chooses a peg of the rail.
    chooseGraph(*m_app, QStringLiteral("against mass"));
    const Graph graph = view->presenter().graph();
    const auto third = std::find_if(graph.series.begin(), graph.series.end(), [&](const GraphSeries &series) {
        return series.points.front().rail == session().study()->conditions[2].id;
    });
    ASSERT_NE(third, graph.series.end());
    auto *plot = m_app->find<GraphPlot>("graphPlot");
    QTest::mouseClick(plot, Qt::LeftButton, {}, plot->placeOf(third->points.front()).toPoint());
    const Piece *chosen = findPiece(*session().study(), session().selectedPiece());
    ASSERT_NE(chosen, nullptr);
    EXPECT_EQ(chosen->condition, session().study()->conditions[2].id);
    // Another property, another axis, and the kind stays; the table of all responses has none.
    session().setComparedProperty(QStringLiteral("peak_force"));
    QCoreApplication::processEvents();
    EXPECT_EQ(view->presenter().graph().y.label, "Breaking force in N");
    EXPECT_EQ(kind->currentText(), QStringLiteral("against mass"));
    session().setResponseTableShown(true);
    QCoreApplication::processEvents();
    EXPECT_FALSE(view->isVisible());
    session().setResponseTableShown(false);
    m_app->click("showGraph");
    EXPECT_FALSE(view->isVisible());
}

TEST_F(CompareMore, TheGraphIsSavedAsAPictureAndAsItsData)
{
    m_app->click("showGraph");
    QCoreApplication::processEvents();
    for (const auto &[name, part] : {std::pair{"g.svg", "nozzle temperature in"},
                                     {"g.pdf", "%PDF"},
                                     {"g.png", "PNG"},
                                     {"g.tsv", "parabola\tline"}}) {
        m_app->prompts().answer = m_app->path(QLatin1String(name));
        m_app->key(Qt::Key_P, Qt::ControlModifier);
        EXPECT_EQ(m_app->notice(), QString());
        QFile file(m_app->prompts().answer);
        ASSERT_TRUE(file.open(QIODevice::ReadOnly)) << name;
        EXPECT_TRUE(file.readAll().contains(part)) << name;
    }
}

TEST_F(CompareMore, TheGraphOfAnEmptyStudySaysWhatIsWanted)
{
    ASSERT_TRUE(session().addStudy(QStringLiteral("Nothing yet?")));
    session().setLens(Lens::Compare);
    session().setGraphShown(true);
    QCoreApplication::processEvents();
    EXPECT_EQ(text("graphSentence"), QStringLiteral("Two rails with a result are wanted."));
}

// A response over one of another test, and a third beside them.
TEST_F(CompareMore, ThreeResponsesOfThreeTestsStandInOneGraph)
{
    ASSERT_TRUE(session().selectStudy(session().studies()[4].id));
    m_app->waitUntilRead();
    session().setLens(Lens::Compare);
    session().setResponseTableShown(false);
    m_app->click("showGraph");
    QCoreApplication::processEvents();
    auto *third = m_app->find<QComboBox>("graphThird");
    EXPECT_FALSE(third->isVisible()) << "only beside another response";
    chooseGraph(*m_app, QStringLiteral("against impact strength (impact)"));
    ASSERT_TRUE(third->isVisible());
    EXPECT_TRUE(text("graphSentence").contains(QStringLiteral("beaten in both")))
        << text("graphSentence").toStdString();
    m_app->choose("graphThird", QStringLiteral("and heat-deflection temperature (heat deflection)"));
    EXPECT_TRUE(text("graphSentence").contains(QStringLiteral("beaten in all three")))
        << text("graphSentence").toStdString();
    EXPECT_TRUE(
        text("graphSentence").contains(QStringLiteral("Beside each: Heat-deflection temperature in °C")));
    picture("three-responses");
    chooseGraph(*m_app, QStringLiteral("against mass"));
    EXPECT_FALSE(third->isVisible());
}

// Without the rails whose gauge was at its end the force rises up to 30 % and no more is shown beyond: what
// is open is where it begins to stay.
TEST_F(CompareMore, LevelsToTryNextAreOneClickAway)
{
    ASSERT_TRUE(session().selectStudy(session().studies()[6].id));
    m_app->waitUntilRead();
    ASSERT_TRUE(session().edit(QStringLiteral("not yet tested"), [](Study &study) {
        for (Piece &piece : study.pieces) {
            if (std::stod(findCondition(study, piece.condition)->levels.front()) >= 60.0)
                piece.recording.reset();
        }
        return ok();
    }));
    m_app->waitUntilRead();
    session().setLens(Lens::Compare);
    session().setResponseTableShown(false);
    ASSERT_TRUE(waitForAnswer(QStringLiteral("To find the best infill more closely, try ")))
        << text("answers").toStdString();
    picture("next-levels");
    const Study like = *session().study();
    m_app->click("planNext");
    EXPECT_EQ(session().lens(), Lens::Plan);
    const Study &planned = *session().study();
    EXPECT_NE(planned.id, like.id);
    EXPECT_EQ(planned.question, "Which infill is best, more closely?");
    EXPECT_GE(planned.conditions.size(), 2U);
    EXPECT_EQ(findCondition(planned, planned.reference)->levels.front(), "30");
    EXPECT_EQ(methodOf(planned), Method::Puncture);
}

// The head keeps to a part of the window, cuts no line in two, and says how much more there is; one click
// shows it.
TEST_F(CompareMore, TheHeadLeavesTheRailsTheirPlaceAndShowsAllWhenAsked)
{
    m_app->window().resize(1024, 700);
    ASSERT_TRUE(waitForAnswer(QStringLiteral("best may be")));
    QWidget *words = m_app->find<QWidget>("compareWords");
    auto *more = m_app->find<QPushButton>("moreWords");
    ASSERT_TRUE(
        QTest::qWaitFor([&] { return more->text().contains(QStringLiteral("answer")); }, test::kPatience_ms));
    EXPECT_TRUE(more->isVisible());
    const int cautions = static_cast<int>(text("resultCautions").count(QLatin1Char('\n'))) + 1;
    EXPECT_TRUE(more->text().startsWith(QStringLiteral("%1 cautions, ").arg(cautions)))
        << more->text().toStdString();
    EXPECT_LE(words->height(), 700 / 5);
    // The lower edge lies between two lines of whichever label it crosses.
    for (const char *name : {"headline", "resultCautions", "answers"}) {
        const QLabel *label = m_app->find<QLabel>(name);
        const int inside = words->height() - label->mapTo(words, QPoint(0, 0)).y();
        if (inside > 0 && inside < label->height()) {
            EXPECT_EQ(inside % label->fontMetrics().lineSpacing(), 0) << name;
        }
    }
    more->click();
    const QWidget *strip = m_app->find<QWidget>("compareStrip");
    ASSERT_TRUE(QTest::qWaitFor(
        [&] { return words->height() > 700 / 5 && strip->height() > words->height(); }, test::kPatience_ms));
    const QWidget *answers = m_app->find<QWidget>("answers");
    EXPECT_GE(words->height(), answers->mapTo(words, QPoint(0, answers->height())).y()) << "all is there";
    picture("all-words");
    more->click();
    QCoreApplication::processEvents();
    EXPECT_LE(words->height(), 700 / 5);
}

} // namespace inchpeg::app
