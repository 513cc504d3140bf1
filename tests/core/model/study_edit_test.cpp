// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/study_edit.h"
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
    firstTest(builder.study).piecesPerCondition = 2;
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
    firstTest(builder.study).piecesPerCondition = 4;
    ASSERT_TRUE(addCondition(builder.study, {{}, {"230"}, {}, {}}, builder.ids()));
    builder.study.pieces[3].section = RoundSection{millimetres(5)};
    ASSERT_TRUE(setPiecesPerCondition(builder.study, Method::Tension, 1, builder.ids()));
    EXPECT_EQ(codesOf(builder.study), (std::vector<std::string>{"A4"}));
    ASSERT_TRUE(setPiecesPerCondition(builder.study, Method::Tension, 3, builder.ids()));
    EXPECT_EQ(codesOf(builder.study), (std::vector<std::string>{"A4", "A5", "A6"}))
        << "a code is never given twice";
    EXPECT_FALSE(setPiecesPerCondition(builder.study, Method::Tension, 0, builder.ids()));
    EXPECT_FALSE(setPiecesPerCondition(builder.study, Method::Tension, 201, builder.ids()));
}

TEST(StudyEdit, ARailWithDataStays)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0}).rail("245", {});
    EXPECT_FALSE(removeCondition(builder.study, builder.study.conditions[0].id));
    firstTest(builder.study).piecesPerCondition = 1;
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

// A code of an imported project can hold anything.
TEST(StudyEdit, AnOddCodeDoesNotHinderNewPieces)
{
    for (const char *code : {"A99999999999999999999999", "A", "", "7", "Ä-12 b"}) {
        test::StudyBuilder builder;
        builder.rail("230", {}, Orientation::Flat, 1);
        builder.study.pieces[0].code = code;
        ASSERT_TRUE(setPiecesPerCondition(builder.study, Method::Tension, 3, builder.ids())) << code;
        EXPECT_EQ(builder.study.pieces.size(), 3U) << code;
        EXPECT_NE(builder.study.pieces[1].code, builder.study.pieces[2].code) << code;
    }
}

TEST(StudyEdit, ARailIsChangedOrRefused)
{
    test::StudyBuilder builder;
    builder.rail("230", {}, Orientation::Flat, 2).rail("250", {}, Orientation::Flat, 2);
    Study &study = builder.study;
    Condition changed = study.conditions[0];
    changed.levels = {"235 °C"};
    changed.orientation = Orientation::Standing;
    ASSERT_TRUE(changeCondition(study, changed));
    EXPECT_EQ(study.conditions[0].levels.front(), "235") << "the unit is the factor's";
    EXPECT_EQ(study.conditions[0].orientation, Orientation::Standing);
    changed.levels = {"warm"};
    EXPECT_FALSE(changeCondition(study, changed)) << "levels in °C are numbers";
    changed = study.conditions[1];
    changed.levels = {"235"};
    changed.orientation = Orientation::Standing;
    EXPECT_FALSE(changeCondition(study, changed)) << "the first rail is that already";
    changed.id = ConditionId{999};
    const Status unknown = changeCondition(study, changed);
    ASSERT_FALSE(unknown);
    EXPECT_EQ(unknown.error().code, ErrorCode::NotFound);
}

TEST(StudyEdit, FactorsComeAndGoWithTheirLevels)
{
    test::StudyBuilder builder;
    builder.rail("230", {}, Orientation::Flat, 1).rail("250", {}, Orientation::Flat, 1);
    Study &study = builder.study;
    ASSERT_TRUE(addFactor(study, {"fan", "%", ChangedPer::Piece}, "30"));
    EXPECT_EQ(study.conditions[1].levels, (std::vector<std::string>{"250", "30"}));
    EXPECT_FALSE(addFactor(study, {"fan", "%", ChangedPer::Piece}, "30")) << "one name, one factor";
    EXPECT_FALSE(addFactor(study, {"walls", "", ChangedPer::Piece}, "")) << "a level is wanted";
    EXPECT_FALSE(changeFactor(study, 1, {"nozzle temperature", "°C", ChangedPer::Plate}));
    ASSERT_TRUE(changeFactor(study, 1, {"auxiliary fan", "%", ChangedPer::Piece}));
    EXPECT_EQ(study.factors[1].name, "auxiliary fan");
    ASSERT_TRUE(changeFactor(study, 0, {"nozzle temperature", "", ChangedPer::Plate}));
    Condition named = study.conditions[0];
    named.levels[0] = "cool";
    ASSERT_TRUE(changeCondition(study, named)) << "without a unit levels are names";
    EXPECT_FALSE(changeFactor(study, 0, {"nozzle temperature", "°C", ChangedPer::Plate}))
        << "\"cool\" is no number of degrees";
    EXPECT_EQ(levelsOf(study, 0), (std::vector<std::string>{"cool", "250"}));
    ASSERT_TRUE(removeFactor(study, 1));
    EXPECT_EQ(study.conditions[0].levels, (std::vector<std::string>{"cool"}));
    EXPECT_FALSE(removeFactor(study, 0)) << "a study varies at least one thing";
}

