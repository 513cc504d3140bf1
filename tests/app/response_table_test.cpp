// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/app_harness.h"
#include "app/compare/response_table.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>

#include <set>

namespace inchpeg::app
{

namespace
{

/// The demo's study of several tests, being compared.
class ResponseTableTest : public testing::Test
{
protected:
    std::unique_ptr<AppHarness> m_app = AppHarness::onDemo();

    void SetUp() override
    {
        for (const StudyHeader &header : session().studies()) {
            ASSERT_TRUE(session().selectStudy(header.id));
            if (session().study()->tests.size() > 1)
                break;
        }
        m_app->waitUntilRead();
        session().setLens(Lens::Compare);
        QCoreApplication::processEvents();
    }
    ProjectSession &session() { return m_app->session(); }
    ResponseTable &table() { return *m_app->find<ResponseTable>("responseTable"); }
    QString headline() { return m_app->find<QLabel>("headline")->text(); }
    QLabel *label(const char *name) { return m_app->find<QLabel>(name); }
};

} // namespace

TEST_F(ResponseTableTest, AStudyOfSeveralTestsOpensWithAllOfThem)
{
    ASSERT_TRUE(table().isVisible());
    EXPECT_FALSE(m_app->rack().isVisible());
    std::set<Method> tests;
    for (const ResponseColumn &column : table().columns())
        tests.insert(column.response.test);
    EXPECT_EQ(tests.size(), session().study()->tests.size());
    EXPECT_TRUE(headline().startsWith(QStringLiteral("Against glycol polyester: ")))
        << headline().toStdString();

    // What a cell says is what the large scale says.
    const ResponseColumn &column = table().columns().at(1);
    const std::string sentence = column.cells.at(1).verdict.sentence;
    const QRectF cell = table().cellRect(1, 1);
    QTest::mouseClick(table().viewport(), Qt::LeftButton, {}, cell.center().toPoint());
    QCoreApplication::processEvents();
    EXPECT_FALSE(table().isVisible());
    EXPECT_TRUE(m_app->rack().isVisible());
    EXPECT_EQ(session().comparedProperty(), QStringLiteral("flexural_modulus"));
    EXPECT_EQ(m_app->rack().model().rails.at(1).sentence.toStdString(), sentence);
    m_app->click("showResponses");
    EXPECT_TRUE(table().isVisible());
}

TEST_F(ResponseTableTest, CellsAreWalkedAndOpenedByTheKeyboard)
{
    table().setFocus();
    for (const int key : {Qt::Key_Right, Qt::Key_Right, Qt::Key_Down, Qt::Key_Left, Qt::Key_Right})
        QTest::keyClick(&table(), static_cast<Qt::Key>(key));
    EXPECT_TRUE(table().accessibleDescription().contains(QStringLiteral("impact: Impact strength")))
        << table().accessibleDescription().toStdString();
    for (int i = 0; i < 20; ++i)
        QTest::keyClick(&table(), Qt::Key_Left);
    for (int i = 0; i < 20; ++i)
        QTest::keyClick(&table(), Qt::Key_Up);
    EXPECT_TRUE(table().accessibleDescription().startsWith(QStringLiteral("glycol polyester, bending")));
    for (int i = 0; i < 20; ++i)
        QTest::keyClick(&table(), Qt::Key_Right);
    QTest::keyClick(&table(), Qt::Key_Return);
    QCoreApplication::processEvents();
    EXPECT_EQ(session().shownTest(), Method::Shrinkage);
    EXPECT_TRUE(m_app->rack().isVisible());
    EXPECT_TRUE(m_app->rack().hasFocus()) << "the keyboard goes on with what became large";
}

TEST_F(ResponseTableTest, StaysAsItWasChosenWhenTheProgramOpensAgain)
{
    m_app->click("showResponses");
    EXPECT_FALSE(session().isResponseTableShown());
    const QString path = session().projectPath();
    m_app->restart();
    ASSERT_TRUE(session().openProject(path));
    m_app->waitUntilRead();
    EXPECT_FALSE(session().isResponseTableShown());
    EXPECT_TRUE(m_app->rack().isVisible());
}

TEST_F(ResponseTableTest, AStudyOfOneTestOffersAllItsProperties)
{
    ASSERT_TRUE(session().selectStudy(session().studies().front().id));
    m_app->waitUntilRead();
    QCoreApplication::processEvents();
    EXPECT_TRUE(m_app->rack().isVisible()) << "it opens with the large scale";
    m_app->click("showResponses");
    EXPECT_TRUE(table().isVisible());
    EXPECT_EQ(table().columns().size(), factsOf(firstTest(*session().study()).method).properties.size());
    const QString picture = m_app->path(QStringLiteral("responses.png"));
    m_app->prompts().answer = picture;
    m_app->window().activateWindow();
    QTest::keyClick(&m_app->window(), Qt::Key_P, Qt::ControlModifier);
    QCoreApplication::processEvents();
    EXPECT_GT(QImage(picture).width(), 400);
}

// Random clicks found a table of a study that had gone: what is drawn is all of one moment.
TEST_F(ResponseTableTest, OutlivesItsStudyBeingAnotherOne)
{
    ASSERT_TRUE(table().isVisible());
    ASSERT_TRUE(session().addStudy(QStringLiteral("Nothing here yet?")));
    session().setLens(Lens::Compare);
    session().setResponseTableShown(true);
    table().grab();
    EXPECT_EQ(table().columns().size(), 5U) << "tension, without rails";
    table().setFocus();
    QTest::keyClick(&table(), Qt::Key_Return);
    QTest::mouseClick(table().viewport(), Qt::LeftButton, {}, QPoint(400, 200));
    for (const StudyHeader &header : session().studies()) {
        ASSERT_TRUE(session().selectStudy(header.id));
        session().setLens(Lens::Compare);
        session().setResponseTableShown(true);
        table().grab();
        if (session().study()->conditions.empty())
            continue;
        ASSERT_TRUE(session().edit(QStringLiteral("one rail less"), [](Study &study) -> Status {
            study.conditions.pop_back();
            std::erase_if(study.pieces, [&](const Piece &piece) {
                return findCondition(study, piece.condition) == nullptr;
            });
            return ok();
        }));
        m_app->window().resize(1100, 700);
        m_app->window().grab();
        ASSERT_TRUE(session().undo());
        m_app->window().grab();
    }
}

} // namespace inchpeg::app
