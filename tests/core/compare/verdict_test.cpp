// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/compare/verdict.h"
#include "support/matching_digits.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

StudyComparison compared(const test::StudyBuilder &builder)
{
    return compareStudy(builder.study, builder.readings, *findProperty(kTensileReduction, kUsualProperty));
}

StudyVerdict verdict(const test::StudyBuilder &builder)
{
    return verdictOf(builder.study, compared(builder));
}

bool holds(const std::string &text, std::string_view part)
{
    return text.find(part) != std::string::npos;
}

const std::vector<double> kAround30{29.0, 30.0, 31.0, 30.5, 29.5, 30.0};

} // namespace

TEST(Verdict, AClearDifferenceIsToldWithIntervalAndCounts)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30)
        .rail("245", {35.0, 36.0, 34.5, 35.5, 36.5, 35.0})
        .rail("260", {24.0, 25.0, 24.5, 25.5, 24.0, 25.0});
    const StudyVerdict told = verdict(builder);
    EXPECT_EQ(told.rails[0].standing, Standing::Reference);
    EXPECT_EQ(told.rails[1].standing, Standing::Higher);
    // 35.4167 / 30 = 1.1806; own CV 2.357 and 2.078 %, drawn a little towards 2.302 %; Dunnett's value for
    // two comparisons and 11 degrees of freedom 2.53: a factor of exp(2.53 · 0.0224 · √(1/6 + 1/6)).
    EXPECT_TRUE(
        told.rails[1].sentence.starts_with("Holds 18 % more than 230 °C (14 to 22 %, 6 and 6 pieces)."))
        << told.rails[1].sentence;
    EXPECT_EQ(told.rails[2].standing, Standing::Lower);
    EXPECT_TRUE(told.rails[2].sentence.starts_with("Holds 18 % less than 230 °C ("))
        << told.rails[2].sentence;
    EXPECT_EQ(told.headline, "Strength: 245 °C above 230 °C, 260 °C below (above is better).");
    EXPECT_EQ(
        told.procedure,
        "Ratios of means; each of 3 rails counts with its own scatter, drawn a little towards that of all, "
        "2.3 % "
        "of their mean (each by itself 2.1 % to 2.5 %); the 95 % intervals hold together, by Dunnett with "
        "Satterthwaite's degrees of freedom.");
}

TEST(Verdict, ADifferenceOfRailsOnPlatesOfTheirOwnSaysSo)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30).rail("245", {35.0, 36.0, 34.5, 35.5, 36.5, 35.0});
    const std::string plain = verdict(builder).headline;
    const auto print = [&](std::size_t platesEach, bool isShared) {
        std::vector<PrintedPlate> &printed = builder.study.plan.print.printed;
        printed.clear();
        for (std::size_t i = 0; i < 2 * platesEach; ++i)
            printed.push_back({static_cast<int>(i) + 1, 1, "2026-06-01T08:00:00Z", {}});
        for (std::size_t i = 0; i < builder.study.pieces.size(); ++i) {
            const std::size_t rail = i / 6;
            const std::size_t plate = isShared ? i % 2 : rail * platesEach + i % platesEach;
            printed[plate].pieces.push_back(PlacedPiece{.piece = builder.study.pieces[i].id});
        }
    };
    print(1, false);
    EXPECT_EQ(verdict(builder).headline,
              plain + " Each was printed on one plate of its own: this is a difference of plates too.");
    print(3, false);
    EXPECT_EQ(
        verdict(builder).headline,
        plain +
            " Each was printed on plates of its own, 3 or more: part of the difference may be the plates'.");
    print(1, true);
    EXPECT_EQ(verdict(builder).headline, plain) << "the plates are in the scatter of either rail";
    print(1, false);
    builder.study.plan.print.printed.pop_back();
    EXPECT_EQ(verdict(builder).headline, plain) << "of one rail it is not known";
}

