// SPDX-License-Identifier: GPL-3.0-or-later
// Units and other settings, and what is done to a project as a whole, in the real window.
#include "app_harness.h"
#include "core/model/study_edit.h"
#include "store/project_lock.h"
#include "support/patience.h"

#include <QComboBox>
#include <QDialog>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QTableView>
#include <QTextBrowser>

#include <filesystem>

namespace inchpeg::app
{

namespace
{

void choose(QWidget &window, const char *name, const QString &text)
{
    auto *box = window.findChild<QComboBox *>(QString::fromUtf8(name));
    ASSERT_NE(box, nullptr) << name;
    const int index = box->findText(text, Qt::MatchStartsWith);
    ASSERT_GE(index, 0) << text.toStdString();
    box->setCurrentIndex(index);
    emit box->activated(index);
    emit box->textActivated(box->itemText(index));
    QCoreApplication::processEvents();
}

QAction *actionOf(MainWindow &window, const QString &text)
{
    for (QAction *action : window.findChildren<QAction *>()) {
        if (action->text() == text)
            return action;
    }
    ADD_FAILURE() << "no menu entry " << text.toStdString();
    return nullptr;
}

} // namespace

TEST(Settings, UnitsChangeEveryNumberOnTheScreenAtOnce)
{
    const auto app = AppHarness::onDemo();
    app->session().setLens(Lens::Read);
    app->waitUntilRead();
    app->window().showSettings();
    auto *settings = app->window().findChild<QDialog *>(QStringLiteral("settingsWindow"));
    ASSERT_NE(settings, nullptr);
    choose(*settings, "unit-force", QStringLiteral("lbf"));
    choose(*settings, "unit-stress", QStringLiteral("psi"));
    choose(*settings, "unit-length", QStringLiteral("in"));
    choose(*settings, "unit-energy", QStringLiteral("ft·lbf"));
    EXPECT_TRUE(settings->findChild<QLabel *>(QStringLiteral("notationExample"))
                    ->text()
                    .contains(QStringLiteral("psi")));
    EXPECT_EQ(app->rack().model().scaleTitle, QStringLiteral("Strength in psi"));
    app->session().setLens(Lens::Compare); // where means and sentences stand on the rails
    for (const RailModel &rail : app->rack().model().rails) {
        EXPECT_TRUE(rail.meanText.contains(QStringLiteral("psi")) &&
                    rail.meanText.contains(QStringLiteral("lbf")))
            << rail.meanText.toStdString();
        for (const PegModel &peg : rail.pegs)
            EXPECT_FALSE(peg.tip.contains(QStringLiteral(" N")) || peg.tip.contains(QStringLiteral("MPa")))
                << peg.tip.toStdString();
    }
    ReadPresenter read(app->session());
    EXPECT_EQ(read.yTitle(), QStringLiteral("Stress in psi"));
    for (const PropertyLine &line : read.card().properties)
        EXPECT_FALSE(line.value.endsWith(QStringLiteral(" N")) ||
                     line.value.endsWith(QStringLiteral("MPa")) || line.value.endsWith(QStringLiteral(" J")))
            << line.label.toStdString() << ": " << line.value.toStdString();
    EXPECT_TRUE(read.card().section.endsWith(QStringLiteral(" in"))) << read.card().section.toStdString();
    app->session().setLens(Lens::Log);
    auto *table = app->find<QTableView>("measureTable");
    EXPECT_EQ(table->model()->headerData(2, Qt::Horizontal).toString(), QStringLiteral("Width\nin"));
    EXPECT_EQ(table->model()->headerData(4, Qt::Horizontal).toString(), QStringLiteral("Area\nin²"));
    EXPECT_TRUE(table->model()->setData(table->model()->index(0, 2), QStringLiteral("0.2")));
    EXPECT_EQ(std::get<RectangularSection>(*app->session().study()->pieces[0].section).width,
              millimetres(5.08))
        << "a bare number is in the shown unit";
    EXPECT_TRUE(table->model()->setData(table->model()->index(0, 2), QStringLiteral("5 mm")));
    EXPECT_EQ(std::get<RectangularSection>(*app->session().study()->pieces[0].section).width, millimetres(5));
    app->session().setLens(Lens::Plan);
    app->step(PlanStep::Rig);
    EXPECT_EQ(app->find<QLineEdit>("said-gauge_length")->text(), QStringLiteral("0.984252 in"));
    EXPECT_TRUE(app->find<QLineEdit>("said-capacity")->text().endsWith(QStringLiteral(" lbf")));
    app->restart();
    EXPECT_EQ(app->preferences().unit(Dimension::Stress), QStringLiteral("psi")) << "kept for the next start";
}

TEST(Settings, ADecimalCommaStandsEverywhere)
{
    const auto app = AppHarness::onDemo();
    app->window().showSettings();
    auto *settings = app->window().findChild<QDialog *>(QStringLiteral("settingsWindow"));
    choose(*settings, "decimalMark", QStringLiteral("comma"));
    app->session().setLens(Lens::Read);
    app->waitUntilRead();
    static const QRegularExpression point(QStringLiteral("\\d\\.\\d"));
    for (const PropertyLine &line : ReadPresenter(app->session()).card().properties)
        EXPECT_FALSE(line.value.contains(point)) << line.value.toStdString();
    app->session().setLens(Lens::Compare);
    ASSERT_FALSE(app->rack().model().headline.isEmpty());
    for (const RailModel &rail : app->rack().model().rails)
        EXPECT_FALSE((rail.meanText + rail.sentence + rail.shareSentence).contains(point))
            << rail.meanText.toStdString() << rail.sentence.toStdString();
    EXPECT_FALSE(app->rack().model().headline.contains(point));
    EXPECT_EQ(app->window().locale().decimalPoint(), QStringLiteral(","));
    app->session().setLens(Lens::Plan);
    app->step(PlanStep::Rig);
    app->type("said-modulus_from", QStringLiteral("0,06"));
    EXPECT_EQ(app->find<QLineEdit>("said-modulus_from")->text(), QStringLiteral("0,06 %"));
    app->step(PlanStep::Pieces);
    const auto planText = [&] { return app->find<QLabel>("planText")->text(); };
    // An answer that was worked out before stands until the new one is there.
    EXPECT_TRUE(QTest::qWaitFor([&] { return !planText().isEmpty() && !planText().contains(point); },
                                test::kPatience_ms))
        << planText().toStdString();
    EXPECT_TRUE(app->find<QDoubleSpinBox>("scatter")->text().contains(QLatin1Char(',')));
}

TEST(Settings, LooksAndFoldersAreInForceAtOnce)
{
    const auto app = AppHarness::onDemo();
    app->window().showSettings();
    auto *settings = app->window().findChild<QDialog *>(QStringLiteral("settingsWindow"));
    choose(*settings, "themeChoice", QStringLiteral("dark"));
    EXPECT_EQ(currentTheme().kind, ThemeKind::Workshop);
    settings->findChild<QDoubleSpinBox *>(QStringLiteral("fontSize"))->setValue(13.0);
    EXPECT_EQ(QApplication::font().pointSizeF(), 13.0);
    app->prompts().folder = app->path(QString());
    QTest::mouseClick(settings->findChild<QPushButton *>(QStringLiteral("chooseFolder")), Qt::LeftButton);
    EXPECT_EQ(app->preferences().folder(), app->prompts().folder);
    wearTheme(*qApp, paperTheme());
}

TEST(Settings, RecentProjectsAreOfferedNewestFirstAndForgottenOnRequest)
{
    const auto app = AppHarness::onDemo();
    ASSERT_TRUE(app->session().createProject(app->path(QStringLiteral("second.inchpeg"))));
    EXPECT_EQ(app->preferences().recentProjects().size(), 2);
    EXPECT_TRUE(app->preferences().recentProjects()[0].endsWith(QStringLiteral("second.inchpeg")));
    app->restart();
    const auto links = app->window().findChildren<QPushButton *>(QStringLiteral("recentProject"));
    ASSERT_EQ(links.size(), 2);
    QTest::mouseClick(links[1], Qt::LeftButton);
    EXPECT_TRUE(app->session().projectPath().endsWith(QStringLiteral("demo.inchpeg")));
    app->preferences().forgetRecentProjects();
    EXPECT_TRUE(app->preferences().recentProjects().isEmpty());
}

TEST(Help, SearchFindsPagesByTheirWords)
{
    const auto app = AppHarness::onDemo();
    app->key(Qt::Key_F, Qt::ControlModifier | Qt::ShiftModifier);
    auto *help = app->window().findChild<QDialog *>(QStringLiteral("helpWindow"));
    ASSERT_NE(help, nullptr);
    auto *search = help->findChild<QLineEdit *>(QStringLiteral("helpSearch"));
    auto *pages = help->findChild<QListWidget *>(QStringLiteral("helpPages"));
    auto *text = help->findChild<QTextBrowser *>(QStringLiteral("helpText"));
    const auto shown = [&] {
        int count = 0;
        for (int i = 0; i < pages->count(); ++i)
            count += pages->item(i)->isHidden() ? 0 : 1;
        return count;
    };
    const int all = shown();
    search->setText(QStringLiteral("holm interval"));
    EXPECT_GT(shown(), 0);
    EXPECT_LT(shown(), all);
    EXPECT_FALSE(pages->currentItem()->isHidden());
    EXPECT_TRUE(text->toPlainText().contains(QStringLiteral("Holm"), Qt::CaseInsensitive));
    EXPECT_FALSE(text->extraSelections().isEmpty()) << "the places are marked";
    search->setText(QStringLiteral("xyzzy"));
    EXPECT_EQ(shown(), 0);
    EXPECT_TRUE(text->toPlainText().contains(QStringLiteral("Nothing in the guide holds")));
    search->clear();
    EXPECT_EQ(shown(), all);
}

TEST(Help, EveryNumberSaysWhatItIs)
{
    const auto app = AppHarness::onDemo();
    app->session().setLens(Lens::Read);
    app->waitUntilRead();
    for (const PropertyLine &line : ReadPresenter(app->session()).card().properties)
        EXPECT_GT(line.rule.size(), 15) << line.label.toStdString();
    app->session().setLens(Lens::Log);
    const auto *grid = app->find<QTableView>("measureTable")->model();
    for (int c = 0; c < grid->columnCount(); ++c)
        EXPECT_FALSE(grid->headerData(c, Qt::Horizontal, Qt::WhatsThisRole).toString().isEmpty()) << c;
    app->session().setTestTableShown(true);
    app->session().setLens(Lens::Compare);
    const auto *tests = app->find<QTableView>("testTable")->model();
    for (int c = 0; c < tests->columnCount(); ++c)
        EXPECT_FALSE(tests->headerData(c, Qt::Horizontal, Qt::WhatsThisRole).toString().isEmpty()) << c;
    EXPECT_TRUE(app->rack().viewport()->whatsThis().contains(app->rack().model().scaleMeaning));
    EXPECT_GT(app->rack().model().scaleMeaning.size(), 15);
}

TEST(ProjectCommands, AProjectThatAnotherHoldsOpensForReading)
{
    const auto app = AppHarness::onDemo();
    const QString path = app->session().projectPath();
    ProjectSession other(QStringLiteral("me"), [] { return std::string("2026-06-01T10:00:00Z"); });
    AppHarness second;
    second.window().openPath(path);
    EXPECT_TRUE(second.notice().contains(QStringLiteral("is open already"))) << second.notice().toStdString();
    EXPECT_FALSE(second.session().hasProject());
    second.click("noticeOffer");
    second.waitUntilRead();
    ASSERT_TRUE(second.session().isForReading());
    EXPECT_TRUE(second.window().windowTitle().contains(QStringLiteral("for reading")));
    EXPECT_EQ(second.session().readings().size(), 30U) << "everything is shown";
    EXPECT_FALSE(second.find<QLineEdit>("question")->isEnabled());
    const Status refused = second.session().edit(QStringLiteral("x"), [](Study &study) {
        study.question = "changed";
        return ok();
    });
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().message.find("open for reading"), std::string::npos);
    EXPECT_FALSE(second.session().addStudy(QStringLiteral("new")));
}

