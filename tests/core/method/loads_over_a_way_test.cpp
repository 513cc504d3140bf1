// SPDX-License-Identifier: GPL-3.0-or-later
// Double shear, torsion, pull-out and puncture: what they share is tested once, what they are not, each.
#include "core/base/random.h"
#include "core/curve/straight_line.h"
#include "core/method/method.h"
#include "core/method/pull_out/pull_out.h"
#include "core/method/puncture/puncture.h"
#include "core/method/shear/double_shear.h"
#include "core/method/torsion/torsion.h"
#include "core/reading/piece_reading.h"
#include "core/reading/reading_settings.h"
#include "core/specimen/section_modulus.h"
#include "sim/record_writer.h"
#include "sim/virtual_load.h"
#include "support/matching_digits.h"
#include "support/read_value.h"
#include "support/sanitized.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

namespace inchpeg
{

namespace
{

constexpr std::uint64_t kSeeds = test::kSanitized ? 50 : 200;

using std::numbers::pi;
using test::matchingDigits;

/// Rises with 100 to 400 over 4, then falls to nothing between two samples.
LoadRecord ramp()
{
    return {{0.0, 100.0, 200.0, 300.0, 400.0, 10.0}, {0.0, 1.0, 2.0, 3.0, 4.0, 4.1}};
}

LoadCurve curveOf(const LoadRecord &record, const LoadCurveRules &rules = {})
{
    Result<LoadCurve> curve = readLoadCurve(record, rules);
    EXPECT_TRUE(curve) << curve.error().message;
    return std::move(*curve);
}

} // namespace

TEST(LoadCurve, PeakBreakWorkAndStiffnessOfARamp)
{
    const LoadCurve curve = curveOf(ramp());
    EXPECT_EQ(curve.peak, 4U);
    EXPECT_TRUE(curve.broke);
    EXPECT_EQ(curve.lastBeforeBreak, 4U);
    EXPECT_EQ(curve.contact, 0U);
    EXPECT_EQ(curve.workToBreak(), 800.0); // half of 400 times 4
    EXPECT_GE(matchingDigits(*curve.stiffness(), 100.0), 12);
    EXPECT_TRUE(curve.warnings.empty());
}

TEST(LoadCurve, BothColumnsAreTurnedUprightWithAWarning)
{
    LoadRecord record = ramp();
    for (std::vector<double> *column : {&record.load, &record.way}) {
        for (double &value : *column)
            value = -value;
    }
    const LoadCurve curve = curveOf(record);
    EXPECT_EQ(curve.workToBreak(), 800.0);
    EXPECT_EQ(curve.warnings.size(), 2U);
}

TEST(LoadCurve, ARecordThatEndsUnderLoadGivesBounds)
{
    const LoadCurve rising = curveOf({{0.0, 100.0, 200.0, 300.0}, {0.0, 1.0, 2.0, 3.0}});
    EXPECT_FALSE(rising.broke);
    EXPECT_FALSE(rising.isWhole());
    EXPECT_EQ(rising.warnings.size(), 1U);
    const LoadCurve dying =
        curveOf({{0.0, 100.0, 200.0, 150.0, 100.0, 60.0}, {0.0, 1.0, 2.0, 3.0, 4.0, 5.0}});
    EXPECT_FALSE(dying.broke) << "it dies away slowly";
    EXPECT_TRUE(dying.isWhole()) << "but it is out";
    EXPECT_EQ(dying.workToBreak(), 50.0 + 150.0 + 175.0 + 125.0 + 80.0);
}

TEST(LoadCurve, AGaugeAtItsEndIsABoundAndAHandScaleAPeakAlone)
{
    LoadCurveRules rules;
    rules.capacity = 400.0;
    EXPECT_TRUE(curveOf(ramp(), rules).atLeast);
    rules.capacity = 500.0;
    EXPECT_FALSE(curveOf(ramp(), rules).atLeast);
    const LoadCurve alone = curveOf({{312.0}, {}});
    EXPECT_EQ(alone.load[alone.peak], 312.0);
    EXPECT_FALSE(alone.workToBreak());
    EXPECT_FALSE(alone.stiffness());
    EXPECT_EQ(alone.warnings.size(), 1U);
}

TEST(LoadCurve, MarkersByHandStandAndRefusalsSayWhy)
{
    LoadCurveRules rules;
    rules.peak = 3;
    rules.lastBeforeBreak = 3;
    const LoadCurve placed = curveOf(ramp(), rules);
    EXPECT_EQ(placed.load[placed.peak], 300.0);
    EXPECT_EQ(placed.workToBreak(), 450.0);
    rules.peak = 6;
    const Result<LoadCurve> outside = readLoadCurve(ramp(), rules);
    ASSERT_FALSE(outside);
    EXPECT_NE(outside.error().message.find("peak was placed at sample 7"), std::string::npos);
    EXPECT_FALSE(readLoadCurve({}, {}));
    EXPECT_FALSE(readLoadCurve({{0.0, 0.0}, {0.0, 1.0}}, {}));
    rules = {};
    rules.capacity = 0.0;
    EXPECT_FALSE(readLoadCurve(ramp(), rules));
}

// The slope from each point to the first that is so much higher, by a second, slow method.
TEST(StraightLine, SteepestSlopeOverARiseIsThatOfTheSlowSearch)
{
    for (std::uint64_t seed = 1; seed <= 100; ++seed) {
        Random random(seed);
        std::vector<double> x;
        std::vector<double> y;
        for (int i = 0; i < 60; ++i) {
            x.push_back(i + 0.3 * random.uniform());
            y.push_back((i < 40 ? i : 80 - i) + 2.0 * random.normal());
        }
        const double rise = 12.0;
        std::optional<double> slow;
        for (std::size_t i = 0; i + 1 < x.size(); ++i) {
            for (std::size_t j = i + 1; j < x.size(); ++j) {
                if (y[j] - y[i] < rise)
                    continue;
                const auto line =
                    fitLine(std::span(x).subspan(i, j - i + 1), std::span(y).subspan(i, j - i + 1));
                slow = std::max(slow.value_or(line->slope), line->slope);
                break;
            }
        }
        ASSERT_TRUE(slow);
        EXPECT_NEAR(*steepestSlopeOverRise(x, y, rise), *slow, 1e-9 * *slow) << seed;
    }
    EXPECT_FALSE(steepestSlopeOverRise(std::vector{0.0, 1.0}, std::vector{0.0, 1.0}, 2.0));
}

// A pin of 8 mm: A = 50.2655 mm²; 5026.55 N over twice that are 50 MPa.
TEST(DoubleShear, ForceOverTwoSections)
{
    const Result<DoubleShearResult> result = reduceDoubleShear(
        {{0.0, 2500.0, 5026.548245743669, 0.0}, {0.0, 1.0, 2.0, 2.1}}, squareMillimetres(16.0 * pi), {});
    ASSERT_TRUE(result);
    EXPECT_GE(matchingDigits(result->shearStrength_MPa, 50.0), 12);
    EXPECT_FALSE(reduceDoubleShear(ramp(), squareMillimetres(0.0), {}));
}

// Timoshenko and Goodier, Theory of Elasticity, 3rd ed., article 109: the largest stress is T/(k2 a b²), the
// twist T L/(k1 a b³ G) (table from memory; three digits).
TEST(Torsion, RectanglesFollowTheTableOfTheTextbook)
{
    const struct {
        double ratio, k1, k2;
    } table[] = {{1.0, 0.1406, 0.208}, {1.5, 0.196, 0.231}, {2.0, 0.229, 0.246}, {3.0, 0.263, 0.267},
                 {4.0, 0.281, 0.282},  {5.0, 0.291, 0.291}, {10.0, 0.312, 0.312}};
    for (const auto &row : table) {
        for (const bool turned : {false, true}) {
            const double a = row.ratio * 4.0;
            const TorsionSection section = turned ? torsionOfRectangle(4.0, a) : torsionOfRectangle(a, 4.0);
            EXPECT_NEAR(section.modulus_mm3 / (a * 16.0), row.k2, 6e-4) << row.ratio;
            EXPECT_NEAR(section.constant_mm4 / (a * 64.0), row.k1, 6e-4) << row.ratio;
        }
    }
}

// By hand, Ø8 mm, 30 mm long: J = π 8⁴/32 = 402.1239 mm⁴. G = 800 MPa: a degree takes G J π/(180 L) = 187.16
// N·mm.
TEST(Torsion, ARoundRodByHand)
{
    const double perDegree_Nm = 800.0 * (pi * 4096.0 / 32.0) * pi / (180.0 * 30.0) / 1e3;
    LoadRecord record;
    for (double angle = 0.0; angle <= 120.0; angle += 1.0) {
        record.way.push_back(angle);
        record.load.push_back(perDegree_Nm * angle); // straight to the end
    }
    record.way.push_back(120.5);
    record.load.push_back(0.1);
    const Result<TorsionResult> result =
        reduceTorsion(record, {RoundSection{millimetres(8.0)}, millimetres(30.0)}, {});
    ASSERT_TRUE(result);
    EXPECT_GE(matchingDigits(*result->shearModulus_MPa, 800.0), 10);
    EXPECT_GE(matchingDigits(result->peakTorque_Nm, 120.0 * perDegree_Nm), 12);
    EXPECT_GE(matchingDigits(*result->torqueAt90_Nm, 90.0 * perDegree_Nm), 12);
    EXPECT_GE(matchingDigits(result->shearStress_MPa, 16e3 * result->peakTorque_Nm / (pi * 512.0)), 12);
    EXPECT_EQ(result->angleAtPeak_deg, 120.0);
    const Result<TorsionResult> area =
        reduceTorsion(record, {PlainArea{squareMillimetres(50.0)}, millimetres(30.0)}, {});
    EXPECT_FALSE(area) << "the form of the section is not known";
}

namespace
{

/// A round rod whose rings yield one after the other: torque from the shear stress over the radius,
/// integrated. The stress follows G γ at first and rounds towards its yield, the sharper the larger sharpness
/// is.
double torqueOfRod_Nm(double radius_mm, double length_mm, double angle_deg, double modulus_MPa,
                      double yield_MPa, double sharpness)
{
    constexpr int kRings = 200;
    const double step = radius_mm / kRings;
    const double twist = angle_deg * pi / 180.0 / length_mm;
    double torque_Nmm = 0.0;
    for (int i = 0; i < kRings; ++i) {
        const double r = (i + 0.5) * step;
        const double elastic_MPa = modulus_MPa * r * twist;
        const double stress_MPa =
            elastic_MPa / std::pow(1.0 + std::pow(elastic_MPa / yield_MPa, sharpness), 1.0 / sharpness);
        torque_Nmm += 2.0 * pi * r * r * stress_MPa * step;
    }
    return torque_Nmm / 1e3;
}

} // namespace

// A tough rod twists for turns: a tenth of its angle at the peak is long past its straight part. And a rig
// has play before it twists at all.
TEST(Torsion, RodsThatYieldAndRigsWithPlay)
{
    int right = 0;
    constexpr int kRods = static_cast<int>(kSeeds);
    for (std::uint64_t seed = 1; seed <= kSeeds; ++seed) {
        Random random(seed);
        const double radius_mm = 2.0 + 4.0 * random.uniform();
        const double length_mm = 25.0 + 50.0 * random.uniform();
        const double modulus_MPa = 300.0 + 900.0 * random.uniform();
        const double yield_MPa = 0.03 * modulus_MPa * (1.0 + random.uniform());
        const double sharpness = 2.0 + 6.0 * random.uniform();
        const double play_deg = seed % 2 == 0 ? 0.0 : 1.0 + 3.0 * random.uniform();
        const double peak_deg = 60.0 + 700.0 * random.uniform();
        const double noise =
            0.002 * torqueOfRod_Nm(radius_mm, length_mm, peak_deg, modulus_MPa, yield_MPa, sharpness);
        LoadRecord record;
        for (double angle = 0.0; angle <= peak_deg + play_deg; angle += 0.5) {
            record.way.push_back(angle);
            record.load.push_back(torqueOfRod_Nm(radius_mm, length_mm, std::max(0.0, angle - play_deg),
                                                 modulus_MPa, yield_MPa, sharpness) +
                                  noise * random.normal());
        }
        record.way.push_back(record.way.back() + 0.5);
        record.load.push_back(0.0);
        const Result<TorsionResult> result =
            reduceTorsion(record, {RoundSection{millimetres(2.0 * radius_mm)}, millimetres(length_mm)}, {});
        ASSERT_TRUE(result) << result.error().message;
        ASSERT_TRUE(result->shearModulus_MPa);
        const bool isClose = std::abs(*result->shearModulus_MPa / modulus_MPa - 1.0) < 0.05 &&
                             std::abs(result->play_deg - play_deg) < 0.3;
        const bool isTold = std::any_of(result->curve.validity.begin(), result->curve.validity.end(),
                                        [](const Check &check) { return !check.ok; });
        right += isClose || isTold ? 1 : 0;
    }
    EXPECT_GE(right, kRods * 95 / 100);
}

TEST(Torsion, AQuarterTurnBehindTheBreakHasNoTorque)
{
    const Result<TorsionResult> result =
        reduceTorsion({{0.0, 1.0, 2.0, 3.0, 0.1, 0.1}, {0.0, 20.0, 40.0, 60.0, 61.0, 100.0}},
                      {RectangularSection{millimetres(10.0), millimetres(4.0)}, millimetres(50.0)}, {});
    ASSERT_TRUE(result);
    EXPECT_FALSE(result->torqueAt90_Nm);
    EXPECT_EQ(result->peakTorque_Nm, 3.0);
}

// Ø5 mm, 8 mm deep: 125.664 mm² carry 1256.64 N at 10 MPa.
TEST(PullOut, ForceOverTheCylinder)
{
    const LoadRecord record{{0.0, 200.0 * pi, 400.0 * pi, 10.0}, {0.0, 1.0, 2.0, 2.1}};
    const Result<PullOutResult> result = reducePullOut(record, {millimetres(5.0), millimetres(8.0)}, {});
    ASSERT_TRUE(result);
    EXPECT_GE(matchingDigits(result->interfaceShear_MPa, 10.0), 12);
    EXPECT_GE(matchingDigits(*result->stiffness_N_per_mm, 200.0 * pi), 12);
    EXPECT_GE(matchingDigits(*result->energy_J, 0.4 * pi), 12);
    EXPECT_FALSE(reducePullOut(record, {millimetres(5.0), millimetres(0.0)}, {}));
}

TEST(Puncture, DepthCountsFromContactAndTheGaugesEndIsTold)
{
    const LoadRecord record{{0.0, 0.0, 0.0, 100.0, 200.0, 5.0}, {0.0, 1.0, 2.0, 3.0, 4.0, 4.02}};
    LoadCurveRules rules;
    Result<PunctureResult> result = reducePuncture(record, rules);
    ASSERT_TRUE(result);
    EXPECT_EQ(result->depthAtPeak_mm, 2.0);
    EXPECT_FALSE(result->isCensored) << "the range is not known";
    rules.capacity = 201.0;
    result = reducePuncture(record, rules);
    EXPECT_EQ(result->isCensored, true);
    rules.capacity = 500.0;
    EXPECT_EQ(reducePuncture(record, rules)->isCensored, false);
}

TEST(DoubleShear, AStudysPinMayBeRoundSquareOrAnArea)
{
    Study study;
    study.tests = {{Method::DoubleShear, 1, {}}};
    Piece piece;
    piece.test = Method::DoubleShear;
    const auto area_mm2 = [&](const Section &section) {
        piece.section = section;
        const Result<ReadingOrder> order = readingOrder(study, piece, {});
        EXPECT_TRUE(order) << order.error().message;
        const Result<Reading> reading =
            order->reduction->read({{{0.0, 50.0, 100.0, 1.0}, {0.0, 1.0, 2.0, 2.1}}, {false, false}, 4},
                                   order->settings, {}, inOrder);
        EXPECT_TRUE(reading) << reading.error().message;
        return 50.0 / test::readValue(*reading, "shear_strength");
    };
    EXPECT_GE(matchingDigits(area_mm2(RoundSection{millimetres(8.0)}), 16.0 * pi), 12);
    EXPECT_GE(matchingDigits(area_mm2(RectangularSection{millimetres(6.0), millimetres(4.0)}), 24.0), 12);
    EXPECT_GE(matchingDigits(area_mm2(PlainArea{squareMillimetres(30.0)}), 30.0), 12);
}

// Known truth: each test's virtual piece is written in a random dialect and read again.
TEST(LoadsOverAWay, TwoHundredVirtualPiecesOfEachTestAreReadAgain)
{
    for (std::uint64_t seed = 1; seed <= kSeeds; ++seed) {
        SCOPED_TRACE(seed);
        Random random(seed);
        sim::LoadedPiece piece;
        piece.peak = 80.0 + 1500.0 * random.uniform();
        piece.stiffness = piece.peak * (0.4 + 1.6 * random.uniform());
        piece.isSudden = random.uniform() < 0.7;
        const double noise_N = 0.001 * piece.peak;
        const sim::Rig rig{.slack_mm = 0.5 * random.uniform(),
                           .forceNoise_N = noise_N,
                           .resolution_N = 0.01,
                           .speed_mm_per_s = piece.wayAtPeak() / 40.0,
                           .rate_Hz = 20.0};
        const double diameter_mm = 3.0 + 7.0 * random.uniform();
        const double depth_mm = 4.0 + 8.0 * random.uniform();
        const auto bytes = std::make_shared<const std::string>(sim::recordBytes(
            sim::loadUntilItLetsGo(piece, rig, seed), static_cast<sim::Dialect>(seed % 4), "A1"));
        const auto readAs = [&](Method method, const MethodSettings &settings) {
            const Result<PieceReading> reading =
                readPiece({PieceId{1}, bytes, {}, {reductionOf(method), settings, {}, "A1"}});
            EXPECT_TRUE(reading) << methodName(method) << ": " << reading.error().message;
            return reading->result;
        };
        const double peakError = 4.0 * noise_N + 0.002 * piece.peak + 0.01;
        const Reading shear = readAs(Method::DoubleShear, {{{"diameter", diameter_mm}}, {}});
        EXPECT_NEAR(test::readValue(shear, "peak_force"), piece.peak, peakError);
        EXPECT_NEAR(test::readValue(shear, "shear_strength"),
                    piece.peak / (0.5 * pi * diameter_mm * diameter_mm),
                    peakError / (0.5 * pi * diameter_mm * diameter_mm));
        const Reading pull = readAs(Method::PullOut, {{{"diameter", diameter_mm}, {"depth", depth_mm}}, {}});
        EXPECT_NEAR(test::readValue(pull, "interface_shear"), piece.peak / (pi * diameter_mm * depth_mm),
                    peakError / (pi * diameter_mm * depth_mm));
        // The steepest of many noisy stretches lies a little above the truth.
        EXPECT_NEAR(test::readValue(pull, "stiffness") / piece.stiffness, 1.0, 0.03);
        if (piece.isSudden) {
            EXPECT_NEAR(test::readValue(pull, "energy") / (piece.workToPeak() / 1e3), 1.0, 0.01);
        }
        const Reading puncture = readAs(Method::Puncture, {{{"capacity", 5000.0}}, {}});
        EXPECT_EQ(test::readValue(puncture, "censored"), 0.0);
        EXPECT_NEAR(test::readValue(puncture, "depth_at_peak") / piece.wayAtPeak(), 1.0, 0.12)
            << "the top is flat, and the noise chooses on it";
        const Reading ended = readAs(Method::Puncture, {{{"capacity", 0.9 * piece.peak}}, {}});
        EXPECT_EQ(test::readValue(ended, "censored"), 1.0);
        EXPECT_EQ(valueOf(ended.values, "peak_force")->bound, BoundReason::GaugeAtEnd);
    }
}

TEST(LoadsOverAWay, TwoHundredVirtualRodsAreTwistedInAnyUnit)
{
    for (std::uint64_t seed = 1; seed <= kSeeds; ++seed) {
        SCOPED_TRACE(seed);
        Random random(seed);
        const bool isRound = seed % 2 == 0;
        const double width_mm = 4.0 + 8.0 * random.uniform();
        const double thickness_mm = 3.0 + 3.0 * random.uniform();
        const double length_mm = 30.0 + 40.0 * random.uniform();
        const TorsionSection section =
            isRound ? torsionOfRound(width_mm) : torsionOfRectangle(width_mm, thickness_mm);
        const double modulus_MPa = 500.0 + 1500.0 * random.uniform();
        sim::LoadedPiece piece;
        piece.peak = 0.5 + 5.0 * random.uniform(); // N·m over degrees
        piece.stiffness = modulus_MPa * section.constant_mm4 * pi / (180.0 * length_mm) / 1e3;
        const sim::Rig rig{
            .forceNoise_N = 1e-5 * piece.peak, .speed_mm_per_s = piece.wayAtPeak() / 60.0, .rate_Hz = 10.0};
        const ForceCurve twisted = sim::loadUntilItLetsGo(piece, rig, seed);
        std::string text = isRound ? "torque (N·cm);angle (rad)\n" : "Torque [N·m],Angle [deg]\n";
        for (std::size_t i = 0; i < twisted.force_N.size(); ++i)
            text += isRound ? fmt::format("{:.9g};{:.9g}\n", 100.0 * twisted.force_N[i],
                                          twisted.extension_mm[i] * pi / 180.0)
                            : fmt::format("{:.9g},{:.9g}\n", twisted.force_N[i], twisted.extension_mm[i]);
        MethodSettings settings{{{"length", length_mm}}, {}};
        if (isRound)
            settings.numbers["diameter"] = width_mm;
        else
            settings.numbers = {{"length", length_mm}, {"width", width_mm}, {"thickness", thickness_mm}};
        const Result<PieceReading> reading = readPiece({PieceId{1},
                                                        std::make_shared<const std::string>(text),
                                                        {},
                                                        {reductionOf(Method::Torsion), settings, {}, "A1"}});
        ASSERT_TRUE(reading) << reading.error().message;
        EXPECT_NEAR(test::readValue(reading->result, "peak_torque") / piece.peak, 1.0, 1e-3);
        EXPECT_NEAR(test::readValue(reading->result, "shear_modulus") / modulus_MPa, 1.0, 2e-3);
        EXPECT_NEAR(test::readValue(reading->result, "shear_stress") * section.modulus_mm3 / 1e3 / piece.peak,
                    1.0, 1e-3);
        const ReadValue *quarter = valueOf(reading->result.values, "torque_at_90");
        EXPECT_EQ(quarter != nullptr, piece.wayAtPeak() > 90.0);
        if (quarter != nullptr) {
            EXPECT_NEAR(quarter->number / piece.loadAt(90.0), 1.0, 2e-3);
        }
    }
}

} // namespace inchpeg