TEST(StudyEdit, ADesignKeepsTheRailsThatAreThere)
{
    test::StudyBuilder builder;
    builder.rail("230", {}, Orientation::Flat, 2).rail("250", {}, Orientation::Flat, 2);
    Study &study = builder.study;
    const PieceId kept = study.pieces[0].id;
    study.pieces[0].log.note = "weighed";
    ASSERT_TRUE(applyDesign(study, DesignKind::FullFactorial, {{"230", "240", "260"}}, builder.ids()));
    ASSERT_EQ(study.conditions.size(), 3U);
    EXPECT_EQ(levelsOf(study, 0), (std::vector<std::string>{"230", "240", "260"}));
    ASSERT_NE(findPiece(study, kept), nullptr);
    EXPECT_EQ(findPiece(study, kept)->log.note, "weighed");
    study.pieces[0].section = RoundSection{millimetres(5)};
    const Study before = study;
    const Status refused = applyDesign(study, DesignKind::FullFactorial, {{"300", "310"}}, builder.ids());
    EXPECT_FALSE(refused) << "the rail at 230 holds data";
    EXPECT_EQ(study, before);
}

TEST(StudyEdit, FurtherTestsHavePiecesBesideTheStudysOwn)
{
    test::StudyBuilder builder;
    builder.rail("230", {}, Orientation::Flat, 2).rail("250", {}, Orientation::Flat, 2);
    Study &study = builder.study;
    study.tests.push_back({Method::Creep, 1, {}});
    ASSERT_TRUE(setPiecesPerCondition(study, Method::Creep, 3, builder.ids()));
    EXPECT_EQ(study.pieces.size(), 4U + 6U);
    EXPECT_EQ(firstTest(study).piecesPerCondition, 2) << "the study's own stay";
    std::set<std::string> codes;
    for (const Piece &piece : study.pieces)
        EXPECT_TRUE(codes.insert(piece.code).second) << piece.code << " is given twice";
    ASSERT_TRUE(setPiecesPerCondition(study, Method::Creep, 0, builder.ids()));
    EXPECT_EQ(study.pieces.size(), 4U);
}

TEST(StudyEdit, AMarkerNeedsARecordAReasonAndAPlace)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0}, Orientation::Flat, 1);
    Piece &tested = builder.study.pieces[0];
    EXPECT_FALSE(
        placeMarker(builder.study.pieces[1], Method::Tension, "strength", {12.0, "why", "me", "now"}))
        << "nothing is recorded";
    EXPECT_FALSE(placeMarker(tested, Method::Tension, "strength", {12.0, "  ", "me", "now"}))
        << "without a reason";
    EXPECT_FALSE(placeMarker(tested, Method::Tension, "strength", {-1.0, "why", "me", "now"}));
    EXPECT_FALSE(placeMarker(tested, Method::Tension, "strength", {{}, "why", "me", "now"}))
        << "only a yield may be none";
    ASSERT_TRUE(placeMarker(tested, Method::Tension, "yield", {{}, "it never yields", "me", "now"}));
    ASSERT_TRUE(placeMarker(tested, Method::Tension, "toe", {-0.001, "slack", "me", "now"}));
    EXPECT_EQ(tested.markers.size(), 2U);
    clearMarker(tested, "toe");
    EXPECT_EQ(tested.markers.size(), 1U);
    tested.exclusion = Exclusion{"slipped", "me", "now"};
    setRecording(tested, Recording{tested.recording->file, {}});
    EXPECT_EQ(tested.markers.size(), 1U) << "the same file, read otherwise";
    setRecording(tested, Recording{RawFileId{4711}, {}});
    EXPECT_TRUE(tested.markers.empty()) << "they were of the other file";
    EXPECT_FALSE(tested.exclusion);
}

} // namespace inchpeg