TEST(Verdict, OnlyTheRailsOnPlatesOfTheirOwnAreSaidToBe)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30);
    for (const char *level : {"245", "260", "275"})
        builder.rail(level, {35.0, 36.0, 34.5, 35.5, 36.5, 35.0});
    const std::string plain = verdict(builder).headline;
    std::vector<PrintedPlate> &printed = builder.study.plan.print.printed;
    for (int plate = 1; plate <= 4; ++plate)
        printed.push_back({plate, 1, "2026-06-01T08:00:00Z", {}});
    const auto print = [&](std::size_t railsWithReference) {
        for (PrintedPlate &plate : printed)
            plate.pieces.clear();
        for (std::size_t i = 0; i < builder.study.pieces.size(); ++i)
            printed[i / 6 < railsWithReference ? 0 : i / 6].pieces.push_back(
                PlacedPiece{.piece = builder.study.pieces[i].id});
    };
    print(2);
    EXPECT_EQ(verdict(builder).headline,
              plain + " 260 °C and 275 °C were each printed on one plate of their own: "
                      "this is a difference of plates too.");
    print(3);
    EXPECT_EQ(verdict(builder).headline,
              plain + " 275 °C was printed on one plate of its own: this is a difference of plates too.");
}

TEST(Verdict, RailsThatScatterDifferentlyCountEachByItself)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0, 30.1, 29.9, 30.0, 30.05, 29.95})
        .rail("245", {25.0, 35.0, 31.0, 38.0, 27.0, 36.0});
    builder.rail("260", {33.0, 33.1, 32.9, 33.0, 33.05, 32.95});
    const StudyVerdict told = verdict(builder);
    EXPECT_TRUE(holds(told.procedure, "each of 3 rails counts with its own scatter")) << told.procedure;
    EXPECT_TRUE(holds(told.procedure, "Satterthwaite")) << told.procedure;
    // One rail's scatter does not hide what the other two show.
    EXPECT_EQ(told.rails[1].standing, Standing::NotToldApart);
    EXPECT_EQ(told.rails[2].standing, Standing::Higher);
}

TEST(Verdict, EachWithEachWantsMoreThanEachWithTheReference)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0, 31.0, 29.0}).rail("245", {33.0, 34.0, 32.5}).rail("260", {31.0, 30.0, 32.0});
    const StudyComparison reference = compared(builder);
    builder.study.plan.aim.comparison = Comparison::AllPairs;
    const StudyComparison pairs = compared(builder);
    EXPECT_GT(pairs.rails[1].effect->critical, reference.rails[1].effect->critical);
    EXPECT_EQ(pairs.rails[1].effect->t, reference.rails[1].effect->t);
    EXPECT_TRUE(holds(verdictOf(builder.study, pairs).procedure, "by Tukey's range"));
}

TEST(Verdict, FewScatteredPiecesAreNotToldApart)
{
    test::StudyBuilder builder;
    builder.rail("230", {25.0, 30.0, 35.0}).rail("245", {27.0, 32.0, 37.0});
    const StudyVerdict told = verdict(builder);
    EXPECT_EQ(told.rails[1].standing, Standing::NotToldApart);
    EXPECT_TRUE(holds(told.rails[1].sentence, "Not told apart from 230 °C: +6.7 %"))
        << told.rails[1].sentence;
    // Common CV √((16.667² + 15.625²)/2) = 16.154 %; 3.507 standard deviations are seen by Welch's test 4
    // times in 5 (SciPy 1.10.1, t, norm and chi2 over a grid of 2,000 × 2,000 scatters): exp(3.507 · 0.16154)
    // - 1.
    EXPECT_TRUE(holds(told.rails[1].sentence, "could only have shown 76 % or more"))
        << told.rails[1].sentence;
    EXPECT_EQ(told.headline, "Strength: no rail is told apart from 230 °C.");
}

TEST(Verdict, OnePieceSaysNothingOfScatter)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30).rail("245", {36.0});
    const StudyVerdict told = verdict(builder);
    EXPECT_EQ(told.rails[1].standing, Standing::TooFew);
    EXPECT_TRUE(holds(told.rails[1].sentence, "one piece says nothing of scatter")) << told.rails[1].sentence;
    EXPECT_EQ(
        told.headline,
        "Nothing can be compared yet: at least two pieces are wanted on the reference and on another rail.");
}

TEST(Verdict, InsideWhatMattersIsAsGood)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30).rail("245", {30.2, 29.8, 30.4, 29.6, 30.1, 30.3});
    EXPECT_EQ(verdict(builder).rails[1].standing, Standing::Alike);
    EXPECT_TRUE(holds(verdict(builder).rails[1].sentence, "inside the 10 % that matters"));
}

