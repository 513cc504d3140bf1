// SPDX-License-Identifier: GPL-3.0-or-later
// Truth recovered: each record is made from a formula whose modulus, strength and so on are known exactly.
#include "core/method/tension/tensile.h"
#include "core/reading/piece_reading.h"
#include "sim/random.h"
#include "sim/record_writer.h"
#include "support/matching_digits.h"
#include "support/read_value.h"
#include "support/tensile_order.h"

#include <gtest/gtest.h>

#include <cmath>
#include <functional>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

constexpr double kArea_mm2 = 40.0;
constexpr double kGauge_mm = 50.0;
constexpr double kModulus_MPa = 2000.0;

TensileParameters usual()
{
    TensileParameters parameters;
    parameters.area = squareMillimetres(kArea_mm2);
    parameters.gaugeLength = millimetres(kGauge_mm);
    return parameters;
}

struct Shape {
    std::function<double(double)> stress_MPa; ///< of strain
    double breakStrain = 0.02;
    double step = 1e-4; ///< in strain
    bool breaks = true;
    double toeStrain = 0.0; ///< slack: the strain reads too much by this once it is taken up
};

/// Slack is taken up along a parabola that meets the straight line with its slope.
double carriedStrain(double read, double toe)
{
    if (toe <= 0.0)
        return read;
    return read < 2.0 * toe ? read * read / (4.0 * toe) : read - toe;
}

ForceCurve record(const Shape &shape)
{
    ForceCurve curve;
    for (int i = 0;; ++i) {
        const double read = i * shape.step;
        const double strain = carriedStrain(read, shape.toeStrain);
        if (strain > shape.breakStrain + 1e-12)
            break;
        curve.force_N.push_back(shape.stress_MPa(strain) * kArea_mm2);
        curve.extension_mm.push_back(read * kGauge_mm);
        curve.time_s.push_back(0.1 * i);
    }
    for (int i = 0; shape.breaks && i < 5; ++i) {
        curve.extension_mm.push_back(curve.extension_mm.back() + shape.step * kGauge_mm);
        curve.time_s.push_back(curve.time_s.back() + 0.1);
        curve.force_N.push_back(0.0);
    }
    return curve;
}

double linear(double strain)
{
    return kModulus_MPa * strain;
}
/// Bends over to 40 MPa at a strain of 0.04 and falls back to 36 MPa by 0.08; slope at the origin 2000 MPa.
double ductile(double strain)
{
    if (strain < 0.04)
        return 40.0 * (1.0 - std::pow(1.0 - strain / 0.04, 2.0));
    return 40.0 - 4.0 * std::min(1.0, (strain - 0.04) / 0.04);
}
/// Two straight lines: 2000 MPa to 20 MPa, then 200 MPa.
double hardening(double strain)
{
    return strain < 0.01 ? 2000.0 * strain : 20.0 + 200.0 * (strain - 0.01);
}

TensileResult reduced(const ForceCurve &curve, const TensileParameters &parameters = usual())
{
    Result<TensileResult> result = reduceTensile(curve, parameters);
    EXPECT_TRUE(result) << result.error().message;
    return *result;
}

const Check *ruleOf(const TensileResult &result, std::string_view rule)
{
    for (const Check &check : result.validity) {
        if (check.rule == rule)
            return &check;
    }
    return nullptr;
}

} // namespace

TEST(Tensile, LinearBrittleRecordGivesBackItsNumbers)
{
    const TensileResult result = reduced(record({linear, 0.02}));
    EXPECT_GE(matchingDigits(*result.tensileModulus_MPa, 2000.0), 9);
    EXPECT_GE(matchingDigits(*result.tensileStrength_MPa, 40.0), 9);
    EXPECT_GE(matchingDigits(*result.strainAtStrength, 0.02), 9);
    EXPECT_GE(matchingDigits(*result.strainAtBreak, 0.02), 9);
    EXPECT_GE(matchingDigits(*result.stressAtBreak_MPa, 40.0), 9);
    EXPECT_GE(matchingDigits(*result.peakForce_N, 1600.0), 9);
    // Triangle: 0.5 * 40 MPa * 0.02 = 0.4 MJ/m³, over 40 mm² * 50 mm: 0.8 J.
    EXPECT_GE(matchingDigits(*result.toughness_MJ_per_m3, 0.4), 9);
    EXPECT_GE(matchingDigits(*result.energyToBreak_J, 0.8), 9);
    EXPECT_FALSE(result.yieldStress_MPa) << "breaks before it yields";
    EXPECT_FALSE(result.offsetYieldStress_MPa) << "never leaves the modulus line";
    EXPECT_NEAR(*result.toeStrain, 0.0, 1e-9);
    EXPECT_TRUE(result.markers.broke);
}

