// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/study/study_edit.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

#include <set>

namespace inchpeg
{

namespace
{

std::vector<std::string> codesOf(const Study &study)
{
    std::vector<std::string> codes;
    for (const Piece &piece : study.pieces)
        codes.push_back(piece.code);
    return codes;
}

} // namespace

TEST(StudyEdit, EachRailHasItsLetterAndEachPieceItsNumber)
{
    test::StudyBuilder builder;
    builder.study.piecesPerCondition = 2;
    EXPECT_TRUE(addCondition(builder.study, {{}, {"230"}, {}, {}}, builder.ids()));
    EXPECT_TRUE(addCondition(builder.study, {{}, {"245 °C"}, {}, {}}, builder.ids()));
    EXPECT_EQ(codesOf(builder.study), (std::vector<std::string>{"A1", "A2", "B1", "B2"}));
    EXPECT_EQ(builder.study.conditions[1].levels.front(), "245") << "a repeated unit is taken off";
    EXPECT_EQ(builder.study.reference, builder.study.conditions[0].id);
}

TEST(StudyEdit, LettersThatLookLikeDigitsAreLeftOutAndGoOnAfterZ)
{
    test::StudyBuilder builder;
    builder.study.factors.front().unit.clear();
    std::set<std::string> codes;
    for (int i = 0; i < 60; ++i) {
        ASSERT_TRUE(addCondition(builder.study, {{}, {"level " + std::to_string(i)}, {}, {}}, builder.ids()));
        codes.insert(builder.study.pieces.back().code);
    }
    EXPECT_EQ(codes.size(), 60U);
    EXPECT_FALSE(codes.contains("I1") || codes.contains("O1"));
    EXPECT_TRUE(codes.contains("AA1"));
}

TEST(StudyEdit, RefusesLevelsThatCannotBe)
{
    test::StudyBuilder builder;
    EXPECT_FALSE(addCondition(builder.study, {{}, {"  "}, {}, {}}, builder.ids()));
    EXPECT_NE(addCondition(builder.study, {{}, {"warm"}, {}, {}}, builder.ids())
                  .error()
                  .message.find("not a number"),
              std::string::npos);
    EXPECT_TRUE(addCondition(builder.study, {{}, {"230"}, {}, {}}, builder.ids()));
    EXPECT_FALSE(addCondition(builder.study, {{}, {"230"}, {}, {}}, builder.ids()));
    EXPECT_TRUE(addCondition(builder.study, {{}, {"230"}, Orientation::Standing, {}}, builder.ids()));
}

TEST(StudyEdit, FewerPiecesNeverTakeAwayWhatHoldsData)
{
    test::StudyBuilder builder;
    builder.study.piecesPerCondition = 4;
    ASSERT_TRUE(addCondition(builder.study, {{}, {"230"}, {}, {}}, builder.ids()));
    builder.study.pieces[3].section = RoundSection{millimetres(5)};
    ASSERT_TRUE(setPiecesPerCondition(builder.study, 1, builder.ids()));
    EXPECT_EQ(codesOf(builder.study), (std::vector<std::string>{"A4"}));
    ASSERT_TRUE(setPiecesPerCondition(builder.study, 3, builder.ids()));
    EXPECT_EQ(codesOf(builder.study), (std::vector<std::string>{"A4", "A5", "A6"}))
        << "a code is never given twice";
    EXPECT_FALSE(setPiecesPerCondition(builder.study, 0, builder.ids()));
    EXPECT_FALSE(setPiecesPerCondition(builder.study, 201, builder.ids()));
}

TEST(StudyEdit, ARailWithDataStays)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0}).rail("245", {});
    EXPECT_FALSE(removeCondition(builder.study, builder.study.conditions[0].id));
    builder.study.piecesPerCondition = 1;
    EXPECT_TRUE(removeCondition(builder.study, builder.study.conditions[1].id));
    EXPECT_EQ(builder.study.conditions.size(), 1U);
}

TEST(StudyEdit, TheReferenceMovesToTheTop)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0}).rail("245", {31.0}).rail("260", {32.0});
    const ConditionId last = builder.study.conditions[2].id;
    ASSERT_TRUE(setReference(builder.study, last));
    EXPECT_EQ(builder.study.conditions[0].id, last);
    EXPECT_EQ(builder.study.conditions[1].levels.front(), "230");
    EXPECT_EQ(builder.study.reference, last);
}

} // namespace inchpeg
