// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/curve/curve_pyramid.h"

#include "core/base/contract.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr std::size_t kBlock = 16;
/// A box of this many picture points is drawn as one stroke.
constexpr double kOneStroke = 1.0;
constexpr double kWholeWidth = 1000.0;
constexpr double kWholeHeight = 700.0;

std::size_t blocksOf(std::size_t count)
{
    return (count + kBlock - 1) / kBlock;
}

} // namespace

/// Collects the line. Of the points that follow each other within one column of picture points it keeps the
/// first, the lowest, the highest and the last: they look like all of them.
struct CurvePyramid::Drawing {
    explicit Drawing(const PlotWindow &shown) : window(shown) {}

    const PlotWindow &window;
    std::vector<PlotPoint> points;

    void add(double x, double y)
    {
        const PlotPoint point{x, y};
        const double column = std::floor((x - window.left) / window.perPixelX);
        if (m_count > 0 && column != m_column)
            finishColumn();
        m_column = column;
        if (m_count == 0)
            m_first = m_lowest = m_highest = point;
        if (y < m_lowest.y) {
            m_lowest = point;
            m_lowestIsLater = true;
        }
        if (y > m_highest.y) {
            m_highest = point;
            m_lowestIsLater = false;
        }
        m_last = point;
        ++m_count;
    }

    void finishColumn()
    {
        if (m_count == 0)
            return;
        keep(m_first);
        keep(m_lowestIsLater ? m_highest : m_lowest);
        keep(m_lowestIsLater ? m_lowest : m_highest);
        keep(m_last);
        m_count = 0;
        m_lowestIsLater = false;
    }

private:
    void keep(const PlotPoint &point)
    {
        if (points.empty() || !(points.back() == point))
            points.push_back(point);
    }

    double m_column = 0.0;
    std::size_t m_count = 0;
    PlotPoint m_first, m_lowest, m_highest, m_last;
    bool m_lowestIsLater = false;
};

CurvePyramid::CurvePyramid(std::span<const double> x, std::span<const double> y) : m_x(x), m_y(y)
{
    require(x.size() == y.size(), "CurvePyramid: lengths differ");
    if (x.empty())
        return;
    std::vector<Box> finest(blocksOf(x.size()));
    for (std::size_t b = 0; b < finest.size(); ++b) {
        const std::size_t first = b * kBlock;
        Box box{x[first], x[first], y[first], y[first]};
        for (std::size_t i = first + 1; i < std::min(first + kBlock, x.size()); ++i) {
            box.left = std::min(box.left, x[i]);
            box.right = std::max(box.right, x[i]);
            box.bottom = std::min(box.bottom, y[i]);
            box.top = std::max(box.top, y[i]);
        }
        finest[b] = box;
    }
    m_levels.push_back(std::move(finest));
    while (m_levels.back().size() > 1) {
        const std::vector<Box> &below = m_levels.back();
        std::vector<Box> level(blocksOf(below.size()));
        for (std::size_t b = 0; b < level.size(); ++b) {
            Box box = below[b * kBlock];
            for (std::size_t i = b * kBlock + 1; i < std::min((b + 1) * kBlock, below.size()); ++i) {
                box.left = std::min(box.left, below[i].left);
                box.right = std::max(box.right, below[i].right);
                box.bottom = std::min(box.bottom, below[i].bottom);
                box.top = std::max(box.top, below[i].top);
            }
            level[b] = box;
        }
        m_levels.push_back(std::move(level));
    }
}

std::vector<PlotPoint> CurvePyramid::line(const PlotWindow &window) const
{
    require(window.perPixelX > 0.0 && window.perPixelY > 0.0, "CurvePyramid: a window without a size");
    Drawing drawing(window);
    if (!m_levels.empty())
        draw(m_levels.size() - 1, 0, drawing);
    if (!m_x.empty())
        drawing.add(m_x.back(), m_y.back());
    drawing.finishColumn();
    return std::move(drawing.points);
}

void CurvePyramid::draw(std::size_t level, std::size_t index, Drawing &drawing) const
{
    const Box &box = m_levels[level][index];
    std::size_t first = index;
    std::size_t last = index + 1; // one past the end, in samples after the loop
    for (std::size_t l = 0; l <= level; ++l) {
        first *= kBlock;
        last *= kBlock;
    }
    last = std::min(last, m_x.size()) - 1;

    const PlotWindow &window = drawing.window;
    const bool outside = box.right < window.left || box.left > window.right || box.top < window.bottom ||
                         box.bottom > window.top;
    const bool narrow = box.right - box.left <= kOneStroke * window.perPixelX;
    const bool flat = box.top - box.bottom <= kOneStroke * window.perPixelY;
    if (outside || narrow || flat) {
        drawing.add(m_x[first], m_y[first]);
        if (!outside && narrow && !flat) {
            drawing.add(m_x[first], box.bottom);
            drawing.add(m_x[first], box.top);
        } else if (!outside && flat && !narrow) {
            drawing.add(box.left, m_y[first]);
            drawing.add(box.right, m_y[first]);
        }
        if (outside || !narrow || !flat)
            drawing.add(m_x[last], m_y[last]);
        return;
    }
    if (level == 0) {
        for (std::size_t i = first; i <= last; ++i)
            drawing.add(m_x[i], m_y[i]);
        return;
    }
    const std::size_t end = std::min((index + 1) * kBlock, m_levels[level - 1].size());
    for (std::size_t child = index * kBlock; child < end; ++child)
        draw(level - 1, child, drawing);
}

PlotWindow CurvePyramid::wholeWindow() const
{
    if (m_levels.empty())
        return {};
    const Box &box = m_levels.back().front();
    const double width = std::max(box.right - box.left, 1e-300);
    const double height = std::max(box.top - box.bottom, 1e-300);
    return {box.left, box.right, box.bottom, box.top, width / kWholeWidth, height / kWholeHeight};
}

} // namespace inchpeg
