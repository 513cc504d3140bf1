// SPDX-License-Identifier: GPL-3.0-or-later
// A study from what is broken already, in the real window from nothing: records by their names, a results
// table from the clipboard, two pasted columns; clicks are counted.
#include "app/begin/begin_window.h"
#include "app_harness.h"
#include "support/zip_bytes.h"

#include <QClipboard>
#include <QFile>
#include <QLabel>
#include <QPushButton>
#include <QTreeWidget>

#include <fmt/format.h>

#include <cmath>
#include <cstdlib>

namespace inchpeg::app
{

namespace
{

class Begin : public testing::Test
{
protected:
    void click(const char *name)
    {
        m_app.click(name);
        ++m_clicks;
        waitUntilSeen();
    }

    void waitUntilSeen()
    {
        ASSERT_TRUE(
            QTest::qWaitFor([this] { return !m_app.window().begin().isLooking(); }, test::kPatience_ms));
        QCoreApplication::processEvents();
    }

    void waitUntilFound()
    {
        const BeginPresenter &begin = m_app.window().begin();
        ASSERT_TRUE(
            QTest::qWaitFor([&] { return begin.found() != nullptr && !begin.isLooking(); }, kSoon_ms));
        QCoreApplication::processEvents();
    }

    /// For looking at it: INCHPEG_WALK_PICTURES names a folder.
    void picture(const char *name) { keepPicture(*m_app.find<QWidget>("beginWindow"), name); }

    static void keepPicture(QWidget &widget, const char *name)
    {
        if (const char *folder = std::getenv("INCHPEG_WALK_PICTURES")) {
            const QString path =
                QStringLiteral("%1/%2.png").arg(QString::fromUtf8(folder), QLatin1String(name));
            EXPECT_TRUE(widget.grab().save(path)) << path.toStdString();
        }
    }

    void paste(const QString &table)
    {
        QApplication::clipboard()->setText(table);
        click("beginPaste");
    }

    void record(const QString &name, double peak_N)
    {
        QDir().mkpath(QFileInfo(m_app.path(name)).absolutePath());
        QFile file(m_app.path(name));
        ASSERT_TRUE(file.open(QIODevice::WriteOnly));
        file.write("Time (s),Force (N),Extension (mm)\n");
        for (int i = 0; i <= 60; ++i)
            file.write(QStringLiteral("%1,%2,%3\n")
                           .arg(0.1 * i)
                           .arg(i <= 56 ? peak_N * std::sin(1.5707963 * i / 56.0) : 0.0)
                           .arg(0.05 * i)
                           .toUtf8());
    }

    void expectVerdict(const QString &says)
    {
        m_app.waitUntilRead();
        ASSERT_NE(m_app.session().study(), nullptr);
        EXPECT_EQ(m_app.session().lens(), Lens::Compare);
        QString told;
        EXPECT_TRUE(QTest::qWaitFor(
            [&] {
                told = m_app.find<QLabel>("headline")->text();
                return told.contains(says);
            },
            kSoon_ms))
            << says.toStdString() << " is not in " << told.toStdString();
    }

