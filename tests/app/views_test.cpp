// SPDX-License-Identifier: GPL-3.0-or-later
// Each view on the demo project: it shows itself, in both themes, small and large, and has names for those
// who cannot see it.
#include "app/app_harness.h"
#include "core/study/study_edit.h"

#include <QAbstractButton>
#include <QAbstractSpinBox>
#include <QComboBox>
#include <QDialog>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QTableView>
#include <QTextBrowser>

namespace inchpeg::app
{

namespace
{

/// How many colours a picture holds: an empty or broken view has a handful.
int coloursIn(const QImage &image)
{
    QSet<QRgb> colours;
    for (int y = 0; y < image.height(); y += 3) {
        for (int x = 0; x < image.width(); x += 3)
            colours.insert(image.pixel(x, y));
    }
    return static_cast<int>(colours.size());
}

void expectShown(AppHarness &app, const char *what)
{
    const QImage image = app.window().grab().toImage();
    EXPECT_GT(coloursIn(image), 20) << what;
}

} // namespace

TEST(Views, EachLensShowsItselfInBothThemesAndAtEverySize)
{
    const auto app = AppHarness::onDemo();
    for (const Theme &theme : {workshopTheme(), paperTheme()}) {
        wearTheme(*qApp, theme);
        for (const QSize size : {QSize(1280, 800), QSize(1024, 700), QSize(2000, 1300)}) {
            app->window().resize(size);
            for (const Lens lens : {Lens::Plan, Lens::Log, Lens::Read, Lens::Compare}) {
                app->session().setLens(lens);
                app->waitUntilRead();
                expectShown(*app, "lens");
            }
        }
    }
    const QSize least = app->window().minimumSizeHint();
    EXPECT_LE(least.width(), 1024) << "the window fits a small screen";
    EXPECT_LE(least.height(), 700);
}

TEST(Views, DigitsChooseLensesFromTheRackAndCtrlDigitFromAnyField)
{
    const auto app = AppHarness::onDemo();
    app->rack().setFocus();
    app->key(Qt::Key_2);
    EXPECT_EQ(app->session().lens(), Lens::Log);
    app->find<QLineEdit>("question")->setFocus();
    app->key(Qt::Key_3, Qt::ControlModifier);
    EXPECT_EQ(app->session().lens(), Lens::Read);
    app->find<QLineEdit>("question")->setFocus();
    app->key(Qt::Key_1);
    EXPECT_EQ(app->session().lens(), Lens::Read) << "a digit typed into a field stays there";
}

TEST(Views, HelpShowsTheGuideAndTheKeys)
{
    const auto app = AppHarness::onDemo();
    app->key(Qt::Key_F1);
    auto *help = app->window().findChild<QDialog *>(QStringLiteral("helpWindow"));
    ASSERT_NE(help, nullptr);
    EXPECT_TRUE(help->isVisible());
    EXPECT_FALSE(help->isModal());
    auto *text = help->findChild<QTextBrowser *>(QStringLiteral("helpText"));
    EXPECT_TRUE(text->toPlainText().contains(QStringLiteral("Ctrl+I")));
    auto *pages = help->findChild<QListWidget *>(QStringLiteral("helpPages"));
    for (int i = 0; i < pages->count(); ++i) {
        pages->setCurrentRow(i);
        EXPECT_FALSE(text->toPlainText().contains(QStringLiteral("This page is missing")))
            << pages->item(i)->text().toStdString();
        EXPECT_GT(text->toPlainText().size(), 200) << pages->item(i)->text().toStdString();
    }
}

TEST(Views, EveryControlHasAnAccessibleName)
{
    const auto app = AppHarness::onDemo();
    app->window().showImport();
    for (const Lens lens : {Lens::Plan, Lens::Log, Lens::Read, Lens::Compare}) {
        app->session().setLens(lens);
        app->waitUntilRead();
        for (QWidget *widget : app->window().findChildren<QWidget *>()) {
            const bool control = qobject_cast<QLineEdit *>(widget) || qobject_cast<QComboBox *>(widget) ||
                                 qobject_cast<QAbstractSpinBox *>(widget) ||
                                 qobject_cast<QTableView *>(widget) || qobject_cast<QListWidget *>(widget) ||
                                 qobject_cast<QPlainTextEdit *>(widget);
            auto *button = qobject_cast<QAbstractButton *>(widget);
            if (button != nullptr && widget->objectName().startsWith(QStringLiteral("qt_")))
                continue;
            const bool part = widget->parentWidget() != nullptr &&
                              (qobject_cast<QAbstractSpinBox *>(widget->parentWidget()) ||
                               qobject_cast<QComboBox *>(widget->parentWidget()));
            if (control && !part && !widget->objectName().startsWith(QStringLiteral("qt_"))) {
                EXPECT_FALSE(widget->accessibleName().isEmpty())
                    << widget->metaObject()->className() << " " << widget->objectName().toStdString();
            }
            if (button != nullptr && !part && button->isVisible()) {
                EXPECT_FALSE(button->text().isEmpty() && button->accessibleName().isEmpty())
                    << button->objectName().toStdString();
            }
        }
    }
}

TEST(Views, AnEmptyProjectAndAnEmptyStudySayWhatToDo)
{
    AppHarness app;
    expectShown(app, "welcome");
    ASSERT_TRUE(app.session().createProject(app.path(QStringLiteral("empty.inchpeg"))));
    EXPECT_TRUE(app.find<QLineEdit>("question")->placeholderText().contains(QStringLiteral("Make a study")));
    ASSERT_TRUE(app.session().addStudy(QStringLiteral("Why?")));
    for (const Lens lens : {Lens::Plan, Lens::Log, Lens::Read, Lens::Compare}) {
        app.session().setLens(lens);
        expectShown(app, "empty study");
    }
    EXPECT_EQ(app.rack().model().headline, QStringLiteral("Nothing has been broken yet."));
}

TEST(Views, ThreeHundredPiecesWithLongNamesStayUsable)
{
    AppHarness app;
    ASSERT_TRUE(app.session().createProject(app.path(QStringLiteral("large.inchpeg"))));
    ASSERT_TRUE(app.session().addStudy(QString(300, QLatin1Char('Q')) + QStringLiteral("?")));
    ASSERT_TRUE(app.session().edit(QStringLiteral("rails"), [&](Study &study) -> Status {
        study.piecesPerCondition = 6;
        for (int i = 0; i < 50; ++i) {
            const Status added =
                addCondition(study,
                             {{},
                              "a level with a long name that goes on and on, number " + std::to_string(i),
                              {},
                              std::string(200, 'm')},
                             app.session().ids());
            if (!added)
                return added;
        }
        return ok();
    }));
    EXPECT_EQ(app.session().study()->pieces.size(), 300U);
    for (const Lens lens : {Lens::Plan, Lens::Log, Lens::Read, Lens::Compare}) {
        app.session().setLens(lens);
        expectShown(app, "large study");
    }
    app.rack().setFocus();
    for (int i = 0; i < 49; ++i)
        app.key(Qt::Key_Down);
    EXPECT_EQ(app.session().selectedRail(), app.session().study()->conditions.back().id);
    const auto at = app.rack().pegPosition(app.session().selectedPiece());
    ASSERT_TRUE(at);
    EXPECT_TRUE(app.rack().viewport()->rect().contains(at->toPoint()))
        << "the chosen peg is scrolled into view";
}

} // namespace inchpeg::app
