// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/blind_pairs.h"
#include "support/piece_ids.h"

#include <gtest/gtest.h>

#include <map>
#include <set>

namespace inchpeg
{

namespace
{

/// Answers all that is open by who is the stronger; equal ones feel alike.
void answerAll(BlindPairs &pairs, const std::function<int(PieceId)> &strength)
{
    while (const std::optional<std::size_t> next = nextPair(pairs)) {
        AskedPair &pair = pairs.asked[*next];
        const int difference = strength(pair.left) - strength(pair.right);
        pair.answer = difference > 0   ? PairAnswer::Left
                      : difference < 0 ? PairAnswer::Right
                                       : PairAnswer::Even;
    }
}

} // namespace

TEST(BlindPairs, EachPieceMeetsAsManyOthersAsTheNextAndEachPairComesTwiceTheOtherWayRound)
{
    for (std::int64_t n = 2; n <= 24; ++n) {
        for (std::uint64_t seed = 1; seed <= 20; ++seed) {
            SCOPED_TRACE(testing::Message() << n << " pieces, seed " << seed);
            const BlindPairs pairs = drawBlindPairs(test::piecesUpTo(n), PairManner::Bent, seed);
            std::map<std::pair<PieceId, PieceId>, int> met;
            std::map<PieceId, std::set<PieceId>> others;
            for (const AskedPair &pair : pairs.asked) {
                EXPECT_NE(pair.left, pair.right);
                ++met[{pair.left, pair.right}];
                others[pair.left].insert(pair.right);
                others[pair.right].insert(pair.left);
            }
            for (const auto &[pair, times] : met) {
                EXPECT_EQ(times, 1);
                EXPECT_EQ((met.count({pair.second, pair.first})), 1U);
            }
            const auto wanted = static_cast<std::size_t>(std::min<std::int64_t>(n - 1, 4));
            for (const PieceId piece : test::piecesUpTo(n))
                EXPECT_EQ(others[piece].size(), wanted);
            const std::size_t half = pairs.asked.size() / 2;
            for (std::size_t i = 0; i < pairs.asked.size(); ++i)
                EXPECT_EQ(pairs.asked[i].isAgain, i >= half);
        }
    }
}

TEST(BlindPairs, OfPiecesThatBreakEachIsInOnePair)
{
    const BlindPairs pairs = drawBlindPairs(test::piecesUpTo(7), PairManner::Broken, 3);
    EXPECT_EQ(pairs.asked.size(), 3U);
    EXPECT_EQ(piecesOf(pairs).size(), 6U) << "of seven one is left over";
    EXPECT_TRUE(drawBlindPairs(test::piecesUpTo(1), PairManner::Bent, 1).asked.empty());
}

TEST(BlindPairs, AreCountedFromEitherSide)
{
    BlindPairs pairs = drawBlindPairs(test::piecesUpTo(4), PairManner::Bent, 5);
    ASSERT_EQ(pairs.asked.size(), 12U) << "all six, twice";
    answerAll(pairs, [](PieceId piece) { return piece.value < 3 ? 0 : static_cast<int>(piece.value); });
    EXPECT_EQ(countsOf(pairs, PieceId{4}), (PairCounts{6, 0, 0, 3, 0}));
    EXPECT_EQ(countsOf(pairs, PieceId{3}), (PairCounts{4, 0, 2, 3, 0}));
    EXPECT_EQ(countsOf(pairs, PieceId{1}), (PairCounts{0, 2, 4, 3, 0}));
    // The hand says otherwise the second time.
    for (AskedPair &pair : pairs.asked) {
        if (pair.isAgain && (pair.left == PieceId{4} || pair.right == PieceId{4}))
            pair.answer = PairAnswer::Even;
    }
    EXPECT_EQ(countsOf(pairs, PieceId{4}), (PairCounts{3, 3, 0, 3, 3}));
    EXPECT_EQ(countsOf(pairs, PieceId{3}), (PairCounts{4, 1, 1, 3, 1}));
}

TEST(BlindPairs, AreTheSameAfterTheirTextAndOddTextsAreRefused)
{
    BlindPairs pairs = drawBlindPairs(test::piecesUpTo(5), PairManner::Bent, 8);
    for (std::size_t i = 0; i < 3; ++i)
        pairs.asked[i].answer = static_cast<PairAnswer>(i);
    EXPECT_EQ(pairsAnswered(pairs), 3U);
    EXPECT_EQ(nextPair(pairs), 3U);
    const Result<BlindPairs> again = blindPairsFromText(blindPairsText(pairs));
    ASSERT_TRUE(again) << again.error().message;
    EXPECT_EQ(*again, pairs);
    for (const char *odd : {"", "7", "[1]", "[{\"left\": 1}]",
                            "[{\"left\": 1, \"right\": 2, \"again\": false, \"answer\": \"up\"}]"})
        EXPECT_FALSE(blindPairsFromText(odd)) << odd;
}

TEST(BlindPairs, APieceThatIsVoidedMeanwhileTakesItsPairsWithIt)
{
    BlindPairs pairs = drawBlindPairs(test::piecesUpTo(8), PairManner::Bent, 2);
    keepOnly(pairs, [](PieceId piece) { return piece != PieceId{3}; });
    EXPECT_EQ(pairs.asked.size(), 24U);
    for (const AskedPair &pair : pairs.asked)
        EXPECT_TRUE(pair.left != PieceId{3} && pair.right != PieceId{3});
}

} // namespace inchpeg
