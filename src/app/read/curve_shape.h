// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/curve/curve_pyramid.h"

#include <vector>

namespace inchpeg::app
{

/// A curve in the units of the plot, ready to be drawn at any zoom. Does not move: the pyramids look into it.
class CurveShape
{
public:
    /// x, y: equally long, breakAt: index of the last point before the break.
    CurveShape(std::vector<double> x, std::vector<double> y, std::size_t breakAt)
        : m_x(std::move(x)), m_y(std::move(y)),
          m_body(std::span(m_x).first(breakAt + 1), std::span(m_y).first(breakAt + 1)),
          m_tail(std::span(m_x).subspan(breakAt), std::span(m_y).subspan(breakAt))
    {
    }
    CurveShape(const CurveShape &) = delete;
    CurveShape &operator=(const CurveShape &) = delete;

    [[nodiscard]] const std::vector<double> &x() const { return m_x; }
    [[nodiscard]] const std::vector<double> &y() const { return m_y; }
    [[nodiscard]] const CurvePyramid &body() const { return m_body; } ///< up to the break
    [[nodiscard]] const CurvePyramid &tail() const { return m_tail; } ///< from the break on

private:
    std::vector<double> m_x;
    std::vector<double> m_y;
    CurvePyramid m_body;
    CurvePyramid m_tail;
};

} // namespace inchpeg::app
