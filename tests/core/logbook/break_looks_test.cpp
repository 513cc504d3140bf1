// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/verdict.h"
#include "core/logbook/break_looks.h"
#include "core/logbook/result_cautions.h"
#include "core/model/workshop.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

bool anyHolds(const std::vector<std::string> &texts, std::string_view part)
{
    return std::any_of(texts.begin(), texts.end(),
                       [&](const std::string &text) { return text.find(part) != std::string::npos; });
}

} // namespace

TEST(BreakLooks, AreThoseOfTheTestAndAreKept)
{
    test::StudyBuilder builder;
    firstTest(builder.study).method = Method::LayerAdhesion;
    builder.rail("230", {30.0, 31.0});
    Piece &piece = builder.study.pieces[0];
    ASSERT_TRUE(setBreakLook(piece, "two-layers"));
    const Result<PieceLog> again = pieceLogFromText(pieceLogText(piece.log));
    ASSERT_TRUE(again);
    EXPECT_EQ(again->breakLook, "two-layers");
    const Status refused = setBreakLook(piece, "off-middle");
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().message.find("known are one-plane, two-layers"), std::string::npos);
    EXPECT_EQ(piece.log.breakLook, "two-layers") << "a refusal changes nothing";
    ASSERT_TRUE(setBreakLook(piece, ""));
    EXPECT_TRUE(piece.log.breakLook.empty());
}

TEST(BreakLooks, EveryOneHasAWordAMeaningAndIsFoundByItsName)
{
    for (const MethodFacts &facts : allMethods()) {
        for (const BreakLook &look : facts.looks) {
            EXPECT_FALSE(look.label.empty() || look.meaning.empty()) << look.name;
            ASSERT_NE(look.sketch, nullptr) << look.name;
            BreakSketch sketch;
            look.sketch(sketch);
            EXPECT_FALSE(sketch.strokes().empty()) << look.name;
            ASSERT_NE(findBreakLook(look.name), nullptr) << look.name;
            EXPECT_EQ(findBreakLook(look.name)->label, look.label);
        }
    }
    EXPECT_EQ(findBreakLook("melted"), nullptr);
}

TEST(BreakLooks, AreCountedInTheSentenceAndSuspectOnesAreTold)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0, 31.0, 30.5}).rail("245", {35.0, 36.0, 35.5});
    std::vector<Piece> &pieces = builder.study.pieces;
    for (const auto &[i, look] : {std::pair{0, "torn"}, {1, "torn"}, {2, "at-grips"}, {3, "necked"}})
        ASSERT_TRUE(setBreakLook(pieces[static_cast<std::size_t>(i)], look));
    const auto sentences = [&] {
        const StudyComparison comparison =
            compareStudy(builder.study, builder.readings, *findProperty(kTensileReduction, kUsualProperty));
        return verdictOf(builder.study, comparison);
    };
    EXPECT_TRUE(sentences().rails[0].sentence.ends_with(" Breaks: 2 torn through, 1 at the grips."))
        << sentences().rails[0].sentence;
    EXPECT_TRUE(sentences().rails[1].sentence.ends_with(" Breaks: 1 necked."));
    EXPECT_TRUE(anyHolds(resultCautions(builder.study, usualWorkshop()),
                         "1 break was seen as \"at the grips\" and counts"));
    pieces[2].exclusion = Exclusion{"broke at the grips", "me", "now"};
    EXPECT_TRUE(sentences().rails[0].sentence.ends_with(" Breaks: 2 torn through.")) << "only what counts";
    EXPECT_FALSE(anyHolds(resultCautions(builder.study, usualWorkshop()), "at the grips"));
}

} // namespace inchpeg