TEST(Tensile, DuctileRecordYieldsAtItsMaximum)
{
    const TensileResult result = reduced(record({ductile, 0.08}));
    EXPECT_GE(matchingDigits(*result.yieldStress_MPa, 40.0), 6);
    EXPECT_NEAR(*result.yieldStrain, 0.04, 2e-4);
    EXPECT_GE(matchingDigits(*result.tensileStrength_MPa, 40.0), 6);
    EXPECT_NEAR(*result.strainAtBreak, 0.08, 2e-4);
    EXPECT_NEAR(*result.stressAtBreak_MPa, 36.0, 0.02);
    // The window 0.05 to 0.25 % of the parabola: slope 2000 (1 - e/0.04) at its middle 0.0015 is 1925 MPa;
    // the toe shift of a curve that bends from the start moves it by up to 2 %.
    EXPECT_NEAR(*result.tensileModulus_MPa, 1925.0, 40.0);
}

TEST(Tensile, WithoutToeCorrectionTheCurvedModulusIsTheSecantOfTheParabola)
{
    TensileParameters parameters = usual();
    parameters.toeCorrection = false;
    const TensileResult result = reduced(record({ductile, 0.08}), parameters);
    // Least squares over equally spaced points of a parabola has the slope at the middle: 2000 (1 -
    // 0.0015/0.04).
    EXPECT_GE(matchingDigits(*result.tensileModulus_MPa, 1925.0), 9);
    EXPECT_EQ(*result.toeStrain, 0.0);
}

TEST(Tensile, HardeningRecordMeetsTheOffsetLine)
{
    const TensileResult result = reduced(record({hardening, 0.05}));
    EXPECT_GE(matchingDigits(*result.tensileModulus_MPa, 2000.0), 8);
    // 2000 (e - 0.002) = 20 + 200 (e - 0.01): e = 22/1800, stress 2000 * (22/1800 - 0.002) = 20.4444… MPa.
    EXPECT_GE(matchingDigits(*result.offsetYieldStress_MPa, 2000.0 * (22.0 / 1800.0 - 0.002)), 8);
    EXPECT_GE(matchingDigits(*result.tensileStrength_MPa, 28.0), 8);
    EXPECT_FALSE(result.yieldStress_MPa) << "rises to the end";
}

TEST(Tensile, ToeIsTakenOff)
{
    for (double toe : {0.0005, 0.001, 0.003}) {
        // Stretches within 1 % of the steepest slope are joined to it, which moves the foot by less than 1 %
        // of the toe.
        const TensileResult result = reduced(record({linear, 0.02, 1e-4, true, toe}));
        EXPECT_NEAR(*result.toeStrain, toe, 0.01 * toe) << toe;
        EXPECT_NEAR(*result.strainAtBreak, 0.02, 1.1e-4) << toe; // within a sample
    }
}

TEST(Tensile, ModulusBehindDeadSlackIsTheTrueOne)
{
    // Dead travel of 0.3 % before the piece carries anything: the window starts on the straight line behind
    // it.
    const TensileResult result =
        reduced(record({[](double strain) { return strain < 0.003 ? 0.0 : linear(strain - 0.003); }, 0.023}));
    EXPECT_NEAR(*result.toeStrain, 0.003, 1e-9);
    EXPECT_GE(matchingDigits(*result.tensileModulus_MPa, 2000.0), 9);
}

TEST(Tensile, NoiseDoesNotMoveTheResult)
{
    // 0.5 N of noise on a peak of 1600 N; over 20 seeds the modulus stays within 3 %, strength within 0.5 %.
    for (std::uint64_t seed = 1; seed <= 20; ++seed) {
        sim::Random random(seed);
        ForceCurve curve = record({ductile, 0.08});
        for (double &force : curve.force_N)
            force += 0.5 * random.normal();
        const TensileResult result = reduced(curve);
        EXPECT_NEAR(*result.tensileModulus_MPa, 1925.0, 60.0) << seed;
        EXPECT_NEAR(*result.tensileStrength_MPa, 40.0, 0.2) << seed;
        ASSERT_TRUE(result.yieldStress_MPa) << seed;
        EXPECT_NEAR(*result.strainAtBreak, 0.08, 1e-3) << seed;
    }
}

TEST(Tensile, CoarseGaugeStepsAreNoMaxima)
{
    for (double step_N : {1.0, 5.0, 10.0}) {
        ForceCurve curve = record({ductile, 0.08});
        for (double &force : curve.force_N)
            force = std::round(force / step_N) * step_N;
        const TensileResult result = reduced(curve);
        EXPECT_NEAR(*result.tensileStrength_MPa, 40.0, step_N / kArea_mm2) << step_N;
        EXPECT_NEAR(*result.yieldStrain, 0.04, 0.004) << step_N;
    }
}

