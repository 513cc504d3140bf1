// SPDX-License-Identifier: GPL-3.0-or-later
// Writes a picture of each main view on the demo project: inchpeg_screenshots FOLDER [--theme paper|workshop]
// [--width W] [--height H] [--crowded | --moments | --battery | --summary]. The pictures in docs/screenshots
// come from here (tools/screenshots).
#include "app/app_harness.h"
#include "app/compare/compare_strip.h"
#include "app/import/import_view.h"
#include "app/plan/plan_view.h"
#include "app/tell/tell_window.h"
#include "core/model/rail_summary.h"
#include "core/model/study_edit.h"
#include "sim/record_writer.h"
#include "sim/virtual_specimen.h"
#include "support/patience.h"

#include <QClipboard>
#include <QCommandLineParser>
#include <QDialog>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableView>

#include <fmt/format.h>

namespace inchpeg::app
{

namespace
{

/// They are worked out beside the window.
void waitForAnswers(AppHarness &harness)
{
    const auto *strip = harness.find<CompareStrip>("compareStrip");
    [[maybe_unused]] const bool isDone =
        QTest::qWaitFor([strip] { return !strip->isAnswering(); }, test::kPatience_ms);
    QTest::qWait(60); // the head takes their height
}

void save(QWidget &widget, const QString &folder, const QString &name)
{
    QTest::qWait(60);
    const QString path = folder + QLatin1Char('/') + name + QStringLiteral(".png");
    if (!widget.grab().save(path))
        qFatal("cannot write %s", qPrintable(path));
}

/// A piece on the simulated rig: ready, under load, broken. The record is taken back, as it was none of the
/// demo's.
void takeBench(AppHarness &harness, const QString &folder, const QString &suffix, StudyId study)
{
    ProjectSession &session = harness.session();
    EXPECT_TRUE(session.selectStudy(study));
    EXPECT_TRUE(session.edit(QStringLiteral("measured"), [](Study &changed) {
        for (Piece &piece : changed.pieces)
            piece.section = piece.section.value_or(RectangularSection{millimetres(10.02), millimetres(4.01)});
        return ok();
    }));
    session.setLens(Lens::Bench);
    harness.waitUntilRead();
    save(harness.window(), folder, QStringLiteral("bench-cautions") + suffix);
    harness.click("benchMain");
    harness.click("benchSimulate");
    QTest::qWait(1500);
    save(harness.window(), folder, QStringLiteral("bench-ready") + suffix);
    harness.click("benchPull");
    QTest::qWait(3300);
    save(harness.window(), folder, QStringLiteral("bench") + suffix);
    const auto *action = harness.find<QLabel>("benchAction");
    EXPECT_TRUE(QTest::qWaitFor([&] { return action->text().contains(QStringLiteral("break look")); },
                                test::kPatience_ms));
    harness.waitUntilRead();
    QTest::qWait(300);
    save(harness.window(), folder, QStringLiteral("bench-done") + suffix);
    harness.click("benchSimulate");
    for (int step = 0; step < 3; ++step)
        EXPECT_TRUE(session.undo());
    harness.waitUntilRead();
}

/// Files as a rig would leave them, one of them damaged, for the picture of the import page.
QStringList writeRecords(AppHarness &harness)
{
    QStringList paths;
    const auto write = [&](const QString &name, const std::string &bytes) {
        QFile file(harness.path(name));
        if (file.open(QIODevice::WriteOnly))
            file.write(bytes.data(), static_cast<qint64>(bytes.size()));
        paths << file.fileName();
    };
    const ForceCurve curve = sim::pull(sim::lowHeatPolyester(), {}, squareMillimetres(18),
                                       {.gaugeLength_mm = 80, .forceNoise_N = 1}, 3);
    write(QStringLiteral("grip_A3.csv"), sim::recordBytes(curve, sim::Dialect::KilogramForceSpaces, "A3"));
    write(QStringLiteral("grip_B3.csv"),
          sim::recordBytes(
              sim::pull(sim::lowHeatPolyester(), {}, squareMillimetres(18), {.gaugeLength_mm = 80}, 4),
              sim::Dialect::SemicolonComma, "B3"));
    write(QStringLiteral("notes.csv"), "date,remark\nmonday,the second piece squeaked\n");
    write(QStringLiteral("grip_B4.csv"), "force [stone],travel [mm]\n0,0\n1,0.1\n2,0.2\n");
    write(QStringLiteral("frame_C1.csv"),
          "Time (s),Force (N) [kN],Travel (mm)\n0,0,0\n1,0.4,0.1\n2,0.9,0.2\n");
    std::string specimens = "specimen,Time (s),Travel (mm),Force (N)\n";
    for (const auto &[code, peak_N] : {std::pair{"C2", 700.0}, {"C3", 640.0}}) {
        for (int i = 0; i <= 20; ++i)
            specimens += fmt::format("{},{},{:.2f},{:.1f}\n", code, i, 0.1 * i, peak_N * i / 20.0);
        specimens += "Mean,10,1,350\n";
    }
    write(QStringLiteral("evening.csv"), specimens);
    return paths;
}

void takeAll(AppHarness &harness, const QString &folder, const QString &suffix,
             const std::vector<StudyHeader> &studies)
{
    MainWindow &window = harness.window();
    ProjectSession &session = harness.session();
    const auto show = [&](std::size_t study, Lens lens) {
        EXPECT_TRUE(session.selectStudy(studies[study].id));
        session.setLens(lens);
        harness.waitUntilRead();
    };
    const std::pair<PlanStep, const char *> steps[] = {
        {PlanStep::Ask, "plan-ask"},           {PlanStep::Pieces, "plan-pieces"},
        {PlanStep::Specimen, "plan-specimen"}, {PlanStep::Rig, "plan-rig"},
        {PlanStep::Plates, "plan-plates"},     {PlanStep::Calendar, "plan-dates"},
        {PlanStep::Check, "plan-check"},       {PlanStep::Paper, "plan-paper"}};
    show(3, Lens::Plan);
    for (const auto &[step, name] : steps) {
        window.planView().showStep(step);
        QTest::qWait(step == PlanStep::Pieces ? 1500 : 60); // the curve is worked out beside the window
        save(window, folder, QLatin1String(name) + suffix);
    }
    window.planView().showStep(PlanStep::Ask);
    window.showWorkshop();
    auto *workshop = window.findChild<QDialog *>(QStringLiteral("workshopWindow"));
    save(*workshop, folder, QStringLiteral("workshop") + suffix);
    QTest::mouseClick(workshop->findChild<QPushButton *>(QStringLiteral("workshop3")), Qt::LeftButton);
    save(*workshop, folder, QStringLiteral("workshop-materials") + suffix);
    workshop->hide();
    show(0, Lens::Log);
    const std::pair<LogPart, const char *> parts[] = {
        {LogPart::Measure, "log"},       {LogPart::Print, "log-prints"},
        {LogPart::Mass, "log-mass"},     {LogPart::Condition, "log-condition"},
        {LogPart::Photos, "log-photos"}, {LogPart::Life, "log-life"}};
    session.selectPiece(session.study()->pieces[9].id);
    for (const auto &[part, name] : parts) {
        window.logView().showPart(part);
        QTest::qWait(part == LogPart::Photos ? 400 : 60); // photos are decoded beside the window
        save(window, folder, QLatin1String(name) + suffix);
    }
    window.logView().showPart(LogPart::Measure);
    show(0, Lens::Read);
    session.selectPiece(session.study()->pieces[14].id);
    harness.waitUntilRecord();
    save(window, folder, QStringLiteral("read") + suffix);
    harness.drag("strength", QPointF(-46, 0));
    save(window, folder, QStringLiteral("read-marker") + suffix);
    harness.key(Qt::Key_Escape);
    show(0, Lens::Compare);
    waitForAnswers(harness);
    save(window, folder, QStringLiteral("compare") + suffix);
    session.setGraphShown(true);
    QTest::qWait(300);
    save(window, folder, QStringLiteral("compare-graph") + suffix);
    session.setGraphShown(false);
    session.setTestTableShown(true);
    show(1, Lens::Compare);
    waitForAnswers(harness);
    save(window, folder, QStringLiteral("compare-tests") + suffix);
    session.setTestTableShown(false);
    takeBench(harness, folder, suffix, studies[2].id);
    show(2, Lens::Log);
    window.importPresenter().addPaths(writeRecords(harness));
    window.showImport();
    EXPECT_TRUE(QTest::qWaitFor([&] { return !window.importPresenter().isLoading(); }, test::kPatience_ms));
    auto *list = window.findChild<QTableView *>(QStringLiteral("importTable"));
    list->setCurrentIndex(list->model()->index(2, 0)); // the one that leaves its unit open
    save(window, folder, QStringLiteral("import") + suffix);
    window.importPresenter().clear();
    AppHarness fresh;
    fresh.window().resize(window.size());
    save(fresh.window(), folder, QStringLiteral("welcome") + suffix);
    window.showSettings();
    save(*window.findChild<QDialog *>(QStringLiteral("settingsWindow")), folder,
         QStringLiteral("settings") + suffix);
    window.showHelp(QStringLiteral("comparing"));
    save(*window.findChild<QDialog *>(QStringLiteral("helpWindow")), folder, QStringLiteral("help") + suffix);
}

void takeEveryLens(AppHarness &harness, const QString &folder, const QString &prefix)
{
    for (const auto &[lens, name] :
         {std::pair{Lens::Plan, "plan"}, {Lens::Read, "read"}, {Lens::Compare, "compare"}}) {
        harness.session().setLens(lens);
        harness.waitUntilRead();
        save(harness.window(), folder, prefix + QLatin1String(name));
    }
    for (const LogPart part : kLogParts) {
        harness.part(part);
        QTest::qWait(60);
        save(harness.window(), folder, prefix + QStringLiteral("log%1").arg(static_cast<int>(part)));
    }
}

/// The demo's study of several tests: how each is read and compared.
void takeBattery(AppHarness &harness, const QString &folder, const QString &suffix, StudyId study)
{
    ProjectSession &session = harness.session();
    EXPECT_TRUE(session.selectStudy(study));
    harness.waitUntilRead();
    std::vector<Method> tests;
    for (const StudyTest &planned : session.study()->tests)
        tests.push_back(planned.method);
    for (const Method test : tests) {
        session.setShownTest(test);
        const QString name = QString::fromUtf8(methodName(test)).replace(QLatin1Char(' '), QLatin1Char('-'));
        session.setLens(Lens::Read);
        for (const Piece &piece : session.study()->pieces) {
            if (piece.test == test && piece.condition == session.study()->conditions[1].id) {
                session.selectPiece(piece.id);
                break;
            }
        }
        QTest::qWait(150);
        save(harness.window(), folder, QStringLiteral("read-") + name + suffix);
        session.setLens(Lens::Compare);
        session.setResponseTableShown(false);
        harness.window().rack().finishSliding();
        QTest::qWait(60);
        save(harness.window(), folder, QStringLiteral("compare-") + name + suffix);
    }
    session.setResponseTableShown(true);
    save(harness.window(), folder, QStringLiteral("compare-responses") + suffix);
    session.setLens(Lens::Decide);
    harness.window().decide().useTemplate(0);
    harness.window().decide().setLimit(1, QStringLiteral("2 %"));
    harness.window().decide().setLimit(2, QStringLiteral("65 °C"));
    EXPECT_TRUE(QTest::qWaitFor([&] { return !harness.window().decide().isWorking(); }, test::kPatience_ms));
    QTest::qWait(150);
    save(harness.window(), folder, QStringLiteral("decide") + suffix);
    harness.click("decideTell");
    auto *tell = harness.window().findChild<TellWindow *>();
    for (const auto &[what, name] :
         {std::pair{Telling::DecisionReport, "tell-decision"}, {Telling::StudyReport, "tell"}}) {
        tell->choose(what);
        EXPECT_TRUE(
            QTest::qWaitFor([&] { return !harness.window().tell().isWorking(); }, test::kPatience_ms));
        QTest::qWait(60);
        tell->grab().save(folder + QStringLiteral("/%1%2.png").arg(QLatin1String(name), suffix));
    }
    tell->hide();
    session.setLens(Lens::Plan);
    for (const auto &[step, name] :
         {std::pair{PlanStep::Ask, "plan-ask-battery"}, {PlanStep::Rig, "plan-rig-battery"}}) {
        harness.step(step);
        save(harness.window(), folder, QString::fromLatin1(name) + suffix);
    }
    // A creep run that still goes on, to be typed on.
    const Study &battery = *session.study();
    for (const Piece &piece : battery.pieces) {
        if (piece.test == Method::Creep)
            session.selectPiece(piece.id);
    }
    harness.part(LogPart::Type);
    save(harness.window(), folder, QStringLiteral("log-type") + suffix);
    // A test with a row a piece: all pieces in one table.
    for (const Piece &piece : battery.pieces) {
        if (piece.test == Method::Impact)
            session.selectPiece(piece.id);
    }
    harness.part(LogPart::Type);
    save(harness.window(), folder, QStringLiteral("log-type-all") + suffix);
    // … and at the bench, where its next reading is due.
    session.setShownTest(Method::Creep);
    session.setLens(Lens::Bench);
    harness.window().bench().confirmCautions();
    harness.window().dueWatch().look();
    save(harness.window(), folder, QStringLiteral("bench-creep") + suffix);
}

/// A rail that is known from a summary alone, and the window in which that is said.
void takeSummary(AppHarness &harness, const QString &folder)
{
    ProjectSession &session = harness.session();
    EXPECT_TRUE(session.edit(QStringLiteral("a rail"), [&](Study &study) {
        Condition rail = study.conditions.front();
        rail.levels.front() = "300";
        return addCondition(study, rail, session.ids());
    }));
    EXPECT_TRUE(session.edit(QStringLiteral("summary"), [](Study &study) {
        return setSummary(
            study, study.conditions.back().id,
            {methodOf(study), "tensile_strength", 30.4, 1.4, 8, "another laboratory, May 2026", {}, {}});
    }));
    session.setLens(Lens::Compare);
    QTest::qWait(400);
    save(harness.window(), folder, QStringLiteral("summary-rail"));
    harness.window().showSummaries();
    save(*harness.find<QDialog>("summaryWindow"), folder, QStringLiteral("summary-window"));
}

/// A study with 48 rails, 288 pieces and long names, half of them broken: does it stay readable?
void takeCrowded(AppHarness &harness, const QString &folder)
{
    ProjectSession &session = harness.session();
    EXPECT_TRUE(session.addStudy(QStringLiteral("Does any of forty-eight combinations of nozzle, fan, wall "
                                                "count and infill beat the one we have used for years?")));
    EXPECT_TRUE(session.edit(QStringLiteral("crowd"), [&](Study &study) -> Status {
        firstTest(study).piecesPerCondition = 6;
        firstTest(study).setup.settings.numbers["gauge_length"] = 50;
        for (int i = 0; i < 48; ++i) {
            const Status added =
                addCondition(study,
                             {{},
                              {"combination " + std::to_string(i + 1) + " of walls, infill, nozzle and fan"},
                              {},
                              "low-heat polyester, lot Bramble 12"},
                             session.ids());
            if (!added)
                return added;
        }
        for (std::size_t i = 0; i < study.pieces.size(); i += 2) {
            const auto seed = static_cast<std::uint64_t>(i + 1);
            const std::string bytes = sim::recordBytes(
                sim::pull(sim::lowHeatPolyester(), {}, squareMillimetres(20), {.forceNoise_N = 0.5}, seed),
                sim::Dialect::CommaUtf8, "");
            study.pieces[i].section = PlainArea{squareMillimetres(20)};
            study.pieces[i].recording = Recording{session.project().addRawFile("x", bytes)->id, {}};
        }
        return ok();
    }));
    takeEveryLens(harness, folder, QStringLiteral("crowded-"));
}

/// States that pass: a table before it is taken, a question about a value, a gauge, a finding; and a project
/// without anything.
void takeMoments(AppHarness &harness, const QString &folder, const std::vector<StudyHeader> &studies)
{
    MainWindow &window = harness.window();
    ProjectSession &session = harness.session();
    EXPECT_TRUE(session.selectStudy(studies[3].id));
    harness.part(LogPart::Measure);
    auto *table = harness.find<QTableView>("measureTable");
    const auto typeIn = [&](int row, int column, const char *text) {
        table->model()->setData(table->model()->index(row, column), QLatin1String(text));
        QCoreApplication::processEvents();
    };
    typeIn(0, 2, "5.02");
    typeIn(0, 3, "4.01");
    typeIn(1, 2, "50.3");
    QTest::qWait(100);
    save(window, folder, QStringLiteral("moment-doubt"));
    harness.click("gaugeSimulate");
    QTest::qWait(800);
    table->setCurrentIndex(table->model()->index(2, 2));
    harness.click("gaugePress");
    QTest::qWait(800);
    save(window, folder, QStringLiteral("moment-gauge"));
    harness.click("gaugeSimulate");
    QApplication::clipboard()->setText(
        QStringLiteral("specimen\twidth (mm)\tthickness (mm)\tmass (g)\toperator\n"
                       "A1\t5.03\t4.01\t2.31\tk\nA2\t5.01\t3.98\t2.30\tk\nZ9\t5\t4\t2.3\tk\n"));
    table->setFocus();
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
    auto *preview = harness.find<QDialog>("tablePreview");
    QTest::qWait(100);
    save(*preview, folder, QStringLiteral("moment-table"));
    preview->hide();
    EXPECT_TRUE(session.selectStudy(studies[0].id));
    harness.waitUntilRead();
    QApplication::setActiveWindow(&window);
    auto *find = harness.find<QLineEdit>("findBox");
    find->setFocus();
    QTest::keyClicks(find, QStringLiteral("slip"));
    QTest::qWait(400);
    save(window, folder, QStringLiteral("moment-find"));
    EXPECT_TRUE(session.createProject(harness.path(QStringLiteral("bare.inchpeg"))));
    save(window, folder, QStringLiteral("moment-bare"));
    EXPECT_TRUE(session.addStudy(QStringLiteral("What holds?")));
    takeEveryLens(harness, folder, QStringLiteral("moment-empty-"));
}

} // namespace

} // namespace inchpeg::app

