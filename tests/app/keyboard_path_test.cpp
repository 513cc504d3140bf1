// SPDX-License-Identifier: GPL-3.0-or-later
// From the question to the verdict with the keyboard alone: every key goes to what has the focus.
#include "app/import/import_view.h"
#include "app_harness.h"
#include "sim/record_writer.h"
#include "sim/virtual_specimen.h"
#include "support/patience.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QTableView>

namespace inchpeg::app
{

namespace
{

class KeyboardPath : public testing::Test
{
protected:
    AppHarness m_app;
    int m_written = 0; ///< keys that write
    int m_pressed = 0; ///< keys that lead from place to place, or end a value

    void press(int key, Qt::KeyboardModifiers modifiers = Qt::NoModifier)
    {
        ++m_pressed;
        m_app.key(key, modifiers);
    }

    ProjectSession &session() { return m_app.session(); }

    /// Presses Tab until the part with this name has the focus.
    void tabTo(const QString &name)
    {
        for (int i = 0; i < 120; ++i) {
            QWidget *focus = QApplication::focusWidget();
            if (focus != nullptr && focus->objectName() == name)
                return;
            // In the grid of measurements Tab goes on to the next cell; F6 leaves it.
            const bool inGrid = focus != nullptr && focus->objectName() == QStringLiteral("measureTable");
            press(inGrid ? Qt::Key_F6 : Qt::Key_Tab);
        }
        FAIL() << name.toStdString() << " is not reached by Tab";
    }

    void typeInto(const QString &name, const QString &text)
    {
        tabTo(name);
        press(Qt::Key_A, Qt::ControlModifier);
        write(text);
        press(Qt::Key_Return);
    }

    void openStep(PlanStep step)
    {
        // The strip takes one stop, that of the part that is open; arrows go along it.
        int open = 0;
        while (!m_app.find<QAbstractButton>(qPrintable(QStringLiteral("step%1").arg(open)))->isChecked())
            ++open;
        tabTo(QStringLiteral("step%1").arg(open));
        for (; open < static_cast<int>(step); ++open)
            press(Qt::Key_Right);
    }

