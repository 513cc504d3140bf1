// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/curve/curve_pyramid.h"
#include "sim/random.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace inchpeg
{

namespace
{

struct Curve {
    std::vector<double> x;
    std::vector<double> y;
};

Curve noisyCurve(std::size_t n)
{
    sim::Random random(5);
    Curve curve;
    for (std::size_t i = 0; i < n; ++i) {
        const double t = static_cast<double>(i) / static_cast<double>(n);
        curve.x.push_back(t + 1e-7 * random.normal());
        curve.y.push_back(std::sin(9.0 * t) + 0.02 * random.normal());
    }
    return curve;
}

/// Lowest and highest y of each column of picture points.
std::map<long, std::pair<double, double>> columnsOf(const std::vector<PlotPoint> &points,
                                                    const PlotWindow &window)
{
    std::map<long, std::pair<double, double>> columns;
    for (const PlotPoint &point : points) {
        const long column = std::lround(std::floor((point.x - window.left) / window.perPixelX));
        const auto [entry, isNew] = columns.try_emplace(column, point.y, point.y);
        entry->second.first = std::min(entry->second.first, point.y);
        entry->second.second = std::max(entry->second.second, point.y);
    }
    return columns;
}

std::vector<PlotPoint> allPoints(const Curve &curve)
{
    std::vector<PlotPoint> points;
    for (std::size_t i = 0; i < curve.x.size(); ++i)
        points.push_back({curve.x[i], curve.y[i]});
    return points;
}

} // namespace

TEST(CurvePyramid, AShortCurveIsGivenBackAsItIs)
{
    const Curve curve{{0, 1, 2, 3}, {0, 5, 2, 7}};
    const CurvePyramid pyramid(curve.x, curve.y);
    EXPECT_EQ(pyramid.line(pyramid.wholeWindow()), allPoints(curve));
}

TEST(CurvePyramid, NothingIsDrawnOfNothing)
{
    EXPECT_TRUE(CurvePyramid().line({}).empty());
    EXPECT_TRUE(CurvePyramid({}, {}).line({}).empty());
}

TEST(CurvePyramid, FewPointsReachAsHighAndLowAsAll)
{
    const Curve curve = noisyCurve(300000);
    const CurvePyramid pyramid(curve.x, curve.y);
    const PlotWindow window = pyramid.wholeWindow();
    const std::vector<PlotPoint> line = pyramid.line(window);
    EXPECT_LT(line.size(), 20000U) << "of 300,000 samples at 1000 picture points";
    const auto drawn = columnsOf(line, window);
    for (const auto &[column, range] : columnsOf(allPoints(curve), window)) {
        // A stroke may start one picture point to the left of where its highest sample is.
        double low = 1e9;
        double high = -1e9;
        for (long c = column - 1; c <= column + 1; ++c) {
            if (const auto found = drawn.find(c); found != drawn.end()) {
                low = std::min(low, found->second.first);
                high = std::max(high, found->second.second);
            }
        }
        EXPECT_LE(low, range.first + window.perPixelY) << column;
        EXPECT_GE(high, range.second - window.perPixelY) << column;
    }
}

TEST(CurvePyramid, ZoomedInEverySampleIsThereAndFarOnesAreNot)
{
    const Curve curve = noisyCurve(300000);
    const CurvePyramid pyramid(curve.x, curve.y);
    const PlotWindow window{0.5, 0.5003, -2.0, 2.0, 0.0003 / 1000.0, 4.0 / 700.0};
    const std::vector<PlotPoint> line = pyramid.line(window);
    for (std::size_t i = 0; i < curve.x.size(); ++i) {
        if (curve.x[i] > window.left && curve.x[i] < window.right) {
            EXPECT_NE(std::find(line.begin(), line.end(), PlotPoint{curve.x[i], curve.y[i]}), line.end())
                << i;
        }
    }
    EXPECT_LT(line.size(), 600U) << "90 samples are inside";
}

TEST(CurvePyramid, ACurveThatRunsBackAndForthIsKept)
{
    // Loading and unloading: x is no function of the sample.
    Curve curve;
    for (int i = 0; i <= 10000; ++i) {
        curve.x.push_back(std::abs(std::sin(i * 0.001)));
        curve.y.push_back(i * 1e-4);
    }
    const CurvePyramid pyramid(curve.x, curve.y);
    const std::vector<PlotPoint> line = pyramid.line(pyramid.wholeWindow());
    EXPECT_EQ(line.front(), (PlotPoint{curve.x.front(), curve.y.front()}));
    EXPECT_EQ(line.back(), (PlotPoint{curve.x.back(), curve.y.back()}));
    const auto turns = [](const auto &xs, auto x) {
        int count = 0;
        for (std::size_t i = 2; i < xs.size(); ++i)
            count += (x(xs[i]) - x(xs[i - 1])) * (x(xs[i - 1]) - x(xs[i - 2])) < 0 ? 1 : 0;
        return count;
    };
    // A turn within one picture point may go.
    EXPECT_GE(turns(line, [](const PlotPoint &p) { return p.x; }) + 1,
              turns(curve.x, [](double x) { return x; }));
}

} // namespace inchpeg