TEST(Verdict, RealButSmallIsSaid)
{
    test::StudyBuilder builder;
    builder.study.smallestDifference = 0.30;
    builder.rail("230", kAround30).rail("245", {35.0, 36.0, 34.5, 35.5, 36.5, 35.0});
    EXPECT_TRUE(holds(verdict(builder).rails[1].sentence, "Real, but smaller than the 30 % that matters."))
        << verdict(builder).rails[1].sentence;
}

TEST(Verdict, BoundsSayWhatTheyCanSay)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30).rail("245", {50.0, 50.0, 50.0}, Orientation::Standing, 0, true);
    builder.rail("260", {29.0, 31.0, 30.5}, Orientation::Standing, 0, true);
    const StudyComparison comparison = compared(builder);
    EXPECT_FALSE(comparison.rails[1].welch);
    const StudyVerdict told = verdictOf(builder.study, comparison);
    EXPECT_EQ(told.rails[1].standing, Standing::Higher) << "the truth lies still higher";
    // 50/30 = 1.667; the reference's CV 2.357 %, 5 degrees of freedom, Dunnett's value for two comparisons
    // with six and three pieces 3.03: exp(-3.03 · 0.02357 · √(1/6 + 1/3)) = 0.951: 1.585.
    EXPECT_TRUE(told.rails[1].sentence.starts_with("Holds at least 67 % more than 230 °C (surely 5"))
        << told.rails[1].sentence;
    EXPECT_TRUE(holds(told.rails[1].sentence, "3 of 3 pieces ran out of the gauge's range"));
    EXPECT_EQ(told.rails[1].difference, "≥ +67 %");
    EXPECT_TRUE(told.rails[1].meanText.starts_with("at least 50")) << told.rails[1].meanText;
    EXPECT_EQ(told.rails[2].standing, Standing::Bound) << "it may hold as much, or more";
    EXPECT_TRUE(holds(told.headline, "245 °C above 230 °C")) << told.headline;
}

TEST(Verdict, ALowerRailIsToldBesideAReferenceWithBounds)
{
    test::StudyBuilder builder;
    builder.rail("230", {50.0, 50.0, 49.0}, Orientation::Standing, 0, true)
        .rail("245", kAround30)
        .rail("260", {55.0, 56.0, 57.0});
    const StudyVerdict told = verdict(builder);
    EXPECT_EQ(told.rails[0].standing, Standing::Bound);
    EXPECT_EQ(told.rails[1].standing, Standing::Lower);
    EXPECT_TRUE(told.rails[1].sentence.starts_with("Holds at least 40 % less than 230 °C (surely 3"))
        << told.rails[1].sentence;
    EXPECT_EQ(told.rails[2].standing, Standing::Bound) << "the reference may hold more than that";
    EXPECT_TRUE(holds(told.rails[2].sentence, "No difference to it is shown.")) << told.rails[2].sentence;
}

TEST(Verdict, BoundsOnBothSidesShowNothing)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0, 30.0, 29.0}, Orientation::Standing, 0, true)
        .rail("245", {50.0, 50.0, 49.0}, Orientation::Standing, 0, true)
        .rail("260", kAround30);
    const StudyComparison comparison = compared(builder);
    EXPECT_FALSE(comparison.rails[1].effect);
    EXPECT_EQ(verdictOf(builder.study, comparison).rails[1].standing, Standing::Bound);
}

TEST(Verdict, FlatIsNotStanding)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30)
        .rail("245", {35.0, 36.0, 34.5})
        .rail("230", {50.0, 51.0, 49.0}, Orientation::Flat);
    const StudyComparison comparison = compared(builder);
    const StudyVerdict told = verdictOf(builder.study, comparison);
    EXPECT_EQ(told.rails[2].standing, Standing::OtherKind);
    EXPECT_FALSE(comparison.rails[2].welch);
    ASSERT_TRUE(comparison.rails[0].shareOfFlat);
    EXPECT_GE(test::matchingDigits(comparison.rails[0].shareOfFlat->value, 0.6), 12);
    EXPECT_TRUE(told.rails[0].shareSentence.starts_with("Keeps 60 % of flat-printed ("))
        << told.rails[0].shareSentence;
    EXPECT_TRUE(told.rails[2].shareSentence.empty());
}

