// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/compare/method_answers.h"
#include "core/compare/verdict.h"
#include "core/model/study_edit.h"
#include "core/reading/reading_settings.h"
#include "sim/virtual_drops.h"
#include "support/matching_digits.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{

namespace
{

/// A study of one test whose typed records are read as the program reads them.
struct TypedStudy {
    Study study;
    PieceReadings readings;
    std::int64_t lastId = 0;

    TypedStudy(Method method, const char *factor, const char *unit, int pieces)
    {
        study.id = StudyId{++lastId};
        study.factors.front() = {factor, unit, ChangedPer::Piece};
        firstTest(study).method = method;
        firstTest(study).piecesPerCondition = pieces;
    }

    void rail(const char *level)
    {
        EXPECT_TRUE(
            addCondition(study, {{}, {level}, Orientation::Flat, "polyester"}, [this] { return ++lastId; }));
        for (Piece &piece : study.pieces) {
            piece.recording = Recording{RawFileId{++lastId}, {}};
            piece.section = RectangularSection{millimetres(10.0), millimetres(4.0)};
        }
    }

    std::vector<const Piece *> pieces(std::size_t rail) const
    {
        return piecesOf(study, study.conditions[rail].id);
    }

    void type(const Piece &piece, const std::string &table)
    {
        const Result<ReadingOrder> order = readingOrder(study, piece, {});
        ASSERT_TRUE(order) << order.error().message;
        readings[piece.id] = std::make_shared<const Result<PieceReading>>(
            readPiece({piece.id, std::make_shared<const std::string>(table), {}, *order}));
        ASSERT_TRUE(*readings[piece.id]) << (*readings[piece.id]).error().message;
    }
};

/// ε(t) = first + growth · t, t in hours, as a dial in mm on a bar of 4 mm over 64 mm: s = ε L²/(6h).
std::string creepOf(double first, double growthPerHour, double until_h)
{
    std::string table = "time_h,deflection_mm\n";
    for (double t = 0.5; t <= until_h; t *= 2.0)
        table += fmt::format("{},{}\n", t, (first + growthPerHour * t) * 64.0 * 64.0 / 24.0);
    return table;
}

} // namespace

TEST(MethodAnswers, IsochronesAreTheStrainsOfAllStressesAtOneTime)
{
    TypedStudy bars(Method::Creep, "stress", "MPa", 2);
    bars.rail("5");
    bars.rail("10");
    for (std::size_t rail = 0; rail < 2; ++rail) {
        for (const Piece *piece : bars.pieces(rail))
            bars.type(*piece, rail == 0 ? creepOf(0.002, 1e-5, 64.0) : creepOf(0.005, 5e-5, 64.0));
    }
    const std::vector<Isochrone> lines = isochrones(bars.study, bars.readings);
    ASSERT_EQ(lines.size(), 3U); // 1, 10 and 24 h; nothing was read at 120 h
    EXPECT_EQ(lines[2].time_h, 24.0);
    ASSERT_EQ(lines[2].points.size(), 2U);
    EXPECT_EQ(lines[2].points[0].pieces, 2U);
    EXPECT_NEAR(lines[2].points[0].stress_MPa, 5.0, 1e-9);
    EXPECT_NEAR(lines[2].points[0].strain, 0.002 + 24e-5, 1e-12);
    EXPECT_NEAR(lines[2].points[1].strain, 0.005 + 24.0 * 5e-5, 1e-12);
    // 5 MPa / 0.224 % = 2232 MPa, 10 MPa / 0.62 % = 1613 MPa.
    EXPECT_EQ(methodAnswers(bars.study, bars.readings, Method::Creep, {}).back(),
              "polyester, after 24 h: 0.224 % under 5.00 MPa (2 pieces), 0.620 % under 10.0 MPa (2 pieces); "
              "more than in proportion: "
              "the modulus falls from 2232 MPa to 1613 MPa.");
}

TEST(MethodAnswers, OneStressOrAShortRunHasNoIsochrone)
{
    TypedStudy bars(Method::Creep, "stress", "MPa", 1);
    bars.rail("5");
    bars.rail("5.02");
    bars.type(*bars.pieces(0)[0], creepOf(0.002, 1e-5, 64.0));
    bars.type(*bars.pieces(1)[0], creepOf(0.002, 1e-5, 64.0));
    EXPECT_TRUE(isochrones(bars.study, bars.readings).empty());
    EXPECT_TRUE(methodAnswers(bars.study, bars.readings, Method::Creep, {}).empty());
}

TEST(MethodAnswers, AFactorNamedLikeASettingSetsItForItsRails)
{
    TypedStudy bars(Method::Creep, "Load", "", 1);
    bars.rail("12.5 N");
    bars.rail("thick");
    Result<ReadingOrder> order = readingOrder(bars.study, *bars.pieces(0)[0], {});
    ASSERT_TRUE(order);
    EXPECT_EQ(order->settings.number("load"), 12.5);
    EXPECT_FALSE(order->settings.number("stress")) << "a load that was said goes before the usual stress";
    order = readingOrder(bars.study, *bars.pieces(1)[0], {});
    ASSERT_TRUE(order);
    EXPECT_FALSE(order->settings.number("load"));
    EXPECT_TRUE(order->settings.number("stress"));
}

