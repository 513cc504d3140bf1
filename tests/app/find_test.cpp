// SPDX-License-Identifier: GPL-3.0-or-later
// Finding things again.
#include "app/find/find_box.h"
#include "app/log_bench.h"
#include "core/planning/lab_code.h"
#include "support/patience.h"

#include <QDialog>
#include <QLineEdit>
#include <QListWidget>

namespace inchpeg::app
{

TEST(Find, GoesToStudiesPiecesNotesAndLabels)
{
    const auto app = AppHarness::onDemo();
    const auto found = [&](const QString &words) {
        auto *box = app->find<FindBox>("findBox");
        box->setFocus();
        box->selectAll();
        QTest::keyClicks(box, words);
        EXPECT_TRUE(QTest::qWaitFor([&] { return box->list()->isVisible() && box->list()->count() > 0; },
                                    test::kPatience_ms))
            << words.toStdString();
        return box->list()->count() > 0 ? box->list()->item(0)->text() : QString();
    };
    EXPECT_TRUE(
        found(QStringLiteral("cheaper")).startsWith(QStringLiteral("Study: Is the cheaper heather lot")));
    QTest::keyClick(app->find<FindBox>("findBox"), Qt::Key_Return);
    EXPECT_TRUE(app->session().study()->question.starts_with("Is the cheaper"));
    EXPECT_TRUE(
        found(QStringLiteral("slipped twice")).contains(QStringLiteral("slipped twice before it broke")));
    QTest::keyClick(app->find<FindBox>("findBox"), Qt::Key_Return);
    EXPECT_TRUE(app->session().study()->question.starts_with("Do hotter"));
    EXPECT_EQ(findPiece(*app->session().study(), app->session().selectedPiece())->code, "B4");
    EXPECT_TRUE(found(QStringLiteral("hot end")).contains(QStringLiteral("warning came on twice")));
    QTest::keyClick(app->find<FindBox>("findBox"), Qt::Key_Escape);
    EXPECT_FALSE(app->find<FindBox>("findBox")->list()->isVisible());
    const PieceId piece = app->session().study()->pieces[3].id;
    EXPECT_TRUE(found(QString::fromStdString(labCode(app->session().workshop().labPrefix, piece)))
                    .contains(QStringLiteral("the label of this piece")));
    QTest::keyClick(app->find<FindBox>("findBox"), Qt::Key_Return);
    EXPECT_EQ(app->session().selectedPiece(), piece);
    EXPECT_TRUE(found(QStringLiteral("zzznothing")).startsWith(QStringLiteral("Nothing in this project")));
}

namespace
{

/// The box over the demo, with what hangs below it.
struct Box {
    std::unique_ptr<AppHarness> app = AppHarness::onDemo();
    FindBox *box = app->find<FindBox>("findBox");

    QStringList look(const QString &words)
    {
        box->setFocus();
        box->selectAll();
        QTest::keyClicks(box, words);
        EXPECT_TRUE(QTest::qWaitFor([&] { return box->list()->isVisible(); }, test::kPatience_ms))
            << words.toStdString();
        QStringList found;
        for (int row = 0; row < box->list()->count(); ++row)
            found << box->list()->item(row)->text();
        return found;
    }
};

} // namespace

TEST(Find, KnowsLotsSettingsAndReasons)
{
    Box find;
    EXPECT_FALSE(find.look(QStringLiteral("bramble 12")).filter(QStringLiteral("Bramble 12")).isEmpty())
        << "a lot, in any letters";
    EXPECT_FALSE(find.look(QStringLiteral("grips")).isEmpty()) << "the reason why a piece was left out";
    EXPECT_FALSE(find.look(QStringLiteral("shed printer")).filter(QStringLiteral("late")).isEmpty())
        << "a plate's record";
}

TEST(Find, AMaterialLeadsToItsCard)
{
    Box find;
    const QStringList found = find.look(QStringLiteral("heather"));
    const auto spool = std::find_if(found.begin(), found.end(), [](const QString &text) {
        return text.startsWith(QStringLiteral("Spool:"));
    });
    ASSERT_NE(spool, found.end()) << found.join(QLatin1Char('\n')).toStdString();
    for (int i = 0; i < spool - found.begin(); ++i)
        QTest::keyClick(find.box, Qt::Key_Down);
    QTest::keyClick(find.box, Qt::Key_Return);
    auto *workshop = find.app->window().findChild<QDialog *>(QStringLiteral("workshopWindow"));
    ASSERT_NE(workshop, nullptr);
    EXPECT_TRUE(workshop->isVisible());
}

TEST(Find, ArrowsStopAtTheEndsAndALeftBoxHidesItsList)
{
    Box find;
    const QStringList found = find.look(QStringLiteral("230"));
    ASSERT_GT(found.size(), 1);
    QTest::keyClick(find.box, Qt::Key_Up);
    EXPECT_EQ(find.box->list()->currentRow(), 0);
    for (qsizetype i = 0; i < found.size() + 3; ++i)
        QTest::keyClick(find.box, Qt::Key_Down);
    EXPECT_EQ(find.box->list()->currentRow(), static_cast<int>(found.size()) - 1);
    find.app->rack().setFocus();
    EXPECT_FALSE(find.box->list()->isVisible());
    find.app->key(Qt::Key_F, Qt::ControlModifier);
    EXPECT_TRUE(find.box->hasFocus()) << "Ctrl+F leads back";
}

TEST(Find, WordsOfAnotherProjectGoWithIt)
{
    Box find;
    find.look(QStringLiteral("slip"));
    ASSERT_TRUE(find.app->session().createProject(find.app->path(QStringLiteral("other.inchpeg"))));
    EXPECT_TRUE(find.box->text().isEmpty());
    EXPECT_FALSE(find.box->list()->isVisible());
}

TEST(Shelf, AStudyIsPutOnTheRackByItsPlaceOnTheShelf)
{
    const auto app = AppHarness::onDemo();
    auto *shelf = app->find<QListWidget>("studyList");
    ASSERT_EQ(shelf->count(), static_cast<int>(app->session().studies().size()));
    for (int row = 0; row < shelf->count(); ++row) {
        QTest::mouseClick(shelf->viewport(), Qt::LeftButton, {},
                          shelf->visualItemRect(shelf->item(row)).center());
        QCoreApplication::processEvents();
        EXPECT_EQ(app->session().study()->id, app->session().studies()[static_cast<std::size_t>(row)].id);
        EXPECT_EQ(app->find<QLineEdit>("question")->text(), shelf->item(row)->text());
    }
    app->waitUntilRead();
    app->click("newStudy");
    EXPECT_EQ(shelf->count(), 9);
    EXPECT_EQ(app->session().lens(), Lens::Plan) << "a new study begins with its question";
}

} // namespace inchpeg::app