TEST(Verdict, LeftOutPiecesAreShownAndNotCounted)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30).rail("245", {35.0, 36.0, 12.0});
    builder.study.pieces.back().exclusion = Exclusion{"slipped", "me", "2026-01-01T00:00:00Z"};
    const StudyComparison comparison = compared(builder);
    EXPECT_EQ(comparison.rails[1].summary.n, 2U);
    EXPECT_EQ(comparison.rails[1].values.size(), 3U);
    EXPECT_TRUE(holds(verdictOf(builder.study, comparison).rails[1].sentence, "Left out: 1 piece."));
}

TEST(Verdict, HolmCountsTheComparisonsWithTheReferenceOnly)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30).rail("240", {30.5, 32.0, 31.0}).rail("250", {31.5, 33.0, 32.0});
    const StudyComparison comparison = compared(builder);
    const double smaller = std::min(comparison.rails[1].welch->p, comparison.rails[2].welch->p);
    const double adjusted = std::min(*comparison.rails[1].welchHolm, *comparison.rails[2].welchHolm);
    EXPECT_GE(test::matchingDigits(adjusted, 2.0 * smaller), 12);
}

TEST(Verdict, EmptyStudyAndOpenRailsHaveWords)
{
    test::StudyBuilder builder;
    EXPECT_EQ(verdict(builder).headline, "Nothing has been broken yet.");
    builder.rail("230", {}, Orientation::Standing, 3);
    EXPECT_EQ(verdict(builder).rails[0].sentence, "No result yet: 3 pieces to break.");
}

// Reference: R 4.2.2, data set PlantGrowth (ctrl, trt1, trt2): mean(), sd(), t.test(trt, ctrl),
// p.adjust(method = "holm").
TEST(Comparison, OfAWholeStudyAgreesWithR)
{
    test::StudyBuilder builder;
    builder.study.factors.front() = {"treatment", "", ChangedPer::Piece};
    builder.rail("ctrl", {4.17, 5.58, 5.18, 6.11, 4.50, 4.61, 5.17, 4.53, 5.33, 5.14})
        .rail("trt1", {4.81, 4.17, 4.41, 3.59, 5.87, 3.83, 6.03, 4.89, 4.32, 4.69})
        .rail("trt2", {6.31, 5.12, 5.54, 5.50, 5.37, 5.29, 4.92, 6.15, 5.80, 5.26});
    const StudyComparison comparison = compared(builder);
    ASSERT_EQ(comparison.rails.size(), 3U);
    EXPECT_TRUE(comparison.rails[0].isReference);
    EXPECT_FALSE(comparison.rails[0].welch);
    const double means[] = {5.032, 4.661, 5.526};
    const double deviations[] = {0.5830913784, 0.7936756964, 0.4425732833};
    for (std::size_t i = 0; i < 3; ++i) {
        EXPECT_GE(test::matchingDigits(*comparison.rails[i].summary.mean, means[i]), 12) << i;
        EXPECT_GE(test::matchingDigits(*comparison.rails[i].summary.sd, deviations[i]), 9) << i;
    }
    const RailComparison &first = comparison.rails[1];
    EXPECT_GE(test::matchingDigits(first.welch->t, -1.191260382), 9);
    EXPECT_GE(test::matchingDigits(first.welch->df, 16.52358506), 9);
    EXPECT_GE(test::matchingDigits(first.welch->p, 0.2503825086), 9);
    EXPECT_GE(test::matchingDigits(*first.welchHolm, 0.2503825086), 9);
    const RailComparison &second = comparison.rails[2];
    EXPECT_GE(test::matchingDigits(second.welch->t, 2.134020453), 9);
    EXPECT_GE(test::matchingDigits(second.welch->df, 16.78576448), 9);
    EXPECT_GE(test::matchingDigits(second.welch->p, 0.0478992556), 9);
    EXPECT_GE(test::matchingDigits(*second.welchHolm, 0.0957985112), 9);
}

// Orientation × nozzle: 30 MPa standing at 260 °C are 60 % of the flat 50 MPa at 260 °C, not 150 % of another
// rail.
TEST(Verdict, ShareOfFlatIsOfTheRailWithTheSameOtherLevels)
{
    test::StudyBuilder builder;
    builder.rail("230", {19.5, 20.0, 20.5}, Orientation::Flat)
        .rail("260", {49.5, 50.0, 50.5}, Orientation::Flat);
    builder.rail("260", {29.5, 30.0, 30.5}, Orientation::Standing);
    const StudyVerdict told = verdict(builder);
    EXPECT_TRUE(told.rails[2].shareSentence.starts_with("Keeps 60 % of flat-printed ("))
        << told.rails[2].shareSentence;
}

