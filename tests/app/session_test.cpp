// SPDX-License-Identifier: GPL-3.0-or-later
// The session and its presenters without a window.
#include "app/plan/pieces_presenter.h"
#include "app/read/read_presenter.h"
#include "app/session/project_session.h"
#include "core/method/tension/tension_reading.h"
#include "service/demo_project.h"
#include "support/patience.h"
#include "support/read_value.h"

#include <QFile>
#include <QTemporaryDir>
#include <QTest>

#include <gtest/gtest.h>

namespace inchpeg::app
{

namespace
{

class SessionTest : public testing::Test
{
protected:
    QTemporaryDir m_folder;
    QString m_path = m_folder.filePath(QStringLiteral("p.inchpeg"));
    QString m_failure; ///< before the session, which may still tell something while it goes
    ProjectSession m_session{QStringLiteral("me"), [] { return std::string("2026-06-01T10:00:00Z"); }};

    void SetUp() override
    {
        QObject::connect(&m_session, &ProjectSession::failed,
                         [this](const QString &sentence) { m_failure = sentence; });
    }
    void openDemo()
    {
        ASSERT_TRUE(writeDemoProject(m_path.toStdString()));
        ASSERT_TRUE(m_session.openProject(m_path));
        waitUntilRead();
    }
    void waitUntilRead()
    {
        ASSERT_TRUE(QTest::qWaitFor([this] { return !m_session.isReading(); }, test::kPatience_ms));
    }
    [[nodiscard]] const Study &study() const { return *m_session.study(); }
};

/// The parameter of the demo's first test.
const Parameter &gaugeLength()
{
    return *findParameter(reductionOf(Method::LayerAdhesion)->parameters, "gauge_length");
}

} // namespace

TEST_F(SessionTest, ReadsEveryRecordOfTheDemo)
{
    openDemo();
    EXPECT_EQ(m_session.studies().size(), 8U);
    EXPECT_EQ(m_session.readings().size(), 30U);
    for (const auto &[piece, reading] : m_session.readings())
        EXPECT_TRUE(reading->has_value()) << findPiece(study(), piece)->code << ": "
                                          << (reading->has_value() ? "" : reading->error().message);
}

TEST_F(SessionTest, EveryEditIsUndoneAndRedone)
{
    openDemo();
    PlanPresenter plan(m_session);
    const Study before = study();
    EXPECT_TRUE(plan.setQuestion(QStringLiteral("Another question?")));
    EXPECT_TRUE(plan.setPiecesPerRail(plan.firstTest(), 8));
    const Study after = study();
    EXPECT_EQ(m_session.undoText(), QStringLiteral("change the number of pieces"));
    ASSERT_TRUE(m_session.undo());
    ASSERT_TRUE(m_session.undo());
    EXPECT_EQ(study(), before);
    EXPECT_TRUE(m_session.undoText().isEmpty());
    EXPECT_EQ(m_session.redoText(), QStringLiteral("change the question"));
    ASSERT_TRUE(m_session.redo());
    ASSERT_TRUE(m_session.redo());
    EXPECT_EQ(study(), after);
    EXPECT_EQ(*m_session.project().loadStudy(after.id), after) << "what is shown is what is saved";
}

TEST_F(SessionTest, ARefusedEditChangesNothing)
{
    openDemo();
    PlanPresenter plan(m_session);
    const Study before = study();
    EXPECT_FALSE(plan.setQuestion(QStringLiteral("   ")));
    EXPECT_TRUE(m_failure.contains(QStringLiteral("needs words")));
    EXPECT_FALSE(plan.setParameter(plan.firstTest(), gaugeLength(), QStringLiteral("25 N")));
    EXPECT_TRUE(m_failure.contains(QStringLiteral("a length is wanted"))) << m_failure.toStdString();
    EXPECT_EQ(study(), before);
    EXPECT_TRUE(m_session.undoText().isEmpty()) << "a refused edit is no step";
    // Levels that are names have no unit: that edit is refused, those before it stand and are taken back.
    EXPECT_TRUE(plan.setFactor(0, QStringLiteral("lot"), QString()));
    EXPECT_TRUE(plan.addLevels(QStringLiteral("x"), Orientation::Flat, {}));
    const Study named = study();
    EXPECT_FALSE(plan.setFactor(0, QStringLiteral("lot"), QStringLiteral("mm")));
    EXPECT_FALSE(plan.setFactor(5, QStringLiteral("lot"), QString())) << "typed into a factor that is gone";
    EXPECT_EQ(study(), named);
    while (!m_session.undoText().isEmpty())
        ASSERT_TRUE(m_session.undo());
    EXPECT_EQ(study(), before);
}

TEST_F(SessionTest, OnlyWhatChangedIsReadAgain)
{
    openDemo();
    const PieceId changed = study().pieces[2].id;
    const auto kept = m_session.readings().at(study().pieces[5].id);
    const auto old = m_session.readings().at(changed);
    ASSERT_TRUE(m_session.tryEdit(QStringLiteral("measure"), [&](Study &s) {
        findPiece(s, changed)->section = RectangularSection{millimetres(10), millimetres(4)};
        return ok();
    }));
    waitUntilRead();
    EXPECT_EQ(m_session.readings().at(study().pieces[5].id), kept) << "the same object, not read again";
    EXPECT_NE(m_session.readings().at(changed), old);
    EXPECT_NEAR(test::readValue(readingOf(m_session.readings(), changed)->result, "tensile_strength"),
                test::readValue(old->value().result, "peak_force") / 40.0, 1e-9);
}

TEST_F(SessionTest, ChangingARuleReadsTheWholeStudy)
{
    openDemo();
    PlanPresenter plan(m_session);
    const PieceId piece = study().pieces[0].id;
    const double before = test::readValue(readingOf(m_session.readings(), piece)->result, "tensile_modulus");
    EXPECT_TRUE(plan.setParameter(plan.firstTest(), gaugeLength(), QStringLiteral("50 mm")));
    waitUntilRead();
    EXPECT_NEAR(test::readValue(readingOf(m_session.readings(), piece)->result, "tensile_modulus") / before,
                2.0, 0.2);
}

TEST_F(SessionTest, ASectionOfZeroIsSaidAtThePiece)
{
    openDemo();
    const PieceId piece = study().pieces[0].id;
    ASSERT_TRUE(m_session.tryEdit(QStringLiteral("spoil"), [&](Study &s) {
        findPiece(s, piece)->section = RectangularSection{Length{}, millimetres(4)};
        return ok();
    }));
    waitUntilRead();
    const auto reading = m_session.readings().at(piece);
    ASSERT_FALSE(reading->has_value());
    EXPECT_NE(reading->error().message.find("width"), std::string::npos);
}

TEST_F(SessionTest, OpensWhereThePersonWas)
{
    openDemo();
    ASSERT_TRUE(m_session.selectStudy(m_session.studies()[1].id));
    waitUntilRead();
    m_session.setLens(Lens::Compare);
    m_session.setComparedProperty(QStringLiteral("tensile_modulus"));
    m_session.setTestTableShown(true);
    m_session.setRailShown(study().conditions[2].id, false);
    m_session.selectPiece(study().pieces[7].id);
    const PieceId piece = m_session.selectedPiece();
    const ConditionId hidden = study().conditions[2].id;
    m_session.closeProject();

    ProjectSession again(QStringLiteral("me"), [] { return std::string(); });
    ASSERT_TRUE(again.openProject(m_path));
    EXPECT_EQ(again.study()->id, again.studies()[1].id);
    EXPECT_EQ(again.lens(), Lens::Compare);
    EXPECT_EQ(again.comparedProperty(), QStringLiteral("tensile_modulus"));
    EXPECT_TRUE(again.isTestTableShown());
    EXPECT_FALSE(again.isRailShown(hidden));
    EXPECT_EQ(again.selectedPiece(), piece);
}

TEST_F(SessionTest, DamagedViewSettingsDoNoHarm)
{
    openDemo();
    m_session.closeProject();
    for (const char *text :
         {"", "no json", "[]", "{\"study\":\"x\",\"lens\":7,\"hidden_rails\":3}", "{\"study\":999999}"}) {
        {
            Result<ProjectFile> project = ProjectFile::open(m_path.toStdString());
            ASSERT_TRUE(project->setSetting("view", text));
        }
        ProjectSession again(QStringLiteral("me"), [] { return std::string(); });
        ASSERT_TRUE(again.openProject(m_path)) << text;
        EXPECT_NE(again.study(), nullptr) << text;
    }
}

TEST_F(SessionTest, LevelsAreTakenApartAsTyped)
{
    ASSERT_TRUE(m_session.createProject(m_path));
    ASSERT_TRUE(m_session.addStudy(QStringLiteral("q?")));
    PlanPresenter plan(m_session);
    const auto levels = [&](const QString &unit, const QString &list) {
        EXPECT_TRUE(m_session.addStudy(QStringLiteral("q?")));
        EXPECT_TRUE(plan.setFactor(0, QStringLiteral("f"), unit));
        EXPECT_TRUE(plan.addLevels(list, Orientation::Flat, {})) << m_failure.toStdString();
        std::string text;
        for (const Condition &condition : study().conditions)
            text += (text.empty() ? "" : "|") + condition.levels.front();
        return text;
    };
    EXPECT_EQ(levels(QStringLiteral("°C"), QStringLiteral("230, 245, 260")), "230|245|260");
    EXPECT_EQ(levels(QStringLiteral("°C"), QStringLiteral("230,245")), "230|245");
    EXPECT_EQ(levels(QStringLiteral("mm"), QStringLiteral("0,2; 0,3")), "0,2|0,3");
    EXPECT_EQ(levels(QStringLiteral("mm"), QStringLiteral("0,2")), "0,2");
    EXPECT_EQ(levels(QString(), QStringLiteral("Meadow 3, Heather 9")), "Meadow 3|Heather 9");
    EXPECT_FALSE(plan.addLevels(QStringLiteral("  "), Orientation::Flat, {}));
    EXPECT_FALSE(plan.addLevels(QStringLiteral("Heather 9"), Orientation::Flat, {})) << "twice the same";
}

TEST_F(SessionTest, ThePlanKnowsItsScatter)
{
    openDemo();
    PlanPresenter plan(m_session);
    PiecesPresenter pieces(plan);
    EXPECT_TRUE(pieces.scatterSource().contains(QStringLiteral("pieces in this study")));
    EXPECT_GT(pieces.scatterPercent(), 1.0);
    EXPECT_LT(pieces.scatterPercent(), 8.0);
    plan.setScatter(20.0);
    EXPECT_EQ(pieces.scatterSource(), QStringLiteral("set by you"));
    pieces.refresh();
    ASSERT_TRUE(QTest::qWaitFor([&] { return !pieces.isWorking(); }, test::kPatience_ms));
    EXPECT_TRUE(pieces.sentence().contains(QStringLiteral("scatter by 20 %")))
        << pieces.sentence().toStdString();
    plan.setScatter(0.0);
    EXPECT_TRUE(pieces.scatterSource().contains(QStringLiteral("pieces in this study")));
    ASSERT_TRUE(m_session.addStudy(QStringLiteral("new?")));
    EXPECT_TRUE(pieces.scatterSource().contains(QStringLiteral("common practice")))
        << "a new study has no reference whose material could be looked up";
}

TEST_F(SessionTest, LeavingOutNeedsAReasonAndKeepsWhoAndWhen)
{
    openDemo();
    ReadPresenter read(m_session);
    m_session.selectPiece(study().pieces[0].id);
    EXPECT_FALSE(read.leaveOut(QStringLiteral("  ")));
    EXPECT_TRUE(m_failure.contains(QStringLiteral("say why")));
    EXPECT_TRUE(read.leaveOut(QStringLiteral("cracked before the test")));
    EXPECT_EQ(study().pieces[0].exclusion,
              (Exclusion{"cracked before the test", "me", "2026-06-01T10:00:00Z"}));
    EXPECT_TRUE(read.card().isLeftOut);
    EXPECT_TRUE(read.card().exclusionText.contains(QStringLiteral("cracked")));
    EXPECT_TRUE(read.takeBackIn());
    EXPECT_FALSE(study().pieces[0].exclusion);
}

TEST_F(SessionTest, TheCardTracesANumberToItsRuleAndItsBytes)
{
    openDemo();
    ReadPresenter read(m_session);
    const PieceCard card = read.card();
    ASSERT_EQ(card.properties.size(), kTensileReduction.properties.size());
    EXPECT_EQ(card.properties[0].label, QStringLiteral("Modulus"));
    EXPECT_TRUE(card.properties[0].value.endsWith(QStringLiteral("MPa")));
    EXPECT_TRUE(card.properties[0].rule.contains(QStringLiteral("ISO 527-1")));
    EXPECT_TRUE(card.origin.contains(QStringLiteral("layers_A1.csv")) &&
                card.origin.contains(QStringLiteral("SHA-256")));
}

TEST_F(SessionTest, TheCardWarnsOfEveryGaugeWhoseCalibrationHadEnded)
{
    openDemo();
    ReadPresenter read(m_session);
    const auto warned = [&](const char *gauge) {
        return !read.card().attention.filter(QString::fromUtf8(gauge)).isEmpty();
    };
    EXPECT_TRUE(warned("test frame 2 kN was used on")) << "the demo's frame";
    EXPECT_FALSE(warned("callipers"));
    const auto expire = [&](const char *due) {
        ASSERT_TRUE(m_session.edit(QStringLiteral("gauges"), [&](Study &changed) {
            for (MeasuredWith &with : findPiece(changed, m_session.selectedPiece())->log.gauges)
                with.gauge.calibration->due = due;
            return ok();
        }));
    };
    expire("2026-02-01");
    EXPECT_TRUE(warned("callipers was used on 2026-05-08"));
    EXPECT_TRUE(warned("scale 200 g was used on 2026-05-08"));
    expire("");
    EXPECT_FALSE(warned("callipers")) << "without a day there is no end";
}

TEST_F(SessionTest, AnEmptyPlotSaysWhyItIsEmpty)
{
    ReadPresenter read(m_session);
    EXPECT_EQ(read.emptyText(), QStringLiteral("No study is on the rack."));
    openDemo();
    EXPECT_TRUE(read.emptyText().isEmpty()) << read.emptyText().toStdString();
    for (const Condition &condition : std::vector<Condition>(study().conditions))
        m_session.setRailShown(condition.id, false);
    EXPECT_TRUE(read.emptyText().contains(QStringLiteral("Nothing to draw")));
    ASSERT_TRUE(m_session.addStudy(QStringLiteral("Another?")));
    EXPECT_TRUE(read.emptyText().contains(QStringLiteral("Bring in records")));
}

TEST_F(SessionTest, ACardOfAPieceWithoutARecordSaysSo)
{
    openDemo();
    ReadPresenter read(m_session);
    ASSERT_TRUE(m_session.selectStudy(m_session.studies()[3].id));
    m_session.selectPiece(study().pieces[2].id);
    const PieceCard card = read.card();
    EXPECT_EQ(card.origin, QStringLiteral("no record yet"));
    EXPECT_TRUE(card.properties.empty());
    EXPECT_TRUE(card.attention.isEmpty());
}

// Nothing of a project that is open for reading is changed, by whatever way.
TEST_F(SessionTest, AProjectForReadingTakesNothing)
{
    openDemo();
    const QString path = m_session.projectPath();
    m_session.closeProject();
    ASSERT_TRUE(m_session.openForReading(path));
    EXPECT_TRUE(m_session.isForReading());
    EXPECT_FALSE(m_session.addStudy(QStringLiteral("New?")));
    EXPECT_FALSE(m_session.edit(QStringLiteral("note"), [](Study &changed) {
        changed.log.note = "x";
        return ok();
    }));
    EXPECT_FALSE(m_session.tryEditWorkshop(QStringLiteral("money"), [](Workshop &workshop) {
        workshop.moneyUnit = "CHF";
        return ok();
    }));
    EXPECT_FALSE(m_session.keepRawFiles({{{}, "a.csv", {}, std::make_shared<const std::string>("1")}},
                                        [](const KeptRawFiles &) { FAIL() << "nothing was to be kept"; }));
    EXPECT_FALSE(m_session.compact([](const Status &) {}));
    EXPECT_NE(m_session.workshop().moneyUnit, "CHF");
    EXPECT_TRUE(study().log.note.empty());
}

TEST_F(SessionTest, CurvesEndAtTheBreakAndHiddenRailsAreNotDrawn)
{
    openDemo();
    ReadPresenter read(m_session);
    EXPECT_EQ(read.curves().size(), 30U);
    m_session.setRailShown(study().conditions[0].id, false);
    EXPECT_EQ(read.curves().size(), 24U);
    EXPECT_TRUE(read.markers().empty()) << "the chosen piece is on the hidden rail";
    m_session.selectPiece(study().pieces.back().id);
    EXPECT_GE(read.markers().size(), 4U);
    const std::vector<CurveModel> curves = read.curves();
    EXPECT_TRUE(curves.back().isSelected) << "its tail is drawn";
    EXPECT_FALSE(curves.front().isSelected);
    const PieceReading *reading = readingOf(m_session.readings(), curves.back().piece);
    EXPECT_EQ(curves.back().shape->body().size(), reading->result.picture.record->endAt + 1);
    EXPECT_GT(curves.back().shape->tail().size(), 1U);
}

TEST_F(SessionTest, ANumberedProjectThatCannotBeOpenedLeavesTheOldOneOpen)
{
    openDemo();
    const Status opened = m_session.openProject(m_folder.filePath(QStringLiteral("missing.inchpeg")));
    ASSERT_FALSE(opened);
    EXPECT_EQ(opened.error().code, ErrorCode::NotFound);
    EXPECT_EQ(m_session.projectPath(), m_path);
    EXPECT_NE(m_session.study(), nullptr);
}

TEST_F(SessionTest, ASecondWindowIsRefusedAndToldWhoHoldsTheProject)
{
    openDemo();
    ProjectSession second(QStringLiteral("you"), [] { return std::string(); });
    const Status opened = second.openProject(m_path);
    ASSERT_FALSE(opened);
    EXPECT_NE(opened.error().message.find("is open already, by"), std::string::npos)
        << opened.error().message;
    EXPECT_NE(opened.error().message.find(std::to_string(QCoreApplication::applicationPid())),
              std::string::npos);
    EXPECT_TRUE(m_session.openProject(m_path)) << "the holder itself may open it again";
    m_session.closeProject();
    EXPECT_TRUE(second.openProject(m_path));
    EXPECT_FALSE(QFile::exists(m_folder.filePath(QStringLiteral("missing.inchpeg.lock"))));
}

TEST_F(SessionTest, ALockThatACrashLeftBehindIsTakenOver)
{
    ASSERT_TRUE(writeDemoProject(m_path.toStdString()));
    QFile lock(m_path + QStringLiteral(".lock"));
    ASSERT_TRUE(lock.open(QIODevice::WriteOnly));
    lock.write("999999999\ninchpeg\n" + QSysInfo::machineHostName().toUtf8() +
               "\n"); // no process has this number
    lock.close();
    EXPECT_TRUE(m_session.openProject(m_path));
}

} // namespace inchpeg::app
