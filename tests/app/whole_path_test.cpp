// SPDX-License-Identifier: GPL-3.0-or-later
// The whole way through the real window: question, rails, measurements, files in six dialects, reading,
// comparing, closing and opening again.
#include "app/app_harness.h"
#include "app/import/import_view.h"
#include "app/read/read_presenter.h"
#include "core/method/tension/tension_reading.h"
#include "sim/record_writer.h"
#include "sim/virtual_specimen.h"
#include "support/patience.h"

#include <QAbstractItemModel>
#include <QClipboard>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QDropEvent>
#include <QFile>
#include <QLabel>
#include <QMimeData>
#include <QPushButton>
#include <QTableView>

namespace inchpeg::app
{

namespace
{

using sim::Dialect;

constexpr double kWidth_mm = 5.0;
constexpr double kThickness_mm = 4.0;

class WholePath : public testing::Test
{
protected:
    AppHarness m_app;

    ProjectSession &session() { return m_app.session(); }
    const Study &study() { return *session().study(); }
    PieceId piece(const char *code)
    {
        for (const Piece &candidate : study().pieces) {
            if (candidate.code == code)
                return candidate.id;
        }
        ADD_FAILURE() << "no piece " << code;
        return {};
    }

    QString writeRecord(const char *name, double nozzle_C, Dialect dialect, std::uint64_t seed)
    {
        const sim::Rig rig{.gaugeLength_mm = 25.0,
                           .slack_mm = 0.02,
                           .forceNoise_N = 0.3,
                           .speed_mm_per_s = 1.0 / 60.0,
                           .rate_Hz = 20.0};
        const ForceCurve curve = sim::pull(sim::glycolPolyester(), {true, nozzle_C, 0.0},
                                           squareMillimetres(kWidth_mm * kThickness_mm), rig, seed);
        const std::string bytes = sim::recordBytes(curve, dialect, name);
        QFile file(m_app.path(QString::fromUtf8(name)));
        EXPECT_TRUE(file.open(QIODevice::WriteOnly));
        file.write(bytes.data(), static_cast<qint64>(bytes.size()));
        return file.fileName();
    }

