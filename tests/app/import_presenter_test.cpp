// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/import/import_presenter.h"
#include "core/model/study_edit.h"
#include "support/patience.h"
#include "support/read_value.h"

#include <QFile>
#include <QTemporaryDir>
#include <QTest>

#include <gtest/gtest.h>

#include <set>
#include <unistd.h>

namespace inchpeg::app
{

namespace
{

const QByteArray kGood = "force_N,extension_mm\n0,0\n5,0.1\n9,0.2\n";

class ImportTest : public testing::Test
{
protected:
    QTemporaryDir m_folder;
    QString m_failure; ///< before the session, which may still tell something while it goes
    ProjectSession m_session{QStringLiteral("me"), [] { return std::string("2026-06-01T10:00:00Z"); }};
    ImportPresenter m_import{m_session};

    void SetUp() override
    {
        QObject::connect(&m_session, &ProjectSession::failed,
                         [this](const QString &sentence) { m_failure = sentence; });
        ASSERT_TRUE(m_session.createProject(m_folder.filePath(QStringLiteral("p.inchpeg"))));
        ASSERT_TRUE(m_session.addStudy(QStringLiteral("q?")));
        ASSERT_TRUE(m_session.edit(QStringLiteral("rails"), [&](Study &study) {
            firstTest(study).piecesPerCondition = 3;
            const Status added = addCondition(study, {{}, {"a"}, {}, {}}, m_session.ids());
            return added ? addCondition(study, {{}, {"b"}, {}, {}}, m_session.ids()) : added;
        }));
    }

    QString write(const QString &name, const QByteArray &bytes)
    {
        QFile file(m_folder.filePath(name));
        EXPECT_TRUE(file.open(QIODevice::WriteOnly));
        file.write(bytes);
        return file.fileName();
    }

    void add(const QStringList &paths)
    {
        m_import.addPaths(paths);
        ASSERT_TRUE(QTest::qWaitFor([this] { return !m_import.isLoading(); }, test::kPatience_ms));
    }

    void bringIn()
    {
        m_import.bringIn();
        ASSERT_TRUE(QTest::qWaitFor([this] { return !m_import.isBusy(); }, test::kPatience_ms));
    }

