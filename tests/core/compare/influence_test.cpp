// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/influence.h"
#include "support/study_builder.h"

namespace inchpeg
{

namespace
{

std::vector<Influence> influencesIn(const test::StudyBuilder &builder)
{
    return influences(builder.study, builder.readings, *findProperty(kTensileReduction, kUsualProperty));
}

Piece &pieceOf(test::StudyBuilder &builder, std::size_t rail, std::size_t place)
{
    std::size_t seen = 0;
    for (Piece &piece : builder.study.pieces) {
        if (piece.condition == builder.study.conditions[rail].id && seen++ == place)
            return piece;
    }
    throw ContractViolation("no such piece");
}

} // namespace

TEST(Influence, NothingStandsOutAndNothingIsSaid)
{
    test::StudyBuilder builder;
    builder.rail("220", {39, 40, 41, 40}).rail("230", {44, 45, 46, 45});
    EXPECT_TRUE(influencesIn(builder).empty());
}

TEST(Influence, AClaimThatHangsOnALeftOutPieceIsTold)
{
    test::StudyBuilder builder;
    builder.rail("220", {39, 40, 41, 40}).rail("230", {44, 45, 46, 20});
    pieceOf(builder, 1, 3).exclusion = Exclusion{"slipped", "bench", "now"};
    const std::vector<Influence> found = influencesIn(builder);
    ASSERT_EQ(found.size(), 1U);
    EXPECT_TRUE(found[0].isLeftOut);
    ASSERT_EQ(found[0].changed.size(), 1U);
    const std::vector<std::string> told = influenceSentences(builder.study, found);
    ASSERT_EQ(told.size(), 1U);
    EXPECT_EQ(told[0], "A claim hangs on leaving out " + pieceOf(builder, 1, 3).code +
                           ": with it, 230 °C would be told otherwise.");
}

TEST(Influence, APieceThatStandsOutIsNamedWithWhatHangsOnIt)
{
    test::StudyBuilder builder;
    builder.rail("220", {39.9, 40, 40.1, 40, 39.8, 40.2}).rail("230", {44, 45, 46, 45, 44.5, 22});
    std::vector<Influence> found = influencesIn(builder);
    ASSERT_EQ(found.size(), 1U);
    EXPECT_FALSE(found[0].isLeftOut);
    EXPECT_EQ(found[0].piece, pieceOf(builder, 1, 5).id);
    EXPECT_EQ(found[0].changed.size(), 1U) << "without it 230 °C is clearly above";
    EXPECT_NE(influenceSentences(builder.study, found)[0].find("which stands out on its rail"),
              std::string::npos);
    // Far above, it changes nothing of what is claimed.
    test::StudyBuilder far;
    far.rail("220", {39.9, 40, 40.1, 40, 39.8, 40.2}).rail("230", {80, 81, 79, 80, 80.5, 90});
    found = influencesIn(far);
    ASSERT_EQ(found.size(), 1U);
    EXPECT_TRUE(found[0].changed.empty());
    EXPECT_EQ(influenceSentences(far.study, found)[0],
              pieceOf(far, 1, 5).code + " stands out on its rail; no claim hangs on it.");
}

} // namespace inchpeg
