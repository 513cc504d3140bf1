// SPDX-License-Identifier: GPL-3.0-or-later
// Rails of grades and words: what is said of them, and what is not.
#include "core/base/random.h"
#include "core/compare/answers.h"
#include "core/compare/graded.h"
#include "core/compare/verdict.h"
#include "core/logbook/blind_pairs.h"
#include "core/model/study_edit.h"
#include "core/planning/piece_count.h"
#include "core/reading/reading_settings.h"
#include "sim/virtual_judgement.h"
#include "support/calibration.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

/// A study by feel whose typed records are read as the program reads them.
struct FeltStudy {
    Study study;
    PieceReadings readings;
    std::int64_t lastId = 0;

    explicit FeltStudy(Method method, int pieces)
    {
        study.id = StudyId{++lastId};
        study.factors.front() = {"nozzle temperature", "°C", ChangedPer::Piece};
        firstTest(study).method = method;
        firstTest(study).piecesPerCondition = pieces;
    }

    void rail(const char *level, const std::vector<std::string> &rows, const char *heading = "grade,again\n")
    {
        ASSERT_TRUE(
            addCondition(study, {{}, {level}, Orientation::Flat, "polyester"}, [this] { return ++lastId; }));
        std::size_t next = 0;
        for (Piece &piece : study.pieces) {
            if (piece.condition != study.conditions.back().id || next >= rows.size())
                continue;
            piece.recording = Recording{RawFileId{++lastId}, {}};
            const Result<ReadingOrder> order = readingOrder(study, piece, {});
            ASSERT_TRUE(order) << order.error().message;
            readings[piece.id] = std::make_shared<const Result<PieceReading>>(readPiece(
                {piece.id, std::make_shared<const std::string>(heading + rows[next++]), {}, *order}));
            ASSERT_TRUE(*readings[piece.id]) << (*readings[piece.id]).error().message;
        }
    }

    StudyComparison compared(std::string_view property) const
    {
        return compareStudy(study, readings, *findProperty(*reductionOf(methodOf(study)), property));
    }
    StudyVerdict verdict(std::string_view property) const { return verdictOf(study, compared(property)); }
};

std::vector<std::string> same(const char *row, std::size_t n)
{
    return std::vector<std::string>(n, row);
}

} // namespace

// Six and six apart: the 2 of 924 ways of dealing the ranks out that are as far apart (SciPy 1.10
// permutation_test of rank sums, exact: p = 2/924 = 0.0021645).
TEST(Graded, RailsApartAreToldWithPairsAndMedians)
{
    FeltStudy felt(Method::ByFeel, 6);
    felt.rail("190", {"1,1\n", "2,2\n", "2,1\n", "2,2\n", "1,2\n", "2,3\n"});
    felt.rail("210", {"4,4\n", "3,3\n", "4,5\n", "3,4\n", "4,4\n", "5,5\n"});
    const StudyComparison comparison = felt.compared("grade");
    ASSERT_TRUE(comparison.rails[1].grades);
    EXPECT_NEAR(comparison.rails[1].grades->p, 2.0 / 924.0, 1e-12);
    EXPECT_EQ(comparison.rails[1].grades->better, 1.0);
    EXPECT_FALSE(comparison.procedure) << "no means are compared";
    EXPECT_FALSE(comparison.rails[1].effect);
    const StudyVerdict verdict = felt.verdict("grade");
    EXPECT_EQ(verdict.rails[1].standing, Standing::Higher);
    EXPECT_EQ(
        verdict.rails[1].sentence,
        "Better graded than 190 °C: graded higher in 100 % of the pairs (median 4 against 1.75, 6 and 6 "
        "pieces).");
    EXPECT_EQ(verdict.rails[1].meanText, "median 4 (3 to 5)");
    EXPECT_EQ(verdict.rails[1].difference, "median +2.25");
    EXPECT_EQ(verdict.headline, "Grade by feel: 210 °C above 190 °C (above is better).");
    EXPECT_EQ(verdict.rails[1].sentence.find("mean"), std::string::npos);
}

TEST(Graded, ThreeAndThreeCannotShowAnything)
{
    FeltStudy felt(Method::ByFeel, 3);
    felt.rail("190", same("1,1\n", 3));
    felt.rail("210", same("5,5\n", 3));
    const StudyVerdict verdict = felt.verdict("grade");
    EXPECT_EQ(verdict.rails[1].standing, Standing::NotToldApart);
    EXPECT_NE(verdict.rails[1].sentence.find("fewer than 4 on either rail"), std::string::npos)
        << verdict.rails[1].sentence;
    const Result<PieceAnswer> plan = pieceAnswer(felt.study, {});
    ASSERT_TRUE(plan);
    EXPECT_EQ(plan->wanted, 4);
    EXPECT_NE(plan->sentence.find("With three pieces nothing can be shown"), std::string::npos)
        << plan->sentence;
}

