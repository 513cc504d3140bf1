// SPDX-License-Identifier: GPL-3.0-or-later
// Each view on the demo project: it shows itself, in both themes, small and large, and has names for those
// who cannot see it.
#include "app/app_harness.h"
#include "app/export/table_copy.h"
#include "core/model/study_edit.h"

#include <QAbstractButton>
#include <QAbstractSpinBox>
#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QDropEvent>
#include <QFile>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QStandardPaths>
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
            for (const Lens lens : {Lens::Plan, Lens::Log, Lens::Read, Lens::Compare, Lens::Decide}) {
                app->session().setLens(lens);
                app->waitUntilRead();
                expectShown(*app, "lens");
                EXPECT_EQ(app->window().planView().isVisible(), lens == Lens::Plan);
                EXPECT_EQ(app->window().logView().isVisible(), lens == Lens::Log);
                EXPECT_EQ(app->window().readView().isVisible(), lens == Lens::Read);
                EXPECT_EQ(app->rack().isVisible(), lens != Lens::Decide)
                    << "the rails stay; where one is chosen the candidates are the rails";
            }
            app->session().setLens(Lens::Plan);
            for (const PlanStep step : kPlanSteps) {
                app->step(step);
                expectShown(*app, "part of the plan");
            }
        }
    }
    const QSize least = app->window().minimumSizeHint();
    EXPECT_LE(least.width(), 1024) << "the window fits a small screen";
    EXPECT_LE(least.height(), 700);
}