    /// Into whatever has the focus, which may become another part with the first key.
    void write(const QString &text)
    {
        m_written += static_cast<int>(text.size());
        for (const QChar c : text) {
            QTest::keyClicks(QApplication::focusWidget(), QString(c));
            QCoreApplication::processEvents();
        }
    }
};

} // namespace

TEST_F(KeyboardPath, FifteenFilesToAVerdictTakeFewKeys)
{
    m_app.prompts().answer = m_app.path(QStringLiteral("few.inchpeg"));
    press(Qt::Key_N, Qt::ControlModifier);
    ASSERT_NE(session().study(), nullptr);
    write(QStringLiteral("Does heat help?"));
    press(Qt::Key_Return); // goes on to what is varied, which is offered
    EXPECT_EQ(QApplication::focusWidget()->objectName(), QStringLiteral("factor0"));
    press(Qt::Key_Return); // and on to the levels
    EXPECT_EQ(QApplication::focusWidget()->objectName(), QStringLiteral("newLevels"));
    write(QStringLiteral("220, 235, 250"));
    press(Qt::Key_Return);
    ASSERT_EQ(session().study()->pieces.size(), 15U) << "five pieces a rail unless said otherwise";
    const int askLeading = m_pressed;

    press(Qt::Key_2, Qt::ControlModifier);
    tabTo(QStringLiteral("walk"));
    press(Qt::Key_Down); // sizes only
    tabTo(QStringLiteral("measureTable"));
    for (int i = 0; i < 15; ++i) {
        for (const char *value : {"5", "4"}) {
            write(QString::fromUtf8(value));
            press(Qt::Key_Return);
        }
    }
    const int measureLeading = m_pressed - askLeading;
    QStringList files;
    for (const Piece &piece : session().study()->pieces) {
        QFile file(m_app.path(QString::fromStdString(piece.code + ".csv")));
        ASSERT_TRUE(file.open(QIODevice::WriteOnly));
        const std::string bytes = sim::recordBytes(
            sim::pull(sim::glycolPolyester(), {true, piece.code.front() == 'A' ? 210.0 : 240.0, 0.0},
                      squareMillimetres(20), {.gaugeLength_mm = 25.0},
                      static_cast<std::uint64_t>(piece.id.value)),
            sim::Dialect::CommaUtf8, piece.code);
        file.write(bytes.data(), static_cast<qint64>(bytes.size()));
        files << file.fileName();
    }
    press(Qt::Key_I, Qt::ControlModifier);
    m_app.window().importPresenter().addPaths(files); // what the system's own file window hands over
    m_app.waitUntilRead();
    tabTo(QStringLiteral("bringInFiles"));
    press(Qt::Key_Space);
    m_app.waitUntilRead();
    press(Qt::Key_5, Qt::ControlModifier);
    m_app.waitUntilRead();
    EXPECT_EQ(m_app.rack().model().rails[1].standing, Standing::Higher)
        << m_app.rack().model().rails[1].sentence.toStdString();
    RecordProperty("written", m_written);
    RecordProperty("leading", m_pressed);
    std::printf("%d keys written, %d leading (%d in Ask, %d in Measure)\n", m_written, m_pressed, askLeading,
                measureLeading);
    EXPECT_LE(m_written, 60) << "question, levels, two sizes a piece";
    EXPECT_LE(m_pressed, 90) << "30 of them end a size";
}

TEST_F(KeyboardPath, FromTheQuestionToTheVerdictWithoutAMouse)
{
    m_app.prompts().answer = m_app.path(QStringLiteral("keys.inchpeg"));
    tabTo(QStringLiteral("welcomeNew"));
    m_app.key(Qt::Key_Space);
    ASSERT_NE(session().study(), nullptr);
    write(QStringLiteral("Does heat help the latch?")); // the question has the focus, all of it chosen
    m_app.key(Qt::Key_Return);
    EXPECT_EQ(session().study()->question, "Does heat help the latch?");

    typeInto(QStringLiteral("factor0"), QStringLiteral("nozzle temperature"));
    typeInto(QStringLiteral("factorUnit"), QStringLiteral("°C"));
    tabTo(QStringLiteral("newOrientation"));
    m_app.key(Qt::Key_Down);
    typeInto(QStringLiteral("newLevels"), QStringLiteral("220, 250"));
    ASSERT_EQ(session().study()->conditions.size(), 2U);
    EXPECT_EQ(session().study()->conditions[0].orientation, Orientation::Standing);
    openStep(PlanStep::Pieces);
    typeInto(QStringLiteral("pieces"), QStringLiteral("3"));
    ASSERT_EQ(session().study()->pieces.size(), 6U);
    openStep(PlanStep::Rig);
    typeInto(QStringLiteral("said-gauge_length"), QStringLiteral("25 mm"));

    m_app.key(Qt::Key_2, Qt::ControlModifier);
    tabTo(QStringLiteral("walk"));
    m_app.key(Qt::Key_Down); // sizes only
    tabTo(QStringLiteral("measureTable"));
    for (int i = 0; i < 6; ++i) {
        for (const char *value : {"5", "4"}) {
            write(QString::fromUtf8(value));
            m_app.key(Qt::Key_Return);
        }
    }
    EXPECT_EQ(session().study()->pieces[5].section,
              Section(RectangularSection{millimetres(5), millimetres(4)}))
        << "each piece in four keys";

    QStringList files;
    for (const char *code : {"A1", "A2", "A3", "B1", "B2", "B3"}) {
        QFile file(m_app.path(QStringLiteral("latch_%1.csv").arg(QLatin1String(code))));
        ASSERT_TRUE(file.open(QIODevice::WriteOnly));
        const std::string bytes = sim::recordBytes(
            sim::pull(sim::glycolPolyester(), {true, *code == 'A' ? 220.0 : 250.0, 0.0},
                      squareMillimetres(20),
                      {.gaugeLength_mm = 25.0, .speed_mm_per_s = 1.0 / 60.0, .rate_Hz = 20.0},
                      static_cast<std::uint64_t>(code[0] + code[1])),
            sim::Dialect::CommaUtf8, code);
        file.write(bytes.data(), static_cast<qint64>(bytes.size()));
        files << file.fileName();
    }
    m_app.key(Qt::Key_I, Qt::ControlModifier);
    m_app.window().importPresenter().addPaths(files); // what the system's own file window hands over
    m_app.waitUntilRead();
    tabTo(QStringLiteral("bringInFiles"));
    m_app.key(Qt::Key_Space);
    m_app.waitUntilRead();
    ASSERT_EQ(session().readings().size(), 6U) << m_app.notice().toStdString();

    m_app.key(Qt::Key_4, Qt::ControlModifier);
    m_app.waitUntilRecord();
    tabTo(QStringLiteral("curvePlot"));
    m_app.key(Qt::Key_Plus);
    m_app.key(Qt::Key_F);
    m_app.key(Qt::Key_M);
    m_app.key(Qt::Key_Right);
    m_app.key(Qt::Key_Return);
    write(QStringLiteral("slack in the grips"));
    m_app.key(Qt::Key_Return);
    m_app.waitUntilRead();
    const HandMarkers &markers = findPiece(*session().study(), session().selectedPiece())->markers;
    ASSERT_EQ(markers.count("toe"), 1U) << m_app.notice().toStdString();
    EXPECT_EQ(markers.at("toe").reason, "slack in the grips");
    tabTo(QStringLiteral("rack"));
    m_app.key(Qt::Key_Up);
    m_app.key(Qt::Key_Left);
    m_app.key(Qt::Key_Down);
    EXPECT_EQ(session().selectedPiece(), session().study()->pieces[4].id);
    const auto *reason = m_app.find<QWidget>("exclusionReason"); // there once the record of the piece is
    ASSERT_TRUE(
        QTest::qWaitFor([reason] { return reason->isVisible() && reason->isEnabled(); }, test::kPatience_ms));
    typeInto(QStringLiteral("exclusionReason"), QStringLiteral("a void in the print"));
    EXPECT_TRUE(session().study()->pieces[4].exclusion);
    m_app.key(Qt::Key_Z, Qt::ControlModifier);
    EXPECT_FALSE(session().study()->pieces[4].exclusion);

    m_app.key(Qt::Key_5, Qt::ControlModifier);
    m_app.waitUntilRead();
    tabTo(QStringLiteral("comparedProperty"));
    const QString first = session().comparedProperty();
    m_app.key(Qt::Key_Down);
    EXPECT_NE(session().comparedProperty(), first);
    m_app.key(Qt::Key_Up);
    EXPECT_EQ(session().comparedProperty(), first);
    m_app.key(Qt::Key_T, Qt::ControlModifier);
    EXPECT_TRUE(m_app.find<QTableView>("testTable")->isVisible());
    const RackModel &rack = m_app.rack().model();
    EXPECT_EQ(rack.rails[1].standing, Standing::Higher) << rack.rails[1].sentence.toStdString();

    m_app.prompts().folder = m_app.path(QStringLiteral("out"));
    m_app.key(Qt::Key_E, Qt::ControlModifier);
    EXPECT_TRUE(QTest::qWaitFor([&] { return m_app.notice().contains(QStringLiteral("Everything is in")); },
                                test::kPatience_ms))
        << m_app.notice().toStdString();
}

} // namespace inchpeg::app