TEST(Tensile, ReadsTheSameFromEveryDialect)
{
    const ForceCurve curve = record({ductile, 0.08});
    const TensileResult truth = reduced(curve);
    for (const sim::Dialect dialect :
         {sim::Dialect::CommaUtf8, sim::Dialect::SemicolonComma, sim::Dialect::TabUtf16,
          sim::Dialect::PoundsInches, sim::Dialect::KilogramForceSpaces, sim::Dialect::GroupedThousands}) {
        TensileParameters parameters = usual();
        parameters.gripDistance = parameters.gaugeLength; // one dialect calls its column "travel"
        const auto bytes = std::make_shared<const std::string>(sim::recordBytes(curve, dialect, "A1"));
        const Result<PieceReading> reading =
            readPiece({PieceId{1}, bytes, {}, test::tensileOrder(parameters)});
        ASSERT_TRUE(reading) << static_cast<int>(dialect) << " " << reading.error().message;
        EXPECT_NEAR(test::readValue(reading->result, "tensile_strength"), *truth.tensileStrength_MPa, 1e-3);
        EXPECT_GE(
            matchingDigits(test::readValue(reading->result, "tensile_modulus"), *truth.tensileModulus_MPa),
            2.5)
            << static_cast<int>(dialect);
        EXPECT_NEAR(test::readValue(reading->result, "strain_at_break"), *truth.strainAtBreak, 1e-5);
    }
}

TEST(Tensile, RecordWithoutBreakSaysSo)
{
    const TensileResult result = reduced(record({ductile, 0.08, 1e-4, false}));
    EXPECT_FALSE(result.markers.broke);
    EXPECT_NEAR(*result.strainAtBreak, 0.08, 2e-4);
    const Check *check = ruleOf(result, "the break is in the record");
    ASSERT_NE(check, nullptr);
    EXPECT_FALSE(check->ok);
}

TEST(Tensile, GaugeAtItsLimitIsABound)
{
    ForceCurve curve = record({ductile, 0.08});
    for (double &force : curve.force_N)
        force = std::min(force, 1200.0);
    TensileParameters parameters = usual();
    parameters.capacity = newtons(1200.0);
    const TensileResult result = reduced(curve, parameters);
    EXPECT_TRUE(result.atLeast);
    EXPECT_NEAR(*result.tensileStrength_MPa, 30.0, 1e-9);
    const TensileResult unknown = reduced(curve);
    EXPECT_FALSE(unknown.atLeast);
    EXPECT_TRUE(std::any_of(unknown.warnings.begin(), unknown.warnings.end(), [](const std::string &warning) {
        return warning.find("gauge may have been at its limit") != std::string::npos;
    }));
}

TEST(Tensile, CompressionSignIsTurnedWithAWarning)
{
    ForceCurve curve = record({linear, 0.02});
    for (double &force : curve.force_N)
        force = -force;
    const TensileResult result = reduced(curve);
    EXPECT_GE(matchingDigits(*result.tensileStrength_MPa, 40.0), 9);
    ASSERT_FALSE(result.warnings.empty());
    EXPECT_NE(result.warnings[0].find("turned over"), std::string::npos);
}

TEST(Tensile, LoneSpikeIsNoise)
{
    ForceCurve curve = record({linear, 0.02});
    curve.force_N[50] = 5000.0;
    const TensileResult result = reduced(curve);
    EXPECT_GE(matchingDigits(*result.peakForce_N, 1600.0), 9);
    EXPECT_GE(matchingDigits(*result.tensileStrength_MPa, 40.0), 9);
}

TEST(Tensile, ZeroThatIsOffIsToldAndNotTakenOff)
{
    ForceCurve curve = record({linear, 0.02});
    for (double &force : curve.force_N)
        force += 20.0;
    const TensileResult result = reduced(curve);
    EXPECT_GE(matchingDigits(*result.peakForce_N, 1620.0), 9);
    EXPECT_FALSE(ruleOf(result, "force starts at zero")->ok);
}

TEST(Tensile, ForceAloneGivesStrengthOnly)
{
    ForceCurve curve = record({linear, 0.02});
    curve.extension_mm.clear();
    const TensileResult result = reduced(curve);
    EXPECT_GE(matchingDigits(*result.tensileStrength_MPa, 40.0), 9);
    EXPECT_FALSE(result.tensileModulus_MPa || result.strainAtBreak || result.energyToBreak_J ||
                 result.toeStrain);
}