    /// Drags a file of the import page onto a peg of the rack.
    void dragOntoPeg(std::size_t file, PieceId target)
    {
        QMimeData data;
        data.setData(QLatin1String(kFileIndexMime), QByteArray::number(static_cast<int>(file)));
        const QPointF at = *m_app.rack().pegPosition(target);
        QDragEnterEvent enter(at.toPoint(), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(m_app.rack().viewport(), &enter);
        QDragMoveEvent move(at.toPoint(), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(m_app.rack().viewport(), &move);
        EXPECT_TRUE(move.isAccepted());
        QDropEvent drop(at, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(m_app.rack().viewport(), &drop);
        QCoreApplication::processEvents();
    }

    void makeStudy()
    {
        m_app.prompts().answer = m_app.path(QStringLiteral("season.inchpeg"));
        m_app.click("welcomeNew");
        ASSERT_NE(session().study(), nullptr) << m_app.notice().toStdString();
        m_app.type("question", QStringLiteral("Do hotter layers of the latch hold better?"));
        m_app.type("factorName", QStringLiteral("nozzle temperature"));
        m_app.type("factorUnit", QStringLiteral("°C"));
        m_app.choose("method", QStringLiteral("layer adhesion"));
        m_app.type("smallestDifference", QStringLiteral("12 %"));
        m_app.choose("newOrientation", QStringLiteral("standing"));
        m_app.type("newMaterial", QStringLiteral("polyester, lot 3"), false);
        m_app.type("newLevels", QStringLiteral("220, 250, 280"));
        m_app.step(PlanStep::Rig);
        m_app.type("said-gauge_length", QStringLiteral("25 mm"));
        m_app.type("said-grip_distance", QStringLiteral("25 mm"));
        m_app.step(PlanStep::Pieces);
        m_app.find<QSpinBox>("pieces")->setValue(4);
        EXPECT_EQ(m_app.notice(), QString());
        ASSERT_EQ(study().conditions.size(), 3U);
        EXPECT_EQ(study().question, "Do hotter layers of the latch hold better?");
        EXPECT_EQ(study().pieces.size(), 12U);
        EXPECT_EQ(study().smallestDifference, 0.12);
        EXPECT_EQ(m_app.rack().model().rails.size(), 3U);
        auto *words = m_app.find<QLabel>("planText");
        EXPECT_TRUE(QTest::qWaitFor(
            [words] { return words->text().startsWith(QStringLiteral("Four pieces a rail show")); },
            test::kPatience_ms))
            << words->text().toStdString();
    }

    /// Types the first rail cell by cell, pastes the rest.
    void measure()
    {
        m_app.click("lens2");
        QTest::keyClick(m_app.find<QComboBox>("walk"), Qt::Key_Down); // sizes only
        auto *table = m_app.find<QTableView>("measureTable");
        table->setFocus();
        table->setCurrentIndex(table->model()->index(0, 2));
        for (int i = 0; i < 4; ++i) {
            for (const char *digits : {"5.0", "4,0"}) {
                QTest::keyClicks(table, QString::fromUtf8(digits).left(1)); // the first key opens the cell
                QWidget *editor = QApplication::focusWidget();
                QTest::keyClicks(editor, QString::fromUtf8(digits).mid(1));
                QTest::keyClick(editor, Qt::Key_Return);
                QCoreApplication::processEvents();
            }
        }
        EXPECT_EQ(study().pieces[3].section, Section(RectangularSection{millimetres(5), millimetres(4)}))
            << "eight values, eight Enters";
        QString block;
        for (int i = 0; i < 8; ++i)
            block += QStringLiteral("5.00\t4.00\n");
        QApplication::clipboard()->setText(block);
        table->setCurrentIndex(table->model()->index(4, 2));
        m_app.key(Qt::Key_V, Qt::ControlModifier);
        for (const Piece &piece : study().pieces)
            EXPECT_EQ(piece.section, Section(RectangularSection{millimetres(5), millimetres(4)}))
                << piece.code;
    }

    void bringIn()
    {
        QStringList files;
        std::uint64_t seed = 11;
        const Dialect dialects[] = {
            Dialect::CommaUtf8,    Dialect::SemicolonComma,      Dialect::TabUtf16,
            Dialect::PoundsInches, Dialect::KilogramForceSpaces, Dialect::GroupedThousands};
        std::size_t next = 0;
        for (const char *code : {"A1", "A2", "A3", "A4", "B1", "B2", "B3", "B4", "C1", "C2"}) {
            const double nozzle_C = *code == 'A' ? 220.0 : *code == 'B' ? 250.0 : 280.0;
            files << writeRecord(qPrintable(QStringLiteral("latch_%1.csv").arg(QLatin1String(code))),
                                 nozzle_C, dialects[next++ % 6], seed++);
        }
        files << writeRecord("stray.csv", 280.0, Dialect::CommaUtf8, 90);
        QFile odd(m_app.path(QStringLiteral("latch_C4.csv"))); // headings that say nothing
        ASSERT_TRUE(odd.open(QIODevice::WriteOnly));
        odd.write(
            QByteArray::fromStdString(
                sim::recordBytes(
                    sim::pull(sim::glycolPolyester(), {true, 280.0, 0.0}, squareMillimetres(20),
                              {.gaugeLength_mm = 25.0, .speed_mm_per_s = 1.0 / 60.0, .rate_Hz = 20.0}, 91),
                    Dialect::CommaUtf8, ""))
                .replace("time_s,force_N,extension_mm", "a,b,c"));
        odd.close();
        files << odd.fileName();
        m_app.dropFiles(files);
        EXPECT_TRUE(
            m_app.find<QLabel>("importSummary")
                ->text()
                .contains(QStringLiteral("12 files: 10 ready, 1 without a peg, 1 that cannot be read")))
            << m_app.find<QLabel>("importSummary")->text().toStdString();

        const auto indexOf = [&](const char *name) {
            const auto &entries = m_app.window().importPresenter().entries();
            for (std::size_t i = 0; i < entries.size(); ++i) {
                if (entries[i].file.name == name)
                    return i;
            }
            ADD_FAILURE() << name;
            return std::size_t{0};
        };
        auto *table = m_app.find<QTableView>("importTable");
        const auto select = [&](std::size_t row) {
            table->setCurrentIndex(table->model()->index(static_cast<int>(row), 0));
        };
        select(indexOf("latch_C4.csv"));
        m_app.choose("quantity0", QStringLiteral("time"));
        m_app.choose("quantity1", QStringLiteral("force"));
        m_app.choose("quantity2", QStringLiteral("extension"));
        EXPECT_FALSE(m_app.window().importPresenter().entries()[indexOf("latch_C4.csv")].file.problem);
        m_app.choose("pieceOfFile", QStringLiteral("C4"));
        dragOntoPeg(indexOf("stray.csv"), piece("C3"));
        EXPECT_EQ(m_app.find<QPushButton>("bringInFiles")->text(), QStringLiteral("Bring in 12 records"));
        m_app.click("bringInFiles");
        m_app.waitUntilRead();
        EXPECT_EQ(m_app.notice(), QString());
        EXPECT_EQ(session().readings().size(), 12U);
        for (const RailModel &rail : m_app.rack().model().rails) {
            for (const PegModel &peg : rail.pegs)
                EXPECT_EQ(peg.state, PegState::Read) << peg.tip.toStdString();
        }
    }

    void read()
    {
        m_app.rack().setFocus();
        m_app.key(Qt::Key_4, Qt::ControlModifier);
        EXPECT_EQ(session().lens(), Lens::Read);
        EXPECT_TRUE(m_app.find<QWidget>("curvePlot")->isVisible());
        session().selectPiece(piece("A1"));
        m_app.rack().setFocus();
        m_app.key(Qt::Key_Right);
        EXPECT_EQ(session().selectedPiece(), piece("A2"));
        m_app.key(Qt::Key_Down);
        EXPECT_EQ(session().selectedPiece(), piece("B2"));
        EXPECT_TRUE(m_app.find<QLabel>("pieceTitle")->text().startsWith(QStringLiteral("B2")));
        EXPECT_TRUE(m_app.find<QWidget>("curvePlot")
                        ->toolTip()
                        .contains(QStringLiteral("Modulus from: The modulus is the slope")));
        m_app.type("exclusionReason", QStringLiteral("cracked in the clamp"));
        EXPECT_EQ(findPiece(study(), piece("B2"))->exclusion->reason, "cracked in the clamp");
        const auto states = [&] { return m_app.rack().model().rails[1].pegs[1].state; };
        EXPECT_EQ(states(), PegState::LeftOut);
        m_app.click("takeBack");
        EXPECT_EQ(states(), PegState::Read);
        m_app.key(Qt::Key_Z, Qt::ControlModifier);
        EXPECT_EQ(states(), PegState::LeftOut) << "taking back in is undone";
    }

    void compare()
    {
        m_app.rack().setFocus();
        m_app.key(Qt::Key_5, Qt::ControlModifier);
        m_app.waitUntilRead();
        const RackModel &rack = m_app.rack().model();
        EXPECT_EQ(rack.rails[0].standing, Standing::Reference);
        EXPECT_EQ(rack.rails[1].standing, Standing::Higher) << rack.rails[1].sentence.toStdString();
        // The truth behind the virtual pieces: 220 °C holds 1/(1+(28/38)²) of the best, 250 °C all but all of
        // it.
        const double truth = sim::expectedStrength_MPa(sim::glycolPolyester(), {true, 250.0, 0.0}) /
                             sim::expectedStrength_MPa(sim::glycolPolyester(), {true, 220.0, 0.0});
        const StudyComparison comparison =
            compareStudy(study(), session().readings(), *findProperty(kTensileReduction, kUsualProperty));
        EXPECT_LE(comparison.rails[1].effect->ci.low, truth);
        EXPECT_GE(comparison.rails[1].effect->ci.high, truth);
        EXPECT_TRUE(rack.rails[1].sentence.contains(QStringLiteral("3 and 4 pieces")));
        EXPECT_TRUE(rack.rails[1].sentence.contains(QStringLiteral("Left out: 1 piece.")));
        EXPECT_TRUE(m_app.find<QLabel>("headline")->text().contains(QStringLiteral("250 °C above 220 °C")))
            << m_app.find<QLabel>("headline")->text().toStdString();
        const QPointF peg = *m_app.rack().pegPosition(piece("C1"));
        QTest::mouseClick(m_app.rack().viewport(), Qt::LeftButton, {}, peg.toPoint());
        EXPECT_EQ(session().selectedPiece(), piece("C1"));
        EXPECT_TRUE(
            QTest::qWaitFor([&] { return m_app.find<QLabel>("answers")->isVisible(); }, test::kPatience_ms));
        EXPECT_TRUE(m_app.find<QLabel>("answers")->text().contains(QStringLiteral("best")))
            << m_app.find<QLabel>("answers")->text().toStdString();
        EXPECT_FALSE(m_app.find<QLabel>("procedure")->isVisible());
        m_app.click("showTests");
        EXPECT_TRUE(m_app.find<QLabel>("procedure")->isVisible());
        EXPECT_TRUE(m_app.find<QLabel>("procedure")->text().startsWith(QStringLiteral("Ratios of means; ")));
        auto *tests = m_app.find<QTableView>("testTable");
        EXPECT_TRUE(tests->isVisible());
        EXPECT_EQ(tests->model()->rowCount(), 3);
        EXPECT_TRUE(tests->model()->index(1, 5).data().toString().contains(QStringLiteral(" to ")));
        m_app.choose("comparedProperty", QStringLiteral("Breaking force"));
        EXPECT_EQ(m_app.rack().model().scaleTitle, QStringLiteral("Breaking force in N"));
    }
};

} // namespace

TEST_F(WholePath, FromTheQuestionToTheVerdictAndBack)
{
    makeStudy();
    if (HasFatalFailure())
        return;
    measure();
    bringIn();
    read();
    compare();

    const Study before = study();
    const PieceId chosen = session().selectedPiece();
    m_app.restart();
    ASSERT_TRUE(session().openProject(m_app.path(QStringLiteral("season.inchpeg"))));
    m_app.waitUntilRead();
    EXPECT_EQ(study(), before);
    EXPECT_EQ(session().lens(), Lens::Compare);
    EXPECT_EQ(session().selectedPiece(), chosen);
    EXPECT_TRUE(m_app.find<QTableView>("testTable")->isVisible());
    EXPECT_EQ(m_app.rack().model().scaleTitle, QStringLiteral("Breaking force in N"));

    m_app.click("lens2");
    m_app.dropFiles({m_app.path(QStringLiteral("latch_A1.csv"))});
    EXPECT_TRUE(ImportPresenter::knownText(m_app.window().importPresenter().entries()[0])
                    .contains(QStringLiteral("already in this project")));
    EXPECT_TRUE(session().project().verify()->findings.empty());
}

TEST_F(WholePath, ARefusedProjectIsToldOnTheNoticeBar)
{
    QFile file(m_app.path(QStringLiteral("letter.txt")));
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write("Dear bees,");
    file.close();
    m_app.prompts().answer = file.fileName();
    m_app.click("welcomeOpen");
    EXPECT_TRUE(m_app.notice().contains(QStringLiteral("is not an Inch Peg project")))
        << m_app.notice().toStdString();
    m_app.click("closeNotice");
    EXPECT_EQ(m_app.notice(), QString());
}

} // namespace inchpeg::app
