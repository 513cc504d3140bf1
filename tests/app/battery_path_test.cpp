// SPDX-License-Identifier: GPL-3.0-or-later
// Several tests of the same rails in one study, through the real window: planned, files brought in and
// readings typed, read, compared, closed and opened again, exported, imported, and exported again to the
// byte.
#include "app/app_harness.h"
#include "app/compare/response_table.h"
#include "app/import/import_view.h"
#include "disk/file_bytes.h"
#include "sim/record_writer.h"
#include "sim/virtual_bars.h"
#include "support/patience.h"

#include <QComboBox>
#include <QFile>
#include <QSpinBox>

#include <filesystem>
#include <map>

namespace inchpeg::app
{

namespace
{

class BatteryPath : public testing::Test
{
protected:
    AppHarness m_app;

    ProjectSession &session() { return m_app.session(); }
    const Study &study() { return *session().study(); }

    void plan()
    {
        m_app.prompts().answer = m_app.path(QStringLiteral("battery.inchpeg"));
        m_app.click("welcomeNew");
        m_app.type("question", QStringLiteral("Which polymer is stronger, stiffer and tougher?"));
        m_app.type("factorName", QStringLiteral("polymer"));
        m_app.choose("method", QStringLiteral("tension"));
        m_app.type("newLevels", QStringLiteral("polyester, styrenic"));
        m_app.choose("addTest", QStringLiteral("bending"));
        m_app.choose("addTest", QStringLiteral("impact"));
        m_app.choose("addTest", QStringLiteral("shrinkage"));
        m_app.step(PlanStep::Pieces);
        m_app.find<QSpinBox>("pieces")->setValue(3);
        m_app.step(PlanStep::Rig);
        m_app.choose("rig", QStringLiteral("test frame 2 kN"));
        m_app.type("said-gauge_length", QStringLiteral("25 mm"));
        m_app.choose("rigTest", QStringLiteral("bending"));
        m_app.choose("rig", QStringLiteral("hand gauge 500 N"));
        m_app.choose("rigTest", QStringLiteral("impact"));
        m_app.type("said-mass", QStringLiteral("0.5 kg"));
        m_app.type("said-arm", QStringLiteral("0.3 m"));
        m_app.type("said-release", QStringLiteral("150"));
        m_app.type("said-free_swing", QStringLiteral("148"));
        m_app.choose("rigTest", QStringLiteral("shrinkage"));
        m_app.type("said-nominal", QStringLiteral("80 mm"));
        ASSERT_EQ(m_app.notice(), QString());
        ASSERT_EQ(study().tests.size(), 4U);
        ASSERT_EQ(study().pieces.size(), 2U * (3 + 3 * 3));
        ASSERT_EQ(study().tests[2].setup.settings.number("free_swing"), 148.0);
    }

    void measure()
    {
        ASSERT_TRUE(session().edit(QStringLiteral("sizes"), [](Study &study) -> Status {
            for (Piece &piece : study.pieces)
                piece.section = RectangularSection{millimetres(10), millimetres(4)};
            return ok();
        }));
    }

    const sim::Polymer &polymerOf(const Piece &piece)
    {
        return piece.condition == study().conditions.front().id ? sim::glycolPolyester() : sim::styrenic();
    }

    QStringList writeFiles(Method test, sim::Dialect dialect)
    {
        const bool isBent = test == Method::Bending;
        QStringList paths;
        for (const Piece &piece : study().pieces) {
            if (piece.test != test)
                continue;
            const auto seed = static_cast<std::uint64_t>(piece.id.value);
            const ForceCurve curve =
                isBent
                    ? sim::bend(polymerOf(piece), {10.0, 4.0, 64.0},
                                {.forceNoise_N = 0.1, .speed_mm_per_s = 2.0 / 60.0, .rate_Hz = 5.0}, seed)
                    : sim::pull(polymerOf(piece), {}, squareMillimetres(40),
                                {.gaugeLength_mm = 25.0, .forceNoise_N = 0.3, .speed_mm_per_s = 1.0 / 60.0},
                                seed);
            const QString path = m_app.path(QStringLiteral("%1_%2.csv")
                                                .arg(isBent ? QStringLiteral("bend") : QStringLiteral("pull"))
                                                .arg(QString::fromStdString(piece.code)));
            QFile file(path);
            EXPECT_TRUE(file.open(QIODevice::WriteOnly));
            file.write(QByteArray::fromStdString(sim::recordBytes(curve, dialect, piece.code)));
            paths << path;
        }
        return paths;
    }

    void bringIn(Method test, const QString &name, sim::Dialect dialect)
    {
        session().setShownTest(test);
        if (test == Method::Bending) { // dropped on the window, or chosen in the file window
            m_app.dropFiles(writeFiles(test, dialect));
        } else {
            m_app.prompts().files = writeFiles(test, dialect);
            m_app.trigger(QStringLiteral("Bring in records…"));
            m_app.prompts().files.clear();
            m_app.waitUntilRead();
        }
        EXPECT_EQ(m_app.find<QComboBox>("importedTest")->currentText(), QStringLiteral("records of ") + name);
        m_app.click("bringInFiles");
        m_app.waitUntilRead();
    }

