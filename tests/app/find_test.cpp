// SPDX-License-Identifier: GPL-3.0-or-later
// Finding things again.
#include "app/find/find_box.h"
#include "app/log_bench.h"
#include "core/planning/lab_code.h"

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
        EXPECT_TRUE(
            QTest::qWaitFor([&] { return box->list()->isVisible() && box->list()->count() > 0; }, 5000))
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

} // namespace inchpeg::app