    static constexpr int kSoon_ms = test::kPatience_ms;
    AppHarness m_app;
    int m_clicks = 0;
};

} // namespace

TEST_F(Begin, AFolderOfThirtyRecordsInThreeStylesEachInSixClicks)
{
    const QStringList styles{QStringLiteral("one/%1C_%2.csv"), QStringLiteral("two/PLA %1 no %2.txt"),
                             QStringLiteral("three/%1/run%2.csv")};
    int projects = 0;
    for (const QString &style : styles) {
        for (int level = 0; level < 3; ++level) {
            for (int piece = 1; piece <= 10; ++piece)
                record(style.arg(230 + 10 * level).arg(piece),
                       1500.0 + 120.0 * level + 6.0 * ((piece * 7) % 11));
        }
        m_clicks = 0;
        m_app.prompts().answer = m_app.path(QStringLiteral("begun%1.inchpeg").arg(++projects));
        m_app.prompts().folder = m_app.path(style.section(QLatin1Char('/'), 0, 0));
        m_app.restart();
        click("welcomeBegin");
        click("beginFolder");
        ASSERT_TRUE(m_app.find<QPushButton>("makeStudy")->isEnabled())
            << m_app.find<QLabel>("beginOpen")->text().toStdString();
        EXPECT_EQ(m_app.find<QTreeWidget>("beginRails")->topLevelItemCount(), 3);
        picture("begin_folder");
        click("makeStudy");
        EXPECT_LE(m_clicks, 6);
        expectVerdict(QStringLiteral("above 230"));
        EXPECT_EQ(m_app.session().study()->pieces.size(), 30U);
    }
}

TEST_F(Begin, AWorkbookWithASheetASpecimenInSixClicks)
{
    std::vector<std::string> sheets;
    std::vector<std::string> names;
    for (const int level : {230, 250}) {
        for (int piece = 1; piece <= 4; ++piece) {
            names.push_back(fmt::format("{}C_{}", level, piece));
            std::string rows =
                "<row><c t=\"inlineStr\"><is><t>Time (s)</t></is></c><c t=\"inlineStr\"><is><t>Force "
                "(N)</t></is></c><c t=\"inlineStr\"><is><t>Extension (mm)</t></is></c></row>";
            for (int i = 0; i <= 60; ++i) {
                const double peak = level == 230 ? 1500.0 : 1700.0;
                const double force = i <= 56 ? (peak + 4.0 * piece) * std::sin(1.5707963 * i / 56.0) : 0.0;
                rows += fmt::format("<row><c><v>{}</v></c><c><v>{}</v></c><c><v>{}</v></c></row>", 0.1 * i,
                                    force, 0.05 * i);
            }
            sheets.push_back(rows);
        }
    }
    QFile file(m_app.path(QStringLiteral("frame.xlsx")));
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    const std::string book = test::workbookBytes(names, sheets);
    file.write(book.data(), static_cast<qint64>(book.size()));
    file.close();
    m_app.prompts().answer = m_app.path(QStringLiteral("sheets.inchpeg"));
    m_app.prompts().files = {m_app.path(QStringLiteral("frame.xlsx"))};
    click("welcomeBegin");
    click("beginFiles");
    waitUntilFound();
    picture("begin-sheets");
    const std::size_t taken = m_app.window().begin().found()->files.size();
    EXPECT_EQ(taken, 8U) << "a sheet a specimen";
    click("makeStudy");
    ASSERT_TRUE(QTest::qWaitFor([&] { return m_app.session().study() != nullptr; }, kSoon_ms));
    m_app.waitUntilRead();
    ASSERT_EQ(m_app.session().study()->conditions.size(), 2U);
    ASSERT_EQ(m_app.session().study()->pieces.size(), 8U);
    for (const Piece &piece : m_app.session().study()->pieces)
        EXPECT_TRUE(piece.recording) << piece.code;
    expectVerdict(QStringLiteral("250 °C above 230 °C"));
    EXPECT_LE(m_clicks, 6);
}

TEST_F(Begin, APastedTableOfResultsInFiveClicks)
{
    QString table = QStringLiteral("Specimen\tMaterial\tNozzle (°C)\tTensile strength [MPa]\tE-Modul [GPa]\t"
                                   "Elongation at break [%]\tMass (g)\tBroke at\tDate\n");
    int code = 0;
    for (const char *material : {"PLA", "PETG"}) {
        for (int level : {220, 240}) {
            for (int piece = 0; piece < 6; ++piece) {
                const double strength =
                    (material[1] == 'L' ? 52.0 : 44.0) + (level - 220) * 0.2 + 0.3 * (piece % 4);
                table +=
                    QStringLiteral("P%1\t%2\t%3\t%4\t%5\t%6\t%7\tgauge\t2026-05-0%8\n")
                        .arg(++code, 2, 10, QLatin1Char('0'))
                        .arg(QLatin1String(material))
                        .arg(level)
                        .arg(QString::number(strength, 'f', 1).replace(QLatin1Char('.'), QLatin1Char(',')))
                        .arg(QString::number(2.0 + 0.01 * piece, 'f', 2)
                                 .replace(QLatin1Char('.'), QLatin1Char(',')))
                        .arg(QString::number(3.0 + 0.1 * piece, 'f', 1)
                                 .replace(QLatin1Char('.'), QLatin1Char(',')))
                        .arg(QString::number(9.2 + 0.01 * piece, 'f', 2)
                                 .replace(QLatin1Char('.'), QLatin1Char(',')))
                        .arg(1 + piece);
            }
        }
    }
    m_app.prompts().answer = m_app.path(QStringLiteral("pasted.inchpeg"));
    click("welcomeBegin");
    picture("begin_empty");
    paste(table);
    picture("begin_table");
    ASSERT_TRUE(m_app.find<QPushButton>("makeStudy")->isEnabled())
        << m_app.find<QLabel>("beginOpen")->text().toStdString();
    click("makeStudy");
    EXPECT_LE(m_clicks, 5);
    m_app.waitUntilRead();
    const Study &study = *m_app.session().study();
    ASSERT_EQ(study.factors.size(), 2U);
    EXPECT_EQ(study.pieces.size(), 24U);
    EXPECT_EQ(study.pieces.front().code, "P01");
    EXPECT_EQ(study.pieces.front().log.mass_g, 9.2);
    EXPECT_TRUE(isGiven(study.pieces.front()));
    expectVerdict(QStringLiteral("below PLA"));
    keepPicture(m_app.window(), "begin_compare");
}

TEST_F(Begin, TwoPastedColumnsInThreeClicksAndAWord)
{
    m_app.prompts().answer = m_app.path(QStringLiteral("columns.inchpeg"));
    click("welcomeBegin");
    paste(QStringLiteral("dry\twet\n50,1\t44,0\n51,2\t45,1\n49,7\t43,5\n50,4\t44,2\n"));
    EXPECT_FALSE(m_app.find<QPushButton>("makeStudy")->isEnabled()) << "what the values are is asked";
    m_app.choose("columnIs2", QStringLiteral("Strength"));
    waitUntilSeen();
    ASSERT_TRUE(m_app.find<QPushButton>("makeStudy")->isEnabled())
        << m_app.find<QLabel>("beginOpen")->text().toStdString();
    click("makeStudy");
    EXPECT_LE(m_clicks, 3);
    expectVerdict(QStringLiteral("dry"));
}

TEST_F(Begin, ByKeysAloneFromAnEmptyProject)
{
    ASSERT_TRUE(m_app.session().createProject(m_app.path(QStringLiteral("keys.inchpeg"))));
    QApplication::clipboard()->setText(
        QStringLiteral("Specimen\tMaterial\tStrength (MPa)\nA\tPLA\t50\nB\tPLA\t51\n"
                       "C\tASA\t40\nD\tASA\t41\n"));
    m_app.trigger(QStringLiteral("Study from what is there…"));
    auto *window = m_app.find<QDialog>("beginWindow");
    ASSERT_TRUE(QTest::qWaitForWindowActive(window, test::kPatience_ms));
    m_app.find<QPushButton>("beginFolder")->setFocus(Qt::TabFocusReason);
    for (int i = 0; i < 2; ++i)
        QTest::keyClick(window->focusWidget(), Qt::Key_Tab);
    ASSERT_EQ(window->focusWidget(), m_app.find<QPushButton>("beginPaste"));
    QTest::keyClick(window->focusWidget(), Qt::Key_Space);
    waitUntilFound();
    ASSERT_EQ(window->focusWidget(), m_app.find<QPushButton>("makeStudy"))
        << window->focusWidget()->objectName().toStdString() << " has the keyboard";
    QTest::keyClick(window->focusWidget(), Qt::Key_Return);
    EXPECT_FALSE(window->isVisible());
    expectVerdict(QStringLiteral("ASA below PLA"));

    // What has to be said has the keyboard first.
    QApplication::clipboard()->setText(
        QStringLiteral("Specimen\tMaterial\tE-Modulus\nA\tPLA\t3.1\nB\tPLA\t3.2\n"
                       "C\tASA\t2.1\nD\tASA\t2.0\n"));
    m_app.trigger(QStringLiteral("Study from what is there…"));
    ASSERT_TRUE(QTest::qWaitForWindowActive(window, test::kPatience_ms));
    m_app.find<QPushButton>("beginFolder")->setFocus(Qt::TabFocusReason);
    for (int i = 0; i < 2; ++i)
        QTest::keyClick(window->focusWidget(), Qt::Key_Tab);
    ASSERT_EQ(window->focusWidget(), m_app.find<QPushButton>("beginPaste"));
    QTest::keyClick(window->focusWidget(), Qt::Key_Space);
    waitUntilFound();
    ASSERT_EQ(window->focusWidget()->objectName().toStdString(), "columnUnit3");
    picture("begin_unit");
    QTest::keyClicks(window->focusWidget(), QStringLiteral("G"));
    QTest::keyClick(window->focusWidget(), Qt::Key_Return);
    waitUntilSeen();
    EXPECT_TRUE(m_app.find<QPushButton>("makeStudy")->isEnabled())
        << m_app.find<QLabel>("beginOpen")->text().toStdString();
}

TEST_F(Begin, APartIsPutRightForAllFilesAndAQuestionOfOnesOwnStays)
{
    for (int level = 0; level < 2; ++level) {
        for (int piece = 1; piece <= 3; ++piece)
            record(QStringLiteral("in/x_%1_%2.csv").arg(3 + 2 * level).arg(piece),
                   1500.0 + 200.0 * level + piece);
    }
    m_app.prompts().answer = m_app.path(QStringLiteral("right.inchpeg"));
    m_app.prompts().folder = m_app.path(QStringLiteral("in"));
    click("welcomeBegin");
    m_app.type("beginQuestion", QStringLiteral("How many walls?"), false);
    click("beginFolder");
    EXPECT_EQ(m_app.find<QLineEdit>("beginQuestion")->text(), QStringLiteral("How many walls?"));
    EXPECT_FALSE(m_app.find<QPushButton>("makeStudy")->isEnabled()) << "either may count";
    picture("begin_asked");
    m_app.choose("partIs3", QStringLiteral("counts the pieces"));
    waitUntilSeen();
    m_app.type("partFactor2", QStringLiteral("walls"));
    waitUntilSeen();
    ASSERT_TRUE(m_app.find<QPushButton>("makeStudy")->isEnabled())
        << m_app.find<QLabel>("beginOpen")->text().toStdString();
    click("makeStudy");
    m_app.waitUntilRead();
    ASSERT_NE(m_app.session().study(), nullptr);
    EXPECT_EQ(m_app.session().study()->question, "How many walls?");
    EXPECT_EQ(m_app.session().study()->factors.front().name, "walls");
    // It can be taken apart like any other: a given study is an ordinary one.
    EXPECT_EQ(m_app.session().study()->pieces.size(), 6U);
}

} // namespace inchpeg::app
