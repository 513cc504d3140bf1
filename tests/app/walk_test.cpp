// SPDX-License-Identifier: GPL-3.0-or-later
// A walk of everything: every study × every test × every page of every lens, in both themes, both unit
// systems and two sizes, is opened and painted. Nothing may fail, be cut or lie over its neighbour.
#include "app/app_harness.h"
#include "app/compare/compare_strip.h"
#include "app/layout_check.h"
#include "core/planning/plan_edit.h"
#include "support/night.h"
#include "support/patience.h"
#include "support/sanitized.h"

#include <QComboBox>
#include <QMenu>
#include <QMenuBar>

#include <span>

namespace inchpeg::app
{

namespace
{

/// How the window is dressed.
struct Dress {
    const char *name;
    bool dark;
    bool customary;
    QSize size;
};
constexpr Dress kDresses[] = {{"paper, SI, 1280x800", false, false, {1280, 800}},
                              {"workshop, customary, 1024x700", true, true, {1024, 700}},
                              {"paper, customary, 1280x800", false, true, {1280, 800}},
                              {"workshop, SI, 1024x700", true, false, {1024, 700}}};

Notation notationOf(const Dress &dress)
{
    Notation notation;
    if (dress.customary) {
        for (const char *symbol : {"lbf", "psi", "ft·lbf", "in", "lbf·in", "°F"})
            EXPECT_TRUE(notation.choose(symbol)) << symbol;
        notation.setDecimalMark(',');
    }
    return notation;
}

class Walker
{
public:
    explicit Walker(AppHarness &app) : m_app(app) {}

    void dress(const Dress &dress)
    {
        m_where = QString::fromUtf8(dress.name);
        wearTheme(*qApp, dress.dark ? workshopTheme() : paperTheme());
        m_app.window().resize(dress.size);
        m_app.session().setNotation(notationOf(dress));
    }

    /// properties: how many of those that are compared, the first ones.
    void everyPage(const QString &study, std::size_t properties = 1000)
    {
        ProjectSession &session = m_app.session();
        session.setLens(Lens::Plan);
        for (const PlanStep step : kPlanSteps) {
            m_app.step(step);
            look(study, QStringLiteral("plan %1").arg(static_cast<int>(step)));
            // Pages that are about one test of several: each of them.
            for (const char *name : {"rigTest", "specimenTest"}) {
                auto *tests = m_app.window().findChild<QComboBox *>(QLatin1String(name));
                for (int i = 0; tests != nullptr && tests->isVisible() && i < tests->count(); ++i) {
                    tests->setCurrentIndex(i);
                    emit tests->activated(i);
                    look(study,
                         QStringLiteral("plan %1, %2").arg(static_cast<int>(step)).arg(tests->currentText()));
                }
            }
        }
        for (const LogPart part : kLogParts) {
            m_app.part(part);
            look(study, QStringLiteral("log %1").arg(static_cast<int>(part)));
        }
        session.setLens(Lens::Bench);
        look(study, QStringLiteral("bench"));
        m_app.window().bench().confirmCautions();
        look(study, QStringLiteral("bench, cautions confirmed"));
        session.setLens(Lens::Read);
        look(study, QStringLiteral("read"));
        session.setLens(Lens::Decide);
        if (m_app.window().decide().needs().needs.empty()) {
            look(study, QStringLiteral("decide, without needs"));
            m_app.window().decide().useTemplate(0);
        }
        EXPECT_TRUE(
            QTest::qWaitFor([&] { return !m_app.window().decide().isWorking(); }, test::kPatience_ms));
        look(study, QStringLiteral("decide"));
        session.setLens(Lens::Compare);
        const Reduction *reduction = reductionOf(*session.shownTest());
        if (reduction == nullptr) {
            look(study, QStringLiteral("compare"));
            return;
        }
        session.setGraphShown(true);
        auto *kinds = m_app.find<QComboBox>("graphKind");
        QCoreApplication::processEvents();
        for (int i = 0; i < std::min(kinds->count(), kMostGraphs); ++i) {
            emit kinds->activated(i);
            look(study, QStringLiteral("graph ") + kinds->currentText());
        }
        session.setGraphShown(false);
        const std::size_t shown = std::min(properties, reduction->properties.size());
        session.setResponseTableShown(true);
        look(study, QStringLiteral("all responses"));
        session.setResponseTableShown(false);
        for (const Property &property : reduction->properties.first(shown)) {
            session.setComparedProperty(QString::fromUtf8(property.name));
            look(study, QStringLiteral("compare ") + QString::fromUtf8(property.name));
        }
    }