TEST(Verdict, ShareOfFlatNamesTheRailWhereItDiffersAndIsNotToldWhereSeveralDo)
{
    test::StudyBuilder one;
    one.rail("230", {49.5, 50.0, 50.5}, Orientation::Flat)
        .rail("260", {29.5, 30.0, 30.5}, Orientation::Standing);
    EXPECT_TRUE(verdict(one).rails[1].shareSentence.starts_with("Keeps 60 % of flat-printed at 230 °C ("))
        << verdict(one).rails[1].shareSentence;
    one.rail("245", {39.5, 40.0, 40.5}, Orientation::Flat);
    EXPECT_EQ(verdict(one).rails[1].shareSentence, "") << "neither flat rail is of the same nozzle";
}

TEST(Verdict, RecordsThatEndBeforeTheBreakGiveLowerBounds)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30).rail("245", kAround30);
    const Property stretch = *findProperty(kTensileReduction, "strain_at_break");
    for (const Piece &piece : builder.study.pieces) {
        PieceReading reading = builder.readings[piece.id]->value();
        reading.result.values.push_back(
            {"strain_at_break", 0.02 - 0.0001 * static_cast<double>(piece.id.value), "",
             piece.condition == builder.study.reference ? BoundReason::None : BoundReason::RecordEnds});
        builder.readings[piece.id] = std::make_shared<const Result<PieceReading>>(reading);
    }
    const StudyVerdict told =
        verdictOf(builder.study, compareStudy(builder.study, builder.readings, stretch));
    EXPECT_EQ(told.rails[1].standing, Standing::Bound);
    EXPECT_TRUE(told.rails[1].sentence.starts_with("6 of 6 pieces had not broken")) << told.rails[1].sentence;
    EXPECT_TRUE(told.rails[1].meanText.starts_with("at least ")) << told.rails[1].meanText;
    // Strength and peak force do not depend on the break.
    EXPECT_NE(verdict(builder).rails[1].standing, Standing::Bound);
}

TEST(Verdict, PiecesThatReadAlikeAreNotCalledOnePiece)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0, 30.0, 30.0, 30.0, 30.0}).rail("245", {33.0, 33.0, 33.0, 33.0, 33.0});
    const StudyVerdict told = verdict(builder);
    EXPECT_EQ(told.rails[1].standing, Standing::NoScatter);
    EXPECT_TRUE(holds(told.rails[1].sentence, "+10 % against 230 °C (5 and 5 pieces)"))
        << told.rails[1].sentence;
    EXPECT_FALSE(holds(told.rails[1].sentence, "one piece"));
    EXPECT_EQ(told.headline, "Nothing can be compared: the pieces of a rail read exactly alike.");
}

TEST(Verdict, AReferenceOfBoundsIsToldInTheHeadline)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30, Orientation::Standing, 0, true).rail("245", kAround30);
    EXPECT_EQ(verdict(builder).headline,
              "Nothing can be compared: values of the reference are lower bounds.");
}

TEST(Verdict, APercentageOfWhatIsNotAboveZeroIsNotTold)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30).rail("245", kAround30).rail("260", kAround30);
    const Property toe = *findProperty(kTensileReduction, "toe_strain");
    for (const double offset : {0.0, -0.002}) {
        std::size_t i = 0;
        for (const Piece &piece : builder.study.pieces) {
            PieceReading reading = builder.readings[piece.id]->value();
            const double wobble = 1e-5 * static_cast<double>(i++ % 3) - 1e-5;
            const bool isReference = piece.condition == builder.study.reference;
            reading.result.values = {{"toe_strain", isReference ? offset + wobble : 0.003 + wobble}};
            builder.readings[piece.id] = std::make_shared<const Result<PieceReading>>(reading);
        }
        const StudyVerdict told =
            verdictOf(builder.study, compareStudy(builder.study, builder.readings, toe));
        for (const RailVerdict &rail : told.rails) {
            for (const char *word : {"nan", "inf", "200 %"})
                EXPECT_FALSE(holds(rail.sentence, word)) << rail.sentence;
        }
        EXPECT_EQ(told.rails[1].standing, Standing::Higher);
        EXPECT_TRUE(holds(told.rails[1].sentence, offset == 0.0 ? "Shows 0.3000 percentage points more"
                                                                : "Shows 0.5000 percentage points more"))
            << told.rails[1].sentence;
    }
}