// 2/C(2n, n) < 0.05/m: n = 4 for one comparison (2/70), 5 for four (2/252 < 0.0125; 2/70 is not).
TEST(Graded, HowManyPiecesRanksNeed)
{
    EXPECT_EQ(leastGraded(1, 0.05), 4U);
    EXPECT_EQ(leastGraded(4, 0.05), 5U);
    EXPECT_EQ(leastGraded(1, 0.2), 3U);
}

TEST(Graded, ATowerByFeelRisesAndBothEndsOfItsPlateauAreOffered)
{
    FeltStudy felt(Method::ByFeel, 6);
    const double quality[] = {1.2, 2.2, 3.9, 4.1, 4.0};
    const char *levels[] = {"190", "200", "210", "220", "230"};
    for (std::size_t i = 0; i < std::size(levels); ++i) {
        std::vector<std::string> rows;
        for (std::uint64_t piece = 0; piece < 6; ++piece) {
            const std::string table = sim::feelTable(quality[i], 100 * i + piece + 1);
            rows.push_back(table.substr(table.find('\n') + 1));
        }
        felt.rail(levels[i], rows);
    }
    const std::vector<std::string> answers = textsOf(questionAnswers(felt.study, felt.compared("grade"), {}));
    ASSERT_EQ(answers.size(), 2U);
    EXPECT_TRUE(answers[0].starts_with("From 190 °C to 230 °C the grades rise (Kendall's tau 0."))
        << answers[0];
    EXPECT_EQ(answers[1],
              "Graded best may be 210 °C, 220 °C or 230 °C. Of these the lowest is 210 °C, the highest "
              "230 °C.");
    const std::vector<ConditionId> best = mayBeBest(felt.study, felt.compared("grade"));
    EXPECT_EQ(best.size(), 3U);
}

TEST(Graded, WordsAreCountedAndNothingElse)
{
    FeltStudy seen(Method::Flame, 3);
    seen.study.factors.front() = {"fibre", "%", ChangedPer::Plate};
    const char *heading = "goes_out,drips\n";
    seen.rail("0", {"burnt on,burning drips\n", "burnt on,dripped\n", "within 30 s,burning drips\n"},
              heading);
    seen.rail("30", {"at once,none\n", "at once,none\n", "within 10 s,none\n"}, heading);
    const StudyVerdict verdict = seen.verdict("drips");
    EXPECT_EQ(verdict.rails[0].sentence, "Seen: dripped 1, burning drips 2 (3 pieces).");
    EXPECT_EQ(verdict.rails[1].standing, Standing::Listed);
    EXPECT_EQ(verdict.rails[1].meanText, "none 3");
    EXPECT_TRUE(verdict.rails[1].difference.empty());
    EXPECT_NE(verdict.headline.find("not rated"), std::string::npos);
    EXPECT_FALSE(seen.compared("drips").rails[0].summary.mean);
    EXPECT_TRUE(textsOf(questionAnswers(seen.study, seen.compared("drips"), {})).empty());
}

// Alike rails are claimed to differ in at most 5 of 100 studies, whatever the ties.
TEST(Graded, AlikeRailsAreSeldomToldApart)
{
    constexpr int kStudies = 400;
    int wrong = 0;
    for (std::uint64_t seed = 1; seed <= kStudies; ++seed) {
        FeltStudy felt(Method::ByFeel, 6);
        for (std::uint64_t rail = 0; rail < 3; ++rail) {
            std::vector<std::string> rows;
            for (std::uint64_t piece = 0; piece < 6; ++piece) {
                const std::string table = sim::feelTable(3.0, 1000 * seed + 10 * rail + piece);
                rows.push_back(table.substr(table.find('\n') + 1));
            }
            felt.rail(fmt::format("{}", 200 + rail).c_str(), rows);
        }
        const StudyVerdict verdict = felt.verdict("grade");
        wrong += verdict.rails[1].standing != Standing::NotToldApart ||
                         verdict.rails[2].standing != Standing::NotToldApart
                     ? 1
                     : 0;
    }
    EXPECT_LE(wrong, 33) << "5 % of 400, and three standard errors";
}

