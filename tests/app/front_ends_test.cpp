// SPDX-License-Identifier: GPL-3.0-or-later
// Window, report, open data and command line say the same of a study: on the demo, and on made ones (a
// hundred in bench/night).
#include "app/app_harness.h"
#include "app/compare/compare_strip.h"
#include "core/report/html_report.h"
#include "core/report/result_card.h"
#include "service/intake/study_from_files.h"
#include "service/open_data.h"
#include "service/project_report.h"
#include "service/told_verdict.h"
#include "support/night.h"
#include "support/temporary_folder.h"

#include <QLabel>
#include <QTextDocument>

#include <fmt/format.h>

#include <filesystem>
#include <fstream>
#include <random>

namespace inchpeg::app
{

namespace
{

/// A table of results of random rails: how many, how far apart, how scattered, how many pieces, with bounds.
std::string madeTable(std::mt19937_64 &lot)
{
    const auto below = [&](int count) { return static_cast<int>(lot() % static_cast<std::uint64_t>(count)); };
    constexpr std::pair<const char *, double> kProperties[] = {{"Tensile strength (MPa)", 44.0},
                                                               {"Flexural strength (MPa)", 70.0},
                                                               {"Impact strength (kJ/m2)", 9.0},
                                                               {"HDT (°C)", 71.0},
                                                               {"Hardness", 72.0},
                                                               {"Static friction", 0.3}};
    const auto &[heading, truth] = kProperties[static_cast<std::size_t>(below(6))];
    const int rails = 2 + below(4);
    const double scatter =
        std::vector<double>{0.0, 0.01, 0.03, 0.08, 0.2}[static_cast<std::size_t>(below(5))];
    const bool isNumeric = below(2) == 0;
    const bool hasBounds = below(4) == 0;
    std::string table =
        fmt::format("Specimen;{};{}\n", isNumeric ? "nozzle temperature (°C)" : "Material", heading);
    std::normal_distribution<double> normal;
    for (int rail = 0; rail < rails; ++rail) {
        const double share = 1.0 + (below(3) == 0 ? 0.0 : 0.3 * (below(100) / 100.0 - 0.5));
        const int pieces = 1 + below(8);
        for (int piece = 0; piece < pieces; ++piece) {
            const double value = truth * share * (1.0 + scatter * normal(lot));
            table += fmt::format("{}{};{};{}{:.4g}\n", static_cast<char>('A' + rail), piece + 1,
                                 isNumeric ? fmt::format("{}", 220 + 10 * rail)
                                           : fmt::format("material {}", static_cast<char>('K' + rail)),
                                 hasBounds && below(5) == 0 ? "> " : "", value);
        }
    }
    return table;
}

/// The words of a page, whatever marks stand between them.
std::string wordsOf(const std::string &html)
{
    QTextDocument page;
    page.setHtml(QString::fromStdString(html));
    return page.toPlainText().simplified().toStdString();
}

std::string simple(const std::string &text)
{
    return QString::fromStdString(text).simplified().toStdString();
}

class FrontEnds : public testing::Test
{
protected:
    /// A project of made studies; those that cannot be understood are asked about and left aside.
    static std::size_t make(const std::string &path, const test::TemporaryFolder &folder, int studies)
    {
        Result<std::unique_ptr<OpenProject>> project =
            OpenProject::create(path, {"K.", [] { return std::string("2026-06-01T10:00:00Z"); }});
        EXPECT_TRUE(project);
        std::mt19937_64 lot(20261202);
        std::size_t made = 0;
        for (int i = 0; i < studies; ++i) {
            const std::string table = folder.write(fmt::format("table{}.csv", i), madeTable(lot));
            Result<FoundStudy> found = findStudy({.paths = {table}});
            EXPECT_TRUE(found) << (found ? "" : found.error().message) << test::bytesOf(table);
            if (!found || !found->proposal.open.empty())
                continue;
            const Result<MadeStudy> study =
                makeFoundStudy(**project, *found, fmt::format("Made study {}", i + 1));
            EXPECT_TRUE(study) << (study ? "" : study.error().message) << test::bytesOf(table);
            ++made;
        }
        return made;
    }

