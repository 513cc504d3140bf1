// SPDX-License-Identifier: GPL-3.0-or-later
// Choosing in the real window on the demo: a holder of two shafts, a latch outdoors, a part that nobody
// passes; each ends in an order with its reasons, and changes as it should.
#include "app/app_harness.h"
#include "app/decide/decide_view.h"
#include "app/decide/gate_board.h"
#include "app/decide/offered_needs.h"
#include "app/plan/plan_view.h"
#include "core/planning/plan_edit.h"
#include "support/patience.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

namespace inchpeg::app
{

namespace
{

class DecideLens : public testing::Test
{
protected:
    std::unique_ptr<AppHarness> m_app = AppHarness::onDemo();

    void SetUp() override
    {
        ASSERT_TRUE(session().selectStudy(session().studies()[4].id)); // the battery
        m_app->waitUntilRead();
        m_app->rack().setFocus();
        m_app->key(Qt::Key_6, Qt::ControlModifier);
        ASSERT_EQ(session().lens(), Lens::Decide);
    }

    ProjectSession &session() { return m_app->session(); }
    DecidePresenter &decide() { return m_app->window().decide(); }
    QString text(const char *label) { return m_app->find<QLabel>(label)->text(); }

    void waitForOrder()
    {
        QCoreApplication::processEvents();
        ASSERT_TRUE(QTest::qWaitFor([this] { return !decide().isWorking(); }, test::kPatience_ms));
        QCoreApplication::processEvents();
    }
    void begin(const char *part)
    {
        m_app->choose("decideTemplate", QString::fromUtf8(part));
        waitForOrder();
    }
    std::string first() { return decide().decision().order.front().candidate.name; }
    std::size_t needOf(NeedKind kind)
    {
        const std::vector<Need> &needs = decide().needs().needs;
        return static_cast<std::size_t>(
            std::find_if(needs.begin(), needs.end(), [kind](const Need &one) { return one.kind == kind; }) -
            needs.begin());
    }
    void type(const char *field, NeedKind kind, const char *value)
    {
        m_app->type(qPrintable(QString::fromLatin1(field) + QString::number(needOf(kind))),
                    QString::fromUtf8(value));
        waitForOrder();
    }
    void picture(const char *name)
    {
        if (const QString folder = qEnvironmentVariable("INCHPEG_WALK_PICTURES"); !folder.isEmpty()) {
            QTest::qWait(150); // until what was told is laid out
            m_app->window().grab().save(folder + QStringLiteral("/decide-") + QLatin1String(name) +
                                        QStringLiteral(".png"));
        }
    }
};

} // namespace

TEST_F(DecideLens, AHolderOfTwoShaftsAtAnExactDistanceInAWarmPlace)
{
    EXPECT_TRUE(text("decideHeadline").contains(QStringLiteral("What does the part have to do")));
    picture("empty");
    begin("holder with an exact distance");
    type("needLimit", NeedKind::Heat, "65 °C");
    type("needLimit", NeedKind::Creep, "2 %");
    type("needHours", NeedKind::Creep, "500 h");
    EXPECT_EQ(decide().needs().needs[needOf(NeedKind::Creep)].after_h, 500.0);
    // Typed along the row: the rows are made anew, the keyboard stays on its way, and a digit is no lens.
    m_app->window().activateWindow();
    QCoreApplication::processEvents();
    QWidget *limit = m_app->find<QWidget>("needLimit2");
    limit->setFocus();
    ASSERT_EQ(QApplication::focusWidget(), limit);
    m_app->key(Qt::Key_A, Qt::ControlModifier);
    for (const char *digits = "65"; *digits != '\0'; ++digits)
        QTest::keyClick(QApplication::focusWidget(), *digits);
    m_app->key(Qt::Key_Tab);
    waitForOrder();
    ASSERT_NE(QApplication::focusWidget(), nullptr);
    EXPECT_EQ(QApplication::focusWidget()->objectName(), QStringLiteral("needLoad2"));
    EXPECT_EQ(session().lens(), Lens::Decide);
    type("needHours", NeedKind::Creep, "1000");
    ASSERT_EQ(decide().decision().order.size(), 4U) << "the rails of the study on the rack";
    EXPECT_EQ(first(), "glycol-modified polyester");
    EXPECT_TRUE(
        text("decideHeadline").startsWith(QStringLiteral("glycol-modified polyester passes every must.")))
        << text("decideHeadline").toStdString() << decide().decision().order.front().why;
    picture("holder");
    // Low-heat polyester sags, the others shrink: each is told its reason.
    for (const RankedCandidate &ranked : decide().decision().order) {
        if (ranked.candidate.name == "styrenic" || ranked.candidate.name == "polyamide") {
            EXPECT_NE(ranked.why.find("Shrinkage"), std::string::npos) << ranked.why;
        }
        if (ranked.candidate.name == "low-heat polyester") {
            EXPECT_NE(ranked.why.find("by 2.4 K"), std::string::npos) << ranked.why;
        }
    }
    // A need changes: where it is cooler, and nothing but the price is a wish, the cheaper one comes first.
    type("needLimit", NeedKind::Heat, "50");
    EXPECT_EQ(decide().decision().order[1].fails, 0) << "low-heat polyester passes now too";
    ASSERT_TRUE(session().undo());
    waitForOrder();
    EXPECT_GT(decide().decision().order[1].fails, 0);
    // A result changes: a piece that was left out counts no more.
    const auto before = *decide().decision().order[0].gates[needOf(NeedKind::Distance)].evidence.value;
    ASSERT_TRUE(session().edit(QStringLiteral("leave out"), [](Study &study) {
        for (Piece &piece : study.pieces) {
            if (piece.test == Method::Shrinkage &&
                findCondition(study, piece.condition)->levels.front() == "glycol polyester") {
                piece.exclusion = Exclusion{"bent callipers", "me", "now"};
                break;
            }
        }
        return ok();
    }));
    m_app->waitUntilRead();
    waitForOrder();
    const Gate &gate = decide().decision().order[0].gates[needOf(NeedKind::Distance)];
    EXPECT_NE(*gate.evidence.value, before);
    EXPECT_EQ(gate.state, GateState::Unknown) << "one piece is no ground for a must: " << gate.why;
    EXPECT_TRUE(text("decideHeadline").startsWith(QStringLiteral("Nobody surely passes")))
        << text("decideHeadline").toStdString();
    // What would settle it becomes a study of its own.
    ASSERT_FALSE(decide().decision().settle.empty());
    const std::size_t studies = session().studies().size();
    m_app->click("settle0");
    EXPECT_EQ(session().studies().size(), studies + 1);
    EXPECT_EQ(session().lens(), Lens::Plan);
    EXPECT_EQ(methodOf(*session().study()), Method::Shrinkage);
    EXPECT_EQ(session().study()->conditions.size(), 1U);
    EXPECT_GE(firstTest(*session().study()).piecesPerCondition, 3);
}

TEST_F(DecideLens, ALatchOutdoorsAmongAllStudies)
{
    begin("outdoor bracket");
    m_app->choose("decideScope", QStringLiteral("rails of all studies"));
    waitForOrder();
    EXPECT_GT(decide().decision().order.size(), 20U);
    picture("outdoor");
    // One that is bought, by its price alone, and a material that nobody has printed yet.
    const std::size_t printed = decide().decision().order.size();
    m_app->type("decideAddCandidate", QStringLiteral("bought bracket, 4.20"));
    m_app->type("decideAddCandidate", QStringLiteral("weather-proof styrenic"));
    waitForOrder();
    EXPECT_EQ(decide().decision().order.size(), printed + 2);
    const auto bought =
        std::find_if(decide().decision().order.begin(), decide().decision().order.end(),
                     [](const RankedCandidate &one) { return one.candidate.name == "bought bracket"; });
    ASSERT_NE(bought, decide().decision().order.end());
    EXPECT_EQ(bought->gates[needOf(NeedKind::Weather)].evidence.kind, EvidenceKind::None);
    decide().removeCandidate(QStringLiteral("bought bracket"));
    waitForOrder();
    EXPECT_EQ(decide().decision().order.size(), printed + 1);
    // Weather is known by custom alone, and is said to be so.
    const Gate &weather = decide().decision().order.front().gates[needOf(NeedKind::Weather)];
    EXPECT_EQ(weather.evidence.kind, EvidenceKind::Usual);
    // With arrows along the rails; a digit is a value, Ctrl with it a lens.
    auto *board = m_app->find<QWidget>("gateBoard");
    board->setFocus();
    QTest::keyClick(board, Qt::Key_Down);
    EXPECT_EQ(decide().chosen(), 1U);
    EXPECT_EQ(text("decideChosen").toStdString(), decide().decision().order[1].candidate.name);
    EXPECT_TRUE(text("decideReasons").contains(QStringLiteral("stands weather")));
    QTest::keyClick(board, Qt::Key_5);
    EXPECT_EQ(session().lens(), Lens::Decide) << "a digit is a value, never a lens";
    m_app->click("lens5");
    EXPECT_EQ(session().lens(), Lens::Compare);
}

TEST_F(DecideLens, APartThatNobodyPasses)
{
    begin("jig near heat");
    type("needLimit", NeedKind::Heat, "250 °C");
    EXPECT_TRUE(text("decideHeadline").startsWith(QStringLiteral("Nobody passes every must. Nearest is")))
        << text("decideHeadline").toStdString();
    EXPECT_TRUE(text("decideSentences").contains(QStringLiteral("would pass if")))
        << text("decideSentences").toStdString();
    picture("nobody");
    EXPECT_FALSE(decide().setLimit(0, QStringLiteral("warm")));
    EXPECT_FALSE(m_app->notice().isEmpty());
}

TEST_F(DecideLens, NeedsAreKeptWithTheProjectAndEveryKindCanBeAdded)
{
    for (const NeedKind kind : offeredNeeds())
        m_app->choose("decideAdd", needWords(kind));
    waitForOrder();
    ASSERT_EQ(decide().needs().needs.size(), offeredNeeds().size());
    m_app->type("decidePart", QStringLiteral("entrance reducer"));
    picture("all-kinds");
    EXPECT_TRUE(text("decideSentences").contains(QStringLiteral("local codes")));
    const Needs kept = decide().needs();
    const QString path = session().projectPath();
    session().closeProject();
    ASSERT_TRUE(session().openProject(path));
    ASSERT_TRUE(session().selectStudy(session().studies()[4].id));
    session().setLens(Lens::Decide);
    waitForOrder();
    ASSERT_EQ(decide().needs().needs.size(), kept.needs.size());
    EXPECT_EQ(decide().needs().part, "entrance reducer");
    m_app->click("needRemove0");
    waitForOrder();
    EXPECT_EQ(decide().needs().needs.size(), kept.needs.size() - 1);
}

// A stranger on an empty project: nothing to choose from is said, and nothing falls over.
TEST(DecideEmpty, AnEmptyProjectSaysThatNothingIsThere)
{
    AppHarness app;
    app.prompts().answer = app.path(QStringLiteral("empty.inchpeg"));
    app.click("welcomeNew");
    app.rack().setFocus();
    app.session().setLens(Lens::Decide);
    QCoreApplication::processEvents();
    app.choose("decideTemplate", QStringLiteral("clip"));
    ASSERT_TRUE(QTest::qWaitFor([&] { return !app.window().decide().isWorking(); }, test::kPatience_ms));
    QCoreApplication::processEvents();
    EXPECT_TRUE(app.find<QLabel>("decideHeadline")->text().startsWith(QStringLiteral("No candidate")))
        << app.find<QLabel>("decideHeadline")->text().toStdString();
    EXPECT_EQ(app.find<QLabel>("decideReasons")->text(), QString());
}

} // namespace inchpeg::app