TEST(MethodAnswers, UpAndDownFindsWhatHalfBear)
{
    // Known truth: failures above 3 J, sd 0.3 J; forty pieces, each drop a step of 30 mm up after one that
    // held and down after one that failed.
    constexpr double kMass_kg = 1.0;
    TypedStudy plates(Method::FallingWeight, "infill", "%", 40);
    firstTest(plates.study).setup.settings.numbers["mass"] = kMass_kg;
    plates.rail("40");
    Random random(11);
    double height_mm = 300.0;
    for (const Piece *piece : plates.pieces(0)) {
        const double bears_J = 3.0 + 0.3 * random.normal();
        plates.type(*piece, sim::singleDropTable(bears_J, height_mm, kMass_kg));
        height_mm += kMass_kg * 9.80665 * height_mm / 1e3 > bears_J ? -30.0 : 30.0;
    }
    const std::vector<StaircaseTrial> drops =
        upAndDownOf(plates.study, plates.readings, plates.study.conditions[0].id);
    ASSERT_EQ(drops.size(), 40U);
    const Result<Staircase> staircase = evaluateStaircase(drops);
    ASSERT_TRUE(staircase);
    EXPECT_NEAR(*staircase->mean, 3.0, 3.0 * 0.07); // standard error 0.3 · 1.05 / √20 or so
    const std::vector<std::string> told =
        methodAnswers(plates.study, plates.readings, Method::FallingWeight, {});
    ASSERT_EQ(told.size(), 1U);
    EXPECT_EQ(told[0].find("40 %: half fail at "), 0U) << told[0];
    EXPECT_NE(told[0].find("of 40 failed, up and down"), std::string::npos) << told[0];
    // Those that failed have no value, and those that held are bounds: the rail says where to look.
    const StudyVerdict verdict = verdictOf(
        plates.study, compareStudy(plates.study, plates.readings, usualProperty(Method::FallingWeight)));
    EXPECT_NE(verdict.rails[0].sentence.find("of 40 pieces held the last drop: they can take at least that; "
                                             "the others failed at their only drop"),
              std::string::npos)
        << verdict.rails[0].sentence;
}

TEST(MethodAnswers, PiecesThatWereStruckUntilTheyFailedNeedNoStaircase)
{
    TypedStudy plates(Method::FallingWeight, "infill", "%", 2);
    firstTest(plates.study).setup.settings.numbers["mass"] = 1.0;
    plates.rail("40");
    for (const Piece *piece : plates.pieces(0))
        plates.type(*piece, sim::stepUpTable(3.0, {}));
    EXPECT_TRUE(methodAnswers(plates.study, plates.readings, Method::FallingWeight, {}).empty());
}

// A bar that bends at 68 °C and softens at 81 °C: each answers its own question, and both say so.
TEST(MethodAnswers, SofteningAndHeatDeflectionAreToldTogether)
{
    TypedStudy warm(Method::HeatDeflection, "polymer", "", 1);
    firstTest(warm.study).setup.stress_MPa = 0.45;
    StudyTest softening{Method::Softening, 1, {}};
    softening.setup.settings.words["procedure"] = "A50";
    warm.study.tests.push_back(softening);
    for (const char *polymer : {"glycol polyester", "styrenic"})
        warm.rail(polymer);
    const auto give = [&](std::size_t rail, Method test, const char *property, double value) {
        for (const Piece *piece : warm.pieces(rail)) {
            if (piece->test != test)
                continue;
            PieceReading reading;
            reading.result.values = {{property, value, "", BoundReason::None}};
            warm.readings[piece->id] = std::make_shared<const Result<PieceReading>>(reading);
        }
    };
    give(0, Method::HeatDeflection, "heat_deflection_temperature", 68.2);
    EXPECT_TRUE(methodAnswers(warm.study, warm.readings, Method::Softening, {}).empty()) << "nothing to join";
    give(0, Method::Softening, "softening_temperature", 81.4);
    give(1, Method::HeatDeflection, "heat_deflection_temperature", 89.0);
    for (const Method test : {Method::HeatDeflection, Method::Softening}) {
        const std::vector<std::string> told = methodAnswers(warm.study, warm.readings, test, {});
        ASSERT_EQ(told.size(), 1U);
        EXPECT_TRUE(told[0].starts_with(
            "glycol polyester bends under 0.450 MPa at 68.2 °C and softens (A50) at 81.4 °C. A part that"))
            << told[0];
        EXPECT_EQ(told[0].find("styrenic"), std::string::npos) << "of which one is missing";
    }
    warm.study.tests.pop_back();
    EXPECT_TRUE(methodAnswers(warm.study, warm.readings, Method::HeatDeflection, {}).empty());
}

} // namespace inchpeg
