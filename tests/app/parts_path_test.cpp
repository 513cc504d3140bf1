// SPDX-License-Identifier: GPL-3.0-or-later
// Tests of parts, done again in the real window with made-up data, each ending in a sentence: threads held in
// six ways, infill under a gauge that ends, inserts set hot and cool, infill patterns with their minutes and
// looks, a tower by feel, a bracket in four polymers.
#include "app/app_harness.h"
#include "service/demo_typing.h"
#include "sim/record_writer.h"
#include "sim/virtual_judgement.h"
#include "sim/virtual_load.h"
#include "support/patience.h"

#include <QComboBox>
#include <QFile>
#include <QLabel>
#include <QSpinBox>

#include <fmt/format.h>

namespace inchpeg::app
{

namespace
{

/// They come from another thread; what stands there until then is of the study or test before.
void waitForAnswers(AppHarness &app)
{
    QCoreApplication::processEvents();
    const auto *strip = app.find<CompareStrip>("compareStrip");
    EXPECT_TRUE(QTest::qWaitFor([strip] { return !strip->isAnswering(); }, test::kPatience_ms));
    QCoreApplication::processEvents();
}

class PartsPath : public testing::Test
{
protected:
    AppHarness m_app;

    ProjectSession &session() { return m_app.session(); }
    const Study &study() { return *session().study(); }

    void begin(const char *question, const char *factor, const char *method, int pieces)
    {
        m_app.prompts().answer = m_app.path(QStringLiteral("parts.inchpeg"));
        m_app.click("welcomeNew");
        m_app.type("question", QString::fromUtf8(question));
        m_app.type("factorName", QString::fromUtf8(factor));
        m_app.choose("method", QString::fromUtf8(method));
        m_app.step(PlanStep::Pieces);
        m_app.find<QSpinBox>("pieces")->setValue(pieces);
        m_app.step(PlanStep::Ask);
    }

    std::string levelOf(const Piece &piece)
    {
        return findCondition(study(), piece.condition)->levels.front();
    }

    /// What a gauge on the cable writes of each piece of a test, by its rail.
    void dropCurves(Method test, const std::function<sim::LoadedPiece(const Piece &)> &pieceOf,
                    double range_N)
    {
        const sim::Rig rig{.slack_mm = 0.1,
                           .forceNoise_N = 0.3,
                           .resolution_N = 0.2,
                           .capacity_N = range_N,
                           .speed_mm_per_s = 0.1};
        QStringList paths;
        for (const Piece &piece : study().pieces) {
            if (piece.test != test)
                continue;
            const auto seed = static_cast<std::uint64_t>(piece.id.value);
            const QString path =
                m_app.path(QStringLiteral("load_%1.csv").arg(QString::fromStdString(piece.code)));
            QFile file(path);
            ASSERT_TRUE(file.open(QIODevice::WriteOnly));
            file.write(
                QByteArray::fromStdString(sim::recordBytes(sim::loadUntilItLetsGo(pieceOf(piece), rig, seed),
                                                           sim::Dialect::SemicolonComma, piece.code)));
            paths << path;
        }
        bringIn(paths);
    }

    /// Tables as they were written down beside the pieces.
    void dropTables(Method test, const std::function<std::string(const Piece &)> &tableOf)
    {
        session().setShownTest(test);
        QStringList paths;
        for (const Piece &piece : study().pieces) {
            if (piece.test != test)
                continue;
            const QString path =
                m_app.path(QStringLiteral("table_%1.txt").arg(QString::fromStdString(piece.code)));
            QFile file(path);
            ASSERT_TRUE(file.open(QIODevice::WriteOnly));
            file.write(
                QByteArray::fromStdString(demoTypedRecord(test, piece.code, tableOf(piece), ',', "by eye")));
            paths << path;
        }
        bringIn(paths);
    }

    void bringIn(const QStringList &paths)
    {
        m_app.dropFiles(paths);
        m_app.click("bringInFiles");
        m_app.waitUntilRead();
        for (const Piece &piece : study().pieces) {
            const auto reading = session().readings().find(piece.id);
            if (piece.recording && reading != session().readings().end()) {
                ASSERT_TRUE(*reading->second) << piece.code << ": " << (*reading->second).error().message;
            }
        }
    }

