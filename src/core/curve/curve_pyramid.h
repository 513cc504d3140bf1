// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <span>
#include <vector>

namespace inchpeg
{

struct PlotPoint {
    double x = 0.0;
    double y = 0.0;
    bool operator==(const PlotPoint &) const = default;
};

/// The part of the plane that is looked at, and how much of it one picture point covers.
struct PlotWindow {
    double left = 0.0;
    double right = 1.0;
    double bottom = 0.0;
    double top = 1.0;
    double perPixelX = 1e-3;
    double perPixelY = 1e-3;
};

/// Bounding boxes of a curve at rising coarseness, so that ten million samples are drawn by looking at a few
/// thousand of them. The curve may run anywhere; it need not go from left to right.
///
/// Holds the spans it was made from: they must outlive it.
class CurvePyramid
{
public:
    CurvePyramid() = default;
    /// x, y: equally long, finite.
    CurvePyramid(std::span<const double> x, std::span<const double> y);

    /// A line that looks like the whole curve in this window: every turn that is more than a picture point
    /// away from its neighbours is there; what lies outside is cut to the points where it leaves and enters.
    [[nodiscard]] std::vector<PlotPoint> line(const PlotWindow &window) const;

    [[nodiscard]] std::size_t size() const { return m_x.size(); }
    /// The whole curve's box, 1000 by 700 picture points; an empty window for an empty curve.
    [[nodiscard]] PlotWindow wholeWindow() const;

private:
    struct Box {
        double left, right, bottom, top;
    };
    struct Drawing;
    void draw(std::size_t level, std::size_t index, Drawing &drawing) const;

    std::span<const double> m_x;
    std::span<const double> m_y;
    std::vector<std::vector<Box>> m_levels; ///< finest first; the last holds one box
};

} // namespace inchpeg
