// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/method/method.h"
#include "core/method/tension/strain_values.h"
#include "core/reading/piece_reading.h"
#include "support/read_value.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{

namespace
{

/// A linear pull of 2 GPa: 1 % strain a minute, narrowing by a share of it; 40 mm², gauge 50 mm.
std::string pull(double poissonsRatio, const char *across, double noise, std::uint64_t seed)
{
    Random random(seed);
    std::string table = fmt::format("Time (s);{};Strain (%);Force (N)\n", across);
    for (int i = 0; i <= 120; ++i) {
        const double strain = 0.01 * i / 60.0 / 2.0;
        const double transverse = -poissonsRatio * strain + noise * random.normal();
        table += fmt::format("{};{:.8f};{:.6f};{:.4f}\n", 0.5 * i, 100.0 * transverse, 100.0 * strain,
                             40.0 * 2000.0 * strain);
    }
    return table + "61;0;0;1\n";
}

Result<PieceReading> readPull(const std::string &table, std::map<std::string, double, std::less<>> more = {})
{
    more["area"] = 40.0;
    more["gauge_length"] = 50.0;
    return readPiece({PieceId{1},
                      std::make_shared<const std::string>(table),
                      {},
                      {reductionOf(Method::Tension), {more, {}}, {}, "A1"}});
}

const Check *findCheck(const Reading &reading, std::string_view rule)
{
    for (const Check &check : reading.validity) {
        if (check.rule == rule)
            return &check;
    }
    return nullptr;
}

} // namespace

TEST(StrainValues, PoissonsRatioComesBackWhateverTheColumnIsCalled)
{
    int seed = 0;
    for (const char *name : {"Transverse strain (%)", "Lateral strain [%]", "Querdehnung (%)",
                             "strain, lateral (%)", "Déformation transversale (%)"}) {
        for (int i = 0; i < 40; ++i) {
            SCOPED_TRACE(name);
            const double truth = 0.25 + 0.2 * i / 40.0;
            const Result<PieceReading> reading =
                readPull(pull(truth, name, 2e-6, static_cast<std::uint64_t>(++seed)));
            ASSERT_TRUE(reading) << reading.error().message;
            // Slope over 25 samples of 0.00833 % each: its standard error is 2e-6 / (8.33e-5 · √1300) = 7e-4.
            EXPECT_NEAR(test::readValue(reading->result, "poissons_ratio"), truth, 4.0 * 7e-4);
            EXPECT_NEAR(test::readValue(reading->result, "tensile_modulus"), 2000.0, 0.1)
                << "the strain across was taken for the one along";
        }
    }
}

TEST(StrainValues, AColumnAcrossAloneIsNoStrainAlong)
{
    const Result<PieceReading> reading =
        readPull("Force (N);Transverse strain (%)\n0;0\n100;-0.01\n200;-0.02\n10;-0.02\n");
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_EQ(valueOf(reading->result.values, "tensile_modulus"), nullptr);
    EXPECT_EQ(valueOf(reading->result.values, "poissons_ratio"), nullptr);
}

TEST(StrainValues, TheStrainRateIsHeldAgainstThePlannedOne)
{
    // By hand: 0.01 in 120 samples of 0.5 s is 1 %/min.
    Result<PieceReading> reading = readPull(pull(0.35, "Transverse strain (%)", 0.0, 1));
    ASSERT_TRUE(reading);
    EXPECT_NEAR(test::readValue(reading->result, "strain_rate"), 1.0, 1e-6); // strains are written to 1e-6 %
    constexpr std::string_view kRule = "the strain rate is the planned one";
    EXPECT_EQ(findCheck(reading->result, kRule), nullptr);
    reading = readPull(pull(0.35, "Transverse strain (%)", 0.0, 1), {{"strain_rate", 1.15}});
    ASSERT_TRUE(reading);
    ASSERT_NE(findCheck(reading->result, kRule), nullptr);
    EXPECT_TRUE(findCheck(reading->result, kRule)->ok);
    reading = readPull(pull(0.35, "Transverse strain (%)", 0.0, 1), {{"strain_rate", 2.0}});
    ASSERT_TRUE(reading);
    EXPECT_FALSE(findCheck(reading->result, kRule)->ok);
}

TEST(StrainValues, WhatAnElastomerDoesNotTakeBackIsLeft)
{
    const Result<PieceReading> reading =
        readPull(pull(0.45, "Transverse strain (%)", 0.0, 1), {{"length_after", 53.0}});
    ASSERT_TRUE(reading);
    EXPECT_NEAR(test::readValue(reading->result, "strain_left"), 0.06, 1e-12);
}

TEST(StrainValues, MoreThanHalfIsDoubted)
{
    const Result<PieceReading> reading = readPull(pull(0.7, "Transverse strain (%)", 0.0, 1));
    ASSERT_TRUE(reading);
    EXPECT_NE(reading->result.warnings.back().find("keeps its volume"), std::string::npos);
}

TEST(StrainValues, NothingIsReadFromOneSampleOrAStrainThatStandsStill)
{
    const std::vector<double> still{0.001, 0.001, 0.001};
    const std::vector<double> moving{0.0, 1.0, 2.0};
    EXPECT_FALSE(poissonsRatio(still, moving, {0, 2}));
    EXPECT_FALSE(poissonsRatio(moving, still, {1, 1}));
    EXPECT_FALSE(poissonsRatio(moving, {}, {0, 2}));
    EXPECT_FALSE(strainRate_percent_per_min(moving, still, {0, 2}));
}

} // namespace inchpeg
