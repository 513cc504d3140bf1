// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/dead_load.h"
#include "core/planning/rig_check.h"
#include "core/specimen/section_modulus.h"
#include "core/text/notation.h"
#include "support/study_builder.h"

#include <numbers>

namespace inchpeg
{
namespace
{

using test::StudyBuilder;

std::string words(const std::string &text)
{
    return Notation().expand(text);
}

// ISO 75-2:2013, table 1: standard deflections of flatwise bars over a span of 64 mm, by thickness (from
// memory).
TEST(DeadLoad, StandardDeflectionIsThatOfTheStandardsTable)
{
    const struct {
        double thickness_mm, deflection_mm;
    } rows[] = {{3.8, 0.36}, {3.9, 0.35}, {4.0, 0.34}, {4.1, 0.33}, {4.2, 0.33}};
    for (const auto &row : rows)
        EXPECT_NEAR(in_mm(standardDeflection(millimetres(64.0), millimetres(row.thickness_mm))),
                    row.deflection_mm, 0.0051)
            << row.thickness_mm << "; the table is rounded to a hundredth";
}

// Worked by hand from ISO 75-1:2013, equation (1): F = 2 σ b h² / (3 L), b = 10, h = 4, L = 64 mm:
// 1.80 MPa: 3.00 N; 0.45 MPa: 0.75 N; 8.00 MPa: 13.33 N.
TEST(DeadLoad, HeatDeflectionForcesAreThoseOfTheEquation)
{
    const auto force_N = [](double stress_MPa) {
        return in_N(
            threePointForce(megapascals(stress_MPa), millimetres(10.0), millimetres(4.0), millimetres(64.0)));
    };
    EXPECT_NEAR(force_N(1.80), 3.0, 1e-12);
    EXPECT_NEAR(force_N(0.45), 0.75, 1e-12);
    EXPECT_NEAR(force_N(8.00), 13.0 + 1.0 / 3.0, 1e-12);
    EXPECT_NEAR(deadMass(newtons(3.0)).si(), 3.0 / 9.80665, 1e-15);
}

TEST(DeadLoad, StressAndMassAreReversed)
{
    const Stress stress = threePointStress(weightOf(Mass::fromSi(1.25)), millimetres(10.0), millimetres(4.0),
                                           millimetres(64.0));
    // 3 · 12.2583 N · 64 mm / (2 · 10 mm · 16 mm²)
    EXPECT_NEAR(in_MPa(stress), 7.35499, 1e-5);
    EXPECT_NEAR(in_N(threePointForce(stress, millimetres(10.0), millimetres(4.0), millimetres(64.0))),
                1.25 * 9.80665, 1e-9);
}

class RigCheck : public ::testing::Test
{
protected:
    RigCheck() { m_builder.rail("250", {}, Orientation::Flat, 5); }

    std::optional<ExpectedLoad> load(Method method, const SpecimenShape *shape = nullptr)
    {
        firstTest(m_builder.study).method = method;
        if (shape != nullptr)
            firstTest(m_builder.study).setup.shape = *shape;
        m_tests = plannedTests(m_builder.study);
        return expectedLoad(m_builder.study, m_tests.front(), m_builder.study.conditions.front(), {});
    }