    /// Compare with its answers worked out.
    QString compare(Method test, const char *property = nullptr)
    {
        session().setLens(Lens::Compare);
        session().setShownTest(test);
        session().setResponseTableShown(false);
        if (property != nullptr)
            m_app.choose("comparedProperty", QString::fromUtf8(property));
        waitForAnswers(m_app);
        EXPECT_FALSE(answers().isEmpty());
        picture(methodName(test));
        return m_app.find<QLabel>("headline")->text();
    }
    QString answers() { return m_app.find<QLabel>("answers")->text(); }
    QString sentence(std::size_t rail) { return m_app.rack().model().rails[rail].sentence; }

    void picture(std::string_view name)
    {
        const QString folder = qEnvironmentVariable("INCHPEG_WALK_PICTURES");
        if (!folder.isEmpty())
            m_app.window().grab().save(folder + QStringLiteral("/parts-") +
                                       QString::fromUtf8(name.data(), qsizetype(name.size())) +
                                       QStringLiteral(".png"));
    }
};

} // namespace

// (a) Two polymers as two factors' rails would be twelve; here the way is the factor and the polymer the
// material.
TEST_F(PartsPath, SixWaysToHoldAThreadInTwoPolymers)
{
    begin("Which way holds a thread best?", "way", "pull-out", 4);
    for (const char *polymer : {"glycol-modified polyester", "styrenic"}) {
        m_app.type("newMaterial", QString::fromUtf8(polymer), false);
        m_app.type(
            "newLevels",
            QStringLiteral("insert from the front, insert drawn in, trapped nut, slotted nut, modelled "
                           "thread, cut thread"));
    }
    ASSERT_EQ(study().conditions.size(), 12U);
    m_app.step(PlanStep::Rig);
    m_app.type("said-diameter", QStringLiteral("5 mm"));
    m_app.type("said-depth", QStringLiteral("6 mm"));
    const std::map<std::string, double> strong_N = {
        {"insert from the front", 360.0}, {"insert drawn in", 620.0}, {"trapped nut", 800.0},
        {"slotted nut", 560.0},           {"modelled thread", 300.0}, {"cut thread", 210.0}};
    dropCurves(
        Method::PullOut,
        [&](const Piece &piece) {
            sim::Random random(static_cast<std::uint64_t>(piece.id.value));
            const bool isStyrenic = findCondition(study(), piece.condition)->material == "styrenic";
            return sim::LoadedPiece{
                sim::drawnStrength(strong_N.at(levelOf(piece)) * (isStyrenic ? 0.8 : 1.0), 0.06, random),
                500.0, false};
        },
        2000.0);
    const QString headline = compare(Method::PullOut);
    EXPECT_TRUE(headline.contains(QStringLiteral("trapped nut"))) << headline.toStdString();
    EXPECT_TRUE(answers().contains(QStringLiteral("trapped nut"))) << answers().toStdString();
    EXPECT_TRUE(sentence(2).contains(QStringLiteral("more than"))) << sentence(2).toStdString();
}

// (d) The pattern that is light, quick and clean.
TEST_F(PartsPath, TenInfillPatternsWithGramsAndGrades)
{
    begin("Which infill pattern for the reducer block?", "infill pattern", "puncture", 3);
    m_app.type("newLevels",
               QStringLiteral("grid, lines, gyroid, cubic, honeycomb, triangles, stars, concentric, cross, "
                              "lightning"));
    m_app.choose("addTest", QStringLiteral("print outcome"));
    ASSERT_EQ(study().conditions.size(), 10U);
    dropCurves(
        Method::Puncture,
        [&](const Piece &piece) {
            sim::Random random(static_cast<std::uint64_t>(piece.id.value));
            const double mean_N = levelOf(piece) == "lightning" ? 150.0
                                  : levelOf(piece) == "gyroid"  ? 420.0
                                                                : 300.0;
            return sim::LoadedPiece{sim::drawnStrength(mean_N, 0.05, random), 240.0, false};
        },
        2000.0);
    dropTables(Method::PrintOutcome, [&](const Piece &piece) {
        const double stringing = levelOf(piece) == "stars" ? 2.0 : 4.9;
        return sim::outcomeTable({stringing, 4.9, 4.9, 4.9, 4.9, 0.1},
                                 static_cast<std::uint64_t>(piece.id.value));
    });
    compare(Method::Puncture);
    EXPECT_TRUE(answers().contains(QStringLiteral("Clean and strong at once"))) << answers().toStdString();
    EXPECT_TRUE(answers().contains(QStringLiteral("gyroid"))) << answers().toStdString();
    const QString outcome = compare(Method::PrintOutcome);
    EXPECT_FALSE(outcome.contains(QLatin1Char('%'))) << "grades have no percent: " << outcome.toStdString();
}

// (g) One part of each and a word on each: bounds, grades, and no claim that four parts cannot carry.
TEST_F(PartsPath, ABracketInFourPolymers)
{
    begin("Which polymer for the bracket of the honey pump?", "polymer", "service trial", 2);
    m_app.type("newLevels", QStringLiteral("low-heat polyester, glycol polyester, styrenic, polyamide"));
    ASSERT_EQ(study().conditions.size(), 4U);
    const std::map<std::string, double> lasts_h = {
        {"low-heat polyester", 60.0}, {"glycol polyester", 900.0}, {"styrenic", 900.0}, {"polyamide", 900.0}};
    dropTables(Method::ServiceTrial, [&](const Piece &piece) {
        return sim::serviceTable(lasts_h.at(levelOf(piece)), 500.0, 4.0,
                                 static_cast<std::uint64_t>(piece.id.value));
    });
    session().setLens(Lens::Compare);
    session().setResponseTableShown(false);
    QTest::qWait(200);
    picture("bracket");
    EXPECT_TRUE(sentence(1).contains(QStringLiteral("still serve"))) << sentence(1).toStdString();
    m_app.choose("comparedProperty", QStringLiteral("Stiffness felt"));
    QCoreApplication::processEvents();
    EXPECT_TRUE(sentence(1).contains(QStringLiteral("Not told apart"))) << sentence(1).toStdString();
}

// (b), (c), (e): what the demo holds of them says what was put in.
TEST_F(PartsPath, TheDemosPartsSayWhatIsTrueOfThem)
{
    const auto demo = AppHarness::onDemo();
    ProjectSession &shown = demo->session();
    const auto tell = [&](std::size_t place, Method test) {
        EXPECT_TRUE(shown.selectStudy(shown.studies()[place].id));
        demo->waitUntilRead();
        shown.setLens(Lens::Compare);
        shown.setShownTest(test);
        shown.setResponseTableShown(false);
        waitForAnswers(*demo);
        const QString text = demo->find<QLabel>("headline")->text() + QLatin1Char('\n') +
                             demo->find<QLabel>("answers")->text();
        if (const QString folder = qEnvironmentVariable("INCHPEG_WALK_PICTURES"); !folder.isEmpty()) {
            demo->window().rack().finishSliding();
            demo->window().grab().save(
                folder + QStringLiteral("/demo-%1.png").arg(QString::fromUtf8(methodName(test))));
        }
        return text;
    };
    const QString inserts = tell(5, Method::PullOut);
    EXPECT_TRUE(inserts.contains(QStringLiteral("260"))) << inserts.toStdString();
    EXPECT_TRUE(inserts.contains(QStringLiteral("setting temperature"))) << inserts.toStdString();
    const QString infill = tell(6, Method::Puncture);
    EXPECT_TRUE(infill.contains(QStringLiteral("each bound counted as one"))) << infill.toStdString();
    const QString tower = tell(7, Method::ByFeel);
    EXPECT_TRUE(tower.contains(QStringLiteral("the grades rise"))) << tower.toStdString();
    EXPECT_TRUE(tower.contains(QStringLiteral("Clean and strong at once"))) << tower.toStdString();
    EXPECT_TRUE(tower.contains(QStringLiteral("245 °C."))) << tower.toStdString();
}

} // namespace inchpeg::app