    void look(const QString &study, const QString &page)
    {
        QCoreApplication::processEvents();
        const auto *strip = m_app.find<CompareStrip>("compareStrip");
        EXPECT_TRUE(QTest::qWaitFor([&] { return !strip->isAnswering(); }, test::kPatience_ms))
            << study.toStdString();
        QCoreApplication::processEvents();
        QCoreApplication::processEvents(); // a page whose texts wrap otherwise than before is laid out twice
        const QPixmap picture = m_app.window().grab();
        EXPECT_FALSE(picture.isNull());
        ++m_pages;
        if (const QString folder = qEnvironmentVariable("INCHPEG_WALK_PICTURES"); !folder.isEmpty())
            picture.save(QStringLiteral("%1/%2 %3.png")
                             .arg(folder)
                             .arg(m_pages, 4, 10, QLatin1Char('0'))
                             .arg(QString(page).replace(QLatin1Char('/'), QLatin1Char('-'))));
        // A page that is still being laid out (its texts came a moment ago) is looked at once it has settled.
        constexpr int kSettles_ms = 5000;
        [[maybe_unused]] const bool isFine = QTest::qWaitFor(
            [this] {
                const QStringList findings = layoutFindings(m_app.window());
                return std::all_of(findings.begin(), findings.end(),
                                   [this](const QString &finding) { return m_told.contains(finding); });
            },
            kSettles_ms);
        for (const QString &finding : layoutFindings(m_app.window())) {
            if (m_told.contains(finding))
                continue;
            m_told.insert(finding);
            ADD_FAILURE() << m_where.toStdString() << ", " << study.toStdString() << ", "
                          << page.toStdString() << ": " << finding.toStdString();
        }
    }
    [[nodiscard]] int pages() const { return m_pages; }

private:
    AppHarness &m_app;
    QString m_where;
    static constexpr int kMostGraphs = 9; ///< those of the comparison, of costs, and one more response
    QSet<QString> m_told;
    int m_pages = 0;
};

void setMethod(ProjectSession &session, Method method)
{
    EXPECT_TRUE(session.edit(QStringLiteral("test"), [&](Study &study) -> Status {
        EXPECT_TRUE(inchpeg::setMethod(study, method));
        return ok();
    })) << methodName(method);
}

} // namespace

// Each walk is a test of its own, so that they are dealt out to all cores.
void walkTheDemo(const Dress &dress)
{
    const auto app = AppHarness::onDemo();
    Walker walk(*app);
    walk.dress(dress);
    for (const StudyHeader &header : app->session().studies()) {
        ASSERT_TRUE(app->session().selectStudy(header.id));
        app->waitUntilRead();
        walk.everyPage(QString::fromStdString(header.question));
    }
    wearTheme(*qApp, paperTheme());
}

enum class Walked { Planned, Empty };

void walkEveryTest(const Dress &dress, Walked walked)
{
    const auto app = AppHarness::onDemo();
    ProjectSession &session = app->session();
    Walker walk(*app);
    const StudyId planned = session.studies()[3].id;
    ASSERT_TRUE(session.addStudy(QStringLiteral("Which of two lots?")));
    if (walked == Walked::Planned) {
        ASSERT_TRUE(session.selectStudy(planned));
    }
    walk.dress(dress);
    for (const MethodFacts &facts : allMethods()) {
        setMethod(session, facts.method);
        walk.everyPage(QString::fromUtf8(facts.name), 1);
    }
    wearTheme(*qApp, paperTheme());
}

TEST(Walk, EveryStudyOfTheDemoOnEveryPage)
{
    walkTheDemo(kDresses[0]);
}

TEST(Walk, EveryStudyOfTheDemoInTheDarkAndSmall)
{
    if (!test::kSanitized)
        walkTheDemo(kDresses[1]);
}

TEST(Walk, EveryStudyOfTheDemoInCustomaryUnits)
{
    if (test::isNight())
        walkTheDemo(kDresses[2]);
}

TEST(Walk, EveryStudyOfTheDemoInTheDarkInSi)
{
    if (test::isNight())
        walkTheDemo(kDresses[3]);
}

TEST(Walk, EveryTestOnEveryPageOfAPlannedStudy)
{
    if (test::isNight())
        walkEveryTest(kDresses[0], Walked::Planned);
}

TEST(Walk, EveryTestOnEveryPageOfAPlannedStudyInTheDark)
{
    walkEveryTest(kDresses[1], Walked::Planned);
}

TEST(Walk, EveryTestOnEveryPageOfAnEmptyStudy)
{
    if (test::isNight())
        walkEveryTest(kDresses[0], Walked::Empty);
}

TEST(Walk, EveryTestOnEveryPageOfAnEmptyStudyInTheDark)
{
    if (!test::kSanitized)
        walkEveryTest(kDresses[1], Walked::Empty);
}

// The test of the first abort: a further test's page of rigs, with units that no table knew.
TEST(Walk, EveryTestAsAFurtherTestOfTheDemo)
{
    const auto app = AppHarness::onDemo();
    ProjectSession &session = app->session();
    ASSERT_TRUE(session.selectStudy(session.studies()[3].id));
    Walker walk(*app);
    walk.dress(kDresses[1]);
    for (const MethodFacts &facts : allMethods()) {
        if (facts.method == firstTest(*session.study()).method)
            continue;
        ASSERT_TRUE(session.edit(QStringLiteral("further"), [&](Study &study) -> Status {
            study.tests.resize(1);
            study.tests.push_back({facts.method, 2, {}});
            std::erase_if(study.pieces, [&](const Piece &piece) { return !isOfFirstTest(study, piece); });
            return ok();
        }));
        session.setLens(Lens::Plan);
        for (const PlanStep step : {PlanStep::Specimen, PlanStep::Rig}) {
            app->step(step);
            for (const char *name : {"rigTest", "specimenTest"}) {
                auto *tests = app->window().findChild<QComboBox *>(QLatin1String(name));
                if (tests == nullptr || !tests->isVisible())
                    continue;
                tests->setCurrentIndex(tests->count() - 1);
                emit tests->activated(tests->count() - 1);
                walk.look(QString::fromUtf8(facts.name), QString::fromLatin1(name));
            }
        }
    }
    wearTheme(*qApp, paperTheme());
}

TEST(Walk, EveryMenuAndSideWindow)
{
    const auto app = AppHarness::onDemo();
    Walker walk(*app);
    for (const Dress &dress : {kDresses[0], kDresses[1]}) {
        walk.dress(dress);
        for (QAction *menu : app->window().menuBar()->actions()) {
            ASSERT_NE(menu->menu(), nullptr);
            menu->menu()->popup(QPoint(20, 20));
            QCoreApplication::processEvents();
            EXPECT_FALSE(menu->menu()->grab().isNull());
            menu->menu()->close();
        }
        app->window().showSettings();
        app->window().showWorkshop();
        app->window().showHelp(QString());
        app->window().showImport();
        QCoreApplication::processEvents();
        for (QWidget *window : QApplication::topLevelWidgets()) {
            if (!window->isVisible() || window == &app->window())
                continue;
            EXPECT_FALSE(window->grab().isNull());
            for (const QString &finding : layoutFindings(*window))
                ADD_FAILURE() << dress.name << ": " << finding.toStdString();
            window->close();
        }
        walk.look(QStringLiteral("import"), QStringLiteral("import"));
    }
    wearTheme(*qApp, paperTheme());
}

} // namespace inchpeg::app