    /// Types what each piece of a test shows, the cells of a row divided by blanks.
    void typeIn(Method test, const std::vector<QString> &ofPieces)
    {
        std::size_t next = 0;
        m_app.window().activateWindow(); // a list of proposals may have taken that
        QCoreApplication::processEvents();
        for (std::size_t i = 0; i < study().pieces.size(); ++i) {
            if (study().pieces[i].test != test)
                continue;
            session().selectPiece(study().pieces[i].id);
            m_app.part(LogPart::Type);
            m_app.find<QWidget>("typingTable")->setFocus();
            for (const QString &cell : ofPieces[next++ % ofPieces.size()].split(QLatin1Char(' '))) {
                for (const QChar key : cell) // the first key opens an editor, which takes the others
                    QTest::keyClicks(QApplication::focusWidget(), QString(key));
                m_app.key(Qt::Key_Return);
                QCoreApplication::processEvents();
            }
            m_app.key(Qt::Key_Return, Qt::ControlModifier);
            m_app.waitUntilKept();
            m_app.waitUntilRead();
            EXPECT_TRUE(study().pieces[i].recording)
                << methodName(test) << " " << i << " " << m_app.notice().toStdString();
        }
    }

    /// All numbers that are read, by piece and property.
    std::map<std::string, double> allValues()
    {
        std::map<std::string, double> values;
        for (const Piece &piece : study().pieces) {
            const PieceReading *reading = readingOf(session().readings(), piece.id);
            EXPECT_NE(reading, nullptr) << piece.code;
            if (reading == nullptr)
                continue;
            for (const ReadValue &value : reading->result.values)
                values[piece.code + " " + value.property + value.label] = value.number;
        }
        return values;
    }

    /// Relative path and bytes of every file.
    static std::map<std::string, std::string> filesIn(const QString &folder)
    {
        std::map<std::string, std::string> files;
        const std::filesystem::path root(folder.toStdString());
        for (const auto &entry : std::filesystem::recursive_directory_iterator(root)) {
            if (entry.is_regular_file())
                files[std::filesystem::relative(entry.path(), root).string()] =
                    readFileBytes(entry.path().string()).value();
        }
        return files;
    }

    void exportTo(const QString &name)
    {
        m_app.prompts().folder = m_app.path(name);
        m_app.trigger(QStringLiteral("Export the project…"));
        ASSERT_TRUE(QTest::qWaitFor(
            [&] {
                return m_app.notice().contains(QStringLiteral("Everything is in")) &&
                       m_app.notice().contains(name);
            },
            test::kPatience_ms))
            << m_app.notice().toStdString();
    }
};

} // namespace

TEST_F(BatteryPath, FourTestsOfTheSameRails)
{
    plan();
    measure();
    bringIn(Method::Tension, QStringLiteral("tension"), sim::Dialect::SemicolonComma);
    bringIn(Method::Bending, QStringLiteral("bending"), sim::Dialect::TabUtf16);
    for (const Piece &piece : study().pieces) {
        if (!piece.recording)
            continue;
        ASSERT_TRUE(piece.recording->gauge) << piece.code;
        EXPECT_EQ(piece.recording->gauge->name,
                  piece.test == Method::Tension ? "test frame 2 kN" : "hand gauge 500 N")
            << "each record is kept with the gauge of its own test";
    }
    EXPECT_EQ(study().tests[0].setup.settings.number("capacity"), 2000.0);
    EXPECT_EQ(study().tests[1].setup.settings.number("capacity"), 500.0);
    typeIn(Method::Impact, {QStringLiteral("120 8 c"), QStringLiteral("118 8 c"), QStringLiteral("121 8 c"),
                            QStringLiteral("95 8 c"), QStringLiteral("97 8 c"), QStringLiteral("94 8 c")});
    typeIn(Method::Shrinkage, {QStringLiteral("79.9 79.88 79.91"), QStringLiteral("79.87 79.9 79.9"),
                               QStringLiteral("79.92 79.9 79.89"), QStringLiteral("79.5 79.52 79.49"),
                               QStringLiteral("79.53 79.5 79.5"), QStringLiteral("79.48 79.5 79.51")});

    // Compared: all responses at once, then one large.
    m_app.click("lens5");
    auto *table = m_app.find<ResponseTable>("responseTable");
    ASSERT_TRUE(table->isVisible());
    ASSERT_EQ(table->columns().size(), 7U);
    for (const ResponseColumn &column : table->columns()) {
        for (const ResponseCell &cell : column.cells)
            EXPECT_TRUE(cell.mean) << column.response.property.name;
    }
    EXPECT_EQ(table->columns()[4].cells[1].verdict.standing, Standing::Higher) << "the lower swings";
    EXPECT_EQ(table->columns()[6].cells[1].verdict.standing, Standing::Higher) << "the shorter lengths";

    // Closed and opened again.
    const std::map<std::string, double> before = allValues();
    EXPECT_GT(before.size(), 60U);
    const QString path = session().projectPath();
    m_app.restart();
    ASSERT_TRUE(session().openProject(path));
    m_app.waitUntilRead();
    EXPECT_EQ(allValues(), before);
    EXPECT_TRUE(m_app.find<ResponseTable>("responseTable")->isVisible()) << "where the person was";

    // Exported, imported, exported again.
    exportTo(QStringLiteral("first"));
    m_app.prompts().answer = m_app.path(QStringLiteral("back.inchpeg"));
    m_app.trigger(QStringLiteral("Make a project of an export…"));
    m_app.waitUntilRead();
    ASSERT_TRUE(session().projectPath().endsWith(QStringLiteral("back.inchpeg")));
    EXPECT_EQ(allValues(), before);
    exportTo(QStringLiteral("second"));
    const auto first = filesIn(m_app.path(QStringLiteral("first")));
    const auto second = filesIn(m_app.path(QStringLiteral("second")));
    EXPECT_GT(first.size(), 24U);
    ASSERT_EQ(first.size(), second.size());
    for (const auto &[name, bytes] : first) {
        ASSERT_TRUE(second.contains(name)) << name;
        EXPECT_TRUE(second.at(name) == bytes) << name << " differs";
    }
}

} // namespace inchpeg::app