TEST(Verdict, RailsOfTheSameLevelAreToldByTheirMaterial)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30).rail("231", {35.0, 36.0, 34.5, 35.5, 36.5, 35.0});
    builder.study.conditions.back().material = "styrenic";
    builder.study.conditions.back().levels = {"230"};
    const StudyVerdict told = verdict(builder);
    EXPECT_EQ(told.headline, "Strength: 230 °C (styrenic) above 230 °C (polyester) (above is better).");
}

TEST(Verdict, WhereAllAreLeftOutNothingIsToBreak)
{
    test::StudyBuilder builder;
    builder.rail("230", kAround30).rail("245", {35.0, 36.0});
    for (Piece &piece : builder.study.pieces) {
        if (piece.condition != builder.study.reference)
            piece.exclusion = Exclusion{"slipped", "me", "2026-01-01T00:00:00Z"};
    }
    EXPECT_TRUE(holds(verdict(builder).rails[1].sentence, "all that were broken are left out"))
        << verdict(builder).rails[1].sentence;
}

// A claim and the interval that it quotes never contradict each other: two pieces a rail, many draws.
TEST(Verdict, AClaimsIntervalNeverHoldsZero)
{
    Random random(3);
    int claims = 0;
    for (int run = 0; run < 3000; ++run) {
        test::StudyBuilder builder;
        const auto draw = [&](double mean) { return mean * (1.0 + 0.06 * random.normal()); };
        builder.rail("230", {draw(30.0), draw(30.0)}).rail("245", {draw(36.0), draw(36.0)});
        const StudyComparison comparison = compared(builder);
        const StudyVerdict told = verdictOf(builder.study, comparison);
        if (told.rails[1].standing != Standing::Higher && told.rails[1].standing != Standing::Lower)
            continue;
        ++claims;
        const Interval ci = comparison.rails[1].effect->ci;
        ASSERT_TRUE(ci.low > 1.0 || ci.high < 1.0) << told.rails[1].sentence;
    }
    EXPECT_GT(claims, 100);
}

TEST(Verdict, TheConfidenceOfThePlanIsThatOfTheClaims)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0, 31.0, 29.5, 30.4}).rail("250", {31.8, 32.9, 31.2, 32.6});
    const StudyComparison usual = compared(builder);
    EXPECT_EQ(verdictOf(builder.study, usual).rails[1].standing, Standing::Higher);
    EXPECT_NE(verdictOf(builder.study, usual).procedure.find("95 % interval"), std::string::npos);
    builder.study.plan.aim.confidence = 0.995;
    const StudyComparison sure = compared(builder);
    EXPECT_EQ(verdictOf(builder.study, sure).rails[1].standing, Standing::NotToldApart);
    EXPECT_NE(verdictOf(builder.study, sure).procedure.find("99.5 % interval"), std::string::npos);
    EXPECT_LT(sure.rails[1].effect->ci.low, 1.0);
    EXPECT_GT(usual.rails[1].effect->ci.low, 1.0);
    EXPECT_LT(sure.rails[0].summary.ci->low, usual.rails[0].summary.ci->low);
}

// 5 MPa were said to matter while 50 MPa were expected (10 %); the reference turned out to reach 20 MPa,
// where 5 MPa are 25 %.
TEST(Verdict, ADifferenceSaidAsAValueStaysThatValue)
{
    test::StudyBuilder builder;
    builder.rail("230", {19.9, 20.0, 20.1, 20.0, 19.95, 20.05})
        .rail("250", {23.3, 23.4, 23.5, 23.4, 23.35, 23.45}); // 3.4 MPa above, 17 %
    builder.study.plan.aim.absoluteDifference = 5.0;
    builder.study.smallestDifference = 0.10;
    const std::string sentence = verdict(builder).rails[1].sentence;
    EXPECT_TRUE(holds(sentence, "Real, but smaller than the")) << sentence;
    EXPECT_TRUE(holds(sentence, "MPa that matters")) << sentence;
    const StudyComparison compared = strengthCompared(builder);
    EXPECT_NEAR(compared.matters.share, 0.25, 1e-9);
    EXPECT_EQ(compared.matters.absolute, 5.0);
    // Of another property of the same study the value says nothing.
    const StudyComparison other = compareStudy(builder.study, builder.readings,
                                               *findProperty(kTensileReduction, "tensile_modulus"), {});
    EXPECT_EQ(other.matters.share, 0.10);
    EXPECT_FALSE(other.matters.absolute);
}

