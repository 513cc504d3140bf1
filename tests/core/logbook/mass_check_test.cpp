// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/logbook/mass_check.h"
#include "support/calibration.h"
#include "support/study_builder.h"

namespace inchpeg
{

namespace
{

/// Strengths and masses of two rails.
struct Weighed {
    test::StudyBuilder builder;
    Workshop workshop = usualWorkshop();

    Weighed(const std::vector<double> &reference_g, const std::vector<double> &other_g,
            const std::vector<double> &reference_MPa = {30, 31, 32, 30.5},
            const std::vector<double> &other_MPa = {33, 34, 35, 33.5})
    {
        builder.rail("230", reference_MPa).rail("260", other_MPa);
        std::size_t i = 0;
        for (Piece &piece : builder.study.pieces) {
            const bool first = piece.condition == builder.study.reference;
            const std::vector<double> &masses = first ? reference_g : other_g;
            const std::size_t at = first ? i : i - reference_MPa.size();
            if (at < masses.size())
                piece.log.mass_g = masses[at];
            ++i;
        }
    }
    MassCheck check() { return checkMass(builder.study, workshop); }
};

} // namespace

TEST(MassCheck, EqualMassesAreSaidToBeEqual)
{
    Weighed weighed({1.500, 1.505, 1.498, 1.502}, {1.501, 1.504, 1.499, 1.503});
    const MassCheck check = weighed.check();
    EXPECT_FALSE(check.isConfound);
    EXPECT_TRUE(check.rails[0].off.empty());
    EXPECT_NE(check.headline.find("weigh the same"), std::string::npos) << check.headline;
}

TEST(MassCheck, APieceOutsideTheToleranceIsNamed)
{
    Weighed weighed({1.500, 1.505, 1.498, 1.450}, {1.501, 1.504, 1.499, 1.503});
    const MassCheck check = weighed.check();
    ASSERT_EQ(check.rails[0].off.size(), 1U);
    EXPECT_EQ(check.rails[0].off[0], weighed.builder.study.pieces[3].id);
    EXPECT_NEAR(*check.rails[0].spread, 1.0 - 1.450 / 1.499, 1e-9) << "held against the median";
    weighed.builder.study.log.measuring.massTolerance = 0.05;
    EXPECT_TRUE(weighed.check().rails[0].off.empty()) << "the person's own tolerance";
}

TEST(MassCheck, RailsThatDifferInMassAreAConfound)
{
    Weighed weighed({1.500, 1.505, 1.498, 1.502}, {1.560, 1.566, 1.558, 1.563});
    const MassCheck check = weighed.check();
    EXPECT_TRUE(check.isConfound);
    EXPECT_NEAR(check.rails[1].ratio->value, 1.56175 / 1.50125, 1e-9);
    EXPECT_NE(check.rails[1].sentence.find("4.0 % heavier than the reference"), std::string::npos)
        << check.rails[1].sentence;
    EXPECT_NE(check.headline.find("Mass changed together with the factor (260 °C)"), std::string::npos)
        << check.headline;
}

TEST(MassCheck, StrengthPerGramTakesTheMassOut)
{
    // Each piece of the hot rail has 4 % more mass and 4 % more strength.
    Weighed weighed({1.50, 1.51, 1.49, 1.50}, {1.56, 1.5704, 1.5496, 1.56}, {30, 31, 29.5, 30.5},
                    {31.2, 32.24, 30.68, 31.72});
    const auto perGram = comparePerMass(weighed.builder.study, weighed.builder.readings,
                                        *findProperty(kTensileReduction, kUsualProperty));
    ASSERT_TRUE(perGram);
    EXPECT_NEAR(perGram->rails[1].effect->estimate, 1.0, 1e-9);
    EXPECT_NE(perMassSentence(perGram->rails[1]).find("0.0 %"), std::string::npos);
    const StudyComparison plain = compareStudy(weighed.builder.study, weighed.builder.readings,
                                               *findProperty(kTensileReduction, kUsualProperty));
    EXPECT_NEAR(plain.rails[1].effect->estimate, 1.04, 1e-9) << "strength itself is left alone";
}

TEST(MassCheck, WithoutMassesNothingIsSaid)
{
    Weighed weighed({}, {});
    EXPECT_NE(weighed.check().headline.find("Weigh two pieces"), std::string::npos);
    EXPECT_FALSE(comparePerMass(weighed.builder.study, weighed.builder.readings,
                                *findProperty(kTensileReduction, kUsualProperty)));
    EXPECT_FALSE(weighed.check().rails[0].voidShare);
}

// ASTM D2734-16, equation 2: V = 100 (T - M)/T with T = 1.27 g/cm³ and M = 7.30 g/6 cm³ = 1.216667
// g/cm³: 4.1995 %.
TEST(MassCheck, VoidShare)
{
    EXPECT_NEAR(voidShare(7.30, 6000.0, 1.27), 0.0419948, 1e-7);
    EXPECT_NEAR(voidShare(7.62, 6000.0, 1.27), 0.0, 1e-12) << "solid";
    EXPECT_LT(voidShare(8.0, 6000.0, 1.27), 0.0) << "heavier than solid: a density or a size is wrong";
}

TEST(MassCheck, VoidShareOfARailScalesTheDrawnVolumeByTheMeasuredSection)
{
    Weighed weighed({9.0, 9.0, 9.0, 9.0}, {});
    Study &study = weighed.builder.study;
    firstTest(study).setup.shape = *findShape("dogbone-1a");
    SpoolCard spool;
    spool.material = "polyester";
    spool.density_g_per_cm3 = 1.25;
    weighed.workshop.spools = {spool};
    const double volume = volume_mm3(firstTest(study).setup.shape);
    for (Piece &piece : study.pieces)
        piece.section = RectangularSection{millimetres(10.0), millimetres(4.0)};
    EXPECT_NEAR(*weighed.check().rails[0].voidShare, 1.0 - 9.0 / (1.25 * volume / 1e3), 1e-9);
    for (Piece &piece : study.pieces)
        piece.section = RectangularSection{millimetres(10.1), millimetres(4.0)};
    EXPECT_NEAR(*weighed.check().rails[0].voidShare, 1.0 - 9.0 / (1.25 * 1.01 * volume / 1e3), 1e-9);
    EXPECT_NE(weighed.check().rails[0].voidSource.find("spool's card"), std::string::npos);
}

TEST(MassCheck, AnUnweighedRailAndAPieceThatIsOffAreSaid)
{
    Weighed unweighed({1.500, 1.505, 1.498, 1.502}, {1.501, 1.504, 1.499, 1.503});
    unweighed.builder.rail("245", {30.0, 31.0, 32.0});
    EXPECT_NE(unweighed.check().headline.find("All rails that are weighed weigh the same"), std::string::npos)
        << unweighed.check().headline;
    EXPECT_NE(unweighed.check().headline.find("Not weighed, or one piece only: 245 °C"), std::string::npos)
        << unweighed.check().headline;
    Weighed off({1.500, 1.505, 1.498, 1.502}, {1.644, 1.501, 1.450, 1.451});
    off.builder.study.log.measuring.massTolerance = 0.02;
    EXPECT_NE(off.check().headline.find("outside the tolerance"), std::string::npos) << off.check().headline;
}

// 20 and 100 % infill weigh what they weigh: no flow is wrong.
TEST(MassCheck, WhatFollowsFromTheFactorItselfIsNoConfound)
{
    Weighed infill({0.750, 0.755, 0.748, 0.752}, {1.560, 1.566, 1.558, 1.563});
    infill.builder.study.factors.front().name = "infill";
    EXPECT_FALSE(infill.check().isConfound);
    EXPECT_NE(infill.check().headline.find("as the factor itself makes them (infill"), std::string::npos)
        << infill.check().headline;
    EXPECT_EQ(infill.check().headline.find("flow"), std::string::npos);
    Weighed polymers({1.500, 1.505, 1.498, 1.502}, {1.260, 1.266, 1.258, 1.263});
    polymers.builder.study.conditions[1].material = "styrenic";
    EXPECT_FALSE(polymers.check().isConfound);
}

// ASTM D2734: 1 - m / (ρ V); the left-out hollow piece does not count.
TEST(MassCheck, TheVoidShareIsOfThePiecesThatCount)
{
    Weighed weighed({1.500, 1.505, 1.498, 0.900}, {1.501, 1.504, 1.499, 1.503});
    Study &study = weighed.builder.study;
    firstTest(study).setup.shape = *findShape("standing-mini");
    for (Piece &piece : study.pieces)
        piece.section.reset();
    const double withHollow = *weighed.check().rails[0].voidShare;
    study.pieces[3].exclusion = Exclusion{"hollow", "me", "2026-01-01T00:00:00Z"};
    const double without = *weighed.check().rails[0].voidShare;
    const double volume = volume_mm3(firstTest(study).setup.shape);
    const double density = polymerOf(study, study.conditions[0]).facts->density_g_per_cm3;
    EXPECT_NEAR(without, 1.0 - 1.501 / (density * volume / 1e3), 1e-9);
    EXPECT_GT(withHollow, without + 0.05);
}

// Equal truth, 2 % scatter, five pieces a rail: chance is no confound.
TEST(MassCheck, ScatterAloneIsNoConfound)
{
    Random random(test::simulationSeed(11));
    int named = 0;
    int unsure = 0;
    const int studies = test::simulatedStudies(1000);
    for (int run = 0; run < studies; ++run) {
        std::vector<double> one;
        std::vector<double> other;
        for (int i = 0; i < 4; ++i) {
            one.push_back(1.5 * (1.0 + 0.02 * random.normal()));
            other.push_back(1.5 * (1.0 + 0.02 * random.normal()));
        }
        const MassCheck check = Weighed(one, other).check();
        named += check.isConfound ? 1 : 0;
        unsure += check.headline.find("scatter too much to say") != std::string::npos ? 1 : 0;
    }
    test::expectKept("equal masses that scatter by 2 %: called a confound", test::atMost(0.05), named,
                     studies);
    EXPECT_GE(unsure, studies / 2) << "and it is said that nothing can be";
}

} // namespace inchpeg
