// SPDX-License-Identifier: GPL-3.0-or-later
// What is judged by feel at the bench, through the real window: neither the pieces' rails nor their pegs are
// told until all is said.
#include "app/bench_modes.h"
#include "core/compare/verdict.h"
#include "core/planning/lab_code.h"

#include <set>

namespace inchpeg::app
{

// Sixteen grades for eight pieces: only codes are named, no rail is lit, and no digit is a lens.
TEST_F(BenchModes, ByFeelIsBlindAndTwice)
{
    begin(Method::ByFeel, 4);
    picture("/feel-before.png");
    EXPECT_EQ(bench().piece(), nullptr) << "the peg that is lit is none that lies at hand";
    EXPECT_FALSE(m_app.find<QWidget>("benchVoid")->isVisible());
    press(Qt::Key_Space);
    ASSERT_TRUE(bench().feel().isUnderWay());
    const auto codeOf = [&](PieceId id) {
        return QString::fromStdString(blindCode(session().workshop().labPrefix, id));
    };
    const auto letterOf = [&](const QString &code) {
        for (const Piece &one : session().study()->pieces) {
            if (codeOf(one.id) == code)
                return QChar::fromLatin1(one.code.front());
        }
        return QChar(u'?');
    };
    QStringList asked;
    for (int i = 0; i < 16; ++i) {
        const QString code = text("feelCode");
        ASSERT_FALSE(code.isEmpty());
        // The rack would tell; an opened project lights its first piece, whichever is asked for.
        EXPECT_TRUE(i >= 10 || !(session().selectedPiece().value > 0));
        EXPECT_FALSE(text("benchPiece").contains(QLatin1String("A1")));
        asked << code;
        if (i == 3) { // a slip of the finger
            m_app.click("feelBack");
            EXPECT_EQ(text("feelCode"), asked[2]);
            press(letterOf(asked[2]) == QLatin1Char('A') ? Qt::Key_2 : Qt::Key_5);
        }
        if (i == 5)
            picture("/feel-round.png");
        // The fast rail is the stronger one; the second time the hand is one grade off for one of them.
        press(letterOf(code) == QLatin1Char('A') ? Qt::Key_2 : i == 15 ? Qt::Key_4 : Qt::Key_5);
        ASSERT_EQ(session().lens(), Lens::Bench) << "a digit is a grade here";
        if (i == 9) { // the program is closed in the middle
            const QString path = session().projectPath();
            session().closeProject();
            ASSERT_TRUE(session().openProject(path));
            session().setLens(Lens::Bench);
            QCoreApplication::processEvents();
            ASSERT_TRUE(bench().feel().isUnderWay()) << "and goes on where it was";
        }
    }
    for (int half : {0, 8}) {
        const QStringList round = asked.mid(half, 8);
        EXPECT_EQ(std::set<QString>(round.begin(), round.end()).size(), 8U) << "each piece once a round";
    }
    m_app.waitUntilKept();
    m_app.waitUntilRead();
    QCoreApplication::processEvents();
    EXPECT_FALSE(bench().feel().isUnderWay());
    for (const Piece &one : session().study()->pieces) {
        ASSERT_TRUE(one.recording) << one.code;
        const PieceReading *reading = readingOf(session().readings(), one.id);
        ASSERT_NE(reading, nullptr);
        const double grade = valueOf(reading->result.values, "grade")->number;
        EXPECT_TRUE(one.code.front() == 'A' ? grade == 2.0 : grade >= 4.5) << one.code << " " << grade;
    }
    const Result<std::optional<std::string>> kept =
        session().project().setting("blind_" + std::to_string(session().study()->id.value));
    ASSERT_TRUE(kept);
    EXPECT_TRUE(!*kept || (*kept)->empty()) << "the round is over";
    picture("/feel-over.png");
    session().setLens(Lens::Compare);
    QCoreApplication::processEvents();
    const StudyVerdict verdict =
        verdictOf(*session().study(),
                  compareStudy(*session().study(), session().readings(), usualProperty(Method::ByFeel)));
    EXPECT_EQ(verdict.rails[1].standing, Standing::Higher) << verdict.rails[1].sentence;
    picture("/feel-compare.png");
}

// Eight pieces, four others each, every pair twice: 32 answers by the arrows, broken off in between.
TEST_F(BenchModes, PairsByFeelAreBlindAndTwice)
{
    begin(Method::FeltPairs, 4);
    EXPECT_EQ(bench().piece(), nullptr);
    picture("/pairs-before.png");
    press(Qt::Key_Space);
    ASSERT_TRUE(bench().pairs().isUnderWay());
    const auto isFast = [&](const QString &code) {
        for (const Piece &one : session().study()->pieces) {
            if (QString::fromStdString(blindCode(session().workshop().labPrefix, one.id)) == code)
                return one.code.front() == 'B';
        }
        ADD_FAILURE() << "no piece is called " << code.toStdString();
        return false;
    };
    for (int i = 0; i < 32; ++i) {
        SCOPED_TRACE(i);
        const QString left = text("pairsLeft");
        const QString right = text("pairsRight");
        ASSERT_FALSE(left.isEmpty());
        ASSERT_NE(left, right);
        EXPECT_TRUE(i > 9 || session().selectedPiece().value == 0) << "the rack would tell";
        if (i == 4) { // a slip of the finger is taken back
            press(Qt::Key_Down);
            m_app.click("pairsBack");
            EXPECT_EQ(text("pairsLeft"), left);
            picture("/pairs-round.png");
            m_app.window().resize(1024, 700);
            QCoreApplication::processEvents();
            for (const char *label : {"pairsLeft", "pairsRight"})
                EXPECT_GE(m_app.find<QLabel>(label)->width(), m_app.find<QLabel>(label)->sizeHint().width());
            EXPECT_LE(m_app.window().width(), 1024);
            picture("/pairs-small.png");
            m_app.window().resize(1280, 800);
        }
        if (i == 6) { // by mouse, and the arrows go on from there
            m_app.click(isFast(left) == isFast(right) ? "pairsAnswerEven"
                        : isFast(left)                ? "pairsAnswerLeft"
                                                      : "pairsAnswerRight");
        } else {
            press(isFast(left) == isFast(right) ? Qt::Key_Down : isFast(left) ? Qt::Key_Left : Qt::Key_Right);
        }
        if (bench().pairs().isUnderWay())
            press(Qt::Key_4);
        ASSERT_EQ(session().lens(), Lens::Bench) << "no digit is a lens here";
        if (i == 9) {
            const QString path = session().projectPath();
            session().closeProject();
            ASSERT_TRUE(session().openProject(path));
            session().setLens(Lens::Bench);
            QCoreApplication::processEvents();
            ASSERT_TRUE(bench().pairs().isUnderWay()) << "and goes on where it was";
        }
    }
    m_app.waitUntilKept();
    m_app.waitUntilRead();
    QCoreApplication::processEvents();
    EXPECT_FALSE(bench().pairs().isUnderWay());
    picture("/pairs-over.png");
    for (const Piece &one : session().study()->pieces) {
        ASSERT_TRUE(one.recording) << one.code;
        const double share = test::readValue(reading(QString::fromStdString(one.code)), "pair_share");
        EXPECT_TRUE(one.code.front() == 'B' ? share >= 0.5 : share <= 0.5) << one.code << " " << share;
        EXPECT_EQ(test::readValue(reading(QString::fromStdString(one.code)), "changed_share"), 0.0);
    }
    const Result<std::optional<std::string>> kept =
        session().project().setting("pairs_" + std::to_string(session().study()->id.value));
    ASSERT_TRUE(kept);
    EXPECT_TRUE(!*kept || (*kept)->empty()) << "the round is over";
    session().setLens(Lens::Compare);
    QCoreApplication::processEvents();
    picture("/pairs-compare.png");
}

// Pieces that break are in one pair; of three and three none is left, of one alone nothing is asked.
TEST_F(BenchModes, PairsOfPiecesThatBreakAreAskedOnce)
{
    begin(Method::FeltPairs, 3);
    ASSERT_TRUE(session().edit(QStringLiteral("manner"), [](Study &study) -> Status {
        firstTest(study).setup.settings.words["manner"] = "broken";
        return ok();
    }));
    press(Qt::Key_Space);
    for (int i = 0; i < 3; ++i) {
        ASSERT_TRUE(bench().pairs().isUnderWay());
        press(Qt::Key_Left);
    }
    m_app.waitUntilKept();
    m_app.waitUntilRead();
    EXPECT_FALSE(bench().pairs().isUnderWay());
    double won = 0.0;
    for (const Piece &one : session().study()->pieces)
        won += test::readValue(reading(QString::fromStdString(one.code)), "pair_share");
    EXPECT_EQ(won, 3.0);
}

} // namespace inchpeg::app