TEST(Views, CtrlAndADigitChoosesALensFromAnyFieldAndABareDigitNever)
{
    const auto app = AppHarness::onDemo();
    app->rack().setFocus();
    const Lens before = app->session().lens();
    for (const char *part : {"studyList", "question"}) {
        app->find<QWidget>(part)->setFocus();
        for (int digit = Qt::Key_1; digit <= Qt::Key_6; ++digit) {
            app->key(digit);
            EXPECT_EQ(app->session().lens(), before) << part;
        }
        app->key(Qt::Key_Z, Qt::ControlModifier);
    }
    app->rack().setFocus();
    app->key(Qt::Key_2);
    EXPECT_EQ(app->session().lens(), before) << "nor on the rack";
    app->key(Qt::Key_2, Qt::ControlModifier);
    EXPECT_EQ(app->session().lens(), Lens::Log);
    app->find<QLineEdit>("question")->setFocus();
    app->key(Qt::Key_4, Qt::ControlModifier);
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
    app->window().showSettings();
    app->window().showWorkshop();
    app->window().showHelp(QStringLiteral("keys"));
    for (const PlanStep step : kPlanSteps)
        app->window().planView().showStep(step);
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

TEST(Views, EachPageOfAnEmptyLogSaysWhatToDo)
{
    AppHarness app;
    ASSERT_TRUE(app.session().createProject(app.path(QStringLiteral("empty.inchpeg"))));
    ASSERT_TRUE(app.session().addStudy(QStringLiteral("Why?")));
    app.part(LogPart::Print);
    EXPECT_TRUE(app.find<QLabel>("plateState")->text().contains(QStringLiteral("No plates are laid out")));
    EXPECT_FALSE(app.find<QComboBox>("loggedPlate")->isVisible()) << "there is nothing to choose";
    app.part(LogPart::Measure);
    EXPECT_TRUE(app.find<QLabel>("logSummary")->text().contains(QStringLiteral("no pieces yet")));
    app.part(LogPart::Mass);
    EXPECT_TRUE(app.find<QLabel>("massHeadline")->text().contains(QStringLiteral("Weigh two pieces")));
    EXPECT_FALSE(app.find<QWidget>("massChart")->isVisible()) << "an empty chart says nothing";
    app.part(LogPart::Condition);
    EXPECT_TRUE(app.find<QLabel>("noSteps")->text().contains(QStringLiteral("No step is logged yet")));
    app.part(LogPart::Photos);
    EXPECT_TRUE(app.find<QLabel>("photoTitle")->text().contains(QStringLiteral("Choose a peg")));
    EXPECT_FALSE(app.find<QPushButton>("addPhoto")->isEnabled());
    app.part(LogPart::Life);
    EXPECT_TRUE(app.find<QTextBrowser>("lifeText")->toPlainText().contains(QStringLiteral("make the rails")));
}

// Long names of rails give way to what is typed: all cells of a piece stay in sight.
TEST(Views, TheEntryGridFitsBesideLongNames)
{
    AppHarness app;
    ASSERT_TRUE(app.session().createProject(app.path(QStringLiteral("long.inchpeg"))));
    ASSERT_TRUE(app.session().addStudy(QStringLiteral("Why?")));
    ASSERT_TRUE(app.session().edit(QStringLiteral("rails"), [&](Study &study) {
        return addCondition(study, {{}, {std::string(200, 'w')}, {}, {}}, app.session().ids());
    }));
    for (const int width : {1280, 1024}) {
        app.window().resize(width, 700);
        app.part(LogPart::Measure);
        auto *table = app.find<QTableView>("measureTable");
        QCoreApplication::processEvents();
        app.part(LogPart::Mass);
        app.part(LogPart::Measure); // fits its columns when it is shown
        EXPECT_LE(table->horizontalHeader()->length(), table->viewport()->width() + 1) << width;
        EXPECT_EQ(table->model()->index(0, 1).data(Qt::ToolTipRole).toString().left(3),
                  QStringLiteral("www"));
    }
}

TEST(Views, ThreeHundredPiecesWithLongNamesStayUsable)
{
    AppHarness app;
    ASSERT_TRUE(app.session().createProject(app.path(QStringLiteral("large.inchpeg"))));
    ASSERT_TRUE(app.session().addStudy(QString(300, QLatin1Char('Q')) + QStringLiteral("?")));
    ASSERT_TRUE(app.session().edit(QStringLiteral("rails"), [&](Study &study) -> Status {
        firstTest(study).piecesPerCondition = 6;
        for (int i = 0; i < 50; ++i) {
            const Status added =
                addCondition(study,
                             {{},
                              {"a level with a long name that goes on and on, number " + std::to_string(i)},
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

TEST(Views, PicturesAreSavedAsVectorsAndPixels)
{
    const auto app = AppHarness::onDemo();
    for (const Lens lens : {Lens::Compare, Lens::Read}) {
        app->session().setLens(lens);
        app->waitUntilRead();
        for (const auto &[name, magic] :
             {std::pair{"a.svg", "<?xml"}, {"a.pdf", "%PDF"}, {"a.png", "\x89PNG"}}) {
            app->prompts().answer = app->path(QLatin1String(name));
            app->rack().setFocus();
            app->key(Qt::Key_P, Qt::ControlModifier);
            EXPECT_EQ(app->notice(), QString());
            QFile file(app->prompts().answer);
            ASSERT_TRUE(file.open(QIODevice::ReadOnly)) << name;
            const QByteArray bytes = file.readAll();
            EXPECT_TRUE(bytes.startsWith(magic)) << name;
            EXPECT_GT(bytes.size(), 4000) << name;
            if (bytes.startsWith("<?xml")) {
                EXPECT_FALSE(bytes.contains("<image")) << "strokes, not pixels";
                EXPECT_TRUE(bytes.contains(lens == Lens::Compare ? "Holds 22 %" : "Stress in MPa"))
                    << "text stays text";
            }
            file.close();
            QFile::remove(file.fileName());
        }
    }
    for (const auto &[lens, part] : {std::pair{Lens::Compare, "rail\tpiece\tStrength in MPa"},
                                     {Lens::Read, "piece\tStrain in %, toe taken off\tStress in MPa"}}) {
        app->session().setLens(lens);
        app->waitUntilRead();
        app->prompts().answer = app->path(QStringLiteral("a.tsv"));
        app->key(Qt::Key_P, Qt::ControlModifier);
        EXPECT_EQ(app->notice(), QString());
        QFile file(app->prompts().answer);
        ASSERT_TRUE(file.open(QIODevice::ReadOnly));
        const QByteArray bytes = file.readAll();
        EXPECT_TRUE(bytes.startsWith(part)) << bytes.left(80).toStdString();
        EXPECT_GE(bytes.count('\n'), 20);
    }
    app->session().setLens(Lens::Compare);
    app->session().setResponseTableShown(true);
    app->key(Qt::Key_P, Qt::ControlModifier);
    QFile responses(app->prompts().answer);
    ASSERT_TRUE(responses.open(QIODevice::ReadOnly));
    EXPECT_TRUE(responses.readAll().startsWith("rail\ttest\tresponse\tunit\tmean"));
    app->session().setResponseTableShown(false);
    app->prompts().answer = app->path(QStringLiteral("a.bmp"));
    app->key(Qt::Key_P, Qt::ControlModifier);
    EXPECT_TRUE(app->notice().contains(QStringLiteral(".svg, .pdf, .png or .tsv")));
    app->prompts().answer = QStringLiteral("/proc/none/a.svg");
    app->key(Qt::Key_P, Qt::ControlModifier);
    EXPECT_TRUE(app->notice().contains(QStringLiteral("cannot be written")));
}

TEST(Views, TablesAreCopiedAsTextWithTheirHeadings)
{
    const auto app = AppHarness::onDemo();
    app->session().setTestTableShown(true);
    app->session().setLens(Lens::Compare);
    app->waitUntilRead();
    auto *table = app->find<QTableView>("testTable");
    const QString all = tableText(*table);
    EXPECT_EQ(all.split(QLatin1Char('\n')).size(), 6);
    EXPECT_TRUE(all.startsWith(QStringLiteral("Rail\tn\tmean\tsd\tCV")));
    table->setFocus();
    app->key(Qt::Key_C, Qt::ControlModifier);
    EXPECT_EQ(QApplication::clipboard()->text(), all);
}

TEST(Views, TheWelcomePageLeadsToTheDemoAndToDroppedFiles)
{
    // Another test of this process may have worked on it.
    QFile::remove(QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) +
                  QStringLiteral("/inchpeg/demo.inchpeg"));
    AppHarness app;
    app.click("welcomeDemo");
    app.waitUntilRead();
    ASSERT_NE(app.session().study(), nullptr) << app.notice().toStdString();
    EXPECT_EQ(app.session().studies().size(), 8U);
    app.restart();
    app.prompts().answer = app.path(QStringLiteral("new.inchpeg"));
    QFile file(app.path(QStringLiteral("x.csv")));
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write("force_N,extension_mm\n0,0\n1,0.1\n2,0.2\n");
    file.close();
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(file.fileName())});
    QDragEnterEvent enter(QPoint(600, 400), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&app.window(), &enter);
    EXPECT_TRUE(enter.isAccepted());
    QDropEvent drop(QPointF(600, 400), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&app.window(), &drop);
    EXPECT_TRUE(QTest::qWaitFor([&] { return !app.window().begin().isLooking(); }, test::kPatience_ms));
    EXPECT_EQ(app.notice(), QString());
    EXPECT_TRUE(app.find<QWidget>("beginWindow")->isVisible());
    ASSERT_NE(app.window().begin().found(), nullptr) << app.window().begin().problem().toStdString();
    EXPECT_EQ(app.window().begin().found()->files.size(), 1U);
}

} // namespace inchpeg::app