    /// Holds all that is said of a study against what the command line says.
    static void holdAll(AppHarness &app, StudyId id)
    {
        ProjectSession &session = app.session();
        ASSERT_TRUE(session.selectStudy(id));
        app.waitUntilRead();
        session.setLens(Lens::Compare);
        Result<ProjectFile> project = ProjectFile::openForReading(session.projectPath().toStdString());
        ASSERT_TRUE(project);
        const Result<ProjectResults> all = readProjectResults(*project);
        ASSERT_TRUE(all);
        const Result<ToldVerdict> told = tellVerdict(*all, {}, id, {});
        ASSERT_TRUE(told) << told.error().message;
        SCOPED_TRACE(told->verdict.headline);
        holdWindow(app, *told);

        const auto hasValues = [](const RailComparison &rail) { return rail.summary.n > 0; };
        if (std::none_of(told->comparison.rails.begin(), told->comparison.rails.end(), hasValues))
            return; // a report of what is planned says nothing of results
        const ReportOrigin origin = reportOrigin(*project, "0.0", "2026-06-01");
        const Result<Report> report = reportOf(*project, *all, id, origin, Notation());
        ASSERT_TRUE(report);
        const std::string words = wordsOf(htmlReport(*report));
        const auto isIn = [&](const std::string &text) {
            return words.find(simple(text)) != std::string::npos;
        };
        EXPECT_TRUE(isIn(told->verdict.headline));
        for (const RailVerdict &rail : told->verdict.rails)
            EXPECT_TRUE(rail.sentence.empty() || isIn(rail.sentence)) << rail.sentence;
        for (const std::string &caution : told->cautions)
            EXPECT_TRUE(isIn(caution)) << caution;
        for (const Sentence &answer : told->answers)
            EXPECT_TRUE(isIn(answer.text)) << answer.text;

        const Drawing card = resultCard(*all->of(id)->study, told->comparison, origin, Notation());
        std::string onCard;
        for (const auto &shape : card.shapes) {
            if (const auto *text = std::get_if<DrawnText>(&shape))
                onCard += (onCard.empty() ? "" : " ") + text->text;
        }
        EXPECT_NE(onCard.find(simple(told->verdict.headline).substr(0, 40)), std::string::npos) << onCard;

        const test::TemporaryFolder folder;
        ASSERT_TRUE(writeOpenData(*project, id, folder.path("open"), origin));
        const std::string verdicts = test::bytesOf(folder.path("open/verdicts.csv"));
        for (const RailComparison &rail : told->comparison.rails) {
            const bool isTold = rail.summary.n == 0 || rail.bounds > 0 ||
                                verdicts.find(fmt::format("{}", *rail.summary.mean)) != std::string::npos;
            EXPECT_TRUE(isTold) << rail.summary.mean.value_or(0.0) << "\n" << verdicts;
        }
        for (const RailVerdict &rail : told->verdict.rails)
            EXPECT_NE(verdicts.find(rail.sentence.substr(0, rail.sentence.find_first_of("\"="))),
                      std::string::npos)
                << rail.sentence;
    }

    static void holdWindow(AppHarness &app, const ToldVerdict &told)
    {
        QCoreApplication::processEvents();
        if (QWidget *table = app.window().findChild<QWidget *>(QStringLiteral("responseTable"));
            table != nullptr && table->isVisible()) {
            app.click("showResponses"); // several tests: to the one that the question is asked of
            QCoreApplication::processEvents();
        }
        auto &strip = *app.window().findChild<CompareStrip *>();
        ASSERT_TRUE(QTest::qWaitFor([&] { return !strip.isAnswering(); }, test::kPatience_ms));
        QCoreApplication::processEvents();
        EXPECT_EQ(app.find<QLabel>("headline")->text().toStdString(), told.verdict.headline);
        const RackModel &rack = app.rack().model();
        ASSERT_EQ(rack.rails.size(), told.verdict.rails.size());
        for (std::size_t i = 0; i < rack.rails.size(); ++i)
            EXPECT_EQ(rack.rails[i].sentence.toStdString(), told.verdict.rails[i].sentence);
        const std::string answers = wordsOf(app.find<QLabel>("answers")->text().toStdString());
        for (const Sentence &answer : told.answers)
            EXPECT_NE(answers.find(simple(answer.text)), std::string::npos)
                << answer.text << "\nnot in: " << answers;
        const std::string cautions = wordsOf(app.find<QLabel>("resultCautions")->text().toStdString());
        for (const std::string &caution : told.cautions)
            EXPECT_NE(cautions.find(simple(caution)), std::string::npos) << caution;
    }
};

} // namespace

TEST_F(FrontEnds, SayTheSameOfTheDemo)
{
    const std::unique_ptr<AppHarness> app = AppHarness::onDemo();
    for (const StudyHeader &header : app->session().studies()) {
        SCOPED_TRACE(header.question);
        holdAll(*app, header.id);
    }
}

TEST_F(FrontEnds, SayTheSameOfMadeStudies)
{
    const test::TemporaryFolder folder;
    const std::string path = folder.path("made.inchpeg");
    const int studies = test::timesOf(test::isNight(), 100, 20, 5);
    EXPECT_GE(make(path, folder, studies), static_cast<std::size_t>(studies) * 19 / 20);
    AppHarness app;
    ASSERT_TRUE(app.session().openProject(QString::fromStdString(path)));
    for (const StudyHeader &header : app.session().studies()) {
        SCOPED_TRACE(test::bytesOf(
            folder.path(fmt::format("table{}.csv", std::stoi(header.question.substr(11)) - 1))));
        holdAll(app, header.id);
    }
}

} // namespace inchpeg::app
