// SPDX-License-Identifier: GPL-3.0-or-later
// What is said of a shape, over made studies whose truth is known.
#include "core/base/random.h"
#include "core/compare/shape_along_levels.h"
#include "support/calibration.h"
#include "support/study_builder.h"

#include <fmt/format.h>

#include <cmath>
#include <functional>

namespace inchpeg
{

namespace
{

using Curve = std::function<double(double)>;

int playsEach()
{
    return test::simulatedStudies(60);
}

std::optional<LevelShape> shapeOf(const std::vector<double> &levels, int pieces, double cv,
                                  const Curve &truth, Random &random)
{
    test::StudyBuilder builder;
    builder.study.plan.aim.comparison = Comparison::Trend;
    for (const double level : levels) {
        std::vector<double> values;
        for (int i = 0; i < pieces; ++i)
            values.push_back(truth(level) * (1.0 + cv * random.normal()));
        builder.rail(fmt::format("{:g}", level), values);
    }
    const StudyComparison comparison = test::strengthCompared(builder);
    const ComparedRails rails = comparedRails(builder.study, comparison);
    return shapeAlongLevels(comparison, rails);
}

std::vector<double> stepped(int count, bool isEven)
{
    std::vector<double> levels;
    double at = 200.0;
    for (int i = 0; i < count; ++i) {
        levels.push_back(at);
        at += isEven || i % 2 == 0 ? 10.0 : 20.0;
    }
    return levels;
}

struct Played {
    int turns = 0;
    int held = 0;
    int studies = 0;
};

/// Over three to eight levels, even and uneven steps, few and many pieces, little and much scatter.
Played play(const std::function<Curve(double low, double high)> &made,
            const std::function<double(double, double)> &turn)
{
    Random random(test::simulationSeed(2026));
    Played played;
    for (int count = 3; count <= 8; ++count) {
        for (const bool isEven : {true, false}) {
            for (const int pieces : {3, 6}) {
                for (const double cv : {0.01, 0.04}) {
                    const std::vector<double> levels = stepped(count, isEven);
                    const Curve truth = made(levels.front(), levels.back());
                    for (int run = 0; run < playsEach() / 4; ++run) {
                        ++played.studies;
                        const std::optional<LevelShape> shape = shapeOf(levels, pieces, cv, truth, random);
                        if (!shape || shape->kind != LevelShape::Kind::Turn)
                            continue;
                        ++played.turns;
                        const double at = turn(levels.front(), levels.back());
                        played.held +=
                            shape->isMaximum && shape->where.low <= at && at <= shape->where.high ? 1 : 0;
                    }
                }
            }
        }
    }
    return played;
}

void expectHeld(const char *what, const Played &played)
{
    test::expectKept(std::string(what) + ": the interval of a turn holds it", test::atLeast(0.93),
                     played.held, played.turns);
}

} // namespace

TEST(ShapeAlongLevels, AnIntervalOfATurnHoldsItWhateverTheCurve)
{
    for (const double place : {0.3, 0.5, 0.75}) {
        const auto turn = [place](double low, double high) { return low + place * (high - low); };
        expectHeld("parabola", play(
                                   [&](double low, double high) -> Curve {
                                       return [=](double x) {
                                           const double t = (x - turn(low, high)) / (high - low);
                                           return 40.0 * (1.0 - 0.6 * t * t);
                                       };
                                   },
                                   turn));
        expectHeld("narrow peak", play(
                                      [&](double low, double high) -> Curve {
                                          return [=](double x) {
                                              const double t = (x - turn(low, high)) / (0.12 * (high - low));
                                              return 40.0 * (1.0 + 0.3 * std::exp(-t * t));
                                          };
                                      },
                                      turn));
        expectHeld("skewed peak", play(
                                      [&](double low, double high) -> Curve {
                                          return [=](double x) {
                                              const double t = (x - turn(low, high)) / (high - low);
                                              return 40.0 *
                                                     (1.0 - (t < 0.0 ? 0.5 * t * t : 1.6 * t * t + 0.2 * t));
                                          };
                                      },
                                      turn));
    }
}

TEST(ShapeAlongLevels, NoPeakIsInventedOnAPlateauOrARamp)
{
    const auto nowhere = [](double, double) { return std::nan(""); };
    const auto falsely = [&](const char *what, const std::function<Curve(double, double)> &made) {
        const Played played = play(made, nowhere);
        test::expectKept(std::string(what) + ": a turn is invented", test::atMost(0.05), played.turns,
                         played.studies);
    };
    falsely("flat", [](double, double) -> Curve { return [](double) { return 40.0; }; });
    falsely("straight", [](double low, double high) -> Curve {
        return [=](double x) { return 40.0 * (1.0 + 0.5 * (x - low) / (high - low)); };
    });
    for (const double knee : {0.25, 0.5}) {
        falsely("ramp with a knee", [knee](double low, double high) -> Curve {
            return [=](double x) { return 40.0 * (1.0 + 0.5 * std::min(knee, (x - low) / (high - low))); };
        });
        falsely("rises and bends towards a plateau", [](double low, double high) -> Curve {
            return [=](double x) { return 40.0 * (2.0 - std::exp(-4.0 * (x - low) / (high - low))); };
        });
    }
}

// The case that was told "highest near 257 °C (255 to 260)", its next levels put there.
TEST(ShapeAlongLevels, APlateauIsToldToStay)
{
    Random random(3);
    const std::vector<double> levels{220, 235, 250, 260, 270};
    const std::optional<LevelShape> shape = shapeOf(
        levels, 5, 0.02, [](double x) { return x < 230.0 ? 26.0 : 40.0 + (x == 260.0 ? -0.3 : 0.0); },
        random);
    ASSERT_TRUE(shape);
    EXPECT_EQ(shape->kind, LevelShape::Kind::Stays);
    EXPECT_TRUE(shape->isAtTheEnd);
    EXPECT_TRUE(shape->rises);
    EXPECT_EQ(shape->stays.low, 235.0);
    EXPECT_EQ(shape->stays.high, 270.0);
    ASSERT_TRUE(shape->changePerEnds) << "and no straight line is claimed";
    EXPECT_NEAR(*shape->changePerEnds, std::log(40.0 / 26.0), 0.05);
}

TEST(ShapeAlongLevels, AStraightLineIsOne)
{
    Random random(5);
    int straight = 0;
    constexpr int kStudies = 100;
    for (int run = 0; run < kStudies; ++run) {
        const std::optional<LevelShape> shape = shapeOf(
            {200, 220, 240, 260}, 5, 0.03, [](double x) { return 30.0 * std::exp(0.004 * (x - 200.0)); },
            random);
        ASSERT_TRUE(shape);
        straight += shape->kind == LevelShape::Kind::Straight ? 1 : 0;
    }
    EXPECT_GE(straight, 85) << "5 % for the curve, 5 % for the lack of fit";
}

} // namespace inchpeg
