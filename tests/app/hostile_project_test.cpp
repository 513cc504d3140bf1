// SPDX-License-Identifier: GPL-3.0-or-later
// Projects that were damaged or made to do harm, and texts of people that look like something else.
#include "app/app_harness.h"
#include "app/window/guarded_application.h"
#include "service/project_check.h"
#include "service/project_export.h"
#include "store/database.h"
#include "support/patience.h"
#include "support/sanitized.h"
#include "support/wrong_content.h"

#include <QFile>
#include <QLabel>

#include <fmt/format.h>

#include <algorithm>
#include <cstdlib>
#include <filesystem>
#include <iostream>
#include <span>

namespace inchpeg::app
{

namespace
{

void setWorkshop(const QString &path, const std::string &text)
{
    Database database(path.toStdString(), Database::Access::ReadWrite);
    Query(database, "DELETE FROM setting WHERE name = 'workshop'").run();
    Query(database, "INSERT INTO setting (name, value) VALUES ('workshop', ?)").bind(text).run();
}

void lookAtEveryPage(AppHarness &app)
{
    app.session().setLens(Lens::Plan);
    for (const PlanStep step : kPlanSteps) {
        app.step(step);
        EXPECT_FALSE(app.window().grab().isNull());
    }
    for (const LogPart part : kLogParts) {
        app.part(part);
        EXPECT_FALSE(app.window().grab().isNull());
    }
    for (const Lens lens : {Lens::Read, Lens::Compare}) {
        app.session().setLens(lens);
        EXPECT_FALSE(app.window().grab().isNull());
    }
}

} // namespace

TEST(HostileProject, AWorkshopThatIsNoJsonIsToldAndTheRestOpens)
{
    const std::string texts[] = {std::string(300000, '['), "{\"rigs\": 7}", "no json at all", "[]", ""};
    for (const std::string &text : std::span(texts).first(test::kSanitized ? 2 : std::size(texts))) {
        AppHarness app;
        const QString path = app.path(QStringLiteral("demo.inchpeg"));
        ASSERT_TRUE(writeDemoProject(path.toStdString()));
        setWorkshop(path, text);
        app.window().openPath(path);
        app.waitUntilRead();
        EXPECT_TRUE(app.notice().contains(QStringLiteral("workshop"))) << app.notice().toStdString();
        EXPECT_FALSE(app.notice().contains(QStringLiteral("json"))) << app.notice().toStdString();
        EXPECT_EQ(app.session().studies().size(), 8U);
        lookAtEveryPage(app);
        // A changed card does not throw away what could not be read.
        EXPECT_TRUE(app.session().tryEditWorkshop(QStringLiteral("price"), [](Workshop &workshop) {
            workshop.printerRate_per_h += 1.0;
            return ok();
        }));
        EXPECT_EQ(**app.session().project().setting("workshop (damaged)"), text);
    }
}

// A project, a piece, a gauge line that hold marks of another language are shown as they are.
TEST(HostileProject, TextsOfPeopleArePlainWhereverTheyAreShown)
{
    const QString odd = QStringLiteral("<b>bold</b> & %1 <img src=x>");
    AppHarness app;
    ASSERT_TRUE(app.session().createProject(app.path(QStringLiteral("a <b>&amp; %1.inchpeg"))));
    ASSERT_TRUE(app.session().addStudy(odd));
    const std::string text = odd.toStdString();
    ASSERT_TRUE(app.session().edit(QStringLiteral("names"), [&](Study &study) -> Status {
        study.factors.front().name = text;
        firstTest(study).piecesPerCondition = 3;
        study.plan.locked = {{text, text}};
        for (const char *level : {"<i>a</i>", "b & %2"}) {
            if (const Status added = addCondition(study, {{}, {level}, {}, text}, app.session().ids());
                !added)
                return added;
        }
        study.pieces.front().log.note = text;
        study.pieces.front().code = "<b>";
        plateRecord(study.log, 1).note = text;
        return ok();
    })) << "odd names are allowed";
    lookAtEveryPage(app);
    for (const QLabel *label : app.window().findChildren<QLabel *>()) {
        const bool holdsOurs = label->text().contains(QStringLiteral("<b>bold")) ||
                               label->text().contains(QStringLiteral("<i>a"));
        if (!label->testAttribute(Qt::WA_WState_Polished))
            continue; // was never shown
        EXPECT_FALSE(holdsOurs && label->textFormat() != Qt::PlainText) << label->text().toStdString();
        EXPECT_FALSE(label->text().contains(QStringLiteral("bold</b> & <b>"))) << "%1 was filled in";
    }
    EXPECT_EQ(app.session().studies().front().question, text);
}

// What had been worked out of the plan of the project before was looked at with the study of the next one.
TEST(HostileProject, AProjectIsOpenedOverAnotherWhoseStudiesHaveOtherPieces)
{
    const auto app = AppHarness::onDemo();
    const QString other = app->path(QStringLiteral("other.inchpeg"));
    ASSERT_TRUE(writeDemoProject(other.toStdString()));
    {
        Result<ProjectFile> project = ProjectFile::open(other.toStdString());
        ASSERT_TRUE(project) << project.error().message;
        for (const StudyHeader &header : *project->studies()) {
            const Result<Study> study = project->loadStudy(header.id);
            ASSERT_TRUE(study);
            Study emptied = *study;
            emptied.pieces.clear();
            emptied.plan.print.printed.clear();
            emptied.plan.addedLater.clear();
            ASSERT_TRUE(project->save({*study, emptied}));
        }
    }
    for (const StudyHeader &header : app->session().studies()) {
        ASSERT_TRUE(app->session().selectStudy(header.id));
        app->session().setLens(Lens::Plan);
        app->step(PlanStep::Check);
        break;
    }
    for (const QString &path : {other, app->path(QStringLiteral("demo.inchpeg")), other}) {
        app->window().openPath(path);
        app->waitUntilRead();
        EXPECT_TRUE(app->session().hasProject());
        app->session().setLens(Lens::Plan);
        app->step(PlanStep::Check);
    }
}

// The cell that waits looked chosen but had no keyboard, and 5.02 jumped through the lenses.
TEST(FirstHour, DigitsTypedInTheLogStayInItsGrid)
{
    const auto app = AppHarness::onDemo();
    app->session().setLens(Lens::Log);
    QTest::qWait(20);
    ASSERT_NE(QApplication::focusWidget(), nullptr);
    EXPECT_EQ(QApplication::focusWidget()->objectName(), QStringLiteral("measureTable"));
    for (const int key : {Qt::Key_3, Qt::Key_Period, Qt::Key_1, Qt::Key_Escape})
        app->key(key);
    EXPECT_EQ(app->session().lens(), Lens::Log);
}

TEST(FirstHour, TheWelcomePageCountsTheStudiesOfTheDemo)
{
    constexpr const char *kWords[] = {"No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight"};
    const auto app = AppHarness::onDemo();
    const QString told =
        QString::fromUtf8(kWords[app->session().studies().size()]) + QStringLiteral(" invented studies");
    const QList<QLabel *> labels = app->window().findChildren<QLabel *>();
    EXPECT_TRUE(std::any_of(labels.begin(), labels.end(), [&](const QLabel *label) {
        return label->text().startsWith(told);
    })) << told.toStdString();
}

TEST(FirstHour, AFailureThatReachesTheEventLoopIsKeptAndTold)
{
    class Failing : public QObject
    {
    public:
        bool event(QEvent *) override { throw std::runtime_error("made to fail"); }
    };
    auto *application = qobject_cast<GuardedApplication *>(qApp);
    ASSERT_NE(application, nullptr);
    QString told, report;
    application->setHandler([&](const QString &what, const QString &path) {
        told = what;
        report = path;
    });
    Failing failing;
    QEvent event(QEvent::User);
    QCoreApplication::sendEvent(&failing, &event);
    application->setHandler(
        [](const QString &what, const QString &) { ADD_FAILURE() << what.toStdString(); });
    EXPECT_EQ(told, QStringLiteral("made to fail"));
    QFile file(report);
    ASSERT_TRUE(file.open(QIODevice::ReadOnly)) << report.toStdString();
    EXPECT_TRUE(file.readAll().contains("what: made to fail"));
}

// INCHPEG_DAMAGED asks for more, INCHPEG_DAMAGED_SEED for others; bench/night does.
TEST(HostileProject, ContentThatDoesNotFitIsToldAndTheWindowGoesOn)
{
    const char *wanted = std::getenv("INCHPEG_DAMAGED");
    const char *first = std::getenv("INCHPEG_DAMAGED_SEED");
    const int count = wanted != nullptr ? std::atoi(wanted) : test::kSanitized ? 1 : 6;
    const std::uint64_t from = first != nullptr ? std::strtoull(first, nullptr, 10) : 1;
    const auto base = AppHarness::onDemo(); // whose readings are kept by now
    const std::string sound = base->path(QStringLiteral("sound.inchpeg")).toStdString();
    base->session().closeProject();
    std::filesystem::copy_file(base->path(QStringLiteral("demo.inchpeg")).toStdString(), sound);
    AppHarness app;
    int opened = 0;
    int told = 0;
    for (int i = 0; i < count; ++i) {
        const std::uint64_t seed = from + static_cast<std::uint64_t>(i);
        const std::string path = app.path(QStringLiteral("damaged%1.inchpeg").arg(i)).toStdString();
        std::filesystem::copy_file(sound, path);
        const std::string done = test::damageContent(path, seed);
        SCOPED_TRACE(fmt::format("seed {}: {}", seed, done));
        std::fprintf(stderr, "seed %llu: %s\n", static_cast<unsigned long long>(seed), done.c_str());
        app.window().openPath(QString::fromStdString(path));
        if (app.session().hasProject()) {
            ++opened;
            {
                Result<ProjectFile> project = ProjectFile::openForReading(path);
                ASSERT_TRUE(project) << project.error().message;
                const Result<ProjectCheck> check = verifyProject(*project);
                ASSERT_TRUE(check) << check.error().message;
                told += check->findings.empty() ? 0 : 1;
            }
            const std::vector<StudyHeader> studies = app.session().studies();
            for (std::size_t s = seed % 4; s < studies.size(); s += 4) { // two of the eight
                const StudyHeader &header = studies[s];
                if (!app.session().tell(app.session().selectStudy(header.id)))
                    continue;
                for (const Lens lens :
                     {Lens::Plan, Lens::Log, Lens::Bench, Lens::Read, Lens::Compare, Lens::Decide}) {
                    app.session().setLens(lens);
                    QCoreApplication::processEvents();
                }
                EXPECT_TRUE(QTest::qWaitFor([&] { return !app.session().isReading(); }, test::kPatience_ms));
                EXPECT_FALSE(app.window().grab().isNull());
            }
            const std::string folder = app.path(QStringLiteral("e%1").arg(i)).toStdString();
            const Status exported = exportProject(app.session().project(), folder);
            EXPECT_TRUE(exported || !exported.error().message.empty());
            std::filesystem::remove_all(folder);
        } else {
            EXPECT_FALSE(app.notice().isEmpty());
        }
        app.session().closeProject();
        std::filesystem::remove(path);
        if (::testing::Test::HasFailure())
            break;
    }
    std::cout << count << " projects with wrong content: " << opened << " opened, of which " << told
              << " were told by verify\n";
}

} // namespace inchpeg::app