TEST(Tensile, DoubleTheForceIsDoubleTheStress)
{
    ForceCurve curve = record({ductile, 0.08});
    const ReadingOrder order = test::tensileOrder(usual());
    const auto read = [&] {
        const RecordTable table{
            {curve.force_N, curve.extension_mm, {}, {}}, {false, false, false, false}, curve.force_N.size()};
        return *kTensileReduction.read(table, order.settings, {}, inOrder);
    };
    const Reading once = read();
    for (double &force : curve.force_N)
        force *= 2.0;
    const Reading twice = read();
    ASSERT_EQ(once.values.size(), twice.values.size());
    for (const ReadValue &value : once.values) {
        const Property property = *findProperty(kTensileReduction, value.property);
        if (property.dimension != Dimension::Ratio) {
            EXPECT_GE(matchingDigits(test::readValue(twice, value.property), 2.0 * value.number), 9)
                << property.name;
        }
    }
}

TEST(Tensile, StrainColumnGoesBeforeExtension)
{
    ForceCurve curve = record({linear, 0.02});
    for (double extension : curve.extension_mm)
        curve.strain.push_back(extension / kGauge_mm / 2.0);
    EXPECT_GE(matchingDigits(*reduced(curve).tensileModulus_MPa, 4000.0), 9);
}

TEST(Tensile, RefusesParametersThatAreNotPositive)
{
    const ForceCurve curve = record({linear, 0.02});
    for (auto spoil : {+[](TensileParameters &p) { p.area = {}; },
                       +[](TensileParameters &p) { p.gaugeLength = millimetres(0); },
                       +[](TensileParameters &p) { p.gripDistance = millimetres(-3); },
                       +[](TensileParameters &p) { p.capacity = newtons(0); }}) {
        TensileParameters parameters = usual();
        spoil(parameters);
        const Result<TensileResult> result = reduceTensile(curve, parameters);
        ASSERT_FALSE(result);
        EXPECT_EQ(result.error().code, ErrorCode::InvalidArgument);
    }
}

TEST(TensileProperties, HaveTheNamesOfTheContract)
{
    const std::vector<std::string_view> wanted{
        "tensile_modulus",  "yield_stress",       "yield_strain",    "offset_yield_stress",
        "tensile_strength", "strain_at_strength", "stress_at_break", "strain_at_break",
        "energy_to_break",  "toughness",          "toe_strain",      "peak_force"};
    std::vector<std::string_view> names;
    for (const Property &property : kTensileReduction.properties)
        names.push_back(property.name);
    ASSERT_GE(names.size(), wanted.size());
    names.resize(wanted.size()); // more may follow
    EXPECT_EQ(names, wanted);
    EXPECT_FALSE(findProperty(kTensileReduction, "beauty"));
}

// Found by fuzzing: once the lone spike was mended, nothing positive was left and the break was looked for.
TEST(Tensile, AForceThatIsOnlyASpikeIsNoForce)
{
    ForceCurve curve;
    curve.force_N = {0.0, 2.0, 0.0, 0.0};
    curve.extension_mm = {0.0, 0.1, 0.2, 0.3};
    const Result<TensileResult> result = reduceTensile(curve, usual());
    ASSERT_FALSE(result);
    EXPECT_EQ(result.error().code, ErrorCode::BadInput);
    EXPECT_NE(result.error().message.find("the force is zero in every sample"), std::string::npos);
}

// A gauge of 500 N whose calibration takes 2 % off shows its end at 490 N; one that adds 2 % is sound at 505
// N.
TEST(Tensile, TheGaugesLimitIsThatOfWhatItShowed)
{
    const auto read = [](double factor, double shownPeak_N) {
        std::string text = "force_N,extension_mm\n";
        for (int i = 0; i <= 50; ++i)
            text += std::to_string(shownPeak_N * i / 50) + "," + std::to_string(0.01 * i) + "\n";
        TensileParameters parameters;
        parameters.area = squareMillimetres(10.0);
        parameters.gaugeLength = millimetres(50.0);
        parameters.capacity = newtons(500.0);
        ReadingJob job{
            PieceId{1}, std::make_shared<const std::string>(text), {}, test::tensileOrder(parameters)};
        job.gauge =
            UsedGauge{"gauge", "2026-06-01", Calibration{"2026-01-01", {}, {}, factor, false, {}, {}}, 0.0};
        const Reading reading = readPiece(job).value().result;
        return valueOf(reading.values, "tensile_strength")->bound == BoundReason::GaugeAtEnd;
    };
    EXPECT_TRUE(read(0.98, 500.0));
    EXPECT_FALSE(read(1.02, 492.0)) << "501.8 N, but the gauge showed 492 of 500";
}

} // namespace inchpeg
