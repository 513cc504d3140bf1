// SPDX-License-Identifier: GPL-3.0-or-later
// From the question to the verdict with the keyboard alone: every key goes to what has the focus.
#include "app/import/import_view.h"
#include "app_harness.h"
#include "sim/record_writer.h"
#include "sim/virtual_specimen.h"

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
            m_app.key(inGrid ? Qt::Key_F6 : Qt::Key_Tab);
        }
        FAIL() << name.toStdString() << " is not reached by Tab";
    }

    void typeInto(const QString &name, const QString &text)
    {
        tabTo(name);
        m_app.key(Qt::Key_A, Qt::ControlModifier);
        write(text);
        m_app.key(Qt::Key_Return);
    }

    void openStep(PlanStep step)
    {
        // The strip takes one stop, that of the part that is open; arrows go along it.
        int open = 0;
        while (!m_app.find<QAbstractButton>(qPrintable(QStringLiteral("step%1").arg(open)))->isChecked())
            ++open;
        tabTo(QStringLiteral("step%1").arg(open));
        for (; open < static_cast<int>(step); ++open)
            m_app.key(Qt::Key_Right);
    }

    /// Into whatever has the focus, which may become another part with the first key.
    void write(const QString &text)
    {
        for (const QChar c : text) {
            QTest::keyClicks(QApplication::focusWidget(), QString(c));
            QCoreApplication::processEvents();
        }
    }
};

} // namespace

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
    typeInto(QStringLiteral("gaugeLength"), QStringLiteral("25 mm"));

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

    m_app.key(Qt::Key_3, Qt::ControlModifier);
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
    ASSERT_EQ(markers.count(Marker::Toe), 1U) << m_app.notice().toStdString();
    EXPECT_EQ(markers.at(Marker::Toe).reason, "slack in the grips");
    tabTo(QStringLiteral("rack"));
    m_app.key(Qt::Key_Up);
    m_app.key(Qt::Key_Left);
    m_app.key(Qt::Key_Down);
    EXPECT_EQ(session().selectedPiece(), session().study()->pieces[4].id);
    typeInto(QStringLiteral("exclusionReason"), QStringLiteral("a void in the print"));
    EXPECT_TRUE(session().study()->pieces[4].exclusion);
    m_app.key(Qt::Key_Z, Qt::ControlModifier);
    EXPECT_FALSE(session().study()->pieces[4].exclusion);

    m_app.key(Qt::Key_4, Qt::ControlModifier);
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
    EXPECT_TRUE(
        QTest::qWaitFor([&] { return m_app.notice().contains(QStringLiteral("Everything is in")); }, 20000))
        << m_app.notice().toStdString();
}

} // namespace inchpeg::app
