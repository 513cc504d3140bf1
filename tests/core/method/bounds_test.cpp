// SPDX-License-Identifier: GPL-3.0-or-later
// What a gauge at its end cuts off is "at least", whichever property it is; what lies below stands as read.
#include "core/reading/piece_reading.h"

#include <gtest/gtest.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

/// A straight record up to the gauge's end and along it up to a travel, then a break.
Reading readCutOff(Method method, double k_N_per_mm, double end_N, double travel_mm, MethodSettings settings)
{
    std::string text = "force_N,deflection_mm\n";
    for (int i = 0; 0.01 * i <= travel_mm; ++i)
        text +=
            std::to_string(std::min(0.01 * i * k_N_per_mm, end_N)) + "," + std::to_string(0.01 * i) + "\n";
    text += "0," + std::to_string(travel_mm + 0.01) + "\n";
    settings.numbers["capacity"] = end_N;
    const Result<PieceReading> reading = readPiece({PieceId{1},
                                                    std::make_shared<const std::string>(text),
                                                    {},
                                                    {reductionOf(method), std::move(settings), {}, "A1"}});
    EXPECT_TRUE(reading) << (reading ? "" : reading.error().message);
    return reading ? reading->result : Reading{};
}

BoundReason boundIn(const Reading &reading, std::string_view property)
{
    const ReadValue *value = valueOf(reading.values, property);
    EXPECT_NE(value, nullptr) << property;
    return value != nullptr ? value->bound : BoundReason::None;
}

} // namespace

// 2000 MPa on 10 mm² over 50 mm, cut off at 20 MPa: the gauge's plateau looks like a yield.
TEST(Bounds, APlateauOfTheGaugeIsNoYield)
{
    const Reading reading =
        readCutOff(Method::Tension, 400.0, 200.0, 2.5, {{{"area", 10.0}, {"gauge_length", 50.0}}, {}});
    for (const char *property : {"tensile_strength", "yield_stress", "yield_strain", "offset_yield_stress",
                                 "strain_at_break", "toughness", "peak_force"})
        EXPECT_EQ(boundIn(reading, property), BoundReason::GaugeAtEnd) << property;
    EXPECT_EQ(boundIn(reading, "tensile_modulus"), BoundReason::None);
    EXPECT_TRUE(std::any_of(reading.marks.begin(), reading.marks.end(),
                            [](const Mark &mark) { return mark.label == "At least"; }));
}

// 10 × 4 mm over 64 mm; the conventional deflection is 6 mm, where 19.5 N/mm give 117 N.
TEST(Bounds, TheConventionalDeflectionCountsWhereTheGaugeStillShowedIt)
{
    const MethodSettings bar{{{"width", 10.0}, {"thickness", 4.0}, {"span", 64.0}}, {}};
    const Reading below = readCutOff(Method::Bending, 19.53125, 130.0, 8.0, bar);
    EXPECT_EQ(boundIn(below, "flexural_strength"), BoundReason::GaugeAtEnd);
    EXPECT_EQ(boundIn(below, "stress_at_conventional_deflection"), BoundReason::None);
    const Reading above = readCutOff(Method::Bending, 19.53125, 60.0, 8.0, bar);
    EXPECT_EQ(boundIn(above, "stress_at_conventional_deflection"), BoundReason::GaugeAtEnd);
}

} // namespace inchpeg