    [[nodiscard]] std::string places() const
    {
        std::string text;
        for (const ImportPresenter::Entry &entry : m_import.entries())
            text += (text.empty() ? "" : " ") +
                    (entry.piece ? findPiece(*m_session.study(), *entry.piece)->code : std::string("-"));
        return text;
    }
};

} // namespace

TEST_F(ImportTest, PlacesFilesByNameAndSaysHow)
{
    add({write(QStringLiteral("x_A1.csv"), kGood), write(QStringLiteral("x_B3.csv"), kGood + "10,0.3\n")});
    EXPECT_EQ(places(), "A1 B3");
    EXPECT_EQ(m_import.pattern(), QStringLiteral("*_{code}"));
    EXPECT_EQ(m_import.placeText(m_import.entries()[0]), QStringLiteral("A1 by name"));
    bringIn();
    EXPECT_TRUE(m_import.entries().empty());
    EXPECT_TRUE(m_session.study()->pieces[0].recording);
    EXPECT_EQ(m_session.undoText(), QStringLiteral("bring in 2 records"));
    ASSERT_TRUE(m_session.undo());
    EXPECT_FALSE(m_session.study()->pieces[0].recording);
    EXPECT_EQ(m_session.project().info()->rawFiles, 2U) << "raw bytes stay when the import is taken back";
}

TEST_F(ImportTest, NothingIsPlacedWithoutAPattern)
{
    add({write(QStringLiteral("one.csv"), kGood), write(QStringLiteral("two.csv"), kGood + "1,1\n")});
    EXPECT_EQ(places(), "- -");
    EXPECT_EQ(m_import.readyCount(), 0U);
    m_import.matchInOrder();
    EXPECT_EQ(places(), "A1 A2");
    EXPECT_EQ(m_import.placeText(m_import.entries()[0]), QStringLiteral("A1 by order"));
    m_import.unmatchAll();
    EXPECT_EQ(places(), "- -");
    m_import.assign(1, m_session.study()->pieces[4].id);
    EXPECT_EQ(places(), "- B2");
    m_import.assign(0, m_session.study()->pieces[4].id);
    EXPECT_EQ(places(), "B2 -") << "a peg holds one record";
}

TEST_F(ImportTest, AFolderBringsItsFilesInNaturalOrder)
{
    QDir(m_folder.path()).mkdir(QStringLiteral("run"));
    write(QStringLiteral("run/10.csv"), kGood + "3,3\n");
    write(QStringLiteral("run/9.csv"), kGood);
    add({m_folder.filePath(QStringLiteral("run"))});
    ASSERT_EQ(m_import.entries().size(), 2U);
    EXPECT_EQ(m_import.entries()[0].file.name, "9.csv");
    QDir(m_folder.path()).mkdir(QStringLiteral("hollow"));
    m_import.addPaths({m_folder.filePath(QStringLiteral("hollow"))});
    EXPECT_TRUE(m_failure.contains(QStringLiteral("holds no file")));
}

TEST_F(ImportTest, TheSameBytesTwiceAreNoticed)
{
    add({write(QStringLiteral("x_A1.csv"), kGood)});
    bringIn();
    add({write(QStringLiteral("x_A2.csv"), kGood), write(QStringLiteral("x_B1.csv"), kGood + "7,7\n"),
         write(QStringLiteral("x_B2.csv"), kGood + "7,7\n")});
    EXPECT_TRUE(ImportPresenter::knownText(m_import.entries()[0])
                    .contains(QStringLiteral("already in this project as x_A1.csv")));
    EXPECT_TRUE(
        ImportPresenter::knownText(m_import.entries()[2]).contains(QStringLiteral("same bytes as x_B1.csv")));
    EXPECT_EQ(places(), "- B1 -") << "not placed by itself";
}

TEST_F(ImportTest, APegWithARecordIsNotGivenAway)
{
    add({write(QStringLiteral("x_A1.csv"), kGood)});
    bringIn();
    add({write(QStringLiteral("x_A1.csv"), kGood + "8,8\n")});
    EXPECT_EQ(places(), "-");
    m_import.assign(0, m_session.study()->pieces[0].id);
    EXPECT_TRUE(m_failure.contains(QStringLiteral("A1 has a record already")));
    EXPECT_EQ(places(), "-");
}

TEST_F(ImportTest, ACorrectedMappingIsRememberedForFilesOfTheSameShape)
{
    const QByteArray odd = "a,b\n0,0\n5,0.1\n9,0.2\n";
    add({write(QStringLiteral("x_A1.csv"), odd), write(QStringLiteral("x_A2.csv"), odd + "1,1\n"),
         write(QStringLiteral("x_A3.csv"), kGood)});
    EXPECT_TRUE(m_import.entries()[0].file.problem) << "no force column";
    m_import.setMapping(
        0, {{}, {{ColumnQuantity::Force, "kgf", false}, {ColumnQuantity::Extension, "mm", false}}});
    EXPECT_FALSE(m_import.entries()[0].file.problem);
    EXPECT_FALSE(m_import.entries()[1].file.problem) << "the same shape, the same mapping";
    EXPECT_TRUE(m_import.entries()[2].file.mapping.empty()) << "another shape";
    m_import.matchByPattern(QStringLiteral("*_{code}"));
    bringIn();
    add({write(QStringLiteral("x_B1.csv"), odd + "2,2\n")});
    EXPECT_FALSE(m_import.entries()[0].file.problem) << "remembered";
    EXPECT_EQ(places(), "B1");
    EXPECT_NEAR(m_import.entries()[0].file.largest, 9 * 9.80665, 1e-9);
}

TEST_F(ImportTest, AnotherTableOfAFileIsChosenAndRemembered)
{
    const QByteArray first = "time[s];force[N]\n0;0\n1;50\n2;90\n\n";
    const QByteArray second = "time[s];force[N];extension[mm]\n0;0;0\n1;5;0.1\n2;9;0.2\n3;4;0.3\n";
    add({write(QStringLiteral("x_A1.csv"), first + second),
         write(QStringLiteral("x_A2.csv"), first + second + "4;1;0.4\n")});
    const ImportFile &file = m_import.entries()[0].file;
    ASSERT_EQ(file.tables.size(), 2U);
    EXPECT_EQ(ImportPresenter::tableText(file, 0), QStringLiteral("table 1, line 1: time, force"));
    EXPECT_EQ(ImportPresenter::tableText(file, 1), QStringLiteral("table 2, line 6: time, force, extension"));
    EXPECT_EQ(file.largest, 90.0) << "the first that can be read, unless a person says otherwise";
    m_import.setTable(0, 2);
    EXPECT_EQ(m_import.entries()[0].file.largest, 9.0);
    EXPECT_EQ(m_import.entries()[1].file.largest, 9.0) << "the same shape";
    EXPECT_EQ(m_import.entries()[1].file.layout->columns.size(), 3U);
    m_import.setMapping(
        0, {2, {{}, {ColumnQuantity::Force, "kN", false}, {ColumnQuantity::Extension, "mm", false}}});
    EXPECT_EQ(m_import.entries()[0].file.largest, 9000.0);
    m_import.setTable(0, 2);
    bringIn();
    add({write(QStringLiteral("x_B1.csv"), first + second + "5;1;0.5\n")});
    EXPECT_EQ(m_import.entries()[0].file.largest, 9.0) << "remembered";
    ASSERT_TRUE(m_session.edit(QStringLiteral("sizes"), [](Study &study) -> Status {
        study.pieces[0].section = PlainArea{squareMillimetres(20)};
        return ok();
    }));
    ASSERT_TRUE(QTest::qWaitFor([this] { return !m_session.isReading(); }, test::kPatience_ms));
    const auto reading = m_session.readings().find(m_session.study()->pieces[0].id);
    ASSERT_NE(reading, m_session.readings().end());
    ASSERT_TRUE(reading->second->has_value()) << reading->second->error().message;
    EXPECT_EQ(reading->second->value().samples, 4U) << "the record is read by that table too";
}

// A table that holds several specimens below each other is a record for each of its pegs, of one raw file.
TEST_F(ImportTest, SpecimensOfOneTableAreToldApartAndGoToTheirPegs)
{
    QByteArray table = "specimen,time_s,extension_mm,force_N\n";
    for (const auto &[code, peak_N] : {std::pair<const char *, int>{"A1", 90}, {"A3", 120}, {"B2", 75}}) {
        for (int i = 0; i <= 10; ++i)
            table += QByteArray(code) + ',' + QByteArray::number(i) + ',' + QByteArray::number(0.1 * i) +
                     ',' + QByteArray::number(peak_N * i / 10.0) + '\n';
    }
    add({write(QStringLiteral("pulls.csv"), table)});
    ASSERT_EQ(m_import.entries().size(), 3U);
    EXPECT_EQ(m_import.entries()[1].file.name, "pulls.csv: A3");
    EXPECT_EQ(places(), "A1 A3 B2");
    EXPECT_EQ(m_import.stateText(m_import.entries()[1]), QStringLiteral("11 rows, up to 120.0 N"));
    m_import.assign(2, {});
    bringIn();
    ASSERT_EQ(m_import.entries().size(), 1U) << "what has no peg stays on the list";
    EXPECT_EQ(m_session.project().info()->rawFiles, 1U);
    ASSERT_TRUE(m_session.edit(QStringLiteral("sections"), [](Study &study) {
        for (Piece &piece : study.pieces)
            piece.section = PlainArea{squareMillimetres(20.0)};
        return ok();
    }));
    ASSERT_TRUE(QTest::qWaitFor([this] { return !m_session.isReading(); }, test::kPatience_ms));
    const auto peakOf = [&](std::size_t piece) {
        const Result<PieceReading> &reading = *m_session.readings().at(m_session.study()->pieces[piece].id);
        return test::readValue(reading->result, "peak_force");
    };
    EXPECT_DOUBLE_EQ(peakOf(0), 90.0);
    EXPECT_DOUBLE_EQ(peakOf(2), 120.0);
}

// Two units that contradict each other are not guessed: a person's choice holds for all files of that shape.
TEST_F(ImportTest, ContradictingUnitsAreChosenOnceForAllFilesOfTheShape)
{
    const auto contradicting = [](int peak) {
        return "time (s),force (N) [kN]\n0,0\n1," + QByteArray::number(peak / 2) + "\n2," +
               QByteArray::number(peak) + "\n";
    };
    add({write(QStringLiteral("x_A1.csv"), contradicting(8)),
         write(QStringLiteral("x_A2.csv"), contradicting(6))});
    ASSERT_EQ(m_import.entries().size(), 2U);
    EXPECT_TRUE(m_import.stateText(m_import.entries()[0]).contains(QStringLiteral("two units")));
    ColumnMapping mapping = mappingOf(*m_import.entries()[0].file.found);
    mapping.columns[1].unitSymbol = "kN";
    m_import.setMapping(0, mapping);
    EXPECT_EQ(m_import.stateText(m_import.entries()[1]).left(21), QStringLiteral("3 rows, up to 6000 N;"));
}

TEST_F(ImportTest, BadFilesSayWhatIsWrongAndTheOthersGoOn)
{
    const QString gone = write(QStringLiteral("x_B1.csv"), kGood);
    QFile::remove(gone);
    add({write(QStringLiteral("x_A1.csv"), ""), write(QStringLiteral("x_A2.csv"), "force_N,extension_mm\n"),
         write(QStringLiteral("x_A3.csv"), kGood), gone});
    ASSERT_EQ(m_import.entries().size(), 4U);
    EXPECT_TRUE(m_import.stateText(m_import.entries()[0]).contains(QStringLiteral("empty")));
    EXPECT_TRUE(m_import.stateText(m_import.entries()[1]).contains(QStringLiteral("no data row")));
    EXPECT_TRUE(m_import.stateText(m_import.entries()[3]).contains(QStringLiteral("there is no such file")));
    EXPECT_EQ(m_import.readyCount(), 1U);
    EXPECT_TRUE(m_import.summary().contains(QStringLiteral("3 that cannot be read")))
        << m_import.summary().toStdString();
    bringIn();
    EXPECT_EQ(m_import.entries().size(), 3U) << "what could not come in stays on the list";
}

TEST_F(ImportTest, APatternWithoutAPlaceholderIsRefused)
{
    add({write(QStringLiteral("x_A1.csv"), kGood)});
    m_import.matchByPattern(QStringLiteral("*.csv"));
    EXPECT_TRUE(m_failure.contains(QStringLiteral("{code}")));
    EXPECT_EQ(places(), "A1") << "the former matching stays";
}

TEST_F(ImportTest, FilesGoToTheStudyThatTheyWereBroughtInFor)
{
    add({write(QStringLiteral("x_A1.csv"), kGood), write(QStringLiteral("x_B2.csv"), kGood + "1,1\n")});
    const StudyId first = m_session.study()->id;
    std::size_t told = 0;
    QObject::connect(&m_import, &ImportPresenter::broughtIn, [&](std::size_t count) { told = count; });
    m_import.bringIn();
    EXPECT_TRUE(m_import.isBringingIn());
    EXPECT_FALSE(m_session.study()->pieces[0].recording) << "nothing is linked before its bytes are kept";
    ASSERT_TRUE(m_session.addStudy(QStringLiteral("another?")));
    ASSERT_TRUE(QTest::qWaitFor([&] { return told > 0; }, test::kPatience_ms));
    EXPECT_EQ(told, 2U);
    EXPECT_NE(m_session.study()->id, first) << "nobody is pulled away";
    ASSERT_TRUE(m_session.selectStudy(first));
    EXPECT_TRUE(m_session.study()->pieces[0].recording);
    EXPECT_EQ(*m_session.project().rawBytes(m_session.study()->pieces[0].recording->file),
              kGood.toStdString());
    EXPECT_TRUE(m_session.project().verify()->findings.empty());
}

TEST_F(ImportTest, StoppedOnTheWayWhatIsKeptComesInAndTheRestStaysOnTheList)
{
    QByteArray large = kGood;
    for (int i = 0; i < 200000; ++i)
        large += "9,0.2\n";
    QStringList files;
    for (const char *code : {"A1", "A2", "A3", "B1", "B2", "B3"})
        files << write(QStringLiteral("x_%1.csv").arg(QLatin1String(code)),
                       large + QByteArray(code).replace('A', '1').replace('B', '2') + ",1\n");
    add(files);
    ASSERT_EQ(m_import.readyCount(), 6U);
    const auto stopping = QObject::connect(&m_import, &ImportPresenter::progressed, [&](int done, int) {
        if (done >= 1)
            m_import.cancelBringingIn();
    });
    bringIn();
    const auto recorded = std::count_if(m_session.study()->pieces.begin(), m_session.study()->pieces.end(),
                                        [](const Piece &piece) { return piece.recording.has_value(); });
    EXPECT_GE(recorded, 1);
    EXPECT_EQ(static_cast<std::size_t>(recorded) + m_import.entries().size(), 6U);
    EXPECT_EQ(m_session.project().info()->rawFiles, static_cast<std::size_t>(recorded));
    QObject::disconnect(stopping);
    bringIn();
    EXPECT_TRUE(m_import.entries().empty()) << "gone on with";
}

TEST_F(ImportTest, AProjectThatIsBusyIsNotLeft)
{
    add({write(QStringLiteral("x_A1.csv"), kGood)});
    m_import.bringIn();
    const Status opened = m_session.createProject(m_folder.filePath(QStringLiteral("other.inchpeg")));
    ASSERT_FALSE(opened);
    EXPECT_NE(opened.error().message.find("being brought in"), std::string::npos);
    EXPECT_FALSE(m_session.compact([](const Status &) {}));
    ASSERT_TRUE(QTest::qWaitFor([this] { return !m_import.isBusy(); }, test::kPatience_ms));
    EXPECT_TRUE(m_session.study()->pieces[0].recording);
    EXPECT_TRUE(m_session.compact([](const Status &status) { EXPECT_TRUE(status); }));
    EXPECT_TRUE(QTest::qWaitFor([this] { return !m_session.isCompacting(); }, test::kPatience_ms));
    EXPECT_TRUE(m_session.createProject(m_folder.filePath(QStringLiteral("other.inchpeg"))));
}

// The person goes on editing while files are kept over a connection of their own: no edit is refused, and no
// id is given twice.
TEST_F(ImportTest, EditsGoOnWhileFilesAreKept)
{
    QStringList files;
    for (const char *code : {"A1", "A2", "A3", "B1", "B2", "B3"})
        files << write(QStringLiteral("x_%1.csv").arg(QLatin1String(code)),
                       kGood + QByteArray(code).replace('A', '1').replace('B', '2') + ",1\n");
    add(files);
    m_import.bringIn();
    int edits = 0;
    while (m_import.isBusy() || edits < 20) {
        ASSERT_TRUE(m_session.edit(QStringLiteral("note"), [&](Study &study) {
            study.pieces[0].log.note = std::to_string(++edits);
            return ok();
        }));
        const auto addRail = [&](Study &study) {
            return addCondition(study, {{}, {"c" + std::to_string(edits)}, {}, {}}, m_session.ids());
        };
        ASSERT_TRUE(edits % 5 != 0 || m_session.edit(QStringLiteral("rail"), addRail));
        QCoreApplication::processEvents();
    }
    EXPECT_TRUE(m_import.entries().empty()) << m_failure.toStdString();
    const QString path = m_session.projectPath();
    std::set<std::int64_t> ids;
    const auto take = [&] {
        for (const Piece &piece : m_session.study()->pieces) {
            EXPECT_TRUE(ids.insert(piece.id.value).second) << piece.code;
            EXPECT_TRUE(!piece.recording || ids.insert(piece.recording->file.value).second) << piece.code;
        }
        return m_session.project().takeId();
    };
    EXPECT_FALSE(ids.contains(take()));
    m_session.closeProject();
    ASSERT_TRUE(m_session.openProject(path));
    ids.clear();
    EXPECT_FALSE(ids.contains(take())) << "nor after the project was opened again";
    EXPECT_TRUE(m_session.project().verify()->findings.empty());
}

TEST_F(ImportTest, AFileWhosePegIsTakenAwayMeanwhileStaysOnTheList)
{
    add({write(QStringLiteral("x_B3.csv"), kGood)});
    ASSERT_EQ(places(), "B3");
    m_import.bringIn();
    ASSERT_TRUE(m_session.edit(QStringLiteral("rail"), [&](Study &study) {
        return removeCondition(study, study.conditions.back().id);
    }));
    ASSERT_TRUE(QTest::qWaitFor([this] { return !m_import.isBusy(); }, test::kPatience_ms));
    EXPECT_NE(m_failure.toStdString().find("was taken away while its file came in"), std::string::npos)
        << m_failure.toStdString();
    ASSERT_EQ(m_import.entries().size(), 1U);
    m_import.assign(0, m_session.study()->pieces[0].id);
    bringIn();
    EXPECT_TRUE(m_session.study()->pieces[0].recording);
    EXPECT_EQ(m_session.project().info()->rawFiles, 1U) << "its bytes are kept once";
}

TEST_F(ImportTest, NothingIsWrittenWhereTheProjectHasGone)
{
    add({write(QStringLiteral("x_A1.csv"), kGood)});
    const QString path = m_session.projectPath();
    ASSERT_TRUE(QFile::rename(path, path + QStringLiteral(".moved")));
    m_import.bringIn();
    EXPECT_FALSE(m_import.isBringingIn());
    EXPECT_NE(m_failure.toStdString().find("no longer in its place"), std::string::npos);
    EXPECT_EQ(m_import.entries().size(), 1U) << "it can be brought in once the project is back";
    EXPECT_FALSE(QFile::exists(path));
}

} // namespace inchpeg::app