    StudyBuilder m_builder;
    std::vector<PlannedTest> m_tests;
};

TEST_F(RigCheck, ExpectedForceIsStrengthTimesSection)
{
    firstTest(m_builder.study).setup.expected = 50.0;
    const auto force = load(Method::Tension, findShape("dogbone-1a"));
    ASSERT_TRUE(force);
    EXPECT_NEAR(force->value, 50.0 * 40.0, 1e-9);
}

// ISO 178:2019: σ = 3 F L / (2 b h²), turned over for 100 MPa on the 80 × 10 × 4 bar over 64 mm: 166.7 N.
TEST_F(RigCheck, BendingForceFollowsTheStandardsEquation)
{
    firstTest(m_builder.study).setup.expected = 100.0;
    EXPECT_NEAR(load(Method::Bending)->value, 166.6667, 1e-3);
}

// Round bar, 8 mm: T = τ π d³ / 16; 30 MPa give 3.016 N·m (Roark's Formulas for Stress and Strain, table of
// torsion, solid circular section).
TEST_F(RigCheck, TorqueOfARoundBar)
{
    firstTest(m_builder.study).setup.property = "shear_stress";
    firstTest(m_builder.study).setup.expected = 30.0;
    EXPECT_NEAR(load(Method::Torsion)->value, 3.01593, 1e-5);
}

TEST_F(RigCheck, ImpactEnergyIsStrengthTimesTheSectionUnderTheNotch)
{
    firstTest(m_builder.study).setup.expected = 5.0; // kJ/m² on 8 × 4 mm²
    EXPECT_NEAR(load(Method::Impact)->value, 0.16, 1e-12);
}

TEST_F(RigCheck, ATypedLoadIsTakenAsItIs)
{
    firstTest(m_builder.study).setup.property = "peak_force";
    firstTest(m_builder.study).setup.expected = 321.0;
    EXPECT_NEAR(load(Method::Puncture)->value, 321.0, 1e-12);
    firstTest(m_builder.study).setup.expected.reset();
    EXPECT_FALSE(load(Method::Puncture)) << "nothing is known of a puncture force beforehand";
}

TEST_F(RigCheck, LayersAreWeakerThanThePlane)
{
    const double flat = load(Method::Tension, findShape("standing-mini"))->value;
    EXPECT_LT(load(Method::LayerAdhesion, findShape("standing-mini"))->value, 0.8 * flat);
}

// A typed strength is the reference's: a flat rail of the same polymer is as much stronger as is usual.
TEST_F(RigCheck, WhatIsTypedForTheReferenceIsCarriedOverToOtherRails)
{
    m_builder.rail("250", {}, Orientation::Standing, 5);
    Study &study = m_builder.study;
    study.reference = study.conditions.back().id; // the standing one
    firstTest(study).setup.expected = 20.0;
    firstTest(study).setup.shape = *findShape("dogbone-1a");
    m_tests = plannedTests(study);
    const auto standing = expectedLoad(study, m_tests.front(), study.conditions.back(), {});
    const auto flat = expectedLoad(study, m_tests.front(), study.conditions.front(), {});
    EXPECT_NEAR(standing->value, 20.0 * 40.0, 1e-9);
    const double share = polymerOf(study, study.conditions.front()).facts->layerShare;
    EXPECT_NEAR(flat->value, 20.0 * 40.0 / share, 1e-6);
    EXPECT_NE(flat->source.find("for the reference"), std::string::npos) << flat->source;
    // The same for what own pieces of the reference reached.
    firstTest(study).setup.expected.reset();
    const OwnResults own{20.0, 0.05, "the pieces of this study"};
    m_tests = plannedTests(study);
    EXPECT_NEAR(expectedLoad(study, m_tests.front(), study.conditions.front(), own)->value, 800.0 / share,
                1e-6);
}

// σ = 8 F L / (π d³) (Gere and Goodno, 5.6): 53.1 MPa on ⌀ 8 mm over 40 mm are 266.9 N; 1.8 MPa are 9.05 N,
// 0.92 kg.
TEST_F(RigCheck, RoundBarsAreBentToo)
{
    SpecimenShape round = *findShape("shear-pin-8");
    round.span_mm = 40.0;
    firstTest(m_builder.study).setup.expected = 53.1;
    EXPECT_NEAR(load(Method::Bending, &round)->value, 53.1 * std::numbers::pi * 512.0 / 320.0, 1e-9);
    for (const Method method : {Method::Creep, Method::HeatDeflection, Method::BendSteps})
        EXPECT_NEAR(load(method, &round)->value, 0.9226, 1e-4) << methodName(method);
}

// σ = 6 F L / (b h²): 5 MPa on 10 × 4 mm at 50 mm from the clamp are 2.667 N.
TEST_F(RigCheck, ACantileverCarriesAQuarterOfTheLoad)
{
    firstTest(m_builder.study).setup.stress_MPa = 5.0;
    firstTest(m_builder.study).setup.fixture = Fixture::Cantilever;
    firstTest(m_builder.study).setup.freeLength_mm = 50.0;
    EXPECT_NEAR(load(Method::Creep, findShape("bar-80x10x4"))->value * 9.80665, 5.0 * 160.0 / 300.0, 1e-9);
    EXPECT_NEAR(load(Method::HeatDeflection)->value * 9.80665, 2.0 * 5.0 * 160.0 / (3.0 * 64.0), 1e-9)
        << "the standard's bar lies on two supports";
}

// Timoshenko and Goodier, Theory of Elasticity, article 109, table of k2 (from memory): T = k2 a b² τ.
TEST_F(RigCheck, TorsionOfARectangularBarFollowsTheSeries)
{
    const struct {
        double ratio, k2;
    } rows[] = {{1.0, 0.208}, {1.5, 0.231}, {2.0, 0.246}, {2.5, 0.258},
                {3.0, 0.267}, {5.0, 0.291}, {10.0, 0.312}};
    for (const auto &row : rows) {
        SpecimenShape bar = *findShape("bar-80x10x4");
        bar.width_mm = 4.0 * row.ratio;
        EXPECT_NEAR(torsionSectionModulus_mm3(bar) / (bar.width_mm * 16.0), row.k2, 5.1e-4) << row.ratio;
    }
    firstTest(m_builder.study).setup.property = "shear_stress";
    firstTest(m_builder.study).setup.expected = 21.95;
    EXPECT_NEAR(load(Method::Torsion, findShape("bar-80x10x4"))->value, 21.95 * 0.2577 * 0.16, 1e-3);
}

// 27 % off is another stress than was planned.
TEST_F(RigCheck, WeightsThatCannotMakeTheLoadAreTooCoarse)
{
    firstTest(m_builder.study).setup.stress_MPa = 1.8;
    const auto mass = load(Method::HeatDeflection); // 0.306 kg
    const RigCard coarse{"slabs", RigKind::DeadWeights, 10.0, 0.4, 0.0};
    const RigVerdict verdict = checkRig(m_tests.front(), mass, &coarse);
    EXPECT_EQ(verdict.fit, RigFit::TooCoarse);
    EXPECT_NE(words(verdict.sentence).find("+31 % off"), std::string::npos) << words(verdict.sentence);
}

TEST_F(RigCheck, TellsTheFiveCases)
{
    firstTest(m_builder.study).setup.expected = 50.0;
    const auto force = load(Method::Tension, findShape("dogbone-1a")); // 2000 N
    const RigCard large{"frame 10 kN", RigKind::Frame, 10000.0, 1.0, 20.0};
    const RigCard tight{"frame 2.2 kN", RigKind::Frame, 2200.0, 1.0, 20.0};
    const RigCard small{"hand gauge", RigKind::HandGauge, 500.0, 0.1, 10.0};
    const RigCard coarse{"crane scale", RigKind::Frame, 20000.0, 20.0, 1.0};
    const RigCard pendulum{"pendulum", RigKind::Pendulum, 2.0, 0.01, 0.0};
    const PlannedTest &planned = m_tests.front();
    EXPECT_EQ(checkRig(planned, force, &large).fit, RigFit::InRange);
    EXPECT_EQ(checkRig(planned, force, &tight).fit, RigFit::NearLimit);
    EXPECT_EQ(checkRig(planned, force, &coarse).fit, RigFit::TooSmall);
    EXPECT_EQ(checkRig(planned, force, &pendulum).fit, RigFit::WrongKind);
    EXPECT_EQ(checkRig(planned, force, nullptr).fit, RigFit::Unknown);
    const RigVerdict beyond = checkRig(planned, force, &small);
    EXPECT_EQ(beyond.fit, RigFit::Beyond);
    // 500 N · 0.8 / 50 MPa leaves 8 mm².
    EXPECT_NE(words(beyond.sentence).find("a section of 8.0 mm² instead of 40.0 mm²"), std::string::npos)
        << words(beyond.sentence);
    EXPECT_NE(words(beyond.sentence).find("2500 N or more"), std::string::npos) << words(beyond.sentence);
}

// ISO 13802 and ISO 179-1: the absorbed energy between 10 and 80 % of the pendulum's.
TEST_F(RigCheck, PendulumsWorkBetweenATenthAndFourFifths)
{
    firstTest(m_builder.study).setup.expected = 5.0;
    const auto energy = load(Method::Impact); // 0.16 J
    const auto fit = [&](double capacity_J) {
        const RigCard pendulum{"pendulum", RigKind::Pendulum, capacity_J, 0.001, 0.0};
        return checkRig(m_tests.front(), energy, &pendulum).fit;
    };
    EXPECT_EQ(fit(0.15), RigFit::Beyond);
    EXPECT_EQ(fit(0.19), RigFit::NearLimit);
    EXPECT_EQ(fit(0.5), RigFit::InRange);
    EXPECT_EQ(fit(1.0), RigFit::InRange);
    EXPECT_EQ(fit(2.0), RigFit::TooSmall);
    Workshop workshop;
    for (const double capacity_J : {4.0, 1.0, 0.5, 0.15})
        workshop.rigs.push_back({std::to_string(capacity_J), RigKind::Pendulum, capacity_J, 0.001, 0.0});
    EXPECT_DOUBLE_EQ(bestRig(workshop, LoadKind::Energy_J, energy->value)->range, 0.5);
    EXPECT_EQ(bestRig(workshop, LoadKind::Energy_J, 10.0), nullptr);
}

TEST_F(RigCheck, DeadMassIsOfferedInWholeWeights)
{
    firstTest(m_builder.study).setup.stress_MPa = 1.8;
    const auto mass = load(Method::HeatDeflection);
    EXPECT_NEAR(mass->value, 3.0 / 9.80665, 1e-12);
    const RigCard weights{"weights", RigKind::DeadWeights, 10.0, 0.05, 0.0};
    const std::string sentence = words(checkRig(m_tests.front(), mass, &weights).sentence);
    EXPECT_NE(sentence.find("0.3000 kg"), std::string::npos) << sentence;
    EXPECT_NE(sentence.find("-1.9 % off"), std::string::npos) << sentence;
    const RigCard heavy{"heavy", RigKind::DeadWeights, 10.0, 5.0, 0.0};
    EXPECT_EQ(checkRig(m_tests.front(), mass, &heavy).fit, RigFit::TooSmall);
}

TEST_F(RigCheck, RunLengthAndSamples)
{
    load(Method::Tension, findShape("dogbone-1a"));
    m_tests.front().setup.speed_mm_per_min = 5.0;
    const RigCard rig{"frame", RigKind::Frame, 2000.0, 1.0, 20.0};
    const RunEstimate run = runEstimate(m_tests.front(), 2.5, &rig);
    EXPECT_NEAR(run.seconds, 30.0, 1e-12);
    EXPECT_NEAR(run.samples, 600.0, 1e-12);
}

} // namespace
} // namespace inchpeg