namespace
{

/// Three rails of six pieces whose pairs are drawn and answered by hands that are sometimes wrong.
StudyVerdict verdictOfPairs(const double (&strengths)[3], std::uint64_t seed)
{
    Random random(seed);
    std::vector<double> piece;
    std::vector<PieceId> ids;
    for (std::int64_t i = 0; i < 18; ++i) {
        piece.push_back(strengths[i / 6] + random.normal());
        ids.push_back(PieceId{i});
    }
    BlindPairs pairs = drawBlindPairs(ids, PairManner::Bent, seed);
    for (AskedPair &pair : pairs.asked) {
        const auto felt = [&](PieceId id) {
            return piece[static_cast<std::size_t>(id.value)] + 0.5 * random.normal();
        };
        const double left = felt(pair.left);
        const double difference = left - felt(pair.right);
        pair.answer = difference > 0.2    ? PairAnswer::Left
                      : difference < -0.2 ? PairAnswer::Right
                                          : PairAnswer::Even;
    }
    FeltStudy felt(Method::FeltPairs, 6);
    for (std::size_t rail = 0; rail < 3; ++rail) {
        std::vector<std::string> rows;
        for (std::size_t i = 6 * rail; i < 6 * rail + 6; ++i) {
            const PairCounts counts = countsOf(pairs, ids[i]);
            rows.push_back(fmt::format("{},{},{},{},{}\n", counts.won, counts.even, counts.lost,
                                       counts.askedAgain, counts.changed));
        }
        felt.rail(fmt::format("{}", 190 + 10 * rail).c_str(), rows, "won,even,lost,asked_again,changed\n");
    }
    return felt.verdict("pair_share");
}

} // namespace

// A piece's share hangs on whom it met; as the pairs are drawn without regard to the rails, equal rails are
// still told apart in at most 5 of 100 studies.
TEST(Graded, PairsTellRailsApartAndAlikeOnesSeldom)
{
    constexpr std::uint64_t kStudies = 400;
    int wrong = 0;
    int found = 0;
    for (std::uint64_t seed = 1; seed <= kStudies; ++seed) {
        const StudyVerdict alike = verdictOfPairs({0.0, 0.0, 0.0}, seed);
        wrong += alike.rails[1].standing != Standing::NotToldApart ||
                         alike.rails[2].standing != Standing::NotToldApart
                     ? 1
                     : 0;
        found += verdictOfPairs({0.0, 1.0, 4.0}, seed).rails[2].standing == Standing::Higher ? 1 : 0;
    }
    EXPECT_LE(wrong, 33) << "5 % of 400, and three standard errors";
    EXPECT_GE(found, 360) << "four standard deviations of a piece are felt";
    const StudyVerdict apart = verdictOfPairs({0.0, 1.0, 4.0}, 1);
    EXPECT_TRUE(apart.rails[2].sentence.starts_with("Better placed than 190 °C: placed higher in "))
        << apart.rails[2].sentence;
    EXPECT_TRUE(apart.headline.starts_with("Share of pairs won: ")) << apart.headline;
}

// Grades that are looked at as they are given: a claim at any of the looks counts, and there is nothing to
// find. Without a share of the level for each look one in eight studies claimed something.
TEST(Graded, LooksTogetherKeepTheLevel)
{
    Random random(test::simulationSeed(41));
    const auto grade = [&] { return std::to_string(1 + static_cast<int>(5.0 * random.uniform())); };
    test::simulatedShare(
        "grades looked at after each of 6 pieces, 2 rails: wrong", test::atMost(0.05, 0.005), [&] {
            std::vector<std::string> first;
            std::vector<std::string> second;
            bool claims = false;
            for (int n = 1; n <= 6; ++n) {
                first.push_back(grade() + ",");
                second.push_back(grade() + ",");
                if (n < 2)
                    continue;
                FeltStudy felt(Method::ByFeel, 6);
                felt.study.plan.aim.looks = Spending::Pocock;
                felt.rail("210", first);
                felt.rail("230", second);
                const StudyComparison compared = felt.compared("grade");
                EXPECT_TRUE(compared.look);
                const Standing standing = verdictOf(felt.study, compared).rails[1].standing;
                claims = claims || standing == Standing::Higher || standing == Standing::Lower;
            }
            return claims;
        });
}

// A steady change was asked for: the rails, the best and the change share one level.
TEST(Graded, ATrendStudysSentencesTogetherKeepOneLevel)
{
    Random random(test::simulationSeed(42));
    const auto grade = [&] { return std::to_string(1 + static_cast<int>(5.0 * random.uniform())) + ","; };
    test::simulatedShare(
        "grades along 4 levels of 6, all sentences together: wrong", test::atMost(0.06, 0.005), [&] {
            FeltStudy felt(Method::ByFeel, 6);
            felt.study.plan.aim.comparison = Comparison::Trend;
            for (const char *level : {"210", "220", "230", "240"}) {
                std::vector<std::string> rows;
                for (int n = 0; n < 6; ++n)
                    rows.push_back(grade());
                felt.rail(level, rows);
            }
            const StudyComparison compared = felt.compared("grade");
            bool claims = false;
            for (const RailVerdict &rail : verdictOf(felt.study, compared).rails)
                claims = claims || rail.standing == Standing::Higher || rail.standing == Standing::Lower;
            for (const std::string &text : textsOf(questionAnswers(felt.study, compared, {})))
                claims = claims || text.find(" rise (") != std::string::npos ||
                         text.find(" fall (") != std::string::npos || text.ends_with(" best.");
            return claims;
        });
}

} // namespace inchpeg