int main(int argc, char **argv)
{
    using namespace inchpeg::app;
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM"))
        qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    QCommandLineParser parser;
    parser.addPositionalArgument(QStringLiteral("folder"), QStringLiteral("where the pictures go"));
    parser.addOption({QStringLiteral("theme"), QStringLiteral("paper or workshop"), QStringLiteral("theme"),
                      QStringLiteral("paper")});
    parser.addOption({QStringLiteral("width"), QStringLiteral("of the window"), QStringLiteral("pixels"),
                      QStringLiteral("1280")});
    parser.addOption({QStringLiteral("height"), QStringLiteral("of the window"), QStringLiteral("pixels"),
                      QStringLiteral("800")});
    parser.addOption({QStringLiteral("suffix"), QStringLiteral("of the file names"), QStringLiteral("text")});
    parser.addOption(
        {QStringLiteral("crowded"), QStringLiteral("a study of 48 rails in place of the demo's")});
    parser.addOption({QStringLiteral("moments"), QStringLiteral("states that pass, and an empty study")});
    parser.addOption(
        {QStringLiteral("battery"), QStringLiteral("the tests of the demo's study of many tests")});
    parser.addOption({QStringLiteral("summary"), QStringLiteral("a rail that is known from a summary")});
    parser.process(application);
    if (parser.positionalArguments().size() != 1)
        parser.showHelp(2);
    wearTheme(application, parser.value(QStringLiteral("theme")) == QStringLiteral("workshop")
                               ? workshopTheme()
                               : paperTheme());
    const auto harness = AppHarness::onDemo();
    harness->preferences().setDark(parser.value(QStringLiteral("theme")) == QStringLiteral("workshop"));
    harness->window().resize(parser.value(QStringLiteral("width")).toInt(),
                             parser.value(QStringLiteral("height")).toInt());
    const std::vector<inchpeg::StudyHeader> studies = harness->session().studies();
    if (parser.isSet(QStringLiteral("crowded"))) {
        takeCrowded(*harness, parser.positionalArguments().front());
        return testing::Test::HasFailure() ? 1 : 0;
    }
    if (parser.isSet(QStringLiteral("summary"))) {
        takeSummary(*harness, parser.positionalArguments().front());
        return testing::Test::HasFailure() ? 1 : 0;
    }
    if (parser.isSet(QStringLiteral("battery"))) {
        takeBattery(*harness, parser.positionalArguments().front(), parser.value(QStringLiteral("suffix")),
                    studies[4].id);
        return testing::Test::HasFailure() ? 1 : 0;
    }
    if (parser.isSet(QStringLiteral("moments"))) {
        takeMoments(*harness, parser.positionalArguments().front(), studies);
        return testing::Test::HasFailure() ? 1 : 0;
    }
    takeAll(*harness, parser.positionalArguments().front(), parser.value(QStringLiteral("suffix")), studies);
    return testing::Test::HasFailure() ? 1 : 0;
}