// 104 kJ/m² and more against 12 at most is no matter of scatter.
TEST(Verdict, ARailOfBoundsAboveAllOthersIsAbove)
{
    test::StudyBuilder builder;
    builder.rail("230", {9.0, 10.0, 11.0, 12.0})
        .rail("250", {104.0, 104.0, 104.0, 104.0}, Orientation::Standing, 0, true);
    const StudyVerdict told = verdictOf(builder.study, test::strengthCompared(builder));
    EXPECT_EQ(told.rails[1].standing, Standing::Higher) << told.rails[1].sentence;
    EXPECT_TRUE(told.headline.starts_with("Strength: 250 °C above 230 °C")) << told.headline;
    // The same the other way round: the reference has the bounds.
    builder.study.reference = builder.study.conditions[1].id;
    const StudyVerdict turned = verdictOf(builder.study, test::strengthCompared(builder));
    EXPECT_EQ(turned.rails[0].standing, Standing::Lower) << turned.rails[0].sentence;
    // Two beside two come to lie so by chance in a third of all cases.
    test::StudyBuilder few;
    few.rail("230", {9.0, 12.0}).rail("250", {104.0, 104.0}, Orientation::Standing, 0, true);
    const StudyVerdict bound = verdictOf(few.study, test::strengthCompared(few));
    EXPECT_TRUE(bound.rails[1].standing == Standing::Bound || test::strengthCompared(few).rails[1].effect)
        << bound.rails[1].sentence;
}

TEST(Verdict, WhatIsSmallerThanMattersIsNotAboveInTheHeadline)
{
    test::StudyBuilder builder;
    builder.study.smallestDifference = 0.10;
    builder.rail("230", {30.0, 30.1, 30.2, 29.9})
        .rail("245", {31.0, 31.1, 31.2, 30.9})
        .rail("260", {36.0, 36.1, 36.2, 35.9});
    const StudyVerdict told = verdictOf(builder.study, test::strengthCompared(builder));
    EXPECT_EQ(told.headline,
              "Strength: 260 °C above 230 °C (above is better); 245 °C differs, by less than matters.");
    test::StudyBuilder alike;
    alike.rail("230", {30.0, 30.1, 30.2, 29.9}).rail("245", {30.05, 30.15, 30.2, 29.9});
    EXPECT_EQ(verdictOf(alike.study, test::strengthCompared(alike)).headline,
              "Strength: no difference that matters to 230 °C; 245 °C as good for this decision.");
}

TEST(Verdict, AScrewThatGaveWayMakesABoundOfTheLoadAndNotOfTheStiffness)
{
    test::StudyBuilder builder;
    builder.rail("230", {9.0, 10.0, 11.0, 12.0}).rail("250", {20.0, 21.0, 22.0, 20.5});
    for (Piece &piece : builder.study.pieces) {
        if (piece.condition == builder.study.conditions[1].id)
            piece.log.breakLook = "screw-broke";
    }
    const StudyComparison comparison = test::strengthCompared(builder);
    EXPECT_EQ(comparison.rails[1].bounds, 4U);
    EXPECT_EQ(comparison.rails[1].boundReason, BoundReason::OtherPart);
    const StudyVerdict told = verdictOf(builder.study, comparison);
    EXPECT_TRUE(holds(told.rails[1].sentence, "at least")) << told.rails[1].sentence;
    EXPECT_TRUE(holds(told.rails[1].sentence, "a screw or fixture gave way first")) << told.rails[1].sentence;
    for (const auto &[id, reading] : builder.readings) {
        auto stiff = std::make_shared<Result<PieceReading>>(*reading);
        (*stiff)->result.values = {{"tensile_modulus", 2000.0 + static_cast<double>(id.value)}};
        builder.readings[id] = stiff;
    }
    EXPECT_EQ(
        compareStudy(builder.study, builder.readings, *findProperty(kTensileReduction, "tensile_modulus"))
            .rails[1]
            .bounds,
        0U);
}

} // namespace inchpeg
