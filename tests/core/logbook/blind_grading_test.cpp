// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/blind_grading.h"
#include "support/piece_ids.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <set>

namespace inchpeg
{

TEST(BlindGrading, EachPieceComesOnceARoundAndTheSecondRoundBeginsWithThoseLongAgo)
{
    for (std::uint64_t seed = 1; seed <= 200; ++seed) {
        SCOPED_TRACE(seed);
        const BlindGrading grading = drawBlindGrading(test::piecesUpTo(12), seed);
        for (const std::vector<PieceId> &round : {grading.first, grading.again})
            EXPECT_EQ(std::set<PieceId>(round.begin(), round.end()).size(), 12U);
        const std::set<PieceId> fresh(grading.first.end() - 4, grading.first.end());
        EXPECT_TRUE(std::none_of(grading.again.begin(), grading.again.begin() + 8, [&](PieceId piece) {
            return fresh.contains(piece);
        })) << "who was graded last comes last again";
    }
    EXPECT_NE(drawBlindGrading(test::piecesUpTo(12), 1).first,
              drawBlindGrading(test::piecesUpTo(12), 2).first);
}

TEST(BlindGrading, GoesOnWhereItWasAndIsTheSameAfterItsText)
{
    BlindGrading grading = drawBlindGrading(test::piecesUpTo(3), 7);
    EXPECT_EQ(gradesWanted(grading), 6U);
    for (int given = 0; given < 6; ++given) {
        const std::optional<GivenGrade> next = nextGrade(grading);
        ASSERT_TRUE(next);
        EXPECT_EQ(next->isAgain, given >= 3);
        grading.given.push_back({next->piece, next->isAgain, 1 + given % 5});
        const Result<BlindGrading> again = blindGradingFromText(blindGradingText(grading));
        ASSERT_TRUE(again) << again.error().message;
        EXPECT_EQ(*again, grading);
    }
    EXPECT_FALSE(nextGrade(grading));
    const BothGrades both = gradesOf(grading, grading.first[0]);
    EXPECT_EQ(both.first, 1);
    EXPECT_GT(both.again, 0);
}

TEST(BlindGrading, APieceThatIsVoidedMeanwhileIsAskedForNoMore)
{
    BlindGrading grading = drawBlindGrading(test::piecesUpTo(4), 3);
    const PieceId gone = grading.first[1];
    grading.given = {{grading.first[0], false, 3}, {gone, false, 2}};
    keepOnly(grading, [gone](PieceId piece) { return piece != gone; });
    EXPECT_EQ(gradesWanted(grading), 6U);
    EXPECT_EQ(grading.given.size(), 1U);
    EXPECT_EQ(gradesOf(grading, gone).first, 0);
}

TEST(BlindGrading, ATextThatIsNoneIsRefused)
{
    for (const char *text : {"", "[]", "{\"first\":[1]}",
                             "{\"first\":[1],\"again\":[1],\"given\":[{\"piece\":1,"
                             "\"again\":false,\"grade\":6}]}"})
        EXPECT_FALSE(blindGradingFromText(text)) << text;
}

} // namespace inchpeg