TEST(ProjectCommands, ExportAndImportThroughTheMenu)
{
    const auto app = AppHarness::onDemo();
    const Study study = *app->session().study();
    app->prompts().folder = app->path(QStringLiteral("out"));
    actionOf(app->window(), QStringLiteral("Export this study…"))->trigger();
    EXPECT_TRUE(QTest::qWaitFor([&] { return app->notice().contains(QStringLiteral("Everything is in")); },
                                test::kPatience_ms))
        << app->notice().toStdString();
    EXPECT_TRUE(std::filesystem::exists(app->path(QStringLiteral("out/project.json")).toStdString()));
    actionOf(app->window(), QStringLiteral("Export the project…"))->trigger();
    EXPECT_TRUE(QTest::qWaitFor([&] { return app->notice().contains(QStringLiteral("choose another name")); },
                                test::kPatience_ms))
        << "the folder is in use now";
    app->prompts().answer = app->path(QStringLiteral("back.inchpeg"));
    actionOf(app->window(), QStringLiteral("Make a project of an export…"))->trigger();
    app->waitUntilRead();
    EXPECT_TRUE(app->session().projectPath().endsWith(QStringLiteral("back.inchpeg")));
    EXPECT_EQ(*app->session().study(), study);
}

TEST(ProjectCommands, CompactingAsksFirstAndForgetsTheUndoSteps)
{
    const auto app = AppHarness::onDemo();
    QAction *compact = actionOf(app->window(), QStringLiteral("Compact the project…"));
    compact->trigger();
    ASSERT_TRUE(QTest::qWaitFor([&] { return !app->session().isCompacting(); }, test::kPatience_ms));
    EXPECT_TRUE(app->notice().contains(QStringLiteral("nothing to remove"))) << app->notice().toStdString();
    const PieceId id = app->session().study()->pieces[0].id;
    ASSERT_TRUE(app->session().edit(QStringLiteral("take off"), [&](Study &study) {
        setRecording(*findPiece(study, id), std::nullopt);
        return ok();
    }));
    const std::size_t before = app->session().project().info()->rawFiles;
    app->prompts().yes = false;
    compact->trigger();
    ASSERT_TRUE(QTest::qWaitFor([&] { return !app->session().isCompacting(); }, test::kPatience_ms));
    EXPECT_TRUE(app->prompts().asked.contains(QStringLiteral("1 raw file (")))
        << app->prompts().asked.toStdString();
    EXPECT_EQ(app->session().project().info()->rawFiles, before);
    app->prompts().yes = true;
    compact->trigger();
    ASSERT_TRUE(QTest::qWaitFor([&] { return !app->session().isCompacting(); }, test::kPatience_ms));
    app->waitUntilRead();
    EXPECT_EQ(app->session().project().info()->rawFiles, before - 1);
    EXPECT_TRUE(app->session().undoText().isEmpty()) << "what is gone cannot be brought back by undo";
    EXPECT_EQ(app->session().readings().size(), 29U);
}

} // namespace inchpeg::app
